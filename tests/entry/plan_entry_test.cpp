// Time, lifts and decisions by the line.
#include "entry/typist.hpp"

namespace entry_plan_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

Typist atWork() {
    Typist t;
    t.frame();
    t.type("point Dr rail 2900 420 300");
    t.work();
    return t;
}

} // namespace

TEST_CASE("a text goes on behind a word that means nothing there", "[entry][work][jobs]") {
    Typist t = atWork();
    t.type("job wax does wax within the sill after lunch, before people come kind of twice hours 2");
    const Job* j = jobNamed(t.b, "wax");
    REQUIRE(j);
    CHECK(j->title == "wax");
    CHECK(j->inside == "the sill after lunch, before people come kind of twice");
    CHECK(j->likely_h == 2);
    t.type("job wax does coat the inside of the sill by hand for hours way down kind paint after battery-out");
    j = jobNamed(t.b, "wax");
    CHECK(j->title == "coat the inside of the sill by hand for hours way down");
    CHECK(j->kind == JobKind::Paint);
    CHECK(j->after == std::vector<std::string>{"battery-out"});
    t.type("await seals for battery-out from the maker for old doors days 10 20 45");
    CHECK(t.b.awaited.begin()->second.supplier == "the maker for old doors");
    CHECK(t.b.awaited.begin()->second.most_days == 45);
    t.type("tag loom connector joins a seized clip to the captive loom torque of old how press seized");
    const Release* r = releaseNamed(t.b, "loom");
    REQUIRE(r);
    CHECK(r->joins == "a seized clip to the captive loom torque of old");
    CHECK(r->how == "press");
    CHECK(r->seized);
}

TEST_CASE("hours that are said and hours that are worked", "[entry][work]") {
    Typist t = atWork();
    t.type("hours battery-out 0.5 1 2");
    REQUIRE(estimateOf(t.b, "battery-out"));
    CHECK(estimateOf(t.b, "battery-out")->most_h == 2);
    t.type("hours battery-out 1.5");
    CHECK(t.b.estimates.size() == 1);
    CHECK(estimateOf(t.b, "battery-out")->most_h == 0);
    t.type("job lamps");
    t.type("hours lamps 3");
    CHECK(jobNamed(t.b, "lamps")->likely_h == 3);
    CHECK(t.b.estimates.size() == 1);
    CHECK(t.wrong("hours nobody 3").message.find("no step nobody") != std::string::npos);
    CHECK(t.wrong("hours battery-out 3 2 1").message.find("least") != std::string::npos);
    t.type("worked 1.5");
    t.type("worked weld-rails 2 on 2026-02-27 by Kim note slow");
    REQUIRE(t.b.worked.size() == 2);
    CHECK(t.b.worked.begin()->second.step == "battery-out");
    CHECK(t.b.worked.begin()->second.day == "2026-03-01");
    CHECK(t.b.worked.begin()->second.who == "M.");
    CHECK(t.b.worked.rbegin()->second.who == "Kim");
    CHECK(t.b.worked.rbegin()->second.note == "slow");
    t.type("worked battery-out 2");
    CHECK(t.echo.find("3.5 h on it by now") != std::string::npos);
    CHECK(t.wrong("worked battery-out 2 on 2026-03-09").message.find("still to come") != std::string::npos);
    t.type("remove worked weld-rails 2026-02-27");
    CHECK(t.b.worked.size() == 2);
    t.type("remove hours battery-out");
    CHECK(t.b.estimates.empty());
    // a job that is renamed keeps its hours
    t.context.steps.push_back({"job-lamps", "lamps", "", false, {}});
    t.type("worked lamps 1");
    t.type("rename job lamps lights");
    CHECK(t.b.worked.rbegin()->second.step == "job-lights");
}

TEST_CASE("the shop's hours and days off", "[entry][work]") {
    Typist t = atWork();
    CHECK(t.b.calendar.weekday_h.provenance == Provenance::Assumed);
    t.type("shop weekday 2.5 saturday 7 sunday 1 people 2 wanted 2026-12-24 hour-costs 40");
    CHECK(t.b.calendar.weekday_h.value == 2.5);
    CHECK(t.b.calendar.weekday_h.provenance == Provenance::Measured);
    CHECK(t.b.calendar.people == 2);
    CHECK(t.b.calendar.wanted == "2026-12-24");
    t.type("shop wanted nothing");
    CHECK(t.b.calendar.wanted.empty());
    t.wrong("shop");
    t.wrong("shop weekday 30"); // no day has so many
    t.type("off 2026-12-24 2027-01-02 holidays");
    t.type("off 2027-02-01");
    CHECK(t.b.days_off.size() == 2);
    CHECK(t.wrong("off 2027-01-01 2027-01-05").message.find("off already") != std::string::npos);
    t.wrong("off 2027-03-05 2027-03-01");
    t.type("remove off 2026-12-24");
    CHECK(t.b.days_off.size() == 1);
}

TEST_CASE("a lift and its legs", "[entry][work]") {
    Typist t = atWork();
    t.type(
        "lift cab way slings for battery-out weighs 380 pm 20 centre 900 0 500 pm 60 20 60 spreader note hook by the big beam");
    const Lift* l = liftNamed(t.b, "cab");
    REQUIRE(l);
    CHECK(l->mass_kg == 380);
    CHECK(l->mass_u95_kg == 20);
    CHECK(l->centre == Vec3{900, 0, 500});
    CHECK(l->centre_u95 == Vec3{60, 20, 60});
    CHECK(l->spreader);
    CHECK(l->step == "battery-out");
    t.type("leg cab fl 200 -500 900 long 1.8 m rated 1000 kg sound");
    REQUIRE(t.b.lift_points.size() == 1);
    CHECK(t.b.lift_points.begin()->second.length_mm == 1800);
    CHECK(t.b.lift_points.begin()->second.rated_kg == 1000);
    CHECK(t.b.lift_points.begin()->second.sound);
    t.type("leg cab fl rated 500 kg not-looked-at");
    CHECK(t.b.lift_points.size() == 1);
    CHECK(t.b.lift_points.begin()->second.rated_kg == 500);
    CHECK_FALSE(t.b.lift_points.begin()->second.sound);
    t.wrong("leg cab fr 200 500 900"); // a leg of slings needs its length
    t.wrong("leg roof fr 200 500 900 long 1800");
    t.wrong("leg cab fr");
    t.type("lift cab way stands weighs 400");
    CHECK(liftNamed(t.b, "cab")->mass_u95_kg == 0); // another mass, not weighed
    t.type("leg cab fr 200 500 0");
    CHECK(t.wrong("lift cab way slings").message.find("length") != std::string::npos);
    t.type("remove leg cab fr");
    t.type("rename lift cab shell");
    t.type("remove lift shell");
    CHECK(t.b.lift_points.empty());
}

TEST_CASE("what is agreed to stays, and nothing is deleted", "[entry][work]") {
    Typist t = atWork();
    t.type("decide floor asks patch it or a whole new floor for battery-out wanted 2026-03-12");
    const Decision* d = decisionNamed(t.b, "floor");
    REQUIRE(d);
    CHECK(d->asks == "patch it or a whole new floor");
    CHECK(d->step == "battery-out");
    t.type("choice floor patch what a patch of 1.2 sheet price 180 hours 4 days 3");
    t.type("choice floor none price -50");
    CHECK(t.b.choices.size() == 2);
    CHECK(t.b.choices.rbegin()->second.price == -50);
    CHECK(t.wrong("agreed floor whole by A. Owner").message.find("no choice whole") != std::string::npos);
    CHECK(t.wrong("agreed floor patch").message.find("Who agreed") != std::string::npos);
    t.type("agreed floor patch by A. Owner");
    d = decisionNamed(t.b, "floor");
    REQUIRE(d->agreed);
    CHECK(d->agreed->who == "A. Owner");
    CHECK(d->chosen == "patch");
    for (const char* line : {"agreed floor none by B.", "choice floor patch price 1", "decide floor asks something else"})
        t.wrong(line);
    t.type("strike floor");
    CHECK(decisionNamed(t.b, "floor")->struck->who == "M.");
    CHECK(t.b.decisions.size() == 1);
    t.wrong("strike floor");
    t.wrong("decide paint");
}

TEST_CASE("surfaces, their coats one after the other, and their jobs", "[entry][work][coats]") {
    Typist t = atWork();
    t.type("surface sill-in steel blast m2 1.4 area left sill seams 3 m within left sill at 14 note look behind the web");
    const Surface* s = surfaceNamed(t.b, "sill-in");
    REQUIRE(s);
    CHECK(s->size_m2 == 1.4);
    CHECK(s->seams_mm == 3000);
    CHECK(s->space == "left sill");
    CHECK(s->at_c == 14);
    CHECK(t.wrong("surface door skip").message.find("skipped is missing") != std::string::npos);
    t.type("surface door skip why sound factory coat");
    t.type("coat sill-in primer epoxy-primer of two pack grey coats 2 covers 7 brush dries 12 pot 240");
    t.type("coat sill-in wax cavity-wax");
    CHECK(t.wrong("coat sill-in top varnish").message.find("varnish") != std::string::npos);
    const auto coats = coatsOf(t.b, s->id);
    REQUIRE(coats.size() == 2);
    CHECK(coats[0].product == "two pack grey");
    CHECK(coats[0].by == ByHand::Brush);
    t.type("coat-jobs sill-in");
    REQUIRE(jobNamed(t.b, "sill-in-primer"));
    CHECK(jobNamed(t.b, "sill-in-bare")->kind == JobKind::Blast);
    CHECK(jobNamed(t.b, "sill-in-primer")->rest_h == 24);
    CHECK(jobNamed(t.b, "sill-in-primer")->inside == "left sill");
    CHECK(jobNamed(t.b, "sill-in-wax")->after == std::vector<std::string>{"sill-in-primer"});
    t.wrong("coat-jobs sill-in"); // they are there
    t.wrong("coat-jobs door");
    t.type("bared sill-in");
    CHECK(t.wrong("coated sill-in wax").message.find("goes on first") != std::string::npos);
    t.type("coated sill-in primer");
    t.wrong("coated sill-in primer");
    t.wrong("bared sill-in");
    t.type("coated sill-in wax");
    t.type("remove coat sill-in wax");
    t.type("rename surface sill-in sill");
    t.type("remove surface sill");
    CHECK(t.b.coats.empty());
}

TEST_CASE("a permit for hot work: who watches, the last spark, and an hour", "[entry][work]") {
    Typist t = atWork();
    CHECK(t.wrong("permit weld-rails").message.find("Who watches") != std::string::npos);
    t.type("permit weld-rails watch Kim");
    t.wrong("permit weld-rails watch Jo");
    CHECK(t.wrong("watched weld-rails").message.find("still hot") != std::string::npos);
    t.wrong("sparks-out battery-out");
    t.type("sparks-out weld-rails");
    t.context.now_utc = "2026-03-01T08:59:00Z";
    CHECK(t.wrong("watched weld-rails").message == "1 min of the hour is left.");
    t.context.now_utc = "2026-03-01T09:00:00Z";
    t.type("watched weld-rails");
    CHECK(t.b.permits.begin()->second.watched);
    t.type("permit weld-rails watch Jo"); // and again
    CHECK(t.b.permits.size() == 2);
}

TEST_CASE("steel on the shelf: what it is, and a piece off it", "[entry][work][stock]") {
    Typist t = atWork();
    t.type("stock b60 box 60 40 3 long 2000 count 2 price 38 grade S235 shelf left rack, below note galvanised inside");
    const Stock* s = stockNamed(t.b, "b60");
    REQUIRE(s);
    CHECK(s->form == StockForm::Box);
    CHECK(s->height_mm == 60);
    CHECK(s->width_mm == 40);
    CHECK(s->wall_mm == 3);
    CHECK(s->length_mm == 2000);
    CHECK(s->count == 2);
    CHECK(*s->price == 38);
    CHECK(s->at == "left rack, below");
    t.type("stock p6 plate 500 6 long 1 m");
    CHECK(stockNamed(t.b, "p6")->length_mm == 1000);
    CHECK(stockNamed(t.b, "p6")->wall_mm == 6);
    t.type("stock r12 bar 12 long 39 3/8 in");
    CHECK(stockNamed(t.b, "r12")->length_mm == Approx(1000.1).margin(0.2));
    t.type("stock b60 count 3");
    CHECK(stockNamed(t.b, "b60")->count == 3);
    CHECK(stockNamed(t.b, "b60")->grade == "S235");
    // a piece off: one length fewer, and an offcut that is short by the kerf
    t.type("cut-off b60 640 for the crossmember");
    CHECK(stockNamed(t.b, "b60")->count == 2);
    const Stock* off = stockNamed(t.b, "b60-off1");
    REQUIRE(off);
    CHECK(off->length_mm == Approx(2000 - 640 - t.b.stretch.kerf.value));
    CHECK(off->from == "b60");
    CHECK(off->note == "left over from the crossmember");
    CHECK_FALSE(off->price);
    t.type("cut-off b60-off1 300");
    CHECK(stockNamed(t.b, "b60-off2")->from == "b60"); // of an offcut, too, it is known what it came off
    // several at once, and of what can be had: one is bought, its rest comes to the shelf
    const double kerf = t.b.stretch.kerf.value;
    t.type("cut-off b60 640 + 310 + 12in for two braces");
    CHECK(stockNamed(t.b, "b60")->count == 1);
    CHECK(stockNamed(t.b, "b60-off3")->length_mm == Approx(2000 - 640 - 310 - 304.8 - 3 * kerf));
    t.type("stock mill-b60 box 60 40 3 long 6000 any price 41");
    t.type("cut-off mill-b60 4000 + 900");
    CHECK(stockNamed(t.b, "mill-b60")->any);
    CHECK(stockNamed(t.b, "mill-b60-off1")->length_mm == Approx(6000 - 4900 - 2 * kerf));
    CHECK(stockNamed(t.b, "mill-b60-off1")->count == 1);
    CHECK_FALSE(stockNamed(t.b, "mill-b60-off1")->any);
    CHECK(t.wrong("cut-off mill-b60 4000 + 1999.9").message.find("6000 mm long") != std::string::npos); // a kerf is between
    CHECK_FALSE(t.wrong("cut-off mill-b60 6000").message.empty());
    CHECK_FALSE(t.wrong("cut-off b60 300 +").message.empty());
    t.type("cut-off p6 1000");
    CHECK(t.echo.find("0 mm is scrap") != std::string::npos);
    CHECK(t.wrong("cut-off p6 100").message.find("none is left") != std::string::npos);
    CHECK(t.wrong("cut-off b60 2001").message.find("2000 mm long") != std::string::npos);
    CHECK(t.wrong("cut-off nothing-there 20").message.find("Nothing on the shelf") != std::string::npos);
    CHECK(t.wrong("stock x box 60 40 long 2000").message.find("a height, a width and a wall") != std::string::npos);
    CHECK(t.wrong("stock x box 60 40 3").message.find("How long") != std::string::npos);
    CHECK(t.wrong("stock x box 60 40 21 long 100").message.find("does not fit") != std::string::npos);
    CHECK(t.wrong("stock x").message.find("What it is") != std::string::npos);
    t.type("rename stock r12 rod");
    t.type("remove stock rod");
    CHECK(t.b.stock.size() == 7);
}

TEST_CASE("a change order says why, waits for its step, and stays as it was agreed", "[entry][work]") {
    Typist t = atWork();
    t.type("discovered sill-inner during battery-out does a new inner sill area left sill kind weld hours 4 9 16");
    CHECK(t.echo.find("found: job sill-inner") != std::string::npos);
    t.type("change-order sill asks a new inner sill on the left because sill-inner wanted 2026-12-12 price 420 hours 9 days 4");
    const Decision* d = decisionNamed(t.b, "sill");
    REQUIRE(d);
    CHECK(d->change);
    CHECK(d->because == "sill-inner");
    CHECK(d->step == "sill-inner"); // what was found waits for it
    REQUIRE(t.b.choices.size() == 2);
    CHECK(t.b.choices.begin()->second.price == 420);
    CHECK(t.wrong("change-order sill asks the same because it").message.find("there already") != std::string::npos);
    CHECK(t.wrong("change-order other because it rusts").message.find("What is asked") != std::string::npos);
    CHECK(t.wrong("change-order other asks more price 3").message.find("Why it changes") != std::string::npos);
    t.type("agreed sill yes by A. Owner");
    CHECK(t.wrong("choice sill yes price 3").message.find("stay as they were") != std::string::npos);
    t.type("rename job sill-inner inner-sill");
    CHECK(decisionNamed(t.b, "sill")->because == "inner-sill");
    CHECK(decisionNamed(t.b, "sill")->step == "inner-sill");
}

} // namespace entry_plan_entry_test
