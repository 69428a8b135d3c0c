// How each part is joined to what is there.
#include "analysis/joins.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;
using make::JoinIn;

namespace {

/// The wall of the rail that one of its places lies on; value 0: it lies on none.
Figure railThere(const make::PartIn& in, const RailSection& rail) {
    constexpr double on_it_mm = 15;
    for (const std::size_t k : in.at)
        for (const RailLine* line : {&in.left, &in.right}) {
            const Vec3& p = in.places.at[k];
            const auto here = line->at(p.x_mm);
            if (here && std::abs(p.y_mm - here->y_mm) < line->width_mm / 2 + on_it_mm && p.z_mm < here->top_mm + on_it_mm &&
                p.z_mm > here->bottom_mm - on_it_mm)
                return {rail.thickness.value, 0, Provenance::Assumed}; // measured somewhere: rust is where it is
        }
    return {};
}

} // namespace

std::vector<Joined> joinsOf(const Build& b, const Results& r) {
    std::vector<Joined> all;
    for (const auto& node : r.parts) {
        const make::PartPlan& p = *node;
        if (!p.made() || p.apart) continue;
        const SteelPart* part = steelPartNamed(b, p.name);
        JoinIn in;
        in.part = p.name;
        in.kind = p.kind;
        in.tag = "part:" + p.name;
        const Figure rail = railThere(node.input(), b.rail);
        const std::optional<BaseMetal> said = part->onto ? part->onto : rail.value > 0 ? b.frame_facts.metal : std::nullopt;
        in.base = said.value_or(BaseMetal::Mild);
        in.base_known = said.has_value();
        in.base_mm = part->onto_thick ? figureOf(*part->onto_thick) : rail;
        in.coated = part->onto_coated;
        in.bolted = p.bolted_on;
        in.sheet_mm = 1e9;
        for (const make::Seam& s : p.seams)
            if (s.on_car) {
                in.welded = true;
                in.sheet_mm = std::min(in.sheet_mm, s.thickness_mm);
            }
        if (!in.welded && !in.bolted) continue;
        make::JoinPlan plan = make::joinPlan(in);
        all.push_back({std::move(in), std::move(plan)});
    }
    return all;
}

Listing joinsList(const Build& b, const Results& r, SubjectId) {
    Listing list{{"part", "onto", "mm there", "how", "by", "first"}, -1, "part", {}};
    for (const Joined& j : joinsOf(b, r)) {
        ListRow row;
        const bool thick = j.input.base_mm.value > 0;
        row.cells = {words(fmt::format("{} {}", j.input.kind, j.input.part)),
                     words(fmt::format("{}{}", word(j.input.base), j.input.base_known ? "" : " ?")),
                     thick ? number(fmt::format("{:g}", j.input.base_mm.value), j.input.base_mm.value) : words("?"),
                     words(make::joinWord(j.plan.way)),
                     words(j.plan.process),
                     words(fmt::format("{}", fmt::join(j.plan.first, "; ")))};
        row.tag = j.input.tag;
        list.rows.push_back(std::move(row));
    }
    return list;
}

Headline joinsHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = joinsOf(b, r);
    if (all.empty())
        return {"Nothing is joined to the car yet.",
                "Parts that are welded or bolted on stand here, and how: part o1 upon mild thick 3."};
    std::size_t fails = 0, unknown = 0;
    for (const Joined& j : all) {
        fails += j.plan.verdict == PlanVerdict::Fails;
        unknown += !j.input.base_known;
    }
    Headline h;
    h.sentence =
        fails     ? fmt::format("{} of {} can't be joined so.", fails, units::counted(all.size(), "a part"))
        : unknown ? fmt::format("Of {} nobody said what {} joined to.",
                                unknown == 1 ? "one part" : fmt::format("{} parts", unknown), unknown == 1 ? "it is" : "they are")
                  : fmt::format("{}: what each is joined to is known.", units::counted(all.size(), "a part"));
    h.below = "Filler and process are named by their kind; who welds what carries people is licensed for it.";
    return h;
}

std::vector<sheet::Drawing> joinPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    if (!joinsOf(b, r).empty())
        addListingPages(pages, titled(b, r, "Make: how parts are joined"), {local_rules}, joinsList(b, r, the_chassis),
                        {44, 26, 20, 30, 66, 84});
    return pages;
}

std::string makeJoinsJson(const Build& b, const Results& r) {
    Json j = {{"joins", Json::array()}, {"cautions", {local_rules}}};
    for (const Joined& one : joinsOf(b, r)) {
        Json of = {{"part", one.input.part},
                   {"onto", word(one.input.base)},
                   {"onto_said", one.input.base_known},
                   {"coated", one.input.coated},
                   {"how", make::joinWord(one.plan.way)},
                   {"process", one.plan.process},
                   {"first", one.plan.first},
                   {"verdict", verdictWord(one.plan.verdict)}};
        put(of, one.input.base_mm, "_mm", "thickness");
        of["remarks"] = remarksJson(one.plan.remarks);
        j["joins"].push_back(std::move(of));
    }
    return text(j);
}

} // namespace gorvet::analysis
