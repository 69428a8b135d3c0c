#pragma once

#include "desk/shell/bench.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class MakeBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(MakeBench)
public:
    MakeBench() : Bench("make") {}
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("what to make, like  mount all"); }
};

} // namespace gorvet::desk
