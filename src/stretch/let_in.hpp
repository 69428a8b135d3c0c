#pragma once

#include "build/let_in.hpp"
#include "build/places.hpp"
#include "build/remark.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// A rail let into a shell between two legs: how long it is, what joins it at both ends and how that gets in, what it bears on
/// the floor. Both joints are made to bear what the weaker of leg and rail bears, bent: no load of this shell is known.
/// engineering.md, Stretch. mm, kg, MPa.
namespace gorvet::stretch {

struct LetInInput {
    build::LetIn row;
    build::Places points;             ///< the two open ends, then what is marked along the legs
    std::array<int, 2> along{-1, -1}; ///< places in `points`, front and rear; −1: not marked
    double yield_mpa = 210;
    bool loose = false; ///< a place of it is only assumed
    std::vector<std::string> missing;
    std::vector<std::string> assumed;
    bool operator==(const LetInInput&) const = default;
};

/// Angles between a leg and the rail, rad.
struct LetInTurn {
    build::Figure up;    ///< seen from the side; > 0: going out of the leg, the rail turns up
    build::Figure aside; ///< from above; > 0: to the right of one who looks out of the leg
};
/// One end: a stepped piece inside rail and leg. It slides wholly into the roomier of both, then is driven out into the other.
struct LetInEnd {
    build::RailEnd end = build::RailEnd::Front;
    bool driven = false;     ///< a driven fit in the tighter one; else it slides in
    bool into_rail = true;   ///< the roomier one is the rail
    double thin_high_mm = 0; ///< outside of the piece in the tighter one
    double thin_wide_mm = 0;
    double thick_high_mm = 0; ///< in the roomier one
    double thick_wide_mm = 0;
    double step_mm = 0; ///< between both, a side, the larger of up and aside
    double wall_mm = 0;
    double engage_mm = 0;          ///< in each
    std::optional<LetInTurn> turn; ///< of the rail out of the leg's way; none: the leg's way is not marked
    double share = 0;              ///< of the weaker section's modulus that the piece has
    double weaker_mm3 = 0;
    double plug_mm = 0;
    double pitch_mm = 0;
    int plugs_needed = 0; ///< in each flange, each side of the joint
    int plugs_fit = 0;
    double engage_need_mm = 0; ///< that takes the needed ones
    double slot_mm = 0;        ///< in the roomier one's side: where the drift goes in, from the joint
};
struct LetInPlan {
    std::vector<std::string> missing;
    build::Figure between;        ///< of the legs' open ends
    build::Figure length;         ///< of the rail, cut square
    double slope_rad = 0;         ///< of the rail, down rearward; meaningless off the frame's own axes
    std::array<LetInEnd, 2> ends; ///< front, rear
    double foot_long_mm = 0;      ///< of the plate that spreads each end's push on the floor
    double foot_wide_mm = 0;
    double foot_thick_mm = 0;
    double push_N = 0;       ///< on the floor at each end once both joints bear all they can
    double slot_wide_mm = 0; ///< of the opening in the floor
    int floor_plugs = 0;     ///< along each side of it
    double rail_kg = 0;
    std::vector<build::Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};
/// Never fails.
LetInPlan letInPlan(const LetInInput&);

// ---- limits, mm; usual practice
inline constexpr double let_in_root = 2;         ///< between rail and leg where the piece slides: the weld's root
inline constexpr double let_in_slide = 0.5;      ///< a side, of what slides
inline constexpr double let_in_driven = 0.1;     ///< a side, of what is driven
inline constexpr double let_in_least_step = 0.4; ///< smaller: one tube for both
inline constexpr double let_in_fillable = 6;     ///< a step beyond that is no tube in a tube
inline constexpr double let_in_kink_deg = 3;     ///< between leg and rail: beyond it no straight piece joins them

} // namespace gorvet::stretch
