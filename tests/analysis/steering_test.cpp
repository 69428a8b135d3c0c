// Steering from what was typed to what is shown: the wheelbase as planned, what is missing, findings, card, page, JSON.
#include "analysis/steering.hpp"

#include "analysis/cards.hpp"
#include "analysis/steering_made.hpp"
#include "build/edit.hpp"

#include <cmath>

#include <nlohmann/json.hpp>

namespace analysis_steering_test {

using namespace gorvet;
using namespace gorvet::build;
using analysis_made::steered;
using entry_tests::Typist;

namespace {

bool found(const analysis::Results& r, const std::string& code) {
    return std::any_of(r.findings.begin(), r.findings.end(), [&](const auto& f) { return f.code == code; });
}

} // namespace

TEST_CASE("steering is worked out from links, with the wheelbase as planned", "[analysis][drive]") {
    Typist t = steered(0);
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.steering.input().missing.empty());
    REQUIRE(r.steering->locks.size() == 2);
    CHECK(*r.steering.input().wheelbase_mm == Approx(2600));
    CHECK(r.steering->verdict == PlanVerdict::Marginal); // that it is a rack was never measured
    CHECK_FALSE(found(r, "drive.steer-bump"));
    // a longer wheelbase turns in a wider circle, and what it would be as it is stands beside it
    Typist longer = t;
    longer.type("change 300");
    longer.type("cut 1500");
    const auto then = analysis::analyse(longer.b, 2);
    REQUIRE(then.steering->locks.size() == 2);
    CHECK(*then.steering.input().wheelbase_mm == Approx(2900));
    CHECK(then.steering->locks[0].circle_mm.value > r.steering->locks[0].circle_mm.value + 500);
    REQUIRE(then.steering->locks[0].circle_now_mm);
    CHECK(*then.steering->locks[0].circle_now_mm == Approx(r.steering->locks[0].circle_mm.value).margin(120));
    // one tie rod alone is not enough, and that is said
    Typist one = t;
    one.type("remove link tie-right");
    const auto waits = analysis::analyse(one.b, 3);
    CHECK(found(waits, "drive.steering-waits"));
    CHECK(waits.steering->rows.empty());
    CHECK(analysis::steeringHeadline(one.b, waits, the_chassis).sentence.find("waits for") != std::string::npos);
    one.type("remove link tie-left");
    const auto none = analysis::analyse(one.b, 4);
    CHECK_FALSE(found(none, "drive.steering-waits"));
    CHECK(analysis::steeringPages(one.b, none).empty());
    CHECK_FALSE(analysis::steeringCard(one.b, none));
}

TEST_CASE("a rack too high is found, and all of it is shown", "[analysis][drive]") {
    Typist t = steered(20);
    const auto r = analysis::analyse(t.b, 1);
    CHECK(found(r, "drive.steer-bump"));
    CHECK(r.steering->toe[0].up_mm == Approx(-20).margin(1.01));
    const auto card = analysis::cardFor(t.b, r, the_chassis, "steering:front");
    REQUIRE(card);
    CHECK(card->rows.size() == 4);
    CHECK(card->sentences.size() <= 2);
    CHECK(analysis::steeringPages(t.b, r).size() == 1);
    const auto json = nlohmann::json::parse(analysis::driveSteerJson(t.b, r));
    CHECK(json["locks"].size() == 2);
    CHECK(json["over_bumps"][1]["inner_end_higher_mm"].get<double>() == Approx(-20).margin(1.01));
    CHECK(json["rows"].size() > 10);
    // undone and done again it is the same
    auto understood = entry::understand(t.b, t.context, "travel lock 28deg");
    REQUIRE(understood);
    const auto back = enact(t.b, understood->edit);
    REQUIRE(back);
    CHECK_FALSE(analysis::analyse(t.b, 2).steering.input() == r.steering.input());
    REQUIRE(enact(t.b, *back));
    CHECK(analysis::analyse(t.b, 3).steering.input() == r.steering.input());
}

TEST_CASE("tyres are looked at beside their own links, through lock", "[analysis][drive][wheels]") {
    Typist t = steered(0);
    for (const char* line :
         {"travel front bump 1", "travel front droop 1", "rim front fitted width 7in diameter 15in offset 30 tyre 245 aspect 60",
          "rim front fitted outside 675 section 245"})
        t.type(line);
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.wheels.size() == 1);
    const drive::WheelsPlan& p = *r.wheels[0];
    const auto clear = [&](const drive::WheelsPlan& plan, const char* name) {
        for (const drive::RoomClear& c : plan.now)
            if (c.name == name) return c;
        FAIL(name);
        return plan.now.front();
    };
    const drive::RoomClear lower = clear(p, "lower-left");
    CHECK(lower.pose.find("locked") != std::string::npos);
    // by hand: the wishbone's legs stay, the tyre turns about its kingpin
    const auto at = [&](const char* name) { return *r.chassis.positionOf(pointNamed(t.b, the_chassis, name)->id); };
    const Vec3 outer = at("TCl"), top = at("UCl");
    Vec3 hub{};
    for (const auto& [id, point] : t.b.points)
        if (point.subject == the_chassis && point.role == Role::FrontHub && sideOf(point.name) == Side::Left)
            hub = *r.chassis.positionOf(id);
    const drive::TyreShape tyre = drive::tyreShape(0, 245, 675, 381);
    double least = 1e9;
    for (double lock = -32; lock <= 32.001; lock += 0.5)
        for (const char* inner : {"TAl", "TBl"})
            for (double s = 0; s <= 1; s += 0.01) {
                const Vec3 place = geometry::along(at(inner), outer, s);
                if (std::hypot(place.x_mm - hub.x_mm, place.z_mm - hub.z_mm) < 190.5 && std::abs(place.y_mm - hub.y_mm) < 250)
                    continue;                                    // within the rim
                const double a = -lock * 3.14159265358979 / 180; // seen from the wheel that turns, the leg turns back
                CHECK(std::abs(outer.x_mm - top.x_mm) < 1);      // an upright kingpin
                const double x = place.x_mm - outer.x_mm, y = place.y_mm - outer.y_mm;
                const Vec3 seen{outer.x_mm + x * std::cos(a) - y * std::sin(a), outer.y_mm + x * std::sin(a) + y * std::cos(a),
                                place.z_mm};
                least = std::min(least,
                                 tyre.distance(-(seen.y_mm - hub.y_mm), std::hypot(seen.x_mm - hub.x_mm, seen.z_mm - hub.z_mm)));
            }
    CHECK(lower.clear_mm.value == Approx(least - 20).margin(3)); // taken 40 thick
    // more lock, less room; without links there is nothing to clear
    Typist less = t;
    less.type("travel lock 10deg");
    CHECK(clear(*analysis::analyse(less.b, 2).wheels[0], "lower-left").clear_mm.value > lower.clear_mm.value + 10);
    for (const char* link : {"lower-left", "upper-left", "tie-left"}) less.type(fmt::format("remove link {}", link));
    const auto bare = analysis::analyse(less.b, 3);
    CHECK(std::none_of(bare.wheels[0]->now.begin(), bare.wheels[0]->now.end(),
                       [](const auto& c) { return c.name == "lower-left"; }));
}

} // namespace analysis_steering_test
