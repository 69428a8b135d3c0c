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

namespace {
const char* build_filter = "Gorvet builds (*.gorvet)";
}

MainWindow::MainWindow() {
    setObjectName("mainWindow");
    benches_ = makeBenches();
    QString user = qEnvironmentVariable("GORVET_USER", qEnvironmentVariable("USER"));
    document_.setUser(user.isEmpty() ? "builder" : user);
    buildMenu();
    buildCentral();
    shortcuts();
    connect(&document_, &Document::changed, this, &MainWindow::refresh);
    connect(&document_, &Document::writable, this,
            [this] { say(tr("the other window has gone: the build can be changed here now")); });
    buildScene();
    patience_.setSingleShot(true);
    patience_.setInterval(500);
    connect(&patience_, &QTimer::timeout, this, &MainWindow::showWork);
    watch(document_.worker());
    watch(worker_);
    connect(strip_, &VerbStrip::cancelled, this, &MainWindow::cancelWork);
    resize(1280, 800);
    setGround(Ground::Day);
    showBench(0);
    refresh();
}

MainWindow::~MainWindow() = default;

// ---- parts

void MainWindow::buildMenu() {
    menu_ = new QMenu(this);
    menu_->setObjectName("buildMenu");
    const auto add = [this](const QString& text, const char* name, const QKeySequence& keys, auto&& use) {
        QAction* action = menu_->addAction(text);
        action->setObjectName(name);
        action->setShortcut(keys);
        action->setShortcutContext(Qt::ApplicationShortcut);
        addAction(action);
        connect(action, &QAction::triggered, this, use);
        return action;
    };
    add(tr("New build…"), "newBuild", QKeySequence::New, [this] {
        const QString path = ask::fileToMake(this, tr("Where to keep the new build"), build_filter, "build.gorvet");
        if (!path.isEmpty()) makeFile(path.endsWith(".gorvet") ? path : path + ".gorvet");
    });
    add(tr("Open…"), "openBuild", QKeySequence::Open, [this] {
        const QString path = ask::fileToOpen(this, tr("Open a build"), build_filter);
        if (!path.isEmpty()) openFile(path);
    });
    menu_->addSeparator();
    undo_ = add(tr("Undo"), "undo", QKeySequence::Undo, [this] {
        if (auto done = document_.undo())
            say(tr("undone: %1").arg(QString::fromStdString(*done)));
        else
            say(QString::fromStdString(done.error().text()), "warn");
    });
    redo_ = add(tr("Do again"), "redo", QKeySequence("Ctrl+Shift+Z"), [this] {
        if (auto done = document_.redo())
            say(tr("done again: %1").arg(QString::fromStdString(*done)));
        else
            say(QString::fromStdString(done.error().text()), "warn");
    });
    add(tr("Logbook"), "logbook", QKeySequence("F9"), [this] { showLog(); });
    menu_->addSeparator();
    add(tr("Import readings…"), "importReadings", QKeySequence("Ctrl+I"), [this] { importReadings(); });
    QMenu* points = menu_->addMenu(tr("Import points as"));
    for (const auto& [label, name, are] :
         {std::tuple{tr("rough places…"), "importRough", formats::PointsAre::Rough},
          std::tuple{tr("the drawing's figures…"), "importDrawing", formats::PointsAre::Drawing},
          std::tuple{tr("measured coordinates…"), "importCoordinates", formats::PointsAre::Coordinates}}) {
        QAction* action = points->addAction(label);
        action->setObjectName(name);
        connect(action, &QAction::triggered, this, [this, what = are] { importPoints(what); });
    }
    add(tr("Report \"as found\" as PDF…"), "exportReport", QKeySequence("Ctrl+R"), [this] { exportReport(); });
    add(tr("Build sheet as PDF…"), "exportBuildSheet", QKeySequence("Ctrl+P"), [this] { exportBuildSheet(); });
    add(tr("Export everything…"), "exportAll", QKeySequence("Ctrl+E"), [this] { exportEverything(); });
    menu_->addSeparator();
    add(tr("Add a scan…"), "addScan", QKeySequence("Ctrl+M"), [this] { addScan(); });
    add(tr("Lay a scan on another…"), "layScan", QKeySequence("Ctrl+L"), [this] { beginLaying(); });
    add(tr("Sheet or scans, on Sit"), "sitInSpace", QKeySequence("F3"), [this] {
        sit_in_space_ = !sit_in_space_;
        state_.compare = false;
        refresh();
    });
    const auto compare = [this](std::string_view key) {
        const bool there = bench().key() == key;
        if (!there) setBench(key);
        state_.compare = !there || !state_.compare;
        state_.way = false;
        sit_in_space_ = false;
        refresh();
        findSeatings();
    };
    add(tr("What costs what, on Sit; pair by pair, on Scan"), "compare", QKeySequence("F5"),
        [this, compare] { compare(bench().key() == "scan" ? "scan" : "sit"); });
    add(tr("What costs what"), "compareSeatings", QKeySequence(), [compare] { compare("sit"); });
    add(tr("Clearances, pair by pair"), "comparePairs", QKeySequence(), [compare] { compare("scan"); });
    add(tr("The way in"), "wayIn", QKeySequence("Ctrl+Y"), [this] { sayWayIn(); });
    add(tr("Cut map…"), "cutMap", QKeySequence("Ctrl+K"), [this] { exportCutMap(); });
    add(tr("Keep the cuts as steps of the work"), "keepCuts", QKeySequence("Ctrl+Shift+K"), [this] { keepCuts(); });
    add(tr("Fit a shape through places of a scan…"), "fitShape", QKeySequence("Ctrl+F"), [this] { beginFitting(); });
    add(tr("Picture of the scans…"), "savePicture", QKeySequence("Ctrl+G"), [this] { savePicture(); });
    menu_->addSeparator();
    buildInstrumentMenu();
    add(tr("Call out readings"), "callOut", QKeySequence("F4"), [this] { toggleCallOut(); });
    add(tr("Day or Dye"), "switchGround", QKeySequence("F8"),
        [this] { setGround(theme_.ground() == Ground::Day ? Ground::Dye : Ground::Day); });
    add(tr("Larger text"), "largerText", QKeySequence("Ctrl++"),
        [this] { setTextScale(std::min(1.5, theme_.textScale() + 0.25)); });
    add(tr("Smaller text"), "smallerText", QKeySequence("Ctrl+-"),
        [this] { setTextScale(std::max(1.0, theme_.textScale() - 0.25)); });
    QMenu* show = menu_->addMenu(tr("Show lengths in"));
    for (const auto& [text, line] :
         {std::pair{"mm to 0.1", "show mm 0.1"}, std::pair{"mm to 0.5", "show mm 0.5"}, std::pair{"mm to 1", "show mm 1"},
          std::pair{"inches to 1/16", "show inch 1/16"}, std::pair{"inches to 1/32", "show inch 1/32"},
          std::pair{"inches to 0.001", "show inch 0.001"}})
        connect(show->addAction(tr(text)), &QAction::triggered, this, [this, line = QString(line)] { enter(line); });
    add(tr("What can be typed"), "help", QKeySequence::HelpContents, [this] { showHelp(); });
    menu_->addSeparator();
    add(tr("Quit"), "quit", QKeySequence::Quit, [this] { close(); });
}

void MainWindow::buildCentral() {
    auto* central = new QWidget;
    central->setObjectName("central");
    auto* column = new QVBoxLayout(central);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    std::vector<const Bench*> list;
    for (const auto& b : benches_) list.push_back(b.get());
    strip_ = new VerbStrip(list, menu_);
    connect(strip_, &VerbStrip::chosen, this, &MainWindow::showBench);
    column->addWidget(strip_);

    pages_ = new QStackedWidget;
    column->addWidget(pages_, 1);
    auto* welcome = new QWidget;
    auto* middle = new QVBoxLayout(welcome);
    auto* hello = new QLabel(tr("A body, a chassis, and a tape."));
    hello->setObjectName("welcomeSentence");
    hello->setAlignment(Qt::AlignCenter);
    auto* what = new QLabel(
        tr("Gorvet needs a file to keep your readings in. Everything you enter is kept at once; there is nothing to save."));
    what->setProperty("second", true);
    what->setAlignment(Qt::AlignCenter);
    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    for (const char* name : {"newBuild", "openBuild", "practise1"}) {
        auto* action = findChild<QAction*>(name);
        auto* button = new QPushButton(QString(name) == "practise1" ? tr("Practise on a crooked frame…") : action->text());
        button->setObjectName(QString("welcome_") + name);
        button->setMinimumHeight(56);
        button->setMinimumWidth(220);
        connect(button, &QPushButton::clicked, action, &QAction::trigger);
        buttons->addWidget(button);
    }
    buttons->addStretch(1);
    middle->addStretch(1);
    middle->addWidget(hello);
    middle->addWidget(what);
    middle->addSpacing(24);
    middle->addLayout(buttons);
    middle->addStretch(1);
    pages_->addWidget(welcome);

    auto* desk = new QWidget;
    desk->setObjectName("sheetArea");
    auto* area = new QVBoxLayout(desk);
    area->setContentsMargins(0, 0, 0, 0);
    area->setSpacing(0);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(32, 14, 24, 4);
    auto* words = new QVBoxLayout;
    words->setSpacing(2);
    headline_ = new QLabel;
    headline_->setObjectName("headline");
    headline_->setWordWrap(true);
    below_ = new QLabel;
    below_->setObjectName("below");
    below_->setProperty("second", true);
    below_->setWordWrap(true);
    words->addWidget(headline_);
    words->addWidget(below_);
    head->addLayout(words, 1);
    subject_row_ = new QHBoxLayout;
    head->addLayout(subject_row_);
    area->addLayout(head);
    sheet_ = new SheetView;
    sheet_->setObjectName("sheet");
    connect(sheet_, &SheetView::picked, this, [this](const QString& tag, const QPoint& at) { showCard(tag, at, sheet_); });
    connect(sheet_, &SheetView::pickedNothing, this, [this] { card_->close(); });
    auto* sheet_box = new QVBoxLayout;
    sheet_box->setContentsMargins(32, 4, 24, 4);
    sheet_stack_ = new QStackedWidget;
    sheet_stack_->addWidget(sheet_);
    sheet_box->addWidget(sheet_stack_);
    area->addLayout(sheet_box, 1);

    starters_ = new QWidget;
    starter_row_ = new QHBoxLayout(starters_);
    starter_row_->setContentsMargins(0, 0, 0, 0);
    starter_row_->setSpacing(6);
    starter_scroll_ = new QScrollArea;
    starter_scroll_->setObjectName("starterScroll");
    starter_scroll_->setFrameShape(QFrame::NoFrame);
    starter_scroll_->setWidgetResizable(true);
    starter_scroll_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    starter_scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    starter_scroll_->setFocusPolicy(Qt::NoFocus);
    starter_scroll_->setWidget(starters_);
    auto* foot = new QVBoxLayout;
    foot->setContentsMargins(24, 0, 24, 8);
    foot->setSpacing(6);
    foot->addWidget(starter_scroll_);
    entry_ = new EntryLine;
    foot->addWidget(entry_);
    entry_->setIsName([this](const QString& word) {
        return build::pointNamed(document_.latest(), state_.subject, word.toStdString()) != nullptr;
    });
    area->addLayout(foot);
    connect(entry_, &EntryLine::submitted, this, [this](const QString& line) { enter(line, From::EntryLine); });
    connect(entry_, &EntryLine::edited, this, &MainWindow::preview);
    connect(entry_, &EntryLine::otherPair, this, [this](int step) {
        state_.skip = std::max(0, state_.skip + step);
        entry_->setProposal(bench().proposal(document_, state_), bench().placeholder());
        sheet_->refresh();
        askInstrument();
    });

    auto* rule_area = new QWidget;
    rule_area->setObjectName("ruleArea");
    rule_area->setAttribute(Qt::WA_StyledBackground);
    auto* rule_box = new QVBoxLayout(rule_area);
    rule_box->setContentsMargins(0, 0, 0, 0);
    rule_ = new RuleView;
    rule_->setObjectName("rule");
    rule_->setAccessibleName(tr("The Rule: body edge over chassis edge"));
    rule_box->addWidget(rule_);
    area->addWidget(rule_area);
    connect(rule_, &SheetView::picked, this, [this](const QString& tag, const QPoint& at) { showCard(tag, at, rule_); });
    connect(rule_, &SheetView::pickedNothing, this, [this] { card_->close(); });
    connect(rule_, &RuleView::slid, this, [this](double mm) {
        slide_mm_ = mm;
        rule_->refresh();
        if (inSpace() && scene_pane_) tryBody({mm, 0, 0});
    });
    connect(rule_, &RuleView::letGo, this, &MainWindow::slideBody);
    connect(rule_, &RuleView::placePicked, this, [this](double x) {
        if (!document_.isOpen() || !inSpace()) return;
        if (const auto station =
                analysis::ruleStation(document_.build(), document_.results(), rule_->width(), x, theme_.format()))
            goToStation(*station);
    });

    card_ = new CardView(desk);
    connect(card_, &CardView::line, this, [this](const QString& line) { enter(line, From::Card); });
    connect(card_, &CardView::photoFor, this, &MainWindow::addPhoto);
    connect(card_, &CardView::closed, this, [this] {
        state_.selected.clear();
        sheet_->refresh();
        entry_->field()->setFocus();
    });
    pages_->addWidget(desk);
    call_out_ = new CallOut;
    connect(call_out_, &CallOut::left, this, &MainWindow::toggleCallOut);
    connect(call_out_, &CallOut::figure, this, &MainWindow::takeCalledOut);
    connect(call_out_, &CallOut::otherPair, this, [this](int step) {
        state_.skip = std::max(0, state_.skip + step);
        refreshCallOut(false);
    });
    call_out_->setSketch([this](double w, double h, const sheet::Format& f) {
        if (!document_.isOpen() || !calling_out_) return sheet::Drawing{};
        const auto next = bench().proposal(document_, state_);
        if (!next || !next->ends) return sheet::Drawing{};
        const auto subject = bench().key() == "tape" ? state_.subject : build::the_chassis;
        return analysis::pairView(document_.results(), subject, *next->ends, w, h, f);
    });
    pages_->addWidget(call_out_);
    setCentralWidget(central);
    sheet_->setMaker([this](double w, double h, const sheet::Format& f) {
        return document_.isOpen() ? bench().draw(document_, state_, w, h, f) : sheet::Drawing{};
    });
    rule_->setMaker([this](double w, double h, const sheet::Format& f) {
        if (!document_.isOpen()) return sheet::Drawing{};
        return analysis::ruleView(document_.build(), document_.results(), {state_.selected, {}, slide_mm_}, w, h, f);
    });
}

void MainWindow::shortcuts() {
    for (size_t i = 0; i < benches_.size(); ++i)
        connect(new QShortcut(QKeySequence(QString("Alt+%1").arg(i + 1)), this), &QShortcut::activated, this,
                [this, i] { showBench(static_cast<int>(i)); });
    connect(new QShortcut(QKeySequence("F6"), this), &QShortcut::activated, this, [this] {
        const auto order = build::subjectsInOrder(document_.build());
        const auto now = std::find(order.begin(), order.end(), state_.subject);
        turnTo(now == order.end() || now + 1 == order.end() ? order.front() : *(now + 1));
    });
    connect(new QShortcut(QKeySequence("F2"), this), &QShortcut::activated, this, [this] { entry_->field()->setFocus(); });
}

// ---- showing

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
    size(findChild<QLabel*>("welcomeSentence"), 24);
    sheet_->setTheme(theme_);
    if (scene_pane_) scene_pane_->setTheme(theme_);
    rule_->setTheme(theme_);
    call_out_->setTheme(theme_);
    rule_->setFixedHeight(theme_.px(110));
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
    current_ = index;
    calling_out_ = false;
    strip_->setCurrent(index);
    state_.selected.clear();
    state_.skip = 0;
    state_.compare = false;
    state_.way = false;
    card_->hide();
    entry_->clear();
    refresh();
    entry_->field()->setFocus();
}

void MainWindow::refresh() {
    if (!document_.isOpen()) calling_out_ = false;
    pages_->setCurrentIndex(!document_.isOpen() ? 0 : calling_out_ ? 2 : 1);
    if (calling_out_) {
        refreshCallOut(called_out_ && !document_.stale());
        if (!document_.stale()) called_out_ = false;
    }
    const auto& r = document_.results();
    for (size_t i = 0; i < benches_.size(); ++i) {
        const std::string_view key = benches_[i]->key();
        bool any = document_.isOpen() && benches_[i]->info().begun(document_.build(), r);
        // no mark before it is known: a good one would say that nothing fouls
        if (key == "scan") any = any && room_->current();
        strip_->setWorst(static_cast<int>(i), analysis::worstOf(r.findings, key), any);
    }
    const bool tape = bench().key() == "tape";
    refreshSubjects(tape);
    slide_mm_ = 0;
    showSpace();
    refreshWords();
    refreshStarters();
    entry_->setProposal(document_.isOpen() ? bench().proposal(document_, state_) : std::nullopt, bench().placeholder());
    rule_->setScale(document_.isOpen() && r.seated() ? analysis::ruleScale(document_.build(), r, rule_->width(), theme_.format())
                                                     : 0);
    sheet_->refresh();
    rule_->refresh();
    askInstrument();
    if (document_.store()) {
        const auto undo = QString::fromStdString(document_.store()->undoSentence());
        const auto redo = QString::fromStdString(document_.store()->redoSentence());
        undo_->setText(undo.isEmpty() ? tr("Undo") : tr("Undo: %1").arg(undo));
        redo_->setText(redo.isEmpty() ? tr("Do again") : tr("Do again: %1").arg(redo));
    }
}

void MainWindow::refreshWords() {
    if (!document_.isOpen()) {
        strip_->setWords(tr("no build open"), QString());
        setWindowTitle("Gorvet");
        return;
    }
    const auto h = bench().key() == "scan" ? (state_.way ? room_->wayHeadline() : room_->headline())
                                           : bench().info().headline(document_.build(), document_.results(), state_.subject);
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

void MainWindow::refreshStarters() {
    while (QLayoutItem* item = starter_row_->takeAt(0)) {
        if (item->widget()) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    if (document_.isOpen())
        for (const Starter& starter : bench().starters(document_, state_)) {
            auto* button = new QPushButton(starter.label);
            button->setObjectName("start_" + starter.line.trimmed().remove('!').replace(' ', '_'));
            button->setFocusPolicy(Qt::TabFocus);
            connect(button, &QPushButton::clicked, this, [this, line = starter.line] {
                if (line.startsWith('!'))
                    findChild<QAction*>(line.mid(1))->trigger();
                else if (line.endsWith(' '))
                    entry_->beginWith(line);
                else
                    enter(line);
            });
            starter_row_->addWidget(button);
        }
    starter_row_->addStretch(1);
    starter_scroll_->setFixedHeight(theme_.px(15) + 30);
    starter_scroll_->setVisible(theme_.textScale() < 1.4); // with very large text the sheet needs the room; F1 lists the same
}

void MainWindow::say(const QString& text, const char* role) { entry_->setEcho(text, role); }

} // namespace gorvet::desk
