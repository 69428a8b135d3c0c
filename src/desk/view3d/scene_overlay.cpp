#include "desk/view3d/scene_overlay.hpp"

#include "desk/view3d/scene_view.hpp"

#include <QPainter>
#include <QPainterPath>
#include <algorithm>
#include <cmath>

namespace gorvet::desk {

SceneOverlay::SceneOverlay(SceneView* view) : QWidget(view), view_(view) {
    setAttribute(Qt::WA_TransparentForMouseEvents);
    setAttribute(Qt::WA_NoSystemBackground);
    setAttribute(Qt::WA_TranslucentBackground);
}

void SceneOverlay::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Camera& camera = view_->camera();
    const auto at = [&](const Point3& q) {
        const Point3 s = camera.onScreen(q);
        return QPointF(width() / 2.0 + s[0], height() / 2.0 + s[1]);
    };
    if (view_->section()) paintCutFaces(p, at);
    // what a section takes away takes its lines along
    const double side = camera.towards()[0] > 0.02 ? -1 : 1;
    const auto kept = [&](const Point3& q) { return !view_->section() || side * (q[0] - *view_->section()) >= 0; };
    for (const SceneLine& line : view_->lines()) {
        QPainterPath path;
        const size_t n = line.places.size();
        for (size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
            const Point3 &a = line.places[i], &b = line.places[(i + 1) % n];
            if (!kept(a) || !kept(b)) continue;
            if (path.isEmpty() || path.currentPosition() != at(a)) path.moveTo(at(a));
            path.lineTo(at(b));
        }
        p.setPen(QPen(view_->theme().color(line.ink), line.ink == sheet::Ink::Remove ? 3 : 2));
        p.drawPath(path);
        if (!view_->hasGrips(line)) continue;
        // corners that can be dragged
        p.setPen(QPen(view_->theme().color(line.ink), 1.5));
        p.setBrush(view_->theme().color(sheet::Ink::Sheet));
        for (const Point3& q : line.places)
            if (kept(q)) p.drawEllipse(at(q), view_->theme().px(4), view_->theme().px(4));
        p.setBrush(Qt::NoBrush);
    }
    paintPicks(p);
    if (view_->section()) paintSection(p);
    paintScale(p);
    legend_ = {};
    if (view_->hasBands()) paintBands(p);
    paintLabels(p, at);
}

/// Where the section goes through: faces of solid steel hatched, sheet as a double line. Nothing stands before it.
void SceneOverlay::paintCutFaces(QPainter& p, const std::function<QPointF(const Point3&)>& at) {
    const Theme& theme = view_->theme();
    for (const auto layer : {SceneView::Chassis, SceneView::NewSteel, SceneView::ToRemove, SceneView::Body}) {
        if (!view_->shown(layer)) continue;
        const bool solid = layer == SceneView::Chassis || layer == SceneView::NewSteel;
        QPainterPath faces, lines;
        for (const shape::Polyline& line : view_->outline(layer)) {
            QPainterPath path;
            for (size_t i = 0; i < line.places.size(); ++i)
                i == 0 ? path.moveTo(at(line.places[i])) : path.lineTo(at(line.places[i]));
            if (line.closed) path.closeSubpath();
            (line.closed ? faces : lines).addPath(path);
        }
        const QColor ink = theme.color(SceneView::inkOf(layer));
        if (solid) {
            p.fillPath(faces, theme.color(sheet::Ink::Sheet));
            p.fillPath(faces, QBrush(ink, layer == SceneView::Chassis ? Qt::BDiagPattern : Qt::FDiagPattern));
        }
        lines.addPath(faces);
        p.setPen(QPen(ink, solid ? 2.5 : 4));
        p.drawPath(lines);
        if (solid) continue;
        p.setPen(QPen(theme.color(sheet::Ink::Sheet), 1.5));
        p.drawPath(lines);
    }
}

const SceneLabel* SceneOverlay::labelAt(const QPointF& at) const {
    for (const auto& [box, which] : labelled_)
        if (box.contains(at) && which < view_->labels().size()) return &view_->labels()[which];
    return nullptr;
}

/// Finds a place for the words of each label, beside its own place and away from the middle, clear of those before it.
void SceneOverlay::placeLabels(const QFontMetricsF& metrics, const std::function<QPointF(const Point3&)>& at) {
    labelled_.clear();
    const Theme& theme = view_->theme();
    const QRectF room = QRectF(rect()).adjusted(28, view_->roomAbove() + 6, -28, -view_->roomBelow() - 6);
    const double side = view_->camera().towards()[0] > 0.02 ? -1 : 1;
    const double reach = theme.px(40), high = theme.px(40);
    const QRectF model = view_->modelOnWidget();
    for (size_t i = 0; i < view_->labels().size(); ++i) {
        const SceneLabel& label = view_->labels()[i];
        const QPointF place = at(label.at);
        if (!room.contains(place)) continue;
        if (view_->section() && side * (label.at[0] - *view_->section()) < -60) continue; // it is cut away
        const double wide = metrics.horizontalAdvance(label.words) + theme.px(38);
        const bool leftward = place.x() < (model.left() + model.right()) / 2;
        QRectF box(leftward ? std::min(place.x() - reach, model.left() - 8) - wide
                            : std::max(place.x() + reach, model.right() + 8),
                   place.y() - reach - high / 2, wide, high);
        box.moveLeft(std::clamp(box.left(), room.left(), std::max(room.left(), room.right() - wide)));
        const auto taken = [&](const QRectF& r) {
            return r.top() < room.top() || r.bottom() > room.bottom() || r.adjusted(-8, -8, 8, 8).contains(place) ||
                   r.intersects(legend_) || (view_->section() && r.intersects(sectionPanel())) ||
                   std::any_of(labelled_.begin(), labelled_.end(),
                               [&](const auto& l) { return l.first.adjusted(-4, -3, 4, 3).intersects(r); });
        };
        for (int step = 0; step < 24; ++step) {
            const QRectF moved = box.translated(0, (step % 2 ? 1 : -1) * ((step + 1) / 2) * 0.5 * (high + 6));
            if (taken(moved)) continue;
            labelled_.emplace_back(moved, i);
            break;
        }
    }
}

void SceneOverlay::paintLabels(QPainter& p, const std::function<QPointF(const Point3&)>& at) {
    const Theme& theme = view_->theme();
    p.setFont(theme.font(15));
    placeLabels(QFontMetricsF(p.font()), at);
    const auto inkOf = [&](const SceneLabel& l) {
        return theme.color(l.severity == sheet::Severity::Bad ? sheet::Ink::Bad : sheet::Ink::Warn);
    };
    for (const auto& [box, which] : labelled_) { // leaders first: they pass behind the words
        const SceneLabel& label = view_->labels()[which];
        const QPointF place = at(label.at);
        p.setPen(QPen(inkOf(label), 1.5));
        p.drawLine(place, QPointF(place.x() < box.center().x() ? box.left() : box.right(), box.center().y()));
        p.setBrush(theme.color(sheet::Ink::Sheet));
        p.drawEllipse(place, 4, 4);
        p.setBrush(Qt::NoBrush);
    }
    for (const auto& [box, which] : labelled_) {
        const SceneLabel& label = view_->labels()[which];
        p.fillRect(box, theme.color(sheet::Ink::Sheet));
        p.setPen(QPen(inkOf(label), 1.5));
        p.drawRect(box);
        // crossed lines foul, one line is tight
        const double m = theme.px(6);
        const QPointF mark(box.left() + theme.px(16), box.center().y());
        p.setPen(QPen(inkOf(label), 2));
        p.drawLine(mark + QPointF(-m, m), mark + QPointF(m, -m));
        if (label.severity == sheet::Severity::Bad) p.drawLine(mark + QPointF(-m, -m), mark + QPointF(m, m));
        p.drawText(box.adjusted(theme.px(30), 0, -4, 0), Qt::AlignVCenter | Qt::AlignLeft, label.words);
    }
}

void SceneOverlay::paintPicks(QPainter& p) {
    const Theme& theme = view_->theme();
    const auto& picks = view_->picks();
    std::vector<QPointF> at;
    p.setFont(theme.font(15));
    for (const ScenePick& pick : picks) {
        const Point3 s = view_->camera().onScreen(pick.at);
        at.emplace_back(width() / 2.0 + s[0], height() / 2.0 + s[1]);
    }
    const auto label = [&](const QPointF& place, const QString& text) {
        const QRectF box = p.fontMetrics().boundingRect(text).adjusted(-4, -2, 4, 2);
        QRectF r(place + QPointF(10, -8 - box.height()), box.size());
        r.moveLeft(std::clamp(r.left(), 2.0, std::max(2.0, width() - r.width() - 2)));
        r.moveTop(std::max(2.0, r.top()));
        p.fillRect(r, theme.color(sheet::Ink::Panel));
        p.setPen(theme.color(sheet::Ink::Ink));
        p.drawText(r, Qt::AlignCenter, text);
    };
    p.setPen(QPen(theme.color(sheet::Ink::Ink), 2));
    if (at.size() == 2) p.drawLine(at[0], at[1]);
    for (size_t i = 0; i < picks.size(); ++i) {
        p.setPen(QPen(theme.color(sheet::Ink::Ink), 2));
        p.drawEllipse(at[i], 5, 5);
        const Point3& q = picks[i].at;
        label(at[i], tr("station %1  offset %2  height %3%4")
                         .arg(view_->length(q[0]), view_->length(q[1]), view_->length(q[2]),
                              picks[i].u95_mm ? QString::fromUtf8("  ± ") + view_->length(*picks[i].u95_mm) : QString()));
    }
    if (picks.size() == 2) {
        const Point3 d = geometry::minus(picks[1].at, picks[0].at);
        const auto &a = picks[0].u95_mm, &b = picks[1].u95_mm;
        const QString sharp = a && b ? QString::fromUtf8(" ± ") + view_->length(std::hypot(*a, *b)) : QString();
        label((at[0] + at[1]) / 2, tr("%1%5  (%2 along, %3 across, %4 up)%6")
                                       .arg(view_->length(geometry::length(d), true), view_->length(d[0]), view_->length(d[1]),
                                            view_->length(d[2]), sharp, sharp.isEmpty() ? tr(" · ± not known") : QString()));
    }
}

QRectF SceneOverlay::sectionPanel() const {
    const double wide = view_->theme().px(330), high = view_->theme().px(230);
    return {width() - wide - 24, height() - view_->roomBelow() - high - 8, wide, high};
}

void SceneOverlay::paintSection(QPainter& p) {
    const Theme& theme = view_->theme();
    const QRectF frame = sectionPanel();
    p.fillRect(frame, theme.color(sheet::Ink::Panel));
    p.setPen(QPen(theme.color(sheet::Ink::Second), 1));
    p.drawRect(frame);
    double wide = 100, low = 1e9, high = -1e9;
    for (int l = 0; l < SceneView::layers; ++l)
        for (const shape::Polyline& line : view_->outline(static_cast<SceneView::Layer>(l)))
            for (const Point3& q : line.places) {
                wide = std::max(wide, std::abs(q[1]));
                low = std::min(low, q[2]);
                high = std::max(high, q[2]);
            }
    p.setFont(theme.font(13));
    const double head = theme.px(20);
    p.setPen(theme.color(sheet::Ink::Ink));
    if (high < low) {
        p.drawText(frame.adjusted(8, 2, -8, 0), Qt::AlignLeft | Qt::AlignTop,
                   tr("nothing is cut at station %1").arg(view_->length(*view_->section())));
        return;
    }
    const double scale = std::min((frame.width() - 20) / (2 * wide), (frame.height() - head - 14) / std::max(100.0, high - low));
    p.drawText(frame.adjusted(8, 2, -8, 0), Qt::AlignLeft | Qt::AlignTop,
               tr("cut at station %1, from behind, 1 : %2").arg(view_->length(*view_->section())).arg(3.7795 / scale, 0, 'f', 0));
    const auto at = [&](const Point3& q) {
        return QPointF(frame.center().x() + q[1] * scale, frame.top() + head + 6 + (high - q[2]) * scale);
    };
    p.setPen(QPen(theme.color(sheet::Ink::Faint), 1, Qt::DashDotLine));
    p.drawLine(QPointF(frame.center().x(), frame.top() + head), QPointF(frame.center().x(), frame.bottom() - 4));
    for (const auto layer : {SceneView::Chassis, SceneView::Body, SceneView::NewSteel, SceneView::ToRemove}) {
        if (!view_->shown(layer)) continue;
        p.setPen(QPen(theme.color(SceneView::inkOf(layer)), layer == SceneView::Body ? 1.5 : 3,
                      layer == SceneView::ToRemove ? Qt::DotLine : Qt::SolidLine));
        for (const shape::Polyline& line : view_->outline(layer)) {
            QPainterPath path;
            for (size_t i = 0; i < line.places.size(); ++i)
                i == 0 ? path.moveTo(at(line.places[i])) : path.lineTo(at(line.places[i]));
            if (line.closed) path.closeSubpath();
            p.drawPath(path);
        }
    }
}

namespace {

/// The largest of 1, 2, 5 times a power of ten that is no longer.
double roundLength(double about) {
    const double ten = std::pow(10, std::floor(std::log10(about)));
    return about / ten >= 5 ? 5 * ten : about / ten >= 2 ? 2 * ten : ten;
}
/// Of a workshop's inches: halves down to 1/8, feet above one.
double roundInches(double about_mm) {
    constexpr double inch = 25.4;
    double best = inch / 8;
    for (const double inches : {0.25, 0.5, 1.0, 2.0, 3.0, 6.0, 12.0, 24.0, 36.0, 72.0, 120.0, 240.0})
        if (inches * inch <= about_mm) best = inches * inch;
    return best;
}

} // namespace

void SceneOverlay::paintScale(QPainter& p) {
    const Theme& theme = view_->theme();
    // a round length of about a hundred pixels
    const double about = 100 / view_->camera().px_per_mm;
    const double length = units::unitOf(view_->lengthStep()) == units::Unit::Millimetre ? roundLength(about) : roundInches(about);
    const double px = length * view_->camera().px_per_mm;
    const double x = 32, y = height() - view_->roomBelow() - 16;
    p.setPen(QPen(theme.color(sheet::Ink::Ink), 2));
    p.drawLine(QPointF(x, y), QPointF(x + px, y));
    for (const double e : {x, x + px}) p.drawLine(QPointF(e, y - 5), QPointF(e, y + 5));
    p.setFont(theme.font(13));
    p.drawText(QPointF(x + px + 8, y + 4), units::unitOf(view_->lengthStep()) == units::Unit::Millimetre
                                               ? tr("%1 mm").arg(length, 0, 'f', length < 1 ? 1 : 0)
                                               : view_->length(length, true));
}

void SceneOverlay::paintBands(QPainter& p) {
    const Theme& theme = view_->theme();
    p.setFont(theme.font(13));
    const sit::Need& need = view_->need();
    const double row = theme.px(20), box = theme.px(26);
    double y = view_->roomAbove() + 8;
    const auto line = [&](sheet::Ink ink, bool hatched, bool crossed, const QString& text) {
        const QRectF r(32, y, box, row - 5);
        p.fillRect(r, theme.color(sheet::Ink::Sheet));
        p.save();
        p.setClipRect(r);
        p.setPen(QPen(theme.color(ink), 2));
        QColor tone = theme.color(ink);
        tone.setAlphaF(0.16F);
        if (!hatched) p.fillRect(r, tone);
        if (hatched)
            for (double x = r.left() - row; x < r.right() + row; x += 7) {
                p.drawLine(QPointF(x, r.bottom()), QPointF(x + row, r.bottom() - row));
                if (crossed) p.drawLine(QPointF(x, r.top()), QPointF(x + row, r.top() + row));
            }
        p.restore();
        p.setPen(theme.color(sheet::Ink::Ink));
        p.drawRect(r);
        const QRectF words(32 + box + 8, y - 2, p.fontMetrics().horizontalAdvance(text) + 6, row - 1);
        QColor ground = theme.color(sheet::Ink::Sheet);
        ground.setAlpha(200);
        p.fillRect(words, ground);
        p.drawText(words, Qt::AlignVCenter | Qt::AlignLeft, text);
        legend_ = legend_.united(r.united(words)).toAlignedRect();
        y += row;
    };
    line(sheet::Ink::Bad, true, true,
         view_->unlikeNeeds() ? tr("Fouls: less than the pair needs, travel counted: see pair by pair")
                              : tr("Fouls: less than %1").arg(view_->length(need.foulsBelow(), true)));
    line(sheet::Ink::Warn, true, false,
         view_->unlikeNeeds() ? tr("Tight: less than 1.5 times that")
                              : tr("Tight: less than %1").arg(view_->length(need.tightBelow(), true)));
    line(sheet::Ink::Body, false, false, tr("Clear"));
}

} // namespace gorvet::desk
