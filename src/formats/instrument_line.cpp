#include "formats/instrument_line.hpp"

#include <array>

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

using namespace build;

/// At most `most` words; the last takes the rest of the line.
std::vector<std::string_view> words(std::string_view line, size_t most) {
    std::vector<std::string_view> list;
    for (size_t at = 0; at < line.size();) {
        const size_t start = line.find_first_not_of(' ', at);
        if (start == std::string_view::npos) break;
        const size_t stop =
            list.size() + 1 == most ? line.find_last_not_of(' ') + 1 : std::min(line.find(' ', start), line.size());
        list.push_back(line.substr(start, stop - start));
        at = stop;
    }
    return list;
}

/// As it can be shown: no control characters, not too long.
std::string shown(std::string_view line) {
    std::string text(line.substr(0, 60));
    for (char& c : text)
        if (static_cast<unsigned char>(c) < 32 || c == 127) c = '?';
    return text;
}

Error bad(std::string_view line, std::string why, std::string remedy = {}) {
    return Error{Error::Code::BadInput, shown(line), fmt::format("The instrument said \"{}\": {}", shown(line), why),
                 std::move(remedy), -1};
}

bool plain(std::string_view line) {
    for (const char c : line)
        if (static_cast<unsigned char>(c) < 32 || c == 127) return false;
    return true;
}

Result<InstrumentSays> reading(std::string_view line, InstrumentSays says, const std::string& figure) {
    // the unit says what it is; a bare number is nobody's guess
    struct Tried {
        units::Kind kind;
        units::Unit unit;
    };
    static constexpr std::array<Tried, 3> kinds{{{units::Kind::Length, units::Unit::Millimetre},
                                                 {units::Kind::Angle, units::Unit::Degree},
                                                 {units::Kind::Mass, units::Unit::Kilogram}}};
    std::string why;
    for (const Tried& tried : kinds) {
        const auto parsed = units::parse(figure, tried.kind, tried.unit);
        if (!parsed) {
            if (why.empty()) why = parsed.error().message;
            continue;
        }
        if (parsed->bare)
            return bad(line, "a figure without a unit is not taken.",
                       "Set the instrument to send its unit: reads NAME 2164.2 mm");
        says.value = {parsed->value, parsed->typed, Provenance::Measured};
        says.quantity = tried.kind;
        return says;
    }
    return bad(line, why.empty() ? "no figure." : why);
}

} // namespace

Result<InstrumentSays> readInstrumentLine(std::string_view line) {
    if (line.size() > longest_instrument_line) return bad(line, "the line is too long.");
    if (!plain(line)) return bad(line, "that is no text.", "Check the speed of the serial line, and what is plugged in.");
    const auto w = words(line, 3);
    if (w.empty()) return bad(line, "an empty line.");
    InstrumentSays says;
    if (w[0] == "hello") {
        if (w.size() < 3) return bad(line, "a hello is: hello KIND NAME.");
        const auto kind = fromWord<InstrumentKind>(w[1]);
        if (!kind) return bad(line, "that kind of instrument is not known.", "Kinds are " + wordList<InstrumentKind>() + ".");
        says.what = InstrumentSays::What::Hello;
        says.kind = *kind;
        says.name = w[2];
        if (says.name.find(' ') != std::string::npos) return bad(line, "an instrument's name is one word.");
        return says;
    }
    if (w.size() >= 2) says.name = w[1];
    if (w[0] == "bye" && w.size() == 2) {
        says.what = InstrumentSays::What::Bye;
        return says;
    }
    if (w[0] == "trouble" && w.size() == 3) {
        says.what = InstrumentSays::What::Trouble;
        says.text = w[2];
        return says;
    }
    if (w[0] == "reads" && w.size() == 3) {
        says.what = InstrumentSays::What::Reads;
        return reading(line, says, std::string(w[2]));
    }
    return bad(line, "this is not understood.", "An instrument says hello, reads, trouble or bye.");
}

std::string atLine(std::string_view kind, std::string_view from, std::string_view to) {
    return fmt::format("at {} {}{}{}", kind, from, to.empty() ? "" : " ", to);
}

Result<Asked> readAskedLine(std::string_view line) {
    if (line.size() > longest_instrument_line || !plain(line)) return bad(line, "that is no text.");
    const auto w = words(line, 5);
    Asked asked;
    if (w.size() == 1 && w[0] == "take") {
        asked.take = true;
        return asked;
    }
    if (w.empty() || w[0] != "at" || w.size() < 3 || w.size() > 4)
        return bad(line, "this is not understood.", "Say: at KIND NAME [NAME], or take.");
    asked.kind = w[1];
    asked.from = w[2];
    if (w.size() == 4) asked.to = w[3];
    return asked;
}

std::vector<std::string> LineCutter::feed(std::string_view piece) {
    std::vector<std::string> lines;
    for (const char c : piece) {
        if (c == '\n') {
            if (!skipping_) {
                if (!rest_.empty() && rest_.back() == '\r') rest_.pop_back();
                lines.push_back(rest_);
            }
            rest_.clear();
            skipping_ = false;
        } else if (!skipping_) {
            rest_ += c;
            if (rest_.size() > longest_instrument_line + 1) {
                rest_.clear();
                skipping_ = true;
                ++too_long_;
            }
        }
    }
    return lines;
}

} // namespace gorvet::formats
