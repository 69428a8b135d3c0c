#pragma once

#include "analysis/bench.hpp"
#include "stretch/spine_sheet.hpp"

/// The cut of a spine platform: its sheet, page and patterns.
namespace gorvet::analysis {

sheet::Drawing spineDrawing(const build::Build&, const Results&, double width, double height, const sheet::Format&);
/// "Cut the spine at …": none where no spine is cut.
std::optional<std::string> spineSentence(const build::Build&, const Results&);
void addSpineFiles(const build::Build&, const Results&, FileKeeper&);
/// The saddle's blank and a window's cover, at 1 : 1 in the files, to scale on the page.
std::vector<sheet::Drawing> spinePages(const build::Build&, const Results&);

} // namespace gorvet::analysis
