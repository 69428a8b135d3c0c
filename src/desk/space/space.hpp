#pragma once

#include "analysis/scene_times.hpp"
#include "desk/shell/document.hpp"
#include "desk/view3d/scene_view.hpp"

namespace gorvet::desk {

class ScenePane;

/// Meshes that are shown in place of the chassis while something is watched.
struct SceneCast {
    std::shared_ptr<SceneMesh> before;              ///< the chassis as it was surveyed
    std::shared_ptr<SceneMesh> rest;                ///< the chassis without what moves; null: all of it
    std::vector<std::shared_ptr<SceneMesh>> moving; ///< parts on the chassis, along its axes
};

/// The view of the scans, kept in step with the results: meshes are made ready beside the window, and shown where the body sits.
class Space : public QObject {
    Q_OBJECT
public:
    explicit Space(Document&);
    ~Space() override;
    ScenePane* pane() { return pane_; }
    /// Null where there is no OpenGL.
    SceneView* view() const;
    /// Shows what the results have now.
    void follow();
    /// Shows it anew: a trial that was shown is gone.
    void putBack();
    /// The body moved by so much from where it sits, with its bands, and in words how near it comes.
    void tryBody(const Point3& by_mm);
    /// Until endCast: these stand where the chassis stood.
    void cast(SceneCast);
    void endCast();
    /// One moment of what is watched: what stands where, what is nearest marked, and in words.
    void showMoment(const analysis::SceneMoment&);
    /// Turns to the place of a label and cuts the picture open there. Nothing where no label has the tag.
    void turnTo(const std::string& tag);
    /// Lines over the meshes until the results change: a cut map.
    void showLines(const std::vector<SceneLine>&);
    /// How sharp the scan is where it was picked, with what the seat is good for.
    void judgePick(const ScenePick&);
    Worker& worker() { return worker_; }
    const Worker& worker() const { return worker_; }

private:
    using Source = std::shared_ptr<const void>; ///< what a layer is made from
    std::array<Source, SceneView::layers> sources() const;
    void convert();
    void show();
    Document& document_;
    ScenePane* pane_;
    std::array<Source, SceneView::layers> shown_;
    std::shared_ptr<const void> clearance_; ///< whose bands are shown
    struct Of {
        std::shared_ptr<const void> overlay;
        std::shared_ptr<const void> clearance;
        build::Rows<build::PlannedCut> cuts;
        bool operator==(const Of&) const = default;
    };
    Of of_; ///< what is shown now
    SceneCast cast_;
    std::shared_ptr<SceneMesh> own_chassis_; ///< that of the results, while another is cast
    Worker worker_;                          ///< last: it stops before what it works on goes
};

} // namespace gorvet::desk
