#include "entry/commands.hpp"
#include "entry/entry.hpp"

#include <catch2/catch.hpp>
#include <rapidcheck.h>
#include <set>

using namespace gorvet;
using namespace gorvet::build;

namespace {

struct Typist {
    Build b;
    entry::Context context;
    std::string echo;

    void type(const std::string& line) {
        INFO(line);
        auto understood = entry::understand(b, context, line);
        if (!understood) FAIL(understood.error().text());
        if (understood->subject) context.subject = *understood->subject;
        echo = understood->echo;
        auto kept = enact(b, understood->edit);
        if (!kept) FAIL(kept.error().text());
    }
    Error wrong(const std::string& line) const {
        INFO(line);
        const auto understood = entry::understand(b, context, line);
        REQUIRE_FALSE(understood);
        CHECK_FALSE(understood.error().message.empty());
        return understood.error();
    }
    void frame() {
        for (const char* line : {"point Al rail 0 -420 310", "point Ar rail 0 420 310", "point Bl rail 2000 -420 300",
                                 "point Br rail 2000 420 300", "point G gearbox-mount 1000 0 320"})
            type(line);
    }
    void body() {
        type("subject body");
        for (const char* line :
             {"point Hl hinge-pillar 560 -690 800", "point Hr hinge-pillar 560 690 800", "point Sl sill-rear 1900 -700 500",
              "point Sr sill-rear 1900 700 500", "point Ml body-mount 300 -400 600", "point Mr body-mount 300 400 600",
              "point Wl arch-rear 2600 -700 550", "point Wr arch-rear 2600 700 550"})
            type(line);
    }
    /// (The frame must have points Bl and Dr.) An order of work with one step that can be done and one hold point.
    void work() {
        context.knows_work = true;
        context.who = "M.";
        context.now_utc = "2026-03-01T08:00:00Z";
        const auto id = [&](const char* name) { return pointNamed(b, the_chassis, name)->id; };
        context.steps = {{"battery-out", "Take the battery out", "", false, {}},
                         {"before-welding",
                          "Tape the diagonals",
                          "3 of 3 fresh readings are still to be taken",
                          false,
                          {{id("Bl"), id("Dr"), {}}}},
                         {"weld-rails", "Weld", "first: Tape the diagonals", false, {}}};
        context.next_step = "battery-out";
    }
    const Reading& last() const { return b.readings.rbegin()->second; }
};

} // namespace

TEST_CASE("points, holds and readings by the line", "[entry]") {
    Typist t;
    t.frame();
    CHECK(t.b.points.size() == 5);
    CHECK(pointNamed(t.b, the_chassis, "Bl")->rough == Vec3{2000, -420, 300});
    t.type("point Al 10 -421 311"); // again: corrected, not doubled
    CHECK(pointNamed(t.b, the_chassis, "Al")->rough->x_mm == 10);
    CHECK(pointNamed(t.b, the_chassis, "Al")->role == Role::Rail);
    t.type("hold Al z 0");
    t.type("hold Al z 1 1/2\"");
    REQUIRE(t.b.holds.size() == 1);
    CHECK(t.b.holds.begin()->second.value.value == Approx(38.1));
    t.type("Al Br 2164");
    CHECK(t.echo == "tape Al–Br 2164.0 mm");
    CHECK(t.last().kind == ReadingKind::Tape);
    CHECK(t.last().value.typed == "2164");
    CHECK(t.last().value.provenance == Provenance::Measured);
    CHECK(t.b.sessions.size() == 1); // a session was opened for it
    t.type("Al Bl 6' 6 3/4\"");
    CHECK(t.last().value.value == Approx(78.75 * 25.4));
    t.type("Al Bl 2m00 ± 3 note sagging tape");
    CHECK(*t.last().sigma * 1.959964 == Approx(3)); // what is typed after ± is what is shown after it
    CHECK(t.last().note == "sagging tape");
    t.type("height Al 310 sigma 0.5");
    CHECK(t.last().kind == ReadingKind::Height);
    CHECK(*t.last().sigma == 0.5);
    t.type("level Al Bl -3");
    t.type("offset Bl -420");
    CHECK_FALSE(t.last().to);
    t.type("offset Al Ar 840");
    CHECK(t.last().to);
    t.type("station Al Bl 2000");
    t.type("slope Al Bl 0°30'");
    CHECK(t.last().value.value == Approx(units::radians(0.5)));
    t.type("plan Al Bl 1999");
    CHECK(t.b.readings.size() == 10);
    t.type("session tuesday inverted trestles at 300 and 2700 carrying 120 kg");
    const Session& s = t.b.sessions.rbegin()->second;
    CHECK(s.attitude == Attitude::Inverted);
    CHECK(s.support == Support::Trestles);
    CHECK(s.support_at == "300 and 2700");
    CHECK(s.carried_mass_kg == 120);
    t.type("Al Ar 840");
    CHECK(t.last().session == s.id); // the newest session takes what follows
}

TEST_CASE("re-taping keeps the old reading in the document, out of use", "[entry]") {
    Typist t;
    t.frame();
    t.type("Al Br 2174");
    const ReadingId old = t.last().id;
    t.type("Br Al 2164"); // a second reading of the same pair stands beside the first
    CHECK_FALSE(t.b.readings.at(old).replaced_by);
    t.context.to_retape = {old};
    t.type("Al Br 2164"); // judged Re-tape: typing it again replaces it
    CHECK(t.b.readings.at(old).replaced_by == t.last().id);
    CHECK(t.echo == "re-tape Al–Br 2164.0 mm");
    t.context.to_retape.clear();
    t.type("retape Al Br 2163");
    CHECK(t.last().value.value == 2163);
    t.type("remove Al Br"); // and what it had replaced counts again
    int counting = 0;
    for (const auto& [id, r] : t.b.readings) counting += !r.replaced_by;
    CHECK(counting == 2);
    CHECK(t.wrong("retape Al Bl 2000").message == "There is no such reading yet.");
}

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

TEST_CASE("a wrong line says what, where and what to do", "[entry]") {
    Typist t;
    t.frame();
    CHECK(t.wrong("Al Zz 2000").column == 3);
    CHECK(t.wrong("Al Zz 2000").remedy.find("point Zz") != std::string::npos);
    CHECK(t.wrong("Al Br 21x").column == 9);
    CHECK(t.wrong("Al Br").column == 5);
    CHECK(t.wrong("Al Br -5").column == 6);
    CHECK(t.wrong("Al Al 5").column == 3);
    CHECK(t.wrong("Al").message == "The second point is missing.");
    CHECK(t.wrong("point N 1 2").message.find("three lengths") != std::string::npos);
    CHECK(t.wrong("point N 1 2 3 4").column == 14);
    CHECK(t.wrong("hold Al w 0").remedy == "Type x, y or z.");
    CHECK(t.wrong("session x upside-down").column == 10);
    CHECK(t.wrong("hinge 1210").message.find("hinge-pillar") != std::string::npos);
    CHECK(t.wrong("sill middle 3").column == 5);
    CHECK(t.wrong("box 60 x 40 x 3").remedy == "Type crossmember first.");
    CHECK(t.wrong("mount all").message.find("body-mount") != std::string::npos);
    CHECK(t.wrong("rail 100 x 60").message.find("height, width and wall") != std::string::npos);
    CHECK(t.wrong("rail 10 x 60 x 6").message.find("thicker than the rail") != std::string::npos);
    CHECK(t.wrong("biscuit 25 squash 80%").column == 18);
    CHECK(t.wrong("overlap 2 mm").column >= 0);
    CHECK(t.wrong("mount-bolt 11").message.find("must be 8, 10, 12, 14 or 16") != std::string::npos);
    CHECK(t.wrong("show furlongs").remedy.find("show inch") != std::string::npos);
    CHECK(t.wrong("").message == "Nothing was typed.");
    CHECK(t.wrong("change").message.find("missing") != std::string::npos);
    CHECK(t.wrong("remove pin rake").message.find("no pin") != std::string::npos);
    CHECK(t.wrong("cut 1250 extra").column == 9);
}

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

TEST_CASE("a name that is also a command stays a name", "[entry]") {
    Typist t;
    t.type("point cut 0 0 0");
    t.type("point tape 100 0 0");
    t.type("\"cut\" tape 100"); // in quotes it is the point
    CHECK(t.b.readings.size() == 1);
    t.type("cut 1480"); // and the command is still there
    CHECK(t.b.stretch.cut_station->value == 1480);
    t.type("point point 0 0 300");
    t.type("point remove 0 100 300");
    t.type("point X 0 200 300");
    CHECK(pointNamed(t.b, the_chassis, "X"));
    t.type("\"point\" \"remove\" 102");
    t.type("remove \"point\" remove");
    t.type("remove point");
    CHECK_FALSE(pointNamed(t.b, the_chassis, "point"));
    CHECK(t.b.readings.size() == 1);
}

TEST_CASE("no word begins two commands, and what has no word has a form", "[entry]") {
    std::set<std::string_view> words;
    for (const entry::CommandTable* table : entry::commandTables())
        for (const entry::Command& command : table->commands) {
            for (const std::string_view word : command.words) {
                INFO(table->bench << ": " << word);
                CHECK(words.insert(word).second); // the second would never be reached
                CHECK_FALSE(fromWord<ReadingKind>(word));
                CHECK(command.read);
            }
            CHECK((!command.words.empty() || !command.forms.empty()));
        }
    CHECK(words.size() > 60);
}

TEST_CASE("a pin keeps clear of the box on the other side, whatever else is called so", "[entry][subject]") {
    Typist t;
    t.frame();
    t.body();
    t.type("blocked booster 0 10 0 10 0 10"); // on the body
    t.type("subject chassis");
    t.type("blocked booster 0 10 0 10 0 10");
    const ObstacleId on_chassis = t.b.obstacles.rbegin()->first;
    t.type("subject mill component");
    t.type("blocked booster 0 10 0 10 0 10");
    t.type("blocked sump 0 10 0 10 0 10");
    t.type("subject chassis");
    t.type("pin clear Hl to booster least 10");
    CHECK(t.b.pins.rbegin()->second.box == on_chassis);
    CHECK(t.wrong("pin clear Hl to sump least 10").message == "There is no box sump.");
}

TEST_CASE("every example of the help can be typed", "[entry]") {
    for (const auto& form : entry::forms()) {
        Typist t;
        t.b.scans[ScanId{1}] = {ScanId{1}, the_body, ScanPart::Body, "shell", std::string(64, 'a')};
        t.b.scans[ScanId{2}] = {ScanId{2}, the_body, ScanPart::Bonnet, "bonnet", std::string(64, 'b')};
        t.b.planned_cuts[PlannedCutId{3}] = {PlannedCutId{3}, "cut-1", {{0, 0, 0}, {9, 0, 0}, {9, 9, 0}}};
        t.b.next_id = 4;
        for (const char* line : {"point A3 0 0 0", "point B7 2000 0 0", "point Bl 0 -400 0", "point Dr 2000 400 0",
                                 "point Ar 0 400 3", "point Dl 2000 -400 3", "instrument big tape", "point Al 0 1 2",
                                 "point Xl rail 5 5 5", "point G gearbox-mount 1000 0 320", "point Pan 3 3 3", "A3 B7 2100"})
            t.type(line);
        t.type("subject body");
        for (const char* line :
             {"point Hl hinge-pillar 0 -1 0", "point Hr hinge-pillar 0 1 0", "point Hlo 5 5 5", "point Hup 5 5 900",
              "point Sfl sill-front 3 3 3", "point Sfr sill-front 3 3 3", "point Srl sill-rear 3 3 3", "point Wl arch-rear 3 3 3",
              "point Ml body-mount 1 1 1", "point Floor floor 3 3 3", "point Aul 3 3 3", "point Aur 3 3 3", "point B1l 3 3 3",
              "point B1r 3 3 3", "point B2l 3 3 3"})
            t.type(line);
        t.type("subject second-frame candidate");
        t.type("subject chassis");
        t.type("session monday right-way-up stands");
        if (std::string(form.example).starts_with("answer")) REQUIRE(enact(t.b, Change{Set<Practice>{{true, 1, 1, false}}}));
        if (std::string(form.bench) == "Make" && std::string(form.example) != "crossmember") t.type("crossmember");
        if (std::string(form.example).find("Hl") != std::string::npos) t.type("subject body");
        t.work();
        if (std::string(form.example).rfind("undone", 0) == 0) t.type("done battery-out");
        if (std::string(form.example).rfind("seating", 0) == 0) t.type("hinge 1210");
        if (std::string(form.example).ends_with("by floor")) t.type("setup floor plane");
        t.type(form.example);
    }
}

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

TEST_CASE("no line crashes, and none that is refused changes anything", "[entry][property]") {
    CHECK(rc::check("random lines", [] {
        Typist t;
        t.frame();
        const std::vector<std::string> words = {"Al",    "Ar",      "Bl",    "G",    "point",  "hold",   "x",    "tol",   "±",
                                                "12",    "4 1/4\"", "-",     "rail", "pin",    "height", "cut",  "mount", "\"",
                                                "1,885", "?",       "slope", "3°",   "remove", "box",    "note", "at"};
        std::string line;
        for (int i = *rc::gen::inRange(0, 7); i > 0; --i)
            line += words[static_cast<size_t>(*rc::gen::inRange(0, static_cast<int>(words.size())))] + " ";
        const auto understood = entry::understand(t.b, t.context, line);
        if (!understood)
            RC_ASSERT(!understood.error().message.empty());
        else
            RC_ASSERT(static_cast<bool>(enact(t.b, understood->edit)));
    }));
}

TEST_CASE("set-ups: named once, and taken by the readings that can be read from them", "[entry]") {
    Typist t;
    t.type("point Al 0 -400 500");
    t.type("point Ar 0 400 500");
    t.type("height Al 512");
    CHECK_FALSE(t.b.readings.rbegin()->second.setup);
    t.type("setup floor plane sigma 0.5 note swept");
    REQUIRE(t.b.setups.size() == 1);
    CHECK(t.b.setups.begin()->second.sigma_mm == 0.5);
    CHECK(t.b.setups.begin()->second.note == "swept");
    t.type("height Ar 514");
    CHECK(t.b.readings.rbegin()->second.setup == t.b.setups.begin()->first);
    t.type("Al Ar 800");
    CHECK_FALSE(t.b.readings.rbegin()->second.setup); // a floor reads no distances
    t.type("height Ar 514 by datum");
    CHECK_FALSE(t.b.readings.rbegin()->second.setup);
    t.type("height Ar 515"); // as the newest of its kind
    CHECK_FALSE(t.b.readings.rbegin()->second.setup);
    t.type("setup trammel tape");
    t.type("Al Ar 801 sigma 0.4 by trammel note cold");
    CHECK(t.b.readings.rbegin()->second.setup == t.b.setups.rbegin()->first);
    CHECK(t.b.readings.rbegin()->second.note == "cold");
    CHECK(t.wrong("height Al 512 by trammel").message == "A height reading is not read from a tape.");
    CHECK(t.wrong("height Al 512 by nothing").message == "There is no set-up nothing on the chassis.");
    CHECK(t.wrong("setup laser").message == "What is laser?");
    CHECK(t.wrong("setup datum plane").message.find("stands for no set-up") != std::string::npos);
    CHECK(entry::understand(t.b, t.context, "remove setup floor")->doubt.find("With it goes what hangs on it: ") == 0);
    CHECK(t.wrong("setup floor string").message == "Readings of kind height hang on it: it stays what it is.");
    t.type("want point Al");
    CHECK(t.b.settings.want == "point Al");
    CHECK(t.wrong("want luck").message == "\"luck\" is not known here.");
    t.type("reach 5 m");
    CHECK(t.b.settings.tape_reach_mm == 5000);
    CHECK(t.wrong("reach 5 mm").message.find("between 100 and 100000 mm") != std::string::npos);
    t.type("gauge no");
    CHECK_FALSE(t.b.settings.gauge);
    CHECK(t.wrong("retape Al Ar 800?").message == "A reading is taped again, not assumed.");
    CHECK(t.wrong("gap door-left 4.5").message == "At which event was it measured?");
    CHECK(t.wrong("gap door-left 4.5? at brace in").message == "A gap must be measured, not assumed.");
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
