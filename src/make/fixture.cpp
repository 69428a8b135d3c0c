#include "make/fixture.hpp"

#include "shape/plain_mesh.hpp"

#include <algorithm>
#include <cmath>
#include <functional>

#include <fmt/format.h>

namespace gorvet::make {

using build::Attitude;
using build::TowerDoes;
using geometry::minus;
using geometry::plus;

namespace {

constexpr double stay_mm = 0.5;       ///< a tower that the plan moves by less stays
constexpr double sight_under_mm = 20; ///< the line under the lowest head
constexpr double column_share = 0.5;  ///< of a foot: what a tower is wide above it
constexpr double standing_mm2 = 1e4;  ///< three towers that span less stand in one line
constexpr double most_pull_mm = 200;  ///< as what is said
constexpr double stack_mm = 25;       ///< a stack of packers that is higher wants another tower

class FixtureMaker {
public:
    explicit FixtureMaker(const FixtureIn& in) : in_(in) {}

    FixturePlan plan() {
        if (!in_.missing.empty() || in_.towers.empty()) return std::move(p_);
        p_.not_looked_at = in_.not_looked_at;
        for (const FixtureTower& t : in_.towers) {
            straight_.emplace_back();
            Vec3 pull = t.pull;
            if (t.does == TowerDoes::Pull && t.twin) {
                straight_.back() = drawnStraight(in_.places, in_.held, t.at, *t.twin);
                for (std::size_t axis = 0; axis < 3; ++axis)
                    pull[axis] = drawn(*straight_.back(), axis) ? (*straight_.back())[axis].value : 0;
            }
            pull_.push_back(pull);
            const Vec3 now = plus(in_.places.at[t.at], pull);
            now_.push_back(headOf(now, t));
            then_.push_back(t.planned && geometry::between(*t.planned, in_.places.at[t.at]) > stay_mm
                                ? headOf(plus(*t.planned, pull), t)
                                : now_.back());
        }
        place();
        for (std::size_t k = 0; k < in_.towers.size(); ++k) {
            const FixtureTower& t = in_.towers[k];
            TowerPlan one;
            one.name = t.name;
            one.does = t.does;
            one.now = stateOf(k, now_[k]);
            if (moves(k)) one.then = stateOf(k, then_[k]);
            if (t.does == TowerDoes::Pull)
                one.pull = pullWords(k) + (in_.attitude == Attitude::RightWayUp ? "" : ", as the car stands on its wheels");
            one.straight = straight_[k];
            p_.towers.push_back(std::move(one));
        }
        measures();
        stands();
        for (std::size_t k = 0; k < p_.towers.size(); ++k) tower(k);
        near(false);
        near(true);
        pulls();
        straight();
        inTheWay();
        skip("what each tower bears, and whether a long frame sags between them");
        verdict();
        return std::move(p_);
    }

private:
    void add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
    }
    void skip(std::string what) { p_.not_looked_at.push_back(std::move(what)); }
    bool moves(std::size_t k) const { return geometry::between(now_[k], then_[k]) > 1e-9; }

    /// Where a head is, on the table's directions.
    Vec3 headOf(const Vec3& place, const FixtureTower& t) const {
        Vec3 head = rolled(in_.attitude, place);
        head.z_mm -= t.below.value;
        return head;
    }

    /// Where the frame lies on the table, and how high.
    void place() {
        std::vector<double> x, y;
        double low = 1e18;
        for (const auto* list : {&now_, &then_})
            for (const Vec3& h : *list) {
                x.push_back(h.x_mm);
                y.push_back(h.y_mm);
                low = std::min(low, h.z_mm);
            }
        const GridShift along = gridShift(x, in_.pitch_mm), across = gridShift(y, in_.pitch_mm);
        shift_ = {along.shift, across.shift, 0};
        p_.worst_off_mm = std::max(along.worst, across.worst);
        const auto middle = [&](const std::vector<double>& v, double shift, int holes, int& takes) {
            const auto [least, most] = std::minmax_element(v.begin(), v.end());
            const int first = hole(*least + shift), last = hole(*most + shift);
            takes = last - first + 1;
            return in_.pitch_mm * (std::floor((holes - takes) / 2.0) - first);
        };
        shift_.x_mm += middle(x, shift_.x_mm, in_.along, p_.columns);
        shift_.y_mm += middle(y, shift_.y_mm, in_.across, p_.rows);
        constexpr double round_mm = 5;
        p_.high_mm = in_.high_mm ? *in_.high_mm : std::ceil((in_.tower_least_mm - low) / round_mm - 1e-9) * round_mm;
        shift_.z_mm = p_.high_mm;
        p_.line_mm = std::max(10.0, std::floor((low + p_.high_mm - sight_under_mm) / 10) * 10);
        p_.station_mm = -shift_.x_mm;
        p_.middle_mm = shift_.y_mm;
        p_.searched = "every shift along and across, each by itself, square to the table; not turned.";
        for (const auto& [takes, there, way, places] :
             {std::tuple{p_.columns, in_.along, "long", &x}, {p_.rows, in_.across, "wide", &y}})
            if (takes > there)
                add("fixture-table", PlanVerdict::Fails,
                    fmt::format("It takes {} holes, and the table is {} holes {}.", takes, there, way),
                    "A longer table, towers that stand nearer to each other, or arms beyond its edge.");
    }
    int hole(double at) const { return static_cast<int>(std::lround(at / in_.pitch_mm)); }

    TowerState stateOf(std::size_t k, const Vec3& head) {
        const Vec3 at = plus(head, shift_);
        TowerState s;
        s.column = hole(at.x_mm);
        s.row = hole(at.y_mm);
        s.off_along_mm = at.x_mm - s.column * in_.pitch_mm;
        s.off_across_mm = at.y_mm - s.row * in_.pitch_mm;
        const std::size_t of = in_.towers[k].at, axis = in_.attitude == Attitude::OnItsSide ? 1 : 2;
        Figure height = build::figureOf(in_.places, {of}, [&](const std::vector<Vec3>& p) { return p[of][axis]; });
        if (straight_[k] && drawn(*straight_[k], axis)) height = imageOf(in_.towers[k], axis);
        s.head_mm = {at.z_mm, height.u95, height.provenance};
        s.over_line_mm = at.z_mm - p_.line_mm;
        const double most = std::floor((in_.tower_most_mm - in_.tower_least_mm) / in_.tower_step_mm + 1e-9);
        const double steps = std::floor((at.z_mm + in_.packer_mm / 2 - in_.tower_least_mm) / in_.tower_step_mm);
        if (steps < 0) return s;
        s.tower_mm = in_.tower_least_mm + std::min(steps, most) * in_.tower_step_mm;
        s.left_mm = at.z_mm - s.tower_mm;
        for (const double p : {20.0, 10.0, 5.0, 3.0, 2.0, 1.0, 0.5, 0.2, 0.1}) {
            if (p < in_.packer_mm - 1e-9) break;
            while (s.left_mm > p - in_.packer_mm / 2 && s.packers_mm.size() < 100) {
                s.packers_mm.push_back(p);
                s.left_mm -= p;
            }
        }
        return s;
    }

    /// From corner to corner, as it stands before anything is moved or drawn.
    void measures() {
        std::size_t corner[4];
        for (int k = 0; k < 4; ++k) {
            const double ahead = k < 2 ? -1 : 1, side = k % 2 ? 1 : -1;
            std::size_t best = 0;
            double most = -1e18;
            for (std::size_t i = 0; i < in_.towers.size(); ++i) {
                const Vec3& p = in_.places.at[in_.towers[i].at];
                const double far = ahead * p.x_mm + 2 * side * p.y_mm;
                if (far > most) {
                    most = far;
                    best = in_.towers[i].at;
                }
            }
            corner[k] = best;
        }
        const auto as = [](const Vec3& p) { return p; };
        for (const auto& [from, to] : {std::pair{0, 3}, {1, 2}, {0, 1}, {2, 3}, {0, 2}, {1, 3}})
            if (corner[from] != corner[to]) p_.across.push_back(build::acrossAs(in_.places, corner[from], corner[to], as));
    }

    /// The largest triangle of those that count: none of those that hold nothing stand by themselves.
    double span(const std::function<bool(std::size_t)>& counts) const {
        double most = 0;
        for (std::size_t i = 0; i < now_.size(); ++i)
            for (std::size_t j = 0; j < i; ++j)
                for (std::size_t k = 0; k < j; ++k) {
                    if (!counts(i) || !counts(j) || !counts(k)) continue;
                    const Vec3 a = minus(now_[j], now_[i]), b = minus(now_[k], now_[i]);
                    most = std::max(most, std::abs(a.x_mm * b.y_mm - a.y_mm * b.x_mm) / 2);
                }
        return most;
    }
    bool carries(std::size_t k) const { return in_.towers[k].does != TowerDoes::Pull; }
    void stands() {
        if (span([&](std::size_t k) { return carries(k); }) < standing_mm2)
            add("fixture-stands", PlanVerdict::Fails,
                "It does not stand: three towers that carry it, not in one line, are wanted.",
                "A tower under both rails in front and behind: tower Bl.");
        std::size_t moved = 0;
        for (std::size_t k = 0; k < now_.size(); ++k) moved += moves(k);
        if (moved == 0) return;
        for (const bool rear : {false, true}) {
            if (!rear && moved == now_.size()) continue; // all of it moves, in one piece
            if (span([&](std::size_t k) { return carries(k) && moves(k) == rear; }) >= standing_mm2) continue;
            add("fixture-stands", PlanVerdict::Fails,
                fmt::format("Cut through, the piece that {} does not stand by itself.", rear ? "moves" : "stays"),
                "Three towers, not in one line, under each of its pieces.");
        }
        add("fixture-moved", PlanVerdict::Marginal,
            fmt::format("{} while the frame is in two.", moved == 1 ? "A tower moves" : fmt::format("{} towers move", moved)),
            "Clamp each piece before the cut; move the rear one on its towers, then read the tapes and the sight line again.");
    }

    void tower(std::size_t k) {
        const TowerPlan& t = p_.towers[k];
        for (const auto* s : {&t.now, t.then ? &*t.then : nullptr}) {
            if (!s) continue;
            const std::string who = t.name + (s == &t.now ? "" : ", once it is moved,");
            if (s->tower_mm <= 0)
                add("fixture-low", PlanVerdict::Fails,
                    fmt::format("Under {} there are {:.0f} mm: the shortest tower is {:g}.", who, s->head_mm.value,
                                in_.tower_least_mm),
                    fmt::format("The datum {:.0f} mm higher over the table.", std::ceil(in_.tower_least_mm - s->head_mm.value)));
            else if (s->head_mm.value > in_.tower_most_mm + stack_mm)
                add("fixture-high", PlanVerdict::Fails,
                    fmt::format("Under {} there are {:.0f} mm: the tallest tower is {:g}.", who, s->head_mm.value,
                                in_.tower_most_mm),
                    "The datum lower, or a taller tower made for it.");
            if (const double off = std::max(std::abs(s->off_along_mm), std::abs(s->off_across_mm)); off > in_.reach_mm)
                add("fixture-reach", PlanVerdict::Fails,
                    fmt::format("The head at {} is {:.0f} mm off its hole, and reaches {:g}.", who, off, in_.reach_mm),
                    "An arm on the tower, or a plate between it and the table.");
        }
        if (const Figure& h = t.now.head_mm; h.u95 > in_.packer_mm)
            add("fixture-known", PlanVerdict::Marginal,
                fmt::format("{} is known to ± {:.1f} mm in height, and the thinnest packer is {:g}.", t.name, h.u95,
                            in_.packer_mm),
                "Set it to the frame where it lies, not by the list.");
    }

    void near(bool then) {
        for (std::size_t i = 0; i < p_.towers.size(); ++i)
            for (std::size_t j = 0; j < i; ++j) {
                const auto at = [&](std::size_t k) -> const TowerState& {
                    return then && p_.towers[k].then ? *p_.towers[k].then : p_.towers[k].now;
                };
                if (then && !moves(i) && !moves(j)) continue; // said already
                const double a = std::abs(at(i).column - at(j).column) * in_.pitch_mm,
                             b = std::abs(at(i).row - at(j).row) * in_.pitch_mm;
                if (a < in_.foot_mm && b < in_.foot_mm)
                    add("fixture-near", PlanVerdict::Fails,
                        fmt::format("The feet of {} and {} stand in each other.", p_.towers[j].name, p_.towers[i].name),
                        "One tower with a bar across for both, or a point further along.");
            }
    }

    std::string pullWords(std::size_t k) const {
        std::string words;
        const auto way = [&](std::size_t axis, const char* more, const char* less) {
            const double mm = pull_[k][axis];
            if (std::abs(mm) <= 1e-9) return;
            words += fmt::format("{}{:.1f}{} {}", words.empty() ? "" : ", ", std::abs(mm),
                                 straight_[k] ? fmt::format(" ± {:.1f}", (*straight_[k])[axis].u95) : "", mm > 0 ? more : less);
        };
        way(0, "rearwards", "forwards");
        way(1, "to the right", "to the left");
        way(2, "up", "down");
        return words.empty() ? "not at all" : words;
    }
    /// Whether what was worked out is more than its ±: else nobody knows that it is crooked.
    static bool drawn(const std::array<Figure, 3>& by, std::size_t axis) { return std::abs(by[axis].value) > by[axis].u95; }
    /// Where its twin's image is, along one axis.
    Figure imageOf(const FixtureTower& t, std::size_t axis) const {
        std::vector<std::size_t> of{*t.twin};
        for (const auto& [left, right] : in_.held) of.insert(of.end(), {left, right});
        return build::figureOf(in_.places, of,
                               [&](const std::vector<Vec3>& p) { return mirrored(mirrorOf(p, in_.held), p[*t.twin])[axis]; });
    }
    /// Pairs that are no images of each other hold a crooked frame: what is drawn by them comes out as crooked.
    void heldAlike() {
        constexpr double sure = 1.5, least_mm = 1; // of the ±, as all axes of all pairs are asked
        std::string worst;
        double most = 0;
        for (const auto& [left, right] : in_.held) {
            const auto off = drawnStraight(in_.places, in_.held, right, left);
            for (const Figure& f : off) {
                if (std::abs(f.value) < std::max(least_mm, sure * f.u95) || std::abs(f.value) <= most) continue;
                most = std::abs(f.value);
                worst = fmt::format("{} is {:.1f} ± {:.1f} mm off the image of {}", in_.places.names[right], most, f.u95,
                                    in_.places.names[left]);
            }
        }
        if (worst.empty()) return;
        add("fixture-crooked", PlanVerdict::Fails,
            fmt::format("The pairs that hold are not alike themselves: {}. What is drawn by them comes out as crooked.", worst),
            "Hold it by pairs that are alike, or say by how much it is drawn: pull by.");
    }
    /// What is drawn to its twin's image, and what is left as it is.
    void straight() {
        if (std::any_of(straight_.begin(), straight_.end(), [](const auto& s) { return s.has_value(); })) heldAlike();
        for (std::size_t k = 0; k < straight_.size(); ++k) {
            if (!straight_[k]) continue;
            double least = 0;
            for (const Figure& f : *straight_[k]) least = std::max(least, f.u95);
            if (geometry::length(pull_[k]) <= 0)
                add("fixture-straight", PlanVerdict::Marginal,
                    fmt::format("{} is not drawn: it is as its twin as far as the readings tell, to ± {:.1f} mm.",
                                in_.towers[k].name, least),
                    "Let it rest; or read more tapes to it and to its twin.");
            else if (geometry::length(pull_[k]) > most_pull_mm)
                add("fixture-straight", PlanVerdict::Fails,
                    fmt::format("{} would be drawn by {:.0f} mm: that makes another frame of it.", in_.towers[k].name,
                                geometry::length(pull_[k])),
                    "Look at its readings and its twin's; what is bent so far is cut out and made anew.");
        }
    }
    void pulls() {
        bool any = false;
        for (const FixtureTower& t : in_.towers) any = any || t.does == TowerDoes::Pull;
        if (!any) return;
        const auto holds = [&](std::size_t k) {
            return in_.towers[k].does == TowerDoes::Clamp || in_.towers[k].does == TowerDoes::Pin;
        };
        if (span(holds) < standing_mm2)
            add("fixture-free", PlanVerdict::Fails, "Nothing holds the frame against the pull.",
                "Three clamps or pins, not in one line, where it is straight.");
        add("fixture-pull", PlanVerdict::Marginal,
            "Drawn to its stop and let go a frame springs back, and a chain that breaks kills.",
            "Cold, a little beyond at a time, let go and measured each time; nobody stands in line with a chain; cracks are looked for after.");
        skip("the force of a pull, and what gives instead of what should");
    }

    /// Each tower as a column up to its head, against all that is planned on the frame.
    void inTheWay() {
        if (in_.around.empty()) {
            skip("what stands beside the towers: nothing of the frame is planned");
            return;
        }
        std::vector<ServiceBody> all = in_.around;
        const double half = column_share * in_.foot_mm / 2;
        const auto direction = [&](const Vec3& d) { return unrolled(in_.attitude, d); };
        for (std::size_t k = 0; k < p_.towers.size(); ++k) {
            const TowerPlan& t = p_.towers[k];
            const TowerState& s = t.then ? *t.then : t.now;
            // one that draws the frame up is as high as it lies before it is drawn
            const double high = s.head_mm.value - std::max(0.0, rolled(in_.attitude, pull_[k]).z_mm);
            if (high < 10) continue;
            ServiceBody one;
            one.name = "the tower at " + t.name;
            const Vec3 foot = minus({s.column * in_.pitch_mm, s.row * in_.pitch_mm, 0}, shift_);
            one.mesh = std::make_shared<const shape::Mesh>(
                shape::prismMesh({{-half, -half}, {half, -half}, {half, half}, {-half, half}}, high,
                                 {unrolled(in_.attitude, foot), direction({1, 0, 0}), direction({0, 1, 0})}));
            one.touch_mm = rail_touch_mm;
            all.push_back(std::move(one));
        }
        for (const Foul& f : foulsOf(all)) {
            const bool first = f.one.starts_with("the tower at "), second = f.other.starts_with("the tower at ");
            if (first == second) continue;
            p_.fouls.push_back(f);
            std::string tower = first ? f.one : f.other;
            tower[0] = 'T';
            add("fixture-fouls", PlanVerdict::Fails,
                fmt::format("{} stands in {}: the frame does not come down on it, nor off again.", tower,
                            first ? f.other : f.one),
                "Another point, or the tower a hole further and an arm on it.");
        }
        skip("what was scanned, and what hangs under the frame unplanned: look before it is lowered");
    }

    void verdict() {
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const build::Remark& a, const build::Remark& b) { return a.verdict > b.verdict; });
        for (const build::Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
    }

    static constexpr double rail_touch_mm = 3; ///< a head lies where the rail was measured
    const FixtureIn& in_;
    FixturePlan p_;
    std::vector<Vec3> now_, then_, pull_;
    std::vector<std::optional<std::array<Figure, 3>>> straight_;
    Vec3 shift_;
};

} // namespace

std::string holeName(int column, int row) {
    std::string letters;
    for (int k = row; k >= 0; k = k / 26 - 1) letters.insert(letters.begin(), static_cast<char>('A' + k % 26));
    return fmt::format("{}{}", letters, column + 1);
}

Vec3 rolled(Attitude a, const Vec3& p) {
    switch (a) {
    case Attitude::RightWayUp: break;
    case Attitude::Inverted: return {p.x_mm, -p.y_mm, -p.z_mm};
    case Attitude::OnItsSide: return {p.x_mm, p.z_mm, -p.y_mm};
    }
    return p;
}
Vec3 unrolled(Attitude a, const Vec3& p) { return a == Attitude::OnItsSide ? Vec3{p.x_mm, -p.z_mm, p.y_mm} : rolled(a, p); }

GridShift gridShift(const std::vector<double>& places, double pitch) {
    std::vector<double> rest;
    for (const double p : places) rest.push_back(p - pitch * std::floor(p / pitch));
    if (rest.empty()) return {};
    std::sort(rest.begin(), rest.end());
    double widest = rest.front() + pitch - rest.back(), after = rest.back(); // round the end
    for (std::size_t k = 1; k < rest.size(); ++k)
        if (rest[k] - rest[k - 1] > widest) {
            widest = rest[k] - rest[k - 1];
            after = rest[k - 1];
        }
    // they all lie on the arc that begins where the gap ends: its middle comes onto a hole
    const double spread = pitch - widest, middle = after + widest + spread / 2;
    return {-middle, spread / 2};
}

FixturePlan fixturePlan(const FixtureIn& in) { return FixtureMaker(in).plan(); }

} // namespace gorvet::make
