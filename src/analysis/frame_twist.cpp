#include "analysis/frame_twist.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// A rail's centroids at its points.
std::vector<Vec3> centroids(const RailLine& rail, const frame::Section& s, double outward) {
    std::vector<Vec3> line;
    for (const Vec3& p : rail.points)
        if (const auto at = rail.at(p.x_mm))
            line.push_back({p.x_mm, at->y_mm + outward * s.centroid.y_mm, (at->top_mm + at->bottom_mm) / 2 + s.centroid.z_mm});
    return line;
}

} // namespace

Result<FrameTwist> frameTwist(const Results& r, const std::vector<frame::Bridge>& bridges) {
    const stretch::Input& in = r.stretch.input();
    const RailLine& rail = in.left;
    const auto waits = [](const char* what, const char* remedy) {
        return Error{Error::Code::Conflict, "frame", fmt::format("The frame can't be twisted yet: it needs {}.", what), remedy,
                     -1};
    };
    if (in.left.points.size() < 2 || in.right.points.size() < 2)
        return waits("both rails", "Survey two points of each at the least.");
    if (rail.height_mm <= 0 || rail.width_mm <= 0 || rail.thickness_mm <= 0)
        return waits("the rails' section", "Say it: rail 100 x 60 x 4 box top.");
    if (!in.front_axle_mm || !in.rear_axle_mm) return waits("both axles", "Survey the four wheel centres.");
    const auto section =
        frame::sectionOf(in.channel ? frame::channel(rail.height_mm, rail.width_mm, rail.thickness_mm, 2 * rail.thickness_mm)
                                    : frame::box(rail.height_mm, rail.width_mm, rail.thickness_mm, 2 * rail.thickness_mm));
    if (!section) return section.error();
    FrameTwist t;
    t.bridges = bridges;
    t.assumed = in.assumed;
    frame::Ladder l;
    l.rail = *section;
    l.bridges = bridges;
    l.left = centroids(in.left, *section, 1);
    l.right = centroids(in.right, *section, -1); // its mirror image
    l.front_axle_mm = *in.front_axle_mm;
    l.rear_axle_mm = *in.rear_axle_mm;
    const auto now = frame::twistOf(l);
    if (!now) return now.error();
    t.now = *now;
    if (r.stretch->status != stretch::Status::Planned) return t;
    const auto planned = [&](double station) { return r.planned_chassis.map(Vec3{station, 0, 0}).x_mm; };
    l.left = centroids(r.planned_left, *section, 1);
    l.right = centroids(r.planned_right, *section, -1);
    l.front_axle_mm = planned(l.front_axle_mm);
    l.rear_axle_mm = planned(l.rear_axle_mm);
    for (frame::Bridge& bridge : l.bridges) bridge.station_mm = planned(bridge.station_mm);
    if (const auto after = frame::twistOf(l)) t.planned = *after;
    return t;
}

} // namespace gorvet::analysis
