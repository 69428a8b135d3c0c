#include "desk/widgets/drawing_painter.hpp"

#include <QFontMetricsF>
#include <QImage>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

namespace gorvet::desk {

using namespace sheet;

namespace {

QPointF point(const P& p) { return {p.x, p.y}; }

class Painter {
public:
    Painter(QPainter& q, const Theme& theme) : q_(q), theme_(theme) {}

    void operator()(const Stroke& s) {
        if (s.path.size() < 2) return;
        QPolygonF polygon;
        for (const P& p : s.path) polygon << point(p);
        q_.setPen(pen(s.pen));
        q_.setBrush(Qt::NoBrush);
        if (s.closed)
            q_.drawPolygon(polygon);
        else
            q_.drawPolyline(polygon);
    }
    void operator()(const Circle& c) {
        q_.setPen(pen(c.pen));
        q_.setBrush(c.filled   ? QBrush(theme_.color(c.pen.ink))
                    : c.ground ? QBrush(theme_.color(Ink::Sheet))
                               : QBrush(Qt::NoBrush));
        q_.drawEllipse(point(c.centre), c.radius, c.radius);
    }
    void operator()(const Fill& f) {
        QPolygonF polygon;
        for (const P& p : f.polygon) polygon << point(p);
        q_.setPen(Qt::NoPen);
        q_.setBrush(theme_.color(f.ink));
        q_.drawPolygon(polygon);
    }
    void operator()(const sheet::Picture& p) {
        if (!p.bytes) return;
        const QImage image = QImage::fromData(reinterpret_cast<const uchar*>(p.bytes->data()), static_cast<int>(p.bytes->size()));
        if (image.isNull()) return;
        const QSizeF size = QSizeF(image.size()).scaled(p.width, p.height, Qt::KeepAspectRatio);
        q_.drawImage(
            QRectF(p.at.x + (p.width - size.width()) / 2, p.at.y + (p.height - size.height()) / 2, size.width(), size.height()),
            image);
    }
    void operator()(const Hatch&) {}            // flattened
    void operator()(const sheet::Dimension&) {} // flattened
    void operator()(const Text& t) {
        if (t.text.empty()) return;
        QFont font(t.face == Face::Mono ? mono() : sans());
        font.setPixelSize(std::max(1, static_cast<int>(std::lround(t.size))));
        font.setBold(t.face == Face::Bold);
        const QString text = QString::fromStdString(t.mark == Mark::Assumed ? t.text + " ?" : t.text);
        const double width = QFontMetricsF(font).horizontalAdvance(text);
        const double left = t.anchor == Anchor::Left ? 0 : t.anchor == Anchor::Centre ? -width / 2 : -width;
        const double base = t.level == Level::Base ? 0 : t.level == Level::Middle ? t.size * 0.36 : t.size * 0.78;
        q_.save();
        q_.translate(point(t.at));
        q_.rotate(-t.turn_deg);
        if (t.backed)
            q_.fillRect(QRectF(left - t.size * 0.2, base - t.size * 0.85, width + t.size * 0.4, t.size * 1.1),
                        theme_.color(Ink::Sheet));
        q_.setFont(font);
        q_.setPen(theme_.color(t.ink));
        q_.drawText(QPointF(left, base), text);
        if (t.mark != Mark::None) {
            QPen under(theme_.color(t.ink), std::max(1.0, t.size / 15));
            if (t.mark == Mark::Assumed) under.setDashPattern({1, 2.5});
            q_.setPen(under);
            q_.drawLine(QPointF(left, base + t.size * 0.2), QPointF(left + width, base + t.size * 0.2));
        }
        q_.restore();
    }

private:
    static QString sans() { return QStringLiteral("Gorvet Sans"); }
    static QString mono() { return QStringLiteral("Gorvet Mono"); }
    QPen pen(const Pen& p) const {
        QPen q(theme_.color(p.ink), std::max(p.weight, 0.8));
        q.setJoinStyle(Qt::RoundJoin);
        q.setCapStyle(Qt::FlatCap);
        switch (p.dash) {
        case Dash::Solid: break;
        case Dash::Dashed: q.setDashPattern({5, 3}); break;
        case Dash::DashDot: q.setDashPattern({9, 3, 1.5, 3}); break;
        case Dash::Dotted: q.setDashPattern({1, 2.5}); break;
        }
        return q;
    }
    QPainter& q_;
    const Theme& theme_;
};

double distanceToSegment(const P& p, const P& a, const P& b) {
    const double dx = b.x - a.x;
    const double dy = b.y - a.y;
    const double square = dx * dx + dy * dy;
    const double t = square > 0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / square, 0.0, 1.0) : 0;
    return std::hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}

/// How far a place is from a shape, in pixels.
class Distance {
public:
    explicit Distance(P at) : at_(at) {}
    double operator()(const Stroke& s) const {
        double best = 1e9;
        for (size_t i = 0; i + 1 < s.path.size(); ++i) best = std::min(best, distanceToSegment(at_, s.path[i], s.path[i + 1]));
        return best;
    }
    // a mark is easier to hit than the line under it
    double operator()(const Circle& c) const {
        return std::max(0.0, std::hypot(at_.x - c.centre.x, at_.y - c.centre.y) - c.radius) * 0.7;
    }
    double operator()(const Fill&) const { return 1e9; }
    double operator()(const sheet::Picture& p) const { // within it, what is drawn on it is nearer
        const bool inside = at_.x >= p.at.x && at_.x <= p.at.x + p.width && at_.y >= p.at.y && at_.y <= p.at.y + p.height;
        return inside ? 1 : 1e9;
    }
    double operator()(const Hatch&) const { return 1e9; }
    double operator()(const sheet::Dimension&) const { return 1e9; }
    double operator()(const Text& t) const {
        const double width = textWidth(t.text, t.size, t.face);
        const double left = t.at.x + (t.anchor == Anchor::Left ? 0 : t.anchor == Anchor::Centre ? -width / 2 : -width);
        const double dx = std::max({left - at_.x, 0.0, at_.x - left - width});
        const double middle = t.level == Level::Middle ? t.at.y
                              : t.level == Level::Base ? t.at.y - t.size * 0.35
                                                       : t.at.y + t.size * 0.4;
        const double dy = std::max(0.0, std::abs(at_.y - middle) - t.size * 0.6);
        return std::hypot(dx, dy) * 0.8;
    }

private:
    P at_;
};

} // namespace

void paintItems(QPainter& q, const std::vector<Item>& items, const Theme& theme) {
    q.setRenderHint(QPainter::Antialiasing);
    Painter painter(q, theme);
    for (const Item& item : items) std::visit(painter, item.shape);
}

std::string tagAt(const std::vector<Item>& items, P at, double reach_px) {
    std::string tag;
    double best = reach_px;
    for (const Item& item : items) {
        if (item.tag.empty()) continue;
        const double d = std::visit(Distance(at), item.shape);
        if (d <= best) {
            best = d;
            tag = item.tag;
        }
    }
    return tag;
}

} // namespace gorvet::desk
