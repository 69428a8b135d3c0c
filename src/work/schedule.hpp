#pragma once

#include "work/work.hpp"

#include <array>
#include <cstdint>
#include <string>
#include <utility>
#include <vector>

/// Time: when the work may be done, as far as hours were said. Steps in their order, done by so many people in the hours that the
/// shop has; what is not known is drawn at random, many times over. Days count from 1970-01-01.
namespace gorvet::work {

/// The hours of the shop. A day of more than four hours begins at 8, one of fewer is an evening and begins at 18.
struct ShopHours {
    std::array<double, 7> of_weekday{2, 2, 2, 2, 2, 6, 0}; ///< of each person, Monday first; 0 to 24
    std::vector<std::pair<int, int>> off;                  ///< first and last day off
    int people = 1;                                        ///< at least 1
    bool assumed = true;                                   ///< they are the usual ones
    bool operator==(const ShopHours&) const = default;
};

/// One step that is not done.
struct Task {
    std::string code;
    std::string title;
    std::string area;
    build::JobKind kind = build::JobKind::General;
    std::vector<std::size_t> after; ///< places of tasks before it
    bool alone = false;             ///< body or frame is moved: all before it are done, and nothing goes on beside it
    double least_h = 0;             ///< hours, all people together; 0 with `likely_h` alone: one figure was said
    double likely_h = 0;            ///< 0: nothing was said
    double most_h = 0;
    double worked_h = 0; ///< already
    double people = 1;
    double rest_h = 0;              ///< by the clock, before what waits for it
    std::vector<std::size_t> parts; ///< that it waits for
    std::optional<int> wanted;      ///< day
    bool operator==(const Task&) const = default;
};

/// Something that comes from a supplier, or something seized that soaks. What is not ordered is taken as ordered today.
struct Part {
    std::string name;
    std::optional<int> ordered;
    double least_days = 0;
    double likely_days = 0; ///< 0: not said; it is taken as here
    double most_days = 0;
    bool soaks = false; ///< it comes from no supplier: something seized that is soaked, and tried afterwards
    bool operator==(const Part&) const = default;
};

/// A step that was done: what it was said to take and what it took.
struct Took {
    build::JobKind kind = build::JobKind::General;
    double said_h = 0;   ///< > 0; the mean of what was said
    double worked_h = 0; ///< > 0
    bool operator==(const Took&) const = default;
};

/// What own history says: things take exp(common + of their trade) times what was said. Gaussian, from what is usual before
/// anything was logged (common 0 ± 0.3, each trade 0 ± 0.2, one step 0.35, all 1 σ of the logarithm) and from what was.
struct Habit {
    static constexpr std::size_t trades = 20;
    double common = 0;                                        ///< mean
    std::array<double, trades> of_trade{};                    ///< means, beyond the common one
    std::vector<double> covariance;                           ///< (1 + trades)², row by row: common first
    double of_one = 0.35;                                     ///< σ of one step
    int learned_from = 0;                                     ///< steps
    std::array<int, trades> learned_of{};                     ///< of each trade
    double factor(build::JobKind) const;                      ///< median: 1.4, things take 1.4 times what is said
    std::pair<double, double> factor95(build::JobKind) const; ///< of that median, 95 %
    bool operator==(const Habit&) const = default;
};
/// Exact Gaussian conditioning; `of_one` is taken along with the residuals (inverse gamma, weight of 8 steps before).
Habit learn(const std::vector<Took>&);

/// What nobody had planned and was found on the way, so far.
struct Found {
    int times = 0;
    double hours = 0;     ///< that they were said to take, all together
    double planned_h = 0; ///< of planned work that was done meanwhile
    bool operator==(const Found&) const = default;
};
/// What is usually found: so many times an hour of planned work, each of exponentially distributed hours. Gamma and inverse
/// gamma, from what is usual before anything was found (once in 20 h, 4 h each; weights of 1 and 3 finds) and from what was.
struct Finds {
    double times_shape = 1;
    double times_rate_h = 20;
    double hours_shape = 3;
    double hours_scale_h = 8;
    int learned_from = 0;
    double growth() const { return times_shape / times_rate_h * hours_scale_h / (hours_shape - 1); } ///< hours an hour, mean
};
Finds learnFinds(const Found&);

struct ScheduleInput {
    int today = 0;
    ShopHours hours;
    std::vector<Task> tasks;
    std::vector<Part> parts;
    std::vector<Took> took;
    std::optional<Found> found; ///< none: nothing unplanned is counted on
    std::optional<int> wanted;  ///< the day that all is wanted by
    int draws = 1000;
    std::uint32_t seed = 1;
    bool alike = true; ///< one factor is common to all; false: each step errs by itself (tests)
    bool operator==(const ScheduleInput&) const = default;
};

/// Days that 10, 50 and 90 of 100 draws come to.
struct Spread {
    double p10 = 0;
    double p50 = 0;
    double p90 = 0;
};
struct TaskDates {
    Spread start; ///< days and fractions
    Spread finish;
    double holds_up = 0; ///< in this share of the draws the last day would be earlier without it: it is in the longest chain
    double late = 0;     ///< share of the draws in which it is later than wanted; 0 without a date
};
struct PartDates {
    Spread here;
    double holds_up = 0; ///< share of the draws in which a step waits for it
    std::optional<int>
        order_by; ///< so ordered it holds nothing up in 90 of 100 draws; none: nothing waits for it, or it is ordered
};
struct Schedule {
    std::vector<TaskDates> tasks; ///< as in the input
    std::vector<PartDates> parts;
    Spread finish;
    Spread hours;                   ///< of work that is left
    std::vector<double> finish_all; ///< of each draw, in order
    double by_wanted = 0;           ///< share of the draws that are done by then
    std::size_t unsaid = 0;         ///< tasks of no hours: they count nothing
    bool never = false;             ///< the shop has no hours at all
    Habit habit;
    Finds finds;
    Spread found_h; ///< hours among them that nobody has planned yet
};
/// Pure: the same input gives the same dates. Tasks come in an order in which each stands behind what it is after.
Schedule schedule(const ScheduleInput&);

/// Days and fractions at which so many hours of the shop's have passed since the morning of `today`, and the other way round.
class Clock {
public:
    Clock(const ShopHours&, int today);
    bool never() const { return week_h_ <= 0; }
    double dayAt(double hours) const; ///< hours ≥ 0; the end of a day rather than the beginning of the next
    double hoursAt(double day) const; ///< hours worked by then
    double hoursOfDay(int day) const; ///< that a day has
    double beginOfDay(int day) const; ///< of its hours: a fraction of the day

private:
    void reach(int day) const;
    ShopHours hours_;
    int today_;
    double week_h_ = 0;
    mutable std::vector<double> before_; ///< hours before each day since today
};

} // namespace gorvet::work
