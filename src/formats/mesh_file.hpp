#pragma once

#include "shape/mesh.hpp"
#include "units/result.hpp"

#include <filesystem>
#include <functional>
#include <span>
#include <string>

/// Meshes and clouds from files: PLY (text, both binaries), STL (text, binary), OBJ, XYZ and CSV. Read in pieces, never held
/// twice.
namespace gorvet::formats {

/// Called with the share done, 0…1; false: stop.
using MeshProgress = std::function<bool(double)>;

struct ReadMesh {
    shape::Mesh mesh;
    std::string format;            ///< "PLY, binary", "STL, text", …
    size_t points_left_out = 0;    ///< not a number, or beyond 100 km
    size_t triangles_left_out = 0; ///< of points that are not there or were left out
    size_t lines_left_out = 0;     ///< of a text file: not understood
};

/// Reads a mesh or cloud; the format is told by the content, and by the ending where the content does not tell (OBJ, XYZ, CSV).
/// `unit_mm`: how many millimetres one unit of the file is; a file does not say, and it is never guessed.
/// Polygons become fans of triangles. Points of a text or binary STL that lie exactly on each other become one. Fails with
/// NotFound; Damaged when the file ends too early or its header can't be read (says where); BadInput when there is no point in
/// it; Conflict when it was stopped. Nothing is left behind then.
Result<ReadMesh> readMesh(const std::filesystem::path&, double unit_mm, const MeshProgress& progress = {});

/// The same from bytes that come in pieces, as a blob's do: `bytes` hands them to what it is given. `name`: the file's own name,
/// for its ending. They lie in a file without a name while they are read.
Result<ReadMesh>
readMeshFrom(const std::function<Result<void>(const std::function<void(std::span<const unsigned char>)>&)>& bytes,
             const std::string& name, double unit_mm, const MeshProgress& progress = {});

/// Writes a mesh as PLY, binary little endian; with `distance` (one a point, mm) as the vertex property `distance`, float.
Result<void> writePly(const shape::Mesh&, const std::filesystem::path&, const std::vector<float>& distance = {});
/// Writes the triangles as binary STL. Fails with BadInput for a cloud.
Result<void> writeStl(const shape::Mesh&, const std::filesystem::path&);

} // namespace gorvet::formats
