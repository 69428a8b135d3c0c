#pragma once

#include "build/subject.hpp"
#include "geometry/vec3.hpp"
#include "sheet/drawing.hpp"

#include <string>
#include <vector>

/// What a frame of a kind, or a body, looks like before anything of it is measured: the places worth marking first, on a sketch.
/// Its figures are nobody's car: a place marked from it is assumed until readings put it right.
namespace gorvet::tape {

/// A place worth marking.
struct GhostPoint {
    std::string stem; ///< "A": with l and r behind it where there is one on either side, else the whole name
    build::Role role = build::Role::None;
    geometry::Vec3 rough;  ///< of the right one: mm rearward of the front axle, right, up
    const char* what = ""; ///< "front end of the rail"
    bool pair() const { return rough.y_mm != 0; }
    /// Its names: left and right, or the one.
    std::vector<std::string> names() const;
    /// Roughly where the one of that name is.
    geometry::Vec3 at(const std::string& name) const;
};

struct Ghost {
    std::vector<GhostPoint> points;                   ///< in the order in which they are marked
    std::vector<std::vector<geometry::Vec3>> outline; ///< lines of its right half in plan, or across; mirrored when drawn
    std::string words;                                ///< what the sketch is of
};

/// The sketch of a frame of that kind.
Ghost ghostOf(build::FrameKind);
/// The sketch of a body.
Ghost bodyGhost();

/// What of it was marked, for the drawing.
struct GhostView {
    struct Marked {
        std::string name;
        geometry::Vec3 at; ///< where it is thought to be
        std::string tag;
    };
    std::vector<Marked> marked;
    std::vector<std::pair<int, int>> readings; ///< lines between marked ones
    std::optional<std::pair<int, int>> next;   ///< the pair that is read next
    sheet::Ink ink = sheet::Ink::Chassis;
    std::string note; ///< one line below: what is missing
};

/// The sketch from above, front at the left, with a target for each place that is not marked yet (tag "ghost:NAME") and a list
/// that says what each is. It is no shape of this car, and says so.
sheet::Drawing ghostSheet(const Ghost&, const GhostView&, double width, double height, const sheet::Format&);

/// The same in small without names: what kind of frame it is.
sheet::Drawing ghostPicture(const Ghost&, double width, double height, const sheet::Format&);

} // namespace gorvet::tape
