#pragma once

#include "sit/sit.hpp"

#include <Eigen/Core>

/// What the pins come to for one pose. Internal to this room.
namespace gorvet::sit {

/// Shift x y z, yaw, pitch, roll (scaled by turn_scale_mm to mm), change of wheelbase.
using Parameters = Eigen::Matrix<double, 7, 1>;
/// Turns are solved as mm at this arm, so that all parameters are of one size.
inline constexpr double turn_scale_mm = 1000.0;
Pose poseOf(const Parameters&);
Parameters parametersOf(const Pose&, double change_mm);

/// The points as they stand for one evaluation: input coordinates may be shifted to differentiate by them.
struct Scene {
    const Input* input;
    std::vector<Vec3> body;
    std::vector<Vec3> chassis;
};
Scene sceneOf(const Input&);

Vec3 mean(const std::vector<Vec3>&);
/// Hubs of one axle after the change of wheelbase; empty when none was measured.
std::vector<Vec3> axle(const Scene&, bool rear, double change_mm);
std::optional<Ground> groundOf(const Scene&, double change_mm);

struct Evaluated {
    std::vector<double> residuals; ///< weighted; of every part of every pin that is no bound
    std::vector<double> bounds;    ///< weighted, ≥ 0: kept; of every part of a bound that may be broken at a cost
    std::vector<double> musts;     ///< mm or rad over tolerance, ≥ 0: kept
    std::vector<int> bound_of;     ///< the pin of each of `bounds`
    std::vector<int> must_of;
    std::vector<double> achieved; ///< of each pin: the mean of its parts, the worst of a bound's; NaN when not usable
    std::vector<double> miss;
    std::vector<std::vector<double>> parts; ///< of each pin: what its points come to one by one
    double both_centred = std::nan("");
};
Evaluated evaluate(const Scene&, const Parameters&);
/// What a pin is to come to: 0 where it centres or levels.
double targetOf(const Pin&);
/// Whether its two parts are one distance from a line, across it and up.
bool isPlaneVector(const Pin&, size_t parts);

} // namespace gorvet::sit
