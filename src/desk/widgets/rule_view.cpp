#include "desk/widgets/rule_view.hpp"

#include "desk/widgets/drawing_painter.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

namespace gorvet::desk {

void RuleView::setPointer(std::optional<double> x, const QString& figure) {
    if (pointer_ == x && pointer_figure_ == figure) return;
    pointer_ = x;
    pointer_figure_ = figure;
    update();
}

void RuleView::paintEvent(QPaintEvent* e) {
    SheetView::paintEvent(e);
    if (!pointer_) return;
    QPainter p(this);
    p.setFont(theme().font(theme().format().small()));
    const QColor ink = theme().color(sheet::Ink::Ink);
    p.setPen(ink);
    p.drawLine(QPointF(*pointer_, 0), QPointF(*pointer_, height()));
    const QFontMetricsF m(p.font());
    const double wide = m.horizontalAdvance(pointer_figure_) + 8, tall = m.height() + 2;
    const double left = *pointer_ + 4 + wide > width() ? *pointer_ - 4 - wide : *pointer_ + 4;
    p.fillRect(QRectF(left, height() - tall - 2, wide, tall), ink);
    p.setPen(theme().color(sheet::Ink::Sheet));
    p.drawText(QRectF(left, height() - tall - 2, wide, tall), Qt::AlignCenter, pointer_figure_);
}

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
