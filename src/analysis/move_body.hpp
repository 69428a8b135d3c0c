#pragma once

#include "build/edit.hpp"

namespace gorvet::analysis {

/// The change of pins that moves the body by so much rearward and up: stations and heights move along. Fails with Conflict when
/// no pin holds what is to be moved.
Result<build::Edit> movePins(const build::Build&, double rearward_mm, double up_mm);

} // namespace gorvet::analysis
