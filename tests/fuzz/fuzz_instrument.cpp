// What comes over an instrument's line: understood or refused in words that can be shown, however it is cut up.
#include "formats/instrument_line.hpp"

#include <cmath>
#include <cstdint>
#include <cstdlib>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::string_view all(reinterpret_cast<const char*>(data), size);
    formats::LineCutter whole;
    formats::LineCutter pieces;
    const auto lines = whole.feed(all);
    std::vector<std::string> again;
    for (std::size_t at = 0; at < size;) {
        const std::size_t n = 1 + data[at] % 7;
        for (auto& line : pieces.feed(all.substr(at, n))) again.push_back(line);
        at += n;
    }
    if (lines != again || whole.tooLong() != pieces.tooLong()) std::abort();
    for (const std::string& line : lines) {
        const auto said = formats::readInstrumentLine(line);
        if (said) {
            if (said->what == formats::InstrumentSays::What::Reads && !std::isfinite(said->value.value)) std::abort();
            if (said->name.empty()) std::abort();
        } else {
            if (said.error().message.empty()) std::abort();
            for (const char c : said.error().message)
                if (static_cast<unsigned char>(c) < 32 || c == 127) std::abort();
        }
        if (const auto asked = formats::readAskedLine(line); asked && !asked->take) {
            const auto back = formats::readAskedLine(formats::atLine(asked->kind, asked->from, asked->to));
            if (!back || back->from != asked->from || back->to != asked->to) std::abort();
        }
    }
    return 0;
}
