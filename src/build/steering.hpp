#pragma once

#include "build/survey.hpp"

/// What the hand wheel turns down to the front wheels, and what runs through the car beside it.
namespace gorvet::build {

struct SteeringColumn;
struct SteeringGear;
struct Run;
using SteeringColumnId = Id<SteeringColumn>;
using SteeringGearId = Id<SteeringGear>;
using RunId = Id<Run>;

/// The shafts between hand wheel and steering gear, through marked points.
struct SteeringColumn {
    SteeringColumnId id;
    std::string name; ///< unique; one word
    /// The hand wheel's hub, each joint in order, a place on the gear's own shaft: three at least.
    std::vector<PointId> points;
    /// Of each shaft between two joints: its lower fork turned against its upper one, right-handed seen along the way down; rad.
    /// Empty: nobody looked.
    std::vector<double> phases;
    std::vector<PointId> bearings;                      ///< marked on the shafts: what holds them
    std::optional<Dimension> across;                    ///< diameter of the thickest shaft
    std::optional<Dimension> gives;                     ///< by which it goes together in a crash
    std::vector<PointId> bulkhead;                      ///< three places of the sheet that it passes; none: it passes none
    Dimension limit{0.523599, "", Provenance::Assumed}; ///< most that its joints bend: 30°
    std::string note;
    bool operator==(const SteeringColumn&) const = default;
};
template <> struct Schema<SteeringColumn> {
    static constexpr TableInfo table{"steering-column", "steering_columns", 12, "a steering column"};
    static constexpr auto& in(auto& build) { return build.steering_columns; }
    static constexpr auto key = std::tuple{&SteeringColumn::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("points", &S::points).needed().says("the hand wheel's hub, each joint, a place on the gear's own shaft"),
            number("phases", &S::phases, Unit::Rad, -3.2, 3.2).says("of each shaft between two joints: lower fork against upper"),
            field("bearings", &S::bearings).says("marked on the shafts"),
            mm("across", &S::across, 8, 120).says("diameter of the thickest shaft"),
            mm("gives", &S::gives, 0, 500).says("by which it goes together in a crash"),
            field("bulkhead", &S::bulkhead).says("three places of the sheet that it passes"),
            rad("limit", &S::limit, 0.02, 0.9).says("most that its joints bend"),
            field("note", &S::note),
        };
    }
};

/// The rack, or the box with its arm, where it is bolted.
struct SteeringGear {
    SteeringGearId id;
    std::string name; ///< unique; one word
    SteerKind kind = SteerKind::Rack;
    std::vector<PointId> holes;        ///< that it is bolted through; none: nobody marked them
    std::optional<Dimension> bolt;     ///< diameter of its thread
    std::optional<Dimension> each_way; ///< of a rack: from its middle to its end
    PointId pivot;                     ///< of a box: on its arm's shaft, level with the ball
    PointId ball;                      ///< at the arm's end
    std::optional<Dimension> swing;    ///< of the arm: from its middle to its stop, rad
    std::optional<Dimension> turns;    ///< of the hand wheel, from stop to stop
    std::optional<Dimension> plate;    ///< thickness of the plate that it is bolted to
    bool closed = false;               ///< the bolts go through a closed rail
    std::string note;
    bool operator==(const SteeringGear&) const = default;
};
template <> struct Schema<SteeringGear> {
    static constexpr TableInfo table{"steering-gear", "steering_gears", 12, "a steering rack or box"};
    static constexpr auto& in(auto& build) { return build.steering_gears; }
    static constexpr auto key = std::tuple{&SteeringGear::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("holes", &S::holes).says("that it is bolted through"),
            mm("bolt", &S::bolt, 4, 30).says("diameter of its thread"),
            mm("each_way", &S::each_way, 10, 160).says("of a rack: from its middle to its end"),
            field("pivot", &S::pivot).says("of a box: on its arm's shaft, level with the ball"),
            field("ball", &S::ball).says("at the arm's end"),
            rad("swing", &S::swing, 0.1, 1.3).says("of the arm: from its middle to its stop"),
            number("turns", &S::turns, Unit::None, 0.5, 10).says("of the hand wheel, from stop to stop"),
            mm("plate", &S::plate, 2, 30).says("thickness of what it is bolted to"),
            field("closed", &S::closed).says("the bolts go through a closed rail"),
            field("note", &S::note),
        };
    }
};

/// A pipe, cable, line or loom through marked points.
struct Run {
    RunId id;
    std::string name; ///< unique; one word
    CrossingKind kind = CrossingKind::Exhaust;
    std::vector<PointId> points;      ///< one at least: a place is one, too
    Dimension across;                 ///< its diameter
    bool shielded = false;            ///< a heat shield stands between it and what is beside it
    std::optional<Dimension> length;  ///< as long as it is, between its first and its last point; none: it is made to fit
    Carrier last_on = Carrier::Frame; ///< what its last point moves with: a hose's or a cable's end on an axle
    std::string note;
    bool operator==(const Run&) const = default;
};
template <> struct Schema<Run> {
    static constexpr TableInfo table{"run", "runs", 12, "a pipe or line through the car"};
    static constexpr auto& in(auto& build) { return build.runs; }
    static constexpr auto key = std::tuple{&Run::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("points", &S::points).needed(),
            mm("across", &S::across, 1, 400).says("its diameter"),
            field("shielded", &S::shielded).says("a heat shield stands between it and what is beside it"),
            mm("length", &S::length, 20, 20'000).came(13).says("between its first and its last point; null: it is made to fit"),
            field("last_on", &S::last_on).came(13).says("what its last point moves with"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
