// What was found, what is assumed, the drawing and the datum: as findings, on cards, and on what they shut or mark elsewhere.
#include "analysis/cards.hpp"
#include "analysis/views.hpp"
#include "prompt/context.hpp"
#include "tape/survey_sheet.hpp"

#include <algorithm>
#include <catch2/catch.hpp>

namespace analysis_survey_findings_test {

using namespace gorvet;
using namespace gorvet::build;
using sheet::Severity;

namespace {

struct Bench {
    Build b;
    analysis::Results r;
    SubjectId subject = the_chassis;

    void type(const std::string& line) {
        INFO(line);
        const auto understood = entry::understand(b, prompt::contextFor(r, subject, "M.", "2026-03-01T08:00:00Z"), line);
        if (!understood) FAIL(understood.error().text());
        if (understood->subject) subject = *understood->subject;
        if (const auto kept = enact(b, understood->edit); !kept) FAIL(kept.error().text());
    }
    void look() { r = analysis::analyse(b, r.revision + 1, &r); }
    const analysis::Finding* find(const std::string& code) {
        for (const auto& f : r.findings)
            if (f.code == code) return &f;
        return nullptr;
    }
    /// Four pairs, 1000 apart, 800 wide at 400 high, each point fixed by coordinates and checked by heights.
    explicit Bench(double rear_left_aft = 0) {
        for (int i = 0; i < 4; ++i)
            for (const int side : {-1, 1}) {
                const std::string name = std::string(1, static_cast<char>('A' + i)) + (side < 0 ? "l" : "r");
                const std::string station = units::fixed(1000 * i + (name == "Dl" ? rear_left_aft : 0), 1);
                type("point " + name + " rail " + station + " " + std::to_string(400 * side) + " 400");
                type("coordinates " + name + " " + station + " " + std::to_string(400 * side) + " 400 sigma 0.4");
                type("height " + name + " 400");
            }
        look();
        REQUIRE(r.chassis.solution->status == tape::Status::Solved);
    }
};

std::string drawn(const sheet::Drawing& d) {
    std::string all;
    for (const auto& item : d.items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) all += t->text + "\n";
    return all;
}

} // namespace

TEST_CASE("what was found stands in the findings, on its card, on the plan, and shuts the cut", "[analysis][found]") {
    Bench t;
    t.type("found thin Bl 2.5 of 4");
    t.type("found crack Cr 35 way between the bolts");
    t.type("found rust Al");
    t.type("found play \"front left arm\" 0.6");
    t.type("found seized \"track rod end\"");
    t.type("found repair Dl");
    t.type("found layers \"sill left\" 3");
    t.type("found thin Dr 3.9 of 4"); // sound: no finding
    t.look();
    for (const char* code :
         {"tape.thin", "tape.crack", "tape.rust", "tape.play", "tape.seized", "tape.repaired-before", "tape.layers"}) {
        INFO(code);
        const auto* f = t.find(code);
        REQUIRE(f);
        CHECK_FALSE(f->sentence.empty());
        CHECK_FALSE(f->remedy.empty());
        const auto card = analysis::cardFor(t.b, t.r, the_chassis, f->tag);
        REQUIRE(card);
        CHECK(card->word == f->word);
    }
    CHECK(std::count_if(t.r.findings.begin(), t.r.findings.end(), [](const auto& f) { return f.code == "tape.thin"; }) == 1);
    CHECK(t.find("tape.thin")->figure == "2.5 of 4.0 mm left");
    CHECK(t.find("tape.thin")->severity == Severity::Bad);
    CHECK(*t.find("tape.thin")->station_mm == Approx(1000).margin(1));
    CHECK(t.find("tape.seized")->sentence == "Track rod end is seized.");
    const auto words = drawn(analysis::tapeView(t.b, t.r, the_chassis, {}, 1200, 900, sheet::Format{1}));
    CHECK(words.find("crack") != std::string::npos);
    CHECK(words.find("track rod end") != std::string::npos);
    REQUIRE(analysis::cardFor(t.b, t.r, the_chassis, "repair"));
    // a rail that fails shuts the hold point before the cut; seen to, it opens again
    CHECK(t.r.work_facts.flaw_open.find("fails") != std::string::npos);
    t.type("remove found crack Cr");
    t.type("remove found thin Bl");
    t.look();
    CHECK(t.r.work_facts.flaw_open.empty());
}

TEST_CASE("a gap that moved shuts hold points until it is measured at rest", "[analysis][gaps]") {
    Bench t;
    t.type("gap door-left 4.5 at brace in");
    t.type("gap door-left 8.5 at on the chassis");
    t.look();
    CHECK(t.r.work_facts.gap_open.find("door-left") != std::string::npos);
    t.type("gap door-left 8.6 at hinge shimmed");
    t.look();
    CHECK(t.r.work_facts.gap_open.empty());
}

TEST_CASE("points off the drawing are said, the rest of the frame is not accused", "[analysis][drawing]") {
    Bench t;
    for (int i = 0; i < 4; ++i)
        for (const int side : {-1, 1}) {
            const std::string name = std::string(1, static_cast<char>('A' + i)) + (side < 0 ? "l" : "r");
            const int x = 1000 * i + (name == "Cr" ? 9 : 0);
            t.type("drawing " + name + " " + std::to_string(x) + " " + std::to_string(400 * side) +
                   (name == "Bl" ? " -" : " 400") + " from the works");
        }
    t.look();
    const auto* f = t.find("tape.off-drawing");
    REQUIRE(f);
    CHECK(f->subject == "Cr");
    CHECK(f->sentence.find("1 point stands off the drawing") == 0);
    CHECK(std::stod(f->figure) == Approx(9).margin(0.5)); // the other points pull a little towards it
    const auto card = analysis::cardFor(t.b, t.r, the_chassis, "drawing");
    REQUIRE(card);
    CHECK(card->title == "against the works");
    CHECK(card->rows.front().label == "Cr");
    // with heights from the drawing, sag is judged
    CHECK(std::any_of(t.r.chassis.condition->figures.begin(), t.r.chassis.condition->figures.end(),
                      [](const auto& g) { return std::string(g.key) == "sag"; }));
    t.type("remove drawing all");
    t.look();
    CHECK_FALSE(t.find("tape.off-drawing"));
}

TEST_CASE("a datum whose rules fight is said; held coordinates come back untouched", "[analysis][datum]") {
    Bench t;
    const auto before = t.r.chassis.solution->points;
    t.type("datum plane Al Ar Dl 0");
    t.type("datum centred Al Ar Dl Dr");
    t.type("datum station Al Ar 0");
    t.look();
    CHECK_FALSE(t.find("tape.datum-missed"));
    CHECK(t.r.chassis.solution->points[0].position.z_mm == Approx(0).margin(1e-6));
    t.type("datum height Dr 60");
    t.look();
    const auto* f = t.find("tape.datum-missed");
    REQUIRE(f);
    CHECK_FALSE(f->figure.empty());
    t.type("datum held");
    t.look();
    CHECK(t.r.chassis.solution->points[0].position.z_mm == Approx(before[0].position.z_mm).margin(1e-9));
    CHECK_FALSE(t.find("tape.datum-missed"));
}

TEST_CASE("half a body, mirrored, can be seated, and never gets a green verdict for it", "[analysis][assumed]") {
    Bench t;
    for (const char* line : {"point FWl front-hub 100 -700 430", "coordinates FWl 100 -700 430",
                             "point FWr front-hub 100 700 430", "coordinates FWr 100 700 430", "point RWl rear-hub 2800 -700 430",
                             "coordinates RWl 2800 -700 430", "point RWr rear-hub 2800 700 430", "coordinates RWr 2800 700 430"})
        t.type(line);
    t.type("subject body");
    for (const char* line :
         {"point Hl hinge-pillar 900 -650 700", "coordinates Hl 900 -650 700", "point Sl sill-front 1000 -660 300",
          "coordinates Sl 1000 -660 300", "point Tl sill-rear 2000 -660 300", "coordinates Tl 2000 -660 300",
          "point Hr hinge-pillar", "point Sr sill-front", "point Tr sill-rear"})
        t.type(line);
    t.type("assume symmetry all");
    t.look();
    REQUIRE(t.find("tape.assumed"));
    CHECK(t.find("tape.assumed")->subject == "Hr, Sr, Tr");
    const PointId hr = pointNamed(t.b, the_body, "Hr")->id;
    CHECK(t.r.body.assumed(hr));
    CHECK_FALSE(t.r.body.positionOf(hr)); // no bench takes it for measured
    t.type("tyre front 340");
    t.type("tyre rear 340");
    t.type("pin station Hl 900 tol 5");
    t.type("pin centred Hl Hr tol 5");
    t.type("pin height Sl 210 tol 5");
    t.type("pin height Tl 210 tol 5");
    t.look();
    REQUIRE(t.r.pin_ids.size() == 4);
    for (size_t i = 0; i < t.r.pin_ids.size(); ++i) {
        const bool rests_on_it = t.b.pins.at(t.r.pin_ids[i]).kind == PinKind::Centred;
        INFO(std::string(word(t.b.pins.at(t.r.pin_ids[i]).kind)));
        REQUIRE(t.r.seat->pins[i].usable);
        if (rests_on_it) CHECK(t.r.seat->pins[i].verdict != PlanVerdict::Holds);
    }
    const auto card = analysis::cardFor(t.b, t.r, the_body, "point:" + std::to_string(hr.value));
    REQUIRE(card);
    CHECK(card->rows.front().value.find("assumed") != std::string::npos);
    CHECK(drawn(analysis::tapeView(t.b, t.r, the_body, {}, 1200, 900, sheet::Format{1})).find("Hr ?") != std::string::npos);
}

TEST_CASE("an obstacle is drawn with its name and opens its card", "[analysis]") {
    Bench t;
    t.type("blocked engine 400 1400 -200 200 100 900");
    t.look();
    CHECK(drawn(analysis::tapeView(t.b, t.r, the_chassis, {}, 1200, 900, sheet::Format{1})).find("engine") != std::string::npos);
    const auto card = analysis::cardFor(t.b, t.r, the_chassis, "obstacle:" + std::to_string(t.b.obstacles.begin()->first.value));
    REQUIRE(card);
    CHECK(card->title == "engine is in the way");
    for (const auto& next : *t.r.chassis.next)
        if (next.kind == build::ReadingKind::Tape) { // a level goes round it
            const auto& p = t.r.chassis.solution->points;
            CHECK_FALSE(tape::blocks({{400, -200, 100}, {1400, 200, 900}}, p[static_cast<size_t>(next.from)].position,
                                     p[static_cast<size_t>(next.to)].position));
        }
}

TEST_CASE("a diamond of 8 mm at one end only is named where it is, and nobody calls the frame straight", "[analysis][tape]") {
    Bench t(8); // the rear pair's left point stands 8 aft: over four pairs the whole frame's diamond is 2
    const auto& figures = t.r.chassis.condition->figures;
    const auto diamond =
        std::find_if(figures.begin(), figures.end(), [](const auto& f) { return f.kind == tape::FigureKind::Diamond; });
    REQUIRE(diamond != figures.end());
    CHECK(diamond->verdict == PlanVerdict::Holds);
    const auto* part = t.find("tape.section-diamond");
    REQUIRE(part);
    CHECK(part->severity == Severity::Bad);
    CHECK(part->sentence.find("The pair Dl–Dr is out of square by 8.0 mm") == 0);
    REQUIRE(part->station_mm);
    CHECK(*part->station_mm == Approx(3008).margin(1));
    const auto headline = analysis::headline(t.b, t.r, "tape", the_chassis);
    CHECK(headline.sentence.find("straight") == std::string::npos);
}

TEST_CASE("held figures that contradict are named in a finding; claims and few checks, too", "[analysis][tape]") {
    Bench t;
    t.type("hold Cr x 2012");
    t.type("hold Al x 0");
    t.look();
    const auto* held = t.find("tape.hold-contradicts");
    REQUIRE(held);
    CHECK(held->severity == Severity::Bad);
    CHECK(held->sentence.find("station of Cr") != std::string::npos);
    CHECK(analysis::headline(t.b, t.r, "tape", the_chassis).below.find("What is held contradicts the readings.") !=
          std::string::npos);
    t.type("remove hold Cr x");
    t.look();
    CHECK_FALSE(t.find("tape.hold-contradicts"));
    // a remembered figure
    t.type("assume Al Dl 3049");
    t.look();
    const auto* claim = t.find("tape.claim-contradicted");
    REQUIRE(claim);
    CHECK(claim->sentence.find("Al–Dl was assumed to be 3049.0 mm; the survey says 3000.0 mm") == 0);
    CHECK(claim->sentence.find("49.0 mm less") != std::string::npos);
    CHECK_FALSE(t.find("tape.few-checks"));
}

} // namespace analysis_survey_findings_test
