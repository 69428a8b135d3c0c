#include "tape/datum.hpp"

#include "dense/dense.hpp"
#include "tape/rigid.hpp"

#include <Eigen/Geometry>
#include <cmath>

namespace gorvet::tape {

using build::DatumKind;

namespace {

/// What each rule misses by now, mm.
Eigen::VectorXd missedBy(const Network& net) {
    const auto& rules = net.survey->datum;
    Eigen::VectorXd missed = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(rules.size()));
    for (size_t i = 0; i < rules.size(); ++i) {
        const DatumRule& r = rules[i];
        const auto at = [&](size_t k) -> const Vec3& { return net.at[static_cast<size_t>(r.points[k])]; };
        double& m = missed(static_cast<Eigen::Index>(i));
        switch (r.kind) {
        case DatumKind::Free: break;
        case DatumKind::Height: m = at(0).z_mm - r.value_mm; break;
        case DatumKind::Station: m = (at(0).x_mm + at(r.points.size() - 1).x_mm) / 2 - r.value_mm; break;
        case DatumKind::Centred: m = (at(0).y_mm + at(1).y_mm) / 2; break;
        case DatumKind::Upright: m = at(1).x_mm - at(0).x_mm; break;
        case DatumKind::Level: m = at(1).z_mm - at(0).z_mm; break;
        }
    }
    return missed;
}

/// Pseudo-inverse that leaves out what is weaker than any workshop could tell, and what it leaves open, as orthonormal columns.
Eigen::MatrixXd inverseOf(const Eigen::MatrixXd& m, Eigen::MatrixXd& open) {
    const dense::Singular svd = dense::singular(m, dense::Sides::Both);
    const Eigen::VectorXd& values = svd.values;
    Eigen::Index rank = 0;
    while (rank < values.size() && values(rank) > 1e-4) ++rank;
    open = svd.right.rightCols(m.cols() - rank);
    return svd.right.leftCols(rank) * values.head(rank).cwiseInverse().asDiagonal() * svd.left.leftCols(rank).transpose();
}

/// A rule among points that nothing fixes ties nothing.
bool counts(const Network& net, const Fixing& fixing, const DatumRule& r) {
    for (const int p : r.points)
        for (int axis = 0; axis < 3; ++axis)
            if (!net.placed[static_cast<size_t>(p)] || !fixing.determined[static_cast<size_t>(3 * p + axis)]) return false;
    return r.kind != DatumKind::Free;
}

} // namespace

Eigen::MatrixXd datumRules(const Network& net) {
    const auto& rules = net.survey->datum;
    Eigen::MatrixXd d =
        Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(rules.size()), static_cast<Eigen::Index>(3 * net.at.size()));
    for (size_t i = 0; i < rules.size(); ++i) {
        const DatumRule& r = rules[i];
        const auto add = [&](size_t k, int axis, double by) { d(static_cast<Eigen::Index>(i), 3 * r.points[k] + axis) += by; };
        switch (r.kind) {
        case DatumKind::Free: break;
        case DatumKind::Height: add(0, 2, 1); break;
        case DatumKind::Station:
            add(0, 0, 0.5);
            add(r.points.size() - 1, 0, 0.5);
            break;
        case DatumKind::Centred:
            add(0, 1, 0.5);
            add(1, 1, 0.5);
            break;
        case DatumKind::Upright:
            add(0, 0, -1);
            add(1, 0, 1);
            break;
        case DatumKind::Level:
            add(0, 2, -1);
            add(1, 2, 1);
            break;
        }
    }
    return d;
}

OnDatum::OnDatum(Network& net, std::shared_ptr<const Fixing> fixing, const Eigen::MatrixXd& floats) : fixing_(std::move(fixing)) {
    index_ = net.free_index;
    for (const auto& of_setup : net.setup_index) index_.insert(index_.end(), of_setup.begin(), of_setup.end());
    turn_.setIdentity();
    setup_turn_.assign(net.setups.size(), Eigen::Matrix3d::Identity());
    turn(net, floats);
    prepare();
}

/// Newton's steps onto the rules; the last linearisation stays for the covariances.
void OnDatum::turn(Network& net, const Eigen::MatrixXd& floats) {
    const auto coordinates = static_cast<Eigen::Index>(net.free_index.size());
    const auto all = static_cast<Eigen::Index>(index_.size());
    std::vector<Eigen::Index> ties;
    for (size_t i = 0; i < net.survey->datum.size(); ++i)
        if (counts(net, *fixing_, net.survey->datum[i])) ties.push_back(static_cast<Eigen::Index>(i));
    std::vector<char> sums(static_cast<size_t>(coordinates), 0);
    for (size_t k = 0; k < sums.size(); ++k)
        sums[k] = net.placed[k / 3] && fixing_->determined[k] && net.survey->points[k / 3].rough;
    for (int round = 0; round < 12; ++round) {
        const RigidMotions motions = rigidMotions(net);
        g_.resize(all, 6);
        g_ << motions.by_coordinate, motions.by_setup;
        const Eigen::MatrixXd rules = datumRules(net);
        const Eigen::VectorXd missed = missedBy(net);
        d_ = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(ties.size()), all);
        Eigen::VectorXd off(static_cast<Eigen::Index>(ties.size()));
        for (size_t i = 0; i < ties.size(); ++i) {
            d_.row(static_cast<Eigen::Index>(i)).head(coordinates) = rules.row(ties[i]);
            off(static_cast<Eigen::Index>(i)) = missed(ties[i]);
        }
        Eigen::MatrixXd none;
        by_rules_ = ties.empty() ? Eigen::MatrixXd::Zero(6, 0) : inverseOf(d_ * g_, none);
        // open: what neither a rule nor a reading resists
        Eigen::MatrixXd resisted(d_.rows() + 6, 6);
        resisted << d_ * g_, Eigen::MatrixXd::Identity(6, 6) - floats * floats.transpose();
        Eigen::MatrixXd open;
        inverseOf(resisted, open);
        // what is open: the fixed points' sums stay where the rough positions have them
        inner_d_ = Eigen::MatrixXd::Zero(open.cols(), all);
        Eigen::VectorXd from_rough = Eigen::VectorXd::Zero(all);
        for (Eigen::Index k = 0; k < coordinates; ++k) {
            if (!sums[static_cast<size_t>(k)]) continue;
            inner_d_.col(k) = (g_.row(k) * open).transpose();
            const auto point = static_cast<size_t>(k / 3);
            from_rough(k) = coordinate(std::as_const(net.at[point]), static_cast<int>(k % 3)) -
                            coordinate(*net.survey->points[point].rough, static_cast<int>(k % 3));
        }
        by_inner_ =
            open.cols() == 0 ? Eigen::MatrixXd::Zero(6, 0) : Eigen::MatrixXd(open * inverseOf(inner_d_ * g_ * open, none));
        Eigen::VectorXd motion = -by_rules_ * off;
        motion -= by_inner_ * (inner_d_ * (from_rough + g_ * motion));
        missed_mm_ = off.size() ? off.cwiseAbs().maxCoeff() : 0.0;
        if (motion.cwiseAbs().maxCoeff() < 1e-9) break;
        move(net, motion);
    }
}

namespace {

using SetUpPlace = std::array<double, setup_unknowns>;

/// A set-up's unknowns once all was turned by r and shifted by t.
SetUpPlace moved(SetUpKind kind, const SetUpPlace& u, const Eigen::Matrix3d& r, const Eigen::Vector3d& t) {
    if (kind == SetUpKind::Plane) {
        const Eigen::Vector3d n = r * Eigen::Vector3d(-u[1] / 1000, -u[2] / 1000, 1);
        const Eigen::Vector3d p = r * Eigen::Vector3d(0, 0, u[0]) + t;
        return {p.z() + (n.x() * p.x() + n.y() * p.y()) / n.z(), -1000 * n.x() / n.z(), -1000 * n.y() / n.z()};
    }
    if (kind == SetUpKind::String) {
        const Eigen::Vector3d way = r * Eigen::Vector3d(1, u[1] / 1000, 0);
        const Eigen::Vector3d p = r * Eigen::Vector3d(0, u[0], 0) + t;
        const double swing = way.y() / way.x();
        return {p.y() - swing * p.x(), 1000 * swing, 0};
    }
    return u;
}

} // namespace

void OnDatum::move(Network& net, const Eigen::VectorXd& motion) {
    const RigidMotions motions = rigidMotions(net);
    const Eigen::Vector3d angle = motion.tail<3>() / motions.extent_mm;
    const double size = angle.norm();
    const Eigen::Matrix3d r =
        size > 0 ? Eigen::AngleAxisd(size, angle / size).toRotationMatrix() : Eigen::Matrix3d(Eigen::Matrix3d::Identity());
    const Eigen::Vector3d t = motions.centre - r * motions.centre + motion.head<3>();
    for (size_t i = 0; i < net.at.size(); ++i) {
        if (!net.placed[i]) continue;
        const Eigen::Vector3d p = r * Eigen::Vector3d(net.at[i].x_mm, net.at[i].y_mm, net.at[i].z_mm) + t;
        net.at[i] = {p.x(), p.y(), p.z()};
    }
    turn_ = r * turn_;
    for (size_t s = 0; s < net.setups.size(); ++s) {
        const SetUpKind kind = net.survey->setups[s].kind;
        const SetUpPlace before = net.setups[s];
        net.setups[s] = moved(kind, before, r, t);
        Eigen::Matrix3d by;
        for (size_t k = 0; k < setup_unknowns; ++k) {
            constexpr double step = 1e-3;
            SetUpPlace up = before;
            SetUpPlace down = before;
            up[k] += step;
            down[k] -= step;
            const SetUpPlace high = moved(kind, up, r, t);
            const SetUpPlace low = moved(kind, down, r, t);
            for (size_t l = 0; l < setup_unknowns; ++l)
                by(static_cast<Eigen::Index>(l), static_cast<Eigen::Index>(k)) = (high[l] - low[l]) / (2 * step);
        }
        setup_turn_[s] = by * setup_turn_[s];
    }
}

/// The unknowns of the free adjustment, three by three, as they are in the axes of the datum; or the other way round.
Eigen::VectorXd OnDatum::turned(const Eigen::VectorXd& v, bool back) const {
    Eigen::VectorXd out(v.size());
    const auto points = v.size() / 3 - static_cast<Eigen::Index>(setup_turn_.size());
    for (Eigen::Index i = 0; 3 * i < v.size(); ++i) {
        const Eigen::Matrix3d& by = i < points ? turn_ : setup_turn_[static_cast<size_t>(i - points)];
        out.segment<3>(3 * i) =
            back ? Eigen::Vector3d(by.transpose() * v.segment<3>(3 * i)) : Eigen::Vector3d(by * v.segment<3>(3 * i));
    }
    return out;
}

Eigen::VectorXd OnDatum::times(const Eigen::VectorXd& v) const {
    Eigen::VectorXd free = Eigen::VectorXd::Zero(fixing_->factor->size());
    const Eigen::VectorXd before = turned(v, true);
    for (size_t k = 0; k < index_.size(); ++k)
        if (index_[k] >= 0) free(index_[k]) += before(static_cast<Eigen::Index>(k));
    const Eigen::VectorXd q = fixing_->factor->solve(free);
    Eigen::VectorXd all = Eigen::VectorXd::Zero(v.size());
    for (size_t k = 0; k < index_.size(); ++k)
        if (index_[k] >= 0) all(static_cast<Eigen::Index>(k)) = q(index_[k]);
    return turned(all, false);
}

Eigen::VectorXd OnDatum::spread(size_t k) const {
    Eigen::VectorXd v = Eigen::VectorXd::Zero(g_.rows());
    v(static_cast<Eigen::Index>(k)) = 1;
    v -= inner_d_.transpose() * (by_inner_.transpose() * (g_.transpose() * v));
    v -= d_.transpose() * (by_rules_.transpose() * (g_.transpose() * v));
    return v;
}

/// All rules, then what holds the rest: their own covariances, once for the variances of all.
void OnDatum::prepare() {
    Eigen::MatrixXd ties(d_.rows() + inner_d_.rows(), d_.cols());
    ties << d_, inner_d_;
    by_ties_.resize(ties.rows(), ties.cols());
    for (Eigen::Index i = 0; i < ties.rows(); ++i) by_ties_.row(i) = times(ties.row(i).transpose()).transpose();
    of_ties_ = by_ties_ * ties.transpose();
}

/// C before the rules, of one unknown with itself: from the block of its own three.
double OnDatum::own(size_t k) const {
    const auto block = static_cast<Eigen::Index>(k - k % 3);
    const auto points = static_cast<Eigen::Index>(index_.size()) / 3 - static_cast<Eigen::Index>(setup_turn_.size());
    const Eigen::Matrix3d& by = block / 3 < points ? turn_ : setup_turn_[static_cast<size_t>(block / 3 - points)];
    double sum = 0;
    for (Eigen::Index i = 0; i < 3; ++i)
        for (Eigen::Index j = 0; j < 3; ++j) {
            const int a = index_[static_cast<size_t>(block + i)];
            const int b = index_[static_cast<size_t>(block + j)];
            if (a >= 0 && b >= 0)
                sum += by(static_cast<Eigen::Index>(k % 3), i) * by(static_cast<Eigen::Index>(k % 3), j) *
                       fixing_->factor->entry(a, b);
        }
    return sum;
}

double OnDatum::variance(size_t k) const {
    // v = e_k − Σ c of the ties: vᵀCv by the covariances of the ties
    const Eigen::VectorXd g = g_.row(static_cast<Eigen::Index>(k)).transpose();
    const Eigen::VectorXd inner = by_inner_.transpose() * g;
    const Eigen::VectorXd rules = by_rules_.transpose() * (g - (inner_d_ * g_).transpose() * inner);
    Eigen::VectorXd c(rules.size() + inner.size());
    c << rules, inner;
    const double before = own(k);
    const double after = before - 2 * c.dot(by_ties_.col(static_cast<Eigen::Index>(k))) + c.dot(of_ties_ * c);
    return after > 1e-11 * before ? after : 0.0; // what a rule holds
}

std::vector<double> OnDatum::column(size_t k) const {
    Eigen::VectorXd c = times(spread(k));
    c -= g_ * (by_rules_ * (d_ * c));
    c -= g_ * (by_inner_ * (inner_d_ * c));
    return {c.data(), c.data() + c.size()};
}

} // namespace gorvet::tape
