#include "sit/pairs.hpp"

#include "shape/parallel.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <mutex>
#include <queue>
#include <tuple>

namespace gorvet::sit {
namespace {

/// Where both parts stand in one moment.
struct Moment {
    double mu = 0, mv = 0, fu = 0, fv = 0;
};

struct Watcher {
    const Part& moving;
    const Part& fixed;
    const RigidTransform& move;
    const Need& need;
    double least = 0;
    double deepest = 0; ///< of the points, once surfaces meet
    bool meets = false;
    Moment at;
    int looked_at = 0;

    RigidTransform motion(const Moment& m) const {
        RigidTransform out = move;
        if (moving.sweep) out = chained(move, moving.sweep->pose(m.mu, m.mv));
        if (fixed.sweep) out = chained(inverse(fixed.sweep->pose(m.fu, m.fv)), out);
        return out;
    }
    /// The distance in a moment, exact up to `beyond` over the least found so far and up to the cap; the least follows.
    double distance(const Moment& m, double beyond) {
        ++looked_at;
        const double cap = std::min(need.cap_mm, least + beyond);
        const double d = shape::closest(*moving.ready->tree, *fixed.ready->tree, motion(m), cap).least_mm;
        if (d < least) {
            least = d;
            at = m;
            if (d <= 0) {
                --looked_at;
                meets = true;
                deepest = INFINITY;
                look(m);
            }
        }
        return std::min(d, cap);
    }
    /// True when it is worse than what was found so far.
    bool look(const Moment& m) {
        ++looked_at;
        const RigidTransform now = motion(m);
        if (!meets) {
            const shape::Closest c = shape::closest(*moving.ready->tree, *fixed.ready->tree, now, least);
            if (c.least_mm >= least) return false;
            least = c.least_mm;
            at = m;
            if (least > 0) return true;
            meets = true;
            deepest = INFINITY;
        }
        // surfaces that meet are told apart by how deep points lie, and where nothing has an inside by how many lie near
        const LiveClearance live = liveClearance(*moving.ready, *fixed.ready, now, need, 1);
        const LiveClearance other = liveClearance(*fixed.ready, *moving.ready, inverse(now), need, 1);
        const double depth = std::min(live.least_mm, other.least_mm) - 1e-6 * static_cast<double>(live.fouls);
        if (depth >= deepest) return false;
        deepest = depth;
        at = m;
        return true;
    }
};

std::vector<double> steps(int n, bool one_way) {
    std::vector<double> list = {0};
    if (n <= 1) return list;
    for (int k = 0; k <= n; ++k) {
        const double v = one_way ? static_cast<double>(k) / n : 2.0 * k / n - 1;
        if (std::abs(v) > 1e-9) list.push_back(v);
    }
    return list;
}

/// The corners of a part's box: no place of it moves further than the furthest of them, as what a rigid motion moves a place by
/// is affine in the place.
std::array<Point3, 8> cornersOf(const Part& p) {
    Point3 least = p.ready->mesh->points.front(), most = least;
    for (const Point3& q : p.ready->mesh->points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], q[axis]);
            most[axis] = std::max(most[axis], q[axis]);
        }
    std::array<Point3, 8> corners;
    for (size_t k = 0; k < 8; ++k)
        corners[k] = {k & 1 ? least[0] : most[0], k & 2 ? least[1] : most[1], k & 4 ? least[2] : most[2]};
    return corners;
}

/// How fast any place of a part goes at most as u and as v change, mm over the whole of one: the longest chord of a corner
/// between neighbouring poses of a fine grid over all of them, and a little, as an arc is longer than its chord.
std::pair<double, double> speedOf(const Sweep& s, const std::array<Point3, 8>& corners) {
    constexpr int n = 16;
    constexpr double arc = 1.02;
    const double from = s.one_way ? 0 : -1;
    const auto at = [&](int i) { return from + (1 - from) * i / n; };
    const auto v_at = [&](int k) { return s.v_steps > 1 ? -1 + 2.0 * k / n : 0.0; };
    const int us = s.u_steps > 1 ? n : 0;
    const int vs = s.v_steps > 1 ? n : 0;
    std::vector<std::array<Point3, 8>> poses(static_cast<size_t>((us + 1) * (vs + 1)));
    for (int i = 0; i <= us; ++i)
        for (int k = 0; k <= vs; ++k) {
            const RigidTransform m = s.pose(us ? at(i) : 0, v_at(k));
            for (size_t c = 0; c < 8; ++c) poses[static_cast<size_t>(i * (vs + 1) + k)][c] = m.transformed(corners[c]);
        }
    double by_u = 0, by_v = 0;
    for (int i = 0; i <= us; ++i)
        for (int k = 0; k <= vs; ++k)
            for (size_t c = 0; c < 8; ++c) {
                const Point3& p = poses[static_cast<size_t>(i * (vs + 1) + k)][c];
                if (i < us) by_u = std::max(by_u, geometry::between(p, poses[static_cast<size_t>((i + 1) * (vs + 1) + k)][c]));
                if (k < vs) by_v = std::max(by_v, geometry::between(p, poses[static_cast<size_t>(i * (vs + 1) + k + 1)][c]));
            }
    return {arc * by_u * n / (1 - from), arc * by_v * n / 2};
}

constexpr double Moment::*axes[4] = {&Moment::mu, &Moment::mv, &Moment::fu, &Moment::fv};

/// A piece of all poses, about its middle.
struct Cell {
    Moment middle;
    Moment half;
    std::array<double, 4> way{}; ///< how far a place goes from the middle to the edge, along each
    double lower = 0;            ///< no pose in it has the parts nearer
    bool operator<(const Cell& o) const { return lower > o.lower; } // the least stands first in the queue
};

/// Branch and bound over all poses: in a cell the distance is at least that in its middle less the ways to its edge. Cells that
/// may hold less than what was found are halved, until none may by more than `sure_mm`.
class Bounding {
public:
    Bounding(Watcher& watch, const Sweep& ms, const Sweep& fs) : watch_(watch), ms_(ms), fs_(fs) {
        if (watch.moving.sweep) std::tie(speed_[0], speed_[1]) = speedOf(ms, cornersOf(watch.moving));
        if (watch.fixed.sweep) std::tie(speed_[2], speed_[3]) = speedOf(fs, cornersOf(watch.fixed));
    }

    /// Nothing when stopped. By how much it may still be nearer than `watch.least`.
    std::optional<double> run(const std::function<bool()>& stop) {
        constexpr double sure_mm = 1;
        constexpr int most_looks = 4000;
        // from cells as large as the steps: larger ones would have to be looked at far out for nothing
        const std::array<int, 4> steps = {ms_.u_steps, ms_.v_steps, fs_.u_steps, fs_.v_steps};
        const std::array<bool, 4> one_way = {ms_.one_way, false, fs_.one_way, false};
        std::vector<Cell> cells(1);
        for (size_t k = 0; k < 4; ++k) {
            if (steps[k] <= 1) continue;
            std::vector<Cell> finer;
            const double from = one_way[k] ? 0 : -1, half = (1 - from) / steps[k] / 2;
            for (const Cell& c : cells)
                for (int i = 0; i < steps[k]; ++i) {
                    finer.push_back(c);
                    finer.back().middle.*axes[k] = from + (2 * i + 1) * half;
                    finer.back().half.*axes[k] = half;
                }
            cells = std::move(finer);
        }
        for (Cell& c : cells) {
            if (stop && stop()) return std::nullopt;
            put(c);
        }
        for (int looks = 0; !queue_.empty(); ++looks) {
            const Cell cell = queue_.top();
            if (watch_.meets || cell.lower >= std::min(watch_.least, watch_.need.cap_mm) - sure_mm || looks > most_looks) break;
            if (stop && stop()) return std::nullopt;
            queue_.pop();
            const auto widest = static_cast<size_t>(std::max_element(cell.way.begin(), cell.way.end()) - cell.way.begin());
            for (const double side : {-0.5, 0.5}) {
                Cell part = cell;
                part.half.*axes[widest] = cell.half.*axes[widest] / 2;
                part.middle.*axes[widest] = cell.middle.*axes[widest] + side * cell.half.*axes[widest];
                put(part);
            }
        }
        if (!queue_.empty()) floor_ = std::min(floor_, queue_.top().lower);
        return watch_.meets ? 0 : std::max(0.0, std::min(watch_.least, watch_.need.cap_mm) - floor_);
    }

private:
    void put(Cell& cell) {
        for (size_t k = 0; k < 4; ++k) cell.way[k] = speed_[k] * cell.half.*axes[k];
        const double way = cell.way[0] + cell.way[1] + cell.way[2] + cell.way[3];
        cell.lower = watch_.distance(cell.middle, way) - way;
        if (cell.lower < std::min(watch_.least, watch_.need.cap_mm)) queue_.push(cell);
    }

    Watcher& watch_;
    const Sweep& ms_;
    const Sweep& fs_;
    std::array<double, 4> speed_{}; ///< along each of the axes
    std::priority_queue<Cell> queue_;
    double floor_ = INFINITY;
};

} // namespace

std::optional<Pair> pairClearance(const Part& moving, const Part& fixed, const RigidTransform& move, const Need& need,
                                  int threads, const std::function<bool()>& stop) {
    Pair pair;
    pair.need = need;
    pair.least_mm = need.cap_mm;
    const auto stopped = [&] { return stop && stop(); };
    if (moving.ready->mesh->points.empty() || fixed.ready->mesh->points.empty()) return pair;
    Watcher watch{moving, fixed, move, need, need.cap_mm, 0, false, {}, 0};
    const Sweep still{};
    const Sweep& ms = moving.sweep ? *moving.sweep : still;
    const Sweep& fs = fixed.sweep ? *fixed.sweep : still;
    for (const double mu : steps(ms.u_steps, ms.one_way))
        for (const double mv : steps(ms.v_steps, false))
            for (const double fu : steps(fs.u_steps, fs.one_way))
                for (const double fv : steps(fs.v_steps, false)) {
                    if (stopped()) return std::nullopt;
                    watch.look({mu, mv, fu, fv});
                }
    Moment by{ms.u_steps > 1 ? (ms.one_way ? 1.0 : 2.0) / ms.u_steps : 0, ms.v_steps > 1 ? 2.0 / ms.v_steps : 0,
              fs.u_steps > 1 ? (fs.one_way ? 1.0 : 2.0) / fs.u_steps : 0, fs.v_steps > 1 ? 2.0 / fs.v_steps : 0};
    const bool swept = by.mu + by.mv + by.fu + by.fv > 0;
    if (swept && !watch.meets) {
        const auto nearer = Bounding(watch, ms, fs).run(stop);
        if (!nearer) return std::nullopt;
        pair.between_mm = *nearer;
    }
    // where surfaces meet, how deep: ever finer about the worst; what does not move is not stepped
    for (int round = 0; swept && watch.meets && round < 4; ++round) {
        by = {by.mu / 2, by.mv / 2, by.fu / 2, by.fv / 2};
        const Moment from = watch.at;
        for (double Moment::*axis : axes) {
            if (by.*axis == 0) continue;
            const double low = (axis == &Moment::mu && ms.one_way) || (axis == &Moment::fu && fs.one_way) ? 0 : -1;
            for (const double side : {-1.0, 1.0}) {
                if (stopped()) return std::nullopt;
                Moment next = from;
                next.*axis = std::clamp(from.*axis + side * by.*axis, low, 1.0);
                watch.look(next);
            }
        }
    }
    pair.poses = watch.looked_at;
    if (swept) {
        for (const auto& [part, u, v] : {std::tuple{&moving, watch.at.mu, watch.at.mv}, {&fixed, watch.at.fu, watch.at.fv}})
            if (part->sweep && (u != 0 || v != 0)) {
                const std::string words = part->sweep->words(u, v);
                if (!words.empty()) pair.pose += (pair.pose.empty() ? "" : ", ") + words;
            }
    }
    // in the worst pose all of it; places then go back to where the fixed part's axes are
    const RigidTransform worst = watch.motion(watch.at);
    const auto c = clearance(*moving.ready, *fixed.ready, worst, need, threads, stop);
    if (!c) return std::nullopt;
    pair.least_mm = c->least_mm;
    pair.meets = c->meets;
    pair.depth_known = c->depth_known;
    pair.band = c->meets ? Band::Fouls : need.band(c->least_mm - pair.between_mm);
    pair.contacts = c->contacts;
    const RigidTransform to_frame = fixed.sweep ? fixed.sweep->pose(watch.at.fu, watch.at.fv) : RigidTransform{};
    pair.at = to_frame.transformed(c->at_moving);
    for (Contact& k : pair.contacts) {
        k.at = to_frame.transformed(k.at);
        if (fixed.sweep) k.box = {k.at, k.at}; // a box does not turn with it
    }
    return pair;
}

std::vector<SweepEnd> endsOf(const Sweep& s) {
    std::vector<SweepEnd> ends;
    const auto range = [](int steps, bool one_way) {
        return steps <= 1 ? std::vector{0.0} : one_way ? std::vector{0.0, 1.0} : std::vector{-1.0, 0.0, 1.0};
    };
    for (const double u : range(s.u_steps, s.one_way))
        for (const double v : range(s.v_steps, false))
            if (u != 0 || v != 0) ends.push_back({s.pose(u, v), s.words(u, v)});
    return ends;
}

LiveClearance worstOf(const Ready& moving, const std::vector<MapAgainst>& fixed, const RigidTransform& move, const Need& shown,
                      int threads, const std::function<bool()>& stop) {
    LiveClearance worst;
    const size_t n = moving.mesh->points.size();
    worst.map.distance_mm.assign(n, static_cast<float>(shown.cap_mm));
    const double band = std::max(1e-3, shown.tightBelow() - shown.foulsBelow());
    std::vector<RigidTransform> motions;
    for (const MapAgainst& f : fixed) {
        motions.push_back(chained(inverse(f.fixed_pose), chained(move, f.moving_pose)));
        worst.map.has_inside = worst.map.has_inside || (f.part->sides && f.part->sides->any());
    }
    /// Of equals the same one, however the work was shared out.
    struct Least {
        double mm = 0;
        size_t map = 0;
        std::uint32_t point = 0;
        auto operator<=>(const Least&) const = default;
    };
    Least least{shown.cap_mm, fixed.size(), 0};
    std::mutex shared;
    // a piece of the points at a time against all, so that they are gone through once
    shape::inPieces(n, shape::PointOrder::piece_points, shape::threadsOf(threads), [&](size_t from, size_t to) {
        Least own_least{shown.cap_mm, fixed.size(), 0};
        for (size_t k = 0; k < fixed.size(); ++k) {
            if (stop && stop()) return;
            const Need& need = fixed[k].need;
            const bool same = need.foulsBelow() == shown.foulsBelow() && need.tightBelow() == shown.tightBelow();
            const double own = std::max(1e-3, need.tightBelow() - need.foulsBelow());
            const auto put = [&](std::uint32_t i, double d) {
                own_least = std::min(own_least, Least{d, k, i});
                // depths keep their size; between fouls and clear the two scales run side by side
                const double over = d - need.foulsBelow();
                const double there = same ? d : shown.foulsBelow() + (over > 0 ? over / own * band : over);
                worst.map.distance_mm[i] =
                    std::min(worst.map.distance_mm[i], static_cast<float>(std::clamp(there, -shown.cap_mm, shown.cap_mm)));
            };
            shape::eachDistance(*fixed[k].part->tree, fixed[k].part->sides.get(), moving.order, motions[k], need.cap_mm, from, to,
                                put);
        }
        const std::lock_guard lock(shared);
        least = std::min(least, own_least);
    });
    worst.least_mm = least.mm;
    if (least.map < fixed.size()) worst.pose = fixed[least.map].pose;
    for (const float v : worst.map.distance_mm) {
        switch (shown.band(static_cast<double>(v))) {
        case Band::Clear: ++worst.clear; break;
        case Band::Tight: ++worst.tight; break;
        case Band::Fouls: ++worst.fouls; break;
        }
    }
    if (n > 0) worst.at = move.transformed(moving.mesh->points[least.point]);
    return worst;
}

} // namespace gorvet::sit
