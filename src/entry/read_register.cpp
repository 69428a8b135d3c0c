// The register of what is taken apart.
#include "entry/reader.hpp"
#include "units/dates.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace follows {
namespace {

bool freed(const Reader& r, const Word* next) { return next && (next->text == "body" || step(r, next)); }
/// A word that says it all by itself: nothing, or another such, comes behind it.
bool another(const Reader&, const Word* next) {
    static constexpr std::string_view words[] = {"area",      "joins",      "how",   "cap",    "bag",
                                                 "frees",     "torque",     "soaks", "seized", "captive",
                                                 "on-wheels", "renew-bolt", "fate",  "photo",  "note"};
    return !next || std::find(std::begin(words), std::end(words), next->text) != std::end(words);
}

} // namespace
} // namespace follows

void Reader::tag() {
    const Word w = line_.next("the name on its tag");
    const Release* old = releaseNamed(b_, w.text);
    Release r = old ? *old : Release{};
    if (!old) {
        r.id = fresh<Release>();
        r.name = w.text;
        // where the last one was: they come by area
        if (!b_.releases.empty()) r.area = b_.releases.rbegin()->second.area;
    }
    static constexpr Option options[] = {{"area"},
                                         {"joins"},
                                         {"how"},
                                         {"cap"},
                                         {"bag"},
                                         {"frees", follows::freed},
                                         {"torque", follows::figure},
                                         {"soaks", follows::figure},
                                         {"seized", follows::another},
                                         {"captive", follows::another},
                                         {"on-wheels"},
                                         {"renew-bolt"},
                                         {"fate", follows::one<Fate>},
                                         {"photo"},
                                         {"note"}};
    if (!line_.atEnd())
        if (const auto kind = fromWord<ReleaseKind>(line_.peek().text)) {
            r.kind = *kind;
            line_.next("its kind");
        }
    while (!line_.atEnd()) {
        if (line_.take("area")) {
            r.area = textUpTo(options);
        } else if (line_.take("joins")) {
            r.joins = textUpTo(options);
        } else if (line_.take("how")) {
            r.how = textUpTo(options);
        } else if (line_.take("cap")) {
            r.cap = textUpTo(options);
        } else if (line_.take("bag")) {
            r.bag = textUpTo(options);
        } else if (line_.take("frees")) {
            r.frees = line_.take("body") ? "" : stepNext("the step that it must be undone for");
        } else if (line_.take("torque")) {
            r.torque_nm = plainNumber("newton metres");
        } else if (line_.take("soaks")) {
            r.soak_h = plainNumber("hours");
            r.seized = true;
        } else if (line_.take("seized")) {
            r.seized = true;
        } else if (line_.take("captive")) {
            r.captive = true;
        } else if (line_.take("on-wheels")) {
            r.on_wheels = true;
        } else if (line_.take("renew-bolt")) {
            r.renew = true;
        } else if (line_.take("fate")) {
            r.fate = oneOf<Fate>("what becomes of it");
        } else if (line_.take("photo")) {
            r.photo = line_.next("the photo's hash").text;
        } else if (line_.take("note")) {
            r.note = line_.rest().text;
        } else {
            notKnownHere("Like: tag earth-left cable area engine bay joins engine to bulkhead torque 20.");
        }
    }
    put(Put<Release>{r});
    say(fmt::format("{} {} {}{}{}", old ? "change the tag of" : "tag",
                    r.kind == ReleaseKind::Other ? "" : std::string(word(r.kind)), r.name, r.area.empty() ? "" : ", " + r.area,
                    r.joins.empty() ? "" : ", " + r.joins));
}

/// Rows that the next words name; "all" for all of the last row's area, or of the area that follows.
std::vector<Release> Reader::tagged() {
    std::vector<Release> rows;
    if (line_.atEnd()) throw Failure{line_.endColumn(), "The name on the tag is missing.", ""};
    if (line_.take("area")) {
        const Word area = line_.rest();
        for (const auto& [id, row] : b_.releases)
            if (row.area == area.text) rows.push_back(row);
        if (rows.empty()) throw Failure{area.column, fmt::format("Nothing is tagged in the area {}.", area.text), ""};
        return rows;
    }
    while (!line_.atEnd()) {
        const Word w = line_.next("the name on the tag");
        const Release* row = releaseNamed(b_, w.text);
        if (!row)
            throw Failure{w.column, fmt::format("Nothing is tagged {}.", w.text), fmt::format("Tag it first: tag {}", w.text)};
        rows.push_back(*row);
    }
    return rows;
}

void Reader::openRow() {
    const Word w = line_.next("the name on the tag");
    const Release* row = releaseNamed(b_, w.text);
    if (!row) throw Failure{w.column, fmt::format("Nothing is tagged {}.", w.text), fmt::format("Tag it first: tag {}", w.text)};
    out_.opens = "tag:" + row->name;
    out_.echo =
        fmt::format("{}{}{}", row->name, row->area.empty() ? "" : ", " + row->area, row->released ? ", undone" : ", tied");
}

void Reader::tagState() {
    const std::optional<Signed> now = Signed{context_.who, context_.now_utc};
    std::vector<Release> rows = tagged();
    int changed = 0;
    for (Release& r : rows) {
        const Release before = r;
        if (command_ == "untied") {
            if (!r.released) r.released = now;
        } else if (command_ == "tied") {
            r.released.reset();
            r.proved.reset();
        } else if (command_ == "proved") {
            if (!r.released)
                throw Failure{0, fmt::format("{} is not undone yet: there is nothing to prove.", r.name),
                              "Type: untied " + r.name};
            const auto then = units::secondsOf(r.released->at_utc), here = units::secondsOf(context_.now_utc);
            constexpr long long walk_round_s = 60;
            if (r.released->who == context_.who && then && here && *here - *then < walk_round_s)
                throw Failure{0, fmt::format("{} was undone just now by the same person.", r.name),
                              "The second look is a walk-round of its own: a minute later at the least, or by someone else."};
            if (!r.proved) r.proved = now;
        } else if (command_ == "soaked") {
            r.seized = true;
            r.soaked = now;
        } else if (command_ == "refit") {
            if (r.fate == Fate::Scrap)
                throw Failure{0, fmt::format("{} is scrapped.", r.name), fmt::format("Type: tag {} fate keep", r.name)};
            if (!r.released) r.released = now;
            r.refitted = now;
        } else if (command_ == "torqued") {
            if (!r.refitted) throw Failure{0, fmt::format("{} is not on again yet.", r.name), "Type: refit " + r.name};
            r.tightened = now;
            if (r.on_wheels && context_.knows_work && context_.support != Support::Wheels)
                out_.doubt =
                    fmt::format("{} is tightened with the weight on its wheels, and by the order of work it stands on {}", r.name,
                                word(context_.support));
        }
        if (r == before) continue;
        ++changed;
        put(Put<Release>{r});
    }
    if (!changed) throw Failure{0, "It stands so already.", ""};
    std::string names;
    for (size_t k = 0; k < rows.size() && k < 4; ++k) names += (k ? ", " : "") + rows[k].name;
    if (rows.size() > 4) names += fmt::format(" and {} more", rows.size() - 4);
    const char* what = command_ == "untied"   ? "undone"
                       : command_ == "tied"   ? "not undone after all"
                       : command_ == "proved" ? "seen free once more"
                       : command_ == "soaked" ? "soaked"
                       : command_ == "refit"  ? "on again"
                                              : "tightened for good";
    say(fmt::format("{}: {}", what, names));
}

} // namespace gorvet::entry
