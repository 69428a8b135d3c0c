#pragma once

#include "shape/transform.hpp"
#include "units/quantity.hpp"

#include <memory>
#include <string>
#include <vector>

/// The way in: how high the body must hang so that the chassis rolls under it, and what stands in its way when it comes down.
namespace gorvet::sit {

struct WayPart {
    std::string name;
    std::shared_ptr<const shape::Mesh> mesh; ///< in the chassis frame
};

/// Heights and moves: nobody hangs a body by tenths of a millimetre. Inches always with their unit.
std::string wholeLength(double mm, units::LengthStep, bool with_unit = false);

struct WayOptions {
    double cell_mm = 20;         ///< columns so wide and long; > 0
    double spare_mm = 50;        ///< air between the two while it rolls; ≥ 0
    double most_tilt_rad = 0.12; ///< the body may hang nose up or down by so much
    units::LengthStep words_in = units::LengthStep::Mm01;
};

/// How high for one way of coming.
struct Lift {
    double lift_mm = 0;                                  ///< above its seat, spare included
    shape::Point3 at{};                                  ///< the chassis' place that asks for it
    std::string part;                                    ///< of which part
    std::vector<std::pair<std::string, double>> by_part; ///< what each part alone would ask for, the most first
};
/// Chassis that stands over body in the same column: straight down they would meet.
struct Undercut {
    double by_mm = 0;   ///< how far it stands over, at most
    shape::Point3 at{}; ///< there, on the chassis
    std::string part;
    double area_mm2 = 0; ///< seen from above
};
struct WayIn {
    Lift from_behind; ///< the chassis rolls in under the tail
    Lift from_front;  ///< under the nose
    bool behind_is_less = true;
    double tilt_rad = 0;             ///< > 0 nose up: the tilt at which the least lift is asked for
    Lift tilted;                     ///< with it, from the side that asks for less
    std::vector<Undercut> undercuts; ///< the largest first
    std::string words;               ///< of the lift
    std::string undercut_words;      ///< empty: nothing stands over anything
};
/// From above: in each column the body's lowest and the chassis' highest place count, so that the answer is a little too much
/// rather than too little, by up to a cell's rise. Moves are along the car and straight down. Parts without a mesh are left out.
WayIn wayIn(const shape::Mesh& body, const geometry::RigidTransform& seat, const std::vector<WayPart>& chassis,
            const WayOptions& = {});

} // namespace gorvet::sit
