#pragma once

#include "analysis/way_in.hpp"
#include "desk/shell/tool.hpp"

#include <QTimer>

namespace gorvet::desk {

/// Makes the way in where it is not made yet, then lets it be watched.
void watchWay(Desk&);

/// The body seen coming down: a slider over the moments of the way, the place that is nearest marked in each. It keeps nothing.
class WayTool : public Tool {
public:
    WayTool(Desk&, std::vector<analysis::WayMoment>, std::size_t tightest, bool found);
    ~WayTool() override;
    QString asks() const override;
    QStringList answers() const override;
    void answered(int) override;
    bool possible() const override;
    void showAgain() override { show(at_); }
    void left() override;

private:
    void show(std::size_t at);

    std::vector<analysis::WayMoment> moments_;
    std::size_t tightest_;
    bool found_;
    std::size_t at_ = 0;
    std::int64_t revision_;
    QMetaObject::Connection slider_;
    QTimer playing_;
};

} // namespace gorvet::desk
