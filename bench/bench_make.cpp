// Parts of new steel while one is dragged along its rail: meshes at once beside solids that are modelled; bolts and what stands
// in each other looked at anew. Flat pieces laid into a plate beside the rectangles round them, bars beside the longest first.
#include "make/fouls.hpp"
#include "make/near.hpp"
#include "make/nest.hpp"
#include "make/part.hpp"
#include "make/plates.hpp"
#include "make/rail_mesh.hpp"
#include "make/service.hpp"
#include "make/weld_room.hpp"
#include "shape/plain_mesh.hpp"
#include "shape/transform.hpp"
#include "shape/triangle.hpp"

#include <benchmark/benchmark.h>

#include <algorithm>
#include <cmath>
#include <random>

namespace {

using namespace gorvet;
using geometry::Vec3;

build::RailLine rail(double y) {
    build::RailLine r;
    for (int k = 0; k <= 6; ++k) r.points.push_back({500.0 * k, y, 500.0 + 10 * (k % 2)});
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}
make::PartIn outrigger(double station, double side) {
    make::PartIn in;
    in.name = "o";
    in.kind = "outrigger";
    in.left = rail(-450);
    in.right = rail(450);
    in.places.at = {{station, side * 480, 490}, {station, side * 730, 480}};
    in.places.names = {"A", "B"};
    in.places.covariance.assign(36, 0);
    in.at = {0, 1};
    for (const auto& [word, value] : {std::pair{"deep", 80.0}, {"wide", 50.0}, {"sheet", 3.0}, {"inside", 3.0}, {"load", 2500.0}})
        in.figures[word] = {value, 0, build::Provenance::Measured};
    return in;
}
make::ServiceBody body(std::string name, shape::Mesh mesh) {
    make::ServiceBody b;
    b.name = std::move(name);
    b.mesh = std::make_shared<const shape::Mesh>(std::move(mesh));
    return b;
}
shape::Mesh meshOf(const make::PartPlan& p) {
    shape::Mesh all;
    for (const make::NamedMesh& piece : make::partMeshes(p)) append(all, piece.mesh);
    return all;
}

/// A part that is dragged: planned, made a mesh, looked at with 20 others, both rails and 24 bolts.
void dragged(benchmark::State& state) {
    make::ServiceIn in;
    shape::Mesh rails;
    for (const double y : {-450.0, 450.0}) append(rails, make::railMesh(rail(y), false));
    in.bodies.push_back(body("rails", rails));
    for (int k = 0; k < 20; ++k)
        in.bodies.push_back(
            body("part " + std::to_string(k), meshOf(make::partPlan(outrigger(150 + 130.0 * k, k % 2 ? 1 : -1)))));
    for (int k = 0; k < 24; ++k) {
        make::Fastener f;
        f.name = "bolt " + std::to_string(k);
        f.head = {120 + 110.0 * k, k % 2 ? 460.0 : -460.0, 560};
        f.along = {0, 0, -1};
        f.grip_mm = 54;
        f.bolt_mm = 10;
        f.length_mm = *make::boltLength(*make::boltSize(10), f.grip_mm);
        in.fasteners.push_back(f);
    }
    double station = 300;
    std::size_t fouls = 0;
    for (auto _ : state) {
        station += 7;
        if (station > 2800) station = 300;
        in.bodies.back() = body("dragged", meshOf(make::partPlan(outrigger(station, 1))));
        const auto p = make::servicePlan(in);
        const auto f = make::foulsOf(in.bodies);
        fouls += f.size();
        benchmark::DoNotOptimize(p.rows.data());
    }
    state.counters["fouls"] = static_cast<double>(fouls);
}
BENCHMARK(dragged)->Name("a part dragged: 20 others, 24 bolts, what stands in each other")->Unit(benchmark::kMillisecond);

/// What is drawn while it is dragged on the sheet from above: planned, made a mesh, what it stands in, what comes nearest.
void draggedFromAbove(benchmark::State& state) {
    std::vector<make::ServiceBody> bodies;
    shape::Mesh rails;
    for (const double y : {-450.0, 450.0}) append(rails, make::railFilled(rail(y)));
    bodies.push_back(body("rails", rails));
    bodies.back().given = true;
    bodies.back().touch_mm = 3;
    for (int k = 0; k < 20; ++k)
        bodies.push_back(body("part " + std::to_string(k), meshOf(make::partPlan(outrigger(150 + 130.0 * k, k % 2 ? 1 : -1)))));
    bodies.push_back({});
    double station = 300, least = 1e9;
    for (auto _ : state) {
        station += 7;
        if (station > 2800) station = 300;
        bodies.back() = body("dragged", meshOf(make::partPlan(outrigger(station, 1))));
        benchmark::DoNotOptimize(make::foulsOf(bodies).data());
        if (const auto near = make::nearestOther(bodies.back(), bodies, make::near_cap_mm)) least = std::min(least, near->mm);
    }
    state.counters["least_mm"] = least;
}
BENCHMARK(draggedFromAbove)->Name("a part dragged from above: 20 others, what comes nearest")->Unit(benchmark::kMillisecond);
/// Baseline of it: every triangle against every other.
void everyTriangle(benchmark::State& state) {
    const shape::Mesh one = meshOf(make::partPlan(outrigger(1000, 1))), other = meshOf(make::partPlan(outrigger(1090, 1)));
    double least = 1e9;
    for (auto _ : state)
        for (std::uint32_t i = 0; i < one.triangles.size(); ++i)
            for (std::uint32_t j = 0; j < other.triangles.size(); ++j) {
                const auto s = shape::nearestOf(shape::cornersOf(one, i), shape::cornersOf(other, j));
                least = std::min(least, geometry::between(s.from, s.to));
            }
    state.counters["least_mm"] = least;
}
BENCHMARK(everyTriangle)->Name("two parts, every triangle against every other (baseline)")->Unit(benchmark::kMillisecond);
void nearestOfTwo(benchmark::State& state) {
    const shape::Mesh one = meshOf(make::partPlan(outrigger(1000, 1))), other = meshOf(make::partPlan(outrigger(1090, 1)));
    double least = 0;
    for (auto _ : state) least = make::nearestOf(one, other, make::near_cap_mm)->mm;
    state.counters["least_mm"] = least;
}
BENCHMARK(nearestOfTwo)->Name("two parts, the nearest places")->Unit(benchmark::kMillisecond);

void meshAtOnce(benchmark::State& state) {
    const auto p = make::partPlan(outrigger(1000, 1));
    for (auto _ : state) benchmark::DoNotOptimize(make::partMeshes(p).data());
}
BENCHMARK(meshAtOnce)->Name("a part as a mesh, at once")->Unit(benchmark::kMillisecond);
/// Baseline of it: the pieces as solids, and their meshes.
void meshOfSolids(benchmark::State& state) {
    const auto p = make::partPlan(outrigger(1000, 1));
    for (auto _ : state) {
        const auto solids = make::partSolids(p);
        for (const auto& s : *solids) benchmark::DoNotOptimize(shape::mesh(s.solid, 0.5).points.data());
    }
}
BENCHMARK(meshOfSolids)->Name("a part as a mesh of its solids (baseline)")->Unit(benchmark::kMillisecond);

make::PlatesInput job() {
    std::mt19937 random(3);
    std::uniform_real_distribution<double> size(40, 180);
    make::PlatesInput in;
    in.thickness_mm = 4;
    in.plates = {{"whole", 3000, 500, std::nullopt, std::nullopt}};
    for (int k = 0; k < 8; ++k) {
        const double a = size(random), b = size(random);
        const geometry::Outline shapes[] = {{{0, 0}, {a, 0}, {a, b}, {0, b}},
                                            {{20, 0}, {a + 20, 0}, {a + 20, 12}, {12, b + 20}, {0, b + 20}, {0, 20}},
                                            {{0, 0}, {a + 60, 0}, {a + 60, 30}, {30, 30}, {30, b + 60}, {0, b + 60}}};
        in.pieces.push_back({"p" + std::to_string(k), shapes[k % 3], 3});
    }
    return in;
}
/// One way of laying 24 pieces; what stays of a plate of 3 m says how well.
void laidOnce(benchmark::State& state) {
    const auto in = job();
    double rest = 0;
    for (auto _ : state) rest = make::layPlates(in, 1).layouts.at(0).rest_mm;
    state.counters["rest_mm"] = rest;
}
BENCHMARK(laidOnce)->Name("24 flat pieces laid once")->Unit(benchmark::kMillisecond);
void laidAsMakeDoes(benchmark::State& state) {
    const auto in = job();
    double rest = 0;
    for (auto _ : state) rest = make::layPlates(in).layouts.at(0).rest_mm;
    state.counters["rest_mm"] = rest;
}
BENCHMARK(laidAsMakeDoes)->Name("24 flat pieces laid in 24 ways")->Unit(benchmark::kMillisecond);
/// Baseline of both: shelves of the rectangles round the pieces, the highest first.
void shelvesOfRectangles(benchmark::State& state) {
    const auto in = job();
    double rest = 0;
    for (auto _ : state) {
        std::vector<std::pair<double, double>> all;
        for (const auto& piece : in.pieces)
            for (int n = 0; n < piece.count; ++n) {
                double w = 0, h = 0;
                for (const auto& [x, y] : piece.outline) {
                    w = std::max(w, x);
                    h = std::max(h, y);
                }
                all.emplace_back(h + in.gap_mm, w + in.gap_mm);
            }
        std::sort(all.rbegin(), all.rend());
        double x = 0, column = 0, y = 0;
        for (const auto& [h, w] : all) { // columns across the plate
            if (y + h > 500 - 2 * in.edge_mm + in.gap_mm) {
                x += column;
                column = y = 0;
            }
            y += h;
            column = std::max(column, w);
        }
        rest = 3000 - 2 * in.edge_mm - x - column;
        benchmark::DoNotOptimize(rest);
    }
    state.counters["rest_mm"] = rest;
}
BENCHMARK(shelvesOfRectangles)->Name("24 flat pieces as rectangles in rows (baseline)")->Unit(benchmark::kMillisecond);

make::PutOnIn twentyWelded() {
    make::PutOnIn in;
    shape::Mesh rails;
    for (const double y : {-450.0, 450.0}) append(rails, make::railMesh(rail(y), false));
    in.frame.push_back(body("the rails", rails));
    for (int k = 0; k < 20; ++k) {
        const std::string name = "part " + std::to_string(k);
        in.items.push_back(
            {name, name, "welded on", body(name, meshOf(make::partPlan(outrigger(150 + 130.0 * k, k % 2 ? 1 : -1))))});
    }
    return in;
}
/// A torch to every place of the seams of 20 parts.
void torches(benchmark::State& state) {
    const make::PutOnIn in = twentyWelded();
    for (auto _ : state) benchmark::DoNotOptimize(make::weldRooms(in));
}
BENCHMARK(torches)->Name("20 parts welded on, a torch to every place of their seams")->Unit(benchmark::kMillisecond);

/// One place of one of them, 400 ways, every triangle of all.
void torchByTriangles(benchmark::State& state) {
    const make::PutOnIn in = twentyWelded();
    const Vec3 at{150, -480, 410};
    for (auto _ : state) {
        int free = 0;
        for (int k = 0; k < make::weld_ways; ++k) {
            const double z = 1 - (2.0 * k + 1) / make::weld_ways, r = std::sqrt(1 - z * z);
            const Vec3 way{r * std::cos(2.39996 * k), r * std::sin(2.39996 * k), z};
            bool clear = true;
            for (double t = make::nozzle_from_mm; clear && t <= make::nozzle_mm; t += 6)
                for (const auto& item : in.items)
                    for (std::uint32_t n = 0; clear && n < item.body.mesh->triangles.size(); ++n) {
                        const Vec3 p = geometry::plus(at, geometry::times(way, t));
                        clear = geometry::between(shape::footOn(shape::cornersOf(*item.body.mesh, n), p).at, p) >
                                make::nozzle_radius_mm;
                    }
            free += clear ? 1 : 0;
        }
        benchmark::DoNotOptimize(free);
    }
}
BENCHMARK(torchByTriangles)->Name("one place, a torch by every triangle (baseline)")->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
