#include "make/service.hpp"
#include "make/service_room.hpp"
#include "shape/plain_mesh.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <functional>
#include <numbers>
#include <random>

namespace make_service_test {

using namespace gorvet;
using build::PlanVerdict;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using geometry::Vec3;
using make::Fastener;
using make::ServiceBody;
using make::ServiceIn;

namespace {

constexpr double pi = std::numbers::pi;

/// A box of steel on axes of its own: what a test knows of it, and its mesh.
struct Block {
    Vec3 middle;
    std::array<Vec3, 3> axes;
    Vec3 half;
    bool holds(const Vec3& p, double grown) const {
        for (std::size_t k = 0; k < 3; ++k)
            if (std::abs(dot(minus(p, middle), axes[k])) > half[k] + grown) return false;
        return true;
    }
    ServiceBody body(const std::string& name, bool comes_off = false) const {
        const Vec3 corner =
            minus(middle, plus(times(axes[0], half.x_mm), plus(times(axes[1], half.y_mm), times(axes[2], half.z_mm))));
        ServiceBody b;
        b.name = name;
        b.comes_off = comes_off;
        b.mesh = std::make_shared<const shape::Mesh>(
            shape::prismMesh({{0, 0}, {2 * half.x_mm, 0}, {2 * half.x_mm, 2 * half.y_mm}, {0, 2 * half.y_mm}}, 2 * half.z_mm,
                             {corner, axes[0], axes[1]}));
        return b;
    }
};
Block level(const Vec3& low, const Vec3& high) {
    return {geometry::along(low, high, 0.5), {Vec3{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}, times(minus(high, low), 0.5)};
}

Fastener upright(const std::string& name = "b", const Vec3& head = {0, 0, 10}, double grip = 10) {
    Fastener f;
    f.name = name;
    f.head = head;
    f.along = {0, 0, -1};
    f.grip_mm = grip;
    f.bolt_mm = 10;
    f.length_mm = *make::boltLength(*make::boltSize(10), grip);
    return f;
}
make::FastenerRow only(const ServiceIn& in) { return make::servicePlan(in).rows.at(0); }
bool says(const make::FastenerRow& r, const std::string& code) {
    return std::any_of(r.remarks.begin(), r.remarks.end(), [&](const auto& x) { return x.code == code; });
}

} // namespace

TEST_CASE("what is free along an axis and round it, by hand", "[make][service][closed-form]") {
    make::AxisRoom room({0, 0, 0}, {0, 0, 1}, 300, 300);
    const std::vector<char> on(1, 0);
    room.add(*level({5, -100, 40}, {60, 100, 50}).body("plate").mesh, 0, 0, true);
    CHECK(room.free(4.9, 1, 100, on).by == -1);
    CHECK(room.free(4.9, 1, 100, on).length_mm == Approx(99));
    CHECK(room.free(5.1, 1, 100, on).by == 0);
    CHECK(room.free(5.1, 1, 100, on).length_mm == Approx(39));
    CHECK(room.free(5.1, 1, 100, {1}).by == -1); // it is off
    // begun in the middle of it, and above it
    CHECK(room.free(5.1, 45, 100, on).length_mm == Approx(0));
    CHECK(room.free(5.1, 51, 100, on).by == -1);
    // a wall 40 away on one side takes 2 asin of nothing but its half plane: what a strip of 10 either side reaches at 100
    make::AxisRoom beside({0, 0, 0}, {0, 0, 1}, 300, 300);
    beside.add(*level({40, -1000, -50}, {60, 1000, 50}).body("wall").mesh, 0, 0, true);
    const auto swing = beside.swing(20, 10, 100, 1, 8, on);
    REQUIRE(swing.arcs.size() == 1);
    // its places seen farthest round: where it crosses the reach, 40 over 100 off its square, and the strip's half width there
    const double blocked = 2 * (std::acos(0.4) + std::asin(0.1));
    CHECK(swing.widest_rad == Approx(2 * pi - blocked));
    CHECK(dot(beside.direction((swing.arcs[0].first + swing.arcs[0].second) / 2), {-1, 0, 0}) == Approx(1));
    CHECK(beside.swing(41, 10, 100, 1, 8, on).widest_rad == 0); // the ring itself meets it
    CHECK(beside.swing(20, 10, 39, 1, 8, on).widest_rad == Approx(2 * pi));
    CHECK(beside.swing(20, 10, 100, 51, 60, on).widest_rad == Approx(2 * pi));
    // wholly inside a block that no side of comes near
    make::AxisRoom inside({0, 0, 0}, {0, 0, 1}, 100, 100);
    inside.add(*level({-500, -500, -500}, {500, 500, 500}).body("block").mesh, 0, 0, true);
    CHECK(inside.free(10, 1, 50, on).by == 0);
}

TEST_CASE("a bolt is drawn, turned round, held or captive, by hand", "[make][service][closed-form]") {
    ServiceIn in;
    in.fasteners = {upright()};
    const double length = in.fasteners[0].length_mm; // 10 + 4 + 8.4 + 4.5 = 26.9: 30
    CHECK(length == 30);
    // nothing there
    CHECK(only(in).verdict == PlanVerdict::Holds);
    CHECK(only(in).round == 1);
    in.not_looked_at = {"scans"};
    CHECK(only(in).verdict == PlanVerdict::Marginal);
    in.not_looked_at.clear();
    // a roof over its head by a little less than its length and 20: it goes in from below
    const auto roof = [](double over) { return level({-300, -300, 10 + over}, {300, 300, 20 + over}).body("roof"); };
    in.bodies = {roof(length + 20 + 2.5)};
    CHECK(only(in).verdict == PlanVerdict::Holds);
    in.bodies = {roof(length + 20 - 0.5)};
    CHECK(only(in).turned);
    CHECK(only(in).verdict == PlanVerdict::Marginal);
    CHECK(says(only(in), "bolt-turned"));
    in.fasteners[0].either = false;
    CHECK(says(only(in), "bolt-trapped"));
    CHECK(only(in).verdict == PlanVerdict::Fails);
    CHECK(only(in).ends[0].free_mm == Approx(length + 19.5));
    CHECK(only(in).ends[0].blocked_by == "roof");
    // a longer bolt than it needs: a shorter one comes out, and is named
    in.fasteners[0].length_mm = 45;
    in.bodies = {roof(52)};
    REQUIRE(says(only(in), "bolt-trapped"));
    CHECK(only(in).remarks[0].remedy.find("A bolt of 30") != std::string::npos);
    in.fasteners[0].length_mm = 30;
    // floors at both its ends
    in.fasteners[0].either = true;
    in.bodies = {roof(40), level({-300, -300, -60}, {300, 300, -48}).body("floor")};
    CHECK(says(only(in), "bolt-trapped"));
    // a pocket round its nut: it can be put on, and nothing holds it; under it, none goes on; welded beforehand, it serves
    const auto pocket = [](double half, double deep) {
        std::vector<ServiceBody> walls{
            level({half, -60, -deep}, {60, 60, -0.01}).body("a"), level({-60, -60, -deep}, {-half, 60, -0.01}).body("b"),
            level({-60, half, -deep}, {60, 60, -0.01}).body("c"), level({-60, -60, -deep}, {60, -half, -0.01}).body("d")};
        return walls;
    };
    in.fasteners[0].either = false;
    in.bodies = pocket(10.6, 200);
    CHECK(says(only(in), "bolt-spins"));
    in.bodies = pocket(9, 200);
    CHECK(says(only(in), "bolt-captive"));
    in.fasteners[0].captive = true;
    CHECK(only(in).verdict == PlanVerdict::Holds);
    // its end strikes something behind the captive nut
    in.bodies.push_back(level({-20, -20, -25}, {20, 20, -15}).body("bottom"));
    CHECK(says(only(in), "bolt-bottoms"));
    in.bodies.back() = level({-20, -20, -45}, {20, 20, -25}).body("bottom");
    CHECK(only(in).verdict == PlanVerdict::Holds);
    // a tube over its head: nothing turns it, though it can be drawn
    in.bodies = pocket(10.6, 200);
    for (auto& b : in.bodies) {
        shape::Mesh up = *b.mesh;
        for (auto& p : up.points) p.z_mm += 211;
        b.mesh = std::make_shared<const shape::Mesh>(up);
    }
    CHECK(says(only(in), "bolt-tool"));
    // no mirror's doing: with a gap of a millimetre more than a socket wants it serves, tight until it is 2
    const auto over_head = [&](double half) {
        auto walls = pocket(half, 200);
        for (auto& b : walls) {
            shape::Mesh up = *b.mesh;
            for (auto& p : up.points) p.z_mm += 211;
            b.mesh = std::make_shared<const shape::Mesh>(up);
        }
        return walls;
    };
    in.bodies = over_head(13);
    CHECK(says(only(in), "bolt-tight"));
    CHECK(only(in).verdict == PlanVerdict::Marginal);
    in.bodies = over_head(14.1);
    CHECK(only(in).verdict == PlanVerdict::Holds);
}

TEST_CASE("what comes off first, and what never does", "[make][service]") {
    // a roof over each bolt is the next part; the last is free
    ServiceIn in;
    for (int k = 0; k < 3; ++k) {
        Fastener f = upright("bolt " + std::to_string(k), {400.0 * k, 0, 10});
        f.either = false;
        f.holds = {"part " + std::to_string(k)};
        in.fasteners.push_back(f);
        in.bodies.push_back(level({400.0 * k - 30, -30, 0}, {400.0 * k + 30, 30, 9.9}).body("part " + std::to_string(k), true));
    }
    // part 1 reaches over bolt 0, part 2 over bolt 1
    for (int k = 1; k < 3; ++k) {
        auto& b = in.bodies[static_cast<std::size_t>(k)];
        shape::Mesh more = *b.mesh;
        const auto roof = level({400.0 * (k - 1) - 100, -100, 40}, {400.0 * (k - 1) + 100, 100, 50}).body("").mesh;
        const auto from = static_cast<std::uint32_t>(more.points.size());
        more.points.insert(more.points.end(), roof->points.begin(), roof->points.end());
        for (auto t : roof->triangles) more.triangles.push_back({t[0] + from, t[1] + from, t[2] + from});
        b.mesh = std::make_shared<const shape::Mesh>(more);
    }
    const auto p = make::servicePlan(in);
    CHECK(p.off == std::vector<std::vector<std::string>>{{"part 2"}, {"part 1"}, {"part 0"}});
    CHECK(p.rows[2].round == 1);
    CHECK(p.rows[0].round == 3);
    CHECK(p.rows[0].after == std::vector<std::string>{"part 1"});
    CHECK(says(p.rows[0], "bolt-after"));
    CHECK(p.stays.empty());
    // each holds the other's bolt under it: neither ever comes off
    ServiceIn ring = in;
    shape::Mesh more = *ring.bodies[0].mesh;
    const auto roof = level({700, -100, 40}, {900, 100, 50}).body("").mesh;
    const auto from = static_cast<std::uint32_t>(more.points.size());
    more.points.insert(more.points.end(), roof->points.begin(), roof->points.end());
    for (auto t : roof->triangles) more.triangles.push_back({t[0] + from, t[1] + from, t[2] + from});
    ring.bodies[0].mesh = std::make_shared<const shape::Mesh>(more);
    const auto q = make::servicePlan(ring);
    CHECK(q.off.empty());
    CHECK(q.stays.size() == 3);
    CHECK(q.verdict == PlanVerdict::Fails);
    // held by two bolts, of which one never comes out
    ServiceIn two = in;
    two.fasteners.push_back(upright("deep", {800, 20, 10}));
    two.fasteners.back().either = false;
    two.fasteners.back().holds = {"part 2"};
    two.bodies.push_back(level({780, 0, 30}, {820, 40, 45}).body("welded"));
    const auto r = make::servicePlan(two);
    CHECK(std::find(r.stays.begin(), r.stays.end(), "part 2") != r.stays.end());
    CHECK(r.rows[3].round == 0);
}

namespace {

/// Brute force: places in a round room and in strips, asked of each block one by one.
struct Brute {
    const std::vector<Block>& blocks;
    double grown = 0; ///< blocks, all round
    bool taken(const Vec3& p, const std::vector<char>& gone) const {
        for (std::size_t k = 0; k < blocks.size(); ++k)
            if (!gone[k] && blocks[k].holds(p, grown)) return true;
        return false;
    }
    bool roundFree(const Vec3& o, const Vec3& along, double radius, double from, double until,
                   const std::vector<char>& gone) const {
        const Vec3 a = unit(cross(along, std::abs(along.z_mm) < 0.9 ? Vec3{0, 0, 1} : Vec3{1, 0, 0})), b = cross(along, a);
        const int rings = std::max(2, static_cast<int>(radius / 1.2));
        const int layers = 1 + static_cast<int>((until - from) / 1.2);
        for (int layer = 0; layer <= layers; ++layer) {
            const double h = from + (until - from) * layer / layers;
            for (int i = 0; i <= rings; ++i) {
                const double r = radius * i / rings;
                const int n = 1 + static_cast<int>(2 * pi * r / 1.2);
                for (int k = 0; k < n; ++k) {
                    const double phi = 2 * pi * k / n;
                    const Vec3 p = plus(plus(o, times(along, h)), plus(times(a, r * std::cos(phi)), times(b, r * std::sin(phi))));
                    if (taken(p, gone)) return false;
                }
            }
        }
        return true;
    }
    /// The widest run of free directions, by 2 degrees.
    double swing(const Vec3& o, const Vec3& along, double ring, double half, double reach, double from, double until,
                 const std::vector<char>& gone) const {
        if (!roundFree(o, along, ring, from, until, gone)) return 0;
        const Vec3 a = unit(cross(along, std::abs(along.z_mm) < 0.9 ? Vec3{0, 0, 1} : Vec3{1, 0, 0})), b = cross(along, a);
        constexpr int n = 180;
        std::vector<char> free(n, 1);
        for (int k = 0; k < n; ++k) {
            const Vec3 d = plus(times(a, std::cos(2 * pi * k / n)), times(b, std::sin(2 * pi * k / n))), e = cross(along, d);
            for (double r = 0; r <= reach && free[static_cast<std::size_t>(k)]; r += 2)
                for (double s = -half; s <= half && free[static_cast<std::size_t>(k)]; s += half / 3)
                    for (double h = from; h <= until; h += (until - from) / 3)
                        if (taken(plus(plus(o, times(along, h)), plus(times(d, r), times(e, s))), gone)) {
                            free[static_cast<std::size_t>(k)] = 0;
                            break;
                        }
        }
        int run = 0, best = 0;
        for (int k = 0; k < 2 * n; ++k) {
            run = free[static_cast<std::size_t>(k % n)] ? run + 1 : 0;
            best = std::max(best, std::min(run, n));
        }
        return best == n ? 2 * pi : std::max(0, best - 1) * 2 * pi / n;
    }
};

/// The rules of the check said once more, over brute force.
bool comesOut(const Brute& brute, const Fastener& f, bool turned, const std::vector<char>& gone, double slack) {
    const auto& size = *make::boltSize(f.bolt_mm);
    const Vec3 nut_at = plus(f.head, times(f.along, f.grip_mm)), out = times(f.along, -1);
    const Vec3 head = turned ? nut_at : f.head, nut = turned ? f.head : nut_at, head_out = turned ? f.along : out,
               nut_out = turned ? out : f.along;
    const double corners = std::max(size.across_flats / std::sqrt(3.0), size.washer_outside / 2),
                 from = 0.9 * size.washer_thickness;
    if (!brute.roundFree(head, head_out, corners, from, f.length_mm + 20, gone)) return false;
    const double tail = f.length_mm - f.grip_mm - 2 * size.washer_thickness;
    if (!brute.roundFree(nut, nut_out, corners, from, size.washer_thickness + std::max(tail, size.nut) + 10, gone)) return false;
    const auto tools = [&](const Vec3& o, const Vec3& d, double high) {
        if (brute.roundFree(o, d, 0.75 * size.across_flats, from, 120, gone)) return std::pair{true, true};
        const double s =
            brute.swing(o, d, 0.75 * size.across_flats, 0.4 * size.across_flats, 12 * size.across_flats, from, from + high, gone);
        return std::pair{s >= pi / 6 + slack, s > 0.02 + slack};
    };
    const auto [turn_head, hold_head] = tools(head, head_out, 0.65 * f.bolt_mm);
    const auto [turn_nut, hold_nut] = tools(nut, nut_out, size.nut);
    return (turn_head && hold_nut) || (turn_nut && hold_head);
}

} // namespace

TEST_CASE("every trapped bolt of 100 random assemblies is found, and none that is free is said to be", "[make][service]") {
    std::mt19937 random(2111);
    std::uniform_real_distribution<double> unit_of(-1, 1), size(8, 60), place(30, 130);
    int trapped = 0, free = 0, first_round = 0, later = 0, open = 0;
    for (int assembly = 0; assembly < 100; ++assembly) {
        ServiceIn in;
        std::vector<Block> blocks;
        const auto direction = [&] {
            Vec3 v;
            do v = {unit_of(random), unit_of(random), unit_of(random)};
            while (geometry::length(v) < 0.2 || geometry::length(v) > 1);
            return unit(v);
        };
        for (int k = 0; k < 2; ++k) {
            Fastener f = upright("bolt " + std::to_string(k), {300.0 * k, 0, 0}, 8 + 20 * std::abs(unit_of(random)));
            f.along = direction();
            f.bolt_mm = k ? 8 : 12;
            f.length_mm = *make::boltLength(*make::boltSize(f.bolt_mm), f.grip_mm);
            f.either = assembly % 2 == 0;
            f.holds = {"block " + std::to_string(k)};
            in.fasteners.push_back(f);
        }
        // some near each bolt; the first two come off with their bolts
        const int n = 3 + assembly % 4;
        for (int k = 0; k < n; ++k) {
            const Fastener& by = in.fasteners[static_cast<std::size_t>(k < 2 ? 1 - k : k % 2)]; // what it holds is over the other
            Block b;
            const Vec3 x = direction();
            Vec3 y = direction();
            y = unit(minus(y, times(x, dot(x, y))));
            b.axes = {x, y, cross(x, y)};
            b.half = {size(random), size(random), size(random) / 3};
            b.middle = plus(plus(by.head, times(by.along, k % 4 < 2 ? -place(random) : place(random))), times(direction(), 25));
            blocks.push_back(b);
            in.bodies.push_back(b.body("block " + std::to_string(k), k < 2));
        }
        const auto plan = make::servicePlan(in);
        // the truth: off in whatever order. What is asked of blocks that are a millimetre larger, and smaller, both ways
        const auto truth = [&](double grown, double slack) {
            const Brute brute{blocks, grown};
            std::vector<char> gone(blocks.size(), 0);
            std::array<bool, 2> out{};
            for (int round = 0; round < 3; ++round)
                for (std::size_t k = 0; k < 2; ++k) {
                    out[k] = out[k] || comesOut(brute, in.fasteners[k], false, gone, slack) ||
                             (in.fasteners[k].either && comesOut(brute, in.fasteners[k], true, gone, slack));
                    if (out[k]) gone[k] = 1;
                }
            return out;
        };
        const auto surely = truth(0.7, 0.08), perhaps = truth(-0.7, -0.08);
        for (std::size_t k = 0; k < 2; ++k) {
            INFO("assembly " << assembly << " bolt " << k);
            const bool said = plan.rows[k].round > 0;
            for (const auto& r : plan.rows[k].remarks) UNSCOPED_INFO(r.sentence);
            if (surely[k]) CHECK(said);
            if (!perhaps[k]) CHECK_FALSE(said);
            trapped += !perhaps[k];
            free += surely[k];
            open += perhaps[k] && !surely[k];
            first_round += said && plan.rows[k].round == 1;
            later += plan.rows[k].round > 1;
        }
    }
    CHECK(trapped >= 40);
    CHECK(free >= 40);
    CHECK(later >= 5);
    CHECK(open <= 40);
    std::printf("service: %d trapped, %d free (%d at once, %d after something), %d too near to tell by brute force\n", trapped,
                free, first_round, later, open);
}

TEST_CASE("a bolt that is said to serve serves when all stands as far off as is said", "[make][service][property]") {
    // what Holds promises: 2 mm all round. Blocks moved by up to that anywhere
    std::mt19937 random(99);
    std::uniform_real_distribution<double> place(-150, 150), size(5, 40), off(-1, 1);
    int held = 0;
    for (int trial = 0; trial < 150; ++trial) {
        ServiceIn in;
        in.fasteners = {upright()};
        in.fasteners[0].either = trial % 2;
        std::vector<Block> blocks;
        for (int k = 0; k < 4; ++k) {
            const Vec3 m{place(random), place(random), place(random)};
            const Vec3 h{size(random), size(random), size(random)};
            blocks.push_back(level(minus(m, h), plus(m, h)));
            in.bodies.push_back(blocks.back().body("block " + std::to_string(k)));
        }
        if (only(in).verdict != PlanVerdict::Holds) continue;
        ++held;
        for (int move = 0; move < 5; ++move) {
            ServiceIn moved = in;
            for (std::size_t k = 0; k < blocks.size(); ++k) {
                Block b = blocks[k];
                Vec3 by{off(random), off(random), off(random)};
                by = times(unit(by), 1.99);
                b.middle = plus(b.middle, by);
                moved.bodies[k] = b.body("block " + std::to_string(k));
            }
            CHECK(only(moved).round == 1);
        }
    }
    CHECK(held >= 20);
}

} // namespace make_service_test
