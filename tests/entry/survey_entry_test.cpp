// What a survey stands on, typed: instruments, obstacles, the datum, the drawing, what is assumed, what was found.
#include "entry/entry.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace entry_survey_entry_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

struct Typist {
    Build b;
    entry::Context context;
    std::string echo;
    Typist() {
        for (const char* line :
             {"point Al rail 0 -420 310", "point Ar rail 0 420 310", "point Bl rail 2000 -420 300", "point Br rail 2000 420 300"})
            type(line);
    }
    void type(const std::string& line) {
        INFO(line);
        auto understood = entry::understand(b, context, line);
        if (!understood) FAIL(understood.error().text());
        echo = understood->echo;
        const Build before = b;
        auto inverse = enact(b, understood->edit);
        if (!inverse) FAIL(inverse.error().text());
        // every step can be undone, and survives the journal
        Build undone = b;
        REQUIRE(enact(undone, *inverse));
        undone.next_id = before.next_id;
        CHECK(undone == before);
        const auto back = changesFromJson(*changesToJson(understood->edit.changes));
        REQUIRE(back);
        CHECK(*back == understood->edit.changes);
        const auto whole = buildFromJson(*buildToJson(b));
        REQUIRE(whole);
        CHECK(*whole == b);
    }
    std::string wrong(const std::string& line) const {
        INFO(line);
        const auto understood = entry::understand(b, context, line);
        REQUIRE_FALSE(understood);
        return understood.error().message;
    }
    const Reading& last() const { return b.readings.rbegin()->second; }
};

} // namespace

TEST_CASE("instruments are named, and go with what they read", "[entry][instrument]") {
    Typist t;
    t.type("instrument big tape sigma 0.8 per-m 0.1 checked against the works bar in spring");
    const Instrument* big = instrumentNamed(t.b, "big");
    REQUIRE(big);
    CHECK(*big->sigma == Approx(0.8));
    CHECK(big->sigma_per_m == Approx(0.1));
    CHECK(big->checked == "against the works bar in spring");
    t.type("Al Br 2164");
    CHECK(t.last().instrument == big->id);
    CHECK(sigmaOf(t.b, t.last()) == Approx(0.8 + 0.1 * 2.164));
    CHECK(t.echo == "tape Al–Br 2164.0 mm with big");
    t.type("height Al 310");
    CHECK_FALSE(t.last().instrument); // a tape takes no heights
    t.type("instrument bar trammel");
    t.type("Ar Bl 2163");
    CHECK(nameOf(t.b, t.last().from) == "Ar");
    CHECK(t.b.instruments.at(t.last().instrument).name == "bar");
    CHECK(sigmaOf(t.b, t.last()) == Approx(0.5));
    t.type("Al Ar 840 with none");
    CHECK_FALSE(t.last().instrument);
    CHECK(sigmaOf(t.b, t.last()) == Approx(1 + 0.2e-3 * 840));
    t.type("Bl Br 840 sigma 2 with big");
    CHECK(sigmaOf(t.b, t.last()) == Approx(2));
    CHECK(t.wrong("height Ar 300 with big").find("not taken with a tape") != std::string::npos);
    CHECK(t.wrong("Al Ar 840 with small") == "There is no instrument small.");
    CHECK(t.wrong("instrument none tape").find("choose another name") != std::string::npos);
    CHECK(t.wrong("instrument odd") == "What is odd?");
    CHECK(entry::understand(t.b, t.context, "remove instrument big")->doubt.find("as read with an instrument") !=
          std::string::npos);
    t.type("instrument spare rule");
    t.type("remove instrument spare");
    CHECK_FALSE(instrumentNamed(t.b, "spare"));
}

TEST_CASE("angles and coordinates", "[entry]") {
    Typist t;
    t.type("cross-level Al Ar 0.4°");
    CHECK(units::degrees(t.last().value.value) == Approx(0.4));
    t.type("rail-angle Al Bl 1°30'");
    CHECK(units::degrees(t.last().value.value) == Approx(1.5));
    t.type("coordinates Al 812.3 -410.2 305.1 sigma 0.3");
    CHECK(t.last().at->y_mm == Approx(-410.2));
    CHECK(*t.last().sigma == Approx(0.3));
    CHECK(t.last().value.typed == "812.3 -410.2 305.1");
    t.type("coordinates Ar 1m 16\" 0 ± 0.2 0.4 0.6");
    CHECK(t.last().covariance_mm2[3] == Approx(std::pow(0.4 / 1.959964, 2)));
    t.type("coordinates Bl 1 2 3 cov 1 0.5 0 1 0 4 note by the arm");
    CHECK(t.last().covariance_mm2[1] == Approx(0.5));
    CHECK(t.last().note == "by the arm");
    CHECK(t.wrong("coordinates Bl 1 2 3 cov 1 2 0 1 0 4").find("positive definite") != std::string::npos);
    CHECK(t.wrong("coordinates Bl 1 2").find("height") != std::string::npos);
    CHECK(t.wrong("cross-level Al Ar 120°").find("between") != std::string::npos);
}

TEST_CASE("what is assumed says so, and gives way", "[entry][assumed]") {
    Typist t;
    t.type("Al Br 2164?");
    CHECK(t.last().value.provenance == Provenance::Assumed);
    CHECK(t.echo.find("assume tape Al–Br") == 0);
    t.type("assume Al Br 2170");
    int counted = 0;
    for (const auto& [id, r] : t.b.readings) counted += !r.replaced_by;
    CHECK(counted == 1); // the newer assumption took the older one's place
    t.type("Al Br 2168");
    CHECK(t.last().value.provenance == Provenance::Measured);
    CHECK_FALSE(t.last().replaced_by);
    t.type("assume station Bl 2000");
    CHECK(t.last().kind == ReadingKind::Station);
    t.type("assume symmetry all");
    int pairs = 0;
    for (const auto& [id, r] : t.b.readings) pairs += r.kind == ReadingKind::Symmetry;
    CHECK(pairs == 2);
    CHECK(t.wrong("assume symmetry all").find("not assumed already") != std::string::npos);
    t.type("point Ql 5 5 5");
    CHECK(t.wrong("assume symmetry Ql").find("has no twin Qr") != std::string::npos);
    t.type("remove symmetry Al Ar");
}

TEST_CASE("a datum in the workshop's words", "[entry][datum]") {
    Typist t;
    t.type("datum plane Al Ar Bl 100");
    CHECK(t.b.datum.size() == 3);
    t.type("datum centred Al Ar Bl Br");
    t.type("datum station Al Ar -50");
    CHECK(t.b.datum.size() == 6);
    t.type("datum station Al 0"); // another one takes its place
    CHECK(t.b.datum.size() == 6);
    t.type("datum plane Al Ar Br"); // so do other pads
    CHECK(t.b.datum.size() == 6);
    t.type("datum free");
    REQUIRE(t.b.datum.size() == 1);
    CHECK(t.b.datum.begin()->second.kind == DatumKind::Free);
    t.type("datum upright Al Bl");
    CHECK(t.b.datum.size() == 1);
    t.type("datum held");
    CHECK(t.b.datum.empty());
    CHECK(t.wrong("datum held").find("already") != std::string::npos);
    CHECK(t.wrong("datum plane Al Ar").find("3 points") != std::string::npos);
    CHECK(t.wrong("datum centred Al Ar Bl").find("right point") != std::string::npos);
    CHECK(t.wrong("datum plane Al Ar Zz").find("no point Zz") != std::string::npos);
    CHECK(t.wrong("datum sideways Al").find("not known") != std::string::npos);
    t.type("datum level Al Ar");
    CHECK(entry::understand(t.b, t.context, "remove Al")->doubt.find("the datum") != std::string::npos);
}

TEST_CASE("the drawing, and what is in the way", "[entry]") {
    Typist t;
    t.type("drawing Al 0 -420 310 from works drawing");
    t.type("drawing Ar - - 311");
    REQUIRE(t.b.drawing.size() == 2);
    CHECK_FALSE(t.b.drawing.rbegin()->second.x_mm);
    t.type("drawing flat");
    CHECK(t.b.drawing.size() == 4);
    for (const auto& [id, d] : t.b.drawing) CHECK(*d.z_mm == 0);
    CHECK(t.b.drawing.begin()->second.source == "works drawing");
    CHECK(t.wrong("drawing Al - - -").find("must give") != std::string::npos);
    t.type("remove drawing Ar");
    t.type("remove drawing all");
    CHECK(t.b.drawing.empty());
    t.type("blocked engine 900 200 300 -300 100 700"); // whichever end comes first
    const Obstacle& o = t.b.obstacles.begin()->second;
    CHECK(o.from.x_mm == 200);
    CHECK(o.to.y_mm == 300);
    t.type("blocked engine 200 800 -300 300 100 700");
    CHECK(t.b.obstacles.size() == 1);
    CHECK(t.wrong("blocked tank 1 1 2 3 4 5").find("two different") != std::string::npos);
    t.type("remove blocked engine");
    CHECK(t.b.obstacles.empty());
}

TEST_CASE("what was found is kept with who, when and how much", "[entry][found]") {
    Typist t;
    t.context.who = "M.";
    t.context.now_utc = "2026-03-01T08:00:00Z";
    t.type("found thin Bl 1.9 of 4 note under the bracket");
    const Flaw& thin = t.b.flaws.begin()->second;
    CHECK(thin.amount->value == Approx(1.9));
    CHECK(thin.nominal->value == Approx(4));
    CHECK(thin.who == "M.");
    t.type("found thin Bl 1.7"); // measured again: the rest stays
    REQUIRE(t.b.flaws.size() == 1);
    CHECK(t.b.flaws.begin()->second.nominal->value == Approx(4));
    CHECK(t.b.flaws.begin()->second.note == "under the bracket");
    t.type("found crack Ar 35 way between the bolts");
    CHECK(t.b.flaws.rbegin()->second.direction == "between the bolts");
    t.type("found layers \"sill left\" 3");
    CHECK(t.b.flaws.rbegin()->second.part == "sill left");
    CHECK(t.b.flaws.rbegin()->second.layers == 3);
    t.type("found play \"front left lower arm\" 0.8 way up and down");
    t.type("found seized \"track rod end\"");
    t.type("found thin Bl photo " + std::string(64, 'a'));
    CHECK(t.b.flaws.begin()->second.photo.size() == 64);
    CHECK(t.wrong("found thin Bl 5 of 4").find("thicker than new") != std::string::npos);
    CHECK(t.wrong("found layers Bl").find("How many") != std::string::npos);
    CHECK(t.wrong("found mice Bl").find("not known") != std::string::npos);
    CHECK(t.wrong("found crack Bl photo 12").find("64 signs") != std::string::npos);
    t.type("remove found seized \"track rod end\"");
    t.type("remove found thin Bl");
    CHECK(t.wrong("remove found thin Bl").find("There is no flaw") != std::string::npos);
    t.type("rate hour 60");
    t.type("rate other-frame 900");
    t.type("rate patch-hours 5");
    t.type("rate money crowns");
    CHECK(*t.b.rates.hour == 60);
    CHECK(t.b.rates.patch_hours == 5);
    CHECK(t.b.rates.money == "crowns");
    t.type("rate hour unknown");
    CHECK_FALSE(t.b.rates.hour);
    CHECK(t.wrong("rate patch-hours many").find("not a number") != std::string::npos);
    CHECK(t.wrong("rate patch-hours -2").find("must be between 0 and") != std::string::npos);
    CHECK(t.wrong("rate tea 3").find("not known") != std::string::npos);
}

TEST_CASE("weights and run-out at a wheel", "[entry]") {
    Typist t;
    t.type("weight front-left 312 kg");
    t.type("run-out front-left 0.6");
    const WheelReadings& w = t.b.wheels.begin()->second;
    CHECK(w.weight->value == Approx(312));
    CHECK(w.run_out->value == Approx(0.6));
    CHECK(t.b.wheels.size() == 1);
    CHECK_FALSE(t.wrong("weight front-left heavy").empty());
}

TEST_CASE("answers are for practice frames", "[entry][practice]") {
    Typist t;
    CHECK(t.wrong("answer twist 3").find("no practice frame") != std::string::npos);
    CHECK(t.wrong("hand-in").find("no practice frame") != std::string::npos);
    REQUIRE(enact(t.b, Change{Set<Practice>{{true, 4, 1, false}}}));
    CHECK(t.wrong("hand-in").find("said nothing yet") != std::string::npos);
    t.type("answer twist 3");
    t.type("answer twist straight");
    CHECK(t.b.answers.size() == 1);
    CHECK_FALSE(t.b.answers.begin()->second.value);
    t.type("answer reading Al Br");
    CHECK(t.wrong("answer reading Br Al").find("said so already") != std::string::npos);
    CHECK(t.wrong("answer colour 3").find("not known") != std::string::npos);
    t.type("hand-in");
    CHECK(t.b.practice.marked);
}

} // namespace entry_survey_entry_test
