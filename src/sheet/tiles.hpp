#pragma once

#include "sheet/page.hpp"

/// A drawing in real millimetres over as many sheets of paper as it needs, to be glued together.
namespace gorvet::sheet {

struct TileOptions {
    double page_width = 210;
    double page_height = 297;
    double tile_width = 188; ///< > 0
    double tile_height = 252;
    /// For a page that stands on its short side, with room for crosses and words.
    static TileOptions on(double page_width, double page_height) {
        return {page_width, page_height, page_width - 22, page_height - 45};
    }
};
/// One page a tile, row by row; tiles with nothing in them are left out. Each bears crosses at its corners, which meet those of
/// its neighbours, its place, and a check bar of 100 mm. Strokes end at the tile's edge; texts and circles belong to the tile
/// that holds their middle.
std::vector<Drawing> tiled(const Drawing&, const std::string& title, const TileOptions& = {});
/// A template at 1 : 1: on a page of its own with the bar that checks the printer where it fits, else as tiles, upright.
void addAtFullSize(std::vector<Drawing>& pages, const PageTitle&, const std::vector<std::string>& cautions, const Drawing&);

} // namespace gorvet::sheet
