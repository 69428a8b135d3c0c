// A frame as it carries, against statics, closed forms and the ladder that is made otherwise.
#include "frame/forces_sheet.hpp"
#include "frame/ladder.hpp"
#include "frame/plates.hpp"
#include "frame/stress.hpp"
#include "frame/structure.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

namespace frame_structure_test {

using namespace gorvet;
using namespace gorvet::frame;

namespace {

constexpr double g = 9.81;

Profile box(double h, double w, double t) { return {"box", {h, w, t}, {}, false, 0}; }
Profile channel(double h, double w, double t, bool mirrored = false) { return {"channel", {h, w, t}, {}, mirrored, 0}; }

Line rail(const char* name, double y, const Profile& p, double from = -400, double to = 3000) {
    Line l;
    l.name = name;
    l.points = {{from, y, 400}, {to, y, 400}};
    l.pieces = {{to - from, p, 210}};
    l.rail = true;
    return l;
}
Line bridge(const char* name, double x, const Profile& p, double half = 450) {
    Line l;
    l.name = name;
    l.points = {{x, -half, 400}, {x, half, 400}};
    l.pieces = {{2 * half, p, 210}};
    return l;
}
/// Rails 900 apart, springs at 0 and 2600 on them, the ground 400 under them.
Structure ladder(const Profile& left, const Profile& right, const std::vector<double>& bridges, const Profile& bar) {
    Structure s;
    s.lines = {rail("left", -450, left), rail("right", 450, right)};
    for (const double x : bridges) s.lines.push_back(bridge("bridge", x, bar));
    s.seats = {Seat{{0, -450, 400}, 0, 30}, Seat{{0, 450, 400}, 0, 30}, Seat{{2600, -450, 400}, 0, 30},
               Seat{{2600, 450, 400}, 0, 30}};
    return s;
}
Structure boxes() { return ladder(box(100, 60, 4), box(100, 60, 4), {-300, 900, 1700, 2900}, box(60, 60, 3)); }

double sum(const std::array<double, wheels>& a) { return a[0] + a[1] + a[2] + a[3]; }

} // namespace

TEST_CASE("stresses of a section are those of the textbook", "[frame][structure]") {
    const Walls walls = *wallsOf(box(100, 60, 4));
    const Section s = *sectionOf(walls);
    const Stresses of(walls, s);
    Forces f;
    f.about_y = 1e6;
    CHECK(std::abs(of.of(f).along) == Approx(1e6 / s.level_modulus_mm3).epsilon(1e-6));
    CHECK(of.of(f).shear == Approx(0).margin(1e-9));
    f = {};
    f.about_z = -2e6;
    CHECK(std::abs(of.of(f).along) == Approx(2e6 / s.upright_modulus_mm3).epsilon(1e-6));
    f = {};
    f.axial = 5000;
    f.about_y = 1e6;
    f.about_z = 1e6; // at a corner all three meet
    CHECK(of.of(f).along == Approx(5000 / s.area_mm2 + 1e6 / s.level_modulus_mm3 + 1e6 / s.upright_modulus_mm3).epsilon(1e-6));
    f = {};
    f.twist = 1e6; // Bredt's T / (2 A t), and what the wall's own thickness takes
    const double bredt = 1e6 / (2 * 96 * 56 * 4);
    CHECK(of.of(f).shear > bredt * 0.995);
    CHECK(of.of(f).shear < bredt * 1.12);
    CHECK(of.of(f).mises == Approx(std::sqrt(3.0) * of.of(f).shear));
}

TEST_CASE("an open section's stresses: St Venant over the wall, bimoment at its tips, the force beside the shear centre",
          "[frame][structure]") {
    const Walls walls = *wallsOf(channel(100, 50, 4));
    const Section s = *sectionOf(walls);
    const Stresses of(walls, s);
    Forces f;
    f.twist = 1e5;
    CHECK(of.of(f).shear == Approx(1e5 * 4 / s.torsion_mm4).epsilon(1e-6)); // T t / J
    f.warping_twist = 1e5;                                                  // all of it by warping: nothing is left for St Venant
    CHECK(of.of(f).shear == Approx(0).margin(1e-6));
    f = {};
    f.bimoment = 1e8;
    double most = 0;
    for (const double w : s.warping_mm2) most = std::max(most, std::abs(w));
    CHECK(std::abs(of.of(f).along) == Approx(1e8 * most / s.warping_mm6).epsilon(1e-9));
    f = {};
    f.along_z = 1000; // through the centroid, beside the shear centre: it twists
    f.twist = 0;
    const double lever = std::abs(s.shear_centre.y_mm - s.centroid.y_mm);
    CHECK(of.of(f).shear == Approx(1000 * lever * 4 / s.torsion_mm4 + 1.25 * 1000 / s.shear_upright_mm2).epsilon(1e-6));
}

TEST_CASE("twisted it is the ladder that is made otherwise", "[frame][structure]") {
    for (const bool open : {false, true}) {
        const Profile p = open ? channel(100, 60, 4) : box(100, 60, 4);
        Profile other = p;
        other.mirrored = true;
        const std::vector<double> at{-300, 900, 1700, 2900};
        const Structure s = ladder(p, other, at, box(60, 60, 3));
        Ladder l;
        l.left = {{-400, -450, 400}, {3000, -450, 400}};
        l.right = {{-400, 450, 400}, {3000, 450, 400}};
        l.rail = *sectionOf(*wallsOf(p));
        for (const double x : at) l.bridges.push_back({"b", x, *sectionOf(*wallsOf(box(60, 60, 3))), 0});
        l.front_axle_mm = 0;
        l.rear_axle_mm = 2600;
        const auto ours = frame::twistOf(s);
        const auto theirs = frame::twistOf(l);
        REQUIRE(ours);
        REQUIRE(theirs);
        CHECK(ours->free_nm_deg == Approx(theirs->free_nm_per_deg).epsilon(2e-3)); // divided otherwise
        CHECK(ours->held_nm_deg == Approx(theirs->held_nm_per_deg).epsilon(2e-3));
        CHECK((ours->held_nm_deg > 1.02 * ours->free_nm_deg) == open);
    }
}

TEST_CASE("a spine alone twists as the bar it is", "[frame][structure]") {
    Structure s = boxes();
    Line spine = rail("spine", 0, box(180, 140, 2));
    s.lines = {spine};
    const auto t = frame::twistOf(s);
    REQUIRE(t);
    const Section one = *sectionOf(*wallsOf(box(180, 140, 2)));
    const double bar = Material{}.g_mpa * one.torsion_mm4 / 2600 / 1000 * std::numbers::pi / 180;
    CHECK(t->free_nm_deg == Approx(bar).epsilon(0.002));
    CHECK(t->held_nm_deg == Approx(bar).epsilon(0.002));
}

TEST_CASE("what the seats carry is statics", "[frame][structure]") {
    Structure s = boxes();
    s.hung = {{"engine", 200, {300, 100, 700}, 300}, {"body", 400, {1600, -20, 900}, 1500}};
    s.cases = {{"rest", 1, 0, 0, {}, false},
               {"braking", 1, 0.8, 0, {}, false},
               {"bend", 1, 0, 0.7, {}, false},
               {"bump", 3, 0, 0, {}, false}};
    const auto a = analyse(s);
    REQUIRE(a);
    REQUIRE(a->cases.size() == 4);
    const double weight = a->all_kg * g;
    CHECK(a->all_kg == Approx(600 + a->mass_kg));
    const auto& rest = a->cases[0].carry_n;
    CHECK(sum(rest) == Approx(weight).epsilon(1e-9));
    CHECK(rest[2] + rest[3] == Approx(weight * a->centre_mm / 2600).epsilon(1e-6));
    const double aside = (200 * 100 - 400 * 20) * g; // more on the right, by the moment about the middle
    CHECK((rest[1] + rest[3] - rest[0] - rest[2]) * 450 == Approx(aside).epsilon(1e-6));
    const auto& braked = a->cases[1].carry_n; // m a h / L
    CHECK(sum(braked) == Approx(weight).epsilon(1e-9));
    CHECK(braked[0] + braked[1] - rest[0] - rest[1] == Approx(0.8 * weight * a->centre_up_mm / 2600).epsilon(1e-6));
    const auto& bend = a->cases[2].carry_n; // about the height of the springs' seats
    CHECK((bend[1] + bend[3] - bend[0] - bend[2] - (rest[1] + rest[3] - rest[0] - rest[2])) * 450 ==
          Approx(0.7 * weight * (a->centre_up_mm - 400)).epsilon(1e-6));
    CHECK(sum(a->cases[3].carry_n) == Approx(3 * weight).epsilon(1e-9));
    CHECK(a->cases[3].stress_mpa == Approx(3 * a->cases[0].stress_mpa).epsilon(1e-6));
    for (const OfCase& c : a->cases) CHECK(c.unbalanced < 1e-9);
}

TEST_CASE("a wheel in the air: the lighter end's, and what would tip is not asked", "[frame][structure]") {
    Structure s = boxes();
    s.hung = {{"engine", 300, {200, 0, 700}, 300}};
    s.cases = {{"lifted", 1, 0, 0, {}, true}, {"front", 1, 0, 0, 0, false}};
    const auto a = analyse(s);
    REQUIRE(a);
    CHECK(a->cases[0].lifted == 2); // the weight is in front: a rear wheel can leave the ground
    CHECK_FALSE(a->cases[0].tips);
    CHECK(a->cases[0].carry_n[2] == Approx(0).margin(1e-6));
    CHECK(sum(a->cases[0].carry_n) == Approx(a->all_kg * g).epsilon(1e-9));
    CHECK(a->cases[1].tips);
    CHECK(a->cases[1].stress_mpa == 0);
}

TEST_CASE("an even load over the wheelbase bends the middle by w l² / 8", "[frame][structure]") {
    Structure s = ladder(box(100, 60, 4), box(100, 60, 4), {0, 2600}, box(60, 60, 3));
    s.lines[0] = rail("left", -450, box(100, 60, 4), 0, 2600);
    s.lines[1] = rail("right", 450, box(100, 60, 4), 0, 2600);
    s.material.kg_mm3 = 0;
    s.pitch_mm = 50;
    s.hung = {{"body", 500, {1300, 0, 400}, 2600}};
    s.cases = {{"rest", 1, 0, 0, {}, false}};
    const auto a = analyse(s);
    REQUIRE(a);
    const AtPlace* middle = nullptr;
    for (const AtPlace& p : a->lines[0].places)
        if (std::abs(p.at.x_mm - 1300) < 1) middle = &p;
    REQUIRE(middle);
    const double half = 500 * g / 2;                                               // on one rail
    CHECK(std::abs(middle->upright_nmm) == Approx(half * 2600 / 8).epsilon(0.03)); // as many point loads
    const Section one = *sectionOf(*wallsOf(box(100, 60, 4)));
    CHECK(middle->range_mpa == Approx(2 * std::abs(middle->upright_nmm) / one.level_modulus_mm3).epsilon(0.01));
    CHECK(middle->stress_mpa == Approx(std::abs(middle->upright_nmm) / one.level_modulus_mm3).epsilon(0.02));
    CHECK(middle->margin() == Approx(210 / 1.5 / middle->stress_mpa));
    // 5 w l⁴ / 384 E I and what shear adds, under the seats
    const double bent = 5 * half * std::pow(2600, 3) / (384 * 205'000 * one.level_mm4);
    CHECK(a->cases[0].sinks_mm > bent);
    CHECK(a->cases[0].sinks_mm < 1.06 * bent);
    CHECK(std::abs(a->cases[0].sinks_at.x_mm - 1300) < 60);
}

TEST_CASE("legs that cross stiffen, a member that meets nothing is named", "[frame][structure]") {
    Structure s = boxes();
    const auto plain = frame::twistOf(s);
    Line leg;
    leg.pieces = {{1e5, box(80, 40, 3), 210}};
    leg.name = "leg";
    leg.points = {{900, -450, 400}, {1700, 450, 400}};
    s.lines.push_back(leg);
    leg.points = {{900, 450, 400}, {1700, -450, 400}};
    s.lines.push_back(leg);
    const auto crossed = frame::twistOf(s);
    REQUIRE(plain);
    REQUIRE(crossed);
    CHECK(crossed->free_nm_deg > 1.2 * plain->free_nm_deg);
    leg.name = "lost";
    leg.points = {{900, 0, 1200}, {1700, 0, 1200}};
    s.lines.push_back(leg);
    const auto a = analyse(s);
    REQUIRE(a);
    CHECK(a->loose == std::vector<std::string>{"lost"});
    CHECK(a->twist.free_nm_deg == Approx(crossed->free_nm_deg).epsilon(1e-9));
}

TEST_CASE("bolts that turn make the free figure less, never the held one", "[frame][structure]") {
    Structure s = boxes();
    const auto welded = frame::twistOf(s);
    for (Line& l : s.lines) l.bolted = !l.rail;
    const auto bolted = frame::twistOf(s);
    REQUIRE(welded);
    REQUIRE(bolted);
    CHECK(bolted->free_nm_deg < welded->free_nm_deg);
    CHECK(bolted->held_nm_deg == Approx(welded->held_nm_deg).epsilon(1e-9));
}

TEST_CASE("a body on its mounts helps, by no more than it has", "[frame][structure]") {
    Structure s = boxes();
    s.body_nm_deg = 3000;
    for (const double x : {0.0, 1300.0, 2600.0})
        for (const double y : {-450.0, 450.0}) s.mounts.push_back({x, y, 450});
    const auto a = analyse(s);
    REQUIRE(a);
    REQUIRE(a->with_body);
    CHECK(a->with_body->free_nm_deg > a->twist.free_nm_deg + 1000);
    CHECK(a->with_body->free_nm_deg < a->twist.free_nm_deg + 3000);
    s.mount_rate = 20; // soft ones let it be
    const auto soft = analyse(s);
    REQUIRE(soft);
    CHECK(soft->with_body->free_nm_deg < a->with_body->free_nm_deg);
}

TEST_CASE("random frames: in balance, never stiffer for less steel", "[frame][structure]") {
    std::mt19937 random(19);
    const auto from = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(random); };
    for (int k = 0; k < 25; ++k) {
        const bool open = k % 2;
        const double h = from(70, 140), w = from(40, 70), t = from(2, 5);
        const Profile p = open ? channel(h, w, t) : box(h, w, t);
        Profile other = p;
        other.mirrored = true;
        Structure s =
            ladder(p, other, {-300, from(300, 1000), from(1200, 2000), 2850}, k % 3 ? box(50, 50, 3) : channel(80, 40, 3));
        s.hung = {{"a", from(50, 300), {from(-300, 600), from(-50, 50), from(400, 900)}, from(0, 500)},
                  {"b", from(50, 500), {from(800, 2400), from(-50, 50), from(400, 900)}, from(0, 1500)}};
        s.cases = {{"rest", 1, 0, 0, {}, false},
                   {"braking", 1, 1, 0, {}, false},
                   {"cornering", 1, 0, 1, {}, false},
                   {"lifted", 1, 0, 0, {}, true}};
        const auto a = analyse(s);
        REQUIRE(a);
        for (const OfCase& c : a->cases) {
            CHECK(c.unbalanced < 1e-8);
            if (!c.tips) CHECK(sum(c.carry_n) == Approx(a->all_kg * g).epsilon(1e-7));
        }
        CHECK(a->twist.held_nm_deg >= a->twist.free_nm_deg * (1 - 1e-9));
        Structure less = s;
        less.lines.erase(less.lines.begin() + 3);
        const auto weaker = frame::twistOf(less);
        REQUIRE(weaker);
        CHECK(weaker->free_nm_deg <= a->twist.free_nm_deg * (1 + 1e-9));
    }
}

TEST_CASE("the bare frame swings: bending as a free beam of its own mass, torsion apart", "[frame][structure]") {
    const auto a = analyse(boxes());
    REQUIRE(a);
    REQUIRE(a->bending_hz);
    REQUIRE(a->torsion_hz);
    const Section one = *sectionOf(*wallsOf(box(100, 60, 4)));
    const double m = a->mass_kg / 2 / 3400; // t/mm as kg/mm: of one rail and its share of bridges
    const double free_beam =
        22.373 / (2 * std::numbers::pi) * std::sqrt(205'000 * one.level_mm4 * 1000 / (m * std::pow(3400, 4)));
    CHECK(*a->bending_hz == Approx(free_beam).epsilon(0.12)); // bridges are no even mass, and it shears
    CHECK(*a->torsion_hz < *a->bending_hz);
}

TEST_CASE("a leaf spring hands its axle's load to both hangers by its lever, and stiffens no rail", "[frame][structure]") {
    Structure s = boxes();
    s.hung = {{"body", 400, {1300, 0, 400}, 600}};
    s.cases = {{"rest", 1, 0, 0, {}, false}};
    const auto at_axles = analyse(s);
    for (std::size_t k = 2; k < wheels; ++k) {
        Vec3 a = s.seats[k].at, b = a;
        a.x_mm = 2200; // 400 ahead of the axle, 200 behind it
        b.x_mm = 2800;
        s.seats[k].hangers = {a, b};
    }
    const auto a = analyse(s);
    REQUIRE(at_axles);
    REQUIRE(a);
    CHECK(a->cases[0].unbalanced < 1e-9);
    for (std::size_t k = 0; k < wheels; ++k) CHECK(a->cases[0].carry_n[k] == Approx(at_axles->cases[0].carry_n[k]).epsilon(1e-6));
    // at the front hanger a third of the axle's load comes in: the shear of the rail steps by it
    std::vector<double> shear;
    for (const AtPlace& p : a->lines[0].places)
        if (p.at.x_mm > 2000 && p.at.x_mm < 2790) shear.push_back(p.shear_n);
    const double step = *std::max_element(shear.begin(), shear.end()) - *std::min_element(shear.begin(), shear.end());
    CHECK(step == Approx(a->cases[0].carry_n[2] / 3).epsilon(0.05)); // and the rail's own weight
    // hinged at its ends it takes no part in twist beyond its shifted seats
    CHECK(a->twist.free_nm_deg == Approx(at_axles->twist.free_nm_deg).epsilon(0.25));
    CHECK(a->cases[0].stress_mpa < at_axles->cases[0].stress_mpa * 1.2);
}

TEST_CASE("where open walls meet closed ones the held figure is never the lesser", "[frame][structure]") {
    Profile right = channel(100, 60, 4, true);
    Structure s = ladder(channel(100, 60, 4), right, {-300, 900, 1700, 2900}, box(60, 60, 3));
    const auto open = frame::twistOf(s);
    for (std::size_t l = 0; l < 2; ++l) {
        const Profile o = s.lines[l].pieces[0].section, closed{"boxed", {100, 60, 4, 4}, {}, o.mirrored, 0};
        s.lines[l].pieces = {{1000, o, 210}, {1600, closed, 210}, {3400, o, 210}};
    }
    const auto part = frame::twistOf(s);
    REQUIRE(open);
    REQUIRE(part);
    CHECK(part->free_nm_deg > open->free_nm_deg);
    CHECK(part->held_nm_deg > open->held_nm_deg);
    CHECK(part->held_nm_deg >= part->free_nm_deg);
}

TEST_CASE("what goes through a rail between two places lies between theirs", "[frame][structure]") {
    Structure s = boxes();
    s.hung = {{"body", 500, {1300, 0, 400}, 2600}};
    s.cases = {{"rest", 1, 0, 0, {}, false}};
    const auto a = analyse(s);
    REQUIRE(a);
    const OfLine& rail = a->lines[0];
    const Through most = mostThrough(rail);
    const auto middle = throughAt(rail, 1300), quarter = throughAt(rail, 650);
    REQUIRE(middle);
    REQUIRE(quarter);
    CHECK(middle->bends_nm <= most.bends_nm);
    CHECK(middle->bends_nm > quarter->bends_nm); // it hangs between its axles
    CHECK(quarter->shear_n > middle->shear_n);
    CHECK_FALSE(throughAt(rail, -500));
    CHECK_FALSE(throughAt(rail, 3100));
    for (const AtPlace& p : rail.places) CHECK(throughAt(rail, p.at.x_mm)->bends_nm == Approx(std::abs(p.upright_nmm) / 1000));
}

TEST_CASE("a plate that closes a rail: its points, its holes, and short ones", "[frame][plates]") {
    const ClosingPlate p = closingPlate("shut", 1050, 120, 4, 2);
    CHECK(p.height_mm == 114); // a weld's leg from both faces
    CHECK(p.point_mm == 57);
    REQUIRE(p.holes_mm.size() == 3);
    CHECK(p.holes_mm.front() == Approx(87));
    CHECK(p.holes_mm.back() == Approx(1050 - 87));
    for (std::size_t k = 1; k < p.holes_mm.size(); ++k) CHECK(p.holes_mm[k] - p.holes_mm[k - 1] <= 500);
    const sheet::Drawing d = platePattern(p);
    CHECK(d.width == 1050);
    CHECK(d.items.size() == 4);
    const auto* outline = std::get_if<sheet::Stroke>(&d.items.front().shape);
    REQUIRE(outline);
    CHECK(outline->closed);
    double area = 0; // by its corners: the rectangle less four triangles
    for (std::size_t k = 0; k < outline->path.size(); ++k) {
        const auto &a = outline->path[k], &b = outline->path[(k + 1) % outline->path.size()];
        area += (a.x * b.y - b.x * a.y) / 2;
    }
    CHECK(std::abs(area) == Approx(1050 * 114 - 2 * 57 * 114 / 2.0));
    const ClosingPlate stub = closingPlate("stub", 100, 120, 4, 1);
    CHECK(stub.point_mm == 25);
    CHECK(stub.holes_mm == std::vector<double>{50});
}

TEST_CASE("windows in a plate: as many as leave its ends whole, water's holes on the posts", "[frame][plates]") {
    const ClosingPlate p = closingPlate("shut", 1600, 120, 4, 2, {72, 55, 120});
    REQUIRE(p.windows_mm.size() > 5);
    const double first = p.point_mm + 30, last = 1600 - p.point_mm - 30;
    CHECK(p.windows_mm.front() - 36 >= first);
    CHECK(p.windows_mm.back() + 36 <= last);
    CHECK(p.windows_mm.front() - 36 - first < 120);                    // one more would not fit
    CHECK(p.windows_mm.front() + p.windows_mm.back() == Approx(1600)); // in the middle
    for (std::size_t k = 1; k < p.windows_mm.size(); ++k) CHECK(p.windows_mm[k] - p.windows_mm[k - 1] == Approx(120));
    for (std::size_t k = 1; k + 1 < p.holes_mm.size(); ++k)
        for (const double x : p.windows_mm) CHECK(std::abs(x - p.holes_mm[k]) >= 36 + p.hole_mm / 2);
    const sheet::Drawing d = platePattern(p);
    CHECK(d.items.size() == 1 + p.holes_mm.size() + p.windows_mm.size());
    for (const auto& item : d.items)
        if (item.tag == "window") {
            const auto* shape = std::get_if<sheet::Stroke>(&item.shape);
            REQUIRE(shape);
            CHECK(shape->closed);
            for (const auto& at : shape->path) {
                CHECK(at.y > 0);
                CHECK(at.y < p.height_mm);
            }
        }
    CHECK(closingPlate("short", 200, 120, 4, 1, {72, 55, 120}).windows_mm.empty()); // no room: whole
    CHECK(closingPlate("low", 1600, 60, 4, 1, {72, 55, 120}).windows_mm.empty());
    const ClosingPlate rib = ribPlate("rib", 100, 50, 4, 5, 8);
    CHECK(rib.length_mm == 46);
    CHECK(rib.height_mm == 92);
    CHECK(rib.corner_mm == 10);
    CHECK(platePattern(rib).items.size() == 1);
}

TEST_CASE("ribs: flat ones by their own twist, tubes by theirs, and never softer", "[frame][structure][ribs]") {
    CHECK(flatRib_nmm3(96, 48, 4, 79'000) == Approx(79'000.0 * 96 * 48 * 64 / 3));
    CHECK(uprightRib_nmm3(96, 1000, 79'000) == Approx(79'000.0 * 96 * 1000));
    const Structure plain = ladder(channel(100, 50, 4), channel(100, 50, 4, true), {-300, 900, 1700, 2900}, box(60, 60, 3));
    const auto with = [&](double hold, double pitch) {
        Structure s = plain;
        for (std::size_t l : {0, 1})
            for (double x = 200; x < 3300; x += pitch) s.lines[l].ribs.push_back({x, hold});
        const auto twist = twistOf(s);
        REQUIRE(twist);
        return *twist;
    };
    const Stiffness none = with(0, 250), flat = with(flatRib_nmm3(96, 48, 4, 79'000), 250),
                    upright = with(uprightRib_nmm3(96, 2 * 28 * 28 * 28, 79'000), 250), all = with(1e16, 250);
    CHECK(none.free_nm_deg == Approx(twistOf(plain)->free_nm_deg).epsilon(1e-6));
    CHECK(flat.free_nm_deg > none.free_nm_deg);
    CHECK(upright.free_nm_deg > flat.free_nm_deg);
    CHECK(all.free_nm_deg > upright.free_nm_deg);
    CHECK(flat.held_nm_deg >= none.held_nm_deg * (1 - 1e-9));
    // closer ones that do not give at all: of each short bay the rail twists as one that is held at both ends
    CHECK(with(1e16, 60).free_nm_deg > 2 * all.free_nm_deg);
    CHECK(analyse(plain)->beams <= 200);
}

TEST_CASE("a frame of very many members is still worked out", "[frame][structure]") {
    Structure s = boxes();
    for (int k = 0; k < 400; ++k) s.lines.push_back(bridge("bar", -390 + 8.4 * k, box(30, 30, 2)));
    s.cases = {{"rest", 1, 0, 0, {}, false}};
    const auto a = analyse(s);
    REQUIRE(a);
    CHECK(a->loose.empty());
    CHECK(a->cases[0].unbalanced < 1e-7);
    CHECK(a->twist.free_nm_deg > frame::twistOf(boxes())->free_nm_deg);
}

TEST_CASE("a spine as it was measured, never quite straight, bears a bend as a straight one does", "[frame][structure]") {
    const auto worst = [](double crooked_mm) {
        Structure s;
        Line spine = rail("spine", 0, box(180, 140, 2));
        spine.points = {{-400, 0, 400}, {900, crooked_mm, 400}, {1700, -crooked_mm, 400}, {3000, 0, 400}};
        s.lines = {spine};
        s.seats = {Seat{{0, -350, 400}, 0, 30}, Seat{{0, 350, 400}, 0, 30}, Seat{{2600, -350, 400}, 0, 30},
                   Seat{{2600, 350, 400}, 0, 30}};
        s.hung = {{"shell", 300, {1300, 0, 700}, 2000}};
        s.cases = {{"cornering", 1, 0, 1, {}, false}};
        const auto o = analyse(s);
        REQUIRE(o);
        return o->cases[0].stress_mpa;
    };
    const double straight = worst(0);
    CHECK(straight < 100);
    for (const double crooked : {0.1, 1.0, 3.0}) CHECK(worst(crooked) == Approx(straight).epsilon(0.04));
}

} // namespace frame_structure_test
