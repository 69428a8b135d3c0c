#include <ceres/ceres.h>

#include "tape/network.hpp"

#include <Eigen/Cholesky>
#include <Eigen/LU>
#include <algorithm>
#include <cmath>
#include <memory>

namespace gorvet::tape {

double& coordinate(Vec3& v, int axis) { return axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm; }

Predicted predict(const Network& net, int reading) {
    const SurveyReading& r = net.survey->readings[reading];
    const bool has_to = r.to >= 0;
    return predict(r.kind, net.at[r.from], has_to ? net.at[r.to] : Vec3{}, has_to, net.slope_sense[reading]);
}

namespace {
double square(const Network& net, int reading) {
    if (!net.active[reading]) return 0;
    const SurveyReading& r = net.survey->readings[reading];
    const double v = (predict(net, reading).value - r.value) / r.sigma;
    return v * v;
}
} // namespace

double omega(const Network& net, int point) {
    double sum = 0;
    if (point >= 0) {
        for (const int i : net.touching[point]) sum += square(net, i);
    } else {
        for (size_t i = 0; i < net.survey->readings.size(); ++i) sum += square(net, static_cast<int>(i));
    }
    return sum;
}

double settle(Network& net, int point) {
    const bool was_placed = net.placed[point];
    net.placed[point] = 1;
    double best = omega(net, point);
    double damping = 1e-3;
    for (int round = 0; round < 60; ++round) {
        Eigen::Matrix3d n = Eigen::Matrix3d::Zero();
        Eigen::Vector3d g = Eigen::Vector3d::Zero();
        for (const int i : net.touching[point]) {
            if (!net.active[i]) continue;
            const SurveyReading& r = net.survey->readings[i];
            const Predicted p = predict(net, i);
            const auto& by = r.from == point ? p.by_from : p.by_to;
            Eigen::Vector3d a(by[0], by[1], by[2]);
            a /= r.sigma;
            n += a * a.transpose();
            g += a * ((r.value - p.value) / r.sigma);
        }
        for (int axis = 0; axis < 3; ++axis)
            if (net.free_index[3 * point + axis] < 0 && was_placed) { // held
                n.row(axis).setZero();
                n.col(axis).setZero();
                g(axis) = 0;
            }
        Eigen::Matrix3d damped = n;
        for (int axis = 0; axis < 3; ++axis) damped(axis, axis) += damping * (n(axis, axis) + 1e-9);
        const Eigen::Vector3d step = damped.ldlt().solve(g);
        if (!step.allFinite()) break;
        const Vec3 before = net.at[point];
        net.at[point] = {before.x_mm + step(0), before.y_mm + step(1), before.z_mm + step(2)};
        const double now = omega(net, point);
        if (now <= best) {
            const bool done = step.norm() < 1e-7;
            best = now;
            damping = std::max(damping * 0.2, 1e-12);
            if (done) break;
        } else {
            net.at[point] = before;
            damping *= 8;
            if (damping > 1e8) break;
        }
    }
    net.placed[point] = static_cast<char>(was_placed);
    return best;
}

namespace {

/// Places a point without a rough position from its readings to placed points: the best of several starts all round.
/// Needs two readings at least. True when it was placed.
bool placeByReadings(Network& net, int point) {
    Eigen::Vector3d centre = Eigen::Vector3d::Zero();
    double reach = 0;
    int count = 0;
    std::vector<int> mine;
    for (size_t i = 0; i < net.survey->readings.size(); ++i) {
        const SurveyReading& r = net.survey->readings[i];
        if (r.from != point && r.to != point) continue;
        const int other = r.from == point ? r.to : r.from;
        if (other >= 0 && !net.placed[other]) continue;
        mine.push_back(static_cast<int>(i));
        if (other < 0) continue;
        centre += Eigen::Vector3d(net.at[other].x_mm, net.at[other].y_mm, net.at[other].z_mm);
        reach = std::max(reach, r.kind == ReadingKind::Slope ? 0.0 : std::abs(r.value));
        ++count;
    }
    if (mine.size() < 2 || count == 0) return false;
    for (const int i : mine) net.active[i] = 1;
    centre /= count;
    double best = std::numeric_limits<double>::infinity();
    Vec3 where;
    for (int corner = 0; corner < 8; ++corner) {
        net.at[point] = {centre.x() + (corner & 1 ? reach : -reach) * 0.6, centre.y() + (corner & 2 ? reach : -reach) * 0.6,
                         centre.z() + (corner & 4 ? -reach : reach) * 0.2};
        const double now = settle(net, point);
        if (now < best - 1e-6) {
            best = now;
            where = net.at[point];
        }
    }
    net.at[point] = where;
    net.placed[point] = 1;
    return true;
}

void refresh(Network& net) {
    const Survey& survey = *net.survey;
    net.free_index.assign(3 * survey.points.size(), -1);
    std::vector<char> held(3 * survey.points.size(), 0);
    for (const HeldCoordinate& h : survey.holds) held[3 * h.point + static_cast<int>(h.axis)] = 1;
    net.free_count = 0;
    for (size_t k = 0; k < held.size(); ++k)
        if (!held[k] && net.placed[k / 3]) net.free_index[k] = net.free_count++;
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        const SurveyReading& r = survey.readings[i];
        net.active[i] = net.placed[r.from] && (r.to < 0 || net.placed[r.to]);
        net.slope_sense[i] = r.to >= 0 ? slopeSense(net.at[r.from], net.at[r.to]) : 1.0;
    }
}

} // namespace

Network begin(const Survey& survey) {
    Network net;
    net.survey = &survey;
    net.at.resize(survey.points.size());
    net.placed.assign(survey.points.size(), 0);
    net.active.assign(survey.readings.size(), 0);
    net.slope_sense.assign(survey.readings.size(), 1.0);
    net.touching.resize(survey.points.size());
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        net.touching[survey.readings[i].from].push_back(static_cast<int>(i));
        if (survey.readings[i].to >= 0) net.touching[survey.readings[i].to].push_back(static_cast<int>(i));
    }
    std::vector<int> held_count(survey.points.size(), 0);
    for (size_t i = 0; i < survey.points.size(); ++i)
        if (survey.points[i].rough) {
            net.at[i] = *survey.points[i].rough;
            net.placed[i] = 1;
        }
    for (const HeldCoordinate& h : survey.holds) {
        coordinate(net.at[h.point], static_cast<int>(h.axis)) = h.value_mm;
        if (++held_count[h.point] == 3) net.placed[h.point] = 1;
    }
    refresh(net);
    for (bool again = true; again;) {
        again = false;
        for (size_t i = 0; i < survey.points.size(); ++i)
            if (!net.placed[i] && placeByReadings(net, static_cast<int>(i))) {
                for (const HeldCoordinate& h : survey.holds)
                    if (h.point == static_cast<int>(i)) coordinate(net.at[i], static_cast<int>(h.axis)) = h.value_mm;
                again = true;
            }
    }
    refresh(net);
    return net;
}

namespace {

class ReadingCost final : public ceres::CostFunction {
public:
    ReadingCost(const SurveyReading& r, double slope_sense) : reading_(r), slope_sense_(slope_sense) {
        set_num_residuals(1);
        mutable_parameter_block_sizes()->push_back(3);
        if (r.to >= 0) mutable_parameter_block_sizes()->push_back(3);
    }
    bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override {
        const bool has_to = reading_.to >= 0;
        const Vec3 from{blocks[0][0], blocks[0][1], blocks[0][2]};
        const Vec3 to = has_to ? Vec3{blocks[1][0], blocks[1][1], blocks[1][2]} : Vec3{};
        const Predicted p = predict(reading_.kind, from, to, has_to, slope_sense_);
        residuals[0] = (p.value - reading_.value) / reading_.sigma;
        if (jacobians) {
            for (int axis = 0; axis < 3; ++axis) {
                if (jacobians[0]) jacobians[0][axis] = p.by_from[axis] / reading_.sigma;
                if (has_to && jacobians[1]) jacobians[1][axis] = p.by_to[axis] / reading_.sigma;
            }
        }
        return true;
    }

private:
    SurveyReading reading_;
    double slope_sense_;
};

} // namespace

bool adjust(Network& net, Loss loss) {
    const Survey& survey = *net.survey;
    std::vector<std::array<double, 3>> blocks(survey.points.size());
    for (size_t i = 0; i < blocks.size(); ++i) blocks[i] = {net.at[i].x_mm, net.at[i].y_mm, net.at[i].z_mm};
    ceres::Problem problem;
    std::vector<char> used(blocks.size(), 0);
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        if (!net.active[i]) continue;
        const SurveyReading& r = survey.readings[i];
        auto* cost = new ReadingCost(r, net.slope_sense[i]); // the problem owns it
        auto* robust = loss == Loss::Huber ? new ceres::HuberLoss(2.0) : nullptr;
        used[r.from] = 1;
        if (r.to >= 0) {
            used[r.to] = 1;
            problem.AddResidualBlock(cost, robust, blocks[r.from].data(), blocks[r.to].data());
        } else {
            problem.AddResidualBlock(cost, robust, blocks[r.from].data());
        }
    }
    for (size_t i = 0; i < blocks.size(); ++i) {
        if (!used[i]) continue;
        std::vector<int> held;
        for (int axis = 0; axis < 3; ++axis)
            if (net.free_index[3 * i + axis] < 0) held.push_back(axis);
        if (held.size() == 3)
            problem.SetParameterBlockConstant(blocks[i].data());
        else if (!held.empty())
            problem.SetManifold(blocks[i].data(), new ceres::SubsetManifold(3, held));
    }
    if (problem.NumResidualBlocks() == 0 || net.free_count == 0) return true;
    ceres::Solver::Options options;
    options.linear_solver_type = ceres::DENSE_NORMAL_CHOLESKY;
    options.max_num_iterations = 200;
    options.function_tolerance = loss == Loss::Huber ? 1e-6 : 1e-14;
    options.parameter_tolerance = 1e-11;
    options.gradient_tolerance = 1e-10;
    options.logging_type = ceres::SILENT;
    options.num_threads = 1;
    ceres::Solver::Summary summary;
    ceres::Solve(options, &problem, &summary);
    for (size_t i = 0; i < blocks.size(); ++i) net.at[i] = {blocks[i][0], blocks[i][1], blocks[i][2]};
    return summary.IsSolutionUsable();
}

Eigen::MatrixXd designMatrix(const Network& net) {
    const Survey& survey = *net.survey;
    Eigen::MatrixXd a = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(survey.readings.size()), net.free_count);
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        const SurveyReading& r = survey.readings[i];
        if (!net.placed[r.from] || (r.to >= 0 && !net.placed[r.to])) continue;
        const Predicted p = predict(net, static_cast<int>(i));
        for (int axis = 0; axis < 3; ++axis) {
            if (const int k = net.free_index[3 * r.from + axis]; k >= 0)
                a(static_cast<Eigen::Index>(i), k) += p.by_from[axis] / r.sigma;
            if (r.to < 0) continue;
            if (const int k = net.free_index[3 * r.to + axis]; k >= 0)
                a(static_cast<Eigen::Index>(i), k) += p.by_to[axis] / r.sigma;
        }
    }
    return a;
}

} // namespace gorvet::tape
