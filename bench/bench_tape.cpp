// How long the adjustment takes, against a plain baseline in the same run: undamped Gauss–Newton by dense QR with the same
// observation equations, positions only (no redundancy numbers, no snooping, no mirror images, no words).
#include "tape/equations.hpp"
#include "tape/next_reading.hpp"

#include "support/dense_qr.hpp"
#include "support/support.hpp"

#include <benchmark/benchmark.h>

using namespace gorvet;
using tape::ReadingKind;

namespace {

/// `points` points in pairs, about `readings` readings with noise, one misread by 12 mm.
tape::Survey survey(int points, int readings) {
    std::mt19937 rng(42);
    auto m = test::frameSurvey(points / 2, rng);
    for (int i = 0; i < points; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    // pairs of points by growing distance in the list, until there are enough
    for (int step = 1; step < points && static_cast<int>(m.survey.readings.size()) < readings; ++step)
        for (int i = 0; i + step < points && static_cast<int>(m.survey.readings.size()) < readings; ++i)
            m.read(ReadingKind::Tape, i, i + step, test::normal(rng, 1.2) + (i == 2 && step == 3 ? 12 : 0), 1.2);
    return m.survey;
}

tape::Survey surveyOf(const benchmark::State& state) {
    return survey(static_cast<int>(state.range(0)), static_cast<int>(state.range(1)));
}

void baselineDenseQr(benchmark::State& state) {
    const auto s = surveyOf(state);
    std::vector<build::Vec3> start;
    for (const auto& p : s.points) start.push_back(*p.rough);
    for (auto _ : state) benchmark::DoNotOptimize(test::solveByQr(s, start).at);
}

void wholeSolve(benchmark::State& state) {
    const auto s = surveyOf(state);
    if (tape::solve(s).status != tape::Status::Solved) state.SkipWithError("the survey is not solved");
    for (auto _ : state) benchmark::DoNotOptimize(tape::solve(s));
}

/// All figures and the sections along the length, of a survey that is solved anew each time (covariances are found when asked
/// for).
void conditionOfSolved(benchmark::State& state) {
    const auto s = surveyOf(state);
    tape::FramePoints frame;
    for (int i = 0; i < static_cast<int>(s.points.size()); i += 2) frame.pairs.push_back({i, i + 1});
    for (auto _ : state) {
        state.PauseTiming();
        const auto solution = tape::solve(s);
        state.ResumeTiming();
        benchmark::DoNotOptimize(tape::condition(solution, frame));
    }
}

/// The same survey adjusted freely and laid on three pads, a centreline and a station.
void solveOnDatum(benchmark::State& state) {
    auto s = surveyOf(state);
    const int last = static_cast<int>(s.points.size()) - 1;
    using build::DatumKind;
    s.datum = {{DatumKind::Height, {0}, 0},
               {DatumKind::Height, {1}, 0},
               {DatumKind::Height, {last}, 0},
               {DatumKind::Centred, {0, 1}, 0},
               {DatumKind::Centred, {last - 1, last}, 0},
               {DatumKind::Station, {0}, 0}};
    for (auto _ : state) benchmark::DoNotOptimize(tape::solve(s));
}

void rankAllPairs(benchmark::State& state) {
    const auto s = surveyOf(state);
    const auto solution = tape::solve(s);
    tape::FramePoints frame;
    for (int i = 0; i < static_cast<int>(s.points.size()); i += 2) frame.pairs.push_back({i, i + 1});
    const auto condition = tape::condition(solution, frame);
    for (auto _ : state) benchmark::DoNotOptimize(tape::rankReadings(s, solution, condition, {"everything", -1}, {}, 40));
}

} // namespace

BENCHMARK(baselineDenseQr)->Args({12, 54})->Args({40, 240})->Args({400, 2500})->Unit(benchmark::kMillisecond);
BENCHMARK(wholeSolve)->Args({12, 54})->Args({40, 240})->Args({60, 500})->Args({400, 2500})->Unit(benchmark::kMillisecond);
BENCHMARK(conditionOfSolved)->Args({40, 240})->Args({400, 2500})->Unit(benchmark::kMillisecond);
BENCHMARK(solveOnDatum)->Args({40, 240})->Args({400, 2500})->Unit(benchmark::kMillisecond);
BENCHMARK(rankAllPairs)->Args({30, 180})->Args({60, 500})->Unit(benchmark::kMillisecond);
BENCHMARK_MAIN();
