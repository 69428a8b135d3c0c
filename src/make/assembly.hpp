#pragma once

#include "geometry/box3.hpp"
#include "make/part.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// The new steel drawn away from the frame, numbered in the order in which it is made and put on.
namespace gorvet::make {

struct AssemblyItem {
    std::string name; ///< "outrigger o1"
    std::string tag;
    std::string how;                 ///< "welded on"
    std::vector<shape::Mesh> pieces; ///< where they sit
};
struct AssemblyView {
    std::vector<AssemblyItem> items; ///< in order
    shape::Mesh frame;               ///< rails
};
/// How far each item is drawn away so that its box stands clear of the frame's and of all that were drawn before it: outwards for
/// what is beside the middle, up or down for what is in it. Farther and farther; after twelve steps it stays where it is.
std::vector<Vec3> drawnAway(const AssemblyView&);
geometry::Box3 boxOfMesh(const shape::Mesh&);
/// From the left, behind and above, hidden lines left out, a dotted line from each item back to its place, and who is who.
sheet::Drawing assemblySheet(const AssemblyView&, double width, double height, const sheet::Format&, int fine = 1400);

} // namespace gorvet::make
