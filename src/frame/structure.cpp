// A frame as it carries: twisted, loaded case by case, and how it swings.
#include "frame/structure.hpp"

#include "dense/dense.hpp"
#include "frame/assembly.hpp"
#include "frame/stress.hpp"

#include <Eigen/Geometry>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::frame {

namespace {

using geometry::between;
using geometry::minus;
using geometry::plus;
using geometry::times;

constexpr double gravity = 9.81; // m/s²: N of a kg

/// Held at three of its seats, so that the fourth turns it.
Result<double> twisted(const Assembly& a) {
    Model m = a.model;
    m.nodes[a.seats[2]].held[0] = m.nodes[a.seats[2]].held[1] = m.nodes[a.seats[2]].held[2] = true;
    m.nodes[a.seats[3]].held[0] = m.nodes[a.seats[3]].held[2] = true;
    m.nodes[a.seats[1]].held[2] = true;
    constexpr double pull_n = 1000;
    const auto answer = solve(m, {{"twist", {{a.seats[0], unit(Dof::Z, pull_n)}}, {}}});
    if (!answer) return answer.error();
    const double up = answer->front().moves[a.seats[0]][2];
    const double track = std::abs(m.nodes[a.seats[0]].at.y_mm - m.nodes[a.seats[1]].at.y_mm);
    const double degrees = std::atan(up / track) * 180 / std::numbers::pi;
    return pull_n * track / 1000 / degrees;
}

double massOf(const Model& m, std::size_t beam) {
    const Beam& b = m.beams[beam];
    return b.section.area_mm2 * b.material.kg_mm3 *
           between(plus(m.nodes[b.from].at, b.arm_from), plus(m.nodes[b.to].at, b.arm_to));
}

/// Masses, loads and what is read from the answers, of one frame.
class Bearing {
public:
    Bearing(const Structure& s, const Assembly& a) : s_(s), a_(a) {
        for (std::size_t k = 0; k < a.parts.size(); ++k) {
            const Beam& b = a.model.beams[k];
            const double mass = massOf(a.model, k);
            const Vec3 middle =
                geometry::along(plus(a.model.nodes[b.from].at, b.arm_from), plus(a.model.nodes[b.to].at, b.arm_to), 0.5);
            steel_ += mass;
            centre_ = plus(centre_, times(middle, mass));
        }
        all_ = steel_;
        for (const Hung& h : s.hung) {
            all_ += h.mass_kg;
            centre_ = plus(centre_, times(h.at, h.mass_kg));
        }
        if (all_ > 0) centre_ = times(centre_, 1 / all_);
    }
    double steel() const { return steel_; }
    double all() const { return all_; }
    Vec3 centre() const { return centre_; }

    /// The wheel that a case has in the air. Where the lighter end is asked for: the left wheel of the axle that carries less.
    std::optional<std::size_t> lifted(const Case& c) const {
        if (!c.lighter_end) return c.lifted;
        return frontShare() > 0.5 ? 2 : 0;
    }
    /// Whether what is left of the seats holds it up: the centre of gravity lies between the three.
    bool tips(std::size_t wheel) const {
        std::array<Vec3, 3> left;
        std::size_t n = 0;
        for (std::size_t k = 0; k < wheels; ++k)
            if (k != wheel) left[n++] = seat(k);
        int right = 0, wrong = 0;
        for (std::size_t k = 0; k < 3; ++k) {
            const Vec3 a = left[k], b = left[(k + 1) % 3];
            const double side = (b.x_mm - a.x_mm) * (centre_.y_mm - a.y_mm) - (b.y_mm - a.y_mm) * (centre_.x_mm - a.x_mm);
            (side > 0 ? right : wrong) += 1;
        }
        return right && wrong;
    }

    /// Weight times its factors, and what road and tyres answer where that is no spring's matter.
    Load load(const Case& c) const {
        Load load;
        load.name = c.name;
        const Vec3 g{-c.braking_g, c.cornering_g, -c.up_g}; // a car that brakes pushes forward
        load.gravity = times(g, gravity * 1000);
        for (const Hung& h : s_.hung) hang(h, times(g, h.mass_kg * gravity), load);
        // braking and side forces come from the ground by the wheels' share of the weight
        const double pushed = -c.braking_g * all_ * gravity, aside = c.cornering_g * all_ * gravity;
        const double up = c.up_g * all_ * gravity;
        const double base = length();
        double front = frontShare();
        if (up > 0) front += -pushed * (centre_.z_mm - ground()) / (up * base); // transfer m a h / L
        for (std::size_t k = 0; k < wheels; ++k) {
            const double share = std::clamp(k < 2 ? front : 1 - front, 0.0, 1.0) / 2;
            std::array<double, dofs> f{};
            f[0] = -pushed * share;
            f[1] = -aside * (k < 2 ? frontShare() : 1 - frontShare()) / 2;
            // what brakes turns its axle, and springs or links hand that on: the force acts at the ground
            f[4] = -f[0] * (seat(k).z_mm - s_.seats[k].ground_mm);
            load.at.emplace_back(a_.seats[k], f);
        }
        return load;
    }

    /// The model as it stands for a case.
    Model standing(std::optional<std::size_t> in_the_air) const {
        Model m = a_.model;
        for (std::size_t k = 0; k < wheels; ++k)
            if (k != in_the_air) m.nodes[a_.seats[k]].spring[2] += s_.seats[k].rate;
        // nothing pushes it anywhere: it is only kept from drifting
        m.nodes[a_.seats[2]].held[0] = m.nodes[a_.seats[2]].held[1] = true;
        m.nodes[a_.seats[0]].held[1] = true;
        return m;
    }
    Vec3 seat(std::size_t k) const { return a_.model.nodes[a_.seats[k]].at; }
    double length() const { return (seat(2).x_mm + seat(3).x_mm - seat(0).x_mm - seat(1).x_mm) / 2; }

private:
    double ground() const {
        double sum = 0;
        for (const Seat& seat : s_.seats) sum += seat.ground_mm / wheels;
        return sum;
    }
    double frontShare() const { return ((seat(2).x_mm + seat(3).x_mm) / 2 - centre_.x_mm) / length(); }

    /// A node and the length of its line that it stands for.
    struct Under {
        std::size_t node;
        double share;
    };
    /// What hangs somewhere pulls at the nodes of what runs along the frame there, so that force and moment are its own: the
    /// forces with the least squares that do, each by the length it stands for (w (a + b × r)).
    void hang(const Hung& h, const Vec3& force, Load& load) const {
        const std::vector<Under> under = nodesUnder(h);
        Eigen::Matrix<double, 6, 6> m = Eigen::Matrix<double, 6, 6>::Zero();
        const auto cross = [](const Vec3& r) {
            Eigen::Matrix3d x;
            x << 0, -r.z_mm, r.y_mm, r.z_mm, 0, -r.x_mm, -r.y_mm, r.x_mm, 0;
            return x;
        };
        for (const Under& u : under) {
            const Eigen::Matrix3d r = cross(minus(a_.model.nodes[u.node].at, h.at));
            m.block<3, 3>(0, 0) += u.share * Eigen::Matrix3d::Identity();
            m.block<3, 3>(0, 3) -= u.share * r; // f = a + b × r = a − r × b
            m.block<3, 3>(3, 0) += u.share * r; // r × f
            m.block<3, 3>(3, 3) -= u.share * r * r;
        }
        Eigen::Matrix<double, 6, 1> wanted = Eigen::Matrix<double, 6, 1>::Zero();
        wanted.head<3>() << force.x_mm, force.y_mm, force.z_mm;
        const Eigen::Matrix<double, 6, 1> by = leastOf(m, wanted);
        Eigen::Vector3d force_left = wanted.head<3>(), moment_left = Eigen::Vector3d::Zero();
        for (const Under& u : under) {
            const Eigen::Matrix3d r = cross(minus(a_.model.nodes[u.node].at, h.at));
            const Eigen::Vector3d f = u.share * (by.head<3>() - r * by.tail<3>());
            force_left -= f;
            moment_left -= r * f;
            load.at.push_back({u.node, {f.x(), f.y(), f.z(), 0, 0, 0, 0}});
        }
        // where all nodes lie on a line (a spine) the rest is a moment on them
        for (const Under& u : under) {
            const double share = 1.0 / static_cast<double>(under.size());
            load.at.push_back({u.node,
                               {force_left.x() * share, force_left.y() * share, force_left.z() * share, moment_left.x() * share,
                                moment_left.y() * share, moment_left.z() * share, 0}});
        }
    }
    /// Forces and turns that make the wanted sum, where nodes have a lever for it: what all but stands on one line (a spine as it
    /// was measured is never quite straight) has none about that line, and forces of tons with levers of a millimetre are none
    /// either.
    static Eigen::Matrix<double, 6, 1> leastOf(Eigen::Matrix<double, 6, 6> m, const Eigen::Matrix<double, 6, 1>& wanted) {
        constexpr double least_share = 1e-3; // of the largest lever, squared
        const double total = m(0, 0), reach = total > 0 ? std::sqrt(m.block<3, 3>(3, 3).trace() / total) : 0;
        if (!(reach > 0)) return Eigen::Matrix<double, 6, 1>::Zero();
        Eigen::Matrix<double, 6, 1> scale;
        scale << 1, 1, 1, 1 / reach, 1 / reach, 1 / reach;
        m = scale.asDiagonal() * m * scale.asDiagonal();
        const dense::Eigenpairs own = dense::eigenpairs(m);
        Eigen::Matrix<double, 6, 1> by = Eigen::Matrix<double, 6, 1>::Zero();
        for (int k = 0; k < 6; ++k) {
            const Eigen::Matrix<double, 6, 1> axis = own.vectors.col(k);
            if (own.values(k) > least_share * own.values(5)) by += axis * (axis.dot(scale.cwiseProduct(wanted)) / own.values(k));
        }
        return scale.cwiseProduct(by);
    }
    /// Of each line that runs along the frame: the nodes within its reach, two at the least.
    std::vector<Under> nodesUnder(const Hung& h) const {
        std::vector<Under> list;
        for (std::size_t l = 0; l < s_.lines.size(); ++l) {
            if (!s_.lines[l].rail) continue;
            const std::vector<Stop>& all = a_.stops[l]; // in order
            std::size_t nearest = 0;
            for (std::size_t k = 1; k < all.size(); ++k)
                if (std::abs(all[k].at.x_mm - h.at.x_mm) < std::abs(all[nearest].at.x_mm - h.at.x_mm)) nearest = k;
            std::size_t first = nearest, last = nearest;
            while (first > 0 && all[first - 1].at.x_mm >= h.at.x_mm - h.over_mm / 2) --first;
            while (last + 1 < all.size() && all[last + 1].at.x_mm <= h.at.x_mm + h.over_mm / 2) ++last;
            if (first == last && all.size() > 1) { // the other one beside it
                if (last + 1 < all.size() && (all[first].at.x_mm < h.at.x_mm || first == 0))
                    ++last;
                else
                    --first;
            }
            for (std::size_t k = first; k <= last; ++k) {
                const double before = k > first ? all[k].along_mm - all[k - 1].along_mm : 0;
                const double behind = k < last ? all[k + 1].along_mm - all[k].along_mm : 0;
                list.push_back({all[k].node, (before + behind) / 2});
            }
        }
        return list;
    }

    const Structure& s_;
    const Assembly& a_;
    double steel_ = 0;
    double all_ = 0;
    Vec3 centre_;
};

/// Forces on the face at a beam's beginning or end that looks rearward along it.
Forces facing(const std::array<double, 2 * dofs>& ends, bool at_end, double length) {
    const std::size_t o = at_end ? dofs : 0;
    const double sign = at_end ? 1 : -1;
    Forces f{sign * ends[o],     sign * ends[o + 1], sign * ends[o + 2], sign * ends[o + 3],
             sign * ends[o + 4], sign * ends[o + 5], sign * ends[o + 6], 0};
    f.warping_twist = -(ends[dofs + 6] + ends[6]) / length;
    return f;
}

void readStresses(const Structure& s, const Assembly& a, const std::vector<Answer>& answers,
                  const std::vector<std::size_t>& of_case, const Answer& rest, Outcome& out) {
    std::vector<Stresses> stresses;
    for (const auto& w : a.sections) stresses.emplace_back(w->walls, w->section);
    std::vector<std::size_t> next(s.lines.size(), 0); // beams come line by line
    for (std::size_t k = 0; k < a.parts.size(); ++k) {
        const Part& p = a.parts[k];
        OfLine& line = out.lines[p.line];
        const std::size_t first = next[p.line]++;
        const double length = p.to_mm - p.from_mm;
        const auto& pieces = s.lines[p.line].pieces;
        const auto piece =
            std::find_if(pieces.begin(), pieces.end(), [&](const Piece& q) { return (p.from_mm + p.to_mm) / 2 <= q.until_mm; });
        const double yield = (piece == pieces.end() ? pieces.back() : *piece).yield_mpa;
        for (const bool at_end : {false, true}) {
            AtPlace& place = line.places[first + (at_end ? 1 : 0)];
            place.in_case.resize(out.cases.size());
            std::vector<double> worst(out.cases.size(), -1);
            for (std::size_t i = 0; i < answers.size(); ++i) {
                const Forces all = facing(answers[i].forces[k], at_end, length);
                const Stress stress = stresses[p.section].of(all);
                OfCase& c = out.cases[of_case[i]];
                if (stress.mises > worst[of_case[i]]) {
                    worst[of_case[i]] = stress.mises;
                    place.in_case[of_case[i]] = {all.axial, all.along_y, all.along_z, all.twist, all.about_y, all.about_z};
                }
                if (stress.mises > c.stress_mpa) c.stress_mpa = stress.mises;
                const double margin = stress.mises > 0 ? yield / 1.5 / stress.mises : 0;
                if (margin > 0 && (c.margin == 0 || margin < c.margin)) {
                    c.margin = margin;
                    c.line = line.name;
                    c.at = place.at;
                }
                if (place.yield_mpa == 0 || stress.mises / yield > place.stress_mpa / place.yield_mpa) {
                    place.stress_mpa = stress.mises;
                    place.yield_mpa = yield;
                    place.worst_case = of_case[i];
                }
            }
            const Forces f = facing(rest.forces[k], at_end, length);
            const double range = 2 * std::abs(stresses[p.section].of(f).along); // from 0 g to 2 g
            place.range_mpa = std::max(place.range_mpa, range);
            place.upright_nmm = f.about_y;
            place.level_nmm = f.about_z;
            place.twist_nmm = f.twist;
            place.shear_n = f.along_z;
            place.axial_n = f.axial;
        }
    }
}

/// The most that a place stands under the plane of its seats (three of them make it; the fourth is one more place).
void readSinking(const Assembly& a, const Answer& answer, OfCase& c) {
    const auto moved = [&](std::size_t n) {
        const Vec3 p = a.model.nodes[n].at;
        return Vec3{p.x_mm, p.y_mm, answer.moves[n][2]};
    };
    std::array<std::size_t, 3> three{a.seats[0], a.seats[1], a.seats[2]};
    if (c.lifted && *c.lifted < 3) three[*c.lifted] = a.seats[3];
    const Vec3 o = moved(three[0]);
    const Vec3 n = geometry::cross(minus(moved(three[1]), o), minus(moved(three[2]), o));
    for (std::size_t l = 0; l < a.stops.size(); ++l)
        for (const Stop& stop : a.stops[l]) {
            const Vec3 p = moved(stop.node);
            const double plane = n.z_mm != 0 ? o.z_mm - (n.x_mm * (p.x_mm - o.x_mm) + n.y_mm * (p.y_mm - o.y_mm)) / n.z_mm : 0;
            if (std::abs(p.z_mm - plane) > std::abs(c.sinks_mm)) {
                c.sinks_mm = plane - p.z_mm;
                c.sinks_at = stop.at;
            }
        }
}

/// The lowest way to swing in which left and right go against each other, and in which both go together.
void readModes(const Assembly& a, Outcome& out) {
    constexpr int asked = 12; // six of them are of moving as a whole
    const auto list = modes(a.model, asked);
    if (!list) return;
    for (const Mode& m : *list) {
        if (m.hz < 0.5) continue;
        double up = 0, roll = 0, aside = 0;
        for (std::size_t n = 0; n < a.model.nodes.size(); ++n) {
            const auto& u = m.moves[n];
            const double y = a.model.nodes[n].at.y_mm;
            up += u[2] * u[2];
            aside += u[0] * u[0] + u[1] * u[1];
            roll += u[2] * (y > 0 ? 1 : y < 0 ? -1 : 0);
            if (std::abs(y) < 1) roll += std::abs(u[3]) * 300; // a spine rolls on the spot
        }
        if (aside > up) continue;
        double odd = 0, even = 0; // by pairs: sums over each side at like stations
        for (std::size_t n = 0; n < a.model.nodes.size(); ++n)
            for (std::size_t o = n + 1; o < a.model.nodes.size(); ++o) {
                const Vec3 p = a.model.nodes[n].at, q = a.model.nodes[o].at;
                if (std::abs(p.x_mm - q.x_mm) > 50 || p.y_mm * q.y_mm >= 0 || std::abs(p.y_mm + q.y_mm) > 100) continue;
                odd += std::pow(m.moves[n][2] - m.moves[o][2], 2);
                even += std::pow(m.moves[n][2] + m.moves[o][2], 2);
            }
        const bool torsion = odd + even > 0 ? odd > even : roll > up;
        auto& hz = torsion ? out.torsion_hz : out.bending_hz;
        if (!hz) hz = m.hz;
    }
}

void begin(const Structure& s, const Assembly& a, const Bearing& bearing, Outcome& out) {
    out.open = a.open;
    out.loose = a.loose;
    out.beams = a.parts.size();
    out.length_mm = bearing.length();
    out.mass_kg = bearing.steel();
    out.all_kg = bearing.all();
    out.centre_mm = bearing.centre().x_mm;
    out.centre_up_mm = bearing.centre().z_mm;
    for (std::size_t l = 0; l < s.lines.size(); ++l) {
        OfLine line;
        line.name = s.lines[l].name;
        for (const Stop& stop : a.stops[l]) {
            AtPlace p;
            p.along_mm = stop.along_mm;
            p.at = stop.at;
            p.weld = stop.joint;
            line.places.push_back(p);
        }
        out.lines.push_back(std::move(line));
    }
    for (const Case& c : s.cases) {
        OfCase one;
        one.asked = c;
        one.lifted = bearing.lifted(c);
        one.tips = one.lifted && bearing.tips(*one.lifted);
        out.cases.push_back(std::move(one));
    }
}

/// All cases of one state of its joints: worst figures are kept over both.
Result<void> bear(const Structure& s, const Assembly& a, const Bearing& bearing, bool first, Outcome& out) {
    // cases that stand alike are one factoring
    std::map<int, std::vector<std::size_t>> alike;
    for (std::size_t k = 0; k < out.cases.size(); ++k)
        if (!out.cases[k].tips) alike[out.cases[k].lifted ? static_cast<int>(*out.cases[k].lifted) : -1].push_back(k);
    alike[-1]; // at rest it is asked in any case
    Answer rest;
    std::vector<Answer> answers;
    std::vector<std::size_t> of_case;
    for (const auto& [wheel, cases] : alike) {
        const Model m = bearing.standing(wheel < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(wheel)));
        std::vector<Load> loads;
        for (const std::size_t k : cases) loads.push_back(bearing.load(out.cases[k].asked));
        if (wheel < 0) loads.push_back(bearing.load(Case{}));
        auto answer = solve(m, loads);
        if (!answer) return answer.error();
        if (wheel < 0) {
            rest = std::move(answer->back());
            answer->pop_back();
        }
        for (std::size_t i = 0; i < cases.size(); ++i) {
            OfCase& c = out.cases[cases[i]];
            const Answer& one = (*answer)[i];
            c.unbalanced = std::max(c.unbalanced, one.unbalanced);
            if (first) {
                for (std::size_t k = 0; k < wheels; ++k) c.carry_n[k] = one.reactions[a.seats[k]][2];
                readSinking(a, one, c);
            }
            of_case.push_back(cases[i]);
            answers.push_back(std::move((*answer)[i]));
        }
    }
    readStresses(s, a, answers, of_case, rest, out);
    if (!first) return {};
    for (std::size_t k = 0; k < a.parts.size(); ++k) {
        const Beam& b = a.model.beams[k];
        const auto move = [&](std::size_t node, const Vec3& arm) {
            const auto& u = rest.moves[node];
            return plus(Vec3{u[0], u[1], u[2]}, geometry::cross({u[3], u[4], u[5]}, arm));
        };
        out.shape.push_back({a.parts[k].line, plus(a.model.nodes[b.from].at, b.arm_from), plus(a.model.nodes[b.to].at, b.arm_to),
                             move(b.from, b.arm_from), move(b.to, b.arm_to)});
    }
    return {};
}

} // namespace

double alongTo(const Line& l, double station) {
    double done = 0;
    for (std::size_t k = 1; k < l.points.size(); ++k) {
        const double length = between(l.points[k - 1], l.points[k]), dx = l.points[k].x_mm - l.points[k - 1].x_mm;
        if (station <= l.points[k].x_mm || k + 1 == l.points.size())
            return done + (dx > 0 ? std::clamp((station - l.points[k - 1].x_mm) / dx, 0.0, 1.0) : 0) * length;
        done += length;
    }
    return done;
}
Vec3 placeAlong(const Line& l, double along_mm) {
    double done = 0;
    for (std::size_t k = 1; k < l.points.size(); ++k) {
        const double length = between(l.points[k - 1], l.points[k]);
        if (along_mm <= done + length || k + 1 == l.points.size())
            return geometry::along(l.points[k - 1], l.points[k],
                                   length > 0 ? std::clamp((along_mm - done) / length, 0.0, 1.0) : 0);
        done += length;
    }
    return l.points.front();
}
double flatRib_nmm3(double height, double width, double thickness, double g_mpa) {
    return g_mpa * height * width * thickness * thickness * thickness / 3;
}
double uprightRib_nmm3(double height, double torsion_mm4, double g_mpa) { return g_mpa * height * torsion_mm4; }

Result<Stiffness> twistOf(const Structure& s, SectionBook& book) {
    Stiffness t;
    for (const bool held : {false, true}) {
        const auto a = assemble(s, book, held, false);
        if (!a) return a.error();
        const auto one = twisted(*a);
        if (!one) return one.error();
        (held ? t.held_nm_deg : t.free_nm_deg) = *one;
    }
    return t;
}

Result<Outcome> analyse(const Structure& s, SectionBook& book) {
    Outcome out;
    for (const bool held : {false, true}) {
        const auto a = assemble(s, book, held, false);
        if (!a) return a.error();
        const Bearing bearing(s, *a);
        if (!held) begin(s, *a, bearing, out);
        const auto one = twisted(*a);
        if (!one) return one.error();
        (held ? out.twist.held_nm_deg : out.twist.free_nm_deg) = *one;
        if (auto ok = bear(s, *a, bearing, !held, out); !ok) return ok.error();
        if (!held) readModes(*a, out);
        if (s.body_nm_deg && s.mounts.size() >= 4) {
            const auto with = assemble(s, book, held, true);
            if (!with) return with.error();
            const auto stiffer = twisted(*with);
            if (!stiffer) return stiffer.error();
            if (!out.with_body) out.with_body.emplace();
            (held ? out.with_body->held_nm_deg : out.with_body->free_nm_deg) = *stiffer;
        }
    }
    return out;
}

Result<Stiffness> twistOf(const Structure& s) {
    SectionBook book;
    return twistOf(s, book);
}
Result<Outcome> analyse(const Structure& s) {
    SectionBook book;
    return analyse(s, book);
}

} // namespace gorvet::frame
