#include "drive/gear_plate.hpp"

#include "geometry/outline.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

using build::Figure;
using build::judge;
using build::Limit;
using build::PlanVerdict;
using build::Provenance;
using geometry::Vec3;

namespace {

constexpr double per_mm3 = 7.85e-6; // kg of steel; engineering.md, Stretch
/// Room of a drilled hole over its bolt: medium fit (ISO 273).
double drilled(double bolt) { return bolt <= 4 ? bolt + 0.5 : bolt <= 12 ? bolt + 1 : bolt <= 24 ? bolt + 2 : bolt + 3; }

std::vector<Vec3> onlyOf(const std::vector<Vec3>& at, const std::vector<std::size_t>& of) {
    std::vector<Vec3> some;
    for (const std::size_t k : of) some.push_back(at[k]);
    return some;
}
/// How far a hole stands out of the plane of all, to the side of `up`.
double offPlane(const std::vector<Vec3>& at, const std::vector<std::size_t>& of, std::size_t hole, const Vec3& up) {
    const geometry::Plane p = geometry::planeOf(onlyOf(at, of));
    const double off = geometry::dot(p.normal, geometry::minus(at[hole], p.middle));
    return geometry::dot(p.normal, up) < 0 ? -off : off;
}

} // namespace

GearPlatePlan gearPlatePlan(const GearPlateIn& in) {
    GearPlatePlan p;
    p.name = in.name;
    if (!in.missing.empty() || in.holes.size() < 3) {
        p.verdict = PlanVerdict::Marginal;
        return p;
    }
    const std::vector<Vec3>& at = in.places.at;
    const geometry::Plane plane = geometry::planeOf(onlyOf(at, in.holes));
    using geometry::dot;
    Vec3 a = geometry::minus(at[in.holes[1]], at[in.holes[0]]);
    a = geometry::unit(geometry::minus(a, geometry::times(plane.normal, dot(plane.normal, a))));
    // seen from outside of the car: b goes up where it can
    Vec3 b = geometry::cross(plane.normal, a);
    if (b.z_mm < 0) b = geometry::times(b, -1);
    p.hole_mm = drilled(in.bolt_mm);
    p.edge_mm = 2 * in.bolt_mm;
    p.thick_mm = in.thick_mm.value_or(least_plate_mm);
    std::vector<geometry::Flat> holes;
    for (const std::size_t k : in.holes) {
        const Vec3 from = geometry::minus(at[k], at[in.holes[0]]);
        p.holes.push_back(
            {in.places.names[k], dot(a, from), dot(b, from), dot(plane.normal, geometry::minus(at[k], plane.middle))});
        holes.emplace_back(p.holes.back().a_mm, p.holes.back().b_mm);
    }
    p.outline = geometry::hullRound(holes, p.edge_mm);
    p.area_mm2 = geometry::areaOf(p.outline);
    p.mass_kg = p.area_mm2 * p.thick_mm * per_mm3;
    for (const std::size_t k : in.holes) { // each to its side: a size has no slope at nothing
        const Figure off =
            build::figureOf(in.places, in.holes, [&](const auto& moved) { return offPlane(moved, in.holes, k, plane.normal); });
        p.flat_mm.value = std::max(p.flat_mm.value, std::abs(off.value));
        p.flat_mm.u95 = std::max(p.flat_mm.u95, off.u95);
    }
    std::size_t from = 0, to = 1;
    for (std::size_t i = 0; i < in.holes.size(); ++i)
        for (std::size_t j = i + 1; j < in.holes.size(); ++j)
            if (geometry::between(at[in.holes[i]], at[in.holes[j]]) > geometry::between(at[in.holes[from]], at[in.holes[to]])) {
                from = i;
                to = j;
            }
    p.across_mm = build::figureOf(in.places, {in.holes[from], in.holes[to]}, [&](const auto& moved) {
        return geometry::between(moved[in.holes[from]], moved[in.holes[to]]);
    });

    const auto add = [&](const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) -> build::Remark& {
        p.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p.remarks.back();
    };
    if (const auto v = judge(p.flat_mm, Limit::atMost(plate_flat_mm)); in.holes.size() > 3 && v != PlanVerdict::Holds)
        add("gear-flat", v,
            fmt::format("The holes of {} stand {:.1f} ± {:.1f} mm out of one plane: bolted to a flat plate, its housing bends.",
                        in.name, p.flat_mm.value, p.flat_mm.u95),
            "Mill or shim the seats, and measure the holes once more.")
            .of(fmt::format("{:.1f} mm", p.flat_mm.value), fmt::format("≤ {:.0f} mm", plate_flat_mm));
    // a hole has room for so much of an error each way; two holes share it
    const double room = p.hole_mm - in.bolt_mm;
    if (const auto v = p.across_mm.u95 <= room ? PlanVerdict::Holds : PlanVerdict::Marginal; v != PlanVerdict::Holds)
        add("gear-pattern", v,
            fmt::format("Its holes are known to ± {:.1f} mm across, and bolts have {:.1f} mm of room.", p.across_mm.u95, room),
            "Drill one hole, bolt the gear on, and spot the others through its own foot.")
            .of(fmt::format("± {:.1f} mm", p.across_mm.u95), fmt::format("± {:.1f} mm", room));
    if (in.thick_mm && *in.thick_mm < least_plate_mm)
        add("gear-thin", PlanVerdict::Fails, fmt::format("A plate of {:.1f} mm gives under a steering gear.", *in.thick_mm),
            fmt::format("{:.0f} mm of steel or more, and what it is welded to is no thinner than half of that.", least_plate_mm))
            .of(fmt::format("{:.1f} mm", *in.thick_mm), fmt::format("≥ {:.0f} mm", least_plate_mm));
    if (in.closed_rail)
        add("gear-sleeves", PlanVerdict::Marginal,
            fmt::format("{} bolts go through a closed rail: tightened, they pull its walls together and come loose.",
                        in.holes.size()),
            fmt::format(
                "A sleeve for each, {:.0f} mm inside, let through the rail and welded at both walls before the plate goes on.",
                p.hole_mm));
    for (std::size_t i = 0; i < p.holes.size(); ++i)
        for (std::size_t j = i + 1; j < p.holes.size(); ++j) {
            const double apart = std::hypot(p.holes[i].a_mm - p.holes[j].a_mm, p.holes[i].b_mm - p.holes[j].b_mm);
            if (apart < 3 * in.bolt_mm)
                add("gear-close", PlanVerdict::Fails,
                    fmt::format("{} and {} are {:.0f} mm apart, less than three bolts.", p.holes[i].name, p.holes[j].name, apart),
                    "Look at both marks again: one of them is no hole of the gear.");
        }
    std::stable_sort(p.remarks.begin(), p.remarks.end(), [](const auto& x, const auto& y) { return x.verdict > y.verdict; });
    for (const build::Remark& r : p.remarks) p.verdict = std::max(p.verdict, r.verdict);
    if (!in.assumed.empty() || !in.bolt_known || !in.thick_mm) p.verdict = std::max(p.verdict, PlanVerdict::Marginal);
    return p;
}

sheet::Drawing gearPlateDrawing(const GearPlatePlan& p) {
    sheet::Drawing d{0, 0, {}, {}};
    if (p.outline.empty()) return d;
    double left = 1e18, top = -1e18, right = -1e18, low = 1e18;
    for (const auto& [a, b] : p.outline) {
        left = std::min(left, a);
        right = std::max(right, a);
        low = std::min(low, b);
        top = std::max(top, b);
    }
    d.width = right - left;
    d.height = top - low;
    const auto to = [&](double a, double b) { return sheet::P{a - left, top - b}; };
    sheet::Stroke outline{{}, true, {sheet::Ink::Ink, 0.35, sheet::Dash::Solid}};
    for (const auto& [a, b] : p.outline) outline.path.push_back(to(a, b));
    d.add(std::move(outline), "cut:outline");
    for (const GearPlateHole& h : p.holes)
        d.add(sheet::Circle{to(h.a_mm, h.b_mm), p.hole_mm / 2, {sheet::Ink::Ink, 0.35, sheet::Dash::Solid}}, "cut:bolt");
    return d;
}

} // namespace gorvet::drive
