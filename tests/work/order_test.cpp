#include "work/work.hpp"

#include <catch2/catch.hpp>
#include <deque>
#include <map>
#include <random>
#include <rapidcheck.h>
#include <set>

namespace work_order_test {

using namespace gorvet;
using namespace gorvet::build;
using work::Status;

namespace {

work::Facts whole() {
    work::Facts f;
    f.has_body = true;
    f.cut_planned = true;
    f.shortens = true;
    f.cut_words = "at 1250 and 1394";
    f.sleeve_words = "90 × 50 × 4, 402 long";
    f.mounts = 6;
    f.crossmember = true;
    f.captive_nuts = true;
    f.joint_station_mm = 1250;
    f.nut_stations_mm = {950, 1040};
    f.sleeve_mm = std::pair{1070.0, 1432.0};
    f.fuel_tank = f.battery = f.restraints = f.refrigerant = Presence::Present;
    f.crossings = {{CrossingKind::BrakeLine, "Make the line new.", "Brake work …"},
                   {CrossingKind::PropShaft, "Shorten the shaft.", ""}};
    f.diagonals = {{PointId{1}, PointId{2}, "Al–Fr", 3600, 3470, 2},
                   {PointId{3}, PointId{4}, "Ar–Fl", 3601, 3471, 2},
                   {PointId{5}, PointId{6}, "Cl–Dr", 1190, 1075, 2}};
    f.levels = {{PointId{1}, PointId{3}, "level Al–Ar", 0, false, 0, 840, 1, 1, 1},
                {PointId{1}, PointId{4}, "level Al–Fl", 1, true, 2900, 840, 40, 42, 1},
                {PointId{1}, PointId{2}, "level Al–Fr", 1, false, 2900, 840, 40, 42, 1}};
    TemporarySteel t;
    t.id = TemporarySteelId{40};
    t.name = "door-left";
    t.blocks = "the left seat";
    t.gap = Dimension{4.5, "4.5", Provenance::Measured};
    f.temporary = {t};
    return f;
}

/// Ticks and checks as a person would make them, ids growing.
struct Book {
    work::Record record;
    std::uint32_t id = 100;
    void tick(const std::string& step) { record.ticks.push_back({TickId{id++}, step, "M.", "2026-03-01T08:00:00Z", "", ""}); }
    void untick(const std::string& step) {
        std::erase_if(record.ticks, [&](const Tick& t) { return t.step == step; });
    }
    void check(const std::string& step, const work::CheckItem& item, double value) {
        Check c;
        c.id = CheckId{id++};
        c.step = step;
        c.from = item.from;
        c.to = item.to;
        c.gap_of = item.gap_of;
        if (item.level) c.kind = ReadingKind::Level;
        c.value = {value, "", Provenance::Measured};
        record.checks.push_back(c);
    }
    /// Ticks all that comes before a step, reading what hold points on the way ask for.
    void workTo(const work::Facts& f, const std::string& step) {
        for (int guard = 0; guard < 200; ++guard) {
            const auto o = work::order(f, record);
            REQUIRE(o.next);
            const auto& next = o.steps[*o.next];
            if (next.code == step) return;
            for (const auto& item : next.checks) check(next.code, item, item.plan_mm);
            const auto again = work::order(f, record);
            INFO(next.code << " waits for " << again.steps[*again.next].waits_for);
            REQUIRE(again.steps[*again.next].open());
            tick(next.code);
        }
        FAIL("never came to " << step);
    }
};

bool before(const work::Order& o, const std::string& a, const std::string& b) {
    const auto* first = o.find(a);
    const auto* second = o.find(b);
    REQUIRE(first);
    REQUIRE(second);
    return first < second;
}

bool speaksOf(const work::Step& s, const char* text) {
    for (const auto& c : s.cautions)
        if (c.find(text) != std::string::npos) return true;
    return false;
}

void checkSound(const work::Order& o) {
    std::set<std::string> seen;
    for (const auto& s : o.steps) {
        for (const auto& code : s.after) {
            INFO(s.code << " after " << code);
            CHECK((seen.contains(code) || s.status == Status::Done));
        }
        INFO(s.code);
        if (s.body && s.status != Status::Done) CHECK(*s.body == s.stance.body);
        if (s.attitude && s.status != Status::Done) CHECK(*s.attitude == s.stance.attitude);
        CHECK_FALSE((s.stance.body == BodyPlace::On && s.stance.attitude == Attitude::Inverted));
        CHECK(seen.insert(s.code).second);
    }
}

} // namespace

TEST_CASE("a whole shortening: every step after what it needs, with as few moves as can be", "[work]") {
    const auto o = work::order(whole(), {});
    REQUIRE_FALSE(o.stuck);
    checkSound(o);
    // off for the cut, on for the trial, off to weld the mounts, on for good; over and back for the undersides
    CHECK(o.body_moves_left == 4);
    CHECK(o.turns_left == 2);
    CHECK(before(o, "tank-out", "tie-rails"));
    CHECK(before(o, "before-cutting", "cut-rails"));
    CHECK(before(o, "captive-nuts", "weld-rails")); // they go in before the rail is closed
    CHECK(before(o, "before-welding", "weld-rails"));
    CHECK(before(o, "weld-below", "after-welding"));
    CHECK(before(o, "brace-in-door-left", "body-off-1"));
    CHECK(before(o, "bolt-body", "brace-out-door-left"));
    CHECK(before(o, "leak-test", "battery-in"));
    CHECK(o.steps.back().code == "approval");
    CHECK(o.find("cut-rails")->no_return);
    CHECK(o.find("weld-rails")->before_return.size() == 4);
    CHECK(o.steps[*o.next].status == Status::Ready);
}

TEST_CASE("cautions stand where they matter, and danger is away before it", "[work][safety]") {
    const auto o = work::order(whole(), {});
    int hot = 0;
    for (const auto& s : o.steps) {
        if (!speaksOf(s, "Hot work")) continue;
        INFO(s.code);
        ++hot;
        CHECK(before(o, "tank-out", s.code));
        CHECK(before(o, "battery-out", s.code));
        CHECK(before(o, s.code, "tank-in"));
    }
    CHECK(hot >= 6);
    for (const auto& s : o.steps)
        if (s.moves_to && s.moves_to->body != s.stance.body) CHECK(speaksOf(s, "Nobody under a hung body"));
    CHECK(speaksOf(*o.find("battery-out"), "Earth terminal off first"));
    CHECK(speaksOf(*o.find("tank-out"), "Cap every line"));
    CHECK(speaksOf(*o.find("support-frame"), "Stands each side of the cut"));
    CHECK(speaksOf(*o.find("cut-rails"), "Cutting discs and wire wheels"));
    CHECK(speaksOf(*o.find("restraints-off"), "licensed people"));
    CHECK(speaksOf(*o.find("refrigerant-out"), "licensed people"));
    CHECK(speaksOf(*o.find("rules"), "rules come first"));
    CHECK(before(o, "rules", "cut-rails"));
}

TEST_CASE("what is not there needs no step; what is not told is taken as there", "[work][safety]") {
    auto f = whole();
    f.fuel_tank = f.battery = f.restraints = f.refrigerant = Presence::Absent;
    auto o = work::order(f, {});
    for (const char* code : {"tank-out", "battery-out", "restraints-off", "refrigerant-out", "tank-in", "battery-in"})
        CHECK_FALSE(o.find(code));
    checkSound(o);
    f.fuel_tank = Presence::Unknown;
    o = work::order(f, {});
    REQUIRE(o.find("tank-out"));
    CHECK(o.find("tank-out")->why == "Nothing is said about the fuel tank, so it is taken as there.");
}

TEST_CASE("a hold point refuses until fresh readings agree", "[work]") {
    const auto f = whole();
    Book book;
    book.workTo(f, "before-welding");
    auto o = work::order(f, book.record);
    const auto* hold = &o.steps[*o.next];
    CHECK(hold->status == Status::HoldPoint);
    CHECK(hold->waits_for == "6 of 6 fresh readings are still to be taken");
    CHECK(hold->checks[0].plan_mm == 3470); // as planned, no longer as it was
    CHECK(o.find("weld-rails")->status == Status::Waiting);
    const auto items = hold->checks;
    book.check("before-welding", items[0], 3470 + 3.0); // at the limit
    book.check("before-welding", items[1], 3471 - 5.2);
    o = work::order(f, book.record);
    CHECK(o.find("before-welding")->waits_for == "Ar–Fl reads 3465.8, 5.2 too short");
    book.check("before-welding", items[1], 3470);
    o = work::order(f, book.record);
    CHECK(o.find("before-welding")->waits_for == "4 of 6 fresh readings are still to be taken");
    book.check("before-welding", items[2], 1075.4);
    for (size_t k = 3; k < 6; ++k) book.check("before-welding", items[k], items[k].plan_mm);
    o = work::order(f, book.record);
    CHECK(o.find("before-welding")->open());
    // taken apart and tacked anew: those readings are old now
    book.untick("tack-rails");
    o = work::order(f, book.record);
    CHECK(o.find("before-welding")->status == Status::Waiting);
    book.tick("tack-rails");
    o = work::order(f, book.record);
    CHECK_FALSE(o.find("before-welding")->open());
    CHECK(o.find("before-welding")->checks[0].stale);
}

TEST_CASE("the whole order can be worked through to its end", "[work]") {
    auto f = whole();
    Book book;
    int steps = 0;
    while (true) {
        const auto o = work::order(f, book.record);
        checkSound(o);
        if (!o.next) break;
        const auto& next = o.steps[*o.next];
        for (const auto& item : next.checks) book.check(next.code, item, item.plan_mm);
        book.tick(next.code);
        REQUIRE(++steps < 100);
    }
    const auto o = work::order(f, book.record);
    CHECK(o.done == static_cast<int>(o.steps.size()));
    CHECK(o.now.body == BodyPlace::On);
    CHECK(o.now.support == Support::Wheels);
    CHECK(o.steel[0].state == work::SteelState::Out);
    int lifts = 0;
    for (const auto& s : o.steps) lifts += s.moves_to && s.moves_to->body != s.stance.body;
    CHECK(lifts == 4); // as promised at the beginning
}

TEST_CASE("conditions keep a hold point shut", "[work]") {
    auto f = whole();
    f.survey_open = "One reading of the chassis is to be taped again";
    auto o = work::order(f, {});
    CHECK(o.find("survey-agrees")->waits_for == f.survey_open);
    f = whole();
    f.plan_open = "The plan of the cut fails";
    Book book;
    f.plan_open.clear();
    book.workTo(f, "before-cutting");
    f.plan_open = "The plan of the cut fails";
    o = work::order(f, book.record);
    for (const auto& item : o.find("before-cutting")->checks) book.check("before-cutting", item, item.plan_mm);
    o = work::order(f, book.record);
    CHECK(o.find("before-cutting")->waits_for == "The plan of the cut fails");
    // without points to tape between it can't open either
    f = whole();
    f.diagonals.clear();
    o = work::order(f, book.record);
    CHECK(o.find("before-cutting")->waits_for.find("mark and tape rail points") != std::string::npos);
}

TEST_CASE("a tick out of its order is shown, not hidden", "[work]") {
    Book book;
    book.tick("cut-rails");
    const auto o = work::order(whole(), book.record);
    REQUIRE(o.find("cut-rails")->status == Status::Done);
    const auto& skipped = o.find("cut-rails")->skipped;
    REQUIRE(skipped.size() == 2);
    CHECK(skipped[0].find("diagonals") != std::string::npos);
    CHECK(skipped[1].find("Drill the rails") == 0); // its nuts go in through the cut's open ends
}

TEST_CASE("a body that can't come off is braced and never lifted", "[work]") {
    auto f = whole();
    f.frame_kind = FrameKind::Monocoque;
    const auto o = work::order(f, {});
    REQUIRE_FALSE(o.stuck);
    checkSound(o);
    CHECK(o.body_moves_left == 0);
    CHECK(o.turns_left == 0);
    CHECK_FALSE(o.find("unbolt-body"));
    CHECK(before(o, "brace-in-door-left", "support-frame"));
}

TEST_CASE("braces: listed, in, out, and asked for when none is listed", "[work]") {
    auto f = whole();
    f.temporary.clear();
    auto o = work::order(f, {});
    REQUIRE(o.find("brace-body"));
    CHECK(before(o, "brace-body", "body-off-1"));
    f = whole();
    f.temporary[0].out_after = "trial-sit";
    o = work::order(f, {});
    CHECK(before(o, "trial-sit", "brace-out-door-left"));
    f.temporary[0].out_after = "no-such-step";
    o = work::order(f, {});
    CHECK_FALSE(o.steel[0].out_after_known);
    CHECK(before(o, "bolt-body", "brace-out-door-left")); // not earlier than the end
    f.temporary[0].out_after = "approval";                // which waits for the brace
    o = work::order(f, {});
    CHECK(o.stuck);
    CHECK(o.next);
}

TEST_CASE("a frame alone, and a build without a cut", "[work]") {
    work::Facts f;
    f.crossmember = true;
    f.start.body = BodyPlace::Off;
    auto o = work::order(f, {});
    CHECK_FALSE(o.find("cut-rails"));
    CHECK_FALSE(o.find("disconnect"));
    CHECK(o.find("drill-rails"));
    checkSound(o);
    o = work::order({}, {});
    CHECK_FALSE(o.stuck);
}

namespace {
/// The fewest moves by trying everything: one step at a time for nothing, a move for one.
int exhaustive(const std::vector<work::Step>& steps, const work::Stance& from) {
    using Key = std::tuple<unsigned, int, int>;
    std::map<Key, int> best;
    std::deque<std::pair<Key, int>> waiting;
    const unsigned all = (1U << steps.size()) - 1;
    waiting.emplace_back(Key{0, static_cast<int>(from.body), static_cast<int>(from.attitude)}, 0);
    while (!waiting.empty()) {
        const auto [key, cost] = waiting.front();
        waiting.pop_front();
        if (best.contains(key)) continue;
        best[key] = cost;
        const auto [done, body, attitude] = key;
        if (done == all) return cost;
        for (size_t i = 0; i < steps.size(); ++i) {
            if (done & (1U << i)) continue;
            if (steps[i].body && static_cast<int>(*steps[i].body) != body) continue;
            if (steps[i].attitude && static_cast<int>(*steps[i].attitude) != attitude) continue;
            bool ready = true;
            for (const auto& code : steps[i].after)
                for (size_t k = 0; k < steps.size(); ++k) ready = ready && !(steps[k].code == code && !(done & (1U << k)));
            if (ready) waiting.emplace_front(Key{done | (1U << i), body, attitude}, cost);
        }
        const int on = static_cast<int>(BodyPlace::On);
        const int off = static_cast<int>(BodyPlace::Off);
        const int up = static_cast<int>(Attitude::RightWayUp);
        const int over = static_cast<int>(Attitude::Inverted);
        if (attitude == up) waiting.emplace_back(Key{done, body == on ? off : on, attitude}, cost + 1);
        if (body == off) waiting.emplace_back(Key{done, body, attitude == up ? over : up}, cost + 1);
    }
    return -1;
}
} // namespace

TEST_CASE("no order needs fewer moves: against trying every order", "[work][property]") {
    std::mt19937 rng(11);
    int moved = 0;
    for (int round = 0; round < 400; ++round) {
        std::vector<work::Step> steps;
        const auto n = 3 + rng() % 7;
        for (unsigned i = 0; i < n; ++i) {
            work::Step s;
            s.code = "s" + std::to_string(i);
            for (unsigned k = 0; k < i; ++k)
                if (rng() % 3 == 0) s.after.push_back("s" + std::to_string(k));
            const auto where = rng() % 4;
            if (where == 0) s.body = BodyPlace::On;
            if (where == 1) s.body = BodyPlace::Off;
            if (where == 2 && rng() % 2) s.attitude = rng() % 2 ? Attitude::Inverted : Attitude::RightWayUp;
            steps.push_back(s);
        }
        const work::Stance from{rng() % 2 ? BodyPlace::On : BodyPlace::Off, Attitude::RightWayUp, Support::Stands};
        const auto planned = work::fewestMoves(steps, from).order;
        REQUIRE_FALSE(planned.empty());
        int moves = 0;
        for (const auto& s : planned) moves += s.moves_to.has_value();
        REQUIRE(moves == exhaustive(steps, from));
        moved += moves;
    }
    CHECK(moved > 200);
}

} // namespace work_order_test
