#include "sheet/drawing.hpp"
#include "sheet/page.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sheet_drawing_test {

using namespace gorvet::sheet;

TEST_CASE("a projection fits its range, centred, and turns height upwards", "[sheet]") {
    const Projection p = fit(0, 1000, 0, 100, {10, 20}, 500, 400, true);
    CHECK(p.scale == Approx(0.5));
    CHECK(p(0, 50).x == Approx(10));
    CHECK(p(1000, 50).x == Approx(510));
    CHECK(p(500, 50).y == Approx(220));
    CHECK(p(0, 100).y < p(0, 0).y);
    CHECK(std::isfinite(fit(5, 5, 5, 5, {0, 0}, 100, 100, true)(5, 5).x)); // a single place
}

TEST_CASE("hatch lines stay inside their polygon and fill it evenly", "[sheet][property]") {
    Drawing d;
    const std::vector<P> polygon = {{10, 10}, {110, 10}, {110, 60}, {60, 60}, {60, 90}, {10, 90}}; // not convex
    d.add(Hatch{polygon, {}, 4, false});
    double length = 0;
    for (const Item& item : flatten(d)) {
        const auto& s = std::get<Stroke>(item.shape);
        const P mid{(s.path[0].x + s.path[1].x) / 2, (s.path[0].y + s.path[1].y) / 2};
        CHECK(mid.x >= 10);
        CHECK(mid.x <= 110);
        CHECK(mid.y >= 10);
        CHECK(mid.y <= 90);
        CHECK_FALSE((mid.x > 60.01 && mid.y > 60.01)); // the notch
        length += std::hypot(s.path[1].x - s.path[0].x, s.path[1].y - s.path[0].y);
    }
    // evenly spaced lines have a total length of area / pitch
    CHECK(length * 4 == Approx(100 * 50 + 50 * 30).epsilon(0.02));
}

TEST_CASE("a dimension becomes a line, its ends and its text", "[sheet]") {
    Drawing d;
    d.add(Dimension{{0, 100}, {200, 100}, 20, "200.0", 15, Ink::Ink, Mark::Assumed}, "x");
    const auto items = flatten(d);
    int texts = 0;
    for (const Item& item : items) {
        CHECK(item.tag == "x");
        if (const auto* t = std::get_if<Text>(&item.shape)) {
            ++texts;
            CHECK(t->text == "200.0");
            CHECK(t->mark == Mark::Assumed);
            CHECK(t->at.x == Approx(100));
            CHECK(t->at.y == Approx(80)); // to the left of a → b is up the page
        }
    }
    CHECK(texts == 1);
    CHECK(items.size() == 6);
    Drawing upright;
    upright.add(Dimension{{0, 0}, {0, 100}, 10, "100", 15});
    for (const Item& item : flatten(upright))
        if (const auto* t = std::get_if<Text>(&item.shape)) CHECK(t->turn_deg == 0); // level, as read on a wall
    Drawing none;
    none.add(Dimension{{5, 5}, {5, 5}, 10, "0"});
    CHECK(flatten(none).empty());
}

TEST_CASE("verdict marks differ in shape, not in colour alone", "[sheet]") {
    const auto shapes = [](Severity s) {
        Drawing d;
        addMark(d, {0, 0}, 14, s);
        std::string kinds;
        for (const Item& item : d.items) kinds += std::holds_alternative<Circle>(item.shape) ? 'o' : '/';
        return kinds;
    };
    CHECK(shapes(Severity::Good) == "o");
    CHECK(shapes(Severity::Warn) == "o/");
    CHECK(shapes(Severity::Bad) == "//");
}

TEST_CASE("tables run on where they do not fit, and texts wrap", "[sheet]") {
    std::vector<std::vector<std::string>> rows(100, {"a", "1"});
    size_t next = 0;
    int pages = 0;
    while (next < rows.size()) {
        Area area;
        Drawing page = blankPage({"t", "b", ""}, {"caution"}, area);
        const size_t before = next;
        next = addTable(page, area, {{"x", 20}, {"y", 20, Anchor::Right}}, rows, on_paper.small(), next);
        REQUIRE(next > before);
        CHECK(extent(flatten(page)).bottom <= a4.height);
        ++pages;
    }
    CHECK(pages >= 2);
    const auto lines = wrapped("one two three four five", 40, 10);
    CHECK(lines.size() > 1);
    for (const auto& line : lines) CHECK(textWidth(line, 10, Face::Sans) <= 60);
}

TEST_CASE("the check bar is 100 mm", "[sheet]") {
    Drawing d;
    addCheckBar(d, {20, 50});
    const auto& bar = std::get<Stroke>(d.items[0].shape);
    CHECK(bar.path[1].x - bar.path[0].x == 100);
}

} // namespace sheet_drawing_test
