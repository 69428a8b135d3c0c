#include "entry/typist.hpp"

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
