#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"

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
        if (!s->waits_for.empty()) c.sentences.push_back((s->hold ? "It stays shut: " : "It waits: ") + s->waits_for + ".");
        if (s->no_return) c.sentences.emplace_back("There is no way back from here.");
        for (const std::string& b : s->before_return) c.sentences.push_back("– " + b);
        for (const std::string& caution : s->cautions) c.sentences.push_back("Caution: " + caution);
        if (s->status == work::Status::Done) {
            c.actions.push_back({"note", "done " + code + " note ", s->tick->note, true});
            c.actions.push_back(
                {s->tick->photo.empty() ? "add a photo" : "another photo", "done " + code + " photo ", "", false, true});
            c.actions.push_back({"not done after all", "undone " + code, "", false});
        } else if (s->open()) {
            c.actions.push_back({"done", "done " + code, "", false});
            c.actions.push_back({"done, with a note", "done " + code + " note ", "", true});
            c.actions.push_back({"done, with a photo", "done " + code + " photo ", "", false, true});
        }
        return c;
    }
};

} // namespace

std::optional<Card> workCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return WorkCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
