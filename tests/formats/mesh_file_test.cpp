// Meshes and clouds from every format, whole and broken; what a mesh is like, against shapes whose figures are known.
#include "formats/mesh_file.hpp"

#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <fstream>

namespace formats_mesh_file_test {

using namespace gorvet;
using shape::Mesh;
using shape::Point3;

namespace {

/// A cube of 10 at the origin, faces outwards.
Mesh cube() {
    Mesh m;
    for (int i = 0; i < 8; ++i) m.points.push_back({i & 1 ? 10.0 : 0.0, i & 2 ? 10.0 : 0.0, i & 4 ? 10.0 : 0.0});
    m.triangles = {{0, 2, 1}, {1, 2, 3}, {4, 5, 6}, {5, 7, 6}, {0, 1, 4}, {1, 5, 4},
                   {2, 6, 3}, {3, 6, 7}, {0, 4, 2}, {2, 4, 6}, {1, 3, 5}, {3, 7, 5}};
    return m;
}

struct Folder {
    std::filesystem::path path = test::freshFolder("mesh");
    std::filesystem::path file(const std::string& name, const std::string& content) const {
        std::ofstream(path / name, std::ios::binary) << content;
        return path / name;
    }
};

template <class T> std::string raw(T v, bool turned = false) {
    std::string s(sizeof v, '\0');
    std::memcpy(s.data(), &v, sizeof v);
    if (turned) std::reverse(s.begin(), s.end());
    return s;
}

/// PLY of the cube, either byte order, with a property and an element that nobody asked for.
std::string binaryPly(bool big) {
    const Mesh m = cube();
    std::string s =
        std::string("ply\nformat binary_") + (big ? "big" : "little") +
        "_endian 1.0\ncomment made up\nelement vertex 8\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nproperty uchar green\n"
        "property uchar blue\nproperty double confidence\nelement extra 2\nproperty list uchar short things\nelement face 12\nproperty list uchar uint vertex_indices\n"
        "property uchar flags\nend_header\n";
    for (const Point3& p : m.points) {
        for (const double v : {p[0], p[1], p[2]}) s += raw(static_cast<float>(v), big);
        s += "\x01\x02\x03";
        s += raw(0.5, big);
    }
    for (int k = 0; k < 2; ++k) s += std::string("\x02") + raw(std::int16_t{7}, big) + raw(std::int16_t{8}, big);
    for (const auto& t : m.triangles) {
        s += "\x03";
        for (const auto i : t) s += raw(i, big);
        s += "\x09";
    }
    return s;
}

std::string textPly(const std::string& points, const std::string& faces, int n_points, int n_faces) {
    return "ply\r\nformat ascii 1.0\r\nelement vertex " + std::to_string(n_points) +
           "\r\nproperty float x\r\nproperty float y\r\nproperty float z\r\nelement face " + std::to_string(n_faces) +
           "\r\nproperty list uchar int vertex_indices\r\nend_header\r\n" + points + faces;
}

std::string textStl() {
    std::string s = "solid cube\n";
    const Mesh m = cube();
    for (const auto& t : m.triangles) {
        s += "facet normal 0 0 0\n outer loop\n";
        for (const auto i : t)
            s += "  vertex " + std::to_string(m.points[i][0]) + " " + std::to_string(m.points[i][1]) + " " +
                 std::to_string(m.points[i][2]) + "\n";
        s += " endloop\nendfacet\n";
    }
    return s + "endsolid cube\n";
}

void isTheCube(const Mesh& m, double size = 10) {
    CHECK(m.points.size() == 8);
    const auto r = shape::look(m);
    CHECK(r.triangles == 12);
    CHECK(r.closed);
    CHECK(r.pieces == 1);
    CHECK(r.volume_mm3 == Approx(size * size * size));
    CHECK(r.area_mm2 == Approx(6 * size * size));
    CHECK(r.box.max.z_mm == Approx(size));
    CHECK(r.remarks().empty());
}

} // namespace

TEST_CASE("the same cube comes in from every format", "[formats][mesh]") {
    const Folder f;
    for (const bool big : {false, true}) {
        const auto read = formats::readMesh(f.file("c.ply", binaryPly(big)), 1);
        REQUIRE(read);
        isTheCube(read->mesh);
        REQUIRE(read->mesh.colours.size() == 8);
        CHECK(read->mesh.colours[3] == std::array<std::uint8_t, 3>{1, 2, 3});
        CHECK(read->format == "PLY, binary");
    }
    std::string quads = "4 0 2 3 1\n4 4 5 7 6\n4 0 1 5 4\n4 2 6 7 3\n4 0 4 6 2\n4 1 3 7 5\n"; // polygons become fans
    std::string points;
    for (const Point3& p : cube().points)
        points += std::to_string(p[0]) + " " + std::to_string(p[1]) + " " + std::to_string(p[2]) + "\n";
    isTheCube(formats::readMesh(f.file("t.ply", textPly(points, quads, 8, 6)), 1)->mesh);
    isTheCube(formats::readMesh(f.file("t.stl", textStl()), 1)->mesh);
    REQUIRE(formats::writeStl(cube(), f.path / "b.stl"));
    const auto stl = formats::readMesh(f.path / "b.stl", 25.4);
    REQUIRE(stl);
    CHECK(stl->format == "STL, binary");
    isTheCube(stl->mesh, 254); // a file in inches
    std::string obj = "# made up\n";
    for (const Point3& p : cube().points)
        obj += "v " + std::to_string(p[0]) + " " + std::to_string(p[1]) + " " + std::to_string(p[2]) + "\n";
    obj += "vn 0 0 1\nusemtl steel\n";
    for (const auto& t : cube().triangles)
        obj += "f " + std::to_string(t[0] + 1) + "//1 " + std::to_string(static_cast<int>(t[1]) - 8) + "/2/1 " +
               std::to_string(t[2] + 1) + "\n";
    isTheCube(formats::readMesh(f.file("c.obj", obj), 1)->mesh);
    const auto cloud =
        formats::readMesh(f.file("c.csv", "x,y,z,r,g,b\n1,2,3,10,20,30\n4;5;6;40;50;60\n# a remark\n\n7 8 9 70 80 90\n"), 1000);
    REQUIRE(cloud);
    REQUIRE(cloud->mesh.points.size() == 3);
    CHECK(cloud->mesh.points[1] == Point3{4000, 5000, 6000});
    CHECK(cloud->mesh.colours[2][1] == 80);
    CHECK(cloud->lines_left_out == 0);
}

TEST_CASE("the quick ways through a PLY give what the slow ones give", "[formats][mesh]") {
    const Folder f;
    // the same file with an extra byte after each face takes the slow way
    std::string head =
        "ply\nformat binary_little_endian 1.0\nelement vertex 5\nproperty double x\nproperty float y\nproperty short z\nelement face 4\nproperty list uchar int vertex_indices\n";
    std::string points;
    for (int i = 0; i < 5; ++i)
        points +=
            raw(i == 3 ? std::nan("") : 1.5 * i) + raw(2.5f * static_cast<float>(i)) + raw(static_cast<std::int16_t>(i * i));
    const std::vector<std::vector<int>> faces = {{0, 1, 2}, {0, 1, 2, 4}, {0, 3, 1}, {0, 1, 99}};
    std::string quick = head + "end_header\n" + points;
    std::string slow = head + "property uchar more\nend_header\n" + points;
    for (const auto& face : faces) {
        std::string row(1, static_cast<char>(face.size()));
        for (const int i : face) row += raw(i);
        quick += row;
        slow += row + "x";
    }
    const auto a = formats::readMesh(f.file("a.ply", quick), 1);
    const auto b = formats::readMesh(f.file("b.ply", slow), 1);
    REQUIRE(a);
    REQUIRE(b);
    CHECK(a->mesh == b->mesh);
    CHECK(a->mesh.points.size() == 4);
    CHECK(a->mesh.triangles.size() == 3);
    CHECK(a->triangles_left_out == 2);
    CHECK(b->triangles_left_out == 2);
    CHECK(a->mesh.points[2][2] == 4);
}

TEST_CASE("what is written is read back, distances and all", "[formats][mesh]") {
    const Folder f;
    Mesh m = cube();
    for (size_t i = 0; i < m.points.size(); ++i) {
        m.points[i][0] += 1e5 + 0.001; // far away, to a micron
        m.normals.push_back({0, 0, 1});
        m.colours.push_back({static_cast<std::uint8_t>(i), 2, 3});
    }
    REQUIRE(formats::writePly(m, f.path / "o.ply", std::vector<float>(8, -4.5f)));
    const auto back = formats::readMesh(f.path / "o.ply", 1);
    REQUIRE(back);
    CHECK(back->mesh == m);
    const std::string text = test::fileText(f.path / "o.ply");
    CHECK(text.find("property float distance") != std::string::npos);
    CHECK_FALSE(formats::writePly(m, f.path / "o.ply", {1.0f}));
    m.triangles.clear();
    CHECK_FALSE(formats::writeStl(m, f.path / "o.stl"));
    CHECK_FALSE(formats::writePly(m, f.path / "no" / "such" / "folder.ply"));
}

TEST_CASE("a file that ends too early is refused, wherever it ends", "[formats][mesh]") {
    const Folder f;
    const std::string ply = binaryPly(false);
    for (size_t n = 0; n < ply.size(); n += n < 400 ? 7 : 3) {
        const auto read = formats::readMesh(f.file("cut.ply", ply.substr(0, n)), 1);
        INFO(n);
        REQUIRE_FALSE(read);
        CHECK_FALSE(read.error().message.empty());
    }
    CHECK(formats::readMesh(f.file("cut.ply", ply.substr(0, ply.size() - 1)), 1).error().message ==
          "The file ends after 11 of 12 faces.");
    const std::string stl = textStl();
    for (size_t n = 0; n + 15 < stl.size(); n += 11) CHECK_FALSE(formats::readMesh(f.file("cut.stl", stl.substr(0, n)), 1));
    REQUIRE(formats::writeStl(cube(), f.path / "b.stl"));
    const std::string binary = test::fileText(f.path / "b.stl");
    for (size_t n = 84; n < binary.size(); n += 13) CHECK_FALSE(formats::readMesh(f.file("cut.stl", binary.substr(0, n)), 1));
}

TEST_CASE("wrong counts, wrong indices and what is no number are told", "[formats][mesh]") {
    const Folder f;
    const std::string points = "0 0 0\n1 0 0\n0 1 0\nnan 0 0\n";
    const auto odd = formats::readMesh(f.file("n.ply", textPly(points, "3 0 1 2\n3 0 1 3\n3 0 1 9\n3 0 1 -1\n2 0 1\n", 4, 5)), 1);
    REQUIRE(odd);
    CHECK(odd->mesh.points.size() == 3);
    CHECK(odd->mesh.triangles.size() == 1);
    CHECK(odd->points_left_out == 1);
    CHECK(odd->triangles_left_out == 4);
    const auto wrong = [&](const std::string& name, const std::string& content) {
        const auto read = formats::readMesh(f.file(name, content), 1);
        REQUIRE_FALSE(read);
        return read.error().message;
    };
    CHECK(wrong("w.ply", textPly(points, "", 400000000, 0)).find("no count that can be") != std::string::npos);
    CHECK(wrong("w.ply", textPly(points, "", 4000000, 0)).find("too short") != std::string::npos);
    CHECK(wrong("w.ply", textPly(points, "", 5, 0)) == "The file ends after 4 of 5 points.");
    CHECK(wrong("w.ply", "ply\nformat runes 1.0\nend_header\n").find("runes") != std::string::npos);
    CHECK(wrong("w.ply", "ply\nformat ascii 1.0\nelement vertex 1\nproperty float a\nend_header\n1\n").find("no x, y, z") !=
          std::string::npos);
    CHECK(wrong("w.ply", "ply\nformat ascii 1.0\nelement vertex 1\n").find("no end") != std::string::npos);
    CHECK(wrong("w.ply", "something else").find("does not begin") != std::string::npos);
    CHECK(wrong("w.ply", "").find("does not begin") != std::string::npos);
    CHECK(wrong("w.obj", "hello\n").find("no point") != std::string::npos);
    CHECK(wrong("w.jpg", "hello\n").find("no mesh or cloud") != std::string::npos);
    CHECK(formats::readMesh(f.path / "nothing.ply", 1).error().code == Error::Code::NotFound);
    CHECK(formats::readMesh(f.path, 1).error().code == Error::Code::NotFound);
    CHECK_FALSE(formats::readMesh(f.file("c.ply", binaryPly(false)), 0));
    const auto far = formats::readMesh(f.file("far.xyz", "1 2 3\n1e300 0 0\ninf 0 0\nx y z\n"), 1);
    REQUIRE(far);
    CHECK(far->mesh.points.size() == 1);
    CHECK(far->points_left_out == 2);
    CHECK(far->lines_left_out == 1);
}

TEST_CASE("reading can be stopped, and tells how far it is", "[formats][mesh]") {
    const Folder f;
    std::string csv;
    for (int i = 0; i < 400000; ++i) csv += "1.5 2.5 " + std::to_string(i) + "\n";
    const auto file = f.file("big.xyz", csv);
    double last = 0;
    const auto whole = formats::readMesh(file, 1, [&](double share) {
        CHECK(share >= last);
        last = share;
        return true;
    });
    REQUIRE(whole);
    CHECK(whole->mesh.points.size() == 400000);
    CHECK(last > 0.8);
    const auto stopped = formats::readMesh(file, 1, [](double share) { return share < 0.3; });
    REQUIRE_FALSE(stopped);
    CHECK(stopped.error().code == Error::Code::Conflict);
}

TEST_CASE("a mesh is described as it is", "[shape][mesh]") {
    Mesh open = cube();
    open.triangles.pop_back();
    open.triangles.pop_back(); // one face missing
    auto r = shape::look(open);
    CHECK_FALSE(r.closed);
    CHECK(r.boundary_edges == 4);
    CHECK(r.holes == 1);
    open.triangles.erase(open.triangles.begin(),
                         open.triangles.begin() + 2); // the two faces have no edge in common? z = 0 and x = 10 meet
    CHECK(shape::look(open).boundary_edges == 6);

    Mesh flipped = cube();
    std::swap(flipped.triangles[0][1], flipped.triangles[0][2]);
    r = shape::look(flipped);
    CHECK(r.flipped_edges == 3);
    CHECK_FALSE(r.closed);

    Mesh inside_out = cube();
    for (auto& t : inside_out.triangles) std::swap(t[1], t[2]);
    r = shape::look(inside_out);
    CHECK(r.closed);
    CHECK(r.volume_mm3 == Approx(-1000));
    CHECK(r.remarks().front() == "It is turned inside out.");

    Mesh crowded = cube();
    crowded.points.push_back({5, 5, 20});
    crowded.triangles.push_back({0, 1, 8}); // a fin on an edge
    crowded.triangles.push_back(crowded.triangles[0]);
    crowded.triangles.push_back({2, 2, 3});
    crowded.points.push_back({99, 99, 99});
    r = shape::look(crowded);
    CHECK(r.non_manifold_edges >= 1);
    CHECK(r.duplicate_triangles == 1);
    CHECK(r.degenerate_triangles == 1);
    CHECK(r.unreferenced_points == 1);

    Mesh two = cube();
    for (const Point3& p : cube().points) two.points.push_back({p[0] + 50, p[1], p[2]});
    for (const auto& t : cube().triangles) two.triangles.push_back({t[0] + 8, t[1] + 8, t[2] + 8});
    r = shape::look(two);
    CHECK(r.pieces == 2);
    CHECK(r.closed);
    CHECK(r.volume_mm3 == Approx(2000));

    // a ball of radius 100 a kilometre away: 4/3 π r³ and 4 π r², a little less for its flats
    Mesh ball;
    constexpr int rings = 60;
    constexpr int around = 120;
    ball.points.push_back({1e6, 0, 100});
    for (int i = 1; i < rings; ++i)
        for (int k = 0; k < around; ++k) {
            const double a = M_PI * i / rings;
            const double b = 2 * M_PI * k / around;
            ball.points.push_back({1e6 + 100 * std::sin(a) * std::cos(b), 100 * std::sin(a) * std::sin(b), 100 * std::cos(a)});
        }
    ball.points.push_back({1e6, 0, -100});
    const auto at = [&](int i, int k) { return static_cast<std::uint32_t>(1 + (i - 1) * around + k % around); };
    for (int k = 0; k < around; ++k) {
        ball.triangles.push_back({0, at(1, k), at(1, k + 1)});
        for (int i = 1; i + 1 < rings; ++i) {
            ball.triangles.push_back({at(i, k), at(i + 1, k), at(i, k + 1)});
            ball.triangles.push_back({at(i, k + 1), at(i + 1, k), at(i + 1, k + 1)});
        }
        ball.triangles.push_back({at(rings - 1, k), static_cast<std::uint32_t>(ball.points.size() - 1), at(rings - 1, k + 1)});
    }
    r = shape::look(ball);
    CHECK(r.closed);
    CHECK(r.pieces == 1);
    CHECK(r.volume_mm3 == Approx(4.0 / 3 * M_PI * 1e6).epsilon(0.003));
    CHECK(r.area_mm2 == Approx(4 * M_PI * 1e4).epsilon(0.002));
}

} // namespace formats_mesh_file_test
