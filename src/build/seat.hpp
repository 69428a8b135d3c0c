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
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("leads", &S::leads),
        };
    }
};

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
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("channel", &S::channel, 0, 400),
            mm("raise", &S::raise, 0, 400),
            mm("kick", &S::kick, 0, 400),
            mm("kick_from", &S::kick_from, -5000, 20'000),
            mm("kick_to", &S::kick_to, -5000, 20'000),
            name("floor", &S::floor).says("name of a zone"),
        };
    }
};

/// Height of a wheel centre over the ground: the tyre's loaded radius, or typed.
struct AxleGround {
    std::optional<Dimension> front;
    std::optional<Dimension> rear;
    bool operator==(const AxleGround&) const = default;
};
template <> struct Schema<AxleGround> {
    static constexpr TableInfo table{"axles", "axles", 1, "the axles"};
    static constexpr auto& in(auto& build) { return build.axles; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("front", &S::front, 50, 1500),
            mm("rear", &S::rear, 50, 1500),
        };
    }
};

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
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("kind", &S::kind),
            field("points", &S::points).needed(),
            number("target", &S::target, Unit::MmOrRad, -1e5, 1e5).onEntry(),
            number("tolerance", &S::tolerance, Unit::MmOrRad, 1e-4, 5000).onEntry(),
            field("to", &S::to).needed().came(2).says("of a pin between two features"),
            field("box", &S::box).came(2),
            field("bound", &S::bound).came(2),
            field("importance", &S::importance).came(2),
        };
    }
};

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
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("pins", &S::pins).loose().says("whole pins"),
            mm("wheelbase_change", &S::wheelbase_change, -3000, 3000).onEntry(),
            field("leads", &S::leads),
            field("lowering", &S::lowering),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
