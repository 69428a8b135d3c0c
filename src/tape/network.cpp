#include "tape/network.hpp"

#include "dense/dense.hpp"

#include <Eigen/LU>
#include <Eigen/SparseCholesky>
#include <algorithm>
#include <cmath>

namespace gorvet::tape {

double& coordinate(Vec3& v, int axis) { return axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm; }
double coordinate(const Vec3& v, int axis) { return axis == 0 ? v.x_mm : axis == 1 ? v.y_mm : v.z_mm; }

Predicted predict(const Network& net, int reading) {
    const SurveyReading& r = net.survey->readings[reading];
    const bool has_to = r.to >= 0;
    const Vec3 to = has_to ? net.at[r.to] : Vec3{};
    if (r.kind == ReadingKind::Coordinates) return predictAlong(r.along, net.at[r.from]);
    if (r.setup >= 0)
        return predictFrom(net.survey->setups[r.setup].kind, net.setups[r.setup], r.kind, net.at[r.from], to, has_to);
    return predict(r.kind, net.at[r.from], to, has_to, net.sense[reading]);
}

namespace {
double square(const Network& net, int reading) {
    if (!net.active[reading]) return 0;
    const SurveyReading& r = net.survey->readings[reading];
    const double v = (predict(net, reading).value - r.value) / r.sigma;
    return v * v;
}

/// take(index among the unknowns, value, its σ)
template <class F> void eachPrior(const Network& net, F&& take) {
    for (size_t s = 0; s < net.setups.size(); ++s)
        for (int u = 0; u < setup_unknowns; ++u)
            if (net.setup_index[s][u] >= 0 && net.setup_prior[s][u] > 0)
                take(net.setup_index[s][u], net.setups[s][u], net.setup_prior[s][u]);
}
double ofPriors(const Network& net) {
    double sum = 0;
    eachPrior(net, [&](int, double value, double sigma) { sum += value * value / (sigma * sigma); });
    return sum;
}
} // namespace

double omega(const Network& net, int point) {
    double sum = 0;
    if (point >= 0) {
        for (const int i : net.touching[point]) sum += square(net, i);
    } else {
        for (size_t i = 0; i < net.survey->readings.size(); ++i) sum += square(net, static_cast<int>(i));
        sum += ofPriors(net);
    }
    return sum;
}

int priorCount(const Network& net) {
    int count = 0;
    eachPrior(net, [&](int, double, double) { ++count; });
    return count;
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
        const Eigen::Vector3d step = dense::solveSymmetric(damped, g);
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
        reach = std::max(reach, build::isAngle(r.kind) ? 0.0 : std::abs(r.value));
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
        net.sense[i] = r.to >= 0 ? senseOf(r.kind, net.at[r.from], net.at[r.to]) : 1.0;
    }
    // the unknowns of a set-up count from the first reading on
    std::vector<int> used(survey.setups.size(), 0);
    for (size_t i = 0; i < survey.readings.size(); ++i)
        if (survey.readings[i].setup >= 0 && net.active[i]) ++used[survey.readings[i].setup];
    for (size_t s = 0; s < survey.setups.size(); ++s)
        for (int u = 0; u < setup_unknowns; ++u)
            net.setup_index[s][u] = used[s] && u < unknownsOf(survey.setups[s].kind) ? net.free_count++ : -1;
}

} // namespace

Network begin(const Survey& survey) {
    Network net;
    net.survey = &survey;
    net.at.resize(survey.points.size());
    net.placed.assign(survey.points.size(), 0);
    net.active.assign(survey.readings.size(), 0);
    net.sense.assign(survey.readings.size(), 1.0);
    net.touching.resize(survey.points.size());
    net.setups.assign(survey.setups.size(), {});
    net.setup_index.assign(survey.setups.size(), {-1, -1, -1});
    net.setup_prior.assign(survey.setups.size(), {});
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

void holdSetUp(Network& net, int setup, int unknown) {
    const int gone = net.setup_index[setup][unknown];
    if (gone < 0) return;
    net.setups[setup][unknown] = 0;
    net.setup_index[setup][unknown] = -1;
    for (auto& of_setup : net.setup_index)
        for (int& index : of_setup)
            if (index > gone) --index;
    --net.free_count; // set-ups come after all coordinates
}

namespace {

/// Weight of a reading with residual v (in σ) under a loss: Huber's beyond 2 σ.
constexpr double huber = 2.0;
double weight(double v, Loss loss) { return loss == Loss::Plain || std::abs(v) <= huber ? 1.0 : huber / std::abs(v); }
double cost(double v, Loss loss) {
    const double size = std::abs(v);
    return loss == Loss::Plain || size <= huber ? v * v : 2 * huber * size - huber * huber;
}

double totalCost(const Network& net, Loss loss) {
    double sum = 0;
    for (size_t i = 0; i < net.survey->readings.size(); ++i) {
        if (!net.active[i]) continue;
        const SurveyReading& r = net.survey->readings[i];
        sum += cost((predict(net, static_cast<int>(i)).value - r.value) / r.sigma, loss);
    }
    return sum + ofPriors(net);
}

void move(Network& net, const Eigen::VectorXd& by) {
    for (size_t k = 0; k < net.free_index.size(); ++k)
        if (net.free_index[k] >= 0) coordinate(net.at[k / 3], static_cast<int>(k % 3)) += by(net.free_index[k]);
    for (size_t s = 0; s < net.setups.size(); ++s)
        for (int u = 0; u < setup_unknowns; ++u)
            if (net.setup_index[s][u] >= 0) net.setups[s][u] += by(net.setup_index[s][u]);
}

/// Columns and values of one reading's row, undivided.
template <class F> void entriesOf(const Network& net, const SurveyReading& r, const Predicted& p, F&& take) {
    for (int axis = 0; axis < 3; ++axis) {
        if (const int k = net.free_index[3 * r.from + axis]; k >= 0) take(k, p.by_from[axis]);
        if (r.to < 0) continue;
        if (const int k = net.free_index[3 * r.to + axis]; k >= 0) take(k, p.by_to[axis]);
    }
    if (r.setup < 0) return;
    for (int u = 0; u < setup_unknowns; ++u)
        if (const int k = net.setup_index[r.setup][u]; k >= 0) take(k, p.by_setup[u]);
}

} // namespace

bool adjust(Network& net, Loss loss) {
    const auto& readings = net.survey->readings;
    if (net.free_count == 0 || std::none_of(net.active.begin(), net.active.end(), [](char a) { return a != 0; })) return true;
    using Sparse = Eigen::SparseMatrix<double>;
    Eigen::SimplicialLDLT<Sparse, Eigen::Lower> ldlt;
    bool analysed = false;
    double now = totalCost(net, loss);
    double damping = 1e-8; // Levenberg's, beside each unknown's own stiffness
    for (int round = 0; round < 200; ++round) {
        std::vector<Eigen::Triplet<double>> entries;
        entries.reserve(readings.size() * 21);
        Eigen::VectorXd g = Eigen::VectorXd::Zero(net.free_count);
        for (size_t i = 0; i < readings.size(); ++i) {
            if (!net.active[i]) continue;
            const SurveyReading& r = readings[i];
            const Predicted p = predict(net, static_cast<int>(i));
            const double v = (p.value - r.value) / r.sigma;
            const double w = weight(v, loss);
            std::array<std::pair<int, double>, 6 + setup_unknowns> row;
            size_t n = 0;
            entriesOf(net, r, p, [&](int k, double by) { row[n++] = {k, by / r.sigma}; });
            for (size_t a = 0; a < n; ++a) {
                g(row[a].first) -= w * row[a].second * v;
                for (size_t b = 0; b < n; ++b)
                    if (row[a].first >= row[b].first)
                        entries.emplace_back(row[a].first, row[b].first, w * row[a].second * row[b].second);
            }
        }
        for (int k = 0; k < net.free_count; ++k) entries.emplace_back(k, k, 0.0);
        eachPrior(net, [&](int k, double value, double sigma) {
            g(k) -= value / (sigma * sigma);
            entries.emplace_back(k, k, 1 / (sigma * sigma));
        });
        Sparse normal(net.free_count, net.free_count);
        normal.setFromTriplets(entries.begin(), entries.end());
        const Eigen::VectorXd diagonal = normal.diagonal();
        const double floor = 1e-9 * std::max(diagonal.maxCoeff(), 1e-300);
        if (!analysed) ldlt.analyzePattern(normal);
        analysed = true;
        bool moved = false;
        for (int attempt = 0; attempt < 30 && !moved; ++attempt) {
            Sparse damped = normal;
            for (int k = 0; k < net.free_count; ++k) damped.coeffRef(k, k) += damping * std::max(diagonal(k), floor);
            ldlt.factorize(damped);
            const Eigen::VectorXd step = ldlt.info() == Eigen::Success ? Eigen::VectorXd(ldlt.solve(g)) : Eigen::VectorXd();
            if (step.size() == 0 || !step.allFinite()) {
                damping = std::max(damping * 10, 1e-6);
                continue;
            }
            Network trial = net;
            move(trial, step);
            const double then = totalCost(trial, loss);
            const double size = step.cwiseAbs().maxCoeff();
            if (then <= now * (1 + 1e-13) + 1e-18) {
                const bool settled = size < 1e-8 || (now - then <= (loss == Loss::Huber ? 1e-6 : 1e-15) * now && size < 1e-4);
                net.at = std::move(trial.at);
                net.setups = std::move(trial.setups);
                now = then;
                damping = std::max(damping * 0.1, 1e-10); // enough to keep open directions still
                if (settled) return true;
                moved = true;
            } else {
                if (size < 1e-7) return true; // no better place within reach of the arithmetic
                damping = std::max(damping * 10, 1e-10);
            }
        }
        if (!moved) return std::isfinite(now);
    }
    return false;
}

Rows designMatrix(const Network& net) {
    const auto& readings = net.survey->readings;
    std::vector<Eigen::Triplet<double>> entries;
    entries.reserve(readings.size() * (6 + setup_unknowns));
    for (size_t i = 0; i < readings.size(); ++i) {
        const SurveyReading& r = readings[i];
        if (!net.placed[r.from] || (r.to >= 0 && !net.placed[r.to])) continue;
        const Predicted p = predict(net, static_cast<int>(i));
        entriesOf(net, r, p, [&](int k, double by) { entries.emplace_back(static_cast<int>(i), k, by / r.sigma); });
    }
    auto row = static_cast<int>(readings.size());
    eachPrior(net, [&](int k, double, double sigma) { entries.emplace_back(row++, k, 1 / sigma); });
    Rows rows(row, net.free_count);
    rows.setFromTriplets(entries.begin(), entries.end());
    return rows;
}

Rows activeRows(const Network& net, const Rows& rows) {
    Rows active = rows;
    active.prune([&net](Eigen::Index row, Eigen::Index, double) {
        return static_cast<size_t>(row) >= net.active.size() || net.active[static_cast<size_t>(row)] != 0;
    });
    return active;
}

} // namespace gorvet::tape
