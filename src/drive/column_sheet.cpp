#include "drive/column_sheet.hpp"

#include "drive/degree.hpp"
#include "sheet/plan_words.hpp"
#include "sheet/plot.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;

namespace {

constexpr double column_words_px = 380, column_view_px = 200, column_plot_px = 80, plate_px = 150;

/// A place on the sheet: x rearward, and the height or the offset.
using Shown = std::pair<double, double> (*)(const Vec3&);
std::pair<double, double> fromTheSide(const Vec3& p) { return {p.x_mm, p.z_mm}; }
std::pair<double, double> fromOverIt(const Vec3& p) { return {p.x_mm, p.y_mm}; }

/// How a lower fork stands, seen from the hand wheel.
std::string turnedWords(double rad) {
    const double degrees = rad / one_degree;
    if (std::abs(degrees) < 0.5) return "0°";
    return fmt::format("{:.0f}° {}", std::abs(degrees), degrees > 0 ? "clockwise" : "against the clock");
}

class ColumnDraft {
public:
    ColumnDraft(Drawing& d, const ColumnView& v, const Format& f) : d_(d), v_(v), f_(f) {}

    double draw() {
        wide_ = d_.width - f_.px(column_words_px) - f_.px(30);
        if (v_.input) column();
        if (v_.plate) plate();
        return y_ + f_.px(14);
    }

private:
    const std::vector<Vec3>& at() const { return v_.input->places.at; }

    void column() {
        const ColumnIn& in = *v_.input;
        const ColumnPlan& p = *v_.plan;
        y_ = f_.lead();
        d_.add(Text{{0, y_}, fmt::format("the column {}", in.name), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
               column_tag);
        const double begins = y_;
        double figures_end = y_;
        if (!p.joints.empty()) {
            view("from the side, the front to the left", fromTheSide, true);
            view("from above", fromOverIt, false);
            turning();
            figures_end = figures({d_.width - f_.px(column_words_px), begins}, f_.px(column_words_px));
        }
        SheetWords words(d_, f_, y_ + f_.px(14), wide_, column_tag);
        for (const std::string& lack : in.missing) words.lines("Waits for " + lack + ".");
        words.remarks(p.remarks);
        if (!p.searched.empty()) words.lines(p.searched);
        words.list("Taken as usual, not measured: ", in.assumed);
        y_ = std::max(words.end(), figures_end);
    }

    void view(const char* name, Shown shown, bool up) {
        const ColumnIn& in = *v_.input;
        const double room = f_.px(column_view_px);
        double a0 = 1e18, a1 = -1e18, b0 = 1e18, b1 = -1e18;
        const auto reach = [&](const std::vector<std::size_t>& points) {
            for (const std::size_t k : points) {
                const auto [a, b] = shown(at()[k]);
                a0 = std::min(a0, a);
                a1 = std::max(a1, a);
                b0 = std::min(b0, b);
                b1 = std::max(b1, b);
            }
        };
        reach(in.points);
        reach(in.bearings);
        const double spare = 60;
        const Projection to =
            fit(a0 - spare, a1 + spare, b0 - spare, b1 + spare, {0, y_ + f_.px(22)}, wide_, room - f_.px(26), up);
        d_.add(Text{{0, y_ + f_.px(16)}, name, f_.small(), Ink::Second});
        const auto on = [&](const Vec3& p) {
            const auto [a, b] = shown(p);
            return to(a, b);
        };
        const double top = y_ + f_.px(22), bottom = y_ + room;
        for (const RunIn& run : in.runs) { // both its sides, as far as the sheet goes
            for (std::size_t k = 0; k + 1 < run.points.size(); ++k) {
                const P a = on(at()[run.points[k]]), b = on(at()[run.points[k + 1]]);
                pipe(a, b, run.across_mm * to.scale, top, bottom, {Ink::Body, f_.thin(), Dash::Solid}, run.name);
            }
            if (run.points.size() == 1)
                if (const P a = on(at()[run.points[0]]); a.x > 0 && a.x < wide_ && a.y > top && a.y < bottom)
                    d_.add(Circle{a, run.across_mm * to.scale / 2, {Ink::Body, f_.thin(), Dash::Solid}}, column_tag);
        }
        for (std::size_t k = 0; k + 1 < in.points.size(); ++k) {
            const P a = on(at()[in.points[k]]), b = on(at()[in.points[k + 1]]);
            pipe(a, b, in.across_mm * to.scale, top, bottom, {Ink::NewSteel, f_.medium(), Dash::Solid}, "");
        }
        for (std::size_t k = 0; k < in.points.size(); ++k) {
            const P a = on(at()[in.points[k]]);
            const bool joint = k > 0 && k + 1 < in.points.size();
            if (joint) d_.add(Circle{a, f_.px(5), {Ink::NewSteel, f_.medium(), Dash::Solid}, false, true}, column_tag);
            std::string words = k == 0  ? in.places.names[in.points[k]] + ", hand wheel"
                                : joint ? in.places.names[in.points[k]]
                                        : in.places.names[in.points[k]] + ", gear";
            if (joint && up) words += fmt::format(" {:.1f}°", v_.plan->joints[k - 1].angle_rad.value / one_degree);
            // a column rises to the rear: over it to the front there is room
            const bool left = a.x < f_.px(150);
            d_.add(Text{{a.x + (left ? f_.px(10) : -f_.px(10)), a.y + (left ? f_.px(18) : -f_.px(8))},
                        words,
                        f_.small(),
                        Ink::Ink,
                        left ? Anchor::Left : Anchor::Right},
                   column_tag);
        }
        for (const std::size_t k : in.bearings) {
            const P a = on(at()[k]);
            const double s = f_.px(5);
            d_.add(Stroke{{{a.x - s, a.y - s}, {a.x + s, a.y - s}, {a.x + s, a.y + s}, {a.x - s, a.y + s}},
                          true,
                          {Ink::Chassis, f_.medium(), Dash::Solid}},
                   column_tag);
        }
        if (v_.plan->passage) {
            const P a = on(v_.plan->passage->at);
            d_.add(Stroke{{{a.x, a.y - f_.px(12)}, {a.x, a.y + f_.px(12)}}, false, {Ink::Remove, f_.medium(), Dash::Solid}},
                   column_tag);
        }
        y_ = bottom;
    }
    /// Both sides of what is round, cut off where the view ends.
    void pipe(P a, P b, double across, double top, double bottom, const Pen& pen, const std::string& name) {
        const double l = std::hypot(b.x - a.x, b.y - a.y);
        if (l < 1e-6) return;
        double s0 = 0, s1 = 1;
        const auto cut = [&](double from, double by, double least, double most) {
            if (std::abs(by) < 1e-9) {
                if (from < least || from > most) s1 = -1;
                return;
            }
            const double one = (least - from) / by, two = (most - from) / by;
            s0 = std::max(s0, std::min(one, two));
            s1 = std::min(s1, std::max(one, two));
        };
        cut(a.x, b.x - a.x, 0, wide_);
        cut(a.y, b.y - a.y, top, bottom);
        if (s0 >= s1) return;
        const P from{a.x + s0 * (b.x - a.x), a.y + s0 * (b.y - a.y)}, to{a.x + s1 * (b.x - a.x), a.y + s1 * (b.y - a.y)};
        const double half = std::max(across, f_.px(2)) / 2, nx = -(b.y - a.y) / l * half, ny = (b.x - a.x) / l * half;
        for (const double side : {-1.0, 1.0})
            d_.add(Stroke{{{from.x + side * nx, from.y + side * ny}, {to.x + side * nx, to.y + side * ny}}, false, pen},
                   column_tag);
        if (!name.empty())
            d_.add(Text{{(from.x + to.x) / 2, std::min(from.y, to.y) + std::abs(to.y - from.y) / 2 + f_.px(14)},
                        name,
                        f_.small(),
                        Ink::Second,
                        Anchor::Centre});
    }

    void turning() {
        const ColumnPlan& p = *v_.plan;
        PlotCurve is{{}, {}, Dash::Solid};
        for (std::size_t k = 0; k < p.turning.size(); ++k) {
            is.x.push_back(static_cast<double>(k));
            is.y.push_back(100 * (p.turning[k] - 1));
        }
        PlotCurve most = is, least = is;
        most.dash = least.dash = Dash::Dotted;
        std::fill(most.y.begin(), most.y.end(), 100 * most_stray);
        std::fill(least.y.begin(), least.y.end(), -100 * most_stray);
        const double margin = plotMargin(f_);
        Plot plot{{margin, y_ + f_.px(24)},
                  wide_ - margin - f_.px(20),
                  f_.px(column_plot_px),
                  "over a turn of the hand wheel: how much faster or slower the gear turns, and what is felt (dotted)",
                  "its first fork as marked",
                  "a turn on",
                  {is, most, least},
                  [](double share) { return fmt::format("{:.0f} %", share); },
                  {},
                  {},
                  true};
        addPlot(d_, plot, f_, column_tag);
        y_ = plot.at.y + plot.height + f_.small() * 2;
    }

    double figures(P where, double width) {
        const ColumnIn& in = *v_.input;
        const ColumnPlan& p = *v_.plan;
        addMark(d_, {where.x + width - f_.px(8), where.y - f_.px(6)}, f_.px(14), severityOf(p.verdict), column_tag);
        FigureColumn column(d_, f_, where, width, column_tag);
        column.head("Joints");
        for (const ColumnJoint& j : p.joints)
            column.row(j.name, fmt::format("{:.1f}° ± {:.1f}°", j.angle_rad.value / one_degree, j.angle_rad.u95 / one_degree));
        column.row("strays from even", fmt::format("{:.0f} ± {:.0f} %", 100 * p.stray.value, 100 * p.stray.u95),
                   p.stray.provenance == build::Provenance::Assumed ? Mark::Assumed : Mark::Derived);
        if (p.joints.size() > 1) column.row("  with its forks as they are best", fmt::format("{:.0f} %", 100 * p.best_stray));
        column.head("Shafts, between joints' middles");
        for (const ColumnShaft& s : p.shafts) {
            column.row(fmt::format("{} to {}", s.from, s.to),
                       fmt::format("{:.0f} ± {:.0f} mm", s.length_mm.value, s.length_mm.u95));
            if (!s.between_joints) continue;
            column.row("  lower fork turned", turnedWords(s.phase_rad), in.phases_known ? Mark::None : Mark::Assumed);
            column.row("  stands best", turnedWords(s.best_rad));
        }
        if (!p.near.empty()) column.head("Beside it, surface to surface");
        for (const NearRun& n : p.near)
            column.row(fmt::format("{}, {}", n.name, n.beside),
                       fmt::format("{:.0f} ± {:.0f}, ≥ {:.0f} mm", n.clear_mm.value, n.clear_mm.u95, n.least_mm));
        if (p.passage) {
            const Passage& g = *p.passage;
            column.head("Hole in the bulkhead");
            column.row("wide", fmt::format("{:.0f} mm", g.wide_mm));
            column.row("along the slant", fmt::format("{:.0f} mm", g.long_mm));
            for (std::size_t k = 0; k < g.from_marks_mm.size(); ++k)
                column.row("its middle from " + in.places.names[in.bulkhead[k]],
                           fmt::format("{:.0f} ± {:.0f} mm", g.from_marks_mm[k], g.out_mm.u95));
        }
        return column.end();
    }

    void plate() {
        const GearPlatePlan& p = *v_.plate;
        y_ += f_.lead() * 1.6;
        d_.add(
            Text{{0, y_}, fmt::format("the plate under {}", p.name), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
            gear_tag);
        const double begins = y_;
        double end = y_;
        if (!p.outline.empty()) {
            Drawing part = gearPlateDrawing(p);
            const Projection to = fit(0, part.width, 0, part.height, {0, y_ + f_.px(14)}, wide_, f_.px(plate_px), false);
            const Pen cut{Ink::NewSteel, f_.medium(), Dash::Solid};
            double left = 1e18, top = -1e18;
            for (const auto& [a, b] : p.outline) {
                left = std::min(left, a);
                top = std::max(top, b);
            }
            Stroke outline{{}, true, cut};
            for (const auto& [a, b] : p.outline) outline.path.push_back(to(a - left, top - b));
            d_.add(std::move(outline), gear_tag);
            for (const GearPlateHole& h : p.holes) {
                const P c = to(h.a_mm - left, top - h.b_mm);
                d_.add(Circle{c, p.hole_mm / 2 * to.scale, cut}, gear_tag);
                // its name towards the middle, where there is room
                const bool right = h.a_mm - left > part.width / 2;
                d_.add(Text{{c.x + (right ? -1 : 1) * p.hole_mm * to.scale, c.y + f_.small() / 3},
                            h.name,
                            f_.small(),
                            Ink::Second,
                            right ? Anchor::Right : Anchor::Left});
            }
            y_ += f_.px(plate_px) + f_.px(24);
            const double width = f_.px(column_words_px);
            const P where{d_.width - width, begins};
            addMark(d_, {where.x + width - f_.px(8), where.y - f_.px(6)}, f_.px(14), severityOf(p.verdict), gear_tag);
            FigureColumn column(d_, f_, where, width, gear_tag);
            column.head("Holes, from the first along the second");
            for (const GearPlateHole& h : p.holes) column.row(h.name, fmt::format("{:.1f} · {:.1f} mm", h.a_mm, h.b_mm));
            column.row("drilled", fmt::format("{:.1f} mm", p.hole_mm));
            column.row("from a hole's middle to the edge", fmt::format("{:.0f} mm", p.edge_mm));
            column.row("out of one plane", fmt::format("{:.1f} ± {:.1f} mm", p.flat_mm.value, p.flat_mm.u95));
            column.row("thickness", fmt::format("{:.1f} mm", p.thick_mm), v_.plate_input->thick_mm ? Mark::None : Mark::Assumed);
            column.row("mass", fmt::format("{:.2f} kg", p.mass_kg));
            end = column.end();
        }
        SheetWords words(d_, f_, y_ + f_.px(14), wide_, gear_tag);
        for (const std::string& lack : v_.plate_input->missing) words.lines("Waits for " + lack + ".");
        words.remarks(p.remarks);
        words.list("Taken as usual, not measured: ", v_.plate_input->assumed);
        y_ = std::max(words.end(), end);
    }

    Drawing& d_;
    const ColumnView& v_;
    const Format& f_;
    double y_ = 0, wide_ = 0;
};

} // namespace

Drawing columnSheet(const ColumnView& v, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    if (v.input || v.plate) d.height = std::max(height, ColumnDraft(d, v, f).draw());
    return d;
}

} // namespace gorvet::drive
