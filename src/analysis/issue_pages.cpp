// What was handed out, in a list, on a page, as JSON.
#include "analysis/issued.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

const char* const not_out = "not handed out yet";

ListRow issueRow(const std::string& name, const std::string& day, const std::string& piece, std::string what,
                 const std::string& tag) {
    ListRow row;
    row.cells = {words(name), words(day), words(piece), words(std::move(what))};
    row.tag = tag;
    return row;
}

Json changesJson(const std::vector<PieceChange>& changes) {
    Json j = Json::array();
    for (const PieceChange& c : changes)
        j.push_back({{"piece", c.piece},
                     {"change", c.kind == PieceChange::Kind::New    ? "new"
                                : c.kind == PieceChange::Kind::Gone ? "gone"
                                                                    : "changed"},
                     {"what", c.what},
                     {"matters", c.matters}});
    return j;
}

} // namespace

Headline issuesHeadline(const Build& b, const Results& r, SubjectId) {
    const IssuesNow now = issuesNow(b, r);
    if (now.records.empty())
        return {b.issues.empty() ? "No drawing was handed out yet." : "Every drawing that was handed out was taken back.",
                "Type issue when drawings go to the saw or to a cutter: what changes afterwards is said, piece by piece."};
    const Issue& last = now.records.back().issue;
    Headline h;
    if (now.since.empty())
        h.sentence = fmt::format("All drawings are as they were handed out as {}.", last.name);
    else
        h.sentence = fmt::format("{} changed since {} was handed out.", units::counted(now.since.size(), "a piece"), last.name);
    h.below =
        fmt::format("{}, {}{}.", last.name, last.handed_out.at_utc.substr(0, 10), last.note.empty() ? "" : ", " + last.note);
    return h;
}

Listing issuesList(const Build& b, const Results& r, SubjectId) {
    Listing list{{"issue", "day", "piece", "what changed"}, -1, "change", {}};
    const IssuesNow now = issuesNow(b, r);
    for (const PieceChange& c : now.since) {
        ListRow row = issueRow(not_out, "", c.piece, changeWords(c), c.thing);
        if (c.matters && c.kind != PieceChange::Kind::New) row.severity = sheet::Severity::Warn;
        list.rows.push_back(std::move(row));
    }
    for (auto record = now.records.rbegin(); record != now.records.rend(); ++record) {
        const Issue& issue = record->issue;
        const std::string day = issue.handed_out.at_utc.substr(0, 10);
        list.rows.push_back(issueRow(issue.name, day, units::counted(record->pieces.size(), "a piece"),
                                     fmt::format("handed out by {}{}", issue.handed_out.who.empty() ? "?" : issue.handed_out.who,
                                                 issue.note.empty() ? "" : ": " + issue.note),
                                     ""));
        for (const PieceChange& c : record->changes)
            list.rows.push_back(issueRow(issue.name, day, c.piece, changeWords(c), c.thing));
    }
    for (auto issue = now.taken_back.rbegin(); issue != now.taken_back.rend(); ++issue) {
        const Signed& back = *issue->taken_back;
        list.rows.push_back(issueRow(issue->name, issue->handed_out.at_utc.substr(0, 10), "",
                                     fmt::format("{}taken back on {} by {}", issue->note.empty() ? "" : issue->note + "; ",
                                                 back.at_utc.substr(0, 10), back.who.empty() ? "?" : back.who),
                                     ""));
    }
    return list;
}

std::vector<sheet::Drawing> issuePages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    if (b.issues.empty()) return pages;
    addListingPages(pages, titled(b, r, "Make: drawings as handed out, and what changed"), {local_rules},
                    issuesList(b, r, the_chassis), {34, 26, 66, 144});
    return pages;
}

std::string makeIssuesJson(const Build& b, const Results& r) {
    const IssuesNow now = issuesNow(b, r);
    Json j = {
        {"issues", Json::array()}, {"taken_back", Json::array()}, {"since", changesJson(now.since)}, {"cautions", {local_rules}}};
    for (const Issue& issue : now.taken_back)
        j["taken_back"].push_back({{"name", issue.name},
                                   {"handed_out", by(issue.handed_out)},
                                   {"taken_back", by(*issue.taken_back)},
                                   {"note", known(issue.note)}});
    for (const IssueRecord& record : now.records)
        j["issues"].push_back({{"name", record.issue.name},
                               {"handed_out", by(record.issue.handed_out)},
                               {"note", known(record.issue.note)},
                               {"pieces", record.pieces.size()},
                               {"changes", changesJson(record.changes)}});
    return text(j);
}

} // namespace gorvet::analysis
