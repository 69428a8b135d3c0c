// What hangs on slings, against closed forms; both sides of each limit.
#include "work/lift.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

namespace work_lift_test {

using namespace gorvet;
using work::LiftVerdict;

namespace {

constexpr double degree = std::numbers::pi / 180;

/// Four legs of one length on the corners of a plate, the hook `height` over it.
work::LiftInput four(double half_length, double half_width, double height, double mass) {
    work::LiftInput in;
    in.spreader = true;
    const double leg = std::sqrt(half_length * half_length + half_width * half_width + height * height);
    for (const double x : {-half_length, half_length})
        for (const double y : {-half_width, half_width})
            in.legs.push_back({"leg " + std::to_string(in.legs.size() + 1), {x, y, 0}, leg, 2000, true});
    in.mass_kg = mass;
    in.mass_u95_kg = 1;
    in.centre = {0, 0, -300};
    return in;
}

bool says(const work::LiftPlan& p, const char* text) {
    for (const auto& r : p.remarks)
        if (r.sentence.find(text) != std::string::npos) return true;
    return false;
}

} // namespace

TEST_CASE("two legs: each carries W / (2 cos), and pulls its point sideways by the tangent", "[work][lift]") {
    for (const double slope : {20.0, 40.0, 55.0}) {
        work::LiftInput in;
        in.spreader = true;
        const double half = 1000, leg = half / std::sin(slope * degree);
        in.legs = {{"front", {-half, 0, 0}, leg, 1000, true}, {"rear", {half, 0, 0}, leg, 1000, true}};
        in.mass_kg = 400;
        in.mass_u95_kg = 1;
        in.centre = {0, 0, -200};
        const auto p = work::hang(in);
        REQUIRE(p.hangs);
        CHECK(p.tilt_rad == Approx(0).margin(1e-9));
        for (const auto& l : p.legs) {
            CHECK(l.slope_rad / degree == Approx(slope));
            CHECK(l.most_kg == Approx(400 / (2 * std::cos(slope * degree))));
            CHECK(l.squeeze_kg == Approx(200 * std::tan(slope * degree)));
        }
        CHECK(p.verdict == (slope > 45 ? LiftVerdict::Marginal : LiftVerdict::Holds));
    }
}

TEST_CASE("four legs of a rigid load: two opposite ones may carry all of it", "[work][lift]") {
    const auto in = four(1200, 600, 1800, 500);
    const auto p = work::hang(in);
    REQUIRE(p.hangs);
    const double slope = std::atan2(std::hypot(1200, 600), 1800);
    CHECK(p.hook.z_mm == Approx(1800));
    CHECK(p.height_mm == Approx(2100));
    double upright = 0;
    for (const auto& l : p.legs) {
        CHECK(l.slope_rad == Approx(slope));
        CHECK(l.load_kg == Approx(500 / (4 * std::cos(slope))));
        CHECK(l.most_kg == Approx(500 / (2 * std::cos(slope))));
        upright += l.load_kg * std::cos(l.slope_rad);
    }
    CHECK(upright == Approx(500)); // what they lift together is the load
    CHECK(p.verdict == LiftVerdict::Holds);
}

TEST_CASE("it hangs with its centre of gravity below the hook: tilt = atan(offset / height)", "[work][lift]") {
    for (const double off : {20.0, 60.0, 150.0, 400.0}) {
        auto in = four(1200, 600, 1800, 500);
        in.centre.x_mm = off;
        const auto p = work::hang(in);
        REQUIRE(p.hangs);
        CHECK(p.tilt_rad == Approx(std::atan(off / 2100)));
        CHECK(p.nose_down_rad == Approx(-std::atan(off / 2100))); // the tail goes down
        const double degrees = p.tilt_rad / degree;
        CHECK(p.verdict == (degrees > 9 ? LiftVerdict::Fails : degrees > 3 ? LiftVerdict::Marginal : LiftVerdict::Holds));
        // the ballast brings it level
        REQUIRE(p.ballast_kg);
        auto level = in;
        level.mass_kg += *p.ballast_kg;
        const double share = *p.ballast_kg / level.mass_kg;
        level.centre.x_mm += share * (p.ballast_at.x_mm - in.centre.x_mm);
        level.centre.y_mm += share * (p.ballast_at.y_mm - in.centre.y_mm);
        CHECK(work::hang(level).tilt_rad == Approx(0).margin(1e-6));
    }
}

TEST_CASE("three legs: loads by the lever rule where they hang steep and the points lie level", "[work][lift]") {
    work::LiftInput in;
    in.spreader = true;
    const geometry::Vec3 points[] = {{0, -500, 0}, {0, 500, 0}, {2000, 0, 0}};
    const geometry::Vec3 hook{700, 0, 40'000};
    for (const auto& q : points)
        in.legs.push_back(
            {"leg", q, std::sqrt(std::pow(q.x_mm - hook.x_mm, 2) + std::pow(q.y_mm, 2) + std::pow(hook.z_mm, 2)), 900, true});
    in.mass_kg = 600;
    in.mass_u95_kg = 2;
    in.centre = {700, 0, -100};
    const auto p = work::hang(in);
    REQUIRE(p.hangs);
    CHECK(p.legs[2].most_kg == Approx(600 * 700.0 / 2000).epsilon(0.01));
    CHECK(p.legs[0].most_kg == Approx(600 * 1300.0 / 2000 / 2).epsilon(0.01));
    CHECK(p.verdict == LiftVerdict::Holds);
}

TEST_CASE("whatever hangs is in balance: forces and moments, for random points, legs and centres", "[work][lift][property]") {
    std::mt19937 rng(3);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(rng); };
    int hangs = 0, slack = 0;
    for (int round = 0; round < 500; ++round) {
        work::LiftInput in;
        in.spreader = true;
        const size_t n = 3 + rng() % 2;
        const double corners[4][2] = {{-1, -1}, {-1, 1}, {1, -1}, {1, 1}};
        for (size_t k = 0; k < n; ++k)
            in.legs.push_back({"leg",
                               {corners[k][0] * between(600, 1500), corners[k][1] * between(300, 800), between(-100, 200)},
                               between(1800, 2600),
                               1000,
                               true});
        in.mass_kg = between(100, 900);
        in.centre = {between(-300, 200), between(-150, 150), between(-500, -100)};
        const auto p = work::hang(in);
        if (!p.hangs) continue;
        ++hangs;
        geometry::Vec3 force{}, moment{};
        const auto up = [&] {
            const geometry::Vec3 d{p.hook.x_mm - in.centre.x_mm, p.hook.y_mm - in.centre.y_mm, p.hook.z_mm - in.centre.z_mm};
            const double s = std::sqrt(d.x_mm * d.x_mm + d.y_mm * d.y_mm + d.z_mm * d.z_mm);
            return geometry::Vec3{d.x_mm / s, d.y_mm / s, d.z_mm / s};
        }();
        for (size_t k = 0; k < n; ++k) {
            const auto& q = in.legs[k].point;
            const geometry::Vec3 d{p.hook.x_mm - q.x_mm, p.hook.y_mm - q.y_mm, p.hook.z_mm - q.z_mm};
            const double s = std::sqrt(d.x_mm * d.x_mm + d.y_mm * d.y_mm + d.z_mm * d.z_mm);
            CHECK(s <= in.legs[k].length_mm * 1.0051); // no leg is longer than it is
            const double t = p.legs[k].load_kg;
            CHECK(t >= 0);
            slack += p.legs[k].slack;
            const geometry::Vec3 f{t * d.x_mm / s, t * d.y_mm / s, t * d.z_mm / s};
            force = {force.x_mm + f.x_mm, force.y_mm + f.y_mm, force.z_mm + f.z_mm};
            const geometry::Vec3 r{q.x_mm - in.centre.x_mm, q.y_mm - in.centre.y_mm, q.z_mm - in.centre.z_mm};
            moment = {moment.x_mm + r.y_mm * f.z_mm - r.z_mm * f.y_mm, moment.y_mm + r.z_mm * f.x_mm - r.x_mm * f.z_mm,
                      moment.z_mm + r.x_mm * f.y_mm - r.y_mm * f.x_mm};
        }
        CHECK(force.x_mm == Approx(in.mass_kg * up.x_mm).margin(0.002 * in.mass_kg));
        CHECK(force.y_mm == Approx(in.mass_kg * up.y_mm).margin(0.002 * in.mass_kg));
        CHECK(force.z_mm == Approx(in.mass_kg * up.z_mm).margin(0.002 * in.mass_kg));
        CHECK(std::hypot(moment.x_mm, moment.y_mm, moment.z_mm) < 0.004 * in.mass_kg * 1000);
    }
    CHECK(hangs > 200);
    CHECK(slack > 50);
}

TEST_CASE("unstable, too flat, too weak: refused, and just on the other side of each limit not", "[work][lift][safety]") {
    // the slope of a leg: 60°
    for (const bool over : {false, true}) {
        auto in = four(1200, 0.001, 1200 / std::tan((over ? 60.5 : 59.5) * degree), 300);
        in.legs.erase(in.legs.begin() + 1);
        in.legs.erase(in.legs.begin() + 2);
        REQUIRE(in.legs.size() == 2);
        CHECK((work::hang(in).verdict == LiftVerdict::Fails) == over);
    }
    // what a leg carries when two carry all
    for (const double rated : {320.0, 340.0}) {
        auto in = four(1200, 600, 1800, 500);
        in.mass_u95_kg = 20;
        const double most = 520 / (2 * std::cos(std::atan2(std::hypot(1200, 600), 1800)));
        for (auto& l : in.legs) l.rated_kg = rated;
        CHECK((work::hang(in).verdict == LiftVerdict::Fails) == (most > rated));
    }
    // the centre of gravity outside of the points: nothing holds it
    auto outside = four(1200, 600, 1800, 500);
    outside.centre.y_mm = 5000;
    outside.centre.z_mm = 0;
    CHECK(work::hang(outside).verdict == LiftVerdict::Fails);
    // a hook below the centre of gravity
    auto high = four(1200, 600, 300, 500);
    high.centre.z_mm = 400;
    CHECK(work::hang(high).verdict == LiftVerdict::Fails);
    // legs too short to meet
    auto short_legs = four(1200, 600, 1800, 500);
    for (auto& l : short_legs.legs) l.length_mm = 900;
    CHECK_FALSE(work::hang(short_legs).hangs);
    // what is not said never makes it green
    auto unsaid = four(1200, 600, 1800, 500);
    unsaid.legs[2].rated_kg = 0;
    CHECK(work::hang(unsaid).verdict == LiftVerdict::Marginal);
    unsaid.legs[2].rated_kg = 2000;
    unsaid.legs[1].sound = false;
    CHECK(work::hang(unsaid).verdict == LiftVerdict::Marginal);
    CHECK(says(work::hang(unsaid), "was not looked at"));
    unsaid.legs[1].sound = true;
    unsaid.mass_u95_kg = 0;
    CHECK(work::hang(unsaid).verdict == LiftVerdict::Marginal);
}

TEST_CASE("the ± of the tilt covers what happens", "[work][lift][simulation]") {
    std::mt19937 rng(17);
    int inside = 0;
    const int rounds = 1500;
    for (int round = 0; round < rounds; ++round) {
        auto in = four(1200, 600, 1800, 500);
        in.centre = {150, 60, -300};
        in.centre_u95 = {80, 60, 100};
        const auto said = work::hang(in);
        auto real = in;
        std::normal_distribution<double> one;
        real.centre = {in.centre.x_mm + one(rng) * 80 / 1.96, in.centre.y_mm + one(rng) * 60 / 1.96,
                       in.centre.z_mm + one(rng) * 100 / 1.96};
        inside += std::abs(work::hang(real).tilt_rad - said.tilt_rad) <= said.tilt_u95_rad;
    }
    const double share = static_cast<double>(inside) / rounds;
    CHECK(share > 0.93);
    CHECK(share < 0.97);
}

TEST_CASE("two supports carry by the lever rule, and beyond the span one lifts", "[work][lift]") {
    const auto t = work::onTwo(900, 800, 2400);
    CHECK(t.first_kg == Approx(600));
    CHECK(t.second_kg == Approx(300));
    CHECK(work::onTwo(900, 3000, 2400).first_kg < 0);
}

TEST_CASE("a leg that slopes squeezes the shell, unless a spreader holds it apart; an uncertain centre loads the legs more",
          "[work][lift]") {
    for (const double slope : {29.9, 30.1}) {
        const double half = 1000, leg = half / std::sin(slope * degree);
        work::LiftInput in;
        in.legs = {{"front", {-half, 0, 0}, leg, 1000, true}, {"rear", {half, 0, 0}, leg, 1000, true}};
        in.mass_kg = 400;
        in.mass_u95_kg = 1;
        in.centre = {0, 0, -200};
        CHECK(work::hang(in).verdict == (slope > 30 ? LiftVerdict::Marginal : LiftVerdict::Holds));
        CHECK(says(work::hang(in), "no spreader") == (slope > 30));
        in.spreader = true;
        CHECK(work::hang(in).verdict == LiftVerdict::Holds);
        // the centre may be 100 mm nearer to either leg: two legs on a line, by levers where it hangs nearly level
        in.spreader = true;
        const double before = work::hang(in).legs[0].most_kg;
        in.centre_u95 = {100, 0, 0};
        const auto p = work::hang(in);
        in.centre_u95 = {};
        in.centre.x_mm = -100;
        CHECK(p.legs[0].most_kg > before);
        CHECK(p.legs[0].most_kg == Approx(work::hang(in).legs[0].most_kg).epsilon(1e-6));
        in.centre.x_mm = 0;
    }
}

TEST_CASE("a centre of gravity that may lie above the hook is no lift that holds", "[work][lift]") {
    // two legs on a stiff line, steep, the hook 600 mm over the points
    work::LiftInput in;
    const double leg = std::hypot(300.0, 600.0);
    in.legs = {{"front", {-300, 0, 0}, leg, 2000, true}, {"rear", {300, 0, 0}, leg, 2000, true}};
    in.mass_kg = 300;
    in.mass_u95_kg = 1;
    in.spreader = true;
    in.centre = {0, 0, 500};
    in.centre_u95 = {0, 0, 90};
    CHECK(work::hang(in).verdict == LiftVerdict::Holds);
    in.centre_u95 = {0, 0, 110};
    CHECK(work::hang(in).verdict == LiftVerdict::Fails);
    CHECK(says(work::hang(in), "may turn over"));
}

} // namespace work_lift_test
