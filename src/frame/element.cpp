// One beam as matrices: bending with shear, torsion with warping, mass.
#include "frame/element.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

using Eigen::Matrix3d;
using Eigen::Vector3d;

Error badBeam(std::size_t beam, const std::string& what, const std::string& remedy) {
    return Error{Error::Code::BadInput, fmt::format("beam {}", beam + 1), what, remedy, -1};
}

/// Torsion of a beam whose ends warp: θ and its rate at both ends, by the exact solution of E Cw θ'''' = G J θ''.
Eigen::Matrix4d torsionStiffness(double gj, double ecw, double length) {
    Eigen::Matrix4d k = Eigen::Matrix4d::Zero();
    if (ecw <= 0) { // it does not warp
        k(0, 0) = k(2, 2) = gj / length;
        k(0, 2) = k(2, 0) = -gj / length;
        return k;
    }
    const double kl = gj > 0 ? std::sqrt(gj / ecw) * length : 0;
    // with c = cosh, s = sinh: all terms over D = 2 (1 − c) + kl s, both sides divided by e^kl where that is large
    double a, b, d, e; // G J/L · {a; b L; d L²; e L²}
    if (kl < 0.05) {
        // the series of it: Hermite's cubic for warping and the beam's own torsion
        const double w = ecw / (length * length * length), j = gj / length;
        k << 12 * w + 1.2 * j, (6 * w + 0.1 * j) * length, -12 * w - 1.2 * j, (6 * w + 0.1 * j) * length,
            (6 * w + 0.1 * j) * length, (4 * w + 2 * j / 15) * length * length, -(6 * w + 0.1 * j) * length,
            (2 * w - j / 30) * length * length, -12 * w - 1.2 * j, -(6 * w + 0.1 * j) * length, 12 * w + 1.2 * j,
            -(6 * w + 0.1 * j) * length, (6 * w + 0.1 * j) * length, (2 * w - j / 30) * length * length,
            -(6 * w + 0.1 * j) * length, (4 * w + 2 * j / 15) * length * length;
        return k;
    }
    const double f = std::exp(-kl), f2 = f * f;      // c = (1 + f²) / 2f, s = (1 − f²) / 2f
    const double c = (1 + f2) / 2, s = (1 - f2) / 2; // times e^−kl
    const double over = 2 * (f - c) + kl * s;
    a = kl * s / over;
    b = (c - f) / over;
    d = (kl * c - s) / (kl * over);
    e = (s - kl * f) / (kl * over);
    const double j = gj / length;
    k << a, b * length, -a, b * length, b * length, d * length * length, -b * length, e * length * length, -a, -b * length, a,
        -b * length, b * length, e * length * length, -b * length, d * length * length;
    return k * j;
}

/// Bending in one plane: deflection and slope at both ends (slope = d/dx of it), Timoshenko.
Eigen::Matrix4d bendingStiffness(double ei, double gas, double length) {
    const double phi = gas > 0 ? 12 * ei / (gas * length * length) : 0;
    const double q = ei / (length * length * length * (1 + phi)), l = length;
    Eigen::Matrix4d k;
    k << 12, 6 * l, -12, 6 * l, 6 * l, (4 + phi) * l * l, -6 * l, (2 - phi) * l * l, -12, -6 * l, 12, -6 * l, 6 * l,
        (2 - phi) * l * l, -6 * l, (4 + phi) * l * l;
    return k * q;
}

/// Stiffness in its own axes, with bending about the section's principal axes and torsion about its shear centre.
Matrix14 ownStiffness(const Beam& b, double length) {
    const BeamSection& s = b.section;
    const double mean = (s.level_mm4 + s.upright_mm4) / 2, half = (s.level_mm4 - s.upright_mm4) / 2;
    const double radius = std::hypot(half, s.product_mm4);
    const double turn = radius > 1e-12 * mean ? std::atan2(-s.product_mm4, half) / 2 : 0;
    const double c = std::cos(turn), d = std::sin(turn);
    const double larger = mean + radius, smaller = mean - radius; // about the principal axis y', and z'
    const auto flexible = [](double area) { return area > 0 ? 1 / area : 0; };
    const double fy = flexible(s.shear_level_mm2), fz = flexible(s.shear_upright_mm2);
    const double along_y = c * c * fy + d * d * fz, along_z = d * d * fy + c * c * fz;
    const auto over = [](double f) { return f > 0 ? 1 / f : 0; };
    // principal: u, v', w', θx, θy', θz', φ at both ends
    Matrix14 k = Matrix14::Zero();
    const auto put = [&](const Eigen::Matrix4d& part, std::array<int, 4> at, std::array<double, 4> sign) {
        for (int i = 0; i < 4; ++i)
            for (int j = 0; j < 4; ++j)
                k(at[static_cast<std::size_t>(i)], at[static_cast<std::size_t>(j)]) +=
                    sign[static_cast<std::size_t>(i)] * sign[static_cast<std::size_t>(j)] * part(i, j);
    };
    const double ea = b.material.e_mpa * s.area_mm2 / length;
    k(0, 0) = k(7, 7) = ea;
    k(0, 7) = k(7, 0) = -ea;
    put(bendingStiffness(b.material.e_mpa * larger, b.material.g_mpa * over(along_z), length), {2, 4, 9, 11},
        {1, -1, 1, -1}); // θy = −dw/dx
    put(bendingStiffness(b.material.e_mpa * smaller, b.material.g_mpa * over(along_y), length), {1, 5, 8, 12}, {1, 1, 1, 1});
    put(torsionStiffness(b.material.g_mpa * s.torsion_mm4, b.material.e_mpa * s.warping_mm6, length), {3, 6, 10, 13},
        {1, 1, 1, 1});
    // to the beam's own y and z, and to the line between its nodes
    Matrix14 t = Matrix14::Identity();
    for (const int o : {0, 7}) {
        Eigen::Matrix<double, 7, 7> at_line = Eigen::Matrix<double, 7, 7>::Identity();
        at_line(0, 4) = s.centroid.z_mm;
        at_line(0, 5) = -s.centroid.y_mm;
        at_line(1, 3) = -s.shear_centre.z_mm;
        at_line(2, 3) = s.shear_centre.y_mm;
        Eigen::Matrix<double, 7, 7> turned = Eigen::Matrix<double, 7, 7>::Identity();
        for (const int p : {1, 4}) {
            turned(p, p) = turned(p + 1, p + 1) = c;
            turned(p, p + 1) = d;
            turned(p + 1, p) = -d;
        }
        t.block<7, 7>(o, o) = turned * at_line;
    }
    return t.transpose() * k * t;
}

/// What is loose at its ends takes nothing: it follows the others, as this says.
Matrix14 following(Matrix14 k, const Beam& b) {
    Matrix14 all = Matrix14::Identity();
    for (std::size_t i = 0; i < 2 * dofs; ++i) {
        if (!(i < dofs ? b.loose_from[i] : b.loose_to[i - dofs])) continue;
        const auto n = static_cast<Eigen::Index>(i);
        Matrix14 one = Matrix14::Identity();
        one(n, n) = 0;
        if (std::abs(k(n, n)) > 0)
            for (Eigen::Index j = 0; j < 14; ++j)
                if (j != n) one(n, j) = -k(n, j) / k(n, n);
        k = one.transpose() * k * one;
        k.row(n).setZero();
        k.col(n).setZero();
        all = all * one;
    }
    return all;
}

/// Mass of its ends in its own axes, at the line between its nodes: consistent with cubic bending and straight twist.
Matrix14 ownMass(const Beam& b, double length) {
    const BeamSection& s = b.section;
    const double m = s.area_mm2 * length * b.material.kg_mm3 / 1000; // t, so that N and mm go with it
    Matrix14 k = Matrix14::Zero();
    const auto pair = [&](int i, double mass) {
        k(i, i) += mass / 3;
        k(i + 7, i + 7) += mass / 3;
        k(i, i + 7) += mass / 6;
        k(i + 7, i) += mass / 6;
    };
    pair(0, m);
    pair(3, m * (s.level_mm4 + s.upright_mm4) / s.area_mm2);
    pair(6, m * s.warping_mm6 / s.area_mm2);
    Eigen::Matrix4d bend;
    const double l = length;
    bend << 156, 22 * l, 54, -13 * l, 22 * l, 4 * l * l, 13 * l, -3 * l * l, 54, 13 * l, 156, -22 * l, -13 * l, -3 * l * l,
        -22 * l, 4 * l * l;
    bend *= m / 420;
    const auto put = [&](std::array<int, 4> at, std::array<double, 4> sign) {
        for (std::size_t i = 0; i < 4; ++i)
            for (std::size_t j = 0; j < 4; ++j)
                k(at[i], at[j]) += sign[i] * sign[j] * bend(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
    };
    put({1, 5, 8, 12}, {1, 1, 1, 1});
    put({2, 4, 9, 11}, {1, -1, 1, -1});
    // it is where the centroid is
    Matrix14 t = Matrix14::Identity();
    for (const int o : {0, 7}) {
        t(o, o + 4) = s.centroid.z_mm;
        t(o, o + 5) = -s.centroid.y_mm;
        t(o + 1, o + 3) = -s.centroid.z_mm;
        t(o + 2, o + 3) = s.centroid.y_mm;
    }
    return t.transpose() * k * t;
}

Result<Made> made(const Model& m, std::size_t n) {
    const Beam& b = m.beams[n];
    if (b.from >= m.nodes.size() || b.to >= m.nodes.size()) return badBeam(n, "It ends at a node that is not there.", "");
    if (!(b.section.area_mm2 > 0) || !(b.section.torsion_mm4 > 0)) return badBeam(n, "It has no section.", "Give its sizes.");
    const Vector3d from = vec(m.nodes[b.from].at) + vec(b.arm_from), to = vec(m.nodes[b.to].at) + vec(b.arm_to);
    Made made;
    made.length = (to - from).norm();
    if (!(made.length > 1e-6)) return badBeam(n, "It has no length.", "Leave it out, or make one node of its two.");
    const Vector3d x = (to - from) / made.length;
    const Vector3d up = vec(b.up) - x * x.dot(vec(b.up));
    if (!(up.norm() > 1e-6 * vec(b.up).norm())) return badBeam(n, "What is up for it lies along it.", "Say another direction.");
    const Vector3d z = up.normalized(), y = z.cross(x);
    made.axes << x.transpose(), y.transpose(), z.transpose();
    made.mass_kg = b.section.area_mm2 * made.length * b.material.kg_mm3;
    made.stiffness = ownStiffness(b, made.length);
    const Matrix14 follow = following(made.stiffness, b);
    made.held = follow.transpose() * made.stiffness * follow;
    made.mass = follow.transpose() * ownMass(b, made.length) * follow;
    made.to_own = Matrix14::Zero();
    for (const int end : {0, 1}) {
        const Vector3d arm = vec(end ? b.arm_to : b.arm_from);
        Matrix3d cross;
        cross << 0, arm.z(), -arm.y(), -arm.z(), 0, arm.x(), arm.y(), -arm.x(), 0; // θ × arm
        const int o = 7 * end;
        made.to_own.block<3, 3>(o, o) = made.axes;
        made.to_own.block<3, 3>(o, o + 3) = made.axes * cross;
        made.to_own.block<3, 3>(o + 3, o + 3) = made.axes;
        made.to_own(o + 6, o + 6) = 1;
    }
    return made;
}

} // namespace

Result<std::vector<Made>> madeOf(const Model& m) {
    std::vector<Made> beams;
    for (std::size_t n = 0; n < m.beams.size(); ++n) {
        auto one = made(m, n);
        if (!one) return one.error();
        beams.push_back(std::move(*one));
    }
    return beams;
}

Vector14 weightOf(const Beam& b, const Made& m, const Vector3d& gravity) {
    const Vector3d g = m.axes * gravity * m.mass_kg / 1000; // N
    Vector14 f = Vector14::Zero();
    for (const int end : {0, 1}) {
        const int o = 7 * end;
        const double sign = end ? -1 : 1;
        f.segment<3>(o) = g / 2;
        f(o + 4) = -sign * g.z() * m.length / 12;
        f(o + 5) = sign * g.y() * m.length / 12;
        // weight acts at the centroid
        f(o + 3) += (b.section.centroid.y_mm * g.z() - b.section.centroid.z_mm * g.y()) / 2;
        f(o + 4) += b.section.centroid.z_mm * g.x() / 2;
        f(o + 5) += -b.section.centroid.y_mm * g.x() / 2;
    }
    return f;
}

Unknowns unknownsOf(const Model& m, const std::vector<Made>& beams) {
    Unknowns u;
    u.of.assign(m.nodes.size() * dofs, -1);
    std::vector<bool> used(u.of.size(), false);
    for (std::size_t n = 0; n < beams.size(); ++n)
        for (std::size_t i = 0; i < 2 * dofs; ++i) {
            const auto k = static_cast<Eigen::Index>(i);
            // a seventh degree of freedom that no beam's warping stiffens is nobody's
            if (i % dofs == static_cast<std::size_t>(Dof::Warp) && !(beams[n].held(k, k) > 0)) continue;
            used[u.place(m, n, i)] = true;
        }
    for (std::size_t k = 0; k < u.of.size(); ++k) {
        const Node& node = m.nodes[k / dofs];
        if ((used[k] || node.spring[k % dofs] > 0) && !node.held[k % dofs]) u.of[k] = u.count++;
    }
    return u;
}

std::vector<std::tuple<int, int, double>> gathered(const Model& m, const std::vector<Made>& beams, const Unknowns& u,
                                                   Matrix14 Made::*which) {
    std::vector<std::tuple<int, int, double>> entries;
    for (std::size_t n = 0; n < beams.size(); ++n) {
        const Matrix14 k = beams[n].to_own.transpose() * (beams[n].*which) * beams[n].to_own;
        for (std::size_t i = 0; i < 2 * dofs; ++i)
            for (std::size_t j = 0; j < 2 * dofs; ++j) {
                const int row = u.of[u.place(m, n, i)], column = u.of[u.place(m, n, j)];
                const double v = k(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(j));
                if (row >= 0 && column >= 0 && v != 0) entries.emplace_back(row, column, v);
            }
    }
    return entries;
}

} // namespace gorvet::frame
