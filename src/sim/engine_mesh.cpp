#include "sim/car_meshes.hpp"

#include "sim/mesh_maker.hpp"

#include <cmath>

namespace gorvet::sim {
namespace {

constexpr double first_bore = -140; ///< station of the foremost of four
constexpr double bore_pitch = 115;

void addBlock(Mesh& m, double step) {
    addBar(m, step, {{-220, 0, 660}, {340, 0, 660}}, chamfered(300, 290, 30));
    addBar(m, step, {{-220, 0, 520}, {340, 0, 520}}, chamfered(320, 90, 20)); // skirt
    addBar(m, step, {{-210, -20, 835}, {310, -20, 835}}, rectangle(280, 60));
    addBar(m, step, {{-200, -20, 888}, {300, -20, 888}}, chamfered(190, 54, 24)); // cover
    addTurned(m, step, {-90, 20, 912}, {{-30, 0}, {-30, 28}, {6, 28}, {6, 0}});   // filler
    addBar(m, step, {{-200, 0, 470}, {340, 0, 470}}, rectangle(260, 20));         // sump: flange, shallow, deep
    addBar(m, step, {{-180, 0, 448}, {110, 0, 448}}, chamfered(230, 30, 10));
    addBar(m, step, {{100, 0, 442}, {300, 0, 442}}, chamfered(240, 36, 14));
    addTurnedAlong(m, step, {-150, -165, 560}, {{-55, 0}, {-55, 42}, {45, 42}, {45, 0}}); // oil filter
}

/// Pulleys, fan, alternator: what turns at the front.
void addFront(Mesh& m, double step) {
    addBar(m, step, {{-240, 0, 640}, {-215, 0, 640}}, chamfered(260, 330, 60)); // timing cover
    addTurnedAlong(m, step, {-262, 0, 545}, {{-18, 0}, {-18, 82}, {-8, 82}, {-4, 70}, {4, 70}, {8, 82}, {18, 82}, {18, 0}});
    addTurnedAlong(m, step, {-265, 0, 700}, {{-16, 0}, {-16, 62}, {16, 62}, {16, 0}});
    addTurnedAlong(m, step, {-292, 0, 700}, {{-8, 0}, {-8, 40}, {8, 40}, {8, 0}});
    for (int blade = 0; blade < 5; ++blade) {
        const double a = 1.2566 * blade + 0.35;
        addBar(m, step, {{-292, 30 * std::cos(a), 700 + 30 * std::sin(a)}, {-288, 178 * std::cos(a), 700 + 178 * std::sin(a)}},
               rectangle(52, 5));
    }
    addTurnedAlong(m, step, {-170, 205, 690}, {{-75, 0}, {-75, 50}, {-62, 66}, {55, 66}, {75, 40}, {75, 0}}); // alternator
    addBar(m, step, {{-200, 150, 640}, {-140, 190, 660}}, rectangle(30, 40));
}

/// In on one side, out on the other.
void addManifolds(Mesh& m, double step) {
    for (int k = 0; k < 4; ++k) {
        const double x = first_bore + bore_pitch * k;
        addTube(m, step, {{x, 110, 842}, {x, 170, 848}, {x + 10, 215, 872}}, 22);
        addTube(m, step,
                {{x, -150, 838}, {x + 8, -195, 832}, {x + 20 + 0.10 * (150 - x), -222, 790}, {150 + 0.25 * (x - 150), -222, 700}},
                21);
    }
    addTube(m, step, {{first_bore - 40, 228, 880}, {first_bore + 3 * bore_pitch + 45, 228, 880}}, 44);
    addTube(m, step, {{first_bore - 40, 228, 880}, {first_bore - 95, 228, 880}}, 32);
    addTube(m, step, {{150, -222, 715}, {165, -222, 640}, {230, -222, 560}, {330, -215, 500}, {520, -205, 475}}, 30);
}

} // namespace

Mesh engineAndGearbox(double step) {
    Mesh m;
    addBlock(m, step);
    addFront(m, step);
    addManifolds(m, step);
    // bell housing, gearbox with its cover and lever, tail
    addTurnedAlong(m, step, {340, 4, 600},
                   {{-10, 0}, {-10, 208}, {25, 208}, {60, 196}, {160, 180}, {300, 138}, {390, 118}, {390, 0}});
    addTurnedAlong(m, step, {420, -150, 545}, {{-90, 0}, {-90, 40}, {60, 40}, {60, 0}}); // starter
    addBar(m, step, {{700, 8, 545}, {912, 8, 525}}, chamfered(270, 190, 36));
    addBar(m, step, {{740, 8, 642}, {890, 8, 628}}, chamfered(190, 30, 10));
    addTube(m, step, {{905, 10, 560}, {1010, 10, 552}}, 72);
    addBar(m, step, {{1000, 10, 535}, {1180, 14, 530}}, chamfered(126, 116, 30));
    addTube(m, step, {{1010, 12, 590}, {1035, 12, 640}}, 26);
    return m;
}

} // namespace gorvet::sim
