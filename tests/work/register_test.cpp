// The register on paper: what stands in its lists, and that its labels are read again.
#include "work/register_sheet.hpp"

#include "sheet/code.hpp"
#include "sheet/write.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <set>
#include <sstream>

namespace work_register_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

std::vector<Release> rows(int n) {
    std::vector<Release> list;
    for (int k = 0; k < n; ++k) {
        Release r;
        r.id = ReleaseId{static_cast<std::uint32_t>(k + 1)};
        r.name = "row-" + std::to_string(k);
        r.area = k % 2 ? "engine bay left" : "tail";
        r.joins = "body loom to frame loom with a name that is longer than its label";
        r.bag = "bag-" + std::to_string(k);
        list.push_back(r);
    }
    list.back().name = "größe-½"; // not in letters alone
    return list;
}

std::string texts(const std::vector<sheet::Drawing>& pages) {
    std::string all;
    for (const auto& page : pages)
        for (const auto& item : page.items)
            if (const auto* t = std::get_if<sheet::Text>(&item.shape)) all += t->text + "\n";
    return all;
}

/// A page as pdftoppm writes it, grey.
struct Grey {
    int width = 0, height = 0;
    std::string dots;
};
Grey readGrey(const std::filesystem::path& path) {
    std::ifstream in(path, std::ios::binary);
    std::string magic;
    int most = 0;
    Grey g;
    in >> magic >> g.width >> g.height >> most;
    in.get();
    REQUIRE(magic == "P5");
    g.dots.resize(static_cast<std::size_t>(g.width) * static_cast<std::size_t>(g.height));
    in.read(g.dots.data(), static_cast<std::streamsize>(g.dots.size()));
    return g;
}

/// What a reader of codes finds when it is held on one label after the other, as a person does.
std::multiset<std::string> readCodes(const std::filesystem::path& pdf, const work::LabelStock& stock) {
    constexpr double dots_mm = 300 / 25.4;
    const auto folder = pdf.parent_path();
    REQUIRE(std::system(("pdftoppm -r 300 -gray " + pdf.string() + " " + (folder / "page").string()).c_str()) == 0);
    int label = 0;
    std::vector<std::filesystem::path> pages;
    for (const auto& file : std::filesystem::directory_iterator(folder))
        if (file.path().extension() == ".pgm") pages.push_back(file.path());
    for (const auto& path : pages) {
        const Grey page = readGrey(path);
        for (int row = 0; row < stock.down; ++row)
            for (int column = 0; column < stock.across; ++column) {
                const int x = static_cast<int>((stock.left + column * stock.pitch_x) * dots_mm),
                          y = static_cast<int>((stock.top + row * stock.pitch_y) * dots_mm);
                const int w = std::min(static_cast<int>(stock.width * dots_mm), page.width - x),
                          h = std::min(static_cast<int>(stock.height * dots_mm), page.height - y);
                std::ofstream out(folder / fmt::format("label-{:03}.pnm", label++), std::ios::binary);
                out << "P5 " << w << " " << h << " 255\n";
                for (int line = y; line < y + h; ++line)
                    out.write(&page.dots[static_cast<std::size_t>(line) * static_cast<std::size_t>(page.width) +
                                         static_cast<std::size_t>(x)],
                              w);
            }
    }
    const auto found = folder / "found.txt";
    // it ends with 4 where a picture has no code: the sheet begins and ends with empty labels
    const int ended = std::system(("zbarimg --raw -q -Sdisable -Sqrcode.enable " + (folder / "label-").string() + "*.pnm > " +
                                   found.string() + " 2>/dev/null")
                                      .c_str());
    REQUIRE((ended == 0 || WEXITSTATUS(ended) == 4));
    std::multiset<std::string> lines;
    std::ifstream in(found);
    for (std::string line; std::getline(in, line);) lines.insert(line);
    return lines;
}

} // namespace

TEST_CASE("labels of every stock stand on their sheet, each with its own code, and are read again from the PDF",
          "[work][register]") {
    for (const work::LabelStock& stock : work::labelStocks()) {
        INFO(stock.key);
        CHECK(stock.left + (stock.across - 1) * stock.pitch_x + stock.width <= stock.paper_width + 0.1);
        CHECK(stock.top + (stock.down - 1) * stock.pitch_y + stock.height <= stock.paper_height + 0.6);
        const auto list = rows(stock.across * stock.down + 3); // more than a sheet
        auto pages = work::labelSheets(list, stock, 2);
        REQUIRE(pages);
        CHECK(pages->size() == 2);
        for (const auto& page : *pages)
            for (const auto& item : page.items) {
                const auto inside = [&](sheet::P p) { return p.x >= 0 && p.y >= 0 && p.x <= page.width && p.y <= page.height; };
                if (const auto* fill = std::get_if<sheet::Fill>(&item.shape))
                    for (const sheet::P p : fill->polygon) CHECK(inside(p));
                if (const auto* t = std::get_if<sheet::Text>(&item.shape)) {
                    CHECK(inside(t->at));
                    // no text runs over the next label
                    const double right = t->at.x + sheet::textWidth(t->text, t->size, t->face);
                    const double column = std::floor((t->at.x - stock.left) / stock.pitch_x);
                    CHECK(right <= stock.left + column * stock.pitch_x + stock.width + 0.2);
                }
            }
        const auto folder = test::freshFolder(std::string("labels-") + stock.key);
        REQUIRE(sheet::writePdf(*pages, {"labels", "test"}, folder / "labels.pdf"));
        const auto codes = readCodes(folder / "labels.pdf", stock);
        CHECK(codes.size() == list.size());
        for (const Release& r : list) {
            INFO(r.name);
            CHECK(codes.count(work::labelLine(r)) == 1);
        }
    }
    CHECK_FALSE(work::labelStock("1x1"));
}

TEST_CASE("a text that is too long for a code is refused, and says so", "[sheet]") {
    sheet::Drawing d;
    CHECK_FALSE(sheet::addCode(d, {0, 0}, 20, ""));
    const auto made = sheet::addCode(d, {0, 0}, 20, std::string(5000, 'x'));
    REQUIRE_FALSE(made);
    CHECK(made.error().remedy == "Make the name shorter.");
    CHECK(d.items.empty());
}

TEST_CASE("the register's lists: undone by area, and the same backwards, what is scrapped left out", "[work][register]") {
    auto list = rows(5);
    list[0].fate = Fate::Scrap;
    list[1].torque_nm = 42;
    list[1].on_wheels = true;
    list[2].released = Signed{"M.", "2026-03-01T08:00:00Z"};
    list[3].seized = true;
    const auto pages = work::registerSheet(list, {"Taken apart", "Demo", "", {}}, {"caution"});
    REQUIRE(pages.size() == 2);
    const std::string undo = texts({pages[0]}), refit = texts({pages[1]});
    CHECK(undo.find("row-0") < undo.find("row-2")); // the tail first, then the engine bay
    CHECK(undo.find("row-2") < undo.find("row-1"));
    CHECK(undo.find("2026-03-01 M.") != std::string::npos);
    CHECK(undo.find("soak it") != std::string::npos);
    CHECK(refit.find("row-0") == std::string::npos);
    CHECK(refit.find("row-1") < refit.find("row-2"));
    CHECK(refit.find("42 N·m") != std::string::npos);
    CHECK(work::registerSheet({}, {}, {}).empty());
    // five thousand rows still make pages
    const auto many = work::registerSheet(rows(5000), {"Taken apart", "Demo", "", {}}, {});
    CHECK(many.size() > 100);
}

} // namespace work_register_test
