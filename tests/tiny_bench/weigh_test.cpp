// A bench that the program does not ship is found everywhere that goes over benches, and nothing there knows it by name.
#include "analysis/bench.hpp"
#include "analysis/findings.hpp"
#include "entry/entry.hpp"

#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <fstream>

namespace tiny_bench_weigh_test {

using namespace gorvet;

namespace {

struct Shop {
    build::Build b;
    analysis::Results r;
    void type(const std::string& line) {
        auto understood = entry::understand(b, {}, line);
        if (!understood) FAIL(understood.error().text());
        REQUIRE(build::enact(b, understood->edit));
        r = analysis::analyse(b, 1);
    }
};

} // namespace

TEST_CASE("a bench in the table is judged, shown, printed, exported and typed for", "[tiny-bench]") {
    Shop shop;
    shop.type("name Heron");
    CHECK_FALSE(analysis::begun(shop.b, shop.r, "weigh"));
    shop.type("everywhere 300 kg");
    CHECK(analysis::begun(shop.b, shop.r, "weigh"));
    CHECK(analysis::headline(shop.b, shop.r, "weigh", build::the_chassis).sentence == "The wheels carry 1200 kg.");
    CHECK(analysis::worstOf(shop.r.findings, "weigh").severity == sheet::Severity::Good);
    shop.type("everywhere 400 kg");
    const auto worst = analysis::worstOf(shop.r.findings, "weigh");
    CHECK(worst.severity == sheet::Severity::Bad);
    CHECK(worst.count == 1);
    CHECK(analysis::worstOf(shop.r.findings, "work").severity == sheet::Severity::Good);
    const auto card = analysis::cardFor(shop.b, shop.r, build::the_chassis, "total");
    REQUIRE(card);
    CHECK(card->title == "1600 kg");
    // the cover has a line of every bench; its own page stands between those of Tape and Work
    const auto pages = analysis::buildSheet(shop.b, shop.r);
    const auto says = [](const sheet::Drawing& page, const std::string& text) {
        for (const auto& item : page.items)
            if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && t->text.find(text) != std::string::npos) return true;
        return false;
    };
    CHECK(says(pages.front(), "Weigh"));
    CHECK(says(pages.front(), "The wheels carry 1600 kg."));
    CHECK(
        std::any_of(pages.begin() + 1, pages.end(), [&](const sheet::Drawing& page) { return says(page, "Weighed: 1600 kg"); }));
    CHECK_FALSE(says(pages.back(), "Weighed: 1600 kg")); // what is to be seen to comes behind the benches' pages
    const auto folder = test::freshFolder("tiny-bench");
    const auto files = analysis::exportAll(shop.b, shop.r, folder);
    REQUIRE(files);
    std::ifstream csv(folder / "weights.csv");
    std::string line;
    CHECK(std::getline(csv, line));
    CHECK(line == "1600");
    const analysis::BenchInfo* bench = analysis::benchOf("weigh");
    REQUIRE(bench);
    CHECK(bench->json(shop.b, shop.r) == "{\"total_kg\": 1600}\n");
    // and its words go with it
    bool shown = false;
    for (const auto& form : entry::forms()) shown = shown || std::string(form.bench) == "Weigh";
    CHECK(shown);
    shop.type("remove everywhere");
    CHECK_FALSE(analysis::begun(shop.b, shop.r, "weigh"));
    CHECK_FALSE(entry::understand(shop.b, {}, "mount all")); // of a bench that is not in this table
}

} // namespace tiny_bench_weigh_test
