#pragma once

#include "build/survey.hpp"

/// The frame as it carries: what it is made of beside its rails, what hangs on it, and how it is loaded.
namespace gorvet::build {

struct Member;
struct Carried;
struct LoadCase;
using MemberId = Id<Member>;
using CarriedId = Id<Carried>;
using LoadCaseId = Id<LoadCase>;

/// A piece of the frame with one section: between the rails, along a rail, or through marked points.
struct Member {
    MemberId id;
    std::string name; ///< unique; one word
    MemberKind kind = MemberKind::Crossmember;
    SectionForm form = SectionForm::Box;
    Dimension height;                 ///< outside; a tube's diameter, a flat's or plate's width
    Dimension width;                  ///< outside; 0 for tube, flat and plate
    Dimension wall;                   ///< thickness as measured
    std::optional<Dimension> other;   ///< a hat's flange, the overlap of two nested channels, the plate that closes a channel
    std::optional<Dimension> radius;  ///< of its corners, outside; none: twice the wall where a box or channel is bent
    std::vector<double> walls_mm;     ///< of a built-up one, wall by wall: from y, z to y, z, and its thickness
    double turned_rad = 0;            ///< about its own line, anticlockwise as it is followed
    std::vector<PointId> points;      ///< that it runs through; none: it is placed by stations
    std::optional<Dimension> station; ///< where it bridges the rails, or begins along one
    std::optional<Dimension> until;   ///< where what runs along a rail or the middle ends
    Dimension below;                  ///< its centroid under that of the rails
    RailSide side = RailSide::Both;   ///< of what runs along a rail
    Joint joint = Joint::Welded;      ///< at its ends
    MemberState state = MemberState::There;
    std::optional<Dimension> yield_MPa; ///< none: as the frame's steel
    std::string note;
    std::optional<Dimension> window_long; ///< of a plate with windows along its middle
    std::optional<Dimension> window_high;
    std::optional<Dimension> pitch; ///< from window to window, or from rib to rib
    bool operator==(const Member&) const = default;
};
template <> struct Schema<Member> {
    static constexpr TableInfo table{"member", "members", 7, "a member of the frame"};
    static constexpr auto& in(auto& build) { return build.members; }
    static constexpr auto key = std::tuple{&Member::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("form", &S::form),
            mm("height", &S::height, 0, 2500).says("outside; a diameter; the width of a flat"),
            mm("width", &S::width, 0, 2500).says("outside; 0 for tube, flat and plate"),
            mm("wall", &S::wall, 0, 60),
            mm("other", &S::other, 0.3, 1200).says("flange of a hat, overlap of nested ones, plate of a boxed one"),
            mm("radius", &S::radius, 0, 200),
            mm("walls_mm", &S::walls_mm, -3000, 3000).says("built-up: y, z, y, z, thickness of each wall"),
            rad("turned_rad", &S::turned_rad, -6.3, 6.3),
            field("points", &S::points).needed(),
            mm("station", &S::station, -5000, 20'000),
            mm("until", &S::until, -5000, 20'000),
            mm("below", &S::below, -1000, 1000),
            field("side", &S::side),
            field("joint", &S::joint),
            field("state", &S::state),
            number("yield_MPa", &S::yield_MPa, Unit::Mpa, 100, 1500),
            field("note", &S::note),
            mm("window_long", &S::window_long, 5, 1000).came(8).says("windows of a plate, along it"),
            mm("window_high", &S::window_high, 5, 500).came(8),
            mm("pitch", &S::pitch, 20, 5000).came(8).says("from window to window, from rib to rib"),
        };
    }
};

/// Something that the frame carries, where its middle is.
struct Carried {
    CarriedId id;
    std::string name;       ///< unique; one word
    Dimension mass;         ///< kg
    Vec3 at;                ///< station, offset, height on the frame as it is
    Dimension over;         ///< the length of the frame over which it hangs; 0: at its station
    bool moves = true;      ///< with what lies behind a cut, where it stands there
    std::string source;     ///< "scales", "catalogue of its maker"
    bool with_body = false; ///< it goes when the body is taken off
    bool operator==(const Carried&) const = default;
};
template <> struct Schema<Carried> {
    static constexpr TableInfo table{"carried", "carried", 7, "what the frame carries"};
    static constexpr auto& in(auto& build) { return build.carried; }
    static constexpr auto key = std::tuple{&Carried::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            number("mass", &S::mass, Unit::Kg, 0, 10'000),
            field("at", &S::at).says("station, offset, height of its middle"),
            mm("over", &S::over, 0, 10'000).says("the length over which it hangs"),
            field("moves", &S::moves).says("with what lies behind a cut"),
            field("source", &S::source),
            field("with_body", &S::with_body).came(8).says("it goes when the body is taken off"),
        };
    }
};

/// How it is loaded, in multiples of its weight. One that has the name of a usual one stands in its place.
struct LoadCase {
    LoadCaseId id;
    std::string name;       ///< unique; one word: "rest", "bump", "lifted", "braking", "cornering" are the usual ones
    double up_g = 1;        ///< pressed down by its weight so often
    double braking_g = 0;   ///< > 0: braked
    double cornering_g = 0; ///< > 0: in a bend to the left, leaning on the right wheels
    Lifted lifted = Lifted::None;
    bool left_out = false; ///< a usual one that is not asked for
    bool operator==(const LoadCase&) const = default;
};
template <> struct Schema<LoadCase> {
    static constexpr TableInfo table{"load-case", "load_cases", 7, "a load case"};
    static constexpr auto& in(auto& build) { return build.load_cases; }
    static constexpr auto key = std::tuple{&LoadCase::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            number("up_g", &S::up_g, Unit::None, -5, 10),
            number("braking_g", &S::braking_g, Unit::None, -2, 2),
            number("cornering_g", &S::cornering_g, Unit::None, -2, 2),
            field("lifted", &S::lifted),
            field("left_out", &S::left_out),
        };
    }
};

/// What is taken of steel, springs and body where nothing else is said.
struct FrameFacts {
    Dimension yield_MPa{210, "", Provenance::Assumed};  ///< engineering.md: unknown mild steel
    Dimension front_rate{30, "", Provenance::Assumed};  ///< of a wheel, N/mm
    Dimension rear_rate{30, "", Provenance::Assumed};   ///< the same
    std::optional<Dimension> body_twist;                ///< the body's own, N·m/deg; none: it is left out
    Dimension mount_rate{600, "", Provenance::Assumed}; ///< of a body mount, N/mm
    std::optional<Dimension> twist_wanted;              ///< of the frame between its axles, N·m/deg; none: nothing is asked
    Springs front_springs = Springs::Unsaid;
    Springs rear_springs = Springs::Unsaid;
    std::optional<BaseMetal> metal; ///< of its rails; none: nobody said
    bool operator==(const FrameFacts&) const = default;
};
template <> struct Schema<FrameFacts> {
    static constexpr TableInfo table{"frame-facts", "frame_facts", 7, "what the frame is made of"};
    static constexpr auto& in(auto& build) { return build.frame_facts; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            number("yield_MPa", &S::yield_MPa, Unit::Mpa, 100, 1500),
            number("front_rate", &S::front_rate, Unit::NewtonPerMm, 1, 1000),
            number("rear_rate", &S::rear_rate, Unit::NewtonPerMm, 1, 1000),
            number("body_twist", &S::body_twist, Unit::NewtonMetrePerDegree, 1, 1e6),
            number("mount_rate", &S::mount_rate, Unit::NewtonPerMm, 1, 1e5),
            field("front_springs", &S::front_springs).came(8),
            field("rear_springs", &S::rear_springs).came(8),
            number("twist_wanted", &S::twist_wanted, Unit::NewtonMetrePerDegree, 1, 1e7).came(8),
            field("metal", &S::metal).came(14).says("of its rails"),
        };
    }
};

} // namespace gorvet::build
