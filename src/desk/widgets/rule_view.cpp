#include "desk/widgets/rule_view.hpp"

#include "desk/widgets/drawing_painter.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <cmath>

namespace gorvet::desk {

void RuleView::mousePressEvent(QMouseEvent* e) {
    const bool on_body = e->position().y() > height() * 0.25 && e->position().y() < height() * 0.6;
    const std::string tag = tagAt(items(), {e->position().x(), e->position().y()}, 8);
    if (scale_ > 0 && on_body && !tag.starts_with("finding")) {
        pressed_ = true;
        start_ = e->position();
        return;
    }
    if (e->button() == Qt::LeftButton) emit placePicked(e->position().x());
    SheetView::mousePressEvent(e);
}

void RuleView::mouseMoveEvent(QMouseEvent* e) {
    if (!pressed_) {
        SheetView::mouseMoveEvent(e);
        return;
    }
    const double moved = e->position().x() - start_.x();
    sliding_ = sliding_ || std::abs(moved) > 3;
    if (sliding_) {
        setCursor(Qt::SizeHorCursor);
        emit slid(moved / scale_);
    }
}

void RuleView::mouseReleaseEvent(QMouseEvent* e) {
    if (pressed_ && sliding_)
        emit letGo((e->position().x() - start_.x()) / scale_);
    else if (pressed_) {
        emit placePicked(e->position().x());
        SheetView::mousePressEvent(e);
    }
    pressed_ = sliding_ = false;
}

void RuleView::keyPressEvent(QKeyEvent* e) {
    // by keyboard: Ctrl and an arrow slides the body edge by 1 mm, with Shift by 10
    const bool arrow = e->key() == Qt::Key_Left || e->key() == Qt::Key_Right;
    if (scale_ > 0 && arrow && (e->modifiers() & Qt::ControlModifier)) {
        const double step = e->modifiers() & Qt::ShiftModifier ? 10 : 1;
        emit letGo(e->key() == Qt::Key_Left ? -step : step);
        return;
    }
    SheetView::keyPressEvent(e);
}

} // namespace gorvet::desk
