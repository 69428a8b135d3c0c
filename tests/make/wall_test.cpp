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
    for (const auto& [face, deep, wall, across, angle] : {std::array{100.0, 60.0, 4.0, 86.0, 1.57},
                                                          {100.0, 60.0, 4.0, 24.0, 1.57},
                                                          {100.0, 60.0, 2.8, 60.0, 1.57},
                                                          {130.0, 60.0, 4.0, 80.0, 1.57},
                                                          {100.0, 60.0, 4.0, 60.0, 0.5}}) {
        WallFoot other{face, deep, wall, across, 50};
        other.angle_rad = angle;
        CHECK_FALSE(make::wallSaid(other));
    }
}

TEST_CASE("an outrigger, a brace and a standoff load the wall that they stand on: on both sides of its limit", "[make][wall]") {
    const auto limited = [](PartIn in, const char* on) {
        const auto at = [&](double load) {
            in.figures["load"] = said(load);
            return make::partPlan(in);
        };
        // at the load by which it is just taken up, and a little beside it
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
    };
    // thin-walled rails, so that nothing else gives first
    const auto thin = [](PartIn in) {
        for (build::RailLine* rail : {&in.left, &in.right}) rail->thickness_mm = 3;
        return in;
    };
    const PartIn outrigger =
        thin(part("outrigger", {{1000, 480, 500}, {1000, 730, 500}}, {{"deep", 70}, {"wide", 50}, {"sheet", 3}}));
    const double load = limited(outrigger, "outrigger");
    const WallFoot w{100, 60, 3, 70, 50};
    CHECK(load * 250 == Approx(make::wallBent_Nmm(w, 235) / 1.5).epsilon(1e-4));
    limited(thin(part("brace", {{1000, -420, 450}, {1000, 420, 450}}, {{"across", 60}, {"wide", 60}, {"wall", 4}})), "brace");
    limited(thin(part("standoff", {{1000, 450, 500}, {1000, 450, 560}}, {{"across", 42}, {"wall", 4}, {"hole", 13}})),
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
