#include "analysis/seatings.hpp"

#include "analysis/sit_input.hpp"
#include "analysis/wording.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// Beside each other only figures are shown: the ± is left out, which saves most of the work.
sit::Input withoutU95(sit::Input in) {
    in.body.covariance.clear();
    in.chassis.covariance.clear();
    return in;
}

/// A seat of that input: of now, or of a column that was worked out before, when it is the same.
Node<sit::Input, sit::Seat> seatOf(sit::Input in, const Results& r, const Results* previous) {
    const Node<sit::Input, sit::Seat>* before = &r.seat;
    if (previous)
        for (const auto& c : previous->seatings.columns)
            if (c.seat.madeFrom(in)) before = &c.seat;
    return Node<sit::Input, sit::Seat>::of(std::move(in), before, sit::seat);
}

bool seats(const sit::Seat& s) { return s.status == sit::Status::Seated || s.status == sit::Status::Underdetermined; }

/// Mean height of the points with a role, placed on the chassis.
std::optional<double> heightOf(const Build& b, const Results& r, Role role) {
    double sum = 0;
    int n = 0;
    for (const auto& [id, p] : b.points) {
        if (p.role != role) continue;
        const auto at = p.subject == the_body ? r.bodyInChassis(id) : r.chassis.positionOf(id);
        if (!at) continue;
        sum += at->z_mm;
        ++n;
    }
    return n ? std::optional(sum / n) : std::nullopt;
}

sit::LoweringInput loweringInput(const Build& b, const Results& r) {
    sit::LoweringInput in;
    for (const auto& [id, z] : b.zones)
        if (z.name == b.lowering.floor || (b.lowering.floor.empty() && z.name == "floor")) {
            in.floor_length_mm = z.to.x_mm - z.from.x_mm;
            in.floor_width_mm = z.to.y_mm - z.from.y_mm;
        }
    in.rail_width_mm = b.rail.width.value;
    const double around = 2 * (b.rail.height.value + b.rail.width.value);
    in.rail_perimeter_mm = b.rail.shape == RailShape::Box ? around : around - b.rail.height.value;
    in.side_gap_mm = b.clearances.least.value;
    in.sheet_mm = b.clearances.sheet.value;
    in.kick_run_mm = b.lowering.kick_to.value - b.lowering.kick_from.value;
    const auto seat = heightOf(b, r, Role::Seat), roof = heightOf(b, r, Role::Roof);
    if (seat && roof) in.head_room_mm = *roof - *seat;
    if (r.seat->ground) {
        double least = INFINITY;
        for (const RailLine* rail : {&r.planned_left, &r.planned_right})
            for (const Vec3& p : rail->points) {
                if (p.x_mm < b.lowering.kick_from.value || p.x_mm > b.lowering.kick_to.value) continue;
                const double bottom = rail->datum_face == RailFace::Top ? p.z_mm - rail->height_mm : p.z_mm;
                least = std::min(least, sit::heightOver(*r.seat->ground, {p.x_mm, p.y_mm, bottom}));
            }
        if (std::isfinite(least)) in.ground_clearance_mm = least;
    }
    return in;
}

} // namespace

bool samePin(const Pin& a, const Pin& b) {
    return a.kind == b.kind && a.points == b.points && a.to == b.to && a.box == b.box && a.bound == b.bound;
}

Build seatedAs(const Build& b, const Seating& s) {
    Build copy = b;
    copy.pins.clear();
    for (const Pin& p : s.pins) copy.pins[p.id] = p;
    copy.stretch.wheelbase_change = s.wheelbase_change;
    copy.school.leads = s.leads;
    copy.lowering = s.lowering;
    return copy;
}

SeatingsCompared compareSeatings(const Build& b, const Results& r, const Results* previous) {
    SeatingsCompared out;
    out.lowering_input = loweringInput(b, r);
    out.lower_by_mm = std::max({b.lowering.channel.value, b.lowering.raise.value, b.lowering.kick.value});
    if (out.lower_by_mm <= 0) out.lower_by_mm = 25;
    out.ways = sit::waysToLower(out.lowering_input, out.lower_by_mm);
    if (b.pins.empty() && b.seatings.empty()) return out;
    SeatingsCompared::Column now;
    now.name = "now";
    now.seat = r.seat;
    now.lowering = b.lowering;
    now.usable = r.seated();
    out.columns.push_back(std::move(now));
    if (r.seated()) {
        out.trade_offs = decltype(out.trade_offs)::of(
            r.seat.share(), previous ? &previous->seatings.trade_offs : nullptr, [&](const auto& seat) {
                return SeatingsCompared::TradeOffs{sit::afterMoves(r.seat.input(), *seat, sit::usualMoves()),
                                                   sit::givenUp(r.seat.input(), *seat)};
            });
        // both schools, when they ask for different places
        for (const Leads leads : {Leads::Driveline, Leads::Body}) {
            if (leads == b.school.leads) continue;
            SeatingsCompared::Column c;
            c.name = leads == Leads::Driveline ? "driveline leads" : "body leads";
            sit::Input in = withoutU95(r.seat.input());
            in.leads = leads;
            c.lowering = b.lowering;
            c.seat = seatOf(std::move(in), r, previous);
            c.usable = seats(*c.seat);
            const auto& p = c.seat->pose.shift;
            const auto& q = r.seat->pose.shift;
            const bool elsewhere = std::hypot(p.x_mm - q.x_mm, p.y_mm - q.y_mm, p.z_mm - q.z_mm) > 0.2 ||
                                   std::abs(c.seat->pose.pitch_rad - r.seat->pose.pitch_rad) > 1e-4;
            if (elsewhere) out.columns.push_back(std::move(c));
        }
    }
    const auto row = [&](const Pin& p) {
        if (std::none_of(out.rows.begin(), out.rows.end(), [&](const Pin& q) { return samePin(p, q); })) out.rows.push_back(p);
    };
    for (const auto& [id, p] : b.pins) row(p);
    for (const auto& [id, s] : b.seatings) {
        SeatingsCompared::Column c;
        c.name = s.name;
        c.id = id;
        c.lowering = s.lowering;
        c.note = s.note;
        const bool whole = std::all_of(s.pins.begin(), s.pins.end(), [&](const Pin& p) {
            const auto there = [&](PointId point) { return b.points.contains(point); };
            return std::all_of(p.points.begin(), p.points.end(), there) && std::all_of(p.to.begin(), p.to.end(), there) &&
                   (p.kind != PinKind::Clear || b.obstacles.contains(p.box));
        });
        if (whole) {
            c.seat = seatOf(withoutU95(sitInput(seatedAs(b, s), r).input), r, previous);
            c.usable = seats(*c.seat);
            for (const Pin& p : s.pins) row(p);
        }
        out.columns.push_back(std::move(c));
    }
    // every row in every column, pinned there or not
    Build all = b;
    all.pins.clear();
    for (size_t i = 0; i < out.rows.size(); ++i) {
        Pin p = out.rows[i];
        p.id = PinId{static_cast<std::uint32_t>(i + 1)};
        all.pins[p.id] = p;
    }
    const SitInput every = sitInput(all, r);
    for (auto& c : out.columns) {
        if (!c.usable) continue;
        sit::Input in = every.input;
        in.cut_slope_rad = c.seat.input().cut_slope_rad;
        const auto found = sit::achievedAt(in, c.seat->pose, c.seat->change_mm.value_or(0));
        c.rows.resize(out.rows.size());
        for (size_t i = 0; i < found.size(); ++i) c.rows[every.pin_ids[i].value - 1] = found[i];
    }
    return out;
}

std::string moveSentence(const Build& b, const Results& r, const sit::Moved& m) {
    std::vector<std::string> costs, brings;
    for (size_t i = 0; i < m.gain.size(); ++i) {
        const Pin& pin = b.pins.at(r.pin_ids[i]);
        if (std::abs(m.gain[i]) < 0.2 * pin.tolerance) continue;
        (m.gain[i] < 0 ? costs : brings)
            .push_back(fmt::format("{} of {}", pinFigure(b, pin, std::abs(m.gain[i])), pinName(b, pin)));
    }
    const std::string text = capital(m.move.words);
    const auto list = [](const std::vector<std::string>& v) { return fmt::format("{}", fmt::join(v, ", ")); };
    if (costs.empty() && brings.empty()) return text + " changes no pin.";
    if (costs.empty()) return text + " brings " + list(brings) + ".";
    return text + " costs " + list(costs) + (brings.empty() ? "." : "; it brings " + list(brings) + ".");
}

std::string givenUpSentence(const Build& b, const Results& r, const sit::GivenUp& g) {
    const auto pinOf = [&](int i) -> const Pin& { return b.pins.at(r.pin_ids[static_cast<size_t>(i)]); };
    const Pin& pin = pinOf(g.pin);
    std::vector<std::string> gains;
    for (const int k : g.gains) {
        const Pin& other = pinOf(k);
        const auto& before = r.seat->pins[static_cast<size_t>(k)];
        const auto& after = g.pins[static_cast<size_t>(k)];
        gains.push_back(other.bound == Bound::Equal
                            ? fmt::format("{} misses by {} instead of {}", pinName(b, other),
                                          pinFigure(b, other, std::abs(after.miss.value)),
                                          pinFigure(b, other, std::abs(before.miss.value)))
                            : fmt::format("{} comes to {} instead of {}", pinName(b, other),
                                          pinFigure(b, other, after.achieved.value), pinFigure(b, other, before.achieved.value)));
    }
    return fmt::format("Give up {} ({} then, wanted {}), and {}.", pinName(b, pin), pinFigure(b, pin, g.becomes.achieved.value),
                       pinWanted(b, pin), fmt::join(gains, ", "));
}

} // namespace gorvet::analysis
