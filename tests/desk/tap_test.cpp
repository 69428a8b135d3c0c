// A whole build made by tapping alone; words, points and what is found by keyboard.
#include "desk/driver.hpp"
#include "desk/shell/finder.hpp"
#include "desk/shell/line_words.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QListWidget>
#include <QSet>
#include <QToolButton>
#include <QWheelEvent>

namespace desk_tap_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

/// Taps lines together from what is offered. No key is pressed.
class Tapper : public Driver {
public:
    /// A button that is on the screen.
    QPushButton* shown(const QString& name) {
        for (QPushButton* b : window.findChildren<QPushButton*>(name))
            if (b->isVisible()) return b;
        return nullptr;
    }
    void tap(const QString& name) {
        INFO("tap " << name.toStdString() << " after \"" << find<QLineEdit>("entry")->text().toStdString() << '"');
        REQUIRE(waitFor([&] { return shown(name) != nullptr; }));
        turnTo(name);
        CHECK(shown(name)->height() >= 30);
        shown(name)->click();
        settle();
    }
    /// All of it is on the screen, not under an edge.
    static bool whole(const QWidget* w) { return w->isVisible() && w->visibleRegion().boundingRect() == w->rect(); }
    /// Turns the row of words until that one stands there whole.
    void turnTo(const QString& name) {
        auto *back = find<QToolButton>("wordsBack"), *on = find<QToolButton>("wordsOn");
        settle();
        if (whole(shown(name))) return;
        for (; back->isVisible(); settle()) back->click();
        for (; !whole(shown(name)) && on->isVisible(); settle()) on->click();
        INFO(name.toStdString() << " is nowhere to be tapped");
        REQUIRE(whole(shown(name)));
    }
    void settle() {
        // what is tapped is done, and the row is made anew
        for (int i = 0; i < 3; ++i) QCoreApplication::processEvents();
    }
    void letters(const QString& word) {
        for (const QChar c : word) {
            if (c.isLetter() && !shown(QString("key_%1").arg(c))) tap("key_case");
            tap(QString("key_%1").arg(c));
        }
    }
    /// A line word by word: as an offered word, else by its letters; then kept.
    void line(const QString& text) {
        const auto before = window.document().store()->revision();
        tap("start_more");
        for (const QString& word : text.split(' ')) {
            if (shown("word_" + word))
                tap("word_" + word);
            else {
                letters(word);
                if (shown("key_blank")) tap("key_blank");
            }
        }
        tap("lineKeep");
        INFO(text.toStdString() << ": " << this->text("entryEcho").toStdString());
        REQUIRE(waitFor([&] { return window.document().store()->revision() > before; }));
        REQUIRE(waitFor([&] { return !window.document().stale(); }));
    }
};

} // namespace

TEST_CASE("all of a build is made by tapping, from New build to the crossmember's sheet", "[desk][tap]") {
    const auto folder = test::freshFolder("tap");
    Tapper d;
    desk::ask::presets().answers << QString::fromStdString((folder / "mine.gorvet").string());
    d.tap("welcome_newBuild");
    d.tap("newElsewhere");
    REQUIRE(d.window.document().isOpen());
    d.line("session monday right-way-up stands");
    const auto measure = [&](const char* name, const char* role, const char* places) {
        d.line(QString("point %1 %2 %3").arg(name, role, places));
        d.line(QString("coordinates %1 %2").arg(name, places));
    };
    measure("Al", "rail", "-400 -420 500");
    measure("Ar", "rail", "-400 420 500");
    measure("Bl", "rail", "800 -420 490");
    measure("Br", "rail", "800 420 490");
    measure("Dl", "rail", "3000 -440 540");
    measure("Dr", "rail", "3000 440 540");
    measure("Fl", "front-hub", "0 -720 430");
    measure("Fr", "front-hub", "0 720 430");
    measure("Rl", "rear-hub", "2700 -720 430");
    measure("Rr", "rear-hub", "2700 720 430");
    measure("G", "gearbox-mount", "900 0 510");
    d.tap("subjectBody");
    d.line("session tuesday right-way-up stands");
    measure("Hl", "hinge-pillar", "500 -690 800");
    measure("Hr", "hinge-pillar", "500 690 800");
    measure("Sl", "sill-front", "700 -700 500");
    measure("Sr", "sill-front", "700 700 500");
    measure("Tl", "sill-rear", "1900 -700 500");
    measure("Tr", "sill-rear", "1900 700 500");
    measure("Cl", "arch-rear", "2600 -720 560");
    measure("Cr", "arch-rear", "2600 720 560");
    measure("Ml", "body-mount", "300 -420 655");
    measure("Mr", "body-mount", "300 420 655");
    d.tap("verbSit");
    for (const char* line :
         {"tyre front 340", "tyre rear 340", "hinge 500 tol 2", "centred", "sill front 290", "sill rear 290", "arch rear tol 3"})
        d.line(line);
    CHECK(d.text("headline").startsWith("The body sits when the wheelbase is shortened by "));
    d.tap("verbStretch");
    d.line("rail 100 x 60 x 4 box top");
    d.line("cut 1300");
    CHECK(d.text("headline").startsWith("Cut at 1300.0 and take out 10"));
    d.tap("verbMake");
    d.tap("start_mount_all");
    for (const char* line : {"crossmember", "isolator 38", "box 60 x 50 x 3"}) d.line(line);
    REQUIRE(d.window.document().results().crossmember->possible);
    CHECK(d.window.document().results().mounts.size() == 2);
    desk::ask::presets().answers << QString::fromStdString((folder / "out").string());
    d.action("exportAll"); // the Build menu
    REQUIRE(waitFor([&] { return d.text("entryEcho").contains("files written"); }));
    CHECK(std::filesystem::exists(folder / "out" / "crossmember.pdf"));
    CHECK(desk::ask::presets().told.isEmpty());
}

TEST_CASE("the line: words that fit, points from the sheet, Tab, Escape", "[desk][tap]") {
    const auto folder = test::freshFolder("line-words");
    const auto path = test::demoBuild(folder);
    Tapper d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    auto* entry = d.find<QLineEdit>("entry");
    entry->setFocus();
    QTest::keyClicks(entry, "datum ");
    REQUIRE(waitFor([&] { return d.shown("word_plane") != nullptr; }));
    CHECK_FALSE(d.shown("key_1")); // who types needs no keys on the screen
    CHECK_FALSE(d.shown("start_more"));
    d.tap("word_plane");
    CHECK(entry->text() == "datum plane ");
    // points are picked on the sheet
    auto* sheet = d.find<desk::SheetView>("sheet");
    const auto& points = d.window.document().results().chassis;
    for (const char* name : {"Al", "Ar", "Dl"}) {
        const auto* p = build::pointNamed(d.window.document().latest(), build::the_chassis, name);
        REQUIRE(p);
        const auto at = sheet->placeOf("point:" + std::to_string(p->id.value));
        REQUIRE(at);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, at->toPoint());
    }
    CHECK(entry->text() == "datum plane Al Ar Dl ");
    CHECK_FALSE(d.find<desk::CardView>("card")->isVisible());
    d.tap("lineKeep");
    CHECK(d.window.document().store()->undoSentence().find("datum: ") == 0);
    CHECK(entry->text().isEmpty());
    CHECK(points.survey.points.size() == 76);
    // with an empty line the same tap opens the card; Escape closes it
    const auto* p = build::pointNamed(d.window.document().latest(), build::the_chassis, "Al");
    const auto at = sheet->placeOf("point:" + std::to_string(p->id.value));
    REQUIRE(at);
    QTest::mouseClick(sheet, Qt::LeftButton, {}, at->toPoint());
    CHECK(d.find<desk::CardView>("card")->isVisible());
    QTest::keyClick(&d.window, Qt::Key_Escape);
    CHECK_FALSE(d.find<desk::CardView>("card")->isVisible());
    // Tab completes the one word that fits, or what all that fit begin with
    entry->setFocus();
    QTest::keyClicks(entry, "toler");
    QTest::keyClick(entry, Qt::Key_Tab);
    CHECK(entry->text() == "tolerance ");
    CHECK(entry->hasFocus());
    entry->setText("sess");
    QTest::keyClick(entry, Qt::Key_Tab);
    CHECK(entry->text() == "session ");
    QTest::keyClick(entry, Qt::Key_Escape);
    CHECK(entry->text().isEmpty());
    REQUIRE(waitFor([&] { return d.shown("start_more") != nullptr; }));
    // what was kept comes back
    d.keep("tolerance 6");
    QTest::keyClick(entry, Qt::Key_Up);
    CHECK(entry->text() == "tolerance 6");
    entry->clear();
}

TEST_CASE("a row of words turns: each stands there whole once, none is cut by an edge", "[desk][tap]") {
    const auto folder = test::freshFolder("word-row");
    const auto path = test::demoBuild(folder);
    Tapper d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    auto *back = d.find<QToolButton>("wordsBack"), *on = d.find<QToolButton>("wordsOn");
    auto* entry = d.find<QLineEdit>("entry");
    auto* offered = d.find<desk::LineWords>("lineWords");
    const auto standing = [&] { // from left to right
        QStringList names;
        for (QPushButton* b : offered->findChildren<QPushButton*>()) {
            if (!b->isVisible() || b->visibleRegion().isEmpty()) continue;
            INFO(b->objectName().toStdString());
            CHECK(d.whole(b));
            names << b->objectName();
        }
        return names;
    };
    for (const QSize& size : {QSize{1280, 760}, QSize{1024, 700}}) {
        d.window.resize(size);
        d.settle();
        entry->setFocus();
        entry->clear();
        QTest::keyClicks(entry, "tape ");
        REQUIRE(waitFor([&] { return offered->offered() > 40; }));
        d.settle();
        CHECK_FALSE(back->isVisible());
        REQUIRE(on->isVisible());
        CHECK(Tapper::whole(on));
        std::vector<QStringList> pages{standing()};
        QStringList all = pages.back();
        for (int turns = 0; on->isVisible() && turns < 60; ++turns) {
            QTest::mouseClick(on, Qt::LeftButton);
            d.settle();
            pages.push_back(standing());
            all += pages.back();
            CHECK(back->isVisible());
        }
        CHECK(pages.size() > 2);
        CHECK(all.size() == offered->offered());
        CHECK(QSet<QString>(all.begin(), all.end()).size() == all.size());
        // and back to the first, by the wheel
        for (int turns = 0; back->isVisible() && turns < 60; ++turns) {
            QWheelEvent wheel(QPointF(5, 5), offered->mapToGlobal(QPointF(5, 5)), {}, {0, 120}, Qt::NoButton, Qt::NoModifier,
                              Qt::NoScrollPhase, false);
            QCoreApplication::sendEvent(offered->parentWidget()->parentWidget(), &wheel);
            d.settle();
        }
        CHECK(standing() == pages.front());
        // the caret stayed on the line, and a word of a later page is written there
        CHECK(entry->hasFocus());
        const QString late = all.last();
        d.tap(late);
        CHECK(entry->text() == "tape " + late.mid(5) + " ");
        CHECK(back->isVisible()); // the same words may come next: they stand where they stood
    }
}

TEST_CASE("anything is found by its words, and done", "[desk][tap]") {
    const auto folder = test::freshFolder("find");
    const auto path = test::demoBuild(folder);
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    auto* finder = d.find<desk::Finder>("finder");
    const auto search = [&](const char* words) {
        QTest::keyClick(&d.window, Qt::Key_F, Qt::ControlModifier);
        REQUIRE(finder->isVisible());
        QTest::keyClicks(d.find<QLineEdit>("findField"), words);
    };
    const auto enter = [&] { QTest::keyClick(d.find<QLineEdit>("findField"), Qt::Key_Return); };
    // the bench that is shown stands first
    QTest::keyClick(&d.window, Qt::Key_F1);
    REQUIRE(finder->isVisible());
    CHECK(d.find<QListWidget>("findList")->item(0)->text() == "Tape");
    CHECK(finder->shown() > 200);
    QTest::keyClick(d.find<QLineEdit>("findField"), Qt::Key_Escape);
    CHECK_FALSE(finder->isVisible());
    CHECK(d.find<QLineEdit>("entry")->hasFocus());
    // a sheet of another bench
    search("what costs what");
    enter();
    CHECK(d.window.shownBench() == "sit");
    CHECK(d.window.shownView() == "costs");
    // a command: its line is begun on its bench
    search("loaded radius");
    CHECK(finder->shown() == 1);
    enter();
    CHECK(d.find<QLineEdit>("entry")->text() == "tyre ");
    d.find<QLineEdit>("entry")->clear();
    // a point: its card
    search("points M1l");
    enter();
    CHECK(d.window.shownBench() == "tape");
    CHECK(d.find<desk::CardView>("card")->isVisible());
    // an action
    const auto ground = d.text("keptText");
    search("day or dye");
    enter();
    CHECK(d.text("keptText") != ground);
    // a finding
    search("findings re-tape");
    CHECK(finder->shown() >= 1);
    QTest::keyClick(d.find<QLineEdit>("findField"), Qt::Key_Escape);
    search("no such thing at all");
    CHECK(finder->shown() == 0);
    enter(); // does nothing
    CHECK(finder->isVisible());
}

} // namespace desk_tap_test
