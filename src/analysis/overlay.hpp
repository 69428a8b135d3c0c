#pragma once

#include "analysis/results.hpp"
#include "build/edit.hpp"
#include "sit/cut_map.hpp"
#include "sit/pairs.hpp"
#include "sit/way_in.hpp"

/// Body and chassis scans as they stand on each other: where the surveys and pins seat the body, the chassis as planned.
namespace gorvet::analysis {

/// A scan's mesh in its own file's axes, in mm, by the scan it belongs to.
using ScanMeshes = std::map<build::ScanId, std::shared_ptr<const shape::Mesh>>;

/// What it shows when it stands on the axes of its subject; a cloud's points count as themselves.
shape::Motion poseOf(const build::Scan&);
/// What it takes to read a scan's unit: mm to one unit of the file.
double unitOf(build::ScanUnit);

struct Overlay {
    std::shared_ptr<const sit::Ready> body = std::make_shared<sit::Ready>();    ///< all scans on the body's axes, in one
    std::shared_ptr<const sit::Ready> chassis = std::make_shared<sit::Ready>(); ///< all scans on the chassis' axes, as planned
    shape::Motion seat;                                                         ///< body to chassis
    bool seated = false; ///< the pins say where; else both stand on their own axes, as if these were one
    sit::Need need;
    std::vector<sit::WayPart> chassis_parts; ///< each scan of the chassis by its name, as planned
    /// A scan, or a marked box that a pin keeps clear of, on its subject's axes.
    struct Part {
        sit::Part part;
        build::ScanPart kind = build::ScanPart::Other;
        build::ScanId scan;         ///< none: a box
        bool sweep_assumed = false; ///< its travel is a typical one, not read
        size_t first = 0;           ///< its first point in the whole of its subject
    };
    std::vector<Part> body_parts;
    std::vector<Part> on_chassis;
    const std::vector<Part>& of(build::SubjectId s) const { return s == build::the_body ? body_parts : on_chassis; }
    std::vector<std::string> remarks;
    std::vector<std::string> mesh_remarks; ///< of them, those that stay when it is seated anew
    bool hasBody() const { return body->mesh && !body->mesh->points.empty(); }
    bool hasChassis() const { return chassis->mesh && !chassis->mesh->points.empty(); }
    bool complete() const { return hasBody() && hasChassis(); }
};
/// Makes both ready; scans whose mesh is missing are left out and told. The ± of the seat goes into the need.
Overlay overlayOf(const build::Build&, const Results&, const ScanMeshes&, int threads = 0);
/// What the meshes of an overlay depend on, as text: the same text, the same meshes.
std::string overlayKey(const build::Build&, const Results&);
/// What its clearances depend on besides: the same text, the same clearances.
std::string clearanceKey(const build::Build&, const Results&);
/// Stands an overlay's body where it sits now, and takes the needs of now, without making its meshes ready again.
void reseat(Overlay&, const build::Build&, const Results&);
/// The change of pins that moves the body by so much rearward and up: stations and heights move along. Fails with Conflict when
/// no pin holds what is to be moved.
Result<build::Edit> movePins(const build::Build&, double rearward_mm, double up_mm);

/// What is behind the cut moves with the change of wheelbase, along the rail's slope; what is taken out is pressed into the cut,
/// what is let in is stretched over it, so that closed pieces stay closed.
shape::Mesh asPlanned(shape::Mesh, double cut_station_mm, double change_mm, double slope_rad);

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
std::optional<OverlayClearance> clearanceOf(const Overlay&, const build::Build&, int threads = 0,
                                            const std::function<bool()>& stop = {});
/// Whether some pair of body and chassis needs another clearance than Overlay::need.
bool unlikeNeeds(const Overlay&, const build::Build&);
/// The map alone, with the body at this seat.
sit::LiveClearance liveOf(const Overlay&, const build::Build&, const shape::Motion& seat, int threads = 0,
                          const std::function<bool()>& stop = {});
/// What the body is cut for: all of the chassis as it stands, and at the ends of its travel where that was typed and is no
/// assumption; `besides`: for what else.
Result<sit::CutMap> cutMapOf(const Overlay&, const build::Build&, int threads = 0, const std::function<bool()>& stop = {},
                             const std::vector<sit::CutAgainst>& besides = {});
/// What a part is called: "the engine", or the scan's name where there are several of the kind.
std::string partName(const Overlay&, build::SubjectId, size_t part);

/// Zones, margin, flange and sheet as the build says.
sit::CutOptions cutOptionsOf(const build::Build&, const sit::Need&);

/// Findings of a clearance: one for each place that is too near, the worst first, at most `most`.
std::vector<Finding> clearanceFindings(const build::Build&, const Overlay&, const OverlayClearance&, size_t most = 6);
/// The sentence of the Scan bench, and the one below.
Headline overlayHeadline(const build::Build&, const Overlay&, const OverlayClearance*);
/// Every pair on one ruled scale: what it needs, how near it comes, in which pose, where.
sheet::Drawing pairsView(const build::Build&, const Overlay&, const OverlayClearance&, double width, double height,
                         const sheet::Format&);

/// The change that keeps a scan: `file` and `hash` of its blob. The subject's own scan unless another part is said.
build::Edit keepScan(const build::Build&, const std::string& name, build::SubjectId, build::ScanPart, build::ScanUnit,
                     const std::string& hash, const std::string& file);
/// The change that stands a scan elsewhere on its subject's axes.
build::Edit standScan(const build::Build&, build::ScanId, const shape::Motion&, const std::string& how);
/// A name for a scan of that file that is not taken yet.
std::string scanNameFor(const build::Build&, const std::string& file);

} // namespace gorvet::analysis
