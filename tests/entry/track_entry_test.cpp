// Axles, stands and how springs are hung, by the line.
#include "entry/typist.hpp"

namespace entry_track_entry_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

TEST_CASE("an axle as it is measured, in three goes", "[entry][track]") {
    Typist t;
    t.type("track rear faces 1420 wanted 1300 pinion 25 offset 20 tyre 205");
    t.type("track rear tube 76 wall 6 yield 235 flange 62 perches 980 perch 60 brake 95");
    t.type("track rear shaft-left 705 shaft-right 27 3/4\" splined 95? engaged 38");
    const AxleJob* a = axleJobOf(t.b, AxleEnd::Rear);
    REQUIRE(a);
    CHECK(a->faces.value == 1420);
    CHECK(a->faces_wanted->value == 1300);
    CHECK(a->pinion.value == 25);
    CHECK_FALSE(a->pinion_wanted);
    CHECK(a->wheel_offset->value == 20);
    CHECK(a->tyre->value == 205);
    CHECK(a->tube->value == 76);
    CHECK(a->tube_wall->value == 6);
    CHECK(a->yield_MPa->value == 235);
    CHECK(a->perches->value == 980);
    CHECK(a->shaft_right->value == Approx(27.75 * 25.4));
    CHECK(a->splined->provenance == Provenance::Assumed);
    CHECK(a->engaged->provenance == Provenance::Measured);
    t.type("track rear wanted none pinion-wanted 0 within 1540");
    a = axleJobOf(t.b, AxleEnd::Rear);
    CHECK_FALSE(a->faces_wanted);
    CHECK(a->pinion_wanted->value == 0);
    CHECK(a->over_tyres_wanted->value == 1540);
    t.type("track front faces 1380");
    CHECK(t.b.axle_jobs.size() == 2);
    t.type("remove track rear");
    CHECK_FALSE(axleJobOf(t.b, AxleEnd::Rear));
    CHECK(axleJobOf(t.b, AxleEnd::Front));
}

TEST_CASE("what can't be said of an axle says what and what to do", "[entry][track]") {
    Typist t;
    CHECK(t.wrong("track middle faces 1400").text().find("front or rear") != std::string::npos);
    CHECK(t.wrong("track rear").remedy.find("track rear faces") != std::string::npos);
    CHECK(t.wrong("track rear wanted 1300").message.find("wheel face") != std::string::npos); // what it is comes first
    CHECK(t.wrong("track rear faces").message.find("missing") != std::string::npos);
    CHECK(t.wrong("track rear faces 1400 wide 12").text().find("unit") != std::string::npos);
    CHECK(t.wrong("remove track rear").message.find("Nothing is planned") != std::string::npos);
    t.type("track rear faces 1400");
    CHECK(t.refused("track rear tube 60 wall 30").find("does not fit") != std::string::npos);
    CHECK(t.refused("track rear splined 30 engaged 38").find("splines") != std::string::npos);
    CHECK(t.refused("track rear pinion 700").find("pinion") != std::string::npos);
    CHECK(t.refused("track rear perches 1380").find("perches") != std::string::npos);
    CHECK(axleJobOf(t.b, AxleEnd::Rear)->faces.value == 1400); // nothing that was said is lost
}

TEST_CASE("stands under the rails, and how springs are hung", "[entry][stands]") {
    Typist t;
    t.type("stand nose at 200 rated 1000 kg sound");
    const Stand* s = standNamed(t.b, "nose");
    REQUIRE(s);
    CHECK(s->station.value == 200);
    CHECK(s->rated_kg == 1000);
    CHECK(s->sound);
    t.type("stand nose at 8\" not-looked-at");
    CHECK(standNamed(t.b, "nose")->station.value == Approx(203.2));
    CHECK(standNamed(t.b, "nose")->rated_kg == 1000);
    CHECK_FALSE(standNamed(t.b, "nose")->sound);
    CHECK(t.wrong("stand tail rated 500").message.find("station") != std::string::npos);
    t.type("rename stand nose front");
    CHECK(standNamed(t.b, "front"));
    t.type("remove stand front");
    CHECK(t.b.stands.empty());
    t.type("springs rear leaf");
    t.type("springs front other");
    CHECK(t.b.frame_facts.rear_springs == Springs::Leaf);
    CHECK(t.b.frame_facts.front_springs == Springs::Other);
    CHECK(t.wrong("springs rear rubber").text().find("leaf") != std::string::npos);
}

} // namespace entry_track_entry_test
