#pragma once

#include "desk/shell/bench.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class TapeBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(TapeBench)
public:
    TapeBench() : Bench("tape") {}
    analysis::ViewOptions options(const Document&, const ViewState&) const override;
    std::vector<Act> acts() const override;
    /// A practice frame has its instruments at hand.
    void opened(Desk& desk) const override;
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    std::optional<Proposal> proposal(const Document&, const ViewState&) const override;
    /// A place of the sketch is marked.
    bool picked(Desk&, const QString& tag) const override;
    QString placeholder() const override { return tr("a point, like  point Al 0 -420 310, or a reading, like  A3 B7 2164"); }
};

} // namespace gorvet::desk
