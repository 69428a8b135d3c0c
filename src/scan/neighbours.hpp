#pragma once

#include "shape/transform.hpp"

#include <memory>
#include <vector>

/// Which points of a cloud are near a place.
namespace gorvet::scan {

using shape::Point3;

/// Of points that lie exactly on each other the first stands for all.
class Neighbours {
public:
    explicit Neighbours(const std::vector<Point3>&);
    ~Neighbours();
    Neighbours(const Neighbours&) = delete;
    Neighbours& operator=(const Neighbours&) = delete;

    struct Near {
        std::uint32_t point = none;
        double distance_mm = 0;
    };
    static constexpr std::uint32_t none = 0xffffffffU;
    /// The nearest point; `none` when it is not within `reach_mm`.
    Near nearest(const Point3&, double reach_mm) const;
    /// The k nearest, the nearest first; fewer when there are no more.
    void nearest(const Point3&, size_t k, std::vector<Near>&) const;

private:
    struct Index;
    std::unique_ptr<Index> index_;
};

} // namespace gorvet::scan
