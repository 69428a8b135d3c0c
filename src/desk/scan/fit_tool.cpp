#include "desk/scan/fit_tool.hpp"

#include "analysis/fit_picks.hpp"
#include "analysis/scans.hpp"
#include "desk/shell/ask.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/view3d/scene_view.hpp"

namespace gorvet::desk {

void beginFitting(Desk& desk) {
    const auto tr = [](const char* text) { return QCoreApplication::translate("FitTool", text); };
    SceneView* view = desk.space().view();
    if (!view || !desk.document().results().scans->overlay.made() || !desk.space().pane()->isVisible())
        return desk.say(tr("Turn to the scans first (Alt+2)."), "warn");
    const int shape = ask::choice(
        desk.over(), tr("What is it?"), tr("The scan's own points beside the picks count, where it has them."),
        {tr("a plane"), tr("a line"), tr("a circle: a hole's mouth, a hub's edge"), tr("a tube or bore"), tr("a ball")});
    if (shape < 0) return;
    view->clearPicks();
    desk.take(std::make_unique<FitTool>(desk, shape));
}

QString FitTool::asks() const {
    return tr("Pick places on it: %1 so far, %2 at least.")
        .arg(places_.size())
        .arg(analysis::picks_needed[static_cast<size_t>(shape_)]);
}

void FitTool::picked(const Pick& pick) {
    places_.push_back(pick.at);
    layer_ = pick.layer;
}

void FitTool::answered(int) {
    const analysis::Overlay& o = *desk().document().results().scans->overlay;
    const bool on_body = layer_ == SceneView::Body;
    std::vector<shape::Point3> points;
    if (const auto& ready = on_body ? o.body : o.chassis; ready->mesh)
        for (const auto& p : ready->mesh->points) points.push_back(on_body ? o.seat.transformed(p) : p);
    const auto fit = analysis::fitThrough(static_cast<analysis::PickShape>(shape_), places_, points,
                                          desk().document().build().settings.length_step);
    if (fit)
        desk().space().pane()->say(QString::fromStdString(fit->words));
    else
        desk().say(QString::fromStdString(fit.error().text()), "warn");
    desk().putDown();
}

} // namespace gorvet::desk
