// A five-link axle followed through its travel, and a drive line worked out with its ±: beside the way it would be done at first
// (each stance from rest, its derivatives by differences, a dense inverse). Which wheels fit a scanned arch, beside trying each.
#include "dense/dense.hpp"
#include "drive/line.hpp"
#include "drive/line_sheet.hpp"
#include "drive/travel.hpp"
#include "drive/travel_sheet.hpp"
#include "drive/wheels.hpp"

#include <benchmark/benchmark.h>

#include <cmath>
#include <string>
#include <tuple>

#include <Eigen/Geometry>

namespace {

using namespace gorvet;
using namespace gorvet::drive;

Linkage fiveLinks() {
    Linkage l;
    l.left = {2600, -700, 300};
    l.right = Vec3{2600, 700, 300};
    for (const double s : {-1.0, 1.0}) {
        l.rods.push_back({"lower", {2000, s * 450, 260}, {2590, s * 450, 240}, false});
        l.rods.push_back({"upper", {2200, s * 300, 440}, {2610, s * 300, 430}, false});
    }
    l.rods.push_back({"panhard", {2650, -480, 330}, {2650, 460, 330}, false});
    return l;
}
std::vector<Asked> steps200() {
    std::vector<Asked> all;
    for (int k = 0; k < 200; ++k) {
        const double up = -90 + 170.0 * k / 199;
        all.push_back({up, up, 0});
    }
    return all;
}

void followed(benchmark::State& state) {
    const Linkage l = fiveLinks();
    const auto asked = steps200();
    double end = 0;
    for (auto _ : state) {
        const auto all = sweep(l, asked);
        end = all.back().reference.x_mm;
        benchmark::DoNotOptimize(all.data());
    }
    state.counters["x_end"] = end;
}

/// As it would be done at first.
void naive(benchmark::State& state) {
    const Linkage l = fiveLinks();
    const auto asked = steps200();
    const Eigen::Vector3d centre(2600, 0, 300);
    const auto residuals = [&](const Eigen::VectorXd& x, const Asked& a) {
        const double angle = x.tail<3>().norm();
        const Eigen::Matrix3d turned = angle > 0
                                           ? Eigen::Matrix3d(Eigen::AngleAxisd(angle, x.tail<3>() / angle).toRotationMatrix())
                                           : Eigen::Matrix3d(Eigen::Matrix3d::Identity());
        const auto placed = [&](const Vec3& p) -> Eigen::Vector3d {
            return centre + x.head<3>() + turned * (Eigen::Vector3d(p.x_mm, p.y_mm, p.z_mm) - centre);
        };
        Eigen::VectorXd r(7);
        for (std::size_t k = 0; k < 5; ++k) {
            const Rod& rod = l.rods[k];
            r(static_cast<Eigen::Index>(k)) =
                (placed(rod.body) - Eigen::Vector3d(rod.frame.x_mm, rod.frame.y_mm, rod.frame.z_mm)).norm() -
                geometry::between(rod.frame, rod.body);
        }
        r(5) = 1000 * (placed(l.left).z() - l.left.z_mm - a.left_mm);
        r(6) = 1000 * (placed(*l.right).z() - l.right->z_mm - a.right_mm);
        return r;
    };
    double end = 0;
    for (auto _ : state) {
        for (const Asked& a : asked) {
            Eigen::VectorXd x = Eigen::VectorXd::Zero(6);
            for (int turn = 0; turn < 30; ++turn) {
                const Eigen::VectorXd r = residuals(x, a);
                Eigen::MatrixXd j(7, 6);
                for (int k = 0; k < 6; ++k) {
                    Eigen::VectorXd more = x, less = x;
                    const double h = k < 3 ? 1e-4 : 1e-7;
                    more(k) += h;
                    less(k) -= h;
                    j.col(k) = (residuals(more, a) - residuals(less, a)) / (2 * h);
                }
                const Eigen::VectorXd by = -dense::inverse(j.transpose() * j) * (j.transpose() * r);
                x += by;
                if (by.norm() < 1e-9) break;
            }
            end = centre.x() + x(0);
        }
        benchmark::DoNotOptimize(end);
    }
    state.counters["x_end"] = end;
}

void withItsU95(benchmark::State& state) {
    TravelIn in;
    in.name = "rear axle";
    in.radius_mm = 320;
    in.held.bump_mm = 80;
    in.held.droop_mm = 90;
    const Linkage l = fiveLinks();
    const auto place = [&](const Vec3& p) {
        in.places.names.emplace_back("p");
        in.places.at.push_back(p);
        return in.places.at.size() - 1;
    };
    in.held.left = place(l.left);
    in.held.right = place(*l.right);
    for (const Rod& rod : l.rods) in.held.links.push_back({rod.name, build::LinkKind::Rod, {place(rod.frame), place(rod.body)}});
    const std::size_t n = 3 * in.places.at.size();
    in.places.covariance.assign(n * n, 0.0);
    for (std::size_t k = 0; k < n; ++k) in.places.covariance[k * n + k] = 0.25;
    for (auto _ : state) benchmark::DoNotOptimize(travelPlan(in));
}

/// What a drag does for each place of the pointer: the sheet drawn anew at another share of the travel, its texts kept apart.
void dragged(benchmark::State& state) {
    TravelIn held;
    held.name = "rear axle";
    held.radius_mm = 320;
    held.held.bump_mm = 80;
    held.held.droop_mm = 90;
    LineInput in;
    const Linkage l = fiveLinks();
    const auto place = [&](const Vec3& p) {
        in.now.names.emplace_back("p");
        in.now.at.push_back(p);
        return in.now.at.size() - 1;
    };
    held.held.left = place(l.left);
    held.held.right = place(*l.right);
    for (const Rod& rod : l.rods)
        held.held.links.push_back({rod.name, build::LinkKind::Rod, {place(rod.frame), place(rod.body)}});
    for (const auto& [name, kind, on, at] :
         {std::tuple{"box", build::DriveEndKind::Output, Carrier::Frame, Vec3{1200, 0, 400}},
          std::tuple{"rear", build::DriveEndKind::Pinion, Carrier::Rear, Vec3{2300, 0, 340}}}) {
        EndIn e;
        e.name = name;
        e.kind = kind;
        e.on = on;
        e.point = static_cast<int>(place(at));
        e.slope = Figure{0.04, 0.003, build::Provenance::Measured};
        in.ends.push_back(e);
    }
    const std::size_t n = 3 * in.now.at.size();
    in.now.covariance.assign(n * n, 0.0);
    for (std::size_t k = 0; k < n; ++k) in.now.covariance[k * n + k] = 0.25;
    in.planned = in.now.at;
    held.places = in.now;
    in.rear = held.held;
    in.bump_mm = in.droop_mm = {80, 90};
    ShaftIn s;
    s.shaft.name = "main";
    s.to = 1;
    in.shafts = {s};
    const LinePlan plan = linePlan(in);
    const TravelPlan travel = travelPlan(held);
    const sheet::Format f;
    double share = -1;
    std::size_t items = 0;
    for (auto _ : state) {
        share = share > 0.99 ? -1 : share + 0.01;
        LineView v{&in, &plan, [](double mm) { return std::to_string(mm); }, 0, true};
        v.share = share;
        items = sheet::flatten(lineSheet(v, 1200, 520, f)).size();
        TravelView t;
        t.input = &held;
        t.plan = &travel;
        t.length = v.length;
        t.share = share;
        items += sheet::flatten(travelSheet({t}, 1200, 520, f)).size();
    }
    state.counters["items"] = static_cast<double>(items);
}

BENCHMARK(dragged)->Name("shafts and links drawn anew at another place of the travel")->Unit(benchmark::kMillisecond);
BENCHMARK(followed)->Name("five links, 200 stances, followed")->Unit(benchmark::kMillisecond);
BENCHMARK(naive)->Name("five links, 200 stances, each from rest by differences (naive)")->Unit(benchmark::kMillisecond);
BENCHMARK(withItsU95)->Name("an axle's travel with every figure's ±")->Unit(benchmark::kMillisecond);

/// An arch of 40,000 scanned places round both rear wheels, an axle that leans.
WheelsIn scannedArch() {
    WheelsIn in;
    in.name = "rear";
    const auto read = [](double v) { return build::Dimension{v, "", build::Provenance::Measured}; };
    build::WheelSet w;
    w.width = read(152.4);
    w.diameter = read(381);
    w.backspace = read(110);
    w.tyre = read(195);
    w.aspect = read(65);
    in.fitted = w;
    in.places.names = {"l", "r"};
    in.places.at = {{2500, -700, 310}, {2500, 700, 310}};
    in.places.covariance.assign(36, 0);
    for (std::size_t side = 0; side < 2; ++side) {
        Corner& c = in.corners[side];
        c.name = side == 0 ? "left" : "right";
        c.right = side == 1;
        c.centre = side;
        c.poses = {{RigidTransform{}, ""}};
        for (int up = -6; up <= 6; ++up)
            for (const int lean : {-1, 0, 1}) {
                RigidTransform m = geometry::rigidTransform({0, 0, 0}, 0, 0, lean * 0.05);
                m.translation.z_mm = up * 13;
                c.poses.push_back({m, "there"});
            }
        auto surface = std::make_shared<std::vector<Vec3>>();
        const double out = side == 0 ? -1 : 1;
        for (int i = 0; i < 400; ++i)
            for (int j = 0; j < 100; ++j) {
                const double a = 3.1416 * i / 399;
                surface->push_back(
                    {2500 + 490 * std::cos(a), out * (600 + 2.5 * j), 310 + 490 * std::sin(a) - (j == 99 ? 30 : 0)});
            }
        ScannedThing arch;
        arch.name = "arch";
        arch.surface = surface;
        c.scanned = {arch};
    }
    return in;
}
void wheelMap50(benchmark::State& state) {
    const WheelsIn in = scannedArch();
    std::size_t spans = 0;
    for (auto _ : state) {
        const WheelsPlan p = wheelsPlan(in, 50);
        spans = 0;
        for (const MapColumn& c : p.map->columns) spans += c.free.size();
        benchmark::DoNotOptimize(spans);
    }
    state.counters["spans"] = static_cast<double>(spans);
}
/// Each place of the map tried by itself, in every pose against every place: 5 by 5 of them, so 100 times as long for 50 by 50.
void wheelMapTried(benchmark::State& state) {
    const WheelsIn in = scannedArch();
    double least = 0;
    for (auto _ : state) {
        for (int i = 0; i < 5; ++i)
            for (int j = 0; j < 5; ++j) {
                const TyreShape t = tyreShape(-50 + 25.0 * i, 150 + 25.0 * j, 634, 381);
                least = 1e9;
                for (const Corner& c : in.corners)
                    for (const HubPose& pose : c.poses) {
                        const RigidTransform back = geometry::inverse(pose.moved);
                        for (const Vec3& p : *c.scanned[0].surface) {
                            const RoomPlace at = seenFrom({2500, c.right ? 721.0 : -721.0, 310}, c.right, back, p, 0);
                            least = std::min(least, t.distance(at.out_mm, at.from_mm));
                        }
                    }
                benchmark::DoNotOptimize(least);
            }
    }
    state.counters["least_mm"] = least;
}

BENCHMARK(wheelMap50)->Name("which wheels fit a scanned arch, 50 widths")->Unit(benchmark::kMillisecond);
BENCHMARK(wheelMapTried)->Name("25 wheels tried one by one against the scan (naive)")->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
