#include "work/time_sheet.hpp"

#include "units/dates.hpp"
#include "work/table_pages.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;

namespace {

int dayOfFinish(double at) { return static_cast<int>(std::floor(at)); }

class Strips {
public:
    Strips(const TimeView& v, double width, double height, const Format& f) : v_(v), in_(*v.in), s_(*v.schedule), f_(f) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        left_ = f_.px(168);
        right_ = d_.width - f_.px(16);
        span();
        lanes();
        const double curve = f_.px(96);
        const double top = f_.px(34);
        strip_ = std::clamp((d_.height - top - curve - f_.px(30)) / std::max<double>(1, rows_), f_.px(22), f_.px(40));
        foot_ = top + strip_ * rows_;
        calendar(top);
        double y = top;
        for (std::size_t l = 0; l < areas_.size(); ++l) y = lane(l, y);
        awaited(y);
        finish(foot_ + f_.px(14), curve);
        return std::move(d_);
    }

private:
    double x(double day) const { return left_ + (day - from_) / (to_ - from_) * (right_ - left_); }

    void span() {
        from_ = in_.today;
        to_ = s_.finish_all[s_.finish_all.size() * 97 / 100];
        if (in_.wanted && *in_.wanted + 1 < from_ + 2 * (to_ - from_)) to_ = std::max<double>(to_, *in_.wanted + 1);
        to_ += std::max(1.0, 0.03 * (to_ - from_));
    }

    /// One lane an area, as many strips as overlap in it.
    void lanes() {
        row_.resize(in_.tasks.size());
        lane_of_.resize(in_.tasks.size());
        for (std::size_t i = 0; i < in_.tasks.size(); ++i) {
            const std::string& area = in_.tasks[i].likely_h > 0 ? in_.tasks[i].area : unsaid_;
            const auto found = std::find(areas_.begin(), areas_.end(), area);
            lane_of_[i] = static_cast<std::size_t>(found - areas_.begin());
            if (found == areas_.end()) areas_.push_back(area);
        }
        lane_rows_.assign(areas_.size(), 1);
        std::vector<std::vector<double>> ends(areas_.size());
        for (std::size_t i = 0; i < in_.tasks.size(); ++i) {
            if (in_.tasks[i].likely_h <= 0) continue; // marks beside each other in one strip
            auto& end = ends[lane_of_[i]];
            std::size_t row = 0;
            while (row < end.size() && end[row] > s_.tasks[i].start.p50 + 0.02) ++row;
            if (row == end.size()) end.push_back(0);
            end[row] = std::max(s_.tasks[i].finish.p50, s_.tasks[i].start.p50);
            row_[i] = row;
            lane_rows_[lane_of_[i]] = std::max(lane_rows_[lane_of_[i]], row + 1);
        }
        rows_ = in_.parts.empty() ? 0 : 1;
        for (const std::size_t n : lane_rows_) rows_ += static_cast<double>(n);
    }

    void calendar(double top) {
        const bool months = to_ - from_ > 75;
        for (int day = static_cast<int>(from_); day < to_; ++day) {
            const std::string iso = units::isoDate(day);
            const bool mark = months ? iso.ends_with("-01") : units::weekday(day) == 0;
            for (const auto& [a, b] : in_.hours.off)
                if (a <= day && day <= b)
                    d_.add(Fill{{{x(day), top}, {x(day + 1), top}, {x(day + 1), foot_}, {x(day), foot_}}, Ink::Panel});
            if (!mark) continue;
            d_.add(Stroke{{{x(day), top - f_.px(6)}, {x(day), foot_}}, false, {Ink::Faint, f_.thin(), Dash::Solid}});
            const std::string words = units::dateWords(day); // "Thu 24 Dec 2026"
            const std::string label = months ? words.substr(words.size() - 8) : words.substr(4, words.size() - 9);
            if (x(day) + textWidth(label, f_.small(), Face::Sans) > right_ || x(day) < last_label_) continue;
            d_.add(Text{{x(day) + f_.px(3), top - f_.px(8)}, label, f_.small(), Ink::Second});
            last_label_ = x(day) + textWidth(label, f_.small(), Face::Sans) + f_.px(10);
        }
        d_.add(Stroke{{{left_, top}, {right_, top}}, false, {Ink::Ink, f_.thin(), Dash::Solid}});
    }

    double lane(std::size_t l, double y) {
        const std::string name = areas_[l].empty() ? "The whole car" : areas_[l];
        auto words = wrapped(name, left_ - f_.px(16), f_.body());
        if (words.size() > 2) words.resize(2);
        double text = y + strip_ * 0.62;
        for (const std::string& line : words) {
            if (text > y + strip_ * static_cast<double>(lane_rows_[l])) break;
            d_.add(Text{{0, text}, line, f_.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
            text += f_.body() * 1.2;
        }
        for (std::size_t i = 0; i < in_.tasks.size(); ++i)
            if (lane_of_[i] == l) bar(i, y + strip_ * static_cast<double>(row_[i]));
        y += strip_ * static_cast<double>(lane_rows_[l]);
        d_.add(Stroke{{{0, y}, {right_, y}}, false, {Ink::Faint, f_.thin(), Dash::Solid}});
        return y;
    }

    /// From its likely begin to its likely end; a thin line to where 90 of 100 have ended. What the last day hangs on is filled.
    void bar(std::size_t i, double y) {
        const TaskDates& t = s_.tasks[i];
        const std::string tag = "step:" + in_.tasks[i].code;
        const bool late = t.late > 0.2, holds = t.holds_up > 0.5;
        const Ink ink = late ? Ink::Bad : Ink::Ink;
        const double a = x(t.start.p50), b = std::max(x(t.finish.p50), a + f_.px(3)), c = x(t.finish.p90);
        const double top = y + strip_ * 0.2, bottom = y + strip_ * 0.8, mid = (top + bottom) / 2;
        const std::vector<P> box{{a, top}, {b, top}, {b, bottom}, {a, bottom}};
        if (in_.tasks[i].likely_h <= 0) { // nothing is said of it: a mark at where it comes
            d_.add(Stroke{{{a, top}, {a, bottom}}, false, {Ink::Second, f_.medium(), Dash::Dotted}}, tag);
            return;
        }
        d_.add(Fill{box, holds ? Ink::Faint : Ink::Sheet}, tag);
        d_.add(Stroke{box, true, {ink, v_.selected == tag ? f_.thick() : holds ? f_.medium() : f_.thin(), Dash::Solid}}, tag);
        if (c > b)
            d_.add(Stroke{{{b, mid}, {c, mid}, {c, mid - f_.px(4)}, {c, mid + f_.px(4)}}, false, {ink, f_.thin(), Dash::Solid}},
                   tag);
        if (in_.tasks[i].wanted) {
            const double w = x(*in_.tasks[i].wanted + 1);
            d_.add(Stroke{{{w, top - f_.px(3)}, {w, bottom + f_.px(3)}}, false, {ink, f_.medium(), Dash::Dashed}}, tag);
        }
        const std::string number = std::to_string(i < v_.places.size() ? v_.places[i] : static_cast<int>(i) + 1);
        if (textWidth(number, f_.small(), Face::Sans) + f_.px(4) < b - a)
            d_.add(Text{{(a + b) / 2, mid + f_.small() * 0.35}, number, f_.small(), ink, Anchor::Centre}, tag);
    }

    void awaited(double y) {
        if (in_.parts.empty()) return;
        d_.add(Text{{0, y + strip_ * 0.62}, "Awaited", f_.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        for (std::size_t p = 0; p < in_.parts.size(); ++p) {
            const PartDates& part = s_.parts[p];
            const double a = x(part.here.p10), m = std::min(x(part.here.p50), right_), c = std::min(x(part.here.p90), right_);
            const double mid = y + strip_ * (p % 2 ? 0.7 : 0.3);
            const Ink ink = in_.parts[p].ordered ? Ink::Ink : Ink::Warn;
            d_.add(Stroke{{{a, mid}, {c, mid}}, false, {ink, f_.thin(), in_.parts[p].ordered ? Dash::Solid : Dash::Dashed}});
            d_.add(Circle{{m, mid}, f_.px(4), {ink, f_.medium(), Dash::Solid}, false, true});
            d_.add(Text{{m + f_.px(7), mid + f_.small() * 0.35},
                        in_.parts[p].name,
                        f_.small(),
                        ink,
                        Anchor::Left,
                        Level::Top,
                        Face::Sans,
                        Mark::None,
                        0,
                        true});
        }
    }

    /// How many of 100 draws are done by a day.
    void finish(double y, double height) {
        const double bottom = y + height, top = y + f_.px(16);
        const auto at = [&](double share) { return bottom - share * (bottom - top); };
        d_.add(Text{{0, y + f_.px(24)}, "All done, of 100", f_.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        for (const double share : {0.1, 0.5, 0.9}) {
            d_.add(Stroke{{{left_, at(share)}, {right_, at(share)}}, false, {Ink::Faint, f_.thin(), Dash::Dotted}});
            d_.add(Text{{left_ - f_.px(8), at(share) + f_.small() * 0.35},
                        fmt::format("{:.0f}", share * 100),
                        f_.small(),
                        Ink::Second,
                        Anchor::Right});
        }
        std::vector<P> path{{x(from_), bottom}};
        const double n = static_cast<double>(s_.finish_all.size());
        for (std::size_t k = 0; k < s_.finish_all.size(); k += std::max<std::size_t>(1, s_.finish_all.size() / 200))
            if (s_.finish_all[k] <= to_) path.push_back({x(s_.finish_all[k]), at(static_cast<double>(k + 1) / n)});
        d_.add(Stroke{path, false, {Ink::Ink, f_.medium(), Dash::Solid}});
        for (const auto& [share, day] : {std::pair{0.5, s_.finish.p50}, std::pair{0.9, s_.finish.p90}}) {
            d_.add(Stroke{{{x(day), bottom}, {x(day), at(share)}}, false, {Ink::Ink, f_.thin(), Dash::Dashed}});
            const std::string words = dayWords(day);
            const bool room = x(day) + textWidth(words + " ?", f_.body(), Face::Bold) + f_.px(12) < right_;
            d_.add(Text{{x(day) + f_.px(room ? 5 : -5), bottom - f_.px(share > 0.6 ? 50 : 26)},
                        words,
                        f_.body(),
                        Ink::Ink,
                        room ? Anchor::Left : Anchor::Right,
                        Level::Top,
                        Face::Bold,
                        Mark::Assumed,
                        0,
                        true});
        }
        if (in_.wanted && *in_.wanted + 1 <= to_) {
            const double w = x(*in_.wanted + 1);
            d_.add(Stroke{{{w, top}, {w, bottom}}, false, {s_.by_wanted < 0.5 ? Ink::Bad : Ink::Ink, f_.medium(), Dash::Dashed}});
            d_.add(Text{{w - f_.px(4), top + f_.small()},
                        fmt::format("wanted: {:.0f} of 100", 100 * s_.by_wanted),
                        f_.small(),
                        s_.by_wanted < 0.5 ? Ink::Bad : Ink::Ink,
                        Anchor::Right,
                        Level::Top,
                        Face::Sans,
                        Mark::None,
                        0,
                        true});
        }
        d_.add(Stroke{{{left_, bottom}, {right_, bottom}}, false, {Ink::Ink, f_.thin(), Dash::Solid}});
        d_.height = std::max(d_.height, bottom + f_.px(8));
    }

    const TimeView& v_;
    const ScheduleInput& in_;
    const Schedule& s_;
    Format f_;
    Drawing d_;
    double left_ = 0, right_ = 0, from_ = 0, to_ = 1, strip_ = 0, foot_ = 0, rows_ = 0, last_label_ = 0;
    const std::string unsaid_ = "no hours yet";
    std::vector<std::string> areas_;
    std::vector<std::size_t> row_, lane_of_, lane_rows_;
};

/// Nothing can be said of the days: why.
std::string nothingToSay(const TimeView& v) {
    if (v.in->tasks.empty()) return "All is done.";
    if (v.schedule->never) return "The shop has no hours: say them, like shop weekday 2 saturday 6.";
    if (v.schedule->unsaid == v.in->tasks.size())
        return "Nothing is said yet of how long any step takes: tap a step and say its hours.";
    return {};
}

} // namespace

std::string dayWords(double day) { return units::dateWords(dayOfFinish(day)); }

std::string betweenWords(const Spread& s) {
    const std::string a = dayWords(s.p10), b = dayWords(s.p90);
    if (a == b) return "on " + a;
    const bool same_year = a.substr(a.size() - 4) == b.substr(b.size() - 4);
    return fmt::format("between {} and {}", same_year ? a.substr(0, a.size() - 5) : a, b);
}

Drawing timeSheet(const TimeView& v, double width, double height, const Format& f) {
    if (const std::string why = nothingToSay(v); !why.empty()) {
        Drawing d;
        d.width = width;
        d.height = height;
        double y = f.px(40);
        for (const std::string& line : wrapped(why, width * 0.8, f.lead())) {
            d.add(Text{{0, y}, line, f.lead(), Ink::Second});
            y += f.lead() * 1.4;
        }
        return d;
    }
    return Strips(v, width, height, f).draw();
}

std::vector<Drawing> timePages(const TimeView& v, const PageTitle& title, const std::vector<std::string>& cautions) {
    std::vector<Drawing> pages;
    Area area;
    Drawing page = blankPage(title, cautions, area);
    page.place(timeSheet(v, area.width, area.height, on_paper), {area.x, area.y});
    pages.push_back(std::move(page));
    std::vector<std::vector<std::string>> rows;
    for (std::size_t i = 0; i < v.in->tasks.size() && !v.schedule->never; ++i) {
        const Task& t = v.in->tasks[i];
        const TaskDates& d = v.schedule->tasks[i];
        rows.push_back({std::to_string(v.places.at(i)), t.title,
                        t.likely_h <= 0 ? "not said"
                        : t.most_h > 0  ? fmt::format("{:g} {:g} {:g}", t.least_h, t.likely_h, t.most_h)
                                        : fmt::format("{:g}", t.likely_h),
                        t.worked_h > 0 ? fmt::format("{:g}", t.worked_h) : "", dayWords(d.start.p50), dayWords(d.finish.p50),
                        dayWords(d.finish.p90), fmt::format("{:.0f}", 100 * d.holds_up)});
    }
    addTableUnder(pages, title, cautions, "Step by step",
                  {{"", 10},
                   {"step", 96, Anchor::Left, Face::Sans, true},
                   {"hours said", 24},
                   {"worked", 18},
                   {"begins, likely", 34},
                   {"ends, likely", 34},
                   {"ends, 90 of 100", 34},
                   {"holds the end up", 26}},
                  rows);
    return pages;
}

} // namespace gorvet::work
