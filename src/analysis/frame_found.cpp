// The frame worked out: as it is, as it is planned, and what closing its rails would bring.
#include "analysis/frame.hpp"
#include "analysis/scans.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

namespace {

constexpr double least_plate_mm = 3;
constexpr double hours_a_metre = 1.2; ///< of seam: fitting, tacking in turns, welding, dressing. Assumed
constexpr std::size_t most_bays = 6;  ///< all sets of them are tried

using Stretch = std::pair<double, double>; ///< stations from and to

/// A frame of open rails whose bays can be closed.
class Boxing {
public:
    Boxing(const frame::Structure& s, const frame::Outcome& o, bool planned) : s_(s), planned_(planned) {
        for (std::size_t l = 0; l < s.lines.size(); ++l) {
            const auto& pieces = s.lines[l].pieces;
            if (!s.lines[l].rail || std::none_of(pieces.begin(), pieces.end(), open)) continue;
            rails_.push_back(l);
        }
        if (rails_.empty()) return;
        const frame::Line& rail = s.lines[rails_.front()];
        const auto piece = std::find_if(rail.pieces.begin(), rail.pieces.end(), open);
        height_ = piece->section.sizes[0];
        plate_ = std::max(least_plate_mm, piece->section.sizes[2]);
        for (const frame::AtPlace& p : o.lines[rails_.front()].places)
            if (p.weld && (joints_.empty() || p.at.x_mm - joints_.back() > height_)) joints_.push_back(p.at.x_mm);
        for (std::size_t k = 1; k < joints_.size(); ++k)
            if (openIn({joints_[k - 1], joints_[k]})) bays_.push_back({joints_[k - 1], joints_[k]});
        while (bays_.size() > most_bays) join();
    }
    bool any() const { return !bays_.empty(); }

    std::vector<BoxingChoice> choices(const std::function<bool(double)>& progress, bool& stopped) {
        std::vector<BoxingChoice> list;
        if (auto c = choice(planned_ ? "as planned" : "as it is", "", {})) list.push_back(*c);
        std::vector<Stretch> at_joints;
        for (const double x : joints_) at_joints.push_back({x - height_, x + height_});
        if (auto c = choice("at joints", fmt::format("{:.0f} each way of every joint", height_), at_joints)) list.push_back(*c);
        // of all sets of bays: for each number of them the stiffest
        const std::size_t sets = std::size_t{1} << bays_.size();
        std::vector<std::optional<BoxingChoice>> best(bays_.size() + 1);
        for (std::size_t set = 1; set < sets; ++set) {
            if (stopped = !progress(static_cast<double>(set) / static_cast<double>(sets)); stopped) return {};
            std::vector<Stretch> plates;
            std::string words;
            for (std::size_t k = 0; k < bays_.size(); ++k)
                if (set >> k & 1) {
                    plates.push_back(bays_[k]);
                    words += fmt::format("{}{:.0f} to {:.0f}", words.empty() ? "" : ", ", bays_[k].first, bays_[k].second);
                }
            const std::size_t n = plates.size();
            auto c = choice(n == bays_.size() ? "all bays" : fmt::format("best {} of {}", n, bays_.size()), words, plates);
            if (c && (!best[n] || c->twist.free_nm_deg > best[n]->twist.free_nm_deg)) best[n] = std::move(c);
        }
        for (auto& c : best)
            if (c) list.push_back(std::move(*c));
        return list;
    }

private:
    static bool open(const frame::Piece& p) { return p.section.shape == "channel"; }

    /// Whether something of it is still open.
    bool openIn(const Stretch& bay) const {
        for (const std::size_t l : rails_) {
            const double from = alongTo(s_.lines[l], bay.first), to = alongTo(s_.lines[l], bay.second);
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

    /// Along a line, up to a station.
    static double alongTo(const frame::Line& l, double station) {
        double done = 0;
        for (std::size_t k = 1; k < l.points.size(); ++k) {
            const double length = geometry::between(l.points[k - 1], l.points[k]), dx = l.points[k].x_mm - l.points[k - 1].x_mm;
            if (station <= l.points[k].x_mm || k + 1 == l.points.size())
                return done + (dx > 0 ? std::clamp((station - l.points[k - 1].x_mm) / dx, 0.0, 1.0) : 0) * length;
            done += length;
        }
        return done;
    }

    std::optional<BoxingChoice> choice(const std::string& name, const std::string& words, const std::vector<Stretch>& plates) {
        frame::Structure s = s_;
        BoxingChoice c;
        c.name = name;
        c.words = words;
        c.plates = plates;
        for (const std::size_t l : rails_)
            for (const Stretch& p : plates) close(s.lines[l], p, c);
        const auto twist = frame::twistOf(s, book_);
        if (!twist) return {};
        c.twist = *twist;
        c.hours = c.seam_m * hours_a_metre;
        return c;
    }
    /// Closes what is open of a rail between two stations.
    void close(frame::Line& l, const Stretch& stations, BoxingChoice& c) const {
        const double from = alongTo(l, stations.first), to = alongTo(l, stations.second);
        std::vector<frame::Piece> pieces;
        double begin = 0;
        for (const frame::Piece& p : l.pieces) {
            const double a = std::clamp(from, begin, p.until_mm), b = std::clamp(to, begin, p.until_mm);
            if (!open(p) || b - a < 1) {
                pieces.push_back(p);
            } else {
                frame::Piece part = p;
                part.until_mm = a;
                if (a - begin > 1) pieces.push_back(part);
                frame::Piece closed = p;
                closed.until_mm = b;
                closed.section.shape = "boxed";
                closed.section.sizes.insert(closed.section.sizes.begin() + 3, plate_);
                pieces.push_back(closed);
                if (p.until_mm - b > 1) pieces.push_back(p);
                const double height = p.section.sizes[0] - p.section.sizes[2];
                c.kg += (b - a) * height * plate_ * s_.material.kg_mm3;
                c.seam_m += (2 * (b - a) + 2 * height) / 1000;
            }
            begin = p.until_mm;
        }
        l.pieces = std::move(pieces);
    }

    const frame::Structure& s_;
    bool planned_;
    frame::SectionBook book_;
    std::vector<std::size_t> rails_;
    std::vector<double> joints_;
    std::vector<Stretch> bays_;
    double height_ = 0;
    double plate_ = least_plate_mm;
};

} // namespace

std::optional<FrameFound> findFrame(const FrameAsked& asked, const std::function<bool(double)>& progress) {
    FrameFound found;
    frame::SectionBook book;
    auto now = frame::analyse(asked.now, book);
    if (!now) {
        found.wrong = now.error().message;
        found.remedy = now.error().remedy;
        return found;
    }
    found.now = std::move(*now);
    constexpr double first = 0.15, second = 0.3; // of the time
    if (!progress(first)) return std::nullopt;
    if (asked.planned) {
        auto planned = frame::analyse(*asked.planned, book);
        if (planned) {
            found.planned = std::move(*planned);
        } else {
            found.planned_wrong = planned.error().message;
            found.planned_remedy = planned.error().remedy;
        }
    }
    if (!progress(second)) return std::nullopt;
    Boxing boxing(found.planned ? *asked.planned : asked.now, found.planned ? *found.planned : *found.now,
                  found.planned.has_value());
    if (!boxing.any()) return found;
    bool stopped = false;
    found.boxing = boxing.choices([&](double share) { return progress(second + (1 - second) * share); }, stopped);
    if (stopped) return std::nullopt;
    return found;
}

std::optional<SpliceBears> spliceBears(const build::Build& b, const Results& r) {
    const auto& found = *r.scans->frame;
    if (!found.planned || !b.stretch.cut_station || r.stretch->status != stretch::Status::Planned || !r.stretch->splice)
        return {};
    const stretch::Splice& s = *r.stretch->splice;
    SpliceBears worst;
    if (!b.stretch.butt_counts)
        worst.share = std::min({1.0, s.share(), s.upright_share, s.torsion_share, s.shear_share, s.axial_share});
    if (worst.share <= 0) return {};
    // ahead of the cut nothing moves; a piece that is let in has two joints
    const double cut = b.stretch.cut_station->value, change = r.stretch->change_mm;
    const frame::Structure& planned = *r.scans->frame.input().planned;
    for (std::size_t l = 0; l < found.planned->lines.size(); ++l) {
        const std::string& name = found.planned->lines[l].name;
        if (name != "left rail" && name != "right rail") continue;
        const auto& places = found.planned->lines[l].places;
        const auto& pieces = planned.lines[l].pieces;
        for (std::size_t k = 1; k < places.size(); ++k) {
            const auto within = [&](double x) { return x >= places[k - 1].at.x_mm && x <= places[k].at.x_mm; };
            if (!within(cut) && !(change > 0 && within(cut + change))) continue;
            const double middle = (places[k - 1].along_mm + places[k].along_mm) / 2;
            const auto piece =
                std::find_if(pieces.begin(), pieces.end(), [&](const frame::Piece& p) { return middle <= p.until_mm; });
            const frame::Profile& section = (piece == pieces.end() ? pieces.back() : *piece).section;
            // the splice was made for the rail's own section
            worst.unlike = worst.unlike || section.sizes.size() != 4 || section.sizes[2] != b.rail.thickness.value ||
                           section.sizes[0] != b.rail.height.value || section.shape == "boxed";
            for (const frame::AtPlace* p : {&places[k - 1], &places[k]}) {
                const double stress = p->stress_mpa / worst.share, may = p->yield_mpa / 1.5;
                if (worst.may_mpa > 0 && stress / may <= worst.stress_mpa / worst.may_mpa) continue;
                worst.stress_mpa = stress;
                worst.may_mpa = may;
                worst.line = found.planned->lines[l].name;
            }
        }
    }
    return worst.may_mpa > 0 ? std::optional(worst) : std::nullopt;
}

std::optional<SpliceWelds> spliceWelds(const build::Build& b, const Results& r) {
    const auto held = spliceBears(b, r);
    if (!held || held->unlike) return {};
    const auto& found = *r.scans->frame;
    const stretch::Input& in = r.stretch.input();
    const build::RailLine& rail = in.left.height_mm > 0 ? in.left : in.right;
    const double cut = b.stretch.cut_station->value, change = r.stretch->change_mm;
    std::optional<SpliceWelds> worst;
    for (const frame::OfLine& line : found.planned->lines) {
        if (line.name != "left rail" && line.name != "right rail") continue;
        for (std::size_t k = 1; k < line.places.size(); ++k) {
            const frame::AtPlace &p = line.places[k - 1], &q = line.places[k];
            for (const double joint : {cut, cut + std::max(0.0, change)}) { // a piece that is let in has two
                if (joint < p.at.x_mm || joint > q.at.x_mm || q.at.x_mm <= p.at.x_mm) continue;
                const double share = (joint - p.at.x_mm) / (q.at.x_mm - p.at.x_mm);
                for (std::size_t c = 0; c < found.planned->cases.size() && c < p.in_case.size() && c < q.in_case.size(); ++c) {
                    if (found.planned->cases[c].tips) continue;
                    const auto& one = p.in_case[c];
                    const auto& two = q.in_case[c];
                    const auto at = [&](double from, double to) { return std::abs(from + (to - from) * share); };
                    const stretch::JointForces f{at(one.axial_n, two.axial_n),         at(one.aside_n, two.aside_n),
                                                 at(one.upright_n, two.upright_n),     at(one.twist_nmm, two.twist_nmm),
                                                 at(one.upright_nmm, two.upright_nmm), at(one.level_nmm, two.level_nmm)};
                    const auto bears = stretch::jointBears(*r.stretch->splice, rail, b.rail.shape == build::RailShape::Channel,
                                                           b.stretch.butt_counts, f);
                    if (bears.share() > 0 && (!worst || bears.share() > worst->bears.share()))
                        worst = SpliceWelds{line.name, found.planned->cases[c].asked.name, bears};
                }
            }
        }
    }
    return worst;
}

build::PlanVerdict verdictOf(const FrameAsked& asked, const frame::OfCase& c) {
    if (c.margin <= 0) return build::PlanVerdict::Marginal; // nothing was asked of it
    // what carries nothing, has a crack, or is not all there holds nothing
    const bool whole = asked.assumed.empty() && asked.cracked.empty() && !asked.now.hung.empty() && !asked.spread;
    const auto provenance = whole ? build::Provenance::Derived : build::Provenance::Assumed;
    return build::judge({c.margin, 0, provenance}, build::Limit::atLeast(1));
}

} // namespace gorvet::analysis
