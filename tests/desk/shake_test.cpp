// A stranger at the desk: taps, keys, lines, drags, sizes, grounds, undo and redo by chance. GORVET_SHAKE_SECONDS says for how
// long (20 unless said), GORVET_SHAKE_SEED which.
#include "desk/clipped.hpp"
#include "desk/driver.hpp"
#include "desk/widgets/sheet_view.hpp"
#include "store/store.hpp"

#include <QElapsedTimer>
#include <QListWidget>
#include <QMenu>
#include <QRegularExpression>
#include <QTableView>

#include <cstdio>
#include <random>

namespace desk_shake_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

QStringList said; ///< warnings of Qt's and of ours

void hear(QtMsgType type, const QMessageLogContext&, const QString& text) {
    // the window system of the test has no window manager: that is not ours
    for (const char* known : {"propagateSizeHints", "XDG_RUNTIME_DIR", "libGL", "MESA", "QStandardPaths"})
        if (text.contains(known)) return;
    if (type != QtDebugMsg && type != QtInfoMsg) said << text;
}

class Stranger : public Driver {
public:
    explicit Stranger(unsigned seed) : chance_(seed) {}

    int upTo(int n) { return n <= 1 ? 0 : static_cast<int>(chance_() % static_cast<unsigned>(n)); }
    template <class T> const T& oneOf(const std::vector<T>& list) {
        return list[static_cast<size_t>(upTo(static_cast<int>(list.size())))];
    }

    /// Does something; says what.
    QString act() {
        switch (upTo(12)) {
        case 0:
        case 1: return tapButton();
        case 2:
        case 3: return key();
        case 4:
        case 5: return line();
        case 6: return tapSheet();
        case 7: return drag();
        case 8: return resized();
        case 9:
            if (upTo(2)) {
                window.setGround(upTo(2) ? desk::Ground::Dye : desk::Ground::Day);
                return "ground";
            } else {
                const double scale = oneOf(std::vector<double>{1.0, 1.25, 1.5});
                window.setTextScale(scale);
                return QString("text %1").arg(scale);
            }
        default: {
            const char* which = upTo(3) ? "undo" : "redo";
            action(which);
            return which;
        }
        }
    }

private:
    QString tapButton() {
        std::vector<QAbstractButton*> all;
        for (QAbstractButton* b : window.findChildren<QAbstractButton*>())
            if (b->isVisible() && b->isEnabled() && b->objectName() != "cancelWork" && !b->inherits("QToolButton"))
                all.push_back(b);
        if (all.empty()) return "nothing to tap";
        QAbstractButton* b = oneOf(all);
        const QString name = "tap " + b->objectName() + " " + b->text();
        // what opens a menu would wait there: one of its lines is taken
        if (auto* push = qobject_cast<QPushButton*>(b); push && push->menu()) {
            const auto lines = push->menu()->actions();
            if (lines.isEmpty()) return "nothing in the menu";
            QAction* taken = lines[upTo(static_cast<int>(lines.size()))];
            const QString line = name + ": " + taken->text();
            taken->trigger();
            return line;
        }
        b->click();
        return name;
    }
    QString key() {
        struct Keys {
            Qt::Key key;
            Qt::KeyboardModifiers with;
        };
        static const std::vector<Keys> keys{{Qt::Key_F1, {}},
                                            {Qt::Key_F2, {}},
                                            {Qt::Key_F4, {}},
                                            {Qt::Key_F5, {}},
                                            {Qt::Key_F5, Qt::ShiftModifier},
                                            {Qt::Key_F6, {}},
                                            {Qt::Key_F3, {}},
                                            {Qt::Key_Escape, {}},
                                            {Qt::Key_Escape, {}},
                                            {Qt::Key_Escape, {}},
                                            {Qt::Key_Return, {}},
                                            {Qt::Key_Tab, {}},
                                            {Qt::Key_Up, {}},
                                            {Qt::Key_Down, {}},
                                            {Qt::Key_Left, {}},
                                            {Qt::Key_Right, {}},
                                            {Qt::Key_Backspace, {}},
                                            {Qt::Key_A, {}},
                                            {Qt::Key_1, {}},
                                            {Qt::Key_Space, {}},
                                            {Qt::Key_PageDown, {}},
                                            {Qt::Key_1, Qt::AltModifier},
                                            {Qt::Key_2, Qt::AltModifier},
                                            {Qt::Key_3, Qt::AltModifier},
                                            {Qt::Key_4, Qt::AltModifier},
                                            {Qt::Key_5, Qt::AltModifier},
                                            {Qt::Key_6, Qt::AltModifier},
                                            {Qt::Key_7, Qt::AltModifier},
                                            {Qt::Key_Z, Qt::ControlModifier},
                                            {Qt::Key_F, Qt::ControlModifier}};
        const Keys& k = oneOf(keys);
        QWidget* to = window.focusWidget() ? window.focusWidget() : &window;
        QTest::keyClick(to, k.key, k.with);
        return "key " + QKeySequence(k.key | k.with).toString();
    }
    QString line() {
        const entry::Form& form = oneOf(entry::forms());
        QString text = form.example;
        if (upTo(4) == 0) text.truncate(upTo(static_cast<int>(text.size())) + 1); // a slip
        if (text.startsWith("show") && upTo(3)) return "no " + text;
        window.enter(text);
        if (upTo(2)) window.enter(text); // asked about, and meant
        return "line " + text;
    }
    QString tapSheet() {
        std::vector<QWidget*> places;
        for (const char* name : {"sheet", "rule", "scene", "list"})
            if (auto* w = window.findChild<QWidget*>(name); w && w->isVisible()) places.push_back(w);
        if (places.empty()) return "no sheet";
        QWidget* w = oneOf(places);
        if (auto* table = qobject_cast<QTableView*>(w)) w = table->viewport();
        QTest::mouseClick(w, Qt::LeftButton, upTo(5) ? Qt::NoModifier : Qt::ShiftModifier, {upTo(w->width()), upTo(w->height())});
        return "tap on " + w->objectName();
    }
    QString drag() {
        std::vector<QWidget*> places;
        for (const char* name : {"rule", "scene"})
            if (auto* w = window.findChild<QWidget*>(name); w && w->isVisible()) places.push_back(w);
        if (places.empty()) return "nothing to drag";
        QWidget* w = oneOf(places);
        const QPoint from(upTo(w->width()), upTo(w->height()));
        const QPoint to = from + QPoint(upTo(81) - 40, upTo(41) - 20);
        const auto with = upTo(2) ? Qt::ControlModifier : Qt::NoModifier;
        QTest::mousePress(w, Qt::LeftButton, with, from);
        QMouseEvent move(QEvent::MouseMove, to, w->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, with);
        QApplication::sendEvent(w, &move);
        QTest::mouseRelease(w, Qt::LeftButton, with, to);
        return "drag on " + w->objectName();
    }
    QString resized() {
        const QSize size(1024 + upTo(377), 700 + upTo(201));
        window.resize(size);
        return QString("size %1 x %2").arg(size.width()).arg(size.height());
    }

    std::mt19937 chance_;
};

} // namespace

TEST_CASE("a stranger shakes the desk, and nothing is lost, said, clipped or nameless", "[desk][shake]") {
    const auto folder = test::freshFolder("shake");
    const auto path = test::demoBuild(folder);
    const int seconds =
        qEnvironmentVariableIsSet("GORVET_SHAKE_SECONDS") ? qEnvironmentVariableIntValue("GORVET_SHAKE_SECONDS") : 20;
    const unsigned seed = qEnvironmentVariableIsSet("GORVET_SHAKE_SEED") ? qEnvironmentVariable("GORVET_SHAKE_SEED").toUInt() : 1;
    said.clear();
    const auto before = qInstallMessageHandler(hear);
    {
        Stranger d(seed);
        REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
        const auto revision = d.window.document().store()->revision();
        QElapsedTimer clock;
        clock.start();
        QStringList done;
        int acts = 0;
        qint64 slowest = 0;
        QString slow_at;
        while (clock.elapsed() < seconds * 1000) {
            QElapsedTimer one;
            one.start();
            done << d.act();
            if (qEnvironmentVariableIsSet("GORVET_SHAKE_ACTS")) std::fprintf(stderr, "%s\n", qPrintable(done.back()));
            QCoreApplication::processEvents();
            if (one.elapsed() > slowest) {
                slowest = one.elapsed();
                slow_at = done.back();
            }
            ++acts;
            while (done.size() > 12) done.removeFirst();
            INFO("seed " << seed << ", act " << acts << ", the last ones: " << done.join(" | ").toStdString());
            REQUIRE(said == QStringList{});
            if (!d.window.document().isOpen()) { // closed by a tap: opened again
                REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
                continue;
            }
            REQUIRE(d.window.document().store()->path() == path);
            if (acts % 25 == 0) {
                // what was confirmed is on the disk
                auto other = store::Store::open(path, store::Access::Read);
                REQUIRE(other);
                CHECK((*other)->build() == d.window.document().latest());
                REQUIRE(test::nameless(d.window) == QStringList{});
            }
        }
        std::printf("shake: %d acts in %d s, %lld kept changes, slowest %lld ms (%s)\n", acts, seconds,
                    static_cast<long long>(d.window.document().store()->revision() - revision), static_cast<long long>(slowest),
                    qPrintable(slow_at));
        CHECK(acts > 20);
    }
    // back to the very beginning by undo alone, whatever was undone, done again and branched off meanwhile
    {
        auto opened = store::Store::open(path);
        REQUIRE(opened);
        int undone = 0;
        while ((*opened)->undo({"test", {}})) ++undone;
        build::Build now = (*opened)->build();
        const build::Build begun;
        now.next_id = begun.next_id;
        CHECK(now == begun);
        CHECK(undone > 10);
    }
    qInstallMessageHandler(before);
    CHECK(said == QStringList{});
}

TEST_CASE("every word fits: benches, sheets, sizes, text sizes, grounds", "[desk][fits]") {
    const auto folder = test::freshFolder("fits");
    const auto path = test::demoBuild(folder);
    Driver d;
    QStringList wrong;
    const auto look = [&](const QString& where) {
        for (int i = 0; i < 4; ++i) QCoreApplication::processEvents();
        for (const QString& w : test::clipped(d.window)) wrong << where + ": " + w;
        for (const QString& w : test::nameless(d.window)) wrong << where + ": no name: " + w;
    };
    const std::vector<QSize> sizes{{1024, 700}, {1280, 760}, {1920, 1040}};
    int looked = 0;
    for (const bool open : {false, true}) {
        if (open) REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
        for (const double scale : {1.0, 1.25, 1.5})
            for (const auto ground : {desk::Ground::Day, desk::Ground::Dye}) {
                if (ground == desk::Ground::Dye && scale != 1.0) continue; // they differ by colours alone, below
                d.window.setGround(ground);
                d.window.setTextScale(scale);
                // what fits is told by what is laid out; painted is each of them at one size of text
                d.window.setUpdatesEnabled(scale == 1.0);
                const auto eachSize = [&](const auto& of) {
                    for (const QSize& size : sizes) {
                        d.window.resize(size);
                        const QString at = QString("%1x%2 at %3%%4")
                                               .arg(size.width())
                                               .arg(size.height())
                                               .arg(100 * scale)
                                               .arg(ground == desk::Ground::Dye ? ", Dye" : "");
                        of(at);
                        INFO(at.toStdString() << ": it is " << d.window.width() << " x " << d.window.height());
                        CHECK(
                            (d.window.width() == size.width() && d.window.height() == size.height())); // nothing holds it larger
                    }
                };
                if (!open) {
                    eachSize([&](const QString& at) {
                        look("start, " + at);
                        d.action("newBuild");
                        look("three questions, " + at);
                        QTest::keyClick(&d.window, Qt::Key_Escape);
                        looked += 2;
                    });
                    continue;
                }
                for (const analysis::BenchInfo* bench : analysis::benches())
                    for (const auto& view : bench->views) {
                        d.window.setBench(bench->key);
                        d.window.setView(view.key);
                        eachSize([&](const QString& at) {
                            look(QString("%1 %2, %3")
                                     .arg(QString::fromUtf8(bench->key.data()), QString::fromUtf8(view.key.data()), at));
                            ++looked;
                        });
                    }
                if (ground == desk::Ground::Day)
                    eachSize([&](const QString& at) {
                        d.window.openHandbook();
                        look("handbook, " + at);
                        QTest::keyClick(&d.window, Qt::Key_Escape);
                        d.window.toggleCallOut();
                        look("call-out, " + at);
                        d.window.toggleCallOut();
                    });
            }
    }
    // a word that does not fit is told where nothing is painted, too
    d.window.setUpdatesEnabled(false);
    auto* tight = d.window.findChild<QAbstractButton*>("buildMenuButton");
    REQUIRE(tight);
    tight->setFixedWidth(8);
    for (int i = 0; i < 4; ++i) QCoreApplication::processEvents();
    CHECK_FALSE(test::clipped(d.window).isEmpty());
    const auto uncoloured = [](desk::Ground ground, double scale) {
        return desk::Theme(ground, scale).styleSheet().remove(QRegularExpression("#[0-9a-fA-F]{6}|rgba\\([^)]*\\)"));
    };
    for (const double scale : {1.0, 1.25, 1.5})
        CHECK(uncoloured(desk::Ground::Day, scale) == uncoloured(desk::Ground::Dye, scale));
    CHECK(uncoloured(desk::Ground::Day, 1.0) != uncoloured(desk::Ground::Day, 1.5));
    wrong.removeDuplicates();
    std::printf("fits: %d pictures looked at, %lld words that do not fit\n", looked, static_cast<long long>(wrong.size()));
    INFO(wrong.mid(0, 60).join('\n').toStdString());
    CHECK(wrong.isEmpty());
}

} // namespace desk_shake_test
