#pragma once

#include <optional>
#include <vector>

/// A shaft as a tube: how fast it may turn, what it bears. mm, N·m, MPa, rpm.
namespace gorvet::drive {

struct Tube {
    double outside_mm = 0;
    double wall_mm = 0;
    bool operator==(const Tube&) const = default;
};

/// First critical speed of a steel tube hinged at its ends, rpm: f = (π/2)√(E I/(m′ L⁴)), E 205 GPa, 7850 kg/m³. Sizes > 0, the
/// wall at most half of the outside. engineering.md, Drive.
double criticalRpm(const Tube&, double length_mm);
/// Shear of its skin under a torque: τ = 16 T D/(π(D⁴ − d⁴)).
double shearMpa(const Tube&, double torque_Nm);
double massKg(const Tube&, double length_mm);

/// What a tube has to be good for.
struct TubeNeed {
    double length_mm = 0;
    double top_rpm = 0;
    double torque_Nm = 0;       ///< 0: not known
    double may_shear_mpa = 100; ///< of a welded tube of mild steel, driven hard now and then
};
/// The sizes that are looked through.
const std::vector<Tube>& usualTubes();
/// The lightest of them that turns at 0.7 of its critical speed at the most and bears the torque; none where none does.
std::optional<Tube> lightestTube(const TubeNeed&);

} // namespace gorvet::drive
