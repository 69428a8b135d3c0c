#pragma once

#include "build/drive.hpp"

/// What carries the car's weight: springs, scales under a lifted axle, and rows of holes at a link's end.
namespace gorvet::build {

struct Spring;
struct AxleLifted;
struct LinkHoles;
using SpringId = Id<Spring>;
using AxleLiftedId = Id<AxleLifted>;
using LinkHolesId = Id<LinkHoles>;

/// The springs of an axle, one each side, alike.
struct Spring {
    SpringId id;
    AxleEnd end = AxleEnd::Rear; ///< unique
    SpringForm form = SpringForm::Coil;
    std::optional<Dimension> rate;      ///< of one, N/mm; of a torsion bar: by its bar
    std::optional<Dimension> bar;       ///< of a torsion bar: its diameter
    std::optional<Dimension> inside;    ///< and inside, where it is a tube
    std::optional<Dimension> length;    ///< of the bar that twists, between its splines
    std::optional<Dimension> arm;       ///< from the bar to the wheel's centre, level; none: from its links
    PointId foot;                       ///< of the left spring: where it stands on what moves
    PointId top;                        ///< and on the frame
    LinkId on;                          ///< the link that its foot stands on; none: on the axle, or on what carries the wheel
    std::optional<Dimension> free;      ///< its length without load
    std::optional<Dimension> higher;    ///< planned: the car shall stand so much higher over this axle
    std::optional<Dimension> stop;      ///< so far the wheel goes up from rest until its bump stop touches
    std::optional<Dimension> stop_rate; ///< of the stop, at the wheel, N/mm
    std::string note;
    bool operator==(const Spring&) const = default;
};
template <> struct Schema<Spring> {
    static constexpr TableInfo table{"spring", "springs", 12, "an axle's springs"};
    static constexpr auto& in(auto& build) { return build.springs; }
    static constexpr auto key = std::tuple{&Spring::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            field("form", &S::form),
            number("rate", &S::rate, Unit::NewtonPerMm, 1, 2000).says("of one; of a torsion bar none: from its bar"),
            mm("bar", &S::bar, 5, 100).says("diameter of a torsion bar"),
            mm("inside", &S::inside, 1, 95).says("of one that is a tube"),
            mm("length", &S::length, 50, 3000).says("of the bar that twists"),
            mm("arm", &S::arm, 50, 1000).says("from the bar to the wheel's centre, level"),
            field("foot", &S::foot).says("of the left one: where it stands on what moves"),
            field("top", &S::top).says("and on the frame"),
            field("on", &S::on).says("the link that its foot stands on"),
            mm("free", &S::free, 30, 1500).says("its length without load"),
            mm("higher", &S::higher, -300, 300).chosen().says("planned: the car shall stand so much higher there"),
            mm("stop", &S::stop, 0, 400).came(13).says("the wheel goes up so far until its bump stop touches"),
            number("stop_rate", &S::stop_rate, Unit::NewtonPerMm, 1, 5000).came(13).says("of the stop, at the wheel"),
            field("note", &S::note),
        };
    }
};

/// What the scales show under one axle while the other is lifted.
struct AxleLifted {
    AxleLiftedId id;
    AxleEnd lifted = AxleEnd::Front; ///< this one
    Dimension up;                    ///< by so much its wheels' centres
    Dimension weight;                ///< on both wheels of the other, kg
    std::optional<Dimension> within; ///< ± of the weight; none: that of usual scales
    std::string note;
    bool operator==(const AxleLifted&) const = default;
};
template <> struct Schema<AxleLifted> {
    static constexpr TableInfo table{"axle-lifted", "axles_lifted", 12, "a weighing with one axle lifted"};
    static constexpr auto& in(auto& build) { return build.axles_lifted; }
    static constexpr auto title = std::tuple{&AxleLifted::lifted};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("lifted", &S::lifted),
            mm("up", &S::up, -1500, 1500).says("of its wheels' centres"),
            number("weight", &S::weight, Unit::Kg, 1, 10'000).says("on both wheels of the other axle"),
            number("within", &S::within, Unit::Kg, 0.01, 500).says("± of the weight"),
            field("note", &S::note),
        };
    }
};

/// A bracket with a row of holes for one end of a link.
struct LinkHoles {
    LinkHolesId id;
    LinkId link;
    LinkEnd at = LinkEnd::Frame; ///< unique with its link
    Dimension pitch;             ///< from a hole to the next
    Dimension above;             ///< how many there are over the one that is used
    Dimension below;
    Dimension lean{0, "", Provenance::Derived}; ///< of the row: its top so far rearward of plumb, rad
    std::optional<Dimension> hole;              ///< diameter
    std::string note;
    bool operator==(const LinkHoles&) const = default;
};
template <> struct Schema<LinkHoles> {
    static constexpr TableInfo table{"link-holes", "link_holes", 12, "a row of holes of a link"};
    static constexpr auto& in(auto& build) { return build.link_holes; }
    static constexpr auto key = std::tuple{&LinkHoles::link, &LinkHoles::at};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("link", &S::link).needed(),
            field("at", &S::at),
            mm("pitch", &S::pitch, 5, 200).says("from a hole to the next"),
            number("above", &S::above, Unit::None, 0, 8).says("holes over the one that is used"),
            number("below", &S::below, Unit::None, 0, 8),
            rad("lean", &S::lean, -1.6, 1.6).says("of the row: its top rearward of plumb"),
            mm("hole", &S::hole, 4, 60).says("diameter"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
