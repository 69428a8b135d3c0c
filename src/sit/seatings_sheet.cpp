#include "sit/seatings_sheet.hpp"

#include "sheet/page.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sit {

using namespace sheet;

namespace {

class SeatingsDrafter {
public:
    SeatingsDrafter(const SeatingsView& v, double width, double height, const Format& f) : v_(v), f_(f) {
        d_.width = width;
        d_.height = height;
        const double move_width = f.px(69);
        moves_at_ = width - move_width * static_cast<double>(v.moves.size());
        move_width_ = move_width;
        column_width_ = f.px(84);
        name_width_ = f.px(width < f.px(1000) ? 170 : 226); // with large text the names give way
        scale_at_ = name_width_ + f.px(8);
        figures_at_ = moves_at_ - f.px(16) - column_width_ * static_cast<double>(v.columns.size());
        scale_width_ = std::max(f.px(120), figures_at_ - f.px(16) - scale_at_);
        // too many to stand side by side: the figures give way to the scale's pointers
        shown_ = v.columns.size();
        while (shown_ > 1 && figures_at_ < scale_at_ + f.px(120)) {
            --shown_;
            figures_at_ += column_width_;
        }
        scale_width_ = std::max(f.px(100), figures_at_ - f.px(20) - scale_at_);
    }

    Drawing draw() {
        double y = heads();
        for (const SeatingRow& row : v_.rows) {
            one(row, y);
            y += rowHeight();
        }
        y += f_.px(10);
        for (const std::string& s : sentences())
            for (const std::string& line : wrapped(s, d_.width - f_.px(10), f_.body())) {
                y += f_.body() * 1.35;
                d_.add(Text{{0, y}, line, f_.body(), Ink::Ink});
            }
        for (const std::string& s : v_.cautions)
            for (const std::string& line : wrapped(s, d_.width - f_.px(10), f_.small())) {
                y += f_.small() * 1.4;
                d_.add(Text{{0, y}, line, f_.small(), Ink::Second});
            }
        return std::move(d_);
    }
    /// What is said below; pointers without a column of their own are named first.
    std::vector<std::string> sentences() const {
        std::vector<std::string> list = v_.sentences;
        std::string names;
        for (size_t k = shown_; k < v_.columns.size(); ++k)
            names +=
                fmt::format("{}{} {}{}", names.empty() ? "" : ", ", k + 1, v_.columns[k], v_.below[k] == "leads" ? " leads" : "");
        if (!names.empty()) list.insert(list.begin(), "Pointers: " + names + ".");
        return list;
    }
    double rowHeight() const { return f_.px(34); }
    double headHeight() const { return f_.px(62); }

private:
    double heads() {
        const double y = headHeight() - f_.px(24);
        d_.add(Text{{0, y}, "pin, and what is wanted", f_.small(), Ink::Second});
        for (size_t k = 0; k < v_.columns.size(); ++k) {
            if (k >= shown_) break;
            const double x = figures_at_ + column_width_ * (static_cast<double>(k) + 1) - f_.px(6);
            d_.add(Text{{x, y},
                        fmt::format("{} {}", k + 1, cut(v_.columns[k], column_width_)),
                        f_.small(),
                        Ink::Ink,
                        Anchor::Right,
                        Level::Base,
                        Face::Bold});
            d_.add(Text{
                {x, y + f_.small() * 1.25}, cut(v_.below[k], column_width_ + f_.px(12)), f_.small(), Ink::Second, Anchor::Right});
        }
        for (size_t k = 0; k < v_.moves.size(); ++k) {
            // the way, and how far, one under the other
            const std::string& m = v_.moves[k];
            const auto blank = m.find(' ');
            const double x = moves_at_ + move_width_ * (static_cast<double>(k) + 1) - f_.px(4);
            d_.add(Text{{x, y}, m.substr(0, blank), f_.small(), Ink::Second, Anchor::Right});
            if (blank != std::string::npos)
                d_.add(Text{{x, y + f_.small() * 1.25}, m.substr(blank + 1), f_.small(), Ink::Second, Anchor::Right});
        }
        if (!v_.moves.empty())
            d_.add(Text{{moves_at_ + f_.px(6), f_.small()}, "what a move brings (+) or costs (−)", f_.small(), Ink::Ink});
        if (!v_.columns.empty()) {
            const std::string whole = "where each seating comes to; hatched: it holds";
            const bool room = textWidth(whole, f_.small(), Face::Sans) < moves_at_ - scale_at_ - f_.px(12);
            d_.add(Text{{scale_at_, f_.small()}, room ? whole : "hatched: it holds", f_.small(), Ink::Ink});
        }
        return headHeight();
    }
    /// What fits into the width.
    std::string cut(const std::string& text, double width) const {
        if (textWidth(text, f_.small(), Face::Sans) < width - f_.px(14)) return text;
        std::string s = text;
        while (s.size() > 1 && textWidth(s + "…", f_.small(), Face::Sans) > width - f_.px(14)) {
            do s.pop_back();
            while (!s.empty() && (static_cast<unsigned char>(s.back()) & 0xC0U) == 0x80U);
        }
        return s + "…";
    }

    void one(const SeatingRow& row, double top) {
        const double middle = top + rowHeight() / 2;
        d_.add(Text{{0, middle - f_.px(2)}, cut(row.name, name_width_), f_.small() * 1.05, Ink::Ink}, row.tag);
        d_.add(Text{{0, middle + f_.small()}, cut(row.wanted, name_width_), f_.small(), Ink::Second}, row.tag);
        if (!row.plain) scale(row, middle);
        for (size_t k = 0; k < row.figures.size() && k < shown_; ++k) {
            const SeatingFigure& g = row.figures[k];
            const double x = figures_at_ + column_width_ * (static_cast<double>(k) + 1) - f_.px(6);
            d_.add(Text{{x, middle + f_.px(5)},
                        g.usable ? g.text : "–",
                        f_.small(),
                        !g.usable   ? Ink::Second
                        : row.plain ? Ink::Ink
                                    : inkOf(g.severity),
                        Anchor::Right,
                        Level::Base,
                        Face::Sans,
                        g.usable ? Mark::Derived : Mark::None});
            if (g.usable && !row.plain)
                addMark(d_, {x - textWidth(g.text, f_.small(), Face::Sans) - f_.px(13), middle}, f_.px(9), g.severity);
        }
        for (size_t k = 0; k < row.moves.size(); ++k) {
            if (!row.moves[k]) continue;
            const MoveFigure& m = *row.moves[k];
            const double x = moves_at_ + move_width_ * (static_cast<double>(k) + 1) - f_.px(4);
            d_.add(Text{{x, middle + f_.px(5)},
                        (m.gain > 0 ? "+" : "−") + m.text,
                        f_.small(),
                        m.gain > 0 ? Ink::Good : Ink::Bad,
                        Anchor::Right});
        }
        d_.add(Stroke{{{0, top + rowHeight()}, {d_.width, top + rowHeight()}}, false, {Ink::Panel, f_.thin(), Dash::Solid}});
    }

    void scale(const SeatingRow& row, double middle) {
        double low = row.low, high = row.high;
        for (const SeatingFigure& g : row.figures)
            if (g.usable) {
                low = std::min(low, g.value);
                high = std::max(high, g.value);
            }
        const double room = std::max({(high - low) * 0.18, (row.high - row.low) * 0.6, 1e-4});
        low -= room;
        high += room;
        const auto x = [&](double v) { return scale_at_ + (std::clamp(v, low, high) - low) / (high - low) * scale_width_; };
        const double y = middle + f_.px(7);
        d_.add(Stroke{{{scale_at_, y}, {scale_at_ + scale_width_, y}}, false, {Ink::Second, f_.thin(), Dash::Solid}});
        const double from = row.no_low ? scale_at_ : x(row.low), to = row.no_high ? scale_at_ + scale_width_ : x(row.high);
        const double deep = f_.px(7);
        d_.add(
            Hatch{{{from, y}, {to, y}, {to, y + deep}, {from, y + deep}}, {Ink::Good, f_.thin(), Dash::Solid}, f_.px(4), false});
        for (const auto& [edge, shown] : {std::pair{from, !row.no_low}, {to, !row.no_high}})
            if (shown) d_.add(Stroke{{{edge, y - f_.px(2)}, {edge, y + deep}}, false, {Ink::Good, f_.medium(), Dash::Solid}});
        // the pointers: those at the same place share one
        std::vector<std::pair<double, std::string>> pointers;
        std::vector<Severity> severities;
        for (size_t k = 0; k < row.figures.size(); ++k) {
            if (!row.figures[k].usable) continue;
            const double at = x(row.figures[k].value);
            const std::string number = std::to_string(k + 1);
            const auto near =
                std::find_if(pointers.begin(), pointers.end(), [&](const auto& p) { return std::abs(p.first - at) < f_.px(24); });
            if (near == pointers.end()) {
                pointers.emplace_back(at, number);
                severities.push_back(row.figures[k].severity);
            } else {
                near->second += "," + number;
            }
        }
        for (size_t k = 0; k < pointers.size(); ++k) {
            const double at = pointers[k].first;
            const Ink ink = inkOf(severities[k]);
            d_.add(Fill{{{at, y - f_.px(1)}, {at - f_.px(4), y - f_.px(8)}, {at + f_.px(4), y - f_.px(8)}}, ink});
            d_.add(
                Text{{at, y - f_.px(10)}, pointers[k].second, f_.small() * 0.92, ink, Anchor::Centre, Level::Base, Face::Bold});
        }
    }

    const SeatingsView& v_;
    Format f_;
    Drawing d_;
    double moves_at_ = 0, move_width_ = 0, column_width_ = 0, name_width_ = 0, scale_at_ = 0, scale_width_ = 0, figures_at_ = 0;
    size_t shown_ = 0;
};

} // namespace

double seatingsHeight(const SeatingsView& v, double width, const Format& f) {
    double y = f.px(62) + f.px(34) * static_cast<double>(v.rows.size()) + f.px(10);
    y += f.body() * 1.35; // a line for pointers without a column
    for (const std::string& s : v.sentences)
        y += f.body() * 1.35 * static_cast<double>(wrapped(s, width - f.px(10), f.body()).size());
    for (const std::string& s : v.cautions)
        y += f.small() * 1.4 * static_cast<double>(wrapped(s, width - f.px(10), f.small()).size());
    return y + f.px(8);
}

Drawing seatingsSheet(const SeatingsView& v, double width, double height, const Format& f) {
    return SeatingsDrafter(v, width, height, f).draw();
}

} // namespace gorvet::sit
