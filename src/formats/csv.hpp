#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace gorvet::formats {

/// A record of a CSV text: its fields, and the line (1-based) on which it starts.
struct CsvRecord {
    int line = 0;
    std::vector<std::string> fields;
    bool unterminated = false; ///< a quote was opened and never closed
};

/// What is wrong in a line, thrown by the readers of this room.
struct BadCell {
    std::string column; ///< empty when it is about the whole line
    std::string text;
    std::string message;
};
/// Without blanks at both ends.
std::string trimmed(std::string_view);
/// Comma or semicolon, whichever the first line has more of.
char separatorOf(std::string_view text);
/// Splits a CSV text (RFC 4180; also LF alone, and a byte-order mark). Blank lines and lines starting with # are left out.
std::vector<CsvRecord> splitCsv(std::string_view text, char separator);

/// A field, quoted when it needs to be.
std::string csvField(std::string_view text);

} // namespace gorvet::formats
