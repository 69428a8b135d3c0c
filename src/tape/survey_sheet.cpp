#include "tape/survey_sheet.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>

#include <fmt/format.h>

namespace gorvet::tape {

using namespace sheet;

namespace {

/// The largest of 1, 2, 5, 10, 20, 50 by which `size` may be enlarged and stay within `room`.
double enlargement(double size, double room, double most) {
    double best = 1;
    for (const double factor : {2.0, 5.0, 8.0, 10.0, 20.0, 50.0})
        if (factor <= most && size * factor <= room) best = factor;
    return best;
}

/// The list at the right, in pixels at 100 %.
constexpr double line_px = 25;
constexpr double not_proven_px = 11;
constexpr double heading_px = 6;
/// The plan is drawn no lower than this.
constexpr double plan_least_px = 230;

class Drafter {
public:
    Drafter(const SurveyView& view, double width, double height, const Format& f) : v_(view), f_(f) {
        d_.width = width;
        d_.height = height;
        plan_height_ = std::min(height, std::max(view.plan_height.value_or(height), f.px(plan_least_px)));
        for (size_t i = 0; i < view.solution->points.size(); ++i) {
            const auto& p = view.solution->points[i];
            shown_.push_back(p.position);
            if (!p.placed) continue;
            x_.first = std::min(x_.first, p.position.x_mm);
            x_.second = std::max(x_.second, p.position.x_mm);
            y_.first = std::min(y_.first, p.position.y_mm);
            y_.second = std::max(y_.second, p.position.y_mm);
            z_.first = std::min(z_.first, p.position.z_mm);
            z_.second = std::max(z_.second, p.position.z_mm);
            any_ = true;
        }
    }

    Drawing draw() {
        if (!any_) return d_;
        const double column = v_.figures && (!v_.condition->figures.empty() || !v_.lines.empty()) ? f_.px(290) : 0;
        const double w = d_.width - column;
        const double label = f_.body() * 1.4;
        // a low sheet (large text) has room for the plan alone
        const bool side_view = plan_height_ >= f_.px(290);
        const double side_height = side_view ? std::clamp(plan_height_ * 0.26, f_.px(70), f_.px(150)) : 0;
        const double below = side_view ? side_height + 2 * label + f_.px(40) : label + f_.px(24);
        fromAbove({f_.px(44), label + f_.px(18)}, std::max(f_.px(80), w - f_.px(84)),
                  std::max(f_.px(60), plan_height_ - below - f_.px(18)));
        if (side_view) fromTheLeft({f_.px(30), plan_height_ - side_height + label * 0.4}, side_height - label - f_.px(4));
        if (column > 0) figures({w + f_.px(8), label});
        return std::move(d_);
    }

private:
    std::string tagOf(const std::vector<std::string>& tags, size_t i) const { return i < tags.size() ? tags[i] : std::string(); }
    bool isSelected(const std::string& tag) const { return !tag.empty() && tag == v_.selected; }
    void caption(P at, const std::string& text) { d_.add(Text{at, text, f_.body(), Ink::Second}); }

    /// Pair faults (one rail ahead, middle off the line) enlarged about each pair's mean.
    double enlargeFaults(double scale) {
        double worst = 0;
        struct Fault {
            int point;
            double dx;
            double dy;
        };
        std::vector<Fault> faults;
        for (const auto& pair : v_.frame->pairs) {
            if (!v_.solution->points[pair.left].placed || !v_.solution->points[pair.right].placed) continue;
            const Vec3& l = v_.solution->points[pair.left].position;
            const Vec3& r = v_.solution->points[pair.right].position;
            const double dx = (l.x_mm - r.x_mm) / 2;
            const double dy = (l.y_mm + r.y_mm) / 2;
            faults.push_back({pair.left, dx, dy});
            faults.push_back({pair.right, -dx, dy});
            worst = std::max({worst, std::abs(dx), std::abs(dy)});
        }
        const double factor = worst > 0.2 ? enlargement(worst * scale, f_.px(12), 10) : 1;
        for (const Fault& fault : faults) {
            shown_[fault.point].x_mm += (factor - 1) * fault.dx;
            shown_[fault.point].y_mm += (factor - 1) * fault.dy;
        }
        return factor;
    }

    /// Twist and sag enlarged, for the view from the left: each pair's lean against the mean lean, and how far its middle stands
    /// under the chord. `scale`: how much the view enlarges heights already, px a mm.
    double enlargeHeights(double scale) {
        const auto& sections = v_.condition->sections;
        if (sections.size() < 2) return 1;
        double mean = 0;
        double worst = 0;
        for (const Section& s : sections) mean += s.lean.size_mm.value / static_cast<double>(sections.size());
        for (const Section& s : sections)
            worst = std::max({worst, std::abs(s.lean.size_mm.value - mean) / 2, s.low ? std::abs(s.low->size_mm.value) : 0.0});
        const double factor = worst > 0.2 ? enlargement(worst * scale, f_.px(22), 20) : 1;
        for (const Section& s : sections) {
            const double lean = (factor - 1) * (s.lean.size_mm.value - mean) / 2;
            const double low = s.low ? (factor - 1) * s.low->size_mm.value : 0.0;
            shown_[s.pair.left].z_mm += -lean - low;
            shown_[s.pair.right].z_mm += lean - low;
        }
        return factor;
    }

    void fromAbove(P at, double width, double height) {
        const Projection to = fit(x_.first, x_.second, y_.first, y_.second, at, width, height, true);
        plan_ = to;
        const double factor = enlargeFaults(to.scale);
        caption({0, f_.body()}, factor > 1 ? fmt::format("from above, faults × {:g}", factor) : "from above");
        d_.add(Stroke{{to(x_.first, 0), to(x_.second, 0)}, false, {Ink::Second, f_.thin(), Dash::DashDot}});
        d_.add(Text{{to(x_.second, 0).x + f_.px(6), to(0, 0).y - f_.px(3)}, "rear", f_.small(), Ink::Second});
        d_.add(Text{{to(x_.first, 0).x - f_.px(6), to(0, 0).y - f_.px(3)}, "front", f_.small(), Ink::Second, Anchor::Right});
        const auto where = [&](int p) { return to(shown_[p].x_mm, shown_[p].y_mm); };
        blocked();
        readings(where);
        rails(where);
        if (v_.next)
            d_.add(Stroke{{where(v_.next->first), where(v_.next->second)}, false, {Ink::Ink, f_.medium(), Dash::Dashed}}, "next");
        marks(where);
        points(where, true);
        found(where);
    }

    void blocked() {
        for (size_t i = 0; i < v_.blocked.size(); ++i) {
            const auto& [from, to] = v_.blocked[i];
            const P a = plan_(std::max(from.x_mm, x_.first), from.y_mm);
            const P b = plan_(std::min(to.x_mm, x_.second), to.y_mm);
            d_.add(Hatch{{a, {b.x, a.y}, b, {a.x, b.y}}, {Ink::Faint, f_.thin(), Dash::Solid}, f_.px(7), false},
                   tagOf(v_.blocked_tags, i));
            d_.add(Stroke{{a, {b.x, a.y}, b, {a.x, b.y}}, true, {Ink::Second, f_.thin(), Dash::Dashed}},
                   tagOf(v_.blocked_tags, i));
            d_.add(Text{{b.x - f_.px(4), std::max(a.y, b.y) - f_.px(4)},
                        tagOf(v_.blocked_names, i),
                        f_.small(),
                        Ink::Second,
                        Anchor::Right},
                   tagOf(v_.blocked_tags, i));
        }
    }

    /// A mark and a word on the inner side of the point, out of the way of its name.
    template <class F> void found(const F& where) {
        std::map<int, int> already;
        for (const auto& f : v_.found) {
            if (!usable(f.point)) continue;
            const P at = where(f.point);
            const double inwards = v_.solution->points[f.point].position.y_mm < 0 ? 1 : -1;
            const P mark{at.x + f_.px(12), at.y - inwards * f_.px(16 + 16 * already[f.point]++)};
            addMark(d_, mark, f_.px(13), f.severity, f.tag);
            d_.add(Text{{mark.x + f_.px(10), mark.y + f_.small() * 0.35}, f.word, f_.small(), inkOf(f.severity)}, f.tag);
        }
    }

    template <class F> void readings(const F& where) {
        for (size_t i = 0; i < v_.survey->readings.size(); ++i) {
            const SurveyReading& r = v_.survey->readings[i];
            if (r.to < 0 || !usable(r.from) || !usable(r.to)) continue;
            const auto& a = v_.solution->readings[i];
            const std::string tag = tagOf(v_.reading_tags, i);
            Pen pen{Ink::Faint, f_.thin(), Dash::Solid};
            if (a.verdict == Verdict::Doubtful && a.check == Check::Checked) pen = {Ink::Warn, f_.thin() * 1.4, Dash::Dashed};
            if (a.verdict == Verdict::Retape) pen = {Ink::Bad, f_.medium(), Dash::Solid};
            if (isSelected(tag)) pen.weight = f_.thick();
            if (isSelected(tag) && pen.ink == Ink::Faint) pen.ink = Ink::Ink;
            d_.add(Stroke{{where(r.from), where(r.to)}, false, pen}, tag);
        }
    }

    /// Crosses on readings to be taped again go on top of everything else.
    template <class F> void marks(const F& where) {
        for (size_t i = 0; i < v_.survey->readings.size(); ++i) {
            const SurveyReading& r = v_.survey->readings[i];
            if (v_.solution->readings[i].verdict != Verdict::Retape || !usable(r.from)) continue;
            const P a = where(r.from);
            const P b = r.to >= 0 && usable(r.to) ? where(r.to) : a;
            addMark(d_, {a.x * 0.58 + b.x * 0.42, a.y * 0.58 + b.y * 0.42}, f_.px(16), Severity::Bad, tagOf(v_.reading_tags, i));
        }
    }

    template <class F> void rails(const F& where) {
        std::vector<FramePoints::Pair> pairs;
        for (const auto& pair : v_.frame->pairs)
            if (usable(pair.left) && usable(pair.right)) pairs.push_back(pair);
        std::sort(pairs.begin(), pairs.end(),
                  [this](const auto& a, const auto& b) { return shown_[a.left].x_mm < shown_[b.left].x_mm; });
        if (v_.ink == Ink::Body) { // a body has no rails: its pairs are joined across only
            for (const auto& pair : pairs)
                d_.add(Stroke{{where(pair.left), where(pair.right)}, false, {v_.ink, f_.thin(), Dash::Solid}});
            return;
        }
        for (const bool left : {true, false}) {
            Stroke rail;
            rail.pen = {v_.ink, f_.thick(), Dash::Solid};
            for (const auto& pair : pairs) rail.path.push_back(where(left ? pair.left : pair.right));
            if (rail.path.size() > 1) d_.add(std::move(rail));
        }
        for (const auto& pair : pairs)
            d_.add(Stroke{{where(pair.left), where(pair.right)}, false, {v_.ink, f_.medium(), Dash::Solid}});
    }

    bool usable(int p) const { return p >= 0 && v_.solution->points[p].placed; }

    template <class F> void points(const F& where, bool names) {
        struct Box {
            double left, top, right, bottom;
        };
        std::vector<Box> taken;
        for (size_t i = 0; i < v_.solution->points.size(); ++i) {
            const auto& p = v_.solution->points[i];
            if (!p.placed) continue;
            const P at = where(static_cast<int>(i));
            const std::string tag = tagOf(v_.point_tags, i);
            const double radius = isSelected(tag) ? f_.px(7) : f_.px(4.5);
            // a point that is not fixed yet is drawn hollow and dotted
            d_.add(Circle{at,
                          radius,
                          {p.determined ? Ink::Ink : Ink::Warn, f_.thin() * 1.6, p.determined ? Dash::Solid : Dash::Dotted},
                          false,
                          true},
                   tag);
            taken.push_back({at.x - radius, at.y - radius, at.x + radius, at.y + radius});
        }
        if (!names) return;
        for (size_t i = 0; i < v_.solution->points.size(); ++i) {
            const auto& p = v_.solution->points[i];
            if (!p.placed) continue;
            const P at = where(static_cast<int>(i));
            const std::string name = v_.survey->points[i].name + (p.assumed ? " ?" : "");
            const double w = textWidth(name, f_.small(), Face::Sans);
            const double h = f_.small() * 0.85;
            const double away = f_.px(7);
            const bool up = p.position.y_mm >= 0;
            // outwards first, then beside, then inwards, then further out: the first place that covers nothing
            const double out = up ? -1 : 1;
            const std::array<P, 7> places = {{{at.x, at.y + out * (away + h / 2)},
                                              {at.x + away + w / 2, at.y},
                                              {at.x - away - w / 2, at.y},
                                              {at.x, at.y - out * (away + h / 2)},
                                              {at.x + away + w / 2, at.y + out * (away + h / 2)},
                                              {at.x - away - w / 2, at.y + out * (away + h / 2)},
                                              {at.x, at.y + out * (2 * away + 1.5 * h)}}};
            const auto box = [&](const P& c) { return Box{c.x - w / 2, c.y - h / 2, c.x + w / 2, c.y + h / 2}; };
            const auto covers = [&](const Box& b) {
                return std::any_of(taken.begin(), taken.end(), [&](const Box& t) {
                    return b.left < t.right && b.right > t.left && b.top < t.bottom && b.bottom > t.top;
                });
            };
            P chosen = places[0];
            for (const P& place : places)
                if (!covers(box(place))) {
                    chosen = place;
                    break;
                }
            taken.push_back(box(chosen));
            d_.add(Text{{chosen.x, chosen.y + h * 0.42}, name, f_.small(), p.determined ? Ink::Ink : Ink::Warn, Anchor::Centre},
                   tagOf(v_.point_tags, i));
        }
    }

    void fromTheLeft(P at, double height) {
        const Projection& to = plan_; // stations stand under those of the plan
        const double span = std::max(z_.second - z_.first, 1.0);
        const double factor = enlargement(span * to.scale, height * 0.95, 20);
        const double middle = (z_.first + z_.second) / 2;
        const double scale = std::min(factor * to.scale, height / span);
        const double faults = enlargeHeights(scale);
        std::string words = factor > 1 ? fmt::format("from the left, heights × {:g}", factor) : "from the left";
        if (faults > 1) words += fmt::format(", twist and sag × {:g} more", faults);
        if (v_.frame && v_.frame->rails) words += ": left rail full, right rail dashed";
        caption({0, at.y - f_.px(2)}, words);
        const auto where = [&](int p) {
            return P{to(v_.solution->points[p].position.x_mm, 0).x, at.y + height / 2 - scale * (shown_[p].z_mm - middle)};
        };
        for (const bool left : {false, true}) {
            std::vector<int> line;
            for (const auto& pair : v_.frame->pairs)
                if (usable(pair.left) && usable(pair.right)) line.push_back(left ? pair.left : pair.right);
            std::sort(line.begin(), line.end(), [this](int a, int b) {
                return v_.solution->points[a].position.x_mm < v_.solution->points[b].position.x_mm;
            });
            Stroke rail;
            rail.pen = {v_.ink, left ? f_.thick() : f_.medium(), left ? Dash::Solid : Dash::Dashed};
            for (const int p : line) rail.path.push_back(where(p));
            if (rail.path.size() > 1 && v_.ink != Ink::Body) d_.add(std::move(rail));
        }
        points(where, false);
    }

    void figures(P at) {
        const double line = f_.px(line_px);
        const double right = d_.width - f_.px(2);
        double y = at.y + f_.px(14);
        for (const ConditionFigure& figure : v_.condition->figures) {
            if (y > d_.height - f_.px(4)) break;
            const std::string tag = std::string("figure:") + figure.key;
            if (figure.judged) addMark(d_, {at.x + f_.px(8), y - f_.px(5)}, f_.px(14), severityOf(figure.verdict), tag);
            d_.add(Text{{at.x + f_.px(26), y}, figure.name, f_.body(), Ink::Ink}, tag);
            const double shown = figure.judged ? std::abs(figure.size_mm.value) : figure.size_mm.value;
            std::string value =
                fmt::format("{} ± {}", units::formatSmall(shown, v_.step), units::formatSmall(figure.size_mm.u95, v_.step));
            if (isAngle(figure.kind))
                value = fmt::format("{} ± {}", units::formatAngle(std::abs(figure.angle_rad.value)),
                                    units::formatAngle(figure.angle_rad.u95));
            d_.add(Text{{right, y},
                        value,
                        f_.body(),
                        figure.judged ? inkOf(severityOf(figure.verdict)) : Ink::Ink,
                        Anchor::Right,
                        Level::Base,
                        Face::Sans,
                        Mark::Derived},
                   tag);
            y += line;
            if (figure.judged && !proven(figure.size_mm)) {
                d_.add(Text{{at.x + f_.px(26), y - f_.px(10)}, "not proven", f_.small(), Ink::Second}, tag);
                y += f_.px(not_proven_px);
            }
        }
        lines({at.x, y}, right);
    }

    void lines(P at, double right) {
        double y = at.y;
        for (const SideLine& line : v_.lines) {
            if (line.heading) y += f_.px(heading_px);
            if (y > d_.height - f_.px(2)) break;
            if (line.severity) addMark(d_, {at.x + f_.px(8), y - f_.px(5)}, f_.px(14), *line.severity, line.tag);
            d_.add(Text{{at.x + (line.heading ? 0 : f_.px(26)), y}, line.name, f_.body(), line.heading ? Ink::Second : Ink::Ink},
                   line.tag);
            d_.add(Text{{right, y},
                        line.value,
                        f_.body(),
                        line.severity ? inkOf(*line.severity) : Ink::Ink,
                        Anchor::Right,
                        Level::Base,
                        Face::Sans,
                        line.heading ? Mark::None : Mark::Derived},
                   line.tag);
            y += f_.px(line_px);
        }
    }

    const SurveyView& v_;
    Format f_;
    Drawing d_;
    double plan_height_ = 0;
    std::vector<Vec3> shown_;
    Projection plan_;
    std::pair<double, double> x_{1e12, -1e12};
    std::pair<double, double> y_{1e12, -1e12};
    std::pair<double, double> z_{1e12, -1e12};
    bool any_ = false;
};

} // namespace

double surveySheetHeight(const SurveyView& v, const Format& f) {
    double need = plan_least_px;
    if (v.figures) {
        double column = 40;
        for (const ConditionFigure& figure : v.condition->figures)
            column += line_px + (figure.judged && !proven(figure.size_mm) ? not_proven_px : 0);
        for (const SideLine& line : v.lines) column += line_px + (line.heading ? heading_px : 0);
        need = std::max(need, column);
    }
    return f.px(need);
}

Drawing surveySheet(const SurveyView& view, double width, double height, const Format& f) {
    return Drafter(view, width, height, f).draw();
}

} // namespace gorvet::tape
