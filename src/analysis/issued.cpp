// What stood on drawings that were handed out, against what stands on them now.
#include "analysis/issued.hpp"

#include "analysis/steel.hpp"
#include "geometry/outline.hpp"
#include "make/flat_sheet.hpp"
#include "work/buy.hpp"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// What a drawing shows, and what a saw and a tape do.
constexpr double shown_mm = 0.05, matters_mm = 0.5;
constexpr double shown_rad = 0.05 * units::pi / 180, matters_rad = 0.25 * units::pi / 180;

void addLine(std::vector<double>& lines, const geometry::Outline& outline) {
    lines.push_back(static_cast<double>(outline.size()));
    for (const auto& [x, y] : outline) lines.insert(lines.end(), {x, y});
}
/// What was written by `addLine`, as far as it is whole.
std::vector<geometry::Outline> linesFrom(const std::vector<double>& lines) {
    std::vector<geometry::Outline> all;
    for (std::size_t k = 0; k < lines.size();) {
        const double said = lines[k++];
        if (!(said >= 0) || said > static_cast<double>(lines.size() - k) / 2) break;
        geometry::Outline outline;
        for (auto corners = static_cast<std::size_t>(said); corners > 0; --corners, k += 2)
            outline.push_back({lines[k], lines[k + 1]});
        all.push_back(std::move(outline));
    }
    return all;
}

IssuedPiece drawnBar(const SteelBar& bar) {
    IssuedPiece p;
    p.piece = bar.name;
    p.count = bar.count;
    p.stock = bar.stock.empty() ? work::sectionWords(bar.form, bar.height_mm, bar.width_mm, bar.wall_mm) : bar.stock;
    p.length_mm = bar.length_mm;
    p.ends = bar.ends;
    p.angles_rad = bar.tilts_rad;
    for (const make::TubeBend& bend : bar.bends) {
        p.bends_mm.push_back(bend.from_mm);
        p.angles_rad.insert(p.angles_rad.end(), {bend.angle_rad, bend.turned_rad});
    }
    return p;
}
IssuedPiece drawnFlat(const make::FlatPiece& flat) {
    IssuedPiece p;
    p.piece = flat.name;
    p.count = flat.count;
    p.thickness_mm = flat.thickness_mm;
    addLine(p.lines_mm, flat.outline);
    for (const geometry::Outline& window : flat.windows) addLine(p.lines_mm, window);
    for (const make::FlatHole& h : flat.holes) p.holes_mm.insert(p.holes_mm.end(), {h.at.first, h.at.second, h.diameter_mm});
    for (const make::FlatBend& bend : flat.bends) {
        p.bends_mm.insert(p.bends_mm.end(), {bend.from.first, bend.from.second, bend.to.first, bend.to.second, bend.inside_mm});
        p.angles_rad.push_back(bend.angle_rad);
    }
    return p;
}
IssuedPiece drawnFixing(const SteelFixing& f) {
    IssuedPiece p;
    p.piece = f.name;
    p.count = f.count;
    p.stock = f.stock;
    p.length_mm = f.length_mm;
    p.ends = f.ends;
    return p;
}

/// Two texts with the same words and figures that differ by no more than their rounding: a tenth.
bool sameText(const std::string& a, const std::string& b, double by) {
    std::size_t i = 0, j = 0;
    const auto digit = [](const std::string& s, std::size_t k) { return k < s.size() && s[k] >= '0' && s[k] <= '9'; };
    while (i < a.size() && j < b.size()) {
        if (digit(a, i) && digit(b, j)) {
            double x = 0, y = 0;
            i = static_cast<std::size_t>(std::from_chars(a.data() + i, a.data() + a.size(), x).ptr - a.data());
            j = static_cast<std::size_t>(std::from_chars(b.data() + j, b.data() + b.size(), y).ptr - b.data());
            if (std::abs(x - y) > by + 1e-9) return false;
        } else if (a[i++] != b[j++]) {
            return false;
        }
    }
    return i == a.size() && j == b.size();
}

class Comparer {
public:
    Comparer(const IssuedPiece& was, const IssuedPiece& now, units::LengthStep step) : was_(was), now_(now), step_(step) {}

    PieceChange compared() {
        c_.thing = now_.thing;
        c_.piece = now_.piece;
        c_.matters = false;
        if (now_.count != was_.count) say(true, fmt::format("{:g} of them (was {:g})", now_.count, was_.count));
        if (!sameText(now_.stock, was_.stock, 0)) say(true, fmt::format("of {} (was {})", now_.stock, was_.stock));
        length("{} long (was {})", now_.length_mm, was_.length_mm);
        length("{} thick (was {})", now_.thickness_mm, was_.thickness_mm, shown_mm);
        ends();
        lines();
        holes();
        bends();
        return std::move(c_);
    }

private:
    std::string len(double mm) const { return units::formatLength(mm, step_, true); }
    void say(bool matters, std::string words) {
        c_.what.push_back(std::move(words));
        c_.matters |= matters;
    }
    void length(const char* words, double now, double was, double matters = matters_mm) {
        if (std::abs(now - was) > shown_mm)
            say(std::abs(now - was) > matters, fmt::format(fmt::runtime(words), len(now), len(was)));
    }
    /// Other numbers of something are said; else whether what there is moved, and by how much at the most.
    bool counted(std::size_t now, std::size_t was, const char* one) {
        if (now == was) return false;
        say(true, fmt::format("{} (was {})", units::counted(now, one), was));
        return true;
    }
    void moved(double mm, const std::string& what) {
        if (mm > shown_mm) say(mm > matters_mm, fmt::format("{} moved by up to {}", what, len(mm)));
    }
    static double farthest(const geometry::Outline& a, const geometry::Outline& b) {
        double most = 0;
        for (std::size_t k = 0; k < a.size(); ++k)
            most = std::max(most, std::hypot(a[k].first - b[k].first, a[k].second - b[k].second));
        return most;
    }
    static std::pair<double, double> sizeOf(const geometry::Outline& outline) {
        make::FlatPiece flat;
        flat.outline = outline;
        return make::flatSize(flat);
    }
    /// By their words; what is sawn off square by how each end is tilted: where it is next to nothing, its direction is
    /// anybody's.
    void ends() {
        const auto now = tilts(now_), was = tilts(was_);
        const bool tilted = now.size() == tilts_of_two && was.size() == tilts_of_two;
        double most = 0;
        for (std::size_t end = 0; tilted && end < tilts_of_two; end += 2)
            most = std::max(most, std::hypot(now[end] - was[end], now[end + 1] - was[end + 1]));
        const std::string words = tilted ? squared(now_.ends) : now_.ends, before = tilted ? squared(was_.ends) : was_.ends;
        if (sameText(words, before, 0.1) && most <= shown_rad) return;
        say(!sameText(words, before, 0.5) || most > matters_rad, fmt::format("ends {} (was {})", now_.ends, was_.ends));
    }
    static constexpr std::size_t tilts_of_two = 4;
    static std::vector<double> tilts(const IssuedPiece& p) {
        const std::size_t of_bends = p.lines_mm.empty() ? 2 * p.bends_mm.size() : p.angles_rad.size();
        return {p.angles_rad.begin(), p.angles_rad.end() - static_cast<std::ptrdiff_t>(std::min(of_bends, p.angles_rad.size()))};
    }
    /// Its words with every end that is sawn off square as square.
    static std::string squared(const std::string& words) {
        std::string all;
        for (std::size_t from = 0; from <= words.size();) {
            const std::size_t until = std::min(words.find("; ", from), words.size());
            const std::string one = words.substr(from, until - from);
            const bool both = one.starts_with("both ");
            const std::string end = one.find("off square") != std::string::npos ? "square" : one.substr(both ? 5 : 0);
            for (int k = 0; k < (both ? 2 : 1); ++k) all += end + "; ";
            from = until + 2;
        }
        return all;
    }
    void lines() {
        const auto now = linesFrom(now_.lines_mm), was = linesFrom(was_.lines_mm);
        if (now.empty() || was.empty()) {
            if (now.empty() != was.empty()) say(true, now.empty() ? "no longer flat" : "flat now");
            return;
        }
        const auto [w, h] = sizeOf(now.front());
        const auto [was_w, was_h] = sizeOf(was.front());
        const double by = std::max(std::abs(w - was_w), std::abs(h - was_h));
        const auto size = [&](double across, double high) {
            return fmt::format("{} × {}", units::formatLength(across, step_), len(high));
        };
        if (by > shown_mm) say(by > matters_mm, fmt::format("{} (was {})", size(w, h), size(was_w, was_h)));
        if (!counted(now.front().size(), was.front().size(), "a corner") && by <= shown_mm)
            moved(farthest(now.front(), was.front()), "corners");
        if (counted(now.size() - 1, was.size() - 1, "a window")) return;
        double most = 0;
        for (std::size_t k = 1; k < now.size(); ++k) {
            if (counted(now[k].size(), was[k].size(), "a window's corner")) continue;
            most = std::max(most, farthest(now[k], was[k]));
        }
        moved(most, "windows");
    }
    void holes() {
        const auto &now = now_.holes_mm, &was = was_.holes_mm;
        if (counted(now.size() / 3, was.size() / 3, "a hole")) return;
        double most = 0;
        std::map<std::string, int> drilled;
        bool wide = false;
        for (std::size_t k = 0; k + 2 < now.size(); k += 3) {
            most = std::max(most, std::hypot(now[k] - was[k], now[k + 1] - was[k + 1]));
            if (std::abs(now[k + 2] - was[k + 2]) <= shown_mm) continue;
            wide = true;
            ++drilled[fmt::format("{} wide (was {})", len(now[k + 2]), len(was[k + 2]))];
        }
        for (const auto& [words, count] : drilled)
            say(wide, fmt::format("{} {}", units::counted(static_cast<std::size_t>(count), "a hole"), words));
        moved(most, now.size() > 3 ? "holes" : "the hole");
    }
    void bends() {
        const std::size_t numbers = now_.lines_mm.empty() ? 1 : 5; // of each
        if (counted(now_.bends_mm.size() / numbers, was_.bends_mm.size() / numbers, "a bend")) return;
        const std::size_t skip = tilts(now_).size(), skipped = tilts(was_).size();
        double turned = 0;
        for (std::size_t k = 0; k + skip < now_.angles_rad.size() && k + skipped < was_.angles_rad.size(); ++k) {
            const double now = now_.angles_rad[k + skip], was = was_.angles_rad[k + skipped], by = std::abs(now - was);
            if (by <= std::max(shown_rad, turned)) continue;
            turned = by;
            last_ = fmt::format("a bend by {} (was {})", units::formatAngle(now, 1), units::formatAngle(was, 1));
        }
        if (turned > 0) say(turned > matters_rad, last_);
        double most = 0;
        for (std::size_t k = 0; k < std::min(now_.bends_mm.size(), was_.bends_mm.size()); ++k)
            most = std::max(most, std::abs(now_.bends_mm[k] - was_.bends_mm[k]));
        moved(most, "bends");
    }

    const IssuedPiece& was_;
    const IssuedPiece& now_;
    units::LengthStep step_;
    PieceChange c_;
    std::string last_;
};

/// Pieces by thing and name; those of one name in their order.
using Called = std::pair<std::string, std::string>;
std::map<Called, std::vector<const IssuedPiece*>> byName(const std::vector<IssuedPiece>& pieces) {
    std::map<Called, std::vector<const IssuedPiece*>> all;
    for (const IssuedPiece& p : pieces) all[{p.thing, p.piece}].push_back(&p);
    return all;
}

} // namespace

std::vector<IssuedPiece> drawnNow(const Build& b, const Results& r) {
    std::vector<IssuedPiece> all;
    for (const SteelThing& t : steelThings(b, r)) {
        const std::size_t first = all.size();
        for (const SteelBar& bar : t.bars) all.push_back(drawnBar(bar));
        for (const make::FlatPiece& flat : t.flats) all.push_back(drawnFlat(flat));
        for (const SteelFixing& f : t.fixings) all.push_back(drawnFixing(f));
        for (std::size_t k = first; k < all.size(); ++k) all[k].thing = t.tag;
    }
    return all;
}

std::vector<PieceChange> changesBetween(const std::vector<IssuedPiece>& was, const std::vector<IssuedPiece>& now,
                                        units::LengthStep step) {
    std::vector<PieceChange> all;
    const auto before = byName(was), after = byName(now);
    std::map<Called, std::size_t> seen;
    for (const IssuedPiece& p : now) {
        const Called called{p.thing, p.piece};
        const std::size_t k = seen[called]++;
        const auto old = before.find(called);
        if (old == before.end() || k >= old->second.size()) {
            all.push_back({PieceChange::Kind::New, p.thing, p.piece, {}, true});
            continue;
        }
        PieceChange c = Comparer(*old->second[k], p, step).compared();
        if (!c.what.empty()) all.push_back(std::move(c));
    }
    for (const auto& [called, pieces] : before) {
        const auto found = after.find(called);
        for (std::size_t k = found == after.end() ? 0 : found->second.size(); k < pieces.size(); ++k)
            all.push_back({PieceChange::Kind::Gone, called.first, called.second, {}, true});
    }
    return all;
}

std::string changeWords(const PieceChange& c) {
    return c.kind == PieceChange::Kind::New    ? "new"
           : c.kind == PieceChange::Kind::Gone ? "no longer made"
                                               : fmt::format("{}", fmt::join(c.what, ", "));
}

IssuesNow issuesNow(const Build& b, const Results& r) {
    IssuesNow all;
    std::map<IssueId, std::size_t> place;
    for (const auto& [id, issue] : b.issues) {
        if (issue.taken_back) {
            all.taken_back.push_back(issue);
            continue;
        }
        place[id] = all.records.size();
        all.records.push_back({issue, {}, {}});
    }
    if (all.records.empty()) return all;
    for (const auto& [id, piece] : b.issued_pieces)
        if (const auto found = place.find(piece.issue); found != place.end()) all.records[found->second].pieces.push_back(piece);
    const auto step = b.settings.length_step;
    for (std::size_t k = 1; k < all.records.size(); ++k)
        all.records[k].changes = changesBetween(all.records[k - 1].pieces, all.records[k].pieces, step);
    all.since = changesBetween(all.records.back().pieces, drawnNow(b, r), step);
    return all;
}

namespace {
/// What a piece is called on its thing's own drawing.
std::string pieceOf(const PieceChange& c) {
    for (const std::string& before : {thingCalled(c.thing, c.piece) + ": ", c.thing + ": "})
        if (c.piece.starts_with(before)) return c.piece.substr(before.size());
    return c.piece;
}
} // namespace

std::string thingWords(const std::vector<PieceChange>& changes, const std::string& thing) {
    std::string words;
    for (const PieceChange& c : changes)
        if (c.thing == thing) words += fmt::format("{}{}: {}", words.empty() ? "" : "; ", pieceOf(c), changeWords(c));
    return words;
}

std::vector<std::string> thingsOf(const std::vector<PieceChange>& changes) {
    std::vector<std::string> all;
    for (const PieceChange& c : changes)
        if (std::find(all.begin(), all.end(), c.thing) == all.end()) all.push_back(c.thing);
    return all;
}

std::string thingCalled(const std::string& thing, const std::string& piece) {
    const auto colon = thing.find(':');
    if (colon == std::string::npos || thing.starts_with("mount:")) return piece; // a mount's tag has a number for a name
    return thing.substr(colon + 1);
}

std::string issueMark(const IssuesNow& issues, const std::string& thing) {
    const auto revisions = revisionsOf(issues, thing);
    if (revisions.empty()) return issues.records.empty() ? "" : "not handed out";
    const bool open = revisions.back().name.empty();
    const std::string& name = open ? revisions[revisions.size() - 2].name : revisions.back().name;
    return open ? "changed since issue " + name : "issue " + name;
}

std::vector<Revision> revisionsOf(const IssuesNow& issues, const std::string& thing) {
    std::vector<Revision> all;
    for (const IssueRecord& record : issues.records) {
        const bool there =
            std::any_of(record.pieces.begin(), record.pieces.end(), [&](const IssuedPiece& p) { return p.thing == thing; });
        const std::string words = thingWords(record.changes, thing);
        const std::string day = record.issue.handed_out.at_utc.substr(0, 10);
        if (there && all.empty())
            all.push_back({record.issue.name, day, "handed out first"});
        else if (!words.empty())
            all.push_back({record.issue.name, day, words});
    }
    if (all.empty()) return all;
    if (const std::string words = thingWords(issues.since, thing); !words.empty()) all.push_back({"", "", words});
    return all;
}

} // namespace gorvet::analysis
