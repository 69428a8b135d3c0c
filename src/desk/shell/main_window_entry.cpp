// What is measured, typed, picked and slid.
#include "desk/shell/main_window.hpp"

#include "analysis/cards.hpp"
#include "analysis/overlay.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/line_words.hpp"
#include "desk/shell/verb_strip.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/rule_view.hpp"
#include "entry/next_words.hpp"
#include "prompt/context.hpp"
#include "prompt/weigh.hpp"

#include <algorithm>

#include <QAction>
#include <QApplication>
#include <QDateTime>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
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

void MainWindow::refreshSubjects() {
    const bool shown = bench().info().by_subject;
    const build::Build& b = document_.build();
    if (!b.subjects.contains(state_.subject)) state_.subject = build::the_chassis; // it was removed, or another build opened
    std::erase_if(subjects_, [&](const auto& entry) {
        const bool gone = !b.subjects.contains(entry.first);
        if (gone) entry.second->deleteLater();
        return gone;
    });
    // more than these would crowd the head: the first, the one that is shown, and a menu of all
    constexpr int most_beside = 4;
    const auto all = build::subjectsInOrder(b);
    const bool many = static_cast<int>(all.size()) > most_beside + 1;
    if (!more_subjects_) {
        more_subjects_ = new QPushButton(tr("others"));
        more_subjects_->setObjectName("moreSubjects");
        more_subjects_->setMenu(new QMenu(more_subjects_));
        subject_row_->addWidget(more_subjects_, 0, Qt::AlignTop);
    }
    more_subjects_->setVisible(shown && many);
    more_subjects_->menu()->clear();
    int place = 0;
    for (const build::SubjectId subject : all) {
        const QString name = QString::fromStdString(build::nameOf(b, subject));
        QPushButton*& button = subjects_[subject];
        if (!button) {
            button = new QPushButton;
            button->setCheckable(true);
            button->setToolTip("F6");
            connect(button, &QPushButton::clicked, this, [this, subject] { turnTo(subject); });
            subject_row_->insertWidget(subject_row_->count() - 1, button, 0, Qt::AlignTop);
        }
        button->setText(name);
        button->setObjectName("subject" + name.left(1).toUpper() + name.mid(1));
        const bool beside = !many || place++ < most_beside || state_.subject == subject;
        button->setVisible(shown && beside);
        if (!beside) more_subjects_->menu()->addAction(name, this, [this, subject] { turnTo(subject); });
        button->setChecked(state_.subject == subject);
    }
}

entry::Context MainWindow::context() const {
    const auto subject = bench().info().by_subject ? state_.subject : build::the_chassis;
    entry::Context c = prompt::contextFor(document_.results(), subject, document_.user().toStdString(),
                                          QDateTime::currentDateTimeUtc().toString(Qt::ISODate).toStdString());
    if (!document_.stale()) prompt::letIssue(c, document_.build(), document_.results());
    return c;
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
        const std::string doubt = prompt::doubtOf(document_.latest(), document_.results(), *understood);
        for (const std::string& more : {understood->remark, doubt})
            if (!more.empty()) echo += QString::fromUtf8(" · ") + QString::fromStdString(more);
        entry_->setEcho(echo, understood->remark.empty() && doubt.empty() ? "" : "warn");
    } else { // while typing, a line is unfinished rather than wrong
        entry_->setEcho(QString::fromStdString(understood.error().text()), "");
    }
}

QString MainWindow::weighed(const entry::Understood& understood, const QString& line) {
    const std::string doubt = prompt::doubtOf(document_.latest(), document_.results(), understood);
    const bool asked = line == doubted_;
    doubted_ = doubt.empty() || asked ? QString() : line;
    if (doubt.empty() || asked) return {};
    return tr("%1: Enter again keeps %2").arg(QString::fromStdString(doubt), QString::fromStdString(understood.echo));
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
    if (!understood->opens.empty()) { // a card, as a scanned label does
        if (from == From::EntryLine) entry_->clear();
        showCard(QString::fromStdString(understood->opens), {sheet_->width() / 3, sheet_->height() / 3}, sheet_);
        return true;
    }
    if (const QString doubt = weighed(*understood, line); !doubt.isEmpty()) {
        from == From::Card && card_->isVisible() ? card_->say(doubt) : say(doubt, "warn");
        return false;
    }
    state_.skip = 0;
    if (auto kept = document_.keep(understood->edit); !kept) return complain(kept.error()); // what follows is drawn by `changed`
    if (from == From::Card) card_->close();
    if (from == From::EntryLine) {
        entry_->remember(line);
        entry_->clear();
    }
    QString said = tr("kept: %1").arg(QString::fromStdString(understood->echo));
    if (const auto next = document_.stale() ? std::nullopt : bench().proposal(document_, state_))
        said += tr(" · next: %1").arg(next->hint);
    say(said);
    return true;
}

void MainWindow::showCard(const QString& tag, const QPoint& at, QWidget* from) {
    if (tag == "findings") return findFindings();
    if (pickedPoint(tag) || bench().picked(*this, tag)) return;
    const auto card = analysis::cardFor(document_.build(), document_.results(), state_.subject, tag.toStdString());
    if (!card) return;
    state_.selected = tag.toStdString();
    sheet_->refresh();
    QWidget* desk = card_->parentWidget();
    card_->show(*card, document_.history(card->journal_table, card->journal_id), from->mapTo(desk, at), theme_);
}

// ---- the line that builds itself

/// In place of the first words while a line is begun.
void MainWindow::refreshLineWords() {
    // a figure that completes what is proposed counts with it
    QString line = entry_->field()->text();
    if (const QString full = entry_->fullLine(); full != line.trimmed()) line = full + (line.endsWith(' ') ? " " : "");
    if (!line.isEmpty()) more_words_ = tap_figure_ = false;
    const auto proposal = document_.isOpen() && tap_figure_ ? bench().proposal(document_, state_) : std::nullopt;
    if (proposal) line = proposal->prefix;
    const bool begun = document_.isOpen() && (!line.isEmpty() || more_words_);
    if (begun) {
        auto next = entry::nextWords(document_.latest(), context(), line.toStdString(), bench().info().name);
        if (proposal) next.figure = true;
        if (more_words_) // what can be typed on every bench
            for (std::string& w : entry::nextWords(document_.latest(), context(), {}, "Build").words)
                next.words.push_back(std::move(w));
        line_words_->show(next, tapping_);
    }
    line_words_->setVisible(begun);
    starters_->setVisible(!begun);
    showWords();
}

void MainWindow::replaceBegun(const QString& word) {
    const QString line = entry_->field()->text();
    const qsizetype blank = line.lastIndexOf(' ');
    entry_->beginWith((line.endsWith(' ') ? line : line.left(blank + 1)) + word + ' ');
}

/// The one word that fits, or as much as all that fit have in common.
void MainWindow::completeWord() {
    const auto next = entry::nextWords(document_.latest(), context(), entry_->field()->text().toStdString(), bench().info().name);
    if (next.words.empty()) return;
    std::string common = next.words.front();
    for (const std::string& w : next.words) {
        const auto differs = std::mismatch(common.begin(), common.end(), w.begin(), w.end()).first;
        common.erase(differs, common.end());
    }
    if (next.words.size() == 1)
        replaceBegun(QString::fromStdString(common));
    else if (common.size() > next.begun.size())
        entry_->beginWith(entry_->field()->text() + QString::fromStdString(common.substr(next.begun.size())));
}

bool MainWindow::pickedPoint(const QString& tag) {
    const QString line = entry_->field()->text();
    if (line.isEmpty() || !tag.startsWith("point:")) return false;
    const auto point = document_.latest().points.find(build::PointId{tag.mid(6).toUInt()});
    if (point == document_.latest().points.end()) return false;
    QString before = line;
    if (!before.endsWith(' ')) before += ' ';
    const auto next = entry::nextWords(document_.latest(), context(), before.toStdString(), bench().info().name);
    if (!next.point) return false;
    // a pin looks for a bare name on the body first
    const auto& subject = document_.latest().subjects.at(point->second.subject);
    const bool other = point->second.subject != context().subject || before.startsWith("pin ");
    entry_->beginWith(before + (other ? QString::fromStdString(subject.name) + ':' : QString()) +
                      QString::fromStdString(point->second.name) + ' ');
    return true;
}

} // namespace gorvet::desk
