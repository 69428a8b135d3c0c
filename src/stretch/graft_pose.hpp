#pragma once

#include "build/graft.hpp"

#include <string>
#include <vector>

/// Where a piece of another frame stands when its pins are kept as well as they let: six degrees of freedom by least squares.
namespace gorvet::stretch {

struct PoseInput {
    std::vector<build::Vec3> points; ///< of the piece, in its own frame
    std::vector<double> covariance;  ///< of all their coordinates: 3n × 3n, mm², row-major
    struct Pin {
        build::GraftPinKind kind = build::GraftPinKind::Station;
        std::vector<std::size_t> points;
        double target_mm = 0;
        double tolerance_mm = 2;
    };
    std::vector<Pin> pins;
};
struct GraftPose {
    bool found = false;              ///< it came to rest
    std::vector<build::Vec3> points; ///< as it stands, in the chassis' frame
    /// Of those: what the piece's survey does to where each comes to stand, once it is set by its pins.
    std::vector<double> covariance;
    std::vector<std::string> open; ///< what no pin decides, each a sentence; it stays as it is in its own frame
};
/// Gauss and Newton over three turns and three shifts, each residual over its tolerance; started in the piece's own frame.
GraftPose graftPose(const PoseInput&);

} // namespace gorvet::stretch
