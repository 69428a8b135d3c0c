#include "formats/mesh_file.hpp"

#include "formats/mesh_reading.hpp"

#include <fcntl.h>
#include <sys/mman.h>
#include <unistd.h>

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

/// `path`: the name the file goes by, for its ending.
void readAny(ByteSource& in, ReadMesh& out, const std::filesystem::path& path, double unit) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    const std::string head(in.ahead(84));
    if (head.starts_with("ply\n") || head.starts_with("ply\r")) return readPly(in, out, unit);
    if (head.size() == 84) {
        // a binary STL says by its length what it is, whatever its first word
        const auto count = as<std::uint32_t>(reinterpret_cast<const unsigned char*>(head.data()) + 80, false);
        if (in.size() == 84 + 50ULL * count || (ending == ".stl" && !head.starts_with("solid")))
            return readBinaryStl(in, out, unit);
    }
    if (ending == ".stl") return readTextStl(in, out, unit);
    if (ending == ".obj") return readObj(in, out, unit);
    if (ending == ".xyz" || ending == ".csv" || ending == ".txt" || ending == ".asc" || ending == ".pts")
        return readXyz(in, out, unit);
    if (ending == ".ply") damaged("The file does not begin with \"ply\".");
    throw MeshFailure{Error::Code::BadInput, fmt::format("{} is no mesh or cloud that is known here.", path.filename().string()),
                      "PLY, STL, OBJ, XYZ and CSV are read."};
}

/// A file without a name: nobody else can have it or change it, and it goes when its descriptor does, however this process ends.
int unnamedFile() {
    std::error_code ec;
    const auto folder = std::filesystem::temp_directory_path(ec); // fails where TMPDIR names what is not there
    for (const auto& place : {ec ? std::filesystem::path("/tmp") : folder, std::filesystem::path("/var/tmp")})
        if (const int fd = open(place.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC, 0600); fd >= 0) return fd;
    return memfd_create("gorvet-scan", MFD_CLOEXEC);
}

Result<ReadMesh> readNamed(const std::filesystem::path& path, const std::filesystem::path& name, double unit_mm,
                           const MeshProgress& progress) {
    if (!(unit_mm > 0 && unit_mm <= 1e6))
        return Error{Error::Code::BadInput, name.string(), "The unit of the file must be above 0 mm.",
                     "1 for mm, 1000 for m, 25.4 for inches.", -1};
    try {
        ReadMesh out;
        ByteSource in(path, progress);
        readAny(in, out, name, unit_mm);
        if (out.mesh.points.empty())
            throw MeshFailure{Error::Code::BadInput, fmt::format("{} has no point that can be used.", name.filename().string()),
                              out.points_left_out ? fmt::format("{} points were no numbers.", out.points_left_out) : ""};
        return out;
    } catch (const MeshFailure& f) {
        return Error{f.code, name.string(), f.message, f.remedy, -1};
    } catch (const std::bad_alloc&) {
        return Error{Error::Code::File, name.string(), "There is not enough memory for this file.",
                     "Thin it out where it was made.", -1};
    }
}

} // namespace

Result<ReadMesh> readMesh(const std::filesystem::path& path, double unit_mm, const MeshProgress& progress) {
    return readNamed(path, path, unit_mm, progress);
}

Result<ReadMesh>
readMeshFrom(const std::function<Result<void>(const std::function<void(std::span<const unsigned char>)>&)>& bytes,
             const std::string& name, double unit_mm, const MeshProgress& progress) {
    const Error no_room{Error::Code::File, name, "The scan can't be unpacked.",
                        "Is there room in the folder for temporary files?", -1};
    const int file = unnamedFile();
    if (file < 0) return no_room;
    bool written = true;
    const auto told = bytes([&](std::span<const unsigned char> piece) {
        for (size_t done = 0; written && done < piece.size();) {
            const ssize_t n = write(file, piece.data() + done, piece.size() - done);
            if (n <= 0)
                written = false;
            else
                done += static_cast<size_t>(n);
        }
    });
    Result<ReadMesh> read = !told      ? Result<ReadMesh>(told.error())
                            : !written ? Result<ReadMesh>(no_room)
                                       : readNamed(fmt::format("/proc/self/fd/{}", file), name, unit_mm, progress);
    close(file);
    return read;
}

} // namespace gorvet::formats
