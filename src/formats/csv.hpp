#pragma once

#include "units/result.hpp"

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
/// Splits a CSV text (RFC 4180; also LF or CR alone, and a byte-order mark). Blank lines and lines starting with # are left out.
std::vector<CsvRecord> splitCsv(std::string_view text, char separator);

/// A field of text, quoted when it needs to be. What a spreadsheet would run (it begins with =, @, or a + or - that begins no
/// number) gets an apostrophe before it, which `csvText` takes off again.
std::string csvField(std::string_view text);
/// A field as it was meant: without the apostrophe of `csvField`.
std::string csvText(std::string text);

/// The bytes of a file as UTF-8.
struct DecodedText {
    std::string text;
    std::string remark; ///< from which other encoding it was converted; empty: it was UTF-8
};
/// UTF-8, UTF-16 with its mark, or Windows-1252 (with Latin-1) where all its signs are letters and signs of western languages.
/// Fails with BadInput that says line, column and byte.
Result<DecodedText> decodedText(std::string_view bytes);

} // namespace gorvet::formats
