// The order of the steps, and how each stands.
#include "work/moves.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <deque>
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

bool CheckItem::agrees() const { return read_mm && (level ? !out : std::abs(*read_mm - plan_mm) <= tolerance_mm + 1e-9); }

std::vector<ShapeFault> twistAndBow(const std::vector<CheckItem>& items) {
    // by pair: what left and right stand off the plan, over the reference, which is the front pair's left one
    struct Pair {
        double left = 0, right = 0, back = 0, width = 0;
        bool has_left = false, has_right = false;
    };
    std::map<int, Pair> pairs;
    double tolerance = 0;
    for (const CheckItem& c : items) {
        if (!c.level) continue;
        if (!c.read_mm) return {};
        Pair& p = pairs[c.level->pair];
        const double off = *c.read_mm - c.plan_mm;
        (c.level->left ? p.left : p.right) = off;
        (c.level->left ? p.has_left : p.has_right) = true;
        p.back = c.level->back_mm;
        p.width = c.level->width_mm;
        tolerance = c.tolerance_mm;
    }
    if (pairs.size() < 2) return {};
    std::vector<ShapeFault> wrong;
    const auto nameOfPair = [&](int pair) {
        std::string name;
        for (const CheckItem& c : items)
            if (c.level && c.level->pair == pair) name = c.name.substr(c.name.find("–") + std::string("–").size());
        return name;
    };
    const auto& [first, front] = *pairs.begin();
    const auto& [last, rear] = *pairs.rbegin();
    for (const auto& [k, p] : pairs) {
        if (k == first || !p.has_left || !p.has_right) continue;
        const double share = front.width > 0 ? p.width / front.width : 1;
        const double twist = (p.right - p.left) - (front.right - front.left) * share;
        if (std::abs(twist) > tolerance + 1e-9)
            wrong.push_back({fmt::format("the pair of {} is twisted by {} against the front: its {} side stands high",
                                         nameOfPair(k), units::fixed(std::abs(twist), 1), twist > 0 ? "right" : "left"),
                             k,
                             {}});
    }
    for (const auto& [k, p] : pairs) {
        if (k == first || k == last || rear.back <= 0) continue;
        const double share = p.back / rear.back;
        for (const bool left : {true, false}) {
            const double bow = left ? p.left - share * rear.left : p.right - front.right - share * (rear.right - front.right);
            if (std::abs(bow) > tolerance + 1e-9)
                wrong.push_back({fmt::format("the {} rail stands {} {} between its ends beside {}", left ? "left" : "right",
                                             units::fixed(std::abs(bow), 1), bow > 0 ? "high" : "low", nameOfPair(k)),
                                 k, left});
        }
    }
    return wrong;
}

const Step* Order::find(const std::string& code) const {
    const auto found = std::find_if(steps.begin(), steps.end(), [&](const Step& s) { return s.code == code; });
    return found == steps.end() ? nullptr : &*found;
}

namespace {

bool suits(const Step& s, const Stance& at) {
    return (!s.body || *s.body == at.body) && (!s.attitude || *s.attitude == at.attitude);
}

struct Searched {
    std::vector<bool> done;
    Stance stance;
    std::vector<size_t> order;                    ///< indices of steps; `moved` marks the places of moves
    std::vector<std::pair<size_t, Stance>> moves; ///< after how many steps, to where
};

/// Everything that can be done without a move, in catalogue order.
void closure(const std::vector<Step>& steps, const std::map<std::string, size_t>& index, Searched& s) {
    // a brace stays in as long as the body is still to be lifted or the frame to be turned
    const auto movesLeft = [&](size_t but) {
        for (size_t i = 0; i < steps.size(); ++i)
            if (!s.done[i] && i != but && !steps[i].takes_out &&
                (steps[i].body.value_or(s.stance.body) != s.stance.body || steps[i].body == BodyPlace::Off ||
                 steps[i].attitude == Attitude::Inverted))
                return true;
        return false;
    };
    bool again = true;
    while (again) {
        again = false;
        for (size_t i = 0; i < steps.size(); ++i) {
            if (s.done[i] || !suits(steps[i], s.stance) || (steps[i].takes_out && movesLeft(i))) continue;
            const bool ready = std::all_of(steps[i].after.begin(), steps[i].after.end(), [&](const std::string& code) {
                const auto before = index.find(code);
                return before == index.end() || s.done[before->second];
            });
            if (!ready) continue;
            s.done[i] = true;
            s.order.push_back(i);
            if (steps[i].sets_support) s.stance.support = *steps[i].sets_support;
            again = true;
        }
    }
}

/// What must be done before the body may be lifted off for the first time.
std::vector<std::string> beforeLift(const std::vector<Step>& steps) {
    std::vector<std::string> codes;
    for (const Step& s : steps)
        if (s.code == "unbolt-body" || s.code == "disconnect" || s.fits || s.code == "brace-body") codes.push_back(s.code);
    return codes;
}

std::vector<Stance> movesFrom(const Stance& s) {
    std::vector<Stance> list;
    if (s.attitude == Attitude::RightWayUp) {
        Stance to = s;
        to.body = s.body == BodyPlace::On ? BodyPlace::Off : BodyPlace::On;
        if (to.body == BodyPlace::On) to.support = s.support;
        list.push_back(to);
    }
    if (s.body == BodyPlace::Off) {
        Stance to = s;
        to.attitude = s.attitude == Attitude::RightWayUp ? Attitude::Inverted : Attitude::RightWayUp;
        list.push_back(to);
    }
    return list;
}

/// A move waits for what the steps wait for that it is made for.
void addPurposes(std::vector<Step>& order) {
    std::set<std::string> earlier;
    for (size_t i = 0; i < order.size(); ++i) {
        if (order[i].moves_to)
            for (size_t k = i + 1; k < order.size() && !order[k].moves_to; ++k)
                if (order[k].body || order[k].attitude)
                    for (const std::string& code : order[k].after)
                        if (earlier.contains(code) &&
                            std::find(order[i].after.begin(), order[i].after.end(), code) == order[i].after.end())
                            order[i].after.push_back(code);
        earlier.insert(order[i].code);
    }
}

} // namespace

std::vector<Step> fewestMoves(const std::vector<Step>& steps, const Stance& from, int body_moves_done, int turns_done) {
    std::map<std::string, size_t> index;
    for (size_t i = 0; i < steps.size(); ++i) index.emplace(steps[i].code, i);
    const std::vector<std::string> before_lift = beforeLift(steps);
    Searched first{std::vector<bool>(steps.size(), false), from, {}, {}};
    closure(steps, index, first);
    std::deque<Searched> waiting{first};
    std::set<std::tuple<std::vector<bool>, int, int>> seen;
    const auto all = [](const Searched& s) { return std::all_of(s.done.begin(), s.done.end(), [](bool d) { return d; }); };
    while (!waiting.empty()) {
        const Searched now = std::move(waiting.front());
        waiting.pop_front();
        if (all(now)) {
            std::vector<Step> result;
            size_t move = 0;
            int off_on = body_moves_done;
            int turns = turns_done;
            Stance stance = from;
            for (size_t k = 0; k <= now.order.size(); ++k) {
                while (move < now.moves.size() && now.moves[move].first == k) {
                    const Stance& to = now.moves[move++].second;
                    if (to.body != stance.body)
                        result.push_back(bodyMove(to.body == BodyPlace::Off, ++off_on, to,
                                                  to.body == BodyPlace::Off ? before_lift : std::vector<std::string>{}));
                    else
                        result.push_back(frameTurn(++turns, to));
                    if (to.attitude != stance.attitude && index.contains("strip-frame"))
                        result.back().after.emplace_back("strip-frame");
                    result.back().stance = stance;
                    stance = to;
                }
                if (k == now.order.size()) break;
                result.push_back(steps[now.order[k]]);
                if (result.back().sets_support) stance.support = *result.back().sets_support;
                result.back().stance = stance;
            }
            addPurposes(result);
            return result;
        }
        if (!seen.emplace(now.done, static_cast<int>(now.stance.body), static_cast<int>(now.stance.attitude)).second) continue;
        if (now.moves.size() > 24) continue;
        const auto done = [&](const char* code) {
            const auto found = index.find(code);
            return found == index.end() || now.done[found->second];
        };
        // nothing is moved while the rails are open, nor turned with anything hanging on it
        const auto cut = index.find("cut-rails");
        const bool open = cut != index.end() && now.done[cut->second] && !done("weld-rails");
        for (const Stance& to : movesFrom(now.stance)) {
            if (open || (to.attitude != now.stance.attitude && !done("strip-frame"))) continue;
            if (to.body == BodyPlace::Off && now.stance.body == BodyPlace::On &&
                std::any_of(before_lift.begin(), before_lift.end(),
                            [&](const std::string& code) { return !now.done[index.at(code)]; }))
                continue; // it is still bolted down or not braced
            Searched next = now;
            next.stance = to;
            next.moves.emplace_back(next.order.size(), to);
            closure(steps, index, next);
            waiting.push_back(std::move(next));
        }
    }
    return {};
}

namespace {

class Orderer {
public:
    Orderer(const Facts& f, const Record& record) : f_(f), record_(record), steps_(stepsFor(f)) {
        for (const Tick& t : record.ticks) ticks_.emplace(t.step, &t);
    }

    Order make() {
        Order o;
        o.now = f_.start;
        if (!f_.has_body) o.now.body = BodyPlace::Off;
        for (const Tick& t : record_.ticks) doneStep(o, t);
        o.done = static_cast<int>(o.steps.size());
        std::vector<Step> rest;
        for (const Step& s : steps_)
            if (!ticks_.contains(s.code)) rest.push_back(s);
        std::vector<Step> planned = fewestMoves(rest, o.now, body_moves_, turns_);
        if (planned.empty() && !rest.empty()) {
            o.stuck = true;
            planned = rest;
        }
        for (Step& s : planned) {
            if (s.moves_to) (s.moves_to->body != s.stance.body ? o.body_moves_left : o.turns_left) += 1;
            judge(s, o.now);
            o.steps.push_back(std::move(s));
        }
        for (size_t i = 0; i < o.steps.size() && !o.next; ++i)
            if (o.steps[i].status != Status::Done) o.next = i;
        steel(o);
        return o;
    }

private:
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
        } else if (t.step.rfind("body-off-", 0) == 0 || t.step.rfind("body-on-", 0) == 0) {
            ++body_moves_;
            Stance to = o.now;
            to.body = t.step.rfind("body-off-", 0) == 0 ? BodyPlace::Off : BodyPlace::On;
            s = bodyMove(to.body == BodyPlace::Off, body_moves_, to, {});
            s.code = t.step;
        } else if (t.step.rfind("turn-", 0) == 0) {
            ++turns_;
            Stance to = o.now;
            to.attitude = o.now.attitude == Attitude::RightWayUp ? Attitude::Inverted : Attitude::RightWayUp;
            s = frameTurn(turns_, to);
            s.code = t.step;
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
            s.waits_for =
                *s.attitude == Attitude::Inverted ? "the frame must lie upside down" : "the frame must stand right way up";
        } else if (s.moves_to && s.stance.body == now.body && s.stance.attitude == now.attitude) {
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
    std::vector<Step> steps_;
    std::map<std::string, const Tick*> ticks_;
    int body_moves_ = 0;
    int turns_ = 0;
};

} // namespace

Order order(const Facts& f, const Record& record) { return Orderer(f, record).make(); }

} // namespace gorvet::work
