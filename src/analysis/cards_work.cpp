#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/work_facts.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

class WorkCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> make(const Tag& tag) {
        if (tag.kind == "step") return step(tag.rest);
        if (tag.kind == "tag") return tagged(tag.rest);
        if (tag.kind == "lift") return liftCard(b_, r_, tag.rest);
        if (tag.kind == "surface") return surfaceCard(b_, tag.rest);
        if (tag.kind == "photo") return photoCard(b_, tag.rest);
        if (tag.kind == "stock") return stockCard(b_, r_, tag.rest);
        if (tag.kind == "decision") return decisionCard(b_, r_, tag.rest);
        return std::nullopt;
    }

private:
    std::optional<Card> step(const std::string& code) {
        const work::Step* s = r_.work->find(code);
        if (!s) return std::nullopt;
        Card c;
        c.title = s->title;
        c.word = work::statusWord(s->status);
        c.severity = s->status == work::Status::Done                      ? Severity::Good
                     : s->status == work::Status::HoldPoint && !s->open() ? Severity::Bad
                     : s->status == work::Status::Waiting                 ? Severity::Warn
                                                                          : Severity::Good;
        if (s->body) c.rows.push_back({"body", *s->body == BodyPlace::On ? "on" : "off", Mark::None, false});
        if (s->support) c.rows.push_back({"on", std::string(word(*s->support)), Mark::None, false});
        if (s->job)
            own(*s, c);
        else if (s->likely_h > 0)
            c.rows.push_back({"hours", hours(*s), Mark::None, false});
        when(code, c);
        if (s->attitude)
            c.rows.push_back({"frame", *s->attitude == Attitude::Inverted ? "upside down" : "right way up", Mark::None, false});
        for (const work::CheckItem& check : s->checks)
            c.rows.push_back({check.name,
                              fmt::format("{} ± {}{}", len(check.plan_mm), small(check.tolerance_mm),
                                          check.read_mm ? ", read " + small(*check.read_mm) : ", not read"),
                              Mark::Derived, check.read_mm && !check.agrees()});
        if (s->tick) {
            c.rows.push_back({"ticked by", s->tick->who, Mark::None, false});
            c.rows.push_back({"on", s->tick->at_utc.substr(0, 10), Mark::None, false});
            if (!s->tick->photo.empty()) c.rows.push_back({"photo", "kept, " + s->tick->photo.substr(0, 8), Mark::None, false});
            if (!s->tick->note.empty()) c.sentences.push_back(s->tick->note);
            c.journal_table = "tick";
            c.journal_id = s->tick->id.value;
        }
        if (!s->why.empty()) c.sentences.push_back(s->why);
        if (s->status != work::Status::Done && !s->because.empty()) c.sentences.push_back(s->because);
        if (!s->waits_for.empty()) c.sentences.push_back((s->hold ? "It stays shut: " : "It waits: ") + s->waits_for + ".");
        if (s->no_return) c.sentences.emplace_back("There is no way back from here.");
        for (const std::string& b : s->before_return) c.sentences.push_back("– " + b);
        for (const std::string& caution : s->cautions) c.sentences.push_back("Caution: " + caution);
        if (s->status == work::Status::Done) {
            c.actions.push_back({"note", "done " + code + " note ", s->tick->note, true});
            c.actions.push_back({"not done after all", "undone " + code, "", false});
            c.actions.push_back({"it did not come off", "failed " + code + " ", "", true});
        } else if (s->open()) {
            if (s->hot) permit(code, c);
            // what burns is ticked with its permit, or with a note why there was none
            const bool bare = s->hot && !permitted(b_, code);
            if (!bare) c.actions.push_back({"done", "done " + code, "", false});
            c.actions.push_back(
                {bare ? "done without a permit, because" : "done, with a note", "done " + code + " note ", "", true});
            if (!bare) c.actions.push_back({"done, with a photo", "done " + code + " photo ", "", false, true});
        }
        photos(c, {s->area, code, "", s->status == work::Status::Done ? Stage::After : Stage::Unsaid, ""});
        if (!s->moves_to || s->status != work::Status::Done)
            c.actions.push_back({"hours worked", "worked " + code + " ", "", true});
        if (s->status != work::Status::Done)
            c.actions.push_back({"hours it takes", "hours " + code + " ", s->likely_h > 0 ? hours(*s) : "", true});
        if (s->job && s->status != work::Status::Done) {
            const std::string name = code.substr(4);
            c.actions.push_back({"after", "job " + name + " after ", "", true});
            c.actions.push_back({"remove the job", "remove job " + name, "", false});
        }
        return c;
    }

    void photos(Card& c, const PhotoAbout& about) const { addPhotos(c, b_, about); }

    /// What comes next of a permit for hot work.
    void permit(const std::string& code, Card& c) {
        const Permit* open = nullptr;
        for (const auto& [id, p] : b_.permits)
            if (p.step == code && !p.watched) open = &p;
        if (!open) return c.actions.push_back({"permit it, with a watch", "permit " + code + " watch ", "", true});
        c.rows.push_back({"fire watch", open->watch, Mark::None, false});
        c.actions.push_back({open->ended ? "the watch is over" : "the last spark is out",
                             (open->ended ? "watched " : "sparks-out ") + code, "", false});
    }

    static std::string hours(const work::Step& s) {
        return s.least_h > 0 ? fmt::format("{:g} {:g} {:g}", s.least_h, s.likely_h, s.most_h) : fmt::format("{:g}", s.likely_h);
    }
    /// The days that it may be done on, and the hours worked on it.
    void when(const std::string& code, Card& c) {
        double worked = 0;
        for (const auto& [id, w] : b_.worked)
            if (w.step == code) worked += w.hours;
        if (worked > 0) c.rows.push_back({"worked", fmt::format("{:g} h", worked), Mark::None, false});
        const auto& tasks = r_.schedule.input().tasks;
        for (size_t i = 0; i < tasks.size() && !r_.schedule->never; ++i)
            if (tasks[i].code == code && tasks[i].likely_h > 0 && i < r_.schedule->tasks.size())
                c.rows.push_back({"may be done", work::dayWords(r_.schedule->tasks[i].finish.p50), Mark::Assumed, false});
    }
    /// What a job says of itself.
    static void own(const work::Step& s, Card& c) {
        c.rows.push_back({"kind", std::string(word(s.kind)), Mark::None, false});
        const auto row = [&](const char* label, const std::string& text) {
            if (!text.empty()) c.rows.push_back({label, text, Mark::None, false});
        };
        row("area", s.area);
        if (s.likely_h > 0) row("hours", hours(s));
        if (s.rest_h > 0) row("left alone after", fmt::format("{:g} h", s.rest_h));
        if (s.people > 1) row("people", fmt::format("{:g}", s.people));
        row("wanted", s.wanted);
        row("closes", s.closes);
        row("inside", s.inside);
        if (s.failed) row("failed before", s.failed == 1 ? "once" : fmt::format("{} times", s.failed));
    }

    std::optional<Card> tagged(const std::string& name) {
        const Release* r = releaseNamed(b_, name);
        if (!r) return std::nullopt;
        Card c;
        c.title = name;
        const bool scrapped = r->fate == Fate::Scrap;
        c.word = !r->released   ? "tied"
                 : !r->proved   ? "undone"
                 : r->tightened ? "done up"
                 : r->refitted  ? "on again"
                 : scrapped     ? "scrapped"
                                : "free";
        c.severity = !r->released ? Severity::Warn : Severity::Good;
        const auto row = [&](const char* label, const std::string& text) {
            if (!text.empty()) c.rows.push_back({label, text, Mark::None, false});
        };
        const auto who = [](const std::optional<Signed>& s) {
            return s ? s->who + ", " + s->at_utc.substr(0, 10) : std::string();
        };
        if (r->kind != ReleaseKind::Other) row("kind", std::string(word(r->kind)));
        row("area", r->area);
        row("joins", r->joins);
        row("cap or plug", r->cap);
        row("bag", r->bag.empty() ? name : r->bag);
        row("must be undone for", r->frees.empty() ? "lifting the body" : r->frees);
        if (r->torque_nm > 0) row("torque", fmt::format("{:g} N·m", r->torque_nm));
        row("fastener", r->renew ? "renew" : "");
        row("nut", r->captive ? "held in the part" : "");
        row("seized", r->seized ? (r->soaked ? "soaked " + who(r->soaked) : "not soaked yet") : "");
        if (const auto until = soaksUntil(*r)) row("soaks until", units::isoTime(*until).substr(0, 16) + " UTC");
        row("undone", who(r->released));
        row("seen free", who(r->proved));
        row("on again", who(r->refitted));
        row("tightened", who(r->tightened));
        if (!r->how.empty()) c.sentences.push_back("How: " + r->how + ".");
        if (r->on_wheels) c.sentences.emplace_back("It is tightened for good only when the weight is on its wheels.");
        if (scrapped) c.sentences.emplace_back("The part is scrapped: it may be cut off.");
        if (!r->note.empty()) c.sentences.push_back(r->note);
        if (!r->released) {
            c.actions.push_back({"undone", "untied " + name, "", false});
            if (r->seized) c.actions.push_back({"soaked", "soaked " + name, "", false});
        } else if (!r->proved) {
            c.actions.push_back({"seen free once more", "proved " + name, "", false});
            c.actions.push_back({"not undone after all", "tied " + name, "", false});
        }
        if (r->released && !r->refitted && !scrapped) c.actions.push_back({"on again", "refit " + name, "", false});
        if (r->refitted && !r->tightened) c.actions.push_back({"tightened for good", "torqued " + name, "", false});
        c.actions.push_back({"how", "tag " + name + " how ", r->how, true});
        c.actions.push_back({"bag", "tag " + name + " bag ", r->bag, true});
        photos(c, {r->area, "", name, r->released ? Stage::Unsaid : Stage::Before, ""});
        c.actions.push_back({"remove the row", "remove tag " + name, "", false});
        c.journal_table = "release";
        c.journal_id = r->id.value;
        return c;
    }
};

} // namespace

void addPhotos(Card& c, const Build& b, const PhotoAbout& about) {
    std::string names;
    int count = 0;
    for (const auto& [id, p] : b.photos)
        if (!p.struck && ((!about.step.empty() && p.step == about.step) || (!about.part.empty() && p.part == about.part))) {
            if (++count <= 3) names += (names.empty() ? "" : ", ") + p.name;
        }
    if (count)
        c.rows.push_back({"photos", count > 3 ? fmt::format("{} and {} more", names, count - 3) : names, Mark::None, false});
    CardAction add{"add photos", "", "", false};
    add.photo = about;
    c.actions.push_back(std::move(add));
}

std::optional<Card> workCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return WorkCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
