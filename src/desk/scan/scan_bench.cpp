#include "desk/scan/scan_bench.hpp"

#include "analysis/kept_cuts.hpp"
#include "desk/scan/fit_tool.hpp"
#include "desk/scan/lay_tool.hpp"
#include "desk/scan/pick_tool.hpp"
#include "desk/scan/scan_acts.hpp"
#include "desk/scan/scan_times.hpp"
#include "desk/space/space.hpp"

namespace gorvet::desk {

std::vector<Act> ScanBench::acts() const {
    return {{"addScan", tr("Add a scan…"), QKeySequence("Ctrl+M"), addScan},
            {"layScan", tr("Lay a scan on another…"), QKeySequence("Ctrl+L"), beginLaying},
            {"cutMap", tr("Cut map…"), QKeySequence("Ctrl+K"), exportCutMap},
            {"keepCuts", tr("Keep the cuts as steps of the work"), QKeySequence("Ctrl+Shift+K"), keepCuts},
            {"watch", tr("Watch, moment by moment…"), {}, watchSomething},
            {"seeWay", tr("See it come down"), {}, watchWay},
            {"seeTravel", tr("See wheels and axles move"), {}, watchTravel},
            {"seeChange", tr("See the chassis before and after"), {}, watchChange},
            {"fitShape", tr("Fit a shape through places of a scan…"), QKeySequence("Ctrl+J"), beginFitting},
            {"fromPicks", tr("Point or reading from a scan…"), {}, beginPicking},
            {"savePicture", tr("Picture of the scans…"), QKeySequence("Ctrl+G"), savePicture}};
}

std::vector<Starter> ScanBench::starters(const Document& d, const ViewState& state) const {
    const std::string_view shown = view(state)->key;
    const Starter least{tr("least clearance"), "clearance least "};
    if (shown == "way")
        return {{tr("See it come down"), {}, "seeWay"},
                {tr("Cut map for it…"), {}, "cutMap"},
                {tr("Keep the cuts for it"), {}, "keepCuts"},
                least};
    if (shown == "pairs")
        return {{tr("what a pair needs"), "clearance between "},
                {tr("wheel travel"), "travel "},
                {tr("what swings"), "swing "},
                least,
                {tr("finish"), "clearance finish "}};
    std::vector<Starter> list{{tr("Add a scan…"), {}, "addScan"}};
    if (d.build().scans.empty()) return list;
    list.push_back({tr("Lay one on another…"), {}, "layScan"});
    list.push_back({tr("Cut map…"), {}, "cutMap"});
    list.push_back({tr("Keep the cuts"), {}, "keepCuts"});
    list.push_back({tr("Watch…"), {}, "watch"});
    list.push_back({tr("Fit a shape…"), {}, "fitShape"});
    list.push_back({tr("Point or reading…"), {}, "fromPicks"});
    list.push_back({tr("Picture…"), {}, "savePicture"});
    list.push_back(least);
    list.push_back({tr("cut margin"), "clearance margin "});
    list.push_back({tr("never-cut zone"), "zone "});
    return list;
}

bool ScanBench::dragged(Desk& desk, const Drag& drag, bool let_go) const {
    if (drag.what != Drag::What::Corner) return false;
    // what can't be kept goes back to where it was
    if (let_go && !desk.keep(analysis::moveCutCorner(desk.document().latest(), desk.document().results(),
                                                     build::PlannedCutId{drag.cut}, static_cast<size_t>(drag.corner), drag.to)))
        desk.space().putBack();
    return true;
}

} // namespace gorvet::desk
