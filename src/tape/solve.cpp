#include "tape/assume.hpp"
#include "tape/datum.hpp"
#include "tape/holds.hpp"
#include "tape/mirror.hpp"
#include "tape/parts.hpp"
#include "tape/rigid.hpp"
#include "tape/setups.hpp"
#include "tape/snoop.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include <fmt/format.h>

namespace gorvet::tape {

const char* verdictWord(Verdict v) { return v == Verdict::Agrees ? "Agrees" : v == Verdict::Doubtful ? "Doubtful" : "Re-tape"; }
const char* checkWords(Check c) {
    return c == Check::Checked ? "checked" : c == Check::Barely ? "barely checked" : "nothing checks it";
}
const char* statusWord(Status s) {
    switch (s) {
    case Status::Solved: return "solved";
    case Status::NotDetermined: return "not fixed";
    case Status::NoReadings: return "no readings";
    case Status::NotConverged: return "not converged";
    }
    return "";
}

namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

int activeCount(const Network& net) { return static_cast<int>(std::count(net.active.begin(), net.active.end(), char{1})); }

/// What the other readings say each reading should be, with ±.
void sayTheRest(const Survey& survey, Solution& s, const Network& net, const Rows& rows, const Fixing& fixing) {
    for (size_t i = 0; i < s.readings.size(); ++i) {
        AdjustedReading& a = s.readings[i];
        const SurveyReading& r = net.survey->readings[i];
        if (a.set_aside) {
            const Eigen::VectorXd row = rows.row(static_cast<Eigen::Index>(i)).transpose();
            a.leave_one_out = predict(net, static_cast<int>(i)).value;
            a.leave_one_out_u95 = u95Of(r.sigma * std::sqrt(std::max(0.0, fixing.factor->quadraticOf(row)))) * s.sigma_0;
        } else if (a.redundancy > 0) {
            const double sigma = survey.readings[i].sigma; // its own, not what it may be wrong by
            a.leave_one_out = r.value + a.residual / a.redundancy;
            a.leave_one_out_u95 = u95Of(sigma * std::sqrt((1 - a.redundancy) / a.redundancy)) * s.sigma_0;
        } else {
            a.leave_one_out = nan;
            a.leave_one_out_u95 = nan;
        }
    }
}

/// Covariances of the coordinates from the factored equations.
class Columns final : public Covariance::Source {
public:
    Columns(std::shared_ptr<const Factor> factor, std::vector<int> free_index, double scale2)
        : factor_(std::move(factor)), free_index_(std::move(free_index)), scale2_(scale2) {}
    std::vector<double> column(size_t k) const override {
        std::vector<double> all(free_index_.size(), 0.0);
        if (free_index_[k] < 0) return all;
        Eigen::VectorXd unit = Eigen::VectorXd::Zero(factor_->size());
        unit(free_index_[k]) = 1;
        const Eigen::VectorXd q = factor_->solve(unit);
        for (size_t l = 0; l < all.size(); ++l)
            if (free_index_[l] >= 0) all[l] = scale2_ * q(free_index_[l]);
        return all;
    }

private:
    std::shared_ptr<const Factor> factor_;
    std::vector<int> free_index_;
    double scale2_;
};

/// The same, laid on a datum's rules.
class DatumColumns final : public Covariance::Source {
public:
    DatumColumns(std::shared_ptr<const OnDatum> datum, std::vector<char> fixed, double scale2)
        : datum_(std::move(datum)), fixed_(std::move(fixed)), scale2_(scale2) {}
    std::vector<double> column(size_t k) const override {
        std::vector<double> all(fixed_.size(), 0.0);
        if (!fixed_[k]) return all;
        const std::vector<double> c = datum_->column(k);
        for (size_t l = 0; l < all.size(); ++l)
            if (fixed_[l]) all[l] = scale2_ * c[l];
        return all;
    }

private:
    std::shared_ptr<const OnDatum> datum_;
    std::vector<char> fixed_;
    double scale2_;
};

void fillSetUps(Solution& s, const Network& net, const Fixing& fixing) {
    s.setups.resize(net.setups.size());
    for (size_t i = 0; i < s.setups.size(); ++i) {
        AdjustedSetUp& u = s.setups[i];
        u.sd.fill(nan);
        for (size_t r = 0; r < net.survey->readings.size(); ++r)
            if (net.survey->readings[r].setup == static_cast<int>(i) && net.active[r]) ++u.readings;
        for (int k = 0; k < setup_unknowns; ++k) {
            u.value[k] = net.setups[i][k];
            const int index = net.setup_index[i][k];
            u.prior[k] = index >= 0 ? net.setup_prior[i][k] : 0;
            u.estimable[k] = index >= 0 && u.prior[k] == 0;
            if (index >= 0) u.sd[k] = std::sqrt(std::max(0.0, fixing.factor->entry(index, index))) * s.sigma_0;
        }
    }
}

void fillPoints(Solution& s, const Network& net, const Fixing& fixing) {
    const size_t n = net.at.size();
    const auto sds = coordinateSds(net, fixing);
    s.covariance = Covariance(3 * n, std::make_shared<Columns>(fixing.factor, net.free_index, s.sigma_0 * s.sigma_0));
    for (size_t i = 0; i < n; ++i) {
        AdjustedPoint& p = s.points[i];
        p.placed = net.placed[i];
        p.position = net.at[i];
        p.determined = p.placed;
        for (int axis = 0; axis < 3; ++axis) {
            p.sd_mm[axis] = sds[3 * i + axis] * s.sigma_0;
            p.determined = p.determined && fixing.determined[3 * i + axis];
        }
    }
}

/// Moves the solution onto the datum's rules: places, set-ups and all their ±.
void layOnDatum(Solution& s, Network& net, const Fixing& fixing, const Eigen::MatrixXd& floats) {
    const auto shared = std::make_shared<const Fixing>(fixing);
    const auto datum = std::make_shared<const OnDatum>(net, shared, floats);
    for (size_t i = 0; i < s.points.size(); ++i) {
        s.points[i].position = net.at[i];
        for (int axis = 0; axis < 3; ++axis)
            if (!std::isnan(s.points[i].sd_mm[axis]))
                s.points[i].sd_mm[axis] = std::sqrt(std::max(0.0, datum->variance(3 * i + axis))) * s.sigma_0;
    }
    for (size_t i = 0; i < s.setups.size(); ++i) {
        AdjustedSetUp& u = s.setups[i];
        for (int k = 0; k < setup_unknowns; ++k) {
            u.value[k] = net.setups[i][k];
            if (!std::isnan(u.sd[k]))
                u.sd[k] = std::sqrt(std::max(0.0, datum->variance(3 * net.at.size() + setup_unknowns * i + k))) * s.sigma_0;
        }
    }
    s.covariance = Covariance(3 * net.at.size(), std::make_shared<DatumColumns>(datum, fixing.determined, s.sigma_0 * s.sigma_0));
    s.datum_missed_mm = datum->missed_mm();
}

Survey withoutHolds(const Survey& survey, const std::vector<int>& gone) {
    Survey rest = survey;
    rest.holds.clear();
    for (size_t k = 0; k < survey.holds.size(); ++k) {
        if (std::find(gone.begin(), gone.end(), static_cast<int>(k)) == gone.end()) {
            rest.holds.push_back(survey.holds[k]);
            continue;
        }
        // what it said is still about where the point stands
        auto& rough = rest.points[static_cast<size_t>(survey.holds[k].point)].rough;
        if (rough) coordinate(*rough, static_cast<int>(survey.holds[k].axis)) = survey.holds[k].value_mm;
    }
    return rest;
}

/// How many slips its set-aside readings stand for: a group that can't be told apart is one.
int slipsOf(const Solution& s) {
    std::vector<char> counted(s.readings.size(), 0);
    int slips = 0;
    for (const auto& group : s.inseparable) {
        slips += std::any_of(group.begin(), group.end(), [&](int i) { return s.readings[static_cast<size_t>(i)].set_aside; });
        for (const int i : group) counted[static_cast<size_t>(i)] = 1;
    }
    for (size_t i = 0; i < s.readings.size(); ++i)
        slips += !counted[i] && (s.readings[i].set_aside || s.readings[i].widened_sigma > 0);
    return slips;
}

/// Whether what is set aside disagrees whatever is held: with all readings in, the holds take little off Ω. A first look that
/// spares the whole test.
bool asideInAnyCase(const Survey& held, const Solution& s, const Network& net) {
    Network all = net;
    for (size_t i = 0; i < s.readings.size(); ++i) {
        if (s.readings[i].widened_sigma > 0) return false;
        if (s.readings[i].set_aside) all.active[i] = 1;
    }
    const HoldsTest test = lookAtHolds(held, all, Factor(activeRows(all, designMatrix(all))));
    return test.redundant > 0 && test.omega <= test.limit;
}

/// Whether other points than their own would float without these holds and without what was set aside.
bool placesOthers(const Survey& survey, const Solution& s, const std::vector<int>& holds, const Options& options) {
    Survey rest = withoutHolds(survey, holds);
    for (size_t i = s.readings.size(); i-- > 0;)
        if (s.readings[i].set_aside) rest.readings.erase(rest.readings.begin() + static_cast<std::ptrdiff_t>(i));
    Options plain = options;
    plain.set_aside = plain.test_holds = false;
    const Solution without = solve(rest, plain);
    for (size_t i = 0; i < s.points.size(); ++i) {
        const bool own = std::any_of(holds.begin(), holds.end(),
                                     [&](int k) { return survey.holds[static_cast<size_t>(k)].point == static_cast<int>(i); });
        if (!own && !without.points[i].determined) return true;
    }
    return false;
}

/// The survey without the holds that are blamed, which are named.
Solution solveWithout(const Survey& survey, const HoldsTest& test, const Options& options) {
    Options own = options;
    own.test_holds = false;
    Solution s = solve(withoutHolds(survey, test.blamed), own);
    s.redundant_holds = test.redundant;
    s.holds_omega = test.omega;
    s.holds_limit = test.limit;
    for (const int k : test.blamed) {
        const HeldCoordinate& h = survey.holds[static_cast<size_t>(k)];
        const AdjustedPoint& p = s.points[static_cast<size_t>(h.point)];
        s.blamed_holds.push_back(
            {k, coordinate(p.position, static_cast<int>(h.axis)) - h.value_mm, u95Of(p.sd_mm[static_cast<int>(h.axis)])});
    }
    return s;
}

/// No reading joins anything: the points stand where they roughly are.
Solution nothingToAdjust(const Survey& survey, const Network& net) {
    Solution s;
    s.points.resize(survey.points.size());
    s.readings.resize(survey.readings.size());
    s.message = survey.readings.empty() ? "There are no readings yet." : "No reading joins two points that have a place.";
    for (size_t i = 0; i < s.points.size(); ++i) {
        s.points[i].placed = net.placed[i];
        s.points[i].position = net.at[i];
        std::fill_n(s.points[i].sd_mm, 3, nan);
    }
    s.covariance = Covariance(3 * survey.points.size(), nullptr);
    s.setups.resize(survey.setups.size());
    return s;
}

/// Tests held coordinates beyond a datum; the survey solved again without those that contradict the readings, or nothing.
std::optional<Solution> releasedHolds(const Survey& survey, Solution& s, const Survey& free, const Network& net,
                                      const Searched& at, const Options& options) {
    HoldsTest test = lookAtHolds(free, net, *at.fixing.factor);
    const int slips = slipsOf(s);
    if (test.redundant > 0 && (test.omega > test.limit || (slips > 0 && !asideInAnyCase(free, s, net)))) {
        const HoldsTest whole = testHolds(survey, options);
        if (!whole.blamed.empty()) {
            Solution released = solveWithout(survey, whole, options);
            // one reading alone against what places the car: it is asked for again, and the datum stays until another says
            // the same
            if (test.omega > test.limit || slips - slipsOf(released) > 1 || !placesOthers(survey, s, whole.blamed, options))
                return released;
        } else {
            test = whole;
        }
    }
    s.redundant_holds = test.redundant;
    s.holds_omega = test.omega;
    s.holds_limit = test.limit;
    return std::nullopt;
}

/// Ω of the readings that were kept, and the a-posteriori σ₀ where it fails high.
void keptOmega(Solution& s, const Network& net) {
    s.kept_redundancy = s.redundancy - static_cast<int>(std::count_if(s.readings.begin(), s.readings.end(),
                                                                      [](const AdjustedReading& r) { return r.set_aside; }));
    s.kept_omega = omega(net);
    s.kept_omega_limit = omegaLimit(s.kept_redundancy);
    if (s.kept_redundancy > 0 && s.kept_omega > s.kept_omega_limit) s.sigma_0 = std::sqrt(s.kept_omega / s.kept_redundancy);
}

void sayStatus(Solution& s) {
    switch (s.status) {
    case Status::NotDetermined:
        s.message =
            s.undetermined.empty() ? "What no reading fixes stands where it is assumed." : s.undetermined.front().sentence;
        break;
    case Status::NotConverged:
        s.message = "The readings do not close on a shape. Check the rough positions and the units.";
        break;
    default: break;
    }
}

} // namespace

Solution solve(const Survey& survey, const Options& options) {
    if (const auto parts = partsOf(survey)) {
        Solution together = solveParts(survey, *parts, options);
        if (!survey.assumed.empty() && together.status != Status::NotConverged) placeByAssumption(survey, together);
        return together;
    }
    Solution s;
    s.points.resize(survey.points.size());
    s.readings.resize(survey.readings.size());
    Survey free = survey;
    Eigen::MatrixXd floats; // motions that no reading resists
    Network net = begin(free);
    if (!survey.datum.empty() && activeCount(net) > 0) {
        free.holds.clear();
        net = begin(free);
        openMotions(net, activeRows(net, designMatrix(net)), floats);
        free.holds = leastHolds(net, floats);
        net = begin(free);
    }
    if (activeCount(net) == 0) {
        return nothingToAdjust(survey, net);
    }
    std::vector<int> left_out; // from the start
    if (options.set_aside) {
        left_out = leaveOutGrossLengths(free, net);
        for (const int i : leaveOutGrossAngles(free, net)) left_out.push_back(i);
    }
    if (!survey.setups.empty()) tellSetUps(net);
    adjust(net, Loss::Huber);
    const Network robust = net;
    bool converged = adjust(net, Loss::Plain);
    if (!converged && options.set_aside) converged = leaveOutFar(net, robust, left_out);
    Searched at{free, net, {}, {}, {}, 0, robust};
    refresh(at);
    if (at.fixing.defect == 0) {
        s.mirrors = findMirrors(net, coordinateSds(net, at.fixing));
        if (std::any_of(s.mirrors.begin(), s.mirrors.end(), [](const Mirror& m) { return m.mended; })) {
            adjust(net, Loss::Huber);
            converged = adjust(net, Loss::Plain);
            refresh(at);
        }
    }
    const int out = static_cast<int>(left_out.size());
    s.undetermined = at.fixing.undetermined;
    s.redundancy = activeCount(net) + out + priorCount(net) - net.free_count +
                   (at.fixing.defect - 3 * static_cast<int>(std::count(net.placed.begin(), net.placed.end(), char{0})));
    s.omega_limit = omegaLimit(s.redundancy);
    s.omega = omega(net);
    for (const int i : left_out) s.omega += at.judged.v(i) * at.judged.v(i);
    // readings to points without a place never count
    at.redundancy = s.redundancy + static_cast<int>(net.active.size()) - activeCount(net) - out;
    s.status = !converged ? Status::NotConverged : at.fixing.defect > 0 ? Status::NotDetermined : Status::Solved;
    if (options.set_aside && s.status == Status::Solved) {
        snoop(s, at, options, left_out);
    } else {
        for (const int i : left_out) s.readings[static_cast<size_t>(i)].set_aside = true;
    }
    if (survey.datum.empty() && options.set_aside && options.test_holds && s.status != Status::NotConverged) {
        if (auto released = releasedHolds(survey, s, free, net, at, options)) return *std::move(released);
    }
    const Rows& rows = at.rows;
    const Fixing& fixing = at.fixing;
    keptOmega(s, net);
    giveVerdicts(s, at);
    sayTheRest(survey, s, net, rows, fixing);
    fillPoints(s, net, fixing);
    fillSetUps(s, net, fixing);
    if (!free.datum.empty() && s.status != Status::NotConverged) layOnDatum(s, net, fixing, floats);
    if (!survey.assumed.empty() && s.status != Status::NotConverged) placeByAssumption(survey, s);
    if (!options.goesOn()) s.status = Status::NotConverged;
    if (const auto parts = attaching(survey, s, options)) {
        Solution together = solveParts(survey, *parts, options);
        if (!survey.assumed.empty() && together.status != Status::NotConverged) placeByAssumption(survey, together);
        return together;
    }
    sayStatus(s);
    return s;
}

} // namespace gorvet::tape
