#include "tape/ghost.hpp"

namespace gorvet::tape {

using namespace build;
using geometry::Vec3;

namespace {

/// Half a line from front to rear, at one height: what is seen from above.
std::vector<Vec3> line(std::initializer_list<std::pair<double, double>> places) {
    std::vector<Vec3> list;
    for (const auto& [x, y] : places) list.push_back({x, y, 0});
    return list;
}
/// Across the frame at a station, from the centreline outward.
std::vector<Vec3> across(double x, double y) { return line({{x, 0}, {x, y}}); }

void addWheels(Ghost& g) {
    g.points.push_back({"F", Role::FrontHub, {0, 720, 330}, "front wheel centre"});
    g.points.push_back({"R", Role::RearHub, {2600, 720, 330}, "rear wheel centre"});
}

Ghost ladder() {
    Ghost g;
    g.words = "a ladder frame";
    g.points = {{"A", Role::Rail, {-450, 400, 450}, "front end of the rail"},
                {"B", Role::Rail, {500, 400, 430}, "rail behind the front axle"},
                {"C", Role::Rail, {1500, 410, 430}, "rail at mid wheelbase"},
                {"D", Role::Rail, {2100, 420, 520}, "rail before the rear axle"},
                {"E", Role::Rail, {3250, 430, 560}, "rear end of the rail"}};
    addWheels(g);
    g.points.push_back({"G", Role::GearboxMount, {1050, 0, 430}, "under the gearbox mounting"});
    g.outline = {line({{-450, 370}, {500, 370}, {1500, 380}, {2100, 390}, {3250, 400}}),
                 line({{-450, 440}, {500, 440}, {1500, 450}, {2100, 460}, {3250, 470}}),
                 across(-400, 370),
                 across(300, 370),
                 across(1050, 375),
                 across(2000, 385),
                 across(2950, 395)};
    return g;
}

Ghost perimeter() {
    Ghost g;
    g.words = "a perimeter frame";
    g.points = {{"A", Role::Rail, {-500, 380, 450}, "front end of the rail"},
                {"B", Role::Rail, {500, 400, 430}, "where the rail begins to widen"},
                {"C", Role::Rail, {850, 660, 330}, "front of the wide part"},
                {"D", Role::Rail, {2050, 660, 330}, "rear of the wide part"},
                {"E", Role::Rail, {2350, 470, 480}, "before the rear axle"},
                {"K", Role::Rail, {3300, 450, 560}, "rear end of the rail"}};
    addWheels(g);
    g.points.push_back({"G", Role::GearboxMount, {1100, 0, 380}, "under the gearbox mounting"});
    g.outline = {line({{-500, 350}, {500, 370}, {850, 630}, {2050, 630}, {2350, 440}, {3300, 420}}),
                 line({{-500, 420}, {500, 440}, {850, 700}, {2050, 700}, {2350, 510}, {3300, 490}}),
                 across(-450, 350),
                 across(350, 365),
                 across(1100, 630),
                 across(2450, 435),
                 across(3150, 425)};
    return g;
}

Ghost spine() {
    Ghost g;
    g.words = "a spine platform";
    g.points = {{"A", Role::Rail, {-350, 320, 350}, "front end of the frame head"},
                {"B", Role::Rail, {350, 350, 320}, "rear of the frame head"},
                {"C", Role::None, {500, 620, 240}, "front corner of the floor"},
                {"D", Role::None, {1950, 620, 240}, "rear corner of the floor"},
                {"S", Role::Rail, {1200, 90, 330}, "side of the spine, half way"},
                {"E", Role::Rail, {2250, 380, 400}, "front of the rear fork"},
                {"K", Role::Rail, {3000, 380, 450}, "rear end of the fork"}};
    addWheels(g);
    g.points.push_back({"G", Role::GearboxMount, {2800, 0, 350}, "under the gearbox mounting"});
    g.outline = {line({{-350, 330}, {350, 360}, {500, 640}, {1950, 640}, {2250, 400}, {3000, 400}}),
                 line({{350, 90}, {1950, 90}, {2250, 300}, {3000, 300}}), across(-350, 330), across(500, 640), across(1950, 640)};
    return g;
}

Ghost bolted() {
    Ghost g;
    g.words = "bolted subframes";
    g.points = {{"A", Role::Rail, {-450, 400, 400}, "front end of the front subframe"},
                {"B", Role::Rail, {500, 420, 350}, "its rear bolt"},
                {"C", Role::None, {700, 640, 280}, "front jig hole of the floor"},
                {"D", Role::None, {2000, 640, 280}, "rear jig hole of the floor"},
                {"E", Role::Rail, {2250, 480, 420}, "front bolt of the rear subframe"},
                {"K", Role::Rail, {2950, 480, 450}, "its rear bolt"}};
    addWheels(g);
    g.points.push_back({"G", Role::GearboxMount, {1000, 0, 350}, "under the gearbox mounting"});
    g.outline = {line({{-450, 430}, {500, 450}, {500, 380}, {-450, 360}}),
                 line({{600, 680}, {2100, 680}}),
                 line({{2250, 520}, {2950, 520}, {2950, 440}, {2250, 440}}),
                 across(-400, 400),
                 across(450, 400),
                 across(600, 680),
                 across(2100, 680),
                 across(2300, 480),
                 across(2900, 480)};
    return g;
}

Ghost monocoque() {
    Ghost g;
    g.words = "a monocoque";
    g.points = {{"A", Role::Rail, {-500, 450, 450}, "front end of the front leg"},
                {"B", Role::Rail, {450, 450, 380}, "where the leg meets the floor"},
                {"C", Role::None, {750, 650, 260}, "front jig hole of the floor"},
                {"D", Role::None, {1950, 650, 260}, "rear jig hole of the floor"},
                {"E", Role::Rail, {2300, 520, 420}, "rear leg, before the axle"},
                {"K", Role::Rail, {3300, 500, 480}, "rear end of the rear leg"}};
    addWheels(g);
    g.points.push_back({"G", Role::GearboxMount, {1000, 0, 330}, "under the gearbox mounting"});
    g.outline = {line({{-500, 480}, {450, 480}, {650, 740}, {2050, 740}, {2300, 560}, {3300, 540}}),
                 line({{-500, 420}, {450, 420}}),
                 line({{2300, 480}, {3300, 460}}),
                 across(-500, 480),
                 across(600, 680),
                 across(2050, 740),
                 across(3300, 540)};
    return g;
}

Ghost spaceFrame() {
    Ghost g;
    g.words = "a space frame of tube";
    g.points = {{"A", Role::Rail, {-400, 300, 300}, "front node, below"},
                {"B", Role::Rail, {500, 350, 280}, "node behind the front axle, below"},
                {"C", Role::Rail, {900, 600, 250}, "front node of the cockpit"},
                {"D", Role::Rail, {1900, 600, 250}, "rear node of the cockpit"},
                {"E", Role::Rail, {2300, 420, 320}, "node before the rear axle"},
                {"K", Role::Rail, {2950, 380, 400}, "rear node"}};
    addWheels(g);
    g.points.push_back({"G", Role::GearboxMount, {1100, 0, 300}, "under the gearbox mounting"});
    g.outline = {line({{-400, 300}, {500, 350}, {900, 600}, {1900, 600}, {2300, 420}, {2950, 380}}),
                 across(-400, 300),
                 across(500, 350),
                 across(900, 600),
                 across(1900, 600),
                 across(2300, 420),
                 across(2950, 380),
                 line({{500, 350}, {900, 0}, {1900, 600}}),
                 line({{-400, 0}, {500, 350}}),
                 line({{2300, 420}, {2950, 0}})};
    return g;
}

} // namespace

std::vector<std::string> GhostPoint::names() const {
    if (!pair()) return {stem};
    return {stem + "l", stem + "r"};
}

Vec3 GhostPoint::at(const std::string& name) const {
    Vec3 place = rough;
    if (pair() && name == stem + "l") place.y_mm = -place.y_mm;
    return place;
}

Ghost ghostOf(FrameKind kind) {
    switch (kind) {
    case FrameKind::Perimeter: return perimeter();
    case FrameKind::SpinePlatform: return spine();
    case FrameKind::BoltedSubframe: return bolted();
    case FrameKind::Monocoque: return monocoque();
    case FrameKind::SpaceFrame: return spaceFrame();
    case FrameKind::Ladder: break;
    }
    return ladder();
}

Ghost bodyGhost() {
    Ghost g;
    g.words = "a body";
    g.points = {{"H", Role::HingePillar, {550, 690, 800}, "hinge pillar"},
                {"S", Role::SillFront, {750, 700, 480}, "front of the sill"},
                {"T", Role::SillRear, {1850, 700, 480}, "rear of the sill"},
                {"U", Role::ArchFront, {0, 740, 520}, "middle of the front arch"},
                {"V", Role::ArchRear, {2600, 740, 520}, "middle of the rear arch"},
                {"M", Role::BodyMount, {400, 420, 620}, "front body mount"},
                {"N", Role::BodyMount, {2000, 430, 650}, "rear body mount"}};
    g.outline = {line({{-650, 0}, {-630, 350}, {-500, 620}, {-250, 760}, {2900, 760}, {3300, 620}, {3450, 300}, {3460, 0}}),
                 line({{550, 0}, {560, 600}, {600, 690}}), line({{750, 690}, {1850, 690}}), line({{2150, 0}, {2120, 560}}),
                 line({{750, 690}, {900, 560}, {1950, 560}, {2120, 560}})};
    return g;
}

} // namespace gorvet::tape
