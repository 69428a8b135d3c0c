// Fixtures from a build: what is drawn straight, and what is missing for it.
#include "analysis/results.hpp"
#include "entry/typist.hpp"

#include <catch2/catch.hpp>

namespace analysis_fixture_test {

using namespace gorvet;
using namespace gorvet::analysis;

TEST_CASE("a tower that draws by no figure draws to where its twin has its image", "[analysis][fixture]") {
    entry_tests::Typist t;
    t.scannedLadder("rail 100 x 60 x 3 box top");
    t.type("remove Cr");
    t.type("point Cr rail 3200 420 493"); // it hangs by 7
    t.type("coordinates Cr 3200 420 493");
    for (const char* line : {"fixture table1 pitch 50 holes 90 40", "tower Al clamp", "tower Ar clamp", "tower Bl clamp",
                             "tower Br clamp", "tower Cl", "tower Cr pull"})
        t.type(line);
    CHECK(t.echo.find("to where Cl has its image") != std::string::npos);
    const auto plan = [&] { return analyse(t.b, 1).fixtures.front(); };
    const auto straight = plan();
    REQUIRE(straight->made());
    REQUIRE(straight->towers.back().straight);
    CHECK((*straight->towers.back().straight)[2].value == Approx(7).margin(0.2));
    CHECK(straight.input().held.size() == 2);
    CHECK(straight.input().assumed.back() == "that the frame was made alike left and right, and marked so");
    // what was said goes before what is worked out
    t.type("tower Cr pull by 0 0 3");
    CHECK_FALSE(plan()->towers.back().straight);
    CHECK(plan()->towers.back().pull == "3.0 up");
    t.type("tower Cr pull");
    REQUIRE(plan()->towers.back().straight);

    t.type("tower Cl pull");
    CHECK(plan().input().missing.front().find("its twin Cr is drawn, too") != std::string::npos);
    t.type("tower Cl rest");
    t.type("remove tower Br");
    CHECK(plan().input().missing.front().find("two pairs of towers") == 0);
    CHECK_FALSE(plan()->made());
    t.type("tower Br clamp");
    t.type("remove Cl");
    CHECK(plan().input().missing.front().find("the twin of Cr") == 0);
}

} // namespace analysis_fixture_test
