// Files are read back by other people's programs: ezdxf, poppler.
#include "analysis/export.hpp"
#include "make/make_sheet.hpp"
#include "sheet/page.hpp"
#include "sheet/write.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <fmt/format.h>

namespace sheet_write_test {

using namespace gorvet;

TEST_CASE("DXF: extents, holes, layers and texts as another reader sees them", "[sheet][files]") {
    const auto folder = test::freshFolder("dxf");
    make::Plate plate;
    plate.width_mm = 138.25;
    plate.height_mm = 96.5;
    plate.holes = {{22, 20, 13.5}, {116, 20, 13.5}, {22, 80, 13.5}, {116, 80, 13.5}};
    auto drawing = make::plateDrawing(plate);
    REQUIRE(sheet::writeDxf(drawing, folder / "plate.dxf"));
    const std::string script = R"(
import sys, ezdxf
from ezdxf import bbox
d = ezdxf.readfile(sys.argv[1])
m = d.modelspace()
e = bbox.extents(m)
print(d.dxfversion, d.header['$INSUNITS'])
print('%.3f %.3f %.3f %.3f' % (e.extmin.x, e.extmin.y, e.extmax.x, e.extmax.y))
for c in sorted((c.dxf.center.x, c.dxf.center.y, c.dxf.radius, c.dxf.layer) for c in m.query('CIRCLE')): print('%.3f %.3f %.3f %s' % c)
print([p.is_closed for p in m.query('LWPOLYLINE POLYLINE')])
print([t.dxf.text for t in m.query('TEXT')])
print(len(d.audit().errors))
)";
    const auto py = folder / "read.py";
    FILE* f = fopen(py.c_str(), "w");
    fputs(script.c_str(), f);
    fclose(f);
    auto read = test::run("/usr/bin/python3 " + py.string() + " " + (folder / "plate.dxf").string());
    INFO(read.out);
    REQUIRE(read.code == 0);
    CHECK(read.out == "AC1015 4\n0.000 0.000 138.250 96.500\n"
                      "22.000 20.000 6.750 CUT\n22.000 80.000 6.750 CUT\n116.000 20.000 6.750 CUT\n116.000 80.000 6.750 CUT\n"
                      "[True]\n[]\n0\n");
    drawing.add(sheet::Text{{10, 10}, "Maß 12 ± 0,5 × 3°", 5});
    REQUIRE(sheet::writeDxf(drawing, folder / "text.dxf"));
    read = test::run("/usr/bin/python3 " + py.string() + " " + (folder / "text.dxf").string());
    CHECK(read.out.find("['Maß 12 ± 0,5 × 3°']") != std::string::npos);
    CHECK_FALSE(sheet::writeDxf(drawing, folder / "no" / "such" / "x.dxf"));
}

TEST_CASE("PDF: text, pages and page size as another reader sees them", "[sheet][files]") {
    const auto folder = test::freshFolder("pdf");
    sheet::Area area;
    auto page = sheet::blankPage({"Crossmember", "Petrel on Tern", "revision 3"}, {"Nobody under a hung body."}, area);
    sheet::addCheckBar(page, {area.x, area.y + 20});
    std::vector<sheet::Drawing> pages = {page, page};
    sheet::numberPages(pages);
    REQUIRE(sheet::writePdf(pages, {"Title", "Subject"}, folder / "a.pdf"));
    const auto text = test::run("pdftotext -layout " + (folder / "a.pdf").string() + " -");
    REQUIRE(text.code == 0);
    for (const char* part : {"Crossmember", "Petrel on Tern", "Nobody under a hung body.", "page 1 of 2", "page 2 of 2",
                             "This bar must measure 100 mm"}) {
        INFO(part);
        CHECK(text.out.find(part) != std::string::npos);
    }
    const auto info = test::run("pdfinfo " + (folder / "a.pdf").string());
    CHECK(info.out.find("Pages:           2") != std::string::npos);
    CHECK(info.out.find("841.89 x 595.276 pts (A4)") != std::string::npos);
    CHECK(info.out.find("Title:           Title") != std::string::npos);
    // the fonts are ours and inside the file
    const auto fonts = test::run("pdffonts " + (folder / "a.pdf").string());
    CHECK(fonts.out.find("GorvetSans") != std::string::npos);
    CHECK(fonts.out.find("yes yes") != std::string::npos);
    CHECK_FALSE(sheet::writePdf({}, {}, folder / "none.pdf"));
    CHECK_FALSE(sheet::writePdf(pages, {}, folder / "no" / "such" / "x.pdf"));
}

TEST_CASE("the demo's exports: build sheet, flange, cut list, readings", "[sheet][files][demo]") {
    const auto folder = test::freshFolder("exports");
    const auto path = test::demoBuild(folder);
    auto store = store::Store::open(path);
    REQUIRE(store);
    const auto r = analysis::analyse((*store)->build(), (*store)->revision());
    const auto files = analysis::exportAll((*store)->build(), r, folder / "out");
    REQUIRE(files);
    for (const auto& file : *files) CHECK(std::filesystem::file_size(file) > 100);
    const auto text = test::run("pdftotext -layout " + (folder / "out" / "build-sheet.pdf").string() + " -");
    for (const char* part :
         {"Build sheet", "Aldermoor Petrel on Brannock Tern", "Not square", "Bl–Dr was read as", "Readings of the chassis",
          "Stretch: the cut", "Make: body mounts", "Crossmember at", "This bar must measure 100 mm", "roadworthiness rules",
          "fuel tank out", "Order of work", "HOLD POINT", "NO WAY BACK", "Temporary steel"}) {
        INFO(part);
        CHECK(text.out.find(part) != std::string::npos);
    }
    // the flange's file carries the plan's own figures
    const auto dxf =
        test::run("/usr/bin/python3 -c \"import ezdxf; from ezdxf import bbox; m=ezdxf.readfile('" +
                  (folder / "out" / "flange-left.dxf").string() +
                  "').modelspace(); e=bbox.extents(m); print('%.1f %.1f %d' % (e.size.x, e.size.y, len(m.query('CIRCLE'))))\"");
    CHECK(dxf.out == fmt::format("{:.1f} {:.1f} {}\n", r.crossmember->left.width_mm, r.crossmember->left.height_mm,
                                 r.crossmember->left.holes.size()));
    const std::string list = test::fileText(folder / "out" / "cut-list.csv");
    for (const char* part : {"middle", "leg left", "flange left", "captive nut", "standoff M1l", "inner sleeve", "fish plate"})
        CHECK(list.find(part) != std::string::npos);
    // the crossmember's page is SVG, too, and true to scale: the check bar is 100 mm long in it
    const std::string svg = test::fileText(folder / "out" / "crossmember.svg");
    CHECK(svg.find("width=\"841.889764pt\"") != std::string::npos);
}

} // namespace sheet_write_test
