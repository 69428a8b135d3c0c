#include "sit/sit.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sit_sit_test {

using namespace gorvet;
using sit::PinKind;

namespace {

/// A body of eight points: hinge pair, front and rear sill pairs, rear arch pair; a chassis with four wheel centres.
struct Scene {
    sit::Input in;
    int h = 0, sf = 2, sr = 4, ar = 6, af = 8;
    Scene() {
        for (const auto& [x, y, z] : {std::tuple{560.0, 690.0, 800.0},
                                      {720.0, 700.0, 500.0},
                                      {1920.0, 700.0, 500.0},
                                      {2650.0, 730.0, 560.0},
                                      {0.0, 730.0, 560.0}}) {
            in.body.at.push_back({x, -y, z});
            in.body.at.push_back({x, y, z});
        }
        in.chassis.at = {{0, -720, 430}, {0, 720, 430}, {2790, -720, 430}, {2790, 720, 430}};
        in.front_left = 0;
        in.front_right = 1;
        in.rear_left = 2;
        in.rear_right = 3;
        in.front_height_mm = in.rear_height_mm = 340;
        noise(1.0);
    }
    void noise(double sd) {
        for (auto* located : {&in.body, &in.chassis}) {
            const size_t n = 3 * located->at.size();
            located->covariance.assign(n * n, 0.0);
            for (size_t k = 0; k < n; ++k) located->covariance[k * n + k] = sd * sd;
        }
    }
    sit::Pin pin(PinKind kind, int first, double target, double tolerance = 2) {
        return {kind, {first, first + 1}, target, tolerance, build::Provenance::Derived};
    }
    void usual() {
        in.pins = {pin(PinKind::Station, h, 560), pin(PinKind::Centred, h, 0),   pin(PinKind::Centred, ar, 0),
                   pin(PinKind::Height, sf, 285), pin(PinKind::Height, sr, 285), pin(PinKind::ArchRear, ar, 0)};
    }
};

} // namespace

TEST_CASE("the turn follows the convention: nose up, right side up, nose to the left", "[sit]") {
    const build::Vec3 tail{1000, 0, 0};
    const build::Vec3 right{0, 1000, 0};
    CHECK(sit::place({{}, 0, 0.01, 0}, tail).z_mm < 0);          // pitch up: the tail goes down
    CHECK(sit::place({{}, 0, 0, 0.01}, right).z_mm > 0);         // roll: right side up
    CHECK(sit::place({{}, 0.01, 0, 0}, {-1000, 0, 0}).y_mm < 0); // yaw: nose to the left
    // lengths are kept
    const auto p = sit::place({{10, 20, 30}, 0.3, -0.2, 0.1}, {300, 400, 1200});
    CHECK(std::hypot(p.x_mm - 10, p.y_mm - 20, p.z_mm - 30) == Approx(1300));
    // Rz·Ry·Rx in this order: yaw a quarter after roll a quarter sends up to … the right is up, then turned about up
    const auto q = sit::place({{}, units::pi / 2, 0, units::pi / 2}, {0, 1, 0});
    CHECK(q.z_mm == Approx(1).margin(1e-12));
}

TEST_CASE("pins that can all hold are all held, and the wheelbase follows", "[sit]") {
    Scene s;
    s.noise(0.4);
    s.usual();
    const auto seat = sit::seat(s.in);
    REQUIRE(seat.status == sit::Status::Seated);
    CHECK(seat.open.empty());
    for (const auto& w : seat.pins) {
        CHECK(w.usable);
        CHECK(std::abs(w.miss.value) < 1e-4);
        CHECK(w.verdict == build::PlanVerdict::Holds);
    }
    // arches are 2650 apart, the axles 2790: by hand
    REQUIRE(seat.change_mm);
    CHECK(*seat.change_mm == Approx(-140).margin(0.001));
    CHECK(*seat.wheelbase_now_mm == Approx(2790));
    CHECK_FALSE(seat.change_both_centred_mm); // the front arch is not pinned
    // sill 285 over the ground, which lies at 430 − 340 = 90: so 375; 500 in the body's own frame
    CHECK(seat.pose.shift.z_mm == Approx(-125).margin(0.001));
    CHECK(seat.ground->height_mm == Approx(90));
}

TEST_CASE("rake and level", "[sit]") {
    Scene s;
    s.usual();
    s.in.pins.erase(s.in.pins.begin() + 4);
    s.in.pins.push_back({PinKind::Rake, {2, 3, 4, 5}, units::radians(0.5), units::radians(0.1), build::Provenance::Derived});
    auto seat = sit::seat(s.in);
    REQUIRE(seat.status == sit::Status::Seated);
    CHECK(units::degrees(seat.pose.pitch_rad) == Approx(-0.5).margin(1e-6)); // nose down
    CHECK(seat.pins.back().achieved.value == Approx(units::radians(0.5)).margin(1e-9));
    s.in.pins.back() = {PinKind::Level, {2, 3, 4, 5}, 0, 1, build::Provenance::Derived};
    seat = sit::seat(s.in);
    CHECK(seat.pose.pitch_rad == Approx(0).margin(1e-9));
}

TEST_CASE("the ground leans with unequal tyres, and heights are measured from it", "[sit]") {
    Scene s;
    s.usual();
    s.in.rear_height_mm = 370; // larger rear tyres: the ground falls away 30 mm over the new wheelbase
    const auto seat = sit::seat(s.in);
    REQUIRE(seat.status == sit::Status::Seated);
    REQUIRE(seat.ground);
    CHECK(seat.ground->along == Approx(-30.0 / (2790 + *seat.change_mm)).epsilon(1e-6));
    CHECK(std::abs(seat.pins[4].miss.value) < 1e-3);
    CHECK(seat.pose.pitch_rad > 0); // level over the ground means nose up against the frame
}

TEST_CASE("pins that contradict share the miss by their tolerances", "[sit][closed-form]") {
    Scene s;
    s.usual();
    s.in.pins[3].tolerance = s.in.pins[4].tolerance = 1e-3; // heights hold, so that nothing tips
    s.noise(0.02);
    s.in.pins.push_back({PinKind::ArchFront, {8, 9}, 0, 4, build::Provenance::Derived});
    s.in.pins[0].target = 565; // 5 mm further back than the front arch would like
    const auto seat = sit::seat(s.in);
    // two hinge points with tolerance 2, one arch figure with 4: weights 2/4 and 1/16; x minimises 0.5 (x−5)² + x²/16
    const double x = 5 * 0.5 / (0.5 + 1.0 / 16);
    CHECK(seat.pose.shift.x_mm == Approx(x).margin(1e-3));
    CHECK(seat.pins[0].miss.value == Approx(x - 5).margin(1e-3));
    CHECK(seat.pins.back().miss.value == Approx(x).margin(1e-3));
    CHECK(*seat.change_mm == Approx(-140 + x).margin(1e-3));          // the rear arch is centred where the body now stands
    CHECK(*seat.change_both_centred_mm == Approx(-140).margin(1e-3)); // both would be centred by the arch distance
    CHECK(seat.pins.back().verdict == build::PlanVerdict::Fails);     // 4.4 misses a tolerance of 4, if the ± allow
}

TEST_CASE("a decided change is kept, and the rear arch shows what it costs", "[sit]") {
    Scene s;
    s.usual();
    s.in.pins[3].tolerance = s.in.pins[4].tolerance = 1e-3;
    s.in.decided_change_mm = -130;
    const auto seat = sit::seat(s.in);
    CHECK(seat.change_decided);
    CHECK(*seat.change_mm == -130);
    CHECK(seat.change_u95_mm == 0);
    // hinge (2 points, tol 2) against arch (1, tol 2): 10 mm shared 2 to 1
    CHECK(seat.pins[5].miss.value == Approx(-10 + 10.0 / 3).margin(1e-3));
    CHECK(seat.pins[0].miss.value == Approx(10.0 / 3).margin(1e-3));
}

TEST_CASE("along a sloping rail the rear axle moves down or up with the change", "[sit]") {
    Scene s;
    s.usual();
    s.in.cut_slope_rad = units::radians(2); // down rearward
    const auto seat = sit::seat(s.in);
    REQUIRE(seat.ground);
    // shortened: the rear part comes forward and up the slope, so the rear wheels' ground rises against the frame
    const double rise = -*seat.change_mm * std::tan(units::radians(2));
    CHECK(seat.ground->along == Approx(rise / (2790 + *seat.change_mm)).epsilon(1e-6));
}

TEST_CASE("what no pin decides is named with what to pin", "[sit]") {
    Scene s;
    s.in.pins = {s.pin(PinKind::Centred, s.h, 0)};
    auto seat = sit::seat(s.in);
    CHECK(seat.status == sit::Status::Underdetermined);
    std::string all;
    for (const auto& o : seat.open) all += o + "\n";
    INFO(all);
    for (const char* part : {"fore and aft", "how high", "nose stands", "wheelbase"}) CHECK(all.find(part) != std::string::npos);
    s.usual();
    for (auto& p : s.in.body.at) p.z_mm = 500; // centring at two heights would tell a lean
    s.in.pins[3].points = {2};                 // sill heights on the left alone
    s.in.pins[4].points = {4};
    seat = sit::seat(s.in);
    REQUIRE(seat.open.size() == 1);
    CHECK(seat.open[0].find("leans") != std::string::npos);
    CHECK(sit::seat({}).status == sit::Status::NoPins);
}

TEST_CASE("pins wait for what they need, and the others still hold", "[sit]") {
    Scene s;
    s.usual();
    s.in.front_height_mm.reset();
    auto seat = sit::seat(s.in);
    CHECK_FALSE(seat.pins[3].usable);
    CHECK(seat.pins[3].words == "waits for the ground: type the tyre radii, or the heights of the axles");
    CHECK(seat.pins[0].usable);
    CHECK(std::abs(seat.pins[0].miss.value) < 1e-4);
    s.in.rear_left = s.in.rear_right = -1;
    seat = sit::seat(s.in);
    CHECK(seat.pins[5].words.find("rear-hub") != std::string::npos);
}

TEST_CASE("± of the change: simulated surveys scatter as it says", "[sit][property]") {
    Scene s;
    s.usual();
    s.noise(0.8);
    const auto seat = sit::seat(s.in);
    std::mt19937 rng(12);
    double sum = 0;
    double height = 0;
    constexpr int rounds = 400;
    for (int i = 0; i < rounds; ++i) {
        Scene noisy;
        noisy.usual();
        for (auto* located : {&noisy.in.body, &noisy.in.chassis})
            for (auto& p : located->at)
                p = {p.x_mm + test::normal(rng, 0.8), p.y_mm + test::normal(rng, 0.8), p.z_mm + test::normal(rng, 0.8)};
        const auto n = sit::seat(noisy.in);
        sum += std::pow(*n.change_mm - *seat.change_mm, 2);
        height += std::pow(n.pose.shift.z_mm - seat.pose.shift.z_mm, 2);
    }
    CHECK(seat.change_u95_mm == Approx(build::u95Of(std::sqrt(sum / rounds))).epsilon(0.12));
    CHECK(seat.pose_u95_mm[2] == Approx(build::u95Of(std::sqrt(height / rounds))).epsilon(0.12));
}

TEST_CASE("an assumed figure never makes a green verdict", "[sit]") {
    Scene s;
    s.usual();
    s.noise(0.1);
    s.in.heights = build::Provenance::Assumed;
    const auto seat = sit::seat(s.in);
    CHECK(seat.pins[3].verdict == build::PlanVerdict::Marginal); // over an assumed tyre
    CHECK(seat.pins[0].verdict == build::PlanVerdict::Holds);
}

} // namespace sit_sit_test
