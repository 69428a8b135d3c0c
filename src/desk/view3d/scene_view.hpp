#pragma once

#include "desk/shell/theme.hpp"
#include "desk/view3d/camera.hpp"
#include "desk/view3d/scribed_picture.hpp"
#include "sit/clearance.hpp"
#include "units/quantity.hpp"

#include <QImage>
#include <QOffscreenSurface>
#include <QOpenGLContext>
#include <QTimer>
#include <QWidget>
#include <memory>
#include <optional>

namespace gorvet::desk {

class SceneOverlay;

/// A line drawn over the meshes, in the chassis frame.
struct SceneLine {
    std::vector<Point3> places;
    bool closed = false;
    sheet::Ink ink = sheet::Ink::Remove;
    std::uint32_t cut = 0; ///< a kept cut, whose corners can be dragged over the body; 0: none
};
/// Words at a place, on a leader: what is wrong there.
struct SceneLabel {
    Point3 at{}; ///< in the chassis frame
    QString words;
    sheet::Severity severity = sheet::Severity::Bad;
    std::string tag;
};
struct ScenePick {
    Point3 at{}; ///< in the chassis frame
    int layer = 0;
    std::optional<double> u95_mm = {}; ///< ± at 95 %: how sharp the scan is there, with the seat's for what is on the body
};

/// Scans to scale: body and chassis, the body's sheet in bands of clearance, a section at a station. Drag turns, with Shift or
/// the middle button shifts, the wheel zooms, a click picks; with Ctrl a drag moves the body. A kept
/// cut's corner is dragged over the sheet. The picture is made beside the screen and painted as a picture: a window with an
/// OpenGL part in it is composed anew as a whole for every caret in it, which takes software longer than the picture.
class SceneView : public QWidget, protected Gl {
    Q_OBJECT
public:
    enum Layer { Body, Chassis, NewSteel, ToRemove, layers };
    static sheet::Ink inkOf(Layer);
    explicit SceneView(QWidget* parent = nullptr);
    ~SceneView() override;
    void setTheme(const Theme&);
    void setMesh(Layer, std::shared_ptr<SceneMesh>);
    const std::shared_ptr<SceneMesh>& mesh(Layer l) const { return meshes_[l]; }
    void setShown(Layer, bool);
    /// What is not there at the moment, whether one wants to see its layer or not.
    void setAway(Layer, bool);
    /// Parts of the chassis that move: drawn where moveLoose puts them, as they stand until then.
    void setLoose(const std::vector<std::shared_ptr<SceneMesh>>&);
    void moveLoose(const std::vector<geometry::RigidTransform>&);
    std::vector<geometry::RigidTransform> loosePoses() const;
    bool shown(Layer l) const { return shown_[l]; }
    void setSeat(const geometry::RigidTransform&);
    const geometry::RigidTransform& seat() const { return seat_; }
    /// Of the body's points, in their order; empty: no bands.
    /// `unlike`: parts need unlike clearances, and each point is shown on the scale of `need`.
    void setDistances(const std::vector<float>&, const sit::Need&, bool unlike = false);
    bool unlikeNeeds() const { return unlike_needs_; }
    void setLines(std::vector<SceneLine>);
    /// The worst first: what has no room is left out.
    void setLabels(std::vector<SceneLabel>);
    const std::vector<SceneLabel>& labels() const { return labels_; }
    /// The label whose words were painted there; nullptr when there is none.
    const SceneLabel* labelAt(const QPointF&) const;
    void setSection(std::optional<double> station_mm);
    std::optional<double> section() const { return section_; }
    /// What stands over the view at its upper and lower edge: the picture keeps clear of it.
    void setRoom(int above_px, int below_px);
    int roomAbove() const { return room_above_; }
    int roomBelow() const { return room_below_; }
    /// About where what is shown stands in the picture.
    QRectF modelOnWidget() const;
    void lookFrom(ViewFrom);
    void showAll();
    /// Turns to a place, near enough to see what is there.
    void lookAt(const Point3&);
    /// Zooms to a station as The Rule has it.
    void showStation(double station_mm);
    const Camera& camera() const { return camera_; }
    const std::vector<ScenePick>& picks() const { return picks_; }
    void clearPicks();
    /// What the newest pick is good for.
    void setPickU95(double mm);
    /// What lengths are shown in.
    void setLengthStep(units::LengthStep);
    QString length(double mm, bool with_unit = false) const;
    units::LengthStep lengthStep() const { return length_step_; }
    const Theme& theme() const { return theme_; }
    const sit::Need& need() const { return need_; }
    bool hasBands() const { return !distances_.empty(); }
    const std::vector<SceneLine>& lines() const { return lines_; }
    /// Whether a line's corners can be dragged: it is a kept cut, and near enough to tell them apart.
    bool hasGrips(const SceneLine&) const;
    /// Outline of each layer at the section, in the chassis frame.
    const std::vector<shape::Polyline>& outline(Layer l) const { return outline_[l]; }
    /// Where the picture's ray first meets something that is shown.
    std::optional<ScenePick> pickAt(const QPointF&) const;
    /// The station range of what is shown.
    std::optional<std::pair<Point3, Point3>> box() const;
    /// Whether the picture is as fine as it becomes: nothing moves, and its edges are smooth.
    bool isSettled() const { return !in_motion_ && picture_.isDone(); }
    /// The picture with what is written over it, as fine as it becomes.
    QImage finished();
    /// The picture alone, as it is now.
    const QImage& picture() const { return shown_picture_; }

signals:
    void picked(const gorvet::desk::ScenePick&);
    void labelPicked(const QString& tag, const QPoint& at);
    void bodyDragged(const gorvet::desk::Point3& by_mm); ///< from where the drag began
    void bodyDropped(const gorvet::desk::Point3& by_mm);
    void cornerDropped(quint32 cut, int corner, const gorvet::desk::Point3& at); ///< in the chassis frame
    void moved();                                                                ///< camera, section or picks
    void drawn();                                                                ///< there is a new picture
    void hovered(std::optional<double> station_mm);                              ///< of what is under the pointer

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    /// Something in the picture changed.
    void redraw();
    /// False where the machine can't.
    bool begin();
    void draw();
    void fillBuffers();
    ScribedView scribedView() const;
    std::vector<ScribedPart> scribedParts() const;
    void moving();
    void findOutlines();
    QPointF onWidget(const Point3&) const;
    /// Of all that is shown, in the chassis frame; of large meshes the thinned ones.
    std::vector<Point3> shownPlaces() const;
    geometry::RigidTransform placed(Layer l) const { return l == Body || l == ToRemove ? seat_ : geometry::RigidTransform{}; }

    Theme theme_{Ground::Day, 1.0};
    units::LengthStep length_step_ = units::LengthStep::Mm01;
    Camera camera_;
    std::shared_ptr<SceneMesh> meshes_[layers];
    bool shown_[layers] = {true, true, true, true};
    bool away_[layers] = {};
    bool drawnNow(Layer l) const { return meshes_[l] && shown_[l] && !away_[l]; }
    struct Loose {
        std::shared_ptr<SceneMesh> mesh;
        geometry::RigidTransform pose;
        std::unique_ptr<MeshBuffers> buffers; ///< filled when it is drawn first
    };
    std::vector<Loose> loose_;
    std::unique_ptr<MeshBuffers> buffers_[layers];
    bool dirty_[layers] = {};
    bool dirty_distances_ = false;
    geometry::RigidTransform seat_;
    std::vector<float> distances_;
    sit::Need need_;
    bool unlike_needs_ = false;
    std::vector<SceneLine> lines_;
    std::vector<SceneLabel> labels_;
    std::optional<double> section_;
    std::optional<std::pair<Point3, Point3>> box_; ///< of what is shown, when it was shown
    std::vector<shape::Polyline> outline_[layers];
    std::vector<ScenePick> picks_;
    std::unique_ptr<QOffscreenSurface> surface_;
    std::unique_ptr<QOpenGLContext> context_;
    ScribedPicture picture_;
    QImage shown_picture_;
    bool can_draw_ = true;
    bool stale_ = true; ///< what is shown is not what it should be
    SceneOverlay* overlay_ = nullptr;
    QTimer rest_; ///< the full meshes are drawn once the view stands still
    bool in_motion_ = false;
    int room_above_ = 0, room_below_ = 0;
    bool turned_ = false; ///< somebody chose what is in the picture
    QPointF pressed_, last_;
    bool clicked_ = false;
    bool dragging_body_ = false;
    /// A corner under the mouse, or dragged: its line and its place in it.
    std::optional<std::pair<size_t, size_t>> cornerAt(const QPointF&) const;
    std::optional<std::pair<size_t, size_t>> corner_;
};

} // namespace gorvet::desk
