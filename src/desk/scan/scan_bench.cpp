#include "desk/scan/scan_bench.hpp"

namespace gorvet::desk {

sheet::Drawing ScanBench::draw(const Document&, const ViewState&, double, double, const sheet::Format&) const { return {}; }

std::vector<Starter> ScanBench::starters(const Document& d, const ViewState&) const {
    // what opens a window of its own is named by its action
    std::vector<Starter> list{{tr("Add a scan…"), "!addScan"}};
    if (d.build().scans.empty()) return list;
    list.push_back({tr("Lay one on another…"), "!layScan"});
    list.push_back({tr("Way in"), "!wayIn"});
    list.push_back({tr("Cut map…"), "!cutMap"});
    list.push_back({tr("Picture…"), "!savePicture"});
    list.push_back({tr("least clearance"), "clearance least "});
    list.push_back({tr("cut margin"), "clearance margin "});
    list.push_back({tr("never-cut zone"), "zone "});
    return list;
}

} // namespace gorvet::desk
