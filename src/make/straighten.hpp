#pragma once

#include "build/places.hpp"

#include <array>
#include <utility>
#include <vector>

/// Where a corner of a crooked frame is drawn to: a frame is made alike left and right, so it goes where its twin's image is, in
/// the mirror that lies halfway between those pairs that hold. x rearward, y to the right, z up; mm.
namespace gorvet::make {

using build::Figure;
using geometry::Vec3;

/// A plane, upright or nearly so, that runs along the frame.
struct Mirror {
    Vec3 point;
    Vec3 normal; ///< of length 1, to the right
};
/// Left and right of one place, by where they stand among the places.
using Pair = std::pair<std::size_t, std::size_t>;
/// The plane y = y₀ + a x + c z by least squares over all pairs: the middle of each lies in it, and each runs square to it. One
/// pair at least; exact where the frame is alike on both sides, however it lies.
Mirror mirrorOf(const std::vector<Vec3>& places, const std::vector<Pair>&);
Vec3 mirrored(const Mirror&, const Vec3&);

/// By how much a place is drawn, rearwards, to the right and up, with its ± by the covariance of the places.
std::array<Figure, 3> drawnStraight(const build::Places&, const std::vector<Pair>& held, std::size_t place, std::size_t twin);

} // namespace gorvet::make
