#include "prompt/weigh.hpp"

#include "tape/equations.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::prompt {

using namespace build;

namespace {

struct Expected {
    double value = 0;
    double u95 = 0;
};

/// What the survey expects a reading to be; nothing where it can't say.
std::optional<Expected> expected(const analysis::SurveyOf& survey, const Reading& r) {
    const tape::Solution& s = *survey.solution;
    if (r.setup && r.kind != ReadingKind::Tape) return std::nullopt;
    const auto place = [&](PointId id) -> std::optional<size_t> {
        const auto at = std::find(survey.point_ids.begin(), survey.point_ids.end(), id);
        if (at == survey.point_ids.end() || s.points.size() != survey.point_ids.size()) return std::nullopt;
        const auto i = static_cast<size_t>(at - survey.point_ids.begin());
        return s.points[i].determined ? std::optional(i) : std::nullopt;
    };
    const auto from = place(r.from), second = r.to ? place(r.to) : from;
    if (!from || !second) return std::nullopt;
    const size_t to = *second;
    const bool two = static_cast<bool>(r.to);
    const Vec3 one = s.points[*from].position, other = two ? s.points[to].position : Vec3{};
    const tape::Predicted p = tape::predict(r.kind, one, other, two, two ? tape::senseOf(r.kind, one, other) : 1.0);
    std::vector<size_t> coordinates;
    std::vector<double> gradient(3 * s.points.size(), 0.0);
    for (size_t axis = 0; axis < 3; ++axis) {
        coordinates.push_back(3 * *from + axis);
        gradient[coordinates.back()] = p.by_from[axis];
        if (!two) continue;
        coordinates.push_back(3 * to + axis);
        gradient[coordinates.back()] = p.by_to[axis];
    }
    return Expected{p.value, u95Of(std::sqrt(std::max(0.0, s.covariance.quadratic(coordinates, gradient))))};
}

} // namespace

std::string doubtOf(const Build& b, const analysis::Results& results, const entry::Understood& understood) {
    if (!understood.doubt.empty()) return understood.doubt;
    for (const Change& change : understood.edit.changes) {
        const auto* put = change.as<Put<Reading>>();
        if (!put || put->value.kind == ReadingKind::Coordinates || put->value.kind == ReadingKind::Symmetry) continue;
        const Reading& r = put->value;
        const auto point = b.points.find(r.from);
        if (point == b.points.end()) continue;
        const auto about = expected(results.of(point->second.subject), r);
        if (!about) continue;
        const double off = std::abs(r.value.value - about->value);
        const bool angle = isAngle(r.kind);
        if (off <= (angle ? asked_beyond_rad : std::max(asked_beyond_mm, asked_beyond_share * std::abs(about->value))) +
                       asked_beyond_u95 * about->u95)
            continue;
        return fmt::format("about {} is expected there", angle ? units::formatAngle(about->value)
                                                               : units::formatLength(about->value, b.settings.length_step, true));
    }
    return {};
}

} // namespace gorvet::prompt
