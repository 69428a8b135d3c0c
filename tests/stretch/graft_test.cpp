// A piece of another frame: how its rails meet the chassis', what joins them, on both sides of each limit.
#include "analysis/frame.hpp"
#include "analysis/graft.hpp"
#include "analysis/scans.hpp"
#include "entry/typist.hpp"
#include "stretch/graft_input.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace stretch_graft_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;
using graft_tests::alike;
using stretch::GraftInput;
using stretch::GraftPlan;
using stretch::GraftWay;

namespace {

void lift(GraftInput& in, double by) {
    for (Vec3& p : in.piece.at) p.z_mm += by;
}
const Remark* said(const GraftPlan& p, const std::string& code) {
    for (const Remark& r : p.remarks)
        if (r.code == code) return &r;
    return nullptr;
}

} // namespace

TEST_CASE("alike and in line: a butt over a sleeve; smaller goes in, larger goes over, else a made box", "[stretch][graft]") {
    GraftInput in = alike();
    GraftPlan p = stretch::graftPlan(in);
    CHECK(p.missing.empty());
    CHECK(p.way == GraftWay::Sleeve);
    CHECK(p.sides[0].trim_mm == Approx(700 - 638)); // to the root gap of 2
    CHECK(p.overlap_mm == 200);
    CHECK(p.wheelbase->value == Approx(2600));
    CHECK(p.lever_mm == Approx(640));
    // both sides of what counts as in line
    lift(in, 1.4);
    CHECK(stretch::graftPlan(in).way == GraftWay::Sleeve);
    lift(in, 0.2);
    CHECK(stretch::graftPlan(in).way == GraftWay::Transition);
    // a piece that goes in: 92 × 52 inside
    in = alike();
    in.graft.height.value = 90;
    in.graft.width.value = 50;
    lift(in, -5); // tops 5 lower: middles alike
    p = stretch::graftPlan(in);
    CHECK(p.way == GraftWay::Inside);
    CHECK(p.sides[0].free_mm == Approx(1));
    CHECK(p.strip_mm == 0);
    CHECK(p.overlap_mm == 180);
    CHECK(p.sides[0].trim_mm == Approx(700 - 820)); // it would have to reach 180 past the joint
    REQUIRE(said(p, "graft-short"));
    CHECK(p.verdict == PlanVerdict::Fails);
    lift(in, 0.7);
    CHECK(stretch::graftPlan(in).way == GraftWay::Inside);
    lift(in, 0.1); // 0.2 left
    CHECK(stretch::graftPlan(in).way == GraftWay::Transition);
    in.graft.width.value = 46; // 3 a side: filled with strip
    lift(in, -0.8);
    p = stretch::graftPlan(in);
    CHECK(p.way == GraftWay::Inside);
    CHECK(p.strip_mm == 2);
    in.graft.width.value = 42; // 5 a side is too much
    CHECK(stretch::graftPlan(in).way == GraftWay::Transition);
    // a larger one goes over
    in = alike();
    in.graft.height.value = 110;
    in.graft.width.value = 70;
    lift(in, 5);
    p = stretch::graftPlan(in);
    CHECK(p.way == GraftWay::Over);
    CHECK(p.joint_modulus_mm3 == Approx(p.weaker_modulus_mm3));
    // an open one is boxed first
    in.graft.shape = RailShape::Channel;
    p = stretch::graftPlan(in);
    CHECK(p.way == GraftWay::Transition);
    CHECK(said(p, "graft-open"));
}

TEST_CASE("a made box: its length by the taper, its plates by hand", "[stretch][graft]") {
    GraftInput in = alike();
    in.graft.height.value = 80;
    in.graft.width.value = 50;
    in.graft.wall.value = 3;
    lift(in, 30); // its middle 40 over the chassis': tops 500 and 530
    GraftPlan p = stretch::graftPlan(in);
    CHECK(p.way == GraftWay::Transition);
    CHECK(p.sides[0].up_mm == Approx(40));
    CHECK(p.sides[0].step_mm == Approx(50)); // the lower faces: 400 and 450
    CHECK(p.transition_mm == 200);           // four times that
    CHECK(p.taper == Approx(4));
    CHECK_FALSE(said(p, "graft-steep"));
    CHECK(p.plate_mm == 4);
    CHECK(p.sides[0].trim_mm == Approx(700 - 440));
    REQUIRE(p.plates.size() == 8);
    const auto edge = [](const stretch::TransitionPlate& t, std::size_t a, std::size_t b) {
        return std::hypot(t.corners[a].first - t.corners[b].first, t.corners[a].second - t.corners[b].second);
    };
    // the top: 60 wide at the chassis, 50 at the piece, 200 along and 30 up
    const stretch::TransitionPlate& top = p.plates[0];
    CHECK(top.name == "left-top");
    CHECK(edge(top, 0, 1) == Approx(60));
    CHECK(edge(top, 2, 3) == Approx(50));
    CHECK(edge(top, 1, 2) == Approx(std::sqrt(200.0 * 200 + 30 * 30 + 5 * 5)));
    CHECK(top.fold_deg == Approx(0).margin(1e-6));
    double area = 0;
    for (std::size_t k = 0; k < 4; ++k) {
        const auto &a = top.corners[k], &b = top.corners[(k + 1) % 4];
        area += (a.first * b.second - b.first * a.second) / 2;
    }
    CHECK(std::abs(area) == Approx(55 * std::hypot(200, 30)));
    CHECK(top.corners[1].second == Approx(0).margin(1e-9)); // its first edge level
    // shorter is steeper, on both sides of both limits
    const auto verdict = [&](double length) {
        in.graft.transition = Dimension{length, "", Provenance::Measured};
        const GraftPlan q = stretch::graftPlan(in);
        const Remark* r = said(q, "graft-steep");
        return r ? r->verdict : PlanVerdict::Holds;
    };
    CHECK(verdict(201) == PlanVerdict::Holds);
    CHECK(verdict(199) == PlanVerdict::Marginal);
    CHECK(verdict(101) == PlanVerdict::Marginal);
    CHECK(verdict(99) == PlanVerdict::Fails);
    // a piece that also runs aside: a plate that is not flat is folded
    in.graft.transition.reset();
    for (std::size_t k : {0, 2}) in.piece.at[k].y_mm += 20;
    p = stretch::graftPlan(in);
    CHECK(p.sides[0].aside_mm == Approx(20));
    for (const auto& plate : p.plates) CHECK(plate.fold_deg < 1e-6); // rails that are not turned: all faces stay flat
}

TEST_CASE("short, turned, weak, and what else is said of a joint", "[stretch][graft]") {
    GraftInput in = alike();
    for (std::size_t k : {2, 3}) in.piece.at[k].x_mm = 639; // the end of its rails
    CHECK_FALSE(said(stretch::graftPlan(in), "graft-short"));
    for (std::size_t k : {2, 3}) in.piece.at[k].x_mm = 637;
    REQUIRE(said(stretch::graftPlan(in), "graft-short"));
    CHECK(said(stretch::graftPlan(in), "graft-short")->remedy.find("forward") != std::string::npos);
    // turned in plan, about the end
    const auto turned = [&](double degrees) {
        GraftInput t = alike();
        for (std::size_t k : {0, 1}) t.piece.at[k].y_mm += 1100 * std::tan(degrees * std::numbers::pi / 180);
        const GraftPlan p = stretch::graftPlan(t);
        const Remark* r = said(p, "graft-turn");
        return r ? r->verdict : PlanVerdict::Holds;
    };
    CHECK(turned(2.9) == PlanVerdict::Holds);
    CHECK(turned(3.1) == PlanVerdict::Marginal);
    CHECK(turned(9.9) == PlanVerdict::Marginal);
    CHECK(turned(10.2) == PlanVerdict::Fails);
    // what the wheel bends it by: m g n l / W
    in = alike();
    in.graft.transition = Dimension{200, "", Provenance::Measured};
    GraftPlan p = stretch::graftPlan(in);
    REQUIRE(p.stress_mpa);
    CHECK(*p.stress_mpa == Approx(300 * 9.81 * 3 * 640 / p.joint_modulus_mm3));
    CHECK(p.joint_modulus_mm3 == Approx(p.weaker_modulus_mm3));
    const double most = *in.wheel_kg * p.may_mpa / *p.stress_mpa;
    in.wheel_kg = 0.99 * most;
    CHECK_FALSE(said(stretch::graftPlan(in), "graft-weak"));
    in.wheel_kg = 1.01 * most;
    REQUIRE(said(stretch::graftPlan(in), "graft-weak"));
    CHECK(said(stretch::graftPlan(in), "graft-weak")->verdict == PlanVerdict::Fails);
    // thin plates: weaker than both rails. By weight it may do, without one it can't be said
    in.graft.plate = Dimension{3, "", Provenance::Measured};
    in.wheel_kg = 100;
    CHECK(said(stretch::graftPlan(in), "graft-weaker"));
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Marginal);
    in.wheel_kg.reset();
    p = stretch::graftPlan(in);
    REQUIRE(said(p, "graft-weak"));
    CHECK(said(p, "graft-unweighed"));
    // nothing assumed holds
    in = alike();
    in.graft.transition = Dimension{200, "", Provenance::Measured};
    in.wheel_kg = 100;
    REQUIRE(stretch::graftPlan(in).remarks.size() == 1); // nothing is wrong, and still it never holds by itself
    CHECK(said(stretch::graftPlan(in), "graft-welds"));
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Marginal);
    // points beside each other are no rail: no direction is made up from them
    GraftInput crooked = in;
    crooked.piece.at[0].x_mm = crooked.piece.at[2].x_mm;
    crooked.piece.at[0].y_mm -= 30;
    CHECK(stretch::graftPlan(crooked).missing.front().find("one behind the other") != std::string::npos);
    in.near = {{"crossmember C1", 80}};
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Marginal);
    in.near = {{"crossmember C1", -5}};
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Fails);
    in.near.clear();
    in.open = {"its height: pin one."};
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Fails);
    // a rear frame is the same from the other end
    in = alike();
    in.graft.kind = GraftKind::RearFrame;
    in.graft.joint.value = 1900;
    for (std::size_t k : {0, 1}) in.piece.at[k].x_mm = 3000;
    for (std::size_t k : {2, 3}) in.piece.at[k].x_mm = 1800;
    for (std::size_t k : {4, 5}) in.piece.at[k].x_mm = 2600;
    in.chassis.at = {{300, -420, 500}, {300, 420, 500}, {0, -720, 420}, {0, 720, 420}};
    p = stretch::graftPlan(in);
    CHECK(p.way == GraftWay::Sleeve);
    CHECK(p.sides[1].trim_mm == Approx(1902 - 1800));
    CHECK(p.wheelbase->value == Approx(2600));
    CHECK(p.lever_mm == Approx(700));
    // what it waits for, one thing after the other
    GraftInput empty;
    CHECK(stretch::graftPlan(empty).missing.size() == 6);
    in.graft.joint.value = 5000;
    CHECK(stretch::graftPlan(in).missing.front().find("within both rails") != std::string::npos);
}

TEST_CASE("a joint held against the frame: stress, weld and what tires it, on both sides of each limit", "[stretch][graft]") {
    GraftInput in = alike();
    in.graft.transition = Dimension{200, "", Provenance::Measured};
    in.frame.emplace();
    in.frame->stress_mpa = 100;
    in.frame->may_mpa = 140;
    in.frame->range_mpa = 20;
    in.frame->line = "left rail";
    in.frame->case_name = "bump";
    // bent up and down alone: the weld as a line, its modulus w h + h² / 3
    const double h = 100, w = 60, t = 4;
    const double bears = std::min(0.707 * t * 0.30 * 480, t * 0.40 * 210) / 1.5;
    const double most = bears * (w * h + h * h / 3);
    stretch::JointForces bent;
    bent.bends = 0.99 * most;
    in.frame->forces = {{"left rail", "bump", bent}};
    GraftPlan p = stretch::graftPlan(in);
    CHECK(p.remarks.empty());
    CHECK(p.verdict == PlanVerdict::Holds); // by the frame it may
    CHECK(*p.weld_share == Approx(0.99));
    in.frame->forces[0].forces.bends = 1.01 * most;
    REQUIRE(said(stretch::graftPlan(in), "graft-weld"));
    CHECK(said(stretch::graftPlan(in), "graft-weld")->verdict == PlanVerdict::Fails);
    // twist alone runs round the closed line, and adds to the rest at a right angle
    stretch::JointForces both;
    both.twist = 0.6 * bears * 2 * h * w;
    both.bends = 0.8 * most;
    in.frame->forces = {{"left rail", "rest", {}}, {"right rail", "lifted", both}};
    p = stretch::graftPlan(in);
    CHECK(*p.weld_share == Approx(1.0));
    in.frame->forces[1].forces.twist *= 1.02;
    REQUIRE(said(stretch::graftPlan(in), "graft-weld"));
    CHECK(said(stretch::graftPlan(in), "graft-weld")->sentence.find("lifted") != std::string::npos);
    in.frame->forces[1].forces = {};
    in.frame->stress_mpa = 139.9;
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Holds);
    in.frame->stress_mpa = 140.1;
    CHECK(said(stretch::graftPlan(in), "graft-frame")->verdict == PlanVerdict::Fails);
    in.frame->stress_mpa = 100;
    in.frame->range_mpa = 35.9;
    CHECK_FALSE(said(stretch::graftPlan(in), "graft-fatigue"));
    in.frame->range_mpa = 36.1;
    CHECK(said(stretch::graftPlan(in), "graft-fatigue")->verdict == PlanVerdict::Marginal);
    in.frame->range_mpa = 20;
    // thinner plates than both walls are what the weld is made on
    in.graft.plate = Dimension{3, "", Provenance::Measured};
    CHECK(said(stretch::graftPlan(in), "graft-weaker"));
    in.graft.plate.reset();
    in.frame->assumed = {"the springs' rates"};
    CHECK(stretch::graftPlan(in).verdict == PlanVerdict::Marginal);
    // a sleeve has less than the rail that the frame was worked out with: it bears so much more
    in = alike();
    in.frame.emplace();
    in.frame->may_mpa = 140;
    p = stretch::graftPlan(in);
    REQUIRE(p.way == GraftWay::Sleeve);
    const double share = p.joint_modulus_mm3 / p.weaker_modulus_mm3;
    REQUIRE(share < 0.9);
    in.frame->stress_mpa = 0.99 * 140 * share;
    CHECK_FALSE(said(stretch::graftPlan(in), "graft-frame"));
    in.frame->stress_mpa = 1.01 * 140 * share;
    CHECK(said(stretch::graftPlan(in), "graft-frame"));
}

TEST_CASE("the frame with a piece on it: one that is like what it replaces changes nothing; a weaker one does",
          "[stretch][graft][frame]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line :
         {"member front crossmember at -300 box 60 60 3", "member middle crossmember at 900 box 60 60 3",
          "member rear crossmember at 2300 box 60 60 3", "member tail crossmember at 3000 box 60 60 3",
          "load engine 200 kg at 0 0 500 over 400 source scales", "load cab 500 kg at 1300 0 800 over 1500 source scales"})
        t.type(line);
    t.type("subject clip component");
    for (const auto& [name, role, x, y, z] : {std::tuple{"P", "rail", -500, 420, 500},
                                              {"Q", "rail", 640, 420, 500},
                                              {"H", "front-hub", 0, 700, 400},
                                              {"K", "none", -300, 420, 450}})
        for (const int side : {-1, 1}) {
            const std::string point = fmt::format("{}{}", name, side < 0 ? 'l' : 'r');
            t.type(fmt::format("point {} {} {} {} {}", point, role, x, side * y, z));
            t.type(fmt::format("coordinates {} {} {} {}", point, x, side * y, z));
        }
    t.type("subject chassis");
    for (const char* line : {"graft nose front-clip of clip at 600", "graft nose rails 100 60 4 box top",
                             "graft nose pin station Hl Hr 0", "graft nose pin centred Hl Hr", "graft nose pin height Hl Hr 400",
                             "graft nose pin height Ql Qr 500", "member cradle crossmember through Kl Kr box 60 60 3 planned"})
        t.type(line);
    const auto worked = [&] {
        analysis::Results r = analysis::analyse(t.b, 1);
        const auto asked = analysis::frameAsked(t.b, r);
        INFO(asked.waits);
        REQUIRE(asked.waits.empty());
        REQUIRE(asked.planned);
        REQUIRE(analysis::makeSlow(t.b, r, {analysis::slow::frame}, [](const auto&, const auto&) { return Result<void>{}; }));
        REQUIRE(r.scans->frame->now);
        REQUIRE(r.scans->frame->planned);
        return r;
    };
    analysis::Results r = worked();
    const auto &now = *r.scans->frame->now, &then = *r.scans->frame->planned;
    CHECK(then.twist.held_nm_deg == Approx(now.twist.held_nm_deg).epsilon(0.005));
    CHECK(then.mass_kg == Approx(now.mass_kg).epsilon(0.005));
    REQUIRE(then.cases.size() == now.cases.size());
    for (std::size_t k = 0; k < now.cases.size(); ++k)
        for (std::size_t wheel = 0; wheel < 4; ++wheel)
            CHECK(then.cases[k].carry_n[wheel] == Approx(now.cases[k].carry_n[wheel]).epsilon(0.01).margin(5));
    const auto held = [&](const analysis::Results& results) { return analysis::workedGrafts(t.b, results).at(0); };
    REQUIRE(held(r).input.frame);
    CHECK(held(r).plan.weld_share);
    CHECK_FALSE(said(held(r).plan, "graft-welds"));
    // the section forces at the joint are those of the frame as it is, where nothing is otherwise
    const auto stressAt = [](const frame::Outcome& o, double station) {
        double most = 0;
        for (const frame::OfLine& line : o.lines)
            if (line.name == "left rail")
                for (std::size_t k = 1; k < line.places.size(); ++k)
                    if (line.places[k - 1].at.x_mm <= station && station <= line.places[k].at.x_mm)
                        most = std::max(line.places[k - 1].stress_mpa, line.places[k].stress_mpa);
        return most;
    };
    CHECK(stressAt(then, 600) == Approx(stressAt(now, 600)).epsilon(0.1));
    CHECK(*held(r).plan.stress_mpa < 1.1 * stressAt(now, 600));
    CHECK(*held(r).plan.stress_mpa > 0.7 * stressAt(now, 600));
    // asked again without a frame worked out: by the wheel alone, never by what was worked out for another piece
    t.type("graft nose rails 80 50 2 box top");
    analysis::Results stale = analysis::analyse(t.b, 2, &r);
    CHECK_FALSE(held(stale).input.frame);
    CHECK(said(held(stale).plan, "graft-welds"));
    r = worked();
    CHECK(r.scans->frame->planned->twist.held_nm_deg < 0.97 * r.scans->frame->now->twist.held_nm_deg);
    CHECK(r.scans->frame->planned->mass_kg < r.scans->frame->now->mass_kg - 3);
    // what stood on the end that comes off went with it; the piece's own crossmember is there only once it is joined
    const auto has = [](const frame::Outcome& o, const std::string& name) {
        return std::any_of(o.lines.begin(), o.lines.end(), [&](const frame::OfLine& l) { return l.name == name; });
    };
    CHECK(has(*r.scans->frame->now, "front"));
    CHECK_FALSE(has(*r.scans->frame->planned, "front"));
    CHECK(has(*r.scans->frame->planned, "cradle"));
    CHECK_FALSE(has(*r.scans->frame->now, "cradle"));
    // a load that no such joint bears fails, and says in which case
    t.type("load engine 4000 kg at 0 0 500 over 400 source scales");
    r = worked();
    CHECK(said(held(r).plan, "graft-frame"));
    CHECK(held(r).plan.verdict == PlanVerdict::Fails);
    CHECK(t.wrong("member odd crossmember through Kl Al box 60 60 3").message.find("two points") != std::string::npos);
}

TEST_CASE("a front clip from its lines: surveyed, pinned, joined, found, and in the order of work",
          "[stretch][graft][analysis]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    t.type("subject clip component");
    for (const auto& [name, role, x, y, z] :
         {std::tuple{"A", "rail", -600, 400, 480}, {"B", "rail", 900, 400, 480}, {"F", "front-hub", -150, 690, 380}})
        for (const int side : {-1, 1}) {
            const std::string point = fmt::format("{}{}", name, side < 0 ? 'l' : 'r');
            t.type(fmt::format("point {} {} {} {} {}", point, role, x, side * y, z));
            t.type(fmt::format("coordinates {} {} {} {}", point, x, side * y, z));
        }
    t.type("subject chassis");
    const auto only = [&] {
        const auto r = analysis::analyse(t.b, 1);
        const auto all = analysis::workedGrafts(t.b, r);
        REQUIRE(all.size() == 1);
        return all.front();
    };
    t.type("graft nose front-clip of clip at 640");
    CHECK(only().waits.find("section") != std::string::npos);
    t.type("graft nose rails 90 50 4 box top");
    CHECK(only().waits.find("what sets it") != std::string::npos);
    t.type("graft nose pin station Fl Fr 0");
    t.type("graft nose pin centred Fl Fr");
    t.type("graft nose pin height Fl Fr 400");
    auto g = only();
    CHECK(g.waits.empty());
    CHECK(g.plan.verdict == PlanVerdict::Fails); // its nose may be high or low
    t.type("graft nose pin height Bl 500");
    g = only();
    REQUIRE(g.plan.missing.empty());
    CHECK(g.input.open.empty());
    CHECK(g.plan.wheelbase->value == Approx(2600).margin(0.01));
    CHECK(g.plan.way == GraftWay::Transition); // 20 beside it on each side
    CHECK(g.plan.sides[0].aside_mm == Approx(20).margin(0.2));
    CHECK(g.plan.sides[1].aside_mm == Approx(-20).margin(0.2));
    // by hand: a mark to the wheel centre across
    const auto& m = g.plan.measures.front();
    CHECK(m.name == "Cl to Fr");
    CHECK(m.mm == Approx(std::sqrt(3200.0 * 3200 + (690 + 420) * (690 + 420) + 100 * 100)).margin(0.5));
    // the same said again is changed, not added
    const std::size_t pins = t.b.graft_pins.size();
    t.type("graft nose pin station Fl Fr 30");
    CHECK(t.b.graft_pins.size() == pins);
    CHECK(only().plan.wheelbase->value == Approx(2570).margin(0.01));
    const auto r = analysis::analyse(t.b, 1);
    const auto has = [&](const std::string& code) {
        return std::any_of(r.findings.begin(), r.findings.end(), [&](const analysis::Finding& f) { return f.code == code; });
    };
    CHECK(has("stretch.graft-unweighed"));
    CHECK(analysis::graftPages(t.b, r).size() == 1);
    const auto json = nlohmann::json::parse(analysis::graftJson(t.b, r));
    CHECK(json["grafts"][0]["plates"].size() == 8);
    CHECK(json["grafts"][0]["pins"].size() == 4);
    REQUIRE(r.work->find("graft-weld-nose"));
    CHECK(r.work->find("graft-weld-nose")->no_return);
    CHECK(r.work->find("graft-weld-nose")->before_return.front().find("Cl to Fr") != std::string::npos);
    REQUIRE(r.work->find("graft-before-nose"));
    // a plan that fails shuts the saw; one that is marginal does not
    CHECK(r.work->find("graft-before-nose")->conditions.front().met == (only().plan.verdict != PlanVerdict::Fails));
    // what can't be
    CHECK(t.refused("graft nose pin station Cl 0").find("Cl") != std::string::npos);
    CHECK(t.refused("graft tail rear-frame of chassis at 2000").find("subject of its own") != std::string::npos);
    CHECK(t.refused("graft nose rails 40 40 20").find("does not fit") != std::string::npos);
    CHECK(t.refused("graft nose pin centred Fl Fr Bl").find("left and a right") != std::string::npos);
    CHECK(t.wrong("graft tail").message.find("missing") != std::string::npos);
    CHECK(t.wrong("graft tail front-clip of clip").message.find("cut for it") != std::string::npos);
    CHECK(t.wrong("graft tail front-clip at 640").message.find("subject") != std::string::npos);
    CHECK(t.wrong("remove graft tail").message.find("no piece") != std::string::npos);
    t.type("remove graft nose pin station");
    CHECK(t.b.graft_pins.size() == pins - 1);
    t.type("remove graft nose");
    CHECK(t.b.grafts.empty());
}

} // namespace stretch_graft_test
