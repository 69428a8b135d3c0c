#include "stretch/let_in_sheet.hpp"

#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {

using namespace sheet;

namespace {

/// One rail: the whole of it above, both its joints below at one larger scale, the figures beside them.
class LetInDraft {
public:
    LetInDraft(Drawing& d, const LetInView& v, double top, const Format& f)
        : d_(d), v_(v), r_(v.input->row), p_(*v.plan), f_(f), y_(top) {}

    double draw() {
        y_ += f_.lead();
        d_.add(Text{{0, y_}, fmt::format("{}, let in", r_.name), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
               v_.tag);
        if (!v_.waits.empty()) {
            SheetWords words(d_, f_, y_ + f_.px(20), d_.width - f_.px(20), v_.tag);
            words.lines(v_.waits);
            return words.end() + f_.px(14);
        }
        const double column = f_.px(340), begins = y_;
        wide_ = d_.width - column - f_.px(40);
        whole();
        joints();
        figures({d_.width - column + f_.px(10), begins}, column - f_.px(10));
        SheetWords words(d_, f_, y_ + f_.px(10), wide_, v_.tag);
        words.remarks(p_.remarks);
        words.list("Taken as usual, not measured: ", v_.input->assumed);
        return std::max(words.end(), figures_end_) + f_.px(14);
    }

private:
    double legHigh(std::size_t k) const { return k == 0 ? r_.leg_height.value : r_.tail_height.value; }
    double legWall(std::size_t k) const { return k == 0 ? r_.leg_wall.value : r_.tail_wall.value; }

    void box(const Projection& to, double from, double until, double high, const Pen& pen) {
        d_.add(Stroke{{to(from, high / 2), to(until, high / 2), to(until, -high / 2), to(from, -high / 2)}, true, pen}, v_.tag);
    }
    void whole() {
        const double l = p_.between.value, leg = std::max(160.0, 1.5 * p_.ends[0].engage_mm);
        double high = r_.height.value;
        for (const std::size_t k : {0, 1}) high = std::max(high, legHigh(k));
        const double room = std::clamp(wide_ / (l + 2 * leg) * (high + 20), f_.px(40), f_.px(110));
        const Projection to = fit(-leg, l + leg, -high / 2 - 10, high / 2 + 10, {0, y_ + f_.px(30)}, wide_, room, true);
        note({0, y_ + f_.px(22)}, "from the side, along its own line");
        for (const std::size_t k : {0, 1}) {
            const double end = k == 0 ? 0 : l, far = k == 0 ? -leg : l + leg;
            for (const double s : {-0.5, 0.5})
                d_.add(
                    Stroke{{to(far, s * legHigh(k)), to(end, s * legHigh(k))}, false, {Ink::Chassis, f_.medium(), Dash::Solid}},
                    v_.tag);
            d_.add(
                Stroke{{to(end, -0.5 * legHigh(k)), to(end, 0.5 * legHigh(k))}, false, {Ink::Chassis, f_.thin(), Dash::Solid}});
            const double foot = p_.foot_long_mm, at = k == 0 ? 0 : l - foot;
            d_.add(Fill{{to(at, r_.height.value / 2),
                         to(at + foot, r_.height.value / 2),
                         {to(at + foot, 0).x, to(0, r_.height.value / 2).y - f_.px(5)},
                         {to(at, 0).x, to(0, r_.height.value / 2).y - f_.px(5)}},
                        Ink::NewSteel},
                   v_.tag);
        }
        box(to, railFrom(), railFrom() + p_.length.value, r_.height.value, {Ink::NewSteel, f_.medium(), Dash::Solid});
        y_ = to(0, -high / 2).y + f_.px(16);
        d_.add(Dimension{{to(railFrom(), 0).x, y_},
                         {to(railFrom() + p_.length.value, 0).x, y_},
                         -f_.px(14),
                         fmt::format("{} ± {:.1f}", v_.length(p_.length.value), p_.length.u95),
                         f_.body(),
                         Ink::Ink,
                         p_.length.provenance == build::Provenance::Assumed ? Mark::Assumed : Mark::Derived},
               v_.tag);
        y_ += f_.px(44);
    }
    /// Where the rail begins: it touches the leg where its piece is driven.
    double railFrom() const { return p_.ends[0].driven ? 0 : let_in_root; }

    void joints() {
        double reach = 0, high = 0;
        for (const std::size_t k : {0, 1}) {
            reach = std::max(reach, p_.ends[k].engage_mm + 50);
            high = std::max({high, r_.height.value, legHigh(k)});
        }
        const double half = wide_ / 2 - f_.px(20);
        const double tall = std::clamp(half / (2 * reach) * (high + 30), f_.px(60), f_.px(170));
        double below = y_;
        for (const std::size_t k : {0, 1}) {
            const Projection to = fit(-reach, reach, -high / 2 - 15, high / 2 + 15,
                                      {k == 0 ? 0 : wide_ / 2 + f_.px(10), y_ + f_.px(22)}, half, tall, true);
            note({to(-reach, 0).x, y_ + f_.px(12)}, fmt::format("{} joint, cut open", k == 0 ? "front" : "rear"));
            joint(k, to, reach);
            below = std::max(below, to(0, -high / 2 - 15).y);
        }
        y_ = below + f_.px(16);
    }
    void joint(std::size_t k, const Projection& to, double reach) {
        const LetInEnd& e = p_.ends[k];
        const double sign = k == 0 ? 1 : -1; // towards the rail
        const double gap = e.driven ? 0 : let_in_root;
        const auto tube = [&](double from, double until, double high, double wall, Ink ink) {
            for (const double s : {-1.0, 1.0})
                d_.add(Hatch{{to(from, s * high / 2), to(until, s * high / 2), to(until, s * (high / 2 - wall)),
                              to(from, s * (high / 2 - wall))},
                             {ink, f_.thin(), Dash::Solid},
                             f_.px(4),
                             false},
                       v_.tag);
            for (const double s : {-1.0, 1.0})
                for (const double in : {0.0, wall})
                    d_.add(Stroke{{to(from, s * (high / 2 - in)), to(until, s * (high / 2 - in))},
                                  false,
                                  {ink, f_.medium(), Dash::Solid}},
                           v_.tag);
        };
        tube(-sign * reach, 0, legHigh(k), legWall(k), Ink::Chassis);
        tube(sign * gap, sign * reach, r_.height.value, r_.wall.value, Ink::NewSteel);
        const double in_leg = e.into_rail ? e.thin_high_mm : e.thick_high_mm,
                     in_rail = e.into_rail ? e.thick_high_mm : e.thin_high_mm;
        for (const double s : {-1.0, 1.0})
            d_.add(Fill{{to(-sign * e.engage_mm, s * in_leg / 2), to(0, s * in_leg / 2), to(0, s * in_rail / 2),
                         to(sign * e.engage_mm, s * in_rail / 2), to(sign * e.engage_mm, s * (in_rail / 2 - e.wall_mm)),
                         to(0, s * (in_rail / 2 - e.wall_mm)), to(0, s * (in_leg / 2 - e.wall_mm)),
                         to(-sign * e.engage_mm, s * (in_leg / 2 - e.wall_mm))},
                        Ink::Second},
                   v_.tag);
        for (int n = 0; n < std::min(e.plugs_fit, 12); ++n)
            for (const double side : {-1.0, 1.0}) {
                const double x = side * (2 * e.plug_mm + n * e.pitch_mm);
                if (std::abs(x) > e.engage_mm - e.plug_mm) continue;
                for (const double s : {-1.0, 1.0})
                    d_.add(Stroke{{to(x, s * (r_.height.value / 2 + 3)), to(x, s * (std::min(in_leg, in_rail) / 2 - e.wall_mm))},
                                  false,
                                  {Ink::NewSteel, f_.medium(), Dash::Solid}},
                           v_.tag);
            }
        d_.add(Text{to(0, 0), e.driven ? "driven" : "slides", f_.small(), Ink::Ink, Anchor::Centre, Level::Middle, Face::Bold,
                    Mark::None, 0, true},
               v_.tag);
    }

    static std::string turned(const build::Figure& f) {
        return fmt::format("{}° ± {:.1f}", units::fixed(units::degrees(f.value), 1), units::degrees(f.u95));
    }
    void figures(P at, double width) {
        FigureColumn to(d_, f_, at, width, v_.tag);
        const auto pm = [&](const build::Figure& f) { return fmt::format("{} ± {:.1f}", v_.length(f.value), f.u95); };
        const Mark mark = p_.length.provenance == build::Provenance::Assumed ? Mark::Assumed : Mark::Derived;
        to.row("between the open ends", pm(p_.between), mark);
        to.row("the rail, cut square", pm(p_.length), mark);
        to.row("its section", fmt::format("{:g} × {:g} × {:g}", r_.height.value, r_.width.value, r_.wall.value),
               markOf(r_.height.provenance));
        to.row("its mass", fmt::format("{:.1f} kg", p_.rail_kg));
        for (const LetInEnd& e : p_.ends) {
            to.head(fmt::format("{} piece, {}", word(e.end), e.driven ? "driven" : "sliding"));
            to.row(e.into_rail ? "in the leg, outside" : "in the rail, outside",
                   fmt::format("{:.1f} × {:.1f}", e.thin_high_mm, e.thin_wide_mm));
            if (e.step_mm >= let_in_least_step)
                to.row(e.into_rail ? "in the rail" : "in the leg",
                       fmt::format("{:.1f} × {:.1f}", e.thick_high_mm, e.thick_wide_mm));
            to.row("wall, and into each", fmt::format("{:.1f}, {}", e.wall_mm, v_.length(e.engage_mm)));
            to.row("bears of the weaker", fmt::format("{:.0f} %", 100 * e.share));
            to.row("plug welds in each flange", fmt::format("{} of {:.0f}, {} fit", e.plugs_needed, e.plug_mm, e.plugs_fit));
            to.row("slot for the drift, from the joint", v_.length(e.slot_mm));
            if (e.turn) {
                to.row("turned up", turned(e.turn->up));
                to.row("turned aside", turned(e.turn->aside));
            }
        }
        to.head("On the floor");
        to.row("opening", v_.length(p_.slot_wide_mm));
        to.row("a foot at each end",
               fmt::format("{} × {} × {:.1f}", v_.length(p_.foot_long_mm), v_.length(p_.foot_wide_mm), p_.foot_thick_mm));
        to.row("plug welds along each side", fmt::format("{}", p_.floor_plugs));
        figures_end_ = to.end();
    }
    void note(P at, const std::string& text) { d_.add(Text{at, text, f_.small(), Ink::Second}); }

    Drawing& d_;
    const LetInView& v_;
    const build::LetIn& r_;
    const LetInPlan& p_;
    const Format& f_;
    double y_;
    double wide_ = 0;
    double figures_end_ = 0;
};

} // namespace

Drawing letInSheet(const std::vector<LetInView>& all, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    double y = 0;
    for (const LetInView& v : all) y = LetInDraft(d, v, y, f).draw();
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::stretch
