#include "tape/network.hpp"

#include "support/support.hpp"

#include <Eigen/Core>
#include <catch2/catch.hpp>

namespace tape_network_test {

using namespace gorvet;
using tape::Axis;
using tape::ReadingKind;

TEST_CASE("held coordinates replace rough ones and are not free", "[tape]") {
    test::SurveyMaker m;
    const int a = m.point("A", 3, 4, 5);
    const int b = m.point("B", 1000, 0, 0);
    m.hold(a, Axis::Z, 0);
    m.hold(a, Axis::Y, -1);
    m.read(ReadingKind::Tape, a, b);
    const auto net = tape::begin(m.survey);
    CHECK(net.at[a].z_mm == 0);
    CHECK(net.at[a].y_mm == -1);
    CHECK(net.at[a].x_mm == 3);
    CHECK(net.free_count == 4);
    CHECK(net.free_index[3 * a + 2] == -1);
    CHECK(net.free_index[3 * a] == 0);
    CHECK(net.active[0]);
}

TEST_CASE("a point alone settles where its readings meet", "[tape]") {
    test::SurveyMaker m;
    for (const auto& [x, y, z] : {std::tuple{0.0, 0.0, 0.0}, {2000.0, 0.0, 0.0}, {0.0, 1500.0, 0.0}, {1800.0, 1600.0, 300.0}})
        m.point("K", x, y, z);
    const int p = m.point("P", 700, 600, 900);
    for (int k = 0; k < 4; ++k) m.read(ReadingKind::Tape, p, k);
    m.survey.points[static_cast<size_t>(p)].rough = build::Vec3{900, 400, 500};
    auto net = tape::begin(m.survey);
    CHECK(tape::omega(net, p) > 1000);
    CHECK(tape::settle(net, p) == Approx(0).margin(1e-9));
    CHECK(net.at[p].x_mm == Approx(700).margin(1e-4));
    CHECK(net.at[p].z_mm == Approx(900).margin(1e-4));
    CHECK(net.at[0].x_mm == 0); // the others did not move
}

TEST_CASE("rows of the design matrix are the equations' derivatives over σ", "[tape]") {
    std::mt19937 rng(31);
    auto m = test::frameSurvey(3, rng);
    m.read(ReadingKind::Tape, 0, 3, 0, 2.0);
    m.read(ReadingKind::Level, 1, 4, 0, 0.5);
    m.read(ReadingKind::Slope, 2, 5, 0, 0.01);
    m.read(ReadingKind::Offset, 5, -1, 0, 1.5);
    auto net = tape::begin(m.survey);
    const Eigen::MatrixXd rows(tape::designMatrix(net));
    REQUIRE(rows.rows() == 4);
    REQUIRE(rows.cols() == net.free_count);
    constexpr double h = 1e-3;
    for (size_t k = 0; k < net.free_index.size(); ++k) {
        if (net.free_index[k] < 0) continue;
        for (int i = 0; i < 4; ++i) {
            double& c = tape::coordinate(net.at[k / 3], static_cast<int>(k % 3));
            const double keep = c;
            c = keep + h;
            const double up = tape::predict(net, i).value;
            c = keep - h;
            const double down = tape::predict(net, i).value;
            c = keep;
            CHECK(rows(i, net.free_index[k]) ==
                  Approx((up - down) / (2 * h) / m.survey.readings[static_cast<size_t>(i)].sigma).margin(1e-6));
        }
    }
}

TEST_CASE("the robust start is not dragged away by one wild reading", "[tape]") {
    std::mt19937 rng(15);
    auto m = test::frameSurvey(4, rng);
    for (int i = 0; i < 8; ++i) {
        m.read(ReadingKind::Height, i);
        for (int j = i + 1; j < 8; ++j) m.read(ReadingKind::Tape, i, j, i == 1 && j == 6 ? 400 : 0);
    }
    auto robust = tape::begin(m.survey);
    REQUIRE(tape::adjust(robust, tape::Loss::Huber));
    auto plain = tape::begin(m.survey);
    REQUIRE(tape::adjust(plain, tape::Loss::Plain));
    const auto miss = [&](const tape::Network& net) {
        double worst = 0;
        for (int i = 0; i < 8; ++i) worst = std::max(worst, std::abs(net.at[i].x_mm - m.truth[static_cast<size_t>(i)].x_mm));
        return worst;
    };
    CHECK(miss(robust) < 5);
    CHECK(miss(plain) > 5 * miss(robust));
}

} // namespace tape_network_test
