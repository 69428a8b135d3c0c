// Time, lifts and decisions as JSON.
#include "analysis/json_parts.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

namespace gorvet::analysis {

namespace {

Json date(double day) { return units::isoDate(static_cast<int>(std::floor(day))); }
Json dates(const work::Spread& s) { return {{"p10", date(s.p10)}, {"p50", date(s.p50)}, {"p90", date(s.p90)}}; }
Json spread(const work::Spread& s) { return {{"p10", number(s.p10)}, {"p50", number(s.p50)}, {"p90", number(s.p90)}}; }

Json legsOf(const work::LiftPlan& p) {
    Json list = Json::array();
    for (const work::LegLoad& l : p.legs)
        list.push_back({{"name", l.name},
                        {"from_the_upright_deg", number(l.slope_rad * units::degrees(1))},
                        {"load_kg", number(l.load_kg)},
                        {"most_kg", number(l.most_kg)},
                        {"pulls_sideways_kg", number(l.squeeze_kg)},
                        {"slack", l.slack}});
    return list;
}
Json remarksOf(const std::vector<work::LiftRemark>& remarks) {
    Json list = Json::array();
    for (const work::LiftRemark& r : remarks)
        list.push_back({{"verdict", work::verdictWord(r.verdict)}, {"sentence", r.sentence}, {"remedy", r.remedy}});
    return list;
}
Json liftCautions() {
    return {"Nobody under a hung load, not even a hand; lift 20 mm and look.",
            "Software certifies no lift: hoist, hooks, slings and points are judged by whoever is licensed to."};
}

Json hungJson(const work::LiftInput& in, const work::LiftPlan& p) {
    Json j = {{"verdict", work::verdictWord(p.verdict)}, {"in_balance", p.hangs}, {"why_not", p.why_not}};
    j["mass_kg"] = in.mass_kg;
    if (p.hangs) {
        j["hook"] = point(p.hook);
        j["hook_above_centre_of_gravity_mm"] = number(p.height_mm);
        j["tilt_deg"] = number(p.tilt_rad * units::degrees(1));
        j["tilt_u95_deg"] = number(p.tilt_u95_rad * units::degrees(1));
        j["nose_down_deg"] = number(p.nose_down_rad * units::degrees(1));
        j["left_down_deg"] = number(p.left_down_rad * units::degrees(1));
        j["ballast_kg"] = number(p.ballast_kg);
        if (p.ballast_kg) j["ballast_at"] = point(p.ballast_at);
    }
    j["legs"] = legsOf(p);
    j["remarks"] = remarksOf(p.remarks);
    j["cautions"] = liftCautions();
    return j;
}

} // namespace

std::string liftJson(const work::LiftInput& in, const work::LiftPlan& p) { return text(hungJson(in, p)); }

std::string liftsJson(const build::Build& b, const Results& r) {
    Json j;
    j["lifts"] = Json::array();
    for (const work::WorkedLift& l : workedLifts(b, r)) {
        Json q;
        if (!l.waits.empty()) {
            q["verdict"] = nullptr;
            q["waits_for"] = l.waits;
        } else if (l.slings()) {
            q = hungJson(l.sling, l.hung);
        } else {
            q = {{"verdict", work::verdictWord(l.carried.verdict)}, {"stands", l.carried.stands}, {"why_not", l.carried.why_not}};
            q["mass_kg"] = l.rest.mass_kg;
            q["inside_of_its_points_mm"] = number(l.carried.edge_mm);
            q["inside_of_its_points_u95_mm"] = number(l.carried.edge_u95_mm);
            q["points"] = Json::array();
            for (const work::CarryLoad& load : l.carried.loads)
                q["points"].push_back({{"name", load.name},
                                       {"load_kg", number(load.load_kg)},
                                       {"most_kg", number(load.most_kg)},
                                       {"carries_nothing", load.bare}});
            q["remarks"] = remarksOf(l.carried.remarks);
            q["cautions"] = liftCautions();
        }
        Json named = {{"name", l.name}, {"way", build::word(l.way)}, {"for", known(l.step)}, {"sentence", l.sentence()}};
        named.update(q);
        j["lifts"].push_back(std::move(named));
    }
    return text(j);
}

std::string planJson(const build::Build& b, const Results& r) {
    const work::ScheduleInput& in = r.schedule.input();
    const work::Schedule& s = *r.schedule;
    const bool said = !s.never && s.unsaid < in.tasks.size();
    Json j = {{"build", b.settings.name}, {"today", date(in.today)}, {"sentence", finishWords(b, r)}, {"draws", in.draws}};
    j["shop"] = {{"weekday_h", in.hours.of_weekday[0]},
                 {"saturday_h", in.hours.of_weekday[5]},
                 {"sunday_h", in.hours.of_weekday[6]},
                 {"people", in.hours.people},
                 {"provenance", in.hours.assumed ? "assumed" : "measured"}};
    j["finish"] = said ? dates(s.finish) : Json(nullptr);
    j["hours_left"] = said ? spread(s.hours) : Json(nullptr);
    j["wanted"] = in.wanted ? date(*in.wanted) : Json(nullptr);
    j["done_by_then_of_100"] = in.wanted && said ? number(100 * s.by_wanted) : Json(nullptr);
    j["steps_without_hours"] = s.unsaid;
    j["found_on_the_way"] = {{"expected_h", said ? spread(s.found_h) : Json(nullptr)},
                             {"finds", s.finds.learned_from},
                             {"hours_an_hour", number(s.finds.growth())},
                             {"provenance", s.finds.learned_from ? "derived" : "assumed"}};
    j["history"] = {{"steps", s.habit.learned_from},
                    {"takes_times_what_is_said", number(std::exp(s.habit.common))},
                    {"one_step_scatter", number(s.habit.of_one)}};
    j["history"]["trades"] = Json::array();
    for (std::size_t k = 0; k < work::Habit::trades; ++k)
        if (s.habit.learned_of[k] > 0) {
            const auto kind = static_cast<build::JobKind>(k);
            const auto [low, high] = s.habit.factor95(kind);
            j["history"]["trades"].push_back({{"kind", build::word(kind)},
                                              {"steps", s.habit.learned_of[k]},
                                              {"factor", number(s.habit.factor(kind))},
                                              {"low", number(low)},
                                              {"high", number(high)}});
        }
    const work::TimeView view = timeView(b, r);
    j["steps"] = Json::array();
    for (std::size_t i = 0; said && i < in.tasks.size(); ++i) {
        const work::Task& t = in.tasks[i];
        const work::TaskDates& d = s.tasks[i];
        j["steps"].push_back({{"code", t.code},
                              {"title", t.title},
                              {"place", view.places.at(i)},
                              {"hours", t.likely_h <= 0 ? Json(nullptr)
                                        : t.most_h > 0  ? Json{{"least", t.least_h}, {"likely", t.likely_h}, {"most", t.most_h}}
                                                        : Json{{"likely", t.likely_h}}},
                              {"worked_h", t.worked_h},
                              {"begins", dates(d.start)},
                              {"ends", dates(d.finish)},
                              {"holds_the_end_up_of_100", number(100 * d.holds_up)},
                              {"wanted", t.wanted ? date(*t.wanted) : Json(nullptr)},
                              {"late_of_100", t.wanted ? number(100 * d.late) : Json(nullptr)}});
    }
    j["parts"] = Json::array();
    for (std::size_t p = 0; !s.never && p < s.parts.size(); ++p)
        j["parts"].push_back({{"name", in.parts[p].name},
                              {"soaks", in.parts[p].soaks},
                              {"ordered", in.parts[p].ordered ? date(*in.parts[p].ordered) : Json(nullptr)},
                              {"here", in.tasks.empty() ? Json(nullptr) : dates(s.parts[p].here)},
                              {"order_by", s.parts[p].order_by ? date(*s.parts[p].order_by) : Json(nullptr)},
                              {"a_step_waits_of_100", number(100 * s.parts[p].holds_up)}});
    const Costs c = costsOf(b, r);
    j["costs"] = {{"parts", c.parts},
                  {"parts_without_a_price", c.parts_unpriced},
                  {"labour_left", spread(c.labour)},
                  {"worked_h", c.worked_h},
                  {"labour_so_far", c.worked},
                  {"agreed", c.agreed}};
    j["findings"] = findings(r.findings, "work");
    return text(j);
}

std::string clientJson(const build::Build& b, const Results& r) {
    const work::ClientInput in = clientInput(b, r);
    const work::Agreed sum = work::agreedOf(in.decisions);
    Json j = {{"build", b.settings.name},
              {"done", r.work->done},
              {"of", r.work->steps.size()},
              {"hours_worked", in.hours},
              {"finish", in.finish}};
    j["decisions"] = Json::array();
    for (const work::DecisionAsked& q : in.decisions) {
        Json choices = Json::array();
        for (const build::Choice& c : q.choices)
            choices.push_back({{"name", c.name}, {"what", c.what}, {"price", c.price}, {"hours", c.hours}, {"days", c.days}});
        j["decisions"].push_back({{"name", q.decision.name},
                                  {"asks", q.decision.asks},
                                  {"step", known(q.step)},
                                  {"wanted", known(q.decision.wanted)},
                                  {"choices", std::move(choices)},
                                  {"chosen", known(q.decision.chosen)},
                                  {"agreed", by(q.decision.agreed)},
                                  {"struck", by(q.decision.struck)},
                                  {"change_order", q.decision.change ? Json(work::changeNumber(in.decisions, q)) : Json(nullptr)},
                                  {"because", known(q.because)},
                                  {"note", q.decision.note}});
    }
    const work::Changed changed = work::changesOf(in.decisions);
    j["changes"] = {{"before", changed.before}, {"by", changed.by}, {"asked_for", changed.open}};
    j["agreed"] = {{"price", sum.price}, {"hours", sum.hours}, {"days", sum.days}};
    j["days"] = Json::array();
    for (const auto& [day, hours] : in.days) j["days"].push_back({{"day", day}, {"hours", hours}});
    j["awaited"] = in.waits;
    return text(j);
}

} // namespace gorvet::analysis
