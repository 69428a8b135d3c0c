#include "desk/scan/way_tool.hpp"

#include "analysis/scans.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

namespace {

QString tr(const char* text) { return QCoreApplication::translate("WayTool", text); }
constexpr int moment_ms = 90; ///< so long each is shown when it plays

} // namespace

void watchWay(Desk& desk) {
    if (!desk.document().isOpen()) return;
    desk.turn("scan", "space");
    desk.say(tr("looking for the way in …"), "");
    desk.slow().make({analysis::slow::way}, [&desk](bool made) {
        const analysis::Results& r = desk.document().results();
        if (!made || !r.scans->way.made())
            return desk.say(tr("There is no way to be seen: it needs a scan of the body and one of the chassis."), "warn");
        auto moments = analysis::wayMoments(desk.document().build(), *r.scans->way.input().overlay, *r.scans->way);
        if (moments.empty()) return desk.say(tr("There is no way to be seen: nothing is in it."), "warn");
        desk.say(QString::fromStdString(r.scans->way->words), "");
        const auto& down = r.scans->way->down;
        desk.take(std::make_unique<WayTool>(desk, std::move(moments), down.found ? down.tightest : 0, down.found));
    });
}

WayTool::WayTool(Desk& d, std::vector<analysis::WayMoment> moments, std::size_t tightest, bool found)
    : Tool(d), moments_(std::move(moments)), tightest_(std::min(tightest, moments_.size() - 1)), found_(found),
      revision_(d.document().store()->revision()) {
    if (!found_) // where it is met first
        for (std::size_t k = moments_.size(); k-- > 0;)
            if (moments_[k].touches) tightest_ = k;
    ScenePane* pane = desk().space().pane();
    pane->setTimes(static_cast<int>(moments_.size()));
    slider_ = QObject::connect(pane, &ScenePane::timeMoved, pane, [this](int at) {
        playing_.stop();
        show(static_cast<std::size_t>(at));
    });
    playing_.setInterval(moment_ms);
    QObject::connect(&playing_, &QTimer::timeout, pane, [this] {
        if (at_ + 1 >= moments_.size()) return playing_.stop();
        show(at_ + 1);
        desk().space().pane()->setTimes(static_cast<int>(moments_.size()), static_cast<int>(at_));
    });
    show(0);
}

WayTool::~WayTool() { QObject::disconnect(slider_); }

QString WayTool::asks() const {
    return found_ ? tr("The way in, from hanging free to the seat. Nobody under a hung body.")
                  : tr("No way in was found: so it would come straight down. Nobody under a hung body.");
}

QStringList WayTool::answers() const {
    return {tr("Play"), found_ ? tr("Where it is tightest") : tr("Where it touches first"), tr("At its seat")};
}

void WayTool::answered(int answer) {
    if (answer == 0) {
        show(0);
        playing_.start();
    } else {
        playing_.stop();
        show(answer == 1 ? tightest_ : moments_.size() - 1);
    }
    desk().space().pane()->setTimes(static_cast<int>(moments_.size()), static_cast<int>(at_));
}

bool WayTool::possible() const { return desk().document().isOpen() && desk().document().store()->revision() == revision_; }

void WayTool::left() {
    playing_.stop();
    desk().space().pane()->setTimes(0);
    desk().space().putBack();
}

void WayTool::show(std::size_t at) {
    at_ = std::min(at, moments_.size() - 1);
    desk().space().showMoment(moments_[at_]);
}

} // namespace gorvet::desk
