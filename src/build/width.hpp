#pragma once

#include "build/survey.hpp"

/// How wide the chassis is made: a strip out along each side, floors that reach out to a body's sills.
namespace gorvet::build {

struct FloorEdge;
using FloorEdgeId = Id<FloorEdge>;

/// The chassis made narrower: slit along both sides, a strip comes out of each, and what lies outside comes inwards.
struct Narrowing {
    Dimension by;                 ///< in all: half of it on each side
    Dimension slit;               ///< from the middle to where the strip begins; what lies inside stays
    std::optional<Dimension> lap; ///< how far both sheets lie on each other; 0: butt; none: as the rules say
    bool operator==(const Narrowing&) const = default;
};
template <> struct Schema<Narrowing> {
    static constexpr TableInfo table{"narrowing", "narrowing", 9, "how the chassis is made narrower"};
    static constexpr auto& in(auto& build) { return build.narrowing; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("by", &S::by, 1, 1500).says("in all, half of it on each side"),
            mm("slit", &S::slit, 0, 2000).says("from the middle to where the strip begins"),
            mm("lap", &S::lap, 0, 200).chosen().says("of both sheets on each other; 0 is a butt"),
        };
    }
};

/// The edge of a floor, or a rail's outside, that reaches out to a sill.
struct FloorEdge {
    FloorEdgeId id;
    std::string name;                                ///< unique; one word
    std::vector<PointId> edge;                       ///< of the chassis, along the edge as it is
    std::vector<PointId> sill;                       ///< of the body or the chassis, along the face that it shall meet
    Dimension sheet{1.5, "", Provenance::Assumed};   ///< what the new strip is made of
    Dimension lap{20, "", Provenance::Assumed};      ///< of the strip on the old floor
    Dimension upstand{20, "", Provenance::Assumed};  ///< its flange up the sill; 0: none
    std::optional<Dimension> pitch;                  ///< from outrigger to outrigger, at the most; none: there are none
    Dimension height;                                ///< of the outriggers' section, outside
    Dimension width;                                 ///< the same
    Dimension wall;                                  ///< the same
    Dimension carries{100, "", Provenance::Assumed}; ///< what each bears at its outer end, kg
    std::string note;
    bool operator==(const FloorEdge&) const = default;
};
template <> struct Schema<FloorEdge> {
    static constexpr TableInfo table{"floor-edge", "floor_edges", 9, "the edge of a floor"};
    static constexpr auto& in(auto& build) { return build.floor_edges; }
    static constexpr auto key = std::tuple{&FloorEdge::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("edge", &S::edge).needed(),
            field("sill", &S::sill).needed(),
            mm("sheet", &S::sheet, 0.5, 12).chosen().says("of the new strip"),
            mm("lap", &S::lap, 0, 200).chosen().says("of the strip on the old floor"),
            mm("upstand", &S::upstand, 0, 200).chosen().says("its flange up the sill"),
            mm("pitch", &S::pitch, 50, 5000).chosen().says("from outrigger to outrigger, at the most"),
            mm("height", &S::height, 0, 300).says("of the outriggers, outside"),
            mm("width", &S::width, 0, 300),
            mm("wall", &S::wall, 0, 20),
            number("carries", &S::carries, Unit::Kg, 0, 2000).says("each at its outer end"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
