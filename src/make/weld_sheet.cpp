#include "make/weld_sheet.hpp"

#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {

using namespace sheet;

namespace {

constexpr double map_px = 230, number_px = 11;

class WeldDraft {
public:
    WeldDraft(Drawing& d, const Format& f, const WeldView& v) : d_(d), f_(f), v_(v) {}

    double draw(std::size_t first, std::size_t until) {
        double y = 0;
        if (first == 0) {
            SheetWords words(d_, f_, map() + f_.body(), d_.width, "");
            words.remarks(v_.plan->remarks);
            for (const std::string& line : v_.rooms) words.lines(line);
            words.lines(fmt::format("{:.1f} m of weld, {:.1f} kg of filler, {:.0f} l of gas, about {:.1f} hours. {}",
                                    v_.plan->length_mm / 1000, v_.plan->wire_kg, v_.plan->gas_l, v_.plan->work_min / 60,
                                    weld_rates));
            words.lines(
                "All of a part is tacked and measured before any of it is welded. Runs skip along a seam: the next begins where it is cold.");
            words.list("Not in it: ", v_.input->not_in_it);
            y = words.end();
        }
        std::optional<bool> car;
        for (std::size_t k = first; k < std::min(until, v_.plan->steps.size()); ++k) {
            const WeldStep& w = v_.plan->steps[k];
            const WeldSeam& s = v_.input->seams[w.seam];
            if (car != s.on_car) {
                car = s.on_car;
                y += f_.lead() + f_.px(8);
                d_.add(Text{{0, y},
                            *car ? "On the car, in this order: each as far from the last as can be" : "On the bench",
                            f_.lead(),
                            Ink::Ink,
                            Anchor::Left,
                            Level::Base,
                            Face::Bold});
                y += f_.px(6);
            }
            y = one(w, s, y);
        }
        return y + f_.px(6);
    }

private:
    double one(const WeldStep& w, const WeldSeam& s, double y) {
        const double base = y + f_.body() + f_.px(8);
        number(w, s, {f_.px(number_px + 2), base - f_.px(5)});
        d_.add(Text{{f_.px(34), base}, fmt::format("{}: {}", s.part, s.what), f_.body(), Ink::Ink}, s.tag);
        SheetWords words(d_, f_, base + f_.px(19), d_.width - f_.px(34), s.tag);
        words.lines(fmt::format("{}. {}, {}. {}. Draws together about {:.1f} mm across. About {:.0f} min.", seamWords(s, v_.step),
                                w.process, w.filler, runWords(w), w.pull_mm, w.work_min),
                    f_.px(34));
        return words.end();
    }
    void number(const WeldStep& w, const WeldSeam& s, P at) {
        d_.add(Circle{at, f_.px(number_px), {s.on_car ? Ink::NewSteel : Ink::Second, f_.medium(), Dash::Solid}, false, true},
               s.tag);
        d_.add(Text{at, std::to_string(w.number), f_.small(), Ink::Ink, Anchor::Centre, Level::Middle}, s.tag);
    }

    /// The rails from above, and on them each seam of the car by its number.
    double map() {
        double low[2] = {1e18, 1e18}, high[2] = {-1e18, -1e18};
        const auto take = [&](double x, double y) {
            low[0] = std::min(low[0], x);
            high[0] = std::max(high[0], x);
            low[1] = std::min(low[1], y);
            high[1] = std::max(high[1], y);
        };
        for (const build::RailLine* rail : {&v_.left, &v_.right})
            for (const auto& p : rail->points) take(p.x_mm, p.y_mm);
        bool any = false;
        for (const WeldSeam& s : v_.input->seams)
            if (s.on_car) {
                take(s.at.x_mm, s.at.y_mm);
                any = true;
            }
        if (!any || low[0] >= high[0]) return 0;
        const Projection to =
            fit(low[0] - 60, high[0] + 60, low[1] - 60, high[1] + 60, {0, f_.px(22)}, d_.width, f_.px(map_px), false);
        d_.add(Text{{0, f_.small()}, "from above, front at the left", f_.small(), Ink::Second});
        for (const build::RailLine* rail : {&v_.left, &v_.right})
            for (const double side : {-1.0, 1.0}) {
                Stroke s{{}, false, {Ink::Chassis, f_.medium(), Dash::Solid}};
                for (const auto& p : rail->points) s.path.push_back(to(p.x_mm, p.y_mm + side * rail->width_mm / 2));
                if (s.path.size() > 1) d_.add(std::move(s));
            }
        Stroke way{{}, false, {Ink::Faint, f_.thin(), Dash::Dotted}};
        for (const WeldStep& w : v_.plan->steps)
            if (const WeldSeam& s = v_.input->seams[w.seam]; s.on_car) way.path.push_back(to(s.at.x_mm, s.at.y_mm));
        if (way.path.size() > 1) d_.add(std::move(way));
        // numbers of one place beside each other
        std::vector<P> taken;
        for (const WeldStep& w : v_.plan->steps) {
            const WeldSeam& s = v_.input->seams[w.seam];
            if (!s.on_car) continue;
            P at = to(s.at.x_mm, s.at.y_mm);
            const P true_place = at;
            const double apart = f_.px(2 * number_px + 3);
            const auto near = [&] {
                return std::any_of(taken.begin(), taken.end(),
                                   [&](const P& p) { return std::hypot(p.x - at.x, p.y - at.y) < apart; });
            };
            for (int k = 1; near() && k < 40; ++k) {
                const double a = 2.4 * k, r = apart * std::sqrt(static_cast<double>(k)) * 0.8;
                at = {true_place.x + r * std::cos(a), true_place.y + r * std::sin(a)};
                at.x = std::clamp(at.x, f_.px(number_px), d_.width - f_.px(number_px));
            }
            taken.push_back(at);
            if (at != true_place) d_.add(Stroke{{true_place, at}, false, {Ink::Second, f_.thin(), Dash::Solid}}, s.tag);
            number(w, s, at);
        }
        return f_.px(map_px + 34);
    }

    Drawing& d_;
    const Format& f_;
    const WeldView& v_;
};

} // namespace

std::string seamWords(const WeldSeam& s, units::LengthStep step) {
    return fmt::format("{} {:g} × {}", s.kind == WeldKind::Fillet ? "Fillet" : "Butt", std::round(s.leg_mm * 10) / 10,
                       units::formatLength(s.length_mm, step));
}

std::string runWords(const WeldStep& w) {
    std::string words =
        fmt::format("{} of {:.0f} first, then {} of {:.0f}", units::counted(static_cast<std::size_t>(w.tacks), "a tack"),
                    w.tack_mm, units::counted(static_cast<std::size_t>(w.runs), "a run"), w.run_mm);
    if (w.passes > 1) words += fmt::format(", {} passes one over the other", w.passes);
    return words + (w.runs > 1 ? ", skipping" : "");
}

Drawing weldSheet(const WeldView& v, double width, double height, const Format& f, std::size_t first, std::size_t until) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, WeldDraft(d, f, v).draw(first, until));
    return d;
}

} // namespace gorvet::make
