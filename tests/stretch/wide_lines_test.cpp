// How wide a chassis is made and what is let in, from typed lines to findings, JSON, pages, files and steps of work.
#include "analysis/let_in.hpp"
#include "analysis/width.hpp"
#include "entry/typist.hpp"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace stretch_wide_lines_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

bool found(const analysis::Results& r, const std::string& code) {
    return std::any_of(r.findings.begin(), r.findings.end(), [&](const analysis::Finding& f) { return f.code == code; });
}
void place(Typist& t, const char* name, const char* role, double x, double y, double z) {
    t.type(fmt::format("point {} {} {} {} {}", name, role, x, y, z));
    t.type(fmt::format("coordinates {} {} {} {}", name, x, y, z));
}

} // namespace

TEST_CASE("a ladder made narrower: rails, mounts, wheels, seat, stiffness and work follow", "[stretch][width][analysis]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    place(t, "Ml", "body-mount", 800, -560, 500);
    place(t, "Mr", "body-mount", 800, 560, 500);
    place(t, "Sl", "suspension", 100, -470, 450);
    place(t, "Sr", "suspension", 100, 470, 450);
    t.type("member front crossmember at 300 box 60 40 3");
    t.type("member back crossmember at 2400 tube 60 3");
    const auto before = analysis::analyse(t.b, 1);
    t.type("narrow by 100 at 200");
    const auto r = analysis::analyse(t.b, 2);
    CHECK(r.planned_left.at(1000)->y_mm == Approx(-370).margin(0.2));
    CHECK(r.planned_right.at(1000)->y_mm == Approx(370).margin(0.2));
    CHECK(r.planned_left.at(1000)->y_mm - before.planned_left.at(1000)->y_mm == Approx(50));
    CHECK(r.planned_chassis.front_track_mm == Approx(100)); // arms at 470 come in whole
    // the seat's chassis is as narrow: wheels, too
    const sit::Input& in = r.seat.input();
    REQUIRE(in.front_left >= 0);
    CHECK(in.chassis.at[static_cast<std::size_t>(in.front_left)].y_mm == Approx(-650).margin(0.2));
    const auto w = analysis::workedWidth(t.b, r);
    REQUIRE(w.narrow);
    REQUIRE(w.narrow->members.size() == 2); // between the rails' inner faces
    CHECK(w.narrow->members[0].now_mm == Approx(840 - 60).margin(0.4));
    CHECK(w.narrow->members[0].then_mm == Approx(680).margin(0.4));
    CHECK(found(r, "stretch.narrow-tube"));
    CHECK(found(r, "stretch.narrow-steering"));
    CHECK_FALSE(found(r, "stretch.narrow-arms"));
    // a leaf-sprung axle stays as wide as it is, and its perches with it
    t.type("springs front leaf");
    auto leaf = analysis::analyse(t.b, 3);
    CHECK(leaf.planned_chassis.front_track_mm == 0);
    CHECK(found(leaf, "stretch.narrow-perches"));
    CHECK_FALSE(found(leaf, "stretch.narrow-steering"));
    t.type("track front faces 1400 perches 940 perches-wanted 840 wanted 1400 pinion 0");
    leaf = analysis::analyse(t.b, 4);
    CHECK_FALSE(found(leaf, "stretch.narrow-perches"));
    t.type("remove track front");
    t.type("springs front unsaid");
    // the steel spans less: a straight crossmember is stiffer the shorter it is, and the frame twists the less for it
    const auto& order = *r.work;
    REQUIRE(order.find("narrow-slit"));
    CHECK(order.find("narrow-slit")->no_return);
    REQUIRE(order.find("narrow-weld"));
    CHECK(order.find("narrow-weld")->before_return.size() > 2);
    CHECK(order.find("narrow-before")->conditions.front().met);
    CHECK(analysis::widthPages(t.b, r).size() == 1);
    const auto json = nlohmann::json::parse(analysis::widthJson(t.b, r));
    CHECK(json["narrower"]["by_mm"] == 100);
    CHECK(json["narrower"]["axles"].size() == 2);
    CHECK(json["narrower"]["measures"][0]["u95_mm"].get<double>() > 0);
    // both marks on the strip: it can't be worked to
    t.type("narrow at 440");
    const auto shut = analysis::analyse(t.b, 5);
    CHECK(found(shut, "stretch.narrow-strip"));
    CHECK_FALSE(shut.work->find("narrow-before")->conditions.front().met);
    t.type("remove narrow");
    CHECK(analysis::analyse(t.b, 6).planned_left.points == before.planned_left.points);
    // what can't be
    CHECK(t.wrong("narrow by 100").message.find("slit is missing") != std::string::npos);
    CHECK(t.wrong("narrow at 200").message.find("how much") != std::string::npos);
    CHECK(t.wrong("remove narrow").message.find("not made narrower") != std::string::npos);
    CHECK(t.refused("narrow by 40 at 200 lap 40").find("on each other") != std::string::npos);
}

TEST_CASE("a wheel's scan, taped hubs and a pin to a wheel come in with an axle that is made narrower",
          "[stretch][width][analysis]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    t.type("track rear faces 1400 wanted 1300 pinion 0");
    const auto r = analysis::analyse(t.b, 1);
    const sit::Input& in = r.seat.input();
    CHECK(in.chassis.at[static_cast<std::size_t>(in.rear_left)].y_mm == Approx(-650).margin(0.2));
    CHECK(in.chassis.at[static_cast<std::size_t>(in.front_left)].y_mm == Approx(-700).margin(0.2));
}

TEST_CASE("a floor reaches out to a seated body's sill, and to one that was taken over", "[stretch][width][analysis]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    place(t, "Hl", "none", 0, -600, 520);
    place(t, "Jl", "none", 2000, -640, 520);
    t.type("floor-edge left from Al Bl Cl to Hl Jl sheet 1.5 lap 20 upstand 25");
    auto r = analysis::analyse(t.b, 1);
    auto w = analysis::workedWidth(t.b, r);
    REQUIRE(w.edges.size() == 1);
    const auto width = [&](std::size_t k) { return w.edges[0].plan.stations.at(k).width; };
    REQUIRE(w.edges[0].plan.missing.empty());
    CHECK(width(0).value == Approx(600 - 450).margin(0.3)); // from the rail's outside
    CHECK(width(2).value == Approx(640 - 450).margin(0.3));
    CHECK(width(0).u95 > 0);
    CHECK(found(r, "stretch.edge-wide"));
    CHECK(w.edges[0].input.rail);
    // outriggers on a rail stand anywhere
    t.type("floor-edge left outriggers 60 40 4 pitch 700 carries 80");
    r = analysis::analyse(t.b, 2);
    CHECK_FALSE(found(r, "stretch.edge-root"));
    CHECK_FALSE(found(r, "stretch.edge-wide"));
    CHECK(r.work->find("edge-arms-left"));
    CHECK(r.work->find("edge-strip-left"));
    const auto json = nlohmann::json::parse(analysis::widthJson(t.b, r));
    CHECK(json["floor_edges"][0]["outriggers"].size() == 4);
    CHECK(json["floor_edges"][0]["side"] == "left");
    // made narrower, the rail comes in and the taken-over sill stays: the strip is wider
    t.type("narrow by 60 at 200");
    r = analysis::analyse(t.b, 3);
    w = analysis::workedWidth(t.b, r);
    CHECK(width(0).value == Approx(600 - 420).margin(0.3));
    // of the body: it waits for a seat
    t.type("subject body");
    t.type("point Sl sill-front 0 -640 300");
    t.type("point Tl sill-rear 2000 -640 300");
    t.type("subject chassis");
    t.type("floor-edge left to Sl Tl");
    r = analysis::analyse(t.b, 4);
    CHECK(found(r, "stretch.edge-waits"));
    CHECK_FALSE(r.work->find("edge-before-left")->conditions.front().met);
    // what can't be
    CHECK(t.wrong("floor-edge other from Al Bl").message.find("sill") != std::string::npos);
    CHECK(t.refused("floor-edge other from Al to Hl Jl").find("two points") != std::string::npos);
    CHECK(t.refused("floor-edge left outriggers 30 60 15").find("no box") != std::string::npos);
    CHECK(t.wrong("floor-edge other from Al Bl to Hl Nl").message.find("Nl") != std::string::npos);
    CHECK(t.wrong("remove floor-edge nobody").message.find("no edge") != std::string::npos);
    t.type("remove floor-edge left");
    CHECK(t.b.floor_edges.empty());
}

TEST_CASE("a rail let in from its lines: surveyed, judged, found, and in the order of work", "[stretch][let-in][analysis]") {
    Typist t;
    t.type("frame monocoque");
    for (const auto& [name, x, z] :
         {std::tuple{"F", 800.0, 200.0}, {"R", 2300.0, 200.0}, {"G", 300.0, 200.0}, {"S", 2800.0, 200.0}})
        for (const int side : {-1, 1})
            place(t, fmt::format("{}{}", name, side < 0 ? 'l' : 'r').c_str(), "none", x, side * 400, z);
    t.type("let-in left from Fl to Rl section 90 60 3");
    auto r = analysis::analyse(t.b, 1);
    CHECK(found(r, "stretch.let-in-waits"));
    t.type("let-in left front-leg 84 54 2.5 rear-leg 84 54 2.5 floor 1.2 engage 240 yield 210");
    r = analysis::analyse(t.b, 2);
    CHECK(found(r, "stretch.let-in-way"));
    t.type("let-in left front-along Gl rear-along Sl");
    r = analysis::analyse(t.b, 3);
    const auto all = analysis::workedLetIns(t.b, r);
    REQUIRE(all.size() == 1);
    REQUIRE(all[0].plan.missing.empty());
    CHECK(all[0].plan.between.value == Approx(1500).margin(0.2));
    CHECK(all[0].input.assumed.empty());
    CHECK(all[0].plan.ends[0].turn);
    const auto json = nlohmann::json::parse(analysis::letInJson(t.b, r));
    CHECK(json["let_in"][0]["length_mm"].get<double>() == Approx(all[0].plan.length.value));
    CHECK(json["let_in"][0]["front"]["driven"] == true);
    CHECK(analysis::letInPages(t.b, r).size() == 1);
    REQUIRE(r.work->find("let-in-open-left"));
    CHECK(r.work->find("let-in-open-left")->no_return);
    t.type("let-in left driven rear");
    CHECK(analysis::workedLetIns(t.b, analysis::analyse(t.b, 4))[0].plan.ends[1].driven);
    // what can't be
    CHECK(t.refused("let-in left rear-leg 84 30 16").find("no box") != std::string::npos);
    CHECK(t.refused("let-in other from Fl to Fl section 90 60 3").find("same point") != std::string::npos);
    CHECK(t.wrong("let-in other from Fl").message.find("rear leg") != std::string::npos);
    CHECK(t.wrong("let-in other from Xl to Rl").message.find("Xl") != std::string::npos);
    t.type("remove let-in left");
    CHECK(t.b.let_in.empty());
}

} // namespace stretch_wide_lines_test
