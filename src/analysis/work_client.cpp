// Whom the car belongs to: where the work stands, what is decided.
#include "analysis/pages.hpp"
#include "analysis/work_facts.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

#include <map>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

work::ClientInput clientInput(const Build& b, const Results& r) {
    work::ClientInput in;
    in.order = &*r.work;
    in.finish = finishWords(b, r);
    std::map<std::string, double, std::greater<>> days;
    for (const auto& [id, w] : b.worked) {
        days[w.day] += w.hours;
        in.hours += w.hours;
    }
    in.days.assign(days.begin(), days.end());
    for (const auto& [id, d] : b.decisions) {
        work::DecisionAsked q;
        q.decision = d;
        for (const auto& [choice_id, c] : b.choices)
            if (c.decision == id) q.choices.push_back(c);
        const work::Step* s = d.step.empty() ? nullptr : r.work->find(d.step);
        if (!s && !d.step.empty()) s = r.work->find("job-" + d.step);
        q.step = s ? s->title : d.step;
        const Job* found = jobNamed(b, d.because);
        q.because = found ? fmt::format("{} (found {})", found->title.empty() ? found->name : found->title,
                                        found->found ? found->found->at_utc.substr(0, 10) : "on the way")
                          : d.because;
        if (d.change) q.photos = changePhotos(b, r, d);
        in.decisions.push_back(std::move(q));
    }
    for (const auto& [id, a] : b.awaited)
        if (a.arrived.empty())
            in.waits.push_back(fmt::format("{}{}: {}", a.name, a.supplier.empty() ? "" : " from " + a.supplier,
                                           a.ordered.empty() ? "not ordered yet" : "ordered " + a.ordered));
    return in;
}

Headline clientHeadline(const Build& b, const Results&, SubjectId) {
    int open = 0, agreed = 0;
    for (const auto& [id, d] : b.decisions) {
        open += !d.agreed && !d.struck;
        agreed += d.agreed && !d.struck;
    }
    Headline h;
    h.sentence = open     ? fmt::format("{} to be decided.", units::counted(static_cast<std::size_t>(open), "a question"))
                 : agreed ? fmt::format("All is decided: {}.", units::counted(static_cast<std::size_t>(agreed), "an agreement"))
                          : "Nothing is asked.";
    h.below =
        "What is agreed to stays as it is then; what changes later is a decision of its own. Nothing is deleted, only struck out.";
    return h;
}

sheet::Drawing clientDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                             const sheet::Format& f) {
    return work::clientSheet(clientInput(b, r), width, height, f);
}

std::vector<sheet::Drawing> clientSheets(const Build& b, const Results& r) {
    if (!workBegun(b, r)) return {};
    return work::clientPages(clientInput(b, r), titled(b, r, "For the owner"),
                             {local_rules, "What is agreed changes prices and dates, never what safety asks for."});
}

std::optional<Card> decisionCard(const Build& b, const Results&, const std::string& name) {
    const Decision* d = decisionNamed(b, name);
    if (!d) return std::nullopt;
    Card c;
    c.title = d->asks;
    if (d->change) c.rows.push_back({"change", "what was agreed before is changed", Mark::None, false});
    if (!d->because.empty()) c.rows.push_back({"because", d->because, Mark::None, false});
    c.word = d->struck ? "struck out" : d->agreed ? "agreed" : "open";
    c.severity = d->agreed || d->struck ? Severity::Good : Severity::Warn;
    for (const auto& [id, choice] : b.choices)
        if (choice.decision == d->id)
            c.rows.push_back({choice.name,
                              fmt::format("{}{:+g}{}", choice.what.empty() ? "" : choice.what + ", ", choice.price,
                                          choice.hours != 0 ? fmt::format(", {:+g} h", choice.hours) : ""),
                              Mark::None, false});
    if (!d->wanted.empty()) c.rows.push_back({"wanted by", d->wanted, Mark::None, false});
    if (d->agreed) {
        c.rows.push_back({"agreed", d->chosen, Mark::None, false});
        c.rows.push_back({"by", d->agreed->who, Mark::None, false});
        c.rows.push_back({"on", d->agreed->at_utc.substr(0, 10), Mark::None, false});
    }
    if (d->struck) c.rows.push_back({"struck out by", d->struck->who, Mark::None, false});
    if (!d->note.empty()) c.sentences.push_back(d->note);
    if (!d->agreed && !d->struck) {
        for (const auto& [id, choice] : b.choices)
            if (choice.decision == d->id)
                c.actions.push_back({"agreed: " + choice.name, "agreed " + name + " " + choice.name + " by ", "", true});
        c.actions.push_back({"another choice", "choice " + name + " ", "", true});
    }
    if (!d->struck) c.actions.push_back({"strike out", "strike " + name, "", false});
    c.journal_table = "decision";
    c.journal_id = d->id.value;
    return c;
}

} // namespace gorvet::analysis
