// What a section of thin walls is worth.
#include "frame/section.hpp"

#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <numbers>

#include <Eigen/Sparse>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

using std::numbers::pi;
using units::steel_kg_mm3;

Error wrong(const std::string& message, const std::string& remedy) {
    return Error{Error::Code::BadInput, "section", message, remedy, -1};
}

/// A wall in the section's own coordinates.
struct Run {
    std::size_t i, j;
    double y, z, dy, dz, length, t, shears, bends; ///< of its beginning; to its end
    double area() const { return length * t; }
    /// ∫ f g dA for two functions that are linear along it, by their values at its ends.
    double product(double f0, double f1, double g0, double g1) const {
        return area() * (2 * f0 * g0 + 2 * f1 * g1 + f0 * g1 + f1 * g0) / 6;
    }
};

/// Potentials on the walls: the sum of what flows into each place is given, a wall leads as the thickness it shears with over its
/// length.
class Network {
public:
    Network(std::size_t places, const std::vector<Run>& runs) : runs_(runs) {
        using Triplet = Eigen::Triplet<double>;
        std::vector<Triplet> entries;
        for (const Run& r : runs) {
            const double k = r.shears / r.length;
            const auto i = static_cast<int>(r.i), j = static_cast<int>(r.j);
            entries.insert(entries.end(), {Triplet(i, i, k), Triplet(j, j, k), Triplet(i, j, -k), Triplet(j, i, -k)});
        }
        entries.emplace_back(0, 0, 1.0); // potentials are known but for a constant
        Eigen::SparseMatrix<double> m(static_cast<Eigen::Index>(places), static_cast<Eigen::Index>(places));
        m.setFromTriplets(entries.begin(), entries.end());
        solver_.compute(m);
    }
    bool sound() const { return solver_.info() == Eigen::Success; }
    /// `into`: of each place; their sum must be 0.
    Eigen::VectorXd potentials(const Eigen::VectorXd& into) const { return solver_.solve(into); }

private:
    const std::vector<Run>& runs_;
    Eigen::SimplicialLDLT<Eigen::SparseMatrix<double>> solver_;
};

/// Whether every place can be reached over walls from the first.
bool hangsTogether(std::size_t places, const std::vector<Run>& runs) {
    std::vector<std::size_t> root(places);
    for (std::size_t k = 0; k < places; ++k) root[k] = k;
    const std::function<std::size_t(std::size_t)> find = [&](std::size_t k) {
        return root[k] == k ? k : root[k] = find(root[k]);
    };
    for (const Run& r : runs) root[find(r.i)] = find(r.j);
    for (std::size_t k = 0; k < places; ++k)
        if (find(k) != find(0)) return false;
    return true;
}

Result<std::vector<Run>> runsOf(const Walls& w) {
    if (w.walls.empty()) return wrong("The section has no walls.", "Give one at the least.");
    std::vector<Run> runs;
    for (const Wall& wall : w.walls) {
        if (wall.from >= w.at.size() || wall.to >= w.at.size()) return wrong("A wall ends at a place that is not there.", "");
        const At a = w.at[wall.from], b = w.at[wall.to];
        const double length = std::hypot(b.y_mm - a.y_mm, b.z_mm - a.z_mm);
        if (!(length > 0) || !std::isfinite(length)) return wrong("A wall has no length.", "Leave it out.");
        const double shears = wall.shear_mm > 0 ? wall.shear_mm : wall.thickness_mm;
        if (!(shears > 0) || !std::isfinite(shears) || !(wall.thickness_mm >= 0) || !std::isfinite(wall.thickness_mm))
            return wrong("A wall has no thickness.", "Measure it, where rust has taken some away, too.");
        runs.push_back({wall.from, wall.to, a.y_mm, a.z_mm, b.y_mm - a.y_mm, b.z_mm - a.z_mm, length, wall.thickness_mm, shears,
                        wall.bends_per_mm});
    }
    if (!hangsTogether(w.at.size(), runs))
        return wrong("The walls do not hang together.", "Each must meet another at one of its ends.");
    return runs;
}

/// Area, centroid and moments; the walls are moved to the centroid.
void moments(Section& s, std::vector<Run>& runs) {
    double sy = 0, sz = 0;
    for (const Run& r : runs) {
        s.area_mm2 += r.area();
        sy += r.area() * (r.y + r.dy / 2);
        sz += r.area() * (r.z + r.dz / 2);
    }
    s.centroid = {sy / s.area_mm2, sz / s.area_mm2};
    for (Run& r : runs) {
        r.y -= s.centroid.y_mm;
        r.z -= s.centroid.z_mm;
        // across itself a wall has its own moment
        const double own = r.area() * r.t * r.t / 12, c = r.dy / r.length, d = r.dz / r.length;
        s.level_mm4 += r.product(r.z, r.z + r.dz, r.z, r.z + r.dz) + own * c * c;
        s.upright_mm4 += r.product(r.y, r.y + r.dy, r.y, r.y + r.dy) + own * d * d;
        s.product_mm4 += r.product(r.y, r.y + r.dy, r.z, r.z + r.dz) - own * c * d;
    }
    const double mean = (s.level_mm4 + s.upright_mm4) / 2, half = (s.level_mm4 - s.upright_mm4) / 2;
    const double radius = std::hypot(half, s.product_mm4);
    s.principal_mm4 = mean + radius;
    s.lesser_mm4 = mean - radius;
    s.turned_rad = std::abs(s.product_mm4) < 1e-12 * mean ? (half >= 0 ? 0 : pi / 2) : std::atan2(-s.product_mm4, half) / 2;
    s.mass_kg_per_m = s.area_mm2 * steel_kg_mm3 * 1000;
    double top = 0, bottom = 0, left = 0, right = 0;
    for (const Run& r : runs) {
        const double across_z = r.t / 2 * std::abs(r.dy) / r.length, across_y = r.t / 2 * std::abs(r.dz) / r.length;
        for (const double k : {0.0, 1.0}) {
            top = std::max(top, r.z + k * r.dz + across_z);
            bottom = std::max(bottom, -(r.z + k * r.dz) + across_z);
            right = std::max(right, r.y + k * r.dy + across_y);
            left = std::max(left, -(r.y + k * r.dy) + across_y);
        }
    }
    s.level_modulus_mm3 = s.level_mm4 / std::max(top, bottom);
    s.upright_modulus_mm3 = s.upright_mm4 / std::max(left, right);
}

/// Moments without what walls have across themselves: neither warping nor shear flow know of it.
struct MiddleLines {
    double level = 0, upright = 0, product = 0;
};
MiddleLines ofMiddleLines(const std::vector<Run>& runs) {
    MiddleLines m;
    for (const Run& r : runs) {
        m.level += r.product(r.z, r.z + r.dz, r.z, r.z + r.dz);
        m.upright += r.product(r.y, r.y + r.dy, r.y, r.y + r.dy);
        m.product += r.product(r.y, r.y + r.dy, r.z, r.z + r.dz);
    }
    return m;
}

/// J, warping, shear centre and Cw. Twisted by 1 rad/mm a wall shears by γ = dω/ds + h, h its lever about the pole; what flows, G
/// t γ, comes to nothing at every place: in an open wall γ is 0, round a cell it is Bredt's.
void torsion(Section& s, const std::vector<Run>& runs, const Network& net, std::size_t places) {
    const auto lever = [](const Run& r) { return (r.y * r.dz - r.z * r.dy) / r.length; };
    Eigen::VectorXd into = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(places));
    for (const Run& r : runs) {
        const double flow = r.shears * lever(r);
        into(static_cast<Eigen::Index>(r.i)) += flow;
        into(static_cast<Eigen::Index>(r.j)) -= flow;
    }
    Eigen::VectorXd omega = net.potentials(into);
    const auto at = [&](std::size_t k) -> double& { return omega(static_cast<Eigen::Index>(k)); };
    double mean = 0;
    for (const Run& r : runs) {
        const double shear = (at(r.j) - at(r.i)) / r.length + lever(r);
        s.cells_mm4 += r.length * r.shears * shear * lever(r);
        s.window_twist = std::max(s.window_twist, std::abs(r.shears * shear) * r.bends); // over J, below
        s.torsion_mm4 += r.length * r.t * r.t * r.t / 3;
        mean += r.area() * (at(r.i) + at(r.j)) / 2 / s.area_mm2;
    }
    s.cells_mm4 = std::max(0.0, s.cells_mm4);
    if (s.cells_mm4 < 1e-9 * s.area_mm2 * s.area_mm2) s.cells_mm4 = 0; // rounding of an open section
    s.torsion_mm4 += s.cells_mm4;
    s.window_twist /= s.torsion_mm4;
    omega.array() -= mean;
    double with_y = 0, with_z = 0;
    for (const Run& r : runs) {
        with_y += r.product(at(r.i), at(r.j), r.y, r.y + r.dy);
        with_z += r.product(at(r.i), at(r.j), r.z, r.z + r.dz);
    }
    // moved to the shear centre, warping has no moment about either axis
    const auto [iy, iz, iyz] = ofMiddleLines(runs);
    const double det = iy * iz - iyz * iyz;
    At centre{0, 0};
    if (det > 1e-9 * s.principal_mm4 * s.principal_mm4)
        centre = {(with_y * iyz - with_z * iz) / det, (with_y * iy - with_z * iyz) / det};
    for (const Run& r : runs) // each place once is enough, more do no harm: set, not added
        for (const auto& [k, y, z] : {std::tuple{r.i, r.y, r.z}, std::tuple{r.j, r.y + r.dy, r.z + r.dz}})
            if (s.warping_mm2.empty() || std::isnan(s.warping_mm2.at(k))) {
                if (s.warping_mm2.empty()) s.warping_mm2.assign(places, std::nan(""));
                s.warping_mm2[k] = at(k) + centre.y_mm * z - centre.z_mm * y;
            }
    for (const Run& r : runs)
        s.warping_mm6 += r.product(s.warping_mm2[r.i], s.warping_mm2[r.j], s.warping_mm2[r.i], s.warping_mm2[r.j]);
    s.shear_centre = {s.centroid.y_mm + centre.y_mm, s.centroid.z_mm + centre.z_mm};
}

/// The shear area for a force along one axis: the energy of its shear flow. σ grows along the beam as a linear function f of the
/// section's places; what flows in a wall changes by −t f along it, and is the slope of a displacement that has one value at each
/// place.
double shearArea(Section& s, const std::vector<Run>& runs, const Network& net, std::size_t places, bool upright) {
    const MiddleLines m = ofMiddleLines(runs);
    const double det = m.level * m.upright - m.product * m.product;
    if (det <= 1e-9 * s.principal_mm4 * s.principal_mm4) // one straight wall: a strip's 5/6 along it, nothing across
        return (upright ? m.level > m.upright : m.upright > m.level) ? 5 * s.area_mm2 / 6 : 0;
    // a force of 1 along z (or y): f = a y + b z
    const double a = upright ? -m.product / det : m.level / det;
    const double b = upright ? m.upright / det : -m.product / det;
    const auto f = [&](double y, double z) { return a * y + b * z; };
    Eigen::VectorXd into = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(places));
    for (const Run& r : runs) {
        const double f0 = f(r.y, r.z), f1 = f(r.y + r.dy, r.z + r.dz);
        into(static_cast<Eigen::Index>(r.i)) += r.area() * (2 * f0 + f1) / 6;
        into(static_cast<Eigen::Index>(r.j)) += r.area() * (f0 + 2 * f1) / 6;
    }
    const Eigen::VectorXd u = net.potentials(into);
    double energy = 0; // ∫ q² / t ds
    for (const Run& r : runs) {
        const double f0 = f(r.y, r.z), slope = f(r.y + r.dy, r.z + r.dz) - f0;
        // q(x) = q0 − t L (f0 x + slope x² / 2), x from 0 to 1; its mean is t (u1 − u0) / L
        const double mean = r.shears * (u(static_cast<Eigen::Index>(r.j)) - u(static_cast<Eigen::Index>(r.i))) / r.length;
        const double c1 = -r.area() * f0, c2 = -r.area() * slope / 2;
        const double c0 = mean - c1 / 2 - c2 / 3;
        (upright ? s.window_upright : s.window_level) =
            std::max(upright ? s.window_upright : s.window_level, std::abs(mean) * r.bends);
        energy += r.length / r.shears * (c0 * c0 + c0 * c1 + (2 * c0 * c2 + c1 * c1) / 3 + c1 * c2 / 2 + c2 * c2 / 5);
    }
    return energy > 0 ? 1 / energy : 0;
}

} // namespace

std::size_t Walls::place(At p) {
    constexpr double same_mm = 1e-3;
    for (std::size_t k = 0; k < at.size(); ++k) {
        const double y = at[k].y_mm - p.y_mm, z = at[k].z_mm - p.z_mm;
        if (y * y + z * z < same_mm * same_mm) return k;
    }
    at.push_back(p);
    return at.size() - 1;
}

void Walls::add(At from, At to, double thickness) {
    const std::size_t i = place(from), j = place(to);
    walls.push_back({i, j, thickness});
}

Result<Section> sectionOf(const Walls& w) {
    auto runs = runsOf(w);
    if (!runs) return runs.error();
    Section s;
    moments(s, *runs);
    const Network net(w.at.size(), *runs);
    if (!net.sound()) return wrong("The section can't be worked out.", "Look for walls that are much thinner than the others.");
    torsion(s, *runs, net, w.at.size());
    s.shear_level_mm2 = shearArea(s, *runs, net, w.at.size(), false);
    s.shear_upright_mm2 = shearArea(s, *runs, net, w.at.size(), true);
    return s;
}

} // namespace gorvet::frame
