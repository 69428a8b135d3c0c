#include "work/work_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::work {

using namespace sheet;
using build::Attitude;
using build::BodyPlace;

namespace {

std::string tagOf(const Step& s) { return "step:" + s.code; }

int laneOf(const Stance& s) {
    if (s.attitude != Attitude::RightWayUp) return 2;
    return s.body == BodyPlace::On ? 0 : 1;
}

class Board {
public:
    Board(const WorkView& v, double width, double height, const Format& f) : v_(v), o_(*v.order), f_(f) {
        d_.width = width;
        d_.height = height;
    }

    Drawing draw() {
        if (o_.steps.empty()) return std::move(d_);
        const double foot = track();
        const double column = d_.width * 0.56;
        nowPanel({0, foot}, column - f_.px(36));
        thenList({column, foot}, d_.width - column);
        return std::move(d_);
    }

private:
    /// Returns where it ends.
    double track() {
        int lanes = 1;
        bool on = false;
        for (const Step& s : o_.steps) {
            lanes = std::max(lanes, laneOf(s.stance) + 1);
            if (s.moves_to) lanes = std::max(lanes, laneOf(*s.moves_to) + 1);
            on = on || laneOf(s.stance) == 0;
        }
        const int first_lane = on ? 0 : 1;
        const double lane_height = f_.px(34);
        const double left = f_.px(172);
        const double right = d_.width - f_.px(20);
        const double top = f_.px(24);
        const auto isSide = [](const Step& s) {
            return s.stance.attitude == Attitude::OnItsSide || (s.moves_to && s.moves_to->attitude == Attitude::OnItsSide);
        };
        const bool side = std::any_of(o_.steps.begin(), o_.steps.end(), isSide);
        const char* const names[] = {"body on", "body off", side ? "frame turned" : "frame upside down"};
        const auto y = [&](int lane) { return top + (lane - first_lane) * lane_height; };
        for (int lane = first_lane; lane < lanes; ++lane) {
            d_.add(Text{{0, y(lane) + f_.px(5)}, names[lane], f_.body(), Ink::Second});
            d_.add(Stroke{
                {{left - f_.px(16), y(lane)}, {right + f_.px(12), y(lane)}}, false, {Ink::Faint, f_.thin(), Dash::Dotted}});
        }
        // as many as can be told from each other; of more, those about the next
        const size_t n = o_.steps.size(), room = static_cast<size_t>(std::max(4.0, (right - left) / f_.px(9)));
        const size_t next = o_.next.value_or(n - 1);
        const size_t from = n <= room ? 0 : std::min(n - room, next > 3 ? next - 3 : 0), to = std::min(n, from + room);
        const double gap = (right - left) / std::max(1.0, static_cast<double>(to - from) - 1);
        const auto x = [&](size_t i) { return left + gap * static_cast<double>(i - from); };
        if (to - from < n)
            d_.add(Text{{right, f_.px(12)},
                        fmt::format("steps {} to {} of {}", from + 1, to, n),
                        f_.small(),
                        Ink::Second,
                        Anchor::Right});
        // the way through the lanes: thick as far as it is done
        for (size_t i = from; i + 1 < to; ++i) {
            const P a{x(i), y(endLane(o_.steps[i]))};
            const P b{x(i + 1), y(laneOf(o_.steps[i + 1].stance))};
            const bool done = o_.steps[i].status == Status::Done && o_.steps[i + 1].status == Status::Done;
            d_.add(Stroke{{a, b}, false, {done ? Ink::NewSteel : Ink::Second, done ? f_.thick() : f_.thin() * 1.3, Dash::Solid}});
        }
        for (size_t i = from; i < to; ++i) {
            const Step& s = o_.steps[i];
            if (s.moves_to)
                d_.add(Stroke{{{x(i), y(laneOf(s.stance))}, {x(i), y(laneOf(*s.moves_to))}},
                              false,
                              {s.status == Status::Done ? Ink::NewSteel : Ink::Second, f_.medium(), Dash::Solid}},
                       tagOf(s));
            mark(s, {x(i), y(endLane(s))}, i);
        }
        const double end = top + (lanes - first_lane - 1) * lane_height + f_.px(30);
        const int every = gap >= f_.px(20) ? 1 : gap >= f_.px(10) ? 2 : 5;
        for (size_t i = from; i < to; ++i)
            if (i % static_cast<size_t>(every) == 0 || (o_.next && i == *o_.next))
                d_.add(Text{{x(i), end},
                            std::to_string(i + 1),
                            f_.px(11),
                            o_.next && i == *o_.next ? Ink::Ink : Ink::Second,
                            Anchor::Centre});
        return end + f_.px(20);
    }

    static int endLane(const Step& s) { return s.moves_to ? laneOf(*s.moves_to) : laneOf(s.stance); }

    void mark(const Step& s, P at, size_t i) {
        const std::string tag = tagOf(s);
        const bool done = s.status == Status::Done;
        const Ink ink = done                                      ? Ink::NewSteel
                        : s.hold && s.status == Status::HoldPoint ? (s.open() ? Ink::Good : Ink::Bad)
                                                                  : Ink::Ink;
        const double r = f_.px(5);
        if (s.hold) { // a gate across the way; open when it may be passed
            const double h = f_.px(11);
            const double swing = done || (s.status == Status::HoldPoint && s.open()) ? f_.px(6) : 0;
            d_.add(Circle{at, r * 0.9, {ink, f_.thin(), Dash::Solid}, false, true}, tag);
            for (const double dx : {-f_.px(2.5), f_.px(2.5)})
                d_.add(Stroke{{{at.x + dx - swing * (dx < 0 ? 1 : -1), at.y - h}, {at.x + dx, at.y + h}},
                              false,
                              {ink, f_.medium(), Dash::Solid}},
                       tag);
        } else {
            d_.add(Circle{at, r, {ink, f_.medium() * 0.8, Dash::Solid}, done, !done}, tag);
        }
        if (s.no_return) // barbs: in, and not out again
            for (const double dx : {f_.px(7), f_.px(11)})
                d_.add(Stroke{{{at.x + dx, at.y - f_.px(6)}, {at.x + dx + f_.px(4), at.y}, {at.x + dx, at.y + f_.px(6)}},
                              false,
                              {Ink::Remove, f_.medium(), Dash::Solid}},
                       tag);
        if ((o_.next && i == *o_.next) || v_.selected == tag)
            d_.add(Circle{at, f_.px(v_.selected == tag ? 15 : 13), {Ink::Ink, f_.medium(), Dash::Solid}}, tag);
    }

    double lines(P at, double width, const std::string& text, double size, Ink ink, Face face = Face::Sans,
                 const std::string& tag = {}) {
        for (const std::string& line : wrapped(text, width, size, face)) {
            if (at.y > d_.height - f_.px(2)) break;
            d_.add(Text{{at.x, at.y}, line, size, ink, Anchor::Left, Level::Base, face}, tag);
            at.y += size * 1.35;
        }
        return at.y;
    }

    void nowPanel(P at, double width) {
        if (!o_.next) {
            lines({at.x, at.y + f_.lead()}, width, "All steps are done.", f_.lead(), Ink::Good);
            return;
        }
        const Step& s = o_.steps[*o_.next];
        const std::string tag = tagOf(s);
        double y = at.y + f_.lead();
        y = lines({at.x, y}, width, fmt::format("{}  {}", *o_.next + 1, s.title), f_.lead(), Ink::Ink, Face::Bold, tag);
        if (const std::string own = jobWords(s); !own.empty()) y = lines({at.x, y}, width, own, f_.body(), Ink::Ink);
        if (!s.why.empty()) y = lines({at.x, y}, width, s.why, f_.body(), Ink::Second);
        if (!s.waits_for.empty())
            y = lines({at.x, y}, width, (s.hold ? "It stays shut: " : "It waits: ") + s.waits_for + ".", f_.body(), Ink::Bad);
        else if (s.hold)
            y = lines({at.x, y}, width, "It is open.", f_.body(), Ink::Good);
        y += f_.px(4);
        for (const CheckItem& c : s.checks) y = check(c, at.x, y, width, tag);
        if (s.checks.empty())
            for (const Condition& c : s.conditions) {
                addMark(d_, {at.x + f_.px(8), y - f_.px(5)}, f_.px(13), c.met ? Severity::Good : Severity::Bad);
                y = lines({at.x + f_.px(24), y}, width - f_.px(24), c.text, f_.body(), Ink::Ink);
            }
        if (!s.before_return.empty()) {
            y = lines({at.x, y}, width, "There is no way back from here. Before it:", f_.body(), Ink::Remove, Face::Bold);
            for (const std::string& b : s.before_return)
                y = lines({at.x + f_.px(16), y}, width - f_.px(16), "– " + b, f_.body(), Ink::Ink);
        }
        for (const std::string& c : s.cautions) {
            if (y > d_.height - f_.px(4)) break;
            d_.add(Text{{at.x, y}, "Caution", f_.body(), Ink::Bad, Anchor::Left, Level::Base, Face::Bold});
            y = lines({at.x + f_.px(76), y}, width - f_.px(76), c, f_.body(), Ink::Ink);
        }
        meanwhile(s, at.x, y, width);
        // what stands in the way next
        for (size_t i = *o_.next + 1; i < o_.steps.size() && !s.hold; ++i) {
            const Step& gate = o_.steps[i];
            if (!gate.hold) continue;
            y = lines({at.x, y + f_.px(10)}, width,
                      fmt::format(
                          "The next hold point is {}: {}{}", i + 1, gate.title,
                          gate.checks.empty() ? "." : fmt::format(", with {}.", units::counted(gate.checks.size(), "a reading"))),
                      f_.body(), Ink::Second);
            if (!gate.checks.empty()) break;
            for (const Condition& c : gate.conditions)
                if (!c.met) y = lines({at.x, y}, width, "It would stay shut: " + c.text + ".", f_.body(), Ink::Bad);
            break;
        }
        std::string in;
        for (const SteelEntry& e : o_.steel)
            if (e.state == SteelState::In)
                in +=
                    (in.empty() ? "" : "; ") + e.steel.name + (e.steel.blocks.empty() ? "" : " (blocks " + e.steel.blocks + ")");
        if (!in.empty() && y < d_.height - f_.px(44))
            lines({at.x, y + f_.px(4)}, width, "Braces in: " + in, f_.body(), Ink::Second);
        if (y < d_.height - f_.px(40)) legend({at.x, d_.height - f_.px(8)});
    }

    /// What another pair of hands can do beside the next step, the first few.
    void meanwhile(const Step& s, double x, double& y, double width) {
        const auto list = besides(o_, s);
        if (list.empty()) return;
        std::string text = "Another can meanwhile: ";
        for (size_t k = 0; k < list.size() && k < 2; ++k) text += (k ? "; " : "") + list[k]->title;
        if (list.size() > 2) text += fmt::format("; and {} more", list.size() - 2);
        y = lines({x, y + f_.px(6)}, width, text + ".", f_.body(), Ink::Second);
    }

    /// What the marks on the track mean.
    void legend(P at) {
        const double y = at.y - f_.px(5);
        double x = at.x + f_.px(6);
        const auto word = [&](const char* text) {
            d_.add(Text{{x + f_.px(14), at.y}, text, f_.small(), Ink::Second});
            x += f_.px(34) + textWidth(text, f_.small(), Face::Sans);
        };
        d_.add(Circle{{x, y}, f_.px(5), {Ink::NewSteel, f_.thin(), Dash::Solid}, true});
        word("done");
        for (const double dx : {-f_.px(2.5), f_.px(2.5)})
            d_.add(Stroke{{{x + dx, y - f_.px(8)}, {x + dx, y + f_.px(8)}}, false, {Ink::Ink, f_.medium(), Dash::Solid}});
        word("hold point");
        for (const double dx : {-f_.px(4), 0.0})
            d_.add(Stroke{{{x + dx, y - f_.px(6)}, {x + dx + f_.px(4), y}, {x + dx, y + f_.px(6)}},
                          false,
                          {Ink::Remove, f_.medium(), Dash::Solid}});
        word("no way back");
    }

    double check(const CheckItem& c, double x, double y, double width, const std::string& tag) {
        const auto len = [&](double mm) { return units::formatLength(mm, v_.step); };
        const Severity severity = !c.read_mm ? Severity::Warn : c.agrees() ? Severity::Good : Severity::Bad;
        addMark(d_, {x + f_.px(8), y - f_.px(5)}, f_.px(13), severity, tag);
        d_.add(Text{{x + f_.px(24), y}, c.name, f_.body(), Ink::Ink}, tag);
        d_.add(Text{{x + width * 0.30, y}, "plan", f_.body(), Ink::Second});
        d_.add(Text{{x + width * 0.50, y},
                    len(c.plan_mm),
                    f_.body(),
                    Ink::Ink,
                    Anchor::Right,
                    Level::Base,
                    Face::Sans,
                    Mark::Derived},
               tag);
        d_.add(Text{{x + width * 0.52, y},
                    fmt::format("± {} allowed", units::formatSmall(c.tolerance_mm, v_.step)),
                    f_.small(),
                    Ink::Second});
        const std::string read = c.read_mm ? "read " + len(*c.read_mm) : c.stale ? "only an old reading" : "not read yet";
        d_.add(Text{{x + width, y}, read, f_.body(), c.read_mm ? inkOf(severity) : Ink::Second, Anchor::Right}, tag);
        return y + f_.px(24);
    }

    void thenList(P at, double width) {
        if (!o_.next) return;
        double y = at.y + f_.body();
        const double row = f_.px(25);
        for (size_t i = *o_.next + 1; i < o_.steps.size(); ++i) {
            const Step& s = o_.steps[i];
            if (y > d_.height - f_.px(2)) break;
            if (y + row > d_.height - f_.px(2) && i + 1 < o_.steps.size()) {
                d_.add(Text{{at.x + f_.px(34), y}, fmt::format("and {} more", o_.steps.size() - i), f_.body(), Ink::Second});
                break;
            }
            const std::string tag = tagOf(s);
            d_.add(Text{{at.x + f_.px(24), y}, std::to_string(i + 1), f_.body(), Ink::Second, Anchor::Right}, tag);
            std::string title = s.title;
            const double room = width - f_.px(34) - f_.px(96);
            auto cut = wrapped(title, room, f_.body());
            if (cut.size() > 1) title = cut.front() + " …";
            d_.add(Text{{at.x + f_.px(34), y}, title, f_.body(), s.moves_to ? Ink::Second : Ink::Ink}, tag);
            const bool ready = s.status == Status::Ready || s.status == Status::HoldPoint;
            d_.add(Text{{at.x + width, y},
                        s.hold ? "Hold point" : statusWord(s.status),
                        f_.small(),
                        s.status == Status::HoldPoint && !s.open() ? Ink::Bad
                        : ready                                    ? Ink::Good
                        : s.no_return                              ? Ink::Remove
                                                                   : Ink::Second,
                        Anchor::Right},
                   tag);
            y += row;
        }
    }

    const WorkView& v_;
    const Order& o_;
    Format f_;
    Drawing d_;
};

} // namespace

Drawing workSheet(const WorkView& v, double width, double height, const Format& f) { return Board(v, width, height, f).draw(); }

} // namespace gorvet::work
