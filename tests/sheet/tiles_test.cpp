#include "sheet/tiles.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sheet_tiles_test {

using namespace gorvet::sheet;

TEST_CASE("a template that fits is one page; one that does not is as many as it takes, each said", "[sheet][tiles]") {
    Drawing small{100, 80, {}, {}}, large{700, 300, {}, {}};
    small.add(Stroke{{{0, 0}, {100, 80}}, false, {}});
    large.add(Stroke{{{0, 0}, {700, 300}, {0, 300}}, true, {}});
    std::vector<Drawing> pages;
    addAtFullSize(pages, {"Template", "a build", ""}, {"Mind it."}, small);
    CHECK(pages.size() == 1);
    CHECK(pages[0].width == 297);
    pages.clear();
    addAtFullSize(pages, {"Template", "a build", ""}, {"Mind it."}, large);
    REQUIRE(pages.size() == 8); // four by two, all with something in them
    double drawn = 0;
    std::size_t said = 0;
    for (const Drawing& page : pages) {
        CHECK(page.width == 210); // upright
        CHECK(page.height == 297);
        for (const Item& item : page.items) {
            if (const auto* t = std::get_if<Text>(&item.shape)) said += t->text.find("Template: row ") == 0;
            const auto* s = std::get_if<Stroke>(&item.shape);
            if (!s || s->pen.weight != Pen{}.weight) continue; // its own lines, not the marks
            for (std::size_t k = 0; k + 1 < s->path.size(); ++k)
                drawn += std::hypot(s->path[k].x - s->path[k + 1].x, s->path[k].y - s->path[k + 1].y);
        }
    }
    CHECK(said == pages.size());
    CHECK(drawn == Approx(std::hypot(700, 300) + 700 + 300)); // every line once, cut at the edges
}

} // namespace sheet_tiles_test
