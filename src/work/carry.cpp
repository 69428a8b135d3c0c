#include "work/carry.hpp"

#include "dense/dense.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <Eigen/Core>
#include <fmt/format.h>

namespace gorvet::work {

namespace {

constexpr double near_edge_mm = 100;
constexpr double touching_mm = 1;

/// Twice the area of the triangle a, b, c seen from above, > 0 counterclockwise.
double turn(const Vec3& a, const Vec3& b, const Vec3& c) {
    return (b.x_mm - a.x_mm) * (c.y_mm - a.y_mm) - (b.y_mm - a.y_mm) * (c.x_mm - a.x_mm);
}

/// Corners of the points as seen from above, counterclockwise; two where all stand on one line.
std::vector<Vec3> hull(std::vector<Vec3> points) {
    std::sort(points.begin(), points.end(),
              [](const Vec3& a, const Vec3& b) { return a.x_mm != b.x_mm ? a.x_mm < b.x_mm : a.y_mm < b.y_mm; });
    std::vector<Vec3> chain;
    const auto half = [&](auto from, auto to) {
        const std::size_t base = chain.size();
        for (auto p = from; p != to; ++p) {
            while (chain.size() >= base + 2 && turn(chain[chain.size() - 2], chain.back(), *p) <= 0) chain.pop_back();
            chain.push_back(*p);
        }
        chain.pop_back();
    };
    half(points.begin(), points.end());
    half(points.rbegin(), points.rend());
    return chain;
}

/// How far a place lies inside of the edge from a to b, and the edge's normal.
struct Inside {
    double mm = 0;
    double nx = 0;
    double ny = 0;
};
Inside insideOf(const Vec3& a, const Vec3& b, const Vec3& c) {
    const double dx = b.x_mm - a.x_mm, dy = b.y_mm - a.y_mm, length = std::hypot(dx, dy);
    return {turn(a, b, c) / length, -dy / length, dx / length};
}

/// What the points carry of 1 kg at c when only these two or three do; nothing where they can't alone.
std::optional<std::array<double, 3>> shares(const std::vector<const CarryPoint*>& some, const Vec3& c) {
    constexpr double least = -1e-9;
    if (some.size() == 2) {
        const Vec3 &a = some[0]->at, &b = some[1]->at;
        const double dx = b.x_mm - a.x_mm, dy = b.y_mm - a.y_mm, length = std::hypot(dx, dy);
        if (length < touching_mm || std::abs(turn(a, b, c)) / length > touching_mm) return std::nullopt;
        const double along = ((c.x_mm - a.x_mm) * dx + (c.y_mm - a.y_mm) * dy) / (length * length);
        if (along < least || along > 1 - least) return std::nullopt;
        return std::array<double, 3>{1 - along, along, 0};
    }
    const Vec3 &p = some[0]->at, &q = some[1]->at, &r = some[2]->at;
    const double all = turn(p, q, r);
    if (std::abs(all) < 1) return std::nullopt;
    std::array<double, 3> share{turn(q, r, c) / all, turn(r, p, c) / all, turn(p, q, c) / all};
    for (double& s : share) {
        if (s < least) return std::nullopt;
        s = std::max(s, 0.0);
    }
    return share;
}

/// All points alike in stiffness under a rigid load; what would have to pull carries nothing.
std::vector<double> alike(const CarryInput& in) {
    std::vector<std::size_t> active(in.points.size());
    for (std::size_t k = 0; k < active.size(); ++k) active[k] = k;
    std::vector<double> load(in.points.size(), 0);
    while (!active.empty()) {
        Eigen::MatrixXd a(3, static_cast<Eigen::Index>(active.size()));
        for (Eigen::Index k = 0; k < a.cols(); ++k) {
            const Vec3& p = in.points[active[static_cast<std::size_t>(k)]].at;
            a.col(k) << 1, (p.x_mm - in.centre.x_mm) / 1000, (p.y_mm - in.centre.y_mm) / 1000;
        }
        const Eigen::VectorXd f = dense::leastNorm(a, Eigen::Vector3d(in.mass_kg, 0, 0));
        Eigen::Index worst = 0;
        const double least = f.minCoeff(&worst);
        if (least >= -1e-9 * in.mass_kg) {
            std::fill(load.begin(), load.end(), 0.0);
            for (Eigen::Index k = 0; k < f.size(); ++k) load[active[static_cast<std::size_t>(k)]] = std::max(0.0, f(k));
            break;
        }
        active.erase(active.begin() + worst);
    }
    return load;
}

class Carrying {
public:
    explicit Carrying(const CarryInput& in) : in_(in) {}

    CarryPlan plan() {
        if (in_.points.size() < 2 || in_.mass_kg <= 0) {
            p_.why_not = "Points that carry it and its mass are needed.";
            say(LiftVerdict::Fails, p_.why_not, "Three points that are not on one line, at the least.");
            return std::move(p_);
        }
        edges();
        if (p_.edge_mm < 0) {
            p_.why_not = fmt::format("The centre of gravity lies {:.0f} mm beyond its points: it tips.", -p_.edge_mm);
            say(LiftVerdict::Fails, p_.why_not, "A point on the far side of the centre of gravity.");
            p_.verdict = LiftVerdict::Fails;
            return std::move(p_);
        }
        p_.stands = true;
        loads();
        judge();
        return std::move(p_);
    }

private:
    void say(LiftVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({v, std::move(sentence), std::move(remedy)});
    }

    void edges() {
        std::vector<Vec3> points;
        for (const CarryPoint& p : in_.points) points.push_back(p.at);
        corners_ = hull(points);
        p_.edge_mm = 1e9;
        if (corners_.size() < 3) return line(points);
        for (std::size_t k = 0; k < corners_.size(); ++k) {
            const Inside i = insideOf(corners_[k], corners_[(k + 1) % corners_.size()], in_.centre);
            take(i.mm, i.nx, i.ny);
        }
    }
    /// All stand on one line: what hangs swings under it, along it the ends count.
    void line(const std::vector<Vec3>& points) {
        const auto [first, last] = std::minmax_element(points.begin(), points.end(), [](const Vec3& a, const Vec3& b) {
            return a.x_mm != b.x_mm ? a.x_mm < b.x_mm : a.y_mm < b.y_mm;
        });
        const double dx = last->x_mm - first->x_mm, dy = last->y_mm - first->y_mm, length = std::hypot(dx, dy);
        if (length < touching_mm) return take(-touching_mm, 1, 0);
        const double along = ((in_.centre.x_mm - first->x_mm) * dx + (in_.centre.y_mm - first->y_mm) * dy) / length;
        take(std::min(along, length - along), dx / length, dy / length);
        if (!in_.hangs) on_a_line_ = true;
    }
    void take(double mm, double nx, double ny) {
        if (mm >= p_.edge_mm) return;
        p_.edge_mm = mm;
        p_.edge_u95_mm = std::hypot(nx * in_.centre_u95.x_mm, ny * in_.centre_u95.y_mm);
    }

    void loads() {
        const std::vector<double> even = alike(in_);
        std::vector<double> most(in_.points.size(), 0);
        const double heavy = in_.mass_kg + in_.mass_u95_kg;
        // what one carries at the most is a concave function of where the centre is: its peak may lie anywhere within the ±
        constexpr int places = 4;
        for (int i = -places; i <= places; ++i)
            for (int j = -places; j <= places; ++j) {
                Vec3 c = in_.centre;
                c.x_mm += in_.centre_u95.x_mm * i / places;
                c.y_mm += in_.centre_u95.y_mm * j / places;
                worst(corners_.size() < 3 ? onLine(c) : c, heavy, most);
            }
        for (std::size_t k = 0; k < in_.points.size(); ++k)
            p_.loads.push_back({in_.points[k].name, even[k], std::max(most[k], even[k]), even[k] <= 1e-9 * in_.mass_kg});
    }
    /// Where a centre comes to hang under points that stand on one line.
    Vec3 onLine(const Vec3& c) const {
        const Vec3 &a = corners_.front(), &b = corners_.back();
        const double dx = b.x_mm - a.x_mm, dy = b.y_mm - a.y_mm;
        const double along = ((c.x_mm - a.x_mm) * dx + (c.y_mm - a.y_mm) * dy) / (dx * dx + dy * dy);
        return {a.x_mm + along * dx, a.y_mm + along * dy, c.z_mm};
    }
    void worst(const Vec3& c, double heavy, std::vector<double>& most) const {
        const std::size_t n = in_.points.size();
        const auto look = [&](std::vector<std::size_t> some) {
            std::vector<const CarryPoint*> points;
            for (const std::size_t k : some) points.push_back(&in_.points[k]);
            if (const auto share = shares(points, c))
                for (std::size_t k = 0; k < some.size(); ++k) most[some[k]] = std::max(most[some[k]], (*share)[k] * heavy);
        };
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t j = i + 1; j < n; ++j) {
                look({i, j});
                for (std::size_t k = j + 1; k < n; ++k) look({i, j, k});
            }
    }

    void judge() {
        if (on_a_line_)
            say(LiftVerdict::Fails, "All its points stand on one line: it tips over that.", "A third point beside the line.");
        if (p_.edge_mm - p_.edge_u95_mm < 0)
            say(LiftVerdict::Fails,
                fmt::format("The centre of gravity is {:.0f} ± {:.0f} mm inside of its points: it may tip.", p_.edge_mm,
                            p_.edge_u95_mm),
                "Points farther apart, or the centre of gravity from corner weights.");
        else if (p_.edge_mm - p_.edge_u95_mm < near_edge_mm)
            say(LiftVerdict::Marginal,
                fmt::format("The centre of gravity is {:.0f} ± {:.0f} mm inside of its points.", p_.edge_mm, p_.edge_u95_mm),
                "Points farther apart; nobody leans on it.");
        if (in_.hangs &&
            std::all_of(in_.points.begin(), in_.points.end(), [&](const CarryPoint& p) { return p.at.z_mm <= in_.centre.z_mm; }))
            say(LiftVerdict::Fails, "It hangs by points below its centre of gravity: it turns over.", "Higher points.");
        for (std::size_t k = 0; k < p_.loads.size(); ++k) {
            const CarryPoint& point = in_.points[k];
            if (point.rated_kg <= 0)
                say(LiftVerdict::Marginal, fmt::format("What {} may carry is not said.", point.name), "Read its plate.");
            else if (p_.loads[k].most_kg > point.rated_kg)
                say(LiftVerdict::Fails,
                    fmt::format("{} may have to carry {:.0f} kg, and is rated for {:.0f}.", point.name, p_.loads[k].most_kg,
                                point.rated_kg),
                    "Something stronger: of four points two may carry all.");
            if (!point.sound)
                say(LiftVerdict::Marginal, fmt::format("{} was not looked at.", point.name),
                    "Look for cracks, rust, bends, and the metal that it bears on.");
        }
        if (in_.mass_u95_kg <= 0)
            say(LiftVerdict::Marginal, "The mass is not weighed: no ± is said.", "Weigh it, or take more than it can be.");
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const LiftRemark& a, const LiftRemark& b) { return a.verdict > b.verdict; });
        p_.verdict = p_.remarks.empty() ? LiftVerdict::Holds : p_.remarks.front().verdict;
    }

    const CarryInput& in_;
    CarryPlan p_;
    std::vector<Vec3> corners_;
    bool on_a_line_ = false;
};

} // namespace

CarryPlan carry(const CarryInput& in) { return Carrying(in).plan(); }

} // namespace gorvet::work
