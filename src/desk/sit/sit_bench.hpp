#pragma once

#include "desk/shell/bench.hpp"
#include "desk/shell/tool.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class SitBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(SitBench)
public:
    SitBench() : Bench("sit") {}
    /// The body is dragged: a trial while it is held, a change of its pins when it is let go.
    bool dragged(Desk&, const Drag&, bool let_go) const override;
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("what must hold, like  sill front 285"); }
};

} // namespace gorvet::desk
