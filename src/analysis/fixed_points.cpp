#include "analysis/fixed_points.hpp"

#include "build/usual_cases.hpp"

#include <algorithm>

namespace gorvet::analysis {

double mostUp(const build::Build& b) {
    double most = 1;
    for (const build::LoadCase& c : build::usualCases())
        if (!loadCaseNamed(b, c.name)) most = std::max(most, c.up_g);
    for (const auto& [id, c] : b.load_cases)
        if (!c.left_out) most = std::max(most, c.up_g);
    return most;
}

} // namespace gorvet::analysis
