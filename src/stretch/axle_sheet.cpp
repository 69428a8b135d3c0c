#include "stretch/axle_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {

using namespace sheet;

namespace {

/// One axle: as it is above, as planned below it, one scale; then the figures and what is wrong.
class AxleDraft {
public:
    AxleDraft(Drawing& d, const AxleView& v, double top, const Format& f) : d_(d), v_(v), f_(f), y_(top) {}

    /// Where it ends.
    double draw() {
        const build::AxleJob& a = v_.input->job;
        const AxlePlan& p = *v_.plan;
        const double half =
            std::max({p.faces_now_mm, p.faces_mm, p.over_tyres_now_mm.value_or(0), p.over_tyres_mm.value_or(0)}) / 2;
        const double column = f_.px(330);
        to_ = fit(-half - 40, half + 40, -1, 1, {f_.px(20), 0}, d_.width - column - f_.px(40), f_.px(4), true);
        y_ += f_.lead();
        d_.add(
            Text{
                {0, y_}, fmt::format("The {}, from behind", v_.name), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
            v_.tag);
        const double begins = y_;
        y_ += f_.px(18);
        row(a, false);
        row(a, true);
        figures({d_.width - column + f_.px(10), begins});
        words(d_.width - column - f_.px(30));
        return std::max(y_, figures_end_) + f_.px(14);
    }

private:
    double x(double mm) const { return to_(mm, 0).x; }

    void row(const build::AxleJob& a, bool planned) {
        const AxlePlan& p = *v_.plan;
        const double faces = planned ? p.faces_mm : p.faces_now_mm;
        const double pinion = planned && a.pinion_wanted ? a.pinion_wanted->value : a.pinion.value;
        const Ink ink = planned ? Ink::Chassis : Ink::Second;
        const double tube = std::clamp(to_.scale * (a.tube ? a.tube->value : 70), f_.px(8), f_.px(26));
        d_.add(Text{{0, y_ + f_.small()}, planned ? "as planned" : "as it is", f_.small(), Ink::Second});
        const double room = f_.px(58);
        const double axis = y_ + f_.small() + room;
        const double in = a.flange_in ? a.flange_in->value : 60;
        const Pen pen{ink, planned ? f_.medium() : f_.thin(), Dash::Solid};
        // tubes and the centre casting
        for (const double sign : {-1.0, 1.0}) {
            const double end = sign * (faces / 2 - in);
            d_.add(Stroke{{{x(pinion), axis - tube / 2},
                           {x(end), axis - tube / 2},
                           {x(end), axis + tube / 2},
                           {x(pinion), axis + tube / 2}},
                          false,
                          pen},
                   v_.tag);
            d_.add(Stroke{{{x(end), axis - tube * 0.9}, {x(end), axis + tube * 0.9}}, false, {ink, f_.medium(), Dash::Solid}},
                   v_.tag);
            d_.add(Stroke{{{x(end), axis}, {x(sign * faces / 2), axis}}, false, pen});
            d_.add(Stroke{{{x(sign * faces / 2), axis - tube * 1.1}, {x(sign * faces / 2), axis + tube * 1.1}},
                          false,
                          {ink, f_.medium(), Dash::Solid}},
                   v_.tag);
            if (a.brake_in) {
                const double inner = sign * (faces / 2 - a.brake_in->value);
                d_.add(Stroke{{{x(inner), axis - tube * 1.7},
                               {x(sign * faces / 2), axis - tube * 1.7},
                               {x(sign * faces / 2), axis + tube * 1.7},
                               {x(inner), axis + tube * 1.7}},
                              true,
                              {ink, f_.thin(), Dash::Dashed}});
            }
            wheel(a, sign, planned, axis, tube);
        }
        d_.add(Circle{{x(pinion), axis}, tube * 1.25, pen, false, true}, v_.tag);
        d_.add(Stroke{{{x(pinion), axis - tube * 1.6}, {x(pinion), axis + tube * 1.6}}, false, {ink, f_.thin(), Dash::Dashed}});
        perches(a, planned, axis, tube, ink);
        if (planned) joints(axis, tube);
        const double below = axis + std::max(tube * 2.1, f_.px(34));
        d_.add(Dimension{{x(-faces / 2), below},
                         {x(faces / 2), below},
                         -f_.px(14),
                         v_.length(faces),
                         f_.body(),
                         Ink::Ink,
                         planned ? Mark::Derived : markOf(a.faces.provenance)},
               v_.tag);
        y_ = below + f_.px(40);
    }
    void wheel(const build::AxleJob& a, double sign, bool planned, double axis, double tube) {
        const AxlePlan& p = *v_.plan;
        const auto& track = planned ? p.track_mm : p.track_now_mm;
        if (!track || !a.tyre) return;
        const double outer = sign * (*track + a.tyre->value) / 2, inner = sign * (*track - a.tyre->value) / 2;
        const double high = std::max(tube * 2.1, f_.px(34));
        d_.add(Hatch{{{x(inner), axis - high}, {x(outer), axis - high}, {x(outer), axis + high}, {x(inner), axis + high}},
                     {planned ? Ink::Second : Ink::Faint, f_.thin(), Dash::Solid},
                     f_.px(planned ? 7 : 11),
                     false});
    }
    void perches(const build::AxleJob& a, bool planned, double axis, double tube, Ink ink) {
        if (!a.perches) return;
        const double middles = planned && a.perches_wanted ? a.perches_wanted->value : a.perches->value;
        for (const double sign : {-1.0, 1.0}) {
            const double l = sign * middles / 2 - a.perch.value / 2, r = sign * middles / 2 + a.perch.value / 2;
            d_.add(Fill{{{x(l), axis - tube * 0.5 - f_.px(7)},
                         {x(r), axis - tube * 0.5 - f_.px(7)},
                         {x(r), axis - tube * 0.5},
                         {x(l), axis - tube * 0.5}},
                        ink},
                   v_.tag);
        }
    }
    void joints(double axis, double tube) {
        for (std::size_t k = 0; k < 2; ++k) {
            const AxleSide& s = v_.plan->sides[k];
            if (std::abs(s.cut_mm) <= 0.05) continue;
            const double side = k == 0 ? -1 : 1;
            const double at = s.weld_mm > 0 ? side * s.weld_mm : side * s.then_mm * 0.75;
            d_.add(Stroke{{{x(at), axis - tube * 0.75}, {x(at), axis + tube * 0.75}},
                          false,
                          {Ink::NewSteel, f_.thick(), Dash::Solid}},
                   v_.tag);
            d_.add(Text{{x(at), axis - std::max(tube * 2.1, f_.px(34)) - f_.px(4)},
                        fmt::format("{} {}", s.cut_mm > 0 ? "off" : "let in", v_.length(std::abs(s.cut_mm))),
                        f_.body(),
                        Ink::NewSteel,
                        Anchor::Centre,
                        Level::Base,
                        Face::Bold,
                        Mark::Derived,
                        0,
                        true},
                   v_.tag);
        }
    }

    void figures(P at) {
        const AxlePlan& p = *v_.plan;
        const double right = d_.width, middle = d_.width - f_.px(100);
        double y = at.y;
        d_.add(Text{{middle, y}, "is", f_.small(), Ink::Second, Anchor::Right});
        d_.add(Text{{right, y}, "planned", f_.small(), Ink::Second, Anchor::Right});
        const auto line = [&](const char* name, const std::optional<double>& now, const std::optional<double>& then) {
            if (!now && !then) return;
            y += f_.body() * 1.45;
            d_.add(Text{{at.x, y}, name, f_.small(), Ink::Second});
            if (now)
                d_.add(Text{{middle, y}, v_.length(*now), f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono}, v_.tag);
            if (then)
                d_.add(
                    Text{
                        {right, y}, v_.length(*then), f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, Mark::Derived},
                    v_.tag);
        };
        line("face to face", p.faces_now_mm, p.faces_mm);
        line("pinion to face, left", p.sides[0].now_mm, p.sides[0].then_mm);
        line("pinion to face, right", p.sides[1].now_mm, p.sides[1].then_mm);
        line("shaft, left", p.sides[0].shaft_now_mm, p.sides[0].shaft_mm);
        line("shaft, right", p.sides[1].shaft_now_mm, p.sides[1].shaft_mm);
        line("splines left on it, left", v_.input->job.splined ? std::optional(v_.input->job.splined->value) : std::nullopt,
             p.sides[0].splines_mm);
        line("splines left on it, right", v_.input->job.splined ? std::optional(v_.input->job.splined->value) : std::nullopt,
             p.sides[1].splines_mm);
        line("track", p.track_now_mm, p.track_mm);
        line("over the tyres", p.over_tyres_now_mm, p.over_tyres_mm);
        line("tube beside the perch", std::nullopt, p.free_mm);
        line("brake to perch", std::nullopt, p.brake_gap_mm);
        line("tyre to perch", std::nullopt, p.tyre_perch_mm);
        line("tyre to rail", std::nullopt, p.tyre_rail_mm);
        line("offset that keeps within", std::nullopt, p.offset_needed_mm);
        line("faces that keep within", std::nullopt, p.faces_needed_mm);
        if (p.stress_3g_mpa) {
            y += f_.body() * 1.45;
            d_.add(Text{{at.x, y}, "the joint in a pothole", f_.small(), Ink::Second});
            d_.add(Text{{right, y},
                        fmt::format("{:.0f} of {:.0f} MPa", *p.stress_3g_mpa, p.may_mpa),
                        f_.body(),
                        Ink::Ink,
                        Anchor::Right,
                        Level::Base,
                        Face::Mono,
                        Mark::Derived},
                   v_.tag);
        }
        figures_end_ = y + f_.px(10);
    }
    void words(double width) {
        const auto lines = [&](const std::string& text, double indent) {
            for (const std::string& line : wrapped(text, width - indent, f_.small())) {
                d_.add(Text{{indent, y_}, line, f_.small(), Ink::Ink}, v_.tag);
                y_ += f_.small() * 1.35;
            }
        };
        for (const build::Remark& r : v_.plan->remarks) {
            addMark(d_, {f_.px(8), y_ - f_.small() * 0.35}, f_.px(10), severityOf(r.verdict), v_.tag);
            lines(r.sentence + " " + r.remedy, f_.px(24));
            y_ += f_.px(3);
        }
        const auto list = [&](const char* before, const std::vector<std::string>& all) {
            if (all.empty()) return;
            std::string text = before;
            for (std::size_t k = 0; k < all.size(); ++k) text += (k ? ", " : "") + all[k];
            lines(text + ".", 0);
        };
        list("Not judged, because it is not said: ", v_.plan->missing);
        list("Taken as usual, not measured: ", v_.plan->assumed);
    }

    Drawing& d_;
    const AxleView& v_;
    const Format& f_;
    Projection to_;
    double y_;
    double figures_end_ = 0;
};

} // namespace

Drawing axleSheet(const std::vector<AxleView>& all, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    double y = 0;
    for (const AxleView& v : all) y = AxleDraft(d, v, y, f).draw();
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::stretch
