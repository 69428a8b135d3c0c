#pragma once

#include "analysis/frame.hpp"
#include "analysis/graft.hpp"

/// The frame with a piece of another one joined to it, as it carries. Internal to this room.
namespace gorvet::analysis {

/// Rails as they will be: the piece's up to the joint, what joins them, the chassis' own beyond it.
struct GraftedFrame {
    /// A length of the rails, between stations, with another section.
    struct Part {
        double from_mm = 0, to_mm = 0;
        frame::Profile section;
    };
    build::RailLine left, right; ///< by their middles: `height_mm` is the chassis' own
    std::vector<Part> parts;
    double stays_from_mm = -1e9, stays_to_mm = 1e9;             ///< of the chassis
    std::vector<std::pair<build::PointId, build::Vec3>> points; ///< the piece's, where they stand once it is set
    std::vector<std::string> assumed;

    bool stays(double station_mm) const { return station_mm >= stays_from_mm && station_mm <= stays_to_mm; }
    std::optional<build::Vec3> at(build::PointId) const;
};
/// None where no piece can be joined yet, or where the rails are to be cut for another wheelbase, too.
std::optional<GraftedFrame> graftedFrame(const build::Build&, const Results&);

/// What the frame asks of the joint of a piece, from what was worked out last; none where it was not.
std::optional<stretch::GraftFrame> graftFrame(const build::Build&, const Results&, const stretch::GraftPlan&,
                                              const build::Graft&);

} // namespace gorvet::analysis
