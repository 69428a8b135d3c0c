// Snapshots that any program may have written: what is taken for a build can be analysed, shown and kept again.
#include "analysis/results.hpp"
#include "build/edit.hpp"

#include <cstdint>
#include <cstdlib>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    auto b = build::buildFromJson({reinterpret_cast<const char*>(data), size});
    if (!b || !build::consistent(*b)) return 0;
    const auto text = build::buildToJson(*b);
    if (!text) std::abort(); // it was read from JSON
    const auto again = build::buildFromJson(*text);
    if (!again || !(*again == *b)) std::abort();
    (void)analysis::analyse(*b, 1);
    return 0;
}
