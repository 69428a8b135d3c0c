#include "desk/scan/scan_bench.hpp"

namespace gorvet::desk {

sheet::Drawing ScanBench::draw(const Document&, const ViewState& state, double width, double height,
                               const sheet::Format& f) const {
    if (state.way) return state.way_in ? state.way_in(width, height, f) : sheet::Drawing{};
    return state.compare && state.pairs ? state.pairs(width, height, f) : sheet::Drawing{};
}

std::vector<Starter> ScanBench::starters(const Document& d, const ViewState& state) const {
    if (state.way)
        return {{tr("The scans again"), "!wayIn"},
                {tr("Cut map for it…"), "!cutMap"},
                {tr("Keep the cuts for it"), "!keepCuts"},
                {tr("least clearance"), "clearance least "},
                {tr("Build sheet…"), "!exportBuildSheet"}};
    if (state.compare)
        return {{tr("The scans again"), "!comparePairs"},
                {tr("what a pair needs"), "clearance between "},
                {tr("wheel travel"), "travel "},
                {tr("what swings"), "swing "},
                {tr("least clearance"), "clearance least "},
                {tr("finish"), "clearance finish "}};
    // what opens a window of its own is named by its action
    std::vector<Starter> list{{tr("Add a scan…"), "!addScan"}};
    if (d.build().scans.empty()) return list;
    list.push_back({tr("Lay one on another…"), "!layScan"});
    list.push_back({tr("Pair by pair"), "!comparePairs"});
    list.push_back({tr("Way in"), "!wayIn"});
    list.push_back({tr("Cut map…"), "!cutMap"});
    list.push_back({tr("Keep the cuts"), "!keepCuts"});
    list.push_back({tr("Fit a shape…"), "!fitShape"});
    list.push_back({tr("Picture…"), "!savePicture"});
    list.push_back({tr("least clearance"), "clearance least "});
    list.push_back({tr("cut margin"), "clearance margin "});
    list.push_back({tr("never-cut zone"), "zone "});
    return list;
}

} // namespace gorvet::desk
