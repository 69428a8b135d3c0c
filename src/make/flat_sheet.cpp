#include "make/flat_sheet.hpp"

#include "make/crossmember.hpp"
#include "make/press.hpp"
#include "sheet/plan_words.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {

using namespace sheet;

namespace {

constexpr std::size_t most_chained = 4;  ///< holes that are measured on the drawing itself, too
constexpr std::size_t most_corners = 16; ///< that are said, each by itself
constexpr double dash_mm = 0.25;         ///< places nearer than this are one

struct Box {
    double left = 1e18, low = 1e18, right = -1e18, high = -1e18;
    double wide() const { return right - left; }
    double tall() const { return high - low; }
};
Box boxOf(const geometry::Outline& outline) {
    Box r;
    for (const auto& [a, b] : outline) {
        r.left = std::min(r.left, a);
        r.low = std::min(r.low, b);
        r.right = std::max(r.right, a);
        r.high = std::max(r.high, b);
    }
    return r;
}

/// Rows under headings, each column as wide as its widest; in two halves beside each other where they are many.
struct Rows {
    std::vector<std::string> head;
    std::vector<std::vector<std::string>> rows;

    double wide(const Format& f) const {
        double all = 0;
        for (std::size_t c = 0; c < head.size(); ++c) all += column(c, f);
        return all;
    }
    double column(std::size_t c, const Format& f) const {
        double most = textWidth(head[c], f.small(), Face::Bold);
        for (const auto& row : rows) most = std::max(most, textWidth(row[c], f.small(), Face::Sans));
        return most + f.px(14);
    }
    std::size_t halves(double width, const Format& f) const { return rows.size() > 8 && 2 * wide(f) + f.px(10) < width ? 2 : 1; }
    double tall(double width, const Format& f) const {
        if (rows.empty()) return 0;
        const std::size_t in = halves(width, f);
        return f.px(line_px) * static_cast<double>((rows.size() + in - 1) / in + 1) + f.px(8);
    }
    void draw(Drawing& d, P at, double width, const Format& f) const {
        if (rows.empty()) return;
        const std::size_t in = halves(width, f), each = (rows.size() + in - 1) / in;
        for (std::size_t half = 0; half < in; ++half) {
            double x = at.x + static_cast<double>(half) * (wide(f) + f.px(10));
            for (std::size_t c = 0; c < head.size(); ++c) {
                d.add(Text{{x, at.y}, head[c], f.small(), Ink::Second, Anchor::Left, Level::Base, Face::Bold});
                for (std::size_t k = half * each; k < std::min(rows.size(), (half + 1) * each); ++k)
                    d.add(Text{
                        {x, at.y + f.px(line_px) * static_cast<double>(k - half * each + 1)}, rows[k][c], f.small(), Ink::Ink});
                x += column(c, f);
            }
        }
    }
    static constexpr double line_px = 17;
};

class FlatDraft {
public:
    FlatDraft(const FlatPiece& p, units::LengthStep step, const Format& f) : p_(p), step_(step), f_(f), r_(boxOf(p.outline)) {}

    Drawing draw(double width, double height) {
        Drawing d{width, height, {}, {}};
        d.add(Text{{0, f_.body()},
                   fmt::format("{}{}, {} thick, {}", p_.count > 1 ? fmt::format("{} × ", p_.count) : "", p_.name,
                               trimmed(p_.thickness_mm), units::formatMass(p_.mass_kg)),
                   f_.body(),
                   Ink::Second});
        Rows holes = holeRows(), corners = cornerRows();
        const Rows bends = bendRows();
        const auto notes = noteLines(width);
        // what is left over its tables is the drawing's; where that is little, its section goes, then what its table has too many
        const double head = f_.px(40), dims = f_.px(70), foot = f_.px(26), least = height * least_drawn;
        const double notes_tall = f_.px(17) * static_cast<double>(notes.size());
        const auto left = [&] {
            return height - head - dims - foot - notes_tall - bends.tall(width, f_) - holes.tall(width, f_) -
                   corners.tall(width, f_);
        };
        if (left() < least) corners.rows.clear(); // they are on its pattern, 1 : 1
        const bool section = !p_.bends.empty() && left() - f_.px(section_px) > least;
        const std::size_t all = holes.rows.size();
        while (left() < least && holes.rows.size() > 1) holes.rows.pop_back();
        if (holes.rows.size() < all) holes.rows.back() = {"…", fmt::format("+ {}", all - holes.rows.size() + 1), "", "", "DXF"};
        const double drawn = left() - (section ? f_.px(section_px) : 0);
        const Projection to = fit(r_.left, r_.right, r_.low, r_.high, {f_.px(66), head}, width - f_.px(136), drawn, true);
        addFlat(d, p_, to, f_, "");
        dimensions(d, to);
        for (std::size_t k = 0; k < corners.rows.size(); ++k) corner(d, to, k);
        double y = head + drawn + dims;
        if (section) {
            bentSection(d, {0, y - f_.px(14)}, width, f_.px(section_px - 40));
            y += f_.px(section_px);
        }
        for (const Rows* table : std::array<const Rows*, 2>{&corners, &holes}) {
            table->draw(d, {0, y}, width, f_);
            y += table->tall(width, f_);
        }
        bends.draw(d, {0, y}, width, f_);
        y += bends.tall(width, f_);
        for (const std::string& line : notes) {
            d.add(Text{{0, y}, line, f_.small(), Ink::Second});
            y += f_.px(17);
        }
        addScale(d, {f_.px(2), height - f_.px(6)}, to.scale, f_);
        return d;
    }

private:
    static constexpr double section_px = 130, least_drawn = 0.2;

    std::vector<std::string> noteLines(double width) const {
        const auto press = pressPlan(p_);
        const std::string from = p_.holes.empty() && !hasCorners() ? "" : "Right and up are from the flat's lower left. ";
        if (!press) return from.empty() ? std::vector<std::string>{} : wrapped(from, width - f_.px(10), f_.small());
        std::string said =
            fmt::format("Bent on a vee of {} under a straight blade, upwards; stops are the flat's, from its nearer edge.",
                        trimmed(press->vee_mm));
        if (press->past_mm > 0)
            said =
                fmt::format("Bent on a vee of {} under a goose-neck cut back by {:.0f}, upwards; stops are the flat's, from its "
                            "nearer edge.",
                            trimmed(press->vee_mm), press->past_mm + blade_mm / 2);
        return wrapped(from + said, width - f_.px(10), f_.small());
    }
    std::string len(double mm) const { return units::formatLength(mm, step_); }

    Rows holeRows() const {
        Rows all{{"hole", "right", "up", "Ø", "for"}, {}};
        for (std::size_t k = 0; k < p_.holes.size(); ++k) {
            const FlatHole& h = p_.holes[k];
            all.rows.push_back(
                {fmt::format("{}", k + 1), len(h.at.first - r_.left), len(h.at.second - r_.low), trimmed(h.diameter_mm), h.what});
        }
        return all;
    }
    /// Corners of an outline that is no rectangle, where they are few: none of what is round.
    bool hasCorners() const {
        if (p_.outline.size() > most_corners) return false;
        return std::any_of(p_.outline.begin(), p_.outline.end(), [&](const auto& q) {
            const bool aside = q.first - r_.left > dash_mm && r_.right - q.first > dash_mm,
                       between = q.second - r_.low > dash_mm && r_.high - q.second > dash_mm;
            return aside || between;
        });
    }
    static std::string letter(std::size_t k) { return std::string(1, static_cast<char>('a' + k)); }
    Rows cornerRows() const {
        Rows all{{"corner", "right", "up"}, {}};
        for (std::size_t k = 0; hasCorners() && k < p_.outline.size(); ++k)
            all.rows.push_back({letter(k), len(p_.outline[k].first - r_.left), len(p_.outline[k].second - r_.low)});
        return all;
    }
    Rows bendRows() const {
        Rows all{{"bend", "by", "inside", "takes up", "stop", "press"}, {}};
        const auto press = pressPlan(p_);
        for (std::size_t k = 0; k < p_.bends.size(); ++k) {
            const FlatBend& b = p_.bends[k];
            std::vector<std::string> row{fmt::format("{}", k + 1),
                                         units::formatAngle(b.angle_rad, 0),
                                         trimmed(b.inside_mm),
                                         fmt::format("{:.1f}", b.allowance_mm),
                                         "",
                                         ""};
            if (press)
                for (const PressStep& s : press->steps)
                    if (s.bend == k) {
                        row[4] = len(s.stop_mm);
                        row[5] = fmt::format("{:.0f} kN", std::ceil(s.force_N / 1000));
                    }
            all.rows.push_back(std::move(row));
        }
        return all;
    }

    void dimensions(Drawing& d, const Projection& to) const {
        d.add(Dimension{to(r_.left, r_.low), to(r_.right, r_.low), -f_.px(44), len(r_.wide()), f_.small(), Ink::Ink,
                        Mark::Derived});
        d.add(
            Dimension{to(r_.left, r_.low), to(r_.left, r_.high), f_.px(44), len(r_.tall()), f_.small(), Ink::Ink, Mark::Derived});
        for (std::size_t k = 0; p_.holes.size() > 1 && k < p_.holes.size(); ++k) {
            const FlatHole& h = p_.holes[k];
            const P at = to(h.at.first, h.at.second);
            const double off = h.diameter_mm / 2 * to.scale + f_.px(3);
            d.add(Text{{at.x + off, at.y - off}, fmt::format("{}", k + 1), f_.small(), Ink::Second});
        }
        for (std::size_t k = 0; p_.bends.size() > 1 && k < p_.bends.size(); ++k) {
            const P at = to(p_.bends[k].to.first, p_.bends[k].to.second);
            d.add(Text{{at.x + f_.px(3), at.y + f_.px(12)}, fmt::format("{}", k + 1), f_.small(), Ink::Second});
        }
        // few holes from the two edges, each bend from the lower or the left one
        std::vector<double> across, up;
        if (p_.holes.size() <= most_chained)
            for (const FlatHole& h : p_.holes) {
                across.push_back(h.at.first - r_.left);
                up.push_back(h.at.second - r_.low);
            }
        for (const FlatBend& b : p_.bends) {
            const bool level = std::abs(b.to.first - b.from.first) > std::abs(b.to.second - b.from.second);
            if (level)
                up.push_back((b.from.second + b.to.second) / 2 - r_.low);
            else
                across.push_back((b.from.first + b.to.first) / 2 - r_.left);
        }
        chain(across, [&](double from, double until) {
            d.add(Dimension{to(r_.left + from, r_.low), to(r_.left + until, r_.low), -f_.px(20), len(until - from), f_.small(),
                            Ink::Ink, Mark::Derived});
        });
        chain(up, [&](double from, double until) {
            d.add(Dimension{to(r_.right, r_.low + until), to(r_.right, r_.low + from), f_.px(22), len(until - from), f_.small(),
                            Ink::Ink, Mark::Derived});
        });
    }
    /// A corner's letter, off it to the outside.
    void corner(Drawing& d, const Projection& to, std::size_t k) const {
        const P at = to(p_.outline[k].first, p_.outline[k].second), middle = to((r_.left + r_.right) / 2, (r_.low + r_.high) / 2);
        const double away = std::max(1e-6, std::hypot(at.x - middle.x, at.y - middle.y));
        d.add(Text{{at.x + f_.px(9) * (at.x - middle.x) / away, at.y + f_.px(9) * (at.y - middle.y) / away},
                   letter(k),
                   f_.small(),
                   Ink::Second,
                   Anchor::Centre,
                   Level::Middle});
    }
    template <class Add> static void chain(std::vector<double> places, const Add& add) {
        std::sort(places.begin(), places.end());
        double at = 0;
        for (const double a : places) {
            if (a - at < dash_mm) continue;
            add(at, a);
            at = a;
        }
    }

    /// Cut across its bends, as it comes out of the press.
    void bentSection(Drawing& d, P at, double width, double high) const {
        const auto section = bentOutline(p_);
        if (!section) return;
        const Box r = boxOf(*section);
        const Projection to = fit(r.left, r.right, r.low, r.high, {at.x + f_.px(40), at.y}, width * 0.5, high, true);
        Hatch cut{{}, {Ink::Second, f_.thin(), Dash::Solid}, f_.px(6)};
        Stroke edge{{}, true, {Ink::NewSteel, f_.medium(), Dash::Solid}};
        for (const auto& q : *section) {
            cut.polygon.push_back(to(q.first, q.second));
            edge.path.push_back(to(q.first, q.second));
        }
        d.add(std::move(cut));
        d.add(std::move(edge));
        d.add(Dimension{to(r.left, r.low), to(r.right, r.low), -f_.px(16), len(r.wide()), f_.small(), Ink::Ink, Mark::Derived});
        d.add(Dimension{to(r.left, r.low), to(r.left, r.high), f_.px(16), len(r.tall()), f_.small(), Ink::Ink, Mark::Derived});
        double y = at.y + f_.px(20);
        for (const std::string& line : wrapped("as bent, cut where it is widest", width * 0.5 - f_.px(64), f_.small())) {
            d.add(Text{{at.x + width * 0.5 + f_.px(60), y}, line, f_.small(), Ink::Second});
            y += f_.px(17);
        }
    }

    const FlatPiece& p_;
    units::LengthStep step_;
    const Format& f_;
    Box r_;
};

} // namespace

std::pair<double, double> flatSize(const FlatPiece& p) {
    const Box r = boxOf(p.outline);
    return p.outline.empty() ? std::pair{0.0, 0.0} : std::pair{r.wide(), r.tall()};
}
std::string sizeWords(const FlatPiece& p, units::LengthStep step) {
    const auto [w, h] = flatSize(p);
    return fmt::format("{} × {}", units::formatLength(w, step), units::formatLength(h, step));
}

Drawing flatDrawing(const FlatPiece& p) {
    const Box r = boxOf(p.outline);
    Drawing d{r.wide(), r.tall(), {}, {}};
    const auto to = [&](const geometry::Flat& q) { return P{q.first - r.left, r.high - q.second}; };
    Stroke outline{{}, true, {Ink::NewSteel, 0.25, Dash::Solid}};
    for (const auto& q : p.outline) outline.path.push_back(to(q));
    d.add(std::move(outline), "cut:outline");
    for (const FlatHole& h : p.holes)
        d.add(Circle{to(h.at), h.diameter_mm / 2, {Ink::NewSteel, 0.25, Dash::Solid}}, "cut:" + h.what);
    for (const geometry::Outline& window : p.windows) {
        Stroke s{{}, true, {Ink::NewSteel, 0.25, Dash::Solid}};
        for (const auto& q : window) s.path.push_back(to(q));
        d.add(std::move(s), "cut:window");
    }
    for (const FlatBend& b : p.bends) d.add(Stroke{{to(b.from), to(b.to)}, false, {Ink::Second, 0.25, Dash::DashDot}}, "bend");
    return d;
}

Drawing flatSheet(const FlatPiece& p, units::LengthStep step, double width, double height, const Format& f) {
    return FlatDraft(p, step, f).draw(width, height);
}

void addFlat(Drawing& d, const FlatPiece& piece, const Projection& to, const Format& f, const std::string& tag) {
    const auto closed = [&](const geometry::Outline& outline, double weight) {
        Stroke s{{}, true, {Ink::NewSteel, weight, Dash::Solid}};
        for (const auto& [a, b] : outline) s.path.push_back(to(a, b));
        d.add(std::move(s), tag);
    };
    closed(piece.outline, f.medium());
    for (const geometry::Outline& window : piece.windows) closed(window, f.thin());
    for (const FlatHole& h : piece.holes)
        d.add(Circle{to(h.at.first, h.at.second), h.diameter_mm / 2 * to.scale, {Ink::NewSteel, f.thin(), Dash::Solid}}, tag);
    for (const FlatBend& b : piece.bends)
        d.add(
            Stroke{{to(b.from.first, b.from.second), to(b.to.first, b.to.second)}, false, {Ink::Second, f.thin(), Dash::DashDot}},
            tag);
}

} // namespace gorvet::make
