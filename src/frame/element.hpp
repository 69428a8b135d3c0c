#pragma once

#include "frame/beams.hpp"

#include <Eigen/Dense>

/// One beam as matrices. Internal to this room; only for .cpp files.
namespace gorvet::frame {

using Matrix14 = Eigen::Matrix<double, 14, 14>;
using Vector14 = Eigen::Matrix<double, 14, 1>;

struct Made {
    Matrix14 stiffness;   ///< in its own axes, at the line between its nodes' arms
    Matrix14 held;        ///< what its loose ends leave of it
    Matrix14 mass;        ///< t, the same
    Matrix14 to_own;      ///< from its nodes' moves
    Eigen::Matrix3d axes; ///< rows: its own x, y, z
    double length = 0;
    double mass_kg = 0;
};
/// All of a model, or what is wrong with one.
Result<std::vector<Made>> madeOf(const Model&);
/// Its own weight on its ends, in its own axes: as of a beam held at both, through its centroid. `gravity`: mm/s².
Vector14 weightOf(const Beam&, const Made&, const Eigen::Vector3d& gravity);

/// Which degrees of freedom there are: of each node and direction its number, −1 where it is held or nobody's.
struct Unknowns {
    std::vector<int> of;
    int count = 0;
    std::size_t place(const Model& m, std::size_t beam, std::size_t i) const {
        const Beam& b = m.beams[beam];
        return (i < dofs ? b.from : b.to) * dofs + i % dofs;
    }
};
Unknowns unknownsOf(const Model&, const std::vector<Made>&);
/// Gathers the beams' matrices, `which` of each, in the unknowns.
std::vector<std::tuple<int, int, double>> gathered(const Model&, const std::vector<Made>&, const Unknowns&,
                                                   Matrix14 Made::*which);

inline Eigen::Vector3d vec(const geometry::Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

} // namespace gorvet::frame
