#pragma once

#include "analysis/frame.hpp"
#include "analysis/overlay_clearance.hpp"
#include "analysis/photos.hpp"
#include "analysis/scene_layers.hpp"
#include "analysis/scribed.hpp"
#include "analysis/seatings_clearance.hpp"
#include "analysis/slow.hpp"
#include "analysis/way_in.hpp"
#include "make/plates.hpp"

/// The slow nodes of the scans: read, laid on each other, looked through for what fouls.
namespace gorvet::analysis {

namespace slow {
inline constexpr std::string_view picture = "scan.picture";     ///< the one that is kept for the build sheet
inline constexpr std::string_view read = "scan.read";           ///< from the build's file
inline constexpr std::string_view overlay = "scan.overlay";     ///< on each other
inline constexpr std::string_view layers = "scan.layers";       ///< new steel, and what is to be taken away
inline constexpr std::string_view scribed = "scan.scribed";     ///< as lines on paper
inline constexpr std::string_view clearance = "scan.clearance"; ///< pair by pair
inline constexpr std::string_view way = "scan.way";             ///< how the body comes down
inline constexpr std::string_view seatings = "scan.seatings";   ///< how near they come in each seating
inline constexpr std::string_view cuts = "scan.cuts";           ///< the cut map
inline constexpr std::string_view cuts_for_way = "scan.cuts-for-way";
inline constexpr std::string_view frame = "stretch.frame";  ///< what it bears
inline constexpr std::string_view photos = "work.photos";   ///< small ones, as they are shown
inline constexpr std::string_view wheels = "drive.wheels";  ///< what stands beside them
inline constexpr std::string_view service = "make.service"; ///< whether every bolt comes out
inline constexpr std::string_view plates = "make.plates";   ///< flat pieces laid into plates
} // namespace slow

struct Scans {
    struct Source {
        std::string blob;
        std::string file;
        build::ScanUnit unit = build::ScanUnit::Mm;
        bool operator==(const Source&) const = default;
    };
    struct Read {
        std::shared_ptr<const ScanMeshes> meshes = std::make_shared<ScanMeshes>();
        std::map<build::ScanId, std::string> troubles; ///< of those that can't be read: why
    };
    Node<std::string, std::string> picture; ///< PNG, by its hash
    Node<std::map<build::ScanId, Source>, Read> read;
    Node<OverlayInput, Overlay> meshes; ///< not placed
    Node<std::pair<std::shared_ptr<const Overlay>, Placing>, Overlay> overlay;
    Node<SteelInput, shape::Mesh> steel;
    struct Removed {
        std::shared_ptr<const Overlay> meshes;
        PlannedCuts cuts;
        bool operator==(const Removed&) const = default;
    };
    Node<Removed, shape::Mesh> removed;
    Node<ScribedAsked, Scribed> scribed;
    Node<std::shared_ptr<const Overlay>, OverlayClearance> clearance;
    struct WayAsked {
        std::shared_ptr<const Overlay> overlay;
        PlannedCuts cuts;
        units::LengthStep words_in = units::LengthStep::Mm01;
        bool operator==(const WayAsked&) const = default;
    };
    Node<WayAsked, WayFound> way;
    Node<SeatingsAsked, std::vector<SeatingClearance>> seatings;
    struct CutsAsked {
        std::shared_ptr<const Overlay> overlay;
        CutRules rules;
        bool operator==(const CutsAsked&) const = default;
    };
    struct CutsMade {
        sit::CutMap map;
        std::optional<Error> error;
    };
    Node<CutsAsked, CutsMade> cuts;
    Node<CutsAsked, CutsMade> cuts_for_way;
    Node<PhotosAsked, SmallPhotos> photos;
    Node<FrameAsked, FrameFound> frame;
    struct WheelsAsked {
        std::shared_ptr<const Overlay> overlay;
        std::vector<drive::WheelsIn> wheels;
        bool operator==(const WheelsAsked&) const = default;
    };
    struct WheelsMade {
        drive::WheelsIn input; ///< with the scans by their names, without their surfaces
        drive::WheelsPlan plan;
    };
    Node<WheelsAsked, std::vector<WheelsMade>> wheels;
    struct ServiceAsked {
        std::shared_ptr<const Overlay> overlay;
        make::ServiceIn planned;
        bool operator==(const ServiceAsked&) const = default;
    };
    Node<ServiceAsked, make::ServicePlan> service;
    Node<std::vector<make::PlatesInput>, std::vector<make::PlatesPlan>> plates;
};

/// In the bench's table.
extern const std::vector<SlowNode> scan_nodes;

/// Whether what fouls is known for the build as it is now.
bool clearanceKnown(const build::Build&, const Results&);
/// The least clearance with the body moved by so much from where it sits, at once. The overlay must be there.
sit::LiveClearance triedClearance(const Results&, const shape::Point3& by_mm);

} // namespace gorvet::analysis
