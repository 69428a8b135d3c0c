// The first hour: from the start page by taps alone; what is undone; what was open before.
#include "desk/driver.hpp"
#include "desk/shell/recent.hpp"
#include "desk/widgets/list_pane.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QSettings>
#include <QTableView>

namespace desk_start_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

class Starter : public Driver {
public:
    void tap(const QString& name) {
        QAbstractButton* found = nullptr;
        INFO("tap " << name.toStdString() << " after \"" << find<QLineEdit>("entry")->text().toStdString()
                    << "\", proposed: " << text("entryPair").toStdString());
        REQUIRE(waitFor([&] {
            for (auto* b : window.findChildren<QAbstractButton*>(name))
                if (b->isVisible()) found = b;
            return found != nullptr;
        }));
        found->click();
        for (int i = 0; i < 3; ++i) QCoreApplication::processEvents();
    }
    /// A place that is drawn on the sheet.
    void tapDrawn(const std::string& tag) {
        auto* sheet = find<desk::SheetView>("sheet");
        sheet->reveal(tag);
        const auto at = sheet->placeOf(tag);
        INFO(tag);
        REQUIRE(at);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, at->toPoint());
    }
};

} // namespace

TEST_CASE("a build begins with three questions, its sketch is tapped, and the line proposes what to read", "[desk][start]") {
    const auto folder = test::freshFolder("start");
    Starter d;
    QSettings settings(QString::fromStdString((folder / "settings.ini").string()), QSettings::IniFormat);
    settings.setValue("builds/folder", QString::fromStdString(folder.string()));
    d.window.recall(settings);
    d.tap("welcome_newBuild");
    d.tap("kind_perimeter");
    d.find<QLineEdit>("newBody")->setText("Aldermoor Petrel");
    d.find<QLineEdit>("newDonor")->setText("Brannock Tern");
    d.tap("newInch");
    CHECK(d.text("newKeptAs").contains("Aldermoor Petrel on Brannock Tern.gorvet"));
    d.tap("newBegin");
    REQUIRE(d.window.document().isOpen());
    CHECK(std::filesystem::exists(folder / "Aldermoor Petrel on Brannock Tern.gorvet"));
    const auto& b = d.window.document().latest();
    CHECK(b.settings.frame_kind == build::FrameKind::Perimeter);
    CHECK(b.settings.body_name == "Aldermoor Petrel");
    CHECK(b.settings.chassis_name == "Brannock Tern");
    CHECK(units::unitOf(b.settings.length_step) == units::Unit::Inch);
    CHECK(d.text("headline") == "Nothing of the chassis is marked yet.");
    // tapped on the sketch: both sides at once, undone at once
    d.tapDrawn("ghost:Cl");
    REQUIRE(waitFor([&] { return build::pointNamed(d.window.document().latest(), build::the_chassis, "Cr"); }));
    CHECK(build::pointNamed(d.window.document().latest(), build::the_chassis, "Cl")->role == build::Role::Rail);
    CHECK(d.text("headline").startsWith("2 points of the chassis"));
    d.action("undo");
    CHECK(d.window.document().latest().points.empty());
    d.tapDrawn("ghost:Al");
    d.tapDrawn("ghost:Br");
    d.tapDrawn("ghost:Er");
    d.tapDrawn("ghost:Fr");
    d.tapDrawn("ghost:Rl");
    CHECK(d.window.document().latest().points.size() == 10);
    // zero by one tap, and then a pair is proposed: a figure and Enter are enough
    d.tap("lead0");
    CHECK(d.window.document().latest().datum.size() == 6);
    REQUIRE(waitFor([&] { return !d.text("entryPair").isEmpty(); }));
    d.type("31 1/2");
    REQUIRE(d.window.document().latest().readings.size() == 1);
    CHECK(d.window.document().latest().readings.begin()->second.value.value == Approx(800.1));
    // another bench says what it lacks, and leads back
    d.tap("verbSit");
    CHECK(d.text("headline") == "The chassis's readings do not fix its shape yet.");
    d.tap("lead0");
    CHECK(d.window.shownBench() == "tape");
    // closed, it stands on the start page with its picture, and is opened by a tap
    d.action("closeBuild");
    REQUIRE(waitFor([&] { return d.find<QAbstractButton>("recent0")->isVisible(); }));
    CHECK(d.find<QAbstractButton>("recent0")->text().startsWith("Aldermoor Petrel on Brannock Tern"));
    CHECK_FALSE(d.find<QAbstractButton>("recent0")->icon().isNull());
    d.tap("recent0");
    CHECK(d.window.document().isOpen());
    // remembered over the end of the program; a file that went is not offered
    d.window.remember(settings);
    desk::Recent recent;
    recent.recall(settings);
    REQUIRE(recent.builds().size() == 1);
    d.action("closeBuild");
    std::filesystem::remove(folder / "Aldermoor Petrel on Brannock Tern.gorvet");
    CHECK(recent.builds().isEmpty());
}

TEST_CASE("the first hour by taps alone: from the start page to a printed survey", "[desk][start]") {
    const auto folder = test::freshFolder("first-hour");
    Starter d;
    QSettings settings(QString::fromStdString((folder / "settings.ini").string()), QSettings::IniFormat);
    settings.setValue("builds/folder", QString::fromStdString(folder.string()));
    d.window.recall(settings);
    d.tap("welcome_newBuild");
    d.tap("newBegin");
    d.tap("lead1"); // all of the sketch
    d.tap("lead0"); // zero
    const auto& doc = d.window.document();
    const std::map<build::PointId, build::Vec3> truth = [&] {
        std::map<build::PointId, build::Vec3> places;
        for (const auto& [id, p] : doc.latest().points) places[id] = *p.rough;
        return places;
    }();
    const auto& r = doc.results();
    int taken = 0;
    for (; taken < 150 && r.of(build::the_chassis).solution->status != tape::Status::Solved; ++taken) {
        REQUIRE(waitFor([&] { return !doc.stale(); }));
        // what is proposed is read off the true frame and tapped in, figure by figure
        const auto& next = r.next(build::the_chassis).front();
        const auto& ids = r.of(build::the_chassis).point_ids;
        std::string pair = build::nameOf(doc.build(), ids[static_cast<size_t>(next.from)]);
        if (next.to >= 0) pair += " " + build::nameOf(doc.build(), ids[static_cast<size_t>(next.to)]);
        INFO(pair << " is next");
        REQUIRE(waitFor([&] { return d.text("entryPair").endsWith(QString::fromStdString(pair)); })); // as the window shows it
        const auto to = next.to < 0 ? std::nullopt : std::optional(truth.at(ids[static_cast<size_t>(next.to)]));
        const double value = test::trueReading(next.kind, truth.at(ids[static_cast<size_t>(next.from)]), to);
        const auto before = doc.store()->revision();
        INFO("reading " << taken << ", lineWords " << d.find<QWidget>("lineWords")->isVisible());
        d.tap("start_figure");
        CHECK(d.find<QWidget>("lineWords")->isVisible());
        for (const QChar c : test::number(value)) d.tap(QString("key_%1").arg(c));
        d.tap("lineKeep");
        if (doc.store()->revision() == before) d.tap("lineKeep"); // asked about: it is so
        REQUIRE(waitFor([&] { return doc.store()->revision() > before; }));
    }
    CHECK(r.of(build::the_chassis).solution->status == tape::Status::Solved);
    desk::ask::presets().answers << QString::fromStdString((folder / "survey.pdf").string());
    d.action("exportReport");
    REQUIRE(waitFor([&] { return std::filesystem::exists(folder / "survey.pdf"); }));
    CHECK(test::run("pdftotext " + (folder / "survey.pdf").string() + " - | head -5").out.size() > 20);
}

TEST_CASE("undo is the build's wherever the caret is, but for a line that is being changed", "[desk][undo]") {
    const auto folder = test::freshFolder("undo-keys");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "a.gorvet").string())));
    d.keep("point Al rail 0 -400 300");
    auto* entry = d.find<QLineEdit>("entry");
    entry->setFocus();
    QTest::keyClicks(entry, "point B");
    QTest::keyClick(entry, Qt::Key_Z, Qt::ControlModifier); // the letters
    CHECK(entry->text() != "point B");
    CHECK(d.window.document().latest().points.size() == 1);
    while (!entry->text().isEmpty()) QTest::keyClick(entry, Qt::Key_Z, Qt::ControlModifier);
    QTest::keyClick(entry, Qt::Key_Z, Qt::ControlModifier); // the build
    CHECK(d.window.document().latest().points.empty());
    CHECK(d.text("entryEcho").startsWith("undone: mark point Al"));
    QTest::keyClick(entry, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(d.window.document().latest().points.size() == 1);
    QTest::keyClicks(entry, "x");
    QTest::keyClick(entry, Qt::Key_F, Qt::ControlModifier);
    CHECK(waitFor([&] { return d.find<QWidget>("finder")->isVisible(); }));
}

TEST_CASE("a key in the call-out that has nothing to read is passed over", "[desk][call-out]") {
    // it went to the field, which takes none then, came back to the window, went to the field, and so on
    const auto folder = test::freshFolder("call-out-keys");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "a.gorvet").string())));
    d.window.setBench("stretch");
    d.window.toggleCallOut();
    REQUIRE(waitFor([&] { return d.find<QLabel>("callOutPair")->isVisible(); }));
    CHECK(d.text("callOutPair") == "Nothing to read");
    CHECK(d.text("callOutHint") == "Nothing of the chassis is marked yet.");
    QTest::keyClick(&d.window, Qt::Key_A);
    QTest::keyClick(&d.window, Qt::Key_1);
    CHECK(d.find<QLineEdit>("callOutField")->text().isEmpty());
}

TEST_CASE("the list: sorted, searched, edited, and its cards", "[desk][list]") {
    const auto folder = test::freshFolder("list");
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(test::demoBuild(folder).string())));
    d.window.setBench("tape");
    d.window.setView("readings");
    auto* table = d.find<QTableView>("list");
    REQUIRE(waitFor([&] { return table->isVisible(); }));
    const int all = table->model()->rowCount();
    CHECK(all > 60);
    CHECK(d.text("listCount") == QString("%1 readings").arg(all));
    d.find<QLineEdit>("listSearch")->setText("Bl Dr");
    CHECK(table->model()->rowCount() >= 1);
    CHECK(table->model()->rowCount() < all / 4);
    d.find<QLineEdit>("listSearch")->clear();
    table->sortByColumn(3, Qt::DescendingOrder); // by size, not by letters
    double last = 1e9;
    for (int i = 0; i < all; ++i) {
        const QVariant v = table->model()->index(i, 3).data(Qt::UserRole);
        if (!v.isValid()) continue;
        CHECK(v.toDouble() <= last);
        last = v.toDouble();
    }
    // a figure typed in its row is a reading taped again
    const auto before = d.window.document().store()->revision();
    int row = 0;
    while (table->model()->index(row, 0).data().toString() != "tape") ++row;
    const QString was = table->model()->index(row, 3).data(Qt::EditRole).toString();
    table->model()->setData(table->model()->index(row, 3), was + " mm");
    REQUIRE(waitFor([&] { return d.window.document().store()->revision() == before + 1; }));
    CHECK(table->model()->rowCount() == all);
    // the points: a name typed anew
    d.window.setView("points");
    REQUIRE(waitFor([&] { return table->model()->columnCount() == 10; }));
    d.find<QLineEdit>("listSearch")->setText("Bl");
    REQUIRE(table->model()->rowCount() >= 1);
    const auto at = table->visualRect(table->model()->index(0, 1)).center();
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, at);
    CHECK(waitFor([&] { return d.window.findChild<desk::CardView*>()->isVisible(); }));
}

} // namespace desk_start_test
