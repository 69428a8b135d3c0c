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

namespace details {
template <class T> struct ChangesTo { using List = Types<Set<Held<T>>>; };
template <class T>
requires is_row<T>
struct ChangesTo<T> {
    using List = Types<Put<T>, Drop<T>>;
};
template <class... Lists> struct Joined;
template <class... A> struct Joined<Types<A...>> { using Variant = std::variant<A...>; };
template <class... A, class... B, class... More>
struct Joined<Types<A...>, Types<B...>, More...> : Joined<Types<A..., B...>, More...> {};
template <class Document> struct ChangesOf;
template <class... T> struct ChangesOf<Types<T...>> : Joined<typename ChangesTo<T>::List...> {};
} // namespace details

/// `Put` and `Drop` of every table, `Set` of every single part. What copies, compares and destroys it stands in one file: who
/// only makes or hands on changes does not compile all sixty of them.
struct Change : details::ChangesOf<Document>::Variant {
    using Variant = details::ChangesOf<Document>::Variant;
    Change();
    template <class A>
    requires(!std::is_same_v<A, Change> && std::is_constructible_v<Variant, std::in_place_type_t<A>, A>) Change(A change)
        : Variant(std::in_place_type<A>, std::move(change)) {}
    Change(const Change&);
    Change(Change&&) noexcept;
    Change& operator=(const Change&);
    Change& operator=(Change&&) noexcept;
    ~Change();
    bool operator==(const Change&) const;
};

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
