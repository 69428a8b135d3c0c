#pragma once

#include "desk/shell/bench.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class DriveBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(DriveBench)
public:
    DriveBench() : Bench("drive") {}
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("a shaft, a slope, a link, like  level-on gearbox 3.1deg"); }
};

} // namespace gorvet::desk
