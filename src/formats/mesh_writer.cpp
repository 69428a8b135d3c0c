#include "files/out_file.hpp"
#include "formats/mesh_file.hpp"

#include <cmath>
#include <cstdio>

#include <fmt/format.h>

namespace gorvet::formats {

using shape::Mesh;
using shape::Point3;
using shape::Triangle;

namespace {

class Writer {
public:
    explicit Writer(const std::filesystem::path& path) : file_(std::fopen(path.c_str(), "wb")) {}
    ~Writer() {
        if (file_) std::fclose(file_);
    }
    Writer(const Writer&) = delete;
    Writer& operator=(const Writer&) = delete;
    void text(const std::string& t) { bytes(t.data(), t.size()); }
    template <class T> void value(T v) { bytes(&v, sizeof v); }
    void bytes(const void* from, size_t n) { good_ = good_ && file_ && std::fwrite(from, 1, n, file_) == n; }
    Result<void> close(const std::filesystem::path& path) {
        if (file_) good_ = std::fclose(file_) == 0 && good_;
        const bool opened = file_ != nullptr;
        file_ = nullptr;
        if (opened && good_) return {};
        return Error{Error::Code::File, path.string(), path.string() + " can't be written.", "Choose another place.", -1};
    }

private:
    std::FILE* file_;
    bool good_ = true;
};

Result<void> ply(const Mesh& m, const std::filesystem::path& path, const std::vector<float>& distance) {
    const bool normals = m.normals.size() == m.points.size() && !m.points.empty();
    const bool colours = m.colours.size() == m.points.size() && !m.points.empty();
    Writer out(path);
    std::string head = fmt::format(
        "ply\nformat binary_little_endian 1.0\ncomment millimetres\nelement vertex {}\nproperty double x\nproperty double y\nproperty double z\n",
        m.points.size());
    if (normals) head += "property float nx\nproperty float ny\nproperty float nz\n";
    if (colours) head += "property uchar red\nproperty uchar green\nproperty uchar blue\n";
    if (!distance.empty()) head += "property float distance\n";
    if (!m.triangles.empty())
        head += fmt::format("element face {}\nproperty list uchar int vertex_indices\n", m.triangles.size());
    out.text(head + "end_header\n");
    for (size_t i = 0; i < m.points.size(); ++i) {
        for (const double v : {m.points[i].x_mm, m.points[i].y_mm, m.points[i].z_mm}) out.value(v);
        if (normals)
            for (const float v : m.normals[i]) out.value(v);
        if (colours) out.bytes(m.colours[i].data(), 3);
        if (!distance.empty()) out.value(distance[i]);
    }
    for (const Triangle& t : m.triangles) {
        out.value(std::uint8_t{3});
        for (const std::uint32_t corner : t) out.value(static_cast<std::int32_t>(corner));
    }
    return out.close(path);
}

Result<void> stl(const Mesh& m, const std::filesystem::path& path) {
    Writer out(path);
    char head[80] = "millimetres";
    out.bytes(head, sizeof head);
    out.value(static_cast<std::uint32_t>(m.triangles.size()));
    for (const Triangle& t : m.triangles) {
        const Point3& a = m.points[t[0]];
        const Point3& b = m.points[t[1]];
        const Point3& c = m.points[t[2]];
        const double u[3] = {b[0] - a[0], b[1] - a[1], b[2] - a[2]};
        const double v[3] = {c[0] - a[0], c[1] - a[1], c[2] - a[2]};
        const double n[3] = {u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]};
        const double length = std::sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
        for (const double x : n) out.value(static_cast<float>(length > 0 ? x / length : 0));
        for (const Point3* p : {&a, &b, &c})
            for (const double x : {p->x_mm, p->y_mm, p->z_mm}) out.value(static_cast<float>(x));
        out.value(std::uint16_t{0});
    }
    return out.close(path);
}

} // namespace

Result<void> writePly(const Mesh& m, const std::filesystem::path& to, const std::vector<float>& distance) {
    if (!distance.empty() && distance.size() != m.points.size())
        return Error{Error::Code::BadInput, to.string(), "There must be one distance for each point.", "", -1};
    return files::put(to, files::Kind::Ply, [&](const std::filesystem::path& path) { return ply(m, path, distance); });
}

Result<void> writeStl(const Mesh& m, const std::filesystem::path& to) {
    if (m.triangles.empty())
        return Error{Error::Code::BadInput, to.string(), "A cloud has no triangles: STL can't hold it.", "Write PLY.", -1};
    return files::put(to, files::Kind::Stl, [&](const std::filesystem::path& path) { return stl(m, path); });
}

} // namespace gorvet::formats
