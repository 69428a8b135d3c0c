#pragma once

#include "shape/transform.hpp"

#include <algorithm>
#include <functional>

/// Internal to this room: meshes from swept sections, grids and turned outlines.
namespace gorvet::sim {

using shape::Mesh;
using shape::Point3;

/// A surface over 0…1 × 0…1.
using Surface = std::function<Point3(double u, double v)>;
/// Of a surface in about `step` pieces.
void addGrid(Mesh&, double step_mm, const Surface&);
/// The same, trimmed: what has a positive `hole` is cut away, along the curve where it is nought. `lip`, when given, is how the
/// edge there is turned: from a place of the edge to the lip's own edge.
void addTrimmed(Mesh&, double step_mm, const Surface&, const std::function<double(const Point3&)>& hole,
                const std::function<Point3(const Point3&)>& lip = {});
/// How far a place lies outside a rectangle with rounded corners (< 0: inside).
double outsideRounded(double x, double y, const std::array<double, 2>& from, const std::array<double, 2>& to, double radius);
/// A section (offset, height about the path, counter-clockwise seen against the way of the path) swept along a path, with lids:
/// closed. The path's `across` is horizontal.
void addBar(Mesh&, double step_mm, const std::vector<Point3>& path, const std::vector<std::array<double, 2>>& section);
/// A box round a middle: closed.
void addBox(Mesh&, double step_mm, const Point3& middle, const Point3& size);
/// A round bar along a path: closed.
void addTube(Mesh&, double step_mm, const std::vector<Point3>& path, double radius);
/// An outline (along the axis, radius), from its first to its last place on the axis, turned round an axis along y: closed when
/// it begins and ends at radius 0.
void addTurned(Mesh&, double step_mm, const Point3& middle, const std::vector<std::array<double, 2>>& outline);
/// The same round an axis along x.
void addTurnedAlong(Mesh&, double step_mm, const Point3& middle, const std::vector<std::array<double, 2>>& outline);
/// A rectangle with its corners taken off.
std::vector<std::array<double, 2>> chamfered(double width, double height, double corner);
/// A rectangle of so much width and height, its corners in order.
std::vector<std::array<double, 2>> rectangle(double width, double height);

/// Straight between the given places; outside them the nearest one's value.
double between(const std::vector<std::array<double, 2>>& table, double at);
/// The same with rounded changes (cosine).
double rounded(const std::vector<std::array<double, 2>>& table, double at);

} // namespace gorvet::sim
