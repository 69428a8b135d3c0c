#include "analysis/link_bolts.hpp"

#include "analysis/car_points.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using make::Fastener;

namespace {

/// What nobody measured of an eye: its bolt, how wide it is with the bracket's two plates.
constexpr double usual_bolt_mm = 14, usual_grip_mm = 72;
/// A part's bolt whose middle is so near to an eye is the eye's.
constexpr double same_mm = 25;

struct Eye {
    PointId point;
    Vec3 axis;
    std::optional<LinkEnd> end; ///< where a row of holes may say how wide its hole is
};

/// The eyes of a link; `at`: its points, in their order.
std::vector<Eye> eyesOf(const Link& l, const std::vector<Vec3>& at) {
    constexpr Vec3 along{1, 0, 0}, across{0, 1, 0}, up{0, 0, 1};
    const auto between = [&](std::size_t a, std::size_t b) { return geometry::unit(geometry::minus(at[b], at[a])); };
    switch (l.kind) {
    case LinkKind::Rod: {
        const Vec3 level = geometry::cross(between(0, 1), up);
        const Vec3 axis = geometry::length(level) > 0.2 ? geometry::unit(level) : across; // one that stands upright
        return {{l.points[0], axis, LinkEnd::Frame}, {l.points[1], axis, LinkEnd::Axle}};
    }
    case LinkKind::Wishbone:
    case LinkKind::Hinge: return {{l.points[0], between(0, 1), {}}, {l.points[1], between(0, 1), {}}};
    case LinkKind::Leaf: return {{l.points[0], across, {}}, {l.points[2], across, {}}, {l.points[3], across, {}}};
    case LinkKind::Watts: return {{l.points[0], along, {}}, {l.points[1], along, {}}, {l.points[3], along, {}}};
    case LinkKind::Strut:
    case LinkKind::TieRod: break;
    }
    return {};
}

double farthest95(const Places& places, std::size_t k) {
    const std::size_t n = 3 * places.at.size();
    double most = 0;
    for (std::size_t axis = 0; axis < 3; ++axis) most = std::max(most, places.covariance[(3 * k + axis) * n + 3 * k + axis]);
    return 1.96 * std::sqrt(most);
}

bool inARail(const Results& r, const Vec3& p) {
    for (const RailLine* rail : {&r.planned_left, &r.planned_right})
        if (const auto here = rail->at(p.x_mm);
            here && std::abs(p.y_mm - here->y_mm) < rail->width_mm / 2 && p.z_mm < here->top_mm && p.z_mm > here->bottom_mm)
            return true;
    return false;
}

} // namespace

LinkBolts linkBolts(const Build& b, const Results& r, const std::vector<Fastener>& of_parts) {
    LinkBolts all;
    const auto taken = [&](const Vec3& p) {
        const auto near = [&](const Fastener& f) {
            return geometry::between(geometry::plus(f.head, geometry::times(f.along, f.grip_mm / 2)), p) < same_mm;
        };
        return std::any_of(of_parts.begin(), of_parts.end(), near) ||
               std::any_of(all.fasteners.begin(), all.fasteners.end(), near); // two links in one bracket
    };
    for (const auto& [id, link] : b.links) {
        CarPoints points(b, r);
        const std::vector<std::size_t> which = points.take(link.points);
        if (!points.lost().empty()) continue; // the link says so itself
        const Places places = points.places();
        std::vector<Vec3> at;
        for (const std::size_t k : which) at.push_back(places.at[k]);
        const std::vector<Eye> eyes = eyesOf(link, at);
        for (const Eye& eye : eyes) {
            const auto k =
                static_cast<std::size_t>(std::find(link.points.begin(), link.points.end(), eye.point) - link.points.begin());
            if (taken(at[k])) continue;
            const std::string name = fmt::format("link {}, bolt at {}", link.name, nameOf(b, eye.point));
            const LinkHoles* row = eye.end ? linkHolesOf(b, id, *eye.end) : nullptr;
            const make::BoltSize* size = row && row->hole ? make::boltThrough(row->hole->value) : nullptr;
            const bool said = size != nullptr;
            if (!size) size = make::boltSize(usual_bolt_mm);
            const auto length = make::boltLength(*size, usual_grip_mm);
            if (!length) continue;
            Fastener f;
            f.name = name;
            f.group = "links";
            f.tag = "link:" + link.name;
            f.there = true;
            f.along = eye.axis;
            f.grip_mm = usual_grip_mm;
            f.head = geometry::minus(at[k], geometry::times(eye.axis, usual_grip_mm / 2));
            f.bolt_mm = size->nominal;
            f.length_mm = *length;
            if (inARail(r, f.head) || inARail(r, geometry::plus(f.head, geometry::times(f.along, f.grip_mm)))) {
                all.not_looked_at.push_back(name + ": its eye is in the rail");
                continue;
            }
            f.assumed.emplace_back("what stands there already, which was not tried: it went in past that once");
            if (!said) f.assumed.push_back(fmt::format("its thread, M{:g}", size->nominal));
            f.assumed.push_back(fmt::format("its eye with the bracket, {:g} mm wide", usual_grip_mm));
            if (const double u95 = farthest95(places, which[k]); u95 > make::service_spare_mm)
                f.assumed.push_back(fmt::format("its place, to ± {:.1f} mm", u95));
            all.fasteners.push_back(std::move(f));
        }
    }
    return all;
}

} // namespace gorvet::analysis
