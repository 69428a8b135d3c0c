#pragma once

#include "build/places.hpp"
#include "build/remark.hpp"
#include "build/words.hpp"
#include "make/fouls.hpp"
#include "make/straighten.hpp"

#include <optional>
#include <string>
#include <vector>

/// A frame or shell held on a table with a grid of holes: which hole each tower stands at, how high it is and of what, where it
/// stands once the plan is carried out, whether the frame stands on them and comes off again. On the table: x along it from its
/// first holes, y across it from its first holes, z up from its top; mm.
namespace gorvet::make {

using build::PlanVerdict;

struct FixtureTower {
    std::string name; ///< of its point
    build::TowerDoes does = build::TowerDoes::Rest;
    std::size_t at = 0;              ///< its place among the places
    std::optional<Vec3> planned;     ///< where the plan moves it; none: it stays
    Vec3 pull;                       ///< by which it is drawn, where that was said
    std::optional<std::size_t> twin; ///< else it is drawn to this one's image: its place among the places
    Figure below;                    ///< its head under the point, as the thing lies on the table
    bool operator==(const FixtureTower&) const = default;
};
struct FixtureIn {
    std::string name;
    double pitch_mm = 50;
    int along = 60, across = 30; ///< holes
    std::optional<double> high_mm;
    build::Attitude attitude = build::Attitude::RightWayUp;
    double tower_least_mm = 150, tower_step_mm = 50, tower_most_mm = 800, packer_mm = 1, reach_mm = 30, foot_mm = 100;
    build::Places places; ///< as surveyed, on the axes of what is held
    std::vector<FixtureTower> towers;
    std::vector<Pair> held;          ///< of towers that are not drawn: what is drawn by no figure is drawn straight by these
    std::vector<ServiceBody> around; ///< what stands on the frame as planned, on the same axes
    std::vector<std::string> assumed, missing, not_looked_at;
    bool operator==(const FixtureIn&) const = default;
};

/// A tower where it stands.
struct TowerState {
    int column = 0, row = 0; ///< its hole, from 0
    double off_along_mm = 0; ///< its head from its hole
    double off_across_mm = 0;
    Figure head_mm;                 ///< height of its head over the table
    double tower_mm = 0;            ///< 0: none is short or tall enough
    std::vector<double> packers_mm; ///< the thickest first
    double left_mm = 0;             ///< what packers do not fill
    double over_line_mm = 0;        ///< its head over the sight line
};
struct TowerPlan {
    std::string name;
    build::TowerDoes does = build::TowerDoes::Rest;
    TowerState now;
    std::optional<TowerState> then;                ///< once the plan is carried out
    std::string pull;                              ///< "3.0 up, 1.0 to the left"; empty: it is not drawn
    std::optional<std::array<Figure, 3>> straight; ///< worked out: rearwards, to the right, up; what is within its ± is not drawn
};
struct FixturePlan {
    std::vector<TowerPlan> towers;
    double high_mm = 0;    ///< of the datum over the table
    double station_mm = 0; ///< that lies over the first holes along
    double middle_mm = 0;  ///< of what lies at offset 0 (on its side: at height 0) from the first holes across
    double line_mm = 0;    ///< height of the sight line
    double worst_off_mm = 0;
    int columns = 0, rows = 0; ///< of holes that it takes
    /// Tapes from corner to corner, point to point, as surveyed.
    std::vector<build::Measure> across;
    std::string searched;
    std::vector<Foul> fouls;
    std::vector<build::Remark> remarks;
    std::vector<std::string> not_looked_at;
    PlanVerdict verdict = PlanVerdict::Marginal;
    bool made() const { return !towers.empty(); }
};
/// The frame lies square to the table. Along and across, each by itself, it is shifted so that the head that is farthest from its
/// hole is least far: the middle of the widest gap between the places' remainders by the pitch, which is exact. Then by whole
/// holes to the middle of the table. engineering.md, Make.
FixturePlan fixturePlan(const FixtureIn&);

/// "F12": its row as a letter, its column as a number.
std::string holeName(int column, int row);
/// As it lies on the table: rolled over about its length, turned onto its right side, or as it is.
Vec3 rolled(build::Attitude, const Vec3&);
/// And back.
Vec3 unrolled(build::Attitude, const Vec3&);
/// So far must places be shifted that the one farthest from a whole multiple of a pitch is least far from it; and how far that
/// is.
struct GridShift {
    double shift = 0, worst = 0;
};
GridShift gridShift(const std::vector<double>& places, double pitch);

} // namespace gorvet::make
