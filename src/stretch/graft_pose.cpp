#include "stretch/graft_pose.hpp"

#include "dense/dense.hpp"

#include <Eigen/Geometry>

#include <cmath>

namespace gorvet::stretch {
namespace {

using build::GraftPinKind;
using Eigen::Matrix3d;
using Eigen::MatrixXd;
using Eigen::Vector3d;
using Vector6d = Eigen::Matrix<double, 6, 1>;

Vector3d vec(const build::Vec3& p) { return {p.x_mm, p.y_mm, p.z_mm}; }
Matrix3d crossed(const Vector3d& v) {
    Matrix3d m;
    m << 0, -v.z(), v.y(), v.z(), 0, -v.x(), -v.y(), v.x(), 0;
    return m;
}

/// One residual: the mean of one coordinate of some points, less its target, over its tolerance.
struct Row {
    std::vector<std::size_t> points;
    int axis = 0;
    double target = 0;
    double weight = 1; ///< one over the tolerance
};

class Setter {
public:
    explicit Setter(const PoseInput& in) : in_(in) {
        for (const PoseInput::Pin& pin : in.pins) {
            const double weight = 1 / std::max(pin.tolerance_mm, 1e-3);
            if (pin.kind == GraftPinKind::Centred) {
                rows_.push_back({pin.points, 1, 0, weight});
                continue;
            }
            const int axis = pin.kind == GraftPinKind::Station ? 0 : pin.kind == GraftPinKind::Offset ? 1 : 2;
            for (const std::size_t p : pin.points) rows_.push_back({{p}, axis, pin.target_mm, weight});
        }
        for (const build::Vec3& p : in.points) own_.push_back(vec(p));
        // levers are counted from the middle of what is pinned
        Vector3d low = Vector3d::Constant(1e12), high = -low;
        for (const Row& row : rows_)
            for (const std::size_t p : row.points) {
                low = low.cwiseMin(own_[p]);
                high = high.cwiseMax(own_[p]);
            }
        middle_ = rows_.empty() ? Vector3d::Zero() : Vector3d((low + high) / 2);
        reach_ = rows_.empty() ? 1 : std::max(100.0, (high - low).norm() / 2);
    }

    GraftPose set() {
        GraftPose pose;
        constexpr int most_steps = 60;
        constexpr double rest_mm = 1e-9;
        for (int step = 0; step < most_steps && !pose.found; ++step) {
            solve();
            const Vector3d turn = step_.head<3>() / reach_;
            const double angle = turn.norm();
            const Matrix3d by =
                angle > 0 ? Eigen::AngleAxisd(angle, turn / angle).toRotationMatrix() : Matrix3d(Matrix3d::Identity());
            // about the middle of what is pinned, as it stands
            const Vector3d middle = at(middle_);
            shift_ = middle + step_.tail<3>() - by * turn_ * middle_;
            turn_ = by * turn_;
            pose.found = step_.norm() < rest_mm;
        }
        solve();
        for (const Vector3d& p : own_) {
            const Vector3d q = at(p);
            pose.points.push_back({q.x(), q.y(), q.z()});
        }
        pose.covariance = covariance();
        pose.open = open();
        return pose;
    }

private:
    Vector3d at(const Vector3d& own) const { return turn_ * own + shift_; }

    /// One step: turns (times the reach) about the middle, then shifts.
    void solve() {
        const auto n = static_cast<Eigen::Index>(rows_.size());
        slopes_ = MatrixXd::Zero(n, 6);
        Eigen::VectorXd left(n);
        const Vector3d middle = at(middle_);
        for (Eigen::Index k = 0; k < n; ++k) {
            const Row& row = rows_[static_cast<std::size_t>(k)];
            const double share = row.weight / static_cast<double>(row.points.size());
            left(k) = -row.weight * row.target;
            for (const std::size_t p : row.points) {
                const Vector3d arm = at(own_[p]) - middle;
                left(k) += share * at(own_[p])(row.axis);
                slopes_.row(k).head<3>() += share / reach_ * arm.cross(Vector3d::Unit(row.axis)).transpose();
                slopes_(k, 3 + row.axis) += share;
            }
        }
        const dense::Eigenpairs e = dense::eigenpairs(slopes_.transpose() * slopes_);
        constexpr double nothing = 1e-8; // of the stiffest direction
        inverse_.setZero();
        loose_.clear();
        for (int k = 0; k < 6; ++k) {
            const Vector6d way = e.vectors.col(k);
            if (e.values(k) > nothing * std::max(e.values(5), 1e-12))
                inverse_ += way * way.transpose() / e.values(k);
            else
                loose_.push_back(way);
        }
        step_ = -inverse_ * slopes_.transpose() * left;
    }

    /// Each point goes with its own error, and with what the pinned points' errors make of the pose.
    std::vector<double> covariance() const {
        const auto n = static_cast<Eigen::Index>(3 * own_.size());
        MatrixXd of_pose = MatrixXd::Zero(static_cast<Eigen::Index>(rows_.size()), n);
        for (std::size_t k = 0; k < rows_.size(); ++k) {
            const Row& row = rows_[k];
            for (const std::size_t p : row.points)
                of_pose.block<1, 3>(static_cast<Eigen::Index>(k), static_cast<Eigen::Index>(3 * p)) +=
                    row.weight / static_cast<double>(row.points.size()) * turn_.row(row.axis);
        }
        const MatrixXd pose = -inverse_ * slopes_.transpose() * of_pose;
        MatrixXd all = MatrixXd::Zero(n, n);
        const Vector3d middle = at(middle_);
        for (std::size_t p = 0; p < own_.size(); ++p) {
            const auto at_row = static_cast<Eigen::Index>(3 * p);
            all.block<3, 3>(at_row, at_row) += turn_;
            all.block(at_row, 0, 3, n) += pose.bottomRows<3>() - crossed(at(own_[p]) - middle) / reach_ * pose.topRows<3>();
        }
        const Eigen::Map<const Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>> given(
            in_.covariance.data(), n, n);
        const Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor> c = all * given * all.transpose();
        return {c.data(), c.data() + c.size()};
    }

    std::vector<std::string> open() const {
        static constexpr const char* words[] = {"how it leans to a side: pin the heights of a left and a right point.",
                                                "whether its nose is high: pin a second height, far from the first.",
                                                "whether it stands straight: pin the stations of a left and a right point.",
                                                "its station: pin one.",
                                                "its offset: pin a left and a right point as centred.",
                                                "its height: pin one."};
        std::vector<std::string> list;
        for (int k = 0; k < 6; ++k) {
            double share = 0; // of that direction that is loose
            for (const Vector6d& way : loose_) share += way(k) * way(k);
            constexpr double mostly = 0.3;
            if (share > mostly) list.emplace_back(words[k]);
        }
        if (!loose_.empty() && list.empty()) list.emplace_back("all of it together: pin one more point.");
        return list;
    }

    const PoseInput& in_;
    std::vector<Row> rows_;
    std::vector<Vector3d> own_;
    Vector3d middle_ = Vector3d::Zero();
    double reach_ = 1;
    Matrix3d turn_ = Matrix3d::Identity();
    Vector3d shift_ = Vector3d::Zero();
    MatrixXd slopes_;
    Eigen::Matrix<double, 6, 6> inverse_;
    std::vector<Vector6d> loose_;
    Vector6d step_ = Vector6d::Zero();
};

} // namespace

GraftPose graftPose(const PoseInput& in) { return Setter(in).set(); }

} // namespace gorvet::stretch
