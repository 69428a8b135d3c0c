#pragma once

#include "build/release.hpp"

/// Rust and coats: surfaces, how they are made bare, and what goes on them; and the permits under which something is hot.
namespace gorvet::build {

struct Surface;
struct Coat;
struct Permit;
using SurfaceId = Id<Surface>;
using CoatId = Id<Coat>;
using PermitId = Id<Permit>;

/// A part, or the inside of a space, that is made good and coated.
struct Surface {
    SurfaceId id;
    std::string name; ///< unique; one word
    std::string area; ///< of the car
    Metal metal = Metal::Steel;
    Preparation preparation = Preparation::Strip;
    std::string skip_why;       ///< why nothing is done to it, where it is skipped
    double size_m2 = 0;         ///< 0: not said
    double seams_mm = 0;        ///< length of its seams that are sealed
    std::string space;          ///< of which it is the inside; empty: it is outside
    std::optional<double> at_c; ///< temperature of part and shop when it is coated; none: 20 °C
    std::optional<Signed> bared;
    std::string note;
    bool operator==(const Surface&) const = default;
};
template <> struct Schema<Surface> {
    static constexpr TableInfo table{"surface", "surfaces", 6, "a surface"};
    static constexpr auto& in(auto& build) { return build.surfaces; }
    static constexpr auto key = std::tuple{&Surface::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("area", &S::area),
            field("metal", &S::metal),
            field("preparation", &S::preparation),
            field("skip_why", &S::skip_why),
            number("size_m2", &S::size_m2, Unit::M2, 0, 500).says("0: not said"),
            mm("seams_mm", &S::seams_mm, 0, 1e6).says("length of the seams that are sealed"),
            field("space", &S::space).says("of which it is the inside"),
            number("at_c", &S::at_c, Unit::Celsius, -30, 60).says("null: 20 °C"),
            field("bared", &S::bared).says("when it was bare metal"),
            field("note", &S::note),
        };
    }
};

/// One coat, or some of the same, on a surface. They go on in the order of their ids.
struct Coat {
    CoatId id;
    SurfaceId surface;
    std::string name; ///< unique on its surface; one word
    CoatKind kind = CoatKind::EpoxyPrimer;
    std::string product; ///< what it is, its grade
    double coats = 1;
    double covers_m2 = 0; ///< by a litre, one coat; 0: usual for its kind
    ByHand by = ByHand::Spray;
    double dries_h = 0; ///< at 20 °C, before the next; 0: usual
    double pot_min = 0; ///< that it can be used once mixed, at 20 °C; 0: usual
    std::optional<Signed> done;
    bool operator==(const Coat&) const = default;
};
template <> struct Schema<Coat> {
    static constexpr TableInfo table{"coat", "coats", 6, "a coat"};
    static constexpr auto& in(auto& build) { return build.coats; }
    static constexpr auto key = std::tuple{&Coat::surface, &Coat::name};
    static constexpr auto title = std::tuple{&Coat::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("surface", &S::surface).needed(),
            word("name", &S::name),
            field("kind", &S::kind),
            field("product", &S::product),
            number("coats", &S::coats, Unit::None, 1, 20),
            number("covers_m2", &S::covers_m2, Unit::M2, 0, 100).says("by a litre, one coat; 0: usual for its kind"),
            field("by", &S::by),
            number("dries_h", &S::dries_h, Unit::Hours, 0, 2000).says("at 20 °C; 0: usual for its kind"),
            number("pot_min", &S::pot_min, Unit::Minutes, 0, 10'000).says("at 20 °C; 0: usual for its kind"),
            field("done", &S::done),
        };
    }
};

/// Leave to do something hot: somebody watches while it burns, and for an hour after.
struct Permit {
    PermitId id;
    std::string step;  ///< code
    std::string watch; ///< who watches
    Signed begun;
    std::optional<Signed> ended;   ///< the last spark
    std::optional<Signed> watched; ///< the watch is over, nothing smoulders
    bool operator==(const Permit&) const = default;
};
template <> struct Schema<Permit> {
    static constexpr TableInfo table{"permit", "permits", 6, "a permit for hot work"};
    static constexpr auto& in(auto& build) { return build.permits; }
    static constexpr auto title = std::tuple{&Permit::step};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),       name("step", &S::step),    name("watch", &S::watch).says("who watches"),
            field("begun", &S::begun), field("ended", &S::ended), field("watched", &S::watched).says("nothing smoulders"),
        };
    }
};

} // namespace gorvet::build
