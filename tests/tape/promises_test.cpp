// What a survey promises, attacked: held figures that contradict it, a misread that hides among others, one wrong angle, floors
// that nothing tells, the worst of several stations. Each case failed once.
#include "tape/assume.hpp"
#include "tape/condition.hpp"
#include "tape/equations.hpp"
#include "tape/judge.hpp"
#include "tape/next_reading.hpp"
#include "tape/setups.hpp"

#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

namespace tape_promises_test {

using namespace gorvet;
using tape::Axis;
using tape::ReadingKind;

namespace {

/// Tapes of neighbours and diagonals, heights from every point: as a workshop does it.
void tapeFrame(test::SurveyMaker& m, std::mt19937& rng, int reach, double sigma = 1.2) {
    const int n = static_cast<int>(m.survey.points.size());
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < std::min(n, i + reach + 1); ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, sigma), sigma);
    for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
}

tape::FramePoints pairsOf(const test::SurveyMaker& m) {
    tape::FramePoints frame;
    for (int i = 0; i + 1 < static_cast<int>(m.survey.points.size()); i += 2) frame.pairs.push_back({i, i + 1});
    return frame;
}

const tape::ConditionFigure& figure(const tape::Condition& c, tape::FigureKind kind) {
    const auto found = std::find_if(c.figures.begin(), c.figures.end(), [&](const auto& f) { return f.kind == kind; });
    REQUIRE(found != c.figures.end());
    return *found;
}

/// Coordinates that are not held, and how many of them the ± covers.
struct Coverage {
    int all = 0;
    int covered = 0;
    double worst = 0; ///< error over its sd
    void add(const tape::Solution& s, const std::vector<build::Vec3>& truth) {
        for (size_t i = 0; i < truth.size(); ++i) {
            const double off[3] = {s.points[i].position.x_mm - truth[i].x_mm, s.points[i].position.y_mm - truth[i].y_mm,
                                   s.points[i].position.z_mm - truth[i].z_mm};
            for (int axis = 0; axis < 3; ++axis) {
                const double sd = s.points[i].sd_mm[axis];
                if (!(sd > 0)) continue;
                ++all;
                covered += std::abs(off[axis]) <= tape::u95Of(sd);
                worst = std::max(worst, std::abs(off[axis]) / sd);
            }
        }
    }
    double share() const { return static_cast<double>(covered) / all; }
};

/// Six pairs with the left rail `diamond` mm aft. Rough places, and the drawing's, are square.
test::SurveyMaker crooked(double diamond) {
    test::SurveyMaker m;
    for (int i = 0; i < 6; ++i)
        for (const int side : {-1, 1}) {
            m.point(std::string(1, static_cast<char>('A' + i)) + (side < 0 ? "l" : "r"), 550.0 * i, 410.0 * side,
                    400 + 30 * (i % 2));
            if (side < 0) m.truth.back().x_mm += diamond;
        }
    return m;
}

} // namespace

TEST_CASE("an 8 mm diamond is not hidden by holding the drawing's stations: holds are blamed, not readings; 40 seeds",
          "[tape][simulation]") {
    std::mt19937 rng(1420);
    for (int k = 0; k < 40; ++k) {
        auto m = crooked(8);
        for (int p = 0; p < 12; ++p) m.hold(p, Axis::X, m.survey.points[static_cast<size_t>(p)].rough->x_mm);
        m.hold(0, Axis::Y, -410);
        m.hold(10, Axis::Y, -410);
        for (const int p : {0, 1, 10}) m.hold(p, Axis::Z, m.truth[static_cast<size_t>(p)].z_mm);
        tapeFrame(m, rng, 5, 1.0);
        const auto s = tape::solve(m.survey);
        REQUIRE(s.status == tape::Status::Solved);
        CHECK(s.redundant_holds == 14); // all but one station and the two offsets: the heights were read, too
        CHECK(s.holds_omega > s.holds_limit);
        CHECK_FALSE(s.blamed_holds.empty());
        const auto aside = std::count_if(s.readings.begin(), s.readings.end(), [](const auto& r) { return r.set_aside; });
        CHECK(aside <= 1); // by chance
        const auto c = tape::condition(s, pairsOf(m));
        const auto& d = figure(c, tape::FigureKind::Diamond);
        CHECK(d.verdict == build::PlanVerdict::Fails);
        CHECK(std::abs(d.size_mm.value - 8) < 2 * d.size_mm.u95);
    }
}

TEST_CASE("redundant holds that are right are kept, 300 surveys: blamed in 1 of 100", "[tape][simulation]") {
    std::mt19937 rng(1421);
    int blamed = 0;
    Coverage held;
    for (int k = 0; k < 300; ++k) {
        auto m = crooked(0);
        for (int p = 0; p < 12; ++p) m.hold(p, Axis::X, m.truth[static_cast<size_t>(p)].x_mm);
        m.hold(0, Axis::Y, -410);
        m.hold(10, Axis::Y, -410);
        for (const int p : {0, 1, 10}) m.hold(p, Axis::Z, m.truth[static_cast<size_t>(p)].z_mm);
        tapeFrame(m, rng, 4, 1.0);
        const auto s = tape::solve(m.survey);
        blamed += !s.blamed_holds.empty();
        held.add(s, m.truth);
    }
    INFO(blamed << " of 300 blamed, coverage " << held.share());
    CHECK(blamed <= 9); // 3 expected
    CHECK(held.share() > 0.93);
    CHECK(held.share() < 0.97);
}

TEST_CASE("a wrong held height is named by itself", "[tape]") {
    std::mt19937 rng(1422);
    auto m = test::frameSurvey(6, rng);
    m.hold(7, Axis::Z, m.truth[7].z_mm + 12);
    m.hold(5, Axis::Z, m.truth[5].z_mm);
    m.hold(9, Axis::Z, m.truth[9].z_mm);
    tapeFrame(m, rng, 5);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.blamed_holds.size() == 1);
    CHECK(m.survey.holds[static_cast<size_t>(s.blamed_holds[0].hold)].point == 7);
    CHECK(std::abs(s.blamed_holds[0].off_mm + 12) < 1.5 * s.blamed_holds[0].u95_mm);
    CHECK(std::none_of(s.readings.begin(), s.readings.end(), [](const auto& r) { return r.set_aside; }));
}

TEST_CASE("400 surveys with one 25.4 mm misread: the ± keeps its coverage, and no point is far off behind a small ±",
          "[tape][simulation]") {
    std::mt19937 rng(1423);
    Coverage with;
    int far = 0;
    int grouped = 0;
    int named = 0;
    for (int k = 0; k < 400; ++k) {
        auto m = test::frameSurvey(5, rng);
        tapeFrame(m, rng, 4 + static_cast<int>(rng() % 3));
        const auto tapes = static_cast<size_t>(std::count_if(m.survey.readings.begin(), m.survey.readings.end(),
                                                             [](const auto& r) { return r.kind == ReadingKind::Tape; }));
        const size_t bad = rng() % tapes;
        m.survey.readings[bad].value += rng() % 2 ? 25.4 : -25.4;
        const auto s = tape::solve(m.survey);
        REQUIRE(s.status == tape::Status::Solved);
        Coverage one;
        one.add(s, m.truth);
        far += one.worst > 5;
        grouped += !s.inseparable.empty();
        named += s.readings[bad].verdict == tape::Verdict::Retape;
        with.add(s, m.truth);
    }
    INFO("coverage " << with.share() << ", " << far << " with a point beyond 5 sd, " << grouped << " with a group, " << named
                     << " named");
    CHECK(with.share() > 0.93);
    CHECK(with.share() < 0.975); // groups that stay in are wide
    CHECK(far <= 2);
    CHECK(named >= 392);
}

TEST_CASE("400 good surveys of 54 readings: 1 in 50 at most loses a good reading, and the ± keeps its coverage",
          "[tape][simulation]") {
    std::mt19937 rng(1424);
    Coverage good;
    int lost = 0;
    for (int k = 0; k < 400; ++k) {
        auto m = test::frameSurvey(5, rng);
        tapeFrame(m, rng, 7);
        REQUIRE(m.survey.readings.size() >= 50);
        const auto s = tape::solve(m.survey);
        lost += std::any_of(s.readings.begin(), s.readings.end(), [](const auto& r) { return r.set_aside; });
        good.add(s, m.truth);
    }
    INFO("coverage " << good.share() << ", " << lost << " lost a reading");
    CHECK(good.share() > 0.93);
    CHECK(good.share() < 0.97);
    CHECK(lost <= 12); // 8 expected at the most, and 4 standard deviations less than the 20 of a limit for one reading
}

TEST_CASE("after the real misread is out a sound reading between the limits stays in as Doubtful; 200 surveys",
          "[tape][simulation]") {
    std::mt19937 rng(1425);
    int between = 0;
    for (int k = 0; k < 200; ++k) {
        auto m = test::frameSurvey(5, rng);
        tapeFrame(m, rng, 6);
        m.survey.readings[3].value += 25.4;
        const auto s = tape::solve(m.survey);
        const int left = static_cast<int>(m.survey.readings.size()) - 1;
        for (size_t i = 0; i < s.readings.size(); ++i) {
            const auto& r = s.readings[i];
            if (r.set_aside || std::abs(r.w) <= tape::retape_w || s.kept_omega > s.kept_omega_limit) continue;
            CHECK(std::abs(r.w) <= tape::familyLimit(left));
            CHECK(r.verdict == tape::Verdict::Doubtful);
            ++between;
        }
    }
    INFO(between << " readings between 3.29 and the family-wise limit");
    CHECK(between > 0);
}

TEST_CASE("w 40.9 beside 40.5 can be told apart, and the search goes on", "[tape]") {
    // nearly the same line taped twice beside each other: their w correlate, their w² differ
    std::mt19937 rng(1426);
    auto m = test::frameSurvey(4, rng);
    tapeFrame(m, rng, 3);
    m.survey.readings[2].value += 60;
    m.survey.readings[9].value -= 40;
    const auto s = tape::solve(m.survey);
    CHECK(s.readings[2].verdict == tape::Verdict::Retape);
    CHECK(s.readings[9].verdict == tape::Verdict::Retape);
    CHECK(s.kept_omega < 1.2 * s.kept_omega_limit);
    Coverage c;
    c.add(s, m.truth);
    CHECK(c.worst < 5);
}

TEST_CASE("one slope with its sign slipped accuses no good reading; one rail's angle near 90° unfixes nothing; 40 seeds",
          "[tape][simulation]") {
    std::mt19937 rng(1427);
    constexpr double tenth = 0.1 * 3.14159265358979 / 180;
    int accused = 0;
    for (int k = 0; k < 40; ++k) {
        auto m = test::frameSurvey(8, rng);
        tapeFrame(m, rng, 8);
        const int n = 16;
        for (int i = 0; i + 2 < n; ++i) m.read(ReadingKind::Slope, i, i + 2, test::normal(rng, tenth), tenth);
        for (int i = 0; i + 2 < n; i += 3) m.read(ReadingKind::RailAngle, i, i + 2, test::normal(rng, tenth), tenth);
        REQUIRE(m.survey.readings.size() > 120);
        std::vector<size_t> bad;
        for (size_t i = 0; i < m.survey.readings.size(); ++i)
            if (m.survey.readings[i].kind == ReadingKind::Slope && std::abs(m.survey.readings[i].value) > 0.03) bad.push_back(i);
        const size_t slipped = bad[rng() % bad.size()];
        m.survey.readings[slipped].value *= -1;
        size_t turned = m.survey.readings.size() - 2;
        if (k % 2) m.survey.readings[turned].value += 1.5; // 86°
        const auto s = tape::solve(m.survey);
        REQUIRE(s.status == tape::Status::Solved);
        CHECK(s.readings[slipped].set_aside);
        CHECK(s.readings[slipped].verdict == tape::Verdict::Retape);
        if (k % 2) CHECK(s.readings[turned].set_aside);
        for (size_t i = 0; i < s.readings.size(); ++i)
            accused += i != slipped && !(k % 2 && i == turned) && s.readings[i].verdict == tape::Verdict::Retape;
        CHECK(s.readings[slipped].leave_one_out == Approx(-m.survey.readings[slipped].value).margin(6 * tenth));
    }
    INFO(accused << " good readings accused in 40 surveys of some 130");
    CHECK(accused <= 3);
}

TEST_CASE("front heights from one floor, rear ones from another: the twist's ± covers floors as uneven as stated; 400 seeds",
          "[tape][simulation]") {
    std::mt19937 rng(1428);
    int covered = 0;
    int proven = 0;
    constexpr int rounds = 400;
    for (int k = 0; k < rounds; ++k) {
        auto m = test::frameSurvey(6, rng);
        m.survey.setups = {{"front", tape::SetUpKind::Plane}, {"rear", tape::SetUpKind::Plane}};
        for (int i = 0; i < 12; ++i)
            for (int j = i + 1; j < 12; ++j)
                if (std::abs(i - j) < 7) m.read(ReadingKind::Plan, i, j, test::normal(rng, 1.5), 1.5); // plumbed to the floor
        std::erase_if(m.survey.holds, [](const tape::HeldCoordinate& h) { return h.axis == Axis::Z; });
        for (int floor = 0; floor < 2; ++floor) {
            const std::array<double, 3> tilt{0, test::normal(rng, tape::plane_tilt_sd), test::normal(rng, tape::plane_tilt_sd)};
            for (int i = 6 * floor; i < 6 * floor + 6; ++i) {
                const auto p = tape::predictFrom(tape::SetUpKind::Plane, tilt, ReadingKind::Height,
                                                 m.truth[static_cast<size_t>(i)], {}, false);
                m.survey.readings.push_back({0, ReadingKind::Height, i, -1, p.value + test::normal(rng, 0.7), 0.7, floor});
            }
        }
        const auto s = tape::solve(m.survey);
        REQUIRE(s.status == tape::Status::Solved);
        const auto truth = [&] {
            tape::Solution exact = s;
            for (size_t i = 0; i < 12; ++i) exact.points[i].position = m.truth[i];
            return figure(tape::condition(exact, pairsOf(m)), tape::FigureKind::Twist).size_mm.value;
        }();
        const tape::Condition found = tape::condition(s, pairsOf(m));
        const auto& twist = figure(found, tape::FigureKind::Twist);
        covered += std::abs(twist.size_mm.value - truth) <= twist.size_mm.u95;
        proven += std::abs(twist.size_mm.value - truth) > twist.size_mm.u95;
        CHECK(std::any_of(s.setups.begin(), s.setups.end(), [](const auto& u) { return u.prior[2] > 0; }));
    }
    INFO("twist covered in " << covered << " of 400");
    CHECK(covered >= 0.93 * rounds);
    CHECK(covered <= 0.97 * rounds);
}

TEST_CASE("straight frames of nine pairs: sidesway and sag look proven in 5 of 100, 600 frames", "[tape][simulation]") {
    std::mt19937 rng(1429);
    int sidesway = 0;
    int sag = 0;
    constexpr int rounds = 600;
    for (int k = 0; k < rounds; ++k) {
        tape::Solution s;
        s.status = tape::Status::Solved;
        tape::FramePoints frame;
        std::vector<double> all(54 * 54, 0.0);
        for (size_t c = 0; c < 54; ++c) all[c * 54 + c] = 1;
        s.covariance = tape::Covariance::of(54, std::move(all));
        for (int i = 0; i < 18; ++i) {
            tape::AdjustedPoint p;
            p.placed = p.determined = true;
            p.position = {400.0 * (i / 2) + test::normal(rng, 1), (i % 2 ? 400 : -400) + test::normal(rng, 1),
                          300 + test::normal(rng, 1)};
            s.points.push_back(p);
            frame.design_heights[i] = 300;
            if (i % 2) frame.pairs.push_back({i - 1, i});
        }
        const auto c = tape::condition(s, frame);
        CHECK(figure(c, tape::FigureKind::Sidesway).worst_of == 7);
        sidesway += proven(figure(c, tape::FigureKind::Sidesway).size_mm);
        sag += proven(figure(c, tape::FigureKind::Sag).size_mm);
    }
    INFO("sidesway " << sidesway << ", sag " << sag << " of 600 proven");
    CHECK(sidesway <= 0.07 * rounds);
    CHECK(sag <= 0.07 * rounds);
    CHECK(sidesway >= 0.02 * rounds); // the limit is not simply out of reach
}

TEST_CASE("a claim that the survey contradicts is named, one that it does not is not", "[tape]") {
    std::mt19937 rng(1430);
    auto m = test::frameSurvey(6, rng);
    tapeFrame(m, rng, 5);
    const double is = m.truth[10].x_mm - m.truth[0].x_mm;
    m.survey.assumed.push_back({1, ReadingKind::Plan, 0, 10, is + 49, 1});
    m.survey.assumed.push_back({2, ReadingKind::Plan, 0, 10, is + 0.5, 1});
    const auto s = tape::solve(m.survey);
    const auto claims = tape::checkClaims(m.survey, s);
    REQUIRE(claims.size() == 2);
    CHECK(claims[0].contradicted);
    CHECK(std::abs(claims[0].says - is) < 2 * claims[0].u95);
    CHECK(claims[0].u95 < 5);
    CHECK_FALSE(claims[1].contradicted);
}

TEST_CASE("a subframe 1.5 aside and yawed so that its front stands 5.8 to the right does not hold in what carries it", "[tape]") {
    tape::Solution s;
    s.status = tape::Status::Solved;
    tape::FramePoints frame;
    const double yaw = (5.8 - 1.5) / 400; // about its middle, 400 behind its front
    for (int i = 0; i < 3; ++i)
        for (const int side : {-1, 1}) {
            tape::AdjustedPoint p;
            p.placed = p.determined = true;
            const double x = 400.0 * i - 400, y = 380.0 * side;
            p.position = {x * std::cos(yaw) + y * std::sin(yaw), 1.5 - x * std::sin(yaw) + y * std::cos(yaw), 200};
            s.points.push_back(p);
            if (side > 0) frame.pairs.push_back({2 * i, 2 * i + 1});
        }
    std::vector<double> all(18 * 18, 0.0);
    for (size_t c = 0; c < 18; ++c) all[c * 18 + c] = 0.25;
    s.covariance = tape::Covariance::of(18, std::move(all));
    // by its own middle all is well, as it was said before
    const auto own = tape::condition(s, frame);
    for (const auto& f : own.figures)
        if (f.judged) CHECK(f.verdict == build::PlanVerdict::Holds);
    frame.carried = true;
    const auto c = tape::condition(s, frame);
    const auto& aside = figure(c, tape::FigureKind::Aside);
    CHECK(aside.size_mm.value == Approx(5.8).margin(0.05));
    CHECK(aside.worst_of == 3);
    CHECK(aside.verdict == build::PlanVerdict::Fails);
    CHECK(figure(c, tape::FigureKind::Diamond).size_mm.value == Approx(-2 * 380 * std::sin(yaw)).margin(0.01));
}

TEST_CASE("the next reading for twist is a level where a level helps most", "[tape][next]") {
    std::mt19937 rng(1431);
    auto m = test::frameSurvey(5, rng);
    const int n = 10;
    for (int i = 0; i < n; ++i)
        for (int j = i + 1; j < n; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 1.0), 1.0);
    for (int i = 0; i < n; ++i) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    const auto c = tape::condition(s, pairsOf(m));
    const auto ranked = tape::rankReadings(m.survey, s, c, {"twist", -1}, {}, 5);
    REQUIRE_FALSE(ranked.empty());
    CHECK(ranked.front().kind == ReadingKind::Level); // all tapes and heights are taken: before, only a second tape was offered
    CHECK(ranked.front().before_mm - ranked.front().after_mm > 0.1);
    CHECK(ranked.front().whatWords(m.survey).starts_with("level "));
    // what it promises is what the reading brings
    auto with = m;
    with.read(ReadingKind::Level, ranked.front().from, ranked.front().to, 0, build::defaultSigma(ReadingKind::Level, 0));
    const auto after = tape::condition(tape::solve(with.survey), pairsOf(m));
    CHECK(figure(after, tape::FigureKind::Twist).size_mm.u95 == Approx(ranked.front().after_mm).epsilon(0.03));
    // without gauge or level no level is offered; a cross-level once one was read
    tape::Means bare;
    bare.gauge = false;
    for (const auto& r : tape::rankReadings(m.survey, s, c, {"twist", -1}, bare, 20)) CHECK(r.kind == ReadingKind::Tape);
    m.read(ReadingKind::CrossLevel, 4, 5, 0, 0.0017);
    const auto t = tape::solve(m.survey);
    const auto kinds = tape::rankReadings(m.survey, t, tape::condition(t, pairsOf(m)), {"twist", -1}, bare, 20);
    CHECK(std::any_of(kinds.begin(), kinds.end(), [](const auto& r) { return r.kind == ReadingKind::CrossLevel; }));
}

TEST_CASE("station, offset and height of one new point leave the chosen datum and all that was solved where they were",
          "[tape][datum]") {
    std::mt19937 rng(1424);
    auto m = test::frameSurvey(5, rng);
    m.survey.holds.clear();
    for (int i = 0; i < 10; ++i)
        for (int j = i + 1; j < 10; ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    using build::DatumKind;
    m.survey.datum = {{DatumKind::Height, {0}, 480},   {DatumKind::Height, {1}, 483},   {DatumKind::Height, {8}, 525},
                      {DatumKind::Centred, {0, 1}, 0}, {DatumKind::Centred, {8, 9}, 0}, {DatumKind::Station, {0, 1}, 0}};
    const auto before = tape::solve(m.survey);
    REQUIRE(before.status == tape::Status::Solved);
    const int lone = m.point("Q", 900, 250, 700);
    for (const auto kind : {ReadingKind::Station, ReadingKind::Offset, ReadingKind::Height}) m.read(kind, lone);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved); // it was "not fixed", and wheelbase, cut and mounts were gone
    for (size_t i = 0; i < 10; ++i) {
        CHECK(s.points[i].determined);
        CHECK(s.points[i].position.x_mm == Approx(before.points[i].position.x_mm).margin(1e-6));
        CHECK(s.points[i].position.y_mm == Approx(before.points[i].position.y_mm).margin(1e-6));
        CHECK(s.points[i].position.z_mm == Approx(before.points[i].position.z_mm).margin(1e-6));
        for (int axis = 0; axis < 3; ++axis) CHECK(s.points[i].sd_mm[axis] == Approx(before.points[i].sd_mm[axis]).margin(1e-9));
        CHECK(s.covariance(3 * i, 6) == Approx(before.covariance(3 * i, 6)).margin(1e-9));
    }
    const auto& q = s.points[static_cast<size_t>(lone)];
    CHECK(q.determined);
    CHECK(q.position.x_mm == Approx(900));
    CHECK(q.position.y_mm == Approx(250));
    CHECK(q.position.z_mm == Approx(700));
    CHECK(s.covariance(3 * static_cast<size_t>(lone), 0) == 0);
    // one that is joined later attaches: the frame stays, and it is placed between its readings
    m.read(ReadingKind::Tape, lone, 3);
    const auto joined = tape::solve(m.survey);
    CHECK(joined.status == tape::Status::Solved);
    for (size_t i = 0; i < 10; ++i) CHECK(joined.points[i].position.x_mm == Approx(before.points[i].position.x_mm).margin(1e-6));
    CHECK(joined.points[static_cast<size_t>(lone)].determined);
    CHECK(joined.readings.back().redundancy > 0);
    // one with too few readings is open by itself, and names itself alone
    m = test::SurveyMaker(m);
    m.survey.readings.resize(m.survey.readings.size() - 2);
    const auto open = tape::solve(m.survey);
    CHECK(open.status == tape::Status::NotDetermined);
    for (size_t i = 0; i < 10; ++i) CHECK(open.points[i].determined);
    REQUIRE_FALSE(open.undetermined.empty());
    CHECK(open.undetermined.front().points == std::vector<int>{lone});
}

TEST_CASE(
    "one station against the held zero is asked for again and moves nothing; a second one that says the same blames the hold",
    "[tape][datum]") {
    for (const double off : {380.0, 7208.0}) {
        std::mt19937 rng(1433);
        auto m = test::frameSurvey(6, rng);
        tapeFrame(m, rng, 6);
        const auto before = tape::solve(m.survey);
        REQUIRE(before.status == tape::Status::Solved);
        const auto zero =
            std::find_if(m.survey.holds.begin(), m.survey.holds.end(), [](const auto& h) { return h.axis == Axis::X; });
        REQUIRE(zero != m.survey.holds.end());
        const auto from_another_zero = [&](int point) { m.read(ReadingKind::Station, point, -1, off, 1); };
        from_another_zero(7);
        const auto one = tape::solve(m.survey);
        CHECK(one.blamed_holds.empty());
        CHECK(one.readings.back().set_aside);
        CHECK(std::abs(one.readings.back().leave_one_out - m.truth[7].x_mm) < 5);
        for (size_t i = 0; i < before.points.size(); ++i)
            CHECK(one.points[i].position.x_mm == Approx(before.points[i].position.x_mm).margin(1e-6));
        from_another_zero(8);
        const auto two = tape::solve(m.survey);
        REQUIRE(two.blamed_holds.size() == 1);
        CHECK(two.blamed_holds[0].hold == zero - m.survey.holds.begin());
        CHECK(std::abs(two.blamed_holds[0].off_mm - off) < 5);
    }
}

TEST_CASE("a reading that is off by metres is named, not a shape that does not close", "[tape]") {
    std::mt19937 rng(1432);
    auto m = test::frameSurvey(6, rng);
    tapeFrame(m, rng, 6);
    m.read(ReadingKind::Level, 2, 9, 9999, 1.0);
    const auto s = tape::solve(m.survey);
    CHECK(s.status == tape::Status::Solved);
    CHECK(s.readings.back().set_aside);
    CHECK(s.readings.back().verdict == tape::Verdict::Retape);
    CHECK(std::count_if(s.readings.begin(), s.readings.end(), [](const auto& r) { return r.set_aside; }) == 1);
    Coverage c;
    c.add(s, m.truth);
    CHECK(c.worst < 5);
}

} // namespace tape_promises_test
