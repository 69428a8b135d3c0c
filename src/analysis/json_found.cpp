#include "analysis/json_parts.hpp"
#include "analysis/practice.hpp"

namespace gorvet::analysis {

std::string drawingJson(const SurveyOf& s) {
    const tape::Comparison& c = *s.drawing.comparison;
    Json j = {{"source", s.drawing.source},
              {"possible", c.possible},
              {"message", c.message},
              {"by_chance", c.by_chance},
              {"points", Json::array()}};
    for (const tape::Moved& m : c.moved) {
        const auto& known = s.drawing.known[static_cast<size_t>(m.after)];
        const double by[3] = {m.by.x_mm, m.by.y_mm, m.by.z_mm};
        Json off = Json::object();
        Json half = Json::object();
        static constexpr const char* axes[3] = {"x", "y", "z"};
        for (size_t k = 0; k < 3; ++k) {
            off[axes[k]] = known[k] ? number(by[k]) : Json(nullptr);
            half[axes[k]] = known[k] ? number(m.u95[k]) : Json(nullptr);
        }
        j["points"].push_back({{"name", s.survey.points[static_cast<size_t>(m.after)].name},
                               {"off_mm", off},
                               {"u95_mm", half},
                               {"t", number(m.t)},
                               {"proven", m.proven}});
    }
    return text(j);
}

std::string foundJson(const build::Build& b, const Results& r) {
    Json j = {{"found", Json::array()}, {"ways", Json::array()}};
    const auto value = [](const std::optional<build::Dimension>& d) { return d ? number(d->value) : Json(nullptr); };
    for (size_t i = 0; i < r.flaw_ids.size(); ++i) {
        const build::Flaw& f = b.flaws.at(r.flaw_ids[i]);
        const tape::JudgedFlaw& q = r.repair.flaws[i];
        j["found"].push_back({{"kind", build::word(f.kind)},
                              {"subject", build::nameOf(b, f.subject)},
                              {"point", f.point ? build::nameOf(b, f.point) : ""},
                              {"part", f.part},
                              {"amount_mm", value(f.amount)},
                              {"nominal_mm", value(f.nominal)},
                              {"layers", f.layers},
                              {"direction", f.direction},
                              {"note", f.note},
                              {"photo", f.photo},
                              {"who", f.who},
                              {"at_utc", f.at_utc},
                              {"verdict", build::verdictWord(q.verdict)},
                              {"figure", q.figure},
                              {"need", q.need},
                              {"sentence", q.sentence},
                              {"remedy", q.remedy}});
    }
    for (size_t i = 0; i < r.repair.ways.size(); ++i) {
        const tape::Way& w = r.repair.ways[i];
        j["ways"].push_back({{"key", w.key},
                             {"name", w.name},
                             {"possible", w.possible},
                             {"hours", number(w.hours)},
                             {"cost", number(w.cost)},
                             {"missing", w.missing},
                             {"why", w.why},
                             {"advised", static_cast<int>(i) == r.repair.advised}});
    }
    j["money"] = b.rates.money;
    j["sentence"] = r.repair.sentence;
    return text(j);
}

std::string practiceJson(const build::Build& b, const Results& r) {
    Json j = {
        {"seed", b.practice.seed}, {"difficulty", b.practice.difficulty}, {"marked", b.practice.marked}, {"said", Json::array()}};
    for (const auto& [id, a] : b.answers)
        j["said"].push_back({{"about", a.about},
                             {"value_mm", a.value ? number(a.value->value) : Json(nullptr)},
                             {"from", a.from ? build::nameOf(b, a.from) : ""},
                             {"to", a.to ? build::nameOf(b, a.to) : ""}});
    const PracticeResult result = markPractice(b, r);
    if (!b.practice.marked) return text(j);
    j["points"] = result.points;
    j["most"] = result.most;
    j["sentence"] = result.sentence;
    j["marks"] = Json::array();
    for (const PracticeMark& m : result.marks)
        j["marks"].push_back(
            {{"about", m.about}, {"said", m.said}, {"truth", m.truth}, {"mark", markWord(m.how)}, {"why", m.sentence}});
    return text(j);
}

} // namespace gorvet::analysis
