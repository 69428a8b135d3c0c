#include "drive/wheels_sheet.hpp"

#include "drive/degree.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;
using build::RoomOn;

namespace {

constexpr double section_px = 270, columns_px = 380;

Ink inkOf(RoomOn on) { return on == RoomOn::Body ? Ink::Body : on == RoomOn::Frame ? Ink::Chassis : Ink::Second; }

std::string withU(const Figure& f) { return fmt::format("{:.1f} ± {:.1f}", f.value, f.u95); }

/// What is nearest of a thing on each side of a tyre, row by row, and over it, column by column: as lines where it hangs
/// together.
std::vector<std::vector<RoomPlace>> edgesOf(const SeenThing& seen, double middle, double radius) {
    std::map<int, RoomPlace> outer, inner, over;
    const auto nearer = [](std::map<int, RoomPlace>& rows, int row, const RoomPlace& p, auto&& less) {
        const auto [at, fresh] = rows.try_emplace(row, p);
        if (!fresh && less(p, at->second)) at->second = p;
    };
    for (const RoomPlace& p : seen.places) {
        if (p.from_mm > radius - 20)
            nearer(over, static_cast<int>(std::floor(p.out_mm / 3)), p,
                   [](const auto& a, const auto& b) { return a.from_mm < b.from_mm; });
        const int row = static_cast<int>(p.from_mm / 3);
        if (p.out_mm >= middle)
            nearer(outer, row, p, [](const auto& a, const auto& b) { return a.out_mm < b.out_mm; });
        else
            nearer(inner, row, p, [](const auto& a, const auto& b) { return a.out_mm > b.out_mm; });
    }
    std::vector<std::vector<RoomPlace>> lines;
    for (const auto* rows : {&outer, &inner, &over}) {
        std::vector<RoomPlace> line;
        for (const auto& [row, p] : *rows) {
            if (!line.empty() && std::hypot(p.out_mm - line.back().out_mm, p.from_mm - line.back().from_mm) > 25) {
                lines.push_back(std::move(line));
                line.clear();
            }
            line.push_back(p);
        }
        if (!line.empty()) lines.push_back(std::move(line));
    }
    return lines;
}

class WheelsDraft {
public:
    WheelsDraft(Drawing& d, const WheelsView& v, double top, const Format& f)
        : d_(d), v_(v), in_(*v.input), p_(*v.plan), f_(f), y_(top), tag_("wheels:" + p_.name) {}

    double draw() {
        y_ += f_.lead();
        d_.add(Text{{0, y_}, fmt::format("{} wheels", p_.name), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
               tag_);
        const double begins = y_;
        wide_ = d_.width - f_.px(columns_px) - f_.px(30);
        const WheelFigures* shown = p_.wanted ? &*p_.wanted : p_.fitted ? &*p_.fitted : nullptr;
        if (shown && shown->section_mm && shown->outside_mm && shown->offset_mm) {
            sections(*shown);
        }
        double figures_end = y_;
        if (shown) figures_end = figures({d_.width - f_.px(columns_px), begins}, f_.px(columns_px));
        SheetWords words(d_, f_, y_ + f_.px(18), wide_, tag_);
        words.remarks(p_.remarks);
        std::string missing;
        for (const std::string& lack : p_.missing) missing += (missing.empty() ? "" : "; ") + lack;
        if (!missing.empty()) words.lines("Not judged, for want of: " + missing + ".");
        if (p_.poses > 1)
            words.lines(fmt::format("Looked at in {} poses of each wheel through bump, droop{}.{}", p_.poses,
                                    in_.front ? " and lock" : " and the other wheel's", v_.scans.empty() ? "" : " " + v_.scans));
        words.list("Taken as usual, not measured: ", in_.assumed);
        return std::max(words.end(), figures_end) + f_.px(14);
    }

private:
    static TyreShape shapeOf(const WheelFigures& w, double plate) {
        return tyreShape(plate - w.offset_mm->value, w.section_mm->value, w.outside_mm->value, w.diameter_mm.value);
    }

    /// Both wheels, seen from behind: above the hubs' line, as if all that passes stood straight above.
    void sections(const WheelFigures& shown) {
        const double each = (wide_ - f_.px(40)) / 2, room = f_.px(section_px), radius = shown.outside_mm->value / 2;
        d_.add(Text{{0, y_ + f_.px(18)},
                    "cut through along the hubs: what passes the tyre at any height, through all travel, is drawn as if over it",
                    f_.small(),
                    Ink::Second});
        for (std::size_t side = 0; side < 2; ++side) {
            const double sign = side == 0 ? -1 : 1, x = side == 0 ? 0 : each + f_.px(40);
            const Projection to = fit(-290, 290, -30, radius + 110, {x, y_ + f_.px(28)}, each, room, true);
            const auto at = [&](double out, double from) { return to(sign * out, from); };
            d_.add(Text{{x + each / 2, y_ + f_.px(28) + room + f_.small()},
                        fmt::format("{}, from behind", in_.corners[side].name),
                        f_.small(),
                        Ink::Second,
                        Anchor::Centre});
            d_.add(Stroke{{at(-290, 0), at(290, 0)}, false, {Ink::Faint, f_.thin(), Dash::DashDot}});
            d_.add(Stroke{{at(0, 0), at(0, shown.diameter_mm.value / 2 * 0.55)}, false, {Ink::Chassis, f_.thick(), Dash::Solid}});
            for (const SeenThing& s : p_.seen[side]) things(s, shown, at);
            if (p_.wanted && p_.fitted && p_.fitted->offset_mm && p_.fitted->section_mm && p_.fitted->outside_mm)
                wheel(*p_.fitted, 0, at, {Ink::Second, f_.thin(), Dash::Dashed});
            wheel(shown, p_.wanted && in_.adaptor ? in_.adaptor->thick.value : 0, at, {Ink::NewSteel, f_.medium(), Dash::Solid});
            if (in_.hub && in_.hub->brake_radius) {
                const double out = in_.hub->brake_out ? in_.hub->brake_out->value : -20, r = in_.hub->brake_radius->value;
                d_.add(Stroke{{at(out - 70, 0.4 * r), at(out - 70, r), at(out, r), at(out, 0.4 * r)},
                              false,
                              {Ink::Second, f_.medium(), Dash::Solid}},
                       fmt::format("hub:{}", p_.name));
            }
            nearest(side, at);
        }
        y_ += room + f_.px(48);
    }
    template <class At> void things(const SeenThing& s, const WheelFigures& shown, const At& at) {
        const double middle = -shown.offset_mm->value, radius = shown.outside_mm->value / 2;
        const Pen pen{inkOf(s.thing.on), f_.medium(), Dash::Solid};
        if (s.slack_mm == 0) { // one place in each pose
            for (const RoomPlace& p : s.places)
                if (std::abs(p.out_mm) < 290 && p.from_mm < radius + 105)
                    d_.add(Circle{at(p.out_mm, p.from_mm), f_.px(1.4), pen, true, false}, s.thing.tag);
            return;
        }
        for (const auto& line : edgesOf(s, middle, radius)) {
            Stroke stroke{{}, false, pen};
            for (const RoomPlace& p : line)
                if (std::abs(p.out_mm) < 290 && p.from_mm < radius + 105) stroke.path.push_back(at(p.out_mm, p.from_mm));
            if (stroke.path.size() == 1) {
                d_.add(Circle{stroke.path.front(), f_.px(2.5), pen, true, false}, s.thing.tag);
            } else if (!stroke.path.empty()) {
                d_.add(std::move(stroke), s.thing.tag);
            }
        }
    }
    template <class At> void wheel(const WheelFigures& w, double plate, const At& at, const Pen& pen) {
        const TyreShape t = shapeOf(w, plate);
        const double seat = w.diameter_mm.value / 2, half = t.half_mm, lips = w.over_lips_mm.value / 2;
        Stroke tyre{{at(t.middle_mm - lips, seat)}, false, pen};
        tyre.path.push_back(at(t.middle_mm - half, seat + 0.35 * (t.radius_mm - seat)));
        const double x = half - t.round_mm, y = t.radius_mm - t.round_mm;
        for (int k = 0; k <= 8; ++k) {
            const double a = std::numbers::pi / 2 * k / 8;
            tyre.path.push_back(at(t.middle_mm - x - t.round_mm * std::cos(a), y + t.round_mm * std::sin(a)));
        }
        for (int k = 8; k >= 0; --k) {
            const double a = std::numbers::pi / 2 * k / 8;
            tyre.path.push_back(at(t.middle_mm + x + t.round_mm * std::cos(a), y + t.round_mm * std::sin(a)));
        }
        tyre.path.push_back(at(t.middle_mm + half, seat + 0.35 * (t.radius_mm - seat)));
        tyre.path.push_back(at(t.middle_mm + lips, seat));
        d_.add(std::move(tyre), tag_);
        // rim: lips, well, and the disc at its face
        const double well = w.inside_mm->value / 2 + 4;
        d_.add(Stroke{{at(t.middle_mm - lips, seat + 14), at(t.middle_mm - lips, seat), at(t.middle_mm - 0.5 * lips, seat),
                       at(t.middle_mm - 0.35 * lips, well), at(t.middle_mm + 0.35 * lips, well),
                       at(t.middle_mm + 0.5 * lips, seat), at(t.middle_mm + lips, seat), at(t.middle_mm + lips, seat + 14)},
                      false,
                      pen},
               tag_);
        const double disc = std::clamp(plate, t.middle_mm - 0.9 * lips, t.middle_mm + 0.9 * lips);
        d_.add(Stroke{{at(plate, 20), at(plate, 0.55 * seat), at(disc, 0.9 * seat), at(disc, well)}, false, pen}, tag_);
    }
    template <class At> void nearest(std::size_t side, const At& at) {
        const auto& list = p_.wanted ? p_.planned : p_.now;
        double last = 1e9;
        std::vector<const RoomClear*> all;
        for (const RoomClear& c : list)
            if (c.corner == side && c.clear_mm.value < 120) all.push_back(&c);
        std::sort(all.begin(), all.end(),
                  [](const RoomClear* a, const RoomClear* b) { return a->clear_mm.value < b->clear_mm.value; });
        if (all.size() > 4) all.resize(4);
        std::sort(all.begin(), all.end(), [](const RoomClear* a, const RoomClear* b) { return a->from_mm > b->from_mm; });
        for (const RoomClear* c : all) {
            if (std::abs(c->out_mm) > 290) continue;
            const P p = at(c->out_mm, std::min(c->from_mm, 1e4));
            d_.add(Circle{p, f_.px(4), {inkOf(severityOf(c->verdict)), f_.medium(), Dash::Solid}, false, true}, c->tag);
            // beside the place, away from the tyre
            const bool rightwards = (c->outer == (side == 1));
            const double y = std::abs(p.y - last) < f_.small() * 1.3 ? last + f_.small() * 1.3 : p.y;
            last = y;
            d_.add(Text{{p.x + (rightwards ? f_.px(9) : -f_.px(9)), y + f_.px(4)},
                        fmt::format("{} {:.0f} ± {:.0f}", c->name, c->clear_mm.value, c->clear_mm.u95),
                        f_.small(),
                        inkOf(severityOf(c->verdict)),
                        rightwards ? Anchor::Left : Anchor::Right,
                        Level::Base,
                        Face::Sans,
                        Mark::None,
                        0,
                        true},
                   c->tag);
        }
    }
    static Ink inkOf(Severity s) { return sheet::inkOf(s); }
    static Ink inkOf(RoomOn on) { return drive::inkOf(on); }

    double figures(P at, double width) {
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p_.verdict), tag_);
        const double first = at.x + width * 0.72;
        double y = at.y + f_.body() * 1.5;
        const auto cell = [&](double x, const std::string& text, Ink ink, Face face, Mark mark = Mark::None) {
            d_.add(Text{{x, y}, text, f_.small(), ink, Anchor::Right, Level::Base, face, mark}, tag_);
        };
        const WheelFigures *was = p_.fitted ? &*p_.fitted : nullptr, *is = p_.wanted ? &*p_.wanted : nullptr;
        if (was) cell(first, "fitted", Ink::Ink, Face::Bold);
        if (is) cell(at.x + width, "wanted", Ink::Ink, Face::Bold);
        const auto row = [&](const char* name, auto&& of) {
            y += f_.body() * 1.35;
            d_.add(Text{{at.x, y}, name, f_.small(), Ink::Second}, tag_);
            for (const auto& [w, x] : {std::pair{was, first}, std::pair{is, at.x + width}})
                if (w) {
                    const std::optional<Figure> value = of(*w);
                    cell(x, value ? withU(*value) : "–", Ink::Ink, Face::Mono, value ? markOf(value->provenance) : Mark::None);
                }
        };
        row("rim, between the seats", [](const WheelFigures& w) { return std::optional(w.width_mm); });
        row("rim, diameter", [](const WheelFigures& w) { return std::optional(w.diameter_mm); });
        row("offset", [](const WheelFigures& w) { return w.offset_mm; });
        row("backspace", [](const WheelFigures& w) { return w.backspace_mm; });
        row("tyre, diameter", [](const WheelFigures& w) { return w.outside_mm; });
        row("tyre, width", [](const WheelFigures& w) { return w.section_mm; });
        row("stud circle", [](const WheelFigures& w) { return w.circle_mm; });
        FigureColumn column(d_, f_, {at.x, y}, width, tag_);
        if (p_.hub_circle_mm)
            column.row("stud circle of the hub", withU(*p_.hub_circle_mm), markOf(p_.hub_circle_mm->provenance));
        if (p_.change) {
            const WheelChange& c = *p_.change;
            column.head("With the wanted wheels");
            const double plate = in_.adaptor ? in_.adaptor->thick.value : 0;
            if (c.outer_mm) {
                const double out = *c.outer_mm + plate, in = *c.inner_mm - plate;
                column.row(out < 0 ? "outer side goes in by" : "outer side goes out by", fmt::format("{:.0f} mm", std::abs(out)));
                column.row(in < 0 ? "inner side goes out by" : "inner side goes in by", fmt::format("{:.0f} mm", std::abs(in)));
            }
            if (c.track_mm) {
                const double track = *c.track_mm + 2 * plate;
                column.row(track < 0 ? "track narrower by" : "track wider by", fmt::format("{:.0f} mm", std::abs(track)));
            }
            column.row(c.rides_mm < 0 ? "the car stands lower by" : "the car stands higher by",
                       fmt::format("{:.0f} mm", std::abs(c.rides_mm)));
            column.row("true speed when 100 is shown", fmt::format("{:.1f} km/h", c.true_at_100_kmh));
            column.row("turns in a kilometre", fmt::format("{:.0f}", c.revs_per_km));
        }
        if (p_.band) {
            column.head("The band");
            column.row("length, flat", fmt::format("{:.1f} mm", p_.band->length_mm));
            column.row("cut", fmt::format("{:.1f} mm, filed to fit", p_.band->cut_mm));
            column.row("rim then", fmt::format("{:.1f} mm", p_.band->width_mm));
            if (p_.band->offset_mm) column.row("offset then", fmt::format("{:.1f} mm", *p_.band->offset_mm));
            column.row("weighs", fmt::format("{:.2f} kg", p_.band->kg));
        }
        return column.end();
    }

    Drawing& d_;
    const WheelsView& v_;
    const WheelsIn& in_;
    const WheelsPlan& p_;
    const Format& f_;
    double y_;
    std::string tag_;
    double wide_ = 0;
};

} // namespace

Drawing wheelsSheet(const std::vector<WheelsView>& all, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    double y = 0;
    for (const WheelsView& v : all) y = WheelsDraft(d, v, y, f).draw();
    d.height = std::max(height, y);
    return d;
}

Drawing adaptorDrawing(const build::Adaptor& plate, const AdaptorPlan& p, double spigot) {
    Drawing d{plate.across.value, plate.across.value, {}, {}};
    const P middle{plate.across.value / 2, plate.across.value / 2};
    const Pen cut{Ink::Ink, 0.35, Dash::Solid};
    d.add(Circle{middle, plate.across.value / 2, cut}, "cut:outline");
    if (spigot > 0) d.add(Circle{middle, spigot / 2, cut}, "cut:spigot");
    for (const PlateHole& h : p.holes)
        d.add(Circle{{middle.x + h.x_mm, middle.y - h.y_mm}, h.across_mm / 2, cut}, h.hub ? "cut:hub" : "cut:wheel");
    return d;
}

} // namespace gorvet::drive
