#include "frame/forces_sheet.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::frame {

using namespace sheet;

namespace {

constexpr double newton_metres = 1000; ///< N·mm in one

struct Strip {
    const char* name;
    const char* unit;
    double (*of)(const AtPlace&);
};
constexpr std::array<Strip, 3> strips{
    {{"bends it up and down", "N·m", [](const AtPlace& p) { return p.upright_nmm / newton_metres; }},
     {"shears it upright", "N", [](const AtPlace& p) { return p.shear_n; }},
     {"twists it", "N·m", [](const AtPlace& p) { return p.twist_nmm / newton_metres; }}}};

} // namespace

std::optional<Through> throughAt(const OfLine& l, double station) {
    for (std::size_t k = 1; k < l.places.size(); ++k) {
        const AtPlace &a = l.places[k - 1], &b = l.places[k];
        if (station < a.at.x_mm || station > b.at.x_mm || b.at.x_mm <= a.at.x_mm) continue;
        const double share = (station - a.at.x_mm) / (b.at.x_mm - a.at.x_mm);
        const auto at = [&](double p, double q) { return std::abs(p + (q - p) * share); };
        return Through{at(a.upright_nmm, b.upright_nmm) / newton_metres, at(a.shear_n, b.shear_n),
                       at(a.twist_nmm, b.twist_nmm) / newton_metres};
    }
    return {};
}

Through mostThrough(const OfLine& l) {
    Through most;
    for (const AtPlace& p : l.places) {
        most.bends_nm = std::max(most.bends_nm, std::abs(p.upright_nmm) / newton_metres);
        most.shear_n = std::max(most.shear_n, std::abs(p.shear_n));
        most.twist_nm = std::max(most.twist_nm, std::abs(p.twist_nmm) / newton_metres);
    }
    return most;
}

Drawing forcesSheet(const ForcesView& v, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    std::vector<const OfLine*> rails;
    double from = 1e12, to = -1e12;
    for (std::size_t l = 0; l < v.structure->lines.size(); ++l)
        if (v.structure->lines[l].rail && v.outcome->lines[l].places.size() > 1) {
            rails.push_back(&v.outcome->lines[l]);
            from = std::min(from, rails.back()->places.front().at.x_mm);
            to = std::max(to, rails.back()->places.back().at.x_mm);
        }
    if (rails.empty()) return d;
    const double left = f.px(190), right = width - f.px(24), foot = f.small() * 3.2;
    const double each = (height - foot) / static_cast<double>(strips.size());
    const auto x = [&](double station) { return left + (right - left) * (station - from) / std::max(1.0, to - from); };
    for (std::size_t s = 0; s < strips.size(); ++s) {
        double most = 1e-9;
        for (const OfLine* rail : rails)
            for (const AtPlace& p : rail->places) most = std::max(most, std::abs(strips[s].of(p)));
        const double middle = (static_cast<double>(s) + 0.5) * each, half = each * 0.4;
        d.add(Text{{0, middle - f.small() * 0.4}, strips[s].name, f.body(), Ink::Ink});
        d.add(Text{{0, middle + f.small()}, fmt::format("at most {:.0f} {}", most, strips[s].unit), f.small(), Ink::Second});
        d.add(Stroke{{{left, middle}, {right, middle}}, false, {Ink::Second, f.thin(), Dash::Solid}});
        for (std::size_t r = 0; r < rails.size(); ++r) {
            Stroke curve;
            curve.pen = {Ink::Chassis, r == 0 ? f.medium() : f.thin(), r == 0 ? Dash::Solid : Dash::Dashed};
            for (const AtPlace& p : rails[r]->places)
                curve.path.push_back({x(p.at.x_mm), middle - half * strips[s].of(p) / most});
            d.add(std::move(curve), "member:" + rails[r]->name);
        }
        for (const AtPlace& p : rails.front()->places)
            if (p.weld)
                d.add(Stroke{{{x(p.at.x_mm), middle - f.px(4)}, {x(p.at.x_mm), middle + f.px(4)}},
                             false,
                             {Ink::Ink, f.thin(), Dash::Solid}});
    }
    const double bottom = height - foot;
    for (const auto& [station, score] : v.better) {
        d.add(Stroke{{{x(station), bottom - f.px(10)}, {x(station), bottom}}, false, {Ink::NewSteel, f.medium(), Dash::Solid}},
              "cut");
        d.add(Text{{x(station), bottom + f.small() * 1.2},
                   fmt::format("{} ({:.1f})", v.station(station), score),
                   f.small(),
                   Ink::NewSteel,
                   Anchor::Centre},
              "cut");
    }
    for (const double station : v.cuts) {
        d.add(Stroke{{{x(station), 0}, {x(station), bottom}}, false, {Ink::Remove, f.medium(), Dash::Solid}}, "cut");
        d.add(Text{{x(station), bottom + f.small() * 2.5},
                   "cut at " + v.station(station),
                   f.small(),
                   Ink::Remove,
                   Anchor::Centre,
                   Level::Base,
                   Face::Bold},
              "cut");
    }
    d.add(Text{{0, height - f.small() * 0.4}, "solid: left; dashed: right; ticks: joints", f.small(), Ink::Second});
    return d;
}

} // namespace gorvet::frame
