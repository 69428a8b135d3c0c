#include "drive/line_sheet.hpp"

#include "drive/degree.hpp"
#include "drive/line_parts.hpp"
#include "sheet/plan_words.hpp"
#include "sheet/plot.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;

namespace {

constexpr double column_px = 330, side_px = 134, plan_px = 44, plot_px = 72;

std::string angleText(double rad) { return fmt::format("{:.2f}°", rad / one_degree); }
std::string angleText(const Figure& f) { return fmt::format("{:.2f}° ± {:.2f}°", f.value / one_degree, f.u95 / one_degree); }

/// Where the chain's ends and their lines stand at a share of the travel: between the rows of its sweep.
struct Drawn {
    std::vector<Vec3> at;
    Vec3 first, last; ///< lines of its units, along the flow
};

class ChainDraft {
public:
    ChainDraft(Drawing& d, const LineView& v, const LineInput& in, const Chain& chain, const ChainPlan& p, double top,
               const Format& f)
        : d_(d), v_(v), in_(in), chain_(chain), p_(p), f_(f), y_(top), tag_("chain:" + p.name) {}

    double draw() {
        y_ += f_.lead();
        d_.add(Text{{0, y_}, p_.name, f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag_);
        const double begins = y_;
        wide_ = d_.width - f_.px(column_px) - f_.px(30);
        stand();
        view(true);
        view(false);
        plots();
        const double figures_end = figures({d_.width - f_.px(column_px), begins}, f_.px(column_px));
        SheetWords words(d_, f_, std::max(y_, 0.0) + f_.px(16), wide_, tag_);
        words.remarks(p_.remarks);
        remedies(words);
        words.list("Taken as usual, not measured: ", in_.assumed);
        return std::max(words.end(), figures_end) + f_.px(14);
    }

private:
    Drawn standing(double share) const {
        const Ends ends = endsOf(in_, in_.planned, slopesOf(in_), true);
        Carried carried(in_, in_.planned);
        Situation s;
        s.front = s.rear = share;
        const Bare bare = bareOf(in_, chain_, ends, carried, s);
        return {bare.at, bare.joints.front().in, bare.joints.back().out};
    }
    void stand() {
        rest_ = standing(0);
        shown_ = v_.share == 0 ? rest_ : standing(v_.share);
        bump_ = standing(1);
        droop_ = standing(-1);
    }

    /// From the side, or from above: what stands off the line drawn larger, as the angles are what is looked for.
    void view(bool side) {
        const auto other = [&](const Vec3& p) { return side ? p.z_mm : -p.y_mm; };
        double from = 1e18, to = -1e18, low = 1e18, high = -1e18;
        const double reach = 0.16 * std::abs(rest_.at.back().x_mm - rest_.at.front().x_mm) + 60;
        const auto take = [&](const Vec3& p) {
            from = std::min(from, p.x_mm);
            to = std::max(to, p.x_mm);
            low = std::min(low, other(p));
            high = std::max(high, other(p));
        };
        for (const Drawn* drawn : {&rest_, &bump_, &droop_}) {
            for (const Vec3& p : drawn->at) take(p);
            take(geometry::plus(drawn->at.front(), geometry::times(drawn->first, -reach)));
            take(geometry::plus(drawn->at.back(), geometry::times(drawn->last, reach)));
        }
        const double room = f_.px(side ? side_px : plan_px), pad = f_.px(26);
        const double scale = (wide_ - 2 * pad) / std::max(1.0, to - from);
        const double off = std::clamp((room - f_.px(24)) / std::max(1.0, high - low) / scale, 1.0, 4.0);
        const double middle = (low + high) / 2, centre = y_ + f_.px(side ? 28 : 20) + room / 2;
        const auto place = [&](const Vec3& p) {
            return P{pad + (p.x_mm - from) * scale, centre - (other(p) - middle) * scale * off};
        };
        d_.add(Text{{0, y_ + f_.px(16)},
                    fmt::format("{}{}", side ? "from the left" : "from above",
                                off > 1.05 ? fmt::format(", {} drawn {:.1f} times", side ? "heights" : "widths", off) : ""),
                    f_.small(),
                    Ink::Second});
        for (const Drawn* ghost : {&bump_, &droop_}) line(*ghost, place, reach, {Ink::Second, f_.thin(), Dash::Dashed}, false);
        line(shown_, place, reach, {Ink::Ink, f_.thick(), Dash::Solid}, true);
        bend(place, reach);
        for (const auto& [ghost, name] : {std::pair{&bump_, "full bump"}, std::pair{&droop_, "full droop"}}) {
            const P end = place(geometry::plus(ghost->at.back(), geometry::times(ghost->last, reach)));
            if (side &&
                std::abs(end.y - place(geometry::plus(rest_.at.back(), geometry::times(rest_.last, reach))).y) > f_.small())
                d_.add(Text{{runsForward(rest_.at) ? 0 : wide_, end.y - f_.px(4)},
                            name,
                            f_.small(),
                            Ink::Second,
                            runsForward(rest_.at) ? Anchor::Left : Anchor::Right});
        }
        std::size_t j = 0;
        for (std::size_t k = 0; k < shown_.at.size(); ++k) {
            const P at = place(shown_.at[k]);
            d_.add(Circle{at, f_.px(6), {Ink::Ink, f_.medium(), Dash::Solid}, false, true}, "end:" + endName(k));
            if (!side) continue;
            if (j < p_.joints.size()) {
                d_.add(Text{{at.x, at.y - f_.px(16)},
                            endName(k) + "  " + angleText(angleAt(j)),
                            f_.body(),
                            Ink::Ink,
                            Anchor::Centre,
                            Level::Base,
                            Face::Mono,
                            Mark::Derived,
                            0,
                            true},
                       "end:" + endName(k));
                ++j;
            }
        }
        y_ = centre + room / 2;
    }
    std::string endName(std::size_t k) const {
        return in_.ends[k == 0 ? in_.shafts[chain_.front()].from : in_.shafts[chain_[k - 1]].to].name;
    }
    double angleAt(std::size_t joint) const {
        if (v_.share == 0) return p_.stands.front().angles_rad[joint].value;
        const double at = (v_.share + 1) / 2 * static_cast<double>(p_.sweep.size() - 1);
        const auto low = static_cast<std::size_t>(std::clamp(std::floor(at), 0.0, static_cast<double>(p_.sweep.size() - 2)));
        return std::lerp(p_.sweep[low].angles_rad[joint], p_.sweep[low + 1].angles_rad[joint], at - static_cast<double>(low));
    }
    /// Each unit's line drawn on past its joint: what stands between it and the shaft is the joint's angle.
    template <class Place> void bend(const Place& place, double reach) {
        const Pen thin{Ink::Chassis, f_.thin(), Dash::Dotted};
        d_.add(
            Stroke{{place(shown_.at.front()), place(geometry::plus(shown_.at.front(), geometry::times(shown_.first, 2 * reach)))},
                   false,
                   thin});
        d_.add(
            Stroke{{place(shown_.at.back()), place(geometry::plus(shown_.at.back(), geometry::times(shown_.last, -2 * reach)))},
                   false,
                   thin});
    }
    template <class Place> void line(const Drawn& drawn, const Place& place, double reach, const Pen& pen, bool units) {
        Stroke shaft{{}, false, pen};
        for (const Vec3& p : drawn.at) shaft.path.push_back(place(p));
        for (std::size_t k = 0; k + 1 < shaft.path.size(); ++k)
            d_.add(Stroke{{shaft.path[k], shaft.path[k + 1]}, false, pen},
                   units ? "shaft:" + in_.shafts[chain_[k]].shaft.name : std::string());
        const Pen axis{units ? Ink::Chassis : Ink::Second, units ? f_.medium() : f_.thin(), units ? Dash::DashDot : Dash::Dashed};
        d_.add(Stroke{{place(drawn.at.front()), place(geometry::plus(drawn.at.front(), geometry::times(drawn.first, -reach)))},
                      false,
                      axis},
               units ? "end:" + endName(0) : std::string());
        d_.add(Stroke{{place(drawn.at.back()), place(geometry::plus(drawn.at.back(), geometry::times(drawn.last, reach)))},
                      false,
                      axis},
               units ? "end:" + endName(drawn.at.size() - 1) : std::string());
    }

    /// Angles and lengths from full droop to full bump.
    void plots() {
        if (p_.stands.size() < 3) return; // nothing of it moves
        const double left = plotMargin(f_), gap = f_.px(60), each = (wide_ - left - gap) / 2, top = y_ + f_.px(26),
                     tall = f_.px(plot_px);
        Plot angles{{left, top},
                    each,
                    tall,
                    "angles of its joints (front solid)",
                    "full droop",
                    "full bump",
                    {},
                    [](double rad) { return fmt::format("{:.1f}°", rad / one_degree); },
                    in_.shafts[chain_.front()].shaft.limit.value,
                    v_.share,
                    false};
        Plot lengths{{left + each + gap, top},
                     each,
                     tall,
                     "length between joints",
                     "full droop",
                     "full bump",
                     {},
                     v_.length,
                     {},
                     v_.share,
                     false};
        const auto curve = [&](std::size_t n, const std::function<double(const SweepRow&)>& of) {
            PlotCurve c{{}, {}, dashOf(n)};
            for (const SweepRow& row : p_.sweep) {
                c.x.push_back(row.share);
                c.y.push_back(of(row));
            }
            return c;
        };
        for (std::size_t j = 0; j < p_.joints.size(); ++j)
            angles.curves.push_back(curve(j, [j](const SweepRow& row) { return row.angles_rad[j]; }));
        for (std::size_t k = 0; k < p_.shafts.size(); ++k)
            lengths.curves.push_back(curve(k, [k](const SweepRow& row) { return row.lengths_mm[k]; }));
        const P foot = addPlot(d_, angles, f_, tag_);
        addPlot(d_, lengths, f_, tag_);
        if (v_.handles) {
            d_.add(Circle{foot, f_.px(7), {Ink::NewSteel, f_.medium(), Dash::Solid}, true, false}, tag_);
            d_.grips.push_back({"travel of " + p_.name, foot, v_.share, 2 / each, -1, 1});
        }
        y_ = top + tall + f_.small() * 2;
    }

    double figures(P at, double width) {
        FigureColumn column(d_, f_, at, width, tag_);
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p_.verdict), tag_);
        const auto of = [](const Figure& f) { return markOf(f.provenance); };
        const Standing& rest = p_.stands.front();
        column.head("At rest, as planned");
        for (std::size_t j = 0; j < p_.joints.size(); ++j)
            column.row(p_.joints[j].name, angleText(rest.angles_rad[j]), of(rest.angles_rad[j]));
        column.row("all of them, as one joint",
                   fmt::format("≤ {:.2f}°", (rest.residual_rad.value + rest.residual_rad.u95) / one_degree));
        column.row("allowed at top speed", angleText(p_.most_residual_rad));
        column.row("the last runs ahead by", fmt::format("± {:.3f}°", p_.exact_lead_rad / one_degree));
        if (p_.school_rad) column.row("pinion's slope by your layout", angleText(*p_.school_rad));
        if (p_.now) {
            column.head("At rest, as it is now");
            for (std::size_t j = 0; j < p_.joints.size(); ++j)
                column.row(p_.joints[j].name, angleText(p_.now->angles_rad[j]), of(p_.now->angles_rad[j]));
        }
        column.head("Shaken, of what is allowed");
        column.row("the axle (ω²θ²)", fmt::format("{:.0f} of {:.0f}", p_.torsional, most_torsional));
        column.row("the shaft (ω²β²)", fmt::format("{:.0f} of {:.0f}", p_.inertial, most_inertial));
        for (const ShaftPlan& s : p_.shafts) {
            column.head(s.name);
            column.row("joint to joint, at rest", fmt::format("{} ± {:.1f}", v_.length(s.length_mm.value), s.length_mm.u95));
            if (s.now_mm && std::abs(s.now_mm->value - s.length_mm.value) > 0.05)
                column.row("as it is now", fmt::format("{} ± {:.1f}", v_.length(s.now_mm->value), s.now_mm->u95));
            column.row("shortest, " + s.shortest_at, v_.length(s.shortest_mm.value));
            column.row("longest, " + s.longest_at, v_.length(s.longest_mm.value));
            column.row("its joints bend at most", angleText(s.most_angle_rad.value));
            if (s.critical_rpm) column.row("it whips at", fmt::format("{:.0f} rpm", *s.critical_rpm));
            if (s.shear_mpa) column.row("skin in first gear", fmt::format("{:.0f} MPa", *s.shear_mpa));
            if (s.lightest)
                column.row("lightest tube that does", fmt::format("{:g} × {:g}", s.lightest->outside_mm, s.lightest->wall_mm));
        }
        return column.end();
    }

    void remedies(SheetWords& words) {
        if (!p_.remedies.empty()) {
            std::string text = "It runs smooth when you ";
            for (std::size_t k = 0; k < p_.remedies.size(); ++k)
                text += (k == 0 ? "" : k + 1 == p_.remedies.size() ? ", or " : ", ") + p_.remedies[k].words;
            words.lines(text + ".");
        } else if (!p_.searched.empty()) {
            words.lines("None of what was looked through makes it run smooth.");
        }
        if (!p_.searched.empty()) words.lines(p_.searched);
    }

    Drawing& d_;
    const LineView& v_;
    const LineInput& in_;
    const Chain& chain_;
    const ChainPlan& p_;
    const Format& f_;
    double y_;
    std::string tag_;
    double wide_ = 0;
    Drawn rest_, shown_, bump_, droop_;
};

} // namespace

double lineSheetLeast(const LinePlan& plan) {
    double least = 40;
    for (const ChainPlan& c : plan.chains)
        least += std::max(side_px + plan_px + plot_px + 130 + 34.0 * static_cast<double>(c.remarks.size() + 2),
                          21.0 * static_cast<double>(10 + 2 * c.joints.size() + 9 * c.shafts.size()));
    return least;
}

Drawing lineSheet(const LineView& v, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    const LineInput in = heldOnly(*v.input);
    const auto chains = chainsOf(in);
    double y = 0;
    for (std::size_t k = 0; k < v.plan->chains.size(); ++k) y = ChainDraft(d, v, in, chains[k], v.plan->chains[k], y, f).draw();
    SheetWords words(d, f, y + f.body(), width, "");
    for (const std::string& lack : v.input->missing) words.lines("Waits for " + lack + ".");
    for (const std::string& loose : v.plan->loose) words.judged(Severity::Warn, loose);
    d.height = std::max(height, words.end());
    return d;
}

} // namespace gorvet::drive
