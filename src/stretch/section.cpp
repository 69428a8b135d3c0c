#include "stretch/section.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <vector>

namespace gorvet::stretch {
namespace {

struct At {
    double y;
    double z;
};

/// A rectangle whose corners are rounded, anticlockwise from the lower left; `right`: those on the right, too.
std::vector<At> outline(double y0, double y1, double z0, double z1, double radius, bool right) {
    constexpr int chords = 32;
    const double r = std::clamp(radius, 0.0, std::min(y1 - y0, z1 - z0) / 2);
    std::vector<At> path;
    const auto corner = [&](double y, double z, double sy, double sz, double from, bool round) {
        if (!round || r <= 0) {
            path.push_back({y, z});
            return;
        }
        for (int k = 0; k <= chords; ++k) {
            const double a = from + std::numbers::pi / 2 * k / chords;
            path.push_back({y + sy * r + r * std::cos(a), z + sz * r + r * std::sin(a)});
        }
    };
    constexpr double pi = std::numbers::pi;
    corner(y0, z0, 1, 1, pi, true);
    corner(y1, z0, -1, 1, 1.5 * pi, right);
    corner(y1, z1, -1, -1, 0, right);
    corner(y0, z1, 1, -1, pi / 2, true);
    return path;
}

/// Area, first and second moments about the origin's axes.
struct Sums {
    double a = 0, sy = 0, sz = 0, iy = 0, iz = 0;
    void add(const std::vector<At>& path, double sign) {
        for (size_t i = 0; i < path.size(); ++i) {
            const At p = path[i], q = path[(i + 1) % path.size()];
            const double c = sign * (p.y * q.z - q.y * p.z);
            a += c / 2;
            sy += c * (p.y + q.y) / 6;
            sz += c * (p.z + q.z) / 6;
            iy += c * (p.z * p.z + p.z * q.z + q.z * q.z) / 12; // about the level axis
            iz += c * (p.y * p.y + p.y * q.y + q.y * q.y) / 12;
        }
    }
};

} // namespace

Section sectionOf(double h, double b, double t, bool channel, std::optional<double> radius) {
    const double outside = radius.value_or(2 * t);
    const double inside = std::max(0.0, outside - t);
    Sums sums;
    sums.add(outline(0, b, 0, h, outside, !channel), 1);
    sums.add(outline(t, channel ? b : b - t, t, h - t, inside, !channel), -1);
    Section s;
    s.area_mm2 = sums.a;
    const double y = sums.sy / sums.a;
    s.level_mm4 = sums.iy - sums.sz * sums.sz / sums.a;
    s.upright_mm4 = sums.iz - sums.sy * y;
    s.level_modulus_mm3 = s.level_mm4 / (h / 2);
    s.upright_modulus_mm3 = s.upright_mm4 / std::max(y, b - y);
    const double middle = std::max(0.0, outside - t / 2); // radius of the mid-line
    const double less = (4 - std::numbers::pi) * middle;  // what rounding takes off two corners of its length
    if (channel) {
        const double length = (h - t) + 2 * (b - t / 2) - less;
        s.torsion_modulus_mm3 = length * t * t / 3;
        s.web_area_mm2 = (h - t) * t;
    } else {
        const double enclosed = (h - t) * (b - t) - less * middle;
        s.torsion_modulus_mm3 = 2 * enclosed * t;
        s.web_area_mm2 = 2 * (h - t) * t;
    }
    return s;
}

} // namespace gorvet::stretch
