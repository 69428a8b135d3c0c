// A frame that is cut stands on its stands: each half by itself, with what hangs on it and bare.
#include "analysis/work_plan.hpp"
#include "entry/typist.hpp"
#include "prompt/context.hpp"

namespace analysis_stands_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

/// Rails 840 apart from −500 to 3200, axles at 0 and 2600, to be cut at 1300 and made 100 longer.
Typist yard() {
    Typist t;
    t.context.who = "M.";
    t.context.now_utc = "2026-11-30T08:00:00Z";
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (const char* line :
         {"member front crossmember at -300 box 60 60 3", "member middle crossmember at 900 box 60 60 3",
          "member rear crossmember at 1700 box 60 60 3", "member tail crossmember at 3000 box 60 60 3", "change 100", "cut 1300"})
        t.type(line);
    return t;
}
std::vector<work::WorkedLift> halves(const Typist& t) { return analysis::halvesOnStands(t.b, analysis::analyse(t.b, 1)); }
work::WorkedLift half(const std::vector<work::WorkedLift>& all, const std::string& name) {
    const auto found = std::find_if(all.begin(), all.end(), [&](const work::WorkedLift& w) { return w.name == name; });
    REQUIRE(found != all.end());
    return *found;
}
bool shut(const Typist& t) {
    const auto r = analysis::analyse(t.b, 1);
    const auto* s = r.work->find("cut-rails");
    REQUIRE(s);
    return std::any_of(s->conditions.begin(), s->conditions.end(),
                       [](const work::Condition& c) { return !c.met && c.text.find("stands by itself") != std::string::npos; });
}
void fourPairs(Typist& t) {
    for (const char* line : {"stand nose at -300 rated 1000 sound", "stand dash at 900 rated 1000 sound",
                             "stand seat at 1700 rated 1000 sound", "stand tail at 3000 rated 1000 sound"})
        t.type(line);
}

} // namespace

TEST_CASE("nothing is said of stands: nothing is judged, and that is said", "[analysis][stands]") {
    const Typist t = yard();
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.stretch->status == stretch::Status::Planned);
    CHECK(halves(t).empty());
    CHECK_FALSE(shut(t));
    CHECK(std::any_of(r.findings.begin(), r.findings.end(), [](const auto& f) { return f.code == "work.stands-unsaid"; }));
}

TEST_CASE("two pairs under each half carry it, by its lever", "[analysis][stands]") {
    Typist t = yard();
    fourPairs(t);
    const auto all = halves(t);
    REQUIRE(all.size() == 2);
    const work::WorkedLift front = half(all, "ahead-of-the-cut");
    const work::WorkedLift rear = half(all, "behind-the-cut");
    // by hand: two rails of box 100 × 60 × 4 (their section with its corners) and two bars each
    CHECK(front.rest.mass_kg > 30);
    CHECK(front.rest.mass_kg + rear.rest.mass_kg == Approx(front.rest.mass_kg * (1 + rear.rest.mass_kg / front.rest.mass_kg)));
    CHECK(front.rest.points.size() == 4);
    CHECK(front.carried.stands);
    CHECK(front.verdict() == work::LiftVerdict::Marginal); // nobody said what hangs on it
    Typist said = t;
    said.type("load gearbox 40 kg at 600 0 450 source scales");
    CHECK(half(halves(said), "ahead-of-the-cut").verdict() == work::LiftVerdict::Holds);
    said.type("load gearbox 40 kg?");
    CHECK(half(halves(said), "ahead-of-the-cut").verdict() == work::LiftVerdict::Marginal);
    double sum = 0, moment = 0;
    for (std::size_t k = 0; k < front.rest.points.size(); ++k) {
        sum += front.carried.loads[k].load_kg;
        moment += front.carried.loads[k].load_kg * front.rest.points[k].at.x_mm;
    }
    CHECK(sum == Approx(front.rest.mass_kg));
    CHECK(moment / sum == Approx(front.rest.centre.x_mm).margin(1e-6));
    CHECK_FALSE(shut(t));
    const auto r = analysis::analyse(t.b, 1);
    CHECK(r.work->find("support-frame")->why.find("nose at") != std::string::npos);
    CHECK(std::none_of(r.findings.begin(), r.findings.end(), [](const auto& f) { return f.code == "work.stands-unsaid"; }));
}

TEST_CASE("a half on one pair, or with its middle beyond its pairs, tips: the cut is shut", "[analysis][stands]") {
    Typist t = yard();
    fourPairs(t);
    t.type("remove stand tail");
    CHECK(half(halves(t), "behind-the-cut").verdict() == work::LiftVerdict::Fails); // a seesaw
    CHECK(half(halves(t), "ahead-of-the-cut").verdict() != work::LiftVerdict::Fails);
    CHECK(shut(t));
    // its middle is near 2260: pairs at 1700 and 2000 leave it to fall on its tail
    t.type("stand tail at 2000 rated 1000 sound");
    CHECK(shut(t));
    t.type("stand tail at 3000");
    CHECK_FALSE(shut(t));
    // none under the front half
    t.type("remove stand nose");
    t.type("remove stand dash");
    CHECK(shut(t));
    CHECK_FALSE(half(halves(t), "ahead-of-the-cut").carried.why_not.empty());
}

TEST_CASE("an engine on the nose: it must stand with it and without", "[analysis][stands]") {
    Typist t = yard();
    fourPairs(t);
    t.type("load engine 250 kg at -200 0 600 over 300");
    CHECK(halves(t).size() == 3); // the front half twice
    CHECK_FALSE(shut(t));
    t.type("stand nose at 0"); // with the engine its middle is ahead of it
    CHECK_FALSE(half(halves(t), "ahead-of-the-cut").carried.stands);
    CHECK(half(halves(t), "ahead-of-the-cut-bare").carried.stands);
    CHECK(shut(t));
    t.type("load engine with-body"); // what goes with the body hangs on it no more
    CHECK(halves(t).size() == 2);
    CHECK_FALSE(shut(t));
    // overloaded
    t.type("load engine on-frame");
    t.type("stand nose at -300 rated 100");
    CHECK(shut(t));
    t.type("stand nose rated 1000");
    CHECK_FALSE(shut(t));
}

TEST_CASE("a pair under the piece that comes out carries neither half, and is said", "[analysis][stands]") {
    Typist t = yard();
    fourPairs(t);
    t.type("load gearbox 40 kg at 600 0 450 source scales");
    t.type("change -200");
    CHECK(half(halves(t), "behind-the-cut").verdict() == work::LiftVerdict::Holds);
    t.type("stand lost at 1400 rated 1000 sound");
    const auto rear = half(halves(t), "behind-the-cut");
    CHECK(rear.verdict() == work::LiftVerdict::Marginal);
    CHECK(rear.remarks().back().sentence.find("lost") != std::string::npos);
    CHECK(rear.rest.points.size() == 4);
}

TEST_CASE("how the ends part, and the tube that holds them", "[analysis][stands]") {
    Typist t = yard();
    CHECK_FALSE(analysis::partWays(t.b, analysis::analyse(t.b, 1)));
    fourPairs(t);
    const auto light = analysis::partWays(t.b, analysis::analyse(t.b, 1));
    REQUIRE(light);
    // a load on the end behind the cut drops it
    t.type("load gearbox 120 kg at 1350 0 500");
    const auto heavy = analysis::partWays(t.b, analysis::analyse(t.b, 1));
    CHECK(heavy->step_mm > light->step_mm + 0.1);
    CHECK_FALSE(heavy->tube.empty());
    CHECK(heavy->left_mm <= 0.3);
    // stands nearer to the cut: the ends hardly move
    t.type("stand dash at 1200");
    t.type("stand seat at 1450");
    const auto near = analysis::partWays(t.b, analysis::analyse(t.b, 1));
    CHECK(std::abs(near->step_mm) < std::abs(heavy->step_mm));
    const auto r = analysis::analyse(t.b, 1);
    CHECK(r.work->find("tie-rails")->why.find("When it parts") != std::string::npos);
}

TEST_CASE("a cut through what is not said to weigh anything waits with a word", "[analysis][stands]") {
    Typist t = yard();
    fourPairs(t);
    for (const char* m : {"front", "middle", "rear", "tail"}) t.type(std::string("remove member ") + m);
    const auto all = halves(t);
    REQUIRE(all.size() == 2);
    CHECK(all.front().waits.find("joins the rails") != std::string::npos);
    CHECK_FALSE(all.front().remedy.empty());
}

TEST_CASE("hot work is ticked with its permit, or with the reason why there was none", "[analysis][work][permit]") {
    Typist t;
    t.context.who = "M.";
    t.context.now_utc = "2026-11-30T08:00:00Z";
    t.type("job bracket kind weld");
    const auto refresh = [&] {
        t.context = prompt::contextFor(analysis::analyse(t.b, 1), the_chassis, t.context.who, t.context.now_utc);
    };
    refresh();
    for (const auto& s : t.context.steps)
        if (s.code == "job-bracket") CHECK(s.hot);
    // what must come first is made
    for (int n = 0; n < 12; ++n) {
        const auto ready = std::find_if(t.context.steps.begin(), t.context.steps.end(), [](const entry::StepState& s) {
            return !s.done && s.closed.empty() && s.code != "job-bracket";
        });
        if (ready == t.context.steps.end()) break;
        t.type("done " + ready->code + " note so");
        refresh();
    }
    const auto& bracket = *std::find_if(t.context.steps.begin(), t.context.steps.end(),
                                        [](const entry::StepState& s) { return s.code == "job-bracket"; });
    REQUIRE(bracket.closed.empty());
    const auto error = t.wrong("done bracket");
    CHECK(error.message.find("watch for fire") != std::string::npos);
    CHECK(error.remedy.find("permit bracket watch") != std::string::npos);
    Typist without = t;
    CHECK(without.understood("done bracket note nobody else was there").remark.find("without a permit") != std::string::npos);
    t.type("permit bracket watch Kim");
    refresh();
    CHECK(t.understood("done bracket").remark.empty());
    t.type("done bracket");
    CHECK(tickOf(t.b, "job-bracket"));
}

TEST_CASE("what is tightened on its wheels is asked about while it stands on stands", "[analysis][work][torque]") {
    Typist t;
    t.context.who = "M.";
    t.context.now_utc = "2026-11-30T08:00:00Z";
    for (const char* line :
         {"tag bush area rear torque 90 on-wheels", "tag clip area rear torque 20", "refit bush", "refit clip"})
        t.type(line);
    t.context.knows_work = true;
    t.context.support = Support::Stands;
    CHECK(t.understood("torqued bush").doubt.find("weight on its wheels") != std::string::npos);
    CHECK(t.understood("torqued clip").doubt.empty());
    t.context.support = Support::Wheels;
    CHECK(t.understood("torqued bush").doubt.empty());
}

} // namespace analysis_stands_test
