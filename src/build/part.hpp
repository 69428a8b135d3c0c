#pragma once

#include "build/survey.hpp"

#include <vector>

/// Parts of new steel, each made by the rules of its kind between marked places.
namespace gorvet::build {

struct SteelPart;
using SteelPartId = Id<SteelPart>;

/// A figure of a part, by the word that its kind has for it.
struct PartFigure {
    std::string name;
    Dimension value; ///< mm; rad of an angle, N of a load, else a bare number: as its kind says
    bool operator==(const PartFigure&) const = default;
};
template <> struct Schema<PartFigure> {
    static constexpr const char* called = "figure of a part: `name`, one word, and `value`, a dimension";
    template <class S> static constexpr auto fields() {
        return FieldList{
            word("name", &S::name),
            number("value", &S::value, Unit::None, -1e7, 1e7).says("mm; rad of an angle, N of a load, else a bare number"),
        };
    }
};

/// One part. Where its points are pinned it stays there, whatever the survey says later; else it follows them.
struct SteelPart {
    SteelPartId id;
    std::string name;                ///< unique; one word
    std::string kind;                ///< word of a kind; one that is not known here is kept, and not made
    std::vector<PointId> at;         ///< what it joins, in the order that its kind asks for
    std::vector<PartFigure> figures; ///< those that were said
    std::vector<Vec3> pinned;        ///< of its points, in their order; empty: it follows the survey
    std::vector<PartFigure> made;    ///< as it came out, by the same words
    std::string note;
    std::optional<BaseMetal> onto;       ///< what it is joined to; none: the rails' steel, taken as mild
    std::optional<Dimension> onto_thick; ///< of it, where it is joined; none: by the rail
    bool onto_coated = false;            ///< galvanised, painted, sealed: nobody took it off there
    bool operator==(const SteelPart&) const = default;
};
template <> struct Schema<SteelPart> {
    static constexpr TableInfo table{"steel-part", "steel_parts", 13, "a part of new steel"};
    static constexpr auto& in(auto& build) { return build.steel_parts; }
    static constexpr auto key = std::tuple{&SteelPart::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            word("kind", &S::kind),
            field("at", &S::at).needed().says("what it joins, in the order that its kind asks for"),
            field("figures", &S::figures).says("those that were said"),
            field("pinned", &S::pinned).says("where its points stay; empty: it follows the survey"),
            field("made", &S::made).says("as it came out"),
            field("note", &S::note),
            field("onto", &S::onto).came(14).says("what it is joined to"),
            mm("onto_thick", &S::onto_thick, 0.2, 100).came(14).says("of it, where it is joined"),
            field("onto_coated", &S::onto_coated).came(14).says("nobody took its coat off there"),
        };
    }
};

} // namespace gorvet::build
