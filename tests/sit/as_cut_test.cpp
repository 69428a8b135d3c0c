#include "sit/as_cut.hpp"

#include "sheet/tiles.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sit_as_cut_test {

using namespace gorvet;
using shape::Point3;

TEST_CASE("an edge as it was cut, against its line", "[sit][closed-form]") {
    // a rectangle on a sloping floor: 300 along, 200 across, risen 1 in 3
    const auto at = [](double x, double y) { return Point3{x, y, x / 3}; };
    const std::vector<Point3> line = {at(0, 0), at(300, 0), at(300, 200), at(0, 200)};
    CHECK(sit::enclosed(line) == Approx(300 * std::sqrt(1 + 1.0 / 9) * 200));
    const auto off = sit::offTheLine(line, true, {at(150, 4), at(150, -6), at(300, 100), at(-9, 100)});
    CHECK(off[0] == Approx(-4).margin(1e-9)); // inside: cut short
    CHECK(off[1] == Approx(6).margin(1e-9));
    CHECK(std::abs(off[2]) < 1e-9);
    CHECK(off[3] == Approx(9 * std::sqrt(1 + 1.0 / 9)).margin(1e-9));
    // the other way round it is the same line
    const std::vector<Point3> back(line.rbegin(), line.rend());
    CHECK(sit::offTheLine(back, true, {at(150, 4)})[0] == Approx(-4).margin(1e-9));
    // an open line has no inside
    CHECK(sit::offTheLine(line, false, {at(150, 4)})[0] == Approx(4).margin(1e-9));
    CHECK(sit::offTheLine(line, false, {at(4, 100)})[0] > 90);
}

TEST_CASE("corners that a line does not need are left out, and it stays within the bound", "[sit][property]") {
    std::vector<Point3> circle;
    for (int k = 0; k < 720; ++k) circle.push_back({200 * std::cos(k * units::pi / 360), 200 * std::sin(k * units::pi / 360), 5});
    const auto fewer = sit::fewerCorners(circle, true, 1);
    CHECK(fewer.size() < 60);
    CHECK(fewer.size() > 12);
    for (const double d : sit::offTheLine(fewer, true, circle)) CHECK(std::abs(d) <= 1 + 1e-9);
    const std::vector<Point3> straight = {{0, 0, 0}, {10, 0.2, 0}, {20, -0.3, 0}, {30, 0, 0}};
    CHECK(sit::fewerCorners(straight, false, 1).size() == 2);
    CHECK(sit::fewerCorners(straight, false, 0.1).size() == 4);
}

TEST_CASE("a drawing in real millimetres is spread over sheets of paper, and nothing is lost", "[sheet][property]") {
    using namespace sheet;
    Drawing d;
    d.width = 500;
    d.height = 300;
    d.add(Stroke{{{10, 20}, {480, 20}, {480, 290}, {10, 290}}, true, {Ink::Remove, 0.7, Dash::Solid}});
    d.add(Text{{400, 280}, "here", 4});
    const TileOptions o;
    const auto pages = tiled(d, "cut 1", o);
    CHECK(pages.size() == 6); // three across, two down; the line runs through all
    double length = 0;
    int texts = 0;
    for (const Drawing& page : pages) {
        CHECK(page.width == o.page_width);
        for (const Item& item : page.items) {
            if (const auto* t = std::get_if<Text>(&item.shape)) texts += t->text == "here";
            const auto* s = std::get_if<Stroke>(&item.shape);
            if (!s || s->pen.ink != Ink::Remove) continue;
            for (size_t k = 0; k + 1 < s->path.size(); ++k)
                length += std::hypot(s->path[k + 1].x - s->path[k].x, s->path[k + 1].y - s->path[k].y);
            for (const P& p : s->path) {
                CHECK(p.x >= (o.page_width - o.tile_width) / 2 - 1e-9);
                CHECK(p.x <= (o.page_width + o.tile_width) / 2 + 1e-9);
            }
        }
    }
    CHECK(length == Approx(2 * (470 + 270))); // every millimetre once
    CHECK(texts == 1);
    // nothing in the middle of a large frame: those tiles are left out
    Drawing ring;
    ring.width = 3 * o.tile_width;
    ring.height = 3 * o.tile_height;
    ring.add(Stroke{{{1, 1}, {ring.width - 1, 1}, {ring.width - 1, ring.height - 1}, {1, ring.height - 1}}, true, {}});
    CHECK(tiled(ring, "ring", o).size() == 8);
}

TEST_CASE("the sheet that a line takes out, round or from edge to edge", "[sit][property]") {
    // a plate of 400 × 300 in squares of 10, seen from above; a second sheet hangs below it
    shape::Mesh m;
    for (const double z : {0.0, -3.0}) {
        const auto first = static_cast<std::uint32_t>(m.points.size());
        for (int j = 0; j <= 30; ++j)
            for (int i = 0; i <= 40; ++i) m.points.push_back({10.0 * i, 10.0 * j, z});
        for (std::uint32_t j = 0; j < 30; ++j)
            for (std::uint32_t i = 0; i < 40; ++i) {
                const std::uint32_t a = first + j * 41 + i;
                m.triangles.push_back({a, a + 1, a + 42});
                m.triangles.push_back({a, a + 42, a + 41});
            }
    }
    const auto sheet = sit::readyOf(std::make_shared<const shape::Mesh>(m), 1);
    const auto area = [&](const std::vector<Point3>& line, double planned) {
        const auto found = sit::takenOut(sheet, line, false, planned);
        for (const std::uint32_t t : found) CHECK(m.points[m.triangles[t][0]][2] == 0); // of the sheet it runs over alone
        return 50.0 * static_cast<double>(found.size());
    };
    // across: the side that comes nearer to the area, whichever way the line runs
    CHECK(area({{123, 0, 0}, {123, 300, 0}}, 123 * 300) == Approx(123 * 300).margin(10 * 300));
    CHECK(area({{123, 300, 0}, {123, 0, 0}}, 123 * 300) == Approx(123 * 300).margin(10 * 300));
    CHECK(area({{123, 300, 0}, {123, 0, 0}}, 277 * 300) == Approx(277 * 300).margin(10 * 300));
    // a slot from one edge: three sides, the fourth is the plate's own; also where the line stops a little short of it
    const std::vector<Point3> slot{{255, 0, 0}, {255, 120, 0}, {145, 120, 0}, {145, 0, 0}};
    CHECK(area(slot, 110 * 120) == Approx(110 * 120).margin(10 * 350));
    CHECK(area({{255, 25, 0}, {255, 120, 0}, {145, 120, 0}, {145, 25, 0}}, 110 * 120) == Approx(110 * 120).margin(10 * 350));
    // the line ends far within the sheet: there is a way round it; or the area is another
    CHECK(area({{255, 80, 0}, {255, 180, 0}, {145, 180, 0}, {145, 80, 0}}, 110 * 100) == 0);
    CHECK(area(slot, 50000) == 0);
    CHECK(sit::takenOut(sheet, {{1, 1, 0}}, false, 1e9).empty());
    CHECK(sit::takenOut(sit::readyOf(std::make_shared<const shape::Mesh>()), slot, false, 1e4).empty());
    // over two panels that meet in a seam of three: a slot that runs from one over to the other
    shape::Mesh two;
    const auto panel = [&](const Point3& u, const Point3& v, bool turned) {
        const auto first = static_cast<std::uint32_t>(two.points.size());
        for (int j = 0; j <= 20; ++j)
            for (int i = 0; i <= 20; ++i)
                two.points.push_back(geometry::plus(geometry::times(u, 10.0 * i), geometry::times(v, 10.0 * j)));
        for (std::uint32_t j = 0; j < 20; ++j)
            for (std::uint32_t i = 0; i < 20; ++i) {
                const std::uint32_t a = first + j * 21 + i;
                two.triangles.push_back(turned ? shape::Triangle{a, a + 22, a + 1} : shape::Triangle{a, a + 1, a + 22});
                two.triangles.push_back(turned ? shape::Triangle{a, a + 21, a + 22} : shape::Triangle{a, a + 22, a + 21});
            }
    };
    panel({0, 1, 0}, {1, 0, 0}, false); // floor, from the seam rearward
    panel({0, 1, 0}, {0, 0, 1}, true);  // heel board, up from the seam, faced the other way
    panel({0, 1, 0}, {-1, 0, 0}, false);
    const auto seam = sit::readyOf(std::make_shared<const shape::Mesh>(two), 1);
    const std::vector<Point3> over{{60, 55, 0}, {0, 55, 0}, {0, 55, 0}, {0, 55, 85}, {0, 145, 85}, {0, 145, 0}, {60, 145, 0}};
    const auto both = sit::takenOut(seam, over, true, 90 * 60 + 90 * 85);
    CHECK(50.0 * static_cast<double>(both.size()) == Approx(90 * 60 + 90 * 85).margin(5000));
    bool floor = false, board = false;
    for (const std::uint32_t t : both) {
        const Point3& p = two.points[two.triangles[t][0]];
        floor = floor || p[0] > 15;
        board = board || p[2] > 15;
        CHECK(p[1] >= 40);
        CHECK(p[1] <= 160);
    }
    CHECK(floor);
    CHECK(board);
}

} // namespace sit_as_cut_test
