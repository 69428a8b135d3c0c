#include "shape/hidden_lines.hpp"

#include "shape/distinct.hpp"
#include "shape/drawn_mesh.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace gorvet::shape {

ViewAxes ViewAxes::from(double azimuth, double rise) {
    ViewAxes v;
    v.towards = {std::cos(rise) * std::sin(azimuth), -std::cos(rise) * std::cos(azimuth), std::sin(rise)};
    v.right = {std::cos(azimuth), std::sin(azimuth), 0};
    v.up = geometry::cross(v.towards, v.right);
    return v;
}

namespace {

using Place = Point3; ///< right, up, towards the eye

constexpr double beyond = -std::numeric_limits<double>::infinity();

/// Points that lie on each other are one; without triangles of no extent.
Mesh joinedMesh(const Mesh& m) {
    Mesh j;
    const auto first = firstOfEach(m.points);
    std::vector<std::uint32_t> at(m.points.size());
    for (std::uint32_t p = 0; p < m.points.size(); ++p) {
        at[p] = first[p] == p ? static_cast<std::uint32_t>(j.points.size()) : at[first[p]];
        if (first[p] == p) j.points.push_back(m.points[p]);
    }
    for (const Triangle& t : m.triangles) {
        const Triangle q{at[t[0]], at[t[1]], at[t[2]]};
        if (q[0] != q[1] && q[1] != q[2] && q[0] != q[2]) j.triangles.push_back(q);
    }
    return j;
}

/// How near the eye what is seen lies, pixel by pixel.
class Depths {
public:
    Depths(Place least, double px_per_mm, int width, int height)
        : least_(least), px_(px_per_mm), width_(width), height_(height),
          depth_(static_cast<size_t>(width) * static_cast<size_t>(height), static_cast<float>(beyond)) {}
    void add(const Place& a, const Place& b, const Place& c) {
        const std::array<std::array<double, 2>, 3> q{at(a), at(b), at(c)};
        const double area = (q[1][0] - q[0][0]) * (q[2][1] - q[0][1]) - (q[1][1] - q[0][1]) * (q[2][0] - q[0][0]);
        if (std::abs(area) < 1e-12) return;
        const auto range = [&](size_t axis, int most) {
            const auto [low, high] = std::minmax({q[0][axis], q[1][axis], q[2][axis]});
            return std::pair{std::max(0, static_cast<int>(std::ceil(low - 0.5))),
                             std::min(most - 1, static_cast<int>(std::floor(high - 0.5)))};
        };
        const auto [x0, x1] = range(0, width_);
        const auto [y0, y1] = range(1, height_);
        for (int y = y0; y <= y1; ++y) {
            const double py = y + 0.5;
            const auto [from, to] = across(q, py, x0, x1);
            for (int x = from; x <= to; ++x) {
                const double px = x + 0.5;
                const double wb = ((px - q[0][0]) * (q[2][1] - q[0][1]) - (py - q[0][1]) * (q[2][0] - q[0][0])) / area;
                const double wc = ((q[1][0] - q[0][0]) * (py - q[0][1]) - (q[1][1] - q[0][1]) * (px - q[0][0])) / area;
                if (wb < 0 || wc < 0 || wb + wc > 1) continue;
                float& d = depth_[index(x, y)];
                d = std::max(d, static_cast<float>(a[2] + wb * (b[2] - a[2]) + wc * (c[2] - a[2])));
            }
        }
    }
    /// Whether something lies well in front of a place, by the farthest of what is seen around it: a place on an edge is not
    /// hidden by its own faces.
    bool hides(const Place& p) const {
        const auto q = at(p);
        const int x = static_cast<int>(std::floor(q[0])), y = static_cast<int>(std::floor(q[1]));
        double farthest = std::numeric_limits<double>::infinity();
        for (int dy = -1; dy <= 1; ++dy)
            for (int dx = -1; dx <= 1; ++dx) {
                if (x + dx < 0 || y + dy < 0 || x + dx >= width_ || y + dy >= height_) return false;
                farthest = std::min(farthest, static_cast<double>(depth_[index(x + dx, y + dy)]));
            }
        return farthest > p[2] + 2 + 1 / px_;
    }

    int width() const { return width_; }
    int height() const { return height_; }
    size_t pixelOf(const Place& p) const {
        const auto q = at(p);
        return index(std::clamp(static_cast<int>(q[0]), 0, width_ - 1), std::clamp(static_cast<int>(q[1]), 0, height_ - 1));
    }

private:
    /// The pixels of a row that a triangle can lie on, one more on both sides: of long slanting ones far fewer than its box has.
    static std::pair<int, int> across(const std::array<std::array<double, 2>, 3>& q, double y, int first, int last) {
        double low = last, high = first;
        for (size_t i = 0; i < 3; ++i) {
            const auto &a = q[i], &b = q[(i + 1) % 3];
            if (std::max(a[1], b[1]) < y - 1e-6 || std::min(a[1], b[1]) > y + 1e-6) continue;
            const double x =
                std::abs(b[1] - a[1]) < 1e-6 ? a[0] : a[0] + std::clamp((y - a[1]) / (b[1] - a[1]), 0., 1.) * (b[0] - a[0]);
            low = std::min(low, x - 1.5);
            high = std::max(high, x + 0.5);
        }
        return {std::max(first, static_cast<int>(std::floor(low))), std::min(last, static_cast<int>(std::ceil(high)))};
    }
    std::array<double, 2> at(const Place& p) const { return {(p[0] - least_[0]) * px_, (p[1] - least_[1]) * px_}; }
    size_t index(int x, int y) const { return static_cast<size_t>(y) * static_cast<size_t>(width_) + static_cast<size_t>(x); }
    Place least_;
    double px_;
    int width_, height_;
    std::vector<float> depth_;
};

/// Pieces between numbered ends, and the lines they make: through every end where just two meet.
class Chains {
public:
    using End = std::uint64_t;
    void add(End a, const Place& pa, End b, const Place& pb) {
        at_[a] = pa;
        at_[b] = pb;
        of_[a].push_back(pieces_.size());
        of_[b].push_back(pieces_.size());
        pieces_.push_back({a, b});
    }
    std::vector<std::vector<Place>> lines() const {
        std::vector<std::vector<Place>> all;
        std::vector<bool> used(pieces_.size(), false);
        const auto walk = [&](size_t piece, End from) {
            std::vector<Place> line{at_.at(from)};
            for (;;) {
                used[piece] = true;
                from = pieces_[piece][0] == from ? pieces_[piece][1] : pieces_[piece][0];
                line.push_back(at_.at(from));
                const auto& here = of_.at(from);
                if (here.size() != 2) break;
                const size_t next = here[0] == piece ? here[1] : here[0];
                if (used[next]) break;
                piece = next;
            }
            all.push_back(std::move(line));
        };
        for (const auto& [end, pieces] : of_)
            if (pieces.size() != 2)
                for (const size_t p : pieces)
                    if (!used[p]) walk(p, end);
        for (size_t p = 0; p < pieces_.size(); ++p) // rings
            if (!used[p]) walk(p, pieces_[p][0]);
        return all;
    }

private:
    std::map<End, Place> at_;
    std::map<End, std::vector<size_t>> of_;
    std::vector<std::array<End, 2>> pieces_;
};

/// A mesh as it is seen: corners parted at creases, each with how much its normal looks to the eye.
struct Seen {
    Mesh mesh;
    DrawnMesh drawn;
    std::vector<Place> at; ///< of the mesh's points
    std::vector<Point3> normal;
    Seen(const LinePart& part, const ViewAxes& v) : mesh(joinedMesh(*part.mesh)), drawn(drawnMesh(mesh)) {
        const auto seen = [&](const Point3& p) {
            return Place{geometry::dot(p, v.right), geometry::dot(p, v.up), geometry::dot(p, v.towards)};
        };
        for (const Point3& p : mesh.points) at.push_back(seen(part.pose.transformed(p)));
        for (size_t c = 0; c < drawn.from.size(); ++c) {
            const float* n = &drawn.places[6 * c + 3];
            normal.push_back(seen(part.pose.rotated({n[0], n[1], n[2]})));
        }
    }
    size_t triangles() const { return drawn.triangles.size() / 3; }
    std::uint32_t corner(size_t t, size_t k) const { return drawn.triangles[3 * t + k]; }
    const Place& place(size_t t, size_t k) const { return at[drawn.from[corner(t, k)]]; }
};

std::uint64_t pairOf(std::uint32_t a, std::uint32_t b) { return std::uint64_t{std::min(a, b)} << 32 | std::max(a, b); }

/// Rims, edges of more than two triangles, and edges at which the corners are parted.
void addEdges(const Seen& s, Chains& chains) {
    struct Edge {
        std::uint64_t points, corners;
        std::uint32_t a, b;
    };
    std::vector<Edge> edges;
    for (size_t t = 0; t < s.triangles(); ++t)
        for (size_t k = 0; k < 3; ++k) {
            const std::uint32_t a = s.corner(t, k), b = s.corner(t, (k + 1) % 3), pa = s.drawn.from[a], pb = s.drawn.from[b];
            edges.push_back({pairOf(pa, pb), pa < pb ? std::uint64_t{a} << 32 | b : std::uint64_t{b} << 32 | a, pa, pb});
        }
    std::sort(edges.begin(), edges.end(), [](const Edge& x, const Edge& y) { return x.points < y.points; });
    for (size_t i = 0; i < edges.size();) {
        size_t j = i;
        while (j < edges.size() && edges[j].points == edges[i].points) ++j;
        const auto parted = [](const Edge& x, const Edge& y) { // at both ends: else a crease ends here
            return x.corners >> 32 != y.corners >> 32 && (x.corners & 0xffffffff) != (y.corners & 0xffffffff);
        };
        if (j - i != 2 || parted(edges[i], edges[i + 1])) chains.add(edges[i].a, s.at[edges[i].a], edges[i].b, s.at[edges[i].b]);
        i = j;
    }
}

/// Where the smooth surface turns away from the eye: between corners whose normals look to either side.
void addOutlines(const Seen& s, Chains& chains) {
    for (size_t t = 0; t < s.triangles(); ++t) {
        const Place &a = s.place(t, 0), &b = s.place(t, 1), &c = s.place(t, 2);
        const Point3 face = geometry::cross(geometry::minus(b, a), geometry::minus(c, a));
        std::array<double, 3> looks{};
        for (size_t k = 0; k < 3; ++k) {
            const Point3& n = s.normal[s.corner(t, k)];
            looks[k] = geometry::dot(n, face) < 0 ? -n[2] : n[2]; // a scan's triangles are wound as it likes
        }
        std::vector<std::pair<Chains::End, Place>> ends;
        for (size_t k = 0; k < 3; ++k) {
            const size_t l = (k + 1) % 3;
            if ((looks[k] < 0) == (looks[l] < 0)) continue;
            const double share = looks[k] / (looks[k] - looks[l]);
            ends.emplace_back(pairOf(s.corner(t, k), s.corner(t, l)), geometry::along(s.place(t, k), s.place(t, l), share));
        }
        if (ends.size() == 2) chains.add(ends[0].first, ends[0].second, ends[1].first, ends[1].second);
    }
}

/// Without places that lie within `off` of the straight line between those kept (Ramer, Douglas and Peucker).
void thinOut(const std::vector<std::array<double, 2>>& path, size_t from, size_t to, double off, std::vector<bool>& kept) {
    const double dx = path[to][0] - path[from][0], dy = path[to][1] - path[from][1], size = std::hypot(dx, dy);
    double most = off;
    size_t at = from;
    for (size_t i = from + 1; i < to; ++i) {
        const double x = path[i][0] - path[from][0], y = path[i][1] - path[from][1];
        const double d = size > 0 ? std::abs(x * dy - y * dx) / size : std::hypot(x, y);
        if (d > most) most = d, at = i;
    }
    if (at == from) return;
    kept[at] = true;
    thinOut(path, from, at, off, kept);
    thinOut(path, at, to, off, kept);
}

/// Cuts a line into what is seen plainly, through sheet, and not at all: neither is what lies behind a line that was cut before.
class Sighted {
public:
    Sighted(const Depths& solid, const Depths& sheet, bool seen_through, double px, double shortest_px)
        : solid_(solid), sheet_(sheet), seen_through_(seen_through), px_(px), shortest_px_(shortest_px),
          drawn_(static_cast<size_t>(solid.width()) * static_cast<size_t>(solid.height()), false) {}
    void cut(const std::vector<Place>& line, size_t part, std::vector<ScribedLine>& into) {
        std::vector<Place> fine{line.front()};
        for (size_t i = 1; i < line.size(); ++i) {
            const int n = std::max(
                1, static_cast<int>(std::ceil(std::hypot(line[i][0] - line[i - 1][0], line[i][1] - line[i - 1][1]) * px_)));
            for (int k = 1; k <= n; ++k) fine.push_back(geometry::along(line[i - 1], line[i], static_cast<double>(k) / n));
        }
        std::vector<int> sight;
        for (const Place& p : fine) sight.push_back(sightOf(p));
        const std::vector<bool> behind = behindOthers(fine);
        for (size_t i = 0; i < fine.size(); ++i)
            if (behind[i]) sight[i] = 2;
        for (size_t i = 2; i < sight.size(); ++i) // one that differs from both beside it says nothing
            if (sight[i] == sight[i - 2]) sight[i - 1] = sight[i];
        for (size_t i = 0; i < fine.size();) {
            size_t j = i;
            while (j + 1 < fine.size() && sight[j + 1] == sight[i]) ++j;
            // up to where the next one begins
            if (sight[i] < 2)
                add({fine.begin() + static_cast<std::ptrdiff_t>(i),
                     fine.begin() + static_cast<std::ptrdiff_t>(std::min(j + 2, fine.size()))},
                    part, sight[i], into);
            i = j + 1;
        }
    }

private:
    /// Where a line follows another that is drawn; to cross one is no matter.
    std::vector<bool> behindOthers(const std::vector<Place>& fine) {
        constexpr size_t crossing = 6;
        std::vector<size_t> pixel;
        for (const Place& p : fine) pixel.push_back(solid_.pixelOf(p));
        std::vector<bool> behind(fine.size(), false);
        for (size_t i = 0; i < fine.size();) {
            size_t j = i;
            while (j < fine.size() && drawn_[pixel[j]]) ++j;
            if (j - i > crossing)
                std::fill(behind.begin() + static_cast<std::ptrdiff_t>(i), behind.begin() + static_cast<std::ptrdiff_t>(j), true);
            i = std::max(j, i + 1);
        }
        for (const size_t p : pixel) drawn_[p] = true;
        return behind;
    }
    int sightOf(const Place& p) const {
        if (solid_.hides(p)) return 2;
        if (!sheet_.hides(p)) return 0;
        return seen_through_ ? 2 : 1;
    }
    void add(const std::vector<Place>& run, size_t part, int sight, std::vector<ScribedLine>& into) const {
        ScribedLine l{{}, part, sight == 0 ? Sight::Plain : Sight::Veiled};
        std::vector<std::array<double, 2>> path;
        double length = 0;
        for (const Place& p : run) {
            if (!path.empty()) length += std::hypot(p[0] - path.back()[0], p[1] - path.back()[1]);
            path.push_back({p[0], p[1]});
        }
        if (path.size() < 2 || length * px_ < shortest_px_) return;
        std::vector<bool> kept(path.size(), false);
        kept.front() = kept.back() = true;
        thinOut(path, 0, path.size() - 1, 0.35 / px_, kept);
        for (size_t i = 0; i < path.size(); ++i)
            if (kept[i]) l.path.push_back(path[i]);
        into.push_back(std::move(l));
    }
    const Depths& solid_;
    const Depths& sheet_;
    bool seen_through_;
    double px_, shortest_px_;
    std::vector<bool> drawn_; ///< pixels that a line of this part goes through
};

} // namespace

std::vector<ScribedLine> scribedLines(const std::vector<LinePart>& parts, const ViewAxes& view, const LineOptions& options,
                                      const std::function<bool()>& stop) {
    std::vector<Seen> seen;
    Place least{1e300, 1e300, 1e300}, most{-1e300, -1e300, -1e300};
    for (const LinePart& part : parts) {
        seen.emplace_back(part, view);
        for (const Place& p : seen.back().at)
            for (size_t axis = 0; axis < 3; ++axis) {
                least[axis] = std::min(least[axis], p[axis]);
                most[axis] = std::max(most[axis], p[axis]);
            }
    }
    std::vector<ScribedLine> all;
    const double longest = std::max(most[0] - least[0], most[1] - least[1]);
    if (!(longest > 0)) return all;
    const double px = (options.across_px - 4) / longest;
    const Place origin{least[0] - 2 / px, least[1] - 2 / px, 0};
    const auto pixels = [&](size_t axis) { return static_cast<int>(std::ceil((most[axis] - least[axis]) * px)) + 4; };
    Depths solid(origin, px, pixels(0), pixels(1)), sheet = solid;
    for (size_t i = 0; i < parts.size(); ++i)
        for (size_t t = 0; t < seen[i].triangles(); ++t)
            (parts[i].seen_through ? sheet : solid).add(seen[i].place(t, 0), seen[i].place(t, 1), seen[i].place(t, 2));
    for (size_t i = 0; i < parts.size(); ++i) {
        if (stop && stop()) return {};
        Sighted sighted(solid, sheet, parts[i].seen_through, px, options.shortest_px);
        Chains edges, outlines;
        addEdges(seen[i], edges);
        addOutlines(seen[i], outlines);
        std::vector<std::vector<Place>> lines = edges.lines();
        for (auto& line : outlines.lines()) lines.push_back(std::move(line));
        const auto near = [](const std::vector<Place>& line) {
            double sum = 0;
            for (const Place& p : line) sum += p[2];
            return sum / static_cast<double>(line.size());
        };
        std::stable_sort(lines.begin(), lines.end(), [&](const auto& a, const auto& b) { return near(a) > near(b); });
        for (const auto& line : lines) sighted.cut(line, i, all);
    }
    return all;
}

} // namespace gorvet::shape
