#pragma once

#include "sit/clearance.hpp"

#include <vector>

/// How a cut came out: the edge as it was measured against the line that was planned.
namespace gorvet::sit {

/// Of each measured place: how far it is from the line, mm; > 0 outside of it (cut too far), < 0 inside (cut short, sheet left
/// standing). An open line, or one of fewer than three corners, has no inside: always > 0. Inside is told on the best plane of
/// the line's corners (Newell's normal), so that for a line that folds back over itself the sign can be wrong.
std::vector<double> offTheLine(const std::vector<shape::Point3>& line, bool closed, const std::vector<shape::Point3>& measured);
/// The line with corners left out that lie within `within_mm` of what remains. Douglas and Peucker.
std::vector<shape::Point3> fewerCorners(const std::vector<shape::Point3>& line, bool closed, double within_mm);
/// Area that a closed line encloses, seen along its normal, mm².
double enclosed(const std::vector<shape::Point3>& line);

/// How far a place near a line is on its left, seen against the normal of the sheet there: > 0 left, < 0 right; not in mm.
double leftOf(const std::vector<shape::Point3>& line, bool closed, const shape::Point3& normal, const shape::Point3&);
/// The triangles that a line takes out of a sheet over which it runs round or from edge to edge, perhaps over several panels: of
/// each panel one side, so that together they come nearest to `area_mm2`. Empty when nothing comes near it (half of it to 1.6
/// times, and 50 cm²): the line leaves a way round it, or was drawn elsewhere since.
std::vector<std::uint32_t> takenOut(const Ready& sheet, const std::vector<shape::Point3>& line, bool closed, double area_mm2);

} // namespace gorvet::sit
