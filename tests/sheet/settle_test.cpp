// Texts are set aside from each other, and nothing else moves.
#include "sheet/settle.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <rapidcheck.h>
#include <rapidcheck/catch.h>

namespace sheet_settle_test {

using namespace gorvet::sheet;

namespace {

int collisions(const std::vector<Item>& items) {
    int n = 0;
    for (size_t i = 0; i < items.size(); ++i)
        for (size_t j = 0; j < i; ++j) {
            const auto *a = std::get_if<Text>(&items[i].shape), *b = std::get_if<Text>(&items[j].shape);
            n += a && b && overlap(cornersOf(*a), cornersOf(*b));
        }
    return n;
}

} // namespace

TEST_CASE("how wide a text is, by the fonts that are shipped", "[sheet][labels]") {
    CHECK(textWidth("", 15, Face::Sans) == 0);
    CHECK(textWidth("iiii", 15, Face::Sans) < textWidth("WWWW", 15, Face::Sans) * 0.6);
    CHECK(textWidth("Br–Dl 2164.2 ± 1.1", 30, Face::Sans) == Approx(2 * textWidth("Br–Dl 2164.2 ± 1.1", 15, Face::Sans)));
    CHECK(textWidth("0123456789", 15, Face::Mono) == Approx(10 * textWidth("8", 15, Face::Mono)));
    CHECK(textWidth("3.0", 15, Face::Mono) < 2.6 * textWidth("8", 15, Face::Mono)); // and does not read as "3. 0"
    CHECK(textWidth("±", 15, Face::Sans) < 15);   // one sign, not its two bytes
    CHECK(textWidth("\xC3", 15, Face::Sans) > 0); // cut off in the middle of a sign
}

TEST_CASE("chained dimensions too narrow for their figures stand apart", "[sheet][labels]") {
    Drawing d;
    d.width = 400;
    d.height = 200;
    for (int i = 0; i < 4; ++i) d.add(Dimension{{100.0 + 20 * i, 100}, {120.0 + 20 * i, 100}, 20, "112.5", 15});
    CHECK(collisions(flatten(d)) == 0);
}

TEST_CASE("texts settle: free ones stay, crowded ones find a place on the sheet", "[sheet][labels][property]") {
    CHECK(rc::check("settled", [] {
        std::vector<Item> items;
        const int n = *rc::gen::inRange(0, 14);
        for (int i = 0; i < n; ++i) {
            Text t;
            t.at = {static_cast<double>(*rc::gen::inRange(60, 740)), static_cast<double>(*rc::gen::inRange(60, 540))};
            t.text = "label " + std::to_string(i);
            t.turn_deg = *rc::gen::element(0.0, 0.0, 90.0, 30.0);
            t.anchor = *rc::gen::element(Anchor::Left, Anchor::Centre, Anchor::Right);
            items.push_back({t, {}});
        }
        const int before = collisions(items);
        const std::vector<Item> as_it_was = items;
        settleTexts(items, 800, 600);
        RC_ASSERT(collisions(items) <= before);
        if (before == 0) RC_ASSERT(items == as_it_was);
        for (size_t i = 0; i < items.size(); ++i) {
            const auto &now = std::get<Text>(items[i].shape), &then = std::get<Text>(as_it_was[i].shape);
            RC_ASSERT(std::hypot(now.at.x - then.at.x, now.at.y - then.at.y) <
                      5 * now.size + textWidth(now.text, now.size, now.face));
        }
        std::vector<Item> again = items;
        settleTexts(again, 800, 600);
        if (collisions(items) == 0) RC_ASSERT(again == items);
    }));
    // a handful on one place all find one of their own
    std::vector<Item> crowd;
    for (int i = 0; i < 6; ++i) crowd.push_back({Text{{400, 300}, "label", 15}, {}});
    settleTexts(crowd, 800, 600);
    CHECK(collisions(crowd) == 0);
}

} // namespace sheet_settle_test
