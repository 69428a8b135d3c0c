#include "sim/car_meshes.hpp"

#include "sim/mesh_maker.hpp"

#include <cmath>
#include <numbers>

namespace gorvet::sim {
namespace {

using Table = std::vector<std::array<double, 2>>;

// ---------------------------------------------------------------- the hidden truth, as in demo/petrel_on_tern.py

const Table rail_top{{-520, 540}, {250, 500}, {900, 490}, {1700, 490}, {2450, 560}, {3150, 566}};
const Table rail_offset{{-520, 430}, {250, 430}, {900, 440}, {1700, 450}, {2450, 500}, {3150, 500}};
constexpr double rail_height = 100;
constexpr double rail_width = 60;
constexpr double ground = 90;
const double pitch = -std::atan2(6.0, 1200.0);

/// The frame is crooked: the right side ahead, and twisted.
void bend(Mesh& m) {
    for (Point3& p : m.points) {
        if (p[1] <= 0) continue;
        const double share = std::min(1.0, p[1] / 400);
        p[0] -= 5.2 * share;
        p[2] += 1.5 * (p[0] - 1300) / 3670 * share;
    }
}

// ---------------------------------------------------------------- the body, in its own frame

const Table centre_outline{{-620, 860},  {-300, 1010}, {380, 1120},  {480, 1230}, {1050, 1640},
                           {1450, 1655}, {1900, 1560}, {2700, 1180}, {3350, 880}};
const Table u95{{-620, 520}, {-200, 690}, {400, 735}, {2000, 740}, {2700, 715}, {3350, 560}};
const Table shoulder{{-620, 800}, {0, 965}, {600, 985}, {2000, 990}, {2700, 965}, {3350, 800}};
constexpr double arch_radius = 370;
constexpr double arch_height = 552; ///< of the arch's centre over the body's zero
constexpr double arch_rear = 2650;

double archEdge(double x) {
    for (const double middle : {0.0, arch_rear})
        if (const double d = std::abs(x - middle); d < arch_radius)
            return arch_height + std::sqrt(arch_radius * arch_radius - d * d);
    return 0;
}
// how far inside an opening a place is: > 0 is in it
double doorOpening(const Point3& p) { return -outsideRounded(p[0], p[2], {600, 640}, {1640, 1500}, 70); }
double glassOpening(const Point3& p) {
    const double side = std::min(-outsideRounded(p[0], p[2], {640, 1030}, {1600, 1430}, 80), std::abs(p[1]) - 565);
    const double rear_side = std::min(-outsideRounded(p[0], p[2], {1700, 1040}, {2150, 1300}, 70), std::abs(p[1]) - 520);
    const double screen = std::min(-outsideRounded(p[0], p[1], {500, -510}, {930, 510}, 70), p[2] - 1230);
    const double rear = std::min(-outsideRounded(p[0], p[1], {2050, -430}, {2500, 430}, 90), p[2] - 1180);
    return std::max({side, rear_side, screen, rear});
}
double bonnetOpening(const Point3& p) { return -outsideRounded(p[0], p[1], {-480, -520}, {425, 520}, 90); }
double lidOpening(const Point3& p) { return -outsideRounded(p[0], p[1], {2590, -420}, {3210, 420}, 90); }
constexpr double half_gap = 3; ///< between a panel and what it closes

double tunnel(double x, double y) {
    const double height = rounded({{480, 190}, {1300, 130}, {2300, 120}}, x);
    const double half = rounded({{480, 190}, {1300, 130}, {2300, 120}}, x);
    const double d = std::abs(y) / half;
    return d < 1 ? height * std::pow(1 - d * d, 0.6) : 0;
}
/// Pressed upwards to stiffen the floor: six on each side, across.
double beads(double x, double y) {
    const double inside = -outsideRounded(std::fmod(x - 700, 170.0), std::abs(y), {60, 270}, {110, 560}, 25);
    return x > 700 && x < 1720 && inside > 0 ? 7 * std::sin(std::min(1.0, inside / 14) * std::numbers::pi / 2) : 0;
}
double floorHeight(double x, double y) {
    const double hump = rounded({{1750, 0}, {2250, 155}, {2900, 170}, {3250, 120}}, x);
    return 632 + std::max(tunnel(x, y), 0.0) + hump + beads(x, y);
}

/// On the flank, at a height.
Point3 flankAt(double side, double x, double z) {
    const double bulge = 1 - 0.06 * std::pow((z - 700) / 250, 2);
    return {x, side * between(u95, x) * bulge, z};
}

Surface flankOf(double side) {
    return [side](double u, double v) {
        const double x = -620 + 3970 * u;
        const double low =
            std::max(archEdge(x), rounded({{-620, 560}, {-500, 480}, {480, 520}, {2200, 520}, {3100, 520}, {3350, 600}}, x));
        const double high = std::max(between(shoulder, x), low + 5);
        return flankAt(side, x, low + (high - low) * v);
    };
}
std::function<Point3(const Point3&)> turnedInwards(double side) {
    return [side](const Point3& p) { return Point3{p[0], p[1] - side * 18, p[2]}; };
}

} // namespace

BodyPlace bodyPlace() {
    // the sill's front 285 over the ground (z 500 at station 720), pitched nose down
    const double sill = std::cos(pitch) * 500 - std::sin(pitch) * 720;
    return {{1.2, 0, ground + 285 - sill}, pitch};
}

Mesh bodyShell(double step) {
    Mesh m;
    // floor from the toe board to the tail, and the bulkhead with a round corner over the tunnel
    addGrid(m, step, [](double u, double v) {
        const double x = 500 + 2600 * u;
        const double half = between({{500, 640}, {2000, 640}, {2400, 545}, {3100, 500}}, x);
        const double y = (2 * v - 1) * half;
        return Point3{x, y, floorHeight(x, y)};
    });
    addGrid(m, step, [](double u, double v) {
        const double y = (2 * v - 1) * 640;
        const double foot = floorHeight(500, y);
        const double x = 500 - 90 * std::pow(std::sin(u * std::numbers::pi / 2), 2);
        return Point3{x, y, foot + (1090 - foot) * u};
    });
    for (const double side : {-1.0, 1.0}) {
        // sills: boxes open at their ends
        addGrid(m, step, [side](double u, double v) {
            const double x = 480 + 1620 * u;
            const Table rim_y{{0, 640}, {0.1, 640}, {0.4, 700}, {0.5, 738}, {0.75, 738}, {1, 640}};
            const Table rim_z{{0, 640}, {0.1, 500}, {0.4, 500}, {0.5, 520}, {0.75, 640}, {1, 640}};
            return Point3{x, side * between(rim_y, v), between(rim_z, v)};
        });
        // sides from sill and arch up to the shoulder
        addTrimmed(m, step, flankOf(side), doorOpening, turnedInwards(side));
        // the arches' edges, turned in
        for (const double middle : {0.0, arch_rear})
            addGrid(m, step, [side, middle](double u, double v) {
                const double a = std::numbers::pi * u;
                Point3 p = flankAt(side, middle - arch_radius * std::cos(a), arch_height + arch_radius * std::sin(a));
                p[1] -= side * 16 * v;
                return p;
            });
        // inner arches
        for (const double middle : {0.0, arch_rear})
            addGrid(m, step, [side, middle](double u, double v) {
                const double a = std::numbers::pi * (u * 1.1 - 0.05);
                const double r = arch_radius + 8;
                return Point3{middle - r * std::cos(a), side * (500 + 220 * v), arch_height + r * std::sin(a)};
            });
        // hinge and lock pillars
        for (const double x : {560.0, 1660.0})
            addGrid(m, step, [side, x](double u, double v) {
                const double a = 2 * std::numbers::pi * v;
                const double z = 600 + (x < 1000 ? 500.0 : 320.0) * u;
                return Point3{x + 45 * std::cos(a), side * (680 - 0.02 * (z - 600)) + 30 * std::sin(a), z};
            });
        // strakes under the floor, over the rails
        addGrid(m, step, [side](double u, double v) {
            const double x = 620 + 1100 * u;
            const double d = 2 * v - 1;
            return Point3{x, side * (330 + 70 * d), 632 - 16 * (1 - std::pow(std::abs(d), 3))};
        });
    }
    // screen surround, roof and tail, over from shoulder to shoulder; in it bonnet and lid
    const Surface top = [](double u, double v) {
        const double x = -620 + 3970 * u;
        const double low = between(shoulder, x);
        const double high = std::max(rounded(centre_outline, x), low + 20);
        const double a = std::numbers::pi * v;
        const double lean = 1 - 0.25 * std::max(0.0, (high - low - 250) / 500) * std::sin(a);
        return Point3{x, -between(u95, x) * std::cos(a) * lean, low + (high - low) * std::pow(std::sin(a), 0.55)};
    };
    const auto downwards = [](const Point3& p) { return Point3{p[0], p[1] * 0.99, p[2] - 16}; };
    addTrimmed(
        m, step, top,
        [](const Point3& p) {
            return std::max({glassOpening(p), bonnetOpening(p), lidOpening(p)});
        },
        downwards);
    for (const auto opening : {bonnetOpening, lidOpening})
        addTrimmed(
            m, step, top, [opening](const Point3& p) { return 2 * half_gap - opening(p); }, downwards);
    return m;
}

Mesh bodyDoors(double step) {
    Mesh m;
    for (const double side : {-1.0, 1.0})
        addTrimmed(
            m, step, flankOf(side), [](const Point3& p) { return 2 * half_gap - doorOpening(p); }, turnedInwards(side));
    return m;
}

Mesh ladderFrame(double step) {
    Mesh m;
    for (const double side : {-1.0, 1.0}) {
        std::vector<Point3> path;
        for (double x = -520; x <= 3150.5; x += 36.7)
            path.push_back({x, side * between(rail_offset, x), between(rail_top, x) - rail_height / 2});
        addBar(m, step, path, rectangle(rail_width, rail_height));
        // X-member: from the rails to the middle and back
        addBar(m, step, {{620, side * 420, 425}, {1180, side * 95, 415}, {1500, side * 95, 415}, {2000, side * 440, 440}},
               rectangle(45, 70));
        // outriggers with ears for the mounts
        for (const double x : {480.0, 1650.0, 2330.0}) {
            const double y = between(rail_offset, x), z = between(rail_top, x) - 45;
            addBar(m, step, {{x, side * (y + 5), z}, {x, side * (y + 150), z + 10}}, rectangle(70, 50));
        }
    }
    for (const double x : {-480.0, 150.0, 1610.0, 2700.0, 3110.0}) {
        const double y = between(rail_offset, x), z = between(rail_top, x) - 55;
        if (x == 150.0) // dropped under the engine
            addBar(m, step, {{x, -y, z}, {x, -y + 120, z - 110}, {x, y - 120, z - 110}, {x, y, z}}, rectangle(80, 60));
        else
            addBar(m, step, {{x, -y, z}, {x, y, z}}, rectangle(70, 60));
    }
    bend(m);
    return m;
}

Mesh rearAxle(double step) {
    Mesh m;
    addTurned(m, step, {2790, 0, 430}, {{-690, 0}, {-690, 38}, {690, 38}, {690, 0}});
    addTurned(m, step, {2790, 40, 430}, {{-120, 0}, {-110, 70}, {-60, 130}, {60, 130}, {110, 70}, {120, 0}});
    addBar(m, step, {{2560, 40, 440}, {2700, 40, 432}}, rectangle(110, 110)); // nose
    return m;
}

Mesh wheel(double step) {
    Mesh m;
    addTurned(m, step, {0, 0, 0},
              {{-60, 0},
               {-60, 180},
               {-105, 205},
               {-112, 270},
               {-95, 330},
               {-70, 340},
               {70, 340},
               {95, 330},
               {112, 270},
               {105, 205},
               {20, 180},
               {20, 0}});
    return m;
}

} // namespace gorvet::sim
