#include "make/crossmember.hpp"
#include "make/crossmember_strength.hpp"
#include "make/make_sheet.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace make_crossmember_test {

using namespace gorvet;
using build::PlanVerdict;

namespace {

make::CrossmemberInput straight() {
    make::CrossmemberInput in;
    for (const double side : {-1.0, 1.0}) {
        build::RailLine r;
        r.points = {{0, side * 450, 490}, {3000, side * 450, 490}};
        r.height_mm = 100;
        r.width_mm = 60;
        r.thickness_mm = 4;
        (side < 0 ? in.left : in.right) = r;
    }
    in.gearbox_mount = {1050, 12, 509};
    in.design.isolator_mm = 38;
    in.design.box_height_mm = 50;
    return in;
}
bool remarks(const make::CrossmemberPlan& p, const std::string& code) {
    for (const auto& r : p.remarks)
        if (r.code == code) return true;
    return false;
}

} // namespace

TEST_CASE("section area and mass against closed forms", "[make][closed-form]") {
    // 60 × 40 × 3 with outside radius 6, inside 3: by rectangles and quarter circles
    const double outer = 60 * 40 - (4 - units::pi) * 36;
    const double inner = 54 * 34 - (4 - units::pi) * 9;
    CHECK(make::boxArea(40, 60, 3) == Approx(outer - inner));
    // the published value of such a section is 5.41 cm²
    CHECK(make::boxArea(40, 60, 3) == Approx(541).margin(3));
    CHECK(make::steelMass(1e9) == Approx(7850)); // a cubic metre
}

TEST_CASE("a bridge between straight rails, by hand", "[make][closed-form]") {
    const auto p = make::crossmember(straight());
    REQUIRE(p.possible);
    CHECK(p.station_mm == 1050);
    CHECK(p.between_rails_mm == Approx(2 * (450 - 30)));
    CHECK(p.box_length_mm == Approx(840 - 2 * (8 + 1)));
    CHECK(p.box_long_edge_mm == Approx(p.box_length_mm));
    CHECK(p.pad_top_mm == Approx(509 - 38));
    CHECK(p.box_top_mm == Approx(465));
    CHECK(p.box_bottom_mm == Approx(415));
    // flange: rows clear of twice the wall and a washer's radius
    REQUIRE(p.left.holes.size() == 4);
    const double low_edge = p.box_bottom_mm - p.left.box_bottom_mm;
    for (const auto& h : p.left.holes) {
        const double z = low_edge + h.z_mm;
        CHECK((std::abs(z - (490 - 20)) < 1e-6 || std::abs(z - (390 + 20)) < 1e-6));
        CHECK(h.diameter_mm == 13.5);
        CHECK(h.x_mm - h.diameter_mm / 2 > 1.0 * 12 * 0.9); // steel left at the edge
    }
    CHECK(p.left.rail_top_mm == Approx(490 - low_edge));
    // bolt through the whole rail: 8 + 60 + washers 5 + nut 10.8 + threads 5.25 = 89.05
    CHECK(*p.bolt_length_mm == 90);
    CHECK(p.bolt_free_mm == Approx(840 - 16));
    double sum = 0;
    for (const auto& piece : p.pieces) sum += piece.mass_kg;
    CHECK(p.mass_kg == Approx(sum));
    CHECK(p.pieces[0].mass_kg == Approx(make::boxArea(50, 60, 3) * p.box_length_mm * 7850e-9));
    // nobody said what stands on it, and the verdict says so
    CHECK(remarks(p, "load"));
    CHECK(p.verdict == PlanVerdict::Marginal);
    CHECK(p.remarks.size() == 1);
}

TEST_CASE("what a bridge bears, by hand; every limit on both sides", "[make][closed-form]") {
    auto in = straight();
    in.gearbox_mount.y_mm = 0;
    in.design.box_height_mm = 40;
    in.design.load_N = 3000;
    in.design.load_known = in.design.yield_known = true;
    in.design.yield_mpa = 235;
    const auto strength = [&](double load) {
        in.design.load_N = load;
        return make::bridgeStrength(in, make::crossmember(in));
    };
    // 840 between the rails: 3000 × 840/4 up and down, a third of it fore and aft, the mount's underside 38 + 6 + 20 over its
    // axis. Published of 60 × 40 × 3: 6.72 and 8.46 cm³; the cell 57 × 37; two walls of 34 × 3
    const double up = 3000 * 840 / 4 / 6720.0, fore = 1000 * 840 / 4 / 8460.0;
    const double twist = 1000 * 64 / 2 / (2 * 57 * 37 * 3.0), sheared = 1500 / (2 * 34 * 3.0);
    const double mises = std::sqrt(std::pow(up + fore, 2) + 3 * std::pow(twist + sheared, 2));
    const auto s = strength(3000);
    CHECK(std::string(s.at) == "the bridge's middle");
    CHECK(s.stress_mpa == Approx(mises).epsilon(0.03));
    CHECK(s.most_mpa == Approx(235 / 1.5));
    CHECK(s.used == Approx(s.stress_mpa / s.most_mpa));
    // in proportion to the load, and Fails from where it is all taken
    const double most = 3000 / s.used;
    CHECK(strength(most).used == Approx(1));
    in.design.load_N = most * 0.999;
    CHECK_FALSE(remarks(make::crossmember(in), "strength"));
    CHECK_FALSE(remarks(make::crossmember(in), "load"));
    CHECK(make::crossmember(in).verdict == PlanVerdict::Holds);
    in.design.load_N = most * 1.001;
    CHECK(remarks(make::crossmember(in), "strength"));
    CHECK(make::crossmember(in).verdict == PlanVerdict::Fails);
    in.design.load_N = most * 0.999;
    in.design.yield_known = false;
    CHECK(remarks(make::crossmember(in), "strength-guess"));
    CHECK(make::crossmember(in).verdict == PlanVerdict::Marginal);
    // beside the middle less bends it
    in.design.yield_known = true;
    in.gearbox_mount.y_mm = 200;
    CHECK(strength(3000).stress_mpa < s.stress_mpa);
    // a stout box over a short way on thin bolts: they are what gives. 1.5 kN and 0.5 on four, and the twist on a rectangle of
    // them
    in.gearbox_mount.y_mm = 0;
    in.design.box_height_mm = in.design.box_width_mm = 80;
    in.design.box_wall_mm = 6;
    in.design.bolt_mm = 8;
    for (auto* r : {&in.left, &in.right})
        for (auto& q : r->points) q.y_mm = q.y_mm < 0 ? -150 : 150;
    const auto p = make::crossmember(in);
    const auto bolts = make::bridgeStrength(in, p);
    INFO(bolts.at);
    const auto &a = p.left.holes.front(), &b = p.left.holes.back();
    const double radius = std::hypot(a.x_mm - b.x_mm, a.z_mm - b.z_mm) / 2;
    const double load = *in.design.load_N, arm = 509 - (p.box_top_mm + p.box_bottom_mm) / 2;
    const double each = std::hypot(load / 2, load / 6) / 4 + load / 3 * arm / 2 / (4 * radius);
    CHECK(std::string(bolts.at).find("bolts") != std::string::npos);
    CHECK(bolts.used == Approx(std::max(each / (units::pi / 4 * 64) / 136, each / (8 * 4) / (1.5 * 235 / 1.5))).epsilon(0.001));
}

TEST_CASE("a dropped bridge bears less than a straight one, and its welds are looked at", "[make][dropped]") {
    auto in = straight();
    in.design.load_N = 3000;
    in.design.yield_mpa = 235;
    in.gearbox_mount.z_mm = 420;
    in.design.dropped = true;
    const auto p = make::crossmember(in);
    REQUIRE(p.dropped);
    auto level = in;
    level.design.dropped = false;
    level.gearbox_mount.z_mm = 509;
    CHECK(make::bridgeStrength(in, p).used > make::bridgeStrength(level, make::crossmember(level)).used);
    REQUIRE(p.used);
    CHECK(*p.used == Approx(make::bridgeStrength(in, p).used));
    // a thin wall: its mitres' welds, or the steel beside them, before the section
    in.design.box_wall_mm = 1.5;
    const auto thin = make::crossmember(in);
    CHECK(*thin.used > *p.used);
    INFO(thin.used_at);
    CHECK_FALSE(thin.used_at.empty());
}

TEST_CASE("rails that taper give saw angles, and the flanges lie against them", "[make][closed-form]") {
    auto in = straight();
    in.left.points[1].y_mm = -450 - 3000 * std::tan(units::radians(2)); // runs outwards to the rear
    in.right.points[1].y_mm = 450 + 3000 * std::tan(units::radians(2));
    const auto p = make::crossmember(in);
    CHECK(std::abs(units::degrees(p.end_angle_left_rad)) == Approx(2).margin(1e-9));
    CHECK(p.end_angle_left_rad == Approx(p.end_angle_right_rad));
    CHECK(p.end_angle_left_rad < 0); // the rear edge is the longer
    // across the box's width the space between the rails grows by 2 · 60 · tan 2°
    CHECK(p.box_long_edge_mm - p.box_length_mm == Approx(60 * std::tan(units::radians(2))));
    const double centre = 2 * (450 + 1050 * std::tan(units::radians(2)) - 30 / std::cos(units::radians(2)));
    CHECK(p.between_rails_mm == Approx(centre));
}

TEST_CASE("the pad beside the pan, on both sides", "[make]") {
    auto in = straight();
    in.gearbox_mount.y_mm = 0;
    // its pad: 80 + 4 × 11 fore and aft, 66 across, its top at 471
    in.pan = {{700, -150, 440}, {700, 150, 440}, {1050 - 62 - 12.1, -150, 440}, {1050 - 62 - 12.1, 150, 440}};
    CHECK_FALSE(remarks(make::crossmember(in), "pad-near-pan"));
    for (auto& p : in.pan) p.x_mm += 0.2;
    CHECK(remarks(make::crossmember(in), "pad-near-pan"));
    CHECK(make::crossmember(in).verdict == PlanVerdict::Marginal);
    for (auto& p : in.pan) p.x_mm += 12.1; // into it
    CHECK(make::crossmember(in).verdict == PlanVerdict::Fails);
    for (auto& p : in.pan) p.y_mm += 150 + 33 + 12.1; // beside it
    CHECK_FALSE(remarks(make::crossmember(in), "pad-near-pan"));
    for (auto& p : in.pan) {
        p.y_mm -= 150;
        p.z_mm = 471.1; // over it
    }
    CHECK_FALSE(remarks(make::crossmember(in), "pad-near-pan"));
}

TEST_CASE("what does not fit is said", "[make]") {
    auto in = straight();
    in.gearbox_mount.z_mm = 380;
    CHECK(remarks(make::crossmember(in), "below-rail"));
    CHECK(make::crossmember(in).verdict == PlanVerdict::Fails);
    in.gearbox_mount.z_mm = 470;
    CHECK(remarks(make::crossmember(in), "hangs-below"));
    in.gearbox_mount.z_mm = 620;
    CHECK(remarks(make::crossmember(in), "above-rail"));
    in = straight();
    in.left.height_mm = in.right.height_mm = 70; // no room for two rows of M12
    CHECK(remarks(make::crossmember(in), "one-row"));
    CHECK(make::crossmember(in).left.holes.size() == 2);
    in = straight();
    in.design.end_clearance_mm = 0.2;
    CHECK(remarks(make::crossmember(in), "no-clearance"));
    in = straight();
    in.right.points[0].y_mm = in.right.points[1].y_mm = -330; // rails almost together
    CHECK(remarks(make::crossmember(in), "too-short"));
    in = straight();
    for (auto& p : in.right.points) p.z_mm += 5;
    const auto unlike = make::crossmember(in);
    CHECK(remarks(unlike, "rails-unlevel"));
    CHECK(unlike.left.box_bottom_mm - unlike.right.box_bottom_mm == Approx(5)); // each flange is made for its own rail
    in = straight();
    in.design.assumed = {"isolator"};
    CHECK(remarks(make::crossmember(in), "assumed"));
    in = straight();
    in.channel = true;
    CHECK(*make::crossmember(in).bolt_length_mm == 35); // through web and flange only
    CHECK(make::crossmember(in).pieces.size() == 4);    // no crush tubes
    in.left.points.clear();
    CHECK_FALSE(make::crossmember(in).possible);
    in = straight();
    in.left.height_mm = 0;
    CHECK(make::crossmember(in).waiting_for.find("section") != std::string::npos);
}

TEST_CASE("the plate's drawing is the plate", "[make]") {
    const auto p = make::crossmember(straight());
    const auto d = make::plateDrawing(p.left);
    CHECK(d.width == p.left.width_mm);
    CHECK(d.height == p.left.height_mm);
    int circles = 0;
    for (const auto& item : d.items) circles += std::holds_alternative<sheet::Circle>(item.shape);
    CHECK(circles == 4);
    const auto e = sheet::extent(d.items);
    CHECK(e.right - e.left == Approx(p.left.width_mm));
    CHECK(e.bottom - e.top == Approx(p.left.height_mm));
}

} // namespace make_crossmember_test
