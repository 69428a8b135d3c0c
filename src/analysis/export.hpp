#pragma once

#include "analysis/results.hpp"
#include "formats/points_csv.hpp"
#include "sheet/drawing.hpp"

#include <filesystem>

/// Printed and exported sheets.
namespace gorvet::analysis {

/// The whole build sheet, on the paper that the build says: one page to sign, drawings and the order of work, what to see to,
/// then points and readings as an annex. What takes seconds is on it when it was made: slowOnPaper.
std::vector<sheet::Drawing> buildSheet(const build::Build&, const Results&);
/// The report "as found": the view, figures and what they mean, the frame along its length, what was found at points and what it
/// would take, gaps, findings, then points and readings with their ±.
std::vector<sheet::Drawing> asFoundReport(const build::Build&, const Results&, build::SubjectId);
/// One subject's survey: its sheet, then its points and readings.
std::vector<sheet::Drawing> surveySheet(const build::Build&, const Results&, build::SubjectId);
sheet::Drawing surveyPage(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> surveyTables(const build::Build&, const Results&, build::SubjectId);
/// The points of a survey as rows of a points file.
std::vector<formats::PointRow> pointRows(const build::Build&, const SurveyOf&);
/// A round of readings in walking order; empty while the survey is not fixed.
std::vector<tape::RankedReading> measuringRound(const SurveyOf&, size_t count);
/// The round as sheets to write on; empty when there is nothing to measure.
std::vector<sheet::Drawing> measuringSheets(const build::Build&, const Results&, build::SubjectId, size_t count);
/// The pages about the crossmember; empty when none is planned.
std::vector<sheet::Drawing> crossmemberSheet(const build::Build&, const Results&);

/// The order of work for the wall; empty when nothing is planned.
std::vector<sheet::Drawing> workSheet(const build::Build&, const Results&);
/// The register of what is taken apart, to be undone and to go on again; empty when nothing is tagged.
std::vector<sheet::Drawing> registerPages(const build::Build&, const Results&);
/// Labels for tags and bags on sheets of `stock` (work::labelStocks), beginning at label `first`. Fails where there is no such
/// stock or nothing is tagged.
Result<void> writeLabels(const build::Build&, const std::string& stock, int first, const std::filesystem::path& to);

/// Writes what there is: build-sheet.pdf, survey PDFs, crossmember PDF and SVG, plates as DXF, crossmember as STEP, the order of
/// work as PDF, cut list and readings as CSV. Makes the folder when it is missing. Returns the files written. Stopped by
/// `progress`, what is written so far stays, and Conflict says so.
Result<std::vector<std::filesystem::path>> exportAll(const build::Build&, const Results&, const std::filesystem::path& folder,
                                                     const Progress& progress = {});

} // namespace gorvet::analysis
