// What must be bought: pieces laid into lengths from the shelf, against every way there is.
#include "work/buy.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <functional>
#include <map>
#include <random>

namespace work_buy_test {

using namespace gorvet;
using namespace gorvet::work;
using build::Stock;
using build::StockForm;

namespace {

SteelNeed box(const char* what, double length, int count = 1) { return {what, StockForm::Box, 60, 40, 3, length, count}; }
Stock shelf(const std::string& name, double length, double count = 1, StockForm form = StockForm::Box, double h = 60,
            double w = 40, double wall = 3) {
    Stock s;
    s.name = name;
    s.form = form;
    s.height_mm = h;
    s.width_mm = w;
    s.wall_mm = wall;
    s.length_mm = length;
    s.count = count;
    return s;
}

/// The most that can be cut from lengths, by trying every way.
double mostByBruteForce(const std::vector<double>& pieces, std::vector<double> bins, double kerf, std::size_t i = 0) {
    if (i == pieces.size()) return 0;
    double best = mostByBruteForce(pieces, bins, kerf, i + 1);
    for (double& bin : bins)
        if (pieces[i] <= bin + 1e-9) {
            const double before = bin;
            bin -= std::min(bin, pieces[i] + kerf);
            best = std::max(best, pieces[i] + mostByBruteForce(pieces, bins, kerf, i + 1));
            bin = before;
        }
    return best;
}

} // namespace

TEST_CASE("as much is cut from the shelf as can be, against every way of cutting", "[work][buy]") {
    std::mt19937 dice(3);
    const auto upTo = [&](int n) { return std::uniform_int_distribution<int>(1, n)(dice); };
    for (int job = 0; job < 200; ++job) {
        std::vector<SteelNeed> needs;
        std::vector<double> pieces, bins;
        for (int k = upTo(6); k > 0; --k) {
            needs.push_back(box("piece", 50.0 * upTo(12)));
            pieces.push_back(needs.back().length_mm);
        }
        std::vector<Stock> stock;
        for (int k = upTo(4); k > 0; --k) {
            stock.push_back(shelf("s" + std::to_string(k), 50.0 * upTo(20)));
            bins.push_back(stock.back().length_mm);
        }
        constexpr double kerf = 2;
        const SteelPlan p = placeSteel(needs, stock, kerf);
        CHECK(p.exact);
        double all = 0;
        for (const double piece : pieces) all += piece;
        CHECK(all - p.bought_mm == Approx(mostByBruteForce(pieces, bins, kerf)));
        // no length gives more than it has
        std::map<std::string, double> used;
        for (const PlacedPiece& piece : p.pieces)
            if (!piece.from.empty()) used[piece.from] += needs[piece.need].length_mm + kerf;
        for (const Stock& s : stock) CHECK(used[s.name] <= s.length_mm + kerf + 1e-9);
        CHECK(p.pieces.size() == pieces.size());
    }
}

TEST_CASE("a kerf for each cut, none where a piece ends with its length", "[work][buy]") {
    CHECK(placeSteel({box("a", 500), box("b", 500)}, {shelf("s", 1002)}, 2).bought_mm == 0);
    CHECK(placeSteel({box("a", 500), box("b", 500)}, {shelf("s", 1001)}, 2).bought_mm == 500);
    CHECK(placeSteel({box("a", 1000)}, {shelf("s", 1000)}, 2).bought_mm == 0);
    const SteelPlan bought = placeSteel({box("a", 300, 2)}, {}, 2);
    REQUIRE(bought.buy.size() == 1);
    CHECK(bought.buy[0].total_mm == 604);
    CHECK(bought.buy[0].section == "box 60 × 40 × 3");
    // the offcut goes first, and the long one stays whole
    const SteelPlan p = placeSteel({box("a", 300)}, {shelf("long", 6000), shelf("offcut", 320)}, 2);
    CHECK(p.pieces[0].from == "offcut");
    CHECK(placeSteel({box("a", 300)}, {shelf("gone", 6000, 0)}, 2).bought_mm == 300);
}

TEST_CASE("only the same section will do, lying either way where that is the same", "[work][buy]") {
    const SteelNeed need = box("a", 300);
    CHECK(sameSection(need, shelf("s", 1000, 1, StockForm::Box, 40, 60, 3)));
    CHECK(sameSection(need, shelf("s", 1000, 1, StockForm::Box, 60.5, 40, 3)));
    CHECK_FALSE(sameSection(need, shelf("s", 1000, 1, StockForm::Box, 61, 40, 3)));
    CHECK_FALSE(sameSection(need, shelf("s", 1000, 1, StockForm::Box, 60, 40, 2)));
    CHECK_FALSE(sameSection(need, shelf("s", 1000, 1, StockForm::Channel)));
    SteelNeed channel = need;
    channel.form = StockForm::Channel;
    CHECK(sameSection(channel, shelf("s", 1000, 1, StockForm::Channel)));
    CHECK_FALSE(sameSection(channel, shelf("s", 1000, 1, StockForm::Channel, 40, 60, 3)));
    // where not all ways were looked at, it says so, and what fits best is still cut
    std::vector<SteelNeed> many;
    std::vector<Stock> lengths;
    std::mt19937 dice(4);
    for (int k = 0; k < 40; ++k) many.push_back(box("p", 100 + std::uniform_int_distribution<int>(0, 700)(dice)));
    for (int k = 0; k < 25; ++k)
        lengths.push_back(shelf("l" + std::to_string(k), 500 + std::uniform_int_distribution<int>(0, 900)(dice)));
    const SteelPlan p = placeSteel(many, lengths, 2, 500);
    CHECK_FALSE(p.exact);
    CHECK(p.pieces.size() == 40);
    std::map<std::string, double> used;
    for (const PlacedPiece& piece : p.pieces)
        if (!piece.from.empty()) used[piece.from] += many[piece.need].length_mm;
    for (const Stock& s : lengths) CHECK(used[s.name] <= s.length_mm);
}

} // namespace work_buy_test
