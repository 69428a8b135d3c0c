#pragma once

#include "build/rail_line.hpp"
#include "make/fixture.hpp"
#include "sheet/drawing.hpp"
#include "units/quantity.hpp"

/// A fixture from above and from its side, and each of its towers.
namespace gorvet::make {

struct FixtureView {
    const FixtureIn* input = nullptr;
    const FixturePlan* plan = nullptr;
    std::vector<build::RailLine> rails; ///< of what is held, on its own axes
    units::LengthStep step = units::LengthStep::Mm01;
};
/// `first` to `until` of its towers; the drawing stands above the first.
sheet::Drawing fixtureSheet(const FixtureView&, double width, double height, const sheet::Format&, std::size_t first = 0,
                            std::size_t until = static_cast<std::size_t>(-1));
/// "tower 400, packers 10 + 2".
std::string towerWords(const TowerState&, units::LengthStep);
/// "Its head stands +3.0 along and −1.2 across from its hole".
std::string headWords(const TowerState&, units::LengthStep);
/// A place of what is held, on the table.
Vec3 onTable(const FixtureIn&, const FixturePlan&, const Vec3&);

} // namespace gorvet::make
