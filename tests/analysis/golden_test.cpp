// Drawings of the demo build against golden files. `./gorvet golden` writes them again: look at the difference.
#include "analysis/export.hpp"
#include "analysis/views.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fmt/format.h>
#include <fstream>

using namespace gorvet;

namespace {

/// A drawing as text: its words in order, and how many shapes of each kind it has.
std::string described(const sheet::Drawing& d) {
    std::string text;
    int strokes = 0;
    int circles = 0;
    for (const auto& item : sheet::flatten(d)) {
        strokes += std::holds_alternative<sheet::Stroke>(item.shape);
        circles += std::holds_alternative<sheet::Circle>(item.shape);
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) text += t->text + "\n";
    }
    return text + fmt::format("({} strokes, {} circles)\n", strokes, circles);
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
