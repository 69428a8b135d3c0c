#include "tape/next_reading.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_condition_test {

using namespace gorvet;
using tape::FigureKind;

namespace {

/// A solution whose points are known exactly, each coordinate with the same σ and no correlation.
tape::Solution known(const std::vector<build::Vec3>& at, double sd) {
    tape::Solution s;
    s.status = tape::Status::Solved;
    for (const auto& p : at) {
        tape::AdjustedPoint a;
        a.placed = a.determined = true;
        a.position = p;
        a.sd_mm[0] = a.sd_mm[1] = a.sd_mm[2] = sd;
        s.points.push_back(a);
    }
    const size_t n = 3 * at.size();
    std::vector<double> all(n * n, 0.0);
    for (size_t k = 0; k < n; ++k) all[k * n + k] = sd * sd;
    s.covariance = tape::Covariance::of(n, std::move(all));
    return s;
}
const tape::ConditionFigure& figure(const tape::Condition& c, FigureKind kind) {
    for (const auto& f : c.figures)
        if (f.kind == kind) return f;
    FAIL("figure missing");
    return c.figures.front();
}
tape::FramePoints pairs(int n) {
    tape::FramePoints f;
    for (int i = 0; i < n; ++i) f.pairs.push_back({2 * i, 2 * i + 1});
    return f;
}

} // namespace

TEST_CASE("diamond equals (d₁² − d₂²)/(4 l), whichever way the frame lies", "[tape][closed-form]") {
    std::mt19937 rng(4);
    for (int round = 0; round < 50; ++round) {
        const double l = 2000 + test::normal(rng, 300);
        const double w = 800 + test::normal(rng, 60);
        const double lean = test::normal(rng, 8);
        const double yaw = test::normal(rng, 0.02);
        std::vector<build::Vec3> at = {{lean, -w / 2, 0}, {0, w / 2, 0}, {l + lean, -w / 2, 0}, {l, w / 2, 0}};
        for (auto& p : at)
            p = {p.x_mm * std::cos(yaw) - p.y_mm * std::sin(yaw) + 30, p.x_mm * std::sin(yaw) + p.y_mm * std::cos(yaw) - 11, 0};
        const auto c = tape::condition(known(at, 0.5), pairs(2));
        const auto plan = [&](int a, int b) { return std::hypot(at[b].x_mm - at[a].x_mm, at[b].y_mm - at[a].y_mm); };
        const double d1 = plan(1, 2); // right front to left rear
        const double d2 = plan(0, 3);
        const double formula = (d1 * d1 - d2 * d2) / (4 * (plan(0, 2) + plan(1, 3)) / 2);
        const auto& f = figure(c, FigureKind::Diamond);
        CHECK(f.size_mm.value == Approx(formula).margin(0.02));
        CHECK(f.size_mm.value == Approx(lean).margin(0.02));
        CHECK(f.words == (lean > 0 ? "left rail aft" : "right rail aft"));
        // by hand: ∂δ/∂x = ± 1/2 and ∂δ/∂y = ± w/(2 l) at each of the four corners
        CHECK(f.size_mm.u95 == Approx(1.96 * 0.5 * std::sqrt(1 + w * w / (l * l))).epsilon(0.02));
    }
}

TEST_CASE("twist is the difference of two cross-levels", "[tape][closed-form]") {
    const std::vector<build::Vec3> at = {{0, -400, 0}, {0, 400, 6}, {2000, -400, 0}, {2000, 400, -1}};
    const auto c = tape::condition(known(at, 0.7), pairs(2));
    const auto& f = figure(c, FigureKind::Twist);
    CHECK(f.size_mm.value == Approx(7).margin(0.01));
    CHECK(units::degrees(f.angle_rad.value) == Approx(units::degrees(std::atan(7.0 / 800))).margin(0.001));
    CHECK(f.size_mm.u95 == Approx(1.96 * 0.7 * 2).epsilon(0.01)); // four heights
    CHECK(f.words == "right side high at the front");
    CHECK(f.verdict == build::PlanVerdict::Fails);
    CHECK(proven(f.size_mm));
}

TEST_CASE("rails, sidesway, wheelbases and tracks", "[tape]") {
    std::vector<build::Vec3> at = {{0, -400, 0},   {0, 400, 0},   {1000, -395, 0}, {1000, 405, 0},  {2000, -400, 0},
                                   {1994, 400, 0}, {50, -700, 0}, {52, 700, 0},    {1950, -690, 0}, {1948, 710, 0}};
    auto frame = pairs(3);
    frame.front_hub_left = 6;
    frame.front_hub_right = 7;
    frame.rear_hub_left = 8;
    frame.rear_hub_right = 9;
    auto c = tape::condition(known(at, 0.3), frame);
    CHECK(figure(c, FigureKind::RailDifference).size_mm.value == Approx(6));
    CHECK(figure(c, FigureKind::RailDifference).words == "right rail short");
    CHECK(figure(c, FigureKind::Sidesway).size_mm.value == Approx(5).margin(0.01));
    CHECK(figure(c, FigureKind::WheelbaseLeft).size_mm.value == Approx(1900));
    CHECK(figure(c, FigureKind::WheelbaseRight).size_mm.value == Approx(1896));
    CHECK(figure(c, FigureKind::WheelbaseDifference).size_mm.value == Approx(4));
    CHECK(figure(c, FigureKind::TrackRear).size_mm.value == Approx(1400));
    CHECK_FALSE(figure(c, FigureKind::WheelbaseLeft).judged);
    // points that are not fixed take their figures with them
    auto s = known(at, 0.3);
    s.points[9].determined = false;
    c = tape::condition(s, frame);
    for (const auto& f : c.figures) {
        CHECK(f.kind != FigureKind::WheelbaseRight);
        CHECK(f.kind != FigureKind::WheelbaseDifference);
    }
    CHECK(tape::condition(known({}, 1), {}).figures.empty());
}

TEST_CASE("what is not proven", "[tape]") {
    const std::vector<build::Vec3> at = {{1, -400, 0}, {0, 400, 0}, {2001, -400, 0}, {2000, 400, 0}};
    const auto c = tape::condition(known(at, 1.5), pairs(2));
    const auto& f = figure(c, FigureKind::Diamond);
    CHECK(f.size_mm.value == Approx(1).margin(0.01));
    CHECK_FALSE(proven(f.size_mm)); // 1 ± 3
}

TEST_CASE("the next reading is the one that takes most off the figures", "[tape]") {
    std::mt19937 rng(6);
    auto m = test::frameSurvey(4, rng);
    for (int i = 0; i < 8; ++i) m.read(tape::ReadingKind::Height, i);
    for (int i = 0; i + 2 < 8; ++i) m.read(tape::ReadingKind::Tape, i, i + 2);
    for (int i = 0; i < 8; i += 2) m.read(tape::ReadingKind::Tape, i, i + 1);
    m.read(tape::ReadingKind::Tape, 0, 3);
    m.read(tape::ReadingKind::Tape, 2, 5, 0);
    m.read(tape::ReadingKind::Tape, 4, 7, 0);
    const auto frame = pairs(4);
    auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    const auto variance = [&](const tape::Survey& survey) {
        const auto c = tape::condition(tape::solve(survey), frame);
        double sum = 0;
        for (const auto& f : c.figures)
            if (f.judged) sum += f.size_mm.u95 * f.size_mm.u95;
        return sum;
    };
    const tape::Means tape_only{8000, false};
    const auto ranked = tape::rankReadings(m.survey, s, tape::condition(s, frame), {"figures", -1}, tape_only, 100);
    REQUIRE(ranked.size() > 2);
    const auto* next = &ranked.front();
    CHECK_FALSE(next->words().empty());
    const double truth =
        std::hypot(m.truth[next->to].x_mm - m.truth[next->from].x_mm, m.truth[next->to].y_mm - m.truth[next->from].y_mm,
                   m.truth[next->to].z_mm - m.truth[next->from].z_mm);
    CHECK(next->about == Approx(truth).margin(3));
    // by brute force: add every pair in turn and solve again
    double best = 1e300;
    for (int i = 0; i < 8; ++i)
        for (int j = i + 1; j < 8; ++j) {
            bool taped = false;
            for (const auto& r : m.survey.readings)
                taped = taped || (r.kind == tape::ReadingKind::Tape && std::minmax(r.from, r.to) == std::minmax(i, j));
            if (taped) continue;
            auto more = m;
            more.read(tape::ReadingKind::Tape, i, j);
            more.survey.readings.back().sigma = build::defaultSigma(tape::ReadingKind::Tape, more.survey.readings.back().value);
            best = std::min(best, variance(more.survey));
        }
    auto chosen = m;
    chosen.read(tape::ReadingKind::Tape, next->from, next->to);
    chosen.survey.readings.back().sigma = build::defaultSigma(tape::ReadingKind::Tape, chosen.survey.readings.back().value);
    CHECK(variance(chosen.survey) <= best * 1.02);
    CHECK(variance(chosen.survey) < variance(m.survey));
    for (size_t i = 1; i < ranked.size(); ++i) CHECK(ranked[i].gain_mm2 <= ranked[i - 1].gain_mm2);
}

TEST_CASE("axles: set-back, thrust angle and offset, square to the frame's own line", "[tape][closed-form]") {
    // a frame swung by 2° in plan, and the same axles on it: the figures do not change
    for (const double swing : {0.0, units::radians(2)}) {
        std::vector<build::Vec3> at = {{0, -400, 0},   {0, 400, 0},    {1000, -400, 0}, {1000, 400, 0},   {2000, -400, 0},
                                       {2000, 400, 0}, {50, -700, 30}, {54.5, 700, 30}, {1950, -690, 30}, {1946, 702, 30}};
        for (auto& p : at)
            p = {p.x_mm * std::cos(swing) - p.y_mm * std::sin(swing), p.x_mm * std::sin(swing) + p.y_mm * std::cos(swing),
                 p.z_mm};
        auto frame = pairs(3);
        frame.front_hub_left = 6;
        frame.front_hub_right = 7;
        frame.rear_hub_left = 8;
        frame.rear_hub_right = 9;
        const auto c = tape::condition(known(at, 0.3), frame);
        const auto& back = figure(c, FigureKind::SetBack);
        CHECK(back.size_mm.value == Approx(4.5).margin(0.01));
        CHECK(back.words == "right front wheel back");
        CHECK(back.remedy == "Move the right front wheel 4.5 mm forward.");
        CHECK(back.verdict == build::PlanVerdict::Fails); // 4.5 against 3, ± 0.9
        const auto& thrust = figure(c, FigureKind::Thrust);
        CHECK(thrust.size_mm.value == Approx(-4).margin(0.01));
        CHECK(units::degrees(thrust.angle_rad.value) == Approx(-units::degrees(std::atan(4.0 / 1392))).margin(1e-4));
        CHECK(thrust.words == "left rear wheel back, it pushes to the left");
        CHECK(thrust.limit == Approx(units::radians(0.1)));
        CHECK(thrust.verdict == build::PlanVerdict::Fails);
        // by hand: two hubs, and the line of three pairs over 2 m
        const double line_sd = 0.3 / std::sqrt(2.0) / (std::sqrt(2.0) * 1000);
        CHECK(thrust.size_mm.u95 == Approx(1.96 * std::hypot(0.3 * std::sqrt(2.0), line_sd * 1392)).epsilon(0.02));
        const auto& offset = figure(c, FigureKind::RearOffset);
        CHECK(offset.size_mm.value == Approx(6).margin(0.05));
        CHECK(offset.remedy == "Move the rear axle 6.0 mm to the left.");
    }
    // without a frame the line between the axles' middles serves, and nothing is said of an offset
    std::vector<build::Vec3> at = {{0, -700, 0}, {0, 700, 0}, {2600, -700, 0}, {2605, 700, 0}};
    tape::FramePoints frame;
    frame.front_hub_left = 0;
    frame.front_hub_right = 1;
    frame.rear_hub_left = 2;
    frame.rear_hub_right = 3;
    const auto c = tape::condition(known(at, 0.3), frame);
    CHECK(figure(c, FigureKind::Thrust).size_mm.value == Approx(5).margin(0.01));
    for (const auto& f : c.figures) CHECK(f.kind != FigureKind::RearOffset);
}

} // namespace tape_condition_test
