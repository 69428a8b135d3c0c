// What wheels carry, how high the weight stands, springs and what another height asks of them; rows of holes. Closed forms,
// statics done by hand, limits on both sides, ± by simulation.
#include "drive/link_holes.hpp"
#include "drive/weights_sheet.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

namespace drive_weights_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::Dimension;
using build::LinkKind;
using build::Provenance;
using build::SpringForm;

constexpr double deg = std::numbers::pi / 180;

Dimension read(double v) { return {v, "", Provenance::Measured}; }
bool says(const std::vector<build::Remark>& remarks, const char* code) {
    return std::any_of(remarks.begin(), remarks.end(), [&](const build::Remark& r) { return r.code == code; });
}

/// A rigid car of 1500 kg on four wheels, its weight at station, aside and over the road.
struct Car {
    double mass = 1500, base = 2600, x = 1150, y = 20, z = 560, radius[2] = {310, 330}, track = 1400;
    double rear() const { return mass * x / base; }
    /// On the rear wheels, or the front ones, with the other axle lifted: moments about the wheels' centres, turned by hand.
    double lifted(bool front, double up) const {
        const double over = z - (radius[0] + (radius[1] - radius[0]) * x / base);
        const double slope = std::asin(up / base);
        // along the line through the centres from the front, and square to it; the front goes up by the slope
        const double from_front = x * std::cos(slope) + (front ? over : -over) * std::sin(slope);
        const double level = base * std::cos(slope);
        return front ? mass * from_front / level : mass * (level - from_front) / level;
    }
};
WeightsIn weighed(const Car& c, double scale = 0) {
    WeightsIn in;
    in.said = true;
    const double rear = c.rear(), front = c.mass - rear, lean = c.y / c.track;
    const auto kg = [&](double v) { return Figure{v, scale, Provenance::Measured}; };
    in.wheels = {kg(front * (0.5 - lean)), kg(front * (0.5 + lean)), kg(rear * (0.5 - lean)), kg(rear * (0.5 + lean))};
    in.wheelbase_mm = Figure{c.base, 1, Provenance::Derived};
    in.front_x_mm = 100;
    in.track_mm = {Figure{c.track, 1, Provenance::Derived}, Figure{c.track, 1, Provenance::Derived}};
    in.radius_mm = {Figure{c.radius[0], 5, Provenance::Measured}, Figure{c.radius[1], 5, Provenance::Measured}};
    in.droop_mm = in.bump_mm = {90, 90};
    return in;
}

TEST_CASE("where the weight is, by statics done by hand", "[drive][weights]") {
    const Car c;
    WeightsIn in = weighed(c);
    for (const auto& [front, up] : {std::pair{true, 400.0}, {true, 700.0}, {false, 500.0}})
        in.lifted.push_back({front, up, {c.lifted(front, up), 0, Provenance::Measured}});
    const WeightsPlan p = weightsPlan(in);
    CHECK(p.whole_kg->value == Approx(c.mass));
    CHECK(p.cg_x_mm->value == Approx(100 + c.x));
    CHECK(p.cg_y_mm->value == Approx(c.y));
    CHECK(p.cross_share->value ==
          Approx(((c.mass - c.rear()) * (0.5 + c.y / c.track) + c.rear() * (0.5 - c.y / c.track)) / c.mass));
    CHECK(p.cg_z_mm->value == Approx(c.z).margin(0.5));
    for (const Figure& f : p.cg_each_mm) CHECK(f.value == Approx(c.z).margin(0.5));
    CHECK(cgOverCentres(1000, 500, 540, 2500, 500) == Approx(2500 * 40 / (1000 * 500 / std::sqrt(2500.0 * 2500 - 500 * 500))));
    // one that was read wrong is named; a lift of nothing says nothing
    CHECK_FALSE(says(p.remarks, "weight-lifted"));
    in.lifted[1].other_kg.value += 25;
    CHECK(says(weightsPlan(in).remarks, "weight-lifted"));
    in.lifted = {{true, 0.5, {c.rear(), 1, Provenance::Measured}}};
    CHECK_FALSE(weightsPlan(in).cg_z_mm);
    // too low a lift tells little
    in.lifted = {{true, 150, {c.lifted(true, 150), 4, Provenance::Measured}}};
    CHECK(says(weightsPlan(in).remarks, "weight-height"));
    in.lifted = {{true, 700, {c.lifted(true, 700), 4, Provenance::Measured}}};
    CHECK_FALSE(says(weightsPlan(in).remarks, "weight-height"));
    // crosswise 47 to 53 %
    for (const double more : {23.0, 25.0}) {
        WeightsIn crossed = weighed(Car{1600, 2600, 1300, 0});
        for (const std::size_t k : {1u, 2u}) crossed.wheels[k]->value += more;
        for (const std::size_t k : {0u, 3u}) crossed.wheels[k]->value -= more;
        CHECK(says(weightsPlan(crossed).remarks, "weight-cross") == (more > 24));
    }
    WeightsIn three = in;
    three.wheels[2].reset();
    CHECK_FALSE(weightsPlan(three).whole_kg);
    CHECK_FALSE(weightsPlan(WeightsIn{}).whole_kg);
    const WeightsPlan shown = weightsPlan(in);
    CHECK(weightsSheet({&in, &shown}, 1200, 500, {}).items.size() > 20);
    const WeightsIn nothing;
    CHECK(weightsSheet({&nothing, &shown}, 1200, 500, {}).items.empty());
}

TEST_CASE("the ± of where the weight is covers what it says", "[drive][weights][coverage]") {
    const Car c;
    std::mt19937 random(17);
    std::normal_distribution<double> normal(0, 1);
    constexpr int rounds = 2000;
    int whole = 0, along = 0, aside = 0, high = 0;
    for (int trial = 0; trial < rounds; ++trial) {
        WeightsIn in = weighed(c, 2);
        const auto off = [&](double u95) { return build::sigmaOfU95(u95) * normal(random); };
        for (auto& w : in.wheels) w->value += off(2);
        in.wheelbase_mm->value += off(1);
        for (auto& t : in.track_mm) t->value += off(1);
        for (auto& r : in.radius_mm) r.value += off(5);
        for (const double up : {500.0, 650.0})
            in.lifted.push_back({true, up + off(3), {c.lifted(true, up) + off(2), 2, Provenance::Measured}});
        const WeightsPlan p = weightsPlan(in);
        const auto in_it = [](const Figure& f, double v) { return std::abs(f.value - v) <= f.u95; };
        whole += in_it(*p.whole_kg, c.mass);
        along += in_it(*p.cg_x_mm, 100 + c.x);
        aside += in_it(*p.cg_y_mm, c.y);
        high += in_it(*p.cg_z_mm, c.z);
    }
    INFO(whole << " " << along << " " << aside << " " << high);
    for (const int covered : {whole, along, aside, high}) {
        CHECK(covered > 0.93 * rounds);
        CHECK(covered < 0.97 * rounds);
    }
}

// ---- springs

/// A wheel on two level wishbones, both with their pivots lengthways: it goes up on arcs. A spring from the lower one to the
/// frame.
SpringIn onWishbone(double share, double lean = 0) {
    SpringIn s;
    s.name = "front";
    s.spring.end = build::AxleEnd::Front;
    s.spring.rate = read(60);
    s.spring.free = read(360);
    const auto place = [&](const char* name, double x, double y, double z) {
        s.places.names.emplace_back(name);
        s.places.at.push_back({x, y, z});
        return s.places.at.size() - 1;
    };
    AxleIn held;
    held.left = held.right = place("hub", 0, -700, 320);
    std::vector<std::size_t> lower;
    for (const double z : {220.0, 420.0}) {
        const auto a = place("a", -120, -250, z), b = place("b", 120, -250, z), c = place("c", 0, -550, z);
        held.links.push_back({z < 300 ? "lower" : "upper", LinkKind::Wishbone, {a, b, c}});
        if (z < 300) lower = {a, b, c};
    }
    held.links.push_back({"tie", LinkKind::TieRod, {place("in", 140, -250, 320), place("out", 140, -550, 320)}});
    s.held = held;
    s.on = lower;
    s.foot = place("foot", 0, -250 - 300 * share, 220);
    s.top = place("top", 0, -250 - 300 * share + 300 * std::tan(lean), 520);
    s.places.covariance.assign(9 * s.places.at.size() * s.places.at.size(), 0);
    return s;
}
SpringPlan planOf(SpringIn s, double corner_kg, std::optional<double> higher = {}) {
    WeightsIn in;
    in.said = true;
    in.droop_mm = in.bump_mm = {90, 90};
    for (auto& w : in.wheels) w = Figure{corner_kg, 0, Provenance::Measured};
    if (higher) s.spring.higher = read(*higher);
    in.springs = {std::move(s)};
    return weightsPlan(in).springs.front();
}
/// Force at the wheel with a spring of that rate and free length, by virtual work over a tenth of a millimetre.
double wheelForce(const SpringIn& s, double rate, double free, double up) {
    const auto energy = [&](double at) {
        const double l = geometry::between(s.places.at[*s.top], *footAt(s, s.places.at, at));
        return rate * std::pow(free - l, 2) / 2;
    };
    return (energy(up + 0.05) - energy(up - 0.05)) / 0.1;
}

TEST_CASE("springs by virtual work: leverage, rate at the wheel, what another height asks", "[drive][weights][springs]") {
    // upright over the middle of a level arm: half of the wheel's way
    const SpringPlan half = planOf(onWishbone(0.5), 400);
    CHECK(half.per_wheel->value == Approx(0.5).margin(1e-3));
    CHECK(half.load_N->value == Approx(400 * 9.80665 / 0.5).epsilon(0.003));
    CHECK(half.free_load_N->value == Approx(60 * (360 - 300)));
    CHECK(half.hertz->value == Approx(std::sqrt(half.wheel_rate->value * 1000 / 400) / (2 * std::numbers::pi)));
    for (const double lean : {0.0, 25 * deg}) {
        const SpringIn s = onWishbone(0.6, lean);
        const double rest = wheelForce(s, 60, 360, 0);
        // the car as heavy as that spring carries it
        const SpringPlan p = planOf(s, rest / 9.80665);
        CHECK(p.load_N->value == Approx(p.free_load_N->value).epsilon(1e-4));
        CHECK(p.wheel_rate->value == Approx((wheelForce(s, 60, 360, 2) - wheelForce(s, 60, 360, -2)) / 4).epsilon(0.005));
        for (const double higher : {30.0, -25.0}) {
            const SpringPlan::Higher h = *planOf(s, rest / 9.80665, higher).higher;
            // bolted in, each of the three carries the car where it shall stand
            CHECK(wheelForce(s, 60, h.free_mm->value, -higher) == Approx(rest).epsilon(1e-4));
            CHECK(wheelForce(s, 60, 360 + h.spacer_mm->value, -higher) == Approx(rest).epsilon(1e-3));
            CHECK(wheelForce(s, h.rate->value, 360, -higher) == Approx(rest).epsilon(1e-4));
            CHECK(h.droop_left_mm == 90 - higher);
            CHECK(h.bump_mm == 90 + higher);
        }
    }
    // on a rod: turned about its end; on what carries the wheel: with it
    SpringIn rod = onWishbone(0.5);
    rod.on = {rod.on[0], rod.on[2]};
    const Vec3 foot = *footAt(rod, rod.places.at, 20);
    CHECK(geometry::between(foot, rod.places.at[rod.on[0]]) ==
          Approx(geometry::between(rod.places.at[*rod.foot], rod.places.at[rod.on[0]])));
    SpringIn free = onWishbone(0.5);
    free.on.clear();
    free.held.reset();
    CHECK(footAt(free, free.places.at, 20)->z_mm == Approx(240));
    CHECK(planOf(free, 400).per_wheel->value == Approx(1));
    // a bar that twists: π d⁴ G / 32 L
    CHECK(barRate(22, 0, 900) == Approx(std::numbers::pi * std::pow(22, 4) * 79'000 / (32 * 900)));
    SpringIn bar;
    bar.name = "rear";
    bar.spring.form = SpringForm::Torsion;
    bar.spring.bar = read(22);
    bar.spring.inside = read(8);
    bar.spring.length = read(900);
    bar.spring.arm = read(310);
    const SpringPlan twisted = planOf(bar, 300, 20);
    CHECK(twisted.wheel_rate->value == Approx(barRate(22, 8, 900) / (310 * 310)));
    CHECK(twisted.higher->turn_rad->value == Approx(20 / 310.0));
    bar.spring.arm.reset();
    CHECK_FALSE(planOf(bar, 300).wheel_rate);
}

TEST_CASE("springs: limits on both sides, and coverage", "[drive][weights][springs][coverage]") {
    const auto remarks = [](double higher) {
        WeightsIn in;
        in.said = true;
        in.droop_mm = in.bump_mm = {90, 90};
        in.springs = {onWishbone(0.5)};
        in.springs[0].spring.higher = read(higher);
        return weightsPlan(in).remarks;
    };
    // 60 N/mm at half the wheel's way, 60 mm together: 3600 ± 216 N
    for (const auto& [kg, odd] : {std::pair{176.0, false}, {172.0, true}, {386.0, false}, {392.0, true}}) {
        WeightsIn in;
        in.said = true;
        in.droop_mm = in.bump_mm = {90, 90};
        in.springs = {onWishbone(0.5)};
        in.springs[0].spring.rate->value = 60;
        for (auto& w : in.wheels) w = Figure{kg, 0, Provenance::Measured};
        INFO(kg);
        CHECK(says(weightsPlan(in).remarks, "spring-load") == odd);
    }
    CHECK_FALSE(says(remarks(49), "spring-droop"));
    CHECK(says(remarks(51), "spring-droop"));
    CHECK_FALSE(says(remarks(-49), "spring-bump"));
    CHECK(says(remarks(-51), "spring-bump"));
    std::mt19937 random(29);
    std::normal_distribution<double> normal(0, 1);
    SpringIn truth = onWishbone(0.6, 15 * deg);
    const std::size_t n = 3 * truth.places.at.size();
    for (std::size_t k = 0; k < n; ++k) truth.places.covariance[k * n + k] = 0.25;
    const double real_rate = 60;
    const double rest = wheelForce(truth, real_rate, 360, 0);
    const SpringPlan is = planOf(truth, rest / 9.80665, 30);
    constexpr int rounds = 400;
    int per = 0, length = 0, free = 0, wheel = 0, load = 0, by_free = 0, bounce = 0, other_rate = 0;
    for (int trial = 0; trial < rounds; ++trial) {
        SpringIn s = truth;
        for (Vec3& p : s.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) p[axis] += 0.5 * normal(random);
        s.spring.rate = read(real_rate * (1 + 0.05 / 1.959964 * normal(random)));
        s.spring.free = read(360 + build::sigmaOfU95(2) * normal(random));
        const SpringPlan p = planOf(s, rest / 9.80665, 30);
        const auto in_it = [](const Figure& f, double v) { return std::abs(f.value - v) <= f.u95; };
        per += in_it(*p.per_wheel, is.per_wheel->value);
        length += in_it(*p.length_mm, is.length_mm->value);
        free += in_it(*p.higher->free_mm, is.higher->free_mm->value);
        wheel += in_it(*p.wheel_rate, is.wheel_rate->value);
        load += in_it(*p.load_N, is.load_N->value);
        by_free += in_it(*p.free_load_N, is.free_load_N->value);
        bounce += in_it(*p.hertz, is.hertz->value);
        other_rate += in_it(*p.higher->rate, is.higher->rate->value);
    }
    INFO(per << " " << length << " " << free << " " << wheel << " " << load << " " << by_free << " " << bounce << " "
             << other_rate);
    for (const int covered : {per, length, free, wheel, load, by_free, bounce, other_rate}) {
        CHECK(covered > 0.92 * rounds); // 400 rounds tell to ± 2 %
        CHECK(covered < 0.98 * rounds);
    }
}

// ---- rows of holes

/// A live axle on two lower and two upper rods and a panhard rod.
LinkHolesIn axleWithHoles() {
    LinkHolesIn in;
    in.name = "lower-left and lower-right";
    TravelIn& t = in.travel;
    t.name = "rear axle";
    t.radius_mm = 320;
    t.wheelbase_mm = 2500;
    t.cg_mm = 560;
    const auto place = [&](const std::string& name, double x, double y, double z) {
        t.places.names.push_back(name);
        t.places.at.push_back({x, y, z});
        return t.places.at.size() - 1;
    };
    t.held.left = place("left", 2500, -700, 0);
    t.held.right = place("right", 2500, 700, 0);
    for (const double side : {-1.0, 1.0}) {
        const std::string s = side < 0 ? "left" : "right";
        t.held.links.push_back(
            {"lower-" + s, LinkKind::Rod, {place("lf" + s, 1900, side * 450, 20), place("la" + s, 2480, side * 500, -60)}});
        t.held.links.push_back(
            {"upper-" + s, LinkKind::Rod, {place("uf" + s, 2150, side * 350, 150), place("ua" + s, 2520, side * 350, 120)}});
    }
    t.held.links.push_back({"panhard", LinkKind::Rod, {place("pf", 2600, -480, 60), place("pa", 2600, 420, 40)}});
    t.held.bump_mm = t.held.droop_mm = 80;
    t.places.covariance.assign(9 * t.places.at.size() * t.places.at.size(), 0);
    in.links = {0, 2};
    in.row.pitch = read(25);
    in.row.above = read(2);
    in.row.below = read(1);
    in.row.hole = read(12);
    return in;
}

TEST_CASE("bump stops: what the wheel carries where they touch and at full bump; limits and coverage",
          "[drive][weights][springs][coverage]") {
    // straight up and down, 40 N/mm, 400 kg on the wheel: by hand
    const auto car = [](double stop, double higher, double rate = 40, double hard = 150) {
        WeightsIn in;
        in.said = true;
        in.droop_mm = in.bump_mm = {80, 80};
        for (auto& w : in.wheels) w = Figure{400, 2, Provenance::Measured};
        SpringIn s;
        s.name = "rear";
        s.spring.rate = read(rate);
        s.spring.stop = read(stop);
        s.spring.stop_rate = read(hard);
        if (higher != 0) s.spring.higher = read(higher);
        in.springs = {s};
        return in;
    };
    const WeightsPlan p = weightsPlan(car(50, 0));
    const auto& stop = p.springs[0].stop;
    REQUIRE(stop);
    CHECK(stop->free_mm.value == 50);
    CHECK(stop->touch_g->value == Approx(1 + 40 * 50 / (9.80665 * 400)));
    CHECK(stop->most_g->value == Approx(1 + (40 * 80 + 150 * 30) / (9.80665 * 400)));
    CHECK_FALSE(says(p.remarks, "spring-stop"));
    // 25 mm wanted, its gap known to 2
    CHECK_FALSE(says(weightsPlan(car(27.01, 0)).remarks, "spring-stop"));
    CHECK(says(weightsPlan(car(26.99, 0)).remarks, "spring-stop"));
    CHECK(says(weightsPlan(car(50, -24)).remarks, "spring-stop")); // let down onto them
    CHECK_FALSE(says(weightsPlan(car(50, -22)).remarks, "spring-stop"));
    CHECK_FALSE(says(weightsPlan(car(81.9, 0)).remarks, "spring-idle"));
    CHECK(says(weightsPlan(car(82.1, 0)).remarks, "spring-idle"));
    CHECK_FALSE(weightsPlan(car(82.1, 0)).springs[0].stop->most_g); // it never touches
    std::mt19937 dice(31);
    std::normal_distribution<double> normal;
    int touch = 0, most = 0;
    for (int round = 0; round < 2000; ++round) {
        WeightsIn in = car(50 + normal(dice) * build::sigmaOfU95(2), 0, 40 * (1 + 0.05 / 1.959964 * normal(dice)),
                           150 * (1 + 0.2 / 1.959964 * normal(dice)));
        // left and right are weighed apart
        for (auto& w : in.wheels) w->value += normal(dice) * build::sigmaOfU95(2);
        const auto s = weightsPlan(in).springs[0].stop;
        touch += std::abs(s->touch_g->value - stop->touch_g->value) <= s->touch_g->u95;
        most += std::abs(s->most_g->value - stop->most_g->value) <= s->most_g->u95;
    }
    for (const int n : {touch, most}) {
        CHECK(n > 0.93 * 2000);
        CHECK(n < 0.97 * 2000);
    }
}

TEST_CASE("each hole is bolted up anew, every rod as long as it is", "[drive][weights][holes]") {
    const LinkHolesIn in = axleWithHoles();
    const LinkHolesPlan p = linkHolesPlan(in);
    REQUIRE(p.holes.size() == 4);
    CHECK(p.holes.front().name == "1 below");
    CHECK(p.holes.back().name == "2 above");
    const TravelPlan now = travelPlan(in.travel);
    for (const HoleDoes& h : p.holes) {
        INFO(h.name);
        REQUIRE(h.closes);
        // by hand: the axle turned about its line and shifted; every rod as long as it was
        const auto& at = in.travel.places.at;
        for (const LinkIn& link : in.travel.held.links) {
            if (link.name == "panhard") continue;
            const Vec3 frame = at[link.points[0]], body = at[link.points[1]];
            Vec3 moved = frame;
            if (link.name.starts_with("lower")) moved.z_mm += 25 * h.step;
            const double dx = body.x_mm - 2500, dz = body.z_mm, a = h.slope_rad; // down at the back is positive
            const Vec3 then{2500 - h.ahead_mm + dx * std::cos(a) + dz * std::sin(a), body.y_mm,
                            -dx * std::sin(a) + dz * std::cos(a)};
            CHECK(std::abs(geometry::between(moved, then) - geometry::between(frame, body)) <
                  0.02); // the panhard rod moves it aside a hair
        }
        if (h.step == 0) {
            CHECK(h.slope_rad == Approx(0).margin(1e-9));
            CHECK(h.plan->anti_squat->value == Approx(now.anti_squat->value));
            CHECK(h.plan->bump_rad.value == Approx(now.bump_rad.value));
        }
    }
    // lower links that rise more forwards hold it up more
    for (std::size_t k = 0; k + 1 < p.holes.size(); ++k)
        CHECK(p.holes[k + 1].plan->anti_squat->value > p.holes[k].plan->anti_squat->value);
    CHECK(p.verdict == PlanVerdict::Holds);
    CHECK(p.high_mm == Approx(3 * 25 + 2 * 18));
}

TEST_CASE("rows of holes: limits and what is not said", "[drive][weights][holes]") {
    LinkHolesIn in = axleWithHoles();
    for (const double pitch : {23.9, 24.1}) {
        in.row.pitch = read(pitch);
        CHECK(says(linkHolesPlan(in).remarks, "holes-close") == (pitch < 24));
    }
    in.row.pitch = read(190);
    in.row.above = read(3);
    const LinkHolesPlan far = linkHolesPlan(in); // 570 mm up with a rod of 580
    CHECK((says(far.remarks, "holes-open") || says(far.remarks, "holes-lock")));
    in = axleWithHoles();
    in.row.at = build::LinkEnd::Axle;
    in.row.lean = read(20 * deg);
    CHECK(linkHolesPlan(in).holes.size() == 4);
    in.row.pitch = read(30);
    in.row.hole.reset();
    CHECK(linkHolesPlan(in).verdict == PlanVerdict::Marginal);
    in.travel.missing.emplace_back("a wheel centre");
    CHECK(linkHolesPlan(in).holes.empty());
}

} // namespace drive_weights_test
