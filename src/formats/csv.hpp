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

/// Splits a CSV text (RFC 4180; also LF alone, and a byte-order mark). Blank lines and lines starting with # are left out.
std::vector<CsvRecord> splitCsv(std::string_view text, char separator);

/// A field, quoted when it needs to be.
std::string csvField(std::string_view text);

} // namespace gorvet::formats
