#include "stretch/graft_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>

namespace gorvet::stretch {

using namespace sheet;

namespace {

using build::Vec3;

/// One piece: both views, one scale; then the figures and what is wrong.
class GraftDraft {
public:
    GraftDraft(Drawing& d, const GraftView& v, double top, double height, const Format& f)
        : d_(d), v_(v), in_(*v.input), p_(*v.plan), f_(f), y_(top), height_(height) {}

    /// Where it ends.
    double draw() {
        y_ += f_.lead();
        d_.add(Text{{0, y_}, title(), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, v_.tag);
        if (!v_.waits.empty()) {
            lines(v_.waits, 0, d_.width - f_.px(20));
            return y_ + f_.px(14);
        }
        const double column = f_.px(340), begins = y_ + f_.px(10);
        extent();
        const double views = d_.width - column - f_.px(40), tall = std::max(f_.px(300), height_ - f_.px(130));
        const double scale =
            std::min((views - f_.px(60)) / (to_x_ - from_x_), (tall - f_.px(70)) / (high_y_ - low_y_ + high_z_ - low_z_ + 1));
        plan_ = {scale, {f_.px(30) - scale * from_x_, begins + f_.px(24) + scale * high_y_}, true};
        const double below = begins + f_.px(24) + scale * (high_y_ - low_y_) + f_.px(54);
        side_ = {scale, {f_.px(30) - scale * from_x_, below + scale * high_z_}, true};
        note({0, begins + f_.px(8)}, "from above");
        note({0, below - f_.px(18)}, "from the left");
        for (const bool from_above : {true, false}) view(from_above);
        figures({d_.width - column + f_.px(10), begins});
        y_ = below + scale * (high_z_ - low_z_) + f_.px(34);
        for (const build::Remark& r : p_.remarks) {
            addMark(d_, {f_.px(8), y_ - f_.small() * 0.35}, f_.px(10), severityOf(r.verdict), v_.tag);
            lines(r.sentence + " " + r.remedy, f_.px(24), views);
        }
        std::vector<std::string> assumed = in_.assumed;
        if (in_.frame) assumed.insert(assumed.end(), in_.frame->assumed.begin(), in_.frame->assumed.end());
        if (!assumed.empty()) {
            std::string list;
            for (const std::string& a : assumed) list += (list.empty() ? "" : ", ") + a;
            lines("Taken as usual, not measured: " + list + ".", 0, views);
        }
        return std::max(y_, figures_end_) + f_.px(14);
    }

private:
    std::string title() const {
        return fmt::format("{}: {}, joined at {}", in_.graft.name,
                           in_.graft.kind == build::GraftKind::FrontClip ? "a front clip" : "a rear frame",
                           v_.length(in_.graft.joint.value));
    }
    void note(P at, const std::string& text) { d_.add(Text{at, text, f_.small(), Ink::Second}); }
    void lines(const std::string& text, double indent, double width) {
        for (const std::string& line : wrapped(text, width - indent, f_.small())) {
            d_.add(Text{{indent, y_}, line, f_.small(), Ink::Ink}, v_.tag);
            y_ += f_.small() * 1.35;
        }
        y_ += f_.px(3);
    }
    void extent() {
        const auto take = [&](const Vec3& p) {
            from_x_ = std::min(from_x_, p.x_mm - 60);
            to_x_ = std::max(to_x_, p.x_mm + 60);
            low_y_ = std::min(low_y_, p.y_mm - 60);
            high_y_ = std::max(high_y_, p.y_mm + 60);
            low_z_ = std::min(low_z_, p.z_mm - 90);
            high_z_ = std::max(high_z_, p.z_mm + 60);
        };
        for (const build::RailLine* r : {&in_.left, &in_.right})
            for (const Vec3& p : r->points) take(p);
        for (const Vec3& p : in_.piece.at) take(p);
        for (const Vec3& p : in_.chassis.at) take(p);
    }
    P at(bool from_above, const Vec3& p) const { return from_above ? plan_(p.x_mm, p.y_mm) : side_(p.x_mm, p.z_mm); }

    /// A rail as two edges about its middle.
    void rail(const std::vector<Vec3>& line, double width, double height, double to_middle, bool from_above, const Pen& pen) {
        for (const double side : {-0.5, 0.5}) {
            std::vector<P> path;
            for (Vec3 p : line) {
                p.z_mm += to_middle;
                (from_above ? p.y_mm : p.z_mm) += side * (from_above ? width : height);
                path.push_back(at(from_above, p));
            }
            d_.add(Stroke{path, false, pen}, v_.tag);
        }
    }
    /// What of a line lies on one side of a station, with a point there.
    static std::vector<Vec3> part(const std::vector<Vec3>& line, double station, bool behind) {
        std::vector<Vec3> kept;
        for (std::size_t k = 0; k < line.size(); ++k) {
            if (k > 0 && (line[k - 1].x_mm < station) != (line[k].x_mm < station))
                kept.push_back(
                    geometry::along(line[k - 1], line[k], (station - line[k - 1].x_mm) / (line[k].x_mm - line[k - 1].x_mm)));
            if ((line[k].x_mm >= station) == behind) kept.push_back(line[k]);
        }
        return kept;
    }
    void view(bool from_above) {
        const bool ahead = in_.graft.kind == build::GraftKind::FrontClip;
        const double joint = in_.graft.joint.value;
        for (std::size_t k = 0; k < 2; ++k) {
            if (!from_above && k == 1) break;
            const build::RailLine& r = k == 0 ? in_.left : in_.right;
            const double middle = r.datum_face == build::RailFace::Top ? -r.height_mm / 2 : r.height_mm / 2;
            rail(part(r.points, joint, ahead), r.width_mm, r.height_mm, middle, from_above,
                 {Ink::Chassis, f_.medium(), Dash::Solid});
            rail(part(r.points, joint, !ahead), r.width_mm, r.height_mm, middle, from_above,
                 {Ink::Faint, f_.thin(), Dash::Dashed});
            piece(k, from_above);
        }
        const P a = from_above ? plan_(joint, high_y_ - 20) : side_(joint, high_z_ - 10),
                b = from_above ? plan_(joint, low_y_ + 20) : side_(joint, low_z_ + 20);
        d_.add(Stroke{{a, b}, false, {Ink::Ink, f_.thin(), Dash::DashDot}}, v_.tag);
        if (from_above) across();
        marks(from_above);
    }
    void piece(std::size_t side, bool from_above) {
        std::vector<Vec3> line;
        for (const int k : in_.rails[side]) line.push_back(in_.piece.at[static_cast<std::size_t>(k)]);
        std::sort(line.begin(), line.end(), [](const Vec3& a, const Vec3& b) { return a.x_mm < b.x_mm; });
        const build::Graft& g = in_.graft;
        const bool ahead = g.kind == build::GraftKind::FrontClip;
        const double out = ahead ? -1 : 1;
        const double plane = g.joint.value + (p_.way == GraftWay::Transition ? out * p_.transition_mm : -out * p_.overlap_mm);
        const double middle = g.datum_face == build::RailFace::Top ? -g.height.value / 2 : g.height.value / 2;
        rail(part(line, plane, !ahead), g.width.value, g.height.value, middle, from_above,
             {Ink::NewSteel, f_.medium(), Dash::Solid});
        if (p_.way == GraftWay::Transition) made(side, line, plane, middle, from_above);
        rail(part(line, plane, ahead), g.width.value, g.height.value, middle, from_above,
             {Ink::NewSteel, f_.thin(), Dash::Dashed});
    }
    /// The made box: from the chassis' outside at the joint to the piece's where it is cut.
    void made(std::size_t side, const std::vector<Vec3>& line, double plane, double to_middle, bool from_above) {
        const build::RailLine& r = side == 0 ? in_.left : in_.right;
        const double joint = in_.graft.joint.value;
        const auto chassis = r.at(joint);
        const bool ahead = in_.graft.kind == build::GraftKind::FrontClip;
        const std::vector<Vec3> kept = part(line, plane, !ahead);
        if (!chassis || kept.empty()) return;
        const Vec3 end = ahead ? kept.back() : kept.front(),
                   face{joint, chassis->y_mm, (chassis->top_mm + chassis->bottom_mm) / 2},
                   other{end.x_mm, end.y_mm, end.z_mm + to_middle};
        std::vector<P> box;
        for (const double up : {-0.5, 0.5}) {
            Vec3 a = face, b = other;
            (from_above ? a.y_mm : a.z_mm) += up * (from_above ? r.width_mm : r.height_mm);
            (from_above ? b.y_mm : b.z_mm) += up * (from_above ? in_.graft.width.value : in_.graft.height.value);
            box.push_back(at(from_above, up < 0 ? a : b));
            box.push_back(at(from_above, up < 0 ? b : a));
        }
        d_.add(Hatch{box, {Ink::NewSteel, f_.thin(), Dash::Solid}, f_.px(5), false}, v_.tag);
        d_.add(Stroke{box, true, {Ink::NewSteel, f_.medium(), Dash::Solid}}, v_.tag);
    }
    void across() {
        for (const auto& [from, to] : {std::pair{0, 1}, {1, 0}}) {
            const int a = in_.marks[static_cast<std::size_t>(from)];
            const int b = in_.hubs[static_cast<std::size_t>(to)] >= 0 ? in_.hubs[static_cast<std::size_t>(to)]
                                                                      : in_.rails[static_cast<std::size_t>(to)].front();
            if (a < 0) continue;
            d_.add(Stroke{
                {at(true, in_.chassis.at[static_cast<std::size_t>(a)]), at(true, in_.piece.at[static_cast<std::size_t>(b)])},
                false,
                {Ink::Second, f_.thin(), Dash::Dashed}});
        }
    }
    void marks(bool from_above) {
        const auto dot = [&](const Vec3& p, const std::string& name, Ink ink) {
            const P c = at(from_above, p);
            d_.add(Circle{c, f_.px(4), {ink, f_.thin(), Dash::Solid}, false, true}, v_.tag);
            d_.add(Text{{c.x + f_.px(7), c.y - f_.px(5)},
                        name,
                        f_.small(),
                        Ink::Ink,
                        Anchor::Left,
                        Level::Base,
                        Face::Sans,
                        Mark::None,
                        0,
                        true});
        };
        for (std::size_t k = 0; k < in_.piece.at.size(); ++k)
            if (from_above || in_.piece.at[k].y_mm <= 0) dot(in_.piece.at[k], in_.piece.names[k], Ink::NewSteel);
        for (std::size_t k = 0; k < in_.chassis.at.size(); ++k)
            if (from_above || in_.chassis.at[k].y_mm <= 0) dot(in_.chassis.at[k], in_.chassis.names[k], Ink::Chassis);
    }

    void figures(P place) {
        double y = place.y;
        const auto line = [&](const std::string& name, const std::string& figure, Mark mark = Mark::Derived) {
            d_.add(Text{{place.x, y}, name, f_.small(), Ink::Second});
            d_.add(Text{{d_.width, y}, figure, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, mark}, v_.tag);
            y += f_.body() * 1.4;
        };
        const auto degrees = [](double rad) { return fmt::format("{:.1f}°", rad * 180 / std::numbers::pi); };
        for (const std::string& words : wrapped(fmt::format("Joined by {}.", graftWord(p_.way)), f_.px(330), f_.body())) {
            d_.add(Text{{place.x, y}, words, f_.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, v_.tag);
            y += f_.body() * 1.3;
        }
        y += f_.px(6);
        if (p_.way == GraftWay::Transition) {
            line("its length", v_.length(p_.transition_mm));
            line("its plates", v_.length(p_.plate_mm),
                 markOf(in_.graft.plate ? in_.graft.plate->provenance : build::Provenance::Derived));
            if (p_.taper > 0) line("it tapers by one in", fmt::format("{:.1f}", p_.taper));
        } else {
            line("overlap", v_.length(p_.overlap_mm));
            if (p_.strip_mm > 0) line("strip on the loose sides", v_.length(p_.strip_mm));
        }
        for (std::size_t k = 0; k < 2; ++k) {
            const GraftSide& s = p_.sides[k];
            const char* side = k == 0 ? "left" : "right";
            line(fmt::format("{}: beside, above", side), fmt::format("{} {}", signedLength(s.aside_mm), signedLength(s.up_mm)));
            line(fmt::format("{}: turned in plan, side", side),
                 fmt::format("{} {}", degrees(s.turn_plan_rad), degrees(s.turn_side_rad)));
            line(s.trim_mm < 0 ? fmt::format("{}: too short by", side) : fmt::format("{}: cut off its end", side),
                 v_.length(std::abs(s.trim_mm)));
        }
        if (p_.joint_modulus_mm3 > 0)
            line("of the weaker rail", fmt::format("{:.0f} %", 100 * p_.joint_modulus_mm3 / p_.weaker_modulus_mm3));
        if (p_.stress_mpa)
            line(in_.frame ? "worst, of all load cases" : "the heavier wheel bends it by",
                 fmt::format("{:.0f} of {:.0f} MPa", *p_.stress_mpa, p_.may_mpa),
                 in_.frame && !in_.frame->assumed.empty() ? Mark::Assumed : Mark::Derived);
        if (p_.weld_share) line("the weld all round, of what it bears", fmt::format("{:.0f} %", 100 * *p_.weld_share));
        if (in_.wheelbase_now_mm) line("wheelbase now", v_.length(*in_.wheelbase_now_mm));
        if (p_.wheelbase)
            line("as planned", fmt::format("{} ± {}", v_.length(p_.wheelbase->value), units::fixed(p_.wheelbase->u95, 1)));
        if (p_.wheelbase) line("left less right", signedLength(p_.wheelbase_skew_mm));
        y += f_.px(6);
        for (const build::Measure& m : p_.measures)
            line(m.name, fmt::format("{} ± {}", v_.length(m.mm), units::fixed(m.u95_mm, 1)));
        y += f_.px(6);
        for (const GraftPinned& pin : in_.pins) {
            addMark(d_, {place.x + f_.px(5), y - f_.small() * 0.35}, f_.px(10), severityOf(pin.verdict), v_.tag);
            line("     " + pin.name, fmt::format("{} ± {}", v_.length(pin.achieved.value), units::fixed(pin.achieved.u95, 1)));
        }
        figures_end_ = y;
    }
    std::string signedLength(double mm) const { return (mm < 0 ? "−" : "+") + v_.length(std::abs(mm)); }

    Drawing& d_;
    const GraftView& v_;
    const GraftInput& in_;
    const GraftPlan& p_;
    const Format& f_;
    Projection plan_, side_;
    double from_x_ = 1e9, to_x_ = -1e9, low_y_ = 1e9, high_y_ = -1e9, low_z_ = 1e9, high_z_ = -1e9;
    double y_, height_;
    double figures_end_ = 0;
};

} // namespace

Drawing graftSheet(const std::vector<GraftView>& all, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    double y = 0;
    for (const GraftView& v : all) y = GraftDraft(d, v, y, height, f).draw();
    d.height = std::max(height, y);
    return d;
}

Drawing transitionPattern(const TransitionPlate& p) {
    Drawing d;
    double left = 1e9, right = -1e9, low = 1e9, high = -1e9;
    for (const auto& [x, y] : p.corners) {
        left = std::min(left, x);
        right = std::max(right, x);
        low = std::min(low, y);
        high = std::max(high, y);
    }
    d.width = right - left;
    d.height = high - low;
    std::vector<P> shape;
    for (const auto& [x, y] : p.corners) shape.push_back({x - left, high - y});
    d.add(Stroke{shape, true, {Ink::Ink, 0.35, Dash::Solid}}, "outline");
    constexpr double seen_deg = 0.5;
    if (p.fold_deg > seen_deg) d.add(Stroke{{shape[0], shape[2]}, false, {Ink::Second, 0.25, Dash::Dashed}}, "fold");
    return d;
}

} // namespace gorvet::stretch
