#pragma once

#include "sit/sit.hpp"

/// Which pin costs which: what a move of the body brings and takes, and what giving up one pin gives the others.
namespace gorvet::sit {

/// The body moved from its seat by so much, everything else as it is.
struct Move {
    std::string words; ///< "dropping the body 20"
    Vec3 shift;
    double pitch_rad = 0; ///< about the middle between the axles; > 0 nose up
};
/// The usual ones: down and up, forward and rearward, nose down and up; `step_mm` > 0, a tenth of a degree for each 4 mm.
std::vector<Move> usualMoves(double step_mm = 20);

struct Moved {
    Move move;
    std::vector<PinResult> pins; ///< as in Input::pins, there
    std::vector<double> gain; ///< of each: by how much its miss, or the spare of its bound, gets better (> 0) or worse; mm or rad
};
/// What every move would bring, from a seat of this input.
std::vector<Moved> afterMoves(const Input&, const Seat&, const std::vector<Move>&);

/// One pin left out, the rest solved anew.
struct GivenUp {
    int pin = -1;
    PinResult becomes;      ///< what it comes to then
    std::vector<int> gains; ///< pins that miss less, the one that gains most first
    std::vector<PinResult> pins;
};
/// For each pin that others pull away or that presses on others; those that would change nothing are left out.
std::vector<GivenUp> givenUp(const Input&, const Seat&);

} // namespace gorvet::sit
