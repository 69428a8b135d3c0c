// How near planned things come; parts moved along rails; parts drawn apart.
#include "make/above_sheet.hpp"
#include "make/assembly.hpp"
#include "make/part_examples.hpp"
#include "shape/plain_mesh.hpp"
#include "shape/triangle.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace make_near_test {

using namespace gorvet;
using geometry::Vec3;
using make::ServiceBody;

namespace {

shape::Mesh boxAt(const Vec3& at, double x, double y, double z, const Vec3& along = {1, 0, 0}, const Vec3& side = {0, 1, 0}) {
    return shape::prismMesh({{-x, -y}, {x, -y}, {x, y}, {-x, y}}, z, {at, along, side});
}
ServiceBody body(std::string name, shape::Mesh mesh) {
    ServiceBody b;
    b.name = std::move(name);
    b.mesh = std::make_shared<const shape::Mesh>(std::move(mesh));
    return b;
}

} // namespace

TEST_CASE("the nearest places of two meshes: boxes by their sides, any others triangle by triangle", "[make][near][property]") {
    const auto near = make::nearestOf(boxAt({0, 0, 0}, 10, 10, 10), boxAt({40, 0, 0}, 10, 10, 10), 100);
    REQUIRE(near);
    CHECK(near->mm == Approx(20));
    CHECK(near->from.x_mm == Approx(10));
    CHECK(near->to.x_mm == Approx(30));
    CHECK(make::nearestOf(boxAt({0, 0, 0}, 10, 10, 10), boxAt({40, 50, 0}, 10, 10, 10), 100)->mm == Approx(std::hypot(20, 30)));
    CHECK_FALSE(make::nearestOf(boxAt({0, 0, 0}, 10, 10, 10), boxAt({40, 0, 0}, 10, 10, 10), 19.9));
    std::mt19937 dice(6);
    std::uniform_real_distribution<double> any(-1, 1);
    for (int k = 0; k < 300; ++k) {
        const auto turned = [&](const Vec3& at) {
            return boxAt(at, 5 + 20 * std::abs(any(dice)), 5 + 20 * std::abs(any(dice)), 5 + 20 * std::abs(any(dice)),
                         {any(dice), any(dice), any(dice)}, {any(dice), any(dice), any(dice)});
        };
        const shape::Mesh a = turned({0, 0, 0}), b = turned({70 * any(dice), 70 * any(dice), 70 * any(dice)});
        double brute = 60;
        for (std::uint32_t i = 0; i < a.triangles.size(); ++i)
            for (std::uint32_t j = 0; j < b.triangles.size(); ++j) {
                const auto s = shape::nearestOf(shape::cornersOf(a, i), shape::cornersOf(b, j));
                brute = std::min(brute, geometry::between(s.from, s.to));
            }
        const auto told = make::nearestOf(a, b, 60);
        INFO(k);
        CHECK(told.has_value() == (brute < 60));
        if (told) CHECK(told->mm == Approx(brute).margin(1e-9));
        if (told) CHECK(geometry::between(told->from, told->to) == Approx(told->mm).margin(1e-9));
    }
}

TEST_CASE("triangles of one plane that lie apart are apart: two alike beside each other", "[make][near]") {
    const auto outrigger = [](double station) {
        shape::Mesh all;
        for (const auto& piece : make::partMeshes(make::partPlan(
                 make_parts::part("outrigger", {{station, 480, 490}, {station, 730, 480}}, {{"deep", 80}, {"wide", 50}})))) {
            const auto from = static_cast<std::uint32_t>(all.points.size());
            all.points.insert(all.points.end(), piece.mesh.points.begin(), piece.mesh.points.end());
            for (auto t : piece.mesh.triangles) {
                for (auto& k : t) k += from;
                all.triangles.push_back(t);
            }
        }
        return all;
    };
    const shape::Mesh one = outrigger(1000), other = outrigger(1090); // 50 wide
    double least = 1e9;
    int met = 0;
    for (std::uint32_t i = 0; i < one.triangles.size(); ++i)
        for (std::uint32_t j = 0; j < other.triangles.size(); ++j) {
            const auto a = shape::cornersOf(one, i), b = shape::cornersOf(other, j);
            const auto s = shape::nearestOf(a, b);
            least = std::min(least, geometry::between(s.from, s.to));
            met += shape::meet(a, b);
        }
    CHECK(least == Approx(40).margin(1e-6));
    CHECK(met == 0);
    CHECK(make::nearestOf(one, other, 60)->mm == Approx(40).margin(1e-6));
    // and of one plane, lying over each other, they touch
    const shape::Corners flat{{{0, 0, 7}, {10, 0, 7}, {0, 10, 7}}}, over{{{2, 2, 7}, {30, 3, 7}, {3, 30, 7}}};
    CHECK(shape::meet(flat, over));
    CHECK(geometry::between(shape::nearestOf(flat, over).from, shape::nearestOf(flat, over).to) == 0);
}

TEST_CASE("what only lies on it is not what comes near; the nearest of the rest is told", "[make][near]") {
    const ServiceBody own = body("part a", boxAt({0, 0, 0}, 10, 10, 10));
    std::vector<ServiceBody> others{own, body("lies on it", boxAt({0, 0, 10}, 10, 10, 10)),
                                    body("far", boxAt({45, 0, 0}, 10, 10, 10)), body("near", boxAt({0, 32, 0}, 10, 10, 10)),
                                    body("beyond", boxAt({0, 200, 0}, 10, 10, 10))};
    const auto near = make::nearestOther(own, others, 60);
    REQUIRE(near);
    CHECK(near->other == "near");
    CHECK(near->mm == Approx(12));
    others[3].given = true;
    const auto all = make::nearsOf(others);
    CHECK(std::none_of(all.begin(), all.end(), [](const auto& n) { return n.one == "near" || n.one == "beyond"; }));
    CHECK(std::any_of(all.begin(), all.end(), [](const auto& n) { return n.one == "far"; }));
}

TEST_CASE("a part that is moved along follows its rail, and what is off it goes as its first place does", "[make][near]") {
    const auto left = make_parts::rail(-450, -380);
    const auto right = make_parts::rail(450, 380);
    // an outrigger: on the right rail's outer face, and out
    std::vector<Vec3> at{{1000, 480 - 1000 * 70 / 3000.0, 480}, {1000, 700, 470}};
    const auto moved = make::movedAlong(at, 300, left, right);
    CHECK(moved[0].x_mm == Approx(1300));
    CHECK(moved[0].y_mm - at[0].y_mm == Approx(-7)); // as the rail runs
    CHECK(moved[1].x_mm == Approx(1300));
    CHECK(moved[1].y_mm - at[1].y_mm == Approx(-7));
    CHECK(moved[1].z_mm == Approx(470));
    // a brace: each end along its own rail
    at = {{1000, -397, 450}, {1000, 397, 450}};
    const auto brace = make::movedAlong(at, 300, left, right);
    CHECK(brace[0].y_mm == Approx(-390));
    CHECK(brace[1].y_mm == Approx(390));
    // back again it is where it was
    const auto back = make::movedAlong(brace, -300, left, right);
    for (std::size_t k = 0; k < 2; ++k) CHECK(geometry::between(back[k], at[k]) < 1e-9);
    // off any rail it goes straight along
    CHECK(make::movedAlong({{500, 0, 900}}, 40, left, right)[0] == Vec3{540, 0, 900});
}

TEST_CASE("drawn apart no two stand in each other, nor in the frame", "[make][assembly][property]") {
    std::mt19937 dice(2);
    std::uniform_real_distribution<double> share(-1, 1);
    for (int round = 0; round < 30; ++round) {
        make::AssemblyView v;
        v.frame = boxAt({1500, 0, 400}, 1500, 480, 100);
        for (int k = 0; k < 12; ++k)
            v.items.push_back({"o" + std::to_string(k),
                               "",
                               "",
                               {boxAt({1500 + 1300 * share(dice), 450 * share(dice), 420 + 60 * share(dice)}, 80, 40, 60)}});
        const auto away = make::drawnAway(v);
        REQUIRE(away.size() == v.items.size());
        std::vector<geometry::Box3> boxes{make::boxOfMesh(v.frame)};
        for (std::size_t k = 0; k < v.items.size(); ++k) {
            if (away[k] == Vec3{}) continue; // it found no room
            auto box = make::boxOfMesh(v.items[k].pieces[0]);
            box.min = geometry::plus(box.min, away[k]);
            box.max = geometry::plus(box.max, away[k]);
            for (const auto& other : boxes) CHECK_FALSE(box.meets(other));
            boxes.push_back(box);
        }
        CHECK(boxes.size() > 9);
    }
    const auto d = make::assemblySheet(
        {{{"o1", "part:o1", "welded on", {boxAt({0, 600, 0}, 40, 40, 40)}}}, boxAt({0, 0, 0}, 500, 400, 50)}, 900, 500, {}, 700);
    CHECK(std::any_of(d.items.begin(), d.items.end(), [](const auto& i) { return i.tag == "part:o1"; }));
    CHECK(make::assemblySheet({}, 900, 500, {}).items.empty());
}

} // namespace make_near_test
