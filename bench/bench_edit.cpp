// What one step costs by the size of the build that it is taken in: read from the line, kept, copied for the window, and a key
// typed on the line. The baseline copies the same readings as a plain map.
#include "build/edit.hpp"
#include "entry/entry.hpp"
#include "entry/next_words.hpp"

#include <benchmark/benchmark.h>
#include <cstdlib>
#include <fmt/format.h>
#include <map>

using namespace gorvet;
using namespace gorvet::build;

namespace {

void must(bool ok) {
    if (!ok) std::abort();
}

/// 60 points, and so many readings between them.
Build buildOf(std::int64_t readings) {
    Build b;
    const auto put = [&b](auto row) { must(static_cast<bool>(enact(b, Change{Put<decltype(row)>{row}}))); };
    Session s;
    s.id = SessionId{b.next_id};
    s.name = "first";
    s.subject = the_chassis;
    put(s);
    std::vector<PointId> points;
    for (int i = 0; i < 60; ++i) {
        Point p;
        p.id = PointId{b.next_id};
        p.subject = the_chassis;
        p.name = fmt::format("P{}{}", i / 2, i % 2 ? "r" : "l");
        p.rough = Vec3{60.0 * i, i % 2 ? 420.0 : -420.0, 300};
        put(p);
        points.push_back(p.id);
    }
    for (std::int64_t i = 0; i < readings; ++i) {
        Reading r;
        r.id = ReadingId{b.next_id};
        r.session = s.id;
        r.from = points[static_cast<size_t>(i % 59)];
        r.to = points[static_cast<size_t>(i % 59 + 1)];
        r.value = {1000.0 + static_cast<double>(i % 900), "1000 and some", Provenance::Measured};
        put(r);
    }
    return b;
}

const Build& madeOf(std::int64_t readings) {
    static std::map<std::int64_t, Build> made;
    const auto found = made.find(readings);
    return found != made.end() ? found->second : made.emplace(readings, buildOf(readings)).first->second;
}

void baselineCopiesReadingsOfAMap(benchmark::State& state) {
    std::map<ReadingId, Reading> plain;
    for (const auto& [id, r] : madeOf(state.range(0)).readings) plain.emplace(id, r);
    for (auto _ : state) {
        auto copy = plain;
        benchmark::DoNotOptimize(copy);
    }
}

void copyTheBuild(benchmark::State& state) {
    const Build& b = madeOf(state.range(0));
    for (auto _ : state) {
        Build copy = b;
        benchmark::DoNotOptimize(copy);
    }
}

/// As window and command line do: the line is read against the build, its edit applied to a copy that shares the rest.
void readAndKeepALine(benchmark::State& state) {
    const Build& b = madeOf(state.range(0));
    for (auto _ : state) {
        const auto understood = entry::understand(b, {}, "P1l P28r 1613.5");
        must(static_cast<bool>(understood));
        Build now = b;
        must(static_cast<bool>(enact(now, understood->edit)));
        benchmark::DoNotOptimize(now);
    }
}

void typeAKey(benchmark::State& state) {
    const Build& b = madeOf(state.range(0));
    for (auto _ : state) {
        const auto understood = entry::understand(b, {}, "P1l P28r 161");
        const auto next = entry::nextWords(b, {}, "P1l P28r 161", "Tape");
        benchmark::DoNotOptimize(understood);
        benchmark::DoNotOptimize(next);
    }
}

} // namespace

BENCHMARK(baselineCopiesReadingsOfAMap)->Arg(0)->Arg(10000)->Unit(benchmark::kMicrosecond);
BENCHMARK(copyTheBuild)->Arg(0)->Arg(10000)->Unit(benchmark::kMicrosecond);
BENCHMARK(readAndKeepALine)->Arg(0)->Arg(10000)->Unit(benchmark::kMicrosecond);
BENCHMARK(typeAKey)->Arg(0)->Arg(500)->Arg(10000)->Unit(benchmark::kMicrosecond);
BENCHMARK_MAIN();
