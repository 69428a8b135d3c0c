#include "desk/view3d/scene_view.hpp"

#include "desk/view3d/scene_overlay.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <numbers>

namespace gorvet::desk {

namespace {

QVector3D rgb(const QColor& c) {
    return {static_cast<float>(c.redF()), static_cast<float>(c.greenF()), static_cast<float>(c.blueF())};
}

QMatrix4x4 matrixOf(const geometry::RigidTransform& m) {
    QMatrix4x4 pose;
    for (int i = 0; i < 3; ++i) {
        for (int j = 0; j < 3; ++j) pose(i, j) = static_cast<float>(m.rotation[static_cast<size_t>(i)][static_cast<size_t>(j)]);
        pose(i, 3) = static_cast<float>(m.translation[static_cast<size_t>(i)]);
    }
    return pose;
}

} // namespace

SceneView::SceneView(QWidget* parent) : QWidget(parent) {
    setObjectName("scene");
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumHeight(200);
    setAccessibleName(tr("Scans of body and chassis to scale"));
    setAttribute(Qt::WA_OpaquePaintEvent);
    overlay_ = new SceneOverlay(this);
    rest_.setSingleShot(true);
    rest_.setInterval(60);
    connect(&rest_, &QTimer::timeout, this, [this] {
        in_motion_ = false;
        if (section_) findOutlines();
        redraw();
    });
    desk::lookFrom(camera_, ViewFrom::Corner);
}

SceneView::~SceneView() {
    if (!context_ || !context_->makeCurrent(surface_.get())) return;
    for (auto& b : buffers_) b.reset();
    loose_.clear();
    picture_.destroy();
    context_->doneCurrent();
}

void SceneView::setTheme(const Theme& theme) {
    theme_ = theme;
    redraw();
}

void SceneView::setLengthStep(units::LengthStep step) {
    length_step_ = step;
    overlay_->update();
}

QString SceneView::length(double mm, bool with_unit) const {
    return QString::fromStdString(units::formatLength(mm, length_step_, with_unit));
}

void SceneView::setMesh(Layer l, std::shared_ptr<SceneMesh> mesh) {
    meshes_[l] = std::move(mesh);
    dirty_[l] = true;
    if (l == Body) distances_.clear(), dirty_distances_ = true;
    findOutlines();
    box_ = box();
    if (!turned_) showAll();
    redraw();
}

void SceneView::setShown(Layer l, bool shown) {
    shown_[l] = shown;
    box_ = box();
    redraw();
}

void SceneView::setAway(Layer l, bool away) {
    if (away_[l] == away) return;
    away_[l] = away;
    findOutlines();
    redraw();
}

void SceneView::setLoose(const std::vector<std::shared_ptr<SceneMesh>>& meshes) {
    if (meshes.empty() && loose_.empty()) return;
    if (context_ && context_->makeCurrent(surface_.get())) {
        loose_.clear(); // with what the card keeps of them
        context_->doneCurrent();
    }
    loose_.clear();
    for (const auto& mesh : meshes) loose_.push_back({mesh, {}, nullptr});
    redraw();
}

void SceneView::moveLoose(const std::vector<geometry::RigidTransform>& poses) {
    for (size_t i = 0; i < loose_.size(); ++i) loose_[i].pose = i < poses.size() ? poses[i] : geometry::RigidTransform{};
    if (!loose_.empty()) redraw();
}

std::vector<geometry::RigidTransform> SceneView::loosePoses() const {
    std::vector<geometry::RigidTransform> poses;
    for (const Loose& l : loose_) poses.push_back(l.pose);
    return poses;
}

void SceneView::setSeat(const geometry::RigidTransform& seat) {
    seat_ = seat;
    findOutlines();
    redraw();
}

void SceneView::setDistances(const std::vector<float>& distances, const sit::Need& need, bool unlike) {
    unlike_needs_ = unlike;
    distances_ = distances;
    need_ = need;
    dirty_distances_ = true;
    redraw();
}

void SceneView::setLines(std::vector<SceneLine> lines) {
    lines_ = std::move(lines);
    corner_.reset(); // they may be others by now
    overlay_->update();
}

void SceneView::setLabels(std::vector<SceneLabel> labels) {
    labels_ = std::move(labels);
    overlay_->update();
}

void SceneView::setSection(std::optional<double> station) {
    section_ = station;
    findOutlines();
    redraw();
    emit moved();
}

void SceneView::findOutlines() {
    for (int l = 0; l < layers; ++l) {
        outline_[l].clear();
        if (!section_ || !meshes_[l] || away_[l]) continue;
        const geometry::RigidTransform move = placed(static_cast<Layer>(l));
        const shape::Mesh& m = in_motion_ && !meshes_[l]->thinned.points.empty() ? meshes_[l]->thinned : *meshes_[l]->mesh;
        std::vector<float> station;
        station.reserve(m.points.size());
        for (const Point3& p : m.points)
            station.push_back(static_cast<float>(geometry::dot(move.rotation[0], p) + move.translation[0]));
        outline_[l] = shape::levelLines(m, station, *section_);
        for (shape::Polyline& line : outline_[l])
            for (Point3& p : line.places) p = move.transformed(p);
    }
}

void SceneView::lookFrom(ViewFrom v) {
    turned_ = false;
    desk::lookFrom(camera_, v);
    showAll();
}

std::optional<std::pair<Point3, Point3>> SceneView::box() const {
    std::optional<std::pair<Point3, Point3>> all;
    for (int l = 0; l < layers; ++l) {
        if (!meshes_[l] || !shown_[l]) continue;
        const geometry::RigidTransform move = placed(static_cast<Layer>(l));
        const auto& points = meshes_[l]->thinned.points.empty() ? meshes_[l]->mesh->points : meshes_[l]->thinned.points;
        for (const Point3& q : points) {
            const Point3 p = move.transformed(q);
            if (!all) all = {p, p};
            for (size_t axis = 0; axis < 3; ++axis) {
                all->first[axis] = std::min(all->first[axis], p[axis]);
                all->second[axis] = std::max(all->second[axis], p[axis]);
            }
        }
    }
    return all;
}

std::vector<Point3> SceneView::shownPlaces() const {
    std::vector<Point3> places;
    for (int l = 0; l < layers; ++l) {
        if (!meshes_[l] || !shown_[l]) continue;
        const geometry::RigidTransform move = placed(static_cast<Layer>(l));
        for (const Point3& p : meshes_[l]->thinned.points.empty() ? meshes_[l]->mesh->points : meshes_[l]->thinned.points)
            places.push_back(move.transformed(p));
    }
    return places;
}

QRectF SceneView::modelOnWidget() const {
    const std::vector<Point3> places = shownPlaces();
    QPolygonF outline;
    for (size_t i = 0; i < places.size(); i += std::max<size_t>(1, places.size() / 4000)) outline << onWidget(places[i]);
    return outline.boundingRect();
}

void SceneView::showAll() {
    if (const std::vector<Point3> places = shownPlaces(); !places.empty()) {
        camera_.showAll(places, width() - 40.0, std::max(100, height() - room_above_ - room_below_));
        camera_.pan(0, (room_above_ - room_below_) / 2.0);
    }
    redraw();
    emit moved();
}

void SceneView::setRoom(int above_px, int below_px) {
    if (above_px == room_above_ && below_px == room_below_) return;
    room_above_ = above_px;
    room_below_ = below_px;
    turned_ ? overlay_->update() : showAll();
}

void SceneView::lookAt(const Point3& place) {
    turned_ = true;
    desk::lookFrom(camera_, ViewFrom::Corner);
    camera_.azimuth_rad = place[1] > 0 ? std::numbers::pi + 0.55 : -0.55; // from the side on which it lies
    camera_.at = place;
    camera_.px_per_mm = 0.38;
    camera_.pan(0, (room_above_ - room_below_) / 2.0);
    redraw();
    emit moved();
}

void SceneView::showStation(double station_mm) {
    camera_.at[0] = station_mm;
    camera_.px_per_mm = std::max(camera_.px_per_mm, 0.6);
    redraw();
    emit moved();
}

void SceneView::clearPicks() {
    picks_.clear();
    overlay_->update();
    emit moved();
}

void SceneView::moving() {
    turned_ = true;
    in_motion_ = true;
    rest_.start();
    redraw();
    emit moved();
}

// ---- drawing

void SceneView::redraw() {
    picture_.restart();
    stale_ = true;
    overlay_->update();
    update();
}

bool SceneView::begin() {
    if (!can_draw_) return false;
    if (context_) return context_->makeCurrent(surface_.get());
    QSurfaceFormat format;
    format.setVersion(3, 3);
    format.setProfile(QSurfaceFormat::CoreProfile);
    context_ = std::make_unique<QOpenGLContext>();
    context_->setFormat(format);
    surface_ = std::make_unique<QOffscreenSurface>();
    can_draw_ = context_->create();
    if (can_draw_) {
        surface_->setFormat(context_->format());
        surface_->create();
        can_draw_ =
            surface_->isValid() && context_->makeCurrent(surface_.get()) && initializeOpenGLFunctions() && picture_.make(*this);
    }
    if (!can_draw_) {
        context_.reset();
        return false;
    }
    for (int l = 0; l < layers; ++l) {
        buffers_[l] = std::make_unique<MeshBuffers>();
        dirty_[l] = meshes_[l] != nullptr;
    }
    dirty_distances_ = true;
    return true;
}

void SceneView::fillBuffers() {
    for (int l = 0; l < layers; ++l) {
        if (!dirty_[l]) continue;
        dirty_[l] = false;
        if (!meshes_[l]) {
            buffers_[l]->clear();
            continue;
        }
        buffers_[l]->fill(*this, *meshes_[l]);
        dirty_distances_ = dirty_distances_ || l == Body;
    }
    for (Loose& l : loose_) {
        if (l.buffers) continue;
        l.buffers = std::make_unique<MeshBuffers>();
        l.buffers->fill(*this, *l.mesh);
    }
    if (dirty_distances_ && meshes_[Body]) buffers_[Body]->setDistances(distances_, meshes_[Body]->mesh->points.size());
    dirty_distances_ = false;
}

sheet::Ink SceneView::inkOf(Layer l) {
    switch (l) {
    case Body: return sheet::Ink::Body;
    case NewSteel: return sheet::Ink::NewSteel;
    case ToRemove: return sheet::Ink::Remove;
    default: return sheet::Ink::Chassis;
    }
}

void SceneView::setPickU95(double mm) {
    if (picks_.empty()) return;
    picks_.back().u95_mm = mm;
    overlay_->update();
}

std::vector<ScribedPart> SceneView::scribedParts() const {
    constexpr Dress dresses[layers] = {Dress::Body, Dress::Chassis, Dress::NewSteel, Dress::ToRemove};
    std::vector<ScribedPart> parts;
    for (int l = 0; l < layers; ++l) {
        if (!drawnNow(static_cast<Layer>(l))) continue;
        parts.push_back(
            {buffers_[l].get(), dresses[l], matrixOf(placed(static_cast<Layer>(l))), l == Body && !distances_.empty()});
    }
    if (shown_[Chassis])
        for (const Loose& l : loose_) parts.push_back({l.buffers.get(), Dress::Chassis, matrixOf(l.pose), false});
    return parts;
}

ScribedView SceneView::scribedView() const {
    ScribedView v;
    const Point3 right = camera_.right(), up = camera_.up(), towards = camera_.towards();
    const double sx = 2 * camera_.px_per_mm / width(), sy = 2 * camera_.px_per_mm / height(),
                 sz = -1.0 / ScribedPicture::depth_mm;
    const Point3 rows[3] = {geometry::times(right, sx), geometry::times(up, sy), geometry::times(towards, sz)};
    for (int i = 0; i < 3; ++i) {
        for (int j = 0; j < 3; ++j) v.view(i, j) = static_cast<float>(rows[i][static_cast<size_t>(j)]);
        v.view(i, 3) = static_cast<float>(-geometry::dot(rows[i], camera_.at));
    }
    // of the two sides of a section, the one away from the eye is left
    v.section = QVector4D(0, 0, 0, 1);
    if (section_) {
        const float side = towards[0] > 0.02 ? -1.0F : 1.0F;
        v.section = QVector4D(side, 0, 0, -side * static_cast<float>(*section_));
    }
    v.mm_per_px = 1 / (camera_.px_per_mm * devicePixelRatioF());
    v.line_px = std::max(1, static_cast<int>(std::lround(devicePixelRatioF())));
    if (box_) {
        v.near_mm = -1e9;
        v.far_mm = 1e9;
        for (int corner = 0; corner < 8; ++corner) {
            const Point3 q{(corner & 1 ? box_->second : box_->first)[0], (corner & 2 ? box_->second : box_->first)[1],
                           (corner & 4 ? box_->second : box_->first)[2]};
            const double depth = geometry::dot(geometry::minus(q, camera_.at), towards);
            v.near_mm = std::max(v.near_mm, depth);
            v.far_mm = std::min(v.far_mm, depth);
        }
    }
    v.fouls_mm = static_cast<float>(need_.foulsBelow());
    v.tight_mm = static_cast<float>(need_.tightBelow());
    v.dark = theme_.ground() == Ground::Dye;
    const auto ink = [this](sheet::Ink i) { return rgb(theme_.color(i)); };
    v.ground = ink(sheet::Ink::Sheet);
    v.chassis = ink(inkOf(Chassis));
    v.new_steel = ink(inkOf(NewSteel));
    v.body = ink(inkOf(Body));
    v.remove = ink(inkOf(ToRemove));
    v.tight = ink(sheet::Ink::Warn);
    v.foul = ink(sheet::Ink::Bad);
    return v;
}

void SceneView::draw() {
    if (!(stale_ || (!in_motion_ && !picture_.isDone())) || !begin()) return;
    stale_ = false;
    fillBuffers();
    if (QImage picture = picture_.paint(*this, scribedView(), scribedParts(), size() * devicePixelRatioF(), in_motion_);
        !picture.isNull()) {
        shown_picture_ = std::move(picture);
        emit drawn();
    }
    context_->doneCurrent();
}

void SceneView::paintEvent(QPaintEvent* event) {
    draw();
    QPainter p(this);
    p.setClipRegion(event->region());
    if (shown_picture_.isNull()) {
        p.fillRect(rect(), theme_.color(sheet::Ink::Sheet));
    } else {
        p.setRenderHint(QPainter::SmoothPixmapTransform);
        p.drawImage(rect(), shown_picture_);
    }
    if (can_draw_ && !in_motion_ && !picture_.isDone()) QTimer::singleShot(0, this, [this] { update(); });
}

QImage SceneView::finished() {
    if (in_motion_) {
        rest_.stop();
        in_motion_ = false;
        redraw();
    }
    for (int k = 0; k < ScribedPicture::laid_over && !isSettled(); ++k) draw(); // each lays one over
    return grab().toImage();
}

void SceneView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    overlay_->setGeometry(rect());
    redraw();
    if (!turned_) showAll(); // until somebody looks elsewhere, everything is in the picture
}

// ---- by mouse and keyboard

} // namespace gorvet::desk
