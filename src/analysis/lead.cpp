#include "analysis/lead.hpp"

#include "analysis/bench.hpp"
#include "analysis/bench_parts.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

std::optional<tape::Ghost> sketchOf(const Build& b, SubjectId subject) {
    if (isFrame(b, subject)) return tape::ghostOf(b.settings.frame_kind);
    if (kindOf(b, subject) == SubjectKind::Body) return tape::bodyGhost();
    return std::nullopt;
}

namespace {

/// The changes that mark a place of the sketch on either side.
std::vector<Change> marks(const Build& b, SubjectId subject, const tape::GhostPoint& place, std::uint32_t& next_id,
                          std::vector<std::string>& named) {
    std::vector<Change> list;
    for (const std::string& name : place.names()) {
        if (pointNamed(b, subject, name)) continue;
        Point p;
        p.id = PointId{next_id++};
        p.subject = subject;
        p.name = name;
        p.role = place.role;
        p.rough = place.at(name);
        list.emplace_back(Put<Point>{p});
        named.push_back(name);
    }
    return list;
}

std::string joined(const std::vector<std::string>& names) {
    std::string text;
    for (std::size_t i = 0; i < names.size(); ++i) text += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return text;
}

/// Marks those places of the sketch that `wanted` says, on the bench of the tape.
template <class F> std::optional<Lack> markLack(const Build& b, SubjectId subject, std::string sentence, F&& wanted) {
    const auto sketch = sketchOf(b, subject);
    if (!sketch) return std::nullopt;
    Lack lack;
    std::uint32_t next = b.next_id;
    std::vector<std::string> named;
    for (const tape::GhostPoint& place : sketch->points)
        if (wanted(place))
            for (Change& c : marks(b, subject, place, next, named)) lack.edit.changes.push_back(std::move(c));
    if (named.empty()) return std::nullopt;
    lack.sentence = std::move(sentence);
    lack.label = named.size() > 6 ? fmt::format("mark all {} of the sketch", named.size()) : "mark " + joined(named);
    lack.edit.sentence = fmt::format("mark {} of the {} from the sketch", joined(named), nameOf(b, subject));
    lack.bench = "tape";
    lack.subject = subject;
    return lack;
}

bool anyOf(const Build& b, SubjectId subject, Role role) { return pointWithRole(b, subject, role) != nullptr; }

std::optional<Lack> roleLack(const Build& b, SubjectId subject, Role role, std::string sentence) {
    if (anyOf(b, subject, role)) return std::nullopt;
    return markLack(b, subject, std::move(sentence), [role](const tape::GhostPoint& p) { return p.role == role; });
}

/// Left and right point of the pairs with a role, front to rear by where they are thought to be.
std::vector<std::pair<const Point*, const Point*>> pairsOf(const Build& b, SubjectId subject, std::initializer_list<Role> roles) {
    std::vector<std::pair<const Point*, const Point*>> pairs;
    for (const auto& [id, p] : b.points) {
        if (p.subject != subject || sideOf(p.name) != Side::Left || !p.rough) continue;
        if (std::find(roles.begin(), roles.end(), p.role) == roles.end()) continue;
        if (const Point* right = pointNamed(b, subject, twinName(p.name))) pairs.emplace_back(&p, right);
    }
    std::sort(pairs.begin(), pairs.end(),
              [](const auto& x, const auto& y) { return x.first->rough->x_mm < y.first->rough->x_mm; });
    return pairs;
}

/// The two of the pairs through which the level plane goes: as far apart as there are any of nearly the same height. A plane
/// through a kick-up would tilt every height and rake.
std::optional<std::pair<std::size_t, std::size_t>> levelPairs(const std::vector<std::pair<const Point*, const Point*>>& pairs) {
    constexpr double alike_mm = 30;
    std::optional<std::pair<std::size_t, std::size_t>> best;
    double longest = 500; // on less a misread millimetre tilts it too far
    for (std::size_t i = 0; i < pairs.size(); ++i)
        for (std::size_t j = i + 1; j < pairs.size(); ++j) {
            const Vec3& a = *pairs[i].first->rough;
            const Vec3& b = *pairs[j].first->rough;
            if (std::abs(b.z_mm - a.z_mm) > alike_mm || b.x_mm - a.x_mm <= longest) continue;
            longest = b.x_mm - a.x_mm;
            best = {i, j};
        }
    return best;
}

/// A datum from what is marked: three places level, two pairs centred, one pair at station 0.
std::optional<Lack> datumLack(const Build& b, SubjectId subject) {
    const auto of = [&](const auto& rows) {
        return std::any_of(rows.begin(), rows.end(), [&](const auto& row) {
            if constexpr (requires { row.second.subject; })
                return row.second.subject == subject;
            else
                return b.points.at(row.second.point).subject == subject;
        });
    };
    if (of(b.datum) || of(b.holds)) return std::nullopt;
    const bool body = kindOf(b, subject) == SubjectKind::Body;
    const auto level = body ? pairsOf(b, subject, {Role::SillFront, Role::SillRear}) : pairsOf(b, subject, {Role::Rail});
    const auto zero = body ? pairsOf(b, subject, {Role::HingePillar}) : pairsOf(b, subject, {Role::FrontHub});
    const auto plane = levelPairs(level);
    if (!plane) return std::nullopt;
    const auto& front = level[plane->first];
    const auto& rear = level[plane->second];
    const auto& at_zero = zero.empty() ? front : zero.front();
    Lack lack;
    std::uint32_t next = b.next_id;
    const auto add = [&](DatumKind kind, std::vector<PointId> points) {
        const bool figure = kind == DatumKind::Height || kind == DatumKind::Station;
        lack.edit.changes.emplace_back(
            Put<DatumRule>{{DatumRuleId{next++}, subject, kind, std::move(points),
                            figure ? build::Dimension{0, "0", Provenance::Measured} : build::Dimension{}}});
    };
    for (const Point* p : {front.first, front.second, rear.first}) add(DatumKind::Height, {p->id});
    for (const auto& pair : {front, rear}) add(DatumKind::Centred, {pair.first->id, pair.second->id});
    add(DatumKind::Station, {at_zero.first->id, at_zero.second->id});
    lack.sentence = fmt::format("Nothing says where the {} is measured from: its zero.", nameOf(b, subject));
    lack.label = fmt::format("zero at {} {}", at_zero.first->name, at_zero.second->name);
    lack.edit.sentence =
        fmt::format("measure the {} from the middle of {} and {}, from the plane of {}, {} and {}, centred between "
                    "{} {} and {} {}",
                    nameOf(b, subject), at_zero.first->name, at_zero.second->name, front.first->name, front.second->name,
                    rear.first->name, front.first->name, front.second->name, rear.first->name, rear.second->name);
    lack.bench = "tape";
    lack.subject = subject;
    return lack;
}

void add(std::vector<Lack>& list, std::optional<Lack> lack) {
    if (lack) list.push_back(std::move(*lack));
}

/// What Sit and all after it need of a survey.
std::optional<Lack> surveyLack(const Build& b, const Results& r, SubjectId subject) {
    const SurveyOf& s = r.of(subject);
    if (!s.survey.points.empty() && hasShape(s)) return std::nullopt;
    const std::string name = nameOf(b, subject);
    Lack lack;
    lack.sentence = s.survey.points.empty() ? fmt::format("Nothing of the {} is marked yet.", name)
                                            : fmt::format("The {}'s readings do not fix its shape yet.", name);
    lack.label = fmt::format("tape the {}", name);
    lack.bench = "tape";
    lack.subject = subject;
    return lack;
}

} // namespace

Result<Edit> markFromSketch(const Build& b, SubjectId subject, const std::string& name) {
    const auto sketch = sketchOf(b, subject);
    if (sketch)
        for (const tape::GhostPoint& place : sketch->points) {
            const auto names = place.names();
            if (std::find(names.begin(), names.end(), name) == names.end()) continue;
            Edit edit;
            std::uint32_t next = b.next_id;
            std::vector<std::string> named;
            edit.changes = marks(b, subject, place, next, named);
            if (named.empty())
                return Error{Error::Code::Conflict, name, fmt::format("{} is marked already.", name), "Tap it to change it.", -1};
            edit.sentence = fmt::format("mark {} of the {}: {}", joined(named), nameOf(b, subject), place.what);
            return edit;
        }
    return Error{Error::Code::NotFound, name, fmt::format("The sketch has no place {}.", name), "", -1};
}

bool hasShape(const SurveyOf& s) {
    const auto placed =
        static_cast<std::size_t>(std::count_if(s.solution->points.begin(), s.solution->points.end(),
                                               [](const tape::AdjustedPoint& p) { return p.determined || p.assumed; }));
    constexpr std::size_t least = 4; // three points have no shape that could be wrong
    return s.solution->status == tape::Status::Solved || (placed >= least && 2 * placed >= s.solution->points.size());
}

bool showsSketch(const Build& b, const Results& r, SubjectId subject) { return sketchOf(b, subject) && !hasShape(r.of(subject)); }

std::vector<Lack> tapeLacks(const Build& b, const Results& r, SubjectId subject) {
    std::vector<Lack> list;
    if (b.practice.on && subject == the_chassis) return list; // its points and datum are there
    const std::string name = nameOf(b, subject);
    if (r.of(subject).survey.points.empty()) {
        const std::string nothing = fmt::format("Nothing of the {} is marked yet.", name);
        if (const auto sketch = sketchOf(b, subject)) {
            const std::string first = sketch->points.front().stem;
            add(list, markLack(b, subject, nothing, [&](const tape::GhostPoint& p) { return p.stem == first; }));
            add(list, markLack(b, subject, nothing, [](const tape::GhostPoint&) { return true; }));
        } else {
            list.push_back({nothing, "mark a point", {}, "point ", {}, subject});
        }
        return list;
    }
    if (showsSketch(b, r, subject)) add(list, datumLack(b, subject));
    return list;
}

std::vector<Lack> sitLacks(const Build& b, const Results& r, SubjectId) {
    std::vector<Lack> list;
    for (const SubjectId subject : {the_chassis, the_body}) add(list, surveyLack(b, r, subject));
    if (!list.empty()) return list;
    add(list, roleLack(b, the_chassis, Role::FrontHub, "The front wheel centres are not marked on the chassis."));
    add(list, roleLack(b, the_chassis, Role::RearHub, "The rear wheel centres are not marked on the chassis."));
    if (!list.empty()) return list;
    const auto pinned = [&](PinKind kind) {
        return std::any_of(b.pins.begin(), b.pins.end(), [&](const auto& row) { return row.second.kind == kind; });
    };
    if (!pinned(PinKind::Station) && !pinned(PinKind::ArchFront)) {
        add(list, roleLack(b, the_body, Role::HingePillar,
                           "No pin says where the body stands along, and no hinge pillar is marked on it."));
        if (anyOf(b, the_body, Role::HingePillar))
            list.push_back({"No pin says where the body stands along.", "pin the hinge pillar", {}, "hinge ", {}, {}});
    }
    if (!pinned(PinKind::Centred))
        list.push_back({"No pin says where the body stands across.", "centre the body", {}, "centred", {}, {}});
    if (!pinned(PinKind::Height)) {
        add(list, roleLack(b, the_body, Role::SillFront, "No pin says how high the body stands, and no sill is marked on it."));
        if (anyOf(b, the_body, Role::SillFront))
            list.push_back({"No pin says how high the body stands.", "pin the front sill", {}, "sill front ", {}, {}});
    }
    if (!b.axles.front && list.empty())
        list.push_back({"How high the front wheels stand over the ground is not said.", "front tyre", {}, "tyre front ", {}, {}});
    return list;
}

std::vector<Lack> stretchLacks(const Build& b, const Results& r, SubjectId) {
    std::vector<Lack> list;
    add(list, surveyLack(b, r, the_chassis));
    if (!list.empty()) return list;
    const bool spine =
        b.settings.frame_kind == FrameKind::SpinePlatform && r.rail_left.points.size() < 2 && r.rail_right.points.size() < 2;
    const bool said = std::any_of(b.members.begin(), b.members.end(), [](const auto& row) {
        return row.second.kind == MemberKind::Spine && row.second.form == SectionForm::Box;
    });
    if (!spine)
        add(list, roleLack(b, the_chassis, Role::Rail, "No point of the rails is marked on the chassis."));
    else if (!said)
        list.push_back({"The spine is not said.", "say the spine", {}, "member spine spine from ", {}, {}});
    if (!r.seat->change_mm) {
        if (!anyOf(b, the_body, Role::ArchRear))
            add(list, roleLack(b, the_body, Role::ArchRear, "The middles of the rear arches are not marked on the body."));
        list.push_back({"No change of wheelbase is asked for.", "decide the change", {}, "change ", {}, {}});
    }
    if (!spine && b.rail.height.value <= 0)
        list.push_back({"The rail's section is not known.", "say the section", {}, "rail ", {}, {}});
    if (!b.stretch.cut_station)
        list.push_back({spine ? "Where the spine is cut is not said." : "Where the rails are cut is not said.",
                        "say where to cut",
                        {},
                        "cut ",
                        {},
                        {}});
    return list;
}

std::vector<Lack> makeLacks(const Build& b, const Results& r, SubjectId) {
    std::vector<Lack> list;
    add(list, roleLack(b, the_body, Role::BodyMount, "The places where the body bolts down are not marked on it."));
    if (anyOf(b, the_body, Role::BodyMount) && b.mounts.empty())
        list.push_back({"No body mount is set.", "set them all", {}, "mount all", {}, {}});
    if (!b.mounts.empty() && !r.seated())
        list.push_back({"The mounts wait until the body has a place.", "seat the body", {}, {}, "sit", {}});
    add(list, roleLack(b, the_chassis, Role::GearboxMount, "The gearbox mounting is not marked on the chassis."));
    if (anyOf(b, the_chassis, Role::GearboxMount) && !b.crossmember)
        list.push_back({"No crossmember is planned under the gearbox.", "plan a crossmember", {}, "crossmember", {}, {}});
    if (b.rail.height.value <= 0)
        list.push_back({"The rail's section is not known.", "say the section", {}, "rail ", "stretch", {}});
    return list;
}

Headline lackHeadline(const std::vector<Lack>& lacks) {
    Headline h{lacks.front().sentence, ""};
    for (std::size_t i = 1; i < lacks.size(); ++i) // ways to mend the same thing are told once
        if (lacks[i].sentence != lacks[i - 1].sentence) h.below += (h.below.empty() ? "" : " ") + lacks[i].sentence;
    h.below += h.below.empty() ? "Begin with a tap below." : " Begin with the first, by a tap below.";
    return h;
}

std::vector<Lack> lacksOf(const BenchInfo& bench, const Build& b, const Results& r, SubjectId subject) {
    return bench.lacks ? bench.lacks(b, r, subject) : std::vector<Lack>{};
}

} // namespace gorvet::analysis
