// X-members with a shaft's opening in their middle, and K-braces.
#include "make/bar_maker.hpp"
#include "make/crossmember.hpp"
#include "make/fasteners.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

namespace {

constexpr double shelf_mm = 6;          ///< that a plate stands back from the edge that it is welded on
constexpr double most_climb_mm = 3;     ///< that a leg's end may stand over or under what it meets
constexpr double bolt_from_end_mm = 25; ///< of the plate below, along the middle rails

const char* const leg_names[] = {"front leg left", "front leg right", "rear leg left", "rear leg right"};

/// Four legs from the rails to two middle rails beside the shaft, and what ties these.
class XMaker : BarMaker {
public:
    using BarMaker::BarMaker;

    PartPlan plan() {
        opening_ = f("opening");
        long_ = f("middle");
        wide_ = f("wide");
        p_.size_mm = between(0, 3);
        p_.size_of = "from its front left foot to its rear right";
        if (!stands()) return done();
        for (std::size_t k = 0; k < 4; ++k)
            if (!leg(k)) return done();
        for (const double side : {-1.0, 1.0}) {
            const Layout o = layout(in_.places.at);
            const Vec3 middle = plus(o.middle, times(o.side, side * (opening_ + wide_) / 2));
            BarPiece bar = barBetween(side < 0 ? "middle rail left" : "middle rail right",
                                      minus(middle, times(o.ahead, long_ / 2)), plus(middle, times(o.ahead, long_ / 2)));
            cutEnd(bar, 0, bar.from, times(o.ahead, -1), bar.name);
            cutEnd(bar, 1, bar.to, o.ahead, bar.name);
            bar.length_mm = {long_, 0, in_.figures.at("middle").provenance};
            weigh(bar);
            p_.bars.push_back(std::move(bar));
        }
        plates();
        add("part-closed", PlanVerdict::Marginal, "Its legs and middle rails are closed hollows once they are welded.",
            "A hole of 8 at the lowest place of each, before; wax goes in by them.");
        strength();
        skip("what passes through its opening, but for shafts: Fasteners names what stands in it");
        skip("how it stiffens the frame: on Stretch, Strength");
        if (in_.channel) skip("how it goes in between channels, past their flanges, and what its legs meet there");
        return done();
    }

private:
    /// Its own axes, by its places.
    struct Layout {
        Vec3 middle, ahead, side, up; ///< ahead: to the rear along the middle rails; side: to the right
    };
    Layout layout(const std::vector<Vec3>& p) const {
        const auto q = [&](std::size_t k) { return p[in_.at[k]]; };
        Layout o;
        o.middle = q(4);
        o.ahead = unit(minus(geometry::along(q(2), q(3), 0.5), geometry::along(q(0), q(1), 0.5)));
        o.side = unit(cross({0, 0, 1}, o.ahead));
        o.up = cross(o.ahead, o.side);
        return o;
    }
    /// Where a leg's middle meets the outer face of its middle rail: as far out as its whole end finds room.
    Vec3 joint(const std::vector<Vec3>& p, std::size_t k) const {
        const Layout o = layout(p);
        const double side = k % 2 ? 1 : -1, fore = k < 2 ? -1 : 1;
        const Vec3 foot = p[in_.at[k]];
        double along = long_ / 2;
        Vec3 at;
        for (int round = 0; round < 20; ++round) {
            at = plus(o.middle, plus(times(o.side, side * (opening_ / 2 + wide_)), times(o.ahead, fore * along)));
            const Vec3 way = minus(foot, at), flat = unit(minus(way, times(o.up, dot(way, o.up))));
            const double across = std::max(0.2, std::abs(dot(flat, o.side))); // flatter than that no saw cuts it
            along = long_ / 2 - wide_ / 2 / across;
        }
        return at;
    }

    bool refuse(std::string sentence, std::string remedy) {
        add("part-outline", PlanVerdict::Fails, std::move(sentence), std::move(remedy));
        return false;
    }
    bool stands() {
        const Layout o = layout(in_.places.at);
        const auto along = [&](std::size_t k) { return dot(minus(at(k), o.middle), o.ahead); };
        const auto out = [&](std::size_t k) { return dot(minus(at(k), o.middle), o.side); };
        if (geometry::between(at(0), at(2)) < 100 || geometry::between(at(1), at(3)) < 100 || out(0) > out(1) || out(2) > out(3))
            return refuse("Its places are not left and right in front, then left and right behind.",
                          "First where its front legs meet the rails, left and right, then its rear legs, then the opening.");
        for (std::size_t k = 0; k < 4; ++k) {
            if (std::abs(out(k)) < opening_ / 2 + wide_ + 20 || (out(k) > 0) != (k % 2 == 1))
                return refuse(fmt::format("The {} has no room beside an opening of {:g}.", leg_names[k], opening_),
                              "A narrower opening, or narrower bars; its middle between the rails.");
            if ((along(k) > 0) != (k >= 2))
                return refuse(fmt::format("The {} begins on the wrong side of the opening's middle.", leg_names[k]),
                              "The opening's middle lies between its front and its rear legs.");
        }
        return true;
    }

    bool leg(std::size_t k) {
        const Layout o = layout(in_.places.at);
        const double side = k % 2 ? 1 : -1;
        const Vec3 meets = joint(in_.places.at, k);
        BarPiece bar = barBetween(leg_names[k], at(k), meets);
        if (!fits(bar)) return false;
        const Vec3 out = unit(minus(meets, at(k)));
        const Face face = faceAt(at(k), times(out, -1));
        if (!face.of_rail) skip(fmt::format("what the {} meets: no rail is there, and it is cut square", bar.name));
        const std::string called = fmt::format("The {}", bar.name);
        cutEnd(bar, 0, at(k), face.normal, called + ", at the rail,");
        cutEnd(bar, 1, meets, times(o.side, -side), called + ", at its middle rail,");
        const double half = wide_ / 2 / std::max(0.5, std::cos(bar.ends[1].saw_rad));
        if (4 * half > long_) // two of them on one middle rail
            return refuse(
                fmt::format("On a middle rail of {:g} the ends of two legs of {:.0f} each have no room.", long_, 2 * half),
                "A longer middle, narrower legs, or their feet further apart.");
        const double climbs = std::abs(out.z_mm), over = bar.height_mm / 2 * (1 / std::sqrt(1 - climbs * climbs) - 1);
        if (over > most_climb_mm)
            add("part-foot", PlanVerdict::Marginal,
                fmt::format("{} climbs by {:.0f} mm: its end stands {:.0f} mm over its middle rail's.", called,
                            std::abs(meets.z_mm - at(k).z_mm), over),
                "The opening's middle nearer to the height of its feet, or middle rails that are higher than its legs.");
        // of its feet and of the opening, as they are known
        std::vector<std::size_t> of = in_.at;
        bar.length_mm = build::figureOf(
            in_.places, of, [&](const std::vector<Vec3>& moved) { return geometry::between(moved[in_.at[k]], joint(moved, k)); });
        weigh(bar);
        bar.length_mm.value += tips(bar);
        if (const char* word = k < 2 ? "front-legs" : "rear-legs"; has(word)) {
            fromOriginal(bar, f(word));
            fact(fmt::format("cut off the original {}", bar.name), std::max(0.0, f(word) - bar.length_mm.value));
        }
        const double round = roundOf(bar), thick = bar.wall_mm;
        p_.seams.push_back({bar.name + " on the rail, all round", round / std::max(0.5, std::cos(bar.ends[0].saw_rad)), thick,
                            thick, at(k), true});
        p_.seams.push_back({bar.name + " on its middle rail, all round", round / std::max(0.5, std::cos(bar.ends[1].saw_rad)),
                            thick, thick, meets, false});
        p_.bars.push_back(std::move(bar));
        return true;
    }

    /// Over the opening welded; under it bolted, so that the shaft comes out. One of them ties its halves.
    void plates() {
        const Layout o = layout(in_.places.at);
        const double half = opening_ / 2 + wide_, high = f("across") / 2;
        if (!has("over") && f("under") <= 0)
            add("part-open", PlanVerdict::Fails, "Nothing ties its two middle rails: each half bends by itself.",
                "A plate over its opening, over 4; or one below that is bolted, under 5.");
        if (has("over")) {
            const double over = f("over"), a = long_ / 2 - shelf_mm, b = half - shelf_mm;
            FlatPiece top;
            top.name = "plate over the opening";
            top.thickness_mm = over;
            top.outline = {{-a, -b}, {a, -b}, {a, b}, {-a, b}};
            top.places = {{plus(o.middle, times(o.up, high)), o.ahead, o.side}};
            p_.seams.push_back({"the plate over the opening, all round", 4 * (a + b), std::min(over, f("wall")),
                                std::min(over, f("wall")), plus(o.middle, times(o.up, high)), false});
            p_.flats.push_back(std::move(top));
        }
        if (f("under") <= 0) {
            if (has("over")) skip("how the shaft comes out: rearwards, once it is off the gearbox; or say under 5");
            return;
        }
        const double under = f("under"), hole = or_("hole", 9);
        FlatPiece low;
        low.name = "plate under the opening";
        low.thickness_mm = under;
        low.outline = {{-long_ / 2, -half}, {long_ / 2, -half}, {long_ / 2, half}, {-long_ / 2, half}};
        const double across = (opening_ + wide_) / 2, along = long_ / 2 - bolt_from_end_mm;
        for (const double i : {-1.0, 1.0})
            for (const double j : {-1.0, 1.0}) low.holes.push_back({{i * along, j * across}, hole, "bolt"});
        const Vec3 below = minus(o.middle, times(o.up, high + under));
        low.places = {{below, o.ahead, o.side}};
        for (const FlatHole& h : low.holes) {
            PartBolt bolt;
            bolt.head = plus(below, plus(times(o.ahead, h.at.first), times(o.side, h.at.second)));
            bolt.along = o.up;
            bolt.hole_mm = hole;
            bolt.captive = true; // its nut is in a closed hollow
            bolt.grip_mm = under + f("wall");
            bolt.grip_known = true;
            p_.bolts.push_back(bolt);
        }
        p_.seams.push_back({"nuts in the middle rails, before these are closed", 4 * 3 * hole, 3, f("wall"), o.middle, false});
        p_.flats.push_back(std::move(low));
    }

    /// Two beams from rail to rail that share what presses on its middle, by where that is; the rails give nothing but height.
    void strength() {
        if (!loaded()) return skip("what it carries: say the most that presses on its middle, load 3000");
        const Layout o = layout(in_.places.at);
        const double load = f("load");
        const auto along = [&](std::size_t k) { return dot(minus(at(k), o.middle), o.ahead); };
        const double front = -(along(0) + along(1)) / 2, rear = (along(2) + along(3)) / 2;
        double across = 0; // what goes from side to side over the opening, twice
        double twists = 0; // at the middle rail where it is the most
        for (std::size_t k = 0; k < 4; ++k) {
            const double pair = load * (k < 2 ? rear : front) / (front + rear);
            const double left = dot(minus(o.middle, at(k < 2 ? 0 : 2)), o.side),
                         right = dot(minus(at(k < 2 ? 1 : 3), o.middle), o.side);
            const double bears_N = pair * (k % 2 ? left : right) / (left + right);
            const BarPiece& bar = p_.bars[k];
            const double arm = std::hypot(bar.to.x_mm - bar.from.x_mm, bar.to.y_mm - bar.from.y_mm);
            const BarSection s = sectionOf(bar);
            const double h = bar.height_mm, t = bar.wall_mm, w = wide_ / std::cos(bar.ends[1].saw_rad);
            const double bent = bears_N * arm / s.level_mm3, sheared = bears_N / (2 * t * (h - 2 * t));
            bears("part-stress", std::sqrt(bent * bent + 3 * sheared * sheared), in_.yield_mpa / yield_margin,
                  fmt::format("The {}, at its middle rail, stands under", bar.name), "Higher, wider or thicker legs.");
            weldBears(std::hypot(bears_N * arm / (w * h + h * h / 3), bears_N / (2 * h)), t,
                      fmt::format("the weld of the {}", bar.name));
            shearsWall(k, bears_N);
            across += bears_N * (k % 2 ? right : left);
            twists = std::max(twists, bears_N * ((k % 2 ? right : left) - (opening_ + wide_) / 2));
        }
        twistsMiddle(twists);
        ties(across / 2);
    }
    /// What bends a leg comes into its middle rail at the leg's end and leaves it along the plates: till then it twists the rail,
    /// at the most by all of it. Bredt: τ = T / 2 A t over the walls' middle lines.
    void twistsMiddle(double twist_Nmm) {
        const double t = f("wall"), area = (f("across") - t) * (wide_ - t);
        bears("part-stress", std::sqrt(3.0) * twist_Nmm / (2 * area * t), in_.yield_mpa / yield_margin,
              "Twisted by its legs a middle rail stands under", "Middle rails that are wider, higher or thicker.");
    }
    /// A leg bears on the rail as one that is hinged there: its weld's two upright runs shear the rail's wall.
    void shearsWall(std::size_t k, double sheared_N) {
        const std::string name = fmt::format("the {}", p_.bars[k].name);
        const Face face = faceAt(at(k), minus(at(k), p_.bars[k].to));
        const auto under = wallUnder(at(k), face.normal, name);
        if (!under) return;
        const double most =
            2 * std::min(p_.bars[k].height_mm, under->face_mm) * under->rail->thickness_mm * in_.yield_mpa / std::sqrt(3.0);
        wallTakes(yield_margin * sheared_N / most, *under, at(k), name);
    }
    /// What bends it over the opening: by both plates as a couple, by one alone as a flat beam.
    void ties(double bent_Nmm) {
        const std::string more = "A plate over and one under the opening, both thicker; or a lower load.";
        const double over = or_("over", 0), under = f("under"), most = in_.yield_mpa / yield_margin;
        if (over <= 0 && under <= 0) return; // said already
        const BoltSize* size = boltThrough(or_("hole", 9));
        const double bolt = size ? size->nominal : or_("hole", 9), shank = std::numbers::pi / 4 * bolt * bolt;
        if (over > 0 && under > 0) {
            const double pair = bent_Nmm / (f("across") + (over + under) / 2);
            constexpr double modulus_mpa = 205'000, poisson = 0.3;
            const double slender = over / (opening_ / 2), buckles = std::numbers::pi * std::numbers::pi * modulus_mpa /
                                                                    (12 * (1 - poisson * poisson)) * slender * slender;
            bears("part-stress", pair / (long_ * over), 1 / (1 / buckles + 1 / in_.yield_mpa) / yield_margin,
                  "Pressed, the plate over the opening stands under", more);
            bears("part-stress", pair / ((long_ - 2 * or_("hole", 9)) * under), most,
                  "Beside its bolts the plate under the opening is pulled by", more);
            bears("part-stress", pair / 2 / (bolt * std::min(under, f("wall"))), 1.5 * most,
                  "Its bolts press on their holes with", more);
            bears("part-stress", pair / 2 / shank, bolt_shear_mpa, "Its bolts (8.8) are sheared by", more);
            return;
        }
        const double t = std::max(over, under);
        bears("part-stress", bent_Nmm / (long_ * t * t / 6), most, "Over the opening its one plate is bent by", more);
        if (under > 0) // two on each side, prised about the middle rail's edge
            bears("part-stress", bent_Nmm / (wide_ / 2) / 2 / shank, bolt_pull_mpa, "Its bolts (8.8) are pulled by", more);
    }

    double opening_ = 0, long_ = 0, wide_ = 0;
};

/// Two legs from the rails to the middle of a crossmember.
class KMaker : BarMaker {
public:
    using BarMaker::BarMaker;

    PartPlan plan() {
        p_.size_mm = between(0, 1);
        p_.size_of = "from foot to foot on the rails";
        const Vec3 across = minus(at(1), at(0)), to = minus(at(2), geometry::along(at(0), at(1), 0.5));
        if (geometry::length(across) < 100 || geometry::length(cross(across, to)) < 50 * geometry::length(across) ||
            at(0).y_mm > at(1).y_mm) {
            add("part-outline", PlanVerdict::Fails, "Its places are not left rail, right rail, crossmember.",
                "First where its legs meet the left and the right rail, then the middle on the crossmember's face.");
            return done();
        }
        for (std::size_t k = 0; k < 2; ++k)
            if (!leg(k)) return done();
        strength();
        skip(loaded() ? "the crossmember's wall that its legs are welded to" : "the walls that its ends are welded to");
        return done();
    }

private:
    struct Layout {
        Vec3 across, towards;
    };
    Layout layout(const std::vector<Vec3>& p) const {
        const Vec3 &l = p[in_.at[0]], &r = p[in_.at[1]], &m = p[in_.at[2]];
        Layout o;
        o.across = unit(minus(r, l));
        const Vec3 to = minus(m, geometry::along(l, r, 0.5));
        const Vec3 up = unit(minus({0, 0, 1}, times(o.across, o.across.z_mm)));
        o.towards = cross(up, o.across); // to the front
        if (dot(o.towards, to) < 0) o.towards = times(o.towards, -1);
        return o;
    }
    double side() const { return has("wide") ? f("wide") : f("across"); }
    /// Beside the other, so far apart as is said, or with room for a weld between.
    Vec3 joint(const std::vector<Vec3>& p, std::size_t k) const {
        const Layout o = layout(p);
        const double sense = k == 0 ? -1 : 1;
        double apart = or_("apart", 0);
        Vec3 at = p[in_.at[2]];
        for (int round = 0; round < 20; ++round) {
            at = plus(p[in_.at[2]], times(o.across, sense * apart / 2));
            if (has("apart")) break;
            const double square = std::max(0.2, std::abs(dot(unit(minus(at, p[in_.at[k]])), o.towards)));
            apart = side() / square + weld_room_mm;
        }
        return at;
    }
    bool leg(std::size_t k) {
        const Layout o = layout(in_.places.at);
        const Vec3 meets = joint(in_.places.at, k);
        BarPiece bar = barBetween(k == 0 ? "left leg" : "right leg", at(k), meets);
        if (!fits(bar)) return false;
        const Face face = faceAt(at(k), minus(at(k), meets));
        if (!face.of_rail) skip(fmt::format("what the {} meets: no rail is there, and it is cut square", bar.name));
        cutEnd(bar, 0, at(k), face.normal, fmt::format("The {}, at the rail,", bar.name));
        cutEnd(bar, 1, meets, o.towards, fmt::format("The {}, at the crossmember,", bar.name));
        const double half = side() / 2 / std::max(0.2, std::cos(bar.ends[1].saw_rad));
        if (dot(minus(meets, at(2)), o.across) * (k == 0 ? -1 : 1) < half) {
            add("part-outline", PlanVerdict::Fails,
                fmt::format("On the crossmember its legs want {:.0f} mm from middle to middle.", 2 * half),
                "Say no apart: then they stand side by side.");
            return false;
        }
        bar.length_mm = build::figureOf(in_.places, in_.at, [&](const std::vector<Vec3>& moved) {
            return geometry::between(moved[in_.at[k]], joint(moved, k));
        });
        weigh(bar);
        bar.length_mm.value += tips(bar);
        for (std::size_t end = 0; end < 2; ++end)
            p_.seams.push_back({fmt::format("{} on {}, all round", bar.name, end == 0 ? "the rail" : "the crossmember"),
                                roundOf(bar) / std::max(0.5, std::cos(bar.ends[end].saw_rad)), bar.wall_mm, bar.wall_mm,
                                end == 0 ? at(k) : meets, true});
        p_.bars.push_back(std::move(bar));
        return true;
    }
    void strength() {
        if (!loaded()) return skip("what it carries: say the most that pushes along a leg, load 5000");
        for (const BarPiece& bar : p_.bars) {
            const BarSection s = sectionOf(bar);
            const double length = geometry::between(bar.from, bar.to);
            struts(f("load"), s.area, s.least_mm4, length,
                   fmt::format("A wider section: the {} is {:.0f} mm long.", bar.name, length));
            weldBears(f("load") / roundOf(bar), bar.wall_mm, fmt::format("the weld round the {}", bar.name));
            const Vec3 along = unit(minus(bar.to, bar.from));
            if (const Face face = faceAt(bar.from, times(along, -1)); face.of_rail)
                wallBears({bar.from, face.normal, along, bar.height_mm, bar.round ? bar.height_mm : bar.width_mm, bar.round,
                           fmt::format("the {}", bar.name), bar.wall_mm},
                          f("load"), 0);
        }
    }
    static constexpr double weld_room_mm = 10;
};

} // namespace

PartPlan xMemberPlan(const PartIn& in) { return XMaker(in).plan(); }
PartPlan kBracePlan(const PartIn& in) { return KMaker(in).plan(); }

} // namespace gorvet::make
