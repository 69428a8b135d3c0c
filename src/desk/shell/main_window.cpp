// What the window shows.
#include "desk/shell/main_window.hpp"

#include "analysis/views.hpp"
#include "desk/handbook/handbook_view.hpp"
#include "desk/instruments/instrument_link.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/hung_sheet.hpp"
#include "desk/shell/start_page.hpp"
#include "desk/shell/verb_strip.hpp"
#include "desk/shell/word_row.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/list_pane.hpp"
#include "desk/widgets/rule_view.hpp"

#include <QAction>
#include <QApplication>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>
#include <QStyle>
#include <QToolButton>

namespace gorvet::desk {

MainWindow::MainWindow() {
    setObjectName("mainWindow");
    benches_ = makeBenches();
    QString user = qEnvironmentVariable("GORVET_USER", qEnvironmentVariable("USER"));
    document_.setUser(user.isEmpty() ? "builder" : user);
    instruments_ = new InstrumentLink(this);
    buildMenu();
    buildCentral();
    shortcuts();
    connect(&document_, &Document::changed, this, &MainWindow::refresh);
    connect(&document_, &Document::writable, this,
            [this] { say(tr("the other window has gone: the build can be changed here now")); });
    patience_.setSingleShot(true);
    patience_.setInterval(500);
    connect(&patience_, &QTimer::timeout, this, &MainWindow::showWork);
    for (Worker* worker : {&document_.worker(), &slow_.worker(), &space_->worker(), &worker_}) watch(*worker);
    connect(strip_, &VerbStrip::cancelled, this, &MainWindow::cancelWork);
    resize(1280, 800);
    setGround(Ground::Day);
    showBench(0);
    refresh();
}

MainWindow::~MainWindow() = default;

void MainWindow::setGround(Ground ground) {
    theme_ = Theme(ground, theme_.textScale());
    setTextScale(theme_.textScale());
}

void MainWindow::setTextScale(double scale) {
    theme_ = Theme(theme_.ground(), scale);
    qApp->setStyleSheet(theme_.styleSheet());
    strip_->setTheme(theme_);
    const auto size = [this](QLabel* label, double px) { label->setStyleSheet(QString("font-size: %1px").arg(theme_.px(px))); };
    size(headline_, 24);
    size(below_, 15);
    start_->setTheme(theme_);
    sheet_->setTheme(theme_);
    space_->pane()->setTheme(theme_);
    list_->setTheme(theme_);
    rule_->setTheme(theme_);
    call_out_->setTheme(theme_);
    handbook_->setTheme(theme_);
    placeRule();
    entry_->setMinimumHeight(std::max(56, theme_.px(40)));
    card_->hide();
    refreshStarters();
    refreshWords();
}

void MainWindow::setBench(std::string_view key) {
    for (size_t i = 0; i < benches_.size(); ++i)
        if (benches_[i]->key() == key) showBench(static_cast<int>(i));
}

void MainWindow::showBench(int index) {
    // a bench that is shown already goes back to its first sheet
    if (index == current_) views_.erase(bench().key());
    current_ = index;
    calling_out_ = reading_ = false;
    strip_->setCurrent(index);
    state_.selected.clear();
    state_.skip = 0;
    const auto last = views_.find(bench().key());
    state_.view = last == views_.end() ? 0 : last->second;
    card_->hide();
    entry_->clear();
    putDown();
    refresh();
    entry_->field()->setFocus();
}

void MainWindow::setView(std::string_view key) {
    for (size_t i = 0; i < bench().views().size(); ++i)
        if (bench().views()[i].key == key) showView(i);
}

void MainWindow::turn(std::string_view key, std::string_view shown) {
    if (bench().key() != key) setBench(key);
    setView(shown);
}

void MainWindow::showView(std::size_t index) {
    state_.view = views_[bench().key()] = index;
    state_.selected.clear();
    card_->hide();
    refresh();
}

std::string_view MainWindow::shownView() const { return view() ? view()->key : std::string_view{}; }

bool MainWindow::inSpace() const { return document_.isOpen() && view() && view()->isSpace(); }

int MainWindow::sheetPage() const { return inSpace() ? 1 : document_.isOpen() && view() && view()->list ? 2 : 0; }

void MainWindow::refreshList() {
    if (sheetPage() == 2) list_->show(view()->list(document_.build(), document_.results(), state_.subject));
}

void MainWindow::refresh() {
    if (!document_.isOpen()) calling_out_ = false;
    pages_->setCurrentIndex(reading_ ? 3 : !document_.isOpen() ? 0 : calling_out_ ? 2 : 1);
    if (calling_out_) {
        refreshCallOut(called_out_ && !document_.stale());
        if (!document_.stale()) called_out_ = false;
    }
    if (tool_ && (!document_.isOpen() || !tool_->possible())) putDown();
    want();
    refreshMarks();
    refreshSubjects();
    slide_mm_ = 0;
    if (sheet_stack_->currentIndex() != sheetPage()) placeSheet();
    refreshList();
    refreshWords();
    refreshViews();
    refreshStarters();
    entry_->setProposal(document_.isOpen() ? bench().proposal(document_, state_) : std::nullopt, bench().placeholder());
    const auto& r = document_.results();
    rule_->setScale(document_.isOpen() && r.seated() ? analysis::ruleScale(document_.build(), r, rule_->width(), theme_.format())
                                                     : 0);
    sheet_->refresh();
    rule_->refresh();
    if (hung_) hung_->refresh(theme_.ground());
    if (tool_) tool_->showAgain();
    askInstrument();
    if (!document_.store()) return;
    const auto undo = QString::fromStdString(document_.store()->undoSentence());
    const auto redo = QString::fromStdString(document_.store()->redoSentence());
    undo_->setText(undo.isEmpty() ? tr("Undo") : tr("Undo: %1").arg(undo));
    redo_->setText(redo.isEmpty() ? tr("Do again") : tr("Do again: %1").arg(redo));
}

/// What takes seconds and is shown: the findings everywhere, the sheet's own, and what stands in the view of the scans.
void MainWindow::want() {
    SlowWork::Keys keys = analysis::slowForFindings();
    if (view()) keys.insert(keys.end(), view()->needs.begin(), view()->needs.end());
    if (inSpace())
        for (const std::string_view key : analysis::slowForSpace()) keys.push_back(key);
    slow_.want(std::move(keys));
}

void MainWindow::refreshMarks() {
    const auto& r = document_.results();
    for (size_t i = 0; i < benches_.size(); ++i) {
        const bool any = document_.isOpen() && benches_[i]->info().begun(document_.build(), r);
        strip_->setWorst(static_cast<int>(i), analysis::worstOf(r.findings, benches_[i]->key()), any);
    }
}

void MainWindow::refreshWords() {
    if (!document_.isOpen()) {
        strip_->setWords(tr("no build open"), QString());
        setWindowTitle("Gorvet");
        return;
    }
    const auto words = view() && view()->headline ? view()->headline : bench().info().headline;
    const auto h = words(document_.build(), document_.results(), state_.subject);
    headline_->setText(QString::fromStdString(h.sentence));
    below_->setText(QString::fromStdString(h.below));
    const auto& damage = document_.results().file_damage;
    if (!damage.empty()) { // before all that a bench has to say
        below_->setText(headline_->text() + " " + below_->text());
        headline_->setText(
            tr("The file is damaged: %1. Cut and weld nothing by these figures.").arg(QString::fromStdString(damage.front())));
    }
    if (const QString role = damage.empty() ? "" : "bad"; headline_->property("role").toString() != role) {
        headline_->setProperty("role", role);
        headline_->style()->unpolish(headline_);
        headline_->style()->polish(headline_);
    }
    const auto& s = document_.build().settings;
    const QString unit = units::unitOf(s.length_step) == units::Unit::Inch ? tr("inches") : tr("mm");
    strip_->setWords(QString::fromStdString(s.name),
                     QStringList{document_.stale() ? tr("%1, figures not yet").arg(document_.keptText()) : document_.keptText(),
                                 unit, theme_.ground() == Ground::Day ? tr("Day") : tr("Dye")}
                         .join(QString::fromUtf8(" · ")));
    setWindowTitle(QString::fromStdString(s.name) + " – Gorvet");
    sheet_->setAccessibleName(bench().name() + ": " + headline_->text());
}

/// A button for each sheet of a bench that has several; of many the first, the one that is shown, and a menu of the others.
void MainWindow::refreshViews() {
    const auto& views = bench().views();
    const auto shown = view_buttons_->property("bench").toString();
    const auto key = QString::fromUtf8(bench().key().data(), static_cast<qsizetype>(bench().key().size()));
    if (shown != key) {
        qDeleteAll(view_buttons_->findChildren<QPushButton*>(QString(), Qt::FindDirectChildrenOnly));
        view_buttons_->setProperty("bench", key);
        for (size_t i = 0; i < views.size() && views.size() > 1; ++i) {
            auto* button = new QPushButton(QString::fromUtf8(views[i].name));
            button->setObjectName(QString("view_%1").arg(QString::fromUtf8(views[i].key.data())));
            button->setCheckable(true);
            button->setToolTip("F5");
            button->setFocusPolicy(Qt::TabFocus);
            connect(button, &QPushButton::clicked, this, [this, i] { showView(i); });
            button->hide(); // until it is known which are shown: all of them at once would hold the window wide
            view_buttons_->layout()->addWidget(button);
        }
        auto* more = new QPushButton(tr("more"));
        more->setObjectName("moreViews");
        more->setMenu(new QMenu(more));
        more->hide();
        view_buttons_->layout()->addWidget(more);
    }
    view_buttons_->setVisible(document_.isOpen() && views.size() > 1);
    constexpr size_t most_beside = 3, all_beside = 5;
    const bool many = views.size() > all_beside;
    auto* more = view_buttons_->findChild<QPushButton*>("moreViews", Qt::FindDirectChildrenOnly);
    more->setVisible(many);
    more->menu()->clear();
    for (size_t i = 0; i < views.size() && views.size() > 1; ++i) {
        const QString name = QString::fromUtf8(views[i].name);
        auto* button = view_buttons_->findChild<QPushButton*>(QString("view_%1").arg(QString::fromUtf8(views[i].key.data())),
                                                              Qt::FindDirectChildrenOnly);
        const bool beside = !many || i < most_beside || i == state_.view;
        button->setVisible(beside);
        button->setChecked(i == state_.view);
        if (!beside) more->menu()->addAction(name, this, [this, i] { showView(i); });
    }
    placeHead();
}

void MainWindow::resizeEvent(QResizeEvent* e) {
    QMainWindow::resizeEvent(e);
    placeHead();
    placeRule();
}

/// The Rule gives way first where a window is low for its text.
void MainWindow::placeRule() {
    const int most = theme_.px(110);
    constexpr int roomy = 760;
    const int low = theme_.px(82);
    rule_->setFixedHeight(height() >= roomy ? most : std::clamp(height() * 18 / 100, low, most));
}

namespace {
QString starterName(const Starter& s) { return "start_" + (s.act ? QString(s.act) : s.line.trimmed().replace(' ', '_')); }
} // namespace

void MainWindow::refreshStarters() {
    lacks_.clear();
    starts_.clear();
    if (document_.isOpen()) {
        constexpr std::size_t shown = 3; // the next ones come when these are there
        for (auto& lack : analysis::lacksOf(bench().info(), document_.build(), document_.results(), state_.subject))
            if (lacks_.size() < shown) lacks_.push_back(std::move(lack));
        starts_ = bench().starters(document_, state_);
    }
    const bool figures = document_.isOpen() && bench().proposal(document_, state_); // what is read can be tapped in, too
    QStringList said;
    for (const analysis::Lack& lack : lacks_) said << QString::fromStdString(lack.label + '\n' + lack.sentence);
    if (figures) said << "figures";
    for (const Starter& starter : starts_) said << starter.label + '\n' + starterName(starter);
    if (said != starters_said_) makeStarters(figures); // most edits leave them as they are
    starters_said_ = said;
    word_row_->setFixedHeight(std::max(theme_.px(15) + 30, 44));
    showWords();
    bench_acts_->menu()->clear();
    for (const Act& act : bench().acts()) bench_acts_->menu()->addAction(acts_.at(act.name));
    bench_acts_->setText(tr("%1 …").arg(bench().name()));
    bench_acts_->setVisible(document_.isOpen() && !tool_ && !bench_acts_->menu()->isEmpty());
}

/// Buttons for what `lacks_` and `starts_` hold: each looks there, by its place, what it does when it is tapped.
void MainWindow::makeStarters(bool figures) {
    while (QLayoutItem* item = starter_row_->takeAt(0)) {
        if (item->widget()) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    const auto add = [this](const QString& label, const QString& name, auto tapped) {
        auto* button = new QPushButton(label);
        button->setObjectName(name);
        button->setFocusPolicy(Qt::TabFocus);
        connect(button, &QPushButton::clicked, this, tapped);
        starter_row_->addWidget(button);
        return button;
    };
    for (std::size_t i = 0; i < lacks_.size(); ++i) {
        auto* button = add(QString::fromStdString(lacks_[i].label), QString("lead%1").arg(i), [this, i] {
            const analysis::Lack lack = lacks_[i]; // what it does makes them anew
            mend(lack);
        });
        button->setToolTip(QString::fromStdString(lacks_[i].sentence));
        button->setProperty("lead", true);
    }
    if (figures)
        add(tr("figures"), "start_figure", [this] {
            tap_figure_ = tapping_ = true;
            refreshLineWords();
        });
    for (std::size_t i = 0; i < starts_.size(); ++i)
        add(starts_[i].label, starterName(starts_[i]), [this, i] {
            const Starter starter = starts_[i];
            if (starter.act)
                acts_.at(starter.act)->trigger();
            else if (starter.line.endsWith(' ')) {
                tapping_ = true;
                entry_->beginWith(starter.line);
            } else
                enter(starter.line);
        });
    starter_row_->addStretch(1);
}

/// With very large text the sheet needs the room until a line is begun; F1 finds the same.
void MainWindow::showWords() {
    const bool begun = !entry_->field()->text().isEmpty() || more_words_ || tap_figure_;
    word_row_->setVisible(!tool_ && (theme_.textScale() < 1.4 || begun));
    more_->setVisible(document_.isOpen() && !tool_ && !begun);
}

/// What a bench lacks, begun by one tap where it is done.
void MainWindow::mend(const analysis::Lack& lack) {
    if (!lack.bench.empty() && bench().key() != lack.bench) setBench(lack.bench);
    if (lack.subject && state_.subject != lack.subject) turnTo(lack.subject);
    const QString line = QString::fromStdString(lack.line);
    if (!lack.edit.changes.empty())
        keep(lack.edit);
    else if (line.endsWith(' '))
        tapping_ = true, entry_->beginWith(line);
    else if (!line.isEmpty())
        enter(line);
}

void MainWindow::beginLine(const QString& line, int caret) {
    entry_->beginWith(line);
    entry_->field()->setCursorPosition(caret);
}

void MainWindow::say(const QString& text, const char* role) { entry_->setEcho(text, role); }

} // namespace gorvet::desk
