#include "analysis/sit_input.hpp"

#include "analysis/planned_width.hpp"

#include "units/quantity.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// Gathers the points that pins name, each once.
struct Gathering {
    const Results& r;
    SitInput& out;
    std::vector<int> body; ///< places in the surveys
    std::vector<int> chassis;

    int ofChassis(int index) {
        const auto found = std::find(chassis.begin(), chassis.end(), index);
        if (found != chassis.end()) return static_cast<int>(found - chassis.begin());
        chassis.push_back(index);
        out.input.chassis.at.push_back(r.chassis.solution->points[static_cast<size_t>(index)].position);
        return static_cast<int>(chassis.size()) - 1;
    }
    int ofBody(int index, PointId id) {
        const auto found = std::find(body.begin(), body.end(), index);
        if (found != body.end()) return static_cast<int>(found - body.begin());
        body.push_back(index);
        out.body_ids.push_back(id);
        out.input.body.at.push_back(r.body.solution->points[static_cast<size_t>(index)].position);
        return static_cast<int>(body.size()) - 1;
    }
    /// The points of a feature; false when one has no place yet.
    bool take(const Build& b, const std::vector<PointId>& ids, std::vector<sit::At>& to, Provenance& provenance) {
        for (const PointId id : ids) {
            const bool on_chassis = b.points.at(id).subject == the_chassis;
            const SurveyOf& survey = on_chassis ? r.chassis : r.body;
            const int index = survey.indexOf(id);
            if (index < 0) return false;
            const tape::AdjustedPoint& p = survey.solution->points[static_cast<size_t>(index)];
            if (!p.determined && !p.assumed) return false;
            if (p.assumed) provenance = Provenance::Assumed;
            to.emplace_back(on_chassis ? ofChassis(index) : ofBody(index, id), on_chassis);
        }
        return true;
    }
};

bool hasTarget(const Pin& p) {
    return p.bound != Bound::Equal || p.kind == PinKind::Station || p.kind == PinKind::Height || p.kind == PinKind::Rake ||
           p.kind >= PinKind::Along;
}

} // namespace

std::vector<double> covarianceOf(const tape::Solution& s, const std::vector<int>& points) {
    const size_t n = 3 * points.size();
    std::vector<double> c(n * n, 0.0);
    for (size_t i = 0; i < n; ++i) {
        // a point that is placed by what is assumed hangs on nothing measured
        if (const tape::AdjustedPoint& p = s.points[points[i / 3]]; p.assumed) {
            c[i * n + i] = p.sd_mm[i % 3] * p.sd_mm[i % 3];
            continue;
        }
        const std::vector<double>& column = s.covariance.column(3 * points[i / 3] + i % 3);
        for (size_t j = 0; j < n; ++j)
            if (!s.points[points[j / 3]].assumed) c[i * n + j] = column[3 * points[j / 3] + j % 3];
    }
    return c;
}

SitInput sitInput(const Build& b, const Results& r) {
    SitInput out;
    sit::Input& in = out.input;
    Gathering gathering{r, out, {}, {}};
    const WheelTravel& t = b.travel;
    const auto hub = [&](int index) {
        if (index < 0 || !r.chassis.solution->points[static_cast<size_t>(index)].determined) return -1;
        return gathering.ofChassis(index);
    };
    in.front_left = hub(r.chassis.frame.front_hub_left);
    in.front_right = hub(r.chassis.frame.front_hub_right);
    in.rear_left = hub(r.chassis.frame.rear_hub_left);
    in.rear_right = hub(r.chassis.frame.rear_hub_right);
    for (const auto& [id, pin] : b.pins) {
        sit::Pin asked;
        asked.kind = pin.kind;
        asked.target = pin.target.value;
        asked.tolerance = pin.tolerance;
        asked.bound = pin.bound;
        asked.importance = pin.importance;
        if (hasTarget(pin)) asked.provenance = worst(asked.provenance, pin.target.provenance);
        const bool tyre = pin.kind == PinKind::Tyre || pin.kind == PinKind::Bump;
        if (tyre) asked.provenance = worst(asked.provenance, t.width.provenance);
        if (pin.kind == PinKind::Bump)
            asked.provenance = worst(asked.provenance, worst(t.front_bump.provenance, t.rear_bump.provenance));
        if (!gathering.take(b, pin.points, asked.points, asked.provenance) ||
            !gathering.take(b, pin.to, asked.to, asked.provenance))
            continue; // said by the findings
        if (pin.kind == PinKind::Clear) {
            const Obstacle& box = b.obstacles.at(pin.box);
            asked.clear_of = sit::Envelope{{box.from, box.to}, box.subject == the_chassis};
        }
        out.pin_ids.push_back(id);
        in.pins.push_back(std::move(asked));
    }
    in.body.covariance = covarianceOf(*r.body.solution, gathering.body);
    in.chassis.covariance = covarianceOf(*r.chassis.solution, gathering.chassis);
    const PlannedChassis sideways = widthPlanned(b, r.chassis);
    for (int i = 0; i < static_cast<int>(in.chassis.at.size()); ++i) {
        Vec3& at = in.chassis.at[static_cast<size_t>(i)];
        const bool rear = i == in.rear_left || i == in.rear_right;
        if (rear || i == in.front_left || i == in.front_right)
            at = sideways.mapHub(at, rear);
        else
            at.y_mm = sideways.aside(at.y_mm);
    }
    if (b.axles.front) in.front_height_mm = b.axles.front->value;
    if (b.axles.rear) in.rear_height_mm = b.axles.rear->value;
    for (const auto* height : {&b.axles.front, &b.axles.rear})
        if (*height) in.heights = worst(in.heights, (*height)->provenance);
    in.front_bump_mm = t.front_bump.value;
    in.rear_bump_mm = t.rear_bump.value;
    in.tyre_width_mm = t.width.value;
    if (t.front_radius) in.front_tyre_mm = t.front_radius->value;
    if (t.rear_radius) in.rear_tyre_mm = t.rear_radius->value;
    in.leads = b.school.leads;
    if (b.stretch.wheelbase_change) in.decided_change_mm = b.stretch.wheelbase_change->value;
    // behind the rear axle only the tail changes: the wheels stay
    if (b.stretch.cut_station && in.decided_change_mm && in.rear_left >= 0 && in.rear_right >= 0 &&
        b.stretch.cut_station->value > std::max(in.chassis.at[static_cast<size_t>(in.rear_left)].x_mm,
                                                in.chassis.at[static_cast<size_t>(in.rear_right)].x_mm))
        in.decided_change_mm = 0;
    if (b.stretch.cut_station) {
        in.cut_station_mm = b.stretch.cut_station->value;
        const auto left = r.rail_left.at(b.stretch.cut_station->value);
        const auto right = r.rail_right.at(b.stretch.cut_station->value);
        if (left && right)
            in.cut_slope_rad = (left->slope_rad + right->slope_rad) / 2;
        else if (left || right)
            in.cut_slope_rad = left ? left->slope_rad : right->slope_rad;
    }
    return out;
}

std::string pinFigure(const Build& b, const Pin& p, double value, bool with_unit) {
    return p.kind == PinKind::Rake ? units::formatAngle(value) : units::formatLength(value, b.settings.length_step, with_unit);
}

std::string pinName(const Build& b, const Pin& p) {
    const auto list = [&](const std::vector<PointId>& ids) {
        std::string text;
        for (size_t i = 0; i < ids.size(); ++i) text += (i == 0 ? "" : i + 1 == ids.size() ? " and " : ", ") + nameOf(b, ids[i]);
        return text;
    };
    const std::string first = nameOf(b, p.points.front());
    switch (p.kind) {
    case PinKind::Station: return "station of " + first;
    case PinKind::Centred: return "centring of " + first + " and " + nameOf(b, p.points.back());
    case PinKind::Height: return "height of " + first;
    case PinKind::Level: return "level sill";
    case PinKind::Rake: return "rake";
    case PinKind::ArchFront: return "front wheel in its arch";
    case PinKind::ArchRear: return "rear wheel in its arch";
    case PinKind::Along: return list(p.to) + " behind " + list(p.points);
    case PinKind::Across: return list(p.to) + " right of " + list(p.points);
    case PinKind::Up: return list(p.to) + " over " + list(p.points);
    case PinKind::Straight: return list(p.points) + " to " + list(p.to);
    case PinKind::Line: return list(p.points) + " to the line through " + list(p.to);
    case PinKind::Under: return list(p.points) + " under " + list(p.to);
    case PinKind::Tyre: return "tyre to " + list(p.points);
    case PinKind::Bump: return "tyre at bump to " + list(p.points);
    case PinKind::Clear: {
        const auto box = b.obstacles.find(p.box);
        return list(p.points) + " to " + (box == b.obstacles.end() ? "?" : box->second.name);
    }
    }
    return "pin";
}

std::string pinWanted(const Build& b, const Pin& p) {
    const std::string figure = pinFigure(b, p, p.target.value) + (p.target.provenance == Provenance::Assumed ? " ?" : "");
    switch (p.bound) {
    case Bound::AtLeast: return "at least " + figure;
    case Bound::AtMost: return "at most " + figure;
    case Bound::Equal: break;
    }
    return (hasTarget(p)               ? figure
            : p.kind == PinKind::Level ? "level"
                                       : "centred") +
           " ± " +
           (p.kind == PinKind::Rake ? units::formatAngle(p.tolerance)
                                    : units::formatSmall(p.tolerance, b.settings.length_step, true));
}

} // namespace gorvet::analysis
