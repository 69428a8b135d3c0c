// Drive from what was typed to what is shown: slopes, shafts, links, ratios, with the frame as planned.
#include "analysis/drive.hpp"

#include "analysis/cards.hpp"
#include "analysis/lead.hpp"
#include "analysis/travel.hpp"
#include "build/edit.hpp"
#include "entry/typist.hpp"

#include <nlohmann/json.hpp>

namespace analysis_drive_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

/// A ladder that a scan placed, a gearbox and a pinion marked on it, and what the shaft turns with.
Typist driven() {
    Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const auto& [name, x, y, z] : {std::tuple{"Go", 1200, 10, 460},
                                        {"Pn", 2420, 20, 420},
                                        {"Lfl", 2000, -450, 470},
                                        {"Lfr", 2000, 450, 470},
                                        {"Lal", 2580, -450, 400},
                                        {"Lar", 2580, 450, 400},
                                        {"Ufl", 2180, -330, 590},
                                        {"Ufr", 2180, 330, 590},
                                        {"Ual", 2620, -330, 560},
                                        {"Uar", 2620, 330, 560},
                                        {"Pf", 2700, -470, 470},
                                        {"Pa", 2700, 430, 460}}) {
        t.type(fmt::format("point {} {} {} {}", name, x, y, z));
        t.type(fmt::format("coordinates {} {} {} {}", name, x, y, z));
    }
    for (const char* line : {"output gearbox at Go swing 0deg", "pinion rear at Pn swing 0deg", "shaft main from gearbox to rear",
                             "shaft main phase 0deg in 60 out 60 tube 76 3 limit 22deg", "level-on frame -0.5deg",
                             "level-on gearbox 2.5deg", "level-on rear 2.6deg", "level-on main 1.38deg",
                             "drive redline 4200 top 1", "travel rear bump 75", "travel rear droop 85"})
        t.type(line);
    return t;
}
void linked(Typist& t) {
    for (const char* line :
         {"link lower-left rear-axle rod Lfl Lal", "link lower-right rear-axle rod Lfr Lar",
          "link upper-left rear-axle rod Ufl Ual", "link upper-right rear-axle rod Ufr Uar", "link panhard rear-axle rod Pf Pa"})
        t.type(line);
}
bool found(const analysis::Results& r, const std::string& code) {
    return std::any_of(r.findings.begin(), r.findings.end(), [&](const auto& f) { return f.code == code; });
}
bool assumes(const analysis::Results& r, const std::string& words) {
    const auto& all = r.drive.input().assumed;
    return std::any_of(all.begin(), all.end(), [&](const std::string& a) { return a.find(words) != std::string::npos; });
}

} // namespace

TEST_CASE("slopes come from levels with the frame's own taken off, and reach the shaft", "[analysis][drive]") {
    Typist t = driven();
    auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.drive->chains.size() == 1);
    const auto& in = r.drive.input();
    CHECK(in.ends[0].slope->value == Approx(units::radians(3.0)).margin(units::radians(0.01)));
    CHECK(in.ends[1].slope->value == Approx(units::radians(3.1)).margin(units::radians(0.01)));
    const double shaft = std::atan2(40.0, std::hypot(1220, 10));
    CHECK(r.drive->chains[0].stands[0].angles_rad[0].value ==
          Approx(std::abs(units::radians(3.0) - shaft)).margin(units::radians(0.15)));
    // nobody said how the axle moves
    CHECK(assumes(r, "rear axle goes straight up and down"));
    CHECK(r.drive->chains[0].verdict == PlanVerdict::Marginal);
    linked(t);
    r = analysis::analyse(t.b, 2, &r);
    CHECK_FALSE(assumes(r, "straight up and down"));
    CHECK(in.assumed.size() == 1);
    REQUIRE(r.travels.size() == 1);
    CHECK(r.travels[0]->name == "rear axle");
    CHECK(r.travels[0].input().wheelbase_mm.value() == Approx(2600).margin(0.5));
    // the same again is not worked out again
    const auto again = analysis::analyse(t.b, 3, &r);
    CHECK(again.drive.share() == r.drive.share());
    CHECK(again.travels[0].share() == r.travels[0].share());
}

TEST_CASE("each thing that nobody measured keeps the verdict from holding, and is named", "[analysis][drive]") {
    Typist all = driven();
    linked(all);
    CHECK(analysis::analyse(all.b, 1).drive.input().assumed.empty());
    const auto with = [&](const char* line) {
        Typist t = all;
        t.type(line);
        return analysis::analyse(t.b, 1);
    };
    CHECK(assumes(with("output gearbox swing 0.2deg ?"), "gearbox's swing"));
    CHECK(assumes(with("drive redline 4200?"), "highest speed"));
    CHECK(assumes(with("travel rear bump 75?"), "goes up"));
    CHECK(assumes(with("shaft main tube 76? 3"), "tube"));
    CHECK(assumes(with("remove level-on frame"), "frame stood level"));
    CHECK(assumes(with("pinion rear at station 2420 right 20 up 420?"), "rear's height"));
    CHECK(assumes(with("pinion rear at station 2420 up 420"), "in the middle"));
    for (const char* line : {"output gearbox swing 0.2deg ?", "remove level-on frame"})
        CHECK(with(line).drive->chains[0].verdict != PlanVerdict::Holds);
    // a level on a rail that is not along the datum turns every slope alike: only what the survey knows, too, tells
    CHECK(assumes(with("remove level-on main"), "lay along its datum"));
    // no slope at all: it waits, and says for what
    const auto waits = with("remove level-on rear");
    CHECK(waits.drive->chains.empty());
    CHECK(found(waits, "drive.waits"));
}

TEST_CASE("the frame as planned carries the pinion back, and the shaft with it", "[analysis][drive]") {
    Typist t = driven();
    linked(t);
    for (const char* line : {"change 150", "cut 1600"}) t.type(line);
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.stretch->status == stretch::Status::Planned);
    const auto& chain = r.drive->chains[0];
    REQUIRE(chain.now);
    CHECK(chain.stands[0].lengths_mm[0].value - chain.now->lengths_mm[0].value == Approx(150).margin(0.5));
    CHECK(std::any_of(chain.remarks.begin(), chain.remarks.end(), [](const auto& x) { return x.code == "plunge-out"; }));
    CHECK(found(r, "drive.plunge-out"));
    CHECK(r.travels[0].input().wheelbase_mm.value() == Approx(2750).margin(0.5));
}

TEST_CASE("an axle that hung while it was measured, and a link over the cut, are named", "[analysis][drive]") {
    Typist hung = driven();
    linked(hung);
    hung.type("session tuesday right-way-up stands");
    hung.type("coordinates Lal 2580 -450 400");
    hung.type("coordinates Pn 2420 20 420");
    const auto r = analysis::analyse(hung.b, 1);
    CHECK(assumes(r, "rear was where it is on its wheels"));
    CHECK(r.drive->chains[0].verdict != PlanVerdict::Holds);
    REQUIRE_FALSE(r.travels[0].input().assumed.empty());
    CHECK(r.travels[0]->verdict != PlanVerdict::Holds);
    Typist cut = driven();
    linked(cut);
    for (const char* line : {"change 150", "cut 1600"}) cut.type(line);
    CHECK_FALSE(found(analysis::analyse(cut.b, 1), "drive.link-over-cut"));
    cut.type("cut 2060"); // between the lower links' ends
    CHECK(found(analysis::analyse(cut.b, 1), "drive.link-over-cut"));
}

TEST_CASE("a level with the other sign is found by the shaft's own marks", "[analysis][drive]") {
    Typist t = driven();
    t.type("level-on frame -0.5deg");
    t.type("level-on main 1.4deg"); // 1.88 less 0.5
    CHECK_FALSE(found(analysis::analyse(t.b, 1), "drive.level-retape"));
    t.type("remove level-on main");
    t.type("level-on main -1.4deg");
    const auto r = analysis::analyse(t.b, 1);
    CHECK(found(r, "drive.level-retape"));
    for (const auto& f : r.findings)
        if (f.code == "drive.level-retape") {
            CHECK(f.subject == "main");
            CHECK(f.sentence.find("other sign") != std::string::npos);
        }
    const auto list = analysis::levelsList(t.b, r, the_chassis);
    CHECK(list.rows.size() == 5);
}

TEST_CASE("ratios: what was said against what was counted, and axles driven together", "[analysis][drive]") {
    Typist t = driven();
    t.type("drive ratio-rear 3.73 cruise 100 tyre 690");
    CHECK(found(analysis::analyse(t.b, 1), "drive.ratio-uncounted"));
    t.type("turns rear-axle shaft 37.27 wheel 10 within 0.1");
    auto r = analysis::analyse(t.b, 1);
    CHECK_FALSE(found(r, "drive.ratio-uncounted"));
    CHECK_FALSE(found(r, "drive.ratio-wrong"));
    t.type("turns front-axle shaft 41 wheel 10 within 0.1");
    r = analysis::analyse(t.b, 1);
    CHECK(found(r, "drive.ratios-differ"));
    t.type("remove turns front-axle");
    t.type("turns front-axle shaft 37.4 wheel 10 within 0.1");
    CHECK_FALSE(found(analysis::analyse(t.b, 1), "drive.ratios-differ"));
    t.type("drive ratio-rear 4.1");
    CHECK(found(analysis::analyse(t.b, 1), "drive.ratio-wrong"));
    const auto j = nlohmann::json::parse(analysis::driveRatioJson(t.b, analysis::analyse(t.b, 1)));
    CHECK(j["axles"].size() == 2);
    CHECK(j["axles"][1]["teeth"][0]["crown"] == 41);
    CHECK(j["axles"][1]["teeth"][0]["pinion"] == 11);
}

TEST_CASE("cards, sheets and JSON of what drives and carries", "[analysis][drive]") {
    Typist t = driven();
    linked(t);
    t.type("pinion rear turn 3deg");
    const auto r = analysis::analyse(t.b, 1);
    for (const char* tag :
         {"end:gearbox", "end:rear", "shaft:main", "chain:gearbox to rear", "link:panhard", "travel:rear axle"}) {
        INFO(tag);
        const auto card = analysis::cardFor(t.b, r, the_chassis, tag);
        REQUIRE(card);
        CHECK_FALSE(card->title.empty());
        CHECK(card->sentences.size() <= 2);
    }
    CHECK_FALSE(analysis::cardFor(t.b, r, the_chassis, "shaft:nobody"));
    // what the chain's card offers makes it smooth
    const auto chain = analysis::cardFor(t.b, r, the_chassis, "chain:gearbox to rear");
    REQUIRE_FALSE(chain->actions.empty());
    Typist done = t;
    done.type(chain->actions[0].line);
    const auto after = analysis::analyse(done.b, 1);
    CHECK(found(r, "drive.torsional"));
    CHECK_FALSE(found(after, "drive.torsional"));
    const auto shafts = nlohmann::json::parse(analysis::driveShaftJson(t.b, r));
    CHECK(shafts["lines"][0]["stands"][0]["joints"].size() == 2);
    CHECK(shafts["lines"][0]["remedies"].size() >= 1);
    const auto links = nlohmann::json::parse(analysis::driveLinkJson(t.b, r));
    CHECK(links["held"][0]["travel"].size() == 21);
    CHECK_FALSE(analysis::drivePages(t.b, r).empty());
    CHECK(analysis::travelPages(t.b, r).size() == 1);
    // nothing said: the bench leads
    const Build empty;
    const auto none = analysis::analyse(empty, 1);
    CHECK(analysis::driveLacks(empty, none, the_chassis).size() == 2);
    CHECK_FALSE(analysis::driveHeadline(empty, none, the_chassis).sentence.empty());
    CHECK_FALSE(analysis::travelHeadline(empty, none, the_chassis).below.empty());
}

TEST_CASE("undone and done again, the drive line is the same", "[analysis][drive]") {
    Typist t = driven();
    const auto before = analysis::analyse(t.b, 1);
    auto understood = entry::understand(t.b, t.context, "pinion rear turn 2deg");
    REQUIRE(understood);
    const auto back = enact(t.b, understood->edit);
    REQUIRE(back);
    CHECK_FALSE(analysis::analyse(t.b, 2).drive.input() == before.drive.input());
    REQUIRE(enact(t.b, *back));
    CHECK(analysis::analyse(t.b, 3).drive.input() == before.drive.input());
}

} // namespace analysis_drive_test
