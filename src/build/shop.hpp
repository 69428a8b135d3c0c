#pragma once

#include "build/survey.hpp"

/// What the order of work must know, and what was done.
namespace gorvet::build {

struct TemporarySteel;
struct Tick;
struct Check;
struct Stand;
using TemporarySteelId = Id<TemporarySteel>;
using TickId = Id<Tick>;
using CheckId = Id<Check>;
using StandId = Id<Stand>;

/// What the order of work must know that no measurement tells.
struct WorkFacts {
    Presence fuel_tank = Presence::Unknown;
    Presence battery = Presence::Unknown;
    Presence restraints = Presence::Unknown;
    Presence refrigerant = Presence::Unknown;
    BodyPlace body = BodyPlace::On; ///< where it is before any step is done
    Attitude attitude = Attitude::RightWayUp;
    Support support = Support::Wheels;
    bool operator==(const WorkFacts&) const = default;
};
template <> struct Schema<WorkFacts> {
    static constexpr TableInfo table{"work", "work", 2, "what the order of work must know"};
    static constexpr auto& in(auto& build) { return build.work; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("fuel_tank", &S::fuel_tank),     field("battery", &S::battery), field("restraints", &S::restraints),
            field("refrigerant", &S::refrigerant), field("body", &S::body),       field("attitude", &S::attitude),
            field("support", &S::support),
        };
    }
};

/// A brace, spacer or tacked support that must come out again.
struct TemporarySteel {
    TemporarySteelId id;
    std::string name; ///< unique; one word
    std::string purpose;
    std::string blocks;            ///< what can't be done or reached while it is in
    std::string out_after;         ///< code of the step after which it may come out; empty: when the body is down
    std::optional<Dimension> gap;  ///< the gap it keeps, measured when it was fitted; re-checked when it comes out
    double gap_tolerance_mm = 1.5; ///< > 0
    bool operator==(const TemporarySteel&) const = default;
};
template <> struct Schema<TemporarySteel> {
    static constexpr TableInfo table{"temporary-steel", "temporary_steel", 2, "a brace"};
    static constexpr auto& in(auto& build) { return build.temporary_steel; }
    static constexpr auto key = std::tuple{&TemporarySteel::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("purpose", &S::purpose),
            field("blocks", &S::blocks),
            field("out_after", &S::out_after).says("code of a step"),
            mm("gap", &S::gap, 0, 5000),
            mm("gap_tolerance_mm", &S::gap_tolerance_mm, 0.01, 100).onEntry(),
        };
    }
};

/// A step that is done: who says so, and when.
struct Tick {
    TickId id;
    std::string step; ///< code; unique
    std::string who;
    std::string at_utc; ///< ISO 8601, seconds
    std::string note;
    std::string photo; ///< content hash of a blob in the file; empty: none
    bool operator==(const Tick&) const = default;
};
template <> struct Schema<Tick> {
    static constexpr TableInfo table{"tick", "ticks", 2, "a tick"};
    static constexpr auto& in(auto& build) { return build.ticks; }
    static constexpr auto key = std::tuple{&Tick::step};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),         name("step", &S::step),  name("who", &S::who),
            field("at_utc", &S::at_utc), field("note", &S::note), hash("photo", &S::photo),
        };
    }
};

/// A fresh reading taken at a hold point: a distance between two points of the chassis, a level from one to the other, or a gap
/// that a brace keeps.
struct Check {
    CheckId id;
    std::string step;
    ReadingKind kind = ReadingKind::Tape; ///< Tape or Level
    PointId from;
    PointId to;
    TemporarySteelId gap_of; ///< instead of the points
    Dimension value;         ///< mm
    std::string who;
    std::string at_utc;
    bool operator==(const Check&) const = default;
};
template <> struct Schema<Check> {
    static constexpr TableInfo table{"check", "checks", 2, "a check at a hold point"};
    static constexpr auto& in(auto& build) { return build.checks; }
    static constexpr auto title = std::tuple{&Check::step};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            name("step", &S::step),
            field("kind", &S::kind),
            field("from", &S::from),
            field("to", &S::to),
            field("gap_of", &S::gap_of).says("instead of the points"),
            mm("value", &S::value, -20'000, 20'000),
            name("who", &S::who),
            field("at_utc", &S::at_utc),
        };
    }
};

/// Two stands that the frame rests on, one under each rail, while it is worked on.
struct Stand {
    StandId id;
    std::string name;    ///< unique; one word
    Dimension station;   ///< on the frame as it is
    double rated_kg = 0; ///< what one of the two may carry; 0: not said
    bool sound = false;  ///< looked at: no crack, bend or rust, a pin that locks, on firm ground
    bool operator==(const Stand&) const = default;
};
template <> struct Schema<Stand> {
    static constexpr TableInfo table{"stand", "stands", 8, "a pair of stands"};
    static constexpr auto& in(auto& build) { return build.stands; }
    static constexpr auto key = std::tuple{&Stand::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            mm("station", &S::station, -5000, 20'000),
            number("rated_kg", &S::rated_kg, Unit::Kg, 0, 100'000).says("of one of the two; 0: not said"),
            field("sound", &S::sound).says("looked at"),
        };
    }
};

} // namespace gorvet::build
