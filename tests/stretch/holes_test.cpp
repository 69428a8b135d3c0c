// Holes of the rails and dents that start their folding, beside what is cut and welded: both sides of each limit.
#include "analysis/holes.hpp"
#include "analysis/scans.hpp"
#include "entry/typist.hpp"
#include "frame/section.hpp"
#include "stretch/holes.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace stretch_holes_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;
using stretch::HoleInput;
using stretch::HolePlan;

namespace {

Dimension mm(double v) { return Dimension{v, "", Provenance::Measured}; }

/// A hole of 30 in the outer web of a box of 100 x 60 x 4, at 1240; cut at 1500 and nothing taken out, a sleeve 200 each way.
HoleInput bush() {
    HoleInput in;
    in.hole.name = "bush";
    in.hole.station = mm(1240);
    in.hole.across = mm(30);
    in.height_mm = 100;
    in.width_mm = 60;
    in.wall_mm = 4;
    in.cut = std::pair{1500.0, 1500.0};
    in.sleeve_mm = 200;
    return in;
}
const Remark* said(const HolePlan& p, const std::string& code) {
    for (const Remark& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}
PlanVerdict verdictOf(const HoleInput& in, const std::string& code) {
    const HolePlan p = stretch::holePlan(in);
    const Remark* r = said(p, code);
    return r ? r->verdict : PlanVerdict::Holds;
}

} // namespace

TEST_CASE("what a hole leaves of a rail: by hand, and against the section cut open wall by wall", "[stretch][holes]") {
    HoleInput in = bush();
    // sharp corners by hand: a web loses t d³ / 12
    const double level = (60 * std::pow(100, 3) - 52 * std::pow(92, 3)) / 12;
    CHECK(stretch::netShare(in.hole, 100, 60, 4, false) == Approx(1 - 4 * std::pow(30, 3) / 12 / level).epsilon(0.002));
    // off its middle it costs more
    in.hole.up = mm(80);
    CHECK(stretch::netShare(in.hole, 100, 60, 4, false) ==
          Approx(1 - (4 * std::pow(30, 3) / 12 + 4 * 30 * 30 * 30) / level).epsilon(0.01));
    // a flange loses most
    in.hole.wall = RailWall::Bottom;
    in.hole.up.reset();
    const double flange = stretch::netShare(in.hole, 100, 60, 4, false);
    CHECK(flange == Approx(1 - 4 * 30 * 48 * 48 / level).epsilon(0.03));
    CHECK(flange < 0.9);
    // the same as a section of walls with a gap in the lower one, bent up and down about the gross middle
    double gross = 0, net = 0;
    for (const auto& [y0, z0, y1, z1] : {std::array{-28.0, 48.0, 28.0, 48.0},
                                         {-28.0, -48.0, 28.0, -48.0},
                                         {28.0, -48.0, 28.0, 48.0},
                                         {-28.0, -48.0, -28.0, 48.0}}) {
        const double length = std::hypot(y1 - y0, z1 - z0), own = 4 * length * (z1 - z0) * (z1 - z0) / 12;
        gross += own + 4 * length * std::pow((z0 + z1) / 2, 2);
    }
    net = gross - 4 * 30 * 48 * 48;
    CHECK(flange == Approx(net / gross).epsilon(0.03));
    in.hole.across = mm(52);
    CHECK(stretch::netShare(in.hole, 100, 60, 4, false) == 0); // from radius to radius
}

TEST_CASE("a hole beside a weld, under a sleeve, in what comes out: limits from both sides", "[stretch][holes]") {
    HoleInput in = bush();
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Holds);
    CHECK(*stretch::holePlan(in).weld_mm == Approx(260 - 15));
    CHECK(stretch::holePlan(in).weld_need_mm == 30);
    // its edge and the weld: 30, as large as itself
    in.hole.station = mm(1500 - 15 - 30.1);
    CHECK(verdictOf(in, "hole-weld") == PlanVerdict::Holds);
    in.hole.station = mm(1500 - 15 - 29.9);
    CHECK(verdictOf(in, "hole-weld") == PlanVerdict::Fails);
    in.hole.across = mm(10); // a small one: 25
    in.hole.station = mm(1500 - 5 - 25.1);
    CHECK(verdictOf(in, "hole-weld") == PlanVerdict::Holds);
    in.hole.station = mm(1500 - 5 - 24.9);
    CHECK(verdictOf(in, "hole-weld") == PlanVerdict::Fails);
    // welded shut first and made again, it may stand there; moved, where it comes to is looked at
    in.hole.fate = HoleFate::Restore;
    CHECK(verdictOf(in, "hole-weld") == PlanVerdict::Holds);
    in.hole.fate = HoleFate::Move;
    in.hole.moved_to = mm(1500 + 5 + 24.9);
    CHECK(verdictOf(in, "hole-move") == PlanVerdict::Fails);
    in.hole.moved_to = mm(1500 + 5 + 25.1);
    CHECK(verdictOf(in, "hole-move") == PlanVerdict::Holds);
    // under the sleeve
    in = bush();
    in.hole.station = mm(1301);
    CHECK(verdictOf(in, "hole-covered") == PlanVerdict::Marginal);
    in.hole.station = mm(1299);
    CHECK(verdictOf(in, "hole-covered") == PlanVerdict::Holds);
    in.hole.station = mm(1301);
    in.hole.fate = HoleFate::Keep;
    CHECK(verdictOf(in, "hole-covered") == PlanVerdict::Holds);
    // a piece comes out: 1500 to 1640
    in = bush();
    in.cut->second = 1640;
    in.hole.station = mm(1600);
    CHECK(verdictOf(in, "hole-out") == PlanVerdict::Fails);
    in.hole.fate = HoleFate::Ask;
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Marginal);
    in.hole.fate = HoleFate::Move;
    in.hole.moved_to = mm(1620);
    CHECK(verdictOf(in, "hole-move") == PlanVerdict::Fails);
    in.hole.moved_to = mm(1800);
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Holds);
    // behind a plate
    in = bush();
    in.shut = {{1000, 1400}};
    CHECK(verdictOf(in, "hole-covered") == PlanVerdict::Marginal);
    in.hole.wall = RailWall::Top;
    CHECK(verdictOf(in, "hole-covered") == PlanVerdict::Holds);
}

TEST_CASE("what bears beside a hole: held against it, or said that it is not known", "[stretch][holes]") {
    HoleInput in = bush();
    const double net = stretch::netShare(in.hole, 100, 60, 4, false);
    in.may_mpa = 140;
    in.stress_mpa = 0.99 * 140 * net;
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Holds);
    CHECK(*stretch::holePlan(in).stress_mpa == Approx(0.99 * 140));
    in.assumed = {"the springs' rates"};
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Marginal);
    in.assumed.clear();
    in.stress_mpa = 1.01 * 140 * net;
    CHECK(verdictOf(in, "hole-net") == PlanVerdict::Fails);
    in.stress_mpa.reset();
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Holds); // it takes next to nothing
    in.hole.wall = RailWall::Bottom;
    CHECK(verdictOf(in, "hole-net-unsaid") == PlanVerdict::Marginal);
    in.hole.across = mm(15);
    CHECK(verdictOf(in, "hole-net-unsaid") == PlanVerdict::Holds);
}

TEST_CASE("a dent that starts the rail's folding: nothing near it without an engineer", "[stretch][holes]") {
    HoleInput in = bush();
    in.hole.kind = HoleKind::Initiator;
    in.hole.along = mm(20);
    // the sleeve ends at 1300; three heights from it, less half the dent
    in.hole.station = mm(1300 - 310.1);
    CHECK(verdictOf(in, "hole-crash") == PlanVerdict::Holds);
    in.hole.station = mm(1300 - 309.9);
    CHECK(verdictOf(in, "hole-crash") == PlanVerdict::Fails);
    in.hole.fate = HoleFate::Ask;
    CHECK(verdictOf(in, "hole-crash") == PlanVerdict::Marginal);
    in.hole.station = mm(0); // far from all
    CHECK(stretch::holePlan(in).verdict == PlanVerdict::Holds);
    for (const HoleFate fate : {HoleFate::Move, HoleFate::Restore}) { // never by hand
        in.hole.fate = fate;
        in.hole.moved_to = mm(100);
        CHECK(verdictOf(in, "hole-crash") == PlanVerdict::Fails);
    }
    in.hole.fate = HoleFate::Keep;
    in.shut = {{-100, 200}}; // a plate over it
    CHECK(verdictOf(in, "hole-crash") == PlanVerdict::Fails);
}

TEST_CASE("holes from their lines: listed, found, printed, drilled anew", "[stretch][holes][analysis]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line :
         {"change -142", "cut 1250", "rail-hole bush at 1300 across 30 outer note brake bush",
          "rail-hole slot at 700 across 20 along 60 bottom left", "rail-hole fold at -480 across 60 along 20 initiator"})
        t.type(line);
    const auto has = [](const analysis::Results& r, const std::string& code) {
        return std::any_of(r.findings.begin(), r.findings.end(), [&](const analysis::Finding& f) { return f.code == code; });
    };
    auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.stretch->status == stretch::Status::Planned);
    CHECK(has(r, "stretch.hole-out"));
    CHECK_FALSE(has(r, "stretch.hole-crash"));
    CHECK_FALSE(r.work->find("holes-anew"));
    t.type("rail-hole bush move 1700");
    r = analysis::analyse(t.b, 2);
    CHECK_FALSE(has(r, "stretch.hole-out"));
    REQUIRE(r.work->find("holes-anew"));
    CHECK(r.work->find("holes-anew")->title.find("bush at 1700") != std::string::npos);
    const auto list = analysis::holesList(t.b, r, the_chassis);
    REQUIRE(list.rows.size() == 3);
    CHECK(list.rows[0].cells[0].text == "fold"); // by station
    CHECK(analysis::holePages(t.b, r).size() == 1);
    const auto json = nlohmann::json::parse(analysis::holesJson(t.b, r));
    CHECK(json["holes"][1]["name"] == "slot");
    CHECK(json["holes"][1]["net_share"].get<double>() < 1);
    // with loads, what bears beside it
    for (const char* line :
         {"member front crossmember at -300 box 60 60 3", "member rear crossmember at 2300 box 60 60 3",
          "member tail crossmember at 3000 box 60 60 3", "load cab 500 kg at 1300 0 800 over 1500 source scales"})
        t.type(line);
    r = analysis::analyse(t.b, 3);
    REQUIRE(analysis::makeSlow(t.b, r, {analysis::slow::frame}, [](const auto&, const auto&) { return Result<void>{}; }));
    const auto holes = analysis::workedHoles(t.b, r);
    REQUIRE(holes[1].plan.stress_mpa);
    CHECK(*holes[1].plan.stress_mpa > *holes[1].input.stress_mpa);
    // what can't be
    CHECK(t.wrong("rail-hole other at 900").message.find("How big") != std::string::npos);
    CHECK(t.wrong("rail-hole other across 30").message.find("station") != std::string::npos);
    CHECK(t.wrong("rail-hole slot sideways").message.find("sideways") != std::string::npos);
    t.type("remove rail-hole slot");
    CHECK(t.b.rail_holes.size() == 2);
}

TEST_CASE("two joined pieces: each joint is a weld, and what lies beyond either comes off", "[stretch][holes][analysis]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line : {"subject clip component", "subject tailpiece component", "graft nose front-clip of clip at 400",
                             "graft tail rear-frame of tailpiece at 2800", "rail-hole a at 380 across 30 outer",
                             "rail-hole b at 430 across 30 outer", "rail-hole c at 2770 across 30 outer",
                             "rail-hole d at 2900 across 30 outer", "rail-hole e at 1500 across 30 outer"})
        t.type(line);
    const auto r = analysis::analyse(t.b, 1);
    const auto holes = analysis::workedHoles(t.b, r);
    REQUIRE(holes.size() == 5);
    for (const auto& [k, code] : {std::pair{0, "hole-out"}, {1, "hole-weld"}, {3, "hole-weld"}, {4, "hole-out"}}) {
        INFO(holes[static_cast<std::size_t>(k)].input.hole.name);
        CHECK(said(holes[static_cast<std::size_t>(k)].plan, code));
    }
    CHECK(holes[2].plan.remarks.empty());
}

} // namespace stretch_holes_test
