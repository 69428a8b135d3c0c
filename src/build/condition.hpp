#pragma once

#include "build/survey.hpp"

/// What was found on the thing, how it stands on its wheels, and what work costs.
namespace gorvet::build {

struct Flaw;
struct Gap;
struct WheelReadings;
struct ToeReadings;
using FlawId = Id<Flaw>;
using GapId = Id<Gap>;
using WheelReadingsId = Id<WheelReadings>;
using ToeReadingsId = Id<ToeReadings>;

/// What was found at a point or part: rust, a crack, play, a seized fastener.
struct Flaw {
    FlawId id;
    SubjectId subject = the_chassis;
    PointId point;    ///< none: at `part`
    std::string part; ///< where it is, when it is at no marked point
    FlawKind kind = FlawKind::Rust;
    std::optional<Dimension> amount;  ///< mm: length of a crack, least thickness, play
    std::optional<Dimension> nominal; ///< mm: thickness when new; none: the rail's
    double layers = 0;                ///< sheets that lie on each other; 0: not said
    std::string direction;            ///< "up and down", "between the bolts"
    std::string note;
    std::string photo; ///< content hash of a blob in the file; empty: none
    std::string who;
    std::string at_utc;
    bool operator==(const Flaw&) const = default;
};
template <> struct Schema<Flaw> {
    static constexpr TableInfo table{"flaw", "flaws", 2, "something found there"};
    static constexpr auto& in(auto& build) { return build.flaws; }
    static constexpr auto title = std::tuple{&Flaw::point, &Flaw::part};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("subject", &S::subject).needed(),
            field("point", &S::point),
            name("part", &S::part),
            field("kind", &S::kind),
            mm("amount", &S::amount, 0, 5000),
            mm("nominal", &S::nominal, 0.1, 100),
            number("layers", &S::layers, Unit::None, 0, 20),
            field("direction", &S::direction),
            field("note", &S::note),
            hash("photo", &S::photo),
            name("who", &S::who),
            field("at_utc", &S::at_utc),
        };
    }
};

/// What work costs: the user's own rates. Hours and prices are assumptions until changed.
struct Rates {
    std::string money = "money";       ///< name of the currency
    std::optional<double> hour;        ///< of an hour's work
    std::optional<double> other_frame; ///< another frame, bought and brought
    double other_frame_hours = 40;     ///< to swap everything over
    double patch_hours = 4;            ///< cut out and patch one place
    double crack_hours = 3;            ///< stop-drill, grind out, weld, plate
    double redo_hours = 6;             ///< take out an earlier repair and make it good
    double seized_hours = 1.5;         ///< free one fastener
    double play_hours = 3;             ///< renew one bush or bearing
    double section_hours = 14;         ///< let in one length of rail
    double patch_material = 0;
    double section_material = 0;
    bool operator==(const Rates&) const = default;
};
template <> struct Schema<Rates> {
    static constexpr TableInfo table{"rates", "rates", 2, "the rates"};
    static constexpr auto& in(auto& build) { return build.rates; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            name("money", &S::money),
            number("hour", &S::hour, Unit::Money, 0, 1e9),
            number("other_frame", &S::other_frame, Unit::Money, 0, 1e9),
            number("other_frame_hours", &S::other_frame_hours, Unit::Hours, 0, 1e9),
            number("patch_hours", &S::patch_hours, Unit::Hours, 0, 1e9),
            number("crack_hours", &S::crack_hours, Unit::Hours, 0, 1e9),
            number("redo_hours", &S::redo_hours, Unit::Hours, 0, 1e9),
            number("seized_hours", &S::seized_hours, Unit::Hours, 0, 1e9),
            number("play_hours", &S::play_hours, Unit::Hours, 0, 1e9),
            number("section_hours", &S::section_hours, Unit::Hours, 0, 1e9),
            number("patch_material", &S::patch_material, Unit::Money, 0, 1e9),
            number("section_material", &S::section_material, Unit::Money, 0, 1e9),
        };
    }
};

/// A gap of a door or panel, measured at a named place and event: what the body does while it is worked on.
struct Gap {
    GapId id;
    std::string place;         ///< one word: "door-left-rear"
    std::string event;         ///< "brace in", "on the chassis", "weight on its wheels"; the order of entry is the order of time
    Dimension value;           ///< mm
    double tolerance_mm = 1.5; ///< by how much it may move since the event before
    std::string who;
    std::string at_utc;
    bool operator==(const Gap&) const = default;
};
template <> struct Schema<Gap> {
    static constexpr TableInfo table{"gap", "gaps", 2, "a gap"};
    static constexpr auto& in(auto& build) { return build.gaps; }
    static constexpr auto title = std::tuple{&Gap::place};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("place", &S::place),
            field("event", &S::event),
            mm("value", &S::value, -50, 500),
            mm("tolerance_mm", &S::tolerance_mm, 0.01, 100).onEntry(),
            name("who", &S::who),
            field("at_utc", &S::at_utc),
        };
    }
};

/// What was read at one wheel, standing on the ground.
struct WheelReadings {
    WheelReadingsId id;
    Wheel wheel = Wheel::FrontLeft;      ///< unique
    std::optional<Dimension> camber;     ///< rad, > 0 top out
    std::optional<Dimension> sweep;      ///< turned so far each way for the caster, rad
    std::optional<Dimension> turned_out; ///< camber with the wheel's front turned out
    std::optional<Dimension> turned_in;
    std::optional<Dimension> ride;    ///< mm
    std::optional<Dimension> weight;  ///< kg
    std::optional<Dimension> run_out; ///< mm, least to most over a turn
    bool operator==(const WheelReadings&) const = default;
};
template <> struct Schema<WheelReadings> {
    static constexpr TableInfo table{"wheel", "wheels", 2, "what was read at a wheel"};
    static constexpr auto& in(auto& build) { return build.wheels; }
    static constexpr auto key = std::tuple{&WheelReadings::wheel};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("wheel", &S::wheel),
            rad("camber", &S::camber, -0.35, 0.35).says("top out positive"), // 20°: no wheel leans so
            rad("sweep", &S::sweep, 0.08, 0.8),
            rad("turned_out", &S::turned_out, -0.35, 0.35),
            rad("turned_in", &S::turned_in, -0.35, 0.35),
            mm("ride", &S::ride, 0, 2000),
            number("weight", &S::weight, Unit::Kg, 0, 5000),
            mm("run_out", &S::run_out, 0, 50),
        };
    }
};

/// Between the rims of an axle at hub height, ahead of the hubs and behind them.
struct ToeReadings {
    ToeReadingsId id;
    AxleEnd axle = AxleEnd::Front; ///< unique
    Dimension ahead;
    Dimension behind;
    Dimension rim{400, "", Provenance::Assumed}; ///< between the two places on a rim
    bool operator==(const ToeReadings&) const = default;
};
template <> struct Schema<ToeReadings> {
    static constexpr TableInfo table{"toe", "toe", 2, "the toe of an axle"};
    static constexpr auto& in(auto& build) { return build.toe; }
    static constexpr auto key = std::tuple{&ToeReadings::axle};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("axle", &S::axle),
            mm("ahead", &S::ahead, 200, 4000),
            mm("behind", &S::behind, 200, 4000),
            mm("rim", &S::rim, 100, 1500),
        };
    }
};

} // namespace gorvet::build
