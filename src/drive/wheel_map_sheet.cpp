#include "drive/wheels_sheet.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include <fmt/format.h>

namespace gorvet::drive {

using namespace sheet;

std::optional<TriedOffset> triedOffset(const WheelsIn& in, const WheelsPlan& p, double offset) {
    const WheelFigures* w = p.wanted && p.wanted->section_mm && p.wanted->outside_mm ? &*p.wanted
                            : p.fitted                                               ? &*p.fitted
                                                                                     : nullptr;
    if (!w || !w->section_mm || !w->outside_mm) return std::nullopt;
    const double plate = in.adaptor && in.wanted ? in.adaptor->thick.value : 0;
    const TyreShape tyre = tyreShape(plate - offset, w->section_mm->value, w->outside_mm->value, w->diameter_mm.value);
    const auto& list = p.planned.empty() ? p.now : p.planned;
    std::optional<TriedOffset> worst;
    std::size_t at = 0;
    for (const auto& side : p.seen)
        for (const SeenThing& s : side) {
            if (s.places.empty() || at >= list.size()) continue;
            const double mm = nearestOf(s, tyre).mm, spare = mm - list[at++].clear_mm.u95 - s.thing.least_mm;
            if (!worst || spare < worst->spare_mm) worst = TriedOffset{mm, spare, s.thing.name};
        }
    return worst;
}

namespace {

class MapDraft {
public:
    MapDraft(Drawing& d, const WheelsView& v, double top, double room, const Format& f)
        : d_(d), v_(v), in_(*v.input), p_(*v.plan), m_(*v.plan->map), f_(f), y_(top), tag_("wheels:" + p_.name) {
        left_ = f.px(64);
        top_ = y_ + f.lead() + f.px(30);
        wide_ = d.width - left_ - f.px(330);
        tall_ = std::max(f.px(200), room - f.px(120));
    }

    double draw() {
        d_.add(Text{{0, y_ + f_.lead()},
                    fmt::format("{} wheels: what fits, with a tyre of {:.0f} mm", p_.name, m_.outside_mm),
                    f_.lead(),
                    Ink::Ink,
                    Anchor::Left,
                    Level::Base,
                    Face::Bold},
               tag_);
        regions();
        axes();
        borders();
        marks();
        SheetWords words(d_, f_, top_ + tall_ + f_.px(52), d_.width - f_.px(20), tag_);
        words.lines(
            "Empty: clear, by half as much again as is asked. Lines: it passes, by what is asked. Dense lines: it runs into something, or nearly so. "
            "Between the dotted lines the rim usually takes the tyre; its maker's table decides.");
        if (!v_.scans.empty()) words.lines(v_.scans);
        return words.end() + f_.px(10);
    }

private:
    double x(double offset) const {
        return left_ + (offset - m_.least_offset_mm) / (m_.most_offset_mm - m_.least_offset_mm) * wide_;
    }
    double y(double section) const {
        return top_ + tall_ - (section - m_.least_section_mm) / (m_.most_section_mm - m_.least_section_mm) * tall_;
    }
    P at(double offset, double section) const { return {x(offset), y(section)}; }

    /// Row by row what is not clear, and what does not pass.
    void regions() {
        const double half = m_.columns.size() > 1 ? (m_.columns[1].section_mm - m_.columns[0].section_mm) / 2 : 1;
        // neighbours whose gaps begin and end alike are one piece: bands between free spans, followed from row to row
        const auto shut = [&](const std::vector<MapSpan>& open) {
            std::vector<std::pair<double, double>> gaps;
            double from = m_.least_offset_mm;
            auto sorted = open;
            std::sort(sorted.begin(), sorted.end(),
                      [](const MapSpan& a, const MapSpan& b) { return a.low.offset_mm < b.low.offset_mm; });
            for (const MapSpan& s : sorted) {
                if (s.low.offset_mm > from + 1e-6) gaps.emplace_back(from, s.low.offset_mm);
                from = s.high.offset_mm;
            }
            if (from < m_.most_offset_mm - 0.2) gaps.emplace_back(from, m_.most_offset_mm);
            return gaps;
        };
        for (const bool clear : {true, false}) {
            std::vector<std::vector<std::pair<double, double>>> rows;
            for (const MapColumn& c : m_.columns) rows.push_back(shut(clear ? c.clear : c.free));
            std::vector<std::vector<bool>> used;
            for (const auto& row : rows) used.emplace_back(row.size(), false);
            for (std::size_t k = 0; k < rows.size(); ++k)
                for (std::size_t g = 0; g < rows[k].size(); ++g) {
                    if (used[k][g]) continue;
                    std::vector<P> lower, upper;
                    std::size_t row = k, gap = g;
                    for (;;) {
                        used[row][gap] = true;
                        const double low = std::max(m_.least_section_mm, m_.columns[row].section_mm - half),
                                     high = std::min(m_.most_section_mm, m_.columns[row].section_mm + half);
                        const auto [a, b] = rows[row][gap];
                        lower.push_back(at(a, row == k ? low : m_.columns[row].section_mm));
                        upper.push_back(at(b, row == k ? low : m_.columns[row].section_mm));
                        bool on = false;
                        if (row + 1 < rows.size() && rows[row + 1].size() == rows[row].size() && !used[row + 1][gap]) {
                            const auto [na, nb] = rows[row + 1][gap];
                            on = std::abs(na - a) < 15 && std::abs(nb - b) < 15;
                        }
                        if (!on) {
                            lower.push_back(at(a, high));
                            upper.push_back(at(b, high));
                            break;
                        }
                        ++row;
                    }
                    lower.insert(lower.end(), upper.rbegin(), upper.rend());
                    d_.add(Hatch{lower, {clear ? Ink::Second : Ink::Ink, f_.thin(), Dash::Solid}, f_.px(clear ? 12 : 5), false},
                           tag_);
                }
        }
    }

    void axes() {
        const Pen frame{Ink::Second, f_.thin(), Dash::Solid};
        d_.add(Stroke{{{left_, top_}, {left_ + wide_, top_}, {left_ + wide_, top_ + tall_}, {left_, top_ + tall_}}, true, frame});
        for (double o = std::ceil(m_.least_offset_mm / 20) * 20; o <= m_.most_offset_mm; o += 20) {
            d_.add(Stroke{{{x(o), top_ + tall_}, {x(o), top_ + tall_ + f_.px(5)}}, false, frame});
            d_.add(Text{
                {x(o), top_ + tall_ + f_.px(5) + f_.small()}, fmt::format("{:.0f}", o), f_.small(), Ink::Second, Anchor::Centre});
        }
        for (double s = std::ceil(m_.least_section_mm / 20) * 20; s <= m_.most_section_mm; s += 20) {
            d_.add(Stroke{{{left_ - f_.px(5), y(s)}, {left_, y(s)}}, false, frame});
            d_.add(Text{
                {left_ - f_.px(9), y(s) + f_.small() * 0.35}, fmt::format("{:.0f}", s), f_.small(), Ink::Second, Anchor::Right});
        }
        d_.add(Text{{left_, top_ - f_.px(8)}, "width of the tyre, mm", f_.small(), Ink::Second});
        d_.add(Text{{left_ + wide_, top_ + tall_ + f_.px(9) + 2 * f_.small()},
                    "offset of the wheel, mm: further in to the right",
                    f_.small(),
                    Ink::Second,
                    Anchor::Right});
        for (const double s : {m_.least_on_rim_mm, m_.most_on_rim_mm})
            if (s > m_.least_section_mm && s < m_.most_section_mm)
                d_.add(Stroke{{{left_, y(s)}, {left_ + wide_, y(s)}}, false, {Ink::Ink, f_.thin(), Dash::Dotted}}, tag_);
    }

    /// Every thing that ends what passes, once, where it does so: on a list beside the map, with a number on its border.
    void borders() {
        struct Along {
            std::string pose;
            std::vector<P> at;
            bool low = false;
        };
        std::map<std::pair<std::string, bool>, Along> all;
        for (const MapColumn& c : m_.columns)
            for (const MapSpan& s : c.free)
                for (const bool low : {true, false}) {
                    const MapEnd& e = low ? s.low : s.high;
                    if (e.name.empty()) continue;
                    Along& along = all[{e.name, low}];
                    along.at.push_back(at(e.offset_mm, c.section_mm));
                    along.low = low;
                    if (along.at.size() == 1 || std::abs(c.section_mm - here()) < 5) along.pose = e.pose;
                }
        double words_y = top_ + f_.small();
        const double words_x = left_ + wide_ + f_.px(24), words_wide = d_.width - words_x;
        d_.add(Text{{words_x, words_y}, "What ends it", f_.small(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        words_y += f_.px(6);
        int number = 0;
        for (const auto& [key, along] : all) {
            ++number;
            Stroke border{{}, false, {Ink::Ink, f_.medium(), Dash::Solid}};
            for (const P& p : along.at) {
                if (!border.path.empty() && std::abs(p.x - border.path.back().x) > f_.px(30)) {
                    d_.add(border, tag_);
                    border.path.clear();
                }
                border.path.push_back(p);
            }
            d_.add(std::move(border), tag_);
            const P mark = along.at[along.at.size() / 4];
            d_.add(Circle{mark, f_.px(9), {Ink::Ink, f_.thin(), Dash::Solid}, false, true}, tag_);
            d_.add(Text{mark, fmt::format("{}", number), f_.small(), Ink::Ink, Anchor::Centre, Level::Middle}, tag_);
            const std::string text = fmt::format("{}  {}{}", number, key.first, along.pose.empty() ? "" : ", " + along.pose);
            for (const std::string& line : wrapped(text, words_wide, f_.small())) {
                words_y += f_.small() * 1.35;
                d_.add(Text{{words_x, words_y}, line, f_.small(), Ink::Ink}, tag_);
            }
            words_y += f_.px(4);
        }
        if (all.empty()) d_.add(Text{{words_x, words_y + f_.small() * 1.35}, "nothing that is known", f_.small(), Ink::Second});
    }
    double here() const {
        const WheelFigures* w = p_.wanted && p_.wanted->section_mm ? &*p_.wanted : p_.fitted ? &*p_.fitted : nullptr;
        return w && w->section_mm ? w->section_mm->value : 0;
    }

    void marks() {
        const auto put = [&](const WheelFigures& w, const char* name, bool wanted, bool moved) {
            if (!w.offset_mm || !w.section_mm) return;
            const double offset = moved ? *v_.offset_mm : w.offset_mm->value;
            const P p = at(std::clamp(offset, m_.least_offset_mm, m_.most_offset_mm),
                           std::clamp(w.section_mm->value, m_.least_section_mm, m_.most_section_mm));
            const Pen pen{wanted ? Ink::NewSteel : Ink::Ink, f_.medium(), Dash::Solid};
            if (wanted)
                d_.add(Circle{p, f_.px(8), pen, true, false}, tag_);
            else
                d_.add(Stroke{{{p.x - f_.px(7), p.y - f_.px(7)},
                               {p.x + f_.px(7), p.y - f_.px(7)},
                               {p.x + f_.px(7), p.y + f_.px(7)},
                               {p.x - f_.px(7), p.y + f_.px(7)}},
                              true,
                              pen},
                       tag_);
            std::string text = name;
            if (wanted || (!p_.wanted && !v_.offset_mm))
                if (const auto tried = triedOffset(in_, p_, offset))
                    text += fmt::format(", offset {:.0f}: {:.0f} mm to {}", offset, tried->clear_mm, tried->name);
            d_.add(Text{{p.x, p.y - f_.px(14)},
                        text,
                        f_.small(),
                        pen.ink,
                        Anchor::Centre,
                        Level::Base,
                        Face::Bold,
                        Mark::None,
                        0,
                        true},
                   tag_);
            if (v_.handles && (wanted || !p_.wanted) && !(moved && !p_.wanted))
                d_.grips.push_back({"offset " + p_.name, p, offset, (m_.most_offset_mm - m_.least_offset_mm) / wide_,
                                    m_.least_offset_mm, m_.most_offset_mm});
        };
        if (p_.fitted) put(*p_.fitted, "fitted", false, false);
        if (p_.wanted)
            put(*p_.wanted, "wanted", true, v_.offset_mm.has_value());
        else if (p_.fitted && v_.offset_mm) // the first drag begins what is wanted
            put(*p_.fitted, "wanted", true, true);
    }

    Drawing& d_;
    const WheelsView& v_;
    const WheelsIn& in_;
    const WheelsPlan& p_;
    const WheelMap& m_;
    const Format& f_;
    double y_;
    std::string tag_;
    double left_ = 0, top_ = 0, wide_ = 0, tall_ = 0;
};

} // namespace

Drawing wheelMapSheet(const std::vector<WheelsView>& all, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    double y = 0;
    std::size_t maps = 0;
    for (const WheelsView& v : all) maps += v.plan->map.has_value();
    for (const WheelsView& v : all) {
        if (v.plan->map) {
            y = MapDraft(d, v, y, std::max(height / static_cast<double>(std::max<std::size_t>(1, maps)), f.px(380)), f).draw();
            continue;
        }
        SheetWords words(d, f, y + f.lead(), width, "wheels:" + v.plan->name);
        std::string missing;
        for (const std::string& lack : v.plan->missing) missing += (missing.empty() ? "" : "; ") + lack;
        words.lines(fmt::format("{} wheels: no map yet. Missing: {}.", v.plan->name, missing));
        y = words.end() + f.px(8);
    }
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::drive
