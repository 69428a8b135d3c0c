#include "formats/mesh_reading.hpp"

#include <array>
#include <cctype>

#include <fmt/format.h>

namespace gorvet::formats {

void readObj(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "OBJ";
    Gathering to(out, unit);
    std::string_view line;
    std::vector<long long> corners;
    while (in.line(line)) {
        const auto word = nextWord(line, " \t");
        if (word == "v") {
            double v[6];
            int n = 0;
            while (n < 6 && number(nextWord(line, " \t"), v[n])) ++n;
            if (n < 3) {
                ++out.lines_left_out;
                to.point(std::nan(""), 0, 0); // it keeps its number
                continue;
            }
            if (to.point(v[0], v[1], v[2]) && n == 6) {
                const auto part = [](double c) { return static_cast<std::uint8_t>(std::clamp(c * 255, 0.0, 255.0)); };
                to.colour(part(v[3]), part(v[4]), part(v[5]));
            }
        } else if (word == "f") {
            corners.clear();
            for (auto corner = nextWord(line, " \t"); !corner.empty(); corner = nextWord(line, " \t")) {
                long long i = 0;
                if (!whole(corner.substr(0, corner.find('/')), i) || i == 0) i = 0;
                corners.push_back(i > 0 ? i - 1 : i < 0 ? static_cast<long long>(to.given()) + i : -1);
            }
            to.polygon(corners);
        }
    }
    if (out.mesh.colours.size() != out.mesh.points.size()) out.mesh.colours.clear();
}

namespace {

/// How the lines of a cloud are cut into columns, and which of them are which. Found from the first lines; never guessed.
struct CloudColumns {
    std::string_view between = " \t,;";
    char strict = 0; ///< with named columns: each of these ends a column, an empty one too
    bool decimal_comma = false;
    std::array<int, 3> xyz{0, 1, 2};
    std::array<int, 3> rgb{3, 4, 5};
    bool header = false; ///< the first line names the columns
};

std::string lower(std::string_view word) {
    std::string low(word);
    std::transform(low.begin(), low.end(), low.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return low;
}
std::vector<std::string_view> wordsOf(std::string_view line, std::string_view between) {
    std::vector<std::string_view> words;
    for (auto word = nextWord(line, between); !word.empty(); word = nextWord(line, between)) words.push_back(word);
    return words;
}
/// A number, with a comma for its mark where the file has it so.
bool cloudNumber(std::string_view word, bool decimal_comma, double& v) {
    if (!decimal_comma) return number(word, v);
    std::array<char, 64> copy{};
    if (word.size() >= copy.size()) return false;
    std::replace_copy(word.begin(), word.end(), copy.begin(), ',', '.');
    return number({copy.data(), word.size()}, v);
}
bool isCommaNumber(std::string_view word) {
    const auto comma = word.find(',');
    double v = 0;
    return comma != std::string_view::npos && comma + 1 < word.size() && word.find(',', comma + 1) == std::string_view::npos &&
           word.find('.') == std::string_view::npos && cloudNumber(word, true, v);
}
/// The columns of a line: by one strict mark, or by any blanks, commas and semicolons.
std::vector<std::string_view> columnsIn(std::string_view line, std::string_view between, char strict) {
    if (strict == 0) return wordsOf(line, between);
    std::vector<std::string_view> columns;
    for (size_t at = 0;;) {
        const size_t end = std::min(line.find(strict, at), line.size());
        auto column = line.substr(at, end - at);
        while (!column.empty() && (column.front() == ' ' || column.front() == '\t')) column.remove_prefix(1);
        while (!column.empty() && (column.back() == ' ' || column.back() == '\t')) column.remove_suffix(1);
        columns.push_back(column);
        if (end == line.size()) return columns;
        at = end + 1;
    }
}
bool passed(std::string_view line) { return line.empty() || line.front() == '#' || line.starts_with("//"); }

[[noreturn]] void unclear(std::string message) {
    throw MeshFailure{Error::Code::BadInput, std::move(message),
                      "Name the columns in the first line, like: id x y z red green blue."};
}

CloudColumns columnsOf(const std::vector<std::string>& lines) {
    CloudColumns c;
    if (lines.empty()) return c;
    // numbers with a decimal comma stand apart by blanks or semicolons: 1,5 2,5 3,5
    int commas = 0, dots = 0;
    for (const std::string& line : lines)
        for (const auto word : wordsOf(line, " \t;")) {
            double v = 0;
            commas += isCommaNumber(word);
            dots += word.find('.') != std::string_view::npos && number(word, v);
        }
    bool all_three = commas > 0 && dots == 0;
    size_t rows = 0;
    for (const std::string& line : lines) {
        const auto words = wordsOf(line, " \t;");
        double v = 0;
        if (words.empty() || !(cloudNumber(words[0], true, v))) continue; // the header, or a word
        ++rows;
        all_three = all_three && words.size() >= 3;
    }
    c.decimal_comma = all_three && rows > 0;
    if (c.decimal_comma) c.between = " \t;";

    auto head = columnsIn(lines.front(), c.between, 0);
    double v = 0;
    size_t numbers = 0;
    while (numbers < head.size() && cloudNumber(head[numbers], c.decimal_comma, v)) ++numbers;
    if (numbers < head.size() && numbers < 3) { // a header
        c.header = true;
        for (const char mark : {',', ';', '\t'})
            if (c.strict == 0 && lines.front().find(mark) != std::string::npos && !(mark == ',' && c.decimal_comma))
                c.strict = mark;
        head = columnsIn(lines.front(), c.between, c.strict); // a name may be of two words: "X [mm]"
        c.xyz = {-1, -1, -1};
        c.rgb = {-1, -1, -1};
        for (size_t i = 0; i < head.size(); ++i) {
            std::string name = lower(head[i]);
            if (const auto unit = name.find_first_of("[(_"); unit != std::string::npos && unit > 0) name.resize(unit);
            std::erase_if(name, [](char q) { return q == '"' || q == '/' || q == ' '; });
            for (int k = 0; k < 3; ++k) {
                if (name == std::array{"x", "y", "z"}[static_cast<size_t>(k)] && c.xyz[static_cast<size_t>(k)] < 0)
                    c.xyz[static_cast<size_t>(k)] = static_cast<int>(i);
                if ((name == std::array{"r", "g", "b"}[static_cast<size_t>(k)] ||
                     name == std::array{"red", "green", "blue"}[static_cast<size_t>(k)]) &&
                    c.rgb[static_cast<size_t>(k)] < 0)
                    c.rgb[static_cast<size_t>(k)] = static_cast<int>(i);
            }
        }
        if (c.xyz[0] < 0 || c.xyz[1] < 0 || c.xyz[2] < 0) {
            if (head.size() != 3)
                unclear(fmt::format("The first line names {} columns, and none of them x, y and z.", head.size()));
            c.xyz = {0, 1, 2};
        }
        return c;
    }
    // no header: a first column that counts the lines is no coordinate
    int counted = 0;
    double last = 0;
    bool counts = true;
    for (size_t i = 0; i < lines.size(); ++i) {
        const auto words = wordsOf(lines[i], c.between);
        if (i == 0 && words.size() == 1) continue; // how many points there are
        double first = 0;
        if (words.size() < 4 || !cloudNumber(words[0], c.decimal_comma, first) || first != std::floor(first) ||
            (counted > 0 && first != last + 1)) {
            counts = false;
            break;
        }
        last = first;
        ++counted;
    }
    if (counts && counted >= 3) unclear("The first column counts the lines: is it a number of the points, or x?");
    return c;
}

} // namespace

void readXyz(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "XYZ";
    Gathering to(out, unit);
    std::string_view line;
    std::vector<std::string> first_lines;
    for (bool first = true; first_lines.size() < 50 && in.line(line); first = false) {
        if (first && line.starts_with("\xEF\xBB\xBF")) line.remove_prefix(3);
        if (!passed(line)) first_lines.emplace_back(line);
    }
    const CloudColumns c = columnsOf(first_lines);
    in.back();
    bool first = true;
    std::vector<double> v;
    const auto most = static_cast<size_t>(std::max({c.xyz[0], c.xyz[1], c.xyz[2], c.rgb[0], c.rgb[1], c.rgb[2]})) + 1;
    while (in.line(line)) {
        if (line.starts_with("\xEF\xBB\xBF")) line.remove_prefix(3);
        if (passed(line)) continue;
        v.clear();
        std::string_view rest = line;
        std::array<bool, 32> is{};
        const auto take = [&](size_t i, std::string_view word) {
            v.push_back(0);
            is[i] = cloudNumber(word, c.decimal_comma, v.back());
        };
        if (c.strict != 0 && line.find(c.strict) != std::string_view::npos) {
            const auto columns = columnsIn(line, c.between, c.strict);
            for (size_t i = 0; i < columns.size() && i < most && i < is.size(); ++i) take(i, columns[i]);
        } else {
            for (size_t i = 0; i < most && i < is.size(); ++i) {
                const auto word = nextWord(rest, c.between);
                if (word.empty()) break;
                take(i, word);
            }
        }
        const auto has = [&](int column) {
            return column >= 0 && static_cast<size_t>(column) < v.size() && is[static_cast<size_t>(column)];
        };
        if (!has(c.xyz[0]) || !has(c.xyz[1]) || !has(c.xyz[2])) {
            out.lines_left_out +=
                first && (c.header || v.size() == 1) ? 0 : 1; // a first line may name the columns, or count the points
            first = false;
            continue;
        }
        first = false;
        const auto at = [&](int column) { return v[static_cast<size_t>(column)]; };
        const bool colour = std::all_of(c.rgb.begin(), c.rgb.end(), [&](int column) {
            return has(column) && at(column) >= 0 && at(column) <= 255 && at(column) == std::floor(at(column));
        });
        if (to.point(at(c.xyz[0]), at(c.xyz[1]), at(c.xyz[2])) && colour)
            to.colour(static_cast<std::uint8_t>(at(c.rgb[0])), static_cast<std::uint8_t>(at(c.rgb[1])),
                      static_cast<std::uint8_t>(at(c.rgb[2])));
    }
    if (out.mesh.colours.size() != out.mesh.points.size()) out.mesh.colours.clear();
}

} // namespace gorvet::formats
