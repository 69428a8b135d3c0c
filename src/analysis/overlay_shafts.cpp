// Shafts and steering columns that nobody scanned, drawn from what is said of them on Drive, and swept as their axles move them:
// so that Scan and Sit clear what Drive has worked out.
#include "analysis/overlay_parts.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;

namespace {

/// Takes a stretch to another: its beginning to its beginning, its way to its way by the smallest turn.
RigidTransform onto(const std::array<Vec3, 2>& from, const std::array<Vec3, 2>& to) {
    using namespace geometry;
    const Vec3 a = unit(minus(from[1], from[0])), b = unit(minus(to[1], to[0])), axis = cross(a, b);
    const double sine = length(axis);
    RigidTransform t;
    if (sine > 1e-12) t = turnedAbout(pointOf({0, 0, 0}), pointOf(times(axis, 1 / sine)), std::atan2(sine, dot(a, b)));
    t.translation = minus(to[0], t.rotated(from[0]));
    return t;
}

bool scanned(const Build& b, ScanPart part) {
    return std::any_of(b.scans.begin(), b.scans.end(), [&](const auto& row) { return row.second.part == part; });
}

} // namespace

std::vector<DrawnTube> drawnTubes(const Build& b, const Results& r) {
    std::vector<DrawnTube> all;
    if (!scanned(b, ScanPart::PropShaft))
        for (const drive::ChainPlan& chain : r.drive->chains)
            for (std::size_t k = 0; k < chain.shafts.size(); ++k) {
                const Shaft* s = shaftNamed(b, chain.shafts[k].name);
                if (!s || !s->tube || chain.sweep.empty()) continue;
                DrawnTube t{"shaft " + s->name, ScanPart::PropShaft, s->tube->value / 2, {}, {}};
                for (const drive::SweepRow& row : chain.sweep) {
                    if (row.at.size() < k + 2) continue;
                    t.through.push_back({row.share, {row.at[k], row.at[k + 1]}});
                    if (std::abs(row.share) < 1e-9) t.at = t.through.back().at;
                }
                const Carrier from = b.drive_ends.at(s->from).on, to = b.drive_ends.at(s->to).on;
                const auto guessed = [&](bool front) {
                    const WheelTravel& w = b.travel;
                    return (front ? w.front_bump : w.rear_bump).provenance == Provenance::Assumed ||
                           (front ? w.front_droop : w.rear_droop).provenance == Provenance::Assumed;
                };
                for (const Carrier on : {from, to})
                    t.assumed = t.assumed || (on != Carrier::Frame && guessed(on == Carrier::Front));
                if (t.through.size() == chain.sweep.size()) all.push_back(std::move(t));
            }
    const drive::ColumnIn& column = r.column.input();
    if (!scanned(b, ScanPart::SteeringShaft) && column.missing.empty())
        for (std::size_t k = 0; k + 1 < column.points.size(); ++k) {
            const auto at = [&](std::size_t n) { return column.places.at[column.points[n]]; };
            all.push_back(
                {fmt::format("column {} to {}", column.places.names[column.points[k]], column.places.names[column.points[k + 1]]),
                 ScanPart::SteeringShaft,
                 column.across_mm / 2,
                 {at(k), at(k + 1)},
                 {}});
            if (k == 0) continue;
            // a joint turns twice as wide as its shaft, as Drive has it
            const Vec3 half = geometry::times(geometry::unit(geometry::minus(at(k + 1), at(k))), 0.5);
            all.push_back({fmt::format("joint {}", column.places.names[column.points[k]]),
                           ScanPart::SteeringShaft,
                           column.across_mm,
                           {geometry::minus(at(k), half), geometry::plus(at(k), half)},
                           {}});
        }
    return all;
}

shape::Mesh tubeMesh(const DrawnTube& t) {
    using namespace geometry;
    constexpr int around = 32, cap = 8;
    const Vec3 along = unit(minus(t.at[1], t.at[0]));
    const Vec3 across = unit(cross(along, std::abs(along.z_mm) < 0.9 ? Vec3{0, 0, 1} : Vec3{0, 1, 0})),
               over = cross(along, across);
    const double reach = length(minus(t.at[1], t.at[0]));
    // flat pieces that touch it from outside: nothing is drawn smaller than it is
    const double radius = t.radius_mm / std::cos(std::numbers::pi / around) / std::cos(std::numbers::pi / (4 * cap));
    std::vector<std::array<double, 2>> rings; // along, and from the line
    for (int k = 1; k <= cap; ++k) {
        const double a = std::numbers::pi / 2 * k / cap;
        rings.push_back({-radius * std::cos(a), radius * std::sin(a)});
    }
    for (int k = cap; k >= 1; --k) {
        const double a = std::numbers::pi / 2 * k / cap;
        rings.push_back({reach + radius * std::cos(a), radius * std::sin(a)});
    }
    shape::Mesh m;
    const auto place = [&](double s, double from, double angle) {
        m.points.push_back(pointOf(plus(
            t.at[0], plus(times(along, s), plus(times(across, from * std::cos(angle)), times(over, from * std::sin(angle)))))));
    };
    place(-radius, 0, 0);
    for (const auto& [s, from] : rings)
        for (int k = 0; k < around; ++k) place(s, from, 2 * std::numbers::pi * k / around);
    place(reach + radius, 0, 0);
    const auto n = static_cast<std::uint32_t>(around), last = static_cast<std::uint32_t>(m.points.size() - 1);
    const auto at = [&](std::size_t ring, std::uint32_t k) { return 1 + static_cast<std::uint32_t>(ring) * n + k % n; };
    for (std::uint32_t k = 0; k < n; ++k) {
        m.triangles.push_back({0, at(0, k + 1), at(0, k)});
        for (std::size_t ring = 0; ring + 1 < rings.size(); ++ring) {
            m.triangles.push_back({at(ring, k), at(ring, k + 1), at(ring + 1, k + 1)});
            m.triangles.push_back({at(ring, k), at(ring + 1, k + 1), at(ring + 1, k)});
        }
        m.triangles.push_back({last, at(rings.size() - 1, k), at(rings.size() - 1, k + 1)});
    }
    return m;
}

std::optional<sit::Sweep> tubeSweep(const DrawnTube& t) {
    if (t.through.size() < 2) return std::nullopt;
    sit::Sweep sweep;
    sweep.pose = [t](double u, double) {
        const double least = t.through.front().share, most = t.through.back().share;
        const double share = std::clamp(u, least, most);
        for (std::size_t k = 0; k + 1 < t.through.size(); ++k) {
            const auto &a = t.through[k], &b = t.through[k + 1];
            if (share > b.share) continue;
            const double by = (share - a.share) / (b.share - a.share);
            return onto(t.at, {geometry::along(a.at[0], b.at[0], by), geometry::along(a.at[1], b.at[1], by)});
        }
        return RigidTransform{};
    };
    sweep.words = [](double u, double) {
        return std::abs(u) < 1e-9 ? std::string()
                                  : fmt::format("its axle at {:.0f} % of full {}", 100 * std::abs(u), u > 0 ? "bump" : "droop");
    };
    sweep.u_steps = 8;
    return sweep;
}

} // namespace gorvet::analysis
