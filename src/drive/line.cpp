// The drive line as it stands: chains, ends, situations, figures.
#include "drive/line.hpp"

#include "drive/line_parts.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using build::DriveEndKind;
using geometry::RigidTransform;

namespace {

/// 1σ of a place that was typed and not surveyed: a tape's, engineering.md.
constexpr double typed_sigma_mm = 1.0;
constexpr double no_wheels_mm = 1e-9;

/// A direction of length 1 that goes down by its slope and to the right by its swing, rearward.
Vec3 lineOf(double slope, double swing) { return geometry::unit({1, std::tan(swing), -std::tan(slope)}); }
double slopeOf(const Vec3& line) { return std::atan2(-line.z_mm, line.x_mm); }

Vec3 turnedDown(const Vec3& line, double by) { // about the axis across the car: down at the back
    const double c = std::cos(by), s = std::sin(by);
    return {line.x_mm * c + line.z_mm * s, line.y_mm, -line.x_mm * s + line.z_mm * c};
}

/// The angle from one direction to another, in two directions across the first.
std::array<double, 2> bent(const Vec3& from, const Vec3& to) {
    const Vec3 level = geometry::unit(geometry::cross({0, 0, 1}, from)), upright = geometry::cross(from, level);
    const Vec3 normal = geometry::cross(from, to);
    const double sine = geometry::length(normal), angle = angleBetween(from, to);
    const double scale = sine > 1e-15 ? angle / sine : 1;
    return {scale * geometry::dot(normal, level), scale * geometry::dot(normal, upright)};
}

std::size_t axleOf(Carrier c) { return c == Carrier::Front ? 0 : 1; }

/// All numbers that the figures come from, in one list: the places, then slope and swing of each end, then places that were
/// typed.
struct Numbers {
    std::vector<double> values, covariance, steps;
};

class Parameters {
public:
    Parameters(const LineInput& in, bool planned) : in_(in), planned_(planned) {
        const std::vector<Vec3>& at = planned ? in.planned : in.now.at;
        for (const Vec3& p : at)
            for (std::size_t axis = 0; axis < 3; ++axis) numbers_.values.push_back(p[axis]);
        const std::size_t n = 3 * at.size() + 5 * in.ends.size();
        numbers_.covariance.assign(n * n, 0.0);
        for (std::size_t i = 0; i < 3 * at.size(); ++i)
            for (std::size_t j = 0; j < 3 * at.size(); ++j)
                numbers_.covariance[i * n + j] = in.now.covariance[i * 3 * at.size() + j];
        numbers_.steps.assign(3 * at.size(), 0.01);
        for (const EndIn& e : in.ends) {
            const double slope = e.slope ? build::sigmaOfU95(e.slope->u95) : 0,
                         swing = e.has_line() && e.fore < 0 ? build::sigmaOfU95(e.swing.u95) : 0;
            add(n, e.slope ? e.slope->value : 0, slope, 1e-5);
            add(n, e.swing.value, swing, 1e-5);
            for (std::size_t axis = 0; axis < 3; ++axis)
                add(n, (planned ? e.at_planned : e.at)[axis], e.point < 0 ? typed_sigma_mm : 0, 0.01);
        }
        const std::size_t ends = in.ends.size();
        for (std::size_t a = 0; a < ends && in.slope_covariance.size() == ends * ends; ++a)
            for (std::size_t b = 0; b < ends; ++b)
                if (a != b)
                    numbers_.covariance[(3 * at.size() + 5 * a) * n + 3 * at.size() + 5 * b] = in.slope_covariance[a * ends + b];
    }
    const Numbers& numbers() const { return numbers_; }

    /// The figures of a chain in all situations: joints' angles in two directions, the residual's two parts, the lengths.
    std::vector<double> figures(const Chain& chain, const std::vector<Situation>& situations,
                                const std::vector<double>& values) const {
        LineInput in = in_;
        std::vector<Vec3> places(in.now.at.size());
        std::size_t k = 0;
        for (Vec3& p : places)
            for (std::size_t axis = 0; axis < 3; ++axis) p[axis] = values[k++];
        std::vector<std::array<double, 2>> slopes(in.ends.size());
        for (std::size_t e = 0; e < in.ends.size(); ++e) {
            slopes[e] = {values[k], values[k + 1]};
            k += 2;
            for (std::size_t axis = 0; axis < 3; ++axis) (planned_ ? in.ends[e].at_planned : in.ends[e].at)[axis] = values[k++];
        }
        const Ends ends = endsOf(in, places, slopes, planned_);
        Carried carried(in, places);
        std::vector<double> out;
        for (const Situation& s : situations) {
            const Bare bare = bareOf(in, chain, ends, carried, s);
            for (const auto& a : bare.angles) out.insert(out.end(), a.begin(), a.end());
            out.insert(out.end(), bare.residual.begin(), bare.residual.end());
            out.insert(out.end(), bare.lengths.begin(), bare.lengths.end());
        }
        return out;
    }

private:
    void add(std::size_t n, double value, double sigma, double step) {
        const std::size_t k = numbers_.values.size();
        numbers_.values.push_back(value);
        numbers_.covariance[k * n + k] = sigma * sigma;
        numbers_.steps.push_back(step);
    }
    const LineInput& in_;
    bool planned_;
    Numbers numbers_;
};

/// The size of a figure in two directions: its ± along it where it is well away from nothing, else the larger.
Figure sizeOf(const build::Propagated& p, std::size_t at) {
    const std::size_t m = p.figures.size();
    const double a = p.figures[at].value, b = p.figures[at + 1].value, size = std::hypot(a, b);
    const double aa = p.covariance[at * m + at], ab = p.covariance[at * m + at + 1], bb = p.covariance[(at + 1) * m + at + 1];
    const double most = (aa + bb) / 2 + std::sqrt((aa - bb) * (aa - bb) / 4 + ab * ab);
    double variance = most;
    if (size > 3 * std::sqrt(most)) variance = (a * a * aa + 2 * a * b * ab + b * b * bb) / (size * size);
    return {size, build::u95Of(std::sqrt(std::max(0.0, variance))), build::Provenance::Derived};
}

std::vector<Standing> standsOf(const LineInput& in, const Chain& chain, const std::vector<Situation>& situations, bool planned) {
    const Parameters p(in, planned);
    const Numbers& n = p.numbers();
    const build::Propagated all = build::figuresOf(
        n.values, n.covariance, n.steps, [&](const std::vector<double>& values) { return p.figures(chain, situations, values); });
    const std::size_t joints = jointsOf(in, chain).size();
    std::vector<Standing> out;
    std::size_t k = 0;
    for (const Situation& s : situations) {
        Standing stands;
        stands.situation = s;
        for (std::size_t j = 0; j < joints; ++j, k += 2) stands.angles_rad.push_back(sizeOf(all, k));
        const Figure squared = sizeOf(all, k);
        k += 2;
        const double angle = std::sqrt(squared.value);
        stands.residual_rad = {angle, std::sqrt(squared.value + squared.u95) - angle, build::Provenance::Derived};
        for (std::size_t l = 0; l < chain.size(); ++l) stands.lengths_mm.push_back(all.figures[k++]);
        out.push_back(std::move(stands));
    }
    return out;
}

Figure farthest(const std::vector<Standing>& stands, std::size_t shaft, bool longest, std::string& at) {
    const Standing* most = &stands.front();
    for (const Standing& s : stands)
        if (longest ? s.lengths_mm[shaft].value > most->lengths_mm[shaft].value
                    : s.lengths_mm[shaft].value < most->lengths_mm[shaft].value)
            most = &s;
    at = most->situation.name;
    return most->lengths_mm[shaft];
}

ShaftPlan shaftPlan(const LineInput& in, const ChainPlan& chain, std::size_t k, const build::Shaft& s, double top_rpm) {
    ShaftPlan p;
    p.name = s.name;
    p.length_mm = chain.stands.front().lengths_mm[k];
    if (chain.now) p.now_mm = chain.now->lengths_mm[k];
    p.shortest_mm = farthest(chain.stands, k, false, p.shortest_at);
    p.longest_mm = farthest(chain.stands, k, true, p.longest_at);
    TubeNeed need;
    need.length_mm = p.longest_mm.value;
    need.top_rpm = top_rpm;
    if (in.torque_Nm && in.first_gear) need.torque_Nm = *in.torque_Nm * *in.first_gear * in.low_range.value_or(1);
    if (s.tube && s.wall) {
        p.tube = Tube{s.tube->value, s.wall->value};
        p.critical_rpm = criticalRpm(*p.tube, need.length_mm);
        if (need.torque_Nm > 0) p.shear_mpa = shearMpa(*p.tube, need.torque_Nm);
    }
    p.lightest = lightestTube(need);
    for (const Standing& stands : chain.stands)
        for (std::size_t j = 0; j < chain.joints.size(); ++j)
            if (chain.joints[j].shaft == k && stands.angles_rad[j].value >= p.most_angle_rad.value) {
                p.most_angle_rad = stands.angles_rad[j];
                p.most_angle_at = stands.situation.name;
            }
    return p;
}

bool sameStand(const Standing& a, const Standing& b) {
    for (std::size_t k = 0; k < a.angles_rad.size(); ++k)
        if (std::abs(a.angles_rad[k].value - b.angles_rad[k].value) > 1e-6) return false;
    for (std::size_t k = 0; k < a.lengths_mm.size(); ++k)
        if (std::abs(a.lengths_mm[k].value - b.lengths_mm[k].value) > 0.01) return false;
    return true;
}

void sweepChain(const LineInput& in, const Chain& chain, ChainPlan& plan) {
    const Ends ends = endsOf(in, in.planned, slopesOf(in), true);
    Carried carried(in, in.planned);
    for (int k = -10; k <= 10; ++k) {
        Situation s;
        s.front = s.rear = k / 10.0;
        const Bare bare = bareOf(in, chain, ends, carried, s);
        SweepRow row;
        row.share = s.rear;
        for (const auto& a : bare.angles) row.angles_rad.push_back(angleOf(a));
        row.lengths_mm = bare.lengths;
        row.at = bare.at;
        row.pinion_slope_rad = bare.pinion_slope;
        plan.sweep.push_back(std::move(row));
        if (k == 0) plan.exact_lead_rad = exactLead(bare.joints);
    }
}

/// The slope that the pinion has by the school, at rest.
std::optional<double> schoolSlope(const LineInput& in, const Chain& chain) {
    const ShaftIn& last = in.shafts[chain.back()];
    if (in.ends[last.to].kind != DriveEndKind::Pinion) return {};
    const Ends ends = endsOf(in, in.planned, slopesOf(in), true);
    const double engine = slopeOf(ends.line[in.shafts[chain.front()].from]);
    const Vec3 &begins = ends.at[last.from], &until = ends.at[last.to];
    const double shaft = slopeOf(runsForward({begins, until}) ? geometry::minus(begins, until) : geometry::minus(until, begins));
    switch (in.layout) {
    case build::DriveLayout::Parallel: return engine - in.wind_up_rad;
    case build::DriveLayout::Mirrored: return 2 * shaft - engine - in.wind_up_rad;
    case build::DriveLayout::Level: return -in.wind_up_rad;
    case build::DriveLayout::Preset: return engine - std::max(in.wind_up_rad, 1.5 * std::numbers::pi / 180);
    }
    return {};
}

} // namespace

std::string freedomWords(const Motion& m) {
    const double turn = 1000; // mm at which a turn counts
    const double parts[] = {std::abs(m.shift.x_mm),       std::abs(m.shift.y_mm),       std::abs(m.shift.z_mm),
                            std::abs(m.turn.x_mm) * turn, std::abs(m.turn.y_mm) * turn, std::abs(m.turn.z_mm) * turn};
    static constexpr const char* words[] = {"go back and forth",           "go aside",    "go up and down", "roll",
                                            "turn its pinion up and down", "turn in plan"};
    return words[std::max_element(std::begin(parts), std::end(parts)) - std::begin(parts)];
}

Linkage linkageOf(const AxleIn& axle, const std::vector<Vec3>& at) {
    Linkage l;
    l.rack = axle.rack;
    l.left = at[axle.left];
    if (axle.right != axle.left) l.right = at[axle.right];
    for (const LinkIn& in : axle.links) {
        const auto p = [&](std::size_t k) { return at[in.points[k]]; };
        switch (in.kind) {
        case build::LinkKind::Rod: l.rods.push_back({in.name, p(0), p(1), false, false}); break;
        case build::LinkKind::TieRod: l.rods.push_back({in.name, p(0), p(1), true, false}); break;
        case build::LinkKind::Wishbone:
            l.rods.push_back({in.name + ", front leg", p(0), p(2), false, true});
            l.rods.push_back({in.name + ", rear leg", p(1), p(2), false, true});
            break;
        case build::LinkKind::Hinge:
            l.hinges.push_back({in.name, p(0)});
            l.hinges.push_back({in.name, p(1)});
            break;
        case build::LinkKind::Strut: l.struts.push_back({in.name, p(0), p(1)}); break;
        case build::LinkKind::Leaf: l.leaves.push_back({in.name, p(0), p(1), p(2), p(3)}); break;
        case build::LinkKind::Watts: l.watts.push_back({in.name, p(0), p(1), p(2), p(3), p(4)}); break;
        }
    }
    return l;
}

std::vector<Chain> chainsOf(const LineInput& in) {
    std::vector<Chain> all;
    for (std::size_t k = 0; k < in.shafts.size(); ++k) {
        if (in.ends[in.shafts[k].from].kind == DriveEndKind::Bearing) continue;
        Chain chain{k};
        while (in.ends[in.shafts[chain.back()].to].kind == DriveEndKind::Bearing) {
            const auto next = std::find_if(in.shafts.begin(), in.shafts.end(),
                                           [&](const ShaftIn& s) { return s.from == in.shafts[chain.back()].to; });
            if (next == in.shafts.end()) break;
            chain.push_back(static_cast<std::size_t>(next - in.shafts.begin()));
        }
        // a chain runs from a line to a line: what ends in a bearing with nothing behind it is none yet
        if (in.ends[in.shafts[chain.back()].to].has_line() && in.ends[in.shafts[k].from].has_line())
            all.push_back(std::move(chain));
    }
    return all;
}

std::vector<JointOf> jointsOf(const LineInput& in, const Chain& chain) {
    std::vector<JointOf> joints;
    for (std::size_t k = 0; k < chain.size(); ++k) {
        const ShaftIn& s = in.shafts[chain[k]];
        joints.push_back({"front of " + s.shaft.name, s.shaft.front, k, true});
        if (in.ends[s.to].kind != DriveEndKind::Bearing) joints.push_back({"rear of " + s.shaft.name, s.shaft.rear, k, false});
    }
    return joints;
}

std::vector<Situation> situationsOf(const LineInput& in, const Chain& chain) {
    bool front = false, rear = false, pinion = false;
    const auto look = [&](std::size_t end) {
        const EndIn& e = in.ends[end];
        front = front || e.on == Carrier::Front;
        rear = rear || e.on == Carrier::Rear || e.on == Carrier::SecondRear;
        pinion = pinion || (e.kind == DriveEndKind::Pinion && e.on != Carrier::Frame);
    };
    look(in.shafts[chain.front()].from);
    for (const std::size_t k : chain) look(in.shafts[k].to);
    std::vector<Situation> all{{"at rest", 0, 0, false}};
    if (pinion && in.wind_up_rad > 0) all.push_back({"under drive", 0, 0, true});
    if (front || rear) {
        all.push_back({"full bump", 1, 1, false});
        all.push_back({"full droop", -1, -1, false});
        all.push_back({"half bump", 0.5, 0.5, false});
        all.push_back({"half droop", -0.5, -0.5, false});
        if (pinion && in.wind_up_rad > 0) all.push_back({"full droop under drive", -1, -1, true});
    }
    if (front && rear) {
        all.push_back({"front bump, rear droop", 1, -1, false});
        all.push_back({"front droop, rear bump", -1, 1, false});
    }
    return all;
}

bool runsForward(const std::vector<Vec3>& at) { return at.back().x_mm < at.front().x_mm; }

std::vector<std::array<double, 2>> slopesOf(const LineInput& in) {
    std::vector<std::array<double, 2>> out;
    for (const EndIn& e : in.ends) out.push_back({e.slope ? e.slope->value : 0, e.swing.value});
    return out;
}

Ends endsOf(const LineInput& in, const std::vector<Vec3>& places, const std::vector<std::array<double, 2>>& slopes,
            bool planned) {
    Ends ends;
    for (std::size_t k = 0; k < in.ends.size(); ++k) {
        const EndIn& e = in.ends[k];
        Vec3 at = e.point >= 0 ? places[static_cast<std::size_t>(e.point)] : planned ? e.at_planned : e.at;
        Vec3 line;
        if (e.fore >= 0)
            line = geometry::unit(
                geometry::minus(places[static_cast<std::size_t>(e.aft)], places[static_cast<std::size_t>(e.fore)]));
        else if (e.slope)
            line = lineOf(slopes[k][0], slopes[k][1]);
        ends.at.push_back(at);
        ends.line.push_back(line);
    }
    if (!planned) return ends;
    const std::vector<Vec3> before = ends.at;
    for (std::size_t k = 0; k < in.ends.size(); ++k) {
        // a housing turns about the joint whose plan is said, and takes its others with it
        const std::size_t by = moverOf(in, k);
        const EndIn& mover = in.ends[by];
        const Vec3 arm = turnedDown(geometry::minus(before[k], before[by]), mover.turned_rad);
        ends.at[k] = geometry::plus(geometry::plus(before[by], mover.moved), arm);
        if (in.ends[k].has_line()) ends.line[k] = turnedDown(ends.line[k], mover.turned_rad);
    }
    return ends;
}

std::size_t moverOf(const LineInput& in, std::size_t end) {
    const EndIn& e = in.ends[end];
    if (e.housing < 0 || e.planned()) return end;
    for (std::size_t k = 0; k < in.ends.size(); ++k)
        if (in.ends[k].housing == e.housing && in.ends[k].planned()) return k;
    return end;
}

Carried::Carried(const LineInput& in, const std::vector<Vec3>& places) : in_(in) {
    if (in.front) linkage_[0] = linkageOf(*in.front, places);
    if (in.rear) linkage_[1] = linkageOf(*in.rear, places);
}

RigidTransform Carried::of(Carrier c, const Situation& s) {
    if (c == Carrier::Frame) return {};
    if (c == Carrier::SecondRear) { // its own links are not known, and those of the first would turn it about the wrong place
        RigidTransform straight;
        straight.translation.z_mm = s.rear > 0 ? s.rear * in_.bump_mm[1] : s.rear * in_.droop_mm[1];
        return straight;
    }
    return axle(axleOf(c), c == Carrier::Front ? s.front : s.rear);
}

RigidTransform Carried::axle(std::size_t which, double share) {
    const auto known = known_.find({which, share});
    if (known != known_.end()) return known->second;
    const double up = share > 0 ? share * in_.bump_mm[which] : share * in_.droop_mm[which];
    RigidTransform moved;
    moved.translation.z_mm = up;
    if (linkage_[which] && std::abs(up) > no_wheels_mm) {
        const auto stances = sweep(*linkage_[which], {{up, up, 0}});
        if (!stances.empty()) {
            moved = stances.front().moved;
            strain_mm_ = std::max(strain_mm_, stances.front().strain_mm);
        }
    }
    known_[{which, share}] = moved;
    return moved;
}

Bare bareOf(const LineInput& in, const Chain& chain, const Ends& ends, Carried& carried, const Situation& s) {
    Bare bare;
    std::vector<Vec3> line;
    const auto stand = [&](std::size_t e) {
        const RigidTransform moved = carried.of(in.ends[e].on, s);
        bare.at.push_back(moved.transformed(ends.at[e]));
        Vec3 l = moved.rotated(ends.line[e]);
        if (s.pulling && in.ends[e].kind == DriveEndKind::Pinion && in.ends[e].on != Carrier::Frame)
            l = turnedDown(l, in.wind_up_rad);
        line.push_back(l);
    };
    stand(in.shafts[chain.front()].from);
    for (const std::size_t k : chain) stand(in.shafts[k].to);
    bare.pinion_slope = slopeOf(line.back());
    // lines point rearward; a shaft to a front axle runs forward, and its turning with it
    if (runsForward(bare.at))
        for (Vec3& l : line) l = geometry::times(l, -1);
    Vec3 before = line.front();
    double clock = 0;
    for (std::size_t k = 0; k < chain.size(); ++k) {
        const ShaftIn& shaft = in.shafts[chain[k]];
        const Vec3 along = geometry::minus(bare.at[k + 1], bare.at[k]);
        bare.lengths.push_back(geometry::length(along));
        const Vec3 axis = geometry::unit(along);
        bare.joints.push_back({before, axis, shaft.shaft.front != JointKind::Cross, clock});
        clock = shaft.shaft.phase ? shaft.shaft.phase->value : 0;
        before = axis;
        if (in.ends[shaft.to].kind != DriveEndKind::Bearing)
            bare.joints.push_back({axis, line[k + 1], shaft.shaft.rear != JointKind::Cross, clock});
    }
    for (const ChainJoint& j : bare.joints) bare.angles.push_back(bent(j.in, j.out));
    const std::complex<double> residual = residualSquared(bare.joints);
    bare.residual = {residual.real(), residual.imag()};
    return bare;
}

LineInput heldOnly(const LineInput& given, std::vector<std::string>* loose) {
    LineInput in = given;
    const auto look = [&](std::optional<AxleIn>& axle, const char* name) {
        if (!axle) return;
        const Linkage l = linkageOf(*axle, in.planned);
        std::string why;
        for (const Motion& m : freedoms(l)) why += (why.empty() ? "" : " and ") + freedomWords(m);
        if (!why.empty()) {
            why = fmt::format(
                "The {} axle can still {}: nothing that is said of it holds it there. It is drawn as if it went straight up and down.",
                name, why);
        } else {
            for (const double up : {axle->bump_mm, -axle->droop_mm})
                if (why.empty() && std::abs(up) > no_wheels_mm && sweep(l, {{up, up, 0}}).empty())
                    why = fmt::format(
                        "The {} axle's links lock before {:.0f} mm of {}: measure them once more. It is drawn as if it went straight up and down.",
                        name, std::abs(up), up > 0 ? "bump" : "droop");
        }
        if (why.empty()) {
            constexpr double hardly = 0.05;
            for (const Motion& m : freedoms(l, hardly))
                if (loose)
                    loose->push_back(fmt::format(
                        "The {} axle's links hardly keep it where it is: 1 mm of give in a bush lets it {} by 20 mm and more.",
                        name, freedomWords(m)));
            return;
        }
        axle.reset();
        if (loose) loose->push_back(std::move(why));
    };
    look(in.front, "front");
    look(in.rear, "rear");
    return in;
}

LinePlan linePlan(const LineInput& given) {
    LinePlan plan;
    const LineInput in = heldOnly(given, &plan.loose);
    plan.top_rpm = in.redline_rpm / in.top_gear;
    const std::vector<Chain> chains = chainsOf(in);
    for (const Chain& chain : chains) {
        ChainPlan p;
        p.name = fmt::format("{} to {}", in.ends[in.shafts[chain.front()].from].name, in.ends[in.shafts[chain.back()].to].name);
        p.joints = jointsOf(in, chain);
        p.stands = standsOf(in, chain, situationsOf(in, chain), true);
        Standing now = standsOf(in, chain, {{"at rest", 0, 0, false}}, false).front();
        if (!sameStand(now, p.stands.front())) p.now = std::move(now);
        sweepChain(in, chain, p);
        for (std::size_t k = 0; k < chain.size(); ++k)
            p.shafts.push_back(shaftPlan(in, p, k, in.shafts[chain[k]].shaft, plan.top_rpm));
        p.school_rad = schoolSlope(in, chain);
        judgeChain(in, chain, p, plan.top_rpm);
        plan.chains.push_back(std::move(p));
    }
    for (std::size_t k = 0; k < chains.size(); ++k)
        if (plan.chains[k].verdict != PlanVerdict::Holds) findRemedies(in, chains, k, plan.chains);
    Carried carried(in, in.planned);
    for (const double share : {-1.0, 1.0})
        for (const Carrier c : {Carrier::Front, Carrier::Rear}) carried.of(c, {"", share, share, false});
    plan.strain_mm = carried.strain_mm();
    return plan;
}

} // namespace gorvet::drive
