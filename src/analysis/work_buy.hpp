#pragma once

#include "analysis/results.hpp"
#include "work/buy.hpp"

/// What must be bought, from every corner of the build. Internal to this room, but for tests.
namespace gorvet::analysis {

struct Purchase {
    std::string kind; ///< "part", "line", "fastener", "paint", "steel"
    std::string what;
    std::string amount; ///< "2", "1.4 l", "640 + 480 mm"
    std::string why;    ///< what it is for
    std::string from;   ///< supplier, or what of the shelf it comes from
    std::string state;  ///< "not ordered", "ordered 2026-11-02", "on the shelf", "to buy"
    std::optional<double> price;
    std::string tag;   ///< its card
    bool open = false; ///< it must still be bought
};
struct Purchases {
    std::vector<Purchase> rows; ///< what is open first
    double priced = 0;          ///< of what is open
    int unpriced = 0;
    work::SteelPlan steel;
};

/// Whether lengths of its section can be had: it is laid into those, and not bought by the piece.
bool canBeHad(const build::Build&, const work::SteelNeed&);
Purchases purchasesOf(const build::Build&, const Results&);

} // namespace gorvet::analysis
