#pragma once

#include <algorithm>
#include <cstdint>
#include <numeric>
#include <vector>

namespace gorvet::shape {

/// What hangs together (union by smaller root, paths halved).
class DisjointSets {
public:
    explicit DisjointSets(size_t n) : root_(n) { std::iota(root_.begin(), root_.end(), 0U); }
    std::uint32_t find(std::uint32_t i) {
        while (root_[i] != i) i = root_[i] = root_[root_[i]];
        return i;
    }
    void join(std::uint32_t a, std::uint32_t b) {
        a = find(a);
        b = find(b);
        root_[std::max(a, b)] = std::min(a, b);
    }
    /// Numbers the groups from 0 in the order of their first members, one number a member.
    std::vector<std::uint32_t> numbered(std::uint32_t& count) {
        std::vector<std::uint32_t> number(root_.size());
        count = 0;
        // the root of a group is its least member, so it is met first
        for (std::uint32_t i = 0; i < root_.size(); ++i) {
            const std::uint32_t r = find(i);
            number[i] = r == i ? count++ : number[r];
        }
        return number;
    }

private:
    std::vector<std::uint32_t> root_;
};

} // namespace gorvet::shape
