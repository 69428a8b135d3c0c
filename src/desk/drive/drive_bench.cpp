#include "desk/drive/drive_bench.hpp"

namespace gorvet::desk {

std::vector<Starter> DriveBench::starters(const Document& d, const ViewState& state) const {
    const analysis::BenchView* shown = view(state);
    if (shown && shown->key == "levels") {
        std::vector<Starter> list{{tr("on the frame"), "level-on frame "}};
        for (const auto& [id, e] : d.build().drive_ends)
            if (e.kind != build::DriveEndKind::Bearing) {
                const QString name = QString::fromStdString(e.name);
                list.push_back({tr("on %1").arg(name), "level-on " + name + " "});
            }
        return list;
    }
    if (shown && shown->key == "ratios")
        return {{tr("turns at the rear"), "turns rear-axle shaft "},
                {tr("turns at the front"), "turns front-axle shaft "},
                {tr("what is said"), "drive ratio-rear "}};
    if (shown && (shown->key == "wheels" || shown->key == "fit"))
        return {{tr("fitted, rear"), "rim rear fitted "},
                {tr("fitted, front"), "rim front fitted "},
                {tr("wanted"), "rim rear wanted "},
                {tr("beside it"), "room "},
                {tr("hub"), "hub rear "},
                {tr("plate"), "adaptor rear "}};
    if (shown && shown->key == "setup")
        return {{tr("rear axle"), "seat rear "},
                {tr("front axle"), "seat front "},
                {tr("bracket"), "bracket "},
                {tr("tacked"), "tacked "},
                {tr("gears"), "gears rear-axle "}};
    if (shown && shown->key == "steering")
        return {{tr("tie rod, left"), "link tie-left front-left tie-rod "},
                {tr("tie rod, right"), "link tie-right front-right tie-rod "},
                {tr("lock"), "travel lock "}};
    if (shown && shown->key == "column")
        return {{tr("the column"), "column steering through "}, {tr("rack or box"), "steer-gear "}, {tr("pipe or line"), "run "}};
    if (shown && shown->key == "weight")
        return {{tr("springs"), "spring "}, {tr("weighed"), "weight front-left "}, {tr("one axle lifted"), "lifted front "}};
    if (shown && shown->key == "holes") return {{tr("row of holes"), "link-holes "}};
    if (shown && shown->key == "brakes")
        return {{tr("front"), "brake front "}, {tr("rear"), "brake rear "}, {tr("pedal"), "pedal brake "}, {tr("line"), "run "}};
    if (shown && shown->key == "dial")
        return {{tr("rear left"), "dial rear-left lateral "},
                {tr("rear right"), "dial rear-right lateral "},
                {tr("front left"), "dial front-left lateral "},
                {tr("front right"), "dial front-right lateral "}};
    return {{tr("gearbox"), "output "}, {tr("pinion"), "pinion "}, {tr("bearing"), "bearing "},
            {tr("shaft"), "shaft "},    {tr("link"), "link "},     {tr("engine"), "drive "}};
}

} // namespace gorvet::desk
