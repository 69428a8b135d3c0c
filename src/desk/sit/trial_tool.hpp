#pragma once

#include "desk/shell/tool.hpp"

namespace gorvet::desk {

/// The body dragged, in the view of the scans or on The Rule: a trial. Where it was let go nothing is changed yet; "Sit it here"
/// moves the pins along, "Put it back" or Escape leaves the plan as it was. It can be dragged on, and held to one axis.
class TrialTool : public Tool {
public:
    TrialTool(Desk&, const shape::Point3& by_mm);
    QString asks() const override;
    QStringList answers() const override;
    void answered(int) override;
    bool dragged(const Drag&, bool let_go) override;
    bool possible() const override;
    double slide_mm() const override { return by()[0]; }
    void showAgain() override { show(); }
    void left() override;

private:
    enum class Along { Both, Station, Height };
    /// By how much it stands tried: along and up, as far as its axes are free. Sideways it stays on the centreline.
    shape::Point3 by() const;
    void show();

    shape::Point3 kept_by_{}; ///< of the drags that were let go
    shape::Point3 live_{};    ///< of the one that is on
    Along free_ = Along::Both;
    std::int64_t revision_;
};

} // namespace gorvet::desk
