#include "shape/distance_tree_build.hpp"

#include <algorithm>
#include <array>
#include <atomic>
#include <limits>
#include <thread>

namespace gorvet::shape::kernel {
namespace {

typedef float Quad __attribute__((vector_size(16)));

inline Quad quad(const float* p) {
    Quad q;
    __builtin_memcpy(&q, p, sizeof q);
    return q;
}
inline Quad lesser(Quad a, Quad b) { return a < b ? a : b; }
inline Quad greater(Quad a, Quad b) { return a > b ? a : b; }

struct Box {
    Quad least = Quad{} + std::numeric_limits<float>::max();
    Quad most = Quad{} - std::numeric_limits<float>::max();
    void take(Quad low, Quad high) {
        least = lesser(least, low);
        most = greater(most, high);
    }
    void take(const Box& b) { take(b.least, b.most); }
    /// Half of the surface; 0 for nothing.
    float surface() const {
        const Quad d = most - least;
        return d[0] < 0 ? 0 : d[0] * d[1] + d[1] * d[2] + d[2] * d[0];
    }
};

/// A range of boxes, the box round them and the box round twice their middles.
struct Part {
    std::uint32_t from = 0;
    std::uint32_t count = 0;
    Box box;
    Box middles;
};

Part measured(const std::vector<Boxed>& boxes, std::uint32_t from, std::uint32_t count) {
    Part p{from, count, {}, {}};
    for (std::uint32_t i = from; i < from + count; ++i) {
        const Quad low = quad(boxes[i].least);
        const Quad high = quad(boxes[i].most);
        p.box.take(low, high);
        p.middles.take(low + high, low + high);
    }
    return p;
}

constexpr int bins = 16;

/// The bin of a middle; rounding must not lead out of them.
inline int binOf(float middle, float start, float scale) {
    return static_cast<int>(std::min(std::max((middle - start) * scale, 0.0F), static_cast<float>(bins - 1)));
}

/// Where to divide: axis, and the bin before which; axis −1: all middles lie in one place.
struct Division {
    int axis = -1;
    int before = 0;
};

/// The division of least surface × count, looked for along the longest axis of the middles.
Division bestDivision(const std::vector<Boxed>& boxes, const Part& part, float scale[3]) {
    const Quad size = part.middles.most - part.middles.least;
    int axis = 0;
    if (size[1] > size[axis]) axis = 1;
    if (size[2] > size[axis]) axis = 2;
    if (!(size[axis] > 1e-30F)) return {}; // all in one place, or so near that the scale would have no number
    scale[axis] = static_cast<float>(bins) * 0.99999F / size[axis];
    std::array<Box, bins> box;
    std::array<std::uint32_t, bins> count{};
    const float start = part.middles.least[axis];
    for (std::uint32_t i = part.from; i < part.from + part.count; ++i) {
        const Quad low = quad(boxes[i].least);
        const Quad high = quad(boxes[i].most);
        const int b = binOf(low[axis] + high[axis], start, scale[axis]);
        box[static_cast<size_t>(b)].take(low, high);
        ++count[static_cast<size_t>(b)];
    }
    std::array<float, bins> after{};
    Box right;
    std::uint32_t n = 0;
    for (int b = bins - 1; b > 0; --b) {
        right.take(box[static_cast<size_t>(b)]);
        n += count[static_cast<size_t>(b)];
        after[static_cast<size_t>(b)] = right.surface() * static_cast<float>(n);
    }
    Division best{axis, bins / 2};
    float least = std::numeric_limits<float>::infinity();
    Box left;
    n = 0;
    for (int b = 1; b < bins; ++b) {
        left.take(box[static_cast<size_t>(b - 1)]);
        n += count[static_cast<size_t>(b - 1)];
        if (n == 0 || n == part.count) continue;
        if (const float cost = left.surface() * static_cast<float>(n) + after[static_cast<size_t>(b)]; cost < least) {
            least = cost;
            best.before = b;
        }
    }
    return best;
}

constexpr std::uint32_t few = node_width * leaf_width;
std::uint32_t leavesFor(std::uint32_t count) { return (count + leaf_width - 1) / leaf_width; }

/// A part of few boxes: the best of all divisions into whole leaves, along all three axes, so that leaves come out full.
std::uint32_t sweep(Boxed* first, std::uint32_t count) {
    std::array<std::array<std::uint16_t, few>, 3> order;
    std::array<float, few / leaf_width + 1> after{};
    float least = std::numeric_limits<float>::infinity();
    int best_axis = 0;
    std::uint32_t best = leaf_width;
    for (int axis = 0; axis < 3; ++axis) {
        // keys and indices in one number: sorted without looking the boxes up
        std::array<std::uint64_t, few> keys;
        for (std::uint32_t i = 0; i < count; ++i) {
            const float middle = first[i].least[axis] + first[i].most[axis];
            std::uint32_t bits = 0;
            __builtin_memcpy(&bits, &middle, sizeof bits);
            bits = bits & 0x80000000U ? ~bits : bits | 0x80000000U; // ordered as the numbers are
            keys[i] = static_cast<std::uint64_t>(bits) << 32 | i;
        }
        std::sort(keys.begin(), keys.begin() + count);
        auto& o = order[static_cast<size_t>(axis)];
        for (std::uint32_t i = 0; i < count; ++i) o[i] = static_cast<std::uint16_t>(keys[i] & 0xffff);
        Box right;
        for (std::uint32_t i = count; i-- > leaf_width;) {
            right.take(quad(first[o[i]].least), quad(first[o[i]].most));
            if (i % leaf_width == 0) after[i / leaf_width] = right.surface() * static_cast<float>(leavesFor(count - i));
        }
        Box left;
        for (std::uint32_t i = 0; i + 1 < count; ++i) {
            left.take(quad(first[o[i]].least), quad(first[o[i]].most));
            if ((i + 1) % leaf_width != 0) continue;
            const std::uint32_t n = (i + 1) / leaf_width;
            if (const float cost = left.surface() * static_cast<float>(n) + after[n]; cost < least) {
                least = cost;
                best_axis = axis;
                best = i + 1;
            }
        }
    }
    std::array<Boxed, few> sorted;
    for (std::uint32_t i = 0; i < count; ++i) sorted[i] = first[order[static_cast<size_t>(best_axis)][i]];
    std::copy(sorted.begin(), sorted.begin() + count, first);
    return best;
}

/// Two parts of one; by halves where the middles do not tell, or where it has gone too deep.
std::pair<Part, Part> divided(std::vector<Boxed>& boxes, const Part& part, bool by_halves) {
    if (part.count <= few) {
        const std::uint32_t n = sweep(boxes.data() + part.from, part.count);
        return {measured(boxes, part.from, n), measured(boxes, part.from + n, part.count - n)};
    }
    float scale[3] = {};
    const Division d = by_halves ? Division{} : bestDivision(boxes, part, scale);
    Boxed* const first = boxes.data() + part.from;
    Boxed* const last = first + part.count;
    Boxed* middle = first + part.count / 2;
    if (d.axis >= 0) {
        const float start = part.middles.least[d.axis];
        const auto left = [&](const Boxed& b) {
            return binOf(b.least[d.axis] + b.most[d.axis], start, scale[d.axis]) < d.before;
        };
        middle = std::partition(first, last, left);
    }
    if (middle == first || middle == last) middle = first + part.count / 2;
    if (d.axis < 0) { // by halves, along the longest side
        const Quad size = part.box.most - part.box.least;
        const int axis = size[0] > size[1] ? (size[0] > size[2] ? 0 : 2) : (size[1] > size[2] ? 1 : 2);
        std::nth_element(first, middle, last, [axis](const Boxed& a, const Boxed& b) {
            return a.least[axis] + a.most[axis] < b.least[axis] + b.most[axis];
        });
    }
    const auto n = static_cast<std::uint32_t>(middle - first);
    return {measured(boxes, part.from, n), measured(boxes, part.from + n, part.count - n)};
}

constexpr int too_deep = 40;

class Builder {
public:
    Builder(std::vector<Boxed>& boxes, Skeleton& out) : boxes_(boxes), out_(out) {}

    /// The children of a node: nodes that hold a full set of leaves where that can be, and leaves in the places left over.
    std::vector<Part> children(const Part& whole, int depth) {
        std::vector<Part> parts{whole};
        const auto largest = [&](const auto& counts) {
            size_t found = parts.size();
            float most = -1;
            for (size_t i = 0; i < parts.size(); ++i)
                if (counts(parts[i]) && parts[i].box.surface() > most) {
                    most = parts[i].box.surface();
                    found = i;
                }
            return found;
        };
        const auto divide = [&](size_t i) {
            auto [left, right] = divided(boxes_, parts[i], depth > too_deep);
            parts[i] = left;
            parts.push_back(right);
        };
        // what is more than a node of leaves
        while (parts.size() < node_width) {
            const size_t i = largest([](const Part& p) { return p.count > few; });
            if (i == parts.size()) break;
            divide(i);
        }
        // places that are left: for the leaves of what fits in wholly
        for (;;) {
            const size_t i = largest([&](const Part& p) {
                return p.count > leaf_width && p.count <= few && parts.size() - 1 + leavesFor(p.count) <= node_width;
            });
            if (i == parts.size()) break;
            const std::uint32_t from = parts[i].from, to = from + parts[i].count;
            for (;;) {
                size_t k = 0;
                while (k < parts.size() && !(parts[k].from >= from && parts[k].from < to && parts[k].count > leaf_width)) ++k;
                if (k == parts.size()) break;
                divide(k);
            }
        }
        return parts;
    }

    /// The part as a child: a leaf, or a node with all that is under it.
    std::uint32_t make(const Part& part, int depth) {
        if (part.count <= leaf_width) {
            out_.leaves.push_back({part.from, part.count});
            return leaf_bit | static_cast<std::uint32_t>(out_.leaves.size() - 1);
        }
        const auto at = static_cast<std::uint32_t>(out_.nodes.size());
        out_.nodes.emplace_back();
        const std::vector<Part> parts = children(part, depth);
        fill(out_.nodes[at], parts);
        for (size_t i = 0; i < parts.size(); ++i) {
            const std::uint32_t child = make(parts[i], depth + 1);
            out_.nodes[at].child[i] = child;
        }
        return at;
    }

    static void fill(Node& node, const std::vector<Part>& parts) {
        for (size_t i = 0; i < node_width; ++i)
            for (int axis = 0; axis < 3; ++axis) {
                node.least[axis][i] = i < parts.size() ? parts[i].box.least[axis] : 1e30F;
                node.most[axis][i] = i < parts.size() ? parts[i].box.most[axis] : -1e30F;
                node.child[i] = nothing;
            }
    }

private:
    std::vector<Boxed>& boxes_;
    Skeleton& out_;
};

} // namespace

Skeleton skeletonOf(std::vector<Boxed>& boxes, int threads) {
    Skeleton whole;
    const Part all = measured(boxes, 0, static_cast<std::uint32_t>(boxes.size()));
    Builder top(boxes, whole);
    if (threads < 2 || all.count < 20000) {
        top.make(all, 0);
        return whole;
    }
    // the root here, its children on their own threads, then moved behind it
    const std::vector<Part> parts = top.children(all, 0);
    std::vector<Skeleton> under(parts.size());
    std::vector<std::uint32_t> roots(parts.size());
    std::atomic<size_t> next{0};
    std::vector<size_t> order(parts.size());
    for (size_t i = 0; i < order.size(); ++i) order[i] = i;
    std::sort(order.begin(), order.end(), [&](size_t a, size_t b) { return parts[a].count > parts[b].count; });
    const auto work = [&] {
        for (size_t k = next++; k < order.size(); k = next++) {
            const size_t i = order[k];
            roots[i] = Builder(boxes, under[i]).make(parts[i], 1);
        }
    };
    std::vector<std::thread> others;
    for (int t = 1; t < threads; ++t) others.emplace_back(work);
    work();
    for (std::thread& t : others) t.join();

    whole.nodes.emplace_back();
    Builder::fill(whole.nodes[0], parts);
    size_t nodes = 1, leaves = 0;
    for (const auto& u : under) nodes += u.nodes.size(), leaves += u.leaves.size();
    whole.nodes.reserve(nodes);
    whole.leaves.reserve(leaves);
    for (size_t i = 0; i < parts.size(); ++i) {
        const auto node_shift = static_cast<std::uint32_t>(whole.nodes.size());
        const auto leaf_shift = static_cast<std::uint32_t>(whole.leaves.size());
        const auto shifted = [&](std::uint32_t child) {
            if (child == nothing) return child;
            return child & leaf_bit ? leaf_bit | ((child & ~leaf_bit) + leaf_shift) : child + node_shift;
        };
        whole.nodes[0].child[i] = shifted(roots[i]);
        for (Node node : under[i].nodes) {
            for (std::uint32_t& c : node.child) c = shifted(c);
            whole.nodes.push_back(node);
        }
        whole.leaves.insert(whole.leaves.end(), under[i].leaves.begin(), under[i].leaves.end());
    }
    return whole;
}

} // namespace gorvet::shape::kernel
