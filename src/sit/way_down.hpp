#pragma once

#include "sit/clearance.hpp"
#include "units/quantity.hpp"

#include <string>

/// The way down: how the body comes from hanging free onto its seat without touching the chassis, and how near it passes.
namespace gorvet::sit {

/// Where the body hangs, against its seat.
struct Hang {
    double back_mm = 0; ///< rearward
    double up_mm = 0;
    double tilt_rad = 0; ///< nose up, about the middle of the body's box
};

struct DownPart {
    std::string name;
    const Ready* ready = nullptr; ///< on its subject's axes
    bool comes_off = false;       ///< it can be taken off first
};

struct DownOptions {
    double touches_mm = 10; ///< what is nearer than this at the seat is left out: it is cut, or rests there; > 0
    double through_mm = 5;  ///< the body keeps this far off on the way; > 0
    double step_mm = 20;    ///< of the search, along and up; > 0
    double tilt_step_rad = 0.01;
    double most_back_mm = 300; ///< searched first, with tilts
    double most_tilt_rad = 0.12;
    double shop_mm = 3000; ///< then level, as far forward and rearward as there is room in the shop; 0: not
    int most_looks = 1500; ///< of each of the two searches
    units::LengthStep words_in = units::LengthStep::Mm01;
};

/// One pose of the body, and what is nearest in it.
struct DownStep {
    Hang at;
    double least_mm = 0; ///< of the two surfaces, exact
    bool far = false;    ///< nothing is nearer than was looked for: least_mm
    Point3 where{};      ///< on the chassis
    std::string body_part;
    std::string chassis_part;
};

struct WayDown {
    bool found = false;
    bool straight = false;       ///< straight down will do
    bool gave_up = false;        ///< not found within most_looks; there may be one
    std::vector<DownStep> steps; ///< from hanging free to the seat
    std::vector<DownStep> tried; ///< straight down, when none was found
    std::vector<size_t> corners; ///< of them, the first, those where the way turns, and the last
    size_t tightest = 0;         ///< of them, the seat left out
    double no_nearer_mm = 0;     ///< nowhere between the steps is it nearer than that, the last one left out
    struct InTheWay {
        std::string body_part;
        std::string chassis_part;
        std::string take_off; ///< which of the two comes off; empty: neither does
        double up_mm = 0;     ///< from here on straight down it would touch
        Point3 where{};       ///< there, on the chassis
        double more_mm2 = 0;  ///< of the body, besides what is left out at the seat, would have to be cut for it; from one side
        geometry::Box3 box;   ///< round that as it sits, in the chassis frame
    };
    std::vector<InTheWay> in_the_way; ///< pairs that touch straight down, the highest first
    double left_out_mm2 = 0;          ///< of the body
    int looks = 0;
    Point3 about{};       ///< what a tilt turns about: the middle of the box round the body at its seat
    std::string searched; ///< how far and how finely; empty when straight down will do
    std::string none;     ///< the sentence when none was found, with what was searched
    std::string words;
};

/// The motion that brings the body from its seat to where it hangs; `about` as in WayDown.
RigidTransform hungAt(const Point3& about, const Hang&);

/// From `lift_mm` above the seat, where the body hangs free. The least of moves along, up, down and tilts, looked for from the
/// seat outward (A*), first near the seat with tilts, then level as far as the shop allows; what was searched is said. Between
/// two poses no place goes farther than the two distances allow, so that nothing is jumped over: looked at ever closer until that
/// holds, or to a millimetre. Sideways it stays on its line. Nothing when stopped.
std::optional<WayDown> wayDown(const std::vector<DownPart>& body, const std::vector<DownPart>& chassis,
                               const RigidTransform& seat, double lift_mm, const DownOptions& = {}, int threads = 0,
                               const std::function<bool()>& stop = {});

} // namespace gorvet::sit
