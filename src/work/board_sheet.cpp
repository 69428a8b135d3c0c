#include "work/board_sheet.hpp"

#include "work/work_sheet.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;

namespace {

/// On paper its letters are read from three steps away.
constexpr Format wall_paper{0.33};

class WallBoard {
public:
    WallBoard(const BoardInput& in, double width, double height, const Format& f) : in_(in), o_(*in.order), f_(f) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        const double gap = f_.px(36), left = d_.width * 0.56 - gap / 2, right = d_.width - left - gap;
        areas({0, 0}, left);
        double y = holds({left + gap, 0}, right);
        y = waits({left + gap, y}, right);
        lately({left + gap, y}, right);
        return std::move(d_);
    }

private:
    double head(P at, const char* text, double width) {
        d_.add(Text{{at.x, at.y + f_.head()}, text, f_.head(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold});
        const double y = at.y + f_.head() + f_.px(10);
        d_.add(Stroke{{{at.x, y}, {at.x + width, y}}, false, {Ink::Ink, f_.medium(), Dash::Solid}});
        return y + f_.px(6);
    }
    /// Lines of a text as far as there is room; returns where it ends.
    double lines(P at, double width, const std::string& text, double size, Ink ink, Face face = Face::Sans, size_t most = 3,
                 const std::string& tag = {}) {
        auto broken = wrapped(text, width, size, face);
        if (broken.size() > most) {
            broken.resize(most);
            broken.back() += " …";
        }
        for (const std::string& line : broken) {
            at.y += size * 1.3;
            if (at.y > d_.height - f_.px(4)) break;
            d_.add(Text{{at.x, at.y}, line, size, ink, Anchor::Left, Level::Base, face}, tag);
        }
        return at.y;
    }
    bool full(double y, double need) const { return y + need > d_.height - f_.px(26); }
    void more(P at, size_t n) {
        d_.add(Text{{at.x, d_.height - f_.px(6)}, fmt::format("and {} more", n), f_.body(), Ink::Second});
    }
    static Severity severityOf(const Step& s) {
        return s.hold && !s.open() ? Severity::Bad : s.open() ? Severity::Good : Severity::Warn;
    }

    void areas(P at, double width) {
        double y = head(at, "Next, place by place", width);
        const auto list = nextByArea(o_);
        if (list.empty()) {
            lines({at.x, y}, width, "All is done.", f_.lead(), Ink::Good, Face::Bold);
            return;
        }
        for (size_t k = 0; k < list.size(); ++k) {
            const NextInArea& n = list[k];
            const Step& s = *n.step;
            const std::string tag = "step:" + s.code;
            if (full(y, f_.px(70))) return more({at.x, y}, list.size() - k);
            const double mark = f_.px(24), text = at.x + mark + f_.px(10), room = width - mark - f_.px(10);
            addMark(d_, {at.x + mark / 2, y + f_.px(20)}, mark * 0.8, severityOf(s), tag);
            y = lines({text, y}, room, n.area.empty() ? "The whole car" : n.area, f_.body(), Ink::Second, Face::Bold, 1, tag);
            y = lines({text, y}, room, s.title, f_.lead(), Ink::Ink, Face::Bold, 2, tag);
            std::string below = s.hold ? "Hold point" : statusWord(s.status);
            if (!s.waits_for.empty()) below += ": " + s.waits_for;
            Step elsewhere = s; // where it is was said above
            elsewhere.area.clear();
            if (const std::string own = jobWords(elsewhere); !own.empty()) below += " · " + own;
            if (n.left > 1) below += fmt::format(" · {} more here", n.left - 1);
            y = lines({text, y}, room, below, f_.body(), s.waits_for.empty() ? Ink::Second : inkOf(severityOf(s)), Face::Sans, 2,
                      tag);
            if (s.hot)
                y = lines({text, y}, room, "Hot work: somebody watches, and for an hour after", f_.body(), Ink::Bad, Face::Bold,
                          1);
            y += f_.px(12);
        }
    }

    double holds(P at, double width) {
        double y = head(at, "Held", width);
        size_t shown = 0, all = 0;
        for (const Step& s : o_.steps)
            if (s.hold && s.status != Status::Done) ++all;
        for (size_t i = 0; i < o_.steps.size() && shown < 3; ++i) {
            const Step& s = o_.steps[i];
            if (!s.hold || s.status == Status::Done) continue;
            if (full(y, f_.px(44))) break;
            ++shown;
            const std::string tag = "step:" + s.code;
            y = lines({at.x, y}, width, fmt::format("{}  {}", i + 1, s.title), f_.body(), Ink::Ink, Face::Bold, 2, tag);
            y = lines({at.x, y}, width, s.open() ? "it is open" : s.waits_for, f_.body(), inkOf(severityOf(s)), Face::Sans, 1,
                      tag);
            y += f_.px(6);
        }
        if (all == 0) y = lines({at.x, y}, width, "No hold point is left.", f_.body(), Ink::Second);
        if (all > shown) y = lines({at.x, y}, width, fmt::format("and {} behind them", all - shown), f_.body(), Ink::Second);
        return y + f_.px(18);
    }

    double waits(P at, double width) {
        if (!in_.awaited) return at.y;
        std::vector<const build::Awaited*> list;
        for (const build::Awaited& a : *in_.awaited)
            if (a.arrived.empty()) list.push_back(&a);
        if (list.empty() || full(at.y, f_.px(80))) return at.y;
        double y = head(at, "Awaited", width);
        for (size_t k = 0; k < list.size(); ++k) {
            if (k == 4 || full(y, f_.px(44))) {
                y = lines({at.x, y}, width, fmt::format("and {} more", list.size() - k), f_.body(), Ink::Second);
                break;
            }
            const build::Awaited& a = *list[k];
            y = lines({at.x, y}, width, fmt::format("{}{}", a.name, a.supplier.empty() ? "" : " from " + a.supplier), f_.body(),
                      Ink::Ink, Face::Bold, 1);
            y = lines({at.x, y}, width, a.ordered.empty() ? "not ordered yet" : "ordered " + a.ordered, f_.body(),
                      a.ordered.empty() ? Ink::Bad : Ink::Second, Face::Sans, 1);
        }
        return y + f_.px(18);
    }

    void lately(P at, double width) {
        std::vector<const Step*> done;
        for (const Step& s : o_.steps)
            if (s.tick) done.push_back(&s);
        if (done.empty() || full(at.y, f_.px(80))) return;
        std::stable_sort(done.begin(), done.end(),
                         [](const Step* a, const Step* b) { return a->tick->at_utc > b->tick->at_utc; });
        double y = head(at, "Done last", width);
        for (size_t k = 0; k < done.size() && k < 6 && !full(y, f_.px(20)); ++k)
            y = lines({at.x, y}, width,
                      fmt::format("{}  {}: {}", done[k]->tick->at_utc.substr(0, 10), done[k]->tick->who, done[k]->title),
                      f_.body(), Ink::Second, Face::Sans, 1, "step:" + done[k]->code);
    }

    const BoardInput& in_;
    const Order& o_;
    Format f_;
    Drawing d_;
};

} // namespace

std::vector<NextInArea> nextByArea(const Order& o) {
    std::vector<NextInArea> list;
    for (const Step& s : o.steps) {
        if (s.status == Status::Done) continue;
        const auto found = std::find_if(list.begin(), list.end(), [&](const NextInArea& n) { return n.area == s.area; });
        if (found == list.end()) {
            list.push_back({s.area, &s, 1});
            continue;
        }
        ++found->left;
        // what can be begun there comes before what waits there
        if (!found->step->open() && s.open()) found->step = &s;
    }
    std::stable_partition(list.begin(), list.end(), [](const NextInArea& n) { return n.step->open(); });
    return list;
}

Drawing boardSheet(const BoardInput& in, double width, double height, const Format& f) {
    return WallBoard(in, width, height, f).draw();
}

std::vector<Drawing> boardPage(const BoardInput& in, const PageTitle& title, const std::vector<std::string>& cautions) {
    Area area;
    Drawing page = blankPage(title, cautions, area);
    const Format f{wall_paper.unit * title.paper.width / a3.width};
    page.place(boardSheet(in, area.width, area.height, f), {area.x, area.y});
    return {page};
}

} // namespace gorvet::work
