#pragma once

#include "build/figure.hpp"
#include "build/schema.hpp"
#include "geometry/vec3.hpp"

/// What the structs of the document are made of: places and figures.
namespace gorvet::build {

using geometry::Vec3;
template <> struct Schema<Vec3> {
    template <class S> static constexpr auto fields() {
        return FieldList{
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
/// As a figure without a ± of its own.
inline Figure figureOf(const Dimension& d) { return {d.value, 0, d.provenance}; }
template <> struct Schema<Dimension> {
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("value", &S::value),
            field("typed", &S::typed),
            field("provenance", &S::provenance),
        };
    }
};

} // namespace gorvet::build
