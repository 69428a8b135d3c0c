// What the window is built of.
#include "desk/shell/main_window.hpp"

#include "analysis/views.hpp"
#include "desk/handbook/handbook.hpp"
#include "desk/handbook/handbook_view.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/call_out.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/shell/finder.hpp"
#include "desk/shell/line_words.hpp"
#include "desk/shell/start_page.hpp"
#include "desk/shell/verb_strip.hpp"
#include "desk/shell/word_row.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/view3d/scene_view.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/list_pane.hpp"
#include "desk/widgets/rule_view.hpp"

#include <QAction>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace gorvet::desk {

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
    pages_->addWidget(buildStart());
    auto* desk = new QWidget;
    desk->setObjectName("sheetArea");
    auto* area = new QVBoxLayout(desk);
    area->setContentsMargins(0, 0, 0, 0);
    area->setSpacing(0);
    area->addLayout(buildSheet(), 1);
    area->addLayout(buildFoot());
    area->addWidget(buildRule());
    buildCard(desk);
    pages_->addWidget(desk);
    buildCallOut();
    pages_->addWidget(call_out_);
    buildHandbook();
    pages_->addWidget(handbook_);
    setCentralWidget(central);
    finder_ = new Finder(central);
    connect(finder_, &Finder::closed, this, [this] { entry_->field()->setFocus(); });
}

StartPage* MainWindow::buildStart() {
    QList<QAction*> first{acts_.at("newBuild"), acts_.at("openBuild")};
    for (const auto& bench : benches_)
        for (const Act& act : bench->acts())
            if (act.at_start) first << acts_.at(act.name);
    if (acts_.at("openDemo")->isVisible()) first << acts_.at("openDemo");
    start_ = new StartPage(recent_, first);
    connect(start_, &StartPage::opened, this, [this](const QString& path) {
        if (!openFile(path)) start_->refresh();
    });
    connect(start_, &StartPage::begun, this, [this](const build::Settings& settings, const QString& path) {
        QString to = path;
        if (to.isEmpty()) {
            to = ask::fileToMake(this, tr("Where to keep the new build"), ask::build_filter,
                                 QFileInfo(recent_.freePath(QString::fromStdString(settings.name))).fileName());
            if (to.isEmpty()) return;
            if (!to.endsWith(".gorvet")) to += ".gorvet";
        }
        makeFile(to, settings);
    });
    return start_;
}

QWidget* MainWindow::buildHead() {
    head_ = new QWidget;
    head_->setObjectName("head");
    head_->setAttribute(Qt::WA_StyledBackground);
    head_row_ = new QBoxLayout(QBoxLayout::LeftToRight, head_);
    head_row_->setContentsMargins(32, 14, 24, 4);
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
    head_row_->addLayout(words, 1);
    auto* buttons = new QHBoxLayout;
    view_buttons_ = new QWidget;
    auto* views = new QHBoxLayout(view_buttons_);
    views->setContentsMargins(0, 0, 0, 0);
    buttons->addStretch(1);
    buttons->addWidget(view_buttons_, 0, Qt::AlignTop);
    buttons->addSpacing(20);
    subject_row_ = new QHBoxLayout;
    buttons->addLayout(subject_row_);
    head_row_->addLayout(buttons);
    return head_;
}

QLayout* MainWindow::buildSheet() {
    sheet_ = new SheetView;
    sheet_->setObjectName("sheet");
    connect(sheet_, &SheetView::picked, this, [this](const QString& tag, const QPoint& at) { showCard(tag, at, sheet_); });
    connect(sheet_, &SheetView::pickedNothing, this, [this] { card_->close(); });
    connect(sheet_, &SheetView::gripMoved, this, [this](const QString& name, double value) {
        state_.grip = name.toStdString();
        state_.grip_value = value;
        sheet_->refresh();
    });
    connect(sheet_, &SheetView::gripDropped, this, [this] {
        state_.grip.clear();
        sheet_->refresh();
    });
    connect(sheet_, &SheetView::gripLeft, this, [this](const QString& name, double value) {
        const bool moved = !state_.grip.empty();
        state_.grip.clear();
        sheet_->refresh();
        if (moved && document_.isOpen() && view() && view()->dragged)
            // one that only shows, like an axle's travel, keeps nothing
            if (const auto line = view()->dragged(document_.build(), document_.results(), name.toStdString(), value);
                !line.empty())
                enter(QString::fromStdString(line));
    });
    sheet_->setMaker([this](double w, double h, const sheet::Format& f) {
        return document_.isOpen() ? bench().draw(document_, state_, w, h, f) : sheet::Drawing{};
    });
    sheet_stack_ = new QStackedWidget;
    // the sheet takes what is left: no page of it holds the window larger than its words do
    sheet_stack_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored);
    sheet_stack_->setMinimumSize(300, 100);
    sheet_stack_->addWidget(sheet_);
    // made before the window is first shown: a window that gets its first OpenGL part later is made anew by the system
    buildSpace();
    sheet_stack_->addWidget(space_->pane());
    list_ = new ListPane;
    connect(list_, &ListPane::picked, this, [this](const QString& tag, const QPoint& at) { showCard(tag, at, list_); });
    connect(list_, &ListPane::typed, this, [this](const QString& line) {
        if (!enter(line)) refreshList();
    });
    sheet_stack_->addWidget(list_);
    sheet_place_ = new QGridLayout;
    sheet_place_->setContentsMargins(0, 0, 0, 0);
    sheet_place_->setSpacing(0);
    sheet_place_->setRowStretch(1, 1);
    sheet_place_->addWidget(buildHead(), 0, 0);
    sheet_place_->addWidget(sheet_stack_, 1, 0);
    space_->pane()->standUnder(head_);
    placeSheet();
    return sheet_place_;
}

/// The buttons stand beside the words, or below them where that takes less height.
void MainWindow::placeHead() {
    int wide = 20;
    for (const QWidget* b : head_->findChildren<QPushButton*>())
        if (b->isVisibleTo(head_)) wide += b->sizeHint().width() + 8;
    const int room = head_->width() - 56;
    const auto words = [&](int width) {
        return headline_->heightForWidth(std::max(120, width)) + below_->heightForWidth(std::max(120, width));
    };
    constexpr int button = 48;
    const bool below = words(room) + button < std::max(words(room - wide), button);
    const auto direction = below ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight;
    if (head_row_->direction() != direction) head_row_->setDirection(direction);
}

/// A drawing stands under the head; the view of the scans takes the whole sheet, and the head stands on it.
void MainWindow::placeSheet() {
    const bool space = inSpace();
    sheet_stack_->setCurrentIndex(sheetPage());
    sheet_stack_->setContentsMargins(space ? 0 : 32, space ? 0 : 4, space ? 0 : 24, space ? 0 : 4);
    sheet_place_->removeWidget(sheet_stack_);
    sheet_place_->addWidget(sheet_stack_, space ? 0 : 1, 0, space ? 2 : 1, 1);
    head_->raise();
}

void MainWindow::buildSpace() {
    space_ = new Space(document_);
    space_->setParent(this);
    SceneView* view = space_->view();
    if (!view) return;
    connect(view, &SceneView::picked, this, [this](const ScenePick& pick) {
        space_->judgePick(pick);
        picked({pick.at, pick.layer});
    });
    connect(view, &SceneView::hovered, this, &MainWindow::pointOnRule);
    connect(view, &SceneView::labelPicked, this, [this, view](const QString& tag, const QPoint& at) {
        space_->turnTo(tag.toStdString());
        showCard(tag, at, view);
    });
    connect(view, &SceneView::bodyDragged, this, [this](const Point3& by) { drag({Drag::What::Body, by}, false); });
    connect(view, &SceneView::bodyDropped, this, [this](const Point3& by) { drag({Drag::What::Body, by}, true); });
    connect(view, &SceneView::cornerDropped, this, [this](quint32 cut, int corner, const Point3& at) {
        drag({Drag::What::Corner, at, cut, corner}, true);
    });
}

/// The station of what the pointer is on in space.
void MainWindow::pointOnRule(std::optional<double> station) {
    if (!station || !document_.isOpen()) return rule_->setPointer(std::nullopt);
    constexpr double apart = 100; // The Rule is one scale
    const auto at = [&](double x) {
        return analysis::ruleStation(document_.build(), document_.results(), rule_->width(), x, theme_.format());
    };
    const auto first = at(0), second = at(apart);
    if (!first || !second || *first == *second) return rule_->setPointer(std::nullopt);
    rule_->setPointer((*station - *first) / (*second - *first) * apart,
                      QString::fromStdString(units::formatLength(*station, document_.build().settings.length_step)));
}

QLayout* MainWindow::buildFoot() {
    starters_ = new QWidget;
    starter_row_ = new QHBoxLayout(starters_);
    starter_row_->setContentsMargins(0, 0, 0, 0);
    starter_row_->setSpacing(6);
    auto* first = new QWidget;
    auto* beside = new QHBoxLayout(first);
    beside->setContentsMargins(0, 0, 0, 0);
    line_words_ = new LineWords;
    line_words_->hide();
    beside->addWidget(starters_);
    beside->addWidget(line_words_);
    word_row_ = new WordRow(first);
    connect(line_words_, &LineWords::word, this, [this](const QString& w) {
        tapping_ = true;
        replaceBegun(w);
    });
    connect(line_words_, &LineWords::letters, this, [this](const QString& letters) {
        tapping_ = true;
        entry_->beginWith(entry_->field()->text() + letters);
    });
    connect(line_words_, &LineWords::rubOut, this, [this] { entry_->beginWith(entry_->field()->text().chopped(1)); });
    connect(line_words_, &LineWords::keepLine, this, [this] { enter(entry_->fullLine(), From::EntryLine); });
    bench_acts_ = new QToolButton;
    bench_acts_->setObjectName("benchActs");
    bench_acts_->setPopupMode(QToolButton::InstantPopup);
    bench_acts_->setMenu(new QMenu(bench_acts_));
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    row->addWidget(word_row_, 1);
    more_ = new QPushButton(tr("more …")); // beside what scrolls: it is never out of sight
    more_->setObjectName("start_more");
    more_->setFocusPolicy(Qt::TabFocus);
    connect(more_, &QPushButton::clicked, this, [this] {
        more_words_ = tapping_ = true;
        refreshLineWords();
    });
    row->addWidget(more_, 0, Qt::AlignRight);
    row->addWidget(bench_acts_);
    tool_row_ = new QWidget;
    tool_row_->setObjectName("toolRow");
    tool_row_->hide();
    auto* foot = new QVBoxLayout;
    foot->setContentsMargins(24, 0, 24, 8);
    foot->setSpacing(6);
    foot->addWidget(tool_row_);
    foot->addLayout(row);
    entry_ = new EntryLine;
    foot->addWidget(entry_);
    entry_->setIsName([this](const QString& word) {
        return build::pointNamed(document_.latest(), state_.subject, word.toStdString()) != nullptr;
    });
    connect(entry_, &EntryLine::submitted, this, [this](const QString& line) { enter(line, From::EntryLine); });
    connect(entry_, &EntryLine::edited, this, [this] {
        doubted_.clear(); // who changes the line is asked about it anew
        preview();
        words_soon_.start(0);
    });
    connect(entry_, &EntryLine::typed, this, [this] { tapping_ = false; });
    connect(entry_, &EntryLine::complete, this, &MainWindow::completeWord);
    words_soon_.setSingleShot(true);
    connect(&words_soon_, &QTimer::timeout, this, &MainWindow::refreshLineWords);
    connect(entry_, &EntryLine::otherPair, this, [this](int step) {
        state_.skip = std::max(0, state_.skip + step);
        entry_->setProposal(bench().proposal(document_, state_), bench().placeholder());
        sheet_->refresh();
        askInstrument();
    });
    return foot;
}

QWidget* MainWindow::buildRule() {
    auto* area = new QWidget;
    area->setObjectName("ruleArea");
    area->setAttribute(Qt::WA_StyledBackground);
    auto* box = new QVBoxLayout(area);
    box->setContentsMargins(0, 0, 0, 0);
    rule_ = new RuleView;
    rule_->setObjectName("rule");
    rule_->setAccessibleName(tr("The Rule: body edge over chassis edge"));
    box->addWidget(rule_);
    rule_->setMaker([this](double w, double h, const sheet::Format& f) {
        if (!document_.isOpen()) return sheet::Drawing{};
        return analysis::ruleView(document_.build(), document_.results(),
                                  {state_.selected, {}, tool_ ? tool_->slide_mm() : slide_mm_}, w, h, f);
    });
    connect(rule_, &SheetView::picked, this, [this](const QString& tag, const QPoint& at) { showCard(tag, at, rule_); });
    connect(rule_, &SheetView::pickedNothing, this, [this] { card_->close(); });
    connect(rule_, &RuleView::slid, this, [this](double mm) {
        slide_mm_ = mm;
        if (inSpace() || tool_) drag({Drag::What::Body, {mm, 0, 0}}, false);
        rule_->refresh();
    });
    // sliding the body edge is the same trial as dragging it in space
    connect(rule_, &RuleView::letGo, this, [this](double mm) {
        slide_mm_ = 0;
        drag({Drag::What::Body, {mm, 0, 0}}, true);
        rule_->refresh();
    });
    connect(rule_, &RuleView::placePicked, this, [this](double x) {
        if (!inSpace() || !space_->view()) return;
        if (const auto station =
                analysis::ruleStation(document_.build(), document_.results(), rule_->width(), x, theme_.format()))
            space_->view()->showStation(*station);
    });
    return area;
}

void MainWindow::buildCard(QWidget* over) {
    card_ = new CardView(over);
    card_->keepAbove(space_->pane()->controls());
    connect(card_, &CardView::line, this, [this](const QString& line) { enter(line, From::Card); });
    connect(card_, &CardView::photoFor, this, &MainWindow::addPhoto);
    connect(card_, &CardView::photosFor, this, &MainWindow::addPhotos);
    connect(card_, &CardView::closed, this, [this] {
        state_.selected.clear();
        sheet_->refresh();
        entry_->field()->setFocus();
    });
}

void MainWindow::buildCallOut() {
    call_out_ = new CallOut;
    connect(call_out_, &CallOut::left, this, &MainWindow::toggleCallOut);
    connect(call_out_, &CallOut::figure, this, &MainWindow::takeCalledOut);
    connect(call_out_->field(), &QLineEdit::textChanged, this, [this] { doubted_.clear(); });
    connect(call_out_, &CallOut::otherPair, this, [this](int step) {
        state_.skip = std::max(0, state_.skip + step);
        refreshCallOut(false);
    });
    call_out_->setSketch([this](double w, double h, const sheet::Format& f) {
        if (!document_.isOpen() || !calling_out_) return sheet::Drawing{};
        const auto next = bench().calledOut(document_, state_);
        if (!next || !next->ends) return sheet::Drawing{};
        const auto of = bench().info().by_subject ? state_.subject : build::the_chassis;
        return analysis::pairView(document_.results(), of, *next->ends, w, h, f);
    });
}

void MainWindow::buildHandbook() {
    handbook_ = new HandbookView;
    connect(handbook_, &HandbookView::left, this, [this] {
        reading_ = false;
        refresh();
    });
    connect(handbook_, &HandbookView::pdfWanted, this, [this] {
        const QString path = ask::fileToMake(this, tr("The handbook as one PDF"), tr("PDF (*.pdf)"), "gorvet-handbook.pdf");
        if (path.isEmpty()) return;
        const QString trouble = handbook::writePdf(path);
        if (!trouble.isEmpty()) ask::tell(this, tr("Not written"), trouble);
    });
}

} // namespace gorvet::desk
