// Bolts of a build from what was typed: where they are, what stands in their way, scans among it.
#include "analysis/service.hpp"

#include "analysis/overlay.hpp"
#include "entry/typist.hpp"
#include "shape/plain_mesh.hpp"
#include "store/store.hpp"
#include "support/support.hpp"

#include <algorithm>
#include <cmath>

#include <nlohmann/json.hpp>

namespace analysis_service_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

Typist bridged(const char* section = "rail 100 x 60 x 4 box top") {
    Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder(section);
    for (const char* line : {"point G gearbox-mount 900 0 512", "coordinates G 900 0 512", "crossmember", "isolator 38",
                             "box 60 x 50 x 3", "flange 8", "pad 6", "pad-holes 40 9"})
        t.type(line);
    return t;
}
std::vector<const analysis::Finding*> found(const analysis::Results& r, const std::string& code) {
    std::vector<const analysis::Finding*> all;
    for (const auto& f : r.findings)
        if (f.code == code) all.push_back(&f);
    return all;
}
analysis::Overlay::Part scanned(const char* name, const Vec3& low, const Vec3& high) {
    analysis::Overlay::Part part;
    part.scan = ScanId{7};
    part.part.name = name;
    auto ready = std::make_shared<sit::Ready>();
    ready->mesh = std::make_shared<const shape::Mesh>(shape::prismMesh(
        {{0, 0}, {high.x_mm - low.x_mm, 0}, {high.x_mm - low.x_mm, high.y_mm - low.y_mm}, {0, high.y_mm - low.y_mm}},
        high.z_mm - low.z_mm, {low, {1, 0, 0}, {0, 1, 0}}));
    part.part.ready = std::move(ready);
    return part;
}

} // namespace

TEST_CASE("a crossmember's bolts stand in its flanges, and a scan in front of them blocks them", "[analysis][service]") {
    Typist t = bridged();
    auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.crossmember->possible);
    const make::ServiceIn& in = r.service.input();
    REQUIRE(in.fasteners.size() == 8);
    for (const make::Fastener& f : in.fasteners) {
        // their heads on the flanges' inner faces: rails 420, half of 60, a millimetre and 8 off; outwards from there
        CHECK(std::abs(f.head.y_mm) == Approx(420 - 30 - 1 - 8).margin(0.5));
        CHECK(f.along.y_mm * f.head.y_mm > 0);
        CHECK(f.grip_mm == Approx(8 + 1 + 60)); // through the whole rail
        CHECK(f.holds == std::vector<std::string>{"the crossmember"});
    }
    // free, but nobody looked what else is there
    CHECK(r.service->verdict == PlanVerdict::Marginal);
    CHECK(r.service->off == std::vector<std::vector<std::string>>{{"the crossmember"}});
    CHECK(in.not_looked_at.size() == 2);
    // something scanned 30 inside of the left flange, and as far outside of the rail: it can't be drawn either way
    analysis::Overlay o;
    o.on_chassis = {scanned("exhaust", {700, -350, 380}, {1100, -320, 520})};
    const auto one = make::servicePlan(analysis::serviceWithScans(in, o));
    CHECK(std::count_if(one.rows.begin(), one.rows.end(), [](const auto& row) { return row.turned; }) == 4);
    CHECK(one.looked_at.back() == "scan exhaust");
    o.on_chassis.push_back(scanned("box", {700, -520, 380}, {1100, -490, 520}));
    const auto both = make::servicePlan(analysis::serviceWithScans(in, o));
    CHECK(both.stays == std::vector<std::string>{"the crossmember"});
    CHECK(std::count_if(both.rows.begin(), both.rows.end(), [](const auto& row) { return row.round == 0; }) == 4);
    for (const auto& row : both.rows)
        if (row.round == 0) CHECK(row.ends[0].free_mm == Approx(std::abs(row.at.y_mm) - 350 - 69.0 / 2).margin(1.5));
    // a channel: nobody said to which side it is open
    t.type("rail 100 x 60 x 4 channel top");
    CHECK(analysis::analyse(t.b, 2).service->not_looked_at.size() == 3);
    t.type("rail 100 x 60 x 4 box top");
    // captive: the outside does not matter, the inside does
    t.type("crossmember fixing captive");
    r = analysis::analyse(t.b, 2);
    for (const make::Fastener& f : r.service.input().fasteners) CHECK(f.captive);
    CHECK(r.service->off.size() == 1);
    const auto j = nlohmann::json::parse(analysis::makeServiceJson(t.b, r));
    CHECK(j["fasteners"].size() == 8);
    CHECK(j["comes_off"] == nlohmann::json::parse(R"([["the crossmember"]])"));
}

TEST_CASE("parts bring their bolts; what stands in each other is found and cleared again", "[analysis][service]") {
    Typist t = bridged();
    for (const char* line : {"point Ta 1500 420 560", "coordinates Ta 1500 420 560", "point Tb 1500 420 500",
                             "coordinates Tb 1500 420 500", "part s1 standoff at Tb Ta across 50 wall 3 hole 13"})
        t.type(line);
    auto r = analysis::analyse(t.b, 1);
    // its nut stands inside of a tube that is closed: nothing gets there
    REQUIRE(r.service.input().fasteners.size() == 9);
    CHECK(found(r, "make.bolt-captive").size() + found(r, "make.bolt-spins").size() == 1);
    t.type("part s1 captive 1");
    r = analysis::analyse(t.b, 2);
    CHECK(found(r, "make.bolt-captive").empty());
    CHECK(found(r, "make.bolt-spins").empty());
    CHECK(found(r, "make.part-fouls").empty());
    // a brace right through the standoff; flush on the rails it is none
    for (const char* line : {"point Ba 1500 -389.5 450", "coordinates Ba 1500 -389.5 450", "point Bb 1500 389.5 450",
                             "coordinates Bb 1500 389.5 450", "part b1 brace at Ba Bb across 40 wall 3"})
        t.type(line);
    r = analysis::analyse(t.b, 3);
    CHECK(found(r, "make.part-fouls").empty());
    t.type("coordinates Bb 1500 460 530");
    t.type("coordinates Ba 1500 300 530");
    r = analysis::analyse(t.b, 4);
    REQUIRE(found(r, "make.part-fouls").size() >= 1);
    bool through = false;
    for (const auto* f : found(r, "make.part-fouls"))
        through = through || f->sentence.find("Part s1 and part b1") != std::string::npos;
    CHECK(through);
}

TEST_CASE("links' bolts: what is planned beside an eye shuts its bolt in, what was there does not", "[analysis][service]") {
    Typist t;
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const auto& [name, at] : {std::pair{"Lf", "1500 -250 300"},
                                   {"La", "2300 -250 300"},
                                   {"Wa", "300 200 300"},
                                   {"Wb", "600 200 300"},
                                   {"Wc", "450 600 300"},
                                   {"Oa", "1400 -365 300"},
                                   {"Ob", "1600 -365 300"},
                                   {"Ia", "1400 -135 300"},
                                   {"Ib", "1600 -135 300"}}) {
        t.type(fmt::format("point {} {}", name, at));
        t.type(fmt::format("coordinates {} {}", name, at));
    }
    t.type("link lower rear-axle rod Lf La");
    t.type("link wish front-right wishbone Wa Wb Wc");
    auto r = analysis::analyse(t.b, 1);
    const auto bolt = [&](const char* at) -> const make::Fastener& {
        const auto& all = r.service.input().fasteners;
        const auto f = std::find_if(all.begin(), all.end(), [&](const auto& one) { return one.name.ends_with(at); });
        REQUIRE(f != all.end());
        return *f;
    };
    REQUIRE(r.service.input().fasteners.size() == 4);    // the outer joint has none that is drawn out
    CHECK(std::abs(bolt("Lf").along.y_mm) == Approx(1)); // across a rod that runs along the car
    CHECK(std::abs(bolt("Wa").along.x_mm) == Approx(1)); // along the pivots of a wishbone
    const auto& lf = bolt("Lf");
    CHECK(geometry::between(geometry::plus(lf.head, geometry::times(lf.along, lf.grip_mm / 2)), {1500, -250, 300}) ==
          Approx(0).margin(0.5));
    CHECK(lf.bolt_mm == 14);
    REQUIRE(lf.assumed.size() >= 2); // nobody measured it: it never holds
    t.type("link-holes lower frame pitch 25 above 1 below 1 hole 12.5");
    r = analysis::analyse(t.b, 2);
    CHECK(bolt("Lf").bolt_mm == 12);

    // one brace beside it: it goes out by the other side; a second one shuts it in
    t.type("part outer brace at Oa Ob across 60 wall 3");
    r = analysis::analyse(t.b, 3);
    CHECK(found(r, "make.bolt-trapped").empty());
    CHECK(found(r, "make.bolt-captive").empty());
    t.type("part inner brace at Ia Ib across 60 wall 3");
    r = analysis::analyse(t.b, 4);
    REQUIRE(found(r, "make.bolt-trapped").size() == 1);
    CHECK(found(r, "make.bolt-trapped").front()->tag == "link:lower");
    for (const auto& row : r.service->rows) CHECK(row.verdict != PlanVerdict::Holds);
    t.type("remove part inner");
    // a scan there was there when the bolt went in
    r = analysis::analyse(t.b, 5);
    analysis::Overlay scans;
    scans.on_chassis.push_back(scanned("bracket", {1400, -206, 250}, {1600, -186, 350}));
    const auto with = make::servicePlan(analysis::serviceWithScans(r.service.input(), scans));
    for (const auto& row : with.rows)
        if (row.name.ends_with("Lf")) CHECK(row.round == 1);
    // ears that bring their own bolt for the eye stand for it
    t.type("part hold ears at Lf Oa apart 46 hole 14 foot 100");
    r = analysis::analyse(t.b, 6);
    const auto& all = r.service.input().fasteners;
    CHECK(std::count_if(all.begin(), all.end(), [](const auto& f) { return f.name.ends_with("at Lf"); }) == 0);
    CHECK(std::count_if(all.begin(), all.end(), [](const auto& f) { return f.name.starts_with("part hold"); }) >= 1);
}

TEST_CASE("a bolt whose place is known less well than what it has to spare never holds", "[analysis][service][demo]") {
    auto store = store::Store::open(test::demoBuild(test::freshFolder("service-demo"), "petrel_on_tern --plain"));
    REQUIRE(store);
    const Build& b = (*store)->build();
    const auto r = analysis::analyse(b, 1);
    make::ServiceIn in = r.service.input();
    in.not_looked_at.clear(); // as if all had been looked at: what is left is how well it is known
    const auto p = make::servicePlan(in);
    int rough = 0, fine = 0;
    for (std::size_t k = 0; k < r.mounts.size(); ++k)
        for (const auto& row : p.rows) {
            if (row.name != "mount " + r.mounts[k].name) continue;
            const bool known = r.mounts[k].gap_mm.u95 <= make::service_spare_mm;
            INFO(row.name << " ± " << r.mounts[k].gap_mm.u95);
            CHECK((row.verdict == PlanVerdict::Holds) == known);
            (known ? fine : rough) += 1;
        }
    CHECK(rough + fine == 6);
    CHECK(rough > 0);
    CHECK(fine > 0);
}

TEST_CASE("the steering gear's bolts: through its flange, its plate and the rail; a brace in front shuts one",
          "[analysis][service]") {
    Typist t = bridged();
    // on the left rail's inner face: it is 60 wide, its middle at -420
    for (const char* line :
         {"point Ha 300 -390 470", "coordinates Ha 300 -390 470", "point Hb 400 -390 470", "coordinates Hb 400 -390 470",
          "point Hc 400 -390 540", "coordinates Hc 400 -390 540", "steer-gear box-1 box holes Ha Hb Hc bolt 10 plate 6 closed"})
        t.type(line);
    auto r = analysis::analyse(t.b, 1);
    std::vector<const make::Fastener*> own;
    for (const make::Fastener& f : r.service.input().fasteners)
        if (f.tag == "steer-gear:box-1") own.push_back(&f);
    REQUIRE(own.size() == 3);
    for (const make::Fastener* f : own) {
        CHECK(f->head.y_mm == Approx(-390 + 10 + 6).margin(0.5)); // inwards, away from the rail
        CHECK(f->along.y_mm == Approx(-1).margin(0.01));
        CHECK(f->grip_mm == Approx(10 + 6 + 60));
        CHECK(f->length_mm > f->grip_mm + 10);
        CHECK_FALSE(f->assumed.empty()); // its housing is not drawn: never Holds
    }
    const auto round = [&](const char* name) {
        const auto plan = analysis::analyse(t.b, 1);
        for (const make::FastenerRow& row : plan.service->rows)
            if (row.name == name) {
                CHECK(row.verdict != PlanVerdict::Holds);
                return row.round;
            }
        FAIL(name);
        return -1;
    };
    CHECK(round("box-1, bolt Ha") == 1);
    // braces close on both sides of that bolt: it neither goes in from inside nor from outside
    for (const char* line :
         {"point Wa 300 -330 400", "coordinates Wa 300 -330 400", "point Wb 300 -330 600", "coordinates Wb 300 -330 600",
          "point Wc 300 -500 400", "coordinates Wc 300 -500 400", "point Wd 300 -500 600", "coordinates Wd 300 -500 600",
          "part in-side brace at Wa Wb across 50 wall 3", "part out-side brace at Wc Wd across 50 wall 3"})
        t.type(line);
    CHECK(round("box-1, bolt Ha") == 0);
    CHECK(round("box-1, bolt Hb") == 1); // 100 mm further on there is room
}

} // namespace analysis_service_test
