#pragma once

#include "stretch/stretch.hpp"

/// What plug welds and fillets of a splice bear in a load case: elastic group method. Blodgett, Design of Welded Structures.
namespace gorvet::stretch {

/// Through one rail at the joint, amounts in N and N·mm.
struct JointForces {
    double axial = 0;
    double aside = 0;   ///< sideways shear
    double upright = 0; ///< upright shear
    double twist = 0;
    double bends = 0; ///< up and down
    double bends_aside = 0;
};
/// The worst plug and the worst fillet edge beside what each may bear: their capacity over 1.5, prying counted for plugs. Nothing
/// where they do not carry (the butt weld counts, plates carry alone, no plates).
struct JointBears {
    std::optional<double> plug_N;
    double plug_may_N = 0;
    std::optional<double> fillet_N;
    double fillet_may_N = 0;
    /// The larger of both shares; 0 where neither carries.
    double share() const { return std::max(plug_N ? *plug_N / plug_may_N : 0.0, fillet_N ? *fillet_N / fillet_may_N : 0.0); }
};
/// Centres of the plug welds that are made in one flange, one side of the joint: along from the joint, across from the middle.
std::vector<std::pair<double, double>> plugPlaces(const Plugs&);
JointBears jointBears(const Splice&, const build::RailLine&, bool channel, bool butt_counts, const JointForces&);

} // namespace gorvet::stretch
