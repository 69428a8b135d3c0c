// Every piece of a part as a solid.
#include "make/part.hpp"
#include "make/part_pieces.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::make {

using geometry::cross;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;
using shape::NamedSolid;
using shape::Solid;

namespace {

Result<Solid> drilledInto(Result<Solid> solid, const FlatPiece& p) {
    for (const FlatHole& h : p.holes) {
        if (!solid) break;
        auto drill = shape::cylinder(h.diameter_mm / 2, p.thickness_mm + 2);
        if (!drill) return drill;
        // the bar lies along its x: stood upright on the hole
        solid = shape::cut(*solid, shape::placed(*drill, {{h.at.first, h.at.second, -1}, {0, 0, 1}, {1, 0, 0}}));
    }
    return solid;
}

Result<Solid> flatSolid(const FlatPiece& p) { return drilledInto(shape::prism(p.outline, p.thickness_mm), p); }

/// Both sides and the bottom as one bent sheet, cut by its planes.
Result<Solid> troughSolid(const Trough& t, const FlatPiece& flat) {
    const double spare = t.wide_mm + t.deep_mm;
    auto solid = shape::prism(troughSection(t), t.length_mm + 2 * spare);
    if (!solid) return solid;
    const Vec3 up = cross(t.place.x, t.place.y);
    Solid placed = shape::placed(*solid, {minus(t.place.origin, times(t.place.x, spare)), t.place.y, up});
    for (const FlatHole& h : flat.holes) {
        auto drill = shape::cylinder(h.diameter_mm / 2, t.thickness_mm + 2);
        if (!drill) return drill;
        const Vec3 at = plus(plus(t.place.origin, times(t.place.x, h.at.first)), minus(times(t.place.y, h.at.second), up));
        auto drilled = shape::cut(placed, shape::placed(*drill, {at, up, t.place.x}));
        if (!drilled) return drilled;
        placed = *drilled;
    }
    for (const auto& [point, normal] : t.planes) {
        auto less = shape::sawn(placed, point, normal);
        if (!less) return less;
        placed = *less;
    }
    return placed;
}

/// One that is bent all along: its section, as wide as it is. Its holes are those of an angle: one up, one out.
Result<Solid> foldedSolid(const FlatPiece& p) {
    auto solid = shape::prism(p.section, p.along_mm);
    if (!solid) return solid;
    double upright = 0, out = 0;
    for (const auto& [a, b] : p.section) {
        out = std::max(out, a);
        upright = std::max(upright, b);
    }
    const double whole = p.outline[1].first;
    for (const FlatHole& h : p.holes) {
        auto drill = shape::cylinder(h.diameter_mm / 2, 2 * p.thickness_mm + 2);
        if (!drill) return drill;
        const bool up = h.at.first < whole / 2;
        const Vec3 at = up ? Vec3{-1, upright - h.at.first, p.along_mm / 2 + h.at.second}
                           : Vec3{out - (whole - h.at.first), -1, p.along_mm / 2 + h.at.second};
        solid = shape::cut(*solid, shape::placed(*drill, {at, up ? Vec3{1, 0, 0} : Vec3{0, 1, 0}, {0, 0, 1}}));
        if (!solid) return solid;
    }
    return solid;
}

/// A tube through corners: each corner with half of the straights on both sides of it, joined.
Result<Solid> bentSolid(const BarPiece& b) {
    const std::vector<Vec3>& q = b.through;
    const shape::Section section{shape::Section::Kind::Round, b.height_mm, 0, b.wall_mm, 0};
    std::vector<Solid> all;
    const auto spare = [&](std::size_t end) { return b.ends[end].kind == BarEnd::Kind::Saw ? 2 * b.height_mm : 0.0; };
    for (std::size_t k = 1; k + 1 < q.size(); ++k) {
        const Vec3 in = unit(minus(q[k], q[k - 1])), out = unit(minus(q[k + 1], q[k]));
        const double angle = std::acos(std::clamp(geometry::dot(in, out), -1.0, 1.0)), takes = b.radius_mm * std::tan(angle / 2);
        // to the middle of a straight, or beyond an end
        const double before = (k == 1 ? geometry::between(q[0], q[1]) + spare(0) : geometry::between(q[k - 1], q[k]) / 2) - takes,
                     after = (k + 2 == q.size() ? geometry::between(q[k], q[k + 1]) + spare(1)
                                                : geometry::between(q[k], q[k + 1]) / 2) -
                             takes;
        const Vec3 turns = unit(minus(out, times(in, geometry::dot(out, in))));
        auto one = angle < 1e-4 ? shape::tube(section, before + after + 2 * takes)
                                : shape::bentTube(section, std::max(0.0, before), b.radius_mm, angle, std::max(0.0, after));
        if (!one) return one;
        const Vec3 from = minus(q[k], times(in, before + takes));
        const Vec3 y = angle < 1e-4 ? cross(b.up, in) : cross(turns, in);
        all.push_back(shape::placed(*one, {from, in, y}));
    }
    // a cope is of its own end: the tube that it meets ends somewhere, what cuts here does not
    for (std::size_t end = 0; end < 2 && !all.empty(); ++end) {
        const BarEnd& e = b.ends[end];
        if (!e.cope) continue;
        auto less = shape::coped(end == 0 ? all.front() : all.back(), e.cope->main_mm / 2, e.point, e.normal);
        if (!less) return less;
        (end == 0 ? all.front() : all.back()) = *less;
    }
    auto whole = all.size() == 1 ? Result<Solid>(all.front()) : shape::unite(all);
    for (const BarEnd& e : b.ends) {
        if (!whole) return whole;
        if (e.kind == BarEnd::Kind::Saw) whole = shape::sawn(*whole, e.point, e.normal);
    }
    return whole;
}

Result<Solid> barSolid(const BarPiece& b) {
    const Vec3 along = unit(minus(b.to, b.from));
    // sawn ends reach beyond the middle; a coped one begins on the other tube's middle
    const auto spare = [&](const BarEnd& e) {
        return e.kind == BarEnd::Kind::Cope ? 0.0 : 3 * std::max(b.height_mm, b.width_mm);
    };
    const double before = spare(b.ends[0]), length = geometry::between(b.from, b.to) + before + spare(b.ends[1]);
    const shape::Section section =
        b.round ? shape::Section{shape::Section::Kind::Round, b.height_mm, 0, b.wall_mm, 0}
                : shape::Section{shape::Section::Kind::Box, b.width_mm, b.height_mm, b.wall_mm, 2 * b.wall_mm};
    auto solid = shape::tube(section, length);
    if (!solid) return solid;
    // height runs along `up`
    Solid bar = shape::placed(*solid, {minus(b.from, times(along, before)), along, cross(b.up, along)});
    for (const BarEnd& e : b.ends) {
        auto less = e.cope ? shape::coped(bar, e.cope->main_mm / 2, e.point, e.normal) : shape::sawn(bar, e.point, e.normal);
        if (!less) return less;
        bar = *less;
    }
    return bar;
}

} // namespace

geometry::Outline troughSection(const Trough& t) {
    const double half = t.wide_mm / 2, outer = t.inside_mm + t.thickness_mm;
    constexpr int steps = 12;
    geometry::Outline section; // y across, z up
    const auto arc = [&](double side, double r, bool down) {
        for (int k = 0; k <= steps; ++k) {
            const double turn = (down ? k : steps - k) * std::numbers::pi / 2 / steps; // 0: on the side, a quarter: on the bottom
            section.emplace_back(side * (half - outer + r * std::cos(turn)), outer - r * std::sin(turn));
        }
    };
    section.emplace_back(-half, t.deep_mm);
    arc(-1, outer, true);
    arc(1, outer, false);
    section.emplace_back(half, t.deep_mm);
    section.emplace_back(half - t.thickness_mm, t.deep_mm);
    arc(1, t.inside_mm, true);
    arc(-1, t.inside_mm, false);
    section.emplace_back(-half + t.thickness_mm, t.deep_mm);
    return section;
}

std::vector<PlacedPiece> piecesOf(const PartPlan& p) {
    std::vector<PlacedPiece> all;
    const auto named = [&](const std::string& piece, std::size_t k, std::size_t of) {
        std::string name = p.name.empty() || piece == p.name ? piece : p.name + ", " + piece;
        if (of > 1) name += " " + std::to_string(k + 1);
        return name;
    };
    for (const FlatPiece& piece : p.flats) {
        if (!piece.bends.empty() && piece.section.empty() && p.trough) {
            all.push_back({named(piece.name, 0, 1), &piece, nullptr, &*p.trough, p.trough->place});
            continue;
        }
        for (std::size_t k = 0; k < piece.places.size(); ++k)
            all.push_back({named(piece.name, k, piece.places.size()), &piece, nullptr, nullptr, piece.places[k]});
    }
    for (const BarPiece& piece : p.bars) all.push_back({named(piece.name, 0, 1), nullptr, &piece, nullptr, {}});
    return all;
}

Result<std::vector<NamedSolid>> partSolids(const PartPlan& p) {
    if (!p.made()) return Error{Error::Code::NotFound, p.name, "It is not made yet.", "", -1};
    std::vector<NamedSolid> all;
    for (const PlacedPiece& piece : piecesOf(p)) {
        auto solid = piece.bar                     ? piece.bar->through.empty() ? barSolid(*piece.bar) : bentSolid(*piece.bar)
                                         : piece.trough ? troughSolid(*piece.trough, *piece.flat)
                     : piece.flat->section.empty() ? flatSolid(*piece.flat)
                                                   : foldedSolid(*piece.flat);
        if (!solid) return solid.error();
        all.push_back({piece.name, piece.bar || piece.trough ? *solid : shape::placed(*solid, piece.place), p.name});
    }
    return all;
}

} // namespace gorvet::make
