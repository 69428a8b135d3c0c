// The one sentence of each bench, as the build grows: it must say what is missing, then the answer with its ±.
#include "analysis/results.hpp"
#include "entry/entry.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace analysis_headline_test {

using namespace gorvet;

namespace {

struct Grower {
    build::Build b;
    build::SubjectId subject = build::the_chassis;

    void type(const std::string& line) {
        auto understood = entry::understand(b, {subject, {}, {}}, line);
        INFO(line);
        if (!understood) FAIL(understood.error().text());
        if (understood->subject) subject = *understood->subject;
        auto kept = build::enact(b, understood->edit);
        REQUIRE(kept);
    }
    analysis::Results results() const { return analysis::analyse(b, 1); }
    std::string sentence(std::string_view bench) const { return analysis::headline(b, results(), bench, subject).sentence; }
    std::string below(std::string_view bench) const { return analysis::headline(b, results(), bench, subject).below; }

    /// Four corners taped in a plane: sides, diagonals, heights; the left rail `lean` aft of the right.
    void rectangle(double lean, double twist = 0) {
        type("point Al rail 0 -400 500");
        type("point Ar rail 0 400 500");
        type("point Bl rail 2600 -400 500");
        type("point Br rail 2600 400 500");
        type("hold Al x 0");
        type("hold Al y -400");
        type("hold Bl y -400");
        const std::vector<std::pair<std::string, build::Vec3>> at = {{"Al", {0, -400, 500}},
                                                                     {"Ar", {-lean, 400, 500 + twist}},
                                                                     {"Bl", {2600, -400, 500}},
                                                                     {"Br", {2600 - lean, 400, 500}}};
        for (size_t i = 0; i < at.size(); ++i) {
            // each height three times over, so that twist is sharp enough to judge
            for (int k = 0; k < 3; ++k) type("height " + at[i].first + " " + units::fixed(at[i].second.z_mm, 1));
            for (size_t j = i + 1; j < at.size(); ++j) {
                const auto& a = at[i].second;
                const auto& c = at[j].second;
                const double d = std::hypot(c.x_mm - a.x_mm, c.y_mm - a.y_mm, c.z_mm - a.z_mm);
                for (int k = 0; k < 3; ++k) type(at[i].first + " " + at[j].first + " " + units::fixed(d, 1));
            }
        }
    }
};

bool contains(const std::string& text, const std::string& part) {
    INFO(text);
    CHECK(text.find(part) != std::string::npos);
    return text.find(part) != std::string::npos;
}

} // namespace

TEST_CASE("Tape says first what it lacks", "[analysis]") {
    Grower g;
    CHECK(g.sentence("tape") == "Nothing of the chassis is marked yet.");
    g.type("point Al rail 0 -400 500");
    g.type("point Ar rail 0 400 500");
    CHECK(g.sentence("tape") == "2 points of the chassis and no reading yet.");
    g.type("Al Ar 800");
    CHECK(g.sentence("tape") == "The chassis's shape is not fixed yet.");
    contains(g.below("tape"), "Nothing holds the survey");
    g.subject = build::the_body;
    CHECK(g.sentence("tape") == "Nothing of the body is marked yet.");
}

TEST_CASE("Tape says what shape the frame is in", "[analysis]") {
    SECTION("straight") {
        Grower g;
        g.rectangle(0);
        contains(g.sentence("tape"), "The chassis is straight: nothing is out by more than");
    }
    SECTION("diamond") {
        Grower g;
        g.rectangle(9);
        contains(g.sentence("tape"), "Not square: the left rail stands 9.0 mm aft of the other, ±");
        for (const auto& f : g.results().findings)
            if (f.code == "tape.diamond") CHECK(f.severity == sheet::Severity::Bad);
    }
    SECTION("diamond the other way") {
        Grower g;
        g.rectangle(-9);
        contains(g.sentence("tape"), "the right rail stands 9.0 mm aft");
    }
    SECTION("twist") {
        Grower g;
        g.rectangle(0, 14);
        contains(g.sentence("tape"), "Twisted by 14.0 mm");
        contains(g.sentence("tape"), "right side high at the front");
    }
    SECTION("in inches, when the build is in inches") {
        Grower g;
        g.rectangle(9);
        g.type("show inch 1/16");
        contains(g.sentence("tape"), "0.354\"");
    }
    SECTION("a wider tolerance forgives more") {
        Grower g;
        g.rectangle(9);
        g.type("tolerance 15");
        contains(g.sentence("tape"), "straight");
    }
}

TEST_CASE("Sit, Stretch and Make say what they wait for", "[analysis]") {
    Grower g;
    contains(g.sentence("sit"), "Nothing of the chassis is marked yet.");
    contains(g.below("sit"), "Nothing of the body is marked yet.");
    contains(g.sentence("stretch"), "Nothing of the chassis is marked yet.");
    contains(g.sentence("make"), "The places where the body bolts down are not marked on it.");
    g.rectangle(0);
    g.type("subject body");
    g.type("point Hl hinge-pillar 500 -600 700");
    g.type("point Hr hinge-pillar 500 600 700");
    g.type("point Ml body-mount 400 -400 600");
    contains(g.sentence("sit"), "The body's readings do not fix its shape yet.");
    contains(g.sentence("stretch"), "The middles of the rear arches are not marked on the body.");
    contains(g.below("stretch"), "No change of wheelbase is asked for.");
    g.type("hinge 500");
    contains(g.sentence("sit"), "The body's readings do not fix its shape yet."); // nothing of the body is taped
    g.type("mount Ml");
    contains(g.sentence("make"), "mounts wait until the body has a place");
    bool waits = false;
    for (const auto& f : g.results().findings) waits = waits || f.code == "make.mount-waits";
    CHECK(waits);
    g.type("change 300");
    contains(g.sentence("stretch"), "Put in 300.0 mm: where may it be cut?");
    g.type("rail 100 x 60 x 4 box top");
    g.type("cut 1300");
    contains(g.sentence("stretch"), "Cut at 1300.0 from Al and let in a new piece of 297.5 mm.");
    contains(g.below("stretch"), "Inner sleeve 702.0 mm long.");
    g.type("change 0");
    contains(g.sentence("stretch"), "nothing to cut");
    g.type("subject chassis");
    g.type("point G gearbox-mount 1000 0 520");
    g.type("crossmember");
    contains(g.below("make"), "The crossmember waits for the gearbox mount's position");
}

} // namespace analysis_headline_test
