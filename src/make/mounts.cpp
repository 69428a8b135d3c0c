#include "make/mounts.hpp"

#include "build/remark.hpp"
#include "make/fasteners.hpp"

#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using build::PlanVerdict;
using build::Remark;

namespace {

std::string millimetres(double mm, int digits) { return units::fixed(mm, digits) + " mm"; }

/// Says what is worst of a stack: what fails counts, else the first that is marginal.
struct Says {
    MountStack& s;
    void worst(PlanVerdict verdict, const char* code, std::string figure, std::string need, std::string sentence,
               std::string remedy) const {
        s.verdict = verdict;
        s.code = code;
        s.sentence = std::move(sentence);
        s.remedy = std::move(remedy);
        s.figure = std::move(figure);
        s.need = std::move(need);
    }
    void fails(const char* code, std::string figure, std::string need, std::string sentence, std::string remedy) const {
        worst(PlanVerdict::Fails, code, std::move(figure), std::move(need), std::move(sentence), std::move(remedy));
    }
    void marginal(const char* code, std::string figure, std::string need, std::string sentence, std::string remedy) const {
        if (s.verdict == PlanVerdict::Holds)
            worst(PlanVerdict::Marginal, code, std::move(figure), std::move(need), std::move(sentence), std::move(remedy));
    }
};

/// Standoff and shims for what washer and biscuit leave of the gap.
void fill(MountStack& s, double room, const MountDesign& design) {
    s.standoff_mm = std::floor(std::max(0.0, room) / design.standoff_step_mm + 1e-9) * design.standoff_step_mm;
    double rest = std::max(0.0, room) - s.standoff_mm;
    for (const double shim : std::array{3.0, 2.0, 1.0, 0.5})
        while (rest >= shim - 0.25 + 1e-9) {
            s.shims_mm.push_back(shim);
            rest -= shim;
        }
    s.leftover_mm = rest;
}

/// Whether a bolt can stand there: on the rail, off its edge, in no sleeve.
void lookAtBolt(const MountInput& in, const build::RailLine& rail, const MountDesign& design, double grip_mm, MountStack& s) {
    const Says says{s};
    const BoltSize* bolt = boltSize(design.bolt_mm);
    const double edge = rail.width_mm / 2 - rail.thickness_mm - (bolt ? bolt->washer_outside / 2 : 0);
    if (std::abs(s.outboard_mm) > rail.width_mm / 2)
        says.fails("beside-rail", millimetres(std::abs(s.outboard_mm), 0), millimetres(rail.width_mm / 2, 0) + " at most",
                   fmt::format("{}: the body's hole stands {} mm {} of the rail's centreline, beside the rail.", in.name,
                               units::fixed(std::abs(s.outboard_mm), 0), s.outboard_mm > 0 ? "outboard" : "inboard"),
                   "Make an outrigger, or choose another mounting point.");
    else if (std::abs(s.outboard_mm) > edge)
        says.marginal("near-edge", millimetres(std::abs(s.outboard_mm), 0), millimetres(std::max(0.0, edge), 0) + " at most",
                      fmt::format("{}: the bolt stands {} mm off the rail's centreline, too near its edge for a washer.", in.name,
                                  units::fixed(std::abs(s.outboard_mm), 0)),
                      "Move the hole inwards, or weld a plate on the rail.");
    const double reach = bolt ? bolt->across_flats : design.bolt_mm;
    for (const Filled& f : design.filled)
        if (s.station_mm + reach > f.from_mm && s.station_mm - reach < f.to_mm)
            says.fails("in-sleeve", millimetres(s.station_mm, 0),
                       fmt::format("outside {} to {}", units::fixed(f.from_mm, 0), units::fixed(f.to_mm, 0)),
                       fmt::format("{}: its {} would stand inside {}, which fills the rail from {} to {}.", in.name,
                                   design.through_rail ? "crush tube" : "nut", f.by, units::fixed(f.from_mm, 0),
                                   units::fixed(f.to_mm, 0)),
                       "Cut at another station, or mount it beyond the sleeve.");
    if (!s.bolt_length_mm)
        says.marginal("no-bolt", millimetres(grip_mm, 0), "a standard length",
                      fmt::format("{}: no standard bolt is long enough for {} mm of grip.", in.name, units::fixed(grip_mm, 0)),
                      "Bolt through the rail's wall only, or use threaded rod in two parts.");
}

} // namespace

MountStack mountStack(const MountInput& in, const build::RailLine& rail, const MountDesign& design) {
    MountStack s;
    s.name = in.name;
    s.bolt_mm = design.bolt_mm;
    s.washer_mm = design.washer_mm;
    s.biscuit_mm = design.biscuit_free_mm - design.biscuit_free_mm * design.biscuit_squash;
    s.station_mm = in.rail_station_mm.value_or(in.body_point.x_mm);
    s.lean_mm = s.station_mm - in.body_point.x_mm;
    const Says says{s};
    const auto at = rail.at(s.station_mm);
    if (!at) {
        says.fails("off-rail", millimetres(s.station_mm, 0), "between the first and the last rail point",
                   fmt::format("{}: the measured rail does not reach station {}.", in.name, units::fixed(s.station_mm, 0)),
                   "Measure rail points ahead of it and behind it (role rail), or choose another mounting point.");
        return s;
    }
    s.on_rail = true;
    s.rail_top = {s.station_mm, at->y_mm, at->top_mm};
    s.gap_mm = {in.body_point.z_mm - at->top_mm, in.height_u95_mm, design.rail};
    s.outboard_mm = (in.side == build::Side::Left ? -1 : 1) * (in.body_point.y_mm - at->y_mm);
    const build::Figure parts = s.washer_mm + s.biscuit_mm;
    const build::Figure to_fill = s.gap_mm - parts;
    const double room = to_fill.value;
    if (room < -0.25) {
        says.fails(
            "gap-short", millimetres(s.gap_mm.value, 1), millimetres(parts.value, 1),

            fmt::format("{}: the gap is {} mm. Washer and biscuit need {}.", in.name, units::fixed(s.gap_mm.value, 1),
                        units::fixed(parts.value, 1)),
            fmt::format("Raise the body {} mm, take a thinner biscuit, or let the mount into the rail.", units::fixed(-room, 1)));
        return s;
    }
    fill(s, room, design);
    const BoltSize* bolt = boltSize(design.bolt_mm);
    const build::Figure grip = design.body_thickness_mm + s.gap_mm +
                               build::Figure{design.through_rail ? rail.height_mm : rail.thickness_mm, 0, design.rail};
    if (bolt) s.bolt_length_mm = boltLength(*bolt, grip.value);
    s.nut_inside = design.closed_box && !design.through_rail;
    s.nut = design.through_rail
                ? fmt::format("nut M{:g} and crush tube {:g} long, through the rail", design.bolt_mm, rail.height_mm)
            : design.closed_box
                ? fmt::format("nut M{:g} on a plate, let in through a slot below and welded in before the mount", design.bolt_mm)
                : fmt::format("nut M{:g} under the flange", design.bolt_mm);
    s.verdict = PlanVerdict::Holds;
    lookAtBolt(in, rail, design, grip.value, s);
    if (std::abs(s.lean_mm) > 3)
        says.marginal("leans", millimetres(std::abs(s.lean_mm), 0), "3 mm at most",
                      fmt::format("{}: the rail's hole stands {} mm {} the body's: the mount leans.", in.name,
                                  units::fixed(std::abs(s.lean_mm), 0), s.lean_mm > 0 ? "behind" : "ahead of"),
                      "Drill the rail straight below the body's hole.");
    if (!std::isfinite(s.gap_mm.u95))
        says.marginal("uncertain", "± –", "± 3.0 mm",
                      fmt::format("{}: no pin decides how the body stands here, so the gap may be anything.", in.name),
                      "Pin on Sit what it names as open, before cutting the standoff.");
    else if (s.gap_mm.u95 > 3)
        says.marginal("uncertain", "± " + millimetres(s.gap_mm.u95, 1), "± 3.0 mm",
                      fmt::format("{}: the gap is known to ± {} mm only.", in.name, units::fixed(s.gap_mm.u95, 1)),
                      "Take heights of the rail and the body near this mount before cutting the standoff.");
    if (build::judge({s.gap_mm.value, s.gap_mm.u95}, build::Limit::atLeast(10)) != PlanVerdict::Holds) // assumed: said below
        says.marginal("close", millimetres(s.gap_mm.value, 1), "10.0 mm",
                      fmt::format("{}: rail and floor would stand {} ± {} mm apart. Soft mounts need 10.", in.name,
                                  units::fixed(s.gap_mm.value, 1), units::fixed(s.gap_mm.u95, 1)),
                      "Raise the body.");
    if (worst(to_fill.provenance, grip.provenance) == build::Provenance::Assumed)
        says.marginal("assumed", "assumed", "measured", fmt::format("{}: the stack rests on assumed parts.", in.name),
                      "Measure the biscuit, the washer, the floor and the rail's section, and type what they are.");
    return s;
}

} // namespace gorvet::make
