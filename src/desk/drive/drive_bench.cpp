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
    return {{tr("gearbox"), "output "}, {tr("pinion"), "pinion "}, {tr("bearing"), "bearing "},
            {tr("shaft"), "shaft "},    {tr("link"), "link "},     {tr("engine"), "drive "}};
}

} // namespace gorvet::desk
