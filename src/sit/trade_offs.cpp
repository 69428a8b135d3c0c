#include "sit/trade_offs.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {

using build::Bound;

namespace {

/// How far a wish is from what is wanted: > 0 misses; a bound that is kept has a spare, < 0.
double shortfall(const Wish& w, const WishResult& r) {
    switch (w.bound) {
    case Bound::AtLeast: return w.target - r.achieved;
    case Bound::AtMost: return r.achieved - w.target;
    case Bound::Equal: break;
    }
    return std::abs(r.miss);
}

} // namespace

std::vector<Move> usualMoves(double step) {
    const double turn = units::radians(step * 0.025);
    return {{fmt::format("dropping the body {:g}", step), {0, 0, -step}, 0},
            {fmt::format("lifting it {:g}", step), {0, 0, step}, 0},
            {fmt::format("{:g} forward", step), {-step, 0, 0}, 0},
            {fmt::format("{:g} rearward", step), {step, 0, 0}, 0},
            {fmt::format("nose {:g}° down", units::degrees(turn)), {}, -turn},
            {fmt::format("nose {:g}° up", units::degrees(turn)), {}, turn}};
}

std::vector<Moved> afterMoves(const Input& in, const Seat& seat, const std::vector<Move>& moves) {
    std::vector<Moved> out;
    if (seat.status != Status::Seated && seat.status != Status::Underdetermined) return out;
    const double change = seat.change_mm.value_or(0);
    const double middle = (seat.wheelbase_now_mm.value_or(2600) + change) / 2;
    const auto now = achievedAt(in, seat.pose, change);
    for (const Move& m : moves) {
        Moved moved;
        moved.move = m;
        Pose pose = seat.pose;
        pose.shift = {pose.shift.x_mm + m.shift.x_mm, pose.shift.y_mm + m.shift.y_mm, pose.shift.z_mm + m.shift.z_mm};
        if (m.pitch_rad != 0) {
            // the place between the axles stays where it is; nose up lowers what is behind
            pose.pitch_rad += m.pitch_rad;
            pose.shift.z_mm += m.pitch_rad * (middle - seat.pose.shift.x_mm);
        }
        moved.wishes = achievedAt(in, pose, change);
        for (size_t i = 0; i < in.wishes.size(); ++i)
            moved.gain.push_back(now[i].usable ? shortfall(in.wishes[i], now[i]) - shortfall(in.wishes[i], moved.wishes[i]) : 0);
        out.push_back(std::move(moved));
    }
    return out;
}

std::vector<GivenUp> givenUp(const Input& in, const Seat& seat) {
    std::vector<GivenUp> out;
    if (seat.status != Status::Seated && seat.status != Status::Underdetermined) return out;
    for (size_t i = 0; i < in.wishes.size(); ++i) {
        const WishResult& w = seat.wishes[i];
        const bool contested = w.usable && (w.on_bound || std::abs(w.miss) > 0.25 * in.wishes[i].tolerance);
        if (!contested || in.wishes.size() < 2) continue;
        Input rest = in;
        rest.body.covariance.clear(); // the ± is not asked for
        rest.chassis.covariance.clear();
        rest.wishes.erase(rest.wishes.begin() + static_cast<std::ptrdiff_t>(i));
        // what only this wish asked for stays as it is
        if (in.wishes[i].kind == PinKind::ArchRear && !rest.decided_change_mm) rest.decided_change_mm = seat.change_mm;
        const Seat without = sit::seat(rest);
        if (without.status != Status::Seated && without.status != Status::Underdetermined) continue;
        GivenUp g;
        g.wish = static_cast<int>(i);
        g.wishes = achievedAt(in, without.pose, without.change_mm.value_or(0));
        g.becomes = g.wishes[i];
        std::vector<double> gain(in.wishes.size(), 0.0);
        for (size_t k = 0; k < in.wishes.size(); ++k) {
            if (k == i || !seat.wishes[k].usable) continue;
            // in tolerances, and no spare beyond a bound counts as a gain
            const double before = std::max(0.0, shortfall(in.wishes[k], seat.wishes[k]));
            const double after = std::max(0.0, shortfall(in.wishes[k], g.wishes[k]));
            gain[k] = (before - after) / in.wishes[k].tolerance;
            if (gain[k] > 0.25) g.gains.push_back(static_cast<int>(k));
        }
        std::sort(g.gains.begin(), g.gains.end(),
                  [&](int a, int b) { return gain[static_cast<size_t>(a)] > gain[static_cast<size_t>(b)]; });
        if (!g.gains.empty()) out.push_back(std::move(g));
    }
    return out;
}

} // namespace gorvet::sit
