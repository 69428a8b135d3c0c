#pragma once

#include <QWidget>

namespace gorvet::desk {

class SceneView;

/// Lines and figures over the meshes: cuts, picks and their distance, the section drawn to scale, the scale, what the bands mean.
class SceneOverlay : public QWidget {
    Q_OBJECT
public:
    explicit SceneOverlay(SceneView*);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void paintSection(QPainter&);
    void paintScale(QPainter&);
    void paintBands(QPainter&);
    void paintPicks(QPainter&);
    SceneView* view_;
};

} // namespace gorvet::desk
