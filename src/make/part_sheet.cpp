#include "make/part_sheet.hpp"

#include "make/crossmember.hpp"
#include "make/flat_sheet.hpp"
#include "make/part_edges.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <span>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {

using namespace sheet;
using geometry::cross;
using geometry::dot;
using geometry::minus;
using geometry::plus;
using geometry::times;
using geometry::unit;

namespace {

constexpr double part_words_px = 330, part_picture_px = 250, part_row_px = 270, most_flat_px = 176;
constexpr std::size_t most_beside = 4;

/// A range of places on paper.
struct Reach {
    double least[2] = {1e18, 1e18}, most[2] = {-1e18, -1e18};
    void take(double a, double b) {
        least[0] = std::min(least[0], a);
        least[1] = std::min(least[1], b);
        most[0] = std::max(most[0], a);
        most[1] = std::max(most[1], b);
    }
    bool empty() const { return least[0] > most[0]; }
};

class PartsDraft {
public:
    PartsDraft(Drawing& d, const Format& f) : d_(d), f_(f) {}

    double draw(const std::vector<PartView>& all) {
        for (const PartView& v : all) one(v);
        return y_;
    }

private:
    void one(const PartView& v) {
        const PartPlan& p = *v.plan;
        const double begins = y_ + f_.lead();
        d_.add(
            Text{{0, begins}, fmt::format("{}, {}", p.name, p.kind), f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold},
            v.tag);
        const double words_at = d_.width - f_.px(part_words_px);
        double drawn = begins + f_.px(8);
        if (p.made()) {
            picture(v, {0, begins + f_.px(10)}, f_.px(part_picture_px), f_.px(part_row_px) - f_.px(30));
            const double left = f_.px(part_picture_px + 20), width = words_at - f_.px(part_picture_px + 50);
            double y = begins + f_.px(10);
            // as many beside each other as can be told apart
            const std::vector<FlatPiece>& all = p.flats;
            const std::size_t rows = (all.size() + most_beside - 1) / most_beside;
            for (std::size_t k = 0; k < rows; ++k) {
                const std::size_t from = k * all.size() / rows, until = (k + 1) * all.size() / rows;
                y = flats(v, std::span(all).subspan(from, until - from), {left, y}, width,
                          f_.px(rows > 1 ? most_flat_px / 2 : most_flat_px));
            }
            if (all.empty() || p.bars.size() > 1) y = bars(v, {left, y}, width);
            drawn = std::max(begins + f_.px(part_row_px), y);
        }
        const double figures_end = figures(v, {words_at, begins}, f_.px(part_words_px));
        y_ = sentences(v, std::max(drawn, figures_end) + f_.px(6)) + f_.px(18);
    }

public:
    /// What is wrong with it, from a height down.
    double sentences(const PartView& v, double y) {
        SheetWords words(d_, f_, y, d_.width, v.tag);
        for (const std::string& lack : v.input->missing) words.lines("Waits for " + lack + ".");
        words.remarks(v.plan->remarks);
        words.list("Not looked at: ", v.plan->not_looked_at);
        words.list("Taken as usual, not measured: ", v.input->assumed);
        return words.end();
    }

private:
    /// As it sits, from the left, behind and above.
    void picture(const PartView& v, P at, double width, double height) {
        const shape::ViewAxes axes = shape::ViewAxes::from(0.65, 0.5);
        const Edges edges = edgesOf(*v.plan, axes);
        Reach reach;
        const auto flat = [&](const Vec3& q) { return std::pair{dot(q, axes.right), dot(q, axes.up)}; };
        for (const auto* list : {&edges.closed, &edges.open})
            for (const Path& path : *list)
                for (const Vec3& q : path) {
                    const auto [a, b] = flat(q);
                    reach.take(a, b);
                }
        if (reach.empty()) return;
        const Projection to = fit(reach.least[0], reach.most[0], reach.least[1], reach.most[1], at, width, height, true);
        const Pen pen{Ink::NewSteel, f_.thin(), Dash::Solid};
        for (const auto* list : {&edges.closed, &edges.open})
            for (const Path& path : *list) {
                Stroke s{{}, list == &edges.closed, pen};
                for (const Vec3& q : path) {
                    const auto [a, b] = flat(q);
                    s.path.push_back(to(a, b));
                }
                d_.add(std::move(s), v.tag);
            }
    }

    /// Flat pieces side by side at one scale, as they are cut. Returns how far down they reach.
    double flats(const PartView& v, std::span<const FlatPiece> some, P at, double width, double most_high) {
        double widest = 0, highest = 0;
        for (const FlatPiece& piece : some) {
            const auto [wide, high] = flatSize(piece);
            widest += wide;
            highest = std::max(highest, high);
        }
        const double gap = f_.px(46);
        const double scale = std::min((width - gap * static_cast<double>(some.size())) / std::max(1.0, widest),
                                      most_high / std::max(1.0, highest));
        double x = at.x + f_.px(22);
        for (const FlatPiece& piece : some) {
            Reach r;
            for (const auto& [a, b] : piece.outline) r.take(a, b);
            const Projection to{scale, {x - scale * r.least[0], at.y + f_.px(20) + scale * r.most[1]}, true};
            addFlat(d_, piece, to, f_, v.tag);
            const std::string name = piece.count > 1 ? fmt::format("{} × {}", piece.count, piece.name) : piece.name;
            d_.add(Text{{x, at.y + f_.px(12)}, name, f_.small(), Ink::Second}, v.tag);
            const P low_left = to(r.least[0], r.least[1]), low_right = to(r.most[0], r.least[1]),
                    high_left = to(r.least[0], r.most[1]);
            d_.add(Dimension{low_left, low_right, -f_.px(18), units::formatLength(r.most[0] - r.least[0], v.step), f_.small(),
                             Ink::Ink, Mark::Derived},
                   v.tag);
            d_.add(Dimension{low_left, high_left, f_.px(14), units::formatLength(r.most[1] - r.least[1], v.step), f_.small(),
                             Ink::Ink, Mark::Derived},
                   v.tag);
            x += scale * (r.most[0] - r.least[0]) + gap;
        }
        return at.y + f_.px(20) + scale * highest + f_.px(40);
    }
    /// Bars from the side, their ends as they are cut; of more than one two beside each other. Returns how far down they reach.
    double bars(const PartView& v, P at, double width) {
        std::vector<const BarPiece*> all;
        for (const BarPiece& b : v.plan->bars)
            if (b.through.empty()) all.push_back(&b); // the bends of others stand among its figures
        const std::size_t columns = all.size() > 1 ? 2 : 1;
        const double wide = width / static_cast<double>(columns), high = f_.px(columns > 1 ? 62 : 150);
        for (std::size_t k = 0; k < all.size(); ++k)
            bar(v, *all[k], {at.x + wide * static_cast<double>(k % columns), at.y + high * static_cast<double>(k / columns)},
                wide - f_.px(columns > 1 ? 30 : 0), columns > 1);
        return at.y + high * static_cast<double>((all.size() + columns - 1) / columns) + f_.px(12);
    }
    void bar(const PartView& v, const BarPiece& b, P at, double width, bool small) {
        const Vec3 along = unit(minus(b.to, b.from));
        const auto flat = [&](const Vec3& q) { return std::pair{dot(minus(q, b.from), along), dot(minus(q, b.from), b.up)}; };
        Reach reach;
        const Path rings[2] = {ringOf(b, 0), ringOf(b, 1)};
        for (const Path& ring : rings)
            for (const Vec3& q : ring) reach.take(flat(q).first, flat(q).second);
        const Projection to =
            fit(reach.least[0], reach.most[0], reach.least[1], reach.most[1], {at.x + f_.px(10), at.y + f_.px(small ? 18 : 50)},
                width - f_.px(20), f_.px(small ? 22 : 90), true);
        const Pen pen{Ink::NewSteel, f_.medium(), Dash::Solid};
        for (const Path& ring : rings) {
            Stroke s{{}, true, {Ink::NewSteel, f_.thin(), Dash::Solid}};
            for (const Vec3& q : ring) s.path.push_back(to(flat(q).first, flat(q).second));
            d_.add(std::move(s), v.tag);
        }
        for (const bool top : {true, false}) {
            const auto extreme = [&](const Path& ring) {
                return *std::max_element(ring.begin(), ring.end(), [&](const Vec3& p, const Vec3& q) {
                    return top ? flat(p).second < flat(q).second : flat(p).second > flat(q).second;
                });
            };
            const auto [a0, b0] = flat(extreme(rings[0]));
            const auto [a1, b1] = flat(extreme(rings[1]));
            d_.add(Stroke{{to(a0, b0), to(a1, b1)}, false, pen}, v.tag);
        }
        d_.add(Dimension{to(reach.least[0], reach.least[1]), to(reach.most[0], reach.least[1]), -f_.px(small ? 16 : 26),
                         units::formatLength(b.length_mm.value, v.step), small ? f_.small() : f_.body(), Ink::Ink, Mark::Derived},
               v.tag);
        d_.add(Text{{at.x, at.y + f_.px(12)},
                    small ? b.name : fmt::format("{}, from the side: its upper edge above", b.name),
                    f_.small(),
                    Ink::Second},
               v.tag);
    }

public:
    double figures(const PartView& v, P at, double width) {
        const PartPlan& p = *v.plan;
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p.verdict), v.tag);
        FigureColumn column(d_, f_, at, width, v.tag);
        column.head(verdictWord(p.verdict));
        const auto len = [&](double mm) { return units::formatLength(mm, v.step, true); };
        if (p.made())
            column.row(p.size_of,
                       fmt::format("{} ± {}", units::formatLength(p.size_mm.value, v.step),
                                   units::formatSmall(p.size_mm.u95, v.step, true)),
                       markOf(p.size_mm.provenance));
        const bool many = p.bars.size() > 1;
        for (const BarPiece& b : p.bars) {
            const std::string of = b.at_hand ? "of the original" : stockWords(b);
            column.row(many ? fmt::format("{}: {}", b.name, of) : of, len(b.length_mm.value));
            for (std::size_t end = 0; v.ends && end < 2; ++end)
                column.row(end == 0 ? "  first end" : "  other end", endWords(b.ends[end]));
            for (std::size_t k = 0; k < b.bends.size(); ++k)
                column.row(fmt::format("  bend {} from {}", k + 1, units::formatLength(b.bends[k].from_mm, v.step)),
                           fmt::format("{}{}", units::formatAngle(b.bends[k].angle_rad, 1),
                                       k ? fmt::format(", turned {:.0f}°", b.bends[k].turned_rad * 180 / std::numbers::pi) : ""));
        }
        for (const FlatPiece& piece : p.flats)
            column.row(piece.count > 1 ? fmt::format("{} × {}", piece.count, piece.name) : piece.name,
                       fmt::format("sheet {}{}", trimmed(piece.thickness_mm),
                                   piece.bends.empty() ? "" : fmt::format(", {}", units::counted(piece.bends.size(), "a bend"))));
        for (const PartFact& fact : p.facts) {
            std::string words = fact.words;
            if (fact.length_mm) {
                words = units::formatLength(fact.length_mm->value, v.step, fact.length_mm->u95 <= 0);
                if (fact.length_mm->u95 > 0) words += " ± " + units::formatSmall(fact.length_mm->u95, v.step, true);
            }
            column.row(fact.what, words);
        }
        double seams = 0;
        for (const Seam& s : p.seams) seams += s.length_mm;
        if (seams > 0) column.row("weld", len(seams));
        if (p.mass_kg > 0) column.row("weighs", units::formatMass(p.mass_kg));
        if (p.used) column.row("of what it bears, its load takes", fmt::format("{:.0f} %", 100 * *p.used));
        return column.end();
    }
    static std::string endWords(const BarEnd& e) {
        if (e.kind == BarEnd::Kind::Square) return "square";
        const std::string about = fmt::format("{:.0f}° about", e.turned_rad * 180 / std::numbers::pi);
        if (e.kind == BarEnd::Kind::Cope)
            return fmt::format("coped on {}, {}", trimmed(e.cope->main_mm), units::formatAngle(e.cope->angle_rad, 1));
        return fmt::format("{} off square, {}", units::formatAngle(e.saw_rad, 1), about);
    }

private:
    Drawing& d_;
    const Format& f_;
    double y_ = 0;
};

} // namespace

Drawing partsSheet(const std::vector<PartView>& all, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, PartsDraft(d, f).draw(all));
    return d;
}

Drawing partWords(const PartView& v, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    PartsDraft draft(d, f);
    d.height = std::max(height, draft.sentences(v, draft.figures(v, {0, f.body()}, width) + f.px(14)));
    return d;
}

std::string stockWords(const BarPiece& b) {
    return b.round ? fmt::format("tube {} × {}", trimmed(b.height_mm), trimmed(b.wall_mm))
                   : fmt::format("box {} × {} × {}", trimmed(b.height_mm), trimmed(b.width_mm), trimmed(b.wall_mm));
}

std::string endsWords(const BarPiece& b) {
    const std::string one = PartsDraft::endWords(b.ends[0]), other = PartsDraft::endWords(b.ends[1]);
    return one == other ? "both " + one : one + "; " + other;
}

double wrapDepth(const BarPiece& b, std::size_t end, double angle) {
    const BarEnd& e = b.ends[end];
    if (!e.cope) return 0;
    // about the tube the angle runs one way, about the end's own axis the other where that looks back
    const double sense = end == 0 ? 1 : -1;
    constexpr int steps = 720;
    double least = 1e18;
    for (int k = 0; k < steps; ++k) least = std::min(least, copeAt(*e.cope, 2 * std::numbers::pi * k / steps));
    return copeAt(*e.cope, sense * (angle - e.turned_rad)) - least;
}

Drawing wrapDrawing(const BarPiece& b, std::size_t end) {
    const double round = std::numbers::pi * b.height_mm;
    constexpr int steps = 180;
    constexpr double margin = 12, mark = 4;
    double deepest = 0;
    std::vector<P> cut;
    for (int k = 0; k <= steps; ++k) {
        // seen from outside, its edge towards the tube's end: at the first end the angle runs to the left
        const double angle = (end == 0 ? -1 : 1) * 2 * std::numbers::pi * k / steps, depth = wrapDepth(b, end, angle);
        cut.push_back({round * k / steps, depth});
        deepest = std::max(deepest, depth);
    }
    const double foot = deepest + margin;
    Drawing d{round, foot, {}, {}};
    const Pen line{Ink::NewSteel, 0.25, Dash::Solid}, thin{Ink::Second, 0.15, Dash::Solid};
    Stroke edge{cut, false, line};
    edge.path.push_back({round, foot});
    edge.path.push_back({0, foot});
    edge.closed = true;
    d.add(std::move(edge), "cut:wrap");
    for (int k = 0; k <= 4; ++k) { // lines along the tube, a quarter apart
        const double x = round * k / 4;
        d.add(Stroke{{{x, foot}, {x, foot - mark}}, false, thin}, "mark");
    }
    d.add(Text{{2, foot - 1.2}, b.bends.empty() ? "up" : "inside of the bend", 3, Ink::Second, Anchor::Left}, "mark");
    d.add(Text{{round / 4, foot - mark - 0.8}, end == 0 ? "left" : "right", 3, Ink::Second, Anchor::Centre}, "mark");
    d.add(Text{{round / 2, foot - mark - 0.8}, b.bends.empty() ? "down" : "outside", 3, Ink::Second, Anchor::Centre}, "mark");
    d.add(Text{{3 * round / 4, foot - mark - 0.8}, end == 0 ? "right" : "left", 3, Ink::Second, Anchor::Centre}, "mark");
    return d;
}

std::vector<shape::ScribedLine> partLines(const std::vector<shape::NamedSolid>& solids, const shape::ViewAxes& axes, int fine) {
    std::vector<shape::Mesh> meshes;
    constexpr double chord_mm = 0.2;
    for (const shape::NamedSolid& s : solids) meshes.push_back(shape::mesh(s.solid, chord_mm));
    std::vector<shape::LinePart> parts;
    for (const shape::Mesh& m : meshes) parts.push_back({&m, {}, false});
    shape::LineOptions options;
    options.across_px = fine;
    options.shortest_px = 3;
    return shape::scribedLines(parts, axes, options);
}

std::pair<double, double> linesSize(const std::vector<shape::ScribedLine>& lines) {
    Reach r;
    for (const shape::ScribedLine& l : lines)
        for (const auto& q : l.path) r.take(q[0], q[1]);
    return r.empty() ? std::pair{0.0, 0.0} : std::pair{r.most[0] - r.least[0], r.most[1] - r.least[1]};
}

Drawing linesDrawing(const std::vector<shape::ScribedLine>& lines, double width, double height, double mm_a_unit,
                     const Format& f) {
    Drawing d{width, height, {}, {}};
    Reach r;
    for (const shape::ScribedLine& l : lines)
        for (const auto& q : l.path) r.take(q[0], q[1]);
    if (r.empty()) return d;
    for (const shape::ScribedLine& l : lines) {
        Stroke s{{}, false, {Ink::NewSteel, f.medium(), Dash::Solid}};
        for (const auto& q : l.path)
            s.path.push_back({width / 2 + (q[0] - (r.least[0] + r.most[0]) / 2) / mm_a_unit,
                              height / 2 - (q[1] - (r.least[1] + r.most[1]) / 2) / mm_a_unit});
        d.add(std::move(s));
    }
    return d;
}

} // namespace gorvet::make
