#include "stretch/parts.hpp"
#include "stretch/sheet_plugs.hpp"
#include "stretch/width.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::Figure;
using build::PlanVerdict;
using build::Remark;
using build::Vec3;

constexpr double edge_steel_kg_mm3 = 7.85e-6;
constexpr double bend_k = 0.40;   ///< neutral line of a bend with the wall as inside radius: engineering.md, Make
constexpr double sill_gap_mm = 2; ///< between an outrigger's end and the sill: root of its weld

std::string edgeMm(double v, int decimals = 0) { return units::fixed(v, decimals) + " mm"; }

/// What a flange of that height takes of a flat sheet: the bend's length less what the outside counts twice.
double flangeBlank(double flange, double t) {
    if (flange <= 0) return 0;
    const double inside = t, bend = units::pi / 2 * (inside + bend_k * t);
    return flange - 2 * (inside + t) + bend;
}

class Edge {
public:
    explicit Edge(const EdgeInput& in) : in_(in) {
        for (std::size_t k = 0; k < in.edge_at.size(); ++k) order_.push_back(k);
        for (std::size_t k = 0; k < in.sill_at.size(); ++k) sills_.push_back(k);
    }

    EdgePlan made() {
        p_.missing = in_.missing;
        p_.may_mpa = in_.yield_mpa / 1.5;
        if (p_.missing.empty()) ask();
        if (!p_.missing.empty()) return std::move(p_);
        stations();
        strip();
        outriggers();
        bearing();
        settle(p_, !in_.assumed.empty());
        return std::move(p_);
    }

private:
    Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    // ---- both lines

    Vec3 edgeNow(std::size_t k) const { return in_.chassis.at[in_.edge_at[k]]; }
    const build::Places& sillPlaces() const { return in_.sill_of_body ? in_.body : in_.chassis; }
    /// Places from the middle outwards, as planned.
    Vec3 edgeAt(const Vec3& now, double out) const {
        Vec3 p = in_.planned.map(now);
        p.y_mm = std::abs(p.y_mm) + out;
        return p;
    }
    Vec3 sillAt(const Vec3& now) const {
        Vec3 p = in_.sill_of_body ? now : in_.planned.lengthwise().map(now);
        p.y_mm = std::abs(p.y_mm);
        return p;
    }

    void ask() {
        const auto wants = [&](bool so, const char* what) {
            if (!so) p_.missing.emplace_back(what);
        };
        wants(order_.size() > 1 && sills_.size() > 1, "two points of the edge and two of the sill");
        if (!p_.missing.empty()) return;
        p_.left = edgeNow(0).y_mm < 0;
        const auto ahead = [&](const Vec3& a, const Vec3& b) { return a.x_mm < b.x_mm; };
        std::sort(order_.begin(), order_.end(),
                  [&](std::size_t a, std::size_t b) { return ahead(edgeAt(edgeNow(a), 0), edgeAt(edgeNow(b), 0)); });
        std::sort(sills_.begin(), sills_.end(), [&](std::size_t a, std::size_t b) {
            return ahead(sillPlaces().at[in_.sill_at[a]], sillPlaces().at[in_.sill_at[b]]);
        });
        bool one_side = true;
        for (const std::size_t k : order_) one_side = one_side && (edgeNow(k).y_mm < 0) == p_.left;
        for (const std::size_t k : sills_) one_side = one_side && (sillPlaces().at[in_.sill_at[k]].y_mm < 0) == p_.left;
        wants(one_side, "an edge and a sill on one side of the car");
        constexpr double apart = 1;
        for (std::size_t k = 1; k < order_.size(); ++k)
            wants(x(true, k) - x(true, k - 1) > apart, "points of the edge one behind the other");
        for (std::size_t k = 1; k < sills_.size(); ++k)
            wants(x(false, k) - x(false, k - 1) > apart, "points of the sill one behind the other");
        if (!p_.missing.empty()) return;
        from_ = std::max(x(true, 0), x(false, 0));
        until_ = std::min(x(true, order_.size() - 1), x(false, sills_.size() - 1));
        constexpr double least_long = 50;
        wants(until_ - from_ >= least_long, "an edge and a sill that run beside each other");
    }
    /// Station of a point of either line, in order.
    double x(bool edge, std::size_t k) const {
        return edge ? edgeAt(edgeNow(order_[k]), 0).x_mm : sillAt(sillPlaces().at[in_.sill_at[sills_[k]]]).x_mm;
    }
    /// The two points of a line between which a station lies.
    std::size_t before(bool edge, double station) const {
        const std::size_t n = edge ? order_.size() : sills_.size();
        std::size_t k = 0;
        while (k + 2 < n && x(edge, k + 1) <= station) ++k;
        return k;
    }

    struct Across {
        Figure width, rise, edge;
    };
    /// Edge and sill at a station: each line between its two points there. Both surveys' ±, which do not depend on each other:
    /// the body is built in at its pose, not fitted again.
    Across across(double station) const {
        const std::size_t e = before(true, station), s = before(false, station);
        const auto line = [station](const Vec3& a, const Vec3& b) {
            return geometry::along(a, b, (station - a.x_mm) / (b.x_mm - a.x_mm));
        };
        const std::array<std::size_t, 2> from{in_.edge_at[order_[e]], in_.edge_at[order_[e + 1]]};
        const std::array<std::size_t, 2> to{in_.sill_at[sills_[s]], in_.sill_at[sills_[s + 1]]};
        const auto edge = [&](const std::vector<Vec3>& at) {
            return line(edgeAt(at[from[0]], in_.edge_out_mm[order_[e]]), edgeAt(at[from[1]], in_.edge_out_mm[order_[e + 1]]));
        };
        const auto sill = [&](const std::vector<Vec3>& at) { return line(sillAt(at[to[0]]), sillAt(at[to[1]])); };
        const auto both = [&](std::size_t axis) -> Figure {
            if (!in_.sill_of_body)
                return figureOf(in_.chassis, distinct({from[0], from[1], to[0], to[1]}),
                                [&](const std::vector<Vec3>& at) { return sill(at)[axis] - edge(at)[axis]; });
            const Figure out = figureOf(in_.body, {to[0], to[1]}, [&](const std::vector<Vec3>& at) { return sill(at)[axis]; });
            const Figure in =
                figureOf(in_.chassis, {from[0], from[1]}, [&](const std::vector<Vec3>& at) { return edge(at)[axis]; });
            return {out.value - in.value, std::hypot(out.u95, in.u95), build::Provenance::Derived};
        };
        Across a{both(1), both(2), {edge(in_.chassis.at).y_mm, 0, build::Provenance::Derived}};
        if (in_.loose)
            for (Figure* f : {&a.width, &a.rise}) f->provenance = build::Provenance::Assumed;
        return a;
    }
    static std::vector<std::size_t> distinct(std::vector<std::size_t> of) {
        std::sort(of.begin(), of.end());
        of.erase(std::unique(of.begin(), of.end()), of.end());
        return of;
    }

    // ---- what is made

    void stations() {
        std::vector<std::pair<double, std::string>> at;
        for (std::size_t k = 0; k < order_.size(); ++k) at.emplace_back(x(true, k), in_.chassis.names[in_.edge_at[order_[k]]]);
        for (std::size_t k = 0; k < sills_.size(); ++k) at.emplace_back(x(false, k), sillPlaces().names[in_.sill_at[sills_[k]]]);
        std::sort(at.begin(), at.end());
        constexpr double same = 5;
        for (const auto& [station, name] : at) {
            if (station < from_ - same || station > until_ + same) continue;
            if (!p_.stations.empty() && station - p_.stations.back().station_mm < same) {
                p_.stations.back().at += " and " + name;
                continue;
            }
            const double where = std::clamp(station, from_, until_);
            const Across a = across(where);
            p_.stations.push_back({where, name, a.width, a.rise, a.edge.value});
        }
        for (const EdgeStation& s : p_.stations) {
            if (s.width.value + s.width.u95 < 0)
                add("edge-beyond", PlanVerdict::Fails,
                    fmt::format("At {} the floor stands {} beyond the sill.", s.at, edgeMm(-s.width.value, 1)),
                    "Trim it there by that, or make the whole chassis narrower: narrow by … at ….")
                    .of(edgeMm(s.width.value, 1), "0 mm");
            if (s.width.u95 > edge_unsure)
                add("edge-unsure", PlanVerdict::Marginal,
                    fmt::format("How far it is to the sill at {} is known to ± {} only.", s.at, edgeMm(s.width.u95, 1)),
                    "Tape more to that mark, or offer a card up before the strip is cut.")
                    .of("± " + edgeMm(s.width.u95, 1), "± " + edgeMm(edge_unsure));
        }
    }

    double widest() const {
        double most = 0;
        for (const EdgeStation& s : p_.stations) most = std::max(most, s.width.value);
        return most;
    }

    /// Flat: along the edge as it runs, outwards with the slope taken in.
    void strip() {
        if (widest() <= 0) return;
        const double t = in_.edge.sheet.value, lap = in_.edge.lap.value;
        const double flange = flangeBlank(in_.edge.upstand.value, t);
        double along = 0, area = 0, tilt = 0;
        std::vector<std::pair<double, double>> outer;
        for (std::size_t k = 0; k < p_.stations.size(); ++k) {
            const EdgeStation& s = p_.stations[k];
            const double width = std::max(0.0, s.width.value);
            if (k) along += std::hypot(s.station_mm - p_.stations[k - 1].station_mm, s.edge_mm - p_.stations[k - 1].edge_mm);
            const double out = lap + std::hypot(width, s.rise.value);
            if (k) area += (along - p_.outline.back().first) * (out + flange + outer.back().second) / 2;
            p_.outline.emplace_back(along, 0);
            outer.emplace_back(along, out + flange);
            p_.bend.emplace_back(along, out);
            if (width > 0) tilt = std::max(tilt, std::abs(std::atan2(s.rise.value, width)));
        }
        p_.outline.insert(p_.outline.end(), outer.rbegin(), outer.rend());
        p_.strip_kg = area * t * edge_steel_kg_mm3;
        const double degrees = units::degrees(tilt);
        if (degrees > edge_tilt_deg)
            add("edge-tilt", PlanVerdict::Marginal,
                fmt::format("From the floor to the sill the strip rises or falls by {:.0f}°.", degrees),
                "Step it: a joggle at the old edge, then level; or lower the sill's flange.")
                .of(fmt::format("{:.0f}°", degrees), fmt::format("{:.0f}°", edge_tilt_deg));
        const SheetPlugs g = sheetPlugs(t, lap, along, 0);
        p_.plug_mm = lap > 0 ? g.hole_mm : 0;
        p_.pitch_mm = lap > 0 ? g.pitch_mm : 0;
        p_.plugs = lap > 0 ? std::max(0, 1 + static_cast<int>(std::floor((along - 4 * g.hole_mm) / g.pitch_mm + 1e-9))) : 0;
        if (lap < narrow_lap_least && t < sheet_thin_mm)
            add("edge-lap", PlanVerdict::Marginal, fmt::format("The strip lies only {} on the old floor.", edgeMm(lap)),
                fmt::format("A lap of {}: floor-edge {} lap {}.", edgeMm(narrow_lap), in_.edge.name, units::fixed(narrow_lap, 0)))
                .of(edgeMm(lap), edgeMm(narrow_lap_least));
        if (!in_.edge.pitch && widest() > edge_wide)
            add("edge-wide", PlanVerdict::Marginal,
                fmt::format("A strip {} wide with nothing under it carries nobody who steps in.", edgeMm(widest())),
                fmt::format("Outriggers: floor-edge {} outriggers 50 30 2 pitch 400.", in_.edge.name))
                .of(edgeMm(widest()), edgeMm(edge_wide));
    }

    /// Where outriggers stand: where a member runs out to the edge, and between where that is further than the pitch; along a
    /// rail anywhere.
    std::vector<std::pair<double, bool>> outriggerPlaces() const {
        const double pitch = in_.edge.pitch->value;
        std::vector<double> at;
        if (!in_.rail)
            for (const double station : in_.backed_mm)
                if (station >= from_ - edge_backed && station <= until_ + edge_backed)
                    at.push_back(std::clamp(station, from_, until_));
        std::sort(at.begin(), at.end());
        at.erase(std::unique(at.begin(), at.end(), [](double a, double b) { return b - a < 2 * edge_backed; }), at.end());
        std::vector<std::pair<double, bool>> places;
        const auto between = [&](double from, double to) { // both left out
            const int n = static_cast<int>(std::ceil((to - from) / pitch - 1e-9));
            for (int k = 1; k < n; ++k) places.emplace_back(from + (to - from) * k / n, in_.rail);
        };
        if (at.empty() || at.front() - from_ > pitch / 2) {
            places.emplace_back(from_, in_.rail);
            between(from_, at.empty() ? until_ : at.front());
        }
        for (std::size_t k = 0; k < at.size(); ++k) {
            if (k > 0) between(at[k - 1], at[k]);
            places.emplace_back(at[k], true);
        }
        if (at.empty() || until_ - at.back() > pitch / 2) {
            if (!at.empty()) between(at.back(), until_);
            places.emplace_back(until_, in_.rail);
        }
        return places;
    }

    void outriggers() {
        if (!in_.edge.pitch || widest() <= 0) return;
        std::string alone;
        for (const auto& [station, backed] : outriggerPlaces()) {
            EdgeOutrigger o;
            o.station_mm = station;
            o.backed = backed;
            const Across a = across(o.station_mm);
            o.long_mm = std::hypot(a.width.value, a.rise.value) - sill_gap_mm;
            o.rise_mm = a.rise.value;
            if (o.long_mm <= 0) continue;
            if (!o.backed) alone += (alone.empty() ? "" : ", ") + units::fixed(o.station_mm, 0);
            p_.outriggers.push_back(o);
        }
        const build::FloorEdge& e = in_.edge;
        if (2 * e.wall.value < e.height.value) {
            const double h = e.height.value, w = e.width.value, t = e.wall.value;
            const double area = h * w - (h - 2 * t) * (w - 2 * t);
            for (const EdgeOutrigger& o : p_.outriggers) p_.outriggers_kg += area * o.long_mm * edge_steel_kg_mm3;
        }
        if (!alone.empty())
            add("edge-root", PlanVerdict::Fails,
                fmt::format("The outriggers at {} end at the edge of a sheet, which bears nothing.", alone),
                "Let them run on under the floor to the spine or a crossmember, or put them where one stands: member … outrigger "
                "through ….");
    }

    /// Bent at its root, the worst case's load at its outer end. Gere & Timoshenko; Blodgett for the weld all round as a line.
    void bearing() {
        double longest = 0;
        for (const EdgeOutrigger& o : p_.outriggers) longest = std::max(longest, o.long_mm);
        const double h = in_.edge.height.value, w = in_.edge.width.value, t = in_.edge.wall.value;
        if (longest <= 0 || 2 * t >= h || 2 * t >= w) return;
        const double bends = in_.edge.carries.value * gravity * in_.up_g * longest; // N·mm
        p_.stress_mpa = bends / sectionOf(h, w, t, false).level_modulus_mm3;
        const double weld = filletBears(t, t) * (w * h + h * h / 3) / sheet_spare;
        p_.weld_share = bends / weld;
        if (*p_.stress_mpa > p_.may_mpa || *p_.weld_share > 1) {
            double wall = t;
            const auto fails = [&] {
                return bends / sectionOf(h, w, wall, false).level_modulus_mm3 > p_.may_mpa ||
                       bends > filletBears(wall, wall) * (w * h + h * h / 3) / sheet_spare;
            };
            while (fails() && wall < std::min(h, w) / 4) wall += 0.5;
            add("edge-outrigger", PlanVerdict::Fails,
                fmt::format("{} at the end of an outrigger of {} bend it with {:.0f} MPa in the worst case{}.",
                            units::fixed(in_.edge.carries.value, 0) + " kg", edgeMm(longest), *p_.stress_mpa,
                            *p_.weld_share > 1 ? ", and its weld beyond what it bears" : ""),
                fails() ? fmt::format("A higher section than {}.", edgeMm(h))
                        : fmt::format("A wall of {}: floor-edge {} outriggers {} {} {}.", edgeMm(wall, 1), in_.edge.name,
                                      units::fixed(h, 0), units::fixed(w, 0), units::fixed(wall, 1)))
                .of(fmt::format("{:.0f} MPa", *p_.stress_mpa), fmt::format("{:.0f} MPa", p_.may_mpa));
        }
    }

    const EdgeInput& in_;
    std::vector<std::size_t> order_, sills_; ///< places in edge_at and sill_at, front to rear
    double from_ = 0, until_ = 0;            ///< where both run beside each other
    EdgePlan p_;
};

} // namespace

EdgePlan edgePlan(const EdgeInput& in) { return Edge(in).made(); }

} // namespace gorvet::stretch
