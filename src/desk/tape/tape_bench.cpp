#include "desk/tape/tape_bench.hpp"

#include "analysis/lead.hpp"
#include "analysis/survey_lines.hpp"
#include "desk/tape/practise.hpp"
#include "desk/tape/tape_acts.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::desk {

analysis::ViewOptions TapeBench::options(const Document& d, const ViewState& state) const {
    analysis::ViewOptions o{state.selected, {}, 0};
    if (const auto next = proposal(d, state)) o.next = next->points;
    return o;
}

void TapeBench::opened(Desk& desk) const { playPractice(desk); }

std::vector<Act> TapeBench::acts() const {
    using formats::PointsAre;
    return {
        {"importReadings", tr("Import readings…"), QKeySequence("Ctrl+I"), importReadings},
        {"importRough", tr("Import points as rough places…"), {}, [](Desk& d) { importPoints(d, PointsAre::Rough); }},
        {"importDrawing", tr("Import the drawing's figures…"), {}, [](Desk& d) { importPoints(d, PointsAre::Drawing); }},
        {"importCoordinates", tr("Import measured coordinates…"), {}, [](Desk& d) { importPoints(d, PointsAre::Coordinates); }},
        {"exportReport", tr("Report \"as found\" as PDF…"), QKeySequence("Ctrl+R"), exportReport},
        {"practise1", tr("Practise on a crooked frame…"), {}, [](Desk& d) { practise(d, 1); }, true},
        {"practise2", tr("Practise: crooked in two ways…"), {}, [](Desk& d) { practise(d, 2); }},
        {"practise3", tr("Practise: hardly crooked, on an uneven floor…"), {}, [](Desk& d) { practise(d, 3); }}};
}

std::vector<Starter> TapeBench::starters(const Document& d, const ViewState& state) const {
    const auto& s = d.results().of(state.subject);
    std::vector<Starter> list;
    const auto& practice = d.build().practice;
    const bool practising = practice.on && !practice.marked && state.subject == build::the_chassis;
    if (!practising) list.push_back({tr("mark a point"), "point "});
    if (s.survey.points.empty()) {
        list.push_back({tr("how it stands"), "session "});
        return list;
    }
    if (practising) {
        list.push_back({tr("say what is wrong"), "answer "});
        if (!d.build().answers.empty()) list.push_back({tr("hand in"), "hand-in"});
    }
    list.push_back({tr("datum"), "datum "});
    list.push_back({tr("height"), "height "});
    list.push_back({tr("level"), "level "});
    list.push_back({tr("offset"), "offset "});
    list.push_back({tr("station"), "station "});
    list.push_back({tr("slope"), "slope "});
    list.push_back({tr("plumbed"), "plan "});
    list.push_back({tr("found"), "found "});
    list.push_back({tr("read from"), "setup "});
    list.push_back({tr("want to know"), "want "});
    if (state.subject == build::the_body) list.push_back({tr("a gap"), "gap "});
    list.push_back({tr("how it stands"), "session "});
    return list;
}

bool TapeBench::picked(Desk& desk, const QString& tag) const {
    const QString place = "ghost:";
    if (!tag.startsWith(place)) return false;
    desk.keep(analysis::markFromSketch(desk.document().latest(), desk.subject(), tag.mid(place.size()).toStdString()));
    return true;
}

std::optional<Proposal> TapeBench::proposal(const Document& d, const ViewState& state) const {
    const auto& s = d.results().of(state.subject);
    const auto name = [&](int i) { return QString::fromStdString(s.survey.points[i].name); };
    // a reading that must be taped again comes first; one that was, and said the same, waits for readings that cross it
    const auto suspects = [&](size_t i) -> size_t {
        for (const auto& group : s.solution->inseparable)
            if (std::find(group.begin(), group.end(), static_cast<int>(i)) != group.end()) return group.size();
        return 1;
    };
    int worst = -1;
    for (size_t i = 0; i < s.solution->readings.size(); ++i) {
        const auto& r = s.solution->readings[i];
        if (r.verdict != tape::Verdict::Retape || s.survey.readings[i].kind == build::ReadingKind::Coordinates ||
            analysis::takenAgain(d.build(), s.reading_ids[i]))
            continue;
        if (worst < 0 || std::abs(r.w) > std::abs(s.solution->readings[worst].w)) worst = static_cast<int>(i);
    }
    if (worst >= 0 && state.skip == 0) {
        const auto& r = s.survey.readings[worst];
        const QString points = name(r.from) + (r.to >= 0 ? " " + name(r.to) : QString());
        const QString kind = QString::fromUtf8(build::word(r.kind).data());
        const bool taped = r.kind == build::ReadingKind::Tape;
        const double rest = s.solution->readings[worst].leave_one_out;
        // what the rest say is only worth saying where they check it, and where it is the only suspect
        const bool known = suspects(static_cast<size_t>(worst)) == 1 && s.solution->readings[worst].check == tape::Check::Checked;
        const QString says = known ? tr("the rest say %1")
                                         .arg(QString::fromStdString(
                                             build::isAngle(r.kind) ? units::formatAngle(rest)
                                                                    : units::formatLength(rest, d.build().settings.length_step)))
                             : suspects(static_cast<size_t>(worst)) > 1
                                 ? tr("it is one of %1 of which one is wrong").arg(suspects(static_cast<size_t>(worst)))
                                 : tr("hardly anything checks it");
        // a reading that is flagged is replaced when it is typed again, whatever its kind
        return Proposal{taped ? points : kind + " " + points,
                        (taped ? QString("retape ") : kind + " ") + points + " ",
                        (taped ? tr("tape it again: %1") : tr("read it again: %1")).arg(says),
                        {},
                        std::pair{r.from, r.to >= 0 ? r.to : r.from}};
    }
    const auto& ranked = d.results().next(state.subject);
    if (ranked.empty()) return std::nullopt;
    const auto* next = &ranked[static_cast<size_t>(worst >= 0 ? state.skip - 1 : state.skip) % ranked.size()];
    const bool two = next->to >= 0;
    QString pair = two ? name(next->from) + " " + name(next->to) : name(next->from);
    // the line begins with the kind, so that no point's name is taken for a command
    const QString kind = QString::fromUtf8(build::word(next->kind).data()) + " ";
    const QString line = kind + pair + " ";
    if (next->kind != build::ReadingKind::Tape) pair = kind + pair;
    const units::LengthStep step = d.build().settings.length_step;
    QString hint = tr("about %1")
                       .arg(QString::fromStdString(
                           next->aboutWords(units::unitOf(step) == units::Unit::Inch ? step : units::LengthStep::Mm1)));
    if (const std::string gain = next->words(); !gain.empty()) hint += QString::fromUtf8(" · ") + QString::fromStdString(gain);
    const auto ends = std::pair{next->from, two ? next->to : next->from};
    return Proposal{pair, line, hint, ends, ends};
}

} // namespace gorvet::desk
