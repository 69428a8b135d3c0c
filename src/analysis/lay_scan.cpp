#include "analysis/lay_scan.hpp"

#include "analysis/overlay.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/scan_edits.hpp"
#include "scan/align.hpp"
#include "scan/fit.hpp"
#include "scan/markers.hpp"
#include "scan/midplane.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;
using shape::Mesh;
using shape::Point3;

namespace {

/// How well a surface picks: a place on a scan is found again to about this, 1σ.
constexpr double pick_sigma_mm = 1.0;

std::vector<Point3> placed(const Mesh& m, const RigidTransform& pose) {
    std::vector<Point3> out;
    out.reserve(m.points.size());
    for (const Point3& p : m.points) out.push_back(pose.transformed(p));
    return out;
}

LaidScan laid(const Build& b, ScanId id, const RigidTransform& by, const std::string& how, std::string words) {
    LaidScan out;
    out.edit = standScan(b, id, chained(by, poseOf(b.scans.at(id))), how);
    out.words = std::move(words);
    return out;
}

Result<std::shared_ptr<const Mesh>> meshOf(const Build& b, const ScanMeshes& meshes, ScanId id) {
    if (const auto found = meshes.find(id); found != meshes.end()) return found->second;
    const auto row = b.scans.find(id);
    const std::string name = row == b.scans.end() ? "" : row->second.name;
    return Error{Error::Code::NotFound, name, fmt::format("The scan {} is not there.", name),
                 "Wait until it is read, or keep it anew.", -1};
}

/// Points of the other scans of the same subject, or of all other subjects, on their own axes.
std::vector<Point3> others(const Build& b, const ScanMeshes& meshes, ScanId id, bool same, const RigidTransform& onto = {}) {
    // only body and chassis stand on each other: what is on axes of its own has nothing else to be laid on
    const auto seated = [](SubjectId s) { return s == the_body || s == the_chassis; };
    const SubjectId subject = b.scans.at(id).subject;
    std::vector<Point3> points;
    for (const auto& [other, mesh] : meshes) {
        const auto row = b.scans.find(other);
        if (row == b.scans.end() || other == id || (row->second.subject == subject) != same) continue;
        if (!same && (!seated(subject) || !seated(row->second.subject))) continue;
        const RigidTransform pose = chained(onto, poseOf(row->second));
        for (const Point3& p : mesh->points) points.push_back(pose.transformed(p));
    }
    return points;
}

/// What a scan is laid on by surfaces: the others of its subject, else the other subject where it stands now.
std::vector<Point3> fixedFor(const Build& b, const ScanMeshes& meshes, const RigidTransform& seat, ScanId id) {
    if (auto same = others(b, meshes, id, true); !same.empty()) return same;
    return others(b, meshes, id, false, b.scans.at(id).subject == the_body ? inverse(seat) : seat);
}

} // namespace

std::optional<Result<LaidScan>> layByPicks(const Build& b, const ScanMeshes& meshes, const RigidTransform& seat, ScanId id,
                                           const std::vector<std::array<Point3, 2>>& picks, bool surfaces,
                                           const Progress& progress) {
    const auto moving = meshOf(b, meshes, id);
    if (!moving) return moving.error();
    const SubjectId subject = b.scans.at(id).subject;
    const bool on_body = subject == the_body;
    const RigidTransform now = poseOf(b.scans.at(id));
    RigidTransform start = now;
    std::string how;
    if (!picks.empty()) {
        // onto the axes of the scan that is laid
        const RigidTransform own = on_body ? inverse(seat) : RigidTransform{};
        std::vector<Point3> from, to;
        for (const auto& pick : picks) {
            from.push_back(own.transformed(pick[0]));
            to.push_back(own.transformed(pick[1]));
        }
        const auto laid_on = scan::registerPoints(from, to);
        if (!laid_on) return laid_on.error();
        start = chained(laid_on->motion, now);
        how = fmt::format("picked at {} places, RMS {:.2f} mm", from.size(), laid_on->rms_mm);
    }
    const std::vector<Point3> fixed = surfaces ? fixedFor(b, meshes, seat, id) : std::vector<Point3>{};
    if (!fixed.empty()) {
        const auto one = scan::preparedFor((*moving)->points), two = scan::preparedFor(fixed);
        if (!one || !two) return !one ? one.error() : two.error();
        if (progress && !progress(0.4)) return std::nullopt;
        const scan::ScanRegistration a = registerScans(**one, **two, start);
        if (!a.settled)
            return Error{Error::Code::Degenerate, "scan", a.words, "Pick three places or more that both show, far apart.", -1};
        start = a.motion;
        how = (how.empty() ? "" : how + "; ") + a.words;
    }
    LaidScan out;
    out.edit = standScan(b, id, start, how);
    out.words = how;
    return out;
}

Result<LaidScan> layByMarkers(const Build& b, const ScanMeshes& meshes, ScanId id, double radius) {
    const auto scan = meshOf(b, meshes, id);
    if (!scan) return scan.error();
    const std::vector<Point3> fixed = others(b, meshes, id, true);
    if (!(radius >= 3 && radius <= 200))
        return Error{Error::Code::BadInput, "markers", fmt::format("A ball of radius {:g} mm is no marker.", radius),
                     "Give 3 to 200 mm.", -1};
    if (fixed.empty())
        return Error{Error::Code::Conflict, "markers", "There is no other scan of the same subject to lay it on.",
                     "Add one first.", -1};
    const auto centres = [](const std::vector<scan::Marker>& found) {
        std::vector<Point3> out;
        for (const scan::Marker& m : found) out.push_back(m.centre);
        return out;
    };
    const auto from = centres(scan::findMarkers(placed(**scan, poseOf(b.scans.at(id))), radius));
    const auto to = centres(scan::findMarkers(fixed, radius));
    if (from.size() < 3 || to.size() < 3)
        return Error{Error::Code::NotFound, "markers",
                     fmt::format("{} balls of radius {:g} mm are in the scan and {} in the others: three in both are needed.",
                                 from.size(), radius, to.size()),
                     "Check the radius, or lay it by picked places.", -1};
    const auto matched = scan::matchMarkers(from, to);
    if (!matched) return matched.error();
    if (!matched->only_one)
        return Error{Error::Code::Conflict, "markers", matched->words,
                     "Move one ball so that no two distances are alike, or lay it by picked places.", -1};
    const std::string how = fmt::format("{} marker balls, RMS {:.2f} mm", matched->pairs.size(), matched->laid.rms_mm);
    return laid(b, id, matched->laid.motion, how, matched->words);
}

Result<LaidScan> layBySymmetry(const Build& b, const ScanMeshes& meshes, ScanId id) {
    const auto scan = meshOf(b, meshes, id);
    if (!scan) return scan.error();
    const std::vector<Point3> points = placed(**scan, poseOf(b.scans.at(id)));
    const auto plane = scan::midPlaneOf(points, Point3{0, 1, 0});
    if (!plane) return plane.error();
    if (!plane->settled)
        return Error{Error::Code::Degenerate, "mid-plane", plane->words,
                     "Turn it roughly along the car first, or lay it by picked places.", -1};
    // the shortest turn that brings the plane's normal across, about the plane's middle
    const Point3 across{0, 1, 0};
    const Point3 axis = geometry::cross(plane->normal, across);
    const double s = geometry::length(axis), c = geometry::dot(plane->normal, across);
    RigidTransform by;
    if (s > 1e-12) by = turnedAbout(plane->at, geometry::plus(plane->at, axis), std::atan2(s, c));
    by.translation[1] -= by.transformed(plane->at)[1];
    const std::string how = fmt::format("by its mid-plane: {:.0f} % alike, RMS {:.2f} mm, ± {:.2f} mm across",
                                        100 * plane->compared, plane->rms_mm, plane->off_u95_mm);
    std::vector<Point3> now;
    now.reserve(points.size());
    for (const Point3& p : points) now.push_back(by.transformed(p));
    scan::MidPlane there = *plane;
    there.at = by.transformed(plane->at);
    there.normal = across;
    const auto unlike = scan::unlikePlaces(now, there, scan::asymmetry(now, there));
    std::string words = plane->words;
    for (size_t k = 0; k < std::min<size_t>(3, unlike.size()); ++k) words += " " + unlike[k].words + ".";
    if (unlike.empty()) words += " Left and right are alike.";
    return laid(b, id, by, how, std::move(words));
}

Result<LaidScan> layByDatum(const Build& b, ScanId id, const std::array<Point3, 6>& p) {
    const auto motion = scan::threeTwoOne({p[0], p[1], p[2]}, {p[3], p[4]}, p[5]);
    if (!motion) return motion.error();
    return laid(b, id, *motion, "by places on its axes",
                "Three places stand at height 0, two on the centreline, one at station 0.");
}

Result<LaidScan> layOnSurveyedPoints(const Build& b, const Results& r, ScanId id,
                                     const std::vector<std::pair<PointId, Point3>>& picks) {
    const SurveyOf& survey = r.of(b.scans.at(id).subject);
    std::vector<scan::PickedPoint> points;
    for (const auto& [point, at] : picks) {
        const auto taped = survey.positionOf(point);
        if (!taped)
            return Error{Error::Code::NotFound, nameOf(b, point),
                         fmt::format("The survey does not fix {} yet.", nameOf(b, point)), "Tape it first, or pick another.", -1};
        const auto& sd = survey.solution->points[static_cast<size_t>(survey.indexOf(point))].sd_mm;
        const double sigma = std::sqrt(pick_sigma_mm * pick_sigma_mm + (sd[0] * sd[0] + sd[1] * sd[1] + sd[2] * sd[2]) / 3);
        points.push_back({nameOf(b, point), at, {taped->x_mm, taped->y_mm, taped->z_mm}, sigma});
    }
    const auto on = scan::layOnSurvey(points);
    if (!on) return on.error();
    std::vector<std::string> out;
    for (size_t k = 0; k < points.size(); ++k)
        if (on->points[k].left_out) out.push_back(points[k].name);
    const std::string how = fmt::format("on {} surveyed points, RMS {:.2f} mm{}", points.size() - out.size(), on->laid.rms_mm,
                                        out.empty() ? "" : fmt::format("; left out, disagreeing: {}", fmt::join(out, ", ")));
    return laid(b, id, on->laid.motion, how, on->words);
}

} // namespace gorvet::analysis
