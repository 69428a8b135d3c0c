// The window's long work, its call-out, and what it remembers.
#include "desk/shell/main_window.hpp"

#include "desk/shell/ask.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/hung_sheet.hpp"
#include "desk/shell/start_page.hpp"
#include "desk/shell/verb_strip.hpp"
#include "desk/space/space.hpp"

#include <QLabel>
#include <QLineEdit>
#include <QSettings>
#include <QStackedWidget>

namespace gorvet::desk {

// ---- long work

void MainWindow::watch(Worker& worker) {
    connect(&worker, &Worker::changed, this, [this] {
        // what is over within half a second is not worth a word
        if (!anyWork()) {
            patience_.stop();
            strip_->setWork({}, 0);
        } else if (strip_->working()) {
            showWork();
        } else if (!patience_.isActive()) {
            patience_.start();
        }
    });
}

const Worker* MainWindow::anyWork() const {
    for (const Worker* w : {&document_.worker(), &worker_, &slow_.worker(), &std::as_const(*space_).worker()})
        if (w->running()) return w;
    return nullptr;
}

void MainWindow::showWork() {
    if (const Worker* w = anyWork()) strip_->setWork(w->what(), w->share());
}

void MainWindow::cancelWork() {
    document_.worker().cancel();
    worker_.cancel();
    slow_.worker().cancel();
    say(tr("stopping; what is kept stays kept"), "warn");
}

// ---- call-out

void MainWindow::toggleCallOut() {
    if (!document_.isOpen()) return;
    const bool entering = pages_->currentWidget() != call_out_;
    calling_out_ = entering;
    refresh();
    if (entering)
        call_out_->field()->setFocus();
    else
        entry_->field()->setFocus();
}

void MainWindow::refreshCallOut(bool sound) {
    // what the bench lacks, or says, where there is nothing to read
    QString instead;
    if (document_.isOpen()) {
        const auto lacks = analysis::lacksOf(bench().info(), document_.build(), document_.results(), state_.subject);
        instead = lacks.empty() ? headline_->text() : QString::fromStdString(lacks.front().sentence);
    }
    call_out_->showPair(document_.isOpen() ? bench().calledOut(document_, state_) : std::nullopt, instead);
    call_out_->showLast(
        document_.isOpen() ? analysis::lastRead(document_.build(), document_.results(), state_.subject) : std::nullopt, sound);
}

void MainWindow::takeCalledOut(const QString& text) {
    const auto proposal = bench().calledOut(document_, state_);
    if (!proposal) return;
    const QString line = text.isEmpty() ? proposal->whole : proposal->prefix + text;
    auto understood = entry::understand(document_.latest(), context(), line.toStdString());
    if (!understood) return call_out_->say(QString::fromStdString(understood.error().text()));
    if (const QString doubt = weighed(*understood, line); !doubt.isEmpty()) return call_out_->say(doubt);
    state_.skip = 0;
    called_out_ = true; // its verdict is told once the results are in
    if (auto kept = document_.keep(understood->edit); !kept) {
        called_out_ = false;
        return call_out_->say(QString::fromStdString(kept.error().text()));
    }
    call_out_->field()->clear();
    call_out_->say(QString::fromStdString(understood->remark));
}

// ---- on a second screen

void MainWindow::hangUp() {
    if (!document_.isOpen()) return;
    if (!view() || !view()->draw)
        return say(tr("a list or the scans can't be hung up: turn to a sheet that is drawn, like The wall"), "warn");
    if (hung_) hung_->close();
    hung_ = new HungSheet(
        this,
        QString::fromStdString(document_.build().settings.name) + QString::fromUtf8(" – ") + QString::fromUtf8(view()->name),
        [this, drawn = view()->draw, subject = state_.subject](double w, double h, const sheet::Format& f) {
            return document_.isOpen() ? drawn(document_.build(), document_.results(), subject, {}, w, h, f) : sheet::Drawing{};
        });
    hung_->refresh(theme_.ground());
    hung_->show();
    say(tr("it follows the build; Enter there fills the screen, Escape closes it"), "");
}

// ---- what is remembered

void MainWindow::recall(QSettings& settings) {
    const QByteArray geometry = settings.value("window/geometry").toByteArray();
    if (!geometry.isEmpty()) restoreGeometry(geometry);
    theme_ = Theme(settings.value("window/ground").toString() == "dye" ? Ground::Dye : Ground::Day,
                   std::clamp(settings.value("window/text", 1.0).toDouble(), 1.0, 1.5));
    setTextScale(theme_.textScale());
    showBench(0);
    setBench(settings.value("window/bench").toString().toStdString());
    recent_.recall(settings);
    ask::startIn(recent_.folder());
    start_->refresh();
    call_out_->setMuted(settings.value("window/muted", false).toBool());
}

void MainWindow::remember(QSettings& settings) const {
    settings.setValue("window/geometry", saveGeometry());
    settings.setValue("window/ground", theme_.ground() == Ground::Dye ? "dye" : "day");
    settings.setValue("window/text", theme_.textScale());
    settings.setValue("window/bench", QString::fromUtf8(bench().key().data(), static_cast<qsizetype>(bench().key().size())));
    settings.setValue("window/muted", call_out_->muted());
    recent_.remember(settings);
    if (document_.store()) settings.setValue("window/build", QString::fromStdString(document_.store()->path().string()));
}

} // namespace gorvet::desk
