#pragma once

#include "frame/structure.hpp"

/// What weighs where along a frame.
namespace gorvet::frame {

struct Weight {
    double kg = 0;
    Vec3 at;
    bool hangs = false; ///< something carried, no steel of the frame
};
/// Its steel and what it carries in short lengths, none longer than `longest_mm` along the frame. What is carried over a length
/// is spread evenly over it. Sections that can't be worked out weigh nothing: `analyse` says what is wrong with them.
std::vector<Weight> weightsOf(const Structure&, double longest_mm = 25);

/// What of them stands between two stations, as one: its mass and the middle of it.
struct Mass {
    double kg = 0;
    Vec3 middle;
};
Mass massBetween(const std::vector<Weight>&, double from_mm, double to_mm, bool with_what_hangs);

} // namespace gorvet::frame
