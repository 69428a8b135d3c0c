#include "scan/markers.hpp"

#include "dense/dense.hpp"
#include "scan/cloud.hpp"
#include "shape/distinct.hpp"

#include <algorithm>
#include <limits>
#include <unordered_map>

#include <Eigen/Core>
#include <fmt/format.h>

namespace gorvet::scan {
namespace {

using geometry::between;
using geometry::minus;
using geometry::plus;
using geometry::times;

std::uint64_t cellKey(const std::array<std::int64_t, 3>& c) {
    return (static_cast<std::uint64_t>(c[0]) & 0x1fffff) << 42 | (static_cast<std::uint64_t>(c[1]) & 0x1fffff) << 21 |
           (static_cast<std::uint64_t>(c[2]) & 0x1fffff);
}

/// Whether places on a ball show enough of it, seen from one side: a rounded corner of sheet shows a strip or a small cap. The
/// smallest spread of their directions is 1/4 for a half ball.
bool showsBall(const std::vector<Point3>& on_ball, const Point3& centre) {
    constexpr double least_spread = 0.1;
    Eigen::Matrix3d spread = Eigen::Matrix3d::Zero();
    for (const Point3& p : on_ball) {
        const Point3 d = geometry::unit(minus(p, centre));
        const Eigen::Vector3d v(d[0], d[1], d[2]);
        spread += v * v.transpose() / static_cast<double>(on_ball.size());
    }
    return dense::eigenpairs(spread).values[0] >= least_spread;
}

} // namespace

std::vector<Marker> findMarkers(const std::vector<Point3>& given, double radius, size_t least_points, int threads) {
    std::vector<Marker> found;
    std::vector<Point3> points; // each place once: a thousand points in one place are no surface
    const auto first = shape::firstOfEach(given);
    for (std::uint32_t i = 0; i < given.size(); ++i)
        if (first[i] == i) points.push_back(given[i]);
    if (points.size() < least_points) return found;
    const Normals normals = normalsOf(points, 12, {}, threads);
    // each point votes for the two places a radius away along its normal
    const double cell = radius * 0.3;
    struct Votes {
        size_t count = 0;
        Point3 sum{};
    };
    std::unordered_map<std::uint64_t, Votes> votes;
    for (size_t i = 0; i < points.size(); ++i)
        for (const double side : {-1.0, 1.0}) {
            const Point3 c = plus(points[i], times(normals.normal[i], side * radius));
            std::array<std::int64_t, 3> k{};
            for (size_t axis = 0; axis < 3; ++axis) k[axis] = static_cast<std::int64_t>(std::floor(c[axis] / cell));
            Votes& v = votes[cellKey(k)];
            ++v.count;
            v.sum = plus(v.sum, c);
        }
    std::vector<std::pair<size_t, Point3>> places;
    for (const auto& [key, v] : votes)
        if (v.count >= std::max<size_t>(6, least_points / 4))
            places.emplace_back(v.count, times(v.sum, 1.0 / static_cast<double>(v.count)));
    std::sort(places.begin(), places.end(),
              [](const auto& a, const auto& b) { return a.first != b.first ? a.first > b.first : a.second < b.second; });
    const Neighbours near(points);
    std::vector<Neighbours::Near> around;
    for (const auto& [count, place] : places) {
        Point3 centre = place;
        bool taken = false;
        for (const Marker& m : found) taken = taken || between(m.centre, centre) < radius;
        if (taken) continue;
        Fit fit;
        bool good = false;
        for (int round = 0; round < 4; ++round) {
            near.nearest(centre, 4 * count + 400, around);
            std::vector<Point3> shell;
            size_t within = 0; // strays inside the ball speak against it
            const double band = radius * (round == 0 ? 0.2 : 0.06);
            for (const auto& n : around) {
                if (std::abs(n.distance_mm - radius) < band)
                    shell.push_back(points[n.point]);
                else if (n.distance_mm < radius)
                    ++within;
            }
            good = shell.size() >= least_points && within * 5 < shell.size();
            if (!good) break;
            const auto sphere = fitSphere(shell, true);
            good = sphere && std::abs(sphere->radius_mm - radius) < 0.05 * radius && between(sphere->centre, centre) < radius &&
                   showsBall(shell, sphere->centre);
            if (!good) break;
            centre = sphere->centre;
            fit = sphere->fit;
            // a ball seen on one side only: with its true radius the centre is better known
        }
        if (good && fit.rms_mm < 0.05 * radius) found.push_back({centre, fit});
    }
    // two votes for one ball
    std::vector<Marker> apart;
    for (const Marker& m : found)
        if (std::none_of(apart.begin(), apart.end(), [&](const Marker& o) { return between(o.centre, m.centre) < radius; }))
            apart.push_back(m);
    return apart;
}

Result<MarkersMatched> matchMarkers(const std::vector<Point3>& from, const std::vector<Point3>& to, double tolerance_mm) {
    if (from.size() < 3 || to.size() < 3)
        return Error{Error::Code::BadInput, "markers",
                     fmt::format("{} and {} markers: three in each scan are needed at least.", from.size(), to.size()),
                     "Set up more markers, so that both scans see three of the same.", -1};
    const auto side = [](const std::vector<Point3>& v, size_t i, size_t j) { return between(v[i], v[j]); };
    std::vector<std::array<size_t, 2>> best, second;
    const auto same = [](const std::vector<std::array<size_t, 2>>& a, const std::vector<std::array<size_t, 2>>& b) {
        return std::all_of(b.begin(), b.end(), [&](const auto& p) { return std::find(a.begin(), a.end(), p) != a.end(); });
    };
    // three of one side against three of the other whose three distances agree; then everyone whom that motion brings together
    for (size_t a = 0; a < from.size(); ++a)
        for (size_t b = a + 1; b < from.size(); ++b)
            for (size_t c = b + 1; c < from.size(); ++c)
                for (size_t p = 0; p < to.size(); ++p)
                    for (size_t q = 0; q < to.size(); ++q) {
                        if (q == p || std::abs(side(from, a, b) - side(to, p, q)) > tolerance_mm) continue;
                        for (size_t r = 0; r < to.size(); ++r) {
                            if (r == p || r == q || std::abs(side(from, b, c) - side(to, q, r)) > tolerance_mm ||
                                std::abs(side(from, a, c) - side(to, p, r)) > tolerance_mm)
                                continue;
                            const auto laid = registerPoints({from[a], from[b], from[c]}, {to[p], to[q], to[r]});
                            if (!laid) continue;
                            std::vector<std::array<size_t, 2>> pairs;
                            for (size_t i = 0; i < from.size(); ++i) {
                                const Point3 moved = laid->motion.transformed(from[i]);
                                for (size_t j = 0; j < to.size(); ++j)
                                    if (between(moved, to[j]) < 3 * tolerance_mm) {
                                        pairs.push_back({i, j});
                                        break;
                                    }
                            }
                            if (pairs.size() < 3) continue;
                            if (same(best, pairs)) continue;
                            if (pairs.size() > best.size()) {
                                if (!same(pairs, best)) second = best;
                                best = pairs;
                            } else if (pairs.size() > second.size()) {
                                second = pairs;
                            }
                        }
                    }
    if (best.size() < 3)
        return Error{Error::Code::NotFound, "markers", "No three markers have the same distances in both scans.",
                     "A marker was moved between the scans, or fewer than three are seen by both.", -1};
    MarkersMatched m;
    m.pairs = best;
    std::vector<Point3> one, two;
    for (const auto& [i, j] : best) {
        one.push_back(from[i]);
        two.push_back(to[j]);
    }
    const auto laid = registerPoints(one, two);
    if (!laid) return laid.error();
    m.laid = *laid;
    // three markers fit somewhere by chance; one more than any other assignment has is proof
    m.only_one = second.size() < best.size() && (best.size() > 3 || second.empty());
    m.words = fmt::format("{} markers matched, RMS {:.2f} mm, worst {:.2f} mm.{}", best.size(), m.laid.rms_mm, m.laid.worst_mm,
                          m.only_one ? "" : " Another assignment fits as well: set the markers at unlike distances.");
    return m;
}

Result<OnSurvey> layOnSurvey(const std::vector<PickedPoint>& points) {
    OnSurvey result;
    std::vector<bool> used(points.size(), true);
    result.points.resize(points.size());
    for (;;) {
        std::vector<Point3> from, to;
        std::vector<double> weights;
        for (size_t i = 0; i < points.size(); ++i)
            if (used[i]) {
                from.push_back(points[i].picked);
                to.push_back(points[i].surveyed);
                weights.push_back(1 / (points[i].sigma_mm * points[i].sigma_mm));
            }
        const auto laid = registerPoints(from, to, weights);
        if (!laid) return laid.error();
        result.laid = *laid;
        // each against what the rest says: laid without it, where enough remain
        size_t worst = points.size();
        double most = 3.29;
        for (size_t i = 0; i < points.size(); ++i) {
            const PickedPoint& p = points[i];
            RigidTransform by = laid->motion;
            if (used[i] && from.size() >= 5) {
                std::vector<Point3> f, t;
                std::vector<double> w;
                for (size_t k = 0; k < points.size(); ++k)
                    if (used[k] && k != i) {
                        f.push_back(points[k].picked);
                        t.push_back(points[k].surveyed);
                        w.push_back(1 / (points[k].sigma_mm * points[k].sigma_mm));
                    }
                if (const auto rest = registerPoints(f, t, w)) by = rest->motion;
            }
            PickVerdict& v = result.points[i];
            v.off_mm = between(by.transformed(p.picked), p.surveyed);
            v.off_in_sigmas = v.off_mm / p.sigma_mm / std::sqrt(3.0); // three coordinates
            v.left_out = !used[i];
            if (used[i] && v.off_in_sigmas > most) {
                most = v.off_in_sigmas;
                worst = i;
            }
        }
        if (worst == points.size() || from.size() < 5) break;
        used[worst] = false;
    }
    size_t left_out = 0;
    for (size_t i = 0; i < points.size(); ++i) {
        PickVerdict& v = result.points[i];
        left_out += v.left_out;
        v.words =
            v.left_out
                ? fmt::format(
                      "{}: scan and tape are {:.1f} mm apart where the others agree. Pick it again; if it stays, tape it again.",
                      points[i].name, v.off_mm)
                : fmt::format("{}: {:.1f} mm.", points[i].name, v.off_mm);
    }
    result.words = fmt::format("PointRegistration on {} surveyed points, RMS {:.2f} mm, worst {:.2f} mm{}.",
                               points.size() - left_out, result.laid.rms_mm, result.laid.worst_mm,
                               left_out ? fmt::format("; {} disagree with the rest", left_out) : "");
    return result;
}

} // namespace gorvet::scan
