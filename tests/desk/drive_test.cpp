// Demo 2 in the real window: its shaft set right by what the card proposes, a slope that slipped, links through their travel, to
// the shaft order.
#include "analysis/drive.hpp"
#include "desk/driver.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QScrollBar>
#include <cmath>
#include <fmt/format.h>

namespace desk_drive_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

TEST_CASE("a shaft is set right from its card, dragged through its travel, and ordered", "[desk][drive]") {
    const auto folder = test::freshFolder("window-drive");
    const auto file = test::demoBuild(folder, "drover_long");
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("drive");
        REQUIRE(waitFor([&] { return d.text("headline").contains("gearbox to rear"); }));
        const auto results = [&]() -> const analysis::Results& { return d.window.document().results(); };
        REQUIRE(results().drive->chains.size() == 1);
        CHECK(results().drive->chains[0].verdict == build::PlanVerdict::Fails);
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        // the chain's card offers what makes it smooth; one tap does it
        const auto place = sheet->placeOf("chain:gearbox to rear");
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        QPushButton* turn = nullptr;
        for (auto* button : card->findChildren<QPushButton*>())
            if (button->text().startsWith("turn the pinion")) turn = button;
        REQUIRE(turn);
        turn->click();
        REQUIRE(waitFor([&] { return build::driveEndNamed(d.window.document().build(), "rear")->turned.value != 0; }));
        const auto shakes = [&] {
            return std::any_of(results().findings.begin(), results().findings.end(),
                               [](const auto& f) { return f.code == "drive.torsional"; });
        };
        CHECK_FALSE(shakes());
        d.action("undo");
        CHECK(shakes());
        d.action("redo");
        CHECK_FALSE(shakes());
        // dragged through its travel: drawn there, nothing kept
        REQUIRE_FALSE(sheet->drawing().grips.empty());
        const auto steps = d.window.document().build();
        const sheet::Drawing rest = sheet->drawing();
        const auto grip = rest.grips.front();
        auto* bar = sheet->findChild<QScrollBar*>("sheetScroll");
        bar->setValue(static_cast<int>(grip.at.y) - sheet->height() / 2);
        const QPoint from(static_cast<int>(std::lround(grip.at.x)), static_cast<int>(std::lround(grip.at.y)) - bar->value());
        QTest::mousePress(sheet, Qt::LeftButton, {}, from);
        QTest::mouseMove(sheet, from + QPoint(40, 0));
        QTest::mouseMove(sheet, from + QPoint(80, 0));
        REQUIRE(waitFor([&] { return !(sheet->drawing() == rest); }));
        QTest::mouseRelease(sheet, Qt::LeftButton, {}, from + QPoint(80, 0));
        REQUIRE(waitFor([&] { return sheet->drawing().grips == rest.grips; }));
        CHECK(d.window.document().build() == steps);
        // a level with the wrong end down is named, and taken back by undo
        d.showSheet("levels", "Slopes as read");
        d.keep("level-on main -1.5deg");
        REQUIRE(waitFor([&] { return d.text("headline").contains("to be read again"); }));
        d.action("undo");
        REQUIRE(waitFor([&] { return d.text("headline").contains("none against another"); }));
        // links
        d.showSheet("links", "Links");
        REQUIRE(waitFor([&] { return d.text("headline").contains("rear axle's pinion"); }));
        REQUIRE(sheet->placeOf("link:panhard"));
        d.keep("remove link panhard");
        REQUIRE(waitFor([&] { return d.text("headline").contains("go aside"); }));
        d.action("undo");
        REQUIRE(waitFor([&] { return d.text("headline").contains("rear axle's pinion"); }));
        // ratios
        d.showSheet("ratios", "Ratios");
        CHECK(d.text("headline").contains("geared 3.9"));
        CHECK(d.text("below").contains("39 : 10"));
        as_it_was = d.window.document().build();
    }
    // and all of it is there again
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    // what is ordered by it
    const auto out = folder / "out";
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    CHECK(std::filesystem::file_size(out / "drive.pdf") > 10'000);
}

} // namespace desk_drive_test
