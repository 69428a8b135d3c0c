// Where a command is told to write: any name, any thing there already. Never over a build or an input, never half, nothing left
// over.
#include "files/out_file.hpp"

#include <cstdint>
#include <cstdlib>
#include <fstream>
#include <map>
#include <string>
#include <unistd.h>

using namespace gorvet;
namespace fs = std::filesystem;

namespace {

std::string bytesOf(const fs::path& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

} // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size < 4) return 0;
    static const fs::path folder = [] {
        std::string name = (access("/dev/shm", W_OK) == 0 ? "/dev/shm" : "/tmp") + std::string("/gorvet-out-XXXXXX");
        if (!mkdtemp(name.data())) std::abort();
        return fs::path(name);
    }();
    std::error_code ec;
    for (const auto& entry : fs::directory_iterator(folder)) fs::remove_all(entry.path(), ec);
    std::string build(100, '\0');
    build.replace(0, 16, std::string("SQLite format 3\0", 16));
    build.replace(68, 4, "Gorv");
    static constexpr const char* endings[] = {".gorvet", ".pdf", ".svg", ".dxf", ".step", ".ply",
                                              ".stl",    ".csv", ".png", ".txt", "",      ".GORVET"};
    static constexpr const char* heads[] = {"",      "%PDF-1.5", "<?xml?><svg", "0\nSECTION", "ISO-10303-21;",
                                            "ply\n", "solid",    "a,b\n",       "\x89PNG",    "MZ"};
    // what is there: up to four files, one of them a build under some name, one an input
    std::map<fs::path, std::string> sacred;
    for (size_t i = 0; i < 4; ++i) {
        const int pick = data[i % size];
        const fs::path path = folder / ("f" + std::to_string(pick % 5) + endings[(pick / 5) % 12]);
        if (fs::exists(path)) continue;
        const std::string bytes = i == 0 ? build : heads[pick % 10];
        std::ofstream(path, std::ios::binary) << bytes;
        if (i == 0 || path.extension() == ".gorvet") sacred[path] = bytes;
    }
    if (data[1] & 1) fs::create_directory(folder / "f1.pdf", ec);
    if (data[1] & 2) fs::create_symlink(folder / "f0.pdf", folder / "f2.pdf", ec);
    if (data[1] & 4) fs::create_symlink(folder / "f3.pdf", folder / "f3.pdf", ec); // round and round
    // the name is made from the bytes
    std::string name(reinterpret_cast<const char*>(data) + 2, std::min<size_t>(size - 2, 40));
    if (data[0] & 1)
        name = "f" + std::to_string(data[2] % 5) + endings[data[3] % 12];
    else
        for (char& c : name)
            if (c == '/' || c == '\0') c = '_';
    const fs::path to = folder / name;
    const auto kind = static_cast<files::Kind>(data[1] % 8);
    const bool fails = data[2] % 3 == 0;
    const std::string before = fs::is_regular_file(to, ec) ? bytesOf(to) : "";
    const bool was = fs::is_regular_file(to, ec);
    const auto put = files::put(to, kind, [&](const fs::path& at) -> Result<void> {
        std::ofstream(at, std::ios::binary) << "half";
        if (fails) return Error{Error::Code::File, at.string(), "fails", "", -1};
        return {};
    });
    if (put && fails) std::abort();
    if (put && bytesOf(to) != "half") std::abort();
    if (!put && put.error().message.empty()) std::abort();
    if (!put && was && bytesOf(to) != before) std::abort();
    for (const auto& [path, bytes] : sacred)
        if (fs::is_regular_file(path, ec) && bytesOf(path) != bytes) std::abort();
    for (const auto& entry : fs::directory_iterator(folder))
        if (const std::string left = entry.path().filename().string();
            left.starts_with(".") && left.find(".f") == 0 && bytesOf(entry.path()) == "half" && entry.path() != to)
            std::abort();
    return 0;
}
