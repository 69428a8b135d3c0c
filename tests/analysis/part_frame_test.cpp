// Parts that brace the frame: they stand in Stretch's structure, and bear what it hands to them.
#include "analysis/part_frame.hpp"
#include "analysis/scans.hpp"
#include "analysis/slow.hpp"
#include "store/store.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

namespace analysis_part_frame_test {

using namespace gorvet;
using namespace gorvet::analysis;

namespace {

Results frameOf(const build::Build& b) {
    Results r = analyse(b, 1);
    REQUIRE(makeSlow(b, r, {slow::frame}, [](const auto&, const auto&) { return Result<void>{}; }));
    return r;
}
build::Build drover() {
    auto store = store::Store::open(test::demoBuild(test::freshFolder("part-frame"), "drover_long"));
    REQUIRE(store);
    return (*store)->build();
}
/// A place on the chassis as surveyed: by a pinned part it need not be a mark.
build::SteelPart xMember(double across, double wall, const std::vector<build::Vec3>& at, build::PointId any) {
    build::SteelPart part;
    part.id = build::SteelPartId{1'000'000};
    part.name = "x-test";
    part.kind = "x-member";
    part.at.assign(at.size(), any);
    part.pinned = at;
    const auto figure = [&](const char* word, double v) {
        part.figures.push_back({word, build::Dimension{v, "", build::Provenance::Measured}});
    };
    figure("across", across);
    figure("wide", 40);
    figure("wall", wall);
    figure("opening", 240);
    figure("middle", 300);
    return part;
}
/// Legs onto the rails at stations where they are known.
std::vector<build::Vec3> xPlaces(const Results& r, double front, double rear) {
    std::vector<build::Vec3> at;
    for (const double x : {front, rear})
        for (const auto* rail : {&r.planned_left, &r.planned_right}) {
            const auto here = rail->at(x);
            REQUIRE(here);
            const double inner = here->y_mm + (here->y_mm < 0 ? 1 : -1) * rail->width_mm / 2;
            at.push_back({x, inner, (here->top_mm + here->bottom_mm) / 2});
        }
    at.push_back({(front + rear) / 2, 0, at.front().z_mm});
    return at;
}
const make::PartPlan& planOf(const Results& r, const std::string& name) {
    for (const auto& node : r.parts)
        if (node.input().name == name) return *node;
    FAIL(name);
    std::abort();
}

} // namespace

TEST_CASE("an X-member stands in the frame as planned, line by line, and stiffens it", "[make][frame]") {
    build::Build b = drover();
    const Results without = frameOf(b);
    REQUIRE(without.scans->frame->planned);
    CHECK_FALSE(partBears(b, without, "x-test"));
    const auto part = xMember(70, 4, xPlaces(without, 1200, 1800), b.points.begin()->first);
    b.steel_parts.emplace(part.id, part);
    const Results with = frameOf(b);
    const make::PartPlan& plan = planOf(with, "x-test");
    REQUIRE(plan.made());
    const auto& asked = with.scans->frame.input();
    REQUIRE(asked.planned);
    // as many lines more as it has bars, of its lengths and sections
    const auto before = without.scans->frame.input().planned->lines.size();
    REQUIRE(asked.planned->lines.size() == before + plan.bars.size());
    for (std::size_t k = 0; k < plan.bars.size(); ++k) {
        const frame::Line& l = asked.planned->lines[before + k];
        CHECK(geometry::between(l.points[0], l.points[1]) == Approx(geometry::between(plan.bars[k].from, plan.bars[k].to)));
        CHECK(l.pieces[0].section.sizes[0] == 70);
    }
    CHECK(asked.now == without.scans->frame.input().now); // it is not there yet
    CHECK_FALSE(partLoose(b, with, "x-test"));
    // stiffer than without, and what it weighs is in it
    const frame::Outcome &o = *with.scans->frame->planned, &plain = *without.scans->frame->planned;
    CHECK(o.twist.free_nm_deg > 1.02 * plain.twist.free_nm_deg);
    CHECK(o.mass_kg > plain.mass_kg + 5);
    // the same structure said line by line, without any part, is the same frame
    frame::Structure by_hand = *without.scans->frame.input().planned;
    by_hand.lines.insert(by_hand.lines.end(), asked.planned->lines.begin() + static_cast<std::ptrdiff_t>(before),
                         asked.planned->lines.end());
    const auto again = frame::analyse(by_hand);
    REQUIRE(again);
    CHECK(again->twist.free_nm_deg == Approx(o.twist.free_nm_deg));
    // what it bears is the worst of its own lines
    const auto bears = partBears(b, with, "x-test");
    REQUIRE(bears);
    double worst = 0;
    for (const frame::OfLine& l : again->lines)
        if (l.name.starts_with("part x-test: "))
            for (const frame::AtPlace& p : l.places) worst = std::max(worst, p.stress_mpa);
    CHECK(bears->stress_mpa == Approx(worst));
    CHECK(bears->may_mpa == Approx(b.frame_facts.yield_MPa.value / 1.5));
    // changed since: what was worked out before is not shown as its own
    build::Build changed = b;
    changed.steel_parts[part.id].figures[2].value.value = 2;
    const Results later = analyse(changed, 2, &with);
    CHECK_FALSE(partBears(changed, later, "x-test"));
}

TEST_CASE("reality fails: loads grow until the X-member yields, and it is said", "[make][frame]") {
    build::Build b = drover();
    const Results plain = analyse(b, 1);
    const auto part = xMember(70, 4, xPlaces(plain, 1200, 1800), b.points.begin()->first);
    b.steel_parts.emplace(part.id, part);
    const auto said = [&](const Results& r) {
        return std::any_of(r.findings.begin(), r.findings.end(), [](const Finding& f) {
            return f.code == "make.part-bears" && f.tag == "part:x-test" && f.word == "Fails";
        });
    };
    const Results first = frameOf(b);
    const auto bears = partBears(b, first, "x-test");
    REQUIRE(bears);
    CHECK(said(first) == (bears->share() > 1));
    // stress is proportional to all that is carried: so much more, and it is past what it may bear
    const double more = 1.2 / bears->share();
    for (const auto& row : build::Build(b).carried)
        b.carried[row.first].mass.value = std::min(10'000.0, row.second.mass.value * more);
    const Results heavy = frameOf(b);
    const auto then = partBears(b, heavy, "x-test");
    REQUIRE(then);
    CHECK(then->share() > 1);
    CHECK(said(heavy));
    // and so much less: nothing is said
    for (const auto& row : build::Build(b).carried) b.carried[row.first].mass.value /= 3 * more;
    CHECK_FALSE(said(frameOf(b)));
}

TEST_CASE("a brace that reaches no rail is in no figure, and that is said", "[make][frame]") {
    build::Build b = drover();
    const Results plain = analyse(b, 1);
    build::SteelPart part;
    part.id = build::SteelPartId{1'000'000};
    part.name = "nowhere";
    part.kind = "brace";
    part.at.assign(2, b.points.begin()->first);
    part.pinned = {{1300, -60, 1200}, {1500, 60, 1200}};
    for (const auto& [word, v] : {std::pair{"across", 42.0}, {"wall", 3.0}})
        part.figures.push_back({word, build::Dimension{v, "", build::Provenance::Measured}});
    b.steel_parts.emplace(part.id, part);
    const Results r = frameOf(b);
    CHECK(partLoose(b, r, "nowhere"));
    CHECK_FALSE(partBears(b, r, "nowhere"));
    CHECK(std::any_of(r.findings.begin(), r.findings.end(), [](const Finding& f) { return f.code == "make.part-loose"; }));
}

} // namespace analysis_part_frame_test
