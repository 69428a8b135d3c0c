#include "tape/mirror.hpp"

#include "dense/dense.hpp"

#include <Eigen/Geometry>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::tape {
namespace {

using Eigen::Vector3d;

/// Two solutions fit "as well" when their Σ(v/σ)² differ by less than this (χ² of one unknown at 1 %).
constexpr double same_fit = 6.6;
constexpr double least_shift_mm = 10.0;

Vector3d vec(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }
Vec3 vec3(const Vector3d& v) { return {v.x(), v.y(), v.z()}; }

std::string direction(const Vector3d& shift) {
    const Vector3d a = shift.cwiseAbs();
    if (a.z() >= a.x() && a.z() >= a.y()) return shift.z() > 0 ? "higher" : "lower";
    if (a.x() >= a.y()) return shift.x() > 0 ? "further back" : "further forward";
    return shift.y() > 0 ? "to the right" : "to the left";
}

std::string decider(const Vector3d& shift) {
    const Vector3d a = shift.cwiseAbs();
    if (a.z() >= a.x() && a.z() >= a.y()) return "a height or a level";
    return a.x() >= a.y() ? "a station" : "an offset from the centre string";
}

/// Places mirrored in the plane of the neighbours and in upright and level planes through their middle.
std::vector<Vector3d> mirroredPlaces(const Network& net, int point) {
    std::vector<Vector3d> neighbours;
    for (size_t i = 0; i < net.survey->readings.size(); ++i) {
        const SurveyReading& r = net.survey->readings[i];
        if (!net.active[i] || r.to < 0 || (r.from != point && r.to != point)) continue;
        if (r.kind != ReadingKind::Tape && r.kind != ReadingKind::Plan) continue;
        neighbours.push_back(vec(net.at[r.from == point ? r.to : r.from]));
    }
    if (neighbours.size() < 2) return {};
    Vector3d centre = Vector3d::Zero();
    for (const Vector3d& n : neighbours) centre += n;
    centre /= static_cast<double>(neighbours.size());
    Eigen::MatrixXd spread(static_cast<Eigen::Index>(neighbours.size()), 3);
    for (size_t i = 0; i < neighbours.size(); ++i)
        spread.row(static_cast<Eigen::Index>(i)) = (neighbours[i] - centre).transpose();
    const Eigen::MatrixXd ways = dense::singular(spread, dense::Sides::Right).right;
    const Vector3d along = ways.col(0);
    Vector3d upright = along.cross(Vector3d::UnitZ()); // the plane through the line of the neighbours that stands upright
    std::vector<Vector3d> normals = {ways.col(2), Vector3d::UnitZ(), Vector3d::UnitX(), Vector3d::UnitY()};
    if (upright.norm() > 1e-6) normals.emplace_back(upright.normalized());
    std::vector<Vector3d> places;
    const Vector3d at = vec(net.at[point]);
    for (const Vector3d& normal : normals) places.emplace_back(at - 2 * normal * normal.dot(at - centre));
    return places;
}

void findPointMirror(Network& net, int point, const std::vector<double>& sd_mm, std::vector<Mirror>& out) {
    const Vec3 here = net.at[point];
    const double fit_here = omega(net, point);
    double spread = 0;
    for (int axis = 0; axis < 3; ++axis)
        if (std::isfinite(sd_mm[3 * point + axis])) spread = std::max(spread, sd_mm[3 * point + axis]);
    const double least_shift = std::max(least_shift_mm, 6 * spread);
    double best_fit = fit_here + same_fit;
    std::optional<Vec3> best;
    for (const Vector3d& place : mirroredPlaces(net, point)) {
        if ((place - vec(here)).norm() < least_shift) continue;
        net.at[point] = vec3(place);
        for (int axis = 0; axis < 3; ++axis)
            if (net.free_index[3 * point + axis] < 0) coordinate(net.at[point], axis) = coordinate(const_cast<Vec3&>(here), axis);
        const double fit = settle(net, point);
        if (fit < best_fit && (vec(net.at[point]) - vec(here)).norm() > least_shift) {
            best_fit = fit;
            best = net.at[point];
        }
    }
    net.at[point] = here;
    if (!best) return;
    const Vector3d shift = vec(*best) - vec(here);
    const std::string& name = net.survey->points[point].name;
    Mirror mirror;
    mirror.point = point;
    mirror.other = *best;
    if (best_fit < fit_here - same_fit) {
        mirror.mended = true;
        mirror.other = here;
        mirror.sentence = fmt::format("{} fits its readings {:.0f} mm {} than its rough position said; it was moved there.", name,
                                      shift.norm(), direction(shift));
        mirror.remedy = "Check its rough position.";
        net.at[point] = *best;
    } else {
        mirror.sentence = fmt::format("{} has a mirror image: its readings fit as well {:.0f} mm {}. The rough position decided.",
                                      name, shift.norm(), direction(shift));
        mirror.remedy = fmt::format("Take {} of {}.", decider(shift), name);
    }
    out.push_back(std::move(mirror));
}

/// Mean distance of the positions from the rough ones.
double roughMiss(const Network& net) {
    double sum = 0;
    int count = 0;
    for (size_t i = 0; i < net.at.size(); ++i)
        if (net.placed[i] && net.survey->points[i].rough) {
            sum += (vec(net.at[i]) - vec(*net.survey->points[i].rough)).norm();
            ++count;
        }
    return count ? sum / count : 0;
}

/// The whole survey mirrored along one axis about the held coordinates of that axis.
void findWholeMirror(const Network& net, int axis, std::vector<Mirror>& out) {
    double centre = 0;
    bool any = false;
    for (const HeldCoordinate& h : net.survey->holds) {
        if (static_cast<int>(h.axis) != axis) continue;
        if (any && std::abs(h.value_mm - centre) > 1e-6) return; // two different held values tell the sides apart
        centre = h.value_mm;
        any = true;
    }
    if (!any) return;
    Network flipped = net;
    double shift = 0;
    for (size_t i = 0; i < flipped.at.size(); ++i) {
        double& c = coordinate(flipped.at[i], axis);
        if (net.placed[i]) shift = std::max(shift, 2 * std::abs(c - centre));
        c = 2 * centre - c;
    }
    if (shift < least_shift_mm || omega(flipped) > omega(net) + same_fit) return;
    // nobody takes the front of a frame for its rear, or left for right: rough positions decide that. Up and down they may not.
    if (axis != 2 && roughMiss(flipped) > 3 * roughMiss(net)) return;
    static constexpr const char* sentences[3] = {
        "The readings can't tell front from rear: the whole survey fits as well turned end for end.",
        "The readings can't tell left from right: the whole survey fits as well with its sides exchanged.",
        "The readings can't tell up from down: the whole survey fits as well standing on its head."};
    static constexpr const char* remedies[3] = {"Take one station.", "Take one offset from the centre string.",
                                                "Take one height or level off the datum plane."};
    out.push_back({-1, {}, false, std::string(sentences[axis]) + " The rough positions decided.", remedies[axis]});
}

} // namespace

std::vector<Mirror> findMirrors(Network& net, const std::vector<double>& sd_mm) {
    std::vector<Mirror> mirrors;
    for (int axis = 0; axis < 3; ++axis) findWholeMirror(net, axis, mirrors);
    for (size_t i = 0; i < net.at.size(); ++i) {
        bool any_free = false;
        for (int axis = 0; axis < 3; ++axis) any_free = any_free || net.free_index[3 * i + axis] >= 0;
        if (any_free) findPointMirror(net, static_cast<int>(i), sd_mm, mirrors);
    }
    return mirrors;
}

} // namespace gorvet::tape
