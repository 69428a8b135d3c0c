// What runs along the frame and crosses the cut.
#include "stretch/parts.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::CrossingKind;
using build::PlanVerdict;
using build::Presence;
using build::RunAnswer;

constexpr double spare_mm = 10; ///< what must be left of a slack

std::string sizeOnly(double v) { return units::fixed(std::abs(v), 0); }

/// What to do when it can't follow as it is.
std::string answer(CrossingKind kind, double change) {
    const std::string by = sizeOnly(change);
    const bool longer = change > 0;
    switch (kind) {
    case CrossingKind::PropShaft:
        return fmt::format("{} the shaft by {} and have it balanced; 25 of plunge spare both ways.",
                           longer ? "Lengthen" : "Shorten", by);
    case CrossingKind::BrakeLine:
        return longer ? fmt::format("Make the line new in one piece, {} longer: no joint over the cut.", by)
                      : fmt::format("Make the line new, {} shorter: no loop left hanging.", by);
    case CrossingKind::FuelLine:
        return fmt::format("Make the line new, {} {}, clear of exhaust and welds.", by, longer ? "longer" : "shorter");
    case CrossingKind::ParkBrakeCable:
        return fmt::format("Have a cable made {} {}, or change the rod before it.", by, longer ? "longer" : "shorter");
    case CrossingKind::Exhaust:
        return longer ? fmt::format("Let in {} of pipe between two hangers.", by)
                      : fmt::format("Take {} out between two hangers.", by);
    case CrossingKind::Loom:
        return longer
                   ? fmt::format("Lengthen each wire by {} with its own colour and size, joints staggered, or lay it anew.", by)
                   : fmt::format("Fold {} back and clip it, cutting nothing.", by);
    case CrossingKind::ShiftRod:
        return fmt::format("Make the rod {} {}, and check every gear.", by, longer ? "longer" : "shorter");
    case CrossingKind::CoolingLine:
        return fmt::format("Make the line {} {}, and find its highest point to bleed.", by, longer ? "longer" : "shorter");
    }
    return {};
}

std::string caution(CrossingKind kind) {
    switch (kind) {
    case CrossingKind::BrakeLine:
        return "Brake work is done or approved by licensed people; bleed and press-test before it rolls.";
    case CrossingKind::FuelLine: return "Drain and cap it before any spark; test for leaks before starting.";
    case CrossingKind::ParkBrakeCable: return "Check that it holds on a slope before it leaves the stands.";
    case CrossingKind::PropShaft: return "An unbalanced shaft can tear out: a driveline shop balances it.";
    case CrossingKind::CoolingLine: return "Let it cool before opening.";
    default: return {};
    }
}

/// What was decided about it, in words.
std::string decidedWords(const Runner& r, double change) {
    switch (r.answer) {
    case RunAnswer::Nothing: return "It stays as it is.";
    case RunAnswer::Reclip: return "It follows; clip it anew.";
    case RunAnswer::Joiner: return fmt::format("A piece of {} is joined in.", sizeOnly(change));
    case RunAnswer::NewLength:
        if (r.kind != CrossingKind::Exhaust && r.kind != CrossingKind::Loom) // what is made new is made as it is said of its kind
            return answer(r.kind, change) + (r.new_length_mm ? fmt::format(" In all {:.0f}.", *r.new_length_mm) : "");
        return r.new_length_mm ? fmt::format("Make it new, {:.0f} long.", *r.new_length_mm)
                               : fmt::format("Make it new, {} {}.", sizeOnly(change), change > 0 ? "longer" : "shorter");
    case RunAnswer::Reroute: return "It is laid another way.";
    case RunAnswer::Open: break;
    }
    return {};
}

Crossing crossingOf(const Runner& r, double change) {
    Crossing c;
    c.kind = r.kind;
    c.name = r.name;
    c.change_mm = change;
    c.slack_mm = r.slack_mm;
    c.caution = caution(r.kind);
    c.decided = r.answer;
    c.new_length_mm = r.new_length_mm;
    c.out_before_heat = r.out_before_heat;
    c.follows = r.slack_mm && *r.slack_mm >= std::abs(change) + spare_mm;
    if (c.follows)
        c.answer = fmt::format("It follows as it is, with {} of {} left; clip it anew.", sizeOnly(*r.slack_mm - std::abs(change)),
                               sizeOnly(*r.slack_mm));
    else if (r.answer != RunAnswer::Open)
        c.answer = decidedWords(r, change);
    else
        c.answer = answer(r.kind, change);
    if (c.follows || (r.answer != RunAnswer::Open && r.answer != RunAnswer::Nothing && r.answer != RunAnswer::Reclip))
        c.verdict = PlanVerdict::Holds;
    // a joint over the cut: never in what brakes, never where fuel drips on a weld or a hot pipe
    if (r.answer == RunAnswer::Joiner && (r.kind == CrossingKind::BrakeLine || r.kind == CrossingKind::ParkBrakeCable))
        c.verdict = PlanVerdict::Fails;
    return c;
}

/// What is still to be said or decided about it; a decision that can't be right.
std::optional<Remark> remarkOn(const Crossing& c) {
    const std::string by = units::fixed(std::abs(c.change_mm), 0) + " mm";
    const std::string say = fmt::format("crossing {} answer ", c.said());
    if (c.decided == RunAnswer::Joiner && c.verdict == PlanVerdict::Fails)
        return Remark{"crossing-joiner",
                      PlanVerdict::Fails,
                      fmt::format("The {} would get a joint over the cut.", c.said()),
                      fmt::format("Brakes take none: make it new in one piece ({}new-length).", say),
                      "a joiner",
                      "one piece"};
    if (!c.follows && (c.decided == RunAnswer::Nothing || c.decided == RunAnswer::Reclip))
        return Remark{
            "crossing-short",
            PlanVerdict::Marginal,
            c.slack_mm
                ? fmt::format("The {} is to stay, but its slack of {:.0f} mm does not follow {}.", c.said(), *c.slack_mm, by)
                : fmt::format("The {} is to stay, and its slack was not measured.", c.said()),
            c.slack_mm ? answer(c.kind, c.change_mm) : fmt::format("Measure its slack (crossing {} slack …).", c.said()),
            c.slack_mm ? units::fixed(*c.slack_mm, 0) + " mm" : "not measured",
            by};
    if (c.follows || c.decided != RunAnswer::Open) return {};
    if (!c.slack_mm)
        return Remark{"crossing-slack",
                      PlanVerdict::Marginal,
                      fmt::format("The {} crosses the cut, and by how much it can follow was not measured.", c.said()),
                      fmt::format("Measure its slack (crossing {} slack …), or: {}", c.said(), c.answer),
                      "not measured",
                      by};
    return Remark{"crossing-open",
                  PlanVerdict::Marginal,
                  fmt::format("The {} crosses the cut and can't follow it: nothing is decided about it.", c.said()),
                  fmt::format("{} Say what is done: {}new-length, joiner or re-route.", c.answer, say),
                  units::fixed(*c.slack_mm, 0) + " mm",
                  by};
}

} // namespace

void answerCrossings(Plan& p, const Input& in) {
    const RailCut& cut = p.left.known ? p.left : p.right;
    for (size_t i = 0; i < build::Words<CrossingKind>::text.size(); ++i) {
        const auto kind = static_cast<CrossingKind>(i);
        bool told = false;
        for (const Runner& r : in.runners) {
            if (r.kind != kind || r.presence == Presence::Unknown) continue;
            told = true;
            if (r.presence == Presence::Absent || (r.starts_mm && *r.starts_mm > cut.last_station_mm) ||
                (r.ends_mm && *r.ends_mm < cut.first_station_mm))
                continue; // it does not reach the cut
            p.crossings.push_back(crossingOf(r, p.change_mm));
        }
        if (!told) p.not_told.push_back(kind);
    }
    if (!p.not_told.empty()) {
        std::string list;
        for (size_t i = 0; i < p.not_told.size(); ++i)
            list += (i == 0 ? "" : i + 1 == p.not_told.size() ? " and " : ", ") + std::string(word(p.not_told[i]));
        p.remarks.push_back({"crossings-not-told",
                             PlanVerdict::Marginal,
                             fmt::format("Nothing is said about {}: does it cross the cut?", list),
                             "Look along the rail. Say it here: crossing fuel-line slack 30, or crossing fuel-line none.",
                             {},
                             {}});
    }
    for (const Crossing& c : p.crossings)
        if (auto r = remarkOn(c)) p.remarks.push_back(std::move(*r));
}

} // namespace gorvet::stretch
