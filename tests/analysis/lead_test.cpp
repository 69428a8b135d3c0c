// A build that was just begun: what leads it, and that nothing unsettled is shown as a shape.
#include "analysis/bench.hpp"
#include "analysis/lead.hpp"
#include "analysis/listing.hpp"
#include "entry/entry.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <random>
#include <set>

namespace analysis_lead_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

struct Led {
    Build b;
    analysis::Results r = analysis::analyse(b, 0);
    int revision = 0;

    void keep(const Edit& edit) {
        const auto done = enact(b, edit);
        INFO((done ? "" : done.error().text()));
        REQUIRE(done);
        r = analysis::analyse(b, ++revision);
    }
    void type(SubjectId subject, const std::string& line) {
        entry::Context context;
        context.subject = subject;
        const auto understood = entry::understand(b, context, line);
        INFO(line << ": " << (understood ? "" : understood.error().text()));
        REQUIRE(understood);
        keep(understood->edit);
    }
    std::vector<analysis::Lack> lacks(const char* bench, SubjectId subject = the_chassis) {
        return analysis::lacksOf(*analysis::benchOf(bench), b, r, subject);
    }
    std::set<std::string> tags(SubjectId subject) {
        const sheet::Drawing d = analysis::tapeView(b, r, subject, {}, 1200, 450, {});
        std::set<std::string> all;
        for (const auto& item : d.items) all.insert(item.tag);
        return all;
    }
};

} // namespace

TEST_CASE("from nothing to a fixed frame by what is offered, and the readings that are proposed", "[lead]") {
    Led led;
    // the sketch has a target for every place, and no point
    CHECK(led.tags(the_chassis).contains("ghost:Al"));
    auto lacks = led.lacks("tape");
    REQUIRE(lacks.size() >= 2);
    CHECK(lacks[0].label == "mark Al and Ar");
    led.keep(lacks[1].edit); // all of the sketch
    CHECK(led.b.points.size() > 12);
    lacks = led.lacks("tape");
    REQUIRE(lacks.size() == 1);
    CHECK_THAT(lacks[0].label, Catch::StartsWith("zero at Fl Fr"));
    // not through the kick-up, which would tilt every height
    CHECK_THAT(lacks[0].edit.sentence, Catch::Contains("the plane of Al, Ar and Cl"));
    led.keep(lacks[0].edit);
    CHECK(led.lacks("tape").empty());
    // from here the proposals lead: each is answered from the true places, and the frame becomes fixed
    std::mt19937 rng(3);
    std::normal_distribution<double> off(0, 12);
    std::map<PointId, Vec3> truth;
    for (const auto& [id, p] : led.b.points)
        truth[id] = {p.rough->x_mm + off(rng), p.rough->y_mm + off(rng), p.rough->z_mm + off(rng)};
    int taken = 0;
    while (led.r.of(the_chassis).solution->status != tape::Status::Solved && taken < 200) {
        const auto& next = led.r.next(the_chassis);
        INFO("after " << taken << " readings");
        REQUIRE_FALSE(next.empty());
        const auto& s = led.r.of(the_chassis);
        const auto& ids = s.point_ids;
        const auto& reading = next.front();
        std::string line = std::string(word(reading.kind)) + " " + s.survey.points[static_cast<size_t>(reading.from)].name;
        std::optional<Vec3> to;
        if (reading.to >= 0) {
            to = truth[ids[static_cast<size_t>(reading.to)]];
            line += " " + s.survey.points[static_cast<size_t>(reading.to)].name;
        }
        const double value = test::trueReading(reading.kind, truth[ids[static_cast<size_t>(reading.from)]], to);
        led.type(the_chassis, fmt::format("{} {:.2f}", line, value));
        ++taken;
    }
    CHECK(led.r.of(the_chassis).solution->status == tape::Status::Solved);
    CHECK(taken < 120);
    CHECK_FALSE(led.tags(the_chassis).contains("ghost:Al"));
    // one place more that is not measured takes the drawing of the rest away from nobody
    led.type(the_chassis, "point Zz 100 0 300");
    CHECK(led.r.of(the_chassis).solution->status != tape::Status::Solved);
    CHECK_FALSE(led.tags(the_chassis).contains("ghost:Zz"));
    CHECK(analysis::hasShape(led.r.of(the_chassis)));
}

TEST_CASE("the zero that is offered lies level on every kind of frame, as far as the sketch knows", "[lead]") {
    for (std::size_t k = 0; k <= static_cast<std::size_t>(FrameKind::SpaceFrame); ++k)
        for (const SubjectId subject : {the_chassis, the_body}) {
            Led led;
            led.b.settings.frame_kind = static_cast<FrameKind>(k);
            led.r = analysis::analyse(led.b, 0);
            led.keep(led.lacks("tape", subject)[1].edit);
            INFO(k << " " << nameOf(led.b, subject));
            const auto lacks = led.lacks("tape", subject);
            REQUIRE(lacks.size() == 1);
            led.keep(lacks[0].edit);
            std::vector<Vec3> pads;
            for (const auto& [id, rule] : led.b.datum)
                if (rule.kind == DatumKind::Height) pads.push_back(*led.b.points.at(rule.points[0]).rough);
            REQUIRE(pads.size() == 3);
            CHECK(std::abs(pads[2].z_mm - pads[0].z_mm) <= 30);
            CHECK(pads[2].x_mm - pads[0].x_mm > 500);
        }
}

TEST_CASE("each bench says by name what it lacks, and every tap can be made", "[lead]") {
    Led led;
    for (const analysis::BenchInfo* bench : analysis::benches())
        for (const SubjectId subject : {the_chassis, the_body})
            for (const analysis::Lack& lack : analysis::lacksOf(*bench, led.b, led.r, subject)) {
                INFO(bench->key << ": " << lack.sentence << " / " << lack.label);
                CHECK(lack.sentence.ends_with('.'));
                CHECK_FALSE(lack.label.empty());
                CHECK((lack.bench.empty() || analysis::benchOf(lack.bench)));
                if (!lack.edit.changes.empty()) {
                    Build trial = led.b;
                    CHECK(enact(trial, lack.edit));
                }
            }
    CHECK(led.lacks("sit").front().sentence == "Nothing of the chassis is marked yet.");
    // a frame that is fixed, but without its wheels
    for (const char* line :
         {"point Al rail 0 -400 300", "point Ar rail 0 400 300", "point Bl rail 2000 -400 300", "point Br rail 2000 400 300",
          "coordinates Al 0 -400 300", "coordinates Ar 0 400 300", "coordinates Bl 2000 -400 300", "coordinates Br 2000 400 300"})
        led.type(the_chassis, line);
    for (const char* line : {"point Hl hinge-pillar 500 -600 800", "point Hr hinge-pillar 500 600 800",
                             "coordinates Hl 500 -600 800", "coordinates Hr 500 600 800"})
        led.type(the_body, line);
    auto lacks = led.lacks("sit");
    REQUIRE(lacks.size() == 2);
    CHECK(lacks[0].sentence == "The front wheel centres are not marked on the chassis.");
    CHECK(lacks[0].label == "mark Fl and Fr");
    led.keep(lacks[0].edit);
    for (const char* line : {"coordinates Fl 0 -700 330", "coordinates Fr 0 700 330"}) led.type(the_chassis, line);
    REQUIRE(led.lacks("sit").size() == 1);
    led.keep(led.lacks("sit")[0].edit);
    for (const char* line : {"coordinates Rl 2600 -700 330", "coordinates Rr 2600 700 330"}) led.type(the_chassis, line);
    lacks = led.lacks("sit");
    REQUIRE(lacks.size() == 3);
    CHECK(lacks[0].line == "hinge ");
    CHECK(lacks[1].line == "centred");
    CHECK_THAT(lacks[2].sentence, Catch::Contains("no sill is marked"));
    led.type(the_chassis, "centred");
    CHECK(led.lacks("sit").size() == 2);
}

TEST_CASE("the sketches: names that can be points, places apart, a picture for each kind", "[lead][ghost]") {
    for (std::size_t k = 0; k <= static_cast<std::size_t>(FrameKind::SpaceFrame) + 1; ++k) {
        const bool body = k > static_cast<std::size_t>(FrameKind::SpaceFrame);
        const tape::Ghost g = body ? tape::bodyGhost() : tape::ghostOf(static_cast<FrameKind>(k));
        INFO(g.words);
        std::set<std::string> names;
        std::vector<Vec3> places;
        for (const tape::GhostPoint& p : g.points)
            for (const std::string& name : p.names()) {
                CHECK(names.insert(name).second);
                CHECK((sideOf(name) == Side::Left) == (p.at(name).y_mm < 0));
                for (const Vec3& other : places) CHECK(geometry::between(other, p.at(name)) > 80);
                places.push_back(p.at(name));
            }
        CHECK(names.size() >= 10);
        CHECK_FALSE(tape::ghostPicture(g, 190, 74, {}).items.empty());
        if (body) continue;
        for (const Role role : {Role::Rail, Role::FrontHub, Role::RearHub, Role::GearboxMount})
            CHECK(std::any_of(g.points.begin(), g.points.end(), [&](const auto& p) { return p.role == role; }));
    }
}

TEST_CASE("readings and points in rows", "[lead][listing]") {
    Led led;
    for (const char* line :
         {"point Al rail 0 -400 300", "point Ar rail 0 400 300", "point Bl rail 2000 -400 300", "datum plane Al Ar Bl 300",
          "datum centred Al Ar", "datum station Al 0", "Al Ar 800", "Al Bl 6' 6 3/4\"", "Ar Bl 2154 note twice", "height Al 300",
          "height Ar 300", "height Bl 300", "Al Ar 800.5"})
        led.type(the_chassis, line);
    const analysis::Listing list = analysis::readingsList(led.b, led.r, the_chassis);
    REQUIRE(list.rows.size() == led.b.readings.size());
    for (const auto& row : list.rows) CHECK(row.cells.size() == list.columns.size());
    CHECK(list.rows[1].cells[3].text == "6' 6 3/4\"");
    CHECK(list.rows[1].cells[3].order == Approx(2000.25));
    CHECK(list.rows[2].cells[8].text == "twice");
    CHECK(list.rows[0].line == "retape Al Ar ");
    CHECK(list.rows[3].line == "height Al ");
    // typed anew from its row, it replaces the old one: as many rows as before
    const auto before = list.rows.size();
    led.type(the_chassis, list.rows[0].line + "801");
    CHECK(analysis::readingsList(led.b, led.r, the_chassis).rows.size() == before);
    const analysis::Listing points = analysis::pointsList(led.b, led.r, the_chassis);
    REQUIRE(points.rows.size() == 3);
    CHECK(points.rows[0].cells[0].text == "Al");
    CHECK(points.rows[0].line == "rename Al ");
    CHECK(analysis::pointsList(led.b, led.r, the_body).rows.empty());
}

} // namespace analysis_lead_test
