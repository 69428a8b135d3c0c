#pragma once

#include "build/figure.hpp"

#include <string>

namespace gorvet::build {

/// What a bench says of its own plan where something is wrong, tight or open.
struct Remark {
    std::string code; ///< stable within the bench, "sleeve-fit"
    PlanVerdict verdict = PlanVerdict::Marginal;
    std::string sentence;
    std::string remedy;
    std::string figure; ///< the figure judged, with its unit; empty where it is not a matter of figures
    std::string need;   ///< the figure needed

    Remark& of(std::string judged, std::string needed) {
        figure = std::move(judged);
        need = std::move(needed);
        return *this;
    }
};

} // namespace gorvet::build
