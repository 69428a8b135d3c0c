#pragma once

#include "analysis/frame.hpp"

/// Parts of new steel that brace the frame: they stand in Stretch's structure as planned, and bear what it hands to them.
namespace gorvet::analysis {

/// Their bars as lines of the frame as planned. Braces, X-members and K-braces that are made and are on the car; plates of theirs
/// are not in it. What nobody measured of them is told to `assumed`.
std::vector<frame::Line> partLines(const build::Build&, const Results&, std::vector<std::string>& assumed);

/// What the worst place of a part bears of all load cases, by the structure.
struct PartBears {
    std::string bar;
    double stress_mpa = 0;
    double may_mpa = 0; ///< yield over 1.5
    std::string case_name;
    build::Vec3 at;
    double works_mpa = 0; ///< the most at a joint of it, over ± 1 g
    double share() const { return may_mpa > 0 ? stress_mpa / may_mpa : 0; }
};
/// None while the structure is not worked out for the build as it is, or where the part is in none.
std::optional<PartBears> partBears(const build::Build&, const Results&, const std::string& part);
/// Whether its bars touch nothing of the frame: then nothing of it is known.
bool partLoose(const build::Build&, const Results&, const std::string& part);

} // namespace gorvet::analysis
