#include "build/usual_cases.hpp"

namespace gorvet::build {

std::vector<LoadCase> usualCases() {
    std::vector<LoadCase> list;
    const auto add = [&](const char* name, double up, double braking, double cornering) {
        LoadCase c;
        c.name = name;
        c.up_g = up;
        c.braking_g = braking;
        c.cornering_g = cornering;
        list.push_back(std::move(c));
    };
    add("rest", 1, 0, 0);
    add("bump", 3, 0, 0);
    add("lifted", 1, 0, 0);
    add("braking", 1, 1, 0);
    add("cornering", 1, 0, 1);
    return list;
}

} // namespace gorvet::build
