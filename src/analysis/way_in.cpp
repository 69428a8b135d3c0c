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

/// Half of the least clearance is enough to pass.
double passing(const Overlay& o) { return std::clamp(std::max(1.0, o.need.foulsBelow()) / 2, 1.0, 5.0); }

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

/// Heights and moves: nobody hangs a body by tenths.
std::function<std::string(double)> wholeLength(const build::Build& b) {
    return [step = b.settings.length_step](double mm) {
        return units::unitOf(step) == units::Unit::Millimetre ? fmt::format("{:.0f} mm", mm)
                                                              : units::formatLength(mm, step, true);
    };
}

std::string cloudWords(const WayFound& way) {
    return fmt::format("{} {}: between points there is no surface, and what slips between them was not seen.",
                       fmt::join(way.clouds, ", "), way.clouds.size() == 1 ? "is a cloud" : "are clouds");
}

} // namespace

Headline wayHeadline(const build::Build& b, const WayFound& way) {
    const auto len = wholeLength(b);
    const double lift = std::min(way.in.from_behind.lift_mm, way.in.from_front.lift_mm);
    const sit::WayDown& d = way.down;
    if (d.found && d.straight)
        return {fmt::format("From {} above its seat the body comes straight down.", len(lift)), way.in.words};
    if (d.found)
        return {fmt::format("From {} above its seat the body comes down in {} moves.", len(lift), d.corners.size() - 1),
                way.in.words};
    return {"Cut as its seat asks, the body does not come down onto it.", way.in.words};
}

std::optional<WayFound> wayOf(const Overlay& o, const PlannedCuts& cuts, int threads, const std::function<bool()>& stop) {
    if (!o.complete()) return std::nullopt;
    WayFound way;
    way.in = sit::wayIn(*o.body->mesh, o.seat, o.chassis_parts);
    if (stop && stop()) return std::nullopt;
    sit::DownOptions options;
    options.touches_mm = std::max(1.0, o.need.foulsBelow());
    options.through_mm = passing(o);
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

std::vector<WayMoment> wayMoments(const build::Build& b, const Overlay& o, const WayFound& way) {
    const auto step = b.settings.length_step;
    const auto length = [&](double mm) { return units::formatLength(std::abs(mm), step, true); };
    std::vector<WayMoment> moments;
    const auto& steps = way.down.found ? way.down.steps : way.down.tried;
    for (std::size_t k = 0; k < steps.size(); ++k) {
        const sit::DownStep& s = steps[k];
        WayMoment m;
        m.seat = geometry::chained(sit::hungAt(way.down.about, s.at), o.seat);
        // at the seat it rests, and is cut where it fouls: that is told elsewhere
        const bool seated = k + 1 == steps.size() && way.down.found;
        m.touches = !seated && !s.far && s.least_mm < passing(o);
        m.words = seated ? std::string("on its seat") : fmt::format("{} over its seat", length(s.at.up_mm));
        if (std::abs(s.at.back_mm) >= 0.5)
            m.words += fmt::format(", {} {}", length(s.at.back_mm), s.at.back_mm > 0 ? "rearward" : "forward");
        if (std::abs(s.at.tilt_rad) > 1e-4)
            m.words +=
                fmt::format(", nose {} by {}", s.at.tilt_rad > 0 ? "up" : "down", units::formatAngle(std::abs(s.at.tilt_rad)));
        if (!s.far && !seated) {
            m.words += s.least_mm <= 0 ? fmt::format(": {} touches {}", s.body_part, s.chassis_part)
                                       : fmt::format(": {} between {} and {}", length(s.least_mm), s.body_part, s.chassis_part);
            m.brief = s.chassis_part + " " + length(std::max(0.0, s.least_mm));
            m.where = s.where;
        }
        moments.push_back(std::move(m));
    }
    return moments;
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
