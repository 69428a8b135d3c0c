// Shafts that drive forward, and ends that sit in one housing: by mirror image, by rigid motion, by what other shafts come to.
#include "drive/line.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <random>

namespace drive_transfer_test {

using namespace gorvet;
using namespace gorvet::drive;
using build::Dimension;
using build::DriveEndKind;
using build::PlanVerdict;
using build::Provenance;

constexpr double deg = std::numbers::pi / 180;

Dimension read(double value) { return {value, "", Provenance::Measured}; }
Figure slope(double degrees) { return {degrees * deg, build::u95Of(0.1 * deg), Provenance::Measured}; }

struct EndAt {
    const char* name;
    DriveEndKind kind;
    Carrier on;
    Vec3 at;
    double slope_deg;
    int housing;
};
LineInput lineOf(const std::vector<EndAt>& ends, const std::vector<std::pair<std::size_t, std::size_t>>& shafts) {
    LineInput in;
    const std::size_t n = 3 * ends.size();
    in.now.covariance.assign(n * n, 0.0);
    for (std::size_t k = 0; k < ends.size(); ++k) {
        in.now.names.emplace_back(ends[k].name);
        in.now.at.push_back(ends[k].at);
        for (std::size_t a = 0; a < 3; ++a) in.now.covariance[(3 * k + a) * n + 3 * k + a] = 0.04;
        EndIn e;
        e.name = ends[k].name;
        e.kind = ends[k].kind;
        e.on = ends[k].on;
        e.point = static_cast<int>(k);
        e.slope = slope(ends[k].slope_deg);
        e.swing = {0, build::u95Of(0.1 * deg), Provenance::Measured};
        e.housing = ends[k].housing;
        in.ends.push_back(e);
    }
    in.planned = in.now.at;
    for (const auto& [from, to] : shafts) {
        ShaftIn s;
        s.shaft.name = "to-" + in.ends[to].name;
        s.shaft.phase = read(0);
        s.shaft.slip_in = s.shaft.slip_out = read(80);
        s.shaft.tube = read(70);
        s.shaft.wall = read(2.5);
        s.shaft.limit = read(25 * deg);
        s.from = from;
        s.to = to;
        in.shafts.push_back(s);
    }
    in.bump_mm = in.droop_mm = {60, 60};
    in.redline_rpm = 4200;
    return in;
}
/// A transfer box that drives both axles; the front one's nose points back.
LineInput box() {
    return lineOf({{"rear-out", DriveEndKind::Output, Carrier::Frame, {1300, -80, 440}, 1, 0},
                   {"front-out", DriveEndKind::Output, Carrier::Frame, {1150, -150, 430}, 1, 0},
                   {"rear", DriveEndKind::Pinion, Carrier::Rear, {2450, -80, 400}, 1, -1},
                   {"front", DriveEndKind::Pinion, Carrier::Frame, {240, -150, 395}, 1, -1}},
                  {{0, 2}, {1, 3}});
}
const ChainPlan& chain(const LinePlan& p, const char* name) {
    for (const ChainPlan& c : p.chains)
        if (c.name == name) return c;
    throw std::runtime_error(name);
}

TEST_CASE("a shaft that drives forward bends as its mirror image does that drives back", "[drive][line][transfer]") {
    std::mt19937 dice(5);
    std::uniform_real_distribution<double> any(-1, 1);
    for (int round = 0; round < 40; ++round) {
        const double up = 60 * any(dice), aside = 80 * any(dice), out = 4 * any(dice), in = 4 * any(dice);
        const LineInput forward = lineOf({{"box", DriveEndKind::Output, Carrier::Frame, {1150, aside, 430}, out, -1},
                                          {"front", DriveEndKind::Pinion, Carrier::Front, {240, 0, 430 + up}, in, -1}},
                                         {{0, 1}});
        // seen in a mirror that stands across the car: what is down at the back is up at the back
        const LineInput back = lineOf({{"box", DriveEndKind::Output, Carrier::Frame, {-1150, aside, 430}, -out, -1},
                                       {"rear", DriveEndKind::Pinion, Carrier::Rear, {-240, 0, 430 + up}, -in, -1}},
                                      {{0, 1}});
        const ChainPlan a = linePlan(forward).chains.at(0), b = linePlan(back).chains.at(0);
        INFO(round);
        for (std::size_t s = 0; s < a.stands.size(); ++s) {
            for (std::size_t j = 0; j < 2; ++j) {
                CHECK(a.stands[s].angles_rad[j].value == Approx(b.stands[s].angles_rad[j].value).margin(1e-12));
                CHECK(a.stands[s].angles_rad[j].u95 == Approx(b.stands[s].angles_rad[j].u95).epsilon(1e-4));
                CHECK(a.stands[s].angles_rad[j].value < 0.6); // and not by what is left of a half turn
            }
            CHECK(a.stands[s].residual_rad.value == Approx(b.stands[s].residual_rad.value).margin(1e-9));
            CHECK(a.stands[s].lengths_mm[0].value == Approx(b.stands[s].lengths_mm[0].value));
        }
        CHECK(a.exact_lead_rad == Approx(b.exact_lead_rad).margin(1e-9));
        CHECK(a.school_rad.has_value());
        CHECK(*a.school_rad == Approx(-*b.school_rad)); // parallel to the box
        CHECK(a.verdict == b.verdict);
        // a nose that goes up does so in a mirror, too; the engine's mounts are ahead of the box in both
        const auto turns = [](const ChainPlan& c) {
            for (const Remedy& r : c.remedies)
                if (r.words.starts_with("turn the pinion")) return r.words;
            return std::string();
        };
        CHECK(turns(a) == turns(b));
    }
}

TEST_CASE("ends of one housing move as one rigid thing", "[drive][line][transfer]") {
    LineInput in = box();
    const LinePlan before = linePlan(in);
    // turned and moved by what is planned of the one: the other stands to it as it did
    in.ends[0].turned_rad = 2 * deg;
    in.ends[0].moved = {0, 10, 15};
    const LinePlan after = linePlan(in);
    const Vec3 was = geometry::minus(in.planned[1], in.planned[0]);
    const auto ends = [&](const LinePlan& p, const char* name) { return chain(p, name).sweep[10].at.front(); };
    const Vec3 is = geometry::minus(ends(after, "front-out to front"), ends(after, "rear-out to rear"));
    CHECK(geometry::length(is) == Approx(geometry::length(was)));
    CHECK(std::atan2(-is.z_mm, is.x_mm) - std::atan2(-was.z_mm, was.x_mm) == Approx(2 * deg).epsilon(1e-6));
    CHECK(is.y_mm == Approx(was.y_mm));
    CHECK(ends(after, "rear-out to rear").z_mm == Approx(455));
    // both shafts' angles change by the turn, whichever of the two carries the plan
    LineInput other = box();
    other.ends[1].turned_rad = 2 * deg;
    const Vec3 arm = geometry::minus(ends(after, "front-out to front"), in.planned[1]);
    other.ends[1].moved = arm;
    const LinePlan same = linePlan(other);
    for (const char* name : {"rear-out to rear", "front-out to front"})
        for (std::size_t j = 0; j < 2; ++j)
            CHECK(chain(same, name).stands[0].angles_rad[j].value ==
                  Approx(chain(after, name).stands[0].angles_rad[j].value).epsilon(1e-9));
    // alone, the other would not have moved
    LineInput alone = in;
    for (EndIn& e : alone.ends) e.housing = -1;
    CHECK(chain(linePlan(alone), "front-out to front").stands[0].angles_rad[0].value ==
          Approx(chain(before, "front-out to front").stands[0].angles_rad[0].value));
}

TEST_CASE("what mends one shaft and spoils another of the same housing is not proposed", "[drive][line][transfer]") {
    // the front shaft is well as it is; the rear one wants the box turned or its pinion
    LineInput in = box();
    in.ends[2].slope = slope(5);
    in.ends[3].slope = slope(1.1);
    const LinePlan plan = linePlan(in);
    for (const auto& r : chain(plan, "front-out to front").remarks) UNSCOPED_INFO(r.sentence);
    REQUIRE(chain(plan, "front-out to front").verdict == PlanVerdict::Holds);
    const ChainPlan& rear = chain(plan, "rear-out to rear");
    REQUIRE(rear.verdict == PlanVerdict::Fails);
    REQUIRE_FALSE(rear.remedies.empty());
    CHECK(rear.searched.find("same housing") != std::string::npos);
    const auto moves_box = [](const ChainPlan& c) {
        return std::any_of(c.remedies.begin(), c.remedies.end(),
                           [](const Remedy& r) { return r.words.find("the tail of") == 0; });
    };
    // each of them, done, leaves the front shaft as it is
    for (const Remedy& r : rear.remedies) {
        INFO(r.words);
        const auto figure = [&](const char* word) {
            const auto at = r.line.find(word);
            return at == std::string::npos ? 0.0 : std::stod(r.line.substr(at + std::string(word).size()));
        };
        LineInput done = in;
        EndIn& e = done.ends[r.line.find("pinion") == 0 ? 2 : 0];
        e.turned_rad = figure(" turn ") * deg;
        e.moved.z_mm = figure(" raise ");
        CHECK(chain(linePlan(done), "front-out to front").verdict == PlanVerdict::Holds);
    }
    // were the front output elsewhere, the box could be moved for the rear shaft alone
    LineInput alone = in;
    for (EndIn& e : alone.ends) e.housing = -1;
    const LinePlan free = linePlan(alone);
    CHECK(chain(free, "rear-out to rear").searched.find("same housing") == std::string::npos);
    CHECK(moves_box(chain(free, "rear-out to rear")));
    CHECK_FALSE(moves_box(rear));
}

TEST_CASE("a second rear axle goes straight up and down, whatever turns the first", "[drive][line][transfer]") {
    LineInput in = lineOf({{"box", DriveEndKind::Output, Carrier::Frame, {1300, 0, 440}, 2, -1},
                           {"first", DriveEndKind::Pinion, Carrier::Rear, {2300, 0, 400}, 2, -1},
                           {"through", DriveEndKind::Through, Carrier::Rear, {2600, 0, 400}, 2, -1},
                           {"second", DriveEndKind::Pinion, Carrier::SecondRear, {3400, 0, 400}, 2, -1}},
                          {{0, 1}, {2, 3}});
    // the first axle on two trailing arms a side that are alike, and a panhard rod: it swings back as it goes up
    AxleIn rear;
    const auto place = [&](Vec3 at) {
        in.now.at.push_back(at);
        in.now.names.emplace_back("p");
        return in.now.at.size() - 1;
    };
    rear.left = place({2600, -700, 380});
    rear.right = place({2600, 700, 380});
    for (const double side : {-1.0, 1.0}) {
        rear.links.push_back({"lower", build::LinkKind::Rod, {place({2000, side * 450, 330}), place({2590, side * 450, 330})}});
        rear.links.push_back({"upper", build::LinkKind::Rod, {place({2200, side * 300, 520}), place({2610, side * 300, 500})}});
    }
    rear.links.push_back({"panhard", build::LinkKind::Rod, {place({2660, -480, 400}), place({2660, 460, 400})}});
    rear.bump_mm = rear.droop_mm = 60;
    in.rear = rear;
    in.planned = in.now.at;
    const std::size_t n = 3 * in.now.at.size();
    in.now.covariance.assign(n * n, 0.0);
    for (std::size_t k = 0; k < n; ++k) in.now.covariance[k * n + k] = 0.04;
    const LinePlan plan = linePlan(in);
    const ChainPlan& second = chain(plan, "through to second");
    const Vec3 rest = second.sweep[10].at.back(), bump = second.sweep[20].at.back(), droop = second.sweep[0].at.back();
    CHECK(bump.z_mm - rest.z_mm == Approx(60));
    CHECK(droop.z_mm - rest.z_mm == Approx(-60));
    CHECK(bump.x_mm == Approx(rest.x_mm));
    // and the first does turn: its through end, by its links
    const Vec3 here = second.sweep[10].at.front(), up = second.sweep[20].at.front();
    CHECK(std::abs(up.x_mm - here.x_mm) > 1);
}

} // namespace drive_transfer_test
