#include "drive/linkage.hpp"

#include "dense/dense.hpp"
#include "drive/leaf.hpp"

#include <algorithm>
#include <cmath>

#include <Eigen/Geometry>

namespace gorvet::drive {

using geometry::RigidTransform;

namespace {

using Vector = Eigen::VectorXd;
using Matrix = Eigen::MatrixXd;
using V3 = Eigen::Vector3d;
using M3 = Eigen::Matrix3d;

/// What stands for "exactly" beside bushes that give: a wheel is where it is asked to be.
constexpr double firm = 1000;
/// A shackle and its bushes give sideways before they give along.
constexpr double sideways = 0.2;
/// From one stance to the next at the most.
constexpr double most_step_mm = 10;

V3 eigen(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }
Vec3 plain(const V3& v) { return {v.x(), v.y(), v.z()}; }

M3 turnBy(const V3& w) {
    const double angle = w.norm();
    return angle < 1e-300 ? M3::Identity() : M3(Eigen::AngleAxisd(angle, w / angle).toRotationMatrix());
}

/// The unknowns: where the body is, the curvature of each leaf, the turn of each rocker.
struct Unknown {
    V3 shift = V3::Zero();
    M3 turned = M3::Identity();
    std::vector<double> curvature; ///< more than at rest, 1/mm × 1000 × 1000: of the size of mm
    std::vector<double> rocker;    ///< rad × 100
};
constexpr double per_curvature = 1e-6, per_rocker = 1e-2;

class Mechanism {
public:
    explicit Mechanism(const Linkage& l) : l_(l) {
        centre_ = l.right ? V3((eigen(l.left) + eigen(*l.right)) / 2) : eigen(l.left);
        for (const Leaf& leaf : l.leaves) arcs_.push_back(arcOf(leaf));
    }
    std::size_t columns() const { return 6 + l_.leaves.size() + l_.watts.size(); }
    std::size_t drivers() const { return l_.right ? 2 : 1; }
    std::size_t rows() const {
        return l_.rods.size() + 3 * l_.hinges.size() + 2 * l_.struts.size() + 4 * l_.leaves.size() + 2 * l_.watts.size() +
               drivers();
    }
    Unknown rest() const {
        Unknown u;
        u.curvature.assign(l_.leaves.size(), 0);
        u.rocker.assign(l_.watts.size(), 0);
        return u;
    }
    V3 placed(const Unknown& u, const V3& body) const { return centre_ + u.shift + u.turned * (body - centre_); }
    const V3& centre() const { return centre_; }

    /// Residuals and their derivatives; the drivers' rows last.
    void write(const Unknown& u, const Asked& asked, Vector& r, Matrix& jacobian) const {
        r.setZero(static_cast<Eigen::Index>(rows()));
        jacobian.setZero(static_cast<Eigen::Index>(rows()), static_cast<Eigen::Index>(columns()));
        Eigen::Index row = 0;
        for (const Rod& rod : l_.rods) {
            V3 frame = eigen(rod.frame);
            if (rod.racked) frame += eigen(l_.rack.shift(asked.rack_mm));
            lengthRow(u, frame, eigen(rod.body), (eigen(rod.frame) - eigen(rod.body)).norm() + rod.longer_mm, row++, r, jacobian);
        }
        for (const Hinge& h : l_.hinges) {
            const V3 arm = u.turned * (eigen(h.at) - centre_);
            r.segment<3>(row) = centre_ + u.shift + arm - eigen(h.at);
            for (int axis = 0; axis < 3; ++axis) bodyRow(V3::Unit(axis), arm, row + axis, 1, jacobian);
            row += 3;
        }
        for (const Strut& s : l_.struts) strutRows(u, s, row, r, jacobian);
        for (std::size_t k = 0; k < l_.leaves.size(); ++k) leafRows(u, k, row, r, jacobian);
        for (std::size_t k = 0; k < l_.watts.size(); ++k) wattsRows(u, k, row, r, jacobian);
        driver(u, eigen(l_.left), asked.left_mm, row++, r, jacobian);
        if (l_.right) driver(u, eigen(*l_.right), asked.right_mm, row, r, jacobian);
    }
    /// Derivatives of the residuals by the rack, mm per mm.
    Vector byRack(const Unknown& u, const Asked& asked) const {
        Vector d = Vector::Zero(static_cast<Eigen::Index>(rows()));
        for (std::size_t k = 0; k < l_.rods.size(); ++k)
            if (l_.rods[k].racked) {
                V3 frame = eigen(l_.rods[k].frame);
                frame += eigen(l_.rack.shift(asked.rack_mm));
                d(static_cast<Eigen::Index>(k)) =
                    -(placed(u, eigen(l_.rods[k].body)) - frame).normalized().dot(eigen(l_.rack.way(asked.rack_mm)));
            }
        return d;
    }
    double strain(const Vector& r) const {
        const auto own = r.head(static_cast<Eigen::Index>(rows() - drivers()));
        return own.size() ? own.cwiseAbs().maxCoeff() : 0;
    }

private:
    /// Derivatives of u·q for a place of the body, q = centre + shift + arm.
    static void bodyRow(const V3& u, const V3& arm, Eigen::Index row, double weight, Matrix& jacobian) {
        jacobian.block<1, 3>(row, 0) += weight * u.transpose();
        jacobian.block<1, 3>(row, 3) += weight * arm.cross(u).transpose();
    }
    void lengthRow(const Unknown& u, const V3& frame, const V3& body, double length, Eigen::Index row, Vector& r,
                   Matrix& jacobian) const {
        const V3 arm = u.turned * (body - centre_);
        const V3 d = centre_ + u.shift + arm - frame;
        r(row) = d.norm() - length;
        bodyRow(d.normalized(), arm, row, 1, jacobian);
    }
    void strutRows(const Unknown& u, const Strut& s, Eigen::Index& row, Vector& r, Matrix& jacobian) const {
        const V3 along = (eigen(s.top) - eigen(s.foot)).normalized();
        const V3 one = along.unitOrthogonal();
        const V3 arm = u.turned * (eigen(s.foot) - centre_);
        const V3 d = eigen(s.top) - (centre_ + u.shift + arm);
        for (const V3& across : {one, V3(along.cross(one))}) {
            const V3 e = u.turned * across;
            r(row) = e.dot(d);
            bodyRow(-e, arm, row, 1, jacobian);
            jacobian.block<1, 3>(row, 3) += e.cross(d).transpose();
            ++row;
        }
    }
    void leafRows(const Unknown& u, std::size_t k, Eigen::Index& row, Vector& r, Matrix& jacobian) const {
        const Leaf& leaf = l_.leaves[k];
        const LeafArc& arc = arcs_[k];
        const Eigen::Index column = 6 + static_cast<Eigen::Index>(k);
        const double more = u.curvature[k] * per_curvature;
        const auto eye = [&](bool front, V3& by_curvature) {
            const LeafEnd e = arc.end(front, more);
            by_curvature = u.turned * eigen(e.by_curvature) * per_curvature;
            return V3(u.turned * (eigen(leaf.seat) + eigen(e.from_seat) - centre_));
        };
        V3 slope;
        V3 arm = eye(true, slope);
        const V3 off = centre_ + u.shift + arm - eigen(leaf.front_eye);
        for (int axis = 0; axis < 3; ++axis) {
            const double weight = axis == 1 ? sideways : 1;
            r(row) = weight * off(axis);
            bodyRow(V3::Unit(axis), arm, row, weight, jacobian);
            jacobian(row, column) = weight * slope(axis);
            ++row;
        }
        arm = eye(false, slope);
        const V3 d = centre_ + u.shift + arm - eigen(leaf.shackle);
        r(row) = d.norm() - (eigen(leaf.rear_eye) - eigen(leaf.shackle)).norm();
        bodyRow(d.normalized(), arm, row, 1, jacobian);
        jacobian(row, column) = d.normalized().dot(slope);
        ++row;
    }
    void wattsRows(const Unknown& u, std::size_t k, Eigen::Index& row, Vector& r, Matrix& jacobian) const {
        const Watts& w = l_.watts[k];
        const Eigen::Index column = 6 + static_cast<Eigen::Index>(l_.leaves.size() + k);
        const double angle = u.rocker[k] * per_rocker;
        const M3 rocked = turnBy(V3(angle, 0, 0)); // about the car's length
        for (const bool left : {true, false}) {
            const V3 pivot = eigen(w.pivot), end = eigen(left ? w.left_arm : w.right_arm);
            const V3 frame = eigen(left ? w.left_frame : w.right_frame);
            const V3 out = rocked * (end - pivot);
            const V3 arm = u.turned * (pivot + out - centre_);
            const V3 d = centre_ + u.shift + arm - frame;
            r(row) = d.norm() - (frame - end).norm();
            bodyRow(d.normalized(), arm, row, 1, jacobian);
            jacobian(row, column) = d.normalized().dot(u.turned * V3::UnitX().cross(out)) * per_rocker;
            ++row;
        }
    }
    void driver(const Unknown& u, const V3& wheel, double up, Eigen::Index row, Vector& r, Matrix& jacobian) const {
        const V3 arm = u.turned * (wheel - centre_);
        r(row) = firm * ((centre_ + u.shift + arm).z() - wheel.z() - up);
        bodyRow(V3::UnitZ(), arm, row, firm, jacobian);
    }

    const Linkage& l_;
    V3 centre_;
    std::vector<LeafArc> arcs_;
};

void step(Unknown& u, const Vector& by) {
    u.shift += by.head<3>();
    u.turned = turnBy(by.segment<3>(3)) * u.turned;
    Eigen::Index k = 6;
    for (double& c : u.curvature) c += by(k++);
    for (double& c : u.rocker) c += by(k++);
}

/// Where just as much holds it as need be, and holds it well, by elimination: a third of the work for the same step. What is free
/// to move, or held twice in one way, has no one step: there columns that are held are chosen, and the others stay.
Vector stepFor(const Matrix& jacobian, const Vector& r) {
    constexpr double held = 1e-9; // the least pivot beside the largest, by far less than any real hold
    if (jacobian.rows() == jacobian.cols())
        if (const auto by = dense::eliminated(jacobian, -r, held)) return *by;
    return dense::leastSquares(jacobian, -r);
}

/// Newton, or Gauss and Newton where more holds it than need be; false where it doesn't come to rest near where it began.
bool settleInto(const Mechanism& m, const Asked& asked, Unknown& u, Vector& r, Matrix& jacobian) {
    Vector gone = Vector::Zero(static_cast<Eigen::Index>(m.columns()));
    for (int turn = 0; turn < 30; ++turn) {
        m.write(u, asked, r, jacobian);
        const Vector by = stepFor(jacobian, r);
        if (!by.allFinite()) return false;
        gone += by;
        // a step of 10 mm moves nothing by 60 mm, or turns it by 0.1 rad, on its own branch
        if (gone.head<3>().norm() > 60 || gone.segment<3>(3).norm() > 0.1) return false;
        step(u, by);
        if (by.head<3>().norm() < 1e-10 && by.segment<3>(3).norm() < 1e-13) {
            m.write(u, asked, r, jacobian);
            return true;
        }
    }
    return false;
}

double signOf(const Matrix& jacobian) {
    if (jacobian.rows() != jacobian.cols()) return 1;
    return dense::determinant(jacobian) < 0 ? -1 : 1;
}

Motion motionOf(const Vector& by) { return {plain(by.head<3>()), plain(by.segment<3>(3))}; }

Asked between(const Asked& a, const Asked& b, double share) {
    const auto mixed = [&](double from, double to) { return from + share * (to - from); };
    return {mixed(a.left_mm, b.left_mm), mixed(a.right_mm, b.right_mm), mixed(a.rack_mm, b.rack_mm)};
}
double farthest(const Asked& a, const Asked& b) {
    return std::max({std::abs(a.left_mm - b.left_mm), std::abs(a.right_mm - b.right_mm), std::abs(a.rack_mm - b.rack_mm)});
}

Stance stanceOf(const Mechanism& m, const Linkage& l, const Asked& asked, const Unknown& u, const Vector& r,
                const Matrix& jacobian) {
    Stance s;
    s.asked = asked;
    for (int row = 0; row < 3; ++row) s.moved.rotation[static_cast<std::size_t>(row)] = plain(u.turned.row(row).transpose());
    s.moved.translation = plain(m.centre() + u.shift - u.turned * m.centre());
    s.reference = plain(m.centre() + u.shift);
    s.strain_mm = m.strain(r);
    const dense::ByColumns decomposed(jacobian);
    Vector driven = Vector::Zero(jacobian.rows());
    driven.tail(static_cast<Eigen::Index>(m.drivers())).setConstant(firm);
    s.in_heave = motionOf(decomposed.solve(driven));
    if (l.right) {
        const double half = (l.right->y_mm - l.left.y_mm) / 2;
        driven.tail<2>() << -firm * half, firm * half;
        s.in_roll = motionOf(decomposed.solve(driven));
    }
    s.in_rack = motionOf(decomposed.solve(-m.byRack(u, asked)));
    return s;
}

} // namespace

namespace {

/// The arm of a box, the axis of its shaft (as upright as the arm lets it be), and where its ball goes first: to the right.
struct Swing {
    V3 arm, axis, first;
    double length;
    explicit Swing(const Vec3& a) : arm(eigen(a)), length(arm.norm()) {
        axis = (V3::UnitZ() - arm * arm.z() / (length * length)).normalized();
        first = axis.cross(arm / length);
        if (first.y() < 0) {
            axis = -axis;
            first = -first;
        }
    }
};

} // namespace

Vec3 Rack::shift(double mm) const {
    if (!arm) return geometry::times(along, mm);
    const Swing s(*arm);
    return plain(s.arm * (std::cos(mm / s.length) - 1) + s.first * s.length * std::sin(mm / s.length));
}
Vec3 Rack::way(double mm) const {
    if (!arm) return along;
    const Swing s(*arm);
    return plain(s.first * std::cos(mm / s.length) - s.arm / s.length * std::sin(mm / s.length));
}

Vec3 motionAt(const Motion& m, const Vec3& reference, const Vec3& p) {
    return geometry::plus(m.shift, geometry::cross(m.turn, geometry::minus(p, reference)));
}

std::vector<Motion> freedoms(const Linkage& l, double least_hold) {
    const Mechanism m(l);
    Vector r;
    Matrix jacobian;
    m.write(m.rest(), {}, r, jacobian);
    jacobian.middleCols<3>(3) /= 1000; // a turn counts as what it moves at 1000 mm
    const dense::Singular svd = dense::singular(jacobian, dense::Sides::Right);
    std::vector<Motion> free;
    const Vector& values = svd.values;
    for (Eigen::Index k = 0; k < jacobian.cols(); ++k) {
        if (k < values.size() && values(k) > least_hold) continue;
        Vector way = svd.right.col(k);
        Eigen::Index most = 0;
        way.head<6>().cwiseAbs().maxCoeff(&most);
        if (std::abs(way(most)) < 1e-9) continue;
        way /= way(most);
        free.push_back(motionOf(way));
        free.back().turn = geometry::times(free.back().turn, 1.0 / 1000);
    }
    return free;
}

std::vector<Stance> sweep(const Linkage& l, const std::vector<Asked>& asked) {
    const Mechanism m(l);
    std::vector<Stance> out;
    Unknown u = m.rest();
    Vector r;
    Matrix jacobian;
    Asked at;
    if (!settleInto(m, at, u, r, jacobian)) return out;
    const double sign = signOf(jacobian);
    for (const Asked& next : asked) {
        const Asked from = at;
        double done = 0;
        double share = std::min(1.0, most_step_mm / std::max(most_step_mm, farthest(from, next)));
        while (done < 1) {
            const double to = std::min(1.0, done + share);
            Unknown tried = u;
            const Asked here = to >= 1 ? next : between(from, next, to);
            if (settleInto(m, here, tried, r, jacobian) && signOf(jacobian) == sign) {
                u = std::move(tried);
                done = to;
                at = here;
            } else {
                share /= 2;
                if (share * farthest(from, next) < 0.01) return out;
            }
        }
        m.write(u, next, r, jacobian);
        out.push_back(stanceOf(m, l, next, u, r, jacobian));
    }
    return out;
}

RodAngles rodAngles(const Linkage& l, const Rod& rod, const Stance& s) {
    Vec3 frame = rod.frame;
    if (rod.racked) frame = geometry::plus(frame, l.rack.shift(s.asked.rack_mm));
    const Vec3 rest = geometry::unit(geometry::minus(rod.body, rod.frame));
    const Vec3 now = geometry::unit(geometry::minus(s.moved.transformed(rod.body), frame));
    Vec3 bolt = geometry::unit(geometry::cross(rest, {0, 0, 1}));
    if (geometry::length(bolt) < 0.5) bolt = {0, 1, 0}; // a rod that stands upright: across the car
    const auto leans = [&](const Vec3& across) { return std::abs(std::asin(std::clamp(geometry::dot(now, across), -1.0, 1.0))); };
    return {leans(bolt), leans(s.moved.rotated(bolt))};
}

double strutLength(const Strut& strut, const Stance& s) { return geometry::between(strut.top, s.moved.transformed(strut.foot)); }

} // namespace gorvet::drive
