// What closing the open rails of a frame brings: plates, windows, ribs, uprights, and the members that are open, too.
#include "analysis/frame_boxing.hpp"

#include "analysis/scans.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

namespace {

constexpr double least_plate_mm = 3;
constexpr double hours_a_metre = 1.2; ///< of seam: fitting, tacking in turns, welding, dressing. Assumed
constexpr std::size_t most_bays = 6;  ///< all sets of them are tried
constexpr double plates_mm[] = {3, 4, 5, 6, 8};
constexpr double rib_pitch_heights = 3;

using Bay = std::pair<double, double>; ///< stations from and to

/// A frame of open rails whose bays can be closed.
class Boxing {
public:
    Boxing(const frame::Structure& s, const frame::Outcome& o, bool planned) : s_(s), planned_(planned) {
        for (std::size_t l = 0; l < s.lines.size(); ++l) {
            const frame::Line& line = s.lines[l];
            const bool any = std::any_of(line.pieces.begin(), line.pieces.end(), open);
            const bool meets = std::find(o.loose.begin(), o.loose.end(), line.name) == o.loose.end();
            if (any && line.rail)
                rails_.push_back(l);
            else if (any && meets && !line.outrigger && !line.clad)
                members_.push_back(l);
        }
        if (rails_.empty()) return;
        const frame::Line& rail = s.lines[rails_.front()];
        const auto piece = std::find_if(rail.pieces.begin(), rail.pieces.end(), open);
        height_ = piece->section.sizes[0];
        width_ = piece->section.sizes[1];
        wall_ = piece->section.sizes[2];
        plate_ = std::max(least_plate_mm, wall_);
        for (const frame::AtPlace& p : o.lines[rails_.front()].places)
            if (p.weld && (joints_.empty() || p.at.x_mm - joints_.back() > height_)) joints_.push_back(p.at.x_mm);
        for (std::size_t k = 1; k < joints_.size(); ++k)
            if (openIn({joints_[k - 1], joints_[k]})) bays_.push_back({joints_[k - 1], joints_[k]});
        while (bays_.size() > most_bays) join();
    }
    bool any() const { return !bays_.empty(); }

    std::vector<BoxingChoice> choices(std::optional<double> wanted, const std::function<bool(double)>& progress, bool& stopped) {
        std::vector<BoxingChoice> list;
        const auto keep = [&](std::optional<BoxingChoice> c) {
            if (c) list.push_back(std::move(*c));
        };
        BoxingChoice plain;
        plain.name = planned_ ? "as planned" : "as it is";
        keep(worked(std::move(plain)));
        std::vector<Bay> at_joints;
        for (const double x : joints_) at_joints.push_back({x - height_, x + height_});
        keep(worked(plates("at joints", fmt::format("{:.0f} each way of every joint", height_), at_joints)));
        // of all sets of bays: for each number of them the stiffest
        const std::size_t sets = std::size_t{1} << bays_.size();
        std::vector<std::optional<BoxingChoice>> best(bays_.size() + 1);
        const double part = wanted ? 0.3 : 0.9;
        for (std::size_t set = 1; set < sets; ++set) {
            if (stopped = !progress(part * static_cast<double>(set) / static_cast<double>(sets)); stopped) return {};
            auto c = worked(ofSet(set));
            const std::size_t n = c ? c->plates.size() : 0;
            if (c && (!best[n] || c->twist.free_nm_deg > best[n]->twist.free_nm_deg)) best[n] = std::move(c);
        }
        for (auto& c : best) keep(std::move(c));
        keep(worked(windowed()));
        if (!members_.empty()) {
            BoxingChoice c = ofSet(sets - 1);
            c.name += " and members";
            c.words += membersWords();
            c.members = true;
            keep(worked(std::move(c)));
        }
        keep(worked(ribs()));
        keep(worked(uprights()));
        if (!wanted) return list;
        keep(least(
            *wanted, [&](double share) { return progress(part + (1 - part) * share); }, stopped));
        return list;
    }

private:
    static bool open(const frame::Piece& p) { return p.section.shape == "channel"; }

    /// Whether something of it is still open.
    bool openIn(const Bay& bay) const {
        for (const std::size_t l : rails_) {
            const double from = frame::alongTo(s_.lines[l], bay.first), to = frame::alongTo(s_.lines[l], bay.second);
            double begin = 0;
            for (const frame::Piece& p : s_.lines[l].pieces) {
                if (open(p) && std::min(to, p.until_mm) - std::max(from, begin) > 1) return true;
                begin = p.until_mm;
            }
        }
        return false;
    }

    /// The two shortest bays beside each other become one.
    void join() {
        std::size_t shortest = 1;
        for (std::size_t k = 2; k < bays_.size(); ++k)
            if (bays_[k].second - bays_[k - 1].first < bays_[shortest].second - bays_[shortest - 1].first) shortest = k;
        bays_[shortest - 1].second = bays_[shortest].second;
        bays_.erase(bays_.begin() + static_cast<std::ptrdiff_t>(shortest));
    }

    // ---- what can be done

    BoxingChoice plates(std::string name, std::string words, std::vector<Bay> where) const {
        BoxingChoice c;
        c.name = std::move(name);
        c.words = std::move(words);
        c.plates = std::move(where);
        c.plate_mm = plate_;
        return c;
    }
    BoxingChoice ofSet(std::size_t set) const {
        std::vector<Bay> where;
        std::string words;
        for (std::size_t k = 0; k < bays_.size(); ++k)
            if (set >> k & 1) {
                where.push_back(bays_[k]);
                words += fmt::format("{}{:.0f} to {:.0f}", words.empty() ? "" : ", ", bays_[k].first, bays_[k].second);
            }
        const std::size_t n = where.size();
        return plates(n == bays_.size() ? "all bays" : fmt::format("best {} of {}", n, bays_.size()), words, where);
    }
    BoxingChoice windowed() const {
        constexpr double long_heights = 0.6, high_heights = 0.45, step = 5;
        BoxingChoice c = plates("windowed", "", bays_);
        const auto round = [](double mm) { return step * std::round(mm / step); };
        c.windows = {round(long_heights * height_), round(high_heights * height_), round(height_)};
        c.words = fmt::format("all bays, windows {:.0f} by {:.0f}, one every {:.0f}", c.windows.long_mm, c.windows.high_mm,
                              c.windows.pitch_mm);
        return c;
    }
    BoxingChoice ribs() const {
        BoxingChoice c;
        c.name = "ribs";
        c.plate_mm = plate_;
        c.rib_pitch_mm = rib_pitch_heights * height_;
        c.ribs = bays_;
        c.words =
            fmt::format("flat, {:g} thick, one every {:.0f} along all bays, welded to web and flanges", plate_, c.rib_pitch_mm);
        return c;
    }
    BoxingChoice uprights() const {
        constexpr double of_height = 0.3, step = 5, wall = 2, least = 15;
        BoxingChoice c = ribs();
        c.name = "uprights";
        c.upright_mm = std::clamp(step * std::round(of_height * height_ / step), least, std::max(least, width_ - wall_));
        c.plate_mm = wall;
        c.words = fmt::format("tubes {:.0f} × {:.0f} × {:g} upright against the web, one every {:.0f} along all bays",
                              c.upright_mm, c.upright_mm, wall, c.rib_pitch_mm);
        return c;
    }
    std::string membersWords() const {
        std::string words = "; closed with plates, too: ";
        for (std::size_t k = 0; k < members_.size(); ++k) words += (k ? ", " : "") + s_.lines[members_[k]].name;
        return words;
    }
    /// The lightest whole plates that reach a stiffness.
    std::optional<BoxingChoice> least(double wanted, const std::function<bool(double)>& progress, bool& stopped) {
        std::vector<BoxingChoice> all;
        for (std::size_t set = 1; set < std::size_t{1} << bays_.size(); ++set)
            for (const double plate : plates_mm) {
                BoxingChoice c = ofSet(set);
                c.plate_mm = plate;
                weigh(c);
                all.push_back(std::move(c));
            }
        std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.kg < b.kg; });
        for (std::size_t k = 0; k < all.size(); ++k) {
            if (stopped = !progress(static_cast<double>(k) / static_cast<double>(all.size())); stopped) return {};
            auto c = worked(all[k]);
            if (!c || c->twist.free_nm_deg < wanted) continue;
            c->name = "least";
            c->words = fmt::format("for {:.0f} N·m/deg: {} with {:g} mm", wanted, c->words, c->plate_mm);
            return c;
        }
        return {};
    }

    // ---- worked out

    void weigh(BoxingChoice& c) const {
        frame::Structure s = s_;
        apply(s, c);
    }
    std::optional<BoxingChoice> worked(BoxingChoice c) {
        frame::Structure s = s_;
        c.kg = c.seam_m = 0;
        apply(s, c);
        const auto twist = frame::twistOf(s, book_);
        if (!twist) return {};
        c.twist = *twist;
        c.hours = c.seam_m * hours_a_metre;
        return c;
    }
    void apply(frame::Structure& s, BoxingChoice& c) const {
        for (const std::size_t l : rails_) {
            for (const Bay& p : c.plates)
                close(s.lines[l], frame::alongTo(s.lines[l], p.first), frame::alongTo(s.lines[l], p.second), c);
            for (const Bay& p : c.ribs) rib(s.lines[l], p, c);
        }
        constexpr double all_of_it = 1e12;
        if (c.members)
            for (const std::size_t l : members_) close(s.lines[l], 0, all_of_it, c);
    }
    static double lengthOf(const frame::Line& l) {
        double length = 0;
        for (std::size_t k = 1; k < l.points.size(); ++k) length += geometry::between(l.points[k - 1], l.points[k]);
        return length;
    }
    /// Closes what is open of a line between two of its places.
    void close(frame::Line& l, double from, double to, BoxingChoice& c) const {
        std::vector<frame::Piece> pieces;
        const double end = lengthOf(l);
        double begin = 0;
        for (frame::Piece p : l.pieces) {
            p.until_mm = std::min(p.until_mm, end);
            const double a = std::clamp(from, begin, p.until_mm), b = std::clamp(to, begin, p.until_mm);
            if (!open(p) || b - a < 1) {
                pieces.push_back(p);
            } else {
                frame::Piece part = p;
                part.until_mm = a;
                if (a - begin > 1) pieces.push_back(part);
                frame::Piece closed = p;
                closed.until_mm = b;
                const frame::Windows& w = c.windows;
                const bool windows = w.long_mm > 0 && w.high_mm + 2 < p.section.sizes[0] - p.section.sizes[2];
                closed.section.shape = windows ? "windowed" : "boxed";
                std::vector<double> more{c.plate_mm};
                if (windows) more.insert(more.end(), {w.long_mm, w.high_mm, w.pitch_mm});
                closed.section.sizes.insert(closed.section.sizes.begin() + 3, more.begin(), more.end());
                pieces.push_back(closed);
                if (p.until_mm - b > 1) pieces.push_back(p);
                const double height = p.section.sizes[0] - p.section.sizes[2];
                const double gone = windows ? w.long_mm * w.high_mm / w.pitch_mm : 0; // a millimetre of its length
                c.kg += (b - a) * (height - gone) * c.plate_mm * s_.material.kg_mm3;
                c.seam_m += (2 * (b - a) + 2 * height) / 1000;
            }
            begin = p.until_mm;
        }
        l.pieces = std::move(pieces);
    }
    void rib(frame::Line& l, const Bay& stations, BoxingChoice& c) const {
        const double from = frame::alongTo(l, stations.first), to = frame::alongTo(l, stations.second);
        // spread evenly, none on the joints themselves
        const int n = static_cast<int>(std::floor((to - from) / c.rib_pitch_mm));
        for (int k = 1; k <= n; ++k) {
            const double along = from + (to - from) * k / (n + 1);
            const auto piece =
                std::find_if(l.pieces.begin(), l.pieces.end(), [&](const frame::Piece& p) { return along < p.until_mm; });
            if (piece == l.pieces.end() || !open(*piece)) continue;
            const auto& v = piece->section.sizes;
            const double height = v[0] - v[2], width = v[1] - v[2] / 2, g = s_.material.g_mpa;
            if (c.upright_mm > 0) {
                const double middle = c.upright_mm - c.plate_mm; // J of a thin square tube: t a³
                l.ribs.push_back({along, frame::uprightRib_nmm3(height, c.plate_mm * std::pow(middle, 3), g)});
                c.kg += 4 * middle * c.plate_mm * (v[0] - 2 * v[2]) * s_.material.kg_mm3;
                c.seam_m += (2 * (v[0] - 2 * v[2]) + 6 * c.upright_mm) / 1000;
            } else {
                l.ribs.push_back({along, frame::flatRib_nmm3(height, width, c.plate_mm, g)});
                c.kg += (v[0] - 2 * v[2]) * (v[1] - v[2]) * c.plate_mm * s_.material.kg_mm3;
                c.seam_m += (v[0] - 2 * v[2] + 2 * (v[1] - v[2])) / 1000;
            }
        }
    }

    const frame::Structure& s_;
    bool planned_;
    frame::SectionBook book_;
    std::vector<std::size_t> rails_, members_; ///< lines that are open
    std::vector<double> joints_;
    std::vector<Bay> bays_;
    double height_ = 0, width_ = 0, wall_ = 0;
    double plate_ = least_plate_mm;
};

} // namespace

std::optional<std::vector<BoxingChoice>> boxingOf(const frame::Structure& s, const frame::Outcome& o, bool planned,
                                                  std::optional<double> wanted, const std::function<bool(double)>& progress) {
    Boxing boxing(s, o, planned);
    if (!boxing.any()) return std::vector<BoxingChoice>{};
    bool stopped = false;
    auto list = boxing.choices(wanted, progress, stopped);
    if (stopped) return std::nullopt;
    return list;
}

std::vector<std::string> boxingLines(const build::Build& b, const Results& r, const BoxingChoice& c) {
    std::vector<std::string> lines;
    int n = 0;
    const auto line = [&](const char* kind, const Bay& where, const std::string& what) {
        std::string name;
        do name = fmt::format("{}{}", kind, ++n);
        while (build::memberNamed(b, name));
        lines.push_back(fmt::format("member {} {} from {:.0f}mm to {:.0f}mm {} planned", name, kind,
                                    r.planned_chassis.stationNow(where.first), r.planned_chassis.stationNow(where.second), what));
    };
    std::string plate = fmt::format("{:g}mm", c.plate_mm);
    if (c.windows.long_mm > 0)
        plate += fmt::format(" windows {:g}mm {:g}mm pitch {:g}mm", c.windows.long_mm, c.windows.high_mm, c.windows.pitch_mm);
    for (const Bay& p : c.plates) line("plate", p, plate);
    for (const Bay& p : c.ribs) {
        const double first = (p.second - p.first) / (std::floor((p.second - p.first) / c.rib_pitch_mm) + 1);
        if (!(p.second - p.first > c.rib_pitch_mm)) continue;
        constexpr double with_the_last = 1;
        line("rib", {p.first + first, p.second - first + with_the_last},
             (c.upright_mm > 0 ? fmt::format("box {0:g}mm {0:g}mm {1:g}mm", c.upright_mm, c.plate_mm)
                               : fmt::format("{:g}mm", c.plate_mm)) +
                 fmt::format(" pitch {:.0f}mm", first));
    }
    return lines;
}

} // namespace gorvet::analysis
