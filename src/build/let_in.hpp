#pragma once

#include "build/survey.hpp"

/// A rail let into a shell, from the leg of its front structure to that of its rear.
namespace gorvet::build {

struct LetIn;
using LetInId = Id<LetIn>;

/// The rail, the two open ends that it joins, and the sheet that it goes through.
struct LetIn {
    LetInId id;
    std::string name;                            ///< unique; one word
    PointId front;                               ///< in the middle of the front leg's open end
    PointId rear;                                ///< the same of the rear leg
    PointId front_along;                         ///< further along the front leg, in its middle; none: it is taken as in line
    PointId rear_along;                          ///< the same of the rear leg
    Dimension height;                            ///< of the rail, outside
    Dimension width;                             ///< the same
    Dimension wall;                              ///< the same
    Dimension leg_height;                        ///< of the front leg, outside
    Dimension leg_width;                         ///< the same
    Dimension leg_wall;                          ///< the same
    Dimension tail_height;                       ///< of the rear leg, outside
    Dimension tail_width;                        ///< the same
    Dimension tail_wall;                         ///< the same
    RailEnd driven = RailEnd::Front;             ///< where the inner piece is a driven fit; into the other it slides
    std::optional<Dimension> engage;             ///< of the inner pieces, each way; none: as the rules say
    Dimension floor{1, "", Provenance::Assumed}; ///< the sheet that it goes through
    std::optional<Dimension> yield_MPa;          ///< of the rail; none: as the frame's steel
    std::string note;
    bool operator==(const LetIn&) const = default;
};
template <> struct Schema<LetIn> {
    static constexpr TableInfo table{"let-in", "let_in", 9, "a rail let into a shell"};
    static constexpr auto& in(auto& build) { return build.let_in; }
    static constexpr auto key = std::tuple{&LetIn::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("front", &S::front).needed().says("in the middle of the front leg's open end"),
            field("rear", &S::rear).needed().says("in the middle of the rear leg's open end"),
            field("front_along", &S::front_along).says("further along the front leg"),
            field("rear_along", &S::rear_along).says("further along the rear leg"),
            mm("height", &S::height, 0, 300).says("of the rail, outside"),
            mm("width", &S::width, 0, 300),
            mm("wall", &S::wall, 0, 20),
            mm("leg_height", &S::leg_height, 0, 300).says("of the front leg, outside"),
            mm("leg_width", &S::leg_width, 0, 300),
            mm("leg_wall", &S::leg_wall, 0, 20),
            mm("tail_height", &S::tail_height, 0, 300).says("of the rear leg, outside"),
            mm("tail_width", &S::tail_width, 0, 300),
            mm("tail_wall", &S::tail_wall, 0, 20),
            field("driven", &S::driven).says("where the inner piece is a driven fit"),
            mm("engage", &S::engage, 10, 1000).says("of the inner pieces, each way"),
            mm("floor", &S::floor, 0.5, 12).says("the sheet that it goes through"),
            number("yield_MPa", &S::yield_MPa, Unit::Mpa, 100, 1500),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
