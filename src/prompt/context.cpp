#include "prompt/context.hpp"

#include "analysis/issued.hpp"

namespace gorvet::prompt {

entry::Context contextFor(const analysis::Results& r, build::SubjectId subject, const std::string& who,
                          const std::string& now_utc) {
    entry::Context c;
    c.subject = subject;
    c.who = who;
    c.now_utc = now_utc;
    const auto& survey = r.of(subject);
    for (size_t i = 0; i < survey.solution->readings.size(); ++i)
        if (survey.solution->readings[i].verdict == tape::Verdict::Retape) c.to_retape.push_back(survey.reading_ids[i]);
    c.knows_work = true;
    for (const work::Step& s : r.work->steps) {
        entry::StepState state{s.code, s.title, s.waits_for, s.status == work::Status::Done, s.hot, {}};
        for (const work::CheckItem& item : s.checks)
            state.checks.push_back(
                {item.from, item.to, item.gap_of, item.level ? build::ReadingKind::Level : build::ReadingKind::Tape});
        c.steps.push_back(std::move(state));
    }
    c.support = r.work->now.support;
    if (r.work->next) c.next_step = r.work->steps[*r.work->next].code;
    return c;
}

void letIssue(entry::Context& c, const build::Build& b, const analysis::Results& r) {
    c.drawn = [&b, &r] { return analysis::drawnNow(b, r); };
}

} // namespace gorvet::prompt
