#include "formats/csv.hpp"

#include <algorithm>

namespace gorvet::formats {

std::vector<CsvRecord> splitCsv(std::string_view text, char separator) {
    if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
    std::vector<CsvRecord> records;
    int line = 1;
    size_t i = 0;
    while (i < text.size()) {
        CsvRecord record;
        record.line = line;
        std::string field;
        bool quoted = false;
        bool was_quoted = false;
        bool any = false;
        const bool comment = text[i] == '#';
        for (;; ++i) {
            if (i >= text.size()) {
                record.unterminated = quoted;
                break;
            }
            const char c = text[i];
            if (c == '\n') ++line;
            if (quoted) {
                if (c != '"')
                    field += c;
                else if (i + 1 < text.size() && text[i + 1] == '"')
                    field += text[++i];
                else
                    quoted = false;
            } else if (c == '"' && !comment && (field.empty() || was_quoted)) {
                quoted = was_quoted = any = true;
            } else if (c == separator) {
                record.fields.push_back(std::move(field));
                field.clear();
                was_quoted = false;
                any = true;
            } else if (c == '\n') {
                ++i;
                break;
            } else if (c != '\r') {
                field += c;
                any = any || (c != ' ' && c != '\t');
            }
        }
        record.fields.push_back(std::move(field));
        if (any && !comment) records.push_back(std::move(record));
    }
    return records;
}

std::string csvField(std::string_view text) {
    if (text.find_first_of(",\"\n\r;#") == std::string_view::npos) return std::string(text);
    std::string quoted = "\"";
    for (const char c : text) {
        if (c == '"') quoted += '"';
        quoted += c;
    }
    return quoted + '"';
}

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r");
    return first == std::string_view::npos ? std::string()
                                           : std::string(text.substr(first, text.find_last_not_of(" \t\r") - first + 1));
}

char separatorOf(std::string_view text) {
    const std::string_view line = text.substr(0, text.find('\n'));
    return std::count(line.begin(), line.end(), ';') > std::count(line.begin(), line.end(), ',') ? ';' : ',';
}

} // namespace gorvet::formats
