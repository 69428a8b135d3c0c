#pragma once

#include "analysis/bench.hpp"

/// All new steel at once: from above, each part with a handle along its rail; and drawn apart in the order in which it is made.
namespace gorvet::analysis {

/// How near planned things come to each other.
Node<std::vector<make::ServiceBody>, std::vector<make::Near>> nearsOf(const build::Build&, const Results&,
                                                                      const Results* previous);
/// All that is made on the car, in order (by its first weld, what is bolted on last), and from where each goes in.
Node<make::PutOnIn, std::vector<make::PutOn>> putOnOf(const build::Build&, const Results&, const Results* previous);
sheet::Drawing aboveDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
/// `part NAME pinned …`: where its places are once it is dragged.
std::string aboveDragged(const build::Build&, const Results&, const std::string& grip, double value);
sheet::Drawing orderDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
Headline orderHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> orderPages(const build::Build&, const Results&);
void addWeldFindings(const build::Build&, const Results&, std::vector<Finding>&);
void addOrderFindings(const build::Build&, const Results&, std::vector<Finding>&);
/// What is made, in order, from where each goes in; what comes nearest to what.
std::string makeOrderJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
