#include "cli/read_scan.hpp"

#include "files/out_file.hpp"

#include <algorithm>
#include <iostream>
#include <numbers>
#include <optional>
#include <sstream>
#include <vector>

#include <unistd.h>

#include <fmt/format.h>

namespace gorvet::cli {

Result<formats::ReadMesh> readSaying(const std::string& path, const std::string& unit) {
    const double unit_mm = unit == "mm" ? 1 : unit == "cm" ? 10 : unit == "m" ? 1000 : 25.4;
    files::protect(path); // before it is read: what it becomes goes elsewhere
    const bool seen = isatty(STDERR_FILENO) != 0;
    int told = -1;
    auto read = formats::readMesh(path, unit_mm, [&](double share) {
        const int percent = static_cast<int>(share * 100);
        if (seen && percent != told) std::cerr << fmt::format("\rreading {} %", told = percent);
        return true;
    });
    if (seen && told >= 0) std::cerr << "\r              \r";
    return read;
}

namespace {

/// So many numbers with commas between; nothing when it is not that.
std::optional<std::vector<double>> numbers(const std::string& text, size_t count) {
    std::vector<double> v;
    std::istringstream in(text);
    for (std::string part; std::getline(in, part, ',');) {
        size_t used = 0;
        double d = 0;
        try {
            d = std::stod(part, &used);
        } catch (const std::exception&) {
            return std::nullopt;
        }
        if (part.find_first_not_of(" \t", used) != std::string::npos || !std::isfinite(d) || std::abs(d) > 1e6)
            return std::nullopt;
        v.push_back(d);
    }
    if (v.size() != count || static_cast<size_t>(std::count(text.begin(), text.end(), ',')) != count - 1) return std::nullopt;
    return v;
}

} // namespace

Result<shape::Point3> placeFrom(const std::string& text) {
    if (const auto v = numbers(text, 3)) return shape::Point3{(*v)[0], (*v)[1], (*v)[2]};
    return Error{Error::Code::BadInput, text, fmt::format("\"{}\" is no place.", text),
                 "Give three numbers in mm with commas between: x,y,z.", -1};
}

Result<geometry::RigidTransform> poseFrom(const std::string& text) {
    const auto v = numbers(text, 6);
    if (!v)
        return Error{Error::Code::BadInput, text, fmt::format("\"{}\" is no pose.", text),
                     "Give six numbers with commas between: dx,dy,dz in mm, then yaw,pitch,roll in degrees.", -1};
    constexpr double degree = std::numbers::pi / 180;
    return geometry::rigidTransform({(*v)[0], (*v)[1], (*v)[2]}, (*v)[3] * degree, (*v)[4] * degree, (*v)[5] * degree);
}

} // namespace gorvet::cli
