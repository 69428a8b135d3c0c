// The Rule: two edges to one scale, tags that do not cover each other, a gap where the rail is cut.
#include "analysis/views.hpp"
#include "entry/entry.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <map>

namespace analysis_rule_test {

using namespace gorvet;

namespace {

build::Build demo() {
    static const build::Build b = [] {
        const auto path = test::demoBuild(test::freshFolder("rule-demo"));
        auto store = store::Store::open(path);
        REQUIRE(store);
        return (*store)->build();
    }();
    return b;
}
void type(build::Build& b, const std::string& line) {
    auto understood = entry::understand(b, {build::the_chassis, {}, {}}, line);
    if (!understood) FAIL(understood.error().text());
    REQUIRE(build::enact(b, understood->edit));
}
std::vector<sheet::P> wheels(const sheet::Drawing& d, sheet::Ink ink) {
    std::vector<sheet::P> list;
    for (const auto& item : d.items)
        if (const auto* c = std::get_if<sheet::Circle>(&item.shape); c && c->pen.ink == ink && c->radius > 6)
            list.push_back(c->centre);
    return list;
}

} // namespace

TEST_CASE("wheel marks show the mismatch to scale", "[analysis][demo]") {
    const build::Build b = demo();
    const auto r = analysis::analyse(b, 1);
    const auto d = analysis::ruleView(b, r, {}, 1280, 110, {});
    const double scale = analysis::ruleScale(b, r, 1280, {});
    REQUIRE(scale > 0);
    const auto body = wheels(d, sheet::Ink::Body);
    const auto chassis = wheels(d, sheet::Ink::Chassis);
    REQUIRE(body.size() == 2);
    REQUIRE(chassis.size() == 2);
    // axles 2790 apart on the lower edge, arches 2650 on the upper
    CHECK((chassis[1].x - chassis[0].x) / scale == Approx(2790).margin(4));
    CHECK((body[1].x - body[0].x) / scale == Approx(2650).margin(4));
    // body above, chassis below the line between the edges
    CHECK(body[0].y < chassis[0].y);
}

TEST_CASE("sliding moves the body edge alone", "[analysis][demo]") {
    const build::Build b = demo();
    const auto r = analysis::analyse(b, 1);
    analysis::ViewOptions slid;
    slid.slide_mm = 100;
    const auto still = analysis::ruleView(b, r, {}, 1280, 110, {});
    const auto moved = analysis::ruleView(b, r, slid, 1280, 110, {});
    const double by = 100 * analysis::ruleScale(b, r, 1280, {});
    CHECK(wheels(moved, sheet::Ink::Body)[0].x - wheels(still, sheet::Ink::Body)[0].x == Approx(by));
    CHECK(wheels(moved, sheet::Ink::Chassis)[0].x == wheels(still, sheet::Ink::Chassis)[0].x);
}

TEST_CASE("a cut opens a gap in the lower edge, as wide as what comes out", "[analysis][demo]") {
    build::Build b = demo();
    auto r = analysis::analyse(b, 1);
    const auto gap = [&] {
        for (const auto& item : analysis::ruleView(b, r, {}, 1280, 110, {}).items)
            if (const auto* h = std::get_if<sheet::Hatch>(&item.shape); h && item.tag == "cut")
                return (h->polygon[1].x - h->polygon[0].x) / analysis::ruleScale(b, r, 1280, {});
        return 0.0;
    };
    CHECK(gap() == Approx(r.stretch->left.length_mm).margin(0.5));
    type(b, "change -60");
    r = analysis::analyse(b, 2);
    CHECK(gap() == Approx(62).margin(0.5));
    type(b, "change 60"); // let in: a cut, no gap
    r = analysis::analyse(b, 3);
    CHECK(gap() == 0);
}

TEST_CASE("tags stand beside each other, the worst nearest to its station; the rest are counted", "[analysis][demo]") {
    build::Build b = demo();
    for (const char* line : {"cut 1000", "biscuit 60", "isolator 150", "hinge 600 tol 1"}) type(b, line);
    const auto r = analysis::analyse(b, 1);
    for (const double width : {1280.0, 900.0}) {
        const auto d = analysis::ruleView(b, r, {}, width, 110, {});
        std::map<std::string, std::pair<double, double>> spans;
        int more = 0;
        for (const auto& item : d.items) {
            const auto* t = std::get_if<sheet::Text>(&item.shape);
            if (!t) continue;
            if (item.tag == "findings") more = std::stoi(t->text.substr(1));
            if (!item.tag.starts_with("finding:")) continue;
            spans[item.tag] = {t->at.x, t->at.x + sheet::textWidth(t->text, t->size, t->face)};
        }
        REQUIRE(spans.size() >= 3);
        for (const auto& [a, x] : spans)
            for (const auto& [c, y] : spans)
                if (a != c) CHECK((x.second <= y.first + 1 || y.second <= x.first + 1));
        int hanging = 0;
        for (const auto& f : r.findings) hanging += f.station_mm.has_value() && f.severity != sheet::Severity::Good;
        CHECK(static_cast<int>(spans.size()) + more == hanging);
    }
}

} // namespace analysis_rule_test
