// What the last days did to the date, what soaks, what is found, what must be bought.
#include "analysis/week.hpp"
#include "analysis/work_buy.hpp"
#include "analysis/work_plan.hpp"
#include "entry/typist.hpp"
#include "prompt/context.hpp"
#include "units/dates.hpp"

#include <cmath>

namespace analysis_week_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

/// Jobs with hours, one after the other, two weeks ago.
Typist shop() {
    Typist t;
    t.context.who = "M.";
    t.context.now_utc = "2026-11-16T08:00:00Z";
    t.type("job strip kind take-apart hours 4 6 10 area tail");
    t.type("job weld-it kind weld hours 8 12 20 after strip area left sill");
    t.type("job paint-it kind paint hours 6 after weld-it area left sill");
    return t;
}
/// A line about the order of work as it is now.
void say(Typist& t, const std::string& line) {
    t.context = prompt::contextFor(analysis::analyse(t.b, 1), the_chassis, t.context.who, t.context.now_utc);
    t.type(line);
}
const analysis::Finding* found(const analysis::Results& r, const std::string& code) {
    for (const analysis::Finding& f : r.findings)
        if (f.code == code) return &f;
    return nullptr;
}
double moverOf(const analysis::WeekDid& w, const std::string& what) {
    for (const analysis::Mover& m : w.movers)
        if (m.what == what) return m.days;
    return 0;
}

} // namespace

TEST_CASE("what the week did to the date: each mover has its sign, and they add up", "[analysis][week]") {
    const Typist then = shop();
    const int then_day = *units::dayOf("2026-11-23");
    const auto did = [&](Typist& now) {
        const analysis::WeekDid w = analysis::weekDid(then.b, then_day, now.b, analysis::analyse(now.b, 1));
        REQUIRE(w.why_not.empty());
        double sum = 0;
        for (const analysis::Mover& m : w.movers) sum += m.days;
        CHECK(std::abs(sum - w.moved()) < 0.05 * 10);
        return w;
    };
    // nothing was done: the end moves by the days that went by
    Typist idle = shop();
    const auto w = did(idle);
    CHECK(w.moved() == Approx(7).margin(0.1));
    CHECK(moverOf(w, "the days that went by") == Approx(7).margin(0.1));
    CHECK(w.movers[1].words == "nothing was ticked or logged");
    CHECK(analysis::weekWords(w).find("7 days later") != std::string::npos);
    // work pulls it forward, a find and another's delay push it back
    Typist busy = shop();
    busy.context.now_utc = "2026-11-28T08:00:00Z";
    say(busy, "worked strip 5 on 2026-11-27");
    say(busy, "discovered sill-inner during strip does a new inner sill area left sill kind weld hours 12");
    busy.type("job weld-it hours 12 18 30");
    busy.type("off 2026-12-05 2026-12-12 away");
    const auto b = did(busy);
    CHECK(moverOf(b, "work that was done") < -0.5);
    CHECK(moverOf(b, "what was found") > 2);
    CHECK(moverOf(b, "hours that are said otherwise") > 1);
    CHECK(moverOf(b, "the shop's hours and days off") > 4);
    CHECK(moverOf(b, "other jobs") == 0);
    CHECK(analysis::weekCard(b).sentences.size() ==
          b.movers.size() + 2); // before them what it comes to, after them how to read it
    CHECK(analysis::weekJson(busy.b, b).find("a new inner sill: 12 h") != std::string::npos);
    // nothing known then
    const analysis::WeekDid none = analysis::weekDid(Build{}, then_day, busy.b, analysis::analyse(busy.b, 1));
    CHECK_FALSE(none.why_not.empty());
}

TEST_CASE("what is seized soaks: a day to soak it, a day to try it, and the step waits", "[analysis][work][soak]") {
    Typist t = shop();
    t.context.now_utc = "2026-11-30T07:00:00Z";
    t.type("tag bolt-rear bolt area tail frees weld-it soaks 48");
    CHECK(releaseNamed(t.b, "bolt-rear")->seized);
    auto r = analysis::analyse(t.b, 1);
    const auto in = r.schedule.input();
    REQUIRE(in.parts.size() == 1);
    CHECK(in.parts[0].soaks);
    CHECK(in.parts[0].likely_days == 2);
    CHECK_FALSE(in.parts[0].ordered);
    REQUIRE(found(r, "work.soak-by"));
    CHECK(found(r, "work.soak-by")->remedy.find("burns") != std::string::npos);
    const auto entry = [&](const std::string& title) {
        for (const auto& e : analysis::calendarOf(t.b, r))
            if (e.title == title) return e.from;
        return 0;
    };
    CHECK(entry("Soak bolt-rear") >= in.today);
    t.type("soaked bolt-rear");
    r = analysis::analyse(t.b, 2);
    CHECK_FALSE(found(r, "work.soak-by"));
    CHECK(entry("Try bolt-rear") == in.today + 3); // two days and some hours: the morning after
    const auto* step = r.work->find("job-weld-it");
    REQUIRE(step);
    CHECK(std::any_of(step->conditions.begin(), step->conditions.end(),
                      [](const work::Condition& c) { return c.text.find("until 2026-12-02 07:00") != std::string::npos; }));
    // once it is undone nothing soaks any more
    t.type("untied bolt-rear");
    r = analysis::analyse(t.b, 3);
    CHECK(r.schedule.input().parts.empty());
    // a day, where nothing is said
    t.type("tag bolt-front bolt seized");
    CHECK(analysis::analyse(t.b, 4).schedule.input().parts.at(0).likely_days == 1);
}

TEST_CASE("what was found is learned from, against the planned work done meanwhile", "[analysis][work][finds]") {
    Typist t = shop();
    say(t, "discovered nut during strip hours 2");
    CHECK(jobNamed(t.b, "nut")->found);
    CHECK(jobNamed(t.b, "nut")->found_at == "strip");
    say(t, "discovered rot hours 4 6 14");
    say(t, "discovered something");
    t.context.now_utc = "2026-11-28T08:00:00Z";
    say(t, "worked strip 3 on 2026-11-27");
    const auto in = analysis::analyse(t.b, 1).schedule.input();
    REQUIRE(in.found);
    CHECK(in.found->times == 2); // what has no hours teaches nothing
    CHECK(in.found->hours == Approx(2 + 7));
    CHECK(in.found->planned_h == Approx(3));
    t.type("job nut hours 3"); // it stays found
    CHECK(jobNamed(t.b, "nut")->found);
}

TEST_CASE("paint after welding asks for a trial fit in between; one that is there is seen", "[analysis][work][trial]") {
    Typist t = shop();
    t.frame();
    t.body();
    t.type("job weld-it body-off");
    t.type("job paint-it body-off");
    auto r = analysis::analyse(t.b, 1);
    const analysis::Finding* f = found(r, "work.trial-fit");
    REQUIRE(f);
    CHECK(f->subject == "paint-it");
    // what it asks for can be typed as it stands
    std::string line = f->remedy.substr(f->remedy.find("job trial-fit"));
    line.pop_back();
    t.type(line);
    CHECK_FALSE(found(analysis::analyse(t.b, 2), "work.trial-fit"));
    // nothing is welded: nothing is asked for
    Typist cold = shop();
    cold.frame();
    cold.body();
    cold.type("job weld-it kind fit body-off");
    cold.type("job paint-it body-off");
    CHECK_FALSE(found(analysis::analyse(cold.b, 1), "work.trial-fit"));
}

TEST_CASE("an area that was begun and left is named while work goes on elsewhere", "[analysis][work][idle]") {
    Typist t = shop();
    t.type("job wash kind clean hours 1 area left sill");
    say(t, "worked weld-it 2 on 2026-11-10");
    CHECK_FALSE(found(analysis::analyse(t.b, 1), "work.area-idle")); // nothing is done anywhere
    t.context.now_utc = "2026-11-28T08:00:00Z";
    say(t, "worked strip 2 on 2026-11-28");
    const auto r = analysis::analyse(t.b, 2);
    const analysis::Finding* f = found(r, "work.area-idle");
    REQUIRE(f);
    CHECK(f->sentence.find("left sill (since 2026-11-10)") != std::string::npos);
    CHECK(f->sentence.find("tail") == std::string::npos);
    say(t, "worked wash 1 on 2026-11-20");
    CHECK_FALSE(found(analysis::analyse(t.b, 3), "work.area-idle"));
}

TEST_CASE("what must be bought comes from every corner of the build", "[analysis][buy]") {
    Typist t = shop();
    t.type("await seals for paint-it from the maker cost 90");
    t.type("await glass for paint-it ordered 2026-11-02 cost 200");
    t.type("tag bolt-rear bolt area tail renew-bolt");
    t.type("tag hose-top hose fate renew");
    t.type("surface sill-in steel m2 1.4");
    t.type("coat sill-in primer epoxy-primer coats 2 covers 7 brush");
    t.type("crossing brake-line left answer new-length long 2610 fittings M10 both ends supplier the pipe bender price 34");
    t.type("crossing loom answer re-clip price 12"); // nothing of it is bought
    const auto p = analysis::purchasesOf(t.b, analysis::analyse(t.b, 1));
    const auto row = [&](const std::string& what) {
        for (const auto& one : p.rows)
            if (one.what == what) return one;
        FAIL(what);
        return p.rows.front();
    };
    CHECK(row("seals").open);
    CHECK_FALSE(row("glass").open);
    CHECK(row("fastener of bolt-rear, tail").open);
    CHECK(row("hose-top, tail").kind == "part");
    CHECK(row("epoxy-primer").amount == "0.5 l");
    const auto line = row("brake-line left, 2610.0 mm, M10 both ends");
    CHECK(line.kind == "line");
    CHECK(line.from == "the pipe bender");
    CHECK(*line.price == 34);
    CHECK(p.priced == 90 + 34);
    CHECK(p.unpriced == 3);
    CHECK(p.rows.back().what == "glass"); // what is open stands first
}

} // namespace analysis_week_test
