#pragma once

#include <optional>
#include <string>
#include <vector>

/// Pieces of one section laid into lengths of it: from the shelf, and from what can be bought. mm. engineering.md, Make.
namespace gorvet::make {

struct NestPiece {
    std::string name;
    double length_mm = 0;
    int count = 1;
    bool operator==(const NestPiece&) const = default;
};
/// Lengths that pieces are cut from. Without a count as many as are needed can be had.
struct NestBar {
    std::string name;
    double length_mm = 0;
    std::optional<int> count;    ///< on the shelf
    std::optional<double> price; ///< of one; none: by its length
    bool operator==(const NestBar&) const = default;
};
struct NestInput {
    std::string section; ///< "box 60 × 40 × 3"
    std::vector<NestPiece> pieces;
    std::vector<NestBar> bars;
    double kerf_mm = 0; ///< lost with each cut; a piece that ends where its bar ends needs none
    bool operator==(const NestInput&) const = default;
};
/// One way of cutting a bar.
struct NestLayout {
    std::size_t bar = 0;             ///< in the input
    int times = 1;                   ///< so many bars are cut like it
    std::vector<std::size_t> pieces; ///< in the input, the longest first
    double left_mm = 0;              ///< of each
};
struct NestPlan {
    std::vector<NestLayout> layouts;
    std::vector<std::size_t> too_long; ///< pieces that no bar takes, or for which none is left
    double cost = 0;                   ///< of what is bought, by price where it was said, else by metres
    double bought_mm = 0;
    double used_mm = 0; ///< of bars that are begun
    double least = 0;   ///< no way of cutting costs less
    bool exact = false; ///< proven: none costs less than this one
    int patterns = 0;   ///< ways of filling a bar that were looked at
};
/// What costs least; of what costs the same, what begins the least length on the shelf. An integer program over all ways of
/// filling a bar where there are at most `most_patterns` of them; else over those that column generation finds, with its bound
/// (Gilmore and Gomory, 1961). Deterministic but for a limit in time, after which the best that was found stands.
NestPlan nestBars(const NestInput&, int most_patterns = 5'000, int milliseconds = 250);

} // namespace gorvet::make
