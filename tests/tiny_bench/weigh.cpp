// A bench of one figure that is built and driven by its test and not shipped: what the four wheels carry together. It is all that
// a bench needs: a descriptor, a table of commands, and a place in the two tables. CONTRIBUTING.md walks through it.
#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"
#include "entry/commands.hpp"
#include "files/out_file.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {
namespace {

constexpr double limit_kg = 1500;

double total(const build::Build& b) {
    double sum = 0;
    for (const auto& [id, w] : b.wheels) sum += w.weight ? w.weight->value : 0;
    return sum;
}

bool begun(const build::Build& b, const Results&) { return total(b) > 0; }

Headline headlineOf(const build::Build& b, const Results&, build::SubjectId) {
    return {fmt::format("The wheels carry {:.0f} kg.", total(b)), "Weigh on level ground."};
}

sheet::Drawing view(const build::Build& b, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                    const sheet::Format& f) {
    sheet::Drawing d{width, height, {}};
    d.add(sheet::Text{{width / 2, height / 2}, fmt::format("{:.0f} kg", total(b)), f.head()}, "total");
    return d;
}

void addFindings(const build::Build& b, const Results&, std::vector<Finding>& out) {
    if (total(b) <= limit_kg) return;
    Finding f;
    f.severity = sheet::Severity::Bad;
    f.code = "weigh.heavy";
    f.subject = "wheels";
    f.word = "Fails";
    f.sentence = fmt::format("The wheels carry {:.0f} kg.", total(b));
    f.brief = "heavy";
    out.push_back(std::move(f));
}

std::optional<Card> card(const build::Build& b, const Results&, build::SubjectId, const Tag& tag) {
    if (tag.kind != "total") return std::nullopt;
    Card c;
    c.title = fmt::format("{:.0f} kg", total(b));
    return c;
}

void addPages(const build::Build& b, const Results&, std::vector<sheet::Drawing>& pages) {
    sheet::Drawing page{297, 210, {}};
    page.add(sheet::Text{{20, 20}, fmt::format("Weighed: {:.0f} kg", total(b)), 5});
    pages.push_back(std::move(page));
}

void addFiles(const build::Build& b, const Results&, FileKeeper& out) {
    out.keep("weights.csv",
             [&](const auto& to) { return files::putText(to, files::Kind::Csv, fmt::format("{:.0f}\n", total(b))); });
}

std::string json(const build::Build& b, const Results&) { return fmt::format("{{\"total_kg\": {}}}\n", total(b)); }

const BenchInfo weigh_bench{"weigh",
                            "Weigh",
                            "What do the wheels carry?",
                            "what the wheels carry",
                            begun,
                            headlineOf,
                            nullptr,
                            {{"sheet", "The sheet", view}},
                            addFindings,
                            card,
                            addPages,
                            addFiles,
                            json};

} // namespace

extern const BenchInfo tape_bench;
extern const BenchInfo work_bench;

const std::vector<const BenchInfo*>& benches() {
    static const std::vector<const BenchInfo*> table{&tape_bench, &weigh_bench, &work_bench};
    return table;
}

} // namespace gorvet::analysis

namespace gorvet::entry {
namespace {

/// `everywhere MASS`: the same on each wheel.
void everywhere(Reader& r) {
    const Word typed = r.line_.upTo({});
    const auto mass = r.figure(typed, units::Kind::Mass, "the mass");
    for (const Wheel wheel : {Wheel::FrontLeft, Wheel::FrontRight, Wheel::RearLeft, Wheel::RearRight}) {
        WheelReadings w;
        for (const auto& [id, old] : r.b_.wheels)
            if (old.wheel == wheel) w = old;
        if (!w.id) w.id = r.fresh<WheelReadings>();
        w.wheel = wheel;
        w.weight = mass;
        r.put(Put<WheelReadings>{w});
    }
    r.say(fmt::format("each wheel carries {}", units::formatMass(mass.value)));
}

void nothing(Reader& r, const Word&) {
    for (const auto& [id, w] : r.b_.wheels) r.put(Drop<WheelReadings>{id});
    r.say("forget the weights");
}

const CommandTable weigh_commands{
    "Weigh", {{{"everywhere"}, everywhere, nothing, {{"everywhere mass", "everywhere 300 kg", "the same on each wheel"}}}}};

} // namespace

extern const CommandTable tape_commands;
extern const CommandTable build_commands;

const std::vector<const CommandTable*>& commandTables() {
    static const std::vector<const CommandTable*> tables{&tape_commands, &weigh_commands, &build_commands};
    return tables;
}

} // namespace gorvet::entry
