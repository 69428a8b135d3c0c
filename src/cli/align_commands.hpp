#pragma once

#include <string>
#include <vector>

/// The commands of `gorvet-cli scan` that bring scans onto each other and onto a datum. Each prints JSON and returns the exit
/// code; 1 when the result is not to be trusted.
namespace gorvet::cli {

struct AlignRequest {
    std::string moving;
    std::string fixed;
    std::string unit;
    std::string start = "0,0,0,0,0,0"; ///< a pose
    std::vector<std::string> picks;    ///< "x,y,z=x,y,z": the same place in both; three or more make the start
    double reach_mm = 150;
    double marker_radius_mm = 0; ///< > 0: begin with marker balls of this radius
    bool only_picks = false;     ///< lay it by picks or markers alone
    std::string out;
};
int scanAlign(const AlignRequest&);
/// Marker balls of a file; with a second file, which is which.
int scanMarkers(const std::string& path, const std::string& other, const std::string& unit, double radius_mm);
int scanMidPlane(const std::string& path, const std::string& unit, const std::string& across, double limit_mm,
                 const std::string& map);

struct DatumRequest {
    std::string path;
    std::string unit;
    std::vector<std::string> plane; ///< three places or more
    std::vector<std::string> line;  ///< two, the front one first
    std::string station;
    std::string out;
};
int scanDatum(const DatumRequest&);
int scanThin(const std::string& path, const std::string& unit, double bound_mm, bool strays, const std::string& out);
int scanCheck(const std::string& path, const std::string& unit, const std::string& from, const std::string& to, double known_mm);

} // namespace gorvet::cli
