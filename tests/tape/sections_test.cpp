// The frame along its length, sag against the drawing, and readings that no tape can take.
#include "tape/next_reading.hpp"
#include "tape/survey_sheet.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_sections_test {

using namespace gorvet;

namespace {

tape::Solution exactly(const std::vector<build::Vec3>& at, double sd = 0.5) {
    tape::Solution s;
    s.status = tape::Status::Solved;
    const size_t n = 3 * at.size();
    std::vector<double> all(n * n, 0.0);
    for (size_t k = 0; k < n; ++k) all[k * n + k] = sd * sd;
    s.covariance = tape::Covariance::of(n, std::move(all));
    for (const auto& p : at) {
        tape::AdjustedPoint a;
        a.placed = a.determined = true;
        a.position = p;
        s.points.push_back(a);
    }
    return s;
}

/// Five pairs 800 apart, 800 wide at 400 high, changed point by point.
template <class F> std::vector<build::Vec3> frame(F&& change) {
    std::vector<build::Vec3> at;
    for (int i = 0; i < 5; ++i)
        for (const double side : {-1.0, 1.0}) {
            build::Vec3 p{800.0 * i, 400 * side, 400};
            change(p, i, side);
            at.push_back(p);
        }
    return at;
}
tape::FramePoints pairsOf(bool drawing) {
    tape::FramePoints f;
    for (int i = 0; i < 5; ++i) {
        f.pairs.push_back({2 * i, 2 * i + 1});
        if (drawing) f.design_heights[2 * i] = f.design_heights[2 * i + 1] = 400;
    }
    return f;
}

} // namespace

TEST_CASE("each deviation shows in its own strip, by its own amount", "[tape][sections]") {
    const auto straight = tape::sections(exactly(frame([](auto&, int, double) {})), pairsOf(true));
    REQUIRE(straight.size() == 5);
    for (const auto& s : straight) {
        CHECK(s.lead.size_mm.value == Approx(0).margin(1e-9));
        CHECK(s.lean.size_mm.value == Approx(0).margin(1e-9));
        CHECK(s.aside.size_mm.value == Approx(0).margin(1e-9));
        REQUIRE(s.low);
        CHECK(s.low->size_mm.value == Approx(0).margin(1e-9));
    }
    // the middle pair 7 low, the second twisted by 5 over its width, the fourth 6 to the left, the rear left 9 aft
    const auto bent = tape::sections(exactly(frame([](build::Vec3& p, int i, double side) {
                                         if (i == 2) p.z_mm -= 7;
                                         if (i == 1) p.z_mm += 2.5 * side;
                                         if (i == 3) p.y_mm -= 6;
                                         if (i == 4 && side < 0) p.x_mm += 9;
                                     })),
                                     pairsOf(true));
    CHECK(bent[2].low->size_mm.value == Approx(7).margin(0.01));
    CHECK(proven(bent[2].low->size_mm));
    CHECK(bent[2].low->verdict == tape::PlanVerdict::Fails);
    CHECK(bent[1].lean.size_mm.value == Approx(5).margin(0.01));
    CHECK(bent[3].aside.size_mm.value == Approx(-6).margin(0.02));
    CHECK(bent[4].lead.size_mm.value == Approx(9).margin(0.01));
    CHECK(std::abs(bent[0].lead.size_mm.value) < 0.05);
    // the ends are what the others are measured against
    CHECK(bent[4].aside.size_mm.u95 == 0);
    CHECK(bent[0].lean.size_mm.u95 == 0);
    // ± of a cross-level's change: four heights of σ 0.5 each, 1.96 σ √4
    CHECK(bent[1].lean.size_mm.u95 == Approx(1.96 * 0.5 * 2).epsilon(0.01));
}

TEST_CASE("sag is judged against the drawing only", "[tape][sections]") {
    const auto at = frame([](build::Vec3& p, int i, double) {
        p.z_mm += i >= 3 ? 80 : 0; // a kick-up
        if (i == 1) p.z_mm -= 6;
    });
    const auto sag = [](const tape::Condition& c) -> const tape::ConditionFigure* {
        for (const auto& f : c.figures)
            if (f.kind == tape::FigureKind::Sag) return &f;
        return nullptr;
    };
    CHECK(sag(tape::condition(exactly(at), pairsOf(false))) == nullptr);
    CHECK_FALSE(tape::sections(exactly(at), pairsOf(false))[1].low);
    auto drawn = pairsOf(true);
    for (const int p : {6, 7, 8, 9}) drawn.design_heights[p] = 480;
    const auto c = tape::condition(exactly(at), drawn);
    REQUIRE(sag(c));
    CHECK(sag(c)->size_mm.value == Approx(6).margin(0.01));
    CHECK(sag(c)->words == "middle low");
    CHECK(sag(c)->judged);
}

TEST_CASE("a frame turned in plan or leaning as a whole is as straight as before", "[tape][sections][property]") {
    std::mt19937 rng(2);
    for (int round = 0; round < 40; ++round) {
        const double yaw = test::normal(rng, 0.05);
        const double roll = test::normal(rng, 0.004);
        const auto s = tape::sections(exactly(frame([&](build::Vec3& p, int, double) {
                                          const build::Vec3 q = p;
                                          p.x_mm = q.x_mm * std::cos(yaw) - q.y_mm * std::sin(yaw) + 30;
                                          p.y_mm = q.x_mm * std::sin(yaw) + q.y_mm * std::cos(yaw) - 12;
                                          p.z_mm = q.z_mm + roll * q.y_mm;
                                      })),
                                      pairsOf(true));
        for (const auto& section : s) {
            CHECK(section.lead.size_mm.value == Approx(0).margin(1e-6));
            CHECK(section.aside.size_mm.value == Approx(0).margin(1e-6));
            CHECK(section.lean.size_mm.value == Approx(0).margin(0.01));
        }
    }
}

TEST_CASE("the strips are drawn for what is known", "[tape][sections]") {
    const auto at = frame([](build::Vec3& p, int i, double) { p.z_mm -= i == 2 ? 8 : 0; });
    tape::Survey survey;
    for (int i = 0; i < 10; ++i)
        survey.points.push_back({std::string(1, static_cast<char>('A' + i / 2)) + (i % 2 ? "r" : "l"), {}});
    const auto words = [&](bool drawing) {
        const auto d = tape::sectionsSheet(tape::sections(exactly(at), pairsOf(drawing)), survey, 3, 900, 500, sheet::Format{1});
        std::string all;
        for (const auto& item : d.items)
            if (const auto* t = std::get_if<sheet::Text>(&item.shape)) all += t->text + "\n";
        return all;
    };
    CHECK(words(true).find("8.0") != std::string::npos);
    CHECK(words(true).find("Cl Cr") != std::string::npos);
    CHECK(words(false).find("no heights from a drawing") != std::string::npos);
    CHECK(tape::sectionsSheet({}, survey, 3, 900, 500, sheet::Format{1}).items.empty());
}

TEST_CASE("no tape goes through what is in the way", "[tape][next]") {
    const tape::Box engine{{200, -300, 100}, {900, 300, 700}};
    CHECK(tape::blocks(engine, {0, 0, 400}, {1200, 0, 400}));
    CHECK(tape::blocks(engine, {0, -500, 400}, {1000, 500, 400}));
    CHECK_FALSE(tape::blocks(engine, {0, 0, 800}, {1200, 0, 750}));       // over it
    CHECK_FALSE(tape::blocks(engine, {0, -400, 400}, {1200, -400, 400})); // beside it
    CHECK_FALSE(tape::blocks(engine, {0, 0, 400}, {150, 0, 400}));        // it ends before
    CHECK_FALSE(tape::blocks(engine, {200, 0, 400}, {0, 0, 400}));        // from its own face
    CHECK(tape::blocks(engine, {500, 0, 400}, {1200, 0, 400}));           // from inside it

    std::mt19937 rng(7);
    auto m = test::frameSurvey(4, rng);
    for (int i = 0; i < 8; ++i) {
        m.read(tape::ReadingKind::Height, i);
        m.read(tape::ReadingKind::Offset, i);
        m.read(tape::ReadingKind::Station, i);
    }
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    tape::Means open;
    tape::Means shut = open;
    const auto& a = s.points[0].position;
    const auto& b = s.points[7].position;
    const build::Vec3 mid{(a.x_mm + b.x_mm) / 2, (a.y_mm + b.y_mm) / 2, (a.z_mm + b.z_mm) / 2};
    shut.obstacles.push_back({{mid.x_mm - 60, mid.y_mm - 60, mid.z_mm - 60}, {mid.x_mm + 60, mid.y_mm + 60, mid.z_mm + 60}});
    const auto has = [&](const tape::Means& means) {
        const auto list = tape::rankReadings(m.survey, s, {}, {"everything", -1}, means, 1000);
        return std::any_of(list.begin(), list.end(),
                           [](const auto& r) { return r.kind == tape::ReadingKind::Tape && r.from == 0 && r.to == 7; });
    };
    CHECK(has(open));
    CHECK_FALSE(has(shut));
}

TEST_CASE("a reading that was taken at another point is told so", "[tape]") {
    std::mt19937 rng(21);
    auto m = test::frameSurvey(5, rng, 20);
    for (int i = 0; i < 10; ++i)
        for (int j = i + 1; j < 10; ++j) m.read(tape::ReadingKind::Tape, i, j, test::normal(rng, 0.5), 0.8);
    for (int i = 0; i < 10; ++i) m.read(tape::ReadingKind::Height, i, -1, test::normal(rng, 0.3), 0.7);
    // 0–7 was really taped to 5
    int wrong = -1;
    for (size_t i = 0; i < m.survey.readings.size(); ++i) {
        auto& r = m.survey.readings[i];
        if (r.kind != tape::ReadingKind::Tape || r.from != 0 || r.to != 7) continue;
        const auto& p = m.truth[0];
        const auto& q = m.truth[5];
        r.value = std::hypot(p.x_mm - q.x_mm, p.y_mm - q.y_mm, p.z_mm - q.z_mm);
        wrong = static_cast<int>(i);
    }
    const auto s = tape::solve(m.survey);
    REQUIRE(s.readings[static_cast<size_t>(wrong)].set_aside);
    const auto pairs = tape::likelyPairs(m.survey, s, wrong);
    REQUIRE_FALSE(pairs.empty());
    const std::string expected = m.survey.points[0].name + "–" + m.survey.points[5].name;
    CHECK(std::any_of(pairs.begin(), pairs.end(), [&](const std::string& w) { return w.find(expected) != std::string::npos; }));
}

} // namespace tape_sections_test
