#pragma once

#include "analysis/results.hpp"
#include "frame/plates.hpp"
#include "frame/structure.hpp"
#include "stretch/joint_forces.hpp"

/// The frame as it carries: what the build says of it becomes a structure, as it is and as it is planned; worked out apart.
namespace gorvet::analysis {

struct FrameAsked {
    frame::Structure now;
    std::optional<frame::Structure> planned; ///< none: nothing of it changes
    std::vector<std::string> assumed;        ///< what of it nobody measured
    std::vector<std::string> cracked;        ///< places with cracks: they are in no figure
    std::vector<std::string> idle;           ///< ribs in closed rails: they do nothing
    std::string waits;                       ///< what it needs; empty: it can be worked out
    std::string remedy;
    std::optional<double> wanted_nm_deg; ///< how stiff it is to be in twist
    double weighed_kg = 0;               ///< on all wheels; 0: not weighed
    bool spread = false;                 ///< nothing is said of what it carries: what was weighed is spread over it
    bool operator==(const FrameAsked&) const = default;
};
/// The suspension points nearest ahead of an axle and behind it, on its side, 150 mm to 1 m away: a leaf spring's hangers.
std::optional<std::pair<build::Vec3, build::Vec3>> springHangers(const build::Build&, const Results&, build::Side,
                                                                 double axle_mm);
/// The suspension point nearest to an axle on its side, within 500 mm: where a spring that is no leaf bears.
std::optional<build::Vec3> suspensionNear(const build::Build&, const Results&, build::Side, double axle_mm);
/// From rails, members, loads and cases of the build.
FrameAsked frameAsked(const build::Build&, const Results&);

/// A way to close open rails, and what it brings.
struct BoxingChoice {
    std::string name;
    std::string words; ///< where the plates are
    frame::Stiffness twist;
    double kg = 0; ///< of plates
    double seam_m = 0;
    double hours = 0;
    std::vector<std::pair<double, double>> plates; ///< stations from and to, of each rail
    double plate_mm = 0;                           ///< thickness of plates, ribs or the walls of uprights
    frame::Windows windows;                        ///< of the plates; 0 long: whole
    std::vector<std::pair<double, double>> ribs;   ///< stations between which ribs stand, spread evenly, none at the ends
    double rib_pitch_mm = 0;                       ///< the least from rib to rib
    double upright_mm = 0;                         ///< side of a square tube that stands upright; 0: flat ribs
    bool members = false;                          ///< other members that are open are closed, too
};
struct FrameFound {
    std::optional<frame::Outcome> now;
    std::optional<frame::Outcome> planned;
    std::string wrong; ///< why it can't be worked out
    std::string remedy;
    std::string planned_wrong;
    std::string planned_remedy;
    std::vector<BoxingChoice> boxing; ///< of open rails; the first is as it is
};
/// Works it out; nothing when it was stopped.
std::optional<FrameFound> findFrame(const FrameAsked&, const std::function<bool(double)>& progress);

/// Every plate and flat rib that is planned on an open rail, each once for both rails.
std::vector<frame::ClosingPlate> plannedPlates(const build::Build&, const Results&);

/// The verdict on a margin against yield over 1.5; what is assumed never Holds.
build::PlanVerdict verdictOf(const FrameAsked&, const frame::OfCase&);
/// The most a weld's toe may bear over ±1 g, MPa. engineering.md, Stretch.
inline constexpr double weld_range_mpa = 36;

/// What the joint of the cut bears: the rail's worst stress there over the least share that sleeve and plates have of the rail.
struct SpliceBears {
    std::string line;
    double stress_mpa = 0;
    double may_mpa = 0; ///< yield over 1.5
    double share = 1;
    bool unlike = false; ///< the rail has another section there than the splice was made for: it is not held against anything
    double margin() const { return stress_mpa > 0 ? may_mpa / stress_mpa : 0; }
};
/// Of the frame as planned; none where no cut is planned or the frame is not worked out.
std::optional<SpliceBears> spliceBears(const build::Build&, const Results&);

/// The welds of the splice in the load case that asks most of them.
struct SpliceWelds {
    std::string line;
    std::string case_name;
    stretch::JointBears bears;
};
/// None where the frame is not worked out, no splice is planned, or the rail has another section there.
std::optional<SpliceWelds> spliceWelds(const build::Build&, const Results&);

/// What the build says of its frame is enough to show the sheet of it.
bool frameBegun(const build::Build&);
std::vector<sheet::Drawing> framePages(const build::Build&, const Results&);
void addFrameFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::string frameJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
