#include "formats/mesh_file.hpp"

#include "formats/byte_source.hpp"

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstring>
#include <numeric>

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

using shape::Mesh;
using shape::Point3;
using shape::Triangle;

static_assert(std::endian::native == std::endian::little, "the binary readers turn big-endian files only");

constexpr double far_mm = 1e8; // 100 km: no car
constexpr std::uint64_t most_things = 200'000'000;

[[noreturn]] void damaged(std::string message, std::string remedy = "Write the file again from where it came.") {
    throw MeshFailure{Error::Code::Damaged, std::move(message), std::move(remedy)};
}

/// The next word of a line; empty at its end. Blanks, tabs, commas and semicolons stand between words.
std::string_view nextWord(std::string_view& line, std::string_view between = " \t,;") {
    const auto start = line.find_first_not_of(between);
    if (start == std::string_view::npos) {
        line = {};
        return {};
    }
    const auto stop = std::min(line.find_first_of(between, start), line.size());
    const auto word = line.substr(start, stop - start);
    line.remove_prefix(stop);
    return word;
}
/// False when it is no number.
bool number(std::string_view word, double& v) {
    if (word.starts_with('+')) word.remove_prefix(1);
    const auto [end, ec] = std::from_chars(word.data(), word.data() + word.size(), v);
    return ec == std::errc() && end == word.data() + word.size();
}
bool whole(std::string_view word, long long& v) {
    const auto [end, ec] = std::from_chars(word.data(), word.data() + word.size(), v);
    return ec == std::errc() && end == word.data() + word.size();
}

/// Takes points and triangles as a file gives them: leaves out what is no number, keeps the indices right.
class Gathering {
public:
    Gathering(ReadMesh& out, double unit_mm) : out_(out), unit_(unit_mm) {}
    void reserve(std::uint64_t points, std::uint64_t triangles) {
        // a header can promise anything: memory is taken as the file delivers
        out_.mesh.points.reserve(static_cast<size_t>(std::min<std::uint64_t>(points, 4'000'000)));
        out_.mesh.triangles.reserve(static_cast<size_t>(std::min<std::uint64_t>(triangles, 8'000'000)));
    }
    bool point(double x, double y, double z) {
        const Point3 p{x * unit_, y * unit_, z * unit_};
        const bool good = std::abs(p[0]) < far_mm && std::abs(p[1]) < far_mm && std::abs(p[2]) < far_mm; // false for NaN
        if (good) {
            if (!place_.empty()) place_.push_back(static_cast<std::uint32_t>(out_.mesh.points.size()));
            out_.mesh.points.push_back(p);
        } else {
            if (place_.empty()) { // from here on places differ from numbers
                place_.resize(out_.mesh.points.size());
                std::iota(place_.begin(), place_.end(), 0U);
            }
            place_.push_back(none);
            ++out_.points_left_out;
        }
        ++given_;
        return good;
    }
    void normal(float x, float y, float z) { out_.mesh.normals.push_back({x, y, z}); }
    void colour(std::uint8_t r, std::uint8_t g, std::uint8_t b) { out_.mesh.colours.push_back({r, g, b}); }
    /// The same for the usual case, quickly; false: it is not usual, nothing was done.
    bool triangle(std::uint32_t a, std::uint32_t b, std::uint32_t c) {
        if (!place_.empty() || a >= given_ || b >= given_ || c >= given_) return false;
        out_.mesh.triangles.push_back({a, b, c});
        return true;
    }
    /// A polygon by its corners' numbers, as a fan.
    void polygon(const std::vector<long long>& corners) {
        for (size_t k = 2; k < corners.size(); ++k) {
            Triangle t{};
            bool good = true;
            for (size_t c = 0; c < 3; ++c) {
                const long long i = corners[c == 0 ? 0 : k - 2 + c];
                good = good && i >= 0 && i < static_cast<long long>(given_);
                if (!good) break;
                t[c] = place_.empty() ? static_cast<std::uint32_t>(i) : place_[static_cast<size_t>(i)];
                good = t[c] != none;
            }
            if (good)
                out_.mesh.triangles.push_back(t);
            else
                ++out_.triangles_left_out;
        }
        if (corners.size() < 3) ++out_.triangles_left_out;
    }
    size_t given() const { return given_; }

private:
    static constexpr std::uint32_t none = 0xffffffff;
    ReadMesh& out_;
    double unit_;
    size_t given_ = 0;
    std::vector<std::uint32_t> place_; ///< of each given point; empty while they are the same
};

// ---- PLY

enum class Number { Int8, UInt8, Int16, UInt16, Int32, UInt32, Float, Double };

std::optional<Number> numberKind(std::string_view word) {
    static constexpr std::pair<std::string_view, Number> words[] = {
        {"char", Number::Int8},   {"int8", Number::Int8},     {"uchar", Number::UInt8},   {"uint8", Number::UInt8},
        {"short", Number::Int16}, {"int16", Number::Int16},   {"ushort", Number::UInt16}, {"uint16", Number::UInt16},
        {"int", Number::Int32},   {"int32", Number::Int32},   {"uint", Number::UInt32},   {"uint32", Number::UInt32},
        {"float", Number::Float}, {"float32", Number::Float}, {"double", Number::Double}, {"float64", Number::Double}};
    for (const auto& [name, kind] : words)
        if (name == word) return kind;
    return std::nullopt;
}
size_t bytesOf(Number n) {
    switch (n) {
    case Number::Int8:
    case Number::UInt8: return 1;
    case Number::Int16:
    case Number::UInt16: return 2;
    case Number::Double: return 8;
    default: return 4;
    }
}
template <class T> T as(const unsigned char* bytes, bool turned) {
    unsigned char raw[sizeof(T)];
    std::memcpy(raw, bytes, sizeof(T));
    if (turned) std::reverse(raw, raw + sizeof(T));
    T v;
    std::memcpy(&v, raw, sizeof(T));
    return v;
}
double valueOf(Number n, const unsigned char* bytes, bool turned) {
    switch (n) {
    case Number::Int8: return as<std::int8_t>(bytes, turned);
    case Number::UInt8: return *bytes;
    case Number::Int16: return as<std::int16_t>(bytes, turned);
    case Number::UInt16: return as<std::uint16_t>(bytes, turned);
    case Number::Int32: return as<std::int32_t>(bytes, turned);
    case Number::UInt32: return as<std::uint32_t>(bytes, turned);
    case Number::Float: return static_cast<double>(as<float>(bytes, turned));
    case Number::Double: return as<double>(bytes, turned);
    }
    return 0;
}

struct Property {
    std::string name;
    Number kind = Number::Float;
    std::optional<Number> count; ///< of a list
};
struct Element {
    std::string name;
    std::uint64_t count = 0;
    std::vector<Property> properties;
};

class PlyReader {
public:
    PlyReader(ByteSource& in, ReadMesh& out, double unit) : in_(in), out_(out), to_(out, unit) {}

    void read() {
        header();
        for (const Element& e : elements_) {
            element_ = &e;
            const bool points = e.name == "vertex";
            const bool faces = e.name == "face";
            if (points) prepare(e);
            if (plainPoints(e) || plainFaces(e)) continue;
            for (done_ = 0; done_ < e.count; ++done_) {
                if (text_)
                    textRow(e);
                else
                    binaryRow(e);
                if (points) keepPoint();
                if (faces) keepFace();
            }
        }
    }

private:
    void header() {
        std::string_view line;
        in_.line(line); // "ply"
        bool format = false;
        for (int n = 2;; ++n) {
            if (!in_.line(line) || n > 10000) damaged("The PLY header has no end.");
            const auto word = nextWord(line, " \t");
            if (word == "end_header") break;
            if (word == "format") {
                const auto kind = nextWord(line, " \t");
                format = true;
                text_ = kind == "ascii";
                turned_ = kind == "binary_big_endian";
                if (!text_ && !turned_ && kind != "binary_little_endian")
                    damaged(fmt::format("The PLY format \"{}\" is not known.", kind));
                out_.format = text_ ? "PLY, text" : "PLY, binary";
            } else if (word == "element") {
                Element e;
                e.name = nextWord(line, " \t");
                long long count = -1;
                if (!whole(nextWord(line, " \t"), count) || count < 0 || static_cast<std::uint64_t>(count) > most_things)
                    damaged(fmt::format("Line {} of the PLY header gives no count that can be.", n));
                e.count = static_cast<std::uint64_t>(count);
                elements_.push_back(std::move(e));
            } else if (word == "property") {
                if (elements_.empty()) damaged(fmt::format("Line {} of the PLY header: a property of nothing.", n));
                Property p;
                auto kind = nextWord(line, " \t");
                if (kind == "list") {
                    p.count = numberKind(nextWord(line, " \t"));
                    kind = nextWord(line, " \t");
                    if (!p.count) damaged(fmt::format("Line {} of the PLY header: the list's count is of no known type.", n));
                }
                const auto number_kind = numberKind(kind);
                if (!number_kind)
                    damaged(fmt::format("Line {} of the PLY header: the type \"{}\" is not known.", n, kind.substr(0, 30)));
                p.kind = *number_kind;
                p.name = nextWord(line, " \t");
                elements_.back().properties.push_back(std::move(p));
            }
        }
        if (!format) damaged("The PLY header names no format.");
        std::uint64_t points = 0;
        std::uint64_t faces = 0;
        for (const Element& e : elements_) {
            if (e.name == "vertex") points = e.count;
            if (e.name == "face") faces = e.count;
        }
        // each point takes a byte at least: a count beyond the file is a wrong count
        if (points > in_.size() || faces > in_.size())
            damaged(
                fmt::format("The PLY header promises {} points and {} faces; the file is too short for them.", points, faces));
        to_.reserve(points, faces);
    }

    void prepare(const Element& e) {
        const auto find = [&](std::string_view name) {
            for (size_t i = 0; i < e.properties.size(); ++i)
                if (e.properties[i].name == name && !e.properties[i].count) return static_cast<int>(i);
            return -1;
        };
        static constexpr std::string_view names[9] = {"x", "y", "z", "nx", "ny", "nz", "red", "green", "blue"};
        for (size_t k = 0; k < 9; ++k) column_[k] = find(names[k]);
        if (column_[0] < 0 || column_[1] < 0 || column_[2] < 0) damaged("The PLY file's points have no x, y, z.");
        float_colours_ = column_[6] >= 0 && (e.properties[static_cast<size_t>(column_[6])].kind == Number::Float ||
                                             e.properties[static_cast<size_t>(column_[6])].kind == Number::Double);
    }

    [[noreturn]] void shortFile() const {
        damaged(fmt::format("The file ends after {} of {} {}.", done_, element_->count,
                            element_->name == "vertex" ? "points"
                            : element_->name == "face" ? "faces"
                                                       : element_->name));
    }

    /// Points without a list have rows of one length: only the figures that are wanted are looked at.
    bool plainPoints(const Element& e) {
        if (text_ || turned_ || e.name != "vertex") return false;
        std::vector<size_t> offset;
        size_t row = 0;
        for (const Property& p : e.properties) {
            if (p.count) return false;
            offset.push_back(row);
            row += bytesOf(p.kind);
        }
        const auto value = [&](const unsigned char* bytes, size_t k) {
            const auto c = static_cast<size_t>(column_[k]);
            return e.properties[c].kind == Number::Float ? static_cast<double>(as<float>(bytes + offset[c], false))
                                                         : valueOf(e.properties[c].kind, bytes + offset[c], false);
        };
        const bool normals = column_[3] >= 0 && column_[4] >= 0 && column_[5] >= 0;
        const bool colours = column_[6] >= 0 && column_[7] >= 0 && column_[8] >= 0;
        for (done_ = 0; done_ < e.count; ++done_) {
            const unsigned char* bytes = in_.take(row);
            if (!bytes) shortFile();
            if (!to_.point(value(bytes, 0), value(bytes, 1), value(bytes, 2))) continue;
            if (normals)
                to_.normal(static_cast<float>(value(bytes, 3)), static_cast<float>(value(bytes, 4)),
                           static_cast<float>(value(bytes, 5)));
            if (!colours) continue;
            const auto part = [&](size_t k) {
                return static_cast<std::uint8_t>(std::clamp(value(bytes, k) * (float_colours_ ? 255 : 1), 0.0, 255.0));
            };
            to_.colour(part(6), part(7), part(8));
        }
        return true;
    }

    /// Faces that are a list of 32-bit corners and nothing else.
    bool plainFaces(const Element& e) {
        if (text_ || turned_ || e.name != "face" || e.properties.size() != 1) return false;
        const Property& p = e.properties.front();
        const bool wide = p.kind == Number::Int32 || p.kind == Number::UInt32;
        if (p.count != Number::UInt8 || !wide || (p.name != "vertex_indices" && p.name != "vertex_index")) return false;
        for (done_ = 0; done_ < e.count; ++done_) {
            const std::string_view count = in_.ahead(1);
            if (count.empty()) shortFile();
            const size_t n = static_cast<unsigned char>(count.front());
            const unsigned char* bytes = in_.take(1 + 4 * n);
            if (!bytes) shortFile();
            if (n == 3 && to_.triangle(as<std::uint32_t>(bytes + 1, false), as<std::uint32_t>(bytes + 5, false),
                                       as<std::uint32_t>(bytes + 9, false)))
                continue;
            list_.clear();
            for (size_t k = 0; k < n; ++k)
                list_.push_back(p.kind == Number::Int32 ? static_cast<long long>(as<std::int32_t>(bytes + 1 + 4 * k, false))
                                                        : static_cast<long long>(as<std::uint32_t>(bytes + 1 + 4 * k, false)));
            keepFace();
        }
        return true;
    }

    void binaryRow(const Element& e) {
        values_.clear();
        list_.clear();
        for (const Property& p : e.properties) {
            std::uint64_t n = 1;
            if (p.count) {
                const unsigned char* bytes = in_.take(bytesOf(*p.count));
                if (!bytes) shortFile();
                const double count = valueOf(*p.count, bytes, turned_);
                if (!(count >= 0 && count <= 100000))
                    damaged(fmt::format("Face {} of the PLY file has {} corners.", done_ + 1, count));
                n = static_cast<std::uint64_t>(count);
            }
            const bool corners = p.count && (p.name == "vertex_indices" || p.name == "vertex_index");
            for (std::uint64_t k = 0; k < n; ++k) {
                const unsigned char* bytes = in_.take(bytesOf(p.kind));
                if (!bytes) shortFile();
                const double v = valueOf(p.kind, bytes, turned_);
                if (corners)
                    list_.push_back(static_cast<long long>(v));
                else if (!p.count)
                    values_.push_back(v);
            }
            if (p.count) values_.push_back(0); // keeps the columns in their places
        }
    }

    void textRow(const Element& e) {
        values_.clear();
        list_.clear();
        std::string_view line;
        do {
            if (!in_.line(line)) shortFile();
        } while (line.find_first_not_of(" \t") == std::string_view::npos);
        const auto value = [&] {
            double v = 0;
            const auto word = nextWord(line, " \t");
            if (word.empty())
                damaged(
                    fmt::format("{} {} of the PLY file has too few figures.", e.name == "face" ? "Face" : "Point", done_ + 1));
            if (!number(word, v)) v = std::nan("");
            return v;
        };
        for (const Property& p : e.properties) {
            if (!p.count) {
                values_.push_back(value());
                continue;
            }
            const double n = value();
            if (!(n >= 0 && n <= 100000)) damaged(fmt::format("Face {} of the PLY file has {} corners.", done_ + 1, n));
            const bool corners = p.name == "vertex_indices" || p.name == "vertex_index";
            for (int k = 0; k < static_cast<int>(n); ++k) {
                const double v = value();
                if (corners) list_.push_back(std::isfinite(v) && std::abs(v) < 1e15 ? static_cast<long long>(v) : -1);
            }
            values_.push_back(0);
        }
    }

    void keepPoint() {
        const auto at = [&](size_t k) { return values_[static_cast<size_t>(column_[k])]; };
        if (!to_.point(at(0), at(1), at(2))) return;
        if (column_[3] >= 0 && column_[4] >= 0 && column_[5] >= 0)
            to_.normal(static_cast<float>(at(3)), static_cast<float>(at(4)), static_cast<float>(at(5)));
        if (column_[6] >= 0 && column_[7] >= 0 && column_[8] >= 0) {
            const auto part = [&](size_t k) {
                return static_cast<std::uint8_t>(std::clamp(at(k) * (float_colours_ ? 255 : 1), 0.0, 255.0));
            };
            to_.colour(part(6), part(7), part(8));
        }
    }
    void keepFace() { to_.polygon(list_); }

    ByteSource& in_;
    ReadMesh& out_;
    Gathering to_;
    std::vector<Element> elements_;
    const Element* element_ = nullptr;
    std::uint64_t done_ = 0;
    std::vector<double> values_;
    std::vector<long long> list_;
    int column_[9] = {};
    bool text_ = false;
    bool turned_ = false;
    bool float_colours_ = false;
};

// ---- STL

/// Points that lie exactly on each other become one.
void weld(Mesh& m) {
    std::vector<std::uint32_t> order(m.points.size());
    std::iota(order.begin(), order.end(), 0U);
    std::sort(order.begin(), order.end(),
              [&](std::uint32_t a, std::uint32_t b) { return m.points[a] != m.points[b] ? m.points[a] < m.points[b] : a < b; });
    std::vector<std::uint32_t> first(m.points.size()); // the lowest number at the same place
    for (size_t i = 0; i < order.size(); ++i)
        first[order[i]] = i > 0 && m.points[order[i]] == m.points[order[i - 1]] ? first[order[i - 1]] : order[i];
    order = {};
    std::uint32_t kept = 0;
    for (size_t i = 0; i < first.size(); ++i) {
        if (first[i] == i) {
            m.points[kept] = m.points[i];
            first[i] = kept++;
        } else {
            first[i] = first[first[i]]; // lower numbers have their new place already
        }
    }
    m.points.resize(kept);
    m.points.shrink_to_fit();
    for (Triangle& t : m.triangles)
        for (std::uint32_t& corner : t) corner = first[corner];
}

void readBinaryStl(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "STL, binary";
    in.take(80);
    const unsigned char* head = in.take(4);
    if (!head) damaged("The STL file ends in its header.");
    const auto count = as<std::uint32_t>(head, false);
    Gathering to(out, unit);
    to.reserve(3ULL * count, count);
    for (std::uint32_t t = 0; t < count; ++t) {
        const unsigned char* row = in.take(50);
        if (!row) damaged(fmt::format("The file ends after {} of {} triangles.", t, count));
        const auto first = static_cast<long long>(to.given());
        for (int corner = 0; corner < 3; ++corner) {
            const unsigned char* at = row + 12 + 12 * corner;
            to.point(static_cast<double>(as<float>(at, false)), static_cast<double>(as<float>(at + 4, false)),
                     static_cast<double>(as<float>(at + 8, false)));
        }
        to.polygon({first, first + 1, first + 2});
    }
    weld(out.mesh);
}

void readTextStl(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "STL, text";
    Gathering to(out, unit);
    std::vector<long long> corners;
    std::string_view line;
    bool ended = false;
    while (in.line(line)) {
        const auto word = nextWord(line);
        if (word == "vertex") {
            double v[3] = {std::nan(""), std::nan(""), std::nan("")};
            for (double& x : v)
                if (!number(nextWord(line), x)) x = std::nan("");
            corners.push_back(static_cast<long long>(to.given()));
            to.point(v[0], v[1], v[2]);
        } else if (word == "endfacet") {
            to.polygon(corners);
            corners.clear();
        } else if (word == "endsolid") {
            ended = true;
        }
    }
    if (!corners.empty() || !ended)
        damaged(fmt::format("The file ends after {} triangles, in the middle of its solid.", out.mesh.triangles.size()));
    weld(out.mesh);
}

// ---- OBJ, XYZ and CSV

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

void readAny(ByteSource& in, ReadMesh& out, const std::filesystem::path& path, double unit) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    const std::string head(in.ahead(84));
    if (head.starts_with("ply\n") || head.starts_with("ply\r")) return PlyReader(in, out, unit).read();
    if (head.size() == 84) {
        // a binary STL says by its length what it is, whatever its first word
        const auto count = as<std::uint32_t>(reinterpret_cast<const unsigned char*>(head.data()) + 80, false);
        if (in.size() == 84 + 50ULL * count || (ending == ".stl" && !head.starts_with("solid")))
            return readBinaryStl(in, out, unit);
    }
    if (ending == ".stl") return readTextStl(in, out, unit);
    if (ending == ".obj") return readObj(in, out, unit);
    if (ending == ".xyz" || ending == ".csv" || ending == ".txt" || ending == ".asc" || ending == ".pts")
        return readXyz(in, out, unit);
    if (ending == ".ply") damaged("The file does not begin with \"ply\".");
    throw MeshFailure{Error::Code::BadInput, fmt::format("{} is no mesh or cloud that is known here.", path.filename().string()),
                      "PLY, STL, OBJ, XYZ and CSV are read."};
}

class Writer {
public:
    explicit Writer(const std::filesystem::path& path) : file_(std::fopen(path.c_str(), "wb")) {}
    ~Writer() {
        if (file_) std::fclose(file_);
    }
    Writer(const Writer&) = delete;
    Writer& operator=(const Writer&) = delete;
    void text(const std::string& t) { bytes(t.data(), t.size()); }
    template <class T> void value(T v) { bytes(&v, sizeof v); }
    void bytes(const void* from, size_t n) { good_ = good_ && file_ && std::fwrite(from, 1, n, file_) == n; }
    Result<void> close(const std::filesystem::path& path) {
        if (file_) good_ = std::fclose(file_) == 0 && good_;
        const bool opened = file_ != nullptr;
        file_ = nullptr;
        if (opened && good_) return {};
        std::error_code ec;
        if (opened) std::filesystem::remove(path, ec);
        return Error{Error::Code::File, path.string(), path.string() + " can't be written.", "Choose another place.", -1};
    }

private:
    std::FILE* file_;
    bool good_ = true;
};

} // namespace

Result<ReadMesh> readMesh(const std::filesystem::path& path, double unit_mm, const MeshProgress& progress) {
    if (!(unit_mm > 0 && unit_mm <= 1e6))
        return Error{Error::Code::BadInput, path.string(), "The unit of the file must be above 0 mm.",
                     "1 for mm, 1000 for m, 25.4 for inches.", -1};
    try {
        ReadMesh out;
        ByteSource in(path, progress);
        readAny(in, out, path, unit_mm);
        if (out.mesh.points.empty())
            throw MeshFailure{Error::Code::BadInput, fmt::format("{} has no point that can be used.", path.filename().string()),
                              out.points_left_out ? fmt::format("{} points were no numbers.", out.points_left_out) : ""};
        return out;
    } catch (const MeshFailure& f) {
        return Error{f.code, path.string(), f.message, f.remedy, -1};
    } catch (const std::bad_alloc&) {
        return Error{Error::Code::File, path.string(), "There is not enough memory for this file.",
                     "Thin it out where it was made.", -1};
    }
}

Result<void> writePly(const Mesh& m, const std::filesystem::path& path, const std::vector<float>& distance) {
    if (!distance.empty() && distance.size() != m.points.size())
        return Error{Error::Code::BadInput, path.string(), "There must be one distance for each point.", "", -1};
    const bool normals = m.normals.size() == m.points.size() && !m.points.empty();
    const bool colours = m.colours.size() == m.points.size() && !m.points.empty();
    Writer out(path);
    std::string head = fmt::format(
        "ply\nformat binary_little_endian 1.0\ncomment millimetres\nelement vertex {}\nproperty double x\nproperty double y\nproperty double z\n",
        m.points.size());
    if (normals) head += "property float nx\nproperty float ny\nproperty float nz\n";
    if (colours) head += "property uchar red\nproperty uchar green\nproperty uchar blue\n";
    if (!distance.empty()) head += "property float distance\n";
    if (!m.triangles.empty())
        head += fmt::format("element face {}\nproperty list uchar int vertex_indices\n", m.triangles.size());
    out.text(head + "end_header\n");
    for (size_t i = 0; i < m.points.size(); ++i) {
        for (const double v : m.points[i]) out.value(v);
        if (normals)
            for (const float v : m.normals[i]) out.value(v);
        if (colours) out.bytes(m.colours[i].data(), 3);
        if (!distance.empty()) out.value(distance[i]);
    }
    for (const Triangle& t : m.triangles) {
        out.value(std::uint8_t{3});
        for (const std::uint32_t corner : t) out.value(static_cast<std::int32_t>(corner));
    }
    return out.close(path);
}

Result<void> writeStl(const Mesh& m, const std::filesystem::path& path) {
    if (m.triangles.empty())
        return Error{Error::Code::BadInput, path.string(), "A cloud has no triangles: STL can't hold it.", "Write PLY.", -1};
    Writer out(path);
    char head[80] = "millimetres";
    out.bytes(head, sizeof head);
    out.value(static_cast<std::uint32_t>(m.triangles.size()));
    for (const Triangle& t : m.triangles) {
        const Point3& a = m.points[t[0]];
        const Point3& b = m.points[t[1]];
        const Point3& c = m.points[t[2]];
        const double u[3] = {b[0] - a[0], b[1] - a[1], b[2] - a[2]};
        const double v[3] = {c[0] - a[0], c[1] - a[1], c[2] - a[2]};
        const double n[3] = {u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]};
        const double length = std::sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        for (const double x : n) out.value(static_cast<float>(length > 0 ? x / length : 0));
        for (const Point3* p : {&a, &b, &c})
            for (const double x : *p) out.value(static_cast<float>(x));
        out.value(std::uint16_t{0});
    }
    return out.close(path);
}

} // namespace gorvet::formats
