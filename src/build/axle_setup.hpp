#pragma once

#include "build/survey.hpp"

/// An axle that is set up for another car: its spring perches and brackets, what was read while they were tacked and once they
/// were welded, and how its gears run.
namespace gorvet::build {

struct AxleSeat;
struct AxleBracket;
struct TackReading;
struct GearReading;
using AxleSeatId = Id<AxleSeat>;
using AxleBracketId = Id<AxleBracket>;
using TackReadingId = Id<TackReading>;
using GearReadingId = Id<GearReading>;

/// The axle on the bench and the springs that it shall sit on.
struct AxleSeat {
    AxleSeatId id;
    AxleEnd end = AxleEnd::Rear;           ///< unique
    std::optional<Dimension> faces;        ///< from wheel face to wheel face; none: as said of the axle's change
    std::optional<Dimension> tube;         ///< outside diameter of its tubes; none: the same
    std::optional<Dimension> spring_left;  ///< of the spring's middle, outwards from the car's
    std::optional<Dimension> spring_right; ///< the same
    std::optional<Dimension> spring_width;
    std::optional<Dimension> pad_slope;    ///< of the springs' seats at rest: down at the back is positive
    std::optional<Dimension> pinion_slope; ///< wanted at rest; none: as the drive line has it planned
    std::optional<Dimension> kingpin;      ///< of a front beam: by which its kingpins lean back against the seats' square
    std::optional<Dimension> caster;       ///< wanted
    std::optional<Dimension> u_bolt;       ///< diameter of its thread
    std::optional<Dimension> stack;        ///< what the U-bolts hold together beside the tube: leaves, perch, plates
    std::optional<Dimension> plate;        ///< thickness of the U-bolt plates
    std::string note;
    bool operator==(const AxleSeat&) const = default;
};
template <> struct Schema<AxleSeat> {
    static constexpr TableInfo table{"axle-seat", "axle_seats", 11, "an axle's springs"};
    static constexpr auto& in(auto& build) { return build.axle_seats; }
    static constexpr auto key = std::tuple{&AxleSeat::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            mm("faces", &S::faces, 300, 3000).says("from wheel face to wheel face; null: as said of the axle's change"),
            mm("tube", &S::tube, 20, 300).says("outside diameter"),
            mm("spring_left", &S::spring_left, 50, 1500).says("of the spring's middle, outwards from the car's"),
            mm("spring_right", &S::spring_right, 50, 1500).says("the same"),
            mm("spring_width", &S::spring_width, 20, 200),
            rad("pad_slope", &S::pad_slope, -0.5, 0.5).says("at rest; down at the back is positive"),
            rad("pinion_slope", &S::pinion_slope, -0.5, 0.5).chosen().says("wanted at rest; null: as the drive line has it"),
            rad("kingpin", &S::kingpin, -0.5, 0.5).says("by which it leans back against the seats' square"),
            rad("caster", &S::caster, -0.3, 0.4).chosen().says("wanted"),
            mm("u_bolt", &S::u_bolt, 6, 40).says("diameter of its thread"),
            mm("stack", &S::stack, 5, 400).says("what the U-bolts hold beside the tube"),
            mm("plate", &S::plate, 3, 40).says("of the U-bolt plates"),
            field("note", &S::note),
        };
    }
};

/// A bracket that is welded to the axle, where its hole or face shall be as the car stands.
struct AxleBracket {
    AxleBracketId id;
    std::string name; ///< unique; one word
    AxleEnd end = AxleEnd::Rear;
    BracketKind kind = BracketKind::Other;
    PointId point;                   ///< marked; none: by the three figures
    std::optional<Dimension> right;  ///< of the car's middle
    std::optional<Dimension> ahead;  ///< of the axle's line
    std::optional<Dimension> up;     ///< over it
    PointId frame;                   ///< a damper's other end, or the face that a stop meets
    std::optional<Dimension> closed; ///< length of a damper pushed together, or height of a stop
    std::optional<Dimension> open;   ///< of a damper drawn out
    std::string note;
    bool operator==(const AxleBracket&) const = default;
};
template <> struct Schema<AxleBracket> {
    static constexpr TableInfo table{"axle-bracket", "axle_brackets", 11, "a bracket of an axle"};
    static constexpr auto& in(auto& build) { return build.axle_brackets; }
    static constexpr auto key = std::tuple{&AxleBracket::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("end", &S::end),
            field("kind", &S::kind),
            field("point", &S::point),
            mm("right", &S::right, -1500, 1500).says("of the car's middle"),
            mm("ahead", &S::ahead, -800, 800).says("of the axle's line"),
            mm("up", &S::up, -800, 800).says("over it"),
            field("frame", &S::frame).says("a damper's other end, or the face that a stop meets"),
            mm("closed", &S::closed, 5, 1500).says("length of a damper pushed together, height of a stop"),
            mm("open", &S::open, 5, 1500).says("of a damper drawn out"),
            field("note", &S::note),
        };
    }
};

/// A distance on the axle as it was tacked and as it is welded.
struct TackReading {
    TackReadingId id;
    std::string name; ///< unique; one word
    AxleEnd end = AxleEnd::Rear;
    std::optional<Dimension> wanted;
    Dimension tacked;
    std::optional<Dimension> welded; ///< cold
    Dimension within{1.0, "", Provenance::Assumed};
    std::string note;
    bool operator==(const TackReading&) const = default;
};
template <> struct Schema<TackReading> {
    static constexpr TableInfo table{"tack-reading", "tack_readings", 11, "what was read of a tacked axle"};
    static constexpr auto& in(auto& build) { return build.tack_readings; }
    static constexpr auto key = std::tuple{&TackReading::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("end", &S::end),
            mm("wanted", &S::wanted, -5000, 5000),
            mm("tacked", &S::tacked, -5000, 5000),
            mm("welded", &S::welded, -5000, 5000).says("cold"),
            mm("within", &S::within, 0.01, 50).chosen(),
            field("note", &S::note),
        };
    }
};

/// What was read of an axle's gears, at several teeth or over several turns, with the limits that its maker gives.
struct GearReading {
    GearReadingId id;
    Carrier axle = Carrier::Rear;
    GearCheck check = GearCheck::Backlash;
    std::vector<double> readings; ///< mm of backlash or run-out, N·m of turning
    std::optional<Dimension> least;
    std::optional<Dimension> most;
    std::optional<Dimension> spread; ///< most that they may differ
    std::string note;
    bool operator==(const GearReading&) const = default;
};
template <> struct Schema<GearReading> {
    static constexpr TableInfo table{"gear-reading", "gear_readings", 11, "what was read of an axle's gears"};
    static constexpr auto& in(auto& build) { return build.gear_readings; }
    static constexpr auto key = std::tuple{&GearReading::axle, &GearReading::check};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("axle", &S::axle),
            field("check", &S::check),
            number("readings", &S::readings, Unit::None, 0, 1000).says("mm, or N·m of turning"),
            number("least", &S::least, Unit::None, 0, 1000),
            number("most", &S::most, Unit::None, 0, 1000),
            number("spread", &S::spread, Unit::None, 0, 1000).says("most that they may differ"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
