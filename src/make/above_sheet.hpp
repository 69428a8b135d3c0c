#pragma once

#include "build/rail_line.hpp"
#include "make/fouls.hpp"
#include "make/near.hpp"
#include "make/part.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// All new steel from above on its rails, each part with a handle by which it is dragged along; and how near it comes to what.
namespace gorvet::make {

struct AboveItem {
    const PartPlan* plan = nullptr;
    std::string tag;
    std::optional<sheet::Grip> grip; ///< its place and scale are set here
};
struct AboveView {
    std::vector<AboveItem> items;
    build::RailLine left, right;     ///< as planned
    std::vector<shape::Mesh> others; ///< drawn as they lie: the crossmember
    std::vector<Near> nears;         ///< of all of them
    std::vector<Foul> fouls;
    std::string dragged; ///< name of the part that is dragged
    std::string live;    ///< what is said of it meanwhile
    units::LengthStep step = units::LengthStep::Mm01;
};
sheet::Drawing aboveSheet(const AboveView&, double width, double height, const sheet::Format&);

/// Where its places come to lie when the first is moved along by so much: what lies in a rail follows that rail, the others go
/// as the first does.
std::vector<Vec3> movedAlong(const std::vector<Vec3>& places, double by_mm, const build::RailLine& left,
                             const build::RailLine& right);

} // namespace gorvet::make
