#include "drive/travel_sheet.hpp"

#include "drive/degree.hpp"
#include "sheet/plan_words.hpp"
#include "sheet/plot.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;

namespace {

constexpr double figures_px = 330, links_px = 180, curves_px = 90;

std::string withU95(const Figure& f, double scale, int decimals, const char* unit) {
    const double half = 0.5 * std::pow(10.0, -decimals),
                 shown = std::abs(f.value * scale) < half ? 0 : f.value * scale; // no "-0"
    return fmt::format("{:.{}f}{} ± {:.{}f}{}", shown, decimals, unit, f.u95 * scale, decimals, unit);
}

class TravelDraft {
public:
    TravelDraft(Drawing& d, const TravelView& v, double top, const Format& f)
        : d_(d), v_(v), in_(*v.input), p_(*v.plan), f_(f), y_(top), tag_("travel:" + p_.name) {}

    double draw() {
        y_ += f_.lead();
        d_.add(Text{{0, y_}, p_.name, f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag_);
        const double begins = y_;
        wide_ = d_.width - f_.px(figures_px) - f_.px(30);
        double figures_end = y_;
        if (in_.missing.empty() && !p_.rows.empty()) {
            links();
            curves();
            figures_end = figures({d_.width - f_.px(figures_px), begins}, f_.px(figures_px));
        }
        SheetWords words(d_, f_, y_ + f_.px(18), wide_, tag_);
        for (const std::string& lack : in_.missing) words.lines("Waits for " + lack + ".");
        words.remarks(p_.remarks);
        words.list("Taken as usual, not measured: ", in_.assumed);
        return std::max(words.end(), figures_end) + f_.px(14);
    }

private:
    double upAt(double share) const { return share > 0 ? share * in_.held.bump_mm : share * in_.held.droop_mm; }

    /// From the left and from behind, as it stands now, at full bump and at full droop.
    void links() {
        const Linkage l = linkageOf(in_.held, in_.places.at);
        std::vector<std::pair<Stance, bool>> stances; // ghosts first
        for (const double share : {-1.0, 1.0, v_.share}) {
            const double up = upAt(share);
            if (const auto s = sweep(l, {{up, up, 0}}); !s.empty())
                stances.emplace_back(s[0], share == v_.share && stances.size() == 2);
        }
        if (!stances.empty()) stances.back().second = true;
        const double room = f_.px(links_px), each = (wide_ - f_.px(30)) / 2;
        for (const bool side : {true, false}) {
            const auto flat = [&](const Vec3& p) { return side ? P{p.x_mm, p.z_mm} : P{p.y_mm, p.z_mm}; };
            double left = 1e18, right = -1e18, low = 1e18, high = -1e18;
            const auto take = [&](const P& p) {
                left = std::min(left, p.x);
                right = std::max(right, p.x);
                low = std::min(low, p.y);
                high = std::max(high, p.y);
            };
            for (const LinkIn& link : in_.held.links)
                for (const std::size_t k : link.points) take(flat(in_.places.at[k]));
            for (const std::size_t hub : {in_.held.left, in_.held.right})
                for (const double z : {-in_.radius_mm, in_.held.bump_mm})
                    for (const double x : {-in_.radius_mm, in_.radius_mm})
                        take(flat({in_.places.at[hub].x_mm + x, in_.places.at[hub].y_mm, in_.places.at[hub].z_mm + z}));
            if (!side) take({0, roadZ()}); // the middle of the car, where it rolls about
            const Projection to = fit(left, right, low, high, {side ? 0 : each + f_.px(30), y_ + f_.px(26)}, each, room, true);
            d_.add(Text{
                {side ? 0 : each + f_.px(30), y_ + f_.px(16)}, side ? "from the left" : "from behind", f_.small(), Ink::Second});
            for (const auto& [stance, shown] : stances)
                drawStance(l, stance, shown, [&](const Vec3& p) {
                    const P q = flat(p);
                    return to(q.x, q.y);
                });
            if (side) tyre(to);
            const double road = roadZ();
            d_.add(Stroke{{to(left, road), to(right, road)}, false, {Ink::Second, f_.thin(), Dash::Solid}});
            centre(side, to);
        }
        y_ += room + f_.px(34);
    }
    template <class Place> void drawStance(const Linkage& l, const Stance& s, bool shown, const Place& place) {
        const Pen rod{shown ? Ink::Ink : Ink::Faint, shown ? f_.medium() : f_.thin(), shown ? Dash::Solid : Dash::Dashed};
        const auto line = [&](const Vec3& a, const Vec3& b, const std::string& tag) {
            d_.add(Stroke{{place(a), place(b)}, false, rod}, shown ? tag : std::string());
        };
        const auto moved = [&](const Vec3& p) { return s.moved.transformed(p); };
        for (const Rod& r : l.rods) {
            line(r.frame, moved(r.body), linkTag(r.name));
            if (shown)
                d_.add(Circle{place(r.frame), f_.px(4), {Ink::Chassis, f_.medium(), Dash::Solid}, false, true}, linkTag(r.name));
            if (shown) d_.add(Circle{place(moved(r.body)), f_.px(3), rod, false, true}, linkTag(r.name));
        }
        for (const Hinge& h : l.hinges) line(h.at, moved(l.left), linkTag(h.name));
        for (const Strut& t : l.struts) line(t.top, moved(t.foot), linkTag(t.name));
        for (const Leaf& leaf : l.leaves) {
            line(leaf.front_eye, moved(leaf.seat), linkTag(leaf.name));
            line(moved(leaf.seat), leaf.shackle, linkTag(leaf.name));
        }
        for (const Watts& w : l.watts) {
            line(w.left_frame, moved(w.left_arm), linkTag(w.name));
            line(moved(w.left_arm), moved(w.right_arm), linkTag(w.name));
            line(moved(w.right_arm), w.right_frame, linkTag(w.name));
        }
        const Pen axle{shown ? Ink::NewSteel : Ink::Faint, shown ? f_.thick() : f_.thin(), shown ? Dash::Solid : Dash::Dashed};
        if (l.right) d_.add(Stroke{{place(moved(l.left)), place(moved(*l.right))}, false, axle}, tag_);
        d_.add(Circle{place(moved(l.left)), f_.px(5), axle, false, true}, tag_);
        if (l.right) d_.add(Circle{place(moved(*l.right)), f_.px(5), axle, false, true}, tag_);
    }
    std::string linkTag(const std::string& name) const { return "link:" + name.substr(0, name.find(',')); }

    double roadZ() const { return (in_.places.at[in_.held.left].z_mm + in_.places.at[in_.held.right].z_mm) / 2 - in_.radius_mm; }
    /// The lower half of the tyre.
    void tyre(const Projection& to) {
        const Vec3& hub = in_.places.at[in_.held.left];
        Stroke half{{}, false, {Ink::Faint, f_.thin(), Dash::Solid}};
        for (int k = 0; k <= 36; ++k) {
            const double at = (180 + 5 * k) * one_degree;
            half.path.push_back(to(hub.x_mm + in_.radius_mm * std::cos(at), hub.z_mm + in_.radius_mm * std::sin(at)));
        }
        d_.add(std::move(half));
    }
    /// What it turns about: the roll centre from behind, the instant centre stands among the figures.
    void centre(bool side, const Projection& to) {
        if (side) return;
        const P at = to(0, roadZ() + p_.roll_centre_mm.value);
        d_.add(Stroke{{{at.x - f_.px(7), at.y}, {at.x + f_.px(7), at.y}}, false, {Ink::Ink, f_.thin(), Dash::Solid}}, tag_);
        d_.add(Stroke{{{at.x, at.y - f_.px(7)}, {at.x, at.y + f_.px(7)}}, false, {Ink::Ink, f_.thin(), Dash::Solid}}, tag_);
        d_.add(Text{{at.x + f_.px(10), at.y - f_.px(4)}, "rolls about here", f_.small(), Ink::Second}, tag_);
    }

    void curves() {
        const double left = plotMargin(f_), gap = f_.px(70), each = (wide_ - left - gap) / 2, top = y_ + f_.px(20),
                     tall = f_.px(curves_px);
        const auto angle = [](double rad) { return fmt::format("{:.2f}°", rad / one_degree); };
        const auto curve = [&](double TravelRow::*of) {
            PlotCurve c{{}, {}, Dash::Solid};
            for (const TravelRow& row : p_.rows) {
                c.x.push_back(row.up_mm);
                c.y.push_back(row.*of);
            }
            return c;
        };
        const double now = upAt(v_.share);
        Plot one{{left, top},
                 each,
                 tall,
                 in_.axle() ? "the pinion: nose up (above), down (below)" : "the wheel: nose to the left (above), right (below)",
                 "full droop",
                 "full bump",
                 {curve(in_.axle() ? &TravelRow::slope_rad : &TravelRow::steer_rad)},
                 angle,
                 {},
                 now,
                 true};
        Plot two{{left + each + gap, top},
                 each,
                 tall,
                 in_.axle() ? "goes back (solid), and to the right (dashed)" : "leans: top to the right (above), left (below)",
                 "full droop",
                 "full bump",
                 {curve(in_.axle() ? &TravelRow::back_mm : &TravelRow::lean_rad)},
                 in_.axle() ? v_.length : angle,
                 {},
                 now,
                 true};
        if (in_.axle()) {
            two.curves.push_back(curve(&TravelRow::aside_mm));
            two.curves.back().dash = Dash::Dashed;
        }
        const P foot = addPlot(d_, one, f_, tag_);
        addPlot(d_, two, f_, tag_);
        if (v_.handles && p_.rows.size() > 1) {
            d_.add(Circle{foot, f_.px(7), {Ink::NewSteel, f_.medium(), Dash::Solid}, true, false}, tag_);
            d_.grips.push_back({"travel of " + p_.name, foot, v_.share, 2 / each, -1, 1});
        }
        y_ = top + tall + f_.small() * 2;
    }

    double figures(P at, double width) {
        FigureColumn column(d_, f_, at, width, tag_);
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p_.verdict), tag_);
        // the side that an angle goes to stands in its name, in place of a sign
        const auto angle = [&](const std::string& before, const Figure& figure, const char* above, const char* below) {
            const Figure size{std::abs(figure.value), figure.u95, figure.provenance};
            column.row(before + (figure.value < 0 ? below : above), withU95(size, 1 / one_degree, 2, "°"));
        };
        column.head("At rest");
        column.row("rolls about, over the road", withU95(p_.roll_centre_mm, 1, 0, " mm"));
        if (in_.axle()) {
            const bool into = (p_.steer_per_roll.value > 0) != in_.front;
            column.row(into ? "steers into the bend" : "steers out of the bend",
                       fmt::format("{:.2f}° ± {:.2f}° / 1°", std::abs(p_.steer_per_roll.value), p_.steer_per_roll.u95));
            if (p_.centre_x_mm && std::abs(p_.centre_x_mm->value) < 2e4) {
                column.row("turns about, station", withU95(*p_.centre_x_mm, 1, 0, " mm"));
                column.row("and height", withU95(*p_.centre_z_mm, 1, 0, " mm"));
            }
            if (p_.anti_squat) column.row("held up under drive", withU95(*p_.anti_squat, 100, 0, " %"));
        } else if (p_.caster_rad) {
            angle("caster, top ", *p_.caster_rad, "back", "ahead");
        }
        column.head(in_.axle() ? "The pinion, through its travel" : "The wheel, through its travel");
        angle("full bump: ", p_.bump_rad, in_.axle() ? "nose up" : "toe in", in_.axle() ? "nose down" : "toe out");
        angle("full droop: ", p_.droop_rad, in_.axle() ? "nose up" : "toe in", in_.axle() ? "nose down" : "toe out");
        if (!in_.axle()) angle("full bump: top ", p_.lean_bump_rad, "in", "out");
        if (!p_.most_rod.empty()) column.row(p_.most_rod + " bends aside", fmt::format("{:.1f}°", p_.most_rod_rad / one_degree));
        column.row("bushes give by", fmt::format("{:.1f} mm", p_.strain_mm));
        return column.end();
    }

    Drawing& d_;
    const TravelView& v_;
    const TravelIn& in_;
    const TravelPlan& p_;
    const Format& f_;
    double y_;
    std::string tag_;
    double wide_ = 0;
};

} // namespace

Drawing travelSheet(const std::vector<TravelView>& all, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    double y = 0;
    for (const TravelView& v : all) y = TravelDraft(d, v, y, f).draw();
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::drive
