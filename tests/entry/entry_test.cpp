#include "entry/typist.hpp"

#include <rapidcheck.h>
#include <set>

namespace entry_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

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
        t.type("subject clip component");
        for (const char* line : {"point FL front-hub 0 -700 400", "point FR front-hub 0 700 400"}) t.type(line);
        t.type("subject chassis");
        for (const char* line :
             {"output gearbox at station 1420 up 310", "pinion rear at station 2400 up 300", "shaft main from gearbox to rear",
              "rim rear fitted width 6in diameter 15in", "link lower rear-axle rod Al Bl",
              "part brace-1 brace at Al Bl across 42 wall 3", "fixture table1 pitch 50"})
            t.type(line);
        t.type("session monday right-way-up stands");
        if (std::string(form.example).starts_with("answer")) REQUIRE(enact(t.b, Change{Set<Practice>{{true, 1, 1, false}}}));
        if (std::string(form.bench) == "Make" && std::string(form.example) != "crossmember") t.type("crossmember");
        if (std::string(form.example).find("Hl") != std::string::npos) t.type("subject body");
        t.work();
        t.context.drawn = [] { return std::vector<IssuedPiece>(1); };
        if (std::string(form.example).starts_with("issue A")) t.type("issue");
        if (std::string(form.example).rfind("undone", 0) == 0) t.type("done battery-out");
        if (std::string(form.example).rfind("seating", 0) == 0) t.type("hinge 1210");
        for (const char* begun : {"split", "repeat", "untied", "proved", "torqued", "row"})
            if (std::string(form.example).starts_with(begun)) t.type("jobs cab-off");
        if (std::string(form.example).starts_with("proved")) {
            t.type("untied loom-tail");
            t.context.now_utc = "2026-03-01T09:00:00Z";
        }
        if (std::string(form.example).starts_with("torqued")) t.type("refit gear-lever");
        const auto begins = [&](std::initializer_list<const char*> words) {
            return std::any_of(words.begin(), words.end(),
                               [&](const char* word) { return std::string(form.example).starts_with(word); });
        };
        if (begins({"column steering forks"})) t.type("column steering through Sfl A3 B7 Bl");
        if (begins({"leg"})) t.type("lift cab weighs 380");
        if (begins({"graft nose pin"})) t.type("graft nose front-clip of clip at 640");
        if (begins({"floor-edge left outriggers"})) t.type("floor-edge left from Al Bl to Sfl Srl");
        if (begins({"rail-hole bush restore"})) t.type("rail-hole bush at 1240 across 30 outer");
        if (begins({"let-in floor-left driven"})) t.type("let-in floor-left from Al to Bl section 80 50 3");
        if (begins({"choice", "agreed", "strike"})) t.type("decide floor asks patch it");
        if (begins({"agreed"})) t.type("choice floor patch");
        if (begins({"coat", "bared"})) t.type("surface sill-in steel");
        if (begins({"photo", "strike-photo"})) t.photo();
        if (begins({"cut-off"})) t.type("stock b60 box 60 40 3 long 2000");
        if (begins({"coated"})) t.type("coat sill-in primer epoxy-primer");
        if (begins({"sparks-out", "watched"})) t.type("permit weld-rails watch Kim");
        if (begins({"watched"})) {
            t.type("sparks-out weld-rails");
            t.context.now_utc = "2026-03-01T10:00:00Z";
        }
        if (std::string(form.example).ends_with("by floor")) t.type("setup floor plane");
        t.type(form.example);
    }
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

} // namespace entry_entry_test
