// No label stands on another, on any sheet of any bench: measured by the fonts that are shipped.
#include "analysis/bench.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>

namespace analysis_labels_test {

using namespace gorvet;

namespace {

using sheet::P;

/// The corners of what a text covers: from its capitals' height to a little below its base line.
std::array<P, 4> textCorners(const sheet::Text& t) {
    const double width = sheet::textWidth(t.mark == sheet::Mark::Assumed ? t.text + " ?" : t.text, t.size, t.face);
    const double left = t.anchor == sheet::Anchor::Left ? 0 : t.anchor == sheet::Anchor::Centre ? -width / 2 : -width;
    const double base = t.level == sheet::Level::Base ? 0 : t.level == sheet::Level::Middle ? t.size * 0.36 : t.size * 0.78;
    const double turn = -t.turn_deg * 3.14159265358979 / 180;
    const double slack = 0.06 * t.size; // they may touch
    std::array<P, 4> corners{P{left + slack, base - 0.68 * t.size},
                             {left + width - slack, base - 0.68 * t.size},
                             {left + width - slack, base + 0.1 * t.size},
                             {left + slack, base + 0.1 * t.size}};
    for (P& c : corners)
        c = {t.at.x + c.x * std::cos(turn) - c.y * std::sin(turn), t.at.y + c.x * std::sin(turn) + c.y * std::cos(turn)};
    return corners;
}

/// Whether two rectangles, turned or not, share some of their area: no side parts them.
bool textsOverlap(const std::array<P, 4>& a, const std::array<P, 4>& b) {
    for (const auto* box : {&a, &b})
        for (size_t i = 0; i < 2; ++i) {
            const P axis{(*box)[i + 1].x - (*box)[i].x, (*box)[i + 1].y - (*box)[i].y};
            const auto span = [&](const std::array<P, 4>& of) {
                std::pair<double, double> s{1e300, -1e300};
                for (const P& p : of) {
                    const double at = p.x * axis.x + p.y * axis.y;
                    s = {std::min(s.first, at), std::max(s.second, at)};
                }
                return s;
            };
            const auto [a0, a1] = span(a);
            const auto [b0, b1] = span(b);
            if (a1 <= b0 || b1 <= a0) return false;
        }
    return true;
}

std::vector<std::string> collisions(const std::vector<sheet::Item>& items) {
    std::vector<std::pair<const sheet::Text*, std::array<P, 4>>> texts;
    for (const auto& item : items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && !t->text.empty()) texts.emplace_back(t, textCorners(*t));
    std::vector<std::string> found;
    for (size_t i = 0; i < texts.size(); ++i)
        for (size_t j = 0; j < i; ++j)
            if (textsOverlap(texts[i].second, texts[j].second))
                found.push_back(fmt::format("\"{}\" and \"{}\" at {:.0f}, {:.0f}", texts[j].first->text, texts[i].first->text,
                                            texts[i].first->at.x, texts[i].first->at.y));
    return found;
}

void looked(const sheet::Drawing& d, const std::string& where) {
    for (const std::string& pair : collisions(sheet::flatten(d))) FAIL_CHECK(where << ": " << pair);
}

} // namespace

TEST_CASE("texts that overlap are found, turned ones too", "[labels]") {
    sheet::Drawing d;
    d.add(sheet::Text{{0, 0}, "diamond 5.2", 15});
    d.add(sheet::Text{{40, 4}, "twist", 15});
    d.add(sheet::Text{{0, 40}, "apart", 15});
    CHECK(collisions(d.items).size() == 1);
    sheet::Text turned{{20, 60}, "upright", 15};
    turned.turn_deg = 90; // it reaches up to the second line
    d.add(turned);
    CHECK(collisions(d.items).size() == 2);
}

TEST_CASE("no label stands on another", "[labels][demo]") {
    const auto path = test::demoBuild(test::freshFolder("labels-demo"));
    auto store = store::Store::open(path);
    REQUIRE(store);
    const auto& b = (*store)->build();
    const auto r = analysis::analyse(b, 1);
    struct Room {
        double width;
        double height;
        double unit;
    };
    for (const auto& room : {Room{1224, 430, 1}, {1224, 430, 1.5}, {1800, 800, 1}, {900, 430, 1}})
        for (const analysis::BenchInfo* bench : analysis::benches())
            for (const analysis::BenchView& view : bench->views)
                for (const auto subject : {build::the_chassis, build::the_body}) {
                    if (!view.draw || (subject == build::the_body && !bench->by_subject)) continue;
                    looked(view.draw(b, r, subject, {}, room.width, room.height, sheet::Format{room.unit}),
                           fmt::format("{} {} of the {} at {} x {}, {} %", bench->key, view.key, build::nameOf(b, subject),
                                       room.width, room.height, 100 * room.unit));
                }
    for (const auto paper : {build::Paper::A4, build::Paper::Letter, build::Paper::A3}) {
        build::Build on = b;
        on.settings.paper = paper;
        auto pages = analysis::buildSheet(on, r);
        for (const auto subject : {build::the_chassis, build::the_body})
            for (auto& page : analysis::measuringSheets(on, r, subject, 12)) pages.push_back(std::move(page));
        for (size_t i = 0; i < pages.size(); ++i) looked(pages[i], fmt::format("page {} on {}", i + 1, build::word(paper)));
    }
}

} // namespace analysis_labels_test
