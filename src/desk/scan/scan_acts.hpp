#pragma once

#include "desk/shell/desk.hpp"

/// What is done with scans at one go.
namespace gorvet::desk {

void addScan(Desk&);
/// Writes the cut map; for the way in, too, while that is shown.
void exportCutMap(Desk&);
/// Keeps its cuts as steps of the work.
void keepCuts(Desk&);
/// The scans as they are seen now, as a file or into the build sheet.
void savePicture(Desk&);

} // namespace gorvet::desk
