#include "desk/scan/lay_tool.hpp"

#include "analysis/scans.hpp"
#include "desk/shell/ask.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/view3d/scene_view.hpp"

#include <algorithm>

namespace gorvet::desk {

namespace {

using analysis::LaidScan;
using PointRegistration = std::optional<Result<LaidScan>>;

/// Keeps how it was laid, and says how well.
void finish(Desk& desk, const PointRegistration& laid) {
    if (!laid) return;
    if (!*laid) return desk.say(QString::fromStdString(laid->error().text()), "bad");
    if (desk.keep((*laid)->edit)) desk.space().pane()->say(QString::fromStdString((*laid)->words));
}

/// Beside the window: on the build and the scans as they are now.
void layBeside(Desk& desk, build::ScanId id,
               std::function<PointRegistration(const build::Build&, const analysis::Scans&, const analysis::Progress&)> how) {
    if (desk.worker().running())
        return desk.say(QCoreApplication::translate("Desk", "Something else is still being worked out. Do it again in a moment."),
                        "warn");
    auto laid = std::make_shared<PointRegistration>();
    desk.worker().start(
        QCoreApplication::translate("Desk", "laying the scan"),
        [=, b = desk.document().latest(), scans = desk.document().results().scans](const Worker::Progress& progress) {
            *laid = how(b, *scans, progress);
        },
        [&desk, laid, id, was = desk.document().latest().scans.at(id)](bool finished) {
            if (!finished) return;
            const auto& scans = desk.document().latest().scans;
            if (const auto now = scans.find(id); now == scans.end() || !(now->second == was))
                return desk.say(
                    QCoreApplication::translate("Desk", "The scan was changed meanwhile: it was not laid. Lay it again."),
                    "warn");
            finish(desk, *laid);
        });
}

} // namespace

void beginLaying(Desk& desk) {
    const auto tr = [](const char* text) { return QCoreApplication::translate("LayTool", text); };
    const auto& scans = desk.document().build().scans;
    if (!desk.document().results().scans->read.made()) return desk.say(tr("Add two scans first."), "warn");
    if (scans.size() < 2) return desk.say(tr("One scan alone can't be laid on another: add a second."), "warn");
    QStringList names;
    std::vector<build::ScanId> ids;
    for (auto it = scans.rbegin(); it != scans.rend(); ++it) {
        names << QString::fromStdString(it->second.name);
        ids.push_back(it->first);
    }
    const int which = ask::choice(desk.over(), tr("Which scan is moved?"), tr("The others stay where they are."), names);
    if (which < 0) return;
    const build::ScanId id = ids[static_cast<size_t>(which)];
    const int way = ask::choice(desk.over(), tr("How is %1 laid?").arg(names[which]),
                                tr("On another scan by what both show, or on its own axes."),
                                {tr("by picked places"), tr("by marker balls"), tr("by its mid-plane"),
                                 tr("by places at height 0, on the centreline, and at station 0"), tr("on surveyed points")});
    switch (way) {
    case 0: return desk.take(std::make_unique<LayByPicks>(desk, id));
    case 1: {
        const double radii[] = {10, 12.5, 15, 19.05, 20, 25};
        QStringList list;
        for (const double r : radii) list << tr("%1 mm").arg(r);
        const int radius = ask::choice(desk.over(), tr("What radius have the balls?"),
                                       tr("Their distances from each other tell which is which."), list);
        if (radius < 0) return;
        return layBeside(desk, id, [id, r = radii[radius]](const auto& b, const auto& s, const auto&) -> PointRegistration {
            return analysis::layByMarkers(b, *s.read->meshes, id, r);
        });
    }
    case 2:
        return layBeside(desk, id, [id](const auto& b, const auto& s, const auto&) -> PointRegistration {
            return analysis::layBySymmetry(b, *s.read->meshes, id);
        });
    case 3: return desk.take(std::make_unique<LayByDatum>(desk, id));
    case 4: return desk.take(std::make_unique<LayBySurvey>(desk, id));
    default: return;
    }
}

QString LayTool::scanName() const {
    const auto& scans = desk().document().latest().scans;
    const auto scan = scans.find(scan_);
    return scan == scans.end() ? QString() : QString::fromStdString(scan->second.name);
}

shape::Point3 LayTool::onItsAxes(const shape::Point3& at) const {
    const bool on_body = desk().document().latest().scans.at(scan_).subject == build::the_body;
    return on_body ? inverse(desk().document().results().scans->overlay->seat).transformed(at) : at;
}

// ---- by picks

QString LayByPicks::asks() const {
    const QString what = half_ ? tr("Now the same place where it belongs.") : tr("Pick a place on %1.").arg(scanName());
    return tr("%1  %2 pairs so far; three far apart are enough.").arg(what).arg(pairs_.size());
}

void LayByPicks::picked(const Pick& pick) {
    if (!half_)
        half_ = pick.at;
    else {
        pairs_.push_back({*half_, pick.at});
        half_.reset();
    }
    if (SceneView* view = desk().space().view()) view->clearPicks();
}

void LayByPicks::answered(int button) {
    if (button == 0 && pairs_.size() < 3)
        return desk().say(tr("Three pairs are needed at least; %1 were picked.").arg(pairs_.size()), "warn");
    layBeside(desk(), scan_,
              [id = scan_, pairs = pairs_, surfaces = button == 1](const auto& b, const auto& s, const auto& progress) {
                  return analysis::layByPicks(b, *s.read->meshes, s.overlay->seat, id, pairs, surfaces, progress);
              });
    desk().putDown();
}

// ---- three, two, one

QString LayByDatum::asks() const {
    const auto n = places_.size();
    return n < 3   ? tr("Pick three places on the datum plane of %1, far apart: %2 so far.").arg(scanName()).arg(n)
           : n < 5 ? tr("Pick two places on the centreline, the front one first: %1 so far.").arg(n - 3)
                   : tr("Pick one place at station 0.");
}

void LayByDatum::picked(const Pick& pick) {
    places_.push_back(onItsAxes(pick.at));
    if (places_.size() < 6) return;
    const auto& p = places_;
    finish(desk(), analysis::layByDatum(desk().document().latest(), scan_, {p[0], p[1], p[2], p[3], p[4], p[5]}));
    desk().putDown();
}

// ---- on surveyed points

QString LayBySurvey::asks() const {
    return tr("Pick surveyed points on %1 and say which each is; %2 so far, three are needed and a fourth checks them.")
        .arg(scanName())
        .arg(surveyed_.size());
}

void LayBySurvey::picked(const Pick& pick) {
    const auto& d = desk().document();
    const auto& survey = d.results().of(d.latest().scans.at(scan_).subject);
    QStringList names;
    std::vector<build::PointId> ids;
    for (const build::PointId id : survey.point_ids)
        if (survey.positionOf(id) &&
            std::none_of(surveyed_.begin(), surveyed_.end(), [&](const auto& p) { return p.first == id; })) {
            names << QString::fromStdString(build::nameOf(d.build(), id));
            ids.push_back(id);
        }
    const int which = ask::choice(desk().over(), tr("Which point is it?"), tr("Those that the survey fixes."), names);
    if (which >= 0) surveyed_.emplace_back(ids[static_cast<size_t>(which)], onItsAxes(pick.at));
}

void LayBySurvey::answered(int) {
    finish(desk(), analysis::layOnSurveyedPoints(desk().document().latest(), desk().document().results(), scan_, surveyed_));
    desk().putDown();
}

} // namespace gorvet::desk
