#include "formats/mesh_reading.hpp"

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

void readXyz(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "XYZ";
    Gathering to(out, unit);
    std::string_view line;
    bool first = true;
    while (in.line(line)) {
        if (line.starts_with("\xEF\xBB\xBF")) line.remove_prefix(3);
        if (line.empty() || line.front() == '#' || line.starts_with("//")) continue;
        double v[6];
        int n = 0;
        std::string_view rest = line;
        while (n < 6 && number(nextWord(rest), v[n])) ++n;
        if (n < 3) {
            out.lines_left_out += first ? 0 : 1; // a first line may name the columns
            first = false;
            continue;
        }
        first = false;
        const bool colour =
            n == 6 && std::all_of(v + 3, v + 6, [](double c) { return c >= 0 && c <= 255 && c == std::floor(c); });
        if (to.point(v[0], v[1], v[2]) && colour)
            to.colour(static_cast<std::uint8_t>(v[3]), static_cast<std::uint8_t>(v[4]), static_cast<std::uint8_t>(v[5]));
    }
    if (out.mesh.colours.size() != out.mesh.points.size()) out.mesh.colours.clear();
}

} // namespace gorvet::formats
