// Axles and wheels through travel: against closed forms of roll centre, anti-squat, roll steer, camber; limits from both sides; ±
// by simulation.
#include "drive/travel.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_travel_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::LinkKind;

constexpr double deg = std::numbers::pi / 180;

class Maker {
public:
    explicit Maker(bool front = false) {
        in_.front = front;
        in_.name = front ? "front left wheel" : "rear axle";
        in_.radius_mm = 320;
        in_.held.bump_mm = 70;
        in_.held.droop_mm = 80;
    }
    std::size_t place(Vec3 at) {
        in_.places.names.push_back("p" + std::to_string(in_.places.at.size()));
        in_.places.at.push_back(at);
        return in_.places.at.size() - 1;
    }
    void link(const char* name, LinkKind kind, std::vector<Vec3> points) {
        LinkIn l{name, kind, {}};
        for (const Vec3& p : points) l.points.push_back(place(p));
        in_.held.links.push_back(l);
    }
    void wheels(Vec3 left, std::optional<Vec3> right) {
        in_.held.left = place(left);
        in_.held.right = right ? place(*right) : in_.held.left;
    }
    TravelIn made(double sigma_mm = 0.5) {
        const std::size_t n = 3 * in_.places.at.size();
        in_.places.covariance.assign(n * n, 0.0);
        for (std::size_t k = 0; k < n; ++k) in_.places.covariance[k * n + k] = sigma_mm * sigma_mm;
        return in_;
    }
    TravelIn in_;
};

/// An axle at 2600, hubs 300 up, lower links at `low` falling to the front by so much, upper ones at 440 likewise, panhard level
/// at `pan`.
Maker axleOf(double lower_rise, double upper_rise, double pan, double lower_long = 600, double upper_long = 450) {
    Maker m;
    m.wheels({2600, -700, 300}, Vec3{2600, 700, 300});
    for (const double s : {-1.0, 1.0}) {
        m.link("lower", LinkKind::Rod, {{2600 - lower_long, s * 450, 240 + lower_rise}, {2600, s * 450, 240}});
        m.link("upper", LinkKind::Rod, {{2600 - upper_long, s * 300, 440 + upper_rise}, {2600, s * 300, 440}});
    }
    m.link("panhard", LinkKind::Rod, {{2640, -470, pan}, {2640, 470, pan}});
    return m;
}
bool says(const TravelPlan& p, const std::string& code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const build::Remark& r) { return r.code == code; });
}

TEST_CASE("a level panhard rod is where the axle rolls about", "[drive][travel]") {
    for (const double pan : {250.0, 330.0, 410.0}) {
        const TravelPlan p = travelPlan(axleOf(0, 0, pan).made());
        CHECK(p.roll_centre_mm.value == Approx(pan - (300 - 320)).epsilon(1e-6));
        CHECK(p.roll_centre_mm.u95 == Approx(build::u95Of(0.5)).epsilon(0.01)); // both its ends, and both hubs over the road
        CHECK(std::abs(p.steer_per_roll.value) < 1e-9);
        CHECK_FALSE(p.centre_x_mm);
        CHECK(p.rows.size() == 21);
        CHECK(p.rows.front().up_mm == -80);
        CHECK(p.rows.back().up_mm == 70);
        CHECK(p.rolls.size() == 9);
    }
}

TEST_CASE("links that rise to the front hold the car up by their slope, or about where they meet", "[drive][travel]") {
    // parallel: the share is tan(slope) L/h
    TravelIn in = axleOf(60, 45, 330).made();
    in.wheelbase_mm = 2600;
    in.cg_mm = 600;
    TravelPlan p = travelPlan(in);
    CHECK(p.anti_squat->value == Approx(60.0 / 600 * 2600 / 600).epsilon(1e-6));
    CHECK_FALSE(p.centre_x_mm);
    // such an axle steers as it leans: one side goes back, the other forward, by the links' slope
    CHECK(std::abs(p.steer_per_roll.value) == Approx(0.1).epsilon(1e-6));
    // meeting: the lower falls to the front by 30, the upper by 90: the lines cross ahead of the axle
    in = axleOf(30, -60, 330).made();
    in.wheelbase_mm = 2600;
    in.cg_mm = 600;
    p = travelPlan(in);
    // by hand: 240 + 30 t/600 = 440 − 60 t/450
    const double t = 200 / (30.0 / 600 + 60.0 / 450), x = 2600 - t, z = 240 + 30 * t / 600;
    REQUIRE(p.centre_x_mm);
    CHECK(p.centre_x_mm->value == Approx(x).epsilon(1e-6));
    CHECK(p.centre_z_mm->value == Approx(z).epsilon(1e-6));
    CHECK(p.anti_squat->value == Approx((z + 20) / t * 2600 / 600).epsilon(1e-6)); // over the road, which is at −20
    in.cg_mm.reset();
    CHECK_FALSE(travelPlan(in).anti_squat);
}

TEST_CASE("an axle whose links fall to the front steers into the bend, one whose rise out of it", "[drive][travel]") {
    const TravelPlan down = travelPlan(axleOf(-80, -60, 330).made()), up = travelPlan(axleOf(80, 60, 330).made());
    CHECK(down.steer_per_roll.value > 0.1);
    CHECK(up.steer_per_roll.value < -0.1);
    CHECK_FALSE(says(down, "roll-steer"));
    CHECK(says(up, "roll-steer"));
    CHECK_FALSE(says(travelPlan(axleOf(50, 37.5, 330).made()), "roll-steer")); // 0.083
    // and really: rolled by 2°, right side of the axle up
    for (const RollRow& row : down.rolls)
        if (std::abs(row.roll_rad - 2 * deg) < 1e-9)
            CHECK(row.steer_rad == Approx(down.steer_per_roll.value * 2 * deg).epsilon(0.08));
}

/// A left wheel on wishbones whose pivots run along the car; its tie rod in the lower one's plane, or its inner end off it.
Maker corner(double tie_inner_dz = 0, double upper_back = 0) {
    Maker m(true);
    m.wheels({0, -700, 300}, {});
    m.link("lower", LinkKind::Wishbone, {{-150, -300, 200}, {150, -300, 200}, {0, -620, 190}});
    m.link("upper", LinkKind::Wishbone, {{-120, -380, 410}, {120, -380, 410}, {upper_back, -600, 430}});
    m.link("tie", LinkKind::TieRod, {{-140, -300, 200 + tie_inner_dz}, {-140, -620, 190}});
    m.in_.lower = m.in_.held.links[0].points[2];
    m.in_.upper = m.in_.held.links[1].points[2];
    return m;
}

TEST_CASE("a wheel on wishbones: roll centre, lean and caster by hand", "[drive][travel]") {
    const TravelPlan p = travelPlan(corner().made());
    // both arms seen from the front meet at its centre; from the contact through it to the middle of the car
    const auto low = [](double y) { return 190 + (200 - 190) * (y + 620) / 320; };
    const auto high = [](double y) { return 430 + (410 - 430) * (y + 600) / 220; };
    const double slope_low = 10.0 / 320, slope_high = -20.0 / 220;
    const double y = (high(0) - low(0)) / (slope_low - slope_high), z = low(y);
    CHECK(high(y) == Approx(z));
    const double road = 300 - 320;
    CHECK(p.roll_centre_mm.value == Approx((z - road) * 700 / (y + 700)).epsilon(1e-6));
    REQUIRE(p.caster_rad);
    CHECK(std::abs(p.caster_rad->value) < 1e-12);
    CHECK(travelPlan(corner(0, 20).made()).caster_rad->value == Approx(std::atan2(20, 240)).epsilon(1e-9));
    CHECK(p.lean_bump_rad.value > 0); // the shorter upper arm leans it in
    CHECK(p.lean_bump_rad.value < 5 * deg);
    // the lean's rate is 1/(y + 700) a mm: against the row next to rest
    for (const TravelRow& row : p.rows)
        if (row.up_mm == 7) CHECK(row.lean_rad == Approx(7 / (y + 700)).epsilon(0.12));
}

TEST_CASE("a tie rod off its line steers the wheel by itself, on its line it does not", "[drive][travel]") {
    const TravelPlan good = travelPlan(corner().made());
    const TravelPlan off = travelPlan(corner(25).made());
    CHECK_FALSE(says(good, "bump-steer"));
    REQUIRE(says(off, "bump-steer"));
    double most = 0;
    for (const TravelRow& row : off.rows)
        if (std::abs(row.up_mm) <= 30) most = std::max(most, std::abs(row.steer_rad));
    CHECK(most > 0.3 * deg);
    CHECK(std::abs(off.bump_rad.value) > std::abs(good.bump_rad.value));
    // toe in is nose to the right of a left wheel
    CHECK(off.bump_rad.value == Approx(-off.rows.back().steer_rad));
}

TEST_CASE("links that are missing, that lock, that bend their ends too far", "[drive][travel]") {
    TravelIn in = axleOf(0, 0, 330).made();
    in.held.links.pop_back();
    const TravelPlan loose = travelPlan(in);
    REQUIRE(says(loose, "links-loose"));
    CHECK(loose.remarks[0].sentence.find("go aside") != std::string::npos);
    CHECK(loose.rows.empty());
    CHECK(loose.verdict == PlanVerdict::Marginal);
    TravelIn far = axleOf(0, 0, 330, 200, 150).made();
    far.held.bump_mm = 145;
    far.held.droop_mm = 30;
    CHECK_FALSE(says(travelPlan(far), "locks"));
    CHECK_FALSE(says(travelPlan(far), "rod-end")); // the links swing far, in the plane of their bolts
    // the axle goes forward by 60: a panhard rod of 150 is bent out of its plane by that, one of 940 is not
    Maker brief = axleOf(0, 0, 330, 200, 150);
    brief.in_.held.links.pop_back();
    brief.link("panhard", LinkKind::Rod, {{2640, -75, 330}, {2640, 75, 330}});
    TravelIn bent = brief.made();
    bent.held.bump_mm = 120;
    bent.held.droop_mm = 30;
    const TravelPlan short_rod = travelPlan(bent);
    CHECK(says(short_rod, "rod-end"));
    CHECK(short_rod.most_rod_rad > 15 * deg);
    far.held.bump_mm = 190;
    CHECK(says(travelPlan(far), "locks"));
    CHECK(travelPlan(far).verdict == PlanVerdict::Fails);
    CHECK_FALSE(says(travelPlan(axleOf(0, 0, 330).made()), "rod-end"));
    CHECK(travelPlan(axleOf(0, 0, 330).made()).verdict == PlanVerdict::Holds);
    TravelIn guessed = axleOf(0, 0, 330).made();
    guessed.assumed = {"how far it goes up"};
    CHECK(travelPlan(guessed).verdict == PlanVerdict::Marginal);
}

TEST_CASE("the ± of what an axle does covers what it says", "[drive][travel][coverage]") {
    Maker maker = axleOf(30, -60, 345);
    TravelIn truth = maker.made(0.6);
    truth.wheelbase_mm = 2600;
    truth.cg_mm = 600;
    const TravelPlan real = travelPlan(truth);
    std::mt19937 rng(30);
    std::normal_distribution<double> normal;
    const auto figuresIn = [](const TravelPlan& p) {
        return std::vector<Figure>{p.roll_centre_mm, *p.centre_z_mm, *p.anti_squat, p.steer_per_roll, p.bump_rad, p.droop_rad};
    };
    const auto known = figuresIn(real);
    std::vector<int> inside(known.size(), 0);
    const int rounds = 400;
    for (int round = 0; round < rounds; ++round) {
        TravelIn in = truth;
        for (Vec3& at : in.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) at[axis] += 0.6 * normal(rng);
        const auto found = figuresIn(travelPlan(in));
        for (std::size_t k = 0; k < found.size(); ++k) inside[k] += std::abs(found[k].value - known[k].value) <= found[k].u95;
    }
    for (std::size_t k = 0; k < inside.size(); ++k) {
        INFO("figure " << k << ": " << static_cast<double>(inside[k]) / rounds);
        CHECK(inside[k] > 0.93 * rounds);
        CHECK(inside[k] < 0.975 * rounds);
    }
}

} // namespace drive_travel_test
