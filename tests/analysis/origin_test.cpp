// Where station 0 is: on every sheet, from what it really counts.
#include "analysis/export.hpp"
#include "analysis/origin.hpp"

#include "support/support.hpp"

#include "entry/entry.hpp"

#include <catch2/catch.hpp>
#include <filesystem>

namespace analysis_origin_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

void type(Build& b, const std::string& line) {
    INFO(line);
    auto understood = entry::understand(b, {the_chassis, {}, {}}, line);
    if (!understood) FAIL(understood.error().text());
    REQUIRE(enact(b, understood->edit));
}

/// A frame whose 0 is a hole 380 ahead of the front axle.
Build fromTheHole() {
    Build b;
    for (const char* line : {"point Hornl rail 0 -420 300", "point Hornr rail 0 420 300", "point FWl front-hub 380 -720 300",
                             "point FWr front-hub 380 720 300", "point Bl rail 3000 -420 300", "point Br rail 3000 420 300",
                             "point RWl rear-hub 3170 -720 300", "point RWr rear-hub 3170 720 300", "hold Hornl x 0",
                             "hold Hornl y -420", "hold Bl y -420"})
        type(b, line);
    const char* names[] = {"Hornl", "Hornr", "FWl", "FWr", "Bl", "Br", "RWl", "RWr"};
    const double at[][2] = {{0, -420}, {0, 420}, {380, -720}, {380, 720}, {3000, -420}, {3000, 420}, {3170, -720}, {3170, 720}};
    for (int i = 0; i < 8; ++i) {
        type(b, std::string("height ") + names[i] + " 300");
        for (int j = i + 1; j < 8; ++j)
            type(b, std::string(names[i]) + " " + names[j] + " " +
                        units::fixed(std::hypot(at[i][0] - at[j][0], at[i][1] - at[j][1]), 1));
    }
    return b;
}

} // namespace

TEST_CASE("with zero at a hole 380 ahead of the axle every sheet says from the hole, and it is warned of", "[analysis][origin]") {
    Build b = fromTheHole();
    auto r = analysis::analyse(b, 1);
    REQUIRE(r.chassis.solution->status == tape::Status::Solved);
    const auto o = analysis::originOf(b, r);
    CHECK(o.from == "from Hornl");
    CHECK_FALSE(o.at_axle);
    REQUIRE(o.axle_mm);
    CHECK(*o.axle_mm == Approx(380).margin(1));
    CHECK(o.axle_words.find(", the front axle stands at 380") == 0);
    const auto warned =
        std::find_if(r.findings.begin(), r.findings.end(), [](const auto& f) { return f.code == "tape.zero-not-axle"; });
    REQUIRE(warned != r.findings.end());
    CHECK(warned->sentence.find("Stations count from Hornl, the front axle stands at 380") == 0);
    // a cut: headline, order of work and paper
    for (const char* line : {"rail 100 x 60 x 4 box top", "change -140", "cut 2000"}) type(b, line);
    r = analysis::analyse(b, 2);
    REQUIRE(r.stretch->status == stretch::Status::Planned);
    CHECK(analysis::headline(b, r, "stretch", the_chassis).sentence.find("Cut at 2000.0 from Hornl and take out") == 0);
    const auto* scribe = r.work->find("scribe");
    REQUIRE(scribe);
    CHECK(scribe->title.find("from Hornl, the front axle stands at 380") != std::string::npos);
    const auto folder = test::freshFolder("origin");
    REQUIRE(analysis::exportAll(b, r, folder));
    const auto text = test::run("pdftotext -layout " + (folder / "build-sheet.pdf").string() + " -");
    CHECK(text.out.find("stations from Hornl") != std::string::npos);
    CHECK(text.out.find("from the front axle") == std::string::npos);
    // held at the axle it is the axle
    for (const char* line : {"remove hold Hornl x", "hold FWl x 0"}) type(b, line);
    r = analysis::analyse(b, 3);
    CHECK(analysis::originOf(b, r).from == "from the front axle");
    CHECK(std::none_of(r.findings.begin(), r.findings.end(), [](const auto& f) { return f.code == "tape.zero-not-axle"; }));
    // held at another figure than 0
    for (const char* line : {"remove hold FWl x", "hold Bl x 2900"}) type(b, line);
    CHECK(analysis::originOf(b, analysis::analyse(b, 4)).from == "from a place 2900.0 ahead of Bl");
}

} // namespace analysis_origin_test
