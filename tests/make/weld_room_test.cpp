// Whether a torch gets to a seam: by hand, and against every direction and every triangle.
#include "make/weld_room.hpp"
#include "shape/plain_mesh.hpp"
#include "shape/triangle.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

namespace make_weld_room_test {

using namespace gorvet;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::Vec3;
using make::ServiceBody;

namespace {

ServiceBody body(std::string name, shape::Mesh mesh) {
    ServiceBody b;
    b.name = std::move(name);
    b.mesh = std::make_shared<const shape::Mesh>(std::move(mesh));
    return b;
}
/// Its lower face's middle there; half its length and width, its height.
shape::Mesh block(const Vec3& at, double x, double y, double z, double turn = 0) {
    return shape::prismMesh({{-x, -y}, {x, -y}, {x, y}, {-x, y}}, z,
                            {at, {std::cos(turn), std::sin(turn), 0}, {-std::sin(turn), std::cos(turn), 0}});
}
make::PutOnItem item(const char* name, shape::Mesh mesh, const char* how = "welded on") {
    return {name, std::string("part:") + name, how, body(name, std::move(mesh))};
}
make::PutOnIn onFloor() {
    make::PutOnIn in;
    in.frame.push_back(body("the floor", block({0, 0, -10}, 400, 400, 10)));
    return in;
}

/// How near a torch comes to a body, axis in fine steps and every triangle; < 0: through it.
bool free(const shape::Mesh& m, const Vec3& at, const Vec3& way, double less) {
    const auto nearer = [&](const Vec3& p, double reach) {
        for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
            const auto foot = shape::footOn(shape::cornersOf(m, t), p);
            if (geometry::between(foot.at, p) < reach) return true;
        }
        return false;
    };
    for (double t = make::nozzle_from_mm; t <= make::nozzle_mm; t += 5)
        if (nearer(plus(at, times(way, t)), make::nozzle_radius_mm - less)) return false;
    for (double t = make::nozzle_mm + make::hand_radius_mm; t <= make::hand_until_mm; t += 15)
        if (nearer(plus(at, times(way, t)), make::hand_radius_mm - less)) return false;
    return true;
}

} // namespace

TEST_CASE("a plate on edge: all round it is open; a wall close beside shuts its side", "[make][weld][closed-form]") {
    make::PutOnIn in = onFloor();
    in.items.push_back(item("plate", block({0, 0, 0}, 60, 4, 80)));
    auto rooms = make::weldRooms(in);
    REQUIRE(rooms.size() == 1);
    CHECK(rooms[0].seam_mm == Approx(2 * (120 + 8)));
    CHECK(rooms[0].shut_mm == 0);
    // 15 mm beside it and higher than a torch: nothing gets in between
    const auto walled = [&](double gap, double high) {
        make::PutOnIn with = onFloor();
        with.items.push_back(item("wall", block({0, 4 + gap + 5, 0}, 200, 5, high)));
        with.items.push_back(in.items[0]);
        return make::weldRooms(with)[1];
    };
    const auto shut = walled(15, 260);
    CHECK(shut.shut_by == "wall");
    CHECK(shut.shut_mm == Approx(120).margin(30)); // at its ends the torch comes from the side
    CHECK(shut.seam_mm == Approx(2 * (120 + 8)));
    CHECK(walled(15, 4).shut_mm == 0);    // a low one is looked over
    CHECK(walled(200, 260).shut_mm == 0); // and far away there is room
    // the wall that is put on after the plate is in nobody's way
    make::PutOnIn after = onFloor();
    after.items = {in.items[0], item("wall", block({0, 4 + 15 + 5, 0}, 200, 5, 260))};
    CHECK(make::weldRooms(after)[0].shut_mm == 0);
    CHECK(make::weldRooms(after)[1].shut_mm > 60); // now the wall's own side is shut
    // what is bolted on is not asked
    after.items[1].how = "bolted on";
    CHECK(make::weldRooms(after).size() == 1);
}

TEST_CASE("the inside of a tube on a plate is no seam", "[make][weld]") {
    std::vector<shape::Ring> outer(2), inner(2);
    for (int end = 0; end < 2; ++end)
        for (int k = 0; k < 48; ++k) {
            const double phi = 2 * std::numbers::pi * k / 48;
            outer[static_cast<std::size_t>(end)].push_back({25 * std::cos(phi), 25 * std::sin(phi), 90.0 * end});
            inner[static_cast<std::size_t>(end)].push_back({22 * std::cos(phi), 22 * std::sin(phi), 90.0 * end});
        }
    make::PutOnIn in = onFloor();
    in.items.push_back(item("tube", shape::wallMesh(outer, inner)));
    const auto rooms = make::weldRooms(in);
    CHECK(rooms[0].seam_mm == Approx(2 * std::numbers::pi * 25).epsilon(0.02));
    CHECK(rooms[0].shut_mm == 0);
}

TEST_CASE("random assemblies: what is called open is, and little that is open is called shut", "[make][weld][property]") {
    std::mt19937 dice(41);
    std::uniform_real_distribution<double> any(-1, 1);
    const auto up_to = [&](double most) { return most * std::abs(any(dice)); };
    double seam = 0, shut = 0, truly_shut = 0;
    for (int round = 0; round < 30; ++round) {
        make::PutOnIn in = onFloor();
        const shape::Mesh own = block({0, 0, 0}, 10 + up_to(40), 4 + up_to(15), 40 + up_to(80));
        const int others = 2 + round % 3;
        for (int k = 0; k < others; ++k) {
            const double away = 72 + up_to(25), turn = 3.2 * any(dice);
            in.items.push_back(item("other",
                                    block({away * std::cos(turn), away * std::sin(turn), 0}, 5 + up_to(60), 4 + up_to(20),
                                          30 + up_to(220), turn + std::numbers::pi / 2 + 0.4 * any(dice)),
                                    "bolted on"));
        }
        in.items.push_back(item("own", own));
        const auto rooms = make::weldRooms(in);
        REQUIRE(rooms.size() == 1);
        // the truth: the four edges of its foot, by many more directions, everything looked at
        double open = 0, whole = 0;
        std::vector<Vec3> corners;
        for (const auto& p : own.points)
            if (std::abs(p[2]) < 1e-9 && std::none_of(corners.begin(), corners.end(), [&](const Vec3& q) {
                    return geometry::between(q, {p[0], p[1], p[2]}) < 1e-9;
                }))
                corners.push_back({p[0], p[1], p[2]});
        REQUIRE(corners.size() == 4);
        std::sort(corners.begin(), corners.end(),
                  [](const Vec3& a, const Vec3& b) { return std::atan2(a.y_mm, a.x_mm) < std::atan2(b.y_mm, b.x_mm); });
        for (std::size_t side = 0; side < 4; ++side) {
            const Vec3 &from = corners[side], &to = corners[(side + 1) % 4];
            const int steps = std::max(1, static_cast<int>(std::lround(geometry::between(from, to) / make::weld_step_mm)));
            for (int n = 0; n < steps; ++n) {
                const Vec3 at = geometry::along(from, to, (n + 0.5) / steps);
                const double share = geometry::between(from, to) / steps;
                whole += share;
                bool found = false;
                for (int k = 0; k < 700 && !found; ++k) {
                    const double z = (k + 0.5) / 700, r = std::sqrt(1 - z * z), phi = k * 2.399963;
                    const Vec3 way{r * std::cos(phi), r * std::sin(phi), z};
                    found = free(own, at, way, 0.5) && free(*in.frame[0].mesh, at, way, 0.5);
                    for (const auto& other : in.items)
                        if (found && other.name == "other") found = free(*other.body.mesh, at, way, 0.5);
                }
                open += found ? share : 0;
            }
        }
        INFO(round);
        CHECK(rooms[0].seam_mm == Approx(whole).epsilon(0.1));
        CHECK(rooms[0].seam_mm - rooms[0].shut_mm <= open + 13); // nothing is called open that is shut, but for a step
        seam += rooms[0].seam_mm;
        shut += rooms[0].shut_mm;
        truly_shut += whole - open;
    }
    UNSCOPED_INFO(seam << " " << shut << " " << truly_shut);
    CHECK(truly_shut > 0.03 * seam);        // there is something to be found
    CHECK(shut - truly_shut < 0.08 * seam); // and little is called shut that is open
}

} // namespace make_weld_room_test
