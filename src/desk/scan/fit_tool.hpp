#pragma once

#include "desk/shell/tool.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

/// Asks which shape, and begins.
void beginFitting(Desk&);

/// A shape through places that are picked on a scan; says what it is, keeps nothing.
class FitTool final : public Tool {
    Q_DECLARE_TR_FUNCTIONS(FitTool)
public:
    FitTool(Desk& desk, int shape) : Tool(desk), shape_(shape) {}
    QString asks() const override;
    QStringList answers() const override { return {tr("Fit")}; }
    void picked(const Pick&) override;
    void answered(int) override;

private:
    int shape_;
    std::vector<shape::Point3> places_;
    int layer_ = 0;
};

} // namespace gorvet::desk
