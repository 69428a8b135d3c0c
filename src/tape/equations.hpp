#pragma once

#include "tape/survey.hpp"

#include <array>

/// The observation equation of each kind of reading.
namespace gorvet::tape {

/// A predicted value, with its derivatives by x, y, z of `from` and of `to`, and by the unknowns of the set-up.
struct Predicted {
    double value = 0;
    std::array<double, 3> by_from{};
    std::array<double, 3> by_to{};
    std::array<double, setup_unknowns> by_setup{};
};

/// +1, or −1 for an angle that was typed against the way in which it is followed: a slope rear to front along a mainly
/// fore-and-aft line, a cross-level right to left across one, a rail's angle rear to front.
double senseOf(ReadingKind, const Vec3& from, const Vec3& to);

/// The reading's value at these positions, mm or rad. `to` is ignored when the kind has no second point (`has_to` false).
/// Where the derivative does not exist (two points in one place) it is 0.
Predicted predict(ReadingKind, const Vec3& from, const Vec3& to, bool has_to, double sense = 1.0);
/// How far a point stands along a unit vector.
Predicted predictAlong(const std::array<double, 3>& along, const Vec3& from);

/// The same as read from a set-up with these unknowns: a plane that stands `at[0]` mm high at the origin and rises by at[1] along
/// and at[2] across, mm/m; a string at offset at[0] that swings right by at[1] mm/m; a tape that reads at[0] mm too much. `kind`
/// must be one that is read from such a set-up (`readFrom`).
Predicted predictFrom(SetUpKind, const std::array<double, setup_unknowns>& at, ReadingKind, const Vec3& from, const Vec3& to,
                      bool has_to);

} // namespace gorvet::tape
