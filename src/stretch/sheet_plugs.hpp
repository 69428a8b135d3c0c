#pragma once

#include <optional>

/// Plug welds through a wall that lies on another: sheet has its own rule (engineering.md: holes of 5.5 to 8 mm, 25 to 40 apart),
/// thicker metal that of plugs. Internal to this room. mm, N, MPa.
namespace gorvet::stretch {

inline constexpr double sheet_thin_mm = 3;             ///< thinner is sheet
inline constexpr double sheet_pitch_mm = 30;           ///< of plugs in sheet, where nothing asks for more
inline constexpr double sheet_filler_MPa = 0.30 * 480; ///< shear on the plug's area
inline constexpr double sheet_base_MPa = 0.40 * 210;   ///< round the plug, through the sheet
inline constexpr double sheet_spare = 1.5;             ///< of what it may bear over the section force

/// What fits into a face of `across` × `along`, and what a pull along it asks.
struct SheetPlugs {
    double hole_mm = 0;
    double pitch_mm = 0;
    double each_N = 0;
    int needed = 0;
    int rows = 0;
    int fit = 0;
    double along_need_mm = 0; ///< that the needed ones take; 0 where no row fits
};
/// `wall`: the thinner of both. `across`: between the corners' middles; `hole`: none: as the rule says.
SheetPlugs sheetPlugs(double wall_mm, double across_mm, double along_mm, double pull_N, std::optional<double> hole_mm = {});

/// What one millimetre of fillet bears: its throat, or the base metal along its leg or through the thinner part.
double filletBears(double leg_mm, double thinner_mm);

} // namespace gorvet::stretch
