#pragma once

#include "geometry/outline.hpp"

#include <vector>

/// Holes of one thing laid over those of another. mm, rad.
namespace gorvet::make {

/// How a pattern lies best over places: turned, shifted and, where that is allowed, turned over, so that the hole that is off
/// most is off least.
struct HoleMatch {
    bool over = false;               ///< it is turned over, about its first axis
    double turned_rad = 0;           ///< then so far, anticlockwise
    geometry::Flat shifted;          ///< then so far
    std::vector<std::size_t> onto;   ///< hole k lies on place onto[k]
    std::vector<geometry::Flat> off; ///< of hole k: from its place to it
    double worst_mm = 0;             ///< of them the longest
    geometry::Flat placed(const geometry::Flat& of_pattern) const;
};
/// Hole k on place k: the turn is searched from the least squares on until its worst is known to 0.001 mm. As many as places, two
/// at least.
HoleMatch layHoles(const std::vector<geometry::Flat>& pattern, const std::vector<geometry::Flat>& places, bool over);
/// As many holes as places, two to six. Every order of the holes is tried (720 at the most), each the right way up and, where
/// that is allowed, turned over.
HoleMatch matchHoles(const std::vector<geometry::Flat>& pattern, const std::vector<geometry::Flat>& places, bool may_turn_over);

/// The least circle round places.
struct RoundOf {
    geometry::Flat middle;
    double radius_mm = 0;
};
/// By the two or three that carry it.
RoundOf leastCircle(const std::vector<geometry::Flat>&);

} // namespace gorvet::make
