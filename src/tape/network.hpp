#pragma once

#include "tape/equations.hpp"
#include "tape/factor.hpp"

/// The survey as numbers, shared by the parts of the solver. Internal to this bench.
namespace gorvet::tape {

/// Positions, which coordinates are free, which readings count.
struct Network {
    const Survey* survey = nullptr;
    std::vector<Vec3> at;        ///< current positions
    std::vector<char> placed;    ///< the point has a position
    std::vector<int> free_index; ///< of coordinate 3·point + axis among the unknowns, −1 when held or not placed
    int free_count = 0;          ///< unknowns in all: coordinates, then those of set-ups
    std::vector<std::array<double, setup_unknowns>> setups;
    std::vector<std::array<int, setup_unknowns>> setup_index; ///< of a set-up's unknowns; −1 where it is taken as zero
    /// 1σ about zero of a set-up's unknown that no reading tells: it stays unknown, and counts as one more reading; 0: none.
    std::vector<std::array<double, setup_unknowns>> setup_prior;
    std::vector<char> active;               ///< reading counts (not set aside, both points placed)
    std::vector<double> sense;              ///< senseOf each reading
    std::vector<std::vector<int>> touching; ///< readings by point
};

double& coordinate(Vec3&, int axis);
double coordinate(const Vec3&, int axis);

/// Positions by rough positions, held coordinates and, for points without any, by the readings to points already placed.
Network begin(const Survey&);

/// Prediction of one reading at the current positions.
Predicted predict(const Network&, int reading);
/// Σ(v/σ)² over the active readings that touch `point`; all active ones, and what is stated of set-ups, when −1.
double omega(const Network&, int point = -1);

enum class Loss { Huber, Plain };
/// Moves the free coordinates to the least-squares position. False when it did not converge.
bool adjust(Network&, Loss);
/// Moves one point alone against its readings to placed points (Gauss–Newton with damping). Returns its Σ(v/σ)².
double settle(Network&, int point);

/// Rows of all readings, divided by σ, then of what is stated of set-ups: (readings + priors) × unknowns. Rows of inactive
/// readings are there too.
Rows designMatrix(const Network&);
/// The same without those that do not count.
Rows activeRows(const Network&, const Rows&);
/// How many unknowns of set-ups have a prior.
int priorCount(const Network&);
/// Takes an unknown of a set-up as zero from now on.
void holdSetUp(Network&, int setup, int unknown);

} // namespace gorvet::tape
