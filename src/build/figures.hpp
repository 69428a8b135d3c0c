#pragma once

#include "build/schema.hpp"

/// What the structs of the document are made of: places and figures.
namespace gorvet::build {

/// X station, rearward · Y offset, to the right · Z height, up.
struct Vec3 {
    double x_mm = 0;
    double y_mm = 0;
    double z_mm = 0;
    bool operator==(const Vec3&) const = default;
};
template <> struct Schema<Vec3> {
    static constexpr auto fields = std::tuple{
        mm("x_mm", &Vec3::x_mm, -1e5, 1e5).onEntry(),
        mm("y_mm", &Vec3::y_mm, -1e5, 1e5).onEntry(),
        mm("z_mm", &Vec3::z_mm, -1e5, 1e5).onEntry(),
    };
};
static_assert(whole<Vec3>());

/// A figure with its origin. `value` is mm or rad as the owner's field says; `typed` is what the person read or decided.
struct Dimension {
    double value = 0;
    std::string typed;
    Provenance provenance = Provenance::Assumed;
    bool operator==(const Dimension&) const = default;
};
template <> struct Schema<Dimension> {
    static constexpr auto fields = std::tuple{
        field("value", &Dimension::value),
        field("typed", &Dimension::typed),
        field("provenance", &Dimension::provenance),
    };
};
static_assert(whole<Dimension>());

} // namespace gorvet::build
