#pragma once

#include "sheet/drawing.hpp"

#include <string>
#include <vector>

/// Clearances pair by pair: one ruled scale each, with what it needs and how near it comes.
namespace gorvet::sit {

struct PairRow {
    std::string name;
    std::string need;      ///< the figure
    std::string need_more; ///< what is taken off besides
    bool assumed = false;
    double fouls_below = 0; ///< mm
    double tight_below = 0;
    bool far = false; ///< nothing nearer than what was looked for
    double distance = 0;
    std::string text;
    std::string word;
    sheet::Severity severity = sheet::Severity::Good;
    std::string where; ///< the place
    std::string pose;  ///< and in which pose
};
struct PairsView {
    std::vector<PairRow> rows;
    std::vector<std::string> remarks;
};
/// What it needs in height.
double pairsHeight(const PairsView&, const sheet::Format&);
sheet::Drawing pairsSheet(const PairsView&, double width, double height, const sheet::Format&);

} // namespace gorvet::sit
