#include "desk/sit/trial_tool.hpp"

#include "analysis/move_body.hpp"
#include "desk/space/space.hpp"

#include <QCoreApplication>

#include <cmath>

namespace gorvet::desk {

namespace {

QString tr(const char* text) { return QCoreApplication::translate("TrialTool", text); }

} // namespace

TrialTool::TrialTool(Desk& d, const shape::Point3& by_mm)
    : Tool(d), kept_by_(by_mm), revision_(d.document().store()->revision()) {
    show();
}

shape::Point3 TrialTool::by() const {
    return {free_ == Along::Height ? 0 : kept_by_[0] + live_[0], 0, free_ == Along::Station ? 0 : kept_by_[2] + live_[2]};
}

QString TrialTool::asks() const {
    const auto step = desk().document().latest().settings.length_step;
    const auto part = [&](double mm, const char* less, const char* more) {
        return QString::fromStdString(units::formatLength(std::abs(mm), step, true)) + " " + tr(mm < 0 ? less : more);
    };
    const shape::Point3 tried = by();
    return tr("The body is tried %1 and %2 of where it sits. Nothing is changed yet; drag it on, or say.")
        .arg(part(tried[0], "forward", "rearward"), part(tried[2], "down", "up"));
}

QStringList TrialTool::answers() const {
    QStringList list{tr("Sit it here"), tr("Put it back")};
    list << (free_ == Along::Station ? tr("Free it upward") : tr("Along only"));
    list << (free_ == Along::Height ? tr("Free it along") : tr("Height only"));
    return list;
}

void TrialTool::answered(int answer) {
    const auto held = [this](Along to) {
        free_ = free_ == to ? Along::Both : to;
        show();
    };
    if (answer == 2) return held(Along::Station);
    if (answer == 3) return held(Along::Height);
    if (answer == 0) {
        const shape::Point3 to = by();
        if (!desk().keep(analysis::movePins(desk().document().latest(), to[0], to[2]))) return; // it stays, with why not said
    }
    desk().putDown();
}

bool TrialTool::dragged(const Drag& drag, bool let_go) {
    if (drag.what != Drag::What::Body) return false;
    live_ = drag.to;
    if (let_go) {
        kept_by_ = geometry::plus(kept_by_, live_);
        live_ = {};
    }
    show();
    return true;
}

bool TrialTool::possible() const { return desk().document().isOpen() && desk().document().store()->revision() == revision_; }

void TrialTool::left() { desk().space().putBack(); }

void TrialTool::show() { desk().space().tryBody(by()); }

} // namespace gorvet::desk
