#pragma once

#include "formats/readings_csv.hpp"

/// The commands of `gorvet-cli tape`, and gaps. Each prints, and returns the exit code.
namespace gorvet::cli {

/// Exit codes: 0 done · 1 the answer is "not yet" (a survey that is not fixed, lines left out) · 2 wrong use or file.
inline constexpr int exit_open = 1;
inline constexpr int exit_wrong = 2;

/// Says an error on standard error.
int fail(const Error&);
/// Says which lines of a CSV file were left out, and why: the first hundred.
void sayProblems(const std::string& file, const std::vector<formats::CsvProblem>&);
Result<std::string> fileText(const std::string& path);

int tapeSolve(const std::string& path, const std::string& subject, bool keep_all);
int tapeCondition(const std::string& path, const std::string& subject);
/// `want`: empty for what the build says. `sheet`: a PDF to write, or empty.
int tapeNext(const std::string& path, const std::string& subject, const std::string& want, int count, const std::string& sheet);
/// Paths may name one session of a build: FILE.gorvet:SESSION.
struct CompareAsked {
    bool as_measured = false;
    bool planned = false;         ///< take off what the first build plans for the points behind its cut
    std::vector<std::string> lay; ///< names of the points to lay the surveys on each other by; empty: all
};
int tapeCompare(const std::string& before, const std::string& after, const std::string& subject, const CompareAsked&);
/// The survey against the drawing's figures that stand in the build.
int tapeDrawing(const std::string& path, const std::string& subject);
/// The report "as found" as PDF.
int tapeReport(const std::string& path, const std::string& subject, const std::string& out);
/// Points of a solved survey as CSV: to a file, or to standard output.
int tapePoints(const std::string& path, const std::string& subject, const std::string& out);
/// What was found at points and parts, judged, and the ways out.
int printFound(const std::string& path);
int axleAlign(const std::string& path);
int printGaps(const std::string& path);

/// Practice frames (practice_commands.cpp).
int practiceNew(const std::string& path, double seed, int difficulty);
/// Prints what the simulated instrument reads, and keeps it when `keep`.
int practiceTake(const std::string& path, const std::string& kind, const std::string& from, const std::string& to, bool keep);
int practiceMark(const std::string& path);

} // namespace gorvet::cli
