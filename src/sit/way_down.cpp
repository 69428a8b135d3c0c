#include "sit/way_down.hpp"

#include "sit/way_in.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <numbers>
#include <queue>

#include <fmt/format.h>

namespace gorvet::sit {
namespace {

using geometry::cross;
using geometry::length;
using geometry::minus;
using geometry::plus;
using shape::Mesh;

constexpr double looked_as_far_mm = 60;
constexpr double comfort_mm = 30; ///< nearer than that, another way is preferred if it costs little
constexpr double closest_looks_mm = 1;

/// The parts of the body without what touches at the seat, and the parts of the chassis that have a surface.
struct Surface {
    const DownPart* part = nullptr;
    std::shared_ptr<const Mesh> mesh;
    std::shared_ptr<const shape::DistanceTree> tree;
    std::vector<bool> touches; ///< of the body: by triangle of the whole part, left out
};

/// By triangle of a body's part: whether it touches the chassis at the seat.
std::vector<bool> touching(const Ready& body, const std::vector<DownPart>& chassis, const RigidTransform& seat, double touches,
                           int threads) {
    const Mesh& m = *body.mesh;
    std::vector<bool> near_point(m.points.size(), false), near_triangle(m.triangles.size(), false);
    const RigidTransform back = inverse(seat);
    const auto limit = static_cast<float>(touches); // as the map has what is farther: rounded, it may be less than `touches`
    for (const DownPart& c : chassis) {
        if (!c.ready || c.ready->mesh->triangles.empty()) continue;
        const auto to_chassis = distancesTo(*c.ready->tree, c.ready->sides.get(), body.order, seat, touches, threads);
        for (size_t i = 0; i < near_point.size(); ++i)
            if (to_chassis.distance_mm[i] < limit) near_point[i] = true;
        const auto to_body = distancesTo(*body.tree, nullptr, c.ready->order, back, touches, threads);
        for (size_t i = 0; i < to_body.distance_mm.size(); ++i)
            if (to_body.distance_mm[i] < limit)
                if (const auto n = body.tree->nearest(back.transformed(c.ready->mesh->points[i]), touches);
                    n.triangle != shape::kernel::nothing)
                    near_triangle[n.triangle] = true;
        for (const shape::Meeting& k : shape::crossings(*body.tree, *c.ready->tree, seat, threads).meetings)
            near_triangle[k.moving] = true;
    }
    for (size_t t = 0; t < m.triangles.size(); ++t)
        for (const std::uint32_t p : m.triangles[t])
            if (near_point[p]) near_triangle[t] = true;
    return near_triangle;
}

double areaOf(const Mesh& m, size_t t) {
    const shape::Corners c = shape::cornersOf(m, static_cast<std::uint32_t>(t));
    return length(cross(minus(c[1], c[0]), minus(c[2], c[0]))) / 2;
}

/// What more of the body would have to be cut for a straight way down: how much, and where it is.
void sumUp(const Surface& body, const std::vector<bool>& more, const RigidTransform& seat, WayDown::InTheWay& out) {
    const Mesh& m = *body.part->ready->mesh;
    for (size_t t = 0; t < more.size(); ++t) {
        if (!more[t]) continue;
        out.more_mm2 += areaOf(m, t);
        for (const std::uint32_t q : m.triangles[t]) {
            const Point3 p = seat.transformed(m.points[q]);
            out.box.take(p);
        }
    }
    if (out.more_mm2 == 0) out.box = {out.where, out.where};
}

/// Looks at poses of some of the body against some of the chassis.
class Looker {
public:
    Looker(const RigidTransform& seat, const Point3& least, const Point3& most) : seat_(seat), least_(least), most_(most) {
        middle_ = geometry::along(least, most, 0.5);
    }
    std::vector<std::pair<const Surface*, const Surface*>> pairs;
    int looks = 0;

    /// The motion on top of the seat.
    RigidTransform hung(const Hang& h) const { return hungAt(middle_, h); }
    DownStep look(const Hang& h) {
        ++looks;
        DownStep s;
        s.at = h;
        s.least_mm = looked_as_far_mm;
        s.far = true;
        const RigidTransform move = chained(hung(h), seat_);
        for (const auto& [body, chassis] : pairs) {
            const shape::Closest c = shape::closest(*body->tree, *chassis->tree, move, s.least_mm);
            if (c.least_mm >= s.least_mm) continue;
            s.least_mm = c.least_mm;
            s.far = false;
            s.where = c.on_fixed;
            s.body_part = body->part->name;
            s.chassis_part = chassis->part->name;
        }
        return s;
    }
    /// How far any place of the body goes at most from one to the other: a corner of its box goes farthest.
    double travel(const Hang& a, const Hang& b) const {
        const RigidTransform from = hung(a), to = hung(b);
        double far = 0;
        for (int k = 0; k < 8; ++k) {
            const Point3 c{k & 1 ? least_[0] : most_[0], k & 2 ? least_[1] : most_[1], k & 4 ? least_[2] : most_[2]};
            far = std::max(far, geometry::between(from.transformed(c), to.transformed(c)));
        }
        return far;
    }
    /// Whether the body goes straight from one pose to the other no nearer than `through`; `no_nearer`: nor than that.
    bool passes(const DownStep& a, const DownStep& b, double through, double& no_nearer) {
        const double far = travel(a.at, b.at);
        const double surely = (a.least_mm + b.least_mm - far) / 2;
        if (surely >= through - closest_looks_mm || far < closest_looks_mm) {
            no_nearer = std::min(no_nearer, std::max(0.0, std::min({surely, a.least_mm, b.least_mm})));
            return true;
        }
        const DownStep middle =
            look({(a.at.back_mm + b.at.back_mm) / 2, (a.at.up_mm + b.at.up_mm) / 2, (a.at.tilt_rad + b.at.tilt_rad) / 2});
        // coming off the seat, it is as near as it lies there at first
        if (middle.least_mm < std::min({through, std::max(a.least_mm, 1e-6), std::max(b.least_mm, 1e-6)})) return false;
        return passes(a, middle, through, no_nearer) && passes(middle, b, through, no_nearer);
    }

private:
    RigidTransform seat_;
    Point3 least_{}, most_{}, middle_{};
};

/// A place of the search: steps rearward, up and of tilt.
using Place = std::array<int, 3>;

class Search {
public:
    Search(Looker& looker, const DownOptions& o, double lift_mm, double half_length, const std::function<bool()>& stop)
        : looker_(looker), o_(o), stop_(stop), top_(static_cast<int>(std::ceil(lift_mm / o.step_mm))), half_(half_length),
          step_(lift_mm / std::max(1, top_)) {}

    Hang hangOf(const Place& p) const { return {p[0] * o_.step_mm, p[1] * step_, p[2] * o_.tilt_step_rad}; }
    const DownStep& stepAt(const Place& p) {
        const auto [it, fresh] = looked_.try_emplace(p);
        if (fresh) it->second = looker_.look(hangOf(p));
        return it->second;
    }
    bool stopped() const { return stop_ && stop_(); }
    bool gaveUp() const { return gave_up_; }

    /// From the seat up; empty when there is none.
    std::vector<Place> find() {
        struct Entry {
            double sum, cost;
            Place place, from;
            bool weighed; ///< its nearness is in the cost
            bool operator<(const Entry& e) const { return sum > e.sum; }
        };
        const auto left = [&](const Place& p) { return (top_ - p[1]) * step_; };
        std::priority_queue<Entry> open;
        open.push({left({}), 0, {}, {}, true});
        const int most_back = static_cast<int>(o_.most_back_mm / o_.step_mm);
        const int most_tilt = static_cast<int>(o_.most_tilt_rad / o_.tilt_step_rad + 1e-9);
        while (!open.empty()) {
            const Entry e = open.top();
            open.pop();
            if (from_.contains(e.place) || blocked_.contains(e.place)) continue;
            if (stopped()) return {};
            if (looker_.looks > o_.most_looks) {
                gave_up_ = true;
                return {};
            }
            const bool seat = e.place == Place{};
            const DownStep& here = stepAt(e.place);
            if (!seat && here.least_mm < o_.through_mm) {
                blocked_[e.place] = true;
                continue;
            }
            if (!e.weighed && here.least_mm < comfort_mm) {
                const double more = step_ * (1 - here.least_mm / comfort_mm);
                open.push({e.sum + more, e.cost + more, e.place, e.from, true});
                continue;
            }
            double surely = looked_as_far_mm;
            if (!seat && !looker_.passes(stepAt(e.from), here, o_.through_mm, surely)) continue;
            from_[e.place] = e.from;
            if (e.place[1] == top_) return back(e.place);
            for (int dx = -1; dx <= 1; ++dx)
                for (int dz = -1; dz <= 1; ++dz)
                    for (int dt = -1; dt <= 1; ++dt) {
                        const Place next{e.place[0] + dx, e.place[1] + dz, e.place[2] + dt};
                        if ((dx == 0 && dz == 0 && dt == 0) || next[1] < 0 || std::abs(next[0]) > most_back ||
                            std::abs(next[2]) > most_tilt || from_.contains(next) || blocked_.contains(next))
                            continue;
                        const double cost =
                            e.cost + std::hypot(dx * o_.step_mm * 1.5, dz * step_) + std::abs(dt) * o_.tilt_step_rad * half_;
                        open.push({cost + left(next), cost, next, e.place, false});
                    }
        }
        return {};
    }

private:
    std::vector<Place> back(Place p) const {
        std::vector<Place> way{p};
        while (p != Place{}) way.push_back(p = from_.at(p));
        std::reverse(way.begin(), way.end());
        return way;
    }
    Looker& looker_;
    const DownOptions& o_;
    const std::function<bool()>& stop_;
    int top_;
    double half_, step_;
    std::map<Place, DownStep> looked_;
    std::map<Place, Place> from_;
    std::map<Place, bool> blocked_;
    bool gave_up_ = false;
};

std::string moveWords(const Hang& from, const Hang& to, units::LengthStep step) {
    std::string words;
    const auto add = [&](const std::string& part) { words += (words.empty() ? "" : ", ") + part; };
    const double down = from.up_mm - to.up_mm, back = to.back_mm - from.back_mm;
    if (std::abs(down) >= 0.5) {
        const bool plain = std::abs(back) < 0.5 && std::abs(to.tilt_rad - from.tilt_rad) < 1e-6;
        add(fmt::format("{}{} {}", plain ? "straight " : "", down > 0 ? "down" : "up", wholeLength(std::abs(down), step)));
    }
    if (std::abs(back) >= 0.5) add(fmt::format("{} {}", wholeLength(std::abs(back), step), back > 0 ? "rearward" : "forward"));
    if (std::abs(to.tilt_rad - from.tilt_rad) >= 1e-6)
        add(std::abs(to.tilt_rad) < 1e-6 ? std::string("to level")
                                         : fmt::format("to {:.1f}° nose {}", std::abs(to.tilt_rad) * 180 / std::numbers::pi,
                                                       to.tilt_rad > 0 ? "up" : "down"));
    return words;
}

std::string placeWords(const DownStep& s, units::LengthStep step) {
    return fmt::format("{} to {}, {} above the seat, at station {}", s.body_part, s.chassis_part, wholeLength(s.at.up_mm, step),
                       wholeLength(s.where[0], step));
}

std::string searchedWords(const DownOptions& o, bool far, double far_step_mm) {
    std::string words = fmt::format("up to {} forward and rearward and {:.0f}° of tilt, in steps of {} and {:.1f}°",
                                    wholeLength(o.most_back_mm, o.words_in), o.most_tilt_rad * 180 / std::numbers::pi,
                                    wholeLength(o.step_mm, o.words_in), o.tilt_step_rad * 180 / std::numbers::pi);
    if (far)
        words += fmt::format("; then level up to {}, in steps of {}", wholeLength(o.shop_mm, o.words_in),
                             wholeLength(far_step_mm, o.words_in));
    return words + "; never sideways";
}

std::string wordsOf(const WayDown& w, double lift_mm, units::LengthStep step) {
    std::string words;
    if (w.found && w.straight)
        words = fmt::format("From {} above its seat it comes straight down", wholeLength(lift_mm, step));
    else if (w.found) {
        words = fmt::format("Straight down it does not go, but from {} above its seat so:", wholeLength(lift_mm, step));
        for (size_t k = 1; k < w.corners.size(); ++k)
            words +=
                fmt::format("{} {}", k > 1 ? ";" : "", moveWords(w.steps[w.corners[k - 1]].at, w.steps[w.corners[k]].at, step));
    } else
        words = w.none;
    if (w.found) {
        const DownStep& t = w.steps[w.tightest];
        words += t.far ? fmt::format(", nowhere nearer than {}.", wholeLength(t.least_mm, step))
                       : fmt::format(", no nearer than {}: {}.", wholeLength(t.least_mm, step), placeWords(t, step));
    }
    if (!w.in_the_way.empty()) {
        const WayDown::InTheWay& i = w.in_the_way.front();
        words += fmt::format(" Straight down the {} would touch the {} {} above the seat", i.body_part, i.chassis_part,
                             wholeLength(i.up_mm, step));
        words += w.in_the_way.size() > 1 ? fmt::format(", and {} more.", w.in_the_way.size() - 1) : ".";
        std::vector<std::string> off;
        double more = 0;
        for (const auto& k : w.in_the_way) {
            if (k.take_off.empty()) more += k.more_mm2;
            if (!k.take_off.empty() && std::find(off.begin(), off.end(), k.take_off) == off.end()) off.push_back(k.take_off);
        }
        if (!off.empty() || more > 0)
            words += fmt::format(
                " {}{}{} it goes straight down.", off.empty() ? "" : fmt::format("With the {} off", fmt::join(off, " and the ")),
                off.empty() || more == 0 ? "" : " and ",
                more == 0 ? "" : fmt::format("{} {:.0f} cm² more cut", off.empty() ? "With" : "about", more / 100));
    }
    if (w.left_out_mm2 >= 100)
        words += fmt::format(" What is cut or rests at the seat ({:.0f} cm² of the body) was left out.", w.left_out_mm2 / 100);
    return words;
}

/// The search for a way down, from the seat to where the body hangs free. Each part of it is false when it was stopped.
class Finder {
public:
    Finder(const RigidTransform& at_seat, double lift, const DownOptions& how, int with_threads,
           const std::function<bool()>& asked)
        : seat(at_seat), lift_mm(lift), options(how), threads(with_threads), stop(asked),
          levels(std::max(1, static_cast<int>(std::ceil(lift / how.step_mm)))) {}

    /// What moves and what stands, without what touches at the seat.
    bool takeSurfaces(const std::vector<DownPart>& body, const std::vector<DownPart>& chassis) {
        for (const DownPart& part : body) {
            if (!part.ready || part.ready->mesh->triangles.empty()) continue;
            if (stopped()) return false;
            const Mesh& m = *part.ready->mesh;
            const auto touches = touching(*part.ready, chassis, seat, options.touches_mm, threads);
            auto rest = std::make_shared<Mesh>();
            rest->points = m.points;
            for (size_t t = 0; t < m.triangles.size(); ++t)
                if (touches[t])
                    way.left_out_mm2 += areaOf(m, t);
                else
                    rest->triangles.push_back(m.triangles[t]);
            for (const Point3& q : m.points) box.take(seat.transformed(q));
            if (!rest->triangles.empty())
                moving.push_back(
                    {&part, rest,
                     std::make_shared<const shape::DistanceTree>(rest, shape::TreeOptions{shape::Width::Auto, threads}),
                     touches});
        }
        for (const DownPart& part : chassis)
            if (part.ready && !part.ready->mesh->triangles.empty())
                fixed.push_back({&part, part.ready->mesh, {part.ready->tree.get(), [](const auto*) {}}, {}});
        return true;
    }
    bool any() const { return !moving.empty() && !fixed.empty() && lift_mm > 0; }

    bool goStraight(Looker& looker) {
        // straight down, pair by pair, so that each that is in the way is known
        for (const Surface& m : moving)
            for (const Surface& f : fixed) {
                looker.pairs = {{&m, &f}};
                DownStep below = looker.look({});
                bool blocks = false;
                std::vector<bool> more(m.touches.size(), false);
                for (int k = 1; k <= levels; ++k) {
                    if (stopped()) return false;
                    const DownStep here = looker.look({0, lift_mm * k / levels, 0});
                    double surely = looked_as_far_mm;
                    const bool free =
                        here.least_mm >= options.through_mm && looker.passes(below, here, options.through_mm, surely);
                    below = here;
                    if (free) continue;
                    const std::string off = f.part->comes_off ? f.part->name : m.part->comes_off ? m.part->name : "";
                    if (!blocks) {
                        way.in_the_way.push_back({m.part->name, f.part->name, off});
                        blocks = true;
                    }
                    way.in_the_way.back().up_mm = here.at.up_mm;
                    way.in_the_way.back().where = here.where;
                    // what of the body is in the way at this height
                    const auto now =
                        touching(*m.part->ready, {*f.part}, chained(looker.hung(here.at), seat), options.through_mm, threads);
                    for (size_t t = 0; t < now.size(); ++t) more[t] = more[t] || (now[t] && !m.touches[t]);
                }
                if (blocks) sumUp(m, more, seat, way.in_the_way.back());
            }
        std::stable_sort(way.in_the_way.begin(), way.in_the_way.end(),
                         [](const auto& a, const auto& b) { return a.up_mm > b.up_mm; });
        way.straight = way.in_the_way.empty();
        return true;
    }

    bool search(Looker& looker) {
        looker.pairs.clear();
        for (const Surface& m : moving)
            for (const Surface& f : fixed) looker.pairs.emplace_back(&m, &f);
        if (way.straight) {
            path = {looker.look({}), looker.look({0, lift_mm, 0})};
            return true;
        }
        // near the seat with tilts; where there is none, level as far as the shop allows
        DownOptions far = options;
        far.most_back_mm = options.shop_mm;
        far.most_tilt_rad = 0;
        far.step_mm = 2 * options.step_mm;
        const bool goes_far = options.shop_mm > options.most_back_mm;
        std::unique_ptr<Search> search;
        std::vector<Place> places;
        for (const DownOptions* o : {&options, static_cast<const DownOptions*>(&far)}) {
            if (o == &far && (!places.empty() || !goes_far)) continue;
            looker.looks = 0;
            search = std::make_unique<Search>(looker, *o, lift_mm, box.size().x_mm / 2, stop);
            places = search->find();
            if (stopped()) return false;
            way.gave_up = places.empty() && (way.gave_up || search->gaveUp());
        }
        way.searched = searchedWords(options, goes_far, far.step_mm);
        if (places.empty())
            way.none =
                way.gave_up
                    ? fmt::format("No way down was found in the time there is; there may be one. Searched: {}.", way.searched)
                    : fmt::format("Even cut to clear where it sits, no way down was found. Searched: {}.", way.searched);
        // fewer turns: as far as it goes straight
        for (size_t i = 0; i < places.size();) {
            path.push_back(search->stepAt(places[i]));
            size_t next = i + 1;
            // off a seat that is nearer than it may pass, the first step stays one: only there it may be so near
            const bool tight = i == 0 && path.back().least_mm < options.through_mm;
            for (size_t j = places.size() - 1; !tight && j > i + 1; j = i + 1 + (j - i - 1) / 2) {
                double surely = looked_as_far_mm;
                if (looker.passes(path.back(), search->stepAt(places[j]), options.through_mm, surely)) {
                    next = j;
                    break;
                }
            }
            i = next;
        }
        return true;
    }

    /// The way in steps that a person can watch; where there is none, what is met straight down.
    bool walk(Looker& looker) {
        way.found = path.size() > 1;
        if (!way.found) {
            for (int k = levels; k >= 0; --k) {
                if (stopped()) return false;
                way.tried.push_back(looker.look({0, lift_mm * k / levels, 0}));
            }
            return true;
        }
        way.no_nearer_mm = looked_as_far_mm;
        std::reverse(path.begin(), path.end());
        for (size_t k = 0; k + 1 < path.size(); ++k) {
            if (stopped()) return false;
            const Hang &a = path[k].at, &b = path[k + 1].at;
            const int n = std::max(1, static_cast<int>(std::ceil(looker.travel(a, b) / options.step_mm)));
            way.corners.push_back(way.steps.size());
            for (int i = 0; i < n; ++i) {
                const double share = static_cast<double>(i) / n;
                way.steps.push_back(looker.look({std::lerp(a.back_mm, b.back_mm, share), std::lerp(a.up_mm, b.up_mm, share),
                                                 std::lerp(a.tilt_rad, b.tilt_rad, share)}));
            }
        }
        way.corners.push_back(way.steps.size());
        way.steps.push_back(path.back());
        for (size_t k = 0; k + 2 < way.steps.size(); ++k)
            if (!looker.passes(way.steps[k], way.steps[k + 1], options.through_mm, way.no_nearer_mm))
                way.no_nearer_mm = std::min(way.no_nearer_mm, options.through_mm - closest_looks_mm); // as the search saw it
        for (size_t k = 0; k + 1 < way.steps.size(); ++k)
            if (way.steps[k].least_mm < way.steps[way.tightest].least_mm) way.tightest = k;
        return true;
    }

    WayDown way;
    geometry::Box3 box; ///< round the body at its seat

private:
    bool stopped() const { return stop && stop(); }

    const RigidTransform& seat;
    double lift_mm;
    const DownOptions& options;
    int threads;
    const std::function<bool()>& stop;
    int levels;
    std::vector<Surface> moving, fixed;
    std::vector<DownStep> path; ///< from the seat up
};

} // namespace

RigidTransform hungAt(const Point3& about, const Hang& h) {
    RigidTransform turn = geometry::rigidTransform({}, 0, h.tilt_rad, 0);
    turn.translation = plus(minus(about, turn.rotated(about)), {h.back_mm, 0, h.up_mm});
    return turn;
}

std::optional<WayDown> wayDown(const std::vector<DownPart>& body, const std::vector<DownPart>& chassis,
                               const RigidTransform& seat, double lift_mm, const DownOptions& options, int threads,
                               const std::function<bool()>& stop) {
    Finder finder(seat, lift_mm, options, threads, stop);
    if (!finder.takeSurfaces(body, chassis)) return std::nullopt;
    if (!finder.any()) return std::move(finder.way);
    Looker looker(seat, finder.box.min, finder.box.max);
    if (!finder.goStraight(looker) || !finder.search(looker) || !finder.walk(looker)) return std::nullopt;
    finder.way.looks = looker.looks;
    finder.way.about = geometry::along(finder.box.min, finder.box.max, 0.5);
    finder.way.words = wordsOf(finder.way, lift_mm, options.words_in);
    return std::move(finder.way);
}

} // namespace gorvet::sit
