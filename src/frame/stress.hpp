#pragma once

#include "frame/section.hpp"

#include <array>
#include <vector>

/// What the forces in a section come to in its walls.
namespace gorvet::frame {

/// Forces and moments on the cut face that looks along the beam, in its own axes at the section's centroid: N, N·mm, N·mm².
struct Forces {
    double axial = 0;
    double along_y = 0;
    double along_z = 0;
    double twist = 0; ///< about the line through the centroid
    double about_y = 0;
    double about_z = 0;
    double bimoment = 0;      ///< E Cw θ''
    double warping_twist = 0; ///< the part of the twist about the shear centre that restrained warping takes, −E Cw θ'''
};
struct Stress {
    double along = 0; ///< along the beam, MPa: the greatest by its amount, with its sign
    double shear = 0;
    double mises = 0; ///< √(σ² + 3 τ²) of both, as if they met
};

/// Ready to be asked many times. Stresses are taken at the outermost places of the section (64 directions) and where it warps
/// most; bimoment adds by its amount. Shear: of the twist as the walls' own flow (cells) and over their thickness (open), of the
/// forces the mean over the shear area, a quarter more for its middle. What the strips and posts of a windowed wall bend by adds
/// to what is along. All is taken as if it met at one place.
class Stresses {
public:
    Stresses(const Walls&, const Section&);
    Stress of(const Forces&) const;

private:
    struct Place {
        double y, z, warping; ///< from the centroid
    };
    std::vector<Place> places_;
    double area_, level_, upright_, product_, warping_, shear_level_, shear_upright_;
    double per_twist_ = 0; ///< the greatest shear by a twist of 1
    At shear_centre_;      ///< from the centroid
    double window_twist_, window_level_, window_upright_;
};

} // namespace gorvet::frame
