#pragma once

#include <string>
#include <vector>

/// `gorvet-cli scan lay`: a kept scan stood on its subject's axes.
namespace gorvet::cli {

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
