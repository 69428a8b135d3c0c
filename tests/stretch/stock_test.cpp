// The tube in hand and common stock as a sleeve: every fit has an answer.
#include "analysis/stock_sizes.hpp"
#include "entry/typist.hpp"

#include <cmath>
#include <set>

namespace stretch_stock_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

/// Rails of box 100 × 60 × 4 that are to be cut: 92 × 52 inside.
Typist railed(const char* section = "rail 100 x 60 x 4 box top") {
    Typist t;
    t.scannedLadder(section);
    for (const char* line : {"change 100", "cut 1300"}) t.type(line);
    return t;
}
std::optional<PlanVerdict> verdict(const Typist& t, const std::string& code) {
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.stretch->status == stretch::Status::Planned);
    for (const auto& remark : r.stretch->remarks)
        if (remark.code == code) return remark.verdict;
    return std::nullopt;
}

} // namespace

TEST_CASE("the tube in hand: each fit on both sides of its limit", "[stretch][stock]") {
    Typist t = railed();
    const auto tube = [&](double h, double w) { t.type(fmt::format("sleeve-tube {} {} wall 4", h, w)); };
    tube(91, 51); // 0.5 a side
    for (const char* code : {"tube-too-large", "tube-driven", "tube-tight", "tube-loose", "sleeve-fit"})
        CHECK_FALSE(verdict(t, code));
    {
        const auto r = analysis::analyse(t.b, 1);
        REQUIRE(r.stretch->sleeve);
        CHECK(r.stretch->sleeve->height_mm == 91);
        CHECK(r.stretch->sleeve->width_mm == 51);
        CHECK(r.stretch->tube->upright_mm == Approx(0.5));
    }
    tube(91.1, 51);
    CHECK(verdict(t, "tube-tight") == PlanVerdict::Marginal);
    tube(91.5, 51);
    CHECK(verdict(t, "tube-tight") == PlanVerdict::Marginal);
    tube(91.6, 51);
    CHECK(verdict(t, "tube-driven") == PlanVerdict::Marginal);
    tube(92.1, 51);
    CHECK(verdict(t, "tube-too-large") == PlanVerdict::Fails);
    tube(91, 52.1);
    CHECK(verdict(t, "tube-too-large") == PlanVerdict::Fails);
    tube(89, 51); // 1.5
    CHECK_FALSE(verdict(t, "tube-loose"));
    tube(88.8, 51);
    CHECK(verdict(t, "tube-loose") == PlanVerdict::Marginal);
    // lined as it says, it is loose no more
    tube(86, 51); // 3 a side: strip of 2
    {
        const auto r = analysis::analyse(t.b, 1);
        const auto loose = std::find_if(r.stretch->remarks.begin(), r.stretch->remarks.end(),
                                        [](const auto& m) { return m.code == "tube-loose"; });
        REQUIRE(loose != r.stretch->remarks.end());
        CHECK(loose->remedy.find("tube-strip 2.0") != std::string::npos);
    }
    t.type("tube-strip 2");
    CHECK_FALSE(verdict(t, "tube-loose"));
    CHECK(analysis::analyse(t.b, 1).stretch->tube->upright_mm == Approx(1));
    t.type("tube-strip 3.5");
    CHECK(verdict(t, "tube-too-large") == PlanVerdict::Fails);
    t.type("sleeve-tube free");
    CHECK_FALSE(analysis::analyse(t.b, 1).stretch->tube);
}

TEST_CASE("what is offered from the rack goes in as it says, and nothing that fits is left out", "[stretch][stock][property]") {
    for (const auto& [section, inside_h, inside_w, wall] :
         {std::tuple{"rail 100 x 60 x 4 box top", 92.0, 52.0, 4.0}, std::tuple{"rail 120 x 60 x 3 box top", 114.0, 54.0, 3.0},
          std::tuple{"rail 80 x 40 x 2 box top", 76.0, 36.0, 2.0}}) {
        Typist t = railed(section);
        const auto offered = analysis::sleevesFromStock(t.b, analysis::analyse(t.b, 1));
        int rank = 0;
        for (const auto& s : offered) {
            INFO(section << ": " << s.size->name() << " " << s.words);
            CHECK(s.height_mm + (s.fit.upright_mm < (inside_h - s.height_mm) / 2 - 1e-9 ? 2 * s.strip_mm : 0) <= inside_h);
            CHECK(s.width_mm + (s.fit.sideways_mm < (inside_w - s.width_mm) / 2 - 1e-9 ? 2 * s.strip_mm : 0) <= inside_w);
            CHECK(s.size->wall >= 0.8 * wall);
            CHECK(s.fit.most() <= stretch::tube_loose_mm + 1e-9);
            const int now = s.strip_mm > 0 ? 1 : s.fit.least() >= stretch::tube_tight_mm ? 0 : 2;
            CHECK(now >= rank);
            rank = now;
            // its line does what it says
            Typist taken = t;
            taken.type(s.line);
            CHECK_FALSE(verdict(taken, "tube-too-large"));
        }
        for (const frame::StockSize& size : frame::commonStock()) {
            if (size.form != "box" || size.wall < 0.8 * wall) continue;
            for (const auto& [h, w] : {std::pair{size.height, size.width}, std::pair{size.width, size.height}}) {
                const double upright = (inside_h - h) / 2, sideways = (inside_w - w) / 2;
                if (std::min(upright, sideways) < 0 || std::max(upright, sideways) > 1.5) continue;
                INFO(section << " " << size.name());
                CHECK(std::any_of(offered.begin(), offered.end(), [&](const auto& s) {
                    return s.height_mm == h && s.width_mm == w && s.size->wall == size.wall;
                }));
            }
        }
    }
}

TEST_CASE("common stock: names, gauges, and what it is worth", "[stretch][stock]") {
    CHECK(frame::gaugeMm(11) == Approx(3.038).margin(0.001));
    CHECK(frame::gaugeMm(16) == Approx(1.519).margin(0.001));
    CHECK(frame::gaugeMm(3) == 0);
    std::set<std::string> names;
    for (const frame::StockSize& s : frame::commonStock()) {
        INFO(s.name());
        CHECK(names.insert(s.name()).second); // each once
        const auto walls = frame::wallsOf(s.profile());
        REQUIRE(walls);
        const auto section = frame::sectionOf(*walls);
        REQUIRE(section);
        // never more steel than sharp corners would have, and not much less
        const double t = s.wall;
        const double sharp = s.form == "box"       ? 2 * t * (s.height + s.width - 2 * t)
                             : s.form == "tube"    ? std::acos(-1.0) * t * (s.height - t)
                             : s.form == "angle"   ? t * (s.height + s.width - t)
                             : s.form == "channel" ? t * (s.height + 2 * s.width - 2 * t)
                                                   : s.height * t;
        CHECK(section->area_mm2 <= sharp * 1.001);
        CHECK(section->area_mm2 > sharp * 0.85);
        CHECK(section->mass_kg_per_m == Approx(section->area_mm2 * 7.85e-3));
    }
    CHECK(names.contains("box 60 × 40 × 3"));
    CHECK(names.contains("box 2\" × 2\" × 11 gauge"));
    CHECK(names.contains("box 1 1/2\" × 1 1/2\" × 3/16\""));
    CHECK(names.size() > 120);
}

} // namespace stretch_stock_test
