#pragma once

#include "desk/shell/desk.hpp"
#include "shape/transform.hpp"

#include <QStringList>

namespace gorvet::desk {

/// A place that was picked: in the view of the scans, or on a sheet.
struct Pick {
    shape::Point3 at{}; ///< in the chassis frame
    int layer = 0;      ///< of the view of the scans
};

/// Something dragged over a view.
struct Drag {
    enum class What { Body, Corner };
    What what = What::Body;
    shape::Point3 to{};    ///< Body: by so much from where the drag began; Corner: its new place, in the chassis frame
    std::uint32_t cut = 0; ///< of a corner
    int corner = 0;
};

/// What is done over a sheet: begun, given picks and answers, left by Escape. It says what it waits for on the line; pointer,
/// keyboard and tests drive it alike. It keeps one edit, or none.
class Tool {
public:
    explicit Tool(Desk& desk) : desk_(desk) {}
    virtual ~Tool() = default;
    Tool(const Tool&) = delete;
    Tool& operator=(const Tool&) = delete;
    /// What it waits for.
    virtual QString asks() const = 0;
    /// Besides leaving it: a button each.
    virtual QStringList answers() const { return {}; }
    virtual void picked(const Pick&) {}
    virtual void answered(int) {}
    /// Takes something that is dragged, or was let go, while it is on; false: it is none of its own.
    virtual bool dragged(const Drag&, bool /*let_go*/) { return false; }
    /// By how much the body edge of The Rule is shown slid while it is on, mm.
    virtual double slide_mm() const { return 0; }
    /// The views were shown anew: what it shows over them is shown again.
    virtual void showAgain() {}
    /// It is put down: what it showed of things that were not kept goes.
    virtual void left() {}
    /// Whether what it works on is still there: it is put down when an undo or another line took it away.
    virtual bool possible() const { return true; }

protected:
    Desk& desk() const { return desk_; }

private:
    Desk& desk_;
};

} // namespace gorvet::desk
