#include "sit/trade_offs.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {

using build::Bound;

namespace {

/// How far a pin is from what is wanted: > 0 misses; a bound that is kept has a spare, < 0.
double shortfall(const Pin& w, const PinResult& r) {
    switch (w.bound) {
    case Bound::AtLeast: return w.target - r.achieved.value;
    case Bound::AtMost: return r.achieved.value - w.target;
    case Bound::Equal: break;
    }
    return std::abs(r.miss.value);
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
        moved.pins = achievedAt(in, pose, change);
        for (size_t i = 0; i < in.pins.size(); ++i)
            moved.gain.push_back(now[i].usable ? shortfall(in.pins[i], now[i]) - shortfall(in.pins[i], moved.pins[i]) : 0);
        out.push_back(std::move(moved));
    }
    return out;
}

std::vector<GivenUp> givenUp(const Input& in, const Seat& seat) {
    std::vector<GivenUp> out;
    if (seat.status != Status::Seated && seat.status != Status::Underdetermined) return out;
    for (size_t i = 0; i < in.pins.size(); ++i) {
        const PinResult& w = seat.pins[i];
        const bool contested = w.usable && (w.on_bound || std::abs(w.miss.value) > 0.25 * in.pins[i].tolerance);
        if (!contested || in.pins.size() < 2) continue;
        Input rest = in;
        rest.body.covariance.clear(); // the ± is not asked for
        rest.chassis.covariance.clear();
        rest.pins.erase(rest.pins.begin() + static_cast<std::ptrdiff_t>(i));
        // what only this pin asked for stays as it is
        if (in.pins[i].kind == PinKind::ArchRear && !rest.decided_change_mm) rest.decided_change_mm = seat.change_mm;
        const Seat without = sit::seat(rest);
        if (without.status != Status::Seated && without.status != Status::Underdetermined) continue;
        GivenUp g;
        g.pin = static_cast<int>(i);
        g.pins = achievedAt(in, without.pose, without.change_mm.value_or(0));
        g.becomes = g.pins[i];
        std::vector<double> gain(in.pins.size(), 0.0);
        for (size_t k = 0; k < in.pins.size(); ++k) {
            if (k == i || !seat.pins[k].usable) continue;
            // in tolerances, and no spare beyond a bound counts as a gain
            const double before = std::max(0.0, shortfall(in.pins[k], seat.pins[k]));
            const double after = std::max(0.0, shortfall(in.pins[k], g.pins[k]));
            gain[k] = (before - after) / in.pins[k].tolerance;
            if (gain[k] > 0.25) g.gains.push_back(static_cast<int>(k));
        }
        std::sort(g.gains.begin(), g.gains.end(),
                  [&](int a, int b) { return gain[static_cast<size_t>(a)] > gain[static_cast<size_t>(b)]; });
        if (!g.gains.empty()) out.push_back(std::move(g));
    }
    return out;
}

} // namespace gorvet::sit
