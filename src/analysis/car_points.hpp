#pragma once

#include "analysis/fixed_points.hpp"

#include <vector>

/// Points of body and chassis together, as planned: those of the chassis where the plan puts them, those of the body where it is
/// seated. Internal to this room.
namespace gorvet::analysis {

class CarPoints {
public:
    CarPoints(const build::Build& b, const Results& r) : b_(b), r_(r), chassis_(b, r.chassis) {}

    /// Its place in the list. One that is not fixed yet has place 0, and is said by `lost`.
    std::size_t take(build::PointId id);
    std::vector<std::size_t> take(const std::vector<build::PointId>& ids);
    /// Whether any of those taken is of the body.
    bool ofBody() const { return !body_at_.empty(); }
    /// Those of the chassis with the covariance of its survey; of the body with the ± of its survey and of the seat, each by
    /// itself.
    build::Places places();
    std::vector<std::string> assumed() const;
    /// As of FixedPoints: what must be measured first; empty where all have a place.
    std::string lost() const;

private:
    struct Taken {
        build::PointId id;
        int chassis = -1; ///< in the list of the chassis
        std::size_t body = 0;
    };
    const build::Build& b_;
    const Results& r_;
    FixedPoints chassis_;
    std::vector<Taken> taken_;
    std::vector<build::Vec3> body_at_;
    std::vector<double> body_variance_;
    std::vector<std::string> body_assumed_, body_lost_;
};

} // namespace gorvet::analysis
