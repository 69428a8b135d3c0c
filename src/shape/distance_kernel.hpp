#pragma once

#include <cstddef>
#include <cstdint>

/// Internal to this room: what the wide code of the distance tree works on. Plain memory only: its files are compiled for
/// processors that the rest of the program may not have, so that they must not make code that the rest could link.
namespace gorvet::shape::kernel {

inline constexpr std::uint32_t leaf_bit = 0x80000000U; ///< a child that is a leaf
inline constexpr std::uint32_t nothing = 0xffffffffU;  ///< no child, no triangle

/// Boxes side by side. Unused children have an empty box (least above most).
inline constexpr int node_width = 16;
struct alignas(64) Node {
    float least[3][node_width];
    float most[3][node_width];
    std::uint32_t child[node_width];
};
/// Triangles side by side: corner a, sides a→b and a→c. Unused places repeat the last triangle.
inline constexpr int leaf_width = 8;
struct alignas(64) Leaf {
    float a[3][leaf_width];
    float ab[3][leaf_width];
    float ac[3][leaf_width];
    std::uint32_t triangle[leaf_width];
    /// A thick disc that holds them all: tighter than a box where they lie askew.
    float middle[3];
    float normal[3];
    float radius;
    float half_thickness;
};

struct Tree {
    const Node* nodes = nullptr; ///< the root first
    const Leaf* leaves = nullptr;
    std::uint32_t root = nothing; ///< 0, or leaf_bit for a mesh of few triangles
};

/// Points near each other, in the tree's frame, looked up together: one walk down the tree for all of them.
inline constexpr int run_width = 16;
struct alignas(64) Run {
    float at[3][run_width]; ///< unused places repeat the last point
    int points = run_width;
    float cap = 0;
    /// Places of the surface that are known, as those found for the points beside: nothing farther is looked at.
    float known_at[run_width][3] = {};
    int known = 0;
    std::uint32_t triangle[run_width]; ///< out: the nearest, `nothing` when none is within the cap
    bool found = false;                ///< out: false: no leaf is within the cap of the box round all points
};

/// Whether a leaf's box may be within `reach` of a place.
using AnyWithin = bool (*)(const Tree&, const float at[3], float reach);
using NearestRun = void (*)(const Tree&, Run&);
struct Code {
    NearestRun nearest = nullptr;
    AnyWithin any_within = nullptr;
};
Code code16();    ///< AVX-512
Code code8();     ///< AVX2
Code codePlain(); ///< any processor

} // namespace gorvet::shape::kernel
