// The order of work in the real window: hold points, fresh readings, a photo.
#include "desk/driver.hpp"

#include <fstream>

using namespace gorvet;
using test::Driver;
using test::number;
using test::waitFor;

TEST_CASE("a work order is ticked through a hold point that first refuses and then opens", "[desk][work]") {
    const auto folder = test::freshFolder("window-work");
    const auto path = test::demoBuild(folder);
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    // the survey's hold point refuses while a reading is to be taped again
    d.bench(6);
    const auto next = [&] { return d.window.document().results().work->steps[*d.window.document().results().work->next]; };
    while (next().code != "survey-agrees") {
        REQUIRE(next().open());
        d.keep("done");
    }
    d.type("done");
    CHECK(d.text("entryEcho").contains("One reading of the chassis is to be taped again"));
    CHECK(d.find<QLineEdit>("entry")->text() == "done"); // not lost
    d.bench(1);
    d.keep("retape Bl Dr 1691.5");
    d.bench(6);
    d.keep("done survey-agrees");
    while (next().code != "before-cutting") {
        INFO(next().code);
        REQUIRE(next().open());
        d.find<QPushButton>(("start_done_" + next().code).c_str())->click();
    }
    // diagonals out: the entry line proposes each, a figure is enough
    CHECK(d.text("headline").startsWith("Hold point: "));
    const auto checks = next().checks;
    REQUIRE(checks.size() == 10); // three diagonals, seven levels
    for (size_t i = 0; i < checks.size(); ++i) {
        CHECK(d.text("entryEcho").contains("plan"));
        d.keep(number(checks[i].plan_mm + (i == 1 ? 7.0 : 0.5)) + " mm");
    }
    d.type("done before-cutting");
    CHECK(d.text("entryEcho").contains("7.0 too long"));
    CHECK(d.find<QPushButton>("verbWork")->accessibleName().contains("bad"));
    d.bench(4);
    d.bench(6);
    // read again: it agrees, the gate opens
    CHECK(d.text("entryPair").contains(QString::fromStdString(build::nameOf(d.window.document().build(), checks[1].from))));
    d.keep(number(checks[1].plan_mm - 1) + " mm");
    CHECK_FALSE(d.find<QPushButton>("verbWork")->accessibleName().contains("bad"));
    // ticked with a photo from its card
    auto* sheet = d.find<desk::SheetView>("sheet");
    auto* card = d.find<desk::CardView>("card");
    const auto place = sheet->placeOf("step:before-cutting");
    REQUIRE(place);
    QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
    REQUIRE(waitFor([&] { return card->isVisible(); }));
    std::ofstream(folder / "diagonals.jpg", std::ios::binary) << "\xFF\xD8\xFF" << std::string(499'997, 'p');
    desk::ask::presets().answers << QString::fromStdString((folder / "diagonals.jpg").string());
    d.find<QPushButton>("cardAction_done,_with_a_photo")->click();
    REQUIRE(waitFor([&] { return build::tickOf(d.window.document().build(), "before-cutting") != nullptr; }));
    const auto* tick = build::tickOf(d.window.document().build(), "before-cutting");
    CHECK(tick->photo.size() == 64);
    CHECK(d.window.document().store()->blob(tick->photo)->bytes == 500'000);
    CHECK(next().code == "cut-rails");
    // undone, the gate is there again, and still open: its readings are kept
    d.action("undo");
    CHECK(next().code == "before-cutting");
    CHECK(next().open());
}
