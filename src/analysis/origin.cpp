#include "analysis/origin.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// The station that the datum gives to named points: what is held, or the rule for the station.
struct Given {
    std::string names;
    double station_mm = 0;
};
std::optional<Given> given(const Build& b) {
    for (const auto& [id, rule] : b.datum) {
        if (rule.subject != the_chassis || rule.kind != DatumKind::Station || rule.points.empty()) continue;
        Given g{nameOf(b, rule.points.front()), rule.value.value};
        if (rule.points.size() > 1) g.names = "the middle of " + g.names + " and " + nameOf(b, rule.points.back());
        return g;
    }
    std::optional<Given> nearest; // of several held stations the one that is nearest to 0 tells best where that is
    for (const auto& [id, hold] : b.holds) {
        const auto p = b.points.find(hold.point);
        if (hold.axis != Axis::X || p == b.points.end() || p->second.subject != the_chassis) continue;
        if (!nearest || std::abs(hold.value.value) < std::abs(nearest->station_mm))
            nearest = Given{p->second.name, hold.value.value};
    }
    return nearest;
}

} // namespace

Origin originOf(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    Origin o;
    const tape::FramePoints& f = r.chassis.frame;
    double sum = 0;
    int hubs = 0;
    for (const int i : {f.front_hub_left, f.front_hub_right})
        if (i >= 0 && r.chassis.solution->points[static_cast<size_t>(i)].determined) {
            sum += r.chassis.solution->points[static_cast<size_t>(i)].position.x_mm;
            ++hubs;
        }
    if (hubs) o.axle_mm = sum / hubs;
    o.at_axle = o.axle_mm && std::abs(*o.axle_mm) <= 1;
    const auto held = given(b);
    if (o.at_axle)
        o.from = "from the front axle";
    else if (held)
        o.from = std::abs(held->station_mm) < 0.05
                     ? "from " + held->names
                     : fmt::format("from a place {} {} {}", units::formatLength(std::abs(held->station_mm), step),
                                   held->station_mm > 0 ? "ahead of" : "behind", held->names);
    else if (!r.chassis.point_ids.empty() && r.chassis.solution->status != tape::Status::NoReadings)
        o.from = "from where the rough places put 0";
    else
        o.from = "from the datum";
    if (o.axle_mm && !o.at_axle)
        o.axle_words = fmt::format(", the front axle stands at {}", units::formatLength(*o.axle_mm, step));
    return o;
}

} // namespace gorvet::analysis
