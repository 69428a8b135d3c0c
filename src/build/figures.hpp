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
    template <class S> static constexpr auto fields() {
        return std::tuple{
            mm("x_mm", &S::x_mm, -1e5, 1e5).onEntry(),
            mm("y_mm", &S::y_mm, -1e5, 1e5).onEntry(),
            mm("z_mm", &S::z_mm, -1e5, 1e5).onEntry(),
        };
    }
};

/// A figure with its origin. `value` is mm or rad as the owner's field says; `typed` is what the person read or decided.
struct Dimension {
    double value = 0;
    std::string typed;
    Provenance provenance = Provenance::Assumed;
    bool operator==(const Dimension&) const = default;
};
template <> struct Schema<Dimension> {
    template <class S> static constexpr auto fields() {
        return std::tuple{
            field("value", &S::value),
            field("typed", &S::typed),
            field("provenance", &S::provenance),
        };
    }
};

} // namespace gorvet::build
