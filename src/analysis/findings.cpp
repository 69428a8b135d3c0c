#include "analysis/findings.hpp"

#include "analysis/kept_cuts.hpp"
#include "analysis/sit_input.hpp"

#include "analysis/survey_findings.hpp"
#include "analysis/survey_lines.hpp"
#include "analysis/wording.hpp"
#include "analysis/work_findings.hpp"
#include "tape/gaps.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

std::string readingName(const tape::Survey& survey, int reading) {
    const tape::SurveyReading& r = survey.readings[reading];
    const std::string pair = survey.points[r.from].name + (r.to >= 0 ? "–" + survey.points[r.to].name : "");
    return r.kind == ReadingKind::Tape ? pair : std::string(word(r.kind)) + " " + pair;
}

namespace {

class Finder {
public:
    Finder(const Build& b, const Results& r) : b_(b), r_(r), step_(b.settings.length_step) {}

    std::vector<Finding> all() {
        tape(Subject::Chassis, r_.chassis);
        tape(Subject::Body, r_.body);
        sit();
        stretch();
        make();
        addWorkFindings(b_, r_, out_);
        for (Finding& f : keptCutFindings(b_, r_)) out_.push_back(std::move(f));
        std::stable_sort(out_.begin(), out_.end(), [](const Finding& a, const Finding& c) {
            return a.bench != c.bench ? a.bench < c.bench : a.severity > c.severity;
        });
        return std::move(out_);
    }

private:
    std::string len(double mm) const { return units::formatLength(mm, step_, true); }
    std::string small(double mm) const { return units::formatSmall(mm, step_, true); }

    Finding& add(Severity severity, Bench bench, std::string code, std::string subject, std::string word, std::string sentence,
                 std::string remedy) {
        Finding f;
        f.severity = severity;
        f.bench = bench;
        f.code = std::move(code);
        f.subject = std::move(subject);
        f.word = std::move(word);
        f.sentence = std::move(sentence);
        f.remedy = std::move(remedy);
        f.brief = f.subject;
        out_.push_back(std::move(f));
        return out_.back();
    }

    /// Station in the chassis frame, for The Rule.
    std::optional<double> stationOf(Subject subject, const SurveyOf& s, int point) const {
        if (point < 0 || !s.solution.points[point].placed) return std::nullopt;
        Vec3 at = s.solution.points[point].position;
        if (subject == Subject::Body) {
            if (!r_.seated()) return std::nullopt;
            at = sit::place(r_.seat.pose, at);
        }
        return at.x_mm;
    }

    void tape(Subject subject, const SurveyOf& s) {
        const std::string name(word(subject));
        readings(subject, s);
        // points without any reading are new: the survey as a whole says what is missing once there are readings
        if (s.solution.status == tape::Status::NotFixed)
            for (const tape::Unfixed& u : s.solution.unfixed) {
                Finding& f = add(Severity::Warn, Bench::Tape, "tape.unfixed", name, "Doubtful", u.sentence, u.remedy);
                f.brief = u.what + " open";
                if (!u.points.empty()) f.station_mm = stationOf(subject, s, u.points.front());
            }
        if (s.solution.status == tape::Status::NotConverged)
            add(Severity::Bad, Bench::Tape, "tape.not-converged", name, "Re-tape", s.solution.message,
                "Look for a reading with a wrong unit or a wrong point.");
        for (const tape::Mirror& m : s.solution.mirrors) {
            Finding& f = add(Severity::Warn, Bench::Tape, m.mended ? "tape.mirror-mended" : "tape.mirror",
                             m.point >= 0 ? s.survey.points[m.point].name : name, "Doubtful", m.sentence, m.remedy);
            f.station_mm = stationOf(subject, s, m.point);
            f.brief = f.subject + " mirrored";
        }
        if (s.mixed_supports)
            add(Severity::Warn, Bench::Tape, "tape.mixed-supports", name, "Doubtful",
                fmt::format("The {}'s readings were taken on unlike supports: a frame bends and twists with them.", name),
                "Measure it again on one support, or look at each session by itself.")
                .brief = "supports mixed";
        setups(name, s);
        addSurveyFindings(b_, r_, subject, out_);
        if (subject == Subject::Body) gaps();
        if (subject == Subject::Chassis) wheels();
        if (s.since.comparison.possible) {
            const auto& c = s.since.comparison;
            int proven = 0;
            for (const auto& m : c.moved) proven += m.proven;
            constexpr double sure = 4.03; // χ² of three at 0.1 %, as the local test of a reading
            if (!c.moved.empty() && c.moved.front().t > sure) {
                const auto& m = c.moved.front();
                const double size = std::sqrt(m.by.x_mm * m.by.x_mm + m.by.y_mm * m.by.y_mm + m.by.z_mm * m.by.z_mm);
                const double half = std::max({m.half_width[0], m.half_width[1], m.half_width[2]});
                const std::string point = s.survey.points[m.after].name;
                Finding& f = add(Severity::Warn, Bench::Tape, "tape.moved", name, "Doubtful",
                                 fmt::format("Between \"{}\" and \"{}\" {} of {} points moved, {} by {} ± {}.{}", s.since.before,
                                             s.since.after, proven, c.moved.size(), point, small(size), small(half),
                                             s.since.unlike ? " It stood on unlike supports: part of that is theirs." : ""),
                                 s.since.unlike ? "Measure it once more on the first supports before you blame the frame."
                                                : "Look at what was done between the two, and brace before the next heat.");
                f.figure = small(size) + " ± " + small(half);
                f.need = small(half);
                f.station_mm = stationOf(subject, s, m.after);
                f.brief = point + " moved";
                f.tag = "since";
            }
        }
        for (const tape::Figure& figure : s.condition.figures) {
            if (!figure.judged || figure.verdict == PlanVerdict::Holds) continue;
            const bool angle = figure.kind == tape::FigureKind::Thrust;
            const auto shown = [&](double mm, double rad) {
                return angle ? units::formatAngle(std::abs(rad)) : small(std::abs(mm));
            };
            const std::string pm = shown(figure.half_width_mm, figure.angle_half_width_rad);
            const std::string value = shown(figure.value_mm, figure.angle_rad);
            std::string sentence;
            if (figure.verdict == PlanVerdict::Fails)
                sentence = fmt::format("The {} is out: {} {} ± {}, {}.", name, figure.name, value, pm, figure.words);
            else if (!figure.proven)
                sentence = fmt::format("{} of the {} {} ± {}: not proven.", capital(figure.name), name, value, pm);
            else
                sentence =
                    fmt::format("{} of the {} {} ± {}, {}: near the limit.", capital(figure.name), name, value, pm, figure.words);
            Finding& f = add(severityOf(figure.verdict), Bench::Tape, std::string("tape.") + figure.key, name,
                             verdictWord(figure.verdict), sentence,
                             figure.verdict == PlanVerdict::Fails && !figure.remedy.empty()
                                 ? figure.remedy + " Look first whether its mounting or the frame is out."
                             : figure.verdict == PlanVerdict::Fails
                                 ? "Check the supports, then have the frame pulled straight before anything is made to fit it."
                                 : "Tape more: the entry line names the reading that helps most.");
            f.figure = value + " ± " + pm;
            f.need = angle ? units::formatAngle(figure.limit) : small(figure.limit);
            if (subject == Subject::Chassis || r_.seated()) f.station_mm = s.condition.station_mm;
            f.brief = fmt::format("{} {}", figure.name, angle ? value : units::formatSmall(std::abs(figure.value_mm), step_));
            f.tag = std::string("figure:") + figure.key;
        }
    }

    void setups(const std::string& name, const SurveyOf& s) {
        for (size_t i = 0; i < s.solution.setups.size() && i < s.survey.setups.size(); ++i) {
            const tape::AdjustedSetUp& a = s.solution.setups[i];
            const tape::SetUp& setup = s.survey.setups[i];
            const auto unknowns = static_cast<size_t>(tape::unknownsOf(setup.kind));
            const bool stated = std::any_of(a.prior.begin(), a.prior.begin() + static_cast<std::ptrdiff_t>(unknowns),
                                            [](double prior) { return prior > 0; });
            if (a.readings < 2 || (!stated && (a.told[0] || a.told[1]))) continue;
            Finding& f =
                add(Severity::Warn, Bench::Tape, "tape.setup-untold", setup.name, "Doubtful",
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
            Finding& f = add(severityOf(figure.verdict), Bench::Tape, code, figure.name, verdictWord(figure.verdict),
                             fmt::format("{}: {} ± {}{}{}.", capital(figure.name), show(figure.value), show(figure.half_width),
                                         figure.words.empty() ? "" : ", ", figure.words),
                             figure.verdict == PlanVerdict::Fails ? figure.remedy : "Read both wheels again, on a level floor.");
            f.figure = show(figure.value) + " ± " + show(figure.half_width);
            f.need = show(figure.limit);
            f.brief = figure.name;
            f.tag = "alignment";
            const int hub =
                figure.key.find("front") != std::string::npos ? r_.chassis.frame.front_hub_left : r_.chassis.frame.rear_hub_left;
            f.station_mm = stationOf(Subject::Chassis, r_.chassis, hub);
        }
    }

    void gaps() {
        for (const tape::GapTrend& t : tape::gapTrends(gapReadings(b_))) {
            if (t.verdict == PlanVerdict::Holds) continue;
            const bool fails = t.verdict == PlanVerdict::Fails;
            Finding& f =
                add(severityOf(t.verdict), Bench::Tape, "tape.gap-moved", t.place, fails ? "Re-tape" : "Doubtful",
                    fmt::format("The gap {} went from {} to {} between \"{}\" and \"{}\": {} {} ± {}.", t.place,
                                small(t.readings[t.readings.size() - 2].value_mm), small(t.readings.back().value_mm),
                                t.readings[t.readings.size() - 2].event, t.readings.back().event,
                                t.change_mm > 0 ? "it opened by" : "it closed by", small(std::abs(t.change_mm)),
                                small(t.half_width_mm)),
                    fails ? "Stop: support or brace the body until the gap is back, before anything more is cut or welded."
                          : "Measure it again, twice, before going on.");
            f.figure = small(std::abs(t.change_mm)) + " ± " + small(t.half_width_mm);
            f.need = small(t.readings.back().tolerance_mm);
            f.brief = t.place + " moved";
            f.tag = "gaps";
        }
    }

    void readings(Subject subject, const SurveyOf& s) {
        const std::string subject_name(word(subject));
        std::vector<int> flagged;
        for (size_t i = 0; i < s.solution.readings.size(); ++i)
            if (s.solution.readings[i].verdict == tape::Verdict::Retape) flagged.push_back(static_cast<int>(i));
        std::sort(flagged.begin(), flagged.end(),
                  [&](int a, int c) { return std::abs(s.solution.readings[a].w) > std::abs(s.solution.readings[c].w); });
        const auto grouped = [&](int i) {
            for (const auto& group : s.solution.inseparable)
                if (std::find(group.begin(), group.end(), i) != group.end()) return true;
            return false;
        };
        for (const int i : flagged) {
            if (grouped(i)) continue;
            const tape::AdjustedReading& a = s.solution.readings[i];
            const tape::SurveyReading& r = s.survey.readings[i];
            const bool angle = isAngle(r.kind);
            const double off = r.value - a.rest_says;
            const std::string name = readingName(s.survey, i);
            const std::string taped = angle ? units::formatAngle(r.value) : len(r.value);
            const std::string rest = angle ? units::formatAngle(a.rest_says) : len(a.rest_says);
            const std::string by = angle ? units::formatAngle(std::abs(off)) : small(std::abs(off));
            const std::string slip = angle ? "" : tape::likelySlip(r.value, a.rest_says, a.rest_half_width);
            std::string likely = slip.empty() ? "" : " " + slip;
            for (const std::string& pair : tape::likelyPairs(s.survey, s.solution, i)) likely += " " + pair;
            Finding& f = add(Severity::Bad, Bench::Tape, "tape.retape", name, "Re-tape",
                             fmt::format("{} was read as {}; the rest say {}. It is off by {} and was set aside.{}", name, taped,
                                         rest, by, likely),
                             takenAgain(b_, s.reading_ids[i])
                                 ? fmt::format("{} was taken again and says the same: take a reading that crosses it, and look "
                                               "whether points and datum are the right ones.",
                                               name)
                                 : fmt::format("Tape {} again.", name));
            f.figure = by;
            f.need = angle ? units::formatAngle(tape::halfWidth(r.sigma)) : small(tape::halfWidth(r.sigma));
            f.station_mm = stationOf(subject, s, r.to >= 0 ? r.to : r.from);
            f.tag = fmt::format("reading:{}", s.reading_ids[i].value);
            f.brief = name;
            if (!a.set_aside)
                f.sentence = fmt::format("{} was read as {}; the rest say {}. It is off by {}.", name, taped, rest, by);
        }
        for (const auto& group : s.solution.inseparable) {
            std::string names;
            for (size_t k = 0; k < group.size() && k < 8; ++k)
                names += (k == 0 ? "" : k + 1 == group.size() ? " and " : ", ") + readingName(s.survey, group[k]);
            const bool bad = s.solution.readings[group.front()].verdict == tape::Verdict::Retape;
            const bool wide = s.solution.readings[group.front()].widened_sigma > 0;
            Finding& f = add(
                bad ? Severity::Bad : Severity::Warn, Bench::Tape, "tape.inseparable", subject_name, bad ? "Re-tape" : "Doubtful",
                fmt::format("One of {} is wrong, and the readings can't tell which; the likeliest stands first.{}", names,
                            wide ? " They count with the error that they may have: what they reach is wide." : ""),
                fmt::format("Tape {} again first: if it is the wrong one, that settles all. Or add a reading that crosses them.",
                            readingName(s.survey, group.front())));
            f.brief = fmt::format("one of {}", group.size());
            f.station_mm = stationOf(subject, s, s.survey.readings[group.front()].from);
            f.tag = fmt::format("reading:{}", s.reading_ids[group.front()].value);
        }
        const bool fails = s.solution.kept_redundancy > 0 && s.solution.kept_omega > s.solution.kept_omega_limit;
        if (fails && s.solution.inseparable.empty() && flagged.empty()) {
            Finding& f = add(
                Severity::Warn, Bench::Tape, "tape.omega", subject_name, "Doubtful",
                fmt::format(
                    "The {}'s readings agree less well than their ± promise: Ω is {}, the limit {}. All ± were widened {} times.",
                    subject_name, units::fixed(s.solution.kept_omega, 1), units::fixed(s.solution.kept_omega_limit, 1),
                    units::fixed(s.solution.sd_scale, 2)),
                "Look at the doubtful readings first, or say with σ how well your tape reads.");
            f.figure = units::fixed(s.solution.kept_omega, 1);
            f.need = units::fixed(s.solution.kept_omega_limit, 1);
            f.brief = "readings disagree";
        }
    }

    void sit() {
        for (const auto& [id, pin] : b_.pins)
            if (std::find(r_.pin_ids.begin(), r_.pin_ids.end(), id) == r_.pin_ids.end()) {
                Finding& f = add(Severity::Warn, Bench::Sit, "sit.pin-waits", pinName(pin), "Marginal",
                                 fmt::format("The pin {} waits for its points: nothing fixes them yet.", pinName(pin)),
                                 "Tape the body's points until all are fixed.");
                f.tag = fmt::format("pin:{}", id.value);
            }
        if (r_.seat.status == sit::Status::NoWishes && b_.pins.empty()) return;
        for (const std::string& sentence : r_.seat.open) {
            const auto colon = sentence.find(": ");
            add(Severity::Warn, Bench::Sit, "sit.open", "body", "Marginal", sentence.substr(0, colon) + ".",
                colon == std::string::npos ? "" : capital(sentence.substr(colon + 2)))
                .brief = "pose open";
        }
        if (!r_.seat.contradictory.empty()) {
            std::vector<std::string> names;
            for (const int i : r_.seat.contradictory) names.push_back(pinName(b_.pins.at(r_.pin_ids[static_cast<size_t>(i)])));
            Finding& f =
                add(Severity::Bad, Bench::Sit, "sit.contradiction", names.front(), "Fails",
                    names.size() == 1 ? fmt::format("{} can't be kept as a must wherever the body sits.", capital(names[0]))
                                      : fmt::format("These musts can't all be kept: {}.", fmt::join(names, "; ")),
                    "Make one of them a want, or change its figure.");
            f.tag = fmt::format("pin:{}", r_.pin_ids[static_cast<size_t>(r_.seat.contradictory.front())].value);
            f.brief = "musts contradict";
        }
        if (r_.seat.status == sit::Status::NotConverged)
            add(Severity::Bad, Bench::Sit, "sit.not-converged", "body", "Fails",
                "The pins contradict each other too far to find a place for the body.", "Check their stations and heights.");
        for (size_t i = 0; i < r_.pin_ids.size(); ++i) {
            const sit::WishResult& w = r_.seat.wishes[i];
            const Pin& pin = b_.pins.at(r_.pin_ids[i]);
            const std::string name = pinName(pin);
            const std::string tag = fmt::format("pin:{}", r_.pin_ids[i].value);
            if (!w.usable) {
                add(Severity::Warn, Bench::Sit, "sit.pin-waits", name, "Marginal", fmt::format("The pin {} {}.", name, w.words),
                    "")
                    .tag = tag;
                continue;
            }
            if (w.verdict == PlanVerdict::Holds) continue;
            const bool angle = pin.kind == PinKind::Rake;
            const auto show = [&](double v) { return angle ? units::formatAngle(v) : small(v); };
            const bool fails = w.verdict == PlanVerdict::Fails;
            if (pin.bound != Bound::Equal) {
                const std::string want = pinWanted(b_, pin);
                const std::string has = pinFigure(b_, pin, w.achieved) + " ± " + show(w.half_width);
                const bool over_tyre = pin.kind == PinKind::Bump || pin.kind == PinKind::Tyre;
                Finding& f = add(severityOf(w.verdict), Bench::Sit, "sit.bound", name, verdictWord(w.verdict),
                                 fmt::format("{} comes to {}; wanted {}{}.", capital(name), has, want,
                                             w.on_bound && !fails ? ", on the bound: the other pins press against it" : ""),
                                 fails ? "See what giving up another pin would bring (F5), or let the floor or rails give way."
                                 : over_tyre ? "Read the tyre's width, radius and travel, and tape the arch again."
                                             : askForMore(pin, w));
                f.figure = has;
                f.need = pinFigure(b_, pin, pin.target.value);
                f.tag = tag;
                f.brief = name;
                if (b_.points.at(pin.points.front()).subject == Subject::Body) {
                    if (const auto at = r_.bodyInChassis(pin.points.front())) f.station_mm = at->x_mm;
                } else if (const auto on = r_.chassis.positionOf(pin.points.front())) {
                    f.station_mm = on->x_mm;
                }
                continue;
            }
            std::string why = fails ? "the other pins pull it away"
                              : std::abs(w.miss) + w.miss_half_width > pin.tolerance
                                  ? "the surveys are not sharp enough to say more"
                                  : "it rests on an assumed figure";
            Finding& f =
                add(severityOf(w.verdict), Bench::Sit, "sit.pin-miss", name, verdictWord(w.verdict),
                    fmt::format("{} misses by {} ± {}: {}.", capital(name), show(std::abs(w.miss)), show(w.miss_half_width), why),
                    fails ? "Give one of the pins a wider tolerance, or move its target."
                          : "Measure what it rests on, or widen its tolerance.");
            f.figure = show(std::abs(w.miss)) + " ± " + show(w.miss_half_width);
            f.need = show(pin.tolerance);
            f.tag = tag;
            if (const auto at = r_.bodyInChassis(pin.points.front())) f.station_mm = at->x_mm;
            f.brief = name;
        }
    }

    std::string pinName(const Pin& pin) const { return analysis::pinName(b_, pin); }

    /// A bound that the body only just keeps is as likely missed as kept: what to ask for instead.
    std::string askForMore(const Pin& pin, const sit::WishResult& w) const {
        if (w.half_width <= 0 || !std::isfinite(w.half_width)) return "Measure what it rests on.";
        const double sure = pin.target.value + (pin.bound == Bound::AtLeast ? w.half_width : -w.half_width);
        return fmt::format("Measure what it rests on more sharply, or ask for {} {} to be sure of {}.",
                           pin.bound == Bound::AtLeast ? "at least" : "at most", pinFigure(b_, pin, sure),
                           pinFigure(b_, pin, pin.target.value));
    }

    void stretch() {
        const auto& plan = r_.stretch;
        if (plan.status == stretch::Status::Waiting && r_.seat.change_mm && std::abs(*r_.seat.change_mm) >= 0.5) {
            add(Severity::Warn, Bench::Stretch, "stretch.waits", "rails", "Marginal",
                fmt::format("The wheelbase must change by {}, and the plan waits for {}.", signedLength(*r_.seat.change_mm),
                            plan.waiting_for),
                "Give it on Stretch.")
                .brief = "no cut yet";
        }
        if (plan.status != stretch::Status::Planned) return;
        for (const auto& near : plan.near) {
            if (near.verdict == PlanVerdict::Holds) continue;
            const bool inside = near.distance_mm <= 0 && plan.shortens;
            Finding& f =
                add(severityOf(near.verdict), Bench::Stretch, inside ? "stretch.in-the-piece" : "stretch.near",
                    near.obstacle.name, verdictWord(near.verdict),
                    inside ? fmt::format("The {} {} stands in the piece that comes out.", near.obstacle.what, near.obstacle.name)
                           : fmt::format("The cut is {} from the {} {}. Needs {}.", len(std::abs(near.distance_mm)),
                                         near.obstacle.what, near.obstacle.name, len(plan.clearance_need_mm)),
                    inside ? "Move the cut, or plan a new place for it." : moveRemedy(near));
            f.figure = len(near.distance_mm);
            f.need = len(plan.clearance_need_mm);
            f.station_mm = near.obstacle.station_mm;
            f.brief = near.obstacle.name + " near";
            f.tag = "cut";
        }
        for (const auto& remark : plan.remarks) {
            Finding& f = add(severityOf(remark.verdict), Bench::Stretch, "stretch." + remark.code, "cut",
                             verdictWord(remark.verdict), remark.sentence, remark.remedy);
            f.figure = remark.figure;
            f.need = remark.need;
            f.station_mm = r_.stretch_input.cut_station_mm;
            f.tag = "cut";
            f.brief = remark.code;
            std::replace(f.brief.begin(), f.brief.end(), '-', ' ');
        }
    }

    std::string moveRemedy(const stretch::Near& near) const {
        const double need = r_.stretch.clearance_need_mm - near.distance_mm;
        const bool behind = near.obstacle.station_mm > *r_.stretch_input.cut_station_mm;
        return fmt::format("Move the cut {} {}.", len(std::ceil(need)), behind ? "forward" : "rearward");
    }

    std::string signedLength(double mm) const { return (mm > 0 ? "+" : mm < 0 ? "−" : "") + len(std::abs(mm)); }

    void make() {
        for (const auto& [id, mount] : b_.mounts)
            if (std::find(r_.mount_ids.begin(), r_.mount_ids.end(), id) == r_.mount_ids.end()) {
                const std::string name = nameOf(b_, mount.body_point);
                add(Severity::Warn, Bench::Make, "make.mount-waits", name, "Marginal",
                    fmt::format("The mount {} waits until the body has a place and its point is fixed.", name),
                    "Pin the body on Sit first.")
                    .tag = fmt::format("mount:{}", id.value);
            }
        for (size_t i = 0; i < r_.mounts.size(); ++i) {
            const auto& m = r_.mounts[i];
            if (m.verdict == PlanVerdict::Holds) continue;
            Finding& f = add(severityOf(m.verdict), Bench::Make, "make.mount-" + m.code, m.name, verdictWord(m.verdict),
                             m.sentence, m.remedy);
            f.figure = m.figure;
            f.need = m.need;
            f.station_mm = m.station_mm;
            f.brief = "mount " + m.name;
            f.tag = fmt::format("mount:{}", r_.mount_ids[i].value);
        }
        if (!b_.crossmember) return;
        if (!r_.crossmember.possible) {
            add(Severity::Warn, Bench::Make, "make.crossmember-waits", "crossmember", "Marginal",
                fmt::format("The crossmember waits for {}.", r_.crossmember.waiting_for), "")
                .tag = "crossmember";
            return;
        }
        for (const auto& remark : r_.crossmember.remarks) {
            Finding& f = add(severityOf(remark.verdict), Bench::Make, "make.crossmember-" + remark.code, "crossmember",
                             verdictWord(remark.verdict), remark.sentence, remark.remedy);
            f.figure = remark.figure;
            f.need = remark.need;
            f.station_mm = r_.crossmember.station_mm;
            f.brief = "crossmember";
            f.tag = "crossmember";
        }
    }

    const Build& b_;
    const Results& r_;
    units::LengthStep step_;
    std::vector<Finding> out_;
};

} // namespace

void sayDamage(Results& r, const std::vector<std::string>& damage) {
    r.file_damage = damage;
    for (auto d = damage.rbegin(); d != damage.rend(); ++d) {
        Finding f;
        f.severity = Severity::Bad;
        f.code = "file.damaged";
        f.subject = "the file";
        f.word = "Damaged";
        f.sentence = fmt::format("The build's file is damaged: {}.", *d);
        f.remedy = "Cut and weld nothing by these figures: open a copy that was kept.";
        f.brief = "damaged";
        r.findings.insert(r.findings.begin(), std::move(f));
    }
}

std::vector<Finding> findAll(const Build& b, const Results& r) { return Finder(b, r).all(); }

} // namespace gorvet::analysis
