#include "tape/condition.hpp"

#include "tape/judge.hpp"
#include "tape/propagate.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace gorvet::tape {

namespace {

/// Direction of the line through the pairs' middles, in plan (cos, sin), pointing rearward.
std::pair<double, double> midline(const Positions& p, const std::vector<FramePoints::Pair>& pairs) {
    double mx = 0;
    double my = 0;
    for (const auto& pair : pairs) {
        mx += (p[pair.left].x_mm + p[pair.right].x_mm) / 2;
        my += (p[pair.left].y_mm + p[pair.right].y_mm) / 2;
    }
    mx /= static_cast<double>(pairs.size());
    my /= static_cast<double>(pairs.size());
    double xx = 0;
    double xy = 0;
    for (const auto& pair : pairs) {
        const double dx = (p[pair.left].x_mm + p[pair.right].x_mm) / 2 - mx;
        const double dy = (p[pair.left].y_mm + p[pair.right].y_mm) / 2 - my;
        xx += dx * dx;
        xy += dx * dy;
    }
    const double slope = xx > 0 ? xy / xx : 0;
    const double length = std::hypot(1.0, slope);
    return {1 / length, slope / length};
}

/// The way rearward that a frame is judged by, and the middle of its line.
struct Line {
    double c = 1, s = 0;
    double mx = 0, my = 0;
};
Line lineOf(const Positions& p, const std::vector<FramePoints::Pair>& pairs, bool carried) {
    Line line;
    if (carried) return line;
    std::tie(line.c, line.s) = midline(p, pairs);
    for (const auto& pair : pairs) {
        line.mx += (p[pair.left].x_mm + p[pair.right].x_mm) / 2 / static_cast<double>(pairs.size());
        line.my += (p[pair.left].y_mm + p[pair.right].y_mm) / 2 / static_cast<double>(pairs.size());
    }
    return line;
}

double crossLevel(const Positions& p, const FramePoints::Pair& pair) {
    return std::atan2(p[pair.right].z_mm - p[pair.left].z_mm, p[pair.right].y_mm - p[pair.left].y_mm);
}

double plan(const Vec3& a, const Vec3& b) { return std::hypot(b.x_mm - a.x_mm, b.y_mm - a.y_mm); }

class FigureMaker {
public:
    FigureMaker(const Solution& s, const FramePoints& frame) : s_(s), frame_(frame) {
        positions_ = positionsOf(s);
        for (const auto& pair : frame.pairs)
            if (usable({pair.left, pair.right})) pairs_.push_back(pair);
        std::sort(pairs_.begin(), pairs_.end(), [this](const auto& a, const auto& b) { return middle(a) < middle(b); });
    }

    Condition make() {
        if (pairs_.size() >= 2) rails();
        hubs();
        axles();
        Condition c;
        const auto judged = std::count_if(figures_.begin(), figures_.end(), [](const ConditionFigure& f) { return f.judged; });
        c.by_chance = static_cast<int>(std::ceil(0.05 * static_cast<double>(judged)));
        if (!pairs_.empty()) c.station_mm = (middle(pairs_.front()) + middle(pairs_.back())) / 2;
        c.figures = std::move(figures_);
        if (frame_.rails) c.sections = sections(s_, frame_);
        return c;
    }

private:
    bool usable(const std::vector<int>& points) const {
        return std::all_of(points.begin(), points.end(), [this](int p) { return p >= 0 && s_.points[p].determined; });
    }
    double middle(const FramePoints::Pair& p) const { return (positions_[p.left].x_mm + positions_[p.right].x_mm) / 2; }

    ConditionFigure& add(FigureKind kind, const char* key, const char* name, const std::vector<int>& points,
                         const std::function<double(const Positions&)>& f, bool judged) {
        const Propagated p = propagate(s_, positions_, points, f);
        ConditionFigure figure;
        figure.kind = kind;
        figure.key = key;
        figure.name = name;
        figure.size_mm = {p.value, u95Of(p.sd)};
        figure.judged = judged;
        figure.limit = frame_.tolerance_mm;
        if (judged) figure.verdict = build::judge(figure.size_mm, Limit::within(frame_.tolerance_mm));
        figure.gradient = p.gradient;
        figures_.push_back(std::move(figure));
        return figures_.back();
    }

    /// One station that a figure looks at: the points it needs, and how it is found from them.
    struct Candidate {
        std::vector<int> points;
        std::function<double(const Positions&)> figure;
    };
    /// The worst of several stations, judged as such: with k of them looked at, each ± is that of z(1 − 0.05/2k), so that the
    /// largest of k straight ones is "proven" in 5 of 100 frames, not in 5k. The worst verdict counts, then the largest value.
    ConditionFigure& addWorst(FigureKind kind, const char* key, const char* name, const std::vector<Candidate>& all) {
        const int k = static_cast<int>(all.size());
        size_t worst = 0;
        PlanVerdict worst_verdict = PlanVerdict::Holds;
        double largest = -1;
        for (size_t i = 0; i < all.size(); ++i) {
            const Propagated p = propagate(s_, positions_, all[i].points, all[i].figure);
            const PlanVerdict verdict = build::judge({p.value, u95OfWorst(p.sd, k)}, Limit::within(frame_.tolerance_mm));
            if (verdict < worst_verdict || (verdict == worst_verdict && std::abs(p.value) <= largest)) continue;
            worst = i;
            worst_verdict = verdict;
            largest = std::abs(p.value);
        }
        ConditionFigure& f = add(kind, key, name, all[worst].points, all[worst].figure, true);
        f.size_mm.u95 = u95OfWorst(f.size_mm.u95 / u95Of(1), k);
        f.verdict = worst_verdict;
        f.worst_of = k;
        return f;
    }

    void rails() {
        std::vector<int> all;
        for (const auto& pair : pairs_) {
            all.push_back(pair.left);
            all.push_back(pair.right);
        }
        const auto pairs = pairs_;
        ConditionFigure& diamond = add(
            FigureKind::Diamond, "diamond", "diamond", all,
            [pairs, carried = frame_.carried](const Positions& p) {
                const auto [c, sn, mx, my] = lineOf(p, pairs, carried);
                double sum = 0;
                for (const auto& pair : pairs) {
                    const Vec3& l = p[pair.left];
                    const Vec3& r = p[pair.right];
                    sum += (l.x_mm - r.x_mm) * c + (l.y_mm - r.y_mm) * sn;
                }
                return sum / static_cast<double>(pairs.size());
            },
            true);
        diamond.words = diamond.size_mm.value > 0 ? "left rail aft" : "right rail aft";

        const auto front = pairs_.front();
        const auto rear = pairs_.back();
        const std::vector<int> ends = {front.left, front.right, rear.left, rear.right};
        const double width =
            (plan(positions_[front.left], positions_[front.right]) + plan(positions_[rear.left], positions_[rear.right])) / 2;
        ConditionFigure& twist = add(
            FigureKind::Twist, "twist", "twist", ends,
            [front, rear, width](const Positions& p) { return width * std::tan(crossLevel(p, front) - crossLevel(p, rear)); },
            true);
        twist.angle_rad = {std::atan(twist.size_mm.value / width), std::atan(twist.size_mm.u95 / width)};
        twist.words = twist.size_mm.value > 0 ? "right side high at the front" : "left side high at the front";

        if (frame_.carried) aside();
        if (!frame_.rails) return;
        ConditionFigure& rail = add(
            FigureKind::RailDifference, "rail-difference", "rails left − right", ends,
            [front, rear](const Positions& p) { return plan(p[front.left], p[rear.left]) - plan(p[front.right], p[rear.right]); },
            true);
        rail.words = rail.size_mm.value > 0 ? "right rail short" : "left rail short";

        if (pairs_.size() < 3) return;
        sidesway(front, rear);
        sag(front, rear);
    }

    /// How far a carried frame stands off the centreline of what carries it: shifted, or yawed so that one end does.
    void aside() {
        std::vector<Candidate> all;
        for (const auto& q : pairs_)
            all.push_back({{q.left, q.right}, [q](const Positions& p) { return (p[q.left].y_mm + p[q.right].y_mm) / 2; }});
        ConditionFigure& f = addWorst(FigureKind::Aside, "aside", "off the centreline", all);
        f.words = f.size_mm.value > 0 ? "it stands to the right of what carries it" : "it stands to the left of what carries it";
    }

    /// The middle that stands furthest off the straight line from the front pair's middle to the rear pair's.
    void sidesway(FramePoints::Pair front, FramePoints::Pair rear) {
        const auto off = [front, rear](const Positions& p, const FramePoints::Pair& pair) {
            const auto mid = [&p](const FramePoints::Pair& q) {
                return std::pair{(p[q.left].x_mm + p[q.right].x_mm) / 2, (p[q.left].y_mm + p[q.right].y_mm) / 2};
            };
            const auto [x0, y0] = mid(front);
            const auto [x1, y1] = mid(rear);
            const auto [x, y] = mid(pair);
            return ((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) / std::hypot(x1 - x0, y1 - y0);
        };
        std::vector<Candidate> all;
        for (size_t i = 1; i + 1 < pairs_.size(); ++i) {
            const auto q = pairs_[i];
            all.push_back({{front.left, front.right, q.left, q.right, rear.left, rear.right},
                           [off, q](const Positions& p) { return off(p, q); }});
        }
        ConditionFigure& f = addWorst(FigureKind::Sidesway, "sidesway", "sidesway", all);
        f.words = f.size_mm.value > 0 ? "middle stands to the right" : "middle stands to the left";
    }

    /// The middle that stands furthest under (or over) the chord of the end pairs, against the drawing's heights.
    void sag(FramePoints::Pair front, FramePoints::Pair rear) {
        const auto design = [this](const FramePoints::Pair& p) -> std::optional<double> {
            const auto l = frame_.design_heights.find(p.left);
            const auto r = frame_.design_heights.find(p.right);
            if (l == frame_.design_heights.end() || r == frame_.design_heights.end()) return std::nullopt;
            return (l->second + r->second) / 2;
        };
        const auto z0 = design(front);
        const auto z1 = design(rear);
        if (!z0 || !z1) return;
        const auto under = [front, rear](const Positions& p, const FramePoints::Pair& q) {
            const auto x = [&p](const FramePoints::Pair& r) { return (p[r.left].x_mm + p[r.right].x_mm) / 2; };
            const auto z = [&p](const FramePoints::Pair& r) { return (p[r.left].z_mm + p[r.right].z_mm) / 2; };
            const double share = (x(q) - x(front)) / (x(rear) - x(front));
            return z(front) + share * (z(rear) - z(front)) - z(q);
        };
        const double length = middle(rear) - middle(front);
        if (length < 1) return;
        std::vector<Candidate> all;
        for (size_t i = 1; i + 1 < pairs_.size(); ++i) {
            const auto q = pairs_[i];
            const auto z = design(q);
            if (!z) continue;
            const double share = (middle(q) - middle(front)) / length;
            const double drawn = *z0 + share * (*z1 - *z0) - *z;
            all.push_back({{front.left, front.right, q.left, q.right, rear.left, rear.right},
                           [under, q, drawn](const Positions& p) { return under(p, q) - drawn; }});
        }
        if (all.empty()) return;
        ConditionFigure& f = addWorst(FigureKind::Sag, "sag", "sag", all);
        f.words = f.size_mm.value > 0 ? "middle low" : "middle high";
    }

    void hubs() {
        const int fl = frame_.front_hub_left;
        const int fr = frame_.front_hub_right;
        const int rl = frame_.rear_hub_left;
        const int rr = frame_.rear_hub_right;
        const bool left = usable({fl, rl});
        const bool right = usable({fr, rr});
        if (left)
            add(
                FigureKind::WheelbaseLeft, "wheelbase-left", "wheelbase left", {fl, rl},
                [=](const Positions& p) { return p[rl].x_mm - p[fl].x_mm; }, false);
        if (right)
            add(
                FigureKind::WheelbaseRight, "wheelbase-right", "wheelbase right", {fr, rr},
                [=](const Positions& p) { return p[rr].x_mm - p[fr].x_mm; }, false);
        if (left && right) {
            ConditionFigure& f = add(
                FigureKind::WheelbaseDifference, "wheelbase-difference", "wheelbase left − right", {fl, fr, rl, rr},
                [=](const Positions& p) { return (p[rl].x_mm - p[fl].x_mm) - (p[rr].x_mm - p[fr].x_mm); }, true);
            f.words = f.size_mm.value > 0 ? "left wheelbase longer" : "right wheelbase longer";
        }
        if (usable({fl, fr}))
            add(
                FigureKind::TrackFront, "track-front", "track front", {fl, fr},
                [=](const Positions& p) { return p[fr].y_mm - p[fl].y_mm; }, false);
        if (usable({rl, rr}))
            add(
                FigureKind::TrackRear, "track-rear", "track rear", {rl, rr},
                [=](const Positions& p) { return p[rr].y_mm - p[rl].y_mm; }, false);
    }

    /// Square to the centreline: how the axles stand.
    void axles() {
        const int fl = frame_.front_hub_left;
        const int fr = frame_.front_hub_right;
        const int rl = frame_.rear_hub_left;
        const int rr = frame_.rear_hub_right;
        std::vector<int> line_points;
        for (const auto& pair : pairs_) {
            line_points.push_back(pair.left);
            line_points.push_back(pair.right);
        }
        auto line = pairs_;
        if (line.size() < 2) {
            if (!usable({fl, fr, rl, rr})) return;
            line = {{fl, fr}, {rl, rr}};
            line_points = {fl, fr, rl, rr};
        }
        const auto with = [&](std::vector<int> points) {
            for (const int p : line_points)
                if (std::find(points.begin(), points.end(), p) == points.end()) points.push_back(p);
            return points;
        };
        // rearward and rightward parts of the way from the left wheel to the right
        const bool carried = frame_.carried;
        const auto axle = [line, carried](const Positions& p, int l, int r) {
            const auto [c, sn, mx, my] = lineOf(p, line, carried);
            const double dx = p[r].x_mm - p[l].x_mm;
            const double dy = p[r].y_mm - p[l].y_mm;
            return std::pair{dx * c + dy * sn, -dx * sn + dy * c};
        };
        const auto round = [](double mm) { return units::fixed(std::abs(mm), 1) + " mm"; };
        if (usable({fl, fr})) {
            ConditionFigure& f = add(
                FigureKind::SetBack, "set-back", "set-back front", with({fl, fr}),
                [=](const Positions& p) { return axle(p, fl, fr).first; }, true);
            f.words = f.size_mm.value > 0 ? "right front wheel back" : "left front wheel back";
            f.remedy = "Move the " + std::string(f.size_mm.value > 0 ? "right" : "left") + " front wheel " +
                       round(f.size_mm.value) + " forward.";
        }
        if (!usable({rl, rr})) return;
        ConditionFigure& f = add(
            FigureKind::Thrust, "thrust", "thrust angle", with({rl, rr}),
            [=](const Positions& p) { return axle(p, rl, rr).first; }, true);
        const double width = axle(positions_, rl, rr).second;
        f.angle_rad = {std::atan2(f.size_mm.value, width), std::atan2(f.size_mm.u95, width)};
        f.limit = frame_.thrust_tolerance_rad;
        f.verdict = build::judge(f.angle_rad, Limit::within(f.limit));
        f.words =
            f.size_mm.value > 0 ? "right rear wheel back, it pushes to the right" : "left rear wheel back, it pushes to the left";
        f.remedy = "Move the " + std::string(f.size_mm.value > 0 ? "right" : "left") + " rear wheel " + round(f.size_mm.value) +
                   " forward.";
        if (line.front().left == fl) return; // the line between the axles has no offset from itself
        ConditionFigure& offset = add(
            FigureKind::RearOffset, "rear-offset", "rear axle offset", with({rl, rr}),
            [=](const Positions& p) {
                const auto [c, sn, mx, my] = lineOf(p, line, carried);
                return -((p[rl].x_mm + p[rr].x_mm) / 2 - mx) * sn + ((p[rl].y_mm + p[rr].y_mm) / 2 - my) * c;
            },
            true);
        offset.words = offset.size_mm.value > 0 ? "it stands to the right" : "it stands to the left";
        offset.remedy =
            "Move the rear axle " + round(offset.size_mm.value) + (offset.size_mm.value > 0 ? " to the left." : " to the right.");
    }

    const Solution& s_;
    const FramePoints& frame_;
    Positions positions_;
    std::vector<FramePoints::Pair> pairs_;
    std::vector<ConditionFigure> figures_;
};

} // namespace

Condition condition(const Solution& s, const FramePoints& frame) {
    if (s.points.empty() || s.status == Status::NoReadings || s.status == Status::NotConverged) return {};
    return FigureMaker(s, frame).make();
}

} // namespace gorvet::tape
