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
static_assert(node_width == 16 && run_width == 16 && leaf_width == 8);

template <class F> inline F all(float v) { return F{} + v; }
template <class F> inline F load(const float* p) { return *reinterpret_cast<const F*>(p); }

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
    for (int i = 0; i < leaf_width; ++i) m |= static_cast<Mask>(a[i] < b[i]) << i;
    return m;
}
inline float leastOf(Eight a) {
    float l = a[0];
    for (int i = 1; i < leaf_width; ++i) l = a[i] < l ? a[i] : l;
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

/// What of eight triangles is the same for every point.
struct Eights {
    Eight ax, ay, az, abx, aby, abz, acx, acy, acz, ex, ey, ez;
    Eight bb, bc, cc, per_bb, per_cc, per_ee, area, per_area;
};
inline Eights prepared(const Leaf& t) {
    const Eight tiny = all<Eight>(1e-30F);
    Eights e;
    e.ax = load<Eight>(t.a[0]), e.ay = load<Eight>(t.a[1]), e.az = load<Eight>(t.a[2]);
    e.abx = load<Eight>(t.ab[0]), e.aby = load<Eight>(t.ab[1]), e.abz = load<Eight>(t.ab[2]);
    e.acx = load<Eight>(t.ac[0]), e.acy = load<Eight>(t.ac[1]), e.acz = load<Eight>(t.ac[2]);
    e.ex = e.acx - e.abx, e.ey = e.acy - e.aby, e.ez = e.acz - e.abz;
    e.bb = e.abx * e.abx + e.aby * e.aby + e.abz * e.abz;
    e.bc = e.abx * e.acx + e.aby * e.acy + e.abz * e.acz;
    e.cc = e.acx * e.acx + e.acy * e.acy + e.acz * e.acz;
    const Eight ee = e.ex * e.ex + e.ey * e.ey + e.ez * e.ez;
    e.area = e.bb * e.cc - e.bc * e.bc;
    e.per_bb = 1.0F / most(e.bb, tiny);
    e.per_cc = 1.0F / most(e.cc, tiny);
    e.per_ee = 1.0F / most(ee, tiny);
    e.per_area = 1.0F / most(e.area, tiny);
    return e;
}

/// Squared distances to them: the foot in the plane where it is inside, else the nearest of the three sides.
inline Eight squaredTo(const Eights& t, float x, float y, float z) {
    const Eight zero{};
    const Eight one = all<Eight>(1);
    const Eight px = x - t.ax, py = y - t.ay, pz = z - t.az;
    const Eight pb = px * t.abx + py * t.aby + pz * t.abz;
    const Eight pc = px * t.acx + py * t.acy + pz * t.acz;
    // side a→b
    Eight s = least(most(pb * t.per_bb, zero), one);
    Eight rx = px - s * t.abx, ry = py - s * t.aby, rz = pz - s * t.abz;
    Eight d = rx * rx + ry * ry + rz * rz;
    // side a→c
    s = least(most(pc * t.per_cc, zero), one);
    rx = px - s * t.acx, ry = py - s * t.acy, rz = pz - s * t.acz;
    d = least(d, rx * rx + ry * ry + rz * rz);
    // side b→c, from b
    s = least(most((pc - pb - t.bc + t.bb) * t.per_ee, zero), one);
    rx = px - t.abx - s * t.ex, ry = py - t.aby - s * t.ey, rz = pz - t.abz - s * t.ez;
    d = least(d, rx * rx + ry * ry + rz * rz);
    // the plane
    const Eight v = t.cc * pb - t.bc * pc;
    const Eight w = t.bb * pc - t.bc * pb;
    const Eight vs = v * t.per_area, ws = w * t.per_area;
    rx = px - vs * t.abx - ws * t.acx;
    ry = py - vs * t.aby - ws * t.acy;
    rz = pz - vs * t.abz - ws * t.acz;
    const Eight plane = rx * rx + ry * ry + rz * rz;
    return least(least(v, w), t.area - v - w) > zero ? least(d, plane) : d;
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
    const Eights t = prepared(l);
    // without branches: whether a leaf is nearer is anyone's guess
    std::uint32_t better = 0;
    for (; which; which &= which - 1) {
        const int i = __builtin_ctz(which);
        const Eight d = squaredTo(t, r.at[0][i], r.at[1][i], r.at[2][i]);
        const float nearest = leastOf(d);
        const Mask it = below(d, all<Eight>(nearest * 1.0000002F + 1e-36F));
        const std::uint32_t triangle = l.triangle[__builtin_ctz(it | (1U << (leaf_width - 1)))];
        const std::uint32_t nearer = -static_cast<std::uint32_t>(nearest < s.best[i]); // all ones, or none
        s.best[i] = lesser(nearest, s.best[i]);
        r.triangle[i] ^= (r.triangle[i] ^ triangle) & nearer;
        better |= nearer;
    }
    if (!better) return;
    s.most_best = mostOf(load<Wide>(s.best));
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

struct Waiting {
    float squared;
    std::uint32_t node;
};
/// Puts what is near on the stack, the farthest lowest.
inline void push(Waiting* stack, int& waiting, const Node& n, Wide squared, Mask near) {
    const int from = waiting;
    for (; near; near &= near - 1) {
        const int i = __builtin_ctz(near);
        const Waiting w{squared[i], n.child[i]};
        int k = waiting++;
        for (; k > from && stack[k - 1].squared < w.squared; --k) stack[k] = stack[k - 1];
        stack[k] = w;
    }
}

void run(const Tree& tree, Run& r) {
    Search s;
    for (int axis = 0; axis < 3; ++axis) {
        float low = r.at[axis][0], high = low;
        for (int i = 1; i < run_width; ++i) {
            low = r.at[axis][i] < low ? r.at[axis][i] : low;
            high = r.at[axis][i] > high ? r.at[axis][i] : high;
        }
        s.low[axis] = low;
        s.high[axis] = high;
    }
    // a little more than the cap, for what single precision rounds away
    const float cap = r.cap * 1.000001F + 1e-3F;
    for (int i = 0; i < run_width; ++i) {
        s.best[i] = i < r.points ? cap * cap : -1; // nothing is nearer than that to an unused place
        r.triangle[i] = nothing;
    }
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
        *reinterpret_cast<Wide*>(s.best) = least(load<Wide>(s.best), bound * bound);
    }
    s.most_best = mostOf(load<Wide>(s.best));
    r.found = false;
    if (tree.root & leaf_bit) {
        r.found = true;
        tryLeaf(tree, 0, everyone, r, s);
        return;
    }
    Waiting stack[node_width * 72];
    int waiting = 0;
    std::uint32_t node = tree.root;
    for (;;) {
        const Node& n = tree.nodes[node];
        const Wide squared = boxesToAll(n, s);
        Mask near = below(squared, all<Wide>(s.most_best));
        // leaves at once, each for the points it may be near to; nodes later
        Mask inner = 0;
        Mask leaves = 0;
        Wide to_box[node_width];
        Wide nearest_box = all<Wide>(3e38F);
        for (Mask m = near; m; m &= m - 1) {
            const int i = __builtin_ctz(m);
            const std::uint32_t child = n.child[i];
            const Wide d = allToBox(r, n, i);
            if (!below(d, load<Wide>(s.best))) continue;
            if (!(child & leaf_bit)) {
                inner |= 1U << i;
                continue;
            }
            const char* const memory = reinterpret_cast<const char*>(&tree.leaves[child & ~leaf_bit]);
            for (size_t line = 0; line < sizeof(Leaf); line += 64) __builtin_prefetch(memory + line);
            leaves |= 1U << i;
            to_box[i] = d;
            nearest_box = least(nearest_box, d);
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
        if (inner) push(stack, waiting, n, squared, inner);
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

} // namespace

Code ENTRY() { return {run, anyWithin}; }

} // namespace gorvet::shape::kernel
