#pragma once

#include "build/survey.hpp"

/// What the maker left in a rail: holes, and dents that let it fold in a crash.
namespace gorvet::build {

struct RailHole;
using RailHoleId = Id<RailHole>;

/// A hole or a dent, where it is, and what becomes of it.
struct RailHole {
    RailHoleId id;
    std::string name; ///< unique; one word
    HoleKind kind = HoleKind::Hole;
    RailSide side = RailSide::Both;
    RailWall wall = RailWall::Outer;
    Dimension station;                 ///< of its middle, on the rail as it is
    Dimension across;                  ///< its diameter; of a slot or a dent, how far it reaches across the wall
    std::optional<Dimension> along;    ///< of a slot or a dent, how long it is along the rail; none: as across
    std::optional<Dimension> up;       ///< its middle over the rail's lower edge, or from its outer one; none: in the middle
    HoleFate fate = HoleFate::Open;    ///< what is done about it
    std::optional<Dimension> moved_to; ///< the station where it is made anew
    std::string note;                  ///< what it is for
    bool operator==(const RailHole&) const = default;
};
template <> struct Schema<RailHole> {
    static constexpr TableInfo table{"rail-hole", "rail_holes", 9, "a hole in a rail"};
    static constexpr auto& in(auto& build) { return build.rail_holes; }
    static constexpr auto key = std::tuple{&RailHole::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("side", &S::side),
            field("wall", &S::wall),
            mm("station", &S::station, -5000, 20'000).onEntry(),
            mm("across", &S::across, 1, 300).says("its diameter, or across the wall"),
            mm("along", &S::along, 1, 1000).says("along the rail; null: as across"),
            mm("up", &S::up, 0, 300).says("over the lower edge, or from the outer one; null: in the middle"),
            field("fate", &S::fate),
            mm("moved_to", &S::moved_to, -5000, 20'000).onEntry(),
            field("note", &S::note).says("what it is for"),
        };
    }
};

} // namespace gorvet::build
