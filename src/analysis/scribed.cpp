#include "analysis/scribed.hpp"

#include "scan/cloud.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::analysis {

using sheet::Drawing;
using sheet::Ink;
using sheet::P;

namespace {

/// A scan's noise folds small triangles: paper at about 1 : 20 shows no finer ones.
constexpr double least_edge_mm = 5;
double middleEdge(const shape::Mesh& m) {
    std::vector<double> edges;
    const size_t step = std::max<size_t>(1, m.triangles.size() / 2000);
    for (size_t t = 0; t < m.triangles.size(); t += step)
        edges.push_back(geometry::between(m.points[m.triangles[t][0]], m.points[m.triangles[t][1]]));
    std::nth_element(edges.begin(), edges.begin() + static_cast<std::ptrdiff_t>(edges.size() / 2), edges.end());
    return edges[edges.size() / 2];
}

struct Range {
    double least[2] = {1e300, 1e300};
    double most[2] = {-1e300, -1e300};
    bool empty() const { return most[0] < least[0]; }
};
Range rangeOf(const ScribedView& v) {
    Range r;
    for (const shape::ScribedLine& l : v.lines)
        for (const auto& p : l.path)
            for (size_t axis = 0; axis < 2; ++axis) {
                r.least[axis] = std::min(r.least[axis], p[axis]);
                r.most[axis] = std::max(r.most[axis], p[axis]);
            }
    return r;
}

/// What fouls, worst first: a number at its place, beside others at the same place, and what the numbers say in the corner.
void addFouls(Drawing& d, const OverlayClearance& c, const std::vector<Finding>& findings,
              const std::function<P(const shape::Point3&)>& at, const sheet::Format& f) {
    constexpr size_t most = 9;
    const double radius = f.body() * 0.62;
    std::vector<P> taken;
    for (const Finding& finding : findings) {
        const auto* place = placeOf(c, finding.tag);
        if (!place || taken.size() == most) continue;
        const P to = at(place->contact.at);
        P balloon{to.x + 1.5 * radius, to.y - 2 * radius};
        const auto free = [&] {
            return std::none_of(taken.begin(), taken.end(),
                                [&](const P& p) { return std::hypot(p.x - balloon.x, p.y - balloon.y) < 2.2 * radius; });
        };
        while (!free()) balloon.x += 2.2 * radius;
        taken.push_back(balloon);
        const std::string number = std::to_string(taken.size());
        const Ink ink = inkOf(finding.severity);
        d.add(sheet::Stroke{{to, balloon}, false, {ink, f.thin() * 0.6}});
        d.add(sheet::Circle{to, f.px(1.5), {ink, f.thin()}, true});
        d.add(sheet::Circle{balloon, radius, {ink, f.thin()}, false, true});
        d.add(sheet::Text{balloon, number, f.small() * 0.9, ink, sheet::Anchor::Centre, sheet::Level::Middle}, finding.tag);
        const double y = f.body() * 1.6 * static_cast<double>(taken.size());
        d.add(sheet::Text{{0, y}, number, f.body(), ink});
        d.add(sheet::Text{{f.px(18), y}, finding.brief, f.body(), ink}, finding.tag);
    }
}

} // namespace

std::optional<Scribed> scribedOf(const ScribedAsked& in, const std::function<bool()>& stop) {
    Scribed s;
    std::vector<shape::LinePart> parts;
    std::vector<std::unique_ptr<shape::Mesh>> coarser;
    const auto add = [&](const shape::Mesh* mesh, const geometry::RigidTransform& pose, bool sheet, Ink ink) {
        if (!mesh || mesh->triangles.empty()) return;
        if (middleEdge(*mesh) < least_edge_mm) {
            coarser.push_back(std::make_unique<shape::Mesh>(scan::downsampled(*mesh, 1.5 * least_edge_mm).mesh));
            mesh = coarser.back().get();
        }
        parts.push_back({mesh, pose, sheet});
        s.inks.push_back(ink);
    };
    const Overlay& o = *in.overlay;
    add(o.hasChassis() ? o.chassis->mesh.get() : nullptr, {}, false, Ink::Chassis);
    add(in.steel.get(), {}, false, Ink::NewSteel);
    add(o.hasBody() ? o.body->mesh.get() : nullptr, o.seat, true, Ink::Body);
    add(in.removed.get(), o.seat, true, Ink::Remove);
    constexpr double right_angle = std::numbers::pi / 2;
    for (const auto& [key, words, azimuth, rise] :
         {std::tuple{"corner", "from the corner", -0.55, 0.42}, std::tuple{"left", "from the left", 0.0, 0.0},
          std::tuple{"above", "from above", 0.0, right_angle}}) {
        const auto axes = shape::ViewAxes::from(azimuth, rise);
        s.views.push_back({key, words, axes, shape::scribedLines(parts, axes, {}, stop)});
        if (stop && stop()) return std::nullopt;
    }
    return s;
}

double scribedScale(const Scribed& s, const std::vector<std::string_view>& keys, double width, double height) {
    double most = 0;
    for (const ScribedView& v : s.views) {
        if (std::find(keys.begin(), keys.end(), v.key) == keys.end()) continue;
        if (const Range r = rangeOf(v); !r.empty())
            most = std::max({most, (r.most[0] - r.least[0]) / width, (r.most[1] - r.least[1]) / height});
    }
    return most;
}

Drawing scribedDrawing(const Scribed& s, const ScribedView& v, double width, double height, const sheet::Format& f,
                       double mm_a_unit, const OverlayClearance* clearance, const std::vector<Finding>& findings) {
    Drawing d{width, height, {}};
    const Range r = rangeOf(v);
    if (r.empty()) return d;
    if (!(width > 0)) {
        d.width = width = (r.most[0] - r.least[0]) / mm_a_unit;
        d.height = height = (r.most[1] - r.least[1]) / mm_a_unit;
    }
    if (!(mm_a_unit > 0)) mm_a_unit = std::max((r.most[0] - r.least[0]) / width, (r.most[1] - r.least[1]) / height);
    const auto at = [&](double right, double up) {
        return P{width / 2 + (right - (r.least[0] + r.most[0]) / 2) / mm_a_unit,
                 height / 2 - (up - (r.least[1] + r.most[1]) / 2) / mm_a_unit};
    };
    // what is seen through first: plain lines lie over it
    for (const auto sight : {shape::Sight::Veiled, shape::Sight::Plain})
        for (const shape::ScribedLine& l : v.lines) {
            if (l.sight != sight) continue;
            const bool plain = sight == shape::Sight::Plain;
            const Ink ink = s.inks[l.part];
            sheet::Stroke stroke{
                {},
                false,
                {ink, f.thin() * (plain ? ink == Ink::Body ? 0.7 : 1.1 : 0.5), plain ? sheet::Dash::Solid : sheet::Dash::Dashed}};
            for (const auto& p : l.path) stroke.path.push_back(at(p[0], p[1]));
            d.add(std::move(stroke));
        }
    if (clearance)
        addFouls(
            d, *clearance, findings,
            [&](const shape::Point3& p) { return at(geometry::dot(p, v.axes.right), geometry::dot(p, v.axes.up)); }, f);
    return d;
}

} // namespace gorvet::analysis
