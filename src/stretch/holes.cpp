#include "stretch/holes.hpp"

#include "stretch/parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::HoleFate;
using build::HoleKind;
using build::PlanVerdict;
using build::RailWall;
using build::Remark;

std::string holeMm(double v) { return units::fixed(v, 0) + " mm"; }

class Hole {
public:
    explicit Hole(const HoleInput& in) : in_(in), h_(in.hole) {}

    HolePlan made() {
        half_ = (h_.along ? h_.along->value : h_.across.value) / 2;
        p_.weld_need_mm = std::max(hole_weld, h_.across.value);
        p_.goes = in_.cut && h_.station.value + half_ > in_.cut->first && h_.station.value - half_ < in_.cut->second;
        p_.weld_mm = nearestWeld(h_.station.value);
        p_.covered = covered();
        if (h_.kind == HoleKind::Initiator)
            initiator();
        else
            hole();
        settle(p_, !in_.assumed.empty() && p_.stress_mpa.has_value());
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    /// From an edge of it to the nearest station that is welded.
    std::optional<double> nearestWeld(double station) const {
        std::vector<double> welds = in_.welds;
        if (in_.cut) {
            welds.push_back(in_.cut->first);
            welds.push_back(in_.cut->second);
        }
        for (const auto& [from, to] : in_.shut) {
            welds.push_back(from);
            welds.push_back(to);
        }
        std::optional<double> nearest;
        for (const double w : welds)
            if (const double away = std::abs(w - station) - half_; !nearest || away < *nearest) nearest = away;
        return nearest;
    }
    bool covered() const {
        const auto within = [&](double from, double to) { return h_.station.value > from && h_.station.value < to; };
        if (in_.cut && in_.sleeve_mm > 0 && within(in_.cut->first - in_.sleeve_mm, in_.cut->second + in_.sleeve_mm)) return true;
        return std::any_of(in_.shut.begin(), in_.shut.end(), [&](const auto& s) {
            return within(s.first, s.second) && (h_.wall == RailWall::Outer || h_.wall == RailWall::Inner);
        });
    }

    void hole() {
        const bool gone = h_.fate == HoleFate::Move || h_.fate == HoleFate::Restore; // welded shut first, made anew afterwards
        if (h_.fate == HoleFate::Ask)
            add("hole-ask", PlanVerdict::Marginal, fmt::format("What becomes of {} is asked of somebody licensed.", h_.name),
                fmt::format("Once it is answered: rail-hole {} keep, move 1480 or restore.", h_.name));
        if (p_.goes && !gone)
            add("hole-out", h_.fate == HoleFate::Ask ? PlanVerdict::Marginal : PlanVerdict::Fails,
                fmt::format("{} comes out with what is cut out{}.", h_.name, h_.note.empty() ? "" : ", and it is for " + h_.note),
                fmt::format("Say where it is made anew: rail-hole {} restore, or move 1480.", h_.name));
        else if (!gone && p_.weld_mm && *p_.weld_mm < p_.weld_need_mm)
            add("hole-weld", PlanVerdict::Fails,
                fmt::format("A weld runs {} from the edge of {}: it tears there.", holeMm(std::max(0.0, *p_.weld_mm)), h_.name),
                fmt::format("Cut {} further away, or weld the hole shut first and drill it elsewhere: rail-hole {} move 1480.",
                            holeMm(p_.weld_need_mm - *p_.weld_mm), h_.name))
                .of(holeMm(*p_.weld_mm), holeMm(p_.weld_need_mm));
        else if (p_.covered && h_.fate == HoleFate::Open)
            add("hole-covered", PlanVerdict::Marginal,
                fmt::format("New steel closes {} from {}{}.", h_.name, in_.cut && in_.sleeve_mm > 0 ? "inside" : "behind",
                            h_.note.empty() ? "" : ", and it is for " + h_.note),
                fmt::format("Drill it through, too (rail-hole {} restore), or say that it may stay closed: keep.", h_.name));
        if (h_.fate == HoleFate::Move) moved();
        net();
    }
    /// Where it is made anew.
    void moved() {
        const double to = h_.moved_to->value;
        const auto away = nearestWeld(to);
        const bool in_gap = in_.cut && to > in_.cut->first && to < in_.cut->second;
        if (in_gap)
            add("hole-move", PlanVerdict::Fails, fmt::format("{} would be made anew in what comes out.", h_.name),
                "Another station, ahead of the cut or behind it.");
        else if (away && *away < p_.weld_need_mm)
            add("hole-move", PlanVerdict::Fails,
                fmt::format("{} would be made anew {} from a weld.", h_.name, holeMm(std::max(0.0, *away))),
                fmt::format("{} from every weld at the least.", holeMm(p_.weld_need_mm)))
                .of(holeMm(*away), holeMm(p_.weld_need_mm));
    }
    void net() {
        if (in_.height_mm <= 0 || in_.wall_mm <= 0) return;
        p_.net_share = netShare(h_, in_.height_mm, in_.width_mm, in_.wall_mm, in_.channel);
        if (p_.net_share <= 0) {
            add("hole-net", PlanVerdict::Fails, fmt::format("{} leaves nothing of the wall that it is in.", h_.name),
                "Look at its size and place again.");
            return;
        }
        if (in_.stress_mpa) {
            p_.stress_mpa = *in_.stress_mpa / p_.net_share;
            if (*p_.stress_mpa > in_.may_mpa)
                add("hole-net", PlanVerdict::Fails,
                    fmt::format("Beside {} the rail bears {:.0f} MPa in the worst load case. It may bear {:.0f}.", h_.name,
                                *p_.stress_mpa, in_.may_mpa),
                    "A plate over it with tapered ends, its own hole in it; or a tube welded through both webs.")
                    .of(fmt::format("{:.0f} MPa", *p_.stress_mpa), fmt::format("{:.0f} MPa", in_.may_mpa));
        } else if (p_.net_share < hole_net_least) {
            add("hole-net-unsaid", PlanVerdict::Marginal,
                fmt::format("{} leaves {:.0f} % of the rail's section modulus, and what bears on it there was not worked out.",
                            h_.name, 100 * p_.net_share),
                "Say the frame's members and loads: Strength then says whether it holds.")
                .of(fmt::format("{:.0f} %", 100 * p_.net_share), fmt::format("{:.0f} %", 100 * hole_net_least));
        }
    }

    /// A rail folds where its maker wanted it to only as long as nothing near it is stiffer or weaker than he left it.
    void initiator() {
        const double need = hole_initiator_heights * std::max(in_.height_mm, 50.0);
        p_.weld_need_mm = need;
        double away = p_.weld_mm.value_or(1e9);
        if (in_.cut && in_.sleeve_mm > 0)
            away = std::min({away, std::abs(in_.cut->first - in_.sleeve_mm - h_.station.value) - half_,
                             std::abs(in_.cut->second + in_.sleeve_mm - h_.station.value) - half_});
        if (p_.covered || p_.goes) away = std::min(away, 0.0);
        p_.weld_mm = away < 1e8 ? std::optional(away) : std::nullopt;
        const bool touched = away < need || h_.fate == HoleFate::Move || h_.fate == HoleFate::Restore;
        if (!touched) return;
        if (h_.fate == HoleFate::Ask)
            add("hole-crash", PlanVerdict::Marginal,
                fmt::format("{} starts the rail's folding in a crash, and what is planned changes it: an engineer is asked.",
                            h_.name),
                "Nothing is cut or welded there before the answer is on paper.");
        else
            add("hole-crash", PlanVerdict::Fails,
                away < need
                    ? fmt::format("{} starts the rail's folding in a crash; new steel or a weld comes {} from it.", h_.name,
                                  holeMm(std::max(0.0, away)))
                    : fmt::format("{} starts the rail's folding in a crash: it is never moved nor made again by hand.", h_.name),
                fmt::format("Cut further away, or ask a licensed engineer first: rail-hole {} ask.", h_.name))
                .of(holeMm(std::max(0.0, away)), holeMm(need));
    }

    const HoleInput& in_;
    const build::RailHole& h_;
    HolePlan p_;
    double half_ = 0;
};

} // namespace

double netShare(const build::RailHole& h, double height, double width, double wall, bool channel) {
    if (height <= 2 * wall || width <= 2 * wall || wall <= 0) return 1;
    const Section s = sectionOf(height, width, wall, channel);
    const bool flange = h.wall == RailWall::Top || h.wall == RailWall::Bottom;
    const double d = h.across.value, most = flange ? width - 2 * wall : height - 2 * wall;
    if (d >= most) return 0;
    double lost = 0;
    if (flange) {
        lost = d * wall * std::pow((height - wall) / 2, 2);
    } else {
        const double from_middle = h.up ? h.up->value - height / 2 : 0;
        lost = wall * d * d * d / 12 + wall * d * from_middle * from_middle;
    }
    return std::max(0.0, 1 - lost / s.level_mm4);
}

HolePlan holePlan(const HoleInput& in) { return Hole(in).made(); }

} // namespace gorvet::stretch
