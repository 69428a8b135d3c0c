#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/cards_survey.hpp"
#include "analysis/findings.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

class TapeCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> make(const Tag& tag) {
        if (tag.kind == "reading") return reading(ReadingId{tag.id});
        if (tag.kind == "point") return point(PointId{tag.id});
        if (tag.kind == "figure") return figure(tag.rest);
        if (tag.kind == "station") return station(tag.rest);
        for (size_t i = 0; i < s_.setup_ids.size() && i < s_.solution->setups.size(); ++i)
            if (tag.kind == "setup" && s_.setup_ids[i].value == tag.id) return setupCard(b_, s_, i);
        if (tag.kind == "since" && s_.since->comparison.possible) return sinceCard(b_, s_);
        if (tag.kind == "gaps") return gapsCard(b_);
        if (tag.kind == "flaw") return flawCard(b_, r_, FlawId{tag.id});
        if (tag.kind == "repair") return repairCard(b_, r_);
        if (tag.kind == "drawing" && s_.drawing.comparison->possible) return drawingCard(b_, s_);
        if (tag.kind == "practice" && b_.practice.on) return practiceCard(b_, r_);
        if (tag.kind == "obstacle") return obstacleCard(b_, ObstacleId{tag.id});
        if (tag.kind == "alignment") return alignmentCard(b_);
        return std::nullopt;
    }

private:
    std::optional<Card> reading(ReadingId id) {
        const auto found = std::find(s_.reading_ids.begin(), s_.reading_ids.end(), id);
        if (found == s_.reading_ids.end()) return std::nullopt;
        auto i = static_cast<int>(found - s_.reading_ids.begin());
        // of coordinates, the part that agrees least
        for (size_t k = 0; k < s_.reading_ids.size(); ++k)
            if (s_.reading_ids[k] == id && std::abs(s_.solution->readings[k].w) > std::abs(s_.solution->readings[i].w))
                i = static_cast<int>(k);
        const Reading& r = b_.readings.at(id);
        const auto& a = s_.solution->readings[i];
        const bool angle = isAngle(r.kind);
        const auto show = [&](double v) {
            return !std::isfinite(v) ? std::string("–") : angle ? units::formatAngle(v) : small(v);
        };
        Card c;
        c.title = readingName(s_.survey, i);
        c.word = tape::verdictWord(a.verdict);
        c.severity = a.verdict == tape::Verdict::Agrees     ? Severity::Good
                     : a.verdict == tape::Verdict::Doubtful ? Severity::Warn
                                                            : Severity::Bad;
        const std::string shown = angle ? units::formatAngle(r.value.value) : units::formatLength(r.value.value, step_, true);
        c.rows.push_back({"as read", r.value.typed, Mark::None, true});
        if (shown != r.value.typed && shown != r.value.typed + " mm") c.rows.push_back({"that is", shown, Mark::None, false});
        if (a.redundancy > 0 || a.set_aside) {
            c.rows.push_back({"the rest say", show(a.leave_one_out) + " ± " + show(a.leave_one_out_u95), Mark::Derived, false});
            c.rows.push_back(
                {"off by", show(std::abs(r.value.value - a.leave_one_out)), Mark::Derived, a.verdict == tape::Verdict::Retape});
        }
        c.rows.push_back(
            {"checked", a.check == tape::Check::Checked ? units::fixed(100 * a.redundancy, 0) + " %" : tape::checkWords(a.check),
             Mark::Derived, false});
        if (std::isfinite(a.minimal_detectable_error))
            c.rows.push_back({"could hide", show(a.minimal_detectable_error), Mark::Derived, false});
        if (!angle && a.verdict == tape::Verdict::Retape)
            if (auto slip = tape::likelySlip(r.value.value, a.leave_one_out, a.leave_one_out_u95); !slip.empty())
                c.sentences.push_back(slip);
        if (a.verdict == tape::Verdict::Retape)
            for (const std::string& pair : tape::likelyPairs(s_.survey, *s_.solution, i))
                c.sentences.push_back(pair + " The wrong point?");
        if (a.set_aside) c.sentences.emplace_back("Set aside until it is taped again: the points rest on the others.");
        if (!r.note.empty()) c.sentences.push_back(r.note);
        const auto session = b_.sessions.find(r.session);
        if (session != b_.sessions.end())
            c.rows.push_back(
                {"measured", session->second.name + ", on " + std::string(word(session->second.support)), Mark::None, false});
        if (const auto with = b_.instruments.find(r.instrument); with != b_.instruments.end())
            c.rows.push_back(
                {"with",
                 with->second.name + (with->second.checked.empty() ? ", not checked" : ", checked " + with->second.checked),
                 with->second.checked.empty() ? Mark::Assumed : Mark::None, false});
        const std::string pair = nameOf(b_, r.from) + (r.to ? " " + nameOf(b_, r.to) : "");
        const std::string kind(word(r.kind));
        if (r.kind == ReadingKind::Tape)
            c.actions.push_back({"taped again", "retape " + pair + " ", "", true});
        else
            c.actions.push_back({"read again", kind + " " + pair + " ", "", true});
        c.actions.push_back({"remove", "remove " + kind + " " + pair, "", false});
        c.journal_table = "reading";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> point(PointId id) {
        const auto found = b_.points.find(id);
        if (found == b_.points.end()) return std::nullopt;
        const Point& p = found->second;
        const SurveyOf& s = r_.of(p.subject);
        const int i = s.indexOf(id);
        Card c;
        c.title = p.name + (p.role == Role::None ? "" : ", " + std::string(word(p.role)));
        if (i >= 0) {
            const auto& a = s.solution->points[i];
            static constexpr const char* labels[3] = {"station", "offset", "height"};
            const double xyz[3] = {a.position.x_mm, a.position.y_mm, a.position.z_mm};
            for (int axis = 0; axis < 3; ++axis) {
                const std::string value = !a.placed ? "–" : small(xyz[axis]);
                const std::string pm = a.assumed                       ? " ± " + small(tape::u95Of(a.sd_mm[axis])) + ", assumed"
                                       : !std::isfinite(a.sd_mm[axis]) ? ", not fixed"
                                       : a.sd_mm[axis] == 0            ? ", held"
                                                                       : " ± " + small(tape::u95Of(a.sd_mm[axis]));
                c.rows.push_back({labels[axis], value + pm,
                                  std::isfinite(a.sd_mm[axis]) && !a.assumed ? (a.sd_mm[axis] == 0 ? Mark::None : Mark::Derived)
                                                                             : Mark::Assumed,
                                  false});
            }
            if (!a.determined) {
                c.word = "Doubtful";
                c.severity = Severity::Warn;
            }
            if (const auto at = r_.bodyInChassis(id); at && p.subject == the_body)
                c.rows.push_back(
                    {"on the chassis",
                     fmt::format("{} · {} · {}", units::fixed(at->x_mm, 1), units::fixed(at->y_mm, 1), units::fixed(at->z_mm, 1)),
                     Mark::Derived, false});
        }
        if (!p.note.empty()) c.sentences.push_back(p.note);
        for (size_t k = 0; k < r_.flaw_ids.size(); ++k)
            if (b_.flaws.at(r_.flaw_ids[k]).point == id)
                c.sentences.push_back(r_.repair.flaws[k].sentence + " " + r_.repair.flaws[k].remedy);
        if (p.subject == subject_) c.actions.push_back({"found there", "found ", "crack " + p.name + " ", true});
        if (p.subject == subject_)
            c.actions.push_back({"role", "role " + p.name + " ", p.role == Role::None ? "" : std::string(word(p.role)), true});
        if (p.subject == subject_) {
            c.actions.push_back({"call it", "rename " + p.name + " ", p.name, true});
            c.actions.push_back({"remove", "remove " + p.name, "", false});
        }
        c.journal_table = "point";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> figure(const std::string& key) {
        for (const auto& f : s_.condition->figures) {
            if (key != f.key) continue;
            Card c;
            c.title = f.name;
            c.rows.push_back({"figure",
                              small(f.judged ? std::abs(f.size_mm.value) : f.size_mm.value) + " ± " + small(f.size_mm.u95),
                              Mark::Derived, true});
            if (tape::isAngle(f.kind))
                c.rows.push_back({"as an angle",
                                  units::formatAngle(std::abs(f.angle_rad.value)) + " ± " + units::formatAngle(f.angle_rad.u95),
                                  Mark::Derived, false});
            if (f.judged) {
                c.word = verdictWord(f.verdict);
                c.severity = severityOf(f.verdict);
                c.rows.push_back({"may be out by",
                                  f.kind == tape::FigureKind::Thrust ? units::formatAngle(f.limit) : small(f.limit), Mark::None,
                                  false});
                c.rows.push_back({"proven", proven(f.size_mm) ? "yes, " + f.words : "not proven", Mark::Derived, false});
                c.actions.push_back(
                    {"may be out by", "tolerance ", units::formatLength(b_.settings.frame_tolerance_mm, step_), true});
            }
            return c;
        }
        return std::nullopt;
    }

    std::optional<Card> station(const std::string& name) {
        for (const auto& c : r_.stretch->candidates) {
            if (units::fixed(c.station_mm, 0) != name) continue;
            Card card;
            card.title = "a cut at " + len(c.station_mm);
            card.rows.push_back({"scores", units::fixed(c.score, 1) + " of 10", Mark::Derived, true});
            for (const std::string& reason : c.reasons) card.sentences.push_back("– " + reason);
            card.sentences.emplace_back("Bending and shear are assumed from an even load between the axles.");
            card.actions.push_back({"cut here", "cut " + units::formatLength(c.station_mm, step_, true), "", false});
            return card;
        }
        return std::nullopt;
    }
};

} // namespace

std::optional<Card> tapeCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return TapeCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
