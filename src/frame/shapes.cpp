// Sections in the shapes that steel is bought, bent and welded to.
#include "frame/section.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

using std::numbers::pi;
constexpr int chords = 128; ///< of a quarter of a circle: its moments are right to 0.005 %

/// Goes along a middle line.
class MiddleLine {
public:
    MiddleLine(Walls& w, At from, double t) : w_(w), at_(from), t_(t) {}
    MiddleLine& to(At p) {
        if (std::hypot(p.y_mm - at_.y_mm, p.z_mm - at_.z_mm) > 1e-3) w_.add(at_, p, t_);
        at_ = p;
        return *this;
    }
    /// Round a centre from one angle to another.
    MiddleLine& arc(At centre, double radius, double from, double until) {
        if (radius <= 0) return to(centre);
        for (int k = 0; k <= chords; ++k) {
            const double a = from + (until - from) * k / chords;
            to({centre.y_mm + radius * std::cos(a), centre.z_mm + radius * std::sin(a)});
        }
        return *this;
    }

private:
    Walls& w_;
    At at_;
    double t_;
};

double middleRadius(double outside, double wall, double height, double width) {
    return std::clamp(outside - wall / 2, 0.0, std::min(height, width) / 2);
}

} // namespace

Walls box(double height, double width, double t, double radius) {
    Walls w;
    const double h = (height - t) / 2, b = (width - t) / 2, r = middleRadius(radius, t, 2 * h, 2 * b);
    MiddleLine(w, {-b, h - r}, t)
        .to({-b, -h + r})
        .arc({-b + r, -h + r}, r, pi, 1.5 * pi)
        .to({b - r, -h})
        .arc({b - r, -h + r}, r, -pi / 2, 0)
        .to({b, h - r})
        .arc({b - r, h - r}, r, 0, pi / 2)
        .to({-b + r, h})
        .arc({-b + r, h - r}, r, pi / 2, pi);
    return w;
}

Walls channel(double height, double width, double t, double radius) {
    Walls w;
    const double h = (height - t) / 2, web = -width / 2 + t / 2, tip = width / 2;
    const double r = middleRadius(radius, t, 2 * h, width);
    MiddleLine(w, {tip, -h}, t)
        .to({web + r, -h})
        .arc({web + r, -h + r}, r, -pi / 2, -pi)
        .to({web, h - r})
        .arc({web + r, h - r}, r, pi, pi / 2)
        .to({tip, h});
    return w;
}

Walls hat(double height, double width, double flange, double t) {
    Walls w;
    const double b = (width - t) / 2, h = height - t;
    MiddleLine(w, {-b - flange + t / 2, 0}, t).to({-b, 0}).to({-b, h}).to({b, h}).to({b, 0}).to({b + flange - t / 2, 0});
    return w;
}

Walls tube(double diameter, double t) {
    Walls w;
    const double r = (diameter - t) / 2;
    MiddleLine line(w, {r, 0}, t);
    for (int k = 1; k <= 4 * chords; ++k) line.to({r * std::cos(pi / 2 * k / chords), r * std::sin(pi / 2 * k / chords)});
    return w;
}

Walls angle(double height, double width, double t) {
    Walls w;
    MiddleLine(w, {t / 2, height}, t).to({t / 2, t / 2}).to({width, t / 2});
    return w;
}

Walls flat(double width, double thickness) {
    Walls w;
    w.add({-width / 2, 0}, {width / 2, 0}, thickness);
    return w;
}

Walls nested(double height, double width, double t, double overlap) {
    // the flanges lie on each other over `overlap` in the middle; single beside it, down to the webs
    Walls w;
    const double h = (height - 2 * t) / 2, b = (width - t) / 2, o = std::clamp(overlap / 2, 0.0, b);
    for (const double z : {-h, h}) {
        if (o < b) w.add({-b, z}, {-o, z}, t);
        w.add({-o, z}, {o, z}, 2 * t);
        if (o < b) w.add({o, z}, {b, z}, t);
    }
    w.add({-b, -h}, {-b, h}, t);
    w.add({b, -h}, {b, h}, t);
    return w;
}

Walls boxed(double height, double width, double t, double plate, double radius) {
    Walls w = channel(height, width, t, radius);
    const double h = (height - t) / 2, tip = width / 2;
    w.add({tip, -h}, {tip, h}, plate);
    return w;
}

double windowedShear_mm(double height, double plate, const Windows& w, double e_over_g) {
    const double strip = (height - w.high_mm) / 2, post = w.pitch_mm - w.long_mm;
    if (w.long_mm <= 0 || w.high_mm <= 0) return plate;
    constexpr double into_the_joint = 0.25, over_mean = 1.2; // of the shear in a rectangle over its mean
    const double along = w.long_mm + into_the_joint * strip, up = w.high_mm + into_the_joint * post;
    // what a flow of 1 N/mm moves over one pitch, times E t
    const double strips =
        height * std::pow(along, 3) / (2 * std::pow(strip, 3)) + height * over_mean * w.long_mm * e_over_g / (2 * strip);
    const double posts = w.pitch_mm * (w.pitch_mm * std::pow(up, 3) / (std::pow(post, 3) * height) +
                                       over_mean * w.pitch_mm * w.high_mm * e_over_g / (post * height));
    const double joints = w.pitch_mm * 2 * strip / height * e_over_g;
    return std::min(plate, plate * w.pitch_mm * e_over_g / (strips + posts + joints));
}

double windowedBends_per_mm(double height, double plate, const Windows& w) {
    const double strip = (height - w.high_mm) / 2, post = w.pitch_mm - w.long_mm;
    if (w.long_mm <= 0 || w.high_mm <= 0) return 0;
    return std::max(1.5 * height * w.long_mm / (plate * strip * strip), 3 * w.pitch_mm * w.high_mm / (plate * post * post));
}

Walls windowed(double height, double width, double t, double plate, const Windows& win, double radius) {
    Walls w = channel(height, width, t, radius);
    const double h = (height - t) / 2, tip = width / 2, up = win.high_mm / 2, strip = h - up;
    w.add({tip, -h}, {tip, -up}, plate);
    w.add({tip, up}, {tip, h}, plate);
    // the strips shear as a whole plate; the middle as whatever is left of what all of it gives
    const double all = 2 * h / windowedShear_mm(2 * h, plate, win), middle = std::max(all - 2 * strip / plate, 1e-6);
    w.walls.push_back({w.place({tip, -up}), w.place({tip, up}), 0, 2 * up / middle, windowedBends_per_mm(2 * h, plate, win)});
    return w;
}

const std::vector<std::pair<std::string, std::string>>& shapes() {
    static const std::vector<std::pair<std::string, std::string>> list{
        {"box", "height, width, wall, outside radius or none"},
        {"channel", "height, width, wall, outside radius or none"},
        {"hat", "height, width, flange, wall"},
        {"tube", "diameter, wall"},
        {"angle", "height, width, wall"},
        {"flat", "width, thickness"},
        {"nested", "height, width, wall, overlap of the flanges"},
        {"boxed", "height, width, wall, plate, outside radius or none"},
        {"windowed", "height, width, wall, plate, windows' length, their height, their pitch, outside radius or none"}};
    return list;
}

namespace {

std::string allShapes() {
    std::string all;
    for (const auto& [name, figures] : shapes()) all += (all.empty() ? "" : "; ") + name + ": " + figures;
    return all;
}

Result<Walls> shaped(const std::string& shape, const std::vector<double>& v) {
    const auto known = std::find_if(shapes().begin(), shapes().end(), [&](const auto& s) { return s.first == shape; });
    if (known == shapes().end()) return badInput(shape, fmt::format("There is no shape {}.", shape), allShapes());
    const bool radius = shape == "box" || shape == "channel" || shape == "boxed" || shape == "windowed";
    const auto figures = static_cast<std::size_t>(std::count(known->second.begin(), known->second.end(), ',')) + 1;
    if (v.size() != figures && !(radius && v.size() + 1 == figures))
        return badInput(shape, fmt::format("A {} has {}.", shape, known->second),
                        fmt::format("Like: {} {}", shape,
                                    shape == "windowed" ? "100 50 4 3 60 50 100"
                                    : radius            ? "100 60 4"
                                                        : "80 60 20 2"));
    const double r = radius && v.size() == figures ? v.back() : 0;
    const double wall = shape == "flat" ? v[1] : shape == "tube" ? v[1] : shape == "hat" ? v[3] : v[2];
    const bool hollow = shape == "box" || shape == "tube" || shape == "nested";
    const double least = shape == "flat" ? 1e9 : shape == "tube" ? v[0] : std::min(v[0], v[1]);
    if (!(wall > 0) || !(v[0] > 0)) return badInput(shape, "A size is 0.", fmt::format("A {} has {}.", shape, known->second));
    if (wall * (hollow ? 2 : 1) >= least)
        return badInput(shape, fmt::format("A wall of {:g} mm does not fit into {:g}.", wall, least),
                        "The outside comes first, the wall after it.");
    if (shape == "box") return box(v[0], v[1], v[2], r);
    if (shape == "channel") return channel(v[0], v[1], v[2], r);
    if (shape == "hat") return hat(v[0], v[1], v[2], v[3]);
    if (shape == "tube") return tube(v[0], v[1]);
    if (shape == "angle") return angle(v[0], v[1], v[2]);
    if (shape == "flat") return flat(v[0], v[1]);
    if (shape == "nested") return nested(v[0], v[1], v[2], v[3]);
    if (!(v[3] > 0)) return badInput(shape, "The plate has no thickness.", "Like: boxed 100 50 4 3.");
    if (shape == "boxed") return boxed(v[0], v[1], v[2], v[3], r);
    const Windows windows{v[4], v[5], v[6]};
    if (!(windows.long_mm > 0) || !(windows.high_mm > 0) || !(windows.high_mm < v[0] - v[2]) ||
        !(windows.long_mm < windows.pitch_mm))
        return badInput(shape, "The windows leave no strip above and below, or no post between them.",
                        "Like: windowed 100 50 4 3 60 50 100.");
    return windowed(v[0], v[1], v[2], v[3], windows, r);
}

} // namespace

Result<Walls> wallsOf(const Profile& p) {
    Walls w = p.walls;
    if (!p.shape.empty()) {
        auto made = shaped(p.shape, p.sizes);
        if (!made) return made.error();
        w = std::move(*made);
    }
    const double c = std::cos(p.turned_rad), s = std::sin(p.turned_rad);
    for (At& at : w.at) {
        if (p.mirrored) at.y_mm = -at.y_mm;
        at = {c * at.y_mm - s * at.z_mm, s * at.y_mm + c * at.z_mm};
    }
    return w;
}

Result<Walls> wallsFrom(const std::vector<std::string>& words) {
    if (words.empty()) return badInput("section", "What shape it is is missing.", allShapes());
    const std::string& shape = words.front();
    const auto known = std::find_if(shapes().begin(), shapes().end(), [&](const auto& s) { return s.first == shape; });
    if (known == shapes().end()) return badInput(shape, fmt::format("There is no shape {}.", shape), allShapes());
    std::vector<double> v;
    for (std::size_t k = 1; k < words.size(); ++k) {
        double value = 0;
        const std::string& text = words[k];
        const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
        if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value) || value < 0 || value > 5000)
            return badInput(text, fmt::format("\"{}\" is no size in mm.", text),
                            fmt::format("A {} has {}.", shape, known->second));
        v.push_back(value);
    }
    return shaped(shape, v);
}

} // namespace gorvet::frame
