// What to measure next: against solving again with the reading really added.
#include "tape/next_reading.hpp"

#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>
#include <tuple>

namespace tape_next_reading_test {

using namespace gorvet;
using tape::ReadingKind;

namespace {

struct Frame {
    test::SurveyMaker m;
    tape::FramePoints frame;
    tape::Solution s;
    tape::Condition c;
};

/// Sparsely taped, so that there is something to gain.
Frame sparse(int pairs, unsigned seed) {
    std::mt19937 rng(seed);
    Frame f{test::frameSurvey(pairs, rng), {}, {}, {}};
    f.frame.rails = true;
    const int n = 2 * pairs;
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < std::min(n, i + 4); ++j) f.m.read(ReadingKind::Tape, i, j, test::normal(rng, 1), 1);
    for (int i = 2; i < n; i += 2) f.m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    for (int i = 2; i < n; i += 2) f.m.read(ReadingKind::Level, i, i + 1, test::normal(rng, 2), 2);
    for (int p = 0; p < pairs; ++p) f.frame.pairs.push_back({2 * p, 2 * p + 1});
    f.s = tape::solve(f.m.survey);
    f.c = tape::condition(f.s, f.frame);
    return f;
}

/// The survey with a reading taken that is exactly what is expected.
tape::Survey with(tape::Survey survey, const tape::RankedReading& r) {
    survey.readings.push_back(
        {static_cast<int>(survey.readings.size()) + 1, r.kind, r.from, r.to, r.about, build::defaultSigma(r.kind, r.about)});
    return survey;
}

double u95OfPart(const tape::Survey& survey, const tape::FramePoints& frame, const std::string& name) {
    const auto s = tape::solve(survey, {.set_aside = false});
    for (const auto& f : tape::condition(s, frame).figures)
        if (f.name == name) return f.size_mm.u95 / s.sigma_0;
    return -1;
}

} // namespace

TEST_CASE("± before and after are what solving again gives", "[tape][next]") {
    const Frame f = sparse(6, 11);
    REQUIRE(f.s.status == tape::Status::Solved);
    for (const char* key : {"diamond", "twist", "rails"}) {
        INFO(key);
        const auto ranked = tape::rankReadings(f.m.survey, f.s, f.c, {key, -1}, {}, 30);
        REQUIRE(ranked.size() == 30);
        for (const size_t i : {size_t{0}, size_t{7}, size_t{29}}) {
            CHECK(ranked[i].before_mm / f.s.sigma_0 == Approx(u95OfPart(f.m.survey, f.frame, ranked[i].what)).epsilon(0.01));
            CHECK(ranked[i].after_mm / f.s.sigma_0 ==
                  Approx(u95OfPart(with(f.m.survey, ranked[i]), f.frame, ranked[i].what)).epsilon(0.03));
        }
    }
    const auto of_point = tape::rankReadings(f.m.survey, f.s, f.c, {"point", 9}, {}, 5);
    REQUIRE_FALSE(of_point.empty());
    const auto spread = [](const tape::Solution& s) {
        return tape::u95Of(std::hypot(s.points[9].sd_mm[0], s.points[9].sd_mm[1], s.points[9].sd_mm[2]) / s.sigma_0);
    };
    CHECK(of_point[0].before_mm / f.s.sigma_0 == Approx(spread(f.s)).epsilon(0.01));
    CHECK(of_point[0].after_mm / f.s.sigma_0 ==
          Approx(spread(tape::solve(with(f.m.survey, of_point[0]), {.set_aside = false}))).epsilon(0.03));
    CHECK(of_point[0].words().find("would take " + f.m.survey.points[9].name + " from ± ") == 0);
}

TEST_CASE("only what can be taken is offered", "[tape][next]") {
    const Frame f = sparse(6, 12);
    std::set<std::pair<int, int>> taped;
    for (const auto& r : f.m.survey.readings)
        if (r.kind == ReadingKind::Tape) taped.insert(std::minmax(r.from, r.to));
    const auto all = tape::rankReadings(f.m.survey, f.s, f.c, {}, {2000, true}, 1000);
    int heights = 0;
    for (const auto& r : all) {
        if (r.kind == ReadingKind::Height) {
            ++heights;
            for (const auto& taken : f.m.survey.readings)
                CHECK_FALSE((taken.kind == ReadingKind::Height && taken.from == r.from));
        } else if (r.kind == ReadingKind::Tape) {
            CHECK(r.about <= 2000);
            CHECK_FALSE(taped.contains(std::minmax(r.from, r.to)));
        } else {
            CHECK(r.kind == ReadingKind::Level); // a gauge takes levels, too
            for (const auto& taken : f.m.survey.readings)
                CHECK_FALSE((taken.kind == ReadingKind::Level && std::minmax(taken.from, taken.to) == std::minmax(r.from, r.to)));
        }
    }
    CHECK(heights == 5); // the right side, but for the one that is held
    for (const auto& r : tape::rankReadings(f.m.survey, f.s, f.c, {}, {2000, false}, 1000)) CHECK(r.kind == ReadingKind::Tape);
    CHECK(tape::rankReadings(f.m.survey, f.s, f.c, {}, {10, false}, 1000).empty());
    // a wish for a figure that can't be had yet falls back to the points
    CHECK_FALSE(tape::rankReadings(f.m.survey, f.s, {}, {"twist", -1}, {}, 5).empty());
    CHECK(tape::rankReadings({}, {}, {}, {}, {}, 5).empty());
}

TEST_CASE("a round of readings counts each with those before it", "[tape][next]") {
    const Frame f = sparse(7, 13);
    const auto plan = tape::planReadings(f.m.survey, f.s, f.c, {"rails", -1}, {8000, false}, 8);
    REQUIRE(plan.size() == 8);
    tape::Survey survey = f.m.survey;
    for (size_t i = 0; i < plan.size(); ++i) {
        CHECK(plan[i].before_mm / f.s.sigma_0 == Approx(u95OfPart(survey, f.frame, plan[i].what)).epsilon(0.05));
        survey = with(survey, plan[i]);
        CHECK(plan[i].after_mm / f.s.sigma_0 == Approx(u95OfPart(survey, f.frame, plan[i].what)).epsilon(0.05));
    }
    // together they are worth more than the eight that are best one by one
    const auto alone = tape::rankReadings(f.m.survey, f.s, f.c, {"rails", -1}, {8000, false}, 8);
    const auto sum = [&](const std::vector<tape::RankedReading>& readings) {
        tape::Survey more = f.m.survey;
        for (const auto& r : readings) more = with(more, r);
        const auto s = tape::solve(more, {.set_aside = false});
        double total = 0;
        for (const auto& figure : tape::condition(s, f.frame).figures)
            if (figure.kind == tape::FigureKind::RailDifference) total += std::pow(figure.size_mm.u95 / s.sigma_0, 2);
        return total;
    };
    CHECK(sum(plan) <= sum(alone) * 1.001);
}

TEST_CASE("which of two equal readings comes first is not left to the last bit of a sum", "[tape][next]") {
    // a frame that mirrors itself, every coordinate known alike: left and right gain the same
    std::mt19937 rng(15);
    tape::Survey survey;
    tape::Solution s;
    s.status = tape::Status::Solved;
    for (int i = 0; i < 4; ++i)
        for (const int side : {-1, 1}) {
            const build::Vec3 at{700.0 * i, 390.0 * side, 350.0 + 30 * (i % 2)};
            survey.points.push_back({std::string(1, static_cast<char>('A' + i)) + (side < 0 ? "l" : "r"), at});
            s.points.push_back({true, true, false, at, {0.5, 0.5, 0.5}});
        }
    const auto order = [&](double last_bits) {
        std::vector<double> variances;
        for (size_t k = 0; k < 3 * s.points.size(); ++k) variances.push_back(0.25 * (1 + test::normal(rng, last_bits)));
        s.covariance = tape::Covariance::diagonal(std::move(variances));
        std::vector<std::tuple<ReadingKind, int, int>> list;
        for (const auto& r : tape::rankReadings(survey, s, {}, {"everything", -1}, {8000, false}, 20))
            list.emplace_back(r.kind, r.from, r.to);
        for (const auto& r : tape::planReadings(survey, s, {}, {"everything", -1}, {8000, false}, 6))
            list.emplace_back(r.kind, r.from, r.to);
        return list;
    };
    const auto once = order(1e-18);
    REQUIRE(once.size() == 26);
    for (int run = 0; run < 20; ++run) CHECK(order(1e-14) == once);
}

TEST_CASE("the walk goes round once", "[tape][next]") {
    const Frame f = sparse(8, 14);
    const auto plan = tape::planReadings(f.m.survey, f.s, f.c, {"everything", -1}, {1500, true}, 20);
    const auto order = tape::walkingOrder(f.s, plan);
    REQUIRE(order.size() == plan.size());
    CHECK(std::set<size_t>(order.begin(), order.end()).size() == plan.size());
    const auto middle = [&](size_t i) {
        return (f.s.points[plan[i].from].position.x_mm + f.s.points[plan[i].to >= 0 ? plan[i].to : plan[i].from].position.x_mm) /
               2;
    };
    double walked = 0;
    double as_chosen = 0;
    for (size_t i = 1; i < order.size(); ++i) {
        walked += std::abs(middle(order[i]) - middle(order[i - 1]));
        as_chosen += std::abs(middle(i) - middle(i - 1));
    }
    CHECK(walked < 0.6 * as_chosen);
    CHECK(tape::walkingOrder(f.s, {}).empty());
}

TEST_CASE("before the survey is fixed, the one reading that fixes most comes first", "[tape][next]") {
    std::mt19937 rng(31);
    auto m = test::frameSurvey(4, rng, 10);
    // all is measured but the height of one point, through which another hangs by a level
    const int a = m.point("P", 900, 100, 350);
    const int b = m.point("Q", 1500, 120, 360);
    for (int i = 0; i < 8; ++i) {
        m.read(ReadingKind::Height, i);
        m.read(ReadingKind::Offset, i);
        m.read(ReadingKind::Station, i);
    }
    for (const int p : {a, b}) {
        m.read(ReadingKind::Offset, p);
        m.read(ReadingKind::Station, p);
    }
    m.read(ReadingKind::Level, a, b);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::NotDetermined);
    const auto ranked = tape::rankReadings(m.survey, s, {}, {"everything", -1}, {}, 500);
    REQUIRE_FALSE(ranked.empty());
    CHECK(ranked.front().fixes == 2);
    CHECK(ranked.front().words() == "would fix 2 points");
    CHECK((ranked.front().from == a || ranked.front().from == b || ranked.front().to == a || ranked.front().to == b));
    // and it is true: with that reading the survey is fixed
    auto more = m;
    more.read(ranked.front().kind, ranked.front().from, ranked.front().to);
    CHECK(tape::solve(more.survey).status == tape::Status::Solved);
    // a reading that closes nothing comes last
    CHECK(ranked.back().fixes == 0);
    // without a height gauge a tape does it, when it is not level
    tape::Means no_gauge;
    no_gauge.gauge = false;
    const auto tapes = tape::rankReadings(m.survey, s, {}, {"everything", -1}, no_gauge, 500);
    REQUIRE_FALSE(tapes.empty());
    CHECK(tapes.front().kind == ReadingKind::Tape);
    CHECK(tapes.front().fixes == 2);
}

} // namespace tape_next_reading_test
