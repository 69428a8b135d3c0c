#include "analysis/findings.hpp"

#include "analysis/bench.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

std::string readingName(const tape::Survey& survey, int reading) {
    const tape::SurveyReading& r = survey.readings[reading];
    const std::string pair = survey.points[r.from].name + (r.to >= 0 ? "–" + survey.points[r.to].name : "");
    return r.kind == ReadingKind::Tape ? pair : std::string(word(r.kind)) + " " + pair;
}

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

void sortFindings(std::vector<Finding>& findings) {
    std::stable_sort(findings.begin(), findings.end(), [](const Finding& a, const Finding& c) {
        const auto at = placeOf(a.bench());
        const auto other = placeOf(c.bench());
        return at != other ? at < other : a.severity > c.severity;
    });
}

std::vector<Finding> findAll(const Build& b, const Results& r) {
    std::vector<Finding> all;
    for (const BenchInfo* bench : benches())
        if (bench->findings) bench->findings(b, r, all);
    sortFindings(all);
    return all;
}

} // namespace gorvet::analysis
