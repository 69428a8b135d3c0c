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
/// Triangles side by side, each in a frame of its own: corner a, u along its longest side to b, v across it in its plane to
/// where c is. Unused places repeat the last triangle.
inline constexpr int leaf_width = 16;
struct alignas(64) Leaf {
    float a[3][leaf_width];
    float u[3][leaf_width];
    float v[3][leaf_width];
    float b_along[leaf_width]; ///< ≥ 0
    float c_along[leaf_width];
    float c_across[leaf_width]; ///< ≥ 0
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
};

/// A set of points that is moved, a run of it at a time.
struct Places {
    const double (*points)[3] = nullptr; ///< the first of the run
    double motion[3][4] = {};            ///< into the surface's frame: rows of the turn, each with its shift
    double middle[3] = {};               ///< the origin of the tree's frame in the surface's
    alignas(64) double at[3][run_width]; ///< out: in the surface's frame; unused places repeat the last point
};
/// A triangle has no area when the sine of its first angle, squared, is not above this.
inline constexpr double thin = 1e-14;
struct Surface {
    const double (*points)[3] = nullptr;
    const std::uint32_t (*triangles)[3] = nullptr;
};
/// The nearest places on one triangle each, in double precision and the surface's frame.
struct alignas(64) Feet {
    double at[3][run_width];
    double distance[run_width];
    double side[run_width];          ///< > 0: the point lies where the triangle's normal points; no length
    std::int64_t feature[run_width]; ///< as shape::Feature counts them
};

/// Whether a leaf's box may be within `reach` of a place.
using AnyWithin = bool (*)(const Tree&, const float at[3], float reach);
using NearestRun = void (*)(const Tree&, Run&);
/// Moves as many points as the run has into both frames.
using Lay = void (*)(Places&, Run&);
/// On the triangles that the run found; where it found none, on any. Gives back whose triangle has no area: these are left out.
using OnFeet = unsigned (*)(const Surface&, const Places&, const Run&, Feet&);
struct Code {
    NearestRun nearest = nullptr;
    Lay lay = nullptr;
    OnFeet feet = nullptr;
    AnyWithin any_within = nullptr;
};
Code code16();    ///< AVX-512
Code code8();     ///< AVX2
Code codePlain(); ///< any processor

} // namespace gorvet::shape::kernel
