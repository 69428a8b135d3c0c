#include "drive/steering_sheet.hpp"

#include "drive/degree.hpp"
#include "sheet/plan_words.hpp"
#include "sheet/plot.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;

namespace {

constexpr double steer_column_px = 360, steer_plan_px = 250, steer_plot_px = 90;

std::string lockDegrees(const Figure& f) { return fmt::format("{:.1f}° ± {:.1f}°", f.value / one_degree, f.u95 / one_degree); }

class SteeringDraft {
public:
    SteeringDraft(Drawing& d, const SteeringView& v, const Format& f) : d_(d), v_(v), in_(*v.input), p_(*v.plan), f_(f) {}

    double draw() {
        y_ = f_.lead();
        d_.add(Text{{0, y_}, "steering", f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, steering_tag);
        wide_ = d_.width - f_.px(steer_column_px) - f_.px(30);
        double figures_end = y_;
        if (p_.rows.size() > 1) {
            const double begins = y_;
            row_ = rowAt(v_.share);
            fromAbove();
            curve();
            figures_end = figures({d_.width - f_.px(steer_column_px), begins}, f_.px(steer_column_px));
        }
        SheetWords words(d_, f_, y_ + f_.px(18), wide_, steering_tag);
        for (const std::string& lack : in_.missing) words.lines("Waits for " + lack + ".");
        words.remarks(p_.remarks);
        if (!p_.searched.empty()) words.lines(p_.searched);
        words.list("Taken as usual, not measured: ", in_.assumed);
        return std::max(words.end(), figures_end) + f_.px(14);
    }

private:
    /// Both wheels at a share of the way from one lock to the other.
    SteerRow rowAt(double share) const {
        double left = p_.rows.back().rack_mm, right = p_.rows.front().rack_mm;
        const bool turns_left = p_.rows.back().left_rad > p_.rows.front().left_rad;
        if (!turns_left) std::swap(left, right);
        for (const FullLock& l : p_.locks) (l.left ? left : right) = l.rack_mm;
        const double rack = share > 0 ? share * left : -share * right;
        for (std::size_t k = 0; k + 1 < p_.rows.size(); ++k) {
            const SteerRow &a = p_.rows[k], &b = p_.rows[k + 1];
            if (rack < a.rack_mm || rack > b.rack_mm) continue;
            const double s = (rack - a.rack_mm) / (b.rack_mm - a.rack_mm);
            return {rack, a.left_rad + s * (b.left_rad - a.left_rad), a.right_rad + s * (b.right_rad - a.right_rad)};
        }
        return rack < 0 ? p_.rows.front() : p_.rows.back();
    }

    void fromAbove() {
        const double room = f_.px(steer_plan_px), base = in_.wheelbase_mm.value_or(2500);
        const Vec3 left = in_.places.at[in_.wheels[0].held.left], right = in_.places.at[in_.wheels[1].held.left];
        const double front = (left.x_mm + right.x_mm) / 2, track = right.y_mm - left.y_mm;
        // the front to the left of the page, the car's right side below
        const double reach = track / 2 + 700;
        const Projection to = fit(front - 500, front + base + 450, -reach, reach, {0, y_ + f_.px(26)}, wide_, room, false);
        d_.add(Text{{0, y_ + f_.px(16)},
                    "from above, the front to the left: both front wheels' lines should meet the rear axle's in one place",
                    f_.small(),
                    Ink::Second});
        const auto wheel = [&](double x, double y, double angle, const Pen& pen) {
            const double r = in_.radius_mm, half = 90;
            Stroke s{{}, true, pen};
            for (const auto& [along, across] : {std::pair{-r, -half}, {r, -half}, {r, half}, {-r, half}})
                // nose to the left turns the front end to smaller offsets
                s.path.push_back(to(x + along * std::cos(angle) - across * std::sin(angle),
                                    y + along * std::sin(angle) + across * std::cos(angle)));
            d_.add(std::move(s), steering_tag);
        };
        const Pen chassis{Ink::Chassis, f_.medium(), Dash::Solid}, moved{Ink::NewSteel, f_.medium(), Dash::Solid};
        d_.add(Stroke{{to(front + base, -track / 2), to(front + base, track / 2)}, false, chassis});
        d_.add(Stroke{{to(front, 0), to(front + base, 0)}, false, {Ink::Faint, f_.thin(), Dash::DashDot}});
        for (const double side : {-1.0, 1.0}) wheel(front + base, side * track / 2, 0, chassis);
        d_.add(Stroke{{to(front + base, -reach), to(front + base, reach)}, false, {Ink::Faint, f_.thin(), Dash::Dashed}});
        for (std::size_t side = 0; side < 2; ++side) {
            const SteeredWheel& w = in_.wheels[side];
            const Vec3 hub = in_.places.at[w.held.left];
            const double angle = side == 0 ? row_.left_rad : row_.right_rad;
            wheel(hub.x_mm, hub.y_mm, angle, moved);
            // its line, as far as the rear axle's
            if (std::abs(angle) > 0.03) {
                const double way = angle > 0 ? -1 : 1, far = std::min(std::abs(base / std::sin(angle)), reach * 3);
                const Vec3 end{hub.x_mm + far * std::abs(std::sin(angle)), hub.y_mm + way * far * std::cos(angle), 0};
                const double cut = std::abs(end.y_mm) > reach ? (reach - std::abs(hub.y_mm) * (hub.y_mm * way > 0 ? 1 : -1)) /
                                                                    std::max(1.0, std::abs(end.y_mm - hub.y_mm))
                                                              : 1;
                const double share = std::clamp(cut, 0.0, 1.0);
                d_.add(Stroke{{to(hub.x_mm, hub.y_mm),
                               to(hub.x_mm + share * (end.x_mm - hub.x_mm), hub.y_mm + share * (end.y_mm - hub.y_mm))},
                              false,
                              {Ink::NewSteel, f_.thin(), Dash::Dashed}});
            }
            const Vec3 pivot = in_.places.at[w.lower ? *w.lower : w.held.left], joint = in_.places.at[w.tie_out];
            const double c = std::cos(angle), s = std::sin(angle);
            const Vec3 from{pivot.x_mm + (joint.x_mm - pivot.x_mm) * c - (joint.y_mm - pivot.y_mm) * s,
                            pivot.y_mm + (joint.x_mm - pivot.x_mm) * s + (joint.y_mm - pivot.y_mm) * c, 0};
            const Vec3 inner = geometry::plus(in_.places.at[w.tie_in], w.held.rack.shift(row_.rack_mm));
            d_.add(Stroke{{to(pivot.x_mm, pivot.y_mm), to(from.x_mm, from.y_mm)}, false, moved}, steering_tag);
            d_.add(Stroke{{to(from.x_mm, from.y_mm), to(inner.x_mm, inner.y_mm)}, false, {Ink::Ink, f_.medium(), Dash::Solid}},
                   steering_tag);
        }
        y_ += room + f_.px(34);
    }

    void curve() {
        const bool left = v_.share >= 0;
        PlotCurve is{{}, {}, Dash::Solid}, ideal{{}, {}, Dash::Dashed};
        std::vector<std::array<double, 2>> points;
        for (const SteerRow& r : p_.rows) {
            const double inner = left ? r.left_rad : -r.right_rad, outer = left ? r.right_rad : -r.left_rad;
            if (inner >= 0 && inner <= in_.lock_rad * 1.02) points.push_back({inner, outer});
        }
        for (const FullLock& lock : p_.locks)
            if (lock.left == left) points.push_back({lock.inner_rad.value, lock.outer_rad.value});
        std::sort(points.begin(), points.end());
        for (const auto& [inner, outer] : points) {
            is.x.push_back(inner);
            is.y.push_back(outer);
            ideal.x.push_back(inner);
            ideal.y.push_back(inner > 1e-6 && in_.wheelbase_mm ? ackermann(inner, p_.between_axes_mm, *in_.wheelbase_mm) : inner);
        }
        const double margin = plotMargin(f_);
        Plot plot{{margin, y_ + f_.px(20)},
                  wide_ - margin - f_.px(20),
                  f_.px(steer_plot_px),
                  fmt::format("the outer wheel as the inner one turns to the {}: as it is, and as the circle wants (dashed)",
                              left ? "left" : "right"),
                  "straight ahead",
                  "full lock",
                  {is, ideal},
                  [](double rad) { return fmt::format("{:.1f}°", rad / one_degree); },
                  {},
                  left ? row_.left_rad : -row_.right_rad,
                  true};
        addPlot(d_, plot, f_, steering_tag);
        y_ = plot.at.y + plot.height + f_.small() * 2;
        // from lock to lock
        const double x0 = margin, x1 = wide_ - f_.px(20);
        y_ += f_.px(14);
        d_.add(Stroke{{{x0, y_}, {x1, y_}}, false, {Ink::Second, f_.thin(), Dash::Solid}});
        const P at{(x0 + x1) / 2 - v_.share * (x1 - x0) / 2, y_};
        d_.add(Circle{at, f_.px(7), {Ink::NewSteel, f_.medium(), Dash::Solid}, true, false}, steering_tag);
        d_.add(Text{{x0, y_ + f_.px(20)}, "full lock to the left", f_.small(), Ink::Second});
        d_.add(Text{{x1, y_ + f_.px(20)}, "to the right", f_.small(), Ink::Second, Anchor::Right});
        if (v_.handles) d_.grips.push_back({"steered", at, v_.share, -2 / (x1 - x0), -1, 1});
        y_ += f_.px(26);
    }

    double figures(P at, double width) {
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p_.verdict), steering_tag);
        FigureColumn column(d_, f_, at, width, steering_tag);
        column.head("Drawn");
        column.row("left wheel",
                   fmt::format("{:.1f}° to the {}", std::abs(row_.left_rad) / one_degree, row_.left_rad < 0 ? "right" : "left"));
        column.row("right wheel", fmt::format("{:.1f}° to the {}", std::abs(row_.right_rad) / one_degree,
                                              row_.right_rad < 0 ? "right" : "left"));
        for (const bool of_left : {true, false}) {
            const double angle = of_left ? row_.left_rad : row_.right_rad;
            if (!in_.wheelbase_mm || std::abs(angle) < 0.02) continue;
            // from the car's middle, on the side to which it turns
            const double apart = p_.between_axes_mm / 2,
                         about = *in_.wheelbase_mm / std::tan(std::abs(angle)) + ((angle > 0) == of_left ? apart : -apart);
            column.row(of_left ? "left one's line meets the rear's at" : "right one's line meets the rear's at",
                       fmt::format("{:.2f} m", about / 1000));
        }
        for (const FullLock& f : p_.locks) {
            column.head(fmt::format("Full lock to the {}", f.left ? "left" : "right"));
            column.row("inner wheel", lockDegrees(f.inner_rad));
            column.row("outer wheel", lockDegrees(f.outer_rad));
            column.row("as the circle wants it", lockDegrees(f.ideal_rad));
            column.row("outer tyre's circle", fmt::format("{:.2f} ± {:.2f} m", f.circle_mm.value / 1000, f.circle_mm.u95 / 1000));
            if (f.circle_now_mm) column.row("with the wheelbase as it is", fmt::format("{:.2f} m", *f.circle_now_mm / 1000));
            column.row("tie rod off its dead line", fmt::format("{:.0f}°", f.straight_rad / one_degree));
            if (f.over_mm) column.row("the gear goes on", fmt::format("{:.0f} mm", *f.over_mm));
            if (f.by_gear) column.row("ended by", "the gear");
        }
        if (p_.per_turn_rad) {
            column.head("At the hand wheel");
            column.row("a turn steers by, near the middle", fmt::format("{:.1f}°", *p_.per_turn_rad / one_degree));
        }
        column.head("Steers over bumps, within 30 mm");
        for (std::size_t side = 0; side < 2; ++side) {
            const ToeRemedy& r = p_.toe[side];
            const char* name = side == 0 ? "left wheel" : "right wheel";
            column.row(name, fmt::format("{:.2f}°", r.before_rad / one_degree));
            if (r.better)
                column.row(fmt::format("  inner end {:.0f} mm {}", std::abs(r.up_mm), r.up_mm > 0 ? "higher" : "lower"),
                           fmt::format("{:.2f}°", r.after_rad / one_degree));
        }
        return column.end();
    }

    Drawing& d_;
    const SteeringView& v_;
    const SteeringIn& in_;
    const SteeringPlan& p_;
    const Format& f_;
    double y_ = 0, wide_ = 0;
    SteerRow row_;
};

} // namespace

Drawing steeringSheet(const SteeringView& v, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    if (v.input && v.input->said) d.height = std::max(height, SteeringDraft(d, v, f).draw());
    return d;
}

} // namespace gorvet::drive
