#pragma once

#include "analysis/results.hpp"
#include "make/service.hpp"

/// The bolts in the eyes of links: in the way of none of them may stand what is planned. Internal to this room.
namespace gorvet::analysis {

struct LinkBolts {
    std::vector<make::Fastener> fasteners;
    std::vector<std::string> not_looked_at;
};
/// Of rods both ends, across the rod and level; of wishbones and hinges along their pivot line; of leaves across the car; of
/// Watt's linkages along it. Where a part of new steel brings its bolt for an eye, that one stands. Struts and steering joints
/// have none that is drawn out along a line. They are there: rails, axles, tyres and what was scanned let them in once, and only
/// what is planned anew is looked at.
LinkBolts linkBolts(const build::Build&, const Results&, const std::vector<make::Fastener>& of_parts);

} // namespace gorvet::analysis
