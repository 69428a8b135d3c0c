#pragma once

#include "tape/survey.hpp"

#include <array>

/// Two surveys of one thing: before and after welding, body off and on, this frame and a drawing's figures. What moved, and is it
/// more than the tape's own doubt?
namespace gorvet::tape {

/// Points that both surveys know, by index in each.
struct Common {
    int before = -1;
    int after = -1;
    std::array<bool, 3> known{true, true, true}; ///< coordinates that both have: a drawing may lack some
    bool lays = true;                            ///< the surveys are laid on each other by it
    Vec3 planned{};                              ///< a move that was planned for it, taken off first
    bool operator==(const Common&) const = default;
};

struct Moved {
    int before = -1;
    int after = -1;
    Vec3 by;             ///< after − before − planned, once the second was laid on the first; 0 where not known
    double u95[3]{};     ///< ± at 95 % of each; infinite where not known
    double t = 0;        ///< |by| against its own spread: √(byᵀ C⁻¹ by); 2.80 is passed by chance in 5 of 100
    bool proven = false; ///< byᵀ C⁻¹ by beyond χ² at 5 % of as many as are known of it
    bool lays = false;   ///< it is one of those by which the surveys were laid on each other in the end
};

struct Comparison {
    bool possible = false;
    std::string message;      ///< why not
    std::vector<Moved> moved; ///< the furthest beyond its ± first
    Vec3 shift;               ///< of the second survey onto the first, mm
    Vec3 turn_rad;            ///< small turns about x, y, z
    double omega = 0;         ///< byᵀ C⁺ by over all common coordinates together
    double omega_limit = 0;   ///< χ² at 5 % for as many, less the 6 used up by laying one on the other
    int by_chance = 0;        ///< of the points, how many would look moved by chance
};

/// Lays `after` on `before` by a small rigid motion and compares. Both surveys' joint covariances count, brought from whatever
/// datum each was held on onto inner constraints over the points that lay them on each other (Baarda's S-transformation), so that
/// a held coordinate is no better known than its neighbours. Of the points given to lay by, those that moved against the others
/// are taken out one by one until the rest are congruent (global congruency test at 1 %; Caspary, Concepts of Network and
/// Deformation Analysis); with `keep_laying` all are kept. Needs three common points, not on a line. Both surveys must be
/// independent: they share no reading. `as_measured`: no motion, both stand on the same datum.
struct CompareOptions {
    bool as_measured = false;
    bool keep_laying = false;
};
Comparison compare(const Solution& before, const Solution& after, const std::vector<Common>&, const CompareOptions& = {});

} // namespace gorvet::tape
