#pragma once

#include "analysis/bench.hpp"
#include "analysis/listing.hpp"
#include "build/issue.hpp"

/// Drawings of steel that were handed out, and what changed since: the revisions that stand on them.
namespace gorvet::analysis {

/// Every piece of steel as its drawing has it now, without ids.
std::vector<build::IssuedPiece> drawnNow(const build::Build&, const Results&);

/// What differs between two drawings of a piece.
struct PieceChange {
    enum class Kind { Changed, New, Gone } kind = Kind::Changed;
    std::string thing; ///< tag of what it is a piece of
    std::string piece;
    std::vector<std::string> what; ///< "418.3 mm long (was 412.0 mm)"; of a new one and one that is gone: none
    bool matters = true;           ///< by more than a saw and a tape do
};
/// From what differs by what a drawing shows (0.05 mm, 0.05°) on. Pieces are the same by thing and name, and those of one name in
/// their order.
std::vector<PieceChange> changesBetween(const std::vector<build::IssuedPiece>& was, const std::vector<build::IssuedPiece>& now,
                                        units::LengthStep);
/// It in one line: "412.0 mm long (was 418.3 mm), 2 holes (was 1)".
std::string changeWords(const PieceChange&);

/// One issue, and what changed from the one before it.
struct IssueRecord {
    build::Issue issue;
    std::vector<build::IssuedPiece> pieces;
    std::vector<PieceChange> changes; ///< of the first: none
};
/// All that is handed out, in that order, and what is drawn otherwise now than on the last of it; nothing while none is.
struct IssuesNow {
    std::vector<IssueRecord> records;
    std::vector<PieceChange> since;
    std::vector<build::Issue> taken_back; ///< what was handed out and collected again
};
IssuesNow issuesNow(const build::Build&, const Results&);

/// What stands on the drawing of one thing: each issue in which it changed, newest last, and what changed since.
struct Revision {
    std::string name; ///< "A"; empty: not handed out
    std::string day;  ///< "2026-11-30"
    std::string words;
};
std::vector<Revision> revisionsOf(const IssuesNow&, const std::string& thing);
/// What a drawing of the thing says of it in its heading: "issue B", "changed since issue B", "not handed out"; empty while no
/// drawing was.
std::string issueMark(const IssuesNow&, const std::string& thing);
/// How a thing is called in a sentence, by its tag and one of its pieces.
std::string thingCalled(const std::string& thing, const std::string& piece);
/// The things that changed, each once, in order.
std::vector<std::string> thingsOf(const std::vector<PieceChange>&);
/// All that changed of one thing, in one line.
std::string thingWords(const std::vector<PieceChange>&, const std::string& thing);

Headline issuesHeadline(const build::Build&, const Results&, build::SubjectId);
Listing issuesList(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> issuePages(const build::Build&, const Results&);
void addIssueFindings(const build::Build&, const Results&, std::vector<Finding>&);
std::string makeIssuesJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
