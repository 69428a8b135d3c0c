#include "work/lift_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;
using build::LiftWay;

namespace {

Severity severityOf(LiftVerdict v) {
    return v == LiftVerdict::Holds ? Severity::Good : v == LiftVerdict::Marginal ? Severity::Warn : Severity::Bad;
}
constexpr double to_degrees = 180 / std::numbers::pi;

class OneLift {
public:
    OneLift(const WorkedLift& l, double width, double height, const Format& f) : l_(l), f_(f), tag_("lift:" + l.name) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        const double mark = f_.px(22);
        addMark(d_, {mark / 2, f_.head() * 0.7}, mark * 0.8, l_.waits.empty() ? severityOf(l_.verdict()) : Severity::Warn, tag_);
        std::string head = fmt::format("{} by {}", l_.name, build::word(l_.way));
        if (!l_.step.empty()) head += ", for \"" + l_.step + "\"";
        d_.add(Text{{mark + f_.px(8), f_.head()}, head, f_.head(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag_);
        double y = f_.head() + f_.px(8);
        y = words({0, y}, d_.width, l_.waits.empty() ? l_.sentence() : "It waits for " + l_.waits + ".", Ink::Second, 2);
        y += f_.px(10);
        const double table = std::min(f_.px(430), d_.width * 0.4);
        if (l_.waits.empty()) {
            const double views = d_.width - table - f_.px(40), half = (views - f_.px(24)) / 2;
            view({0, y, half, d_.height - y}, true);
            view({half + f_.px(24), y, half, d_.height - y}, false);
            loads({d_.width - table, y, table, d_.height - y});
        }
        return std::move(d_);
    }

private:
    double words(P at, double width, const std::string& text, Ink ink, std::size_t most) {
        auto lines = wrapped(text, width, f_.body());
        if (lines.size() > most) lines.resize(most);
        for (const std::string& line : lines) {
            at.y += f_.body() * 1.3;
            d_.add(Text{{at.x, at.y}, line, f_.body(), ink}, tag_);
        }
        return at.y;
    }

    std::vector<Vec3> places() const {
        std::vector<Vec3> all;
        for (const SlingLeg& leg : l_.sling.legs) all.push_back(leg.point);
        for (const CarryPoint& p : l_.rest.points) all.push_back(p.at);
        return all;
    }
    std::string nameOf(std::size_t k) const { return l_.slings() ? l_.sling.legs[k].name : l_.rest.points[k].name; }

    /// From the side (rearward to the right, up) or from above (rearward to the right, the left side up).
    void view(const Area& area, bool side) {
        d_.add(Text{{area.x, area.y + f_.small()}, side ? "from the left" : "from above", f_.small(), Ink::Second});
        const Vec3 centre = l_.slings() ? l_.sling.centre : l_.rest.centre;
        const Vec3 u95 = l_.slings() ? l_.sling.centre_u95 : l_.rest.centre_u95;
        const auto flat = [&](const Vec3& v) { return P{v.x_mm, side ? v.z_mm : -v.y_mm}; };
        std::vector<P> all{flat(centre)};
        for (const Vec3& v : places()) all.push_back(flat(v));
        const bool hook = l_.slings() && l_.hung.hangs;
        if (hook) all.push_back(flat(l_.hung.hook));
        P least = all.front(), most = all.front();
        for (const P& p : all) {
            least = {std::min(least.x, p.x), std::min(least.y, p.y)};
            most = {std::max(most.x, p.x), std::max(most.y, p.y)};
        }
        const double wide = std::max(most.x - least.x, 400.0), high = std::max(most.y - least.y, 400.0), pad = f_.px(34);
        const double scale = std::min((area.width - 2 * pad) / wide, (area.height - 2 * pad) / high);
        const P middle{(least.x + most.x) / 2, (least.y + most.y) / 2};
        const auto at = [&](const Vec3& v) {
            const P p = flat(v);
            return P{area.x + area.width / 2 + scale * (p.x - middle.x), area.y + area.height / 2 - scale * (p.y - middle.y)};
        };
        const Pen strong{Ink::Ink, f_.medium(), Dash::Solid}, thin{Ink::Second, f_.thin(), Dash::Solid};
        if (hook) {
            for (std::size_t k = 0; k < l_.sling.legs.size(); ++k)
                d_.add(Stroke{{at(l_.sling.legs[k].point), at(l_.hung.hook)},
                              false,
                              l_.hung.legs[k].slack ? Pen{Ink::Second, f_.thin(), Dash::Dashed} : strong},
                       tag_);
            d_.add(Stroke{{at(l_.hung.hook), at(centre)}, false, {Ink::Second, f_.thin(), Dash::DashDot}}, tag_);
            d_.add(Circle{at(l_.hung.hook), f_.px(6), strong, false, true}, tag_);
        }
        // what it stands on, or the load's own points joined
        outline(at, thin);
        for (std::size_t k = 0; k < places().size(); ++k) {
            const P p = at(places()[k]);
            if (!l_.slings() && side && !l_.rest.hangs) // a prop below it
                d_.add(Stroke{{{p.x - f_.px(7), p.y + f_.px(14)}, p, {p.x + f_.px(7), p.y + f_.px(14)}}, true, strong}, tag_);
            else if (!l_.slings() && side)
                d_.add(Stroke{{p, {p.x, p.y - f_.px(26)}}, false, strong}, tag_);
            d_.add(Circle{p, f_.px(3.5), strong, true}, tag_);
            if (!side)
                d_.add(Text{{p.x + f_.px(7), p.y - f_.px(6)},
                            nameOf(k),
                            f_.small(),
                            Ink::Ink,
                            Anchor::Left,
                            Level::Base,
                            Face::Sans,
                            Mark::None,
                            0,
                            true},
                       tag_);
        }
        gravity(at(centre), scale * u95.x_mm, scale * (side ? u95.z_mm : u95.y_mm));
    }

    template <class At> void outline(const At& at, const Pen& pen) {
        std::vector<P> points;
        for (const Vec3& v : places()) points.push_back(at(v));
        P middle{};
        for (const P& p : points)
            middle = {middle.x + p.x / static_cast<double>(points.size()), middle.y + p.y / static_cast<double>(points.size())};
        std::sort(points.begin(), points.end(), [&](const P& a, const P& b) {
            return std::atan2(a.y - middle.y, a.x - middle.x) < std::atan2(b.y - middle.y, b.x - middle.x);
        });
        d_.add(Stroke{points, points.size() > 2, pen}, tag_);
    }

    /// The centre of gravity, quartered, with the rectangle of its ±.
    void gravity(P c, double px, double py) {
        const double r = f_.px(8);
        if (px > 0 || py > 0)
            d_.add(Stroke{{{c.x - px, c.y - py}, {c.x + px, c.y - py}, {c.x + px, c.y + py}, {c.x - px, c.y + py}},
                          true,
                          {Ink::Second, f_.thin(), Dash::Dotted}},
                   tag_);
        for (const double turn : {0.0, std::numbers::pi}) {
            std::vector<P> wedge{c};
            for (int k = 0; k <= 6; ++k) {
                const double a = turn + k * std::numbers::pi / 12;
                wedge.push_back({c.x + r * std::cos(a), c.y + r * std::sin(a)});
            }
            d_.add(Fill{wedge, Ink::Ink}, tag_);
        }
        d_.add(Circle{c, r, {Ink::Ink, f_.medium(), Dash::Solid}, false}, tag_);
    }

    void loads(const Area& area) {
        std::vector<std::vector<std::string>> rows;
        std::vector<Column> columns;
        const auto rated = [](double kg) { return kg > 0 ? fmt::format("{:.0f}", kg) : std::string("not said"); };
        if (l_.slings()) {
            columns = {{"leg", f_.px(110), Anchor::Left, Face::Bold, true},
                       {"slope", f_.px(54), Anchor::Right},
                       {"kg", f_.px(52), Anchor::Right},
                       {"at most", f_.px(66), Anchor::Right},
                       {"rated", f_.px(70), Anchor::Right},
                       {"inward", f_.px(62), Anchor::Right}};
            for (std::size_t k = 0; k < l_.hung.legs.size(); ++k) {
                const LegLoad& leg = l_.hung.legs[k];
                rows.push_back({leg.name + (leg.slack ? ", slack" : ""), fmt::format("{:.0f}°", leg.slope_rad * to_degrees),
                                fmt::format("{:.0f}", leg.load_kg), fmt::format("{:.0f}", leg.most_kg),
                                rated(l_.sling.legs[k].rated_kg), fmt::format("{:.0f}", leg.squeeze_kg)});
            }
        } else {
            columns = {{"point", f_.px(150), Anchor::Left, Face::Bold, true},
                       {"kg", f_.px(70), Anchor::Right},
                       {"at most", f_.px(80), Anchor::Right},
                       {"rated", f_.px(80), Anchor::Right}};
            for (std::size_t k = 0; k < l_.carried.loads.size(); ++k) {
                const CarryLoad& load = l_.carried.loads[k];
                rows.push_back({load.name, fmt::format("{:.0f}", load.load_kg), fmt::format("{:.0f}", load.most_kg),
                                rated(l_.rest.points[k].rated_kg)});
            }
        }
        double y = area.y;
        if (!rows.empty()) {
            columns = fittedTo(columns, area.width);
            addTable(d_, area, columns, rows, f_.small());
            y += tableHeight(columns, rows, f_.small()) + f_.px(10);
        }
        for (std::size_t k = 0; k < l_.remarks().size(); ++k) {
            const LiftRemark& r = l_.remarks()[k];
            if (y > d_.height - f_.px(60)) {
                d_.add(Text{{area.x, y + f_.body()},
                            fmt::format("and {} more on its card", l_.remarks().size() - k),
                            f_.small(),
                            Ink::Second},
                       tag_);
                break;
            }
            addMark(d_, {area.x + f_.px(8), y + f_.px(13)}, f_.px(14), severityOf(r.verdict), tag_);
            y = words({area.x + f_.px(22), y}, area.width - f_.px(22), r.sentence, Ink::Ink, 3);
            y = words({area.x + f_.px(22), y}, area.width - f_.px(22), r.remedy, Ink::Second, 2) + f_.px(6);
        }
    }

    const WorkedLift& l_;
    Format f_;
    Drawing d_;
    std::string tag_;
};

} // namespace

const char* verdictWord(LiftVerdict v) {
    return v == LiftVerdict::Holds ? "Holds" : v == LiftVerdict::Marginal ? "Marginal" : "Fails";
}

std::string WorkedLift::sentence() const {
    if (!waits.empty()) return "It waits for " + waits + ".";
    if (slings()) {
        if (!hung.hangs) return hung.why_not;
        const auto lean = [](double rad, const char* one, const char* other) {
            return std::abs(rad) * to_degrees < 0.05
                       ? std::string()
                       : fmt::format(", {} {:.1f}°", rad > 0 ? one : other, std::abs(rad) * to_degrees);
        };
        return fmt::format(
            "{:.0f} kg hang from one hook {:.0f} mm above the centre of gravity, {:.1f}° ± {:.1f}° out of level{}{}.",
            sling.mass_kg, hung.height_mm, hung.tilt_rad * to_degrees, hung.tilt_u95_rad * to_degrees,
            lean(hung.nose_down_rad, "nose down", "nose up"), lean(hung.left_down_rad, "left side down", "right side down"));
    }
    if (!carried.stands) return carried.why_not;
    return fmt::format("{:.0f} kg; the centre of gravity is {:.0f} ± {:.0f} mm inside of its points.", rest.mass_kg,
                       carried.edge_mm, carried.edge_u95_mm);
}

Drawing liftSheet(const std::vector<WorkedLift>& lifts, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    d.height = height;
    if (lifts.empty()) {
        double y = f.px(40);
        for (
            const std::string& line : wrapped(
                "No lift is planned. Say what is lifted, its mass and centre of gravity, then the legs of its slings or the points "
                "that it rests on.",
                width * 0.7, f.lead())) {
            d.add(Text{{0, y}, line, f.lead(), Ink::Second});
            y += f.lead() * 1.4;
        }
        return d;
    }
    const double each = std::max(f.px(lift_sheet_least_px), height / static_cast<double>(lifts.size()) - f.px(16));
    double y = 0;
    for (const WorkedLift& l : lifts) {
        d.place(OneLift(l, width, each, f).draw(), {0, y});
        y += each + f.px(16);
    }
    d.height = std::max(height, y);
    return d;
}

std::vector<Drawing> liftPages(const std::vector<WorkedLift>& lifts, const PageTitle& title,
                               const std::vector<std::string>& cautions) {
    std::vector<Drawing> pages;
    for (const WorkedLift& l : lifts) {
        Area area;
        Drawing page = blankPage(title, cautions, area);
        page.place(OneLift(l, area.width, area.height, on_paper).draw(), {area.x, area.y});
        pages.push_back(std::move(page));
    }
    return pages;
}

} // namespace gorvet::work
