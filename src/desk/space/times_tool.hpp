#pragma once

#include "analysis/scene_times.hpp"
#include "desk/shell/tool.hpp"
#include "desk/space/space.hpp"

#include <QTimer>

namespace gorvet::desk {

/// What is to be watched, worked out beside the window; nothing: there is nothing to watch, or it was stopped.
using FindTimes =
    std::function<std::optional<analysis::SceneTimes>(const build::Build&, const analysis::Results&, const Worker::Progress&)>;
/// Makes what it needs where it is not made yet, turns to the view of the scans, and lets it be watched. `what`: of the worker;
/// `none`: what is said when there is nothing.
void watch(Desk&, std::vector<std::string_view> needs, const QString& what, const QString& none, FindTimes);

/// Something watched in space: a slider over its moments, the place that is nearest marked in each. It keeps nothing.
class TimesTool : public Tool {
public:
    TimesTool(Desk&, analysis::SceneTimes, SceneCast);
    ~TimesTool() override;
    QString asks() const override;
    QStringList answers() const override;
    void answered(int) override;
    bool possible() const override;
    void showAgain() override { show(at_); }
    void left() override;

private:
    void show(std::size_t at);

    analysis::SceneTimes times_;
    std::size_t at_ = 0;
    std::int64_t revision_;
    QMetaObject::Connection slider_;
    QTimer playing_;
};

} // namespace gorvet::desk
