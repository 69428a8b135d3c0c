#pragma once

#include "build/survey.hpp"

/// A piece of another frame that is joined to the chassis: a front clip, a rear frame.
namespace gorvet::build {

struct Graft;
struct GraftPin;
using GraftId = Id<Graft>;
using GraftPinId = Id<GraftPin>;

/// The piece, where the chassis is cut for it, and how it is joined. It is surveyed as a subject of its own.
struct Graft {
    GraftId id;
    std::string name; ///< unique; one word
    GraftKind kind = GraftKind::FrontClip;
    SubjectId piece;  ///< whose points it has; neither body nor chassis
    Dimension joint;  ///< station at which the chassis' rails are cut; what lies beyond comes off
    Dimension height; ///< of the piece's rails, outside
    Dimension width;
    Dimension wall;
    RailShape shape = RailShape::Box;
    RailFace datum_face = RailFace::Top; ///< on which the piece's rail points were marked
    std::optional<Dimension> transition; ///< length of a made piece between both rails; none: as the rules say
    std::optional<Dimension> plate;      ///< that it is made of; none: as the thicker wall
    std::string note;
    bool operator==(const Graft&) const = default;
};
template <> struct Schema<Graft> {
    static constexpr TableInfo table{"graft", "grafts", 8, "a piece of another frame"};
    static constexpr auto& in(auto& build) { return build.grafts; }
    static constexpr auto key = std::tuple{&Graft::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("piece", &S::piece).needed(),
            mm("joint", &S::joint, -5000, 20'000).onEntry(),
            mm("height", &S::height, 0, 500).says("of its rails, outside"),
            mm("width", &S::width, 0, 500),
            mm("wall", &S::wall, 0, 25),
            field("shape", &S::shape),
            field("datum_face", &S::datum_face),
            mm("transition", &S::transition, 20, 2000).says("length of a made piece between both rails"),
            mm("plate", &S::plate, 1, 25).says("that it is made of"),
            field("note", &S::note),
        };
    }
};

/// What sets the piece: points of it at a station, an offset or a height of the chassis, or a pair in its middle.
struct GraftPin {
    GraftPinId id;
    GraftId graft;
    GraftPinKind kind = GraftPinKind::Station;
    std::vector<PointId> points; ///< of the piece; a left and a right one for centred
    Dimension target;            ///< unused for centred
    double tolerance = 2;        ///< mm, > 0
    bool operator==(const GraftPin&) const = default;
};
template <> struct Schema<GraftPin> {
    static constexpr TableInfo table{"graft-pin", "graft_pins", 8, "what sets a piece"};
    static constexpr auto& in(auto& build) { return build.graft_pins; }
    static constexpr auto title = std::tuple{&GraftPin::kind};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("graft", &S::graft).needed(),
            field("kind", &S::kind),
            field("points", &S::points).needed(),
            mm("target", &S::target, -1e5, 1e5).onEntry(),
            number("tolerance", &S::tolerance, Unit::Mm, 0.01, 500).onEntry(),
        };
    }
};

} // namespace gorvet::build
