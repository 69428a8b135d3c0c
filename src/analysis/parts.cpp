// Parts of new steel: input, sheet, headline, card.
#include "analysis/parts.hpp"

#include "analysis/car_points.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/part_frame.hpp"
#include "build/part_kinds.hpp"
#include "make/part_sheet.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

const char* const part_caution =
    "Strength here is of the part alone, for the load that was said: what carries people, steers or brakes is approved by those who are licensed for it.";

make::PartIn partInput(const Build& b, const Results& r, const SteelPart& part) {
    make::PartIn in;
    in.name = part.name;
    in.kind = part.kind;
    in.yield_mpa = b.frame_facts.yield_MPa.value;
    in.yield_known = b.frame_facts.yield_MPa.provenance != Provenance::Assumed;
    in.channel = b.rail.shape == RailShape::Channel;
    in.left = r.planned_left;
    in.right = r.planned_right;
    // a wall measured elsewhere is a guess where the part stands: rust is local; so is a metal that nobody called mild
    if (part.onto_thick) in.left.thickness_mm = in.right.thickness_mm = part.onto_thick->value;
    in.wall_known = part.onto_thick && part.onto_thick->provenance != Provenance::Assumed &&
                    part.onto.value_or(b.frame_facts.metal.value_or(BaseMetal::Unknown)) == BaseMetal::Mild;
    const PartKind* kind = partKindNamed(part.kind);
    if (!kind) {
        in.missing.push_back(fmt::format("a program that knows a {}: this one is older than the build", part.kind));
        return in;
    }
    if (part.at.size() < kind->points.size())
        for (std::size_t k = part.at.size(); k < kind->points.size(); ++k) in.missing.push_back(kind->points[k]);
    else if (part.at.size() > kind->points.size() && !kind->more)
        in.missing.push_back(fmt::format("{}, and no more", units::counted(kind->points.size(), "a place")));
    CarPoints points(b, r);
    in.at = points.take(part.at);
    in.pinned = !part.pinned.empty();
    if (in.pinned) {
        in.places.at = part.pinned;
        in.places.covariance.assign(9 * part.at.size() * part.at.size(), 0);
        for (std::size_t k = 0; k < part.at.size(); ++k) {
            in.at[k] = k;
            in.places.names.push_back(nameOf(b, part.at[k]));
        }
    } else {
        if (const std::string lost = points.lost(); !lost.empty()) in.missing.push_back(lost);
        in.places = points.places();
        for (const std::string& name : points.assumed()) in.assumed.push_back("the place of " + name);
    }
    // as it came out where it was taped: what stands beside it meets the part that is there
    for (const PartFigure& f : part.made) {
        const PartFigureKind* of = kind->figure(f.name);
        if (!of || of->asked) continue;
        in.figures[f.name] = Figure{f.value.value, 0, f.value.provenance};
        if (f.value.provenance == Provenance::Assumed) in.assumed.push_back(fmt::format("its {} as made", f.name));
    }
    for (const PartFigure& f : part.figures) {
        if (!kind->figure(f.name) || in.figures.contains(f.name)) continue;
        in.figures[f.name] = Figure{f.value.value, 0, f.value.provenance};
        if (f.value.provenance == Provenance::Assumed) in.assumed.push_back(fmt::format("its {}", f.name));
    }
    for (const PartFigureKind& f : kind->figures) {
        if (in.figures.contains(f.word)) continue;
        if (f.usual) {
            in.figures[f.word] = Figure{*f.usual, 0, Provenance::Assumed};
            in.assumed.push_back(fmt::format("its {}, {}", f.word,
                                             f.unit == PartUnit::Length
                                                 ? fmt::format("{:g}", *f.usual)
                                                 : partFigureWords(f.unit, *f.usual, b.settings.length_step)));
        } else if (f.must) {
            in.missing.push_back(fmt::format("its {}, {}", f.word, f.about));
        }
    }
    return in;
}

std::optional<double> plannedFigure(const SteelPart& part, const std::string& word) {
    for (const PartFigure& f : part.figures)
        if (f.name == word) return f.value.value;
    const PartKind* kind = partKindNamed(part.kind);
    const PartFigureKind* of = kind ? kind->figure(word) : nullptr;
    return of ? of->usual : std::nullopt;
}

PartUnit partUnitOf(const SteelPart& part, const std::string& word) {
    const PartKind* kind = partKindNamed(part.kind);
    const PartFigureKind* of = kind ? kind->figure(word) : nullptr;
    return of ? of->unit : PartUnit::Length;
}
std::string partFigureWords(PartUnit unit, double value, units::LengthStep step) {
    switch (unit) {
    case PartUnit::Length: return units::formatLength(value, step, true);
    case PartUnit::Angle: return units::formatAngle(value, 1);
    case PartUnit::Newton: return fmt::format("{:.0f} N", value);
    case PartUnit::Count: break;
    }
    return fmt::format("{:g}", value);
}

std::vector<Node<make::PartIn, make::PartPlan>> partsOf(const Build& b, const Results& r, const Results* previous) {
    using Made = Node<make::PartIn, make::PartPlan>;
    std::vector<Made> all;
    for (const auto& [id, part] : b.steel_parts) {
        const Made* before = nullptr;
        if (previous)
            for (const Made& node : previous->parts)
                if (node.input().name == part.name) before = &node;
        all.push_back(Made::of(partInput(b, r, part), before, make::partPlan));
    }
    return all;
}

std::vector<std::shared_ptr<const make::PartPlan>> newSteel(const Build& b, const Results& r) {
    std::vector<std::shared_ptr<const make::PartPlan>> all;
    for (const auto& node : r.parts) {
        const SteelPart* part = steelPartNamed(b, node.input().name);
        const bool of_body =
            std::any_of(part->at.begin(), part->at.end(), [&](PointId id) { return b.points.at(id).subject == the_body; });
        if (node->made() && !node->apart && !of_body) all.push_back(node.share());
    }
    return all;
}

sheet::Drawing partsDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    std::vector<make::PartView> views;
    for (const auto& node : r.parts)
        views.push_back({&node.input(), &*node, "part:" + node.input().name, b.settings.length_step});
    return make::partsSheet(views, width, height, f);
}

Headline partsHeadline(const Build&, const Results& r, SubjectId) {
    if (r.parts.empty())
        return {
            "No part is said yet.",
            "Mark what it joins, and say its kind: part o1 outrigger at Or Sr deep 80 wide 50. Its figures follow the survey."};
    std::size_t fails = 0, waits = 0;
    double mass = 0;
    for (const auto& node : r.parts) {
        fails += node->verdict == PlanVerdict::Fails;
        waits += !node->made();
        mass += node->mass_kg;
    }
    Headline h;
    h.sentence = fails ? fmt::format("{} of {} can't be made as planned.", fails, units::counted(r.parts.size(), "a part"))
                       : fmt::format("{}, {} in all.", units::counted(r.parts.size(), "a part"), units::formatMass(mass));
    for (const auto& node : r.parts)
        if (!node->remarks.empty() && node->verdict == PlanVerdict::Fails) {
            h.below = fmt::format("{}: {} ", node.input().name, node->remarks.front().sentence);
            break;
        }
    if (waits) h.below += fmt::format("{} for a place or a figure. ", waits == 1 ? "One waits" : fmt::format("{} wait", waits));
    h.below += part_caution;
    return h;
}

namespace {

class PartCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> part(const std::string& name) const {
        const SteelPart* part = steelPartNamed(b_, name);
        if (!part) return std::nullopt;
        Card c;
        c.title = fmt::format("{} {}", part->kind, name);
        c.journal_table = "steel-part";
        c.journal_id = part->id.value;
        const std::string line = fmt::format("part {} ", name);
        for (const auto& node : r_.parts) {
            if (node.input().name != name) continue;
            const make::PartPlan& p = *node;
            c.word = verdictWord(p.verdict);
            c.severity = sheet::severityOf(p.verdict);
            if (p.made())
                c.rows.push_back({p.size_of, fmt::format("{} ± {}", len(p.size_mm.value), small(p.size_mm.u95)),
                                  markOf(p.size_mm.provenance), true});
            made(c, *part, p);
            for (const make::BarPiece& bar : p.bars)
                c.rows.push_back({"sawn off", fmt::format("{} ± {}", len(bar.length_mm.value), small(bar.length_mm.u95)),
                                  markOf(bar.length_mm.provenance), true});
            for (const make::PartFact& fact : p.facts)
                c.rows.push_back({fact.what,
                                  !fact.length_mm ? fact.words
                                  : fact.length_mm->u95 > 0
                                      ? fmt::format("{} ± {}", len(fact.length_mm->value), small(fact.length_mm->u95))
                                      : len(fact.length_mm->value),
                                  Mark::Derived, false});
            if (p.used)
                c.rows.push_back(
                    {"of what it bears, its load takes", fmt::format("{:.0f} %", 100 * *p.used), Mark::Derived, false});
            if (const auto bears = partBears(b_, r_, name))
                c.rows.push_back({"of the frame's loads it bears",
                                  fmt::format("{:.0f} of {:.0f} MPa, {}", bears->stress_mpa, bears->may_mpa, bears->case_name),
                                  Mark::Derived, false});
            if (p.mass_kg > 0) c.rows.push_back({"weighs", units::formatMass(p.mass_kg), Mark::Derived, false});
            if (!node.input().missing.empty())
                c.sentences.push_back(fmt::format("It waits for {}.", node.input().missing.front()));
            if (!p.remarks.empty()) c.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
            if (part->pinned.empty() && p.made()) {
                std::string places;
                for (const Vec3& q : p.at) places += fmt::format(" {:.1f} {:.1f} {:.1f}", q.x_mm, q.y_mm, q.z_mm);
                c.actions.push_back({"pin it where it is", line + "pinned" + places, "", false});
            }
        }
        if (!part->pinned.empty()) {
            c.rows.push_back({"its places", "pinned", Mark::None, false});
            c.actions.push_back({"let it follow the survey", line + "follows", "", false});
        }
        if (c.sentences.size() < 2) c.sentences.push_back(fmt::format("Caution: {}", part_caution));
        figures(c, *part, line);
        c.actions.push_back({"remove", "remove part " + name, "", false});
        return c;
    }

private:
    /// How it came out, against what was to be.
    void made(Card& c, const SteelPart& part, const make::PartPlan& p) const {
        for (const PartFigure& f : part.made) {
            const PartUnit unit = partUnitOf(part, f.name);
            const auto in_words = [&](double value) { return partFigureWords(unit, value, b_.settings.length_step); };
            const auto wanted = f.name == "long" ? std::optional(p.size_mm.value) : plannedFigure(part, f.name);
            c.rows.push_back({fmt::format("{} as made", f.name),
                              wanted ? fmt::format("{}, {} off", in_words(f.value.value), in_words(f.value.value - *wanted))
                                     : in_words(f.value.value),
                              markOf(f.value.provenance), false});
        }
    }
    void figures(Card& c, const SteelPart& part, const std::string& line) const {
        const PartKind* kind = partKindNamed(part.kind);
        if (!kind) return;
        for (const PartFigureKind& f : kind->figures) {
            std::string now;
            for (const PartFigure& said : part.figures)
                if (said.name == f.word) now = said.value.typed;
            c.actions.push_back({f.word, line + f.word + " ", now, true});
        }
    }
};

} // namespace

std::optional<Card> partCard(const Build& b, const Results& r, const std::string& name) {
    return PartCards(b, r, the_chassis).part(name);
}

} // namespace gorvet::analysis
