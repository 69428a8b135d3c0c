#include "drive/axle_setup_sheet.hpp"

#include "drive/degree.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <iterator>
#include <numbers>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::drive {

using namespace sheet;
using build::BracketKind;

namespace {

constexpr double bench_view_px = 120, bench_side_px = 230, bench_column_px = 330, bench_side_share = 0.33;

std::string millimetres(const Figure& f) { return fmt::format("{:.1f} ± {:.1f}", f.value, f.u95); }
std::string upDown(const Figure& f, const char* up, const char* down) {
    return fmt::format("{:.1f}° ± {:.1f}° {}", std::abs(f.value) / one_degree, f.u95 / one_degree, f.value < 0 ? down : up);
}

class SetupDraft {
public:
    SetupDraft(Drawing& d, const AxleSetupView& v, double top, const Format& f)
        : d_(d), in_(*v.input), p_(*v.plan), f_(f), y_(top), tag_(v.tag) {}

    double draw() {
        y_ += f_.lead();
        d_.add(Text{{0, y_}, p_.name + " on the bench", f_.lead(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag_);
        const double begins = y_;
        wide_ = d_.width - f_.px(bench_column_px) - f_.px(30);
        if (in_.faces_mm) {
            behind();
            fromLeft();
            table();
        }
        const double figures_end = figures({d_.width - f_.px(bench_column_px), begins}, f_.px(bench_column_px));
        SheetWords words(d_, f_, y_ + f_.px(18), wide_, tag_);
        words.remarks(p_.remarks);
        std::string missing;
        for (const std::string& lack : p_.missing) missing += (missing.empty() ? "" : "; ") + lack;
        if (!missing.empty()) words.lines("Missing: " + missing + ".");
        words.list("Taken as usual, not measured: ", in_.assumed);
        return std::max(words.end(), figures_end) + f_.px(14);
    }

private:
    double tube() const { return in_.tube_mm ? in_.tube_mm->value : 76; }

    void behind() {
        const double half = in_.faces_mm->value / 2;
        double low = -tube(), high = tube();
        for (const BracketRow& b : p_.brackets) {
            const double up = b.from_middle_mm.value * std::sin(b.angle_rad.value);
            low = std::min(low, up - 20);
            high = std::max(high, up + 20);
        }
        const double room = f_.px(bench_view_px);
        const Projection to = fit(-half - 40, half + 40, low, high, {0, y_ + f_.px(54)}, wide_, room, true);
        d_.add(Text{{0, y_ + f_.px(18)},
                    "from behind: left is left. Tape every place from both wheel faces: what agrees from both is right",
                    f_.small(),
                    Ink::Second});
        const Pen steel{Ink::Chassis, f_.medium(), Dash::Solid};
        d_.add(Stroke{{to(-half, tube() / 2), to(half, tube() / 2), to(half, -tube() / 2), to(-half, -tube() / 2)}, true, steel},
               tag_);
        for (const double end : {-half, half})
            d_.add(Stroke{{to(end, tube() * 0.9), to(end, -tube() * 0.9)}, false, {Ink::Ink, f_.thick(), Dash::Solid}}, tag_);
        d_.add(Stroke{{to(0, high), to(0, low)}, false, {Ink::Faint, f_.thin(), Dash::DashDot}});
        const double spring = in_.spring_width_mm ? in_.spring_width_mm->value : 60;
        for (const PerchRow& perch : p_.perches) {
            const double at = perch.from_left_mm.value - half;
            d_.add(Fill{{to(at - spring / 2, tube() / 2), to(at + spring / 2, tube() / 2), to(at + spring / 2, tube() / 2 + 14),
                         to(at - spring / 2, tube() / 2 + 14)},
                        Ink::NewSteel},
                   tag_);
            marks_.push_back({to(at, tube() / 2 + 14), ++count_, true});
        }
        for (const BracketRow& b : p_.brackets) {
            const double at = b.from_left_mm.value - half, up = b.from_middle_mm.value * std::sin(b.angle_rad.value);
            const P hole = to(at, up);
            d_.add(Stroke{{to(at, up > 0 ? tube() / 2 : -tube() / 2), hole}, false, {Ink::NewSteel, f_.thick(), Dash::Solid}},
                   b.tag);
            d_.add(Circle{hole, f_.px(4), {Ink::NewSteel, f_.medium(), Dash::Solid}, false, true}, b.tag);
            marks_.push_back({hole, ++count_, up >= 0});
        }
        numbers(true, y_ + f_.px(36));
        numbers(false, y_ + f_.px(54) + room + f_.px(14));
        y_ += room + f_.px(80);
    }
    struct Numbered {
        P at;
        int number = 0;
        bool above = false;
    };
    /// In a row above or below the axle, side by side, each led to its place.
    void numbers(bool above, double y) {
        std::vector<Numbered> row;
        std::copy_if(marks_.begin(), marks_.end(), std::back_inserter(row), [&](const Numbered& n) { return n.above == above; });
        std::sort(row.begin(), row.end(), [](const Numbered& a, const Numbered& b) { return a.at.x < b.at.x; });
        double free = 0;
        for (const Numbered& n : row) {
            const double x = std::max(n.at.x, free);
            free = x + f_.px(22);
            d_.add(Stroke{{n.at, {x, y}}, false, {Ink::Faint, f_.thin(), Dash::Solid}}, tag_);
            d_.add(Circle{{x, y}, f_.px(9), {Ink::Ink, f_.thin(), Dash::Solid}, false, true}, tag_);
            d_.add(Text{{x, y}, fmt::format("{}", n.number), f_.small(), Ink::Ink, Anchor::Centre, Level::Middle}, tag_);
        }
    }

    /// The tube end on, the pinion pointing to the left: on the bench the pinion's line is what all is turned against.
    void fromLeft() {
        double reach = tube();
        for (const BracketRow& b : p_.brackets) reach = std::max(reach, b.from_middle_mm.value + 20);
        const double room = f_.px(bench_side_px);
        const Projection to =
            fit(-reach - 60, reach + 30, -reach, reach, {0, y_ + f_.px(26)}, wide_ * bench_side_share, room, true);
        d_.add(Text{{0, y_ + f_.px(16)}, "from the left, as it stands in the car", f_.small(), Ink::Second});
        d_.add(Circle{to(0, 0), to.scale * tube() / 2, {Ink::Chassis, f_.medium(), Dash::Solid}}, tag_);
        const auto line = [&](double slope, double from, double until, const Pen& pen, const std::string& words) {
            const auto at = [&](double along) {
                return to(along * std::cos(slope), -along * std::sin(slope));
            }; // rearward is to the right, down at the back
            d_.add(Stroke{{at(from), at(until)}, false, pen}, tag_);
            d_.add(Text{{at(from).x, at(from).y - f_.px(6)},
                        words,
                        f_.small(),
                        pen.ink,
                        Anchor::Left,
                        Level::Base,
                        Face::Sans,
                        Mark::None,
                        0,
                        true},
                   tag_);
        };
        d_.add(Stroke{{to(-reach, 0), to(reach, 0)}, false, {Ink::Faint, f_.thin(), Dash::DashDot}});
        if (in_.pinion_slope_rad)
            line(in_.pinion_slope_rad->value, -reach - 50, 0, {Ink::Ink, f_.medium(), Dash::Solid}, "pinion");
        if (in_.pad_slope_rad && !p_.perches.empty()) {
            const double s = in_.pad_slope_rad->value, r = tube() / 2 + 4;
            const auto at = [&](double along) {
                return to(along * std::cos(s) + r * std::sin(s), -along * std::sin(s) + r * std::cos(s));
            };
            d_.add(Stroke{{at(-60), at(60)}, false, {Ink::NewSteel, f_.thick(), Dash::Solid}}, tag_);
            d_.add(Text{{at(60).x + f_.px(6), at(60).y}, "spring's seat", f_.small(), Ink::NewSteel}, tag_);
        }
        int n = static_cast<int>(p_.perches.size());
        for (const BracketRow& b : p_.brackets) {
            ++n;
            const double r = b.from_middle_mm.value, a = b.angle_rad.value;
            const P hole = to(-r * std::cos(a), r * std::sin(a));
            d_.add(Stroke{{to(-tube() / 2 * std::cos(a), tube() / 2 * std::sin(a)), hole},
                          false,
                          {Ink::NewSteel, f_.medium(), Dash::Solid}},
                   b.tag);
            d_.add(Circle{hole, f_.px(4), {Ink::NewSteel, f_.medium(), Dash::Solid}, false, true}, b.tag);
            d_.add(Text{{hole.x + f_.px(7), hole.y - f_.px(5)},
                        fmt::format("{}", n),
                        f_.small(),
                        Ink::Ink,
                        Anchor::Left,
                        Level::Base,
                        Face::Sans,
                        Mark::None,
                        0,
                        true},
                   b.tag);
        }
        side_end_ = y_ + room + f_.px(34);
    }

    void table() {
        std::vector<std::vector<std::string>> rows;
        int n = 0;
        const auto bench = [&](const std::optional<Figure>& turned) {
            return turned ? upDown(*turned, "up", "down") : std::string("–");
        };
        for (const PerchRow& perch : p_.perches)
            rows.push_back({fmt::format("{}  {} perch, middle", ++n, perch.right ? "right" : "left"),
                            millimetres(perch.from_left_mm), millimetres(perch.from_right_mm), "on the tube",
                            p_.pinion_up_rad ? upDown(Figure{90 * one_degree - p_.pinion_up_rad->value, p_.pinion_up_rad->u95,
                                                             p_.pinion_up_rad->provenance},
                                                      "up", "down")
                                             : "–"});
        for (const BracketRow& b : p_.brackets)
            rows.push_back({fmt::format("{}  {}", ++n, b.name), millimetres(b.from_left_mm), millimetres(b.from_right_mm),
                            millimetres(b.from_middle_mm), bench(b.turned_rad)});
        if (rows.empty()) {
            y_ = side_end_;
            return;
        }
        const double left = wide_ * (bench_side_share + 0.02), wide = wide_ - left;
        const auto column = [&](const char* name, double share) {
            return Column{name, share * wide, Anchor::Left, Face::Sans, true};
        };
        const std::vector<Column> columns{column("from:", 0.24), column("left face, mm", 0.2), column("right face, mm", 0.2),
                                          column("tube's middle", 0.18), column("pinion's line", 0.18)};
        const double tall = tableHeight(columns, rows, f_.small());
        addTable(d_, {left, y_ + f_.px(8), wide, tall + f_.px(4)}, columns, rows, f_.small());
        y_ = std::max(side_end_, y_ + tall + f_.px(14));
    }

    double figures(P at, double width) {
        addMark(d_, {at.x + width - f_.px(8), at.y - f_.px(6)}, f_.px(14), severityOf(p_.verdict), tag_);
        FigureColumn column(d_, f_, at, width, tag_);
        if (in_.faces_mm) {
            column.head("The axle");
            column.row("face to face", millimetres(*in_.faces_mm), markOf(in_.faces_mm->provenance));
            if (in_.tube_mm) column.row("tube", fmt::format("{:.1f}", in_.tube_mm->value), markOf(in_.tube_mm->provenance));
        }
        if (p_.pinion_up_rad) column.row("pinion against the seats: nose", upDown(*p_.pinion_up_rad, "up", "down"));
        if (p_.wedge_rad) column.row("wedge on the seats: kingpin", upDown(*p_.wedge_rad, "back", "ahead"));
        if (p_.u_bolt) {
            column.head("U-bolts, four alike");
            column.row("between its legs", fmt::format("{:.0f} mm", p_.u_bolt->inside_mm));
            column.row("leg, from inside its bow", fmt::format("{:.0f} mm", p_.u_bolt->leg_mm));
            column.row("thread on each leg", fmt::format("{:.0f} mm", p_.u_bolt->thread_mm));
            column.row("rod for one", fmt::format("{:.0f} mm", p_.u_bolt->rod_mm));
        }
        for (const BracketRow& b : p_.brackets) {
            if (!b.rest_mm && !b.gap_mm) continue;
            column.head(b.name);
            if (b.rest_mm) column.row("at rest", millimetres(*b.rest_mm));
            if (b.shortest_mm) column.row("shortest", millimetres(*b.shortest_mm));
            if (b.longest_mm) column.row("longest", millimetres(*b.longest_mm));
            if (b.gap_mm) column.row("to the stop, at rest", millimetres(*b.gap_mm));
        }
        if (!p_.gears.empty()) column.head("Gears");
        for (std::size_t k = 0; k < p_.gears.size(); ++k)
            column.row(std::string(word(in_.gears[k].check)),
                       fmt::format("{:g} to {:g} {}", p_.gears[k].least, p_.gears[k].most, p_.gears[k].unit));
        if (!p_.gears.empty() && !in_.photos.empty())
            column.row("photos of how they bear", in_.photos.size() > 2
                                                      ? fmt::format("{} and {} more", in_.photos[0], in_.photos.size() - 1)
                                                      : fmt::format("{}", fmt::join(in_.photos, ", ")));
        if (!in_.tacks.empty()) column.head("Tacked, welded");
        for (const build::TackReading& t : in_.tacks)
            column.row(t.name,
                       t.welded ? fmt::format("{:.1f}, {:.1f}", t.tacked.value, t.welded->value)
                                : fmt::format("{:.1f}, –", t.tacked.value),
                       Mark::None);
        return column.end();
    }

    Drawing& d_;
    const AxleSetupIn& in_;
    const AxleSetupPlan& p_;
    const Format& f_;
    double y_;
    std::string tag_;
    double wide_ = 0, side_end_ = 0;
    int count_ = 0;
    std::vector<Numbered> marks_;
};

} // namespace

Drawing axleSetupSheet(const std::vector<AxleSetupView>& all, double width, double height, const Format& f) {
    Drawing d{width, height, {}, {}};
    double y = 0;
    for (const AxleSetupView& v : all) y = SetupDraft(d, v, y, f).draw();
    d.height = std::max(height, y);
    return d;
}

} // namespace gorvet::drive
