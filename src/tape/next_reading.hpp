#pragma once

#include "tape/condition.hpp"

/// Which reading to take next: of all that can be taken, those that take most off the variance of what one wants to know.
namespace gorvet::tape {

/// What one wants to know. `key` is one of wanted_keys, or "point" with a point's index.
struct Wanted {
    std::string key = "everything";
    int point = -1;
    bool operator==(const Wanted&) const = default;
};
/// everything: the places of all points · figures: all faults of the frame · rails: rails left − right · wheelbase: both
/// wheelbases and their difference · tracks · any other: the figure of that key.
inline constexpr const char* wanted_keys[] = {"everything", "figures", "diamond",   "twist",
                                              "sidesway",   "rails",   "wheelbase", "tracks"};

/// A box along the axes that no tape goes through.
struct Box {
    Vec3 from; ///< least station, offset, height
    Vec3 to;
    bool operator==(const Box&) const = default;
};
/// Whether the straight line from a to b goes through the box, by more than 1 mm on each side.
bool blocks(const Box&, const Vec3& a, const Vec3& b);

/// What there is to measure with, and what is in the way.
struct Means {
    double reach_mm = 8000; ///< the longest distance that can be taped in one
    bool gauge = true;      ///< heights over the datum plane can be taken
    std::vector<Box> obstacles;
    bool operator==(const Means&) const = default;
};

/// Between so many points readings are looked for; of more, between these: those asked for, and those with the fewest readings.
inline constexpr size_t most_points_searched = 400;
/// Says so where not all were looked at; empty where they were.
std::string searchedWords(const Survey&);

struct RankedReading {
    ReadingKind kind = ReadingKind::Tape; ///< any that takes one or two points
    int from = -1;
    int to = -1;
    double about = 0;     ///< what to expect, mm; rad for an angle
    double gain_mm2 = 0;  ///< off the summed variance of what is wanted
    int fixes = 0;        ///< before the survey is fixed: points that this one reading would fix
    std::string what;     ///< the figure that gains most, or the point; empty before the survey is fixed
    double before_mm = 0; ///< its ± at 95 % now (of a point: of its worst coordinate's direction, root of the sum of squares)
    double after_mm = 0;  ///< and with this reading
    /// "would take twist from ± 2.1 to ± 1.4", "would fix 3 points"; empty where that would not show.
    std::string words() const;
    std::string aboutWords(units::LengthStep) const; ///< "2164.0", "−1.2°"
    std::string whatWords(const Survey&) const;      ///< "A3 – B7", "height of A3", "cross-level Al – Ar"
};

/// Kinds of readings that are offered: tapes always; heights and levels where there is a gauge; of the others (cross-levels,
/// slopes, rail angles, plan distances, offsets, stations) those that this survey was read with before, from the datum.
///
/// The best first; no more than `most`. A pair that is taped already (and was not set aside), is out of reach, closer than 20 mm
/// or blocked by an obstacle is left out, and whatever was taken; when nothing else is left, what was taken once or twice.
/// Q' = Q − Q aᵀ a Q/(σ² + a Q aᵀ) for a reading with row a: the gain of a figure g is (g Q aᵀ)²/(σ² + a Q aᵀ). Before the survey
/// is fixed: those that fix most points (from the null space of the normal equations), then pairs that join the points with the
/// fewest readings.
std::vector<RankedReading> rankReadings(const Survey&, const Solution&, const Condition&, const Wanted&, const Means&,
                                        size_t most);

/// A round of readings, each chosen with those before it taken: what to write on a measuring sheet. Only for a fixed survey.
std::vector<RankedReading> planReadings(const Survey&, const Solution&, const Condition&, const Wanted&, const Means&,
                                        size_t count);

/// The order in which to take them so that the two who hold the tape walk least (both ends walk at the same time; nearest next,
/// then pairs of legs exchanged while that shortens the way). Indices into `readings`, starting with the foremost.
std::vector<size_t> walkingOrder(const Solution&, const std::vector<RankedReading>& readings);

} // namespace gorvet::tape
