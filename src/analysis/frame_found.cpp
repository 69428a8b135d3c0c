// The frame worked out: as it is and as it is planned; what its splice bears.
#include "analysis/frame_boxing.hpp"
#include "analysis/scans.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

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
    auto boxing = boxingOf(found.planned ? *asked.planned : asked.now, found.planned ? *found.planned : *found.now,
                           found.planned.has_value(), asked.wanted_nm_deg,
                           [&](double share) { return progress(second + (1 - second) * share); });
    if (!boxing) return std::nullopt;
    found.boxing = std::move(*boxing);
    return found;
}

std::optional<SpliceBears> spliceBears(const build::Build& b, const Results& r) {
    const auto& found = *r.scans->frame;
    if (!found.planned || !b.stretch.cut_station || r.stretch->status != stretch::Status::Planned || !r.stretch->splice)
        return {};
    const stretch::Splice& s = *r.stretch->splice;
    SpliceBears worst;
    if (!r.stretch->butt_counts)
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
                                                           r.stretch->butt_counts, f);
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
