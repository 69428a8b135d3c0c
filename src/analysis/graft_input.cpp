// What the build says of a piece of another frame: its points set by its pins, the chassis beside it.
#include "analysis/fixed_points.hpp"
#include "analysis/frame_graft.hpp"
#include "analysis/graft.hpp"
#include "build/assumed.hpp"
#include "stretch/graft_pose.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

class GraftAsked {
public:
    GraftAsked(const Build& b, const Results& r, const Graft& g)
        : b_(b), r_(r), g_(g), ahead_(g.kind == GraftKind::FrontClip), of_piece_(b, r.of(g.piece)), of_chassis_(b, r.chassis) {}

    WorkedGraft worked() {
        out_.graft = g_;
        stretch::GraftInput& in = out_.input;
        in.graft = g_;
        in.left = r_.rail_left;
        in.right = r_.rail_right;
        in.channel = b_.rail.shape == RailShape::Channel;
        in.yield_mpa = b_.frame_facts.yield_MPa.value;
        piece();
        ofMembers();
        chassis();
        pins();
        around();
        assumed();
        out_.plan = stretch::graftPlan(in);
        if (!out_.plan.missing.empty())
            out_.waits = fmt::format("{} waits for {}.", g_.name, out_.plan.missing.front());
        else if (!lost_.empty())
            out_.waits = fmt::format("{} waits for the place of {}: measure it on Tape.", g_.name, lost_);
        return std::move(out_);
    }

private:
    static std::size_t placeOf(Side side) { return side == Side::Left ? 0 : 1; }

    void piece() {
        stretch::GraftInput& in = out_.input;
        const Role hub = ahead_ ? Role::FrontHub : Role::RearHub;
        for (const auto& [id, p] : b_.points) {
            if (p.subject != g_.piece || sideOf(p.name) == Side::None) continue;
            if (p.role == Role::Rail)
                if (const int k = of_piece_.take(id); k >= 0) in.rails[placeOf(sideOf(p.name))].push_back(k);
            if (p.role == hub) in.hubs[placeOf(sideOf(p.name))] = of_piece_.take(id);
        }
    }
    /// And what members of it run through.
    void ofMembers() {
        for (const auto& [id, m] : b_.members)
            for (const PointId point : m.points)
                if (b_.points.at(point).subject == g_.piece) of_piece_.take(point);
    }
    /// Marks that stay: the pair farthest from the joint, and the wheel centres of the axle that stays.
    void chassis() {
        stretch::GraftInput& in = out_.input;
        const auto stays = [&](const Vec3& at) { return ahead_ ? at.x_mm > g_.joint.value : at.x_mm < g_.joint.value; };
        std::array<PointId, 2> best;
        double farthest = 0;
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || p.role != Role::Rail || sideOf(p.name) != Side::Left) continue;
            const auto at = r_.chassis.positionOf(id);
            if (!at || !stays(*at)) continue;
            for (const auto& [other, q] : b_.points) {
                if (q.subject != the_chassis || q.role != Role::Rail || sideOf(q.name) != Side::Right) continue;
                const auto beside = r_.chassis.positionOf(other);
                constexpr double same_station_mm = 60;
                if (!beside || std::abs(beside->x_mm - at->x_mm) > same_station_mm) continue;
                if (const double away = std::abs(at->x_mm - g_.joint.value); away > farthest) {
                    farthest = away;
                    best = {id, other};
                }
            }
        }
        if (farthest > 0) in.marks = {of_chassis_.take(best[0]), of_chassis_.take(best[1])};
        const auto& f = r_.chassis.frame;
        const auto& ids = r_.chassis.point_ids;
        const auto hub = [&](int index) { return index < 0 ? -1 : of_chassis_.take(ids[static_cast<std::size_t>(index)]); };
        in.other_hubs = ahead_ ? std::array{hub(f.rear_hub_left), hub(f.rear_hub_right)}
                               : std::array{hub(f.front_hub_left), hub(f.front_hub_right)};
        in.chassis = of_chassis_.places();
        const auto base = [&](int front, int rear) -> std::optional<double> {
            if (front < 0 || rear < 0) return {};
            const auto a = r_.chassis.positionOf(ids[static_cast<std::size_t>(front)]),
                       c = r_.chassis.positionOf(ids[static_cast<std::size_t>(rear)]);
            return a && c ? std::optional(c->x_mm - a->x_mm) : std::nullopt;
        };
        const auto left = base(f.front_hub_left, f.rear_hub_left), right = base(f.front_hub_right, f.rear_hub_right);
        if (left && right) in.wheelbase_now_mm = (*left + *right) / 2;
    }

    void pins() {
        stretch::PoseInput pose;
        struct Asked {
            const GraftPin* pin;
            std::vector<std::size_t> points;
        };
        std::vector<Asked> asked;
        for (const auto& [id, pin] : b_.graft_pins) {
            if (pin.graft != g_.id) continue;
            Asked a{&pin, {}};
            for (const PointId point : pin.points)
                if (const int k = of_piece_.take(point); k >= 0)
                    a.points.push_back(static_cast<std::size_t>(k));
                else if (lost_.empty())
                    lost_ = nameOf(b_, point);
            if (a.points.size() == pin.points.size()) asked.push_back(std::move(a));
        }
        build::Places own = of_piece_.places();
        pose.points = own.at;
        pose.covariance = own.covariance;
        for (const Asked& a : asked) pose.pins.push_back({a.pin->kind, a.points, a.pin->target.value, a.pin->tolerance});
        stretch::GraftInput& in = out_.input;
        in.piece = std::move(own);
        if (pose.points.empty()) return;
        const stretch::GraftPose set = stretch::graftPose(pose);
        in.piece.at = set.points;
        in.piece.covariance = set.covariance;
        in.open = set.open;
        for (const Asked& a : asked) in.pins.push_back(pinned(*a.pin, a.points));
    }
    stretch::GraftPinned pinned(const GraftPin& pin, const std::vector<std::size_t>& points) const {
        const build::Places& piece = out_.input.piece;
        const std::size_t axis = pin.kind == GraftPinKind::Station ? 0 : pin.kind == GraftPinKind::Height ? 2 : 1;
        const std::size_t n = 3 * piece.at.size();
        const double share = 1.0 / static_cast<double>(points.size());
        stretch::GraftPinned out;
        out.name = fmt::format("{} of", word(pin.kind));
        double sum = 0, variance = 0, worst = 0;
        for (const std::size_t p : points) {
            out.name += (p == points.front() ? " " : " and ") + piece.names[p];
            sum += share * piece.at[p][axis];
            for (const std::size_t q : points) variance += share * share * piece.covariance[(3 * p + axis) * n + 3 * q + axis];
        }
        out.wanted = pin.kind == GraftPinKind::Centred ? 0 : pin.target.value;
        worst = sum - out.wanted;
        if (pin.kind != GraftPinKind::Centred)
            for (const std::size_t p : points)
                if (std::abs(piece.at[p][axis] - out.wanted) > std::abs(worst)) worst = piece.at[p][axis] - out.wanted;
        const double u95 = u95Of(std::sqrt(std::max(0.0, variance)));
        const bool said = pin.kind == GraftPinKind::Centred || pin.target.provenance != Provenance::Assumed;
        const auto provenance = said ? Provenance::Derived : Provenance::Assumed;
        out.achieved = {sum, u95, provenance};
        out.miss = {worst, u95, provenance};
        out.tolerance_mm = pin.tolerance;
        out.verdict = judge({std::abs(worst), u95, provenance}, Limit::atMost(pin.tolerance));
        return out;
    }

    /// What goes with the end that comes off, and what runs over the joint.
    void around() {
        stretch::GraftInput& in = out_.input;
        for (const stretch::Obstacle& o : r_.stretch.input().obstacles) {
            const bool goes = ahead_ ? o.station_mm < g_.joint.value : o.station_mm > g_.joint.value;
            if (goes) {
                in.goes.push_back(o.name);
            } else if (const double away = std::abs(o.station_mm - g_.joint.value) - o.half_mm;
                       away < std::max(150.0, 1.5 * in.left.height_mm)) {
                in.near.emplace_back(fmt::format("{} {}", o.what, o.name), away);
            }
        }
        for (const stretch::Runner& run : r_.stretch.input().runners) {
            if (run.presence == Presence::Absent || run.answer != RunAnswer::Open) continue;
            const bool over = run.starts_mm.value_or(-1e9) < g_.joint.value && run.ends_mm.value_or(1e9) > g_.joint.value;
            if (over && run.presence == Presence::Present)
                in.crosses.push_back(std::string(word(run.kind)) + (run.name.empty() ? "" : " " + run.name));
        }
        in.also_cut = r_.stretch->status == stretch::Status::Planned;
        for (const auto& [id, w] : b_.wheels) {
            const bool front = w.wheel == Wheel::FrontLeft || w.wheel == Wheel::FrontRight;
            if (w.weight && front == ahead_) {
                in.wheel_kg = std::max(in.wheel_kg.value_or(0), w.weight->value);
                if (w.weight->provenance == Provenance::Assumed)
                    in.assumed.emplace_back(fmt::format("what the {} wheel carries", word(w.wheel)));
            }
        }
        in.up_g = mostUp(b_);
    }

    void assumed() {
        std::vector<std::string>& list = out_.input.assumed;
        const auto note = [&](const build::Dimension& d, const char* what) {
            if (d.provenance == Provenance::Assumed) list.emplace_back(what);
        };
        for (const std::string& size : assumedIn(b_.rail)) list.push_back("the rails' " + size);
        note(g_.height, "the height of the piece's rails");
        note(g_.width, "the width of the piece's rails");
        note(g_.wall, "the wall of the piece's rails");
        note(b_.frame_facts.yield_MPa, "the steel's yield");
        for (const FixedPoints* points : {&of_piece_, &of_chassis_})
            for (const std::string& name : points->assumed()) list.push_back("the place of " + name);
    }

    const Build& b_;
    const Results& r_;
    const Graft& g_;
    bool ahead_;
    FixedPoints of_piece_, of_chassis_;
    std::string lost_; ///< the first pinned point without a place
    WorkedGraft out_;
};

} // namespace

std::vector<WorkedGraft> workedGrafts(const Build& b, const Results& r, bool with_frame) {
    std::vector<WorkedGraft> all;
    for (const auto& [id, g] : b.grafts) {
        WorkedGraft worked = GraftAsked(b, r, g).worked();
        if (with_frame && worked.plan.missing.empty())
            if (auto frame = graftFrame(b, r, worked.plan, g)) {
                worked.input.frame = std::move(*frame);
                worked.plan = stretch::graftPlan(worked.input);
            }
        all.push_back(std::move(worked));
    }
    return all;
}

} // namespace gorvet::analysis
