#include "stretch/stretch.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace stretch_stretch_test {

using namespace gorvet;
using build::PlanVerdict;

namespace {

build::RailLine rail(double side, double slope = 0) {
    build::RailLine r;
    for (const double x : {-500.0, 600.0, 1400.0, 3200.0}) r.points.push_back({x, side * 440, 500 - x * std::tan(slope)});
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}

stretch::Input level(double change, double slope = 0) {
    stretch::Input in;
    in.left = rail(-1, slope);
    in.right = rail(1, slope);
    in.change_mm = change;
    in.cut_station_mm = 1200;
    in.front_axle_mm = 0;
    in.rear_axle_mm = 2790;
    in.obstacles = {{"ahead", "body mount", 850}, {"behind", "body mount", 1750}}; // where nobody looked nothing is good
    in.butt_counts = true;                                                         // the joint's strength has its own tests
    for (size_t i = 0; i < build::Words<build::CrossingKind>::text.size(); ++i)
        in.runners.push_back({static_cast<build::CrossingKind>(i), build::Presence::Absent, {}, {}, {}});
    return in;
}

bool remarks(const stretch::Plan& p, const std::string& code) {
    for (const auto& r : p.remarks)
        if (r.code == code) return true;
    return false;
}

} // namespace

TEST_CASE("shortening a level rail", "[stretch][closed-form]") {
    const auto p = stretch::plan(level(-140));
    REQUIRE(p.status == stretch::Status::Planned);
    CHECK(p.shortens);
    // between the cut lines: the change and one root gap; kerfs lie in the piece that comes out
    CHECK(p.left.length_mm == Approx(142));
    CHECK(p.left.first_station_mm == 1200);
    CHECK(p.left.last_station_mm == Approx(1342));
    CHECK(p.shift.x_mm == -140);
    CHECK(p.shift.z_mm == Approx(0));
    REQUIRE(p.sleeve);
    CHECK(p.sleeve->height_mm == Approx(100 - 8 - 2));
    CHECK(p.sleeve->width_mm == Approx(60 - 8 - 2));
    CHECK(p.sleeve->overlap_mm == Approx(200));
    CHECK(p.sleeve->length_mm == Approx(402));
    CHECK(p.clearance_need_mm == Approx(150));
    CHECK(p.verdict == PlanVerdict::Holds);
}

TEST_CASE("what is left of the rail after cutting and welding is what was wanted", "[stretch][property]") {
    for (const double slope_deg : {0.0, 2.0, -7.5})
        for (const double change : {-400.0, -33.0, 60.0, 500.0}) {
            auto in = level(change, units::radians(slope_deg));
            in.kerf_mm = 1.2;
            in.root_gap_mm = 2.5;
            const auto p = stretch::plan(in);
            const double c = std::cos(units::radians(slope_deg));
            // walk along the rail: cut, take out or put in, weld with its gaps
            const double before = 1000;
            const double after = change < 0 ? before - p.left.length_mm + in.root_gap_mm                   // one joint
                                            : before - in.kerf_mm + p.left.length_mm + 2 * in.root_gap_mm; // one cut, two joints
            CHECK((after - before) * c == Approx(change).margin(1e-9));
            CHECK(p.shift.z_mm == Approx(-change * std::tan(units::radians(slope_deg))).margin(1e-9));
            if (change > 0) CHECK(p.sleeve->length_mm >= p.left.length_mm + 2 * p.sleeve->overlap_mm);
        }
}

TEST_CASE("obstacles nearer than 1.5 rail heights, 150 mm at least", "[stretch]") {
    auto in = level(-140);
    in.obstacles = {{"G", "gearbox mount", 1051},
                    {"M", "body mount", 1300},
                    {"X", "crossmember", 1342 + 149},
                    {"S", "suspension point", 1342 + 151}};
    auto p = stretch::plan(in);
    REQUIRE(p.near.size() == 6);
    CHECK(p.near[0].obstacle.name == "M"); // in the piece that comes out
    CHECK(p.near[0].verdict == PlanVerdict::Fails);
    CHECK(p.near[0].distance_mm == Approx(-42));
    CHECK(p.near[1].obstacle.name == "G");
    CHECK(p.near[1].distance_mm == Approx(149));
    CHECK(p.near[1].verdict == PlanVerdict::Marginal);
    CHECK(p.near[2].verdict == PlanVerdict::Marginal);
    CHECK(p.near[3].verdict == PlanVerdict::Holds);
    CHECK(p.verdict == PlanVerdict::Fails);
    // a taller rail needs more
    in.left.height_mm = in.right.height_mm = 140;
    p = stretch::plan(in);
    CHECK(p.clearance_need_mm == Approx(210));
    CHECK(p.near[3].verdict == PlanVerdict::Marginal);
    // lengthening takes nothing out: an obstacle at the cut is near, not lost
    auto longer = level(200);
    longer.obstacles = {{"M", "body mount", 1200}};
    CHECK(stretch::plan(longer).near[0].verdict == PlanVerdict::Marginal);
}

TEST_CASE("remarks", "[stretch]") {
    auto in = level(-140);
    in.heat_treated = true;
    CHECK(remarks(stretch::plan(in), "heat-treated"));
    CHECK(stretch::plan(in).verdict == PlanVerdict::Fails);
    in = level(-140);
    in.cut_station_mm = -100;
    CHECK(remarks(stretch::plan(in), "outside-wheelbase"));
    in = level(-140, units::radians(5));
    CHECK(remarks(stretch::plan(in), "kick-up"));
    in = level(30);
    CHECK(remarks(stretch::plan(in), "short-piece"));
    in = level(-140);
    in.right.points.clear();
    CHECK(remarks(stretch::plan(in), "one-rail"));
    in = level(-140);
    in.sleeve_fit_mm = 2.5;
    CHECK(remarks(stretch::plan(in), "sleeve-fit"));
    in.sleeve_fit_mm = 1;
    in.overlap_heights = 1.2;
    CHECK(remarks(stretch::plan(in), "sleeve-overlap"));
    in = level(-140);
    in.assumed = {"rail thickness"};
    CHECK(remarks(stretch::plan(in), "section-assumed"));
    CHECK(stretch::plan(in).verdict == PlanVerdict::Marginal);
    in = level(-140);
    in.change_u95_mm = 5;
    CHECK(remarks(stretch::plan(in), "change-uncertain"));
    in = level(-140);
    in.right = rail(1, units::radians(1));
    CHECK(remarks(stretch::plan(in), "unlike-slopes"));
}

TEST_CASE("what it waits for", "[stretch]") {
    auto in = level(-140);
    in.cut_station_mm.reset();
    CHECK(stretch::plan(in).status == stretch::Status::Waiting);
    CHECK(stretch::plan(in).waiting_for == "a cut station on the rail");
    in.change_mm.reset();
    CHECK(stretch::plan(in).waiting_for.find("change of wheelbase") != std::string::npos);
    in.change_mm = 0.2;
    CHECK(stretch::plan(in).status == stretch::Status::NoChange);
    in = level(-140);
    in.left.points.clear();
    in.right.points.clear();
    CHECK(stretch::plan(in).waiting_for.find("rail points") != std::string::npos);
    in = level(-140);
    in.left.height_mm = in.right.height_mm = 0;
    CHECK_FALSE(stretch::plan(in).sleeve); // no section, no sleeve
    in = level(-140);
    in.channel = true;
    CHECK(stretch::plan(in).sleeve->width_mm == Approx(60 - 4 - 1)); // one web
}

} // namespace stretch_stretch_test
