#include "make/rail_mesh.hpp"

#include "shape/plain_mesh.hpp"

namespace gorvet::make {

namespace {

/// Of a section's corners (across to the right, up from its middle) at each station; upright and across the car, as rails are
/// measured.
std::vector<shape::Ring> ringsAlong(const build::RailLine& rail, const std::vector<double>& stations,
                                    const geometry::Outline& section) {
    std::vector<shape::Ring> rings;
    for (const double x : stations) {
        const auto at = rail.at(x);
        if (!at) return {};
        const double middle = (at->top_mm + at->bottom_mm) / 2;
        shape::Ring ring;
        for (const auto& [across, up] : section) ring.push_back({x, at->y_mm + across, middle + up});
        rings.push_back(std::move(ring));
    }
    return rings;
}

// seen from behind, right is right and up is up: anticlockwise turns from right to up, and rings grow rearward, towards the eye
geometry::Outline box(double width, double height) {
    return {{-width / 2, -height / 2}, {width / 2, -height / 2}, {width / 2, height / 2}, {-width / 2, height / 2}};
}

} // namespace

shape::Mesh railMesh(const build::RailLine& rail, bool channel) {
    const double w = rail.width_mm, h = rail.height_mm, t = rail.thickness_mm;
    if (rail.points.size() < 2 || !(t > 0 && w > 2 * t && h > 2 * t)) return {};
    std::vector<double> stations;
    for (const auto& p : rail.points) stations.push_back(p.x_mm);
    if (!channel)
        return shape::wallMesh(ringsAlong(rail, stations, box(w, h)), ringsAlong(rail, stations, box(w - 2 * t, h - 2 * t)));
    // its web outside, away from the middle of the car
    const double side = rail.points.front().y_mm < 0 ? 1 : -1;
    geometry::Outline c{{-side * w / 2, -h / 2},
                        {side * w / 2, -h / 2},
                        {side * w / 2, -h / 2 + t},
                        {-side * (w / 2 - t), -h / 2 + t},
                        {-side * (w / 2 - t), h / 2 - t},
                        {side * w / 2, h / 2 - t},
                        {side * w / 2, h / 2},
                        {-side * w / 2, h / 2}};
    if (side < 0) c = geometry::Outline(c.rbegin(), c.rend());
    return shape::ringsMesh(ringsAlong(rail, stations, c), shape::filled(c));
}

shape::Mesh railFilled(const build::RailLine& rail) {
    if (rail.points.size() < 2 || !(rail.width_mm > 0 && rail.height_mm > 0)) return {};
    std::vector<double> stations;
    for (const auto& p : rail.points) stations.push_back(p.x_mm);
    const auto section = box(rail.width_mm, rail.height_mm);
    return shape::ringsMesh(ringsAlong(rail, stations, section), shape::filled(section));
}

shape::Mesh alongRail(const build::RailLine& rail, double from, double until, double height, double width) {
    const auto section = box(width, height);
    const auto rings = ringsAlong(rail, {from, until}, section);
    return rings.empty() ? shape::Mesh{} : shape::ringsMesh(rings, shape::filled(section));
}

} // namespace gorvet::make
