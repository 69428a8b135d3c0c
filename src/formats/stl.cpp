#include "formats/mesh_reading.hpp"
#include "shape/distinct.hpp"

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

/// Points that lie exactly on each other become one.
void weld(Mesh& m) {
    std::vector<std::uint32_t> first = shape::firstOfEach(m.points);
    std::uint32_t kept = 0;
    for (size_t i = 0; i < first.size(); ++i) {
        if (first[i] == i) {
            m.points[kept] = m.points[i];
            first[i] = kept++;
        } else {
            first[i] = first[first[i]]; // lower numbers have their new place already
        }
    }
    m.points.resize(kept);
    m.points.shrink_to_fit();
    for (Triangle& t : m.triangles)
        for (std::uint32_t& corner : t) corner = first[corner];
}

} // namespace

void readBinaryStl(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "STL, binary";
    in.take(80);
    const unsigned char* head = in.take(4);
    if (!head) damaged("The STL file ends in its header.");
    const auto count = as<std::uint32_t>(head, false);
    Gathering to(out, unit);
    to.reserve(3ULL * count, count);
    for (std::uint32_t t = 0; t < count; ++t) {
        const unsigned char* row = in.take(50);
        if (!row) damaged(fmt::format("The file ends after {} of {} triangles.", t, count));
        const auto first = static_cast<long long>(to.given());
        for (int corner = 0; corner < 3; ++corner) {
            const unsigned char* at = row + 12 + 12 * corner;
            to.point(static_cast<double>(as<float>(at, false)), static_cast<double>(as<float>(at + 4, false)),
                     static_cast<double>(as<float>(at + 8, false)));
        }
        to.polygon({first, first + 1, first + 2});
    }
    weld(out.mesh);
}

void readTextStl(ByteSource& in, ReadMesh& out, double unit) {
    out.format = "STL, text";
    Gathering to(out, unit);
    std::vector<long long> corners;
    std::string_view line;
    bool ended = false;
    while (in.line(line)) {
        const auto word = nextWord(line);
        if (word == "vertex") {
            double v[3] = {std::nan(""), std::nan(""), std::nan("")};
            for (double& x : v)
                if (!number(nextWord(line), x)) x = std::nan("");
            corners.push_back(static_cast<long long>(to.given()));
            to.point(v[0], v[1], v[2]);
        } else if (word == "endfacet") {
            to.polygon(corners);
            corners.clear();
        } else if (word == "endsolid") {
            ended = true;
        }
    }
    if (!corners.empty() || !ended)
        damaged(fmt::format("The file ends after {} triangles, in the middle of its solid.", out.mesh.triangles.size()));
    weld(out.mesh);
}

} // namespace gorvet::formats
