// The library that makes solids: found, not found, and not the one that belongs to this program.
#include "shape/solid_kernel.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cstring>
#include <dlfcn.h>
#include <fstream>
#include <unistd.h>

namespace shape_kernel_test {

using namespace gorvet;
using namespace gorvet::shape;
namespace fs = std::filesystem;

namespace {

/// The library that this program opens.
fs::path own() {
    for (const fs::path& place : solidKernelPlaces(fs::read_symlink("/proc/self/exe")))
        if (fs::exists(place)) return place;
    FAIL("no library stands where it is looked for");
    return {};
}

void refused(const fs::path& place, const std::string& why) {
    const auto opened = openSolidKernel({place});
    REQUIRE_FALSE(opened);
    CHECK(opened.error().code == Error::Code::File);
    CHECK_THAT(opened.error().text(),
               Catch::Contains(why) && Catch::Contains(place.string()) && Catch::Contains("start it again"));
}

} // namespace

TEST_CASE("the library of solids is looked for beside the program and above it", "[shape]") {
    CHECK(solidKernelPlaces("/opt/x/bin/gorvet-cli") == std::vector<fs::path>{"/opt/x/bin/lib/gorvet/modules/libgorvet_solids.so",
                                                                              "/opt/x/lib/gorvet/modules/libgorvet_solids.so",
                                                                              "/opt/lib/gorvet/modules/libgorvet_solids.so"});
    const auto opened = openSolidKernel({"/nowhere/libgorvet_solids.so", own()});
    REQUIRE(opened);
    // no function of the table was forgotten: it is pointers alone
    std::array<void*, sizeof(SolidKernel) / sizeof(void*)> table{};
    std::memcpy(table.data(), *opened, sizeof(SolidKernel));
    for (std::size_t place = 0; place < table.size(); ++place) {
        INFO(place);
        CHECK(table[place] != nullptr);
    }
    CHECK((*opened)->volume(*(*opened)->cylinder(10, 5)) == Approx(3.14159265358979 * 500));
}

TEST_CASE("another version's library of solids is refused, and one that is none", "[shape]") {
    const fs::path folder = test::freshFolder("solid-kernel");
    refused(folder / "none.so", "there is no");
    std::ofstream(folder / "text.so") << "no library";
    refused(folder / "text.so", "can't be opened");
    // a library, but not this one: the one that opens files
    Dl_info standard{};
    REQUIRE(dladdr(dlsym(RTLD_DEFAULT, "fopen"), &standard) != 0);
    refused(fs::canonical(standard.dli_fname), "another version");

    // the same library, made from other headers
    std::string bytes = test::fileText(own());
    const auto opened = openSolidKernel({own()});
    REQUIRE(opened);
    const auto at = bytes.find((*opened)->stamp);
    REQUIRE(at != std::string::npos);
    bytes[at] = bytes[at] == '0' ? '1' : '0';
    std::ofstream(folder / "other.so", std::ios::binary) << bytes;
    refused(folder / "other.so", "another version");
    CHECK_FALSE(openSolidKernel({folder / "other.so", own()})); // the first that is there

    // the right one, put there by somebody else
    fs::copy_file(own(), folder / "mine.so");
    CHECK(openSolidKernel({folder / "mine.so"}));
    if (chown((folder / "mine.so").c_str(), 12345, 12345) == 0) // root alone can give files away
        refused(folder / "mine.so", "belongs neither to root");
    CHECK_FALSE(openSolidKernel({}));
}

} // namespace shape_kernel_test
