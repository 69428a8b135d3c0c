// What is measured, typed, picked and slid.
#include "desk/shell/main_window.hpp"

#include "analysis/cards.hpp"
#include "analysis/overlay.hpp"
#include "desk/scan/scan_room.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/verb_strip.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/rule_view.hpp"
#include "prompt/context.hpp"

#include <QAction>
#include <QApplication>
#include <QDateTime>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QShortcut>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace gorvet::desk {

void MainWindow::turnTo(build::SubjectId subject) {
    state_.subject = subject;
    state_.skip = 0;
    card_->close();
    refresh();
}

void MainWindow::refreshSubjects(bool shown) {
    const build::Build& b = document_.build();
    if (!b.subjects.contains(state_.subject)) state_.subject = build::the_chassis; // it was removed, or another build opened
    std::erase_if(subjects_, [&](const auto& entry) {
        const bool gone = !b.subjects.contains(entry.first);
        if (gone) entry.second->deleteLater();
        return gone;
    });
    for (const build::SubjectId subject : build::subjectsInOrder(b)) {
        const QString name = QString::fromStdString(build::nameOf(b, subject));
        QPushButton*& button = subjects_[subject];
        if (!button) {
            button = new QPushButton;
            button->setCheckable(true);
            button->setToolTip("F6");
            connect(button, &QPushButton::clicked, this, [this, subject] { turnTo(subject); });
            subject_row_->addWidget(button, 0, Qt::AlignTop);
        }
        button->setText(name);
        button->setObjectName("subject" + name.left(1).toUpper() + name.mid(1));
        button->setVisible(shown);
        button->setChecked(state_.subject == subject);
    }
}

QString MainWindow::subjectName() const { return QString::fromStdString(build::nameOf(document_.build(), state_.subject)); }

entry::Context MainWindow::context() const {
    const auto subject = bench().key() == "tape" ? state_.subject : build::the_chassis;
    return prompt::contextFor(document_.results(), subject, document_.user().toStdString(),
                              QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString());
}

void MainWindow::preview() {
    if (!document_.isOpen()) return;
    const QString line = entry_->fullLine();
    if (line.isEmpty()) {
        const auto proposal = bench().proposal(document_, state_);
        entry_->setEcho(proposal ? proposal->hint : bench().placeholder(), "");
        return;
    }
    const auto understood = entry::understand(document_.latest(), context(), line.toStdString());
    if (understood) {
        QString echo = QString::fromStdString(understood->echo);
        if (!understood->remark.empty()) echo += QString::fromUtf8(" · ") + QString::fromStdString(understood->remark);
        entry_->setEcho(echo, understood->remark.empty() ? "" : "warn");
    } else { // while typing, a line is unfinished rather than wrong
        entry_->setEcho(QString::fromStdString(understood.error().text()), "");
    }
}

bool MainWindow::enter(const QString& line, From from) {
    auto understood = entry::understand(document_.latest(), context(), line.toStdString());
    const auto complain = [&](const Error& e) {
        const QString text = QString::fromStdString(e.text());
        if (from == From::Card && card_->isVisible())
            card_->say(text);
        else
            say(text, "bad");
        if (from == From::EntryLine) entry_->pointAt(e.column);
        return false;
    };
    if (!understood) return complain(understood.error());
    if (understood->subject) {
        if (!understood->edit.changes.empty()) // a new one
            if (auto kept = document_.keep(understood->edit); !kept) return complain(kept.error());
        state_.subject = *understood->subject;
        if (from == From::EntryLine) entry_->clear();
        refresh();
        return true;
    }
    state_.skip = 0;
    if (auto kept = document_.keep(understood->edit); !kept) return complain(kept.error()); // what follows is drawn by `changed`
    if (from == From::Card) card_->close();
    if (from == From::EntryLine) entry_->clear();
    QString said = tr("kept: %1").arg(QString::fromStdString(understood->echo));
    if (const auto next = document_.stale() ? std::nullopt : bench().proposal(document_, state_))
        said += tr(" · next: %1").arg(next->hint);
    say(said);
    return true;
}

void MainWindow::showCard(const QString& tag, const QPoint& at, QWidget* from) {
    const auto card = analysis::cardFor(document_.build(), document_.results(), state_.subject, tag.toStdString());
    if (!card) return;
    state_.selected = tag.toStdString();
    sheet_->refresh();
    QWidget* desk = card_->parentWidget();
    card_->show(*card, document_.history(card->journal_table, card->journal_id), from->mapTo(desk, at), theme_);
}

void MainWindow::slideBody(double mm) {
    slide_mm_ = 0;
    // sliding the body edge is a decision about where its pins stand: the same as dragging it in space
    keepDropped(analysis::movePins(document_.latest(), mm, 0));
    rule_->refresh();
}

/// What is typed over a view, and means nothing there, goes on the line.
void MainWindow::keyPressEvent(QKeyEvent* e) {
    QLineEdit* const field = calling_out_ ? call_out_->field() : entry_->field();
    const bool command = e->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier);
    if (command || e->text().isEmpty() || !e->text().front().isPrint() || !field->isVisible() || focusWidget() == field) {
        QMainWindow::keyPressEvent(e);
        return;
    }
    field->setFocus();
    QKeyEvent typed(e->type(), e->key(), e->modifiers(), e->text());
    QCoreApplication::sendEvent(field, &typed);
}

} // namespace gorvet::desk
