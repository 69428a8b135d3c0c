#pragma once

#include <optional>
#include <string>

/// `gorvet-cli clearance`: two files against each other.
namespace gorvet::cli {

struct ClearanceRequest {
    std::string body;
    std::string chassis;
    std::string pose = "0,0,0,0,0,0"; ///< dx,dy,dz,yaw,pitch,roll: mm and degrees
    std::string unit = "mm";          ///< of both files
    double cap_mm = 100;
    double least_mm = 10;
    double finish_mm = 0;
    double u95_mm = 0;
    int threads = 0;
    std::string map; ///< a PLY to write; empty: none
};
/// Prints counts, least distance, place, percentiles and what fouls as JSON; returns the exit code.
int clearanceOf(const ClearanceRequest&);

} // namespace gorvet::cli
