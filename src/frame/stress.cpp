#include "frame/stress.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::frame {

namespace {

constexpr int directions = 64;
constexpr double over_mean = 1.25; ///< of the shear in the middle of a web over its mean

/// The places where walls meet at an angle.
std::vector<bool> corners(const Walls& w) {
    std::vector<bool> corner(w.at.size(), false);
    std::vector<At> along(w.at.size(), At{0, 0});
    constexpr double turns = 0.94; // cos 20°
    for (const Wall& wall : w.walls) {
        const At a = w.at[wall.from], b = w.at[wall.to];
        const double length = std::hypot(b.y_mm - a.y_mm, b.z_mm - a.z_mm);
        const At d{(b.y_mm - a.y_mm) / length, (b.z_mm - a.z_mm) / length};
        for (const std::size_t k : {wall.from, wall.to}) {
            At& first = along[k];
            if (first.y_mm == 0 && first.z_mm == 0)
                first = d;
            else if (std::abs(first.y_mm * d.y_mm + first.z_mm * d.z_mm) < turns)
                corner[k] = true;
        }
    }
    return corner;
}

} // namespace

Stresses::Stresses(const Walls& w, const Section& s)
    : area_(s.area_mm2), level_(s.level_mm4), upright_(s.upright_mm4), product_(s.product_mm4),
      warping_(s.closed() ? 0 : s.warping_mm6), shear_level_(s.shear_level_mm2),
      shear_upright_(s.shear_upright_mm2), shear_centre_{s.shear_centre.y_mm - s.centroid.y_mm,
                                                         s.shear_centre.z_mm - s.centroid.z_mm},
      window_twist_(s.window_twist), window_level_(s.window_level), window_upright_(s.window_upright) {
    std::vector<Place> all;
    const std::vector<bool> corner = corners(w);
    double most = 0;
    Place warps_most{};
    for (const Wall& wall : w.walls) {
        const At a = w.at[wall.from], b = w.at[wall.to];
        const double dy = b.y_mm - a.y_mm, dz = b.z_mm - a.z_mm, length = std::hypot(dy, dz), t = wall.thickness_mm;
        for (const auto& [place, k] : {std::pair{a, wall.from}, std::pair{b, wall.to}}) {
            const double warping = warping_ > 0 ? s.warping_mm2[k] : 0;
            const double along = k == wall.to ? 0.5 : -0.5;
            for (const double side : {-0.5, 0.5}) {
                Place p{place.y_mm - s.centroid.y_mm - side * t * dz / length,
                        place.z_mm - s.centroid.z_mm + side * t * dy / length, warping};
                if (corner[k]) { // out to the other wall's face
                    p.y += along * t * dy / length;
                    p.z += along * t * dz / length;
                }
                all.push_back(p);
                if (std::abs(warping) > most) {
                    most = std::abs(warping);
                    warps_most = p;
                }
            }
        }
        // round a cell the wall shears as a whole, in every wall over its thickness
        const double lever = ((a.y_mm - s.shear_centre.y_mm) * dz - (a.z_mm - s.shear_centre.z_mm) * dy) / length;
        const double whole = s.cells_mm4 > 0 ? std::abs((s.warping_mm2[wall.to] - s.warping_mm2[wall.from]) / length + lever) : 0;
        if (wall.bends_per_mm == 0) // what flows through windows is in their strips, too
            per_twist_ = std::max(per_twist_, (whole + t) / s.torsion_mm4);
    }
    // a linear function of y and z is greatest at the outermost place in some direction
    const double ky = 1 / std::sqrt(std::max(upright_, 1e-9)), kz = 1 / std::sqrt(std::max(level_, 1e-9));
    for (int d = 0; d < directions; ++d) {
        const double angle = 2 * std::numbers::pi * d / directions, c = std::cos(angle) * ky, e = std::sin(angle) * kz;
        places_.push_back(*std::max_element(
            all.begin(), all.end(), [&](const Place& p, const Place& q) { return c * p.y + e * p.z < c * q.y + e * q.z; }));
    }
    if (most > 0) {
        places_.push_back(warps_most);
        // and as much on the other side of it
        places_.push_back(*std::max_element(all.begin(), all.end(), [&](const Place& p, const Place& q) {
            return -p.warping * warps_most.warping < -q.warping * warps_most.warping;
        }));
    }
    std::sort(places_.begin(), places_.end(),
              [](const Place& p, const Place& q) { return std::pair(p.y, p.z) < std::pair(q.y, q.z); });
    places_.erase(
        std::unique(places_.begin(), places_.end(), [](const Place& p, const Place& q) { return p.y == q.y && p.z == q.z; }),
        places_.end());
}

Stress Stresses::of(const Forces& f) const {
    Stress s;
    const double det = level_ * upright_ - product_ * product_;
    // σ = b y + c z, with M_y = ∫ σ z dA and M_z = −∫ σ y dA
    double b = 0, c = 0;
    if (det > 1e-12 * level_ * upright_) {
        b = (-f.about_z * level_ - f.about_y * product_) / det;
        c = (f.about_y * upright_ + f.about_z * product_) / det;
    }
    for (const Place& p : places_) {
        const double plain = f.axial / area_ + b * p.y + c * p.z;
        const double warped = warping_ > 0 ? std::abs(f.bimoment * p.warping / warping_) : 0;
        const double sum = plain < 0 ? plain - warped : plain + warped;
        if (std::abs(sum) > std::abs(s.along)) s.along = sum;
    }
    const double twist = f.twist - (shear_centre_.y_mm * f.along_z - shear_centre_.z_mm * f.along_y) - f.warping_twist;
    s.shear = std::abs(twist) * per_twist_;
    const double bends =
        std::abs(twist) * window_twist_ + std::abs(f.along_y) * window_level_ + std::abs(f.along_z) * window_upright_;
    s.along += s.along < 0 ? -bends : bends;
    const double y = shear_level_ > 0 ? f.along_y / shear_level_ : 0, z = shear_upright_ > 0 ? f.along_z / shear_upright_ : 0;
    s.shear += over_mean * std::hypot(y, z);
    s.mises = std::sqrt(s.along * s.along + 3 * s.shear * s.shear);
    return s;
}

} // namespace gorvet::frame
