#include "tape/assume.hpp"

#include "tape/equations.hpp"
#include "tape/propagate.hpp"
#include "tape/undetermined.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::tape {

std::vector<Claim> checkClaims(const Survey& survey, const Solution& s) {
    std::vector<Claim> claims;
    if (s.status == Status::NoReadings || s.status == Status::NotConverged) return claims;
    const Positions at = positionsOf(s);
    for (size_t i = 0; i < survey.assumed.size(); ++i) {
        const SurveyReading& r = survey.assumed[i];
        const bool two = r.to >= 0;
        if (!s.points[r.from].determined || (two && !s.points[r.to].determined)) continue;
        const double sense = two ? senseOf(r.kind, at[r.from], at[r.to]) : 1.0;
        const Propagated p = propagate(s, at, two ? std::vector{r.from, r.to} : std::vector{r.from}, [&](const Positions& q) {
            return predict(r.kind, q[r.from], two ? q[r.to] : Vec3{}, two, sense).value;
        });
        Claim c;
        c.claim = static_cast<int>(i);
        c.says = p.value;
        c.u95 = u95Of(p.sd);
        const double least = build::isAngle(r.kind) ? 0.1 * 3.14159265358979323846 / 180 : 1.0;
        c.contradicted = std::abs(p.value - r.value) > std::max(c.u95, least);
        claims.push_back(c);
    }
    return claims;
}

void placeByAssumption(const Survey& survey, Solution& s) {
    if (std::all_of(s.points.begin(), s.points.end(), [](const AdjustedPoint& p) { return p.determined; })) return;
    Survey second = survey;
    second.assumed.clear();
    second.datum.clear();
    second.holds.clear();
    second.readings.clear();
    for (size_t i = 0; i < s.points.size(); ++i) {
        const AdjustedPoint& p = s.points[i];
        if (p.determined) {
            const double at[3] = {p.position.x_mm, p.position.y_mm, p.position.z_mm};
            for (int axis = 0; axis < 3; ++axis) second.holds.push_back({static_cast<int>(i), static_cast<Axis>(axis), at[axis]});
        } else {
            for (const HeldCoordinate& h : survey.holds)
                if (h.point == static_cast<int>(i) && survey.datum.empty()) second.holds.push_back(h);
        }
        if (p.placed) second.points[i].rough = p.position;
    }
    for (size_t i = 0; i < survey.readings.size(); ++i)
        if (!s.readings[i].set_aside) second.readings.push_back(survey.readings[i]);
    second.readings.insert(second.readings.end(), survey.assumed.begin(), survey.assumed.end());
    const Solution placed = solve(second, {.set_aside = false, .go_on = {}});
    if (placed.status == Status::NotConverged || placed.status == Status::NoReadings) return;
    for (size_t i = 0; i < s.points.size(); ++i) {
        AdjustedPoint& p = s.points[i];
        if (p.determined || !placed.points[i].determined) continue;
        p.placed = true;
        p.assumed = true;
        p.position = placed.points[i].position;
        // the second adjustment scales nothing: its Ω says nothing of the measuring
        for (int axis = 0; axis < 3; ++axis) p.sd_mm[axis] = placed.points[i].sd_mm[axis] / placed.sigma_0;
    }
    leaveOutAssumed(s.undetermined, survey, s);
}

} // namespace gorvet::tape
