#pragma once

#include "shape/distance_kernel.hpp"

#include <cstddef>
#include <memory>
#include <vector>

/// Internal to this room: building the tree of boxes.
namespace gorvet::shape::kernel {

/// A triangle's box in the tree's frame, and its index.
struct Boxed {
    float least[3];
    std::uint32_t triangle;
    float most[3];
    std::uint32_t spare;
};

/// Memory that begins where wide loads want it.
template <class T> struct AlignedArray {
    explicit AlignedArray(size_t n)
        : size(n), memory(static_cast<T*>(::operator new[](n * sizeof(T), std::align_val_t{alignof(T)})), &gone) {}
    T& operator[](size_t i) { return static_cast<T*>(memory.get())[i]; }
    size_t size;
    std::shared_ptr<void> memory;

private:
    static void gone(void* p) { ::operator delete[](p, std::align_val_t{alignof(T)}); }
};

/// What a builder hands back: nodes with their children, leaves as ranges of the (now sorted) boxes.
struct Range {
    std::uint32_t from;
    std::uint32_t count;
};
struct Skeleton {
    std::vector<Node> nodes; ///< the root first; empty when the root is a leaf
    std::vector<Range> leaves;
};
/// Leaves of leaf_width triangles at most. Binned surface-area splits, the larger of a node's children first, down to what a node
/// of leaves holds; such a set of leaves is split along the axis that suits it best. Sorts `boxes`.
Skeleton skeletonOf(std::vector<Boxed>& boxes, int threads);

} // namespace gorvet::shape::kernel
