#include "make/weld_plan.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include <fmt/format.h>

namespace gorvet::make {

using build::PlanVerdict;

namespace {

/// Usual rates; none was measured here.
constexpr double fine_kg_h = 1.0, coarse_kg_h = 1.8, rod_kg_h = 0.5, gas_l_min = 12, tack_minutes = 0.7, setting_minutes = 6;
constexpr double arc_share_bench = 0.30, arc_share_car = 0.20, lost = 1.05, crowned = 1.15;
constexpr double most_leg_a_pass_mm = 6, thin_mm = 1.5, fine_wire_mm = 3, preheat_mm = 20, most_leg_of_thin = 1.0;
constexpr double side_mm = 20; ///< nearer to the middle it stands on neither side

int sideOf(const WeldSeam& s) { return s.at.y_mm < -side_mm ? -1 : s.at.y_mm > side_mm ? 1 : 0; }

/// By how thick the thinner is: a kind of process, no make.
void howWelded(const WeldSeam& s, WeldStep& step, double& kg_h) {
    if (s.thickness_mm < thin_mm) {
        step.process = "TIG, or MAG by spots";
        step.filler = "rod 1.6, or solid wire 0.6";
        kg_h = rod_kg_h;
    } else if (s.thickness_mm <= fine_wire_mm) {
        step.process = "MAG";
        step.filler = "solid wire 0.8";
        kg_h = fine_kg_h;
    } else {
        step.process = "MAG";
        step.filler = "solid wire 1.0";
        kg_h = coarse_kg_h;
    }
}

WeldStep stepOf(const WeldIn& in, std::size_t k) {
    const WeldSeam& s = in.seams[k];
    WeldStep w;
    w.seam = k;
    double kg_h = 1;
    howWelded(s, w, kg_h);
    const double pitch = std::clamp(25 * s.thickness_mm, 50.0, 150.0);
    w.tacks = std::max(2, static_cast<int>(std::ceil(s.length_mm / pitch)));
    w.tack_mm = std::clamp(3 * s.thickness_mm, 8.0, 20.0);
    w.run_mm = std::clamp(20 * s.thickness_mm, 40.0, 100.0);
    w.passes = std::max(1, static_cast<int>(std::ceil(std::pow(s.leg_mm / most_leg_a_pass_mm, 2) - 1e-9)));
    w.runs = std::max(1, static_cast<int>(std::ceil(s.length_mm / w.run_mm - 1e-9))) * w.passes;
    // a butt is opened to 60° and to a gap of a third of it, 2 at the most
    const double gap = std::min(2.0, s.leg_mm / 3);
    const double area =
        s.kind == WeldKind::Fillet ? s.leg_mm * s.leg_mm / 2 : s.leg_mm * (gap + s.leg_mm * std::tan(units::radians(30)));
    const double deposit = area * crowned * s.length_mm * units::steel_kg_mm3;
    w.wire_kg = deposit * lost;
    w.arc_min = deposit / kg_h * 60;
    w.gas_l = w.arc_min * gas_l_min;
    w.work_min = w.arc_min / (s.on_car ? arc_share_car : arc_share_bench) + w.tacks * tack_minutes + setting_minutes;
    const double thick = std::max(s.thickness_mm, 0.5);
    w.pull_mm = s.kind == WeldKind::Fillet ? 1.02 * s.leg_mm / thick : 0.2 * area / thick + 0.05 * gap;
    return w;
}

/// How hot places are when they are begun: what each of the three welded before left there, and the same side again.
double heatIn(const WeldIn& in, const std::vector<std::size_t>& order) {
    constexpr double spreads_mm = 150, cools = 0.6, same_side = 0.5;
    double sum = 0;
    for (std::size_t k = 1; k < order.size(); ++k) {
        double here = 0, weight = 1;
        for (std::size_t back = 1; back <= std::min<std::size_t>(3, k); ++back, weight *= cools)
            here += weight * std::exp(-geometry::between(in.seams[order[k]].at, in.seams[order[k - back]].at) / spreads_mm);
        sum += here * here; // one hot place is worse than two warm ones
        if (sideOf(in.seams[order[k]]) * sideOf(in.seams[order[k - 1]]) > 0) sum += same_side;
    }
    return sum;
}
/// Two seams changed about while that leaves it colder.
void settleOrder(const WeldIn& in, std::vector<std::size_t>& order) {
    double heat = heatIn(in, order);
    constexpr std::size_t most_seams = 60; // more of them have room enough
    for (bool better = order.size() <= most_seams; better;) {
        better = false;
        for (std::size_t i = 0; i < order.size(); ++i)
            for (std::size_t j = i + 1; j < order.size(); ++j) {
                std::swap(order[i], order[j]);
                if (const double now = heatIn(in, order); now < heat - 1e-9) {
                    heat = now;
                    better = true;
                } else {
                    std::swap(order[i], order[j]);
                }
            }
    }
}

/// Of those on the car: begun in the middle, then always the place that stayed coldest.
std::vector<std::size_t> carOrder(const WeldIn& in) {
    std::vector<std::size_t> left, order;
    geometry::Vec3 middle;
    for (std::size_t k = 0; k < in.seams.size(); ++k)
        if (in.seams[k].on_car) {
            left.push_back(k);
            middle = geometry::plus(middle, in.seams[k].at);
        }
    if (left.empty()) return order;
    middle = geometry::times(middle, 1.0 / static_cast<double>(left.size()));
    while (!left.empty()) {
        const auto worth = [&](std::size_t k) {
            const WeldSeam& s = in.seams[k];
            if (order.empty()) return -geometry::between(s.at, middle);
            const WeldSeam& last = in.seams[order.back()];
            double score = geometry::between(s.at, last.at);
            if (order.size() > 1) score = std::min(score, 2 * geometry::between(s.at, in.seams[order[order.size() - 2]].at));
            constexpr double other_side_mm = 2000; // more than a frame is wide: it comes first
            if (sideOf(s) * sideOf(last) < 0) score += other_side_mm;
            if (s.part == last.part) score -= other_side_mm / 2;
            return score;
        };
        const auto best =
            std::max_element(left.begin(), left.end(), [&](std::size_t a, std::size_t b) { return worth(a) < worth(b); });
        order.push_back(*best);
        left.erase(best);
    }
    settleOrder(in, order);
    return order;
}

void remarksOf(const WeldIn& in, WeldPlan& p) {
    const auto add = [&](const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
    };
    for (const WeldSeam& s : in.seams) {
        const double least = s.thickness_mm <= 6 ? 3 : 5;
        if (s.kind == WeldKind::Fillet && s.thickness_mm >= 3 && s.leg_mm < least - 1e-9)
            add("weld-small", PlanVerdict::Marginal,
                fmt::format("{}, {}: a leg of {:g} on {:g} mm cools too fast to hold.", s.part, s.what, s.leg_mm, s.thickness_mm),
                fmt::format("A leg of {:g}, or warmed before.", least));
        if (s.kind == WeldKind::Fillet && s.leg_mm > most_leg_of_thin * s.thickness_mm + 1e-9 && s.thickness_mm < 3)
            add("weld-large", PlanVerdict::Marginal,
                fmt::format("{}, {}: a leg of {:g} burns through {:g} mm.", s.part, s.what, s.leg_mm, s.thickness_mm),
                "A leg as thick as the sheet, in short runs.");
        if (s.thickness_mm > preheat_mm)
            add("weld-preheat", PlanVerdict::Marginal, fmt::format("{}, {}: {:g} mm thick.", s.part, s.what, s.thickness_mm),
                "Warmed before by whoever is licensed for such steel.");
    }
}

} // namespace

const char* const weld_rates =
    "Hours, wire and gas by usual rates: 0.5, 1.0 and 1.8 kg/h by thickness, the arc burning 30 % of the time on the bench and 20 % on the car, 12 l/min.";

Heat heatOf(const WeldIn& in, const std::vector<std::size_t>& order) {
    Heat h;
    h.least_mm = std::numeric_limits<double>::infinity();
    int pairs = 0;
    const WeldSeam* last = nullptr;
    for (const std::size_t k : order) {
        const WeldSeam& s = in.seams[k];
        if (!s.on_car) continue;
        if (last) {
            const double d = geometry::between(s.at, last->at);
            h.least_mm = std::min(h.least_mm, d);
            h.mean_mm += d;
            h.same_side += sideOf(s) * sideOf(*last) > 0;
            ++pairs;
        }
        last = &s;
    }
    if (pairs) h.mean_mm /= pairs;
    return h;
}

WeldPlan weldPlan(const WeldIn& in) {
    WeldPlan p;
    std::vector<std::size_t> order;
    for (std::size_t k = 0; k < in.seams.size(); ++k)
        if (!in.seams[k].on_car) order.push_back(k);
    for (const std::size_t k : carOrder(in)) order.push_back(k);
    for (const std::size_t k : order) {
        WeldStep w = stepOf(in, k);
        w.number = static_cast<int>(p.steps.size()) + 1;
        p.length_mm += in.seams[k].length_mm;
        p.wire_kg += w.wire_kg;
        p.gas_l += w.gas_l;
        p.arc_min += w.arc_min;
        p.work_min += w.work_min;
        p.steps.push_back(w);
    }
    remarksOf(in, p);
    return p;
}

} // namespace gorvet::make
