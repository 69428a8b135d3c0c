// The ± of a pin is that of what the car will have, not of how well the fit meets its own target: simulated surveys of one true
// car, the body built in where each survey puts it, and the truth looked at there.
#include "sit/sit.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>

namespace sit_outcome_test {

using namespace gorvet;
using build::Bound;
using build::Importance;
using sit::At;
using sit::PinKind;

namespace {

/// A true body and chassis; every coordinate is surveyed to 1 mm, points of one survey share 0.6 mm each way.
struct Car {
    sit::Input truth;
    Car() {
        for (const auto& [x, y, z] : {std::tuple{560.0, 690.0, 800.0}, // 0, 1 hinges
                                      {720.0, 700.0, 500.0},           // 2, 3 sills front
                                      {1920.0, 700.0, 500.0},          // 4, 5 sills rear
                                      {2650.0, 730.0, 560.0},          // 6, 7 rear arches
                                      {0.0, 730.0, 560.0},             // 8, 9 front arches
                                      {300.0, 400.0, 900.0}}) {        // 10, 11 bonnet's rear corners
            truth.body.at.push_back({x, -y, z});
            truth.body.at.push_back({x, y, z});
        }
        truth.body.at.push_back({-500, 0, 880});   // 12 bonnet's nose
        truth.body.at.push_back({900, -350, 750}); // 13 dash
        truth.chassis.at = {{0, -720, 430}, {0, 720, 430}, {2790, -720, 430}, {2790, 720, 430}};
        truth.chassis.at.push_back({100, 0, 820});    // 4 engine's top
        truth.chassis.at.push_back({200, -300, 500}); // 5, 6 steering column
        truth.chassis.at.push_back({800, -340, 700});
        truth.front_left = 0, truth.front_right = 1, truth.rear_left = 2, truth.rear_right = 3;
        truth.front_height_mm = truth.rear_height_mm = 340;
        truth.front_bump_mm = 60, truth.rear_bump_mm = 70;
        for (auto* located : {&truth.body, &truth.chassis}) {
            const size_t n = 3 * located->at.size();
            located->covariance.assign(n * n, 0.0);
            for (size_t k = 0; k < n; ++k)
                for (size_t l = 0; l < n; ++l)
                    located->covariance[k * n + l] = (k == l ? 1.0 : 0.0) + (k % 3 == l % 3 ? 0.36 : 0.0);
        }
        const auto two = [](int first) { return std::vector<At>{first, first + 1}; };
        auto& w = truth.pins;
        w.push_back({PinKind::Station, two(0), 570, 2});
        w.push_back({PinKind::Centred, two(0), 0, 2});
        w.push_back({PinKind::Centred, two(6), 0, 2});
        w.push_back({PinKind::Height, two(2), 290, 2});
        w.push_back({PinKind::Height, two(4), 288, 2});
        w.push_back({PinKind::Level, {2, 3, 4, 5}, 0, 2});
        w.push_back({PinKind::Rake, {2, 3, 4, 5}, 0.002, 0.01});
        w.push_back({PinKind::ArchFront, two(8), 0, 2});
        w.push_back({PinKind::ArchRear, two(6), 0, 2});
        w.push_back({PinKind::Along, {At(5, true)}, 380, 3, build::Provenance::Derived, {At(0)}});
        w.push_back({PinKind::Across, {At(5, true)}, -390, 3, build::Provenance::Derived, {At(0)}});
        w.push_back({PinKind::Up, {At(4, true)}, 60, 3, build::Provenance::Derived, {At(10), At(11)}});
        w.push_back({PinKind::Straight, {At(6, true)}, 110, 3, build::Provenance::Derived, {At(13)}});
        w.push_back({PinKind::Line, {At(13)}, 0, 5, build::Provenance::Derived, {At(5, true), At(6, true)}});
        w.push_back({PinKind::Under, {At(4, true)}, 55, 3, build::Provenance::Derived, {At(10), At(11), At(12)}});
        w.push_back({PinKind::Tyre, {At(8)}, 10, 5}); // of two points the nearer one counts: that is covered a little more often
        w.push_back({PinKind::Bump, two(6), 12, 5});
        w.push_back({PinKind::Clear,
                     {At(13)},
                     60,
                     5,
                     build::Provenance::Derived,
                     {},
                     sit::Envelope{{{820, -480, 640}, {900, -280, 700}}, true}});
    }
    sit::Input survey(std::mt19937& rng) const {
        sit::Input in = truth;
        for (auto* located : {&in.body, &in.chassis}) {
            const double shared[3] = {test::normal(rng, 0.6), test::normal(rng, 0.6), test::normal(rng, 0.6)};
            for (build::Vec3& p : located->at) {
                p.x_mm += shared[0] + test::normal(rng, 1);
                p.y_mm += shared[1] + test::normal(rng, 1);
                p.z_mm += shared[2] + test::normal(rng, 1);
            }
        }
        return in;
    }
    static sit::Seat seatOnly(sit::Input in) {
        in.body.covariance.clear();
        in.chassis.covariance.clear();
        return sit::seat(in);
    }
};

} // namespace

TEST_CASE("2,000 surveys of one car: the ± of every kind of pin covers what the car has in 93 to 97 of 100",
          "[sit][simulation]") {
    const Car car;
    std::mt19937 rng(1410);
    std::vector<int> covered(car.truth.pins.size(), 0);
    std::vector<double> half(car.truth.pins.size(), 0);
    constexpr int rounds = 2000;
    for (int k = 0; k < rounds; ++k) {
        const sit::Input in = car.survey(rng);
        const sit::Seat seat = Car::seatOnly(in);
        const double change = seat.change_mm.value_or(0);
        const auto said = sit::achievedAt(in, seat.pose, change);
        const auto has = sit::achievedAt(car.truth, seat.pose, change);
        if (k == 0) { // the seat says the same
            const sit::Seat full = sit::seat(in);
            for (size_t i = 0; i < said.size(); ++i) CHECK(full.pins[i].achieved.u95 == Approx(said[i].achieved.u95));
        }
        for (size_t i = 0; i < said.size(); ++i) {
            REQUIRE(said[i].usable);
            covered[i] += std::abs(said[i].achieved.value - has[i].achieved.value) <= said[i].achieved.u95;
            half[i] += said[i].achieved.u95 / rounds;
        }
    }
    for (size_t i = 0; i < covered.size(); ++i) {
        const double share = static_cast<double>(covered[i]) / rounds;
        INFO("pin " << i << " of kind " << static_cast<int>(car.truth.pins[i].kind) << ": ± " << half[i] << " covers " << share);
        CHECK(half[i] > (car.truth.pins[i].kind == PinKind::Rake ? 1e-4 : 0.5)); // never the fit's own residual
        CHECK(share >= 0.93);
        CHECK(share <= 0.97);
    }
}

TEST_CASE("a must on its bound is an even chance, and is not said to hold; 1,000 seeds", "[sit][simulation]") {
    Car car;
    auto& w = car.truth.pins;
    w.clear();
    const auto two = [](int first) { return std::vector<At>{first, first + 1}; };
    w.push_back({PinKind::Station, two(0), 570, 2});
    w.push_back({PinKind::Centred, two(0), 0, 2});
    w.push_back({PinKind::Centred, two(6), 0, 2});
    w.push_back({PinKind::Height, two(4), 288, 2});
    w.push_back({PinKind::Height, two(2), 284, 2}); // presses down on it
    sit::Pin must{PinKind::Height, two(2), 290, 2};
    must.bound = Bound::AtLeast;
    must.importance = Importance::Must;
    w.push_back(must);
    std::mt19937 rng(1411);
    int broken = 0;
    int held = 0;
    int held_but_broken = 0;
    for (int k = 0; k < 1000; ++k) {
        sit::Input in = car.survey(rng);
        const sit::Seat seat = Car::seatOnly(in);
        const auto said = sit::achievedAt(in, seat.pose, 0).back();
        const auto has = sit::achievedAt(car.truth, seat.pose, 0).back();
        CHECK(said.achieved.value == Approx(290).margin(0.05));
        CHECK(said.achieved.u95 > 1);
        CHECK(said.verdict == build::PlanVerdict::Marginal);
        broken += has.achieved.value < 290;
        // asked for with 4.5 mm to spare it is said to hold, and does
        in.pins.back().target = 294.5;
        const sit::Seat higher = Car::seatOnly(in);
        in.pins.back().target = 290;
        const auto now = sit::achievedAt(in, higher.pose, 0).back();
        held += now.verdict == build::PlanVerdict::Holds;
        held_but_broken +=
            now.verdict == build::PlanVerdict::Holds && sit::achievedAt(car.truth, higher.pose, 0).back().achieved.value < 290;
    }
    INFO(broken << " of 1000 under the bound; " << held << " said to hold with 4.5 more asked for, of which " << held_but_broken
                << " do not");
    CHECK(broken > 400); // of two points the lower one counts
    CHECK(held > 900);
    CHECK(held_but_broken < 50);
}

TEST_CASE("a pin's verdict is that of its worst point with that point's own ±", "[sit]") {
    Car car;
    auto& in = car.truth;
    in.pins = {{PinKind::Station, {0, 1}, 560, 3}};
    // the left hinge is known to 0.1 mm, the right to 3 mm
    std::fill(in.body.covariance.begin(), in.body.covariance.end(), 0.0);
    std::fill(in.chassis.covariance.begin(), in.chassis.covariance.end(), 0.0);
    const size_t n = 3 * in.body.at.size();
    in.body.covariance[0] = 0.01;
    in.body.covariance[3 * n + 3] = 9;
    const auto w = sit::achievedAt(in, {}, 0).front();
    CHECK(w.achieved.u95 == Approx(build::u95Of(std::sqrt(9.01) / 2)).epsilon(1e-6)); // of the mean
    CHECK(w.verdict == build::PlanVerdict::Marginal);                                 // ± 5.9 against 3
}

} // namespace sit_outcome_test
