// The real window, by keyboard, from an empty build to the exported sheets and back.
#include "desk/driver.hpp"
#include "desk/shell/finder.hpp"

#include <QMenu>
#include <QTableWidget>
#include <fstream>

namespace desk_window_test {

using namespace gorvet;
using test::Driver;
using test::number;
using test::waitFor;

namespace {

/// The frame that the test measures, with its truth.
struct Truth {
    QString name;
    QString role;
    double x, y, z;
};
const std::vector<Truth> chassis = {
    {"Al", "rail", -400, -420, 500},    {"Ar", "rail", -400, 420, 500},       {"Bl", "rail", 800, -420, 490},
    {"Br", "rail", 800, 420, 490},      {"Cl", "rail", 1900, -430, 490},      {"Cr", "rail", 1900, 430, 490},
    {"Dl", "rail", 3000, -440, 540},    {"Dr", "rail", 3000, 440, 540},       {"FWl", "front-hub", 0, -720, 430},
    {"FWr", "front-hub", 0, 720, 430},  {"RWl", "rear-hub", 2700, -720, 430}, {"RWr", "rear-hub", 2700, 720, 430},
    {"G", "gearbox-mount", 900, 0, 510}};
const std::vector<Truth> body = {
    {"Hl", "hinge-pillar", 500, -690, 800}, {"Hr", "hinge-pillar", 500, 690, 800},  {"SFl", "sill-front", 700, -700, 500},
    {"SFr", "sill-front", 700, 700, 500},   {"SRl", "sill-rear", 1900, -700, 500},  {"SRr", "sill-rear", 1900, 700, 500},
    {"ARl", "arch-rear", 2600, -720, 560},  {"ARr", "arch-rear", 2600, 720, 560},   {"M1l", "body-mount", 300, -420, 655},
    {"M1r", "body-mount", 300, 420, 655},   {"M2l", "body-mount", 1700, -430, 655}, {"M2r", "body-mount", 1700, 430, 655}};

void enterSubject(Driver& d, const std::vector<Truth>& points, bool with_blunder) {
    for (const auto& p : points)
        d.keep(QString("point %1 %2 %3 %4 %5")
                   .arg(p.name, p.role)
                   .arg(qRound(p.x / 50) * 50)
                   .arg(qRound(p.y / 50) * 50)
                   .arg(qRound(p.z / 50) * 50));
    d.keep(QString("hold %1 x %2").arg(points[0].name).arg(points[0].x));
    d.keep(QString("hold %1 y %2").arg(points[0].name).arg(points[0].y));
    d.keep(QString("hold %1 y %2").arg(points[6].name).arg(points[6].y));
    int n = 0;
    for (size_t i = 0; i < points.size(); ++i) {
        d.keep("height " + points[i].name + " " + number(points[i].z));
        for (size_t j = i + 1; j < points.size(); ++j) {
            if ((i * 7 + j * 3) % 5 == 1) continue; // nobody tapes everything
            const double true_mm = std::hypot(points[j].x - points[i].x, points[j].y - points[i].y, points[j].z - points[i].z);
            const double error = 0.4 * ((n++ % 5) - 2);
            const bool blunder = with_blunder && points[i].name == "Bl" && points[j].name == "Dr";
            d.keep(points[i].name + " " + points[j].name + " " + number(true_mm + error + (blunder ? 20 : 0)));
        }
    }
}

} // namespace

TEST_CASE("from an empty build to the printed sheet, and again after reopening", "[desk][whole]") {
    const auto folder = test::freshFolder("window");
    const QString path = QString::fromStdString((folder / "mine.gorvet").string());
    build::Build as_it_was;
    {
        Driver d;
        CHECK(d.find<QLabel>("welcomeSentence")->isVisible());
        desk::ask::presets().answers << path;
        d.find<QPushButton>("welcome_newBuild")->click();
        d.find<QPushButton>("newElsewhere")->click();
        REQUIRE(d.window.document().isOpen());
        CHECK(d.text("headline") == "Nothing of the chassis is marked yet.");

        // what is wrong is said beside the line, and nothing typed is lost
        d.type("Al Br 12");
        CHECK(d.text("entryEcho").contains("Al is no command, and no point of the chassis"));
        CHECK(d.find<QLineEdit>("entry")->text() == "Al Br 12");

        d.keep("session monday right-way-up stands at 300 and 2500");
        enterSubject(d, chassis, true);

        // the misread one is named
        CHECK(d.text("below").contains("Bl–Dr"));
        CHECK(d.find<QPushButton>("verbTape")->accessibleName().contains("bad"));
        CHECK(d.text("entryPair") == "Bl Dr"); // and proposed first
        auto* sheet = d.find<desk::SheetView>("sheet");
        const auto& survey = d.window.document().results().chassis;
        int bad = -1;
        for (size_t i = 0; i < survey.solution->readings.size(); ++i)
            if (survey.solution->readings[i].verdict == tape::Verdict::Retape) bad = static_cast<int>(i);
        REQUIRE(bad >= 0);
        const std::string tag = "reading:" + std::to_string(survey.reading_ids[static_cast<size_t>(bad)].value);
        const auto place = sheet->placeOf(tag);
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        auto* card = d.find<desk::CardView>("card");
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        CHECK(d.text("cardTitle") == "Bl–Dr");
        CHECK(d.text("cardWord").contains("Re-tape"));

        // it is taped again: a figure and Enter, on the entry line
        QTest::keyClick(card, Qt::Key_Escape);
        CHECK_FALSE(card->isVisible());
        const double truth = std::hypot(2200.0, 860.0, 50.0);
        d.keep(number(truth));
        CHECK(d.text("entryEcho").contains("re-tape Bl–Dr"));
        CHECK_FALSE(d.text("below").contains("Bl–Dr"));
        CHECK_FALSE(d.find<QPushButton>("verbTape")->accessibleName().contains("bad"));

        // undone and done again
        d.action("undo");
        CHECK(d.text("entryEcho").contains("undone: re-tape Bl–Dr"));
        CHECK(d.text("below").contains("Bl–Dr"));
        d.action("redo");
        CHECK_FALSE(d.text("below").contains("Bl–Dr"));

        // the body, taped in its own frame
        d.find<QPushButton>("subjectBody")->click();
        CHECK(d.text("headline").contains("body"));
        enterSubject(d, body, false);

        // pins
        d.bench("sit");
        CHECK(d.text("headline") == "No pin says where the body stands along.");
        for (const char* line :
             {"tyre front 340", "tyre rear 340", "hinge 500 tol 2", "centred", "sill front 290", "sill rear 290"})
            d.keep(line);
        CHECK(d.text("headline") == "The body's place is not settled yet.");
        d.keep("arch rear tol 3");
        CHECK(d.text("headline").startsWith("The body sits when the wheelbase is shortened by "));
        REQUIRE(d.window.document().results().seat->change_mm);
        CHECK(*d.window.document().results().seat->change_mm == Approx(-100).margin(1.5));

        // the cut
        d.bench("stretch");
        CHECK(d.text("headline").contains("where may it be cut?"));
        d.keep("rail 100 x 60 x 4 box top");
        d.keep("cut 1300");
        CHECK(d.text("headline").startsWith("Cut at 1300.0 and take out 10"));

        // mounts and crossmember
        d.bench("make");
        d.find<QPushButton>("start_mount_all")->click();
        CHECK(d.window.document().results().mounts.size() == 4);
        for (const char* line : {"biscuit 20 squash 15%", "washer 3", "floor 3", "crossmember", "isolator 38", "box 60 x 50 x 3"})
            d.keep(line);
        CHECK(d.text("below").contains("Crossmember at"));
        REQUIRE(d.window.document().results().crossmember->possible);

        // everything out
        const auto out = folder / "out";
        desk::ask::presets().answers << QString::fromStdString(out.string());
        d.action("exportAll");
        CHECK(waitFor([&] { return d.text("entryEcho").contains("files written"); }));
        CHECK(std::filesystem::exists(out / "build-sheet.pdf"));
        CHECK(std::filesystem::exists(out / "flange-left.dxf"));
        CHECK(std::filesystem::exists(out / "crossmember.step"));
        CHECK(std::filesystem::exists(out / "order-of-work.pdf"));
        desk::ask::presets().answers << QString::fromStdString((folder / "sheet.pdf").string());
        d.action("exportBuildSheet");
        CHECK(waitFor([&] { return d.text("entryEcho").contains("written: "); }));
        const auto printed = test::run("pdftotext -layout " + (folder / "sheet.pdf").string() + " -");
        CHECK(printed.out.find("Cut at 1300.0") != std::string::npos);
        CHECK(desk::ask::presets().told.isEmpty());
        as_it_was = d.window.document().build();
    }
    {
        Driver d;
        REQUIRE(d.window.openFile(path));
        CHECK(d.window.document().build() == as_it_was);
        d.bench("sit");
        CHECK(d.text("headline").startsWith("The body sits when the wheelbase is shortened by "));
        CHECK(d.window.document().store()->undoSentence() == "crossmember box 60.0 × 50.0 × 3.0");
        d.action("undo");
        CHECK(d.window.document().build().crossmember->box_height.value == 40);
    }
}

TEST_CASE("cards change decisions, the Rule slides the body, the proposal can be passed over", "[desk]") {
    const auto path = test::demoBuild(test::freshFolder("window-demo"));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    auto* card = d.find<desk::CardView>("card");
    auto* sheet = d.find<desk::SheetView>("sheet");
    const auto pick = [&](const std::string& tag) {
        INFO(tag);
        const auto place = sheet->placeOf(tag);
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
    };

    SECTION("a decision on the sheet is edited in its card") {
        d.bench("stretch");
        pick("cut");
        auto* field = d.find<QLineEdit>("cardField_cut_at");
        field->clear();
        QTest::keyClicks(field, "12x");
        QTest::keyClick(field, Qt::Key_Return);
        CHECK(card->isVisible()); // refused, and said on the card
        CHECK_FALSE(d.text("cardError").isEmpty());
        field->clear();
        QTest::keyClicks(field, "1260");
        QTest::keyClick(field, Qt::Key_Return);
        CHECK_FALSE(card->isVisible());
        CHECK(d.window.document().build().stretch.cut_station->value == 1260);
        // a derived figure offers to be pinned
        pick("change");
        d.find<QPushButton>("cardAction_pin_this")->click();
        REQUIRE(d.window.document().build().stretch.wheelbase_change);
        CHECK(d.window.document().results().seat->change_decided);
    }
    SECTION("by keyboard alone: walk to an item and open it") {
        d.bench("sit");
        sheet->setFocus();
        QTest::keyClick(sheet, Qt::Key_Right);
        QTest::keyClick(sheet, Qt::Key_Return);
        CHECK(card->isVisible());
        QTest::keyClick(card, Qt::Key_Escape);
        CHECK_FALSE(card->isVisible());
    }
    SECTION("sliding the body edge is one decision, and can be undone") {
        auto* rule = d.find<desk::RuleView>("rule");
        const double before = d.window.document().results().seat->pose.shift.x_mm;
        const QPoint from(640, 50);
        QTest::mousePress(rule, Qt::LeftButton, {}, from);
        QTest::mouseMove(rule, from + QPoint(10, 0));
        QTest::mouseMove(rule, from + QPoint(20, 0));
        CHECK(rule->sliding());
        CHECK(d.window.document().results().seat->pose.shift.x_mm == before); // a preview only
        const auto revision = d.window.document().store()->revision();
        QTest::mouseRelease(rule, Qt::LeftButton, {}, from + QPoint(20, 0));
        CHECK(d.window.document().store()->revision() == revision); // a trial, shown slid until it is decided
        REQUIRE(waitFor([&] { return d.find<QWidget>("toolRow")->isVisible(); }));
        // held to its height there is nothing left of it; freed again there is
        d.find<QPushButton>("toolAnswer3")->click();
        REQUIRE(waitFor([&] { return d.text("toolAsks").contains("tried 0.0 mm"); }));
        d.find<QPushButton>("toolAnswer3")->click();
        REQUIRE(waitFor([&] { return !d.text("toolAsks").contains("tried 0.0 mm"); }));
        d.find<QPushButton>("toolAnswer0")->click();
        REQUIRE(waitFor([&] { return d.window.document().store()->revision() == revision + 1; }));
        CHECK(d.window.document().results().seat->pose.shift.x_mm > before + 20);
        d.action("undo");
        CHECK(d.window.document().results().seat->pose.shift.x_mm == Approx(before).margin(1e-6));
        rule->setFocus();
        QTest::keyClick(rule, Qt::Key_Left, Qt::ControlModifier);
        QTest::keyClick(rule, Qt::Key_Left, Qt::ControlModifier);
        REQUIRE(waitFor([&] { return d.text("toolAsks").contains("tried 2.0 mm forward"); }));
        const auto revision_before = d.window.document().store()->revision();
        QTest::keyClick(&d.window, Qt::Key_Escape);
        REQUIRE(waitFor([&] { return !d.find<QWidget>("toolRow")->isVisible(); }));
        CHECK(d.window.document().store()->revision() == revision_before);
    }
    SECTION("another pair on Down; a tag of The Rule opens its finding") {
        const QString first = d.text("entryPair");
        CHECK(first == "Bl Dr");
        QTest::keyClick(d.find<QLineEdit>("entry"), Qt::Key_Down);
        CHECK(d.text("entryPair") != first);
        CHECK(d.text("entryEcho").contains("about"));
        QTest::keyClick(d.find<QLineEdit>("entry"), Qt::Key_Down, Qt::ShiftModifier);
        CHECK(d.text("entryPair") == first);
        auto* rule = d.find<desk::RuleView>("rule");
        const auto place = rule->placeOf("finding:0");
        REQUIRE(place);
        QTest::mouseClick(rule, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        CHECK(d.text("cardSentence").contains("Bl–Dr"));
    }
    SECTION("log, help, Dye and large text") {
        d.action("logbook");
        CHECK(waitFor([&] { return d.window.findChild<QTableWidget*>("logDialogTable") != nullptr; }));
        CHECK(d.find<QTableWidget>("logDialogTable")->rowCount() > 20);
        d.action("find");
        CHECK(d.find<desk::Finder>("finder")->shown() > 150);
        QTest::keyClick(d.find<QLineEdit>("findField"), Qt::Key_Escape);
        CHECK_FALSE(d.find<desk::Finder>("finder")->isVisible());
        d.action("switchGround");
        CHECK(d.text("keptText").contains("Dye"));
        for (int i = 0; i < 3; ++i) d.action("largerText");
        for (const char* label : {"headline", "below", "buildName", "keptText"}) {
            auto* l = d.find<QLabel>(label);
            INFO(label);
            CHECK(l->fontMetrics().horizontalAdvance(l->text()) <= l->width() * (l->wordWrap() ? 3 : 1));
        }
        for (const auto* widget : d.window.findChildren<QPushButton*>())
            if (widget->isVisible()) CHECK_FALSE((widget->accessibleName() + widget->text()).isEmpty());
    }
    SECTION("show inches") {
        d.type("show inch 1/16");
        CHECK(d.text("keptText").contains("inches"));
        d.bench("sit");
        CHECK(d.text("headline").contains("\""));
    }
}

TEST_CASE("imports say what they left out; files that can't be opened say why", "[desk]") {
    const auto folder = test::freshFolder("window-files");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "a.gorvet").string())));
    std::ofstream(folder / "r.csv") << "kind,from,to,value,unit,sigma_mm,note\ntape,A,B,100,mm,,\ntape,A,B,x,mm,,\n";
    desk::ask::presets().answers << QString::fromStdString((folder / "r.csv").string());
    d.action("importReadings");
    CHECK(d.window.document().build().readings.size() == 1);
    REQUIRE(desk::ask::presets().told.size() == 1);
    CHECK(desk::ask::presets().told[0].contains("line 3, column value"));
    desk::ask::presets().answers << QString(); // cancelled
    d.action("importReadings");
    CHECK(desk::ask::presets().told.size() == 1);
    std::ofstream(folder / "junk.gorvet") << std::string(3000, 'j');
    desk::ask::presets().answers << QString::fromStdString((folder / "junk.gorvet").string());
    d.action("openBuild");
    CHECK(desk::ask::presets().told.size() == 2);
    CHECK(d.window.document().build().readings.size() == 1); // what was open stays open
    // a second window on the same file
    Driver second;
    REQUIRE(second.window.openFile(QString::fromStdString((folder / "a.gorvet").string())));
    CHECK(second.text("keptText").contains("read-only"));
    second.type("point Q 1 2 3");
    CHECK(second.text("entryEcho").contains("read-only"));
    CHECK(second.find<QLineEdit>("entry")->text() == "point Q 1 2 3"); // not lost
}

TEST_CASE("many subjects do not crowd the head: some beside, all in a menu", "[desk]") {
    const auto folder = test::freshFolder("window-subjects");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "a.gorvet").string())));
    d.bench("tape");
    auto* more = d.find<QPushButton>("moreSubjects");
    CHECK_FALSE(more->isVisible());
    const auto beside = [&] {
        QStringList names;
        for (const QPushButton* b : d.window.findChildren<QPushButton*>())
            if (b->objectName().startsWith("subject") && b->isVisible()) names << b->text();
        return names;
    };
    CHECK(beside() == QStringList{"chassis", "body"});
    for (const char* name : {"tern", "plover", "dunlin", "knot", "ruff", "stint"})
        d.keep(QString("subject %1 candidate").arg(name));
    d.type("subject chassis");
    CHECK(more->isVisible());
    CHECK(beside().size() == 4);
    // the last of them is in the menu, and stands beside the others once it is shown
    QAction* last = nullptr;
    for (QAction* a : more->menu()->actions())
        if (a->text() == "stint") last = a;
    REQUIRE(last);
    last->trigger();
    CHECK(beside().contains("stint"));
    CHECK(beside().size() == 5);
    CHECK(d.find<QPushButton>("subjectStint")->isChecked());
}

} // namespace desk_window_test
