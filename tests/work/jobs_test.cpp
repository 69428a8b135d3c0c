// Jobs of one's own in the order of work: against trying every order, as hands would do them, and what can't be had.
#include "sim/plan_player.hpp"
#include "work/work.hpp"

#include <catch2/catch.hpp>
#include <chrono>
#include <map>
#include <queue>
#include <random>
#include <set>

namespace work_jobs_test {

using namespace gorvet;
using namespace gorvet::build;
using work::Status;

namespace {

Job job(std::uint32_t id, const std::string& name, JobKind kind = JobKind::General) {
    Job j;
    j.id = JobId{id};
    j.name = name;
    j.kind = kind;
    return j;
}

work::Facts carWithBody() {
    work::Facts f;
    f.has_body = true;
    return f;
}

/// The place of a step, from 0.
size_t place(const work::Order& o, const std::string& code) {
    for (size_t i = 0; i < o.steps.size(); ++i)
        if (o.steps[i].code == code) return i;
    FAIL("no step " << code);
    return 0;
}

/// The fewest moves by looking at every set of done steps and every stance.
int exhaustive(const std::vector<work::Step>& steps, const work::Stance& from) {
    using Key = std::tuple<unsigned, int, int, int>;
    std::map<Key, int> best;
    std::priority_queue<std::pair<int, Key>, std::vector<std::pair<int, Key>>, std::greater<>> open;
    open.push({0, {0U, static_cast<int>(from.body), static_cast<int>(from.attitude), static_cast<int>(from.support)}});
    const unsigned all = (1U << steps.size()) - 1;
    while (!open.empty()) {
        const auto [cost, key] = open.top();
        open.pop();
        if (const auto [at, fresh] = best.emplace(key, cost); !fresh) continue;
        const auto [done, body, attitude, support] = key;
        if (done == all) return cost;
        for (size_t i = 0; i < steps.size(); ++i) {
            if (done & (1U << i)) continue;
            const work::Step& s = steps[i];
            if (s.body && static_cast<int>(*s.body) != body) continue;
            if (s.attitude && static_cast<int>(*s.attitude) != attitude) continue;
            if (s.support && static_cast<int>(*s.support) != support) continue;
            bool ready = true;
            for (const auto& code : s.after)
                for (size_t k = 0; k < steps.size(); ++k) ready = ready && !(steps[k].code == code && !(done & (1U << k)));
            const int then = s.sets_support ? static_cast<int>(*s.sets_support) : support;
            if (ready) open.push({cost, {done | (1U << i), body, attitude, then}});
        }
        const bool upright = attitude == static_cast<int>(Attitude::RightWayUp);
        if (upright) open.push({cost + 1, {done, 1 - body, attitude, support}});
        if (body == static_cast<int>(BodyPlace::Off))
            for (int a = 0; a < 3; ++a)
                if (a != attitude && (!upright || support != static_cast<int>(Support::Wheels)))
                    open.push({cost + 1, {done, body, a, support}});
        if (upright)
            for (int s = 0; s < 6; ++s)
                if (s != support) open.push({cost + 1, {done, body, attitude, s}});
    }
    return -1;
}

std::vector<work::Step> randomSteps(std::mt19937& rng, unsigned n) {
    std::vector<work::Step> steps;
    for (unsigned i = 0; i < n; ++i) {
        work::Step s;
        s.code = "s" + std::to_string(i);
        for (unsigned k = i > 12 ? i - 12 : 0; k < i; ++k)
            if (rng() % 4 == 0) s.after.push_back("s" + std::to_string(k));
        switch (rng() % 6) {
        case 0: s.body = BodyPlace::On; break;
        case 1: s.body = BodyPlace::Off; break;
        case 2: s.attitude = static_cast<Attitude>(rng() % 3); break;
        case 3: s.support = static_cast<Support>(rng() % 6); break;
        default: break;
        }
        if (s.attitude && *s.attitude != Attitude::RightWayUp) s.body = BodyPlace::Off;
        if (rng() % 12 == 0) s.sets_support = rng() % 2 ? Support::Stands : Support::Wheels;
        steps.push_back(s);
    }
    return steps;
}

} // namespace

TEST_CASE("small sets of jobs: no order needs fewer moves of body, frame and support, against trying every order",
          "[work][property]") {
    std::mt19937 rng(23);
    int moved = 0, supports = 0, sides = 0;
    for (int round = 0; round < 300; ++round) {
        const auto steps = randomSteps(rng, 3 + rng() % 8);
        const work::Stance from{rng() % 2 ? BodyPlace::On : BodyPlace::Off, Attitude::RightWayUp,
                                rng() % 2 ? Support::Stands : Support::Wheels};
        const work::Moves m = work::fewestMoves(steps, from);
        INFO("round " << round);
        REQUIRE_FALSE(m.order.empty());
        CHECK(m.exact);
        CHECK(m.least == m.moves);
        int moves = 0;
        std::set<std::string> seen;
        work::Stance at = from;
        for (const work::Step& s : m.order) {
            if (s.moves_to) {
                ++moves;
                // one thing at a time, and only what can be done
                CHECK((s.moves_to->body != at.body) + (s.moves_to->attitude != at.attitude) +
                          (s.moves_to->support != at.support) ==
                      1);
                CHECK_FALSE((s.moves_to->body == BodyPlace::On && s.moves_to->attitude != Attitude::RightWayUp));
                supports += s.moves_to->support != at.support;
                sides += s.moves_to->attitude == Attitude::OnItsSide;
                at = *s.moves_to;
                continue;
            }
            for (const auto& code : s.after) CHECK(seen.contains(code));
            CHECK((!s.body || *s.body == at.body));
            CHECK((!s.attitude || *s.attitude == at.attitude));
            CHECK((!s.support || *s.support == at.support));
            if (s.sets_support) at.support = *s.sets_support;
            CHECK(seen.insert(s.code).second);
        }
        CHECK(seen.size() == steps.size());
        CHECK(moves == m.moves);
        REQUIRE(moves == exhaustive(steps, from));
        moved += moves;
    }
    CHECK(moved > 300);
    CHECK(supports > 50);
    CHECK(sides > 20);
}

TEST_CASE("three hundred jobs: an order, and how far a better one could go", "[work]") {
    std::mt19937 rng(5);
    for (int round = 0; round < 5; ++round) {
        const auto steps = randomSteps(rng, 300);
        const work::Moves m = work::fewestMoves(steps, {BodyPlace::On, Attitude::RightWayUp, Support::Wheels}, {}, 500);
        REQUIRE_FALSE(m.order.empty());
        int done = 0;
        for (const work::Step& s : m.order) done += !s.moves_to;
        CHECK(done == 300);
        CHECK(m.least > 5);
        CHECK(m.least <= m.moves);
        CHECK(m.exact == (m.least == m.moves));
    }
    // the bound holds where the best is known: a search that is cut short never claims more than is true
    for (int round = 0; round < 60; ++round) {
        const auto few = randomSteps(rng, 3 + rng() % 8);
        const work::Stance from{BodyPlace::On, Attitude::RightWayUp, Support::Stands};
        const work::Moves cut_short = work::fewestMoves(few, from, {}, 1);
        const int best = exhaustive(few, from);
        CHECK(cut_short.least <= best);
        CHECK(cut_short.moves >= best);
        if (cut_short.exact) CHECK(cut_short.moves == best);
    }
}

TEST_CASE("an empty build begins, and a job of one's own brings along what must come before it", "[work][jobs]") {
    work::Facts f = carWithBody();
    auto o = work::order(f, {});
    REQUIRE(o.steps.size() == 2);
    CHECK(o.steps[0].code == "record");
    CHECK(o.steps[1].code == "survey-agrees");
    // welding: battery, tank, belts and refrigerant first, and the tank back after it
    f.jobs = {job(1, "patch", JobKind::Weld)};
    o = work::order(f, {});
    for (const char* first : {"record", "battery-out", "tank-out", "restraints-off", "refrigerant-out"})
        CHECK(place(o, first) < place(o, "job-patch"));
    CHECK(place(o, "job-patch") < place(o, "tank-in"));
    CHECK(place(o, "job-patch") < place(o, "battery-in"));
    CHECK(o.find("job-patch")->hot);
    CHECK_FALSE(o.find("job-patch")->cautions.empty());
    CHECK(o.body_moves_left == 0);
    // and where it is done too early the workshop refuses
    work::Order early = o;
    std::rotate(early.steps.begin() + 1, early.steps.begin() + static_cast<std::ptrdiff_t>(place(o, "job-patch")),
                early.steps.begin() + static_cast<std::ptrdiff_t>(place(o, "job-patch")) + 1);
    CHECK(sim::playPlan(f, early).refused == "job-patch");
    CHECK(sim::playPlan(f, early).why == "sparks beside a fuel tank");
    // below the body: it comes off and goes back on
    f.jobs[0].body = BodyPlace::Off;
    o = work::order(f, {});
    CHECK(o.body_moves_left == 2);
    CHECK(place(o, "unbolt-body") < place(o, "body-off-1"));
    CHECK(place(o, "job-patch") < place(o, "body-on-2"));
    CHECK(sim::playPlan(f, o).to_the_end);
    // a bare frame is turned, too
    work::Facts bare;
    bare.jobs = {job(1, "underside", JobKind::Grind)};
    bare.jobs[0].attitude = Attitude::Inverted;
    o = work::order(bare, {});
    CHECK(o.turns_left == 2);
    CHECK(o.body_moves_left == 0);
    CHECK(place(o, "strip-frame") < place(o, "turn-1"));
    CHECK(place(o, "job-underside") < place(o, "refit-frame"));
    CHECK(sim::playPlan(bare, o).to_the_end);
}

TEST_CASE("a space is closed once all is done inside it; coats come last where they lie", "[work][jobs]") {
    work::Facts f = carWithBody();
    f.jobs = {job(1, "close-sill", JobKind::Weld), job(2, "wax-sill", JobKind::Paint), job(3, "blast-sill", JobKind::Blast),
              job(4, "paint-sill", JobKind::Paint)};
    f.jobs[0].closes = "left sill";
    f.jobs[1].inside = f.jobs[2].inside = "left sill";
    for (auto& j : f.jobs) j.area = "left side";
    f.jobs[1].before = {"close-sill"}; // asked for: the wax goes in before it is welded shut
    const auto o = work::order(f, {});
    CHECK(o.apart.empty());
    CHECK(place(o, "job-blast-sill") < place(o, "job-close-sill"));
    CHECK(place(o, "job-wax-sill") < place(o, "job-close-sill"));
    CHECK(place(o, "job-close-sill") < place(o, "job-paint-sill"));
    const work::Step& close = *o.find("job-close-sill");
    CHECK(close.no_return);
    CHECK(close.before_return.size() == 4);
    CHECK(sim::playPlan(f, o).to_the_end);
    // the player sees it where reality fails: the sill closed first
    work::Order wrong = o;
    std::swap(wrong.steps[place(o, "job-wax-sill")], wrong.steps[place(o, "job-close-sill")]);
    CHECK(sim::playPlan(f, wrong).why == "it would close in what is not done yet");
}

TEST_CASE("what goes round in a circle is opened where a job asked for it, and said; safety stays", "[work][jobs][safety]") {
    work::Facts f = carWithBody();
    f.jobs = {job(1, "a"), job(2, "b"), job(3, "weld-late", JobKind::Weld)};
    f.jobs[0].after = {"b"};
    f.jobs[1].after = {"a"};
    f.jobs[2].after = {"tank-in"}; // sparks once the tank is back: never
    const auto o = work::order(f, {});
    REQUIRE_FALSE(o.stuck);
    CHECK(o.apart.size() == 2);
    CHECK(place(o, "job-weld-late") < place(o, "tank-in"));
    CHECK(sim::playPlan(f, o).to_the_end);
    // what can't be had at all stands behind, shut, and the rest goes on
    work::Facts g = carWithBody();
    g.cut_planned = true;
    g.cut_words = "at 1250";
    g.jobs = {job(1, "sit-on-open-rails"), job(2, "fine")};
    g.jobs[0].body = BodyPlace::On;
    g.jobs[0].after = {"cut-rails"};
    g.jobs[0].before = {"tack-rails"};
    g.jobs[1].area = "cabin";
    const auto p = work::order(g, {});
    CHECK_FALSE(p.stuck);
    REQUIRE(p.apart.size() == 1);
    CHECK(p.steps.back().code == "job-sit-on-open-rails");
    CHECK_FALSE(p.steps.back().open());
    CHECK(place(p, "job-fine") < place(p, "approval"));
}

TEST_CASE("the body stays on until every row was undone and seen free once more", "[work][register][safety]") {
    work::Facts f = carWithBody();
    f.jobs = {job(1, "frame-clean", JobKind::Clean)};
    f.jobs[0].body = BodyPlace::Off;
    work::Record r;
    std::uint32_t id = 1;
    const auto tickTo = [&](const std::string& code) {
        for (int guard = 0; guard < 40; ++guard) {
            const auto o = work::order(f, r);
            REQUIRE(o.next);
            const auto& s = o.steps[*o.next];
            if (s.code == code) return;
            INFO(s.code << ": " << s.waits_for);
            REQUIRE(s.open());
            r.ticks.push_back({TickId{id++}, s.code, "M.", "2026-03-01T08:00:00Z", "", ""});
        }
        FAIL("never came to " << code);
    };
    tickTo("body-off-1");
    const auto lift = [&] { return *work::order(f, r).find("body-off-1"); };
    CHECK(lift().open());
    work::Tied t;
    t.rows = 3;
    t.tied = 1;
    t.first_tied = "earth-left at engine bay";
    f.tied = {t};
    CHECK_FALSE(lift().open());
    CHECK(lift().waits_for.find("earth-left") != std::string::npos);
    f.tied[0].tied = 0;
    f.tied[0].unproved = 2;
    f.tied[0].first_unproved = "loom-tail";
    CHECK(lift().waits_for.find("second walk-round") != std::string::npos);
    f.tied[0].unproved = 0;
    f.tied[0].off = 3;
    f.tied[0].first_off = "loom-tail";
    CHECK(lift().open());
    // back on: not connected before all is on again
    tickTo("connect");
    CHECK(work::order(f, r).find("connect")->waits_for.find("loom-tail") != std::string::npos);
    f.tied[0].off = 0;
    f.tied[0].loose = 1;
    f.tied[0].first_loose = "bolt-3";
    tickTo("approval");
    CHECK(work::order(f, r).find("approval")->waits_for.find("bolt-3") != std::string::npos);
    f.tied[0].loose = 0;
    CHECK(work::order(f, r).find("approval")->open());
}

TEST_CASE("what is awaited holds its step, what failed is done again, and both are said", "[work][jobs]") {
    work::Facts f = carWithBody();
    f.jobs = {job(1, "doors", JobKind::Fit), job(2, "weld-it", JobKind::Weld)};
    Awaited a;
    a.id = AwaitedId{5};
    a.name = "door-seals";
    a.step = "doors";
    a.supplier = "the seal maker";
    f.awaited = {a};
    f.attempts = {{AttemptId{6}, "job-weld-it", "did not fuse", "M.", "2026-03-02T08:00:00Z"}};
    auto o = work::order(f, {});
    CHECK(o.find("job-doors")->status == Status::Waiting);
    CHECK(o.find("job-doors")->waits_for.find("door-seals") != std::string::npos);
    CHECK(o.find("job-weld-it")->failed == 1);
    CHECK(o.find("job-weld-it")->why.find("did not fuse") != std::string::npos);
    f.awaited[0].arrived = "2026-03-09";
    CHECK(work::order(f, {}).find("job-doors")->open());
}

TEST_CASE("what is wanted early comes early, with what it waits for; why it stands there; what another can do meanwhile",
          "[work][jobs]") {
    work::Facts f = carWithBody();
    for (std::uint32_t k = 1; k <= 6; ++k) f.jobs.push_back(job(k, "j" + std::to_string(k)));
    f.jobs[5].wanted = "2026-12-24";
    f.jobs[5].after = {"j5"};
    f.jobs[0].area = f.jobs[1].area = "cabin";
    f.jobs[2].kind = JobKind::Paint;
    f.jobs[3].kind = JobKind::Lift;
    const auto o = work::order(f, {});
    CHECK(place(o, "job-j5") < place(o, "job-j1"));
    CHECK(place(o, "job-j6") < place(o, "job-j1"));
    const work::Step& last = *o.find("job-j6");
    CHECK(last.because.find("j5") != std::string::npos);
    CHECK(last.earliest == place(o, "job-j6") + 1);
    CHECK(last.latest == o.steps.size());
    CHECK(work::heldUpBy(o.steps, "job-j5") == std::vector<std::string>{"job-j6"});
    std::set<std::string> beside;
    for (const work::Step* s : work::besides(o, *o.find("job-j1"))) beside.insert(s->code);
    CHECK(beside.contains("job-j3"));
    CHECK_FALSE(beside.contains("job-j2")); // the same place
    CHECK_FALSE(beside.contains("job-j4")); // nobody beside a lift
    CHECK_FALSE(beside.contains("job-j6")); // it waits
}

TEST_CASE("a thousand random builds with jobs of one's own: no dangerous order, played by hands",
          "[work][sim][simulation][jobs]") {
    std::mt19937 rng(77);
    const auto chance = [&](unsigned one_in) { return rng() % one_in == 0; };
    int hot = 0, closed = 0, apart = 0, turned = 0, on_other = 0;
    for (int k = 0; k < 1000; ++k) {
        work::Facts f;
        f.frame_kind = static_cast<FrameKind>(rng() % 6);
        f.has_body = !chance(4);
        f.start.body = f.has_body && !(chance(4) && f.frame_kind != FrameKind::Monocoque) ? BodyPlace::On : BodyPlace::Off;
        f.fuel_tank = static_cast<Presence>(rng() % 3);
        f.battery = static_cast<Presence>(rng() % 3);
        f.restraints = static_cast<Presence>(rng() % 3);
        f.refrigerant = static_cast<Presence>(rng() % 3);
        f.cut_planned = chance(2);
        f.cut_words = "at 1250";
        if (f.cut_planned) f.joint_station_mm = 1250;
        f.mounts = f.has_body && chance(2) ? 6 : 0;
        f.mount_nuts = f.mounts && chance(2) ? 6 : 0;
        f.crossmember = chance(3);
        const unsigned n = 1 + rng() % 9;
        static constexpr const char* places[] = {"", "cabin", "left sill", "frame"};
        static constexpr const char* steps[] = {"record",    "cut-rails",  "weld-rails", "tank-in",
                                                "bolt-body", "coat-frame", "connect",    "no-such"};
        for (unsigned i = 0; i < n; ++i) {
            Job j = job(100 + i, "own-" + std::to_string(i), static_cast<JobKind>(rng() % 20));
            j.area = places[rng() % 4];
            if (chance(3)) j.body = chance(2) ? BodyPlace::On : BodyPlace::Off;
            if (chance(5) && j.body != BodyPlace::On) j.attitude = static_cast<Attitude>(rng() % 3);
            if (chance(5) && (!j.attitude || j.attitude == Attitude::RightWayUp)) j.support = static_cast<Support>(rng() % 6);
            if (chance(3)) j.after.push_back(chance(2) ? steps[rng() % 8] : "own-" + std::to_string(rng() % n));
            if (chance(4)) j.before.push_back(chance(2) ? steps[rng() % 8] : "own-" + std::to_string(rng() % n));
            std::erase(j.after, j.name);
            std::erase(j.before, j.name);
            if (chance(5))
                j.closes = "box";
            else if (chance(4))
                j.inside = "box";
            hot += work::kindOfWork(j.kind).hot;
            f.jobs.push_back(std::move(j));
        }
        // two jobs that close one space: what the second closes is closed already
        bool one_closes = false;
        for (Job& j : f.jobs) {
            if (!j.closes.empty() && one_closes) j.closes.clear();
            one_closes = one_closes || !j.closes.empty();
        }
        const work::Order o = work::order(f, {});
        INFO("build " << k);
        REQUIRE_FALSE(o.stuck);
        // what can't be had stands behind, shut; hands are not asked to do it
        work::Order can = o;
        for (const std::string& sentence : o.apart) INFO(sentence);
        while (!can.steps.empty() && can.steps.back().job &&
               std::any_of(can.steps.back().conditions.begin(), can.steps.back().conditions.end(),
                           [](const work::Condition& c) { return c.text.starts_with("It can be had"); })) {
            CHECK_FALSE(can.steps.back().open());
            can.steps.pop_back();
        }
        // nor where the car has no such thing: a body that does not come off, a frame that does not turn
        std::erase_if(can.steps, [](const work::Step& s) {
            return s.job &&
                   std::any_of(s.conditions.begin(), s.conditions.end(), [](const work::Condition& c) { return !c.met; });
        });
        const bool whole = can.steps.size() == o.steps.size();
        const auto played = sim::playPlan(f, can);
        INFO("step " << played.refused << " \"" << played.title << "\": " << played.why);
        if (whole) REQUIRE(played.to_the_end);
        if (!played.to_the_end) CHECK(played.why == "it would close in what is not done yet"); // what it waits for is shut itself
        apart += !o.apart.empty();
        for (const work::Step& s : o.steps) {
            closed += s.job && !s.closes.empty();
            turned += s.moves_to && s.moves_to->attitude != s.stance.attitude;
            on_other += s.moves_to && s.moves_to->support != s.stance.support;
        }
    }
    CHECK(hot > 300);
    CHECK(closed > 200);
    CHECK(apart > 30);
    CHECK(turned > 100);
    CHECK(on_other > 100);
}

} // namespace work_jobs_test
