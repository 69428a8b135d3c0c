// What costs what on Sit: seatings, schools, moves, pins between features, in the real window.
#include "desk/driver.hpp"

#include "desk/widgets/sheet_view.hpp"

namespace desk_compare_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

bool shows(desk::SheetView* sheet, const std::string& part) {
    for (const sheet::Item& item : sheet->drawing().items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && t->text.find(part) != std::string::npos) return true;
    return false;
}

bool settled(Driver& d) {
    return waitFor([&] { return d.window.document().results().revision == d.window.document().store()->revision(); });
}

} // namespace

TEST_CASE("seatings are kept, compared, used and undone in the window", "[desk][sit]") {
    const auto folder = test::freshFolder("window-compare");
    const auto path = test::demoBuild(folder);
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
        d.bench("sit");
        auto* sheet = d.find<desk::SheetView>("sheet");
        CHECK(shows(sheet, "from the left"));
        QTest::keyClick(&d.window, Qt::Key_F5, Qt::ShiftModifier); // the last of its sheets
        REQUIRE(waitFor([&] { return shows(sheet, "where each seating comes to"); }));
        CHECK(d.find<QPushButton>("view_costs")->isChecked());
        CHECK(shows(sheet, "height of SFl"));
        CHECK(shows(sheet, "4 low"));
        CHECK(shows(sheet, "Channel the floor over the rails for 25.0 mm"));
        CHECK(shows(sheet, "local rules"));

        // a must that can't be had, and what it says
        d.keep("pin up chassis:Cl to M2l least 80 must");
        REQUIRE(settled(d));
        CHECK(shows(sheet, "M2l over Cl"));
        CHECK(d.window.document().results().seat->pins.back().on_bound);
        d.keep("seating keep high note room for the boxes");
        REQUIRE(settled(d));
        CHECK(shows(sheet, "5 high"));

        // its card, from the sheet
        const auto tag = "pin:" + std::to_string(d.window.document().results().pin_ids.back().value);
        sheet->reveal(tag);
        const auto place = sheet->placeOf(tag);
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return d.find<desk::CardView>("card")->isVisible(); }));

        // the low one: the sills come down by 20; undone in one step
        const double before = d.window.document().results().seat->pose.shift.z_mm;
        const auto pins = d.window.document().latest().pins;
        d.keep("seating use low");
        REQUIRE(settled(d));
        CHECK(d.window.document().results().seat->pose.shift.z_mm < before - 15);
        CHECK(d.window.document().latest().lowering.channel.value == 40);
        CHECK(shows(sheet, "for 40.0 mm"));
        d.action("undo");
        REQUIRE(settled(d));
        CHECK(d.window.document().latest().pins == pins);
        CHECK(d.window.document().latest().lowering.channel.value == 0);

        // wrong lines say what and lose nothing
        d.type("pin up chassis:Cl M2l least 80");
        CHECK(d.text("entryEcho").contains("needs \"to\""));
        CHECK(d.find<QLineEdit>("entry")->text() == "pin up chassis:Cl M2l least 80");
        QTest::keyClick(&d.window, Qt::Key_F5);
        REQUIRE(waitFor([&] { return shows(sheet, "from the left"); }));
        // a bench of one sheet has nothing to turn to; Sit shows what it showed
        QTest::mouseClick(d.find<QPushButton>("view_costs"), Qt::LeftButton);
        d.bench("tape");
        QTest::keyClick(&d.window, Qt::Key_F5);
        CHECK_FALSE(d.find<QPushButton>("start_datum")->text().isEmpty());
        CHECK(d.window.shownBench() == "tape");
        d.bench("sit");
        REQUIRE(waitFor([&] { return shows(sheet, "where each seating comes to"); }));
    }
    Driver again;
    REQUIRE(again.window.openFile(QString::fromStdString(path.string())));
    CHECK(again.window.document().latest().seatings.size() == 2);
    CHECK(again.window.document().latest().seatings.rbegin()->second.note == "room for the boxes");
}

} // namespace desk_compare_test
