// Steering: Ackermann's rule, tie rods closed by hand, the circle, what sets bump steer right, limits on both sides, ± by
// simulation.
#include "drive/steering_sheet.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_steering_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::LinkKind;

constexpr double deg = std::numbers::pi / 180;

/// Equal, level wishbones with upright kingpins 150 inboard of the wheels' middles, a rack behind the axle. `arm`: how far the
/// tie rod's outer joint stands inwards of the kingpin, its arm 140 long to the rear; `higher`: the rack over the height where
/// nothing steers.
SteeringIn car(double arm, double higher = 0) {
    SteeringIn in;
    in.said = true;
    in.lock_rad = 32 * deg;
    in.radius_mm = 320;
    in.wheelbase_mm = 2600;
    const auto place = [&](const char* name, double x, double y, double z) {
        in.places.names.emplace_back(name);
        in.places.at.push_back({x, y, z});
        return in.places.at.size() - 1;
    };
    for (std::size_t side = 0; side < 2; ++side) {
        const double s = side == 0 ? -1 : 1;
        SteeredWheel& w = in.wheels[side];
        w.held.left = w.held.right = place("hub", 0, s * 700, 320);
        for (const double z : {220.0, 420.0}) {
            const auto a = place("a", -120, s * 250, z), b = place("b", 120, s * 250, z), c = place("c", 0, s * 550, z);
            w.held.links.push_back({z < 300 ? "lower" : "upper", LinkKind::Wishbone, {a, b, c}});
            (z < 300 ? w.lower : w.upper) = c;
        }
        // parallel to the wishbones and as long as they are between their axes: it goes up with them and nothing steers
        w.tie_out = place("out", 140, s * (550 - arm), 320);
        w.tie_in = place("in", 140, s * (250 - arm), 320 + higher);
        w.held.links.push_back({"tie", LinkKind::TieRod, {w.tie_in, w.tie_out}});
    }
    in.places.covariance.assign(9 * in.places.at.size() * in.places.at.size(), 0);
    return in;
}
const FullLock& to(const SteeringPlan& p, bool left) {
    for (const FullLock& l : p.locks)
        if (l.left == left) return l;
    FAIL("no lock");
    return p.locks.front();
}
bool says(const SteeringPlan& p, const char* code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const build::Remark& r) { return r.code == code; });
}

TEST_CASE("the outer wheel by the circle, and both wheels on their tie rods by hand", "[drive][steering]") {
    CHECK(1 / std::tan(ackermann(30 * deg, 1400, 2600)) == Approx(1 / std::tan(30 * deg) + 1400.0 / 2600));
    const SteeringIn in = car(38);
    const SteeringPlan p = steeringPlan(in);
    CHECK(p.between_axes_mm == Approx(1100));
    REQUIRE(p.rows.size() > 20);
    for (const SteerRow& row : p.rows)
        for (std::size_t side = 0; side < 2; ++side) {
            // turned about its upright kingpin, the rod is as long as it was
            const SteeredWheel& w = in.wheels[side];
            const Vec3 pivot = in.places.at[*w.lower], out = in.places.at[w.tie_out];
            Vec3 inner = in.places.at[w.tie_in];
            const double rod = geometry::between(inner, out), a = side == 0 ? row.left_rad : row.right_rad;
            inner.y_mm += row.rack_mm;
            const double x = out.x_mm - pivot.x_mm, y = out.y_mm - pivot.y_mm;
            const Vec3 turned{pivot.x_mm + x * std::cos(a) - y * std::sin(a), pivot.y_mm + x * std::sin(a) + y * std::cos(a),
                              out.z_mm};
            CHECK(geometry::between(inner, turned) == Approx(rod).margin(1e-6));
        }
    // mirrored, both locks are alike
    const FullLock &left = to(p, true), &right = to(p, false);
    CHECK(left.inner_rad.value == Approx(32 * deg).margin(0.02 * deg));
    CHECK(left.outer_rad.value == Approx(right.outer_rad.value).margin(1e-6));
    CHECK(left.rack_mm == Approx(-right.rack_mm).margin(1e-3));
    CHECK(left.ideal_rad.value == Approx(ackermann(left.inner_rad.value, 1100, 2600)));
    CHECK(left.off_rad.value == Approx(left.outer_rad.value - left.ideal_rad.value));
    // arms that lean inwards let the inner wheel turn further: more of them, less of the outer
    CHECK(to(steeringPlan(car(0)), true).off_rad.value > left.off_rad.value);
    CHECK(to(steeringPlan(car(60)), true).off_rad.value < left.off_rad.value);
    // the circle: both wheels' lines meet the rear axle's at a mean place, the outer tyre stands 150 outside of its axis
    const double about = (2600 / std::tan(left.inner_rad.value) + 550 + 2600 / std::tan(left.outer_rad.value) - 550) / 2;
    CHECK(left.circle_mm.value == Approx(2 * (std::hypot(2600, about + 550) + 150)));
    CHECK_FALSE(left.circle_now_mm);
    SteeringIn longer = in;
    longer.wheelbase_now_mm = 2400;
    CHECK(*to(steeringPlan(longer), true).circle_now_mm < left.circle_mm.value - 300);
}

TEST_CASE("what makes a wheel steer over bumps is found, and what was tried is said", "[drive][steering]") {
    // parallel and as long: nothing steers
    CHECK(steeringPlan(car(38)).toe[0].before_rad < 0.02 * deg);
    for (const double higher : {-18.0, 12.0, 25.0}) {
        const SteeringPlan p = steeringPlan(car(38, higher));
        INFO(higher);
        for (const ToeRemedy& r : p.toe) {
            CHECK(r.better);
            CHECK(r.up_mm == Approx(-higher).margin(1.01));
            CHECK(r.after_rad < 0.03 * deg);
            CHECK(r.before_rad > 0.3 * deg);
        }
        CHECK(says(p, "steer-bump"));
        CHECK(p.searched.find("40 mm lower to 40 mm higher") != std::string::npos);
        // done as it says, it is gone
        SteeringIn done = car(38, higher);
        for (std::size_t side = 0; side < 2; ++side) done.places.at[done.wheels[side].tie_in].z_mm += p.toe[side].up_mm;
        CHECK_FALSE(says(steeringPlan(done), "steer-bump"));
    }
}

TEST_CASE("steering: each limit on both sides", "[drive][steering]") {
    // with the arms as they are, the wheelbase decides how far the outer wheel is off
    const auto off = [](double arm) { return to(steeringPlan(car(arm)), true).off_rad.value; };
    double low = 0, high = 120; // arms that are off by exactly 4° lie between
    REQUIRE(off(0) > 4 * deg);
    for (int k = 0; k < 40; ++k) {
        const double middle = (low + high) / 2;
        (off(middle) > 4 * deg ? low : high) = middle;
    }
    CHECK(says(steeringPlan(car(low - 1)), "steer-ackermann"));
    CHECK_FALSE(says(steeringPlan(car(high + 1)), "steer-ackermann"));
    // rods that come near their dead line
    const auto straight = [](double lock) {
        SteeringIn in = car(38);
        in.lock_rad = lock;
        return steeringPlan(in);
    };
    const SteeringPlan wide = straight(36 * deg), wider = straight(58 * deg);
    CHECK_FALSE(says(wide, "steer-straight"));
    CHECK(to(wide, true).straight_rad > least_straight_rad);
    if (!wider.locks.empty()) {
        CHECK(to(wider, wider.locks[0].left).straight_rad < to(wide, true).straight_rad);
    }
    // beyond what the rods can do
    CHECK(says(straight(85 * deg), "steer-lock"));
    // what was never measured makes no Holds
    SteeringIn fine = car(38);
    REQUIRE(steeringPlan(fine).verdict == PlanVerdict::Holds);
    fine.assumed.emplace_back("the lock");
    CHECK(steeringPlan(fine).verdict == PlanVerdict::Marginal);
    fine.missing.emplace_back("a tie rod");
    CHECK(steeringPlan(fine).rows.empty());
    CHECK(steeringPlan(SteeringIn{}).rows.empty()); // nothing said
    // its sheet stands on nothing and on everything
    CHECK(steeringSheet({}, 800, 500, {}).items.empty());
    const SteeringIn in = car(38);
    const SteeringPlan plan = steeringPlan(in);
    const sheet::Drawing d = steeringSheet({&in, &plan, 0.5, true}, 1200, 500, {});
    REQUIRE(d.grips.size() == 1);
    CHECK(d.grips[0].value == 0.5);
}

TEST_CASE("the gear ends the lock, goes on after it, or swings its arm", "[drive][steering][gear]") {
    const double needed = std::abs(to(steeringPlan(car(38)), true).rack_mm);
    const auto geared = [&](double each_way) {
        SteeringIn in = car(38);
        in.gear = GearIn{"rack", build::SteerKind::Rack, each_way, 3.0};
        return steeringPlan(in);
    };
    for (const double over : {2.5, 3.5}) { // stops are wanted where it goes on by more than 3
        const SteeringPlan p = geared(needed + over);
        CHECK(says(p, "steer-stops") == (over > 3));
        CHECK(*to(p, true).over_mm == Approx(over).margin(0.05));
        CHECK_FALSE(to(p, true).by_gear);
        CHECK(p.verdict == (over > 3 ? PlanVerdict::Marginal : PlanVerdict::Holds));
    }
    const SteeringPlan shorter = geared(needed - 8);
    const FullLock& ends = to(shorter, true);
    CHECK(says(shorter, "steer-short"));
    CHECK(ends.by_gear);
    CHECK(std::abs(ends.rack_mm) == Approx(needed - 8));
    CHECK(ends.inner_rad.value < 31 * deg);
    CHECK(ends.circle_mm.value > to(geared(needed), true).circle_mm.value + 100);
    // a millimetre of its way is in the angle's ±, though every point is known exactly
    CHECK(ends.inner_rad.u95 ==
          Approx(std::abs(to(geared(needed - 7.5), true).inner_rad.value - to(geared(needed - 8.5), true).inner_rad.value))
              .epsilon(0.05));
    // a turn of the hand wheel: the whole way in three turns
    const SteeringPlan p = geared(needed);
    const SteerRow& beside = *std::find_if(p.rows.begin(), p.rows.end(), [](const SteerRow& r) { return r.rack_mm == 4; });
    CHECK(*p.per_turn_rad == Approx(std::abs(beside.left_rad + beside.right_rad) / 8 * 2 * needed / 3).epsilon(0.01));
    // a rack that lies askew steers the two sides unlike
    SteeringIn askew = car(38);
    for (SteeredWheel& w : askew.wheels) w.held.rack.along = geometry::unit({0.12, 1, 0});
    const SteeringPlan leaning = steeringPlan(askew);
    CHECK(std::abs(to(leaning, true).outer_rad.value - to(leaning, false).outer_rad.value) > 0.3 * deg);
    // an arm of a box: rods as long as they are, their inner ends on its circle
    SteeringIn box = car(38);
    for (SteeredWheel& w : box.wheels) w.held.rack.arm = Vec3{-150, 0, 0};
    box.gear = GearIn{"box", build::SteerKind::Box, 150 * 40 * deg, {}};
    const SteeringPlan swung = steeringPlan(box);
    REQUIRE(swung.rows.size() > 10);
    for (const SteerRow& row : swung.rows) {
        const SteeredWheel& w = box.wheels[0];
        const Vec3 pivot = box.places.at[*w.lower], out = box.places.at[w.tie_out], rest = box.places.at[w.tie_in];
        const double by = row.rack_mm / 150, a = row.left_rad;
        const Vec3 inner{rest.x_mm + 150 * (1 - std::cos(by)), rest.y_mm + 150 * std::sin(by), rest.z_mm};
        const double x = out.x_mm - pivot.x_mm, y = out.y_mm - pivot.y_mm;
        const Vec3 turned{pivot.x_mm + x * std::cos(a) - y * std::sin(a), pivot.y_mm + x * std::sin(a) + y * std::cos(a),
                          out.z_mm};
        CHECK(geometry::between(inner, turned) == Approx(geometry::between(rest, out)).margin(1e-6));
    }
}

TEST_CASE("the ± of a lock that the gear ends covers what it says", "[drive][steering][gear][coverage]") {
    SteeringIn truth = car(38);
    const std::size_t n = 3 * truth.places.at.size();
    for (std::size_t k = 0; k < n; ++k) truth.places.covariance[k * n + k] = 0.49;
    const double needed = std::abs(to(steeringPlan(truth), true).rack_mm);
    truth.gear = GearIn{"rack", build::SteerKind::Rack, needed - 8, {}};
    const FullLock is = to(steeringPlan(truth), true);
    std::mt19937 random(31);
    std::normal_distribution<double> normal(0, 0.7), way(0, build::sigmaOfU95(1));
    constexpr int rounds = 500;
    int inner = 0, circle = 0;
    for (int trial = 0; trial < rounds; ++trial) {
        SteeringIn in = truth;
        for (Vec3& p : in.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) p[axis] += normal(random);
        *in.gear->each_way_mm += way(random);
        const FullLock said = to(steeringPlan(in), true);
        inner += std::abs(said.inner_rad.value - is.inner_rad.value) <= said.inner_rad.u95;
        circle += std::abs(said.circle_mm.value - is.circle_mm.value) <= said.circle_mm.u95;
    }
    INFO(inner << " " << circle);
    for (const int covered : {inner, circle}) {
        CHECK(covered > 0.92 * rounds); // 500 rounds tell to ± 2 %
        CHECK(covered < 0.98 * rounds);
    }
}

TEST_CASE("the ± of lock angles and circle covers what it says", "[drive][steering][coverage]") {
    SteeringIn truth = car(38);
    const std::size_t n = 3 * truth.places.at.size();
    for (std::size_t k = 0; k < n; ++k) truth.places.covariance[k * n + k] = 0.49;
    std::mt19937 random(23);
    std::normal_distribution<double> normal(0, 0.7);
    int outer = 0, off = 0, circle = 0;
    constexpr int rounds = 800;
    const SteeringPlan real = steeringPlan(truth);
    for (int trial = 0; trial < rounds; ++trial) {
        SteeringIn in = truth;
        for (Vec3& p : in.places.at)
            for (std::size_t axis = 0; axis < 3; ++axis) p[axis] += normal(random);
        const FullLock said = to(steeringPlan(in), true);
        const FullLock& is = to(real, true);
        off += std::abs(said.off_rad.value - is.off_rad.value) <= said.off_rad.u95;
        outer += std::abs(said.outer_rad.value - is.outer_rad.value) <= said.outer_rad.u95;
        circle += std::abs(said.circle_mm.value - is.circle_mm.value) <= said.circle_mm.u95;
    }
    INFO("off " << off << ", outer " << outer << ", circle " << circle);
    for (const int covered : {off, outer, circle}) {
        CHECK(covered > 0.93 * rounds);
        CHECK(covered < 0.97 * rounds);
    }
}

} // namespace drive_steering_test
