#include "desk/widgets/sheet_view.hpp"

#include "desk/widgets/drawing_painter.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

namespace gorvet::desk {

namespace {
constexpr double reach_px = 14;
}

SheetView::SheetView(QWidget* parent) : QWidget(parent), bar_(new QScrollBar(Qt::Vertical, this)) {
    bar_->setObjectName("sheetScroll");
    bar_->setAccessibleName(tr("scroll the sheet"));
    bar_->setFocusPolicy(Qt::NoFocus);
    bar_->hide();
    connect(bar_, &QScrollBar::valueChanged, this, qOverload<>(&QWidget::update));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

void SheetView::setMaker(Maker maker) {
    maker_ = std::move(maker);
    refresh();
}

void SheetView::setTheme(const Theme& theme) {
    theme_ = theme;
    refresh();
}

void SheetView::makeDrawing(int width) { drawing_ = maker_ ? maker_(width, height(), theme_.format()) : sheet::Drawing{}; }

void SheetView::refresh() {
    const int bar_width = static_cast<int>(theme_.px(18));
    makeDrawing(width());
    const bool scrolls = drawing_.height > height() + 0.5;
    if (scrolls) makeDrawing(width() - bar_width - static_cast<int>(theme_.px(6)));
    bar_->setVisible(scrolls);
    bar_->setGeometry(width() - bar_width, 0, bar_width, height());
    bar_->setRange(0, scrolls ? std::max(0, static_cast<int>(std::ceil(drawing_.height)) - height()) : 0);
    bar_->setPageStep(height());
    bar_->setSingleStep(static_cast<int>(theme_.px(40)));
    items_ = sheet::flatten(drawing_);
    update();
}

std::string SheetView::tagUnder(QPointF at) const { return tagAt(items_, {at.x(), at.y() + bar_->value()}, reach_px); }

void SheetView::reveal(const std::string& tag) {
    const auto at = placeOf(tag);
    if (!at) return;
    const int margin = std::min(height() / 3, static_cast<int>(theme_.px(60)));
    if (at->y() < margin) bar_->setValue(bar_->value() + static_cast<int>(at->y()) - margin);
    if (at->y() > height() - margin) bar_->setValue(bar_->value() + static_cast<int>(at->y()) - height() + margin);
}

std::optional<QPointF> SheetView::placeOf(const std::string& tag) const {
    std::vector<sheet::Item> own;
    for (const auto& item : items_)
        if (item.tag == tag) own.push_back(item);
    if (own.empty()) return std::nullopt;
    // a place that answers to the tag: the middle of its last simple shape
    for (auto item = own.rbegin(); item != own.rend(); ++item) {
        QPointF at;
        if (const auto* c = std::get_if<sheet::Circle>(&item->shape))
            at = {c->centre.x, c->centre.y};
        else if (const auto* t = std::get_if<sheet::Text>(&item->shape))
            at = {t->at.x, t->at.y - (t->level == sheet::Level::Base ? t->size * 0.35 : 0)};
        else if (const auto* s = std::get_if<sheet::Stroke>(&item->shape))
            at = {(s->path.front().x + s->path.back().x) / 2, (s->path.front().y + s->path.back().y) / 2};
        else
            continue;
        if (tagAt(items_, {at.x(), at.y()}, reach_px) == tag) return QPointF(at.x(), at.y() - bar_->value());
    }
    return std::nullopt;
}

std::vector<std::string> SheetView::tagsInOrder() const {
    std::vector<std::string> tags;
    for (const auto& item : items_)
        if (!item.tag.empty() && std::find(tags.begin(), tags.end(), item.tag) == tags.end()) tags.push_back(item.tag);
    return tags;
}

void SheetView::paintEvent(QPaintEvent*) {
    QPainter q(this);
    q.translate(0, -bar_->value());
    paintItems(q, items_, theme_);
    q.resetTransform();
    if (hasFocus()) {
        if (const auto at = placeOf(walked_)) { // where the keyboard stands
            q.setPen(QPen(theme_.color(sheet::Ink::Ink), 2, Qt::DotLine));
            q.setBrush(Qt::NoBrush);
            q.drawEllipse(*at, theme_.px(14), theme_.px(14));
        }
    }
}

void SheetView::resizeEvent(QResizeEvent*) { refresh(); }

const sheet::Grip* SheetView::gripUnder(QPointF at) const {
    for (const sheet::Grip& g : drawing_.grips)
        if (std::hypot(g.at.x - at.x(), g.at.y - at.y() - bar_->value()) < reach_px) return &g;
    return nullptr;
}
double SheetView::draggedTo(QPointF at) const {
    const sheet::Grip& g = dragged_->grip;
    return std::clamp(g.value + (at.x() - dragged_->from.x()) * g.per_unit, g.least, g.most);
}

void SheetView::mousePressEvent(QMouseEvent* e) {
    if (const sheet::Grip* grip = gripUnder(e->position()); grip && e->button() == Qt::LeftButton) {
        dragged_ = Dragged{*grip, e->position()};
        return;
    }
    const std::string tag = tagUnder(e->position());
    walked_ = tag;
    if (tag.empty())
        emit pickedNothing();
    else
        emit picked(QString::fromStdString(tag), e->position().toPoint());
}

void SheetView::mouseReleaseEvent(QMouseEvent* e) {
    if (!dragged_) return;
    const QString name = QString::fromStdString(dragged_->grip.name);
    const double value = dragged_->moved ? draggedTo(e->position()) : dragged_->grip.value;
    dragged_.reset();
    emit gripLeft(name, value);
}

void SheetView::mouseMoveEvent(QMouseEvent* e) {
    if (dragged_) {
        constexpr double least_px = 3;
        dragged_->moved = dragged_->moved || std::abs(e->position().x() - dragged_->from.x()) > least_px;
        if (dragged_->moved) emit gripMoved(QString::fromStdString(dragged_->grip.name), draggedTo(e->position()));
        return;
    }
    if (gripUnder(e->position())) return setCursor(Qt::SizeHorCursor);
    setCursor(tagUnder(e->position()).empty() ? Qt::ArrowCursor : Qt::PointingHandCursor);
}

void SheetView::wheelEvent(QWheelEvent* e) {
    bar_->setValue(bar_->value() - e->angleDelta().y() / 2);
    e->accept();
}

void SheetView::keyPressEvent(QKeyEvent* e) {
    if (dragged_ && e->key() == Qt::Key_Escape) {
        dragged_.reset();
        emit gripDropped();
        return;
    }
    const auto tags = tagsInOrder();
    const bool forward = e->key() == Qt::Key_Right || e->key() == Qt::Key_Down;
    const bool back = e->key() == Qt::Key_Left || e->key() == Qt::Key_Up;
    if (!tags.empty() && (forward || back)) {
        const auto now = std::find(tags.begin(), tags.end(), walked_);
        const auto n = static_cast<std::ptrdiff_t>(tags.size());
        const auto index = now == tags.end() ? (forward ? 0 : n - 1) : (now - tags.begin() + (forward ? 1 : n - 1)) % n;
        walked_ = tags[static_cast<size_t>(index)];
        reveal(walked_);
        update();
    } else if (e->key() == Qt::Key_PageDown || e->key() == Qt::Key_PageUp) {
        bar_->setValue(bar_->value() + (e->key() == Qt::Key_PageDown ? 1 : -1) * height() * 3 / 4);
    } else if ((e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) && !walked_.empty()) {
        const auto at = placeOf(walked_);
        emit picked(QString::fromStdString(walked_), at ? at->toPoint() : rect().center());
    } else {
        QWidget::keyPressEvent(e);
    }
}

} // namespace gorvet::desk
