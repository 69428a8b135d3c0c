#pragma once

#include "analysis/pick_lines.hpp"
#include "desk/shell/tool.hpp"

namespace gorvet::desk {

/// A point marked where the scan was picked, or a reading of the distance of two places: each is begun on the line, to be named
/// and kept.
class PickTool : public Tool {
public:
    using Tool::Tool;
    QString asks() const override;
    QStringList answers() const override;
    void picked(const Pick&) override;
    void answered(int) override;

private:
    std::vector<analysis::PickedPlace> places_;
};
void beginPicking(Desk&);

} // namespace gorvet::desk
