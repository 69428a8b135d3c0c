// The order of the steps, and how each stands.
#include "work/catalogue.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <map>
#include <set>

#include <fmt/format.h>

namespace gorvet::work {

using namespace build;

const char* statusWord(Status s) {
    switch (s) {
    case Status::Ready: return "Ready";
    case Status::Waiting: return "Waiting";
    case Status::HoldPoint: return "Hold point";
    case Status::Done: return "Done";
    }
    return "";
}

const Step* Order::find(const std::string& code) const {
    const auto found = std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.code == code; });
    return found == steps.end() ? nullptr : &*found;
}

namespace {

class Orderer {
public:
    Orderer(const Facts& f, const Record& record) : f_(f), record_(record), steps_(stepsFor(f, &apart_)) {
        for (const Tick& t : record.ticks) ticks_.emplace(t.step, &t);
    }

    Order make() {
        Order o;
        o.now = f_.start;
        o.apart = apart_;
        if (!f_.has_body) o.now.body = BodyPlace::Off;
        for (const Tick& t : record_.ticks) doneStep(o, t);
        o.done = static_cast<int>(o.steps.size());
        std::vector<Step> rest;
        for (const Step& s : steps_)
            if (!ticks_.contains(s.code)) rest.push_back(s);
        for (Step& s : plan(o, rest)) {
            if (s.moves_to) {
                o.body_moves_left += s.moves_to->body != s.stance.body;
                o.turns_left += s.moves_to->attitude != s.stance.attitude;
            }
            judge(s, o.now);
            o.steps.push_back(std::move(s));
        }
        for (Step& s : o.steps) estimate(s);
        explainPlaces(o.steps);
        for (size_t i = 0; i < o.steps.size() && !o.next; ++i)
            if (o.steps[i].status != Status::Done) o.next = i;
        steel(o);
        return o;
    }

private:
    /// The hours that were said of a step of the plan.
    void estimate(Step& s) const {
        if (s.job) return;
        for (const Estimate& e : f_.estimates)
            if (e.step == s.code) {
                s.least_h = e.least_h;
                s.likely_h = e.likely_h;
                s.most_h = e.most_h;
            }
    }
    /// What is left, in order. Where there is no order for all, jobs that can't be had as they are asked for stand behind it.
    std::vector<Step> plan(Order& o, const std::vector<Step>& rest) {
        Moves m = fewestMoves(rest, o.now, moves_);
        std::vector<Step> behind;
        if (m.order.empty() && !rest.empty()) {
            std::vector<Step> kept, own;
            for (const Step& s : rest) (s.job ? own : kept).push_back(s);
            behind = dropped(o, kept, own);
            m = fewestMoves(kept, o.now, moves_);
            for (const Step& s : behind)
                o.apart.push_back(
                    fmt::format("\"{}\" can't be had as it is asked for: in no order is the car as it needs it then.", s.title));
            if (m.order.empty()) {
                o.stuck = true;
                m.order = kept;
            }
        }
        o.exact = m.exact;
        o.moves_left = m.moves;
        o.least_moves = m.least;
        const Condition as_asked{"It can be had as it is asked for: body on or off, way up, on what, before and after", false};
        for (Step& s : behind) {
            s.conditions.push_back(as_asked);
            m.order.push_back(std::move(s));
        }
        return std::move(m.order);
    }

    /// Jobs that must stay out so that there is an order; the others join `kept`.
    std::vector<Step> dropped(const Order& o, std::vector<Step>& kept, const std::vector<Step>& own) const {
        constexpr int quick = 2000;
        if (own.empty() || fewestMoves(kept, o.now, {}, quick).order.empty()) return own;
        std::vector<Step> all = kept;
        all.insert(all.end(), own.begin(), own.end());
        if (!fewestMoves(all, o.now, {}, quick).order.empty()) {
            kept = std::move(all);
            return {};
        }
        if (own.size() == 1) return own;
        const auto half = own.begin() + static_cast<std::ptrdiff_t>(own.size() / 2);
        std::vector<Step> out = dropped(o, kept, {own.begin(), half});
        for (Step& s : dropped(o, kept, {half, own.end()})) out.push_back(std::move(s));
        return out;
    }

    /// A ticked step, or a ticked move; ticks of steps that this build no longer needs are passed over.
    void doneStep(Order& o, const Tick& t) {
        Step s;
        const auto found = std::find_if(steps_.begin(), steps_.end(), [&](const Step& c) { return c.code == t.step; });
        if (found != steps_.end()) {
            s = *found;
            for (const std::string& code : s.after)
                if (!ticks_.contains(code))
                    if (const Step* before = inCatalogue(code)) s.skipped.push_back(before->title);
            readChecks(s);
        } else if (auto move = moveOfCode(t.step, o.now, moves_)) {
            s = std::move(*move);
        } else {
            return;
        }
        s.stance = o.now;
        s.status = Status::Done;
        s.tick = t;
        if (s.moves_to) o.now = *s.moves_to;
        if (s.sets_support) o.now.support = *s.sets_support;
        o.steps.push_back(std::move(s));
    }

    const Step* inCatalogue(const std::string& code) const {
        const auto found = std::find_if(steps_.begin(), steps_.end(), [&](const Step& s) { return s.code == code; });
        return found == steps_.end() ? nullptr : &*found;
    }

    static bool answers(const Check& c, const CheckItem& item) {
        if (item.gap_of) return c.gap_of == item.gap_of;
        if (c.gap_of || (c.kind == ReadingKind::Level) != item.level.has_value()) return false;
        return (c.from == item.from && c.to == item.to) || (c.from == item.to && c.to == item.from);
    }

    /// Readings count when they were taken after the last of the steps before: ids only grow.
    void readChecks(Step& s) const {
        std::uint32_t since = 0;
        for (const std::string& code : s.after)
            if (const auto tick = ticks_.find(code); tick != ticks_.end()) since = std::max(since, tick->second->id.value);
        for (CheckItem& item : s.checks)
            for (const Check& c : record_.checks) {
                if (c.step != s.code || !answers(c, item)) continue;
                if (c.id.value > since) {
                    // a height read the other way round
                    item.read_mm = item.level && c.from == item.to ? -c.value.value : c.value.value;
                    item.stale = false;
                } else {
                    item.stale = !item.read_mm;
                }
            }
        for (const ShapeFault& f : twistAndBow(s.checks))
            for (CheckItem& item : s.checks)
                if (item.level && item.level->pair == f.pair && (!f.left || *f.left == item.level->left)) item.out = true;
    }

    void judge(Step& s, const Stance& now) const {
        readChecks(s);
        if (s.moves_to && s.moves_to->body == BodyPlace::Off && s.stance.body == BodyPlace::On)
            for (const Tied& t : f_.tied)
                if (t.step.empty()) addTied(t, s.conditions);
        for (const Held& h : f_.held)
            if (h.what_waits ? std::find(s.after.begin(), s.after.end(), h.step) != s.after.end()
                             : s.code == h.step || s.code == "job-" + h.step)
                s.conditions.push_back({h.text, false});
        std::vector<std::string> missing;
        for (const std::string& code : s.after)
            if (!ticks_.contains(code))
                if (const Step* before = inCatalogue(code)) missing.push_back(before->title);
        if (!missing.empty()) {
            s.waits_for = missing.front();
            if (missing.size() > 1) s.waits_for += fmt::format(", and {} more", missing.size() - 1);
            s.waits_for = "first: " + s.waits_for;
        } else if (!s.moves_to && s.body && *s.body != now.body) {
            s.waits_for = *s.body == BodyPlace::Off ? "the body must be off" : "the body must be on";
        } else if (!s.moves_to && s.attitude && *s.attitude != now.attitude) {
            s.waits_for = *s.attitude == Attitude::Inverted    ? "the frame must lie upside down"
                          : *s.attitude == Attitude::OnItsSide ? "the frame must lie on its side"
                                                               : "the frame must stand right way up";
        } else if (!s.moves_to && s.support && *s.support != now.support) {
            s.waits_for = fmt::format("it must be on {}", word(*s.support));
        } else if (s.moves_to && s.stance == now) {
            // the next move: it can be made
        } else if (s.moves_to) {
            s.waits_for = "an earlier move";
        }
        if (!s.waits_for.empty()) {
            s.status = Status::Waiting;
            return;
        }
        s.status = s.hold ? Status::HoldPoint : Status::Ready;
        if (s.hold) {
            s.waits_for = refusal(s);
            return;
        }
        for (const Condition& c : s.conditions)
            if (!c.met) {
                s.status = Status::Waiting;
                s.waits_for = c.text;
                return;
            }
    }

    /// Why a hold point stays shut; empty when it opens.
    static std::string refusal(const Step& s) {
        for (const Condition& c : s.conditions)
            if (!c.met) return c.text;
        int open = 0;
        std::string out;
        for (const CheckItem& c : s.checks) {
            if (!c.read_mm) {
                ++open;
            } else if (!c.level && !c.agrees()) {
                const double off = *c.read_mm - c.plan_mm;
                out += fmt::format("{}{} reads {}, {} too {}", out.empty() ? "" : "; ", c.name, units::fixed(*c.read_mm, 1),
                                   units::fixed(std::abs(off), 1), off > 0 ? "long" : "short");
            }
        }
        for (const ShapeFault& f : twistAndBow(s.checks)) out += (out.empty() ? "" : "; ") + f.sentence;
        if (!out.empty()) return out;
        if (open) return fmt::format("{} of {} fresh readings are still to be taken", open, s.checks.size());
        return {};
    }

    void steel(Order& o) const {
        for (const TemporarySteel& t : f_.temporary) {
            SteelEntry e{t, SteelState::Planned, {}, true};
            for (const Step& s : o.steps) {
                if (s.status == Status::Done && s.fits == t.id) e.state = SteelState::In;
                if (s.status == Status::Done && s.takes_out == t.id) e.state = SteelState::Out;
                if (s.code == t.out_after) e.out_after = s.title;
            }
            e.out_after_known = t.out_after.empty() || !e.out_after.empty();
            o.steel.push_back(std::move(e));
        }
    }

    const Facts& f_;
    const Record& record_;
    std::vector<std::string> apart_; // before the steps: they fill it
    std::vector<Step> steps_;
    std::map<std::string, const Tick*> ticks_;
    MovesDone moves_;
};

} // namespace

Order order(const Facts& f, const Record& record) { return Orderer(f, record).make(); }

} // namespace gorvet::work
