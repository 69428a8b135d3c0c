#include "shape/sides.hpp"

#include "shape/disjoint_sets.hpp"

#include <algorithm>
#include <cstring>

namespace gorvet::shape {
namespace {

using kernel::nothing;

std::uint64_t placeKey(const Point3& p) {
    std::uint64_t h = 0x9e3779b97f4a7c15ULL;
    for (std::size_t axis = 0; axis < 3; ++axis) {
        const double v = p[axis] + 0.0; // −0 is 0
        std::uint64_t bits = 0;
        std::memcpy(&bits, &v, sizeof bits);
        h = (h ^ bits) * 0xff51afd7ed558ccdULL;
        h ^= h >> 32;
    }
    return h;
}

Point3 wide(const std::array<float, 3>& n) { return {n[0], n[1], n[2]}; }

} // namespace

Sides::Sides(const DistanceTree& tree) : tree_(&tree) {
    findNeighbours();
    findPieces();
    if (!all_closed_) {
        joinPoints();
        if (!same_.empty()) {
            findNeighbours();
            findPieces();
        }
    }
    if (!any_closed_) return;
    findCavities();
    weighNormals();
    markTriangles();
}

size_t Sides::bytes() const {
    return sizeof *this + same_.size() * 4 + neighbours_.size() * 12 + piece_of_.size() * 4 + pieces_.size() * sizeof(Piece) +
           corner_normals_.size() * 12 + crowded_.size() / 8 + marks_.size();
}

/// An open-addressed table of places, of the points of open pieces.
void Sides::joinPoints() {
    const Mesh& m = tree_->mesh();
    std::vector<bool> open(m.points.size(), false);
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        if (!pieces_[piece_of_[t]].closed)
            for (const std::uint32_t p : m.triangles[t]) open[p] = true;
    size_t room = 16;
    while (room < 2 * m.points.size()) room *= 2;
    std::vector<std::uint32_t> table(room, nothing);
    std::vector<std::uint32_t> same(m.points.size());
    bool doubled = false;
    for (std::uint32_t i = 0; i < m.points.size(); ++i) {
        same[i] = i;
        if (!open[i]) continue;
        size_t at = placeKey(m.points[i]) & (room - 1);
        while (table[at] != nothing && m.points[table[at]] != m.points[i]) at = (at + 1) & (room - 1);
        if (table[at] == nothing)
            table[at] = i;
        else
            doubled = true;
        same[i] = table[at];
    }
    if (doubled) same_ = std::move(same);
}

void Sides::findNeighbours() {
    const Mesh& m = tree_->mesh();
    neighbours_.assign(m.triangles.size(), {nothing, nothing, nothing});
    crowded_.assign(m.triangles.size(), false);
    // sides by their lower point: counted, then put in rows
    std::vector<std::uint32_t> first(m.points.size() + 1, 0);
    const auto side = [&](const Triangle& t, size_t k) {
        const std::uint32_t a = pointOf(t[k]), b = pointOf(t[(k + 1) % 3]);
        return std::pair(std::min(a, b), std::max(a, b));
    };
    for (const Triangle& t : m.triangles)
        for (size_t k = 0; k < 3; ++k) ++first[side(t, k).first + 1];
    for (size_t i = 1; i < first.size(); ++i) first[i] += first[i - 1];
    struct Side {
        std::uint32_t high;
        std::uint32_t place; ///< 4 × triangle + side
    };
    std::vector<Side> sides(3 * m.triangles.size());
    std::vector<std::uint32_t> next(first.begin(), first.end() - 1);
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        for (std::uint32_t k = 0; k < 3; ++k) {
            const auto [low, high] = side(m.triangles[t], k);
            sides[next[low]++] = {high, 4 * t + k};
        }
    for (size_t p = 0; p + 1 < first.size(); ++p) {
        const auto from = sides.begin() + first[p], to = sides.begin() + first[p + 1];
        std::sort(from, to, [](const Side& a, const Side& b) { return a.high < b.high; });
        for (auto s = from; s != to;) {
            auto end = s;
            while (end != to && end->high == s->high) ++end;
            if (end - s == 2) {
                const std::uint32_t t = s->place / 4, u = s[1].place / 4;
                const size_t k = s->place % 4, j = s[1].place % 4;
                neighbours_[t][k] = u;
                neighbours_[u][j] = t;
                // facing alike, one runs along it forward and the other back
                if (pointOf(m.triangles[t][k]) == pointOf(m.triangles[u][j])) crowded_[t] = crowded_[u] = true;
            } else if (end - s > 2) {
                for (auto c = s; c != end; ++c) crowded_[c->place / 4] = true;
            }
            s = end;
        }
    }
}

Point3 Sides::faceNormal(std::uint32_t triangle) const {
    const Corners c = cornersOf(tree_->mesh(), triangle);
    return unit(cross(minus(c[1], c[0]), minus(c[2], c[0])));
}

void Sides::findPieces() {
    const Mesh& m = tree_->mesh();
    DisjointSets groups(m.triangles.size());
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        for (const std::uint32_t u : neighbours_[t])
            if (u != nothing && u < t) groups.join(t, u);
    std::uint32_t count = 0;
    piece_of_ = groups.numbered(count);
    pieces_.assign(count, {});
    for (Piece& p : pieces_) p.closed = true;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        Piece& p = pieces_[piece_of_[t]];
        const Corners c = cornersOf(m, t);
        ++p.triangles;
        for (const Point3& q : c) p.box.take(q);
        for (const std::uint32_t u : neighbours_[t])
            if (u == nothing || crowded_[t]) p.closed = false;
        p.volume_mm3 += orientation(c[0], c[1], c[2], tree_->middle()) / 6;
    }
    all_closed_ = !pieces_.empty();
    any_closed_ = false;
    closed_box_ = {};
    closed_.clear();
    for (std::uint32_t i = 0; i < pieces_.size(); ++i) {
        Piece& p = pieces_[i];
        // of no volume, it has no inside either
        if (p.closed && std::abs(p.volume_mm3) < 1e-9) p.closed = false;
        all_closed_ = all_closed_ && p.closed;
        if (!p.closed) {
            p.volume_mm3 = 0;
            continue;
        }
        p.turned = p.volume_mm3 < 0;
        p.volume_mm3 = std::abs(p.volume_mm3);
        closed_box_.take(p.box);
        any_closed_ = true;
        closed_.push_back(i);
    }
}

bool Sides::mayReachInside(const Point3& p, double radius) const {
    const geometry::Box3 round{minus(p, {radius, radius, radius}), plus(p, {radius, radius, radius})};
    if (!any_closed_ || !closed_box_.meets(round)) return false;
    // of very many pieces the box round all must do
    if (closed_.size() > 300) return true;
    return std::any_of(closed_.begin(), closed_.end(), [&](std::uint32_t i) { return pieces_[i].box.meets(round); });
}

/// A piece wound inwards is a cavity when it lies wholly inside another, else it is turned inside out.
void Sides::findCavities() {
    const Mesh& m = tree_->mesh();
    for (std::uint32_t i = 0; i < pieces_.size(); ++i) {
        Piece& p = pieces_[i];
        if (!p.turned) continue;
        const bool within = std::any_of(pieces_.begin(), pieces_.end(),
                                        [&](const Piece& q) { return &q != &p && q.closed && q.box.contains(p.box); });
        if (!within) continue;
        bool all_inside = true;
        const size_t every = std::max<size_t>(1, p.triangles / 12);
        size_t met = 0;
        for (std::uint32_t t = 0; t < m.triangles.size() && all_inside; ++t)
            if (piece_of_[t] == i && met++ % every == 0) all_inside = winding(m.points[m.triangles[t][0]], i) > 0;
        p.hollow = all_inside;
        p.turned = !all_inside;
    }
}

void Sides::weighNormals() {
    const Mesh& m = tree_->mesh();
    std::vector<std::array<float, 3>> normals(m.points.size(), {0, 0, 0});
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        if (!pieces_[piece_of_[t]].closed) continue;
        const Corners c = cornersOf(m, t);
        const Point3 n = faceNormal(t);
        for (size_t k = 0; k < 3; ++k) {
            const Point3 a = minus(c[(k + 1) % 3], c[k]), b = minus(c[(k + 2) % 3], c[k]);
            const double angle = std::atan2(length(cross(a, b)), dot(a, b));
            auto& sum = normals[pointOf(m.triangles[t][k])];
            for (size_t axis = 0; axis < 3; ++axis) sum[axis] += static_cast<float>(n[axis] * angle);
        }
    }
    corner_normals_ = std::move(normals);
}

/// Where pieces cut or hold each other, the nearest place does not tell. Triangles that cut another piece are doubtful; the rest
/// falls into patches, each wholly inside another piece or wholly outside.
void Sides::markTriangles() {
    const Mesh& m = tree_->mesh();
    marks_.assign(m.triangles.size(), 0);
    std::vector<Point3> normals(m.triangles.size());
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) normals[t] = faceNormal(t);
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        for (size_t k = 0; k < 3; ++k)
            if (const std::uint32_t u = neighbours_[t][k]; u != nothing) {
                const bool blunt = dot(normals[t], normals[u]) > 1e-3;
                // the other's far corner lies behind this face
                const Corners own = cornersOf(m, t), other = cornersOf(m, u);
                const Point3 middle = times(plus(other[0], plus(other[1], other[2])), 1.0 / 3);
                const bool out = dot(normals[t], minus(middle, own[k])) <= 0;
                marks_[t] = static_cast<std::uint8_t>(marks_[t] | (blunt ? Blunt0 << k : out ? StandsOut0 << k : 0));
            }
    std::vector<bool> may(pieces_.size(), false);
    bool some = false;
    for (const std::uint32_t i : closed_)
        for (const std::uint32_t j : closed_)
            if (i != j && pieces_[i].box.meets(pieces_[j].box)) may[i] = some = true;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        if (!pieces_[piece_of_[t]].closed)
            marks_[t] |= Doubtful;
        else if (pieces_[piece_of_[t]].turned)
            marks_[t] |= Turned;
    if (!some) return;

    const auto closedBoxMeets = [&](std::uint32_t own, const geometry::Box3& box) {
        return std::any_of(closed_.begin(), closed_.end(),
                           [&](std::uint32_t j) { return j != own && pieces_[j].box.meets(box); });
    };
    std::vector<bool> cut(m.triangles.size(), false);
    const bool few = closed_.size() <= 64;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        const std::uint32_t own = piece_of_[t];
        if (!may[own] || !pieces_[own].closed || cut[t]) continue;
        const Corners c = cornersOf(m, t);
        geometry::Box3 box;
        for (const Point3& p : c) box.take(p);
        if (few && !closedBoxMeets(own, box)) continue;
        tree_->inBox(box.min, box.max, [&](std::uint32_t u) {
            if (piece_of_[u] == own || !pieces_[piece_of_[u]].closed || !meet(c, cornersOf(m, u))) return true;
            cut[t] = cut[u] = true;
            return false;
        });
    }
    DisjointSets patches(m.triangles.size());
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        for (const std::uint32_t u : neighbours_[t])
            if (u != nothing && u < t && !cut[t] && !cut[u]) patches.join(t, u);
    std::vector<char> known(m.triangles.size(), 0); // of a patch, by its root: 1 outside, 2 inside
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t) {
        const Piece& p = pieces_[piece_of_[t]];
        if (!p.closed || !may[piece_of_[t]]) continue;
        if (cut[t]) {
            marks_[t] |= Doubtful;
            continue;
        }
        const std::uint32_t r = patches.find(t);
        if (known[r] == 0) {
            const Corners c = cornersOf(m, r);
            const Point3 middle = times(plus(c[0], plus(c[1], c[2])), 1.0 / 3);
            known[r] = winding(middle, piece_of_[r]) > 0 ? 2 : 1;
        }
        // the wall of a cavity lies inside its piece and is the true surface all the same: left to the winding number
        if (known[r] == 2) marks_[t] |= Doubtful;
    }
}

int Sides::winding(const Point3& p, std::uint32_t without) const {
    if (!mayReachInside(p, 0)) return 0;
    // ways that no frame is built along
    static constexpr Point3 ways[] = {{0.5377, 0.7231, 0.4338},   {-0.6123, 0.3817, 0.6924},  {0.3171, -0.8443, 0.4319},
                                      {0.2447, 0.3989, -0.8837},  {-0.7219, -0.4127, 0.5555}, {0.8817, -0.1129, -0.4581},
                                      {-0.1373, 0.6637, -0.7353}, {-0.4733, -0.5871, -0.6567}};
    const Mesh& m = tree_->mesh();
    int count = 0;
    for (const Point3& way : ways) {
        count = 0;
        bool sure = true;
        tree_->onRay(p, way, [&](std::uint32_t t) {
            const Piece& piece = pieces_[piece_of_[t]];
            if (!sure || !piece.closed || piece_of_[t] == without) return;
            const Corners c = cornersOf(m, t);
            const Point3 e1 = minus(c[1], c[0]), e2 = minus(c[2], c[0]);
            const Point3 h = cross(way, e2);
            const double a = dot(e1, h); // < 0: the ray leaves through the front
            const double size = length(e1) * length(e2);
            if (std::abs(a) <= 1e-9 * size) {
                // along the plane: harmless unless it is met
                const Point3 n = cross(e1, e2);
                if (std::abs(dot(n, minus(p, c[0]))) <= 1e-7 * size) sure = false;
                return;
            }
            const Point3 s = minus(p, c[0]);
            const double u = dot(s, h) / a;
            const Point3 q = cross(s, e1);
            const double v = dot(way, q) / a;
            const double least = std::min(u, std::min(v, 1 - u - v));
            if (least < -1e-9) return;
            const double at = dot(e2, q) / a;
            if (at < -1e-9) return;
            if (least < 1e-9 || at < 1e-9) {
                sure = false;
                return;
            }
            const bool leaves = a < 0;
            count += leaves != piece.turned ? 1 : -1;
        });
        if (sure) return count;
    }
    return count;
}

bool Sides::inside(const Point3& p, const Nearest& nearest) const {
    if (!any_closed_) return false;
    if (nearest.triangle == nothing) return inside(p, nearest, 0);
    const Corners c = cornersOf(tree_->mesh(), nearest.triangle);
    return inside(p, nearest, dot(cross(minus(c[1], c[0]), minus(c[2], c[0])), minus(p, nearest.foot.at)));
}

bool Sides::inside(const Point3& p, const Nearest& nearest, double along_normal) const {
    if (!any_closed_ || !closed_box_.contains(p)) return false;
    const std::uint32_t t = nearest.triangle;
    if (t == nothing || (marks_[t] & Doubtful)) return winding(p) > 0;
    const auto feature = static_cast<int>(nearest.foot.feature);
    double side = along_normal;
    if (feature >= static_cast<int>(Feature::Corner0)) {
        const std::uint32_t corner = tree_->mesh().triangles[t][static_cast<size_t>(feature) - 4];
        side = dot(wide(corner_normals_[pointOf(corner)]), minus(p, nearest.foot.at));
    } else if (feature >= static_cast<int>(Feature::Side0) && !(marks_[t] & (Blunt0 << (feature - 1)))) {
        return ((marks_[t] & (StandsOut0 << (feature - 1))) != 0) == ((marks_[t] & Turned) != 0);
    }
    return marks_[t] & Turned ? side > 0 : side < 0;
}

bool Sides::inside(const Point3& p) const {
    if (!mayReachInside(p, 0)) return false;
    return inside(p, tree_->nearest(p, 1e9));
}

} // namespace gorvet::shape
