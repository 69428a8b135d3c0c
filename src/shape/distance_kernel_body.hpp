// The wide code, compiled once for each kind of processor as ENTRY. Everything is in a nameless namespace, so that nothing of it
// can be taken for another file's.
#include "shape/distance_kernel.hpp"

#if defined(__AVX2__)
#include <immintrin.h>
#endif

namespace gorvet::shape::kernel {
namespace {

// GCC makes one, two or four registers of these, as the processor has them
typedef float Wide __attribute__((vector_size(64)));
typedef float Eight __attribute__((vector_size(32)));
typedef unsigned Mask;
typedef double Doubles __attribute__((vector_size(64)));
static_assert(node_width == 16 && run_width == 16 && leaf_width == 16);

template <class F> inline F all(float v) { return F{} + v; }
template <class F, class T> inline F load(const T* p) { return *reinterpret_cast<const F*>(p); }
template <class F, class T> inline void store(T* p, F v) { __builtin_memcpy(p, &v, sizeof v); }

#if defined(__AVX2__)
inline Eight least(Eight a, Eight b) { return (Eight)_mm256_min_ps((__m256)a, (__m256)b); }
inline float lesser(float a, float b) { return _mm_cvtss_f32(_mm_min_ss(_mm_set_ss(a), _mm_set_ss(b))); }
inline Eight most(Eight a, Eight b) { return (Eight)_mm256_max_ps((__m256)a, (__m256)b); }
inline Mask below(Eight a, Eight b) {
    return static_cast<Mask>(_mm256_movemask_ps(_mm256_cmp_ps((__m256)a, (__m256)b, _CMP_LT_OQ)));
}
inline float leastOf(Eight a) {
    const __m256 v = (__m256)a;
    __m128 h = _mm_min_ps(_mm256_castps256_ps128(v), _mm256_extractf128_ps(v, 1));
    h = _mm_min_ps(h, _mm_movehl_ps(h, h));
    return _mm_cvtss_f32(_mm_min_ss(h, _mm_movehdup_ps(h)));
}
#else
inline Eight least(Eight a, Eight b) { return a < b ? a : b; }
inline float lesser(float a, float b) { return a < b ? a : b; }
inline Eight most(Eight a, Eight b) { return a > b ? a : b; }
inline Mask below(Eight a, Eight b) {
    Mask m = 0;
    for (int i = 0; i < 8; ++i) m |= static_cast<Mask>(a[i] < b[i]) << i;
    return m;
}
inline float leastOf(Eight a) {
    float l = a[0];
    for (int i = 1; i < 8; ++i) l = a[i] < l ? a[i] : l;
    return l;
}
#endif
#if defined(__AVX512F__)
inline Wide least(Wide a, Wide b) { return (Wide)_mm512_min_ps((__m512)a, (__m512)b); }
inline Wide most(Wide a, Wide b) { return (Wide)_mm512_max_ps((__m512)a, (__m512)b); }
inline Mask below(Wide a, Wide b) { return _mm512_cmp_ps_mask((__m512)a, (__m512)b, _CMP_LT_OQ); }
inline float mostOf(Wide a) { return _mm512_reduce_max_ps((__m512)a); }
#else
struct Halves {
    Eight low, high;
};
inline Halves halves(const Wide& w) {
    Halves h;
    __builtin_memcpy(&h, &w, sizeof h);
    return h;
}
inline Wide whole(Eight low, Eight high) {
    const Halves h{low, high};
    Wide w;
    __builtin_memcpy(&w, &h, sizeof w);
    return w;
}
inline Wide least(Wide a, Wide b) {
    const Halves p = halves(a), q = halves(b);
    return whole(least(p.low, q.low), least(p.high, q.high));
}
inline Wide most(Wide a, Wide b) {
    const Halves p = halves(a), q = halves(b);
    return whole(most(p.low, q.low), most(p.high, q.high));
}
inline Mask below(Wide a, Wide b) {
    const Halves p = halves(a), q = halves(b);
    return below(p.low, q.low) | below(p.high, q.high) << 8;
}
inline float mostOf(Wide a) {
    const Halves h = halves(a);
    return -leastOf(least(-h.low, -h.high));
}
#endif

#if defined(__AVX512F__)
/// 1/a by Newton from a first guess: half the time of a division.
inline Wide per(Wide a) {
    const Wide r = (Wide)_mm512_rcp14_ps((__m512)a);
    return r * (2.0F - a * r);
}
#else
inline Wide per(Wide a) { return 1.0F / a; }
#endif

/// What of a leaf's triangles is the same for every point.
struct Prepared {
    Wide ax, ay, az, ux, uy, uz, vx, vy, vz, nx, ny, nz;
    Wide b, cu, cv, eu, per_cc, per_ee;
};
inline Prepared prepared(const Leaf& l) {
    const Wide tiny = all<Wide>(1e-30F);
    Prepared t;
    t.ax = load<Wide>(l.a[0]), t.ay = load<Wide>(l.a[1]), t.az = load<Wide>(l.a[2]);
    t.ux = load<Wide>(l.u[0]), t.uy = load<Wide>(l.u[1]), t.uz = load<Wide>(l.u[2]);
    t.vx = load<Wide>(l.v[0]), t.vy = load<Wide>(l.v[1]), t.vz = load<Wide>(l.v[2]);
    t.nx = t.uy * t.vz - t.uz * t.vy, t.ny = t.uz * t.vx - t.ux * t.vz, t.nz = t.ux * t.vy - t.uy * t.vx;
    t.b = load<Wide>(l.b_along), t.cu = load<Wide>(l.c_along), t.cv = load<Wide>(l.c_across);
    t.eu = t.cu - t.b;
    t.per_cc = per(most(t.cu * t.cu + t.cv * t.cv, tiny));
    t.per_ee = per(most(t.eu * t.eu + t.cv * t.cv, tiny));
    return t;
}

/// Squared distances to them: above the plane, and in it to the nearest of the three sides unless the foot is inside.
inline Wide squaredTo(const Prepared& t, float x, float y, float z) {
    const Wide zero{};
    const Wide one = all<Wide>(1);
    const Wide px = x - t.ax, py = y - t.ay, pz = z - t.az;
    const Wide u = px * t.ux + py * t.uy + pz * t.uz;
    const Wide v = px * t.vx + py * t.vy + pz * t.vz;
    const Wide h = px * t.nx + py * t.ny + pz * t.nz;
    const Wide ub = u - t.b;
    // side a→b
    const Wide r = u - least(most(u, zero), t.b);
    Wide d = r * r + v * v;
    // side a→c
    Wide s = least(most((u * t.cu + v * t.cv) * t.per_cc, zero), one);
    Wide ru = u - s * t.cu, rv = v - s * t.cv;
    d = least(d, ru * ru + rv * rv);
    // side b→c
    s = least(most((ub * t.eu + v * t.cv) * t.per_ee, zero), one);
    ru = ub - s * t.eu, rv = v - s * t.cv;
    d = least(d, ru * ru + rv * rv);
    const Wide within = least(least(v, u * t.cv - v * t.cu), v * t.eu - ub * t.cv);
    return h * h + (within > zero ? zero : d);
}

/// The points and their nearest so far.
struct Search {
    alignas(64) float best[run_width]; ///< squared
    float most_best;
    float low[3], high[3]; ///< the box round all points
};

/// Tries a leaf for the points of the mask.
inline void tryLeaf(const Tree& tree, std::uint32_t leaf, Mask which, Run& r, Search& s) {
    const Leaf& l = tree.leaves[leaf];
    const Prepared t = prepared(l);
    // without branches: whether a leaf is nearer is anyone's guess
    std::uint32_t better = 0;
    for (; which; which &= which - 1) {
        const int i = __builtin_ctz(which);
        const Wide d = squaredTo(t, r.at[0][i], r.at[1][i], r.at[2][i]);
        const float nearest = -mostOf(-d);
        const Mask it = below(d, all<Wide>(nearest * 1.0000002F + 1e-36F));
        const std::uint32_t triangle = l.triangle[__builtin_ctz(it | (1U << (leaf_width - 1)))];
        const std::uint32_t nearer = -static_cast<std::uint32_t>(nearest < s.best[i]); // all ones, or none
        s.best[i] = lesser(nearest, s.best[i]);
        r.triangle[i] ^= (r.triangle[i] ^ triangle) & nearer;
        better |= nearer;
    }
    if (better) s.most_best = mostOf(load<Wide>(s.best));
}

/// Squared distances of a node's boxes to the box round all points.
inline Wide boxesToAll(const Node& n, const Search& s) {
    const Wide zero{};
    const Wide dx = most(most(load<Wide>(n.least[0]) - s.high[0], s.low[0] - load<Wide>(n.most[0])), zero);
    const Wide dy = most(most(load<Wide>(n.least[1]) - s.high[1], s.low[1] - load<Wide>(n.most[1])), zero);
    const Wide dz = most(most(load<Wide>(n.least[2]) - s.high[2], s.low[2] - load<Wide>(n.most[2])), zero);
    return dx * dx + dy * dy + dz * dz;
}
/// Squared distances of all points to one of a node's boxes.
inline Wide allToBox(const Run& r, const Node& n, int i) {
    const Wide zero{};
    const Wide x = load<Wide>(r.at[0]), y = load<Wide>(r.at[1]), z = load<Wide>(r.at[2]);
    const Wide dx = most(most(n.least[0][i] - x, x - n.most[0][i]), zero);
    const Wide dy = most(most(n.least[1][i] - y, y - n.most[1][i]), zero);
    const Wide dz = most(most(n.least[2][i] - z, z - n.most[2][i]), zero);
    return dx * dx + dy * dy + dz * dz;
}

#if defined(__AVX512F__)
inline Wide root(Wide a) { return (Wide)_mm512_sqrt_ps((__m512)a); }
#else
inline Wide root(Wide a) {
#if defined(__AVX2__)
    const Halves h = halves(a);
    return whole((Eight)_mm256_sqrt_ps((__m256)h.low), (Eight)_mm256_sqrt_ps((__m256)h.high));
#endif
    for (int i = 0; i < run_width; ++i) a[i] = __builtin_sqrtf(a[i]);
    return a;
}
#endif
#if defined(__AVX512F__)
inline Doubles root(Doubles a) { return (Doubles)_mm512_sqrt_pd((__m512d)a); }
#else
inline Doubles root(Doubles a) {
    for (int i = 0; i < 8; ++i) a[i] = __builtin_sqrt(a[i]);
    return a;
}
#endif
/// The points that a leaf's disc may be near to. A little generous, for what single precision rounds away.
inline Mask nearDisc(const Run& r, const Leaf& l, Wide best) {
    const Wide zero{};
    const Wide x = load<Wide>(r.at[0]) - l.middle[0], y = load<Wide>(r.at[1]) - l.middle[1],
               z = load<Wide>(r.at[2]) - l.middle[2];
    const Wide h = x * l.normal[0] + y * l.normal[1] + z * l.normal[2];
    const Wide qx = x - h * l.normal[0], qy = y - h * l.normal[1], qz = z - h * l.normal[2];
    const Wide beside = most(root(qx * qx + qy * qy + qz * qz) - l.radius, zero);
    const Wide above = most(most(h, -h) - l.half_thickness, zero);
    return below(beside * beside + above * above, best * 1.0001F + 1e-3F);
}

/// The children that are leaves, or none at all.
inline Mask leavesOf(const Node& n) {
#if defined(__AVX512F__)
    return _mm512_movepi32_mask(_mm512_load_si512(n.child));
#else
    Mask m = 0;
    for (int i = 0; i < node_width; ++i) m |= (n.child[i] >> 31) << i;
    return m;
#endif
}
template <class T> inline void bringNear(const T& t) {
    const char* const memory = reinterpret_cast<const char*>(&t);
    for (size_t line = 0; line < sizeof(T); line += 64) __builtin_prefetch(memory + line);
}

struct Waiting {
    float squared;
    std::uint32_t node;
};
/// Puts what is near on the stack, the farthest lowest.
inline void push(const Node* nodes, Waiting* stack, int& waiting, const Node& n, Wide squared, Mask near) {
    const int from = waiting;
    for (; near; near &= near - 1) {
        const int i = __builtin_ctz(near);
        const Waiting w{squared[i], n.child[i]};
        bringNear(nodes[n.child[i]]);
        int k = waiting++;
        for (; k > from && stack[k - 1].squared < w.squared; --k) stack[k] = stack[k - 1];
        stack[k] = w;
    }
}

void run(const Tree& tree, Run& r) {
    Search s;
    for (int axis = 0; axis < 3; ++axis) {
        const Wide at = load<Wide>(r.at[axis]);
        s.low[axis] = -mostOf(-at);
        s.high[axis] = mostOf(at);
    }
    // a little more than the cap, for what single precision rounds away
    const float cap = r.cap * 1.000001F + 1e-3F;
    store(s.best, all<Wide>(cap * cap));
    for (int i = r.points; i < run_width; ++i) s.best[i] = -1; // nothing is nearer than that to an unused place
    for (std::uint32_t& t : r.triangle) t = nothing;
    if (tree.root == nothing) return;
    const Mask everyone = (1U << r.points) - 1;
    if (r.known > 0) {
        Wide nearest = all<Wide>(3e38F);
        for (int k = 0; k < r.known; ++k) {
            const Wide dx = load<Wide>(r.at[0]) - r.known_at[k][0], dy = load<Wide>(r.at[1]) - r.known_at[k][1],
                       dz = load<Wide>(r.at[2]) - r.known_at[k][2];
            nearest = least(nearest, dx * dx + dy * dy + dz * dz);
        }
        // a little farther, for what single precision rounds away: the place itself must not be missed
        float span = 0;
        for (int axis = 0; axis < 3; ++axis) {
            const float a = s.high[axis] > -s.low[axis] ? s.high[axis] : -s.low[axis];
            span = a > span ? a : span;
        }
        const Wide bound = root(nearest) * 1.00001F + (1e-3F + 1e-6F * (span + r.cap));
        store(s.best, least(load<Wide>(s.best), bound * bound));
    }
    s.most_best = mostOf(load<Wide>(s.best));
    if (tree.root & leaf_bit) {
        tryLeaf(tree, 0, everyone, r, s);
        return;
    }
    Waiting stack[node_width * 72];
    int waiting = 0;
    std::uint32_t node = tree.root;
    for (;;) {
        const Node& n = tree.nodes[node];
        const Wide squared = boxesToAll(n, s);
        // leaves at once, each for the points it may be near to; nodes later
        const Mask near = below(squared, all<Wide>(s.most_best));
        Mask hit = 0;
        Wide to_box[node_width];
        const Wide best = load<Wide>(s.best);
        for (Mask m = near; m; m &= m - 1) {
            const int i = __builtin_ctz(m);
            const Wide d = allToBox(r, n, i);
            to_box[i] = d;
            hit |= static_cast<Mask>(below(d, best) != 0) << i;
        }
        const Mask leaves = hit & leavesOf(n);
        const Mask inner = hit & ~leaves;
        Wide nearest_box = all<Wide>(3e38F);
        for (Mask m = leaves; m; m &= m - 1) {
            const int i = __builtin_ctz(m);
            bringNear(tree.leaves[n.child[i] & ~leaf_bit]);
            nearest_box = least(nearest_box, to_box[i]);
        }
        // each point first where its nearest box is: that is often the answer, and rules out most of the rest
        Mask tried[node_width];
        for (Mask m = leaves; m; m &= m - 1) {
            const int i = __builtin_ctz(m);
            const Mask first = ~below(nearest_box, to_box[i]) & below(to_box[i], load<Wide>(s.best)) & everyone;
            tried[i] = first;
            if (first) tryLeaf(tree, n.child[i] & ~leaf_bit, first, r, s);
        }
        for (Mask m = leaves; m; m &= m - 1) {
            const int i = __builtin_ctz(m);
            Mask which = below(to_box[i], load<Wide>(s.best)) & ~tried[i];
            if (which) which &= nearDisc(r, tree.leaves[n.child[i] & ~leaf_bit], load<Wide>(s.best));
            if (which) tryLeaf(tree, n.child[i] & ~leaf_bit, which, r, s);
        }
        if (inner) push(tree.nodes, stack, waiting, n, squared, inner);
        do {
            if (waiting == 0) return;
            --waiting;
        } while (stack[waiting].squared >= s.most_best);
        node = stack[waiting].node;
    }
}

bool anyWithin(const Tree& tree, const float at[3], float reach) {
    if (tree.root & leaf_bit) return tree.root != nothing;
    Search s;
    for (int axis = 0; axis < 3; ++axis) s.low[axis] = s.high[axis] = at[axis];
    std::uint32_t stack[node_width * 72];
    int waiting = 0;
    stack[waiting++] = 0;
    const Wide limit = all<Wide>(reach * reach);
    while (waiting > 0) {
        const Node& n = tree.nodes[stack[--waiting]];
        for (Mask m = below(boxesToAll(n, s), limit); m; m &= m - 1) {
            const std::uint32_t child = n.child[__builtin_ctz(m)];
            if (child & leaf_bit) return true;
            stack[waiting++] = child;
        }
    }
    return false;
}

typedef long long Longs __attribute__((vector_size(64)));
constexpr int doubles = 8;

void lay(Places& p, Run& r) {
    alignas(64) double from[3][run_width];
    for (int i = 0; i < run_width; ++i) {
        const double* const q = p.points[i < r.points ? i : r.points - 1];
        for (int axis = 0; axis < 3; ++axis) from[axis][i] = q[axis];
    }
    for (int i = 0; i < run_width; i += doubles) {
        const Doubles x = load<Doubles>(&from[0][i]), y = load<Doubles>(&from[1][i]), z = load<Doubles>(&from[2][i]);
        for (int axis = 0; axis < 3; ++axis) {
            const double* const m = p.motion[axis];
            const Doubles at = x * m[0] + y * m[1] + z * m[2] + m[3];
            store(&p.at[axis][i], at);
            store(&r.at[axis][i], __builtin_convertvector(at - p.middle[axis], Eight));
        }
    }
}

/// Ericson, Real-Time Collision Detection 5.1.5, without branches: of his cases the first that holds counts, so the last is
/// tried first.
Mask feet(const Surface& m, const Places& places, const Run& r, Feet& out) {
    Mask left = 0;
    alignas(64) double corner[3][3][run_width];
    for (int i = 0; i < run_width; ++i) {
        const std::uint32_t* const t = m.triangles[r.triangle[i] == nothing ? 0 : r.triangle[i]];
        for (int k = 0; k < 3; ++k)
            for (int axis = 0; axis < 3; ++axis) corner[k][axis][i] = m.points[t[k]][axis];
    }
    for (int i = 0; i < run_width; i += doubles) {
        Doubles ab[3], ac[3], ap[3], bp[3], cp[3];
        for (int axis = 0; axis < 3; ++axis) {
            const Doubles p = load<Doubles>(&places.at[axis][i]);
            const Doubles a = load<Doubles>(&corner[0][axis][i]), b = load<Doubles>(&corner[1][axis][i]),
                          c = load<Doubles>(&corner[2][axis][i]);
            ab[axis] = b - a, ac[axis] = c - a;
            ap[axis] = p - a, bp[axis] = p - b, cp[axis] = p - c;
        }
        const auto dot = [](const Doubles* u, const Doubles* v) -> Doubles { return u[0] * v[0] + u[1] * v[1] + u[2] * v[2]; };
        const Doubles d1 = dot(ab, ap), d2 = dot(ac, ap), d3 = dot(ab, bp), d4 = dot(ac, bp), d5 = dot(ab, cp), d6 = dot(ac, cp);
        const Doubles va = d3 * d6 - d5 * d4, vb = d5 * d2 - d1 * d6, vc = d1 * d4 - d3 * d2;
        const Doubles n[3] = {ab[1] * ac[2] - ab[2] * ac[1], ab[2] * ac[0] - ab[0] * ac[2], ab[0] * ac[1] - ab[1] * ac[0]};
        const Doubles area = dot(n, n);
        const Doubles zero{}, one = zero + 1;
        // shares of the normal, of ab and of ac, over `whole`
        Doubles h = dot(n, ap), v = zero, w = zero, whole = area;
        Longs feature{};
        const auto when = [&](Longs holds, int number, Doubles v_then, Doubles w_then, Doubles whole_then) {
            h = holds ? zero : h;
            v = holds ? v_then : v;
            w = holds ? w_then : w;
            whole = holds ? whole_then : whole;
            feature = holds ? Longs{} + number : feature;
        };
        const Doubles e1 = d4 - d3, e2 = d5 - d6;
        when((va <= 0) & (e1 >= 0) & (e2 >= 0), 2, e2, e1, e1 + e2);
        when((vb <= 0) & (d2 >= 0) & (d6 <= 0), 3, zero, d2, d2 - d6);
        when((d6 >= 0) & (d5 <= d6), 6, zero, one, one);
        when((vc <= 0) & (d1 >= 0) & (d3 <= 0), 1, d1, zero, d1 - d3);
        when((d3 >= 0) & (d4 <= d3), 5, one, zero, one);
        when((d1 <= 0) & (d2 <= 0), 4, zero, zero, one);
        const Longs of_no_area = ~(area > thin * dot(ab, ab) * dot(ac, ac));
        const Doubles per_whole = of_no_area ? zero : 1 / whole;
        h *= per_whole, v *= per_whole, w *= per_whole;
        Doubles squared{}, off[3];
        for (int axis = 0; axis < 3; ++axis) {
            off[axis] = feature == 0 ? h * n[axis] : ap[axis] - v * ab[axis] - w * ac[axis];
            squared += off[axis] * off[axis];
            store(&out.at[axis][i], load<Doubles>(&places.at[axis][i]) - off[axis]);
        }
        store(&out.side[i], dot(n, off));
        store(&out.distance[i], root(squared));
        store(&out.feature[i], feature);
        for (int k = 0; k < doubles; ++k) left |= static_cast<Mask>(of_no_area[k] & 1) << (i + k);
    }
    return left;
}

} // namespace

Code ENTRY() { return {run, lay, feet, anyWithin}; }

} // namespace gorvet::shape::kernel
