// Exports that can't be made say why; what is not there yet is not written.
#include "analysis/export.hpp"
#include "analysis/pages.hpp"
#include "entry/entry.hpp"

#include "store/store.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

namespace analysis_export_test {

using namespace gorvet;

namespace {
std::vector<std::string> names(const std::vector<std::filesystem::path>& files) {
    std::vector<std::string> list;
    for (const auto& f : files) list.push_back(f.filename().string());
    std::sort(list.begin(), list.end());
    return list;
}
} // namespace

TEST_CASE("an empty build exports its build sheet and nothing else", "[analysis][files]") {
    const auto folder = test::freshFolder("export-empty");
    const build::Build b;
    const auto files = analysis::exportAll(b, analysis::analyse(b, 0), folder / "new" / "folder");
    REQUIRE(files);
    CHECK(names(*files) == std::vector<std::string>{"build-sheet.pdf"});
    const auto text = test::run("pdftotext -layout " + (folder / "new" / "folder" / "build-sheet.pdf").string() + " -");
    CHECK(text.out.find("Nothing of the chassis is marked yet.") != std::string::npos);
    CHECK(text.out.find("Nothing was found that needs seeing to.") != std::string::npos);
}

TEST_CASE("a survey alone exports its sheets and its readings", "[analysis][files]") {
    const auto folder = test::freshFolder("export-survey");
    build::Build b;
    for (const char* line : {"point A 0 0 0", "point B 1000 0 0", "A B 1000", "height A 0", "height B 3"}) {
        auto understood = entry::understand(b, {build::the_chassis, {}, {}}, line);
        REQUIRE(understood);
        REQUIRE(build::enact(b, understood->edit));
    }
    const auto files = analysis::exportAll(b, analysis::analyse(b, 3), folder);
    REQUIRE(files);
    CHECK(names(*files) == std::vector<std::string>{"as-found-chassis.pdf", "build-sheet.pdf", "points-chassis.csv",
                                                    "readings-chassis.csv", "survey-chassis.pdf", "survey-chassis.svg"});
    const std::string csv = test::fileText(folder / "readings-chassis.csv");
    CHECK(csv == "kind,from,to,value,unit,sigma_mm,note\n"
                 "point,A,,0 0 0,mm,,\n"
                 "point,B,,1000 0 0,mm,,\n"
                 "tape,A,B,1000,mm,,\n"
                 "height,A,,0,mm,,\n"
                 "height,B,,3,mm,,\n");
    // what is not fixed says so in print, too
    const auto text = test::run("pdftotext -layout " + (folder / "survey-chassis.pdf").string() + " -");
    CHECK(text.out.find("not fixed") != std::string::npos);
    CHECK(text.out.find("nothing checks it") != std::string::npos);
}

TEST_CASE("a folder that can't be made is said", "[analysis][files]") {
    const auto folder = test::freshFolder("export-wrong");
    std::ofstream(folder / "file") << "in the way";
    const build::Build b;
    const auto files = analysis::exportAll(b, analysis::analyse(b, 0), folder / "file" / "below");
    REQUIRE_FALSE(files);
    CHECK(files.error().code == Error::Code::File);
    CHECK(files.error().text().find("can't be made") != std::string::npos);
    CHECK(test::fileText(folder / "file") == "in the way");
}

TEST_CASE("a sheet that wants more height than its page is drawn smaller, and stays above the foot", "[analysis][files]") {
    double unit = 0, given = 0;
    const auto tall = [&](double width, double height, const sheet::Format& f) {
        sheet::Drawing d;
        d.width = width;
        d.height = std::max(height, f.px(960)); // 201 mm at full size: more than a page has
        unit = f.unit;
        given = height;
        d.add(sheet::Text{{0, d.height}, "the last line", f.small()});
        return d;
    };
    const build::Build b;
    sheet::Area area;
    std::vector<sheet::Drawing> pages{
        sheet::blankPage(analysis::titled(b, analysis::analyse(b, 0), "Tall"), {analysis::local_rules}, area)};
    analysis::placeFitted(pages.front(), area, tall);
    CHECK(unit < sheet::on_paper.unit);
    CHECK(unit > sheet::on_paper.unit * 0.6);
    CHECK(960 * unit <= given + 0.01);
    bool found = false;
    for (const sheet::Drawing& page : pages) {
        double last = 0, foot = 0;
        for (const sheet::Item& item : page.items)
            if (const auto* t = std::get_if<sheet::Text>(&item.shape)) {
                if (t->text == "the last line") last = t->at.y;
                if (t->text.find("local vehicle-modification") != std::string::npos) foot = t->at.y;
            }
        if (last == 0) continue;
        found = true;
        CHECK(foot > last);
    }
    CHECK(found);
}

TEST_CASE("the build sheet: one page to sign, then drawings and work, readings as an annex, on the paper that is there",
          "[analysis][files][demo]") {
    const auto path = test::demoBuild(test::freshFolder("export-paper"));
    auto store = store::Store::open(path);
    REQUIRE(store);
    build::Build b = (*store)->build();
    const auto r = analysis::analyse(b, 1);
    const auto says = [](const sheet::Drawing& page, std::string_view what) {
        for (const sheet::Item& item : sheet::flatten(page))
            if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && t->text.find(what) != std::string::npos) return true;
        return false;
    };
    std::map<build::Paper, size_t> count;
    for (const auto paper : {build::Paper::A4, build::Paper::Letter, build::Paper::A3}) {
        b.settings.paper = paper;
        const auto size = analysis::paperOf(b);
        const auto pages = analysis::buildSheet(b, r);
        count[paper] = pages.size();
        CHECK(says(pages.front(), "approved by (licensed)"));
        CHECK(says(pages.front(), "built as planned, by"));
        size_t order = 0, seen_to = 0, first_annex = pages.size(), readings = 0;
        for (size_t i = 0; i < pages.size(); ++i) {
            CHECK(pages[i].width == size.width);
            CHECK(pages[i].height == size.height);
            INFO("page " << i + 1 << " on " << build::word(paper));
            const sheet::Extent e = sheet::extent(sheet::flatten(pages[i]));
            CHECK(e.left >= 4);
            CHECK(e.right <= size.width - 4);
            CHECK(e.top >= 4);
            CHECK(e.bottom <= size.height - 3);
            if (says(pages[i], "Order of work")) order = i;
            if (says(pages[i], "What to see to") && i > 0) seen_to = i;
            if (says(pages[i], "annex")) first_annex = std::min(first_annex, i);
            if (says(pages[i], "Readings of the chassis") && !readings) readings = i;
        }
        CHECK(order > 0);
        CHECK(seen_to > order);
        CHECK(first_annex > seen_to);
        CHECK(readings >= first_annex);
        for (size_t i = first_annex; i < pages.size(); ++i) CHECK(says(pages[i], "annex"));
    }
    CHECK(count[build::Paper::A3] < count[build::Paper::A4]);
}

} // namespace analysis_export_test
