#pragma once

#include "analysis/export.hpp"
#include "analysis/overlay.hpp"
#include "store/store.hpp"

/// The scans that a build keeps, read from its file.
namespace gorvet::cli {

/// The meshes of a build's scans; what can't be read is told and left out.
analysis::ScanMeshes meshesOf(const store::Store&);
/// Findings of the clearances of a build's scans; empty where there are none. Takes some seconds, and says so on standard error.
std::vector<analysis::Finding> scanFindings(const store::Store&, const analysis::Results&);
/// What a build's scans give to its sheets; empty where there are none. Takes some seconds.
analysis::ScanSheets scanSheets(const store::Store&, const analysis::Results&);

/// How a kept scan is laid: one of these is given.
struct LayRequest {
    std::string build;
    std::string scan;
    double ball_radius_mm = 0;
    bool symmetry = false;
    std::vector<std::string>
        datum; ///< six places "x,y,z" as it stands now: three on the plane, two on the centreline, one at station 0
    std::vector<std::string> surveyed; ///< "NAME=x,y,z" as it stands now
};
int scanLay(const LayRequest&);

} // namespace gorvet::cli
