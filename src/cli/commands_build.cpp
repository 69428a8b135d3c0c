// Commands about a build as a whole: made, filled, looked up, taken back, written out.
#include "analysis/bench.hpp"
#include "analysis/export.hpp"
#include "analysis/findings.hpp"
#include "analysis/json.hpp"
#include "cli/commands.hpp"
#include "cli/keep_commands.hpp"
#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"
#include "cli/what_if.hpp"

#include <algorithm>
#include <iostream>

namespace gorvet::cli {

using namespace analysis;
namespace {

struct Opened {
    StorePtr store;
    Results results;
};

Result<Opened> openAndAnalyse(const std::string& path) {
    auto store = openToRead(path);
    if (!store) return store.error();
    Opened opened{std::move(*store), {}};
    opened.results = analysed(*opened.store);
    return opened;
}

template <class F> int withResults(const std::string& path, F&& print) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    print(*opened);
    return 0;
}

int exportEverything(const std::string& path, const std::string& directory) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    const build::Build& b = opened->store->build();
    waitFor(*opened->store, b, opened->results, slowOnPaper());
    auto written = exportAll(b, opened->results, directory);
    if (!written) return fail(written.error());
    for (const auto& file : *written) std::cout << file.string() << "\n";
    return 0;
}

int printFindings(const std::string& path, bool without_scans) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    if (!without_scans) waitFor(*opened->store, opened->store->build(), opened->results, slowForFindings());
    std::cout << findingsJson(opened->results.findings);
    return 0;
}

int printLacks(const std::string& path) {
    auto opened = openAndAnalyse(path);
    if (!opened) return fail(opened.error());
    std::cout << lacksJson(opened->store->build(), opened->results);
    return 0;
}

int playWork(const std::string& path) {
    bool to_the_end = false;
    const int code = withResults(path, [&](const Opened& o) { std::cout << playedJson(o.results, to_the_end); });
    return code ? code : to_the_end ? 0 : exit_open;
}

void addFilling(Commands& commands) {
    CLI::App& app = commands.app();
    {
        auto [c, a] = commands.add(app, "new", "make an empty build");
        fileArgument(c, a.path);
        c.add_option("--name", a.text, "the build's name");
        commands.runs(c, [&a = a] { return newBuild(a.path, a.text); });
    }
    {
        auto [c, a] = commands.add(app, "import", "add the readings of a CSV file");
        fileArgument(c, a.path);
        c.add_option("READINGS", a.other, "readings as CSV")->required();
        subjectOption(c, a.subject);
        c.add_option("--session", a.text, "name of the measuring session that takes them");
        whyOption(c, a.why);
        commands.runs(c, [&a = a] { return importReadings(a.path, a.other, a.subject, a.text, a.why); });
    }
    {
        auto [c, a] = commands.add(app, "import-points", "add the points of a CSV file");
        fileArgument(c, a.path);
        c.add_option("POINTS", a.other, "points as CSV")->required();
        c.add_option("--as", a.text, "rough, drawing or coordinates")
            ->required()
            ->check(CLI::IsMember({"rough", "drawing", "coordinates"}));
        c.add_option("--source", a.from, "where they come from: the drawing's or the session's name");
        subjectOption(c, a.subject);
        commands.runs(c, [&a = a] { return importPoints(a.path, a.other, a.subject, a.text, a.from); });
    }
    {
        auto [c, a] = commands.add(app, "enter", "type lines as on the entry line; without lines, from standard input");
        fileArgument(c, a.path);
        c.add_option("LINES", a.lines, "lines to enter");
        subjectOption(c, a.subject);
        whyOption(c, a.why);
        commands.runs(c, [&a = a] { return enterLines(a.path, a.subject, a.lines, a.why); });
    }
    {
        auto [c, a] = commands.add(app, "what-if", "what lines would change, typed on a copy: nothing is kept");
        fileArgument(c, a.path);
        c.add_option("LINE", a.lines, "as they are typed in the window")->required();
        subjectOption(c, a.subject);
        c.add_flag("--with-scans", a.flag, "with the clearances of the scans, which take some seconds");
        commands.runs(c, [&a = a] { return whatIf(a.path, a.subject, a.lines, a.flag); });
    }
}

void addLookingUp(Commands& commands) {
    CLI::App& app = commands.app();
    {
        auto [c, a] = commands.add(app, "findings", "all findings");
        fileArgument(c, a.path);
        c.add_flag("--without-scans", a.flag, "leave out the clearances of the scans, which take some seconds");
        commands.runs(c, [&a = a] { return printFindings(a.path, a.flag); });
    }
    {
        auto [c, a] = commands.add(app, "lacks", "what each bench waits for, by name");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printLacks(a.path); });
    }
    {
        auto [c, a] = commands.add(app, "log", "the logbook");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a] { return printLog(a.path); });
    }
    for (const bool back : {true, false}) {
        auto [c, a] = commands.add(app, back ? "undo" : "redo", back ? "take the last step back" : "do it again");
        fileArgument(c, a.path);
        commands.runs(c, [&a = a, back] { return undoRedo(a.path, back); });
    }
    {
        auto [c, a] = commands.add(app, "export", "write drawings, cut list, readings and the build sheet");
        fileArgument(c, a.path);
        c.add_option("--all", a.other, "folder to write into")->required();
        commands.runs(c, [&a = a] { return exportEverything(a.path, a.other); });
    }
}

} // namespace

void addBuildCommands(Commands& commands) {
    addFilling(commands);
    addLookingUp(commands);
}

namespace {

/// "FILE", or "track FILE".
int printPart(const BenchInfo& bench, const std::vector<std::string>& said) {
    auto* json = bench.json;
    std::vector<std::string_view> needs;
    if (said.size() == 2) {
        const auto part =
            std::find_if(bench.parts.begin(), bench.parts.end(), [&](const JsonPart& p) { return p.key == said.front(); });
        if (part == bench.parts.end()) {
            std::string keys;
            for (const JsonPart& p : bench.parts) keys += (keys.empty() ? "" : ", ") + std::string(p.key);
            return fail(Error{Error::Code::BadInput, said.front(), fmt::format("{} has no part {}.", bench.key, said.front()),
                              "It has: " + keys + ".", -1});
        }
        json = part->json;
        needs = part->needs;
    }
    return withResults(said.back(), [json, &needs](const Opened& o) {
        Results r = o.results;
        waitFor(*o.store, o.store->build(), r, needs);
        std::cout << json(o.store->build(), r);
    });
}

} // namespace

void addBenchCommands(Commands& commands) {
    for (const BenchInfo* bench : benches()) {
        if (!bench->json) continue;
        auto [c, a] = commands.add(commands.app(), std::string(bench->key), bench->command);
        if (bench->parts.empty()) {
            fileArgument(c, a.path);
        } else {
            std::string keys;
            for (const JsonPart& part : bench->parts) keys += (keys.empty() ? "" : ", ") + std::string(part.key);
            c.add_option("FILE", a.lines, "a build, FILE.gorvet; before it, one part alone: " + keys)->required()->expected(1, 2);
            commands.runs(c, [&a = a, bench] { return printPart(*bench, a.lines); });
            continue;
        }
        if (bench->key == "work")
            c.add_flag("--play", a.flag,
                       "play it step by step in a simulated workshop that refuses what hands can't do or what hurts");
        commands.runs(c, [&a = a, bench] {
            if (a.flag) return playWork(a.path);
            return withResults(a.path, [bench](const Opened& o) { std::cout << bench->json(o.store->build(), o.results); });
        });
    }
}

} // namespace gorvet::cli
