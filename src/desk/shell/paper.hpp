#pragma once

#include "analysis/slow.hpp"
#include "desk/shell/desk.hpp"
#include "sheet/drawing.hpp"

/// Pages made beside the window.
namespace gorvet::desk {

/// Reads what a build's file keeps by a reader of its own, opened when it is first wanted: the window goes on writing.
analysis::ReadBlob blobReader(const std::filesystem::path& build);

/// Draws pages and writes them as PDF, once those slow nodes are made.
void writePages(Desk&, const QString& path, const QString& what, const std::string& title,
                const std::vector<std::string_view>& needs,
                std::function<std::vector<sheet::Drawing>(const build::Build&, const analysis::Results&)> pages);
void exportBuildSheet(Desk&);
void exportEverything(Desk&);

} // namespace gorvet::desk
