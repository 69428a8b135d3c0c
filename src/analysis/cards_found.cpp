#include "analysis/cards_survey.hpp"
#include "analysis/practice.hpp"

#include <cmath>

#include <fmt/format.h>

// Cards of what was found, of the drawing, and of a practice frame.
namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {
std::string hours(double h) { return units::fixed(h, h == std::floor(h) ? 0 : 1) + " h"; }
} // namespace

std::optional<Card> flawCard(const Build& b, const Results& r, FlawId id) {
    for (size_t i = 0; i < r.flaw_ids.size(); ++i) {
        if (r.flaw_ids[i] != id) continue;
        const Flaw& f = b.flaws.at(id);
        const tape::JudgedFlaw& j = r.repair.flaws[i];
        const std::string where = f.point ? nameOf(b, f.point) : f.part;
        const std::string quoted = where.find(' ') == std::string::npos ? where : "\"" + where + "\"";
        Card c;
        c.title = fmt::format("{} at {}", word(f.kind), where);
        c.word = verdictWord(j.verdict);
        c.severity = severityOf(j.verdict);
        if (!j.figure.empty()) c.rows.push_back({"found", j.figure, f.amount ? Mark::None : Mark::Assumed, true});
        if (!j.need.empty()) c.rows.push_back({"let pass", j.need, Mark::None, false});
        if (!f.direction.empty()) c.rows.push_back({"which way", f.direction, Mark::None, false});
        if (f.layers > 0) c.rows.push_back({"layers", units::fixed(f.layers, 0), Mark::None, false});
        if (!f.photo.empty()) c.rows.push_back({"photo", f.photo.substr(0, 12) + "…", Mark::None, false});
        c.sentences.push_back(j.remedy);
        if (!f.note.empty()) c.sentences.push_back(f.note);
        if (j.steel && j.verdict == PlanVerdict::Fails)
            c.sentences.emplace_back("Structural welding is done or approved by licensed people.");
        const std::string line = fmt::format("found {} {} ", word(f.kind), quoted);
        c.actions.push_back({"how much", line, f.amount ? f.amount->typed : "", true});
        c.actions.push_back({"note", line + "note ", f.note, true});
        CardAction photo{"photo…", line + "photo ", "", false};
        photo.picks_photo = true;
        c.actions.push_back(photo);
        c.actions.push_back({"seen to", fmt::format("remove found {} {}", word(f.kind), quoted), "", false});
        c.journal_table = "flaw";
        c.journal_id = id.value;
        return c;
    }
    return std::nullopt;
}

Card repairCard(const Build& b, const Results& r) {
    Card c;
    c.title = "repair, renew, or another frame";
    for (size_t i = 0; i < r.repair.ways.size(); ++i) {
        const tape::Way& w = r.repair.ways[i];
        const std::string cost = w.cost       ? fmt::format(", {} {}", units::fixed(*w.cost, 0), b.rates.money)
                                 : w.possible ? ", price not said"
                                              : "";
        c.rows.push_back({w.name, w.possible ? hours(w.hours) + cost : "not possible", Mark::Derived,
                          static_cast<int>(i) == r.repair.advised});
    }
    c.sentences.push_back(r.repair.sentence);
    if (r.repair.advised >= 0) c.sentences.push_back(r.repair.ways[static_cast<size_t>(r.repair.advised)].why);
    c.sentences.emplace_back("Hours are assumptions until you set your own rates. Structural welding is licensed work.");
    c.actions.push_back({"an hour costs", "rate hour ", b.rates.hour ? units::fixed(*b.rates.hour, 0) : "", true});
    c.actions.push_back(
        {"another frame costs", "rate other-frame ", b.rates.other_frame ? units::fixed(*b.rates.other_frame, 0) : "", true});
    return c;
}

Card drawingCard(const Build& b, const SurveyOf& s) {
    const auto step = b.settings.length_step;
    Card c;
    c.title = "against " + (s.drawing.source.empty() ? std::string("the drawing") : s.drawing.source);
    const auto part = [&](double mm, bool known) {
        return !known ? std::string("–") : (mm < 0 ? "−" : "+") + units::formatSmall(std::abs(mm), step);
    };
    for (size_t i = 0; i < s.drawing.comparison->moved.size() && i < 8; ++i) {
        const tape::Moved& m = s.drawing.comparison->moved[i];
        const auto& known = s.drawing.known[static_cast<size_t>(m.after)];
        double half = 0;
        for (size_t axis = 0; axis < 3; ++axis)
            if (known[axis]) half = std::max(half, m.u95[axis]);
        c.rows.push_back({s.survey.points[static_cast<size_t>(m.after)].name,
                          fmt::format("{} {} {} ± {}", part(m.by.x_mm, known[0]), part(m.by.y_mm, known[1]),
                                      part(m.by.z_mm, known[2]), units::formatSmall(half, step)),
                          Mark::Derived, m.proven});
    }
    c.sentences.emplace_back("Rearward, to the right, up of where the drawing has it; the survey laid on the drawing.");
    c.sentences.push_back(fmt::format("{} of {} points would look moved by chance.", s.drawing.comparison->by_chance,
                                      s.drawing.comparison->moved.size()));
    return c;
}

std::optional<Card> obstacleCard(const Build& b, ObstacleId id) {
    const auto found = b.obstacles.find(id);
    if (found == b.obstacles.end()) return std::nullopt;
    const Obstacle& o = found->second;
    Card c;
    c.title = o.name + " is in the way";
    const auto span = [](double from, double to) { return fmt::format("{} to {}", units::fixed(from, 0), units::fixed(to, 0)); };
    c.rows.push_back({"stations", span(o.from.x_mm, o.to.x_mm), Mark::None, false});
    c.rows.push_back({"offsets", span(o.from.y_mm, o.to.y_mm), Mark::None, false});
    c.rows.push_back({"heights", span(o.from.z_mm, o.to.z_mm), Mark::None, false});
    c.sentences.emplace_back("No reading through it is suggested.");
    c.actions.push_back({"it is out", "remove blocked " + o.name, "", false});
    c.journal_table = "obstacle";
    c.journal_id = id.value;
    return c;
}

Card practiceCard(const Build& b, const Results& r) {
    Card c;
    c.title =
        fmt::format("practice frame {}, difficulty {}", units::fixed(b.practice.seed, 0), units::fixed(b.practice.difficulty, 0));
    if (!b.practice.marked) {
        for (const auto& [key, said] : practiceQuestions(b))
            c.rows.push_back({key, said.empty() ? "not said yet" : said, Mark::None, !said.empty()});
        for (const auto& [id, a] : b.answers)
            if (a.about == "reading")
                c.rows.push_back({"reading", nameOf(b, a.from) + "–" + nameOf(b, a.to) + " is wrong", Mark::None, true});
        c.sentences.emplace_back(
            "Say what is wrong with it: answer diamond 8, answer twist straight, answer reading Al Dr. Then hand in.");
        c.actions.push_back({"say", "answer ", "", true});
        c.actions.push_back({"hand in", "hand-in", "", false});
        return c;
    }
    const PracticeResult result = markPractice(b, r);
    for (const PracticeMark& m : result.marks)
        c.rows.push_back({m.about, markWord(m.how), Mark::None, m.how != PracticeMark::How::Right});
    c.sentences.push_back(result.sentence);
    constexpr size_t most = 3; // the report has them all
    size_t told = 0;
    for (const PracticeMark& m : result.marks)
        if (m.how != PracticeMark::How::Right && told++ < most)
            c.sentences.push_back(fmt::format("{}: you said {}, it is {}. {}", m.about, m.said, m.truth, m.sentence));
    if (told > most) c.sentences.emplace_back("The rest stands in the report (Ctrl+R).");
    return c;
}

} // namespace gorvet::analysis
