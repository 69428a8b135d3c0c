#include "entry/entry.hpp"

#include "build/gate.hpp"
#include "entry/commands.hpp"
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

bool isAboutWork(std::string_view line) {
    const Line words(line.substr(0, 64)); // its first word tells
    return words.peekIs("done") || words.peekIs("check");
}

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
        if (auto ok = wouldAdmit(b, understood.edit); !ok) return ok.error();
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
