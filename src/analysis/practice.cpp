#include "analysis/practice.hpp"

#include "sim/instruments.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using How = PracticeMark::How;

namespace {

constexpr std::array<const char*, 5> asked_kinds{"diamond", "twist", "rail-difference", "sidesway", "sag"};

/// The frame's figures as they truly are: the same reckoning as Tape's, on the places themselves.
tape::Condition truthOf(const sim::CrookedFrame& f, double tolerance_mm) {
    tape::Solution s;
    s.status = tape::Status::Solved;
    tape::FramePoints frame;
    frame.tolerance_mm = tolerance_mm;
    for (size_t i = 0; i < f.points.size(); ++i) {
        tape::AdjustedPoint p;
        p.placed = p.determined = true;
        p.position = f.points[i].truth;
        s.points.push_back(p);
        frame.design_heights[static_cast<int>(i)] = f.points[i].drawn.z_mm;
        if (sideOf(f.points[i].name) == Side::Left) frame.pairs.push_back({static_cast<int>(i), static_cast<int>(i) + 1});
    }
    s.covariance = tape::Covariance(3 * s.points.size(), nullptr);
    return tape::condition(s, frame);
}

const tape::ConditionFigure* figureOf(const tape::Condition& c, std::string_view key) {
    for (const tape::ConditionFigure& f : c.figures)
        if (f.key == key) return &f;
    return nullptr;
}

std::string signedWords(const tape::ConditionFigure& f) {
    return fmt::format("{}, {}", units::fixed(std::abs(f.size_mm.value), 1), f.words);
}

/// A measured reading that is further from the truth than any honest tape.
struct Misread {
    const Reading* reading;
    std::string pair;
    double by_mm;
};
std::vector<Misread> misreadings(const Build& b, const sim::CrookedFrame& f) {
    std::vector<Misread> list;
    for (const auto& [id, r] : b.readings) {
        if (r.kind != ReadingKind::Tape || r.value.provenance == Provenance::Assumed) continue;
        if (b.points.at(r.from).subject != the_chassis) continue; // of another thing, by the same names
        const sim::FramePoint* from = f.named(nameOf(b, r.from));
        const sim::FramePoint* to = f.named(nameOf(b, r.to));
        if (!from || !to) continue;
        const double d =
            std::hypot(to->truth.x_mm - from->truth.x_mm, to->truth.y_mm - from->truth.y_mm, to->truth.z_mm - from->truth.z_mm);
        const double off = r.value.value - d;
        if (std::abs(off) > 5 * defaultSigma(r.kind, d)) list.push_back({&r, from->name + "–" + to->name, off});
    }
    return list;
}

bool sameReading(const Reading& r, const Answer& a) {
    return (r.from == a.from && r.to == a.to) || (r.from == a.to && r.to == a.from);
}

PracticeMark markFigure(const Answer* answer, const tape::ConditionFigure* measured, const tape::ConditionFigure& truth,
                        double tolerance, const std::string& how_it_came) {
    PracticeMark m;
    m.about = truth.name;
    const bool fault = std::abs(truth.size_mm.value) > tolerance;
    m.truth = fault ? signedWords(truth) : fmt::format("straight ({})", units::fixed(std::abs(truth.size_mm.value), 1));
    m.said = !answer ? "nothing" : answer->value ? units::fixed(answer->value->value, 1) : "straight";
    const double said = answer && answer->value ? std::abs(answer->value->value) : 0;
    // what is called crooked is beyond the tolerance
    const bool called = answer && answer->value && said > tolerance;
    const std::string known = !measured
                                  ? "Your survey does not show it yet."
                                  : fmt::format("Your survey says {} ± {}.", units::fixed(std::abs(measured->size_mm.value), 1),
                                                units::fixed(measured->size_mm.u95, 1));
    const double allowed = std::max(tolerance, measured ? measured->size_mm.u95 : 0.0);
    if (!answer) {
        m.how = How::Missed;
        m.sentence = fmt::format("You said nothing of it. {}", known);
    } else if (fault && called) {
        m.how = std::abs(said - std::abs(truth.size_mm.value)) <= allowed ? How::Right : How::Near;
        m.sentence = m.how == How::Right ? fmt::format("Found. {}", how_it_came)
                                         : fmt::format("Found, but off by {}. {}",
                                                       units::fixed(std::abs(said - std::abs(truth.size_mm.value)), 1), known);
    } else if (fault) {
        m.how = How::Missed;
        m.sentence = fmt::format("Missed. {} {}", how_it_came, known);
    } else if (called) {
        m.how = How::Wrong;
        m.sentence = fmt::format("It is straight within {}. {} A misread tape or too few readings can look like this.",
                                 units::fixed(tolerance, 1), known);
    } else {
        m.how = How::Right;
        m.sentence = "Straight, and you said so.";
    }
    return m;
}

} // namespace

std::vector<Change> beginPractice(std::uint32_t seed, int difficulty) {
    const sim::CrookedFrame f = sim::crookedFrame(seed, difficulty);
    std::vector<Change> changes;
    std::uint32_t next = 1;
    Settings s;
    s.name = fmt::format("The crooked frame {}", seed);
    s.chassis_name = "practice frame";
    changes.push_back(Set<Settings>{s});
    changes.push_back(Set<Practice>{{true, static_cast<double>(seed), static_cast<double>(f.difficulty), false}});
    std::vector<PointId> ids;
    for (const sim::FramePoint& p : f.points) {
        Point point{};
        point.id = PointId{next++};
        point.name = p.name;
        point.role = p.role;
        point.rough = p.rough;
        ids.push_back(point.id);
        changes.push_back(Put<Point>{point});
    }
    for (size_t i = 0; i < f.points.size(); ++i)
        changes.push_back(Put<DrawingFigure>{{DrawingFigureId{next++}, ids[i], f.points[i].drawn.x_mm, f.points[i].drawn.y_mm,
                                              f.points[i].drawn.z_mm, "the drawing"}});
    const size_t last = ids.size() - 2;
    changes.push_back(
        Put<DatumRule>{{DatumRuleId{next++}, the_chassis, DatumKind::Station, {ids[0], ids[1]}, {0, "0", Provenance::Measured}}});
    changes.push_back(Put<DatumRule>{{DatumRuleId{next++}, the_chassis, DatumKind::Centred, {ids[0], ids[1]}, {}}});
    changes.push_back(Put<DatumRule>{{DatumRuleId{next++}, the_chassis, DatumKind::Centred, {ids[last], ids[last + 1]}, {}}});
    Session session;
    session.id = SessionId{next++};
    session.name = "practice";
    session.support = Support::Stands;
    changes.push_back(Put<Session>{session});
    SetUp floor;
    floor.id = SetUpId{next++};
    floor.name = "floor";
    floor.note = "The workshop floor; nobody checked that it is level.";
    changes.push_back(Put<SetUp>{floor});
    for (const sim::Played& p : sim::played()) {
        Instrument i;
        i.id = InstrumentId{next++};
        i.name = p.name;
        i.kind = p.kind;
        i.checked = "simulated: as its kind reads";
        changes.push_back(Put<Instrument>{i});
    }
    return changes;
}

sim::Task practiceTask(const Build& b, const std::string& kind, const std::string& from, const std::string& to) {
    sim::Task task{kind, from, to, 0, 0, 0};
    for (const auto& [id, r] : b.readings) {
        if (r.value.provenance == Provenance::Assumed || b.points.at(r.from).subject != the_chassis) continue;
        ++task.taken;
        if (r.kind == ReadingKind::Tape) ++task.taped;
        const std::string a = nameOf(b, r.from);
        const std::string c = r.to ? nameOf(b, r.to) : "";
        const bool either = r.kind == ReadingKind::Tape || r.kind == ReadingKind::Plan;
        if (word(r.kind) == kind && ((a == from && c == to) || (either && a == to && c == from))) ++task.before;
    }
    return task;
}

const char* markWord(How how) {
    switch (how) {
    case How::Right: return "right";
    case How::Near: return "near";
    case How::Missed: return "missed";
    case How::Wrong: return "wrong";
    }
    return "";
}

PracticeResult markPractice(const Build& b, const Results& r) {
    PracticeResult result;
    if (!b.practice.on || !b.practice.marked) return result;
    const auto f = sim::crookedFrame(static_cast<std::uint32_t>(b.practice.seed), static_cast<int>(b.practice.difficulty));
    const double tolerance = b.settings.frame_tolerance_mm;
    const tape::Condition truth = truthOf(f, tolerance);
    for (const char* key : asked_kinds) {
        const tape::ConditionFigure* t = figureOf(truth, key);
        if (!t) continue;
        const Answer* answer = nullptr;
        for (const auto& [id, a] : b.answers)
            if (a.about == key) answer = &a;
        std::string how;
        for (const sim::Fault& fault : f.faults)
            if (fault.key == key) how = fmt::format("It was {}.", fault.how);
        result.marks.push_back(markFigure(answer, figureOf(*r.chassis.condition, key), *t, tolerance, how));
    }
    const auto misread = misreadings(b, f);
    for (const Misread& m : misread) {
        PracticeMark mark;
        mark.about = "reading " + m.pair;
        mark.truth = fmt::format("misread by {} mm", units::fixed(std::abs(m.by_mm), 1));
        const bool named = std::any_of(b.answers.begin(), b.answers.end(), [&](const auto& a) {
            return a.second.about == "reading" && sameReading(*m.reading, a.second);
        });
        const bool retaped = static_cast<bool>(m.reading->replaced_by);
        mark.how = named || retaped ? How::Right : How::Missed;
        mark.said = named ? "wrong" : retaped ? "taped again" : "nothing";
        mark.sentence = mark.how == How::Right ? "You named it, and nothing was built on it."
                                               : "It stayed in your survey: every point near it leans on it.";
        result.marks.push_back(std::move(mark));
    }
    for (const auto& row : b.answers) {
        const Answer& a = row.second;
        if (a.about != "reading") continue;
        if (std::any_of(misread.begin(), misread.end(), [&](const Misread& m) { return sameReading(*m.reading, a); })) continue;
        result.marks.push_back({fmt::format("reading {}–{}", nameOf(b, a.from), nameOf(b, a.to)), "wrong", "honest", How::Wrong,
                                "That reading is as good as any: a bent frame is no misread tape."});
    }
    for (const PracticeMark& m : result.marks) {
        result.most += m.how == How::Wrong && m.truth == "honest" ? 0 : 2;
        result.points += m.how == How::Right ? 2 : m.how == How::Near ? 1 : m.truth == "honest" ? -1 : 0;
    }
    result.points = std::max(0, result.points);
    std::string what;
    for (const sim::Fault& fault : f.faults) what += (what.empty() ? "" : "; ") + fault.how;
    result.sentence = fmt::format("{} of {} points. The frame was {}.", result.points, result.most, what);
    return result;
}

std::vector<std::pair<std::string, std::string>> practiceQuestions(const Build& b) {
    std::vector<std::pair<std::string, std::string>> list;
    for (const char* key : asked_kinds) {
        std::string said;
        for (const auto& [id, a] : b.answers)
            if (a.about == key) said = a.value ? units::fixed(a.value->value, 1) : "straight";
        list.emplace_back(key, said);
    }
    return list;
}

} // namespace gorvet::analysis
