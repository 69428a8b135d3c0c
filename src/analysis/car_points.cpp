#include "analysis/car_points.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

std::size_t CarPoints::take(PointId id) {
    for (std::size_t k = 0; k < taken_.size(); ++k)
        if (taken_[k].id == id) return k;
    Taken t{id, -1, 0};
    if (b_.points.at(id).subject != the_body) {
        t.chassis = chassis_.take(id);
        if (t.chassis < 0) return 0;
    } else {
        const auto at = r_.bodyInChassis(id);
        if (!at) {
            body_lost_.push_back(nameOf(b_, id));
            return 0;
        }
        const tape::AdjustedPoint& own = r_.body.solution->points[static_cast<std::size_t>(r_.body.indexOf(id))];
        double seat = 0, survey = 0;
        for (const double h : r_.seat->pose_u95_mm)
            if (std::isfinite(h)) seat = std::max(seat, std::pow(sigmaOfU95(h), 2));
        for (const double sd : own.sd_mm)
            if (std::isfinite(sd)) survey = std::max(survey, sd * sd);
        t.body = body_at_.size();
        body_at_.push_back(*at);
        body_variance_.push_back(seat + survey);
        if (own.assumed) body_assumed_.push_back(nameOf(b_, id));
    }
    taken_.push_back(t);
    return taken_.size() - 1;
}

std::vector<std::size_t> CarPoints::take(const std::vector<PointId>& ids) {
    std::vector<std::size_t> all;
    for (const PointId id : ids) all.push_back(take(id));
    return all;
}

Places CarPoints::places() {
    const Places chassis = chassis_.places();
    const std::size_t n = 3 * taken_.size(), of = 3 * chassis.at.size();
    Places out;
    out.covariance.assign(n * n, 0);
    for (std::size_t i = 0; i < taken_.size(); ++i) {
        const Taken& t = taken_[i];
        out.names.push_back(nameOf(b_, t.id));
        if (t.chassis < 0) {
            out.at.push_back(body_at_[t.body]);
            for (std::size_t a = 0; a < 3; ++a) out.covariance[(3 * i + a) * n + 3 * i + a] = body_variance_[t.body];
            continue;
        }
        const auto from = static_cast<std::size_t>(t.chassis);
        out.at.push_back(r_.planned_chassis.map(chassis.at[from]));
        for (std::size_t j = 0; j < taken_.size(); ++j) {
            if (taken_[j].chassis < 0) continue;
            const auto to = static_cast<std::size_t>(taken_[j].chassis);
            for (std::size_t a = 0; a < 3; ++a)
                for (std::size_t c = 0; c < 3; ++c)
                    out.covariance[(3 * i + a) * n + 3 * j + c] = chassis.covariance[(3 * from + a) * of + 3 * to + c];
        }
    }
    return out;
}

std::vector<std::string> CarPoints::assumed() const {
    std::vector<std::string> all = chassis_.assumed();
    all.insert(all.end(), body_assumed_.begin(), body_assumed_.end());
    return all;
}

std::string CarPoints::lost() const {
    std::string text = chassis_.lost();
    for (const std::string& name : body_lost_)
        text += fmt::format("{}the place of {} on the chassis: measure it on Tape, and seat the body", text.empty() ? "" : "; ",
                            name);
    return text;
}

} // namespace gorvet::analysis
