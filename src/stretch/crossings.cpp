// What runs along the frame and crosses the cut.
#include "stretch/parts.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::CrossingKind;
using build::PlanVerdict;
using build::Presence;

constexpr double spare_mm = 10; ///< what must be left of a slack

std::string figure(double v) { return units::fixed(std::abs(v), 0); }

/// What to do when it can't follow as it is.
std::string answer(CrossingKind kind, double change) {
    const std::string by = figure(change);
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

} // namespace

void answerCrossings(Plan& p, const Input& in) {
    const RailCut& cut = p.left.known ? p.left : p.right;
    for (size_t i = 0; i < build::Words<CrossingKind>::text.size(); ++i) {
        const auto kind = static_cast<CrossingKind>(i);
        const Runner* runner = nullptr;
        for (const Runner& r : in.runners)
            if (r.kind == kind) runner = &r;
        if (!runner || runner->presence == Presence::Unknown) {
            p.not_told.push_back(kind);
            continue;
        }
        if (runner->presence == Presence::Absent) continue;
        if ((runner->starts_mm && *runner->starts_mm > cut.last_station_mm) ||
            (runner->ends_mm && *runner->ends_mm < cut.first_station_mm))
            continue; // it does not reach the cut
        Crossing c;
        c.kind = kind;
        c.change_mm = p.change_mm;
        c.slack_mm = runner->slack_mm;
        c.caution = caution(kind);
        c.follows = runner->slack_mm && *runner->slack_mm >= std::abs(p.change_mm) + spare_mm;
        if (c.follows) {
            c.answer = fmt::format("It follows as it is, with {} of {} left; clip it anew.",
                                   figure(*runner->slack_mm - std::abs(p.change_mm)), figure(*runner->slack_mm));
            c.verdict = PlanVerdict::Holds;
        } else {
            c.answer = answer(kind, p.change_mm);
        }
        p.crossings.push_back(std::move(c));
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
        if (!c.follows && !c.slack_mm)
            p.remarks.push_back(
                {"crossing-slack", PlanVerdict::Marginal,
                 fmt::format("The {} crosses the cut, and by how much it can follow was not measured.", word(c.kind)),
                 fmt::format("Measure its slack (crossing {} slack …), or: {}", word(c.kind), c.answer), "not measured",
                 units::fixed(std::abs(c.change_mm), 0) + " mm"});
}

} // namespace gorvet::stretch
