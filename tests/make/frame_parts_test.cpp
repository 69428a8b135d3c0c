// X-members, K-braces, lifting beams and skates.
#include "make/bar_maker.hpp"
#include "make/part_examples.hpp"
#include "make/solids_apart.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace make_frame_parts_test {

using namespace gorvet;
using build::PlanVerdict;
using geometry::Vec3;
using make::PartIn;
using make::PartPlan;
using make_parts::part;
using make_parts::says;
using make_parts::solidsApart;

namespace {

const std::map<std::string, double> x_figures{{"across", 60},  {"wide", 40}, {"wall", 3}, {"opening", 240},
                                              {"middle", 500}, {"over", 4},  {"under", 0}};

PartIn xMember(std::map<std::string, double> more = {}) {
    more.insert(x_figures.begin(), x_figures.end());
    return part("x-member", {{800, -420, 450}, {800, 420, 450}, {1900, -420, 450}, {1900, 420, 450}, {1350, 0, 450}}, more);
}
const make::BarPiece& bar(const PartPlan& p, const std::string& name) {
    for (const auto& b : p.bars)
        if (b.name == name) return b;
    FAIL("no " << name);
    return p.bars.front();
}

/// Of truths drawn about the survey, the share in which a length lies within its ±.
template <class Length> double covered(const PartIn& in, const Length& length, int rounds = 1200) {
    const auto told = length(make::partPlan(in));
    std::mt19937 dice(11);
    std::normal_distribution<double> off(0, 0.5);
    int within = 0;
    for (int k = 0; k < rounds; ++k) {
        PartIn real = in;
        for (Vec3& p : real.places.at)
            for (std::size_t a = 0; a < 3; ++a) p[a] += off(dice);
        within += std::abs(length(make::partPlan(real)).value - told.value) <= told.u95;
    }
    return static_cast<double>(within) / rounds;
}

} // namespace

TEST_CASE("an X-member by hand: legs end on the rails and on the middle rails, nothing stands in itself", "[make][part]") {
    const PartPlan p = make::partPlan(xMember());
    REQUIRE(p.bars.size() == 6);
    REQUIRE(p.flats.size() == 1);
    CHECK(p.flats[0].mass_kg == Approx((500 - 12) * (240 + 80 - 12) * 4 * 7.85e-6));
    solidsApart(p);
    const auto solids = make::partSolids(p);
    for (const auto& s : *solids) {
        INFO(s.name);
        const auto box = shape::bounds(s.solid);
        if (s.name.find("leg left") != std::string::npos) {
            CHECK(box.min.y_mm == Approx(-420).margin(1e-6));
            CHECK(box.max.y_mm == Approx(-160).margin(1e-6)); // the opening's half and a middle rail
        }
        if (s.name.find("middle rail left") != std::string::npos) {
            CHECK(box.max.y_mm == Approx(-120).margin(1e-6));
            CHECK(box.max.x_mm - box.min.x_mm == Approx(500));
        }
        if (s.name.find("front leg") != std::string::npos) { // its end finds room on the middle rail, and all of it
            double least = 1e9;
            for (const Vec3& q : shape::mesh(s.solid, 0.05).points)
                if (std::abs(std::abs(q.y_mm) - 160) < 0.01) least = std::min(least, q.x_mm);
            CHECK(least == Approx(1350 - 250).margin(0.01));
        }
    }
    CHECK(bar(p, "front leg left").length_mm.value == Approx(bar(p, "rear leg right").length_mm.value));
    CHECK(p.verdict == PlanVerdict::Marginal);
}

TEST_CASE("X-members of any rails: every piece where it belongs, or a word why not", "[make][part][property]") {
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> share(0, 1);
    int made = 0;
    for (int round = 0; round < 14; ++round) {
        INFO(round);
        const double front = 350 + 120 * share(dice), rear = 350 + 120 * share(dice), x = 700 + 200 * share(dice),
                     end = 1700 + 400 * share(dice);
        PartIn in = part("x-member",
                         {{x, -front + 30, 450 + 20 * share(dice)},
                          {x + 60 * share(dice), front - 30, 450},
                          {end, -rear + 30, 455},
                          {end - 80 * share(dice), rear - 30, 445},
                          {(x + end) / 2 + 100 * (share(dice) - 0.5), 60 * (share(dice) - 0.5), 440 + 20 * share(dice)}},
                         {{"across", 50 + 30 * share(dice)},
                          {"wide", 40},
                          {"wall", 3},
                          {"opening", 160 + 120 * share(dice)},
                          {"middle", 300 + 300 * share(dice)},
                          {"under", 5}});
        const double slope = (rear - front) / (end - x);
        in.left = make_parts::rail(-front + slope * x, -(front + slope * (3000 - x)));
        in.right = make_parts::rail(front - slope * x, front + slope * (3000 - x));
        const PartPlan p = make::partPlan(in);
        if (p.bars.size() < 6) {
            CHECK(p.verdict == PlanVerdict::Fails);
            CHECK_FALSE(p.remarks.empty());
            continue;
        }
        ++made;
        solidsApart(p);
        CHECK(p.bolts.size() == 4);
    }
    CHECK(made > 8);
}

TEST_CASE("original legs are used again: sawn shorter, weighed and bought no more, refused where they are too short",
          "[make][part]") {
    const double wants = bar(make::partPlan(xMember()), "front leg left").length_mm.value;
    PartPlan p = make::partPlan(xMember({{"front-legs", wants + 30}}));
    CHECK(bar(p, "front leg left").at_hand);
    CHECK_FALSE(bar(p, "rear leg left").at_hand);
    CHECK_FALSE(says(p, "part-original"));
    CHECK(p.mass_kg == Approx(make::partPlan(xMember()).mass_kg - 2 * bar(p, "front leg left").mass_kg));
    REQUIRE(p.facts.size() == 2);
    CHECK(p.facts[0].length_mm->value == Approx(30));
    p = make::partPlan(xMember({{"front-legs", wants - 5}}));
    CHECK(says(p, "part-original"));
    CHECK(p.verdict == PlanVerdict::Fails);
    // long enough as it is worked out, but not with its ±: never without a word
    const double u95 = bar(p, "front leg left").length_mm.u95;
    REQUIRE(u95 > 0.2);
    p = make::partPlan(xMember({{"front-legs", wants + u95 / 2}}));
    CHECK(says(p, "part-original"));
    CHECK(p.verdict == PlanVerdict::Marginal);
}

TEST_CASE("an X-member's legs carry by the rule of levers", "[make][part][closed-form]") {
    const PartPlan p = make::partPlan(xMember({{"load", 6000}}));
    REQUIRE(p.used);
    const auto& leg = bar(p, "front leg left");
    const double arm = std::hypot(leg.to.x_mm - leg.from.x_mm, leg.to.y_mm - leg.from.y_mm), each = 6000.0 / 4;
    const double level = (40 * std::pow(60, 3) - 34 * std::pow(54, 3)) / 12 / 30;
    const double shear = each / (2 * 3 * 54);
    const double stress = std::sqrt(std::pow(each * arm / level, 2) + 3 * shear * shear);
    const double w = 40 / std::cos(leg.ends[1].saw_rad), line = w * 60 + 60.0 * 60 / 3;
    const double weld = std::hypot(each * arm / line, each / 120) / 3;
    // the one plate over its opening is bent by half the load at its feet's distance from the middle
    const double tie = 3000.0 * 420 / (500 * 4 * 4 / 6.0) / (235 / 1.5);
    const double legs = std::max({stress / (235 / 1.5), weld / (0.40 * 235), weld / 0.707 / (0.30 * 482)});
    CHECK(*p.used == Approx(std::max(legs, tie)));
    const auto saysLeg = [](const PartPlan& of) {
        return std::any_of(of.remarks.begin(), of.remarks.end(),
                           [](const auto& r) { return r.sentence.find("The front leg left, at its middle rail") == 0; });
    };
    const double limit = 6000 / (stress / (235 / 1.5));
    CHECK(saysLeg(make::partPlan(xMember({{"load", limit * 1.001}}))));
    CHECK_FALSE(saysLeg(make::partPlan(xMember({{"load", limit * 0.999}}))));
    // its middle nearer to the front: the front legs take more, by shorter arms
    PartIn in = xMember({{"load", 6000}});
    in.places.at[4].x_mm = 1250;
    const PartPlan nearer = make::partPlan(in);
    const auto& near = bar(nearer, "front leg left");
    const double takes = 6000 * (1900.0 - 1250) / 1100 / 2;
    const double bent = takes * std::hypot(near.to.x_mm - near.from.x_mm, near.to.y_mm - near.from.y_mm) / level;
    const double moved = 6000 / (std::hypot(bent, std::sqrt(3.0) * takes / (2 * 3 * 54)) / (235 / 1.5));
    for (const double beside : {0.999, 1.001}) {
        in.figures["load"] = make_parts::said(moved * beside);
        CHECK(saysLeg(make::partPlan(in)) == (beside > 1));
    }
    CHECK(says(make::partPlan(xMember({{"load", 60'000}})), "part-stress"));
}

TEST_CASE("± of legs covers what they prove to be", "[make][part][coverage]") {
    const double x = covered(xMember(), [](const PartPlan& p) { return bar(p, "rear leg left").length_mm; });
    CHECK(x > 0.93);
    CHECK(x < 0.97);
    const auto k_in = part("k-brace", {{1000, -420, 450}, {1000, 420, 450}, {1500, 0, 450}}, {{"across", 42}, {"wall", 3}});
    const double k = covered(k_in, [](const PartPlan& p) { return bar(p, "left leg").length_mm; });
    CHECK(k > 0.93);
    CHECK(k < 0.97);
}

TEST_CASE("X-members that can't be say why", "[make][part]") {
    const auto fails = [](const PartIn& in, const char* code) {
        const PartPlan p = make::partPlan(in);
        INFO(code << ", it says: " << (p.remarks.empty() ? "nothing" : p.remarks.front().sentence));
        CHECK(says(p, code));
        CHECK(p.verdict == PlanVerdict::Fails);
    };
    PartIn in = xMember();
    std::swap(in.places.at[0], in.places.at[1]); // left for right
    fails(in, "part-outline");
    in = xMember();
    in.places.at[4].y_mm = 300; // its opening in the rail
    fails(in, "part-outline");
    in = xMember({{"opening", 820}});
    fails(in, "part-outline");
    in = xMember();
    for (const std::size_t k : {std::size_t{2}, std::size_t{3}}) in.places.at[k].x_mm = 1200;
    fails(in, "part-outline");
    in = xMember();
    in.figures.erase("over"); // nothing ties its halves
    fails(in, "part-open");
    in.figures["under"] = make_parts::said(5);
    CHECK_FALSE(says(make::partPlan(in), "part-open"));
    in = xMember();
    in.figures["middle"] = make_parts::said(90); // no room for two legs
    fails(in, "part-outline");
    in = xMember();
    for (const std::size_t k : {std::size_t{0}, std::size_t{1}}) in.places.at[k].x_mm = 100;
    fails(in, "part-saw");
}

TEST_CASE("a K-brace: both legs on rail and crossmember, side by side", "[make][part]") {
    for (const double wide : {0.0, 50.0})
        for (const double at_x : {1500.0, 620.0}) { // its crossmember behind, and in front
            std::map<std::string, double> figures{{"across", 42}, {"wall", 3}, {"load", 8000}};
            if (wide > 0) figures["wide"] = wide;
            const PartPlan p = make::partPlan(part("k-brace", {{1000, -420, 450}, {1000, 420, 450}, {at_x, 20, 455}}, figures));
            INFO(wide << " " << at_x);
            REQUIRE(p.bars.size() == 2);
            solidsApart(p);
            const auto solids = make::partSolids(p);
            for (const auto& s : *solids) {
                const auto box = shape::bounds(s.solid);
                CHECK((at_x > 1000 ? box.max.x_mm : box.min.x_mm) == Approx(at_x).margin(0.01));
                CHECK(std::max(box.max.y_mm, -box.min.y_mm) == Approx(420).margin(1e-6));
            }
            CHECK(p.used);
        }
    const PartPlan p = make::partPlan(
        part("k-brace", {{1000, -420, 450}, {1000, 420, 450}, {1500, 0, 450}}, {{"across", 42}, {"wall", 3}, {"apart", 30}}));
    CHECK(p.verdict == PlanVerdict::Fails); // they would stand in each other
}

TEST_CASE("a lifting beam by hand, and a skate under its supports", "[make][part][closed-form]") {
    const std::map<std::string, double> beam{{"across", 80}, {"wide", 60}, {"wall", 4}, {"hole", 22}, {"load", 5000}};
    PartPlan p = make::partPlan(part("lifting-beam", {{1000, -400, 1500}, {1000, 400, 1500}, {1000, 100, 1700}}, beam));
    REQUIRE(p.bars.size() == 1);
    REQUIRE(p.flats.size() == 1);
    CHECK(p.apart);
    CHECK(p.flats[0].places.size() == 3);
    solidsApart(p);
    const double level = (60 * std::pow(80, 3) - 52 * std::pow(72, 3)) / 12 / 40;
    const double bent = 5000.0 * 500 * 300 / 800 / level, weld = 2 * 5000.0 / (2 * 4 * 1.75 * 22) / 4;
    const double swings = 0.1 * 5000 * 38.5 / (4 * 38.5 * 12 * 12 / 6);
    CHECK(*p.used == Approx(std::max({bent / (235 / 3.0), swings / (235 / 3.0), weld / (0.4 * 235)})));
    for (std::size_t k = 0; k < 2; ++k) { // a shackle through its eyes hangs in the places
        const auto& at = p.flats[0].places[k];
        const auto& [a, b] = p.flats[0].holes[0].at;
        const Vec3 z = geometry::cross(at.x, at.y);
        const Vec3 middle = geometry::plus(
            at.origin, geometry::plus(geometry::times(at.x, a), geometry::plus(geometry::times(at.y, b), geometry::times(z, 6))));
        CHECK(geometry::between(middle, Vec3{1000, k ? 400.0 : -400.0, 1500}) < 1e-6);
    }
    CHECK(make::partPlan(part("lifting-beam", {{1000, -400, 1500}, {1000, 400, 1500}, {1000, 500, 1700}}, beam)).verdict ==
          PlanVerdict::Fails);

    p = make::partPlan(part("skate", {{600, -400, 700}, {600, 400, 700}, {2200, -380, 640}, {2200, 380, 640}},
                            {{"across", 50}, {"wall", 3}, {"castor", 125}, {"hole", 11}, {"post", 20}, {"load", 6000}}));
    REQUIRE(p.made());
    CHECK(p.apart);
    solidsApart(p);
    double posts = 0;
    for (const auto& b : p.bars)
        if (b.name.find("post") == 0) {
            ++posts;
            CHECK(b.to.z_mm == Approx(b.name.find("front") != std::string::npos ? 700 : 640));
            CHECK(b.from.z_mm == Approx(620));
        }
    CHECK(posts == 4);
    CHECK(*p.used == Approx(6000.0 / 2 * 1600 / 4 / ((std::pow(50, 4) - std::pow(44, 4)) / 12 / 25) / (235 / 1.5)));
    CHECK(says(make::partPlan(part("skate", {{600, -200, 700}, {600, 200, 700}, {2200, -200, 700}, {2200, 200, 700}},
                                   {{"across", 50}, {"wall", 3}, {"castor", 125}, {"hole", 11}})),
               "part-tips"));
}

} // namespace make_frame_parts_test
