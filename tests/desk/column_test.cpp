// Demo 4 in the real window: the steering column, its gear and plate, weight and springs; demo 2: rows of holes and brakes.
#include "desk/driver.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <fmt/format.h>

namespace desk_column_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

TEST_CASE("a steering column on its sheet: forks turned, gear and plate, weight; kept, undone, reopened, printed",
          "[desk][drive]") {
    const auto folder = test::freshFolder("window-column");
    const auto file = test::demoBuild(folder, "dulcie");
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("drive");
        d.showSheet("column", "Column");
        REQUIRE(waitFor([&] { return d.text("headline").contains("Its joints bend by"); }));
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        REQUIRE(sheet->placeOf("column:steering"));
        QTest::mouseClick(sheet, Qt::LeftButton, {}, sheet->placeOf("column:steering")->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        const auto stray = [&] { return d.window.document().results().column->stray.value; };
        const double before = stray();
        d.keep("column steering forks 90deg");
        CHECK(stray() < before - 0.1); // as its sheet says they stand best
        CHECK(d.window.document().results().column->verdict == build::PlanVerdict::Holds);
        d.action("undo");
        CHECK(stray() == before);
        // a short rack widens the circle
        const auto circle = [&] { return d.window.document().results().steering->locks.front().circle_mm.value; };
        const double turns = circle();
        d.keep("steer-gear rack-1 rack each-way 40");
        CHECK(circle() > turns + 1000);
        d.action("undo");
        d.showSheet("weight", "Weight and springs");
        REQUIRE(waitFor([&] { return d.text("headline").contains("over the road"); }));
        REQUIRE(sheet->placeOf("weight:car"));
        d.keep("spring front torsion higher 15");
        CHECK(build::springOf(d.window.document().build(), build::AxleEnd::Front)->higher->value == 15);
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    const auto out = folder / "out";
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    const auto text = test::run(fmt::format("pdftotext -layout {} - 2>&1", (out / "drive.pdf").string()));
    for (const char* page : {"Drive: the steering column", "Drive: weight and springs", "the plate under rack-1"}) {
        INFO(page);
        CHECK(text.out.find(page) != std::string::npos);
    }
    CHECK(test::fileText(out / "cut-list.csv").find("plate under rack-1") != std::string::npos); // among all new steel
    // another program reads the plate: an outline and four holes
    const auto read = test::run(fmt::format(
        "/usr/bin/python3 -c \"import ezdxf; d = ezdxf.readfile('{}'); print(len(d.modelspace().query('CIRCLE')), not d.audit().has_errors)\" 2>&1",
        (out / "gear-plate-rack-1.dxf").string()));
    CHECK(read.out.find("4 True") != std::string::npos);
}

TEST_CASE("rows of holes and brakes as lists", "[desk][drive]") {
    const auto folder = test::freshFolder("window-holes");
    const auto file = test::demoBuild(folder, "drover_long");
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    d.bench("drive");
    d.showSheet("holes", "Rows of holes");
    REQUIRE(waitFor([&] { return d.text("headline").contains("4 holes to choose from"); }));
    d.showSheet("brakes", "Brakes, checked");
    REQUIRE(waitFor([&] { return d.text("headline").contains("rear wheels lock first"); }));
    const auto checks = d.window.document().results().brakes->not_looked_at.size();
    d.keep("remove pedal brake");
    CHECK(d.window.document().results().brakes->not_looked_at.size() > checks);
}

} // namespace desk_column_test
