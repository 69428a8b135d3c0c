// The window's scans: adding, laying, moving the body, the cut map, the picture.
#include "desk/shell/main_window.hpp"

#include "analysis/cut_files.hpp"
#include "analysis/fit_picks.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/lay_scan.hpp"
#include "analysis/overlay.hpp"
#include "analysis/way_in.hpp"
#include "desk/scan/scan_room.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/entry_line.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/view3d/scene_view.hpp"
#include "desk/widgets/rule_view.hpp"
#include "desk/widgets/sheet_view.hpp"

#include "files/out_file.hpp"

#include <QFileInfo>
#include <QLabel>
#include <QStackedWidget>
#include <QTemporaryDir>

namespace gorvet::desk {

void MainWindow::buildScene() {
    // made before the window is first shown: a window that gets its first OpenGL part later is made anew by the system
    scene_pane_ = new ScenePane;
    sheet_stack_->addWidget(scene_pane_);
    connect(scene_pane_, &ScenePane::answered, this, &MainWindow::answerLaying);
    if (SceneView* view = scene_pane_->view()) {
        connect(view, &SceneView::picked, this, &MainWindow::pickedInSpace);
        connect(view, &SceneView::bodyDragged, this, &MainWindow::tryBody);
        connect(view, &SceneView::bodyDropped, this, &MainWindow::dropBody);
        connect(view, &SceneView::cornerDropped, this, &MainWindow::dropCorner);
    }
    room_ = new ScanRoom(document_);
    room_->setParent(this);
    state_.way_in = [this](double w, double h, const sheet::Format& f) { return room_->waySheet(w, h, f); };
    state_.seatings = [this] { return room_->seatings(); };
    state_.pairs = [this](double w, double h, const sheet::Format& f) { return room_->pairs(w, h, f); };
    watch(room_->worker());
    connect(room_, &ScanRoom::meshesChanged, this, [this] {
        if (!scene_pane_ || !scene_pane_->view()) return;
        for (const auto l : {SceneView::Body, SceneView::Chassis}) scene_pane_->view()->setMesh(l, room_->scene(l));
        scene_pane_->refreshRange();
        if (!room_->troubles().isEmpty()) say(room_->troubles().join(" "), "bad");
    });
    connect(room_, &ScanRoom::changed, this, [this] {
        if (state_.way && !room_->way()) state_.way = false; // of how it sat before
        scene_pane_->say({});                                // a trial, a way in or a cut map of how it sat before
        showOverlay();
        findSeatings();
    });
    // whatever bench is shown: what fouls hangs from The Rule on all of them
    connect(&document_, &Document::changed, room_, &ScanRoom::follow);
}

bool MainWindow::inSpace() const {
    return (bench().key() == "scan" && !state_.compare && !state_.way) || (bench().key() == "sit" && sit_in_space_);
}

void MainWindow::showSpace() {
    const bool space = document_.isOpen() && inSpace();
    const int page = space ? sheet_stack_->indexOf(scene_pane_) : 0;
    const bool turned = page != sheet_stack_->currentIndex();
    sheet_stack_->setCurrentIndex(page);
    if (!space) return;
    room_->follow();
    if (turned) showOverlay();
}

void MainWindow::showOverlay() {
    if (scene_pane_ && scene_pane_->view() && room_->overlay()) {
        SceneView* view = scene_pane_->view();
        view->setSeat(room_->overlay()->seat);
        for (const auto l : {SceneView::NewSteel, SceneView::ToRemove}) view->setMesh(l, room_->scene(l));
        std::vector<SceneLine> lines;
        if (const analysis::OverlayClearance* c = room_->clearance()) {
            view->setDistances(c->live.map.distance_mm, room_->overlay()->need,
                               analysis::unlikeNeeds(*room_->overlay(), document_.build()));
            for (const shape::Polyline& l : c->crossings.lines) lines.push_back({l.places, l.closed, sheet::Ink::Bad});
        } else {
            view->setDistances({}, room_->overlay()->need);
        }
        for (const auto& [id, c] : document_.build().planned_cuts)
            lines.push_back({analysis::keptCutPlaces(document_.results(), c), c.closed, sheet::Ink::Remove, id.value});
        view->setLines(std::move(lines));
        scene_pane_->refreshRange();
    }
    document_.setScanFindings(room_->findings());
    refresh();
}

void MainWindow::addScan() {
    if (!document_.isOpen()) return;
    const QString path = ask::fileToOpen(this, tr("Add a scan"), tr("Scans (*.ply *.stl *.obj *.xyz *.csv *.txt *.asc *.pts)"));
    if (path.isEmpty()) return;
    const QStringList units{tr("mm"), tr("cm"), tr("m"), tr("inches")};
    const int unit = ask::choice(this, tr("What is one unit of %1?").arg(QFileInfo(path).fileName()),
                                 tr("A file does not say it, and it is never guessed."), units);
    if (unit < 0) return;
    struct Shows {
        build::SubjectId on;
        build::ScanPart part;
    };
    QStringList subjects{tr("the body"), tr("the chassis"), tr("engine and gearbox, on the chassis"),
                         tr("axle or wheel, on the chassis")};
    std::vector<Shows> choices{{build::the_body, build::ScanPart::Body},
                               {build::the_chassis, build::ScanPart::Chassis},
                               {build::the_chassis, build::ScanPart::Engine},
                               {build::the_chassis, build::ScanPart::Axle}};
    for (const build::SubjectId other : build::subjectsInOrder(document_.latest())) {
        if (other == build::the_body || other == build::the_chassis) continue;
        subjects << tr("%1, on axes of its own").arg(QString::fromStdString(build::nameOf(document_.latest(), other)));
        choices.push_back({other, build::isFrame(document_.latest(), other) ? build::ScanPart::Chassis : build::ScanPart::Other});
    }
    const int shows =
        ask::choice(this, tr("What does it show?"), tr("It stands on the axes of what it shows until you lay it."), subjects);
    if (shows < 0) return;
    document_.keepBlob(path, [this, path, unit, shown = choices[static_cast<size_t>(shows)]](const Result<store::Blob>& blob) {
        if (!blob) return say(QString::fromStdString(blob.error().text()), "bad");
        const build::Build& b = document_.latest();
        const std::string name = analysis::scanNameFor(b, QFileInfo(path).fileName().toStdString());
        const auto kept = document_.keep(
            analysis::keepScan(b, name, shown.on, shown.part, static_cast<build::ScanUnit>(unit), blob->hash, blob->name));
        if (!kept) return say(QString::fromStdString(kept.error().text()), "bad");
        say(tr("kept the scan %1").arg(QString::fromStdString(name)));
    });
}

// ---- laying by picks

void MainWindow::beginLaying() {
    if (!document_.isOpen() || !scene_pane_ || !room_->overlay()) return say(tr("Add two scans first."), "warn");
    const auto& scans = document_.build().scans;
    if (scans.size() < 2) return say(tr("One scan alone can't be laid on another: add a second."), "warn");
    QStringList names;
    std::vector<build::ScanId> ids;
    for (auto it = scans.rbegin(); it != scans.rend(); ++it) {
        names << QString::fromStdString(it->second.name);
        ids.push_back(it->first);
    }
    const int which = ask::choice(this, tr("Which scan is moved?"), tr("The others stay where they are."), names);
    if (which < 0) return;
    const build::ScanId id = ids[static_cast<size_t>(which)];
    const int way = ask::choice(
        this, tr("How is %1 laid?").arg(names[which]), tr("On another scan by what both show, or on its own axes."),
        {tr("by picked places"), tr("by marker balls"), tr("by its mid-plane"), tr("three, two, one"), tr("on surveyed points")});
    if (way < 0) return;
    fitting_.reset();
    const auto laying = static_cast<Laying::Way>(way);
    if (laying == Laying::Markers) {
        const double radii[] = {10, 12.5, 15, 19.05, 20, 25};
        QStringList list;
        for (const double r : radii) list << tr("%1 mm").arg(r);
        const int radius = ask::choice(this, tr("What radius have the balls?"),
                                       tr("Their distances from each other tell which is which."), list);
        if (radius < 0) return;
        return finishLaying(id, [this, id, r = radii[radius]](auto done) {
            room_->layBy(
                id,
                [id, r](const build::Build& b, const shape::Mesh& m, const std::vector<Point3>& others) {
                    return analysis::layByMarkers(b, id, m, others, r);
                },
                done);
        });
    }
    if (laying == Laying::Symmetry)
        return finishLaying(id, [this, id](auto done) {
            room_->layBy(
                id,
                [id](const build::Build& b, const shape::Mesh& m, const std::vector<Point3>&) {
                    return analysis::layBySymmetry(b, id, m);
                },
                done);
        });
    Laying l;
    l.scan = id;
    l.way = laying;
    laying_ = std::move(l);
    askLaying();
}

void MainWindow::finishLaying(build::ScanId, const std::function<void(std::function<void(Result<analysis::LaidScan>)>)>& lay) {
    lay([this](Result<analysis::LaidScan> laid) {
        if (!laid) return say(QString::fromStdString(laid.error().text()), "bad");
        if (const auto kept = document_.keep(laid->edit); !kept) return say(QString::fromStdString(kept.error().text()), "bad");
        scene_pane_->say(QString::fromStdString(laid->words));
        say(tr("kept: %1").arg(QString::fromStdString(laid->edit.sentence)));
    });
}

void MainWindow::askLaying() {
    if (!laying_) return scene_pane_->ask({}, {});
    const QString name = QString::fromStdString(document_.build().scans.at(laying_->scan).name);
    if (laying_->way == Laying::Datum) {
        const auto n = laying_->places.size();
        const QString what = n < 3   ? tr("Pick three places on the datum plane of %1, far apart: %2 so far.").arg(name).arg(n)
                             : n < 5 ? tr("Pick two places on the centreline, the front one first: %1 so far.").arg(n - 3)
                                     : tr("Pick one place at station 0.");
        return scene_pane_->ask(what, {tr("Stop")});
    }
    if (laying_->way == Laying::Survey)
        return scene_pane_->ask(
            tr("Pick surveyed points on %1 and say which each is; %2 so far, three are needed and a fourth checks them.")
                .arg(name)
                .arg(laying_->surveyed.size()),
            {tr("Lay it"), tr("Stop")});
    const auto n = laying_->pairs.size();
    const QString what = laying_->half ? tr("Now the same place where it belongs.") : tr("Pick a place on %1.").arg(name);
    scene_pane_->ask(tr("%1  %2 pairs so far; three far apart are enough.").arg(what).arg(n),
                     {tr("Lay it"), tr("Lay it, then by surfaces"), tr("Stop")});
}

void MainWindow::pickedInSpace(const ScenePick& pick) {
    // how sharp the scan is there, with what the seat is good for
    const bool on_body = pick.layer == SceneView::Body || pick.layer == SceneView::ToRemove;
    if (room_->overlay() && (on_body || pick.layer == SceneView::Chassis)) {
        const auto& o = *room_->overlay();
        const Point3 own = on_body ? inverse(o.seat).moved(pick.at) : pick.at;
        if (const auto scatter = analysis::scatterAt(on_body ? *o.body : *o.chassis, own))
            scene_pane_->view()->setPickHalfWidth(std::hypot(*scatter, on_body ? o.need.half_width_mm : 0.0));
    }
    if (fitting_) {
        fitting_->places.push_back(pick.at);
        fitting_->layer = pick.layer;
        return askFitting();
    }
    if (laying_) pickForLaying(pick);
}

void MainWindow::pickForLaying(const ScenePick& pick) {
    // as it stands on its subject's axes
    const build::Scan& scan = document_.build().scans.at(laying_->scan);
    const Point3 own = scan.subject == build::the_body ? inverse(room_->overlay()->seat).moved(pick.at) : pick.at;
    if (laying_->way == Laying::Datum) {
        laying_->places.push_back(own);
        if (laying_->places.size() < 6) return askLaying();
        const Laying done = *laying_;
        laying_.reset();
        askLaying();
        return finishLaying(done.scan, [this, &done](auto then) {
            const auto& p = done.places;
            then(analysis::layByDatum(document_.latest(), done.scan, {p[0], p[1], p[2], p[3], p[4], p[5]}));
        });
    }
    if (laying_->way == Laying::Survey) {
        QStringList names;
        std::vector<build::PointId> ids;
        for (const build::PointId id : document_.results().of(scan.subject).point_ids)
            if (document_.results().of(scan.subject).positionOf(id) &&
                std::none_of(laying_->surveyed.begin(), laying_->surveyed.end(), [&](const auto& p) { return p.first == id; })) {
                names << QString::fromStdString(build::nameOf(document_.build(), id));
                ids.push_back(id);
            }
        const int which = ask::choice(this, tr("Which point is it?"), tr("Those that the survey fixes."), names);
        if (which >= 0) laying_->surveyed.emplace_back(ids[static_cast<size_t>(which)], own);
        return askLaying();
    }
    if (!laying_->half)
        laying_->half = pick.at;
    else {
        laying_->pairs.push_back({*laying_->half, pick.at});
        laying_->half.reset();
    }
    scene_pane_->view()->clearPicks();
    askLaying();
}

void MainWindow::answerLaying(int button) {
    if (fitting_) return answerFitting(button);
    if (!laying_) return;
    const Laying laying = *laying_;
    laying_.reset();
    askLaying();
    if (laying.way == Laying::Datum) return;
    if (laying.way == Laying::Survey) {
        if (button == 1) return;
        return finishLaying(laying.scan, [&](auto then) {
            then(analysis::layOnSurveyedPoints(document_.latest(), document_.results(), laying.scan, laying.surveyed));
        });
    }
    if (button == 2) return;
    if (button == 0 && laying.pairs.size() < 3)
        return say(tr("Three pairs are needed at least; %1 were picked.").arg(laying.pairs.size()), "warn");
    room_->lay(laying.scan, laying.pairs, button == 1, [this](Result<build::Edit> edit) {
        if (!edit) return say(QString::fromStdString(edit.error().text()), "bad");
        if (const auto kept = document_.keep(*edit); !kept) return say(QString::fromStdString(kept.error().text()), "bad");
        say(tr("kept: %1").arg(QString::fromStdString(edit->sentence)));
    });
}

// ---- shapes through picks

void MainWindow::beginFitting() {
    if (!document_.isOpen() || !scene_pane_->view() || !room_->overlay() || !inSpace())
        return say(tr("Turn to the scans first (Alt+2)."), "warn");
    const int shape = ask::choice(
        this, tr("What is it?"), tr("The scan's own points beside the picks count, where it has them."),
        {tr("a plane"), tr("a line"), tr("a circle: a hole's mouth, a hub's edge"), tr("a tube or bore"), tr("a ball")});
    if (shape < 0) return;
    laying_.reset();
    fitting_ = Fitting{shape, {}, 0};
    scene_pane_->view()->clearPicks();
    askFitting();
}

void MainWindow::askFitting() {
    if (!fitting_) return scene_pane_->ask({}, {});
    const int least = analysis::picks_needed[static_cast<size_t>(fitting_->shape)];
    scene_pane_->ask(tr("Pick places on it: %1 so far, %2 at least.").arg(fitting_->places.size()).arg(least),
                     {tr("Fit"), tr("Stop")});
}

void MainWindow::answerFitting(int button) {
    const Fitting fitting = *fitting_;
    fitting_.reset();
    askFitting();
    if (button == 1) return;
    const auto& o = *room_->overlay();
    const bool on_body = fitting.layer == SceneView::Body;
    std::vector<Point3> points;
    if (const auto& ready = on_body ? o.body : o.chassis; ready->mesh)
        for (const Point3& p : ready->mesh->points) points.push_back(on_body ? o.seat.moved(p) : p);
    const auto fit = analysis::fitThrough(static_cast<analysis::PickShape>(fitting.shape), fitting.places, points,
                                          document_.build().settings.length_step);
    if (!fit) return say(QString::fromStdString(fit.error().text()), "warn");
    scene_pane_->say(QString::fromStdString(fit->words));
}

void MainWindow::goToStation(double station) {
    if (!document_.isOpen() || !inSpace() || !scene_pane_->view()) return;
    scene_pane_->view()->showStation(station);
}

// ---- moving the body

void MainWindow::tryBody(const Point3& by) {
    if (!room_->ready() || !scene_pane_->view()) return;
    // along and up only: sideways the body stays on the centreline
    const Point3 held{by[0], 0, by[2]};
    SceneView* view = scene_pane_->view();
    shape::Motion seat = room_->overlay()->seat;
    seat.shift = shape::plus(seat.shift, held);
    view->setSeat(seat);
    view->setLines({}); // they belong to where it sat
    const sit::LiveClearance live = room_->tried(held);
    view->setDistances(live.map.distance_mm, room_->overlay()->need, analysis::unlikeNeeds(*room_->overlay(), document_.build()));
    const QString least = live.least_mm < 0 ? tr("fouls by %1 mm").arg(-live.least_mm, 0, 'f', 1)
                          : live.least_mm < room_->overlay()->need.cap_mm
                              ? tr("least clearance %1 mm").arg(live.least_mm, 0, 'f', 1)
                              : tr("nothing nearer than %1 mm").arg(room_->overlay()->need.cap_mm, 0, 'f', 0);
    scene_pane_->say(tr("tried: %1 mm %2, %3 mm %4: %5, at station %6; %7 points foul")
                         .arg(std::abs(held[0]), 0, 'f', 1)
                         .arg(held[0] < 0 ? tr("forward") : tr("rearward"))
                         .arg(std::abs(held[2]), 0, 'f', 1)
                         .arg(held[2] < 0 ? tr("down") : tr("up"))
                         .arg(least + (live.pose.empty() ? QString() : " " + QString::fromStdString(live.pose)))
                         .arg(live.at[0], 0, 'f', 0)
                         .arg(live.fouls));
}

void MainWindow::dropBody(const Point3& by) {
    if (scene_pane_) scene_pane_->say({});
    keepDropped(analysis::movePins(document_.latest(), by[0], by[2]));
}

void MainWindow::dropCorner(quint32 cut, int corner, const Point3& at) {
    keepDropped(analysis::moveCutCorner(document_.latest(), document_.results(), build::PlannedCutId{cut},
                                        static_cast<size_t>(corner), at));
}

void MainWindow::keepDropped(const Result<build::Edit>& edit) {
    // what can't be kept goes back to where it was
    const auto back = [&](const Error& e) {
        say(QString::fromStdString(e.text()), "warn");
        showOverlay();
    };
    if (!edit) return back(edit.error());
    if (const auto kept = document_.keep(*edit); !kept) return back(kept.error());
    say(tr("kept: %1").arg(QString::fromStdString(edit->sentence)));
}

// ---- out

void MainWindow::findSeatings() {
    if (document_.isOpen() && bench().key() == "sit" && state_.compare) room_->findSeatings([this] { refresh(); });
}

void MainWindow::sayWayIn() {
    if (!document_.isOpen()) return;
    if (!room_->ready()) return say(tr("The way in needs a scan of the body and one of the chassis."), "warn");
    const auto show = [this](bool on) {
        state_.way = on;
        state_.compare = false;
        refresh();
    };
    if (bench().key() == "scan" && state_.way) return show(false);
    setBench("scan");
    if (room_->way()) return show(true);
    room_->findWayIn([this, show](const analysis::WayFound&) {
        if (bench().key() != "scan") return;
        show(true);
    });
}

void MainWindow::exportCutMap() {
    if (!document_.isOpen()) return;
    if (!room_->ready()) return say(tr("A cut map needs a scan of the body and one of the chassis."), "warn");
    const QString folder = ask::folder(this, tr("Where to write the cut map"));
    if (folder.isEmpty()) return;
    room_->makeCutMap(state_.way, [this, folder](Result<sit::CutMap> made) {
        if (!made) return say(QString::fromStdString(made.error().text()), "bad");
        const sit::CutMap& map = *made;
        if (const auto written = analysis::writeCutMap(document_.build(), document_.results(), map, folder.toStdString());
            !written)
            return say(QString::fromStdString(written.error().text()), "bad");
        std::vector<SceneLine> lines;
        for (const sit::Cut& c : map.cuts)
            for (const sit::CutLine& l : c.lines) lines.push_back({l.line.places, l.line.closed, sheet::Ink::Remove});
        if (scene_pane_ && scene_pane_->view()) scene_pane_->view()->setLines(lines);
        QString said = tr("%1 cuts, %2 cm², %3 kg, written into %4.")
                           .arg(map.cuts.size())
                           .arg(map.area_mm2 / 100, 0, 'f', 0)
                           .arg(map.mass_kg, 0, 'f', 1)
                           .arg(folder);
        for (const std::string& remark : map.remarks) said += " " + QString::fromStdString(remark);
        if (scene_pane_)
            scene_pane_->say(said + " " + tr("Brace before you cut; follow local rules; never cut plates with numbers."));
        say(tr("kept: cut map in %1").arg(folder));
    });
}

void MainWindow::keepCuts() {
    if (!document_.isOpen()) return;
    if (!room_->ready()) return say(tr("A cut map needs a scan of the body and one of the chassis."), "warn");
    room_->makeCutMap(state_.way, [this](Result<sit::CutMap> made) {
        if (!made) return say(QString::fromStdString(made.error().text()), "bad");
        const auto edit = analysis::keepCuts(document_.latest(), document_.results(), *made);
        if (!edit) return say(QString::fromStdString(edit.error().text()), "warn");
        if (const auto kept = document_.keep(*edit); !kept) return say(QString::fromStdString(kept.error().text()), "bad");
        say(tr("kept: %1; Work has the steps").arg(QString::fromStdString(edit->sentence)));
    });
}

void MainWindow::savePicture() {
    if (!scene_pane_ || !scene_pane_->view()) return;
    const int where = ask::choice(this, tr("Where does the picture go?"), tr("As it is seen now."),
                                  {tr("as a file"), tr("into the build sheet")});
    if (where < 0) return;
    QImage picture = scene_pane_->view()->grab().toImage();
    if (where == 0) {
        QString path = ask::fileToMake(this, tr("Save the picture"), tr("Pictures (*.png)"), "scans.png");
        if (path.isEmpty()) return;
        if (!path.endsWith(".png")) path += ".png";
        const auto written =
            files::put(path.toStdString(), files::Kind::Picture, [&](const std::filesystem::path& to) -> Result<void> {
                if (picture.save(QString::fromStdString(to.string()), "PNG")) return {};
                return Error{Error::Code::File, to.string(), "", "", -1};
            });
        return written ? say(tr("kept: %1").arg(path)) : say(QString::fromStdString(written.error().text()), "bad");
    }
    if (!document_.isOpen()) return;
    const auto folder = std::make_shared<QTemporaryDir>();
    const QString path = folder->filePath("scans.png");
    if (!folder->isValid() || !picture.save(path)) return say(tr("The picture can't be written."), "bad");
    document_.keepBlob(path, [this, folder](const Result<store::Blob>& blob) {
        if (!blob) return say(QString::fromStdString(blob.error().text()), "bad");
        build::Settings settings = document_.latest().settings;
        settings.scan_picture = blob->hash;
        const auto kept = document_.keep({"a picture of the scans for the build sheet", {build::Set<build::Settings>{settings}}});
        if (!kept) return say(QString::fromStdString(kept.error().text()), "bad");
        say(tr("kept: the picture is in the build sheet"));
    });
}

} // namespace gorvet::desk
