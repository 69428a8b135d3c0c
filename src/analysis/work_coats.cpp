// Rust and coats: surfaces in rows, on cards, on paper and as JSON.
#include "analysis/json_parts.hpp"
#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

std::vector<work::SurfaceShown> surfacesOf(const Build& b) {
    std::vector<work::SurfaceShown> list;
    const long long now = units::nowSeconds();
    for (const auto& [id, s] : b.surfaces) {
        work::SurfaceShown shown{s, coatsOf(b, id), {}};
        shown.plan = work::planOf(s, shown.coats, now);
        list.push_back(std::move(shown));
    }
    return list;
}

namespace {

std::string readyWords(const work::SurfaceShown& s) {
    std::string text(word(s.surface.preparation));
    if (s.surface.preparation == Preparation::Skip) return text + ": " + s.surface.skip_why;
    if (s.surface.bared) text += ", bare " + s.surface.bared->at_utc.substr(0, 10);
    return text;
}
/// "40 min", "6.1 h".
std::string potWords(double minutes) {
    return minutes < 120 ? fmt::format("{:.0f} min", minutes) : fmt::format("{:.1f} h", minutes / 60);
}
Mark markOf(const work::CoatPlan& c) { return c.assumed ? Mark::Assumed : Mark::Derived; }

} // namespace

Headline coatHeadline(const Build& b, const Results&, SubjectId) {
    const auto all = surfacesOf(b);
    if (all.empty())
        return {
            "No surface is listed yet.",
            "What is made good: surface sill-in steel blast m2 1.4 within left sill; then its coats as they go on: coat sill-in primer epoxy-primer."};
    int bare = 0, open = 0, wrong = 0;
    double litres = 0;
    for (const work::SurfaceShown& s : all) {
        bare += s.plan.bare_h.has_value();
        for (const work::CoatPlan& c : s.plan.coats)
            if (!c.done) {
                ++open;
                litres += c.litres;
            }
        for (const work::CoatRemark& r : s.plan.remarks) wrong += r.verdict == units::PlanVerdict::Fails;
    }
    Headline h;
    h.sentence =
        wrong ? fmt::format("{} that can't stay so.", units::counted(static_cast<std::size_t>(wrong), "a coat or surface"))
        : bare
            ? fmt::format("{} bare metal: it rusts again.", bare == 1 ? "One surface is" : fmt::format("{} surfaces are", bare))
        : open ? fmt::format("{} to go on: {:.1f} l.", units::counted(static_cast<std::size_t>(open), "a coat"), litres)
               : "All coats are on.";
    h.below =
        "What stands on the tin decides: coverage, drying and pot life marked ? are usual for their kind. Two-pack surfacer and clear hold isocyanates: supplied air, no filter mask.";
    return h;
}

Listing coatList(const Build& b, const Results&, SubjectId) {
    Listing list{
        {"surface", "coat", "litres", "dries", "pot life", "done", "area", "metal", "made ready", "to see to"}, 6, "coat", {}};
    for (const work::SurfaceShown& s : surfacesOf(b)) {
        const std::size_t first_row = list.rows.size();
        const std::string first = s.plan.remarks.empty() ? "" : s.plan.remarks.front().sentence;
        const auto row = [&](std::vector<ListCell> cells) {
            ListRow r;
            r.cells = std::move(cells);
            r.tag = "surface:" + s.surface.name;
            r.line = "coat " + s.surface.name + " ";
            if (!s.plan.remarks.empty() && list.rows.size() == first_row)
                r.severity = s.plan.remarks.front().verdict == units::PlanVerdict::Fails ? Severity::Bad : Severity::Warn;
            list.rows.push_back(std::move(r));
        };
        if (s.coats.empty())
            row({words(s.surface.name), words(""), words(""), words(""), words(""), words(""), words(s.surface.area),
                 words(std::string(word(s.surface.metal))), words(readyWords(s)), words(first)});
        for (std::size_t k = 0; k < s.coats.size(); ++k) {
            const work::CoatPlan& c = s.plan.coats[k];
            const Coat& coat = s.coats[k];
            row({words(s.surface.name),
                 words(fmt::format("{} {}{}", k + 1, word(coat.kind), coat.coats > 1 ? fmt::format(" × {:g}", coat.coats) : "")),
                 c.litres > 0 ? number(fmt::format("{:.2f} l", c.litres), c.litres, markOf(c)) : words("not known"),
                 number(fmt::format("{:.1f} h", c.dries_h), c.dries_h, markOf(c)),
                 c.pot_min > 0 ? number(potWords(c.pot_min), c.pot_min, coat.pot_min > 0 ? Mark::Derived : Mark::Assumed)
                               : words(""),
                 words(coat.done ? coat.done->at_utc.substr(0, 10) + " " + coat.done->who : ""), words(s.surface.area),
                 words(std::string(word(s.surface.metal))), words(readyWords(s)), words(k ? "" : first)});
        }
    }
    return list;
}

std::vector<sheet::Drawing> coatSheets(const Build& b, const Results& r) {
    const auto all = surfacesOf(b);
    if (all.empty()) return {};
    return work::coatPages(
        all, titled(b, r, "Rust and coats"),
        {local_rules,
         "Old coats may hold lead, sand silica; two-pack coats isocyanates: supplied air, gloves, nobody else near. No flame near solvents.",
         "What stands on the tin decides."});
}

std::optional<Card> surfaceCard(const Build& b, const std::string& name) {
    for (const work::SurfaceShown& s : surfacesOf(b)) {
        if (s.surface.name != name) continue;
        Card c;
        c.title = name;
        const work::CoatPlan* next = s.plan.next();
        c.word = s.surface.preparation == Preparation::Skip ? "skipped" : s.plan.bare_h ? "bare" : next ? "open" : "coated";
        c.severity = Severity::Good;
        for (const work::CoatRemark& r : s.plan.remarks)
            c.severity = std::max(c.severity, r.verdict == units::PlanVerdict::Fails ? Severity::Bad : Severity::Warn);
        const auto row = [&](const char* label, const std::string& text, Mark mark = Mark::None) {
            if (!text.empty()) c.rows.push_back({label, text, mark, false});
        };
        row("area", s.surface.area);
        row("metal", std::string(word(s.surface.metal)));
        row("made ready", readyWords(s));
        row("inside of", s.surface.space);
        if (s.surface.size_m2 > 0) row("size", fmt::format("{:g} m²", s.surface.size_m2));
        if (s.surface.seams_mm > 0) row("seams", fmt::format("{:.1f} m", s.surface.seams_mm / 1000));
        if (s.surface.at_c) row("at", fmt::format("{:g} °C", *s.surface.at_c));
        for (const work::CoatPlan& p : s.plan.coats)
            c.rows.push_back(
                {p.name, fmt::format("{}, {:.2f} l, dries {:.1f} h{}", word(p.kind), p.litres, p.dries_h, p.done ? ", on" : ""),
                 markOf(p), false});
        for (const work::CoatRemark& r : s.plan.remarks) c.sentences.push_back(r.sentence + " " + r.remedy);
        if (!s.surface.note.empty()) c.sentences.push_back(s.surface.note);
        if (s.surface.preparation != Preparation::Skip) {
            if (next && s.surface.bared)
                c.actions.push_back({next->name + " is on", "coated " + name + " " + next->name, "", false});
            if (!s.surface.bared) c.actions.push_back({"it is bare metal now", "bared " + name, "", false});
            c.actions.push_back({"another coat", "coat " + name + " ", "", true});
            c.actions.push_back({"make jobs of it", "coat-jobs " + name, "", false});
        }
        c.actions.push_back({"remove the surface", "remove surface " + name, "", false});
        c.journal_table = "surface";
        c.journal_id = s.surface.id.value;
        return c;
    }
    return std::nullopt;
}

std::string coatsJson(const Build& b, const Results& r) {
    Json j;
    double litres = 0;
    const auto signedBy = [](const std::optional<Signed>& s) {
        return s ? Json{{"who", s->who}, {"at_utc", s->at_utc}} : Json(nullptr);
    };
    j["surfaces"] = Json::array();
    for (const work::SurfaceShown& s : surfacesOf(b)) {
        Json coats = Json::array();
        for (std::size_t k = 0; k < s.coats.size(); ++k) {
            const work::CoatPlan& p = s.plan.coats[k];
            if (!p.done) litres += p.litres;
            coats.push_back({{"name", p.name},
                             {"kind", word(p.kind)},
                             {"product", s.coats[k].product},
                             {"coats", s.coats[k].coats},
                             {"by", word(s.coats[k].by)},
                             {"litres", p.litres > 0 ? number(p.litres) : Json(nullptr)},
                             {"dries_h", number(p.dries_h)},
                             {"pot_life_min", p.pot_min > 0 ? number(p.pot_min) : Json(nullptr)},
                             {"provenance", p.assumed ? "assumed" : "derived"},
                             {"done", signedBy(s.coats[k].done)}});
        }
        Json remarks = Json::array();
        for (const work::CoatRemark& remark : s.plan.remarks)
            remarks.push_back({{"verdict", remark.verdict == units::PlanVerdict::Fails ? "Fails" : "Marginal"},
                               {"sentence", remark.sentence},
                               {"remedy", remark.remedy}});
        j["surfaces"].push_back({{"name", s.surface.name},
                                 {"area", s.surface.area},
                                 {"metal", word(s.surface.metal)},
                                 {"preparation", word(s.surface.preparation)},
                                 {"skipped_because", s.surface.skip_why.empty() ? Json(nullptr) : Json(s.surface.skip_why)},
                                 {"size_m2", s.surface.size_m2 > 0 ? number(s.surface.size_m2) : Json(nullptr)},
                                 {"seams_mm", number(s.surface.seams_mm)},
                                 {"inside_of", s.surface.space.empty() ? Json(nullptr) : Json(s.surface.space)},
                                 {"temperature_C", s.surface.at_c ? Json{{"value", *s.surface.at_c}, {"provenance", "measured"}}
                                                                  : Json{{"value", 20}, {"provenance", "assumed"}}},
                                 {"bared", signedBy(s.surface.bared)},
                                 {"bare_for_h", number(s.plan.bare_h)},
                                 {"left_until_coated_h", number(s.plan.bare_left_h)},
                                 {"coats", std::move(coats)},
                                 {"remarks", std::move(remarks)}});
    }
    j["litres_left"] = number(litres);
    j["permits"] = Json::array();
    for (const auto& [id, p] : b.permits)
        j["permits"].push_back({{"step", p.step},
                                {"watch", p.watch},
                                {"begun", signedBy(p.begun)},
                                {"sparks_out", signedBy(p.ended)},
                                {"watched", signedBy(p.watched)}});
    j["findings"] = findings(r.findings, "work");
    return text(j);
}

} // namespace gorvet::analysis
