#pragma once

#include "build/release.hpp"
#include "sheet/page.hpp"
#include "units/result.hpp"

#include <string_view>

/// The register of what is taken apart on paper: lists to tick, and labels for tags and bags.
namespace gorvet::work {

/// Two lists: what is to be undone, by area as one walks round; and the same backwards, with torques, to be done up again.
std::vector<sheet::Drawing> registerSheet(const std::vector<build::Release>&, const sheet::PageTitle&,
                                          const std::vector<std::string>& cautions);

/// A sheet of labels as it is sold, mm.
struct LabelStock {
    const char* key; ///< "70x37"
    double paper_width, paper_height;
    int across, down;
    double left, top;        ///< margins to the first label
    double pitch_x, pitch_y; ///< from one label to the next
    double width, height;    ///< of a label
};
const std::vector<LabelStock>& labelStocks();
/// nullptr when there is none of that key.
const LabelStock* labelStock(std::string_view key);

/// What the code on a label says: typed or scanned on the entry line, it opens the row.
std::string labelLine(const build::Release&);
/// One label a row with its code, name, place and bag; the first sheet begins at label `first` (from 0), as half a sheet may be
/// used. Fails where a code can't be made.
Result<std::vector<sheet::Drawing>> labelSheets(const std::vector<build::Release>&, const LabelStock&, int first = 0);

} // namespace gorvet::work
