// What the Scan bench works out of a build with scans, as it does while a body is dragged and when it comes to rest: the map with
// every part at the ends of its travel, beside the same map of what stands still (the baseline), all clearances pair by pair, and
// the way in. Takes the demo build, or the one that GORVET_BENCH_BUILD names.
#include "analysis/way_in.hpp"
#include "formats/mesh_file.hpp"
#include "store/store.hpp"

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <iostream>

using namespace gorvet;

namespace {

struct Opened {
    build::Build build;
    analysis::Overlay overlay;
};

const Opened& opened() {
    static const Opened all = [] {
        const char* named = std::getenv("GORVET_BENCH_BUILD");
        const std::string path = named ? named : GORVET_DEMO_BUILD;
        auto store = store::Store::open(path);
        if (!store) {
            std::cerr << store.error().text() << "\n";
            std::exit(1);
        }
        Opened o;
        o.build = (*store)->build();
        analysis::ScanMeshes meshes;
        for (const auto& [id, s] : o.build.scans) {
            const auto read = formats::readMeshFrom([&](const auto& take) { return (*store)->readBlob(s.blob, take); }, s.file,
                                                    analysis::unitOf(s.unit));
            if (read) meshes[id] = std::make_shared<const shape::Mesh>(read->mesh);
        }
        o.overlay = analysis::overlayOf(o.build, analysis::analyse(o.build, (*store)->revision()), meshes);
        if (!o.overlay.complete()) {
            std::cerr << path << ": no body and chassis to lay over each other\n";
            std::exit(1);
        }
        return o;
    }();
    return all;
}

/// A little lower each time, as when a body is let down.
geometry::RigidTransform seatOf(const analysis::Overlay& o, int round) {
    geometry::RigidTransform seat = o.seat;
    seat.translation.z_mm -= 0.1 * (round % 40);
    return seat;
}

void standing(benchmark::State& state) {
    const analysis::Overlay& o = opened().overlay;
    int round = 0;
    for (auto _ : state)
        benchmark::DoNotOptimize(
            sit::liveClearance(*o.body, *o.chassis, seatOf(o, round++), o.need, static_cast<int>(state.range(0))).least_mm);
    state.counters["points"] = static_cast<double>(o.body->mesh->points.size());
}
void withTravel(benchmark::State& state) {
    const analysis::Overlay& o = opened().overlay;
    int round = 0;
    for (auto _ : state)
        benchmark::DoNotOptimize(
            analysis::liveOf(o, seatOf(o, round++), static_cast<int>(state.range(0))).least_mm);
}
void pairByPair(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(analysis::clearanceOf(opened().overlay)->least_mm);
}
void wayIn(benchmark::State& state) {
    for (auto _ : state) benchmark::DoNotOptimize(analysis::wayOf(opened().overlay, opened().build.planned_cuts));
}

} // namespace

BENCHMARK(standing)->ArgName("threads")->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(withTravel)->ArgName("threads")->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(pairByPair)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(wayIn)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_MAIN();
