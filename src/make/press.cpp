#include "make/press.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace gorvet::make {

namespace {

using geometry::Flat;

constexpr double one_way = 0.05;      ///< rad: bends that run together so nearly are looked at as one profile
constexpr std::size_t most_bends = 7; ///< all orders of them are tried
constexpr double near_mm = 0.5;       ///< beyond a bend's end the sheet has ended
constexpr double sheet_mpa = 400, air_bend = 1.42;

Flat minus(const Flat& a, const Flat& b) { return {a.first - b.first, a.second - b.second}; }
double dot(const Flat& a, const Flat& b) { return a.first * b.first + a.second * b.second; }
Flat along(const FlatBend& b) {
    const Flat d = minus(b.to, b.from);
    const double l = std::hypot(d.first, d.second);
    return {d.first / l, d.second / l};
}
Flat acrossOf(const FlatBend& b) {
    const Flat a = along(b);
    return {-a.second, a.first};
}
double longOf(const FlatBend& b) { return std::hypot(b.to.first - b.from.first, b.to.second - b.from.second); }

/// A piece across its bends: where each is, where the sheet ends on both sides.
struct Profile {
    double begins = 0, ends = 0;
    struct Line {
        std::size_t bend;
        double at, angle;
    };
    std::vector<Line> lines; ///< from one side to the other
};
std::optional<Profile> profileOf(const FlatPiece& p) {
    const Flat across = acrossOf(p.bends.front());
    Profile out;
    for (std::size_t k = 0; k < p.bends.size(); ++k) {
        if (std::abs(dot(along(p.bends[k]), across)) > std::sin(one_way)) return std::nullopt;
        const Flat middle{(p.bends[k].from.first + p.bends[k].to.first) / 2, (p.bends[k].from.second + p.bends[k].to.second) / 2};
        out.lines.push_back({k, dot(middle, across), p.bends[k].angle_rad});
    }
    std::sort(out.lines.begin(), out.lines.end(), [](const auto& a, const auto& b) { return a.at < b.at; });
    out.begins = 1e18;
    out.ends = -1e18;
    for (const Flat& q : p.outline) {
        out.begins = std::min(out.begins, dot(q, across));
        out.ends = std::max(out.ends, dot(q, across));
    }
    return out;
}

/// What stands on one side of the blade, from its nose outwards: lengths, and the angles of what is bent already between them.
struct Wing {
    std::vector<double> lengths, angles;
};
/// How far its upper side comes past the blade's face when its sheet rises so far, and how high. The sheet beside the nose itself
/// is the bend.
std::pair<double, double> past(const Wing& w, double rises, double thick) {
    double x = 0, z = 0, way = rises, most = -1e18, at = 0;
    for (std::size_t k = 0; k < w.lengths.size(); ++k) {
        x += w.lengths[k] * std::cos(way);
        z += w.lengths[k] * std::sin(way);
        if (const double comes = (blade_mm + thick) / 2 - x; k > 0 && comes > most) {
            most = comes;
            at = z;
        }
        if (k < w.angles.size()) way += w.angles[k];
    }
    return {most, at};
}

} // namespace

std::optional<PressPlan> pressPlan(const FlatPiece& p) {
    if (p.bends.empty() || p.bends.size() > most_bends) return std::nullopt;
    const auto profile = profileOf(p);
    if (!profile) return std::nullopt;
    const auto& lines = profile->lines;
    const std::size_t n = lines.size();
    PressPlan best;
    best.vee_mm = vee_thicknesses * p.thickness_mm;
    best.past_mm = 1e18;
    std::vector<std::size_t> order(n);
    std::iota(order.begin(), order.end(), 0);
    std::size_t tried = 0;
    do {
        ++tried;
        std::vector<bool> bent(n, false);
        std::vector<PressStep> steps;
        double worst = -1e18, above = 0;
        for (const std::size_t k : order) {
            PressStep s;
            s.bend = lines[k].bend;
            const FlatBend& b = p.bends[s.bend];
            s.stop_mm = std::min(lines[k].at - profile->begins, profile->ends - lines[k].at);
            s.long_mm = longOf(b);
            s.force_N = air_bend * sheet_mpa * s.long_mm * p.thickness_mm * p.thickness_mm / best.vee_mm;
            s.past_mm = -1e18;
            for (const int side : {-1, 1}) {
                Wing w;
                double from = lines[k].at;
                for (std::size_t j = k + static_cast<std::size_t>(side); j < n; j += static_cast<std::size_t>(side)) {
                    if (!bent[j]) continue;
                    w.lengths.push_back(std::abs(lines[j].at - from));
                    w.angles.push_back(lines[j].angle);
                    from = lines[j].at;
                }
                w.lengths.push_back(std::abs((side < 0 ? profile->begins : profile->ends) - from));
                const auto [reaches, at] = past(w, lines[k].angle / 2, p.thickness_mm);
                if (reaches > s.past_mm) {
                    s.past_mm = reaches;
                    s.above_mm = at;
                }
            }
            if (s.past_mm > worst) {
                worst = s.past_mm;
                above = s.above_mm;
            }
            bent[k] = true;
            steps.push_back(s);
        }
        if (worst < best.past_mm - 1e-9) {
            best.past_mm = worst;
            best.above_mm = above;
            best.steps = std::move(steps);
        }
    } while (std::next_permutation(order.begin(), order.end()));
    best.tried = tried;
    return best;
}

std::optional<geometry::Outline> bentOutline(const FlatPiece& p) {
    if (p.bends.empty() || p.bends.size() > most_bends) return std::nullopt;
    const auto profile = profileOf(p);
    if (!profile) return std::nullopt;
    geometry::Outline lower, upper; // of the sheet: outside and inside of its bends
    double x = 0, y = 0, way = 0, from = profile->begins;
    const auto mark = [&] {
        lower.emplace_back(x, y);
        upper.emplace_back(x - p.thickness_mm * std::sin(way), y + p.thickness_mm * std::cos(way));
    };
    const auto straight = [&](double l) {
        x += l * std::cos(way);
        y += l * std::sin(way);
        mark();
    };
    mark();
    for (const Profile::Line& line : profile->lines) {
        const FlatBend& b = p.bends[line.bend];
        straight(line.at - b.allowance_mm / 2 - from);
        const double r = b.inside_mm + p.thickness_mm, middle_x = x - r * std::sin(way), middle_y = y + r * std::cos(way);
        constexpr int steps = 12;
        for (int k = 0; k < steps; ++k) {
            way += line.angle / steps;
            x = middle_x + r * std::sin(way);
            y = middle_y - r * std::cos(way);
            mark();
        }
        from = line.at + b.allowance_mm / 2;
    }
    straight(profile->ends - from);
    lower.insert(lower.end(), upper.rbegin(), upper.rend());
    return lower;
}

std::vector<HoleByBend> holesByBends(const FlatPiece& p) {
    std::vector<HoleByBend> all;
    for (std::size_t h = 0; h < p.holes.size(); ++h)
        for (std::size_t k = 0; k < p.bends.size(); ++k) {
            const FlatBend& b = p.bends[k];
            const Flat from = minus(p.holes[h].at, b.from), run = along(b);
            const double beyond = std::max({0.0, -dot(from, run), dot(from, run) - longOf(b)});
            const double off = std::hypot(std::max(0.0, std::abs(dot(from, acrossOf(b))) - b.allowance_mm / 2), beyond);
            const double room = off - p.holes[h].diameter_mm / 2;
            if (room < 2 * p.thickness_mm) all.push_back({h, k, room});
        }
    return all;
}

std::vector<std::size_t> tornBends(const FlatPiece& p) {
    std::vector<std::size_t> torn;
    for (std::size_t k = 0; k < p.bends.size(); ++k) {
        const FlatBend& b = p.bends[k];
        const Flat run = along(b), across = acrossOf(b);
        bool tears = false;
        for (const int end : {-1, 1})
            for (const double off : {-0.4, 0.0, 0.4}) { // all of what bends, but for its edges; an end may be cut on a slant
                const double beyond = near_mm + (off == 0 ? 0 : 2 * b.allowance_mm), at = end < 0 ? -beyond : longOf(b) + beyond;
                const Flat q{b.from.first + run.first * at + across.first * off * b.allowance_mm,
                             b.from.second + run.second * at + across.second * off * b.allowance_mm};
                tears = tears || (geometry::isInside(p.outline, q) && geometry::fromEdge(p.outline, q) > near_mm / 2);
            }
        if (tears) torn.push_back(k);
    }
    return torn;
}

} // namespace gorvet::make
