#include "analysis/frame_profiles.hpp"

#include <algorithm>

namespace gorvet::analysis {

using namespace build;

frame::Profile profileOf(const Member& m) {
    frame::Profile p;
    p.turned_rad = m.turned_rad;
    if (m.form == SectionForm::BuiltUp) {
        for (std::size_t k = 0; k + 4 < m.walls_mm.size(); k += 5)
            p.walls.add({m.walls_mm[k], m.walls_mm[k + 1]}, {m.walls_mm[k + 2], m.walls_mm[k + 3]}, m.walls_mm[k + 4]);
        return p;
    }
    p.shape = word(m.form);
    const double h = m.height.value, w = m.width.value, t = m.wall.value, o = m.other ? m.other->value : 0;
    const double radius = m.radius ? m.radius->value : 2 * t;
    switch (m.form) {
    case SectionForm::Tube:
    case SectionForm::Flat: p.sizes = {h, t}; break;
    case SectionForm::Hat: p.sizes = {h, w, o, t}; break;
    case SectionForm::Nested: p.sizes = {h, w, t, o}; break;
    case SectionForm::Boxed: p.sizes = {h, w, t, o, radius}; break;
    case SectionForm::Angle: p.sizes = {h, w, t}; break;
    default: p.sizes = {h, w, t, radius}; break;
    }
    return p;
}

frame::Profile railProfile(const RailSection& r, double wall) {
    return {r.shape == RailShape::Channel ? "channel" : "box",
            {r.height.value, r.width.value, wall, 2 * r.thickness.value},
            {},
            false,
            0};
}

frame::Profile platedProfile(const RailSection& r, const Member& m) {
    const double plate = m.wall.value;
    if (r.shape == RailShape::Channel && m.window_long)
        return {"windowed",
                {r.height.value, r.width.value, r.thickness.value, plate, m.window_long->value, m.window_high->value,
                 m.pitch->value, 2 * r.thickness.value},
                {},
                false,
                0};
    if (r.shape == RailShape::Channel)
        return {"boxed", {r.height.value, r.width.value, r.thickness.value, plate, 2 * r.thickness.value}, {}, false, 0};
    if (m.window_long) return railProfile(r, r.thickness.value);
    frame::Profile p;
    if (const auto walls = frame::wallsOf(railProfile(r, r.thickness.value))) p.walls = *walls;
    double outside = 0;
    for (const frame::At& at : p.walls.at) outside = std::min(outside, at.y_mm);
    for (frame::Wall& w : p.walls.walls)
        if (p.walls.at[w.from].y_mm < outside + 0.1 && p.walls.at[w.to].y_mm < outside + 0.1) w.thickness_mm += plate;
    return p;
}

} // namespace gorvet::analysis
