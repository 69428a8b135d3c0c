// A five-link axle followed through its travel, and a drive line worked out with its ±: beside the way it would be done at first
// (each stance from rest, its derivatives by differences, a dense inverse).
#include "drive/line.hpp"
#include "drive/travel.hpp"

#include <benchmark/benchmark.h>

#include <cmath>

#include <Eigen/Dense>

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
                const Eigen::VectorXd by = -(j.transpose() * j).inverse() * (j.transpose() * r);
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

BENCHMARK(followed)->Name("five links, 200 stances, followed")->Unit(benchmark::kMillisecond);
BENCHMARK(naive)->Name("five links, 200 stances, each from rest by differences (naive)")->Unit(benchmark::kMillisecond);
BENCHMARK(withItsU95)->Name("an axle's travel with every figure's ±")->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
