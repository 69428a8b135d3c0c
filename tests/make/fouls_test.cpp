#include "make/fouls.hpp"
#include "make/part_examples.hpp"
#include "make/rail_mesh.hpp"
#include "shape/plain_mesh.hpp"
#include "shape/transform.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace make_fouls_test {

using namespace gorvet;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using geometry::Vec3;
using make::ServiceBody;

namespace {

struct Box {
    Vec3 middle;
    std::array<Vec3, 3> axes;
    Vec3 half;
};
ServiceBody named(const std::string& name, shape::Mesh mesh) {
    ServiceBody b;
    b.name = name;
    b.mesh = std::make_shared<const shape::Mesh>(std::move(mesh));
    return b;
}
ServiceBody bodyOf(const std::string& name, const Box& b) {
    const Vec3 corner =
        minus(b.middle, plus(times(b.axes[0], b.half.x_mm), plus(times(b.axes[1], b.half.y_mm), times(b.axes[2], b.half.z_mm))));
    return named(name, shape::prismMesh({{0, 0}, {2 * b.half.x_mm, 0}, {2 * b.half.x_mm, 2 * b.half.y_mm}, {0, 2 * b.half.y_mm}},
                                        2 * b.half.z_mm, {corner, b.axes[0], b.axes[1]}));
}
Box level(const Vec3& low, const Vec3& high) {
    return {geometry::along(low, high, 0.5), {Vec3{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}, times(minus(high, low), 0.5)};
}
/// Separating axes of two boxes, the first made smaller: > 0 they are apart by so much along some axis, < 0 they share room.
double apart(const Box& a, const Box& b, double smaller) {
    std::vector<Vec3> all(a.axes.begin(), a.axes.end());
    all.insert(all.end(), b.axes.begin(), b.axes.end());
    for (const Vec3& p : a.axes)
        for (const Vec3& q : b.axes)
            if (const Vec3 n = cross(p, q); geometry::length(n) > 1e-6) all.push_back(unit(n));
    double best = -1e18;
    for (const Vec3& n : all) {
        const auto reach = [&](const Box& o, double less) {
            double sum = 0;
            for (std::size_t k = 0; k < 3; ++k) sum += std::abs(dot(n, o.axes[k])) * (o.half[k] - less);
            return sum;
        };
        best = std::max(best, std::abs(dot(n, minus(a.middle, b.middle))) - reach(a, smaller) - reach(b, 0));
    }
    return best;
}
std::size_t fouls(const Box& a, const Box& b) { return make::foulsOf({bodyOf("a", a), bodyOf("b", b)}).size(); }

} // namespace

TEST_CASE("what lies on something is free, what stands in it fouls, by hand", "[make][fouls][closed-form]") {
    const Box floor = level({0, 0, 0}, {500, 500, 20});
    CHECK(fouls(floor, level({100, 100, 20}, {200, 200, 60})) == 0); // flush
    CHECK(fouls(floor, level({100, 100, 19.1}, {200, 200, 60})) == 0);
    CHECK(fouls(floor, level({100, 100, 18.9}, {200, 200, 60})) == 1);
    CHECK(fouls(floor, level({100, 100, -50}, {104, 104, 60})) == 1); // a rod through it
    CHECK(fouls(floor, level({100, 100, 5}, {200, 200, 15})) == 1);   // wholly inside, either way round
    CHECK(fouls(level({100, 100, 5}, {200, 200, 15}), floor) == 1);
    CHECK(fouls(floor, level({600, 0, 0}, {700, 100, 20})) == 0);
    const auto found = make::foulsOf({bodyOf("floor", floor), bodyOf("post", level({100, 100, 10}, {200, 200, 60}))});
    REQUIRE(found.size() == 1);
    CHECK(found[0].one == "floor");
    CHECK(found[0].other == "post");
    CHECK(found[0].at.x_mm > 90);
    CHECK(found[0].at.x_mm < 210);
    // one that may stand in others by more is the one that is made smaller
    for (const double deep : {2.9, 3.1}) {
        auto seat = bodyOf("seat", floor), post = bodyOf("post", level({100, 100, 20 - deep}, {200, 200, 60}));
        seat.touch_mm = 3;
        CHECK(make::foulsOf({seat, post}).size() == (deep > 3 ? 1U : 0U));
        CHECK(make::foulsOf({post, seat}).size() == (deep > 3 ? 1U : 0U));
    }
    // what is there is not asked against what is there; nor is a scan
    auto rails = bodyOf("rails", floor), tyre = bodyOf("tyre", level({100, 100, 0}, {200, 200, 60}));
    rails.given = tyre.given = true;
    CHECK(make::foulsOf({rails, tyre}).empty());
    tyre.given = false;
    CHECK(make::foulsOf({rails, tyre}).size() == 1);
    tyre.closed = false;
    CHECK(make::foulsOf({rails, tyre}).empty());
}

TEST_CASE("boxes any way round, against separating axes", "[make][fouls][property]") {
    std::mt19937 random(4);
    std::uniform_real_distribution<double> place(-60, 60), size(5, 40), turn(-1, 1);
    const auto box = [&] {
        const auto direction = [&] {
            Vec3 v;
            do v = {turn(random), turn(random), turn(random)};
            while (geometry::length(v) < 0.2);
            return unit(v);
        };
        const Vec3 x = direction();
        Vec3 y = direction();
        y = unit(minus(y, times(x, dot(x, y))));
        return Box{
            {place(random), place(random), place(random)}, {x, y, cross(x, y)}, {size(random), size(random), size(random)}};
    };
    int free = 0, in = 0;
    for (int k = 0; k < 1500; ++k) {
        const Box a = box(), b = box();
        const double by = apart(a, b, ServiceBody{}.touch_mm); // the first of two that are as fine as each other is made smaller
        if (std::abs(by) < 1e-6) continue;
        CHECK(fouls(a, b) == (by < 0 ? 1U : 0U));
        (by < 0 ? in : free) += 1;
    }
    CHECK(free > 300);
    CHECK(in > 300);
}

TEST_CASE("parts stand on their rails and do not foul them; one through another does", "[make][fouls]") {
    shape::Mesh both;
    for (const double y : {-450.0, 450.0}) append(both, make::railMesh(make_parts::rail(y, y), false));
    const auto rails = named("the rails", both);
    CHECK(shape::look(both).closed);
    CHECK(shape::look(both).volume_mm3 == Approx(2 * 3000.0 * (100 * 60 - 92 * 52)));
    const auto mesh = [&](const make::PartIn& in) {
        const auto p = make::partPlan(in);
        REQUIRE(p.made());
        shape::Mesh all;
        for (const auto& piece : make::partMeshes(p)) append(all, piece.mesh);
        return all;
    };
    const auto brace =
        make_parts::part("brace", {{1000, -420, 450}, {1400, 420, 450}}, {{"across", 40}, {"wide", 60}, {"wall", 3}});
    for (const auto& in :
         {brace, make_parts::part("brace", {{1000, -420, 450}, {1000, 420, 450}}, {{"across", 42}, {"wall", 3}}),
          make_parts::part("outrigger", {{1000, 480, 480}, {1000, 730, 470}}, {{"deep", 80}, {"wide", 50}}),
          make_parts::part("standoff", {{1000, 450, 500}, {1000, 450, 560}}, {{"across", 50}, {"wall", 3}, {"hole", 13}}),
          make_parts::part("ears", {{1000, 450, 570}, {1000, 450, 500}}, {{"apart", 40}, {"hole", 12}, {"foot", 90}})}) {
        INFO(in.kind);
        CHECK(make::foulsOf({rails, named("part", mesh(in))}).empty());
    }
    const auto across = make_parts::part("brace", {{1200, -420, 460}, {1200, 420, 440}}, {{"across", 30}, {"wall", 2}});
    CHECK(make::foulsOf({rails, named("one", mesh(brace)), named("two", mesh(across))}).size() == 1);
    // a channel, open towards the middle
    const auto channel = make::railMesh(make_parts::rail(-450, -450), true);
    const auto seen = shape::look(channel);
    CHECK(seen.closed);
    CHECK(seen.volume_mm3 == Approx(3000.0 * (100 * 4 + 2 * 56 * 4)));
    CHECK(make::foulsOf({named("rail", channel), bodyOf("inside", level({500, -470, 420}, {600, -430, 470}))}).empty());
    CHECK(make::foulsOf({named("rail", channel), bodyOf("in the web", level({500, -485, 420}, {600, -477, 470}))}).size() == 1);
}

} // namespace make_fouls_test
