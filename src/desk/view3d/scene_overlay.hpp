#pragma once

#include "desk/view3d/camera.hpp"

#include <QWidget>
#include <functional>

namespace gorvet::desk {

struct SceneLabel;
class SceneView;

/// Lines and figures over the meshes: cuts, picks and their distance, the section drawn to scale, the scale, what the bands mean.
class SceneOverlay : public QWidget {
    Q_OBJECT
public:
    explicit SceneOverlay(SceneView*);

    /// The label whose words stand there; nullptr when there is none.
    const SceneLabel* labelAt(const QPointF&) const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QRectF sectionPanel() const;
    void paintSection(QPainter&);
    void paintScale(QPainter&);
    void paintBands(QPainter&);
    void paintCutFaces(QPainter&, const std::function<QPointF(const Point3&)>& on_widget);
    void paintPicks(QPainter&);
    void placeLabels(const QFontMetricsF&, const std::function<QPointF(const Point3&)>& on_widget);
    void paintLabels(QPainter&, const std::function<QPointF(const Point3&)>& on_widget);
    SceneView* view_;
    QRectF legend_;                                   ///< what the bands mean stands there
    std::vector<std::pair<QRectF, size_t>> labelled_; ///< where labels were painted, and which
};

} // namespace gorvet::desk
