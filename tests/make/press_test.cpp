// Bends on a press: in what order, what comes against the blade, holes and ends of bends. Played by another simulation.
#include "make/flat_sheet.hpp"
#include "make/part_examples.hpp"
#include "make/press.hpp"
#include "make/solids_apart.hpp"
#include "sheet/settle.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <complex>
#include <random>

namespace make_press_test {

using namespace gorvet;
using build::PlanVerdict;
using make::FlatPiece;
using make_parts::part;
using make_parts::said;
using make_parts::says;

constexpr double quarter = M_PI / 2;

/// A strip of that thickness with bends of 90° between flanges of those lengths, measured to the bends' middle lines.
FlatPiece strip(const std::vector<double>& flanges, double thick = 2, double angle = quarter) {
    FlatPiece p;
    p.name = "strip";
    p.thickness_mm = thick;
    double at = 0;
    for (std::size_t k = 0; k < flanges.size(); ++k) {
        at += flanges[k];
        if (k + 1 < flanges.size())
            p.bends.push_back({{at, 0}, {at, 100}, angle, thick, make::bendAllowance(angle, thick, thick)});
    }
    p.outline = {{0, 0}, {at, 0}, {at, 100}, {0, 100}};
    return p;
}

/// The same press, played otherwise: the whole strip as points 1 mm apart in the complex plane, folded bend by bend.
double comesPast(const FlatPiece& p, const std::vector<std::size_t>& order) {
    const double end = p.outline[1].first;
    std::vector<bool> bent(p.bends.size(), false);
    double worst = -1e18;
    for (const std::size_t k : order) {
        bent[k] = true;
        const double nose = p.bends[k].from.first;
        for (const int side : {-1, 1}) {
            std::complex<double> at = 0, way = std::polar(1.0, p.bends[k].angle_rad / 2);
            bool turned = false;
            double from = nose, last = 0;
            while (side < 0 ? from > 0 : from < end) { // mirrored: to the left is drawn to the right, too
                const double step = std::min(0.25, side < 0 ? from : end - from);
                const double to = from + side * step;
                for (std::size_t j = 0; j < p.bends.size(); ++j)
                    if (j != k && bent[j] && (p.bends[j].from.first - from) * (p.bends[j].from.first - to) <= 0 &&
                        std::abs(p.bends[j].from.first - last) > 1) {
                        last = p.bends[j].from.first;
                        way *= std::polar(1.0, p.bends[j].angle_rad);
                        turned = true;
                    }
                at += way * step;
                from = to;
                if (turned) worst = std::max(worst, make::blade_mm / 2 + p.thickness_mm / 2 - at.real());
            }
            if (!turned) worst = std::max(worst, make::blade_mm / 2 + p.thickness_mm / 2 - at.real());
        }
    }
    return worst;
}

TEST_CASE("a channel deeper than it is wide comes against a straight blade: by hand", "[make][press][closed-form]") {
    // sides of 80 on a bottom of 44: at the second bend both rise by half a right angle
    const auto plan = make::pressPlan(strip({80, 44, 80}));
    REQUIRE(plan);
    CHECK(plan->tried == 2);
    CHECK(plan->past_mm == Approx((80 - 44) / std::sqrt(2) + 5 + 1));
    CHECK(plan->above_mm == Approx((80 + 44) / std::sqrt(2)));
    CHECK(plan->vee_mm == Approx(16));
    CHECK(plan->steps[0].force_N == Approx(1.42 * 400 * 100 * 4 / 16));
    CHECK(plan->steps[0].stop_mm == Approx(80));
    // wide enough, it clears; a single bend always does
    CHECK(make::pressPlan(strip({40, 60, 40}))->past_mm < 0);
    CHECK(make::pressPlan(strip({80, 20}))->past_mm < 0);
    CHECK_FALSE(make::pressPlan(strip({80})));
    CHECK_FALSE(make::pressPlan(strip(std::vector<double>(9, 30))));
    FlatPiece crossed = strip({40, 60, 40});
    crossed.bends.push_back({{0, 50}, {140, 50}, quarter, 2, 5});
    CHECK_FALSE(make::pressPlan(crossed));
}

TEST_CASE("the order of bends is the best of all, as a press played point by point finds them", "[make][press][property]") {
    std::mt19937 dice(3);
    std::uniform_real_distribution<double> share(0, 1);
    int against = 0, clear = 0;
    for (int round = 0; round < 120; ++round) {
        std::vector<double> flanges;
        for (int k = 0; k < 3 + round % 3; ++k) flanges.push_back(15 + 70 * share(dice));
        const FlatPiece p = strip(flanges, 2, quarter * (0.5 + 0.5 * share(dice)));
        const auto plan = make::pressPlan(p);
        REQUIRE(plan);
        std::vector<std::size_t> order(p.bends.size());
        for (std::size_t k = 0; k < order.size(); ++k) order[k] = k;
        double best = 1e18;
        std::size_t tried = 0;
        do {
            best = std::min(best, comesPast(p, order));
            ++tried;
        } while (std::next_permutation(order.begin(), order.end()));
        std::vector<std::size_t> said_order;
        for (const auto& s : plan->steps) said_order.push_back(s.bend);
        CHECK(plan->tried == tried);
        // no order found point by point is better, and the one that is said is as good as it says
        const double played = comesPast(p, said_order);
        CHECK(played <= best + 0.8);
        if (plan->past_mm > 0) CHECK(played == Approx(plan->past_mm).margin(0.8));
        if (plan->past_mm <= 0) CHECK(played < 0.8);
        (plan->past_mm > 0 ? against : clear)++;
    }
    CHECK(against > 10);
    CHECK(clear > 10);
}

TEST_CASE("holes by bends, and bends that end within the sheet", "[make][press]") {
    FlatPiece p = strip({40, 60});
    const double begins = 40 + p.bends[0].allowance_mm / 2;
    p.holes = {{{begins + 4 + 5 + 0.1, 50}, 10, "bolt"}};
    CHECK(make::holesByBends(p).empty());
    p.holes[0].at.first -= 0.2;
    REQUIRE(make::holesByBends(p).size() == 1);
    CHECK(make::holesByBends(p)[0].room_mm == Approx(3.9));
    p.holes[0].at = {40, -30}; // beyond the bend's end, and not in the sheet at all
    CHECK(make::holesByBends(p).empty());
    CHECK(make::tornBends(p).empty());
    p.bends[0].to.second = 60;
    CHECK(make::tornBends(p) == std::vector<std::size_t>{0});
    // a relief cut in to where it ends; a slit is no relief for all that bends
    p.outline = {{0, 0}, {100, 0}, {100, 100}, {45, 100}, {45, 60}, {35, 60}, {35, 100}, {0, 100}};
    CHECK(make::tornBends(p).empty());
    p.outline = {{0, 0}, {100, 0}, {100, 100}, {40.5, 100}, {40.5, 60}, {39.5, 60}, {39.5, 100}, {0, 100}};
    CHECK(make::tornBends(p) == std::vector<std::size_t>{0});
    // ends cut on a slant, as an outrigger's at a rail that runs askew
    FlatPiece slanted = strip({40, 60});
    slanted.outline = {{0, -20}, {100, 30}, {100, 130}, {0, 80}};
    slanted.bends[0].from = {40, 0};
    slanted.bends[0].to = {40, 100};
    CHECK(make::tornBends(slanted).empty());
    slanted.bends[0].to.second = 85;
    CHECK(make::tornBends(slanted) == std::vector<std::size_t>{0});
}

TEST_CASE("the section as bent: as long as the flat by its bends' rule, as the part's own section",
          "[make][press][closed-form]") {
    const auto outline = make::bentOutline(strip({80, 44, 80}));
    REQUIRE(outline);
    // its area: straight lengths by the thickness, and quarters of a ring
    const double straight = 80 + 44 + 80 - 2 * make::bendAllowance(quarter, 2, 2);
    CHECK(geometry::areaOf(*outline) == Approx(2 * straight + 2 * M_PI / 4 * (16 - 4)).epsilon(2e-3));
    const make::PartPlan p = make::partPlan(part("angle-bracket", {{0, 0, 60}, {60, 0, 0}}, {{"wide", 50}, {"hole", 11}}));
    REQUIRE(p.flats.size() == 1);
    const auto bracket = make::bentOutline(p.flats[0]);
    REQUIRE(bracket);
    CHECK(geometry::areaOf(*bracket) == Approx(geometry::areaOf(p.flats[0].section)).epsilon(1e-3));
    const auto most = [](const geometry::Outline& o, bool across) {
        double least = 1e9, all = -1e9;
        for (const auto& [x, y] : o) {
            least = std::min(least, across ? x : y);
            all = std::max(all, across ? x : y);
        }
        return all - least;
    };
    CHECK(most(*bracket, true) == Approx(most(p.flats[0].section, false)).margin(0.01)); // its first leg is the upright
    CHECK(most(*bracket, false) == Approx(most(p.flats[0].section, true)).margin(0.01));
    CHECK_FALSE(make::bentOutline(strip({80})));
}

TEST_CASE("a flat's sheet: every hole in its table, every bend with its stop, within its box, no text on another",
          "[make][press][sheet]") {
    FlatPiece p = strip({80, 44, 80}, 3);
    p.mass_kg = 1.2;
    const geometry::Outline square = p.outline, cornered = {{0, 4},    {78, 0},    {83, 1},   {121, 1}, {126, 0},  {204, 4},
                                                            {204, 96}, {126, 100}, {121, 99}, {83, 99}, {78, 100}, {0, 96}};
    for (const std::size_t holes : {std::size_t{0}, std::size_t{2}, std::size_t{7}, std::size_t{24}}) {
        p.outline = holes % 2 || !holes ? cornered : square;
        p.holes.clear();
        for (std::size_t k = 0; k < holes; ++k)
            p.holes.push_back({{10 + 8.0 * static_cast<double>(k % 12), 20 + 40.0 * static_cast<double>(k / 12)}, 5, "bolt"});
        for (const double width : {86.0, 130.0, 260.0}) {
            const sheet::Drawing d = make::flatSheet(p, units::LengthStep::Mm01, width, 165, sheet::on_paper);
            const auto items = sheet::flatten(d);
            std::vector<std::string> texts;
            std::vector<std::array<sheet::P, 4>> covered;
            for (const sheet::Item& item : items)
                if (const auto* t = std::get_if<sheet::Text>(&item.shape)) {
                    texts.push_back(t->text);
                    const auto corners = sheet::cornersOf(*t);
                    for (const auto& other : covered) {
                        INFO(t->text << " with " << holes << " holes, " << width);
                        CHECK_FALSE(sheet::overlap(corners, other));
                    }
                    covered.push_back(corners);
                }
            for (std::size_t k = 0; k < holes; ++k) {
                CHECK(std::count(texts.begin(), texts.end(), std::to_string(k + 1)) >= 2); // on the drawing and in its table
            }
            CHECK(std::count(texts.begin(), texts.end(), std::string("80.0")) >= 1); // a stop
            const auto reach = sheet::extent(items);
            CHECK(reach.left >= -0.5);
            for (const sheet::Item& item : items)
                if (const auto* t = std::get_if<sheet::Text>(&item.shape);
                    t && t->at.x + sheet::textWidth(t->text, t->size, t->face) > width)
                    UNSCOPED_INFO(t->text);
            CHECK(reach.right <= width + 0.5);
            CHECK(reach.bottom <= 165.5);
        }
    }
}

TEST_CASE("a flat's corners stand in a table where it is no rectangle and they are few", "[make][press][sheet]") {
    const auto texts = [](const FlatPiece& p) {
        std::vector<std::string> all;
        for (const sheet::Item& item : sheet::flatten(make::flatSheet(p, units::LengthStep::Mm01, 120, 165, sheet::on_paper)))
            if (const auto* t = std::get_if<sheet::Text>(&item.shape)) all.push_back(t->text);
        return all;
    };
    const auto has = [](const std::vector<std::string>& all, const std::string& text) {
        return std::count(all.begin(), all.end(), text);
    };
    FlatPiece p;
    p.name = "web";
    p.thickness_mm = 5;
    p.outline = {{0, 0}, {91.5, 41.3}, {91.5, 70}, {0, 70}};
    auto all = texts(p);
    CHECK(has(all, "corner") == 1);
    CHECK(has(all, "b") == 2); // at the corner and in the table
    CHECK(has(all, "41.3") == 1);
    p.outline = {{0, 0}, {91.5, 0}, {91.5, 70}, {0, 70}};
    CHECK(has(texts(p), "corner") == 0); // a rectangle
    p.outline.clear();
    for (int k = 0; k < 40; ++k) p.outline.emplace_back(50 * std::cos(k * M_PI / 20), 50 * std::sin(k * M_PI / 20));
    CHECK(has(texts(p), "corner") == 0); // round
}

TEST_CASE("parts say what stands in the way of their bends; of every kind no bend tears", "[make][press]") {
    for (const auto& [kind, at] : make_parts::examplePlaces()) {
        std::map<std::string, double> figures;
        for (const auto& f : build::partKindNamed(kind)->figures)
            if (f.must) figures[f.word] = f.shown;
        const make::PartPlan plan = make::partPlan(part(kind, at, figures));
        INFO(kind);
        CHECK_FALSE(says(plan, "part-torn"));
        for (const FlatPiece& piece : plan.flats) {
            const auto press = make::pressPlan(piece);
            CHECK(press.has_value() == !piece.bends.empty());
            if (!press) continue; // its bends stand in the order that is said
            for (std::size_t k = 0; k < press->steps.size(); ++k) CHECK(press->past_mm <= make::goose_neck_mm);
        }
    }
    // an outrigger: wide and low clears; narrow and deep wants a goose-neck; narrower and deeper none reaches into
    const auto outrigger = [&](double deep, double wide) {
        return make::partPlan(
            part("outrigger", {{1000, 480, 500}, {1000, 730, 500}}, {{"deep", deep}, {"wide", wide}, {"sheet", 3}}));
    };
    CHECK_FALSE(says(outrigger(50, 80), "part-press"));
    const auto goose = outrigger(80, 50);
    REQUIRE(says(goose, "part-press"));
    const auto verdictOf = [](const make::PartPlan& p) {
        return std::find_if(p.remarks.begin(), p.remarks.end(), [](const auto& r) { return r.code == "part-press"; })->verdict;
    };
    CHECK(verdictOf(goose) == PlanVerdict::Marginal);
    REQUIRE(says(outrigger(140, 40), "part-press"));
    CHECK(verdictOf(outrigger(140, 40)) == PlanVerdict::Fails);
    // however askew it leaves the rail, and however it falls: its ends are slants, and no bend tears
    std::mt19937 dice(21);
    std::uniform_real_distribution<double> way(-1, 1);
    for (int round = 0; round < 60; ++round) {
        const auto askew =
            make::partPlan(part("outrigger", {{1000, 480, 490}, {1000 + 300 * way(dice), 740, 490 + 60 * way(dice)}},
                                {{"deep", 60 + 25 * way(dice)}, {"wide", 60}, {"deep-end", 40}, {"sheet", 3}}));
        INFO(round);
        CHECK_FALSE(says(askew, "part-torn"));
    }
    // a bracket's hole near its bend
    const auto bracket = [&](double up) {
        return make::partPlan(part("angle-bracket", {{0, 0, up}, {60, 0, 0}}, {{"wide", 50}, {"hole", 11}}));
    };
    CHECK_FALSE(says(bracket(60), "part-bend-hole"));
    CHECK(says(bracket(4 + 4 + 5.5 + 6), "part-bend-hole"));
}

} // namespace make_press_test
