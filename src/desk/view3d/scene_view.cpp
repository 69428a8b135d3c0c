#include "desk/view3d/scene_view.hpp"

#include "desk/view3d/scene_overlay.hpp"
#include "scan/cloud.hpp"

#include <QElapsedTimer>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>

namespace gorvet::desk {

namespace {

constexpr size_t most_while_moving = 70000; ///< triangles: software rendering keeps up with so many

const char* vertex_code = R"(#version 330 core
layout(location = 0) in vec3 place;
layout(location = 1) in vec3 normal;
layout(location = 2) in float distance_mm;
uniform mat4 view;
uniform mat4 pose;
uniform vec4 section;
out vec3 facing;
out float clearance;
void main() {
    vec4 at = pose * vec4(place, 1.0);
    gl_Position = view * at;
    gl_ClipDistance[0] = dot(section, at);
    facing = mat3(pose) * normal;
    clearance = distance_mm;
    gl_PointSize = 2.0;
}
)";

// bands by hatch as well as by colour: crossed lines foul, single ones are tight
const char* fragment_code = R"(#version 330 core
in vec3 facing;
in float clearance;
uniform vec3 own;
uniform vec3 ground;
uniform vec3 tight_ink;
uniform vec3 foul_ink;
uniform vec3 light;
uniform float fouls;
uniform float tight;
uniform int banded;
out vec4 colour;
void main() {
    float n = length(facing);
    float lit = n > 0.1 ? 0.45 + 0.55 * abs(dot(facing / n, light)) : 0.8;
    vec3 c = mix(ground, own, 0.35 + 0.65 * lit) * (0.55 + 0.45 * lit);
    if (banded == 1 && clearance < tight) {
        vec3 ink = clearance < fouls ? foul_ink : tight_ink;
        float a = mod(gl_FragCoord.x + gl_FragCoord.y, 9.0);
        float b = mod(gl_FragCoord.x - gl_FragCoord.y, 9.0);
        bool line = clearance < fouls ? (a < 2.2 || b < 2.2) : a < 2.2;
        c = line ? ink : mix(ground, ink, 0.35) * (0.7 + 0.3 * lit);
    }
    colour = vec4(c, 1.0);
}
)";

QVector3D rgb(const QColor& c) {
    return {static_cast<float>(c.redF()), static_cast<float>(c.greenF()), static_cast<float>(c.blueF())};
}

/// Places and mean normals, six floats a point.
std::vector<float> pointData(const shape::Mesh& m) {
    std::vector<Point3> normal(m.points.size());
    for (const shape::Triangle& t : m.triangles) {
        const Point3 n = geometry::cross(geometry::minus(m.points[t[1]], m.points[t[0]]), geometry::minus(m.points[t[2]], m.points[t[0]]));
        for (const std::uint32_t p : t) normal[p] = geometry::plus(normal[p], n);
    }
    std::vector<float> data;
    data.reserve(6 * m.points.size());
    for (size_t i = 0; i < m.points.size(); ++i) {
        const Point3 n = geometry::unit(normal[i]);
        for (const double v : {m.points[i].x_mm, m.points[i].y_mm, m.points[i].z_mm}) data.push_back(static_cast<float>(v));
        for (const double v : {n.x_mm, n.y_mm, n.z_mm}) data.push_back(static_cast<float>(v));
    }
    return data;
}

} // namespace

std::shared_ptr<SceneMesh> sceneMeshOf(std::shared_ptr<const shape::Mesh> mesh, std::shared_ptr<const shape::DistanceTree> tree) {
    auto s = std::make_shared<SceneMesh>();
    s->mesh = std::move(mesh);
    s->tree = std::move(tree);
    if (s->mesh->triangles.size() > most_while_moving / 2) {
        scan::Downsampled t = scan::downsampled(*s->mesh, 25);
        for (double bound = 35; t.mesh.triangles.size() > most_while_moving / 2 && bound < 500; bound *= 1.4)
            t = scan::downsampled(*s->mesh, bound);
        s->thinned = std::move(t.mesh);
        s->thinned_from = std::move(t.kept);
    }
    return s;
}

/// One mesh in the card's memory: triangles and lone points.
struct SceneView::Buffers {
    struct Set {
        QOpenGLVertexArrayObject arrays;
        QOpenGLBuffer points{QOpenGLBuffer::VertexBuffer};
        QOpenGLBuffer distances{QOpenGLBuffer::VertexBuffer};
        QOpenGLBuffer triangles{QOpenGLBuffer::IndexBuffer};
        int corners = 0;
        int lone = 0; ///< points without a triangle, after the corners
        int count = 0;
        bool made = false;

        void fill(SceneView& gl, const shape::Mesh& m) {
            std::vector<std::uint32_t> index;
            std::vector<std::uint32_t> alone;
            for (const shape::Triangle& t : m.triangles) {
                if (t[0] == t[1])
                    alone.push_back(t[0]);
                else
                    index.insert(index.end(), t.begin(), t.end());
            }
            corners = static_cast<int>(index.size());
            lone = static_cast<int>(alone.size());
            index.insert(index.end(), alone.begin(), alone.end());
            count = static_cast<int>(m.points.size());
            const auto data = pointData(m);
            if (!made) {
                arrays.create();
                points.create();
                distances.create();
                triangles.create();
                made = true;
            }
            arrays.bind();
            points.bind();
            points.allocate(data.data(), static_cast<int>(data.size() * sizeof(float)));
            gl.glEnableVertexAttribArray(0);
            gl.glVertexAttribPointer(0, 3, GL_FLOAT, GL_FALSE, 24, nullptr);
            gl.glEnableVertexAttribArray(1);
            gl.glVertexAttribPointer(1, 3, GL_FLOAT, GL_FALSE, 24, reinterpret_cast<const void*>(12));
            distances.bind();
            const std::vector<float> far(m.points.size(), 1e9F);
            distances.allocate(far.data(), static_cast<int>(far.size() * sizeof(float)));
            gl.glEnableVertexAttribArray(2);
            gl.glVertexAttribPointer(2, 1, GL_FLOAT, GL_FALSE, 4, nullptr);
            triangles.bind();
            triangles.allocate(index.data(), static_cast<int>(index.size() * sizeof(std::uint32_t)));
            arrays.release();
        }
        void draw(SceneView& gl) {
            if (!made) return;
            arrays.bind();
            if (corners > 0) gl.glDrawElements(GL_TRIANGLES, corners, GL_UNSIGNED_INT, nullptr);
            if (lone > 0)
                gl.glDrawElements(GL_POINTS, lone, GL_UNSIGNED_INT,
                                  reinterpret_cast<const void*>(static_cast<size_t>(corners) * 4));
            arrays.release();
        }
    };
    Set full, thin;
};

SceneView::SceneView(QWidget* parent) : QOpenGLWidget(parent) {
    setObjectName("scene");
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(200);
    setAccessibleName(tr("Scans of body and chassis to scale"));
    QSurfaceFormat format;
    format.setVersion(3, 3);
    format.setProfile(QSurfaceFormat::CoreProfile);
    format.setDepthBufferSize(24);
    setFormat(format);
    overlay_ = new SceneOverlay(this);
    rest_.setSingleShot(true);
    rest_.setInterval(140);
    connect(&rest_, &QTimer::timeout, this, [this] {
        in_motion_ = false;
        update();
    });
    desk::lookFrom(camera_, ViewFrom::Corner);
}

SceneView::~SceneView() {
    makeCurrent();
    for (auto& b : buffers_) b.reset();
    program_.reset();
    doneCurrent();
}

void SceneView::setTheme(const Theme& theme) {
    theme_ = theme;
    overlay_->update();
    update();
}

void SceneView::setMesh(Layer l, std::shared_ptr<SceneMesh> mesh) {
    meshes_[l] = std::move(mesh);
    dirty_[l] = true;
    if (l == Body) distances_.clear(), dirty_distances_ = true;
    findOutlines();
    if (!turned_) showAll();
    update();
}

void SceneView::setShown(Layer l, bool shown) {
    shown_[l] = shown;
    update();
    overlay_->update();
}

void SceneView::setSeat(const geometry::RigidTransform& seat) {
    seat_ = seat;
    findOutlines();
    overlay_->update();
    update();
}

void SceneView::setDistances(const std::vector<float>& distances, const sit::Need& need, bool unlike) {
    unlike_needs_ = unlike;
    distances_ = distances;
    need_ = need;
    dirty_distances_ = true;
    overlay_->update();
    update();
}

void SceneView::setLines(std::vector<SceneLine> lines) {
    lines_ = std::move(lines);
    corner_.reset(); // they may be others by now
    overlay_->update();
}

void SceneView::setSection(std::optional<double> station) {
    section_ = station;
    findOutlines();
    overlay_->update();
    update();
    emit moved();
}

void SceneView::findOutlines() {
    for (int l = 0; l < layers; ++l) {
        outline_[l].clear();
        if (!section_ || !meshes_[l]) continue;
        const geometry::RigidTransform move = placed(static_cast<Layer>(l));
        const shape::Mesh& m = in_motion_ && !meshes_[l]->thinned.points.empty() ? meshes_[l]->thinned : *meshes_[l]->mesh;
        std::vector<float> station;
        station.reserve(m.points.size());
        for (const Point3& p : m.points) station.push_back(static_cast<float>(geometry::dot(move.rotation[0], p) + move.translation[0]));
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

void SceneView::showAll() {
    if (const auto all = box()) camera_.showAll(all->first, all->second, width(), height());
    overlay_->update();
    update();
    emit moved();
}

void SceneView::showStation(double station_mm) {
    camera_.at[0] = station_mm;
    camera_.px_per_mm = std::max(camera_.px_per_mm, 0.6);
    overlay_->update();
    update();
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
    overlay_->update();
    update();
    emit moved();
}

// ---- drawing

void SceneView::initializeGL() {
    if (!initializeOpenGLFunctions()) return;
    program_ = std::make_unique<QOpenGLShaderProgram>();
    program_->addShaderFromSourceCode(QOpenGLShader::Vertex, vertex_code);
    program_->addShaderFromSourceCode(QOpenGLShader::Fragment, fragment_code);
    program_->link();
    for (int l = 0; l < layers; ++l) {
        buffers_[l] = std::make_unique<Buffers>();
        dirty_[l] = meshes_[l] != nullptr;
    }
    dirty_distances_ = true;
}

void SceneView::fill(Layer l) {
    dirty_[l] = false;
    if (!meshes_[l]) return;
    buffers_[l]->full.fill(*this, *meshes_[l]->mesh);
    if (!meshes_[l]->thinned.points.empty())
        buffers_[l]->thin.fill(*this, meshes_[l]->thinned);
    else
        buffers_[l]->thin.corners = buffers_[l]->thin.lone = 0;
    if (l == Body) dirty_distances_ = true;
}

void SceneView::fillDistances() {
    dirty_distances_ = false;
    Buffers& b = *buffers_[Body];
    if (!b.full.made || distances_.size() != static_cast<size_t>(b.full.count)) return;
    b.full.distances.bind();
    b.full.distances.write(0, distances_.data(), static_cast<int>(distances_.size() * sizeof(float)));
    if (b.thin.made && b.thin.corners > 0) {
        std::vector<float> some;
        for (const std::uint32_t p : meshes_[Body]->thinned_from) some.push_back(distances_[p]);
        b.thin.distances.bind();
        b.thin.distances.write(0, some.data(), static_cast<int>(some.size() * sizeof(float)));
    }
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

void SceneView::draw(Layer l) {
    if (!meshes_[l] || !shown_[l]) return;
    QMatrix4x4 pose;
    const geometry::RigidTransform m = placed(l);
    for (int i = 0; i < 3; ++i) {
        for (int j = 0; j < 3; ++j) pose(i, j) = static_cast<float>(m.rotation[static_cast<size_t>(i)][static_cast<size_t>(j)]);
        pose(i, 3) = static_cast<float>(m.translation[static_cast<size_t>(i)]);
    }
    program_->setUniformValue("pose", pose);
    program_->setUniformValue("own", rgb(theme_.color(inkOf(l))));
    program_->setUniformValue("banded", l == Body && !distances_.empty() ? 1 : 0);
    Buffers& b = *buffers_[l];
    (in_motion_ && b.thin.corners > 0 ? b.thin : b.full).draw(*this);
}

void SceneView::paintGL() {
    QElapsedTimer took;
    took.start();
    const QColor ground = theme_.color(sheet::Ink::Sheet);
    glClearColor(static_cast<float>(ground.redF()), static_cast<float>(ground.greenF()), static_cast<float>(ground.blueF()), 1);
    glClear(GL_COLOR_BUFFER_BIT | GL_DEPTH_BUFFER_BIT);
    if (!program_ || !program_->isLinked()) return;
    for (int l = 0; l < layers; ++l)
        if (dirty_[l]) fill(static_cast<Layer>(l));
    if (dirty_distances_) fillDistances();
    glEnable(GL_DEPTH_TEST);
    glEnable(GL_PROGRAM_POINT_SIZE);
    program_->bind();
    const Point3 right = camera_.right(), up = camera_.up(), towards = camera_.towards();
    QMatrix4x4 view;
    const double sx = 2 * camera_.px_per_mm / width(), sy = 2 * camera_.px_per_mm / height(), sz = -1.0 / 20000;
    const Point3 rows[3] = {geometry::times(right, sx), geometry::times(up, sy), geometry::times(towards, sz)};
    for (int i = 0; i < 3; ++i) {
        for (int j = 0; j < 3; ++j) view(i, j) = static_cast<float>(rows[i][static_cast<size_t>(j)]);
        view(i, 3) = static_cast<float>(-geometry::dot(rows[i], camera_.at));
    }
    program_->setUniformValue("view", view);
    // of the two sides of a section, the one away from the eye is left
    QVector4D plane(0, 0, 0, 1);
    if (section_) {
        const float side = towards[0] > 0.02 ? -1.0F : 1.0F;
        plane = QVector4D(side, 0, 0, -side * static_cast<float>(*section_));
        glEnable(GL_CLIP_DISTANCE0);
    } else {
        glDisable(GL_CLIP_DISTANCE0);
    }
    program_->setUniformValue("section", plane);
    program_->setUniformValue("ground", rgb(ground));
    program_->setUniformValue("tight_ink", rgb(theme_.color(sheet::Ink::Warn)));
    program_->setUniformValue("foul_ink", rgb(theme_.color(sheet::Ink::Bad)));
    const Point3 light = geometry::unit(geometry::plus(towards, geometry::plus(geometry::times(up, 0.5), geometry::times(right, -0.3))));
    program_->setUniformValue(
        "light", QVector3D(static_cast<float>(light[0]), static_cast<float>(light[1]), static_cast<float>(light[2])));
    program_->setUniformValue("fouls", static_cast<float>(need_.foulsBelow()));
    program_->setUniformValue("tight", static_cast<float>(need_.tightBelow()));
    for (const Layer l : {Chassis, NewSteel, ToRemove, Body}) draw(l);
    program_->release();
    glFinish();
    fps_ = 1e9 / static_cast<double>(std::max<qint64>(1, took.nsecsElapsed()));
}

void SceneView::resizeEvent(QResizeEvent* event) {
    QOpenGLWidget::resizeEvent(event);
    overlay_->setGeometry(rect());
    if (!turned_) showAll(); // until somebody looks elsewhere, everything is in the picture
}

// ---- by mouse and keyboard

} // namespace gorvet::desk
