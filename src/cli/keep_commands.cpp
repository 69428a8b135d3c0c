// The commands that make a build, put things into it, take them back, and hand a photo out again.
#include "cli/keep_commands.hpp"

#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "files/line_reader.hpp"
#include "files/out_file.hpp"
#include "formats/picture.hpp"
#include "formats/points_csv.hpp"
#include "formats/readings_csv.hpp"
#include "prompt/context.hpp"
#include "units/text.hpp"

#include <fstream>
#include <iostream>

#include <unistd.h>

#include <fmt/format.h>

namespace gorvet::cli {

int newBuild(const std::string& path, const std::string& name) {
    auto store = store::Store::create(path);
    if (!store) return fail(store.error());
    build::Settings settings;
    settings.name = name.empty() ? std::filesystem::path(path).stem().string() : name;
    if (auto kept = (*store)->keep({"begin the build " + settings.name, {build::Set<build::Settings>{settings}}}, author());
        !kept)
        return fail(kept.error());
    std::cerr << "made " << path << "\n";
    return 0;
}

int importReadings(const std::string& path, const std::string& csv_path, const std::string& subject_name,
                   const std::string& session_name, const std::string& why) {
    auto store = openToWrite(path);
    if (!store) return fail(store.error());
    const auto named = subjectIn((*store)->build(), subject_name, path);
    if (!named) return fail(named.error());
    const build::SubjectId subject = *named;
    auto text = fileText(csv_path);
    if (!text) return fail(text.error());
    build::SessionId session;
    for (const auto& [id, s] : (*store)->build().sessions)
        if (s.subject == subject && (session_name.empty() || s.name == session_name)) session = id;
    auto read = formats::readReadings(*text, (*store)->build(), subject, session, session_name.empty() ? "import" : session_name);
    if (!read) return fail(read.error());
    if (!read->remark.empty()) std::cerr << csv_path << ": " << read->remark << "\n";
    sayProblems(csv_path, read->problems);
    if (!read->edit.changes.empty())
        if (auto kept = (*store)->keep(read->edit, author(why)); !kept) return fail(kept.error());
    std::cout << fmt::format("{{\"readings\": {}, \"points\": {}, \"holds\": {}, \"left_out\": {}}}\n", read->readings,
                             read->points, read->holds, read->problems.size());
    return read->problems.empty() ? 0 : exit_open;
}

namespace {

/// Understands and keeps one line; says what became of it. False when it was refused.
/// `results`: what the context goes by.
Result<bool> enterLine(store::Store& store, analysis::Results& results, entry::Context& context, const std::string& line,
                       int number, const std::string& why) {
    const auto start = line.find_first_not_of(" \t\r");
    if (start == std::string::npos || line[start] == '#') return true;
    if (entry::isAboutWork(line)) { // what can be ticked or handed out follows from what was kept so far
        results = analysed(store);
        context = prompt::contextFor(results, context.subject, author().who, store::nowUtc());
        prompt::letIssue(context, store.build(), results);
    }
    auto understood = entry::understand(store.build(), context, line);
    const auto refused = [&](const Error& e) {
        const std::string seen = units::visible(line.substr(0, 200));
        std::cerr << fmt::format("line {}: {}\n  {}\n", number, units::visible(e.text()), seen);
        if (e.column >= 0 && e.column < 200) std::cerr << "  " << std::string(static_cast<size_t>(e.column), ' ') << "^\n";
        return false;
    };
    if (!understood) return refused(understood.error());
    if (understood->edit.changes.empty()) {
        if (understood->subject) context.subject = *understood->subject;
        if (!understood->opens.empty()) std::cerr << understood->echo << "\n";
        return true;
    }
    const std::string doubt = understood->doubt;
    if (auto kept = store.keep(understood->edit, author(why)); !kept) {
        if (kept.error().code == Error::Code::BadInput || kept.error().code == Error::Code::Conflict)
            return refused(kept.error());
        return kept.error();
    }
    if (understood->subject) context.subject = *understood->subject;
    std::cerr << understood->echo << (understood->remark.empty() ? "" : " (" + understood->remark + ")")
              << (doubt.empty() ? "" : " (" + doubt + ": if it is a slip, undo takes it back)") << "\n";
    return true;
}

} // namespace

int enterLines(const std::string& path, const std::string& subject_name, const std::vector<std::string>& given,
               const std::string& why) {
    auto store = openToWrite(path);
    if (!store) return fail(store.error());
    const auto named = subjectIn((*store)->build(), subject_name, path);
    if (!named) return fail(named.error());
    const build::SubjectId subject = *named;
    analysis::Results results;
    entry::Context context;
    context.subject = subject;
    context.who = author().who;
    context.now_utc = store::nowUtc();
    int wrong = 0;
    int number = 0;
    const auto take = [&](const std::string& line) -> Result<void> {
        auto kept = enterLine(**store, results, context, line, ++number, why);
        if (!kept) return kept.error();
        wrong += !*kept;
        return {};
    };
    if (given.empty()) { // each is kept as it comes: what was typed before the other end breaks off is safe
        files::LineReader in(STDIN_FILENO, entry::most_line_bytes);
        for (std::string line; in.next(line);)
            if (auto ok = take(line); !ok) return fail(ok.error());
    }
    for (const std::string& line : given)
        if (auto ok = take(line); !ok) return fail(ok.error());
    return wrong ? exit_open : 0;
}

namespace {

/// Understands and keeps a line that a command made; the exit code.
int keepOneLine(store::Store& store, const entry::Context& context, const std::string& line) {
    auto understood = entry::understand(store.build(), context, line);
    if (!understood) return fail(understood.error());
    if (auto kept = store.keep(understood->edit, author()); !kept) return fail(kept.error());
    std::cerr << understood->echo << "\n";
    return 0;
}

} // namespace

int keepPhoto(const std::string& path, const std::string& step, const std::string& picture, const std::string& note) {
    auto store = openToWrite(path);
    if (!store) return fail(store.error());
    if (auto looked = formats::readPicture(picture); !looked) return fail(looked.error());
    auto blob = (*store)->keepBlob(picture);
    if (!blob) return fail(blob.error());
    const std::string line = "done " + step + " photo " + blob->hash + (note.empty() ? "" : " note " + note);
    const auto context = prompt::contextFor(analysed(**store), build::the_chassis, author().who, store::nowUtc());
    return keepOneLine(**store, context, line);
}

int keepPhotoFound(const std::string& path, const std::string& subject_name, const std::string& kind, const std::string& where,
                   const std::string& picture) {
    auto store = openToWrite(path);
    if (!store) return fail(store.error());
    const auto named = subjectIn((*store)->build(), subject_name, path);
    if (!named) return fail(named.error());
    const build::SubjectId subject = *named;
    if (auto looked = formats::readPicture(picture); !looked) return fail(looked.error());
    auto blob = (*store)->keepBlob(picture);
    if (!blob) return fail(blob.error());
    entry::Context context;
    context.subject = subject;
    context.who = author().who;
    context.now_utc = store::nowUtc();
    return keepOneLine(**store, context, fmt::format("found {} \"{}\" photo {}", kind, where, blob->hash));
}

int importPoints(const std::string& path, const std::string& csv_path, const std::string& subject_name, const std::string& as,
                 const std::string& source) {
    auto store = openToWrite(path);
    if (!store) return fail(store.error());
    const auto named = subjectIn((*store)->build(), subject_name, path);
    if (!named) return fail(named.error());
    const build::SubjectId subject = *named;
    auto text = fileText(csv_path);
    if (!text) return fail(text.error());
    const auto are = as == "rough"     ? formats::PointsAre::Rough
                     : as == "drawing" ? formats::PointsAre::Drawing
                                       : formats::PointsAre::Coordinates;
    auto read = formats::readPoints(*text, (*store)->build(), subject, are,
                                    source.empty() ? std::filesystem::path(csv_path).stem().string() : source);
    if (!read) return fail(read.error());
    if (!read->remark.empty()) std::cerr << csv_path << ": " << read->remark << "\n";
    sayProblems(csv_path, read->problems);
    if (!read->edit.changes.empty())
        if (auto kept = (*store)->keep(read->edit, author()); !kept) return fail(kept.error());
    std::cout << fmt::format("{{\"points\": {}, \"new\": {}, \"left_out\": {}}}\n", read->points, read->fresh,
                             read->problems.size());
    return read->problems.empty() ? 0 : exit_open;
}

int takePhotoOut(const std::string& path, const std::string& hash, const std::string& out) {
    auto store = openToRead(path);
    if (!store) return fail(store.error());
    const auto written = files::put(out, files::Kind::Picture, [&](const std::filesystem::path& to) -> Result<void> {
        std::ofstream file(to, std::ios::binary);
        auto read = (*store)->readBlob(hash, [&](std::span<const unsigned char> bytes) {
            file.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
        });
        if (!read) return read;
        file.close();
        return file ? Result<void>{} : Result<void>(Error{Error::Code::File, out, out, "", -1});
    });
    return written ? 0 : fail(written.error());
}

int undoRedo(const std::string& path, bool undo) {
    auto store = openToWrite(path);
    if (!store) return fail(store.error());
    auto done = undo ? (*store)->undo(author()) : (*store)->redo(author());
    if (!done) return fail(done.error());
    std::cerr << (undo ? "undid: " : "did again: ") << *done << "\n";
    return 0;
}

int printLog(const std::string& path) {
    auto store = openToRead(path);
    if (!store) return fail(store.error());
    auto entries = (*store)->log(1'000'000);
    for (auto e = entries.rbegin(); e != entries.rend(); ++e) {
        const char* kind = e->kind == store::LogEntry::Kind::Edit   ? ""
                           : e->kind == store::LogEntry::Kind::Undo ? "undo: "
                                                                    : "redo: ";
        std::cout << fmt::format("{} {} {} {}{}{}\n", e->seq, units::visible(e->at_utc), units::visible(e->who), kind,
                                 units::visible(e->sentence), e->why.empty() ? "" : " (" + units::visible(e->why) + ")");
    }
    return 0;
}

} // namespace gorvet::cli
