// Holes and crash dents of the rails: their input, list, page, card and JSON.
#include "analysis/holes.hpp"

#include "analysis/frame.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/scans.hpp"
#include "build/assumed.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const never_drilled =
    "Rails of heat-treated or high-strength steel are never drilled nor welded here. What starts a rail's folding in a crash is an "
    "engineer's.";

/// What bears on a rail at a station as it is, the worse of both sides that are meant; none where it was not worked out.
struct Borne {
    double stress_mpa = 0, may_mpa = 140;
};
std::optional<Borne> borneAt(const Results& r, const FrameAsked& asked, const RailHole& h) {
    if (!r.scans->frame.made() || !asked.waits.empty() || !r.scans->frame.madeFrom(asked)) return {};
    const FrameFound& found = *r.scans->frame;
    const std::optional<frame::Outcome>& o = found.planned ? found.planned : found.now;
    if (!o || asked.now.hung.empty()) return {};
    const double at = found.planned ? r.planned_chassis.map(Vec3{h.station.value, 0, 0}).x_mm : h.station.value;
    std::optional<Borne> worst;
    for (const frame::OfLine& line : o->lines) {
        const bool left = line.name == "left rail", right = line.name == "right rail";
        if (!(left && h.side != RailSide::Right) && !(right && h.side != RailSide::Left)) continue;
        for (std::size_t k = 1; k < line.places.size(); ++k) {
            const frame::AtPlace &p = line.places[k - 1], &q = line.places[k];
            if (at < p.at.x_mm || at > q.at.x_mm) continue;
            for (const frame::AtPlace* place : {&p, &q})
                if (const double may = place->yield_mpa / 1.5;
                    !worst || place->stress_mpa / may > worst->stress_mpa / worst->may_mpa)
                    worst = Borne{place->stress_mpa, may};
        }
    }
    return worst;
}

class HolesAsked {
public:
    HolesAsked(const Build& b, const Results& r) : b_(b), r_(r) {
        if (!b.rail_holes.empty()) asked_ = frameAsked(b, r);
    }

    stretch::HoleInput of(const RailHole& h) const {
        stretch::HoleInput in;
        in.hole = h;
        in.height_mm = b_.rail.height.value;
        in.width_mm = b_.rail.width.value;
        in.wall_mm = b_.rail.thickness.value;
        in.channel = b_.rail.shape == RailShape::Channel;
        cuts(in);
        for (const auto& [id, m] : b_.members) {
            if (m.state != MemberState::Planned || !m.station) continue;
            const bool here = m.side == RailSide::Both || h.side == RailSide::Both || m.side == h.side;
            if ((m.kind == MemberKind::Plate || m.kind == MemberKind::Rib) && m.until && here)
                in.shut.emplace_back(m.station->value, m.until->value);
            if (m.kind == MemberKind::Crossmember) in.welds.push_back(m.station->value);
        }
        for (const stretch::Obstacle& o : r_.stretch.input().obstacles)
            if (std::string_view(o.what) == "new body mount") {
                in.welds.push_back(o.station_mm);
            } else if (std::string_view(o.what) == "flange" && h.kind == HoleKind::Initiator) { // drilled and stiffened there
                in.welds.push_back(o.station_mm - o.half_mm);
                in.welds.push_back(o.station_mm + o.half_mm);
            }
        if (const auto borne = borneAt(r_, asked_, h)) {
            in.stress_mpa = borne->stress_mpa;
            in.may_mpa = borne->may_mpa;
            in.assumed = asked_.assumed;
            for (const std::string& at : asked_.cracked) in.assumed.push_back("how far the crack at " + at + " goes");
        }
        for (const std::string& size : assumedIn(b_.rail)) in.assumed.push_back("the rails' " + size);
        for (const std::string& size : assumedIn(h)) in.assumed.push_back(h.name + "'s " + size);
        return in;
    }

private:
    void cuts(stretch::HoleInput& in) const {
        const stretch::Plan& p = *r_.stretch;
        if (p.status == stretch::Status::Planned) {
            const stretch::RailCut& cut = p.left.known ? p.left : p.right;
            in.cut = std::pair{cut.first_station_mm, p.shortens ? cut.last_station_mm : cut.first_station_mm};
            if (p.sleeve) in.sleeve_mm = p.sleeve->length_mm / 2;
        }
        // every joint of a piece is a weld; what lies beyond one comes off
        for (const auto& [id, g] : b_.grafts) {
            const bool ahead = g.kind == GraftKind::FrontClip;
            in.welds.push_back(g.joint.value);
            if (ahead ? in.hole.station.value < g.joint.value : in.hole.station.value > g.joint.value) {
                in.cut = ahead ? std::pair{-1e5, g.joint.value} : std::pair{g.joint.value, 1e5};
                in.sleeve_mm = 0;
            }
        }
    }

    const Build& b_;
    const Results& r_;
    FrameAsked asked_;
};

std::string holePlace(const RailHole& h, units::LengthStep step) {
    return fmt::format("{} {}, {}",
                       h.side == RailSide::Both   ? "both rails"
                       : h.side == RailSide::Left ? "left rail"
                                                  : "right rail",
                       units::formatLength(h.station.value, step), word(h.wall));
}
std::string holeSize(const RailHole& h, units::LengthStep step) {
    const std::string across = units::formatLength(h.across.value, step);
    return h.along ? fmt::format("{} × {}", across, units::formatLength(h.along->value, step)) : across;
}
std::string holeFate(const RailHole& h, units::LengthStep step) {
    switch (h.fate) {
    case HoleFate::Open: return "nothing said";
    case HoleFate::Keep: return "stays";
    case HoleFate::Move: return "anew at " + units::formatLength(h.moved_to->value, step);
    case HoleFate::Restore: return "made again there";
    case HoleFate::Ask: return "an engineer is asked";
    }
    return "";
}

} // namespace

std::vector<WorkedHole> workedHoles(const Build& b, const Results& r) {
    std::vector<WorkedHole> all;
    const HolesAsked asked(b, r);
    for (const auto& [id, h] : b.rail_holes) {
        WorkedHole w;
        w.input = asked.of(h);
        w.plan = stretch::holePlan(w.input);
        all.push_back(std::move(w));
    }
    std::stable_sort(all.begin(), all.end(), [](const WorkedHole& a, const WorkedHole& c) {
        return a.input.hole.station.value < c.input.hole.station.value;
    });
    return all;
}

Listing holesList(const Build& b, const Results& r, SubjectId) {
    Listing list;
    list.columns = {"hole", "where", "size", "left of the rail", "to a weld", "what is done", ""};
    list.one = "hole";
    const auto step = b.settings.length_step;
    for (const WorkedHole& w : workedHoles(b, r)) {
        const RailHole& h = w.input.hole;
        ListRow row;
        row.tag = "hole:" + h.name;
        row.severity = sheet::severityOf(w.plan.verdict);
        const double no = std::nan("");
        row.cells = {{h.name, no, false, Mark::None},
                     {holePlace(h, step), h.station.value, false, sheet::markOf(h.station.provenance)},
                     {holeSize(h, step), h.across.value, true, sheet::markOf(h.across.provenance)},
                     {fmt::format("{:.0f} %", 100 * w.plan.net_share), w.plan.net_share, true, Mark::Derived},
                     {w.plan.weld_mm ? units::formatLength(std::max(0.0, *w.plan.weld_mm), step) : std::string("–"),
                      w.plan.weld_mm.value_or(no), true, Mark::Derived},
                     {holeFate(h, step), no, false, Mark::None},
                     {verdictWord(w.plan.verdict), no, false, Mark::None}};
        list.rows.push_back(std::move(row));
    }
    return list;
}

Headline holesHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = workedHoles(b, r);
    if (all.empty())
        return {
            "No hole of the rails is marked.",
            "Holes that the maker left, and dents that start their folding in a crash: rail-hole bush at 1240 across 30 outer, or "
            "rail-hole fold at -380 across 60 along 20 initiator."};
    std::size_t bad = 0;
    const WorkedHole* worst = nullptr;
    for (const WorkedHole& w : all) {
        bad += w.plan.verdict != PlanVerdict::Holds;
        if (!worst || w.plan.verdict > worst->plan.verdict) worst = &w;
    }
    Headline h;
    h.sentence =
        bad == 0 ? fmt::format("{} in the rails, and nothing planned touches any of them.", units::counted(all.size(), "hole"))
                 : fmt::format("{} of {} in the rails to see to.", bad, units::counted(all.size(), "hole"));
    if (!worst->plan.remarks.empty())
        h.below = worst->plan.remarks.front().sentence + " ";
    else if (bad > 0 && !worst->input.assumed.empty())
        h.below = fmt::format("They rest on what nobody measured: {}. ", worst->input.assumed.front());
    h.below += never_drilled;
    return h;
}

std::vector<sheet::Drawing> holePages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    const Listing list = holesList(b, r, the_chassis);
    if (list.rows.empty()) return pages;
    std::vector<std::vector<std::string>> rows;
    for (const ListRow& row : list.rows) {
        rows.emplace_back();
        for (const ListCell& cell : row.cells) rows.back().push_back(cell.text);
    }
    const auto wide = [](const char* name, double width) {
        return sheet::Column{name, width, sheet::Anchor::Left, sheet::Face::Sans, true};
    };
    addTablePages(pages, titled(b, r, "Stretch: holes of the rails"), {never_drilled, local_rules},
                  {wide("hole", 34), wide("where", 60), wide("size", 30), wide("left of the rail", 34), wide("to a weld", 26),
                   wide("what is done", 44), wide("", 24)},
                  rows);
    return pages;
}

std::optional<Card> holeCard(const Build& b, const Results& r, const std::string& name) {
    for (const WorkedHole& w : workedHoles(b, r)) {
        const RailHole& h = w.input.hole;
        if (h.name != name) continue;
        const auto step = b.settings.length_step;
        Card c;
        c.title = h.kind == HoleKind::Initiator ? name + ", where the rail is to fold" : name + ", a hole";
        c.word = verdictWord(w.plan.verdict);
        c.severity = sheet::severityOf(w.plan.verdict);
        c.rows.push_back({"where", holePlace(h, step), sheet::markOf(h.station.provenance), true});
        c.rows.push_back({"size", holeSize(h, step), sheet::markOf(h.across.provenance), false});
        if (h.kind == HoleKind::Hole)
            c.rows.push_back({"left of the rail", fmt::format("{:.0f} %", 100 * w.plan.net_share), Mark::Derived, false});
        if (w.plan.stress_mpa)
            c.rows.push_back({"beside it", fmt::format("{:.0f} of {:.0f} MPa", *w.plan.stress_mpa, w.input.may_mpa),
                              w.input.assumed.empty() ? Mark::Derived : Mark::Assumed, false});
        c.rows.push_back({"what is done", holeFate(h, step), Mark::None, false});
        if (!w.plan.remarks.empty()) c.sentences.push_back(w.plan.remarks.front().sentence + " " + w.plan.remarks.front().remedy);
        c.sentences.push_back(fmt::format("Caution: {}", never_drilled));
        const std::string line = "rail-hole " + name + " ";
        c.actions.push_back({"it stays", line + "keep", "", false});
        c.actions.push_back({"make it again", line + "restore", "", false});
        c.actions.push_back({"anew at", line + "move ", "", true});
        c.actions.push_back({"ask an engineer", line + "ask", "", false});
        c.actions.push_back({"remove", "remove rail-hole " + name, "", false});
        c.journal_table = "rail-hole";
        c.journal_id = h.id.value;
        return c;
    }
    return std::nullopt;
}

std::string holesJson(const Build& b, const Results& r) {
    Json j;
    j["holes"] = Json::array();
    for (const WorkedHole& w : workedHoles(b, r)) {
        const RailHole& h = w.input.hole;
        j["holes"].push_back({{"name", h.name},
                              {"kind", word(h.kind)},
                              {"side", word(h.side)},
                              {"wall", word(h.wall)},
                              {"station_mm", number(h.station.value)},
                              {"verdict", verdictWord(w.plan.verdict)},
                              {"net_share", number(w.plan.net_share)},
                              {"stress_mpa", number(w.plan.stress_mpa)},
                              {"may_mpa", number(w.input.may_mpa)},
                              {"to_weld_mm", number(w.plan.weld_mm)},
                              {"to_weld_need_mm", number(w.plan.weld_need_mm)},
                              {"comes_out", w.plan.goes},
                              {"covered", w.plan.covered},
                              {"fate", word(h.fate)},
                              {"remarks", remarksJson(w.plan.remarks)},
                              {"assumed", w.input.assumed}});
    }
    j["cautions"] = {never_drilled, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
