// What can be done about a chain that does not run smooth: every way is worked out again before it is named.
#include "drive/degree.hpp"
#include "drive/line_parts.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

namespace {

constexpr double shim_step = 0.25 * one_degree, shim_most = 6 * one_degree;
constexpr double tail_step_mm = 2, tail_most_mm = 60;
constexpr double bearing_step_mm = 2, bearing_most_mm = 40;
constexpr double combined_shim = 0.5 * one_degree, combined_mm = 4;

/// From the tail to what an engine turns about when its tail goes up or down: its front mounts. Nobody measured it here.
constexpr double mounts_mm = 900;

class Search {
public:
    Search(const LineInput& in, const std::vector<Chain>& chains, std::size_t which, std::vector<ChainPlan>& plans)
        : in_(in), chain_(chains[which]), p_(plans[which]), carried_(in, in.planned) {
        slopes_ = slopesOf(in);
        for (std::size_t k = 0; k < chains.size(); ++k) looks_.push_back({&chains[k], &plans[k], situationsOf(in, chains[k])});
        own_ = which;
        for (std::size_t k = 0; k < chains.size(); ++k)
            if (k != which && tied(chains[k]) && smooth(looks_[k], in)) others_.push_back(k);
    }

    void all() {
        if (good(in_)) return; // nothing of what is searched here is wrong
        clock();
        shim();
        tail();
        bearing();
        if (p_.remedies.empty()) together();
        std::stable_sort(p_.remedies.begin(), p_.remedies.end(),
                         [](const Remedy& a, const Remedy& b) { return a.effort < b.effort; });
        p_.searched = fmt::format(
            "Looked through: yokes in phase and a quarter turn off; the pinion turned by up to {:g}° in steps of {:g}°; the "
            "tail up or down by up to {:g} mm in steps of {:g} (the engine turning about its front mounts, taken to be {:g} ahead); "
            "each centre bearing up, down and aside by up to {:g}; where none of these does, pinion and tail together.{}",
            shim_most / one_degree, shim_step / one_degree, tail_most_mm, tail_step_mm, mounts_mm, bearing_most_mm,
            others_.empty() ? "" : " What would make a shaft of the same housing run rough was left out.");
    }

private:
    /// A chain that is looked at.
    struct Look {
        const Chain* chain = nullptr;
        const ChainPlan* plan = nullptr;
        std::vector<Situation> situations;
    };
    /// Whether another chain has an end in a housing of this one.
    bool tied(const Chain& other) const {
        const auto ends = [&](const Chain& chain) {
            std::vector<std::size_t> all{in_.shafts[chain.front()].from};
            for (const std::size_t k : chain) all.push_back(in_.shafts[k].to);
            return all;
        };
        for (const std::size_t a : ends(chain_))
            for (const std::size_t b : ends(other))
                if (in_.ends[a].housing >= 0 && in_.ends[a].housing == in_.ends[b].housing) return true;
        return false;
    }
    bool good(const LineInput& in) {
        return smooth(looks_[own_], in) &&
               std::all_of(others_.begin(), others_.end(), [&](std::size_t k) { return smooth(looks_[k], in); });
    }
    /// Smooth at rest and under drive with the ± that it has now, no joint too straight nor bent too far anywhere.
    bool smooth(const Look& look, const LineInput& in) {
        const Ends ends = endsOf(in, in.planned, slopes_, true);
        const ChainPlan& plan = *look.plan;
        for (std::size_t s = 0; s < look.situations.size(); ++s) {
            const Situation& situation = look.situations[s];
            const Bare bare = bareOf(in, *look.chain, ends, carried_, situation);
            const Standing& known = plan.stands[s];
            const bool steady = situation.front == 0 && situation.rear == 0;
            if (steady) {
                // what bounds θ² stays as wide as it is; that of θ follows
                const double was = known.residual_rad.value,
                             wide = (was + known.residual_rad.u95) * (was + known.residual_rad.u95) - was * was;
                if (std::sqrt(std::hypot(bare.residual[0], bare.residual[1]) + wide) > plan.most_residual_rad) return false;
            }
            for (std::size_t j = 0; j < plan.joints.size(); ++j) {
                const double angle = angleOf(bare.angles[j]), u95 = known.angles_rad[j].u95;
                if (angle + u95 > in.shafts[(*look.chain)[plan.joints[j].shaft]].shaft.limit.value) return false;
                if (!steady || plan.joints[j].kind != JointKind::Cross) continue;
                if (angle + u95 > plan.most_angle_rad) return false;
                if (s == 0 && angle - u95 < least_angle_rad) return false;
            }
        }
        return true;
    }

    /// The smallest of ± step, ± 2 step … that makes it good; none where none does.
    template <class Change> std::optional<double> smallest(double step, double most, Change change) {
        for (double by = step; by <= most + step / 2; by += step)
            for (const double signed_by : {by, -by}) {
                LineInput tried = in_;
                change(tried, signed_by);
                if (good(tried)) return signed_by;
            }
        return {};
    }
    /// A pinion that is driven from behind has its nose at the back.
    std::string turnWords(double by) const {
        return fmt::format("{:g}° nose {}", std::abs(std::round(by / one_degree * 100) / 100),
                           (by > 0) != runsForward(p_.sweep.front().at) ? "up" : "down");
    }
    static std::string upWords(double by) { return fmt::format("{:g} mm {}", std::abs(by), by > 0 ? "up" : "down"); }

    const EndIn& last() const { return in_.ends[in_.shafts[chain_.back()].to]; }
    std::size_t lastIndex() const { return in_.shafts[chain_.back()].to; }
    std::size_t firstIndex() const { return in_.shafts[chain_.front()].from; }
    /// Moved by its own plan, or by none: what another of its housing moves is said of that one.
    bool own(std::size_t end) const { return moverOf(in_, end) == end; }
    static void lift(EndIn& tail, double by) {
        tail.moved.z_mm += by;
        tail.turned_rad -= std::atan(by / mounts_mm);
    }
    /// What is planned of it already, and so much more.
    std::string tailLine(double by) const {
        const EndIn& e = in_.ends[firstIndex()];
        return fmt::format("{} {} raise {:g} mm turn {:.2f}deg", build::word(e.kind), e.name, e.moved.z_mm + by,
                           (e.turned_rad - std::atan(by / mounts_mm)) / one_degree);
    }
    std::string shimLine(double by) const {
        return fmt::format("{} {} turn {:.2f}deg", build::word(last().kind), last().name, (last().turned_rad + by) / one_degree);
    }

    void clock() {
        for (const std::size_t k : chain_) {
            const build::Shaft& s = in_.shafts[k].shaft;
            for (const double phase : {0.0, 90 * one_degree}) {
                if (s.phase && std::abs(s.phase->value - phase) < 1e-9) continue;
                LineInput tried = in_;
                tried.shafts[k].shaft.phase = build::Dimension{phase, "", build::Provenance::Derived};
                if (!s.phase && phase == 0) continue; // as it is taken to be
                if (!good(tried)) continue;
                p_.remedies.push_back({phase == 0 ? fmt::format("put the yokes of {} in phase", s.name)
                                                  : fmt::format("turn one yoke of {} by a quarter", s.name),
                                       fmt::format("shaft {} phase {:g}deg", s.name, phase / one_degree), 0});
                return;
            }
        }
    }
    void shim() {
        if (last().kind != build::DriveEndKind::Pinion || !own(lastIndex())) return;
        const auto by =
            smallest(shim_step, shim_most, [&](LineInput& in, double turn) { in.ends[lastIndex()].turned_rad += turn; });
        if (by) p_.remedies.push_back({fmt::format("turn the pinion {}", turnWords(*by)), shimLine(*by), 1});
    }
    void tail() {
        if (in_.ends[firstIndex()].on != Carrier::Frame || !own(firstIndex())) return;
        const auto by = smallest(tail_step_mm, tail_most_mm, [&](LineInput& in, double up) { lift(in.ends[firstIndex()], up); });
        if (by)
            p_.remedies.push_back(
                {fmt::format("the tail of {} {}", in_.ends[firstIndex()].name, upWords(*by)), tailLine(*by), 2});
    }
    void bearing() {
        for (std::size_t k = 0; k + 1 < chain_.size(); ++k) {
            const std::size_t end = in_.shafts[chain_[k]].to;
            const EndIn& e = in_.ends[end];
            if (const auto by =
                    smallest(bearing_step_mm, bearing_most_mm, [&](LineInput& in, double up) { in.ends[end].moved.z_mm += up; }))
                p_.remedies.push_back({fmt::format("the bearing {} {}", e.name, upWords(*by)),
                                       fmt::format("bearing {} raise {:g} mm", e.name, e.moved.z_mm + *by), 3});
            if (const auto by = smallest(bearing_step_mm, bearing_most_mm,
                                         [&](LineInput& in, double right) { in.ends[end].moved.y_mm += right; }))
                p_.remedies.push_back(
                    {fmt::format("the bearing {} {:g} mm to the {}", e.name, std::abs(*by), *by > 0 ? "right" : "left"),
                     fmt::format("bearing {} aside {:g} mm", e.name, e.moved.y_mm + *by), 3});
        }
    }
    /// Pinion and tail at once: the pair that moves least, a degree counted as 10 mm.
    void together() {
        if (last().kind != build::DriveEndKind::Pinion || in_.ends[firstIndex()].on != Carrier::Frame || !own(firstIndex()) ||
            !own(lastIndex()))
            return;
        std::optional<std::pair<double, double>> best;
        const auto cost = [](double up, double turn) { return std::abs(up) + 10 * std::abs(turn) / one_degree; };
        for (double up = -tail_most_mm; up <= tail_most_mm; up += combined_mm)
            for (double turn = -shim_most; turn <= shim_most + 1e-9; turn += combined_shim) {
                if (best && cost(up, turn) >= cost(best->first, best->second)) continue;
                LineInput tried = in_;
                lift(tried.ends[firstIndex()], up);
                tried.ends[lastIndex()].turned_rad += turn;
                if (good(tried)) best = {up, turn};
            }
        if (best)
            p_.remedies.push_back({fmt::format("the tail of {} {}, and the pinion {}", in_.ends[firstIndex()].name,
                                               upWords(best->first), turnWords(best->second)),
                                   tailLine(best->first) + "; " + shimLine(best->second), 4});
    }

    const LineInput& in_;
    const Chain& chain_;
    ChainPlan& p_;
    Carried carried_;
    std::vector<Look> looks_;         ///< of all chains
    std::size_t own_ = 0;             ///< this one's
    std::vector<std::size_t> others_; ///< of the same housing, and smooth as they are
    std::vector<std::array<double, 2>> slopes_;
};

} // namespace

void findRemedies(const LineInput& in, const std::vector<Chain>& chains, std::size_t which, std::vector<ChainPlan>& plans) {
    Search(in, chains, which, plans).all();
}

} // namespace gorvet::drive
