// What is measured: body, chassis, and whatever else a build has.
#include "build/edit.hpp"
#include "build/gate.hpp"

#include <catch2/catch.hpp>

namespace build_subject_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

Subject subject(std::uint32_t id, const char* name, SubjectKind kind) { return {SubjectId{id}, name, kind, {}}; }

std::string refusal(Build& b, const Change& c) {
    const Build before = b;
    const auto done = enact(b, c);
    CHECK(b == before);
    return done ? std::string() : done.error().text();
}

} // namespace

TEST_CASE("every build has one body and one chassis, and as many others as stand in the shop", "[build][subject]") {
    Build b;
    CHECK(nameOf(b, the_body) == "body");
    CHECK(kindOf(b, the_chassis) == SubjectKind::Chassis);
    CHECK(refusal(b, Drop<Subject>{the_body}) == "Every build has a body. Call it otherwise.");
    CHECK(refusal(b, Put<Subject>{subject(9, "second", SubjectKind::Chassis)}).find("one chassis") != std::string::npos);
    CHECK(refusal(b, Put<Subject>{subject(2, "chassis", SubjectKind::Candidate)}).find("one chassis") != std::string::npos);
    CHECK(refusal(b, Put<Subject>{subject(9, "body", SubjectKind::Candidate)}).find("already a subject body") !=
          std::string::npos);
    // sheets are called by it: no name leads out of the folder
    for (const char* name : {"../../etc/passwd", "a/b", ".hidden", "a:b", "two words", ""})
        CHECK_FALSE(refusal(b, Put<Subject>{subject(9, name, SubjectKind::Candidate)}).empty());
    CHECK(acceptable(Put<Subject>{subject(9, "second-frame", SubjectKind::Candidate)}));
    CHECK_FALSE(acceptable(Put<Subject>{subject(9, "the-second-frame-behind-the-barn", SubjectKind::Candidate)}));
    REQUIRE(enact(b, Change{Put<Subject>{subject(9, "second", SubjectKind::Candidate)}}));
    CHECK(isFrame(b, SubjectId{9}));
    CHECK(subjectsInOrder(b) == std::vector{the_chassis, the_body, SubjectId{9}});

    Point p;
    p.id = PointId{10};
    p.name = "Al";
    p.subject = SubjectId{9};
    REQUIRE(enact(b, Change{Put<Point>{p}}));
    CHECK(refusal(b, Drop<Subject>{SubjectId{9}}) == "second is used by a point. Remove that first.");
    p.id = PointId{11};
    CHECK(refusal(b, Put<Point>{p}) == "There is already a point Al on the second. Choose another name.");
    p.subject = the_chassis; // its name is its own there
    REQUIRE(enact(b, Change{Put<Point>{p}}));
    p.subject = SubjectId{77};
    p.id = PointId{12};
    CHECK(refusal(b, Put<Point>{p}).find("a subject that does not exist") != std::string::npos);
    // where the body sits is between body and chassis alone
    Pin pin;
    pin.id = PinId{13};
    pin.kind = PinKind::Along;
    pin.points = {PointId{10}};
    pin.to = {PointId{11}};
    CHECK(refusal(b, Put<Pin>{pin}).find("is of the second") != std::string::npos);
    const auto back = buildFromJson(*buildToJson(b));
    REQUIRE(back);
    CHECK(*back == b);
}

TEST_CASE("files before version 4 knew two subjects, by their words", "[build][subject]") {
    const auto changes = changesFromJson(
        R"([{"put":"point","value":{"id":1,"subject":"body","name":"Hl"}},{"put":"point","value":{"id":2,"subject":"chassis","name":"Al"}}])");
    REQUIRE(changes);
    Build b;
    for (const Change& c : *changes) REQUIRE(enact(b, c));
    CHECK(pointNamed(b, the_body, "Hl"));
    CHECK(pointNamed(b, the_chassis, "Al"));
    CHECK_FALSE(changesFromJson(R"([{"put":"point","value":{"id":1,"subject":"engine","name":"Hl"}}])"));
}

} // namespace build_subject_test
