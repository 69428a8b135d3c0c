#pragma once

#include "analysis/overlay.hpp"
#include "sheet/drawing.hpp"
#include "sit/cut_map.hpp"

/// What the parts of an overlay come to: clearances pair by pair, the map, what is cut for, and the words for it.
namespace gorvet::analysis {

/// Two parts by their places in Overlay::body_parts and on_chassis, and how near they come.
struct OverlayPair {
    build::SubjectId moving = build::the_body; ///< of the first part
    build::SubjectId fixed = build::the_chassis;
    sit::Pair pair;
    bool assumed = true; ///< its least clearance is
};
struct OverlayClearance {
    sit::LiveClearance live; ///< of the body's points as they stand, each on the scale of Overlay::need: the worst part counts
    shape::Crossings crossings;
    std::vector<OverlayPair> pairs; ///< the worst first; those farther apart than their cap, too
    struct Place {
        size_t pair = 0;
        sit::Contact contact;
        double short_mm = 0; ///< of what is needed
    };
    std::vector<Place> places; ///< the worst first
    double least_mm = 0;       ///< of all pairs of body and chassis
};
/// Pair by pair, moving parts through their travel. Nothing when stopped.
std::optional<OverlayClearance> clearanceOf(const Overlay&, int threads = 0, const std::function<bool()>& stop = {});
/// Whether some pair of body and chassis needs another clearance than Overlay::need.
bool unlikeNeeds(const Overlay&);
/// The map alone, with the body at this seat.
sit::LiveClearance liveOf(const Overlay&, const geometry::RigidTransform& seat, int threads = 0,
                          const std::function<bool()>& stop = {});

/// How a body is cut: what the build says beside the needs.
struct CutRules {
    build::ClearanceRules clearances;
    build::Rows<build::Zone> zones;
    bool operator==(const CutRules&) const = default;
};
CutRules cutRulesOf(const build::Build&);
/// Zones, margin, flange and sheet.
sit::CutOptions cutOptionsOf(const CutRules&, const sit::Need&);
/// What the body is cut for: all of the chassis as it stands, and at the ends of its travel where that was typed and is no
/// assumption; `besides`: for what else.
Result<sit::CutMap> cutMapOf(const Overlay&, const CutRules&, int threads = 0, const std::function<bool()>& stop = {},
                             const std::vector<sit::CutAgainst>& besides = {});
/// What a part is called: "the engine", or the scan's name where there are several of the kind.
std::string partName(const Overlay&, build::SubjectId, size_t part);

/// Findings of a clearance: one for each place that is too near, the worst first, at most `most`.
std::vector<Finding> clearanceFindings(const build::Build&, const Overlay&, const OverlayClearance&, size_t most = 6);
/// The place that such a finding is about, by its tag; nullptr when it is none of these.
const OverlayClearance::Place* placeOf(const OverlayClearance&, std::string_view tag);
/// The sentence of the Scan bench, and the one below.
Headline overlayHeadline(const build::Build&, const Overlay&, const OverlayClearance*);
/// Every pair on one ruled scale: what it needs, how near it comes, in which pose, where.
sheet::Drawing pairsView(const build::Build&, const Overlay&, const OverlayClearance&, double width, double height,
                         const sheet::Format&);

} // namespace gorvet::analysis
