#include "analysis/overlay_parts.hpp"
#include "analysis/scene_times.hpp"
#include "analysis/scribed.hpp"

#include "store/store.hpp"
#include "support/scanned_car.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <fmt/format.h>

namespace analysis_times_test {

using namespace gorvet;
using namespace gorvet::build;
using shape::Mesh;
using shape::Point3;
using test::box;
using test::Car;
using test::farthest;

TEST_CASE("wheels are watched through their travel, each moment by the distance that is there", "[analysis][times]") {
    Car car;
    car.add(the_body, ScanPart::Body, "shell", box({-280, -680, 780}, {280, -520, 782}));
    car.add(the_chassis, ScanPart::Wheel, "front", box({-300, -700, 100}, {300, -500, 700}));
    car.add(the_chassis, ScanPart::Chassis, "frame", box({-500, -400, 300}, {3000, 400, 400}));
    analysis::Overlay o = car.overlay();
    CHECK_FALSE(analysis::travelTimes(car.b, o)); // nothing moves
    sit::Sweep bump;
    bump.u_steps = 4;
    bump.pose = [](double u, double) { return geometry::rigidTransform({0, 0, u > 0 ? 95 * u : 60 * u}, 0, 0, 0); };
    bump.words = [](double u, double) { return fmt::format("moved {:.0f}", u > 0 ? 95 * u : 60 * u); };
    o.on_chassis[0].part.sweep = bump;
    o.on_chassis[0].sweep_assumed = true;
    const auto t = analysis::travelTimes(car.b, o);
    REQUIRE(t);
    REQUIRE(t->moving == std::vector<std::size_t>{0});
    CHECK_THAT(t->words, Catch::Contains("type travel"));
    double highest = 0;
    for (const auto& m : t->moments) {
        REQUIRE(m.moved.size() == 1);
        const double up = m.moved[0].translation[2], gap = 80 - up; // of wheel and shell, in closed form
        INFO(m.words);
        highest = std::max(highest, up);
        const double needs = analysis::pairNeed(o.placing, ScanPart::Body, ScanPart::Wheel).least_mm; // not that of the whole
        CHECK(m.touches() == (gap < needs));
        CHECK((m.brief.empty() || m.severity != sheet::Severity::Good)); // travel and clearance are assumed
        if (gap >= o.need.cap_mm) CHECK(m.brief.empty());
        if (gap > 0 && gap < o.need.cap_mm) CHECK_THAT(m.words, Catch::Contains(fmt::format("{:.1f} mm between", gap)));
        if (gap < 0) CHECK_THAT(m.words, Catch::Contains(fmt::format("fouls the wheel by")));
        if (gap < 0) CHECK(m.where[2] == Approx(780).margin(20));
    }
    CHECK(highest == Approx(95));
    REQUIRE_FALSE(t->ways.empty());
    CHECK(t->moments[t->ways[0].second].moved[0].translation[2] == Approx(95)); // where it is worst
    // what does not move stays, what moves is not in it
    const Mesh rest = analysis::chassisWithout(o, t->moving);
    CHECK(rest.points.size() == 8);
    CHECK(farthest(rest, [](const Point3& p) { return p[2]; }) == Approx(400));
    int asked = 0;
    CHECK_FALSE(analysis::travelTimes(car.b, o, [&](double) { return ++asked < 5; }));
}

TEST_CASE("a chassis is seen as it was surveyed and as it is planned", "[analysis][times]") {
    Car car;
    car.add(the_chassis, ScanPart::Chassis, "frame", box({-500, -400, 300}, {3000, 400, 400}));
    car.add(the_body, ScanPart::Body, "shell", box({-280, -680, 780}, {280, -520, 782}));
    analysis::OverlayInput in =
        analysis::overlayInput(car.b, car.results(), std::make_shared<const analysis::ScanMeshes>(car.meshes));
    in.planned.cut_station_mm = 1200;
    in.planned.change_mm = -140;
    const auto rear = [](const Point3& p) { return p[0]; };
    CHECK(farthest(*analysis::overlayOf(in, 1).chassis->mesh, rear) == Approx(2860));
    CHECK(farthest(analysis::chassisAsItStands(in), rear) == Approx(3000));
    CHECK(analysis::chassisAsItStands(in).points.size() == 8);                     // the body is none of it
    CHECK_FALSE(analysis::changeTimes(car.b, car.results(), analysis::Overlay{})); // none is planned
}

TEST_CASE("the order of work is watched with what stands on the car at each step", "[analysis][times]") {
    const auto folder = test::freshFolder("times");
    const auto store = store::Store::open(test::demoBuild(folder));
    REQUIRE(store);
    const Build& b = (*store)->build();
    const analysis::Results r = analysis::analyse(b, 1);
    const auto change = analysis::changeTimes(b, r, {});
    REQUIRE(change);
    REQUIRE(change->moments.size() == 2);
    CHECK_FALSE(change->moments[0].as_planned);
    CHECK(change->moments[1].as_planned);
    const auto t = analysis::workTimes(b, r, {});
    REQUIRE(t);
    const auto& steps = r.work->steps;
    REQUIRE(t->moments.size() == steps.size());
    bool planned = false, off = false;
    for (std::size_t k = 0; k < steps.size(); ++k) {
        const auto& m = t->moments[k];
        INFO(m.words);
        CHECK_THAT(m.words, Catch::Contains(steps[k].title));
        const auto& stands = steps[k].moves_to ? *steps[k].moves_to : steps[k].stance;
        CHECK(m.body == (stands.body == BodyPlace::On));
        off = off || !m.body;
        // cut once, and never uncut again; new steel not before the rails are apart
        if (planned) CHECK(m.as_planned);
        if (steps[k].code == "cut-rails" || steps[k].code == "prepare-ends") {
            CHECK((!m.as_planned && !m.steel));
            CHECK_THAT(m.words, Catch::Contains("cut apart"));
        }
        if (steps[k].code == "close-up") CHECK(m.as_planned);
        const bool member = std::any_of(steps.begin(), steps.begin() + static_cast<std::ptrdiff_t>(k) + 1,
                                        [](const work::Step& s) { return s.code == "fit-crossmember"; });
        CHECK(m.steel == (member && m.as_planned)); // no sooner than it is on the car
        planned = planned || m.as_planned;
        if (!steps[k].cautions.empty()) CHECK_THAT(m.words, Catch::Contains(steps[k].cautions.front()));
    }
    CHECK(planned);
    CHECK(off);
    for (const auto& [words, at] : t->ways) CHECK(at < t->moments.size());
    // a build that nothing is planned for has its first steps
    Build empty;
    const auto first = analysis::analyse(empty, 1);
    const auto times = analysis::workTimes(empty, first, {});
    REQUIRE(times);
    CHECK(times->moments.size() == first.work->steps.size());
}

TEST_CASE("scans are scribed for paper where they have a surface, and a cloud is not", "[analysis][times]") {
    Car car;
    car.add(the_chassis, ScanPart::Chassis, "frame", box({-500, -400, 300}, {3000, 400, 400}));
    const auto overlay = std::make_shared<const analysis::Overlay>(car.overlay());
    const auto s = analysis::scribedOf({overlay, nullptr, nullptr});
    REQUIRE(s);
    REQUIRE(s->hasLines());
    // at a whole scale the drawing is as long as it says
    const auto left =
        std::find_if(s->views.begin(), s->views.end(), [](const auto& v) { return std::string_view(v.key) == "left"; });
    REQUIRE(left != s->views.end());
    const auto drawn = analysis::scribedDrawing(*s, *left, 200, 100, {}, 25);
    const auto e = sheet::extent(drawn.items);
    CHECK(e.right - e.left == Approx(3500.0 / 25).margin(0.2));
    Mesh cloud;
    for (int i = 0; i < 30; ++i) cloud.points.push_back({100.0 * i, 10.0 * (i % 7), 300});
    Car points;
    points.add(the_chassis, ScanPart::Chassis, "frame", cloud);
    const auto none = analysis::scribedOf({std::make_shared<const analysis::Overlay>(points.overlay()), nullptr, nullptr});
    REQUIRE(none);
    CHECK_FALSE(none->hasLines());
    CHECK_FALSE(analysis::scribedOf({overlay, nullptr, nullptr}, [] { return true; }));
}

} // namespace analysis_times_test
