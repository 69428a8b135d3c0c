#include "tape/repair.hpp"

#include <catch2/catch.hpp>

namespace tape_repair_test {

using namespace gorvet;
using build::FlawKind;
using tape::FoundFlaw;
using tape::PlanVerdict;

namespace {
FoundFlaw thin(double left, double of, double station = 0, build::Side side = build::Side::None) {
    FoundFlaw f;
    f.where = "Bl";
    f.kind = FlawKind::Thin;
    f.amount_mm = left;
    f.nominal_mm = of;
    if (side != build::Side::None) {
        f.station_mm = station;
        f.side = side;
        f.on_rail = true;
    }
    return f;
}
FoundFlaw plain(FlawKind kind, std::optional<double> amount = {}) {
    FoundFlaw f;
    f.where = "Q";
    f.kind = kind;
    f.amount_mm = amount;
    return f;
}
const tape::Way& way(const tape::RepairView& v, const std::string& key) {
    for (const auto& w : v.ways)
        if (w.key == key) return w;
    FAIL("no way " + key);
    return v.ways.front();
}
} // namespace

TEST_CASE("what was found is judged by its own figure", "[tape][repair]") {
    CHECK(tape::judgeFlaw(thin(3.7, 4)).verdict == PlanVerdict::Holds);    // 7.5 % gone
    CHECK(tape::judgeFlaw(thin(3.2, 4)).verdict == PlanVerdict::Marginal); // 20 %
    CHECK(tape::judgeFlaw(thin(2.9, 4)).verdict == PlanVerdict::Fails);    // 27.5 %
    CHECK(tape::judgeFlaw(thin(2.9, 4)).figure == "2.9 of 4.0 mm left");
    CHECK(tape::judgeFlaw(thin(2.9, 4)).need == "3.0 mm at least");
    CHECK(tape::judgeFlaw(plain(FlawKind::Rust)).verdict ==
          PlanVerdict::Marginal); // nobody measured: never good, never condemned
    CHECK(tape::judgeFlaw(plain(FlawKind::Crack)).verdict == PlanVerdict::Fails);
    CHECK(tape::judgeFlaw(plain(FlawKind::Play, 0.2)).verdict == PlanVerdict::Holds);
    CHECK(tape::judgeFlaw(plain(FlawKind::Play, 0.6)).verdict == PlanVerdict::Marginal);
    CHECK(tape::judgeFlaw(plain(FlawKind::Play, 1.6)).verdict == PlanVerdict::Fails);
    CHECK(tape::judgeFlaw(plain(FlawKind::Play)).verdict == PlanVerdict::Marginal);
    CHECK(tape::judgeFlaw(plain(FlawKind::Seized)).verdict == PlanVerdict::Marginal);
    FoundFlaw layers = plain(FlawKind::Layers);
    layers.layers = 2;
    CHECK(tape::judgeFlaw(layers).verdict == PlanVerdict::Holds);
    layers.layers = 4;
    CHECK(tape::judgeFlaw(layers).verdict == PlanVerdict::Marginal);
    CHECK(tape::judgeFlaw(layers).steel);
    CHECK_FALSE(tape::judgeFlaw(plain(FlawKind::Seized)).steel);
}

TEST_CASE("repair, renew or another frame, by the user's own rates", "[tape][repair]") {
    build::Rates rates;
    rates.hour = 50;
    rates.other_frame = 900;
    rates.patch_material = 20;
    rates.section_material = 120;
    CHECK(tape::repairView({}, rates, false, 0).ways.empty());
    CHECK(tape::repairView({thin(3.9, 4)}, rates, false, 0).ways.empty()); // sound steel takes no work

    // one place: repair it. 4 h × 50 + 20
    const auto one = tape::repairView({thin(3.2, 4, 1000, build::Side::Left)}, rates, false, 0);
    CHECK(way(one, "repair").hours == 4);
    CHECK(*way(one, "repair").cost == Approx(220));
    CHECK_FALSE(way(one, "part-replace").possible);
    CHECK(*way(one, "other-frame").cost == Approx(40 * 50 + 900));
    CHECK(one.ways[static_cast<size_t>(one.advised)].key == std::string("repair"));

    // five places on one rail within 600: one length, 14 h, against 20 h of patches
    std::vector<FoundFlaw> many;
    for (int i = 0; i < 5; ++i) many.push_back(thin(3.2, 4, 1000 + 100 * i, build::Side::Left));
    const auto rail = tape::repairView(many, rates, false, 0);
    CHECK(way(rail, "repair").hours == 20);
    CHECK(way(rail, "part-replace").hours == 14);
    CHECK(*way(rail, "part-replace").cost == Approx(14 * 50 + 120));
    CHECK(rail.ways[static_cast<size_t>(rail.advised)].key == std::string("part-replace"));

    // the same on both rails is two lengths; one far away stays a patch
    auto both = many;
    for (int i = 0; i < 5; ++i) both.push_back(thin(3.2, 4, 1000 + 100 * i, build::Side::Right));
    both.push_back(thin(3.2, 4, 2900, build::Side::Right));
    CHECK(way(tape::repairView(both, rates, false, 0), "part-replace").hours == 2 * 14 + 4);

    // rot everywhere: another frame costs less
    std::vector<FoundFlaw> rotten;
    for (int i = 0; i < 40; ++i) rotten.push_back(thin(1, 4, 700.0 * i, i % 2 ? build::Side::Left : build::Side::Right));
    const auto gone = tape::repairView(rotten, rates, false, 2);
    CHECK(gone.ways[static_cast<size_t>(gone.advised)].key == std::string("other-frame"));
    CHECK(gone.sentence.find("out of true (2 figures)") != std::string::npos);

    // heat-treated rails are never welded here
    const auto hard = tape::repairView(many, rates, true, 0);
    CHECK_FALSE(way(hard, "repair").possible);
    CHECK(hard.ways[static_cast<size_t>(hard.advised)].key == std::string("other-frame"));

    // without prices: hours decide, and what is missing is said
    const auto dear = tape::repairView(many, {}, false, 0);
    CHECK_FALSE(way(dear, "repair").cost);
    CHECK(way(dear, "repair").missing == "the price of an hour");
    CHECK(dear.sentence.find("the price of an hour is not said") != std::string::npos);
}

TEST_CASE("a rail that is rusted through is no patch, and the body's rust says nothing of the frame", "[tape][repair]") {
    build::Rates rates;
    rates.hour = 50;
    rates.section_material = 120;
    // 1 of 4 left: a length of rail, 14 h, not a patch of 4
    const auto through = tape::repairView({thin(1, 4, 1000, build::Side::Left)}, rates, false, 0);
    CHECK(way(through, "repair").hours == 14);
    CHECK(*way(through, "repair").cost == Approx(14 * 50 + 120));
    // a body full of holes on a sound frame
    std::vector<FoundFlaw> body;
    for (int i = 0; i < 30; ++i) {
        body.push_back(plain(FlawKind::Rust));
        body.back().of_body = true;
    }
    const auto shell = tape::repairView(body, rates, false, 0);
    CHECK(shell.ways.empty()); // nobody is sent to look for another frame
    CHECK(shell.body_places == 30);
    CHECK(shell.body_hours == 30 * 4);
    CHECK(
        shell.sentence ==
        "Nothing that was found on the frame takes more than cleaning and coating. The body has 30 places of its own, 120.0 hours.");
    body.push_back(thin(3.2, 4, 1000, build::Side::Left));
    CHECK(way(tape::repairView(body, rates, false, 0), "repair").hours == 4);
}

} // namespace tape_repair_test
