// What holds for the whole desk: call-out, what is remembered, long work, large text, names of controls, keyboard.
#include "desk/driver.hpp"
#include "desk/shell/verb_strip.hpp"

#include <QAbstractButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QSettings>
#include <fstream>
#include <set>

namespace desk_desk_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

TEST_CASE("call-out: a figure and Enter from under the car", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-call-out"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    d.action("callOut");
    auto* field = d.find<QLineEdit>("callOutField");
    REQUIRE(waitFor([&] { return field->isVisible() && field->hasFocus(); }));
    CHECK(d.text("callOutPair") == "Bl Dr");
    CHECK(d.text("callOutHint").contains("the rest say 169"));
    CHECK(d.find<QLabel>("callOutPair")->fontInfo().pixelSize() >= 64);
    CHECK(d.find<QLabel>("callOutLast")->fontInfo().pixelSize() >= 64);
    CHECK(d.find<desk::SheetView>("callOutSketch")->placeOf("pair"));
    d.find<QPushButton>("callOutMute")->click();
    QTest::keyClicks(field, "16x");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK_FALSE(d.text("callOutError").isEmpty());
    CHECK(field->text() == "16x");
    field->clear();
    QTest::keyClicks(field, "1691.5");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.text("callOutLast").startsWith(QString::fromUtf8("Bl–Dr  1691.5")));
    CHECK(d.text("callOutWord") == "Agrees");
    CHECK(d.text("callOutPair") != "Bl Dr");
    const QString proposed = d.text("callOutPair");
    QTest::keyClick(field, Qt::Key_Down);
    CHECK(d.text("callOutPair") != proposed);
    // far off what is expected, it is asked about before it is kept
    const auto kept = d.window.document().build().readings.size();
    QTest::keyClicks(field, "9999");
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.text("callOutError").contains("is expected there: Enter again keeps"));
    CHECK(field->text() == "9999");
    CHECK(d.window.document().latest().readings.size() == kept);
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(d.window.document().latest().readings.size() == kept + 1);
    CHECK(d.text("callOutWord") == "Re-tape");
    QTest::keyClick(field, Qt::Key_Escape);
    CHECK(d.find<QLineEdit>("entry")->isVisible());
    d.action("undo");
}

TEST_CASE("what is at work says as much as the benches' names leave room for", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-strip"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    auto* strip = d.find<desk::VerbStrip>("verbStrip");
    auto* words = d.find<QLabel>("workText");
    auto* names = d.find<QScrollArea>("verbScroll");
    for (const int wide : {1280, 1920}) {
        d.window.resize(wide, 800);
        REQUIRE(waitFor([&] { return strip->width() >= wide - 20 && strip->width() <= wide; }));
        strip->setWork("what stands beside the wheels, through bump, droop and lock", 0.5);
        INFO(wide << " " << words->text().toStdString());
        CHECK(words->text().endsWith("50 %"));
        CHECK(words->toolTip().startsWith("what stands beside the wheels"));
        REQUIRE(waitFor([&] { return names->viewport()->width() >= names->widget()->sizeHint().width(); })); // none is covered
        CHECK(words->text().startsWith("what") == (wide == 1920));
        strip->setWork({}, 0);
        CHECK(words->text().isEmpty());
        CHECK_FALSE(words->isVisible());
    }
}

TEST_CASE("a reading far off what is expected is kept by a second Enter alone", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-weigh"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    const auto readings = [&] { return d.window.document().latest().readings.size(); };
    const auto before = readings();
    auto* entry = d.find<QLineEdit>("entry");
    d.type("Al Dr 16915");
    CHECK(readings() == before);
    CHECK(entry->text() == "Al Dr 16915"); // nothing typed is lost
    CHECK_THAT(d.text("entryEcho").toStdString(), Catch::Contains("is expected there: Enter again keeps"));
    QTest::keyClick(entry, Qt::Key_Return);
    CHECK(readings() == before + 1);
    d.action("undo");
    CHECK(readings() == before);
    // another line in between is asked about anew
    d.type("Al Dr 16915");
    d.type("Al Dr 16916");
    CHECK(readings() == before);
    // so is one that was given up and is typed once more
    entry->clear();
    d.type("Al Dr 16916");
    CHECK(readings() == before);
    entry->clear();
    d.type("hieght Al 300");
    CHECK_THAT(d.text("entryEcho").toStdString(), Catch::Contains("no command") && Catch::Contains("Did you mean height"));
}

TEST_CASE("what was left is found again: bench, ground, text size, sound", "[desk]") {
    const QString file = QString::fromStdString((test::freshFolder("window-settings") / "gorvet.ini").string());
    {
        Driver d;
        d.window.setGround(desk::Ground::Dye);
        d.window.setTextScale(1.25);
        d.window.setBench("make");
        d.window.resize(1111, 777);
        QSettings settings(file, QSettings::IniFormat);
        d.window.remember(settings);
    }
    Driver d;
    QSettings settings(file, QSettings::IniFormat);
    d.window.recall(settings);
    CHECK(d.find<QPushButton>("verbMake")->isChecked());
    const bool sized = waitFor([&] { return d.window.size() == QSize(1111, 777); });
    INFO(d.window.width() << " x " << d.window.height() << ", least " << d.window.minimumSizeHint().width() << " x "
                          << d.window.minimumSizeHint().height());
    CHECK(sized);
    QSettings again(QString(file + "2"), QSettings::IniFormat);
    d.window.remember(again);
    CHECK(again.value("window/ground") == "dye");
    CHECK(again.value("window/text").toDouble() == 1.25);
    // rubbish in the file does no harm
    again.setValue("window/bench", 77);
    again.setValue("window/text", "huge");
    again.setValue("window/geometry", QByteArray("x"));
    d.window.recall(again);
    CHECK(d.find<QPushButton>("verbTape")->isChecked());
}

TEST_CASE("a large survey is worked out beside the window, and can be stopped", "[desk]") {
    const auto folder = test::freshFolder("window-large");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "large.gorvet").string())));
    // 40 pairs along a frame, each taped to its neighbours: about 900 readings
    std::ofstream csv(folder / "large.csv");
    csv << "kind,from,to,value,unit,sigma_mm,note\n";
    struct Place {
        QString name;
        double x, y, z;
    };
    std::vector<Place> points;
    for (int i = 0; i < 40; ++i)
        for (const double side : {-1.0, 1.0})
            points.push_back({QString("P%1%2").arg(i).arg(side < 0 ? 'l' : 'r'), i * 100.0, side * 420, 480.0 + (i % 3) * 20});
    for (const auto& p : points)
        csv << "point," << p.name.toStdString() << ",rail,\"" << p.x << " " << p.y << " " << p.z << "\",mm,,\n";
    csv << "hold-x,P0l,,0,mm,,\nhold-y,P0l,,-420,mm,,\nhold-y,P39l,,-420,mm,,\n";
    for (const auto& p : points) csv << "height," << p.name.toStdString() << ",," << p.z << ",mm,,\n";
    for (size_t i = 0; i < points.size(); ++i)
        for (size_t j = i + 1; j < std::min(points.size(), i + 11); ++j)
            csv << "tape," << points[i].name.toStdString() << "," << points[j].name.toStdString() << ","
                << std::hypot(points[j].x - points[i].x, points[j].y - points[i].y, points[j].z - points[i].z) << ",mm,,\n";
    csv.close();
    desk::ask::presets().answers << QString::fromStdString((folder / "large.csv").string());
    d.action("importReadings");
    auto& doc = d.window.document();
    const auto done = [&] { return QTest::qWaitFor([&] { return !doc.worker().running() && !doc.stale(); }, 60'000); };
    CHECK(doc.latest().readings.size() > 800); // kept at once
    CHECK(doc.stale());                        // the figures are not in yet
    CHECK(d.text("keptText").contains("figures not yet"));
    REQUIRE(done());
    CHECK(doc.results().chassis.solution->status == tape::Status::Solved);
    CHECK(doc.build() == doc.latest());
    // an edit while it works starts it again with the newer build
    d.keep("P0l P39r 4000");
    d.keep("P0l P38r 3990");
    REQUIRE(done());
    CHECK(doc.build().readings.size() == doc.latest().readings.size());
    // stopped: what is kept stays kept, the figures are those of before
    d.keep("P0r P39l 4000");
    d.find<QPushButton>("workCancel")->click();
    REQUIRE(QTest::qWaitFor([&] { return !doc.worker().running(); }, 60'000));
    CHECK(doc.latest().readings.size() == doc.build().readings.size() + (doc.stale() ? 1 : 0));
    doc.analyse();
    REQUIRE(done());
    CHECK(desk::ask::presets().told.isEmpty());
}

TEST_CASE("at 150 % every bench still fits a screen of 1280 by 800", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-large-text"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    d.window.setTextScale(1.5);
    d.window.resize(1280, 800);
    const auto fits = [&] {
        const QSize least = d.window.minimumSizeHint();
        INFO(least.width() << " x " << least.height());
        CHECK(least.width() <= 1280);
        CHECK(least.height() <= 800);
        CHECK(waitFor([&] { return d.window.size() == QSize(1280, 800); }));
    };
    auto* sheet = d.find<desk::SheetView>("sheet");
    for (const analysis::BenchInfo* info : analysis::benches()) {
        INFO(info->key);
        d.bench(info->key);
        fits();
        // all of the drawing can be brought into view
        CHECK(sheet->drawing().width <= sheet->width());
        const auto* bar = sheet->findChild<QScrollBar*>("sheetScroll");
        CHECK(bar->maximum() + sheet->height() >= static_cast<int>(sheet->drawing().height));
    }
    d.bench("make");
    const std::string last = "mount:" + std::to_string(d.window.document().build().mounts.rbegin()->first.value);
    REQUIRE(sheet->placeOf(last));
    CHECK(sheet->placeOf(last)->y() > sheet->height() / 2.0);
    sheet->setFocus();
    const double before = sheet->placeOf(last)->y();
    QTest::keyClick(sheet, Qt::Key_PageDown);
    CHECK(sheet->placeOf(last)->y() < before);
    QTest::keyClick(sheet, Qt::Key_PageUp);
    CHECK(sheet->placeOf(last)->y() == before);
    // walking there by keyboard brings it into view, and Enter opens its card
    auto* card = d.find<desk::CardView>("card");
    for (int i = 0; i < 40 && !card->isVisible(); ++i) {
        QTest::keyClick(sheet, Qt::Key_Right);
        const auto at = sheet->placeOf(last);
        if (at && at->y() >= 0 && at->y() <= sheet->height() - 30) QTest::keyClick(sheet, Qt::Key_Return);
    }
    CHECK(card->isVisible());
    d.action("callOut");
    fits();
    auto* back = d.find<QPushButton>("callOutBack");
    REQUIRE(waitFor([&] { return back->isVisible(); }));
    CHECK(back->mapTo(&d.window, QPoint(0, back->height())).y() <= d.window.height());
}

TEST_CASE("every control says what it is", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-names"));
    Driver d;
    const auto named = [&](int least) {
        int seen = 0;
        for (auto* w : d.window.findChildren<QWidget*>()) {
            if (!w->isVisible() || w->focusPolicy() == Qt::NoFocus || qobject_cast<QScrollBar*>(w)) continue;
            const auto* button = qobject_cast<QAbstractButton*>(w);
            INFO(w->metaObject()->className() << " " << w->objectName().toStdString());
            CHECK_FALSE((w->accessibleName().isEmpty() && (!button || button->text().isEmpty())));
            ++seen;
        }
        CHECK(seen >= least);
    };
    named(3);
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    for (const analysis::BenchInfo* info : analysis::benches()) {
        INFO(info->key);
        d.bench(info->key);
        named(8);
    }
    d.bench("sit");
    const auto& pins = d.window.document().build().pins;
    auto* sheet = d.find<desk::SheetView>("sheet");
    QTest::mouseClick(sheet, Qt::LeftButton, {}, sheet->placeOf("pin:" + std::to_string(pins.begin()->first.value))->toPoint());
    REQUIRE(waitFor([&] { return d.find<desk::CardView>("card")->isVisible(); }));
    named(10);
    d.action("callOut");
    named(4);
}

TEST_CASE("Tab goes round the desk in the sheet's order", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-tab"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    d.find<QPushButton>("verbTape")->setFocus();
    std::vector<QString> order;
    std::set<QWidget*> seen;
    for (int i = 0; i < 60; ++i) {
        QWidget* now = QApplication::focusWidget();
        REQUIRE(now);
        if (!seen.insert(now).second) break;
        order.push_back(now->objectName());
        QTest::keyClick(now, Qt::Key_Tab);
    }
    const auto at = [&](const char* name) {
        const auto found = std::find(order.begin(), order.end(), QString(name));
        INFO(name);
        REQUIRE(found != order.end());
        return found - order.begin();
    };
    CHECK(at("verbTape") < at("sheet"));
    CHECK(at("sheet") < at("entry"));
    CHECK(at("entry") < at("rule"));
}

TEST_CASE("set-ups, wheels and gaps have their lines and cards on Tape", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-lines"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    d.bench("tape");
    auto* sheet = d.find<desk::SheetView>("sheet");
    auto* card = d.find<desk::CardView>("card");
    const auto open = [&](const std::string& tag) {
        REQUIRE(sheet->placeOf(tag));
        sheet->reveal(tag);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, sheet->placeOf(tag)->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
    };
    d.keep("setup floor plane note swept");
    d.keep("height Cl 500");
    const auto& b = d.window.document().build();
    REQUIRE(b.setups.size() == 1);
    CHECK(b.readings.rbegin()->second.setup == b.setups.begin()->first);
    open("setup:" + std::to_string(b.setups.begin()->first.value));
    CHECK(card->accessibleName() == "plane floor");
    d.keep("camber front-left 1.2° out");
    d.keep("camber front-right 0.1° in");
    open("alignment");
    CHECK(card->accessibleName() == "how the wheels stand");
    QTest::keyClick(&d.window, Qt::Key_F6);
    d.keep("gap door-left 4.5 at brace in");
    d.keep("gap door-left 7.2 at on the chassis");
    open("gaps");
    CHECK(card->accessibleName() == "gaps");
    CHECK(d.find<QPushButton>("verbTape")->accessibleName().contains("bad"));
    // undone one by one, the finding goes with them
    d.action("undo");
    d.action("undo");
    CHECK(b.gaps.empty());
    CHECK_FALSE(sheet->placeOf("gaps"));
    // what is wanted steers what is proposed, and stays so after reopening
    d.keep("want twist");
    CHECK(d.window.document().results().body.wanted.key == "twist");
    d.keep("gauge no");
    d.keep("reach 3 m");
    for (const auto& next : d.window.document().results().next(build::the_body)) {
        CHECK(next.kind != build::ReadingKind::Height);
        CHECK(next.kind != build::ReadingKind::Level);
        if (next.kind == build::ReadingKind::Tape) CHECK(next.about <= 3000);
    }
    const auto kept = d.window.document().build();
    Driver again;
    REQUIRE(again.window.openFile(QString::fromStdString(path.string()))); // read-only: the other window has it
    CHECK(again.window.document().build() == kept);
}

} // namespace desk_desk_test
