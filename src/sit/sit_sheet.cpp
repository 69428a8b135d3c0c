#include "sit/sit_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {

using namespace sheet;

namespace {

class Drafter {
public:
    Drafter(const SitView& v, double width, double height, const Format& f) : v_(v), f_(f) {
        d_.width = width;
        d_.height = height;
        for (const auto& mark : v.body) reach(mark.at);
        for (const auto* line : {&v.rail_left, &v.rail_right})
            for (const Vec3& p : *line) reach(p);
        for (const Vec3& hub : v.front_hubs) wheelReach(hub, v.front_radius_mm);
        for (const Vec3& hub : v.rear_hubs) wheelReach(hub, v.rear_radius_mm);
        if (!v.zero.empty() && x_.first <= x_.second) x_ = {std::min(x_.first, 0.0), std::max(x_.second, 0.0)};
    }

    Drawing draw() {
        if (x_.first > x_.second) return d_;
        const double label = f_.body() * 1.6;
        const double depth = std::max(y_.second - y_.first, 200.0);
        const double tall = std::max(z_.second - z_.first, 200.0) + 200;
        const double length = x_.second - x_.first + 240;
        // a wide sheet takes the views side by side, a tall one below each other
        if (d_.width > 1.6 * d_.height) {
            const double side_width = d_.width * 0.60;
            const double side_scale = std::min(side_width / length, (d_.height - label - f_.px(30)) / tall);
            const double plan_scale = std::min((d_.width * 0.38) / length, (d_.height - 2 * label) / depth);
            fromTheLeft({0, label}, side_width, d_.height - label - f_.px(30), side_scale);
            fromAbove({d_.width * 0.62, label}, d_.width * 0.38, d_.height - label, plan_scale);
        } else {
            const double room = d_.height - 2 * label - f_.px(40);
            const double scale = std::min(d_.width / length, room / (depth + tall));
            fromTheLeft({0, label}, d_.width, tall * scale, scale);
            fromAbove({0, 2 * label + tall * scale + f_.px(40)}, d_.width, depth * scale, scale);
        }
        return std::move(d_);
    }

private:
    void reach(const Vec3& p) {
        x_ = {std::min(x_.first, p.x_mm), std::max(x_.second, p.x_mm)};
        y_ = {std::min(y_.first, p.y_mm), std::max(y_.second, p.y_mm)};
        z_ = {std::min(z_.first, p.z_mm), std::max(z_.second, p.z_mm)};
    }
    void wheelReach(const Vec3& hub, double radius) {
        const double r = radius > 0 ? radius : 300;
        reach({hub.x_mm - r, hub.y_mm, hub.z_mm - r});
        reach({hub.x_mm + r, hub.y_mm, hub.z_mm + r});
    }
    double label() const { return f_.body() * 1.6; }
    bool isSelected(const std::string& tag) const { return !tag.empty() && tag == v_.selected; }
    static Vec3 mean(const std::vector<Vec3>& points) {
        Vec3 m;
        for (const Vec3& p : points) m = {m.x_mm + p.x_mm, m.y_mm + p.y_mm, m.z_mm + p.z_mm};
        const auto n = static_cast<double>(points.size());
        return {m.x_mm / n, m.y_mm / n, m.z_mm / n};
    }
    double groundAt(double x) const { return v_.ground ? v_.ground->height_mm + v_.ground->along * x : z_.first; }
    Projection projection(P at, double width, double height, double scale, bool side) const {
        Projection p;
        p.scale = scale;
        p.up = true;
        const double low = side ? (v_.ground ? std::min(groundAt(x_.first), groundAt(x_.second)) : z_.first) : y_.first;
        const double high = side ? z_.second : y_.second;
        p.origin = {at.x + width / 2 - scale * (x_.first + x_.second) / 2,
                    at.y + height / 2 + scale * (low + high) / 2 - (side ? f_.px(14) : 0)};
        return p;
    }

    void fromTheLeft(P at, double width, double height, double scale) {
        d_.add(Text{{0, f_.body()}, "from the left", f_.body(), Ink::Second});
        const Projection to = projection(at, width, height, scale, true);
        if (v_.ground) {
            d_.add(Stroke{{to(x_.first - 120, groundAt(x_.first - 120)), to(x_.second + 120, groundAt(x_.second + 120))},
                          false,
                          {Ink::Second, f_.medium(), Dash::Solid}});
            d_.add(Text{{to(x_.second + 120, 0).x, to(0, groundAt(x_.second)).y + f_.px(16)},
                        "ground",
                        f_.small(),
                        Ink::Second,
                        Anchor::Right});
        }
        const auto wheels = [&](const std::vector<Vec3>& hubs, double radius) {
            if (hubs.empty()) return;
            const Vec3 hub = mean(hubs);
            const P c = to(hub.x_mm, hub.z_mm);
            if (radius > 0) d_.add(Circle{c, radius * scale, {Ink::Chassis, f_.medium(), Dash::Solid}});
            d_.add(Circle{c, f_.px(5), {Ink::Chassis, f_.medium(), Dash::Solid}, false, true});
        };
        wheels(v_.front_hubs, v_.front_radius_mm);
        wheels(v_.rear_hubs, v_.rear_radius_mm);
        if (v_.rail_left.size() > 1) {
            std::vector<P> band;
            for (const Vec3& p : v_.rail_left) band.push_back(to(p.x_mm, p.z_mm));
            for (auto p = v_.rail_left.rbegin(); p != v_.rail_left.rend(); ++p)
                band.push_back(to(p->x_mm, p->z_mm - v_.rail_height_mm));
            d_.add(Stroke{band, true, {Ink::Chassis, f_.thick(), Dash::Solid}});
        }
        boxes(to, true);
        bodyLines(to, true);
        bodyMarks(to, true);
        for (const DrawnPin& pin : v_.pins) drawSidePin(pin, to);
        if (!v_.wheelbase_text.empty() && !v_.front_hubs.empty() && !v_.rear_hubs.empty()) {
            const Vec3 a = mean(v_.front_hubs);
            const Vec3 b = mean(v_.rear_hubs);
            const double low = std::max(to(0, groundAt(a.x_mm)).y, to(0, groundAt(b.x_mm)).y) + f_.px(22);
            d_.add(
                Dimension{
                    {to(a.x_mm, 0).x, low}, {to(b.x_mm, 0).x, low}, 0, v_.wheelbase_text, f_.body(), Ink::Chassis, Mark::Derived},
                "wheelbase");
        }
    }

    /// The body's silhouette (double along its edge) and sill, as far as there are points for them.
    void bodyLines(const Projection& to, bool side) {
        const auto line = [&](std::initializer_list<build::Role> roles, bool left_only) {
            std::vector<Vec3> points;
            for (const BodyMark& m : v_.body)
                if (std::find(roles.begin(), roles.end(), m.role) != roles.end() &&
                    (!left_only || build::sideOf(m.name) != build::Side::Right))
                    points.push_back(m.at);
            std::sort(points.begin(), points.end(), [](const Vec3& a, const Vec3& b) { return a.x_mm < b.x_mm; });
            return points;
        };
        const auto stroke = [&](const std::vector<Vec3>& points, double shift, double weight) {
            if (points.size() < 2) return;
            Stroke s;
            s.pen = {Ink::Body, weight, Dash::Solid};
            for (const Vec3& p : points) {
                const P q = side ? to(p.x_mm, p.z_mm) : to(p.x_mm, p.y_mm);
                s.path.push_back({q.x, q.y + shift});
            }
            d_.add(std::move(s));
        };
        if (side) {
            const auto outline = line({build::Role::Outline}, false);
            stroke(outline, 0, f_.thin() * 1.5);
            stroke(outline, f_.px(4), f_.thin());
            const auto sill = line({build::Role::SillFront, build::Role::SillRear}, true);
            stroke(sill, 0, f_.thin() * 1.5);
            stroke(sill, f_.px(4), f_.thin());
        } else {
            for (const build::Side s : {build::Side::Left, build::Side::Right}) {
                std::vector<Vec3> points;
                for (const BodyMark& m : v_.body)
                    if (build::sideOf(m.name) == s &&
                        (m.role == build::Role::HingePillar || m.role == build::Role::SillFront ||
                         m.role == build::Role::SillRear || m.role == build::Role::ArchFront || m.role == build::Role::ArchRear))
                        points.push_back(m.at);
                std::sort(points.begin(), points.end(), [](const Vec3& a, const Vec3& b) { return a.x_mm < b.x_mm; });
                stroke(points, 0, f_.thin() * 1.5);
                stroke(points, s == build::Side::Left ? -f_.px(4) : f_.px(4), f_.thin());
            }
        }
    }

    void bodyMarks(const Projection& to, bool side) {
        for (const BodyMark& m : v_.body) {
            if (side && build::sideOf(m.name) == build::Side::Right) continue; // hidden behind the left side
            const P at = side ? to(m.at.x_mm, m.at.z_mm) : to(m.at.x_mm, m.at.y_mm);
            const double r = m.role == build::Role::BodyMount ? f_.px(5) : f_.px(3);
            if (m.role == build::Role::BodyMount)
                d_.add(Stroke{{{at.x - r, at.y - r}, {at.x + r, at.y - r}, {at.x + r, at.y + r}, {at.x - r, at.y + r}},
                              true,
                              {Ink::Body, f_.thin() * 1.4, Dash::Solid}});
            else
                d_.add(Circle{at, r, {Ink::Body, f_.thin() * 1.4, Dash::Solid}, false, true});
            if (m.role != build::Role::Outline && m.role != build::Role::None && side)
                d_.add(Text{{at.x + f_.px(5), at.y - f_.px(6)}, m.name, f_.small(), Ink::Body});
        }
    }

    /// By how much a centring misses: a derived figure beside its mark.
    void missLabel(P at, const DrawnPin& pin, Ink ink) {
        d_.add(Text{at, pin.text, f_.small(), ink, Anchor::Left, Level::Base, Face::Sans, Mark::Derived, 0, true}, pin.tag);
    }

    void drawSidePin(const DrawnPin& pin, const Projection& to) {
        if (pin.at.empty()) return;
        const Ink ink = isSelected(pin.tag) ? Ink::Ink : inkOf(pin.severity);
        const Vec3 at = mean(pin.at);
        const P p = to(at.x_mm, at.z_mm);
        switch (pin.kind) {
        case PinKind::Station: {
            // from station 0, which need not be the axle: a dimension is as long as it says
            const double x0 = to(0, 0).x;
            const double y = to(0, z_.second).y - f_.px(4);
            if (!v_.zero.empty()) {
                d_.add(Stroke{{{x0, y - f_.px(8)}, {x0, to(0, z_.first).y}}, false, {Ink::Chassis, f_.thin(), Dash::DashDot}});
                d_.add(Text{{x0 + f_.px(4), y - f_.px(10)}, "0: " + v_.zero, f_.small(), Ink::Chassis});
            }
            d_.add(Stroke{{p, {p.x, y - f_.px(4)}}, false, {ink, f_.thin(), Dash::Dotted}}, pin.tag);
            d_.add(Dimension{{x0, y}, {p.x, y}, 0, pin.text, f_.body(), ink, pin.mark}, pin.tag);
            addMark(d_, p, f_.px(12), pin.severity, pin.tag);
            break;
        }
        case PinKind::Height: {
            const P foot = to(at.x_mm, groundAt(at.x_mm));
            // stands aside, so that names stay readable, and on the sheet
            const bool front = at.x_mm < (x_.first + x_.second) / 2 && p.x > f_.px(60);
            d_.add(Dimension{foot, p, front ? f_.px(20) : -f_.px(20), pin.text, f_.body(), ink, pin.mark}, pin.tag);
            addMark(d_, p, f_.px(12), pin.severity, pin.tag);
            break;
        }
        case PinKind::Level:
        case PinKind::Rake: {
            d_.add(Text{{p.x, p.y + f_.px(20)}, pin.text, f_.body(), ink, Anchor::Centre, Level::Base, Face::Sans, pin.mark},
                   pin.tag);
            addMark(d_, {p.x - f_.px(60), p.y + f_.px(15)}, f_.px(12), pin.severity, pin.tag);
            break;
        }
        case PinKind::ArchFront:
        case PinKind::ArchRear: {
            const auto& hubs = pin.kind == PinKind::ArchFront ? v_.front_hubs : v_.rear_hubs;
            if (hubs.empty()) return;
            const P hub = to(mean(hubs).x_mm, mean(hubs).z_mm);
            d_.add(Stroke{{p, {p.x, hub.y + f_.px(14)}}, false, {ink, f_.medium(), Dash::Dashed}}, pin.tag);
            addMark(d_, {hub.x, hub.y + f_.px(20)}, f_.px(12), pin.severity, pin.tag);
            missLabel({hub.x + f_.px(12), hub.y + f_.px(25)}, pin, ink);
            break;
        }
        case PinKind::Centred: break; // seen from above
        default: drawBetween(pin, to, ink, p); break;
        }
    }

    /// A dimension between two features, or the gap at one.
    void drawBetween(const DrawnPin& pin, const Projection& to, Ink ink, P p) {
        if (!pin.to.empty()) {
            const Vec3 far = mean(pin.to);
            const P q = to(far.x_mm, far.z_mm);
            d_.add(Circle{q, f_.px(3), {ink, f_.thin() * 1.4, Dash::Solid}, false, true}, pin.tag);
            // measured along one axis: the rest of the way is a thin line
            const P foot = pin.kind == PinKind::Along                              ? P{q.x, p.y}
                           : pin.kind == PinKind::Up || pin.kind == PinKind::Under ? P{p.x, q.y}
                                                                                   : q;
            if (std::hypot(foot.x - q.x, foot.y - q.y) > 1)
                d_.add(Stroke{{foot, q}, false, {ink, f_.thin(), Dash::Dotted}}, pin.tag);
            if (pin.kind != PinKind::Across && std::hypot(foot.x - p.x, foot.y - p.y) > f_.px(14)) {
                d_.add(Dimension{p, foot, 0, pin.text, f_.body(), ink, pin.mark}, pin.tag);
                addMark(d_, {p.x - f_.px(10), p.y - f_.px(10)}, f_.px(12), pin.severity, pin.tag);
                return;
            }
        }
        addMark(d_, {p.x - f_.px(10), p.y + f_.px(12)}, f_.px(12), pin.severity, pin.tag);
        missLabel({p.x, p.y + f_.px(17)}, pin, ink);
    }

    void boxes(const Projection& to, bool side) {
        for (const auto& b : v_.boxes) {
            const P a = side ? to(b.box.min.x_mm, b.box.min.z_mm) : to(b.box.min.x_mm, b.box.min.y_mm);
            const P c = side ? to(b.box.max.x_mm, b.box.max.z_mm) : to(b.box.max.x_mm, b.box.max.y_mm);
            const Ink ink = b.chassis ? Ink::Chassis : Ink::Body;
            d_.add(Stroke{{a, {c.x, a.y}, c, {a.x, c.y}}, true, {ink, f_.thin(), Dash::Dashed}});
            d_.add(Text{{std::min(a.x, c.x) + f_.px(3), std::min(a.y, c.y) + f_.small()}, b.name, f_.small(), ink});
        }
    }

    void fromAbove(P at, double width, double height, double scale) {
        d_.add(Text{{at.x, at.y - label() + f_.body()}, "from above", f_.body(), Ink::Second});
        const Projection to = projection(at, width, height, scale, false);
        d_.add(Stroke{{to(x_.first - 100, 0), to(x_.second + 100, 0)}, false, {Ink::Second, f_.thin(), Dash::DashDot}});
        for (const auto* rail : {&v_.rail_left, &v_.rail_right}) {
            if (rail->size() < 2) continue;
            std::vector<P> band;
            for (const Vec3& p : *rail) band.push_back(to(p.x_mm, p.y_mm - v_.rail_width_mm / 2));
            for (auto p = rail->rbegin(); p != rail->rend(); ++p) band.push_back(to(p->x_mm, p->y_mm + v_.rail_width_mm / 2));
            d_.add(Stroke{band, true, {Ink::Chassis, f_.medium(), Dash::Solid}});
        }
        for (const auto* hubs : {&v_.front_hubs, &v_.rear_hubs}) {
            const double radius = hubs == &v_.front_hubs ? v_.front_radius_mm : v_.rear_radius_mm;
            if (hubs->size() == 2)
                d_.add(Stroke{{to((*hubs)[0].x_mm, (*hubs)[0].y_mm), to((*hubs)[1].x_mm, (*hubs)[1].y_mm)},
                              false,
                              {Ink::Chassis, f_.thin(), Dash::DashDot}});
            for (const Vec3& hub : *hubs) {
                if (radius <= 0) continue;
                const P a = to(hub.x_mm - radius, hub.y_mm - 80);
                const P b = to(hub.x_mm + radius, hub.y_mm + 80);
                d_.add(Stroke{{a, {b.x, a.y}, b, {a.x, b.y}}, true, {Ink::Chassis, f_.thin() * 1.5, Dash::Solid}});
            }
        }
        boxes(to, false);
        bodyLines(to, false);
        bodyMarks(to, false);
        for (const DrawnPin& pin : v_.pins) {
            if (pin.kind != PinKind::Centred || pin.at.size() != 2) continue;
            const Ink ink = isSelected(pin.tag) ? Ink::Ink : inkOf(pin.severity);
            const P a = to(pin.at[0].x_mm, pin.at[0].y_mm);
            const P b = to(pin.at[1].x_mm, pin.at[1].y_mm);
            d_.add(Stroke{{a, b}, false, {ink, f_.thin(), Dash::Dashed}}, pin.tag);
            const P c = to((pin.at[0].x_mm + pin.at[1].x_mm) / 2, 0);
            addMark(d_, c, f_.px(12), pin.severity, pin.tag);
            missLabel({c.x + f_.px(12), c.y - f_.px(6)}, pin, ink);
        }
    }

    const SitView& v_;
    Format f_;
    Drawing d_;
    std::pair<double, double> x_{1e12, -1e12};
    std::pair<double, double> y_{1e12, -1e12};
    std::pair<double, double> z_{1e12, -1e12};
};

} // namespace

Drawing sitSheet(const SitView& view, double width, double height, const Format& f) {
    return Drafter(view, width, height, f).draw();
}

} // namespace gorvet::sit
