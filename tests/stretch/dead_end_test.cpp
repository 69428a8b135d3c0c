// No plan is a dead end: whatever the rail, some other figures that a builder may say open the hold point before the saw.
#include "stretch/stretch.hpp"

#include <catch2/catch.hpp>
#include <random>

namespace stretch_dead_end_test {

using namespace gorvet;
using build::PlanVerdict;

namespace {

stretch::Input randomPlan(std::mt19937& rng) {
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(rng); };
    stretch::Input in;
    const double height = between(55, 170), width = between(35, 110), wall = between(0.8, 7), slope = between(-0.06, 0.06),
                 aside = between(-0.05, 0.05); // in plan, as far as 1400: behind it they run parallel
    for (build::RailLine* r : {&in.left, &in.right}) {
        const double side = r == &in.left ? -1 : 1;
        for (const double x : {-500.0, 600.0, 1400.0, 3200.0})
            r->points.push_back({x, side * (440 + aside * std::min(x, 1400.0)), 500 - x * slope});
        r->height_mm = height;
        r->width_mm = width;
        r->thickness_mm = std::min(wall, width / 6);
    }
    in.channel = rng() % 3 == 0;
    in.front_axle_mm = 0;
    in.rear_axle_mm = between(2000, 3000);
    in.change_mm = between(-350, 500);
    for (double x = 300; x < *in.rear_axle_mm; x += between(900, 1300)) in.obstacles.push_back({"m", "body mount", x, 0});
    if (rng() % 2) in.mass_kg = between(700, 2600);
    in.kerf_mm = between(0.5, 4);
    in.root_gap_mm = between(0, 4);
    in.sleeve_fit_mm = between(0, 3);
    in.overlap_heights = between(0.5, 4);
    if (rng() % 3 == 0) in.sleeve_wall_mm = between(1, 8);
    if (rng() % 4 == 0) in.fish_plate_mm = between(2, 12);
    if (rng() % 4 == 0) in.plug_hole_mm = between(4, 30);
    if (rng() % 3 == 0) {
        in.tube_height_mm = between(30, 170);
        in.tube_width_mm = between(20, 110);
    }
    for (size_t i = 0; i < build::Words<build::CrossingKind>::text.size(); ++i)
        in.runners.push_back({static_cast<build::CrossingKind>(i), build::Presence::Absent, {}, {}, {}});
    return in;
}

/// Whether a plan may be worked to: nothing of it fails.
bool opens(const stretch::Input& in) {
    const stretch::Plan p = stretch::plan(in);
    return p.status == stretch::Status::Planned && p.verdict != PlanVerdict::Fails;
}

/// Other figures of the joint, at one of the better stations.
bool canBeMended(stretch::Input in) {
    in.tube_height_mm.reset();
    in.tube_width_mm.reset();
    in.strip_mm = 0;
    in.plug_hole_mm.reset();
    in.sleeve_fit_mm = 1;
    in.root_gap_mm = 2;
    std::vector<double> stations;
    in.cut_station_mm = 1200;
    for (const bool stepped : {false, true}) {
        in.stepped = stepped;
        const auto candidates = stretch::plan(in).candidates;
        for (const stretch::Candidate& c : candidates)
            if (c.refused.empty()) stations.push_back(c.station_mm);
    }
    for (const double station : stations) {
        in.cut_station_mm = station;
        for (const auto& [butt, stepped] : {std::pair{false, false}, {true, false}, {false, true}, {true, true}})
            for (const double overlap : {2.0, 3.0, 4.0, 6.0})
                for (const double wall : {0.0, 3.0, 4.0, 5.0, 6.0, 8.0})
                    for (const double plate : {0.0, 3.0, 4.0, 6.0, 8.0, 10.0, 12.0}) {
                        in.butt_counts = butt;
                        in.stepped = stepped;
                        in.overlap_heights = overlap;
                        in.sleeve_wall_mm = wall > 0 ? std::optional(wall) : std::nullopt;
                        in.fish_plate_mm = plate > 0 ? std::optional(plate) : std::nullopt;
                        if (opens(in)) return true;
                    }
    }
    return false;
}

} // namespace

TEST_CASE("500 random plans: none is shut for ever", "[stretch][property][dead-end]") {
    std::mt19937 rng(1961);
    int shut = 0, mended = 0, nowhere = 0;
    for (int k = 0; k < 500; ++k) {
        stretch::Input in = randomPlan(rng);
        in.cut_station_mm = std::uniform_real_distribution<double>(100, 2500)(rng);
        if (opens(in)) continue;
        ++shut;
        // what fails says what to do about it
        const auto failing = stretch::plan(in).remarks;
        for (const auto& r : failing)
            if (r.verdict == PlanVerdict::Fails) CHECK_FALSE(r.remedy.empty());
        stretch::Input any = in;
        any.cut_station_mm = 1200;
        const auto all = stretch::plan(any).candidates;
        if (std::all_of(all.begin(), all.end(), [](const auto& c) { return !c.refused.empty(); })) {
            ++nowhere; // mounts or springs stand so close that no station is free: one of them must move
            continue;
        }
        INFO("plan " << k << ": rail " << in.left.height_mm << " × " << in.left.width_mm << " × " << in.left.thickness_mm
                     << (in.channel ? " channel" : " box") << ", change " << *in.change_mm);
        stretch::Input best = in; // what stands in the way of the most that can be said
        best.tube_height_mm.reset();
        best.tube_width_mm.reset();
        best.plug_hole_mm.reset();
        best.sleeve_fit_mm = 1;
        best.stepped = best.butt_counts = true;
        best.overlap_heights = 4;
        best.fish_plate_mm = 12;
        best.cut_station_mm = all.front().station_mm;
        std::string codes;
        const auto still = stretch::plan(best).remarks;
        for (const auto& r : still)
            if (r.verdict == PlanVerdict::Fails) codes += " " + r.code;
        INFO("at " << all.front().station_mm << ":" << codes);
        const bool can = canBeMended(in);
        CHECK(can);
        mended += can;
    }
    CHECK(shut > 100);
    CHECK(mended > 100);
    CHECK(nowhere < 100);
}

} // namespace stretch_dead_end_test
