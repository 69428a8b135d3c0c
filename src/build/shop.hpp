#pragma once

#include "build/survey.hpp"

/// What the order of work must know, and what was done.
namespace gorvet::build {

struct TemporarySteel;
struct Tick;
struct Check;
using TemporarySteelId = Id<TemporarySteel>;
using TickId = Id<Tick>;
using CheckId = Id<Check>;

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
    static constexpr auto fields = std::tuple{
        field("fuel_tank", &WorkFacts::fuel_tank),
        field("battery", &WorkFacts::battery),
        field("restraints", &WorkFacts::restraints),
        field("refrigerant", &WorkFacts::refrigerant),
        field("body", &WorkFacts::body),
        field("attitude", &WorkFacts::attitude),
        field("support", &WorkFacts::support),
    };
};
static_assert(whole<WorkFacts>());

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
    static constexpr auto fields = std::tuple{
        field("id", &TemporarySteel::id),
        word("name", &TemporarySteel::name),
        field("purpose", &TemporarySteel::purpose),
        field("blocks", &TemporarySteel::blocks),
        field("out_after", &TemporarySteel::out_after).says("code of a step"),
        mm("gap", &TemporarySteel::gap, 0, 5000),
        mm("gap_tolerance_mm", &TemporarySteel::gap_tolerance_mm, 0.01, 100).onEntry(),
    };
};
static_assert(whole<TemporarySteel>());

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
    static constexpr auto fields = std::tuple{
        field("id", &Tick::id),         name("step", &Tick::step),  name("who", &Tick::who),
        field("at_utc", &Tick::at_utc), field("note", &Tick::note), hash("photo", &Tick::photo),
    };
};
static_assert(whole<Tick>());

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
    static constexpr auto fields = std::tuple{
        field("id", &Check::id),
        name("step", &Check::step),
        field("kind", &Check::kind),
        field("from", &Check::from),
        field("to", &Check::to),
        field("gap_of", &Check::gap_of).says("instead of the points"),
        mm("value", &Check::value, -20'000, 20'000),
        name("who", &Check::who),
        field("at_utc", &Check::at_utc),
    };
};
static_assert(whole<Check>());

} // namespace gorvet::build
