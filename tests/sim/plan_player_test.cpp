// Orders of work, played step by step by a workshop that refuses what hands can't do or what hurts.
#include "sim/plan_player.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

namespace sim_plan_player_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

work::Facts randomBuild(std::mt19937& rng) {
    const auto chance = [&](unsigned one_in) { return rng() % one_in == 0; };
    const auto presence = [&] { return static_cast<Presence>(rng() % 3); };
    work::Facts f;
    f.frame_kind = static_cast<FrameKind>(rng() % 6);
    f.has_body = !chance(4);
    f.start.body = chance(3) || !f.has_body ? BodyPlace::Off : BodyPlace::On;
    if (f.frame_kind == FrameKind::Monocoque && f.has_body) f.start.body = BodyPlace::On;
    f.fuel_tank = presence();
    f.battery = presence();
    f.restraints = presence();
    f.refrigerant = presence();
    f.cut_planned = !chance(3);
    f.shortens = chance(2);
    f.cut_words = "at 1250";
    if (f.cut_planned) {
        f.joint_station_mm = 1250;
        if (!chance(4)) {
            f.sleeve_words = "90 × 50 × 4";
            f.sleeve_mm = std::pair{1040.0, 1460.0};
        }
        f.fish_plates = chance(2);
        if (chance(3)) { // a spine with its pans, and what runs inside of it
            f.spine = true;
            f.sleeve_words.clear();
            f.sleeve_mm.reset();
            f.pan_words = "the left pan at 1100, the right pan at 1400";
            if (chance(2)) {
                f.spine_windows = "140 × 90 at 730 and 1770";
                f.spine_inside = "shift-rod";
            }
        }
        for (const auto kind : {CrossingKind::PropShaft, CrossingKind::BrakeLine, CrossingKind::FuelLine, CrossingKind::Loom})
            if (chance(2)) f.crossings.push_back({kind, "see to it", ""});
    }
    if (chance(2)) { // the frame's own steel
        if (chance(2)) f.steel.out_words = "tail at 2700";
        if (chance(2)) f.steel.in_words = "tail-new at 2690";
        if (chance(2)) f.steel.rib_words = "ribs from 400 to 1600, one every 300";
        if (chance(2)) f.steel.plate_words = "shut from 400 to 1600";
    }
    for (const char* name : {"nose", "tail"})
        if (chance(4)) f.grafts.push_back({name, name[0] == 'n', "at 640", "a made box", "", {"Cl to FR 2345.0 ± 1.2"}, ""});
    using Kind = work::WidthJob::Kind;
    if (chance(4))
        f.widths.push_back({Kind::Narrower, "", "a strip of 40 out of each side", "seats to 980", {"Al to Er 2228.3 ± 1.0"}, ""});
    if (chance(4)) f.widths.push_back({Kind::LetIn, "rail", "64 wide, 1498 long", "", {"Between both legs 1500 ± 0.6"}, ""});
    for (const char* name : {"left", "right"})
        if (chance(4)) f.widths.push_back({Kind::FloorEdge, name, "120 wide at Bl.", chance(2) ? "120 long at 400" : "", {}, ""});
    if (chance(4)) f.hole_words = "bush at 1240";
    if (chance(3)) f.bushes = "rear axle";
    if (chance(3)) f.shaft_words = "main 1502.8 ± 1.4";
    f.mounts = chance(3) || !f.has_body ? 0 : 6;
    f.mount_nuts = f.mounts && chance(2) ? 6 : 0;
    f.crossmember = chance(2);
    f.captive_nuts = chance(2);
    if (f.captive_nuts) {
        // far from the sleeve, as a plan that stands has them; within an arm's reach or not
        const double at = chance(2) ? 960 : 500;
        f.nut_stations_mm = {at - 50, at + 50};
    }
    for (unsigned k = 0; f.has_body && k < rng() % 3; ++k) {
        TemporarySteel t;
        t.id = TemporarySteelId{40 + k};
        t.name = "brace-" + std::to_string(k);
        if (chance(2)) t.gap = Dimension{4.5, "4.5", Provenance::Measured};
        static constexpr const char* ends[] = {"",          "weld-mounts", "trial-sit", "after-welding",
                                               "bolt-body", "body-edges",  "align",     "no-such-step"};
        t.out_after = ends[rng() % 8];
        f.temporary.push_back(t);
    }
    for (unsigned k = 0; f.has_body && k < rng() % 3; ++k)
        f.body_cuts.push_back({"cut" + std::to_string(k), "a hand's breadth", {chance(2) ? "sill" : "tunnel"}});
    return f;
}

work::Facts demoLike() {
    work::Facts f;
    f.has_body = f.cut_planned = f.shortens = f.crossmember = f.captive_nuts = true;
    f.mounts = f.mount_nuts = 6;
    f.cut_words = "at 1250 and 1394";
    f.sleeve_words = "90 × 50 × 4";
    f.joint_station_mm = 1250;
    f.sleeve_mm = std::pair{1040.0, 1460.0};
    f.nut_stations_mm = {930, 1030};
    f.fuel_tank = f.battery = f.restraints = f.refrigerant = Presence::Present;
    f.crossings = {{CrossingKind::BrakeLine, "Make the line new.", ""}};
    f.bushes = "rear axle";
    f.shaft_words = "main 1502.8 ± 1.4";
    TemporarySteel t;
    t.id = TemporarySteelId{40};
    t.name = "sills";
    t.out_after = "after-welding"; // while the body is still to be lifted
    f.temporary = {t};
    return f;
}

/// The order with one step put before another.
work::Order moved(work::Order o, const std::string& step, const std::string& before) {
    const auto at = std::find_if(o.steps.begin(), o.steps.end(), [&](const auto& s) { return s.code == step; });
    REQUIRE(at != o.steps.end());
    const work::Step s = *at;
    o.steps.erase(at);
    const auto where = std::find_if(o.steps.begin(), o.steps.end(), [&](const auto& k) { return k.code == before; });
    REQUIRE(where != o.steps.end());
    o.steps.insert(where, s);
    return o;
}

/// A step done too early, and what the workshop says to it.
struct Wrong {
    const char* step;
    const char* before;
    const char* why;
};
void refusedInTurn(const work::Facts& f, const work::Order& o, const std::vector<Wrong>& all) {
    for (const Wrong& w : all) {
        const auto played = sim::playPlan(f, moved(o, w.step, w.before));
        INFO(w.step << " before " << w.before << ": " << played.refused << ", " << played.why);
        CHECK_FALSE(played.to_the_end);
        CHECK(played.why.find(w.why) != std::string::npos);
    }
}

size_t placeOf(const work::Order& o, const std::string& code) {
    for (size_t i = 0; i < o.steps.size(); ++i)
        if (o.steps[i].code == code) return i;
    FAIL("no step " << code);
    return 0;
}

} // namespace

TEST_CASE("a thousand random builds: every order of work plays to its end", "[work][sim][simulation]") {
    std::mt19937 rng(1418);
    int turned = 0, lifted = 0, through_ends = 0, steps = 0;
    for (int k = 0; k < 1000; ++k) {
        const work::Facts f = randomBuild(rng);
        const work::Order o = work::order(f, {});
        const auto played = sim::playPlan(f, o);
        INFO("build " << k << ", step " << played.refused << " \"" << played.title << "\": " << played.why);
        REQUIRE(played.to_the_end);
        CHECK(played.steps == static_cast<int>(o.steps.size()));
        turned += o.turns_left > 0;
        lifted += o.body_moves_left > 0;
        through_ends += work::nutsThroughOpenEnds(f);
        steps += played.steps;
    }
    // the builds were not all alike
    CHECK(turned > 100);
    CHECK(lifted > 100);
    CHECK(through_ends > 30);
    CHECK(steps > 10000);
}

TEST_CASE("the workshop refuses what hands can't do and what hurts", "[work][sim]") {
    const work::Facts f = demoLike();
    const work::Order o = work::order(f, {});
    REQUIRE(sim::playPlan(f, o).to_the_end);
    refusedInTurn(f, o,
                  {{"make-crossmember", "tank-out", "fuel tank"},
                   {"brace-in-sills", "tank-out", "fuel tank"},
                   {"captive-nuts", "drill-rails", "nothing holds a nut"},
                   {"close-up", "try-sleeves", "not tried"},
                   {"weld-below", "weld-rails", "out of reach"},
                   {"cut-rails", "tie-rails", "fall apart"},
                   {"unbolt-body", "disconnect", "connected"},
                   {"body-off-1", "unbolt-body", "bolted"},
                   {"turn-1", "strip-frame", "engine and axles"},
                   {"tank-in", "weld-mounts", "fuel tank"},
                   {"weld-mounts", "trial-sit", "body is in the way"},
                   {"tack-mounts", "mount-nuts", "upside down"},
                   {"brace-out-sills", "body-on-2", "brace that kept"},
                   {"align", "refit-frame", "no wheels"},
                   {"tighten-bushes", "refit-frame", "no wheels"},
                   {"shaft-lengths", "tighten-bushes", "not settled"}});
    // the sleeve can't pass nuts where it has to go
    work::Facts nuts = f;
    nuts.nut_stations_mm = {1050, 1102};
    CHECK(sim::playPlan(nuts, work::order(nuts, {})).why == "the nut at 1050 stands where the sleeve goes");
    // a step nobody told it of
    work::Order unknown = o;
    unknown.steps.front().code = "polish";
    CHECK(sim::playPlan(f, unknown).refused == "polish");
}

TEST_CASE("members, ribs and plates of the frame: in an order that hands can follow", "[work][sim][steel]") {
    work::Facts f = demoLike();
    f.steel = {"tail at 2700", "tail-new at 2690", "ribs from 400 to 900", "shut from 400 to 1600", true};
    const work::Order o = work::order(f, {});
    REQUIRE(sim::playPlan(f, o).to_the_end);
    CHECK(placeOf(o, "members-out") > placeOf(o, "tie-rails"));
    CHECK(placeOf(o, "members-out") < placeOf(o, "cut-rails"));
    CHECK(placeOf(o, "ribs-in") < placeOf(o, "shut-rails"));
    for (const char* inside : {"captive-nuts", "mount-nuts", "drill-rails"}) CHECK(placeOf(o, inside) < placeOf(o, "shut-rails"));
    CHECK(placeOf(o, "coat-frame") > placeOf(o, "shut-rails"));
    CHECK(o.find("shut-rails")->no_return);
    CHECK(o.find("shut-rails")->before_return.size() > 2);
    refusedInTurn(f, o,
                  {{"members-out", "tie-rails", "keeps the rails apart"},
                   {"cut-rails", "members-out", "still stands there"},
                   {"members-in", "weld-rails", "may still move"},
                   {"shut-rails", "ribs-in", "ribs can't be got in"},
                   {"coat-frame", "shut-rails", "cleaned yet"},
                   {"tank-in", "shut-rails", "fuel tank"}});
    // of a frame that is not cut, too
    work::Facts whole = f;
    whole.cut_planned = whole.crossmember = whole.captive_nuts = false;
    whole.sleeve_words.clear();
    whole.sleeve_mm.reset();
    whole.joint_station_mm.reset();
    whole.crossings.clear();
    CHECK(sim::playPlan(whole, work::order(whole, {})).to_the_end);
    CHECK(work::order(whole, {}).find("shut-rails"));
}

TEST_CASE("a piece of another frame: off, set, tacked, welded, in an order that hands can follow", "[work][sim][graft]") {
    work::Facts f = demoLike();
    f.grafts = {{"nose", true, "at 640", "a made box", "", {"Cl to FR 2345.0 ± 1.2"}, ""}};
    const work::Order o = work::order(f, {});
    REQUIRE(sim::playPlan(f, o).to_the_end);
    CHECK(placeOf(o, "graft-off-nose") > placeOf(o, "after-welding"));
    CHECK(placeOf(o, "coat-frame") > placeOf(o, "graft-cold-nose"));
    refusedInTurn(f, o,
                  {{"graft-set-nose", "graft-off-nose", "still there"},
                   {"graft-weld-nose", "graft-tack-nose", "out of line"},
                   {"coat-frame", "graft-weld-nose", "through the coat"},
                   {"graft-off-nose", "weld-rails", "cut elsewhere"},
                   {"tank-in", "graft-weld-nose", "fuel tank"}});
    // a plan that does not stand shuts the saw
    work::Facts open = f;
    open.grafts.front().open = "The piece's left rail ends 3 mm short.";
    const work::Order shut = work::order(open, {});
    CHECK(shut.find("graft-before-nose")->hold);
    CHECK_FALSE(shut.find("graft-before-nose")->conditions.front().met);
    CHECK(shut.find("graft-off-nose")->status == work::Status::Waiting);
}

TEST_CASE("narrower, let in, out to the sills: in an order that hands can follow", "[work][sim][width]") {
    using Kind = work::WidthJob::Kind;
    work::Facts f = demoLike();
    f.steel.in_words = "tail-new at 2690";
    f.hole_words = "bush at 1240";
    f.widths = {{Kind::Narrower, "", "a strip of 40 out of each side", "seats to 980", {"Al to Er 2228.3 ± 1.0"}, ""},
                {Kind::FloorEdge, "left", "120 wide at Bl.", "120 long at 400", {}, ""},
                {Kind::LetIn, "rail", "64 wide, 1498 long", "", {"Between both legs 1500 ± 0.6"}, ""}};
    const work::Order o = work::order(f, {});
    const auto right = sim::playPlan(f, o);
    INFO(right.refused << ": " << right.why);
    REQUIRE(right.to_the_end);
    refusedInTurn(f, o,
                  {{"narrow-slit", "narrow-tie", "fall apart"},
                   {"narrow-set", "narrow-slit", "nothing is slit"},
                   {"narrow-weld", "narrow-tack", "out of line"},
                   {"narrow-untie", "narrow-weld", "fall apart"},
                   {"narrow-slit", "weld-rails", "cut elsewhere"},
                   {"members-in", "narrow-weld", "wide frame"},
                   {"tack-mounts", "narrow-weld", "wide frame"},
                   {"edge-strip-left", "edge-arms-left", "outriggers"},
                   {"edge-strip-left", "narrow-weld", "come in with its side"},
                   {"coat-frame", "edge-strip-left", "through the coat"},
                   {"coat-frame", "narrow-untie", "through the coat"},
                   {"let-in-set-rail", "let-in-open-rail", "in the way"},
                   {"let-in-weld-rail", "let-in-tack-rail", "not tacked"},
                   {"let-in-floor-rail", "let-in-weld-rail", "pulled by its floor"},
                   {"holes-anew", "weld-rails", "weld still comes"},
                   {"tank-in", "narrow-weld", "fuel tank"}});
    const auto late = sim::playPlan(f, moved(o, "holes-anew", o.steps[placeOf(o, "coat-frame") + 1].code));
    CHECK(late.refused == "coat-frame");
    CHECK(late.why.find("drilled through the coat") != std::string::npos);
    // a plan that fails shuts its first step, and so the saw
    work::Facts open = f;
    open.widths.front().open = "Ml stands on what comes out.";
    const work::Order shut = work::order(open, {});
    CHECK(shut.find("narrow-before")->hold);
    CHECK_FALSE(shut.find("narrow-before")->conditions.front().met);
    CHECK(shut.find("narrow-slit")->status == work::Status::Waiting);
}

TEST_CASE("the order by itself keeps to what once went wrong", "[work][sim]") {
    const work::Facts f = demoLike();
    const work::Order o = work::order(f, {});
    // nothing burns with tank and battery in
    for (const char* hot : {"make-crossmember", "brace-in-sills", "tie-rails", "captive-nuts", "mount-nuts"}) {
        CHECK(placeOf(o, hot) > placeOf(o, "tank-out"));
        CHECK(placeOf(o, hot) > placeOf(o, "battery-out"));
    }
    // crossmember, drilled, cut, nuts, sleeves tried
    CHECK(placeOf(o, "make-crossmember") < placeOf(o, "drill-rails"));
    CHECK(placeOf(o, "drill-rails") < placeOf(o, "cut-rails"));
    CHECK(placeOf(o, "captive-nuts") < placeOf(o, "try-sleeves"));
    // the sills' brace stays in over the last lift
    size_t last_lift = 0;
    for (size_t i = 0; i < o.steps.size(); ++i)
        if (o.steps[i].moves_to) last_lift = i;
    CHECK(placeOf(o, "brace-out-sills") > last_lift);
    CHECK(placeOf(o, "tank-in") > placeOf(o, "brace-out-sills"));
    // only a bare frame is turned over, and a bare frame's underside is welded upside down, too
    work::Facts bare = f;
    bare.has_body = false;
    bare.start.body = BodyPlace::Off;
    bare.temporary.clear();
    const work::Order b = work::order(bare, {});
    CHECK(b.turns_left > 0);
    CHECK(b.find("weld-below")->attitude == Attitude::Inverted);
    CHECK(placeOf(b, "strip-frame") < placeOf(b, "turn-1"));
    // out of an arm's reach nuts go in through slots
    work::Facts far = f;
    far.nut_stations_mm = {500, 600};
    const work::Order slots = work::order(far, {});
    CHECK(slots.find("captive-nuts")->attitude == Attitude::Inverted);
    CHECK(sim::playPlan(far, slots).to_the_end);
    // what can't be made as planned is not Ready
    work::Facts open = f;
    open.mounts_open = "4 body mounts can't be made as planned (M1l first): see Make";
    open.battery = open.fuel_tank = open.restraints = open.refrigerant = Presence::Absent;
    const work::Order waits = work::order(open, {{{TickId{1}, "survey-agrees", "M.", "2026-03-01T08:00:00Z", "", ""}}, {}});
    REQUIRE(waits.find("make-mounts"));
    CHECK(waits.find("make-mounts")->status == work::Status::Waiting);
    CHECK(waits.find("make-mounts")->waits_for == open.mounts_open);
}

} // namespace sim_plan_player_test
