#include "stretch/axle.hpp"

#include "stretch/parts.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::AxleJob;
using build::PlanVerdict;
using build::Provenance;
using build::Remark;

constexpr double pothole_g = 3;     ///< engineering.md: load cases
constexpr double weld_toe_mpa = 36; ///< ± 1 g, engineering.md

std::string inMm(double v) { return fmt::format("{} mm", units::fixed(v, 1)); }

class Narrowing {
public:
    explicit Narrowing(const AxleInput& in) : in_(in), a_(in.job) {}

    AxlePlan plan() {
        places();
        shafts();
        perches();
        tyres();
        tube();
        assumptions();
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        if (!p_.missing.empty() || (!p_.assumed.empty() && p_.changes)) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& x, const Remark& y) { return x.verdict > y.verdict; });
        return std::move(p_);
    }

private:
    Remark& say(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    /// Where a gap stands against what it needs and the least that does not touch.
    static PlanVerdict band(double gap, double needed, double least) {
        return gap >= needed ? PlanVerdict::Holds : gap >= least ? PlanVerdict::Marginal : PlanVerdict::Fails;
    }
    double perchesThen() const { return (a_.perches_wanted ? *a_.perches_wanted : *a_.perches).value; }
    /// The perch's outer edge, from the middle between the faces.
    double perchEdge() const { return perchesThen() / 2 + a_.perch.value / 2; }

    void places() {
        p_.faces_now_mm = a_.faces.value;
        p_.faces_mm = a_.faces_wanted ? a_.faces_wanted->value : a_.faces.value;
        const double pinion_then = a_.pinion_wanted ? a_.pinion_wanted->value : a_.pinion.value;
        p_.pinion_moves_mm = pinion_then - a_.pinion.value;
        for (std::size_t k = 0; k < 2; ++k) {
            AxleSide& s = p_.sides[k];
            const double sign = k == 0 ? 1 : -1; // the pinion stands to the right: the left side is the longer
            s.now_mm = p_.faces_now_mm / 2 + sign * a_.pinion.value;
            s.then_mm = p_.faces_mm / 2 + sign * pinion_then;
            s.cut_mm = s.now_mm - s.then_mm;
            p_.changes = p_.changes || std::abs(s.cut_mm) > 0.05;
            if (a_.perches)
                s.perch_moves_mm = (perchesThen() / 2 + sign * pinion_then) - (a_.perches->value / 2 + sign * a_.pinion.value);
        }
        if (std::abs(p_.pinion_moves_mm) > 0.5)
            say("pinion-moves", PlanVerdict::Marginal,
                fmt::format("The pinion goes {} to the {}: the prop-shaft runs at another angle in plan.",
                            inMm(std::abs(p_.pinion_moves_mm)), p_.pinion_moves_mm > 0 ? "right" : "left"),
                "Add it to the angle in side view; both joints must still be alike, or take the same off both sides.");
    }

    void shafts() {
        const std::array<std::optional<build::Dimension>, 2> has{a_.shaft_left, a_.shaft_right};
        for (std::size_t k = 0; k < 2; ++k) {
            AxleSide& s = p_.sides[k];
            if (!has[k]) continue;
            s.shaft_now_mm = has[k]->value;
            s.shaft_mm = has[k]->value - s.cut_mm;
            const auto& other = has[1 - k];
            constexpr double alike_mm = 1;
            s.other_fits = std::abs(s.cut_mm) > 0.05 && other && std::abs(other->value - *s.shaft_mm) <= alike_mm;
        }
        for (std::size_t k = 0; k < 2; ++k)
            if (std::abs(p_.sides[k].cut_mm) > 0.05) shaft(k);
    }
    void shaft(std::size_t k) {
        AxleSide& s = p_.sides[k];
        const std::string other =
            s.other_fits ? fmt::format(" A second {} shaft, as it is, has the length.", sideWord(1 - k)) : "";
        if (s.cut_mm < 0) {
            say("shaft-short", PlanVerdict::Fails,
                fmt::format("The {} half-shaft is {} too short.", sideWord(k), inMm(-s.cut_mm)),
                "A longer one is made or bought; a shaft is never welded." + other)
                .of(inMm(0), inMm(-s.cut_mm));
            if (s.other_fits) p_.remarks.back().verdict = PlanVerdict::Marginal;
            return;
        }
        if (!a_.splined || !a_.engaged) return missing("how far the splines reach and how much of them the gear holds");
        s.splines_mm = a_.splined->value - s.cut_mm;
        const double engaged = a_.engaged->value;
        const PlanVerdict v = band(*s.splines_mm, engaged + axle_spline_spare, engaged);
        if (v == PlanVerdict::Holds) return;
        if (s.other_fits) {
            say("shaft-swapped", PlanVerdict::Marginal,
                fmt::format("The {} half-shaft can't be cut to length: {} of splines would be left, and the gear holds {}.",
                            sideWord(k), inMm(std::max(0.0, *s.splines_mm)), inMm(engaged)),
                fmt::format("A second {} shaft, as it is, has the length: measure both splines and flanges first.",
                            sideWord(1 - k)))
                .of(inMm(*s.splines_mm), inMm(engaged + axle_spline_spare));
            return;
        }
        say("splines", v,
            v == PlanVerdict::Fails
                ? fmt::format("Once {} is off the {} half-shaft, {} of splines is left, and the gear holds {}.", inMm(s.cut_mm),
                              sideWord(k), inMm(std::max(0.0, *s.splines_mm)), inMm(engaged))
                : fmt::format(
                      "The {} half-shaft keeps {} of splines for the {} that the gear holds: the run-out of the splines may stop it.",
                      sideWord(k), inMm(*s.splines_mm), inMm(engaged)),
            "It is splined anew by a works that hardens it again, where its thickness behind the splines allows; or a new one is made.")
            .of(inMm(*s.splines_mm), inMm(engaged + axle_spline_spare));
    }

    void perches() {
        if (!a_.perches) {
            if (p_.changes) missing("the distance between the spring perches");
            return;
        }
        for (std::size_t k = 0; k < 2; ++k)
            if (std::abs(*p_.sides[k].perch_moves_mm) > 0.5)
                say("perch-moves", PlanVerdict::Marginal,
                    fmt::format("The {} spring perch goes {} {} on its tube: it is cut off and welded anew.", sideWord(k),
                                inMm(std::abs(*p_.sides[k].perch_moves_mm)),
                                *p_.sides[k].perch_moves_mm > 0 ? "outwards" : "inwards"),
                    "Copy its angle to the pinion first; tack both with the axle under the loaded springs.");
        if (a_.brake_in) {
            p_.brake_gap_mm = p_.faces_mm / 2 - a_.brake_in->value - perchEdge();
            const PlanVerdict v = band(*p_.brake_gap_mm, axle_brake_gap, 0);
            if (v != PlanVerdict::Holds)
                say("brake", v,
                    v == PlanVerdict::Fails ? fmt::format("Brake and spring perch want the same {}.", inMm(-*p_.brake_gap_mm))
                                            : fmt::format("Between brake and spring perch there is {}.", inMm(*p_.brake_gap_mm)),
                    fmt::format("Perches {} closer together, a shallower brake, or faces {} wider.",
                                inMm(2 * (axle_brake_gap - *p_.brake_gap_mm)), inMm(2 * (axle_brake_gap - *p_.brake_gap_mm))))
                    .of(inMm(*p_.brake_gap_mm), inMm(axle_brake_gap));
        } else if (p_.changes)
            missing("how far the brake reaches in from the wheel face");
        if (!a_.flange_in) {
            if (p_.changes) missing("how far in the tube's end flange stands");
            return;
        }
        p_.free_mm = p_.faces_mm / 2 - a_.flange_in->value - perchEdge();
        if (!p_.changes) return;
        for (std::size_t k = 0; k < 2; ++k) {
            AxleSide& s = p_.sides[k];
            if (std::abs(s.cut_mm) <= 0.05) continue;
            s.weld_mm = perchEdge() + *p_.free_mm / 2;
        }
        const PlanVerdict v = band(*p_.free_mm, 2 * axle_weld_apart, axle_weld_apart);
        if (v != PlanVerdict::Holds)
            say("tube-room", v,
                fmt::format("{} of tube is left between spring perch and end flange: the joint has no {} to the welds beside it.",
                            inMm(std::max(0.0, *p_.free_mm)), inMm(axle_weld_apart)),
                "Perches closer together, or the joint inside of the perches, where the tube is straight for long enough.")
                .of(inMm(*p_.free_mm), inMm(2 * axle_weld_apart));
    }

    void tyres() {
        const bool within = a_.over_tyres_wanted.has_value();
        if (!a_.tyre || !a_.wheel_offset) {
            if (within || p_.changes) missing(a_.tyre ? "the wheels' offset" : "the width of the tyres");
            if (!a_.tyre) return;
        }
        const double tyre = a_.tyre->value;
        if (a_.wheel_offset) {
            const double offset = (a_.offset_wanted ? *a_.offset_wanted : *a_.wheel_offset).value;
            p_.track_now_mm = p_.faces_now_mm - 2 * a_.wheel_offset->value;
            p_.track_mm = p_.faces_mm - 2 * offset;
            p_.over_tyres_now_mm = *p_.track_now_mm + tyre;
            p_.over_tyres_mm = *p_.track_mm + tyre;
            if (within) p_.faces_needed_mm = a_.over_tyres_wanted->value - tyre + 2 * offset;
            inside(*p_.track_mm / 2 - tyre / 2);
        }
        if (!within) return;
        p_.offset_needed_mm = (p_.faces_mm + tyre - a_.over_tyres_wanted->value) / 2;
        if (!p_.over_tyres_mm) return;
        const double spare = a_.over_tyres_wanted->value - *p_.over_tyres_mm;
        const PlanVerdict v = band(spare, 0, -2);
        if (v != PlanVerdict::Holds)
            say("over-tyres", v,
                fmt::format("Over the tyres it is {}, {} more than they are to be kept within.", inMm(*p_.over_tyres_mm),
                            inMm(-spare)),
                fmt::format("Faces {} apart with these wheels, or wheels with an offset of {} on this axle.",
                            inMm(*p_.faces_needed_mm), inMm(*p_.offset_needed_mm)))
                .of(inMm(*p_.over_tyres_mm), inMm(a_.over_tyres_wanted->value));
    }
    void inside(double tyre_inner) {
        const auto judge = [&](const char* code, double gap, const char* what, const char* remedy) {
            const PlanVerdict v = band(gap, axle_tyre_gap, axle_tyre_least);
            if (v != PlanVerdict::Holds)
                say(code, v, fmt::format("Between the tyre's inner side and the {} there is {}.", what, inMm(gap)), remedy)
                    .of(inMm(gap), inMm(axle_tyre_gap));
        };
        if (a_.perches) {
            p_.tyre_perch_mm = tyre_inner - perchEdge();
            judge("tyre-spring", *p_.tyre_perch_mm, "spring perch", "Perches closer together, narrower tyres, or less offset.");
        }
        if (in_.rail_outside_mm) {
            p_.tyre_rail_mm = tyre_inner - *in_.rail_outside_mm;
            judge("tyre-rail", *p_.tyre_rail_mm, "rail",
                  "Narrower tyres or less offset; or the rail cut out and boxed over the axle, which Stretch then has to judge.");
        }
    }

    void tube() {
        if (!p_.changes) return;
        p_.may_mpa = (a_.yield_MPa ? a_.yield_MPa->value : axle_tube_yield) / 1.5;
        if (!a_.tube || !a_.tube_wall) return missing("the tubes' diameter and wall");
        if (!in_.wheel_kg) return missing("what the wheels of that axle carry (weigh them)");
        if (!p_.track_mm || p_.sides[0].weld_mm + p_.sides[1].weld_mm <= 0) return;
        double arm = 0;
        for (const AxleSide& s : p_.sides)
            if (s.weld_mm > 0) arm = std::max(arm, *p_.track_mm / 2 - s.weld_mm);
        const double d = a_.tube->value, bore = d - 2 * a_.tube_wall->value;
        const double modulus = units::pi * (std::pow(d, 4) - std::pow(bore, 4)) / (32 * d);
        p_.stress_1g_mpa = *in_.wheel_kg * gravity * arm / modulus;
        p_.stress_3g_mpa = pothole_g * *p_.stress_1g_mpa;
        const auto mpa = [](double v) { return fmt::format("{:.0f} MPa", v); };
        if (*p_.stress_3g_mpa > p_.may_mpa)
            say("tube-bends", PlanVerdict::Fails,
                fmt::format("In a pothole the tube's joint bears {}, {} allowed.", mpa(*p_.stress_3g_mpa), mpa(p_.may_mpa)),
                "A thicker tube, the joint farther out, or the springs farther out.")
                .of(mpa(*p_.stress_3g_mpa), mpa(p_.may_mpa));
        if (*p_.stress_1g_mpa > weld_toe_mpa)
            say("tube-tires", PlanVerdict::Fails,
                fmt::format("Over ± 1 g the joint's weld bears ± {}, {} allowed: it tires.", mpa(*p_.stress_1g_mpa),
                            mpa(weld_toe_mpa)),
                "The joint farther out, a thicker tube, or a sleeve outside whose ends stand where less is borne.")
                .of(mpa(*p_.stress_1g_mpa), mpa(weld_toe_mpa));
    }

    void missing(std::string what) {
        if (std::find(p_.missing.begin(), p_.missing.end(), what) == p_.missing.end()) p_.missing.push_back(std::move(what));
    }
    void assumptions() {
        p_.assumed = in_.assumed;
        const auto look = [&](const std::optional<build::Dimension>& d, const char* what) {
            if (d && d->provenance == Provenance::Assumed) p_.assumed.emplace_back(what);
        };
        look(a_.faces, "the width between the wheel faces");
        look(a_.pinion, "where the pinion stands");
        look(a_.tube, "the tubes' diameter");
        look(a_.tube_wall, "the tubes' wall");
        look(a_.flange_in, "where the end flange stands");
        look(a_.perches, "the distance between the perches");
        if (a_.perches) look(a_.perch, "how wide a perch is");
        look(a_.shaft_left, "the left shaft");
        look(a_.shaft_right, "the right shaft");
        look(a_.splined, "how far the splines reach");
        look(a_.engaged, "how much of the splines the gear holds");
        look(a_.brake_in, "how far the brake reaches in");
        look(a_.wheel_offset, "the wheels' offset");
        look(a_.tyre, "the tyres' width");
        if (p_.stress_1g_mpa && (!a_.yield_MPa || a_.yield_MPa->provenance == Provenance::Assumed))
            p_.assumed.emplace_back("the tubes' yield");
    }

    const AxleInput& in_;
    const AxleJob& a_;
    AxlePlan p_;
};

} // namespace

AxlePlan axlePlan(const AxleInput& in) { return Narrowing(in).plan(); }

} // namespace gorvet::stretch
