#include "make/crossmember.hpp"
#include "make/part_maker.hpp"
#include "make/press.hpp"
#include "make/wall.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::times;
using geometry::unit;

namespace {
/// So far from a rail's face a place counts as on it.
constexpr double on_face_mm = 15;
} // namespace

double bendAllowance(double angle, double inside, double thick) {
    const double k = inside < thick ? 0.33 : inside <= 3 * thick ? 0.40 : inside <= 5 * thick ? 0.45 : 0.50;
    return angle * (inside + k * thick);
}

double flatMass(const FlatPiece& p) {
    double area = geometry::areaOf(p.outline);
    for (const FlatHole& h : p.holes) area -= std::numbers::pi / 4 * h.diameter_mm * h.diameter_mm;
    for (const geometry::Outline& window : p.windows) area -= geometry::areaOf(window);
    return steelMass(area * p.thickness_mm);
}

PartMaker::Face PartMaker::faceAt(const Vec3& place, const Vec3& towards) const {
    Face best{unit(towards), false};
    double squarest = 0; // at an edge two faces are there: the one that it runs into
    for (const build::RailLine* rail : {&in_.left, &in_.right}) {
        const auto here = rail->at(place.x_mm);
        if (!here) continue;
        const Vec3 along = unit({1, std::tan(here->plan_angle_rad), -std::tan(here->slope_rad)});
        const Vec3 side = unit(cross({0, 0, 1}, {along.x_mm, along.y_mm, 0})), top = unit(cross(along, side));
        const double aside = (place.y_mm - here->y_mm) * std::cos(here->plan_angle_rad);
        const bool in_height = place.z_mm < here->top_mm + on_face_mm && place.z_mm > here->bottom_mm - on_face_mm;
        const bool in_width = std::abs(aside) < rail->width_mm / 2 + on_face_mm;
        const auto consider = [&](double off, bool within, const Vec3& normal) {
            const double square = std::abs(dot(normal, unit(towards)));
            if (!within || std::abs(off) >= on_face_mm || square <= squarest) return;
            squarest = square;
            best = {dot(normal, towards) < 0 ? times(normal, -1) : normal, true};
        };
        consider(std::abs(aside) - rail->width_mm / 2, in_height, side);
        consider(place.z_mm - here->top_mm, in_width, top);
        consider(place.z_mm - here->bottom_mm, in_width, top);
    }
    return best;
}

void PartMaker::bears(const char* code, double mpa, double most, const std::string& where, const std::string& remedy) {
    if (const double share = mpa / most; share > p_.used.value_or(0)) {
        p_.used = share;
        p_.used_at = where;
    }
    if (mpa > most)
        add(code, PlanVerdict::Fails, fmt::format("{} {:.0f} MPa, and it bears {:.0f}.", where, mpa, most), remedy)
            .of(fmt::format("{:.0f} MPa", mpa), fmt::format("≤ {:.0f} MPa", most));
    guessed_ = guessed_ || !in_.yield_known || loadGuessed();
}

void PartMaker::struts(double load, double area, double least, double hinged, const std::string& remedy) {
    constexpr double modulus_mpa = 205'000; // engineering.md, Stretch
    const double buckles = std::numbers::pi * std::numbers::pi * modulus_mpa * least / (hinged * hinged),
                 crushes = area * in_.yield_mpa;
    bears("part-buckles", load / area, 1 / (1 / buckles + 1 / crushes) / yield_margin / area, "Pushed, it stands under", remedy);
}

void PartMaker::weldBears(double n_per_mm, double leg, const std::string& where) {
    const double on_throat = n_per_mm / (throat_share * leg), on_leg = n_per_mm / leg, base = base_share * in_.yield_mpa;
    if (on_throat / weld_mpa > on_leg / base)
        bears("part-weld", on_throat, weld_mpa, where + " stands under",
              "A longer or thicker weld: a larger foot, or a plate under it.");
    else
        bears("part-weld", on_leg, base, "Beside " + where + " the steel stands under",
              "A longer weld: a larger foot, or a plate under it.");
}

std::optional<PartMaker::Wall> PartMaker::wallUnder(const Vec3& place, const Vec3& normal, const std::string& name) {
    constexpr double marked_mm = 8; // it stands where its place was marked, on a rail that may run crooked
    const build::RailLine* rail = inRail(place, marked_mm);
    const auto here = rail ? rail->at(place.x_mm) : std::nullopt;
    const char* why = !here ? "no rail is there" : in_.channel ? "the rails are open" : nullptr;
    if (why) {
        skip(fmt::format("the wall under {}: {}", name, why));
        return std::nullopt;
    }
    const bool on_top = std::abs(normal.z_mm) > std::abs(normal.y_mm);
    const Vec3 middle{place.x_mm, here->y_mm, (here->top_mm + here->bottom_mm) / 2};
    Wall w;
    w.rail = rail;
    w.run = unit({1, std::tan(here->plan_angle_rad), -std::tan(here->slope_rad)});
    w.face_mm = on_top ? rail->width_mm : rail->height_mm;
    w.deep_mm = on_top ? rail->height_mm : rail->width_mm;
    w.off_mm = std::abs(on_top ? place.y_mm - middle.y_mm : place.z_mm - middle.z_mm);
    return w;
}

void PartMaker::wallBears(const Foot& f, double pushed, double bent) {
    const auto under = wallUnder(f.place, f.normal, f.name);
    if (!under) return;
    WallFoot w;
    w.face_mm = under->face_mm;
    w.deep_mm = under->deep_mm;
    w.wall_mm = under->rail->thickness_mm;
    w.across_mm = f.across_mm;
    w.along_mm = f.along_mm;
    w.round = f.round;
    w.foot_wall_mm = f.wall_mm;
    w.angle_rad = std::acos(std::clamp(std::abs(dot(unit(f.along), under->run)), 0.0, 1.0));
    if (under->off_mm + f.across_mm / 2 > w.face_mm / 2 + 1)
        return skip(fmt::format("the wall under {}: it stands over the rail's edge", f.name));
    w.across_mm = std::min(w.across_mm, w.face_mm);
    if (!wallSaid(w))
        return skip(fmt::format("the wall under {}: it is {:.0f} wide on a face of {:.0f} with a wall of {:g}, of which the "
                                "standard says nothing: a plate between spreads the load",
                                f.name, w.across_mm, w.face_mm, w.wall_mm));
    const double yield = in_.yield_mpa;
    wallTakes(yield_margin * (pushed / wallPushed_N(w, yield) + (bent > 0 ? bent / wallBent_Nmm(w, yield) : 0)), *under, f.place,
              f.name);
}

void PartMaker::wallBears(const PlateFeet& f, const PlateLoad& load) {
    constexpr double as_it_runs = 0.95, across = 0.3;
    const auto under = wallUnder(f.place, f.normal, f.name);
    if (!under) return;
    const double runs = std::abs(dot(unit(f.edge), under->run));
    if (runs < as_it_runs && runs > across)
        return skip(fmt::format("the wall under {}: it stands neither along the rail nor across it", f.name));
    WallPlates w;
    w.face_mm = under->face_mm;
    w.deep_mm = under->deep_mm;
    w.wall_mm = under->rail->thickness_mm;
    w.long_mm = f.long_mm;
    w.thick_mm = f.thick_mm;
    w.count = f.count;
    w.apart_mm = f.apart_mm;
    w.across = runs <= across;
    const double spreads = w.across ? f.long_mm : f.count * f.thick_mm + f.apart_mm;
    if (under->off_mm + spreads / 2 > w.face_mm / 2 + 1)
        return skip(fmt::format("the wall under {}: it stands over the rail's edge", f.name));
    if (w.across) w.long_mm = std::min(w.long_mm, w.face_mm);
    if (!wallSaid(w))
        return skip(
            fmt::format("the wall under {}: of an edge of {:.0f} on a face of {:.0f} with a wall of {:g} the standard says "
                        "nothing: a plate between spreads the load",
                        f.name, f.long_mm, w.face_mm, w.wall_mm));
    const double yield = in_.yield_mpa;
    // one force, in the worst of its directions: between them it does a part of each
    const double share = std::hypot(load.pulled_N / wallPulled_N(w, yield), load.bent_Nmm / wallBent_Nmm(w, yield),
                                    load.over_Nmm / wallBentOver_Nmm(w, yield));
    wallTakes(yield_margin * share, *under, f.place, f.name);
}

void PartMaker::wallTakes(double share, const Wall& under, const Vec3& place, const std::string& name) {
    if (share > p_.used.value_or(0)) {
        p_.used = share;
        p_.used_at = "the rail's wall under " + name;
    }
    if (share > 1)
        add("part-wall", PlanVerdict::Fails,
            fmt::format("The rail's wall under {} bears {:.0f} % of the load.", name, 100 / share),
            fmt::format("A plate of {:g} or more over the whole face between them, or a foot nearer to the face's width.",
                        std::max(4.0, under.rail->thickness_mm)))
            .of(fmt::format("{:.0f} %", 100 / share), "100 %");
    guessed_ = guessed_ || !in_.yield_known || !in_.wall_known || !inRail(place) || loadGuessed(); // off the rail: it is packed
}

const build::RailLine* PartMaker::inRail(const Vec3& p, double beside_mm) const {
    for (const build::RailLine* rail : {&in_.left, &in_.right})
        if (const auto here = rail->at(p.x_mm); here && std::abs(p.y_mm - here->y_mm) < rail->width_mm / 2 + beside_mm &&
                                                p.z_mm < here->top_mm + beside_mm && p.z_mm > here->bottom_mm - beside_mm)
            return rail;
    return nullptr;
}

void PartMaker::bolt(const Vec3& face, const Vec3& out, double sheet, double hole) {
    PartBolt b;
    b.head = face;
    b.along = times(out, -1);
    b.hole_mm = hole;
    b.captive = has("captive") && f("captive") > 0.5;
    b.grip_mm = 2 * sheet;
    if (has("grip")) {
        b.grip_mm = f("grip");
        b.grip_known = true;
    } else {
        const Vec3 behind = geometry::plus(face, times(b.along, sheet + 1));
        if (const build::RailLine* rail = inRail(behind)) {
            const bool upright = std::abs(out.z_mm) > std::abs(out.y_mm);
            b.grip_mm = sheet + (in_.channel || b.captive ? rail->thickness_mm : upright ? rail->height_mm : rail->width_mm);
            b.grip_known = true;
        }
    }
    p_.bolts.push_back(b);
}

void PartMaker::pressed(FlatPiece& piece) {
    if (piece.at_hand || piece.bends.empty()) return;
    for (const std::size_t k : tornBends(piece))
        add("part-torn", PlanVerdict::Fails,
            fmt::format("Bend {} of {} ends within the sheet: it tears there.", k + 1, piece.name),
            "A slit or a round hole at its end, as wide as the sheet is thick and as deep as the bend.");
    for (const HoleByBend& h : holesByBends(piece))
        add("part-bend-hole", PlanVerdict::Marginal,
            fmt::format("A hole of {:g} in {} stands {:.1f} mm from a bend: it is pulled oval.", piece.holes[h.hole].diameter_mm,
                        piece.name, h.room_mm),
            "Drilled after the bend, or farther from it.")
            .of(fmt::format("{:.1f} mm", h.room_mm), fmt::format("≥ {:g} mm", 2 * piece.thickness_mm));
    const auto plan = pressPlan(piece);
    if (!plan) return skip(fmt::format("in what order {} is bent", piece.name));
    std::vector<FlatBend> in_order;
    for (const PressStep& s : plan->steps) in_order.push_back(piece.bends[s.bend]);
    piece.bends = std::move(in_order);
    if (plan->past_mm <= 0) return;
    const double cut_back = plan->past_mm + blade_mm / 2;
    add("part-press", cut_back > goose_neck_mm ? PlanVerdict::Fails : PlanVerdict::Marginal,
        fmt::format(
            "In the best order of its bends one leg of {} comes {:.0f} mm past the face of a straight blade, {:.0f} over its nose.",
            piece.name, plan->past_mm, plan->above_mm),
        cut_back > goose_neck_mm
            ? "No usual blade is cut back so far: its sides welded on, wider, or less deep."
            : fmt::format("A goose-neck blade that is cut back by {:.0f}; or its sides welded on.", cut_back))
        .of(fmt::format("{:.0f} mm", cut_back), fmt::format("≤ {:g} mm", goose_neck_mm));
}

PartPlan PartMaker::done() {
    for (FlatPiece& piece : p_.flats) piece.mass_kg = flatMass(piece);
    for (FlatPiece& piece : p_.flats) pressed(piece);
    for (const FlatPiece& piece : p_.flats)
        if (!piece.at_hand) p_.mass_kg += piece.count * piece.mass_kg;
    for (const BarPiece& piece : p_.bars)
        if (!piece.at_hand) p_.mass_kg += piece.count * piece.mass_kg;
    for (std::size_t k = 0; k < in_.at.size(); ++k) p_.at.push_back(at(k));
    for (const FlatPiece& piece : p_.flats) {
        if (piece.at_hand) continue; // made by somebody else
        if (!geometry::isSimple(piece.outline) || geometry::areaOf(piece.outline) <= 0)
            add("part-outline", PlanVerdict::Fails,
                fmt::format("The outline of {} crosses itself: nothing can be cut by it.", piece.name),
                "Look at its figures and its places once more.");
        for (const FlatHole& h : piece.holes)
            if (!geometry::isInside(piece.outline, h.at) ||
                geometry::fromEdge(piece.outline, h.at) < h.diameter_mm / 2 + piece.thickness_mm)
                add("part-edge", PlanVerdict::Fails,
                    fmt::format("A hole of {:g} in {} leaves less than its thickness to the edge.", h.diameter_mm, piece.name),
                    "A larger plate, or a smaller hole.");
    }
    if (guessed_ && p_.used && *p_.used <= 1)
        add("part-guess", PlanVerdict::Marginal,
            fmt::format("It bears {:.1f} times the load that was said, by a yield or a load that is a guess.", 1 / *p_.used),
            "Say them as they are known: yield 235, and the load without a question mark.");
    std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                     [](const build::Remark& a, const build::Remark& b) { return a.verdict > b.verdict; });
    p_.verdict = PlanVerdict::Holds;
    for (const build::Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
    if (!in_.assumed.empty() || !in_.missing.empty() || !p_.not_looked_at.empty())
        p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
    return std::move(p_);
}

PartPlan partPlan(const PartIn& in) {
    PartPlan none;
    none.name = in.name;
    none.kind = in.kind;
    if (!in.missing.empty()) return none;
    static constexpr std::pair<std::string_view, PartPlan (*)(const PartIn&)> rules[] = {{"brace", bracePlan},
                                                                                         {"coped-tube", copedTubePlan},
                                                                                         {"outrigger", outriggerPlan},
                                                                                         {"x-member", xMemberPlan},
                                                                                         {"k-brace", kBracePlan},
                                                                                         {"lifting-beam", liftingBeamPlan},
                                                                                         {"skate", skatePlan},
                                                                                         {"gusset", gussetPlan},
                                                                                         {"ears", earsPlan},
                                                                                         {"drilled-plate", drilledPlatePlan},
                                                                                         {"bent-tube", bentTubePlan},
                                                                                         {"cage-tube", cageTubePlan},
                                                                                         {"angle-bracket", angleBracketPlan},
                                                                                         {"tab", tabPlan},
                                                                                         {"u-bolt-plate", uBoltPlatePlan},
                                                                                         {"standoff", standoffPlan},
                                                                                         {"bought-mount", boughtMountPlan},
                                                                                         {"perch", perchPlan},
                                                                                         {"axle-perch", axlePerchPlan},
                                                                                         {"shim-stack", shimStackPlan},
                                                                                         {"tank", tankPlan},
                                                                                         {"tank-pipe", tankPipePlan},
                                                                                         {"seat-bar", seatBarPlan},
                                                                                         {"belt-plate", beltPlatePlan}};
    for (const auto& [kind, plan] : rules)
        if (kind == in.kind) return plan(in);
    return none;
}

} // namespace gorvet::make
