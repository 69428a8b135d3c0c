#include "make/plates.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

namespace make_plates_test {

using namespace gorvet;
using geometry::Flat;
using geometry::Outline;

namespace {

double fromSide(const Flat& p, const Flat& a, const Flat& b) {
    const double dx = b.first - a.first, dy = b.second - a.second, dd = dx * dx + dy * dy;
    const double s = dd > 0 ? std::clamp(((p.first - a.first) * dx + (p.second - a.second) * dy) / dd, 0.0, 1.0) : 0;
    return std::hypot(p.first - a.first - s * dx, p.second - a.second - s * dy);
}
double turn(const Flat& a, const Flat& b, const Flat& c) {
    return (b.first - a.first) * (c.second - a.second) - (b.second - a.second) * (c.first - a.first);
}
/// How far two outlines are apart; 0: they cross, or one lies in the other. Side by side, in double: nothing of the search.
double apart(const Outline& p, const Outline& q) {
    if (geometry::isInside(p, q.front()) || geometry::isInside(q, p.front())) return 0;
    double least = 1e18;
    for (std::size_t i = 0; i < p.size(); ++i)
        for (std::size_t j = 0; j < q.size(); ++j) {
            const Flat &a = p[i], &b = p[(i + 1) % p.size()], &c = q[j], &d = q[(j + 1) % q.size()];
            if (turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0) return 0;
            least = std::min({least, fromSide(a, c, d), fromSide(b, c, d), fromSide(c, a, b), fromSide(d, a, b)});
        }
    return least;
}

Outline rectangle(double w, double h) { return {{0, 0}, {w, 0}, {w, h}, {0, h}}; }

/// Shapes as Make cuts them: gussets with their corner cut back, ears round their bolt, flanges, brackets with a hollow.
Outline shapeOf(int kind, std::mt19937& random) {
    std::uniform_real_distribution<double> size(40, 180);
    const double a = size(random), b = size(random);
    switch (kind) {
    case 0: return rectangle(a, b);
    case 1: return {{20, 0}, {a + 20, 0}, {a + 20, 12}, {12, b + 20}, {0, b + 20}, {0, 20}};
    case 2: return geometry::hullRound({{0, 0}, {a, 0}, {a / 2, b}}, 22, 24);
    case 3: return {{0, 0}, {a + 60, 0}, {a + 60, 30}, {30, 30}, {30, b + 60}, {0, b + 60}}; // an angle's two legs
    case 4: return {{0, 0}, {a, 0}, {a, 25}, {25, 25}, {25, b + 20}, {a, b + 20}, {a, b + 45}, {0, b + 45}}; // open to one side
    default: {
        Outline ear{{-a / 2, 0}, {a / 2, 0}};
        for (int k = 0; k <= 16; ++k)
            ear.emplace_back(20 * std::cos(std::numbers::pi * k / 16), 60 + 20 * std::sin(std::numbers::pi * k / 16));
        return ear;
    }
    }
}

make::PlatesInput randomJob(unsigned seed, int kinds) {
    std::mt19937 random(seed);
    make::PlatesInput in;
    in.thickness_mm = 4;
    for (int k = 0; k < kinds; ++k)
        in.pieces.push_back(
            {"p" + std::to_string(k), shapeOf(static_cast<int>(random() % 6), random), 1 + static_cast<int>(random() % 4)});
    in.plates = {{"whole", 3000, 400, std::nullopt, std::nullopt}};
    return in;
}

/// Everything laid once, within its plate, no two nearer than the gap.
void checkLaid(const make::PlatesInput& in, const make::PlatesPlan& p) {
    std::vector<int> count(in.pieces.size(), 0);
    for (const std::size_t k : p.too_large) ++count[k];
    for (const auto& l : p.layouts) {
        std::vector<Outline> all;
        for (const auto& one : l.pieces) {
            ++count[one.piece];
            all.push_back(make::laid(in, one));
            CHECK(geometry::areaOf(all.back()) == Approx(geometry::areaOf(in.pieces[one.piece].outline)));
            for (const auto& [x, y] : all.back()) {
                CHECK(x > in.edge_mm - 0.01);
                CHECK(y > in.edge_mm - 0.01);
                CHECK(x < in.plates[l.plate].length_mm - in.edge_mm + 0.01);
                CHECK(y < in.plates[l.plate].width_mm - in.edge_mm + 0.01);
            }
        }
        for (std::size_t i = 0; i < all.size(); ++i)
            for (std::size_t j = 0; j < i; ++j) CHECK(apart(all[i], all[j]) > in.gap_mm - 0.01);
    }
    for (std::size_t k = 0; k < count.size(); ++k) CHECK(count[k] == in.pieces[k].count);
}

/// The least that rectangles round the pieces want, laid one by one as far left and low as they go, the largest first, each the
/// way that reaches least: what a person does with a square.
double bottomLeft(const make::PlatesInput& in) {
    struct Box {
        double x, y, w, h;
    };
    std::vector<std::pair<double, double>> sizes;
    for (const auto& piece : in.pieces) {
        double low[2] = {1e9, 1e9}, high[2] = {-1e9, -1e9};
        for (const auto& [x, y] : piece.outline) {
            low[0] = std::min(low[0], x);
            low[1] = std::min(low[1], y);
            high[0] = std::max(high[0], x);
            high[1] = std::max(high[1], y);
        }
        for (int k = 0; k < piece.count; ++k) sizes.emplace_back(high[0] - low[0] + in.gap_mm, high[1] - low[1] + in.gap_mm);
    }
    std::sort(sizes.begin(), sizes.end(), [](const auto& a, const auto& b) { return a.first * a.second > b.first * b.second; });
    std::vector<Box> laid;
    double reaches = 0;
    const double top = in.plates[0].width_mm - 2 * in.edge_mm + in.gap_mm;
    for (const auto& size : sizes) {
        Box best{1e9, 0, 0, 0};
        double best_key = 1e18;
        for (const bool turned : {false, true}) {
            const double w = turned ? size.second : size.first, h = turned ? size.first : size.second;
            std::vector<double> xs{0}, ys{0};
            for (const Box& b : laid) {
                xs.push_back(b.x + b.w);
                ys.push_back(b.y + b.h);
            }
            for (const double x : xs)
                for (const double y : ys) {
                    if (y + h > top + 1e-9) continue;
                    const bool free = std::none_of(laid.begin(), laid.end(), [&](const Box& b) {
                        return x < b.x + b.w - 1e-9 && b.x < x + w - 1e-9 && y < b.y + b.h - 1e-9 && b.y < y + h - 1e-9;
                    });
                    if (const double key = (x + w) * 1e4 + y; free && key < best_key) {
                        best_key = key;
                        best = {x, y, w, h};
                    }
                }
        }
        laid.push_back(best);
        reaches = std::max(reaches, best.x + best.w);
    }
    return reaches;
}

} // namespace

TEST_CASE("plates by hand: rectangles that fill one, hollows that are used, what no plate takes", "[make][plates][closed-form]") {
    make::PlatesInput in;
    in.gap_mm = 2;
    in.edge_mm = 5;
    in.pieces = {{"a", rectangle(200, 100), 4}};
    in.plates = {{"p", 2 * 200 + 2 + 10, 2 * 100 + 2 + 10, std::nullopt, 12.0}};
    auto p = make::layPlates(in);
    REQUIRE(p.layouts.size() == 1); // they fill it exactly
    CHECK(p.layouts[0].pieces.size() == 4);
    CHECK(p.layouts[0].share == Approx(4 * 20'000 / (412.0 * 212)));
    CHECK(p.cost == Approx(12));
    CHECK(p.least == Approx(12));
    checkLaid(in, p);
    // a tenth of a millimetre less, and two are wanted
    in.plates[0].length_mm -= 0.1;
    p = make::layPlates(in);
    CHECK(p.layouts.size() == 2);
    checkLaid(in, p);
    // a bar goes into the hollow of a bracket
    in.pieces = {{"hollow", {{0, 0}, {100, 0}, {100, 20}, {20, 20}, {20, 80}, {100, 80}, {100, 100}, {0, 100}}, 1},
                 {"bar", rectangle(70, 50), 1}};
    in.plates = {{"p", 110, 110, std::nullopt, std::nullopt}};
    p = make::layPlates(in);
    CHECK(p.layouts.size() == 1);
    checkLaid(in, p);
    // not into a closed one: what is said of a hole is steel here
    in.pieces = {{"a", rectangle(100, 100), 1}, {"b", rectangle(40, 40), 1}};
    p = make::layPlates(in);
    CHECK(p.layouts.size() == 2);
    checkLaid(in, p);
    // too large for any
    in.pieces.push_back({"c", rectangle(300, 20), 1});
    p = make::layPlates(in);
    CHECK(p.too_large == std::vector<std::size_t>{2});
    checkLaid(in, p);
    // the shelf first, as many as are there; then the cheapest by its area
    in.pieces = {{"a", rectangle(90, 90), 3}};
    in.plates = {
        {"dear", 110, 110, std::nullopt, 9.0}, {"shelf", 105, 105, 1, std::nullopt}, {"cheap", 220, 110, std::nullopt, 10.0}};
    p = make::layPlates(in);
    checkLaid(in, p);
    CHECK(p.cost == Approx(10));
    CHECK(p.layouts.size() == 2);
}

TEST_CASE("laid plates never overlap, and beat what rectangles take", "[make][plates][property]") {
    int better = 0;
    double saved = 0;
    for (unsigned seed = 1; seed <= 20; ++seed) {
        INFO("job " << seed);
        const auto in = randomJob(seed, 4 + static_cast<int>(seed % 6));
        const auto p = make::layPlates(in, 12);
        checkLaid(in, p);
        REQUIRE(p.layouts.size() == 1);
        CHECK(p.too_large.empty());
        const double mine = in.plates[0].length_mm - p.layouts[0].rest_mm - in.gap_mm - in.edge_mm;
        const double theirs = bottomLeft(in) - in.gap_mm;
        CHECK(mine <= theirs + 0.01);
        better += mine < theirs - 1;
        saved += 1 - mine / theirs;
        CHECK(p.least <= p.cost + 1e-9);
    }
    CHECK(better >= 18);
    std::printf("plates: shorter than laid rectangles in %d of 20 jobs, by %.1f %% on average\n", better, 100 * saved / 20);
}

TEST_CASE("plates laid twice are laid alike", "[make][plates]") {
    const auto in = randomJob(5, 6);
    const auto a = make::layPlates(in), b = make::layPlates(in);
    REQUIRE(a.layouts.size() == b.layouts.size());
    for (std::size_t k = 0; k < a.layouts.size(); ++k)
        for (std::size_t i = 0; i < a.layouts[k].pieces.size(); ++i)
            CHECK(a.layouts[k].pieces[i].at == b.layouts[k].pieces[i].at);
    CHECK(make::layPlates({4, {}, {}, 3, 5}).layouts.empty());
    CHECK(make::layPlates({4, {{"a", rectangle(10, 10), 2}}, {}, 3, 5}).too_large.size() == 2);
}

} // namespace make_plates_test
