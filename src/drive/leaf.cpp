#include "drive/leaf.hpp"

#include <cmath>

namespace gorvet::drive {

namespace {

/// An arc of length l that leaves along the tangent and bends up: how far out and up its end is, and their derivatives by the
/// curvature.
struct ArcEnd {
    double out = 0, up = 0, out_by = 0, up_by = 0;
};
ArcEnd arcEnd(double l, double k) {
    const double a = k * l;
    if (std::abs(a) < 1e-4) // series: no 0/0
        return {l * (1 - a * a / 6), l * a / 2 * (1 - a * a / 12), -l * l * a / 3, l * l / 2 * (1 - a * a / 4)};
    const double s = std::sin(a), c = std::cos(a);
    return {s / k, (1 - c) / k, (l * c - s / k) / k, (l * s - (1 - c) / k) / k};
}

} // namespace

LeafArc arcOf(const Leaf& leaf) {
    LeafArc arc;
    const double front_x = leaf.seat.x_mm - leaf.front_eye.x_mm, front_z = leaf.front_eye.z_mm - leaf.seat.z_mm;
    const double rear_x = leaf.rear_eye.x_mm - leaf.seat.x_mm, rear_z = leaf.rear_eye.z_mm - leaf.seat.z_mm;
    const double front = std::hypot(front_x, front_z), rear = std::hypot(rear_x, rear_z);
    const double front_up = std::atan2(front_z, front_x), rear_up = std::atan2(rear_z, rear_x);
    const double turn = front_up + rear_up; // what both chords bend up together
    const double of_front = std::atan2(front * std::sin(turn), rear + front * std::cos(turn));
    arc.curvature = 2 * std::sin(of_front) / front;
    arc.tangent_rad = front_up - of_front;
    const auto along = [&](double chord) {
        const double half = arc.curvature * chord / 2;
        return std::abs(half) < 1e-6 ? chord : 2 * std::asin(half) / arc.curvature;
    };
    arc.front_mm = along(front);
    arc.rear_mm = along(rear);
    arc.front_out_mm = leaf.front_eye.y_mm - leaf.seat.y_mm;
    arc.rear_out_mm = leaf.rear_eye.y_mm - leaf.seat.y_mm;
    return arc;
}

LeafEnd LeafArc::end(bool front, double more_curvature) const {
    const ArcEnd e = arcEnd(front ? front_mm : rear_mm, curvature + more_curvature);
    const double c = std::cos(tangent_rad), s = std::sin(tangent_rad);
    // the tangent goes up to the front by its angle, down to the rear
    const auto turned = [&](double out, double up) {
        return front ? Vec3{-(out * c - up * s), 0, out * s + up * c} : Vec3{out * c + up * s, 0, -out * s + up * c};
    };
    LeafEnd end{turned(e.out, e.up), turned(e.out_by, e.up_by)};
    end.from_seat.y_mm = front ? front_out_mm : rear_out_mm;
    return end;
}

} // namespace gorvet::drive
