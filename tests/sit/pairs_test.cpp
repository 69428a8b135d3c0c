#include "sit/cut_map.hpp"
#include "sit/pairs.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace sit_pairs_test {

using namespace gorvet;
using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;

namespace {

Mesh box(const Point3& least, const Point3& most, int n = 4) {
    // six gridded faces, outward, corners shared by place
    Mesh m;
    const auto at = [&](int i, int j, int k) {
        const std::array<int, 3> step{i, j, k};
        Point3 p{};
        for (size_t axis = 0; axis < 3; ++axis) p[axis] = least[axis] + (most[axis] - least[axis]) * step[axis] / n;
        for (std::uint32_t q = 0; q < m.points.size(); ++q)
            if (geometry::between(m.points[q], p) < 1e-9) return q;
        m.points.push_back(p);
        return static_cast<std::uint32_t>(m.points.size() - 1);
    };
    for (int i = 0; i < n; ++i)
        for (int j = 0; j < n; ++j)
            for (const int end : {0, n}) {
                const auto add = [&](std::uint32_t a, std::uint32_t b, std::uint32_t c, std::uint32_t d, bool flip) {
                    if (flip) std::swap(b, d);
                    m.triangles.push_back({a, b, c});
                    m.triangles.push_back({a, c, d});
                };
                add(at(i, j, end), at(i + 1, j, end), at(i + 1, j + 1, end), at(i, j + 1, end), end == 0);
                add(at(end, i, j), at(end, i + 1, j), at(end, i + 1, j + 1), at(end, i, j + 1), end == 0);
                add(at(i, end, j), at(i + 1, end, j), at(i + 1, end, j + 1), at(i, end, j + 1), end != 0);
            }
    return m;
}

sit::Part part(const std::string& name, Mesh m) {
    sit::Part p;
    p.name = name;
    p.ready = std::make_shared<const sit::Ready>(sit::readyOf(std::make_shared<const Mesh>(std::move(m)), 1));
    return p;
}

sit::Sweep lifted(double up, double down) {
    sit::Sweep s;
    s.pose = [=](double u, double) {
        RigidTransform m;
        m.translation[2] = u > 0 ? u * up : u * down;
        return m;
    };
    s.words = [=](double u, double) { return u > 0 ? "up" : "down"; };
    s.u_steps = 8;
    return s;
}

} // namespace

TEST_CASE("a part that rises is nearest at the top of its travel", "[sit][pairs][closed-form]") {
    const auto arch = part("arch", box({0, 0, 100}, {400, 100, 110}));
    auto wheel = part("wheel", box({100, 20, -200}, {300, 80, 0}));
    sit::Need need;
    need.least_mm = 20;
    const auto still = sit::pairClearance(arch, wheel, {}, need, 1);
    REQUIRE(still);
    CHECK(still->least_mm == Approx(100).margin(1e-6));
    CHECK(still->poses == 1);
    CHECK(still->band == sit::Band::Clear);
    wheel.sweep = lifted(75, 90);
    const auto swept = sit::pairClearance(arch, wheel, {}, need, 1);
    REQUIRE(swept);
    CHECK(swept->least_mm == Approx(25).margin(1e-6));
    CHECK(swept->pose == "up");
    CHECK(swept->band == sit::Band::Tight);
    CHECK(swept->at[2] == Approx(100).margin(1e-6));
    // and when it goes through: the deepest pose counts, 15 into a plate of 10
    wheel.sweep = lifted(125, 90);
    const auto through = sit::pairClearance(arch, wheel, {}, need, 1);
    REQUIRE(through);
    CHECK(through->meets);
    CHECK(through->band == sit::Band::Fouls);
    CHECK(through->least_mm <= -4); // half the plate is as deep as anything inside it can be
    // where the moving side is swept, too
    auto body = arch;
    body.sweep = lifted(0, 30);
    wheel.sweep = lifted(60, 0);
    CHECK(sit::pairClearance(body, wheel, {}, need, 1)->least_mm == Approx(10).margin(1e-6));
}

TEST_CASE("between the steps of a sweep the worst is searched for", "[sit][pairs]") {
    // a beam turns past a post: the least distance lies between two looks
    const auto post = part("post", box({205, -2, -50}, {215, 2, 50}));
    auto beam = part("beam", box({0, -1, -1}, {200, 1, 1}));
    beam.sweep = sit::Sweep{};
    beam.sweep->pose = [](double u, double) {
        const double a = u * 0.7 + 0.237; // straight at the post where u = −0.339, on no step
        return geometry::rigidTransform({}, a, 0, 0);
    };
    beam.sweep->words = [](double, double) { return "turned"; };
    beam.sweep->u_steps = 8;
    sit::Need need;
    const auto found = sit::pairClearance(post, beam, {}, need, 1);
    REQUIRE(found);
    CHECK(found->least_mm < 5.6);
    CHECK(found->least_mm >= 4.9);
    CHECK(found->between_mm <= 1);
    CHECK(found->between_mm >= 0);
    // never farther than any pose that is looked at by hand
    double by_hand = INFINITY;
    for (int k = -1000; k <= 1000; ++k) {
        const RigidTransform m = beam.sweep->pose(k / 1000.0, 0);
        by_hand = std::min(by_hand, shape::closest(*post.ready->tree, *beam.ready->tree, inverse(m), 100).least_mm);
    }
    CHECK(found->least_mm <= by_hand + found->between_mm);
}

TEST_CASE("40 rods and posts at every angle: what is left between poses is a bound, below 1 mm", "[sit][pairs][simulation]") {
    // seen: a rod at 13° of lock was called 10.5 ± 2.2 and was 4.96
    std::mt19937 rng(1480);
    const auto any = [&](double from, double to) { return from + (to - from) * static_cast<double>(rng()) / 4294967296.0; };
    int narrow = 0;
    for (int k = 0; k < 40; ++k) {
        const double lean = any(-0.3, 0.3), inboard = any(-120, 120), lock = any(0.3, 0.7), bump = any(30, 90);
        auto rod = part("rod", box({-250, -6, -6}, {250, 6, 6}, 2));
        rod.sweep = sit::Sweep{};
        // steered about a leaning, inboard axis, and it rises
        rod.sweep->pose = [=](double u, double v) {
            const RigidTransform about = geometry::rigidTransform({0, inboard, 0}, v * lock, 0, 0);
            const RigidTransform to_axis = geometry::rigidTransform({0, -inboard, 0}, 0, 0, 0),
                                 tilt = geometry::rigidTransform({}, 0, 0, lean);
            RigidTransform m = chained(tilt, chained(about, chained(to_axis, inverse(tilt))));
            m.translation[2] += u * bump;
            return m;
        };
        rod.sweep->words = [](double, double) { return "turned"; };
        rod.sweep->u_steps = 8;
        rod.sweep->v_steps = 8;
        const double x = any(120, 250), y = any(20, 160), z = any(-60, 60);
        const auto post = part("post", box({x, y, z}, {x + 5, y + 5, z + 5}, 1));
        sit::Need need;
        need.least_mm = 5;
        const auto found = sit::pairClearance(rod, post, {}, need, 1);
        REQUIRE(found);
        CHECK(found->between_mm <= 1.0);
        double by_hand = need.cap_mm;
        for (int u = -16; u <= 16; ++u)
            for (int v = -40; v <= 40; ++v)
                by_hand = std::min(
                    by_hand,
                    shape::closest(*rod.ready->tree, *post.ready->tree, rod.sweep->pose(u / 16.0, v / 40.0), by_hand).least_mm);
        if (!found->meets) {
            CHECK(by_hand >= found->least_mm - found->between_mm - 1e-6);
            narrow += found->least_mm > 0.5 && found->least_mm < 40;
        } else {
            CHECK(found->band == sit::Band::Fouls);
        }
        if (found->band == sit::Band::Clear) CHECK(by_hand >= need.tightBelow() - 1e-6);
    }
    CHECK(narrow > 4); // the sweep decided it
}

TEST_CASE("a map against several parts shows each point by the part that is worst for it", "[sit][pairs][closed-form]") {
    const auto floor = part("floor", box({0, 0, 0}, {1000, 100, 1}, 10));
    const auto rail = part("rail", box({0, 0, -40}, {300, 100, -20}));          // 20 below
    const auto exhaust = part("exhaust", box({600, 0, -60}, {1000, 100, -50})); // 50 below
    sit::Need shown, hot;
    shown.least_mm = 10;
    hot.least_mm = 60;
    const auto map = sit::worstOf(*floor.ready, {{rail.ready.get(), shown}, {exhaust.ready.get(), hot}}, {}, shown, 1);
    CHECK(map.least_mm == Approx(20).margin(1e-4)); // a true distance
    for (size_t i = 0; i < floor.ready->mesh->points.size(); ++i) {
        const Point3& p = floor.ready->mesh->points[i];
        if (p[2] > 1e-9) continue;
        const double v = map.map.distance_mm[i];
        if (p[0] <= 300) CHECK(v == Approx(20).margin(1e-3)); // 20 from a rail that needs 10: clear, as it is
        if (p[0] >= 600) CHECK(v == Approx(0).margin(1e-3));  // 50 where 60 is needed: short by 10, shown 10 under 10
        if (p[0] >= 600) CHECK(shown.band(v) == sit::Band::Fouls);
    }
    // 75 where 60 is needed and 90 is clear: half-way through tight on either scale
    const auto far = part("far", box({0, 0, -90}, {1000, 100, -75}));
    const auto tight = sit::worstOf(*floor.ready, {{far.ready.get(), hot}}, {}, shown, 1);
    bool seen = false;
    for (size_t i = 0; i < floor.ready->mesh->points.size(); ++i)
        if (floor.ready->mesh->points[i][2] < 1e-9) {
            CHECK(tight.map.distance_mm[i] == Approx(12.5).margin(1e-3));
            seen = true;
        }
    CHECK(seen);
    // the same need for all: the same as one map of both
    Mesh both = *rail.ready->mesh;
    append(both, *exhaust.ready->mesh);
    const auto one = part("both", std::move(both));
    const auto whole = sit::liveClearance(*floor.ready, *one.ready, {}, shown, 1);
    const auto parts = sit::worstOf(*floor.ready, {{rail.ready.get(), shown}, {exhaust.ready.get(), shown}}, {}, shown, 1);
    for (size_t i = 0; i < whole.map.distance_mm.size(); ++i)
        CHECK(parts.map.distance_mm[i] == Approx(whole.map.distance_mm[i]).margin(1e-4));
    CHECK(parts.fouls == whole.fouls);
    CHECK(parts.tight == whole.tight);
}

TEST_CASE("a map against several is the same however the work is shared out, the least of equals and its pose too",
          "[sit][pairs]") {
    // fine enough for several pieces; the same least distance all along, to two parts and in two poses of one
    Mesh sheet;
    for (std::uint32_t i = 0; i <= 150; ++i)
        for (std::uint32_t j = 0; j <= 40; ++j) {
            sheet.points.push_back({10.0 * i, 10.0 * j, 0});
            const std::uint32_t p = 41 * i + j;
            if (i > 0 && j > 0) sheet.triangles.insert(sheet.triangles.end(), {{p - 42, p - 1, p}, {p - 42, p, p - 41}});
        }
    const auto floor = part("floor", std::move(sheet));
    REQUIRE(floor.ready->mesh->points.size() > 4 * shape::PointOrder::piece_points);
    const auto rail = part("rail", box({0, 0, -40}, {1500, 100, -20}));
    const auto plate = part("plate", box({0, 300, -40}, {1500, 400, -20}));
    sit::Need shown;
    shown.least_mm = 15;
    const std::vector<sit::MapAgainst> against{
        {rail.ready.get(), shown, {}, {}, "as it stands"},
        {plate.ready.get(), shown, {}, {}, "beside"},
        {rail.ready.get(), shown, {}, geometry::rigidTransform({0, 50, 0}, 0, 0, 0), "moved over"}};
    const auto one = sit::worstOf(*floor.ready, against, {}, shown, 1);
    CHECK(one.least_mm == Approx(20).margin(1e-4));
    for (const int threads : {2, 3, 7}) {
        const auto many = sit::worstOf(*floor.ready, against, {}, shown, threads);
        CHECK(many.map.distance_mm == one.map.distance_mm);
        CHECK(many.least_mm == one.least_mm);
        CHECK(many.at == one.at);
        CHECK(many.pose == one.pose);
        CHECK(many.tight == one.tight);
    }
    // each of them is the least of the three taken alone
    std::vector<float> least(one.map.distance_mm.size(), static_cast<float>(shown.cap_mm));
    for (const sit::MapAgainst& a : against) {
        const auto alone = sit::worstOf(*floor.ready, {a}, {}, shown, 1);
        for (size_t i = 0; i < least.size(); ++i) least[i] = std::min(least[i], alone.map.distance_mm[i]);
    }
    CHECK(one.map.distance_mm == least);
    // stopped before it began: nothing is claimed to be near
    const auto stopped = sit::worstOf(*floor.ready, against, {}, shown, 2, [] { return true; });
    CHECK(stopped.least_mm == shown.cap_mm);
}

TEST_CASE("a cut map asks more where a part needs more, and looks at where it goes", "[sit][pairs][closed-form]") {
    Mesh sheet;
    for (int i = 0; i <= 100; ++i)
        for (int j = 0; j <= 20; ++j) sheet.points.push_back({i * 10.0, j * 10.0 - 100, 0});
    const auto at = [](int i, int j) { return static_cast<std::uint32_t>(i * 21 + j); };
    for (int i = 0; i < 100; ++i)
        for (int j = 0; j < 20; ++j) {
            sheet.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
            sheet.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
        }
    const auto body = part("sheet", std::move(sheet));
    const auto pipe = part("pipe", box({400, -20, -50}, {600, 20, -30})); // 30 below
    sit::CutOptions o;
    o.need.least_mm = 10;
    o.margin_mm = 0;
    const auto none = sit::cutMap(*body.ready, {{pipe.ready.get(), 0, {}}}, {}, o, 1);
    REQUIRE(none);
    CHECK(none->cuts.empty());
    // 40 clear is asked: sheet within √(40² − 30²) = 26.5 of its outline goes
    const auto hot = sit::cutMap(*body.ready, {{pipe.ready.get(), 30, {}}}, {}, o, 1);
    REQUIRE(hot);
    REQUIRE(hot->cuts.size() == 1);
    const double r = std::sqrt(700.0);
    CHECK(hot->area_mm2 == Approx(200 * 40 + 2 * r * 240 + units::pi * 700).epsilon(0.01));
    // and with 10 clear but risen by 25
    RigidTransform up;
    up.translation[2] = 25;
    const auto risen = sit::cutMap(*body.ready, {{pipe.ready.get(), 0, {}}, {pipe.ready.get(), 0, up}}, {}, o, 1);
    REQUIRE(risen->cuts.size() == 1);
    const double q = std::sqrt(75.0);
    CHECK(risen->area_mm2 == Approx(200 * 40 + 2 * q * 240 + units::pi * 75).epsilon(0.01));
    CHECK_FALSE(sit::cutMap(*body.ready, std::vector<sit::CutAgainst>{}, {}, o, 1));
}

TEST_CASE("a map counts what moves at the ends of its travel, on either side", "[sit][pairs][closed-form]") {
    const auto floor = part("floor", box({0, 0, 0}, {1000, 100, 1}, 10));
    auto axle = part("axle", box({400, 0, -60}, {600, 100, -50}));
    axle.sweep = lifted(30, 40);
    const auto ends = sit::endsOf(*axle.sweep);
    REQUIRE(ends.size() == 2);
    CHECK(ends[0].pose.translation.z_mm == Approx(-40));
    CHECK(ends[1].words == "up");
    sit::Need need;
    std::vector<sit::MapAgainst> against{{axle.ready.get(), need, {}, {}, {}}};
    const auto still = sit::worstOf(*floor.ready, against, {}, need, 1);
    CHECK(still.least_mm == Approx(50).margin(1e-4));
    CHECK(still.pose.empty());
    for (const auto& end : ends) against.push_back({axle.ready.get(), need, {}, end.pose, end.words});
    const auto swept = sit::worstOf(*floor.ready, against, {}, need, 1);
    CHECK(swept.least_mm == Approx(20).margin(1e-4)); // 50 less the 30 it comes up
    CHECK(swept.pose == "up");
    CHECK(swept.at[2] == Approx(0).margin(1e-9));
    // the floor swings instead: down by 40, and the place is shown where it stands
    const sit::MapAgainst let_down{axle.ready.get(), need, lifted(30, 40).pose(-1, 0), {}, "let down"};
    const auto swung = sit::worstOf(*floor.ready, {let_down}, {}, need, 1);
    CHECK(swung.least_mm == Approx(10).margin(1e-4));
    CHECK(swung.at[2] == Approx(0).margin(1e-9));
    CHECK(swung.pose == "let down");
    // one way, and steering besides: 2 × 3 ends without where it stands
    sit::Sweep two = lifted(30, 40);
    two.one_way = true;
    two.v_steps = 6;
    CHECK(sit::endsOf(two).size() == 5);
    CHECK(sit::endsOf({}).empty());
}

} // namespace sit_pairs_test
