#pragma once

#include "stretch/graft.hpp"

namespace graft_tests {

using gorvet::build::Dimension;
using gorvet::build::PlanVerdict;
using gorvet::build::Provenance;
using gorvet::build::RailLine;
using gorvet::stretch::GraftInput;

/// Rails 840 apart, level at 500 (tops), from −500 to 3200; the piece ahead of 640, alike and in line, its rails ending at 700.
inline GraftInput alike() {
    GraftInput in;
    in.graft.name = "nose";
    in.graft.joint = Dimension{640, "", Provenance::Measured};
    in.graft.height = Dimension{100, "", Provenance::Measured};
    in.graft.width = Dimension{60, "", Provenance::Measured};
    in.graft.wall = Dimension{4, "", Provenance::Measured};
    for (RailLine* r : {&in.left, &in.right}) {
        const double y = r == &in.left ? -420 : 420;
        r->points = {{-500, y, 500}, {3200, y, 500}};
        r->height_mm = 100;
        r->width_mm = 60;
        r->thickness_mm = 4;
    }
    in.piece.names = {"Al", "Ar", "Bl", "Br", "FL", "FR"};
    in.piece.at = {{-400, -420, 500}, {-400, 420, 500}, {700, -420, 500}, {700, 420, 500}, {0, -720, 420}, {0, 720, 420}};
    in.piece.covariance.assign(18 * 18, 0);
    for (std::size_t k = 0; k < 18; ++k) in.piece.covariance[k * 18 + k] = 0.25;
    in.rails = {std::vector<int>{0, 2}, std::vector<int>{1, 3}};
    in.hubs = {4, 5};
    in.chassis.names = {"Cl", "Cr", "RL", "RR"};
    in.chassis.at = {{2000, -420, 500}, {2000, 420, 500}, {2600, -720, 420}, {2600, 720, 420}};
    in.chassis.covariance.assign(12 * 12, 0);
    for (std::size_t k = 0; k < 12; ++k) in.chassis.covariance[k * 12 + k] = 0.16;
    in.marks = {0, 1};
    in.other_hubs = {2, 3};
    in.wheel_kg = 300;
    in.pins = {{"station of FL and FR", 0, {0, 0.5, Provenance::Derived}, {0, 0.5, Provenance::Derived}, 2, PlanVerdict::Holds}};
    return in;
}

} // namespace graft_tests
