// What stands or hangs upright on points, against closed forms and springs at random.
#include "work/carry.hpp"

#include "dense/dense.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <random>


namespace work_carry_test {

using namespace gorvet::work;

namespace {

CarryInput on(std::vector<Vec3> places, double mass, Vec3 centre) {
    CarryInput in;
    in.mass_kg = mass;
    in.mass_u95_kg = 1e-9;
    in.centre = centre;
    for (std::size_t k = 0; k < places.size(); ++k) in.points.push_back({"p" + std::to_string(k), places[k], 5000, true});
    return in;
}
const std::vector<Vec3> square{{0, -500, 0}, {2000, -500, 0}, {2000, 500, 0}, {0, 500, 0}};

} // namespace

TEST_CASE("three stands by levers, four alike, two of four at the worst", "[work][lift]") {
    // one in front in the middle, two behind: the front one by its lever
    const CarryPlan three = carry(on({{0, 0, 0}, {2000, -700, 0}, {2000, 700, 0}}, 600, {500, 0, 300}));
    REQUIRE(three.stands);
    CHECK(three.loads[0].load_kg == Approx(600 * 1500.0 / 2000));
    CHECK(three.loads[1].load_kg == Approx(600 * 500.0 / 2000 / 2));
    CHECK(three.loads[0].most_kg == Approx(three.loads[0].load_kg)); // three can't share otherwise
    CHECK(three.verdict == LiftVerdict::Holds);

    const CarryPlan four = carry(on(square, 800, {1000, 0, 300}));
    for (const CarryLoad& l : four.loads) {
        CHECK(l.load_kg == Approx(200));
        CHECK(l.most_kg == Approx(400)); // two across carry all
    }
    CHECK(four.edge_mm == Approx(500));
}

TEST_CASE("both sides of each limit of what stands", "[work][lift]") {
    const auto verdict = [](CarryInput in) { return carry(in).verdict; };
    CarryInput in = on(square, 800, {1000, 0, 300});
    in.points[2].rated_kg = 400.1;
    CHECK(verdict(in) == LiftVerdict::Holds);
    in.points[2].rated_kg = 399.9;
    CHECK(verdict(in) == LiftVerdict::Fails);
    in.points[2].rated_kg = 400.1;
    in.mass_u95_kg = 10; // it may be heavier
    CHECK(verdict(in) == LiftVerdict::Fails);

    in = on(square, 800, {1000, 399.9, 300});
    CHECK(verdict(in) == LiftVerdict::Holds); // 100.1 mm from the edge
    in.centre.y_mm = 400.1;
    CHECK(verdict(in) == LiftVerdict::Marginal);
    in.centre.y_mm = 499.9;
    CHECK(verdict(in) == LiftVerdict::Marginal);
    in.centre_u95.y_mm = 0.2;
    CHECK(verdict(in) == LiftVerdict::Fails);
    in.centre = {1000, 500.1, 300};
    CHECK(verdict(in) == LiftVerdict::Fails);
    CHECK_FALSE(carry(in).stands);

    in = on(square, 800, {1000, 0, 300});
    in.points[0].sound = false;
    CHECK(verdict(in) == LiftVerdict::Marginal);
    in.points[0].sound = true;
    in.points[0].rated_kg = 0;
    CHECK(verdict(in) == LiftVerdict::Marginal);
    in = on(square, 800, {1000, 0, 300});
    in.mass_u95_kg = 0;
    CHECK(verdict(in) == LiftVerdict::Marginal);
}

TEST_CASE("a line of points tips, unless it hangs; what hangs by points below its centre turns over", "[work][lift]") {
    CarryInput in = on({{0, 0, 1200}, {2000, 0, 1200}}, 500, {600, 40, 500});
    CHECK(carry(in).verdict == LiftVerdict::Fails);
    in.hangs = true;
    const CarryPlan p = carry(in);
    CHECK(p.verdict == LiftVerdict::Holds);
    CHECK(p.loads[0].most_kg == Approx(500 * 1400.0 / 2000));
    CHECK(p.loads[1].most_kg == Approx(500 * 600.0 / 2000));
    in.points[0].at.z_mm = in.points[1].at.z_mm = 400;
    CHECK(carry(in).verdict == LiftVerdict::Fails);
    CHECK(carry(on({{0, 0, 0}}, 500, {0, 0, 0})).verdict == LiftVerdict::Fails);
    CHECK(carry(on({{0, 0, 0}, {0, 0, 0}}, 500, {0, 0, 0})).verdict == LiftVerdict::Fails);
}

TEST_CASE("whatever the stands' stiffness and wherever the centre is within its ±, no point carries more than is said",
          "[work][lift]") {
    std::mt19937 dice(8);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(dice); };
    int looked = 0;
    for (int n = 0; n < 400; ++n) {
        std::vector<Vec3> places;
        const int points = 3 + static_cast<int>(between(0, 3.99));
        for (int k = 0; k < points; ++k) places.push_back({between(0, 3000), between(-800, 800), 0});
        CarryInput in = on(places, between(100, 900), {between(500, 2500), between(-400, 400), 300});
        in.centre_u95 = {between(0, 80), between(0, 50), 0};
        in.mass_u95_kg = between(0, 40);
        const CarryPlan p = carry(in);
        if (p.verdict == LiftVerdict::Fails) continue;
        ++looked;
        for (int way = 0; way < 20; ++way) {
            // springs that only push: those that would pull are taken away one after the other
            const Vec3 c{in.centre.x_mm + between(-1, 1) * in.centre_u95.x_mm,
                         in.centre.y_mm + between(-1, 1) * in.centre_u95.y_mm, 0};
            const double mass = in.mass_kg + between(-1, 1) * in.mass_u95_kg;
            std::vector<std::size_t> active;
            for (std::size_t k = 0; k < places.size(); ++k) active.push_back(k);
            Eigen::VectorXd stiff(static_cast<Eigen::Index>(places.size()));
            for (Eigen::Index k = 0; k < stiff.size(); ++k) stiff(k) = between(0.1, 1);
            while (active.size() >= 3) {
                Eigen::Matrix3d m = Eigen::Matrix3d::Zero();
                for (const std::size_t k : active) {
                    const Eigen::Vector3d r(1, places[k].x_mm / 1000, places[k].y_mm / 1000);
                    m += stiff(static_cast<Eigen::Index>(k)) * r * r.transpose();
                }
                const Eigen::Vector3d sink =
                    gorvet::dense::solveSymmetric(m, Eigen::Vector3d(mass, mass * c.x_mm / 1000, mass * c.y_mm / 1000));
                std::vector<double> force;
                for (const std::size_t k : active)
                    force.push_back(stiff(static_cast<Eigen::Index>(k)) *
                                    sink.dot(Eigen::Vector3d(1, places[k].x_mm / 1000, places[k].y_mm / 1000)));
                const auto least = std::min_element(force.begin(), force.end());
                if (*least >= -1e-6) {
                    for (std::size_t j = 0; j < active.size(); ++j) CHECK(force[j] <= p.loads[active[j]].most_kg * 1.005);
                    break;
                }
                const auto pulls = static_cast<std::size_t>(least - force.begin());
                active.erase(active.begin() + static_cast<std::ptrdiff_t>(pulls));
            }
        }
    }
    CHECK(looked > 60);
}

} // namespace work_carry_test
