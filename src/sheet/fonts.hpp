#pragma once

#include "sheet/drawing.hpp"

#include <span>

namespace gorvet::sheet {

/// The bytes of an embedded typeface (OpenType).
std::span<const unsigned char> fontBytes(Face);
/// The family names under which they register.
inline constexpr const char* sans_family = "Gorvet Sans";
inline constexpr const char* mono_family = "Gorvet Mono";

} // namespace gorvet::sheet
