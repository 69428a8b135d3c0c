#pragma once

#include "make/part_maker.hpp"

/// What parts share that are made of straight bars. Internal to this room.
namespace gorvet::make {

/// Of a hollow section: mm², mm⁴ about its weakest axis, mm³ about its level one. A box's corners as bought: 2 t outside.
struct BarSection {
    double area = 0, least_mm4 = 0, level_mm3 = 0;
};
BarSection sectionOf(const BarPiece&);
/// A direction square to a bar that points up where it can.
Vec3 upOf(const Vec3& along);

class BarMaker : public PartMaker {
public:
    using PartMaker::PartMaker;

protected:
    /// By the words across, wide and wall.
    BarPiece barBetween(std::string name, const Vec3& from, const Vec3& to) const;
    /// Its wall fits into it, and its two ends are two; else that is said.
    bool fits(const BarPiece&);
    /// An end on a plane whose normal points out of the bar. Says so where no saw turns so far.
    void cutEnd(BarPiece&, std::size_t end, const Vec3& point, const Vec3& normal, const std::string& which);
    /// Where a direction stands about the bar, from its upper side to the right, seen from its first end.
    static double turned(const BarPiece&, const Vec3& direction);
    /// So much longer than its middle is its longest edge, at both ends together.
    static double tips(const BarPiece&);
    static double roundOf(const BarPiece&);
    /// Its mass by its middle's length, which sawn planes do not change.
    void weigh(BarPiece&) const;
    /// It is cut from an original leg of that length, along its longest edge; says so where that is too short.
    void fromOriginal(BarPiece&, double original_mm);

    static constexpr int rim_steps = 360;
};

} // namespace gorvet::make
