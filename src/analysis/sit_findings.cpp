#include "analysis/bench_parts.hpp"
#include "analysis/finding_maker.hpp"
#include "analysis/sit_input.hpp"
#include "analysis/wording.hpp"
#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class SitFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void sit() {
        for (const auto& [id, pin] : b_.pins)
            if (std::find(r_.pin_ids.begin(), r_.pin_ids.end(), id) == r_.pin_ids.end()) {
                Finding& f = add(Severity::Warn, "sit.pin-waits", pinName(pin), "Marginal",
                                 fmt::format("The pin {} waits for its points: nothing fixes them yet.", pinName(pin)),
                                 "Tape the body's points until all are fixed.");
                f.tag = fmt::format("pin:{}", id.value);
            }
        if (r_.seat->status == sit::Status::NoPins && b_.pins.empty()) return;
        for (const std::string& sentence : r_.seat->open) {
            const auto colon = sentence.find(": ");
            add(Severity::Warn, "sit.open", "body", "Marginal", sentence.substr(0, colon) + ".",
                colon == std::string::npos ? "" : capital(sentence.substr(colon + 2)))
                .brief = "pose open";
        }
        if (!r_.seat->contradictory.empty()) {
            std::vector<std::string> names;
            for (const int i : r_.seat->contradictory) names.push_back(pinName(b_.pins.at(r_.pin_ids[static_cast<size_t>(i)])));
            Finding& f =
                add(Severity::Bad, "sit.contradiction", names.front(), "Fails",
                    names.size() == 1 ? fmt::format("{} can't be kept as a must wherever the body sits.", capital(names[0]))
                                      : fmt::format("These musts can't all be kept: {}.", fmt::join(names, "; ")),
                    "Make one of them a want, or change its figure.");
            f.tag = fmt::format("pin:{}", r_.pin_ids[static_cast<size_t>(r_.seat->contradictory.front())].value);
            f.brief = "musts contradict";
        }
        if (r_.seat->status == sit::Status::NotConverged)
            add(Severity::Bad, "sit.not-converged", "body", "Fails",
                "The pins contradict each other too far to find a place for the body.", "Check their stations and heights.");
        for (size_t i = 0; i < r_.pin_ids.size(); ++i) {
            const sit::PinResult& w = r_.seat->pins[i];
            const Pin& pin = b_.pins.at(r_.pin_ids[i]);
            const std::string name = pinName(pin);
            const std::string tag = fmt::format("pin:{}", r_.pin_ids[i].value);
            if (!w.usable) {
                add(Severity::Warn, "sit.pin-waits", name, "Marginal", fmt::format("The pin {} {}.", name, w.words), "").tag =
                    tag;
                continue;
            }
            if (w.verdict == PlanVerdict::Holds) continue;
            const bool angle = pin.kind == PinKind::Rake;
            const auto show = [&](double v) { return angle ? units::formatAngle(v) : small(v); };
            const bool fails = w.verdict == PlanVerdict::Fails;
            if (pin.bound != Bound::Equal) {
                const std::string want = pinWanted(b_, pin);
                const std::string has = pinFigure(b_, pin, w.achieved.value) + " ± " + show(w.achieved.u95);
                const bool over_tyre = pin.kind == PinKind::Bump || pin.kind == PinKind::Tyre;
                Finding& f = add(
                    severityOf(w.verdict), "sit.bound", name, verdictWord(w.verdict),
                    fmt::format("{} comes to {}; wanted {}{}.", capital(name), has, want,
                                w.on_bound && !fails ? ", on the bound: the other pins press against it" : ""),
                    fails ? "See what giving up another pin would bring (What costs what), or let the floor or rails give way."
                    : over_tyre ? "Read the tyre's width, radius and travel, and tape the arch again."
                                : askForMore(pin, w));
                f.figure = has;
                f.need = pinFigure(b_, pin, pin.target.value);
                f.tag = tag;
                f.brief = name;
                if (b_.points.at(pin.points.front()).subject == the_body) {
                    if (const auto at = r_.bodyInChassis(pin.points.front())) f.station_mm = at->x_mm;
                } else if (const auto on = r_.chassis.positionOf(pin.points.front())) {
                    f.station_mm = on->x_mm;
                }
                continue;
            }
            std::string why = fails ? "the other pins pull it away"
                              : std::abs(w.miss.value) + w.miss.u95 > pin.tolerance
                                  ? "the surveys are not sharp enough to say more"
                                  : "it rests on an assumed figure";
            Finding& f = add(severityOf(w.verdict), "sit.pin-miss", name, verdictWord(w.verdict),
                             fmt::format("{} misses by {}: {}.", capital(name), units::shownSize(w.miss, show), why),
                             fails ? "Give one of the pins a wider tolerance, or move its target."
                                   : "Measure what it rests on, or widen its tolerance.");
            f.figure = units::shownSize(w.miss, show);
            f.need = show(pin.tolerance);
            f.tag = tag;
            if (const auto at = r_.bodyInChassis(pin.points.front())) f.station_mm = at->x_mm;
            f.brief = name;
        }
    }

private:
    std::string pinName(const Pin& pin) const { return analysis::pinName(b_, pin); }

    /// A bound that the body only just keeps is as likely missed as kept: what to ask for instead.
    std::string askForMore(const Pin& pin, const sit::PinResult& w) const {
        if (w.achieved.u95 <= 0 || !std::isfinite(w.achieved.u95)) return "Measure what it rests on.";
        const double sure = pin.target.value + (pin.bound == Bound::AtLeast ? w.achieved.u95 : -w.achieved.u95);
        return fmt::format("Measure what it rests on more sharply, or ask for {} {} to be sure of {}.",
                           pin.bound == Bound::AtLeast ? "at least" : "at most", pinFigure(b_, pin, sure),
                           pinFigure(b_, pin, pin.target.value));
    }
};

} // namespace

void addSitFindings(const Build& b, const Results& r, std::vector<Finding>& out) { SitFinder(b, r, out).sit(); }

} // namespace gorvet::analysis
