#include "sit/pairs.hpp"

#include "shape/parallel.hpp"

#include <algorithm>
#include <cmath>
#include <mutex>

namespace gorvet::sit {
namespace {

/// Where both parts stand in one moment.
struct Moment {
    double mu = 0, mv = 0, fu = 0, fv = 0;
};

struct Watcher {
    const Part& moving;
    const Part& fixed;
    const Motion& move;
    const Need& need;
    double least = 0;
    double deepest = 0; ///< of the points, once surfaces meet
    bool meets = false;
    Moment at;
    int looked_at = 0;

    Motion motion(const Moment& m) const {
        Motion out = move;
        if (moving.sweep) out = chained(move, moving.sweep->pose(m.mu, m.mv));
        if (fixed.sweep) out = chained(inverse(fixed.sweep->pose(m.fu, m.fv)), out);
        return out;
    }
    /// True when it is worse than what was found so far.
    bool look(const Moment& m) {
        ++looked_at;
        const Motion now = motion(m);
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

/// How far a place of the part goes at most for a change of u or v by `by`, near a moment.
double travel(const Part& p, double u, double v, double du, double dv) {
    const Motion a = p.sweep->pose(u, v), b = p.sweep->pose(u + du, v + dv);
    Point3 least = p.ready->mesh->points.front(), most = least;
    for (const Point3& q : p.ready->mesh->points)
        for (size_t axis = 0; axis < 3; ++axis) {
            least[axis] = std::min(least[axis], q[axis]);
            most[axis] = std::max(most[axis], q[axis]);
        }
    double far = 0;
    for (int corner = 0; corner < 8; ++corner) {
        const Point3 c{corner & 1 ? least[0] : most[0], corner & 2 ? least[1] : most[1], corner & 4 ? least[2] : most[2]};
        far = std::max(far, shape::between(a.moved(c), b.moved(c)));
    }
    return far;
}

} // namespace

std::optional<Pair> pairClearance(const Part& moving, const Part& fixed, const Motion& move, const Need& need, int threads,
                                  const std::function<bool()>& stop) {
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
    // ever finer about the worst; what does not move is not stepped
    Moment by{ms.u_steps > 1 ? (ms.one_way ? 1.0 : 2.0) / ms.u_steps : 0, ms.v_steps > 1 ? 2.0 / ms.v_steps : 0,
              fs.u_steps > 1 ? (fs.one_way ? 1.0 : 2.0) / fs.u_steps : 0, fs.v_steps > 1 ? 2.0 / fs.v_steps : 0};
    const bool swept = by.mu + by.mv + by.fu + by.fv > 0;
    for (int round = 0; swept && round < 4; ++round) {
        by = {by.mu / 2, by.mv / 2, by.fu / 2, by.fv / 2};
        const Moment from = watch.at;
        for (double Moment::*axis : {&Moment::mu, &Moment::mv, &Moment::fu, &Moment::fv}) {
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
        // a place that goes so far between two looks is nearer by half of it at most
        if (by.mu > 0) pair.between_mm += travel(moving, watch.at.mu, watch.at.mv, -std::copysign(by.mu, watch.at.mu), 0) / 2;
        if (by.mv > 0) pair.between_mm += travel(moving, watch.at.mu, watch.at.mv, 0, -std::copysign(by.mv, watch.at.mv)) / 2;
        if (by.fu > 0) pair.between_mm += travel(fixed, watch.at.fu, watch.at.fv, -std::copysign(by.fu, watch.at.fu), 0) / 2;
        if (by.fv > 0) pair.between_mm += travel(fixed, watch.at.fu, watch.at.fv, 0, -std::copysign(by.fv, watch.at.fv)) / 2;
        for (const auto& [part, u, v] : {std::tuple{&moving, watch.at.mu, watch.at.mv}, {&fixed, watch.at.fu, watch.at.fv}})
            if (part->sweep && (u != 0 || v != 0)) {
                const std::string words = part->sweep->words(u, v);
                if (!words.empty()) pair.pose += (pair.pose.empty() ? "" : ", ") + words;
            }
    }
    // in the worst pose all of it; places then go back to where the fixed part's axes are
    const Motion worst = watch.motion(watch.at);
    const auto c = clearance(*moving.ready, *fixed.ready, worst, need, threads, stop);
    if (!c) return std::nullopt;
    pair.least_mm = c->least_mm;
    pair.meets = c->meets;
    pair.depth_known = c->depth_known;
    pair.band = c->meets ? Band::Fouls : need.band(c->least_mm);
    pair.contacts = c->contacts;
    const Motion to_frame = fixed.sweep ? fixed.sweep->pose(watch.at.fu, watch.at.fv) : Motion{};
    pair.at = to_frame.moved(c->at_moving);
    for (Contact& k : pair.contacts) {
        k.at = to_frame.moved(k.at);
        if (fixed.sweep) k.least = k.most = k.at; // a box does not turn with it
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

LiveClearance worstOf(const Ready& moving, const std::vector<MapAgainst>& fixed, const Motion& move, const Need& shown,
                      int threads, const std::function<bool()>& stop) {
    LiveClearance worst;
    const size_t n = moving.mesh->points.size();
    worst.map.distance_mm.assign(n, static_cast<float>(shown.cap_mm));
    const double band = std::max(1e-3, shown.tightBelow() - shown.foulsBelow());
    std::vector<Motion> motions;
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
    if (n > 0) worst.at = move.moved(moving.mesh->points[least.point]);
    return worst;
}

} // namespace gorvet::sit
