// When the work may be done: steps in their order, drawn many times over.
#include "work/schedule.hpp"

#include "dense/dense.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <cmath>
#include <random>

#include <Eigen/Core>

namespace gorvet::work {

Clock::Clock(const ShopHours& hours, int today) : hours_(hours), today_(today) {
    for (const double h : hours_.of_weekday) week_h_ += h;
    std::sort(hours_.off.begin(), hours_.off.end());
    before_.push_back(0);
}

double Clock::hoursOfDay(int day) const {
    for (const auto& [from, to] : hours_.off)
        if (from <= day && day <= to) return 0;
    return hours_.of_weekday[static_cast<std::size_t>(units::weekday(day))];
}

double Clock::beginOfDay(int day) const {
    const double h = hoursOfDay(day);
    constexpr double morning = 8, evening = 18, short_day = 4, night = 24;
    return std::min(h > short_day ? morning : evening, night - h) / 24;
}

void Clock::reach(int day) const {
    while (today_ + static_cast<int>(before_.size()) - 1 < day)
        before_.push_back(before_.back() + hoursOfDay(today_ + static_cast<int>(before_.size()) - 1));
}

double Clock::dayAt(double hours) const {
    if (never()) return today_;
    while (before_.back() < hours) reach(today_ + static_cast<int>(before_.size()) + 27);
    const auto after = std::lower_bound(before_.begin(), before_.end(), hours);
    if (after == before_.begin()) { // nothing was worked: when the first hour begins
        int day = today_;
        while (hoursOfDay(day) == 0) ++day;
        return day + beginOfDay(day);
    }
    const int day = today_ + static_cast<int>(after - before_.begin()) - 1;
    return day + beginOfDay(day) + (hours - *std::prev(after)) / 24;
}

double Clock::hoursAt(double at) const {
    const int day = static_cast<int>(std::floor(at));
    if (day < today_) return 0;
    reach(day + 1);
    const double within = (at - day - beginOfDay(day)) * 24;
    return before_[static_cast<std::size_t>(day - today_)] + std::clamp(within, 0.0, hoursOfDay(day));
}

namespace {

using Dice = std::mt19937_64;

/// Least, likely and most as the beta distribution that is usual for them: mean (least + 4 likely + most) / 6.
double drawThree(double least, double likely, double most, Dice& dice) {
    if (most <= least) return likely;
    const double a = 1 + 4 * (likely - least) / (most - least), b = 1 + 4 * (most - likely) / (most - least);
    const double x = std::gamma_distribution<double>(a, 1)(dice), y = std::gamma_distribution<double>(b, 1)(dice);
    return least + (most - least) * x / (x + y);
}

double drawDays(const Part& p, Dice& dice) {
    return p.most_days > 0 ? drawThree(p.least_days, p.likely_days, p.most_days, dice) : p.likely_days;
}

Spread spreadOf(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    const auto at = [&](double share) {
        const double place = share * static_cast<double>(values.size() - 1);
        const auto low = static_cast<std::size_t>(place);
        const double high = values[std::min(low + 1, values.size() - 1)];
        return values[low] + (place - static_cast<double>(low)) * (high - values[low]);
    };
    return {at(0.1), at(0.5), at(0.9)};
}

constexpr std::size_t none = static_cast<std::size_t>(-1);

/// One way that it may go.
struct Drawn {
    std::vector<double> start, finish; ///< hours of the shop
    std::vector<double> ready;         ///< when a task could begin if its parts were here
    std::vector<std::size_t> held_by;  ///< the task whose end it waited for; none: the first day, or a part
    std::vector<std::size_t> waits_for_part;
    double work_h = 0;
    double found_h = 0; ///< of it, what nobody has planned yet
};

class DrawOfHours {
public:
    DrawOfHours(const ScheduleInput& in, const Habit& habit, const Finds& finds)
        : in_(in), clock_(in.hours, in.today), habit_(habit), finds_(finds), dice_(in.seed) {
        constexpr auto n = static_cast<Eigen::Index>(1 + Habit::trades);
        Eigen::MatrixXd covariance(n, n);
        for (Eigen::Index i = 0; i < n; ++i)
            for (Eigen::Index j = 0; j < n; ++j) covariance(i, j) = habit.covariance[static_cast<std::size_t>(i * n + j)];
        root_ = dense::root(covariance);
    }
    const Clock& clock() const { return clock_; }

    Drawn draw(std::vector<double>& here) {
        const std::size_t n = in_.tasks.size();
        Drawn d;
        d.start.resize(n);
        d.finish.resize(n);
        d.ready.resize(n);
        d.held_by.assign(n, none);
        d.waits_for_part.assign(n, none);
        factors();
        findOnTheWay();
        here.resize(in_.parts.size());
        for (std::size_t p = 0; p < in_.parts.size(); ++p)
            here[p] = std::max<double>(in_.parts[p].ordered.value_or(in_.today) + drawDays(in_.parts[p], dice_), in_.today);
        const int hands = std::max(in_.hours.people, 1);
        std::vector<double> free(static_cast<std::size_t>(hands), 0);
        std::vector<std::size_t> last(static_cast<std::size_t>(hands), none);
        double wall = 0, latest = 0;
        std::size_t wall_by = none, latest_by = none;
        for (std::size_t i = 0; i < n; ++i) {
            const Task& t = in_.tasks[i];
            double start = wall;
            std::size_t by = wall_by;
            const auto waits = [&](double until, std::size_t whom) {
                if (until > start) {
                    start = until;
                    by = whom;
                }
            };
            for (const std::size_t k : t.after) waits(rested(k, d.finish[k]), k);
            if (t.alone) waits(latest, latest_by);
            // as many hands as it takes; where the shop has fewer, a helper comes
            const auto takes = std::min(static_cast<std::size_t>(std::max(t.people, 1.0)), free.size());
            std::vector<std::size_t> whose(free.size());
            for (std::size_t k = 0; k < whose.size(); ++k) whose[k] = k;
            std::stable_sort(whose.begin(), whose.end(), [&](std::size_t a, std::size_t b) { return free[a] < free[b]; });
            waits(free[whose[takes - 1]], last[whose[takes - 1]]);
            d.ready[i] = start;
            for (const std::size_t p : t.parts)
                if (const double at = clock_.hoursAt(std::ceil(here[p])); at > start + 1e-9) {
                    start = at;
                    by = none;
                    d.waits_for_part[i] = p;
                }
            const double work = duration(t) + unplanned_[i];
            d.work_h += work;
            d.found_h += unplanned_[i];
            d.start[i] = start;
            d.finish[i] = start + work / std::max(t.people, 1.0);
            d.held_by[i] = by;
            for (std::size_t k = 0; k < takes; ++k) {
                free[whose[k]] = d.finish[i];
                last[whose[k]] = i;
            }
            if (d.finish[i] > latest || latest_by == none) {
                latest = std::max(latest, d.finish[i]);
                latest_by = i;
            }
            if (t.alone) {
                wall = d.finish[i];
                wall_by = i;
            }
        }
        return d;
    }

private:
    /// The hour at which what waits for a task may begin: it is left alone for a while, by the clock.
    double rested(std::size_t k, double finish) const {
        const double rest = in_.tasks[k].rest_h;
        return rest > 0 ? clock_.hoursAt(clock_.dayAt(finish) + rest / 24) : finish;
    }

    /// The factors of this draw: what is not known of them is common to all its steps.
    void factors() {
        std::normal_distribution<double> normal;
        Eigen::VectorXd z(root_.rows());
        for (Eigen::Index i = 0; i < z.size(); ++i) z(i) = normal(dice_);
        const Eigen::VectorXd off = root_ * z;
        for (std::size_t t = 0; t < Habit::trades; ++t)
            factor_[t] =
                in_.alike ? std::exp(habit_.common + habit_.of_trade[t] + off(0) + off(static_cast<Eigen::Index>(t) + 1)) : 1.0;
    }

    /// What will be found at which step: how often and of how many hours is not known better than what was found so far tells.
    void findOnTheWay() {
        unplanned_.assign(in_.tasks.size(), 0);
        if (!in_.found) return;
        const double an_hour = std::gamma_distribution<double>(finds_.times_shape, 1 / finds_.times_rate_h)(dice_);
        const double hours_each = finds_.hours_scale_h / std::gamma_distribution<double>(finds_.hours_shape, 1)(dice_);
        for (std::size_t i = 0; i < in_.tasks.size(); ++i) {
            const Task& t = in_.tasks[i];
            const double said = t.most_h > 0 ? (t.least_h + 4 * t.likely_h + t.most_h) / 6 : t.likely_h;
            const double left = std::max(0.0, said - t.worked_h);
            if (left <= 0) continue;
            for (int k = std::poisson_distribution<int>(an_hour * left)(dice_); k > 0; --k)
                unplanned_[i] += std::exponential_distribution<double>(1 / hours_each)(dice_);
        }
    }

    /// σ of the logarithm that one step has beyond what its three figures say: people take the two ends too near.
    double scatterBeyond(const Task& t) const {
        const double all = habit_.of_one * habit_.of_one;
        if (t.most_h <= 0) return std::sqrt(all);
        const double mean = (t.least_h + 4 * t.likely_h + t.most_h) / 6;
        const double said = (mean - t.least_h) * (t.most_h - mean) / 7 / (mean * mean); // of that beta distribution
        return std::sqrt(std::max(0.0, all - said));
    }

    /// Hours that are left of it, all people together.
    double duration(const Task& t) {
        if (t.likely_h <= 0) return 0;
        double h = t.most_h > 0 ? drawThree(t.least_h, t.likely_h, t.most_h, dice_) : t.likely_h;
        if (in_.alike) h *= std::exp(scatterBeyond(t) * std::normal_distribution<double>()(dice_));
        h *= factor_[static_cast<std::size_t>(t.kind)];
        // what was worked is off it; a step that took longer than drawn is nearly done, never less than nothing
        constexpr double nearly = 0.1;
        return std::max(h - t.worked_h, t.worked_h > 0 ? nearly * h : h);
    }

    const ScheduleInput& in_;
    Clock clock_;
    const Habit& habit_;
    const Finds& finds_;
    Dice dice_;
    Eigen::MatrixXd root_;
    std::array<double, Habit::trades> factor_{};
    std::vector<double> unplanned_; ///< hours found at each task
};

} // namespace

Schedule schedule(const ScheduleInput& in) {
    Schedule s;
    s.habit = learn(in.took);
    if (in.found) s.finds = learnFinds(*in.found);
    s.tasks.resize(in.tasks.size());
    s.parts.resize(in.parts.size());
    for (const Task& t : in.tasks) s.unsaid += t.likely_h <= 0;
    DrawOfHours drawing(in, s.habit, s.finds);
    if (drawing.clock().never() || in.tasks.empty()) {
        s.never = drawing.clock().never();
        s.finish = {double(in.today), double(in.today), double(in.today)};
        return s;
    }
    const Clock& clock = drawing.clock();
    const auto draws = static_cast<std::size_t>(std::max(in.draws, 1));
    std::vector<std::vector<double>> start(in.tasks.size()), finish(in.tasks.size()), here_all(in.parts.size()),
        order_by(in.parts.size());
    std::vector<double> hours, here, found;
    for (std::size_t k = 0; k < draws; ++k) {
        const Drawn d = drawing.draw(here);
        double end = 0;
        std::size_t last = none;
        for (std::size_t i = 0; i < in.tasks.size(); ++i) {
            constexpr double a_moment = 1e-6; // not the end of the day before
            start[i].push_back(clock.dayAt(d.start[i] + a_moment));
            finish[i].push_back(clock.dayAt(d.finish[i]));
            if (in.tasks[i].wanted) s.tasks[i].late += std::floor(finish[i].back()) > *in.tasks[i].wanted;
            if (d.finish[i] >= end) {
                end = d.finish[i];
                last = i;
            }
            if (d.waits_for_part[i] != none) s.parts[d.waits_for_part[i]].holds_up += 1;
        }
        for (std::size_t i = last; i != none; i = d.held_by[i]) s.tasks[i].holds_up += 1;
        for (std::size_t p = 0; p < in.parts.size(); ++p) {
            here_all[p].push_back(here[p]);
            // the first of its steps that could begin without it
            std::optional<double> needed;
            for (std::size_t i = 0; i < in.tasks.size(); ++i)
                if (std::find(in.tasks[i].parts.begin(), in.tasks[i].parts.end(), p) != in.tasks[i].parts.end())
                    needed = std::min(needed.value_or(1e300), clock.dayAt(d.ready[i]));
            const double takes = here[p] - in.parts[p].ordered.value_or(in.today);
            if (needed && !in.parts[p].ordered) order_by[p].push_back(std::floor(*needed) - std::ceil(takes));
        }
        s.finish_all.push_back(clock.dayAt(end));
        if (in.wanted) s.by_wanted += std::floor(s.finish_all.back()) <= *in.wanted;
        hours.push_back(d.work_h);
        found.push_back(d.found_h);
    }
    const double share = 1 / static_cast<double>(draws);
    s.by_wanted *= share;
    for (std::size_t i = 0; i < in.tasks.size(); ++i) {
        s.tasks[i].start = spreadOf(std::move(start[i]));
        s.tasks[i].finish = spreadOf(std::move(finish[i]));
        s.tasks[i].holds_up *= share;
        s.tasks[i].late *= share;
    }
    for (std::size_t p = 0; p < in.parts.size(); ++p) {
        s.parts[p].here = spreadOf(std::move(here_all[p]));
        s.parts[p].holds_up *= share;
        if (!order_by[p].empty()) s.parts[p].order_by = static_cast<int>(std::floor(spreadOf(std::move(order_by[p])).p10));
    }
    s.hours = spreadOf(std::move(hours));
    s.found_h = spreadOf(std::move(found));
    s.finish = spreadOf(s.finish_all);
    std::sort(s.finish_all.begin(), s.finish_all.end());
    return s;
}

} // namespace gorvet::work
