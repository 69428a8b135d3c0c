#pragma once

#include "sheet/drawing.hpp"
#include "units/result.hpp"

#include <filesystem>

/// Drawings to files, without a window. Paper units are mm here.
namespace gorvet::sheet {

struct DocumentInfo {
    std::string title;
    std::string subject;
};

/// One page a drawing, each of its own size. Black and white: inks print as black, second ink as dark grey; what they stand
/// for is told by line and hatch. Fails with File when the file can't be written.
Result<void> writePdf(const std::vector<Drawing>& pages, const DocumentInfo&, const std::filesystem::path&);
Result<void> writeSvg(const Drawing&, const std::filesystem::path&);

/// DXF (R2000, mm, 1:1), y turned to point up. Every stroke becomes a polyline, every circle a circle, every text a text;
/// layers by what a line stands for. Meant for drawings made in real millimetres.
Result<void> writeDxf(const Drawing&, const std::filesystem::path&);

} // namespace gorvet::sheet
