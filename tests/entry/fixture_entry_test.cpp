#include "entry/typist.hpp"

namespace entry_fixture_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("a fixture and its towers by the line", "[entry][fixture]") {
    Typist t;
    t.frame();
    t.body();
    const auto refuse = [&](const char* line, const char* why) {
        INFO(line);
        CHECK(t.refused(line).find(why) != std::string::npos);
    };
    refuse("tower Al clamp", "no fixture yet");
    t.type("fixture table1 pitch 2in holes 60 30 hole 16 towers 150 50 800 packer 0.5 reach 25 foot 90");
    const Fixture* f = fixtureNamed(t.b, "table1");
    REQUIRE(f);
    CHECK(f->pitch.value == Approx(50.8));
    CHECK(f->along == 60);
    CHECK(f->across == 30);
    CHECK(f->tower_step.value == 50);
    CHECK(f->attitude == Attitude::RightWayUp);
    CHECK_FALSE(f->high);
    t.type("fixture table1 high 450 inverted");
    CHECK(fixtureNamed(t.b, "table1")->high->value == 450);
    CHECK(fixtureNamed(t.b, "table1")->attitude == Attitude::Inverted);
    t.type("fixture table1 high free right-way-up");
    CHECK_FALSE(fixtureNamed(t.b, "table1")->high);
    t.type("tower Al clamp");
    t.type("tower Ar on table1 below 40");
    t.type("tower Bl pull by 0 -2 3");
    REQUIRE(t.b.fixture_towers.size() == 3);
    const auto tower = [&](const char* name) -> const FixtureTower& {
        for (const auto& [id, row] : t.b.fixture_towers)
            if (nameOf(t.b, row.point) == name) return row;
        FAIL(name);
        std::abort();
    };
    CHECK(tower("Al").does == TowerDoes::Clamp);
    CHECK(tower("Ar").below->value == 40);
    CHECK(tower("Bl").pull == Vec3{0, -2, 3});
    t.type("tower Bl rest"); // it is drawn no more
    CHECK(tower("Bl").pull == Vec3{});
    CHECK(t.b.fixture_towers.size() == 3);
    refuse("tower Nowhere clamp", "Nowhere");
    refuse("tower G pull", "how much it is drawn");
    refuse("tower Al on shelf clamp", "no fixture shelf");
    refuse("tower Hl clamp", "one fixture holds one of them"); // of the body
    refuse("tower Bl pull by 0 0 900", "another frame");
    refuse("fixture table2", "What is said of it is missing");
    refuse("fixture table2 pitch 10 hole 16", "run into each other");
    refuse("fixture table2 towers 600 50 200", "shorter than its shortest");
    refuse("fixture table2 holes 60.5 30", "counted whole");
    refuse("fixture table2 wide 900", "not known here");
    t.type("remove tower Bl");
    CHECK(t.b.fixture_towers.size() == 2);
    refuse("remove tower Bl", "no tower at Bl");
    t.type("remove tower Al");
    t.type("remove tower Ar");
    t.type("remove fixture table1");
    CHECK(t.b.fixtures.empty());
}

TEST_CASE("what steel is joined to, by the line", "[entry][part]") {
    Typist t;
    t.frame();
    t.type("frame-metal galvanised");
    CHECK(t.b.frame_facts.metal == BaseMetal::Galvanised);
    t.type("frame-metal unsaid");
    CHECK_FALSE(t.b.frame_facts.metal);
    CHECK(t.refused("frame-metal wood").find("not known here") != std::string::npos);
    t.type("part b1 brace at Al Ar across 42 wall 3");
    t.type("part b1 upon cast thick 8 coated");
    const auto b1 = [&]() -> const SteelPart& { return *steelPartNamed(t.b, "b1"); };
    CHECK(b1().onto == BaseMetal::Cast);
    CHECK(b1().onto_thick->value == 8);
    CHECK(b1().onto_coated);
    t.type("part b1 bare upon unsaid");
    CHECK_FALSE(b1().onto);
    CHECK_FALSE(b1().onto_coated);
    // of a kind that has a figure of that name it is that figure
    t.type("part m1 bought-mount at Al Ar hole 11 thick 6 along-2 180 upon mild");
    CHECK(steelPartNamed(t.b, "m1")->figures.size() == 3);
    CHECK_FALSE(steelPartNamed(t.b, "m1")->onto_thick);
}

} // namespace entry_fixture_entry_test
