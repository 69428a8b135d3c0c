// What the build says of its frame, as a structure of lines.
#include "analysis/frame.hpp"
#include "analysis/frame_graft.hpp"
#include "analysis/frame_profiles.hpp"
#include "analysis/part_frame.hpp"

#include "build/planned_chassis.hpp"
#include "build/usual_cases.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

using geometry::minus;
using geometry::plus;

constexpr double tyre_radius_mm = 320; ///< where nobody said how high a wheel stands
constexpr double above_rails_mm = 350; ///< centre of what was weighed over the rails, where nothing else is said
constexpr double seat_share = 0.7;     ///< of the track: where springs bear on a frame without rails

class Input {
public:
    Input(const Build& b, const Results& r) : b_(b), r_(r) {}

    FrameAsked asked() {
        out_.now = structure(false);
        if (!out_.waits.empty()) return std::move(out_);
        std::vector<std::string> of_parts;
        parts_ = partLines(b_, r_, of_parts);
        const bool planned = grafted_ || !parts_.empty() || r_.planned_chassis.changes() || planned_crossmember_ ||
                             std::any_of(b_.members.begin(), b_.members.end(),
                                         [](const auto& row) { return row.second.state != MemberState::There; });
        if (planned) out_.planned = structure(true);
        out_.assumed.insert(out_.assumed.end(), of_parts.begin(), of_parts.end());
        if (grafted_) out_.assumed.insert(out_.assumed.end(), grafted_->assumed.begin(), grafted_->assumed.end());
        if (b_.frame_facts.twist_wanted) out_.wanted_nm_deg = b_.frame_facts.twist_wanted->value;
        for (const auto& [id, f] : b_.flaws)
            if (f.kind == FlawKind::Crack && f.subject == the_chassis)
                out_.cracked.push_back(f.point ? nameOf(b_, f.point) : f.part);
        for (const auto& row : b_.wheels)
            if (row.second.weight) out_.weighed_kg += row.second.weight->value;
        for (auto* list : {&out_.assumed, &out_.idle}) {
            std::sort(list->begin(), list->end());
            list->erase(std::unique(list->begin(), list->end()), list->end());
        }
        return std::move(out_);
    }

private:
    void wait(std::string what, std::string remedy) {
        if (!out_.waits.empty()) return;
        out_.waits = std::move(what);
        out_.remedy = std::move(remedy);
    }
    double figure(const build::Dimension& d, const char* what) {
        if (d.provenance == Provenance::Assumed) out_.assumed.emplace_back(what);
        return d.value;
    }
    bool there(const Member& m, bool planned) const {
        return planned ? m.state != MemberState::ComesOut : m.state != MemberState::Planned;
    }
    Vec3 placed(const Vec3& p, bool planned) const { return planned ? r_.planned_chassis.map(p) : p; }
    double placed(double station, bool planned) const { return placed(Vec3{station, 0, 0}, planned).x_mm; }

    frame::Structure structure(bool planned) {
        frame::Structure s;
        s.pitch_mm = 150;
        rails(s, planned);
        for (const auto& row : b_.members)
            if (there(row.second, planned) && inFrame(row.second, planned)) member(s, row.second, planned);
        if (planned) {
            newCrossmember(s);
            s.lines.insert(s.lines.end(), parts_.begin(), parts_.end());
        }
        if (std::none_of(s.lines.begin(), s.lines.end(), [](const frame::Line& l) { return l.rail; }))
            wait("both rails, or a spine",
                 "Survey two points of each rail, or: member spine spine from 200 to 2400 box 180 140 1.6.");
        else if (b_.members.empty())
            wait("what joins the rails", "Say its crossmembers: member front crossmember at 300 box 60 40 3.");
        seats(s, planned);
        loads(s, planned);
        cases(s);
        s.mount_rate = b_.frame_facts.mount_rate.value;
        if (b_.frame_facts.body_twist) {
            s.body_nm_deg = figure(*b_.frame_facts.body_twist, "the body's own stiffness");
            figure(b_.frame_facts.mount_rate, "the rate of the body mounts");
            mounts(s, planned);
        }
        return s;
    }

    // ---- rails

    struct Length { ///< of a rail, between stations as it is, with another section
        double from, to;
        frame::Profile section;
        double yield;
    };
    frame::Profile railSection(double wall) const { return railProfile(b_.rail, wall); }
    /// What of a rail is otherwise than the rest, in the order in which it was said: the last one counts.
    std::vector<Length> lengths(Side side, bool planned) {
        std::vector<Length> list;
        const double yield = figure(b_.frame_facts.yield_MPa, "the steel's yield");
        for (const auto& [id, f] : b_.flaws) {
            if (f.subject != the_chassis || !f.point || !f.amount || (f.kind != FlawKind::Rust && f.kind != FlawKind::Thin))
                continue;
            const Point& p = b_.points.at(f.point);
            const auto at = r_.chassis.positionOf(f.point);
            if (p.role != Role::Rail || !at || sideOf(p.name) != side || f.amount->value <= 0 ||
                f.amount->value >= b_.rail.thickness.value)
                continue;
            list.push_back(
                {at->x_mm - b_.rail.height.value, at->x_mm + b_.rail.height.value, railSection(f.amount->value), yield});
        }
        for (const auto& [id, m] : b_.members) {
            if ((m.kind != MemberKind::Rail && m.kind != MemberKind::Plate) || !there(m, planned)) continue;
            if (m.side != RailSide::Both && (m.side == RailSide::Left) != (side == Side::Left)) continue;
            sizes(m);
            list.push_back({m.station->value, m.until->value,
                            m.kind == MemberKind::Plate ? platedProfile(b_.rail, m) : profileOf(m),
                            m.yield_MPa ? m.yield_MPa->value : yield});
        }
        return list;
    }
    void sizes(const Member& m) {
        for (const build::Dimension* d : {&m.height, &m.width, &m.wall})
            if (d->value > 0 && d->provenance == Provenance::Assumed) out_.assumed.push_back(m.name + "'s section");
        for (const auto* d : {&m.other, &m.station, &m.until, &m.window_long, &m.window_high, &m.pitch})
            if (*d && (*d)->provenance == Provenance::Assumed) out_.assumed.push_back(m.name + "'s section or place");
    }

    void rails(frame::Structure& s, bool planned) {
        const RailLine &left = railLine(false, planned), &right = railLine(true, planned);
        if (left.points.size() < 2 && right.points.size() < 2) return; // a frame without rails
        if (left.points.size() < 2 || right.points.size() < 2)
            return wait("both rails", "Survey two points of each at the least.");
        if (b_.rail.height.value <= 0 || b_.rail.width.value <= 0 || b_.rail.thickness.value <= 0)
            return wait("the rails' section", "Say it: rail 100 x 60 x 4 box top.");
        for (const auto& [d, what] :
             {std::pair{&b_.rail.height, "the rails' height"}, std::pair{&b_.rail.width, "the rails' width"},
              std::pair{&b_.rail.thickness, "the rails' thickness"}})
            figure(*d, what);
        for (const auto& [line, side] : {std::pair{&left, Side::Left}, std::pair{&right, Side::Right}}) {
            frame::Line l;
            l.name = side == Side::Left ? "left rail" : "right rail";
            l.rail = true;
            const auto own = frame::wallsOf(railSection(b_.rail.thickness.value));
            const auto section = own ? frame::sectionOf(*own) : Result<frame::Section>(own.error());
            if (!section) return wait("a rail section that can be", section.error().message);
            const double aside = side == Side::Left ? section->centroid.y_mm : -section->centroid.y_mm;
            for (const Vec3& p : line->points)
                if (const auto at = line->at(p.x_mm))
                    l.points.push_back({p.x_mm, at->y_mm + aside, (at->top_mm + at->bottom_mm) / 2 + section->centroid.z_mm});
            auto otherwise = lengths(side, planned);
            if (planned && grafted_)
                for (const GraftedFrame::Part& p : grafted_->parts)
                    otherwise.push_back({std::max(p.from_mm, l.points.front().x_mm - 1),
                                         std::min(p.to_mm, l.points.back().x_mm + 1), p.section, b_.frame_facts.yield_MPa.value});
            pieces(l, otherwise, side == Side::Right, planned);
            ribs(l, side, planned);
            s.lines.push_back(std::move(l));
        }
    }

    /// A rail as pieces, front to rear.
    void pieces(frame::Line& l, const std::vector<Length>& otherwise, bool mirrored, bool planned) {
        std::vector<double> borders;
        for (const Length& o : otherwise)
            for (const double x : {placed(o.from, planned), placed(o.to, planned)})
                if (x > l.points.front().x_mm + 1 && x < l.points.back().x_mm - 1) borders.push_back(x);
        borders.push_back(l.points.back().x_mm);
        std::sort(borders.begin(), borders.end());
        double from = l.points.front().x_mm, done = 0;
        std::size_t k = 1;
        for (const double to : borders) {
            if (to - from < 1 && to != borders.back()) continue;
            frame::Piece piece;
            piece.section = railSection(b_.rail.thickness.value);
            piece.yield_mpa = b_.frame_facts.yield_MPa.value;
            const double middle = (from + to) / 2;
            for (const Length& o : otherwise)
                if (placed(o.from, planned) <= middle && middle <= placed(o.to, planned)) {
                    piece.section = o.section;
                    piece.yield_mpa = o.yield;
                }
            piece.section.mirrored = mirrored;
            while (k + 1 < l.points.size() && l.points[k].x_mm < to) {
                done += geometry::between(l.points[k - 1], l.points[k]);
                ++k;
            }
            const Vec3 a = l.points[k - 1], b = l.points[k];
            const double share = b.x_mm > a.x_mm ? (to - a.x_mm) / (b.x_mm - a.x_mm) : 1;
            piece.until_mm = done + share * geometry::between(a, b);
            l.pieces.push_back(std::move(piece));
            from = to;
        }
    }

    /// In open lengths of a rail; elsewhere they do nothing.
    void ribs(frame::Line& l, Side side, bool planned) {
        for (const auto& [id, m] : b_.members) {
            if (m.kind != MemberKind::Rib || !there(m, planned)) continue;
            if (m.side != RailSide::Both && (m.side == RailSide::Left) != (side == Side::Left)) continue;
            sizes(m);
            bool any = false;
            for (double x = m.station->value; x <= m.until->value + 0.5; x += m.pitch->value) {
                const double along = frame::alongTo(l, placed(x, planned));
                const auto piece =
                    std::find_if(l.pieces.begin(), l.pieces.end(), [&](const frame::Piece& p) { return along < p.until_mm; });
                if (piece == l.pieces.end() || piece->section.shape != "channel") continue;
                any = true;
                const double height = piece->section.sizes[0] - piece->section.sizes[2],
                             width = piece->section.sizes[1] - piece->section.sizes[2] / 2;
                if (m.form == SectionForm::Flat) {
                    l.ribs.push_back({along, frame::flatRib_nmm3(height, width, m.wall.value, material_.g_mpa)});
                    continue;
                }
                const auto walls = frame::wallsOf(profileOf(m));
                const auto section = walls ? frame::sectionOf(*walls) : Result<frame::Section>(walls.error());
                if (!section) return wait(fmt::format("a section of {} that can be", m.name), section.error().message);
                l.ribs.push_back({along, frame::uprightRib_nmm3(height, section->torsion_mm4, material_.g_mpa)});
            }
            if (!any && (planned || m.state != MemberState::Planned)) out_.idle.push_back(m.name);
        }
    }

    // ---- members

    /// With a piece of another frame where one is joined.
    const RailLine& railLine(bool right, bool planned) const {
        if (planned && grafted_) return right ? grafted_->right : grafted_->left;
        return right ? (planned ? r_.planned_right : r_.rail_right) : (planned ? r_.planned_left : r_.rail_left);
    }
    /// Where a point is of what a member runs through; none where it is not surveyed, or not there.
    std::optional<Vec3> memberPoint(PointId id, bool planned) const {
        if (b_.points.at(id).subject != the_chassis) return planned && grafted_ ? grafted_->at(id) : std::nullopt;
        const auto at = r_.chassis.positionOf(id);
        return at ? std::optional(placed(*at, planned)) : std::nullopt;
    }
    /// Whether all of it is in the frame: what stood on an end that comes off goes with it, what is of a piece comes with it.
    bool inFrame(const Member& m, bool planned) const {
        for (const PointId id : m.points) {
            const bool of_piece = b_.points.at(id).subject != the_chassis;
            if (of_piece && !(planned && grafted_)) return false;
            const auto at = of_piece ? std::nullopt : r_.chassis.positionOf(id);
            if (planned && grafted_ && at && !grafted_->stays(at->x_mm)) return false;
        }
        return !(planned && grafted_ && m.points.empty() && m.station && !grafted_->stays(m.station->value));
    }

    std::optional<Vec3> railAt(bool right, double station, bool planned) const {
        const auto at = railLine(right, planned).at(station);
        if (!at) return {};
        return Vec3{station, at->y_mm, (at->top_mm + at->bottom_mm) / 2};
    }
    /// Height of a frame's middle at a station: between the rails, else of the datum.
    double middleHeight(double station, bool planned) const {
        const auto left = railAt(false, station, planned), right = railAt(true, station, planned);
        if (left && right) return (left->z_mm + right->z_mm) / 2;
        return spineHeight(station, planned).value_or(0);
    }

    /// The underside of a spine that runs through points: where its pans lie.
    std::optional<double> spineHeight(double station, bool planned) const {
        for (const auto& [id, m] : b_.members) {
            if (m.kind != MemberKind::Spine || !there(m, planned)) continue;
            std::vector<Vec3> line;
            for (const PointId point : m.points)
                if (const auto at = r_.chassis.positionOf(point)) line.push_back(placed(*at, planned));
            std::sort(line.begin(), line.end(), [](const Vec3& p, const Vec3& q) { return p.x_mm < q.x_mm; });
            for (std::size_t k = 1; k < line.size(); ++k)
                if (station <= line[k].x_mm || k + 1 == line.size()) {
                    const double share = (station - line[k - 1].x_mm) / std::max(1.0, line[k].x_mm - line[k - 1].x_mm);
                    return geometry::along(line[k - 1], line[k], share).z_mm - m.height.value / 2;
                }
        }
        return {};
    }

    /// A pan of which a strip comes out on each side.
    Member narrowed(Member m) const {
        const double left = m.height.value - r_.planned_chassis.narrower_mm;
        if (m.kind == MemberKind::Pan && m.form == SectionForm::Flat && left > 2 * r_.planned_chassis.slit_mm)
            m.height.value = left;
        return m;
    }
    void member(frame::Structure& s, const Member& m, bool planned) {
        if (m.kind == MemberKind::Rail || m.kind == MemberKind::Plate || m.kind == MemberKind::Rib) return; // of the rails
        frame::Line l;
        l.name = m.name;
        l.outrigger = m.kind == MemberKind::Outrigger;
        l.rail = m.kind == MemberKind::Spine;
        l.clad = m.kind == MemberKind::Pan;
        l.bolted = m.joint == Joint::Bolted;
        const Vec3 down{0, 0, -m.below.value};
        if (!m.points.empty()) {
            for (const PointId id : m.points) {
                const auto at = memberPoint(id, planned);
                if (!at)
                    return wait(fmt::format("the place of {}, that {} runs through", nameOf(b_, id), m.name),
                                "Measure it on Tape.");
                l.points.push_back(plus(*at, down));
            }
        } else if (m.until) {
            for (const double x : {placed(m.station->value, planned), placed(m.until->value, planned)})
                l.points.push_back(plus({x, 0, middleHeight(x, planned)}, down));
        } else {
            const double x = placed(m.station->value, planned);
            const auto left = railAt(false, x, planned), right = railAt(true, x, planned);
            if (!left || !right)
                return wait(fmt::format("rails as far as {}, where {} stands", units::fixed(x, 0), m.name),
                            "Survey them further, or say another station.");
            l.points = {plus(*left, down), plus(*right, down)};
        }
        for (std::size_t k = 1; k < l.points.size(); ++k)
            if (geometry::between(l.points[k - 1], l.points[k]) < 1)
                return wait(fmt::format("{} to be longer than nothing", m.name), "Two of its points stand at one place.");
        const Vec3 along = geometry::unit(minus(l.points.back(), l.points.front()));
        if (std::abs(along.z_mm) > 0.95) l.up = {1, 0, 0};
        sizes(m);
        frame::Piece piece;
        piece.until_mm = 1e9;
        piece.section = profileOf(planned ? narrowed(m) : m);
        piece.yield_mpa = m.yield_MPa ? m.yield_MPa->value : figure(b_.frame_facts.yield_MPa, "the steel's yield");
        l.pieces.push_back(std::move(piece));
        s.lines.push_back(std::move(l));
    }

    /// The gearbox's new crossmember, from Make.
    void newCrossmember(frame::Structure& s) {
        if (!planned_crossmember_) return;
        const Crossmember& c = *b_.crossmember;
        const auto at = r_.chassis.positionOf(c.gearbox_mount);
        if (!at) return;
        const double x = placed(*at, true).x_mm;
        const auto left = railAt(false, x, true), right = railAt(true, x, true);
        if (!left || !right) return;
        frame::Line l;
        l.name = "new crossmember";
        l.bolted = true;
        for (const build::Dimension* d : {&c.box_height, &c.box_width, &c.box_wall})
            if (d->provenance == Provenance::Assumed) out_.assumed.emplace_back("the new crossmember's section");
        l.points = {*left, *right};
        for (Vec3& p : l.points) p.z_mm = at->z_mm - c.isolator.value - c.pad.value - c.box_height.value / 2;
        l.pieces = {{1e9,
                     {"box", {c.box_height.value, c.box_width.value, c.box_wall.value, 2 * c.box_wall.value}, {}, false, 0},
                     b_.frame_facts.yield_MPa.value}};
        s.lines.push_back(std::move(l));
    }

    // ---- what it stands on and carries

    void seats(frame::Structure& s, bool planned) {
        const auto& f = r_.chassis.frame;
        const std::array<int, frame::wheels> hubs{f.front_hub_left, f.front_hub_right, f.rear_hub_left, f.rear_hub_right};
        for (std::size_t k = 0; k < frame::wheels; ++k) {
            const bool rear = k > 1;
            const auto& points = r_.chassis.solution->points;
            if (hubs[k] < 0 || !points[static_cast<std::size_t>(hubs[k])].determined)
                return wait("the four wheel centres", "Survey them, or place them by the drawing.");
            const Vec3& now = points[static_cast<std::size_t>(hubs[k])].position;
            const auto joined = planned ? graftHub(k) : std::nullopt;
            const Vec3 hub = joined ? *joined : planned ? r_.planned_chassis.mapHub(now, rear) : now;
            frame::Seat& seat = s.seats[k];
            const auto& height = rear ? b_.axles.rear : b_.axles.front;
            seat.ground_mm = hub.z_mm - (height ? figure(*height, "how high a wheel stands") : tyre_radius_mm);
            if (!height) out_.assumed.emplace_back("how high a wheel stands");
            seat.rate = figure(rear ? b_.frame_facts.rear_rate : b_.frame_facts.front_rate, "the springs' rates");
            seat.at = {hub.x_mm, seat_share * hub.y_mm, hub.z_mm};
            if (const auto rail = railAt(k % 2 == 1, hub.x_mm, planned)) seat.at = *rail;
            if (joined) { // the piece brings its own springs: they bear at its axle line
                out_.assumed.emplace_back("that springs bear on the frame at the axle lines");
                continue;
            }
            bear(seat, k % 2 == 1 ? Side::Right : Side::Left, points[static_cast<std::size_t>(hubs[k])].position.x_mm,
                 rear ? b_.frame_facts.rear_springs : b_.frame_facts.front_springs, planned);
        }
    }
    /// A wheel centre of a piece that is joined: front left, front right, rear left, rear right.
    std::optional<Vec3> graftHub(std::size_t wheel) const {
        if (!grafted_) return {};
        const Role role = wheel > 1 ? Role::RearHub : Role::FrontHub;
        for (const auto& [id, at] : grafted_->points)
            if (const Point& p = b_.points.at(id); p.role == role && (sideOf(p.name) == Side::Right) == (wheel % 2 == 1))
                return at;
        return {};
    }
    /// Where the spring of a wheel bears: by what is said of it, else as its suspension points look, assumed.
    void bear(frame::Seat& seat, Side side, double axle_mm, Springs springs, bool planned) {
        if (springs != Springs::Other) {
            seat.hangers = springHangers(b_, r_, side, axle_mm);
            if (seat.hangers) *seat.hangers = {placed(seat.hangers->first, planned), placed(seat.hangers->second, planned)};
            if (springs == Springs::Leaf && seat.hangers) return;
            // a suspension point may be a link's or a damper's as well
            out_.assumed.emplace_back(seat.hangers
                                          ? "that suspension points ahead of an axle and behind it are a leaf spring's hangers"
                                          : "that springs bear on the frame at the axle lines");
            return;
        }
        const auto bears = suspensionNear(b_, r_, side, axle_mm);
        if (!bears) {
            out_.assumed.emplace_back("that springs bear on the frame at the axle lines");
            return;
        }
        const double station = placed(*bears, planned).x_mm;
        const auto rail = railAt(side == Side::Right, station, planned);
        seat.at = rail ? *rail : placed(*bears, planned);
    }
    void loads(frame::Structure& s, bool planned) {
        for (const auto& [id, c] : b_.carried) {
            const Vec3 at = planned && c.moves ? placed(c.at, true) : c.at;
            s.hung.push_back({c.name, figure(c.mass, (c.name + "'s mass").c_str()), at, c.over.value});
        }
        if (!s.hung.empty() || !out_.waits.empty()) return;
        // what was weighed, spread over the wheelbase so that each axle and side has its own
        std::array<double, frame::wheels> kg{};
        for (const auto& [id, w] : b_.wheels)
            if (w.weight) kg[static_cast<std::size_t>(w.wheel)] = w.weight->value;
        const double all = kg[0] + kg[1] + kg[2] + kg[3];
        if (std::any_of(kg.begin(), kg.end(), [](double v) { return v <= 0; })) return;
        Vec3 at;
        for (std::size_t k = 0; k < frame::wheels; ++k) at = plus(at, geometry::times(s.seats[k].at, kg[k] / all));
        at.z_mm += above_rails_mm;
        out_.spread = true;
        out_.assumed.emplace_back("where what was weighed hangs");
        s.hung.push_back({"what was weighed", all, at, std::abs(s.seats[2].at.x_mm - s.seats[0].at.x_mm)});
    }

    void cases(frame::Structure& s) const {
        const auto add = [&](const LoadCase& c) {
            frame::Case asked{c.name, c.up_g, c.braking_g, c.cornering_g, {}, false};
            if (c.lifted != Lifted::None)
                asked.lifted = static_cast<std::size_t>(c.lifted) - 1;
            else
                asked.lighter_end = c.name == "lifted";
            s.cases.push_back(asked);
        };
        for (const LoadCase& c : usualCases())
            if (!loadCaseNamed(b_, c.name)) add(c);
        for (const auto& [id, c] : b_.load_cases)
            if (!c.left_out) add(c);
    }

    void mounts(frame::Structure& s, bool planned) const {
        for (const auto& [id, m] : b_.mounts)
            if (const auto at = r_.bodyInChassis(m.body_point)) s.mounts.push_back(*at); // the body sits where it is planned
        if (s.mounts.size() >= 4) return;
        s.mounts.clear();
        for (const auto& [id, p] : b_.points)
            if (p.subject == the_chassis && p.role == Role::BodyMount)
                if (const auto at = r_.chassis.positionOf(id)) s.mounts.push_back(placed(*at, planned));
    }

    const Build& b_;
    const Results& r_;
    FrameAsked out_;
    const std::optional<GraftedFrame> grafted_ = graftedFrame(b_, r_);
    std::vector<frame::Line> parts_; ///< of new steel
    const frame::Material material_;
    const bool planned_crossmember_ = b_.crossmember && r_.crossmember->possible;
};

} // namespace

FrameAsked frameAsked(const Build& b, const Results& r) { return Input(b, r).asked(); }

} // namespace gorvet::analysis
