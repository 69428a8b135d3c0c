#pragma once

#include "build/survey.hpp"

/// What of brakes and pedals can be checked by figures. Their design is licensed work.
namespace gorvet::build {

struct Brake;
struct Pedal;
using BrakeId = Id<Brake>;
using PedalId = Id<Pedal>;

/// The brakes of an axle, one each side, alike.
struct Brake {
    BrakeId id;
    AxleEnd end = AxleEnd::Rear; ///< unique
    BrakeKind kind = BrakeKind::Disc;
    std::optional<Dimension> piston;  ///< diameter of one
    std::optional<Dimension> pistons; ///< of a caliper: on one side of the disc; of a drum: wheel cylinders
    std::optional<Dimension> radius;  ///< at which the pads press, middle of their face; of a drum: half its inside
    std::optional<Dimension> grip;    ///< coefficient of friction of the linings
    std::optional<Dimension> factor;  ///< of a drum: what its shoes rub for each push, as its maker gives it
    std::optional<Dimension> stroke;  ///< that a piston moves until it presses
    std::string note;
    bool operator==(const Brake&) const = default;
};
template <> struct Schema<Brake> {
    static constexpr TableInfo table{"brake", "brakes", 12, "an axle's brakes"};
    static constexpr auto& in(auto& build) { return build.brakes; }
    static constexpr auto key = std::tuple{&Brake::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            field("kind", &S::kind),
            mm("piston", &S::piston, 8, 120).says("diameter of one"),
            number("pistons", &S::pistons, Unit::None, 1, 8).says("on one side of a disc; of a drum: wheel cylinders"),
            mm("radius", &S::radius, 40, 300).says("at which the linings press"),
            number("grip", &S::grip, Unit::None, 0.1, 0.9).says("coefficient of friction of the linings"),
            number("factor", &S::factor, Unit::None, 0.5, 8).says("of a drum: what its shoes rub for each push"),
            mm("stroke", &S::stroke, 0, 15).says("that a piston moves until it presses"),
            field("note", &S::note),
        };
    }
};

/// A pedal and the cylinders that it pushes.
struct Pedal {
    PedalId id;
    PedalKind kind = PedalKind::Brake;  ///< unique
    std::optional<Dimension> lever;     ///< from its pivot to the middle of its pad
    std::optional<Dimension> arm;       ///< from its pivot to the push rod
    std::optional<Dimension> room;      ///< from its rest to the floor, along the pad's way
    std::optional<Dimension> bore;      ///< of the cylinder; of two circuits: the front one's
    std::optional<Dimension> bore_rear; ///< where the rear circuit has a cylinder of its own size
    std::optional<Dimension> stroke;    ///< of the cylinder until it meets its end
    std::optional<Dimension> help;      ///< of a servo: push on the cylinder for each push of the rod
    std::optional<Dimension> leg;       ///< that is pressed with, N
    std::string note;
    bool operator==(const Pedal&) const = default;
};
template <> struct Schema<Pedal> {
    static constexpr TableInfo table{"pedal", "pedals", 12, "a pedal"};
    static constexpr auto& in(auto& build) { return build.pedals; }
    static constexpr auto key = std::tuple{&Pedal::kind};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("kind", &S::kind),
            mm("lever", &S::lever, 50, 600).says("from its pivot to the middle of its pad"),
            mm("arm", &S::arm, 10, 300).says("from its pivot to the push rod"),
            mm("room", &S::room, 20, 400).says("from its rest to the floor"),
            mm("bore", &S::bore, 8, 60).says("of the cylinder; of two circuits: the front one's"),
            mm("bore_rear", &S::bore_rear, 8, 60).says("where the rear circuit has one of its own"),
            mm("stroke", &S::stroke, 5, 100).says("of the cylinder until it meets its end"),
            number("help", &S::help, Unit::None, 1, 12).says("push on the cylinder for each push of the rod"),
            number("leg", &S::leg, Unit::None, 20, 2000).says("that is pressed with, N"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
