// What new steel is joined to decides how.
#include "make/join.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

namespace make_join_test {

using namespace gorvet;
using build::BaseMetal;
using build::PlanVerdict;
using make::JoinIn;
using make::JoinWay;

namespace {

JoinIn onto(BaseMetal metal, double thick, double sheet = 3) {
    JoinIn in;
    in.part = "o1";
    in.kind = "outrigger";
    in.base = metal;
    in.base_known = true;
    in.base_mm = {thick, 0, build::Provenance::Measured};
    in.sheet_mm = sheet;
    in.welded = true;
    return in;
}
bool says(const make::JoinPlan& p, const std::string& code) {
    return std::any_of(p.remarks.begin(), p.remarks.end(), [&](const auto& r) { return r.code == code; });
}

} // namespace

TEST_CASE("metals decide: mild is welded, cast and aluminium never, what is not known is asked first", "[make][join]") {
    auto p = make::joinPlan(onto(BaseMetal::Mild, 3));
    CHECK(p.way == JoinWay::Weld);
    CHECK(p.verdict == PlanVerdict::Holds);
    CHECK(p.remarks.empty());
    for (const BaseMetal never : {BaseMetal::Cast, BaseMetal::Aluminium}) {
        p = make::joinPlan(onto(never, 8));
        CHECK_FALSE(p.welds());
        CHECK(p.verdict == PlanVerdict::Fails);
        CHECK(p.process.empty());
    }
    p = make::joinPlan(onto(BaseMetal::Unknown, 3));
    CHECK_FALSE(p.welds());
    CHECK(says(p, "join-unknown"));
    CHECK(make::joinPlan(onto(BaseMetal::HighStrength, 3)).verdict == PlanVerdict::Marginal);
    CHECK(make::joinPlan(onto(BaseMetal::Galvanised, 1.2)).way == JoinWay::Braze);
    CHECK(make::joinPlan(onto(BaseMetal::Galvanised, 3)).way == JoinWay::Weld);
    CHECK(make::joinPlan(onto(BaseMetal::Stainless, 2)).way == JoinWay::Weld);
    // nothing that nobody said holds
    JoinIn guess = onto(BaseMetal::Mild, 3);
    guess.base_known = false;
    CHECK(make::joinPlan(guess).verdict == PlanVerdict::Marginal);
    guess = onto(BaseMetal::Mild, 0);
    CHECK(says(make::joinPlan(guess), "join-thick"));
    guess = onto(BaseMetal::Mild, 3);
    guess.base_mm.provenance = build::Provenance::Assumed; // of the rail, but not there
    CHECK(make::joinPlan(guess).verdict == PlanVerdict::Marginal);
    CHECK(make::joinPlan(guess).first.back().find("right there") != std::string::npos);
    guess = onto(BaseMetal::Mild, 3); // nor what is bolted to what nobody named
    guess.welded = false;
    guess.bolted = true;
    CHECK(make::joinPlan(guess).verdict == PlanVerdict::Holds);
    guess.base_known = false;
    CHECK(make::joinPlan(guess).verdict == PlanVerdict::Marginal);
}

TEST_CASE("thickness decides at its worst: what is left less its ±", "[make][join]") {
    CHECK(make::joinPlan(onto(BaseMetal::Mild, 0.7, 1)).way == JoinWay::PlugWeld);
    CHECK(says(make::joinPlan(onto(BaseMetal::Mild, 1, 4)), "join-thick"));
    CHECK_FALSE(says(make::joinPlan(onto(BaseMetal::Mild, 1.4, 4)), "join-thick"));
    // Holds is kept: of a thickness drawn within its ± nothing is thinner than what is welded, nor a third of the new sheet
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> thick(0.4, 4), unsure(0, 0.6), new_sheet(1, 8);
    std::normal_distribution<double> normal;
    int held = 0, broke = 0;
    for (int k = 0; k < 3000; ++k) {
        JoinIn in = onto(BaseMetal::Mild, thick(dice), new_sheet(dice));
        in.base_mm.u95 = unsure(dice);
        if (make::joinPlan(in).verdict != PlanVerdict::Holds) continue;
        const double real = in.base_mm.value + in.base_mm.u95 / 1.96 * normal(dice);
        ++held;
        broke += real < make::thin_base_mm || in.sheet_mm > make::most_ratio * real;
    }
    CHECK(held > 500);
    CHECK(broke <= 0.025 * held);
}

TEST_CASE("coats come off before, bolts keep steel and aluminium apart", "[make][join]") {
    JoinIn in = onto(BaseMetal::Mild, 3);
    const auto clean = make::joinPlan(in).first.size();
    in.coated = true;
    CHECK(make::joinPlan(in).first.size() == clean + 1);
    in = onto(BaseMetal::Aluminium, 4);
    in.welded = false;
    in.bolted = true;
    const auto p = make::joinPlan(in);
    CHECK(p.way == JoinWay::Bolt);
    CHECK(p.verdict == PlanVerdict::Holds);
    CHECK(p.first.front().find("plastic") != std::string::npos);
}

} // namespace make_join_test
