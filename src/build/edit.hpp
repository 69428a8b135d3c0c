#pragma once

#include "build/build.hpp"

#include <variant>

/// What can change, as values. The journal is a list of these; every one has an inverse.
namespace gorvet::build {

/// Adds or replaces the T with `value.id`.
template <class T> struct Put {
    T value;
    bool operator==(const Put&) const = default;
};
/// Removes it.
template <class T> struct Drop {
    Id<T> id;
    bool operator==(const Drop&) const = default;
};
/// Sets one of the build's single parts.
template <class T> struct Set {
    T value;
    bool operator==(const Set&) const = default;
};

using Change =
    std::variant<Set<Settings>, Put<Session>, Drop<Session>, Put<Point>, Drop<Point>, Put<Reading>, Drop<Reading>, Put<Hold>,
                 Drop<Hold>, Set<RailSection>, Set<AxleGround>, Put<Pin>, Drop<Pin>, Set<Stretch>, Set<MountDesign>, Put<Mount>,
                 Drop<Mount>, Set<std::optional<Crossmember>>, Put<Crossing>, Drop<Crossing>, Set<WorkFacts>, Put<TemporarySteel>,
                 Drop<TemporarySteel>, Put<Tick>, Drop<Tick>, Put<Check>, Drop<Check>, Put<SetUp>, Drop<SetUp>, Put<Gap>,
                 Drop<Gap>, Put<WheelReadings>, Drop<WheelReadings>, Put<ToeReadings>, Drop<ToeReadings>, Put<Instrument>,
                 Drop<Instrument>, Put<Obstacle>, Drop<Obstacle>, Put<DatumRule>, Drop<DatumRule>, Put<DrawingFigure>,
                 Drop<DrawingFigure>, Put<Flaw>, Drop<Flaw>, Set<Rates>, Set<Practice>, Put<Answer>, Drop<Answer>, Put<Scan>,
                 Drop<Scan>, Put<Zone>, Drop<Zone>, Set<ClearanceRules>, Put<Seating>, Drop<Seating>, Put<PairRule>,
                 Drop<PairRule>, Put<Swing>, Drop<Swing>, Set<WheelTravel>, Set<School>, Set<Lowering>, Put<PlannedCut>,
                 Drop<PlannedCut>>;

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
