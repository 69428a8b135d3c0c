#pragma once

#include "tape/undetermined.hpp"

/// The datum in the workshop's terms: a survey that was adjusted freely, laid on pads, a centreline and a station. The shape does
/// not change, the ± of the coordinates do. Internal to this room.
namespace gorvet::tape {

/// Positions and set-ups moved onto the rules, and how covariances follow: C′ = S C Sᵀ, S = I − G (D G)⁺ D, with G the rigid
/// motions and D the rules; what neither rules nor readings hold is held by the sum over all fixed points (inner constraints).
class OnDatum {
public:
    /// Moves `net`. `fixing` belongs to it as it was adjusted; `floats`: the motions that no reading resists (openMotions).
    OnDatum(Network& net, std::shared_ptr<const Fixing> fixing, const Eigen::MatrixXd& floats);

    /// Column of C′ beside unknown k: 3·point + axis, then three for each set-up.
    std::vector<double> column(size_t k) const;
    /// C′(k, k).
    double variance(size_t k) const;
    /// The rules contradict each other or say too little of where the survey stands: by so much, mm, the worst is missed.
    double missed_mm() const { return missed_mm_; }

private:
    void turn(Network& net, const Eigen::MatrixXd& floats);
    void move(Network& net, const Eigen::VectorXd& motion);
    Eigen::VectorXd turned(const Eigen::VectorXd&, bool back) const;
    void prepare();
    double own(size_t k) const;
    Eigen::VectorXd spread(size_t k) const;              ///< Sᵀ e_k
    Eigen::VectorXd times(const Eigen::VectorXd&) const; ///< C of the free adjustment in the datum's axes

    std::shared_ptr<const Fixing> fixing_;
    std::vector<int> index_;   ///< of each unknown among the free ones
    Eigen::MatrixXd g_;        ///< motions, all unknowns × 6
    Eigen::MatrixXd d_;        ///< rules, rules × all unknowns
    Eigen::MatrixXd by_rules_; ///< (D G)⁺
    Eigen::MatrixXd inner_d_;  ///< the sums over all fixed points, for what the rules leave open
    Eigen::MatrixXd by_inner_;
    Eigen::MatrixXd by_ties_;                 ///< covariances of all ties with every unknown
    Eigen::MatrixXd of_ties_;                 ///< and with each other
    Eigen::Matrix3d turn_;                    ///< from the axes of the free adjustment
    std::vector<Eigen::Matrix3d> setup_turn_; ///< of each set-up's unknowns
    double missed_mm_ = 0;
};

/// Its rows: how much each rule is missed by when a coordinate moves by 1 mm.
Eigen::MatrixXd datumRules(const Network&);

} // namespace gorvet::tape
