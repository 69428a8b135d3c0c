#include "tape/assume.hpp"
#include "tape/datum.hpp"
#include "tape/judge.hpp"
#include "tape/mirror.hpp"
#include "tape/rigid.hpp"
#include "tape/unfixed.hpp"

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
    case Status::NotFixed: return "not fixed";
    case Status::NoReadings: return "no readings";
    case Status::NotConverged: return "not converged";
    }
    return "";
}

namespace {

constexpr double nan = std::numeric_limits<double>::quiet_NaN();

bool goesOn(const Options& options) { return !options.go_on || options.go_on(); }

int activeCount(const Network& net) { return static_cast<int>(std::count(net.active.begin(), net.active.end(), char{1})); }

/// Covariance of the free coordinates after a reading was set aside. A defect then means that the reading was needed.
Fixing fixingOf(const Network& net, const Rows& rows) { return findUnfixed(net, activeRows(net, rows)); }

/// Decides which unknowns of set-ups the readings tell, and takes the others as true: a floor as level, a string as straight
/// ahead. It is decided with all slopes at zero: far from it a slope and the frame's own lean differ by their squares, and what
/// is no more than that would pass for knowledge.
void tellSetUps(Network& net) {
    Network places = net;
    for (size_t s = 0; s < net.setups.size(); ++s)
        for (int u = 1; u < setup_unknowns; ++u) holdSetUp(places, static_cast<int>(s), u);
    adjust(places, Loss::Huber);
    adjust(places, Loss::Plain);
    net.at = places.at;
    net.setups = places.setups;
    for (;;) {
        const Fixing fixing = fixingOf(net, designMatrix(net));
        const auto untold = untoldSetUps(net, fixing);
        if (untold.empty()) return;
        holdSetUp(net, untold.front().first, untold.front().second);
    }
}

std::vector<double> coordinateSds(const Network& net, const Fixing& fixing) {
    std::vector<double> sds(net.free_index.size(), 0.0);
    for (size_t k = 0; k < sds.size(); ++k) {
        const int f = net.free_index[k];
        sds[k] = !fixing.fixed[k] ? nan : f < 0 ? 0.0 : std::sqrt(std::max(0.0, fixing.factor->entry(f, f)));
    }
    return sds;
}

/// What a reading showed in the round that judged it.
void record(Solution& s, const Network& net, const Judged& judged, int i) {
    const SurveyReading& r = net.survey->readings[i];
    AdjustedReading& a = s.readings[i];
    a.computed = r.value + judged.v(i) * r.sigma;
    a.residual = judged.v(i) * r.sigma;
    a.redundancy = judged.redundancy(i);
    a.w = judged.w(i);
    a.check = a.redundancy <= 0 ? Check::Nothing : a.redundancy < barely_r ? Check::Barely : Check::Checked;
    a.hides = a.redundancy <= 0 ? std::numeric_limits<double>::infinity() : 4.13 * r.sigma / std::sqrt(a.redundancy);
}

/// Takes out the reading with the largest |w| above the limit, adjusts again, and so on. Stops at a reading that can't be
/// told from others, or whose absence would leave something unfixed.
Judged snoop(Solution& s, Network& net, Fixing& fixing, Rows& rows, const Options& options, bool set_aside) {
    Judged judged = judge(net, rows, *fixing.factor);
    while (set_aside && goesOn(options)) {
        Eigen::Index worst = 0;
        if (judged.w.size() == 0 || judged.w.cwiseAbs().maxCoeff(&worst) <= retape_w) break;
        const auto index = static_cast<int>(worst);
        const auto group = inseparableFrom(net, rows, *fixing.factor, judged, index);
        if (group.size() > 1) {
            s.inseparable.push_back(group);
            break;
        }
        const Network before = net;
        net.active[index] = 0;
        adjust(net, Loss::Plain);
        Rows new_rows = designMatrix(net);
        Fixing new_fixing = fixingOf(net, new_rows);
        if (new_fixing.defect > 0) {
            net = before;
            break;
        }
        record(s, net, judged, index);
        s.readings[index].set_aside = true;
        s.readings[index].verdict = Verdict::Retape;
        rows.swap(new_rows);
        fixing = std::move(new_fixing);
        judged = judge(net, rows, *fixing.factor);
    }
    return judged;
}

void giveVerdicts(Solution& s, const Network& net, const Rows& rows, const Fixing& fixing, const Judged& judged) {
    const auto m = static_cast<int>(net.survey->readings.size());
    double worst = 0;
    for (int i = 0; i < m; ++i) {
        if (s.readings[i].set_aside) continue;
        record(s, net, judged, i);
        AdjustedReading& a = s.readings[i];
        const double size = std::abs(a.w);
        worst = std::max(worst, size);
        a.verdict = size > retape_w                                  ? Verdict::Retape
                    : size > doubtful_w || a.check != Check::Checked ? Verdict::Doubtful
                                                                     : Verdict::Agrees;
    }
    for (const auto& group : s.inseparable)
        for (const int i : group) s.readings[i].verdict = Verdict::Retape;
    // Ω too high with no single culprit: every reading that could be it is doubtful
    if (s.kept_omega > s.kept_omega_limit && s.kept_redundancy > 0 && worst <= retape_w) {
        std::vector<int> suspects;
        for (int i = 0; i < m; ++i)
            if (!s.readings[i].set_aside && std::abs(s.readings[i].w) >= 0.8 * worst &&
                s.readings[i].verdict == Verdict::Agrees) {
                s.readings[i].verdict = Verdict::Doubtful;
                suspects.push_back(i);
            }
        Eigen::Index first = 0;
        judged.w.cwiseAbs().maxCoeff(&first);
        if (auto group = inseparableFrom(net, rows, *fixing.factor, judged, static_cast<int>(first)); group.size() > 1)
            s.inseparable.push_back(std::move(group));
    }
}

/// What the other readings say each reading should be, with ±.
void sayTheRest(Solution& s, const Network& net, const Rows& rows, const Fixing& fixing) {
    for (size_t i = 0; i < s.readings.size(); ++i) {
        AdjustedReading& a = s.readings[i];
        const SurveyReading& r = net.survey->readings[i];
        if (a.set_aside) {
            const Eigen::VectorXd row = rows.row(static_cast<Eigen::Index>(i)).transpose();
            a.rest_says = predict(net, static_cast<int>(i)).value;
            a.rest_half_width = halfWidth(r.sigma * std::sqrt(std::max(0.0, fixing.factor->quadraticOf(row)))) * s.sd_scale;
        } else if (a.redundancy > 0) {
            a.rest_says = r.value + a.residual / a.redundancy;
            a.rest_half_width = halfWidth(r.sigma * std::sqrt((1 - a.redundancy) / a.redundancy)) * s.sd_scale;
        } else {
            a.rest_says = nan;
            a.rest_half_width = nan;
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
            u.told[k] = index >= 0;
            if (index >= 0) u.sd[k] = std::sqrt(std::max(0.0, fixing.factor->entry(index, index))) * s.sd_scale;
        }
    }
}

void fillPoints(Solution& s, const Network& net, const Fixing& fixing) {
    const size_t n = net.at.size();
    const auto sds = coordinateSds(net, fixing);
    s.covariance = Covariance(3 * n, std::make_shared<Columns>(fixing.factor, net.free_index, s.sd_scale * s.sd_scale));
    for (size_t i = 0; i < n; ++i) {
        AdjustedPoint& p = s.points[i];
        p.placed = net.placed[i];
        p.position = net.at[i];
        p.fixed = p.placed;
        for (int axis = 0; axis < 3; ++axis) {
            p.sd_mm[axis] = sds[3 * i + axis] * s.sd_scale;
            p.fixed = p.fixed && fixing.fixed[3 * i + axis];
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
                s.points[i].sd_mm[axis] = std::sqrt(std::max(0.0, datum->variance(3 * i + axis))) * s.sd_scale;
    }
    for (size_t i = 0; i < s.setups.size(); ++i) {
        AdjustedSetUp& u = s.setups[i];
        for (int k = 0; k < setup_unknowns; ++k) {
            u.value[k] = net.setups[i][k];
            if (u.told[k])
                u.sd[k] = std::sqrt(std::max(0.0, datum->variance(3 * net.at.size() + setup_unknowns * i + k))) * s.sd_scale;
        }
    }
    s.covariance = Covariance(3 * net.at.size(), std::make_shared<DatumColumns>(datum, fixing.fixed, s.sd_scale * s.sd_scale));
    s.datum_missed_mm = datum->missed_mm();
}

} // namespace

Solution solve(const Survey& survey, const Options& options) {
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
    if (!survey.setups.empty()) tellSetUps(net);
    adjust(net, Loss::Huber);
    bool converged = adjust(net, Loss::Plain);
    Rows rows = designMatrix(net);
    Fixing fixing = fixingOf(net, rows);
    if (fixing.defect == 0) {
        s.mirrors = findMirrors(net, coordinateSds(net, fixing));
        if (std::any_of(s.mirrors.begin(), s.mirrors.end(), [](const Mirror& m) { return m.mended; })) {
            adjust(net, Loss::Huber);
            converged = adjust(net, Loss::Plain);
            rows = designMatrix(net);
            fixing = fixingOf(net, rows);
        }
    }
    s.unfixed = fixing.unfixed;
    s.omega = omega(net);
    s.redundancy = activeCount(net) - net.free_count +
                   (fixing.defect - 3 * static_cast<int>(std::count(net.placed.begin(), net.placed.end(), char{0})));
    s.omega_limit = omegaLimit(s.redundancy);
    s.status = !converged ? Status::NotConverged : fixing.defect > 0 ? Status::NotFixed : Status::Solved;
    const Judged judged = snoop(s, net, fixing, rows, options, options.set_aside && s.status == Status::Solved);
    s.kept_redundancy = s.redundancy - static_cast<int>(std::count_if(s.readings.begin(), s.readings.end(),
                                                                      [](const AdjustedReading& r) { return r.set_aside; }));
    s.kept_omega = omega(net);
    s.kept_omega_limit = omegaLimit(s.kept_redundancy);
    if (s.kept_redundancy > 0 && s.kept_omega > s.kept_omega_limit) s.sd_scale = std::sqrt(s.kept_omega / s.kept_redundancy);
    giveVerdicts(s, net, rows, fixing, judged);
    sayTheRest(s, net, rows, fixing);
    fillPoints(s, net, fixing);
    fillSetUps(s, net, fixing);
    if (!free.datum.empty() && s.status != Status::NotConverged) layOnDatum(s, net, fixing, floats);
    if (!survey.assumed.empty() && s.status != Status::NotConverged) placeByAssumption(survey, s);
    if (!goesOn(options)) s.status = Status::NotConverged;
    switch (s.status) {
    case Status::NotFixed: s.message = s.unfixed.empty() ? "Something is not fixed." : s.unfixed.front().sentence; break;
    case Status::NotConverged:
        s.message = "The readings do not close on a shape. Check the rough positions and the units.";
        break;
    default: break;
    }
    return s;
}

} // namespace gorvet::tape
