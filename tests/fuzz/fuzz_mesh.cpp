// Mesh files of every ending: read or refused, and what is read can be looked over and written. The first byte picks the ending.
#include "formats/mesh_file.hpp"

#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <unistd.h>

using namespace gorvet;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size == 0) return 0;
    static constexpr const char* endings[] = {".ply", ".stl", ".obj", ".xyz"};
    static const std::string stem = (std::filesystem::temp_directory_path() / ("fuzz-mesh-" + std::to_string(getpid()))).string();
    const std::string path = stem + endings[data[0] % 4];
    std::ofstream(path, std::ios::binary).write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
    const auto read = formats::readMesh(path, 1);
    if (!read) {
        if (read.error().message.empty()) std::abort();
    } else {
        const shape::Mesh& m = read->mesh;
        if (m.points.empty()) std::abort();
        for (const auto& t : m.triangles)
            for (const auto corner : t)
                if (corner >= m.points.size()) std::abort();
        if (!m.colours.empty() && m.colours.size() != m.points.size()) std::abort();
        if (!m.normals.empty() && m.normals.size() != m.points.size()) std::abort();
        (void)shape::look(m).remarks();
    }
    std::filesystem::remove(path);
    return 0;
}
