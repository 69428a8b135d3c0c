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

TEST_CASE("wheels, hubs, rooms, turns, bands and plates by the line", "[entry][drive]") {
    Typist t;
    t.frame();
    const auto refuse = [&](const std::string& line, const std::string& words) {
        const std::string why = t.refused(line);
        INFO(why);
        CHECK(why.find(words) != std::string::npos);
    };
    t.type("rim rear fitted width 6in diameter 15in backspace 4 3/8\" tyre 195 aspect 65 studs 5 chord 67.2 bore 70");
    const WheelSet* w = wheelSetOf(t.b, AxleEnd::Rear, WheelAs::Fitted);
    REQUIRE(w);
    CHECK(w->width.value == Approx(152.4));
    CHECK(w->backspace->value == Approx(111.125));
    CHECK(w->chord->value == 67.2);
    t.type("rim rear fitted over-lips 178 outside 634 section 201 inside 345 spokes 35 carries 615 speed 190 note as it came");
    CHECK(wheelSetOf(t.b, AxleEnd::Rear, WheelAs::Fitted)->tyre->value == 195);
    // what is wanted begins as the fitted one; what was measured of that one's tyre and rim is not taken over
    t.type("rim rear wanted width 7in offset 12 tyre 215");
    const WheelSet* other = wheelSetOf(t.b, AxleEnd::Rear, WheelAs::Wanted);
    REQUIRE(other);
    CHECK(other->width.value == Approx(177.8));
    CHECK(other->diameter.value == 381);
    CHECK(other->offset->value == 12);
    CHECK_FALSE(other->backspace);
    CHECK_FALSE(other->section);
    CHECK_FALSE(other->outside);
    CHECK_FALSE(other->over_lips);
    CHECK(other->note.empty());
    CHECK(other->studs->value == 5);
    t.type("rim rear wanted circle 114.3 ? tyre 225");
    CHECK(wheelSetOf(t.b, AxleEnd::Rear, WheelAs::Wanted)->circle->provenance == Provenance::Assumed);
    CHECK_FALSE(wheelSetOf(t.b, AxleEnd::Rear, WheelAs::Wanted)->chord);
    refuse("rim front fitted tyre 195", "width of the rim is missing");
    refuse("rim rear fitted width 6in over-lips 140", "less than");
    refuse("rim rear fitted outside 300", "does not go round");
    refuse("rim rear fitted studs 4.5", "counted whole");
    refuse("rim middle fitted width 6in", "not known here");

    t.type("hub rear studs 5 chord 67.2 spigot 70 stud 12 out 32 brake-radius 160 brake-out 22 axle 1100");
    CHECK(hubOf(t.b, AxleEnd::Rear)->axle_kg->value == 1100);
    refuse("hub front chord 67.2", "before they are counted");
    t.type("room arch rear out 92 up 310");
    CHECK(wheelRoomNamed(t.b, "arch")->on == RoomOn::Body);
    t.type("room rail rear out -190 up 60 on frame side left from tyre least 25");
    CHECK(wheelRoomNamed(t.b, "rail")->side == RailSide::Left);
    CHECK(wheelRoomNamed(t.b, "rail")->from == RoomFrom::Tyre);
    t.type("room spring rear at Bl");
    CHECK(wheelRoomNamed(t.b, "spring")->on == RoomOn::Frame);
    CHECK(wheelRoomNamed(t.b, "spring")->point);
    t.type("room spring rear out -150 up 10"); // taped in its place
    CHECK_FALSE(wheelRoomNamed(t.b, "spring")->point);
    refuse("room lip rear out 92", "how high over");
    refuse("room lip rear at Nowhere", "no point Nowhere");
    t.type("dial rear-left lateral 0 0.2 0.5 0.4 0.1 -0.2 -0.3 -0.1 within 0.03");
    CHECK(t.b.dial_turns.begin()->second.readings.size() == 8);
    CHECK(t.b.dial_turns.begin()->second.readings[6] == Approx(-0.3));
    t.type("dial rear-left lateral 0 0.1 0.2 0.1");
    CHECK(t.b.dial_turns.size() == 1); // the newer one counts
    refuse("dial rear-left lateral 0 0.1 0.2", "4 to 72");
    t.type("widen rear by 50 outside barrel 380 sheet 3");
    CHECK(wideningOf(t.b, AxleEnd::Rear)->at == BandAt::Outside);
    refuse("widen front by 50 barrel 380", "the sheet is missing");
    t.type("adaptor rear thick 30 across 170 hub-hole 13 wheel-hole 14 nut-across 24 nut-deep 12");
    CHECK(adaptorOf(t.b, AxleEnd::Rear)->nut_deep.value == 12);
    refuse("adaptor rear nut-deep 30", "goes through");
    for (const char* line : {"remove rim rear wanted", "remove hub rear", "remove room rail", "remove dial rear-left lateral",
                             "remove widen rear", "remove adaptor rear"})
        t.type(line);
    CHECK(t.b.wheel_sets.size() == 1);
    CHECK(t.b.adaptors.empty());
    refuse("remove adaptor rear", "There is no adaptor rear");
    refuse("remove rim rear wanted", "No rear wheel is wanted");
}

TEST_CASE("an axle on the bench by the line", "[entry][drive]") {
    Typist t;
    t.frame();
    const auto refuse = [&](const std::string& line, const std::string& words) {
        const std::string why = t.refused(line);
        INFO(why);
        CHECK(why.find(words) != std::string::npos);
    };
    t.type("seat rear faces 55 7/8\" tube 76 springs 430 434 width 60 pads 1deg pinion 3deg u-bolt 14 stack 62");
    const AxleSeat* s = axleSeatOf(t.b, AxleEnd::Rear);
    REQUIRE(s);
    CHECK(s->faces->value == Approx(55.875 * 25.4));
    CHECK(s->spring_right->value == 434);
    CHECK(s->pad_slope->value == Approx(units::radians(1)));
    t.type("seat rear faces 1420");
    CHECK(axleSeatOf(t.b, AxleEnd::Rear)->tube->value == 76); // the rest stays
    refuse("seat rear", "missing");
    refuse("seat rear tubes 76", "not known");
    t.type("bracket damper-left rear damper right -480 ahead -70 up -60 closed 300 open 520");
    CHECK(axleBracketNamed(t.b, "damper-left")->ahead->value == -70);
    t.type("bracket damper-left rear damper at Bl frame Br");
    CHECK_FALSE(axleBracketNamed(t.b, "damper-left")->right);
    CHECK(axleBracketNamed(t.b, "damper-left")->frame);
    refuse("bracket stop rear stop right 400", "Where it shall be");
    refuse("bracket damper-left rear damper closed 600", "the shorter comes first");
    t.type("tacked perch-left rear is 279.5 wanted 280");
    t.type("tacked perch-left rear welded 279.1");
    CHECK(tackReadingNamed(t.b, "perch-left")->welded->value == 279.1);
    t.type("tacked perch-left rear is 280.2"); // tacked anew
    CHECK_FALSE(tackReadingNamed(t.b, "perch-left")->welded);
    refuse("tacked perch-right rear wanted 280", "What was read");
    t.type("gears rear-axle backlash 0.14 0.16 0.15 0.13 least 0.10 most 0.20");
    t.type("gears rear-axle backlash spread 0.05"); // limits come later, readings stay
    CHECK(t.b.gear_readings.begin()->second.readings.size() == 4);
    CHECK(t.b.gear_readings.begin()->second.spread->value == 0.05);
    refuse("gears frame backlash 0.1", "read at an axle");
    refuse("gears rear-axle run-out", "What was read");
    refuse("gears rear-axle backlash least 0.3", "leaves nothing");
    for (const char* line :
         {"remove seat rear", "remove bracket damper-left", "remove tacked perch-left", "remove gears rear-axle backlash"})
        t.type(line);
    CHECK(t.b.axle_seats.empty());
    CHECK(t.b.gear_readings.empty());
    refuse("remove seat rear", "Nothing is said");
}

TEST_CASE("column, gear and runs by the line", "[entry][drive]") {
    Typist t;
    t.frame();
    t.type("subject body");
    t.type("point Al 5 5 5"); // as on the chassis
    t.type("point Wh 900 -300 800");
    t.type("subject chassis");
    const auto refuse = [&](const std::string& line, const std::string& words) {
        const std::string why = t.refused(line);
        INFO(why);
        CHECK(why.find(words) != std::string::npos);
    };
    refuse("column steering through Al Ar", "and a place on the gear's own shaft");
    refuse("column steering through Al Ar Al", "through a point twice");
    t.type("column steering through Wh Al Bl Br across 3/4\"");
    const SteeringColumn* c = steeringColumnNamed(t.b, "steering");
    REQUIRE(c);
    CHECK(c->across->value == Approx(19.05));
    CHECK(t.b.points.at(c->points[0]).subject == the_body);
    CHECK(t.b.points.at(c->points[1]).subject == the_chassis); // both have an Al: the chassis' first
    t.type("column steering through Wh body:Al Bl Br");
    CHECK(t.b.points.at(steeringColumnNamed(t.b, "steering")->points[1]).subject == the_body);
    t.type("column steering forks 12deg gives 80 limit 32deg");
    CHECK(steeringColumnNamed(t.b, "steering")->phases.size() == 1);
    refuse("column steering forks 12deg?", "looked at, or left out"); // a guess makes no Holds
    refuse("column steering forks 12deg 30deg", "1 shaft between two joints");
    refuse("column steering bulkhead Al Bl", "by three places");
    refuse("column other through Wh Al Bl", "There is the column steering already.");
    refuse("column steering sideways", "not known");
    refuse("column steering through Wh Nowhere Bl", "Nowhere");
    t.type("column steering through Wh Al Bl"); // other shafts: what was said of the forks is forgotten
    CHECK(steeringColumnNamed(t.b, "steering")->phases.empty());
    t.type("steer-gear rack-1 rack each-way 72 turns 3.2 holes Al Ar Bl bolt 10 plate 6 closed");
    CHECK(steeringGearNamed(t.b, "rack-1")->closed);
    t.type("steer-gear rack-1 rack each-way 70 ?");
    CHECK(steeringGearNamed(t.b, "rack-1")->each_way->provenance == Provenance::Assumed);
    CHECK(steeringGearNamed(t.b, "rack-1")->turns->value == 3.2);
    refuse("steer-gear rack-1 rack swing 30deg", "A rack slides");
    refuse("steer-gear rack-1 box turns 3", "A box swings its arm");
    refuse("steer-gear box-2 box arm Al Bl", "There is the steering gear rack-1 already.");
    refuse("steer-gear rack-1 rack holes Al", "One bolt");
    t.type("remove steer-gear rack-1");
    t.type("steer-gear box-2 box arm Al Bl swing 38deg");
    t.type("run downpipe exhaust through Al Bl across 50 shielded");
    CHECK(runNamed(t.b, "downpipe")->shielded);
    t.type("run downpipe exhaust open");
    CHECK_FALSE(runNamed(t.b, "downpipe")->shielded);
    refuse("run other exhaust through Al Bl", "Its diameter is missing");
    refuse("run other exhaust across 50", "Where it runs");
    for (const char* line : {"remove column steering", "remove steer-gear box-2", "remove run downpipe"}) t.type(line);
    CHECK(t.b.runs.empty());
}

TEST_CASE("springs, lifted axles, holes and brakes by the line", "[entry][drive]") {
    Typist t;
    t.frame();
    const auto refuse = [&](const std::string& line, const std::string& words) {
        const std::string why = t.refused(line);
        INFO(why);
        CHECK(why.find(words) != std::string::npos);
    };
    t.type("link lower rear-axle rod Al Bl");
    t.type("spring rear coil rate 32 foot Ar top Br on lower free 15 in higher 30");
    const Spring* s = springOf(t.b, AxleEnd::Rear);
    REQUIRE(s);
    CHECK(s->free->value == Approx(381));
    CHECK(s->on == linkNamed(t.b, "lower")->id);
    refuse("spring front coil on lower", "carries the other end");
    refuse("spring rear coil foot Ar top Ar", "between two places");
    refuse("spring rear torsion bar 22", "rate is worked out");
    refuse("spring front coil bar 22", "of a torsion bar");
    t.type("spring front torsion bar 22 inside 8 long 900 arm 310");
    CHECK(springOf(t.b, AxleEnd::Front)->length->value == 900);
    refuse("spring front torsion inside 23", "smaller than its outside");
    refuse("spring rear coil on nothing", "There is no link nothing.");
    t.type("spring rear coil stop 45 stop-rate 120");
    CHECK(springOf(t.b, AxleEnd::Rear)->stop_rate->value == 120);
    refuse("spring front torsion stop-rate 100", "counts from where it touches");
    t.type("run hose brake-line through Al Bl across 10 long 420 ends-on rear-axle");
    CHECK(runNamed(t.b, "hose")->length->value == 420);
    CHECK(runNamed(t.b, "hose")->last_on == Carrier::Rear);
    t.type("run hose brake-line ends-on frame");
    CHECK(runNamed(t.b, "hose")->length->value == 420);
    refuse("run one brake-line through Al across 10 long 420", "one point only");
    t.type("output box-rear at Al slope 3deg in box");
    t.type("output box-front at Ar slope 3deg in box");
    t.type("output box-rear turn 1deg");
    refuse("output box-front raise 5", "is moved already");
    refuse("bearing mid at Bl in box", "stands by itself");
    refuse("pinion nose at Bl slope 3deg on rear-axle in box", "in one housing");
    t.type("output box-front in alone");
    t.type("output box-front raise 5");
    for (const char* line : {"remove run hose", "remove output box-rear", "remove output box-front"}) t.type(line);
    t.type("lifted front 600 rear 798kg within 1kg");
    t.type("lifted front 24in rear 1760lb");
    CHECK(t.b.axles_lifted.size() == 2);
    CHECK(t.b.axles_lifted.rbegin()->second.up.value == Approx(609.6));
    refuse("lifted front 600 front 798kg", "the axle on the ground");
    t.type("remove lifted front");
    CHECK(t.b.axles_lifted.empty());
    refuse("remove lifted rear", "was not lifted");
    t.type("link-holes lower frame pitch 25 above 1 below 2 lean 10deg hole 14");
    CHECK(linkHolesOf(t.b, linkNamed(t.b, "lower")->id, LinkEnd::Frame)->lean.value == Approx(units::radians(10)));
    refuse("link-holes lower axle above 1", "From hole to hole");
    refuse("link lower rear-left hinge Al Bl", "row of holes");
    refuse("link-holes lower axle pitch 25", "more than one hole");
    refuse("link-holes lower frame hole 30", "run into each other");
    refuse("link-holes lower axle pitch 25 above 1.5", "counted whole");
    refuse("link-holes nothing frame pitch 25 above 1", "There is no link nothing.");
    t.type("brake front disc piston 48 pistons 2 radius 112 grip 0.38 stroke 0.5");
    t.type("brake rear drum piston 20.6 pistons 1 radius 127 factor 2.2");
    CHECK(brakeOf(t.b, AxleEnd::Front)->grip->value == 0.38);
    t.type("pedal brake lever 290 arm 52 room 140 bore 22.2 bore-rear 19 stroke 36 help 3 leg 300");
    CHECK(pedalOf(t.b, PedalKind::Brake)->bore_rear->value == 19);
    refuse("pedal brake arm 300", "the pad is farther");
    for (const char* line : {"remove spring rear", "remove spring front", "remove link-holes lower frame", "remove brake front",
                             "remove brake rear", "remove pedal brake"})
        t.type(line);
    CHECK(t.b.springs.empty());
    CHECK(t.b.pedals.empty());
    refuse("remove pedal clutch", "Nothing is said");
}

} // namespace entry_drive_entry_test
