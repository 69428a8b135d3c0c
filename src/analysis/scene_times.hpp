#pragma once

#include "analysis/way_in.hpp"

/// What is watched in space, moment by moment: the way in, the wheels' travel, the change of the chassis, the order of work.
namespace gorvet::analysis {

struct SceneMoment {
    geometry::RigidTransform seat;               ///< of the body in the chassis frame
    std::vector<geometry::RigidTransform> moved; ///< of each part that moves, along the chassis' axes; empty: as they stand
    std::string words;                           ///< how it stands, and what is nearest
    std::string brief;     ///< at the place that is nearest: "wheel front left 12 mm"; empty: nothing is near
    shape::Point3 where{}; ///< it, in the chassis frame
    sheet::Severity severity = sheet::Severity::Good; ///< of what is nearest: nearer than it may be, not proven, or clear
    bool touches() const { return severity == sheet::Severity::Bad; }
    bool body = true;       ///< it stands on the chassis
    bool as_planned = true; ///< the chassis; else as it was surveyed
    bool steel = true;      ///< new steel is in
    bool uncut = true;      ///< what is to be taken out of the body is still there
};
struct SceneTimes {
    std::vector<SceneMoment> moments;                 ///< never empty
    std::string words;                                ///< what is watched, with its caution
    std::vector<std::pair<std::string, size_t>> ways; ///< moments to go to at once
    std::vector<size_t> moving;                       ///< places in Overlay::on_chassis of the parts that move
};

/// The way from hanging free to the seat, pose by pose; where none was found, straight down as far as that was looked at. Nothing
/// when nothing is in it.
std::optional<SceneTimes> wayTimes(const build::Build&, const Overlay&, const WayFound&);
/// Wheels and axles through bump and droop, then through lock where they stand and at full bump, each pose by the exact distance
/// of the surfaces. Nothing when nothing moves, or when stopped.
std::optional<SceneTimes> travelTimes(const build::Build&, const Overlay&, const std::function<bool(double)>& progress = {});
/// Before the change of the chassis and after it; nothing where none is planned.
std::optional<SceneTimes> changeTimes(const build::Build&, const Results&, const Overlay&);
/// The order of work, step by step: what stands on the car while it is done. Nothing where no work is planned.
std::optional<SceneTimes> workTimes(const build::Build&, const Results&, const Overlay&);

/// The chassis as planned without some of its parts.
shape::Mesh chassisWithout(const Overlay&, const std::vector<size_t>& on_chassis);

} // namespace gorvet::analysis
