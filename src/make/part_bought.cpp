// A mount that was bought, laid over the holes that are there.
#include "make/fasteners.hpp"
#include "make/hole_match.hpp"
#include "make/part_maker.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using geometry::cross;
using geometry::dot;
using geometry::Flat;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

namespace {

constexpr std::size_t most_holes = 6;

class BoughtMaker : PartMaker {
public:
    using PartMaker::PartMaker;

    PartPlan plan() {
        const double hole = f("hole"), thick = f("thick"), edge = or_("edge", 1.75 * hole);
        const std::vector<std::size_t>& of = in_.at;
        std::vector<Flat> pattern{{0, 0}};
        for (std::size_t k = 2; k <= most_holes; ++k) {
            const std::string a = fmt::format("along-{}", k), c = fmt::format("across-{}", k);
            if (!has(a.c_str()) && !has(c.c_str())) continue;
            if (pattern.size() + 1 != k)
                return refuse(fmt::format("Its hole {} is said, and its hole {} is not.", k, pattern.size() + 1),
                              "Number its holes 2, 3, 4 … without a gap.");
            pattern.emplace_back(or_(a.c_str(), 0), or_(c.c_str(), 0));
        }
        p_.size_mm = between(0, 1);
        p_.size_of = "between the first two holes that are there";
        if (pattern.size() != of.size())
            return refuse(fmt::format("It has {} holes, and {} are there.", pattern.size(), of.size()),
                          "Say each of its holes from its first: along-2 180 across-2 0 along-3 …");
        for (std::size_t i = 0; i < pattern.size(); ++i)
            for (std::size_t j = 0; j < i; ++j)
                if (std::hypot(pattern[i].first - pattern[j].first, pattern[i].second - pattern[j].second) < 1.5 * hole)
                    return refuse("Two of its holes lie on each other.", "Measure each from its first hole, along and across.");
        std::vector<Vec3> there;
        for (std::size_t k = 0; k < of.size(); ++k) there.push_back(at(k));
        // the plane of the holes that are there; of two the face that they lie on
        Vec3 normal = of.size() > 2 ? geometry::planeOf(there).normal : faceAt(at(0), {0, 0, -1}).normal;
        if (normal.z_mm < -0.05 || (std::abs(normal.z_mm) <= 0.05 && normal.y_mm < 0)) normal = times(normal, -1);
        Vec3 x = minus(there[1], there[0]);
        x = minus(x, times(normal, dot(x, normal)));
        if (geometry::length(x) < 1) return refuse("Two of the holes that are there are one.", "Mark each of them.");
        x = unit(x);
        const Vec3 y = cross(normal, x);
        std::vector<Flat> places;
        for (const Vec3& q : there) places.emplace_back(dot(minus(q, there[0]), x), dot(minus(q, there[0]), y));
        const HoleMatch m = matchHoles(pattern, places, has("turned-over") && f("turned-over") > 0.5);
        const build::Figure worst = worstOf(m, pattern, x, y);
        const BoltSize* bolt_size = boltThrough(hole);
        const double nominal = bolt_size ? bolt_size->nominal : hole, room = (hole - nominal) / 2;
        says(m, worst, hole, nominal, room, edge);
        flange(m, pattern, there[0], x, y, normal, hole, thick, edge);
        skip("what it carries: ask who made it");
        return done();
    }

private:
    PartPlan refuse(std::string sentence, std::string remedy) {
        add("part-outline", PlanVerdict::Fails, std::move(sentence), std::move(remedy));
        return done();
    }
    /// How well the worst is known: by how it changes with the places; near nothing, where a size has no slope, by drawing them.
    build::Figure worstOf(const HoleMatch& m, const std::vector<Flat>& pattern, const Vec3& x, const Vec3& y) const {
        const auto worst = [&](const std::vector<Vec3>& moved) {
            std::vector<Flat> ordered;
            for (const std::size_t k : m.onto) {
                const Vec3 from = minus(moved[in_.at[k]], moved[in_.at[0]]);
                ordered.emplace_back(dot(from, x), dot(from, y));
            }
            return layHoles(pattern, ordered, m.over).worst_mm;
        };
        const build::Figure sloped = build::figureOf(in_.places, in_.at, worst);
        double farthest = 0;
        for (const std::size_t k : in_.at)
            for (std::size_t a = 0; a < 3; ++a)
                farthest = std::max(farthest, std::sqrt(in_.places.covariance[(3 * k + a) * (3 * in_.places.at.size() + 1)]));
        return sloped.value > 8 * farthest ? sloped : build::drawnFigureOf(in_.places, in_.at, worst);
    }

    /// Hole by hole, and what it comes to.
    void says(const HoleMatch& m, const build::Figure& worst, double hole, double nominal, double room, double edge) {
        fact("laid on so that its worst hole is off by", Figure{m.worst_mm, worst.u95, build::Provenance::Derived});
        if (m.over) fact("it is turned over", std::string("yes"));
        std::size_t enlarged = 0;
        double widest = hole;
        for (std::size_t k = 0; k < m.off.size(); ++k) {
            const double off = std::hypot(m.off[k].first, m.off[k].second), needs = nominal + 2 * off;
            enlarged += needs > hole;
            widest = std::max(widest, needs);
            fact(fmt::format("its hole {} on {}, off by", k + 1, in_.places.names[in_.at[m.onto[k]]]), off);
            if (needs > hole) fact(fmt::format("its hole {} enlarged to", k + 1), needs);
        }
        if (m.worst_mm + worst.u95 <= room) return; // its bolts go in as it is
        const double left = edge - widest / 2;
        if (m.worst_mm <= room)
            add("part-holes", PlanVerdict::Marginal,
                fmt::format("Its bolts have {:.1f} mm of room and its worst hole is off by {:.1f} ± {:.1f}.", room, m.worst_mm,
                            worst.u95),
                "Hold it up before anything is drilled.")
                .of(fmt::format("{:.1f} mm", m.worst_mm), fmt::format("≤ {:.1f} mm", room));
        else if (widest > most_enlarged * nominal || left < nominal / 2)
            add("part-holes", PlanVerdict::Fails,
                fmt::format("Its worst hole is off by {:.1f} mm: enlarged to {:.1f} it holds no bolt of {:g} any more.",
                            m.worst_mm, widest, nominal),
                "New holes in what is there, with sleeves in them; or an adapter plate between, with both patterns.")
                .of(fmt::format("{:.1f} mm", m.worst_mm), fmt::format("≤ {:.1f} mm", room));
        else
            add("part-holes", PlanVerdict::Marginal,
                fmt::format("{} to be enlarged, the widest to {:.1f}.", units::counted(enlarged, "a hole"), widest),
                "Enlarge it in the mount, not in the frame; a thick washer on each.")
                .of(fmt::format("{:.1f} mm", m.worst_mm), fmt::format("≤ {:.1f} mm", room));
    }

    void flange(const HoleMatch& m, const std::vector<Flat>& pattern, const Vec3& origin, const Vec3& x, const Vec3& y,
                const Vec3& z, double hole, double thick, double edge) {
        FlatPiece piece;
        piece.name = "its flange, bought";
        piece.at_hand = true;
        piece.thickness_mm = thick;
        std::vector<Flat> middles;
        for (const Flat& p : pattern) middles.push_back(m.placed(p));
        for (const Flat& p : middles) piece.holes.push_back({p, hole, "bolt"});
        piece.outline = geometry::hullRound(middles, edge);
        // on that side of its holes where no rail is
        const bool inside = inRail(plus(origin, times(z, thick / 2))) != nullptr;
        piece.places = {{inside ? minus(origin, times(z, thick)) : origin, x, y}};
        p_.flats.push_back(std::move(piece));
        p_.bolted_on = true;
        for (const Flat& p : middles) {
            const Vec3 on = plus(origin, plus(times(x, p.first), times(y, p.second)));
            bolt(inside ? minus(on, times(z, thick)) : plus(on, times(z, thick)), inside ? times(z, -1) : z, thick, hole);
        }
    }

    static constexpr double most_enlarged = 1.4; ///< of a hole over its bolt, under a thick washer
};

} // namespace

PartPlan boughtMountPlan(const PartIn& in) { return BoughtMaker(in).plan(); }

} // namespace gorvet::make
