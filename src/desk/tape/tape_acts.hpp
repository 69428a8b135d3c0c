#pragma once

#include "desk/shell/desk.hpp"
#include "formats/points_csv.hpp"

/// What is read into a survey and written of it: files.
namespace gorvet::desk {

void importReadings(Desk&);
void importPoints(Desk&, formats::PointsAre);
void exportReport(Desk&);

} // namespace gorvet::desk
