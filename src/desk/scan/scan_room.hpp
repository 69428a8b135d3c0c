#pragma once

#include "desk/shell/document.hpp"
#include "desk/view3d/scene_view.hpp"

namespace gorvet::analysis {
struct Overlay;
struct OverlayClearance;
struct WayFound;
struct SeatingClearance;
struct LaidScan;
struct ScanSheets;
struct Finding;
struct Headline;
} // namespace gorvet::analysis
namespace gorvet::sit {
struct CutMap;
} // namespace gorvet::sit

namespace gorvet::desk {

/// The scans of the open build beside the window: read from its file, made ready, laid on each other, looked through for what
/// fouls. Until the new results are in, the last ones stay, marked stale.
class ScanRoom : public QObject {
    Q_OBJECT
public:
    explicit ScanRoom(Document&);
    ~ScanRoom() override;
    /// Looks whether the build asks for something new, and starts it.
    void follow();
    bool ready() const;
    bool stale() const { return worker_.running() || again_; }
    /// What was found is of the results that are shown.
    bool current() const { return overlay_ && clearance_ && revision_ == document_.results().revision; }
    analysis::Headline headline() const;
    std::vector<analysis::Finding> findings() const;
    const analysis::Overlay* overlay() const { return overlay_.get(); }
    const analysis::OverlayClearance* clearance() const { return clearance_.get(); }
    std::shared_ptr<SceneMesh> scene(SceneView::Layer l) const { return scenes_[l]; }
    /// Every pair of parts on its scale; empty until it is known.
    sheet::Drawing pairs(double width, double height, const sheet::Format&) const;
    /// For the sheets: as it is known now; a picture that is kept is read from the file.
    analysis::ScanSheets sheets() const;
    /// The clearance with the body moved by so much from where it sits, at once.
    sit::LiveClearance tried(const Point3& by_mm) const;
    /// Lays a scan on all others by places picked on both, then by what both see. Beside the window; `done` gets the edit.
    void lay(build::ScanId, const std::vector<std::array<Point3, 2>>& picks, bool surfaces,
             std::function<void(Result<build::Edit>)> done);
    /// Lays a scan in another way, beside the window: `how` gets the build, the scan's mesh and the points of all others of its
    /// subject, on the subject's axes.
    using Laid = Result<analysis::LaidScan>;
    void layBy(build::ScanId, std::function<Laid(const build::Build&, const shape::Mesh&, const std::vector<Point3>&)> how,
               std::function<void(Laid)> done);
    /// Its mesh; none while it is not read.
    std::shared_ptr<const shape::Mesh> meshOf(build::ScanId) const;
    /// Beside the window; it can be stopped.
    void findWayIn(std::function<void(const analysis::WayFound&)> done);
    /// As found; none when it was not asked for, or something changed since.
    const analysis::WayFound* way() const { return way_.get(); }
    analysis::Headline wayHeadline() const;
    sheet::Drawing waySheet(double width, double height, const sheet::Format&) const;
    /// How near the scans come in each seating; beside the window. Nothing is done while it is known, or something else is.
    void findSeatings(std::function<void()> done);
    /// None when it was not asked for, or something changed since.
    const std::vector<analysis::SeatingClearance>* seatings() const;
    /// `for_way`: for the way straight down, too.
    void makeCutMap(bool for_way, std::function<void(Result<sit::CutMap>)> done);
    /// What of a scan could not be read.
    QStringList troubles() const { return troubles_; }
    Worker& worker() { return worker_; }

signals:
    void meshesChanged();
    void changed();

private:
    struct Job;
    void start();
    Document& document_;
    std::map<build::ScanId, std::pair<std::string, std::shared_ptr<const shape::Mesh>>>
        meshes_; ///< with what they were read from
    std::shared_ptr<analysis::Overlay> overlay_;
    std::string key_;            ///< of the overlay's meshes
    std::string clearance_key_;  ///< and of what was found beside
    std::int64_t revision_ = -1; ///< of the results that the clearance belongs to
    std::string path_;
    std::shared_ptr<const analysis::OverlayClearance> clearance_;
    std::shared_ptr<const analysis::WayFound> way_;
    std::map<build::PlannedCutId, build::PlannedCut> way_cuts_; ///< that were kept then
    std::shared_ptr<const std::vector<analysis::SeatingClearance>> seatings_;
    std::string seatings_key_;
    std::shared_ptr<SceneMesh> scenes_[SceneView::layers];
    QStringList troubles_;
    bool again_ = false;
    bool stopped_ = false;
    Worker worker_; ///< last: it stops before what it works on goes
};

} // namespace gorvet::desk
