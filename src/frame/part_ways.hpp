#pragma once

#include "frame/weights.hpp"

/// How the ends of a frame move when its rails part: each half is a beam on its stands, with its end hanging over.
namespace gorvet::frame {

/// What the end of a half does by its own weight.
struct EndMoves {
    double drops_mm = 0;    ///< > 0 down
    double leans_rad = 0;   ///< > 0: its end face leans so that the frame's front end stands higher than its rear
    double yields_mm_n = 0; ///< how far the end gives to one newton upright
};
/// Both rails as one straight beam of a constant section: `ei_nmm2` is of both together. `weights` are those of the half,
/// `near_mm` and `far_mm` its supports (they do not give), `end_mm` the end at the cut. The supports must be apart.
EndMoves endMoves(const std::vector<Weight>& weights, double near_mm, double far_mm, double end_mm, double ei_nmm2);

/// What is left of a step between two ends once tubes tie them: each tube is fast on both rails, and bends over `free_mm`
/// between. `ei_nmm2` of one tube; there are two.
double stepWithTies(double step_mm, const EndMoves& ahead, const EndMoves& behind, double ei_nmm2, double free_mm);

} // namespace gorvet::frame
