#pragma once

#include <compare>
#include <cstdint>

namespace gorvet::build {

/// A typed, stable reference to a T of the build. 0 means "none". Ids are never used twice in one build.
template <class T> struct Id {
    std::uint32_t value = 0;
    constexpr explicit operator bool() const { return value != 0; }
    using To = T;
    constexpr auto operator<=>(const Id&) const = default;
};

} // namespace gorvet::build
