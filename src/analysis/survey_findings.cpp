#include "analysis/survey_findings.hpp"

#include <cmath>

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
    SurveyFinder(const Build& b, const Results& r, Subject subject, std::vector<Finding>& out)
        : b_(b), r_(r), s_(r.of(subject)), subject_(subject), out_(out) {}

    void all() {
        flaws();
        drawing();
        datum();
        assumed();
    }

private:
    Finding& add(Severity severity, const char* code, const std::string& subject, const char* word, std::string sentence,
                 std::string remedy) {
        Finding f;
        f.severity = severity;
        f.bench = Bench::Tape;
        f.code = code;
        f.subject = subject;
        f.word = word;
        f.sentence = std::move(sentence);
        f.remedy = std::move(remedy);
        f.brief = subject;
        out_.push_back(std::move(f));
        return out_.back();
    }
    std::string small(double mm) const { return units::formatSmall(std::abs(mm), b_.settings.length_step, true); }
    std::optional<double> stationOf(PointId id) const {
        if (!id) return std::nullopt;
        const auto at = subject_ == Subject::Body ? r_.bodyInChassis(id) : s_.positionOf(id);
        return at ? std::optional(at->x_mm) : std::nullopt;
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
        const tape::Comparison& c = s_.drawing.comparison;
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
        if (s_.survey.datum.empty() || s_.solution.datum_missed_mm <= b_.settings.frame_tolerance_mm) return;
        Finding& f = add(Severity::Warn, "tape.datum-missed", std::string(word(subject_)), "Marginal",
                         fmt::format("The datum's rules can't all hold: the worst is missed by {}. The axes lie between them.",
                                     small(s_.solution.datum_missed_mm)),
                         "Leave out the rule whose points are bent: datum held, then the rules you trust.");
        f.figure = small(s_.solution.datum_missed_mm);
        f.need = small(b_.settings.frame_tolerance_mm);
        f.brief = "datum in doubt";
    }

    void assumed() {
        std::string names;
        int count = 0;
        PointId first;
        for (size_t i = 0; i < s_.solution.points.size(); ++i)
            if (s_.solution.points[i].assumed) {
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
    Subject subject_;
    std::vector<Finding>& out_;
};

} // namespace

void addSurveyFindings(const Build& b, const Results& r, Subject subject, std::vector<Finding>& out) {
    SurveyFinder(b, r, subject, out).all();
}

} // namespace gorvet::analysis
