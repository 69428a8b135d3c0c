#include "sit/cut_map.hpp"

#include "dense/dense.hpp"
#include "shape/disjoint_sets.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <limits>
#include <unordered_map>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using geometry::between;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using shape::Mesh;
using shape::Polyline;
using shape::Triangle;

constexpr double unreached = std::numeric_limits<double>::infinity();
using units::steel_kg_mm3;

Error wrong(const char* option, double value, const char* rule) {
    return Error{Error::Code::BadInput, option, fmt::format("{} = {:g}: {}.", option, value, rule), "", -1};
}

/// The body in the fixed frame, with its distances, its triangles near the limit divided until they are fine enough. Neighbours
/// stay joined: a side is divided for both its triangles.
struct Fine {
    Mesh mesh;
    std::vector<float> distance;
};
Fine divided(const Ready& body, const std::vector<CutAgainst>& against, const RigidTransform& move, const CutOptions& options,
             int threads, const std::function<bool()>& stop) {
    Fine f;
    // of several parts the one counts that asks for most: each distance less what it asks for beyond the others
    const auto distances = [&](const shape::PointOrder& order, const RigidTransform& to_fixed) {
        std::vector<float> least;
        for (const CutAgainst& part : against) {
            auto d = distancesTo(*part.fixed->tree, part.fixed->sides.get(), order, chained(inverse(part.pose), to_fixed),
                                 options.need.cap_mm + part.extra_mm, threads, stop)
                         .distance_mm;
            for (float& v : d) v -= static_cast<float>(part.extra_mm);
            if (least.empty())
                least = std::move(d);
            else
                for (size_t i = 0; i < d.size(); ++i) least[i] = std::min(least[i], d[i]);
        }
        return least;
    };
    f.mesh = transformed(*body.mesh, move);
    f.mesh.normals.clear();
    f.mesh.colours.clear();
    f.distance = distances(body.order, move);
    const double limit = options.need.foulsBelow();
    for (int round = 0; round < 40 && !(stop && stop()); ++round) { // a long thin triangle takes one round a side
        std::unordered_map<std::uint64_t, std::uint32_t> middles;
        std::vector<Point3> fresh;
        const auto key = [](std::uint32_t a, std::uint32_t b) {
            return static_cast<std::uint64_t>(std::min(a, b)) << 32 | std::max(a, b);
        };
        for (const Triangle& t : f.mesh.triangles) {
            double least = unreached, most = -unreached, longest = 0;
            for (size_t k = 0; k < 3; ++k) {
                least = std::min(least, static_cast<double>(f.distance[t[k]]));
                most = std::max(most, static_cast<double>(f.distance[t[k]]));
                longest = std::max(longest, between(f.mesh.points[t[k]], f.mesh.points[t[(k + 1) % 3]]));
            }
            // the distance changes no faster than the place: only where the limit can be within the triangle
            if (longest <= options.fineness_mm || least - longest > limit || most + longest < limit) continue;
            for (size_t k = 0; k < 3; ++k) {
                const std::uint32_t a = t[k], b = t[(k + 1) % 3];
                // long sides first, so that slivers do not come of it
                if (between(f.mesh.points[a], f.mesh.points[b]) < 0.6 * longest || middles.contains(key(a, b))) continue;
                middles.emplace(key(a, b), static_cast<std::uint32_t>(f.mesh.points.size() + fresh.size()));
                fresh.push_back(geometry::along(f.mesh.points[a], f.mesh.points[b], 0.5));
            }
        }
        if (fresh.empty() || f.mesh.points.size() + fresh.size() > 8000000) break;
        const auto d = distances(shape::ordered(fresh), {});
        f.mesh.points.insert(f.mesh.points.end(), fresh.begin(), fresh.end());
        f.distance.insert(f.distance.end(), d.begin(), d.end());
        std::vector<Triangle> next;
        next.reserve(f.mesh.triangles.size());
        for (const Triangle& t : f.mesh.triangles) {
            std::array<std::uint32_t, 3> m{};
            int n = 0;
            for (size_t k = 0; k < 3; ++k) {
                const auto at = middles.find(key(t[k], t[(k + 1) % 3]));
                m[k] = at == middles.end() ? shape::kernel::nothing : at->second;
                n += at != middles.end();
            }
            if (n == 0) {
                next.push_back(t);
            } else if (n == 3) {
                next.push_back({t[0], m[0], m[2]});
                next.push_back({m[0], t[1], m[1]});
                next.push_back({m[2], m[1], t[2]});
                next.push_back({m[0], m[1], m[2]});
            } else {
                // turned so that side 0 is divided and, of two, side 2 is not
                size_t k = 0;
                while (m[k] == shape::kernel::nothing || (n == 2 && m[(k + 2) % 3] != shape::kernel::nothing)) ++k;
                const std::uint32_t a = t[k], b = t[(k + 1) % 3], c = t[(k + 2) % 3];
                const std::uint32_t ab = m[k], bc = m[(k + 1) % 3];
                next.push_back({a, ab, c});
                if (n == 1) {
                    next.push_back({ab, b, c});
                } else {
                    next.push_back({ab, b, bc});
                    next.push_back({ab, bc, c});
                }
            }
        }
        f.mesh.triangles = std::move(next);
    }
    return f;
}

/// How far each point is from the lines, < 0 on the side that is too near; only where it hangs together with that side, else
/// unreached.
std::vector<float> fromLines(const Fine& f, const std::vector<Polyline>& lines, double limit, double reach, int threads) {
    auto edges = std::make_shared<Mesh>();
    for (const Polyline& l : lines) {
        const auto first = static_cast<std::uint32_t>(edges->points.size());
        edges->points.insert(edges->points.end(), l.places.begin(), l.places.end());
        const auto n = static_cast<std::uint32_t>(l.places.size());
        for (std::uint32_t i = 0; i + 1 < n; ++i) edges->triangles.push_back({first + i, first + i + 1, first + i + 1});
        if (l.closed && n > 1) edges->triangles.push_back({first + n - 1, first, first});
    }
    // a patch that is all too near, and ends at the sheet's own edge, has no line
    std::vector<float> value(f.mesh.points.size(), static_cast<float>(reach));
    if (!edges->triangles.empty()) {
        const shape::DistanceTree tree(edges);
        value = distancesTo(tree, nullptr, shape::ordered(f.mesh.points), {}, reach, threads).distance_mm;
    }
    std::vector<char> joined(f.mesh.points.size(), 0);
    for (size_t i = 0; i < value.size(); ++i)
        if (static_cast<double>(f.distance[i]) < limit) {
            value[i] = -value[i];
            joined[i] = 1;
        }
    // outward along the sheet as long as it is within reach
    for (bool more = true; more;) {
        more = false;
        for (const Triangle& t : f.mesh.triangles) {
            const bool any = joined[t[0]] || joined[t[1]] || joined[t[2]];
            if (!any) continue;
            for (const std::uint32_t p : t)
                if (!joined[p] && static_cast<double>(value[p]) < reach) joined[p] = 1, more = true;
        }
    }
    for (size_t i = 0; i < value.size(); ++i)
        if (!joined[i]) value[i] = static_cast<float>(reach);
    return value;
}

double offSegment(const Point3& p, const Point3& a, const Point3& b) {
    const Point3 d = minus(b, a);
    const double l = dot(d, d);
    const double s = l > 0 ? std::clamp(dot(minus(p, a), d) / l, 0.0, 1.0) : 0;
    return between(p, plus(a, times(d, s)));
}

/// Places left out as long as the line stays within `room` of them (Ramer–Douglas–Peucker); `off` becomes how far it went.
void straightened(const std::vector<Point3>& in, size_t from, size_t to, double room, std::vector<Point3>& out, double& off) {
    size_t worst = from;
    double most = 0;
    for (size_t i = from + 1; i < to; ++i)
        if (const double d = offSegment(in[i], in[from], in[to]); d > most) {
            most = d;
            worst = i;
        }
    if (most > room) {
        straightened(in, from, worst, room, out, off);
        straightened(in, worst, to, room, out, off);
        return;
    }
    off = std::max(off, most);
    out.push_back(in[to]);
}

CutLine asCut(const Polyline& line, double room) {
    CutLine c;
    // first the jitter of the triangles: each place towards the middle of its neighbours, never by more than the room
    std::vector<Point3> places = line.places;
    const size_t n = places.size();
    for (int round = 0; round < 4 && n > 4 && room > 0; ++round) {
        std::vector<Point3> next = places;
        for (size_t i = 0; i < n; ++i) {
            if (!line.closed && (i == 0 || i + 1 == n)) continue;
            const Point3 middle = geometry::along(places[(i + n - 1) % n], places[(i + 1) % n], 0.5);
            Point3 to = geometry::along(places[i], middle, 0.5);
            if (const double d = between(to, line.places[i]); d > room / 2)
                to = geometry::along(line.places[i], to, room / 2 / d);
            next[i] = to;
        }
        places = std::move(next);
    }
    for (size_t i = 0; i < n; ++i) c.off_mm = std::max(c.off_mm, between(places[i], line.places[i]));
    double straight = 0;
    if (line.closed) {
        // from the farthest two places, so that both halves are lines
        size_t far = 0;
        for (size_t i = 0; i < n; ++i)
            if (between(places[i], places[0]) > between(places[far], places[0])) far = i;
        std::vector<Point3> round = places;
        round.push_back(places[0]);
        straightened(round, 0, far, room / 2, c.line.places, straight);
        straightened(round, far, n, room / 2, c.line.places, straight);
    } else {
        c.line.places.push_back(places.front());
        straightened(places, 0, n - 1, room / 2, c.line.places, straight);
    }
    c.off_mm += straight;
    c.line.closed = line.closed;
    c.length_mm = length(c.line);
    return c;
}

/// The part of a triangle where the value is below the level: its area, and its places.
double areaBelow(const Fine& f, const Triangle& t, const std::vector<float>& value, double level) {
    std::vector<Point3> kept;
    for (size_t k = 0; k < 3; ++k) {
        const std::uint32_t a = t[k], b = t[(k + 1) % 3];
        const double va = static_cast<double>(value[a]) - level, vb = static_cast<double>(value[b]) - level;
        if (va < 0) kept.push_back(f.mesh.points[a]);
        if ((va < 0) != (vb < 0)) kept.push_back(geometry::along(f.mesh.points[a], f.mesh.points[b], va / (va - vb)));
    }
    Point3 sum{};
    for (size_t i = 2; i < kept.size(); ++i)
        sum = plus(sum, geometry::cross(minus(kept[i - 1], kept[0]), minus(kept[i], kept[0])));
    return geometry::length(sum) / 2;
}

void fitPlane(Cut& cut) {
    Point3 middle{};
    size_t n = 0;
    for (const CutLine& l : cut.lines)
        for (const Point3& p : l.line.places) middle = plus(middle, p), ++n;
    if (n < 3) return;
    middle = times(middle, 1.0 / static_cast<double>(n));
    Eigen::Matrix3d c = Eigen::Matrix3d::Zero();
    for (const CutLine& l : cut.lines)
        for (const Point3& p : l.line.places) {
            const Eigen::Vector3d v(p[0] - middle[0], p[1] - middle[1], p[2] - middle[2]);
            c += v * v.transpose();
        }
    const dense::Eigenpairs main = dense::eigenpairs(c);
    cut.plane_at = middle;
    cut.plane_normal = {main.vectors(0, 0), main.vectors(1, 0), main.vectors(2, 0)};
    for (const CutLine& l : cut.lines)
        for (const Point3& p : l.line.places)
            cut.off_plane_mm = std::max(cut.off_plane_mm, std::abs(dot(cut.plane_normal, minus(p, middle))));
    cut.flat = cut.off_plane_mm <= 3;
}

} // namespace

Result<CutMap> cutMap(const Ready& body, const Ready& fixed, const RigidTransform& move, const CutOptions& options, int threads,
                      const std::function<bool()>& stop) {
    return cutMap(body, {CutAgainst{&fixed, 0, {}}}, move, options, threads, stop);
}

namespace {

Result<void> possible(const std::vector<CutAgainst>& against, const CutOptions& options) {
    if (against.empty())
        return Error{Error::Code::BadInput, "cut map", "There is nothing the body is cut for.", "Add a scan of the chassis.", -1};
    if (!(options.margin_mm >= 0)) return wrong("margin_mm", options.margin_mm, "must not be below 0");
    if (!(options.fineness_mm > 0)) return wrong("fineness_mm", options.fineness_mm, "must be above 0");
    if (!(options.thickness_mm > 0)) return wrong("thickness_mm", options.thickness_mm, "must be above 0");
    if (!(options.smooth_mm >= 0)) return wrong("smooth_mm", options.smooth_mm, "must not be below 0");
    if (!(options.flange_mm >= 0) || options.flange_mm > options.margin_mm)
        return wrong("flange_mm", options.flange_mm,
                     "a flange stands inside the finished edge, so it can't be wider than the margin: it would foul");
    if (!(options.need.foulsBelow() < options.need.cap_mm))
        return wrong("cap_mm", options.need.cap_mm, "must be above the least clearance with finish and ±");
    return {};
}

/// The sheet that goes, in patches that hang together.
struct Patches {
    const Fine& f;
    const std::vector<float>& value; ///< along the sheet from what is too near, by point
    double level;
    const CutOptions& options;
    shape::DisjointSets groups{f.mesh.points.size()};
    std::unordered_map<std::uint32_t, size_t> number; ///< of a group: its patch
    std::vector<Cut> cuts;

    bool below(std::uint32_t p) const { return static_cast<double>(value[p]) < level; }

    void find(const RigidTransform& move) {
        std::vector<bool> taken(f.mesh.triangles.size(), false);
        for (size_t t = 0; t < f.mesh.triangles.size(); ++t) {
            const Triangle& q = f.mesh.triangles[t];
            taken[t] = below(q[0]) || below(q[1]) || below(q[2]);
            for (size_t k = 0; k < 3; ++k)
                if (below(q[k]) && below(q[(k + 1) % 3])) groups.join(q[k], q[(k + 1) % 3]);
        }
        const RigidTransform back = inverse(move);
        for (size_t t = 0; t < f.mesh.triangles.size(); ++t) {
            if (!taken[t]) continue;
            const Triangle& q = f.mesh.triangles[t];
            const std::uint32_t inner = below(q[0]) ? q[0] : below(q[1]) ? q[1] : q[2];
            const auto [at, fresh] = number.emplace(groups.find(inner), cuts.size());
            if (fresh) {
                Cut c;
                c.deepest_mm = unreached;
                cuts.push_back(c);
            }
            Cut& c = cuts[at->second];
            c.area_mm2 += areaBelow(f, q, value, level);
            for (const std::uint32_t p : q) {
                if (!below(p)) continue;
                c.box.take(f.mesh.points[p]);
                if (static_cast<double>(f.distance[p]) < c.deepest_mm) {
                    c.deepest_mm = static_cast<double>(f.distance[p]);
                    c.at = f.mesh.points[p];
                }
                const Point3 own = options.zones.empty() ? Point3{} : back.transformed(f.mesh.points[p]);
                for (const Zone& z : options.zones) {
                    if (z.box.contains(own) && std::find(c.crosses.begin(), c.crosses.end(), z.name) == c.crosses.end()) {
                        c.crosses.push_back(z.name);
                        if (z.kind == ZoneKind::Never) c.never.push_back(z.name);
                        if (z.kind == ZoneKind::Brace) c.brace.push_back(z.name);
                    }
                }
            }
        }
    }

    void addLines() {
        // each line belongs to the patch whose points its sides leave: told by the nearest point that goes
        auto marks = std::make_shared<Mesh>();
        std::vector<std::uint32_t> patch_of;
        for (std::uint32_t p = 0; p < f.mesh.points.size(); ++p) {
            if (!below(p)) continue;
            const auto it = number.find(groups.find(p));
            if (it == number.end()) continue;
            const auto i = static_cast<std::uint32_t>(marks->points.size());
            marks->points.push_back(f.mesh.points[p]);
            marks->triangles.push_back({i, i, i});
            patch_of.push_back(static_cast<std::uint32_t>(it->second));
        }
        const shape::DistanceTree mark_tree(marks);
        const auto at = [&](double at_level, bool rough) {
            for (const Polyline& l : levelLines(f.mesh, value, at_level)) {
                if (l.places.size() < 2) continue;
                const shape::Nearest n = mark_tree.nearest(l.places[l.places.size() / 2], 1e6);
                if (n.triangle == shape::kernel::nothing) continue;
                Cut& c = cuts[patch_of[n.triangle]];
                (rough ? c.rough : c.lines).push_back(asCut(l, options.smooth_mm));
            }
        };
        at(level, false);
        if (options.flange_mm > 0) at(level - options.flange_mm, true);
    }
};

/// What is left of them in the map: each with its mass, its edge and what it goes through, in the order to cut.
void keepCuts(CutMap& map, std::vector<Cut>& cuts, const CutOptions& options) {
    for (Cut& c : cuts) {
        if (c.area_mm2 < options.least_area_mm2) {
            ++map.ground_off;
            continue;
        }
        c.mass_kg = c.area_mm2 * options.thickness_mm * steel_kg_mm3;
        // the longest closed line is the edge; others inside it leave sheet standing
        std::sort(c.lines.begin(), c.lines.end(), [](const CutLine& a, const CutLine& b) { return a.length_mm > b.length_mm; });
        for (size_t i = 1; i < c.lines.size(); ++i) c.lines[i].hole = c.lines[i].line.closed && c.lines[0].line.closed;
        fitPlane(c);
        map.area_mm2 += c.area_mm2;
        map.mass_kg += c.mass_kg;
        map.cuts.push_back(std::move(c));
    }
    // what is allowed before what is not, without brace before with, then from the front rearward
    std::stable_sort(map.cuts.begin(), map.cuts.end(), [](const Cut& a, const Cut& b) {
        if (a.allowed() != b.allowed()) return a.allowed();
        if (a.brace.empty() != b.brace.empty()) return a.brace.empty();
        return a.box.min.x_mm < b.box.min.x_mm;
    });
    for (size_t i = 0; i < map.cuts.size(); ++i) {
        Cut& c = map.cuts[i];
        c.number = static_cast<int>(i) + 1;
        const auto names = [](const std::vector<std::string>& list) { return fmt::format("{}", fmt::join(list, ", ")); };
        if (!c.never.empty())
            map.remarks.push_back(fmt::format(
                "Cut {} would go through {}: never cut there. Lift the body, or move what it fouls.", c.number, names(c.never)));
        if (!c.brace.empty())
            map.remarks.push_back(fmt::format("Cut {} goes through {}: brace the body before it.", c.number, names(c.brace)));
    }
    if (map.ground_off > 0)
        map.remarks.push_back(
            fmt::format("{} places are smaller than {:.0f} mm² and are ground off.", map.ground_off, options.least_area_mm2));
}

} // namespace

Result<CutMap> cutMap(const Ready& body, const std::vector<CutAgainst>& against, const RigidTransform& move,
                      const CutOptions& options, int threads, const std::function<bool()>& stop) {
    if (const auto ok = possible(against, options); !ok) return ok.error();
    CutMap map;
    const double limit = options.need.foulsBelow();
    const Fine f = divided(body, against, move, options, threads, stop);
    const auto near_lines = levelLines(f.mesh, f.distance, limit);
    const double reach = 2 * options.margin_mm + 4 * options.fineness_mm;
    const std::vector<float> value = fromLines(f, near_lines, limit, reach, threads);
    Patches patches{f, value, options.margin_mm, options};
    patches.find(move);
    patches.addLines();
    keepCuts(map, patches.cuts, options);
    if (stop && stop()) return Error{Error::Code::Conflict, "cut map", "The cut map was stopped.", "", -1};
    return map;
}

std::vector<std::vector<std::array<double, 2>>> flattened(const Cut& cut) {
    // one axis rearward as far as the plane allows, so that the print lies as the car does
    const Point3 n = cut.plane_normal;
    Point3 u = minus(Point3{1, 0, 0}, times(n, n[0]));
    if (geometry::length(u) < 0.3) u = minus(Point3{0, 1, 0}, times(n, n[1]));
    u = geometry::unit(u);
    Point3 v = geometry::cross(n, u);
    // up, or to the right, on the page
    if (std::abs(v[2]) > 0.5 ? v[2] < 0 : v[1] < 0) v = times(v, -1);
    std::vector<std::vector<std::array<double, 2>>> all;
    for (const CutLine& l : cut.lines) {
        all.emplace_back();
        for (const Point3& p : l.line.places) {
            const Point3 d = minus(p, cut.plane_at);
            all.back().push_back({dot(d, u), dot(d, v)});
        }
    }
    return all;
}

std::vector<Point3> placesAlong(const CutLine& cut, double step_mm) {
    std::vector<Point3> all;
    const auto& places = cut.line.places;
    const size_t pieces = places.size() - (cut.line.closed ? 0 : 1);
    for (size_t i = 0; i < pieces; ++i) {
        const Point3& a = places[i];
        const Point3& b = places[(i + 1) % places.size()];
        const int n = std::max(1, static_cast<int>(std::ceil(between(a, b) / step_mm)));
        for (int k = 0; k < n; ++k) all.push_back(geometry::along(a, b, static_cast<double>(k) / n));
    }
    if (!cut.line.closed && !places.empty()) all.push_back(places.back());
    return all;
}

} // namespace gorvet::sit
