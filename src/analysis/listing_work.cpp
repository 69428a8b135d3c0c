// The order of work and the register in rows.
#include "analysis/listing_cells.hpp"

namespace gorvet::analysis {

using namespace build;

namespace {

std::string needs(const work::Step& s) {
    std::string text;
    const auto add = [&](const std::string& what) { text += (text.empty() ? "" : ", ") + what; };
    if (s.body) add(*s.body == BodyPlace::On ? "body on" : "body off");
    if (s.attitude && *s.attitude != Attitude::RightWayUp) add(*s.attitude == Attitude::Inverted ? "upside down" : "on its side");
    if (s.support) add("on " + std::string(word(*s.support)));
    return text;
}

ListCell when(const std::optional<Signed>& s) { return s ? words(s->at_utc.substr(0, 10) + " " + s->who) : words(""); }

} // namespace

Listing orderList(const Build&, const Results& r, SubjectId) {
    Listing list{{"place", "step", "stands", "needs", "area", "kind", "hours", "people", "why there"}, 6, "step", {}};
    const work::Order& o = *r.work;
    for (size_t i = 0; i < o.steps.size(); ++i) {
        const work::Step& s = o.steps[i];
        ListRow row;
        row.cells = {number(std::to_string(i + 1), static_cast<double>(i + 1)),
                     words(s.title + (s.failed ? ": again" : "")),
                     words(work::statusWord(s.status)),
                     words(needs(s)),
                     words(s.area),
                     words(s.job   ? std::string(word(s.kind))
                           : s.hot ? "hot"
                                   : ""),
                     s.likely_h > 0 ? number(s.least_h > 0 ? fmt::format("{:g} {:g} {:g}", s.least_h, s.likely_h, s.most_h)
                                                           : fmt::format("{:g}", s.likely_h),
                                             s.likely_h)
                                    : words(""),
                     s.people > 1 ? number(fmt::format("{:g}", s.people), s.people) : words(""),
                     words(s.because)};
        row.tag = "step:" + s.code;
        row.line = "hours " + s.code + " ";
        if (s.status == work::Status::HoldPoint && !s.open())
            row.severity = sheet::Severity::Bad;
        else if (s.failed && s.status != work::Status::Done)
            row.severity = sheet::Severity::Warn;
        list.rows.push_back(std::move(row));
    }
    return list;
}

Listing registerList(const Build& b, const Results&, SubjectId) {
    Listing list{
        {"tag", "area", "undone", "seen free", "joins", "how", "on again", "torque", "tightened", "frees", "kind", "bag"},
        7,
        "row",
        {}};
    for (const auto& [id, r] : b.releases) {
        ListRow row;
        row.cells = {words(r.name),
                     words(r.area),
                     when(r.released),
                     when(r.proved),
                     words(r.joins),
                     words(r.how + (r.seized ? (r.how.empty() ? "seized" : ", seized") : "")),
                     r.fate == Fate::Scrap ? words("scrapped") : when(r.refitted),
                     r.torque_nm > 0 ? number(fmt::format("{:g}", r.torque_nm), r.torque_nm) : words(""),
                     when(r.tightened),
                     words(r.frees.empty() ? "the body" : r.frees),
                     words(r.kind == ReleaseKind::Other ? "" : std::string(word(r.kind))),
                     words(r.bag)};
        row.tag = "tag:" + r.name;
        row.line = "tag " + r.name + " torque ";
        if (!r.released) row.severity = sheet::Severity::Warn;
        list.rows.push_back(std::move(row));
    }
    return list;
}

} // namespace gorvet::analysis
