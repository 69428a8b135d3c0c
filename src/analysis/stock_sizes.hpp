#pragma once

#include "analysis/bench.hpp"
#include "frame/stock.hpp"

/// Common stock, what it is worth, and which of it goes into the rail as a sleeve.
namespace gorvet::analysis {

/// A size from the rack as the sleeve of the planned cut.
struct SleeveFromStock {
    const frame::StockSize* size = nullptr;
    double height_mm = 0; ///< upright, as it goes in
    double width_mm = 0;
    stretch::TubeFit fit;
    double strip_mm = 0; ///< of flat on its loose sides; 0: none
    std::string words;   ///< "slides, 1.0 mm a side"
    std::string line;    ///< what to type to take it
};
/// What fits, the best first: what slides, then what is lined with strip, then what is driven. Nothing thinner than the rail by
/// more than a fifth. Empty where the rail's section is not known.
std::vector<SleeveFromStock> sleevesFromStock(const build::Build&, const Results&);
std::string stockJson();
Headline stockHeadline(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing stockDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                            double height, const sheet::Format&);
std::vector<sheet::Drawing> stockPages(const build::Build&, const Results&);

} // namespace gorvet::analysis
