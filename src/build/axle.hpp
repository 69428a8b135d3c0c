#pragma once

#include "build/survey.hpp"

/// An axle that is made narrower or wider.
namespace gorvet::build {

struct AxleJob;
using AxleJobId = Id<AxleJob>;

/// The live axle of one end: what is there, measured between the wheels' faces, and what it shall become.
struct AxleJob {
    AxleJobId id;
    AxleEnd end = AxleEnd::Rear;            ///< unique
    Dimension faces;                        ///< from wheel face to wheel face, as it is
    std::optional<Dimension> faces_wanted;  ///< the same as planned; none: as it is
    Dimension pinion;                       ///< the pinion's line, to the right of the middle between the faces
    std::optional<Dimension> pinion_wanted; ///< none: it stays where it is
    std::optional<Dimension> tube;          ///< outside diameter of the tubes
    std::optional<Dimension> tube_wall;
    std::optional<Dimension> yield_MPa;           ///< of the tubes; none: as unknown mild steel
    std::optional<Dimension> flange_in;           ///< from the wheel face inwards to the end flange of the tube
    std::optional<Dimension> perches;             ///< between the middles of the spring perches
    std::optional<Dimension> perches_wanted;      ///< none: they stay
    Dimension perch{60, "", Provenance::Assumed}; ///< how wide each is along the tube
    std::optional<Dimension> shaft_left;          ///< from the wheel face to its inner end
    std::optional<Dimension> shaft_right;         ///< the same
    std::optional<Dimension> splined;             ///< how far its splines reach from the inner end
    std::optional<Dimension> engaged;             ///< how much of them stands in the side gear
    std::optional<Dimension> brake_in;            ///< from the wheel face inwards to the innermost of the brake
    std::optional<Dimension> wheel_offset;        ///< of the wheel: its face outside of the rim's middle is positive
    std::optional<Dimension> offset_wanted;       ///< none: the same wheels
    std::optional<Dimension> tyre;                ///< its width
    std::optional<Dimension> over_tyres_wanted;   ///< the width that shall be kept within
    bool operator==(const AxleJob&) const = default;
};
template <> struct Schema<AxleJob> {
    static constexpr TableInfo table{"axle-job", "axle_jobs", 8, "an axle's change"};
    static constexpr auto& in(auto& build) { return build.axle_jobs; }
    static constexpr auto key = std::tuple{&AxleJob::end};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("end", &S::end),
            mm("faces", &S::faces, 300, 3000).says("from wheel face to wheel face"),
            mm("faces_wanted", &S::faces_wanted, 300, 3000),
            mm("pinion", &S::pinion, -600, 600).says("right of the middle between the faces"),
            mm("pinion_wanted", &S::pinion_wanted, -600, 600),
            mm("tube", &S::tube, 20, 300).says("outside diameter"),
            mm("tube_wall", &S::tube_wall, 1, 30),
            number("yield_MPa", &S::yield_MPa, Unit::Mpa, 100, 1500).says("of the tubes"),
            mm("flange_in", &S::flange_in, 0, 400).says("from the wheel face to the tube's end flange"),
            mm("perches", &S::perches, 100, 2500).says("between the middles of the spring perches"),
            mm("perches_wanted", &S::perches_wanted, 100, 2500),
            mm("perch", &S::perch, 5, 300).says("how wide each is along the tube"),
            mm("shaft_left", &S::shaft_left, 100, 2000).says("from the wheel face to its inner end"),
            mm("shaft_right", &S::shaft_right, 100, 2000).says("from the wheel face to its inner end"),
            mm("splined", &S::splined, 5, 400).says("how far the splines reach from the inner end"),
            mm("engaged", &S::engaged, 5, 200).says("how much of them stands in the side gear"),
            mm("brake_in", &S::brake_in, 0, 400).says("from the wheel face to the innermost of the brake"),
            mm("wheel_offset", &S::wheel_offset, -200, 200),
            mm("offset_wanted", &S::offset_wanted, -200, 200),
            mm("tyre", &S::tyre, 50, 600).says("how wide it is"),
            mm("over_tyres_wanted", &S::over_tyres_wanted, 300, 3500).says("to be kept within"),
        };
    }
};

} // namespace gorvet::build
