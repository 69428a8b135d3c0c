#include "make/plates.hpp"

#include <clipper.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numeric>
#include <random>
#include <tuple>

namespace gorvet::make {

using ClipperLib::cInt;
using ClipperLib::IntPoint;
using IntPath = ClipperLib::Path;
using IntPaths = ClipperLib::Paths;
using geometry::Flat;
using geometry::Outline;

namespace {

constexpr double grid_a_mm = 1e4; ///< units a mm
/// So much nearer than the gap two may come, so that a slot that fits exactly is one.
constexpr double laying_hair_mm = 0.002;

cInt onGrid(double mm) { return static_cast<cInt>(std::llround(mm * grid_a_mm)); }
double offGrid(cInt u) { return static_cast<double>(u) / grid_a_mm; }

Outline turnedBy(const Outline& o, int quarters) {
    Outline all;
    for (const auto& [a, b] : o)
        all.push_back(quarters == 0 ? Flat{a, b} : quarters == 1 ? Flat{-b, a} : quarters == 2 ? Flat{-a, -b} : Flat{b, -a});
    return all;
}

IntPath pathOf(const Outline& o) {
    IntPath p;
    for (const auto& [a, b] : o) p.emplace_back(onGrid(a), onGrid(b));
    if (!ClipperLib::Orientation(p)) std::reverse(p.begin(), p.end());
    return p;
}

bool isConvex(const IntPath& p) {
    for (std::size_t k = 0; k < p.size(); ++k) {
        const IntPoint &a = p[k], &b = p[(k + 1) % p.size()], &c = p[(k + 2) % p.size()];
        if (static_cast<double>(b.X - a.X) * static_cast<double>(c.Y - b.Y) -
                static_cast<double>(b.Y - a.Y) * static_cast<double>(c.X - b.X) <
            -1e-3 * grid_a_mm * grid_a_mm)
            return false;
    }
    return true;
}

/// Of two convex outlines: sides merged by their directions.
IntPath sumOfConvex(const IntPath& a, const IntPath& b) {
    const auto lowest = [](const IntPath& p) {
        return static_cast<std::size_t>(
            std::min_element(p.begin(), p.end(),
                             [](const IntPoint& s, const IntPoint& t) { return std::tie(s.Y, s.X) < std::tie(t.Y, t.X); }) -
            p.begin());
    };
    const std::size_t i = lowest(a), j = lowest(b);
    std::vector<IntPoint> sides;
    for (const auto& [p, first] : {std::pair{&a, i}, std::pair{&b, j}})
        for (std::size_t k = 0; k < p->size(); ++k) {
            const IntPoint &from = (*p)[(first + k) % p->size()], &to = (*p)[(first + k + 1) % p->size()];
            if (to.X != from.X || to.Y != from.Y) sides.emplace_back(to.X - from.X, to.Y - from.Y);
        }
    const auto lower = [](const IntPoint& v) { return v.Y < 0 || (v.Y == 0 && v.X < 0); };
    std::stable_sort(sides.begin(), sides.end(), [&](const IntPoint& s, const IntPoint& t) {
        if (lower(s) != lower(t)) return lower(t);
        return static_cast<double>(s.X) * static_cast<double>(t.Y) > static_cast<double>(s.Y) * static_cast<double>(t.X);
    });
    IntPath sum{{a[i].X + b[j].X, a[i].Y + b[j].Y}};
    for (std::size_t k = 0; k + 1 < sides.size(); ++k) sum.emplace_back(sum.back().X + sides[k].X, sum.back().Y + sides[k].Y);
    return sum;
}

/// Where the origin of `moving` must not come to, so that it stays out of `fixed`.
IntPaths noFit(const IntPath& fixed, const IntPath& moving) {
    IntPath mirrored;
    for (const IntPoint& p : moving) mirrored.emplace_back(-p.X, -p.Y);
    if (isConvex(fixed) && isConvex(mirrored)) return {sumOfConvex(fixed, mirrored)};
    IntPaths sum, whole;
    ClipperLib::MinkowskiSum(mirrored, fixed, sum, true);
    ClipperLib::Clipper c;
    c.AddPaths(sum, ClipperLib::ptSubject, true);
    c.Execute(ClipperLib::ctUnion, whole, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    // a hole of it is a place where it lies in a hollow, or one lies wholly within the other: only the first is free
    IntPaths kept;
    for (const IntPath& p : whole) {
        if (!ClipperLib::Orientation(p)) {
            IntPoint in = p.front();
            for (const IntPoint& q : p) // some place inside of the hole: near a corner of it, towards the next ones
                if (IntPoint middle((p[0].X + q.X) / 2, (p[0].Y + q.Y) / 2); ClipperLib::PointInPolygon(middle, p) == 1)
                    in = middle;
            // nor is a sliver between what was summed up, which rounding leaves
            constexpr double least_hollow_mm2 = 4;
            if (std::abs(ClipperLib::Area(p)) < least_hollow_mm2 * grid_a_mm * grid_a_mm ||
                ClipperLib::PointInPolygon(in, p) != 1)
                continue;
            IntPath there;
            for (const IntPoint& q : moving) there.emplace_back(q.X + in.X, q.Y + in.Y);
            ClipperLib::Clipper both;
            both.AddPath(there, ClipperLib::ptSubject, true);
            both.AddPath(fixed, ClipperLib::ptClip, true);
            IntPaths shared;
            both.Execute(ClipperLib::ctIntersection, shared, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
            if (!shared.empty()) continue;
        }
        kept.push_back(p);
    }
    return kept;
}

class PlateLayer {
public:
    explicit PlateLayer(const PlatesInput& in) : in_(in) {
        for (const PlatePiece& piece : in.pieces) {
            std::array<Shape, 4> all;
            for (int q = 0; q < 4; ++q) {
                Shape& s = all[static_cast<std::size_t>(q)];
                s.own = pathOf(turnedBy(piece.outline, q));
                ClipperLib::ClipperOffset grow(2.0);
                grow.AddPath(s.own, ClipperLib::jtMiter, ClipperLib::etClosedPolygon);
                IntPaths grown;
                grow.Execute(grown, (in.gap_mm - laying_hair_mm) * grid_a_mm);
                s.grown = grown.empty() ? s.own : grown.front();
                s.low = s.high = s.own.front();
                for (const IntPoint& p : s.own) {
                    s.low = {std::min(s.low.X, p.X), std::min(s.low.Y, p.Y)};
                    s.high = {std::max(s.high.X, p.X), std::max(s.high.Y, p.Y)};
                }
            }
            shapes_.push_back(std::move(all));
            areas_.push_back(geometry::areaOf(piece.outline));
        }
        for (std::size_t k = 0; k < in.pieces.size(); ++k)
            for (int n = 0; n < in.pieces[k].count; ++n) all_.push_back(k);
    }

    PlatesPlan best(int tries) {
        std::vector<std::vector<std::size_t>> orders;
        const auto by = [&](auto key) {
            std::vector<std::size_t> order = all_;
            std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return key(a) > key(b); });
            orders.push_back(std::move(order));
        };
        const auto side = [&](std::size_t k, bool longest) {
            const Shape& s = shapes_[k][0];
            const cInt w = s.high.X - s.low.X, h = s.high.Y - s.low.Y;
            return static_cast<double>(longest ? std::max(w, h) : std::min(w, h));
        };
        by([&](std::size_t k) { return areas_[k]; });
        by([&](std::size_t k) { return side(k, true); });
        by([&](std::size_t k) { return side(k, false); });
        std::mt19937 random(11);
        PlatesPlan best;
        std::vector<std::size_t> order;
        int tried = 0, best_policy = 0;
        for (; tried < std::max(1, tries); ++tried) {
            std::vector<std::size_t> next;
            const int policies = 3, known = static_cast<int>(orders.size()) * policies;
            int policy = best_policy;
            if (tried < known) {
                next = orders[static_cast<std::size_t>(tried / policies)];
                policy = tried % policies;
            } else { // the best so far, a few of them changed about
                next = order;
                if (next.size() < 2) break;
                for (int swaps = 0; swaps < 2; ++swaps) std::swap(next[random() % next.size()], next[random() % next.size()]);
            }
            policy_ = policy;
            PlatesPlan plan = lay(next);
            if (tried == 0 || better(plan, best)) {
                best = std::move(plan);
                order = std::move(next);
                best_policy = policy;
            }
        }
        best.tried = tried;
        best.least = least();
        return best;
    }

private:
    struct Shape {
        IntPath own, grown;
        IntPoint low, high;
    };
    struct Open {
        std::size_t plate = 0;
        std::vector<LaidPiece> pieces;
        cInt reaches = 0; ///< of what lies there, to the right
    };

    double costOf(std::size_t plate) const {
        const PlateSize& p = in_.plates[plate];
        if (p.count) return 0;
        return priced() ? *p.price : p.length_mm * p.width_mm * 1e-6;
    }
    bool priced() const {
        return std::all_of(in_.plates.begin(), in_.plates.end(), [](const PlateSize& p) { return p.count || p.price; });
    }

    /// What is laid there once stays; no plate, no cost: by area, after all that lies on the shelf.
    double least() const {
        double area = 0, shelf = 0, each = 1e18;
        for (const std::size_t k : all_) area += areas_[k];
        for (std::size_t k = 0; k < in_.plates.size(); ++k) {
            const PlateSize& p = in_.plates[k];
            const double own = p.length_mm * p.width_mm;
            if (p.count)
                shelf += own * *p.count;
            else
                each = std::min(each, costOf(k) / own);
        }
        double cheapest = 1e18; // a whole plate is bought, or none
        for (std::size_t k = 0; k < in_.plates.size(); ++k)
            if (!in_.plates[k].count) cheapest = std::min(cheapest, costOf(k));
        return area <= shelf || each > 1e17 ? 0 : std::max(cheapest, (area - shelf) * each);
    }

    static bool better(const PlatesPlan& a, const PlatesPlan& b) {
        const auto rest = [](const PlatesPlan& p) {
            double sum = 0;
            for (const PlateLayout& l : p.layouts) sum += l.rest_mm;
            return sum;
        };
        if (a.too_large.size() != b.too_large.size()) return a.too_large.size() < b.too_large.size();
        if (std::abs(a.cost - b.cost) > 1e-9) return a.cost < b.cost;
        if (a.layouts.size() != b.layouts.size()) return a.layouts.size() < b.layouts.size();
        return rest(a) > rest(b) + 1e-9;
    }

    const IntPaths& noFitOf(std::size_t fixed, int fixed_turn, std::size_t moving, int moving_turn) {
        const auto key = std::tuple{fixed, fixed_turn, moving, moving_turn};
        const auto known = no_fit_.find(key);
        if (known != no_fit_.end()) return known->second;
        return no_fit_[key] = noFit(shapes_[fixed][static_cast<std::size_t>(fixed_turn)].grown,
                                    shapes_[moving][static_cast<std::size_t>(moving_turn)].own);
    }

    /// Puts a piece into an open plate where it reaches least far, then lowest. False: it does not fit.
    bool put(Open& open, std::size_t piece) {
        const PlateSize& plate = in_.plates[open.plate];
        std::optional<std::tuple<cInt, cInt, cInt, int>> best;
        IntPoint at;
        int turn = 0;
        cInt reach = 0;
        for (int q = 0; q < 4; ++q) {
            const Shape& s = shapes_[piece][static_cast<std::size_t>(q)];
            const cInt hair = onGrid(laying_hair_mm), x0 = onGrid(in_.edge_mm) - s.low.X, y0 = onGrid(in_.edge_mm) - s.low.Y,
                       x1 = onGrid(plate.length_mm - in_.edge_mm) - s.high.X + hair,
                       y1 = onGrid(plate.width_mm - in_.edge_mm) - s.high.Y + hair;
            if (x1 < x0 || y1 < y0) continue;
            IntPaths free;
            if (open.pieces.empty()) {
                free = {{{x0, y0}}};
            } else {
                free = {{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}};
                const auto without = [&](const IntPaths& no) {
                    if (no.empty() || free.empty()) return;
                    ClipperLib::Clipper c;
                    c.AddPaths(free, ClipperLib::ptSubject, true);
                    c.AddPaths(no, ClipperLib::ptClip, true);
                    IntPaths less;
                    c.Execute(ClipperLib::ctDifference, less, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
                    free = std::move(less);
                };
                IntPaths whole; // those without a hollow at once; a hollow of one may be filled by another
                for (const LaidPiece& lies : open.pieces) {
                    IntPaths no = noFitOf(lies.piece, lies.quarters, piece, q);
                    for (IntPath& p : no)
                        for (IntPoint& v : p) v = {v.X + onGrid(lies.at.first), v.Y + onGrid(lies.at.second)};
                    if (no.size() == 1)
                        whole.push_back(no.front());
                    else
                        without(no);
                }
                without(whole);
            }
            for (const IntPath& p : free)
                for (const IntPoint& v : p) {
                    const cInt right = v.X + s.high.X, left = v.X + s.low.X, low = v.Y + s.low.Y;
                    const std::tuple<cInt, cInt, cInt, int> key =
                        policy_ == 0   ? std::tuple{right, low, left, q}
                        : policy_ == 1 ? std::tuple{left, low, -right, q}
                                       : std::tuple{std::max(right, open.reaches), low + left, right, q};
                    if (best && key >= *best) continue;
                    best = key;
                    at = v;
                    turn = q;
                    reach = right;
                }
        }
        if (!best) return false;
        open.pieces.push_back({piece, turn, {offGrid(at.X), offGrid(at.Y)}});
        open.reaches = std::max(open.reaches, reach);
        return true;
    }

    PlatesPlan lay(const std::vector<std::size_t>& order) {
        PlatesPlan plan;
        std::vector<Open> open;
        std::vector<int> left;
        for (const PlateSize& p : in_.plates) left.push_back(p.count.value_or(1'000'000));
        // the smallest of the shelf first, then what is bought cheapest by its area
        std::vector<std::size_t> plates(in_.plates.size());
        std::iota(plates.begin(), plates.end(), std::size_t{0});
        std::stable_sort(plates.begin(), plates.end(), [&](std::size_t a, std::size_t b) {
            const auto key = [&](std::size_t k) {
                const PlateSize& p = in_.plates[k];
                const double area = p.length_mm * p.width_mm;
                return p.count ? std::pair{0, area} : std::pair{1, costOf(k) / area};
            };
            return key(a) < key(b);
        });
        for (const std::size_t piece : order) {
            if (std::any_of(open.begin(), open.end(), [&](Open& o) { return put(o, piece); })) continue;
            bool laid = false;
            for (const std::size_t k : plates) {
                if (left[k] == 0) continue;
                Open fresh{k, {}, 0};
                if (!put(fresh, piece)) continue;
                --left[k];
                open.push_back(std::move(fresh));
                laid = true;
                break;
            }
            if (!laid) plan.too_large.push_back(piece);
        }
        for (Open& o : open) {
            const PlateSize& plate = in_.plates[o.plate];
            PlateLayout l;
            l.plate = o.plate;
            for (const LaidPiece& p : o.pieces) l.share += areas_[p.piece];
            l.share /= plate.length_mm * plate.width_mm;
            l.rest_mm = std::max(0.0, plate.length_mm - offGrid(o.reaches) - in_.gap_mm);
            l.pieces = std::move(o.pieces);
            plan.cost += costOf(o.plate);
            plan.layouts.push_back(std::move(l));
        }
        return plan;
    }

    const PlatesInput& in_;
    std::vector<std::array<Shape, 4>> shapes_;
    int policy_ = 0; ///< by what a place is better: how far it reaches, where it begins, or what the plate's end is then
    std::vector<double> areas_;
    std::vector<std::size_t> all_;
    std::map<std::tuple<std::size_t, int, std::size_t, int>, IntPaths> no_fit_;
};

} // namespace

Flat laid(const LaidPiece& p, const Flat& place) {
    const Flat q = turnedBy(Outline{place}, p.quarters).front();
    return {q.first + p.at.first, q.second + p.at.second};
}

Outline laid(const PlatesInput& in, const LaidPiece& p) {
    Outline o = in.pieces[p.piece].outline;
    for (Flat& corner : o) corner = laid(p, corner);
    return o;
}

PlatesPlan layPlates(const PlatesInput& in, int tries) { return PlateLayer(in).best(tries); }

} // namespace gorvet::make
