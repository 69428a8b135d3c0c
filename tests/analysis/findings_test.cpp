// Every finding can be provoked, says what it means, and goes away when its remedy is taken.
#include "analysis/bench.hpp"
#include "analysis/cards.hpp"
#include "analysis/findings.hpp"
#include "prompt/context.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace analysis_findings_test {

using namespace gorvet;

namespace {

build::Build demo() {
    static const build::Build b = [] {
        const auto path = test::demoBuild(test::freshFolder("findings-demo"));
        auto store = store::Store::open(path);
        REQUIRE(store);
        return (*store)->build();
    }();
    return b;
}

void type(build::Build& b, const std::string& line, build::SubjectId subject = build::the_chassis) {
    INFO(line);
    entry::Context context;
    context.subject = subject;
    if (entry::isAboutWork(line)) context = prompt::contextFor(analysis::analyse(b, 1), subject, "M.", "2026-03-01T08:00:00Z");
    auto understood = entry::understand(b, context, line);
    if (!understood) FAIL(understood.error().text());
    REQUIRE(build::enact(b, understood->edit));
}

std::vector<const analysis::Finding*> withCode(const analysis::Results& r, const std::string& code) {
    std::vector<const analysis::Finding*> list;
    for (const auto& f : r.findings)
        if (f.code == code) list.push_back(&f);
    return list;
}

} // namespace

TEST_CASE("each finding appears when its cause does", "[analysis][demo]") {
    struct Case {
        std::string code;
        std::vector<std::string> lines;
        std::string part; ///< of its sentence
        sheet::Severity severity;
    };
    using sheet::Severity;
    const std::vector<Case> cases = {
        {"tape.unfixed", {"point New 500 0 500", "New Al 1100"}, "of New", Severity::Warn},
        {"tape.mixed-supports", {"session friday inverted trestles", "Al Ar 860.5"}, "unlike supports", Severity::Warn},
        {"tape.diamond", {}, "The chassis is out: diamond", Severity::Bad},
        {"tape.camber-unlike",
         {"camber front-left 1.2° out", "camber front-right 0.1° in"},
         "left top further out",
         Severity::Bad},
        {"tape.caster-unlike",
         {"sweep front-left 20° 2° out 1.5° in", "sweep front-right 20° 1° out 0.5° in"},
         "pulls to the other side",
         Severity::Bad},
        {"tape.ride-unlike", {"ride rear-left 412", "ride rear-right 400"}, "left stands higher", Severity::Bad},
        {"tape.retape", {}, "Bl–Dr was read as", Severity::Bad},
        {"sit.pin-miss", {"arch front tol 0.5", "hinge 600 tol 1"}, "misses by", Severity::Bad},
        {"sit.open", {"remove pin arch-rear"}, "Nothing asks for a wheelbase", Severity::Warn},
        {"stretch.near", {"cut 1150"}, "from the new crossmember's flange. Needs 150.0 mm.", Severity::Warn},
        {"stretch.in-the-piece", {"cut 1540"}, "The crossmember Xl stands in the piece that comes out.", Severity::Bad},
        {"stretch.heat-treated", {"rail heat-treated"}, "heat-treated", Severity::Bad},
        {"stretch.outside-wheelbase", {"cut -300"}, "outside the wheelbase", Severity::Bad},
        {"stretch.kick-up", {"cut 2000"}, "The rail slopes", Severity::Warn},
        {"stretch.sleeve-fit", {"sleeve-fit 3"}, "fit is 3.0 mm a side", Severity::Warn},
        {"stretch.sleeve-overlap", {"overlap 1"}, "overlaps 1.0 rail heights", Severity::Bad},
        {"stretch.section-assumed", {"rail 100? x 60 x 4 box top"}, "assumed sizes: rail height", Severity::Warn},
        {"stretch.short-piece", {"change 25"}, "new piece is only", Severity::Warn},
        {"make.mount-gap-short", {"biscuit 60"}, "Washer and biscuit need 54.0", Severity::Bad},
        {"make.crossmember-below-rail", {"crossmember form straight", "isolator 150"}, "below the rails", Severity::Bad},
        {"make.crossmember-hangs-below", {}, "The middle hangs", Severity::Warn},
        {"make.crossmember-no-clearance", {"end-clearance 0.2"}, "0.5 to come out again", Severity::Warn},
        {"make.crossmember-assumed", {"isolator 38?"}, "assumed sizes", Severity::Warn},
        {"make.crossmember-pan-fouls", {"crossmember form straight"}, "The gearbox pan fouls the bridge by", Severity::Bad},
        {"stretch.splice-weak", {"fish-plate none"}, "of the rail's section modulus", Severity::Bad},
        {"stretch.plugs-short", {"overlap 1.5"}, "plug welds of 12 each side", Severity::Bad},
        {"stretch.plug-hole", {"plug 20"}, "They need 12.0 to 15.0", Severity::Warn},
        {"stretch.plug-gap", {"sleeve-fit 3"}, "A plug weld bridges 2", Severity::Bad},
        {"stretch.plug-thin", {"rail 100 x 60 x 2.5 box top"}, "plug welds carry from 3 mm on", Severity::Bad},
        {"stretch.station-refused", {"cut 1000"}, "stands there", Severity::Warn},
        {"stretch.better-station", {"cut 1080"}, "of 10, this one", Severity::Warn},
        {"work.no-brace",
         {"standing body-on wheels", "remove brace door-left", "remove brace door-right", "remove brace sills"},
         "No brace of the body",
         Severity::Warn},
        {"work.brace-step-unknown", {"brace door-left until supper"}, "has no such step", Severity::Warn},
        {"work.brace-gap-unknown",
         {"brace extra", "done brace-in-extra note nobody else was there"},
         "was not measured",
         Severity::Warn},
        {"work.stuck", {"brace door-left until approval"}, "wait for each other", Severity::Bad},
        {"work.out-of-order", {"undone record"}, "is ticked, but", Severity::Warn},
        {"stretch.no-station", {"rail 400 x 60 x 4 box top"}, "No station between", Severity::Warn},
        {"make.mount-close", {"biscuit 4", "sill front 255", "sill rear 265"}, "Soft mounts need 10", Severity::Warn},
        {"make.mount-no-bolt", {"grip through", "rail 400 x 60 x 4 box top", "overlap 0.5"}, "no standard bolt", Severity::Warn},
        {"make.mount-leans", {"mount M1l at 360"}, "the mount leans", Severity::Warn},
        {"make.mount-off-rail", {"mount M1l at -5000"}, "does not reach", Severity::Bad},
        {"make.mount-assumed", {"biscuit 20?"}, "assumed parts", Severity::Warn},
        {"make.crossmember-no-bolt",
         {"crossmember fixing through", "rail 100 x 395 x 4 box top"},
         "No standard bolt",
         Severity::Bad},
        {"make.crossmember-one-row", {"rail 40 x 60 x 4 box top"}, "one row", Severity::Warn},
        {"make.crossmember-load", {"remove crossmember", "crossmember"}, "Nobody said what stands on it", Severity::Warn},
        {"make.crossmember-strength", {"crossmember load 40000"}, "does not bear 40000 N", Severity::Bad},
        {"make.crossmember-strength-guess", {"crossmember load 1000?"}, "a guess", Severity::Warn},
    };
    for (const auto& c : cases) {
        INFO(c.code);
        build::Build b = demo();
        for (const auto& line : c.lines) type(b, line);
        const auto r = analysis::analyse(b, 1);
        const auto found = withCode(r, c.code);
        for (const auto& f : r.findings) UNSCOPED_INFO(f.code << ": " << f.sentence);
        REQUIRE_FALSE(found.empty());
        bool said = false;
        for (const auto* f : found) said = said || (f->sentence.find(c.part) != std::string::npos && f->severity == c.severity);
        CHECK(said);
        for (const auto* f : found) {
            CHECK_FALSE(f->word.empty());
            CHECK_FALSE(f->subject.empty());
            CHECK_FALSE(f->remedy.empty());
            CHECK_FALSE(f->brief.empty());
            // figure and figure needed, unless it is no matter of figures
            static const std::set<std::string> plain = {"tape.unfixed",
                                                        "tape.setup-untold",
                                                        "tape.mixed-supports",
                                                        "sit.open",
                                                        "stretch.heat-treated",
                                                        "stretch.section-assumed",
                                                        "stretch.crossings-not-told",
                                                        "make.crossmember-assumed",
                                                        "make.crossmember-load",
                                                        "make.crossmember-strength-guess",
                                                        "work.no-brace",
                                                        "work.brace-step-unknown",
                                                        "work.brace-gap-unknown",
                                                        "work.stuck",
                                                        "work.out-of-order"};
            INFO(f->sentence);
            CHECK(f->figure.empty() == plain.contains(f->code));
            CHECK(f->need.empty() == plain.contains(f->code));
            // and where to go: a place on The Rule, or the item it belongs to
            CHECK((f->station_mm || !f->tag.empty() || f->bench() == "work" || plain.contains(f->code)));
        }
    }
}

TEST_CASE("a gap that moved holds the work", "[analysis][demo]") {
    build::Build b = demo();
    type(b, "gap door-left 4.5 at brace in");
    type(b, "gap door-right 5.0");
    CHECK(withCode(analysis::analyse(b, 1), "tape.gap-moved").empty());
    type(b, "gap door-left 7.2 at on the chassis");
    type(b, "gap door-right 5.2");
    const auto r = analysis::analyse(b, 1);
    const auto found = withCode(r, "tape.gap-moved");
    REQUIRE(found.size() == 1);
    CHECK(found[0]->subject == "door-left");
    CHECK(found[0]->severity == sheet::Severity::Bad);
    CHECK(found[0]->figure == "2.7 mm ± 0.8 mm");
    CHECK(found[0]->need == "1.5 mm");
    CHECK(found[0]->sentence.find("it opened by 2.7 mm") != std::string::npos);
    const auto card = analysis::cardFor(b, r, build::the_body, "gaps");
    REQUIRE(card);
    CHECK(card->rows[0].value == "4.5 → 7.2");
    // measured again at the same event, it replaces the figure
    type(b, "gap door-left 4.9 at on the chassis");
    CHECK(withCode(analysis::analyse(b, 1), "tape.gap-moved").empty());
    CHECK(b.gaps.size() == 4);
    type(b, "remove gap door-left");
    CHECK(b.gaps.size() == 2);
}

TEST_CASE("what moved between two sessions is said, and unlike supports with it", "[analysis]") {
    build::Build b;
    std::mt19937 rng(5);
    const auto survey = [&](const std::string& session, double raise) {
        type(b, "session " + session);
        const auto m = test::frameSurvey(5, rng);
        for (int i = 0; i < 10 && b.holds.empty(); ++i)
            type(b, fmt::format("point {} rail {:.0f} {:.0f} {:.0f}", m.survey.points[i].name, m.truth[i].x_mm, m.truth[i].y_mm,
                                m.truth[i].z_mm));
        for (int i = 0; i < 10; ++i) {
            const auto& t = m.truth[i];
            const std::string name = m.survey.points[i].name;
            const double up = i == 6 ? raise : 0;
            type(b, fmt::format("height {} {:.1f} sigma 0.5", name, t.z_mm + up + test::normal(rng, 0.3)));
            for (int j = i + 1; j < 10; ++j) {
                const auto& u = m.truth[j];
                const double dz = u.z_mm + (j == 6 ? raise : 0) - t.z_mm - up;
                type(b, fmt::format("{} {} {:.1f} sigma 0.6", name, m.survey.points[j].name,
                                    std::hypot(u.x_mm - t.x_mm, u.y_mm - t.y_mm, dz) + test::normal(rng, 0.4)));
            }
        }
        if (b.holds.empty()) {
            type(b, "hold Al x 0");
            type(b, "hold Al y -400");
            type(b, "hold El y -440");
        }
    };
    survey("before right-way-up stands", 0);
    CHECK(withCode(analysis::analyse(b, 1), "tape.moved").empty());
    survey("after right-way-up trestles", 12);
    const auto r = analysis::analyse(b, 1);
    REQUIRE(r.chassis.since->comparison.possible);
    const auto found = withCode(r, "tape.moved");
    REQUIRE(found.size() == 1);
    CHECK(found[0]->brief == "Dl moved");
    CHECK(found[0]->sentence.find("unlike supports") != std::string::npos);
    CHECK(r.chassis.since->before == "before");
    // heights read from a floor that carries the datum itself: nothing tells whether it is level
    type(b, "setup floor plane");
    std::vector<build::ReadingId> heights;
    for (const auto& [id, reading] : b.readings)
        if (reading.kind == build::ReadingKind::Height) heights.push_back(id);
    for (const auto id : heights) b.readings[id].setup = b.setups.begin()->first;
    const auto now = analysis::analyse(b, 1);
    const auto untold = withCode(now, "tape.setup-untold");
    REQUIRE(untold.size() == 1);
    CHECK(untold[0]->sentence == "Nothing tells the plane floor from the chassis's own shape: it is the datum, taken as level.");
    const auto line = analysis::cardFor(b, now, build::the_chassis, fmt::format("setup:{}", b.setups.begin()->first.value));
    REQUIRE(line);
    CHECK(line->title == "plane floor");
    CHECK(line->rows[0].value == "taken as level: no reading shows how it leans");
    const auto moved = analysis::cardFor(b, r, build::the_chassis, "since");
    REQUIRE(moved);
    CHECK(moved->rows[0].label == "Dl");
    CHECK(moved->rows[0].strong);
    // three pads held tell it
    type(b, "hold Al z 480");
    type(b, "hold Ar z 483");
    type(b, "hold El z 525");
    CHECK(withCode(analysis::analyse(b, 1), "tape.setup-untold").empty());
}

TEST_CASE("what is not told is asked for", "[analysis][demo]") {
    build::Build b = demo();
    CHECK(withCode(analysis::analyse(b, 1), "stretch.crossings-not-told").empty());
    CHECK(withCode(analysis::analyse(b, 1), "work.hazards-not-told").empty());
    b.crossings.clear();
    b.work.fuel_tank = build::Presence::Unknown;
    const auto r = analysis::analyse(b, 1);
    REQUIRE(withCode(r, "stretch.crossings-not-told").size() == 1);
    REQUIRE(withCode(r, "work.hazards-not-told").size() == 1);
    CHECK(withCode(r, "work.hazards-not-told")[0]->sentence == "Nothing is said about fuel-tank: the order takes it as there.");
}

TEST_CASE("a reading that was taken again and says the same is not asked for a third time", "[analysis][demo]") {
    build::Build b = demo();
    auto r = analysis::analyse(b, 1);
    REQUIRE(withCode(r, "tape.retape").size() == 1);
    CHECK(withCode(r, "tape.retape")[0]->remedy == "Tape Bl–Dr again.");
    type(b, "retape Bl Dr 1701.5");
    r = analysis::analyse(b, 1);
    REQUIRE(withCode(r, "tape.retape").size() == 1);
    CHECK(withCode(r, "tape.retape")[0]->remedy.find("says the same: take a reading that crosses it") != std::string::npos);
    CHECK_FALSE(r.work_facts.survey_open.empty()); // and what is built on it stays shut
}

TEST_CASE("a hold point that refuses is a finding, and opens when the readings agree", "[analysis][work][demo]") {
    build::Build b = demo();
    type(b, "retape Bl Dr 1691.5");
    for (int guard = 0; guard < 40; ++guard) {
        const auto r = analysis::analyse(b, 1);
        const auto& next = r.work->steps[*r.work->next];
        if (next.code == "before-cutting") break;
        INFO(next.waits_for);
        REQUIRE(next.open());
        type(b, next.hot ? "done note Kim watched" : "done");
    }
    auto r = analysis::analyse(b, 1);
    const auto checks = r.work->find("before-cutting")->checks; // a copy: the results are made anew below
    REQUIRE(checks.size() == 10);
    const auto read = [&](size_t i, double off) {
        const auto& c = checks[i];
        type(b, std::string("check ") + (c.level ? "level " : "") + build::nameOf(b, c.from) + " " + build::nameOf(b, c.to) +
                    " " + units::fixed(c.plan_mm + off, 1) + " mm");
    };
    read(0, 1);
    read(1, -6);
    read(2, 0.5);
    for (size_t i = 3; i < checks.size(); ++i) read(i, 0.3);
    r = analysis::analyse(b, 1);
    const auto found = withCode(r, "work.hold-refuses");
    REQUIRE(found.size() == 1);
    CHECK(found[0]->figure == "6.0 mm");
    CHECK(found[0]->need == "3.0 mm");
    CHECK(found[0]->sentence.find("6.0 mm too short: the hold point stays shut") != std::string::npos);
    read(1, -1);
    // all diagonals agree, and the rear stands twisted
    const double twisted = checks.back().level->left ? -20 : 20;
    read(checks.size() - 1, twisted);
    r = analysis::analyse(b, 1);
    REQUIRE_FALSE(withCode(r, "work.hold-refuses").empty()); // the pair, and the rail between its ends
    CHECK(withCode(r, "work.hold-refuses")[0]->sentence.find("twisted by ") != std::string::npos);
    read(checks.size() - 1, 0.3);
    r = analysis::analyse(b, 1);
    CHECK(withCode(r, "work.hold-refuses").empty());
    REQUIRE(r.work->find("before-cutting")->open());
    type(b, "done before-cutting");
    // a plan that changes afterwards is noticed at the gate that was passed; the readings of that time are kept
    CHECK(withCode(analysis::analyse(b, 1), "work.hold-overtaken").empty());
    type(b, "tolerance 0.4");
    CHECK_FALSE(withCode(analysis::analyse(b, 1), "work.hold-overtaken").empty());
}

TEST_CASE("pins wait for the ground, mounts and crossmember for what they stand on", "[analysis][demo]") {
    build::Build b = demo();
    b.axles.front.reset();
    auto r = analysis::analyse(b, 1);
    CHECK(withCode(r, "sit.pin-waits").size() == 3); // the two sill heights and the nose
    CHECK(withCode(r, "sit.pin-waits")[0]->sentence.find("type the tyre radii") != std::string::npos);
    b = demo();
    b.readings.clear();
    r = analysis::analyse(b, 1);
    CHECK(withCode(r, "make.mount-waits").size() == 6);
    CHECK(withCode(r, "make.crossmember-waits").size() == 1);
    CHECK(withCode(r, "sit.pin-waits").size() == b.pins.size());
}

TEST_CASE("findings are sorted: by bench, the worst first", "[analysis][demo]") {
    build::Build b = demo();
    type(b, "cut 1000");
    type(b, "biscuit 60");
    const auto r = analysis::analyse(b, 1);
    for (size_t i = 1; i < r.findings.size(); ++i) {
        const auto& before = r.findings[i - 1];
        const auto& f = r.findings[i];
        CHECK(analysis::placeOf(before.bench()) <= analysis::placeOf(f.bench()));
        if (before.bench() == f.bench()) CHECK(before.severity >= f.severity);
    }
    const auto worst = analysis::worstOf(r.findings, "make");
    CHECK(worst.severity == sheet::Severity::Bad);
    // six mounts too high for their gap, the crossmember's nuts in the sleeve; a brace that comes forward into the crossmember
    // and before its bolts, and through a shaft
    std::map<std::string, int> bad;
    for (const auto& f : r.findings)
        if (f.bench() == "make" && f.severity == sheet::Severity::Bad) ++bad[f.code];
    CHECK(bad == std::map<std::string, int>{{"make.mount-gap-short", 6},
                                            {"make.crossmember-bolts-in-sleeve", 1},
                                            {"make.part-fouls", 3},
                                            {"make.bolt-bottoms", 2},
                                            {"make.bolt-trapped", 2}});
    CHECK(worst.count == 14);
}

TEST_CASE("the remedy works: moving the cut as far as it says clears the finding", "[analysis][demo]") {
    build::Build b = demo();
    type(b, "cut 1150");
    auto r = analysis::analyse(b, 1);
    REQUIRE(withCode(r, "stretch.near").size() == 1);
    const std::string remedy = withCode(r, "stretch.near")[0]->remedy;
    INFO(remedy);
    REQUIRE(remedy.find("Move the cut ") == 0);
    CHECK(remedy.find("rearward") != std::string::npos);
    const double by = std::stod(remedy.substr(std::string("Move the cut ").size()));
    type(b, "cut " + units::fixed(1150 + by, 1));
    r = analysis::analyse(b, 2);
    CHECK(withCode(r, "stretch.near").empty());
    CHECK(r.stretch->verdict != build::PlanVerdict::Fails);
}

} // namespace analysis_findings_test
