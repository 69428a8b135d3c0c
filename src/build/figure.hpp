#pragma once

#include "units/figure.hpp"

/// Figures and verdicts under the names that the document's room and the benches use.
namespace gorvet::build {

using units::Figure;
using units::judge;
using units::Limit;
using units::PlanVerdict;
using units::proven;
using units::Provenance;
using units::sigmaOfU95;
using units::u95Of;
using units::verdictWord;
using units::worst;

} // namespace gorvet::build
