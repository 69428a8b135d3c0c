#pragma once

#include "analysis/lay_scan.hpp"
#include "desk/shell/tool.hpp"

#include <QCoreApplication>

/// Laying a scan: by picks on it and where they belong, on the datum by three, two, one, or on surveyed points. One tool each.
namespace gorvet::desk {

/// Asks which scan and how, and begins. Markers and mid-plane need no picks.
void beginLaying(Desk&);

/// A scan is being laid.
class LayTool : public Tool {
public:
    LayTool(Desk& desk, build::ScanId scan) : Tool(desk), scan_(scan) {}
    bool possible() const override { return desk().document().latest().scans.contains(scan_); }

protected:
    QString scanName() const;
    /// As it stands on its subject's axes.
    shape::Point3 onItsAxes(const shape::Point3& at) const;
    build::ScanId scan_;
};

class LayByPicks final : public LayTool {
    Q_DECLARE_TR_FUNCTIONS(LayByPicks)
public:
    using LayTool::LayTool;
    QString asks() const override;
    QStringList answers() const override { return {tr("Lay it"), tr("Lay it, then by surfaces")}; }
    void picked(const Pick&) override;
    void answered(int) override;

private:
    std::vector<std::array<shape::Point3, 2>> pairs_;
    std::optional<shape::Point3> half_;
};

class LayByDatum final : public LayTool {
    Q_DECLARE_TR_FUNCTIONS(LayByDatum)
public:
    using LayTool::LayTool;
    QString asks() const override;
    void picked(const Pick&) override;

private:
    std::vector<shape::Point3> places_;
};

class LayBySurvey final : public LayTool {
    Q_DECLARE_TR_FUNCTIONS(LayBySurvey)
public:
    using LayTool::LayTool;
    QString asks() const override;
    QStringList answers() const override { return {tr("Lay it")}; }
    void picked(const Pick&) override;
    void answered(int) override;

private:
    std::vector<std::pair<build::PointId, shape::Point3>> surveyed_;
};

} // namespace gorvet::desk
