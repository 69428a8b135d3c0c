#pragma once

#include "build/survey.hpp"

/// What drives the wheels and what carries them: ends of shafts, shafts, slopes as read, turns as counted, links of the axles.
namespace gorvet::build {

struct DriveEnd;
struct Shaft;
struct LevelReading;
struct TurnCount;
struct Link;
using DriveEndId = Id<DriveEnd>;
using ShaftId = Id<Shaft>;
using LevelReadingId = Id<LevelReading>;
using TurnCountId = Id<TurnCount>;
using LinkId = Id<Link>;

/// Where a joint of a shaft sits: the output of a gearbox or transfer box, the input of one, a centre bearing, an axle's pinion,
/// the output of an axle through which the next is driven. The place is the joint's centre, as it stands now.
struct DriveEnd {
    DriveEndId id;
    std::string name; ///< unique; one word
    DriveEndKind kind = DriveEndKind::Output;
    Carrier on = Carrier::Frame;      ///< what it moves with
    std::string housing;              ///< ends of one housing, as of a transfer box, move together; empty: it is alone
    PointId point;                    ///< marked on the chassis; none: by the three figures
    std::optional<Dimension> station; ///< without a point
    std::optional<Dimension> right;
    std::optional<Dimension> up;
    PointId fore; ///< two points on its line, the front one first; none: by slope and swing
    PointId aft;
    std::optional<Dimension> slope;               ///< of its line to the frame's datum: down at the back is positive
    std::optional<Dimension> swing;               ///< of its line in plan: to the right at the back is positive; none: straight
    Dimension turned{0, "", Provenance::Derived}; ///< planned: so much more down at the back
    Dimension raised{0, "", Provenance::Derived}; ///< planned: so much higher
    Dimension aside{0, "", Provenance::Derived};  ///< planned: so much further right
    Dimension back{0, "", Provenance::Derived};   ///< planned: so much further back
    std::string note;
    bool operator==(const DriveEnd&) const = default;
};
template <> struct Schema<DriveEnd> {
    static constexpr TableInfo table{"drive-end", "drive_ends", 10, "an end of a shaft"};
    static constexpr auto& in(auto& build) { return build.drive_ends; }
    static constexpr auto key = std::tuple{&DriveEnd::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("on", &S::on).says("what it moves with"),
            field("housing", &S::housing).came(13).says("ends of one housing move together"),
            field("point", &S::point),
            mm("station", &S::station, -5000, 20'000),
            mm("right", &S::right, -3000, 3000),
            mm("up", &S::up, -3000, 3000),
            field("fore", &S::fore),
            field("aft", &S::aft),
            rad("slope", &S::slope, -0.8, 0.8).says("down at the back is positive"),
            rad("swing", &S::swing, -0.8, 0.8).says("to the right at the back is positive; null: straight"),
            rad("turned", &S::turned, -0.8, 0.8).chosen().says("planned"),
            mm("raised", &S::raised, -1000, 1000).chosen().says("planned"),
            mm("aside", &S::aside, -1000, 1000).chosen().says("planned"),
            mm("back", &S::back, -5000, 5000).chosen().says("planned"),
            field("note", &S::note),
        };
    }
};

/// A shaft between two of them.
struct Shaft {
    ShaftId id;
    std::string name; ///< unique; one word
    DriveEndId from;  ///< the front one
    DriveEndId to;
    JointKind front = JointKind::Cross;
    JointKind rear = JointKind::Cross; ///< of a shaft that ends in a centre bearing: none is there
    std::optional<Dimension> phase;    ///< its rear yoke turned against its front yoke; none: in phase, as nobody looked
    SlipAt slip = SlipAt::Front;       ///< where it slides
    std::optional<Dimension> slip_in;  ///< by how much it can still be pushed together, as it stands now
    std::optional<Dimension> slip_out; ///< and drawn out with its splines still full
    std::optional<Dimension> tube;     ///< outside diameter
    std::optional<Dimension> wall;     ///< of the tube
    Dimension limit{0.349066, "", Provenance::Assumed}; ///< most that its joints bend
    bool loops = false;                                 ///< safety loops are planned or there
    std::string note;
    bool operator==(const Shaft&) const = default;
};
template <> struct Schema<Shaft> {
    static constexpr TableInfo table{"shaft", "shafts", 10, "a shaft"};
    static constexpr auto& in(auto& build) { return build.shafts; }
    static constexpr auto key = std::tuple{&Shaft::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("from", &S::from).needed(),
            field("to", &S::to).needed(),
            field("front", &S::front).says("its joints"),
            field("rear", &S::rear),
            rad("phase", &S::phase, -3.2, 3.2).says("of its rear yoke against its front yoke; null: nobody looked"),
            field("slip", &S::slip),
            mm("slip_in", &S::slip_in, 0, 500),
            mm("slip_out", &S::slip_out, 0, 500),
            mm("tube", &S::tube, 20, 300).says("outside diameter"),
            mm("wall", &S::wall, 0.8, 30),
            rad("limit", &S::limit, 0.02, 0.9).says("most that its joints bend"),
            field("loops", &S::loops).says("safety loops are planned or there"),
            field("note", &S::note),
        };
    }
};

/// A slope as a digital level shows it, against plumb: of the frame, of a unit's line, or of a shaft.
struct LevelReading {
    LevelReadingId id;
    LevelOn on = LevelOn::Frame;
    DriveEndId end;                  ///< of a unit
    ShaftId shaft;                   ///< of a shaft
    Dimension slope;                 ///< down at the back is positive
    std::optional<Dimension> within; ///< its ±; none: that of a digital level
    std::string note;
    bool operator==(const LevelReading&) const = default;
};
template <> struct Schema<LevelReading> {
    static constexpr TableInfo table{"level-reading", "level_readings", 10, "a slope as read"};
    static constexpr auto& in(auto& build) { return build.level_readings; }
    static constexpr auto title = std::tuple{&LevelReading::on};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("on", &S::on),
            field("end", &S::end),
            field("shaft", &S::shaft),
            rad("slope", &S::slope, -0.8, 0.8).says("against plumb; down at the back is positive"),
            rad("within", &S::within, 1e-5, 0.2).says("its ±; null: that of a digital level"),
            field("note", &S::note),
        };
    }
};

/// Turns counted at an axle.
struct TurnCount {
    TurnCountId id;
    Carrier axle = Carrier::Rear;
    Dimension shaft;                 ///< turns of the shaft
    Dimension wheel;                 ///< turns of a wheel
    bool one_held = false;           ///< the other wheel was held
    std::optional<Dimension> within; ///< ± of the shaft's turns
    std::string note;
    bool operator==(const TurnCount&) const = default;
};
template <> struct Schema<TurnCount> {
    static constexpr TableInfo table{"turn-count", "turn_counts", 10, "turns that were counted"};
    static constexpr auto& in(auto& build) { return build.turn_counts; }
    static constexpr auto title = std::tuple{&TurnCount::axle};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("axle", &S::axle),
            number("shaft", &S::shaft, Unit::None, 0.05, 10'000).says("turns"),
            number("wheel", &S::wheel, Unit::None, 0.05, 10'000).says("turns"),
            field("one_held", &S::one_held).says("the other wheel was held"),
            number("within", &S::within, Unit::None, 1e-4, 100).says("± of the shaft's turns"),
            field("note", &S::note),
        };
    }
};

/// Something that carries an axle or a wheel, between marked points: those on the frame and those on what moves, in the order
/// that its kind asks for. Where they are now is taken as rest.
struct Link {
    LinkId id;
    Hung of = Hung::RearAxle;
    std::string name; ///< unique; one word
    LinkKind kind = LinkKind::Rod;
    std::vector<PointId> points;
    std::string note;
    bool operator==(const Link&) const = default;
};
template <> struct Schema<Link> {
    static constexpr TableInfo table{"link", "links", 10, "a link of the suspension"};
    static constexpr auto& in(auto& build) { return build.links; }
    static constexpr auto key = std::tuple{&Link::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("of", &S::of),
            word("name", &S::name),
            field("kind", &S::kind),
            field("points", &S::points).needed().says("in the order that its kind asks for"),
            field("note", &S::note),
        };
    }
};

/// What the shafts turn with, and how they are to lie.
struct DriveFacts {
    std::optional<Dimension> redline_rpm; ///< of the engine
    std::optional<Dimension> torque_Nm;   ///< its most
    std::optional<Dimension> first_gear;  ///< ratios of the gearbox
    std::optional<Dimension> top_gear;
    std::optional<Dimension> low_range;   ///< of a transfer box
    std::optional<Dimension> front_ratio; ///< of the axles, as it is said or stamped
    std::optional<Dimension> rear_ratio;
    std::optional<Dimension> cruise_kmh;
    std::optional<Dimension> tyre_mm;   ///< outside diameter of the driven ones
    std::optional<Dimension> cg_height; ///< of the whole car over the ground
    DriveLayout layout = DriveLayout::Parallel;
    Dimension wind_up{0, "", Provenance::Assumed}; ///< by which the pinion's nose goes up under drive
    bool operator==(const DriveFacts&) const = default;
};
template <> struct Schema<DriveFacts> {
    static constexpr TableInfo table{"drive-facts", "drive_facts", 10, "what the shafts turn with"};
    static constexpr auto& in(auto& build) { return build.drive_facts; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            number("redline_rpm", &S::redline_rpm, Unit::None, 300, 20'000),
            number("torque_Nm", &S::torque_Nm, Unit::NewtonMetre, 1, 10'000),
            number("first_gear", &S::first_gear, Unit::None, 0.2, 20),
            number("top_gear", &S::top_gear, Unit::None, 0.2, 5),
            number("low_range", &S::low_range, Unit::None, 0.5, 10),
            number("front_ratio", &S::front_ratio, Unit::None, 0.5, 20),
            number("rear_ratio", &S::rear_ratio, Unit::None, 0.5, 20),
            number("cruise_kmh", &S::cruise_kmh, Unit::None, 5, 400),
            mm("tyre_mm", &S::tyre_mm, 200, 2000),
            mm("cg_height", &S::cg_height, 50, 3000),
            field("layout", &S::layout),
            rad("wind_up", &S::wind_up, 0, 0.2).says("the pinion's nose goes up under drive"),
        };
    }
};

} // namespace gorvet::build
