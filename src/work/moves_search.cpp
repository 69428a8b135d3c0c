// The order with the fewest moves.
#include "work/moves.hpp"

#include <algorithm>
#include <array>
#include <map>
#include <queue>
#include <set>
#include <tuple>

namespace gorvet::work {

using namespace build;

namespace {

/// What happens between two times of doing all that can be done.
struct Act {
    std::optional<size_t> step; ///< a step that changes how it stands, taken by choice; none: a move
    Stance to;
};
struct State {
    std::vector<bool> done;
    Stance at;
    int moves = 0;
    int least = 0; ///< moves and those that must still come
    int from = -1; ///< the state before
    Act act;
};

class Search {
public:
    Search(const std::vector<Step>& steps, const Stance& from, int most) : steps_(steps), most_(most), from_(from) {
        for (size_t i = 0; i < steps.size(); ++i) index_.emplace(steps[i].code, i);
        after_.resize(steps.size());
        for (size_t i = 0; i < steps.size(); ++i)
            for (const std::string& code : steps[i].after)
                if (const auto k = index_.find(code); k != index_.end()) after_[i].push_back(k->second);
        for (size_t i = 0; i < steps.size(); ++i) {
            const Step& s = steps[i];
            if (s.code == "unbolt-body" || s.code == "disconnect" || s.fits || s.code == "brace-body") before_lift_.push_back(i);
        }
        sortByNeed();
        rankByDate();
    }

    /// The acts in their order; nothing where there is no order.
    std::optional<std::vector<Act>> run(Moves& out) {
        if (topological_.size() < steps_.size()) return std::nullopt; // they wait for each other in a circle
        State first{std::vector<bool>(steps_.size(), false), from_, 0, 0, -1, {}};
        closure(first, nullptr);
        first.least = bound(first);
        out.least = first.least;
        push(std::move(first));
        int looked_at = 0;
        while (!open_.empty()) {
            const int k = std::get<2>(open_.top());
            open_.pop();
            const State now = states_[static_cast<size_t>(k)]; // a copy: the list grows
            if (!better(now)) continue;
            out.least = std::max(out.least, now.least);
            if (all(now)) {
                out.moves = now.moves;
                out.exact = now.moves <= out.least;
                return path(k);
            }
            if (++looked_at > most_) return beam(k, out);
            for (State& next : after(now, k)) push(std::move(next));
        }
        return std::nullopt;
    }

    /// The steps in the order in which they are done, the acts among them.
    std::vector<Step> played(const std::vector<Act>& acts, MovesDone done) const {
        std::vector<Step> result;
        State now{std::vector<bool>(steps_.size(), false), from_, 0, 0, -1, {}};
        const auto doAll = [&] {
            std::vector<size_t> order;
            closure(now, &order);
            for (const size_t i : order) {
                result.push_back(steps_[i]);
                result.back().stance = now.at;
            }
        };
        doAll();
        for (const Act& act : acts) {
            if (act.step) {
                now.done[*act.step] = true;
                result.push_back(steps_[*act.step]);
                now.at = act.to;
                result.back().stance = now.at;
            } else {
                result.push_back(moveTo(now.at, act.to, done));
                result.back().stance = now.at;
                now.at = act.to;
            }
            doAll();
        }
        return result;
    }

private:
    using Seen = std::tuple<std::vector<bool>, int, int, int>;
    static Seen keyOf(const State& s) {
        return {s.done, static_cast<int>(s.at.body), static_cast<int>(s.at.attitude), static_cast<int>(s.at.support)};
    }
    /// Whether no other way came here with fewer moves.
    bool better(const State& s) {
        const auto found = seen_.find(keyOf(s));
        return found == seen_.end() || found->second >= s.moves;
    }
    void push(State&& s) {
        const auto [found, fresh] = seen_.try_emplace(keyOf(s), s.moves);
        if (!fresh && found->second <= s.moves) return;
        found->second = s.moves;
        const int number = static_cast<int>(states_.size());
        open_.emplace(s.least, number, number);
        states_.push_back(std::move(s));
    }
    static bool all(const State& s) {
        return std::all_of(s.done.begin(), s.done.end(), [](bool d) { return d; });
    }
    std::vector<Act> path(int k) const {
        std::vector<Act> acts;
        for (; states_[static_cast<size_t>(k)].from >= 0; k = states_[static_cast<size_t>(k)].from)
            acts.push_back(states_[static_cast<size_t>(k)].act);
        std::reverse(acts.begin(), acts.end());
        return acts;
    }

    // ---- what can be done

    bool suits(const Step& s, const Stance& at) const {
        return (!s.body || *s.body == at.body) && (!s.attitude || *s.attitude == at.attitude) &&
               (!s.support || *s.support == at.support);
    }
    bool ready(size_t i, const State& s) const {
        return std::all_of(after_[i].begin(), after_[i].end(), [&](size_t k) { return s.done[k]; });
    }
    /// A brace stays in as long as the body is still to be lifted or the frame to be turned.
    bool movesLeft(const State& s, size_t but) const {
        for (size_t i = 0; i < steps_.size(); ++i) {
            const Step& k = steps_[i];
            if (s.done[i] || i == but || k.takes_out) continue;
            if (k.body.value_or(s.at.body) != s.at.body || k.body == BodyPlace::Off ||
                (k.attitude && *k.attitude != Attitude::RightWayUp))
                return true;
        }
        return false;
    }
    /// Changes how it stands, or what it can stand on: not done before it must be.
    bool byChoice(size_t i, const State& s) const {
        const Step& k = steps_[i];
        if (k.sets_support) return *k.sets_support != s.at.support;
        if (k.code != "strip-frame") return false;
        for (size_t j = 0; j < steps_.size(); ++j)
            if (!s.done[j] && steps_[j].support == Support::Wheels) return true;
        return false;
    }
    /// Everything that can be done as it stands; what is wanted early first.
    void closure(State& s, std::vector<size_t>* order) const {
        bool again = true;
        while (again) {
            again = false;
            for (const size_t i : rank_) {
                if (s.done[i] || !suits(steps_[i], s.at) || byChoice(i, s) || !ready(i, s)) continue;
                if (steps_[i].takes_out && movesLeft(s, i)) continue;
                s.done[i] = true;
                if (order) order->push_back(i);
                again = true;
            }
        }
    }

    bool isDone(const char* code, const State& s) const {
        const auto found = index_.find(code);
        return found == index_.end() || s.done[found->second];
    }
    bool wants(const State& s, const auto& so) const {
        for (size_t i = 0; i < steps_.size(); ++i)
            if (!s.done[i] && so(steps_[i])) return true;
        return false;
    }
    /// The stances that one move leads to, as far as anything left asks for them.
    std::vector<Stance> movesFrom(const State& s) const {
        std::vector<Stance> list;
        const auto add = [&](auto change) {
            Stance to = s.at;
            change(to);
            list.push_back(to);
        };
        const bool upright = s.at.attitude == Attitude::RightWayUp;
        const auto turned = [](const Step& k) { return k.attitude && *k.attitude != Attitude::RightWayUp; };
        // nothing is moved while the rails are open
        if (isDone("cut-rails", s) && !isDone("weld-rails", s)) return list;
        if (upright && s.at.body == BodyPlace::On) {
            const bool loose =
                std::all_of(before_lift_.begin(), before_lift_.end(), [&](size_t i) { return static_cast<bool>(s.done[i]); });
            if (loose && wants(s, [&](const Step& k) { return k.body == BodyPlace::Off || turned(k); }))
                add([](Stance& to) { to.body = BodyPlace::Off; });
        } else if (upright && wants(s, [](const Step& k) { return k.body == BodyPlace::On; })) {
            add([](Stance& to) { to.body = BodyPlace::On; });
        }
        // nor is it turned with anything hanging on it
        if (s.at.body == BodyPlace::Off && isDone("strip-frame", s) && (s.at.support != Support::Wheels || !upright))
            for (const Attitude way : {Attitude::RightWayUp, Attitude::Inverted, Attitude::OnItsSide})
                if (way != s.at.attitude &&
                    (way == Attitude::RightWayUp || wants(s, [&](const Step& k) { return k.attitude == way; })))
                    add([&](Stance& to) { to.attitude = way; });
        if (upright)
            for (size_t k = 0; k < Words<Support>::text.size(); ++k) {
                const auto on = static_cast<Support>(k);
                if (on == s.at.support) continue;
                // asked for, or needed to be turned over
                const bool to_turn = on == Support::Stands && s.at.support == Support::Wheels && wants(s, turned);
                if (!to_turn && !wants(s, [&](const Step& q) { return q.support == on; })) continue;
                // the first time there is a step of its own for it; and wheels must be on it
                if (on == Support::Stands && !isDone("support-frame", s)) continue;
                const bool bare = isDone("strip-frame", s) && !isDone("refit-frame", s);
                if (on == Support::Wheels && bare) continue;
                add([&](Stance& to) { to.support = on; });
            }
        return list;
    }
    std::vector<State> after(const State& s, int number) const {
        std::vector<State> list;
        const auto add = [&](Act act, int moves) {
            State next{s.done, act.to, s.moves + moves, 0, number, act};
            if (act.step) next.done[*act.step] = true;
            closure(next, nullptr);
            next.least = std::max(s.least, next.moves + bound(next));
            list.push_back(std::move(next));
        };
        for (size_t i = 0; i < steps_.size(); ++i) {
            if (s.done[i] || !suits(steps_[i], s.at) || !byChoice(i, s) || !ready(i, s)) continue;
            Stance to = s.at;
            if (steps_[i].sets_support) to.support = *steps_[i].sets_support;
            add({i, to}, 0);
        }
        for (const Stance& to : movesFrom(s)) add({std::nullopt, to}, 1);
        return list;
    }

    // ---- what must still come

    /// Moves that some chain of steps asks for, body, attitude and support each by itself.
    int bound(const State& s) const {
        constexpr int none = -1;
        constexpr size_t places = 2 + 3 + 6;
        using Row = std::array<int, places>;
        Row start;
        start.fill(none);
        const size_t first[] = {0, 2, 5}, size[] = {2, 3, 6};
        start[static_cast<size_t>(s.at.body)] = 0;
        start[2 + static_cast<size_t>(s.at.attitude)] = 0;
        start[5 + static_cast<size_t>(s.at.support)] = 0;
        std::vector<Row> rows(steps_.size(), start);
        int most[3] = {0, 0, 0};
        int free_changes = 0;
        for (const size_t i : topological_) {
            if (s.done[i]) continue;
            Row& row = rows[i];
            for (const size_t k : after_[i])
                if (!s.done[k])
                    for (size_t p = 0; p < places; ++p) row[p] = std::max(row[p], rows[k][p]);
            const Step& q = steps_[i];
            free_changes += q.sets_support.has_value();
            const std::optional<size_t> asks[3] = {q.body ? std::optional(static_cast<size_t>(*q.body)) : std::nullopt,
                                                   q.attitude ? std::optional(static_cast<size_t>(*q.attitude)) : std::nullopt,
                                                   q.support ? std::optional(static_cast<size_t>(*q.support)) : std::nullopt};
            for (size_t c = 0; c < 3; ++c) {
                if (!asks[c]) continue;
                int best = none;
                for (size_t v = 0; v < size[c]; ++v)
                    if (row[first[c] + v] != none) best = std::max(best, row[first[c] + v] + (v != *asks[c]));
                for (size_t v = 0; v < size[c]; ++v) row[first[c] + v] = none;
                row[first[c] + *asks[c]] = best;
                most[c] = std::max(most[c], best);
            }
        }
        return most[0] + most[1] + std::max(0, most[2] - free_changes);
    }

    /// Steps so that each stands after what it waits for; fewer than all where they wait in a circle.
    void sortByNeed() {
        std::vector<size_t> open(steps_.size());
        std::vector<std::vector<size_t>> before(steps_.size());
        for (size_t i = 0; i < steps_.size(); ++i) {
            open[i] = after_[i].size();
            for (const size_t k : after_[i]) before[k].push_back(i);
        }
        for (size_t i = 0; i < steps_.size(); ++i)
            if (open[i] == 0) topological_.push_back(i);
        for (size_t at = 0; at < topological_.size(); ++at)
            for (const size_t i : before[topological_[at]])
                if (--open[i] == 0) topological_.push_back(i);
    }
    /// What is wanted early comes first, and what it waits for; the rest as it came.
    void rankByDate() {
        std::vector<std::string> by(steps_.size());
        for (size_t i = 0; i < steps_.size(); ++i) by[i] = steps_[i].wanted.empty() ? "9999" : steps_[i].wanted;
        for (auto i = topological_.rbegin(); i != topological_.rend(); ++i)
            for (const size_t k : after_[*i]) by[k] = std::min(by[k], by[*i]);
        for (size_t i = 0; i < steps_.size(); ++i) rank_.push_back(i);
        std::stable_sort(rank_.begin(), rank_.end(), [&](size_t a, size_t b) { return by[a] < by[b]; });
    }

    // ---- where there are too many ways

    /// From the most promising state on, the best few of each round.
    std::optional<std::vector<Act>> beam(int from, Moves& out) {
        constexpr size_t wide = 48;
        std::vector<int> round{from};
        std::set<Seen> met;
        while (!round.empty()) {
            std::vector<State> next;
            for (const int k : round)
                for (State& s : after(State(states_[static_cast<size_t>(k)]), k)) next.push_back(std::move(s));
            const auto left = [](const State& s) { return std::count(s.done.begin(), s.done.end(), false); };
            std::stable_sort(next.begin(), next.end(), [&](const State& a, const State& b) {
                return std::pair(a.least, left(a)) < std::pair(b.least, left(b));
            });
            round.clear();
            for (State& s : next) {
                if (round.size() == wide) break;
                if (!met.insert(keyOf(s)).second) continue;
                const bool finished = all(s);
                states_.push_back(std::move(s));
                if (finished) {
                    out.moves = states_.back().moves;
                    out.exact = out.moves <= out.least;
                    return path(static_cast<int>(states_.size()) - 1);
                }
                round.push_back(static_cast<int>(states_.size()) - 1);
            }
        }
        return std::nullopt;
    }

    const std::vector<Step>& steps_;
    int most_;
    Stance from_;
    std::map<std::string, size_t> index_;
    std::vector<std::vector<size_t>> after_;
    std::vector<size_t> before_lift_;
    std::vector<size_t> topological_;
    std::vector<size_t> rank_;
    std::vector<State> states_;
    std::map<Seen, int> seen_;
    using Waiting = std::tuple<int, int, int>; // fewest moves first, then as they came
    std::priority_queue<Waiting, std::vector<Waiting>, std::greater<>> open_;
};

/// What must be done before the body may be lifted off.
std::vector<std::string> beforeLift(const std::vector<Step>& steps) {
    std::vector<std::string> codes;
    for (const Step& s : steps)
        if (s.code == "unbolt-body" || s.code == "disconnect" || s.fits || s.code == "brace-body") codes.push_back(s.code);
    return codes;
}

/// A move waits for what the steps wait for that it is made for.
void addPurposes(std::vector<Step>& order) {
    std::set<std::string> earlier;
    for (size_t i = 0; i < order.size(); ++i) {
        if (order[i].moves_to)
            for (size_t k = i + 1; k < order.size() && !order[k].moves_to; ++k)
                if (order[k].body || order[k].attitude || order[k].support)
                    for (const std::string& code : order[k].after)
                        if (earlier.contains(code) &&
                            std::find(order[i].after.begin(), order[i].after.end(), code) == order[i].after.end())
                            order[i].after.push_back(code);
        earlier.insert(order[i].code);
    }
}

} // namespace

Moves fewestMoves(const std::vector<Step>& steps, const Stance& from, const MovesDone& done, int most_looked_at) {
    Moves out;
    Search search(steps, from, most_looked_at);
    const auto acts = search.run(out);
    if (!acts) return out;
    out.order = search.played(*acts, done);
    const std::vector<std::string> before_lift = beforeLift(steps);
    const bool strips = std::any_of(steps.begin(), steps.end(), [](const Step& s) { return s.code == "strip-frame"; });
    for (Step& s : out.order) {
        if (!s.moves_to) continue;
        if (s.moves_to->body == BodyPlace::Off && s.stance.body == BodyPlace::On) s.after = before_lift;
        if (s.moves_to->attitude != s.stance.attitude && strips) s.after.emplace_back("strip-frame");
    }
    addPurposes(out.order);
    return out;
}

} // namespace gorvet::work
