#include "drive/wheel.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::drive {

using build::Dimension;
using build::Provenance;
using build::WheelSet;
using build::worst;

namespace {

Figure read(const Dimension& d, double u95) { return {d.value, u95, d.provenance}; }
std::optional<Figure> read(const std::optional<Dimension>& d, double u95) {
    return d ? std::optional(read(*d, u95)) : std::nullopt;
}

} // namespace

double measuringRim(double aspect) { return std::clamp(0.69 + (80 - aspect) * 0.0045, 0.66, 0.93); }
RimRange usualRims(double aspect) { return {measuringRim(aspect) - 0.10, measuringRim(aspect) + 0.12}; }
double sectionOn(double marked, double aspect, double rim) { return marked + 0.4 * (rim - measuringRim(aspect) * marked); }

Figure studCircle(const Figure& chord, int studs, int apart) { return 1 / std::sin(std::numbers::pi * apart / studs) * chord; }

std::optional<Figure> circleOf(const std::optional<Dimension>& studs, const std::optional<Dimension>& circle,
                               const std::optional<Dimension>& chord, bool next_but_one) {
    if (chord && studs) return studCircle(read(*chord, caliper_u95_mm), static_cast<int>(studs->value), next_but_one ? 2 : 1);
    return read(circle, 0.1);
}

WheelFigures figuresOf(const WheelSet& w) {
    WheelFigures f;
    f.width_mm = read(w.width, 1);
    f.diameter_mm = read(w.diameter, 0.5);
    f.over_lips_mm = w.over_lips ? read(*w.over_lips, edge_u95_mm)
                                 : Figure{w.width.value + lips_mm, 2, worst(Provenance::Derived, w.width.provenance)};
    if (w.backspace) {
        f.backspace_mm = read(*w.backspace, edge_u95_mm);
        f.offset_mm = *f.backspace_mm - 0.5 * f.over_lips_mm;
    } else if (w.offset) {
        f.offset_mm = read(*w.offset, 1);
        f.backspace_mm = *f.offset_mm + 0.5 * f.over_lips_mm;
    }
    if (w.outside) {
        f.outside_mm = read(*w.outside, tape_u95_mm);
    } else if (w.tyre && w.aspect) {
        const double mark = w.diameter.value + 2 * w.tyre->value * w.aspect->value / 100;
        // makers keep within a hundredth or so of what is marked
        f.outside_mm = {
            mark, 0.01 * mark,
            worst(Provenance::Derived, worst(w.tyre->provenance, worst(w.aspect->provenance, w.diameter.provenance)))};
    }
    if (w.section) {
        f.section_mm = read(*w.section, tape_u95_mm);
    } else if (w.tyre) {
        const double on = sectionOn(w.tyre->value, w.aspect ? w.aspect->value : 80, w.width.value);
        f.section_mm = {on, 0.04 * on, worst(Provenance::Derived, worst(w.tyre->provenance, w.width.provenance))};
    }
    // the well of a rim stands some 20 mm inside of its seats
    f.inside_mm = w.inside ? read(*w.inside, edge_u95_mm) : Figure{w.diameter.value - 45, 10, Provenance::Assumed};
    f.circle_mm = circleOf(w.studs, w.circle, w.chord, w.next_but_one);
    return f;
}

std::optional<WheelChange> changeOf(const WheelFigures& before, const WheelFigures& after) {
    if (!before.outside_mm || !after.outside_mm) return std::nullopt;
    WheelChange c;
    const double was = before.outside_mm->value, is = after.outside_mm->value;
    c.diameter_share = is / was - 1;
    c.rides_mm = rolls_as * (is - was) / 2;
    c.revs_per_km = 1e6 / (rolls_as * std::numbers::pi * is);
    c.true_at_100_kmh = 100 * is / was;
    if (before.offset_mm && after.offset_mm) {
        const double out = before.offset_mm->value - after.offset_mm->value; // of the rim's middle
        c.track_mm = 2 * out;
        if (before.section_mm && after.section_mm) {
            const double wider = (after.section_mm->value - before.section_mm->value) / 2;
            c.outer_mm = out + wider;
            c.inner_mm = wider - out;
        }
    }
    return c;
}

BandPlan bandPlan(const WheelFigures& rim, const build::Widening& w) {
    BandPlan p;
    p.length_mm = std::numbers::pi * (w.barrel.value - w.sheet.value);
    p.cut_mm = p.length_mm + 5;
    p.kg = p.length_mm * w.band.value * w.sheet.value * 7.85e-6;
    p.width_mm = rim.width_mm.value + w.band.value;
    if (rim.backspace_mm) {
        // what is let in inside of the disc goes to the back of the face, the other to its front
        p.backspace_mm = rim.backspace_mm->value + (w.at == build::BandAt::Inside ? w.band.value : 0);
        p.offset_mm = *p.backspace_mm - (rim.over_lips_mm.value + w.band.value) / 2;
    }
    return p;
}

} // namespace gorvet::drive
