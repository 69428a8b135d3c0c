#pragma once

#include "tape/survey.hpp"

/// Two surveys of one thing: before and after welding, body off and on, this frame and a drawing's figures. What moved, and is it
/// more than the tape's own doubt?
namespace gorvet::tape {

/// Points that both surveys know, by index in each.
struct Common {
    int before = -1;
    int after = -1;
    bool operator==(const Common&) const = default;
};

struct Moved {
    int before = -1;
    int after = -1;
    Vec3 by;                ///< after − before, once the second was laid on the first
    double half_width[3]{}; ///< ± at 95 % of each
    double t = 0;           ///< |by| against its own spread: √(byᵀ C⁻¹ by); 2.80 is passed by chance in 5 of 100
    bool proven = false;    ///< t > 2.80 (χ² of three at 5 %)
};

struct Comparison {
    bool possible = false;
    std::string message;      ///< why not
    std::vector<Moved> moved; ///< the furthest beyond its ± first
    Vec3 shift;               ///< of the second survey onto the first, mm
    Vec3 turn_rad;            ///< small turns about x, y, z
    double omega = 0;         ///< Σ byᵀ C⁻¹ by over the common points, of which 6 are used up by laying one on the other
    double omega_limit = 0;   ///< χ² at 5 % for 3n − 6
    int by_chance = 0;        ///< of the points, how many would look moved by chance
};

/// Lays `after` on `before` by a small rigid motion (weighted by both covariances' diagonals, least squares) and compares. Needs
/// three common points, not on a line. Both surveys must be independent: they share no reading. `as_measured`: no motion, both
/// stand on the same datum.
Comparison compare(const Solution& before, const Solution& after, const std::vector<Common>&, bool as_measured = false);

} // namespace gorvet::tape
