#pragma once

#include "shape/solid.hpp"

/// Solids come from a library that is opened with the first of them: its two dozen libraries take the loader 60 ms, which every
/// command would wait for. Internal to this room and to `solids`, which the library is made of.
namespace gorvet::shape {

/// The functions of solid.hpp that the library has, by their names.
struct SolidKernel {
    const char* stamp; ///< of the headers that both were made from
    decltype(&shape::tube) tube;
    decltype(&shape::bentTube) bentTube;
    decltype(&shape::plate) plate;
    decltype(&shape::prism) prism;
    decltype(&shape::cylinder) cylinder;
    decltype(&shape::placed) placed;
    decltype(&shape::sawn) sawn;
    decltype(&shape::coped) coped;
    decltype(&shape::unite) unite;
    decltype(&shape::cut) cut;
    decltype(&shape::sharedVolume) sharedVolume;
    decltype(&shape::leastDistance) leastDistance;
    decltype(&shape::volume) volume;
    decltype(&shape::centreOfMass) centreOfMass;
    decltype(&shape::surfaceArea) surfaceArea;
    decltype(&shape::bounds) bounds;
    decltype(&shape::isSound) isSound;
    decltype(&shape::mesh) mesh;
    decltype(&shape::writeStep) writeStep; ///< straight into that file
};

/// Its table, under this name.
constexpr const char* solid_kernel_symbol = "gorvet_solid_kernel";

/// Opens a solid library: the first of these files that is there. Fails with File when none is, when it can't be opened, when it
/// belongs to somebody else than root or the program's owner, and when it was made from other headers than this program: a newer
/// package was put over a program that runs.
Result<const SolidKernel*> openSolidKernel(const std::vector<std::filesystem::path>& places);

/// Where it may stand: in lib/gorvet/modules beside the program, or up to two folders above it.
std::vector<std::filesystem::path> solidKernelPlaces(const std::filesystem::path& program);

} // namespace gorvet::shape
