#include "desk/scan_driver.hpp"

#include "desk/view3d/scene_view.hpp"
#include "desk/widgets/rule_view.hpp"
#include "sim/car_meshes.hpp"

#include <QSlider>

namespace desk_watch_test {

using namespace gorvet;
using namespace gorvet::test;
using desk::SceneView;

namespace {

/// Where in the view the frame is seen, behind the wheel; farther than `apart` from `from`.
QPoint frameAt(const SceneView& view, QPoint from = {-1000, -1000}, double apart = 0) {
    for (int y = 60; y < view.height() - 120; y += 7)
        for (int x = 20; x < view.width() - 20; x += 7) {
            const auto hit = view.pickAt(QPointF(x, y));
            if (hit && hit->layer == SceneView::Chassis && hit->at[0] > 500 && std::hypot(x - from.x(), y - from.y()) > apart)
                return {x, y};
        }
    return {-1, -1};
}

} // namespace

TEST_CASE("wheels, the change and the work are watched on a slider; picks begin lines", "[desk][watch]") {
    const auto folder = freshFolder("watch-window");
    const auto build = demoBuild(folder, "petrel_on_tern --plain");
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(build.string())));
    d.bench("scan");
    auto* view = d.find<SceneView>("scene");
    const auto at = [](shape::Mesh m, const desk::Point3& to) {
        return transformed(std::move(m), geometry::rigidTransform(to, 0, 0, 0));
    };
    addScan(d, written(folder, "shell.ply", sim::bodyShell(60)), "the body");
    addScan(d, written(folder, "frame.ply", sim::ladderFrame(50)), "the chassis");
    addScan(d, written(folder, "wheel.ply", at(sim::wheel(40), {0, -640, 430})), "the chassis");
    d.keep("scan wheel part wheel");
    REQUIRE(waitLong([&] { return current(d) && current(d, analysis::slow::layers) && idle(d); }));
    const auto revision = d.window.document().store()->revision();
    const auto chassis = view->mesh(SceneView::Chassis);
    auto* time = d.find<QSlider>("sceneTime");
    const auto watch = [&](const char* action) {
        d.action(action);
        REQUIRE(waitLong([&] { return time->isVisible(); }));
    };
    const auto leave = [&] {
        d.find<QPushButton>("toolStop")->click();
        REQUIRE(waitFor([&] { return !time->isVisible(); }));
        CHECK(view->mesh(SceneView::Chassis) == chassis);
        CHECK(view->loosePoses().empty());
        CHECK(d.window.document().store()->revision() == revision);
    };

    watch("seeTravel");
    REQUIRE(view->loosePoses().size() == 1);
    CHECK(view->mesh(SceneView::Chassis) != chassis);                      // without its wheel, which moves
    d.find<QPushButton>("toolAnswer1")->click();                           // where it is worst
    CHECK(waitFor([&] { return d.text("sceneWords").contains("bump"); })); // an answer is taken when its button has returned
    CHECK(view->loosePoses()[0].translation[2] > 20);
    time->setValue(0);
    CHECK(view->loosePoses()[0].translation[2] == Approx(0).margin(1e-9));
    leave();

    watch("seeChange");
    CHECK(time->maximum() == 1);
    CHECK(d.text("sceneWords").contains("surveyed"));
    CHECK(view->mesh(SceneView::Chassis) != chassis);
    time->setValue(1);
    CHECK(d.text("sceneWords").contains("planned"));
    CHECK(view->mesh(SceneView::Chassis) == chassis);
    leave();

    d.window.setBench("work");
    watch("seeWork");
    const auto& steps = d.window.document().results().work->steps;
    CHECK(time->maximum() + 1 == static_cast<int>(steps.size()));
    for (std::size_t k = 0; k < steps.size(); k += 5) {
        time->setValue(static_cast<int>(k));
        CHECK(d.text("sceneWords").contains(QString::fromStdString(steps[k].title)));
    }
    // an edit meanwhile: what it showed is of another build
    d.keep("clearance finish 3");
    REQUIRE(waitFor([&] { return !time->isVisible(); }));
    d.action("undo");
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));

    // the station under the pointer is on The Rule
    d.window.setBench("scan");
    view->lookFrom(desk::ViewFrom::Left);
    const QPoint first = frameAt(*view);
    REQUIRE(first.x() >= 0);
    QTest::mouseMove(view, first);
    auto* rule = d.find<desk::RuleView>("rule");
    CHECK(waitFor([&] { return !rule->pointerFigure().isEmpty(); }));

    // two places of one scan begin a reading, with its ±; the points are typed in front
    d.action("fromPicks");
    QTest::mouseClick(view, Qt::LeftButton, {}, frameAt(*view)); // the tool's row may have moved it
    REQUIRE(waitFor([&] { return d.find<QPushButton>("toolAnswer0")->isVisible(); }));
    const QPoint second = frameAt(*view, frameAt(*view), 60);
    REQUIRE(second.x() >= 0);
    QTest::mouseClick(view, Qt::LeftButton, {}, second);
    REQUIRE(waitFor([&] { return view->picks().size() == 2; }));
    d.find<QPushButton>("toolAnswer1")->click();
    auto* field = d.find<QLineEdit>("entry");
    CHECK(waitFor([&] { return field->text().contains("±"); }));
    CHECK(field->cursorPosition() == 0);
    QTest::keyClicks(field, "Al Bl");
    const auto readings = d.window.document().latest().readings.size();
    QTest::keyClick(field, Qt::Key_Return);
    if (d.window.document().latest().readings.size() == readings)
        QTest::keyClick(field, Qt::Key_Return); // far from what is expected: asked once
    REQUIRE(waitFor([&] { return d.window.document().latest().readings.size() == readings + 1; }));
    const auto& reading = std::prev(d.window.document().latest().readings.end())->second;
    CHECK(reading.sigma);
    CHECK(reading.note == "picked on the scan frame");
    d.action("undo");

    // and one place a point
    d.action("fromPicks");
    QTest::mouseClick(view, Qt::LeftButton, {}, frameAt(*view));
    REQUIRE(waitFor([&] { return d.find<QPushButton>("toolAnswer0")->isVisible(); }));
    d.find<QPushButton>("toolAnswer0")->click();
    CHECK(waitFor([&] { return field->text().startsWith("point chassis: "); }));
    CHECK(field->cursorPosition() == 14);
    QTest::keyClicks(field, "Zz");
    QTest::keyClick(field, Qt::Key_Return);
    const auto named = [&](const std::string& name) {
        for (const auto& [id, p] : d.window.document().latest().points)
            if (p.name == name && p.subject == build::the_chassis) return true;
        return false;
    };
    CHECK(waitFor([&] { return named("Zz"); }));
}

} // namespace desk_watch_test
