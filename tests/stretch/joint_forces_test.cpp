// Plug welds and fillets of a splice under the forces of a load case: by hand, and by equilibrium of every plug.
#include "stretch/joint_forces.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace stretch_joint_forces_test {

using namespace gorvet;
using stretch::JointForces;

namespace {

build::RailLine rail() {
    build::RailLine r;
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}
/// Two rows of four plugs a flange, 50 apart, the first 24 from the joint, each good for 9 kN; the sleeve takes all.
stretch::Splice splice(int rows = 2, int in_a_row = 4) {
    stretch::Splice s;
    s.sleeve_share = 1;
    s.plugs.structural = true;
    s.plugs.rows = rows;
    s.plugs.in_a_row = in_a_row;
    s.plugs.needed = rows * in_a_row;
    s.plugs.pitch_mm = 50;
    s.plugs.edge_mm = 24;
    s.plugs.capacity_N = 9000;
    return s;
}
double plug(const stretch::Splice& s, const JointForces& f, bool channel = false) {
    return *stretch::jointBears(s, rail(), channel, false, f).plug_N;
}

} // namespace

TEST_CASE("each force alone, by hand", "[stretch][welds][closed-form]") {
    const auto s = splice();
    const auto places = stretch::plugPlaces(s.plugs);
    REQUIRE(places.size() == 8);
    CHECK(places[0] == std::pair(24.0, -25.0));
    CHECK(places[7] == std::pair(174.0, 25.0));
    // bent up and down: a couple of both flanges over 100 − 2·4, shared by eight
    CHECK(plug(s, {.bends = 920'000}) == Approx(920'000 / 92.0 / 8));
    CHECK(plug(s, {.axial = 1600}) == Approx(100));
    // bent sideways: half of it turns each flange's group; Σ r² = Σ x² + Σ y² about its middle
    const double polar = 2 * 2 * (25 * 25 + 75 * 75) + 8 * 25 * 25;
    CHECK(plug(s, {.bends_aside = 200'000}) == Approx(100'000 * std::hypot(75, 25) / polar));
    // twist of a box: its flow over the flange is T / 2 h; and it stands beside the group's middle by 99
    const double push = 368'000 / (2 * 92.0), turns = push * 99;
    CHECK(plug(s, {.twist = 368'000}) == Approx(std::hypot(turns * 25 / polar, push / 8 + turns * 75 / polar)));
    CHECK(plug(s, {.twist = 368'000}, true) == Approx(2 * plug(s, {.twist = 368'000}))); // a channel's is a couple of its flanges
    CHECK(plug(s, {.aside = 4000}) == Approx(std::hypot(2000 * 99 * 25 / polar, 2000.0 / 8 + 2000 * 99 * 75 / polar)));
}

TEST_CASE("the worst plug is the worst of all, in balance with what pulls at the group", "[stretch][welds][property]") {
    std::mt19937 dice(5);
    const auto any = [&](double most) { return std::uniform_real_distribution<double>(0, most)(dice); };
    for (int n = 0; n < 300; ++n) {
        const auto s = splice(1 + n % 3, 2 + n % 5);
        const JointForces f{any(5000), any(3000), any(3000), any(400'000), any(2e6), any(6e5)};
        const auto places = stretch::plugPlaces(s.plugs);
        // each plug's force by the same loads, put together here from the group's own equations
        double mx = 0, my = 0;
        for (const auto& [x, y] : places) {
            mx += x / places.size();
            my += y / places.size();
        }
        double polar = 0;
        for (const auto& [x, y] : places) polar += std::pow(x - mx, 2) + std::pow(y - my, 2);
        const double pull = f.bends / 92 + f.axial / 2, push = f.aside / 2 + f.twist / 184, turns = f.bends_aside / 2 + push * mx;
        double sum_x = 0, sum_y = 0, about = 0, most = 0;
        for (const auto& [x, y] : places) {
            const double fx = pull / places.size() - turns * (y - my) / polar,
                         fy = push / places.size() + turns * (x - mx) / polar;
            sum_x += fx;
            sum_y += fy;
            about += (x - mx) * fy - (y - my) * fx;
            most = std::max(most, std::hypot(fx, fy));
        }
        CHECK(sum_x == Approx(pull));
        CHECK(sum_y == Approx(push));
        CHECK(about == Approx(turns).margin(1e-6));
        CHECK(plug(s, f) >= most - 1e-6); // never less than the worst of them
        CHECK(plug(s, f) <= most * 1.5);
    }
}

TEST_CASE("what carries nothing bears nothing, and plates have their own share", "[stretch][welds]") {
    auto s = splice();
    const JointForces f{.upright = 8000, .bends = 920'000};
    CHECK_FALSE(stretch::jointBears(s, rail(), false, true, f).plug_N); // the butt weld counts
    s.plugs.structural = false;
    CHECK_FALSE(stretch::jointBears(s, rail(), false, false, f).plug_N);
    CHECK(stretch::jointBears(s, rail(), false, false, f).share() == 0);
    s = splice();
    s.sleeve_share = 0.6;
    s.plate = stretch::FishPlate{6, 80, 400, 3, 24'000, 0};
    const auto bears = stretch::jointBears(s, rail(), false, false, f);
    CHECK(*bears.plug_N == Approx(0.6 * 920'000 / 92 / 8));
    CHECK(bears.plug_may_N == Approx(6000));
    // the plates' couple on their edges, and a quarter of the upright shear
    CHECK(*bears.fillet_N == Approx(std::hypot(0.4 * 920'000 / 2 / 80, 2000)));
    CHECK(bears.fillet_may_N == Approx(16'000));
    CHECK(bears.share() == Approx(std::max(*bears.plug_N / 6000, *bears.fillet_N / 16'000)));
}

} // namespace stretch_joint_forces_test
