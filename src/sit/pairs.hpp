#pragma once

#include "sit/clearance.hpp"

#include <functional>
#include <string>

/// Clearance part by part: each pair with what it must be clear by, parts that move swept through their travel.
namespace gorvet::sit {

/// How a part moves. u and v from −1 to 1, both 0 where it stands: bump and lock of a wheel, the swing of a bonnet.
struct Sweep {
    std::function<RigidTransform(double u, double v)> pose; ///< along its subject's axes
    std::function<std::string(double u, double v)> words;   ///< "at 70 bump, locked 35° to the left"
    int u_steps = 1;                                        ///< between −1 and 1; 1: it does not move that way
    int v_steps = 1;
    bool one_way = false;   ///< u from 0 only
    bool both_ends = false; ///< u is the travel of the left end, v that of the right
};

struct Part {
    std::string name;
    std::shared_ptr<const Ready> ready; ///< on its subject's axes
    std::optional<Sweep> sweep;
};

/// How near two parts come, over all poses that they take.
struct Pair {
    size_t moving = 0; ///< places in the lists
    size_t fixed = 0;
    Need need;
    double least_mm = 0; ///< as in Clearance; the cap when none is nearer
    bool meets = false;
    bool depth_known = true;
    Band band = Band::Clear;
    Point3 at{};                   ///< in the fixed frame
    std::string pose;              ///< in which pose it is worst; empty: as it stands
    int poses = 1;                 ///< looked at
    double between_mm = 0;         ///< it comes nearer by no more than this in any pose that was not looked at; below 1 as a rule
    std::vector<Contact> contacts; ///< in the worst pose, the worst first
};
/// One pair. The moving parts' axes are moved by `moving_to_fixed`. A sweep is looked at in its steps by exact distance of the
/// two surfaces, then by branch and bound: between two poses the distance falls at most as fast as the fastest place moves, and
/// poses are halved until that leaves less than 1 mm (engineering.md, Scan and Sit). The band is that of the least less what is
/// left. Where surfaces meet, the depth is that of the steps, ever finer about the worst. Nothing when stopped.
std::optional<Pair> pairClearance(const Part& moving, const Part& fixed, const RigidTransform& moving_to_fixed, const Need&,
                                  int threads = 0, const std::function<bool()>& stop = {});

/// What a map is taken against: a part, in one pose of what moves.
struct MapAgainst {
    const Ready* part = nullptr;
    Need need;
    RigidTransform moving_pose; ///< along the moving part's axes
    RigidTransform fixed_pose;  ///< along the fixed part's axes
    std::string pose;           ///< its words
};
/// The map of one moving part against several, each with a need of its own. Every point is shown where it stands, by the part
/// and pose for which it is worst, on the scale of `shown`: what fouls there is below shown.foulsBelow(), what is tight below
/// shown.tightBelow(). The least distance is a true one.
LiveClearance worstOf(const Ready& moving, const std::vector<MapAgainst>& fixed, const RigidTransform& moving_to_fixed,
                      const Need& shown, int threads = 0, const std::function<bool()>& stop = {});

/// A moment of a travel.
struct SweepEnd {
    RigidTransform pose;
    std::string words;
    bool operator==(const SweepEnd&) const = default;
};
/// The ends of a travel and the middles between them, where it stands left out.
std::vector<SweepEnd> endsOf(const Sweep&);

} // namespace gorvet::sit
