// A rail's wall under a hollow foot: against the mechanism by which it gives, by hand, and as parts say it.
#include "make/part_examples.hpp"
#include "make/solids_apart.hpp"
#include "make/wall.hpp"

#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace make_wall_test {

using namespace gorvet;
using build::PlanVerdict;
using make::PartIn;
using make::PartPlan;
using make::WallFoot;
using make_parts::part;
using make_parts::said;
using make_parts::says;

TEST_CASE("pushed in, a wall gives by the cheapest pattern of hinges: sought by hand, not by the standard's formula",
          "[make][wall][property]") {
    std::mt19937 dice(7);
    std::uniform_real_distribution<double> share(0, 1);
    for (int round = 0; round < 200; ++round) {
        WallFoot w;
        w.face_mm = 60 + 100 * share(dice);
        w.deep_mm = w.face_mm * (0.6 + share(dice));
        w.wall_mm = std::max(w.face_mm, w.deep_mm) / (12 + 20 * share(dice));
        w.across_mm = w.face_mm * (0.26 + 0.58 * share(dice));
        w.along_mm = w.face_mm * (0.2 + share(dice));
        REQUIRE(make::wallSaid(w));
        // the foot goes in by 1; side panels turn about the rail's edges, end panels over a length x along it, hinges along all
        // their edges and from corner to corner: their work, least over x
        const double yield = 235, m = yield * w.wall_mm * w.wall_mm / 4, c = (w.face_mm - w.across_mm) / 2;
        double least = 1e18;
        for (double x = 1; x < 6 * w.face_mm; x *= 1.0005) {
            const double sides = (2 * w.along_mm + 2 * (w.along_mm + 2 * x)) / c, ends = (2 * w.across_mm + 2 * w.face_mm) / x,
                         corners = 4 * (x / c + c / x);
            least = std::min(least, m * (sides + ends + corners));
        }
        const double busy = std::min(1.0, 1.3 - 0.4 * make::rail_busy / (w.across_mm / w.face_mm));
        CHECK(make::wallPushed_N(w, yield) == Approx(busy * least).epsilon(1e-4));
        // on a slant it bears more, never less; round less
        WallFoot slanted = w, round_one = w;
        slanted.angle_rad = 0.8;
        round_one.round = true;
        CHECK(make::wallPushed_N(slanted, yield) > make::wallPushed_N(w, yield));
        CHECK(make::wallPushed_N(round_one, yield) < make::wallPushed_N(w, yield));
    }
}

TEST_CASE("bent about the rail, by hand; of what the standard says nothing", "[make][wall][closed-form]") {
    // 80 x 50 on the 100 high side of a rail of 100 x 60 x 4
    WallFoot w{100, 60, 4, 80, 50};
    REQUIRE(make::wallSaid(w));
    const double busy = 1.3 - 0.4 / 1.5 / 0.8;
    CHECK(make::wallBent_Nmm(w, 235) == Approx(busy * 235 * 16 * (50 * 1.8 / 0.4 + std::sqrt(2 * 100 * 80 * 1.8 / 0.2))));
    // a narrow foot gives in its wall; a wide thin one pushes the rail out of square first
    WallFoot square{100, 100, 8, 84, 200};
    CHECK(make::wallBent_Nmm(square, 235) == Approx(2 * 235 * 8 * (200 * 8 + std::sqrt(100.0 * 100 * 8 * 200))));
    for (const auto& [face, deep, wall, across, angle] : {std::array{100.0, 60.0, 4.0, 101.0, 1.57},
                                                          {100.0, 60.0, 4.0, 24.0, 1.57},
                                                          {100.0, 60.0, 2.8, 60.0, 1.57},
                                                          {130.0, 60.0, 4.0, 80.0, 1.57},
                                                          {100.0, 60.0, 4.0, 60.0, 0.5}}) {
        WallFoot other{face, deep, wall, across, 50};
        other.angle_rad = angle;
        CHECK_FALSE(make::wallSaid(other));
    }
}

/// The load by which the wall is just taken up; a little beside it on both sides is tried, too.
double limitOf(PartIn in, const char* on) {
    const auto at = [&](double load) {
        in.figures["load"] = said(load);
        return make::partPlan(in);
    };
    double low = 1, high = 1e6;
    for (int k = 0; k < 60; ++k) (says(at((low + high) / 2), "part-wall") ? high : low) = (low + high) / 2;
    INFO(on << " " << low);
    CHECK(low > 100);
    CHECK(low < 9e5);
    CHECK_FALSE(says(at(low * 0.999), "part-wall"));
    const PartPlan over = at(low * 1.001);
    CHECK(says(over, "part-wall"));
    CHECK(over.verdict == PlanVerdict::Fails);
    return low;
}
/// Thin-walled rails, so that nothing else gives first.
PartIn thinRails(PartIn in) {
    for (build::RailLine* rail : {&in.left, &in.right}) rail->thickness_mm = 3;
    return in;
}

TEST_CASE("a wide foot: between the face and the sides, without a step, never more than either", "[make][wall][property]") {
    std::mt19937 dice(11);
    std::uniform_real_distribution<double> share(0, 1);
    for (int round = 0; round < 200; ++round) {
        WallFoot w;
        w.face_mm = 60 + 100 * share(dice);
        w.deep_mm = w.face_mm * (0.6 + share(dice));
        w.wall_mm = std::max(w.face_mm, w.deep_mm) / (12 + 20 * share(dice));
        w.along_mm = w.face_mm * (0.3 + share(dice));
        const auto at = [&](double beta) {
            w.across_mm = beta * w.face_mm;
            REQUIRE(make::wallSaid(w));
            return std::array{make::wallPushed_N(w, 235), make::wallBent_Nmm(w, 235)};
        };
        const auto before = at(0.8499), after = at(0.8501), whole = at(1.0);
        // cut through along its edges it may bear less than its face's mechanism says; it never bears more
        CHECK(after[0] <= before[0] * 1.002);
        CHECK(after[1] <= before[1] * 1.002);
        // as wide as the rail: its sides as columns, which bear no more than they crush by
        CHECK(whole[0] <= 235 * w.wall_mm * (2 * w.along_mm + 10 * w.wall_mm) * (1 + 1e-12));
        for (double beta = 0.86; beta < 1; beta += 0.02) CHECK(at(beta)[1] <= std::max(before[1], whole[1]) * (1 + 1e-9));
        // a thin foot passes on less than a thick one
        w.across_mm = w.face_mm;
        w.foot_wall_mm = 1;
        const double thin = make::wallPushed_N(w, 235);
        w.foot_wall_mm = 5;
        CHECK(thin <= make::wallPushed_N(w, 235));
    }
    // by hand: sides of 100 x 4 under 80 of length
    WallFoot w{60, 100, 4, 60, 80};
    const double slender = 3.46 * (100.0 / 4 - 2) / (M_PI * std::sqrt(205'000.0 / 235));
    const double phi = 0.5 * (1 + 0.49 * (slender - 0.2) + slender * slender),
                 chi = 1 / (phi + std::sqrt(phi * phi - slender * slender));
    CHECK(make::wallPushed_N(w, 235) == Approx(chi * 235 * 4 * (2 * 80 + 40)));
}

TEST_CASE("plates on a wall: under the mechanism of a foot so thin, by hand, and no more than each and than both as one",
          "[make][wall][property]") {
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> share(0, 1);
    for (int round = 0; round < 200; ++round) {
        make::WallPlates p;
        p.face_mm = 70 + 80 * share(dice);
        p.deep_mm = p.face_mm * (0.7 + 0.6 * share(dice));
        p.wall_mm = std::max(p.face_mm, p.deep_mm) / (15 + 18 * share(dice));
        p.thick_mm = 4 + 4 * share(dice);
        p.long_mm = p.face_mm * (0.3 + 0.6 * share(dice));
        p.across = round % 2;
        const double one = make::wallPulled_N(p, 235);
        // the mechanism of the wall round a line: hinges along it, at the rail's edges and slanting off its ends, found by trial
        const double m = 235 * p.wall_mm * p.wall_mm / 4;
        double least = 1e18;
        const double along = p.across ? p.thick_mm : p.long_mm, wide = p.across ? p.long_mm : p.thick_mm,
                     c = (p.face_mm - wide) / 2;
        for (double x = 1; x < 6 * p.face_mm; x *= 1.0005)
            least = std::min(least,
                             m * ((2 * along + 2 * (along + 2 * x)) / c + (2 * wide + 2 * p.face_mm) / x + 4 * (x / c + c / x)));
        CHECK(one <= least * 1.0001);
        CHECK(one > (p.across ? 0.05 : 0.3) * least);
        CHECK(make::wallBent_Nmm(p, 235) == Approx(one * p.long_mm / 2));
        p.count = 2;
        p.apart_mm = (p.face_mm - 2 * p.thick_mm) * 0.6 * share(dice) + 0.3 * p.face_mm;
        if (!make::wallSaid(p)) continue;
        const WallFoot both{p.face_mm, p.deep_mm, p.wall_mm, p.across ? p.long_mm : p.apart_mm + 2 * p.thick_mm,
                            p.across ? p.apart_mm + 2 * p.thick_mm : p.long_mm};
        CHECK(make::wallPulled_N(p, 235) == Approx(std::min(2 * one, make::wallPushed_N(both, 235))));
    }
    // EN 1993-1-8, table 7.13, by hand: along and across
    make::WallPlates along{100, 100, 5, 120, 8};
    CHECK(make::wallPulled_N(along, 235) == Approx(1.3 / 3 * 235 * 25 * (2 * 1.2 + 4 * std::sqrt(1 - 0.08))));
    make::WallPlates across{100, 100, 5, 60, 8, 1, 0, true};
    const double face = (1.3 - 0.4 * 2 / 3 / 0.6) * 235 * 25 * (2 + 2.8 * 0.6) / std::sqrt(1 - 0.54);
    const double presses = 235 * 8 * (10 * 5.0 / 100 * 5 / 8 * 60);
    CHECK(make::wallPulled_N(across, 235) == Approx(std::min(face, presses)));
    // bent over: a strip of the wall held at both edges, a moment in its middle, half to each side: it hinges there
    CHECK(make::wallBentOver_Nmm(along, 235) == Approx(2 * 235 * 25 / 4.0 * 120));
}

TEST_CASE("a tube's wall under another: table 7.2 by hand, and where it says nothing", "[make][wall][closed-form]") {
    const double busy = 1 - 0.3 * 2 / 3 * (1 + 2.0 / 3), beta = 42.4 / 60.3, gamma = 60.3 / 6;
    CHECK(make::tubeWallPushed_N(60.3, 3, 42.4, M_PI / 2, 235) ==
          Approx(std::min(std::pow(gamma, 0.2) * busy * 235 * 9 * (2.8 + 14.2 * beta * beta),
                          235 / std::sqrt(3) * 3 * M_PI * 42.4)));
    CHECK(make::tubeWallPushed_N(60.3, 3, 42.4, M_PI / 4, 235) > make::tubeWallPushed_N(60.3, 3, 42.4, M_PI / 2, 235));
    CHECK(make::tubeWallPushed_N(60.3, 1, 42.4, M_PI / 2, 235) == 0);
    CHECK(make::tubeWallPushed_N(60.3, 3, 10, M_PI / 2, 235) == 0);
    CHECK(make::tubeWallPushed_N(60.3, 3, 76, M_PI / 2, 235) == 0);
    CHECK(make::tubeWallPushed_N(60.3, 3, 42.4, 0.4, 235) == 0);
}

TEST_CASE("ears, tabs, perches, K-braces and coped tubes load the wall that they stand on: on both sides of its limit",
          "[make][wall]") {
    // ears along the rail on its top, 60 wide: 2 x 6 and 30 between them
    const PartIn ears =
        thinRails(part("ears", {{1000, 450, 570}, {1000, 450, 500}}, {{"apart", 30}, {"foot", 90}, {"hole", 12}}));
    make::WallPlates p{60, 100, 3, 90, 6, 2, 30};
    // the worst direction of the pull, sought degree by degree
    double worst = 0;
    for (double a = 0; a < M_PI / 2; a += 1e-3)
        worst = std::max(worst, std::cos(a) / make::wallPulled_N(p, 235) + std::sin(a) * 70 / make::wallBent_Nmm(p, 235));
    CHECK(limitOf(ears, "ears") == Approx(1 / worst / 1.5).epsilon(1e-4));
    // a strip across the rail's side, pulled over
    const PartIn tab = thinRails(part("tab", {{1000, 520, 450}, {1000, 480, 450}}, {{"wide", 40}, {"hole", 9}, {"sheet", 8}}));
    make::WallPlates strip{100, 60, 3, 40, 8, 1, 0, true};
    double most = 0; // any way at all
    for (double a = 0; a < M_PI / 2; a += 4e-3)
        for (double c = 0; c < M_PI / 2; c += 4e-3)
            most = std::max(
                most, std::cos(a) / make::wallPulled_N(strip, 235) +
                          std::sin(a) * 40 *
                              (std::cos(c) / make::wallBent_Nmm(strip, 235) + std::sin(c) / make::wallBentOver_Nmm(strip, 235)));
    CHECK(limitOf(tab, "tab") == Approx(1 / most / 1.5).epsilon(1e-4));
    const PartIn perch =
        thinRails(part("perch", {{1000, 540, 490}, {1000, 480, 450}}, {{"hole", 13}, {"wide", 80}, {"deep", 70}, {"sheet", 8}}));
    make::WallPlates webs{100, 60, 3, 70, 8, 2, 80 - 16, true};
    CHECK(limitOf(perch, "perch") == Approx(make::wallBent_Nmm(webs, 235) / 1.5 / 60).epsilon(1e-3));
    limitOf(thinRails(part("k-brace", {{1000, -420, 450}, {1000, 420, 450}, {1500, 0, 450}}, {{"across", 60}, {"wall", 4}})),
            "k-brace");
    const PartIn coped =
        part("coped-tube", {{0, 0, 0}, {400, 0, 0}, {0, 300, 0}, {400, 300, 0}},
             {{"across", 42.4}, {"wall", 3}, {"onto", 60.3}, {"onto-far", 60.3}, {"onto-wall", 2}, {"onto-far-wall", 4}});
    CHECK(limitOf(coped, "coped tube") == Approx(make::tubeWallPushed_N(60.3, 2, 42.4, M_PI / 2, 235) / 1.5).epsilon(1e-4));
    // over the rail's edge, askew, without a rail: said, and nothing holds by it
    PartIn off = ears;
    for (auto& q : off.places.at) q.y_mm = 470;
    off.figures["load"] = said(100);
    PartIn askew = ears;
    for (build::RailLine* rail : {&askew.left, &askew.right}) rail->points = {{0, 450 - 500, 500}, {2000, 450 + 500, 500}};
    askew.figures["load"] = said(100);
    PartIn nowhere = ears;
    for (auto& q : nowhere.places.at) q.y_mm = 0;
    nowhere.figures["load"] = said(100);
    for (const PartIn& in : {off, askew, nowhere}) {
        const PartPlan plan = make::partPlan(in);
        REQUIRE(plan.not_looked_at.size() == 1);
        INFO(plan.not_looked_at[0]);
        CHECK(plan.not_looked_at[0].find("the wall under its feet") == 0);
        CHECK(plan.verdict != PlanVerdict::Holds);
    }
    // all known, all borne, nothing left out: it holds; three times what the wall bears: it does not
    PartIn sound = ears;
    sound.figures["load"] = said(300);
    CHECK(make::partPlan(sound).verdict == PlanVerdict::Holds);
}

TEST_CASE("an X-member's plates tie its halves: a couple by hand, one alone as a flat beam", "[make][wall][closed-form]") {
    const std::vector<geometry::Vec3> at{{800, -420, 450}, {800, 420, 450}, {1900, -420, 450}, {1900, 420, 450}, {1350, 0, 450}};
    const auto with = [&](double over, double under, double load) {
        std::map<std::string, double> figures{{"across", 60},   {"wide", 40},    {"wall", 3},
                                              {"opening", 240}, {"middle", 500}, {"load", load}};
        if (over > 0) figures["over"] = over;
        figures["under"] = under;
        return make::partPlan(part("x-member", at, figures));
    };
    // what goes over the opening: half the load at 420 from the middle
    const double load = 6000, moment = load / 2 * 420;
    const PartPlan one = with(0, 5, load);
    const double bent = moment / (500 * 25 / 6.0);
    REQUIRE(one.used);
    CHECK(*one.used == Approx(std::max(bent / (235 / 1.5), moment / 20 / 2 / (M_PI / 4 * 64) / (0.33 * 800))));
    CHECK(one.verdict == PlanVerdict::Fails);
    const PartPlan both = with(4, 5, load);
    CHECK(*both.used < *one.used / 2);
    const double pair = moment / (60 + 4.5);
    CHECK(*both.used >= Approx(pair / 2 / (M_PI / 4 * 64) / (0.17 * 800)));
    for (const auto& s : both.not_looked_at) CHECK(s.find("tie") == std::string::npos);
}

TEST_CASE("what twists an X-member's middle rails is borne, and is what gives first where they are narrow",
          "[make][wall][property]") {
    // What bends a leg comes into its middle rail at the leg's end and leaves it along the plates: till then it twists the rail,
    // at the most by all of it. Bredt: τ = T / 2 A t over the walls' middle lines.
    std::mt19937 rng(8);
    const auto any = [&](double least, double most) { return std::uniform_real_distribution<double>(least, most)(rng); };
    int made = 0, first = 0;
    for (int round = 0; round < 400; ++round) {
        const double wide = any(25, 90), across = any(25, 120), wall = any(1.5, 6), opening = any(100, 320),
                     middle = any(250, 700);
        const double front = any(100, 700), rear = any(100, 700), left = any(300, 520), right = any(300, 520), load = 4000;
        const std::vector<geometry::Vec3> at{{1350 - front, -left, 450},
                                             {1350 - front, right, 450},
                                             {1350 + rear, -left, 450},
                                             {1350 + rear, right, 450},
                                             {1350, 0, 450}};
        const auto p = make::partPlan(part("x-member", at,
                                           {{"across", across},
                                            {"wide", wide},
                                            {"wall", wall},
                                            {"opening", opening},
                                            {"middle", middle},
                                            {"over", 20},
                                            {"under", 20},
                                            {"hole", 21},
                                            {"load", load}}));
        if (!p.used || p.bars.size() < 6) continue;
        ++made;
        double twist = 0;
        for (const auto& [far, other, share] :
             {std::tuple{left, right, std::max(front, rear)}, {right, left, std::max(front, rear)}}) {
            const double bears = load * share / (front + rear) * other / (left + right);
            twist = std::max(twist, bears * (far - (opening + wide) / 2));
        }
        const double stress = twist / (2 * (across - wall) * (wide - wall) * wall);
        INFO("across " << across << " wide " << wide << " wall " << wall << " opening " << opening << " twist " << twist);
        const double share = std::sqrt(3.0) * stress / (235 / 1.5);
        CHECK(share <= *p.used * (1 + 1e-9));
        first += share > *p.used * (1 - 1e-9);
    }
    CHECK(first > 20);
    CHECK(made > 100);
}

TEST_CASE("an outrigger, a brace and a standoff load the wall that they stand on: on both sides of its limit", "[make][wall]") {
    const PartIn outrigger =
        thinRails(part("outrigger", {{1000, 480, 500}, {1000, 730, 500}}, {{"deep", 70}, {"wide", 50}, {"sheet", 3}}));
    const double load = limitOf(outrigger, "outrigger");
    const WallFoot w{100, 60, 3, 70, 50};
    CHECK(load * 250 == Approx(make::wallBent_Nmm(w, 235) / 1.5).epsilon(1e-4));
    limitOf(thinRails(part("brace", {{1000, -420, 450}, {1000, 420, 450}}, {{"across", 60}, {"wide", 60}, {"wall", 4}})),
            "brace");
    limitOf(thinRails(part("standoff", {{1000, 450, 500}, {1000, 450, 560}}, {{"across", 42}, {"wall", 4}, {"hole", 13}})),
            "standoff");
    // open rails, a foot over the edge, a wall that nobody measured
    PartIn open = outrigger;
    open.channel = true;
    open.figures["load"] = said(100);
    CHECK_FALSE(make::partPlan(open).not_looked_at.empty());
    PartIn over = outrigger;
    over.figures["load"] = said(100);
    for (auto& q : over.places.at) q.z_mm = 460; // 70 deep from there reaches below the rail
    CHECK_FALSE(make::partPlan(over).not_looked_at.empty());
    PartIn guess = outrigger;
    guess.figures["load"] = said(100);
    guess.wall_known = false;
    CHECK(says(make::partPlan(guess), "part-guess"));
    // all known, all borne, nothing left out: a brace holds
    PartIn sound =
        part("brace", {{1000, -420, 450}, {1000, 420, 450}}, {{"across", 60}, {"wide", 60}, {"wall", 4}, {"load", 3000}});
    sound.wall_known = true;
    const PartPlan p = make::partPlan(sound);
    for (const auto& what : p.not_looked_at) UNSCOPED_INFO(what);
    CHECK(p.not_looked_at.empty());
    CHECK(p.verdict == PlanVerdict::Holds);
    sound.figures["load"] = said(3e5);
    CHECK(make::partPlan(sound).verdict == PlanVerdict::Fails);
}

} // namespace make_wall_test
