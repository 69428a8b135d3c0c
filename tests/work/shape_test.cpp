// What a hold point over a cut sees: three diagonals pass a twist and a bow, the levels don't.
#include "work/work.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace work_shape_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

constexpr double pi = 3.14159265358979323846;

/// Four pairs, 0 and 1100 ahead of the joint at 1250, 1500 and 2900 behind it; 840 wide; on stands that roll and pitch.
struct Frame {
    std::vector<Vec3> plan;
    Frame() {
        for (const double x : {0.0, 1100.0, 1500.0, 2900.0})
            for (const double side : {-1.0, 1.0}) plan.push_back({x, 420 * side, 400 + 0.02 * x});
    }
    /// The rear half turned about the rails' axis and about the joint, then all of it as it stands.
    std::vector<Vec3> built(double twist_deg, double hinge_rad, double roll, double pitch) const {
        std::vector<Vec3> at = plan;
        for (size_t i = 4; i < at.size(); ++i) {
            const double a = twist_deg * pi / 180;
            Vec3& p = at[i];
            const double zc = 400 + 0.02 * p.x_mm, y = p.y_mm, z = p.z_mm - zc;
            p.y_mm = y * std::cos(a) - z * std::sin(a);
            p.z_mm = zc + y * std::sin(a) + z * std::cos(a);
            p.z_mm += hinge_rad * (p.x_mm - 1250);
        }
        for (Vec3& p : at) p.z_mm += roll * p.y_mm + pitch * p.x_mm;
        return at;
    }
};

double distance(const Vec3& a, const Vec3& b) { return std::hypot(b.x_mm - a.x_mm, b.y_mm - a.y_mm, b.z_mm - a.z_mm); }

std::vector<work::CheckItem> levels(const Frame& f, const std::vector<Vec3>& at, std::mt19937* rng = nullptr) {
    std::vector<work::CheckItem> items;
    for (size_t i = 1; i < at.size(); ++i) {
        work::CheckItem c;
        c.from = PointId{1};
        c.to = PointId{static_cast<std::uint32_t>(i + 1)};
        c.name = "level Al–P" + std::to_string(i);
        c.level = work::Levelled{c.from, c.to, c.name, static_cast<int>(i / 2), i % 2 == 0, f.plan[i].x_mm, 840, 0, 0, 1};
        c.plan_mm = f.plan[i].z_mm - f.plan[0].z_mm;
        c.read_mm = at[i].z_mm - at[0].z_mm;
        if (rng) *c.read_mm += (static_cast<double>((*rng)() % 2001) / 1000 - 1) * 0.7; // a water level, to 0.7
        items.push_back(c);
    }
    return items;
}

double worstDiagonal(const Frame& f, const std::vector<Vec3>& at) {
    double worst = 0;
    for (const auto& [a, b] : {std::pair{0, 7}, {1, 6}, {2, 5}})
        worst = std::max(worst, std::abs(distance(at[static_cast<size_t>(a)], at[static_cast<size_t>(b)]) -
                                         distance(f.plan[static_cast<size_t>(a)], f.plan[static_cast<size_t>(b)])));
    return worst;
}

} // namespace

TEST_CASE("a rear half turned by 2° passes three diagonals and is named by the levels, however the stands lean",
          "[work][shape]") {
    const Frame f;
    for (const double roll : {-0.02, 0.0, 0.015})
        for (const double pitch : {-0.01, 0.0, 0.02}) {
            const auto at = f.built(2, 0, roll, pitch);
            CHECK(worstDiagonal(f, f.built(2, 0, 0, 0)) < 3); // all three agree
            const auto faults = work::twistAndBow(levels(f, at));
            REQUIRE_FALSE(faults.empty());
            CHECK(faults.front().pair == 2);
            CHECK_FALSE(faults.front().left.has_value());
            CHECK(faults.front().sentence.find("twisted by 29") != std::string::npos); // 840 · tan 2°
            // straight, it shows nothing whatever it stands on
            CHECK(work::twistAndBow(levels(f, f.built(0, 0, roll, pitch))).empty());
        }
}

TEST_CASE("a frame bowed by 31 mm at the joint passes three diagonals and is named by the levels", "[work][shape]") {
    const Frame f;
    // the joint 31 under the chord of the ends: a hinge of 31·(1/1250 + 1/1650)
    const double hinge = 31 * (1 / 1250. + 1 / 1650.);
    CHECK(worstDiagonal(f, f.built(0, hinge, 0, 0)) < 3);
    const auto faults = work::twistAndBow(levels(f, f.built(0, hinge, 0.01, -0.015)));
    REQUIRE(faults.size() == 4); // both rails, ahead of the joint and behind it
    for (const auto& b : faults) {
        CHECK(b.left.has_value());
        CHECK(b.sentence.find("low between its ends") != std::string::npos);
    }
}

TEST_CASE("500 straight frames read with a water level: the levels refuse in few, a twist of 0.5° in nearly all",
          "[work][shape][simulation]") {
    const Frame f;
    std::mt19937 rng(1413);
    int false_alarms = 0, found = 0;
    for (int k = 0; k < 500; ++k) {
        const double roll = static_cast<double>(rng() % 1000) / 1000 * 0.02 - 0.01,
                     pitch = static_cast<double>(rng() % 1000) / 1000 * 0.02 - 0.01;
        false_alarms += !work::twistAndBow(levels(f, f.built(0, 0, roll, pitch), &rng)).empty();
        found += !work::twistAndBow(levels(f, f.built(0.5, 0, roll, pitch), &rng)).empty(); // 7.3 over the width
    }
    INFO(false_alarms << " of 500 straight ones refused, " << found << " of 500 twisted by 0.5° refused");
    CHECK(false_alarms <= 5);
    CHECK(found >= 495);
}

TEST_CASE("a hold point over a cut asks for the levels and stays shut until they agree", "[work][shape]") {
    const Frame f;
    work::Facts facts;
    facts.cut_planned = true;
    facts.cut_words = "at 1250";
    facts.fuel_tank = facts.battery = facts.restraints = facts.refrigerant = Presence::Absent;
    facts.diagonals = {{PointId{1}, PointId{8}, "Al–Dr", 3000, 3000, 1}};
    for (const auto& c : levels(f, f.plan)) {
        work::Levelled l = *c.level;
        l.now_mm = l.planned_mm = c.plan_mm;
        facts.levels.push_back(l);
    }
    work::Record record;
    std::uint32_t id = 1;
    for (const char* step :
         {"record", "rules", "survey-agrees", "support-frame", "strip-frame", "clear-rails", "scribe", "tie-rails"})
        record.ticks.push_back({TickId{id++}, step, "M.", "2026-03-01T08:00:00Z", "", ""});
    const auto read = [&](double twist) {
        work::Record r = record;
        std::uint32_t next = 50;
        Check d;
        d.id = CheckId{next++};
        d.step = "before-cutting";
        d.from = PointId{1};
        d.to = PointId{8};
        d.value.value = 3000;
        r.checks.push_back(d);
        bool turn = false;
        for (const auto& c : levels(f, f.built(twist, 0, 0.01, 0))) {
            Check l = d;
            l.id = CheckId{next++};
            l.kind = ReadingKind::Level;
            turn = !turn; // half of them typed the other way round
            l.from = turn ? c.to : c.from;
            l.to = turn ? c.from : c.to;
            l.value.value = turn ? -*c.read_mm : *c.read_mm;
            r.checks.push_back(l);
        }
        return work::order(facts, r);
    };
    const auto straight = read(0);
    REQUIRE(straight.find("before-cutting"));
    CHECK(straight.find("before-cutting")->checks.size() == 8);
    CHECK(straight.find("before-cutting")->open());
    const auto twisted = read(2);
    const auto* hold = twisted.find("before-cutting");
    CHECK_FALSE(hold->open());
    CHECK(hold->waits_for.find("is twisted by 29") != std::string::npos);
    CHECK(std::count_if(hold->checks.begin(), hold->checks.end(), [](const auto& c) { return !c.agrees(); }) >= 2);
    // without levels it can't be opened at all
    facts.levels.clear();
    CHECK_FALSE(work::order(facts, record).find("before-cutting")->open());
}

} // namespace work_shape_test
