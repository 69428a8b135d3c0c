// The order of work: what the search for the fewest moves costs beside an order that regards needs alone (the baseline, which
// moves body and frame whenever the next step asks for it), and what a long register costs.
#include "sheet/page.hpp"
#include "work/register_sheet.hpp"
#include "work/schedule.hpp"
#include "work/work.hpp"

#include <algorithm>
#include <benchmark/benchmark.h>
#include <map>
#include <random>

using namespace gorvet;
using namespace gorvet::build;

namespace {

std::vector<work::Step> jobs(int n) {
    std::mt19937 rng(9);
    std::vector<work::Step> steps;
    for (int i = 0; i < n; ++i) {
        work::Step s;
        s.code = "s" + std::to_string(i);
        for (int k = std::max(0, i - 12); k < i; ++k)
            if (rng() % 4 == 0) s.after.push_back("s" + std::to_string(k));
        switch (rng() % 6) {
        case 0: s.body = BodyPlace::On; break;
        case 1: s.body = BodyPlace::Off; break;
        case 2: s.attitude = rng() % 2 ? Attitude::Inverted : Attitude::RightWayUp; break;
        case 3: s.support = rng() % 2 ? Support::Stands : Support::Trestles; break;
        default: break;
        }
        if (s.attitude == Attitude::Inverted) s.body = BodyPlace::Off;
        steps.push_back(s);
    }
    return steps;
}

constexpr work::Stance start{BodyPlace::On, Attitude::RightWayUp, Support::Stands};

/// Moves that an order takes that regards needs alone.
int movesByNeedAlone(const std::vector<work::Step>& steps) {
    std::map<std::string, size_t> index;
    for (size_t i = 0; i < steps.size(); ++i) index.emplace(steps[i].code, i);
    work::Stance at = start;
    int moves = 0;
    for (const work::Step& s : steps) { // they came in an order of their needs
        for (const std::string& code : s.after) benchmark::DoNotOptimize(index.find(code));
        const auto to = [&](auto& now, const auto& asked) {
            if (!asked || now == *asked) return;
            now = *asked;
            ++moves;
        };
        to(at.attitude, s.attitude);
        to(at.body, s.body);
        to(at.support, s.support);
    }
    return moves;
}

void needsAlone(benchmark::State& state) {
    const auto steps = jobs(static_cast<int>(state.range(0)));
    int moves = 0;
    for (auto _ : state) benchmark::DoNotOptimize(moves = movesByNeedAlone(steps));
    state.counters["moves"] = moves;
}
BENCHMARK(needsAlone)->Arg(30)->Arg(100)->Arg(300)->Unit(benchmark::kMillisecond);

void fewestMoves(benchmark::State& state) {
    const auto steps = jobs(static_cast<int>(state.range(0)));
    work::Moves m;
    for (auto _ : state) benchmark::DoNotOptimize(m = work::fewestMoves(steps, start));
    state.counters["moves"] = m.moves;
    state.counters["no_fewer_than"] = m.least;
}
BENCHMARK(fewestMoves)->Arg(30)->Arg(100)->Arg(300)->Unit(benchmark::kMillisecond);

void ordersOfJobs(benchmark::State& state) {
    work::Facts f;
    f.has_body = f.cut_planned = true;
    f.cut_words = "at 1250";
    std::mt19937 rng(4);
    for (int i = 0; i < state.range(0); ++i) {
        Job j;
        j.id = JobId{static_cast<std::uint32_t>(i + 1)};
        j.name = "j" + std::to_string(i);
        j.kind = static_cast<JobKind>(rng() % Words<JobKind>::text.size());
        j.area = "area " + std::to_string(rng() % 12);
        if (rng() % 3 == 0) j.body = rng() % 2 ? BodyPlace::On : BodyPlace::Off;
        if (i && rng() % 2) j.after = {"j" + std::to_string(rng() % static_cast<unsigned>(i))};
        f.jobs.push_back(std::move(j));
    }
    work::Order o;
    for (auto _ : state) benchmark::DoNotOptimize(o = work::order(f, {}));
    state.counters["steps"] = static_cast<double>(o.steps.size());
    state.counters["moves"] = o.moves_left;
    state.counters["no_fewer_than"] = o.least_moves;
}
BENCHMARK(ordersOfJobs)->Arg(30)->Arg(100)->Arg(300)->Unit(benchmark::kMillisecond);

void registerOnPaper(benchmark::State& state) {
    std::vector<Release> rows;
    for (int k = 0; k < state.range(0); ++k) {
        Release r;
        r.name = "row-" + std::to_string(k);
        r.area = "area " + std::to_string(k % 30);
        r.joins = "what it joins";
        rows.push_back(std::move(r));
    }
    for (auto _ : state) benchmark::DoNotOptimize(work::registerSheet(rows, {"Taken apart", "bench", "", {}}, {}));
}
BENCHMARK(registerOnPaper)->Arg(100)->Arg(5000)->Unit(benchmark::kMillisecond);

} // namespace


namespace {

work::ScheduleInput planOf(int steps) {
    std::mt19937 rng(4);
    work::ScheduleInput in;
    in.today = 20'000;
    in.hours.people = 2;
    for (int i = 0; i < steps; ++i) {
        work::Task t;
        t.code = "s" + std::to_string(i);
        t.least_h = 1 + rng() % 3;
        t.likely_h = t.least_h + 1 + rng() % 3;
        t.most_h = t.likely_h + 2 + rng() % 6;
        t.alone = i % 20 == 19;
        for (int k = std::max(0, i - 6); k < i; ++k)
            if (rng() % 4 == 0) t.after.push_back(static_cast<std::size_t>(k));
        in.tasks.push_back(std::move(t));
    }
    return in;
}

/// One way alone: the baseline, a thousand of which a schedule draws.
void oneWay(benchmark::State& state) {
    work::ScheduleInput in = planOf(static_cast<int>(state.range(0)));
    in.draws = 1;
    for (auto _ : state) benchmark::DoNotOptimize(work::schedule(in).finish.p50);
}
void thousandWays(benchmark::State& state) {
    const work::ScheduleInput in = planOf(static_cast<int>(state.range(0)));
    for (auto _ : state) benchmark::DoNotOptimize(work::schedule(in).finish.p90);
}

} // namespace

BENCHMARK(oneWay)->Arg(60)->Arg(300)->Unit(benchmark::kMillisecond);
BENCHMARK(thousandWays)->Arg(60)->Arg(300)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
