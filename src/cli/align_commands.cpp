#include "cli/align_commands.hpp"

#include "analysis/json_parts.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "scan/markers.hpp"
#include "scan/midplane.hpp"

#include <iostream>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;
namespace {

constexpr double degrees = 180 / std::numbers::pi;

Json turns(const shape::Point3& p) {
    return {{"x_deg", number(p[0] * degrees)}, {"y_deg", number(p[1] * degrees)}, {"z_deg", number(p[2] * degrees)}};
}
Json pose(const geometry::RigidTransform& m) {
    const auto a = geometry::yawPitchRoll(m);
    return {{"dx_mm", number(m.translation[0])}, {"dy_mm", number(m.translation[1])},   {"dz_mm", number(m.translation[2])},
            {"yaw_deg", number(a[0] * degrees)}, {"pitch_deg", number(a[1] * degrees)}, {"roll_deg", number(a[2] * degrees)}};
}
Json laidJson(const scan::PointRegistration& l) {
    return {{"pose", pose(l.motion)},
            {"rms_mm", number(l.rms_mm)},
            {"worst_mm", number(l.worst_mm)},
            {"off_mm", l.off_mm},
            {"translation_u95_mm", cornerJson(l.translation_u95)},
            {"rotation_u95", turns(l.rotation_u95_rad)}};
}
std::vector<shape::Point3> centres(const std::vector<scan::Marker>& markers) {
    std::vector<shape::Point3> c;
    for (const scan::Marker& m : markers) c.push_back(m.centre);
    return c;
}
int writeMoved(formats::ReadMesh& read, const geometry::RigidTransform& motion, const std::string& out) {
    if (out.empty()) return 0;
    const shape::Mesh m = transformed(std::move(read.mesh), motion);
    const auto written = out.ends_with(".stl") ? formats::writeStl(m, out) : formats::writePly(m, out);
    return written ? 0 : fail(written.error());
}

/// The rough start: by picks, by markers, or as said.
Result<scan::PointRegistration> startBy(const AlignRequest& request, const shape::Mesh& moving, const shape::Mesh& fixed,
                                        Json& j) {
    if (!request.picks.empty()) {
        std::vector<shape::Point3> from, to;
        for (const std::string& pick : request.picks) {
            const size_t at = pick.find('=');
            const auto a = placeFrom(pick.substr(0, at));
            const auto b = placeFrom(at == std::string::npos ? "" : pick.substr(at + 1));
            if (!a || !b)
                return Error{Error::Code::BadInput, pick, fmt::format("\"{}\" is no pick.", pick),
                             "Give the same place in both scans: x,y,z=x,y,z in mm.", -1};
            from.push_back(*a);
            to.push_back(*b);
        }
        auto laid = scan::registerPoints(from, to);
        if (laid) j["picks"] = laidJson(*laid);
        return laid;
    }
    const auto matched = scan::matchMarkers(centres(scan::findMarkers(moving.points, request.marker_radius_mm)),
                                            centres(scan::findMarkers(fixed.points, request.marker_radius_mm)));
    if (!matched) return matched.error();
    j["markers"] = laidJson(matched->laid);
    j["markers"]["matched"] = matched->pairs.size();
    j["markers"]["only_one"] = matched->only_one;
    j["markers"]["words"] = matched->words;
    return matched->laid;
}

} // namespace

int scanAlign(const AlignRequest& request) {
    const auto start = poseFrom(request.start);
    if (!start) return fail(start.error());
    auto moving = readSaying(request.moving, request.unit);
    if (!moving) return fail(moving.error());
    const auto fixed = readSaying(request.fixed, request.unit);
    if (!fixed) return fail(fixed.error());
    Json j;
    geometry::RigidTransform motion = *start;
    bool good = true;
    scan::AlignOptions options;
    options.reach_mm = request.reach_mm;
    if (!request.picks.empty() || request.marker_radius_mm > 0) {
        const auto laid = startBy(request, moving->mesh, fixed->mesh, j);
        if (!laid) return fail(laid.error());
        motion = laid->motion;
        options.reach_mm = std::min(request.reach_mm, std::max(20.0, 4 * laid->worst_mm));
    }
    if (!request.only_picks) {
        const auto a = scan::preparedFor(moving->mesh.points);
        if (!a) return fail(a.error());
        const auto b = scan::preparedFor(fixed->mesh.points);
        if (!b) return fail(b.error());
        const scan::ScanRegistration aligned = registerScans(**a, **b, motion, options);
        motion = aligned.motion;
        good = aligned.settled;
        Json loose = Json::array();
        for (const shape::Point3& d : aligned.loose) loose.push_back(directionJson(d));
        j["surfaces"] = {{"settled", aligned.settled},
                         {"rms_mm", number(aligned.rms_mm)},
                         {"p95_mm", number(aligned.p95_mm)},
                         {"overlap", number(aligned.overlap)},
                         {"pairs", aligned.pairs},
                         {"outliers", (*a)->outliers + (*b)->outliers},
                         {"at", cornerJson(aligned.middle)},
                         {"translation_u95_mm", cornerJson(aligned.translation_u95)},
                         {"rotation_u95", turns(aligned.rotation_u95_rad)},
                         {"loose", loose},
                         {"words", aligned.words}};
    }
    j["pose"] = pose(motion);
    if (const int code = writeMoved(*moving, motion, request.out)) return code;
    std::cout << text(j);
    return good ? 0 : exit_open;
}

int scanMarkers(const std::string& path, const std::string& other, const std::string& unit, double radius_mm) {
    const auto one = readSaying(path, unit);
    if (!one) return fail(one.error());
    const auto listed = [](const std::vector<scan::Marker>& markers) {
        Json list = Json::array();
        for (const scan::Marker& m : markers)
            list.push_back({{"centre", cornerJson(m.centre)}, {"points", m.fit.points}, {"rms_mm", number(m.fit.rms_mm)}});
        return list;
    };
    const auto found = scan::findMarkers(one->mesh.points, radius_mm);
    Json j = {{"radius_mm", radius_mm}, {"markers", listed(found)}};
    if (!other.empty()) {
        const auto two = readSaying(other, unit);
        if (!two) return fail(two.error());
        const auto there = scan::findMarkers(two->mesh.points, radius_mm);
        j["other_markers"] = listed(there);
        const auto matched = scan::matchMarkers(centres(found), centres(there));
        if (!matched) return fail(matched.error());
        j["matched"] = matched->pairs;
        j["only_one"] = matched->only_one;
        j["laid"] = laidJson(matched->laid);
        j["words"] = matched->words;
        std::cout << text(j);
        return matched->only_one ? 0 : exit_open;
    }
    std::cout << text(j);
    return 0;
}

int scanMidPlane(const std::string& path, const std::string& unit, const std::string& across, double limit_mm,
                 const std::string& map) {
    std::optional<shape::Point3> normal;
    if (!across.empty()) {
        const auto n = placeFrom(across);
        if (!n) return fail(n.error());
        normal = *n;
    }
    auto read = readSaying(path, unit);
    if (!read) return fail(read.error());
    const auto plane = scan::midPlaneOf(read->mesh.points, normal);
    if (!plane) return fail(plane.error());
    const auto off = scan::asymmetry(read->mesh.points, *plane);
    Json unlike = Json::array();
    for (const scan::Unlike& u : scan::unlikePlaces(read->mesh.points, *plane, off, limit_mm))
        unlike.push_back({{"by_mm", number(u.by_mm)},
                          {"u95_mm", number(u.u95_mm)},
                          {"from", cornerJson(u.box.min)},
                          {"to", cornerJson(u.box.max)},
                          {"way", directionJson(u.way)},
                          {"points", u.points},
                          {"words", u.words}});
    const Json j = {{"settled", plane->settled},
                    {"at", cornerJson(plane->at)},
                    {"normal", directionJson(plane->normal)},
                    {"off_u95_mm", number(plane->off_u95_mm)},
                    {"rotation_u95_deg", number(plane->rotation_u95_rad * degrees)},
                    {"rms_mm", number(plane->rms_mm)},
                    {"compared", number(plane->compared)},
                    {"words", plane->words},
                    {"unlike", unlike}};
    if (!map.empty())
        if (const auto written = formats::writePly(read->mesh, map, off); !written) return fail(written.error());
    std::cout << text(j);
    return plane->settled ? 0 : exit_open;
}

int scanDatum(const DatumRequest& request) {
    std::vector<shape::Point3> plane, line;
    for (const std::string& p : request.plane) {
        const auto at = placeFrom(p);
        if (!at) return fail(at.error());
        plane.push_back(*at);
    }
    for (const std::string& p : request.line) {
        const auto at = placeFrom(p);
        if (!at) return fail(at.error());
        line.push_back(*at);
    }
    const auto station = placeFrom(request.station);
    if (!station) return fail(station.error());
    if (line.size() != 2)
        return fail(Error{Error::Code::BadInput, "--line", fmt::format("{} places on the centreline.", line.size()),
                          "Give two, the front one first.", -1});
    const auto motion = scan::threeTwoOne(plane, {line[0], line[1]}, *station);
    if (!motion) return fail(motion.error());
    auto read = readSaying(request.path, request.unit);
    if (!read) return fail(read.error());
    if (const int code = writeMoved(*read, *motion, request.out)) return code;
    std::cout << text({{"pose", pose(*motion)}});
    return 0;
}

int scanThin(const std::string& path, const std::string& unit, double bound_mm, bool strays, const std::string& out) {
    auto read = readSaying(path, unit);
    if (!read) return fail(read.error());
    Json j = {{"points", read->mesh.points.size()}};
    if (strays) {
        const auto kept = scan::withoutOutliers(read->mesh.points);
        j["outliers"] = read->mesh.points.size() - kept.size();
        read->mesh = scan::onlyPoints(read->mesh, kept);
    }
    if (bound_mm > 0) {
        read->mesh = scan::downsampled(read->mesh, bound_mm).mesh;
        j["bound_mm"] = bound_mm;
    }
    j["points_kept"] = read->mesh.points.size();
    j["triangles_kept"] = read->mesh.triangles.size();
    const auto written = out.ends_with(".stl") ? formats::writeStl(read->mesh, out) : formats::writePly(read->mesh, out);
    if (!written) return fail(written.error());
    std::cout << text(j);
    return 0;
}

int scanCheck(const std::string& path, const std::string& unit, const std::string& from, const std::string& to, double known_mm) {
    const auto a = placeFrom(from);
    if (!a) return fail(a.error());
    const auto b = placeFrom(to);
    if (!b) return fail(b.error());
    const auto read = readSaying(path, unit);
    if (!read) return fail(read.error());
    // the places as typed are near the scan's own points: those count
    const scan::Neighbours near(read->mesh.points);
    const auto p = near.nearest(*a, 1e12), q = near.nearest(*b, 1e12);
    const auto c = scan::checkUnit(read->mesh.points[p.point], read->mesh.points[q.point], known_mm, unit);
    if (!c) return fail(c.error());
    std::cout << text({{"measured_mm", number(c->measured_mm)},
                       {"known_mm", number(c->known_mm)},
                       {"ratio", number(c->ratio)},
                       {"good", c->good},
                       {"words", c->words}});
    return c->good ? 0 : exit_open;
}

} // namespace gorvet::cli
