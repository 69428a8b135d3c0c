#pragma once

#include "frame/beams.hpp"

/// Two rails with bridges between them, and how much they resist being twisted.
namespace gorvet::frame {

/// A bridge between the rails, square to them.
struct Bridge {
    std::string name;
    double station_mm = 0;
    Section section;     ///< y rearward, z up, as it is seen from the left
    double below_mm = 0; ///< its centroid under the rails' own
};
struct Ladder {
    std::vector<Vec3> left; ///< the rails' centroids, front to rear; x rearward, y right, z up
    std::vector<Vec3> right;
    Section rail; ///< of the left one; the right one is its mirror image
    Material material;
    std::vector<Bridge> bridges;
    double front_axle_mm = 0; ///< stations between which it is twisted
    double rear_axle_mm = 0;
};

/// Twisted between its axle lines: the rear one stands level, the front one is turned.
struct Twist {
    double free_nm_per_deg = 0; ///< bridges' ends warp as they like
    double held_nm_per_deg = 0; ///< no joint warps at all: what stiff gussets could reach at the most
    double length_mm = 0;       ///< between the axle lines
    double mass_kg = 0;
    bool open = false; ///< rails or bridges are open sections: the two figures differ
};
/// Rails are divided at bridges and axles and at least every `pitch_mm`. Fails with BadInput where a rail does not reach over
/// both axles or a bridge's station; Conflict where fewer than two bridges keep the rails together.
Result<Twist> twistOf(const Ladder&, double pitch_mm = 150);
/// The frame as beams; nodes of the left rail stand first, then those of the right one. `joints_warp`: see Twist.
struct LadderModel {
    Model model;
    std::array<std::size_t, 2> front{}; ///< nodes at the axle lines, left and right
    std::array<std::size_t, 2> rear{};
};
Result<LadderModel> modelOf(const Ladder&, bool joints_warp, double pitch_mm = 150);

/// Seen from the other side: left is right.
Section mirrored(Section);

} // namespace gorvet::frame
