#pragma once

#include <optional>
#include <string>
#include <string_view>

/// What is text at all: valid UTF-8, without signs that a person can't see.
namespace gorvet::units {

/// A place in a text that is wrong.
struct BadText {
    size_t byte = 0;
    int column = 0;   ///< in characters, from 0
    std::string what; ///< "is no UTF-8", "a control sign (U+001B)"
};

/// The first place where a text is no valid UTF-8 (RFC 3629: no overlong forms, no surrogates, nothing above U+10FFFF).
std::optional<BadText> notUtf8(std::string_view);

/// Where text may stand: a name or figure is one line of signs that are seen; a note may have lines and tabs.
enum class TextIs { Name, Note };
/// The first sign that may not stand there: not UTF-8, a control sign, one that turns the direction of writing, and in a name
/// also one without width or one of Unicode's blanks other than U+0020.
std::optional<BadText> badSign(std::string_view, TextIs);

/// How many characters (code points) a text has; each broken byte counts as one.
size_t characters(std::string_view);

/// The text with every control sign and broken byte as U+FFFD: for a terminal.
std::string visible(std::string_view);

/// "1 point", "3 points", "no reading": a number with its noun in the right form. An article before the noun is left out; of
/// "check at a hold point" the first word is counted; a noun with "the" stays as it is.
std::string counted(std::size_t, std::string_view noun);

/// A text of Windows-1252 (what most old spreadsheets of the West write; Latin-1 is part of it) as UTF-8; nothing when it has one
/// of the five bytes that are not in it.
std::optional<std::string> fromWindows1252(std::string_view);
/// UTF-16 with its byte-order mark as UTF-8; nothing when it is none or is broken.
std::optional<std::string> fromUtf16(std::string_view);

} // namespace gorvet::units
