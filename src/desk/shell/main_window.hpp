#pragma once

#include "analysis/lead.hpp"
#include "desk/shell/bench.hpp"
#include "desk/shell/recent.hpp"
#include "desk/shell/theme.hpp"
#include "desk/shell/tool.hpp"

#include <QMainWindow>
#include <QPointer>
#include <QTimer>
#include <functional>
#include <map>
#include <memory>

class QLabel;
class QMenu;
class QStackedWidget;
class QBoxLayout;
class QGridLayout;
class QHBoxLayout;
class QPushButton;
class QSettings;
class QToolButton;

namespace gorvet::desk {

class CallOut;
class HungSheet;
class PhotoFolder;
class PhotoKeeper;
class CardView;
class EntryLine;
class Finder;
class HandbookView;
struct Findable;
class InstrumentLink;
class LineWords;
class ListPane;
class RuleView;
class SheetView;
class Space;
class StartPage;
class VerbStrip;
class WordRow;

/// The desk: verb strip, one sentence, the sheet with its cards, the entry line, The Rule. It knows no bench by name.
class MainWindow : public QMainWindow, private Desk {
    Q_OBJECT
public:
    MainWindow();
    ~MainWindow() override;
    /// Opens a build; says in the window why it can't.
    bool openFile(const QString& path);
    QString freePath(const QString& name) const override { return recent_.freePath(name); }
    bool makeFile(const QString& path, const build::Settings& = {}) override;
    Document& document() override { return document_; }
    SlowWork& slow() override { return slow_; }
    Space& space() override { return *space_; }
    void setGround(Ground);
    void setTextScale(double);
    /// Shows the bench of that key; nothing happens where there is none.
    void setBench(std::string_view key);
    std::string_view shownBench() const { return bench().key(); }
    /// Shows one of its sheets.
    void setView(std::string_view key);
    std::string_view shownView() const override;
    /// Where a line comes from: only the entry line is cleared by what it gave, and a card hears its own errors.
    enum class From { EntryLine, Card, Elsewhere };
    /// Reads and keeps one line, as if typed. True when it was taken.
    bool enter(const QString& line, From from = From::Elsewhere);
    /// What speaks against keeping it, the first time that this line is entered; empty: nothing, or it was asked already.
    QString weighed(const entry::Understood&, const QString& line);
    /// Window, bench, ground, text size and sound as they were left.
    void recall(QSettings&);
    void remember(QSettings&) const;
    InstrumentLink& instruments() override { return *instruments_; }
    /// Fills the window with the next reading, or goes back to the desk.
    void toggleCallOut();
    /// Opens the handbook at a page; the bench's own where none is said.
    void openHandbook(const QString& key = {}, const QString& heading = {});
    /// Leaves the build for the start page.
    void closeBuild();
    /// How the build that is open looks, for the start page.
    void keepPicture();

signals:
    /// Another build was opened or made: worth remembering at once.
    void buildsChanged();

protected:
    void keyPressEvent(QKeyEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    // what acts and tools use
    Worker& worker() override { return worker_; }
    QWidget* over() override { return this; }
    build::SubjectId subject() const override { return state_.subject; }
    void turn(std::string_view bench, std::string_view view) override;
    void beginLine(const QString& line, int caret) override;
    void say(const QString& text, const char* role = "good") override;
    bool keep(const Result<build::Edit>&) override;
    void take(std::unique_ptr<Tool>) override;
    void putDown() override;

    // parts
    void buildMenu();
    QAction* addAct(QMenu*, const Act&);
    void buildCentral();
    StartPage* buildStart();
    QWidget* buildHead();
    QLayout* buildSheet();
    void placeSheet();
    void placeHead();
    void placeRule();
    QLayout* buildFoot();
    QWidget* buildRule();
    void buildCard(QWidget* over);
    void buildCallOut();
    void buildHandbook();
    void buildSpace();
    void pointOnRule(std::optional<double> station_mm);
    void buildInstruments(QMenu*);
    void shortcuts();

    // showing
    void showBench(int index);
    void showView(std::size_t index);
    void refresh();
    void refreshMarks();
    void refreshWords();
    void refreshViews();
    void refreshSubjects();
    void refreshStarters();
    void makeStarters(bool figures);
    void refreshTool();
    void want();
    void turnTo(build::SubjectId);
    void preview();
    void refreshLineWords();
    void showWords(); ///< the row above the line, where there is room for it
    void completeWord();
    void replaceBegun(const QString& word);
    bool pickedPoint(const QString& tag); ///< its name goes on the line that waits for one
    std::vector<Findable> findables();
    std::vector<Findable> findings();
    void find();
    void findFindings(); ///< all of them in a list: a tap on what has no room
    void showCard(const QString& tag, const QPoint& at, QWidget* from);
    bool inSpace() const;  ///< the sheet shows the scans
    int sheetPage() const; ///< of the stack: a drawing, the scans, a list
    void refreshList();
    void drag(const Drag&, bool let_go);
    void picked(const Pick&);
    bool escape();

    // long work, call-out, instruments, files
    void watch(Worker&);
    const Worker* anyWork() const;
    void showWork();
    void cancelWork();
    void refreshCallOut(bool sound);
    void takeCalledOut(const QString& text);
    void showLog();
    void arrived();
    static QString demoFile(); ///< that came with the program; empty: none did
    void openDemo();
    void mend(const analysis::Lack&);
    void addPhoto(const QString& line);
    void addPhotos(const analysis::PhotoAbout&);
    PhotoKeeper& photoKeeper();
    void showWeek();
    void keepPhoto(const QString& path, const QString& line);
    void watchPhotos();
    void hangUp();
    void photoArrived(const QString& path);
    void connectInstrument(const QString& address);
    void askInstrument();
    void takeReading();
    void takeFigure(const QString& figure, const QString& instrument);

    entry::Context context() const;
    const Bench& bench() const { return *benches_[static_cast<size_t>(current_)]; }
    const analysis::BenchView* view() const { return bench().view(state_); }

    Document document_;
    SlowWork slow_{document_};
    Theme theme_{Ground::Day, 1.0};
    ViewState state_;
    std::vector<std::unique_ptr<Bench>> benches_;
    std::map<std::string_view, std::size_t> views_; ///< which sheet of each bench was shown last
    int current_ = 0;
    double slide_mm_ = 0;
    std::unique_ptr<Tool> tool_;
    bool calling_out_ = false;
    bool called_out_ = false; ///< a figure of the call-out waits for its verdict
    QString doubted_;         ///< a line that was asked about: entered again, unchanged, it is kept
    bool more_words_ = false; ///< all that begins a line here is offered
    bool tap_figure_ = false; ///< the figure that completes what is proposed is tapped
    bool handing_on_ = false; ///< a key goes to the line
    bool tapping_ = false;    ///< the line is made by taps: keys are shown, too
    QTimer patience_;
    QTimer words_soon_; ///< what may stand next is looked for once the key was taken

    Recent recent_;
    StartPage* start_ = nullptr;
    std::map<std::string_view, QAction*> acts_;
    QMenu* menu_ = nullptr;
    QAction* undo_ = nullptr;
    QAction* redo_ = nullptr;
    QStackedWidget* pages_ = nullptr;
    VerbStrip* strip_ = nullptr;
    QLabel* headline_ = nullptr;
    QLabel* below_ = nullptr;
    std::map<build::SubjectId, QPushButton*> subjects_; ///< of what can be surveyed, one each
    QPointer<HungSheet> hung_;                          ///< a sheet in a window of its own
    PhotoKeeper* photo_keeper_ = nullptr;               ///< the same
    PhotoFolder* photos_ = nullptr;                     ///< made when it is asked for
    QPushButton* more_subjects_ = nullptr;              ///< a menu of all, where they are many
    QHBoxLayout* subject_row_ = nullptr;
    QWidget* view_buttons_ = nullptr;
    SheetView* sheet_ = nullptr;
    QStackedWidget* sheet_stack_ = nullptr;
    QWidget* head_ = nullptr;
    QBoxLayout* head_row_ = nullptr;
    QGridLayout* sheet_place_ = nullptr; ///< the sheet under its head, or behind it
    Space* space_ = nullptr;
    ListPane* list_ = nullptr;
    CardView* card_ = nullptr;
    QWidget* tool_row_ = nullptr;
    QWidget* starters_ = nullptr;
    std::vector<analysis::Lack> lacks_; ///< that have a button there, and what is begun there
    std::vector<Starter> starts_;
    QStringList starters_said_;
    QHBoxLayout* starter_row_ = nullptr;
    WordRow* word_row_ = nullptr;
    QPushButton* more_ = nullptr;       ///< all that begins a line here
    QToolButton* bench_acts_ = nullptr; ///< all that the bench can do
    EntryLine* entry_ = nullptr;
    LineWords* line_words_ = nullptr;
    Finder* finder_ = nullptr;
    RuleView* rule_ = nullptr;
    CallOut* call_out_ = nullptr;
    HandbookView* handbook_ = nullptr;
    bool reading_ = false; ///< the handbook is open
    InstrumentLink* instruments_ = nullptr;
    QAction* keep_at_once_ = nullptr;
    Worker worker_; ///< exports and imports; last: it stops before what it tells goes
};

} // namespace gorvet::desk
