// What the build says of its wheels, how they move, and what the scans show beside them.
#include "analysis/drive.hpp"
#include "analysis/fixed_points.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/scans.hpp"
#include "analysis/travel.hpp"
#include "analysis/wheels.hpp"
#include "drive/degree.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using drive::Corner;
using drive::HubPose;
using drive::WheelsIn;
using geometry::RigidTransform;

namespace {

/// Where nobody marked the wheels: half a usual track, for how an axle leans.
constexpr double half_track_mm = 700;
/// What goes with the hub is clear of its own tyre by so much at least. Common practice.
constexpr double beside_hub_mm = 6;
/// A tyre and the links that carry it, which give in their bushes; how thick such a link is to each side of its middle at the
/// most, for nobody says.
constexpr double beside_link_mm = 10, half_link_mm = 20;

class WheelsAsked {
public:
    WheelsAsked(const Build& b, const Results& r, AxleEnd end)
        : b_(b), r_(r), end_(end), front_(end == AxleEnd::Front), points_(b, r.chassis) {}

    std::optional<WheelsIn> ask() {
        const auto held = [&](const auto* row, auto& out) {
            if (row) out = *row;
        };
        held(wheelSetOf(b_, end_, WheelAs::Fitted), in_.fitted);
        held(wheelSetOf(b_, end_, WheelAs::Wanted), in_.wanted);
        held(hubOf(b_, end_), in_.hub);
        held(wideningOf(b_, end_), in_.widening);
        held(adaptorOf(b_, end_), in_.adaptor);
        const bool rooms =
            std::any_of(b_.wheel_rooms.begin(), b_.wheel_rooms.end(), [&](const auto& row) { return row.second.end == end_; });
        if (!in_.fitted && !in_.wanted && !in_.hub && !in_.widening && !in_.adaptor && !rooms) return std::nullopt;
        in_.name = word(end_);
        in_.front = front_;
        facts();
        centres();
        for (std::size_t side = 0; side < 2; ++side) {
            in_.corners[side].name = side == 0 ? "left" : "right";
            in_.corners[side].right = side == 1;
            in_.corners[side].centre = side;
            in_.corners[side].poses = poses(side == 1);
            if (in_.fitted) links(side);
        }
        for (const auto& [id, room] : b_.wheel_rooms)
            if (room.end == end_) beside(room);
        finish();
        std::sort(in_.assumed.begin(), in_.assumed.end());
        in_.assumed.erase(std::unique(in_.assumed.begin(), in_.assumed.end()), in_.assumed.end());
        return std::move(in_);
    }

private:
    void assume(const build::Dimension& d, std::string what) {
        if (d.provenance == Provenance::Assumed) in_.assumed.push_back(std::move(what));
    }
    void facts() {
        for (const auto& [id, w] : b_.wheels) {
            const bool rear = w.wheel == Wheel::RearLeft || w.wheel == Wheel::RearRight;
            if (!w.weight || rear == front_) continue;
            if (!in_.wheel_kg || w.weight->value > in_.wheel_kg->value)
                in_.wheel_kg = Figure{w.weight->value, 0, w.weight->provenance};
            assume(*w.weight, fmt::format("what the {} wheel carries", word(w.wheel)));
        }
        if (b_.drive_facts.cruise_kmh) in_.cruise_kmh = b_.drive_facts.cruise_kmh->value;
        if (b_.drive_facts.tyre_mm && driven()) in_.drive_tyre_mm = b_.drive_facts.tyre_mm->value;
        for (const auto* w : {in_.fitted ? &*in_.fitted : nullptr, in_.wanted ? &*in_.wanted : nullptr}) {
            if (!w) continue;
            assume(w->width, "the width of the rim");
            if (w->backspace) assume(*w->backspace, "the backspace");
            if (w->offset) assume(*w->offset, "the offset");
            if (w->tyre) assume(*w->tyre, "the tyre's width");
        }
    }
    bool driven() const {
        return std::any_of(b_.drive_ends.begin(), b_.drive_ends.end(), [&](const auto& row) {
            return row.second.kind == DriveEndKind::Pinion && (row.second.on == Carrier::Front) == front_;
        });
    }
    /// An axle from wheel to wheel: links, a pinion that moves with it, or a change of its width say so.
    bool beam() const {
        return axleJobOf(b_, end_) ||
               std::any_of(b_.links.begin(), b_.links.end(),
                           [&](const auto& row) { return row.second.of == (front_ ? Hung::FrontAxle : Hung::RearAxle); }) ||
               std::any_of(b_.drive_ends.begin(), b_.drive_ends.end(), [&](const auto& row) {
                   return row.second.on == (front_ ? Carrier::Front : Carrier::Rear) && row.second.kind == DriveEndKind::Pinion;
               });
    }

    // ---- places

    void centres() {
        std::array<int, 2> at{-1, -1};
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || p.role != (front_ ? Role::FrontHub : Role::RearHub)) continue;
            const Side side = sideOf(p.name);
            if (side != Side::None) at[side == Side::Right ? 1 : 0] = points_.take(id);
            hung_ = hung_ || measuredHanging(b_, id);
        }
        marked_ = at[0] >= 0 && at[1] >= 0;
        if (!marked_) {
            own_.names = {"left", "right"};
            own_.at = {{0, -half_track_mm, 300}, {0, half_track_mm, 300}};
            in_.assumed.emplace_back("the track");
            return;
        }
        hubs_ = {static_cast<std::size_t>(at[0]), static_cast<std::size_t>(at[1])};
    }
    Vec3 hub(std::size_t side) {
        if (!marked_) return own_.at[side];
        return r_.planned_chassis.mapHub(points_.places().at[hubs_[side]], !front_);
    }

    /// The wheels' own places first, then what is marked: of the chassis with the covariance of its survey, of the body with the
    /// ± of its survey and of the seat.
    void finish() {
        if (hung_ && in_.fitted && !b_.scans.empty()) assumeHung();
        Places chassis = marked_ ? points_.places() : Places{};
        if (!marked_) {
            // what is marked has no wheel to stand beside
            for (Corner& c : in_.corners) c.marked.clear();
            in_.places = own_;
            in_.places.covariance.assign(36, 0);
            return;
        }
        std::vector<std::size_t> order{hubs_[0], hubs_[1]};
        order.insert(order.end(), frame_.begin(), frame_.end());
        const std::size_t n = order.size() + body_.at.size(), of = chassis.at.size();
        Places& out = in_.places;
        out.covariance.assign(9 * n * n, 0);
        for (std::size_t i = 0; i < order.size(); ++i) {
            out.names.push_back(chassis.names[order[i]]);
            out.at.push_back(i < 2 ? r_.planned_chassis.mapHub(chassis.at[order[i]], !front_)
                                   : r_.planned_chassis.map(chassis.at[order[i]]));
            for (std::size_t j = 0; j < order.size(); ++j)
                for (std::size_t a = 0; a < 3; ++a)
                    for (std::size_t c = 0; c < 3; ++c)
                        out.covariance[(3 * i + a) * 3 * n + 3 * j + c] =
                            chassis.covariance[(3 * order[i] + a) * 3 * of + 3 * order[j] + c];
        }
        for (std::size_t k = 0; k < body_.at.size(); ++k) {
            out.names.push_back(body_.names[k]);
            out.at.push_back(body_.at[k]);
            const std::size_t i = 3 * (order.size() + k);
            for (std::size_t a = 0; a < 3; ++a) out.covariance[(i + a) * 3 * n + i + a] = body_.covariance[k];
        }
        for (Corner& c : in_.corners)
            for (drive::MarkedThing& m : c.marked) m.place = m.on == RoomOn::Body ? order.size() + m.place : 2 + m.place;
    }

    void beside(const WheelRoom& room) {
        drive::RoomThing thing{room.name, "room:" + room.name, room.on, 0, true, false};
        const Placing placing = placingOf(b_, r_);
        const PairNeed need = pairNeed(placing, room.on == RoomOn::Body ? ScanPart::Body : ScanPart::Chassis, ScanPart::Wheel);
        thing.least_mm = room.least ? room.least->value : room.on == RoomOn::Hub ? beside_hub_mm : need.least_mm + need.finish_mm;
        thing.least_assumed = !room.least && (room.on == RoomOn::Hub || need.assumed);
        if (room.point) {
            marked(room, thing);
            return;
        }
        for (std::size_t side = 0; side < 2; ++side) {
            if (room.side == (side == 0 ? RailSide::Right : RailSide::Left)) continue;
            drive::TapedThing t{thing, room.from, taped(*room.out), taped(*room.up), {}};
            t.ahead_mm = room.ahead ? taped(*room.ahead) : Figure{0, 20, Provenance::Derived};
            t.assumed = room.out->provenance == Provenance::Assumed || room.up->provenance == Provenance::Assumed;
            if (t.assumed) in_.assumed.push_back("where " + room.name + " stands");
            in_.corners[side].taped.push_back(std::move(t));
        }
        if (room.on != RoomOn::Hub && movesAway(room.on))
            in_.assumed.push_back(
                fmt::format("that {} stands so beside the wheel once all is as planned: it was taped before", room.name));
    }
    void assumeHung() {
        in_.assumed.push_back(fmt::format(
            "that the {} wheels hung as they stand: the car stood on something else when they were measured", word(end_)));
    }
    /// Whether the plan moves the wheels against what was taped beside them: an axle or a chassis made narrower, a body over a
    /// cut.
    bool movesAway(RoomOn on) const {
        const AxleJob* job = axleJobOf(b_, end_);
        const bool narrower = (job && job->faces_wanted && std::abs(job->faces_wanted->value - job->faces.value) > 0.5) ||
                              std::abs(front_ ? r_.planned_chassis.front_track_mm : r_.planned_chassis.rear_track_mm) > 0.5;
        return narrower || (on == RoomOn::Body && !front_ && r_.planned_chassis.cuts());
    }
    static Figure taped(const build::Dimension& d) { return {d.value, drive::tape_u95_mm, d.provenance}; }
    void marked(const WheelRoom& room, const drive::RoomThing& thing) {
        const Point& p = b_.points.at(room.point);
        drive::MarkedThing m{thing, 0};
        double side = 0;
        if (p.subject == the_body) {
            const auto at = r_.bodyInChassis(room.point);
            if (!at) {
                in_.assumed.push_back(fmt::format("that nothing stands at {}: the body is not seated there", room.name));
                return;
            }
            const tape::AdjustedPoint& own = r_.body.solution->points[static_cast<std::size_t>(r_.body.indexOf(room.point))];
            double variance = 0;
            for (const double h : r_.seat->pose_u95_mm)
                if (std::isfinite(h)) variance = std::max(variance, std::pow(sigmaOfU95(h), 2));
            double own_variance = 0;
            for (const double sd : own.sd_mm)
                if (std::isfinite(sd)) own_variance = std::max(own_variance, sd * sd);
            m.place = body_.at.size();
            m.assumed = own.assumed;
            body_.names.push_back(room.name);
            body_.at.push_back(*at);
            body_.covariance.push_back(variance + own_variance);
            side = at->y_mm;
        } else {
            const int k = points_.take(room.point);
            if (k < 0) {
                in_.assumed.push_back(fmt::format("that nothing stands at {}: measure it on Tape", room.name));
                return;
            }
            m.place = frame_.size();
            frame_.push_back(static_cast<std::size_t>(k));
            const auto& lost = points_.assumed();
            m.assumed = std::find(lost.begin(), lost.end(), p.name) != lost.end();
            side = points_.places().at[static_cast<std::size_t>(k)].y_mm;
        }
        if (m.assumed) in_.assumed.push_back("where " + room.name + " stands");
        const RailSide of = sideOf(p.name) == Side::Left    ? RailSide::Left
                            : sideOf(p.name) == Side::Right ? RailSide::Right
                            : side < 0                      ? RailSide::Left
                                                            : RailSide::Right;
        if (hung_) assumeHung();
        if (room.side != RailSide::Both && room.side != of) return;
        in_.corners[of == RailSide::Right ? 1 : 0].marked.push_back(std::move(m));
    }

    // ---- motion

    std::vector<HubPose> poses(bool right) {
        const WheelTravel& t = b_.travel;
        const build::Dimension &bump = front_ ? t.front_bump : t.rear_bump, &droop = front_ ? t.front_droop : t.rear_droop;
        assume(bump, fmt::format("how far the {} wheels go up", word(end_)));
        assume(droop, fmt::format("how far the {} wheels go down", word(end_)));
        const bool leans = beam();
        const double lock = front_ ? t.lock.value : 0;
        if (front_) assume(t.lock, "how far the front wheels turn");
        const RigidTransform stood = leant(right, leans);
        std::vector<HubPose> all{{stood, ""}};
        std::vector<Stood>& stands = stands_[right ? 1 : 0];
        stands = {{}};
        const auto [from, to] = steeredAbout(right);
        constexpr int ups = 12, turns = 20;
        for (const double other : leans ? std::vector<double>{0, -1, 1} : std::vector<double>{0})
            for (const auto& [own, moved] : risen(right, leans, other, bump.value, droop.value, ups))
                for (int k = 0; k <= (lock > 0 ? turns : 0); ++k) {
                    const double angle = lock > 0 ? lock * (2.0 * k / turns - 1) : 0;
                    if (angle == 0 && own == 0 && other == 0) continue;
                    stands.push_back({moved, geometry::chained(moved, turnedAbout(from, to, angle))});
                    all.push_back({geometry::chained(stands.back().steered, stood),
                                   words(own > 0 ? own * bump.value : own * droop.value, other, leans, angle)});
                }
        return all;
    }
    /// The links of a wheel as they go with it: a tyre must clear them, too.
    void links(std::size_t side) {
        const drive::TravelIn* held = heldBy(r_, front_, side == 1);
        if (!held) return;
        for (const drive::LinkIn& l : held->held.links) {
            const auto& p = l.points;
            drive::CarriedThing thing;
            thing.name = l.name;
            thing.tag = "link:" + l.name;
            thing.on = RoomOn::Frame;
            thing.least_mm = beside_link_mm;
            thing.half_mm = half_link_mm;
            thing.at.resize(in_.corners[side].poses.size());
            if (l.kind == LinkKind::Wishbone)
                for (const std::size_t frame : {p[0], p[1]}) leg(thing, *held, frame, p[2], false, side);
            else if (l.kind == LinkKind::Rod || l.kind == LinkKind::TieRod)
                leg(thing, *held, p[0], p[1], l.kind == LinkKind::TieRod, side);
            if (!thing.at.front().empty()) in_.corners[side].carried.push_back(std::move(thing));
        }
    }
    /// Places along a rod or the leg of a wishbone, as far as they could come near to the tyre. What stands within the rim at
    /// rest is the wheel's own.
    void leg(drive::CarriedThing& thing, const drive::TravelIn& held, std::size_t frame, std::size_t outer, bool tie,
             std::size_t side) {
        constexpr double apart = 5, near = 480, rim_deep = 250;
        const Vec3 a = held.places.at[frame], b = held.places.at[outer], centre = hub(side);
        const double seat = in_.fitted->diameter.value / 2;
        const int steps = std::max(1, static_cast<int>(std::ceil(geometry::between(a, b) / apart)));
        for (int s = 0; s <= steps; ++s) {
            const double share = static_cast<double>(s) / steps;
            const Vec3 at = geometry::along(a, b, share);
            const bool inside =
                std::hypot(at.x_mm - centre.x_mm, at.z_mm - centre.z_mm) < seat && std::abs(at.y_mm - centre.y_mm) < rim_deep;
            if (inside || geometry::between(at, centre) > near) continue;
            for (std::size_t k = 0; k < thing.at.size(); ++k) {
                const Stood& stands = stands_[side][k];
                const Vec3 end = (tie ? stands.steered : stands.risen).transformed(b);
                Vec3 begin = a; // the rack follows the tie rod's outer end
                if (tie) begin.y_mm += end.y_mm - stands.risen.transformed(b).y_mm;
                thing.at[k].push_back(geometry::along(begin, end, share));
            }
        }
        const std::size_t n = 3 * held.places.at.size();
        for (const std::size_t of : {frame, outer})
            for (std::size_t axis = 0; axis < 3; ++axis)
                thing.u95_mm = std::max(thing.u95_mm, build::u95Of(std::sqrt(held.places.covariance[(3 * of + axis) * (n + 1)])));
    }
    /// How a wheel stands at rest against an upright one: by its camber, about the middle of its tyre.
    RigidTransform leant(bool right, bool leans) {
        const Wheel which =
            front_ ? (right ? Wheel::FrontRight : Wheel::FrontLeft) : (right ? Wheel::RearRight : Wheel::RearLeft);
        for (const auto& [id, w] : b_.wheels) {
            if (w.wheel != which || !w.camber) continue;
            assume(*w.camber, fmt::format("the camber of the {} wheel", word(which)));
            const Vec3 at = hub(right ? 1 : 0);
            // right-handed about the way rearward the top goes to the left
            return turnedAbout(at, {at.x_mm + 1, at.y_mm, at.z_mm}, right ? -w.camber->value : w.camber->value);
        }
        if (!leans) in_.assumed.push_back(fmt::format("that the {} wheels stand upright", word(end_)));
        return {};
    }
    /// Shares of its travel with where it stands then; the other wheel at that share of its own.
    std::vector<std::pair<double, RigidTransform>> risen(bool right, bool leans, double other, double bump, double droop,
                                                         int steps) {
        const auto up = [&](double share) { return share > 0 ? share * bump : share * droop; };
        std::vector<std::pair<double, RigidTransform>> list;
        if (const drive::TravelIn* held = heldBy(r_, front_, right)) {
            const drive::Linkage linkage = drive::linkageOf(held->held, held->places.at);
            in_.assumed.insert(in_.assumed.end(), held->assumed.begin(), held->assumed.end());
            for (const int way : {1, -1}) {
                std::vector<drive::Asked> asked;
                for (int k = 0; k <= steps / 2; ++k) {
                    const double own = up(way * 2.0 * k / steps), beside = leans ? up(other) : own;
                    asked.push_back({right ? beside : own, right ? own : beside, 0});
                }
                const auto stances = drive::sweep(linkage, asked);
                for (std::size_t k = way < 0 ? 1 : 0; k < stances.size(); ++k)
                    list.emplace_back(way * 2.0 * static_cast<double>(k) / steps, stances[k].moved);
            }
            return list;
        }
        const Vec3 left = hub(0), opposite = hub(1);
        const Vec3 middle = geometry::along(left, opposite, 0.5);
        for (int k = 0; k <= steps; ++k) {
            const double share = 2.0 * k / steps - 1;
            RigidTransform m;
            if (leans)
                m = axleMotion(middle, std::max(1.0, opposite.y_mm - left.y_mm), up(right ? other : share),
                               up(right ? share : other));
            else
                m.translation.z_mm = up(share);
            list.emplace_back(share, m);
        }
        if (leans || front_) in_.assumed.push_back(fmt::format("that the {} wheels go straight up and down", word(end_)));
        return list;
    }
    /// The axis that a front wheel is steered about: through both outer joints where they are marked, else an upright through the
    /// wheel's middle, which is a guess: a real one stands inboard and takes more room.
    std::pair<Vec3, Vec3> steeredAbout(bool right) {
        if (const drive::TravelIn* held = heldBy(r_, front_, right); held && held->upper && held->lower)
            return {held->places.at[*held->lower], held->places.at[*held->upper]};
        if (front_) in_.assumed.emplace_back("that the front wheels are steered about an upright through their middle");
        const Vec3 at = hub(right ? 1 : 0);
        return {at, {at.x_mm, at.y_mm, at.z_mm + 1}};
    }
    std::string words(double up, double other, bool leans, double angle) const {
        const auto travelled = [&](double mm) {
            return std::abs(mm) < 0.5 ? std::string()
                                      : fmt::format("at {} {}", sit::wholeLength(std::abs(mm), b_.settings.length_step),
                                                    mm > 0 ? "bump" : "droop");
        };
        std::string text = travelled(up);
        const auto join = [&](const std::string& part) { text += (text.empty() ? "" : ", ") + part; };
        if (leans && other != 0) join(fmt::format("the other wheel at full {}", other > 0 ? "bump" : "droop"));
        // right-handed about up: the wheel's front goes to the left
        if (std::abs(angle) > 1e-9)
            join(fmt::format("locked {:.0f}° to the {}", std::abs(angle) / drive::one_degree, angle > 0 ? "left" : "right"));
        return text;
    }

    const Build& b_;
    const Results& r_;
    AxleEnd end_;
    bool front_;
    FixedPoints points_;
    WheelsIn in_;
    Places own_;  ///< where nobody marked the wheels
    Places body_; ///< of the body, one variance each
    std::vector<std::size_t> frame_;
    std::array<std::size_t, 2> hubs_{0, 0};
    /// What a wheel is moved by in each pose: by its travel alone, and steered.
    struct Stood {
        RigidTransform risen, steered;
    };
    std::array<std::vector<Stood>, 2> stands_;
    bool marked_ = false;
    bool hung_ = false; ///< the wheels, when their centres were measured
};

/// Places of a scan's surface near a wheel, 4 mm apart at the most.
std::vector<Vec3> surfaceNear(const shape::Mesh& mesh, const RigidTransform& to_chassis, const Vec3& centre, double reach) {
    constexpr double apart = 4;
    std::vector<Vec3> out, at;
    at.reserve(mesh.points.size());
    for (const auto& p : mesh.points) at.push_back(to_chassis.transformed(p));
    const auto near = [&](const Vec3& p) { return geometry::between(p, centre) < reach; };
    if (mesh.triangles.empty()) std::copy_if(at.begin(), at.end(), std::back_inserter(out), near);
    for (const auto& t : mesh.triangles) {
        const Vec3 &a = at[t[0]], &b = at[t[1]], &c = at[t[2]];
        const double longest = std::max({geometry::between(a, b), geometry::between(b, c), geometry::between(c, a)});
        const Vec3 middle = geometry::times(geometry::plus(a, geometry::plus(b, c)), 1.0 / 3);
        if (geometry::between(middle, centre) > reach + longest) continue;
        const int steps = std::clamp(static_cast<int>(std::ceil(longest / apart)), 1, 400);
        for (int i = 0; i <= steps; ++i)
            for (int j = 0; i + j <= steps; ++j) {
                const double u = static_cast<double>(i) / steps, v = static_cast<double>(j) / steps;
                const Vec3 p = geometry::plus(
                    a, geometry::plus(geometry::times(geometry::minus(b, a), u), geometry::times(geometry::minus(c, a), v)));
                if (near(p)) out.push_back(p);
            }
    }
    return out;
}

} // namespace

std::optional<WheelsIn> wheelsInput(const Build& b, const Results& r, AxleEnd end) { return WheelsAsked(b, r, end).ask(); }

std::vector<Node<WheelsIn, drive::WheelsPlan>> wheelsOf(const Build& b, const Results& r, const Results* previous) {
    std::vector<Node<WheelsIn, drive::WheelsPlan>> all;
    for (const AxleEnd end : {AxleEnd::Front, AxleEnd::Rear}) {
        auto in = wheelsInput(b, r, end);
        if (!in) continue;
        const Node<WheelsIn, drive::WheelsPlan>* before = nullptr;
        if (previous)
            for (const auto& node : previous->wheels)
                if (node.input().name == in->name) before = &node;
        all.push_back(Node<WheelsIn, drive::WheelsPlan>::of(std::move(*in), before,
                                                            [](const WheelsIn& asked) { return drive::wheelsPlan(asked); }));
    }
    return all;
}

WheelsIn withScans(WheelsIn in, const Overlay& o) {
    if (!in.fitted || in.places.at.size() < 2) return in;
    const double seat = in.fitted->diameter.value / 2;
    for (Corner& corner : in.corners) {
        const Vec3 centre = in.places.at[corner.centre];
        const auto take = [&](const Overlay::Part& part, bool body) {
            if (!part.scan || part.kind == ScanPart::Wheel || part.kind == ScanPart::Axle || part.kind == ScanPart::PropShaft ||
                !part.part.ready || !part.part.ready->mesh)
                return;
            auto surface = surfaceNear(*part.part.ready->mesh, body ? o.seat : RigidTransform{}, centre, 620);
            // what of a frame stands within the rim at rest is hub and brake, and goes with the wheel
            if (!body)
                std::erase_if(surface, [&](const Vec3& p) {
                    return std::hypot(p.x_mm - centre.x_mm, p.z_mm - centre.z_mm) < seat && std::abs(p.y_mm - centre.y_mm) < 250;
                });
            if (surface.empty()) return;
            const sit::Need need = needOf(o, part.kind, ScanPart::Wheel, body);
            drive::ScannedThing t;
            t.name = part.part.name;
            t.tag = fmt::format("scan:{}", part.scan.value);
            t.on = body ? RoomOn::Body : RoomOn::Frame;
            t.least_mm = need.least_mm + need.finish_mm;
            t.surface = std::make_shared<const std::vector<Vec3>>(std::move(surface));
            t.u95_mm = need.u95_mm;
            corner.scanned.push_back(std::move(t));
        };
        for (const Overlay::Part& part : o.body_parts) take(part, true);
        for (const Overlay::Part& part : o.on_chassis) take(part, false);
    }
    return in;
}

} // namespace gorvet::analysis
