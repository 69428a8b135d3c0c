// Lifts: what the build says of them, worked out, and their cards.
#include "analysis/pages.hpp"
#include "analysis/work_plan.hpp"

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const nobody_under =
    "Nobody under what hangs or stands on points, not even a hand. Lift 20 mm, stop, look, then go on. "
    "Hoist, beam and floor are not judged here.";
const char* const certifies_no_lift =
    "Software certifies no lift: hoist, slings, stands and points are judged by whoever is licensed to, and local rules come first.";

} // namespace

std::vector<work::WorkedLift> workedLifts(const Build& b, const Results& r) {
    std::vector<work::WorkedLift> list;
    for (const auto& [id, l] : b.lifts) {
        work::WorkedLift w;
        w.name = l.name;
        w.way = l.way;
        w.note = l.note;
        if (!l.step.empty()) {
            const work::Step* s = r.work->find(l.step);
            if (!s) s = r.work->find("job-" + l.step);
            w.step = s ? s->title : l.step;
        }
        for (const auto& [point_id, p] : b.lift_points) {
            if (p.lift != id) continue;
            if (w.slings())
                w.sling.legs.push_back({p.name, p.at, p.length_mm, p.rated_kg, p.sound});
            else
                w.rest.points.push_back({p.name, p.at, p.rated_kg, p.sound});
        }
        w.sling.mass_kg = w.rest.mass_kg = l.mass_kg;
        w.sling.mass_u95_kg = w.rest.mass_u95_kg = l.mass_u95_kg;
        w.sling.centre = w.rest.centre = l.centre;
        w.sling.centre_u95 = w.rest.centre_u95 = l.centre_u95;
        w.sling.spreader = l.spreader;
        w.rest.hangs = l.way == LiftWay::Gantry;
        const std::size_t points = w.slings() ? w.sling.legs.size() : w.rest.points.size();
        if (l.mass_kg <= 0)
            w.waits = "its mass";
        else if (points < 2)
            w.waits = w.slings() ? "the legs of its slings, two at the least" : "the points that carry it, three at the least";
        else if (w.slings() && points > 4)
            w.waits = "fewer legs: four at the most hang from one hook";
        else if (w.slings())
            w.hung = work::hang(w.sling);
        else
            w.carried = work::carry(w.rest);
        w.holds_step = l.step;
        w.remedy = "Say it: lift " + l.name + " weighs 380 pm 20, leg " + l.name + " front-left 200 -500 900 long 1800.";
        list.push_back(std::move(w));
    }
    for (work::WorkedLift& half : halvesOnStands(b, r)) list.push_back(std::move(half));
    return list;
}

Headline liftHeadline(const Build& b, const Results& r, SubjectId) {
    const auto lifts = workedLifts(b, r);
    if (lifts.empty())
        return {"No lift is planned yet.",
                "What is lifted, its mass and centre of gravity, and the legs or points that carry it: lift NAME weighs 380."};
    Headline h;
    const work::WorkedLift* worst = nullptr;
    for (const work::WorkedLift& l : lifts)
        if (!worst || !l.waits.empty() || (worst->waits.empty() && l.verdict() > worst->verdict())) worst = &l;
    h.sentence =
        !worst->waits.empty()
            ? fmt::format("{} {} waits for {}.", worst->made ? "The half" : "The lift", worst->name, worst->waits)
            : fmt::format("{} {}: {}{}.", worst->made ? "The half" : "The lift", worst->name, work::verdictWord(worst->verdict()),
                          worst->verdict() == work::LiftVerdict::Holds ? ", by its mass, legs and points" : "");
    const bool said = worst->waits.empty() && !worst->remarks().empty();
    h.below = fmt::format("{}{}{}", said ? worst->remarks().front().sentence : "", said ? " " : "", nobody_under);
    return h;
}

sheet::Drawing liftDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format& f) {
    return work::liftSheet(workedLifts(b, r), width, height, f);
}

std::vector<sheet::Drawing> liftSheets(const Build& b, const Results& r) {
    return work::liftPages(workedLifts(b, r), titled(b, r, "Lift"), {nobody_under, certifies_no_lift, local_rules});
}

std::optional<Card> liftCard(const Build& b, const Results& r, const std::string& name) {
    const auto lifts = workedLifts(b, r);
    const auto found = std::find_if(lifts.begin(), lifts.end(), [&](const work::WorkedLift& l) { return l.name == name; });
    if (found == lifts.end()) return std::nullopt;
    const work::WorkedLift& l = *found;
    Card c;
    c.title = "Lift " + name;
    c.word = l.waits.empty() ? work::verdictWord(l.verdict()) : "Waiting";
    c.severity = !l.waits.empty() || l.verdict() == work::LiftVerdict::Marginal ? sheet::Severity::Warn
                 : l.verdict() == work::LiftVerdict::Holds                      ? sheet::Severity::Good
                                                                                : sheet::Severity::Bad;
    c.rows.push_back({"by", std::string(word(l.way)), Mark::None, false});
    if (l.sling.mass_kg > 0)
        c.rows.push_back({"mass",
                          l.sling.mass_u95_kg > 0 ? fmt::format("{:g} ± {:g} kg", l.sling.mass_kg, l.sling.mass_u95_kg)
                                                  : fmt::format("{:g} kg", l.sling.mass_kg),
                          l.sling.mass_u95_kg > 0 ? Mark::None : Mark::Assumed, false});
    for (const work::LegLoad& leg : l.hung.legs)
        c.rows.push_back({leg.name, fmt::format("{:.0f}, at most {:.0f} kg", leg.load_kg, leg.most_kg), Mark::Derived, false});
    for (const work::CarryLoad& load : l.carried.loads)
        c.rows.push_back({load.name, fmt::format("{:.0f}, at most {:.0f} kg", load.load_kg, load.most_kg), Mark::Derived, false});
    c.sentences.push_back(l.sentence());
    for (const work::LiftRemark& remark : l.remarks())
        c.sentences.push_back(fmt::format("{} {}", remark.sentence, remark.remedy));
    c.sentences.push_back(fmt::format("Caution: {}", nobody_under));
    if (l.made) {
        c.sentences.push_back(l.note);
        c.actions.push_back({"a pair of stands", "stand ", "", true});
        for (const auto& [id, s] : b.stands) c.actions.push_back({"move " + s.name, "stand " + s.name + " at ", "", true});
        return c;
    }
    c.actions.push_back({"mass", "lift " + name + " weighs ", "", true});
    c.actions.push_back({"centre of gravity", "lift " + name + " centre ", "", true});
    c.actions.push_back({l.slings() ? "a leg" : "a point", "leg " + name + " ", "", true});
    c.actions.push_back({"remove the lift", "remove lift " + name, "", false});
    if (const Lift* row = liftNamed(b, name)) {
        c.journal_table = "lift";
        c.journal_id = row->id.value;
    }
    return c;
}

} // namespace gorvet::analysis
