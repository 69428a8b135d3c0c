// What holds a step up that no other step can open: a lift that fails, paint that dries; a coat that went on wet; nobody who
// watches.
#include "analysis/results.hpp"
#include "entry/typist.hpp"
#include "prompt/context.hpp"

namespace analysis_held_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

Typist yard() {
    Typist t;
    t.context.who = "M.";
    t.context.now_utc = "2026-11-30T08:00:00Z";
    return t;
}
void refresh(Typist& t) {
    t.context = prompt::contextFor(analysis::analyse(t.b, 1), the_chassis, t.context.who, t.context.now_utc);
}
const analysis::Finding* found(const analysis::Results& r, const std::string& code) {
    for (const analysis::Finding& f : r.findings)
        if (f.code == code) return &f;
    return nullptr;
}
std::string why(const Typist& t, const std::string& code) {
    const auto r = analysis::analyse(t.b, 1);
    const auto* s = r.work->find(code);
    REQUIRE(s);
    return s->waits_for;
}

} // namespace

TEST_CASE("a lift that fails shuts the step that it is for, until it holds", "[analysis][work][held]") {
    Typist t = yard();
    t.type("job engine-up kind lift");
    for (const char* line :
         {"lift engine way slings for engine-up weighs 200 pm 5 centre 0 0 0",
          "leg engine l 0 -200 300 long 900 rated 1000 sound", "leg engine r 0 200 300 long 900 rated 10 sound"})
        t.type(line);
    refresh(t);
    const std::string held = why(t, "job-engine-up");
    // what comes before it by its kind stands first; the lift is among its conditions either way
    const auto r = analysis::analyse(t.b, 1);
    const auto has = [](const analysis::Results& results) {
        const auto& conditions = results.work->find("job-engine-up")->conditions;
        return std::any_of(conditions.begin(), conditions.end(),
                           [](const work::Condition& c) { return !c.met && c.text.find("lift engine") != std::string::npos; });
    };
    CHECK(has(r));
    CHECK_FALSE(held.empty());
    CHECK(t.wrong("done engine-up").message.find("can't") != std::string::npos);
    t.type("leg engine r rated 1000");
    CHECK_FALSE(has(analysis::analyse(t.b, 2)));
}

TEST_CASE("what was done and is left alone holds what waits for it, by the clock", "[analysis][work][held]") {
    Typist t = yard();
    for (const char* line : {"job prime-it rests 24", "job fit-it after prime-it"}) t.type(line);
    refresh(t);
    t.type("done prime-it");
    CHECK(why(t, "job-fit-it").find("until 2026-12-01 08:00 UTC") != std::string::npos);
    refresh(t);
    CHECK(t.wrong("done fit-it").message.find("can't") != std::string::npos);
    // dry sooner than was said: said so
    t.type("job prime-it rests 0");
    CHECK(why(t, "job-fit-it").empty());
    t.type("job prime-it rests 3"); // over since eleven; it is noon
    CHECK(why(t, "job-fit-it").empty());
}

TEST_CASE("a coat that went on before the one beneath was dry is named", "[analysis][work][coats][held]") {
    Typist t = yard();
    for (const char* line : {"surface sill steel strip m2 1", "coat sill primer epoxy-primer dries 16", "coat sill top surfacer"})
        t.type(line);
    t.type("coated sill primer");
    t.context.now_utc = "2026-11-30T23:30:00Z";
    t.type("coated sill top");
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(found(r, "work.coat-wet"));
    CHECK(found(r, "work.coat-wet")->sentence.find("after 15.5 h") != std::string::npos);
    Typist dry = yard();
    for (const char* line : {"surface sill steel strip m2 1", "coat sill primer epoxy-primer dries 16", "coat sill top surfacer"})
        dry.type(line);
    dry.type("coated sill primer");
    dry.context.now_utc = "2026-12-01T00:30:00Z";
    dry.type("coated sill top");
    CHECK_FALSE(found(analysis::analyse(dry.b, 1), "work.coat-wet"));
}

TEST_CASE("before something hot is begun somebody watches", "[analysis][work][held]") {
    Typist t = yard();
    for (const char* line :
         {"absent fuel-tank", "absent battery", "absent restraints", "absent refrigerant", "job weld-it kind weld"})
        t.type(line);
    for (int k = 0; k < 9; ++k) { // until it can be begun
        refresh(t);
        const auto r = analysis::analyse(t.b, 1);
        if (r.work->find("job-weld-it")->open()) break;
        CHECK_FALSE(found(r, "work.no-permit"));
        for (const auto& s : r.work->steps)
            if (s.status == work::Status::Ready && s.open() && !s.hot) {
                t.type("done " + s.code);
                break;
            }
    }
    REQUIRE(found(analysis::analyse(t.b, 2), "work.no-permit"));
    refresh(t);
    t.type("permit weld-it watch Kim");
    CHECK_FALSE(found(analysis::analyse(t.b, 3), "work.no-permit"));
}

} // namespace analysis_held_test
