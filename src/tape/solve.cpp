#include "tape/judge.hpp"
#include "tape/mirror.hpp"
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

Eigen::MatrixXd activeRows(const Network& net, const Eigen::MatrixXd& rows) {
    Eigen::MatrixXd active = rows;
    for (size_t i = 0; i < net.active.size(); ++i)
        if (!net.active[i]) active.row(static_cast<Eigen::Index>(i)).setZero();
    return active;
}

bool goesOn(const Options& options) { return !options.go_on || options.go_on(); }

int activeCount(const Network& net) { return static_cast<int>(std::count(net.active.begin(), net.active.end(), char{1})); }

/// Covariance of the free coordinates after a reading was set aside. A defect then means that the reading was needed.
Fixing fixingOf(const Network& net, const Eigen::MatrixXd& rows) { return findUnfixed(net, activeRows(net, rows)); }

std::vector<double> coordinateSds(const Network& net, const Fixing& fixing) {
    std::vector<double> sds(net.free_index.size(), 0.0);
    for (size_t k = 0; k < sds.size(); ++k) {
        const int f = net.free_index[k];
        sds[k] = !fixing.fixed[k] ? nan : f < 0 ? 0.0 : std::sqrt(std::max(0.0, fixing.covariance(f, f)));
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
Judged snoop(Solution& s, Network& net, Fixing& fixing, Eigen::MatrixXd& rows, const Options& options, bool set_aside) {
    Judged judged = judge(net, rows, fixing.covariance);
    while (set_aside && goesOn(options)) {
        Eigen::Index worst = 0;
        if (judged.w.size() == 0 || judged.w.cwiseAbs().maxCoeff(&worst) <= retape_w) break;
        const auto index = static_cast<int>(worst);
        const auto group = inseparableFrom(net, judged, index);
        if (group.size() > 1) {
            s.inseparable.push_back(group);
            break;
        }
        const Network before = net;
        net.active[index] = 0;
        adjust(net, Loss::Plain);
        Eigen::MatrixXd new_rows = designMatrix(net);
        Fixing new_fixing = fixingOf(net, new_rows);
        if (new_fixing.defect > 0) {
            net = before;
            break;
        }
        record(s, net, judged, index);
        s.readings[index].set_aside = true;
        s.readings[index].verdict = Verdict::Retape;
        rows = std::move(new_rows);
        fixing = std::move(new_fixing);
        judged = judge(net, rows, fixing.covariance);
    }
    return judged;
}

void giveVerdicts(Solution& s, const Network& net, const Judged& judged) {
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
        if (auto group = inseparableFrom(net, judged, static_cast<int>(first)); group.size() > 1)
            s.inseparable.push_back(std::move(group));
    }
}

/// What the other readings say each reading should be, with ±.
void sayTheRest(Solution& s, const Network& net, const Eigen::MatrixXd& rows, const Fixing& fixing) {
    for (size_t i = 0; i < s.readings.size(); ++i) {
        AdjustedReading& a = s.readings[i];
        const SurveyReading& r = net.survey->readings[i];
        if (a.set_aside) {
            const auto row = rows.row(static_cast<Eigen::Index>(i));
            a.rest_says = predict(net, static_cast<int>(i)).value;
            a.rest_half_width =
                halfWidth(r.sigma * std::sqrt(std::max(0.0, row.dot(fixing.covariance * row.transpose())))) * s.sd_scale;
        } else if (a.redundancy > 0) {
            a.rest_says = r.value + a.residual / a.redundancy;
            a.rest_half_width = halfWidth(r.sigma * std::sqrt((1 - a.redundancy) / a.redundancy)) * s.sd_scale;
        } else {
            a.rest_says = nan;
            a.rest_half_width = nan;
        }
    }
}

void fillPoints(Solution& s, const Network& net, const Fixing& fixing) {
    const size_t n = net.at.size();
    const auto sds = coordinateSds(net, fixing);
    s.covariance.assign(9 * n * n, 0.0);
    const double scale2 = s.sd_scale * s.sd_scale;
    for (size_t k = 0; k < 3 * n; ++k)
        for (size_t l = 0; l < 3 * n; ++l)
            if (net.free_index[k] >= 0 && net.free_index[l] >= 0)
                s.covariance[k * 3 * n + l] = scale2 * fixing.covariance(net.free_index[k], net.free_index[l]);
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

} // namespace

Solution solve(const Survey& survey, const Options& options) {
    Solution s;
    s.points.resize(survey.points.size());
    s.readings.resize(survey.readings.size());
    Network net = begin(survey);
    if (activeCount(net) == 0) {
        s.message = survey.readings.empty() ? "There are no readings yet." : "No reading joins two points that have a place.";
        for (size_t i = 0; i < s.points.size(); ++i) {
            s.points[i].placed = net.placed[i];
            s.points[i].position = net.at[i];
            std::fill_n(s.points[i].sd_mm, 3, nan);
        }
        s.covariance.assign(9 * survey.points.size() * survey.points.size(), 0.0);
        return s;
    }
    adjust(net, Loss::Huber);
    bool converged = adjust(net, Loss::Plain);
    Eigen::MatrixXd rows = designMatrix(net);
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
    giveVerdicts(s, net, judged);
    sayTheRest(s, net, rows, fixing);
    fillPoints(s, net, fixing);
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
