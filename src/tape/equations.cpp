#include "tape/equations.hpp"

#include <cmath>

namespace gorvet::tape {

double senseOf(ReadingKind kind, const Vec3& from, const Vec3& to) {
    const double dx = to.x_mm - from.x_mm;
    const double dy = to.y_mm - from.y_mm;
    switch (kind) {
    case ReadingKind::Slope: return dx < 0 && std::abs(dx) >= std::abs(dy) ? -1.0 : 1.0;
    case ReadingKind::CrossLevel: return dy < 0 && std::abs(dy) >= std::abs(dx) ? -1.0 : 1.0;
    case ReadingKind::RailAngle: return dx < 0 ? -1.0 : 1.0;
    default: return 1.0;
    }
}

Predicted predictAlong(const std::array<double, 3>& along, const Vec3& from) {
    Predicted p;
    p.value = along[0] * from.x_mm + along[1] * from.y_mm + along[2] * from.z_mm;
    p.by_from = along;
    return p;
}

Predicted predict(ReadingKind kind, const Vec3& from, const Vec3& to, bool has_to, double sense) {
    Predicted p;
    const double dx = to.x_mm - from.x_mm;
    const double dy = to.y_mm - from.y_mm;
    const double dz = to.z_mm - from.z_mm;
    const double plan = std::hypot(dx, dy);
    const auto along = [&p](double gx, double gy, double gz) {
        p.by_to = {gx, gy, gz};
        p.by_from = {-gx, -gy, -gz};
    };
    /// One coordinate, or the difference of it.
    const auto coordinate = [&](int axis, double at_from, double difference) {
        p.value = has_to ? difference : at_from;
        p.by_from[axis] = has_to ? -1 : 1;
        p.by_to[axis] = has_to ? 1 : 0;
    };
    switch (kind) {
    case ReadingKind::Tape: {
        const double d = std::hypot(dx, dy, dz);
        p.value = d;
        if (d > 0) along(dx / d, dy / d, dz / d);
        break;
    }
    case ReadingKind::Plan:
        p.value = plan;
        if (plan > 0) along(dx / plan, dy / plan, 0);
        break;
    case ReadingKind::Height:
        p.value = from.z_mm;
        p.by_from[2] = 1;
        break;
    case ReadingKind::Level: coordinate(2, from.z_mm, dz); break;
    case ReadingKind::Offset: coordinate(1, from.y_mm, dy); break;
    case ReadingKind::Station: coordinate(0, from.x_mm, dx); break;
    case ReadingKind::Slope:
    case ReadingKind::CrossLevel: {
        const double square = plan * plan + dz * dz;
        const double up = kind == ReadingKind::CrossLevel ? sense : -sense;
        p.value = up * std::atan2(dz, plan);
        if (plan > 0) {
            const double by_plan = -up * dz / square;
            along(by_plan * dx / plan, by_plan * dy / plan, up * plan / square);
        }
        break;
    }
    case ReadingKind::RailAngle:
        p.value = std::atan2(sense * dy, sense * dx);
        if (plan > 0) along(-dy / (plan * plan), dx / (plan * plan), 0);
        break;
    case ReadingKind::Symmetry:
        p.value = from.y_mm + to.y_mm;
        p.by_from[1] = 1;
        p.by_to[1] = 1;
        break;
    case ReadingKind::Coordinates: break; // predictAlong
    }
    return p;
}

Predicted predictFrom(SetUpKind setup, const std::array<double, setup_unknowns>& at, ReadingKind kind, const Vec3& from,
                      const Vec3& to, bool has_to) {
    Predicted p = predict(kind, from, to, has_to);
    // a difference is free of the set-up's own place, and sees its slope over the distance between the points
    const double x = (has_to ? to.x_mm - from.x_mm : from.x_mm) / 1000;
    const double y = (has_to ? to.y_mm - from.y_mm : from.y_mm) / 1000;
    const double place = has_to ? 0 : 1;
    const auto minus = [&](int axis, double slope) {
        p.by_from[axis] -= has_to ? -slope : slope;
        if (has_to) p.by_to[axis] -= slope;
    };
    switch (setup) {
    case SetUpKind::Plane:
        p.value -= place * at[0] + at[1] * x + at[2] * y;
        p.by_setup = {-place, -x, -y};
        minus(0, at[1] / 1000);
        minus(1, at[2] / 1000);
        break;
    case SetUpKind::String:
        p.value -= place * at[0] + at[1] * x;
        p.by_setup = {-place, -x, 0};
        minus(0, at[1] / 1000);
        break;
    case SetUpKind::Tape:
        p.value += at[0];
        p.by_setup = {1, 0, 0};
        break;
    }
    return p;
}

} // namespace gorvet::tape
