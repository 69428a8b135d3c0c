#pragma once

#include "geometry/vec3.hpp"

#include <complex>
#include <vector>

/// Cross joints one after another, in three dimensions. Angles rad; directions of length 1, along the flow.
namespace gorvet::drive {

/// Angle between two directions, 0 … π.
double angleBetween(const geometry::Vec3& a, const geometry::Vec3& b);

/// How fast the driven side turns for each turn of the driving side: cos β/(1 − sin²β cos²γ), γ = 0 with the driving fork in the
/// plane of both shafts; β below a right angle. engineering.md, Drive.
double ratioOfCross(double beta_rad, double fork_rad);

/// A joint of a chain: the angle between what drives and what is driven.
struct ChainJoint {
    geometry::Vec3 in;
    geometry::Vec3 out;
    bool even = false; ///< it passes turning on evenly: constant velocity, or double cross with its centring
    double clock_rad =
        0; ///< by how far the fork that drives it is turned against the driven fork of the joint before, about `in`; 0: in phase
};

/// What is left of all of them together, as the angle of the one cross joint that would do the same: θ² = |Σ (−1)ᵏ βₖ² e^{2iφₖ}|,
/// for small angles. φ is the plane of each joint about the shaft, carried from shaft to shaft without twist. Even joints count
/// for nothing, and the phase runs through them. engineering.md, Drive.
double residualAngle(const std::vector<ChainJoint>&);
/// θ² itself, before its size is taken.
std::complex<double> residualSquared(const std::vector<ChainJoint>&);

/// How far the last shaft runs ahead of an even one at most, and behind, half of the two together; exact, by vectors over a turn
/// in `steps` parts. An even joint passes the phase on as it is. The small-angle rule gives θ²/4.
double exactLead(const std::vector<ChainJoint>&, int steps = 720);

/// How fast the last shaft turns for each turn of the first, at the slowest and at the fastest; exact. Half a turn is looked
/// through in so many steps: it comes again after that.
struct RatioSpan {
    double least = 1;
    double most = 1;
    /// How far it strays from even, up or down.
    double stray() const { return most - 1 > 1 - least ? most - 1 : 1 - least; }
};
RatioSpan exactRatio(const std::vector<ChainJoint>&, int steps = 180);
/// The same at each step of a turn of the first shaft.
std::vector<double> exactRatios(const std::vector<ChainJoint>&, int steps);

} // namespace gorvet::drive
