// The distance tree of src/shape beside other people's in the same run: CGAL's tree as most would write it (naive) and as one who
// knows it would (tuned), and Embree's point query. A shell of about 250,000 points over a frame of about 500,000 triangles, cap
// 100 mm. Items are points of the shell; "signed" is what the program uses.
#include "shape/cgal_answers.hpp"
#include "shape/crossing.hpp"
#include "shape/distance_map.hpp"
#include "sim/car_meshes.hpp"

#include <benchmark/benchmark.h>
#include <embree3/rtcore.h>

using namespace gorvet;
using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;

namespace {

constexpr double cap = 100;

const Mesh& shell() {
    static const Mesh mesh = sim::bodyShell(8.6);
    return mesh;
}
std::shared_ptr<const Mesh> frameOf(double step) {
    auto m = std::make_shared<Mesh>(sim::ladderFrame(step));
    return m;
}
const std::shared_ptr<const Mesh>& frame() {
    static const std::shared_ptr<const Mesh> mesh = frameOf(4.15);
    return mesh;
}
RigidTransform seated(double down = 0) {
    const sim::BodyPlace p = sim::bodyPlace();
    return geometry::rigidTransform({p.shift[0], p.shift[1], p.shift[2] - down}, 0, p.pitch_rad, 0);
}
const shape::PointOrder& shellPoints() {
    static const shape::PointOrder order = shape::ordered(shell().points);
    return order;
}
const shape::DistanceTree& frameTree() {
    static const shape::DistanceTree tree(frame());
    return tree;
}
const shape::Sides& frameSides() {
    static const shape::Sides sides(frameTree());
    return sides;
}
/// Every nth point of the shell on the frame, in the file's own order, as a first attempt would ask.
std::vector<Point3> sample(size_t step) {
    std::vector<Point3> points;
    const RigidTransform m = seated();
    for (size_t i = 0; i < shell().points.size(); i += step) points.push_back(m.transformed(shell().points[i]));
    return points;
}
void count(benchmark::State& state, size_t points) {
    state.SetItemsProcessed(static_cast<std::int64_t>(points) * static_cast<std::int64_t>(state.iterations()));
}

void naiveCgal(benchmark::State& state) {
    static const theirs::NaiveTree tree(*frame());
    const auto points = sample(7);
    for (auto _ : state)
        for (const Point3& p : points) benchmark::DoNotOptimize(tree.squaredDistance(p));
    count(state, points.size());
}

void tunedOver(const theirs::TunedTree& tuned, benchmark::State& state) {
    const auto& order = shellPoints();
    const RigidTransform m = seated();
    std::vector<Point3> points;
    for (const Point3& p : order.points) points.push_back(m.transformed(p));
    for (auto _ : state) benchmark::DoNotOptimize(tuned.sumOfDistances(points, cap));
    count(state, points.size());
}
void tunedCgal(benchmark::State& state) {
    static const theirs::TunedTree tuned(*frame());
    tunedOver(tuned, state);
}

struct Embree {
    RTCDevice device = rtcNewDevice("threads=2");
    RTCScene scene = nullptr;
    RTCGeometry geometry = nullptr;
    explicit Embree(const Mesh& m) {
        geometry = rtcNewGeometry(device, RTC_GEOMETRY_TYPE_TRIANGLE);
        auto* v = static_cast<float*>(
            rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 12, m.points.size()));
        for (size_t i = 0; i < m.points.size(); ++i)
            for (size_t axis = 0; axis < 3; ++axis) v[3 * i + axis] = static_cast<float>(m.points[i][axis]);
        auto* t = static_cast<unsigned*>(
            rtcSetNewGeometryBuffer(geometry, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 12, m.triangles.size()));
        for (size_t i = 0; i < m.triangles.size(); ++i)
            for (size_t k = 0; k < 3; ++k) t[3 * i + k] = m.triangles[i][k];
        rtcCommitGeometry(geometry);
        scene = rtcNewScene(device);
        rtcAttachGeometry(scene, geometry);
    }
    ~Embree() {
        rtcReleaseScene(scene);
        rtcReleaseGeometry(geometry);
        rtcReleaseDevice(device);
    }
    Embree(const Embree&) = delete;
    Embree& operator=(const Embree&) = delete;
};

bool embreeNearer(RTCPointQueryFunctionArguments* a) {
    const Mesh& m = *static_cast<const Mesh*>(a->userPtr);
    const Point3 p{a->query->x, a->query->y, a->query->z};
    const double d = geometry::between(shape::footOn(shape::cornersOf(m, a->primID), p).at, p);
    if (d >= static_cast<double>(a->query->radius)) return false;
    a->query->radius = static_cast<float>(d);
    return true;
}
void embreeQuery(benchmark::State& state) {
    static const Embree embree(*frame());
    static const bool made = (rtcCommitScene(embree.scene), true);
    benchmark::DoNotOptimize(made);
    const RigidTransform m = seated();
    std::vector<Point3> points;
    for (const Point3& p : shellPoints().points) points.push_back(m.transformed(p));
    for (auto _ : state)
        for (const Point3& p : points) {
            RTCPointQuery query{static_cast<float>(p[0]), static_cast<float>(p[1]), static_cast<float>(p[2]), 0,
                                static_cast<float>(cap)};
            RTCPointQueryContext context;
            rtcInitPointQueryContext(&context);
            rtcPointQuery(embree.scene, &query, &context, embreeNearer, const_cast<Mesh*>(frame().get()));
            benchmark::DoNotOptimize(query.radius);
        }
    count(state, points.size());
}

void ownMap(benchmark::State& state, const shape::Sides* sides, int threads) {
    const auto& order = shellPoints();
    double down = 0;
    for (auto _ : state) {
        down = down > 3 ? 0 : down + 0.1; // a small move each time
        const auto map = distancesTo(frameTree(), sides, order, seated(down), cap, threads);
        benchmark::DoNotOptimize(map.distance_mm.data());
    }
    const auto last = distancesTo(frameTree(), nullptr, order, seated(), cap);
    state.counters["share_within_cap"] =
        static_cast<double>(std::count_if(last.distance_mm.begin(), last.distance_mm.end(), [](float d) { return d < 100; })) /
        static_cast<double>(order.points.size());
    count(state, order.points.size());
}
void ownUnsigned(benchmark::State& state) { ownMap(state, nullptr, 1); }
void ownSigned(benchmark::State& state) { ownMap(state, &frameSides(), static_cast<int>(state.range(0))); }
void ownSignedWidth(benchmark::State& state) {
    const shape::DistanceTree tree(frame(), {static_cast<shape::Width>(state.range(0)), 0});
    const shape::Sides sides(tree);
    for (auto _ : state) benchmark::DoNotOptimize(distancesTo(tree, &sides, shellPoints(), seated(), cap, 1).distance_mm.data());
    count(state, shellPoints().points.size());
}

void ownBuild(benchmark::State& state) {
    double bytes = 0;
    for (auto _ : state) bytes = static_cast<double>(shape::DistanceTree(frame()).bytes());
    state.counters["triangles"] = static_cast<double>(frame()->triangles.size());
    state.counters["bytes_per_triangle"] = bytes / static_cast<double>(frame()->triangles.size());
}
void ownSides(benchmark::State& state) {
    double bytes = 0;
    for (auto _ : state) bytes = static_cast<double>(shape::Sides(frameTree()).bytes());
    state.counters["bytes_per_triangle"] = bytes / static_cast<double>(frame()->triangles.size());
}
void embreeBuild(benchmark::State& state) {
    for (auto _ : state) {
        const Embree embree(*frame());
        rtcCommitScene(embree.scene);
    }
}

/// From 50,000 to 2,000,000 triangles of the same frame, the same points.
std::shared_ptr<const Mesh> frameOfAbout(std::int64_t triangles) {
    return frameOf(4.15 * std::sqrt(524e3 / static_cast<double>(triangles)));
}
void tunedScaling(benchmark::State& state) {
    const auto mesh = frameOfAbout(state.range(0));
    state.counters["triangles"] = static_cast<double>(mesh->triangles.size());
    tunedOver(theirs::TunedTree(*mesh), state);
}
void ownScaling(benchmark::State& state) {
    const auto mesh = frameOfAbout(state.range(0));
    const shape::DistanceTree tree(mesh);
    const shape::Sides sides(tree);
    for (auto _ : state) benchmark::DoNotOptimize(distancesTo(tree, &sides, shellPoints(), seated(), cap, 1).distance_mm.data());
    state.counters["triangles"] = static_cast<double>(mesh->triangles.size());
    count(state, shellPoints().points.size());
}

/// Where shell and frame cut each other: CGAL's polylines, and our own on one thread and on two. Of the demo's fineness.
struct CutPair {
    Mesh body = transformed(sim::bodyShell(15), seated());
    std::shared_ptr<const Mesh> chassis = frameOf(10.5);
};
const CutPair& cutPair() {
    static const CutPair pair;
    return pair;
}
void cgalCutLines(benchmark::State& state) {
    const theirs::CutPair pair(cutPair().body, *cutPair().chassis);
    double sum = 0;
    for (auto _ : state) sum = pair.lengthOfLines();
    state.counters["length_mm"] = sum;
}
void ownCutLines(benchmark::State& state) {
    const shape::DistanceTree a(std::make_shared<const Mesh>(cutPair().body)), b(cutPair().chassis);
    double sum = 0;
    for (auto _ : state) {
        sum = 0;
        for (const shape::Polyline& line : shape::crossings(a, b, {}, static_cast<int>(state.range(0))).lines)
            sum += length(line);
    }
    state.counters["length_mm"] = sum;
}

} // namespace

BENCHMARK(naiveCgal)->Unit(benchmark::kMillisecond);
BENCHMARK(tunedCgal)->Unit(benchmark::kMillisecond);
BENCHMARK(embreeQuery)->Unit(benchmark::kMillisecond);
BENCHMARK(ownUnsigned)->Unit(benchmark::kMillisecond);
BENCHMARK(ownSigned)->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ownSignedWidth)->ArgName("width")->Arg(1)->Arg(2)->Arg(3)->Unit(benchmark::kMillisecond);
BENCHMARK(embreeBuild)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ownBuild)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(ownSides)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(cgalCutLines)->Unit(benchmark::kMillisecond);
BENCHMARK(ownCutLines)->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK(tunedScaling)->Arg(50000)->Arg(500000)->Arg(2000000)->Unit(benchmark::kMillisecond);
BENCHMARK(ownScaling)->Arg(50000)->Arg(200000)->Arg(500000)->Arg(1000000)->Arg(2000000)->Unit(benchmark::kMillisecond);
BENCHMARK_MAIN();
