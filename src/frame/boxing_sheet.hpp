#pragma once

#include "sheet/page.hpp"

#include <string>
#include <vector>

/// What closing open rails brings, choice by choice.
namespace gorvet::frame {

struct BoxingRow {
    std::string name;
    std::string words; ///< where the plates are
    double free_nm_deg = 0;
    double held_nm_deg = 0;
    double kg = 0;
    double seam_m = 0;
    double hours = 0;
};
struct BoxingView {
    std::vector<BoxingRow> rows;    ///< the first: as it is
    std::string tried;              ///< what was searched
    std::vector<std::string> words; ///< what must be inside before a rail is closed
    std::string selected;
    double wanted_nm_deg = 0; ///< a mark on every bar; 0: nothing is asked
};
/// Each choice as a bar from free to held, with what it gains per kg, metre of seam and hour.
sheet::Drawing boxingSheet(const BoxingView&, double width, double height, const sheet::Format&);

} // namespace gorvet::frame
