#pragma once

#include "analysis/results.hpp"

#include <string>
#include <vector>

/// What a bench has in rows, as on paper: to be sorted, searched and edited.
namespace gorvet::analysis {

struct ListCell {
    std::string text;
    double order = 0; ///< by what it is sorted where it is a figure; not finite: by its text
    bool figure = false;
    sheet::Mark mark = sheet::Mark::None;
};
struct ListRow {
    std::vector<ListCell> cells; ///< as many as there are columns
    std::string tag;             ///< its card
    std::string line;            ///< before a figure that is typed in the column that can be edited; empty: it can't
    std::optional<sheet::Severity> severity;
};
struct Listing {
    std::vector<std::string> columns;
    int edited = -1; ///< the column in which a figure can be typed anew
    std::string one; ///< "reading": what a row is
    std::vector<ListRow> rows;
};

/// All readings of a subject, one row each, those that were replaced left out.
Listing readingsList(const build::Build&, const Results&, build::SubjectId);
/// The steps of the order of work, as they are to be done; hours of one's own jobs can be typed.
Listing orderList(const build::Build&, const Results&, build::SubjectId);
/// The register of what is taken apart.
Listing registerList(const build::Build&, const Results&, build::SubjectId);
/// Photos and spoken notes, the newest first.
Listing photoList(const build::Build&, const Results&, build::SubjectId);
/// What is to be bought, and what lies on the shelf for it.
Listing purchaseList(const build::Build&, const Results&, build::SubjectId);
/// All points of a subject, with their places as far as the readings fix them.
Listing pointsList(const build::Build&, const Results&, build::SubjectId);

} // namespace gorvet::analysis
