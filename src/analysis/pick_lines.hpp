#pragma once

#include "analysis/overlay.hpp"

/// Lines of entry that places picked on scans begin.
namespace gorvet::analysis {

struct PickedPlace {
    shape::Point3 at{}; ///< in the chassis frame
    bool on_body = false;
    std::optional<double>
        u95_mm; ///< how sharp the place is: the scan's scatter there, and how finely it was picked; none: not known
};
/// With its ±: the scan's scatter there, and `fineness_mm`, within which it was picked.
PickedPlace pickedPlace(const Overlay&, const shape::Point3& at, bool on_body, double fineness_mm);
struct BegunLine {
    std::string text;
    size_t caret = 0; ///< where the name is still to be typed, bytes
};
/// "point NAME station offset height", roughly, on the axes of what was picked.
BegunLine pointLine(const build::Build&, const Overlay&, const PickedPlace&);
/// "NAME NAME distance ± …": the distance of two places, with the ± of both. It does not depend on how a scan is laid, and so
/// both must lie on one scan. Fails with BadInput when they do not, or where the scan is too thin to say how sharp it is.
Result<BegunLine> distanceLine(const build::Build&, const Overlay&, const PickedPlace&, const PickedPlace&);

} // namespace gorvet::analysis
