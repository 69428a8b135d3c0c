#pragma once

#include "sheet/page.hpp"
#include "work/work.hpp"

/// The wall: what is next in each place, what is held, what is waited for and who did what last; to be read across a workshop.
namespace gorvet::work {

struct BoardInput {
    const Order* order = nullptr;
    const std::vector<build::Awaited>* awaited = nullptr;
    std::string build; ///< its name
};

/// What is next in one place.
struct NextInArea {
    std::string area; ///< empty: the car as a whole
    const Step* step = nullptr;
    int left = 0; ///< steps there that are not done
};
/// The first step that is not done of each area, those that can be begun first, then as they stand in the order.
std::vector<NextInArea> nextByArea(const Order&);

/// Drawn for any medium; what has no room is counted.
sheet::Drawing boardSheet(const BoardInput&, double width, double height, const sheet::Format&);
/// The same on a page for the wall.
std::vector<sheet::Drawing> boardPage(const BoardInput&, const sheet::PageTitle&, const std::vector<std::string>& cautions);

} // namespace gorvet::work
