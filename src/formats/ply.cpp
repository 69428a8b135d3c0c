#include "formats/mesh_reading.hpp"

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

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

} // namespace

void readPly(ByteSource& in, ReadMesh& out, double unit_mm) { PlyReader(in, out, unit_mm).read(); }

} // namespace gorvet::formats
