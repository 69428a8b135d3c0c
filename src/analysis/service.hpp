#pragma once

#include "analysis/bench.hpp"
#include "make/service.hpp"

/// Whether each fastener of the plan can be put in and taken out: what the plan has of bolts and of things, the sheet, the page.
namespace gorvet::analysis {

struct Overlay;

/// Bolts of mounts, crossmember and parts; rails, crossmember, parts, tyres and shafts as they are planned. No scans.
Node<make::ServiceIn, make::ServicePlan> serviceOf(const build::Build&, const Results&, const Results* previous);
/// What of those things stands in each other.
Node<std::vector<make::ServiceBody>, std::vector<make::Foul>> foulsOf(const build::Build&, const Results&,
                                                                      const Results* previous);
/// With what was scanned, where it stands as planned.
make::ServiceIn serviceWithScans(make::ServiceIn, const Overlay&);
/// With what was scanned of body and chassis, once that was looked through; else as planned alone.
const make::ServicePlan& serviceShown(const build::Build&, const Results&);

sheet::Drawing serviceDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                              double height, const sheet::Format&);
Headline serviceHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> servicePages(const build::Build&, const Results&);
void addServiceFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::string makeServiceJson(const build::Build&, const Results&);

extern const char* const service_caution;
SlowNode serviceNode();

} // namespace gorvet::analysis
