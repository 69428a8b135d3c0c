// Findings of jobs of one's own, of what is awaited, and of the register.
#include "analysis/work_facts.hpp"
#include "analysis/work_findings.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <map>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

/// Up to three names, and how many more.
std::string someOf(const std::vector<std::string>& names) {
    std::string text;
    for (size_t k = 0; k < names.size() && k < 3; ++k) text += (k ? ", " : "") + names[k];
    return names.size() > 3 ? fmt::format("{} and {} more", text, names.size() - 3) : text;
}

class OwnFindings {
public:
    OwnFindings(const Build& b, const Results& r, std::vector<Finding>& out) : b_(b), o_(*r.work), out_(out) {}

    void add() {
        for (const std::string& sentence : o_.apart)
            one(Severity::Warn, "work.asked-apart", "order of work", "Waiting", sentence,
                "Change what the job asks for: before, after, body on or off, way up, on what.", "job apart");
        jobs();
        awaited();
        registered();
        trialFit();
        idleAreas();
    }

private:
    template <class... Said> Finding& one(Said&&... said) { return addFinding(out_, std::forward<Said>(said)...); }

    void jobs() {
        for (const work::Step& s : o_.steps)
            if (s.failed && s.status != work::Status::Done)
                one(Severity::Warn, "work.again", s.title, work::statusWord(s.status),
                    fmt::format("\"{}\" was done and did not come off{}: it is to be done again.", s.title,
                                s.failed > 1 ? fmt::format(", {} times", s.failed) : ""),
                    "Find out why before it is done once more.", "again", "step:" + s.code);
    }

    void awaited() {
        for (const auto& [id, a] : b_.awaited) {
            const work::Step* s = o_.find(a.step);
            if (!s) s = o_.find("job-" + a.step);
            if (!s) {
                one(Severity::Warn, "work.awaited-for-nothing", a.name, "Waiting",
                    fmt::format("{} is awaited for \"{}\", and this build has no such step.", a.name, a.step),
                    "Say what waits for it: await " + a.name + " for STEP", a.name);
            } else if (a.arrived.empty() && a.ordered.empty()) {
                one(Severity::Warn, "work.not-ordered", a.name, "Waiting",
                    fmt::format("{} is not ordered yet, and \"{}\" waits for it.", a.name, s->title),
                    "Order it, and say when: await " + a.name + " for " + a.step + " ordered 2026-12-24", a.name + " not ordered",
                    "step:" + s->code);
            }
        }
    }

    void registered() {
        const work::Step* lift = firstLift(o_);
        std::vector<std::string> tied, unproved, off, loose, seized;
        for (const auto& [id, r] : b_.releases) {
            if (!r.released && r.frees.empty()) tied.push_back(r.name);
            if (r.released && !r.proved && r.frees.empty()) unproved.push_back(r.name);
            if (r.fate != Fate::Scrap && !r.refitted) off.push_back(r.name);
            if (r.refitted && r.torque_nm > 0 && !r.tightened) loose.push_back(r.name);
            if (r.seized && !r.soaked && !r.released) seized.push_back(r.name);
        }
        if (lift && b_.releases.empty())
            one(Severity::Warn, "work.register-empty", "register", "Waiting",
                "Nothing is tagged that ties the body to the frame: what is not in the register is forgotten with the body in the air.",
                "Walk round and tag each: tag earth-left cable area engine bay, or begin with jobs cab-off.", "nothing tagged");
        const bool next_is_lift = lift && o_.next && &o_.steps[*o_.next] == lift;
        if (next_is_lift && !(tied.empty() && unproved.empty()))
            one(Severity::Bad, "work.still-tied", "lift", "Hold point",
                tied.empty()
                    ? fmt::format("{} not seen free on a second walk-round: {}. The body stays on.",
                                  counted(unproved, "row was", "rows were"), someOf(unproved))
                    : fmt::format("{} still tied: {}. The body stays on.", counted(tied, "row is", "rows are"), someOf(tied)),
                tied.empty() ? "Walk round once more, hand on each: proved NAME." : "Undo each, and say so: untied NAME.",
                fmt::format("{} tied", tied.size() + unproved.size()), "step:" + lift->code)
                .figure = std::to_string(tied.size() + unproved.size());
        if (!seized.empty())
            one(Severity::Warn, "work.seized", "register", "Waiting",
                fmt::format("Seized and not soaked yet: {}.", someOf(seized)), "Soak each days before: soaked NAME.", "seized");
        const work::Step* end = o_.find("approval");
        const bool at_the_end = !o_.next || (end && end->status != work::Status::Waiting) ||
                                (o_.find("connect") && o_.find("connect")->status == work::Status::Done);
        if (at_the_end && !off.empty())
            one(Severity::Bad, "work.left-over", "register", "Waiting",
                fmt::format("{} never on again: {}.", counted(off, "row is", "rows are"), someOf(off)),
                "Fit each, or say that it is scrapped: refit NAME, or tag NAME fate scrap.",
                fmt::format("{} left over", off.size()));
        if (at_the_end && !loose.empty())
            one(Severity::Bad, "work.loose", "register", "Waiting",
                fmt::format("{} on, and not tightened for good: {}.", counted(loose, "row is", "rows are"), someOf(loose)),
                "With the weight on its wheels where it says so: torqued NAME.", fmt::format("{} loose", loose.size()));
    }
    /// The body is off, something is welded, and paint goes on before it was ever set down again to see whether all meets.
    void trialFit() {
        bool off = false, tried = false;
        const work::Step* welded = nullptr;
        for (const work::Step& s : o_.steps) {
            const bool is_off = s.stance.body == BodyPlace::Off;
            off = off || is_off;
            const bool trial =
                s.code == "trial-sit" || s.code == "set-on" || (s.job && (s.kind == JobKind::Fit || s.kind == JobKind::Measure));
            if (off && welded && !is_off && trial) tried = true;
            if (off && is_off && s.hot && !tried) welded = &s;
            if (!off || !welded || tried || s.kind != JobKind::Paint || s.status == work::Status::Done || !s.job) continue;
            const Job& paint = b_.jobs.at(s.job);
            one(Severity::Warn, "work.trial-fit", s.title, "Marginal",
                fmt::format(
                    "\"{}\" comes after \"{}\", and nobody has set the body down in between to see whether it still meets.",
                    s.title, welded->title),
                fmt::format(
                    "Ask for a trial fit before it is painted: job trial-fit does set the body down and look at every gap kind fit people 2 body-on after {} before {}.",
                    welded->code, paint.name),
                "trial fit", "step:" + s.code);
            return;
        }
    }

    /// Areas that were begun and then left, while work went on elsewhere.
    void idleAreas() {
        std::map<std::string, int> touched; ///< the last day
        int newest = 0;
        const auto touch = [&](const std::string& area, const std::optional<int>& day) {
            if (area.empty() || !day) return;
            int& last = touched[area];
            last = std::max(last, *day);
            newest = std::max(newest, *day);
        };
        const auto dayIn = [](const std::string& at) { return units::dayOf(at.substr(0, 10)); };
        for (const work::Step& s : o_.steps) {
            if (s.tick) touch(s.area, dayIn(s.tick->at_utc));
            for (const auto& [id, w] : b_.worked)
                if (w.step == s.code) touch(s.area, units::dayOf(w.day));
        }
        for (const auto& [id, r] : b_.releases)
            for (const auto* state : {&r.released, &r.refitted, &r.soaked})
                if (*state) touch(r.area, dayIn((*state)->at_utc));
        for (const auto& [id, p] : b_.photos)
            if (!p.struck) touch(p.area, dayIn(p.kept.at_utc));
        constexpr int idle_days = 14, lately_days = 7;
        const int today = units::today();
        if (today - newest > lately_days) return; // nothing is done at all: another matter
        std::vector<std::string> areas;
        const work::Step* step = nullptr;
        for (const auto& [area, last] : touched) {
            if (today - last < idle_days) continue;
            for (const work::Step& s : o_.steps)
                if (s.area == area && s.status == work::Status::Ready && s.open()) {
                    areas.push_back(fmt::format("{} (since {})", area, units::isoDate(last)));
                    if (!step) step = &s;
                    break;
                }
        }
        if (areas.empty()) return;
        one(Severity::Warn, "work.area-idle", areas.front(), "Waiting",
            fmt::format("Begun, and left for two weeks or more while work went on elsewhere: {}.", someOf(areas)),
            fmt::format("Do one small thing there this week, or it is forgotten: \"{}\" can be done now.", step->title),
            "left alone", "step:" + step->code);
    }

    static std::string counted(const std::vector<std::string>& rows, const char* one, const char* many) {
        return fmt::format("{} {}", rows.size(), rows.size() == 1 ? one : many);
    }

    const Build& b_;
    const work::Order& o_;
    std::vector<Finding>& out_;
};

} // namespace

void addOwnFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    if (workBegun(b, r)) OwnFindings(b, r, out).add();
}

} // namespace gorvet::analysis
