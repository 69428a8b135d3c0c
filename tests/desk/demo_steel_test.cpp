// New steel of demos 2 and 4 in the real window: what Stretch plans is cut, laid, welded and handed out with Make's own.
#include "analysis/scans.hpp"
#include "analysis/steel.hpp"
#include "desk/driver.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QTableView>
#include <fmt/format.h>
#include <set>

namespace desk_demo_steel_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

/// The row of the list whose first cell is that; −1 when there is none.
int rowOf(const QTableView& list, const QString& piece) {
    for (int row = 0; row < list.model()->rowCount(); ++row)
        if (list.model()->index(row, 0).data().toString() == piece) return row;
    return -1;
}
QString cell(const QTableView& list, int row, int column) { return list.model()->index(row, column).data().toString(); }
std::set<std::string> welded(const analysis::Results& r) {
    std::set<std::string> tags;
    for (const make::WeldSeam& s : r.welds.input().seams) tags.insert(s.tag);
    return tags;
}

} // namespace

TEST_CASE("demo 2: plates of its rails and a link's bracket, from the cut list to nested sheets and the weld plan",
          "[desk][make]") {
    const auto folder = test::freshFolder("window-steel-drover");
    const auto file = test::demoBuild(folder, "drover_long");
    build::Build as_it_was;
    const auto out = folder / "out";
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        const auto results = [&]() -> const analysis::Results& { return d.window.document().results(); };
        d.bench("make");
        // ribs in the open rails, said on Stretch, stand here, too
        d.keep("member ribs rib from 2100 to 3200 4 pitch 300 planned");
        d.showSheet("cut", "Cut list");
        auto* list = d.find<QTableView>("list");
        REQUIRE(waitFor([&] { return rowOf(*list, "shut-front") >= 0; }));
        for (const char* piece : {"shut-middle", "ribs", "tail-new", "inner sleeve", "fish plate", "new rail piece left"}) {
            INFO(piece);
            CHECK(rowOf(*list, piece) >= 0);
        }
        CHECK(cell(*list, rowOf(*list, "shut-front"), 1) == "plate 4");
        CHECK(cell(*list, rowOf(*list, "shut-front"), 3) == "2");
        // a bracket for the lower link, tapped on the survey's own places
        d.keep("point Bl1 1990 -409 470");
        d.keep("coordinates Bl1 1990 -409 470");
        d.keep("part link-left ears at Lfl Bl1 apart 46 sheet 6 hole 16 foot 90 load 9000");
        REQUIRE(waitFor([&] { return rowOf(*list, "link-left: ear") >= 0; }));
        CHECK(results().service->rows.size() > 0);
        // plates that can be had: all of 4 mm lie in them, openings and all
        d.keep("stock mill-p4 plate 1250 4 long 2500 any price 96");
        d.showSheet("plates", "Plates");
        auto* sheet = d.find<desk::SheetView>("sheet");
        REQUIRE(QTest::qWaitFor([&] { return sheet->placeOf("stock:mill-p4").has_value(); }, 60'000));
        const auto& laid = *results().scans->plates;
        REQUIRE(laid.size() == 1);
        CHECK(laid[0].too_large.empty());
        std::size_t pieces = 0, wanted = 0;
        for (const auto& layout : laid[0].layouts) pieces += layout.pieces.size();
        for (const auto& need : analysis::flatNeeds(d.window.document().build(), results()))
            if (std::abs(need.flat.thickness_mm - 4) < 0.3) wanted += static_cast<std::size_t>(need.flat.count);
        CHECK(wanted >= 4);
        CHECK(pieces == wanted);
        // and every one of them is welded in the plan
        d.showSheet("welds", "Welds");
        REQUIRE(waitFor([&] { return d.text("headline").contains("a seam") || d.text("headline").contains("seams"); }));
        const auto seams = welded(results());
        for (const char* tag :
             {"member:shut-front", "member:shut-middle", "member:ribs", "member:tail-new", "part:link-left", "sleeve"}) {
            INFO(tag);
            CHECK(seams.contains(tag));
        }
        REQUIRE(waitFor([&] { return sheet->placeOf("member:shut-front").has_value(); }));
        QTest::mouseClick(sheet, Qt::LeftButton, {}, sheet->placeOf("member:shut-front")->toPoint());
        REQUIRE(waitFor([&] { return d.find<desk::CardView>("card")->isVisible(); }));
        // taken out again: no row, no seam
        d.keep("remove member ribs");
        CHECK_FALSE(welded(results()).contains("member:ribs"));
        d.action("undo");
        CHECK(welded(results()).contains("member:ribs"));
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    const std::string csv = test::fileText(out / "cut-list.csv");
    for (const char* piece : {"shut-front", "ribs", "fish plate", "link-left: ear"}) {
        INFO(piece);
        CHECK(csv.find(piece) != std::string::npos);
    }
    const auto read = test::run(fmt::format(
        "/usr/bin/python3 -c \"import ezdxf; d = ezdxf.readfile('{}'); m = d.modelspace(); print(all(p.closed for p in "
        "m.query('LWPOLYLINE POLYLINE')), not d.audit().has_errors)\" 2>&1",
        (out / "plate-4-1.dxf").string()));
    INFO(read.out);
    CHECK(read.out.find("True True") != std::string::npos);
}

TEST_CASE("demo 4: the floor's new edge and its outriggers, cut from lengths and sheets, welded, handed out",
          "[desk][make][spine]") {
    const auto folder = test::freshFolder("window-steel-dulcie");
    const auto file = test::demoBuild(folder, "dulcie");
    const auto out = folder / "out";
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        const auto results = [&]() -> const analysis::Results& { return d.window.document().results(); };
        d.bench("make");
        d.showSheet("cut", "Cut list");
        auto* list = d.find<QTableView>("list");
        REQUIRE(waitFor([&] { return rowOf(*list, "left-floor: strip") >= 0; }));
        const auto outrigger = rowOf(*list, "left-floor: outrigger 1");
        REQUIRE(outrigger >= 0);
        CHECK(cell(*list, outrigger, 1) == "box 60 × 40 × 3");
        CHECK(rowOf(*list, "saddle") >= 0);
        // lengths of that section: every outrigger of both sides lies in one
        d.keep("stock mill-b60 box 60 40 3 long 3000 any price 22");
        d.showSheet("bars", "Bars");
        REQUIRE(waitFor([&] { return results().nests.size() == 1; }));
        std::size_t outriggers = 0, cut = 0;
        for (const analysis::SteelThing& t : analysis::steelThings(d.window.document().build(), results()))
            if (t.tag.starts_with("floor-edge:")) outriggers += t.bars.size();
        for (const auto& layout : results().nests[0]->layouts)
            cut += layout.pieces.size() * static_cast<std::size_t>(layout.times);
        CHECK(outriggers >= 4);
        CHECK(cut == outriggers);
        d.keep("stock mill-s15 plate 1000 1.5 long 2000 any price 31");
        d.showSheet("plates", "Plates");
        auto* sheet = d.find<desk::SheetView>("sheet");
        REQUIRE(QTest::qWaitFor([&] { return sheet->placeOf("stock:mill-s15").has_value(); }, 60'000));
        // a floor's figure changed on Stretch: the pieces follow
        const auto flats = [&] {
            double area = 0;
            for (const auto& need : analysis::flatNeeds(d.window.document().build(), results()))
                if (need.tag == "floor-edge:left-floor") area += geometry::areaOf(need.flat.outline);
            return area;
        };
        const double before = flats();
        d.keep(
            "floor-edge left-floor from Al Bl Cl Dl El to Pl Ol Ql sheet 1.5 lap 40 upstand 25 outriggers 60 40 3 pitch 900 carries 100");
        CHECK(flats() > before + 1000);
        d.action("undo");
        CHECK(flats() == Approx(before));
        d.showSheet("welds", "Welds");
        REQUIRE(waitFor([&] { return sheet->placeOf("floor-edge:left-floor").has_value(); }));
        const auto seams = welded(results());
        CHECK(seams.contains("floor-edge:right-floor"));
        CHECK(seams.contains("sleeve"));
    }
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    const std::string csv = test::fileText(out / "cut-list.csv");
    for (const char* piece : {"left-floor: strip", "right-floor: outrigger 1", "saddle", "strip below the spine"}) {
        INFO(piece);
        CHECK(csv.find(piece) != std::string::npos);
    }
    CHECK(std::filesystem::exists(out / "plate-1.5-1.dxf"));
}

} // namespace desk_demo_steel_test
