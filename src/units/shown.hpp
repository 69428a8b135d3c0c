#pragma once

#include "units/figure.hpp"

#include <string>

namespace gorvet::units {

/// The one way to show a figure with its ±; `write` writes one number of its kind: a length, an angle.
template <class Write> std::string shown(const Figure& f, const Write& write) { return write(f.value) + " ± " + write(f.u95); }
/// The same without its sign, which words beside it tell.
template <class Write> std::string shownSize(const Figure& f, const Write& write) {
    return write(std::abs(f.value)) + " ± " + write(f.u95);
}

} // namespace gorvet::units
