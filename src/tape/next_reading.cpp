#include "tape/condition.hpp"
#include "tape/equations.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::tape {
namespace {

struct Candidate {
    int from;
    int to;
    double score;
    size_t figure; ///< the figure that gains most
    double before;
    double after;
};

std::set<std::pair<int, int>> tapedPairs(const Survey& survey, const Solution& s) {
    std::set<std::pair<int, int>> taped;
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        const SurveyReading& r = survey.readings[i];
        if (r.kind == ReadingKind::Tape && r.to >= 0 && !(i < s.readings.size() && s.readings[i].set_aside))
            taped.insert(std::minmax(r.from, r.to));
    }
    return taped;
}

/// Before the survey is fixed: join the points with the fewest readings to those nearest to being fixed.
std::vector<Candidate> byCount(const Survey& survey, const Solution& s, const std::set<std::pair<int, int>>& taped) {
    std::vector<int> count(survey.points.size(), 0);
    for (const SurveyReading& r : survey.readings) {
        ++count[r.from];
        if (r.to >= 0) ++count[r.to];
    }
    std::vector<Candidate> candidates;
    for (int i = 0; i < static_cast<int>(survey.points.size()); ++i)
        for (int j = i + 1; j < static_cast<int>(survey.points.size()); ++j) {
            if (taped.contains({i, j}) || !s.points[i].placed || !s.points[j].placed) continue;
            const double least = std::min(count[i], count[j]);
            const double most = std::max(count[i], count[j]);
            candidates.push_back({i, j, -least - 0.01 * most, 0, 0, 0});
        }
    return candidates;
}

std::vector<Candidate> byGain(const Survey& survey, const Solution& s, const Condition& c,
                              const std::set<std::pair<int, int>>& taped) {
    const auto n3 = static_cast<Eigen::Index>(3 * survey.points.size());
    const Eigen::Map<const Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>> q(s.covariance.data(), n3, n3);
    std::vector<Eigen::VectorXd> spread; // Q g of each figure
    std::vector<double> variance;
    std::vector<size_t> index;
    for (size_t k = 0; k < c.figures.size(); ++k) {
        if (!c.figures[k].judged) continue;
        const Eigen::Map<const Eigen::VectorXd> g(c.figures[k].gradient.data(), n3);
        spread.emplace_back(q * g);
        variance.push_back(g.dot(spread.back()));
        index.push_back(k);
    }
    std::vector<Candidate> candidates;
    for (int i = 0; i < static_cast<int>(survey.points.size()); ++i)
        for (int j = i + 1; j < static_cast<int>(survey.points.size()); ++j) {
            if (taped.contains({i, j})) continue;
            const Predicted p = predict(ReadingKind::Tape, s.points[i].position, s.points[j].position, true);
            Eigen::Matrix<double, 6, 1> a;
            a << p.by_from[0], p.by_from[1], p.by_from[2], p.by_to[0], p.by_to[1], p.by_to[2];
            Eigen::Matrix<double, 6, 6> block;
            block << q.block<3, 3>(3 * i, 3 * i), q.block<3, 3>(3 * i, 3 * j), q.block<3, 3>(3 * j, 3 * i),
                q.block<3, 3>(3 * j, 3 * j);
            const double sigma = build::defaultSigma(ReadingKind::Tape, p.value);
            const double denominator = sigma * sigma + a.dot(block * a);
            Candidate best{i, j, 0, 0, 0, 0};
            double top = 0;
            for (size_t k = 0; k < spread.size(); ++k) {
                const double along = a.head<3>().dot(spread[k].segment<3>(3 * i)) + a.tail<3>().dot(spread[k].segment<3>(3 * j));
                const double gain = along * along / denominator;
                best.score += gain;
                if (gain > top) {
                    top = gain;
                    best.figure = index[k];
                    best.before = std::sqrt(std::max(0.0, variance[k]));
                    best.after = std::sqrt(std::max(0.0, variance[k] - gain));
                }
            }
            candidates.push_back(best);
        }
    return candidates;
}

} // namespace

std::optional<NextReading> nextReading(const Survey& survey, const Solution& s, const Condition& c, int skip) {
    if (survey.points.size() < 2 || s.points.size() != survey.points.size()) return std::nullopt;
    const auto taped = tapedPairs(survey, s);
    const bool figures =
        s.status == Status::Solved && std::any_of(c.figures.begin(), c.figures.end(), [](const Figure& f) { return f.judged; });
    auto candidates = figures ? byGain(survey, s, c, taped) : byCount(survey, s, taped);
    if (candidates.empty()) return std::nullopt;
    std::stable_sort(candidates.begin(), candidates.end(),
                     [](const Candidate& a, const Candidate& b) { return a.score > b.score; });
    const Candidate& chosen = candidates[static_cast<size_t>(std::max(0, skip)) % candidates.size()];
    NextReading next{chosen.from, chosen.to, 0, {}};
    next.about_mm = predict(ReadingKind::Tape, s.points[chosen.from].position, s.points[chosen.to].position, true).value;
    const std::string before = units::fixed(halfWidth(chosen.before), 1);
    const std::string after = units::fixed(halfWidth(chosen.after), 1);
    if (figures && chosen.before > 0 && before != after)
        next.gain = fmt::format("would take {} from ± {} to ± {}", c.figures[chosen.figure].name, before, after);
    return next;
}

std::string likelySlip(double taped_mm, double rest_says_mm, double half_width_mm) {
    const double off = taped_mm - rest_says_mm;
    const double allowed = half_width_mm + 1.0;
    const auto would = [](double value) { return units::fixed(value, 1) + " would agree."; };
    struct Slip {
        double size_mm;
        const char* words;
    };
    static constexpr Slip slips[] = {{10, "A centimetre mark misread?"}, {20, "Two centimetres misread?"},
                                     {50, "A 5 cm mark misread?"},       {100, "A decimetre misread?"},
                                     {25.4, "An inch misread?"},         {1000, "A metre misread?"}};
    if (std::abs(off) <= allowed) return {};
    for (const Slip& slip : slips) {
        if (slip.size_mm <= 2 * allowed) continue; // a slip no larger than the ± explains nothing
        if (std::abs(std::abs(off) - slip.size_mm) <= allowed)
            return std::string(slip.words) + " " + would(taped_mm - std::copysign(slip.size_mm, off));
    }
    std::string digits = units::fixed(taped_mm, 1);
    for (size_t i = 0; i + 1 < digits.size(); ++i) {
        if (digits[i] == '.' || digits[i + 1] == '.') continue;
        std::swap(digits[i], digits[i + 1]);
        const double exchanged = std::stod(digits);
        if (exchanged != taped_mm && std::abs(exchanged - rest_says_mm) <= allowed)
            return "Two digits exchanged? " + would(exchanged);
        std::swap(digits[i], digits[i + 1]);
    }
    return {};
}

} // namespace gorvet::tape
