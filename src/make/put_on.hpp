#pragma once

#include "make/service.hpp"

/// Whether what is made can be put where it is to be, in the order in which it is: straight, from one of six sides. Chassis
/// frame.
namespace gorvet::make {

struct PutOnItem {
    std::string name, tag, how; ///< "o1, outrigger"; "welded on"
    ServiceBody body;
    bool operator==(const PutOnItem&) const = default;
};
struct PutOnIn {
    std::vector<ServiceBody> frame; ///< what is there before
    std::vector<PutOnItem> items;   ///< in order
    bool operator==(const PutOnIn&) const = default;
};
struct PutOn {
    std::string name, tag, how;
    std::vector<std::string> from; ///< "below", "the right": sides from which it goes in straight, all that are
    std::string shut_by;           ///< where there is none: what is in the way on the side that has least
};
/// Each item against the frame and what was put on before it. What lies on another, or is sawn to it (by what either may stand in
/// it), is not in the way.
std::vector<PutOn> putOn(const PutOnIn&);

/// What an item strikes when it is moved straight that way, however far: of every pair of triangles that cover each other seen
/// along the way, whether the other's lies ahead. The item is made smaller by what may stand in another. Empty: nothing.
std::string struckOn(const ServiceBody& item, const std::vector<ServiceBody>& others, const geometry::Vec3& way);
/// A closed mesh with each face moved inwards by so much: a corner goes to where the moved faces meet, by least squares.
shape::Mesh shrunk(const shape::Mesh&, double by_mm);

} // namespace gorvet::make
