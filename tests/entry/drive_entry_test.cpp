#include "entry/typist.hpp"

namespace entry_drive_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("ends of shafts, shafts, levels and turns by the line", "[entry][drive]") {
    Typist t;
    t.frame();
    t.type("output gearbox at station 1420 right 12 up 310 slope 3.1deg");
    const DriveEnd* out = driveEndNamed(t.b, "gearbox");
    REQUIRE(out);
    CHECK(out->kind == DriveEndKind::Output);
    CHECK(out->on == Carrier::Frame);
    CHECK(out->station->value == 1420);
    CHECK(out->slope->value == Approx(units::radians(3.1)));
    t.type("pinion rear at Br slope 2 1/2° ? swing 0deg");
    const DriveEnd* nose = driveEndNamed(t.b, "rear");
    CHECK(nose->on == Carrier::Rear);
    CHECK(nose->slope->provenance == Provenance::Assumed);
    CHECK(nose->swing->value == 0);
    t.type("pinion rear turn -1.5deg raise 8 aside -4");
    nose = driveEndNamed(t.b, "rear");
    CHECK(nose->turned.value == Approx(units::radians(-1.5)));
    CHECK(nose->raised.value == 8);
    CHECK(nose->slope); // the rest stays
    t.type("pinion rear line Bl Br");
    CHECK_FALSE(driveEndNamed(t.b, "rear")->slope);
    t.type("output gearbox at G"); // a marked point in place of figures
    CHECK_FALSE(driveEndNamed(t.b, "gearbox")->station);
    t.type("bearing middle at station 1900 up 11 3/4\"");
    CHECK(driveEndNamed(t.b, "middle")->up->value == Approx(11.75 * 25.4));

    t.type("shaft front from gearbox to middle slip none");
    t.type("shaft main from middle to rear joints cross double-cross slip front");
    t.type("shaft main phase 0deg in 30 out 45 tube 76 2.5 limit 22deg loops");
    const Shaft* s = shaftNamed(t.b, "main");
    REQUIRE(s);
    CHECK(s->rear == JointKind::DoubleCross);
    CHECK(s->wall->value == 2.5);
    CHECK(s->limit.provenance == Provenance::Measured);
    CHECK(s->loops);
    t.type("level-on frame -0.6deg");
    t.type("level-on main 4.1deg within 0.2deg");
    t.type("level-on gearbox 3deg");
    CHECK(t.b.level_readings.size() == 3);
    t.type("remove level-on main");
    CHECK(t.b.level_readings.size() == 2);
    t.type("turns rear-axle shaft 19.5 wheel 10 one-held within 0.1");
    CHECK(t.b.turn_counts.begin()->second.one_held);
    t.type("turns rear-axle shaft 1.95 ? wheel 1 one-held");
    CHECK(t.b.turn_counts.rbegin()->second.shaft.provenance == Provenance::Assumed);
    t.type("remove turns rear-axle");
    CHECK(t.b.turn_counts.empty());
    t.type("drive redline 5200 torque 320 first 3.6 top 0.78? low 2.4 cruise 100 tyre 27 in cg 620");
    CHECK(t.b.drive_facts.top_gear->provenance == Provenance::Assumed);
    CHECK(t.b.drive_facts.tyre_mm->value == Approx(27 * 25.4));
    t.type("drive ratio-rear 3.73 layout mirrored wind-up 1.5deg");
    CHECK(t.b.drive_facts.layout == DriveLayout::Mirrored);
    CHECK(t.b.drive_facts.redline_rpm->value == 5200); // the rest stays
    t.type("remove shaft main");
    t.type("remove pinion rear");
    CHECK_FALSE(driveEndNamed(t.b, "rear"));
}

TEST_CASE("links by the line: what each kind asks for", "[entry][drive]") {
    Typist t;
    t.frame();
    t.type("link upper-left rear-axle rod Al Bl");
    CHECK(linkNamed(t.b, "upper-left")->points.size() == 2);
    t.type("link spring rear-axle leaf Al Bl Ar Br");
    t.type("link upper-left rear-axle rod Ar Br note with a rubber bush");
    CHECK(linkNamed(t.b, "upper-left")->note == "with a rubber bush");
    t.type("link arm rear-left hinge Al Ar");
    t.type("link wish front-left wishbone Al Ar Bl");
    t.type("link tie front-left tie-rod Al Bl");
    t.type("link leg front-left strut Al Bl");
    t.type("link watts rear-axle watts G Al Bl Ar Br");
    CHECK(t.b.links.size() == 7);
    t.type("remove link watts");
    CHECK(t.refused("link a rear-axle rod Al").find("A rod has 2 points: on the frame, on the axle.") != std::string::npos);
    CHECK(t.refused("link a rear-axle rod Al Al").find("stands twice") != std::string::npos);
    CHECK(t.refused("link a rear-left leaf Al Bl Ar Br").find("an axle, not one wheel") != std::string::npos);
    CHECK(t.refused("link a rear-axle strut Al Bl").find("one wheel, not an axle") != std::string::npos);
    CHECK(t.refused("link a rear-axle rod Al Zz").find("Zz") != std::string::npos);
}

TEST_CASE("what can't be of a drive line is refused, and says why", "[entry][drive]") {
    Typist t;
    t.frame();
    t.type("output gearbox at G slope 3deg");
    t.type("pinion rear at Br slope 3deg");
    t.type("bearing middle at station 1500 up 300");
    t.type("shaft main from gearbox to rear");
    CHECK(t.refused("shaft other from gearbox to middle").find("main begins at gearbox already") != std::string::npos);
    CHECK(t.refused("shaft other from middle to rear").find("main ends at rear already") != std::string::npos);
    CHECK(t.refused("shaft other from rear to middle").find("where a shaft ends") != std::string::npos);
    CHECK(t.refused("shaft other from middle to gearbox").find("where a shaft begins") != std::string::npos);
    CHECK(t.refused("shaft other from middle to middle").find("from one end to another") != std::string::npos);
    CHECK(t.refused("shaft other from middle").find("Where it ends is missing") != std::string::npos);
    CHECK(t.refused("shaft other from nowhere to rear").find("no end of a shaft nowhere") != std::string::npos);
    CHECK(t.refused("shaft main tube 50 28").find("does not fit") != std::string::npos);
    // an end can't become what the shaft at it can't have
    CHECK(t.refused("pinion gearbox slope 3deg").find("main begins here") != std::string::npos);
    CHECK(t.refused("output rear slope 3deg").find("main ends here") != std::string::npos);
    CHECK(t.refused("output other slope 3deg").find("Where its joint is is missing") != std::string::npos);
    CHECK(t.refused("output other at Zz").find("Zz") != std::string::npos);
    CHECK(t.refused("output frame at G").find("what a level lies on") != std::string::npos);
    CHECK(t.refused("output gearbox").find("missing") != std::string::npos);
    CHECK(t.refused("output gearbox sideways 3").find("sideways") != std::string::npos);
    CHECK(t.refused("output gearbox slope 80deg").find("slope") != std::string::npos);
    CHECK(t.refused("output gearbox slope 3mm").find("unit") != std::string::npos);
    CHECK(t.refused("level-on nobody 3deg").find("no unit and no shaft nobody") != std::string::npos);
    CHECK(t.refused("level-on frame").find("missing") != std::string::npos);
    CHECK(t.refused("turns rear-axle shaft 3").find("turns of the wheel are missing") != std::string::npos);
    CHECK(t.refused("turns frame shaft 3 wheel 1").find("counted at an axle") != std::string::npos);
    CHECK(t.refused("turns rear-axle shaft three wheel 1").find("no figure") != std::string::npos);
    CHECK(t.refused("drive redline fast").find("no figure") != std::string::npos);
    CHECK(t.refused("drive layout crooked").find("parallel") != std::string::npos);
    CHECK(t.refused("drive").find("missing") != std::string::npos);
    CHECK(t.refused("remove level-on frame").find("No level") != std::string::npos);
    CHECK(t.refused("remove turns front-axle").find("No turns") != std::string::npos);
    CHECK(t.refused("remove output rear").find("no output rear") != std::string::npos);
    // two bearings in a circle
    t.type("bearing one at station 1600 up 300");
    t.type("bearing two at station 1700 up 300");
    t.type("shaft there from one to two");
    CHECK(t.refused("shaft back from two to one").find("circle") != std::string::npos);
}

} // namespace entry_drive_entry_test
