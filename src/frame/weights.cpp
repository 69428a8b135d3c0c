#include "frame/weights.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::frame {
namespace {

using geometry::plus;
using geometry::times;

double areaOf(const Profile& p) {
    const auto walls = wallsOf(p);
    if (!walls) return 0;
    const auto section = sectionOf(*walls);
    return section ? section->area_mm2 : 0;
}

/// A straight length of one weight, in pieces.
void spread(std::vector<Weight>& all, const Vec3& from, const Vec3& to, double kg, double longest_mm, bool hangs) {
    const double along = std::abs(to.x_mm - from.x_mm);
    const int pieces = std::max(1, static_cast<int>(std::ceil(along / longest_mm)));
    for (int k = 0; k < pieces; ++k) all.push_back({kg / pieces, geometry::along(from, to, (k + 0.5) / pieces), hangs});
}

} // namespace

std::vector<Weight> weightsOf(const Structure& s, double longest_mm) {
    std::vector<Weight> all;
    for (const Line& line : s.lines) {
        std::vector<double> areas;
        for (const Piece& p : line.pieces) areas.push_back(areaOf(p.section));
        double done = 0;
        std::size_t piece = 0;
        for (std::size_t k = 1; k < line.points.size(); ++k) {
            const Vec3 &from = line.points[k - 1], &to = line.points[k];
            const double length = geometry::between(from, to);
            double here = 0;
            while (length - here > 1e-9 && piece < line.pieces.size()) {
                const bool last = piece + 1 == line.pieces.size();
                const double until = last ? length : std::min(length, line.pieces[piece].until_mm - done);
                if (until > here)
                    spread(all, geometry::along(from, to, here / length), geometry::along(from, to, until / length),
                           areas[piece] * (until - here) * s.material.kg_mm3, longest_mm, false);
                here = std::max(here, until);
                if (!last && done + here >= line.pieces[piece].until_mm - 1e-9)
                    ++piece;
                else if (here >= length - 1e-9)
                    break;
            }
            done += length;
        }
    }
    for (const Hung& h : s.hung) {
        Vec3 from = h.at, to = h.at;
        from.x_mm -= h.over_mm / 2;
        to.x_mm += h.over_mm / 2;
        spread(all, from, to, h.mass_kg, longest_mm, true);
    }
    return all;
}

Mass massBetween(const std::vector<Weight>& all, double from_mm, double to_mm, bool with_what_hangs) {
    Mass m;
    for (const Weight& w : all) {
        if (w.at.x_mm < from_mm || w.at.x_mm > to_mm || (w.hangs && !with_what_hangs)) continue;
        m.kg += w.kg;
        m.middle = plus(m.middle, times(w.at, w.kg));
    }
    if (m.kg > 0) m.middle = times(m.middle, 1 / m.kg);
    return m;
}

} // namespace gorvet::frame
