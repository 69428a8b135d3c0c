#pragma once

#include "sheet/page.hpp"

/// Pages of one table under a heading. Internal to this room.
namespace gorvet::work {

/// As many pages as the rows need; none without rows.
inline void addTableUnder(std::vector<sheet::Drawing>& pages, const sheet::PageTitle& title,
                          const std::vector<std::string>& cautions, const char* head, const std::vector<sheet::Column>& columns,
                          const std::vector<std::vector<std::string>>& rows) {
    using namespace sheet;
    for (std::size_t next = 0; next < rows.size();) {
        Area area;
        Drawing page = blankPage(title, cautions, area);
        page.add(Text{{area.x, area.y + 4}, head, on_paper.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        next = addTable(page, {area.x, area.y + 7, area.width, area.height - 7}, fittedTo(columns, area.width), rows,
                        on_paper.small(), next);
        pages.push_back(std::move(page));
    }
}

} // namespace gorvet::work
