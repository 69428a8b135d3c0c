#include "analysis/survey_of.hpp"

#include "dense/dense.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace gorvet::analysis {

using namespace build;

int SurveyOf::indexOf(PointId id) const {
    const auto found = std::lower_bound(point_ids.begin(), point_ids.end(), id); // ids are in order
    return found == point_ids.end() || *found != id ? -1 : static_cast<int>(found - point_ids.begin());
}

std::optional<Vec3> SurveyOf::positionOf(PointId id) const {
    const int i = indexOf(id);
    if (i < 0 || static_cast<size_t>(i) >= solution->points.size() || !solution->points[i].determined) return std::nullopt;
    return solution->points[i].position;
}

bool SurveyOf::assumed(PointId id) const {
    const int i = indexOf(id);
    return i >= 0 && static_cast<size_t>(i) < solution->points.size() && solution->points[i].assumed;
}

namespace {

/// Whether the datum's centreline is that of points that are not the frame's own pairs.
bool standsOnOthers(const SurveyOf& s, const tape::FramePoints& frame) {
    int others = 0;
    bool own = false;
    const auto count = [&](int point) {
        const bool of_frame = std::any_of(frame.pairs.begin(), frame.pairs.end(),
                                          [&](const auto& q) { return q.left == point || q.right == point; });
        own = own || of_frame;
        others += !of_frame;
    };
    if (s.survey.datum.empty()) {
        for (const tape::HeldCoordinate& h : s.survey.holds)
            if (h.axis == Axis::Y) count(h.point);
    } else {
        for (const tape::DatumRule& rule : s.survey.datum)
            if (rule.kind == DatumKind::Centred)
                for (const int p : rule.points) count(p);
    }
    return !own && others >= 2;
}

/// Left and right points that belong together. For rails: points of role rail; on a subject without roles, all paired names.
tape::FramePoints frameOf(const Build& b, SubjectId subject, const SurveyOf& s) {
    tape::FramePoints frame;
    frame.rails = isFrame(b, subject);
    frame.tolerance_mm = b.settings.frame_tolerance_mm;
    const bool roles =
        std::any_of(s.point_ids.begin(), s.point_ids.end(), [&](PointId id) { return b.points.at(id).role != Role::None; });
    for (size_t i = 0; i < s.point_ids.size(); ++i) {
        const Point& p = b.points.at(s.point_ids[i]);
        const auto index = static_cast<int>(i);
        const Side side = sideOf(p.name);
        if (p.role == Role::FrontHub) (side == Side::Right ? frame.front_hub_right : frame.front_hub_left) = index;
        if (p.role == Role::RearHub) (side == Side::Right ? frame.rear_hub_right : frame.rear_hub_left) = index;
        if (side != Side::Left) continue;
        const bool counts = isFrame(b, subject) ? (roles ? p.role == Role::Rail : true) : p.role != Role::Outline;
        if (!counts) continue;
        if (const Point* twin = pointNamed(b, subject, twinName(p.name)))
            if (const int other = s.indexOf(twin->id); other >= 0) frame.pairs.push_back({index, other});
    }
    for (const auto& [id, d] : b.drawing)
        if (const int index = s.indexOf(d.point); index >= 0 && d.z_mm) frame.design_heights[index] = *d.z_mm;
    frame.carried = subject == the_chassis && b.settings.frame_kind == FrameKind::BoltedSubframe && standsOnOthers(s, frame);
    return frame;
}

/// A reading of three coordinates as three readings along the main axes of their covariance, each with its own σ.
std::vector<tape::SurveyReading> coordinateParts(const Reading& r, const tape::SurveyReading& common) {
    Eigen::Matrix3d c = Eigen::Matrix3d::Identity() * common.sigma * common.sigma;
    if (const auto& v = r.covariance_mm2; v.size() == 6) c << v[0], v[1], v[2], v[1], v[3], v[4], v[2], v[4], v[5];
    // axes that are axes of the drawing stay in their order
    const bool straight = c(0, 1) == 0 && c(0, 2) == 0 && c(1, 2) == 0;
    const dense::Eigenpairs main = dense::eigenpairs(c);
    std::vector<tape::SurveyReading> parts;
    for (int k = 0; k < 3; ++k) {
        const Eigen::Vector3d along = straight ? Eigen::Vector3d::Unit(k) : Eigen::Vector3d(main.vectors.col(k));
        tape::SurveyReading part = common;
        part.along = {along.x(), along.y(), along.z()};
        part.value = along.dot(Eigen::Vector3d(r.at->x_mm, r.at->y_mm, r.at->z_mm));
        part.sigma = std::sqrt(straight ? c(k, k) : main.values(k));
        parts.push_back(part);
    }
    return parts;
}

/// What is assumed: a figure as it stands; a symmetry as equal stations, equal heights, opposite offsets.
std::vector<tape::SurveyReading> assumption(const Reading& r, const tape::SurveyReading& common) {
    if (r.kind != ReadingKind::Symmetry) return {common};
    std::vector<tape::SurveyReading> parts(3, common);
    for (tape::SurveyReading& part : parts) part.value = 0;
    parts[0].kind = ReadingKind::Station;
    parts[1].kind = ReadingKind::Symmetry;
    parts[2].kind = ReadingKind::Level;
    return parts;
}

void drawingOf(const Build& b, SurveyOf& s) {
    s.drawing.known.assign(s.point_ids.size(), {false, false, false});
    s.drawing.at.assign(s.point_ids.size(), {});
    for (const auto& [id, d] : b.drawing) {
        const int i = s.indexOf(d.point);
        if (i < 0) continue;
        s.drawing.known[i] = {d.x_mm.has_value(), d.y_mm.has_value(), d.z_mm.has_value()};
        s.drawing.at[i] = {d.x_mm.value_or(0), d.y_mm.value_or(0), d.z_mm.value_or(0)};
        if (!d.source.empty()) s.drawing.source = d.source;
    }
}

/// Lays the survey on the drawing. A drawing's figure counts as right to 0.5 mm; one that it does not have counts for nothing.
tape::Comparison comparedWithDrawing(const tape::Solution& solution, const SurveyOf::Drawn& drawn) {
    constexpr double drawn_sd_mm = 0.5;
    tape::Solution drawing;
    const size_t n = std::min(drawn.known.size(), solution.points.size());
    drawing.points.resize(n);
    std::vector<double> variances(3 * n, 0.0);
    std::vector<tape::Common> common;
    for (size_t i = 0; i < n; ++i) {
        const auto& known = drawn.known[i];
        if (!(known[0] || known[1] || known[2]) || !solution.points[i].determined) continue;
        Vec3 at = drawn.at[i];
        const Vec3& measured = solution.points[i].position;
        if (!known[0]) at.x_mm = measured.x_mm;
        if (!known[1]) at.y_mm = measured.y_mm;
        if (!known[2]) at.z_mm = measured.z_mm;
        drawing.points[i].determined = drawing.points[i].placed = true;
        drawing.points[i].position = at;
        for (size_t axis = 0; axis < 3; ++axis) variances[3 * i + axis] = drawn_sd_mm * drawn_sd_mm;
        common.push_back({static_cast<int>(i), static_cast<int>(i), known});
    }
    if (common.empty()) return {};
    drawing.covariance = tape::Covariance::diagonal(std::move(variances));
    return tape::compare(drawing, solution, common);
}

/// The survey with the readings of one session only.
tape::Survey ofSession(const tape::Survey& survey, const SurveyOf::Sessions& sessions, int session) {
    tape::Survey one = survey;
    one.readings.clear();
    for (size_t i = 0; i < survey.readings.size(); ++i)
        if (sessions.of_readings[i] == session) one.readings.push_back(survey.readings[i]);
    return one;
}

SurveyOf::Since sinceOf(const tape::Survey& survey, const SurveyOf::Sessions& sessions) {
    if (sessions.names.size() < 2) return {};
    const auto last = static_cast<int>(sessions.names.size()) - 1;
    const tape::Solution after = tape::solve(ofSession(survey, sessions, last));
    if (after.redundancy <= 0) return {};
    SurveyOf::Since since;
    for (int k = last - 1; k >= 0; --k) {
        const tape::Solution before = tape::solve(ofSession(survey, sessions, k));
        if (before.redundancy <= 0) continue;
        std::vector<tape::Common> common;
        for (int i = 0; i < static_cast<int>(survey.points.size()); ++i)
            if (before.points[i].determined && after.points[i].determined) common.push_back({i, i});
        since = {sessions.names[k], sessions.names[last], sessions.supports[k] != sessions.supports[last],
                 tape::compare(before, after, common)};
        if (since.comparison.possible) break;
    }
    return since;
}

/// "point M1l" or a key, as the survey knows it.
tape::Wanted wantedOf(const Build& b, const SurveyOf& s, SubjectId subject) {
    tape::Wanted wanted{b.settings.want, -1};
    if (!wanted.key.starts_with("point ")) return wanted;
    const Point* p = pointNamed(b, subject, wanted.key.substr(6));
    wanted.key = p ? "point" : "everything";
    if (p) wanted.point = s.indexOf(p->id);
    return wanted;
}

} // namespace

namespace {

/// What is made of the solution.
void judge(SurveyOf& s, const SurveyOf* previous, const Progress& progress) {
    s.condition = Node<SurveyOf::Judged, tape::Condition>::of(
        {s.solution.share(), s.frame}, previous ? &previous->condition : nullptr,
        [](const SurveyOf::Judged& in) { return tape::condition(*in.solution, in.frame); });
    constexpr size_t offered = 40;
    using Ranked = std::vector<tape::RankedReading>;
    s.next = Node<SurveyOf::Asked, Ranked>::of({s.condition.share(), s.wanted, s.means}, previous ? &previous->next : nullptr,
                                               [&](const SurveyOf::Asked& in) -> std::optional<Ranked> {
                                                   if (progress && !progress(0.5)) return std::nullopt;
                                                   return tape::rankReadings(s.survey, *s.solution, *in.condition, in.wanted,
                                                                             in.means, offered);
                                               });
    s.since = Node<SurveyOf::Compared, SurveyOf::Since>::of(
        {s.solution.share(), s.sessions}, previous ? &previous->since : nullptr,
        [&](const SurveyOf::Compared& in) { return sinceOf(s.survey, in.sessions); });
    s.drawing.comparison =
        decltype(s.drawing.comparison)::of({s.solution.share(), s.drawing}, previous ? &previous->drawing.comparison : nullptr,
                                           [](const auto& in) { return comparedWithDrawing(*in.first, in.second); });
}

} // namespace

void solveSurvey(SurveyOf& s, const SurveyOf* previous, const Progress& progress) {
    s.solution = Node<SurveyOf::Solved, tape::Solution>::of(
        {s.survey, true}, previous ? &previous->solution : nullptr, [&](const SurveyOf::Solved& in) {
            return tape::solve(in.survey, {.set_aside = in.set_aside, .go_on = [&] { return !progress || progress(0); }});
        });
    judge(s, previous, progress);
}

void solveWithAll(SurveyOf& s) {
    s.solution = Node<SurveyOf::Solved, tape::Solution>::of({s.survey, false}, nullptr, [](const SurveyOf::Solved& in) {
        return tape::solve(in.survey, {.set_aside = in.set_aside, .go_on = {}});
    });
    judge(s, nullptr, {});
}

SurveyOf surveyOf(const Build& b, SubjectId subject) {
    SurveyOf s;
    for (const auto& [id, p] : b.points)
        if (p.subject == subject) {
            s.point_ids.push_back(id);
            s.survey.points.push_back({p.name, p.rough});
        }
    std::map<SetUpId, int> setups;
    for (const auto& [id, setup] : b.setups)
        if (setup.subject == subject) {
            setups[id] = static_cast<int>(s.setup_ids.size());
            s.setup_ids.push_back(id);
            s.survey.setups.push_back({setup.name, setup.kind});
        }
    std::set<std::pair<Attitude, Support>> supports;
    std::vector<SessionId> session_ids;
    for (const auto& [id, r] : b.readings) {
        if (r.replaced_by) continue;
        const int from = s.indexOf(r.from);
        if (from < 0) continue;
        tape::SurveyReading reading;
        reading.line = static_cast<int>(s.survey.readings.size()) + 1;
        reading.kind = r.kind;
        reading.from = from;
        reading.to = r.to ? s.indexOf(r.to) : -1;
        reading.value = r.value.value;
        reading.sigma = sigmaOf(b, r);
        if (r.value.provenance == Provenance::Assumed) {
            for (const tape::SurveyReading& part : assumption(r, reading)) {
                s.survey.assumed.push_back(part);
                s.assumed_ids.push_back(id);
            }
            continue;
        }
        if (const auto setup = setups.find(r.setup); setup != setups.end()) reading.setup = setup->second;
        const auto parts = r.kind == ReadingKind::Coordinates ? coordinateParts(r, reading) : std::vector{reading};
        int in_session = -1;
        if (const auto session = b.sessions.find(r.session); session != b.sessions.end()) {
            const auto known = std::find(session_ids.begin(), session_ids.end(), r.session);
            in_session = static_cast<int>(known - session_ids.begin());
            if (known == session_ids.end()) {
                session_ids.push_back(r.session);
                s.sessions.names.push_back(session->second.name);
                s.sessions.supports.emplace_back(session->second.attitude, session->second.support);
            }
            supports.insert({session->second.attitude, session->second.support});
        }
        for (const tape::SurveyReading& part : parts) {
            s.survey.readings.push_back(part);
            s.reading_ids.push_back(id);
            s.readings_as_typed.push_back(r.value.typed);
            s.sessions.of_readings.push_back(in_session);
        }
    }
    for (const auto& [id, h] : b.holds)
        if (const int point = s.indexOf(h.point); point >= 0) s.survey.holds.push_back({point, h.axis, h.value.value});
    for (const auto& [id, rule] : b.datum) {
        if (rule.subject != subject) continue;
        tape::DatumRule of{rule.kind, {}, rule.value.value};
        for (const PointId p : rule.points) of.points.push_back(s.indexOf(p));
        s.survey.datum.push_back(std::move(of));
    }
    drawingOf(b, s);
    s.mixed_supports = supports.size() > 1;
    s.frame = frameOf(b, subject, s);
    s.wanted = wantedOf(b, s, subject);
    s.means = {b.settings.tape_reach_mm, b.settings.gauge, {}};
    for (const auto& [id, o] : b.obstacles)
        if (o.subject == subject) s.means.obstacles.push_back({o.from, o.to});
    return s;
}

tape::RepairView repairOf(const Build& b, const Results& r, std::vector<FlawId>& flaw_ids) {
    std::vector<tape::FoundFlaw> flaws;
    for (const auto& [id, f] : b.flaws) {
        tape::FoundFlaw found;
        found.where = f.point ? nameOf(b, f.point) : f.part;
        found.is_part = !f.point;
        found.kind = f.kind;
        if (f.amount) found.amount_mm = f.amount->value;
        if (f.nominal) found.nominal_mm = f.nominal->value;
        found.of_body = f.subject == the_body;
        found.elsewhere = f.subject != the_body && f.subject != the_chassis;
        found.layers = f.layers;
        found.direction = f.direction;
        if (f.point) {
            const Point& p = b.points.at(f.point);
            found.side = sideOf(p.name);
            found.on_rail = f.subject == the_chassis && p.role == Role::Rail;
            if (const auto at = r.of(f.subject).positionOf(f.point))
                found.station_mm = at->x_mm;
            else if (p.rough)
                found.station_mm = p.rough->x_mm;
            // a rail's thickness when new is the rail's, when nobody said another
            if (found.on_rail && !found.nominal_mm && b.rail.thickness.value > 0) found.nominal_mm = b.rail.thickness.value;
        }
        flaws.push_back(std::move(found));
        flaw_ids.push_back(id);
    }
    int crooked = 0;
    for (const tape::ConditionFigure& f : r.chassis.condition->figures) crooked += f.judged && f.verdict == PlanVerdict::Fails;
    return tape::repairView(flaws, b.rates, b.rail.heat_treated, crooked);
}

} // namespace gorvet::analysis
