#include "cli/tape_commands.hpp"

#include "analysis/export.hpp"
#include "analysis/findings.hpp"
#include "analysis/json.hpp"
#include "analysis/survey_lines.hpp"
#include "cli/open_build.hpp"
#include "files/out_file.hpp"
#include "formats/points_csv.hpp"
#include "formats/readings_csv.hpp"
#include "sheet/write.hpp"
#include "units/text.hpp"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <optional>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;

int fail(const Error& e) {
    std::cerr << "gorvet-cli: " << units::visible(e.text()) << "\n";
    return exit_wrong;
}

void sayProblems(const std::string& file, const std::vector<formats::CsvProblem>& problems) {
    constexpr size_t most = 100;
    for (size_t i = 0; i < problems.size() && i < most; ++i) std::cerr << file << ", " << problems[i].sentence() << "\n";
    if (problems.size() > most) std::cerr << file << ": and " << problems.size() - most << " lines more were left out.\n";
}

Result<std::string> fileText(const std::string& path) {
    if (auto plain = files::isPlainFile(path); !plain) return plain.error();
    constexpr std::uintmax_t most_bytes = 64ULL << 20;
    std::error_code ec;
    if (const auto size = std::filesystem::file_size(path, ec); !ec && size > most_bytes)
        return Error{Error::Code::BadInput, path,
                     fmt::format("{} has {} MB: no list of readings is longer than {} MB.", path, size >> 20, most_bytes >> 20),
                     "Is it the right file?", -1};
    std::ifstream in(path, std::ios::binary);
    std::ostringstream text;
    text << in.rdbuf();
    if (!in && text.tellp() != 0) in.clear();
    if (!in.eof() && !in)
        return Error{Error::Code::NotFound, path, path + " can't be read.", "Check its name and permissions.", -1};
    files::protect(path);
    return text.str();
}

namespace {

bool isBuildFile(const std::string& path) { return std::filesystem::path(path).extension() == ".gorvet"; }

/// A survey's build from a file of either kind, with the lines of a CSV.
struct Loaded {
    build::Build build;
    std::map<build::ReadingId, int> lines;
    int left_out = 0;
    build::SubjectId subject; ///< of the name that was asked for
};

Result<Loaded> load(const std::string& path, const std::string& subject_name) {
    Loaded loaded;
    // FILE.gorvet:SESSION keeps the readings of that session alone
    std::string file = path;
    std::string session;
    if (const auto colon = path.rfind(".gorvet:"); colon != std::string::npos) {
        file = path.substr(0, colon + 7);
        session = path.substr(colon + 8);
    }
    if (isBuildFile(file)) {
        auto store = openToRead(file);
        if (!store) return store.error();
        loaded.build = (*store)->build();
        const auto subject = subjectIn(loaded.build, subject_name, file);
        if (!subject) return subject.error();
        loaded.subject = *subject;
        if (session.empty()) return loaded;
        bool known = false;
        for (const auto& [id, s] : loaded.build.sessions) known = known || (s.subject == loaded.subject && s.name == session);
        if (!known)
            return Error{Error::Code::NotFound, session,
                         fmt::format("There is no session {} of the {} in {}.", session, subject_name, file),
                         "gorvet-cli log shows their names.", -1};
        erase_if(loaded.build.readings,
                 [&](const auto& r) { return loaded.build.sessions.at(r.second.session).name != session; });
        return loaded;
    }
    const auto subject = subjectIn(loaded.build, subject_name, file);
    if (!subject) return subject.error();
    loaded.subject = *subject;
    auto text = fileText(file);
    if (!text) return text.error();
    auto read = formats::readReadings(*text, loaded.build, *subject, {}, "import");
    if (!read) return read.error();
    if (!read->remark.empty()) std::cerr << file << ": " << read->remark << "\n";
    sayProblems(file, read->problems);
    loaded.left_out = static_cast<int>(read->problems.size());
    if (auto done = build::enact(loaded.build, read->edit); !done) return done.error();
    loaded.lines = read->lines;
    return loaded;
}

int sayOpen(const analysis::SurveyOf& survey) {
    std::cerr << "gorvet-cli: " << survey.solution->message << "\n";
    for (const auto& u : survey.solution->undetermined) std::cerr << "  " << u.sentence << " " << u.remedy << "\n";
    return exit_open;
}

} // namespace

int tapeSolve(const std::string& path, const std::string& subject_name, bool keep_all) {
    auto loaded = load(path, subject_name);
    if (!loaded) return fail(loaded.error());
    const build::SubjectId subject = loaded->subject;
    analysis::Results r = analysed(loaded->build);
    analysis::SurveyOf& survey = r.of(subject);
    if (keep_all) {
        analysis::solveWithAll(survey);
        analysis::findAgain(loaded->build, r);
    }
    std::cout << tapeJson(survey, r.findings, loaded->lines);
    if (survey.solution->status != tape::Status::Solved) return sayOpen(survey);
    return loaded->left_out ? exit_open : 0;
}

int tapeCondition(const std::string& path, const std::string& subject_name) {
    auto loaded = load(path, subject_name);
    if (!loaded) return fail(loaded.error());
    const build::SubjectId subject = loaded->subject;
    const analysis::Results r = analysed(loaded->build);
    std::cout << conditionJson(r.of(subject));
    return r.of(subject).solution->status == tape::Status::Solved ? 0 : sayOpen(r.of(subject));
}

int tapeNext(const std::string& path, const std::string& subject_name, const std::string& want, int count,
             const std::string& sheet) {
    auto loaded = load(path, subject_name);
    if (!loaded) return fail(loaded.error());
    const build::SubjectId subject = loaded->subject;
    if (!want.empty()) {
        const bool point = want.starts_with("point ") && build::pointNamed(loaded->build, subject, want.substr(6));
        if (!point && std::find(std::begin(tape::wanted_keys), std::end(tape::wanted_keys), want) == std::end(tape::wanted_keys))
            return fail({Error::Code::BadInput, want,
                         fmt::format("--want {}: there is no such wish, or no such point of the {}.", want, subject_name),
                         "Use everything, figures, diamond, twist, sidesway, rails, wheelbase, tracks or \"point NAME\".", -1});
        loaded->build.settings.want = want;
    }
    const analysis::Results r = analysed(loaded->build);
    const analysis::SurveyOf& survey = r.of(subject);
    const auto round = analysis::measuringRound(survey, static_cast<size_t>(count));
    std::cout << nextJson(survey, round);
    if (survey.solution->status != tape::Status::Solved) return sayOpen(survey);
    if (sheet.empty()) return 0;
    const auto pages = analysis::measuringSheets(loaded->build, r, subject, static_cast<size_t>(count));
    if (auto written =
            sheet::writePdf(pages, {"Measuring sheet: " + loaded->build.settings.name, "Gorvet measuring sheet"}, sheet);
        !written)
        return fail(written.error());
    return 0;
}

namespace {

/// The chassis as the build plans it; nothing where no change is planned.
std::optional<build::PlannedChassis> plannedChassis(const build::Build& b) {
    const analysis::Results r = analysed(b);
    if (!r.planned_chassis.changes()) return std::nullopt;
    return r.planned_chassis;
}

} // namespace

int tapeCompare(const std::string& before, const std::string& after, const std::string& subject_name, const CompareAsked& asked) {
    auto first = load(before, subject_name);
    if (!first) return fail(first.error());
    auto second = load(after, subject_name);
    if (!second) return fail(second.error());
    std::optional<build::PlannedChassis> plan;
    if (asked.planned) {
        plan = plannedChassis(first->build);
        if (!plan)
            return fail({Error::Code::NotFound, before, before + " plans no change of wheelbase with a cut station.",
                         "Decide both in the first build (change, cut), or leave out --planned.", -1});
    }
    const auto a = analysis::surveyOf(first->build, first->subject);
    const auto b = analysis::surveyOf(second->build, second->subject);
    const auto solved_a = tape::solve(a.survey);
    const auto solved_b = tape::solve(b.survey);
    std::vector<tape::Common> common;
    std::vector<std::string> unknown = asked.lay;
    for (int i = 0; i < static_cast<int>(a.survey.points.size()); ++i)
        for (int j = 0; j < static_cast<int>(b.survey.points.size()); ++j) {
            const std::string& name = a.survey.points[i].name;
            if (name != b.survey.points[j].name) continue;
            tape::Common c{i, j};
            c.lays = asked.lay.empty() || std::find(asked.lay.begin(), asked.lay.end(), name) != asked.lay.end();
            std::erase(unknown, name);
            if (const build::Vec3& at = solved_a.points[i].position; plan) c.planned = minus(plan->map(at), at);
            common.push_back(c);
        }
    if (!unknown.empty())
        return fail({Error::Code::NotFound, unknown.front(), "No point " + unknown.front() + " stands in both surveys.",
                     "Name points that both know after --lay.", -1});
    const auto c = tape::compare(solved_a, solved_b, common, {asked.as_measured, !asked.lay.empty()});
    std::cout << compareJson(c, a.survey);
    if (!c.possible) std::cerr << "gorvet-cli: " << c.message << "\n";
    return c.possible ? 0 : exit_open;
}

int tapeDrawing(const std::string& path, const std::string& subject_name) {
    auto loaded = load(path, subject_name);
    if (!loaded) return fail(loaded.error());
    const build::SubjectId subject = loaded->subject;
    const analysis::Results r = analysed(loaded->build);
    std::cout << drawingJson(r.of(subject));
    const auto& c = *r.of(subject).drawing.comparison;
    if (!c.possible)
        std::cerr << "gorvet-cli: " << (c.message.empty() ? "The drawing has no figure of a point that is fixed." : c.message)
                  << "\n";
    return c.possible ? 0 : exit_open;
}

int tapeReport(const std::string& path, const std::string& subject_name, const std::string& out) {
    auto loaded = load(path, subject_name);
    if (!loaded) return fail(loaded.error());
    const build::SubjectId subject = loaded->subject;
    const analysis::Results r = analysed(loaded->build);
    const auto pages = analysis::asFoundReport(loaded->build, r, subject);
    if (auto written = sheet::writePdf(pages, {"As found: " + loaded->build.settings.name, "Gorvet report as found"}, out);
        !written)
        return fail(written.error());
    std::cerr << "wrote " << out << ", " << pages.size() << " pages\n";
    return 0;
}

int tapePoints(const std::string& path, const std::string& subject_name, const std::string& out) {
    auto loaded = load(path, subject_name);
    if (!loaded) return fail(loaded.error());
    const build::SubjectId subject = loaded->subject;
    const analysis::Results r = analysed(loaded->build);
    const std::string csv = formats::writePoints(analysis::pointRows(loaded->build, r.of(subject)));
    if (out.empty()) {
        std::cout << csv;
    } else {
        if (auto written = files::putText(out, files::Kind::Csv, csv); !written) return fail(written.error());
    }
    return r.of(subject).solution->status == tape::Status::Solved ? 0 : sayOpen(r.of(subject));
}

int printFound(const std::string& path) {
    auto store = openToRead(path);
    if (!store) return fail(store.error());
    const auto& b = (*store)->build();
    std::cout << foundJson(b, analysed(b));
    return 0;
}

int axleAlign(const std::string& path) {
    auto loaded = load(path, "chassis");
    if (!loaded) return fail(loaded.error());
    const analysis::Results r = analysed(loaded->build);
    std::cout << alignJson(r.chassis, tape::alignment(analysis::alignmentInput(loaded->build)));
    return 0;
}

int printGaps(const std::string& path) {
    auto store = openToRead(path);
    if (!store) return fail(store.error());
    std::cout << gapsJson(tape::gapTrends(analysis::gapReadings((*store)->build())));
    return 0;
}

} // namespace gorvet::cli
