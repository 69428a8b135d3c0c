// Commands about surveys, axles, gaps and what was found.
#include "cli/commands.hpp"
#include "cli/keep_commands.hpp"
#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "files/between.hpp"

namespace gorvet::cli {
namespace {

struct Compared : Asked {
    CompareAsked how;
};

void addComparing(Commands& commands, CLI::App& tape) {
    {
        auto [c, a] = commands.add<Compared>(tape, "compare", "what moved between two surveys");
        c.add_option("BEFORE", a.path, "READINGS.csv, FILE.gorvet or FILE.gorvet:SESSION")->required();
        c.add_option("AFTER", a.other, "the same")->required();
        subjectOption(c, a.subject);
        c.add_flag("--as-measured", a.how.as_measured, "both stand on the same datum: do not lay one on the other");
        c.add_flag("--planned", a.how.planned, "take off the change of wheelbase that BEFORE plans");
        c.add_option("--lay", a.how.lay, "lay them on each other by these points alone")->delimiter(',');
        commands.runs(c, [&a = a] { return tapeCompare(a.path, a.other, a.subject, a.how); });
    }
    {
        auto [c, a] = commands.add(tape, "drawing", "how far the points stand off the drawing's figures");
        c.add_option("FILE", a.path, "FILE.gorvet")->required();
        subjectOption(c, a.subject);
        commands.runs(c, [&a = a] { return tapeDrawing(a.path, a.subject); });
    }
    {
        auto [c, a] = commands.add(tape, "report", "the report \"as found\" as PDF");
        surveyArgument(c, a.path);
        c.add_option("OUT", a.other, "the PDF to write")->required();
        subjectOption(c, a.subject);
        commands.runs(c, [&a = a] { return tapeReport(a.path, a.subject, a.other); });
    }
    {
        auto [c, a] = commands.add(tape, "points", "the points with their σ as CSV");
        surveyArgument(c, a.path);
        c.add_option("--out", a.other, "the file to write; without, standard output");
        subjectOption(c, a.subject);
        commands.runs(c, [&a = a] { return tapePoints(a.path, a.subject, a.other); });
    }
}

} // namespace

void addTapeCommands(Commands& commands) {
    CLI::App& tape = commands.group("tape", "the survey");
    {
        auto [c, a] = commands.add(tape, "solve", "adjust the readings of a CSV file or a build");
        surveyArgument(c, a.path);
        subjectOption(c, a.subject);
        c.add_flag("--keep-all", a.flag, "set no reading aside: every reading counts");
        commands.runs(c, [&a = a] { return tapeSolve(a.path, a.subject, a.flag); });
    }
    {
        auto [c, a] = commands.add(tape, "next", "what to measure next, and a round of readings in walking order");
        c.add_option("FILE", a.path, "FILE.gorvet")->required();
        subjectOption(c, a.subject);
        c.add_option("--count", a.count, "readings in the round")->check(files::between(1, 200));
        c.add_option("--want", a.text,
                     "everything, figures, diamond, twist, sidesway, rails, wheelbase, tracks or \"point NAME\"");
        c.add_option("--sheet", a.other, "write the round as a measuring sheet, PDF");
        commands.runs(c, [&a = a] { return tapeNext(a.path, a.subject, a.text, a.count, a.other); });
    }
    {
        auto [c, a] = commands.add(tape, "condition", "the frame's figures alone");
        surveyArgument(c, a.path);
        subjectOption(c, a.subject);
        commands.runs(c, [&a = a] { return tapeCondition(a.path, a.subject); });
    }
    addComparing(commands, tape);
    CLI::App& axle = commands.group("axle", "axles and wheels");
    {
        auto [c, a] = commands.add(axle, "align", "how axles and wheels stand");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return axleAlign(a.path); });
    }
    {
        auto [c, a] = commands.add(commands.app(), "gaps", "door and panel gaps over the events of the work");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printGaps(a.path); });
    }
    {
        auto [c, a] =
            commands.add(commands.app(), "found", "what was found at points and parts: repair, renew, or another frame");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printFound(a.path); });
    }
}

void addPracticeCommands(Commands& commands) {
    CLI::App& practice = commands.group("practice", "a crooked frame with a hidden truth, to be measured and diagnosed");
    {
        auto [c, a] = commands.add(practice, "new", "make a practice frame");
        fileArgument(c, a.path);
        a.number = 1;
        a.count = 1;
        c.add_option("--seed", a.number, "which frame")->check(files::between(0.0, 2147483647.0));
        c.add_option("--difficulty", a.count, "1, 2 or 3")->check(files::between(1, 3));
        commands.runs(c, [&a = a] { return practiceNew(a.path, a.number, a.count); });
    }
    {
        auto [c, a] = commands.add(practice, "take", "read it with a simulated instrument");
        fileArgument(c, a.path);
        c.add_option("KIND", a.text, "tape, height, slope, …")->required();
        c.add_option("FROM", a.from, "a point")->required();
        c.add_option("TO", a.to, "the other point");
        c.add_flag("--keep", a.flag, "and keep the reading");
        commands.runs(c, [&a = a] { return practiceTake(a.path, a.text, a.from, a.to, a.flag); });
    }
    {
        auto [c, a] = commands.add(practice, "mark", "what was said, and the marks once it was handed in");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return practiceMark(a.path); });
    }
}

} // namespace gorvet::cli
