#pragma once

#include "analysis/lay_scan.hpp"
#include "desk/shell/tool.hpp"

#include <QCoreApplication>

/// Laying a scan: by picks on it and where they belong, on the datum by three, two, one, or on surveyed points. One tool each.
namespace gorvet::desk {

/// Asks which scan and how, and begins. Markers and mid-plane need no picks.
void beginLaying(Desk&);

class LayByPicks final : public Tool {
    Q_DECLARE_TR_FUNCTIONS(LayByPicks)
public:
    LayByPicks(Desk& desk, build::ScanId scan) : Tool(desk), scan_(scan) {}
    QString asks() const override;
    QStringList answers() const override { return {tr("Lay it"), tr("Lay it, then by surfaces")}; }
    void picked(const Pick&) override;
    void answered(int) override;

private:
    build::ScanId scan_;
    std::vector<std::array<shape::Point3, 2>> pairs_;
    std::optional<shape::Point3> half_;
};

class LayByDatum final : public Tool {
    Q_DECLARE_TR_FUNCTIONS(LayByDatum)
public:
    LayByDatum(Desk& desk, build::ScanId scan) : Tool(desk), scan_(scan) {}
    QString asks() const override;
    void picked(const Pick&) override;

private:
    build::ScanId scan_;
    std::vector<shape::Point3> places_;
};

class LayBySurvey final : public Tool {
    Q_DECLARE_TR_FUNCTIONS(LayBySurvey)
public:
    LayBySurvey(Desk& desk, build::ScanId scan) : Tool(desk), scan_(scan) {}
    QString asks() const override;
    QStringList answers() const override { return {tr("Lay it")}; }
    void picked(const Pick&) override;
    void answered(int) override;

private:
    build::ScanId scan_;
    std::vector<std::pair<build::PointId, shape::Point3>> surveyed_;
};

} // namespace gorvet::desk
