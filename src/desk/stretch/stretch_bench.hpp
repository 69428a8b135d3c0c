#pragma once

#include "desk/shell/bench.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

class StretchBench final : public Bench {
    Q_DECLARE_TR_FUNCTIONS(StretchBench)
public:
    StretchBench() : Bench("stretch") {}
    std::vector<Starter> starters(const Document&, const ViewState&) const override;
    QString placeholder() const override { return tr("where to cut, like  cut 1250"); }
};

} // namespace gorvet::desk
