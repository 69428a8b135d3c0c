#include "analysis/move_body.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

Result<Edit> movePins(const Build& b, double rearward_mm, double up_mm) {
    Edit edit;
    bool along = false, up = false;
    // an arch that is pinned to its wheel holds the body along where no station is asked for: only the height moves then
    const auto has = [&](PinKind kind) {
        return std::any_of(b.pins.begin(), b.pins.end(), [&](const auto& row) { return row.second.kind == kind; });
    };
    const bool held = has(PinKind::ArchFront) && !has(PinKind::Station);
    if (held && std::abs(up_mm) >= 0.05) rearward_mm = 0;
    if (held && std::abs(rearward_mm) >= 0.05)
        return Error{Error::Code::Conflict, "arch",
                     "The front arch is pinned to its wheel: the body can't be moved along by hand.",
                     "Remove that pin first, on Sit.", -1};
    const auto moved = [&](Pin pin, double by) {
        pin.target.value += by;
        pin.target.typed.clear();
        pin.target.provenance = Provenance::Derived;
        edit.changes.emplace_back(Put<Pin>{pin});
    };
    for (const auto& [id, pin] : b.pins) {
        if (pin.kind == PinKind::Station && std::abs(rearward_mm) >= 0.05) moved(pin, rearward_mm), along = true;
        if (pin.kind == PinKind::Height && std::abs(up_mm) >= 0.05) moved(pin, up_mm), up = true;
    }
    if ((std::abs(rearward_mm) >= 0.05 && !along) || (std::abs(up_mm) >= 0.05 && !up))
        return Error{Error::Code::Conflict, "pins",
                     fmt::format("No pin holds the body {}.", up || std::abs(up_mm) < 0.05 ? "along" : "in height"),
                     "Pin the hinge pillar's station and the sills' heights on Sit first.", -1};
    if (!along && !up) return Error{Error::Code::BadInput, "move", "That is no move.", "Drag it further.", -1};
    edit.sentence = fmt::format("move the body {:.1f} mm {} and {:.1f} mm {}", std::abs(rearward_mm),
                                rearward_mm < 0 ? "forward" : "rearward", std::abs(up_mm), up_mm < 0 ? "down" : "up");
    return edit;
}

} // namespace gorvet::analysis
