// The picture of meshes: what is scribed where, by its pixels.
#include "desk/view3d/scene_view.hpp"

#include "desk/driver.hpp"
#include "sim/mesh_maker.hpp"

#include <cmath>

namespace desk_scene_test {

using namespace gorvet;
using desk::SceneView;
using shape::Mesh;
using shape::Point3;
using test::waitFor;

namespace {

/// A closed box whose eight corners are shared by its faces.
Mesh box(const Point3& from, const Point3& to) {
    Mesh m;
    for (int corner = 0; corner < 8; ++corner)
        m.points.push_back({(corner & 1 ? to : from)[0], (corner & 2 ? to : from)[1], (corner & 4 ? to : from)[2]});
    constexpr std::uint32_t faces[6][4] = {{0, 2, 3, 1}, {4, 5, 7, 6}, {0, 1, 5, 4}, {2, 6, 7, 3}, {0, 4, 6, 2}, {1, 3, 7, 5}};
    for (const auto& f : faces) {
        m.triangles.push_back({f[0], f[1], f[2]});
        m.triangles.push_back({f[0], f[2], f[3]});
    }
    return m;
}

std::shared_ptr<desk::SceneMesh> scene(Mesh m) {
    auto mesh = std::make_shared<const Mesh>(std::move(m));
    return desk::sceneMeshOf(mesh, std::make_shared<const shape::DistanceTree>(mesh));
}

struct Picture {
    SceneView view;
    QImage image;

    Picture() { view.resize(600, 400); }
    void settle() {
        view.show();
        REQUIRE(waitFor([&] { return view.isSettled(); }));
        image = view.picture();
    }
    QPointF at(const Point3& p) const {
        const Point3 s = view.camera().onScreen(p);
        return {300 + s[0], 200 + s[1]};
    }
    QColor colour(const Point3& p) const { return image.pixelColor(at(p).toPoint()); }
    /// The strongest ink within a pixel of a place.
    double inkNear(const Point3& p, const QColor& ink) const {
        double best = 0;
        for (int dx = -1; dx <= 1; ++dx)
            for (int dy = -1; dy <= 1; ++dy)
                best = std::max(best, share(image.pixelColor(at(p).toPoint() + QPoint(dx, dy)), ink));
        return best;
    }
    /// How much of the way from the sheet to the ink a colour is.
    double share(const QColor& c, const QColor& ink) const {
        const QColor ground = view.theme().color(sheet::Ink::Sheet);
        double dot = 0, all = 0;
        for (const auto part : {&QColor::redF, &QColor::greenF, &QColor::blueF}) {
            const double way = (ink.*part)() - (ground.*part)();
            dot += ((c.*part)() - (ground.*part)()) * way;
            all += way * way;
        }
        return dot / all;
    }
};

} // namespace

TEST_CASE("an edge stays an edge and round sheet stays round, however the triangles are wound", "[desk][scene]") {
    Mesh cube = box({0, 0, 0}, {100, 100, 100});
    for (size_t t = 0; t < cube.triangles.size(); t += 3) std::swap(cube.triangles[t][1], cube.triangles[t][2]);
    const auto drawn = shape::drawnMesh(cube);
    CHECK(drawn.from.size() == 24); // each corner once for each of its three faces
    REQUIRE(drawn.triangles.size() == 36);
    for (size_t t = 0; t < 12; ++t) {
        const shape::Triangle& q = cube.triangles[t];
        const Point3 across = geometry::unit(geometry::cross(geometry::minus(cube.points[q[1]], cube.points[q[0]]),
                                                             geometry::minus(cube.points[q[2]], cube.points[q[0]])));
        for (size_t c = 0; c < 3; ++c) {
            const std::uint32_t corner = drawn.triangles[3 * t + c];
            CHECK(drawn.from[corner] == q[c]);
            double dot = 0;
            for (size_t axis = 0; axis < 3; ++axis) dot += across[axis] * drawn.places[6 * corner + 3 + axis];
            CHECK(std::abs(dot) == Approx(1).margin(1e-6));
        }
    }
    // a tube of forty facets: one normal a point, pointing away from its axis
    Mesh tube;
    for (int i = 0; i < 40; ++i)
        for (const double x : {0.0, 500.0})
            tube.points.push_back({x, 50 * std::cos(i * M_PI / 20), 50 * std::sin(i * M_PI / 20)});
    for (std::uint32_t i = 0; i < 40; ++i) {
        const std::uint32_t a = 2 * i, b = 2 * ((i + 1) % 40);
        tube.triangles.push_back({a, a + 1, b});
        tube.triangles.push_back({b, a + 1, b + 1});
    }
    const auto round = shape::drawnMesh(tube);
    CHECK(round.from.size() == tube.points.size());
    for (size_t i = 0; i < round.from.size(); ++i) {
        const Point3& p = tube.points[round.from[i]];
        CHECK(std::abs(round.places[6 * i + 4] * p[1] + round.places[6 * i + 5] * p[2]) / 50 > 0.99);
    }
    // points of a cloud are kept apart
    Mesh cloud;
    cloud.points = {{0, 0, 0}, {1, 0, 0}};
    cloud.triangles = {{0, 0, 0}, {1, 1, 1}};
    const auto dots = shape::drawnMesh(cloud);
    CHECK(dots.triangles.empty());
    CHECK(dots.lone.size() == 2);
    CHECK(shape::drawnMesh({}).empty());
}

TEST_CASE("outlines and creases are scribed, faces are quiet, and the chassis is seen through the body", "[desk][scene]") {
    for (const auto ground : {desk::Ground::Day, desk::Ground::Dye}) {
        Picture p;
        p.view.setTheme({ground, 1});
        p.view.setMesh(SceneView::Chassis, scene(box({0, -300, 0}, {2000, 300, 200})));
        p.view.lookFrom(desk::ViewFrom::Corner);
        p.settle();
        const QColor chassis = p.view.theme().color(sheet::Ink::Chassis), body = p.view.theme().color(sheet::Ink::Body);
        const auto nearest = [&](int axis) { return p.view.camera().towards()[static_cast<size_t>(axis)] > 0; };
        const double y = nearest(1) ? 300 : -300, x = nearest(0) ? 2000 : 0;
        // the crease between top and side, the outline of the top, the middle of two faces
        CHECK(p.inkNear({1000, y, 200}, chassis) > 0.6);
        CHECK(p.inkNear({x, 0, 200}, chassis) > 0.6);
        CHECK(p.inkNear({1000, -y, 200}, chassis) > 0.5);
        CHECK(p.share(p.colour({1000, 0, 200}), chassis) < 0.5);
        CHECK(p.share(p.colour({1000, y, 100}), chassis) < 0.6);
        CHECK(p.share(p.colour({1000, 0, 200}), chassis) > 0.05);
        CHECK(p.image.pixelColor(3, 3) == p.view.theme().color(sheet::Ink::Sheet));
        // a body over it: what lies inside shows through, weaker than alone
        const double alone = p.inkNear({1000, y, 200}, chassis);
        p.view.setMesh(SceneView::Body, scene(box({-400, -600, -100}, {2400, 600, 900})));
        p.settle();
        const double through = p.inkNear({1000, y, 200}, chassis);
        CHECK(through > 0.15);
        CHECK(through < alone);
        CHECK(p.inkNear({1000, nearest(1) ? 600.0 : -600.0, 900}, body) > 0.6);
        // what is not shown is gone
        p.view.setShown(SceneView::Body, false);
        p.settle();
        CHECK(p.inkNear({1000, y, 200}, chassis) == Approx(alone).margin(0.05));
    }
}

TEST_CASE("a picture that stands still becomes smooth, and then costs nothing", "[desk][scene]") {
    Picture p;
    p.view.setMesh(SceneView::Chassis, scene(box({0, -300, 0}, {2000, 300, 200})));
    p.view.lookFrom(desk::ViewFrom::Corner);
    QImage first; // the first whole picture: its steps are smoothed at once, before others are laid over it
    const auto early = QObject::connect(&p.view, &SceneView::drawn, [&] {
        if (first.isNull() && !p.view.isSettled()) first = p.view.picture();
    });
    p.settle();
    QObject::disconnect(early);
    REQUIRE_FALSE(first.isNull());
    // coming to a slanted outline from outside, the first ink is mostly less than a line's: its steps are smoothed
    const QColor ink = p.view.theme().color(sheet::Ink::Chassis);
    const double y = p.view.camera().towards()[1] > 0 ? 300 : -300;
    for (const QImage* image : {&std::as_const(first), &std::as_const(p.image)}) {
        int columns = 0, partly = 0;
        for (double x = 100; x < 1900; x += 10) {
            QPoint at = p.at({x, y, 0}).toPoint() + QPoint(0, 5);
            while (p.share(image->pixelColor(at), ink) < 0.05) at -= QPoint(0, 1);
            ++columns;
            partly += p.share(image->pixelColor(at), ink) < 0.85; // a whole line is 0.93
        }
        INFO(partly << " of " << columns);
        CHECK(partly > columns / 2);
    }
    int frames = 0;
    QObject::connect(&p.view, &SceneView::drawn, [&] { ++frames; });
    QTest::qWait(300);
    CHECK(frames <= 1);
    QTest::keyClick(&p.view, Qt::Key_Right);
    CHECK_FALSE(p.view.isSettled());
    CHECK(waitFor([&] { return p.view.isSettled(); }));
}

TEST_CASE("new steel has ticks inward from its outline, what stays has none", "[desk][scene]") {
    for (const bool steel : {true, false}) {
        Picture p;
        p.view.setMesh(steel ? SceneView::NewSteel : SceneView::Chassis, scene(box({0, -300, 0}, {2000, 300, 5})));
        p.view.lookFrom(desk::ViewFrom::Above);
        p.settle();
        const QColor ink = p.view.theme().color(steel ? sheet::Ink::NewSteel : sheet::Ink::Chassis);
        // along the upper edge, three pixels inside of it: ticks, and sheet between them
        const double y = p.at({1000, -300, 5}).y() < p.at({1000, 300, 5}).y() ? -300 : 300;
        int strong = 0, all = 0;
        for (double x = 200; x < 1800; x += 4, ++all)
            strong += p.share(p.image.pixelColor(p.at({x, y, 5}).toPoint() + QPoint(0, 3)), ink) > 0.7;
        INFO(strong << " of " << all);
        if (steel) {
            CHECK(strong > all / 20);
            CHECK(strong < all / 2);
        } else {
            CHECK(strong == 0);
        }
    }
}

TEST_CASE("bands are hatched: crossed where it fouls, single where it is tight", "[desk][scene]") {
    Picture p;
    const Mesh plate = box({0, -300, 0}, {2000, 300, 5});
    p.view.setMesh(SceneView::Body, scene(plate));
    p.view.lookFrom(desk::ViewFrom::Above);
    sit::Need need;
    const auto inked = [&](float distance, sheet::Ink ink) {
        p.view.setDistances(std::vector<float>(plate.points.size(), distance), need);
        p.settle();
        const QColor c = p.view.theme().color(ink);
        int strong = 0, all = 0;
        for (double x = 300; x < 1700; x += 5)
            for (double y = -200; y < 200; y += 5, ++all) strong += p.share(p.colour({x, y, 5}), c) > 0.8;
        return static_cast<double>(strong) / all;
    };
    const double fouls = inked(static_cast<float>(need.foulsBelow() - 1), sheet::Ink::Bad);
    const double tight = inked(static_cast<float>((need.foulsBelow() + need.tightBelow()) / 2), sheet::Ink::Warn);
    const double clear = inked(1e6F, sheet::Ink::Warn);
    CHECK(fouls > 0.25);
    CHECK(fouls < 0.7);
    CHECK(tight > 0.1);
    CHECK(tight < 0.8 * fouls);
    CHECK(clear == 0);
}

} // namespace desk_scene_test
