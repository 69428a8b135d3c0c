// All steel once, whoever plans it: pieces, plates and seams of the demo builds against what each bench works out by itself.
#include "analysis/frame.hpp"
#include "analysis/let_in.hpp"
#include "analysis/parts.hpp"
#include "analysis/steel.hpp"
#include "analysis/width.hpp"
#include "entry/typist.hpp"
#include "make/crossmember.hpp"
#include "make/flat_sheet.hpp"
#include "make/part_sheet.hpp"
#include "store/store.hpp"
#include "stretch/spine_sheet.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

#include <numeric>
#include <set>

namespace analysis_steel_test {

using namespace gorvet;
using namespace gorvet::analysis;

namespace {

struct Worked {
    build::Build build;
    Results results;
};
Worked workedOut(const std::string& demo) {
    auto store = store::Store::open(test::demoBuild(test::freshFolder("steel-" + demo), demo));
    REQUIRE(store);
    Worked w{(*store)->build(), {}};
    w.results = analyse(w.build, 1);
    return w;
}
std::vector<const make::FlatPiece*> flatsOf(const std::vector<SteelThing>& all, const std::string& tag) {
    std::vector<const make::FlatPiece*> flats;
    for (const SteelThing& t : all)
        if (t.tag == tag)
            for (const make::FlatPiece& f : t.flats) flats.push_back(&f);
    return flats;
}
double massOf(const std::vector<SteelThing>& all, const std::string& tag, bool bars) {
    double kg = 0;
    for (const SteelThing& t : all) {
        if (t.tag != tag) continue;
        for (const SteelBar& bar : t.bars) kg += bars ? bar.count * bar.mass_kg : 0;
        for (const make::FlatPiece& f : t.flats) kg += bars ? 0 : f.count * f.mass_kg;
    }
    return kg;
}
double seamsOf(const Results& r, const std::string& tag) {
    double length = 0;
    for (const make::WeldSeam& s : r.welds.input().seams)
        if (s.tag == tag) length += s.length_mm;
    return length;
}

} // namespace

TEST_CASE("a flat piece from its pattern: as it lies, with holes, openings and bends", "[make][steel][closed-form]") {
    using namespace sheet;
    Drawing d;
    d.width = 100;
    d.height = 60;
    const Pen pen{Ink::Ink, 0.35, Dash::Solid};
    // drawn y down: its slanted corner is at the top left
    d.add(Stroke{{{20, 0}, {100, 0}, {100, 60}, {0, 60}, {0, 20}}, true, pen}, "outline");
    d.add(Circle{{80, 10}, 5, pen}, "hole");
    d.add(Stroke{{{40, 30}, {60, 30}, {60, 40}, {40, 40}}, true, pen}, "window");
    d.add(Stroke{{{0, 50}, {100, 50}}, false, pen}, "bend");
    const make::FlatPiece flat = flatFrom(d, "piece", 4, 2);
    CHECK(geometry::areaOf(flat.outline) == Approx(100 * 60 - 200)); // > 0: anticlockwise
    CHECK_FALSE(geometry::isInside(flat.outline, {5, 55}));          // the slanted corner stays at its top left
    CHECK(geometry::isInside(flat.outline, {5, 5}));
    REQUIRE(flat.holes.size() == 1);
    CHECK(flat.holes[0].at == geometry::Flat{80, 50});
    CHECK(flat.holes[0].diameter_mm == 10);
    REQUIRE(flat.windows.size() == 1);
    CHECK(geometry::areaOf(flat.windows[0]) == Approx(200));
    REQUIRE(flat.bends.size() == 1);
    CHECK(flat.bends[0].from.second == 10);
    CHECK(flat.mass_kg == Approx(make::steelMass(4 * (5800 - 200 - 78.539816))));
    CHECK(flat.count == 2);
}

TEST_CASE("fish plates: long edges as long as they count, points beyond", "[make][steel][closed-form]") {
    stretch::FishPlate plate;
    plate.height_mm = 80;
    plate.length_mm = 400;
    const auto o = stretch::fishPlateOutline(plate);
    CHECK(geometry::areaOf(o) == Approx(80 * 400 + 2 * 0.5 * 80 * 40));
    double along = 0; // what the fillets along both long edges have
    for (std::size_t k = 0; k < o.size(); ++k) {
        const auto &a = o[k], &b = o[(k + 1) % o.size()];
        if (a.second == b.second) along += std::abs(b.first - a.first);
    }
    CHECK(along == Approx(2 * plate.length_mm));
}

TEST_CASE("demo 2: plates, ribs, the tail's crossmember, sleeves and fish plates stand on the cut list", "[make][steel][demo]") {
    const auto [b, r] = workedOut("drover_long");
    const auto all = steelThings(b, r);
    const auto planned = plannedPlates(b, r);
    REQUIRE(planned.size() >= 2);
    for (const frame::ClosingPlate& p : planned) {
        INFO(p.name);
        const auto flats = flatsOf(all, "member:" + p.name);
        REQUIRE(flats.size() == 1);
        CHECK(flats[0]->count == p.count);
        const auto [w, h] = make::flatSize(*flats[0]);
        CHECK(w == Approx(p.length_mm));
        CHECK(h == Approx(p.height_mm));
        CHECK(flats[0]->holes.size() == p.holes_mm.size());
        CHECK(flats[0]->windows.size() == p.windows_mm.size());
        // a closing plate is welded all round on both rails
        if (p.corner_mm == 0) CHECK(seamsOf(r, "member:" + p.name) == Approx(p.count * geometry::perimeterOf(flats[0]->outline)));
    }
    const auto tail = std::find_if(all.begin(), all.end(), [](const SteelThing& t) { return t.tag == "member:tail-new"; });
    REQUIRE(tail != all.end());
    REQUIRE(tail->bars.size() == 1);
    // open rails, 760 from middle to middle, 55 wide, of 3.5: from web to web
    CHECK(tail->bars[0].length_mm == Approx(760 + 55 - 2 * 3.5).margin(3));
    CHECK(seamsOf(r, "member:tail-new") == Approx(2 * 2 * (80 + 60)));
    std::set<std::string> names;
    for (const CutRow& row : cutRows(b, r)) {
        INFO(row.piece);
        CHECK(names.insert(row.piece).second); // none twice
    }
    for (const char* piece : {"inner sleeve", "fish plate", "new rail piece left", "new rail piece right"})
        CHECK(names.contains(piece));
    // what is bought is what is cut
    double bars = 0, bought = 0;
    for (const SteelThing& t : all)
        for (const SteelBar& bar : t.bars) bars += bar.stock.empty() ? bar.count * bar.length_mm : 0;
    for (const work::SteelNeed& n : steelNeeds(b, r)) bought += n.form == build::StockForm::Plate ? 0 : n.count * n.length_mm;
    CHECK(bought == Approx(bars));
    CHECK(bars > 0);
}

TEST_CASE("demo 4: saddle, covers, floor edges and their outriggers: Make's pieces weigh what Stretch says",
          "[make][steel][demo]") {
    const auto [b, r] = workedOut("dulcie");
    const auto all = steelThings(b, r);
    REQUIRE(r.stretch->spine);
    const stretch::SpinePlan& s = *r.stretch->spine;
    std::set<std::string> of_spine;
    for (const make::FlatPiece* f : flatsOf(all, "sleeve")) {
        of_spine.insert(f->name);
        if (f->name != "saddle") continue;
        CHECK(geometry::areaOf(f->outline) == Approx(s.saddle_long_mm * s.saddle_blank_mm));
        CHECK(f->holes.size() == stretch::saddleHoles(s).size());
        CHECK(f->bends.size() == 2);
    }
    CHECK(of_spine.contains("saddle"));
    CHECK(of_spine.contains("strip below the spine"));
    CHECK(of_spine.contains("new piece of a pan"));
    CHECK(of_spine.contains("cover of window 1") == !s.windows.empty());
    const auto edges = workedWidth(b, r).edges;
    REQUIRE(edges.size() == 2);
    for (const WorkedEdge& e : edges) {
        INFO(e.edge.name);
        REQUIRE(e.plan.missing.empty());
        const std::string tag = "floor-edge:" + e.edge.name;
        CHECK(massOf(all, tag, true) == Approx(e.plan.outriggers_kg).epsilon(0.03));
        CHECK(massOf(all, tag, false) == Approx(e.plan.strip_kg).epsilon(0.03));
        CHECK(seamsOf(r, tag) == Approx(static_cast<double>(e.plan.outriggers.size()) * 2 * (60 + 40)));
    }
    // one spine: its joint is welded once
    int joints = 0;
    for (const make::WeldSeam& seam : r.welds.input().seams) joints += seam.what == "where it is joined again" ? 1 : 0;
    CHECK(joints == 1);
    for (const WorkedLetIn& l : workedLetIns(b, r)) {
        if (!l.plan.missing.empty()) continue;
        INFO(l.row.name);
        const auto t = std::find_if(all.begin(), all.end(), [&](const SteelThing& x) { return x.tag == "let-in:" + l.row.name; });
        REQUIRE(t != all.end());
        CHECK(t->bars[0].mass_kg == Approx(l.plan.rail_kg).epsilon(0.01));
    }
}

TEST_CASE("demo 1: its own crossmember's mass, by pieces and by plan", "[make][steel][demo]") {
    const auto [b, r] = workedOut("petrel_on_tern");
    const auto all = steelThings(b, r);
    double kg = 0;
    for (const SteelThing& t : all)
        if (t.tag == "crossmember") {
            for (const SteelBar& bar : t.bars) kg += bar.count * bar.mass_kg;
            for (const make::FlatPiece& f : t.flats) kg += f.count * f.mass_kg;
        }
    CHECK(kg == Approx(r.crossmember->mass_kg).epsilon(0.005));
    int nuts = 0; // each of them is counted
    for (const CutRow& row : cutRows(b, r)) nuts += row.piece == "crossmember: captive nut" ? row.count : 0;
    CHECK(nuts == static_cast<int>(r.crossmember->left.holes.size() + r.crossmember->right.holes.size()));
    double seams = 0; // every part's seams are in the plan, or what joins it to the car is said not to be welded
    for (const auto& node : r.parts)
        for (const make::Seam& seam : node->seams) seams += seam.on_car ? 0 : seam.length_mm;
    double planned = 0;
    for (const make::WeldSeam& seam : r.welds.input().seams)
        if (seam.tag.starts_with("part:") && !seam.on_car) planned += seam.length_mm;
    CHECK(planned == Approx(seams));
}

TEST_CASE("a wall that was measured elsewhere is a guess under a foot, and so is a metal that nobody called mild",
          "[make][wall]") {
    entry_tests::Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line : {"yield 235", "point Ba 1500 -390 450", "coordinates Ba 1500 -390 450", "point Bb 1500 390 450",
                             "coordinates Bb 1500 390 450", "part b1 brace at Ba Bb across 40 wall 3 load 1000"})
        t.type(line);
    const auto known = [&](const char* line) {
        if (*line) t.type(line);
        const auto r = analyse(t.b, 1);
        REQUIRE(r.parts.size() == 1);
        const bool guess = std::any_of(r.parts[0]->remarks.begin(), r.parts[0]->remarks.end(),
                                       [](const auto& remark) { return remark.code == "part-guess"; });
        CHECK(guess == !r.parts[0].input().wall_known);
        return r.parts[0].input().wall_known;
    };
    CHECK_FALSE(known("")); // the rail's 4 mm were measured somewhere
    CHECK(known("part b1 upon mild thick 3.2"));
    CHECK(analyse(t.b, 1).parts[0].input().left.thickness_mm == 3.2); // and by that it is judged
    CHECK_FALSE(known("part b1 upon mild thick 3.2 ?"));
    CHECK_FALSE(known("part b1 upon aluminium thick 3.2"));
}

TEST_CASE("as made, a part is what came out: its neighbours meet that, and what it was to be stands beside it", "[make][part]") {
    entry_tests::Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line :
         {"point Ba 1500 -390 450", "coordinates Ba 1500 -390 450", "point Bb 1500 390 450", "coordinates Bb 1500 390 450",
          "point Ca 1550 -390 450", "coordinates Ca 1550 -390 450", "point Cb 1550 390 450", "coordinates Cb 1550 390 450",
          "part b1 brace at Ba Bb across 40 wall 3", "part b2 brace at Ca Cb across 40 wall 3"})
        t.type(line);
    const auto stand = [](const Results& r) { return r.fouls->size(); };
    const auto said = [](const Results& r) {
        return std::count_if(r.findings.begin(), r.findings.end(), [](const Finding& f) { return f.code == "make.part-made"; });
    };
    const Results planned = analyse(t.b, 1);
    CHECK(stand(planned) == 0); // 10 mm between them
    CHECK(said(planned) == 0);
    t.type("part b1 made across 66 made wall 5");
    const Results out = analyse(t.b, 1);
    CHECK(stand(out) == 1); // 3 mm of the one in the other
    CHECK(said(out) == 1);  // its wall is within 2 mm
    const auto& in = out.parts.front().input();
    CHECK(in.figures.at("across").value == 66);
    CHECK(in.figures.at("wall").value == 5);
    CHECK(*plannedFigure(*build::steelPartNamed(t.b, "b1"), "across") == 40);
    CHECK(out.parts.front()->mass_kg > 2 * planned.parts.front()->mass_kg);
    const auto finding =
        std::find_if(out.findings.begin(), out.findings.end(), [](const Finding& f) { return f.code == "make.part-made"; });
    CHECK(finding->sentence == "b1 came out with its across 26.0 mm more than it was to be.");
    CHECK(finding->remedy.find("part b1 across 66;") != std::string::npos);
    // angles and numbers in their own words
    CHECK(partFigureWords(build::PartUnit::Angle, 0.0872665, units::LengthStep::Mm01).find("5.0") == 0);
    CHECK(partFigureWords(build::PartUnit::Count, 3, units::LengthStep::Mm01) == "3");
    CHECK(partUnitOf(*build::steelPartNamed(t.b, "b1"), "load") == build::PartUnit::Newton);
    // a guess of how it came out is a guess
    t.type("part b2 made across 40.5 ?");
    const auto guessed = analyse(t.b, 1).parts.back().input().assumed;
    CHECK(std::count(guessed.begin(), guessed.end(), "its across as made") == 1);
    // it is forgotten again by a new plan of it, or by taking it back
    t.type("part b1 made across 41");
    CHECK(stand(analyse(t.b, 1)) == 0);
}

} // namespace analysis_steel_test
