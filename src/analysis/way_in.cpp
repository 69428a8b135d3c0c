#include "analysis/way_in.hpp"

#include "sit/way_sheet.hpp"
#include "units/quantity.hpp"

#include <algorithm>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using build::ScanPart;
using build::SubjectId;
using build::the_body;
using build::the_chassis;

namespace {

constexpr double level_mm = 10; ///< of what is cut for on the way

/// The parts of a subject that are steel, the body's without what kept cuts take out; `made` keeps what was made for it.
std::vector<sit::DownPart> downParts(const PlannedCuts& cuts, const Overlay& o, SubjectId s,
                                     std::vector<std::shared_ptr<const sit::Ready>>& made, int threads) {
    std::vector<sit::DownPart> parts;
    const std::vector<bool> cut = s == the_body && !cuts.empty() ? inKeptCuts(cuts, o) : std::vector<bool>{};
    for (size_t i = 0; i < o.of(s).size(); ++i) {
        const Overlay::Part& p = o.of(s)[i];
        if (!p.scan) continue; // an envelope that a pin keeps clear of is no steel
        const sit::Ready* ready = p.part.ready.get();
        if (auto rest = cut.empty() ? std::nullopt : withoutKeptCuts(cuts, o, cut, i)) {
            made.push_back(
                std::make_shared<const sit::Ready>(sit::readyOf(std::make_shared<const shape::Mesh>(std::move(*rest)), threads)));
            ready = made.back().get();
        }
        parts.push_back({p.part.name, ready, p.kind != ScanPart::Body && p.kind != ScanPart::Chassis});
    }
    return parts;
}

std::function<std::string(double)> wholeLength(const build::Build& b) {
    return [step = b.settings.length_step](double mm) { return sit::wholeLength(mm, step, true); };
}

std::string cloudWords(const WayFound& way) {
    return fmt::format("{} {}: between points there is no surface, and what slips between them was not seen.",
                       fmt::join(way.clouds, ", "), way.clouds.size() == 1 ? "is a cloud" : "are clouds");
}

} // namespace

double passing(const Overlay& o) { return std::clamp(std::max(1.0, o.need.foulsBelow()) / 2, 1.0, 5.0); }

Headline wayHeadline(const build::Build& b, const WayFound& way) {
    const auto len = wholeLength(b);
    const double lift = std::min(way.in.from_behind.lift_mm, way.in.from_front.lift_mm);
    const sit::WayDown& d = way.down;
    if (d.found && d.straight)
        return {fmt::format("From {} above its seat the body comes straight down.", len(lift)), way.in.words};
    if (d.found)
        return {fmt::format("From {} above its seat the body comes down in {} moves.", len(lift), d.corners.size() - 1),
                way.in.words};
    return {"Even cut to clear where it sits, the body does not come down onto it.", way.in.words};
}

std::optional<WayFound> wayOf(const Overlay& o, const PlannedCuts& cuts, int threads, const std::function<bool()>& stop,
                              units::LengthStep step) {
    if (!o.complete()) return std::nullopt;
    WayFound way;
    sit::WayOptions in;
    in.words_in = step;
    way.in = sit::wayIn(*o.body->mesh, o.seat, o.chassis_parts, in);
    if (stop && stop()) return std::nullopt;
    sit::DownOptions options;
    options.touches_mm = std::max(1.0, o.need.foulsBelow());
    options.through_mm = passing(o);
    options.words_in = step;
    const double lift = std::min(way.in.from_behind.lift_mm, way.in.from_front.lift_mm);
    std::vector<std::shared_ptr<const sit::Ready>> made;
    const auto body = downParts(cuts, o, the_body, made, threads), chassis = downParts(cuts, o, the_chassis, made, threads);
    auto down = sit::wayDown(body, chassis, o.seat, std::max(lift, 50.0), options, threads, stop);
    if (!down) return std::nullopt;
    way.down = std::move(*down);
    for (const SubjectId s : {the_body, the_chassis})
        for (const Overlay::Part& p : o.of(s))
            // a cloud's points count as themselves
            if (const auto& t = p.part.ready->mesh->triangles; p.scan && !t.empty() && t[0][0] == t[0][1])
                way.clouds.push_back(p.part.name);
    way.words = way.in.words + (way.in.words.empty() || way.down.words.empty() ? "" : " ") + way.down.words;
    if (!way.clouds.empty()) way.words += " " + cloudWords(way);
    return way;
}

std::vector<sit::CutAgainst> cutsForWay(const Overlay& o, const WayFound& way) {
    std::vector<sit::CutAgainst> list;
    for (const Overlay::Part& f : o.on_chassis) {
        double up = 0;
        for (const auto& i : way.down.in_the_way)
            if (i.take_off.empty() && i.chassis_part == f.part.name) up = std::max(up, i.up_mm);
        if (up <= 0) continue;
        // the body higher is the part lower; one step beyond, for what lies between two
        for (double level = level_mm; level < up + 2 * level_mm; level += level_mm)
            list.push_back(
                {f.part.ready.get(), passing(o) - o.need.foulsBelow(), geometry::rigidTransform({0, 0, -level}, 0, 0, 0)});
    }
    return list;
}

std::vector<sit::CutAgainst> cutsForWay(const Overlay& o, int threads, const std::function<bool()>& stop) {
    const auto way = wayOf(o, {}, threads, stop);
    return way ? cutsForWay(o, *way) : std::vector<sit::CutAgainst>{};
}

sheet::Drawing wayView(const build::Build& b, const Overlay& o, const WayFound& way, double width, double height,
                       const sheet::Format& f) {
    sit::WayView v;
    v.in = &way.in;
    v.down = &way.down;
    v.fouls_below_mm = o.need.foulsBelow();
    v.tight_below_mm = o.need.tightBelow();
    v.length = wholeLength(b);
    v.near = [step = b.settings.length_step](double mm) { return units::formatLength(mm, step, true); };
    if (way.down.found)
        v.remarks.push_back(fmt::format(
            "Each pose by the exact distance of the surfaces; between two poses it comes no nearer than {}, to the last {}.",
            v.near(way.down.no_nearer_mm), v.length(20)));
    if (way.down.left_out_mm2 >= 100)
        v.remarks.push_back(fmt::format(
            "What is nearer than {} at the seat counts as cut, or as resting there: {:.0f} cm² of the body were left out.",
            v.near(std::max(1.0, o.need.foulsBelow())), way.down.left_out_mm2 / 100));
    if (!way.clouds.empty()) v.remarks.push_back(cloudWords(way));
    v.remarks.emplace_back("Wheels and axles as they stand. Ropes, hooks and stands want room of their own.");
    v.remarks.emplace_back("Nobody under a hung body. Lower it on blocks, never on hands.");
    return sit::waySheet(v, width, std::max(height, sit::wayHeight(v, width, f)), f);
}

} // namespace gorvet::analysis
