#pragma once

#include "frame/structure.hpp"
#include "sheet/page.hpp"

#include <functional>

/// What goes through the rails along the frame at rest: where it is cut, and how it is loaded there.
namespace gorvet::frame {

/// What goes through a line at a station, by the places on both sides of it.
struct Through {
    double bends_nm = 0; ///< up and down, by its amount
    double shear_n = 0;
    double twist_nm = 0;
};
/// None where the line does not reach.
std::optional<Through> throughAt(const OfLine&, double station_mm);
/// The most that goes through it anywhere.
Through mostThrough(const OfLine&);

struct ForcesView {
    const Structure* structure = nullptr;
    const Outcome* outcome = nullptr;
    std::vector<double> cuts;                      ///< stations
    std::vector<std::pair<double, double>> better; ///< other stations where it could be cut, with their score of 10
    std::function<std::string(double)> station;
};
inline constexpr double forces_sheet_least_px = 370;
sheet::Drawing forcesSheet(const ForcesView&, double width, double height, const sheet::Format&);

} // namespace gorvet::frame
