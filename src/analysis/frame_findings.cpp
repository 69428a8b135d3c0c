// Findings of the frame as it carries.
#include "analysis/finding_maker.hpp"
#include "analysis/frame.hpp"
#include "analysis/scans.hpp"
#include "frame/forces_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

constexpr double softer = 0.9; ///< of what it was in twist: less is said
constexpr const char* licensed = "Indicative, no certificate: have structural changes approved by licensed people.";

class FrameFinder : FindingMaker {
public:
    FrameFinder(const Build& b, const Results& r, std::vector<Finding>& out)
        : FindingMaker(b, r, out), asked_(r.scans->frame.input()), found_(*r.scans->frame) {}

    void find() {
        if (!found_.now) {
            if (!found_.wrong.empty())
                tagged(add(Severity::Bad, "stretch.frame-cannot", "frame", "Fails", found_.wrong, found_.remedy), "frame");
            return;
        }
        if (!found_.planned_wrong.empty())
            tagged(add(Severity::Bad, "stretch.frame-cannot", "frame as planned", "Fails", found_.planned_wrong,
                       found_.planned_remedy),
                   "frame as planned");
        const frame::Outcome& o = found_.planned ? *found_.planned : *found_.now;
        for (const std::string& name : o.loose)
            if (!name.starts_with("part ")) // a part's own is said on Make
                tagged(add(Severity::Warn, "stretch.frame-loose", name, "Marginal",
                           fmt::format("{} meets nothing of the frame: it is in no figure.", name),
                           "Say points or a station where its ends reach a rail, a spine or another member."),
                       name + " loose");
        for (const std::string& name : asked_.idle)
            tagged(add(Severity::Warn, "stretch.frame-rib-idle", name, "Marginal",
                       fmt::format("The ribs {} stand where the rails are closed: they change nothing.", name),
                       fmt::format("Leave them out (remove member {}), or say other stations.", name)),
                   name + " idle");
        wanted(o);
        cases(o);
        welds(o);
        twist();
        masses();
        cut();
        splice();
        for (const std::string& place : asked_.cracked)
            tagged(add(Severity::Bad, "stretch.frame-cracked", place, "Fails",
                       fmt::format("There is a crack at {}: every strength figure is without it.", place),
                       "Have it ground out and welded by someone licensed before any figure here counts."),
                   "crack");
    }

private:
    static void tagged(Finding& f, std::string brief) {
        f.tag = "frame";
        f.brief = std::move(brief);
    }
    std::string when() const { return found_.planned ? " as planned" : ""; }

    void cases(const frame::Outcome& o) {
        for (const frame::OfCase& c : o.cases) {
            if (c.tips) {
                tagged(
                    add(Severity::Warn, "stretch.frame-tips", c.asked.name, "Marginal",
                        fmt::format(
                            "With that wheel in the air the car tips onto it: the case {} can't be, and nothing is said of it.",
                            c.asked.name),
                        "Lift a wheel of the end that is lighter."),
                    c.asked.name + " tips");
                continue;
            }
            const PlanVerdict v = verdictOf(asked_, c);
            if (v != PlanVerdict::Fails) continue;
            Finding& f = add(Severity::Bad, "stretch.frame-fails", c.asked.name, "Fails",
                             fmt::format("The frame{} bears {:.0f} MPa in the case {}, at the {} at {}. It may bear {:.0f}.",
                                         when(), c.stress_mpa, c.asked.name, c.line, len(c.at.x_mm), c.stress_mpa * c.margin),
                             fmt::format("Close or deepen it there, or carry the load elsewhere. {}", licensed));
            f.figure = fmt::format("{:.0f} MPa", c.stress_mpa);
            f.need = fmt::format("{:.0f} MPa", c.stress_mpa * c.margin);
            f.station_mm = c.at.x_mm;
            tagged(f, fmt::format("{} {:.1f}×", c.asked.name, c.margin));
        }
    }

    /// What is asked of it in twist, with joints that warp; held ones are no promise.
    void wanted(const frame::Outcome& o) {
        if (!asked_.wanted_nm_deg) return;
        const double asked = *asked_.wanted_nm_deg;
        const bool said = asked_.assumed.empty();
        if (o.twist.free_nm_deg >= asked && said) return;
        const bool reached = o.twist.free_nm_deg >= asked;
        Finding& f =
            add(reached ? Severity::Warn : Severity::Bad, "stretch.frame-twist-wanted", "frame", reached ? "Marginal" : "Fails",
                reached ? fmt::format("The frame{} reaches the {:.0f} N·m/deg that are wanted, by sizes that nobody measured.",
                                      when(), asked)
                        : fmt::format("The frame{} resists {:.0f} N·m/deg where {:.0f} are wanted.", when(), o.twist.free_nm_deg,
                                      asked),
                reached ? "Measure what is assumed, and say it without the ?."
                        : fmt::format("Open or closed lists what plates bring, and the least that reach it. {}", licensed));
        f.figure = fmt::format("{:.0f} N·m/deg", o.twist.free_nm_deg);
        f.need = fmt::format("{:.0f} N·m/deg", asked);
        tagged(f, fmt::format("{:.0f} of {:.0f}", o.twist.free_nm_deg, asked));
    }

    void welds(const frame::Outcome& o) {
        const frame::AtPlace* worst = nullptr;
        const frame::OfLine* of = nullptr;
        for (const frame::OfLine& l : o.lines)
            for (const frame::AtPlace& p : l.places)
                if (p.weld && (!worst || p.range_mpa > worst->range_mpa)) {
                    worst = &p;
                    of = &l;
                }
        if (!worst || worst->range_mpa <= weld_range_mpa) return;
        Finding& f = add(
            Severity::Warn, "stretch.frame-weld", of->name, "Marginal",
            fmt::format(
                "Over ±1 g the {}{} works by {:.0f} MPa where something is welded to it, at {}. A weld's toe bears {:.0f} for long.",
                of->name, when(), worst->range_mpa, len(worst->at.x_mm), weld_range_mpa),
            fmt::format("Move the joint to a place that works less, let it end on the web, or add a plate with tapered ends. {}",
                        licensed));
        f.figure = fmt::format("{:.0f} MPa", worst->range_mpa);
        f.need = fmt::format("{:.0f} MPa", weld_range_mpa);
        f.station_mm = worst->at.x_mm;
        tagged(f, "weld works");
    }

    void twist() {
        if (!found_.planned) return;
        const double before = found_.now->twist.free_nm_deg, after = found_.planned->twist.free_nm_deg;
        if (after >= softer * before) return;
        Finding& f =
            add(Severity::Warn, "stretch.frame-softer", "twist", "Marginal",
                fmt::format("As planned the frame resists twist by {:.0f} N·m a degree instead of {:.0f}.", after, before),
                "A longer frame is softer: a crossmember more, legs that cross, or closed rails bring it back.");
        f.figure = fmt::format("{:.0f} N·m/deg", after);
        f.need = fmt::format("{:.0f} N·m/deg", before);
        tagged(f, "softer in twist");
    }

    /// A cut belongs where the rail works little.
    void cut() {
        if (!b_.stretch.cut_station || found_.now->lines.empty()) return;
        const double station = b_.stretch.cut_station->value;
        const frame::OfLine& rail = found_.now->lines.front();
        const auto at = frame::throughAt(rail, station);
        const frame::Through most = frame::mostThrough(rail);
        constexpr double much = 0.7;
        if (!at || most.bends_nm <= 0 || at->bends_nm <= much * most.bends_nm) return;
        Finding& f = add(Severity::Warn, "stretch.frame-cut", "cut", "Marginal",
                         fmt::format("At the cut at {} the rail bends by {:.0f} N·m at rest, {:.0f} % of the most anywhere.",
                                     len(station), at->bends_nm, 100 * at->bends_nm / most.bends_nm),
                         "Cut where it bends less: see Forces. A splice bears what the rail did, and its welds tire first.");
        f.figure = fmt::format("{:.0f} N·m", at->bends_nm);
        f.need = fmt::format("{:.0f} N·m", much * most.bends_nm);
        f.station_mm = station;
        tagged(f, "cut bends");
    }

    void splice() {
        const auto s = spliceBears(b_, r_);
        if (s && s->unlike) {
            tagged(
                add(Severity::Warn, "stretch.frame-splice-unlike", "splice", "Marginal",
                    fmt::format(
                        "Where the {} is joined it has another section than the splice was planned for: the splice is held against no case.",
                        s->line),
                    "Cut where the rail is as it was measured, or have the joint worked out by someone licensed."),
                "splice unlike");
            return;
        }
        welded();
        if (!s || s->stress_mpa <= s->may_mpa) return;
        Finding& f = add(
            Severity::Bad, "stretch.frame-splice", "splice", "Fails",
            fmt::format(
                "Where the {} is joined the splice bears {:.0f} MPa in the worst case: it has {:.0f} % of the rail. It may bear {:.0f}.",
                s->line, s->stress_mpa, 100 * s->share, s->may_mpa),
            fmt::format("Cut where the rail works less, a thicker sleeve, or fish plates. {}", licensed));
        f.figure = fmt::format("{:.0f} MPa", s->stress_mpa);
        f.need = fmt::format("{:.0f} MPa", s->may_mpa);
        f.station_mm = b_.stretch.cut_station->value;
        tagged(f, "splice");
    }

    /// The welds of the splice, by the forces of each case.
    void welded() {
        const auto w = spliceWelds(b_, r_);
        if (!w || w->bears.share() <= 1) return;
        const auto kn = [](double n) { return fmt::format("{:.1f} kN", n / 1000); };
        const bool plug = w->bears.plug_N && *w->bears.plug_N / w->bears.plug_may_N >= w->bears.share();
        Finding& f = add(Severity::Bad, "stretch.frame-splice-welds", "splice", "Fails",
                         fmt::format("In the case {} {} of the splice in the {} bears {}. It may bear {}.", w->case_name,
                                     plug ? "the worst plug weld" : "an edge of a fish plate", w->line,
                                     kn(plug ? *w->bears.plug_N : *w->bears.fillet_N),
                                     kn(plug ? w->bears.plug_may_N : w->bears.fillet_may_N)),
                         fmt::format("{} {}",
                                     plug ? "More plugs on a longer overlap, fish plates, or cut where the rail works less."
                                          : "Longer plates, or cut where the rail works less.",
                                     licensed));
        f.figure = kn(plug ? *w->bears.plug_N : *w->bears.fillet_N);
        f.need = kn(plug ? w->bears.plug_may_N : w->bears.fillet_may_N);
        f.station_mm = b_.stretch.cut_station->value;
        tagged(f, "splice welds");
    }

    void masses() {
        if (asked_.now.hung.empty()) {
            tagged(add(Severity::Warn, "stretch.frame-unloaded", "loads", "Marginal",
                       "Nothing is said of what the frame carries: it bears itself alone.",
                       "Say masses where they are (load engine 180 kg at -50 0 350), or weigh the four wheels."),
                   "no loads");
            return;
        }
        constexpr double differ = 0.1;
        if (asked_.spread || asked_.weighed_kg <= 0) return;
        const double sum = found_.now->all_kg;
        if (std::abs(sum - asked_.weighed_kg) <= differ * asked_.weighed_kg) return;
        Finding& f =
            add(Severity::Warn, "stretch.frame-masses", "loads", "Marginal",
                fmt::format("Frame and what it carries come to {:.0f} kg; the scales said {:.0f}.", sum, asked_.weighed_kg),
                sum < asked_.weighed_kg ? "Something is missing: wheels and axles may be, the rest should not."
                                        : "Something counts twice, or was weighed without it.");
        f.figure = fmt::format("{:.0f} kg", sum);
        f.need = fmt::format("{:.0f} kg", asked_.weighed_kg);
        tagged(f, "masses");
    }

    const FrameAsked& asked_;
    const FrameFound& found_;
};

} // namespace

void addFrameFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    // only of what the build says now
    if (frameBegun(b) && r.scans->frame.made() && r.scans->frame.madeFrom(frameAsked(b, r))) FrameFinder(b, r, out).find();
}

} // namespace gorvet::analysis
