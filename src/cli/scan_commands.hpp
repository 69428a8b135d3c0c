#pragma once

#include <string>

/// The commands of `gorvet-cli scan`. Each prints, and returns the exit code.
namespace gorvet::cli {

/// What a mesh or cloud file holds and what is wrong with it. `unit`: mm, cm, m or in.
int scanInfo(const std::string& path, const std::string& unit);
/// Writes it as PLY or STL, in mm.
int scanConvert(const std::string& path, const std::string& unit, const std::string& out);

/// Fits a plane, line, circle, ball or tube through all points of a file.
int scanFit(const std::string& path, const std::string& unit, const std::string& shape, bool outliers);

} // namespace gorvet::cli
