// Frames of beams against closed forms, and against what must hold of any frame.
#include "frame/beams.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace frame_beams_test {

using namespace gorvet;
using namespace gorvet::frame;

namespace {

constexpr double pi = std::numbers::pi;
const Material steel;

Section sectionFrom(const std::vector<std::string>& words) {
    const auto walls = wallsFrom(words);
    REQUIRE(walls);
    const auto s = sectionOf(*walls);
    REQUIRE(s);
    return *s;
}
BeamSection box_100_60_4() {
    const Section s = sectionFrom({"box", "100", "60", "4"});
    return beamSection(s, s.centroid);
}
Node fixed(Vec3 at) {
    Node n{at, {}, {}};
    n.held.fill(true);
    return n;
}
Answer one(const Model& m, const Load& load) {
    const auto a = solve(m, {load});
    if (!a) FAIL(a.error().text());
    CHECK(a->front().unbalanced < 1e-9);
    return a->front();
}
double moved(const Answer& a, std::size_t node, Dof d) { return a.moves[node][static_cast<std::size_t>(d)]; }
Load pull(std::size_t node, Dof d, double by) { return {"pull", {{node, unit(d, by)}}, {}}; }
Model cantilever(const BeamSection& s, double length) {
    Model m;
    m.nodes = {fixed({0, 0, 0}), Node{{length, 0, 0}, {}, {}}};
    m.beams = {Beam{0, 1, s, steel}};
    return m;
}
Approx exactly(double v) { return Approx(v).epsilon(1e-9).margin(1e-12); }

} // namespace

TEST_CASE("a cantilever bends, shears, stretches and twists as the book says", "[frame][beams]") {
    const BeamSection s = box_100_60_4();
    const double l = 800, e = steel.e_mpa, g = steel.g_mpa;
    const Model m = cantilever(s, l);
    CHECK(moved(one(m, pull(1, Dof::Z, 1000)), 1, Dof::Z) ==
          exactly(1000 * (l * l * l / (3 * e * s.level_mm4) + l / (g * s.shear_upright_mm2))));
    CHECK(moved(one(m, pull(1, Dof::Y, 1000)), 1, Dof::Y) ==
          exactly(1000 * (l * l * l / (3 * e * s.upright_mm4) + l / (g * s.shear_level_mm2))));
    CHECK(moved(one(m, pull(1, Dof::X, 1000)), 1, Dof::X) == exactly(1000 * l / (e * s.area_mm2)));
    CHECK(moved(one(m, pull(1, Dof::AboutX, 1e6)), 1, Dof::AboutX) == exactly(1e6 * l / (g * s.torsion_mm4)));
    CHECK(moved(one(m, pull(1, Dof::AboutY, 1e6)), 1, Dof::Z) == exactly(-1e6 * l * l / (2 * e * s.level_mm4)));
    const Answer a = one(m, pull(1, Dof::Z, 1000));
    CHECK(a.reactions[0][2] == exactly(-1000));
    CHECK(a.reactions[0][4] == exactly(1000 * l)); // about y: what holds a tip that is pulled up
    CHECK(a.forces[0][4] == exactly(1000 * l));
    // its own weight at the tip, in as many pieces as may be: w l⁴ / 8 E I and the shear of it
    for (const int pieces : {1, 7}) {
        Model long_one;
        for (int k = 0; k <= pieces; ++k) long_one.nodes.push_back(k ? Node{{l * k / pieces, 0, 0}, {}, {}} : fixed({0, 0, 0}));
        for (int k = 0; k < pieces; ++k)
            long_one.beams.push_back(Beam{static_cast<std::size_t>(k), static_cast<std::size_t>(k + 1), s, steel});
        const double w = s.area_mm2 * steel.kg_mm3 * 9.81; // N/mm
        const Answer hung = one(long_one, {"weight", {}, {0, 0, -9810}});
        CHECK(moved(hung, static_cast<std::size_t>(pieces), Dof::Z) ==
              exactly(-w * l * l * l * l / (8 * e * s.level_mm4) - w * l * l / (2 * g * s.shear_upright_mm2)));
        CHECK(hung.reactions[0][2] == exactly(w * l));
    }
}

TEST_CASE("an open section twists as Vlasov says: held at one end, at both, and stiffer the shorter it is", "[frame][beams]") {
    const Section s = sectionFrom({"channel", "100", "50", "4"});
    BeamSection b = beamSection(s, s.shear_centre); // pulled at its shear centre, so that it only twists
    const double gj = steel.g_mpa * b.torsion_mm4, k = std::sqrt(gj / (steel.e_mpa * b.warping_mm6));
    for (const double l : {50.0, 600.0, 3000.0, 30'000.0}) {
        Model m = cantilever(b, l);
        CHECK(moved(one(m, pull(1, Dof::AboutX, 1000)), 1, Dof::AboutX) ==
              Approx(1000 / gj * (l - std::tanh(k * l) / k)).epsilon(1e-6));
        m.nodes[1].held[static_cast<std::size_t>(Dof::Warp)] = true;
        const double half = k * l / 2;
        CHECK(moved(one(m, pull(1, Dof::AboutX, 1000)), 1, Dof::AboutX) ==
              Approx(1000 * l / gj * (1 - std::tanh(half) / half)).epsilon(1e-6));
        // free to warp at both ends: St Venant alone
        m.nodes[1].held[static_cast<std::size_t>(Dof::Warp)] = false;
        m.nodes[0].held[static_cast<std::size_t>(Dof::Warp)] = false;
        CHECK(moved(one(m, pull(1, Dof::AboutX, 1000)), 1, Dof::AboutX) == Approx(1000 * l / gj).epsilon(1e-6));
        // loose at its ends is the same
        m.nodes[0].held[static_cast<std::size_t>(Dof::Warp)] = true;
        m.beams[0].loose_from[static_cast<std::size_t>(Dof::Warp)] = true;
        CHECK(moved(one(m, pull(1, Dof::AboutX, 1000)), 1, Dof::AboutX) == Approx(1000 * l / gj).epsilon(1e-6));
    }
    // between ribs at both ends, each with a hold of its own on the warping: φ' = T / GJ (1 − A cosh kξ)
    for (const double hold : {1e6, 1e9, 1e11, 1e14}) {
        Model m = cantilever(b, 600);
        for (std::size_t n : {0, 1}) {
            m.nodes[n].held[static_cast<std::size_t>(Dof::Warp)] = false;
            m.nodes[n].spring[static_cast<std::size_t>(Dof::Warp)] = hold;
        }
        const double half_k = k * 300, ei = steel.e_mpa * b.warping_mm6;
        const double a = hold / (ei * k * std::sinh(half_k) + hold * std::cosh(half_k));
        CHECK(moved(one(m, pull(1, Dof::AboutX, 1000)), 1, Dof::AboutX) ==
              Approx(1000 / gj * (600 - 2 * a / k * std::sinh(half_k))).epsilon(1e-6));
    }
    // in a bay of 0.6 m one of 100 × 50 along its middle lines is some nine times as stiff held as free
    const Section wide = sectionFrom({"channel", "104", "52", "4"});
    const double half = std::sqrt(steel.g_mpa * wide.torsion_mm4 / (steel.e_mpa * wide.warping_mm6)) * 300;
    CHECK(1 / (1 - std::tanh(half) / half) == Approx(9).margin(0.5));
    // in pieces as in one
    Model pieces;
    for (int n = 0; n <= 10; ++n) pieces.nodes.push_back(n ? Node{{60.0 * n, 0, 0}, {}, {}} : fixed({0, 0, 0}));
    for (std::size_t n = 0; n < 10; ++n) pieces.beams.push_back(Beam{n, n + 1, b, steel});
    CHECK(moved(one(pieces, pull(10, Dof::AboutX, 1000)), 10, Dof::AboutX) ==
          Approx(1000 / gj * (600 - std::tanh(k * 600) / k)).epsilon(1e-6));
}

TEST_CASE("pulled beside its shear centre a channel twists, and by how much", "[frame][beams]") {
    const Section s = sectionFrom({"channel", "100", "50", "4"});
    const double l = 900;
    const Model at_centroid = cantilever(beamSection(s, s.centroid), l),
                at_centre = cantilever(beamSection(s, s.shear_centre), l);
    CHECK(moved(one(at_centre, pull(1, Dof::Z, 500)), 1, Dof::AboutX) == Approx(0).margin(1e-12));
    const double lever = s.centroid.y_mm - s.shear_centre.y_mm, gj = steel.g_mpa * s.torsion_mm4,
                 k = std::sqrt(gj / (steel.e_mpa * s.warping_mm6));
    CHECK(lever > 20);
    CHECK(moved(one(at_centroid, pull(1, Dof::Z, 500)), 1, Dof::AboutX) ==
          Approx(500 * lever / gj * (l - std::tanh(k * l) / k)).epsilon(1e-6));
    // an angle pulled up goes sideways, too
    const Section a = sectionFrom({"angle", "60", "60", "5"});
    const Model leg = cantilever(beamSection(a, a.shear_centre), l);
    const double det = a.level_mm4 * a.upright_mm4 - a.product_mm4 * a.product_mm4;
    const Answer up = one(leg, pull(1, Dof::Z, 100));
    // moments are about the centroid, the force goes through the shear centre: bending alone, on both axes
    const double bent = 100 * l * l * l / (3 * steel.e_mpa * det);
    CHECK(moved(up, 1, Dof::Z) == Approx(bent * a.upright_mm4).epsilon(0.02)); // and some shear
    CHECK(moved(up, 1, Dof::Y) == Approx(-bent * a.product_mm4).epsilon(0.02));
}

TEST_CASE("a portal, a bent arm and a ring's quarter", "[frame][beams]") {
    BeamSection s = box_100_60_4();
    s.shear_level_mm2 = s.shear_upright_mm2 = 0; // the books leave shear out, and what stretches
    s.area_mm2 *= 1e4;
    const double e = steel.e_mpa, h = 700, l = 1100, ei = e * s.level_mm4;
    // in the plane of x and z, pushed along x at its top
    Model portal;
    portal.nodes = {fixed({0, 0, 0}), Node{{0, 0, h}, {}, {}}, Node{{l, 0, h}, {}, {}}, fixed({l, 0, 0})};
    portal.beams = {Beam{0, 1, s, steel, {1, 0, 0}}, Beam{1, 2, s, steel}, Beam{2, 3, s, steel, {1, 0, 0}}};
    const double k = h / l; // equal sections
    CHECK(moved(one(portal, pull(1, Dof::X, 1000)), 1, Dof::X) ==
          Approx(1000 * h * h * h / (12 * ei) * (3 * k + 2) / (6 * k + 1)).epsilon(1e-5));
    s.area_mm2 /= 1e4; // what is pulled out of its plane does not stretch
    // an arm that turns by a right angle in the level plane, pulled up at its end: bends twice, and twists the first part
    Model arm;
    const double a = 600, b = 400;
    arm.nodes = {fixed({0, 0, 0}), Node{{a, 0, 0}, {}, {}}, Node{{a, b, 0}, {}, {}}};
    arm.beams = {Beam{0, 1, s, steel}, Beam{1, 2, s, steel}};
    CHECK(moved(one(arm, pull(2, Dof::Z, 1000)), 2, Dof::Z) ==
          Approx(1000 * (a * a * a / (3 * ei) + b * b * b / (3 * ei) + b * b * a / (steel.g_mpa * s.torsion_mm4))).epsilon(1e-6));
    // a quarter of a ring, pulled out of its plane at its end
    for (const auto& [pieces, within] : {std::pair{20, 0.01}, std::pair{80, 0.001}}) {
        Model ring;
        const double r = 500;
        for (int n = 0; n <= pieces; ++n) {
            const double t = pi / 2 * n / pieces;
            ring.nodes.push_back(n ? Node{{r * std::sin(t), r * (1 - std::cos(t)), 0}, {}, {}} : fixed({0, 0, 0}));
        }
        for (int n = 0; n < pieces; ++n)
            ring.beams.push_back(Beam{static_cast<std::size_t>(n), static_cast<std::size_t>(n + 1), s, steel});
        const auto end = static_cast<std::size_t>(pieces);
        CHECK(moved(one(ring, pull(end, Dof::Z, 1000)), end, Dof::Z) ==
              Approx(1000 * r * r * r * (pi / (4 * ei) + (3 * pi / 4 - 2) / (steel.g_mpa * s.torsion_mm4))).epsilon(within));
    }
}

TEST_CASE("loose ends, rigid arms and springs", "[frame][beams]") {
    BeamSection s = box_100_60_4();
    s.shear_level_mm2 = s.shear_upright_mm2 = 0;
    const double l = 1000, ei = steel.e_mpa * s.level_mm4;
    // on two hinges, pulled down in the middle: a fixed support whose beam end is loose about y
    Model m;
    m.nodes = {fixed({0, 0, 0}), Node{{l / 2, 0, 0}, {}, {}}, fixed({l, 0, 0})};
    m.beams = {Beam{0, 1, s, steel}, Beam{1, 2, s, steel}};
    CHECK(moved(one(m, pull(1, Dof::Z, -1000)), 1, Dof::Z) == exactly(-1000 * l * l * l / (192 * ei)));
    m.beams[0].loose_from[static_cast<std::size_t>(Dof::AboutY)] = m.beams[1].loose_to[static_cast<std::size_t>(Dof::AboutY)] =
        true;
    const Answer hinged = one(m, pull(1, Dof::Z, -1000));
    CHECK(moved(hinged, 1, Dof::Z) == exactly(-1000 * l * l * l / (48 * ei)));
    CHECK(hinged.reactions[0][4] == Approx(0).margin(1e-6));
    CHECK(hinged.forces[0][4] == Approx(0).margin(1e-6));
    // a rigid arm: the rest of the way alone bends
    Model armed = cantilever(s, l);
    armed.beams[0].arm_from = {300, 0, 0};
    CHECK(moved(one(armed, pull(1, Dof::Z, 1000)), 1, Dof::Z) == exactly(1000 * 700.0 * 700 * 700 / (3 * ei)));
    armed.beams[0].arm_from = {};
    armed.beams[0].arm_to = {-300, 0, 0};
    CHECK(moved(one(armed, pull(1, Dof::Z, 1000)), 1, Dof::Z) ==
          exactly(1000 * (700.0 * 700 * 700 / (3 * ei) + 300 * 700.0 * 700 / ei + 300.0 * 300 * 700 / ei)));
    // a cantilever's tip on a spring
    Model sprung = cantilever(s, l);
    const double stiff = 3 * ei / (l * l * l);
    sprung.nodes[1].spring[2] = stiff;
    const Answer on_spring = one(sprung, pull(1, Dof::Z, 1000));
    CHECK(moved(on_spring, 1, Dof::Z) == exactly(1000 / (2 * stiff)));
    CHECK(on_spring.reactions[1][2] == exactly(-500));
    CHECK(on_spring.reactions[0][2] == exactly(-500));
}

TEST_CASE("of any frame: the ground does what the loads do, to nothing; turned in space it moves the same", "[frame][beams]") {
    std::mt19937 dice(4);
    const auto real = [&](double from, double to) { return std::uniform_real_distribution<double>(from, to)(dice); };
    const Section channel_s = sectionFrom({"channel", "100", "50", "4"}), box_s = sectionFrom({"box", "80", "40", "3"});
    for (int n = 0; n < 40; ++n) {
        Model m;
        for (int k = 0; k < 8; ++k) m.nodes.push_back(Node{{real(0, 2000), real(-500, 500), real(0, 600)}, {}, {}});
        for (std::size_t k = 0; k < 8; ++k)
            for (std::size_t j = k + 1; j < 8; ++j)
                if (j == k + 1 || real(0, 1) < 0.25) {
                    Beam b{k, j, beamSection(real(0, 1) < 0.5 ? channel_s : box_s, {0, 0}), steel};
                    b.up = {real(-0.2, 0.2), real(-0.2, 0.2), 1};
                    b.arm_from = {real(-20, 20), real(-20, 20), real(-20, 20)};
                    m.beams.push_back(b);
                }
        m.nodes[0].held.fill(true);
        m.nodes[5].spring = {200, 300, 500, 0, 0, 0, 0};
        Load load{"some", {{3, {100, -200, 300, 1e4, -2e4, 3e4, 0}}, {7, {-50, 20, -400, 0, 0, 0, 0}}}, {0, 0, -9810}};
        const Answer a = one(m, load);
        double force[3]{}, moment[3]{}, mass = 0, size = 0;
        const auto act = [&](const Vec3& at, const std::array<double, dofs>& f) {
            const Vec3 x = geometry::cross(at, {f[0], f[1], f[2]});
            for (std::size_t k = 0; k < 3; ++k) {
                force[k] += f[k];
                moment[k] += x[k] + f[3 + k];
                size = std::max(size, std::abs(f[k]));
            }
        };
        for (std::size_t k = 0; k < 8; ++k) act(m.nodes[k].at, a.reactions[k]);
        for (const auto& [node, f] : load.at) act(m.nodes[node].at, f);
        for (const Beam& b : m.beams) {
            const Vec3 from = geometry::plus(m.nodes[b.from].at, b.arm_from), to = geometry::plus(m.nodes[b.to].at, b.arm_to);
            mass += b.section.area_mm2 * geometry::between(from, to) * steel.kg_mm3;
        }
        CHECK(std::abs(force[0]) < 1e-9 * size * 100);
        CHECK(std::abs(force[1]) < 1e-9 * size * 100);
        CHECK(std::abs(force[2] - mass * 9.81) < 1e-9 * size * 1000); // the weight, which is none of the nodes' loads
        // what does not weigh is in balance about every axis as well
        Load light = load;
        light.gravity = {};
        const Answer b = one(m, light);
        std::fill(std::begin(moment), std::end(moment), 0);
        for (std::size_t k = 0; k < 8; ++k) act(m.nodes[k].at, b.reactions[k]);
        for (const auto& [node, f] : light.at) act(m.nodes[node].at, f);
        for (const double v : moment) CHECK(std::abs(v) < 1e-9 * 1e7);
        // turned a quarter about z, loads and all
        Model turned = m;
        const auto quarter = [](const Vec3& v) { return Vec3{-v.y_mm, v.x_mm, v.z_mm}; };
        for (Node& node : turned.nodes) {
            node.at = quarter(node.at);
            std::swap(node.spring[0], node.spring[1]);
        }
        for (Beam& beam : turned.beams) {
            beam.up = quarter(beam.up);
            beam.arm_from = quarter(beam.arm_from);
        }
        Load quarter_load = light;
        for (auto& [node, f] : quarter_load.at) f = {-f[1], f[0], f[2], -f[4], f[3], f[5], 0};
        const Answer c = one(turned, quarter_load);
        CHECK(moved(c, 7, Dof::Z) == Approx(moved(b, 7, Dof::Z)).epsilon(1e-7).margin(1e-9));
        CHECK(moved(c, 7, Dof::X) == Approx(-moved(b, 7, Dof::Y)).epsilon(1e-7).margin(1e-9));
        CHECK(moved(c, 3, Dof::AboutZ) == Approx(moved(b, 3, Dof::AboutZ)).epsilon(1e-7).margin(1e-12));
    }
}

TEST_CASE("what nothing holds is named, and what is no beam", "[frame][beams]") {
    const BeamSection s = box_100_60_4();
    Model loose = cantilever(s, 500);
    loose.nodes[0].held.fill(false);
    const auto free = solve(loose, {pull(1, Dof::Z, 1)});
    REQUIRE_FALSE(free);
    CHECK(free.error().code == Error::Code::Conflict);
    CHECK(free.error().message.find("nothing holds it") != std::string::npos);
    // held but for a turn about its own axis
    Model spinning = cantilever(s, 500);
    spinning.nodes[0].held[static_cast<std::size_t>(Dof::AboutX)] = false;
    const auto spins = solve(spinning, {pull(1, Dof::Z, 1)});
    REQUIRE_FALSE(spins);
    CHECK(spins.error().message.find("about x") != std::string::npos);
    Model none = cantilever(s, 0);
    CHECK(solve(none, {pull(1, Dof::Z, 1)}).error().message.find("no length") != std::string::npos);
    Model along = cantilever(s, 500);
    along.beams[0].up = {1, 0, 0};
    CHECK(solve(along, {pull(1, Dof::Z, 1)}).error().message.find("lies along") != std::string::npos);
    Model empty = cantilever({}, 500);
    CHECK(solve(empty, {pull(1, Dof::Z, 1)}).error().message.find("no section") != std::string::npos);
    CHECK_FALSE(solve(cantilever(s, 500), {pull(9, Dof::Z, 1)}));
}

TEST_CASE("how beams swing: on two hinges, as a cantilever, free in the air, twisting", "[frame][modes]") {
    BeamSection s = box_100_60_4();
    s.shear_level_mm2 = s.shear_upright_mm2 = 0;
    const double l = 2000, m = s.area_mm2 * steel.kg_mm3 / 1000; // t/mm
    const auto line = [&](int pieces) {
        Model model;
        for (int k = 0; k <= pieces; ++k) model.nodes.push_back(Node{{l * k / pieces, 0, 0}, {}, {}});
        for (int k = 0; k < pieces; ++k)
            model.beams.push_back(Beam{static_cast<std::size_t>(k), static_cast<std::size_t>(k + 1), s, steel});
        return model;
    };
    const auto of = [&](double factor, double inertia) {
        return factor * factor / (2 * pi * l * l) * std::sqrt(steel.e_mpa * inertia / m);
    };
    const auto hz = [&](const Model& model, int count) {
        const auto found = modes(model, count);
        if (!found) FAIL(found.error().text());
        std::vector<double> list;
        for (const Mode& mode : *found) list.push_back(mode.hz);
        return list;
    };
    Model cant = line(20);
    cant.nodes[0].held.fill(true);
    const auto swings = hz(cant, 6);
    CHECK(swings[0] == Approx(of(1.8751, s.upright_mm4)).epsilon(0.002));
    CHECK(swings[1] == Approx(of(1.8751, s.level_mm4)).epsilon(0.002));
    CHECK(swings[2] == Approx(of(4.6941, s.upright_mm4)).epsilon(0.005));
    // twisting alone: a closed section held at one end
    Model twist = cant;
    for (Node& node : twist.nodes)
        for (const Dof d : {Dof::X, Dof::Y, Dof::Z, Dof::AboutY, Dof::AboutZ}) node.held[static_cast<std::size_t>(d)] = true;
    CHECK(hz(twist, 1)[0] ==
          Approx(std::sqrt(steel.g_mpa * s.torsion_mm4 / (steel.kg_mm3 / 1000 * (s.level_mm4 + s.upright_mm4))) / (4 * l))
              .epsilon(0.001));
    Model hinges = line(20);
    for (const std::size_t k : {std::size_t{0}, std::size_t{20}})
        for (const Dof d : {Dof::X, Dof::Y, Dof::Z, Dof::AboutX}) hinges.nodes[k].held[static_cast<std::size_t>(d)] = true;
    CHECK(hz(hinges, 2)[0] == Approx(of(pi, s.upright_mm4)).epsilon(0.001));
    CHECK(hz(hinges, 2)[1] == Approx(of(pi, s.level_mm4)).epsilon(0.001));
    // nothing holds it: six ways at 0 Hz, then it bends
    const auto in_the_air = hz(line(20), 8);
    for (std::size_t k = 0; k < 6; ++k) CHECK(in_the_air[k] < 0.05);
    CHECK(in_the_air[6] == Approx(of(4.7300, s.upright_mm4)).epsilon(0.003));
    // a weight at the tip of what weighs nothing itself
    Model heavy = line(1);
    heavy.nodes[0].held.fill(true);
    heavy.nodes[1].mass_kg = 500;
    const double tip = 3 * steel.e_mpa * s.upright_mm4 / (l * l * l);
    CHECK(hz(heavy, 1)[0] == Approx(std::sqrt(tip / (0.5 + 33.0 / 140 * m * l)) / (2 * pi)).epsilon(0.001));
    CHECK_FALSE(modes(heavy, 50));
    Model none = line(1);
    none.beams[0].section.area_mm2 = 0;
    CHECK_FALSE(modes(none, 1));
    // a twist that nothing resists and nothing weighs: said, not guessed
    Model loose = line(2);
    loose.nodes[0].held.fill(true);
    loose.beams[1].material.kg_mm3 = 0;
    loose.beams[1].loose_to[static_cast<std::size_t>(Dof::AboutX)] = true;
    const auto none_found = modes(loose, 1);
    REQUIRE_FALSE(none_found);
    CHECK(none_found.error().message == "How it swings can't be worked out.");
}

} // namespace frame_beams_test
