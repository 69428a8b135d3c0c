// What carries a body while it is off: a beam that it is lifted by, a frame on castors.
#include "make/bar_maker.hpp"
#include "make/crossmember.hpp"

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

constexpr double lifting_margin = 3; ///< to yield: it swings, and jerks
constexpr double castor_holes_in_mm = 12;

class CarryMaker : BarMaker {
public:
    using BarMaker::BarMaker;

    /// A bar with an eye under each end and one above where the hook takes it.
    PartPlan liftingBeam() {
        const double t = f("sheet"), hole = f("hole"), edge = or_("edge", 1.75 * hole);
        BarPiece bar = barBetween("bar", at(0), at(1));
        p_.size_mm = between(0, 1);
        p_.size_of = "from eye to eye";
        p_.apart = true;
        if (!fits(bar)) return done();
        const Vec3 along = unit(minus(at(1), at(0)));
        const double reach = dot(minus(at(2), at(0)), along) / p_.size_mm.value, h = bar.height_mm,
                     w = bar.width_mm > 0 ? bar.width_mm : h;
        if (std::abs(along.z_mm) > 0.35 || reach < 0.1 || reach > 0.9) {
            add("part-outline", PlanVerdict::Fails,
                reach < 0.1 || reach > 0.9 ? "Its hook is not between its eyes."
                                           : "Its eyes are too far from level: it turns over.",
                "First its two lower eyes, then the place under the hook, over what is lifted.");
            return done();
        }
        // its middle stands over its lower eyes; a hand's width longer at both ends
        const double below = h / 2 + edge;
        const Vec3 up = bar.up;
        bar.from = minus(plus(at(0), times(up, below)), times(along, 2 * edge));
        bar.to = plus(plus(at(1), times(up, below)), times(along, 2 * edge));
        cutEnd(bar, 0, bar.from, times(along, -1), "The bar");
        cutEnd(bar, 1, bar.to, along, "The bar");
        bar.length_mm = {p_.size_mm.value + 4 * edge, p_.size_mm.u95, p_.size_mm.provenance};
        weigh(bar);
        FlatPiece eye;
        eye.name = "eye";
        eye.count = 3;
        eye.thickness_mm = t;
        eye.outline = {{-2 * edge, 0}, {2 * edge, 0}};
        for (int k = 0; k <= 24; ++k) {
            const double phi = std::numbers::pi * k / 24;
            eye.outline.emplace_back(edge * std::cos(phi), edge + edge * std::sin(phi));
        }
        eye.holes = {{{0, edge}, hole, "shackle"}};
        for (const std::size_t k : {std::size_t{0}, std::size_t{1}}) { // upside down, its feet under the bar
            const Vec3 foot = plus(at(k), times(up, edge)), x = times(along, -1), y = times(up, -1);
            eye.places.push_back({minus(foot, times(cross(x, y), t / 2)), x, y});
        }
        const Vec3 top = plus(plus(at(0), times(along, reach * p_.size_mm.value)), times(up, below + h / 2));
        eye.places.push_back({minus(top, times(cross(along, up), t / 2)), along, up});
        p_.flats.push_back(std::move(eye));
        const double leg = std::min(t, bar.wall_mm), foot = 4 * edge;
        for (const char* which : {"its left eye, both sides", "its right eye, both sides", "its upper eye, both sides"})
            p_.seams.push_back({which, 2 * foot, leg, leg, which[4] == 'u' ? top : at(which[4] == 'l' ? 0 : 1), false});
        const double ratio = std::max(reach, 1 - reach);
        fact("the hook from its left eye", reach * p_.size_mm.value);
        fact("the eye nearest to the hook takes", fmt::format("{:.0f} %", 100 * ratio));
        add("part-lifting", PlanVerdict::Marginal, "Nobody stands under what hangs on it, and nobody's fingers between.",
            "Proved with one and a quarter times its load a hand's width off the floor, and marked with it, before it lifts anything.");
        if (!loaded()) {
            skip("what it carries: say the weight that hangs on it, load 4000");
        } else {
            const double load = f("load"), length = p_.size_mm.value, moment = load * reach * (1 - reach) * length;
            const BarSection s = sectionOf(bar);
            const double allowed = in_.yield_mpa / lifting_margin;
            bears("part-stress", moment / s.level_mm3, allowed, "Under the hook the bar stands under", "A higher bar.");
            bears("part-stress", load / ((2 * edge - hole) * t), allowed, "Beside its hole the upper eye is pulled by",
                  "A thicker eye.");
            bears("part-stress", load / (2 * (edge - hole / 2) * t), 0.577 * allowed, "Over its hole the upper eye is sheared by",
                  "A thicker eye.");
            // out of the upright by a tenth, its foot bends across
            bears("part-stress", 0.1 * load * edge / (foot * t * t / 6), allowed, "Swinging, the upper eye's foot stands under",
                  "A thicker eye.");
            weldBears(2 * load / (2 * foot), leg, "the weld of its upper eye"); // twice: it jerks
        }
        skip(fmt::format("shackles and slings; that a bar {:.0f} wide does not fall over sideways", w));
        p_.bars.push_back(std::move(bar));
        return done();
    }

    /// Two long bars, three across, four posts up to what stands on it, four plates for castors.
    PartPlan skate() {
        const double post = or_("post", 0), castor = f("castor"), t = f("plate"), hole = f("hole"), side = f("across");
        p_.size_mm = between(0, 3);
        p_.size_of = "from its front left support to its rear right";
        const Vec3 ahead = unit(minus(geometry::along(at(2), at(3), 0.5), geometry::along(at(0), at(1), 0.5)));
        const Vec3 x = unit({ahead.x_mm, ahead.y_mm, 0}), y = cross({0, 0, 1}, x);
        p_.apart = true;
        double low = 1e18, out = 0, front = 1e18, rear = -1e18;
        const Vec3 middle = geometry::along(geometry::along(at(0), at(1), 0.5), geometry::along(at(2), at(3), 0.5), 0.5);
        for (std::size_t k = 0; k < 4; ++k) {
            const Vec3 q = minus(at(k), middle);
            low = std::min(low, at(k).z_mm);
            out = std::max(out, std::abs(dot(q, y)));
            front = std::min(front, dot(q, x));
            rear = std::max(rear, dot(q, x));
        }
        if (std::abs(ahead.z_mm) > 0.3 || out < 150 || rear - front < 300 || 2 * f("wall") >= side ||
            dot(minus(at(1), at(0)), y) < 0) {
            add("part-outline", PlanVerdict::Fails,
                2 * f("wall") >= side ? fmt::format("A wall of {:g} mm does not fit into {:g}.", f("wall"), side)
                                      : std::string("Its places are not left and right in front, then left and right behind."),
                "Where what it carries stands on it: front left, front right, rear left, rear right.");
            return done();
        }
        const double top = low - post, level = top - side / 2; // of its frame
        const auto on = [&](double a, double b, double height) {
            Vec3 q = plus(middle, plus(times(x, a), times(y, b)));
            q.z_mm = height;
            return q;
        };
        const auto bar = [&](std::string name, const Vec3& from, const Vec3& to, int count) {
            BarPiece b = barBetween(std::move(name), from, to);
            b.round = false;
            b.width_mm = side;
            b.count = count;
            const Vec3 along = unit(minus(to, from));
            cutEnd(b, 0, from, times(along, -1), b.name);
            cutEnd(b, 1, to, along, b.name);
            b.length_mm = {geometry::between(from, to), p_.size_mm.u95, p_.size_mm.provenance};
            weigh(b);
            return b;
        };
        for (const double s : {-1.0, 1.0})
            p_.bars.push_back(bar(s < 0 ? "long bar left" : "long bar right", on(front - side / 2, s * out, level),
                                  on(rear + side / 2, s * out, level), 1));
        for (const double a : {front, (front + rear) / 2, rear})
            p_.bars.push_back(bar(a == front  ? "front bar"
                                  : a == rear ? "rear bar"
                                              : "middle bar",
                                  on(a, -out + side / 2, level), on(a, out - side / 2, level), 1));
        static const char* const names[] = {"post front left", "post front right", "post rear left", "post rear right"};
        for (std::size_t k = 0; k < 4; ++k) {
            if (const double high = at(k).z_mm - top; high > 5) { // on its long bar, straight under its support
                const Vec3 q = minus(at(k), middle);
                const double b = k % 2 ? out : -out;
                if (std::abs(dot(q, y) - b) > side / 2)
                    add("part-foot", PlanVerdict::Marginal,
                        fmt::format("The {} stands {:.0f} mm inside of its support.", names[k], std::abs(dot(q, y) - b)),
                        "A board across the two, or a bar moved in.");
                p_.bars.push_back(bar(names[k], on(dot(q, x), b, top), on(dot(q, x), b, at(k).z_mm), 1));
                p_.seams.push_back(
                    {fmt::format("{}, all round", names[k]), 4 * side, f("wall"), f("wall"), on(dot(q, x), b, top), false});
            }
        }
        FlatPiece plate;
        plate.name = "castor plate";
        plate.count = 4;
        plate.thickness_mm = t;
        const double half = std::max(side, f("castor-plate")) / 2, in = half - castor_holes_in_mm - hole / 2;
        plate.outline = {{-half, -half}, {half, -half}, {half, half}, {-half, half}};
        for (const double i : {-1.0, 1.0})
            for (const double j : {-1.0, 1.0}) plate.holes.push_back({{i * in, j * in}, hole, "bolt"});
        for (const double a : {front, rear})
            for (const double b : {-out, out}) plate.places.push_back({on(a, b, level - side / 2 - t), x, y});
        p_.flats.push_back(std::move(plate));
        p_.seams.push_back({"its bars across, all round", 6 * 4 * side, f("wall"), f("wall"), on(0, 0, level), false});
        p_.seams.push_back({"its castor plates", 4 * 2 * side, f("wall"), f("wall"), on(front, -out, level), false});
        fact("what stands on it is over the floor by", castor + t + side + post);
        const double wide = 2 * out, high = castor + t + side + post + f("high");
        fact("its track against its height", fmt::format("{:.2f}", wide / high));
        if (wide < 0.6 * high)
            add("part-tips", PlanVerdict::Marginal,
                fmt::format("It stands {:.0f} wide under {:.0f} of height: a threshold tips it over.", wide, high),
                "Wider, or lower castors; two people, and never sideways over a sill.");
        if (loaded()) {
            // a long bar between its castors, half of the load in its middle
            const BarSection s = sectionOf(p_.bars.front());
            bears("part-stress", f("load") / 2 * (rear - front) / 4 / s.level_mm3, in_.yield_mpa / yield_margin,
                  "Its long bars stand under", "Higher bars, or a castor under their middle.");
            fact("each castor bears, on three of them", fmt::format("{:.0f} N", f("load") / 2));
        } else {
            skip("what it carries: say what stands on it, load 5000");
        }
        skip("the floor that it rolls on: what stands on three castors twists");
        return done();
    }
};

} // namespace

PartPlan liftingBeamPlan(const PartIn& in) { return CarryMaker(in).liftingBeam(); }
PartPlan skatePlan(const PartIn& in) { return CarryMaker(in).skate(); }

} // namespace gorvet::make
