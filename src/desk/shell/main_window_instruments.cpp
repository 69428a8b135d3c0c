// The window and its measuring instruments.
#include "desk/shell/main_window.hpp"

#include "desk/instruments/instrument_link.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"

#include <QAction>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>

namespace gorvet::desk {

void MainWindow::buildInstruments(QMenu* in) {
    QMenu* menu = in->addMenu(tr("Instruments"));
    menu->setObjectName("instrumentMenu");
    addAct(menu, {"takeReading", tr("Take the reading"), QKeySequence("F7"), [this](Desk&) { takeReading(); }});
    keep_at_once_ = addAct(menu, {"keepAtOnce", tr("Keep what it reads at once"), QKeySequence("Shift+F7"), [this](Desk&) {
                                      say(keep_at_once_->isChecked() ? tr("what an instrument reads is kept at once")
                                                                     : tr("what an instrument reads waits for Enter"));
                                  }});
    keep_at_once_->setCheckable(true);
    menu->addSeparator();
    addAct(menu, {"letGoInstrument", tr("Let go of the instrument"), {}, [this](Desk&) { instruments_->letGo(); }});
    addAct(menu, {"connectSocket", tr("Connect to a socket…"), {}, [this](Desk&) {
                      const QString path = ask::fileToOpen(this, tr("The instrument's socket"), tr("All files (*)"));
                      if (!path.isEmpty()) connectInstrument("socket:" + path);
                  }});
    QMenu* lines = menu->addMenu(tr("Connect to a serial line"));
    connect(lines, &QMenu::aboutToShow, this, [this, lines] {
        lines->clear();
        for (const QString& line : InstrumentLink::serialLines())
            connect(lines->addAction(line), &QAction::triggered, this, [this, line] { connectInstrument(line); });
        if (lines->isEmpty()) lines->addAction(tr("there is none"))->setEnabled(false);
    });
    connect(instruments_, &InstrumentLink::stateChanged, this, [this] {
        entry_->setInstrument(instruments_->words(), instruments_->inTrouble());
        askInstrument();
    });
    connect(instruments_, &InstrumentLink::reading, this, &MainWindow::takeFigure);
    connect(instruments_, &InstrumentLink::complaint, this, [this](const QString& text) {
        if (calling_out_)
            call_out_->say(text);
        else
            say(text, "bad");
    });
}

void MainWindow::connectInstrument(const QString& address) { instruments_->connectTo(address); }

/// The reading that the entry line stands at: the proposal, or a line that was begun with its kind and points.
void MainWindow::askInstrument() {
    if (!document_.isOpen() || !instruments_->isConnected()) return;
    const QStringList typed = entry_->field()->text().simplified().split(' ', Qt::SkipEmptyParts);
    QStringList words = typed;
    const auto& b = document_.latest();
    const auto isPoint = [&](const QString& w) { return build::pointNamed(b, state_.subject, w.toStdString()) != nullptr; };
    if (words.isEmpty()) {
        const auto proposal = bench().proposal(document_, state_);
        if (!proposal) return;
        words = proposal->prefix.simplified().split(' ', Qt::SkipEmptyParts);
    }
    if (!words.isEmpty() && words.front() == "retape") words.removeFirst();
    QString kind = "tape";
    if (!words.isEmpty() &&
        (!isPoint(words.front()) || (words.size() > 2 && build::fromWord<build::ReadingKind>(words.front().toStdString())))) {
        kind = words.takeFirst();
        if (kind == "weight") kind = "scales";
        if (kind == "run-out") kind = "dial";
    }
    if (words.isEmpty()) return;
    const bool wheel = kind == "scales" || kind == "dial";
    if (!wheel && !isPoint(words.front())) return;
    instruments_->ask(kind, words[0], words.size() > 1 && isPoint(words[1]) ? words[1] : QString());
}

void MainWindow::takeReading() {
    if (!document_.isOpen()) return;
    askInstrument();
    instruments_->take();
}

/// What an instrument read goes where a figure is typed.
void MainWindow::takeFigure(const QString& figure, const QString& instrument) {
    if (!document_.isOpen()) return;
    if (calling_out_) {
        call_out_->field()->setText(figure);
        if (keep_at_once_->isChecked()) takeCalledOut(figure);
        return;
    }
    // a line that was begun keeps its beginning: "height Al" and the figure
    QString line = entry_->field()->text().trimmed();
    const QString last = line.section(' ', -1);
    const bool has_figure = !line.isEmpty() && (last.front().isDigit() || last == "mm" || last == "kg");
    if (has_figure) line.clear();
    entry_->beginWith(line.isEmpty() ? figure : line + " " + figure);
    if (keep_at_once_->isChecked())
        enter(entry_->fullLine(), From::EntryLine);
    else
        say(tr("%1 reads %2 · Enter keeps it").arg(instrument, figure));
}

} // namespace gorvet::desk
