// A frame as beams: 400 of them under 8 loads, and its 6 lowest ways to swing. The baseline is the same system solved dense, as a
// first program would.
#include "frame/ladder.hpp"

#include "frame/element.hpp"
#include "frame/structure.hpp"

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

/// The same ladder as a structure, with loads and eight cases in two states of its joints; with a pitch of 33 mm 400 beams.
Structure structureOf(double pitch) {
    Structure s;
    for (const bool right : {false, true}) {
        Line l;
        l.rail = true;
        l.name = right ? "right" : "left";
        const double y = right ? 420 : -420;
        l.points = {{-600, y, 500}, {3400, y, 500}};
        l.pieces = {{4000, {"channel", {100, 50, 4}, {}, right, 0}, 210}};
        s.lines.push_back(l);
    }
    for (const double x : {-500.0, 0.0, 700.0, 1400.0, 2600.0, 3300.0}) {
        Line l;
        l.name = "bridge";
        l.points = {{x, -420, 500}, {x, 420, 500}};
        l.pieces = {{1e9, {"box", {60, 40, 3}, {}, false, 0}, 210}};
        s.lines.push_back(l);
    }
    for (std::size_t k = 0; k < wheels; ++k) s.seats[k] = Seat{{k < 2 ? 0.0 : 2600.0, k % 2 ? 420.0 : -420.0, 500}, 100, 30, {}};
    s.hung = {{"engine", 200, {100, 0, 650}, 600}, {"body", 500, {1500, 0, 900}, 2000}};
    for (int k = 0; k < 8; ++k) s.cases.push_back({"case", 1.0 + k, 0.1 * k, 0.05 * k, {}, false});
    s.pitch_mm = pitch;
    return s;
}
void analyseWhole(benchmark::State& state) {
    const Structure s = structureOf(static_cast<double>(state.range(0)));
    SectionBook book;
    for (auto _ : state) {
        const auto a = analyse(s, book);
        if (!a) std::abort();
        state.counters["beams"] = static_cast<double>(a->beams);
        benchmark::DoNotOptimize(a->twist.free_nm_deg);
    }
}
/// What a plate that is dragged along the rail costs each time.
void twistOfVariant(benchmark::State& state) {
    Structure s = structureOf(static_cast<double>(state.range(0)));
    SectionBook book;
    double at = 700;
    for (auto _ : state) {
        at = at > 2000 ? 700 : at + 5;
        for (std::size_t l = 0; l < 2; ++l) {
            const Profile p{"channel", {100, 50, 4}, {}, l == 1, 0}, shut{"boxed", {100, 50, 4, 4}, {}, l == 1, 0};
            s.lines[l].pieces = {{600 + at, p, 210}, {1000 + at, shut, 210}, {4000, p, 210}};
        }
        const auto t = twistOf(s, book);
        if (!t) std::abort();
        benchmark::DoNotOptimize(t->free_nm_deg);
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
BENCHMARK(analyseWhole)->Arg(33)->Arg(150)->Unit(benchmark::kMillisecond);
BENCHMARK(twistOfVariant)->Arg(33)->Arg(150)->Unit(benchmark::kMillisecond);
BENCHMARK(solveEightDense)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
