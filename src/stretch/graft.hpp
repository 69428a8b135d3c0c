#pragma once

#include "build/graft.hpp"
#include "build/places.hpp"
#include "build/rail_line.hpp"
#include "build/remark.hpp"
#include "stretch/joint_forces.hpp"

#include <array>
#include <optional>
#include <string>
#include <vector>

/// A piece of another frame joined to the chassis: how its rails meet the chassis' where it stands, what joins them, and what is
/// measured across while it is set. mm; x rearward, y to the right, z up, in the chassis' frame. engineering.md, Stretch.
namespace gorvet::stretch {

/// What a pin of the piece comes to, with the ± of the piece's survey.
struct GraftPinned {
    std::string name;  ///< "height of FL"
    double wanted = 0; ///< mm
    build::Figure achieved;
    build::Figure miss;
    double tolerance_mm = 2;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
};

/// What the frame asks of the joint, worked out with the piece on it.
struct GraftFrame {
    struct Asked {
        std::string line, case_name;
        JointForces forces;
    };
    std::vector<Asked> forces; ///< at and beside the joint, in every load case that counts
    double stress_mpa = 0;     ///< the worst there
    double may_mpa = 0;        ///< yield over 1.5
    double range_mpa = 0;      ///< over ± 1 g
    std::string line, case_name;
    std::vector<std::string> assumed; ///< of the frame and its loads, what nobody measured
};

struct GraftInput {
    build::Graft graft;
    build::RailLine left, right; ///< of the chassis as it is
    bool channel = false;        ///< the chassis' rails are open
    build::Places piece;         ///< where its points stand once it is set: rails' points and hubs, with what its pins do
    std::array<std::vector<int>, 2> rails; ///< its rails' points in `piece`, left and right
    std::array<int, 2> hubs{-1, -1};       ///< its wheel centres
    build::Places chassis;                 ///< what stays of the chassis and is measured from
    std::array<int, 2> other_hubs{-1, -1}; ///< wheel centres of the axle that stays
    std::array<int, 2> marks{-1, -1};      ///< a pair of marks that stays, far from the joint
    std::optional<double> wheelbase_now_mm;
    std::vector<std::string> goes;                    ///< what is marked on the part that comes off
    std::vector<std::string> crosses;                 ///< what runs over the joint
    std::vector<std::pair<std::string, double>> near; ///< what stands near the joint on what stays, and how far away
    bool also_cut = false;                            ///< the chassis is to be made longer or shorter, too
    std::vector<GraftPinned> pins;
    std::vector<std::string> open;  ///< what no pin decides
    std::optional<double> wheel_kg; ///< what the heavier wheel of that end carries
    double up_g = 3;                ///< the most that a load case asks
    double yield_mpa = 210;
    std::vector<std::string> assumed; ///< of all that, what nobody measured
    std::optional<GraftFrame> frame;  ///< none: held against the heavier wheel alone
};

/// The piece's rail beside the chassis' at the joint.
struct GraftSide {
    bool known = false;
    double aside_mm = 0; ///< of the piece's rail, to the right
    double up_mm = 0;
    double turn_plan_rad = 0; ///< between both, seen from above
    double turn_side_rad = 0; ///< seen from the side
    double trim_mm = 0;       ///< cut off the piece's rail, along it; < 0: it is too short by so much
    double step_mm = 0;       ///< the most that an outer face stands beside the other's
    double free_mm = 0;       ///< of what goes into the other: the least gap a side; < 0: it does not go in
};
/// How both rails become one.
enum class GraftWay {
    Sleeve,    ///< alike and in line: butt over an inner sleeve
    Inside,    ///< the piece's rails go into the chassis'
    Over,      ///< the chassis' rails go into the piece's
    Transition ///< a made box between them, tapered
};
const char* graftWord(GraftWay);
/// A side of a made box, flat: its four corners, mm.
struct TransitionPlate {
    std::string name; ///< "left-top"
    std::array<std::pair<double, double>, 4> corners;
    double fold_deg = 0; ///< it is folded so far along the line from its first corner to its third
};
struct GraftPlan {
    std::vector<std::string> missing; ///< what it waits for; then nothing else is said
    std::array<GraftSide, 2> sides;   ///< left, right
    GraftWay way = GraftWay::Transition;
    double overlap_mm = 0;    ///< of what goes into the other
    double strip_mm = 0;      ///< that fills the looser sides
    double transition_mm = 0; ///< length of the made box
    double taper = 0;         ///< its worst face: one in so many; 0: none
    double plate_mm = 0;
    std::vector<TransitionPlate> plates;
    double joint_modulus_mm3 = 0;   ///< the least along the joint, bent up and down
    double weaker_modulus_mm3 = 0;  ///< of the weaker of both rails
    double chassis_modulus_mm3 = 0; ///< of the chassis' own
    std::optional<double> lever_mm; ///< from the joint to the piece's wheel centres
    std::optional<double> stress_mpa;
    double may_mpa = 0;
    std::optional<double> weld_share;       ///< of what the weld all round may bear, in the case that asks most; needs the frame
    std::optional<build::Figure> wheelbase; ///< as planned, mean of both sides
    double wheelbase_skew_mm = 0;           ///< left less right
    std::vector<build::Measure> measures;   ///< across, while the piece is set
    std::vector<build::Remark> remarks;     ///< worst first
    build::PlanVerdict verdict = build::PlanVerdict::Holds;
};

/// A plate with four corners, laid flat by its two triangles; it is folded where they are not in one plane.
TransitionPlate flatPlate(std::string name, const std::array<build::Vec3, 4>& corners);

/// Never fails: what is not known is in `missing`.
GraftPlan graftPlan(const GraftInput&);

// ---- limits, mm; usual practice
inline constexpr double graft_in_line = 1.5;      ///< beside each other: still a butt over a sleeve
inline constexpr double graft_alike = 1;          ///< outside sizes that count as one
inline constexpr double graft_fit_least = 0.25;   ///< a side: less does not go in
inline constexpr double graft_fit_most = 4;       ///< a side: more is not filled with strip
inline constexpr double graft_taper = 4;          ///< one in so many, at the steepest
inline constexpr double graft_taper_least = 2;    ///< steeper than that turns the pull aside
inline constexpr double graft_turn_deg = 1;       ///< between both rails: still straight
inline constexpr double graft_diaphragm_deg = 3;  ///< more than that wants a diaphragm at the kink
inline constexpr double graft_weld_range = 36;    ///< MPa over ± 1 g at a weld's toe: engineering.md
inline constexpr double graft_turn_most_deg = 10; ///< more than that is no joint

} // namespace gorvet::stretch
