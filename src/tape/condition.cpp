#include "tape/condition.hpp"

#include "tape/propagate.hpp"

#include <algorithm>
#include <cmath>

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
        const auto judged = std::count_if(figures_.begin(), figures_.end(), [](const Figure& f) { return f.judged; });
        c.by_chance = static_cast<int>(std::ceil(0.05 * static_cast<double>(judged)));
        if (!pairs_.empty()) c.station_mm = (middle(pairs_.front()) + middle(pairs_.back())) / 2;
        c.figures = std::move(figures_);
        if (frame_.rails) c.sections = sections(s_, frame_);
        return c;
    }

private:
    bool usable(const std::vector<int>& points) const {
        return std::all_of(points.begin(), points.end(), [this](int p) { return p >= 0 && s_.points[p].fixed; });
    }
    double middle(const FramePoints::Pair& p) const { return (positions_[p.left].x_mm + positions_[p.right].x_mm) / 2; }

    Figure& add(FigureKind kind, const char* key, const char* name, const std::vector<int>& points,
                const std::function<double(const Positions&)>& f, bool judged) {
        const Propagated p = propagate(s_, positions_, points, f);
        Figure figure;
        figure.kind = kind;
        figure.key = key;
        figure.name = name;
        figure.value_mm = p.value;
        figure.half_width_mm = halfWidth(p.sd);
        figure.judged = judged;
        figure.proven = std::abs(p.value) > figure.half_width_mm;
        figure.limit = frame_.tolerance_mm;
        if (judged) figure.verdict = planVerdict(p.value, figure.half_width_mm, frame_.tolerance_mm);
        figure.gradient = p.gradient;
        figures_.push_back(std::move(figure));
        return figures_.back();
    }

    void rails() {
        std::vector<int> all;
        for (const auto& pair : pairs_) {
            all.push_back(pair.left);
            all.push_back(pair.right);
        }
        const auto pairs = pairs_;
        Figure& diamond = add(
            FigureKind::Diamond, "diamond", "diamond", all,
            [pairs](const Positions& p) {
                const auto [c, sn] = midline(p, pairs);
                double sum = 0;
                for (const auto& pair : pairs) {
                    const Vec3& l = p[pair.left];
                    const Vec3& r = p[pair.right];
                    sum += (l.x_mm - r.x_mm) * c + (l.y_mm - r.y_mm) * sn;
                }
                return sum / static_cast<double>(pairs.size());
            },
            true);
        diamond.words = diamond.value_mm > 0 ? "left rail aft" : "right rail aft";

        const auto front = pairs_.front();
        const auto rear = pairs_.back();
        const std::vector<int> ends = {front.left, front.right, rear.left, rear.right};
        const double width =
            (plan(positions_[front.left], positions_[front.right]) + plan(positions_[rear.left], positions_[rear.right])) / 2;
        Figure& twist = add(
            FigureKind::Twist, "twist", "twist", ends,
            [front, rear, width](const Positions& p) { return width * std::tan(crossLevel(p, front) - crossLevel(p, rear)); },
            true);
        twist.angle_rad = std::atan(twist.value_mm / width);
        twist.angle_half_width_rad = std::atan(twist.half_width_mm / width);
        twist.words = twist.value_mm > 0 ? "right side high at the front" : "left side high at the front";

        if (!frame_.rails) return;
        Figure& rail = add(
            FigureKind::RailDifference, "rail-difference", "rails left − right", ends,
            [front, rear](const Positions& p) { return plan(p[front.left], p[rear.left]) - plan(p[front.right], p[rear.right]); },
            true);
        rail.words = rail.value_mm > 0 ? "right rail short" : "left rail short";

        if (pairs_.size() < 3) return;
        sidesway(all, front, rear);
        sag(front, rear);
    }

    /// The middle that stands furthest off the straight line from the front pair's middle to the rear pair's.
    void sidesway(const std::vector<int>& all, FramePoints::Pair front, FramePoints::Pair rear) {
        const auto off = [front, rear](const Positions& p, const FramePoints::Pair& pair) {
            const auto mid = [&p](const FramePoints::Pair& q) {
                return std::pair{(p[q.left].x_mm + p[q.right].x_mm) / 2, (p[q.left].y_mm + p[q.right].y_mm) / 2};
            };
            const auto [x0, y0] = mid(front);
            const auto [x1, y1] = mid(rear);
            const auto [x, y] = mid(pair);
            return ((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) / std::hypot(x1 - x0, y1 - y0);
        };
        FramePoints::Pair worst = pairs_[1];
        for (size_t i = 1; i + 1 < pairs_.size(); ++i)
            if (std::abs(off(positions_, pairs_[i])) > std::abs(off(positions_, worst))) worst = pairs_[i];
        Figure& f = add(
            FigureKind::Sidesway, "sidesway", "sidesway", all, [off, worst](const Positions& p) { return off(p, worst); }, true);
        f.words = f.value_mm > 0 ? "middle stands to the right" : "middle stands to the left";
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
        std::optional<std::pair<FramePoints::Pair, double>> worst; // the pair, and how far its design stands under the chord
        const auto under = [front, rear](const Positions& p, const FramePoints::Pair& q) {
            const auto x = [&p](const FramePoints::Pair& r) { return (p[r.left].x_mm + p[r.right].x_mm) / 2; };
            const auto z = [&p](const FramePoints::Pair& r) { return (p[r.left].z_mm + p[r.right].z_mm) / 2; };
            const double share = (x(q) - x(front)) / (x(rear) - x(front));
            return z(front) + share * (z(rear) - z(front)) - z(q);
        };
        const double length = middle(rear) - middle(front);
        if (length < 1) return;
        for (size_t i = 1; i + 1 < pairs_.size(); ++i) {
            const auto z = design(pairs_[i]);
            if (!z) continue;
            const double share = (middle(pairs_[i]) - middle(front)) / length;
            const double drawn = *z0 + share * (*z1 - *z0) - *z;
            if (!worst ||
                std::abs(under(positions_, pairs_[i]) - drawn) > std::abs(under(positions_, worst->first) - worst->second))
                worst = {pairs_[i], drawn};
        }
        if (!worst) return;
        const auto [pair, drawn] = *worst;
        Figure& f = add(
            FigureKind::Sag, "sag", "sag", {front.left, front.right, pair.left, pair.right, rear.left, rear.right},
            [under, pair, drawn](const Positions& p) { return under(p, pair) - drawn; }, true);
        f.words = f.value_mm > 0 ? "middle low" : "middle high";
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
            Figure& f = add(
                FigureKind::WheelbaseDifference, "wheelbase-difference", "wheelbase left − right", {fl, fr, rl, rr},
                [=](const Positions& p) { return (p[rl].x_mm - p[fl].x_mm) - (p[rr].x_mm - p[fr].x_mm); }, true);
            f.words = f.value_mm > 0 ? "left wheelbase longer" : "right wheelbase longer";
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
        const auto axle = [line](const Positions& p, int l, int r) {
            const auto [c, sn] = midline(p, line);
            const double dx = p[r].x_mm - p[l].x_mm;
            const double dy = p[r].y_mm - p[l].y_mm;
            return std::pair{dx * c + dy * sn, -dx * sn + dy * c};
        };
        const auto round = [](double mm) { return units::fixed(std::abs(mm), 1) + " mm"; };
        if (usable({fl, fr})) {
            Figure& f = add(
                FigureKind::SetBack, "set-back", "set-back front", with({fl, fr}),
                [=](const Positions& p) { return axle(p, fl, fr).first; }, true);
            f.words = f.value_mm > 0 ? "right front wheel back" : "left front wheel back";
            f.remedy =
                "Move the " + std::string(f.value_mm > 0 ? "right" : "left") + " front wheel " + round(f.value_mm) + " forward.";
        }
        if (!usable({rl, rr})) return;
        Figure& f = add(
            FigureKind::Thrust, "thrust", "thrust angle", with({rl, rr}),
            [=](const Positions& p) { return axle(p, rl, rr).first; }, true);
        const double width = axle(positions_, rl, rr).second;
        f.angle_rad = std::atan2(f.value_mm, width);
        f.angle_half_width_rad = std::atan2(f.half_width_mm, width);
        f.limit = frame_.thrust_tolerance_rad;
        f.verdict = planVerdict(f.angle_rad, f.angle_half_width_rad, f.limit);
        f.words =
            f.value_mm > 0 ? "right rear wheel back, it pushes to the right" : "left rear wheel back, it pushes to the left";
        f.remedy =
            "Move the " + std::string(f.value_mm > 0 ? "right" : "left") + " rear wheel " + round(f.value_mm) + " forward.";
        if (line.front().left == fl) return; // the line between the axles has no offset from itself
        Figure& offset = add(
            FigureKind::RearOffset, "rear-offset", "rear axle offset", with({rl, rr}),
            [=](const Positions& p) {
                const auto [c, sn] = midline(p, line);
                double mx = 0;
                double my = 0;
                for (const auto& pair : line) {
                    mx += (p[pair.left].x_mm + p[pair.right].x_mm) / 2 / static_cast<double>(line.size());
                    my += (p[pair.left].y_mm + p[pair.right].y_mm) / 2 / static_cast<double>(line.size());
                }
                return -((p[rl].x_mm + p[rr].x_mm) / 2 - mx) * sn + ((p[rl].y_mm + p[rr].y_mm) / 2 - my) * c;
            },
            true);
        offset.words = offset.value_mm > 0 ? "it stands to the right" : "it stands to the left";
        offset.remedy =
            "Move the rear axle " + round(offset.value_mm) + (offset.value_mm > 0 ? " to the left." : " to the right.");
    }

    const Solution& s_;
    const FramePoints& frame_;
    Positions positions_;
    std::vector<FramePoints::Pair> pairs_;
    std::vector<Figure> figures_;
};

} // namespace

Condition condition(const Solution& s, const FramePoints& frame) {
    if (s.points.empty() || s.status == Status::NoReadings || s.status == Status::NotConverged) return {};
    return FigureMaker(s, frame).make();
}

} // namespace gorvet::tape
