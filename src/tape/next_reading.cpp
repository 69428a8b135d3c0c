#include "tape/next_reading.hpp"

#include "tape/equations.hpp"
#include "tape/undetermined.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

#include <fmt/format.h>

namespace gorvet::tape {
namespace {

using Square = Eigen::MatrixXd;
constexpr double least_distance_mm = 20;

struct ReadingPair {
    ReadingKind kind;
    int from;
    int to;
    auto operator<=>(const ReadingPair&) const = default;
};

} // namespace

bool blocks(const Box& box, const Vec3& a, const Vec3& b) {
    constexpr double skin = 1; // a point on the face of what is in the way can be reached
    const double from[3] = {a.x_mm, a.y_mm, a.z_mm};
    const double to[3] = {b.x_mm, b.y_mm, b.z_mm};
    const double low[3] = {box.from.x_mm + skin, box.from.y_mm + skin, box.from.z_mm + skin};
    const double high[3] = {box.to.x_mm - skin, box.to.y_mm - skin, box.to.z_mm - skin};
    double enters = 0;
    double leaves = 1;
    for (int axis = 0; axis < 3; ++axis) {
        const double way = to[axis] - from[axis];
        if (std::abs(way) < 1e-9) {
            if (from[axis] <= low[axis] || from[axis] >= high[axis]) return false;
            continue;
        }
        const double t0 = (low[axis] - from[axis]) / way;
        const double t1 = (high[axis] - from[axis]) / way;
        enters = std::max(enters, std::min(t0, t1));
        leaves = std::min(leaves, std::max(t0, t1));
    }
    return enters < leaves;
}

namespace {

bool isFloorReading(ReadingKind k) { return k == ReadingKind::Height || k == ReadingKind::Level; }

/// Whether a line between two points is such that an angle of it is taken: a cross-level across the frame, a slope or a rail's
/// angle along it, both over some length.
bool suits(ReadingKind kind, const Vec3& a, const Vec3& b) {
    const double along = std::abs(b.x_mm - a.x_mm);
    const double across = std::abs(b.y_mm - a.y_mm);
    constexpr double least_mm = 200;
    switch (kind) {
    case ReadingKind::CrossLevel: return across > least_mm && across > 2 * along;
    case ReadingKind::Slope: return along > least_mm && along > 2 * across;
    case ReadingKind::RailAngle: return b.x_mm - a.x_mm > least_mm && along > 2 * across;
    default: return true;
    }
}

/// What can be taken: readings of each kind that there are means for, between placed points. What was taken fewer than `times`.
std::vector<ReadingPair> feasible(const Survey& survey, const Solution& s, const Means& means, const std::vector<int>& points,
                                  int times) {
    std::map<std::tuple<ReadingKind, int, int>, int> counts;
    std::set<ReadingKind> kinds = {ReadingKind::Tape};
    if (means.gauge) kinds.insert({ReadingKind::Height, ReadingKind::Level});
    const auto key = [](ReadingKind kind, int from, int to) {
        return to < 0 ? std::tuple{kind, from, -1} : std::tuple{kind, std::min(from, to), std::max(from, to)};
    };
    for (size_t i = 0; i < survey.readings.size(); ++i) {
        const SurveyReading& r = survey.readings[i];
        if (r.setup < 0 && !isFloorReading(r.kind) && r.kind != ReadingKind::Coordinates && r.kind != ReadingKind::Symmetry)
            kinds.insert(r.kind);
        if (i < s.readings.size() && s.readings[i].set_aside) continue;
        ++counts[key(r.kind, r.from, r.to)];
    }
    for (const HeldCoordinate& h : survey.holds) {
        if (h.axis == Axis::Z) counts[key(ReadingKind::Height, h.point, -1)] = times;
        if (h.axis == Axis::Y) counts[key(ReadingKind::Offset, h.point, -1)] = times;
        if (h.axis == Axis::X) counts[key(ReadingKind::Station, h.point, -1)] = times;
    }
    const auto taken = [&](ReadingKind kind, int from, int to) {
        const auto found = counts.find(key(kind, from, to));
        return found == counts.end() ? 0 : found->second;
    };
    std::vector<ReadingPair> pairs;
    for (size_t one = 0; one < points.size(); ++one) {
        const int i = points[one];
        for (const ReadingKind kind : {ReadingKind::Height, ReadingKind::Offset, ReadingKind::Station})
            if (kinds.contains(kind) && taken(kind, i, -1) < times) pairs.push_back({kind, i, -1});
        for (size_t other = one + 1; other < points.size(); ++other) {
            const int j = points[other];
            const Vec3& a = s.points[i].position;
            const Vec3& b = s.points[j].position;
            const double d = predict(ReadingKind::Tape, a, b, true).value;
            if (d < least_distance_mm || d > means.reach_mm) continue;
            const auto in_the_way = [&](const Box& box) { return blocks(box, a, b); };
            const bool free = std::none_of(means.obstacles.begin(), means.obstacles.end(), in_the_way);
            for (const ReadingKind kind : {ReadingKind::Tape, ReadingKind::Level, ReadingKind::Plan, ReadingKind::CrossLevel,
                                           ReadingKind::Slope, ReadingKind::RailAngle}) {
                if (!kinds.contains(kind) || taken(kind, i, j) >= times) continue;
                // a water level goes round what a tape does not pass, and a plumb line under it
                if (!free && kind != ReadingKind::Level && kind != ReadingKind::Plan) continue;
                if (suits(kind, a, b))
                    pairs.push_back({kind, i, j});
                else if (suits(kind, b, a))
                    pairs.push_back({kind, j, i});
            }
        }
    }
    return pairs;
}

/// What was never taken; when all was, what was taken once or twice: people tape three times before they tighten a bolt.
std::vector<ReadingPair> feasible(const Survey& survey, const Solution& s, const Means& means, const std::vector<int>& points) {
    auto pairs = feasible(survey, s, means, points, 1);
    return pairs.empty() ? feasible(survey, s, means, points, 3) : pairs;
}

/// A gain to seven figures: two readings that mirror each other gain the same, and which comes first is not left to the last bit
/// of a sum.
double toSevenFigures(double gain) {
    // Veltkamp's splitting: the upper 24 bits, rounded. Infinite stays infinite
    constexpr double splitter = 536870913; // 2²⁹ + 1
    const double wide = splitter * gain;
    return std::isfinite(wide) ? wide - (wide - gain) : gain;
}
bool gainsMore(double gain, double than) { return toSevenFigures(gain) > toSevenFigures(than); }

/// Something wanted: a figure's gradient, or the coordinates of points.
struct Target {
    std::string name;
    Eigen::VectorXd gradient; ///< empty: the points' coordinates
    std::vector<int> points;
};

std::vector<Target> targetsOf(const Survey& survey, const Condition& c, const Wanted& wanted) {
    std::vector<Target> targets;
    const auto everyPoint = [&] {
        for (int i = 0; i < static_cast<int>(survey.points.size()); ++i) targets.push_back({survey.points[i].name, {}, {i}});
    };
    if (wanted.key == "point" && wanted.point >= 0 && wanted.point < static_cast<int>(survey.points.size())) {
        targets.push_back({survey.points[wanted.point].name, {}, {wanted.point}});
        return targets;
    }
    if (wanted.key == "everything" || wanted.key == "point") {
        everyPoint();
        return targets;
    }
    for (const ConditionFigure& f : c.figures) {
        const std::string key = f.key;
        const bool is = wanted.key == "figures"     ? f.judged
                        : wanted.key == "rails"     ? key == "rail-difference"
                        : wanted.key == "wheelbase" ? key.starts_with("wheelbase")
                        : wanted.key == "tracks"    ? key.starts_with("track")
                                                    : key == wanted.key;
        if (is)
            targets.push_back(
                {f.name, Eigen::Map<const Eigen::VectorXd>(f.gradient.data(), static_cast<Eigen::Index>(f.gradient.size())), {}});
    }
    if (targets.empty()) everyPoint(); // the figure can't be had yet: whatever sharpens the points leads there
    return targets;
}

/// The points between which readings are looked for, in order: all that are placed, or of very many those that are asked for and
/// those with the fewest readings.
std::vector<int> pointsLookedAt(const Survey& survey, const Solution& s, const std::vector<Target>& targets) {
    std::vector<int> placed;
    for (int i = 0; i < static_cast<int>(survey.points.size()); ++i)
        if (s.points[static_cast<size_t>(i)].placed) placed.push_back(i);
    if (placed.size() <= most_points_searched) return placed;
    std::vector<long long> worth(survey.points.size(), 0); // least first
    for (const SurveyReading& r : survey.readings) {
        ++worth[static_cast<size_t>(r.from)];
        if (r.to >= 0) ++worth[static_cast<size_t>(r.to)];
    }
    const long long wanted = -1'000'000'000;
    for (const Target& t : targets) {
        if (targets.size() < survey.points.size())
            for (const int p : t.points) worth[static_cast<size_t>(p)] = wanted;
        for (Eigen::Index l = 0; l < t.gradient.size(); ++l)
            if (t.gradient(l) != 0) worth[static_cast<size_t>(l / 3)] = wanted;
    }
    std::stable_sort(placed.begin(), placed.end(),
                     [&](int a, int b) { return worth[static_cast<size_t>(a)] < worth[static_cast<size_t>(b)]; });
    placed.resize(most_points_searched);
    std::sort(placed.begin(), placed.end());
    return placed;
}

/// Ranks by a covariance that can be brought up to date reading by reading.
class Ranker {
public:
    Ranker(const Survey& survey, const Solution& s, std::vector<Target> targets, const std::vector<int>& points)
        : s_(s), targets_(std::move(targets)), local_(survey.points.size(), -1) {
        for (size_t i = 0; i < points.size(); ++i) local_[static_cast<size_t>(points[i])] = static_cast<int>(i);
        const auto n3 = static_cast<Eigen::Index>(3 * points.size());
        q_.resize(n3, n3);
        for (size_t i = 0; i < points.size(); ++i)
            for (size_t axis = 0; axis < 3; ++axis) {
                const std::vector<double> column = s.covariance.column(3 * static_cast<size_t>(points[i]) + axis);
                for (size_t j = 0; j < points.size(); ++j)
                    for (size_t other = 0; other < 3; ++other)
                        q_(static_cast<Eigen::Index>(3 * j + other), static_cast<Eigen::Index>(3 * i + axis)) =
                            column[3 * static_cast<size_t>(points[j]) + other];
            }
        // what is asked of points that are not looked at is left to the others
        std::erase_if(targets_,
                      [&](const Target& t) { return !t.points.empty() && local_[static_cast<size_t>(t.points.front())] < 0; });
        for (Target& t : targets_) {
            if (t.gradient.size() == 0) {
                for (int& p : t.points) p = local_[static_cast<size_t>(p)];
                continue;
            }
            Eigen::VectorXd own = Eigen::VectorXd::Zero(n3);
            for (Eigen::Index l = 0; l < t.gradient.size(); ++l)
                if (const int p = local_[static_cast<size_t>(l / 3)]; p >= 0) own(3 * p + l % 3) = t.gradient(l);
            t.gradient = std::move(own);
        }
        spread();
    }

    RankedReading rate(const ReadingPair& pair) const {
        const Row a = rowOf(pair);
        const double denominator = a.sigma * a.sigma + quadratic(a);
        RankedReading rated;
        rated.kind = pair.kind;
        rated.from = pair.from;
        rated.to = pair.to;
        rated.about = a.about;
        double top = -1;
        for (size_t k = 0; k < targets_.size(); ++k) {
            const double gain =
                (targets_[k].points.empty() ? along(a, spread_[k]) : ofPoint(a, targets_[k].points.front())) / denominator;
            rated.gain_mm2 += gain;
            if (gainsMore(gain, top)) {
                top = gain;
                rated.what = targets_[k].name;
                rated.before_mm = build::u95Of(std::sqrt(std::max(0.0, variance_[k])));
                rated.after_mm = build::u95Of(std::sqrt(std::max(0.0, variance_[k] - gain)));
            }
        }
        return rated;
    }

    /// As if the reading had been taken.
    void take(const ReadingPair& pair) {
        const Row a = rowOf(pair);
        Eigen::VectorXd qa = Eigen::VectorXd::Zero(q_.rows());
        for (int e = 0; e < a.size; ++e) qa += a.by[e] * q_.col(a.at[e]);
        const double denominator = a.sigma * a.sigma + quadratic(a);
        q_ -= qa * (qa.transpose() / denominator);
        spread();
    }

private:
    struct Row {
        int size = 0;
        std::array<Eigen::Index, 6> at{};
        std::array<double, 6> by{};
        double sigma = 1;
        double about = 0;
    };

    Row rowOf(const ReadingPair& pair) const {
        const bool two = pair.to >= 0;
        const Vec3 from = s_.points[pair.from].position;
        const Vec3 to = two ? s_.points[pair.to].position : Vec3{};
        const Predicted p = predict(pair.kind, from, to, two, two ? senseOf(pair.kind, from, to) : 1.0);
        Row a;
        a.about = p.value;
        a.sigma = build::defaultSigma(pair.kind, p.value);
        const auto put = [&a, this](int point, const std::array<double, 3>& by) {
            for (int axis = 0; axis < 3; ++axis)
                if (by[axis] != 0) {
                    a.at[a.size] = 3 * local_[static_cast<size_t>(point)] + axis;
                    a.by[a.size++] = by[axis];
                }
        };
        put(pair.from, p.by_from);
        if (two) put(pair.to, p.by_to);
        return a;
    }
    double quadratic(const Row& a) const {
        double sum = 0;
        for (int e = 0; e < a.size; ++e)
            for (int f = 0; f < a.size; ++f) sum += a.by[e] * a.by[f] * q_(a.at[e], a.at[f]);
        return sum;
    }
    /// (g Q aᵀ)²
    static double along(const Row& a, const Eigen::VectorXd& qg) {
        double sum = 0;
        for (int e = 0; e < a.size; ++e) sum += a.by[e] * qg(a.at[e]);
        return sum * sum;
    }
    /// |Q aᵀ|² over one point's coordinates.
    double ofPoint(const Row& a, int point) const {
        double sum = 0;
        for (int axis = 0; axis < 3; ++axis) {
            double qa = 0;
            for (int e = 0; e < a.size; ++e) qa += a.by[e] * q_(a.at[e], 3 * point + axis);
            sum += qa * qa;
        }
        return sum;
    }
    void spread() {
        spread_.clear();
        variance_.clear();
        for (const Target& t : targets_) {
            if (t.points.empty()) {
                Eigen::VectorXd qg = Eigen::VectorXd::Zero(q_.rows());
                for (Eigen::Index l = 0; l < t.gradient.size(); ++l)
                    if (t.gradient(l) != 0) qg += t.gradient(l) * q_.col(l);
                variance_.push_back(t.gradient.dot(qg));
                spread_.push_back(std::move(qg));
            } else {
                double trace = 0;
                for (int axis = 0; axis < 3; ++axis) trace += q_(3 * t.points.front() + axis, 3 * t.points.front() + axis);
                variance_.push_back(trace);
                spread_.emplace_back();
            }
        }
    }

    const Solution& s_;
    std::vector<Target> targets_; ///< their points and gradients by the points looked at
    std::vector<int> local_;      ///< of each point among those looked at, or −1
    Square q_;
    std::vector<Eigen::VectorXd> spread_; ///< Q g of each figure
    std::vector<double> variance_;
};

/// Before the survey is fixed: join the points with the fewest readings to those nearest to being fixed.
std::vector<RankedReading> byCount(const Survey& survey, const Solution& s, const std::vector<ReadingPair>& pairs) {
    std::vector<int> count(survey.points.size(), 0);
    for (const SurveyReading& r : survey.readings) {
        ++count[r.from];
        if (r.to >= 0) ++count[r.to];
    }
    std::vector<RankedReading> ranked;
    for (const ReadingPair& pair : pairs) {
        RankedReading r;
        r.kind = pair.kind;
        r.from = pair.from;
        r.to = pair.to;
        const Vec3 from = s.points[pair.from].position;
        if (pair.to < 0) {
            r.about = predict(pair.kind, from, {}, false).value;
            r.gain_mm2 = -count[pair.from] - 0.5;
            ranked.push_back(r);
            continue;
        }
        const Vec3 to = s.points[pair.to].position;
        r.about = predict(pair.kind, from, to, true, senseOf(pair.kind, from, to)).value;
        r.gain_mm2 = -std::min(count[pair.from], count[pair.to]) - 0.01 * std::max(count[pair.from], count[pair.to]);
        if (pair.kind != ReadingKind::Tape) r.gain_mm2 -= 0.001; // a tape is at hand
        ranked.push_back(r);
    }
    return ranked;
}

/// Before the survey is fixed: how many points one reading would fix. With the open directions as columns of N and a reading's
/// row a, the direction that it closes is b = a N; a coordinate whose row of N runs along b alone has nothing open left.
void countFixed(std::vector<RankedReading>& ranked, const Survey& survey, const Solution& s) {
    Network net = begin(survey);
    if (std::none_of(net.active.begin(), net.active.end(), [](char a) { return a != 0; })) return;
    for (size_t i = 0; i < s.points.size(); ++i)
        if (s.points[i].placed && net.placed[i]) net.at[i] = s.points[i].position;
    const Fixing fixing = findUndetermined(net, activeRows(net, designMatrix(net)));
    const Eigen::MatrixXd& open = fixing.factor->nullSpace();
    const auto& untouched = fixing.factor->untouched();
    const Eigen::Index d = open.cols() + static_cast<Eigen::Index>(untouched.size());
    if (d == 0 || static_cast<double>(d) * net.free_count * static_cast<double>(ranked.size()) > 3e8)
        return; // too many to try each
    Eigen::MatrixXd n = Eigen::MatrixXd::Zero(net.free_count, d);
    if (open.cols()) n.leftCols(open.cols()) = open;
    for (size_t k = 0; k < untouched.size(); ++k) n(untouched[k], open.cols() + static_cast<Eigen::Index>(k)) = 1;
    constexpr double nothing = 1e-6;
    const Eigen::VectorXd size = n.rowwise().squaredNorm();
    for (RankedReading& r : ranked) {
        const bool two = r.to >= 0;
        const Predicted p = predict(r.kind, net.at[r.from], two ? net.at[r.to] : Vec3{}, two,
                                    two ? senseOf(r.kind, net.at[r.from], net.at[r.to]) : 1.0);
        Eigen::RowVectorXd b = Eigen::RowVectorXd::Zero(d);
        for (int axis = 0; axis < 3; ++axis) {
            if (const int k = net.free_index[3 * r.from + axis]; k >= 0) b += p.by_from[axis] * n.row(k);
            if (two)
                if (const int k = net.free_index[3 * r.to + axis]; k >= 0) b += p.by_to[axis] * n.row(k);
        }
        const double length = b.norm() * (build::isAngle(r.kind) ? 1000 : 1); // an angle over a metre
        b *= build::isAngle(r.kind) ? 1000 : 1;
        if (length < 1e-4) { // it closes nothing
            r.gain_mm2 -= 1e6;
            continue;
        }
        const Eigen::VectorXd along = n * b.transpose() / length;
        int coordinates = 0;
        for (size_t i = 0; i < s.points.size(); ++i) {
            if (!net.placed[i]) continue;
            bool was_open = false;
            bool is_open = false;
            for (int axis = 0; axis < 3; ++axis) {
                const int k = net.free_index[3 * i + axis];
                if (k < 0) continue;
                const bool before = size(k) > nothing;
                const bool after = before && size(k) - along(k) * along(k) > nothing;
                coordinates += before && !after;
                was_open = was_open || before;
                is_open = is_open || after;
            }
            r.fixes += was_open && !is_open;
        }
        r.gain_mm2 += 1e3 * r.fixes + 1e1 * coordinates;
    }
}

void bestFirst(std::vector<RankedReading>& ranked, size_t most) {
    std::vector<std::pair<double, size_t>> order; // each gain rounded once: a sort compares it many times
    order.reserve(ranked.size());
    for (size_t i = 0; i < ranked.size(); ++i) order.emplace_back(-toSevenFigures(ranked[i].gain_mm2), i);
    const size_t count = std::min(most, order.size());
    std::partial_sort(order.begin(), order.begin() + static_cast<std::ptrdiff_t>(count), order.end());
    std::vector<RankedReading> best;
    best.reserve(count);
    for (size_t i = 0; i < count; ++i) best.push_back(std::move(ranked[order[i].second]));
    ranked = std::move(best);
}

bool usable(const Survey& survey, const Solution& s) {
    return survey.points.size() >= 2 && s.points.size() == survey.points.size();
}

} // namespace

std::vector<RankedReading> rankReadings(const Survey& survey, const Solution& s, const Condition& c, const Wanted& wanted,
                                        const Means& means, size_t most) {
    if (!usable(survey, s)) return {};
    const std::vector<Target> targets = targetsOf(survey, c, wanted);
    const std::vector<int> points = pointsLookedAt(survey, s, targets);
    const std::vector<ReadingPair> pairs = feasible(survey, s, means, points);
    std::vector<RankedReading> ranked;
    if (s.status != Status::Solved) {
        ranked = byCount(survey, s, pairs);
        countFixed(ranked, survey, s);
    } else {
        const Ranker ranker(survey, s, targets, points);
        ranked.reserve(pairs.size());
        for (const ReadingPair& pair : pairs) ranked.push_back(ranker.rate(pair));
    }
    bestFirst(ranked, most);
    return ranked;
}

std::vector<RankedReading> planReadings(const Survey& survey, const Solution& s, const Condition& c, const Wanted& wanted,
                                        const Means& means, size_t count) {
    if (!usable(survey, s) || s.status != Status::Solved) return {};
    const std::vector<Target> targets = targetsOf(survey, c, wanted);
    const std::vector<int> points = pointsLookedAt(survey, s, targets);
    std::vector<ReadingPair> pairs = feasible(survey, s, means, points);
    Ranker ranker(survey, s, targets, points);
    std::vector<RankedReading> plan;
    while (plan.size() < count && !pairs.empty()) {
        size_t best = 0;
        RankedReading top;
        top.gain_mm2 = -1;
        for (size_t i = 0; i < pairs.size(); ++i)
            if (RankedReading r = ranker.rate(pairs[i]); gainsMore(r.gain_mm2, top.gain_mm2)) {
                top = std::move(r);
                best = i;
            }
        ranker.take(pairs[best]);
        plan.push_back(std::move(top));
        pairs.erase(pairs.begin() + static_cast<std::ptrdiff_t>(best));
    }
    return plan;
}

} // namespace gorvet::tape
