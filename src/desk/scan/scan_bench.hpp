#pragma once

#include "desk/shell/bench.hpp"
#include "desk/shell/tool.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

/// Scan: its sheet is the view of the scans; here are its words and first steps.
class ScanBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(ScanBench)
public:
    ScanBench() : Bench("scan") {}
    std::vector<Act> acts() const override;
    bool dragged(Desk&, const Drag&, bool let_go) const override;
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("a scan's place, like  scan shell move 0 0 -20"); }
};

} // namespace gorvet::desk
