#pragma once

#include <cstdint>
#include <string>

/// `gorvet-sim mesh` and `gorvet-sim scan`: the made-up car as meshes, and as a scanner sees it.
namespace gorvet::sim {

struct ScanRequest {
    std::string part = "body"; ///< body, chassis, engine, axle, wheel, or car: the first two as they belong together
    std::string out;           ///< a PLY
    double mesh_step_mm = 14;
    std::string eye = "-2500,-2600,1500";
    double step_mrad = 3;
    double noise_mm = 0.3;
    double stray_share = 0.01;
    int markers = 0; ///< balls of 38 mm radius about the scene
    std::uint32_t seed = 1;
    bool own_frame = false; ///< in the scanner's own axes, as a scanner gives it
};
/// Both print what they did to standard error and return the exit code.
int writeMesh(const ScanRequest&);
int writeScan(const ScanRequest&);
/// body, chassis, engine, axle and wheel into a folder, about 300,000 triangles in all.
int writeDemoMeshes(const std::string& folder);

} // namespace gorvet::sim
