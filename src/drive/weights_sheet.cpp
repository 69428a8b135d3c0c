#include "drive/weights_sheet.hpp"

#include "drive/degree.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;

namespace {

constexpr double weight_words_px = 380, weight_above_px = 210, weight_side_px = 150;

class WeightsDraft {
public:
    WeightsDraft(Drawing& d, const WeightsView& v, const Format& f) : d_(d), in_(*v.input), p_(*v.plan), f_(f) {}

    double draw() {
        y_ = f_.lead();
        d_.add(Text{{0, y_}, "weight and springs", f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, weights_tag);
        const double begins = y_;
        wide_ = d_.width - f_.px(weight_words_px) - f_.px(30);
        if (p_.whole_kg && in_.wheelbase_mm) {
            fromAbove();
            if (p_.cg_z_mm) fromTheSide();
        }
        const double figures_end = figures({d_.width - f_.px(weight_words_px), begins}, f_.px(weight_words_px));
        SheetWords words(d_, f_, y_ + f_.px(14), wide_, weights_tag);
        for (const std::string& lack : in_.missing) words.lines("Waits for " + lack + ".");
        words.remarks(p_.remarks);
        std::vector<std::string> assumed = in_.assumed;
        for (const SpringIn& s : in_.springs) assumed.insert(assumed.end(), s.assumed.begin(), s.assumed.end());
        words.list("Taken as usual, not measured: ", assumed);
        return std::max(words.end(), figures_end) + f_.px(14);
    }

private:
    double half(std::size_t end) const { return in_.track_mm[end] ? in_.track_mm[end]->value / 2 : 700; }
    double stationOf(std::size_t end) const { return in_.front_x_mm + (end ? in_.wheelbase_mm->value : 0); }

    void fromAbove() {
        const double room = f_.px(weight_above_px), reach = std::max(half(0), half(1)) + 350;
        d_.add(Text{{0, y_ + f_.px(16)},
                    "from above, the front to the left: each wheel as large as what it carries",
                    f_.small(),
                    Ink::Second});
        const Projection to =
            fit(stationOf(0) - 500, stationOf(1) + 500, -reach, reach, {0, y_ + f_.px(22)}, wide_, room - f_.px(22), false);
        double most = 1;
        for (const auto& w : in_.wheels) most = std::max(most, w ? w->value : 0);
        const Pen line{Ink::Faint, f_.thin(), Dash::DashDot}, steel{Ink::Chassis, f_.medium(), Dash::Solid};
        d_.add(Stroke{{to(stationOf(0) - 400, 0), to(stationOf(1) + 400, 0)}, false, line});
        for (std::size_t k = 0; k < 4; ++k) {
            const std::size_t end = k / 2;
            const double side = k % 2 ? 1 : -1;
            const P at = to(stationOf(end), side * half(end));
            d_.add(Circle{at, f_.px(26) * std::sqrt(in_.wheels[k]->value / most), steel}, weights_tag);
            d_.add(Text{{at.x, at.y + f_.small() * 0.35},
                        fmt::format("{:.0f}", in_.wheels[k]->value),
                        f_.small(),
                        Ink::Ink,
                        Anchor::Centre},
                   weights_tag);
        }
        if (p_.cg_x_mm)
            weightMark(to(p_.cg_x_mm->value, p_.cg_y_mm ? p_.cg_y_mm->value : 0), p_.cg_x_mm->u95 * to.scale,
                       (p_.cg_y_mm ? p_.cg_y_mm->u95 : 0) * to.scale);
        y_ += room;
    }
    /// Where the weight is, with its ± each way.
    void weightMark(P at, double a, double b) {
        const Pen pen{Ink::NewSteel, f_.medium(), Dash::Solid};
        const double s = f_.px(8);
        d_.add(Stroke{{{at.x - std::max(s, a), at.y}, {at.x + std::max(s, a), at.y}}, false, pen}, weights_tag);
        d_.add(Stroke{{{at.x, at.y - std::max(s, b)}, {at.x, at.y + std::max(s, b)}}, false, pen}, weights_tag);
        d_.add(Circle{at, f_.px(4), pen, true, false}, weights_tag);
    }
    void fromTheSide() {
        const double room = f_.px(weight_side_px);
        d_.add(Text{{0, y_ + f_.px(16)}, "from the side: how high the weight stands over the road", f_.small(), Ink::Second});
        const double high = std::max(p_.cg_z_mm->value + p_.cg_z_mm->u95, 2 * in_.radius_mm[0].value) + 100;
        const Projection to =
            fit(stationOf(0) - 500, stationOf(1) + 500, -60, high, {0, y_ + f_.px(22)}, wide_, room - f_.px(22), true);
        const Pen steel{Ink::Chassis, f_.medium(), Dash::Solid}, road{Ink::Second, f_.thin(), Dash::Solid};
        d_.add(Stroke{{to(stationOf(0) - 450, 0), to(stationOf(1) + 450, 0)}, false, road});
        for (std::size_t end = 0; end < 2; ++end) {
            const double r = in_.radius_mm[end].value;
            d_.add(Circle{to(stationOf(end), r), r * to.scale, steel}, weights_tag);
        }
        d_.add(Stroke{
            {to(p_.cg_x_mm->value, 0), to(p_.cg_x_mm->value, p_.cg_z_mm->value)}, false, {Ink::Faint, f_.thin(), Dash::Dashed}});
        weightMark(to(p_.cg_x_mm->value, p_.cg_z_mm->value), p_.cg_x_mm->u95 * to.scale, p_.cg_z_mm->u95 * to.scale);
        y_ += room;
    }

    double figures(P at, double width) {
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p_.verdict), weights_tag);
        FigureColumn column(d_, f_, at, width, weights_tag);
        const auto row = [&](const char* name, const std::optional<Figure>& f, double scale, int digits, const char* unit) {
            if (f)
                column.row(name, fmt::format("{:.{}f} ± {:.{}f}{}", scale * f->value, digits, scale * f->u95, digits, unit),
                           markOf(f->provenance));
        };
        column.head("The car");
        row("all of it", p_.whole_kg, 1, 0, " kg");
        row("on the front wheels", p_.front_share, 100, 1, " %");
        row("on the left wheels", p_.left_share, 100, 1, " %");
        row("front right and rear left", p_.cross_share, 100, 1, " %");
        row("its weight stands at station", p_.cg_x_mm, 1, 0, " mm");
        row("right of the middle", p_.cg_y_mm, 1, 0, " mm");
        row("over the road", p_.cg_z_mm, 1, 0, " mm");
        for (const SpringPlan& s : p_.springs) {
            column.head(fmt::format("Springs of the {} wheels", s.name));
            row("rate of one", s.rate, 1, 1, " N/mm");
            row("it goes together for each mm of the wheel", s.per_wheel, 1, 3, "");
            row("rate at the wheel", s.wheel_rate, 1, 1, " N/mm");
            row("goes up and down", s.hertz, 1, 2, " times a second");
            row("as long as it stands", s.length_mm, 1, 0, " mm");
            row("carries, by the scales", s.load_N, 1, 0, " N");
            row("carries, by its free length", s.free_load_N, 1, 0, " N");
            if (s.stop) {
                row("goes up until its stop touches", s.stop->free_mm, 1, 0, " mm");
                row("  carries then, of its load at rest", s.stop->touch_g, 1, 1, " times");
                row("  and at full bump, the stop pressed", s.stop->most_g, 1, 1, " times");
            }
            if (!s.higher) continue;
            column.row(s.higher->by_mm > 0 ? "  to stand higher by" : "  to stand lower by",
                       fmt::format("{:.0f} mm", std::abs(s.higher->by_mm)), Mark::None);
            row("    its free length", s.higher->free_mm, 1, 0, " mm");
            row("    or a spacer on it", s.higher->spacer_mm, 1, 0, " mm");
            row("    or a rate of", s.higher->rate, 1, 1, " N/mm");
            if (const auto& turn = s.higher->turn_rad)
                column.row(turn->value > 0 ? "    or the bar wound up by" : "    or the bar let off by",
                           fmt::format("{:.1f} ± {:.1f}°", std::abs(turn->value) / one_degree, turn->u95 / one_degree),
                           markOf(turn->provenance));
            column.row("    droop that is left", fmt::format("{:.0f} mm", s.higher->droop_left_mm));
        }
        return column.end();
    }

    Drawing& d_;
    const WeightsIn& in_;
    const WeightsPlan& p_;
    const Format& f_;
    double y_ = 0, wide_ = 0;
};

} // namespace

Drawing weightsSheet(const WeightsView& v, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    if (v.input && v.input->said) d.height = std::max(height, WeightsDraft(d, v, f).draw());
    return d;
}

} // namespace gorvet::drive
