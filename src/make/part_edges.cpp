#include "make/part_edges.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

/// A ring round a bar where its end is.
Path ringOf(const BarPiece& b, std::size_t end) {
    const Vec3 along = unit(minus(b.to, b.from)), side = cross(along, b.up), middle = end == 0 ? b.from : b.to;
    const Vec3 out = times(along, end == 0 ? -1 : 1);
    const BarEnd& e = b.ends[end];
    Path ring;
    const auto point = [&](const Vec3& corner, double phi) {
        double reach = 0;
        if (e.kind == BarEnd::Kind::Cope)
            reach = -copeAt(*e.cope, (end == 0 ? 1 : -1) * (phi - e.turned_rad));
        else if (const double through = dot(e.normal, out); std::abs(through) > 1e-6)
            reach = -dot(e.normal, corner) / through;
        ring.push_back(plus(plus(middle, corner), times(out, reach)));
    };
    if (b.round) {
        constexpr int steps = 36;
        for (int k = 0; k < steps; ++k) {
            const double phi = 2 * std::numbers::pi * k / steps, r = b.height_mm / 2;
            point(plus(times(b.up, r * std::cos(phi)), times(side, r * std::sin(phi))), phi);
        }
    } else {
        for (const auto& [u, s] : {std::pair{1.0, 1.0}, std::pair{-1.0, 1.0}, std::pair{-1.0, -1.0}, std::pair{1.0, -1.0}})
            point(plus(times(b.up, u * b.height_mm / 2), times(side, s * b.width_mm / 2)), 0);
    }
    return ring;
}

Path middleOf(const BarPiece& b) {
    const Path& q = b.through;
    Path middle{q.front()};
    constexpr int steps = 10;
    for (std::size_t k = 1; k + 1 < q.size(); ++k) {
        const Vec3 in = unit(minus(q[k], q[k - 1])), out = unit(minus(q[k + 1], q[k]));
        const double angle = std::acos(std::clamp(dot(in, out), -1.0, 1.0)), takes = b.radius_mm * std::tan(angle / 2);
        const Vec3 begins = minus(q[k], times(in, takes)), turns = unit(minus(out, times(in, dot(out, in))));
        for (int s = 0; s <= steps; ++s) {
            const double turn = angle * s / steps;
            middle.push_back(
                plus(begins, plus(times(in, b.radius_mm * std::sin(turn)), times(turns, b.radius_mm * (1 - std::cos(turn))))));
        }
    }
    middle.push_back(q.back());
    return middle;
}

namespace {

/// Both outlines of a tube as it is looked at: its middle line, half its width to each side.
void outlines(const BarPiece& b, const shape::ViewAxes& axes, Edges& all) {
    const Path middle = middleOf(b);
    for (const double side : {-1.0, 1.0}) {
        Path line;
        for (std::size_t k = 0; k < middle.size(); ++k) {
            const Vec3 way = minus(middle[std::min(k + 1, middle.size() - 1)], middle[k ? k - 1 : 0]);
            const Vec3 aside = cross(axes.towards, way);
            if (geometry::length(aside) < 1e-9) continue; // it is looked along
            line.push_back(plus(middle[k], times(unit(aside), side * b.height_mm / 2)));
        }
        all.open.push_back(std::move(line));
    }
}
/// A bent section, as wide as it is.
void folded(const FlatPiece& piece, Edges& all) {
    for (const shape::Frame& place : piece.places) {
        const Vec3 z = cross(place.x, place.y);
        const auto at = [&](const geometry::Flat& q, double along) {
            return plus(plus(place.origin, plus(times(place.x, q.first), times(place.y, q.second))), times(z, along));
        };
        for (const double along : {0.0, piece.along_mm}) {
            Path path;
            for (const auto& q : piece.section) path.push_back(at(q, along));
            all.closed.push_back(std::move(path));
        }
        const std::size_t half = piece.section.size() / 2;
        for (const std::size_t k : {std::size_t{0}, std::size_t{1}, half - 1, half, half + 1, piece.section.size() - 1})
            all.open.push_back({at(piece.section[k], 0), at(piece.section[k], piece.along_mm)});
    }
}

} // namespace

Edges edgesOf(const PartPlan& p, const shape::ViewAxes& axes) {
    Edges all;
    for (const FlatPiece& piece : p.flats) {
        if (!piece.section.empty()) {
            folded(piece, all);
            continue;
        }
        for (const shape::Frame& place : piece.places) {
            const Vec3 z = cross(place.x, place.y);
            const auto at = [&](const geometry::Flat& q, double up) {
                return plus(plus(place.origin, plus(times(place.x, q.first), times(place.y, q.second))), times(z, up));
            };
            for (const double up : {0.0, piece.thickness_mm}) {
                Path path;
                for (const auto& q : piece.outline) path.push_back(at(q, up));
                all.closed.push_back(path);
                for (const FlatHole& h : piece.holes) {
                    Path ring;
                    for (int k = 0; k < 24; ++k)
                        ring.push_back(at({h.at.first + h.diameter_mm / 2 * std::cos(k * std::numbers::pi / 12),
                                           h.at.second + h.diameter_mm / 2 * std::sin(k * std::numbers::pi / 12)},
                                          up));
                    all.closed.push_back(std::move(ring));
                }
            }
            if (piece.outline.size() <= 8)
                for (const auto& q : piece.outline) all.open.push_back({at(q, 0), at(q, piece.thickness_mm)});
        }
    }
    if (p.trough) {
        const Trough& t = *p.trough;
        const Vec3 z = cross(t.place.x, t.place.y);
        // a corner: on one side, at an end, below or at the top, by the planes
        const auto corner = [&](double y, std::size_t end, bool top) {
            const Vec3 from = plus(t.place.origin, times(t.place.y, y * t.wide_mm / 2));
            const auto& [point, normal] = t.planes[end];
            const auto& [high, up] = t.planes[2];
            double x = dot(normal, minus(point, from)) / dot(normal, t.place.x), rise = 0;
            for (int k = 0; top && k < 12; ++k) {
                const Vec3 foot = plus(from, times(t.place.x, x));
                rise = dot(up, minus(high, foot)) / dot(up, z);
                x = (dot(normal, minus(point, from)) - rise * dot(normal, z)) / dot(normal, t.place.x);
            }
            return plus(from, plus(times(t.place.x, x), times(z, rise)));
        };
        for (const double y : {-1.0, 1.0})
            all.closed.push_back({corner(y, 0, false), corner(y, 1, false), corner(y, 1, true), corner(y, 0, true)});
        for (const std::size_t end : {std::size_t{0}, std::size_t{1}})
            all.open.push_back({corner(-1, end, false), corner(1, end, false)});
    }
    for (const BarPiece& b : p.bars) {
        if (!b.through.empty()) {
            outlines(b, axes, all);
            continue;
        }
        const Path one = ringOf(b, 0), other = ringOf(b, 1);
        for (std::size_t k = 0; k < one.size(); k += b.round ? one.size() / 4 : 1) all.open.push_back({one[k], other[k]});
        all.closed.push_back(one);
        all.closed.push_back(other);
    }
    return all;
}

} // namespace gorvet::make
