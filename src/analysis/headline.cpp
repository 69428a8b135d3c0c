#include "analysis/origin.hpp"
#include "analysis/overlay.hpp"
#include "analysis/results.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

Headline tapeHeadline(const Build& b, const SurveyOf& s, Subject subject, const std::vector<Finding>& all) {
    const std::string name(word(subject));
    const auto step = b.settings.length_step;
    const auto small = [&](double mm) { return units::formatSmall(std::abs(mm), step, true); };
    if (s.survey.points.empty())
        return {
            fmt::format("No point of the {} has been marked yet.", name),
            "A survey needs points, readings between them, and a datum. Start with a point: its name, and roughly where it is."};
    if (s.survey.readings.empty())
        return {fmt::format("{} points of the {} and no reading yet.", s.survey.points.size(), name),
                "Tape between any two of them: the two names and the length."};
    int flagged = 0;
    std::string worst;
    double worst_w = 0;
    for (size_t i = 0; i < s.solution.readings.size(); ++i) {
        const auto& a = s.solution.readings[i];
        if (a.verdict != tape::Verdict::Retape) continue;
        ++flagged;
        if (std::abs(a.w) > worst_w) {
            worst_w = std::abs(a.w);
            const auto& r = s.survey.readings[i];
            worst = s.survey.points[r.from].name + (r.to >= 0 ? "–" + s.survey.points[r.to].name : "");
        }
    }
    const std::string readings = fmt::format("{} readings of {} points, {} more than needed.", s.survey.readings.size(),
                                             s.survey.points.size(), s.solution.redundancy);
    if (s.solution.status != tape::Status::Solved) {
        const std::string remedy = s.solution.unfixed.empty() ? "" : " " + s.solution.unfixed.front().remedy;
        return {fmt::format("The {}'s shape is not fixed yet.", name), s.solution.message + remedy};
    }
    std::string spoils = flagged == 0   ? ""
                         : flagged == 1 ? fmt::format(" One reading spoils its neighbours: {}.", worst)
                                        : fmt::format(" {} readings to tape again, first {}.", flagged, worst);
    // suspects of which only one is wrong are no more misreads than one
    if (s.solution.inseparable.size() == 1 && static_cast<int>(s.solution.inseparable.front().size()) == flagged) {
        std::string names;
        const auto& group = s.solution.inseparable.front();
        for (size_t k = 0; k < group.size() && k < 4; ++k) {
            const auto& r = s.survey.readings[static_cast<size_t>(group[k])];
            names += (k ? ", " : "") + s.survey.points[static_cast<size_t>(r.from)].name +
                     (r.to >= 0 ? "–" + s.survey.points[static_cast<size_t>(r.to)].name : "");
        }
        if (group.size() > 4) names += fmt::format(" and {} more", group.size() - 4);
        spoils = fmt::format(" One of {} is wrong, the likeliest first.", names);
    }
    if (!s.solution.blamed_holds.empty()) spoils += " What is held contradicts the readings.";
    const tape::Figure* worst_figure = nullptr;
    const tape::Figure* twist = nullptr;
    for (const auto& f : s.condition.figures) {
        if (!f.judged) continue;
        if (f.kind == tape::FigureKind::Twist) twist = &f;
        const auto score = [](const tape::Figure& g) { return 1000.0 * static_cast<int>(g.verdict) + std::abs(g.value_mm); };
        if (!worst_figure || score(f) > score(*worst_figure)) worst_figure = &f;
    }
    if (!worst_figure) return {fmt::format("The {}'s points are fixed.", name), readings + spoils};
    const auto& f = *worst_figure;
    Headline h;
    if (f.verdict == PlanVerdict::Fails) {
        switch (f.kind) {
        case tape::FigureKind::Diamond:
            h.sentence = fmt::format("Not square: the {} rail stands {} aft of the other, ± {}.",
                                     f.value_mm > 0 ? "left" : "right", small(f.value_mm), small(f.half_width_mm));
            break;
        case tape::FigureKind::Twist:
            h.sentence = fmt::format("Twisted by {} ± {}: {}.", small(f.value_mm), small(f.half_width_mm), f.words);
            break;
        case tape::FigureKind::Thrust:
            h.sentence = fmt::format("The rear axle stands askew by {} ± {}: {}.", units::formatAngle(std::abs(f.angle_rad)),
                                     units::formatAngle(f.angle_half_width_rad), f.words);
            break;
        default:
            h.sentence = fmt::format("Not true: {} {} ± {}, {}.", f.name, small(f.value_mm), small(f.half_width_mm), f.words);
            break;
        }
    } else if (f.verdict == PlanVerdict::Marginal) {
        h.sentence = f.proven
                         ? fmt::format("Nearly true: {} {} ± {}, {}.", f.name, small(f.value_mm), small(f.half_width_mm), f.words)
                         : fmt::format("Not proven straight yet: {} {} ± {}.", f.name, small(f.value_mm), small(f.half_width_mm));
    } else if (const auto part =
                   std::find_if(all.begin(), all.end(), [](const Finding& g) { return g.code.starts_with("tape.section-"); });
               part != all.end() && !s.condition.sections.empty()) {
        h.sentence = part->sentence; // crooked in one place, though the frame as a whole shows none
    } else {
        h.sentence = fmt::format("The {} is straight: nothing is out by more than {} ± {}.", name, small(f.value_mm),
                                 small(f.half_width_mm));
    }
    if (twist && twist != worst_figure)
        h.below = fmt::format("Twist {} ± {} over the frame. ", units::formatAngle(std::abs(twist->angle_rad)),
                              units::formatAngle(twist->angle_half_width_rad));
    h.below += readings + spoils;
    return h;
}

Headline sitHeadline(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    if (r.body.survey.points.empty() || r.chassis.survey.points.empty())
        return {"The body has no place yet: it must be taped first.",
                "Sit needs the points of body and chassis, each taped in its own frame. Go to Tape."};
    if (b.pins.empty())
        return {
            "Nothing says where the body sits.",
            "Pin what must hold: the hinge pillar at a station, the body centred, the sill heights, the wheels in their arches."};
    if (r.seat.status == sit::Status::NoWishes)
        return {"The pins wait for their points.", "See the findings below for what is missing."};
    if (r.seat.status == sit::Status::NotConverged)
        return {"The pins contradict each other.", "No place for the body comes near to all of them."};
    Headline h;
    if (!r.seat.open.empty()) h.sentence = "The body's place is not settled yet.";
    int fails = 0;
    int marginal = 0;
    for (const auto& w : r.seat.wishes) {
        fails += w.usable && w.verdict == PlanVerdict::Fails;
        marginal += !w.usable || w.verdict == PlanVerdict::Marginal;
    }
    if (r.seat.change_mm) {
        const double change = *r.seat.change_mm;
        const std::string by = units::formatLength(std::abs(change), step, true);
        const std::string pm =
            r.seat.change_decided ? ", as decided" : " ± " + units::formatSmall(r.seat.change_half_width_mm, step, true);
        if (std::abs(change) < 0.5)
            h.sentence = "The body sits with the wheelbase as it is.";
        else
            h.sentence =
                fmt::format("The body sits when the wheelbase is {} by {}{}.", change < 0 ? "shortened" : "lengthened", by, pm);
    } else if (h.sentence.empty()) {
        h.sentence = "The body sits.";
    }
    const auto holds = r.seat.wishes.size() - static_cast<size_t>(fails) - static_cast<size_t>(marginal);
    h.below = fmt::format("{} pins: {} hold, {} marginal, {} missed.", b.pins.size(), holds, marginal, fails);
    if (!r.seat.open.empty()) h.below = r.seat.open.front();
    return h;
}

Headline stretchHeadline(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    const auto& p = r.stretch;
    if (p.status == stretch::Status::Waiting && !r.seat.change_mm)
        return {"No change of wheelbase is asked for yet.",
                "Pin the rear wheels in their arches on Sit, or decide the change here: change -75."};
    if (p.status == stretch::Status::NoChange) return {"The wheelbase stays as it is: nothing to cut.", ""};
    const std::string by = units::formatLength(std::abs(p.change_mm), step, true);
    if (p.status == stretch::Status::Waiting)
        return {fmt::format("{} {}: where may it be cut?", p.change_mm < 0 ? "Take out" : "Put in", by),
                "The plan waits for " + p.waiting_for + "."};
    Headline h;
    const double length = p.left.known ? p.left.length_mm : p.right.length_mm;
    const Origin origin = originOf(b, r);
    const std::string from = origin.at_axle ? "" : " " + origin.from; // usual is the axle: then the sheet's note says it
    h.sentence =
        p.shortens
            ? fmt::format("Cut at {}{} and take out {} of each rail.", units::formatLength(*r.stretch_input.cut_station_mm, step),
                          from, units::formatLength(length, step, true))
            : fmt::format("Cut at {}{} and let in a new piece of {}.", units::formatLength(*r.stretch_input.cut_station_mm, step),
                          from, units::formatLength(length, step, true));
    h.below = fmt::format("The wheelbase changes by {}{}. ", p.change_mm < 0 ? "−" : "+", by);
    if (p.sleeve) h.below += fmt::format("Inner sleeve {} long. ", units::formatLength(p.sleeve->length_mm, step, true));
    h.below += fmt::format("The plan {}.", p.verdict == PlanVerdict::Holds      ? "holds"
                                           : p.verdict == PlanVerdict::Marginal ? "is marginal: see the tags"
                                                                                : "fails: see the tags");
    return h;
}

Headline makeHeadline(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    if (b.mounts.empty() && !b.crossmember)
        return {"Nothing is planned to be made yet.",
                "Set the body mounts (mount all), and the crossmember under the gearbox (crossmember)."};
    double low = 1e9;
    double high = -1e9;
    int bad = 0;
    for (const auto& m : r.mounts) {
        if (m.on_rail) {
            low = std::min(low, m.gap_mm);
            high = std::max(high, m.gap_mm);
        }
        bad += m.verdict == PlanVerdict::Fails;
    }
    Headline h;
    if (r.mounts.empty())
        h.sentence = b.mounts.empty() ? "No body mount is set yet." : "The mounts wait until the body has a place.";
    else if (bad)
        h.sentence = fmt::format("{} of {} body mounts can't be made as planned.", bad, r.mounts.size());
    else
        h.sentence = fmt::format("{} body mounts, gaps from {} to {}.", r.mounts.size(), units::formatLength(low, step),
                                 units::formatLength(high, step, true));
    if (r.crossmember.possible && r.crossmember.dropped)
        h.below =
            fmt::format("Crossmember at {}: middle {} dropped by {}, legs at {} and {}, {} in all.",
                        units::formatLength(r.crossmember.station_mm, step),
                        units::formatLength(r.crossmember.dropped->middle_mm, step, true),
                        units::formatLength(r.crossmember.dropped->drop_mm, step, true),
                        units::formatAngle(r.crossmember.dropped->left.angle_rad, 1),
                        units::formatAngle(r.crossmember.dropped->right.angle_rad, 1), units::formatMass(r.crossmember.mass_kg));
    else if (r.crossmember.possible)
        h.below =
            fmt::format("Crossmember at {}: bridge {} long between the flanges, {} in all.",
                        units::formatLength(r.crossmember.station_mm, step),
                        units::formatLength(r.crossmember.box_length_mm, step, true), units::formatMass(r.crossmember.mass_kg));
    else
        h.below = b.crossmember ? "The crossmember waits for " + r.crossmember.waiting_for + "." : "No crossmember is planned.";
    return h;
}

Headline workHeadline(const Results& r) {
    if (!r.work_planned)
        return {"There is nothing to do yet: nothing is planned.",
                "The order of work comes from the plan: a cut on Stretch, mounts or a crossmember on Make."};
    const work::Order& o = r.work;
    if (!o.next) return {"All is done.", fmt::format("{} steps, each ticked with a name.", o.done)};
    const work::Step& s = o.steps[*o.next];
    Headline h;
    h.sentence = fmt::format("{}: {}.", s.hold ? "Hold point" : "Next", s.title);
    if (h.sentence.size() > 100) h.sentence = fmt::format("{}: step {}.", s.hold ? "Hold point" : "Next", *o.next + 1);
    h.below = fmt::format("{} of {} steps done.", o.done, o.steps.size());
    if (o.body_moves_left)
        h.below += fmt::format(" The body still moves {} {}, no order needs fewer.", o.body_moves_left,
                               o.body_moves_left == 1 ? "time" : "times");
    h.below += o.now.body == build::BodyPlace::On ? " It is on" : " It is off";
    h.below += fmt::format(", the frame {} on {}.", o.now.attitude == Attitude::Inverted ? "upside down" : "right way up",
                           word(o.now.support));
    return h;
}

} // namespace

Headline headline(const Build& b, const Results& r, Bench bench, Subject subject) {
    switch (bench) {
    case Bench::Tape: return tapeHeadline(b, r.of(subject), subject, r.findings);
    case Bench::Scan: // what fouls needs the scans themselves
        if (b.scans.empty()) return overlayHeadline(b, {}, nullptr);
        return {fmt::format("{} scan{} kept.", b.scans.size(), b.scans.size() == 1 ? " is" : "s are"),
                "What fouls is told on the Scan bench and by gorvet-cli overlay, with the cut map."};
    case Bench::Sit: return sitHeadline(b, r);
    case Bench::Stretch: return stretchHeadline(b, r);
    case Bench::Make: return makeHeadline(b, r);
    case Bench::Work: return workHeadline(r);
    }
    return {};
}

} // namespace gorvet::analysis
