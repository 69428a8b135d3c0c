#include "stretch/graft.hpp"

#include "geometry/vec3.hpp"
#include "stretch/parts.hpp"
#include "stretch/sheet_plugs.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::PlanVerdict;
using build::Remark;
using build::Vec3;

constexpr double root_gap_mm = 2;
constexpr double overlap_heights = 2;
constexpr double sleeve_fit_mm = 1;
constexpr double degrees = 180 / std::numbers::pi;

std::string plain(double v, int decimals = 1) { return units::fixed(v, decimals) + " mm"; }

/// A rail's outside across, where it is cut.
struct Face {
    double y = 0, z = 0; ///< of its middle
    double width = 0, height = 0, wall = 0;
};

class Graft {
public:
    explicit Graft(const GraftInput& in) : in_(in), ahead_(in.graft.kind == build::GraftKind::FrontClip) {}

    GraftPlan made() {
        p_.may_mpa = in_.yield_mpa / 1.5;
        ask();
        if (!p_.missing.empty()) return std::move(p_);
        meet();
        choose();
        trim();
        if (p_.way == GraftWay::Transition) box();
        strength();
        turns();
        measures();
        set();
        carried();
        settle(p_, !in_.assumed.empty() || (in_.frame && !in_.frame->assumed.empty()));
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    // ---- what is there

    void ask() {
        const auto wants = [&](bool so, std::string what) {
            if (!so) p_.missing.push_back(std::move(what));
        };
        const build::RailLine& rail = in_.left;
        wants(rail.points.size() > 1 && in_.right.points.size() > 1, "both rails of the chassis: two points of each");
        wants(rail.height_mm > 0 && rail.width_mm > 0 && rail.thickness_mm > 0, "the rails' section: rail 100 x 60 x 4 box top");
        wants(in_.graft.height.value > 0 && in_.graft.wall.value > 0,
              fmt::format("the section of the piece's rails: graft {} rails 90 50 4 box", in_.graft.name));
        for (std::size_t k = 0; k < 2; ++k)
            wants(in_.rails[k].size() > 1,
                  fmt::format("two points of the piece's {} rail, one of them at its very end", sideWord(k)));
        wants(!in_.pins.empty(), fmt::format("what sets it: graft {} pin station FL FR 0", in_.graft.name));
        if (!p_.missing.empty()) return;
        constexpr double least_way = 0.5; // of its direction along the frame
        for (std::size_t k = 0; k < 2; ++k)
            wants(std::abs(end(k).way.x_mm) > least_way,
                  fmt::format("two points of the piece's {} rail one behind the other", sideWord(k)));
        for (const build::RailLine* r : {&in_.left, &in_.right})
            wants(r->at(in_.graft.joint.value).has_value(), "a joint within both rails of the chassis");
    }
    Face chassisFace(std::size_t side) const {
        const build::RailLine& r = side == 0 ? in_.left : in_.right;
        const auto at = *r.at(in_.graft.joint.value);
        return {at.y_mm, (at.top_mm + at.bottom_mm) / 2, r.width_mm, r.height_mm, r.thickness_mm};
    }
    /// The piece's rail at its end: the end itself, and its direction out of it, towards the joint.
    struct End {
        Vec3 at, way;
    };
    End end(std::size_t side) const {
        std::vector<Vec3> line;
        for (const int k : in_.rails[side]) line.push_back(in_.piece.at[static_cast<std::size_t>(k)]);
        std::sort(line.begin(), line.end(),
                  [&](const Vec3& a, const Vec3& b) { return ahead_ ? a.x_mm > b.x_mm : a.x_mm < b.x_mm; });
        const double to_middle =
            in_.graft.datum_face == build::RailFace::Top ? -in_.graft.height.value / 2 : in_.graft.height.value / 2;
        Vec3 at = line[0];
        at.z_mm += to_middle;
        return {at, geometry::unit(geometry::minus(line[0], line[1]))};
    }
    /// The piece's rail where a plane across stands, as far as it goes straight on.
    Face pieceFace(std::size_t side, double station) const {
        const End e = end(side);
        const double t = (station - e.at.x_mm) / e.way.x_mm;
        return {e.at.y_mm + t * e.way.y_mm, e.at.z_mm + t * e.way.z_mm, in_.graft.width.value, in_.graft.height.value,
                in_.graft.wall.value};
    }
    double outward() const { return ahead_ ? -1 : 1; } ///< from the chassis to the piece

    /// How both rails stand to each other at the joint.
    void meet() {
        for (std::size_t k = 0; k < 2; ++k) {
            GraftSide& s = p_.sides[k];
            s.known = true;
            const Face c = chassisFace(k), q = pieceFace(k, in_.graft.joint.value);
            s.aside_mm = q.y - c.y;
            s.up_mm = q.z - c.z;
            const auto rail = *(k == 0 ? in_.left : in_.right).at(in_.graft.joint.value);
            const Vec3 way = end(k).way;
            const double along = std::abs(way.x_mm), sign = way.x_mm > 0 ? 1 : -1;
            s.turn_plan_rad = std::atan2(sign * way.y_mm, along) - rail.plan_angle_rad;
            s.turn_side_rad = std::atan2(-sign * way.z_mm, along) - rail.slope_rad;
            const double beside = std::abs(s.aside_mm) + std::abs(q.width - c.width) / 2;
            const double above = std::abs(s.up_mm) + std::abs(q.height - c.height) / 2;
            s.step_mm = std::max(beside, above);
        }
    }

    // ---- what joins them

    double turn(const GraftSide& s) const { return std::hypot(s.turn_plan_rad, s.turn_side_rad) * degrees; }
    bool open() const { return in_.channel || in_.graft.shape == build::RailShape::Channel; }
    double overlap() const { return overlap_heights * std::min(in_.left.height_mm, in_.graft.height.value); }
    /// Of the piece in the chassis' rail, or the other way round: the least and the most gap a side, over the overlap.
    std::pair<double, double> gap(const GraftSide& s, bool piece_inside) const {
        const double oh = piece_inside ? in_.left.height_mm : in_.graft.height.value,
                     ow = piece_inside ? in_.left.width_mm : in_.graft.width.value,
                     ot = piece_inside ? in_.left.thickness_mm : in_.graft.wall.value,
                     ih = piece_inside ? in_.graft.height.value : in_.left.height_mm,
                     iw = piece_inside ? in_.graft.width.value : in_.left.width_mm;
        const double lean = overlap();
        const double up = (oh - 2 * ot - ih) / 2, aside = (ow - 2 * ot - iw) / 2;
        const double off_up = std::abs(s.up_mm) + lean * std::abs(std::tan(s.turn_side_rad)),
                     off_aside = std::abs(s.aside_mm) + lean * std::abs(std::tan(s.turn_plan_rad));
        return {std::min(up - off_up, aside - off_aside), std::max(up, aside)};
    }
    void choose() {
        const auto every = [&](const auto& so) { return std::all_of(p_.sides.begin(), p_.sides.end(), so); };
        const build::RailLine& c = in_.left;
        const bool alike = std::abs(c.height_mm - in_.graft.height.value) <= graft_alike &&
                           std::abs(c.width_mm - in_.graft.width.value) <= graft_alike &&
                           std::abs(c.thickness_mm - in_.graft.wall.value) <= graft_alike;
        const bool in_line = every(
            [&](const GraftSide& s) { return std::hypot(s.aside_mm, s.up_mm) <= graft_in_line && turn(s) <= graft_turn_deg; });
        if (in_.graft.transition) {
            p_.way = GraftWay::Transition;
        } else if (alike && in_line && !open()) {
            p_.way = GraftWay::Sleeve;
        } else if (!open()) {
            for (const bool inside : {true, false}) {
                const bool fits = every([&](const GraftSide& s) {
                    const auto [least, most] = gap(s, inside);
                    return least >= graft_fit_least && most <= graft_fit_most;
                });
                if (!fits) continue;
                p_.way = inside ? GraftWay::Inside : GraftWay::Over;
                break;
            }
        }
        if (p_.way == GraftWay::Sleeve || p_.way == GraftWay::Inside || p_.way == GraftWay::Over) p_.overlap_mm = overlap();
        if (p_.way != GraftWay::Inside && p_.way != GraftWay::Over) return;
        double most = 0;
        for (GraftSide& s : p_.sides) {
            const auto [least, widest] = gap(s, p_.way == GraftWay::Inside);
            s.free_mm = least;
            most = std::max(most, widest);
        }
        constexpr double loose = 1.5;
        if (most > loose) p_.strip_mm = std::floor((most - 1) * 2) / 2;
    }

    /// Where the piece's rails are cut.
    void trim() {
        double plane = in_.graft.joint.value;
        if (p_.way == GraftWay::Transition) {
            double step = 0, high = std::max(in_.left.height_mm, in_.graft.height.value);
            for (const GraftSide& s : p_.sides) step = std::max(step, s.step_mm);
            constexpr double round_to = 10, heights = 1.5;
            p_.transition_mm = in_.graft.transition
                                   ? in_.graft.transition->value
                                   : round_to * std::ceil(std::max(graft_taper * step, heights * high) / round_to - 1e-9);
            plane += outward() * p_.transition_mm;
        } else {
            plane += p_.way == GraftWay::Sleeve ? outward() * root_gap_mm : -outward() * p_.overlap_mm;
        }
        for (std::size_t k = 0; k < 2; ++k) {
            GraftSide& s = p_.sides[k];
            const End e = end(k);
            s.trim_mm = (e.at.x_mm - plane) / e.way.x_mm;
            if (s.trim_mm >= 0) continue;
            add("graft-short", PlanVerdict::Fails,
                fmt::format("The piece's {} rail ends {} short of where it must reach.", sideWord(k), plain(-s.trim_mm)),
                fmt::format(
                    "Move the joint {} by that, let a longer transition in (graft {} transition {:.0f}), or cut the piece longer.",
                    ahead_ ? "forward" : "rearward", in_.graft.name,
                    (p_.way == GraftWay::Transition ? p_.transition_mm : 0) - s.trim_mm))
                .of(plain(s.trim_mm), plain(0, 0));
        }
    }

    /// Four plates from the chassis' outside to the piece's.
    void box() {
        p_.plate_mm = in_.graft.plate ? in_.graft.plate->value : std::max(in_.left.thickness_mm, in_.graft.wall.value);
        const double from = in_.graft.joint.value, to = from + outward() * p_.transition_mm;
        double steep = 0;
        for (std::size_t k = 0; k < 2; ++k) {
            const Face c = chassisFace(k), q = pieceFace(k, to);
            const auto corner = [](const Face& f, double station, int right, int up) {
                return Vec3{station, f.y + right * f.width / 2, f.z + up * f.height / 2};
            };
            struct Named {
                const char* name;
                int r0, u0, r1, u1; ///< both edges along the taper
            };
            for (const Named& n : {Named{"top", -1, 1, 1, 1}, Named{"right", 1, 1, 1, -1}, Named{"bottom", 1, -1, -1, -1},
                                   Named{"left", -1, -1, -1, 1}}) {
                const Vec3 a = corner(c, from, n.r0, n.u0), b = corner(c, from, n.r1, n.u1), d = corner(q, to, n.r1, n.u1),
                           e = corner(q, to, n.r0, n.u0);
                p_.plates.push_back(flatPlate(fmt::format("{}-{}", sideWord(k), n.name), {a, b, d, e}));
                for (const auto& [one, other] : {std::pair{a, e}, std::pair{b, d}})
                    steep = std::max({steep, std::abs(other.y_mm - one.y_mm), std::abs(other.z_mm - one.z_mm)});
            }
        }
        p_.taper = steep > 0.05 ? p_.transition_mm / steep : 0;
        if (p_.taper == 0 || p_.taper >= graft_taper - 1e-6) return;
        add("graft-steep", p_.taper < graft_taper_least ? PlanVerdict::Fails : PlanVerdict::Marginal,
            fmt::format("The transition tapers by one in {:.1f}: a pull along the rail is turned aside there.", p_.taper),
            fmt::format("Make it longer: graft {} transition {:.0f}.", in_.graft.name, std::ceil(graft_taper * steep)))
            .of(fmt::format("1 in {:.1f}", p_.taper), fmt::format("1 in {:.0f}", graft_taper));
    }
    // ---- what it bears

    void strength() {
        const auto modulus = [](double h, double w, double t, bool channel) {
            return h > 2 * t && w > 2 * t ? sectionOf(h, w, t, channel).level_modulus_mm3 : 0.0;
        };
        const build::RailLine& c = in_.left;
        const build::Graft& g = in_.graft;
        p_.chassis_modulus_mm3 = modulus(c.height_mm, c.width_mm, c.thickness_mm, in_.channel);
        const double piece = modulus(g.height.value, g.width.value, g.wall.value, g.shape == build::RailShape::Channel);
        p_.weaker_modulus_mm3 = std::min(p_.chassis_modulus_mm3, piece);
        switch (p_.way) {
        case GraftWay::Sleeve: // the butt weld is not counted
            p_.joint_modulus_mm3 = modulus(c.height_mm - 2 * (c.thickness_mm + sleeve_fit_mm),
                                           c.width_mm - 2 * (c.thickness_mm + sleeve_fit_mm), c.thickness_mm, false);
            break;
        case GraftWay::Inside:
        case GraftWay::Over: p_.joint_modulus_mm3 = p_.weaker_modulus_mm3; break; // both run through each other
        case GraftWay::Transition: {
            const double t = p_.plate_mm;
            p_.joint_modulus_mm3 =
                std::min(modulus(c.height_mm, c.width_mm, t, false), modulus(g.height.value, g.width.value, t, false));
            if (open())
                add("graft-open", PlanVerdict::Marginal, "Open rails are closed before a box is welded to them.",
                    fmt::format("A plate over the open side, {:.0f} mm long at the least, on every open rail at the joint.",
                                overlap_heights * std::max(c.height_mm, g.height.value)));
        }
        }
        if (in_.frame) return byFrame();
        bears();
        add("graft-welds", PlanVerdict::Marginal,
            "The joint is held against bending by the heavier wheel alone: its welds, braking, bends and twist are not worked out.",
            "Have the welds and the joint approved by someone licensed before it is cut.");
    }
    void bears() {
        const double share = p_.weaker_modulus_mm3 > 0 ? p_.joint_modulus_mm3 / p_.weaker_modulus_mm3 : 0;
        double hub = 0;
        int hubs = 0;
        for (const int k : in_.hubs)
            if (k >= 0) {
                hub += in_.piece.at[static_cast<std::size_t>(k)].x_mm;
                ++hubs;
            }
        if (hubs > 0) p_.lever_mm = std::abs(in_.graft.joint.value - hub / hubs);
        const bool loaded = p_.lever_mm && in_.wheel_kg && p_.joint_modulus_mm3 > 0;
        if (loaded)
            p_.stress_mpa =
                *in_.wheel_kg * gravity * in_.up_g * *p_.lever_mm / std::min(p_.joint_modulus_mm3, p_.weaker_modulus_mm3);
        const auto percent = fmt::format("{:.0f} %", 100 * share);
        const char* const thicker = p_.way == GraftWay::Transition
                                        ? "Thicker plates (graft NAME plate 5), or plates over both ends."
                                        : "Fish plates over the joint, with tapered ends.";
        if (p_.stress_mpa && *p_.stress_mpa > p_.may_mpa)
            add("graft-weak", PlanVerdict::Fails,
                fmt::format("The heavier wheel alone bends the joint by {:.0f} MPa at {:g} g. It may bear {:.0f}.",
                            *p_.stress_mpa, in_.up_g, p_.may_mpa),
                fmt::format("Cut nearer to the axle, deeper rails, or more steel at the joint. {}", thicker))
                .of(fmt::format("{:.0f} MPa", *p_.stress_mpa), fmt::format("{:.0f} MPa", p_.may_mpa));
        else if (share < 1 - 1e-6 && !p_.stress_mpa)
            add("graft-weak", PlanVerdict::Fails,
                fmt::format("The joint has {} of the weaker rail's section modulus, and no weight is known to hold it against.",
                            percent),
                fmt::format("Weigh the wheels (weight front-left 310 kg). {}", thicker))
                .of(percent, "100 %");
        else if (share < 1 - 1e-6)
            add("graft-weaker", PlanVerdict::Marginal,
                fmt::format("The joint has {} of the weaker rail's section modulus; by the wheels' weight it bears enough.",
                            percent),
                thicker)
                .of(percent, "100 %");
        if (p_.stress_mpa) return;
        add("graft-unweighed", PlanVerdict::Marginal,
            p_.lever_mm ? std::string("What the wheels of that end carry is not known: the joint is held against no load.")
                        : std::string("The piece's wheel centres are not marked: the joint is held against no load."),
            p_.lever_mm ? std::string("Weigh them: weight front-left 310 kg.")
                        : std::string("Mark them on the piece, and measure them."));
    }
    /// A line of weld all round a box, by the elastic method: Blodgett, Design of Welded Structures. What a millimetre of it
    /// bears.
    double weldAsked(const JointForces& f) const {
        const double h = std::min(in_.left.height_mm, in_.graft.height.value),
                     w = std::min(in_.left.width_mm, in_.graft.width.value);
        const double across = f.axial / (2 * (h + w)) + f.bends / (w * h + h * h / 3) + f.bends_aside / (h * w + w * w / 3);
        const double along = f.twist / (2 * h * w) + f.upright / (2 * h) + f.aside / (2 * w);
        return std::hypot(across, along);
    }
    /// Held against what the frame asks of it, the piece on it, in every load case.
    void byFrame() {
        const GraftFrame& f = *in_.frame;
        // the made box is in the frame as it is; a sleeve is not, and has less than the rail
        const double share = p_.way == GraftWay::Transition || p_.weaker_modulus_mm3 <= 0
                                 ? 1.0
                                 : std::min(1.0, p_.joint_modulus_mm3 / p_.weaker_modulus_mm3);
        p_.stress_mpa = f.stress_mpa / std::max(share, 1e-6);
        p_.may_mpa = f.may_mpa;
        const double wall = std::min({in_.left.thickness_mm, in_.graft.wall.value, p_.plate_mm > 0 ? p_.plate_mm : 1e9});
        const double bears = filletBears(wall, wall) / sheet_spare;
        const GraftFrame::Asked* worst = nullptr;
        for (const GraftFrame::Asked& a : f.forces)
            if (!worst || weldAsked(a.forces) > weldAsked(worst->forces)) worst = &a;
        if (worst) p_.weld_share = weldAsked(worst->forces) / bears;
        const std::string thicker =
            p_.way == GraftWay::Transition
                ? fmt::format("Thicker plates (graft {} plate {:.0f}), or deeper rails.", in_.graft.name,
                              std::ceil(p_.plate_mm + 1))
                : std::string("Fish plates over the joint, with tapered ends; or a station where less bends it.");
        if (*p_.stress_mpa > f.may_mpa)
            add("graft-frame", PlanVerdict::Fails,
                fmt::format("In the case {} the {} bears {:.0f} MPa at the joint. It may bear {:.0f}.", f.case_name, f.line,
                            *p_.stress_mpa, f.may_mpa),
                thicker)
                .of(fmt::format("{:.0f} MPa", *p_.stress_mpa), fmt::format("{:.0f} MPa", f.may_mpa));
        if (p_.weld_share && *p_.weld_share > 1)
            add("graft-weld", PlanVerdict::Fails,
                fmt::format("In the case {} the weld round the {} is asked for {:.0f} % of what it may bear.", worst->case_name,
                            worst->line, 100 * *p_.weld_share),
                thicker)
                .of(fmt::format("{:.0f} %", 100 * *p_.weld_share), "100 %");
        if (f.range_mpa > graft_weld_range)
            add("graft-fatigue", PlanVerdict::Marginal,
                fmt::format("Over ± 1 g the stress at the joint's weld runs through {:.0f} MPa: in time it cracks.", f.range_mpa),
                "Less stress there (a deeper joint), or plates with tapered ends and their welds ground smooth, looked at every year.")
                .of(fmt::format("{:.0f} MPa", f.range_mpa), fmt::format("{:.0f} MPa", graft_weld_range));
        if (p_.weaker_modulus_mm3 > 0 && p_.joint_modulus_mm3 < (1 - 1e-6) * p_.weaker_modulus_mm3)
            add("graft-weaker", PlanVerdict::Marginal,
                fmt::format("The joint has {:.0f} % of the weaker rail's section modulus; by the load cases it bears enough.",
                            100 * p_.joint_modulus_mm3 / p_.weaker_modulus_mm3),
                thicker)
                .of(fmt::format("{:.0f} %", 100 * p_.joint_modulus_mm3 / p_.weaker_modulus_mm3), "100 %");
    }
    void turns() {
        double most = 0;
        std::size_t side = 0;
        for (std::size_t k = 0; k < 2; ++k)
            if (turn(p_.sides[k]) > most) {
                most = turn(p_.sides[k]);
                side = k;
            }
        if (most <= graft_diaphragm_deg) return;
        add("graft-turn", most > graft_turn_most_deg ? PlanVerdict::Fails : PlanVerdict::Marginal,
            fmt::format("The piece's {} rail stands {:.1f}° to the chassis'.", sideWord(side), most),
            most > graft_turn_most_deg
                ? "Cut where both rails run alike, or set the piece otherwise."
                : "A diaphragm across the rail where it turns, welded all round, at either end of the joint.")
            .of(fmt::format("{:.1f}°", most), fmt::format("{:.0f}°", graft_diaphragm_deg));
    }

    // ---- where it stands

    /// ± of what is linear in both: `on_piece` and `on_chassis` are slopes by coordinate.
    double u95(const std::vector<std::pair<int, Vec3>>& on_piece, const std::vector<std::pair<int, Vec3>>& on_chassis) const {
        const auto variance = [](const build::Places& p, const std::vector<std::pair<int, Vec3>>& slopes) {
            const std::size_t n = 3 * p.at.size();
            double sum = 0;
            for (const auto& [i, a] : slopes)
                for (const auto& [j, b] : slopes) {
                    const double u[3] = {a.x_mm, a.y_mm, a.z_mm}, v[3] = {b.x_mm, b.y_mm, b.z_mm};
                    for (std::size_t r = 0; r < 3; ++r)
                        for (std::size_t s = 0; s < 3; ++s)
                            sum += u[r] * v[s] *
                                   p.covariance[(3 * static_cast<std::size_t>(i) + r) * n + 3 * static_cast<std::size_t>(j) + s];
                }
            return sum;
        };
        return build::u95Of(std::sqrt(std::max(0.0, variance(in_.piece, on_piece) + variance(in_.chassis, on_chassis))));
    }
    void measures() {
        const auto tape = [&](int from, int to) {
            if (from < 0 || to < 0) return;
            const Vec3 a = in_.chassis.at[static_cast<std::size_t>(from)], b = in_.piece.at[static_cast<std::size_t>(to)];
            const double length = geometry::between(a, b);
            const Vec3 u = geometry::times(geometry::minus(b, a), length > 0 ? 1 / length : 0);
            p_.measures.push_back({fmt::format("{} to {}", in_.chassis.names[static_cast<std::size_t>(from)],
                                               in_.piece.names[static_cast<std::size_t>(to)]),
                                   length, u95({{to, u}}, {{from, geometry::times(u, -1)}})});
        };
        std::array<int, 2> target = in_.hubs;
        if (target[0] < 0 || target[1] < 0) target = {in_.rails[0].front(), in_.rails[1].front()};
        for (const auto& [from, to] : {std::pair{0, 1}, {1, 0}, {0, 0}, {1, 1}}) // both diagonals first
            tape(in_.marks[static_cast<std::size_t>(from)], target[static_cast<std::size_t>(to)]);
        if (in_.hubs[0] < 0 || in_.hubs[1] < 0 || in_.other_hubs[0] < 0 || in_.other_hubs[1] < 0) return;
        const auto base = [&](std::size_t k) {
            return outward() * (in_.piece.at[static_cast<std::size_t>(in_.hubs[k])].x_mm -
                                in_.chassis.at[static_cast<std::size_t>(in_.other_hubs[k])].x_mm);
        };
        const Vec3 half{0.5, 0, 0};
        p_.wheelbase =
            build::Figure{(base(0) + base(1)) / 2,
                          u95({{in_.hubs[0], half}, {in_.hubs[1], half}}, {{in_.other_hubs[0], half}, {in_.other_hubs[1], half}}),
                          build::Provenance::Derived};
        p_.wheelbase_skew_mm = base(0) - base(1);
    }
    void set() {
        for (const std::string& what : in_.open)
            add("graft-open-pose", PlanVerdict::Fails, fmt::format("Nothing decides how the piece stands: {}", what),
                fmt::format("Pin it: graft {} pin height FL FR 310.", in_.graft.name));
        for (const GraftPinned& pin : in_.pins)
            if (pin.verdict != PlanVerdict::Holds)
                add("graft-missed", pin.verdict == PlanVerdict::Fails ? PlanVerdict::Fails : PlanVerdict::Marginal,
                    fmt::format("The {} comes to {} where {} is wanted.", pin.name, plain(pin.achieved.value), plain(pin.wanted)),
                    "The piece is not as square as its pins ask: leave one of them out, straighten the piece, or allow more (tol 4).")
                    .of(plain(pin.miss.value), plain(pin.tolerance_mm));
    }
    void carried() {
        if (!in_.goes.empty()) {
            std::string list;
            for (const std::string& name : in_.goes) list += (list.empty() ? "" : ", ") + name;
            add("graft-goes", PlanVerdict::Marginal,
                fmt::format("With the end that comes off goes what is marked on it: {}.", list),
                "Say what takes its place: mounts, crossmembers and supports on the piece.");
        }
        for (const auto& [name, away] : in_.near)
            add("graft-near", away < 0 ? PlanVerdict::Fails : PlanVerdict::Marginal,
                fmt::format("The joint is {} from the {}.", plain(std::max(0.0, away)), name),
                "One and a half rail heights, 150 mm at the least, away from what bears on the rail.")
                .of(plain(away), plain(std::max(150.0, 1.5 * in_.left.height_mm)));
        if (in_.also_cut)
            add("graft-and-cut", PlanVerdict::Marginal,
                "The rails are to be cut for another wheelbase, too: figures here are of the frame as it is.",
                "Do one after the other, and survey the frame between them.");
        for (const std::string& name : in_.crosses)
            add("graft-crosses", PlanVerdict::Marginal, fmt::format("The {} runs over the joint.", name),
                "Decide what is done about it: crossing NAME answer new-length, or its station and end.");
    }

    const GraftInput& in_;
    bool ahead_;
    GraftPlan p_;
};

} // namespace

const char* graftWord(GraftWay w) {
    switch (w) {
    case GraftWay::Sleeve: return "butt over an inner sleeve";
    case GraftWay::Inside: return "the piece's rails go into the chassis'";
    case GraftWay::Over: return "the piece's rails go over the chassis'";
    case GraftWay::Transition: break;
    }
    return "a made box between both, tapered";
}

GraftPlan graftPlan(const GraftInput& in) { return Graft(in).made(); }

} // namespace gorvet::stretch
