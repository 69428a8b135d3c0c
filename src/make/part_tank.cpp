// Tanks welded of flat sheet: what they hold, by height, as they sit.
#include "make/part_maker.hpp"
#include "make/tank_volume.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

namespace {

constexpr double full_share = 0.95; ///< what is left for the fuel to swell into
constexpr double fuel_kg_l = 0.76;  ///< petrol, as usual
constexpr double passage_mm = 20;   ///< cut off the corners of a baffle
constexpr double baffle_hole_mm = 60, most_between_baffles_mm = 300, strap_wide_mm = 30, strap_mm = 3, from_end_share = 0.22;

class TankMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    PartPlan plan() {
        t_ = f("sheet");
        deep_ = f("deep");
        end_ = or_("deep-end", deep_);
        p_.size_mm = between(0, 2);
        p_.size_of = "from its front to its rear, below";
        long_ = p_.size_mm.value;
        const Vec3 to_right = minus(at(1), at(0));
        x_ = unit(minus(at(2), at(0)));
        const double off_square = dot(to_right, x_);
        wide_ = geometry::length(minus(to_right, times(x_, off_square)));
        if (long_ < 100 || wide_ < 100 || std::min(deep_, end_) < 40)
            return refuse("It is smaller than a tank can be welded.", "Its corners below: front left, front right, rear left.");
        y_ = unit(minus(to_right, times(x_, off_square)));
        z_ = cross(x_, y_);
        if (z_.z_mm < 0.7)
            return refuse("Its bottom lies upside down or on edge.", "Its corners below: front left, front right, rear left.");
        if (std::abs(off_square) > most_off_square_mm)
            add("part-square", PlanVerdict::Marginal,
                fmt::format("Its three corners stand {:.0f} mm out of square; it is made square from the front left.",
                            std::abs(off_square)),
                "Mark them again, or mark the room that it has and not its old seams.");
        if (std::abs(end_ - deep_) / long_ > 0.6) return refuse("Its top is steeper than a tank is made.", "Less of a wedge.");
        pieces();
        holds();
        straps();
        add("part-tank", PlanVerdict::Marginal,
            "A tank is pressed and vented before it is filled; one that was used is cut and welded by licensed hands only.",
            "Air at 0.2 bar under soapy water, an hour; vented above its highest place; away from exhaust and anything that moves.");
        skip("filler neck, sender, vent and outlet: their flanges and lines");
        skip("what hits it: it lies inside of the frame, or a licensed engineer says otherwise");
        return done();
    }

private:
    static constexpr double most_off_square_mm = 4;

    PartPlan refuse(std::string sentence, std::string remedy) {
        add("part-outline", PlanVerdict::Fails, std::move(sentence), std::move(remedy));
        return done();
    }
    Vec3 on(double x, double y, double z) const { return plus(at(0), plus(times(x_, x), plus(times(y_, y), times(z_, z)))); }
    /// Height of its outside at a distance from its front.
    double high(double x) const { return deep_ + (end_ - deep_) * x / long_; }

    void pieces() {
        // sides outside of everything; bottom and top between them; ends between all four
        const double t = t_, slope = (end_ - deep_) / long_, slant = std::sqrt(1 + slope * slope), inside = wide_ - 2 * t;
        FlatPiece side;
        side.name = "side";
        side.count = 2;
        side.thickness_mm = t;
        side.outline = {{0, 0}, {long_, 0}, {long_, end_}, {0, deep_}};
        side.places = {{on(0, t, 0), x_, z_}, {on(0, wide_, 0), x_, z_}}; // x × z is −y
        FlatPiece bottom;
        bottom.name = "bottom";
        bottom.thickness_mm = t;
        bottom.outline = {{0, 0}, {long_, 0}, {long_, inside}, {0, inside}};
        bottom.places = {{on(0, t, 0), x_, y_}};
        bottom.holes = {{{long_ - 40, inside / 2}, 14, "drain"}};
        if (dot(x_, {0, 0, 1}) > 0) bottom.holes[0].at.first = 40; // where it is lowest
        FlatPiece top;
        top.name = "top";
        top.thickness_mm = t;
        const double whole = long_ * slant;
        // its square ends stay within both end planes
        const double less = std::abs(slope) * t;
        const double begins = slope < 0 ? less : 0, ends = slope > 0 ? whole - less : whole;
        const Vec3 along = unit(plus(x_, times(z_, slope))), normal = cross(along, y_);
        top.outline = {{begins, 0}, {ends, 0}, {ends, inside}, {begins, inside}};
        top.places = {{minus(on(0, t, deep_), times(normal, t)), along, y_}};
        p_.flats = {side, bottom, top};
        const double under_top = t * slant;
        const auto across = [&](const char* name, double from, bool baffle) {
            FlatPiece plate;
            plate.name = name;
            plate.thickness_mm = t;
            const double lower = std::min(high(from), high(from + t)) - under_top - t;
            if (!baffle) {
                plate.outline = {{0, 0}, {inside, 0}, {inside, lower}, {0, lower}};
            } else { // fuel runs through below, air above
                const double c = std::min(passage_mm, lower / 4);
                plate.outline = {{c, 0},     {inside - c, 0}, {inside, c}, {inside, lower - c}, {inside - c, lower},
                                 {c, lower}, {0, lower - c},  {0, c}};
                if (lower > 2.2 * baffle_hole_mm && inside > 2.2 * baffle_hole_mm)
                    plate.holes = {{{inside / 2, lower / 2}, baffle_hole_mm, "passage"}};
            }
            plate.places = {{on(from, t, t), y_, z_}}; // y × z is x: to the rear
            return plate;
        };
        p_.flats.push_back(across("front", 0, false));
        p_.flats.push_back(across("rear", long_ - t, false));
        const int baffles =
            static_cast<int>(has("baffles") ? std::lround(f("baffles"))
                                            : std::max(0L, std::lround(std::ceil(long_ / most_between_baffles_mm)) - 1));
        for (int k = 0; k < baffles; ++k)
            p_.flats.push_back(across(baffles == 1 ? "baffle" : fmt::format("baffle {}", k + 1).c_str(),
                                      long_ * (k + 1) / (baffles + 1) - t / 2, true));
        if (const double apart = long_ / (baffles + 1); apart > 1.5 * most_between_baffles_mm)
            add("part-baffle", PlanVerdict::Marginal, fmt::format("Its fuel runs {:.0f} mm to and fro.", apart),
                fmt::format("Baffles, so that it is {:.0f} at the most.", most_between_baffles_mm));
        const double slope_len = whole;
        p_.seams.push_back(
            {"its long seams, outside", 2 * long_ + 2 * slope_len, t, t, on(long_ / 2, wide_ / 2, deep_ / 2), false});
        p_.seams.push_back(
            {"its ends, all round", 2 * inside * 2 + 2 * (deep_ + end_), t, t, on(long_, wide_ / 2, end_ / 2), false});
        if (baffles)
            p_.seams.push_back(
                {"its baffles, stitched", baffles * 0.4 * 2 * (inside + deep_), t, t, on(long_ / 2, wide_ / 2, 0), false});
        baffles_ = baffles;
    }

    /// Of its inside, level, as it sits.
    void holds() {
        const double t = t_, slope = (end_ - deep_) / long_, under = t * std::sqrt(1 + slope * slope);
        std::array<Vec3, 8> corner;
        for (std::size_t k = 0; k < 8; ++k) {
            const double x = k & 1 ? long_ - t : t, y = k & 2 ? wide_ - t : t;
            corner[k] = on(x, y, k & 4 ? high(x) - under : t);
        }
        double low = 1e18, top = -1e18;
        for (const Vec3& c : corner) {
            low = std::min(low, c.z_mm);
            top = std::max(top, c.z_mm);
        }
        const double whole = hexahedronBelow(corner, top + 1) / 1e6;
        const double inner = (high(0) + high(long_)) / 2, baffle_l = baffles_ * t * (wide_ - 2 * t) * (inner - 2 * t) / 1e6;
        litres_ = full_share * (whole - baffle_l);
        // by its two sides, as they are known
        const Figure side = between(0, 1);
        const double u95 = litres_ * std::hypot(p_.size_mm.u95 / long_, side.u95 / wide_);
        fact("holds, filled to 95 %", fmt::format("{:.1f} ± {:.1f} l", litres_, u95));
        fact("its fuel weighs", fmt::format("{:.0f} kg", fuel_kg_l * litres_));
        for (const double share : {0.25, 0.5, 0.75}) { // the stick, from its lowest place up
            double a = low, b = top;
            for (int k = 0; k < 50; ++k) {
                const double middle = (a + b) / 2;
                (hexahedronBelow(corner, middle) / 1e6 < share * whole ? a : b) = middle;
            }
            fact(fmt::format("{:.1f} l stand over its lowest by", share * (whole - baffle_l)), a - low);
        }
        if (has("litres") && litres_ - u95 < f("litres"))
            add("part-small", litres_ < f("litres") ? PlanVerdict::Fails : PlanVerdict::Marginal,
                fmt::format("It holds {:.1f} ± {:.1f} l, and {:g} are wanted.", litres_, u95, f("litres")),
                fmt::format("{:.0f} mm deeper all along, or longer.",
                            std::ceil((f("litres") - litres_ + u95) / full_share * 1e6 / ((long_ - 2 * t) * (wide_ - 2 * t)))))
                .of(fmt::format("{:.1f} l", litres_), fmt::format("≥ {:g} l", f("litres")));
    }

    /// Two straps under it and up both its sides: what they hang on is spotted through.
    void straps() {
        const double m = strap_mm;
        for (const double share : {from_end_share, 1 - from_end_share}) {
            const double x = long_ * share, half = strap_wide_mm / 2, up = std::min(high(x - half), high(x + half));
            FlatPiece strap;
            strap.name = share < 0.5 ? "front strap" : "rear strap";
            strap.thickness_mm = m;
            strap.along_mm = strap_wide_mm;
            strap.section = {{-m, -m}, {wide_ + m, -m}, {wide_ + m, up}, {wide_, up}, {wide_, 0}, {0, 0}, {0, up}, {-m, up}};
            const double allowance = bendAllowance(right_angle, m, m),
                         flat = wide_ + 2 * m + 2 * (up + m) - 2 * (2 * 2 * m - allowance);
            strap.outline = {{0, 0}, {flat, 0}, {flat, strap_wide_mm}, {0, strap_wide_mm}};
            const double bend = up + m - 2 * m + allowance / 2;
            for (const double at_x : {bend, flat - bend})
                strap.bends.push_back({{at_x, 0}, {at_x, strap_wide_mm}, right_angle, m, allowance});
            strap.places = {{on(x - strap_wide_mm / 2, 0, 0), y_, z_}};
            p_.flats.push_back(std::move(strap));
        }
        skip("what its straps hang on, and the rubber between: spot their holes through");
    }

    static constexpr double right_angle = 1.5707963267948966;
    double t_ = 0, deep_ = 0, end_ = 0, long_ = 0, wide_ = 0, litres_ = 0;
    int baffles_ = 0;
    Vec3 x_, y_, z_;
};

} // namespace

PartPlan tankPlan(const PartIn& in) { return TankMaker(in).plan(); }

} // namespace gorvet::make
