#include "sit/sit.hpp"

#include "sit/spectrum.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using build::halfWidth;
using Eigen::Matrix;
using Parameters = Matrix<double, 7, 1>; // shift x y z, yaw, pitch, roll (scaled by turn_scale to mm), wheelbase change
/// Turns are solved as mm at this arm, so that all parameters are of one size.
constexpr double turn_scale_mm = 1000.0;

Pose poseOf(const Parameters& p) {
    return {{p(0), p(1), p(2)}, p(3) / turn_scale_mm, p(4) / turn_scale_mm, p(5) / turn_scale_mm};
}

/// The points as they stand for one evaluation: input coordinates may be shifted to differentiate by them.
struct Scene {
    const Input* input;
    std::vector<Vec3> body;
    std::vector<Vec3> hubs;
};

Vec3 mean(const std::vector<Vec3>& points) {
    Vec3 sum;
    for (const Vec3& p : points) {
        sum.x_mm += p.x_mm;
        sum.y_mm += p.y_mm;
        sum.z_mm += p.z_mm;
    }
    const auto n = static_cast<double>(points.size());
    return {sum.x_mm / n, sum.y_mm / n, sum.z_mm / n};
}

/// Hubs of one axle after the change of wheelbase; empty when none was measured.
std::vector<Vec3> axle(const Scene& s, bool rear, double change) {
    std::vector<Vec3> hubs;
    const Input& in = *s.input;
    for (const int i : {rear ? in.rear_left : in.front_left, rear ? in.rear_right : in.front_right}) {
        if (i < 0) continue;
        Vec3 hub = s.hubs[i];
        if (rear) {
            hub.x_mm += change;
            hub.z_mm -= change * std::tan(in.cut_slope_rad);
        }
        hubs.push_back(hub);
    }
    return hubs;
}

std::optional<Ground> groundOf(const Scene& s, double change) {
    const Input& in = *s.input;
    const auto front = axle(s, false, change);
    const auto rear = axle(s, true, change);
    if (front.empty() || rear.empty() || !in.front_height_mm || !in.rear_height_mm) return std::nullopt;
    const Vec3 f = mean(front);
    const Vec3 r = mean(rear);
    double across = 0;
    int sides = 0;
    for (const auto& pair : {front, rear})
        if (pair.size() == 2) {
            across += (pair[1].z_mm - pair[0].z_mm) / (pair[1].y_mm - pair[0].y_mm);
            ++sides;
        }
    Ground g;
    g.across = sides ? across / sides : 0;
    const double f_ground = f.z_mm - *in.front_height_mm - g.across * f.y_mm;
    const double r_ground = r.z_mm - *in.rear_height_mm - g.across * r.y_mm;
    g.along = (r_ground - f_ground) / (r.x_mm - f.x_mm);
    g.height_mm = f_ground - g.along * f.x_mm;
    return g;
}

struct Evaluated {
    std::vector<double> residuals; ///< (achieved − target)/tolerance of every usable wish's parts
    std::vector<double> achieved;  ///< mean of each wish; NaN when not usable
    std::vector<double> miss;
    double both_centred = std::nan("");
};

std::vector<Vec3> placed(const Scene& s, const Pose& pose, const std::vector<int>& points) {
    std::vector<Vec3> out;
    for (const int i : points) out.push_back(place(pose, s.body[i]));
    return out;
}

Evaluated evaluate(const Scene& s, const Parameters& p) {
    const Pose pose = poseOf(p);
    const auto ground = groundOf(s, p(6));
    const auto front = axle(s, false, p(6));
    const auto rear = axle(s, true, p(6));
    Evaluated e;
    double arch_front = std::nan("");
    double arch_rear = std::nan("");
    for (const Wish& wish : s.input->wishes) {
        const auto at = placed(s, pose, wish.points);
        std::vector<double> parts;
        switch (wish.kind) {
        case PinKind::Station:
            for (const Vec3& point : at) parts.push_back(point.x_mm);
            break;
        case PinKind::Centred: parts.push_back((at[0].y_mm + at[1].y_mm) / 2); break;
        case PinKind::Height:
            if (ground)
                for (const Vec3& point : at) parts.push_back(heightOver(*ground, point));
            break;
        case PinKind::Level:
        case PinKind::Rake:
            if (ground) {
                const auto half = static_cast<std::ptrdiff_t>(at.size() / 2);
                const Vec3 a = mean({at.begin(), at.begin() + half});
                const Vec3 b = mean({at.begin() + half, at.end()});
                const double rise = heightOver(*ground, b) - heightOver(*ground, a);
                parts.push_back(wish.kind == PinKind::Level ? rise : std::atan2(rise, std::abs(b.x_mm - a.x_mm)));
            }
            break;
        case PinKind::ArchFront:
            arch_front = mean(at).x_mm;
            if (!front.empty()) parts.push_back(arch_front - mean(front).x_mm);
            break;
        case PinKind::ArchRear:
            arch_rear = mean(at).x_mm;
            if (!rear.empty()) parts.push_back(arch_rear - mean(rear).x_mm);
            break;
        }
        const bool centring = wish.kind == PinKind::Centred || wish.kind == PinKind::Level || wish.kind == PinKind::ArchFront ||
                              wish.kind == PinKind::ArchRear;
        const double target = centring ? 0 : wish.target;
        double sum = 0;
        double worst = 0;
        for (const double part : parts) {
            e.residuals.push_back((part - target) / wish.tolerance);
            sum += part;
            if (std::abs(part - target) >= std::abs(worst)) worst = part - target;
        }
        e.achieved.push_back(parts.empty() ? std::nan("") : sum / static_cast<double>(parts.size()));
        e.miss.push_back(worst);
    }
    if (!front.empty() && !rear.empty())
        e.both_centred = (arch_rear - arch_front) - (mean(axle(s, true, 0)).x_mm - mean(front).x_mm);
    return e;
}

Eigen::VectorXd asVector(const std::vector<double>& v) {
    return Eigen::Map<const Eigen::VectorXd>(v.data(), static_cast<Eigen::Index>(v.size()));
}

Eigen::MatrixXd jacobian(const Scene& s, const Parameters& p, const std::vector<int>& free) {
    Eigen::MatrixXd j;
    for (size_t k = 0; k < free.size(); ++k) {
        constexpr double step_mm = 0.01;
        Parameters up = p;
        Parameters down = p;
        up(free[k]) += step_mm;
        down(free[k]) -= step_mm;
        const Eigen::VectorXd column =
            (asVector(evaluate(s, up).residuals) - asVector(evaluate(s, down).residuals)) / (2 * step_mm);
        if (j.size() == 0) j = Eigen::MatrixXd::Zero(column.size(), static_cast<Eigen::Index>(free.size()));
        j.col(static_cast<Eigen::Index>(k)) = column;
    }
    return j;
}

/// Gauss–Newton; directions that no wish resists do not move (pseudo-inverse). True when it settled.
bool settle(const Scene& s, Parameters& p, const std::vector<int>& free) {
    for (int round = 0; round < 60; ++round) {
        const Eigen::VectorXd r = asVector(evaluate(s, p).residuals);
        const Eigen::MatrixXd j = jacobian(s, p, free);
        if (j.rows() == 0) return true;
        const Spectrum by = spectrumOf(j);
        Eigen::VectorXd step = Eigen::VectorXd::Zero(j.cols());
        const Eigen::VectorXd g = by.directions.transpose() * (j.transpose() * r);
        for (Eigen::Index k = 0; k < by.values.size(); ++k)
            if (by.values(k) > by.limit) step -= by.directions.col(k) * (g(k) / by.values(k));
        const double size = step.norm();
        if (!std::isfinite(size)) return false;
        if (size > 500) step *= 500 / size; // no more than half a metre or half a radian at a time
        for (size_t k = 0; k < free.size(); ++k) p(free[k]) += step(static_cast<Eigen::Index>(k));
        if (size < 1e-8) return true;
    }
    return false;
}

constexpr const char* open_sentences[7] = {
    "Nothing says where the body stands fore and aft: pin the hinge pillar at a station, or centre a wheel in its arch.",
    "Nothing says where the body stands sideways: pin a left and right pair as centred.",
    "Nothing says how high the body stands: pin a sill height.",
    "Nothing says which way the body points in plan: pin a second pair as centred, far from the first.",
    "Nothing says whether the nose stands high or low: pin a second sill height, level, or a rake.",
    "Nothing says whether the body leans: pin sill heights on both sides.",
    "Nothing asks for a wheelbase: centre the rear wheels in their arches, or decide the change."};

std::vector<std::string> openSentences(const Eigen::MatrixXd& j, const std::vector<int>& free) {
    std::vector<std::string> open;
    if (j.rows() == 0) return open;
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

/// All figures whose ± is wanted, in one vector: shift, change, both_centred, then each wish's achieved value.
Eigen::VectorXd figures(const Scene& s, const Parameters& p) {
    const Evaluated e = evaluate(s, p);
    Eigen::VectorXd f(static_cast<Eigen::Index>(5 + e.achieved.size()));
    f << p(0), p(1), p(2), p(6), e.both_centred, asVector(e.achieved);
    return f;
}

/// Variance of the figures from one survey: numeric derivative of the whole solution by each coordinate.
void addVariance(const Scene& s, const Parameters& p, const std::vector<int>& free, bool body, Eigen::VectorXd& variance) {
    const Located& located = body ? s.input->body : s.input->hubs;
    const size_t n3 = 3 * located.at.size();
    if (located.covariance.size() != n3 * n3 || n3 == 0) return;
    Eigen::MatrixXd by(variance.size(), static_cast<Eigen::Index>(n3));
    for (size_t k = 0; k < n3; ++k) {
        constexpr double step_mm = 0.05;
        Eigen::VectorXd ends[2];
        for (int side = 0; side < 2; ++side) {
            Scene moved = s;
            Vec3& v = (body ? moved.body : moved.hubs)[k / 3];
            (k % 3 == 0 ? v.x_mm : k % 3 == 1 ? v.y_mm : v.z_mm) += side ? step_mm : -step_mm;
            Parameters q = p;
            settle(moved, q, free);
            ends[side] = figures(moved, q);
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
    default:
        if (!front || !rear)
            return "waits for the ground: measure the wheel centres of the chassis (roles front-hub and rear-hub)";
        return "waits for the ground: type the tyre radii, or the heights of the axles";
    }
}

} // namespace

Vec3 place(const Pose& pose, const Vec3& b) {
    const double cy = std::cos(pose.yaw_rad);
    const double sy = std::sin(pose.yaw_rad);
    const double cp = std::cos(pose.pitch_rad);
    const double sp = std::sin(pose.pitch_rad);
    const double cr = std::cos(pose.roll_rad);
    const double sr = std::sin(pose.roll_rad);
    // Rx, then Ry, then Rz
    const double y1 = cr * b.y_mm - sr * b.z_mm;
    const double z1 = sr * b.y_mm + cr * b.z_mm;
    const double x2 = cp * b.x_mm + sp * z1;
    const double z2 = -sp * b.x_mm + cp * z1;
    return {cy * x2 - sy * y1 + pose.shift.x_mm, sy * x2 + cy * y1 + pose.shift.y_mm, z2 + pose.shift.z_mm};
}

double heightOver(const Ground& g, const Vec3& p) {
    return (p.z_mm - g.height_mm - g.along * p.x_mm - g.across * p.y_mm) / std::sqrt(1 + g.along * g.along + g.across * g.across);
}

Seat seat(const Input& in) {
    Seat result;
    Scene scene{&in, in.body.at, in.hubs.at};
    Parameters p = Parameters::Zero();
    if (in.decided_change_mm) p(6) = *in.decided_change_mm;
    const bool rear_known = in.rear_left >= 0 || in.rear_right >= 0;
    const bool front_known = in.front_left >= 0 || in.front_right >= 0;
    if (rear_known && front_known) result.wheelbase_now_mm = mean(axle(scene, true, 0)).x_mm - mean(axle(scene, false, 0)).x_mm;
    const bool rear_wish =
        std::any_of(in.wishes.begin(), in.wishes.end(), [](const Wish& w) { return w.kind == PinKind::ArchRear; });
    std::vector<int> free = {0, 1, 2, 3, 4, 5};
    const bool change_free = !in.decided_change_mm && rear_wish && rear_known;
    if (change_free) free.push_back(6);
    result.wishes.resize(in.wishes.size());
    const Evaluated first = evaluate(scene, p);
    if (first.residuals.empty()) {
        result.ground = groundOf(scene, p(6));
        for (size_t i = 0; i < in.wishes.size(); ++i) result.wishes[i].words = missing(in, in.wishes[i].kind);
        if (in.decided_change_mm) result.change_mm = p(6);
        result.change_decided = in.decided_change_mm.has_value();
        return result;
    }
    const bool settled = settle(scene, p, free);
    const Evaluated e = evaluate(scene, p);
    result.pose = poseOf(p);
    result.ground = groundOf(scene, p(6));
    result.open = openSentences(jacobian(scene, p, free), free);
    if (!rear_wish && !in.decided_change_mm) result.open.emplace_back(open_sentences[6]);
    result.status = !settled ? Status::NotConverged : result.open.empty() ? Status::Seated : Status::Underdetermined;

    Eigen::VectorXd variance = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(5 + in.wishes.size()));
    addVariance(scene, p, free, true, variance);
    addVariance(scene, p, free, false, variance);
    const auto half = [&](Eigen::Index k) { return halfWidth(std::sqrt(std::max(0.0, variance(k)))); };
    for (int axis = 0; axis < 3; ++axis) result.pose_half_width_mm[axis] = half(axis);
    result.change_decided = in.decided_change_mm.has_value();
    if (result.change_decided || change_free) {
        result.change_mm = p(6);
        result.change_half_width_mm = result.change_decided ? 0 : half(3);
    }
    if (std::isfinite(e.both_centred)) {
        result.change_both_centred_mm = e.both_centred;
        result.change_both_half_width_mm = half(4);
    }
    for (size_t i = 0; i < in.wishes.size(); ++i) {
        WishResult& w = result.wishes[i];
        w.usable = std::isfinite(e.achieved[i]);
        if (!w.usable) {
            w.words = missing(in, in.wishes[i].kind);
            continue;
        }
        w.achieved = e.achieved[i];
        w.miss = e.miss[i];
        w.half_width = half(static_cast<Eigen::Index>(5 + i));
        w.verdict = build::planVerdict(w.miss, w.half_width, in.wishes[i].tolerance);
        const bool on_ground =
            in.wishes[i].kind == PinKind::Height || in.wishes[i].kind == PinKind::Level || in.wishes[i].kind == PinKind::Rake;
        if (in.wishes[i].assumed || (on_ground && in.heights_assumed)) w.verdict = build::notBetterThanMarginal(w.verdict);
    }
    return result;
}

} // namespace gorvet::sit
