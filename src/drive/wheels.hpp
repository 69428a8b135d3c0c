#pragma once

#include "build/remark.hpp"
#include "drive/run_out.hpp"
#include "drive/wheel_room.hpp"

#include <functional>

/// The wheels of an axle: what fits between what stands beside them, what changes, what they carry. engineering.md, Drive.
namespace gorvet::drive {

using build::PlanVerdict;

struct WheelsIn {
    std::string name; ///< "rear"
    bool front = false;
    std::optional<build::WheelSet> fitted;
    std::optional<build::WheelSet> wanted;
    std::optional<build::Hub> hub;
    std::optional<build::Widening> widening; ///< of the fitted rims
    std::optional<build::Adaptor> adaptor;   ///< between the hubs and the wanted wheels
    build::Places places;                    ///< as planned: wheel centres and what is marked beside them
    std::array<Corner, 2> corners;           ///< left, right
    std::optional<Figure> wheel_kg;          ///< what the heavier wheel carries
    std::optional<double> cruise_kmh;
    std::optional<double> drive_tyre_mm; ///< what the drive line takes as the tyre's diameter
    std::vector<std::string> assumed;    ///< of the motion and the places
    bool operator==(const WheelsIn&) const = default;
    /// The wheel that is judged: the wanted one, else the fitted one.
    const build::WheelSet* shown() const { return wanted ? &*wanted : fitted ? &*fitted : nullptr; }
};

/// How near the tyre of one side comes to one thing.
struct RoomClear {
    std::size_t corner = 0; ///< 0 left, 1 right
    std::string name;
    std::string tag;
    Figure clear_mm;     ///< < 0: by how far they meet
    double least_mm = 0; ///< that is asked
    bool least_assumed = true;
    std::string pose;   ///< in which it is nearest
    bool outer = false; ///< on the tyre's outer half
    double out_mm = 0;  ///< where, seen from the wheel
    double from_mm = 0;
    PlanVerdict verdict = PlanVerdict::Holds; ///< Clear, Tight, Fouls
};
/// "Clear", "Tight", "Fouls". With clearance c ± U: Fouls where c − U < least, Tight where it is < 1.5 least.
const char* clearWord(PlanVerdict);

/// An end of what fits: which thing ends it, in which pose. Without a name the map itself ends there.
struct MapEnd {
    double offset_mm = 0;
    std::string name;
    std::string pose;
    bool operator==(const MapEnd&) const = default;
};
/// Offsets from … to … with which a tyre of that width is clear.
struct MapSpan {
    MapEnd low;
    MapEnd high;
};
struct MapColumn {
    double section_mm = 0;
    std::vector<MapSpan> clear; ///< by one and a half times what is asked
    std::vector<MapSpan> free;  ///< by what is asked
};
/// Which widths and offsets fit, the tyre's diameter kept.
struct WheelMap {
    double outside_mm = 0;
    double least_section_mm = 0;
    double most_section_mm = 0;
    double least_offset_mm = 0;
    double most_offset_mm = 0;
    std::vector<MapColumn> columns;
    /// Sections that the shown rim usually takes.
    double least_on_rim_mm = 0;
    double most_on_rim_mm = 0;
};

struct WheelsPlan {
    std::string name;
    std::optional<WheelFigures> fitted;
    std::optional<WheelFigures> wanted;
    std::optional<WheelChange> change;
    std::optional<Figure> hub_circle_mm;
    std::optional<BandPlan> band;
    std::vector<RoomClear> now;     ///< of the fitted wheel
    std::vector<RoomClear> planned; ///< of the wanted one
    std::optional<WheelMap> map;
    std::array<std::vector<SeenThing>, 2> seen; ///< what is seen from each side
    std::size_t poses = 0;                      ///< looked at, of each wheel
    std::vector<build::Remark> remarks;
    std::vector<std::string> missing; ///< what is not judged, for want of it
    PlanVerdict verdict = PlanVerdict::Holds;
};
/// `grid`: columns of the map.
WheelsPlan wheelsPlan(const WheelsIn&, std::size_t grid = 50);

} // namespace gorvet::drive
