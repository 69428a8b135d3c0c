#include "tape/parts.hpp"

#include "tape/judge.hpp"

#include <algorithm>
#include <limits>
#include <map>
#include <numeric>

namespace gorvet::tape {
namespace {

/// Points that hang together.
class Clusters {
public:
    explicit Clusters(size_t n) : parent_(n) { std::iota(parent_.begin(), parent_.end(), 0); }
    int of(int i) {
        while (parent_[static_cast<size_t>(i)] != i)
            i = parent_[static_cast<size_t>(i)] = parent_[static_cast<size_t>(parent_[static_cast<size_t>(i)])];
        return i;
    }
    void join(int a, int b) { parent_[static_cast<size_t>(of(a))] = of(b); }

private:
    std::vector<int> parent_;
};

/// A part's survey, and where its points and readings come from.
struct Part {
    Survey survey;
    std::vector<int> points;
    std::vector<int> readings;
    Solution solution;
};

/// Read from the datum itself: it says where a point stands, and with it where everything does.
bool fromDatum(const SurveyReading& r) {
    return r.setup < 0 && r.to < 0 &&
           (r.kind == ReadingKind::Station || r.kind == ReadingKind::Offset || r.kind == ReadingKind::Height);
}

/// `solved`: of the first part, whose points are held in any other that reads to them.
Part partOf(const Survey& whole, const std::vector<int>& own, bool on_rules, const Solution* solved) {
    Part part;
    part.points = own;
    std::vector<char> mine(whole.points.size(), 0);
    for (const int p : own) mine[static_cast<size_t>(p)] = 1;
    if (solved)
        for (const SurveyReading& r : whole.readings)
            if (r.to >= 0 && mine[static_cast<size_t>(r.from)] != mine[static_cast<size_t>(r.to)]) {
                const int other = mine[static_cast<size_t>(r.from)] ? r.to : r.from;
                if (solved->points[static_cast<size_t>(other)].determined &&
                    std::find(part.points.begin(), part.points.end(), other) == part.points.end())
                    part.points.push_back(other);
            }
    const std::vector<int>& points = part.points;
    std::vector<int> local(whole.points.size(), -1);
    for (size_t k = 0; k < points.size(); ++k) {
        local[static_cast<size_t>(points[k])] = static_cast<int>(k);
        part.survey.points.push_back(whole.points[static_cast<size_t>(points[k])]);
        if (k < own.size()) continue;
        const Vec3& at = solved->points[static_cast<size_t>(points[k])].position;
        part.survey.points.back().rough = at;
        part.survey.holds.push_back({static_cast<int>(k), Axis::X, at.x_mm});
        part.survey.holds.push_back({static_cast<int>(k), Axis::Y, at.y_mm});
        part.survey.holds.push_back({static_cast<int>(k), Axis::Z, at.z_mm});
    }
    part.survey.setups = whole.setups; // by their indices; one without readings changes nothing
    for (size_t i = 0; i < whole.readings.size(); ++i) {
        SurveyReading r = whole.readings[i];
        if (local[static_cast<size_t>(r.from)] < 0 || (r.to >= 0 && local[static_cast<size_t>(r.to)] < 0)) continue;
        if (!mine[static_cast<size_t>(r.from)] && (r.to < 0 || !mine[static_cast<size_t>(r.to)]))
            continue; // of the first part alone
        r.from = local[static_cast<size_t>(r.from)];
        if (r.to >= 0) r.to = local[static_cast<size_t>(r.to)];
        part.readings.push_back(static_cast<int>(i));
        part.survey.readings.push_back(r);
    }
    if (on_rules)
        for (DatumRule rule : whole.datum) {
            for (int& p : rule.points) p = local[static_cast<size_t>(p)];
            part.survey.datum.push_back(std::move(rule));
        }
    return part;
}

/// Covariances part by part; what stands in two parts has none in common.
class PartColumns final : public Covariance::Source {
public:
    PartColumns(size_t points, std::vector<std::pair<std::vector<int>, Covariance>> parts)
        : points_(points), parts_(std::move(parts)) {
        place_.resize(points);
        for (size_t p = 0; p < parts_.size(); ++p)
            for (size_t k = 0; k < parts_[p].first.size(); ++k) place_[static_cast<size_t>(parts_[p].first[k])] = {p, k};
    }
    std::vector<double> column(size_t k) const override {
        std::vector<double> all(3 * points_, 0.0);
        const auto [p, local] = place_[k / 3];
        const auto& [points, covariance] = parts_[p];
        const std::vector<double>& own = covariance.column(3 * local + k % 3);
        for (size_t l = 0; l < 3 * points.size(); ++l) all[3 * static_cast<size_t>(points[l / 3]) + l % 3] = own[l];
        return all;
    }

private:
    size_t points_;
    std::vector<std::pair<std::vector<int>, Covariance>> parts_;
    std::vector<std::pair<size_t, size_t>> place_;
};

} // namespace

std::optional<std::vector<std::vector<int>>> partsOf(const Survey& survey) {
    if (survey.datum.empty() || survey.points.empty()) return std::nullopt;
    Clusters clusters(survey.points.size());
    std::vector<int> first_of(survey.setups.size(), -1);
    std::vector<char> read(survey.points.size(), 0);
    for (const SurveyReading& r : survey.readings) {
        read[static_cast<size_t>(r.from)] = 1;
        if (r.to >= 0) {
            read[static_cast<size_t>(r.to)] = 1;
            clusters.join(r.from, r.to);
        }
        if (r.setup < 0) continue;
        int& first = first_of[static_cast<size_t>(r.setup)];
        if (first < 0) first = r.from;
        clusters.join(first, r.from);
    }
    std::map<int, std::vector<int>> by_root;
    for (int i = 0; i < static_cast<int>(survey.points.size()); ++i) by_root[clusters.of(i)].push_back(i);
    // the part of the rules: all that their points hang together with; without points, the largest
    std::vector<int> first;
    std::vector<int> roots;
    for (const DatumRule& rule : survey.datum)
        for (const int p : rule.points) roots.push_back(clusters.of(p));
    if (roots.empty()) {
        const auto largest = std::max_element(by_root.begin(), by_root.end(),
                                              [](const auto& a, const auto& b) { return a.second.size() < b.second.size(); });
        roots.push_back(largest->first);
    }
    std::vector<int> rest;
    bool splits = false; // a part of its own that is read
    for (const auto& [root, points] : by_root) {
        const bool own = std::find(roots.begin(), roots.end(), root) != roots.end();
        auto& list = own ? first : rest;
        list.insert(list.end(), points.begin(), points.end());
        splits = splits ||
                 (!own && std::any_of(points.begin(), points.end(), [&](int p) { return read[static_cast<size_t>(p)] != 0; }));
    }
    if (!splits) return std::nullopt;
    std::sort(first.begin(), first.end());
    std::sort(rest.begin(), rest.end());
    return std::vector<std::vector<int>>{first, rest};
}

std::optional<std::vector<std::vector<int>>> attaching(const Survey& survey, const Solution& whole, const Options& options) {
    if (survey.datum.empty() || whole.status != Status::NotDetermined) return std::nullopt;
    std::vector<int> marked; // points that were placed along or across by themselves
    for (const SurveyReading& r : survey.readings)
        if (fromDatum(r) && r.kind != ReadingKind::Height && std::find(marked.begin(), marked.end(), r.from) == marked.end())
            marked.push_back(r.from);
    constexpr size_t few = 3;
    if (marked.empty() || marked.size() > few) return std::nullopt;
    for (const DatumRule& rule : survey.datum)
        for (const int p : rule.points)
            if (std::find(marked.begin(), marked.end(), p) != marked.end()) return std::nullopt;
    std::vector<std::vector<int>> parts(2);
    for (int i = 0; i < static_cast<int>(survey.points.size()); ++i)
        parts[std::find(marked.begin(), marked.end(), i) == marked.end() ? 0 : 1].push_back(i);
    const Part rest = partOf(survey, parts[0], true, nullptr);
    const Solution alone = solve(rest.survey, options);
    const auto fixed = [](const Solution& s) {
        return std::count_if(s.points.begin(), s.points.end(), [](const AdjustedPoint& p) { return p.determined; });
    };
    if (fixed(alone) <= fixed(whole)) return std::nullopt;
    return parts;
}

Solution solveParts(const Survey& survey, const std::vector<std::vector<int>>& parts, const Options& options) {
    Solution s;
    s.points.resize(survey.points.size());
    s.readings.resize(survey.readings.size());
    s.setups.resize(survey.setups.size());
    for (AdjustedSetUp& u : s.setups) u.sd.fill(std::numeric_limits<double>::quiet_NaN());
    s.status = Status::Solved;
    std::vector<std::pair<std::vector<int>, Covariance>> covariances;
    for (size_t k = 0; k < parts.size(); ++k) {
        Part part = partOf(survey, parts[k], k == 0, k == 0 ? nullptr : &s);
        Options own_options = options;
        own_options.test_holds = options.test_holds && k == 0; // what is held in the others was solved, not said
        part.solution = solve(part.survey, own_options);
        const Solution& own = part.solution;
        const size_t count = parts[k].size(); // beyond them stand held ones of the first
        if (k == 0) {
            s.status = own.status;
            s.message = own.message;
            s.sigma_0 = own.sigma_0;
            s.datum_missed_mm = own.datum_missed_mm;
        } else if (s.status == Status::Solved && own.status != Status::Solved && own.status != Status::NoReadings) {
            s.status = own.status;
            s.message = own.message;
        }
        s.redundancy += own.redundancy;
        s.omega += own.omega;
        s.kept_redundancy += own.kept_redundancy;
        s.kept_omega += own.kept_omega;
        for (size_t i = 0; i < count; ++i) s.points[static_cast<size_t>(part.points[i])] = own.points[i];
        for (size_t i = 0; i < own.readings.size(); ++i) s.readings[static_cast<size_t>(part.readings[i])] = own.readings[i];
        for (size_t i = 0; i < own.setups.size(); ++i)
            if (own.setups[i].readings) s.setups[i] = own.setups[i];
        for (Undetermined u : own.undetermined) {
            for (int& p : u.points) p = part.points[static_cast<size_t>(p)];
            if (k > 0 && u.points.empty()) { // not the survey as a whole: these
                u.points = parts[k];
                u.of_points = true;
                std::string names;
                for (const int p : u.points) names += (names.empty() ? "" : ", ") + survey.points[static_cast<size_t>(p)].name;
                u.sentence = "Too few readings say where " + names + (u.points.size() == 1 ? " stands." : " stand.");
                u.remedy = "Measure station, offset and height, or tape to three points that are known.";
            }
            s.undetermined.push_back(std::move(u));
        }
        for (Mirror m : own.mirrors) {
            if (m.point >= 0) m.point = part.points[static_cast<size_t>(m.point)];
            s.mirrors.push_back(std::move(m));
        }
        for (std::vector<int> group : own.inseparable) {
            for (int& i : group) i = part.readings[static_cast<size_t>(i)];
            s.inseparable.push_back(std::move(group));
        }
        covariances.emplace_back(parts[k], own.covariance);
    }
    s.omega_limit = omegaLimit(s.redundancy);
    s.kept_omega_limit = omegaLimit(s.kept_redundancy);
    s.covariance =
        Covariance(3 * survey.points.size(), std::make_shared<PartColumns>(survey.points.size(), std::move(covariances)));
    return s;
}

} // namespace gorvet::tape
