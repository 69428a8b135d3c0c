#include "entry/typist.hpp"

namespace entry_sit_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("pins between features, bounds and what they are worth", "[entry][sit]") {
    Typist t;
    for (const char* line :
         {"point A rail 0 0 0", "point B rail 1000 0 0", "point C rail 1000 100 0", "blocked booster 0 100 0 100 0 100",
          "subject body", "point F floor 500 0 0", "point A 600 0 0", "point R roof 600 0 900", "subject chassis"})
        t.type(line);
    t.type("pin up chassis:A B to F 40 tol 1 must");
    const Pin up = t.b.pins.begin()->second;
    CHECK(up.kind == PinKind::Up);
    CHECK(up.points.size() == 2);
    CHECK(t.b.points.at(up.points[0]).subject == the_chassis); // said
    CHECK(t.b.points.at(up.points[1]).subject == the_chassis); // only there
    CHECK(nameOf(t.b, up.to.at(0)) == "F");
    CHECK(up.target.value == 40);
    CHECK(up.tolerance == 1);
    CHECK(up.importance == Importance::Must);
    t.type("pin up chassis:A B to F least 45 like"); // the same features: changed, not added
    REQUIRE(t.b.pins.size() == 1);
    CHECK(t.b.pins.begin()->second.bound == Bound::AtLeast);
    CHECK(t.b.pins.begin()->second.importance == Importance::Like);
    t.type("pin straight A to R 900");
    CHECK(t.b.points.at(t.b.pins.rbegin()->second.points[0]).subject == the_body); // the body first
    t.type("pin line F to chassis:A B most 5");
    t.type("pin under F to chassis:A B C least 20");
    t.type("pin clear F to booster least 10");
    t.type("pin bump F least 20?");
    CHECK(t.b.pins.rbegin()->second.target.provenance == Provenance::Assumed);
    t.type("pin height F least 200 must");
    CHECK(t.b.pins.size() == 7);
    CHECK(t.wrong("pin up F 40").remedy.find("pin up") != std::string::npos);
    CHECK(t.wrong("pin up F to 40").message == "Which feature does it go to?");
    CHECK(t.wrong("pin clear F to nothing least 3").message == "There is no box nothing.");
    CHECK(t.wrong("pin clear chassis:A to booster least 3").message.find("both of the chassis") != std::string::npos);
    CHECK(t.wrong("pin bump chassis:A least 3").message.find("points of the body") != std::string::npos);
    CHECK(t.wrong("pin line F to chassis:A 3").message.find("two") != std::string::npos);
    CHECK(t.wrong("pin line F to B B 3").message == "A line needs two different points.");
    CHECK(t.wrong("pin level F A least 3").message.find("no least or most") != std::string::npos);
    t.type("subject body");
    CHECK(entry::understand(t.b, t.context, "remove F")->doubt.find("pin") != std::string::npos);
    t.type("subject chassis");
    CHECK(entry::understand(t.b, t.context, "remove A")->doubt.find("pin") != std::string::npos);
    t.type("remove pin up chassis:A to F");
    t.type("remove pin clear F to booster");
    CHECK(t.b.pins.size() == 5);
}

TEST_CASE("seatings, school, lowering and travel by the line", "[entry][sit]") {
    Typist t;
    t.type("subject body");
    for (const char* line : {"point Hl hinge-pillar 0 -1 0", "point Hr hinge-pillar 0 1 0", "point Sfl sill-front 3 3 3",
                             "point Sfr sill-front 3 3 3"})
        t.type(line);
    CHECK(t.wrong("seating keep low").message.find("Nothing is pinned") != std::string::npos);
    t.type("hinge 1210");
    t.type("sill front 265");
    t.type("lower channel 40");
    t.type("leads driveline");
    t.type("seating keep low note channelled");
    REQUIRE(t.b.seatings.size() == 1);
    CHECK(t.b.seatings.begin()->second.lowering.channel.value == 40);
    CHECK(t.b.seatings.begin()->second.note == "channelled");
    t.type("sill front 285");
    t.type("lower none");
    t.type("leads body");
    t.type("remove pin station");
    const Build before = t.b;
    t.type("seating use low");
    CHECK(t.b.pins.size() == 2);
    CHECK(t.b.lowering.channel.value == 40);
    CHECK(t.b.school.leads == Leads::Driveline);
    bool low = false;
    for (const auto& [id, p] : t.b.pins) low = low || (p.kind == PinKind::Height && p.target.value == 265);
    CHECK(low);
    CHECK(t.b.next_id > before.next_id); // the pin that was gone got a new id
    t.type("seating keep low");          // kept anew under the same name
    CHECK(t.b.seatings.size() == 1);
    CHECK(t.wrong("seating use high").message == "There is no seating high.");
    t.type("remove seating low");
    CHECK(t.b.seatings.empty());
    t.type("lower kick 30 from 800 to 2100");
    CHECK(t.b.lowering.kick_to.value == 2100);
    CHECK(t.wrong("lower kick 30 from 2100 to 800").message.find("second lies behind") != std::string::npos);
    CHECK(t.wrong("lower floor nowhere").message == "There is no zone nowhere.");
    t.type("travel front bump 2 3/4\"");
    CHECK(t.b.travel.front_bump.value == Approx(69.85));
    CHECK(t.b.travel.front_bump.provenance == Provenance::Measured);
    CHECK(t.b.travel.rear_bump.provenance == Provenance::Assumed);
    t.type("travel lock 32°");
    t.type("travel rear radius 350");
    CHECK(t.b.travel.rear_radius->value == 350);
    CHECK(t.wrong("travel front sideways 3").message == "Type bump, droop or radius.");
}

TEST_CASE("what a pair needs, what swings, and cuts drawn over by hand", "[entry][scan]") {
    Typist t;
    t.b.scans[ScanId{1}] = {ScanId{1}, the_body, ScanPart::Bonnet, "bonnet", std::string(64, 'a')};
    t.b.planned_cuts[PlannedCutId{2}] = {
        PlannedCutId{2}, "cut-1", {{0, 0, 0}, {100, 0, 0}, {100, 50, 0}, {0, 50, 0}}, true, 5000, 0.035, "floor", "", "",
        false,           {}};
    t.b.next_id = 3;
    t.type("clearance between exhaust body 40 finish 4");
    t.type("clearance between body exhaust 45"); // either way round it is one pair
    REQUIRE(t.b.pair_rules.size() == 1);
    CHECK(t.b.pair_rules.begin()->second.least.value == 45);
    t.type("remove clearance exhaust body");
    CHECK(t.b.pair_rules.empty());
    CHECK(t.wrong("remove clearance exhaust body").message.find("no clearance of its own") != std::string::npos);
    t.type("swing bonnet 60° back 2° about 500 -400 900 500 400 900");
    CHECK(t.b.swings.begin()->second.angle.value == Approx(units::radians(60)));
    CHECK(t.wrong("swing bonnet 60° about 1 2 3 1 2 3").message.find("at least 10 mm apart") != std::string::npos);
    CHECK(t.wrong("swing boot 60° about 1 2 3 9 2 3").message == "There is no scan boot.");
    CHECK(entry::understand(t.b, t.context, "remove scan bonnet")->doubt == "With it goes what hangs on it: 1 swing (bonnet)");
    t.type("remove swing bonnet");
    t.type("cutline cut-1 move 3 110 55 1");
    CHECK(t.b.planned_cuts.begin()->second.line[2] == Vec3{110, 55, 1});
    CHECK(t.b.planned_cuts.begin()->second.by_hand);
    t.type("cutline cut-1 add 1 50 -5 0");
    CHECK(t.b.planned_cuts.begin()->second.line[1] == Vec3{50, -5, 0});
    t.type("cutline cut-1 drop 2");
    CHECK(t.b.planned_cuts.begin()->second.line.size() == 4);
    t.type("cutline cut-1 drop 4");
    CHECK(t.wrong("cutline cut-1 drop 1").message.find("only 3 corners") != std::string::npos);
    CHECK(t.wrong("cutline cut-1 move 9 0 0 0").message == "cut-1 has corners 1 to 3.");
    t.type("cutline cut-1 as-cut 50 3 0");
    t.type("cutline cut-1 as-cut 100 20 0");
    CHECK(t.b.planned_cuts.begin()->second.as_cut.size() == 2);
    t.type("cutline cut-1 as-cut none");
    CHECK(t.b.planned_cuts.begin()->second.as_cut.empty());
    t.type("remove cutline cut-1");
    CHECK(t.b.planned_cuts.empty());
}

} // namespace entry_sit_entry_test
