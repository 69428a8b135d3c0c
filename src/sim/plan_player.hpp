#pragma once

#include "work/work.hpp"

#include <string>

/// A workshop that plays an order of work step by step and refuses what hands can't do or what hurts: something is in the way,
/// closed, hung, hot, or not yet made. It knows what each step does to the car, not why the order was made so.
namespace gorvet::sim {

/// How far it came.
struct PlayedPlan {
    bool to_the_end = false;
    int steps = 0;       ///< that were played
    std::string refused; ///< code of the step that was refused; empty when none was
    std::string title;
    std::string why; ///< "the rails are cut: nothing may be lifted"
};

/// Plays the steps in their order, hold points taken as open. What is not said to be absent is taken as there.
PlayedPlan playPlan(const work::Facts&, const work::Order&);

} // namespace gorvet::sim
