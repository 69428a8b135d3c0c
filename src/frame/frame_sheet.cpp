#include "frame/frame_sheet.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

#include <fmt/format.h>

namespace gorvet::frame {

using namespace sheet;

namespace {

constexpr double ribbon_px = 34; ///< what may be borne, beside a line

class Drafter {
public:
    Drafter(const FrameView& v, double width, double height, const Format& f) : v_(v), f_(f) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        const double table = std::clamp(d_.width * 0.4, f_.px(380), f_.px(560)), gap = f_.px(28);
        const double views = d_.width - table - gap;
        const double side = std::min(d_.height * 0.3, f_.px(170));
        from_ = 1e12;
        to_ = -1e12;
        for (const Shape& s : v_.outcome->shape)
            for (const Vec3& p : {s.from, s.to}) {
                from_ = std::min(from_, p.x_mm);
                to_ = std::max(to_, p.x_mm);
                low_ = std::min(low_, p.y_mm);
                high_ = std::max(high_, p.y_mm);
            }
        plan({0, 0}, views, d_.height - side - f_.px(10));
        bent({0, d_.height - side}, views, side);
        figures({d_.width - table, 0}, table);
        return std::move(d_);
    }

private:
    void note(P at, const std::string& text, Ink ink = Ink::Second, Anchor anchor = Anchor::Left) {
        d_.add(Text{at, text, f_.small(), ink, anchor});
    }

    void plan(P at, double width, double height) {
        d_.add(Text{{at.x, at.y + f_.body()},
                    v_.grips.empty() ? "from above: what it bears of what it may"
                                     : "from above: what it bears of what it may. Drag a plate by its ends",
                    f_.body(),
                    Ink::Second});
        const double edge = f_.px(ribbon_px + 16);
        // seen from above with the right side up the page: the offset grows downwards
        const Projection to = fit(from_, to_, low_, high_, {at.x + f_.px(24), at.y + f_.px(30) + edge}, width - f_.px(48),
                                  height - f_.px(52) - 2 * edge, true);
        for (std::size_t k = 0; k < v_.outcome->shape.size(); ++k) {
            const Shape& s = v_.outcome->shape[k];
            const Line& line = v_.structure->lines[s.line];
            const bool fresh = s.line < v_.fresh.size() && v_.fresh[s.line];
            d_.add(Stroke{{to(s.from.x_mm, s.from.y_mm), to(s.to.x_mm, s.to.y_mm)},
                          false,
                          {fresh ? Ink::NewSteel : Ink::Chassis, line.rail ? f_.thick() : f_.medium(), Dash::Solid}},
                   "member:" + line.name);
        }
        for (std::size_t l = 0; l < v_.outcome->lines.size(); ++l) {
            ribbon(l, to);
            plates(l, to);
        }
        for (const Seat& seat : v_.structure->seats) {
            const P p = to(seat.at.x_mm, seat.at.y_mm);
            d_.add(Stroke{{{p.x - f_.px(6), p.y + f_.px(9)}, p, {p.x + f_.px(6), p.y + f_.px(9)}},
                          true,
                          {Ink::Ink, f_.thin(), Dash::Solid}});
        }
        loads(to);
        worst(to);
        grips(to);
    }

    /// What hangs on it, front to rear, the names on three rows.
    void loads(const Projection& to) {
        std::vector<const Hung*> hung;
        for (const Hung& h : v_.structure->hung) hung.push_back(&h);
        std::sort(hung.begin(), hung.end(), [](const Hung* a, const Hung* b) { return a->at.x_mm < b->at.x_mm; });
        constexpr std::array<double, 3> rows{-0.6, 1.5, 2.7};
        for (std::size_t k = 0; k < hung.size(); ++k) {
            const P p = to(hung[k]->at.x_mm, hung[k]->at.y_mm);
            d_.add(Text{{p.x + f_.px(8), p.y + f_.small() * rows[k % rows.size()]},
                        fmt::format("{} {:.0f} kg", hung[k]->name, hung[k]->mass_kg),
                        f_.small(),
                        Ink::Ink,
                        Anchor::Left,
                        Level::Base,
                        Face::Sans,
                        Mark::None,
                        0,
                        true},
                   "load:" + hung[k]->name);
        }
        for (const Hung* h : hung)
            d_.add(Circle{to(h->at.x_mm, h->at.y_mm), f_.px(4), {Ink::Ink, f_.thin(), Dash::Solid}, false, true},
                   "load:" + h->name);
    }

    /// Beside an open rail that is closed in part: its plates, those with windows dashed; across it its ribs.
    void plates(std::size_t l, const Projection& to) {
        const Line& line = v_.structure->lines[l];
        double begin = 0;
        for (const Piece& piece : line.pieces) {
            const double from = begin;
            begin = piece.until_mm;
            const bool windows = piece.section.shape == "windowed";
            if (!line.rail || (!windows && piece.section.shape != "boxed")) continue;
            // on its open side: to the left as it is followed, or mirrored
            const double aside = (piece.section.mirrored ? 1 : -1) * f_.px(5);
            const Vec3 first = placeAlong(line, from), last = placeAlong(line, piece.until_mm);
            const P a = to(first.x_mm, first.y_mm), b = to(last.x_mm, last.y_mm);
            d_.add(Stroke{{{a.x, a.y + aside}, {b.x, b.y + aside}},
                          false,
                          {Ink::NewSteel, f_.thick(), windows ? Dash::Dashed : Dash::Solid}},
                   "member:" + line.name);
        }
        for (const Rib& rib : line.ribs) {
            const Vec3 at = placeAlong(line, rib.along_mm);
            const P p = to(at.x_mm, at.y_mm);
            d_.add(Stroke{{{p.x, p.y - f_.px(4)}, {p.x, p.y + f_.px(4)}}, false, {Ink::NewSteel, f_.medium(), Dash::Solid}});
        }
    }

    /// At the ends of what can be dragged: a handle each, and what it comes to where it is.
    void grips(const Projection& to) {
        for (const auto& [place, said] : v_.grips) {
            const P p = to(place.x_mm, place.y_mm);
            const double half = f_.px(5);
            const bool now = said.name == v_.dragged;
            d_.add(Fill{{{p.x - half, p.y - half}, {p.x + half, p.y - half}, {p.x + half, p.y + half}, {p.x - half, p.y + half}},
                        Ink::NewSteel});
            Grip grip = said;
            grip.at = p;
            grip.per_unit = 1 / to.scale;
            d_.grips.push_back(grip);
            if (now)
                d_.add(Text{{p.x, p.y - f_.px(14)},
                            v_.live,
                            f_.body(),
                            Ink::Ink,
                            Anchor::Centre,
                            Level::Base,
                            Face::Bold,
                            Mark::Derived,
                            0,
                            true});
        }
    }

    /// Beside a line, outwards: the worst stress of all cases as a share of what it may bear; the dashed line is all of it.
    void ribbon(std::size_t l, const Projection& to) {
        const Line& line = v_.structure->lines[l];
        const auto& places = v_.outcome->lines[l].places;
        if (!line.rail || places.size() < 2) return;
        double mean = 0;
        for (const AtPlace& p : places) mean += p.at.y_mm / static_cast<double>(places.size());
        const double out = mean < 0 ? 1 : -1; // down the page is the left side
        std::vector<P> band, limit;
        for (const AtPlace& p : places) {
            const P foot = to(p.at.x_mm, p.at.y_mm);
            const double share = p.yield_mpa > 0 ? p.stress_mpa / (p.yield_mpa / 1.5) : 0;
            band.push_back({foot.x, foot.y + out * (f_.px(6) + std::min(share, 1.4) * f_.px(ribbon_px))});
            limit.push_back({foot.x, foot.y + out * (f_.px(6) + f_.px(ribbon_px))});
        }
        std::vector<P> area = band;
        for (auto p = places.rbegin(); p != places.rend(); ++p) {
            const P foot = to(p->at.x_mm, p->at.y_mm);
            area.push_back({foot.x, foot.y + out * f_.px(6)});
        }
        d_.add(Hatch{area, {Ink::Second, f_.thin(), Dash::Solid}, f_.px(5), false}, "member:" + line.name);
        d_.add(Stroke{band, false, {Ink::Ink, f_.thin(), Dash::Solid}}, "member:" + line.name);
        d_.add(Stroke{limit, false, {Ink::Warn, f_.thin(), Dash::Dashed}});
        if (mean <= 0) note({limit.back().x, limit.back().y + f_.small() * 1.2}, "yield / 1.5", Ink::Warn, Anchor::Right);
    }

    void worst(const Projection& to) {
        for (std::size_t k = 0; k < v_.outcome->cases.size() && k < v_.cases.size(); ++k) {
            const OfCase& c = v_.outcome->cases[k];
            if (!v_.cases[k].counts || c.margin <= 0) continue;
            const bool least = std::all_of(v_.outcome->cases.begin(), v_.outcome->cases.end(),
                                           [&](const OfCase& o) { return o.margin <= 0 || o.margin >= c.margin; });
            if (!least) continue;
            const P p = to(c.at.x_mm, c.at.y_mm);
            addMark(d_, p, f_.px(16), v_.cases[k].severity, "frame");
            return;
        }
    }

    /// As it bends at rest, from the left, drawn so many times larger.
    void bent(P at, double width, double height) {
        double most = 1e-6, low = 1e12, high = -1e12;
        for (const Shape& s : v_.outcome->shape)
            for (const auto& [p, m] : {std::pair{s.from, s.from_moves}, std::pair{s.to, s.to_moves}}) {
                low = std::min(low, p.z_mm);
                high = std::max(high, p.z_mm);
                (void)m;
            }
        // what all sinks by is the springs': the frame's own is what is left of a straight line through its seats
        const auto own = ownMoves();
        for (const auto& [a, b] : own) most = std::max({most, std::abs(a), std::abs(b)});
        const Projection to = fit(from_, to_, low - 120, high + 120, {at.x + f_.px(24), at.y + f_.px(26)}, width - f_.px(48),
                                  height - f_.px(34), true);
        const double wanted = f_.px(30) / to.scale / most;
        double times = 1;
        for (const double t : {1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0, 200.0, 500.0})
            if (t <= wanted) times = t;
        d_.add(Text{{at.x, at.y + f_.body()},
                    fmt::format("from the left, at rest: bent {:.0f} times as much as it is ({:.1f} at most)", times, most),
                    f_.body(),
                    Ink::Second});
        for (std::size_t k = 0; k < v_.outcome->shape.size(); ++k) {
            const Shape& s = v_.outcome->shape[k];
            if (!v_.structure->lines[s.line].rail) continue;
            d_.add(
                Stroke{{to(s.from.x_mm, s.from.z_mm), to(s.to.x_mm, s.to.z_mm)}, false, {Ink::Second, f_.thin(), Dash::Dashed}});
            d_.add(Stroke{{to(s.from.x_mm, s.from.z_mm + times * own[k].first), to(s.to.x_mm, s.to.z_mm + times * own[k].second)},
                          false,
                          {Ink::Chassis, f_.thick(), Dash::Solid}});
        }
    }
    /// How far each end of a beam stands over the line through the places where its line's axles are.
    std::vector<std::pair<double, double>> ownMoves() const {
        std::vector<std::pair<double, double>> own;
        const double front = (v_.structure->seats[0].at.x_mm + v_.structure->seats[1].at.x_mm) / 2,
                     rear = (v_.structure->seats[2].at.x_mm + v_.structure->seats[3].at.x_mm) / 2;
        std::map<std::size_t, std::pair<double, double>> at; // of each line: moves at front and rear
        for (const auto& [station, second] : {std::pair{front, false}, std::pair{rear, true}}) {
            std::map<std::size_t, double> nearest;
            for (const Shape& s : v_.outcome->shape) {
                const double away = std::abs(s.from.x_mm - station);
                const auto [known, fresh] = nearest.emplace(s.line, away);
                if (!fresh && away >= known->second) continue;
                known->second = away;
                (second ? at[s.line].second : at[s.line].first) = s.from_moves.z_mm;
            }
        }
        for (const Shape& s : v_.outcome->shape) {
            const double a = at[s.line].first, b = at[s.line].second;
            const auto line = [&](double x) { return rear > front ? a + (b - a) * (x - front) / (rear - front) : a; };
            const bool rail = v_.structure->lines[s.line].rail;
            own.emplace_back(rail ? s.from_moves.z_mm - line(s.from.x_mm) : 0, rail ? s.to_moves.z_mm - line(s.to.x_mm) : 0);
        }
        return own;
    }

    void figures(P at, double width) {
        double y = at.y + f_.body();
        const double now = at.x + width * 0.66, planned = at.x + width;
        const bool two =
            std::any_of(v_.figures.begin(), v_.figures.end(), [](const SheetFigure& s) { return !s.planned.empty(); });
        if (two) {
            note({now, y}, "as it is", Ink::Second, Anchor::Right);
            note({planned, y}, "as planned", Ink::Second, Anchor::Right);
            y += f_.px(6);
        }
        for (const SheetFigure& s : v_.figures) {
            y += f_.body() * 1.35;
            d_.add(Text{{at.x, y}, s.name, f_.body(), Ink::Ink}, "frame");
            d_.add(Text{{two ? now : planned, y}, s.now, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, s.mark},
                   "frame");
            if (two)
                d_.add(Text{{planned, y}, s.planned, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, s.mark},
                       "frame");
        }
        y += f_.px(14);
        d_.add(Stroke{{{at.x, y}, {at.x + width, y}}, false, {Ink::Ink, f_.medium(), Dash::Solid}});
        y += f_.px(4);
        const double mark = f_.px(26);
        for (const SheetCase& c : v_.cases) {
            y += f_.body() * 1.45;
            addMark(d_, {at.x + mark * 0.4, y - f_.px(5)}, f_.px(16), c.severity, "case:" + c.name);
            d_.add(Text{{at.x + mark, y}, c.name, f_.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, "case:" + c.name);
            if (c.counts) {
                d_.add(Text{{at.x + width * 0.72, y},
                            c.bears,
                            f_.body(),
                            Ink::Ink,
                            Anchor::Right,
                            Level::Base,
                            Face::Mono,
                            Mark::Derived},
                       "case:" + c.name);
                d_.add(
                    Text{{at.x + width, y}, c.margin, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, Mark::Derived},
                    "case:" + c.name);
            }
            y += f_.small() * 1.2;
            note({at.x + mark, y}, c.words + (c.where.empty() ? "" : "; " + c.where));
        }
        y += f_.px(10);
        for (const std::string& text : v_.words)
            for (const std::string& line : wrapped(text, width, f_.small())) {
                y += f_.small() * 1.25;
                note({at.x, y}, line);
            }
        d_.height = std::max(d_.height, y + f_.px(8));
    }

    const FrameView& v_;
    Format f_;
    Drawing d_;
    double from_ = 0, to_ = 0, low_ = 1e12, high_ = -1e12;
};

/// One section: its drawing to the left, its figures to the right.
void one(Drawing& d, const SectionShown& s, P at, double width, double height, const Format& f) {
    d.add(Text{{at.x, at.y + f.body()}, s.name, f.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, "section:" + s.name);
    d.add(Text{{at.x, at.y + f.body() + f.small() * 1.35}, s.said, f.small(), Ink::Second});
    const double top = at.y + f.body() + f.small() * 2.2, half = width * 0.4;
    double left = 1e12, right = -1e12, low = 1e12, high = -1e12;
    for (const At& p : s.walls.at) {
        left = std::min(left, p.y_mm);
        right = std::max(right, p.y_mm);
        low = std::min(low, p.z_mm);
        high = std::max(high, p.z_mm);
    }
    left = std::min(left, s.section.shear_centre.y_mm);
    right = std::max(right, s.section.shear_centre.y_mm);
    const double edge = 0.12 * std::max({right - left, high - low, 10.0});
    const Projection to =
        fit(left - edge, right + edge, low - edge, high + edge, {at.x, top}, half, at.y + height - top - f.px(16), true);
    // walls one after the other are one stroke, as thick as they are
    for (std::size_t k = 0; k < s.walls.walls.size();) {
        const Wall& first = s.walls.walls[k];
        const At a = s.walls.at[first.from];
        Stroke run{{to(a.y_mm, a.z_mm)}, false, {Ink::Chassis, first.thickness_mm * to.scale, Dash::Solid}};
        std::size_t last = first.from;
        for (; k < s.walls.walls.size() && s.walls.walls[k].from == last && s.walls.walls[k].thickness_mm == first.thickness_mm;
             ++k) {
            last = s.walls.walls[k].to;
            run.path.push_back(to(s.walls.at[last].y_mm, s.walls.at[last].z_mm));
        }
        run.closed = last == first.from;
        d.add(std::move(run), "section:" + s.name);
    }
    const auto cross = [&](const At& p, const char* name, bool round) {
        const P c = to(p.y_mm, p.z_mm);
        const double r = f.px(6);
        if (round)
            d.add(Circle{c, r * 0.7, {Ink::Ink, f.medium(), Dash::Solid}});
        else
            for (const auto& [dx, dy] : {std::pair{r, 0.0}, std::pair{0.0, r}})
                d.add(Stroke{{{c.x - dx, c.y - dy}, {c.x + dx, c.y + dy}}, false, {Ink::Ink, f.medium(), Dash::Solid}});
        d.add(Text{{c.x + r * 1.4, c.y - r * 0.6},
                   name,
                   f.small(),
                   Ink::Ink,
                   Anchor::Left,
                   Level::Base,
                   Face::Bold,
                   Mark::None,
                   0,
                   true});
    };
    cross(s.section.centroid, "C", false);
    if (std::hypot(s.section.centroid.y_mm - s.section.shear_centre.y_mm, s.section.centroid.z_mm - s.section.shear_centre.z_mm) >
        1)
        cross(s.section.shear_centre, "S", true);
    const Section& x = s.section;
    const std::vector<std::pair<std::string, std::string>> rows{
        {"area", fmt::format("{:.0f} mm²", x.area_mm2)},
        {"mass", fmt::format("{:.2f} kg/m", x.mass_kg_per_m)},
        {"I, up and down", fmt::format("{:.1f} cm⁴", x.level_mm4 / 1e4)},
        {"I, sideways", fmt::format("{:.1f} cm⁴", x.upright_mm4 / 1e4)},
        {"S, up and down", fmt::format("{:.2f} cm³", x.level_modulus_mm3 / 1e3)},
        {"S, sideways", fmt::format("{:.2f} cm³", x.upright_modulus_mm3 / 1e3)},
        {x.closed() ? "J, closed" : "J, open", fmt::format("{:.3g} cm⁴", x.torsion_mm4 / 1e4)},
        {"Cw, warping", x.closed() ? "small" : fmt::format("{:.0f} cm⁶", x.warping_mm6 / 1e6)}};
    double y = top;
    for (const auto& [name, value] : rows) {
        y += f.small() * 1.4;
        d.add(Text{{at.x + half + f.px(14), y}, name, f.small(), Ink::Second});
        d.add(Text{{at.x + width, y}, value, f.small(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, Mark::Derived});
    }
}

} // namespace

Drawing frameSheet(const FrameView& v, double width, double height, const Format& f) {
    return Drafter(v, width, height, f).draw();
}

Drawing sectionsSheet(const std::vector<SectionShown>& all, double width, double height, const Format& f) {
    Drawing d;
    d.width = width;
    const int columns = width > f.px(1100) ? 3 : width > f.px(700) ? 2 : 1;
    const double gap = f.px(36), each = (width - gap * (columns - 1)) / columns, high = f.px(214);
    double y = 0;
    d.add(Text{
        {0, f.small()},
        "C: centroid, about which it bends. S: shear centre: what pulls beside it twists it. I and S in bending, J and Cw in twist.",
        f.small(),
        Ink::Second});
    y += f.small() * 1.8;
    for (std::size_t k = 0; k < all.size(); ++k) {
        const auto column = static_cast<int>(k) % columns;
        one(d, all[k], {column * (each + gap), y}, each, high, f);
        if (column + 1 == columns || k + 1 == all.size()) y += high + f.px(18);
    }
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::frame
