// The graph on the demo build: benches called in order, results remembered, findings with their figures.
#include "analysis/bench.hpp"
#include "analysis/cards.hpp"
#include "analysis/results.hpp"
#include "analysis/scans.hpp"
#include "analysis/views.hpp"
#include "prompt/context.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <set>

namespace analysis_results_test {

using namespace gorvet;

namespace {

build::Build demo() {
    static const build::Build b = [] {
        const auto path = test::demoBuild(test::freshFolder("results-demo"));
        auto store = store::Store::open(path);
        REQUIRE(store);
        return (*store)->build();
    }();
    return b;
}

void type(build::Build& b, const std::string& line, build::SubjectId subject = build::the_chassis) {
    auto understood = entry::understand(b, {subject, {}, {}}, line);
    if (!understood) FAIL(understood.error().text());
    REQUIRE(build::enact(b, understood->edit));
}

const analysis::Finding* find(const analysis::Results& r, const std::string& code) {
    for (const auto& f : r.findings)
        if (f.code == code) return &f;
    return nullptr;
}

} // namespace

TEST_CASE("the demo build answers its question from reading to crossmember", "[analysis][demo]") {
    const build::Build b = demo();
    const auto r = analysis::analyse(b, 1);
    CHECK(r.seat->status == sit::Status::Seated);
    REQUIRE(r.seat->change_mm);
    CHECK(*r.seat->change_mm == Approx(-141).margin(4)); // arches 2650 apart on axles 2790 apart, hinge pin included
    CHECK(r.stretch->status == stretch::Status::Planned);
    CHECK(r.mounts.size() == 6);
    for (const auto& m : r.mounts) {
        CHECK(m.on_rail);
        CHECK(m.verdict != build::PlanVerdict::Fails);
    }
    // the script drilled the body for gaps of 37, 41.5 and 33: they come out within their ±, a little widened for the pins
    CHECK(r.mounts[0].gap_mm.value == Approx(37).margin(4));
    CHECK(r.mounts[1].gap_mm.value == Approx(41.5).margin(4));
    CHECK(r.mounts[2].gap_mm.value == Approx(33).margin(4));
    CHECK(r.crossmember->possible);
    const auto* retape = find(r, "tape.retape");
    REQUIRE(retape);
    CHECK(retape->subject == "Bl–Dr");
    CHECK(retape->station_mm);
    CHECK(find(r, "tape.diamond"));
    for (const auto& f : r.findings) {
        INFO(f.code);
        CHECK_FALSE(f.sentence.empty());
        CHECK_FALSE(f.word.empty());
        CHECK_FALSE(f.brief.empty());
    }
    CHECK(analysis::worstOf(r.findings, "tape").severity == sheet::Severity::Bad);
    CHECK(analysis::worstOf(r.findings, "stretch").severity == sheet::Severity::Warn); // slacks not measured
    CHECK(find(r, "stretch.crossing-slack"));
}

TEST_CASE("an edit on one bench shows on the others", "[analysis][demo]") {
    build::Build b = demo();
    const auto before = analysis::analyse(b, 1);
    type(b, "sill front 295");
    type(b, "sill rear 301");
    auto r = analysis::analyse(b, 2, &before);
    CHECK((r.mounts[0].gap_mm - before.mounts[0].gap_mm).value == Approx(10).margin(0.2)); // the body stands 10 higher
    CHECK(r.crossmember->mass_kg == before.crossmember->mass_kg);
    type(b, "change -100");
    r = analysis::analyse(b, 3, &r);
    CHECK(r.stretch->left.length_mm == Approx(102).margin(0.01));
    // the rails behind the cut, and with them the rear mounts' seat, moved less
    CHECK(r.planned_left.points.back().x_mm == Approx(r.rail_left.points.back().x_mm - 100));
    type(b, "cut 1600"); // into the old crossmember and a body mount
    r = analysis::analyse(b, 4, &r);
    const auto* in_piece = find(r, "stretch.in-the-piece");
    REQUIRE(in_piece);
    CHECK(in_piece->severity == sheet::Severity::Bad);
    CHECK(r.stretch->verdict == build::PlanVerdict::Fails);
}

TEST_CASE("remembered results are the same as new ones", "[analysis][demo]") {
    build::Build b = demo();
    auto previous = analysis::analyse(b, 1);
    const char* lines[] = {"cut 1300",      "isolator 40",      "hinge 558 tol 2", "tyre rear 350", "retape Bl Dr 1691.5",
                           "height Al 539", "mount M1l at 352", "tolerance 6"};
    for (const char* line : lines) {
        type(b, line);
        const auto remembered = analysis::analyse(b, 2, &previous);
        const auto fresh = analysis::analyse(b, 2);
        CHECK(remembered.chassis.solution->omega == fresh.chassis.solution->omega);
        CHECK(remembered.seat->pose == fresh.seat->pose);
        CHECK(remembered.stretch->left.length_mm == fresh.stretch->left.length_mm);
        CHECK(remembered.crossmember->mass_kg == fresh.crossmember->mass_kg);
        REQUIRE(remembered.findings.size() == fresh.findings.size());
        for (size_t i = 0; i < fresh.findings.size(); ++i) CHECK(remembered.findings[i].sentence == fresh.findings[i].sentence);
        previous = remembered;
    }
    CHECK_FALSE(find(previous, "tape.retape")); // it was taped again
}

TEST_CASE("unlike supports are said", "[analysis]") {
    build::Build b = demo();
    type(b, "session wednesday right-way-up wheels");
    type(b, "Al Br 1200");
    CHECK(find(analysis::analyse(b, 1), "tape.mixed-supports"));
}

TEST_CASE("an empty build is empty on every bench, with a first step", "[analysis]") {
    const build::Build b;
    const auto r = analysis::analyse(b, 1);
    CHECK(r.findings.empty());
    REQUIRE(analysis::benches().size() == 7);
    for (const analysis::BenchInfo* bench : analysis::benches()) {
        const auto h = bench->headline(b, r, build::the_chassis);
        CHECK_FALSE(bench->begun(b, r));
        CHECK_FALSE(h.sentence.empty());
        CHECK_FALSE(h.below.empty());
    }
    // Tape has its sketch: places to be marked, and none that is
    for (const auto& item : analysis::tapeView(b, r, build::the_chassis, {}, 900, 400, {}).items)
        CHECK((item.tag.empty() || item.tag.starts_with("ghost:")));
    for (const auto& d : {analysis::sitView(b, r, {}, 900, 400, {}), analysis::stretchView(b, r, {}, 900, 400, {}),
                          analysis::makeView(b, r, {}, 900, 400, {})})
        CHECK(d.items.empty());
    // Work has what every build begins with
    CHECK_FALSE(analysis::workView(b, r, {}, 900, 400, {}).items.empty());
    CHECK_FALSE(analysis::ruleView(b, r, {}, 900, 110, {}).items.empty());
}

TEST_CASE("everything that is drawn with a tag has a card", "[analysis][demo]") {
    const build::Build b = demo();
    const auto r = analysis::analyse(b, 1);
    std::set<std::string> tags;
    for (const auto& d :
         {analysis::tapeView(b, r, build::the_chassis, {}, 900, 400, {}), analysis::sitView(b, r, {}, 900, 400, {}),
          analysis::stretchView(b, r, {}, 900, 400, {}), analysis::makeView(b, r, {}, 900, 400, {}),
          analysis::workView(b, r, {}, 900, 400, {}), analysis::ruleView(b, r, {}, 1280, 110, {})})
        for (const auto& item : d.items)
            if (!item.tag.empty()) tags.insert(item.tag);
    CHECK(tags.size() > 200);
    for (const auto& tag : tags) {
        if (tag == "next" || tag == "body-edge" || tag == "findings") continue; // a proposal, a handle, a list
        INFO(tag);
        const auto card = analysis::cardFor(b, r, build::the_chassis, tag);
        REQUIRE(card);
        CHECK_FALSE(card->title.empty());
        // what a card offers can be typed
        for (const auto& action : card->actions) {
            if (action.asks && action.current.empty()) continue;
            if (action.picks_photo || action.photo) continue; // its hash comes from the file that is picked
            const auto understood = entry::understand(b, prompt::contextFor(r, build::the_chassis, "M.", "2026-03-01T08:00:00Z"),
                                                      action.line + action.current);
            INFO(action.line + action.current);
            if (!understood) INFO(understood.error().text());
            CHECK(understood);
        }
    }
    CHECK_FALSE(analysis::cardFor(b, r, build::the_chassis, "reading:99999"));
    CHECK_FALSE(analysis::cardFor(b, r, build::the_chassis, "unicorn"));
}

TEST_CASE("drawings stay on their sheet at every size", "[analysis][demo]") {
    const build::Build b = demo();
    const auto r = analysis::analyse(b, 1);
    const auto size =
        GENERATE(std::pair{1224.0, 430.0}, std::pair{900.0, 500.0}, std::pair{1000.0, 420.0}, std::pair{1700.0, 900.0});
    const auto [w, h] = size;
    for (const auto& d :
         {analysis::tapeView(b, r, build::the_chassis, {}, w, h, {}), analysis::tapeView(b, r, build::the_body, {}, w, h, {}),
          analysis::sitView(b, r, {}, w, h, {}), analysis::stretchView(b, r, {}, w, h, {}),
          analysis::makeView(b, r, {}, w, h, {}), analysis::workView(b, r, {}, w, h, {})}) {
        const auto e = sheet::extent(sheet::flatten(d));
        CHECK(e.left >= -8);
        CHECK(e.top >= -8);
        CHECK(e.right <= w + 40); // by rough text widths
        CHECK(e.bottom <= d.height + 12);
        CHECK(d.width == w);
        CHECK(d.height >= h); // what needs more is scrolled
    }
}

TEST_CASE("clearances of a seating are stale when anything of how the body is let down changed", "[analysis][demo]") {
    // the range of the kick and the zone of the floor were forgotten: a seating kept anew showed old clearances
    build::Build b = demo();
    type(b, "lower kick 30 from 900 to 2000");
    type(b, "seating keep low");
    analysis::Results r = analysis::analyse(b, 1);
    const auto asked = [&] {
        r = analysis::analyse(b, 1, &r);
        return analysis::seatingsAsked(r);
    };
    const auto before = asked();
    CHECK(asked() == before);
    const auto kept = b.seatings.rbegin()->first;
    b.seatings[kept].lowering.kick_from.value = 1000;
    const auto moved = asked();
    CHECK(moved != before);
    b.seatings[kept].lowering.kick_to.value = 2100;
    const auto longer = asked();
    CHECK(longer != moved);
    b.seatings[kept].lowering.floor = "pan";
    CHECK(asked() != longer);
}

TEST_CASE("a node is made anew only from another input, and copies share what was made", "[analysis][graph]") {
    int made = 0;
    const auto twice = [&](int in) {
        ++made;
        return 2 * in;
    };
    using Twice = analysis::Node<int, int>;
    Twice none;
    CHECK_FALSE(none.made());
    CHECK(*none == 0);
    const Twice four = Twice::of(2, nullptr, twice);
    CHECK(*four == 4);
    const Twice same = Twice::of(2, &four, twice);
    CHECK(made == 1);
    CHECK(same.share() == four.share());
    CHECK(*Twice::of(3, &same, twice) == 6);
    CHECK(made == 2);
    // stopped: not made, and the one of before is untouched
    const Twice stopped = Twice::of(5, &same, [](int) -> std::optional<int> { return std::nullopt; });
    CHECK_FALSE(stopped.made());
    CHECK(*same == 4);
    const Twice waits = Twice::waiting(7);
    CHECK_FALSE(waits.made());
    CHECK(*waits == 7);
}

TEST_CASE("an edit makes anew only the nodes that take from what it changed", "[analysis][graph]") {
    build::Build b = demo();
    const analysis::Results r = analysis::analyse(b, 1);
    b.rail.thickness.value += 1;
    const analysis::Results walls = analysis::analyse(b, 2, &r);
    CHECK(walls.chassis.solution.share() == r.chassis.solution.share());
    CHECK(walls.chassis.next.share() == r.chassis.next.share());
    CHECK(walls.seat.share() == r.seat.share());
    CHECK(walls.seatings.trade_offs.share() == r.seatings.trade_offs.share());
    CHECK(walls.stretch.share() != r.stretch.share());
    CHECK(walls.crossmember.share() != r.crossmember.share());
    type(b, "want twist");
    const analysis::Results wants = analysis::analyse(b, 3, &walls);
    CHECK(wants.chassis.condition.share() == walls.chassis.condition.share());
    CHECK(wants.chassis.next.share() != walls.chassis.next.share());
    CHECK(wants.stretch.share() == walls.stretch.share());
    CHECK(wants.work.share() == walls.work.share());
}

TEST_CASE("a variant is worked out beside its build, and shares what it does not touch", "[analysis][graph]") {
    const build::Build b = demo();
    const analysis::Results r = analysis::analyse(b, 1);
    build::Stretch other = b.stretch;
    other.wheelbase_change = build::Dimension{-100, "-100", build::Provenance::Derived};
    const auto v = analysis::variantOf(b, r, {"another wheelbase", {build::Set<build::Stretch>{other}}});
    REQUIRE(v);
    CHECK(*v->results.stretch.input().change_mm == -100);
    CHECK(v->results.chassis.solution.share() == r.chassis.solution.share());
    CHECK(*r.stretch.input().change_mm != -100);
    // the same as if it had been decided so
    build::Build decided = b;
    decided.stretch = other;
    const analysis::Results alone = analysis::analyse(decided, 1);
    CHECK(alone.findings.size() == v->results.findings.size());
    CHECK(alone.stretch->left.length_mm == v->results.stretch->left.length_mm);
    // one that can't be says why
    build::Pin nowhere;
    nowhere.id = build::PinId{b.next_id};
    nowhere.points = {build::PointId{99999}};
    CHECK_FALSE(analysis::variantOf(b, r, {"no such point", {build::Put<build::Pin>{nowhere}}}));
}

TEST_CASE("no mount holds under a body whose height no pin decides", "[analysis][demo]") {
    build::Build b = demo();
    const auto before = analysis::analyse(b, 1);
    CHECK(std::any_of(before.mounts.begin(), before.mounts.end(),
                      [](const auto& m) { return m.verdict == build::PlanVerdict::Holds; }));
    erase_if(b.pins,
             [](const auto& row) { return row.second.kind == build::PinKind::Height || row.second.kind == build::PinKind::Up; });
    const auto r = analysis::analyse(b, 2);
    REQUIRE(r.seat->status == sit::Status::Underdetermined);
    REQUIRE(r.mounts.size() == before.mounts.size());
    for (const auto& m : r.mounts) CHECK(m.verdict != build::PlanVerdict::Holds);
    CHECK(std::any_of(r.mounts.begin(), r.mounts.end(),
                      [](const auto& m) { return m.sentence.find("no pin decides how the body stands") != std::string::npos; }));
}

} // namespace analysis_results_test
