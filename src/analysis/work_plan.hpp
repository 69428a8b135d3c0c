#pragma once

#include "analysis/bench.hpp"
#include "analysis/listing.hpp"
#include "analysis/results.hpp"
#include "formats/ical.hpp"
#include "work/client_sheet.hpp"
#include "work/coats.hpp"
#include "work/lift_sheet.hpp"
#include "work/time_sheet.hpp"

/// Time, lifts and whom the car belongs to: what the benches know, as those parts of Work take it. Internal to this room, but for
/// `workedLifts` and `purchases`.
namespace gorvet::analysis {

/// Hours by the clock that a step that is done must still be left alone; 0: none.
double restLeft(const work::Step&);
/// What is left to be done, with hours, parts and the shop's days; today from the machine's clock.
work::ScheduleInput scheduleInput(const build::Build&, const Results&);
/// The same as if it were another day.
work::ScheduleInput scheduleInput(const build::Build&, const Results&, int today);
/// The schedule with the places of its tasks in the order of work.
work::TimeView timeView(const build::Build&, const Results&);
Headline timeHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing timeDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format&);
std::vector<sheet::Drawing> timeSheets(const build::Build&, const Results&);
/// One sentence: when all may be done, as far as hours were said.
std::string finishWords(const build::Build&, const Results&);
/// When what, as whole days of a calendar: steps with hours, parts to be ordered, the end.
std::vector<formats::CalendarEntry> calendarOf(const build::Build&, const Results&);
/// Money, as far as it was said.
struct Costs {
    double parts = 0; ///< of what is awaited and has a price
    int parts_unpriced = 0;
    double agreed = 0;     ///< prices of what was agreed to
    work::Spread labour{}; ///< hours left × what an hour costs
    double worked_h = 0;
    double worked = 0; ///< hours worked × what an hour costs
};
Costs costsOf(const build::Build&, const Results&);

/// The halves of a frame that is cut, on the stands that were said: each with all that hangs on it, and bare.
std::vector<work::WorkedLift> halvesOnStands(const build::Build&, const Results&);
/// How the two ends move when the rails part, by the halves' own weight on the pairs of stands nearest to the cut, and which tube
/// of common stock over the cut on each rail holds them.
struct PartWays {
    double step_mm = 0;   ///< the end behind stands so much lower than the one ahead
    double leans_deg = 0; ///< the gap is so much wider above than below; < 0: wider below
    std::string tube;     ///< that leaves less than 0.3 mm; empty: none of common stock does
    double left_mm = 0;   ///< of the step, with it
    double fast_mm = 0;   ///< how far from the cut it is clamped or welded on, each side
};
/// None where stands, weights or the rails' section are not said, or a half has fewer than two pairs.
std::optional<PartWays> partWays(const build::Build&, const Results&);
std::vector<work::WorkedLift> workedLifts(const build::Build&, const Results&);
Headline liftHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing liftDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format&);
std::vector<sheet::Drawing> liftSheets(const build::Build&, const Results&);
std::optional<Card> liftCard(const build::Build&, const Results&, const std::string& name);

work::ClientInput clientInput(const build::Build&, const Results&);
Headline clientHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing clientDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                             double height, const sheet::Format&);
std::vector<sheet::Drawing> clientSheets(const build::Build&, const Results&);
std::optional<Card> decisionCard(const build::Build&, const Results&, const std::string& name);

Headline photoHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing photoDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
std::vector<sheet::Drawing> photoSheets(const build::Build&, const Results&);
/// Photos of what a change order is asked for.
std::vector<work::PhotoShown> changePhotos(const build::Build&, const Results&, const build::Decision&);
std::optional<Card> photoCard(const build::Build&, const std::string& name);
extern const std::vector<SlowNode> photo_nodes;

Headline purchaseHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> purchaseSheets(const build::Build&, const Results&);
std::optional<Card> stockCard(const build::Build&, const Results&, const std::string& name);

std::vector<work::SurfaceShown> surfacesOf(const build::Build&);
Headline coatHeadline(const build::Build&, const Results&, build::SubjectId);
Listing coatList(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> coatSheets(const build::Build&, const Results&);
std::optional<Card> surfaceCard(const build::Build&, const std::string& name);

/// Findings of time, lifts, decisions, coats and permits.
void addPlanFindings(const build::Build&, const Results&, std::vector<Finding>&);

} // namespace gorvet::analysis
