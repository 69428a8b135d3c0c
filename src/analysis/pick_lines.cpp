#include "analysis/pick_lines.hpp"

#include "analysis/fit_picks.hpp"
#include "units/quantity.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

namespace {

shape::Point3 onItsAxes(const Overlay& o, const PickedPlace& p) { return p.on_body ? inverse(o.seat).transformed(p.at) : p.at; }

/// The scan on whose surface a place lies; nullptr: of none that is known.
const Overlay::Part* scanAt(const Overlay& o, const PickedPlace& p) {
    constexpr double reach_mm = 1;
    const Overlay::Part* best = nullptr;
    double nearest = reach_mm;
    for (const Overlay::Part& part : p.on_body ? o.body_parts : o.on_chassis) {
        if (!part.part.ready->tree) continue;
        const auto near = part.part.ready->tree->nearest(onItsAxes(o, p), nearest);
        if (near.triangle == shape::kernel::nothing || near.distance_mm >= nearest) continue;
        nearest = near.distance_mm;
        best = &part;
    }
    return best;
}

} // namespace

PickedPlace pickedPlace(const Overlay& o, const shape::Point3& at, bool on_body, double fineness) {
    PickedPlace p{at, on_body, {}};
    const sit::Ready& scan = on_body ? *o.body : *o.chassis;
    // where it is thinner one has to look farther, and a bend counts as scatter
    for (const double reach_mm : {12.0, 25.0, 50.0})
        if (const auto scatter = scatterAt(scan, onItsAxes(o, p), reach_mm)) {
            p.u95_mm = std::hypot(*scatter, fineness);
            break;
        }
    return p;
}

BegunLine pointLine(const build::Build& b, const Overlay& o, const PickedPlace& p) {
    const auto len = [step = b.settings.length_step](double mm) { return units::formatLength(mm, step); };
    const auto at = onItsAxes(o, p);
    const std::string before = "point " + build::nameOf(b, p.on_body ? build::the_body : build::the_chassis) + ":";
    return {fmt::format("{} {} {} {}", before, len(at[0]), len(at[1]), len(at[2])), before.size()};
}

Result<BegunLine> distanceLine(const build::Build& b, const Overlay& o, const PickedPlace& p, const PickedPlace& q) {
    const Overlay::Part* first = scanAt(o, p);
    const Overlay::Part* second = scanAt(o, q);
    if (!first || first != second)
        return Error{Error::Code::BadInput, "picks",
                     first && second ? fmt::format("One place is on {}, the other on {}.", first->part.name, second->part.name)
                                     : std::string("A place is on no scan."),
                     "A distance is read on one scan: how two are laid on each other is no reading. Pick both on the same.", -1};
    if (!first->scan)
        return Error{Error::Code::BadInput, "picks", "The place is on a marked box, not on a scan.", "Pick on a scan.", -1};
    const double distance = geometry::between(onItsAxes(o, p), onItsAxes(o, q));
    if (!p.u95_mm || !q.u95_mm)
        return Error{Error::Code::BadInput, "picks", "The scan has too few points there to say how sharp it is.",
                     "Pick where it is denser, or tape it.", -1};
    const double u95 = std::hypot(*p.u95_mm, *q.u95_mm);
    const auto step = b.settings.length_step;
    return BegunLine{fmt::format(" {} ± {} note picked on the scan {}", units::formatLength(distance, step, true),
                                 units::formatLength(std::max(u95, 0.1), step, true), first->part.name),
                     0};
}

} // namespace gorvet::analysis
