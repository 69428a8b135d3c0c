#pragma once

#include "build/survey.hpp"

/// Wheels and tyres: those that are there and those that are wanted, what they are bolted to, what stands beside them.
namespace gorvet::build {

struct WheelSet;
struct Hub;
struct WheelRoom;
struct DialTurn;
struct Widening;
struct Adaptor;
using WheelSetId = Id<WheelSet>;
using HubId = Id<Hub>;
using WheelRoomId = Id<WheelRoom>;
using DialTurnId = Id<DialTurn>;
using WideningId = Id<Widening>;
using AdaptorId = Id<Adaptor>;

/// A wheel with its tyre, of both sides of an axle.
struct WheelSet {
    WheelSetId id;
    AxleEnd end = AxleEnd::Rear;
    WheelAs as = WheelAs::Fitted;       ///< there, or wanted
    Dimension width;                    ///< of the rim, between the seats of the beads
    Dimension diameter;                 ///< of those seats
    std::optional<Dimension> over_lips; ///< its width over the lips; none: 25.4 more
    std::optional<Dimension> backspace; ///< from the mounting face to the inner lip
    std::optional<Dimension> offset;    ///< as it is stamped: face outside of the rim's middle is positive
    std::optional<Dimension> inside;    ///< diameter inside the rim, where the brake turns in it
    std::optional<Dimension> spokes;    ///< from the mounting face out to the inside of the spokes, at the brake's edge
    std::optional<Dimension> bore;
    std::optional<Dimension> studs;   ///< how many
    std::optional<Dimension> circle;  ///< that their holes stand on, as it is said
    std::optional<Dimension> chord;   ///< from the middle of a hole to the middle of the next
    bool next_but_one = false;        ///< the chord goes past one hole
    std::optional<Dimension> tyre;    ///< its width, as it is marked
    std::optional<Dimension> aspect;  ///< height of its side in hundredths of that
    std::optional<Dimension> outside; ///< its diameter as measured, free
    std::optional<Dimension> section; ///< its width as measured, on this rim
    std::optional<Dimension> carries; ///< what its load mark stands for, kg
    std::optional<Dimension> speed;   ///< what its speed mark stands for, km/h
    std::string note;
    bool operator==(const WheelSet&) const = default;
};
template <> struct Schema<WheelSet> {
    static constexpr TableInfo table{"wheel-set", "wheel_sets", 11, "a wheel"};
    static constexpr auto& in(auto& build) { return build.wheel_sets; }
    static constexpr auto key = std::tuple{&WheelSet::end, &WheelSet::as};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            field("as", &S::as),
            mm("width", &S::width, 50, 600).says("of the rim, between the bead seats"),
            mm("diameter", &S::diameter, 200, 800).says("of the bead seats"),
            mm("over_lips", &S::over_lips, 60, 650).says("null: 25.4 more than the width"),
            mm("backspace", &S::backspace, -100, 500).says("from the mounting face to the inner lip"),
            mm("offset", &S::offset, -200, 200).says("face outside of the rim's middle is positive"),
            mm("inside", &S::inside, 100, 800).says("diameter inside the rim, where the brake turns"),
            mm("spokes", &S::spokes, -50, 300).says("from the mounting face out to their inside, at the brake's edge"),
            mm("bore", &S::bore, 10, 400),
            number("studs", &S::studs, Unit::None, 3, 12),
            mm("circle", &S::circle, 50, 400),
            mm("chord", &S::chord, 10, 400).says("from a hole to the next"),
            field("next_but_one", &S::next_but_one).says("the chord goes past one hole"),
            mm("tyre", &S::tyre, 50, 600).says("its width, as it is marked"),
            number("aspect", &S::aspect, Unit::None, 15, 120).says("hundredths of that"),
            mm("outside", &S::outside, 250, 1500).says("its diameter as measured, free"),
            mm("section", &S::section, 50, 600).says("its width as measured"),
            number("carries", &S::carries, Unit::Kg, 20, 10'000).says("its load mark"),
            number("speed", &S::speed, Unit::None, 20, 500).says("its speed mark, km/h"),
            field("note", &S::note),
        };
    }
};

/// What the wheels of an axle are bolted to.
struct Hub {
    HubId id;
    AxleEnd end = AxleEnd::Rear; ///< unique
    std::optional<Dimension> studs;
    std::optional<Dimension> circle;
    std::optional<Dimension> chord;
    bool next_but_one = false;
    std::optional<Dimension> spigot;       ///< diameter of what centres the wheel
    std::optional<Dimension> stud;         ///< its thread's diameter
    std::optional<Dimension> stud_out;     ///< by which a stud stands out of the face
    std::optional<Dimension> brake_radius; ///< of the outermost of drum or caliper, from the axle's line
    std::optional<Dimension> brake_out;    ///< by which it stands outside of the face
    std::optional<Dimension> axle_kg;      ///< what the axle may carry
    std::string note;
    bool operator==(const Hub&) const = default;
};
template <> struct Schema<Hub> {
    static constexpr TableInfo table{"hub", "hubs", 11, "a hub"};
    static constexpr auto& in(auto& build) { return build.hubs; }
    static constexpr auto key = std::tuple{&Hub::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            number("studs", &S::studs, Unit::None, 3, 12),
            mm("circle", &S::circle, 50, 400),
            mm("chord", &S::chord, 10, 400).says("from a stud to the next"),
            field("next_but_one", &S::next_but_one).says("the chord goes past one stud"),
            mm("spigot", &S::spigot, 10, 400).says("diameter of what centres the wheel"),
            mm("stud", &S::stud, 5, 40).says("diameter of its thread"),
            mm("stud_out", &S::stud_out, 5, 200).says("by which a stud stands out of the face"),
            mm("brake_radius", &S::brake_radius, 50, 400).says("of the outermost of the brake, from the axle's line"),
            mm("brake_out", &S::brake_out, -200, 200).says("by which it stands outside of the face"),
            number("axle_kg", &S::axle_kg, Unit::Kg, 50, 20'000).says("what the axle may carry"),
            field("note", &S::note),
        };
    }
};

/// A place that stands beside a wheel: a marked point, or taped from the wheel that is fitted while the car stands on its wheels.
struct WheelRoom {
    WheelRoomId id;
    std::string name; ///< unique; one word
    AxleEnd end = AxleEnd::Rear;
    RailSide side = RailSide::Both;
    RoomOn on = RoomOn::Body;       ///< what it is part of
    PointId point;                  ///< marked; none: by the three figures
    RoomFrom from = RoomFrom::Face; ///< where `out` is taped from
    std::optional<Dimension> out;   ///< outwards from there; inwards is negative
    std::optional<Dimension> up;    ///< over the wheel's centre
    std::optional<Dimension> ahead; ///< of the wheel's centre
    std::optional<Dimension> least; ///< that the tyre shall be clear of it; none: the usual
    std::string note;
    bool operator==(const WheelRoom&) const = default;
};
template <> struct Schema<WheelRoom> {
    static constexpr TableInfo table{"wheel-room", "wheel_rooms", 11, "what stands beside a wheel"};
    static constexpr auto& in(auto& build) { return build.wheel_rooms; }
    static constexpr auto key = std::tuple{&WheelRoom::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("end", &S::end),
            field("side", &S::side),
            field("on", &S::on).says("what it is part of"),
            field("point", &S::point),
            field("from", &S::from).says("where `out` is taped from"),
            mm("out", &S::out, -1000, 1000).says("outwards; inwards is negative"),
            mm("up", &S::up, -1000, 1000).says("over the wheel's centre"),
            mm("ahead", &S::ahead, -1000, 1000).says("of the wheel's centre"),
            mm("least", &S::least, 0, 200).chosen().says("that the tyre shall be clear of it; null: the usual"),
            field("note", &S::note),
        };
    }
};

/// What a dial showed as a wheel was turned once, at equal steps from the valve, forwards.
struct DialTurn {
    DialTurnId id;
    Wheel wheel = Wheel::FrontLeft;
    DialWay way = DialWay::Lateral;
    std::vector<double> readings;    ///< mm
    std::optional<Dimension> within; ///< ± of each; none: that of a dial on a turned face
    bool operator==(const DialTurn&) const = default;
};
template <> struct Schema<DialTurn> {
    static constexpr TableInfo table{"dial-turn", "dial_turns", 11, "a turn under the dial"};
    static constexpr auto& in(auto& build) { return build.dial_turns; }
    static constexpr auto key = std::tuple{&DialTurn::wheel, &DialTurn::way};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("wheel", &S::wheel),
            field("way", &S::way),
            mm("readings", &S::readings, -100, 100).says("at equal steps from the valve, forwards"),
            mm("within", &S::within, 0.001, 5).says("± of each; null: that of a dial"),
        };
    }
};

/// A band let into the fitted rims of an axle.
struct Widening {
    WideningId id;
    AxleEnd end = AxleEnd::Rear; ///< unique
    Dimension band;              ///< how wide it is
    BandAt at = BandAt::Inside;  ///< inside or outside of the wheel's disc
    Dimension barrel;            ///< outside diameter where it is let in
    Dimension sheet;             ///< how thick it is
    bool operator==(const Widening&) const = default;
};
template <> struct Schema<Widening> {
    static constexpr TableInfo table{"widening", "widenings", 11, "a rim made wider"};
    static constexpr auto& in(auto& build) { return build.widenings; }
    static constexpr auto key = std::tuple{&Widening::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            mm("band", &S::band, 3, 300).chosen().says("how wide it is"),
            field("at", &S::at).says("inside or outside of the wheel's disc"),
            mm("barrel", &S::barrel, 150, 800).says("outside diameter where it is let in"),
            mm("sheet", &S::sheet, 1, 20),
        };
    }
};

/// A plate between the hubs and the wanted wheels of an axle.
struct Adaptor {
    AdaptorId id;
    AxleEnd end = AxleEnd::Rear; ///< unique
    Dimension thick;
    Dimension across;                    ///< its diameter
    Dimension hub_hole;                  ///< for the hub's studs
    Dimension wheel_hole;                ///< for the wheel's studs
    std::optional<Dimension> nut_across; ///< of the sunk hole that the hub's nuts turn in; none: they stand on the face
    Dimension nut_deep{0, "", Provenance::Assumed}; ///< how deep it is
    bool operator==(const Adaptor&) const = default;
};
template <> struct Schema<Adaptor> {
    static constexpr TableInfo table{"adaptor", "adaptors", 11, "an adaptor"};
    static constexpr auto& in(auto& build) { return build.adaptors; }
    static constexpr auto key = std::tuple{&Adaptor::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            mm("thick", &S::thick, 3, 150).chosen(),
            mm("across", &S::across, 60, 500).chosen().says("its diameter"),
            mm("hub_hole", &S::hub_hole, 5, 60).chosen().says("for the hub's studs"),
            mm("wheel_hole", &S::wheel_hole, 5, 60).chosen().says("for the wheel's studs"),
            mm("nut_across", &S::nut_across, 8, 100).chosen().says("sunk hole that the hub's nuts turn in"),
            mm("nut_deep", &S::nut_deep, 0, 100).chosen(),
        };
    }
};

} // namespace gorvet::build
