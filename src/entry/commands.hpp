#pragma once

#include "entry/reader.hpp"

#include <functional>

/// What can be typed, one table for each bench and one for the whole build. Reading, taking away, help and completion go over
/// these. Internal to this room.
namespace gorvet::entry {

/// One form that a line can take, as it is shown.
struct Shape {
    const char* pattern;
    const char* example;
    const char* what;
};

/// One command: the words that begin it, what reads the rest of the line, what reads the line after "remove WORD", and its forms.
/// Without words: forms of lines that begin with a point's name.
struct Command {
    std::vector<std::string_view> words;
    std::function<void(Reader&)> read;
    std::function<void(Reader&, const Word& what)> remove;
    std::vector<Shape> forms;
};

struct CommandTable {
    const char* bench; ///< name of the bench, or "Build"
    std::vector<Command> commands;
};

/// One form for each kind of part, as its rules ask, and more behind them.
std::vector<Shape> partForms(std::initializer_list<Shape> more);

/// All tables, in the order of the benches; the build's own last.
const std::vector<const CommandTable*>& commandTables();
/// The command that a word begins; nullptr when there is none.
const Command* commandOf(std::string_view word);

} // namespace gorvet::entry
