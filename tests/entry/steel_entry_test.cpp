#include "entry/typist.hpp"

namespace entry_steel_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("pins, stretch and make by the line", "[entry]") {
    Typist t;
    t.frame();
    t.body();
    t.type("tyre front 340");
    t.type("axle rear 13 1/2\" ?");
    CHECK(t.b.axles.front->provenance == Provenance::Measured);
    CHECK(t.b.axles.rear->provenance == Provenance::Assumed);
    CHECK(t.b.axles.rear->value == Approx(13.5 * 25.4));
    t.type("hinge 560 tol 1");
    t.type("hinge 562 tol 2"); // the same pin, changed
    REQUIRE(t.b.pins.size() == 1);
    CHECK(t.b.pins.begin()->second.target.value == 562);
    CHECK(t.b.pins.begin()->second.points.size() == 2);
    t.type("centred");
    CHECK(t.b.pins.size() == 4); // hinge pillars, rear sills, rear arches
    t.type("sill rear 291 tol 3");
    t.type("arch rear");
    t.type("pin rake Hl Hr Sl Sr 0.5° tol 0.2°");
    CHECK(t.b.pins.rbegin()->second.kind == PinKind::Rake);
    CHECK(t.b.pins.rbegin()->second.tolerance == Approx(units::radians(0.2)));
    t.type("remove pin rake");
    CHECK(t.b.pins.size() == 6);
    t.type("rail 100 x 60 x 4 box top");
    CHECK(t.b.rail.width.value == 60);
    t.type("cut 1250");
    t.type("change -75");
    CHECK(t.b.stretch.wheelbase_change->value == -75);
    t.type("change free");
    CHECK_FALSE(t.b.stretch.wheelbase_change);
    t.type("kerf 1.2");
    t.type("overlap 2.5");
    CHECK(t.b.stretch.sleeve_overlap_heights.value == 2.5);
    t.type("mount all");
    CHECK(t.b.mounts.size() == 2);
    t.type("mount Ml at 310");
    CHECK(t.b.mounts.size() == 2);
    CHECK(t.b.mounts.begin()->second.rail_station->value == 310);
    t.type("biscuit 25 squash 20%");
    CHECK(t.b.mount_design.biscuit_squash.value == Approx(0.2));
    CHECK(t.b.mount_design.biscuit_free.provenance == Provenance::Measured);
    t.type("grip through");
    t.type("mount-bolt 12");
    t.type("crossmember");
    REQUIRE(t.b.crossmember);
    t.type("box 60 x 50 x 3");
    t.type("isolator 38");
    t.type("pad-holes 80 11");
    CHECK(t.b.crossmember->box_height.value == 50);
    CHECK(t.b.crossmember->isolator.provenance == Provenance::Measured);
    t.type("remove mount Ml");
    t.type("remove crossmember");
    CHECK_FALSE(t.b.crossmember);
    t.type("name Petrel on Tern");
    CHECK(t.b.settings.name == "Petrel on Tern");
    t.type("name body Aldermoor Petrel");
    t.type("frame perimeter");
    t.type("show inch 1/32");
    t.type("cut 49 1/4"); // a bare number is in inches now
    CHECK(t.b.stretch.cut_station->value == Approx(49.25 * 25.4));
}

TEST_CASE("joint, crossings and the crossmember's form by the line", "[entry]") {
    Typist t;
    t.frame();
    t.type("sleeve-wall 5");
    t.type("plug 14");
    t.type("fish-plate 3/16\"");
    CHECK(t.b.stretch.sleeve_wall->value == 5);
    CHECK(t.b.stretch.plug_hole->value == 14);
    CHECK(t.b.stretch.fish_plate->value == Approx(4.7625));
    t.type("plug free");
    CHECK_FALSE(t.b.stretch.plug_hole);
    t.type("butt counts");
    CHECK(t.b.stretch.butt_counts);
    t.type("butt not");
    CHECK_FALSE(t.b.stretch.butt_counts);
    CHECK(t.wrong("butt").remedy.find("licensed") != std::string::npos);
    t.type("crossing brake-line slack 30 from 400 to 2600 note left rail");
    const Crossing* line = crossingOf(t.b, CrossingKind::BrakeLine);
    REQUIRE(line);
    CHECK(line->slack->value == 30);
    CHECK(line->ends->value == 2600);
    CHECK(line->note == "left rail");
    t.type("crossing brake-line slack 45");
    CHECK(t.b.crossings.size() == 1);
    CHECK(crossingOf(t.b, CrossingKind::BrakeLine)->starts->value == 400);
    t.type("crossing exhaust none");
    CHECK(crossingOf(t.b, CrossingKind::Exhaust)->presence == Presence::Absent);
    CHECK_FALSE(t.wrong("crossing brake-line from 3000").message.empty()); // would end ahead of where it starts
    CHECK(t.wrong("crossing rope").remedy.find("prop-shaft") != std::string::npos);
    CHECK(t.wrong("crossmember form dropped").message == "There is no crossmember yet.");
    t.type("crossmember");
    t.type("crossmember form dropped");
    t.type("crossmember fixing captive");
    t.type("pan-clearance 15");
    CHECK(t.b.crossmember->form == CrossmemberForm::Dropped);
    CHECK(t.b.crossmember->fixing == Fixing::Captive);
    CHECK(t.b.crossmember->pan_clearance.value == 15);
}

TEST_CASE("parts of new steel by the line: kinds, figures in any unit, pinned, as made", "[entry][part]") {
    Typist t;
    t.frame();
    t.body();
    const auto refuse = [&](const char* line, const char* why) {
        INFO(line);
        CHECK(t.refused(line).find(why) != std::string::npos);
    };
    t.type("part o1 outrigger at Al Ar deep 80 wide 2in load 2500");
    const SteelPart* p = steelPartNamed(t.b, "o1");
    REQUIRE(p);
    CHECK(p->kind == "outrigger");
    REQUIRE(p->figures.size() == 3);
    CHECK(p->figures[1].value.value == Approx(50.8));
    CHECK(p->figures[1].value.provenance == Provenance::Measured);
    t.type("part o1 deep 90 ?"); // its kind need not be said again
    p = steelPartNamed(t.b, "o1");
    CHECK(p->figures[0].value.value == 90);
    CHECK(p->figures[0].value.provenance == Provenance::Assumed);
    t.type("part o1 pinned 1000 480 500 1000 700 510");
    REQUIRE(steelPartNamed(t.b, "o1")->pinned.size() == 2);
    CHECK(steelPartNamed(t.b, "o1")->pinned[1] == Vec3{1000, 700, 510});
    t.type("part o1 follows");
    CHECK(steelPartNamed(t.b, "o1")->pinned.empty());
    t.type("part o1 made deep 88.5 made long 231");
    CHECK(steelPartNamed(t.b, "o1")->made.size() == 2);
    t.type("part plate-1 drilled-plate at Al Ar Bl hole 11");
    t.type("part brace-1 brace at Al Sl across 42 wall 3"); // from the frame to the body
    // what is said of another kind is forgotten with it
    t.type("part o1 brace at Al Ar across 40");
    CHECK(steelPartNamed(t.b, "o1")->figures.size() == 1);
    refuse("part o2 wing at Al Ar", "is no kind of part");
    refuse("part o2 wing at Al Ar", "outrigger");
    refuse("part o2 brace", "Where it goes is missing");
    refuse("part o2 brace at Al", "where it meets the other");
    refuse("part o2 brace at Al Ar Bl", "has 2 places");
    refuse("part o2 brace at Al Al across 40", "joins a point twice");
    refuse("part o2 brace at Al Ar across 4", "It is 8 to 300");
    refuse("part o2 brace at Al Ar hole 12", "is not known here");
    refuse("part o1 made hole 12", "is no figure of a brace");
    refuse("part o1 made load 12", "is asked of a brace");
    refuse("part nothing across 40", "is no kind of part");
    refuse("part o2 brace at Al Nowhere", "Nowhere");
    t.type("remove part o1");
    CHECK_FALSE(steelPartNamed(t.b, "o1"));
    refuse("remove part o1", "o1");
    // a kind of a newer program is kept, and not touched
    SteelPart newer = *steelPartNamed(t.b, "brace-1");
    newer.kind = "hull";
    REQUIRE(enact(t.b, Edit{"newer", {Put<SteelPart>{newer}}}));
    refuse("part brace-1 across 40", "is not known here");
}

TEST_CASE("steel that can be had is no steel on the shelf", "[entry]") {
    Typist t;
    t.type("stock mill box 60 40 3 long 6000 any price 41");
    CHECK(stockNamed(t.b, "mill")->any);
    CHECK(stockNamed(t.b, "mill")->count == 0);
    t.type("stock mill count 2");
    CHECK_FALSE(stockNamed(t.b, "mill")->any);
    CHECK(stockNamed(t.b, "mill")->count == 2);
}

} // namespace entry_steel_entry_test
