// Practice frames and the instruments that read them.
#include "analysis/practice.hpp"
#include "sim/instruments.hpp"

#include "build/edit.hpp"
#include "entry/entry.hpp"
#include "prompt/context.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <set>

namespace sim_sim_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

double distance(const Vec3& a, const Vec3& b) { return std::hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm, a.z_mm - b.z_mm); }

Build begun(std::uint32_t seed, int difficulty) {
    Build b;
    for (const Change& c : analysis::beginPractice(seed, difficulty)) {
        const auto done = enact(b, c);
        if (!done) FAIL(done.error().text());
    }
    return b;
}

void type(Build& b, const analysis::Results& r, const std::string& line) {
    INFO(line);
    const auto understood = entry::understand(b, prompt::contextFor(r, the_chassis, "M.", "2026-03-01T08:00:00Z"), line);
    if (!understood) FAIL(understood.error().text());
    const auto kept = enact(b, understood->edit);
    if (!kept) FAIL(kept.error().text());
}

/// Reads it with the simulated instrument, as the entry line would keep it.
void take(Build& b, const analysis::Results& r, const std::string& kind, const std::string& from, const std::string& to) {
    const auto f = sim::crookedFrame(static_cast<std::uint32_t>(b.practice.seed), static_cast<int>(b.practice.difficulty));
    const auto taken = sim::take(f, analysis::practiceTask(b, kind, from, to));
    REQUIRE(taken);
    type(b, r, kind + " " + from + " " + to + " " + taken->figure);
}

} // namespace

TEST_CASE("the same seed is the same frame, another seed another", "[sim]") {
    const auto a = sim::crookedFrame(7, 2);
    const auto b = sim::crookedFrame(7, 2);
    REQUIRE(a.points.size() == b.points.size());
    for (size_t i = 0; i < a.points.size(); ++i) CHECK(a.points[i].truth == b.points[i].truth);
    CHECK(sim::crookedFrame(8, 2).points[2].truth.x_mm != a.points[2].truth.x_mm);
    std::set<std::string> kinds;
    for (std::uint32_t seed = 0; seed < 200; ++seed)
        for (int level = 1; level <= 3; ++level) {
            const auto f = sim::crookedFrame(seed, level);
            REQUIRE_FALSE(f.faults.empty());
            CHECK(f.faults.size() < 5); // something is straight
            for (const auto& fault : f.faults) {
                kinds.insert(fault.key);
                CHECK(std::abs(fault.amount_mm) >= 4.5);
            }
            CHECK(f.misread.size() == (level == 3 ? 2U : 1U));
            for (const auto& p : f.points) CHECK(distance(p.truth, p.drawn) < 30);
        }
    CHECK(kinds.size() == 5);
}

TEST_CASE("instruments read with their own noise, and one tape is misread", "[sim]") {
    const auto f = sim::crookedFrame(3, 1);
    const double truth = distance(f.named("Al")->truth, f.named("Er")->truth);
    const double sigma = defaultSigma(ReadingKind::Tape, truth);
    double sum = 0;
    double square = 0;
    constexpr int rounds = 2000;
    for (int k = 0; k < rounds; ++k) {
        const auto t = sim::take(f, {"tape", "Al", "Er", k, 1000 + k, 0});
        REQUIRE(t);
        CHECK_FALSE(t->misread);
        sum += (t->value - truth) / rounds;
        square += (t->value - truth) * (t->value - truth) / rounds;
    }
    CHECK(sum == Approx(0).margin(0.15));
    CHECK(std::sqrt(square) == Approx(sigma).epsilon(0.06));
    // from the other end it is the same reading
    CHECK(sim::take(f, {"tape", "Al", "Er", 3, 50, 0})->value == sim::take(f, {"tape", "Er", "Al", 3, 50, 0})->value);
    int misread = 0;
    for (int k = 0; k < 30; ++k) {
        const auto t = sim::take(f, {"tape", "Al", "Er", 0, k, 0});
        misread += t->misread;
        CHECK(t->misread == (std::abs(t->value - t->truth) > 5 * sigma));
        // taped again it is read right
        CHECK_FALSE(sim::take(f, {"tape", "Al", "Er", 1, k, 0})->misread);
    }
    CHECK(misread == 1);
    CHECK(sim::take(f, {"height", "Cl", "", 0, 0, 0})->figure.ends_with(" mm"));
    CHECK(std::abs(units::degrees(sim::take(f, {"cross-level", "Al", "Ar", 0, 0, 0})->value)) < 3);
    CHECK(sim::take(f, {"scales", "front-left", "", 0, 0, 0})->figure.ends_with(" kg"));
    CHECK(sim::take(f, {"dial", "rear-left", "", 0, 0, 0})->value == Approx(0.35).margin(0.25));
    CHECK_FALSE(sim::take(f, {"tape", "Al", "Zr", 0, 0, 0}));
    CHECK_FALSE(sim::take(f, {"tape", "Al", "Al", 0, 0, 0}));
    CHECK_FALSE(sim::take(f, {"tape", "Al", "", 0, 0, 0}));
    CHECK_FALSE(sim::take(f, {"scales", "middle", "", 0, 0, 0}));
    CHECK_FALSE(sim::take(f, {"symmetry", "Al", "Ar", 0, 0, 0}));
}

TEST_CASE("one who measures well and believes the bench is marked right", "[sim][practice]") {
    int right = 0;
    int asked = 0;
    int full = 0;
    constexpr int frames = 24;
    for (std::uint32_t seed = 100; seed < 100 + frames; ++seed) {
        const int level = 1 + static_cast<int>(seed % 3);
        Build b = begun(seed, level);
        analysis::Results r = analysis::analyse(b, 0);
        const std::vector<std::string> names = {"Al", "Ar", "Bl", "Br", "Cl", "Cr", "Dl", "Dr", "El", "Er"};
        // each figure twice, as the measuring sheet asks
        for (int again = 0; again < 2; ++again) {
            for (const auto& n : names) take(b, r, "height", n, "");
            for (size_t i = 0; i < names.size(); ++i)
                for (size_t j = i + 1; j < names.size(); ++j)
                    if (j - i <= 3 || (i < 2 && j >= 8)) take(b, r, "tape", names[i], names[j]);
        }
        r = analysis::analyse(b, 1);
        REQUIRE(r.chassis.solution->status == tape::Status::Solved);
        // what stands out is named and taped again
        for (int round = 0; round < 4; ++round) {
            std::vector<std::pair<std::string, std::string>> wrong;
            for (size_t i = 0; i < r.chassis.solution->readings.size(); ++i)
                if (r.chassis.solution->readings[i].verdict == tape::Verdict::Retape &&
                    r.chassis.survey.readings[i].kind == ReadingKind::Tape)
                    wrong.emplace_back(r.chassis.survey.points[r.chassis.survey.readings[i].from].name,
                                       r.chassis.survey.points[r.chassis.survey.readings[i].to].name);
            for (const auto& [from, to] : wrong) take(b, r, "tape", from, to);
            if (wrong.empty()) break;
            r = analysis::analyse(b, 2 + round);
        }
        CHECK(analysis::markPractice(b, r).marks.empty()); // nothing of the truth before the answers are handed in
        for (const auto& f : r.chassis.condition->figures) {
            const std::string key = f.key;
            if (key != "diamond" && key != "twist" && key != "rail-difference" && key != "sidesway" && key != "sag") continue;
            if (std::abs(f.size_mm.value) > b.settings.frame_tolerance_mm)
                type(b, r, "answer " + key + " " + units::fixed(std::abs(f.size_mm.value), 1));
            else
                type(b, r, "answer " + key + " straight");
        }
        type(b, r, "hand-in");
        r = analysis::analyse(b, 9);
        const auto result = analysis::markPractice(b, r);
        REQUIRE(result.marks.size() >= 5);
        for (const auto& m : result.marks) {
            ++asked;
            right += m.how == analysis::PracticeMark::How::Right;
        }
        full += result.points == result.most;
    }
    INFO(right << " of " << asked << " right, " << full << " frames without a fault");
    CHECK(right >= asked * 95 / 100);
    CHECK(full >= frames * 3 / 4);
}

TEST_CASE("wrong answers are marked as what they are", "[sim][practice]") {
    Build b = begun(5, 1);
    const auto f = sim::crookedFrame(5, 1);
    analysis::Results r = analysis::analyse(b, 0);
    std::set<std::string> faulty;
    for (const auto& fault : f.faults) faulty.insert(fault.key);
    // every fault denied, everything straight accused, and an honest reading with it
    for (const char* key : {"diamond", "twist", "rail-difference", "sidesway", "sag"})
        type(b, r, std::string("answer ") + key + (faulty.contains(key) ? " straight" : " 12"));
    take(b, r, "tape", "Al", "Ar");
    r = analysis::analyse(b, 1);
    type(b, r, "answer reading Al Ar");
    type(b, r, "hand-in");
    r = analysis::analyse(b, 2);
    const auto result = analysis::markPractice(b, r);
    CHECK(result.points == 0);
    int missed = 0;
    int wrong = 0;
    for (const auto& m : result.marks) {
        missed += m.how == analysis::PracticeMark::How::Missed;
        wrong += m.how == analysis::PracticeMark::How::Wrong;
    }
    CHECK(missed == static_cast<int>(faulty.size()));
    CHECK(wrong == 5 - static_cast<int>(faulty.size()) + 1);
    // after that nothing more can be said
    CHECK_FALSE(entry::understand(b, {}, "answer twist 3"));
    CHECK_FALSE(entry::understand(b, {}, "hand-in"));
}

} // namespace sim_sim_test
