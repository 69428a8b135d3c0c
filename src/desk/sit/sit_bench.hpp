#pragma once

#include "desk/shell/bench.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class SitBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(SitBench)
public:
    SitBench() : Bench("sit") {}
    sheet::Drawing draw(const Document&, const ViewState&, double width, double height, const sheet::Format&) const override;
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("what must hold, like  sill front 285"); }
};

} // namespace gorvet::desk
