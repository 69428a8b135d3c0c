// Two rails with bridges between them, twisted.
#include "frame/ladder.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

constexpr double same_station_mm = 0.5; ///< stations nearer than that are one

/// The rail's place at a station; it must reach there.
Vec3 railAt(const std::vector<Vec3>& line, double station) {
    const auto next = std::find_if(line.begin(), line.end(), [&](const Vec3& p) { return p.x_mm >= station; });
    if (next == line.begin()) return line.front();
    if (next == line.end()) return line.back();
    const Vec3 a = *std::prev(next), b = *next;
    const double share = b.x_mm > a.x_mm ? (station - a.x_mm) / (b.x_mm - a.x_mm) : 0;
    return geometry::plus(a, geometry::times(geometry::minus(b, a), share));
}

Result<void> reaches(const Ladder& l, const std::string& what, double station) {
    for (const auto& [line, side] : {std::pair{&l.left, "left"}, std::pair{&l.right, "right"}})
        if (line->size() < 2 || station < line->front().x_mm - same_station_mm || station > line->back().x_mm + same_station_mm)
            return badInput(what, fmt::format("The {} rail does not reach {} at station {:.0f}.", side, what, station),
                            line->size() < 2
                                ? "Survey it first: two points of each rail at the least."
                                : fmt::format("It goes from {:.0f} to {:.0f}.", line->front().x_mm, line->back().x_mm));
    return {};
}

/// Where the rails are divided: ends, bends, axles, bridges, and in between.
std::vector<double> stationsOf(const Ladder& l, double pitch) {
    std::vector<double> fixed{l.front_axle_mm, l.rear_axle_mm};
    const double from = std::max(l.left.front().x_mm, l.right.front().x_mm),
                 to = std::min(l.left.back().x_mm, l.right.back().x_mm);
    fixed.insert(fixed.end(), {from, to});
    for (const Bridge& b : l.bridges) fixed.push_back(b.station_mm);
    for (const auto* line : {&l.left, &l.right})
        for (const Vec3& p : *line)
            if (p.x_mm > from && p.x_mm < to) fixed.push_back(p.x_mm);
    std::sort(fixed.begin(), fixed.end());
    std::vector<double> all;
    for (const double x : fixed) {
        if (!all.empty() && x - all.back() < same_station_mm) continue;
        if (!all.empty()) {
            const double gap = x - all.back(), begin = all.back();
            const int pieces = std::max(1, static_cast<int>(std::ceil(gap / pitch)));
            for (int k = 1; k < pieces; ++k) all.push_back(begin + gap * k / pieces);
        }
        all.push_back(x);
    }
    return all;
}

} // namespace

Section mirrored(Section s) {
    s.centroid.y_mm = -s.centroid.y_mm;
    s.shear_centre.y_mm = -s.shear_centre.y_mm;
    s.product_mm4 = -s.product_mm4;
    s.turned_rad = -s.turned_rad;
    for (double& w : s.warping_mm2) w = -w;
    return s;
}

Result<LadderModel> modelOf(const Ladder& l, bool joints_warp, double pitch) {
    for (const auto& [what, station] : {std::pair{"the front axle", l.front_axle_mm}, std::pair{"the rear axle", l.rear_axle_mm}})
        if (auto ok = reaches(l, what, station); !ok) return ok.error();
    if (l.rear_axle_mm - l.front_axle_mm < 100)
        return badInput("axles", "The axles stand less than 100 mm apart.", "Say where they are.");
    for (const Bridge& b : l.bridges)
        if (auto ok = reaches(l, "bridge " + b.name, b.station_mm); !ok) return ok.error();
    if (l.bridges.size() < 2)
        return Error{Error::Code::Conflict, "frame", "Fewer than two bridges keep the rails together.",
                     "Say where its crossmembers are.", -1};
    const std::vector<double> stations = stationsOf(l, std::max(pitch, 10.0));
    const std::size_t n = stations.size();
    LadderModel m;
    for (const auto* line : {&l.left, &l.right})
        for (const double x : stations) m.model.nodes.push_back(Node{railAt(*line, x), {}, {}});
    const auto at = [&](double station, bool right) {
        const auto found = std::min_element(stations.begin(), stations.end(),
                                            [&](double a, double b) { return std::abs(a - station) < std::abs(b - station); });
        return static_cast<std::size_t>(found - stations.begin()) + (right ? n : 0);
    };
    const BeamSection left = beamSection(l.rail, l.rail.centroid),
                      right = beamSection(mirrored(l.rail), mirrored(l.rail).centroid);
    for (const bool side : {false, true})
        for (std::size_t k = 0; k + 1 < n; ++k) {
            Beam b;
            b.from = k + (side ? n : 0);
            b.to = b.from + 1;
            b.section = side ? right : left;
            b.material = l.material;
            m.model.beams.push_back(b);
        }
    constexpr auto warp = static_cast<std::size_t>(Dof::Warp);
    for (const Bridge& bridge : l.bridges) {
        Beam b;
        b.from = at(bridge.station_mm, false);
        b.to = at(bridge.station_mm, true);
        b.section = beamSection(bridge.section, bridge.section.centroid);
        b.material = l.material;
        b.arm_from = b.arm_to = {0, 0, -bridge.below_mm};
        // what a bridge warps by is not what the rail warps by: it hands nothing over
        b.loose_from[warp] = b.loose_to[warp] = joints_warp;
        m.model.beams.push_back(b);
        if (!joints_warp)
            for (const std::size_t node : {b.from, b.to}) m.model.nodes[node].held[warp] = true;
    }
    for (const bool side : {false, true}) {
        m.front[side] = at(l.front_axle_mm, side);
        m.rear[side] = at(l.rear_axle_mm, side);
    }
    return m;
}

Result<Twist> twistOf(const Ladder& l, double pitch) {
    Twist t;
    t.length_mm = l.rear_axle_mm - l.front_axle_mm;
    t.open =
        !l.rail.closed() || std::any_of(l.bridges.begin(), l.bridges.end(), [](const Bridge& b) { return !b.section.closed(); });
    for (const bool joints_warp : {true, false}) {
        auto made = modelOf(l, joints_warp, pitch);
        if (!made) return made.error();
        Model& m = made->model;
        // three corners stand, the fourth is lifted: what twists is in balance whatever it stands on
        m.nodes[made->rear[0]].held[0] = m.nodes[made->rear[0]].held[1] = m.nodes[made->rear[0]].held[2] = true;
        m.nodes[made->rear[1]].held[0] = m.nodes[made->rear[1]].held[2] = true;
        m.nodes[made->front[1]].held[2] = true;
        constexpr double pull_n = 1000;
        const auto answer = solve(m, {{"twist", {{made->front[0], unit(Dof::Z, pull_n)}}, {}}});
        if (!answer) return answer.error();
        const double up = answer->front().moves[made->front[0]][2];
        const double track = std::abs(m.nodes[made->front[0]].at.y_mm - m.nodes[made->front[1]].at.y_mm);
        const double degrees = std::atan(up / track) * 180 / std::numbers::pi;
        (joints_warp ? t.free_nm_per_deg : t.held_nm_per_deg) = pull_n * track / 1000 / degrees;
        t.mass_kg = 0;
        for (const Beam& b : m.beams)
            t.mass_kg +=
                b.section.area_mm2 * b.material.kg_mm3 *
                geometry::between(geometry::plus(m.nodes[b.from].at, b.arm_from), geometry::plus(m.nodes[b.to].at, b.arm_to));
    }
    return t;
}

} // namespace gorvet::frame
