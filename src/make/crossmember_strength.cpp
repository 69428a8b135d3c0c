#include "make/crossmember_strength.hpp"

#include "make/fasteners.hpp"
#include "make/part_maker.hpp"

#include <cmath>
#include <numbers>

namespace gorvet::make {

namespace {

/// A box with the corners that it is bought with: 2 t outside, t inside.
struct BoxSection {
    double area, level_mm3, upright_mm3; ///< moduli for bending up and down, fore and aft
    double cell_mm2;                     ///< within its wall's middle
    double sides_mm2;                    ///< of the two upright walls
    double h, w, t;
};
BoxSection boxSection(const CrossmemberDesign& d) {
    const double h = d.box_height_mm, w = d.box_width_mm, t = d.box_wall_mm;
    // round corners take from the sharp box's second moments what stands there, at about their place
    const double missing = (4 - std::numbers::pi) * (4 * t * t - t * t) / 4; // of one corner
    const auto moment = [&](double high, double wide) {
        const double sharp = (wide * high * high * high - (wide - 2 * t) * std::pow(high - 2 * t, 3)) / 12;
        return sharp - 4 * missing * std::pow(high / 2 - 0.7 * t, 2);
    };
    return {boxArea(h, w, t), moment(h, w) / (h / 2), moment(w, h) / (w / 2), (h - t) * (w - t), 2 * t * (h - 2 * t), h, w, t};
}

class Bridge {
public:
    Bridge(const CrossmemberInput& in, const CrossmemberPlan& p) : in_(in), p_(p), s_(boxSection(in.design)) {}

    BridgeStrength worst() {
        const double load = *in_.design.load_N, thrust = share_fore_and_aft * load;
        const double left = in_.gearbox_mount.y_mm - p_.rail_inner_left_mm,
                     right = p_.rail_inner_right_mm - in_.gearbox_mount.y_mm, length = left + right;
        const double most = std::max(left, right) / length; // the nearer end takes the more
        // of the mount above the axis of what carries it
        const double arm = in_.gearbox_mount.z_mm - (p_.box_top_mm + p_.box_bottom_mm) / 2;
        const double twist = thrust * std::abs(arm);
        beam("the bridge's middle", load * left * right / length, thrust * left * right / length, most * twist, most * load);
        if (p_.dropped)
            for (const Leg* leg : {&p_.dropped->left, &p_.dropped->right}) {
                const double run = std::abs(leg->joint_y_mm - leg->flange_y_mm),
                             reaction = load * (leg == &p_.dropped->left ? right : left) / length;
                const double fore = thrust * reaction / load;
                // the thrust bends a leg fore and aft and, below its flange, twists it: its arm from the leg's upper end
                const double drop = std::abs(leg->flange_z_mm - (p_.box_top_mm + p_.box_bottom_mm) / 2);
                weld("the mitres", reaction * run, fore * run, most * twist + fore * drop, reaction);
                beam("a leg", reaction * run, fore * run, most * twist + fore * drop, reaction);
            }
        const double drop = p_.dropped ? p_.dropped->drop_mm : 0;
        const double end_twist = most * twist + most * thrust * drop;
        weld("the welds on the flanges", 0, 0, end_twist, most * load, most * thrust);
        bolts(most * load, most * thrust, end_twist);
        return worst_;
    }

private:
    void take(const char* at, double stress, double limit, const char* mend) {
        if (const double share = stress / limit; share > worst_.used) worst_ = {share, at, mend, stress, limit};
    }
    double yield() const { return in_.design.yield_mpa; }

    void beam(const char* at, double up, double fore, double twist, double sheared) {
        const double along = up / s_.level_mm3 + fore / s_.upright_mm3;
        const double across = twist / (2 * s_.cell_mm2 * s_.t) + sheared / s_.sides_mm2;
        take(at, std::sqrt(along * along + 3 * across * across), yield() / yield_margin, "A higher box, or a thicker one.");
    }
    /// Fillets all round, as lines: on their throats, and on the steel beside them.
    void weld(const char* at, double up, double fore, double twist, double sheared, double thrust = 0) {
        const double round = 2 * (s_.h + s_.w), level = s_.w * s_.h + s_.h * s_.h / 3, upright = s_.h * s_.w + s_.w * s_.w / 3;
        const double pulled = up / level + fore / upright,
                     slides = twist / (2 * s_.h * s_.w) + std::hypot(sheared, thrust) / (round / 2);
        const double line = std::hypot(pulled, slides), leg = std::max(s_.t, 3.0);
        take(at, line / (throat_share * leg), weld_mpa, "A plate on both sides of it.");
        take(at, line / leg, base_share * yield(), "A thicker box, or a plate on both sides of it.");
    }
    void bolts(double down, double thrust, double twist) {
        const BoltSize* size = boltSize(in_.design.bolt_mm);
        if (!size) return;
        const Plate& plate = p_.left;
        const auto n = static_cast<double>(plate.holes.size());
        double middle[2] = {0, 0}, polar = 0, farthest = 0, low = 1e18, high = -1e18;
        for (const Hole& h : plate.holes) {
            middle[0] += h.x_mm / n;
            middle[1] += h.z_mm / n;
            low = std::min(low, h.z_mm);
            high = std::max(high, h.z_mm);
        }
        for (const Hole& h : plate.holes) {
            const double r = std::hypot(h.x_mm - middle[0], h.z_mm - middle[1]);
            polar += r * r;
            farthest = std::max(farthest, r);
        }
        const double each = std::hypot(down, thrust) / n + (polar > 0 ? twist * farthest / polar : 0);
        const double d = size->nominal, area = std::numbers::pi / 4 * d * d;
        take("the bolts' shanks", each / area, bolt_shear_mpa, "Thicker bolts.");
        // the bridge's end stands off the rail's face by the flange: its upper row is pulled
        const double rows = high - low;
        const double pull = rows > 1 ? down * in_.design.flange_mm / rows / (n / 2) : down * in_.design.flange_mm / (1.5 * d) / n;
        take("the bolts, pulled", pull / area, bolt_pull_mpa, "Thicker bolts, or rows further apart.");
        const double thin = std::min(in_.design.flange_mm, in_.left.thickness_mm);
        take("the bolts in their holes", each / (d * thin), 1.5 * yield() / yield_margin,
             "Thicker bolts, or a plate on the rail.");
    }

    const CrossmemberInput& in_;
    const CrossmemberPlan& p_;
    BoxSection s_;
    BridgeStrength worst_;
};

} // namespace

BridgeStrength bridgeStrength(const CrossmemberInput& in, const CrossmemberPlan& p) { return Bridge(in, p).worst(); }

} // namespace gorvet::make
