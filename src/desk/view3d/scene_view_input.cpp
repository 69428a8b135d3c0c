// Picking in the 3-D view, and what pointer and keys do.
#include "desk/view3d/scene_view.hpp"

#include "desk/view3d/scene_overlay.hpp"
#include "scan/cloud.hpp"

#include <QElapsedTimer>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>

namespace gorvet::desk {

const SceneLabel* SceneView::labelAt(const QPointF& at) const { return overlay_->labelAt(at); }

std::optional<ScenePick> SceneView::pickAt(const QPointF& at) const {
    Point3 from, way;
    camera_.ray(at.x() - width() / 2.0, at.y() - height() / 2.0, from, way);
    std::optional<ScenePick> best;
    double nearest = 1e300;
    for (int l = 0; l < layers; ++l) {
        if (!drawnNow(static_cast<Layer>(l)) || !meshes_[l]->tree) continue;
        const geometry::RigidTransform back = inverse(placed(static_cast<Layer>(l)));
        Point3 start = from;
        if (section_) {
            // what is cut away can't be picked
            const double side = camera_.towards()[0] > 0.02 ? -1 : 1;
            const double ahead = side * (start[0] - *section_), speed = side * way[0];
            if (ahead < 0 && speed > 1e-9)
                start = geometry::plus(start, geometry::times(way, -ahead / speed));
            else if (ahead < 0)
                continue;
        }
        const auto hit = meshes_[l]->tree->firstHit(back.transformed(start), back.rotated(way));
        if (hit.triangle == shape::kernel::nothing) continue;
        const double depth = hit.at + geometry::between(from, start);
        if (depth >= nearest) continue;
        nearest = depth;
        best = ScenePick{geometry::plus(start, geometry::times(way, hit.at)), l};
    }
    return best;
}

QPointF SceneView::onWidget(const Point3& p) const {
    const Point3 s = camera_.onScreen(p);
    return {width() / 2.0 + s[0], height() / 2.0 + s[1]};
}

bool SceneView::hasGrips(const SceneLine& line) const {
    if (line.cut == 0 || line.places.size() < 2) return false;
    double round = 0;
    for (size_t k = 0; k < line.places.size(); ++k) {
        const QPointF d = onWidget(line.places[k]) - onWidget(line.places[(k + 1) % line.places.size()]);
        round += std::hypot(d.x(), d.y());
    }
    return round / static_cast<double>(line.places.size()) > theme_.px(16);
}

std::optional<std::pair<size_t, size_t>> SceneView::cornerAt(const QPointF& at) const {
    std::optional<std::pair<size_t, size_t>> best;
    double nearest = 9; // px
    for (size_t i = 0; i < lines_.size(); ++i) {
        if (!hasGrips(lines_[i])) continue;
        for (size_t k = 0; k < lines_[i].places.size(); ++k) {
            const Point3& place = lines_[i].places[k];
            const QPointF off = onWidget(place) - at;
            const double far = std::hypot(off.x(), off.y());
            if (far >= nearest) continue;
            // what lies behind the sheet is not taken by mistake
            const auto front = pickAt(onWidget(place));
            if (front && geometry::dot(geometry::minus(front->at, place), camera_.towards()) > 15) continue;
            nearest = far;
            best = {i, k};
        }
    }
    return best;
}

void SceneView::mousePressEvent(QMouseEvent* e) {
    pressed_ = last_ = e->position();
    clicked_ = e->button() == Qt::LeftButton;
    corner_.reset();
    if (clicked_ && e->modifiers() == Qt::NoModifier) corner_ = cornerAt(e->position());
    dragging_body_ = clicked_ && (e->modifiers() & Qt::ControlModifier);
}

void SceneView::leaveEvent(QEvent*) { emit hovered(std::nullopt); }

void SceneView::mouseMoveEvent(QMouseEvent* e) {
    if (e->buttons() == Qt::NoButton) {
        const auto under = pickAt(e->position());
        emit hovered(under ? std::optional(under->at[0]) : std::nullopt);
        return;
    }
    const QPointF by = e->position() - last_;
    if ((e->position() - pressed_).manhattanLength() > 4) clicked_ = false;
    if (clicked_) return;
    last_ = e->position();
    if (corner_) {
        // over the sheet; beside it, it stays where it was last
        if (const auto hit = pickAt(e->position()); hit && (hit->layer == Body || hit->layer == ToRemove)) {
            lines_[corner_->first].places[corner_->second] = hit->at;
            overlay_->update();
        }
        return;
    }
    if (dragging_body_) {
        const QPointF all = e->position() - pressed_;
        in_motion_ = true;
        rest_.start();
        emit bodyDragged(camera_.dragged(all.x(), all.y()));
        return;
    }
    if (e->buttons() & Qt::MiddleButton || e->modifiers() & Qt::ShiftModifier)
        camera_.pan(by.x(), by.y());
    else
        camera_.orbit(by.x(), by.y());
    moving();
}

void SceneView::mouseReleaseEvent(QMouseEvent* e) {
    if (dragging_body_) {
        dragging_body_ = false;
        const QPointF all = e->position() - pressed_;
        if (!clicked_) emit bodyDropped(camera_.dragged(all.x(), all.y()));
        return;
    }
    if (corner_ && !clicked_) {
        const SceneLine& line = lines_[corner_->first];
        const auto k = corner_->second;
        corner_.reset();
        emit cornerDropped(line.cut, static_cast<int>(k), line.places[k]);
        return;
    }
    corner_.reset();
    if (!clicked_) return;
    if (const SceneLabel* label = labelAt(e->position())) {
        emit labelPicked(QString::fromStdString(label->tag), e->position().toPoint());
        return;
    }
    if (const auto hit = pickAt(e->position())) {
        if (picks_.size() >= 2) picks_.clear();
        picks_.push_back(*hit);
        emit picked(*hit);
    } else {
        picks_.clear();
    }
    overlay_->update();
    emit moved();
}

void SceneView::wheelEvent(QWheelEvent* e) {
    camera_.zoom(std::pow(1.0015, e->angleDelta().y()), e->position().x() - width() / 2.0, e->position().y() - height() / 2.0);
    moving();
    e->accept();
}

void SceneView::keyPressEvent(QKeyEvent* e) {
    const bool shift = e->modifiers() & Qt::ShiftModifier;
    const double step = 24;
    switch (e->key()) {
    case Qt::Key_Left: shift ? camera_.pan(step, 0) : camera_.orbit(-step, 0); break;
    case Qt::Key_Right: shift ? camera_.pan(-step, 0) : camera_.orbit(step, 0); break;
    case Qt::Key_Up: shift ? camera_.pan(0, step) : camera_.orbit(0, step); break;
    case Qt::Key_Down: shift ? camera_.pan(0, -step) : camera_.orbit(0, -step); break;
    case Qt::Key_Plus: camera_.zoom(1.2, 0, 0); break;
    case Qt::Key_Minus: camera_.zoom(1 / 1.2, 0, 0); break;
    case Qt::Key_Home: turned_ = false, showAll(); return;
    default: QWidget::keyPressEvent(e); return;
    }
    moving();
}

} // namespace gorvet::desk
