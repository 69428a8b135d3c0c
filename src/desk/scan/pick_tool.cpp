#include "desk/scan/pick_tool.hpp"

#include "analysis/scans.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

namespace {

QString trPick(const char* text) { return QCoreApplication::translate("PickTool", text); }

} // namespace

void beginPicking(Desk& desk) {
    SceneView* view = desk.space().view();
    if (!view || !desk.document().results().scans->overlay.made() || !desk.space().pane()->isVisible())
        return desk.say(trPick("Turn to the scans first (Alt+2)."), "warn");
    view->clearPicks();
    desk.take(std::make_unique<PickTool>(desk));
}

QString PickTool::asks() const {
    if (places_.empty()) return trPick("Pick a place of a scan.");
    if (places_.size() == 1) return trPick("A point there, or pick a second place for a distance.");
    return trPick("The distance of the two as a reading, or a point at the newer.");
}

QStringList PickTool::answers() const {
    QStringList list;
    if (!places_.empty()) list << trPick("Mark a point there");
    if (places_.size() == 2) list << trPick("A reading of the two");
    return list;
}

void PickTool::picked(const Pick& pick) {
    if (places_.size() == 2) places_.clear();
    const bool on_body = pick.layer == SceneView::Body || pick.layer == SceneView::ToRemove;
    const double px_per_mm = desk().space().view()->camera().px_per_mm; // nobody picks nearer than two pixels
    places_.push_back(analysis::pickedPlace(*desk().document().results().scans->overlay, pick.at, on_body, 2 / px_per_mm));
}

void PickTool::answered(int answer) {
    const auto& b = desk().document().build();
    const analysis::Overlay& o = *desk().document().results().scans->overlay;
    analysis::BegunLine line;
    if (answer == 0) {
        line = analysis::pointLine(b, o, places_.back());
    } else {
        const auto begun = analysis::distanceLine(b, o, places_[0], places_[1]);
        if (!begun) return desk().say(QString::fromStdString(begun.error().text()), "warn");
        line = *begun;
    }
    Desk& over = desk();
    over.putDown(); // and this with it
    over.beginLine(QString::fromStdString(line.text), static_cast<int>(line.caret));
}

} // namespace gorvet::desk
