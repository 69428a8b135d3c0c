// Wheels: every limit on both sides, plates, turns under a dial.
#include "drive/adaptor.hpp"
#include "drive/wheels_made.hpp"

namespace drive_wheels_test {

TEST_CASE("limits of wheels on both sides", "[drive][wheels]") {
    const auto with = [](auto&& change) {
        WheelsIn in = base();
        change(in);
        return wheelsPlan(in, 0);
    };
    CHECK(wheelsPlan(base(), 0).verdict == PlanVerdict::Holds);
    // stud circles: the same, told apart, not told
    CHECK(verdictOf(with([](WheelsIn& in) { in.hub->circle = read(115); }), "stud-circle") == PlanVerdict::Fails);
    CHECK_FALSE(says(with([](WheelsIn& in) { in.hub->circle = read(114.5); }), "stud-circle"));
    CHECK(verdictOf(with([](WheelsIn& in) {
                        in.hub->circle.reset();
                        in.hub->chord = read(67.4);
                    }),
                    "stud-circle") == PlanVerdict::Marginal);
    CHECK(verdictOf(with([](WheelsIn& in) { in.hub->studs = read(4); }), "stud-circle") == PlanVerdict::Fails);
    CHECK(verdictOf(with([](WheelsIn& in) { in.fitted->bore = read(69.9); }), "wheel-bore") == PlanVerdict::Fails);
    CHECK(verdictOf(with([](WheelsIn& in) { in.fitted->bore = read(73); }), "wheel-bore") == PlanVerdict::Marginal);
    CHECK_FALSE(says(with([](WheelsIn& in) { in.fitted->bore = read(70.4); }), "wheel-bore"));
    // brake: 351 inside, 160 out of the middle: 15.5; asked 3, ± 1.7
    CHECK(verdictOf(with([](WheelsIn& in) { in.hub->brake_radius = read(174.6); }), "brake-room") == PlanVerdict::Fails);
    CHECK(verdictOf(with([](WheelsIn& in) { in.hub->brake_radius = read(172); }), "brake-room") == PlanVerdict::Marginal);
    CHECK_FALSE(says(with([](WheelsIn& in) { in.hub->brake_radius = read(170); }), "brake-room"));
    CHECK(verdictOf(with([](WheelsIn& in) { in.hub->brake_out = read(40); }), "brake-spokes") == PlanVerdict::Fails);
    CHECK_FALSE(says(with([](WheelsIn& in) { in.hub->brake_out = read(34); }), "brake-spokes"));
    // an inside that nobody measured makes no Holds
    CHECK(verdictOf(with([](WheelsIn& in) { in.fitted->inside.reset(); }), "brake-room") == PlanVerdict::Marginal);
    // rims
    CHECK(says(with([](WheelsIn& in) { in.fitted->width = read(115); }), "tyre-rim"));
    CHECK(says(with([](WheelsIn& in) { in.fitted->width = read(185); }), "tyre-rim"));
    CHECK_FALSE(says(with([](WheelsIn& in) { in.fitted->width = read(165); }), "tyre-rim"));
    // loads
    CHECK(verdictOf(with([](WheelsIn& in) { in.fitted->carries = read(479); }), "tyre-load") == PlanVerdict::Fails);
    CHECK(verdictOf(with([](WheelsIn& in) { in.fitted->carries = read(549); }), "tyre-load") == PlanVerdict::Fails);
    CHECK_FALSE(says(with([](WheelsIn& in) { in.fitted->carries = read(551); }), "tyre-load"));
    CHECK(says(with([](WheelsIn& in) { in.wheel_kg->value = 551; }), "axle-load"));
    CHECK_FALSE(says(with([](WheelsIn& in) { in.wheel_kg->value = 549; }), "axle-load"));
    CHECK(says(with([](WheelsIn& in) { in.cruise_kmh = 191; }), "tyre-speed"));
    CHECK_FALSE(says(with([](WheelsIn& in) { in.cruise_kmh = 189; }), "tyre-speed"));
    CHECK(says(with([](WheelsIn& in) { in.drive_tyre_mm = 645; }), "two-tyres"));
    CHECK_FALSE(says(with([](WheelsIn& in) { in.drive_tyre_mm = 636; }), "two-tyres"));
    // wanted ones
    const auto wanted = [&](double backspace, double aspect) {
        return with([&](WheelsIn& in) { in.wanted = wheel(build::WheelAs::Wanted, 152.4, backspace, 195, aspect, 381); });
    };
    CHECK(says(wanted(94, 65), "wheel-out"));
    CHECK_FALSE(says(wanted(96, 65), "wheel-out"));
    CHECK(says(wanted(110, 71), "wheel-size"));
    CHECK_FALSE(says(wanted(110, 69), "wheel-size"));
    // room: asked 20, ± 4
    const auto arch = [&](double out) {
        return verdictOf(with([&](WheelsIn& in) {
                             for (Corner& c : in.corners) c.taped[0].out_mm.value = out;
                         }),
                         "wheel-room");
    };
    const WheelFigures f = figuresOf(*base().fitted);
    const double flank = -f.offset_mm->value + f.section_mm->value / 2, u = wheelsPlan(base(), 0).now[0].clear_mm.u95;
    CHECK(arch(flank + 20 + u - 0.2) == PlanVerdict::Fails);
    CHECK(arch(flank + 20 + u + 0.2) == PlanVerdict::Marginal);
    CHECK(arch(flank + 30 + u - 0.2) == PlanVerdict::Marginal);
    CHECK(arch(flank + 30 + u + 0.2) == PlanVerdict::Holds);
    // what was never measured makes no Holds
    CHECK(with([](WheelsIn& in) { in.assumed.emplace_back("how far the rear wheels go up"); }).verdict == PlanVerdict::Marginal);
    CHECK(with([](WheelsIn& in) { in.hub.reset(); }).verdict == PlanVerdict::Marginal);
    CHECK(wheelsPlan(WheelsIn{}, 0).verdict == PlanVerdict::Marginal);
    // bands
    const auto band = [&](double by, double wide) {
        return with([&](WheelsIn& in) {
            in.widening = build::Widening{{}, build::AxleEnd::Rear, read(by), build::BandAt::Inside, read(380), read(3)};
            in.wanted = wheel(build::WheelAs::Wanted, wide, 110 + by, 195, 65, 381);
        });
    };
    CHECK(says(band(25, 177.4), "welded-rim"));
    CHECK_FALSE(says(band(25, 177.4), "band-width"));
    CHECK(says(band(25, 182), "band-width"));
    CHECK_FALSE(says(band(25, 177.4), "band-offset"));
}

TEST_CASE("a plate's holes stand as far apart as they can", "[drive][wheels]") {
    const auto plate = [](int hub, double hub_circle, int wheel, double wheel_circle) {
        AdaptorIn in;
        in.plate = build::Adaptor{{}, build::AxleEnd::Rear, read(30), read(180), read(13), read(14), {}, read(0)};
        in.hub_studs = hub;
        in.hub_circle_mm = hub_circle;
        in.wheel_studs = wheel;
        in.wheel_circle_mm = wheel_circle;
        in.spigot_mm = 66;
        return in;
    };
    // like circles of five: half a share between, by the cosine rule
    const AdaptorPlan same = adaptorPlan(plate(5, 112, 5, 130));
    CHECK(same.turned_rad == Approx(36 * deg).margin(0.2 * deg));
    CHECK(same.web_mm == Approx(std::sqrt(56 * 56 + 65 * 65 - 2 * 56 * 65 * std::cos(36 * deg)) - 13.5).margin(1e-3));
    CHECK(same.edge_mm == Approx(90 - 65 - 7));
    CHECK(same.middle_mm == Approx(56 - 6.5 - 33));
    CHECK(same.holes.size() == 10);
    // four on five: no turn does better, tried by brute force
    const AdaptorIn in = plate(4, 100, 5, 112);
    const AdaptorPlan other = adaptorPlan(in);
    double best = -1e9;
    for (int k = 0; k < 7200; ++k) {
        double least = 1e9;
        for (int i = 0; i < 4; ++i)
            for (int j = 0; j < 5; ++j) {
                const double a = 90 * deg * i, b = 72 * deg * j + 0.05 * deg * k;
                least =
                    std::min(least, std::hypot(50 * std::cos(a) - 56 * std::cos(b), 50 * std::sin(a) - 56 * std::sin(b)) - 13.5);
            }
        best = std::max(best, least);
    }
    CHECK(other.web_mm == Approx(best).margin(0.02));
    CHECK(other.web_mm < 0);
    // its drawing: every hole, at its place
    const sheet::Drawing d = adaptorDrawing(in.plate, same, 66);
    CHECK(d.items.size() == 12);
    // limits
    WheelsIn wheels = base();
    wheels.wanted = wheel(build::WheelAs::Wanted, 152.4, 110, 195, 65, 381);
    wheels.wanted->circle = read(130);
    wheels.adaptor = in.plate;
    wheels.adaptor->across = read(170);
    wheels.hub->stud_out = read(29);
    wheels.hub->circle = read(100);
    CHECK_FALSE(says(wheelsPlan(wheels, 0), "adaptor-studs"));
    CHECK_FALSE(says(wheelsPlan(wheels, 0), "stud-circle"));
    wheels.hub->stud_out = read(31);
    CHECK(says(wheelsPlan(wheels, 0), "adaptor-studs"));
    wheels.adaptor->across = read(150);
    CHECK(says(wheelsPlan(wheels, 0), "adaptor-web"));
}

TEST_CASE("a turn under the dial: its first harmonic, with ±", "[drive][wheels][coverage]") {
    const auto turn = [](double amplitude, double high, double oval, int n) {
        std::vector<double> list;
        for (int k = 0; k < n; ++k) {
            const double a = 2 * std::numbers::pi * k / n;
            list.push_back(0.3 + amplitude * std::cos(a - high) + oval * std::cos(2 * a));
        }
        return list;
    };
    const RunOut run = runOut(turn(0.8, 220 * deg, 0.1, 12), 0.05);
    CHECK(run.first_mm.value == Approx(0.8));
    CHECK(run.high_rad.value == Approx(220 * deg));
    CHECK(run.rest_mm == Approx(0.2));
    CHECK(run.high_known);
    CHECK(runOut({0, 0, 0}, 0.05).total_mm == 0); // too few: nothing is said
    CHECK_FALSE(runOut(turn(0.001, 0, 0.5, 8), 0.05).high_known);
    std::mt19937 random(9);
    std::normal_distribution<double> normal(0, units::sigmaOfU95(0.05));
    int amplitude = 0, angle = 0;
    for (int trial = 0; trial < 3000; ++trial) {
        auto list = turn(0.8, 220 * deg, 0.1, 8);
        for (double& v : list) v += normal(random);
        const RunOut r = runOut(list, 0.05);
        amplitude += std::abs(r.first_mm.value - 0.8) <= r.first_mm.u95;
        angle += std::abs(r.high_rad.value - 220 * deg) <= r.high_rad.u95;
    }
    CHECK(amplitude > 0.93 * 3000);
    CHECK(amplitude < 0.97 * 3000);
    CHECK(angle > 0.93 * 3000);
    CHECK(angle < 0.97 * 3000);
}

} // namespace drive_wheels_test
