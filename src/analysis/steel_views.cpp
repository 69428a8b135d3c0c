// All new steel at once: from above with handles, and drawn apart in order.
#include "analysis/steel_views.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "make/above_sheet.hpp"
#include "make/assembly.hpp"
#include "make/crossmember_solid.hpp"
#include "make/rail_mesh.hpp"
#include "shape/transform.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using make::ServiceBody;

namespace {

constexpr double handle_spare_mm = 20; ///< from a rail's ends

shape::Mesh wholeMesh(const make::PartPlan& p) {
    shape::Mesh all;
    for (const make::NamedMesh& piece : make::partMeshes(p)) append(all, piece.mesh);
    return all;
}

std::optional<make::PartPlan> crossmemberPlanned(const Results& r) {
    if (!r.crossmember.made() || !r.crossmember->possible) return std::nullopt;
    return make::crossmemberPieces(r.crossmember.input(), *r.crossmember);
}

/// A part with its places moved, as it would be pinned there.
struct DraggedPart {
    std::string name;
    make::PartPlan plan;
    std::vector<Vec3> places;
};
std::optional<DraggedPart> draggedPart(const Results& r, const std::string& grip, double value) {
    for (const auto& node : r.parts) {
        if (node.input().name != grip || node->at.empty()) continue;
        DraggedPart d;
        d.name = grip;
        d.places = make::movedAlong(node->at, std::round(value - node->at.front().x_mm), r.planned_left, r.planned_right);
        make::PartIn in = node.input();
        for (std::size_t k = 0; k < in.at.size(); ++k) in.places.at[in.at[k]] = d.places[k];
        d.plan = make::partPlan(in);
        return d;
    }
    return std::nullopt;
}

make::AboveView aboveView(const Build& b, const Results& r) {
    make::AboveView v;
    v.left = r.planned_left;
    v.right = r.planned_right;
    v.step = b.settings.length_step;
    v.nears = *r.nears;
    v.fouls = *r.fouls;
    if (const auto cross = crossmemberPlanned(r)) v.others.push_back(wholeMesh(*cross));
    for (const auto& node : r.parts) {
        if (!node->made() || node->apart) continue;
        make::AboveItem item{&*node, "part:" + node->name, std::nullopt};
        if (v.left.points.size() > 1) {
            sheet::Grip grip;
            grip.name = node->name;
            grip.value = node->at.front().x_mm;
            grip.least = std::min(grip.value, v.left.front() + handle_spare_mm);
            grip.most = std::max(grip.value, v.left.rear() - handle_spare_mm);
            item.grip = grip;
        }
        v.items.push_back(std::move(item));
    }
    return v;
}

} // namespace

Node<std::vector<ServiceBody>, std::vector<make::Near>> nearsOf(const Build&, const Results& r, const Results* previous) {
    std::vector<ServiceBody> bodies = r.fouls.input();
    return Node<std::vector<ServiceBody>, std::vector<make::Near>>::of(std::move(bodies), previous ? &previous->nears : nullptr,
                                                                       make::nearsOf);
}

sheet::Drawing aboveDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                            const sheet::Format& f) {
    make::AboveView v = aboveView(b, r);
    std::optional<DraggedPart> dragged;
    if (!o.grip.empty()) dragged = draggedPart(r, o.grip, o.grip_value);
    if (dragged) {
        v.dragged = dragged->name;
        std::vector<ServiceBody> bodies = r.fouls.input();
        const auto own =
            std::find_if(bodies.begin(), bodies.end(), [&](const ServiceBody& s) { return s.name == "part " + dragged->name; });
        std::string words = fmt::format("{} at {}", dragged->name, units::formatLength(dragged->places.front().x_mm, v.step));
        v.nears.clear();
        v.fouls.clear();
        if (own != bodies.end() && dragged->plan.made()) {
            own->mesh = std::make_shared<const shape::Mesh>(wholeMesh(dragged->plan));
            for (make::Foul& foul : make::foulsOf(bodies))
                if (foul.one == own->name || foul.other == own->name) v.fouls.push_back(std::move(foul));
            if (auto near = make::nearestOther(*own, bodies, make::near_cap_mm)) {
                words += fmt::format(": {} to {}", units::formatLength(near->mm, v.step, true), near->other);
                v.nears.push_back(std::move(*near));
            } else {
                words += fmt::format(": nothing else within {:g} mm", make::near_cap_mm);
            }
        }
        v.live = words + (dragged->plan.verdict == PlanVerdict::Fails && !dragged->plan.remarks.empty()
                              ? ". " + dragged->plan.remarks.front().sentence
                              : ".");
        for (make::AboveItem& item : v.items)
            if (item.plan->name == dragged->name && dragged->plan.made()) item.plan = &dragged->plan;
    }
    return make::aboveSheet(v, width, height, f);
}

std::string aboveDragged(const Build&, const Results& r, const std::string& grip, double value) {
    const auto dragged = draggedPart(r, grip, value);
    if (!dragged) return {};
    std::string line = fmt::format("part {} pinned", grip);
    for (const Vec3& p : dragged->places) line += fmt::format(" {:.1f}mm {:.1f}mm {:.1f}mm", p.x_mm, p.y_mm, p.z_mm);
    return line;
}

namespace {

/// In the order of their first weld, bench before car; what is bolted on after, in the way in which it goes on again.
std::vector<make::PutOnItem> itemsInOrder(const Results& r) {
    struct Ranked {
        make::PutOnItem item;
        double rank = 0;
    };
    std::vector<Ranked> all;
    const make::WeldPlan& welds = *r.welds;
    const auto rank = [&](const std::string& tag, const std::string& body, bool bolted) {
        double first = 0;
        for (std::size_t k = 0; k < welds.steps.size() && first == 0; ++k)
            if (r.welds.input().seams[welds.steps[k].seam].tag == tag) first = static_cast<double>(k + 1);
        if (!bolted) return first > 0 ? first : 1e5;
        const auto& off = r.service->off;
        for (std::size_t k = 0; k < off.size(); ++k)
            if (std::find(off[k].begin(), off[k].end(), body) != off[k].end()) return 1e6 - static_cast<double>(k);
        return 1e6;
    };
    const auto add = [&](std::string name, std::string tag, const char* how, const std::string& body, bool bolted) {
        for (const ServiceBody& one : r.fouls.input())
            if (one.name == body) all.push_back({{std::move(name), tag, how, one}, rank(tag, body, bolted)});
    };
    for (const auto& node : r.parts) {
        const make::PartPlan& p = *node;
        if (!p.made() || p.apart) continue;
        const bool on_car = std::any_of(p.seams.begin(), p.seams.end(), [](const make::Seam& s) { return s.on_car; });
        add(p.name == p.kind ? p.name : fmt::format("{}, {}", p.name, p.kind), "part:" + p.name,
            p.bolted_on ? "bolted on"
            : on_car    ? "welded on"
                        : "laid in",
            "part " + p.name, p.bolted_on);
    }
    if (r.crossmember.made() && r.crossmember->possible)
        add("the crossmember", "crossmember", "bolted on", "the crossmember", true);
    std::stable_sort(all.begin(), all.end(), [](const Ranked& x, const Ranked& y) { return x.rank < y.rank; });
    std::vector<make::PutOnItem> items;
    for (Ranked& one : all) items.push_back(std::move(one.item));
    return items;
}

std::string putOnWords(const make::PutOn& p) {
    if (p.from.empty()) return p.how + ", shut in";
    return fmt::format("{}, from {}{}", p.how, p.from[0], p.from.size() > 1 ? " or " + p.from[1] : "");
}

make::AssemblyView assemblyView(const Build& b, const Results& r) {
    make::AssemblyView v;
    const auto& items = r.put_on.input().items;
    for (std::size_t k = 0; k < items.size(); ++k)
        v.items.push_back({items[k].name, items[k].tag, putOnWords((*r.put_on)[k]), {*items[k].body.mesh}});
    for (const RailLine* rail : {&r.planned_left, &r.planned_right})
        append(v.frame, make::railMesh(*rail, b.rail.shape == RailShape::Channel));
    return v;
}

} // namespace

Node<make::PutOnIn, std::vector<make::PutOn>> putOnOf(const Build&, const Results& r, const Results* previous) {
    make::PutOnIn in;
    for (const ServiceBody& body : r.fouls.input())
        if (body.name == "the rails" || body.name == "the sleeves of the cut") in.frame.push_back(body);
    in.items = itemsInOrder(r);
    return Node<make::PutOnIn, std::vector<make::PutOn>>::of(std::move(in), previous ? &previous->put_on : nullptr, make::putOn);
}

sheet::Drawing orderDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    return make::assemblySheet(assemblyView(b, r), width, height, f);
}

Headline orderHeadline(const Build&, const Results& r, SubjectId) {
    const auto& items = *r.put_on;
    if (items.empty())
        return {"Nothing is put on yet.", "Parts and the crossmember stand here, drawn away from the frame in their order."};
    const auto bolted =
        static_cast<std::size_t>(std::count_if(items.begin(), items.end(), [](const auto& i) { return i.how == "bolted on"; }));
    const auto shut =
        static_cast<std::size_t>(std::count_if(items.begin(), items.end(), [](const auto& i) { return i.from.empty(); }));
    Headline h;
    h.sentence = shut ? fmt::format("{} of {} can't be put in where it is to be.", shut, units::counted(items.size(), "a thing"))
                      : fmt::format("{}, {} bolted on: each goes in straight.", units::counted(items.size(), "a thing"), bolted);
    if (r.put_on.input().frame.empty())
        h.sentence = fmt::format("{}: no rail is known to try them past.", units::counted(items.size(), "a thing"));
    h.below = "Past rails, sleeves and what was put on before. Tack and try on all of it before any is welded.";
    return h;
}

std::vector<sheet::Drawing> orderPages(const Build& b, const Results& r) {
    const make::AssemblyView v = assemblyView(b, r);
    if (v.items.empty()) return {};
    sheet::Area area;
    sheet::Drawing page = sheet::blankPage(titled(b, r, "Make: the new steel, in order"), {part_caution, local_rules}, area);
    page.place(make::assemblySheet(v, area.width, area.height, sheet::on_paper), {area.x, area.y});
    std::vector<sheet::Drawing> pages;
    pages.push_back(std::move(page));
    return pages;
}

std::string makeOrderJson(const Build&, const Results& r) {
    Json j = {{"order", Json::array()}, {"nearest", Json::array()}, {"cautions", {part_caution, local_rules}}};
    for (const make::PutOn& item : *r.put_on)
        j["order"].push_back({{"what", item.name}, {"how", item.how}, {"goes_in_from", item.from}, {"shut_in_by", item.shut_by}});
    for (const make::Near& n : *r.nears)
        j["nearest"].push_back({{"of", n.one},
                                {"to", n.other},
                                {"mm", number(n.mm)},
                                {"at_mm", {number(n.from.x_mm), number(n.from.y_mm), number(n.from.z_mm)}}});
    return text(j);
}

} // namespace gorvet::analysis
