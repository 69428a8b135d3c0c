// Findings of time, lifts, decisions, coats and permits.
#include "analysis/work_facts.hpp"
#include "analysis/work_findings.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

#include <algorithm>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class PlanFindings {
public:
    PlanFindings(const Build& b, const Results& r, std::vector<Finding>& out) : b_(b), r_(r), out_(out) {}

    void add() {
        time();
        parts();
        lifts();
        decisions();
        coats();
        permits();
    }

private:
    template <class... Said> Finding& one(Said&&... said) { return addFinding(out_, std::forward<Said>(said)...); }

    void time() {
        const work::Schedule& s = *r_.schedule;
        const work::ScheduleInput& in = r_.schedule.input();
        const bool said = !s.never && s.unsaid < in.tasks.size();
        if (!said) return;
        constexpr double even = 0.5, likely = 0.9, risk = 0.2;
        if (in.wanted && s.by_wanted < likely)
            one(s.by_wanted < even ? Severity::Bad : Severity::Warn, "work.late", "finish",
                s.by_wanted < even ? "Fails" : "Marginal",
                fmt::format("It is wanted by {}; {:.0f} of 100 ways that it may go are done by then.", work::dayWords(*in.wanted),
                            100 * s.by_wanted),
                "More hours, less work, or another date: the steps that hold the end up are filled on Time.", "late")
                .figure = fmt::format("{:.0f} %", 100 * s.by_wanted);
        for (std::size_t i = 0; i < in.tasks.size(); ++i)
            if (in.tasks[i].wanted && s.tasks[i].late > risk)
                one(s.tasks[i].late > even ? Severity::Bad : Severity::Warn, "work.step-late", in.tasks[i].title,
                    s.tasks[i].late > even ? "Fails" : "Marginal",
                    fmt::format("\"{}\" is wanted by {}; in {:.0f} of 100 ways it is later.", in.tasks[i].title,
                                work::dayWords(*in.tasks[i].wanted), 100 * s.tasks[i].late),
                    "Do it earlier, or say another date.", "late", "step:" + in.tasks[i].code);
        if (s.unsaid)
            one(Severity::Warn, "work.hours-unsaid", "time", "Waiting",
                fmt::format("{} of {} steps have no hours: the end is counted without them, and will be later.", s.unsaid,
                            in.tasks.size()),
                "Say what each takes; a guess of three figures will do: hours STEP 1 2 4.", "hours unsaid");
    }

    void parts() {
        const work::ScheduleInput& in = r_.schedule.input();
        if (r_.schedule->never) return;
        for (std::size_t p = 0; p < in.parts.size(); ++p) {
            const auto by = r_.schedule->parts[p].order_by;
            constexpr int soon = 14;
            if (!by || in.parts[p].likely_days <= 0 || *by > in.today + soon) continue;
            const bool past = *by < in.today;
            if (in.parts[p].soaks) {
                const std::string name = in.parts[p].name.substr(std::string_view("soak ").size());
                one(Severity::Warn, "work.soak-by", name, "Marginal",
                    fmt::format("{} is seized: soak it {}: {:.0f} h later it can be tried.", name,
                                past || *by == in.today ? std::string("today") : "by " + work::dayWords(*by),
                                24 * in.parts[p].likely_days),
                    "Wire brush, penetrating oil, and say so: soaked " + name + ". The oil burns: nothing hot near it.", "soak",
                    "tag:" + name);
                continue;
            }
            one(past ? Severity::Bad : Severity::Warn, "work.order-by", in.parts[p].name, past ? "Fails" : "Marginal",
                past ? fmt::format("{} should have been ordered by {}: what waits for it may wait.", in.parts[p].name,
                                   work::dayWords(*by))
                     : fmt::format("Order {} by {}: it then holds nothing up in 90 of 100 ways.", in.parts[p].name,
                                   work::dayWords(*by)),
                "Order it, and say when: await " + in.parts[p].name + " ordered " + units::isoDate(in.today),
                "order " + in.parts[p].name);
        }
    }

    void lifts() {
        if (r_.stretch->status == stretch::Status::Planned && b_.stands.empty())
            one(Severity::Warn, "work.stands-unsaid", "stands", "Waiting",
                "Nothing says where the stands are while the frame is cut: whether each half stands by itself is not judged.",
                "Two pairs under each half, one on each side of its middle: stand front at 200 rated 1000 sound.", "stands",
                "step:cut-rails");
        bool braces_out = false;
        for (const work::SteelEntry& e : r_.work->steel) braces_out = braces_out || e.state == work::SteelState::Planned;
        for (const work::WorkedLift& l : workedLifts(b_, r_)) {
            const std::string tag = "lift:" + l.name;
            if (!l.waits.empty()) {
                one(Severity::Warn, "work.lift-waits", "lift " + l.name, "Waiting",
                    fmt::format("{} waits for {}.", l.made ? "What stands " + l.name : "The lift " + l.name, l.waits), l.remedy,
                    "lift", tag);
                continue;
            }
            if (l.verdict() != work::LiftVerdict::Holds) {
                const work::LiftRemark& worst = l.remarks().front();
                one(l.verdict() == work::LiftVerdict::Fails ? Severity::Bad : Severity::Warn,
                    l.made ? "work.half-on-stands" : "work.lift", l.made ? l.name : "lift " + l.name,
                    work::verdictWord(l.verdict()),
                    fmt::format("{} {}: {}", l.made ? "The half" : "The lift", l.name, worst.sentence),
                    l.made ? worst.remedy + " Stands are said by: stand NAME at STATION." : worst.remedy, "lift", tag);
            }
            if (!l.made && braces_out && !b_.temporary_steel.empty())
                one(Severity::Warn, "work.lift-open-shell", "lift " + l.name, "Marginal",
                    fmt::format("Braces are listed that are not in yet: an open shell folds when the lift {} takes its weight.",
                                l.name),
                    "Brace first, then lift.", "brace first", tag);
        }
    }

    void decisions() {
        const int today = r_.schedule.input().today;
        for (const auto& [id, d] : b_.decisions) {
            if (d.agreed || d.struck) continue;
            const auto wanted = units::dayOf(d.wanted);
            const bool late = wanted && *wanted < today;
            one(late ? Severity::Bad : Severity::Warn, "work.undecided", d.name, late ? "Fails" : "Waiting",
                fmt::format("{} is not decided yet{}: {}", d.name, d.wanted.empty() ? "" : ", wanted by " + d.wanted, d.asks),
                "Ask, and say who agreed to what: agreed " + d.name + " CHOICE by NAME.", d.name, "decision:" + d.name);
        }
    }

    void coats() {
        for (const work::SurfaceShown& s : surfacesOf(b_))
            for (const work::CoatRemark& r : s.plan.remarks) {
                const bool fails = r.verdict == units::PlanVerdict::Fails;
                one(fails ? Severity::Bad : Severity::Warn, codeOf(r.what), s.surface.name, fails ? "Fails" : "Marginal",
                    r.sentence, r.remedy, s.surface.name, "surface:" + s.surface.name);
            }
    }
    static const char* codeOf(std::string_view what) {
        for (const char* code :
             {"work.coat-order", "work.coat-wet", "work.coat-metal", "work.coat-cold", "work.coat-bare", "work.coat-size"})
            if (std::string_view(code).ends_with(what)) return code;
        return "work.coat-order";
    }

    /// What burns can be begun, and nobody is said to watch.
    void unwatched() {
        for (const work::Step& s : r_.work->steps) {
            if (!s.hot || s.status != work::Status::Ready || !s.open()) continue;
            if (std::any_of(b_.permits.begin(), b_.permits.end(),
                            [&](const auto& row) { return row.second.step == s.code && !row.second.watched; }))
                return;
            const std::string typed = s.code.starts_with("job-") ? s.code.substr(4) : s.code;
            one(Severity::Warn, "work.no-permit", s.title, "Waiting",
                fmt::format("\"{}\" burns or throws sparks, and nobody is said to watch for fire.", s.title),
                "Somebody with nothing else to do, an extinguisher in hand, for an hour after: permit " + typed + " watch NAME.",
                "nobody watches", "step:" + s.code);
            return;
        }
    }

    void permits() {
        unwatched();
        for (const work::Step& s : r_.work->steps) {
            const double left = s.status == work::Status::Done ? restLeft(s) : 0;
            if (left <= 0) continue;
            for (const work::Step& next : r_.work->steps)
                if (next.status != work::Status::Done &&
                    std::find(next.after.begin(), next.after.end(), s.code) != next.after.end()) {
                    one(Severity::Warn, "work.rests", next.title, "Waiting",
                        fmt::format("\"{}\" is left alone for {:.0f} h more before \"{}\".", s.title, std::ceil(left),
                                    next.title),
                        "Do something else meanwhile, elsewhere and without dust.", "left alone", "step:" + next.code);
                    break;
                }
        }
        for (const auto& [id, p] : b_.permits) {
            if (p.watched) continue;
            const work::Step* s = r_.work->find(p.step);
            const std::string title = s ? s->title : p.step, typed = p.step.starts_with("job-") ? p.step.substr(4) : p.step;
            if (!p.ended) {
                one(Severity::Warn, "work.hot-now", title, "Ready",
                    fmt::format("\"{}\" may be hot since {}: {} watches.", title, clock(p.begun.at_utc), p.watch),
                    "At the last spark: sparks-out " + typed, "hot work", "step:" + p.step);
                continue;
            }
            const auto since = units::secondsOf(p.ended->at_utc);
            constexpr long long an_hour = 3600;
            const bool over = since && units::nowSeconds() - *since >= an_hour;
            one(Severity::Bad, "work.fire-watch", title, "Waiting",
                over ? fmt::format("The hour of {} at \"{}\" is over: is anything warm or smoking?", p.watch, title)
                     : fmt::format("{} watches for fire at \"{}\" until {}: nobody goes home.", p.watch, title,
                                   since ? clock(units::isoTime(*since + an_hour)) : "an hour later"),
                "Look behind, below and inside, hand on the sheet; then: watched " + typed, "fire watch", "step:" + p.step);
        }
    }
    /// "14:05 UTC".
    static std::string clock(const std::string& at_utc) { return at_utc.size() >= 16 ? at_utc.substr(11, 5) + " UTC" : at_utc; }

    const Build& b_;
    const Results& r_;
    std::vector<Finding>& out_;
};

} // namespace

void addPlanFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    if (workBegun(b, r)) PlanFindings(b, r, out).add();
}

} // namespace gorvet::analysis
