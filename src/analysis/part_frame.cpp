#include "analysis/part_frame.hpp"

#include "analysis/scans.hpp"
#include "make/part.hpp"

#include <algorithm>
#include <array>
#include <string_view>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

constexpr std::array<std::string_view, 3> bracing{"brace", "x-member", "k-brace"};

std::string linesOf(const std::string& part) { return "part " + part + ": "; }

bool braces(const std::string& kind) { return std::find(bracing.begin(), bracing.end(), kind) != bracing.end(); }

/// As planned, when it was worked out for the build as it is, and with that part.
const frame::Outcome* plannedOutcome(const Build& b, const Results& r, const std::string& part) {
    const auto& node = r.scans->frame;
    const bool in_it = std::any_of(r.parts.begin(), r.parts.end(),
                                   [&](const auto& p) { return p.input().name == part && braces(p.input().kind); });
    return in_it && node.made() && node->planned && node.madeFrom(frameAsked(b, r)) ? &*node->planned : nullptr;
}

} // namespace

std::vector<frame::Line> partLines(const Build& b, const Results& r, std::vector<std::string>& assumed) {
    std::vector<frame::Line> lines;
    for (const auto& node : r.parts) {
        const make::PartIn& in = node.input();
        if (!node->made() || node->apart || !braces(in.kind)) continue;
        for (const make::BarPiece& bar : node->bars) {
            if (!bar.bends.empty() || geometry::between(bar.from, bar.to) < 1) continue;
            frame::Line l;
            l.name = linesOf(in.name) + bar.name;
            l.points = {bar.from, bar.to};
            l.up = bar.up;
            const std::vector<double> tube{bar.height_mm, bar.wall_mm},
                box{bar.height_mm, bar.width_mm, bar.wall_mm, 2 * bar.wall_mm};
            l.pieces = {{1e9, bar.round ? frame::Profile{"tube", tube, {}, false, 0} : frame::Profile{"box", box, {}, false, 0},
                         b.frame_facts.yield_MPa.value}};
            lines.push_back(std::move(l));
        }
        for (const std::string& what : in.assumed) assumed.push_back(fmt::format("of {} {}", in.name, what));
    }
    return lines;
}

std::optional<PartBears> partBears(const Build& b, const Results& r, const std::string& part) {
    const frame::Outcome* o = plannedOutcome(b, r, part);
    if (!o) return {};
    std::optional<PartBears> worst;
    double works = 0;
    for (const frame::OfLine& l : o->lines) {
        if (!l.name.starts_with(linesOf(part))) continue;
        for (const frame::AtPlace& p : l.places) {
            if (p.weld) works = std::max(works, p.range_mpa);
            const double may = p.yield_mpa / 1.5;
            if (worst && p.stress_mpa * worst->may_mpa <= worst->stress_mpa * may) continue;
            worst = PartBears{l.name.substr(linesOf(part).size()),
                              p.stress_mpa,
                              may,
                              p.worst_case < o->cases.size() ? o->cases[p.worst_case].asked.name : "",
                              p.at,
                              0};
        }
    }
    if (worst) worst->works_mpa = works;
    return worst;
}

bool partLoose(const Build& b, const Results& r, const std::string& part) {
    const frame::Outcome* o = plannedOutcome(b, r, part);
    return o && std::any_of(o->loose.begin(), o->loose.end(),
                            [&](const std::string& line) { return line.starts_with(linesOf(part)); });
}

} // namespace gorvet::analysis
