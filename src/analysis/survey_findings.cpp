#include "analysis/survey_findings.hpp"

#include "units/shown.hpp"

#include "analysis/origin.hpp"
#include "build/unit_doubt.hpp"
#include "tape/assume.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

const char* flawCode(FlawKind k) {
    switch (k) {
    case FlawKind::Rust: return "tape.rust";
    case FlawKind::Thin: return "tape.thin";
    case FlawKind::Crack: return "tape.crack";
    case FlawKind::Seized: return "tape.seized";
    case FlawKind::Play: return "tape.play";
    case FlawKind::Repair: return "tape.repaired-before";
    case FlawKind::Layers: return "tape.layers";
    }
    return "";
}

class SurveyFinder {
public:
    SurveyFinder(const Build& b, const Results& r, SubjectId subject, std::vector<Finding>& out)
        : b_(b), r_(r), s_(r.of(subject)), subject_(subject), out_(out) {}

    void all() {
        units();
        flaws();
        drawing();
        datum();
        assumed();
        holds();
        sections();
        claims();
        ownDatum();
        zero();
        fewChecks();
    }

private:
    Finding& add(Severity severity, const char* code, const std::string& subject, const char* word, std::string sentence,
                 std::string remedy) {
        Finding f;
        f.severity = severity;
        f.code = code;
        f.subject = subject;
        f.word = word;
        f.sentence = std::move(sentence);
        f.remedy = std::move(remedy);
        f.brief = subject;
        out_.push_back(std::move(f));
        return out_.back();
    }
    std::string small(double mm) const { return gorvet::units::formatSmall(std::abs(mm), b_.settings.length_step, true); }
    std::optional<double> stationOf(PointId id) const {
        if (!id || (subject_ != the_body && subject_ != the_chassis)) return std::nullopt; // on axes of its own
        const auto at = subject_ == the_body ? r_.bodyInChassis(id) : s_.positionOf(id);
        return at ? std::optional(at->x_mm) : std::nullopt;
    }

    /// Figures that seem to be in another unit than they were taken for: all of them, or single ones.
    void units() {
        std::map<double, std::vector<ReadingId>> by_factor;
        size_t told = 0;
        for (const auto& [id, r] : b_.readings) {
            const auto from = b_.points.find(r.from);
            if (from == b_.points.end() || from->second.subject != subject_ || r.replaced_by ||
                r.value.provenance == Provenance::Assumed)
                continue;
            const auto about = roughly(b_, r.kind, r.from, r.to);
            if (!about) continue;
            told += std::abs(*about) >= least_expected_mm;
            if (const auto doubt = doubtUnit(r.value.value, *about)) by_factor[doubt->factor].push_back(id);
        }
        for (const auto& [factor, ids] : by_factor) {
            const Reading& first = b_.readings.at(ids.front());
            const double about = *roughly(b_, first.kind, first.from, first.to);
            const auto doubt = doubtUnit(first.value.value, about);
            const auto shown = [&](double mm) { return gorvet::units::formatLength(mm, b_.settings.length_step, true); };
            const auto named = [&](const Reading& r) { return nameOf(b_, r.from) + (r.to ? "–" + nameOf(b_, r.to) : ""); };
            if (ids.size() >= 3 && 2 * ids.size() > told) {
                Finding& f = add(
                    Severity::Bad, "tape.unit-of-all", nameOf(b_, subject_), "Doubtful",
                    fmt::format(
                        "{} of {} readings are off the rough places by one factor: {} is {} where about {} is expected. They seem to be {}.",
                        ids.size(), told, named(first), shown(first.value.value), shown(about), doubt->words),
                    "Take the readings back and enter or import them with their unit, or mend the rough places.");
                f.figure = fmt::format("× {:g}", factor);
                f.brief = "unit?";
                continue;
            }
            constexpr size_t most_named = 12;
            for (size_t i = 0; i < ids.size() && i < most_named; ++i) {
                const Reading& r = b_.readings.at(ids[i]);
                const double expected = *roughly(b_, r.kind, r.from, r.to);
                const auto own = doubtUnit(r.value.value, expected);
                Finding& f =
                    add(Severity::Bad, "tape.unit-of-one", named(r), "Doubtful",
                        fmt::format("{} {} is {} where about {} is expected: {} would fit, if it was {}.", word(r.kind), named(r),
                                    shown(r.value.value), shown(expected), shown(own->would_be_mm), own->words),
                        "Look at the note or the tape, and enter it again with its unit; or mend the rough places.");
                f.figure = shown(r.value.value);
                f.need = shown(own->would_be_mm);
                f.station_mm = stationOf(r.from);
                f.tag = fmt::format("reading:{}", ids[i].value);
            }
        }
    }
    void flaws() {
        for (size_t i = 0; i < r_.flaw_ids.size(); ++i) {
            const Flaw& flaw = b_.flaws.at(r_.flaw_ids[i]);
            const tape::JudgedFlaw& j = r_.repair.flaws[i];
            if (flaw.subject != subject_ || j.verdict == PlanVerdict::Holds) continue;
            const std::string where = flaw.point ? nameOf(b_, flaw.point) : flaw.part;
            Finding& f = add(severityOf(j.verdict), flawCode(flaw.kind), where, verdictWord(j.verdict), j.sentence, j.remedy);
            f.figure = j.figure;
            f.need = j.need;
            f.station_mm = stationOf(flaw.point);
            f.brief = fmt::format("{} {}", where, word(flaw.kind));
            f.tag = fmt::format("flaw:{}", flaw.id.value);
        }
    }

    void drawing() {
        const tape::Comparison& c = *s_.drawing.comparison;
        if (!c.possible || c.moved.empty()) return;
        constexpr double sure = 4.03; // χ² of three at 0.1 %
        int off = 0;
        const tape::Moved* worst = nullptr;
        double worst_mm = 0;
        for (const tape::Moved& m : c.moved) {
            const auto& known = s_.drawing.known[static_cast<size_t>(m.after)];
            const double by[3] = {m.by.x_mm, m.by.y_mm, m.by.z_mm};
            double largest = 0;
            for (size_t axis = 0; axis < 3; ++axis)
                if (known[axis]) largest = std::max(largest, std::abs(by[axis]));
            if (m.t <= sure || largest <= b_.settings.frame_tolerance_mm) continue;
            ++off;
            if (largest > worst_mm) {
                worst_mm = largest;
                worst = &m;
            }
        }
        if (!worst) return;
        const std::string name = s_.survey.points[static_cast<size_t>(worst->after)].name;
        Finding& f = add(Severity::Warn, "tape.off-drawing", name, "Marginal",
                         fmt::format("{} point{} stand{} off the drawing; {} by {}.", off, off == 1 ? "" : "s",
                                     off == 1 ? "s" : "", name, small(worst_mm)),
                         "Check the drawing's figures for it; if they are right, see what is bent.");
        f.figure = small(worst_mm);
        f.need = small(b_.settings.frame_tolerance_mm);
        f.station_mm = stationOf(s_.point_ids[static_cast<size_t>(worst->after)]);
        f.brief = name + " off drawing";
        f.tag = "drawing";
    }

    void datum() {
        if (s_.survey.datum.empty() || s_.solution->datum_missed_mm <= b_.settings.frame_tolerance_mm) return;
        Finding& f = add(Severity::Warn, "tape.datum-missed", nameOf(b_, subject_), "Marginal",
                         fmt::format("The datum's rules can't all hold: the worst is missed by {}. The axes lie between them.",
                                     small(s_.solution->datum_missed_mm)),
                         "Leave out the rule whose points are bent: datum held, then the rules you trust.");
        f.figure = small(s_.solution->datum_missed_mm);
        f.need = small(b_.settings.frame_tolerance_mm);
        f.brief = "datum in doubt";
    }

    /// Held coordinates beyond what a datum needs, which the readings contradict.
    void holds() {
        const tape::Solution& s = *s_.solution;
        if (s.blamed_holds.empty()) return;
        std::string names;
        const tape::BlamedHold* worst = nullptr;
        const auto nameOfHold = [&](const tape::BlamedHold& h) {
            const tape::HeldCoordinate& held = s_.survey.holds[static_cast<size_t>(h.hold)];
            static constexpr const char* axes[] = {"station", "offset", "height"};
            return fmt::format("{} of {}", axes[static_cast<int>(held.axis)],
                               s_.survey.points[static_cast<size_t>(held.point)].name);
        };
        for (size_t k = 0; k < s.blamed_holds.size(); ++k) {
            const tape::BlamedHold& h = s.blamed_holds[k];
            if (k < 6) names += (k == 0 ? "" : ", ") + nameOfHold(h);
            if (!worst || std::abs(h.off_mm) > std::abs(worst->off_mm)) worst = &h;
        }
        if (s.blamed_holds.size() > 6) names += fmt::format(" and {} more", s.blamed_holds.size() - 6);
        const auto point = static_cast<size_t>(s_.survey.holds[static_cast<size_t>(worst->hold)].point);
        Finding& f =
            add(Severity::Bad, "tape.hold-contradicts", nameOfHold(*worst), "Doubtful",
                fmt::format("What is held contradicts the readings: {}. The readings put the {} {} ± {} off what is held. {} not "
                            "used; of two that contradict each other either may be the wrong one.",
                            names, nameOfHold(*worst), small(worst->off_mm), small(worst->u95_mm),
                            s.blamed_holds.size() == 1 ? "It is" : "They are"),
                "Hold only what fixes the datum; give a drawing's figures as drawing figures, to be compared with.");
        f.figure = small(worst->off_mm) + " ± " + small(worst->u95_mm);
        f.need = small(0);
        f.station_mm = stationOf(s_.point_ids[point]);
        f.brief = "hold contradicts";
        f.tag = fmt::format("point:{}", s_.point_ids[point].value);
    }

    /// Something remembered or read in a data sheet, which the survey contradicts: what builders get wrong most.
    void claims() {
        for (const tape::Claim& c : tape::checkClaims(s_.survey, *s_.solution)) {
            const tape::SurveyReading& r = s_.survey.assumed[static_cast<size_t>(c.claim)];
            const bool symmetry = b_.readings.at(s_.assumed_ids[static_cast<size_t>(c.claim)]).kind == ReadingKind::Symmetry;
            const double off = c.says - r.value;
            // as crooked as the frame may be: a symmetry is meant no more sharply
            if (!c.contradicted || (symmetry && std::abs(off) - c.u95 <= b_.settings.frame_tolerance_mm)) continue;
            const bool angle = isAngle(r.kind);
            const auto show = [&](double v) {
                return angle ? gorvet::units::formatAngle(v) : gorvet::units::formatLength(v, b_.settings.length_step, true);
            };
            const auto pm = [&](double v) { return angle ? gorvet::units::formatAngle(v) : small(v); };
            const std::string pair = s_.survey.points[static_cast<size_t>(r.from)].name +
                                     (r.to >= 0 ? "–" + s_.survey.points[static_cast<size_t>(r.to)].name : "");
            Finding& f =
                add(Severity::Warn, "tape.claim-contradicted", pair, "Doubtful",
                    symmetry ? fmt::format("{} are assumed to be symmetric; the survey has them off by {} ± {}.", pair,
                                           pm(std::abs(off)), pm(c.u95))
                             : fmt::format("{} was assumed to be {}; the survey says {} ± {}: {} {}.", pair, show(r.value),
                                           show(c.says), pm(c.u95), pm(std::abs(off)), off > 0 ? "more" : "less"),
                    "Go by the survey, and find out where the assumed figure comes from before anything is bought or cut by it.");
            f.figure = show(c.says) + " ± " + pm(c.u95);
            f.need = show(r.value);
            f.station_mm = stationOf(s_.point_ids[static_cast<size_t>(r.from)]);
            f.brief = pair + " not as assumed";
            f.tag = fmt::format("reading:{}", s_.assumed_ids[static_cast<size_t>(c.claim)].value);
        }
    }

    /// Stations that do not count from the front axle are misread as if they did: a cut would land beside its place.
    void zero() {
        if (subject_ != the_chassis) return;
        const Origin o = originOf(b_, r_);
        if (o.at_axle || !o.axle_mm) return;
        Finding& f = add(Severity::Warn, "tape.zero-not-axle", "station 0", "Marginal",
                         fmt::format("Stations count {}{}.", o.from, o.axle_words),
                         "Scribe and cut from there, or hold the front wheel centres at station 0.");
        f.figure = gorvet::units::formatLength(*o.axle_mm, b_.settings.length_step, true);
        f.need = small(0);
        f.station_mm = 0;
        f.brief = "0 is not the axle";
        f.tag = "datum";
    }

    /// A survey in which few readings check each other: its ± counts the tape's own spread, and a misread would go into the
    /// shape.
    void fewChecks() {
        const tape::Solution& s = *s_.solution;
        if (s.status != tape::Status::Solved || s.readings.size() < 4) return;
        constexpr double few = 0.25; // of the readings
        if (s.kept_redundancy >= few * static_cast<double>(s.readings.size())) return;
        int loose = 0;
        double worst = 0;
        size_t where = 0;
        for (size_t i = 0; i < s.readings.size(); ++i) {
            const tape::AdjustedReading& a = s.readings[i];
            if (a.set_aside) continue;
            loose += a.check != tape::Check::Checked;
            if (!isAngle(s_.survey.readings[i].kind) && std::isfinite(a.minimal_detectable_error) &&
                a.minimal_detectable_error > worst) {
                worst = a.minimal_detectable_error;
                where = i;
            }
        }
        const tape::SurveyReading& r = s_.survey.readings[where];
        const std::string pair = s_.survey.points[static_cast<size_t>(r.from)].name +
                                 (r.to >= 0 ? "–" + s_.survey.points[static_cast<size_t>(r.to)].name : "");
        Finding& f =
            add(Severity::Warn, "tape.few-checks", nameOf(b_, subject_), "Doubtful",
                fmt::format("Only {} of {} readings are spare{}: the ± counts how a tape scatters, not a misread{}.",
                            s.kept_redundancy, s.readings.size(), loose ? fmt::format(", {} are hardly checked", loose) : "",
                            worst > 0 ? fmt::format(", which could stay hidden up to {} in {}", small(worst), pair) : ""),
                "Tape more pairs, diagonals first, before anything is cut by it.");
        f.figure = fmt::format("{} spare", s.kept_redundancy);
        f.need = fmt::format("{} spare", static_cast<int>(std::ceil(few * static_cast<double>(s.readings.size()))));
        f.brief = "few checks";
    }

    /// A bolted subframe that is only measured against its own middle may sit crooked in the car, and nothing shows it.
    void ownDatum() {
        if (subject_ != the_chassis || b_.settings.frame_kind != FrameKind::BoltedSubframe || s_.frame.carried ||
            s_.frame.pairs.size() < 2 || s_.solution->status != tape::Status::Solved)
            return;
        Finding& f = add(Severity::Warn, "tape.subframe-own-datum", nameOf(b_, subject_), "Marginal",
                         "The subframe is measured against its own middle: whether it sits straight in the car is not known.",
                         "Hold the offsets of two points of what carries it, on the car's centreline or as a left and right pair "
                         "(hold-y, or datum centred), and tape the subframe to them.");
        f.brief = "subframe's own datum";
    }

    /// A fault at one end or in the middle, where the figure of the whole frame says none.
    void sections() {
        struct Kind {
            tape::FigureKind whole;
            const char* code;
            const char* what; ///< {} the pair, its deviation, a side
            const tape::Deviation* (*of)(const tape::Section&);
            const char* positive;
            const char* negative;
        };
        static constexpr Kind kinds[] = {
            {tape::FigureKind::Diamond, "tape.section-diamond", "is out of square",
             [](const tape::Section& c) { return &c.lead; }, "left rail aft", "right rail aft"},
            {tape::FigureKind::Twist, "tape.section-twist", "leans against the front pair",
             [](const tape::Section& c) { return &c.lean; }, "right side high", "left side high"},
            {tape::FigureKind::Sidesway, "tape.section-sidesway", "stands off the line through the ends",
             [](const tape::Section& c) { return &c.aside; }, "to the right", "to the left"},
            {tape::FigureKind::Sag, "tape.section-sag", "stands off the chord of the ends, against the drawing",
             [](const tape::Section& c) { return c.low ? &*c.low : nullptr; }, "low", "high"}};
        for (const Kind& kind : kinds) {
            const auto& figures = s_.condition->figures;
            if (std::any_of(figures.begin(), figures.end(), [&](const tape::ConditionFigure& g) {
                    return g.kind == kind.whole && g.verdict == PlanVerdict::Fails;
                }))
                continue; // said already
            const tape::Section* worst = nullptr;
            int failing = 0;
            for (const tape::Section& c : s_.condition->sections) {
                const tape::Deviation* d = kind.of(c);
                if (!d || d->verdict != PlanVerdict::Fails) continue;
                ++failing;
                if (!worst || std::abs(d->size_mm.value) > std::abs(kind.of(*worst)->size_mm.value)) worst = &c;
            }
            if (!worst) continue;
            const tape::Deviation& d = *kind.of(*worst);
            const auto left = static_cast<size_t>(worst->pair.left);
            const std::string pair =
                s_.survey.points[left].name + "–" + s_.survey.points[static_cast<size_t>(worst->pair.right)].name;
            Finding& f =
                add(Severity::Bad, kind.code, pair, "Fails",
                    fmt::format("The pair {} {} by {} ± {}, {}{}; the frame as a whole does not show it.", pair, kind.what,
                                small(d.size_mm.value), small(d.size_mm.u95), d.size_mm.value > 0 ? kind.positive : kind.negative,
                                failing > 1 ? fmt::format(" (the worst of {})", failing) : ""),
                    "Tape across that place again; if it stays, have it pulled straight before anything is made to fit it.");
            f.figure = units::shown(d.size_mm, [this](double mm) { return small(mm); });
            f.need = small(b_.settings.frame_tolerance_mm);
            f.station_mm = stationOf(s_.point_ids[left]);
            f.brief = pair + " crooked";
            f.tag = fmt::format("point:{}", s_.point_ids[left].value);
        }
    }

    void assumed() {
        std::string names;
        int count = 0;
        PointId first;
        for (size_t i = 0; i < s_.solution->points.size(); ++i)
            if (s_.solution->points[i].assumed) {
                if (!count) first = s_.point_ids[i];
                if (++count <= 4) names += (names.empty() ? "" : ", ") + s_.survey.points[i].name;
            }
        if (!count) return;
        if (count > 4) names += fmt::format(" and {} more", count - 4);
        Finding& f = add(Severity::Warn, "tape.assumed", names, "Doubtful",
                         fmt::format("{} stand{} where {} assumed, not where anybody measured.", names, count == 1 ? "s" : "",
                                     count == 1 ? "it is" : "they are"),
                         "Tape them before anything is cut to them.");
        f.brief = "assumed";
        f.tag = fmt::format("point:{}", first.value);
    }

    const Build& b_;
    const Results& r_;
    const SurveyOf& s_;
    SubjectId subject_;
    std::vector<Finding>& out_;
};

} // namespace

void addSurveyFindings(const Build& b, const Results& r, SubjectId subject, std::vector<Finding>& out) {
    SurveyFinder(b, r, subject, out).all();
}

} // namespace gorvet::analysis
