#include "sit/measures.hpp"

#include "build/planned_chassis.hpp"

#include <Eigen/Geometry>
#include <algorithm>
#include <cmath>

namespace gorvet::sit {

using build::Bound;
using build::Importance;
using Eigen::Vector3d;

namespace {

Vector3d vec(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

/// The chassis with that change of wheelbase.
build::PlannedChassis plannedWith(const Input& in, double change_mm) { return {in.cut_station_mm, change_mm, in.cut_slope_rad}; }

/// The body's axes in the chassis frame, worked out once for a pose.
struct Placed {
    Vector3d origin, x, y, z;
    explicit Placed(const Pose& pose) : origin(vec(place(pose, {0, 0, 0}))) {
        x = vec(place(pose, {1, 0, 0})) - origin;
        y = vec(place(pose, {0, 1, 0})) - origin;
        z = vec(place(pose, {0, 0, 1})) - origin;
    }
    Vec3 operator()(const Vec3& p) const {
        const Vector3d at = origin + x * p.x_mm + y * p.y_mm + z * p.z_mm;
        return {at.x(), at.y(), at.z()};
    }
    /// The other way: from the chassis frame into the body's own.
    Vec3 back(const Vec3& p) const {
        const Vector3d d = vec(p) - origin;
        return {x.dot(d), y.dot(d), z.dot(d)};
    }
};

/// Distance to a box, < 0 inside.
double toBox(const Vec3& p, const Vec3& least, const Vec3& most) {
    const Vector3d out{std::max(least.x_mm - p.x_mm, p.x_mm - most.x_mm), std::max(least.y_mm - p.y_mm, p.y_mm - most.y_mm),
                       std::max(least.z_mm - p.z_mm, p.z_mm - most.z_mm)};
    const double deepest = out.maxCoeff();
    return deepest <= 0 ? deepest : out.cwiseMax(0).norm();
}

struct Evaluator {
    const Scene& s;
    const Placed body;
    const double change;
    const build::PlannedChassis planned;
    const std::optional<Ground> ground;
    const std::vector<Vec3> front;
    const std::vector<Vec3> rear;

    Evaluator(const Scene& scene, const Parameters& p)
        : s(scene), body(poseOf(p)), change(p(6)), planned(plannedWith(*scene.input, p(6))), ground(groundOf(scene, p(6))),
          front(axle(scene, false, p(6))), rear(axle(scene, true, p(6))) {}

    Vec3 at(const At& a) const {
        const auto i = static_cast<size_t>(a.index);
        if (!a.chassis) return body(s.body[i]);
        const Input& in = *s.input;
        const bool rear_hub = a.index == in.rear_left || a.index == in.rear_right;
        return rear_hub ? plus(s.chassis[i], planned.shift()) : planned.map(s.chassis[i]);
    }
    std::vector<Vec3> all(const std::vector<At>& points) const {
        std::vector<Vec3> out;
        for (const At& a : points) out.push_back(at(a));
        return out;
    }

    /// Least gap to the tyre that stands beside the point: a cylinder about the wheel centre.
    std::optional<double> tyreGap(const Vec3& p, bool bump) const {
        if (front.empty() && rear.empty()) return std::nullopt;
        const bool is_rear =
            front.empty() || (!rear.empty() && std::abs(p.x_mm - mean(rear).x_mm) < std::abs(p.x_mm - mean(front).x_mm));
        const Input& in = *s.input;
        const auto height = is_rear ? in.rear_height_mm : in.front_height_mm;
        const double free = is_rear ? in.rear_tyre_mm : in.front_tyre_mm;
        if (!height && free <= 0) return std::nullopt;
        const auto& hubs = is_rear ? rear : front;
        const Vec3 hub = *std::min_element(hubs.begin(), hubs.end(), [&](const Vec3& a, const Vec3& b) {
            return std::abs(a.y_mm - p.y_mm) < std::abs(b.y_mm - p.y_mm);
        });
        const double up = bump ? (is_rear ? in.rear_bump_mm : in.front_bump_mm) : 0;
        const double out = std::hypot(p.x_mm - hub.x_mm, p.z_mm - hub.z_mm - up) - (free > 0 ? free : *height);
        const double aside = std::abs(p.y_mm - hub.y_mm) - in.tyre_width_mm / 2;
        if (out <= 0 && aside <= 0) return std::max(out, aside);
        return std::hypot(std::max(out, 0.0), std::max(aside, 0.0));
    }

    /// The parts of a pin's figure; empty when what it needs is not known.
    std::vector<double> parts(const Pin& w) const {
        const auto points = all(w.points);
        std::vector<double> out;
        const auto between = [&]() -> Vector3d { return vec(mean(all(w.to))) - vec(mean(points)); };
        switch (w.kind) {
        case PinKind::Station:
            for (const Vec3& p : points) out.push_back(p.x_mm);
            break;
        case PinKind::Centred: out.push_back((points[0].y_mm + points[1].y_mm) / 2); break;
        case PinKind::Height:
            if (ground)
                for (const Vec3& p : points) out.push_back(heightOver(*ground, p));
            break;
        case PinKind::Level:
        case PinKind::Rake:
            if (ground) {
                const auto half = static_cast<std::ptrdiff_t>(points.size() / 2);
                const Vec3 a = mean({points.begin(), points.begin() + half});
                const Vec3 b = mean({points.begin() + half, points.end()});
                const double rise = heightOver(*ground, b) - heightOver(*ground, a);
                out.push_back(w.kind == PinKind::Level ? rise : std::atan2(rise, std::abs(b.x_mm - a.x_mm)));
            }
            break;
        case PinKind::ArchFront:
            if (!front.empty()) out.push_back(mean(points).x_mm - mean(front).x_mm);
            break;
        case PinKind::ArchRear:
            if (!rear.empty()) out.push_back(mean(points).x_mm - mean(rear).x_mm);
            break;
        case PinKind::Along: out.push_back(between().x()); break;
        case PinKind::Across: out.push_back(between().y()); break;
        case PinKind::Up: out.push_back(between().z()); break;
        case PinKind::Straight: out.push_back(between().norm()); break;
        case PinKind::Line: {
            const Vector3d a = vec(at(w.to[0]));
            const Vector3d along = (vec(at(w.to[1])) - a).normalized();
            const Vector3d d = vec(mean(points)) - a;
            if (!along.allFinite() || along.norm() < 0.5) break;
            // on the line itself a distance has no slope: two of them, across it, have
            if (w.bound == Bound::Equal && w.target == 0) {
                const Vector3d aside = along.unitOrthogonal();
                out = {d.dot(aside), d.dot(along.cross(aside))};
            } else {
                out.push_back(d.cross(along).norm());
            }
            break;
        }
        case PinKind::Under: {
            const auto corners = all(w.to);
            const Vector3d middle = vec(mean(corners));
            Eigen::Matrix3d spread = Eigen::Matrix3d::Zero();
            for (const Vec3& c : corners) spread += (vec(c) - middle) * (vec(c) - middle).transpose();
            Vector3d normal = smallestDirection(spread);
            if (normal.z() < 0) normal = -normal;
            for (const Vec3& p : points) out.push_back((middle - vec(p)).dot(normal));
            break;
        }
        case PinKind::Tyre:
        case PinKind::Bump:
            for (const Vec3& p : points)
                if (const auto gap = tyreGap(p, w.kind == PinKind::Bump)) out.push_back(*gap);
            break;
        case PinKind::Clear: {
            if (!w.clear_of) break;
            const geometry::Box3 box = w.clear_of->chassis ? planned.map(w.clear_of->box) : w.clear_of->box;
            for (const Vec3& p : points) out.push_back(toBox(w.clear_of->chassis ? p : body.back(p), box.min, box.max));
            break;
        }
        }
        return out;
    }

    /// The direction in which points spread least: by inverse iteration, a trace of the spread added so that it can be inverted.
    static Vector3d smallestDirection(Eigen::Matrix3d spread) {
        spread.diagonal().array() += 1e-9 * std::max(spread.trace(), 1e-9);
        const Eigen::Matrix3d inverse = spread.inverse();
        Vector3d n{0.1, 0.2, 1};
        for (int k = 0; k < 60; ++k) n = (inverse * n).normalized();
        return n;
    }
};

double weightOf(const Input& in, const Pin& w) {
    double weight = 1 / w.tolerance;
    if (w.importance == Importance::Like) weight *= 0.25;
    const bool driveline = ofDriveline(w.kind);
    if ((in.leads == build::Leads::Driveline && driveline) ||
        (in.leads == build::Leads::Body && !driveline && w.kind != PinKind::Centred))
        weight *= 3;
    return weight;
}

} // namespace

bool ofDriveline(PinKind k) { return k == PinKind::ArchFront || k == PinKind::ArchRear || k >= PinKind::Along; }

Pose poseOf(const Parameters& p) {
    return {{p(0), p(1), p(2)}, p(3) / turn_scale_mm, p(4) / turn_scale_mm, p(5) / turn_scale_mm};
}
Parameters parametersOf(const Pose& p, double change_mm) {
    Parameters out;
    out << p.shift.x_mm, p.shift.y_mm, p.shift.z_mm, p.yaw_rad * turn_scale_mm, p.pitch_rad * turn_scale_mm,
        p.roll_rad * turn_scale_mm, change_mm;
    return out;
}

Scene sceneOf(const Input& in) { return {&in, in.body.at, in.chassis.at}; }

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

std::vector<Vec3> axle(const Scene& s, bool rear, double change) {
    std::vector<Vec3> hubs;
    const Input& in = *s.input;
    for (const int i : {rear ? in.rear_left : in.front_left, rear ? in.rear_right : in.front_right})
        if (i >= 0)
            hubs.push_back(rear ? plus(s.chassis[static_cast<size_t>(i)], plannedWith(in, change).shift())
                                : s.chassis[static_cast<size_t>(i)]);
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

double targetOf(const Pin& w) {
    const bool centring =
        w.kind == PinKind::Centred || w.kind == PinKind::Level || w.kind == PinKind::ArchFront || w.kind == PinKind::ArchRear;
    return centring && w.bound == Bound::Equal ? 0 : w.target;
}

bool isPlaneVector(const Pin& w, size_t parts) {
    return w.kind == PinKind::Line && w.bound == Bound::Equal && w.target == 0 && parts == 2;
}

Evaluated evaluate(const Scene& s, const Parameters& p) {
    const Evaluator here(s, p);
    Evaluated e;
    double arch_front = std::nan("");
    double arch_rear = std::nan("");
    const auto& pins = s.input->pins;
    for (size_t i = 0; i < pins.size(); ++i) {
        const Pin& w = pins[i];
        const std::vector<double> parts = here.parts(w);
        if (w.kind == PinKind::ArchFront) arch_front = mean(here.all(w.points)).x_mm;
        if (w.kind == PinKind::ArchRear) arch_rear = mean(here.all(w.points)).x_mm;
        const double target = targetOf(w);
        const double weight = weightOf(*s.input, w);
        const bool must = w.importance == Importance::Must;
        const double sign = w.bound == Bound::AtMost ? -1 : 1;
        double sum = 0, worst = 0, least_spare = INFINITY;
        for (const double part : parts) {
            sum += part;
            if (w.bound == Bound::Equal) {
                e.residuals.push_back((part - target) * weight);
                if (must)
                    for (const double side : {1.0, -1.0}) {
                        e.musts.push_back(1 + side * (part - target) / w.tolerance);
                        e.must_of.push_back(static_cast<int>(i));
                    }
                if (std::abs(part - target) >= std::abs(worst)) worst = part - target;
                continue;
            }
            const double spare = sign * (part - target);
            (must ? e.musts : e.bounds).push_back(must ? spare / w.tolerance : spare * weight);
            (must ? e.must_of : e.bound_of).push_back(static_cast<int>(i));
            least_spare = std::min(least_spare, spare);
            worst = std::min(0.0, least_spare) * sign;
        }
        const bool by_line = isPlaneVector(w, parts.size());
        if (by_line) worst = std::hypot(parts[0], parts[1]);
        const bool least_counts =
            w.kind == PinKind::Under || w.kind == PinKind::Tyre || w.kind == PinKind::Bump || w.kind == PinKind::Clear;
        e.achieved.push_back(parts.empty()             ? std::nan("")
                             : by_line                 ? worst
                             : w.bound != Bound::Equal ? target + sign * least_spare
                             : least_counts            ? *std::min_element(parts.begin(), parts.end())
                                                       : sum / static_cast<double>(parts.size()));
        e.miss.push_back(worst);
        e.parts.push_back(parts);
    }
    if (!here.front.empty() && !here.rear.empty())
        e.both_centred = (arch_rear - arch_front) - (mean(axle(s, true, 0)).x_mm - mean(here.front).x_mm);
    return e;
}

} // namespace gorvet::sit
