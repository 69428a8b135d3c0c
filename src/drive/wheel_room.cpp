#include "drive/wheel_room.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::drive {

double TyreShape::distance(double out, double from) const {
    // signed distance to a rounded rectangle
    const double x = std::abs(out - middle_mm) - (half_mm - round_mm), y = from - (radius_mm - round_mm);
    return std::hypot(std::max(x, 0.0), std::max(y, 0.0)) + std::min(std::max(x, y), 0.0) - round_mm;
}

double TyreShape::halfAt(double from, double need) const {
    const double corner = round_mm + need, y = from - (radius_mm - round_mm);
    if (y >= corner) return -1;
    return half_mm - round_mm + (y <= 0 ? corner : std::sqrt(corner * corner - y * y));
}

TyreShape tyreShape(double middle, double section, double outside, double seat) {
    const double side = std::max(10.0, (outside - seat) / 2);
    return {middle, section / 2, outside / 2, std::min({0.25 * side, section / 2, outside / 2})};
}

RoomPlace seenFrom(const Vec3& face, bool right, const RigidTransform& back, const Vec3& place, std::uint32_t pose) {
    const Vec3 at = geometry::minus(back.transformed(place), face);
    return {static_cast<float>(right ? at.y_mm : -at.y_mm), static_cast<float>(std::hypot(at.x_mm, at.z_mm)), pose};
}

Nearest nearestOf(const SeenThing& seen, const TyreShape& tyre) {
    Nearest best{1e9, 0, 0, 0};
    for (const RoomPlace& p : seen.places)
        if (const double d = tyre.distance(p.out_mm, p.from_mm); d < best.mm) best = {d, p.pose, p.out_mm, p.from_mm};
    best.mm -= seen.slack_mm;
    return best;
}

SeenThing seenScan(const ScannedThing& thing, const Vec3& face, bool right, const std::vector<HubPose>& poses, double reach) {
    constexpr int half_wide = 500; // to each side of the face
    const int wide = 2 * half_wide, high = std::clamp(static_cast<int>(std::ceil(reach)), 1, 2000);
    std::vector<std::uint32_t> cells(static_cast<std::size_t>(wide) * static_cast<std::size_t>(high), 0);
    double moves = 0; // what is too far away in every pose is not looked at in each
    std::vector<RigidTransform> back;
    for (const HubPose& pose : poses) {
        back.push_back(geometry::inverse(pose.moved));
        moves = std::max(moves, geometry::between(pose.moved.transformed(face), face));
    }
    const double far = std::hypot(reach, half_wide) + moves;
    for (const Vec3& place : *thing.surface) {
        if (geometry::between(place, face) > far) continue;
        for (std::size_t k = 0; k < back.size(); ++k) {
            const RoomPlace p = seenFrom(face, right, back[k], place, 0);
            const int column = static_cast<int>(std::floor(p.out_mm)) + half_wide, row = static_cast<int>(p.from_mm);
            if (column < 0 || column >= wide || row >= high) continue;
            std::uint32_t& cell =
                cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(wide) + static_cast<std::size_t>(column)];
            if (!cell) cell = static_cast<std::uint32_t>(k + 1);
        }
    }
    SeenThing seen;
    seen.thing = thing;
    seen.u95_mm = thing.u95_mm;
    seen.slack_mm = 0.71; // half of a square's diagonal
    for (int row = 0; row < high; ++row)
        for (int column = 0; column < wide; ++column)
            if (const std::uint32_t pose =
                    cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(wide) + static_cast<std::size_t>(column)])
                seen.places.push_back({static_cast<float>(column - half_wide) + 0.5F, static_cast<float>(row) + 0.5F, pose - 1});
    return seen;
}

} // namespace gorvet::drive
