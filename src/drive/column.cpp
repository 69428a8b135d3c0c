#include "drive/column.hpp"

#include "drive/apart.hpp"
#include "drive/degree.hpp"
#include "units/text.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::judge;
using build::Limit;
using build::Provenance;
using build::Remark;

NearestPlaces nearestOf(const Vec3& a0, const Vec3& a1, const Vec3& b0, const Vec3& b1) {
    using namespace geometry;
    const Vec3 u = minus(a1, a0), v = minus(b1, b0), w = minus(a0, b0);
    const double uu = dot(u, u), uv = dot(u, v), vv = dot(v, v), uw = dot(u, w), v_w = dot(v, w);
    const auto held = [](double s) { return std::clamp(s, 0.0, 1.0); };
    const auto at = [&](double a, double b) {
        return NearestPlaces{a, b, geometry::between(plus(a0, times(u, a)), plus(b0, times(v, b)))};
    };
    const auto alongB = [&](double a) { return vv > 0 ? held((v_w + a * uv) / vv) : 0; };
    const auto alongA = [&](double b) { return uu > 0 ? held((b * uv - uw) / uu) : 0; };
    // ends against the other stretch, and both insides
    std::vector<NearestPlaces> tried{at(0, alongB(0)), at(1, alongB(1)), at(alongA(0), 0), at(alongA(1), 1)};
    if (const double square = uu * vv - uv * uv; square > 1e-9 * uu * vv) {
        const double a = (uv * v_w - vv * uw) / square, b = (uu * v_w - uv * uw) / square;
        if (a > 0 && a < 1 && b > 0 && b < 1) tried.push_back(at(a, b));
    }
    return *std::min_element(tried.begin(), tried.end(),
                             [](const NearestPlaces& x, const NearestPlaces& y) { return x.distance_mm < y.distance_mm; });
}

namespace {

constexpr double passage_clear_mm = 10, off_line_mm = 3;
/// A joint is about twice as wide as its shaft where it turns.
constexpr double joint_share = 2;
constexpr double half_a_turn = std::numbers::pi;
/// 95 % of places with σ 1 in each of two directions lie within.
constexpr double plane_u95 = 2.4477;

/// A fork is the same again after half a turn.
double halfTurn(double angle) {
    angle = std::remainder(angle, half_a_turn);
    return angle <= -half_a_turn / 2 + 1e-12 ? angle + half_a_turn : angle;
}

/// The size of what has a direction, with its ±: along the direction that it has; where it could be to either side, that of a
/// place in two directions. A size has no slope at nothing: its ± is taken from its parts.
Figure sizeOf(const build::Places& places, const std::vector<std::size_t>& of,
              const std::function<Vec3(const std::vector<Vec3>&)>& vector) {
    const Vec3 v = vector(places.at);
    const auto along = [&](const Vec3& way) {
        return build::figureOf(places, of, [&](const auto& at) { return geometry::dot(vector(at), way); });
    };
    Figure f;
    f.value = geometry::length(v);
    if (f.value > 0) f.u95 = along(geometry::times(v, 1 / f.value)).u95;
    double most = 0;
    for (const Vec3& axis : {Vec3{1, 0, 0}, Vec3{0, 1, 0}, Vec3{0, 0, 1}}) most = std::max(most, along(axis).u95);
    if (f.value < most) f.u95 = most * plane_u95 / build::u95Of(1);
    return f;
}

class ColumnMaker {
public:
    explicit ColumnMaker(const ColumnIn& in) : in_(in) { p_.name = in.name; }

    ColumnPlan plan() {
        if (!in_.missing.empty() || in_.points.size() < 3) {
            p_.verdict = PlanVerdict::Marginal;
            return std::move(p_);
        }
        const std::vector<Vec3>& at = in_.places.at;
        for (std::size_t k = 1; k + 1 < in_.points.size(); ++k)
            p_.joints.push_back({in_.places.names[in_.points[k]],
                                 sizeOf(in_.places, {in_.points[k - 1], in_.points[k], in_.points[k + 1]}, [&](const auto& p) {
                                     const Vec3 in = way(p, k - 1), out = way(p, k);
                                     return geometry::times(geometry::unit(geometry::cross(in, out)), angleBetween(in, out));
                                 })});
        for (std::size_t k = 0; k + 1 < in_.points.size(); ++k) {
            ColumnShaft s;
            s.from = in_.places.names[in_.points[k]];
            s.to = in_.places.names[in_.points[k + 1]];
            s.length_mm = build::figureOf(in_.places, {in_.points[k], in_.points[k + 1]}, [&](const auto& p) {
                return geometry::between(p[in_.points[k]], p[in_.points[k + 1]]);
            });
            s.between_joints = k > 0 && k + 2 < in_.points.size();
            p_.shafts.push_back(std::move(s));
        }
        forks(at);
        held();
        for (const RunIn& run : in_.runs) beside(run);
        passes();
        judged();
        return std::move(p_);
    }

private:
    Vec3 way(const std::vector<Vec3>& at, std::size_t k) const {
        return geometry::unit(geometry::minus(at[in_.points[k + 1]], at[in_.points[k]]));
    }
    std::vector<ChainJoint> chain(const std::vector<Vec3>& at, const std::vector<double>& phases) const {
        std::vector<ChainJoint> all;
        for (std::size_t k = 0; k + 2 < in_.points.size(); ++k)
            all.push_back({way(at, k), way(at, k + 1), false, k == 0 ? 0 : phases[k - 1]});
        return all;
    }

    // ---- how the forks stand

    void forks(const std::vector<Vec3>& at) {
        std::vector<double> phases(p_.joints.size() - 1, 0);
        if (in_.phases_known) phases = in_.phases_rad;
        // looked for on a coarse turn, said by a fine one
        const auto stray = [&](const std::vector<double>& by) { return exactRatio(chain(at, by), 45).stray(); };
        p_.stray = build::figureOf(in_.places, distinct(in_.points),
                                   [&](const auto& moved) { return exactRatio(chain(moved, phases)).stray(); });
        if (!in_.phases_known && !phases.empty()) p_.stray.provenance = Provenance::Assumed;
        const std::vector<double> best = bestPhases(phases, stray);
        p_.best_stray = exactRatio(chain(at, best)).stray();
        std::size_t k = 0;
        for (ColumnShaft& s : p_.shafts)
            if (s.between_joints) {
                s.phase_rad = phases[k];
                s.best_rad = best[k++];
            }
        p_.turning = exactRatios(chain(at, phases), 72);
        p_.turning.push_back(p_.turning.front());
    }
    /// Every 15° of each shaft at once as far as they are three at most, then each by itself, ever finer.
    template <class Stray> std::vector<double> bestPhases(std::vector<double> phases, const Stray& stray) {
        if (phases.empty()) return phases;
        constexpr int parts = 12;
        std::vector<double> best(phases.size(), 0), tried = best;
        double least = stray(best);
        std::size_t count = 1;
        const std::size_t together = std::min<std::size_t>(phases.size(), 3);
        for (std::size_t k = 0; k < together; ++k) count *= parts;
        for (std::size_t n = 0; n < count; ++n) {
            std::size_t rest = n;
            for (std::size_t k = 0; k < together; ++k, rest /= parts)
                tried[k] = halfTurn(half_a_turn * static_cast<double>(rest % parts) / parts);
            if (const double s = stray(tried); s < least - 1e-12) {
                least = s;
                best = tried;
            }
        }
        for (double step = half_a_turn / parts / 2; step > 0.0005; step /= 2)
            for (bool better = true; better;) {
                better = false;
                for (std::size_t k = 0; k < best.size(); ++k)
                    for (const double by : {-step, step}) {
                        tried = best;
                        tried[k] = halfTurn(tried[k] + by);
                        if (const double s = stray(tried); s < least - 1e-12) {
                            least = s;
                            best = tried;
                            better = true;
                        }
                    }
            }
        p_.searched =
            fmt::format("Forks were tried every 15° on {}, then finer beside the best.",
                        phases.size() == 1 ? "the shaft between the joints" : "all shafts between joints at once, three at most");
        return best;
    }

    // ---- what holds them

    /// Each bearing to the shaft that it is nearest to.
    void held() {
        for (const std::size_t b : in_.bearings) {
            std::size_t nearest = 0;
            double least = 1e18;
            const auto off = [&](const std::vector<Vec3>& at, std::size_t k) {
                return nearestOf(at[in_.points[k]], at[in_.points[k + 1]], at[b], at[b]).distance_mm;
            };
            for (std::size_t k = 0; k < p_.shafts.size(); ++k)
                if (const double d = off(in_.places.at, k); d < least) {
                    least = d;
                    nearest = k;
                }
            ++p_.shafts[nearest].bearings;
            const Figure f = sizeOf(in_.places, {in_.points[nearest], in_.points[nearest + 1], b}, [&](const auto& at) {
                const Vec3 &from = at[in_.points[nearest]], &to = at[in_.points[nearest + 1]];
                const NearestPlaces n = nearestOf(from, to, at[b], at[b]);
                return geometry::minus(at[b], geometry::along(from, to, n.a));
            });
            const std::string& name = in_.places.names[b];
            if (const auto v = judge(f, Limit::atMost(off_line_mm)); v != PlanVerdict::Holds)
                add("column-bearing", v,
                    fmt::format(
                        "The bearing {} stands {:.1f} ± {:.1f} mm beside the line from {} to {}: the shaft is bent through it.",
                        name, f.value, f.u95, p_.shafts[nearest].from, p_.shafts[nearest].to),
                    "Shim or move the bearing until the shaft turns freely in it with its joint undone.")
                    .of(fmt::format("{:.1f} mm", f.value), fmt::format("≤ {:.0f} mm", off_line_mm));
        }
        if (p_.joints.size() < 3) return;
        std::size_t borne = 0, wanted = p_.joints.size() - 2;
        for (const ColumnShaft& s : p_.shafts) borne += s.between_joints && s.bearings > 0;
        if (borne < wanted)
            add("column-loose", PlanVerdict::Fails,
                fmt::format("{} in a row with {} on the shafts between them: the line buckles when the wheel is turned.",
                            units::counted(p_.joints.size(), "joint"), units::counted(borne, "bearing")),
                "Of every joint more than two a bearing holds the shaft beside it: mark it, and say it: column … bearings ….")
                .of(units::counted(borne, "bearing"), fmt::format("≥ {}", wanted));
    }

    // ---- what stands beside

    void beside(const RunIn& run) {
        NearRun n;
        n.name = run.name;
        n.kind = run.kind;
        n.least_mm = run.kind == build::CrossingKind::Exhaust ? column_exhaust_mm : column_other_mm;
        n.clear_mm.value = 1e18;
        const auto take = [&](const std::vector<std::size_t>& of, double half, std::string words) {
            const Apart apart = apartOf(in_.places, of, run.points, half + run.across_mm / 2);
            if (apart.clear_mm.value >= n.clear_mm.value) return;
            n.clear_mm = apart.clear_mm;
            n.at = apart.at;
            n.run_at = apart.other_at;
            n.beside = std::move(words);
        };
        for (std::size_t k = 0; k < p_.shafts.size(); ++k)
            take({in_.points[k], in_.points[k + 1]}, in_.across_mm / 2,
                 fmt::format("between {} and {}", p_.shafts[k].from, p_.shafts[k].to));
        for (std::size_t k = 0; k < p_.joints.size(); ++k)
            take({in_.points[k + 1]}, in_.across_mm / 2 * joint_share, fmt::format("the joint {}", p_.joints[k].name));
        n.clear_mm.provenance = run.assumed || !in_.across_known ? Provenance::Assumed : Provenance::Derived;
        const std::string where = run.kind == build::CrossingKind::Exhaust ? "the exhaust" : std::string(word(run.kind));
        if (const auto v = judge(n.clear_mm, Limit::atLeast(n.least_mm)); v != PlanVerdict::Holds)
            add("column-near", v,
                n.clear_mm.value < 0 ? fmt::format("The column runs through {} ({}), {}: {:.0f} ± {:.0f} mm in.", where, run.name,
                                                   n.beside, -n.clear_mm.value, n.clear_mm.u95)
                                     : fmt::format("The column is {:.0f} ± {:.0f} mm from {} ({}), {}.", n.clear_mm.value,
                                                   n.clear_mm.u95, where, run.name, n.beside),
                run.kind == build::CrossingKind::Exhaust
                    ? "Lead the pipe or the column another way; a shield is no room: a pipe grows when it is hot."
                    : "Lead it another way, and clip it where it can't sag into the joint.")
                .of(fmt::format("{:.0f} mm", n.clear_mm.value), fmt::format("≥ {:.0f} mm", n.least_mm));
        p_.near.push_back(std::move(n));
    }

    void passes() {
        if (in_.bulkhead.size() != 3) return;
        const auto met = [&](const std::vector<Vec3>& at, std::size_t k) -> std::optional<double> {
            const Vec3 o = at[in_.bulkhead[0]], n = normal(at);
            const double from = geometry::dot(geometry::minus(at[in_.points[k]], o), n),
                         to = geometry::dot(geometry::minus(at[in_.points[k + 1]], o), n);
            if (from == to) return std::nullopt;
            return from / (from - to);
        };
        const std::vector<Vec3>& at = in_.places.at;
        if (geometry::length(normal(at)) < 0.5) return;
        for (std::size_t k = 0; k < p_.shafts.size(); ++k) {
            const auto share = met(at, k);
            if (!share || *share < 0 || *share > 1) continue;
            Passage g;
            g.shaft = k;
            g.at = geometry::along(at[in_.points[k]], at[in_.points[k + 1]], *share);
            g.slant_rad = std::acos(std::min(1.0, std::abs(geometry::dot(way(at, k), normal(at)))));
            g.wide_mm = in_.across_mm + 2 * passage_clear_mm;
            g.long_mm = in_.across_mm / std::max(0.2, std::cos(g.slant_rad)) + 2 * passage_clear_mm;
            for (const std::size_t mark : in_.bulkhead) g.from_marks_mm.push_back(geometry::between(g.at, at[mark]));
            for (const std::size_t mark : in_.bulkhead) {
                const Figure f = build::figureOf(
                    in_.places, distinct({in_.points[k], in_.points[k + 1], in_.bulkhead[0], in_.bulkhead[1], in_.bulkhead[2]}),
                    [&](const auto& p) {
                        return geometry::between(
                            geometry::along(p[in_.points[k]], p[in_.points[k + 1]], met(p, k).value_or(*share)), p[mark]);
                    });
                g.out_mm.u95 = std::max(g.out_mm.u95, f.u95);
            }
            p_.passage = std::move(g);
            break;
        }
        if (!p_.passage) {
            add("column-passage", PlanVerdict::Marginal, "The column does not pass the bulkhead that was marked.",
                "Look at its three places, and at the order of the column's points: the hand wheel comes first.");
            return;
        }
        for (std::size_t k = 0; k < p_.joints.size(); ++k) {
            const std::size_t j = in_.points[k + 1];
            const Figure f =
                build::figureOf(in_.places, distinct({j, in_.bulkhead[0], in_.bulkhead[1], in_.bulkhead[2]}), [&](const auto& p) {
                    return std::abs(geometry::dot(geometry::minus(p[j], p[in_.bulkhead[0]]), normal(p))) -
                           in_.across_mm / 2 * joint_share;
                });
            if (const auto v = judge(f, Limit::atLeast(column_other_mm)); v != PlanVerdict::Holds && f.value < 60)
                add("column-sheet", v,
                    fmt::format("The joint {} turns {:.0f} ± {:.0f} mm from the bulkhead.", p_.joints[k].name, f.value, f.u95),
                    "Move the joint along its shaft: it must neither touch the sheet nor hide in its hole.")
                    .of(fmt::format("{:.0f} mm", f.value), fmt::format("≥ {:.0f} mm", column_other_mm));
        }
    }
    Vec3 normal(const std::vector<Vec3>& at) const {
        const Vec3 o = at[in_.bulkhead[0]];
        return geometry::unit(geometry::cross(geometry::minus(at[in_.bulkhead[1]], o), geometry::minus(at[in_.bulkhead[2]], o)));
    }

    // ---- verdicts

    Remark& add(const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    void judged() {
        const Limit most{-1e9, in_.limit_rad, in_.limit_known ? Provenance::Measured : Provenance::Assumed};
        for (const ColumnJoint& j : p_.joints)
            if (const auto v = judge(j.angle_rad, most);
                v == PlanVerdict::Fails || j.angle_rad.value + j.angle_rad.u95 > in_.limit_rad)
                add("column-angle", v,
                    fmt::format("The joint {} bends by {:.1f}° ± {:.1f}°, and {:.0f}° is the most{}.", j.name,
                                j.angle_rad.value / one_degree, j.angle_rad.u95 / one_degree, in_.limit_rad / one_degree,
                                in_.limit_known ? "" : " that such joints usually do"),
                    "Another joint and a bearing share the bend; or lead the column another way.")
                    .of(fmt::format("{:.1f}°", j.angle_rad.value / one_degree),
                        fmt::format("≤ {:.0f}°", in_.limit_rad / one_degree));
        stray();
        if (p_.shafts.front().bearings == 0)
            add("column-held", PlanVerdict::Marginal,
                fmt::format("Nobody said what holds the hand wheel's own shaft, from {} to {}.", p_.shafts.front().from,
                            p_.shafts.front().to),
                "Mark its bearing, the lower one where there are two, and say it: column … bearings ….");
        if (!in_.gives_mm)
            add("column-stiff", PlanVerdict::Marginal,
                "Nobody said what of the column goes together when a crash pushes the gear back: a stiff line ends at the driver.",
                "A column or shaft that goes together, chosen and fitted by those who are licensed for it: column … gives 80.");
        else if (in_.between_body_and_frame && *in_.gives_mm < column_other_mm)
            add("column-slip", PlanVerdict::Fails,
                fmt::format("The body moves on its mounts, the hand wheel with it, and the column gives {:.0f} mm.",
                            *in_.gives_mm),
                "A shaft with a slip joint between body and frame.")
                .of(fmt::format("{:.0f} mm", *in_.gives_mm), fmt::format("≥ {:.0f} mm", column_other_mm));
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const Remark& a, const Remark& b) { return a.verdict > b.verdict; });
        for (const Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        const bool open =
            !in_.limit_known || !in_.across_known || (!in_.phases_known && p_.joints.size() > 1) || in_.runs.empty();
        if (!in_.assumed.empty() || open) p_.verdict = std::max(p_.verdict, PlanVerdict::Marginal);
    }
    void stray() {
        const bool heavy = p_.stray.value - p_.stray.u95 > 2 * most_stray;
        auto v = judge(p_.stray, Limit::atMost(most_stray));
        if (v == PlanVerdict::Fails && !heavy) v = PlanVerdict::Marginal;
        if (p_.stray.value + p_.stray.u95 <= most_stray) return;
        std::string turn;
        for (const ColumnShaft& s : p_.shafts) {
            if (!s.between_joints) continue;
            const double by = halfTurn(s.best_rad - s.phase_rad);
            if (std::abs(by) < 2 * one_degree) continue;
            turn += fmt::format("{}the lower fork from {} to {} turned by {:.0f}° {}", turn.empty() ? "" : ", ", s.from, s.to,
                                std::abs(by) / one_degree,
                                by > 0 ? "clockwise, seen from the hand wheel" : "against the clock, seen from the hand wheel");
        }
        const bool helps = p_.best_stray < 0.7 * p_.stray.value && !turn.empty();
        add("column-uneven", v,
            fmt::format(
                "The wheel goes light and heavy: at the gear it turns up to {:.0f} ± {:.0f} % faster or slower than at the hand{}.",
                100 * p_.stray.value, 100 * p_.stray.u95,
                p_.stray.provenance == Provenance::Assumed ? ", its forks taken in phase" : ""),
            helps ? fmt::format("With {} it would be {:.0f} %. The splines set how near one comes.", turn, 100 * p_.best_stray)
                  : std::string("Smaller angles at its joints: no way of turning the forks does better."))
            .of(fmt::format("{:.0f} %", 100 * p_.stray.value), fmt::format("≤ {:.0f} %", 100 * most_stray));
    }

    const ColumnIn& in_;
    ColumnPlan p_;
};

} // namespace

ColumnPlan columnPlan(const ColumnIn& in) { return ColumnMaker(in).plan(); }

} // namespace gorvet::drive
