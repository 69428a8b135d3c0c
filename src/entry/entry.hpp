#pragma once

#include "build/edit.hpp"

#include <functional>
#include <string>
#include <string_view>
#include <vector>

/// What a person types on the entry line, as an edit. One grammar for the window and the command line; docs/cli.md lists it.
namespace gorvet::entry {

/// A reading that a hold point asks for.
struct AskedCheck {
    build::PointId from;
    build::PointId to;
    build::TemporarySteelId gap_of;
    build::ReadingKind kind = build::ReadingKind::Tape; ///< Tape or Level
    /// Whether a reading of that kind between two points answers it, either way round.
    bool asksFor(build::ReadingKind k, build::PointId a, build::PointId b) const {
        return !gap_of && k == kind && ((a == from && b == to) || (a == to && b == from));
    }
};
/// A step of work, as far as a line needs to know it.
struct StepState {
    std::string code;
    std::string title;
    std::string closed; ///< why it can't be ticked; empty: it can
    bool done = false;
    bool hot = false; ///< it burns or throws sparks: somebody watches for fire
    std::vector<AskedCheck> checks;
};

/// The longest line that is read, and the most words in it.
inline constexpr std::size_t most_line_bytes = 65'536;
inline constexpr std::size_t most_words = 4'000;

/// What the line is typed into.
struct Context {
    build::SubjectId subject = build::the_chassis;
    build::SessionId session;                ///< takes new readings; none: the subject's latest, or a new one
    std::vector<build::ReadingId> to_retape; ///< readings judged Re-tape: typing one of them again replaces it
    std::string who;                         ///< ticks and checks are signed with it
    std::string now_utc;                     ///< ISO 8601, seconds
    bool knows_work = false;                 ///< the order of work was computed: `steps` and `next_step` count
    std::vector<StepState> steps;
    std::string next_step;
    build::Support support = build::Support::Wheels; ///< what it stands on by the order of work
    /// Every piece of steel as its drawing has it now, without ids; none: not worked out.
    std::function<std::vector<build::IssuedPiece>()> drawn;
};

struct Understood {
    build::Edit edit;
    std::string echo;                        ///< how the line was read: "tape Al–Br 2164 mm"
    std::string remark;                      ///< what it does besides, or how a figure was read; may be empty
    std::string doubt;                       ///< why it may be a slip: asked about before it is kept; may be empty
    std::optional<build::SubjectId> subject; ///< the line turns to another subject instead of editing
    std::string opens;                       ///< tag of a card that the line opens instead of editing; empty: none
};

/// Reads one line against the build. The first word is a command where it is one; a point of such a name is typed in quotes.
/// Fails with BadInput or Conflict; `Error::column` points into the line (in characters).
Result<Understood> understand(const build::Build&, const Context&, std::string_view line);

/// Whether a line is about the order of work, so that its context needs one.
bool isAboutWork(std::string_view line);

/// One form that a line can take.
struct Form {
    const char* bench;   ///< "Tape", "Sit", "Stretch", "Make", "Work", "Build"
    const char* pattern; ///< "NAME NAME length"
    const char* example; ///< "A3 B7 2164"
    const char* what;    ///< "a tape reading"
};
const std::vector<Form>& forms();

} // namespace gorvet::entry
