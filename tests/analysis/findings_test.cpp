// Every finding can be provoked, says what it means, and goes away when its remedy is taken.
#include "analysis/findings.hpp"
#include "entry/entry.hpp"
#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>

using namespace gorvet;
using analysis::Bench;

namespace {

build::Build demo() {
    static const build::Build b = [] {
        const auto path = test::demoBuild(test::freshFolder("findings-demo"));
        auto store = store::Store::open(path);
        REQUIRE(store);
        return (*store)->build();
    }();
    return b;
}

void type(build::Build& b, const std::string& line, build::Subject subject = build::Subject::Chassis) {
    INFO(line);
    auto understood = entry::understand(b, {subject, {}, {}}, line);
    if (!understood) FAIL(understood.error().text());
    REQUIRE(build::enact(b, understood->edit));
}

std::vector<const analysis::Finding*> withCode(const analysis::Results& r, const std::string& code) {
    std::vector<const analysis::Finding*> list;
    for (const auto& f : r.findings)
        if (f.code == code) list.push_back(&f);
    return list;
}

} // namespace

TEST_CASE("each finding appears when its cause does", "[analysis][demo]") {
    struct Case {
        std::string code;
        std::vector<std::string> lines;
        std::string part; ///< of its sentence
        sheet::Severity severity;
    };
    using sheet::Severity;
    const std::vector<Case> cases = {
        {"tape.unfixed", {"point New 500 0 500", "New Al 1100"}, "of New", Severity::Warn},
        {"tape.mixed-supports", {"session friday inverted trestles", "Al Ar 860.5"}, "unlike supports", Severity::Warn},
        {"tape.diamond", {}, "The chassis is out: diamond", Severity::Bad},
        {"tape.retape", {}, "Bl–Dr was read as", Severity::Bad},
        {"sit.pin-miss", {"arch front tol 0.5", "hinge 600 tol 1"}, "misses by", Severity::Bad},
        {"sit.open", {"remove pin arch-rear"}, "Nothing asks for a wheelbase", Severity::Warn},
        {"stretch.near", {"cut 1150"}, "from the gearbox mount G. Needs 150.0 mm.", Severity::Warn},
        {"stretch.in-the-piece", {"cut 1000"}, "The gearbox mount G stands in the piece that comes out.", Severity::Bad},
        {"stretch.heat-treated", {"rail heat-treated"}, "heat-treated", Severity::Bad},
        {"stretch.outside-wheelbase", {"cut -300"}, "outside the wheelbase", Severity::Bad},
        {"stretch.kick-up", {"cut 2000"}, "The rail slopes", Severity::Warn},
        {"stretch.sleeve-fit", {"sleeve-fit 3"}, "fit is 3.0 mm a side", Severity::Warn},
        {"stretch.sleeve-overlap", {"overlap 1"}, "overlaps 1.0 rail heights", Severity::Bad},
        {"stretch.section-assumed", {"rail 100? x 60 x 4 box top"}, "section is assumed", Severity::Warn},
        {"stretch.short-piece", {"change 25"}, "new piece is only", Severity::Warn},
        {"make.mount", {"biscuit 60"}, "Washer and biscuit need 54.0", Severity::Bad},
        {"make.crossmember-below-rail", {"isolator 150"}, "below the rails", Severity::Bad},
        {"make.crossmember-hangs-below", {"isolator 85"}, "hangs", Severity::Warn},
        {"make.crossmember-no-clearance", {"end-clearance 0.2"}, "0.5 to come out again", Severity::Warn},
        {"make.crossmember-assumed", {"isolator 38?"}, "assumed sizes", Severity::Warn},
        {"make.crossmember-strength", {}, "strength is not checked", Severity::Warn},
    };
    for (const auto& c : cases) {
        INFO(c.code);
        build::Build b = demo();
        for (const auto& line : c.lines) type(b, line);
        const auto r = analysis::analyse(b, 1);
        const auto found = withCode(r, c.code);
        for (const auto& f : r.findings) UNSCOPED_INFO(f.code << ": " << f.sentence);
        REQUIRE_FALSE(found.empty());
        bool said = false;
        for (const auto* f : found) said = said || (f->sentence.find(c.part) != std::string::npos && f->severity == c.severity);
        CHECK(said);
        for (const auto* f : found) {
            CHECK_FALSE(f->word.empty());
            CHECK_FALSE(f->subject.empty());
        }
    }
}

TEST_CASE("pins wait for the ground, mounts and crossmember for what they stand on", "[analysis][demo]") {
    build::Build b = demo();
    b.axles.front.reset();
    auto r = analysis::analyse(b, 1);
    CHECK(withCode(r, "sit.pin-waits").size() == 2); // the two sill heights
    CHECK(withCode(r, "sit.pin-waits")[0]->sentence.find("type the tyre radii") != std::string::npos);
    b = demo();
    b.readings.clear();
    r = analysis::analyse(b, 1);
    CHECK(withCode(r, "make.mount-waits").size() == 6);
    CHECK(withCode(r, "make.crossmember-waits").size() == 1);
    CHECK(withCode(r, "sit.pin-waits").size() == b.pins.size());
}

TEST_CASE("findings are sorted: by bench, the worst first", "[analysis][demo]") {
    build::Build b = demo();
    type(b, "cut 1000");
    type(b, "biscuit 60");
    const auto r = analysis::analyse(b, 1);
    for (size_t i = 1; i < r.findings.size(); ++i) {
        const auto& before = r.findings[i - 1];
        const auto& f = r.findings[i];
        CHECK(before.bench <= f.bench);
        if (before.bench == f.bench) CHECK(before.severity >= f.severity);
    }
    const auto worst = analysis::worstOf(r.findings, Bench::Make);
    CHECK(worst.severity == sheet::Severity::Bad);
    CHECK(worst.count == 6);
}

TEST_CASE("the remedy works: moving the cut as far as it says clears the finding", "[analysis][demo]") {
    build::Build b = demo();
    type(b, "cut 1150");
    auto r = analysis::analyse(b, 1);
    REQUIRE(withCode(r, "stretch.near").size() == 1);
    const std::string remedy = withCode(r, "stretch.near")[0]->remedy;
    INFO(remedy);
    REQUIRE(remedy.find("Move the cut ") == 0);
    CHECK(remedy.find("rearward") != std::string::npos);
    const double by = std::stod(remedy.substr(std::string("Move the cut ").size()));
    type(b, "cut " + units::fixed(1150 + by, 1));
    r = analysis::analyse(b, 2);
    CHECK(withCode(r, "stretch.near").empty());
    CHECK(r.stretch.verdict == build::PlanVerdict::Holds);
}
