// Demo 4 in the real window: a spine platform from its survey to its printed templates, longer and narrower.
#include "analysis/axle.hpp"
#include "desk/driver.hpp"

#include <fmt/format.h>

namespace desk_dulcie_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

TEST_CASE("a spine platform is cut in steps, its axle narrowed, its halves stood up, and its saddle drawn",
          "[desk][stretch][spine]") {
    const auto folder = test::freshFolder("window-spine");
    const auto file = test::demoBuild(folder, "dulcie");
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("stretch");
        const auto results = [&]() -> const analysis::Results& { return d.window.document().results(); };
        REQUIRE(waitFor([&] { return d.text("headline").contains("Cut the spine at"); }));
        REQUIRE(results().stretch->spine);
        auto* sheet = d.find<desk::SheetView>("sheet");
        CHECK(sheet->placeOf("cut"));
        // less stagger: one weld line, said on the sheet's own findings, and undone
        d.keep("stagger 150"); // 10 beside an end of what is let in
        REQUIRE(waitFor([&] { return results().stretch->verdict == build::PlanVerdict::Fails; }));
        d.action("undo");
        REQUIRE(waitFor([&] { return results().stretch->verdict != build::PlanVerdict::Fails; }));
        // the axle: what is wanted is changed on its card
        d.showSheet("track", "Track");
        REQUIRE(waitFor([&] { return d.text("headline").contains("off left"); }));
        const auto place = sheet->placeOf("track:rear");
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        auto* card = d.find<desk::CardView>("card");
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        auto* field = d.find<QLineEdit>("cardField_wanted_width");
        CHECK(field->text().startsWith("1200"));
        field->clear();
        QTest::keyClicks(field, "1210");
        QTest::keyClick(field, Qt::Key_Return);
        REQUIRE(waitFor(
            [&] { return build::axleJobOf(d.window.document().build(), build::AxleEnd::Rear)->faces_wanted->value == 1210; }));
        const auto axles = analysis::workedAxles(d.window.document().build(), results());
        REQUIRE(axles.size() == 1);
        CHECK(axles[0].plan.sides[0].cut_mm == Approx(30));
        // no rail to cut: the spine has its own steps, and what runs inside is apart before the saw
        CHECK(results().work->find("inside-apart"));
        CHECK(results().work->find("spine-covers"));
        CHECK(results().work->find("cut-rails")->title.find("the spine") != std::string::npos);
        // a stand too far forward, and the saw is shut
        const auto shut = [&] {
            const auto* s = results().work->find("cut-rails");
            return std::any_of(s->conditions.begin(), s->conditions.end(), [](const work::Condition& c) {
                return !c.met && c.text.find("stands by itself") != std::string::npos;
            });
        };
        CHECK_FALSE(shut());
        d.keep("stand tail at 1600");
        REQUIRE(waitFor(shut));
        d.action("undo");
        REQUIRE(waitFor([&] { return !shut(); }));
        // as wide as it will be: a strip out of each side, floors out to the sills; the lap is changed on the card, and undone
        d.showSheet("width", "Width");
        REQUIRE(waitFor([&] { return d.text("headline").contains("Slit the floor 460"); }));
        CHECK(d.text("headline").contains("take 15.0"));
        const auto strip = sheet->placeOf("narrow");
        REQUIRE(strip);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, strip->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible() && d.find<QLineEdit>("cardField_slit_at"); }));
        d.keep("narrow lap 0");
        REQUIRE(waitFor([&] { return d.text("headline").contains("take 35.0"); }));
        d.action("undo");
        REQUIRE(waitFor([&] { return d.text("headline").contains("take 15.0"); }));
        CHECK(results().work->find("narrow-slit"));
        CHECK(results().work->find("edge-arms-left-floor"));
        sheet->reveal("floor-edge:left-floor");
        const auto floor = sheet->placeOf("floor-edge:left-floor");
        REQUIRE(floor);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, floor->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible() && d.find<QLineEdit>("cardField_outriggers"); }));
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    // what is cut from it
    const auto out = folder / "out";
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    for (const char* name : {"saddle.dxf", "window-cover.dxf", "floor-edge-left-floor.dxf", "build-sheet.pdf"}) {
        INFO(name);
        CHECK(std::filesystem::file_size(out / name) > 500);
    }
    const auto json = test::run(fmt::format("{} stretch track {}", GORVET_CLI, file.string()));
    CHECK(json.code == 0);
    CHECK(json.out.find("\"cut_mm\": 30") != std::string::npos);
    const auto wide = test::run(fmt::format("{} stretch width {}", GORVET_CLI, file.string()));
    CHECK(wide.code == 0);
    CHECK(wide.out.find("\"strip_mm\": 15") != std::string::npos);
}

} // namespace desk_dulcie_test
