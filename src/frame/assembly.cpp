// Lines become beams: where they meet they get a node, and each keeps its own middle line by rigid arms.
#include "frame/assembly.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <set>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

using geometry::along;
using geometry::between;
using geometry::minus;
using geometry::plus;
using geometry::times;

constexpr double same_mm = 1;     ///< stops nearer than that are one
constexpr double beside_mm = 150; ///< what meets in plan within that is joined
constexpr double above_mm = 400;  ///< and so much above each other
constexpr double biscuit_mm = 30; ///< length of a mount as a beam
constexpr auto warp = static_cast<std::size_t>(Dof::Warp);
constexpr auto about = static_cast<std::size_t>(Dof::AboutX);

/// A line by its length.
class Path {
public:
    explicit Path(const std::vector<Vec3>& points) : points_(points), at_{0} {
        for (std::size_t k = 1; k < points.size(); ++k) at_.push_back(at_.back() + between(points[k - 1], points[k]));
    }
    double length() const { return at_.back(); }
    const std::vector<double>& corners() const { return at_; }
    Vec3 at(double s) const {
        for (std::size_t k = 1; k < at_.size(); ++k)
            if (s <= at_[k] || k + 1 == at_.size())
                return along(points_[k - 1], points_[k], at_[k] > at_[k - 1] ? (s - at_[k - 1]) / (at_[k] - at_[k - 1]) : 0);
        return points_.front();
    }
    /// The place nearest to p, as a length.
    double nearest(const Vec3& p) const {
        double best = 0, least = std::numeric_limits<double>::max();
        for (std::size_t k = 1; k < points_.size(); ++k) {
            const Vec3 d = minus(points_[k], points_[k - 1]);
            const double square = geometry::dot(d, d);
            const double share = square > 0 ? std::clamp(geometry::dot(minus(p, points_[k - 1]), d) / square, 0.0, 1.0) : 0;
            const double away = between(p, along(points_[k - 1], points_[k], share));
            if (away < least) {
                least = away;
                best = at_[k - 1] + share * (at_[k] - at_[k - 1]);
            }
        }
        return best;
    }
    /// Where both cross when seen from above: their lengths, in order.
    std::vector<std::pair<double, double>> crossings(const Path& o) const {
        std::vector<std::pair<double, double>> list;
        for (std::size_t i = 1; i < points_.size(); ++i)
            for (std::size_t j = 1; j < o.points_.size(); ++j) {
                const Vec3 a = minus(points_[i], points_[i - 1]), b = minus(o.points_[j], o.points_[j - 1]),
                           c = minus(o.points_[j - 1], points_[i - 1]);
                const double det = a.x_mm * b.y_mm - a.y_mm * b.x_mm;
                if (std::abs(det) < 1e-6 * between(points_[i], points_[i - 1]) * between(o.points_[j], o.points_[j - 1]))
                    continue;
                const double s = (c.x_mm * b.y_mm - c.y_mm * b.x_mm) / det, t = (c.x_mm * a.y_mm - c.y_mm * a.x_mm) / det;
                if (s >= 0 && s <= 1 && t >= 0 && t <= 1)
                    list.emplace_back(at_[i - 1] + s * (at_[i] - at_[i - 1]), o.at_[j - 1] + t * (o.at_[j] - o.at_[j - 1]));
            }
        return list;
    }

private:
    const std::vector<Vec3>& points_;
    std::vector<double> at_;
};

bool meet(const Vec3& a, const Vec3& b) {
    return std::hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm) <= beside_mm && std::abs(a.z_mm - b.z_mm) <= above_mm;
}

class Assembler {
public:
    Assembler(const Structure& s, SectionBook& book, bool held, bool body) : s_(s), book_(book), held_(held), body_(body) {}

    Result<Assembly> made() {
        if (auto ok = check(); !ok) return ok.error();
        for (const Line& l : s_.lines) paths_.emplace_back(l.points);
        stops_.resize(s_.lines.size());
        ends_.resize(s_.lines.size());
        for (std::size_t l = 0; l < s_.lines.size(); ++l) ownStops(l);
        for (std::size_t l = 0; l < s_.lines.size(); ++l)
            if (!s_.lines[l].rail) joinEnds(l);
        for (std::size_t l = 0; l < s_.lines.size(); ++l)
            if (!s_.lines[l].rail && !s_.lines[l].clad) joinCrossings(l);
        leaveOut();
        std::array<std::size_t, wheels> seat_stops{};
        std::array<std::size_t, wheels> shackles{}; // 0: none
        for (std::size_t k = 0; k < wheels; ++k) {
            const Seat& seat = s_.seats[k];
            seat_stops[k] = stopNear(seat.hangers ? seat.hangers->first : seat.at, false);
            if (seat.hangers) shackles[k] = stopNear(seat.hangers->second, false);
        }
        std::vector<std::size_t> mount_stops;
        if (body_ && s_.body_nm_deg)
            for (const Vec3& m : s_.mounts) mount_stops.push_back(stopNear(m));
        if (all_.empty()) return nothing();
        divide();
        nodes();
        if (auto ok = beams(); !ok) return ok.error();
        seats(seat_stops, shackles);
        if (mount_stops.size() >= 4) body(mount_stops);
        return std::move(out_);
    }

private:
    struct One { ///< a stop of a line
        std::size_t line;
        double s;
        bool joint = false;
    };

    static Error nothing() {
        return Error{Error::Code::Conflict, "frame", "The frame has no rails and no spine yet.",
                     "Survey two points of each rail, or say a spine: member spine spine from 300 to 2400 box 180 140 1.6.", -1};
    }
    Result<void> check() const {
        if (s_.lines.empty()) return nothing();
        for (const Line& l : s_.lines)
            if (l.points.size() < 2 || l.pieces.empty())
                return Error{Error::Code::BadInput, l.name, fmt::format("{} has no length or no section.", l.name), "Say them.",
                             -1};
        return {};
    }

    std::size_t stop(std::size_t line, double s) {
        for (const std::size_t k : stops_[line])
            if (std::abs(all_[k].s - s) < same_mm) return k;
        all_.push_back({line, s});
        root_.push_back(root_.size());
        stops_[line].push_back(all_.size() - 1);
        return all_.size() - 1;
    }
    std::size_t rootOf(std::size_t k) {
        while (root_[k] != k) k = root_[k] = root_[root_[k]];
        return k;
    }
    void join(std::size_t a, std::size_t b) {
        // two places of one line are never one
        const std::size_t one = rootOf(a), other = rootOf(b);
        std::set<std::size_t> lines;
        for (std::size_t k = 0; k < all_.size() && one != other; ++k)
            if (const std::size_t root = rootOf(k); (root == one || root == other) && !lines.insert(all_[k].line).second) return;
        all_[a].joint = all_[b].joint = true;
        root_[one] = other;
    }

    void ownStops(std::size_t l) {
        for (const double s : paths_[l].corners()) stop(l, s);
        for (const Piece& p : s_.lines[l].pieces)
            if (p.until_mm < paths_[l].length() - same_mm) stop(l, p.until_mm);
        for (const Rib& rib : s_.lines[l].ribs)
            if (rib.along_mm > same_mm && rib.along_mm < paths_[l].length() - same_mm) stop(l, rib.along_mm);
    }

    /// Each end to what it meets: what runs along the frame first, then whatever is nearest.
    void joinEnds(std::size_t l) {
        const double pitch = std::max(s_.pitch_mm, 10.0);
        std::vector<double> places{0, paths_[l].length()};
        if (s_.lines[l].clad)
            for (double s = pitch; s < paths_[l].length() - pitch / 2; s += pitch) places.push_back(s);
        for (const double s : places) {
            const Vec3 p = paths_[l].at(s);
            std::size_t host = l;
            double least = std::numeric_limits<double>::max();
            for (std::size_t h = 0; h < s_.lines.size(); ++h) {
                if (h == l || s_.lines[h].clad || gone(h)) continue;
                const Vec3 q = paths_[h].at(paths_[h].nearest(p));
                const double away = between(p, q) + (s_.lines[h].rail ? 0 : beside_mm + above_mm);
                if (meet(p, q) && away < least) {
                    least = away;
                    host = h;
                }
            }
            if (host == l) continue;
            const double t = paths_[host].nearest(p);
            join(stop(l, s), stop(host, t));
            ++ends_[l];
        }
    }
    void joinCrossings(std::size_t l) {
        for (std::size_t h = 0; h < s_.lines.size(); ++h) {
            if (h == l || s_.lines[h].clad || gone(h) || (!s_.lines[h].rail && h > l)) continue;
            for (const auto& [s, t] : paths_[l].crossings(paths_[h])) {
                if (s < beside_mm || s > paths_[l].length() - beside_mm) continue; // an end: joined, or free
                if (!meet(paths_[l].at(s), paths_[h].at(t))) continue;
                join(stop(l, s), stop(h, t));
                ++ends_[l];
            }
        }
    }
    /// What touches nothing, and what touches it only, is no part of the frame.
    void leaveOut() {
        for (std::size_t l = 0; l < s_.lines.size(); ++l)
            if (!s_.lines[l].rail && ends_[l] == 0) {
                out_.loose.push_back(s_.lines[l].name);
                stops_[l].clear();
            }
    }
    bool gone(std::size_t l) const { return stops_[l].empty(); }

    /// The stop for something that bears on the frame there: of what runs along it, else of any line.
    std::size_t stopNear(const Vec3& p, bool outriggers = true) {
        std::size_t best = 0;
        double least = std::numeric_limits<double>::max();
        for (std::size_t l = 0; l < s_.lines.size(); ++l) {
            if (gone(l) || s_.lines[l].clad) continue;
            const double away = between(p, paths_[l].at(paths_[l].nearest(p))) +
                                (s_.lines[l].rail || (outriggers && s_.lines[l].outrigger) ? 0 : 1e6);
            if (away < least) {
                least = away;
                best = l;
            }
        }
        return least < std::numeric_limits<double>::max() ? stop(best, paths_[best].nearest(p)) : 0;
    }

    /// No beam longer than the pitch.
    void divide() {
        const double pitch = std::max(s_.pitch_mm, 10.0);
        for (std::size_t l = 0; l < s_.lines.size(); ++l) {
            std::vector<double> at;
            for (const std::size_t k : stops_[l]) at.push_back(all_[k].s);
            std::sort(at.begin(), at.end());
            for (std::size_t k = 1; k < at.size(); ++k) {
                const int pieces = static_cast<int>(std::ceil((at[k] - at[k - 1]) / pitch - 1e-9));
                for (int i = 1; i < pieces; ++i) stop(l, at[k - 1] + (at[k] - at[k - 1]) * i / pieces);
            }
            std::sort(stops_[l].begin(), stops_[l].end(), [&](std::size_t a, std::size_t b) { return all_[a].s < all_[b].s; });
        }
    }

    /// One node for all stops that are joined; it stands on the first of their lines.
    void nodes() {
        node_.assign(all_.size(), 0);
        owner_.clear();
        std::map<std::size_t, std::size_t> of_root;
        for (std::size_t l = 0; l < s_.lines.size(); ++l)
            for (const std::size_t k : stops_[l]) {
                const auto [at, fresh] = of_root.emplace(rootOf(k), out_.model.nodes.size());
                node_[k] = at->second;
                if (!fresh) continue;
                out_.model.nodes.push_back(Node{paths_[l].at(all_[k].s), {}, {}});
                owner_.push_back(l);
            }
        out_.stops.resize(s_.lines.size());
        for (std::size_t l = 0; l < s_.lines.size(); ++l)
            for (const std::size_t k : stops_[l])
                out_.stops[l].push_back({all_[k].s, paths_[l].at(all_[k].s), node_[k], all_[k].joint});
        for (std::size_t l = 0; l < s_.lines.size(); ++l)
            for (const Rib& rib : s_.lines[l].ribs)
                for (const Stop& at : out_.stops[l])
                    if (std::abs(at.along_mm - rib.along_mm) < same_mm) {
                        out_.model.nodes[at.node].spring[warp] += rib.holds_nmm3;
                        break;
                    }
        if (held_)
            for (std::size_t k = 0; k < all_.size(); ++k)
                if (all_[k].joint && !gone(all_[k].line)) out_.model.nodes[node_[k]].held[warp] = true;
    }

    Result<std::size_t> sectionFor(const Line& line, const Profile& said) {
        auto worth = book_.of(said);
        if (!worth) {
            Error e = worth.error();
            e.subject = line.name;
            e.message = fmt::format("{}: {}", line.name, e.message);
            return e;
        }
        for (std::size_t k = 0; k < out_.sections.size(); ++k)
            if (out_.sections[k] == *worth) return k;
        out_.open = out_.open || !(*worth)->section.closed();
        out_.sections.push_back(*worth);
        return out_.sections.size() - 1;
    }

    Result<void> beams() {
        for (std::size_t l = 0; l < s_.lines.size(); ++l) {
            const Line& line = s_.lines[l];
            const std::vector<Stop>& stops = out_.stops[l];
            std::optional<bool> closed; // of the piece before
            const auto joints = std::count_if(stops.begin(), stops.end(), [](const Stop& s) { return s.joint; });
            for (std::size_t k = 1; k < stops.size(); ++k) {
                const double middle = (stops[k - 1].along_mm + stops[k].along_mm) / 2;
                const auto piece =
                    std::find_if(line.pieces.begin(), line.pieces.end(), [&](const Piece& p) { return middle <= p.until_mm; });
                const auto section = sectionFor(line, (piece == line.pieces.end() ? line.pieces.back() : *piece).section);
                if (!section) return section.error();
                const Section& worth = out_.sections[*section]->section;
                // closed walls hardly warp: how far they stop an open neighbour is a matter of the joint
                if (held_ && closed && *closed != worth.closed()) out_.model.nodes[stops[k - 1].node].held[warp] = true;
                closed = worth.closed();
                Beam b;
                b.from = stops[k - 1].node;
                b.to = stops[k].node;
                b.section = beamSection(worth, worth.centroid);
                b.material = s_.material;
                b.up = line.up;
                b.arm_from = minus(stops[k - 1].at, out_.model.nodes[b.from].at);
                b.arm_to = minus(stops[k].at, out_.model.nodes[b.to].at);
                // what one line warps by is not what another warps by: it hands nothing over
                b.loose_from[warp] = !held_ && owner_[b.from] != l;
                b.loose_to[warp] = !held_ && owner_[b.to] != l;
                if (line.bolted && !held_ && joints > 1 && stops[k].joint && k + 1 == stops.size()) b.loose_to[about] = true;
                out_.model.beams.push_back(b);
                out_.parts.push_back({l, stops[k - 1].along_mm, stops[k].along_mm, *section});
            }
        }
        return {};
    }

    std::size_t stiff(std::size_t node, const Vec3& to) {
        Model& m = out_.model;
        m.nodes.push_back(Node{to, {}, {}});
        owner_.push_back(s_.lines.size());
        Beam b;
        b.from = node;
        b.to = m.nodes.size() - 1;
        b.section.area_mm2 = 5000;
        b.section.level_mm4 = b.section.upright_mm4 = b.section.torsion_mm4 = 1e8;
        b.material = s_.material;
        b.material.kg_mm3 = 0;
        const Vec3 d = geometry::unit(minus(to, m.nodes[node].at));
        if (std::abs(d.z_mm) > 0.9) b.up = {1, 0, 0};
        m.beams.push_back(b);
        out_.body.push_back(m.beams.size() - 1);
        return b.to;
    }

    /// Where a spring stands beside every line, or two share a place, a stiff post reaches to it.
    void seats(const std::array<std::size_t, wheels>& stops, const std::array<std::size_t, wheels>& shackles) {
        for (std::size_t k = 0; k < wheels; ++k) {
            const std::size_t node = node_[stops[k]];
            const Vec3 seat = s_.seats[k].at, foot = out_.model.nodes[node].at;
            if (s_.seats[k].hangers && node_[shackles[k]] != node) {
                leaf(k, node, node_[shackles[k]]);
                continue;
            }
            bool shared = std::hypot(seat.x_mm - foot.x_mm, seat.y_mm - foot.y_mm) > beside_mm;
            for (std::size_t j = 0; j < wheels; ++j) shared = shared || (j != k && node_[stops[j]] == node);
            out_.seats[k] = shared ? stiff(node, {seat.x_mm, seat.y_mm, foot.z_mm}) : node;
        }
    }

    /// A leaf spring hands what its axle bears to both its ends by its lever: it is hinged there, and its shackle gives.
    void leaf(std::size_t k, std::size_t front, std::size_t rear) {
        Model& m = out_.model;
        const Vec3 a = m.nodes[front].at, b = m.nodes[rear].at;
        const double span = b.x_mm - a.x_mm, share = std::clamp((s_.seats[k].at.x_mm - a.x_mm) / span, 0.05, 0.95);
        const std::size_t seat = stiff(front, along(a, b, share));
        constexpr auto turns = static_cast<std::size_t>(Dof::AboutY);
        m.beams.back().loose_from[turns] = true;
        m.beams.push_back(m.beams.back());
        Beam& second = m.beams.back();
        out_.body.push_back(m.beams.size() - 1);
        second.from = seat;
        second.to = rear;
        second.loose_from.fill(false);
        for (const Dof d : {Dof::X, Dof::AboutX, Dof::AboutY, Dof::AboutZ}) second.loose_to[static_cast<std::size_t>(d)] = true;
        out_.seats[k] = seat;
    }

    /// The body: a bar in the middle that resists twist alone, on its mounts' springs.
    void body(const std::vector<std::size_t>& stops) {
        Model& m = out_.model;
        std::map<long, std::vector<std::size_t>> rows; // by station, those within 100 mm in one
        for (const std::size_t k : stops) rows[std::lround(m.nodes[node_[k]].at.x_mm / 100)].push_back(node_[k]);
        std::vector<std::size_t> middle;
        for (const auto& [station, nodes] : rows) {
            if (nodes.size() < 2) continue;
            Vec3 at;
            for (const std::size_t n : nodes) at = plus(at, times(m.nodes[n].at, 1.0 / static_cast<double>(nodes.size())));
            at.z_mm += biscuit_mm;
            m.nodes.push_back(Node{at, {}, {}});
            middle.push_back(m.nodes.size() - 1);
            for (const std::size_t n : nodes) {
                Beam b;
                b.from = n;
                b.to = middle.back();
                b.section.area_mm2 = s_.mount_rate * biscuit_mm / s_.material.e_mpa;
                b.section.level_mm4 = b.section.upright_mm4 = b.section.torsion_mm4 = 100;
                b.material = s_.material;
                b.material.kg_mm3 = 0;
                b.up = {1, 0, 0};
                b.arm_to = minus(plus(m.nodes[n].at, {0, 0, biscuit_mm}), at);
                m.beams.push_back(b);
                out_.body.push_back(m.beams.size() - 1);
            }
        }
        if (middle.size() < 2) return;
        const double reach = between(m.nodes[middle.front()].at, m.nodes[middle.back()].at);
        constexpr double degree = 180 / 3.14159265358979323846;
        for (std::size_t k = 1; k < middle.size(); ++k) {
            Beam b;
            b.from = middle[k - 1];
            b.to = middle[k];
            b.section.area_mm2 = 10;
            b.section.level_mm4 = b.section.upright_mm4 = 1000;
            b.section.torsion_mm4 = *s_.body_nm_deg * 1000 * degree * reach / s_.material.g_mpa;
            b.material = s_.material;
            b.material.kg_mm3 = 0;
            m.beams.push_back(b);
            out_.body.push_back(m.beams.size() - 1);
        }
    }

    const Structure& s_;
    SectionBook& book_;
    bool held_;
    bool body_;
    std::vector<Path> paths_;
    std::vector<One> all_;
    std::vector<std::size_t> root_;
    std::vector<std::vector<std::size_t>> stops_; ///< of each line
    std::vector<int> ends_;                       ///< how often it is joined
    std::vector<std::size_t> node_;
    std::vector<std::size_t> owner_; ///< of each node: the line it stands on
    Assembly out_;
};

} // namespace

Result<std::shared_ptr<const Worth>> SectionBook::of(const Profile& said) {
    for (const auto& [profile, worth] : known_)
        if (profile == said) return worth;
    auto walls = wallsOf(said);
    if (!walls) return walls.error();
    auto section = sectionOf(*walls);
    if (!section) return section.error();
    known_.emplace_back(said, std::make_shared<const Worth>(Worth{std::move(*section), std::move(*walls)}));
    return known_.back().second;
}

Result<Assembly> assemble(const Structure& s, SectionBook& book, bool held, bool body) {
    return Assembler(s, book, held, body).made();
}

} // namespace gorvet::frame
