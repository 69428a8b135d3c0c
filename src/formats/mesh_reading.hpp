#pragma once

#include "formats/byte_source.hpp"

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstring>
#include <numeric>

/// What the readers of mesh files share. Internal to this room.
namespace gorvet::formats {

using shape::Mesh;
using shape::Point3;
using shape::Triangle;

static_assert(std::endian::native == std::endian::little, "the binary readers turn big-endian files only");

inline constexpr double far_mm = 1e8; // 100 km: no car
inline constexpr std::uint64_t most_things = 200'000'000;

[[noreturn]] inline void damaged(std::string message, std::string remedy = "Write the file again from where it came.") {
    throw MeshFailure{Error::Code::Damaged, std::move(message), std::move(remedy)};
}

/// The next word of a line; empty at its end. Blanks, tabs, commas and semicolons stand between words.
inline std::string_view nextWord(std::string_view& line, std::string_view between = " \t,;") {
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
inline bool number(std::string_view word, double& v) {
    if (word.starts_with('+')) word.remove_prefix(1);
    const auto [end, ec] = std::from_chars(word.data(), word.data() + word.size(), v);
    return ec == std::errc() && end == word.data() + word.size();
}
inline bool whole(std::string_view word, long long& v) {
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

/// A number from its bytes.
template <class T> T as(const unsigned char* bytes, bool turned) {
    unsigned char raw[sizeof(T)];
    std::memcpy(raw, bytes, sizeof(T));
    if (turned) std::reverse(raw, raw + sizeof(T));
    T v;
    std::memcpy(&v, raw, sizeof(T));
    return v;
}

void readPly(ByteSource&, ReadMesh&, double unit_mm);
void readBinaryStl(ByteSource&, ReadMesh&, double unit_mm);
void readTextStl(ByteSource&, ReadMesh&, double unit_mm);
void readObj(ByteSource&, ReadMesh&, double unit_mm);
void readXyz(ByteSource&, ReadMesh&, double unit_mm);

} // namespace gorvet::formats
