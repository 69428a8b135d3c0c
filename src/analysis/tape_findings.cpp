#include "analysis/bench_parts.hpp"
#include "analysis/finding_maker.hpp"
#include "analysis/findings.hpp"
#include "analysis/survey_findings.hpp"
#include "analysis/survey_lines.hpp"
#include "analysis/wording.hpp"
#include "tape/gaps.hpp"
#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class TapeFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void tape(SubjectId subject, const SurveyOf& s) {
        const std::string name = nameOf(b_, subject);
        readings(subject, s);
        // points without any reading are new: the survey as a whole says what is missing once there are readings
        if (s.solution->status == tape::Status::NotDetermined)
            for (const tape::Undetermined& u : s.solution->undetermined) {
                Finding& f = add(Severity::Warn, "tape.unfixed", name, "Doubtful", u.sentence, u.remedy);
                f.brief = u.what + " open";
                if (!u.points.empty()) f.station_mm = stationOf(subject, s, u.points.front());
            }
        if (s.solution->status == tape::Status::NotConverged)
            add(Severity::Bad, "tape.not-converged", name, "Re-tape", s.solution->message,
                "Look for a reading with a wrong unit or a wrong point.");
        for (const tape::Mirror& m : s.solution->mirrors) {
            Finding& f = add(Severity::Warn, m.mended ? "tape.mirror-mended" : "tape.mirror",
                             m.point >= 0 ? s.survey.points[m.point].name : name, "Doubtful", m.sentence, m.remedy);
            f.station_mm = stationOf(subject, s, m.point);
            f.brief = f.subject + " mirrored";
        }
        if (s.mixed_supports)
            add(Severity::Warn, "tape.mixed-supports", name, "Doubtful",
                fmt::format("The {}'s readings were taken on unlike supports: a frame bends and twists with them.", name),
                "Measure it again on one support, or look at each session by itself.")
                .brief = "supports mixed";
        setups(name, s);
        addSurveyFindings(b_, r_, subject, out_);
        if (subject == the_body) gaps(); // doors hang in the body
        if (subject == the_chassis) wheels();
        if (s.since->comparison.possible) {
            const auto& c = s.since->comparison;
            int proven = 0;
            for (const auto& m : c.moved) proven += m.proven;
            constexpr double sure = 4.03; // χ² of three at 0.1 %, as the local test of a reading
            if (!c.moved.empty() && c.moved.front().t > sure) {
                const auto& m = c.moved.front();
                const double size = std::sqrt(m.by.x_mm * m.by.x_mm + m.by.y_mm * m.by.y_mm + m.by.z_mm * m.by.z_mm);
                const double half = std::max({m.u95[0], m.u95[1], m.u95[2]});
                const std::string point = s.survey.points[m.after].name;
                Finding& f = add(Severity::Warn, "tape.moved", name, "Doubtful",
                                 fmt::format("Between \"{}\" and \"{}\" {} of {} points moved, {} by {} ± {}.{}", s.since->before,
                                             s.since->after, proven, c.moved.size(), point, small(size), small(half),
                                             s.since->unlike ? " It stood on unlike supports: part of that is theirs." : ""),
                                 s.since->unlike ? "Measure it once more on the first supports before you blame the frame."
                                                 : "Look at what was done between the two, and brace before the next heat.");
                f.figure = small(size) + " ± " + small(half);
                f.need = small(half);
                f.station_mm = stationOf(subject, s, m.after);
                f.brief = point + " moved";
                f.tag = "since";
            }
        }
        for (const tape::ConditionFigure& figure : s.condition->figures) {
            if (!figure.judged || figure.verdict == PlanVerdict::Holds) continue;
            const bool angle = figure.kind == tape::FigureKind::Thrust;
            const auto shown = [&](double mm, double rad) {
                return angle ? units::formatAngle(std::abs(rad)) : small(std::abs(mm));
            };
            const std::string pm = shown(figure.size_mm.u95, figure.angle_rad.u95);
            const std::string value = shown(figure.size_mm.value, figure.angle_rad.value);
            std::string sentence;
            if (figure.verdict == PlanVerdict::Fails)
                sentence = fmt::format("The {} is out: {} {} ± {}, {}.", name, figure.name, value, pm, figure.words);
            else if (!proven(figure.size_mm))
                sentence = fmt::format("{} of the {} {} ± {}: not proven.", capital(figure.name), name, value, pm);
            else
                sentence =
                    fmt::format("{} of the {} {} ± {}, {}: near the limit.", capital(figure.name), name, value, pm, figure.words);
            Finding& f =
                add(severityOf(figure.verdict), std::string("tape.") + figure.key, name, verdictWord(figure.verdict), sentence,
                    figure.verdict == PlanVerdict::Fails && !figure.remedy.empty()
                        ? figure.remedy + " Look first whether its mounting or the frame is out."
                    : figure.verdict == PlanVerdict::Fails
                        ? "Check the supports, then have the frame pulled straight before anything is made to fit it."
                        : "Tape more: the entry line names the reading that helps most.");
            f.figure = value + " ± " + pm;
            f.need = angle ? units::formatAngle(figure.limit) : small(figure.limit);
            if (subject == the_chassis || (subject == the_body && r_.seated())) f.station_mm = s.condition->station_mm;
            f.brief =
                fmt::format("{} {}", figure.name, angle ? value : units::formatSmall(std::abs(figure.size_mm.value), step_));
            f.tag = std::string("figure:") + figure.key;
        }
    }

private:
    /// Station in the chassis frame, for The Rule.
    std::optional<double> stationOf(SubjectId subject, const SurveyOf& s, int point) const {
        if (point < 0 || !s.solution->points[point].placed) return std::nullopt;
        if (subject != the_body && subject != the_chassis) return std::nullopt; // on axes of its own
        Vec3 at = s.solution->points[point].position;
        if (subject == the_body) {
            if (!r_.seated()) return std::nullopt;
            at = sit::place(r_.seat->pose, at);
        }
        return at.x_mm;
    }

    void setups(const std::string& name, const SurveyOf& s) {
        for (size_t i = 0; i < s.solution->setups.size() && i < s.survey.setups.size(); ++i) {
            const tape::AdjustedSetUp& a = s.solution->setups[i];
            const tape::SetUp& setup = s.survey.setups[i];
            const auto unknowns = static_cast<size_t>(tape::unknownsOf(setup.kind));
            const bool stated = std::any_of(a.prior.begin(), a.prior.begin() + static_cast<std::ptrdiff_t>(unknowns),
                                            [](double prior) { return prior > 0; });
            if (a.readings < 2 || (!stated && (a.estimable[0] || a.estimable[1]))) continue;
            Finding& f =
                add(Severity::Warn, "tape.setup-untold", setup.name, "Doubtful",
                    stated ? fmt::format("Nothing tells {} from the {}'s own shape: {}. That stands in every ± it reaches.",
                                         setup.name, name, setupWords(setup, a, step_))
                           : fmt::format("Nothing tells the {} {} from the {}'s own shape: it is {}.", word(setup.kind),
                                         setup.name, name,
                                         setup.kind == SetUpKind::Plane    ? "the datum, taken as level"
                                         : setup.kind == SetUpKind::String ? "the datum, taken as the centreline"
                                                                           : "taken as reading true"),
                    setup.kind == SetUpKind::Plane    ? "Hold the heights of three pads, or take levels that do not come from it."
                    : setup.kind == SetUpKind::String ? "Hold the offsets of two points, or tape across the frame."
                                                      : "Tape a few of the same pairs with a tape you trust.");
            f.brief = setup.name + " untold";
            f.tag = fmt::format("setup:{}", s.setup_ids[i].value);
        }
    }

    void wheels() {
        for (const auto& figure : tape::alignment(alignmentInput(b_))) {
            if (!figure.judged || figure.verdict == PlanVerdict::Holds) continue;
            const auto show = [&](double v) { return figure.angle ? units::formatAngle(std::abs(v)) : small(std::abs(v)); };
            // one code a kind of figure: the axle stands in the subject
            const std::string code = figure.key.starts_with("camber")    ? "tape.camber-unlike"
                                     : figure.key.starts_with("caster")  ? "tape.caster-unlike"
                                     : figure.key.starts_with("run-out") ? "tape.run-out"
                                                                         : "tape.ride-unlike";
            Finding& f = add(severityOf(figure.verdict), code, figure.name, verdictWord(figure.verdict),
                             fmt::format("{}: {} ± {}{}{}.", capital(figure.name), show(figure.size.value), show(figure.size.u95),
                                         figure.words.empty() ? "" : ", ", figure.words),
                             figure.verdict == PlanVerdict::Fails ? figure.remedy : "Read both wheels again, on a level floor.");
            f.figure = units::shown(figure.size, show);
            f.need = show(figure.limit);
            f.brief = figure.name;
            f.tag = "alignment";
            const int hub =
                figure.key.find("front") != std::string::npos ? r_.chassis.frame.front_hub_left : r_.chassis.frame.rear_hub_left;
            f.station_mm = stationOf(the_chassis, r_.chassis, hub);
        }
    }

    void gaps() {
        for (const tape::GapTrend& t : tape::gapTrends(gapReadings(b_))) {
            if (t.verdict == PlanVerdict::Holds) continue;
            const bool fails = t.verdict == PlanVerdict::Fails;
            Finding& f =
                add(severityOf(t.verdict), "tape.gap-moved", t.place, fails ? "Re-tape" : "Doubtful",
                    fmt::format("The gap {} went from {} to {} between \"{}\" and \"{}\": {} {} ± {}.", t.place,
                                small(t.readings[t.readings.size() - 2].value_mm), small(t.readings.back().value_mm),
                                t.readings[t.readings.size() - 2].event, t.readings.back().event,
                                t.change_mm.value > 0 ? "it opened by" : "it closed by", small(std::abs(t.change_mm.value)),
                                small(t.change_mm.u95)),
                    fails ? "Stop: support or brace the body until the gap is back, before anything more is cut or welded."
                          : "Measure it again, twice, before going on.");
            f.figure = units::shownSize(t.change_mm, [this](double mm) { return small(mm); });
            f.need = small(t.readings.back().tolerance_mm);
            f.brief = t.place + " moved";
            f.tag = "gaps";
        }
    }

    void readings(SubjectId subject, const SurveyOf& s) {
        const std::string subject_name = nameOf(b_, subject);
        std::vector<int> flagged;
        for (size_t i = 0; i < s.solution->readings.size(); ++i)
            if (s.solution->readings[i].verdict == tape::Verdict::Retape) flagged.push_back(static_cast<int>(i));
        std::sort(flagged.begin(), flagged.end(),
                  [&](int a, int c) { return std::abs(s.solution->readings[a].w) > std::abs(s.solution->readings[c].w); });
        const auto grouped = [&](int i) {
            for (const auto& group : s.solution->inseparable)
                if (std::find(group.begin(), group.end(), i) != group.end()) return true;
            return false;
        };
        for (const int i : flagged) {
            if (grouped(i)) continue;
            const tape::AdjustedReading& a = s.solution->readings[i];
            const tape::SurveyReading& r = s.survey.readings[i];
            const bool angle = isAngle(r.kind);
            const double off = r.value - a.leave_one_out;
            const std::string name = readingName(s.survey, i);
            const std::string taped = angle ? units::formatAngle(r.value) : len(r.value);
            const std::string rest = angle ? units::formatAngle(a.leave_one_out) : len(a.leave_one_out);
            const std::string by = angle ? units::formatAngle(std::abs(off)) : small(std::abs(off));
            const std::string slip = angle ? "" : tape::likelySlip(r.value, a.leave_one_out, a.leave_one_out_u95);
            std::string likely = slip.empty() ? "" : " " + slip;
            for (const std::string& pair : tape::likelyPairs(s.survey, *s.solution, i)) likely += " " + pair;
            Finding& f = add(Severity::Bad, "tape.retape", name, "Re-tape",
                             fmt::format("{} was read as {}; the rest say {}. It is off by {} and was set aside.{}", name, taped,
                                         rest, by, likely),
                             takenAgain(b_, s.reading_ids[i])
                                 ? fmt::format("{} was taken again and says the same: take a reading that crosses it, and look "
                                               "whether points and datum are the right ones.",
                                               name)
                                 : fmt::format("Tape {} again.", name));
            f.figure = by;
            f.need = angle ? units::formatAngle(tape::u95Of(r.sigma)) : small(tape::u95Of(r.sigma));
            f.station_mm = stationOf(subject, s, r.to >= 0 ? r.to : r.from);
            f.tag = fmt::format("reading:{}", s.reading_ids[i].value);
            f.brief = name;
            if (!a.set_aside)
                f.sentence = fmt::format("{} was read as {}; the rest say {}. It is off by {}.", name, taped, rest, by);
        }
        for (const auto& group : s.solution->inseparable) {
            std::string names;
            for (size_t k = 0; k < group.size() && k < 8; ++k)
                names += (k == 0 ? "" : k + 1 == group.size() ? " and " : ", ") + readingName(s.survey, group[k]);
            const bool bad = s.solution->readings[group.front()].verdict == tape::Verdict::Retape;
            const bool wide = s.solution->readings[group.front()].widened_sigma > 0;
            Finding& f = add(
                bad ? Severity::Bad : Severity::Warn, "tape.inseparable", subject_name, bad ? "Re-tape" : "Doubtful",
                fmt::format("One of {} is wrong, and the readings can't tell which; the likeliest stands first.{}", names,
                            wide ? " They count with the error that they may have: what they reach is wide." : ""),
                fmt::format("Tape {} again first: if it is the wrong one, that settles all. Or add a reading that crosses them.",
                            readingName(s.survey, group.front())));
            f.brief = fmt::format("one of {}", group.size());
            f.station_mm = stationOf(subject, s, s.survey.readings[group.front()].from);
            f.tag = fmt::format("reading:{}", s.reading_ids[group.front()].value);
        }
        const bool fails = s.solution->kept_redundancy > 0 && s.solution->kept_omega > s.solution->kept_omega_limit;
        if (fails && s.solution->inseparable.empty() && flagged.empty()) {
            Finding& f = add(
                Severity::Warn, "tape.omega", subject_name, "Doubtful",
                fmt::format(
                    "The {}'s readings agree less well than their ± promise: Ω is {}, the limit {}. All ± were widened {} times.",
                    subject_name, units::fixed(s.solution->kept_omega, 1), units::fixed(s.solution->kept_omega_limit, 1),
                    units::fixed(s.solution->sigma_0, 2)),
                "Look at the doubtful readings first, or say with σ how well your tape reads.");
            f.figure = units::fixed(s.solution->kept_omega, 1);
            f.need = units::fixed(s.solution->kept_omega_limit, 1);
            f.brief = "readings disagree";
        }
    }
};

} // namespace

void addTapeFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    TapeFinder finder(b, r, out);
    finder.tape(the_chassis, r.chassis);
    finder.tape(the_body, r.body);
    for (const auto& [subject, s] : r.others) finder.tape(subject, s);
}

} // namespace gorvet::analysis
