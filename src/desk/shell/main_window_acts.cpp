// What can be done in the window: the Build menu, the benches' acts, keys, tools.
#include "desk/shell/main_window.hpp"

#include "desk/instruments/instrument_link.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/paper.hpp"
#include "desk/shell/start_page.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/rule_view.hpp"

#include <QAction>
#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QShortcut>

#include <algorithm>

namespace gorvet::desk {

QAction* MainWindow::addAct(QMenu* to, const Act& act) {
    auto* action = to ? to->addAction(act.text) : new QAction(act.text, this);
    action->setObjectName(act.name);
    action->setShortcut(act.keys);
    action->setShortcutContext(Qt::ApplicationShortcut);
    addAction(action);
    connect(action, &QAction::triggered, this, [this, run = act.run] { run(*this); });
    acts_[act.name] = action;
    return action;
}

/// What belongs to the build as a whole; what belongs to a bench stands on its bench.
void MainWindow::buildMenu() {
    menu_ = new QMenu(this);
    menu_->setObjectName("buildMenu");
    const auto add = [this](const QString& text, const char* name, const QKeySequence& keys, std::function<void(Desk&)> run) {
        return addAct(menu_, {name, text, keys, std::move(run)});
    };
    add(tr("New build…"), "newBuild", QKeySequence::New, [this](Desk&) {
        if (document_.isOpen()) closeBuild();
        start_->askForNew();
    });
    add(tr("Open…"), "openBuild", QKeySequence::Open, [this](Desk&) {
        const QString path = ask::fileToOpen(this, tr("Open a build"), ask::build_filter);
        if (!path.isEmpty()) openFile(path);
    });
    add(tr("Look at the demo build"), "openDemo", {}, [this](Desk&) { openDemo(); });
    acts_.at("openDemo")->setVisible(!demoFile().isEmpty());
    add(tr("Close, to the start page"), "closeBuild", QKeySequence("Ctrl+W"), [this](Desk&) { closeBuild(); });
    menu_->addSeparator();
    const auto told = [this](const QString& words, const Result<std::string>& done) {
        say(done ? words.arg(QString::fromStdString(*done)) : QString::fromStdString(done.error().text()),
            done ? "good" : "warn");
    };
    undo_ = add(tr("Undo"), "undo", QKeySequence::Undo, [this, told](Desk&) { told(tr("undone: %1"), document_.undo()); });
    redo_ = add(tr("Do again"), "redo", QKeySequence("Ctrl+Shift+Z"),
                [this, told](Desk&) { told(tr("done again: %1"), document_.redo()); });
    add(tr("Logbook"), "logbook", QKeySequence("F9"), [this](Desk&) { showLog(); });
    menu_->addSeparator();
    add(tr("Build sheet as PDF…"), "exportBuildSheet", QKeySequence("Ctrl+P"), exportBuildSheet);
    add(tr("Export everything…"), "exportAll", QKeySequence("Ctrl+E"), exportEverything);
    menu_->addSeparator();
    buildInstruments(menu_);
    add(tr("Hang this sheet up in a window of its own"), "hangUp", QKeySequence("F11"), [this](Desk&) { hangUp(); });
    add(tr("Keep photos…"), "addPhotos", {}, [this](Desk&) { addPhotos({}); });
    add(tr("What the last week did to the date"), "weekDid", {}, [this](Desk&) { showWeek(); });
    add(tr("Watch a folder for photos, or stop"), "watchPhotos", {}, [this](Desk&) { watchPhotos(); });
    add(tr("Call out readings"), "callOut", QKeySequence("F4"), [this](Desk&) { toggleCallOut(); });
    add(tr("Day or Dye"), "switchGround", QKeySequence("F8"),
        [this](Desk&) { setGround(theme_.ground() == Ground::Day ? Ground::Dye : Ground::Day); });
    add(tr("Larger text"), "largerText", QKeySequence("Ctrl++"),
        [this](Desk&) { setTextScale(std::min(1.5, theme_.textScale() + 0.25)); });
    add(tr("Smaller text"), "smallerText", QKeySequence("Ctrl+-"),
        [this](Desk&) { setTextScale(std::max(1.0, theme_.textScale() - 0.25)); });
    QMenu* lengths = menu_->addMenu(tr("Show lengths in"));
    for (const auto& [text, line] :
         {std::pair{"mm to 0.1", "show mm 0.1"}, std::pair{"mm to 0.5", "show mm 0.5"}, std::pair{"mm to 1", "show mm 1"},
          std::pair{"inches to 1/16", "show inch 1/16"}, std::pair{"inches to 1/32", "show inch 1/32"},
          std::pair{"inches to 0.001", "show inch 0.001"}})
        connect(lengths->addAction(tr(text)), &QAction::triggered, this, [this, line = QString(line)] { enter(line); });
    add(tr("Handbook"), "handbook", QKeySequence("F3"), [this](Desk&) { openHandbook(); });
    add(tr("Find anything…"), "find", QKeySequence::Find, [this](Desk&) { find(); });
    menu_->addSeparator();
    add(tr("Quit"), "quit", QKeySequence::Quit, [this](Desk&) { close(); });
    for (const auto& bench : benches_)
        for (const Act& act : bench->acts()) addAct(nullptr, act);
}

void MainWindow::shortcuts() {
    qApp->installEventFilter(this);
    const auto key = [this](const QKeySequence& keys, auto&& use) {
        connect(new QShortcut(keys, this), &QShortcut::activated, this, use);
    };
    for (size_t i = 0; i < benches_.size(); ++i)
        key(QKeySequence(QString("Alt+%1").arg(i + 1)), [this, i] { showBench(static_cast<int>(i)); });
    key(QKeySequence("F6"), [this] {
        const auto order = build::subjectsInOrder(document_.build());
        const auto now = std::find(order.begin(), order.end(), state_.subject);
        turnTo(now == order.end() || now + 1 == order.end() ? order.front() : *(now + 1));
    });
    key(QKeySequence(QKeySequence::HelpContents), [this] { find(); });
    key(QKeySequence("F2"), [this] { entry_->field()->setFocus(); });
    for (const int step : {1, -1})
        key(QKeySequence(step > 0 ? "F5" : "Shift+F5"), [this, step] {
            if (const auto n = bench().views().size(); n > 1 && document_.isOpen())
                showView((state_.view + n + static_cast<size_t>(step)) % n);
        });
}

// ---- tools

void MainWindow::take(std::unique_ptr<Tool> tool) {
    putDown();
    tool_ = std::move(tool);
    refreshTool();
    rule_->refresh();
}

void MainWindow::putDown() {
    if (!tool_) return;
    // it may be the one that asks for it: it goes when it has returned
    std::shared_ptr<Tool> gone = std::move(tool_);
    gone->left();
    QMetaObject::invokeMethod(
        this, [gone] {}, Qt::QueuedConnection);
    refreshTool();
    rule_->refresh();
}

/// What the tool waits for stands where the line's first words stand else.
void MainWindow::refreshTool() {
    delete tool_row_->layout();
    qDeleteAll(tool_row_->findChildren<QWidget*>(QString(), Qt::FindDirectChildrenOnly));
    tool_row_->setVisible(tool_ != nullptr);
    refreshStarters();
    if (!tool_) return;
    auto* row = new QHBoxLayout(tool_row_);
    row->setContentsMargins(0, 0, 0, 0);
    auto* words = new QLabel(tool_->asks());
    words->setObjectName("toolAsks");
    words->setWordWrap(true);
    row->addWidget(words, 1);
    const auto button = [&](const QString& text, const QString& name, auto&& use) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        b->setMinimumHeight(40);
        b->setFocusPolicy(Qt::TabFocus);
        // the row is made anew by what is answered: not while its button still runs
        connect(b, &QPushButton::clicked, this, use, Qt::QueuedConnection);
        row->addWidget(b);
    };
    const QStringList answers = tool_->answers();
    for (int i = 0; i < answers.size(); ++i)
        button(answers[i], QString("toolAnswer%1").arg(i), [this, i] {
            if (!tool_) return;
            tool_->answered(i);
            refreshTool();
        });
    button(tr("Stop"), "toolStop", [this] { putDown(); });
}

void MainWindow::picked(const Pick& pick) {
    if (!tool_) return;
    tool_->picked(pick);
    refreshTool();
}

void MainWindow::drag(const Drag& what, bool let_go) {
    if (!document_.isOpen()) return;
    if (tool_ && tool_->dragged(what, let_go)) {
        if (let_go) refreshTool();
        return;
    }
    for (const auto& b : benches_)
        if (b->dragged(*this, what, let_go)) return;
}

bool MainWindow::keep(const Result<build::Edit>& edit) {
    if (!edit) return say(QString::fromStdString(edit.error().text()), "warn"), false;
    if (const auto kept = document_.keep(*edit); !kept) return say(QString::fromStdString(kept.error().text()), "bad"), false;
    say(tr("kept: %1").arg(QString::fromStdString(edit->sentence)));
    return true;
}

/// Keys of the build win over those of a text field. A field takes its own letters back only while a line is being changed.
bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::ShortcutOverride) return QMainWindow::eventFilter(watched, event);
    const auto* field = qobject_cast<QLineEdit*>(watched);
    const auto& key = *static_cast<QKeyEvent*>(event);
    if (!field || field->window() != this || !(key.modifiers() & (Qt::ControlModifier | Qt::AltModifier))) return false;
    const QKeySequence typed(key.keyCombination());
    const auto all = actions();
    const auto ours = std::find_if(all.begin(), all.end(), [&](const QAction* a) { return a->shortcut() == typed; });
    if (ours == all.end()) return false;
    const bool changing = !field->text().isEmpty() &&
                          ((*ours == undo_ && field->isUndoAvailable()) || (*ours == redo_ && field->isRedoAvailable()));
    if (changing) return false;
    event->ignore();
    return true;
}

/// Closes what is open: the tool, the card, the call-out. False when there is nothing.
bool MainWindow::escape() {
    if (reading_) return reading_ = false, refresh(), true;
    if (calling_out_) return toggleCallOut(), true;
    if (tool_) return putDown(), true;
    if (more_words_ || tap_figure_) return more_words_ = tap_figure_ = false, refreshLineWords(), true;
    if (card_->isVisible()) return card_->close(), true;
    return !document_.isOpen() && start_->leaveQuestions();
}

/// What is typed over a view, and means nothing there, goes on the line.
void MainWindow::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape && escape()) return;
    QLineEdit* const field = calling_out_ ? call_out_->field() : entry_->field();
    const bool command = e->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier);
    if (command || e->text().isEmpty() || !e->text().front().isPrint() || !field->isVisible() || !field->isEnabled() ||
        handing_on_ || focusWidget() == field) {
        QMainWindow::keyPressEvent(e);
        return;
    }
    field->setFocus();
    QKeyEvent typed(e->type(), e->key(), e->modifiers(), e->text());
    handing_on_ = true; // what the field does not take comes back here
    QCoreApplication::sendEvent(field, &typed);
    handing_on_ = false;
}

} // namespace gorvet::desk
