// When the work may be done, against closed forms, convolutions and simulated shops.
#include "units/dates.hpp"
#include "work/schedule.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <random>

namespace work_schedule_test {

using namespace gorvet;
using namespace gorvet::work;

namespace {

const int monday = *units::dayOf("2026-11-30");

ShopHours everyDay(double hours, int people = 1) {
    ShopHours h;
    h.of_weekday.fill(hours);
    h.people = people;
    return h;
}
Task task(const std::string& code, double likely, std::vector<std::size_t> after = {}) {
    Task t;
    t.code = t.title = code;
    t.likely_h = likely;
    t.after = std::move(after);
    return t;
}
Task three(const std::string& code, double least, double likely, double most, std::vector<std::size_t> after = {}) {
    Task t = task(code, likely, std::move(after));
    t.least_h = least;
    t.most_h = most;
    return t;
}
/// Exactly as said: no factor, no scatter.
ScheduleInput exact(std::vector<Task> tasks, ShopHours hours) {
    ScheduleInput in;
    in.today = monday;
    in.hours = hours;
    in.tasks = std::move(tasks);
    in.alike = false;
    in.draws = 1;
    return in;
}

/// The density of the beta distribution that three figures mean, on a grid of the given pitch from 0, summing to 1.
std::vector<double> density(const Task& t, double pitch) {
    std::vector<double> p(static_cast<std::size_t>(t.most_h / pitch) + 1, 0.0);
    const double a = 4 * (t.likely_h - t.least_h) / (t.most_h - t.least_h),
                 b = 4 * (t.most_h - t.likely_h) / (t.most_h - t.least_h);
    double sum = 0;
    for (std::size_t k = 0; k < p.size(); ++k) {
        const double x = (static_cast<double>(k) * pitch - t.least_h) / (t.most_h - t.least_h);
        if (x > 0 && x < 1) sum += p[k] = std::pow(x, a) * std::pow(1 - x, b);
    }
    for (double& v : p) v /= sum;
    return p;
}
double quantileOf(const std::vector<double>& density, double pitch, double share) {
    double sum = 0;
    for (std::size_t k = 0; k < density.size(); ++k)
        if ((sum += density[k]) >= share) return static_cast<double>(k) * pitch;
    return 0;
}

} // namespace

TEST_CASE("the shop's clock: evenings, Saturdays, days off", "[work][schedule]") {
    ShopHours h; // 2 h on a weekday, 6 on a Saturday
    const Clock clock(h, monday);
    CHECK(clock.dayAt(0) == Approx(monday + 18.0 / 24));
    CHECK(clock.dayAt(1) == Approx(monday + 19.0 / 24));
    CHECK(clock.dayAt(2) == Approx(monday + 20.0 / 24));
    CHECK(clock.dayAt(2.5) == Approx(monday + 1 + 18.5 / 24));
    CHECK(clock.dayAt(10) == Approx(monday + 4 + 20.0 / 24));   // Friday
    CHECK(clock.dayAt(13) == Approx(monday + 5 + 11.0 / 24));   // Saturday begins in the morning
    CHECK(clock.dayAt(16.5) == Approx(monday + 7 + 18.5 / 24)); // not on Sunday
    h.off = {{monday + 1, monday + 3}};
    const Clock away(h, monday);
    CHECK(away.dayAt(2.5) == Approx(monday + 4 + 18.5 / 24));
    // there and back
    std::mt19937 dice(3);
    for (int n = 0; n < 500; ++n) {
        const double hours = std::uniform_real_distribution<double>(0.01, 400)(dice);
        CHECK(away.hoursAt(away.dayAt(hours)) == Approx(hours).margin(1e-6));
    }
    // a moment at which nobody works counts as the end of the work before it
    CHECK(clock.hoursAt(monday + 1 + 9.0 / 24) == Approx(2));
    CHECK(clock.hoursAt(monday + 6.5) == Approx(16));
    CHECK(Clock(everyDay(0), monday).never());
}

TEST_CASE("a chain, two pairs of hands, and a move that all stop for", "[work][schedule]") {
    const Schedule chain = schedule(exact({task("a", 3), task("b", 4, {0}), task("c", 1, {1})}, everyDay(8)));
    CHECK(chain.finish.p50 == Approx(monday + (8.0 + 8) / 24)); // 8 h are the whole first day
    CHECK(chain.hours.p50 == Approx(8));
    for (const TaskDates& t : chain.tasks) CHECK(t.holds_up == 1);

    const Schedule pair = schedule(exact({task("a", 3), task("b", 4)}, everyDay(8, 2)));
    CHECK(pair.finish.p50 == Approx(monday + (8.0 + 4) / 24));
    CHECK(pair.tasks[0].holds_up == 0);
    CHECK(pair.tasks[1].holds_up == 1);

    // the body is lifted once both are done, and what comes after waits for that
    std::vector<Task> tasks{task("a", 3), task("b", 4), task("lift", 1), task("c", 2)};
    tasks[2].alone = true;
    const Schedule moved = schedule(exact(tasks, everyDay(8, 2)));
    CHECK(moved.tasks[2].start.p50 == Approx(monday + 12.0 / 24).margin(1e-6));
    CHECK(moved.tasks[3].start.p50 == Approx(monday + 13.0 / 24).margin(1e-6));
    // two at it take half the time; a shop of one has a helper in
    tasks = {task("a", 6)};
    tasks[0].people = 2;
    CHECK(schedule(exact(tasks, everyDay(8, 2))).finish.p50 == Approx(monday + 11.0 / 24));
    CHECK(schedule(exact(tasks, everyDay(8, 1))).finish.p50 == Approx(monday + 11.0 / 24));
    // hours that were worked are off it
    tasks = {task("a", 6)};
    tasks[0].worked_h = 4;
    CHECK(schedule(exact(tasks, everyDay(8))).hours.p50 == Approx(2));
    tasks[0].worked_h = 20; // longer than it was said to take: nearly done, not done
    CHECK(schedule(exact(tasks, everyDay(8))).hours.p50 == Approx(0.6));
}

TEST_CASE("paint is left alone by the clock, whatever the shop's hours", "[work][schedule]") {
    std::vector<Task> tasks{task("paint", 2), task("fit", 1, {0})};
    ShopHours evenings;
    CHECK(schedule(exact(tasks, evenings)).tasks[1].finish.p50 == Approx(monday + 1 + 19.0 / 24));
    tasks[0].rest_h = 23; // from 20:00 on Monday to 19:00 on Tuesday
    CHECK(schedule(exact(tasks, evenings)).tasks[1].finish.p50 == Approx(monday + 1 + 20.0 / 24));
    tasks[0].rest_h = 24; // to 20:00, when that evening's work is over
    CHECK(schedule(exact(tasks, evenings)).tasks[1].finish.p50 == Approx(monday + 2 + 19.0 / 24));
}

TEST_CASE("a supplier's weeks: what waits, and when to order", "[work][schedule]") {
    std::vector<Task> tasks{task("a", 16), task("seals", 1, {0})};
    tasks[1].parts = {0};
    ScheduleInput in = exact(tasks, everyDay(8));
    in.parts = {{"seals", std::nullopt, 0, 10, 0}};
    // two days of work come first; ordered today they are here on the tenth day
    const Schedule today = schedule(in);
    CHECK(today.tasks[1].start.p50 == Approx(monday + 10 + 8.0 / 24).margin(1e-6));
    CHECK(today.parts[0].holds_up == 1);
    REQUIRE(today.parts[0].order_by);
    // the step could begin on the evening of the second day
    CHECK(*today.parts[0].order_by == monday + 1 - 10);
    CHECK(today.tasks[0].holds_up == 0); // the end hangs on the part, not on the work before it

    in.parts[0].ordered = monday - 30;
    const Schedule here = schedule(in);
    CHECK(here.parts[0].holds_up == 0);
    CHECK_FALSE(here.parts[0].order_by);
    CHECK(here.tasks[1].finish.p50 == Approx(monday + 2 + 9.0 / 24));

    // ordered by that day it holds nothing up in 90 of 100: played with lead times at random
    in.parts[0] = {"seals", std::nullopt, 5, 9, 30};
    in.tasks[0].likely_h = 400;
    in.draws = 4000;
    const Schedule drawn = schedule(in);
    REQUIRE(drawn.parts[0].order_by);
    REQUIRE(*drawn.parts[0].order_by > monday);
    in.tasks[0].likely_h = 400 - 8 * (*drawn.parts[0].order_by - monday); // and ordered on that day
    in.today = *drawn.parts[0].order_by;
    in.seed = 77;
    const double held = schedule(in).parts[0].holds_up; // whole days are given away, never taken
    CHECK(held < 0.11);
    CHECK(held > 0.03);
}

TEST_CASE("three figures in a row and side by side agree with convolutions", "[work][schedule]") {
    constexpr double pitch = 0.01;
    const Task a = three("a", 2, 3, 8), b = three("b", 1, 4, 6);
    const auto pa = density(a, pitch), pb = density(b, pitch);
    ScheduleInput in = exact({a, b}, everyDay(24));
    in.draws = 40'000;
    {
        std::vector<double> sum(pa.size() + pb.size(), 0.0);
        for (std::size_t i = 0; i < pa.size(); ++i)
            for (std::size_t j = 0; j < pb.size(); ++j) sum[i + j] += pa[i] * pb[j];
        const Schedule s = schedule(in);
        CHECK(s.hours.p10 == Approx(quantileOf(sum, pitch, 0.1)).margin(0.05));
        CHECK(s.hours.p50 == Approx(quantileOf(sum, pitch, 0.5)).margin(0.05));
        CHECK(s.hours.p90 == Approx(quantileOf(sum, pitch, 0.9)).margin(0.05));
    }
    {
        in.hours.people = 2; // the later of the two
        std::vector<double> later(std::max(pa.size(), pb.size()), 0.0);
        double ca = 0, cb = 0, before = 0;
        for (std::size_t k = 0; k < later.size(); ++k) {
            ca += k < pa.size() ? pa[k] : 0;
            cb += k < pb.size() ? pb[k] : 0;
            later[k] = ca * cb - before;
            before = ca * cb;
        }
        const Schedule s = schedule(in);
        for (const auto& [share, day] :
             {std::pair{0.1, s.finish.p10}, std::pair{0.5, s.finish.p50}, std::pair{0.9, s.finish.p90}})
            CHECK((day - monday) * 24 == Approx(quantileOf(later, pitch, share)).margin(0.06));
    }
}

TEST_CASE("what is common to all steps makes the end uncertain; independent steps hide it", "[work][schedule]") {
    std::vector<Task> tasks;
    for (int k = 0; k < 40; ++k) tasks.push_back(three("t" + std::to_string(k), 2, 4, 8));
    ScheduleInput in = exact(tasks, everyDay(8));
    in.draws = 4000;
    const Schedule apart = schedule(in);
    CHECK(apart.hours.p90 / apart.hours.p50 < 1.08);
    in.alike = true;
    const Schedule alike = schedule(in);
    CHECK(alike.hours.p90 / alike.hours.p50 > 1.4);
    CHECK(alike.hours.p90 / alike.hours.p50 < 1.8);
}

TEST_CASE("what is not said counts nothing and is said; a shop without hours never ends", "[work][schedule]") {
    const Schedule s = schedule(exact({task("a", 3), task("b", 0), task("c", 0, {1})}, everyDay(8)));
    CHECK(s.unsaid == 2);
    CHECK(s.finish.p50 == Approx(monday + 11.0 / 24));
    const Schedule never = schedule(exact({task("a", 3)}, everyDay(0)));
    CHECK(never.never);
    CHECK_FALSE(schedule(exact({}, everyDay(8))).never);
    // the same input gives the same days
    ScheduleInput in = exact({three("a", 1, 2, 9)}, everyDay(3));
    in.alike = true;
    in.draws = 500;
    CHECK(schedule(in).finish_all == schedule(in).finish_all);
}

TEST_CASE("dates at risk", "[work][schedule]") {
    std::vector<Task> tasks{three("a", 8, 16, 60), task("b", 1, {0})};
    tasks[0].wanted = monday + 2;
    ScheduleInput in = exact(tasks, everyDay(8));
    in.wanted = monday + 2;
    in.draws = 20'000;
    const Schedule s = schedule(in);
    // P(a is done by the end of the third day: 24 h), by its density
    const auto p = density(tasks[0], 0.01);
    double done = 0, all_done = 0;
    for (std::size_t k = 0; k < p.size(); ++k) {
        done += static_cast<double>(k) * 0.01 <= 24 ? p[k] : 0;
        all_done += static_cast<double>(k) * 0.01 <= 23 ? p[k] : 0;
    }
    CHECK(s.tasks[0].late == Approx(1 - done).margin(0.015));
    CHECK(s.by_wanted == Approx(all_done).margin(0.015));
}

namespace {

/// A shop whose habits are drawn as the prior says.
struct Shop {
    double common;
    std::array<double, Habit::trades> trade{};
    explicit Shop(std::mt19937& dice) {
        std::normal_distribution<double> n;
        common = 0.3 * n(dice);
        for (double& t : trade) t = 0.2 * n(dice);
    }
    double takes(double said, build::JobKind k, std::mt19937& dice) const {
        return said * std::exp(common + trade[static_cast<std::size_t>(k)] + 0.35 * std::normal_distribution<double>()(dice));
    }
};

const build::JobKind kinds[] = {build::JobKind::Weld, build::JobKind::Paint, build::JobKind::TakeApart};

std::vector<Took> history(const Shop& shop, int n, std::mt19937& dice) {
    std::vector<Took> took;
    for (int k = 0; k < n; ++k) {
        const double said = std::uniform_real_distribution<double>(1, 12)(dice);
        took.push_back({kinds[k % 3], said, shop.takes(said, kinds[k % 3], dice)});
    }
    return took;
}

} // namespace

TEST_CASE("learned factors recover the shop's habits: 93 to 97 of 100 lie within what is said", "[work][schedule]") {
    std::mt19937 dice(11);
    int within = 0, all = 0;
    for (int n = 0; n < 700; ++n) {
        const Shop shop(dice);
        const Habit h = learn(history(shop, 12, dice));
        CHECK(h.learned_from == 12);
        for (const build::JobKind k : kinds) {
            const double truth = std::exp(shop.common + shop.trade[static_cast<std::size_t>(k)]);
            const auto [low, high] = h.factor95(k);
            within += low <= truth && truth <= high;
            ++all;
        }
    }
    CHECK(double(within) / all > 0.93);
    CHECK(double(within) / all < 0.97);
    // of a long history nothing is left to doubt
    const Shop shop(dice);
    const Habit long_ago = learn(history(shop, 3000, dice));
    CHECK(long_ago.of_one == Approx(0.35).margin(0.02));
    CHECK(long_ago.factor(build::JobKind::Weld) == Approx(std::exp(shop.common + shop.trade[7])).epsilon(0.05));
    CHECK(static_cast<std::size_t>(build::JobKind::Weld) == 7);
    // nothing logged: as said
    CHECK(learn({}).factor(build::JobKind::Weld) == 1);
}

TEST_CASE("the day that 90 of 100 are done by is kept by 85 to 95 of 100 simulated projects", "[work][schedule]") {
    std::mt19937 dice(5);
    for (const int logged : {0, 20}) {
        int kept = 0;
        constexpr int projects = 400;
        for (int n = 0; n < projects; ++n) {
            const Shop shop(dice);
            ScheduleInput in;
            in.today = monday;
            in.draws = 300;
            in.seed = static_cast<std::uint32_t>(n);
            in.took = history(shop, logged, dice);
            double truth = 0;
            for (int k = 0; k < 15; ++k) {
                Task t = task("t" + std::to_string(k), std::uniform_real_distribution<double>(1, 10)(dice));
                t.kind = kinds[k % 3];
                truth += shop.takes(t.likely_h, t.kind, dice);
                in.tasks.push_back(std::move(t));
            }
            kept += Clock(in.hours, in.today).dayAt(truth) <= schedule(in).finish.p90;
        }
        INFO(logged);
        CHECK(double(kept) / projects > 0.85);
        CHECK(double(kept) / projects < 0.95);
    }
}

TEST_CASE("what is found on the way: its mean is that of the closed form, and nothing is counted on where it is not asked for",
          "[work][schedule][finds]") {
    // very well known: once in 10 h, 3 h each
    ScheduleInput in = exact({task("a", 40), task("b", 60, {0})}, everyDay(8));
    in.draws = 6000;
    CHECK(schedule(in).found_h.p90 == 0);
    in.found = Found{100'000, 300'000, 1'000'000};
    const Schedule s = schedule(in);
    CHECK(s.finds.growth() == Approx(0.3).epsilon(0.01));
    // a compound Poisson of mean 30 h and variance 2 · 10 · 3² = 180
    CHECK((s.found_h.p10 + s.found_h.p90) / 2 == Approx(30).margin(2.0));
    CHECK((s.found_h.p90 - s.found_h.p10) / (2 * 1.2816) == Approx(std::sqrt(180.0)).epsilon(0.06));
    CHECK(s.hours.p50 == Approx(100 + s.found_h.p50).margin(0.01));
    // what was worked off is looked through already
    in.tasks[1].worked_h = 60;
    CHECK(schedule(in).found_h.p50 == Approx(12).margin(1.5));
}

TEST_CASE("of simulated shops 90 of 100 find no more than what is said of 90, whatever was learned", "[work][schedule][finds]") {
    std::mt19937 dice(21);
    for (const double past_h : {0.0, 60.0, 400.0}) {
        int within = 0;
        constexpr int shops = 1200;
        for (int n = 0; n < shops; ++n) {
            // as the figures before anything was found have it
            const double an_hour = std::gamma_distribution<double>(1, 1 / 20.0)(dice);
            const double each = 8 / std::gamma_distribution<double>(3, 1)(dice);
            const auto finds = [&](double hours) {
                Found f{std::poisson_distribution<int>(an_hour * hours)(dice), 0, hours};
                for (int k = 0; k < f.times; ++k) f.hours += std::exponential_distribution<double>(1 / each)(dice);
                return f;
            };
            ScheduleInput in = exact({task("a", 50), task("b", 70, {0})}, everyDay(8));
            in.draws = 400;
            in.seed = static_cast<std::uint32_t>(n + 1);
            in.found = finds(past_h);
            const double truth = finds(120).hours;
            // p90 is what is shown: 90 of 100 lie below it
            within += truth <= schedule(in).found_h.p90 + 1e-9;
        }
        INFO(past_h);
        CHECK(double(within) / shops > 0.87);
        CHECK(double(within) / shops < 0.94);
    }
}

} // namespace work_schedule_test
