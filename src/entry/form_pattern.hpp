#pragma once

#include <string>
#include <string_view>
#include <vector>

/// The forms of lines as they are shown, read as a grammar. Internal to this room.
///
/// A pattern is one or more forms with ", " between them. Words in small letters stand for themselves, "a|b" for one of them;
/// words in capitals, and "length", "angle", "mass", "figure", "number", "n", "x", "y", "z", "text", are filled in; "[…]" may be
/// left out; "NAME…" stands once or more. A form that begins with "…" may follow a reading.
namespace gorvet::entry {

struct FormItem {
    std::vector<std::string> words; ///< any of these, literal
    std::vector<std::string> slots; ///< or one of these, filled in
    std::vector<FormItem> group;    ///< not empty: all of it may be left out
    bool repeat = false;
};
struct FormPattern {
    std::vector<FormItem> items;
    bool suffix = false; ///< began with "…"
};
std::vector<FormPattern> readPattern(std::string_view pattern);
/// Whether a slot is filled with a figure.
bool isFigureSlot(std::string_view slot);

} // namespace gorvet::entry
