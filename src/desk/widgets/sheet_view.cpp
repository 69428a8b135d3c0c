#include "desk/widgets/sheet_view.hpp"

#include "desk/widgets/drawing_painter.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

namespace gorvet::desk {

namespace {
constexpr double reach_px = 14;
}

SheetView::SheetView(QWidget* parent) : QWidget(parent) {
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

void SheetView::refresh() {
    drawing_ = maker_ ? maker_(width(), height(), theme_.format()) : sheet::Drawing{};
    items_ = sheet::flatten(drawing_);
    update();
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
        if (tagAt(items_, {at.x(), at.y()}, reach_px) == tag) return at;
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
    paintItems(q, items_, theme_);
    if (hasFocus()) {
        if (const auto at = placeOf(walked_)) { // where the keyboard stands
            q.setPen(QPen(theme_.color(sheet::Ink::Ink), 2, Qt::DotLine));
            q.setBrush(Qt::NoBrush);
            q.drawEllipse(*at, theme_.px(14), theme_.px(14));
        }
    }
}

void SheetView::resizeEvent(QResizeEvent*) { refresh(); }

void SheetView::mousePressEvent(QMouseEvent* e) {
    const std::string tag = tagAt(items_, {e->position().x(), e->position().y()}, reach_px);
    walked_ = tag;
    if (tag.empty())
        emit pickedNothing();
    else
        emit picked(QString::fromStdString(tag), e->position().toPoint());
}

void SheetView::mouseMoveEvent(QMouseEvent* e) {
    setCursor(tagAt(items_, {e->position().x(), e->position().y()}, reach_px).empty() ? Qt::ArrowCursor : Qt::PointingHandCursor);
}

void SheetView::keyPressEvent(QKeyEvent* e) {
    const auto tags = tagsInOrder();
    const bool forward = e->key() == Qt::Key_Right || e->key() == Qt::Key_Down;
    const bool back = e->key() == Qt::Key_Left || e->key() == Qt::Key_Up;
    if (!tags.empty() && (forward || back)) {
        const auto now = std::find(tags.begin(), tags.end(), walked_);
        const auto n = static_cast<std::ptrdiff_t>(tags.size());
        const auto index = now == tags.end() ? (forward ? 0 : n - 1) : (now - tags.begin() + (forward ? 1 : n - 1)) % n;
        walked_ = tags[static_cast<size_t>(index)];
        update();
    } else if ((e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) && !walked_.empty()) {
        const auto at = placeOf(walked_);
        emit picked(QString::fromStdString(walked_), at ? at->toPoint() : rect().center());
    } else {
        QWidget::keyPressEvent(e);
    }
}

} // namespace gorvet::desk
