// What may come into a build, and what a build read from a file must be.
#include "build/gate.hpp"

#include "build/unit_doubt.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

namespace build_gate_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

constexpr double inf = std::numeric_limits<double>::infinity();
constexpr double no_number = std::numeric_limits<double>::quiet_NaN();

std::string refusal(const Change& c) {
    const auto ok = acceptable(c);
    return ok ? std::string() : ok.error().message;
}
Point point(std::string name) {
    Point p;
    p.id = PointId{1};
    p.name = std::move(name);
    return p;
}

} // namespace

TEST_CASE("names and texts: UTF-8, seen, of a length that fits", "[gate]") {
    CHECK(refusal(Put<Point>{point("Tür-ö")}).empty());
    CHECK(refusal(Put<Point>{point("T\xFCr")}).find("the byte FC is no UTF-8") != std::string::npos);
    CHECK(refusal(Put<Point>{point("A\u200Bl")}).find("can't be seen") != std::string::npos);
    CHECK(refusal(Put<Point>{point("A\u202El")}).find("turns the direction") != std::string::npos);
    CHECK(refusal(Put<Point>{point("A\x1b[2J")}).find("control") != std::string::npos);
    CHECK(refusal(Put<Point>{point(std::string(10'000'000, 'x'))}) == "name: 10000000 characters, 120 at most.");
    Point p = point("Al");
    p.note = "two\nlines";
    CHECK(refusal(Put<Point>{p}).empty());
    p.note = "\x1b]0;owned\x07";
    CHECK(refusal(Put<Point>{p}).find("control") != std::string::npos);
    p.note = std::string(30'000, 'x');
    CHECK(refusal(Put<Point>{p}).find("20000 at most") != std::string::npos);
    Reading r;
    r.value = {100, "100 \xB1 1", Provenance::Measured};
    CHECK(refusal(Put<Reading>{r}).find("no UTF-8") != std::string::npos);
    CHECK_FALSE(acceptable(Edit{"mark \xFC", {}}));
}

TEST_CASE("numbers: finite, and in the range of their field", "[gate]") {
    for (const double wrong : {inf, -inf, no_number, 1e10}) {
        Settings s;
        s.frame_tolerance_mm = wrong;
        CHECK_FALSE(acceptable(Set<Settings>{s}));
        Session session;
        session.carried_mass_kg = wrong;
        CHECK_FALSE(acceptable(Put<Session>{session}));
        Gap g;
        g.tolerance_mm = wrong;
        CHECK_FALSE(acceptable(Put<Gap>{g}));
        Mount m;
        m.rail_station = Dimension{wrong, "", Provenance::Measured};
        CHECK_FALSE(acceptable(Put<Mount>{m}));
        Reading r;
        r.value.value = wrong;
        CHECK_FALSE(acceptable(Put<Reading>{r}));
        r.value.value = 100;
        r.covariance_mm2 = {wrong, 0, 0, 1, 0, 1};
        CHECK_FALSE(acceptable(Put<Reading>{r}));
        Point p = point("A");
        p.rough = Vec3{0, wrong, 0};
        CHECK_FALSE(acceptable(Put<Point>{p}));
        PlannedCut c;
        c.line = {{0, 0, 0}, {1, wrong, 0}};
        CHECK_FALSE(acceptable(Put<PlannedCut>{c}));
        Seating seat;
        seat.pins.emplace_back().target.value = wrong;
        CHECK_FALSE(acceptable(Put<Seating>{seat}));
        Crossmember x;
        x.pad_hole.value = wrong;
        CHECK_FALSE(acceptable(Set<std::optional<Crossmember>>{x}));
    }
    Settings s;
    s.frame_tolerance_mm = 999'999'999;
    CHECK(refusal(Set<Settings>{s}) == "frame tolerance = 1e+09 mm: must be between 0.01 and 100 mm.");
    Session session;
    session.carried_mass_kg = -20;
    CHECK(refusal(Put<Session>{session}).find("between 0 and 20000") != std::string::npos);
    Reading r;
    r.value.value = 1000;
    for (const double sigma : {1e-7, 1e9}) {
        r.sigma = sigma;
        CHECK(refusal(Put<Reading>{r}).find("sigma") != std::string::npos);
    }
    r.sigma = 0.3;
    CHECK(refusal(Put<Reading>{r}).empty());
    r.kind = ReadingKind::Slope; // rad
    r.sigma = 1e-4;
    CHECK(refusal(Put<Reading>{r}).empty());
    r.sigma = 0.6;
    CHECK_FALSE(refusal(Put<Reading>{r}).empty());
    DatumRule plane;
    plane.points = {PointId{1}, PointId{1}};
    CHECK(refusal(Put<DatumRule>{plane}) == "It needs different points.");
    Pin pin;
    pin.kind = PinKind::Under;
    pin.points = {PointId{1}};
    pin.to = {PointId{2}, PointId{2}, PointId{2}};
    CHECK(refusal(Put<Pin>{pin}) == "It names a point twice.");
}

TEST_CASE("what an older file holds stays: a figure without bounds of its own is asked for bounds only where it comes in",
          "[gate]") {
    Build b;
    Session s;
    s.id = SessionId{3};
    s.name = "monday";
    REQUIRE(enact(b, Change{Put<Session>{s}}));
    for (const std::uint32_t id : {4U, 5U}) {
        Point p = point(id == 4 ? "A" : "B");
        p.id = PointId{id};
        REQUIRE(enact(b, Change{Put<Point>{p}}));
    }
    Reading r;
    r.id = ReadingId{6};
    r.session = s.id;
    r.from = PointId{4};
    r.to = PointId{5};
    r.value = {1000, "1000", Provenance::Measured};
    r.sigma = 5e9; // an older program took it
    CHECK_FALSE(acceptable(Put<Reading>{r}));
    REQUIRE(enact(b, Change{Put<Reading>{r}}));
    CHECK(consistent(b));
}

TEST_CASE("ids near the end of their numbers are refused, and leave the next one alone", "[gate]") {
    for (const std::uint32_t id : {4294967295U, 4294967294U, 2'000'000'001U}) {
        Build b;
        Point p = point("A");
        p.id = PointId{id};
        CHECK_FALSE(admit(b, Put<Point>{p}));
        CHECK_FALSE(enact(b, Change{Put<Point>{p}}));
        CHECK(b.next_id == the_chassis.value + 1);
        CHECK(b.points.empty());
    }
}

TEST_CASE("a point stays with its subject", "[gate]") {
    Build b;
    REQUIRE(admit(b, Put<Point>{point("A")}));
    Point p = point("A");
    p.subject = the_body;
    CHECK_FALSE(admit(b, Put<Point>{p}));
}

TEST_CASE("a build read from a file must be one that edits could have made", "[gate][snapshot]") {
    Build b;
    REQUIRE(admit(b, Put<Point>{point("A")}));
    CHECK(consistent(b));
    const auto broken = [&](auto&& change) {
        Build c = b;
        change(c);
        return !consistent(c);
    };
    CHECK(broken([](Build& c) { c.next_id = 1; }));
    CHECK(broken([](Build& c) {
        c.points[PointId{2}] = Point{PointId{2}, the_chassis, "A"};
        c.next_id = 3;
    }));
    CHECK(broken([](Build& c) { c.points[c.points.begin()->first].name = ""; }));
    CHECK(broken([](Build& c) { c.points[c.points.begin()->first].rough = Vec3{no_number, 0, 0}; }));
    CHECK(broken([](Build& c) {
        c.pins[PinId{2}].id = PinId{2};
        c.next_id = 3;
    })); // a pin without points
    CHECK(broken([](Build& c) {
        Reading r;
        r.id = ReadingId{2};
        r.from = PointId{9};
        c.readings[r.id] = r;
        c.next_id = 3;
    }));
    CHECK(broken([](Build& c) {
        c.holds[HoldId{2}] = Hold{HoldId{2}, PointId{7}};
        c.next_id = 3;
    }));
    CHECK(broken([](Build& c) { c.crossmember.emplace(); }));
    CHECK(broken([](Build& c) { c.settings.name = ""; }));
    CHECK(broken([](Build& c) {
        c.checks[CheckId{2}] = Check{CheckId{2}, "step"};
        c.next_id = 3;
    }));
    // the answers of a practice that is over are no reason to distrust it
    Build practice = b;
    practice.practice = {true, 1, 1, true};
    practice.answers[AnswerId{2}] = Answer{AnswerId{2}, "twist"};
    practice.next_id = 3;
    CHECK(consistent(practice));
}

TEST_CASE("JSON that nests without end is refused before it is parsed", "[gate][snapshot]") {
    for (const std::string& deep :
         {std::string(1'000'000, '['), std::string(1'000'000, '{'), "{\"put\":" + std::string(500'000, '[')}) {
        CHECK_FALSE(changesFromJson(deep));
        CHECK_FALSE(buildFromJson(deep));
    }
    CHECK(changesFromJson("[]"));
    CHECK_FALSE(changesFromJson("{}"));
    CHECK_FALSE(changesFromJson(R"([{"drop":"point","id":-1}])"));
    CHECK_FALSE(changesFromJson(R"([{"drop":"point","id":4294967297}])"));
    CHECK_FALSE(changesFromJson(R"([{"drop":"point","id":1.5}])"));
    CHECK_FALSE(changesFromJson(R"([{"set":"settings","value":{"name":"x","frame_tolerance_mm":null}}])"));
    // brackets inside a text are text
    CHECK(changesFromJson(R"([{"set":"settings","value":{"name":")" + std::string(1000, '[') + R"("}}])"));
}

TEST_CASE("a figure in another unit is told by its factor", "[units][doubt]") {
    CHECK_FALSE(doubtUnit(1000, 1010));
    CHECK_FALSE(doubtUnit(1000, 1400)); // rough is rough
    CHECK_FALSE(doubtUnit(10, 100));    // a level of 10 mm where the rough places, good to a hand's breadth, say 100
    CHECK_FALSE(doubtUnit(5, 30));      // too short an expectation to tell
    CHECK_FALSE(doubtUnit(1000, 3000)); // no usual factor
    CHECK(doubtUnit(2.164, 2100)->factor == 1000);
    CHECK(doubtUnit(85.2, 2160)->factor == 25.4);
    CHECK(doubtUnit(216.4, 2160)->factor == 10);
    CHECK(doubtUnit(21.64, 2160)->factor == 100);
    CHECK(doubtUnit(-2.1, -2160)->would_be_mm == Approx(-2100));
    CHECK(doubtUnit(54966, 2160)->factor == Approx(1 / 25.4));
    CHECK(doubtUnit(2164000, 2160)->factor == 0.001);
}

} // namespace build_gate_test
