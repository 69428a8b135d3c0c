// Readings CSV from anywhere: read, kept, written and read again.
#include "build/edit.hpp"
#include "formats/readings_csv.hpp"

#include <cstdint>
#include <cstdlib>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    build::Build b;
    auto read = formats::readReadings(text, b, build::the_chassis, {}, "import");
    if (!read) {
        if (read.error().message.empty()) std::abort(); // an error says why
        return 0;
    }
    for (const auto& problem : read->problems)
        if (problem.sentence().empty()) std::abort();
    if (read->edit.changes.empty()) return 0;
    auto kept = build::enact(b, read->edit);
    if (!kept) std::abort(); // what the reader gives can be kept
    const std::string written = formats::writeReadings(b, build::the_chassis);
    build::Build again;
    auto back = formats::readReadings(written, again, build::the_chassis, {}, "import");
    if (!back || !back->problems.empty()) std::abort(); // what we write we read
    return 0;
}
