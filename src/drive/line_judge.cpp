// What is said of a chain of shafts: limits, and what they ask.
#include "drive/degree.hpp"
#include "drive/line_parts.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::judge;
using build::Limit;
using build::Remark;

namespace {

std::string degrees(const Figure& f) { return fmt::format("{:.2f}° ± {:.2f}°", f.value / one_degree, f.u95 / one_degree); }

/// "at rest", "at full bump".
std::string placeWords(const std::string& situation) {
    return situation.starts_with("at ") || situation.starts_with("under ") ? situation : "at " + situation;
}

class ChainJudge {
public:
    ChainJudge(const LineInput& in, const Chain& chain, ChainPlan& plan, double top_rpm)
        : in_(in), chain_(chain), p_(plan), rpm_(top_rpm), omega_(top_rpm * 2 * std::numbers::pi / 60) {}

    void all() {
        p_.most_residual_rad = std::sqrt(most_torsional) / omega_;
        p_.most_angle_rad = std::sqrt(most_inertial) / omega_;
        smooth();
        joints();
        for (std::size_t k = 0; k < chain_.size(); ++k) shaft(k);
        slides();
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        if (!in_.assumed.empty()) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
    }

private:
    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    /// What runs for long: at rest, and under drive.
    bool steady(const Standing& s) const { return s.situation.front == 0 && s.situation.rear == 0; }

    void smooth() {
        const Standing *roughest = nullptr, *steepest = nullptr;
        Figure steep;
        std::string where;
        for (const Standing& s : p_.stands) {
            if (!steady(s)) continue;
            if (!roughest || s.residual_rad.value > roughest->residual_rad.value) roughest = &s;
            for (std::size_t j = 0; j < p_.joints.size(); ++j)
                if (p_.joints[j].kind == JointKind::Cross && s.angles_rad[j].value >= steep.value) {
                    steep = s.angles_rad[j];
                    steepest = &s;
                    where = p_.joints[j].name;
                }
        }
        p_.torsional = omega_ * omega_ * roughest->residual_rad.value * roughest->residual_rad.value;
        p_.inertial = omega_ * omega_ * steep.value * steep.value;
        if (const auto v = judge(roughest->residual_rad, Limit::atMost(p_.most_residual_rad)); v != PlanVerdict::Holds)
            add("torsional", v,
                fmt::format("Its joints together turn the axle unevenly {}: as one joint of {}.", roughest->situation.name,
                            degrees(roughest->residual_rad)),
                "Make what is left of their angles smaller; the ways that were found stand below.")
                .of(degrees(roughest->residual_rad),
                    fmt::format("≤ {:.2f}° at {:.0f} rpm", p_.most_residual_rad / one_degree, rpm_));
        if (!steepest) return;
        if (const auto v = judge(steep, Limit::atMost(p_.most_angle_rad)); v != PlanVerdict::Holds)
            add("inertial", v,
                fmt::format("The shaft itself is turned unevenly: {} bends by {} {}.", where, degrees(steep),
                            steepest->situation.name),
                "Bring both ends nearer to the shaft's line, or take a joint that passes turning on evenly.")
                .of(degrees(steep), fmt::format("≤ {:.2f}° at {:.0f} rpm", p_.most_angle_rad / one_degree, rpm_));
    }

    void joints() {
        for (std::size_t j = 0; j < p_.joints.size(); ++j) {
            const JointOf& joint = p_.joints[j];
            const Figure& rest = p_.stands.front().angles_rad[j];
            if (joint.kind == JointKind::Cross)
                if (const auto v = judge(rest, Limit::atLeast(least_angle_rad)); v != PlanVerdict::Holds)
                    add("too-straight", PlanVerdict::Marginal,
                        fmt::format("{} hardly bends ({}): its needles stand still and wear into the cross.", joint.name,
                                    degrees(rest)),
                        "Give it half a degree at the least.")
                        .of(degrees(rest), "≥ 0.50°");
            const double limit = in_.shafts[chain_[joint.shaft]].shaft.limit.value;
            const Standing* worst = &p_.stands.front();
            for (const Standing& s : p_.stands)
                if (s.angles_rad[j].value > worst->angles_rad[j].value) worst = &s;
            if (const auto v = judge(worst->angles_rad[j], {0, limit, in_.shafts[chain_[joint.shaft]].shaft.limit.provenance});
                v == PlanVerdict::Fails || worst->angles_rad[j].value + worst->angles_rad[j].u95 > limit)
                add("joint-limit", v,
                    fmt::format("{} bends by {} {}.", joint.name, degrees(worst->angles_rad[j]),
                                placeWords(worst->situation.name)),
                    "It binds and breaks: less droop (straps, longer damper stops), a joint that bends further, or the ends nearer to a line.")
                    .of(degrees(worst->angles_rad[j]), fmt::format("≤ {:.1f}°", limit / one_degree));
        }
        // with one end on a double cross, the other joint does all the shaking there is
        if (p_.joints.size() == 2 && (p_.joints[0].kind == JointKind::Cross) != (p_.joints[1].kind == JointKind::Cross)) {
            const std::size_t j = p_.joints[0].kind == JointKind::Cross ? 0 : 1;
            const Standing* loaded = &p_.stands.front();
            for (const Standing& s : p_.stands)
                if (steady(s) && s.situation.pulling) loaded = &s;
            const Figure& angle = loaded->angles_rad[j];
            if (const auto v = judge(angle, Limit::atMost(one_degree)); v != PlanVerdict::Holds && angle.value > one_degree)
                add("lone-cross", PlanVerdict::Marginal,
                    fmt::format("{} stands alone: the joint at the other end is even, and nothing cancels its {} {}.",
                                p_.joints[j].name, degrees(angle), loaded->situation.name),
                    "Point its unit along the shaft, to within a degree.")
                    .of(degrees(angle), "≤ 1.00°");
        }
    }

    void shaft(std::size_t k) {
        const build::Shaft& s = in_.shafts[chain_[k]].shaft;
        const ShaftPlan& p = p_.shafts[k];
        if (p.critical_rpm) {
            const double share = rpm_ / *p.critical_rpm;
            if (share > 0.7)
                add("critical-speed", share > 1 ? PlanVerdict::Fails : PlanVerdict::Marginal,
                    fmt::format("{} whips: it turns at {:.0f} % of the speed at which it bows out by itself.", s.name,
                                100 * share),
                    p.lightest ? fmt::format("A tube of {:g} × {:g} would do, or a centre bearing.", p.lightest->outside_mm,
                                             p.lightest->wall_mm)
                               : "No usual tube does at this length: put a centre bearing into it.")
                    .of(fmt::format("{:.0f} rpm", rpm_), fmt::format("≤ {:.0f} rpm", 0.7 * *p.critical_rpm));
        } else {
            add("tube-unsaid", PlanVerdict::Marginal, fmt::format("Nothing is said of the tube of {}.", s.name),
                fmt::format("Measure it: shaft {} tube 76 2.5.", s.name));
        }
        const double may = TubeNeed{}.may_shear_mpa;
        if (p.shear_mpa && *p.shear_mpa > may)
            add("torque", PlanVerdict::Fails, fmt::format("The tube of {} is too weak for first gear.", s.name),
                p.lightest ? fmt::format("A tube of {:g} × {:g} would do.", p.lightest->outside_mm, p.lightest->wall_mm)
                           : "Ask a shaft shop.")
                .of(fmt::format("{:.0f} MPa", *p.shear_mpa), fmt::format("≤ {:.0f} MPa", may));
        if (!s.phase && s.rear == JointKind::Cross && s.front == JointKind::Cross)
            add("phase-unsaid", PlanVerdict::Marginal,
                fmt::format("Nobody said how the yokes of {} stand to each other.", s.name),
                fmt::format("Look along it: shaft {} phase 0deg where both lie in one plane.", s.name));
        plunge(k);
    }

    /// What slides in a shaft must take the whole of what its length changes by, wherever else in the chain it may slide.
    void plunge(std::size_t k) {
        const build::Shaft& s = in_.shafts[chain_[k]].shaft;
        const ShaftPlan& p = p_.shafts[k];
        if (s.slip == build::SlipAt::None) return;
        const double was = p.now_mm ? p.now_mm->value : p.length_mm.value;
        const auto side = [&](const char* code, const std::optional<build::Dimension>& spare, double asked, double u95,
                              const char* way, const std::string& at) {
            if (!spare) {
                add("slip-unsaid", PlanVerdict::Marginal,
                    fmt::format("How far the slip joint of {} can still go {} is not said.", s.name, way),
                    fmt::format("Measure it, or order the shaft for it: {:.0f} mm {}, and {:g} to spare.", asked, placeWords(at),
                                spare_mm));
                return;
            }
            const Figure left{spare->value - asked, u95, build::worst(build::Provenance::Derived, spare->provenance)};
            if (const auto v = judge(left, Limit::atLeast(spare_mm)); v != PlanVerdict::Holds)
                add(code, left.value + left.u95 < 0 ? PlanVerdict::Fails : v,
                    fmt::format("The slip joint of {} has {:.0f} ± {:.0f} mm left {} {}.", s.name, left.value, left.u95, way,
                                placeWords(at)),
                    "Make the shaft anew to the length on its sheet, or shorten the travel.")
                    .of(fmt::format("{:.0f} mm", left.value), fmt::format("≥ {:g} mm", spare_mm));
        };
        side("plunge-in", s.slip_in, was - p.shortest_mm.value, p.shortest_mm.u95, "inwards", p.shortest_at);
        side("plunge-out", s.slip_out, p.longest_mm.value - was, p.longest_mm.u95, "outwards", p.longest_at);
    }

    void slides() {
        for (std::size_t k = 0; k < chain_.size(); ++k) {
            const ShaftPlan& p = p_.shafts[k];
            if (in_.shafts[chain_[k]].shaft.slip != build::SlipAt::None) continue;
            if (const double change = p.longest_mm.value - p.shortest_mm.value; change > 1)
                add("no-slip", PlanVerdict::Fails,
                    fmt::format("{} must change its length by {:.0f} mm and has nothing that slides.", p.name, change),
                    fmt::format("Give it a slip joint: shaft {} slip front.", p.name));
        }
    }

    const LineInput& in_;
    const Chain& chain_;
    ChainPlan& p_;
    double rpm_, omega_;
};

} // namespace

void judgeChain(const LineInput& in, const Chain& chain, ChainPlan& plan, double top_rpm) {
    ChainJudge(in, chain, plan, top_rpm).all();
}

} // namespace gorvet::drive
