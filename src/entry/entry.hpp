#pragma once

#include "build/edit.hpp"

#include <string>
#include <string_view>
#include <vector>

/// What a person types on the entry line, as an edit. One grammar for the window and the command line; docs/cli.md lists it.
namespace gorvet::entry {

/// What the line is typed into.
struct Context {
    build::Subject subject = build::Subject::Chassis;
    build::SessionId session;                ///< takes new readings; none: the subject's latest, or a new one
    std::vector<build::ReadingId> to_retape; ///< readings judged Re-tape: typing one of them again replaces it
};

struct Understood {
    build::Edit edit;
    std::string echo;                      ///< how the line was read: "tape Al–Br 2164 mm"
    std::string remark;                    ///< a doubt about a unit; may be empty
    std::optional<build::Subject> subject; ///< the line turns to another subject instead of editing
};

/// Reads one line against the build. Fails with BadInput or Conflict; `Error::column` points into the line (in characters).
Result<Understood> understand(const build::Build&, const Context&, std::string_view line);

/// One form that a line can take.
struct Form {
    const char* bench;   ///< "Tape", "Sit", "Stretch", "Make", "Build"
    const char* pattern; ///< "NAME NAME length"
    const char* example; ///< "A3 B7 2164"
    const char* what;    ///< "a tape reading"
};
const std::vector<Form>& forms();

} // namespace gorvet::entry
