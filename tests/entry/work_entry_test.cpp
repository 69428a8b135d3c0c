#include "entry/typist.hpp"

#include "build/job_lists.hpp"

namespace entry_work_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("the order of work by the line", "[entry][work]") {
    Typist t;
    t.frame();
    t.type("point Dr rail 1500 420 300");
    CHECK(t.wrong("done").message == "The order of work is not known here.");
    t.work();
    t.type("done by M. K. note earth first");
    const Tick* tick = tickOf(t.b, "battery-out");
    REQUIRE(tick);
    CHECK(tick->who == "M. K.");
    CHECK(tick->note == "earth first");
    CHECK(tick->at_utc == "2026-03-01T08:00:00Z");
    CHECK(t.wrong("done battery-out").message == "\"Take the battery out\" is already done.");
    t.type("done battery-out note terminals taped"); // a note can be added
    CHECK(tickOf(t.b, "battery-out")->note == "terminals taped");
    // no word of a note, in quotes or not, signs the step for another or hangs a photo on it
    for (const char* note :
         {"looked at by Somebody Else", "\"by\" Somebody Else", "he said \"by Somebody\" photo 12", "\" by X"}) {
        t.type(std::string("done battery-out note ") + note);
        CHECK(tickOf(t.b, "battery-out")->who == "M. K.");
        CHECK(tickOf(t.b, "battery-out")->note == note);
        CHECK(tickOf(t.b, "battery-out")->photo.empty());
    }
    CHECK(t.b.ticks.size() == 1);
    CHECK(t.wrong("done weld-rails").message == "\"Weld\" can't be ticked yet: first: Tape the diagonals.");
    CHECK(t.wrong("done nonsense").message == "This build has no step nonsense.");
    CHECK(t.wrong("done battery-out photo abc").message.find("64 signs") != std::string::npos);
    t.type("check Dr Bl 2154 1/2");
    REQUIRE(t.b.checks.size() == 1);
    CHECK(t.b.checks.begin()->second.step == "before-welding");
    CHECK(t.b.checks.begin()->second.value.value == 2154.5);
    CHECK(t.wrong("check Al Br 2154").message == "\"Tape the diagonals\" does not ask for Al–Br.");
    CHECK(t.wrong("check Bl Dr 2154?").message == "A check must be read, not assumed.");
    CHECK(t.wrong("check gap door-left 4").message == "There is no brace door-left.");
    t.type("brace door-left for left door opening blocks the left seat until bolt-body gap 4 1/2 tol 1");
    const TemporarySteel steel = t.b.temporary_steel.begin()->second;
    CHECK(steel.purpose == "left door opening");
    CHECK(steel.blocks == "the left seat");
    CHECK(steel.out_after == "bolt-body");
    CHECK(steel.gap->value == 4.5);
    CHECK(steel.gap_tolerance_mm == 1);
    t.type("brace door-left gap 5"); // the rest stays
    CHECK(t.b.temporary_steel.size() == 1);
    CHECK(t.b.temporary_steel.begin()->second.blocks == "the left seat");
    t.type("remove brace door-left");
    CHECK(t.b.temporary_steel.empty());
    t.type("present fuel-tank");
    t.type("absent restraints");
    CHECK(t.b.work.fuel_tank == Presence::Present);
    CHECK(t.b.work.restraints == Presence::Absent);
    CHECK(t.wrong("present elephant").remedy.find("fuel-tank, battery") != std::string::npos);
    t.type("standing body-off fixture-table inverted");
    CHECK(t.b.work.attitude == Attitude::Inverted);
    CHECK(t.wrong("standing body-on").message == "A frame can't lie upside down with the body on.");
    t.type("undone battery-out");
    CHECK(t.b.ticks.empty());
    CHECK(t.wrong("undone battery-out").message == "battery-out is not ticked.");
}

TEST_CASE("a pair typed plainly while the hold point asks for it is its check, not a reading of the survey", "[entry][work]") {
    Typist t;
    t.frame();
    t.type("point Dr rail 3000 420 300");
    t.work();
    const size_t readings = t.b.readings.size();
    t.type("Bl Dr 2154"); // the battery is next: a reading
    CHECK(t.b.readings.size() == readings + 1);
    CHECK(t.b.checks.empty());
    t.context.next_step = "before-welding";
    t.context.steps[1].checks.push_back(
        {pointNamed(t.b, the_chassis, "Al")->id, pointNamed(t.b, the_chassis, "Ar")->id, {}, ReadingKind::Level});
    t.type("Dr Bl 2150"); // either way round
    CHECK(t.b.readings.size() == readings + 1);
    REQUIRE(t.b.checks.size() == 1);
    CHECK(t.b.checks.begin()->second.step == "before-welding");
    CHECK(t.b.checks.begin()->second.kind == ReadingKind::Tape);
    CHECK(t.echo.find("checked Dr–Bl") == 0);
    t.type("level Al Ar -3");
    REQUIRE(t.b.checks.size() == 2);
    CHECK(t.b.checks.rbegin()->second.kind == ReadingKind::Level);
    CHECK(t.b.checks.rbegin()->second.value.value == -3);
    t.type("check level Ar Al 3");
    CHECK(t.b.checks.size() == 3);
    t.type("Al Br 2100"); // not asked for
    CHECK(t.b.readings.size() == readings + 2);
    t.type("retape Bl Dr 2153"); // said to be the survey's
    CHECK(t.b.checks.size() == 3);
    CHECK(t.wrong("check level Bl Dr 3").message.find("does not ask for level") != std::string::npos);
}

TEST_CASE("jobs of one's own by the line: added, changed, split, renamed, taken away", "[entry][work][jobs]") {
    Typist t;
    t.frame();
    t.type("point Dr rail 2900 420 300");
    t.work();
    t.type(
        "job floor-left does weld the floor patch area left footwell kind weld hours 2 3 6 people 2 body-off after battery-out "
        "closes \"inside of the sill\" wanted 2026-12-24 note mind the loom");
    const Job* j = jobNamed(t.b, "floor-left");
    REQUIRE(j);
    CHECK(j->title == "weld the floor patch");
    CHECK(j->area == "left footwell");
    CHECK(j->kind == JobKind::Weld);
    CHECK(j->least_h == 2);
    CHECK(j->most_h == 6);
    CHECK(j->people == 2);
    CHECK(j->body == BodyPlace::Off);
    CHECK(j->after == std::vector<std::string>{"battery-out"});
    CHECK(j->closes == "inside of the sill");
    CHECK(j->wanted == "2026-12-24");
    CHECK(j->note == "mind the loom");
    t.type("job floor-left hours 4 body-either after nothing");
    j = jobNamed(t.b, "floor-left");
    CHECK(j->likely_h == 4);
    CHECK(j->least_h == 0);
    CHECK_FALSE(j->body);
    CHECK(j->after.empty());
    CHECK(j->area == "left footwell"); // what was not said stays
    t.type("job paint after floor-left before bolt-body");
    CHECK(t.b.jobs.size() == 2);
    t.type("split floor-left floor-left-2");
    CHECK(jobNamed(t.b, "floor-left")->likely_h == 2);
    CHECK(jobNamed(t.b, "floor-left-2")->after == std::vector<std::string>{"floor-left"});
    CHECK(jobNamed(t.b, "floor-left")->closes.empty());
    CHECK(jobNamed(t.b, "floor-left-2")->closes == "inside of the sill");
    CHECK(jobNamed(t.b, "paint")->after == std::vector<std::string>{"floor-left-2"});
    t.type("repeat paint paint-again");
    CHECK(jobNamed(t.b, "paint-again")->after == std::vector<std::string>{"paint"});
    CHECK(t.wrong("repeat paint paint-again").message.find("already") != std::string::npos);
    t.type("remove job paint-again");
    t.type("rename job floor-left-2 floor-right");
    CHECK(jobNamed(t.b, "paint")->after == std::vector<std::string>{"floor-right"});
    t.type("await seals for floor-right from the seal maker days 10 20 45 cost 80");
    t.type("await seals for floor-right ordered 2026-11-02");
    CHECK(t.b.awaited.begin()->second.supplier == "the seal maker");
    CHECK(t.b.awaited.begin()->second.ordered == "2026-11-02");
    t.type("remove job floor-right"); // with what is awaited for it
    CHECK(t.b.awaited.empty());
    CHECK(jobNamed(t.b, "paint")->after.empty());
    // what is wrong says where, and changes nothing
    CHECK(t.wrong("job battery-out").message == "battery-out is a step of the plan already.");
    CHECK(t.wrong("job x hours 3 2 1").message.find("least") != std::string::npos);
    CHECK(t.wrong("job x hours 1 2").column == 12);
    CHECK(t.wrong("job x wanted 2026-13-01").column == 13);
    CHECK(t.wrong("job x after x").message == "A job can't wait for itself.");
    CHECK(t.wrong("job x body-on way inverted").message.find("body on") != std::string::npos);
    CHECK(t.wrong("split nobody two").remedy.find("plan") != std::string::npos);
    CHECK(t.wrong("await seals").message.find("step that waits") != std::string::npos);
    CHECK(t.wrong("jobs all").remedy.find("cab-off") != std::string::npos);
}

TEST_CASE("a step that did not come off is to be done again, and what was tried stays", "[entry][work][jobs]") {
    Typist t;
    t.frame();
    t.type("point Dr rail 2900 420 300");
    t.work();
    t.type("done battery-out");
    t.type("failed battery-out the clamp broke");
    CHECK(t.b.ticks.empty());
    REQUIRE(t.b.attempts.size() == 1);
    CHECK(t.b.attempts.begin()->second.why == "the clamp broke");
    CHECK(t.b.attempts.begin()->second.who == "M.");
    CHECK(t.wrong("failed weld-rails").message.find("can't have been done") != std::string::npos);
}

TEST_CASE("the register by the line: undone, seen free on another walk-round, on again, tightened", "[entry][work][register]") {
    Typist t;
    t.frame();
    t.type("point Dr rail 2900 420 300");
    t.work();
    t.type(
        "tag earth-left cable area engine bay left joins engine to bulkhead how \"unbolt at the body\" torque 20 seized on-wheels");
    t.type("tag earth-right cable"); // in the area of the one before
    const Release* r = releaseNamed(t.b, "earth-right");
    REQUIRE(r);
    CHECK(r->area == "engine bay left");
    CHECK(r->kind == ReleaseKind::Cable);
    CHECK(releaseNamed(t.b, "earth-left")->torque_nm == 20);
    CHECK(t.wrong("proved earth-left").message.find("not undone") != std::string::npos);
    t.type("soaked earth-left");
    t.type("untied area engine bay left");
    CHECK(releaseNamed(t.b, "earth-right")->released->who == "M.");
    CHECK(t.wrong("proved earth-left").remedy.find("walk-round") != std::string::npos); // in the same breath
    t.context.now_utc = "2026-03-01T08:00:59Z";
    CHECK(t.wrong("proved earth-left").remedy.find("walk-round") != std::string::npos);
    t.context.now_utc = "2026-03-01T08:01:00Z";
    t.type("proved earth-left");
    t.context.who = "K."; // or by another
    t.context.now_utc = "2026-03-01T08:00:00Z";
    t.type("proved earth-right");
    CHECK(t.wrong("torqued earth-left").message.find("not on again") != std::string::npos);
    t.type("tag earth-right fate scrap");
    CHECK(t.wrong("refit earth-right").message == "earth-right is scrapped.");
    t.type("refit earth-left");
    t.type("torqued earth-left");
    CHECK(t.wrong("torqued nothing").column == 8);
    t.type("tied earth-left");
    CHECK_FALSE(releaseNamed(t.b, "earth-left")->proved);
    t.type("rename tag earth-right strap");
    t.type("remove tag strap");
    CHECK(t.b.releases.size() == 1);
}

TEST_CASE("ready-made lists fill in what the build knows, once", "[entry][work][jobs]") {
    for (const JobList& list : jobLists()) {
        Typist t;
        t.frame();
        INFO(list.key);
        t.type(std::string("jobs ") + list.key);
        const auto jobs = t.b.jobs.size(), rows = t.b.releases.size();
        CHECK(jobs > 6);
        CHECK(t.wrong(std::string("jobs ") + list.key).message.find("there already") != std::string::npos);
        // what the car has not is left out
        Typist bare;
        bare.frame();
        for (const char* line :
             {"absent fuel-tank", "absent refrigerant", "crossing prop-shaft none", "crossing park-brake-cable none",
              "crossing exhaust none", "crossing brake-line none", "frame monocoque"})
            bare.type(line);
        bare.type(std::string("jobs ") + list.key);
        CHECK(bare.b.jobs.size() <= jobs);
        CHECK(bare.b.releases.size() <= rows);
        for (const auto& [id, j] : bare.b.jobs) CHECK(j.body != BodyPlace::Off); // a body that is its own frame stays on
        CHECK_FALSE(releaseNamed(bare.b, "filler-neck"));
        CHECK_FALSE(jobNamed(bare.b, "shaft-out"));
        // and every name that a job waits for is a job of the list or a step of some plan
        for (const auto& [id, j] : t.b.jobs)
            for (const std::string& code : j.after) {
                INFO(j.name << " after " << code);
                CHECK((jobNamed(t.b, code) || code == "record"));
            }
    }
}

} // namespace entry_work_entry_test
