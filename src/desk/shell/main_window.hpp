#pragma once

#include "desk/shell/bench.hpp"
#include "desk/shell/theme.hpp"
#include "formats/points_csv.hpp"
#include "formats/readings_csv.hpp"

#include <QMainWindow>
#include <QTimer>
#include <functional>
#include <memory>

class QLabel;
class QMenu;
class QStackedWidget;
class QHBoxLayout;
class QPushButton;
class QScrollArea;
class QSettings;

namespace gorvet::analysis {
struct LaidScan;
}

namespace gorvet::desk {

class CallOut;
class CardView;
class EntryLine;
class InstrumentLink;
class RuleView;
class ScanRoom;
class ScenePane;
struct ScenePick;
class SheetView;
class VerbStrip;

/// The desk: verb strip, one sentence, the sheet with its cards, the entry line, The Rule.
class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    MainWindow();
    ~MainWindow() override;
    /// Opens a build; says in the window why it can't.
    bool openFile(const QString& path);
    bool makeFile(const QString& path);
    Document& document() { return document_; }
    void setGround(Ground);
    void setTextScale(double);
    /// Shows the bench of that key; nothing happens where there is none.
    void setBench(std::string_view key);
    std::string_view shownBench() const { return bench().key(); }
    /// Where a line comes from: only the entry line is cleared by what it gave, and a card hears its own errors.
    enum class From { EntryLine, Card, Elsewhere };
    /// Reads and keeps one line, as if typed. True when it was taken.
    bool enter(const QString& line, From from = From::Elsewhere);
    /// Window, bench, ground, text size and sound as they were left.
    void recall(QSettings&);
    void remember(QSettings&) const;
    InstrumentLink& instruments() { return *instruments_; }
    /// Fills the window with the next reading, or goes back to the desk.
    void toggleCallOut();

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void showBench(int index);
    void buildMenu();
    void buildCentral();
    void shortcuts();
    void refresh();
    void refreshWords();
    void refreshSubjects(bool shown);
    void turnTo(build::SubjectId);
    QString subjectName() const;
    void refreshStarters();
    void preview();
    void showCard(const QString& tag, const QPoint& at, QWidget* from);
    void slideBody(double mm);
    void watch(Worker&);
    const Worker* anyWork() const;
    void showWork();
    void cancelWork();
    void refreshCallOut(bool sound);
    void takeCalledOut(const QString& text);
    void showHelp();
    void showLog();
    void importReadings();
    void keepImported(const build::Edit&, const std::vector<formats::CsvProblem>&, const std::string& remark);
    /// Draws pages beside the window and writes them as PDF.
    void writePages(const QString& path, const QString& what, const std::string& title,
                    std::function<std::vector<sheet::Drawing>(const build::Build&, const analysis::Results&)> pages);
    void keepImport(const Result<formats::ReadReadings>&);
    void addPhoto(const QString& line);
    void importPoints(formats::PointsAre);
    void exportReport();
    void buildInstrumentMenu();
    void connectInstrument(const QString& address);
    void askInstrument();
    void takeReading();
    void takeFigure(const QString& figure, const QString& instrument);
    void practise(int difficulty);
    void playPractice();
    void exportEverything();
    void exportBuildSheet();
    // scans
    void buildScene();
    bool inSpace() const; ///< the sheet shows the scans
    void showSpace();
    void showOverlay();
    void addScan();
    void beginLaying();
    void askLaying();
    void finishLaying(build::ScanId, const std::function<void(std::function<void(Result<analysis::LaidScan>)>)>& lay);
    void pickForLaying(const ScenePick&);
    void beginFitting();
    void askFitting();
    void answerFitting(int button);
    void goToStation(double station_mm);
    void answerLaying(int button);
    void pickedInSpace(const ScenePick&);
    void tryBody(const std::array<double, 3>& by_mm);
    void keepDropped(const Result<build::Edit>&);
    void dropCorner(quint32 cut, int corner, const std::array<double, 3>& at);
    void dropBody(const std::array<double, 3>& by_mm);
    void sayWayIn();
    void findSeatings();
    void exportCutMap();
    void keepCuts();
    void savePicture();
    void say(const QString& text, const char* role = "good");
    entry::Context context() const;
    const Bench& bench() const { return *benches_[static_cast<size_t>(current_)]; }

    Document document_;
    Theme theme_{Ground::Day, 1.0};
    ViewState state_;
    std::vector<std::unique_ptr<Bench>> benches_;
    int current_ = 0;
    double slide_mm_ = 0;
    bool sit_in_space_ = false; ///< Sit shows the scans, too
    /// A scan that is being laid: by picks on it and where they belong, on the datum by three, two, one, or on surveyed points.
    struct Laying {
        enum Way { Picks, Markers, Symmetry, Datum, Survey };
        build::ScanId scan;
        Way way = Picks;
        std::vector<std::array<double, 3>> places; ///< of the datum
        std::vector<std::pair<build::PointId, std::array<double, 3>>> surveyed;
        std::vector<std::array<std::array<double, 3>, 2>> pairs;
        std::optional<std::array<double, 3>> half;
    };
    std::optional<Laying> laying_;
    /// Places that are picked for a shape through them.
    struct Fitting {
        int shape = 0;
        std::vector<std::array<double, 3>> places;
        int layer = 0;
    };
    std::optional<Fitting> fitting_;
    bool calling_out_ = false;
    bool called_out_ = false; ///< a figure of the call-out waits for its verdict
    QTimer patience_;

    QMenu* menu_ = nullptr;
    QAction* undo_ = nullptr;
    QAction* redo_ = nullptr;
    QStackedWidget* pages_ = nullptr;
    VerbStrip* strip_ = nullptr;
    QLabel* headline_ = nullptr;
    QLabel* below_ = nullptr;
    std::map<build::SubjectId, QPushButton*> subjects_; ///< of what can be surveyed, one each
    QHBoxLayout* subject_row_ = nullptr;
    SheetView* sheet_ = nullptr;
    QStackedWidget* sheet_stack_ = nullptr;
    ScenePane* scene_pane_ = nullptr;
    ScanRoom* room_ = nullptr;
    CardView* card_ = nullptr;
    QWidget* starters_ = nullptr;
    QHBoxLayout* starter_row_ = nullptr;
    QScrollArea* starter_scroll_ = nullptr;
    EntryLine* entry_ = nullptr;
    RuleView* rule_ = nullptr;
    CallOut* call_out_ = nullptr;
    InstrumentLink* instruments_ = nullptr;
    QAction* keep_at_once_ = nullptr;
    Worker worker_; ///< exports and imports; last: it stops before what it tells goes
};

} // namespace gorvet::desk
