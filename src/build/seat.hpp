#pragma once

#include "build/survey.hpp"

/// Where the body is to sit, and what leads.
namespace gorvet::build {

struct Pin;
struct Seating;
using PinId = Id<Pin>;
using SeatingId = Id<Seating>;

/// Where good builders disagree: what this build holds with.
struct School {
    Leads leads = Leads::Neither;
    bool operator==(const School&) const = default;
};
template <> struct Schema<School> {
    static constexpr TableInfo table{"school", "school", 2, "the school"};
    static constexpr auto& in(auto& build) { return build.school; }
    static constexpr auto fields = std::tuple{
        field("leads", &School::leads),
    };
};
static_assert(whole<School>());

/// How the body is let down over the chassis without its floor fouling. Each may be 0.
struct Lowering {
    Dimension channel{0.0, "", Provenance::Assumed};     ///< boxes let into the floor over the rails, so high
    Dimension raise{0.0, "", Provenance::Assumed};       ///< the whole floor set up by so much
    Dimension kick{0.0, "", Provenance::Assumed};        ///< the rails let down between two kick-ups, by so much
    Dimension kick_from{900.0, "", Provenance::Assumed}; ///< stations
    Dimension kick_to{2000.0, "", Provenance::Assumed};
    std::string floor; ///< zone that is the floor; empty: all sheet over the rails
    bool operator==(const Lowering&) const = default;
};
template <> struct Schema<Lowering> {
    static constexpr TableInfo table{"lowering", "lowering", 2, "how the body is let down"};
    static constexpr auto& in(auto& build) { return build.lowering; }
    static constexpr auto fields = std::tuple{
        mm("channel", &Lowering::channel, 0, 400),
        mm("raise", &Lowering::raise, 0, 400),
        mm("kick", &Lowering::kick, 0, 400),
        mm("kick_from", &Lowering::kick_from, -5000, 20'000),
        mm("kick_to", &Lowering::kick_to, -5000, 20'000),
        name("floor", &Lowering::floor).says("name of a zone"),
    };
};
static_assert(whole<Lowering>());

/// Height of a wheel centre over the ground: the tyre's loaded radius, or typed.
struct AxleGround {
    std::optional<Dimension> front;
    std::optional<Dimension> rear;
    bool operator==(const AxleGround&) const = default;
};
template <> struct Schema<AxleGround> {
    static constexpr TableInfo table{"axles", "axles", 1, "the axles"};
    static constexpr auto& in(auto& build) { return build.axles; }
    static constexpr auto fields = std::tuple{
        mm("front", &AxleGround::front, 50, 1500),
        mm("rear", &AxleGround::rear, 50, 1500),
    };
};
static_assert(whole<AxleGround>());

/// A wish about where the body sits, with the tolerance that gives it its weight.
struct Pin {
    PinId id;
    PinKind kind = PinKind::Station;
    std::vector<PointId> points; ///< of the body; for centred a left/right pair; for level and rake front ones, then rear ones
    Dimension target;            ///< mm; rad for rake; unused for level, centred (0) and arches
    double tolerance = 3.0;      ///< mm; rad for rake; > 0
    std::vector<PointId> to;     ///< second feature, of body or chassis; `points` may then be of either, too
    ObstacleId box;              ///< of clear
    Bound bound = Bound::Equal;
    Importance importance = Importance::Want;
    bool operator==(const Pin&) const = default;
};
template <> struct Schema<Pin> {
    static constexpr TableInfo table{"pin", "pins", 1, "a pin"};
    static constexpr auto& in(auto& build) { return build.pins; }
    static constexpr auto title = std::tuple{&Pin::kind};
    static constexpr auto fields = std::tuple{
        field("id", &Pin::id),
        field("kind", &Pin::kind),
        field("points", &Pin::points).needed(),
        number("target", &Pin::target, Unit::MmOrRad, -1e5, 1e5).onEntry(),
        number("tolerance", &Pin::tolerance, Unit::MmOrRad, 1e-4, 5000).onEntry(),
        field("to", &Pin::to).needed().came(2).says("of a pin between two features"),
        field("box", &Pin::box).came(2),
        field("bound", &Pin::bound).came(2),
        field("importance", &Pin::importance).came(2),
    };
};
static_assert(whole<Pin>());

/// A way to seat the body that is kept, to be compared with others: the decisions, not their results.
struct Seating {
    SeatingId id;
    std::string name; ///< unique; one word
    std::vector<Pin> pins;
    std::optional<Dimension> wheelbase_change;
    Leads leads = Leads::Neither;
    Lowering lowering;
    std::string note;
    bool operator==(const Seating&) const = default;
};
template <> struct Schema<Seating> {
    static constexpr TableInfo table{"seating", "seatings", 2, "a seating"};
    static constexpr auto& in(auto& build) { return build.seatings; }
    static constexpr auto key = std::tuple{&Seating::name};
    static constexpr auto fields = std::tuple{
        field("id", &Seating::id),
        word("name", &Seating::name),
        field("pins", &Seating::pins).loose().says("whole pins"),
        mm("wheelbase_change", &Seating::wheelbase_change, -3000, 3000).onEntry(),
        field("leads", &Seating::leads),
        field("lowering", &Seating::lowering),
        field("note", &Seating::note),
    };
};
static_assert(whole<Seating>());

} // namespace gorvet::build
