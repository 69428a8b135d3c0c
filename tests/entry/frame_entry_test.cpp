// Members, loads, cases and what crosses, by the line.
#include "entry/typist.hpp"

namespace entry_frame_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("members of every form, as they are measured", "[entry][frame]") {
    Typist t;
    t.frame();
    t.type("member front crossmember at 300 box 60 40 3? below 10 riveted note under the radiator");
    const Member* m = memberNamed(t.b, "front");
    REQUIRE(m);
    CHECK(m->kind == MemberKind::Crossmember);
    CHECK(m->form == SectionForm::Box);
    CHECK(m->height.value == 60);
    CHECK(m->width.value == 40);
    CHECK(m->wall.value == 3);
    CHECK(m->wall.provenance == Provenance::Assumed);
    CHECK(m->height.provenance == Provenance::Measured);
    CHECK(m->below.value == 10);
    CHECK(m->joint == Joint::Riveted);
    CHECK(m->note == "under the radiator");
    t.type("member front planned yield 355");
    m = memberNamed(t.b, "front");
    CHECK(m->state == MemberState::Planned);
    CHECK(m->yield_MPa->value == 355);
    CHECK(m->height.value == 60); // the rest stays
    t.type("member x1 leg through Al Br tube 48 3");
    CHECK(memberNamed(t.b, "x1")->points.size() == 2);
    CHECK(memberNamed(t.b, "x1")->width.value == 0);
    t.type("member hat crossmember at 2 ft hat 60 80 20 2 turned 180°");
    m = memberNamed(t.b, "hat");
    CHECK(m->station->value == Approx(609.6));
    CHECK(m->other->value == 20);
    CHECK(m->wall.value == 2);
    CHECK(m->turned_rad == Approx(3.14159265).epsilon(1e-6));
    t.type("member deep rail from 900 to 1700 nested 120 60 4 40 side left");
    m = memberNamed(t.b, "deep");
    CHECK(m->side == RailSide::Left);
    CHECK(m->other->value == 40);
    t.type("member shut plate from 900 to 1400 3 planned");
    m = memberNamed(t.b, "shut");
    CHECK(m->wall.value == 3);
    CHECK(m->until->value == 1400);
    t.type("member cell crossmember at 1200 built-up 0 0 80 0 3 80 0 80 50 3 80 50 0 50 3 0 50 0 0 3");
    CHECK(memberNamed(t.b, "cell")->walls_mm.size() == 20);
    t.type("member keel spine from 200 to 1900 box 180 140 1.6 radius 10");
    CHECK(memberNamed(t.b, "keel")->radius->value == 10);
    t.type("rename member keel back");
    CHECK(memberNamed(t.b, "back"));
    t.type("remove member back");
    CHECK_FALSE(memberNamed(t.b, "back"));
}

TEST_CASE("a member that can't be is refused, with what belongs there", "[entry][frame]") {
    Typist t;
    t.frame();
    CHECK(t.refused("member front").find("What it is") != std::string::npos);
    CHECK(t.refused("member front crossmember at 300 box 60 40").find("3 figures") != std::string::npos);
    CHECK(t.refused("member front crossmember at 300 hat 60 40 3").find("flange") != std::string::npos);
    CHECK(t.refused("member front crossmember at 300 box 60 40 25").find("does not fit") != std::string::npos);
    CHECK(t.refused("member front crossmember box 60 40 3").find("Where it is") != std::string::npos);
    CHECK(t.refused("member front crossmember at 300").find("sizes") != std::string::npos);
    CHECK(t.refused("member x leg through Al tube 48 3").find("two points") != std::string::npos);
    CHECK(t.refused("member shut plate 3").find("runs along") != std::string::npos);
    CHECK(t.refused("member shut plate from 900 to 400 3").find("behind") != std::string::npos);
    CHECK(t.refused("member cell crossmember at 300 built-up 0 0 80 0").find("wall by wall") != std::string::npos);
    CHECK(t.refused("member front crossmember at 300 box 60 40 3 sideways").find("sideways") != std::string::npos);
    CHECK(t.b.members.empty());
}

TEST_CASE("plates with windows, and ribs", "[entry][frame]") {
    Typist t;
    t.frame();
    t.type("member shut plate from 400 to 900 3 windows 60 50 pitch 100 planned");
    const Member* m = memberNamed(t.b, "shut");
    REQUIRE(m);
    CHECK(m->window_long->value == 60);
    CHECK(m->window_high->value == 50);
    CHECK(m->pitch->value == 100);
    CHECK(m->state == MemberState::Planned);
    t.type("member shut whole");
    CHECK_FALSE(memberNamed(t.b, "shut")->window_long);
    CHECK_FALSE(memberNamed(t.b, "shut")->pitch);
    t.type("member ribs rib from 400 to 1600 4 pitch 300");
    CHECK(memberNamed(t.b, "ribs")->form == SectionForm::Flat);
    CHECK(memberNamed(t.b, "ribs")->wall.value == 4);
    t.type("member ribs box 30 30 2");
    CHECK(memberNamed(t.b, "ribs")->form == SectionForm::Box);
    CHECK(memberNamed(t.b, "ribs")->pitch->value == 300);
    t.type("member ribs 5");
    CHECK(memberNamed(t.b, "ribs")->form == SectionForm::Flat);
    t.type("twist-wanted 4000");
    CHECK(t.b.frame_facts.twist_wanted->value == 4000);
    t.type("twist-wanted none");
    CHECK_FALSE(t.b.frame_facts.twist_wanted);
    const std::size_t before = t.b.members.size();
    CHECK(t.refused("member bad plate from 400 to 900 3 windows 60 50").find("pitch") != std::string::npos);
    CHECK(t.refused("member bad plate from 400 to 900 3 windows 95 50 pitch 100").find("no post") != std::string::npos);
    CHECK(t.refused("member bad rib from 400 to 900 4").find("How far") != std::string::npos);
    CHECK(t.refused("member bad rib from 400 to 900 pitch 100").find("thick") != std::string::npos);
    CHECK(t.refused("member bad rib from 400 to 900 hat 60 80 20 2 pitch 100").find("upright") != std::string::npos);
    CHECK(t.refused("member bad rib at 400 box 30 30 2 pitch 100").find("from one station") != std::string::npos);
    CHECK(t.refused("member bad crossmember at 300 box 60 40 3 windows 60 50 pitch 100").find("Only a plate") !=
          std::string::npos);
    CHECK(t.refused("member bad crossmember at 300 box 60 40 3 pitch 100").find("pitch") != std::string::npos);
    CHECK(t.refused("member bad rib from 0 to 5000 4 pitch 20").find("more than") != std::string::npos);
    CHECK(t.b.members.size() == before);
}

TEST_CASE("loads, cases and what is taken as usual", "[entry][frame]") {
    Typist t;
    t.type("load engine 400 lb at -50 10 350 over 400 source the scales at the mill");
    const Carried* c = carriedNamed(t.b, "engine");
    REQUIRE(c);
    CHECK(c->mass.value == Approx(181.4369));
    CHECK(c->at == Vec3{-50, 10, 350});
    CHECK(c->over.value == 400);
    CHECK(c->source == "the scales at the mill");
    t.type("load engine stays");
    CHECK_FALSE(carriedNamed(t.b, "engine")->moves);
    CHECK(t.refused("load seats at 1200 0 400").find("weighs") != std::string::npos);
    CHECK(t.refused("load seats 40 kg").find("Where its middle") != std::string::npos);
    t.type("case pothole up 4 braking 0.5 lifted rear-left");
    const LoadCase* l = loadCaseNamed(t.b, "pothole");
    REQUIRE(l);
    CHECK(l->up_g == 4);
    CHECK(l->braking_g == 0.5);
    CHECK(l->lifted == Lifted::RearLeft);
    t.type("case bump off");
    CHECK(loadCaseNamed(t.b, "bump")->left_out);
    t.type("case braking up 1.2"); // what is not said of a usual one stays
    CHECK(loadCaseNamed(t.b, "braking")->braking_g == 1);
    CHECK(loadCaseNamed(t.b, "braking")->up_g == 1.2);
    CHECK(t.refused("case nothing up 0").find("asks nothing") != std::string::npos);
    CHECK(t.refused("case nothing").find("missing") != std::string::npos);
    t.type("remove case pothole");
    CHECK_FALSE(loadCaseNamed(t.b, "pothole"));
    t.type("yield 235");
    CHECK(t.b.frame_facts.yield_MPa.value == 235);
    CHECK(t.b.frame_facts.yield_MPa.provenance == Provenance::Measured);
    t.type("wheel-rate front 28 ?");
    CHECK(t.b.frame_facts.front_rate.value == 28);
    CHECK(t.b.frame_facts.front_rate.provenance == Provenance::Assumed);
    t.type("body-twist 4000");
    t.type("body-twist none");
    CHECK_FALSE(t.b.frame_facts.body_twist);
    CHECK(t.refused("yield 20").find("100") != std::string::npos);
}

TEST_CASE("several lines of a kind have names of their own", "[entry][stretch]") {
    Typist t;
    t.type("crossing brake-line slack 30 from 400 to 2600");
    t.type(
        "crossing brake-line left slack 15 clips 9 fittings flared both ends answer new-length long 2610 hours 1.5 price 24 out note new");
    CHECK(t.b.crossings.size() == 2);
    const Crossing* c = crossingOf(t.b, CrossingKind::BrakeLine, "left");
    REQUIRE(c);
    CHECK(c->slack->value == 15);
    CHECK(c->clips == 9);
    CHECK(c->fittings == "flared both ends");
    CHECK(c->answer == RunAnswer::NewLength);
    CHECK(c->new_length->value == 2610);
    CHECK(c->hours == 1.5);
    CHECK(c->out_before_heat);
    CHECK(c->note == "new");
    CHECK(crossingOf(t.b, CrossingKind::BrakeLine, "")->slack->value == 30);
    t.type("crossing brake-line left stays");
    CHECK_FALSE(crossingOf(t.b, CrossingKind::BrakeLine, "left")->out_before_heat);
    t.type("remove crossing brake-line left");
    CHECK(t.b.crossings.size() == 1);
    CHECK(t.refused("remove crossing brake-line left").find("Nothing is said") != std::string::npos);
    CHECK(t.refused("crossing loom \"two words\"").find("one word") != std::string::npos);
}

} // namespace entry_frame_entry_test
