// Demo 2 in the real window: wider wheels dragged along what fits, the axle on the bench, to wheel sheet and drilling template.
#include "desk/driver.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QScrollBar>
#include <cmath>
#include <fmt/format.h>

namespace desk_wheels_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

TEST_CASE("wider wheels: what fits, dragged and kept, taken back; the axle on the bench; sheets", "[desk][drive]") {
    const auto folder = test::freshFolder("window-wheels");
    const auto file = test::demoBuild(folder, "drover_long");
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("drive");
        d.showSheet("wheels", "Wheels");
        REQUIRE(waitFor([&] { return d.text("headline").contains("rear tyres come as near as"); }));
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        REQUIRE(sheet->placeOf("room:arch-lip"));
        QTest::mouseClick(sheet, Qt::LeftButton, {}, sheet->placeOf("room:arch-lip")->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        const auto wanted = [&] {
            return build::wheelSetOf(d.window.document().build(), build::AxleEnd::Rear, build::WheelAs::Wanted);
        };
        const double before = wanted()->offset->value;
        // dragged on the map: drawn there while it moves, one line once it is let go
        d.showSheet("fit", "Which fit");
        REQUIRE(waitFor([&] { return !sheet->drawing().grips.empty(); }));
        const auto grip = sheet->drawing().grips.front();
        CHECK(grip.name == "offset rear");
        auto* bar = sheet->findChild<QScrollBar*>("sheetScroll");
        bar->setValue(std::max(0, static_cast<int>(grip.at.y) - sheet->height() / 2));
        const QPoint from(static_cast<int>(std::lround(grip.at.x)), static_cast<int>(std::lround(grip.at.y)) - bar->value());
        const sheet::Drawing rest = sheet->drawing();
        QTest::mousePress(sheet, Qt::LeftButton, {}, from);
        QTest::mouseMove(sheet, from + QPoint(-40, 0));
        QTest::mouseMove(sheet, from + QPoint(-80, 0));
        REQUIRE(waitFor([&] { return !(sheet->drawing() == rest); }));
        CHECK(wanted()->offset->value == before);
        QTest::mouseRelease(sheet, Qt::LeftButton, {}, from + QPoint(-80, 0));
        REQUIRE(waitFor([&] { return wanted()->offset->value != before; }));
        CHECK(wanted()->offset->value == Approx(before - 80 * grip.per_unit).margin(1));
        const auto fouls = [&] {
            const auto& list = d.window.document().results().findings;
            return std::any_of(list.begin(), list.end(), [](const auto& f) { return f.code == "drive.wheel-room"; });
        };
        d.keep("rim rear wanted offset -40");
        CHECK(fouls());
        d.action("undo");
        d.action("undo");
        CHECK_FALSE(fouls());
        CHECK(wanted()->offset->value == before);
        // typed as a beginner would, and wrong
        d.showSheet("dial", "Under the dial");
        REQUIRE(waitFor([&] { return d.text("headline").contains("runs aside by"); }));
        d.showSheet("setup", "On the bench");
        REQUIRE(waitFor([&] { return d.text("headline").contains("perches 266 and 266 mm"); }));
        REQUIRE(sheet->placeOf("bracket:damper-left"));
        d.keep("adaptor rear thick 30 across 170 hub-hole 13 wheel-hole 14");
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
    for (const char* page : {"Drive: the rear wheels", "Drive: which rear wheels fit", "Drive: wheels under the dial",
                             "Drive: the rear axle on the bench"}) {
        INFO(page);
        CHECK(text.out.find(page) != std::string::npos);
    }
    // another program reads the drilling template: its outline, its bore, five and five holes
    const auto read = test::run(fmt::format(
        "/usr/bin/python3 -c \"import ezdxf; d = ezdxf.readfile('{}'); print(len(d.modelspace().query('CIRCLE')), not d.audit().has_errors)\" 2>&1",
        (out / "adaptor-rear.dxf").string()));
    CHECK(read.out.find("12 True") != std::string::npos);
}

} // namespace desk_wheels_test
