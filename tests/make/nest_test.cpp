// Lengths cut from bars: against every way there is on small jobs, against a published one, and what must hold of any.
#include "make/nest.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <map>
#include <random>

namespace make_nest_test {

using namespace gorvet::make;

/// The least cost by trying every way: each piece into each bar that is begun, or a new one.
double bruteForce(const NestInput& in) {
    std::vector<double> pieces;
    for (const NestPiece& p : in.pieces) pieces.insert(pieces.end(), static_cast<std::size_t>(p.count), p.length_mm);
    std::sort(pieces.rbegin(), pieces.rend());
    struct Begun {
        std::size_t bar;
        double left;
    };
    std::vector<Begun> begun;
    std::vector<int> used(in.bars.size(), 0);
    double best = std::numeric_limits<double>::infinity();
    const std::function<void(std::size_t, double)> go = [&](std::size_t k, double cost) {
        if (cost >= best - 1e-12) return;
        if (k == pieces.size()) {
            best = cost;
            return;
        }
        std::vector<std::pair<std::size_t, double>> tried;
        for (std::size_t n = 0; n < begun.size(); ++n) {
            const Begun was = begun[n];
            if (pieces[k] > was.left + 1e-9 || std::find(tried.begin(), tried.end(), std::pair{was.bar, was.left}) != tried.end())
                continue;
            tried.emplace_back(was.bar, was.left);
            begun[n].left = std::max(0.0, was.left - pieces[k] - in.kerf_mm);
            go(k + 1, cost);
            begun[n] = was;
        }
        for (std::size_t n = 0; n < in.bars.size(); ++n) {
            const NestBar& bar = in.bars[n];
            if (pieces[k] > bar.length_mm + 1e-9 || (bar.count && used[n] >= *bar.count)) continue;
            begun.push_back({n, std::max(0.0, bar.length_mm - pieces[k] - in.kerf_mm)});
            ++used[n];
            go(k + 1, cost + (bar.count ? 0 : bar.price.value_or(bar.length_mm / 1000)));
            --used[n];
            begun.pop_back();
        }
    };
    go(0, 0);
    return best;
}

/// What must hold of any plan: every piece once, every bar long enough, the shelf not emptied twice.
void whole(const NestInput& in, const NestPlan& p) {
    std::vector<int> seen(in.pieces.size(), 0);
    std::map<std::size_t, int> bars;
    double cost = 0, used = 0;
    for (const NestLayout& l : p.layouts) {
        double length = -in.kerf_mm;
        for (const std::size_t k : l.pieces) {
            seen[k] += l.times;
            length += in.pieces[k].length_mm + in.kerf_mm;
        }
        const NestBar& bar = in.bars[l.bar];
        CHECK(length <= bar.length_mm + 1e-6);
        CHECK(l.left_mm == Approx(std::max(0.0, bar.length_mm - length - in.kerf_mm)).margin(1e-6));
        bars[l.bar] += l.times;
        used += l.times * bar.length_mm;
        if (!bar.count) cost += l.times * bar.price.value_or(bar.length_mm / 1000);
    }
    for (const std::size_t k : p.too_long) ++seen[k];
    for (std::size_t k = 0; k < seen.size(); ++k) CHECK(seen[k] == in.pieces[k].count);
    for (const auto& [bar, n] : bars)
        if (in.bars[bar].count) CHECK(n <= *in.bars[bar].count);
    CHECK(cost == Approx(p.cost));
    CHECK(used == Approx(p.used_mm));
    CHECK(p.least <= p.cost + 1e-3 * (1 + p.used_mm / 1000) + 1e9 * static_cast<double>(!p.too_long.empty()));
}

TEST_CASE("bars by hand: kerf, offcuts before what is bought, what no bar takes", "[make][nest]") {
    // three of 1990 out of 6000 with a kerf of 15: 2 × 15 between them; with 16 one bar is short
    NestInput in{"", {{"leg", 1990, 3}}, {{"mill", 6000, {}, 40.0}}, 15};
    NestPlan p = nestBars(in);
    whole(in, p);
    CHECK(p.cost == 40);
    CHECK(p.exact);
    CHECK(p.layouts.size() == 1);
    in.kerf_mm = 15.1;
    CHECK(nestBars(in).cost == 80);
    // an offcut is taken first, and of two the shorter
    in = {"", {{"rib", 300, 1}}, {{"mill", 6000, {}, 40.0}, {"long", 1200, 1, {}}, {"short", 310, 1, {}}}, 2};
    p = nestBars(in);
    whole(in, p);
    CHECK(p.cost == 0);
    REQUIRE(p.layouts.size() == 1);
    CHECK(in.bars[p.layouts[0].bar].name == "short");
    // the shelf is not used twice
    in.pieces = {{"rib", 300, 6}};
    p = nestBars(in);
    whole(in, p);
    CHECK(p.cost == 40);
    // the cheaper of two lengths, by what all of it costs
    in = {"", {{"leg", 1400, 2}}, {{"mill", 6000, {}, 40.0}, {"half", 3000, {}, 24.0}}, 2};
    CHECK(nestBars(in).cost == 24);
    in.pieces[0].count = 4;
    CHECK(nestBars(in).cost == 40);
    // what is longer than any
    in.pieces.push_back({"rail", 7000, 1});
    p = nestBars(in);
    whole(in, p);
    CHECK(p.too_long == std::vector<std::size_t>{1});
    in.bars.clear();
    p = nestBars(in);
    CHECK(p.too_long.size() == 5);
    CHECK(nestBars({}).exact);
}

TEST_CASE("small jobs against every way there is", "[make][nest][property]") {
    std::mt19937 dice(12);
    const auto any = [&](int from, int to) { return std::uniform_int_distribution<int>(from, to)(dice); };
    for (int round = 0; round < 60; ++round) {
        NestInput in;
        in.kerf_mm = any(0, 4);
        for (int k = any(2, 5); k > 0; --k) in.pieces.push_back({"p", 100.0 * any(3, 28) + any(0, 9), any(1, 2)});
        in.bars.push_back({"mill", 6000, {}, 40.0});
        if (any(0, 1)) in.bars.push_back({"half", 3000, {}, 22.0});
        for (int k = any(0, 2); k > 0; --k) in.bars.push_back({"offcut", 100.0 * any(4, 20), any(1, 2), {}});
        const NestPlan p = nestBars(in);
        INFO(round);
        whole(in, p);
        CHECK(p.exact);
        CHECK(p.too_long.empty());
        CHECK(p.cost == Approx(bruteForce(in)));
        // with a few patterns only it is no worse than two in a hundred, and its bound is none above the truth
        const NestPlan few = nestBars(in, 1);
        whole(in, few);
        CHECK(few.least <= p.cost + 0.01);
        CHECK(few.cost >= p.cost - 1e-9);
    }
}

TEST_CASE("a published job of 13 widths: 73 rolls, and no fewer", "[make][nest][closed-form]") {
    // the example of the article on cutting stock that is common in textbooks: 5600 wide
    NestInput in;
    in.bars = {{"roll", 5600, {}, 1.0}};
    for (const auto& [width, count] : {std::pair{1380.0, 22},
                                       {1520.0, 25},
                                       {1560.0, 12},
                                       {1710.0, 14},
                                       {1820.0, 18},
                                       {1880.0, 18},
                                       {1930.0, 20},
                                       {2000.0, 10},
                                       {2050.0, 12},
                                       {2100.0, 14},
                                       {2140.0, 16},
                                       {2150.0, 18},
                                       {2200.0, 20}})
        in.pieces.push_back({"w", width, count});
    const NestPlan p = nestBars(in, 5000, 20'000); // it takes a hundredth of a second
    whole(in, p);
    CHECK(p.cost == Approx(73));
    CHECK(p.least > 72);
    CHECK(p.exact);
    // by column generation: the same bound, and within two in a hundred of it
    const NestPlan generated = nestBars(in, 10);
    whole(in, generated);
    CHECK(generated.least == Approx(p.least).epsilon(0.002));
    CHECK(generated.least <= 73);
    CHECK(generated.cost <= 1.02 * 73);
}

TEST_CASE("large jobs: within two in a hundred of what is proven", "[make][nest]") {
    std::mt19937 dice(4);
    const auto any = [&](int from, int to) { return std::uniform_int_distribution<int>(from, to)(dice); };
    for (int round = 0; round < 6; ++round) {
        NestInput in;
        in.kerf_mm = 2;
        in.bars = {{"mill", 6000, {}, 40.0}};
        for (int k = 0; k < 30; ++k) in.pieces.push_back({"p", any(1200, 28000) / 10.0, any(1, 4)});
        const NestPlan p = nestBars(in, 5000, 800);
        INFO(round);
        whole(in, p);
        CHECK(p.too_long.empty());
        CHECK(p.cost <= std::ceil(1.02 * p.least / 40) * 40);
    }
}

} // namespace make_nest_test
