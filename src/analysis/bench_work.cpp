#include "analysis/bench_parts.hpp"
#include "analysis/json.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/listing.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"
#include "analysis/wording.hpp"
#include "analysis/work_facts.hpp"
#include "analysis/work_findings.hpp"
#include "analysis/work_plan.hpp"
#include "sheet/write.hpp"
#include "work/board_sheet.hpp"
#include "work/register_sheet.hpp"
#include "work/work_sheet.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

/// "The body still moves 4 times, the frame turns 2 times: no order needs fewer."
std::string movesWords(const work::Order& o) {
    std::vector<std::string> parts;
    const auto times = [](int n) { return n == 1 ? std::string("once") : n == 2 ? "twice" : fmt::format("{} times", n); };
    if (o.body_moves_left) parts.push_back("the body still moves " + times(o.body_moves_left));
    if (o.turns_left) parts.push_back("the frame turns " + times(o.turns_left));
    if (const int other = o.moves_left - o.body_moves_left - o.turns_left; other > 0)
        parts.push_back("it is set on something else " + times(other));
    if (parts.empty()) return {};
    std::string text;
    for (std::size_t k = 0; k < parts.size(); ++k) text += (k == 0 ? "" : k + 1 == parts.size() ? " and " : ", ") + parts[k];
    return " " + capital(text) +
           (o.exact ? ": no order needs fewer moves."
                    : fmt::format(
                          ": an order with fewer than {} moves does not exist, whether one with fewer than {} does is not known.",
                          o.least_moves, o.moves_left));
}

Headline workHeadline(const Build& b, const Results& r) {
    const work::Order& o = *r.work;
    if (!o.next)
        return {"All is done.",
                fmt::format("{}, each ticked with a name.", units::counted(static_cast<std::size_t>(o.done), "a step"))};
    const work::Step& s = o.steps[*o.next];
    Headline h;
    h.sentence = fmt::format("{}: {}.", s.hold ? "Hold point" : "Next", s.title);
    if (h.sentence.size() > 100) h.sentence = fmt::format("{}: step {}.", s.hold ? "Hold point" : "Next", *o.next + 1);
    if (!workBegun(b, r)) {
        h.below =
            "Nothing is planned yet. The plan brings its steps along; whatever else is to be done is a job of your own, or a "
            "ready-made list of them.";
        return h;
    }
    h.below = fmt::format("{} of {} steps done.", o.done, o.steps.size()) + movesWords(o);
    h.below += o.now.body == build::BodyPlace::On ? " It is on" : " It is off";
    h.below += fmt::format(", the frame {} on {}.",
                           o.now.attitude == Attitude::Inverted    ? "upside down"
                           : o.now.attitude == Attitude::OnItsSide ? "on its side"
                                                                   : "right way up",
                           word(o.now.support));
    return h;
}

Headline workHeadlineOf(const Build& b, const Results& r, SubjectId) { return workHeadline(b, r); }

/// The board with what stands behind it.
template <class F> auto onBoard(const Build& b, const Results& r, F&& draw) {
    std::vector<Awaited> awaited;
    for (const auto& [id, a] : b.awaited) awaited.push_back(a);
    return draw(work::BoardInput{&*r.work, &awaited, b.settings.name});
}

Drawing wall(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height, const Format& f) {
    return onBoard(b, r, [&](const work::BoardInput& in) { return work::boardSheet(in, width, std::max(height, f.px(360)), f); });
}

std::vector<Release> registerRows(const Build& b) {
    std::vector<Release> rows;
    for (const auto& [id, row] : b.releases) rows.push_back(row);
    return rows;
}

/// Where the register stands: what is still tied, what is not on again.
Headline registerHeadline(const Build& b, const Results&, SubjectId) {
    if (b.releases.empty())
        return {
            "Nothing is tagged yet.",
            "Tag whatever must be undone before the body is lifted or a part comes out, as you walk round it: a name, where it is, what it "
            "joins."};
    int tied = 0, unproved = 0, off = 0, loose = 0;
    for (const auto& [id, row] : b.releases) {
        tied += !row.released;
        unproved += row.released && !row.proved;
        off += row.released && row.fate != Fate::Scrap && !row.refitted;
        loose += row.refitted && row.torque_nm > 0 && !row.tightened;
    }
    const auto rows = units::counted(b.releases.size(), "a row");
    Headline h;
    h.sentence = tied       ? fmt::format("{} of {} still tied.", tied, rows)
                 : unproved ? fmt::format("All {} undone, {} not seen free on a second walk-round.", rows, unproved)
                 : off      ? fmt::format("All is free; {} of {} to go on again.", off, rows)
                 : loose    ? fmt::format("All is on again; {} to be tightened for good.", loose)
                            : fmt::format("All {} done up.", rows);
    h.below = "The body is not lifted before each row was undone and seen free once more on a walk-round of its own.";
    return h;
}

Drawing workViewOf(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                   const Format& f) {
    return workView(b, r, o, width, height, f);
}

void findingsOfWork(const Build& b, const Results& r, std::vector<Finding>& out) {
    addWorkFindings(b, r, out);
    addOwnFindings(b, r, out);
    addPlanFindings(b, r, out);
    for (Finding& f : keptCutFindings(b, r)) out.push_back(std::move(f));
}

void addWorkPages(const Build& b, const Results& r, std::vector<Drawing>& pages) {
    for (Drawing& page : workSheet(b, r)) pages.push_back(std::move(page));
    for (const auto& more : {registerPages(b, r), liftSheets(b, r), coatSheets(b, r), timeSheets(b, r), purchaseSheets(b, r),
                             clientSheets(b, r), photoSheets(b, r)})
        pages.insert(pages.end(), more.begin(), more.end());
}

/// One PDF of some pages, where there are any.
void keepPages(FileKeeper& out, const char* file, std::vector<Drawing> pages, const std::string& title, const char* what) {
    if (pages.empty()) return;
    numberPages(pages);
    out.keep(file, [&](const auto& to) { return writePdf(pages, {title, what}, to); });
}

void addWorkFiles(const Build& b, const Results& r, FileKeeper& out) {
    const std::string& name = b.settings.name;
    keepPages(out, "order-of-work.pdf", workSheet(b, r), "Order of work: " + name, "Gorvet order of work");
    if (workBegun(b, r)) {
        PageTitle title = titled(b, r, "The wall");
        title.paper = a3;
        out.keep("wall.pdf", [&](const auto& to) {
            return writePdf(onBoard(b, r, [&](const work::BoardInput& in) { return work::boardPage(in, title, {local_rules}); }),
                            {"The wall: " + b.settings.name, "Gorvet wall"}, to);
        });
    }
    keepPages(out, "register.pdf", registerPages(b, r), "Taken apart: " + name, "Gorvet register");
    if (!b.releases.empty()) out.keep("labels.pdf", [&](const auto& to) { return writeLabels(b, "70x37", 0, to); });
    keepPages(out, "lifts.pdf", liftSheets(b, r), "Lifts: " + name, "Gorvet lifts");
    keepPages(out, "coats.pdf", coatSheets(b, r), "Rust and coats: " + name, "Gorvet coats");
    keepPages(out, "time.pdf", timeSheets(b, r), "Time: " + name, "Gorvet time");
    if (const auto days = calendarOf(b, r); !days.empty())
        out.keep("time.ics", [&](const auto& to) { return formats::writeCalendar(days, name, r.schedule.input().today, to); });
    keepPages(out, "to-buy.pdf", purchaseSheets(b, r), "To be bought: " + name, "Gorvet purchase list");
    keepPages(out, "photos.pdf", photoSheets(b, r), "Photos: " + name, "Gorvet photos");
    keepPages(out, "for-the-owner.pdf", clientSheets(b, r), "For the owner: " + name, "Gorvet sheet for the owner");
}

} // namespace

std::vector<Drawing> registerPages(const Build& b, const Results& r) {
    return work::registerSheet(registerRows(b), titled(b, r, "Taken apart"), {local_rules});
}

Result<void> writeLabels(const Build& b, const std::string& stock, int first, const std::filesystem::path& to) {
    const work::LabelStock* labels = work::labelStock(stock);
    if (!labels) {
        std::string all;
        for (const work::LabelStock& s : work::labelStocks()) all += (all.empty() ? "" : ", ") + std::string(s.key);
        return Error{Error::Code::BadInput, stock, fmt::format("There are no labels of {}.", stock), "There are " + all + ".",
                     -1};
    }
    if (b.releases.empty())
        return Error{Error::Code::BadInput, "register", "Nothing is tagged yet.", "Tag it first: tag NAME.", -1};
    auto pages = work::labelSheets(registerRows(b), *labels, first);
    if (!pages) return pages.error();
    return writePdf(*pages, {"Labels: " + b.settings.name, "Gorvet labels"}, to);
}

std::vector<Drawing> workSheet(const Build& b, const Results& r) {
    if (!workBegun(b, r)) return {};
    return work::wallSheet(*r.work, b.settings.length_step, titled(b, r, "Order of work"), {local_rules, hot_work, stands});
}

extern const BenchInfo work_bench; // of the table
const BenchInfo work_bench{"work",
                           "Work",
                           "What next, and is it safe?",
                           "the order of work: what next, and is it safe",
                           workBegun,
                           workHeadlineOf,
                           nullptr,
                           {{"sheet", "The sheet", workViewOf},
                            {"wall", "The wall", wall},
                            {"order", "All steps", nullptr, {}, nullptr, orderList},
                            {"register", "Taken apart", nullptr, {}, registerHeadline, registerList},
                            {"lifts", "Lifts", liftDrawing, {}, liftHeadline},
                            {"coats", "Coats", nullptr, {}, coatHeadline, coatList},
                            {"time", "Time", timeDrawing, {}, timeHeadline},
                            {"owner", "The owner", clientDrawing, {slow::photos}, clientHeadline},
                            {"photos", "Photos", photoDrawing, {slow::photos}, photoHeadline},
                            {"all-photos", "All photos", nullptr, {}, photoHeadline, photoList},
                            {"buy", "To buy", nullptr, {slow::plates}, purchaseHeadline, purchaseList}},
                           findingsOfWork,
                           workCard,
                           addWorkPages,
                           addWorkFiles,
                           workJson,
                           &photo_nodes};

} // namespace gorvet::analysis
