// Drawings of the demo build against golden files. `./gorvet golden` writes them again: look at the difference.
#include "analysis/bench.hpp"
#include "analysis/export.hpp"
#include "analysis/frame.hpp"
#include "analysis/scans.hpp"
#include "analysis/slow.hpp"
#include "analysis/views.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <fstream>

namespace analysis_golden_test {

using namespace gorvet;

namespace {

/// A drawing as text: its words in order, then every stroke and circle by its places, to the whole pixel, or half a millimetre on
/// paper: a line that moved is a line that differs.
std::string described(const sheet::Drawing& d) {
    const bool on_paper = d.width < 500;
    std::string words;
    std::string lines;
    const auto at = [&](double v) {
        const double rounded = on_paper ? std::floor(2 * v + 0.5) / 2 : std::floor(v + 0.5);
        return fmt::format("{:g}", rounded + 0.0); // no −0
    };
    const auto name = [](const sheet::Item& item) { return item.tag.empty() ? std::string() : item.tag + " "; };
    for (const auto& item : sheet::flatten(d)) {
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) words += t->text + "\n";
        if (const auto* c = std::get_if<sheet::Circle>(&item.shape))
            lines += fmt::format("{}o {},{} r{}\n", name(item), at(c->centre.x), at(c->centre.y), at(c->radius));
        if (const auto* s = std::get_if<sheet::Stroke>(&item.shape)) {
            lines += name(item) + (s->closed ? "[]" : "-");
            for (const sheet::P& p : s->path) lines += fmt::format(" {},{}", at(p.x), at(p.y));
            lines += "\n";
        }
    }
    return words + lines;
}

void approve(const std::string& name, const std::string& text) {
    const std::string path = std::string(GORVET_SOURCE_DIR) + "/tests/golden/" + name + ".txt";
    if (std::getenv("GORVET_WRITE_GOLDEN")) std::ofstream(path) << text;
    const std::string golden = test::fileText(path);
    INFO("./gorvet golden writes " << path << " again");
    CHECK(text == golden);
}

} // namespace

TEST_CASE("golden drawings and pages of the demo build", "[golden][demo]") {
    const auto path = test::demoBuild(test::freshFolder("golden-demo"));
    auto store = store::Store::open(path);
    REQUIRE(store);
    const auto& b = (*store)->build();
    const auto r = analysis::analyse(b, 1);
    approve("sit", described(analysis::sitView(b, r, {}, 1224, 430, {})));
    approve("stretch", described(analysis::stretchView(b, r, {}, 1224, 430, {})));
    approve("make", described(analysis::makeView(b, r, {}, 1224, 430, {})));
    approve("rule", described(analysis::ruleView(b, r, {}, 1280, 110, {})));
    const auto pages = analysis::buildSheet(b, r);
    approve("build-sheet-cover", described(pages.front()));
    std::string crossmember;
    for (const auto& page : analysis::crossmemberSheet(b, r)) crossmember += described(page);
    approve("crossmember", crossmember);
}

TEST_CASE("golden sheets of the spine, the axles, the halves on stands and the plates of rails", "[golden][demo]") {
    const auto folder = test::freshFolder("golden-stretch");
    const auto sheetOf = [](const store::Store& store, const analysis::Results& r, std::string_view bench,
                            std::string_view view) {
        for (const analysis::BenchView& v : analysis::benchOf(bench)->views)
            if (v.key == view) return described(v.draw(store.build(), r, build::the_chassis, {}, 1224, 430, {}));
        FAIL("no sheet " << view);
        return std::string();
    };
    auto dulcie = store::Store::open(test::demoBuild(folder, "dulcie"));
    REQUIRE(dulcie);
    const auto r = analysis::analyse((*dulcie)->build(), 1);
    approve("spine", sheetOf(**dulcie, r, "stretch", "sheet"));
    approve("track", sheetOf(**dulcie, r, "stretch", "track"));
    approve("lifts", sheetOf(**dulcie, r, "work", "lifts"));
    auto drover = store::Store::open(test::demoBuild(folder, "drover_long"));
    REQUIRE(drover);
    auto worked = analysis::analyse((*drover)->build(), 1);
    REQUIRE(analysis::makeSlow((*drover)->build(), worked, {analysis::slow::frame},
                               [](const auto&, const auto&) { return Result<void>{}; }));
    approve("boxing", sheetOf(**drover, worked, "stretch", "boxing"));
    approve("strength", sheetOf(**drover, worked, "stretch", "strength"));
    std::string plates;
    for (const auto& page : analysis::framePages((*drover)->build(), worked)) plates = described(page); // the last one
    approve("rail-plates", plates);
}

} // namespace analysis_golden_test
