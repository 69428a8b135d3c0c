#include "sit/sit.hpp"

#include "sit/bounded.hpp"
#include "sit/outcome.hpp"
#include "sit/spectrum.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using build::Bound;
using build::Importance;
using build::u95Of;
using Eigen::Matrix;

Eigen::VectorXd asVector(const std::vector<double>& v) {
    return Eigen::Map<const Eigen::VectorXd>(v.data(), static_cast<Eigen::Index>(v.size()));
}

/// Residuals, bounds that may be broken, and musts, one below the other.
Eigen::VectorXd stacked(const Evaluated& e) {
    Eigen::VectorXd v(static_cast<Eigen::Index>(e.residuals.size() + e.bounds.size() + e.musts.size()));
    v << asVector(e.residuals), asVector(e.bounds), asVector(e.musts);
    return v;
}

Eigen::MatrixXd jacobian(const Scene& s, const Parameters& p, const std::vector<int>& free) {
    Eigen::MatrixXd j;
    for (size_t k = 0; k < free.size(); ++k) {
        constexpr double step_mm = 0.01;
        Parameters up = p;
        Parameters down = p;
        up(free[k]) += step_mm;
        down(free[k]) -= step_mm;
        const Eigen::VectorXd column = (stacked(evaluate(s, up)) - stacked(evaluate(s, down))) / (2 * step_mm);
        if (j.size() == 0) j = Eigen::MatrixXd::Zero(column.size(), static_cast<Eigen::Index>(free.size()));
        j.col(static_cast<Eigen::Index>(k)) = column;
    }
    return j;
}

/// Gauss–Newton step; directions that no pin resists do not move (pseudo-inverse).
Eigen::VectorXd freeStep(const Eigen::MatrixXd& j, const Eigen::VectorXd& r) {
    const Spectrum by = spectrumOf(j);
    Eigen::VectorXd step = Eigen::VectorXd::Zero(j.cols());
    const Eigen::VectorXd g = by.directions.transpose() * (j.transpose() * r);
    for (Eigen::Index k = 0; k < by.values.size(); ++k)
        if (by.values(k) > by.limit) step -= by.directions.col(k) * (g(k) / by.values(k));
    return step;
}

/// How the search ended.
struct Settled {
    bool settled = false;
    std::vector<int> contradictory; ///< pins
    std::vector<bool> pressed;      ///< by pin: a bound of it holds against the others
};

/// Gauss–Newton under bounds: a bound that may be broken at a cost has a slack of its own, whose square is that cost.
Settled settle(const Scene& s, Parameters& p, const std::vector<int>& free) {
    Settled result;
    const auto n = static_cast<Eigen::Index>(free.size());
    for (int round = 0; round < 60; ++round) {
        const Evaluated e = evaluate(s, p);
        const auto soft = static_cast<Eigen::Index>(e.bounds.size());
        const auto hard = static_cast<Eigen::Index>(e.musts.size());
        const auto rows = static_cast<Eigen::Index>(e.residuals.size());
        const Eigen::MatrixXd all = jacobian(s, p, free);
        if (all.rows() == 0) {
            result.settled = true;
            return result;
        }
        Eigen::VectorXd step;
        result.contradictory.clear();
        result.pressed.assign(s.input->pins.size(), false);
        if (soft + hard == 0) {
            step = freeStep(all, asVector(e.residuals));
        } else {
            Eigen::MatrixXd j = Eigen::MatrixXd::Zero(rows + soft, n + soft);
            Eigen::VectorXd r = Eigen::VectorXd::Zero(rows + soft);
            j.topLeftCorner(rows, n) = all.topRows(rows);
            r.head(rows) = asVector(e.residuals);
            j.bottomRightCorner(soft, soft).setIdentity();
            Eigen::MatrixXd a = Eigen::MatrixXd::Zero(soft + hard, n + soft);
            a.leftCols(n) = all.bottomRows(soft + hard);
            a.topRightCorner(soft, soft).setIdentity();
            Eigen::VectorXd b(soft + hard);
            b << -asVector(e.bounds), -asVector(e.musts);
            BoundedStep by = boundedStep(j, r, a, b);
            if (!by.possible) {
                for (const int k : by.contradictory)
                    if (k >= soft) result.contradictory.push_back(e.must_of[static_cast<size_t>(k - soft)]);
                // the musts as well as they go together: each may be broken, at a cost that leaves the others no say
                constexpr double heavy = 1e3;
                Eigen::MatrixXd j2 = Eigen::MatrixXd::Zero(j.rows() + hard, j.cols() + hard);
                j2.topLeftCorner(j.rows(), j.cols()) = j;
                j2.bottomRightCorner(hard, hard) = heavy * Eigen::MatrixXd::Identity(hard, hard);
                Eigen::VectorXd r2 = Eigen::VectorXd::Zero(j2.rows());
                r2.head(r.size()) = r;
                Eigen::MatrixXd a2 = Eigen::MatrixXd::Zero(a.rows(), a.cols() + hard);
                a2.leftCols(a.cols()) = a;
                a2.bottomRightCorner(hard, hard).setIdentity();
                by = boundedStep(j2, r2, a2, b);
                if (!by.possible) return result;
            }
            step = by.step.head(n);
            for (Eigen::Index k = 0; k < soft + hard; ++k)
                if (by.pressures[static_cast<size_t>(k)] > 1e-7)
                    result.pressed[static_cast<size_t>(k < soft ? e.bound_of[static_cast<size_t>(k)]
                                                                : e.must_of[static_cast<size_t>(k - soft)])] = true;
        }
        const double size = step.norm();
        if (!std::isfinite(size)) return result;
        if (size > 500) step *= 500 / size; // no more than half a metre or half a radian at a time
        for (size_t k = 0; k < free.size(); ++k) p(free[k]) += step(static_cast<Eigen::Index>(k));
        if (size < 1e-8 || (round > 30 && size < 1e-5)) {
            result.settled = true;
            return result;
        }
    }
    return result;
}

constexpr const char* open_sentences[7] = {
    "Nothing says where the body stands fore and aft: pin the hinge pillar at a station, or centre a wheel in its arch.",
    "Nothing says where the body stands sideways: pin a left and right pair as centred.",
    "Nothing says how high the body stands: pin a sill height.",
    "Nothing says which way the body points in plan: pin a second pair as centred, far from the first.",
    "Nothing says whether the nose stands high or low: pin a second sill height, level, or a rake.",
    "Nothing says whether the body leans: pin sill heights on both sides.",
    "Nothing asks for a wheelbase: centre the rear wheels in their arches, or decide the change."};

/// What resists a move where the body stands: every pin that is no bound, and of the bounds those that are pressed against.
Eigen::MatrixXd resisting(const Scene& s, const Parameters& p, const std::vector<int>& free, const Settled& how) {
    const Evaluated e = evaluate(s, p);
    const Eigen::MatrixXd all = jacobian(s, p, free);
    std::vector<Eigen::Index> rows;
    const size_t n = e.residuals.size();
    for (Eigen::Index k = 0; k < all.rows(); ++k) {
        const auto i = static_cast<size_t>(k);
        const int pin = i < n ? -1 : i < n + e.bounds.size() ? e.bound_of[i - n] : e.must_of[i - n - e.bounds.size()];
        if (pin < 0 || how.pressed[static_cast<size_t>(pin)]) rows.push_back(k);
    }
    Eigen::MatrixXd j(static_cast<Eigen::Index>(rows.size()), all.cols());
    for (size_t k = 0; k < rows.size(); ++k) j.row(static_cast<Eigen::Index>(k)) = all.row(rows[k]);
    return j;
}

std::vector<std::string> openSentences(const Eigen::MatrixXd& j, const std::vector<int>& free) {
    std::vector<std::string> open;
    if (j.rows() == 0) {
        for (const int f : free) open.emplace_back(open_sentences[f]);
        return open;
    }
    const Spectrum by = spectrumOf(j);
    std::vector<int> named;
    for (Eigen::Index k = 0; k < by.values.size(); ++k) {
        if (by.values(k) > by.limit) continue;
        Eigen::Index largest = -1;
        for (Eigen::Index c = 0; c < j.cols(); ++c)
            if (std::find(named.begin(), named.end(), free[c]) == named.end() &&
                (largest < 0 || std::abs(by.directions(c, k)) > std::abs(by.directions(largest, k))))
                largest = c;
        named.push_back(free[largest]);
    }
    std::sort(named.begin(), named.end());
    for (const int n : named) open.emplace_back(open_sentences[n]);
    return open;
}

/// What the fit itself finds, in one vector: shift, change, both_centred.
Eigen::VectorXd found(const Scene& s, const Parameters& p) {
    Eigen::VectorXd f(5);
    f << p(0), p(1), p(2), p(6), evaluate(s, p).both_centred;
    return f;
}

/// Variance of what the fit finds from one survey: numeric derivative of the whole solution by each coordinate.
void addVariance(const Scene& s, const Parameters& p, const std::vector<int>& free, bool body, Eigen::VectorXd& variance) {
    const Located& located = body ? s.input->body : s.input->chassis;
    const size_t n3 = 3 * located.at.size();
    if (located.covariance.size() != n3 * n3 || n3 == 0) return;
    Eigen::MatrixXd by(variance.size(), static_cast<Eigen::Index>(n3));
    for (size_t k = 0; k < n3; ++k) {
        constexpr double step_mm = 0.05;
        Eigen::VectorXd ends[2];
        for (int side = 0; side < 2; ++side) {
            Scene moved = s;
            Vec3& v = (body ? moved.body : moved.chassis)[k / 3];
            (k % 3 == 0 ? v.x_mm : k % 3 == 1 ? v.y_mm : v.z_mm) += side ? step_mm : -step_mm;
            Parameters q = p;
            settle(moved, q, free);
            ends[side] = found(moved, q);
        }
        by.col(static_cast<Eigen::Index>(k)) = (ends[1] - ends[0]) / (2 * step_mm);
    }
    const Eigen::Map<const Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>> c(
        located.covariance.data(), static_cast<Eigen::Index>(n3), static_cast<Eigen::Index>(n3));
    variance += (by * c).cwiseProduct(by).rowwise().sum();
}

std::string missing(const Input& in, PinKind kind) {
    const bool front = in.front_left >= 0 || in.front_right >= 0;
    const bool rear = in.rear_left >= 0 || in.rear_right >= 0;
    switch (kind) {
    case PinKind::ArchFront: return "waits for the front wheel centres of the chassis (role front-hub)";
    case PinKind::ArchRear: return "waits for the rear wheel centres of the chassis (role rear-hub)";
    case PinKind::Tyre:
    case PinKind::Bump:
        return front || rear ? "waits for the tyres: type their radii"
                             : "waits for the wheel centres of the chassis (roles front-hub and rear-hub)";
    case PinKind::Line: return "waits for a line: its two points stand at the same place";
    case PinKind::Clear: return "waits for its box";
    default:
        if (!front || !rear)
            return "waits for the ground: measure the wheel centres of the chassis (roles front-hub and rear-hub)";
        return "waits for the ground: type the tyre radii, or the heights of the axles";
    }
}

/// What a part of a pin may come to. A thousandth of the tolerance is the search's own.
build::Limit limitOf(const Pin& pin) {
    const double target = targetOf(pin);
    const double small = 1e-3 * pin.tolerance;
    return pin.bound == Bound::Equal     ? build::Limit{target - pin.tolerance, target + pin.tolerance}
           : pin.bound == Bound::AtLeast ? build::Limit::atLeast(target - small)
                                         : build::Limit::atMost(target + small);
}

/// Verdict of a pin: that of its worst point. The ± of a miss is that of the point that misses most.
void judgePin(const Input& in, const Evaluated& e, size_t i, const Outcome& outcome, bool on_bound, PinResult& w) {
    const Pin& pin = in.pins[i];
    w.usable = std::isfinite(e.achieved[i]);
    if (!w.usable) {
        w.words = missing(in, pin.kind);
        return;
    }
    const bool on_ground = pin.kind == PinKind::Height || pin.kind == PinKind::Level || pin.kind == PinKind::Rake;
    const bool on_tyre = pin.kind == PinKind::Tyre || pin.kind == PinKind::Bump;
    const auto provenance =
        on_ground || on_tyre ? worst(pin.provenance, in.heights) : worst(pin.provenance, build::Provenance::Derived);
    w.achieved = {e.achieved[i], outcome.achieved[i], provenance};
    w.miss = {e.miss[i], outcome.achieved[i], provenance};
    w.on_bound = on_bound;
    const auto& parts = e.parts[i];
    if (isPlaneVector(pin, parts.size())) {
        w.verdict = judge(w.achieved, build::Limit::within(pin.tolerance));
        return;
    }
    w.verdict = build::PlanVerdict::Holds;
    double most = -INFINITY;
    for (size_t k = 0; k < parts.size(); ++k) {
        const build::Figure part{parts[k], outcome.parts[i][k], provenance};
        w.verdict = std::max(w.verdict, judge(part, limitOf(pin)));
        const double short_by = pin.bound == Bound::Equal     ? std::abs(part.value - targetOf(pin))
                                : pin.bound == Bound::AtLeast ? pin.target - part.value
                                                              : part.value - pin.target;
        if (short_by > most) {
            most = short_by;
            w.miss.u95 = part.u95;
        }
    }
    if (pin.bound == Bound::Equal) return;
    w.achieved.u95 = w.miss.u95;
    if (most < 1e-3 * pin.tolerance) w.miss.value = 0;
}

} // namespace

geometry::RigidTransform transformOf(const Pose& p) {
    return geometry::rigidTransform(p.shift, p.yaw_rad, p.pitch_rad, p.roll_rad);
}

Vec3 place(const Pose& pose, const Vec3& body) { return transformOf(pose).transformed(body); }

double heightOver(const Ground& g, const Vec3& p) {
    return (p.z_mm - g.height_mm - g.along * p.x_mm - g.across * p.y_mm) / std::sqrt(1 + g.along * g.along + g.across * g.across);
}

Seat seat(const Input& in) {
    Seat result;
    const Scene scene = sceneOf(in);
    Parameters p = Parameters::Zero();
    if (in.decided_change_mm) p(6) = *in.decided_change_mm;
    const bool rear_known = in.rear_left >= 0 || in.rear_right >= 0;
    const bool front_known = in.front_left >= 0 || in.front_right >= 0;
    if (rear_known && front_known) result.wheelbase_now_mm = mean(axle(scene, true, 0)).x_mm - mean(axle(scene, false, 0)).x_mm;
    const bool rear_wish = std::any_of(in.pins.begin(), in.pins.end(), [](const Pin& w) { return w.kind == PinKind::ArchRear; });
    std::vector<int> free = {0, 1, 2, 3, 4, 5};
    const bool change_free = !in.decided_change_mm && rear_wish && rear_known;
    if (change_free) free.push_back(6);
    result.pins.resize(in.pins.size());
    const Evaluated first = evaluate(scene, p);
    if (first.residuals.empty() && first.bounds.empty() && first.musts.empty()) {
        result.ground = groundOf(scene, p(6));
        for (size_t i = 0; i < in.pins.size(); ++i) result.pins[i].words = missing(in, in.pins[i].kind);
        if (in.decided_change_mm) result.change_mm = p(6);
        result.change_decided = in.decided_change_mm.has_value();
        return result;
    }
    const Settled how = settle(scene, p, free);
    result.contradictory = how.contradictory;
    std::sort(result.contradictory.begin(), result.contradictory.end());
    result.contradictory.erase(std::unique(result.contradictory.begin(), result.contradictory.end()), result.contradictory.end());
    const Evaluated e = evaluate(scene, p);
    result.pose = poseOf(p);
    result.ground = groundOf(scene, p(6));
    result.open = openSentences(resisting(scene, p, free, how), free);
    if (!rear_wish && !in.decided_change_mm) result.open.emplace_back(open_sentences[6]);
    result.status = !how.settled ? Status::NotConverged : result.open.empty() ? Status::Seated : Status::Underdetermined;

    Eigen::VectorXd variance = Eigen::VectorXd::Zero(5);
    addVariance(scene, p, free, true, variance);
    addVariance(scene, p, free, false, variance);
    const auto half = [&](Eigen::Index k) { return u95Of(std::sqrt(std::max(0.0, variance(k)))); };
    for (int axis = 0; axis < 3; ++axis) result.pose_u95_mm[axis] = half(axis);
    result.change_decided = in.decided_change_mm.has_value();
    if (result.change_decided || change_free) {
        result.change_mm = p(6);
        result.change_u95_mm = result.change_decided ? 0 : half(3);
    }
    if (std::isfinite(e.both_centred)) {
        result.change_both_centred_mm = e.both_centred;
        result.change_both_u95_mm = half(4);
    }
    const Outcome outcome = outcomeOf(scene, p);
    for (size_t i = 0; i < in.pins.size(); ++i)
        judgePin(in, e, i, outcome, i < how.pressed.size() && how.pressed[i], result.pins[i]);
    return result;
}

std::vector<PinResult> achievedAt(const Input& in, const Pose& pose, double change_mm) {
    const Scene scene = sceneOf(in);
    const Parameters p = parametersOf(pose, change_mm);
    const Evaluated e = evaluate(scene, p);
    const Outcome outcome = outcomeOf(scene, p);
    std::vector<PinResult> pins(in.pins.size());
    for (size_t i = 0; i < pins.size(); ++i) judgePin(in, e, i, outcome, false, pins[i]);
    return pins;
}

} // namespace gorvet::sit
