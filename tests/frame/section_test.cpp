// Sections of thin walls against closed forms, and against themselves: shear flow and warping know the same shear centre.
#include "frame/section.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <cmath>
#include <fstream>
#include <numbers>
#include <random>

namespace frame_section_test {

using namespace gorvet;
using namespace gorvet::frame;

namespace {

constexpr double pi = std::numbers::pi;

Section of(const Walls& w) {
    const auto s = sectionOf(w);
    REQUIRE(s);
    return *s;
}
/// A hundredth of a percent.
Approx exactly(double v) { return Approx(v).epsilon(1e-4); }

} // namespace

TEST_CASE("a channel: J, warping constant and shear centre by their closed forms", "[frame][section]") {
    for (const auto& [h_out, b_out, t] :
         {std::tuple{100.0, 50.0, 4.0}, std::tuple{120.0, 40.0, 3.0}, std::tuple{80.0, 70.0, 2.0}}) {
        const double h = h_out - t, b = b_out - t / 2; // of its middle line
        const Section s = of(channel(h_out, b_out, t, 0));
        CHECK(s.area_mm2 == exactly(t * (h + 2 * b)));
        CHECK(s.torsion_mm4 == exactly((h + 2 * b) * t * t * t / 3));
        CHECK(s.cells_mm4 == 0);
        CHECK_FALSE(s.closed());
        // of middle lines: e = 3 b² / (h + 6 b) behind the web, Cw = t b³ h² / 12 · (3 b + 2 h) / (6 b + h)
        CHECK(-b_out / 2 + t / 2 - s.shear_centre.y_mm == exactly(3 * b * b / (h + 6 * b)));
        CHECK(s.shear_centre.z_mm == Approx(0).margin(1e-9));
        CHECK(s.warping_mm6 == exactly(t * b * b * b * h * h / 12 * (3 * b + 2 * h) / (6 * b + h)));
        const double across = 2 * b * t * t * t / 12;
        CHECK(s.level_mm4 == exactly(t * h * h * h / 12 + 2 * b * t * h * h / 4 + across));
        CHECK(s.centroid.y_mm - (-b_out / 2 + t / 2) == exactly(b * b / (h + 2 * b)));
        CHECK(s.turned_rad == Approx(0).margin(1e-9));
    }
}

TEST_CASE("boxes and tubes: Bredt, and moments of a ring", "[frame][section]") {
    const double h = 96, b = 56, t = 4;
    const Section s = of(box(h + t, b + t, t, 0));
    CHECK(s.area_mm2 == exactly(100.0 * 60 - 92 * 52)); // sharp corners: as the solid
    CHECK(s.cells_mm4 == exactly(4 * h * h * b * b * t / (2 * (h + b))));
    CHECK(s.torsion_mm4 - s.cells_mm4 == exactly(2 * (h + b) * t * t * t / 3));
    CHECK(s.closed());
    CHECK(s.shear_centre.y_mm == Approx(0).margin(1e-9));
    CHECK(s.warping_mm6 == exactly(t * h * h * b * b * (h - b) * (h - b) / (24.0 * (h + b)))); // of a box of one thickness
    CHECK(of(box(60, 60, 3, 0)).warping_mm6 == Approx(0).margin(1));                           // a square one warps not at all
    // within what middle lines leave out of the solid's moments
    CHECK(s.level_mm4 == Approx((60.0 * 100 * 100 * 100 - 52.0 * 92 * 92 * 92) / 12).epsilon(0.002));
    CHECK(s.level_modulus_mm3 == Approx(s.level_mm4 / 50));
    const Section round = of(tube(48, 3));
    const double r = 22.5;
    CHECK(round.area_mm2 == exactly(2 * pi * r * 3));
    CHECK(round.level_mm4 == exactly(pi * r * r * r * 3 + pi * r * 27.0 / 12));
    CHECK(round.cells_mm4 == exactly(2 * pi * r * r * r * 3));
    CHECK(round.shear_upright_mm2 == exactly(round.area_mm2 / 2)); // a thin ring's form factor is 2
    CHECK(round.mass_kg_per_m == exactly(round.area_mm2 * 7.85e-3));
    // rounded corners: what a box of arcs has of area
    CHECK(of(box(100, 60, 4, 8)).area_mm2 == exactly(4 * (2 * (100 - 16) + 2 * (60 - 16) + 2 * pi * 6)));
}

TEST_CASE("shear areas by the energy of the flow, against integrals by hand", "[frame][section]") {
    const double h = 96, b = 56, t = 4;
    const Section s = of(box(h + t, b + t, t, 0));
    // statical moments: of half a flange t h s / 2, of a web t (b h / 4 + h² / 8 − z² / 2)
    const double alpha = b * h / 4 + h * h / 8, half = h / 2;
    const double webs = 4 * t * (alpha * alpha * half - alpha * std::pow(half, 3) / 3 + std::pow(half, 5) / 20);
    const double flanges = t * h * h * b * b * b / 24;
    const double level = t * h * h * h / 6 + t * b * h * h / 2; // of middle lines
    CHECK(s.shear_upright_mm2 == exactly(level * level / (webs + flanges)));
    CHECK(of(flat(60, 6)).shear_level_mm2 == exactly(300));
    CHECK(of(flat(60, 6)).shear_upright_mm2 == 0); // across itself a wall of no thickness carries nothing
    // turned by a right angle the two change places
    const Section lying = of(box(b + t, h + t, t, 0));
    CHECK(lying.shear_level_mm2 == exactly(s.shear_upright_mm2));
    CHECK(lying.shear_upright_mm2 == exactly(s.shear_level_mm2));
}

TEST_CASE("two cells side by side share their wall: Bredt and Batho by hand", "[frame][section]") {
    Walls w;
    const double a = 80, b = 60, c = 40, t = 3, middle = 2; // b wide, then c wide
    w.add({0, 0}, {b, 0}, t);
    w.add({b, 0}, {b + c, 0}, t);
    w.add({b + c, 0}, {b + c, a}, t);
    w.add({b + c, a}, {b, a}, t);
    w.add({b, a}, {0, a}, t);
    w.add({0, a}, {0, 0}, t);
    w.add({b, 0}, {b, a}, middle);
    const Section s = of(w);
    // q1, q2 for a twist of 1: δ11 q1 − δ12 q2 = 2 A1
    const double d11 = (2 * b + a) / t + a / middle, d22 = (2 * c + a) / t + a / middle, d12 = a / middle;
    const double a1 = a * b, a2 = a * c, det = d11 * d22 - d12 * d12;
    const double q1 = (2 * a1 * d22 + 2 * a2 * d12) / det, q2 = (2 * a2 * d11 + 2 * a1 * d12) / det;
    CHECK(s.cells_mm4 == exactly(2 * a1 * q1 + 2 * a2 * q2));
}

TEST_CASE("angles, plates and a hat", "[frame][section]") {
    const Section l = of(angle(60, 60, 4));
    // all walls of an angle meet in a point: there is its shear centre, and it warps not at all along its middle lines
    CHECK(l.shear_centre.y_mm == Approx(2).margin(1e-6));
    CHECK(l.shear_centre.z_mm == Approx(2).margin(1e-6));
    CHECK(l.warping_mm6 == Approx(0).margin(1));
    CHECK(std::abs(l.turned_rad) == exactly(pi / 4));
    CHECK(l.principal_mm4 == Approx(4 * l.lesser_mm4).epsilon(0.01)); // equal legs: 4 to 1
    const Section f = of(flat(60, 6));
    CHECK(f.upright_mm4 == exactly(6.0 * 60 * 60 * 60 / 12));
    CHECK(f.level_mm4 == exactly(60.0 * 6 * 6 * 6 / 12));
    CHECK(f.torsion_mm4 == exactly(60.0 * 6 * 6 * 6 / 3));
    CHECK(f.warping_mm6 == Approx(0).margin(1e-6));
    CHECK(f.turned_rad == exactly(pi / 2));
    // a hat's shear centre stands above its top, beyond the open side's opposite
    const Section hat_s = of(hat(60, 80, 20, 2));
    CHECK(hat_s.shear_centre.y_mm == Approx(0).margin(1e-9));
    CHECK(hat_s.shear_centre.z_mm > 58);
    CHECK_FALSE(hat_s.closed());
    CHECK(of(nested(100, 60, 3, 40)).closed());
    // a plate over a channel's open side: hundreds of times as stiff in torsion
    CHECK(of(boxed(100, 50, 4, 4, 0)).torsion_mm4 > 100 * of(channel(100, 50, 4, 0)).torsion_mm4);
    CHECK(of(boxed(100, 50, 4, 4, 0)).cells_mm4 == exactly(4 * 96 * 96 * 48.0 * 48 / (96 / 4.0 + 96 / 4.0 + 2 * 48 / 4.0)));
}

TEST_CASE("whatever the walls: nothing depends on where the section stands or how it is turned", "[frame][section]") {
    std::mt19937 dice(8);
    const auto real = [&](double from, double to) { return std::uniform_real_distribution<double>(from, to)(dice); };
    for (int n = 0; n < 60; ++n) {
        // a tree of walls with some cells closed
        Walls w;
        w.at.push_back({0, 0});
        for (int k = 0; k < 7; ++k) {
            const std::size_t from = static_cast<std::size_t>(real(0, static_cast<double>(w.at.size()) - 1e-9));
            w.add(w.at[from], {w.at[from].y_mm + real(-60, 60), w.at[from].z_mm + real(-60, 60)}, real(1, 5));
        }
        const int cells = n % 3;
        for (int k = 0; k < cells; ++k)
            w.add(w.at[static_cast<std::size_t>(k)], w.at[w.at.size() - 1 - static_cast<std::size_t>(k)], real(1, 5));
        const Section s = of(w);
        const double turn = real(-3, 3), dy = real(-500, 500), dz = real(-500, 500);
        Walls moved = w;
        for (At& p : moved.at)
            p = {dy + p.y_mm * std::cos(turn) - p.z_mm * std::sin(turn), dz + p.y_mm * std::sin(turn) + p.z_mm * std::cos(turn)};
        const Section m = of(moved);
        CHECK(m.area_mm2 == Approx(s.area_mm2));
        CHECK(m.torsion_mm4 == Approx(s.torsion_mm4));
        CHECK(m.warping_mm6 == Approx(s.warping_mm6).epsilon(1e-6));
        CHECK(m.principal_mm4 == Approx(s.principal_mm4));
        CHECK(m.lesser_mm4 == Approx(s.lesser_mm4));
        CHECK(m.shear_centre.y_mm ==
              Approx(dy + s.shear_centre.y_mm * std::cos(turn) - s.shear_centre.z_mm * std::sin(turn)).margin(1e-4));
        CHECK(m.shear_centre.z_mm ==
              Approx(dz + s.shear_centre.y_mm * std::sin(turn) + s.shear_centre.z_mm * std::cos(turn)).margin(1e-4));
        CHECK(s.principal_mm4 * s.lesser_mm4 == Approx(s.level_mm4 * s.upright_mm4 - s.product_mm4 * s.product_mm4));
        // turned by its angle a section has no product
        Walls straight = w;
        for (At& p : straight.at)
            p = {p.y_mm * std::cos(-s.turned_rad) - p.z_mm * std::sin(-s.turned_rad),
                 p.y_mm * std::sin(-s.turned_rad) + p.z_mm * std::cos(-s.turned_rad)};
        CHECK(of(straight).product_mm4 == Approx(0).margin(1e-6 * s.principal_mm4));
        CHECK(of(straight).level_mm4 == Approx(s.principal_mm4));
    }
}

TEST_CASE("a windowed plate shears no stiffer than its finite elements, and not much softer", "[frame][section][windows]") {
    std::ifstream in(std::string(GORVET_SOURCE_DIR) + "/tests/frame/windows/windows.json");
    REQUIRE(in.good());
    double nearest = 0, farthest = 1;
    const auto cases = nlohmann::json::parse(in);
    REQUIRE(cases.size() > 10);
    for (const auto& c : cases) {
        const Windows w{c[1], c[2], c[3]};
        const double share = windowedShear_mm(c[0], 1, w) / c[4].get<double>();
        INFO("height " << c[0] << ", window " << c[1] << " by " << c[2] << ", one every " << c[3]);
        CHECK(share < 1);
        CHECK(share > 0.7);
        nearest = std::max(nearest, share);
        farthest = std::min(farthest, share);
        CHECK(windowedShear_mm(c[0], 4, w) == Approx(4 * windowedShear_mm(c[0], 1, w))); // as its thickness
        // a larger window or a closer one is never stiffer
        CHECK(windowedShear_mm(c[0], 1, {w.long_mm * 1.05, w.high_mm, w.pitch_mm}) < windowedShear_mm(c[0], 1, w));
        CHECK(windowedShear_mm(c[0], 1, {w.long_mm, w.high_mm * 1.05, w.pitch_mm}) < windowedShear_mm(c[0], 1, w));
        CHECK(windowedShear_mm(c[0], 1, {w.long_mm, w.high_mm, w.pitch_mm * 1.3}) > windowedShear_mm(c[0], 1, w));
    }
    CHECK(nearest > 0.95); // and the bound is used
    CHECK(windowedShear_mm(96, 3, {}) == 3);
    CHECK(windowedShear_mm(96, 3, {1, 1, 400}) == Approx(3).epsilon(0.04));
    // a strip as a beam with both ends held: half the shear, half its length, over t c² / 6; a post the same
    CHECK(windowedBends_per_mm(96, 3, {60, 56, 100}) ==
          Approx(std::max((96.0 / 2) * 30 / (3 * 20.0 * 20 / 6), 100.0 * 28 / (3 * 40.0 * 40 / 6))));
    CHECK(windowedBends_per_mm(96, 3, {60, 20, 70}) == Approx(70.0 * 10 / (3 * 10.0 * 10 / 6))); // here the post
}

TEST_CASE("a rail with a windowed plate: Bredt with what the plate shears as, its strips' area, and what they bend by",
          "[frame][section][windows]") {
    const Windows w{60, 50, 100};
    const double h = 96, b = 46, t = 4, plate = 3, flange = b + t / 2; // of the middle lines: web to tip
    const Section open = of(channel(100, 50, t, 0)), whole = of(boxed(100, 50, t, plate, 0)),
                  some = of(windowed(100, 50, t, plate, w, 0));
    const double shears = windowedShear_mm(h, plate, w);
    CHECK(some.cells_mm4 == exactly(4 * h * h * flange * flange / (h / t + 2 * flange / t + h / shears)));
    CHECK(some.area_mm2 == exactly(open.area_mm2 + (h - w.high_mm) * plate));
    CHECK(some.torsion_mm4 > 10 * open.torsion_mm4);
    CHECK(some.torsion_mm4 < whole.torsion_mm4);
    CHECK(some.upright_mm4 > open.upright_mm4);
    CHECK(some.upright_mm4 < whole.upright_mm4);
    CHECK(some.shear_upright_mm2 < whole.shear_upright_mm2);
    CHECK(some.shear_upright_mm2 > open.shear_upright_mm2 * 0.99);
    CHECK(whole.window_twist == 0);
    // by twist alone: the cell's flow T / 2A of its share, times what the plate bends by
    CHECK(some.window_twist == exactly(some.cells_mm4 / some.torsion_mm4 / (2 * h * flange) * windowedBends_per_mm(h, plate, w)));
    CHECK(some.window_upright > 0);
    // windows of nothing are a whole plate
    const Section nothing = of(windowed(100, 50, t, plate, {1, 1, 1000}, 0));
    CHECK(nothing.torsion_mm4 == Approx(whole.torsion_mm4).epsilon(0.04));
    CHECK(nothing.level_mm4 == Approx(whole.level_mm4).epsilon(0.001));
}

TEST_CASE("what is no section says why", "[frame][section]") {
    CHECK_FALSE(sectionOf({}));
    Walls apart;
    apart.add({0, 0}, {10, 0}, 2);
    apart.add({20, 0}, {30, 0}, 2);
    CHECK(sectionOf(apart).error().message.find("hang together") != std::string::npos);
    Walls thin;
    thin.add({0, 0}, {10, 0}, 0);
    CHECK(sectionOf(thin).error().message.find("thickness") != std::string::npos);
    for (const std::vector<std::string>& words : {std::vector<std::string>{},
                                                  {"prism"},
                                                  {"box"},
                                                  {"box", "100", "60"},
                                                  {"box", "100", "60", "40"},
                                                  {"box", "100", "x", "4"},
                                                  {"box", "100", "-60", "4"},
                                                  {"tube", "48", "30"},
                                                  {"flat", "60"},
                                                  {"boxed", "100", "50", "4", "0"},
                                                  {"windowed", "100", "50", "4", "3", "60", "97", "100"},
                                                  {"windowed", "100", "50", "4", "3", "100", "50", "100"},
                                                  {"windowed", "100", "50", "4", "3"},
                                                  {"box", "100", "60", "4", "8", "9"}}) {
        const auto w = wallsFrom(words);
        CHECK_FALSE(w);
        if (!w) CHECK_FALSE(w.error().remedy.empty());
    }
    // every shape that is listed can be made
    for (const auto& [name, figures] : shapes()) {
        INFO(name);
        const auto w = name == "tube" || name == "flat" ? wallsFrom({name, "60", "4"})
                       : name == "angle"                ? wallsFrom({name, "60", "50", "4"})
                       : name == "hat"                  ? wallsFrom({name, "60", "50", "20", "4"})
                       : name == "windowed"             ? wallsFrom({name, "60", "50", "4", "5", "30", "30", "60"})
                                                        : wallsFrom({name, "60", "50", "4", "5"});
        REQUIRE(w);
        CHECK(sectionOf(*w));
    }
    CHECK(wallsFrom({"box", "100", "60", "4"}));
    CHECK(wallsFrom({"box", "100", "60", "4", "8"}));
}

} // namespace frame_section_test
