// Coats: litres by hand, what holds on what, and bare metal that waits.
#include "units/dates.hpp"
#include "work/coats.hpp"

#include <catch2/catch.hpp>

namespace work_coats_test {

using namespace gorvet;
using namespace gorvet::build;
using units::PlanVerdict;
using work::planOf;

namespace {

Coat coat(CoatKind kind, double coats = 1, ByHand by = ByHand::Spray) {
    Coat c;
    c.name = std::string(word(kind));
    c.kind = kind;
    c.coats = coats;
    c.by = by;
    return c;
}
Surface steel(double m2 = 2) {
    Surface s;
    s.name = "sill";
    s.preparation = Preparation::Blast;
    s.size_m2 = m2;
    return s;
}
const long long noon = *units::secondsOf("2026-11-30T12:00:00Z");

PlanVerdict worst(const Surface& s, const std::vector<Coat>& coats, long long now = noon) {
    const auto p = planOf(s, coats, now);
    return p.remarks.empty() ? PlanVerdict::Holds : p.remarks.front().verdict;
}
bool says(const Surface& s, const std::vector<Coat>& coats, const char* what, long long now = noon) {
    for (const auto& r : planOf(s, coats, now).remarks)
        if (std::string(r.what) == what) return true;
    return false;
}

} // namespace

TEST_CASE("litres are area by coats by coverage, and what is lost by brush or gun", "[work][coats]") {
    Coat c = coat(CoatKind::EpoxyPrimer, 3, ByHand::Brush);
    c.covers_m2 = 6;
    CHECK(planOf(steel(4), {c}, noon).coats[0].litres == Approx(4 * 3 / 6.0 * 1.15));
    c.by = ByHand::Spray;
    CHECK(planOf(steel(4), {c}, noon).coats[0].litres == Approx(4 * 3 / 6.0 * 1.5));
    CHECK(planOf(steel(4), {c}, noon).coats[0].assumed); // how long it dries is usual, not said
    c.dries_h = 10;
    CHECK_FALSE(planOf(steel(4), {c}, noon).coats[0].assumed);
    Surface s = steel();
    s.seams_mm = 5000;
    CHECK(planOf(s, {coat(CoatKind::EtchPrimer), coat(CoatKind::SeamSealer)}, noon).coats[1].litres == Approx(0.08));
    // what is on needs no more time
    Coat done = c;
    done.done = Signed{"M.", "2026-11-30T10:00:00Z"};
    CHECK(planOf(steel(), {c}, noon).dries_h == Approx(30));
    CHECK(planOf(steel(), {done}, noon).dries_h == 0);
}

TEST_CASE("ten degrees halve or double; two-pack coats stop curing in the cold, on both sides of each limit", "[work][coats]") {
    Coat c = coat(CoatKind::EpoxyPrimer);
    c.pot_min = 200;
    c.dries_h = 12;
    Surface s = steel();
    s.at_c = 30;
    CHECK(planOf(s, {c}, noon).coats[0].pot_min == Approx(100));
    CHECK(planOf(s, {c}, noon).coats[0].dries_h == Approx(6));
    s.at_c = 10;
    CHECK(planOf(s, {c}, noon).coats[0].dries_h == Approx(24));
    for (const auto& [at, verdict] : {std::pair{9.9, PlanVerdict::Fails},
                                      {10.0, PlanVerdict::Marginal},
                                      {14.9, PlanVerdict::Marginal},
                                      {15.0, PlanVerdict::Holds},
                                      {30.0, PlanVerdict::Holds},
                                      {30.1, PlanVerdict::Marginal}}) {
        s.at_c = at;
        INFO(at);
        CHECK(worst(s, {c}) == verdict);
    }
    s.at_c = 5;
    CHECK(worst(s, {coat(CoatKind::EtchPrimer)}) == PlanVerdict::Holds); // one pack
}

TEST_CASE("what holds on what", "[work][coats]") {
    using K = CoatKind;
    const auto of = [](std::vector<K> kinds) {
        std::vector<Coat> coats;
        for (const K k : kinds) coats.push_back(coat(k));
        return coats;
    };
    const Surface s = steel();
    CHECK(worst(s, of({K::EpoxyPrimer, K::Filler, K::Surfacer, K::Base, K::Clear})) == PlanVerdict::Holds);
    CHECK(worst(s, of({K::EtchPrimer, K::Surfacer, K::Base, K::Clear})) == PlanVerdict::Holds);
    CHECK(worst(s, of({K::Base, K::Clear})) == PlanVerdict::Fails);
    CHECK(worst(s, of({K::StoneGuard})) == PlanVerdict::Fails);
    CHECK(worst(s, of({K::EtchPrimer, K::EpoxyPrimer})) == PlanVerdict::Fails);
    CHECK(worst(s, of({K::Filler, K::EtchPrimer})) == PlanVerdict::Fails);
    CHECK(worst(s, of({K::Filler, K::EpoxyPrimer, K::Base, K::Clear})) == PlanVerdict::Marginal); // schools differ
    CHECK(worst(s, of({K::EpoxyPrimer, K::Base, K::Filler})) == PlanVerdict::Fails);
    CHECK(worst(s, of({K::EpoxyPrimer, K::Base, K::SeamSealer})) == PlanVerdict::Marginal);
    CHECK(worst(s, of({K::EpoxyPrimer, K::Clear})) == PlanVerdict::Marginal);
    CHECK(worst(s, of({K::EpoxyPrimer, K::CavityWax})) == PlanVerdict::Marginal); // it is no inside
    Surface in = s;
    in.space = "left sill";
    CHECK(worst(in, of({K::EpoxyPrimer, K::CavityWax})) == PlanVerdict::Holds);
    CHECK(worst(in, of({K::CavityWax, K::EpoxyPrimer})) == PlanVerdict::Fails);
    // what was abraded has its old coat to hold on
    Surface old = s;
    old.preparation = Preparation::Abrade;
    CHECK(worst(old, of({K::Base, K::Clear})) == PlanVerdict::Holds);
    // metals
    Surface zinc = s, alu = s;
    zinc.metal = Metal::Galvanised;
    alu.metal = Metal::Aluminium;
    CHECK(worst(zinc, of({K::EtchPrimer})) == PlanVerdict::Marginal);
    CHECK(worst(zinc, of({K::EpoxyPrimer})) == PlanVerdict::Holds);
    CHECK(worst(alu, of({K::ZincPrimer})) == PlanVerdict::Fails);
    CHECK(worst(s, of({K::ZincPrimer})) == PlanVerdict::Holds);
    // what is skipped is judged by nothing
    Surface skipped = s;
    skipped.preparation = Preparation::Skip;
    CHECK(worst(skipped, of({K::Base})) == PlanVerdict::Holds);
    CHECK(says(steel(0), of({K::EpoxyPrimer}), "coat-size"));
    CHECK_FALSE(says(steel(1), of({K::EpoxyPrimer}), "coat-size"));
}

TEST_CASE("bare metal waits four hours or a day, and no longer", "[work][coats]") {
    const auto after = [](double hours) { return noon + static_cast<long long>(hours * 3600); };
    Surface s = steel();
    s.bared = Signed{"M.", "2026-11-30T12:00:00Z"};
    std::vector<Coat> coats{coat(CoatKind::EpoxyPrimer)};
    CHECK(worst(s, coats, after(3.9)) == PlanVerdict::Marginal);
    CHECK(*planOf(s, coats, after(3)).bare_left_h == Approx(1));
    CHECK(worst(s, coats, after(4.1)) == PlanVerdict::Fails);
    s.preparation = Preparation::Strip;
    CHECK(worst(s, coats, after(23.9)) == PlanVerdict::Marginal);
    CHECK(worst(s, coats, after(24.1)) == PlanVerdict::Fails);
    s.metal = Metal::Aluminium;
    CHECK(worst(s, coats, after(4.1)) == PlanVerdict::Fails);
    s.metal = Metal::Stainless;
    CHECK(worst(s, coats, after(1000)) == PlanVerdict::Holds);
    s.metal = Metal::Steel;
    coats[0].done = Signed{"M.", "2026-11-30T14:00:00Z"};
    CHECK(worst(s, coats, after(100)) == PlanVerdict::Holds);
    // painted over after too long: that is not forgotten with the coat
    coats[0].done->at_utc = "2026-12-01T13:00:00Z";
    CHECK(worst(s, coats, after(100)) == PlanVerdict::Marginal);
    CHECK(says(s, coats, "coat-bare", after(100)));
}

TEST_CASE("a page of coats has each coat, and what is to be bought", "[work][coats]") {
    work::SurfaceShown shown{steel(2), {coat(CoatKind::EpoxyPrimer), coat(CoatKind::Surfacer)}, {}};
    shown.plan = planOf(shown.surface, shown.coats, noon);
    const auto pages = work::coatPages({shown}, {"Rust and coats", "Drover long", "", sheet::a4}, {"caution"});
    REQUIRE(pages.size() == 2);
    const auto has = [&](std::size_t page, const std::string& text) {
        for (const auto& item : pages[page].items)
            if (const auto* t = std::get_if<sheet::Text>(&item.shape); t && t->text.find(text) != std::string::npos) return true;
        return false;
    };
    CHECK(has(0, "epoxy-primer"));
    CHECK(has(0, fmt::format("{:.2f} l", 2 / 7.0 * 1.5)));
    CHECK(has(1, "surfacer"));
    CHECK(work::coatPages({}, {}, {}).empty());
}

} // namespace work_coats_test
