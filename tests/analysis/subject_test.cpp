// Another frame and an engine, each surveyed on axes of its own beside body and chassis.
#include "analysis/cards.hpp"
#include "analysis/export.hpp"
#include "analysis/results.hpp"
#include "analysis/views.hpp"
#include "entry/entry.hpp"
#include "formats/readings_csv.hpp"
#include "prompt/context.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

#include <fmt/format.h>

namespace analysis_subject_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

struct Typist {
    Build b;
    entry::Context context;
    std::string type(const std::string& line) {
        INFO(line);
        auto understood = entry::understand(b, context, line);
        if (!understood) return understood.error().text();
        if (auto kept = enact(b, understood->edit); !kept) FAIL(kept.error().text());
        if (understood->subject) context.subject = *understood->subject;
        return {};
    }
    void all(std::initializer_list<const char*> lines) {
        for (const char* line : lines) CHECK(type(line).empty());
    }
    /// Four corners of a frame `longer` than 2000, every distance and height read, one side `raised`.
    void frame(double longer, double raised) {
        const double x[] = {0, 0, 2000 + longer, 2000 + longer};
        const double y[] = {-400, 400, -400, 400};
        const double z[] = {300, 300, 300, 300 + raised};
        const char* names[] = {"Al", "Ar", "Bl", "Br"};
        for (int i = 0; i < 4; ++i) CHECK(type(fmt::format("point {} rail {} {} {}", names[i], x[i], y[i], z[i])).empty());
        for (int i = 0; i < 4; ++i) {
            CHECK(type(fmt::format("height {} {}", names[i], z[i])).empty());
            for (int j = i + 1; j < 4; ++j)
                CHECK(type(fmt::format("{} {} {:.1f}", names[i], names[j], std::hypot(x[i] - x[j], y[i] - y[j], z[i] - z[j])))
                          .empty());
        }
        all({"datum station Al Ar 0", "datum centred Al Ar", "datum centred Bl Br"});
    }
};

} // namespace

TEST_CASE("each subject is solved by itself and judged as what it is", "[analysis][subject]") {
    Typist t;
    t.frame(0, 0);
    t.all({"subject second candidate note seen on Friday"});
    CHECK(kindOf(t.b, t.context.subject) == SubjectKind::Candidate);
    t.frame(150, 30); // twisted
    const auto r = analysis::analyse(t.b, 1);
    const SubjectId second = subjectNamed(t.b, "second")->id;
    REQUIRE(r.chassis.solution->status == tape::Status::Solved);
    REQUIRE(r.of(second).solution->status == tape::Status::Solved);
    const auto at = [&](SubjectId s, const char* name) { return *r.of(s).positionOf(pointNamed(t.b, s, name)->id); };
    CHECK(at(the_chassis, "Bl").x_mm == Approx(2000).margin(0.5));
    CHECK(at(second, "Bl").x_mm == Approx(2150).margin(0.5));
    CHECK(at(second, "Br").z_mm - at(second, "Bl").z_mm == Approx(30).margin(0.5));
    // it is judged as a frame, and what is said of it is said of it alone
    int of_second = 0;
    for (const auto& f : r.findings) {
        if (f.subject.find("chassis") != std::string::npos) CHECK(f.word != "Fails");
        if (f.sentence.find("second") != std::string::npos || f.subject.find("second") != std::string::npos) ++of_second;
    }
    CHECK(of_second > 0);
    // nothing of it hangs on The Rule, which is the chassis'
    for (const auto& f : r.findings)
        if (f.subject == "second") CHECK_FALSE(f.station_mm);
    // what did not change is taken over
    const auto again = analysis::analyse(t.b, 2, &r);
    CHECK(again.of(second).solution->points.size() == r.of(second).solution->points.size());
    CHECK(again.findings.size() == r.findings.size());
    // its sheets carry its name
    const auto folder = test::freshFolder("subject-export");
    const auto files = analysis::exportAll(t.b, r, folder);
    REQUIRE(files);
    for (const char* name : {"survey-second.pdf", "readings-second.csv", "points-second.csv", "survey-chassis.pdf"})
        CHECK(std::filesystem::exists(folder / name));
    // and it comes back through CSV under its name
    const std::string csv = formats::writeReadings(t.b, second);
    Build fresh;
    REQUIRE(enact(fresh, Change{Put<Subject>{{SubjectId{5}, "third", SubjectKind::AsBuilt, {}}}}));
    const auto read = formats::readReadings(csv, fresh, SubjectId{5}, {}, "import");
    REQUIRE(read);
    CHECK(read->problems.empty());
    REQUIRE(enact(fresh, read->edit));
    CHECK(pointNamed(fresh, SubjectId{5}, "Br"));
    CHECK_FALSE(pointNamed(fresh, the_chassis, "Br"));
}

TEST_CASE("what was found on another frame is judged there and counts for nothing here", "[analysis][subject]") {
    Typist t;
    t.frame(0, 0);
    t.all({"rail 100 x 60 x 4 box top", "subject second candidate"});
    t.frame(0, 0);
    t.all({"found thin Bl 1.0 of 4", "found rust Br 0.5 of 4"});
    auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.repair.flaws.size() == 2);
    CHECK(r.repair.flaws[0].verdict == PlanVerdict::Fails);
    CHECK(r.repair.advised < 0);
    CHECK(r.repair.ways.empty());
    CHECK(r.repair.sentence.empty()); // and nobody says that nothing more than cleaning is needed
    int said = 0;
    for (const auto& f : r.findings) {
        if (f.subject != "Bl" && f.subject != "Br") continue;
        ++said;
        CHECK_FALSE(f.station_mm); // it is not on this chassis
    }
    CHECK(said == 2);
    t.all({"subject chassis", "found thin Bl 1.0 of 4"});
    r = analysis::analyse(t.b, 2);
    CHECK(r.repair.advised >= 0);
}

TEST_CASE("a subject is turned to, made, used and taken away on the line", "[entry][subject]") {
    Typist t;
    CHECK(t.type("subject mill").find("There is no subject mill. There are body, chassis. A new one says what it is") == 0);
    CHECK(t.type("subject mill sideways").find("body, chassis, candidate, component or as-built") != std::string::npos);
    CHECK(t.type("subject mill chassis").find("one chassis") != std::string::npos);
    t.all({"subject mill component", "point Fl 0 -100 0", "point Fr 0 100 0", "Fl Fr 200", "subject body", "subject mill",
           "point Q 300 0 0"});
    CHECK(pointNamed(t.b, t.context.subject, "Q"));
    CHECK_FALSE(pointNamed(t.b, the_chassis, "Q"));
    CHECK(entry::understand(t.b, t.context, "remove subject mill")->doubt ==
          "With it goes what hangs on it: 3 points (Fl, Fr, Q) and 1 reading (Fl–Fr)");
    CHECK(t.type("pin along mill:Fl to chassis:Al").find("Fl") != std::string::npos);
    // everything that can be shown of it is shown
    const auto r = analysis::analyse(t.b, 1);
    const SubjectId mill = t.context.subject;
    CHECK(analysis::cardFor(t.b, r, mill, fmt::format("point:{}", pointNamed(t.b, mill, "Fl")->id.value)));
    CHECK_FALSE(analysis::tapeView(t.b, r, mill, {}, 800, 500, {}).items.empty());
    t.all({"remove Fl Fr", "remove Fl", "remove Fr", "remove Q"});
    t.all({"blocked stand 100 200 -50 50 0 100", "datum free", "session tuesday inverted stands", "remove session tuesday",
           "remove subject mill"});
    CHECK_FALSE(subjectNamed(t.b, "mill"));
    CHECK(t.context.subject == the_chassis);
}

} // namespace analysis_subject_test
