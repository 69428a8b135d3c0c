// A frame as beams: 400 of them under 8 loads, and its 6 lowest ways to swing. The baseline is the same system solved dense, as a
// first program would.
#include "frame/ladder.hpp"

#include "frame/element.hpp"

#include <benchmark/benchmark.h>
#include <cstdlib>

#include <Eigen/Dense>

using namespace gorvet;
using namespace gorvet::frame;

namespace {

Section sectionFrom(const std::vector<std::string>& words) {
    const auto walls = wallsFrom(words);
    if (!walls) std::abort();
    const auto s = sectionOf(*walls);
    if (!s) std::abort();
    return *s;
}

/// A ladder of open rails with six bridges, about 400 beams.
LadderModel frameOf400() {
    Ladder l;
    l.left = {{-600, -420, 500}, {3400, -420, 500}};
    l.right = {{-600, 420, 500}, {3400, 420, 500}};
    l.rail = sectionFrom({"channel", "100", "50", "4"});
    l.front_axle_mm = 0;
    l.rear_axle_mm = 2600;
    for (const double x : {-500.0, 0.0, 700.0, 1400.0, 2600.0, 3300.0})
        l.bridges.push_back({"b", x, sectionFrom({"box", "60", "40", "3"}), 0});
    auto m = modelOf(l, true, 20.3);
    if (!m) std::abort();
    for (const std::size_t node : {m->front[0], m->front[1], m->rear[0], m->rear[1]})
        for (std::size_t d = 0; d < 3; ++d) m->model.nodes[node].spring[d] = 500;
    return *m;
}

std::vector<Load> eightLoads(const LadderModel& m) {
    std::vector<Load> loads;
    for (std::size_t k = 0; k < 8; ++k)
        loads.push_back({"load",
                         {{k % 2 ? m.front[k / 4] : m.rear[k / 4], unit(Dof::Z, 1000.0 + 100 * static_cast<double>(k))}},
                         {0, 0, -9810.0 * static_cast<double>(k)}});
    return loads;
}

void solveEight(benchmark::State& state) {
    const LadderModel m = frameOf400();
    const std::vector<Load> loads = eightLoads(m);
    state.counters["beams"] = static_cast<double>(m.model.beams.size());
    for (auto _ : state) {
        const auto a = solve(m.model, loads);
        if (!a) std::abort();
        benchmark::DoNotOptimize(a->back().moves.back()[2]);
    }
}

void swingSix(benchmark::State& state) {
    const LadderModel m = frameOf400();
    for (auto _ : state) {
        const auto found = modes(m.model, 6);
        if (!found) std::abort();
        benchmark::DoNotOptimize(found->back().hz);
    }
}

/// The same matrix, dense, for eight right sides.
void solveEightDense(benchmark::State& state) {
    const LadderModel m = frameOf400();
    for (auto _ : state) {
        const auto beams = madeOf(m.model);
        const Unknowns u = unknownsOf(m.model, *beams);
        Eigen::MatrixXd k = Eigen::MatrixXd::Zero(u.count, u.count);
        for (const auto& [row, column, v] : gathered(m.model, *beams, u, &Made::held)) k(row, column) += v;
        for (std::size_t n = 0; n < u.of.size(); ++n)
            if (u.of[n] >= 0) k(u.of[n], u.of[n]) += m.model.nodes[n / dofs].spring[n % dofs];
        Eigen::MatrixXd right = Eigen::MatrixXd::Zero(u.count, 8);
        for (Eigen::Index c = 0; c < 8; ++c) right(u.of[m.front[0] * dofs + 2], c) = 1000;
        benchmark::DoNotOptimize(k.ldlt().solve(right).eval()(0, 0));
    }
}

} // namespace

BENCHMARK(solveEight)->Unit(benchmark::kMillisecond);
BENCHMARK(swingSix)->Unit(benchmark::kMillisecond);
BENCHMARK(solveEightDense)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
