#pragma once

#include "make/part.hpp"

#include <algorithm>
#include <catch2/catch.hpp>

namespace make_parts {

inline bool says(const gorvet::make::PartPlan& p, const std::string& code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const auto& r) { return r.code == code; });
}
/// Its solids are sound, weigh what the plan says, and none stands in another.
inline void solidsApart(const gorvet::make::PartPlan& p, double shared_mm3 = 0.5) {
    namespace shape = gorvet::shape;
    const auto solids = gorvet::make::partSolids(p);
    if (!solids) FAIL(solids.error().message);
    double sum = 0, mass = 0;
    for (const auto& s : *solids) {
        INFO(s.name);
        CHECK(shape::isSound(s.solid));
        sum += shape::volume(s.solid);
    }
    for (const auto& b : p.bars) mass += b.count * b.mass_kg;
    for (const auto& f : p.flats) mass += f.count * f.mass_kg;
    CHECK(sum * 7.85e-6 == Approx(mass).epsilon(3e-3));
    for (std::size_t i = 0; i < solids->size(); ++i)
        for (std::size_t j = 0; j < i; ++j) {
            const auto &one = (*solids)[i], &other = (*solids)[j];
            if (!shape::bounds(one.solid).meets(shape::bounds(other.solid))) continue;
            INFO(one.name << " and " << other.name);
            const auto both = shape::sharedVolume(one.solid, other.solid);
            REQUIRE(both);
            CHECK(*both < shared_mm3);
        }
}

} // namespace make_parts
