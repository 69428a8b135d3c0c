// How long a frame of the 3-D view takes, at 1280x800: standing still (all triangles) and while it moves (the thinned ones).
// Needs a display: xvfb-run -s "-screen 0 1280x800x24" build/bench/display/bench_scene
#include "desk/view3d/scene_view.hpp"
#include "sim/car_meshes.hpp"

#include <QApplication>
#include <QElapsedTimer>
#include <QTest>
#include <algorithm>
#include <cstdio>

using namespace gorvet;

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    for (const double step : {15.0, 8.5}) {
        const auto mesh = std::make_shared<const shape::Mesh>(sim::bodyShell(step));
        const auto tree = std::make_shared<const shape::DistanceTree>(mesh);
        desk::SceneView view;
        view.resize(1280, 800);
        view.setMesh(desk::SceneView::Body, desk::sceneMeshOf(mesh, tree));
        view.setDistances(std::vector<float>(mesh->points.size(), 14), {});
        view.show();
        if (!QTest::qWaitForWindowExposed(&view)) return 1;
        const auto frames = [&](const char* what, bool moves) {
            std::vector<double> ms;
            for (int i = 0; i < 20; ++i) {
                QElapsedTimer t;
                t.start();
                if (moves) QTest::keyClick(&view, Qt::Key_Right);
                view.repaint();
                ms.push_back(static_cast<double>(t.nsecsElapsed()) / 1e6);
            }
            std::sort(ms.begin(), ms.end());
            std::printf("%zu triangles, %s: median %.0f ms a frame, most %.0f\n", mesh->triangles.size(), what, ms[10],
                        ms.back());
        };
        frames("moving", true);
        const QSize coarse = view.picture().size();
        std::printf("%zu triangles, moving: a picture of %d x %d\n", mesh->triangles.size(), coarse.width(), coarse.height());
        QElapsedTimer still;
        still.start();
        double first = 0;
        const auto whole = QObject::connect(&view, &desk::SceneView::drawn, [&] {
            if (first == 0 && view.picture().width() == view.width())
                first = static_cast<double>(still.nsecsElapsed()) / 1e6;
        });
        if (!QTest::qWaitFor([&] { return view.isSettled(); }, 20000)) return 1;
        std::printf("%zu triangles, at rest: all of it after %.0f ms, smooth after %.0f (60 of them waited for rest)\n",
                    mesh->triangles.size(), first, static_cast<double>(still.nsecsElapsed()) / 1e6);
        QObject::disconnect(whole);
        frames("standing", false);
        QElapsedTimer t;
        t.start();
        int hit = 0;
        for (int x = 0; x < 1280; x += 40)
            for (int y = 0; y < 800; y += 40) hit += view.pickAt(QPointF(x, y)).has_value();
        std::printf("%zu triangles: %.2f ms a pick (%d of 640 hit)\n", mesh->triangles.size(),
                    static_cast<double>(t.nsecsElapsed()) / 1e6 / 640, hit);
    }
    return 0;
}
