#pragma once

#include "desk/shell/bench.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class WorkBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(WorkBench)
public:
    WorkBench() : Bench("work") {}
    std::vector<Act> acts() const override;
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    /// At a hold point: the next reading it asks for.
    std::optional<Proposal> proposal(const Document&, const ViewState&) const override;
    /// On the register: the next row.
    std::optional<Proposal> calledOut(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("done  ticks the next step; add  note …  to it"); }
};

} // namespace gorvet::desk
