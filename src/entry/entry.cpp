#include "entry/entry.hpp"

#include "build/gate.hpp"
#include "build/removal.hpp"
#include "entry/commands.hpp"
#include "entry/nearest.hpp"
#include "units/text.hpp"

#include <map>

namespace gorvet::entry {

Understood Reader::read() {
    if (line_.atEnd()) throw Failure{0, "Nothing was typed.", ""};
    const Word& first = line_.peek();
    // a command wins over a point of its name, which is typed in quotes: no name is forbidden, and none takes a command away
    const bool is_point = first.quoted;
    const Command* command = is_point ? nullptr : commandOf(first.text);
    if (command) {
        command_ = line_.next("a word").text;
        command->read(*this);
    } else if (const auto kind = is_point ? std::nullopt : fromWord<ReadingKind>(first.text)) {
        line_.next("a word");
        reading(*kind, false);
    } else if (!is_point && line_.take("retape")) {
        reading(ReadingKind::Tape, true);
    } else {
        reading(ReadingKind::Tape, false);
    }
    line_.mustEnd();
    return std::move(out_);
}

void Reader::unknown(SubjectId subject, const Word& w, bool may_be_command) const {
    std::vector<std::string> known_words;
    for (const auto& [id, p] : b_.points)
        if (p.subject == subject) known_words.push_back(p.name);
    if (may_be_command) {
        for (const CommandTable* table : commandTables())
            for (const Command& command : table->commands)
                known_words.insert(known_words.end(), command.words.begin(), command.words.end());
        known_words.insert(known_words.end(), Words<ReadingKind>::text.begin(), Words<ReadingKind>::text.end());
        known_words.emplace_back("retape");
    }
    std::string remedy;
    for (const std::string& word : nearest(w.text, known_words)) remedy += (remedy.empty() ? "Did you mean " : ", ") + word;
    if (!remedy.empty()) remedy += "? ";
    if (subject == context_.subject) remedy += fmt::format("Mark it first: point {} and roughly where: x y z.", w.text);
    throw Failure{w.column,
                  may_be_command ? fmt::format("{} is no command, and no point of the {}.", w.text, nameOf(b_, subject))
                                 : fmt::format("There is no point {} on the {}.", w.text, nameOf(b_, subject)),
                  remedy};
}

bool isAboutWork(std::string_view line) {
    const Line words(line.substr(0, 64)); // its first word tells
    for (const char* word : {"done", "check", "failed", "job", "discovered", "await", "hours", "worked", "permit", "photo",
                             "change-order", "torqued", "issue"})
        if (words.peekIs(word)) return true;
    return false;
}

namespace {

/// What hangs on what a line removes goes with it, and that is asked about. False where that does not make the line possible.
bool takeAlong(const Build& b, Understood& understood) {
    const auto removal = withAllThatHangs(b, understood.edit);
    const std::string with = removal ? inWords(*removal) : std::string();
    if (with.empty() || !wouldAdmit(b, removal->edit)) return false;
    understood.edit.changes = removal->edit.changes;
    understood.doubt = with;
    return true;
}

} // namespace

Result<Understood> understand(const Build& b, const Context& context, std::string_view line) {
    const std::string seen(line.substr(0, 200));
    if (line.size() > most_line_bytes)
        return Error{Error::Code::BadInput, seen,
                     fmt::format("The line is too long: {} bytes, {} at most.", line.size(), most_line_bytes),
                     "Type one thing after the other.", -1};
    if (const auto bad = units::badSign(line, units::TextIs::Note))
        return Error{Error::Code::BadInput, std::string(line), fmt::format("Character {}: {}.", bad->column + 1, bad->what),
                     "Type it again; a file is saved as UTF-8.", bad->column};
    try {
        Understood understood = Reader(b, context, line).read();
        if (auto ok = wouldAdmit(b, understood.edit); ok)
            return understood;
        else if (!takeAlong(b, understood))
            return ok.error();
        return understood;
    } catch (const Failure& f) {
        return Error{Error::Code::BadInput, std::string(line), f.message, f.remedy, f.column};
    }
}

const Command* commandOf(std::string_view word) {
    static const std::map<std::string_view, const Command*> commands = [] {
        std::map<std::string_view, const Command*> all;
        for (const CommandTable* table : commandTables())
            for (const Command& command : table->commands)
                for (const std::string_view w : command.words) all.emplace(w, &command);
        return all;
    }();
    const auto found = commands.find(word);
    return found == commands.end() ? nullptr : found->second;
}

const std::vector<Form>& forms() {
    static const std::vector<Form> list = [] {
        std::vector<Form> all;
        for (const CommandTable* table : commandTables())
            for (const Command& command : table->commands)
                for (const Shape& shape : command.forms) all.push_back({table->bench, shape.pattern, shape.example, shape.what});
        return all;
    }();
    return list;
}

} // namespace gorvet::entry
