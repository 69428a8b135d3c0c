#include "analysis/pick_lines.hpp"

#include "sim/mesh_maker.hpp"
#include "support/scanned_car.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace analysis_pick_test {

using namespace gorvet;
using namespace gorvet::build;
using shape::Mesh;
using shape::Point3;
using test::Car;

namespace {

/// Two plates that face each other along y, each with a scanner's scatter across it.
Mesh plates(double apart, double noise, std::mt19937& rng) {
    Mesh m;
    constexpr std::uint32_t n = 12;
    for (const double y : {0.0, apart}) {
        const auto first = static_cast<std::uint32_t>(m.points.size());
        for (std::uint32_t i = 0; i <= n; ++i)
            for (std::uint32_t j = 0; j <= n; ++j) m.points.push_back({i * 3.0, y + test::normal(rng, noise), j * 3.0});
        for (std::uint32_t i = 0; i < n; ++i)
            for (std::uint32_t j = 0; j < n; ++j) {
                const std::uint32_t a = first + i * (n + 1) + j, b = a + n + 1;
                m.triangles.push_back({a, b, b + 1});
                m.triangles.push_back({a, b + 1, a + 1});
            }
    }
    return m;
}

Mesh fine(const Point3& middle, const Point3& size) {
    Mesh m;
    sim::addBox(m, 20, middle, size);
    return m;
}

double figureAfter(const std::string& text, std::size_t from) { return std::stod(text.substr(from)); }

} // namespace

TEST_CASE("the ± of a distance between two picks holds the truth in 93 to 97 of 100", "[analysis][picks]") {
    std::mt19937 rng(31);
    const double truth = 412.3, noise = 0.4;
    int holds = 0, all = 0;
    for (int round = 0; round < 40; ++round) {
        Car car;
        car.add(the_chassis, ScanPart::Chassis, "frame", plates(truth, noise, rng));
        const analysis::Overlay o = car.overlay();
        const auto& points = o.chassis->mesh->points;
        for (std::uint32_t i = 3; i <= 9; i += 2)
            for (std::uint32_t j = 3; j <= 9; j += 2, ++all) {
                const std::uint32_t k = i * 13 + j;
                const auto p = analysis::pickedPlace(o, points[k], false, 0),
                           q = analysis::pickedPlace(o, points[k + 169], false, 0);
                const auto line = analysis::distanceLine(car.b, o, p, q);
                REQUIRE(line);
                const double value = figureAfter(line->text, 1), u95 = figureAfter(line->text, line->text.find("±") + 3);
                holds += std::abs(value - truth) <= u95 + 0.05; // as it is rounded
            }
    }
    INFO(holds << " of " << all);
    CHECK(holds >= 0.93 * all);
    CHECK(holds <= 0.97 * all);
}

TEST_CASE("picks begin lines: a point on its own axes, a distance on one scan alone", "[analysis][picks]") {
    Car car;
    car.add(the_chassis, ScanPart::Chassis, "frame", fine({1500, 0, 350}, {3000, 800, 100}));
    car.add(the_chassis, ScanPart::Engine, "engine", fine({400, 0, 700}, {600, 400, 400}));
    car.add(the_body, ScanPart::Body, "shell", test::box({0, -600, 1000}, {2000, 600, 1010}));
    analysis::Overlay o = car.overlay();
    const auto on = [&](const Point3& at, bool body = false) { return analysis::pickedPlace(o, at, body, 1.5); };
    const auto line = analysis::distanceLine(car.b, o, on({500, 100, 300}), on({1500, 100, 300}));
    REQUIRE(line);
    CHECK(line->text == " 1000.0 mm ± 2.1 mm note picked on the scan frame");
    CHECK(line->caret == 0);
    // on two scans it would be no reading, and in the air neither
    const auto two = analysis::distanceLine(car.b, o, on({500, 100, 300}), on({400, 100, 900}));
    REQUIRE_FALSE(two);
    CHECK_THAT(two.error().text(), Catch::Contains("frame") && Catch::Contains("engine"));
    CHECK_FALSE(analysis::distanceLine(car.b, o, on({500, 100, 300}), on({100, 0, 2600})));
    CHECK_FALSE(analysis::distanceLine(car.b, o, on({500, 100, 300}), on({500, 0, 1000}, true)));
    // eight corners say nothing of how sharp a place of it is
    const auto thin = analysis::distanceLine(car.b, o, on({500, 0, 1010}, true), on({900, 0, 1010}, true));
    REQUIRE_FALSE(thin);
    CHECK_THAT(thin.error().text(), Catch::Contains("too few points"));
    // where the body sits does not change where its point is on it
    o.seat = geometry::rigidTransform({50, 0, -20}, 0, 0, 0);
    const auto point = analysis::pointLine(car.b, o, on({450, -600, 980}, true));
    CHECK(point.text == "point body: 400.0 -600.0 1000.0");
    CHECK(point.text.substr(0, point.caret) == "point body:");
    CHECK(analysis::pointLine(car.b, o, on({450, 100, 400})).text == "point chassis: 450.0 100.0 400.0");
}

} // namespace analysis_pick_test
