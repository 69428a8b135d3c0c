#include "make/service_sheet.hpp"

#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {

using namespace sheet;

namespace {

constexpr double strip_px = 96, dial_px = 27;

class ServiceDraft {
public:
    ServiceDraft(Drawing& d, const Format& f, units::LengthStep step) : d_(d), f_(f), step_(step) {}

    double draw(const ServicePlan& p, const std::vector<Foul>& fouls, std::size_t first, std::size_t until) {
        if (first == 0) y_ = above(p, fouls);
        const auto groups = groupsOf(p);
        for (std::size_t k = first; k < std::min(until, groups.size()); ++k) strip(groups[k]);
        return y_;
    }

private:
    double above(const ServicePlan& p, const std::vector<Foul>& fouls) {
        SheetWords words(d_, f_, f_.body(), d_.width, "");
        for (const Foul& foul : fouls) words.judged(Severity::Bad, foulWords(foul, step_));
        if (!p.off.empty()) {
            std::string order;
            for (std::size_t k = 0; k < p.off.size(); ++k)
                order += fmt::format("{}{} {}", k ? ", then " : "", k + 1, fmt::join(p.off[k], " and "));
            words.lines(fmt::format("Comes off in this order: {}. It goes on again backwards.", order));
        }
        if (!p.stays.empty()) words.judged(Severity::Bad, fmt::format("Never comes off again: {}.", fmt::join(p.stays, ", ")));
        words.list("Looked at: ", p.looked_at);
        words.list("Not looked at: ", p.not_looked_at);
        return words.end() + f_.px(10);
    }
    std::string len(double mm) const { return units::formatLength(mm, step_); }

    void strip(const FastenerGroup& g) {
        const FastenerRow& r = *g.row;
        const double top = y_, middle = top + f_.px(strip_px / 2 + 8);
        const double names = f_.px(212), dials = f_.px(4 * dial_px + 70);
        addMark(d_, {f_.px(10), top + f_.body() - f_.px(5)}, f_.px(14), severityOf(r.verdict), r.tag);
        const std::string name = g.names.size() == 1 ? r.name : fmt::format("{}, {} bolts", r.group, g.names.size());
        d_.add(Text{{f_.px(24), top + f_.body()}, name, f_.body(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, r.tag);
        d_.add(Text{{f_.px(24), top + f_.body() + f_.px(20)},
                    fmt::format("M{:g} × {:g}, grip {}", r.bolt_mm, r.length_mm, len(r.grip_mm)),
                    f_.small(),
                    Ink::Ink,
                    Anchor::Left,
                    Level::Base,
                    Face::Sans,
                    r.assumed.empty() ? Mark::Derived : Mark::Assumed},
               r.tag);
        d_.add(Text{{f_.px(24), top + f_.body() + f_.px(38)},
                    r.round == 0      ? std::string("never comes out")
                    : r.captive       ? std::string("into a captive nut")
                    : r.turned        ? std::string("the other way round only")
                    : r.after.empty() ? std::string("comes out with all on")
                                      : fmt::format("after {}", fmt::join(r.after, ", ")),
                    f_.small(),
                    Ink::Second},
               r.tag);
        side(r, {names, middle}, d_.width - names - dials - f_.px(16));
        double x = d_.width - dials + f_.px(dial_px + 6);
        for (std::size_t end = 0; end < 2; ++end) {
            if (end == 1 && r.captive) break;
            dial(r, end, {x, top + f_.px(dial_px + 12)});
            x += f_.px(2 * dial_px + 40);
        }
        SheetWords words(d_, f_, top + f_.px(strip_px + 18), d_.width, r.tag); // below what stands under the bolt
        words.remarks(r.remarks);
        words.list("Not known well enough: ", r.assumed);
        y_ = words.end() + f_.px(14);
    }

    /// Along its axis: its head at the left, what it holds, its nut; the room that it needs at both ends, and what is there.
    void side(const FastenerRow& r, P at, double width) {
        const double need[2] = {r.ends[0].need_mm, r.ends[1].need_mm};
        const double scale = width / (need[0] + need[1] + r.grip_mm + 8), head_x = at.x + scale * (need[0] + 4),
                     nut_x = head_x + scale * r.grip_mm, half = f_.px(15), shank = std::min(half * 0.6, scale * r.bolt_mm / 2);
        const auto box = [](double x0, double y0, double x1, double y1) {
            return std::vector<P>{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}};
        };
        const Pen thin{Ink::Ink, f_.thin(), Dash::Solid};
        d_.add(Hatch{box(head_x, at.y - half * 1.6, nut_x, at.y + half * 1.6),
                     {Ink::NewSteel, f_.thin(), Dash::Solid},
                     f_.px(5),
                     false},
               r.tag);
        d_.add(Stroke{box(head_x, at.y - half * 1.6, nut_x, at.y + half * 1.6), true, {Ink::NewSteel, f_.medium(), Dash::Solid}},
               r.tag);
        const double tail = std::max(0.0, r.length_mm - r.grip_mm), high = 0.65 * r.bolt_mm;
        d_.add(Stroke{box(head_x - scale * high, at.y - shank * 1.7, head_x, at.y + shank * 1.7), true, thin}, r.tag);
        d_.add(Stroke{box(head_x, at.y - shank, nut_x + scale * tail, at.y + shank), true, thin}, r.tag);
        d_.add(Stroke{box(nut_x, at.y - shank * 1.7, nut_x + scale * std::min(tail, 0.8 * r.bolt_mm), at.y + shank * 1.7), true,
                      thin},
               r.tag);
        for (std::size_t end = 0; end < 2; ++end) {
            const FastenerEnd& e = r.ends[end];
            const double from = end == 0 ? head_x : nut_x, way = end == 0 ? -1 : 1;
            const bool enough = e.free_mm >= e.need_mm;
            const double until = from + way * scale * e.need_mm, stops = from + way * scale * std::min(e.free_mm, e.need_mm);
            d_.add(Stroke{box(std::min(from, until), at.y - half, std::max(from, until), at.y + half),
                          true,
                          {Ink::Second, f_.thin(), Dash::Dashed}},
                   r.tag);
            if (!enough) {
                d_.add(Hatch{box(std::min(stops, until), at.y - half, std::max(stops, until), at.y + half),
                             {Ink::Bad, f_.thin(), Dash::Solid},
                             f_.px(5),
                             true},
                       r.tag);
                d_.add(
                    Stroke{{{stops, at.y - half * 1.5}, {stops, at.y + half * 1.5}}, false, {Ink::Bad, f_.medium(), Dash::Solid}},
                    r.tag);
            }
            const std::string words = enough ? fmt::format("{} free", len(e.need_mm))
                                             : fmt::format("{} of {}, before {}", len(e.free_mm), len(e.need_mm), e.blocked_by);
            d_.add(Text{{end == 0 ? at.x : at.x + width, at.y + half + f_.px(20)},
                        words,
                        f_.small(),
                        enough ? Ink::Second : Ink::Bad,
                        end == 0 ? Anchor::Left : Anchor::Right,
                        Level::Base,
                        Face::Sans,
                        Mark::Derived},
                   r.tag);
        }
        d_.add(Text{{(head_x + nut_x) / 2, at.y - half * 1.6 - f_.px(6)}, "held", f_.small(), Ink::Second, Anchor::Centre},
               r.tag);
    }

    /// Seen along its axis from outside: the directions in which a spanner can stand are full, the others thin.
    void dial(const FastenerRow& r, std::size_t end, P at) {
        const FastenerEnd& e = r.ends[end];
        const double radius = f_.px(dial_px);
        d_.add(Circle{at, radius, {Ink::Faint, f_.thin(), Dash::Solid}}, r.tag);
        for (const auto& [from, to] : e.arcs) {
            Stroke s{{}, false, {Ink::Ink, f_.thick(), Dash::Solid}};
            const int n = std::max(2, static_cast<int>((to - from) / 0.1));
            for (int k = 0; k <= n; ++k) {
                const double a = from + (to - from) * k / n;
                s.path.push_back({at.x - radius * std::sin(a), at.y - radius * std::cos(a)});
            }
            d_.add(std::move(s), r.tag);
        }
        // a hexagon for its head or nut
        Stroke hexagon{{}, true, {Ink::Ink, f_.thin(), Dash::Solid}};
        for (int k = 0; k < 6; ++k)
            hexagon.path.push_back({at.x + radius * 0.38 * std::cos(k * std::numbers::pi / 3),
                                    at.y + radius * 0.38 * std::sin(k * std::numbers::pi / 3)});
        d_.add(std::move(hexagon), r.tag);
        const double turn = e.swing_rad * 180 / std::numbers::pi;
        d_.add(Text{{at.x, at.y + radius + f_.px(16)},
                    fmt::format("{} {:.0f}°", end == 0 ? "head" : "nut", turn),
                    f_.small(),
                    e.swing_rad >= least_swing_rad || e.socket ? Ink::Ink : Ink::Bad,
                    Anchor::Centre,
                    Level::Base,
                    Face::Sans,
                    Mark::Derived},
               r.tag);
        if (e.socket) d_.add(Text{{at.x, at.y + radius + f_.px(31)}, "socket", f_.small(), Ink::Second, Anchor::Centre}, r.tag);
    }

    Drawing& d_;
    const Format& f_;
    units::LengthStep step_;
    double y_ = 0;
};

} // namespace

std::vector<FastenerGroup> groupsOf(const ServicePlan& p) {
    std::vector<FastenerGroup> all;
    const auto spare = [](const FastenerRow& r) {
        return std::min(r.ends[0].free_mm - r.ends[0].need_mm, r.ends[1].free_mm - r.ends[1].need_mm);
    };
    const auto alike = [](const FastenerRow& a, const FastenerRow& b) {
        const bool codes = std::equal(a.remarks.begin(), a.remarks.end(), b.remarks.begin(), b.remarks.end(),
                                      [](const auto& x, const auto& y) { return x.code == y.code; });
        return a.group == b.group && a.bolt_mm == b.bolt_mm && a.length_mm == b.length_mm && codes && a.turned == b.turned &&
               a.after == b.after && a.verdict == b.verdict;
    };
    for (const FastenerRow& row : p.rows) {
        const auto same = std::find_if(all.begin(), all.end(), [&](const FastenerGroup& g) { return alike(*g.row, row); });
        if (same == all.end()) {
            all.push_back({&row, {row.name}});
            continue;
        }
        same->names.push_back(row.name);
        if (spare(row) < spare(*same->row)) same->row = &row;
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const FastenerGroup& a, const FastenerGroup& b) { return a.row->verdict > b.row->verdict; });
    return all;
}

Drawing serviceSheet(const ServicePlan& p, const std::vector<Foul>& fouls, units::LengthStep step, double width, double height,
                     const Format& f, std::size_t first, std::size_t until) {
    Drawing d{width, height, {}, {}};
    d.height = std::max(height, ServiceDraft(d, f, step).draw(p, fouls, first, until));
    return d;
}

} // namespace gorvet::make
