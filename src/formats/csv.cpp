#include "formats/csv.hpp"

#include "units/text.hpp"

#include <algorithm>

#include <fmt/format.h>

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
            const bool ends = c == '\n' || (c == '\r' && (i + 1 >= text.size() || text[i + 1] != '\n'));
            if (ends) ++line;
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
            } else if (ends) {
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

namespace {
/// Whether a spreadsheet would take it for a formula.
bool runs(std::string_view text) {
    if (text.empty()) return false;
    if (text[0] == '=' || text[0] == '@') return true;
    if (text[0] != '+' && text[0] != '-') return false;
    return text.size() < 2 || !(text[1] == '.' || (text[1] >= '0' && text[1] <= '9'));
}
} // namespace

std::string csvField(std::string_view text) {
    if (runs(text) || (text.size() > 1 && text[0] == '\'' && (runs(text.substr(1)) || text[1] == '\'')))
        return csvField("\x01" + std::string(text)); // marked below
    const bool marked = !text.empty() && text[0] == '\x01';
    std::string field = marked ? "'" : "";
    if (marked) text.remove_prefix(1);
    if (text.find_first_of(",\"\n\r;#") == std::string_view::npos) return field + std::string(text);
    std::string quoted = "\"" + field;
    for (const char c : text) {
        if (c == '"') quoted += '"';
        quoted += c;
    }
    return quoted + '"';
}

std::string csvText(std::string text) {
    if (text.size() > 1 && text[0] == '\'' && (runs(std::string_view(text).substr(1)) || text[1] == '\'')) text.erase(0, 1);
    return text;
}

Result<DecodedText> decodedText(std::string_view bytes) {
    if (const auto wide = units::fromUtf16(bytes)) return DecodedText{*wide, "read as UTF-16"};
    const auto bad = units::notUtf8(bytes);
    if (!bad && bytes.find('\0') == std::string_view::npos) return DecodedText{std::string(bytes), ""};
    const auto refuse = [&](size_t at, const std::string& what) -> Error {
        int line = 1, column = 1;
        for (size_t i = 0; i < at; ++i) {
            ++column;
            if (bytes[i] == '\n' || (bytes[i] == '\r' && bytes[i + 1] != '\n')) {
                ++line;
                column = 1;
            }
        }
        return {Error::Code::BadInput, fmt::format("line {}", line), fmt::format("Line {}, column {}: {}.", line, column, what),
                "Save the file as UTF-8 and read it again. Nothing was changed.", -1};
    };
    if (const auto zero = bytes.find('\0'); zero != std::string_view::npos)
        return refuse(zero, "a byte 0: this is no text, or text of another encoding");
    // what a western spreadsheet writes: only where every sign makes sense in words and figures
    static constexpr std::string_view signs =
        "\x80\x84\x85\x8A\x8C\x8E\x91\x92\x93\x94\x96\x97\x9A\x9C\x9E\x9F\xA0\xA7\xAA\xAB\xB0\xB1\xB2\xB3\xB4\xB5\xB7\xB9\xBA\xBB\xBC\xBD\xBE";
    for (size_t i = bad->byte; i < bytes.size(); ++i)
        if (const auto c = static_cast<unsigned char>(bytes[i]);
            c >= 0x80 && c < 0xC0 && signs.find(bytes[i]) == std::string_view::npos)
            return refuse(i, fmt::format("the byte {:02X} belongs to no encoding that is known here", c));
    auto text = units::fromWindows1252(bytes);
    if (!text) return refuse(bad->byte, "this is no UTF-8");
    return DecodedText{std::move(*text), "read as Windows-1252 (Latin-1), for it is no UTF-8: look at the names"};
}

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r");
    return first == std::string_view::npos ? std::string()
                                           : std::string(text.substr(first, text.find_last_not_of(" \t\r") - first + 1));
}

char separatorOf(std::string_view text) {
    const std::string_view line = text.substr(0, text.find_first_of("\n\r"));
    return std::count(line.begin(), line.end(), ';') > std::count(line.begin(), line.end(), ',') ? ';' : ',';
}

} // namespace gorvet::formats
