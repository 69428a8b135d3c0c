// docs/parts: a page for each kind of part, made from the list of kinds and from an example of each.
#include "make/crossmember.hpp"
#include "make/flat_sheet.hpp"
#include "make/part_examples.hpp"
#include "make/part_sheet.hpp"

#include <cstdlib>
#include <fstream>
#include <numbers>
#include <set>
#include <sstream>

#include <fmt/format.h>

namespace make_part_docs_test {

using namespace gorvet;

namespace {

std::string unitOf(build::PartUnit u) {
    switch (u) {
    case build::PartUnit::Length: return "mm";
    case build::PartUnit::Angle: return "degrees";
    case build::PartUnit::Newton: return "N";
    case build::PartUnit::Count: return "";
    }
    return "";
}
std::string shown(const build::PartFigureKind& f, double v) {
    return fmt::format("{:g}", f.unit == build::PartUnit::Angle ? std::round(v * 180 / std::numbers::pi) : v);
}
std::string upper(std::string text) {
    text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
    return text;
}

std::string pageOf(const build::PartKind& kind) {
    std::string page = fmt::format("# {}\n\n{}.\n\n{}\n\n## Its places\n\n", upper(kind.word), upper(kind.about), kind.advice);
    for (std::size_t k = 0; k < kind.points.size(); ++k)
        page +=
            fmt::format("{}. {}{}\n", k + 1, kind.points[k], kind.more && k + 1 == kind.points.size() ? "; more may follow" : "");
    page += "\n## Its figures\n\n| word | in | from | to | unsaid |\n|---|---|---|---|---|\n";
    for (const auto& f : kind.figures)
        page +=
            fmt::format("| `{}` {} | {} | {} | {} | {} |\n", f.word, f.about, unitOf(f.unit), shown(f, f.least), shown(f, f.most),
                        f.usual  ? shown(f, *f.usual) + ", as usual"
                        : f.must ? "it waits"
                                 : "–");
    std::string line = fmt::format("part p1 {} at", kind.word);
    const auto& places = make_parts::examplePlaces().at(kind.word);
    for (std::size_t k = 0; k < places.size(); ++k) line += fmt::format(" P{}", k + 1);
    std::map<std::string, double> figures;
    for (const auto& f : kind.figures)
        if (f.must) {
            figures[f.word] = f.shown;
            line += fmt::format(" {} {}", f.word, shown(f, f.shown));
        }
    page += fmt::format("\n## An example\n\n`{}`, its places at\n\n| | station | offset | height |\n|---|---|---|---|\n", line);
    for (std::size_t k = 0; k < places.size(); ++k)
        page += fmt::format("| P{} | {:g} | {:g} | {:g} |\n", k + 1, places[k].x_mm, places[k].y_mm, places[k].z_mm);
    page += "\nbetween box rails of 100 × 60 × 4, 900 apart, is made of\n\n| piece | of | mm | ends |\n|---|---|---|---|\n";
    const make::PartPlan p = make::partPlan(make_parts::part(kind.word, places, figures));
    for (const auto& b : p.bars)
        page += fmt::format("| {} | {} | {:.1f} | {} |\n", b.name, make::stockWords(b), b.length_mm.value, make::endsWords(b));
    for (const auto& f : p.flats)
        page +=
            fmt::format("| {}{} | plate {} | {} | {} |\n", f.count > 1 ? fmt::format("{} × ", f.count) : "", f.name,
                        make::trimmed(f.thickness_mm), make::sizeWords(f, units::LengthStep::Mm01),
                        f.bends.empty() ? units::counted(f.holes.size(), "a hole") : units::counted(f.bends.size(), "a bend"));
    page += fmt::format("\n{}: {:.1f} ± {:.1f}.", upper(p.size_of), p.size_mm.value, p.size_mm.u95);
    if (p.mass_kg > 0) page += fmt::format(" It weighs {:.2f} kg.", p.mass_kg);
    page += "\n";
    if (!p.facts.empty()) page += "\nWorked out besides:\n\n";
    for (const auto& fact : p.facts)
        page +=
            fmt::format("- {} {}\n", fact.what, fact.length_mm ? fmt::format("{:.1f} mm", fact.length_mm->value) : fact.words);
    if (!p.seams.empty()) page += "\nWelds:\n\n";
    for (const auto& s : p.seams)
        page += fmt::format("- {}, {:.0f} mm, {}\n", s.what, s.length_mm, s.on_car ? "on the car" : "on the bench");
    if (!p.remarks.empty()) page += "\nSaid of it:\n\n";
    for (const auto& r : p.remarks) page += fmt::format("- {} {}\n", r.sentence, r.remedy);
    page += "\nNot looked at:\n\n";
    std::set<std::string> said;
    for (const auto& what : p.not_looked_at)
        if (said.insert(what).second) page += fmt::format("- {}\n", what);
    page +=
        "\nLocal rules and licensed practice come first. What carries people, steers, brakes or lifts is approved by those who are licensed for it.\n";
    return page;
}

std::string read(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    std::stringstream text;
    text << in.rdbuf();
    return text.str();
}

} // namespace

TEST_CASE("docs/parts has a page for each kind, as the kinds are (golden)", "[make][part][docs]") {
    const std::string folder = std::string(GORVET_SOURCE_DIR) + "/docs/parts/";
    std::string index = "# Parts of new steel\n\nA page for each kind. How they are said, drawn and checked stands in "
                        "[the handbook](../handbook/make.md).\n\n| kind | what it is |\n|---|---|\n";
    const bool write = std::getenv("GORVET_WRITE_GOLDEN");
    for (const auto& kind : build::partKinds()) {
        INFO(kind.word);
        CHECK(kind.advice.size() > 40);
        const std::string page = pageOf(kind), path = folder + kind.word + ".md";
        if (write) std::ofstream(path, std::ios::binary) << page;
        CHECK(read(path) == page);
        index += fmt::format("| [{0}]({0}.md) | {1} |\n", kind.word, kind.about);
    }
    if (write) std::ofstream(folder + "index.md", std::ios::binary) << index;
    CHECK(read(folder + "index.md") == index);
}

} // namespace make_part_docs_test
