// The wheels of a build: plans, sheets, pages, files.
#include "analysis/wheels.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"
#include "drive/degree.hpp"
#include "sheet/write.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

const char* const wheel_caution =
    "Other wheels and tyres are approved by those who may, before the car runs. Nuts are torqued crosswise, and again after 50 km.";

namespace {

std::vector<drive::WheelsIn> inputsOf(const Results& r) {
    std::vector<drive::WheelsIn> all;
    for (const auto& node : r.wheels) all.push_back(node.input());
    return all;
}
Scans::WheelsAsked wheelsAsked(const Results& r) { return {r.scans->overlay.share(), inputsOf(r)}; }

bool wheelsPossible(const Build& b, const Results& r) {
    return !b.scans.empty() &&
           std::any_of(r.wheels.begin(), r.wheels.end(), [](const auto& node) { return node.input().fitted.has_value(); });
}
bool wheelsCurrent(const Build&, const Results& r) { return r.scans->wheels.madeFrom(wheelsAsked(r)); }
bool makeWheels(const Build&, Results& r, const ReadBlob&, const Progress& progress) {
    using NodeOf = decltype(Scans::wheels);
    NodeOf made = NodeOf::of(wheelsAsked(r), &r.scans->wheels, [&](const Scans::WheelsAsked& in) {
        std::optional<std::vector<Scans::WheelsMade>> all(std::in_place);
        for (const drive::WheelsIn& wheels : in.wheels) {
            if (!progress(static_cast<double>(all->size()) / static_cast<double>(in.wheels.size())))
                return std::optional<std::vector<Scans::WheelsMade>>();
            drive::WheelsIn with = withScans(wheels, *in.overlay);
            drive::WheelsPlan plan = drive::wheelsPlan(with);
            for (drive::Corner& corner :
                 with.corners) // a million places are asked once; what was seen of them stands in the plan
                for (drive::ScannedThing& thing : corner.scanned) thing.surface.reset();
            all->push_back({std::move(with), std::move(plan)});
        }
        return all;
    });
    if (!made.made()) return false;
    auto scans = std::make_shared<Scans>(*r.scans);
    scans->wheels = std::move(made);
    r.scans = std::move(scans);
    return true;
}

std::vector<drive::WheelsView> viewsOf(const Build& b, const Results& r, const ViewOptions* o) {
    std::vector<drive::WheelsView> views;
    const auto step = b.settings.length_step;
    for (const WheelsShown& w : wheelsShown(b, r)) {
        drive::WheelsView v{w.input, w.plan, [step](double mm) { return units::formatLength(mm, step, true); },
                            w.scans, {},     o != nullptr};
        if (o && o->grip == "offset " + w.plan->name) v.offset_mm = o->grip_value;
        views.push_back(std::move(v));
    }
    return views;
}

/// The worse of both axles.
const WheelsShown* worstOf(const std::vector<WheelsShown>& all) {
    const WheelsShown* worst = nullptr;
    for (const WheelsShown& w : all)
        if (!worst || w.plan->verdict > worst->plan->verdict) worst = &w;
    return worst;
}

} // namespace

const std::vector<SlowNode> wheel_nodes{
    {slow::wheels, "what stands beside the wheels", {slow::overlay}, wheelsPossible, wheelsCurrent, makeWheels, true, true}};

std::vector<WheelsShown> wheelsShown(const Build& b, const Results& r) {
    std::vector<WheelsShown> all;
    const bool scanned = wheelsPossible(b, r), looked = scanned && wheelsCurrent(b, r);
    if (looked)
        for (const Scans::WheelsMade& made : *r.scans->wheels)
            all.push_back(
                {&made.input, &made.plan, made.input.fitted ? "The scans beside the wheels were looked through to 1 mm." : ""});
    else
        for (const auto& node : r.wheels)
            all.push_back({&node.input(), &*node,
                           scanned && node.input().fitted ? "The scans beside the wheels were not looked through yet." : ""});
    return all;
}

sheet::Drawing wheelsDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                             const sheet::Format& f) {
    return drive::wheelsSheet(viewsOf(b, r, &o), width, height, f);
}

sheet::Drawing wheelMapDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                               const sheet::Format& f) {
    return drive::wheelMapSheet(viewsOf(b, r, &o), width, height, f);
}

std::string draggedOffset(const Build&, const Results&, const std::string& grip, double value) {
    constexpr std::string_view before = "offset ";
    return grip.starts_with(before) ? fmt::format("rim {} wanted offset {:.0f}mm", grip.substr(before.size()), value)
                                    : std::string();
}

Headline wheelsHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = wheelsShown(b, r);
    const WheelsShown* w = worstOf(all);
    if (!w)
        return {
            "No wheel is said yet.",
            "Measure one that is fitted: rim rear fitted width 6in diameter 15in backspace 110 tyre 195 aspect 65. Then what stands beside it: room arch rear out 92 up 310."};
    const drive::WheelsPlan& p = *w->plan;
    Headline h;
    const auto& list = w->input->wanted ? p.planned : p.now;
    const drive::RoomClear* nearest = nullptr;
    for (const drive::RoomClear& c : list)
        if (!nearest || c.clear_mm.value - c.least_mm < nearest->clear_mm.value - nearest->least_mm) nearest = &c;
    if (nearest)
        h.sentence =
            nearest->clear_mm.value < 0
                ? fmt::format("The {} {} tyre runs into {} by {:.0f} mm.", p.name, w->input->corners[nearest->corner].name,
                              nearest->name, -nearest->clear_mm.value)
                : fmt::format("The {} tyres come as near as {:.0f} mm to {}.", p.name, nearest->clear_mm.value, nearest->name);
    else
        h.sentence = fmt::format("What stands beside the {} tyres is not known yet.", p.name);
    h.below = p.verdict == PlanVerdict::Holds ? std::string("Holds. ")
              : !p.remarks.empty()            ? fmt::format("{}: {} ", verdictWord(p.verdict), p.remarks.front().sentence)
              : !p.missing.empty()            ? fmt::format("Marginal: not judged for want of {}. ", p.missing.front())
                                              : fmt::format("Marginal: {} was never measured. ", w->input->assumed.front());
    h.below += wheel_caution;
    return h;
}

Headline dialHeadline(const Build& b, const Results&, SubjectId) {
    if (b.dial_turns.empty())
        return {
            "No wheel was turned under a dial yet.",
            "Dial on the bead seat or the side of the rim, one turn in equal steps from the valve: dial rear-left lateral 0 0.2 0.5 0.4 0.1 -0.2 -0.3 -0.1."};
    const DialTurn* worst = nullptr;
    drive::RunOut run;
    for (const auto& [id, t] : b.dial_turns) {
        const drive::RunOut each = drive::runOut(t.readings, t.within ? t.within->value : dial_u95_mm);
        if (worst && each.total_mm <= run.total_mm) continue;
        worst = &t;
        run = each;
    }
    Headline h;
    h.sentence = fmt::format("The {} wheel runs {} by {:.2f} mm.", word(worst->wheel),
                             worst->way == DialWay::Lateral ? "aside" : "out of round", run.total_mm);
    h.below = run.total_mm <= run_out_mm ? fmt::format("Within {:.1f} mm.", run_out_mm)
              : run.high_known ? fmt::format("Highest {:.0f}° from the valve, forwards; {:.2f} mm stay when that is set right.",
                                             run.high_rad.value / drive::one_degree, run.rest_mm)
                               : std::string("It has no one high side: buckled, or oval.");
    return h;
}

Listing dialList(const Build& b, const Results&, SubjectId) {
    Listing list;
    list.columns = {"wheel", "least to most", "once a turn", "highest at", "left then", ""};
    list.one = "turn";
    const double no = std::nan("");
    for (const auto& [id, t] : b.dial_turns) {
        const drive::RunOut run = drive::runOut(t.readings, t.within ? t.within->value : dial_u95_mm);
        ListRow row;
        row.tag = fmt::format("dial:{}", id.value);
        const PlanVerdict verdict = dialVerdict(t);
        row.severity = sheet::severityOf(verdict);
        row.cells = {
            {fmt::format("{} {}", word(t.wheel), word(t.way)), no, false, Mark::None},
            {fmt::format("{:.2f} mm", run.total_mm), run.total_mm, true, Mark::Derived},
            {fmt::format("{:.2f} ± {:.2f} mm", run.first_mm.value, run.first_mm.u95), run.first_mm.value, true, Mark::Derived},
            {run.high_known ? fmt::format("{:.0f}° ± {:.0f}° from the valve", run.high_rad.value / drive::one_degree,
                                          run.high_rad.u95 / drive::one_degree)
                            : std::string("nowhere"),
             run.high_rad.value, true, Mark::Derived},
            {fmt::format("{:.2f} mm", run.rest_mm), run.rest_mm, true, Mark::Derived},
            {t.readings.size() < least_turn_readings       ? "read more places"
             : verdict == PlanVerdict::Holds               ? "Holds"
             : verdict == PlanVerdict::Marginal            ? "Marginal"
             : run.rest_mm <= run_out_mm && run.high_known ? "tap the high side"
                                                           : "to a wheel shop",
             no, false, Mark::None}};
        list.rows.push_back(std::move(row));
    }
    return list;
}

std::vector<sheet::Drawing> wheelsPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    for (const drive::WheelsView& v : viewsOf(b, r, nullptr)) {
        sheet::Area area;
        sheet::Drawing page =
            sheet::blankPage(titled(b, r, fmt::format("Drive: the {} wheels", v.plan->name)), {wheel_caution, local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return drive::wheelsSheet({v}, w, h, f); });
        pages.push_back(std::move(page));
        if (!v.plan->map) continue;
        sheet::Drawing map = sheet::blankPage(titled(b, r, fmt::format("Drive: which {} wheels fit", v.plan->name)),
                                              {wheel_caution, local_rules}, area);
        placeFitted(map, area, [&](double w, double h, const sheet::Format& f) { return drive::wheelMapSheet({v}, w, h, f); });
        pages.push_back(std::move(map));
    }
    addListingPages(pages, titled(b, r, "Drive: wheels under the dial"), {wheel_caution, local_rules},
                    dialList(b, r, the_chassis), {44, 34, 42, 52, 34, 42});
    return pages;
}

PlanVerdict dialVerdict(const DialTurn& t) {
    const double each = t.within ? t.within->value : dial_u95_mm;
    const Figure total{drive::runOut(t.readings, each).total_mm, std::sqrt(2.0) * each, Provenance::Derived};
    const PlanVerdict v = judge(total, Limit::atMost(run_out_mm));
    return t.readings.size() < least_turn_readings ? std::max(v, PlanVerdict::Marginal) : v;
}

std::optional<drive::AdaptorIn> adaptorOf(const WheelsShown& w) {
    const drive::WheelsIn& in = *w.input;
    if (!in.adaptor || !in.wanted || !in.hub || !in.hub->studs || !w.plan->hub_circle_mm || !in.wanted->studs ||
        !w.plan->wanted->circle_mm)
        return std::nullopt;
    return drive::AdaptorIn{*in.adaptor,
                            static_cast<int>(in.hub->studs->value),
                            w.plan->hub_circle_mm->value,
                            static_cast<int>(in.wanted->studs->value),
                            w.plan->wanted->circle_mm->value,
                            in.hub->spigot ? in.hub->spigot->value : 0};
}

void keepWheelFiles(const Build& b, const Results& r, FileKeeper& out) {
    for (const WheelsShown& w : wheelsShown(b, r))
        if (const auto in = adaptorOf(w))
            out.keep(fmt::format("adaptor-{}.dxf", w.plan->name), [&](const auto& to) {
                return sheet::writeDxf(drive::adaptorDrawing(in->plate, drive::adaptorPlan(*in), in->spigot_mm), to);
            });
}

} // namespace gorvet::analysis
