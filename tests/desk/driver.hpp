#pragma once

#include "analysis/bench.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/main_window.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/rule_view.hpp"

#include "support/support.hpp"

#include <QAction>
#include <QApplication>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QTest>
#include <catch2/catch.hpp>

/// What drives the real window in its tests: object names and conditions, never a sleep.
namespace gorvet::test {

/// Waits until something is so; fails after fifteen seconds.
template <class F> bool waitFor(F&& condition) { return QTest::qWaitFor(condition, 15000); }

class Driver {
public:
    Driver() {
        desk::ask::presets() = {{}, {}, true};
        window.show();
        REQUIRE(QTest::qWaitForWindowExposed(&window));
        window.activateWindow(); // without a window manager nobody else does
        REQUIRE(QTest::qWaitForWindowActive(&window));
    }
    ~Driver() { desk::ask::presets() = {}; }

    template <class T> T* find(const char* name) {
        auto* found = window.findChild<T*>(name);
        INFO(name);
        REQUIRE(found);
        return found;
    }
    QString text(const char* label) { return find<QLabel>(label)->text(); }
    /// Types a line on the entry line and presses Enter.
    void type(const QString& line) {
        auto* entry = find<QLineEdit>("entry");
        entry->setFocus();
        entry->clear();
        QTest::keyClicks(entry, line);
        QTest::keyClick(entry, Qt::Key_Return);
    }
    /// The same, and it must be taken.
    void keep(const QString& line) {
        const auto before = window.document().store()->revision();
        type(line);
        INFO(line.toStdString() << ": " << text("entryEcho").toStdString());
        REQUIRE(window.document().store()->revision() > before);
        CHECK(find<QLineEdit>("entry")->text().isEmpty());
    }
    void action(const char* name) { find<QAction>(name)->trigger(); }
    /// Turns to a bench by its key: Alt and its place in the table.
    void bench(std::string_view key) {
        QTest::keyClick(&window, static_cast<Qt::Key>(static_cast<int>(Qt::Key_1) + static_cast<int>(analysis::placeOf(key))),
                        Qt::AltModifier);
    }

    /// Turns to a sheet of the bench, by its button or in the menu of those that have no room.
    void showSheet(const char* key, const char* name) {
        auto* button = find<QPushButton>((std::string("view_") + key).c_str());
        if (button->isVisible()) return button->click();
        for (QAction* a : find<QPushButton>("moreViews")->menu()->actions())
            if (a->text() == name) return a->trigger();
        FAIL(name);
    }

    desk::MainWindow window;
};

inline QString number(double v) { return QString::number(v, 'f', 1); }

} // namespace gorvet::test
