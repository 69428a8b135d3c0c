#pragma once

#include "formats/mesh_file.hpp"
#include "shape/transform.hpp"

#include <string>

/// What the commands on scans share.
namespace gorvet::cli {

/// Reads a mesh or cloud, saying how far it is when somebody watches. `unit`: mm, cm, m or in.
Result<formats::ReadMesh> readSaying(const std::string& path, const std::string& unit);
/// "x,y,z": a place or direction.
Result<shape::Point3> placeFrom(const std::string&);
/// "dx,dy,dz,yaw,pitch,roll" in mm and degrees.
Result<geometry::RigidTransform> poseFrom(const std::string&);

} // namespace gorvet::cli
