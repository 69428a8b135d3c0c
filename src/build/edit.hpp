#pragma once

#include "build/change.hpp"

/// What can change, as values. The journal is a list of these; every one has an inverse.
namespace gorvet::build {

/// One step that a person takes and can undo: changes that stand or fall together, and the sentence that names the step.
struct Edit {
    std::string sentence;
    std::vector<Change> changes;
    bool operator==(const Edit&) const = default;
};

/// Applies a change and returns its inverse. Fails, with the build untouched, when the change would break a reference, a
/// uniqueness or a range; the error names subject, rule and remedy.
Result<Change> enact(Build&, const Change&);

/// Whether `enact` would take this one change. The same errors.
Result<void> wouldEnact(const Build&, const Change&);

/// Applies all changes or none; returns the inverse edit (changes in reverse order).
Result<Edit> enact(Build&, const Edit&);

/// Whether a build that was read whole is one that edits could have made: every row by its rules, every reference there, no name
/// twice. Fails with Damaged.
Result<void> consistent(const Build&);

/// JSON text of an edit's changes and back, as kept in the journal. Writing fails with BadInput where a text is no UTF-8; reading
/// fails with Damaged.
Result<std::string> changesToJson(const std::vector<Change>&);
Result<std::vector<Change>> changesFromJson(std::string_view text);

/// JSON text of the whole build and back, as kept in snapshots. The same errors; `buildFromJson` does not look whether the rows
/// fit together: `consistent` does.
Result<std::string> buildToJson(const Build&);
Result<Build> buildFromJson(std::string_view text);

} // namespace gorvet::build
