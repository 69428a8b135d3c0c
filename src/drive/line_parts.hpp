#pragma once

#include "drive/line.hpp"

#include <map>

/// What the files of the drive line share. Internal to this room.
namespace gorvet::drive {

/// Places and lines of the ends at rest, from which all figures come.
struct Ends {
    std::vector<Vec3> at;
    std::vector<Vec3> line; ///< of length 1, rearward; none of a bearing
};
/// The ends as planned, or as they are now.
Ends endsOf(const LineInput&, const std::vector<Vec3>& places, const std::vector<std::array<double, 2>>& slopes, bool planned);
/// Whether a chain, by its ends in order, drives forward: to a front axle.
bool runsForward(const std::vector<Vec3>& at);
/// The end of its housing whose plan moves it; itself where it is alone or none is moved.
std::size_t moverOf(const LineInput&, std::size_t end);
/// Slope and swing of each end as the input says them.
std::vector<std::array<double, 2>> slopesOf(const LineInput&);

/// How the axles stand in situations that come again and again.
class Carried {
public:
    Carried(const LineInput&, const std::vector<Vec3>& places);
    /// Where what moves with it stands, its share of bump or droop given.
    geometry::RigidTransform of(Carrier, const Situation&);
    double strain_mm() const { return strain_mm_; }

private:
    geometry::RigidTransform axle(std::size_t which, double share);
    const LineInput& in_;
    std::array<std::optional<Linkage>, 2> linkage_;
    std::map<std::pair<std::size_t, double>, geometry::RigidTransform> known_;
    double strain_mm_ = 0;
};

/// A chain in a situation, without ±.
struct Bare {
    std::vector<std::array<double, 2>> angles; ///< of each joint, in two directions across its shaft
    std::array<double, 2> residual{0, 0};      ///< of θ², real and imaginary
    std::vector<double> lengths;
    std::vector<Vec3> at;           ///< of its ends
    std::vector<ChainJoint> joints; ///< along the flow of what drives
    double pinion_slope = 0;        ///< of the last line, down at the back
};
Bare bareOf(const LineInput&, const Chain&, const Ends&, Carried&, const Situation&);
inline double angleOf(const std::array<double, 2>& a) { return std::hypot(a[0], a[1]); }

/// What an axle can still do, in words: "go aside".
std::string freedomWords(const Motion&);

/// Adds remarks and the verdict.
void judgeChain(const LineInput&, const Chain&, ChainPlan&, double top_rpm);
/// Adds what can be done about one of the chains; what does it no good to another chain that runs smooth is none.
void findRemedies(const LineInput&, const std::vector<Chain>&, std::size_t which, std::vector<ChainPlan>&);

} // namespace gorvet::drive
