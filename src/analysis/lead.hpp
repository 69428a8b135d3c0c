#pragma once

#include "analysis/results.hpp"
#include "build/edit.hpp"
#include "tape/ghost.hpp"

#include <string>
#include <vector>

/// What leads a build that is just begun: what each bench waits for, by name, and what one tap does about it.
namespace gorvet::analysis {

struct BenchInfo;

/// Something that a bench waits for.
struct Lack {
    std::string sentence; ///< "The rear wheel centres are not marked on the chassis."
    std::string label;    ///< of the button: "mark Rl and Rr"
    /// What the tap does: an edit kept at once, or a line that is begun (with a blank at its end) or entered. On another bench,
    /// or of another subject, it turns there first.
    build::Edit edit;
    std::string line;
    std::string_view bench = {}; ///< empty: the same
    build::SubjectId subject;    ///< none: whichever is shown
};

/// What the bench waits for, the first first. Empty: nothing keeps it from its answer.
std::vector<Lack> lacksOf(const BenchInfo&, const build::Build&, const Results&, build::SubjectId);

/// The sketch of a subject; none of what is neither frame nor body.
std::optional<tape::Ghost> sketchOf(const build::Build&, build::SubjectId);

/// Marks a place of the sketch (tape/ghost.hpp) and the same on the other side, as far as they are not marked. Fails with
/// NotFound when the sketch of the subject has no such place, Conflict when it is marked.
Result<build::Edit> markFromSketch(const build::Build&, build::SubjectId, const std::string& name);

/// Whether enough of a survey is fixed, or assumed, to be drawn, and to be seated or cut by: all of it, or at least half and four
/// points.
bool hasShape(const SurveyOf&);
/// Whether the Tape sheet shows the sketch: the subject has one, and no shape yet.
bool showsSketch(const build::Build&, const Results&, build::SubjectId);

} // namespace gorvet::analysis
