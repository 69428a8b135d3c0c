#include "tape/snoop.hpp"

#include "tape/mirror.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

namespace gorvet::tape {
namespace {

/// What a reading showed in the round that judged it.
void record(Solution& s, const Searched& at, int i) {
    const SurveyReading& r = at.survey.readings[static_cast<size_t>(i)];
    AdjustedReading& a = s.readings[static_cast<size_t>(i)];
    a.computed = r.value + at.judged.v(i) * r.sigma;
    a.residual = at.judged.v(i) * r.sigma;
    a.redundancy = at.judged.redundancy(i);
    a.w = at.judged.w(i);
    a.check = a.redundancy <= 0 ? Check::Nothing : a.redundancy < barely_r ? Check::Barely : Check::Checked;
    a.minimal_detectable_error =
        a.redundancy <= 0 ? std::numeric_limits<double>::infinity() : 4.13 * r.sigma / std::sqrt(a.redundancy);
}

/// The |w| beyond which a reading is set aside as things stand.
double limitOf(const Searched& at) {
    const auto active = std::count(at.net.active.begin(), at.net.active.end(), char{1});
    const int left = at.redundancy - static_cast<int>(static_cast<std::ptrdiff_t>(at.net.active.size()) - active);
    if (left > 0 && omega(at.net) > omegaLimit(left)) return retape_w;
    const auto judged = (at.judged.redundancy.array() > 0).count();
    return familyLimit(static_cast<int>(judged));
}

/// Takes readings out and adjusts again. False, and all as before, when that would leave something undetermined.
bool takeOut(Searched& at, const std::vector<int>& readings) {
    const Network before = at.net;
    // a gross one has thrown the points about: back from there by the robust way
    constexpr double gross_w = 20;
    const bool gross = std::any_of(readings.begin(), readings.end(), [&](int i) { return std::abs(at.judged.w(i)) > gross_w; });
    for (const int i : readings) at.net.active[static_cast<size_t>(i)] = 0;
    if (gross && at.robust.at.size() == at.net.at.size()) {
        at.net.at = at.robust.at;
        at.net.setups = at.robust.setups;
        adjust(at.net, Loss::Huber);
    }
    adjust(at.net, Loss::Plain);
    Rows rows = designMatrix(at.net);
    Fixing fixing = findUndetermined(at.net, activeRows(at.net, rows));
    if (fixing.defect > at.fixing.defect) {
        at.net = before;
        return false;
    }
    at.rows.swap(rows);
    at.fixing = std::move(fixing);
    at.judged = judge(at.net, at.rows, *at.fixing.factor);
    return true;
}

/// Leaves readings in with the error that each may have as its σ: v/r, what it would be wrong by if it were the wrong one.
void widen(Solution& s, Searched& at, const std::vector<int>& readings) {
    for (const int i : readings) {
        SurveyReading& r = at.survey.readings[static_cast<size_t>(i)];
        const double wrong_by = std::abs(at.judged.v(i)) * r.sigma / std::max(at.judged.redundancy(i), unchecked_r);
        s.readings[static_cast<size_t>(i)].widened_sigma = std::max(r.sigma, wrong_by);
    }
    for (const int i : readings)
        at.survey.readings[static_cast<size_t>(i)].sigma = s.readings[static_cast<size_t>(i)].widened_sigma;
    adjust(at.net, Loss::Plain);
    refresh(at);
}

/// By how many σ a reading that is out differs from what the rest say, the doubt of both counted.
double offBy(const Searched& at, int i) {
    const Eigen::VectorXd row = at.rows.row(i).transpose();
    return at.judged.v(i) / std::sqrt(1 + std::max(0.0, at.fixing.factor->quadraticOf(row)));
}

/// What was set aside alone and agrees with the rest comes back, the one that agrees best first.
void bringBack(Solution& s, Searched& at, const Options& options) {
    for (size_t round = 0; round < s.readings.size() && options.goesOn(); ++round) {
        int best = -1;
        double least = doubtful_w;
        for (size_t i = 0; i < s.readings.size(); ++i) {
            const bool grouped = std::any_of(s.inseparable.begin(), s.inseparable.end(), [&](const auto& g) {
                return std::find(g.begin(), g.end(), static_cast<int>(i)) != g.end();
            });
            if (!s.readings[i].set_aside || grouped) continue;
            if (const double off = std::abs(offBy(at, static_cast<int>(i))); off < least) {
                least = off;
                best = static_cast<int>(i);
            }
        }
        if (best < 0) return;
        at.net.active[static_cast<size_t>(best)] = 1;
        s.readings[static_cast<size_t>(best)].set_aside = false;
        s.readings[static_cast<size_t>(best)].verdict = Verdict::Doubtful;
        adjust(at.net, Loss::Plain);
        refresh(at);
    }
}

} // namespace

void refresh(Searched& at) {
    at.rows = designMatrix(at.net);
    at.fixing = findUndetermined(at.net, activeRows(at.net, at.rows));
    at.judged = judge(at.net, at.rows, *at.fixing.factor);
}

std::vector<int> leaveOutGrossAngles(Survey& survey, Network& net) {
    constexpr double gross = 6; // σ, that of the start included
    constexpr double soft = 50; // times σ
    std::vector<int> angles;
    for (size_t i = 0; i < survey.readings.size(); ++i)
        if (net.active[i] && build::isAngle(survey.readings[i].kind)) angles.push_back(static_cast<int>(i));
    if (angles.empty()) return {};
    // the start: floors level, strings straight; without the angles, or softly with them where nothing else fixes a point
    Network start = net;
    for (size_t s = 0; s < net.setups.size(); ++s)
        for (int u = 1; u < setup_unknowns; ++u) holdSetUp(start, static_cast<int>(s), u);
    const int defect = findUndetermined(start, activeRows(start, designMatrix(start))).defect;
    Network without = start;
    for (const int i : angles) without.active[static_cast<size_t>(i)] = 0;
    const bool needed = findUndetermined(without, activeRows(without, designMatrix(without))).defect > defect;
    std::vector<double> sigmas;
    for (const int i : angles) sigmas.push_back(survey.readings[static_cast<size_t>(i)].sigma);
    if (needed)
        for (const int i : angles) survey.readings[static_cast<size_t>(i)].sigma *= soft;
    Network& from = needed ? start : without;
    if (std::none_of(from.active.begin(), from.active.end(), [](char a) { return a != 0; })) return {};
    adjust(from, Loss::Huber);
    const Rows rows = designMatrix(from);
    const Fixing fixing = findUndetermined(from, activeRows(from, rows));
    std::vector<int> out;
    for (size_t k = 0; k < angles.size(); ++k) {
        const int i = angles[k];
        SurveyReading& r = survey.readings[static_cast<size_t>(i)];
        const double off = (predict(from, i).value - r.value) / sigmas[k];
        const Eigen::VectorXd row = rows.row(i).transpose() * (r.sigma / sigmas[k]);
        const double spread = std::sqrt(1 + std::max(0.0, fixing.factor->quadraticOf(row)));
        r.sigma = sigmas[k];
        // a point that only the angles fix follows even a gross one: there the misread shows in what else is softly held
        if (std::abs(off) > gross * spread && std::abs(off) > gross * (needed ? soft / 5 : 1)) out.push_back(i);
    }
    for (const int i : out) net.active[static_cast<size_t>(i)] = 0;
    if (!out.empty() && findUndetermined(net, activeRows(net, designMatrix(net))).defect > defect) {
        for (const int i : out) net.active[static_cast<size_t>(i)] = 1; // they are all there is
        return {};
    }
    net.at = from.at;
    return out;
}

std::vector<int> leaveOutGrossLengths(const Survey& survey, Network& net) {
    constexpr double least_mm = 300, times_usual = 8, rough_mm = 20, share = 0.5;
    constexpr size_t most = 5, enough = 8;
    std::vector<std::pair<double, int>> off; // by how much, which
    std::vector<double> usual;
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        const SurveyReading& r = survey.readings[i];
        const auto typed = [&](int p) { return p < 0 || survey.points[static_cast<size_t>(p)].rough.has_value(); };
        if (!net.active[i] || build::isAngle(r.kind) || r.setup >= 0 || !typed(r.from) || !typed(r.to)) continue;
        const double expected = predict(net, static_cast<int>(i)).value;
        const double by = std::abs(expected - r.value);
        usual.push_back(by);
        // a length is off by a share of itself, too: rough places are rougher the farther apart they are
        if (by > least_mm && by > share * std::min(std::abs(expected), std::abs(r.value) + by))
            off.emplace_back(by, static_cast<int>(i));
    }
    if (off.empty() || usual.size() < enough) return {};
    std::nth_element(usual.begin(), usual.begin() + static_cast<std::ptrdiff_t>(usual.size() / 2), usual.end());
    const double limit = times_usual * (usual[usual.size() / 2] + rough_mm);
    std::erase_if(off, [&](const auto& o) { return o.first <= limit; });
    if (off.empty() || off.size() > most || off.size() * 5 > usual.size()) return {};
    const int defect = findUndetermined(net, activeRows(net, designMatrix(net))).defect;
    std::vector<int> out;
    for (const auto& [by, i] : off) {
        net.active[static_cast<size_t>(i)] = 0;
        out.push_back(i);
    }
    // rather a rough place is wrong, where something would hang on nothing else, or could as well stand on the other side
    Network trial = net;
    bool needed = findUndetermined(trial, activeRows(trial, designMatrix(trial))).defect > defect;
    if (!needed) {
        adjust(trial, Loss::Huber);
        const Fixing fixing = findUndetermined(trial, activeRows(trial, designMatrix(trial)));
        for (const Mirror& m : findMirrors(trial, coordinateSds(trial, fixing)))
            for (const int i : out) {
                const SurveyReading& r = survey.readings[static_cast<size_t>(i)];
                needed = needed || m.point < 0 || m.point == r.from || m.point == r.to;
            }
    }
    if (needed) {
        for (const int i : out) net.active[static_cast<size_t>(i)] = 1;
        return {};
    }
    return out;
}

bool leaveOutFar(Network& net, const Network& robust, std::vector<int>& left_out) {
    constexpr double far = 20;   // σ
    constexpr double well = 0.5; // redundancy: below it another may as well be the wrong one
    constexpr int most = 5;
    const Network before = net;
    const size_t had = left_out.size();
    net.at = robust.at;
    net.setups = robust.setups;
    for (int k = 0; k < most; ++k) {
        const Rows rows = designMatrix(net);
        const Fixing fixing = findUndetermined(net, activeRows(net, rows));
        const Judged judged = judge(net, rows, *fixing.factor);
        int worst = -1;
        for (Eigen::Index i = 0; i < judged.v.size(); ++i)
            if (judged.redundancy(i) >= well && std::abs(judged.v(i)) > (worst < 0 ? far : std::abs(judged.v(worst))))
                worst = static_cast<int>(i);
        if (worst < 0) break;
        net.active[static_cast<size_t>(worst)] = 0;
        left_out.push_back(worst);
        adjust(net, Loss::Huber);
        const Network here = net;
        if (adjust(net, Loss::Plain)) return true;
        net.at = here.at;
        net.setups = here.setups;
    }
    net = before;
    left_out.resize(had);
    return false;
}

void snoop(Solution& s, Searched& at, const Options& options, const std::vector<int>& left_out) {
    for (const int i : left_out) {
        record(s, at, i);
        s.readings[static_cast<size_t>(i)].w = offBy(at, i);
        s.readings[static_cast<size_t>(i)].redundancy = 1;
        s.readings[static_cast<size_t>(i)].check = Check::Checked;
        s.readings[static_cast<size_t>(i)].set_aside = true;
    }
    std::vector<char> settled(s.readings.size(), 0); // widened already
    while (options.goesOn()) {
        int worst = -1;
        for (Eigen::Index i = 0; i < at.judged.w.size(); ++i)
            if (!settled[static_cast<size_t>(i)] && (worst < 0 || std::abs(at.judged.w(i)) > std::abs(at.judged.w(worst))))
                worst = static_cast<int>(i);
        if (worst < 0 || std::abs(at.judged.w(worst)) <= limitOf(at)) break;
        std::vector<int> group = inseparableFrom(at.net, at.rows, *at.fixing.factor, at.judged, worst);
        std::erase_if(group, [&](int i) { return settled[static_cast<size_t>(i)] != 0; });
        for (const int i : group) {
            record(s, at, i);
            s.readings[static_cast<size_t>(i)].verdict = Verdict::Retape;
        }
        // the likeliest first
        std::stable_sort(group.begin(), group.end(),
                         [&](int a, int b) { return std::abs(at.judged.w(a)) > std::abs(at.judged.w(b)); });
        if (group.size() > 1) s.inseparable.push_back(group);
        if (takeOut(at, group)) {
            for (const int i : group) s.readings[static_cast<size_t>(i)].set_aside = true;
            continue;
        }
        widen(s, at, group);
        for (const int i : group) settled[static_cast<size_t>(i)] = 1;
    }
    bringBack(s, at, options);
}

void giveVerdicts(Solution& s, const Searched& at) {
    const auto m = static_cast<int>(at.survey.readings.size());
    const double limit = limitOf(at);
    double worst = 0;
    for (int i = 0; i < m; ++i) {
        AdjustedReading& a = s.readings[static_cast<size_t>(i)];
        if (a.set_aside) {
            a.verdict = Verdict::Retape;
            continue;
        }
        if (a.widened_sigma > 0) continue; // it keeps what it showed before
        record(s, at, i);
        const double size = std::abs(a.w);
        worst = std::max(worst, size);
        a.verdict = size > limit                                     ? Verdict::Retape
                    : size > doubtful_w || a.check != Check::Checked ? Verdict::Doubtful
                                                                     : Verdict::Agrees;
    }
    for (const auto& group : s.inseparable)
        for (const int i : group) s.readings[static_cast<size_t>(i)].verdict = Verdict::Retape;
    // Ω too high with no single culprit: every reading that could be it is doubtful
    if (s.kept_omega > s.kept_omega_limit && s.kept_redundancy > 0 && worst <= retape_w) {
        for (int i = 0; i < m; ++i) {
            AdjustedReading& a = s.readings[static_cast<size_t>(i)];
            if (!a.set_aside && std::abs(a.w) >= 0.8 * worst && a.verdict == Verdict::Agrees) a.verdict = Verdict::Doubtful;
        }
        Eigen::Index first = 0;
        at.judged.w.cwiseAbs().maxCoeff(&first);
        if (auto group = inseparableFrom(at.net, at.rows, *at.fixing.factor, at.judged, static_cast<int>(first));
            group.size() > 1)
            s.inseparable.push_back(std::move(group));
    }
}

} // namespace gorvet::tape
