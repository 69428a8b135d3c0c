#include "sit/way_in.hpp"

#include "shape/disjoint_sets.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;

constexpr float nothing_here = std::numeric_limits<float>::infinity();

/// Columns over a rectangle of stations and offsets.
struct Columns {
    double x0 = 0, y0 = 0, cell = 20;
    size_t nx = 1, ny = 1;
    size_t at(size_t ix, size_t iy) const { return iy * nx + ix; }
    size_t size() const { return nx * ny; }
    Point3 middle(size_t i, double z) const {
        return {x0 + (static_cast<double>(i % nx) + 0.5) * cell, y0 + (static_cast<double>(i / nx) + 0.5) * cell, z};
    }
};

void widen(const Mesh& m, const RigidTransform& move, Point3& least, Point3& most) {
    for (const Point3& q : m.points) {
        const Point3 p = move.transformed(q);
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], p[axis]);
            most[axis] = std::max(most[axis], p[axis]);
        }
    }
}

/// The lowest (or, upside down, the highest) place of a mesh in each column it touches. A triangle counts in a column with its
/// lowest place there: of its plane where that is known, never below its own lowest corner.
std::vector<float> lowest(const Mesh& m, const RigidTransform& move, const Columns& c, bool upside_down) {
    std::vector<float> low(c.size(), nothing_here);
    const double sign = upside_down ? -1 : 1;
    for (const shape::Triangle& t : m.triangles) {
        Point3 p[3];
        for (size_t k = 0; k < 3; ++k) {
            p[k] = move.transformed(m.points[t[k]]);
            p[k][2] *= sign;
        }
        const auto range = [&](size_t axis, double from, size_t n) {
            const double a = std::min({p[0][axis], p[1][axis], p[2][axis]}), b = std::max({p[0][axis], p[1][axis], p[2][axis]});
            const auto cell = [&](double v) {
                return static_cast<size_t>(std::clamp((v - from) / c.cell, 0.0, static_cast<double>(n - 1)));
            };
            return std::pair(cell(a), cell(b));
        };
        const auto [x_from, x_to] = range(0, c.x0, c.nx);
        const auto [y_from, y_to] = range(1, c.y0, c.ny);
        const double floor = std::min({p[0][2], p[1][2], p[2][2]});
        const Point3 n = geometry::cross(geometry::minus(p[1], p[0]), geometry::minus(p[2], p[0]));
        const bool flat = std::abs(n[2]) > 0.05 * geometry::length(n);
        for (size_t iy = y_from; iy <= y_to; ++iy)
            for (size_t ix = x_from; ix <= x_to; ++ix) {
                double z = floor;
                if (flat) {
                    // the plane's lowest place within the column
                    const Point3 middle = c.middle(c.at(ix, iy), 0);
                    const double at = p[0][2] - (n[0] * (middle[0] - p[0][0]) + n[1] * (middle[1] - p[0][1])) / n[2];
                    z = std::max(floor, at - (std::abs(n[0]) + std::abs(n[1])) / std::abs(n[2]) * c.cell / 2);
                }
                float& here = low[c.at(ix, iy)];
                here = std::min(here, static_cast<float>(z));
            }
    }
    if (upside_down)
        for (float& v : low) v = -v;
    return low;
}

/// What one part asks for: everywhere the body's lowest against the highest of the part that has to pass under it.
struct Asked {
    double lift = 0;
    Point3 at{};
};
Asked asked(const Columns& c, const std::vector<float>& body_low, const std::vector<float>& part_top, bool from_behind) {
    Asked most;
    for (size_t iy = 0; iy < c.ny; ++iy) {
        // coming in under the tail, a place of the chassis passes under everything behind it
        float highest = -nothing_here;
        size_t where = 0;
        for (size_t k = 0; k < c.nx; ++k) {
            const size_t i = c.at(from_behind ? k : c.nx - 1 - k, iy);
            if (part_top[i] > highest) {
                highest = part_top[i];
                where = i;
            }
            if (!std::isfinite(body_low[i]) || !std::isfinite(highest)) continue;
            if (const double lift = static_cast<double>(highest - body_low[i]); lift > most.lift)
                most = {lift, c.middle(where, static_cast<double>(highest))};
        }
    }
    return most;
}

Lift liftFor(const Columns& c, const std::vector<float>& body_low,
             const std::vector<std::pair<std::string, std::vector<float>>>& tops, bool from_behind, double spare) {
    Lift l;
    for (const auto& [name, top] : tops) {
        const Asked a = asked(c, body_low, top, from_behind);
        l.by_part.emplace_back(name, a.lift + spare);
        if (a.lift + spare > l.lift_mm) {
            l.lift_mm = a.lift + spare;
            l.at = a.at;
            l.part = name;
        }
    }
    std::stable_sort(l.by_part.begin(), l.by_part.end(), [](const auto& a, const auto& b) { return a.second > b.second; });
    return l;
}

} // namespace

std::string wholeLength(double mm, units::LengthStep step, bool with_unit) {
    if (units::unitOf(step) != units::Unit::Millimetre) return units::formatLength(mm, step, true);
    return fmt::format("{:.0f}{}", mm, with_unit ? " mm" : "");
}

WayIn wayIn(const Mesh& body, const RigidTransform& seat, const std::vector<WayPart>& chassis, const WayOptions& options) {
    WayIn way;
    Point3 least{1e300, 1e300, 1e300}, most{-1e300, -1e300, -1e300};
    widen(body, seat, least, most);
    for (const WayPart& p : chassis)
        if (p.mesh) widen(*p.mesh, {}, least, most);
    if (body.points.empty() || least[0] > most[0]) return way;
    Columns c;
    c.cell = options.cell_mm;
    c.x0 = least[0] - 2 * c.cell;
    c.y0 = least[1] - c.cell;
    c.nx = static_cast<size_t>((most[0] - least[0]) / c.cell) + 5;
    c.ny = static_cast<size_t>((most[1] - least[1]) / c.cell) + 3;
    std::vector<std::pair<std::string, std::vector<float>>> tops;
    for (const WayPart& p : chassis)
        if (p.mesh && !p.mesh->triangles.empty()) tops.emplace_back(p.name, lowest(*p.mesh, {}, c, true));
    if (tops.empty()) return way;

    const std::vector<float> low = lowest(body, seat, c, false);
    way.from_behind = liftFor(c, low, tops, true, options.spare_mm);
    way.from_front = liftFor(c, low, tops, false, options.spare_mm);
    way.behind_is_less = way.from_behind.lift_mm <= way.from_front.lift_mm;
    way.tilted = way.behind_is_less ? way.from_behind : way.from_front;
    // hanging nose up or down, about the middle of the body
    const Point3 middle = geometry::along(least, most, 0.5);
    for (int step = -6; step <= 6; ++step) {
        if (step == 0) continue;
        const double tilt = options.most_tilt_rad * step / 6;
        RigidTransform turn = geometry::rigidTransform({}, 0, tilt, 0);
        turn.translation = geometry::minus(middle, turn.rotated(middle));
        const std::vector<float> hung = lowest(body, chained(turn, seat), c, false);
        for (const bool behind : {true, false}) {
            const Lift l = liftFor(c, hung, tops, behind, options.spare_mm);
            if (l.lift_mm < way.tilted.lift_mm - 5) {
                way.tilted = l;
                way.tilt_rad = tilt;
                way.behind_is_less = behind;
            }
        }
    }

    // straight down: columns where chassis stands over body
    std::vector<float> over(c.size(), 0);
    std::vector<std::uint32_t> whose(c.size(), 0);
    for (size_t i = 0; i < c.size(); ++i)
        for (std::uint32_t k = 0; k < tops.size(); ++k)
            if (std::isfinite(low[i]) && std::isfinite(tops[k].second[i]) && tops[k].second[i] - low[i] > over[i]) {
                over[i] = tops[k].second[i] - low[i];
                whose[i] = k;
            }
    shape::DisjointSets groups(c.size());
    const auto counts = [&](size_t i) { return static_cast<double>(over[i]) > 3; };
    for (size_t iy = 0; iy < c.ny; ++iy)
        for (size_t ix = 0; ix < c.nx; ++ix) {
            const size_t i = c.at(ix, iy);
            if (!counts(i)) continue;
            if (ix > 0 && counts(i - 1)) groups.join(static_cast<std::uint32_t>(i), static_cast<std::uint32_t>(i - 1));
            if (iy > 0 && counts(i - c.nx)) groups.join(static_cast<std::uint32_t>(i), static_cast<std::uint32_t>(i - c.nx));
        }
    std::vector<std::int32_t> number(c.size(), -1);
    for (size_t i = 0; i < c.size(); ++i) {
        if (!counts(i)) continue;
        std::int32_t& n = number[groups.find(static_cast<std::uint32_t>(i))];
        if (n < 0) {
            n = static_cast<std::int32_t>(way.undercuts.size());
            way.undercuts.emplace_back();
        }
        Undercut& u = way.undercuts[static_cast<size_t>(n)];
        u.area_mm2 += c.cell * c.cell;
        if (static_cast<double>(over[i]) > u.by_mm) {
            u.by_mm = static_cast<double>(over[i]);
            u.part = tops[whose[i]].first;
            u.at = c.middle(i, static_cast<double>(tops[whose[i]].second[i]));
        }
    }
    std::stable_sort(way.undercuts.begin(), way.undercuts.end(),
                     [](const Undercut& a, const Undercut& b) { return a.by_mm > b.by_mm; });

    const auto len = [&](double mm) { return wholeLength(mm, options.words_in, true); };
    const Lift& level = way.from_behind.lift_mm <= way.from_front.lift_mm ? way.from_behind : way.from_front;
    way.words = fmt::format("Rolled in from {}, the body hangs {} above its seat, because of the {}.",
                            &level == &way.from_behind ? "behind" : "the front", len(level.lift_mm), level.part);
    if (level.by_part.size() > 1 && level.by_part[1].second < level.lift_mm - 30)
        way.words += fmt::format(" Without that, {} would do.", len(level.by_part[1].second));
    if (way.tilt_rad != 0)
        way.words +=
            fmt::format(" Hung {:.1f}° nose {}, {} are enough from {}.", std::abs(way.tilt_rad) * 180 / std::numbers::pi,
                        way.tilt_rad > 0 ? "up" : "down", len(way.tilted.lift_mm), way.behind_is_less ? "behind" : "the front");
    if (!way.undercuts.empty()) {
        const Undercut& u = way.undercuts.front();
        way.undercut_words =
            fmt::format("The {} stands {} over the body's lowest there, at station {}, {} {}{}.", u.part, len(u.by_mm),
                        wholeLength(u.at[0], options.words_in), wholeLength(std::abs(u.at[1]), options.words_in),
                        u.at[1] < 0 ? "left" : "right",
                        way.undercuts.size() > 1 ? fmt::format(", and in {} more places", way.undercuts.size() - 1) : "");
    }
    return way;
}

} // namespace gorvet::sit
