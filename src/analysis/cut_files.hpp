#pragma once

#include "analysis/results.hpp"
#include "sheet/drawing.hpp"
#include "sit/cut_map.hpp"

#include <filesystem>

/// The cut map as pages and files.
namespace gorvet::analysis {

/// The map, and every place of every line from the chassis datum with room to write what was cut.
std::vector<sheet::Drawing> cutMapPages(const build::Build&, const Results&, const sit::CutMap&);
/// `cut-N.dxf` of each cut in real millimetres, `cut-places.csv` and `cut-map.pdf` into a folder, which is made. Fails with File.
Result<void> writeCutMap(const build::Build&, const Results&, const sit::CutMap&, const std::filesystem::path& folder);

} // namespace gorvet::analysis
