#include "sheet/drawing.hpp"

#include "sheet/settle.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gorvet::sheet {

namespace {

template <class... Fs> struct Overload : Fs... { using Fs::operator()...; };
template <class... Fs> Overload(Fs...) -> Overload<Fs...>; // clang 14 does not deduce aggregates

P operator+(P a, P b) { return {a.x + b.x, a.y + b.y}; }

struct Mover {
    P by;
    void operator()(Stroke& s) const {
        for (P& p : s.path) p = p + by;
    }
    void operator()(Circle& c) const { c.centre = c.centre + by; }
    void operator()(Fill& f) const {
        for (P& p : f.polygon) p = p + by;
    }
    void operator()(Hatch& h) const {
        for (P& p : h.polygon) p = p + by;
    }
    void operator()(Text& t) const { t.at = t.at + by; }
    void operator()(Picture& p) const { p.at = p.at + by; }
    void operator()(Dimension& d) const {
        d.a = d.a + by;
        d.b = d.b + by;
    }
};

/// Parallel lines at 45° (or −45°) inside a polygon, by even-odd crossings.
void hatchLines(const Hatch& h, double direction, std::vector<Item>& out, const std::string& tag) {
    if (h.polygon.size() < 3 || !(h.pitch > 0)) return;
    const double c = std::cos(direction);
    const double s = std::sin(direction);
    double low = std::numeric_limits<double>::infinity();
    double high = -low;
    for (const P& p : h.polygon) {
        const double across = -s * p.x + c * p.y;
        low = std::min(low, across);
        high = std::max(high, across);
    }
    if ((high - low) / h.pitch > 2000) return;
    for (double at = (std::floor(low / h.pitch) + 0.5) * h.pitch; at < high; at += h.pitch) {
        std::vector<double> crossings;
        for (size_t i = 0; i < h.polygon.size(); ++i) {
            const P& a = h.polygon[i];
            const P& b = h.polygon[(i + 1) % h.polygon.size()];
            const double da = -s * a.x + c * a.y - at;
            const double db = -s * b.x + c * b.y - at;
            if ((da < 0) == (db < 0)) continue;
            const double t = da / (da - db);
            crossings.push_back(c * (a.x + t * (b.x - a.x)) + s * (a.y + t * (b.y - a.y)));
        }
        std::sort(crossings.begin(), crossings.end());
        for (size_t i = 0; i + 1 < crossings.size(); i += 2) {
            const auto point = [&](double along) { return P{c * along - s * at, s * along + c * at}; };
            out.push_back({Stroke{{point(crossings[i]), point(crossings[i + 1])}, false, h.pen}, tag});
        }
    }
}

void dimensionLines(const Dimension& d, std::vector<Item>& out, const std::string& tag) {
    const double length = std::hypot(d.b.x - d.a.x, d.b.y - d.a.y);
    if (length <= 0) return;
    const P along{(d.b.x - d.a.x) / length, (d.b.y - d.a.y) / length};
    const P left{along.y, -along.x}; // y runs down the page
    const double thin = d.size / 15;
    const auto shifted = [&](P p, double away) { return P{p.x + left.x * away, p.y + left.y * away}; };
    const double sign = d.offset < 0 ? -1 : 1;
    const P a = shifted(d.a, d.offset);
    const P b = shifted(d.b, d.offset);
    const Pen pen{d.ink, thin, Dash::Solid};
    if (std::abs(d.offset) > 4 * thin) {
        out.push_back({Stroke{{shifted(d.a, sign * 3 * thin), shifted(d.a, d.offset + sign * 4 * thin)}, false, pen}, tag});
        out.push_back({Stroke{{shifted(d.b, sign * 3 * thin), shifted(d.b, d.offset + sign * 4 * thin)}, false, pen}, tag});
    }
    const double text_width = textWidth(d.text, d.size, Face::Sans);
    // along an upright line the text stays level, as people read it on a wall
    const bool upright = std::abs(along.y) > 0.8;
    const double needed = upright ? d.size * 1.9 : text_width + 8 * thin;
    const bool outside = length < needed;
    const double reach = outside ? d.size * 0.7 : 0; // the line runs past the marks when the text stands outside
    out.push_back(
        {Stroke{{{a.x - along.x * reach, a.y - along.y * reach}, {b.x + along.x * reach, b.y + along.y * reach}}, false, pen},
         tag});
    // scribed ticks where the dimension ends
    for (const P& end : {a, b}) {
        const double t = 4.5 * thin;
        out.push_back({Stroke{{{end.x - (along.x + left.x) * t, end.y - (along.y + left.y) * t},
                               {end.x + (along.x + left.x) * t, end.y + (along.y + left.y) * t}},
                              false,
                              {d.ink, 1.6 * thin, Dash::Solid}},
                       tag});
    }
    constexpr double degrees = 180 / 3.14159265358979323846;
    double turn = upright ? 0 : std::atan2(-along.y, along.x) * degrees;
    const bool flipped = turn > 90.5 || turn <= -89.5;
    if (flipped) turn += turn > 0 ? -180 : 180;
    Text text;
    text.text = d.text;
    text.size = d.size;
    text.ink = d.ink;
    text.mark = d.mark;
    text.turn_deg = turn;
    text.level = Level::Middle;
    text.backed = true;
    text.anchor = Anchor::Centre;
    text.at = {(a.x + b.x) / 2, (a.y + b.y) / 2};
    if (outside && upright) {
        const bool to_the_left = left.x * d.offset < 0; // away from what is measured
        text.anchor = to_the_left ? Anchor::Right : Anchor::Left;
        text.at.x += (to_the_left ? -6 : 6) * thin;
    } else if (outside) {
        text.at = {b.x + along.x * (reach + 3 * thin), b.y + along.y * (reach + 3 * thin)};
        text.anchor = flipped ? Anchor::Right : Anchor::Left;
    }
    out.push_back({std::move(text), tag});
}

} // namespace

void Drawing::place(const Drawing& other, P at) {
    for (Item item : other.items) {
        std::visit(Mover{at}, item.shape);
        items.push_back(std::move(item));
    }
    for (Grip grip : other.grips) {
        grip.at = {grip.at.x + at.x, grip.at.y + at.y};
        grips.push_back(std::move(grip));
    }
}

Ink inkOf(Severity s) { return s == Severity::Good ? Ink::Good : s == Severity::Warn ? Ink::Warn : Ink::Bad; }

void addMark(Drawing& drawing, P c, double size, Severity severity, const std::string& tag) {
    const Ink ink = inkOf(severity);
    const double r = size / 2;
    if (severity != Severity::Bad)
        drawing.add(Circle{c, severity == Severity::Good ? r * 0.5 : r * 0.42, {ink, size / 14, Dash::Solid}, true}, tag);
    if (severity == Severity::Warn)
        drawing.add(Stroke{{{c.x - r, c.y + r * 0.55}, {c.x + r, c.y - r * 0.55}}, false, {ink, size / 8, Dash::Solid}}, tag);
    if (severity == Severity::Bad) {
        drawing.add(Stroke{{{c.x - r, c.y - r}, {c.x + r, c.y + r}}, false, {ink, size / 7, Dash::Solid}}, tag);
        drawing.add(Stroke{{{c.x - r, c.y + r}, {c.x + r, c.y - r}}, false, {ink, size / 7, Dash::Solid}}, tag);
    }
}

std::vector<Item> flatten(const Drawing& drawing) {
    std::vector<Item> out;
    out.reserve(drawing.items.size());
    for (const Item& item : drawing.items) {
        if (const auto* dimension = std::get_if<Dimension>(&item.shape)) {
            dimensionLines(*dimension, out, item.tag);
        } else if (const auto* hatch = std::get_if<Hatch>(&item.shape)) {
            constexpr double eighth = 3.14159265358979323846 / 4;
            hatchLines(*hatch, -eighth, out, item.tag);
            if (hatch->crossed) hatchLines(*hatch, eighth, out, item.tag);
        } else {
            out.push_back(item);
        }
    }
    settleTexts(out, drawing.width, drawing.height);
    return out;
}

Extent extent(const std::vector<Item>& items) {
    bool any = false;
    Extent e;
    const auto reach = [&](double x, double y) {
        if (!any) e = {x, y, x, y};
        any = true;
        e.left = std::min(e.left, x);
        e.right = std::max(e.right, x);
        e.top = std::min(e.top, y);
        e.bottom = std::max(e.bottom, y);
    };
    for (const Item& item : items)
        std::visit(Overload{[&](const Stroke& s) {
                                for (const P& p : s.path) reach(p.x, p.y);
                            },
                            [&](const Circle& c) {
                                reach(c.centre.x - c.radius, c.centre.y - c.radius);
                                reach(c.centre.x + c.radius, c.centre.y + c.radius);
                            },
                            [&](const Fill& f) {
                                for (const P& p : f.polygon) reach(p.x, p.y);
                            },
                            [&](const Hatch& h) {
                                for (const P& p : h.polygon) reach(p.x, p.y);
                            },
                            [&](const Text& t) {
                                const double w = textWidth(t.text, t.size, t.face);
                                const double left = t.anchor == Anchor::Left ? 0 : t.anchor == Anchor::Centre ? -w / 2 : -w;
                                reach(t.at.x + left, t.at.y - t.size);
                                reach(t.at.x + left + w, t.at.y + t.size * 0.3);
                            },
                            [&](const Picture& p) {
                                reach(p.at.x, p.at.y);
                                reach(p.at.x + p.width, p.at.y + p.height);
                            },
                            [&](const Dimension& d) {
                                reach(d.a.x, d.a.y);
                                reach(d.b.x, d.b.y);
                            }},
                   item.shape);
    return e;
}

Projection fit(double a_min, double a_max, double b_min, double b_max, P top_left, double width, double height, bool up) {
    const double a = std::max(a_max - a_min, 1e-6);
    const double b = std::max(b_max - b_min, 1e-6);
    Projection p;
    p.up = up;
    p.scale = std::max(1e-9, std::min(width / a, height / b));
    const double mid_a = (a_min + a_max) / 2;
    const double mid_b = (b_min + b_max) / 2;
    p.origin = {top_left.x + width / 2 - p.scale * mid_a, top_left.y + height / 2 + (up ? p.scale : -p.scale) * mid_b};
    return p;
}

} // namespace gorvet::sheet
