// What the build says of how wide the chassis is made.
#include "analysis/fixed_points.hpp"
#include "analysis/planned_width.hpp"
#include "analysis/width.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// The covariance of points that a seat turns: R C Rᵀ. A seat is built, not fitted again: it has no ± of its own here.
std::vector<double> turned(const std::vector<double>& c, std::size_t points, const geometry::RigidTransform& by) {
    const std::size_t n = 3 * points;
    std::vector<double> out(n * n, 0.0);
    for (std::size_t i = 0; i < points; ++i)
        for (std::size_t j = 0; j < points; ++j)
            for (std::size_t a = 0; a < 3; ++a)
                for (std::size_t b = 0; b < 3; ++b)
                    for (std::size_t k = 0; k < 3; ++k)
                        for (std::size_t l = 0; l < 3; ++l)
                            out[(3 * i + a) * n + 3 * j + b] +=
                                by.rotation[a][k] * c[(3 * i + k) * n + 3 * j + l] * by.rotation[b][l];
    return out;
}

bool stays(const Member& m) { return m.state == MemberState::There; }

class WidthAsked {
public:
    WidthAsked(const Build& b, const Results& r) : b_(b), r_(r), width_(widthPlanned(b, r.chassis)) {}

    stretch::NarrowInput narrow() {
        stretch::NarrowInput in;
        in.narrowing = *b_.narrowing;
        in.planned = r_.planned_chassis;
        pan(in);
        in.half_mm = std::max(in.half_mm, railsOutside());
        FixedPoints paired(b_, r_.chassis);
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || isSill(b_, id)) continue;
            const auto at = r_.chassis.positionOf(id);
            if (!at) continue;
            in.marks.push_back({p.name, p.role, *at});
            if (sideOf(p.name) != Side::Left || p.role == Role::FrontHub || p.role == Role::RearHub) continue;
            const Point* twin = pointNamed(b_, the_chassis, twinName(p.name));
            if (!twin || !r_.chassis.positionOf(twin->id)) continue;
            const int left = paired.take(id), right = paired.take(twin->id);
            if (left >= 0 && right >= 0) in.pairs.emplace_back(left, right);
        }
        in.paired = paired.places();
        std::sort(in.pairs.begin(), in.pairs.end(), [&](const auto& a, const auto& c) {
            return in.paired.at[static_cast<std::size_t>(a.first)].x_mm < in.paired.at[static_cast<std::size_t>(c.first)].x_mm;
        });
        members(in);
        for (const AxleEnd end : {AxleEnd::Front, AxleEnd::Rear}) axle(in, end);
        const auto note = [&](const build::Dimension& d, const char* what) {
            if (d.provenance == Provenance::Assumed) in.assumed.emplace_back(what);
        };
        note(in.narrowing.by, "by how much");
        note(in.narrowing.slit, "where it is slit");
        for (const std::string& name : paired.assumed()) in.assumed.push_back("the place of " + name);
        return in;
    }

    WorkedEdge edge(const FloorEdge& e) {
        WorkedEdge out;
        out.edge = e;
        stretch::EdgeInput& in = out.input;
        in.edge = e;
        in.planned = r_.planned_chassis;
        in.yield_mpa = b_.frame_facts.yield_MPa.value;
        in.up_g = mostUp(b_);
        FixedPoints of_chassis(b_, r_.chassis), of_body(b_, r_.body);
        in.rail = true;
        std::string lost;
        const auto take = [&](FixedPoints& from, PointId id) {
            const int k = from.take(id);
            if (k < 0 && lost.empty()) lost = nameOf(b_, id);
            return static_cast<std::size_t>(std::max(k, 0));
        };
        for (const PointId id : e.edge) {
            const bool rail = b_.points.at(id).role == Role::Rail;
            in.rail = in.rail && rail;
            in.edge_at.push_back(take(of_chassis, id));
            in.edge_out_mm.push_back(rail ? b_.rail.width.value / 2 : 0);
            if (rail && b_.rail.width.provenance == Provenance::Assumed) in.assumed.emplace_back("the rails' width");
        }
        in.sill_of_body = b_.points.at(e.sill.front()).subject == the_body;
        for (const PointId id : e.sill) {
            if ((b_.points.at(id).subject == the_body) != in.sill_of_body)
                in.missing.emplace_back("a sill all of the body, or all marked on the chassis");
            in.sill_at.push_back(take(in.sill_of_body ? of_body : of_chassis, id));
        }
        if (!lost.empty()) in.missing.push_back(fmt::format("the place of {}: measure it on Tape", lost));
        if (in.sill_of_body && !r_.seated()) in.missing.emplace_back("where the body sits: pin it on Sit");
        in.chassis = of_chassis.places();
        in.body = of_body.places();
        if (in.sill_of_body && r_.seated()) {
            const geometry::RigidTransform seat = sit::transformOf(r_.seat->pose);
            for (Vec3& p : in.body.at) p = seat.transformed(p);
            in.body.covariance = turned(in.body.covariance, in.body.at.size(), seat);
        }
        const auto note = [&](const build::Dimension& d, const char* what) {
            if (d.provenance == Provenance::Assumed) in.assumed.emplace_back(what);
        };
        if (e.pitch) {
            note(e.carries, "what an outrigger bears");
            note(b_.frame_facts.yield_MPa, "the steel's yield");
        }
        for (const FixedPoints* points : {&of_chassis, &of_body})
            for (const std::string& name : points->assumed()) {
                in.assumed.push_back("the place of " + name);
                in.loose = true;
            }
        backed(in);
        out.plan = stretch::edgePlan(in);
        return out;
    }

private:
    void pan(stretch::NarrowInput& in) {
        for (const auto& [id, m] : b_.members) {
            if (!stays(m)) continue;
            if (m.kind == MemberKind::Spine) in.spine_half_mm = std::max(in.spine_half_mm, m.width.value / 2);
            if (m.kind != MemberKind::Pan || !in.pan.empty()) continue;
            in.pan = m.name;
            in.sheet_mm = m.wall.value;
            if (m.wall.provenance == Provenance::Assumed) in.assumed.emplace_back("how thick the pan is");
            if (m.form == SectionForm::Flat) in.half_mm = m.height.value / 2;
            if (m.station && m.until) {
                in.from_mm = m.station->value;
                in.until_mm = m.until->value;
            }
            for (const PointId point : m.points)
                if (const auto at = r_.chassis.positionOf(point)) {
                    const bool first = in.from_mm == in.until_mm;
                    in.from_mm = first ? at->x_mm : std::min(in.from_mm, at->x_mm);
                    in.until_mm = first ? at->x_mm + 1e-6 : std::max(in.until_mm, at->x_mm);
                }
        }
    }
    double railsOutside() const {
        double most = 0;
        for (const RailLine* rail : {&r_.rail_left, &r_.rail_right})
            for (const Vec3& p : rail->points) most = std::max(most, std::abs(p.y_mm) + rail->width_mm / 2);
        return most;
    }
    /// What spans both slits.
    void members(stretch::NarrowInput& in) {
        const double slit = in.narrowing.slit.value;
        for (const auto& [id, m] : b_.members) {
            if (!stays(m) || m.kind == MemberKind::Pan || m.kind == MemberKind::Spine || m.kind == MemberKind::Rail ||
                m.kind == MemberKind::Plate || m.kind == MemberKind::Rib)
                continue;
            double least = 0, most = 0;
            for (const PointId point : m.points)
                if (const auto at = r_.chassis.positionOf(point)) {
                    least = std::min(least, at->y_mm);
                    most = std::max(most, at->y_mm);
                }
            if (m.points.empty() && m.station)
                for (const RailLine* rail : {&r_.rail_left, &r_.rail_right})
                    if (const auto at = rail->at(m.station->value)) {
                        const double inside = at->y_mm < 0 ? at->y_mm + rail->width_mm / 2 : at->y_mm - rail->width_mm / 2;
                        least = std::min(least, inside);
                        most = std::max(most, inside);
                    }
            if (least < -slit && most > slit) in.members.push_back({m.name, m.form == SectionForm::Tube, most - least, 0});
        }
    }
    void axle(stretch::NarrowInput& in, AxleEnd end) {
        const bool rear = end == AxleEnd::Rear;
        const auto& f = r_.chassis.frame;
        const int left = rear ? f.rear_hub_left : f.front_hub_left, right = rear ? f.rear_hub_right : f.front_hub_right;
        if (left < 0 || right < 0) return;
        const auto at = [&](int hub) -> std::optional<Vec3> {
            return r_.chassis.positionOf(r_.chassis.point_ids[static_cast<std::size_t>(hub)]);
        };
        const auto l = at(left), r = at(right);
        if (!l || !r) return;
        stretch::NarrowAxle a;
        a.end = end;
        a.leaf = (rear ? b_.frame_facts.rear_springs : b_.frame_facts.front_springs) == Springs::Leaf;
        a.wheels_mm = rear ? width_.rear_track_mm : width_.front_track_mm;
        a.track_mm = r->y_mm - l->y_mm;
        if (const AxleJob* job = axleJobOf(b_, end); job && job->perches)
            a.perches_mm = job->perches_wanted ? job->perches->value - job->perches_wanted->value : 0;
        a.arms_mm = armsNearer(b_, r_.chassis, end, width_);
        in.axles.push_back(a);
    }
    /// Where something of the frame runs out to the edge.
    void backed(stretch::EdgeInput& in) {
        const bool left = !in.chassis.at.empty() && in.chassis.at[in.edge_at.front()].y_mm < 0;
        for (const auto& [id, m] : b_.members) {
            if (m.state == MemberState::ComesOut || (m.kind != MemberKind::Crossmember && m.kind != MemberKind::Outrigger))
                continue;
            constexpr double reaches = 0.7; // of the way out to the edge
            for (const PointId point : m.points)
                if (const auto at = r_.chassis.positionOf(point))
                    if ((at->y_mm < 0) == left && !in.chassis.at.empty() &&
                        std::abs(at->y_mm) > reaches * std::abs(in.chassis.at[in.edge_at.front()].y_mm))
                        in.backed_mm.push_back(r_.planned_chassis.map(*at).x_mm);
        }
    }

    const Build& b_;
    const Results& r_;
    PlannedChassis width_;
};

} // namespace

bool isSill(const Build& b, PointId id) {
    return std::any_of(b.floor_edges.begin(), b.floor_edges.end(), [&](const auto& row) {
        return std::find(row.second.sill.begin(), row.second.sill.end(), id) != row.second.sill.end();
    });
}

WorkedWidth workedWidth(const Build& b, const Results& r) {
    WorkedWidth w;
    WidthAsked asked(b, r);
    if (b.narrowing) {
        w.narrow_input = asked.narrow();
        w.narrow = stretch::narrowPlan(*w.narrow_input);
    }
    for (const auto& [id, e] : b.floor_edges) w.edges.push_back(asked.edge(e));
    return w;
}

} // namespace gorvet::analysis
