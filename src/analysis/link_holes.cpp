// Rows of holes of links: input, list, headline, card and JSON.
#include "analysis/carried.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/travel.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

/// The same link on the other side: "lower-left" and "lower-right", or by the names of their points.
const Link* twinLink(const Build& b, const Link& l) {
    const auto other = [&](std::string_view from, std::string_view to) -> const Link* {
        const auto at = l.name.find(from);
        return at == std::string::npos ? nullptr : linkNamed(b, std::string(l.name).replace(at, from.size(), to));
    };
    const Link* twin = other("left", "right");
    if (!twin) twin = other("right", "left");
    if (!twin) twin = linkNamed(b, twinName(l.name));
    return twin && twin->id != l.id && twin->kind == l.kind && twin->of == l.of ? twin : nullptr;
}

} // namespace

std::vector<Node<drive::LinkHolesIn, drive::LinkHolesPlan>> linkHolesOf(const Build& b, const Results& r,
                                                                        const Results* previous) {
    using HolesNode = Node<drive::LinkHolesIn, drive::LinkHolesPlan>;
    std::vector<HolesNode> all;
    for (const auto& [id, row] : b.link_holes) {
        const Link& l = b.links.at(row.link);
        drive::LinkHolesIn in;
        in.name = l.name;
        in.row = row;
        const Link* twin = twinLink(b, l);
        if (twin) in.name += " and " + twin->name;
        for (const auto& node : r.travels) {
            const auto& links = node.input().held.links;
            for (std::size_t k = 0; k < links.size(); ++k)
                if (links[k].name == l.name || (twin && links[k].name == twin->name)) in.links.push_back(k);
            if (in.links.empty()) continue;
            in.travel = node.input();
            break;
        }
        const HolesNode* before = nullptr;
        if (previous)
            for (const HolesNode& old : previous->link_holes)
                if (old.input().row.id == id) before = &old;
        all.push_back(HolesNode::of(std::move(in), before, drive::linkHolesPlan));
    }
    return all;
}

Headline linkHolesHeadline(const Build&, const Results& r, SubjectId) {
    if (r.link_holes.empty())
        return {
            "No row of holes is said yet.",
            "A bracket with several holes lets a link be moved: link-holes lower-left frame pitch 25 above 1 below 2 hole 14. Its twin goes with it."};
    Headline h;
    const drive::LinkHolesPlan& p = *r.link_holes.front();
    if (p.holes.empty()) {
        h.sentence = fmt::format("The holes of {} wait for the links: {}.", p.name,
                                 r.link_holes.front().input().travel.missing.empty()
                                     ? "they hold nothing yet"
                                     : r.link_holes.front().input().travel.missing.front());
    } else {
        h.sentence = fmt::format("{}: {} to choose from.", p.name, units::counted(p.holes.size(), "hole"));
        h.below = p.remarks.empty() ? std::string("Each is bolted up anew, the link as long as it is. ")
                                    : p.remarks.front().sentence + " ";
    }
    h.below += link_caution;
    return h;
}

Listing linkHolesList(const Build&, const Results& r, SubjectId) {
    Listing list;
    list.columns = {"link",        "hole",           "at rest",      "wheels forwards",
                    "rolls about", "squats less by", "at full bump", "at full droop"};
    list.one = "hole";
    const double no = std::nan("");
    for (const auto& node : r.link_holes) {
        const drive::TravelIn& in = node.input().travel;
        const auto angle = [&](double rad) {
            const char* side = in.axle() ? (rad < 0 ? "nose down" : "nose up") : rad < 0 ? "out" : "in";
            return std::abs(rad) < 1e-5 ? std::string("–") : fmt::format("{} {}", units::formatAngle(std::abs(rad)), side);
        };
        for (const drive::HoleDoes& h : node->holes) {
            ListRow row;
            row.tag = fmt::format("link-holes:{}", node.input().row.id.value);
            if (!h.closes) row.severity = sheet::Severity::Warn;
            const drive::TravelPlan* p = h.plan ? &*h.plan : nullptr;
            const auto cell = [&](const std::string& text, double value) {
                row.cells.push_back({p ? text : std::string("–"), p ? value : no, true, Mark::Derived});
            };
            row.cells = {{node->name, no, false, Mark::None}, {h.name, static_cast<double>(h.step), true, Mark::None}};
            cell(angle(h.slope_rad), h.slope_rad);
            cell(fmt::format("{:.0f} mm", h.ahead_mm), h.ahead_mm);
            cell(p ? fmt::format("{:.0f} ± {:.0f} mm", p->roll_centre_mm.value, p->roll_centre_mm.u95) : "",
                 p ? p->roll_centre_mm.value : no);
            cell(p && p->anti_squat ? fmt::format("{:.0f} ± {:.0f} %", 100 * p->anti_squat->value, 100 * p->anti_squat->u95)
                                    : "–",
                 p && p->anti_squat ? p->anti_squat->value : no);
            cell(p ? angle(p->bump_rad.value) : "", p ? p->bump_rad.value : no);
            cell(p ? angle(p->droop_rad.value) : "", p ? p->droop_rad.value : no);
            list.rows.push_back(std::move(row));
        }
    }
    return list;
}

std::optional<Card> linkHolesCard(const Build& b, const Results& r, std::uint32_t id) {
    for (const auto& node : r.link_holes) {
        const LinkHoles& row = node.input().row;
        if (row.id.value != id) continue;
        Card c;
        c.title = "holes of " + node->name;
        c.word = verdictWord(node->verdict);
        c.severity = sheet::severityOf(node->verdict);
        c.rows.push_back({"from hole to hole", fmt::format("{:g} mm", row.pitch.value), markOf(row.pitch.provenance), true});
        c.rows.push_back(
            {"above and below", fmt::format("{:.0f} and {:.0f}", row.above.value, row.below.value), Mark::None, false});
        c.rows.push_back({"the bracket is high, at least", fmt::format("{:.0f} mm", node->high_mm), Mark::Derived, false});
        if (!node->remarks.empty()) c.sentences.push_back(node->remarks.front().sentence + " " + node->remarks.front().remedy);
        c.sentences.push_back(fmt::format("Caution: {}", link_caution));
        const std::string line = fmt::format("link-holes {} {} ", b.links.at(row.link).name, word(row.at));
        c.actions.push_back({"from hole to hole", line + "pitch ", "", true});
        c.actions.push_back({"diameter", line + "hole ", "", true});
        c.actions.push_back({"remove", "remove " + line.substr(0, line.size() - 1), "", false});
        c.journal_table = "link-holes";
        c.journal_id = id;
        return c;
    }
    return std::nullopt;
}

std::string driveHolesJson(const Build&, const Results& r) {
    Json j;
    j["rows"] = Json::array();
    for (const auto& node : r.link_holes) {
        const drive::LinkHolesPlan& p = *node;
        Json one = {{"link", p.name},
                    {"verdict", verdictWord(p.verdict)},
                    {"missing", node.input().travel.missing},
                    {"assumed", node.input().travel.assumed},
                    {"bracket_high_mm", number(p.high_mm)},
                    {"holes", Json::array()}};
        for (const drive::HoleDoes& h : p.holes) {
            Json hole = {{"hole", h.name}, {"up", h.step}, {"closes", h.closes}};
            if (h.plan) {
                hole["at_rest_deg"] = number(units::degrees(h.slope_rad));
                hole["forwards_mm"] = number(h.ahead_mm);
                put(hole, h.plan->roll_centre_mm, "_mm", "roll_centre_over_road");
                if (h.plan->anti_squat) put(hole, *h.plan->anti_squat, "", "anti_squat");
                put(hole, h.plan->bump_rad, "_deg", "at_bump");
                put(hole, h.plan->droop_rad, "_deg", "at_droop");
            }
            one["holes"].push_back(std::move(hole));
        }
        one["remarks"] = remarksJson(p.remarks);
        j["rows"].push_back(std::move(one));
    }
    j["cautions"] = {link_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
