#pragma once

#include "drive/wheels.hpp"

/// What the files of the wheels share. Internal to this room.
namespace gorvet::drive {

/// How near the tyres of the fitted and of the wanted wheel come to what stands beside them, with ±.
class WheelNumbers {
public:
    explicit WheelNumbers(const WheelsIn&);
    /// Fills seen, now, planned and missing.
    void clearances(WheelsPlan&) const;

private:
    struct Wheel {
        bool there = false;
        bool by_backspace = false;
        std::size_t at = 0; ///< in the numbers: backspace or offset, over the lips, section, outside
        double seat_mm = 0;
        double plate_mm = 0; ///< between hub and wheel
        bool assumed = false;
    };
    std::size_t take(const Figure&, double step);
    Wheel wheelOf(const std::optional<build::WheelSet>&, double plate_mm);
    double middleOf(const Wheel&, const std::vector<double>& n) const;
    TyreShape shapeOf(const Wheel&, const std::vector<double>& n) const;
    /// What stands beside a corner, by those numbers; scanned things only when `scans`.
    std::vector<SeenThing> seen(std::size_t corner, const std::vector<double>& n, bool scans) const;

    std::vector<RoomClear> clearOf(const Wheel&, const std::array<std::vector<SeenThing>, 2>&) const;

    const WheelsIn& in_;
    std::vector<double> values_, variances_, steps_;
    std::array<Wheel, 2> wheels_;
    std::array<std::vector<std::size_t>, 2> taped_; ///< of each taped thing of a corner: its first number
    std::size_t places_ = 0;                        ///< the first number of the places
    std::array<std::vector<RigidTransform>, 2> back_;
};

/// Which widths and offsets fit.
WheelMap wheelMap(const WheelsIn&, const WheelsPlan&, std::size_t grid);
/// Adds remarks and the verdict.
void judgeWheels(const WheelsIn&, WheelsPlan&);

} // namespace gorvet::drive
