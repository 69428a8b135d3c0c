#pragma once

#include "build/figures.hpp"

/// What hangs or stands while it is moved: a load, and the points that carry it.
namespace gorvet::build {

struct Lift;
struct LiftPoint;
using LiftId = Id<Lift>;
using LiftPointId = Id<LiftPoint>;

/// A load that is lifted or carried. Places along its own axes: x rearward, y right, z up.
struct Lift {
    LiftId id;
    std::string name; ///< unique; one word: "cab"
    LiftWay way = LiftWay::Slings;
    std::string step;       ///< the step that it is for, code or name of a job; may be empty
    double mass_kg = 0;     ///< 0: not said
    double mass_u95_kg = 0; ///< 0: not weighed
    Vec3 centre;            ///< of gravity
    Vec3 centre_u95;        ///< ± of each coordinate, 0 or more
    bool spreader = false;  ///< the points are held apart
    std::string note;
    bool operator==(const Lift&) const = default;
};
template <> struct Schema<Lift> {
    static constexpr TableInfo table{"lift", "lifts", 6, "a lift"};
    static constexpr auto& in(auto& build) { return build.lifts; }
    static constexpr auto key = std::tuple{&Lift::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("way", &S::way),
            field("step", &S::step).says("code of a step, or name of a job"),
            number("mass_kg", &S::mass_kg, Unit::Kg, 0, 100'000).says("0: not said"),
            number("mass_u95_kg", &S::mass_u95_kg, Unit::Kg, 0, 100'000).says("0: not weighed"),
            field("centre", &S::centre).says("of gravity"),
            field("centre_u95", &S::centre_u95).says("± of each coordinate"),
            field("spreader", &S::spreader),
            field("note", &S::note),
        };
    }
};

/// One leg of slings to the hook, or one place that the load rests on.
struct LiftPoint {
    LiftPointId id;
    LiftId lift;
    std::string name; ///< unique in its lift; one word
    Vec3 at;
    double length_mm = 0; ///< of the leg; 0: it is carried from below or by an upright strap
    double rated_kg = 0;  ///< 0: not said
    bool sound = false;   ///< looked at: no cut, chafed edge, melted place, crack or rust
    bool operator==(const LiftPoint&) const = default;
};
template <> struct Schema<LiftPoint> {
    static constexpr TableInfo table{"lift-point", "lift_points", 6, "a point of a lift"};
    static constexpr auto& in(auto& build) { return build.lift_points; }
    static constexpr auto key = std::tuple{&LiftPoint::lift, &LiftPoint::name};
    static constexpr auto title = std::tuple{&LiftPoint::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("lift", &S::lift).needed(),
            word("name", &S::name),
            field("at", &S::at),
            mm("length_mm", &S::length_mm, 0, 50'000).says("0: carried from below"),
            number("rated_kg", &S::rated_kg, Unit::Kg, 0, 100'000).says("0: not said"),
            field("sound", &S::sound),
        };
    }
};

} // namespace gorvet::build
