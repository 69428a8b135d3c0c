#pragma once

#include "shape/transform.hpp"

#include <algorithm>
#include <functional>

/// Internal to this room: meshes from swept sections, grids and turned outlines.
namespace gorvet::sim {

using shape::Mesh;
using shape::Point3;

/// A surface over 0…1 × 0…1 in about `step` pieces; `keep`, when given, says by the middle of each piece what stays.
void addGrid(Mesh&, double step_mm, const std::function<Point3(double u, double v)>&,
             const std::function<bool(const Point3&)>& keep = {});
/// A section (offset, height about the path, counter-clockwise seen against the way of the path) swept along a path, with lids:
/// closed. The path's `across` is horizontal.
void addBar(Mesh&, double step_mm, const std::vector<Point3>& path, const std::vector<std::array<double, 2>>& section);
/// A box round a middle: closed.
void addBox(Mesh&, double step_mm, const Point3& middle, const Point3& size);
/// An outline (along the axis, radius), from its first to its last place on the axis, turned round an axis along y: closed when
/// it begins and ends at radius 0.
void addTurned(Mesh&, double step_mm, const Point3& middle, const std::vector<std::array<double, 2>>& outline);
/// A rectangle of so much width and height, its corners in order.
std::vector<std::array<double, 2>> rectangle(double width, double height);

/// Straight between the given places; outside them the nearest one's value.
double between(const std::vector<std::array<double, 2>>& table, double at);
/// The same with rounded changes (cosine).
double rounded(const std::vector<std::array<double, 2>>& table, double at);

} // namespace gorvet::sim
