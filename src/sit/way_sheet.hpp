#pragma once

#include "sheet/drawing.hpp"
#include "sit/way_down.hpp"
#include "sit/way_in.hpp"

#include <functional>

/// The way in on a sheet: how high the body hangs for each part, how near it passes on the way down, and the moves.
namespace gorvet::sit {

struct WayView {
    const WayIn* in = nullptr;
    const WayDown* down = nullptr;
    double fouls_below_mm = 10; ///< of the build's least clearance, ± included
    double tight_below_mm = 15;
    std::function<std::string(double mm)> length; ///< as the user reads it, of heights and moves
    std::function<std::string(double mm)> near;   ///< of what passes
    std::vector<std::string> remarks;
};
/// What it needs in height at that width.
double wayHeight(const WayView&, double width, const sheet::Format&);
sheet::Drawing waySheet(const WayView&, double width, double height, const sheet::Format&);

/// The moves of a way down, one sentence each, from hanging to the seat.
std::vector<std::string> moves(const WayDown&, const std::function<std::string(double mm)>& length,
                               const std::function<std::string(double mm)>& near);

} // namespace gorvet::sit
