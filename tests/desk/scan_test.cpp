#include "desk/scan_driver.hpp"

#include "desk/view3d/camera.hpp"
#include "desk/view3d/scene_view.hpp"
#include "desk/widgets/sheet_view.hpp"
#include "sim/car_meshes.hpp"

#include <QCheckBox>
#include <QSlider>

#include <QImage>
#include <QMouseEvent>
#include <QWheelEvent>
#include <fstream>
#include <numbers>
#include <set>

namespace desk_scan_test {

using namespace gorvet;
using namespace gorvet::test;
using desk::SceneView;

TEST_CASE("a camera keeps what is under the pointer when it zooms, and a drag moves things as far as the pointer",
          "[desk][scan]") {
    desk::Camera c;
    for (const auto from : {desk::ViewFrom::Left, desk::ViewFrom::Above, desk::ViewFrom::Behind, desk::ViewFrom::Underneath,
                            desk::ViewFrom::Corner}) {
        desk::lookFrom(c, from);
        desk::Point3 p, way;
        c.ray(120, -40, p, way);
        const auto at = geometry::plus(p, geometry::times(way, 20000));
        CHECK(c.onScreen(at)[0] == Approx(120).margin(1e-6));
        CHECK(c.onScreen(at)[1] == Approx(-40).margin(1e-6));
        c.zoom(1.7, 120, -40);
        CHECK(c.onScreen(at)[0] == Approx(120).margin(1e-6));
        CHECK(c.onScreen(at)[1] == Approx(-40).margin(1e-6));
        const auto moved = geometry::plus(at, c.dragged(30, 12));
        CHECK(c.onScreen(moved)[0] == Approx(150).margin(1e-6));
        CHECK(c.onScreen(moved)[1] == Approx(-28).margin(1e-6));
        c.px_per_mm = 0.25;
    }
    // the nose to the left and the right side on top, as on the sheets
    desk::lookFrom(c, desk::ViewFrom::Left);
    CHECK(c.onScreen(geometry::plus(c.at, {100, 0, 0}))[0] > 0);
    CHECK(c.onScreen(geometry::plus(c.at, {0, 0, 100}))[1] < 0);
    desk::lookFrom(c, desk::ViewFrom::Above);
    CHECK(c.onScreen(geometry::plus(c.at, {100, 0, 0}))[0] > 0);
    CHECK(c.onScreen(geometry::plus(c.at, {0, 100, 0}))[1] < 0);
    desk::lookFrom(c, desk::ViewFrom::Behind);
    CHECK(c.onScreen(geometry::plus(c.at, {0, 100, 0}))[0] > 0);
}

TEST_CASE("two scans are brought in, laid by picks, the body is dragged, and a cut map comes out", "[desk][scan]") {
    const auto folder = freshFolder("scan-window");
    const auto build = demoBuild(folder, "petrel_on_tern --plain"); // nothing is drawn that nobody scanned
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(build.string())));
    d.bench("scan");
    CHECK(d.text("headline") == "Nothing was scanned yet.");
    auto* view = d.find<SceneView>("scene");

    // the shell in two halves: the rear one as another scanner stood, somewhere else
    const shape::Mesh shell = sim::bodyShell(45);
    shape::Mesh front, rear;
    for (shape::Mesh* half : {&front, &rear}) {
        half->points = shell.points; // loose ones do no harm
        for (const auto& t : shell.triangles)
            if ((shell.points[t[0]][0] < 1500) == (half == &front)) half->triangles.push_back(t);
    }
    const geometry::RigidTransform away = geometry::rigidTransform({260, -140, 55}, 0.06, 0.01, -0.02);
    addScan(d, written(folder, "shell.ply", front), "the body");
    addScan(d, written(folder, "Tail scan.ply", transformed(rear, away)), "the body");
    addScan(d, written(folder, "frame.ply", sim::ladderFrame(40)), "the chassis");
    REQUIRE(d.window.document().latest().scans.size() == 3);
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));
    CHECK_THAT(d.text("headline").toStdString(), Catch::Contains("fouls the chassis"));
    CHECK(view->hasBands());
    CHECK_FALSE(view->lines().empty());
    // it takes the sheet: the head stands on it, its own buttons fold away
    CHECK(view->height() >= 0.6 * d.window.height());
    CHECK(view->roomAbove() > 40);
    const int room = view->roomBelow();
    d.find<QPushButton>("sceneFold")->click();
    CHECK(view->roomBelow() < room);
    CHECK_FALSE(d.find<QPushButton>("view_left")->isVisible());
    d.find<QPushButton>("sceneFold")->click();
    CHECK(view->roomBelow() == room);
    // what fouls is said at its place; a tap on it turns there, cuts open and shows its sentence
    REQUIRE_FALSE(view->labels().empty());
    const desk::SceneLabel foul = view->labels().front();
    CHECK(foul.severity == sheet::Severity::Bad);
    view->grab(); // where its words stand is known once they are painted
    std::optional<QPoint> tap;
    for (int x = 0; x < view->width() && !tap; x += 8)
        for (int y = 0; y < view->height() && !tap; y += 8)
            if (const auto* label = view->labelAt(QPointF(x, y)); label && label->tag == foul.tag) tap = QPoint(x, y);
    REQUIRE(tap);
    QTest::mouseClick(view, Qt::LeftButton, Qt::NoModifier, *tap);
    REQUIRE(view->section());
    CHECK(*view->section() == Approx(foul.at[0]).margin(1));
    const desk::Point3 there = view->camera().onScreen(foul.at);
    CHECK(std::abs(there[0]) < 2);
    CHECK(d.window.findChild<QFrame*>("card")->isVisible());
    QTest::keyClick(&d.window, Qt::Key_Escape);
    d.find<QCheckBox>("sectionOn")->setChecked(false);
    view->showAll();

    // laid by four picks on each: first on the scan, then where the same place belongs
    build::ScanId tail;
    for (const auto& [id, s] : d.window.document().latest().scans)
        if (s.name == "tail-scan") tail = id;
    REQUIRE(tail);
    desk::ask::presets().answers = {"tail-scan", "by picked places"};
    d.action("layScan");
    CHECK_THAT(d.text("toolAsks").toStdString(), Catch::Contains("Pick a place on tail-scan") && Catch::Contains("0 pairs"));
    const geometry::RigidTransform seat = scans(d).overlay->seat;
    for (const desk::Point3 place : {desk::Point3{1700, -700, 600}, desk::Point3{3000, 500, 700}, desk::Point3{1900, 600, 1200},
                                     desk::Point3{2600, -400, 1000}}) {
        emit view->picked({seat.transformed(away.transformed(place)), SceneView::Body});
        CHECK_THAT(d.text("toolAsks").toStdString(), Catch::Contains("where it belongs"));
        emit view->picked({seat.transformed(place), SceneView::Body});
    }
    CHECK_THAT(d.text("toolAsks").toStdString(), Catch::Contains("4 pairs"));
    auto revision = d.window.document().store()->revision();
    QTest::mouseClick(d.find<QPushButton>("toolAnswer0"), Qt::LeftButton);
    REQUIRE(waitLong([&] { return d.window.document().store()->revision() > revision; }));
    const build::Scan& laid = d.window.document().latest().scans.at(tail);
    const geometry::RigidTransform right = inverse(away);
    const auto pose = analysis::poseOf(laid);
    for (const desk::Point3 p : {desk::Point3{0, 0, 0}, desk::Point3{2500, 300, 900}})
        CHECK(geometry::between(pose.transformed(p), right.transformed(p)) < 0.01);
    CHECK_THAT(laid.note, Catch::Contains("picked at 4 places"));
    REQUIRE(waitLong([&] {
        return current(d) && idle(d) && d.window.document().results().revision == d.window.document().store()->revision();
    }));

    // a click reads a place; two read their distance
    QTest::mouseClick(d.find<QPushButton>("view_left"), Qt::LeftButton);
    const desk::Point3 on_screen =
        view->camera().onScreen(seat.transformed({2100, -730, 700})); // on the rear quarter, behind the door
    const QPoint middle = view->rect().center() + QPoint(static_cast<int>(on_screen[0]), static_cast<int>(on_screen[1]));
    QTest::mouseClick(view, Qt::LeftButton, {}, middle);
    REQUIRE(view->picks().size() == 1);
    CHECK(view->picks()[0].at[1] < -600); // from the left the left side is met first
    CHECK(view->picks()[0].at[0] == Approx(seat.transformed({2100, -730, 700})[0]).margin(4 / view->camera().px_per_mm));

    // a shape through picked places, in words
    desk::ask::presets().answers = {"a plane"};
    d.action("fitShape");
    CHECK_THAT(d.text("toolAsks").toStdString(), Catch::Contains("0 so far, 3 at least"));
    for (const desk::Point3 place : {desk::Point3{1000, -300, 632}, desk::Point3{1500, -300, 632}, desk::Point3{1200, -500, 632}})
        emit view->picked({seat.transformed(place), SceneView::Body});
    QTest::mouseClick(d.find<QPushButton>("toolAnswer0"), Qt::LeftButton);
    REQUIRE(waitFor([&] { return !d.find<QWidget>("toolRow")->isVisible(); }));
    CHECK_THAT(d.text("sceneWords").toStdString(), Catch::Contains("Plane at station") && Catch::Contains("points of the scan"));

    // laid again by three, two, one, on its subject's axes; undone
    desk::ask::presets().answers = {"tail-scan", "by places at height 0, on the centreline, and at station 0"};
    d.action("layScan");
    const auto kept_pose = d.window.document().latest().scans.at(tail).shift;
    for (const desk::Point3 place : {desk::Point3{1700, -500, 100}, desk::Point3{3000, -500, 100}, desk::Point3{2400, 500, 100},
                                     desk::Point3{1600, 0, 300}, desk::Point3{3000, 0, 300}, desk::Point3{10, 0, 0}})
        emit view->picked({seat.transformed(place), SceneView::Body});
    CHECK(d.window.document().latest().scans.at(tail).note == "by places on its axes");
    CHECK(d.window.document().latest().scans.at(tail).shift.z_mm == Approx(kept_pose.z_mm - 100).margin(0.5));
    d.action("undo");
    CHECK(d.window.document().latest().scans.at(tail).shift == kept_pose);
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));

    // The Rule is clicked at a station: the view goes there
    auto* rule = d.find<desk::RuleView>("rule");
    const double was = view->camera().at[0];
    QTest::mouseClick(rule, Qt::LeftButton, {}, QPoint(rule->width() / 5, rule->height() - 12));
    CHECK(view->camera().at[0] < was - 200);
    view->showAll();

    // the section follows its slider, and its outline lies in the plane
    d.find<QCheckBox>("sectionOn")->setChecked(true);
    d.find<QSlider>("sectionStation")->setValue(900);
    REQUIRE(view->section());
    CHECK(*view->section() == 900);
    REQUIRE_FALSE(view->outline(SceneView::Chassis).empty());
    for (const auto& line : view->outline(SceneView::Chassis))
        for (const auto& p : line.places) CHECK(p[0] == Approx(900).margin(0.01));
    d.find<QCheckBox>("sectionOn")->setChecked(false);

    // dragged up: the least clearance changes while it is held; the drop is a trial, and only keeping it is one edit of the pins
    const double before = scans(d).clearance->least_mm;
    const size_t contacts = scans(d).clearance->places.size();
    revision = d.window.document().store()->revision();
    QTest::mousePress(view, Qt::LeftButton, Qt::ControlModifier, middle);
    const auto move = [&](const QPoint& to) {
        QMouseEvent event(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::ControlModifier);
        QApplication::sendEvent(view, &event);
    };
    move(middle + QPoint(0, -10));
    const QString first = d.text("sceneWords");
    CHECK_THAT(first.toStdString(), Catch::Contains("tried: 0.0 mm") && Catch::Contains("up"));
    move(middle + QPoint(0, -30));
    CHECK(d.text("sceneWords") != first);
    QTest::mouseRelease(view, Qt::LeftButton, Qt::ControlModifier, middle + QPoint(0, -30));
    REQUIRE(waitLong([&] { return d.find<QPushButton>("toolAnswer0")->isVisible(); }));
    CHECK(d.window.document().store()->revision() == revision);
    CHECK_THAT(d.text("toolAsks").toStdString(), Catch::Contains("up") && Catch::Contains("Nothing is changed yet"));
    // put back, it stands as it stood, and nothing was changed
    d.find<QPushButton>("toolAnswer1")->click();
    REQUIRE(waitLong([&] { return !d.find<QWidget>("toolRow")->isVisible(); }));
    CHECK(d.window.document().store()->revision() == revision);
    CHECK(view->seat().translation[2] == Approx(seat.translation[2]).margin(1e-9));
    // again, and sat there
    QTest::mousePress(view, Qt::LeftButton, Qt::ControlModifier, middle);
    move(middle + QPoint(0, -30));
    QTest::mouseRelease(view, Qt::LeftButton, Qt::ControlModifier, middle + QPoint(0, -30));
    REQUIRE(waitLong([&] { return d.find<QWidget>("toolRow")->isVisible(); }));
    d.find<QPushButton>("toolAnswer0")->click();
    REQUIRE(waitLong([&] { return d.window.document().store()->revision() > revision; }));
    CHECK_THAT(d.window.document().store()->undoSentence(), Catch::Contains("move the body") && Catch::Contains("up"));
    REQUIRE(waitLong([&] { return current(d) && idle(d) && scans(d).overlay->seat.translation[2] > seat.translation[2] + 20; }));
    CHECK(scans(d).clearance->least_mm != before);

    // what is to be cut, as files
    d.action("undo");
    REQUIRE(waitLong([&] { return idle(d) && std::abs(scans(d).overlay->seat.translation[2] - seat.translation[2]) < 0.5; }));
    CHECK(scans(d).clearance->places.size() == contacts);
    const auto out = folder / "cuts";
    std::filesystem::create_directories(out);
    desk::ask::presets().answers = {QString::fromStdString(out.string())};
    d.action("cutMap");
    REQUIRE(waitLong([&] { return std::filesystem::exists(out / "cut-map.pdf"); }));
    CHECK(std::filesystem::exists(out / "cut-1.dxf"));
    CHECK_THAT(fileText(out / "cut-places.csv"), Catch::Contains("cut,line,place,station_mm"));
    CHECK_THAT(d.text("sceneWords").toStdString(), Catch::Contains("cm²") && Catch::Contains("Brace before you cut"));

    // the cuts are kept: steps of the work, and lines in the view; undone again
    REQUIRE(waitLong([&] { return idle(d); }));
    d.action("keepCuts");
    REQUIRE(waitLong([&] { return !d.window.document().latest().planned_cuts.empty(); }));
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));
    const auto& order = *d.window.document().results().work;
    CHECK(order.find("cut-body-cut-1"));
    CHECK(order.find("body-edges"));
    const size_t kept = d.window.document().latest().planned_cuts.size();
    CHECK(view->lines().size() >= kept);
    // a corner that is in front is dragged over the sheet: one edit, drawn by hand from then on
    {
        const auto before_drag = d.window.document().latest().planned_cuts;
        std::optional<std::tuple<build::PlannedCutId, size_t, QPoint>> grip;
        for (const char* from : {"view_underneath", "view_left", "view_above", "view_corner"}) {
            if (grip || !d.window.findChild<QPushButton*>(from)) continue;
            QTest::mouseClick(d.find<QPushButton>(from), Qt::LeftButton);
            for (const desk::SceneLine& line : view->lines())
                for (size_t k = 0; line.cut != 0 && k < line.places.size() && !grip; ++k) {
                    const desk::Point3 s = view->camera().onScreen(line.places[k]);
                    const QPoint at = view->rect().center() + QPoint(qRound(s[0]), qRound(s[1]));
                    const auto hit = view->pickAt(at), beside = view->pickAt(at + QPoint(14, 0));
                    if (view->rect().contains(at) && hit && beside && hit->layer == SceneView::Body &&
                        beside->layer == SceneView::Body && geometry::between(hit->at, line.places[k]) < 12)
                        grip = {build::PlannedCutId{line.cut}, k, at};
                }
        }
        REQUIRE(grip);
        const auto& [id, corner, seen_at] = *grip;
        // from far off the corners are too close together to be taken: nearer
        const auto& lines = view->lines();
        const auto line_of = [&]() -> const desk::SceneLine& {
            return *std::find_if(lines.begin(), lines.end(), [&](const auto& l) { return l.cut == std::get<0>(*grip).value; });
        };
        for (int k = 0; k < 30 && !view->hasGrips(line_of()); ++k) {
            QWheelEvent in(seen_at, view->mapToGlobal(seen_at), {}, QPoint(0, 120), Qt::NoButton, Qt::NoModifier,
                           Qt::NoScrollPhase, false);
            QApplication::sendEvent(view, &in);
        }
        REQUIRE(view->hasGrips(line_of()));
        const desk::Point3 near_at = view->camera().onScreen(line_of().places[corner]);
        const QPoint at = view->rect().center() + QPoint(qRound(near_at[0]), qRound(near_at[1]));
        const auto store_was = d.window.document().store()->revision();
        QTest::mousePress(view, Qt::LeftButton, {}, at);
        for (const int far : {8, 14}) {
            const QPoint to = at + QPoint(far, 0);
            QMouseEvent event(QEvent::MouseMove, to, view->mapToGlobal(to), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(view, &event);
        }
        QTest::mouseRelease(view, Qt::LeftButton, {}, at + QPoint(14, 0));
        REQUIRE(d.window.document().store()->revision() == store_was + 1);
        const auto& moved = d.window.document().latest().planned_cuts.at(id);
        CHECK(moved.by_hand);
        const auto &line_was = before_drag.at(id).line, &now = moved.line;
        for (size_t k = 0; k < now.size(); ++k) CHECK((now[k] == line_was[k]) == (k != corner));
        const double far = std::hypot(now[corner].x_mm - line_was[corner].x_mm, now[corner].y_mm - line_was[corner].y_mm,
                                      now[corner].z_mm - line_was[corner].z_mm);
        CHECK(far > 10 / view->camera().px_per_mm);
        view->showAll();
        d.action("undo");
        CHECK(d.window.document().latest().planned_cuts == before_drag);
        REQUIRE(waitLong([&] { return current(d) && idle(d); }));
    }
    d.keep("cutline cut-1 move 1 900 -300 620");
    CHECK(std::any_of(d.window.document().latest().planned_cuts.begin(), d.window.document().latest().planned_cuts.end(),
                      [](const auto& c) { return c.second.by_hand; }));
    d.action("undo");
    d.action("undo");
    CHECK(d.window.document().latest().planned_cuts.empty());
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));

    // pair by pair on the sheet, and back to the scans
    QTest::mouseClick(d.find<QPushButton>("view_pairs"), Qt::LeftButton);
    auto* sheet = d.find<desk::SheetView>("sheet");
    CHECK(sheet->isVisible());
    bool named = false;
    for (const sheet::Item& item : sheet->drawing().items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape))
            named = named || t->text.find("to the chassis") != std::string::npos;
    CHECK(named);
    QTest::keyClick(&d.window, Qt::Key_F5, Qt::ShiftModifier);
    CHECK_FALSE(sheet->isVisible());

    // the way in on the sheet, and back; found anew when something changes
    const auto shows = [&](const std::string& part) {
        for (const sheet::Item& item : sheet->drawing().items)
            if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && t->text.find(part) != std::string::npos) return true;
        return false;
    };
    REQUIRE(waitLong([&] { return idle(d); }));
    QTest::mouseClick(d.find<QPushButton>("view_way"), Qt::LeftButton);
    REQUIRE(waitLong(
        [&] { return current(d, analysis::slow::way) && sheet->isVisible() && shows("above its seat, rolled in from"); }));
    CHECK(shows("Nobody under a hung body"));
    d.window.setView("space");
    CHECK_FALSE(sheet->isVisible());
    // seen coming down: a slider over its moments; nothing is kept, and left it sits again
    const auto before_way = d.window.document().store()->revision();
    d.action("seeWay");
    auto* time = d.find<QSlider>("sceneTime");
    REQUIRE(waitLong([&] { return time->isVisible(); }));
    const auto sits = scans(d).overlay->seat;
    CHECK(view->seat().translation[2] > sits.translation[2] + 50);
    CHECK(d.text("sceneWords").contains("over its seat"));
    QTest::mouseClick(time, Qt::LeftButton, {}, QPoint(time->width() / 2, time->height() / 2)); // there, not a page towards it
    CHECK(std::abs(time->value() - time->maximum() / 2) <= 2);
    time->setValue(time->maximum());
    CHECK(view->seat().translation[2] == Approx(sits.translation[2]).margin(1e-6));
    d.find<QPushButton>("toolAnswer1")->click(); // where it is tightest, or touches first
    REQUIRE(waitFor([&] { return time->value() < time->maximum() && !view->labels().empty(); }));
    d.find<QPushButton>("toolStop")->click();
    REQUIRE(waitFor([&] { return !time->isVisible(); }));
    CHECK(view->seat().translation[2] == Approx(sits.translation[2]).margin(1e-9));
    CHECK(d.window.document().store()->revision() == before_way);
    d.window.setView("way");
    CHECK(sheet->isVisible());
    // the cuts for it are kept, and the way is looked for again with them
    d.action("keepCuts");
    REQUIRE(waitLong([&] { return !d.window.document().latest().planned_cuts.empty(); }));
    REQUIRE(waitLong([&] { return current(d, analysis::slow::way) && idle(d); }));
    CHECK(scans(d).way.input().cuts == d.window.document().latest().planned_cuts);
    d.action("undo");
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));

    // how near the scans come in each seating, on Sit's sheet of what costs what
    d.window.setBench("sit");
    d.window.setView("costs");
    REQUIRE(waitLong([&] { return current(d, analysis::slow::seatings) && shows("clearance of the scans"); }));
    REQUIRE(scans(d).seatings->size() == d.window.document().results().seatings.columns.size());
    const auto& worst = scans(d).clearance->pairs.front().pair;
    CHECK(scans(d).seatings->front().spare_mm == Approx(worst.least_mm - worst.need.foulsBelow()));
    CHECK(scans(d).seatings->front().fouls ==
          static_cast<size_t>(std::count_if(scans(d).clearance->places.begin(), scans(d).clearance->places.end(),
                                            [](const auto& p) { return p.contact.band == sit::Band::Fouls; })));
    // "low" sits lower: its worst pair has less
    const auto& columns = d.window.document().results().seatings.columns;
    const auto low = std::find_if(columns.begin(), columns.end(), [](const auto& c) { return c.name == "low"; });
    REQUIRE(low != columns.end());
    const auto& low_one = scans(d).seatings->at(static_cast<size_t>(low - columns.begin()));
    CHECK(low_one.known);
    CHECK(low_one.spare_mm != scans(d).seatings->front().spare_mm);
    CHECK(shows("low: "));
    // a bench shows the sheet that it showed last; chosen again, its first
    d.bench("scan");
    CHECK(d.window.shownView() == "way");
    d.bench("scan");
    CHECK_FALSE(sheet->isVisible());

    // the findings hang from The Rule, and are marked on the verb
    bool found = false;
    for (const auto& f : d.window.document().results().findings) found = found || f.code == "scan.fouls";
    CHECK(found);
    // a card that is opened low down leaves the view's buttons free, where it fits above them
    d.bench("scan");
    emit rule->picked("contact:1", {600, 10});
    auto* card = d.find<desk::CardView>("card");
    REQUIRE(waitFor([&] { return card->isVisible(); }));
    auto* edge = d.find<QWidget>("sceneEdge");
    REQUIRE(edge->isVisible());
    const int top = edge->mapTo(card->parentWidget(), QPoint()).y();
    REQUIRE(card->height() + 8 < top);
    CHECK(card->geometry().bottom() < top);
    card->close();

    // by keyboard and line
    revision = d.window.document().store()->revision();
    d.keep("clearance least 0");
    d.keep("scan tail-scan move 0 0 500");
    REQUIRE(waitLong([&] { return idle(d) && scans(d).overlay->need.least_mm == 0; }));
    // a scanned part that swings, and a pair with a clearance of its own
    REQUIRE(waitLong([&] { return current(d) && idle(d); }));
    d.keep("scan tail-scan part bonnet");
    d.keep("swing tail-scan 20° about 1500 -600 1000 1500 600 1000");
    d.keep("clearance between bonnet chassis 35");
    REQUIRE(waitLong([&] {
        return current(d) && idle(d) &&
               std::any_of(scans(d).clearance->pairs.begin(), scans(d).clearance->pairs.end(),
                           [](const analysis::OverlayPair& p) { return p.pair.need.least_mm == 35 && p.pair.poses > 5; });
    }));
    d.keep("remove swing tail-scan");
    d.keep("remove scan tail-scan");
    CHECK(d.window.document().latest().scans.size() == 2);
}

TEST_CASE("scans survive reopening; a picture can be saved; wrong files say so and nothing is lost", "[desk][scan]") {
    const auto folder = freshFolder("scan-reopen");
    const auto build = demoBuild(folder, "petrel_on_tern --plain"); // nothing is drawn that nobody scanned
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(build.string())));
        d.bench("scan");
        addScan(d, written(folder, "frame.ply", sim::ladderFrame(60)), "the chassis");
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(build.string())));
    d.bench("scan");
    REQUIRE(waitLong([&] { return scans(d).overlay->hasChassis(); }));
    CHECK_THAT(d.text("headline").toStdString(), Catch::Contains("The chassis is scanned, the body is not"));
    // typed over the view, it goes on the line; what the view knows stays with it
    auto* view = d.window.findChild<SceneView*>();
    REQUIRE(view);
    auto* entry = d.find<QLineEdit>("entry");
    view->setFocus();
    QTest::keyClick(view, Qt::Key_Left);
    CHECK(d.window.focusWidget() == view);
    CHECK(entry->text().isEmpty());
    QTest::keyClick(view, Qt::Key_S);
    CHECK(d.window.focusWidget() == entry);
    QTest::keyClicks(entry, "can");
    CHECK(entry->text() == "scan");
    entry->clear();
    REQUIRE(waitLong([&] { return idle(d); })); // what is to be seen is there
    const auto picture = folder / "view.png";
    desk::ask::presets().answers = {"as a file", QString::fromStdString(picture.string())};
    d.action("savePicture");
    QImage image(QString::fromStdString(picture.string()));
    REQUIRE_FALSE(image.isNull());
    // something was drawn: the picture is not of one colour
    std::set<QRgb> colours;
    for (int x = 0; x < image.width(); x += 7)
        for (int y = 0; y < image.height(); y += 7) colours.insert(image.pixel(x, y));
    CHECK(colours.size() > 10);
    // and into the build sheet, where it stays
    desk::ask::presets().answers = {"into the build sheet"};
    d.action("savePicture");
    REQUIRE(waitLong([&] { return !d.window.document().latest().settings.scan_picture.empty(); }));
    const auto sheet = folder / "sheet.pdf";
    desk::ask::presets().answers = {QString::fromStdString(sheet.string())};
    d.action("exportBuildSheet");
    REQUIRE(waitLong([&] { return d.text("entryEcho").startsWith("written"); }));
    CHECK_THAT(fileText(sheet), Catch::Contains("/Subtype /Image"));

    // a file that is no scan is kept as it is, and said to be unreadable
    const auto bad = folder / "bad.ply";
    std::ofstream(bad) << "ply\nformat ascii 1.0\nelement vertex 5\nproperty float x\nend_header\n1\n";
    addScan(d, bad, "the body");
    REQUIRE(waitLong([&] { return !scans(d).read->troubles.empty(); }));
    CHECK(d.window.document().latest().scans.at(scans(d).read->troubles.begin()->first).name == "bad");
    CHECK_THAT(d.text("below").toStdString(), Catch::Contains("bad: The PLY file"));
    CHECK(scans(d).overlay->hasChassis());
    // a scan that goes while it is being laid takes the tool with it; Escape leaves one
    desk::ask::presets().answers = {"bad", "by places at height 0, on the centreline, and at station 0"};
    d.action("layScan");
    REQUIRE(d.find<QWidget>("toolRow")->isVisible());
    d.action("undo");
    CHECK_FALSE(d.window.document().latest().scans.size() == 2);
    CHECK_FALSE(d.find<QWidget>("toolRow")->isVisible());
    emit view->picked({{1, 2, 3}, SceneView::Body}); // means nothing any more
    d.action("redo");
    desk::ask::presets().answers = {"frame", "by picked places"};
    d.action("layScan");
    REQUIRE(d.find<QWidget>("toolRow")->isVisible());
    QTest::keyClick(&d.window, Qt::Key_Escape);
    CHECK_FALSE(d.find<QWidget>("toolRow")->isVisible());
    d.action("cutMap");
    CHECK_THAT(d.text("entryEcho").toStdString(), Catch::Contains("needs a scan of the body"));
}

} // namespace desk_scan_test
