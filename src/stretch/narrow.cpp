#include "stretch/parts.hpp"
#include "stretch/sheet_plugs.hpp"
#include "stretch/width.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::PlanVerdict;
using build::Remark;
using build::Role;
using build::Vec3;

std::string narrowMm(double v, int decimals = 0) { return units::fixed(v, decimals) + " mm"; }

/// Whether a mark of that role bears something that a weld must not stand beside.
bool bears(Role r) { return r != Role::None && r != Role::FrontHub && r != Role::RearHub; }

class Narrow {
public:
    explicit Narrow(const NarrowInput& in) : in_(in) {}

    NarrowPlan made() {
        p_.side_mm = in_.narrowing.by.value / 2;
        p_.slit_mm = in_.narrowing.slit.value;
        strip();
        where();
        marks();
        spanning();
        axles();
        measures();
        settle(p_, !in_.assumed.empty());
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    double station(double now) const { return in_.planned.map(Vec3{now, 0, 0}).x_mm; }
    /// What is cut out: less than what each side comes in by, where both sheets lie on each other afterwards.
    void strip() {
        if (in_.pan.empty()) return;
        const bool thin = in_.sheet_mm < sheet_thin_mm;
        p_.lap_mm = in_.narrowing.lap ? in_.narrowing.lap->value : thin ? std::min(narrow_lap, p_.side_mm) : 0;
        p_.strip_mm = p_.side_mm - p_.lap_mm;
        p_.outer_mm = p_.slit_mm + p_.strip_mm;
        p_.long_mm = station(in_.until_mm) - station(in_.from_mm);
        constexpr double steel_kg_mm3 = 7.85e-6;
        p_.out_kg = 2 * p_.strip_mm * p_.long_mm * in_.sheet_mm * steel_kg_mm3;
        if (p_.lap_mm > 0) {
            const SheetPlugs g = sheetPlugs(in_.sheet_mm, p_.lap_mm, p_.long_mm, 0);
            p_.plug_mm = g.hole_mm;
            p_.pitch_mm = g.pitch_mm;
            p_.plugs = std::max(0, 1 + static_cast<int>(std::floor((p_.long_mm - 4 * g.hole_mm) / g.pitch_mm + 1e-9)));
        }
        if (p_.lap_mm > 0 && p_.lap_mm < narrow_lap_least)
            add("narrow-lap", PlanVerdict::Marginal,
                fmt::format("The sheets lie only {} on each other: plug welds of {} stand at their edges.", narrowMm(p_.lap_mm),
                            narrowMm(p_.plug_mm)),
                fmt::format("A lap of {}, or a butt: narrow lap 0.", narrowMm(narrow_lap)))
                .of(narrowMm(p_.lap_mm), narrowMm(narrow_lap_least));
        if (p_.lap_mm == 0 && thin)
            add("narrow-butt", PlanVerdict::Marginal,
                fmt::format("A butt weld {} long in sheet of {} pulls the floor into waves.", narrowMm(p_.long_mm),
                            narrowMm(in_.sheet_mm, 1)),
                fmt::format("Lap it: narrow lap {}; or a strip below it, short stitches by turns.", units::fixed(narrow_lap, 0)));
    }

    void where() {
        if (in_.half_mm > 0 && p_.slit_mm + p_.side_mm >= in_.half_mm)
            add("narrow-edge", PlanVerdict::Fails,
                fmt::format("Nothing is left outside of the strip: the edge stands {} from the middle.", narrowMm(in_.half_mm)),
                fmt::format("Slit further in: narrow at {}; or trim the edge instead.",
                            units::fixed(std::max(0.0, in_.half_mm - p_.side_mm - 100), 0)))
                .of(narrowMm(p_.slit_mm + p_.side_mm), "less than " + narrowMm(in_.half_mm));
        if (in_.spine_half_mm <= 0) return;
        const double free = p_.slit_mm - in_.spine_half_mm;
        if (free < narrow_flank)
            add("narrow-flank", free < 0 ? PlanVerdict::Fails : PlanVerdict::Marginal,
                free < 0 ? std::string("The slit runs through the spine.")
                         : fmt::format("The slit runs {} from the spine's flank: no torch gets in there.", narrowMm(free)),
                fmt::format("Slit further out: narrow at {}.", units::fixed(in_.spine_half_mm + narrow_flank, 0)))
                .of(narrowMm(free), narrowMm(narrow_flank));
    }

    /// What stands on the strip goes with it; what bears beside it stands in the heat.
    void marks() {
        const double from = p_.slit_mm, to = p_.slit_mm + p_.side_mm;
        for (const NarrowMark& mark : in_.marks) {
            const double y = std::abs(mark.at.y_mm);
            if (y >= to && mark.role != Role::FrontHub && mark.role != Role::RearHub) p_.moved.push_back(mark.name);
            if (!bears(mark.role)) continue;
            const double away = y < from ? from - y : y > to ? y - to : 0;
            if (away >= narrow_near) continue;
            const std::string what = fmt::format("{} ({})", mark.name, word(mark.role));
            if (away == 0)
                add("narrow-strip", PlanVerdict::Fails, fmt::format("{} stands on what comes out.", what),
                    fmt::format("Slit elsewhere: {} or more from the middle, or {} and less.",
                                narrowMm(std::ceil(y + narrow_near)), narrowMm(std::floor(y - narrow_near - p_.side_mm))));
            else
                add("narrow-near", PlanVerdict::Marginal, fmt::format("{} bears {} beside the weld.", what, narrowMm(away)),
                    fmt::format("Slit {} away from what bears, or take it off first.", narrowMm(narrow_near)))
                    .of(narrowMm(away), narrowMm(narrow_near));
        }
    }

    void spanning() {
        if (in_.pan.empty() && in_.members.empty())
            add("narrow-unsaid", PlanVerdict::Marginal, "Nothing is said of what spans both slits: a floor, crossmembers.",
                "Say it: member floor pan from 120 to 2080 flat 1180 1.2, member front crossmember at 300 box 60 40 3.");
        for (NarrowMember m : in_.members) {
            m.then_mm = m.now_mm - in_.narrowing.by.value;
            if (m.then_mm <= 0)
                add("narrow-member", PlanVerdict::Fails,
                    fmt::format("Nothing is left of {}: it is {} across.", m.name, narrowMm(m.now_mm)),
                    "It comes out: say it, member … comes-out.");
            else if (m.tube)
                add("narrow-tube", PlanVerdict::Marginal,
                    fmt::format("{} is a tube: what runs inside, bars or shafts, is too long by {} afterwards.", m.name,
                                narrowMm(in_.narrowing.by.value)),
                    "Draw it out before anything is hot. A torsion bar is never welded nor ground: order it in the new length.");
            p_.members.push_back(std::move(m));
        }
    }

    /// Arms come in with the frame, wheels with their axle: both must by the same.
    void axles() {
        for (const NarrowAxle& a : in_.axles) {
            const char* const end = a.end == build::AxleEnd::Front ? "front" : "rear";
            if (!a.arms_mm) {
                add("narrow-unsaid", PlanVerdict::Marginal,
                    fmt::format(
                        "Where the {} springs or arms bear on the frame is not marked: whether they come in as the wheels do is "
                        "not known.",
                        end),
                    "Mark a pair near that axle: point Sl suspension …, point Sr suspension ….");
                continue;
            }
            const double mounts = *a.arms_mm;
            if (a.leaf || a.perches_mm) {
                const double perches = a.perches_mm.value_or(0);
                if (std::abs(mounts - perches) > narrow_unlike)
                    add("narrow-perches", PlanVerdict::Fails,
                        fmt::format("On the frame the {} springs come {} nearer to each other, on their axle {}.", end,
                                    narrowMm(mounts, 1), narrowMm(perches, 1)),
                        fmt::format("Move the perches, too: track {} perches-wanted, {} less than they are.", end,
                                    narrowMm(mounts, 1)))
                        .of(narrowMm(perches, 1), narrowMm(mounts, 1));
                continue;
            }
            if (mounts > narrow_unlike && a.end == build::AxleEnd::Front)
                add("narrow-steering", PlanVerdict::Marginal,
                    fmt::format("The front arms come {} nearer to each other: the tie rods' inner joints must do the same, or "
                                "the wheels steer by themselves over a bump.",
                                narrowMm(mounts, 1)),
                    "Another rack or track rod, by licensed people; bump steer is measured before it moves.");
            if (std::abs(mounts - a.wheels_mm) > narrow_unlike)
                add("narrow-arms", PlanVerdict::Fails,
                    fmt::format("The {} arms come {} nearer to each other, the wheels {}.", end, narrowMm(mounts, 1),
                                narrowMm(a.wheels_mm, 1)),
                    fmt::format("Plan both alike: track {} wanted, or another width.", end))
                    .of(narrowMm(a.wheels_mm, 1), narrowMm(mounts, 1));
        }
    }

    /// Across from side to side, and both diagonals of the whole: before it is welded.
    void measures() {
        const auto planned = [&](const Vec3& p) { return in_.planned.map(p); };
        const auto tape = [&](int from, int to) {
            p_.measures.push_back(acrossAs(in_.paired, static_cast<std::size_t>(from), static_cast<std::size_t>(to), planned));
        };
        std::vector<std::pair<int, int>> outside;
        for (const auto& [l, r] : in_.pairs)
            if (std::abs(in_.paired.at[static_cast<std::size_t>(l)].y_mm) >= p_.slit_mm + p_.side_mm &&
                std::abs(in_.paired.at[static_cast<std::size_t>(r)].y_mm) >= p_.slit_mm + p_.side_mm)
                outside.emplace_back(l, r);
        if (outside.empty()) {
            add("narrow-unmarked", PlanVerdict::Marginal,
                "No pair of marks stands outside of the slits: nothing tells afterwards whether both sides came in alike.",
                "Mark pairs near both edges, ahead and behind, and survey them: point Al, point Ar …");
            return;
        }
        if (outside.size() > 1) {
            tape(outside.front().first, outside.back().second);
            tape(outside.front().second, outside.back().first);
        }
        for (const auto& [l, r] : outside) tape(l, r);
    }

    const NarrowInput& in_;
    NarrowPlan p_;
};

} // namespace

NarrowPlan narrowPlan(const NarrowInput& in) { return Narrow(in).made(); }

} // namespace gorvet::stretch
