#pragma once

#include "build/ids.hpp"
#include "build/words.hpp"
#include "units/quantity.hpp"
#include "units/text.hpp"

#include <optional>
#include <string>
#include <string_view>
#include <tuple>
#include <type_traits>
#include <utility>
#include <vector>

/// What the document is made of, said once: beside each struct stands a `Schema` of it. Edits and their inverses, JSON,
/// snapshots, checks of texts, numbers and references, the file's version, generators of tests and the table in
/// `docs/file-format.md` are made from it.
namespace gorvet::build {

/// The unit in which a figure is kept.
enum class Unit {
    None,
    Mm,
    Rad,
    MmOrRad,
    Kg,
    Mm2,
    M2,
    Minutes,
    Hours,
    Days,
    Money,
    MmPerM,
    NewtonMetre,
    Celsius,
    Mpa,
    NewtonPerMm,
    NewtonMetrePerDegree
};
constexpr std::string_view unitSign(Unit u) {
    switch (u) {
    case Unit::Mm: return "mm";
    case Unit::Rad: return "rad";
    case Unit::MmOrRad: return "mm or rad";
    case Unit::Kg: return "kg";
    case Unit::Mm2: return "mm²";
    case Unit::M2: return "m²";
    case Unit::Celsius: return "°C";
    case Unit::Minutes: return "min";
    case Unit::Hours: return "h";
    case Unit::Days: return "d";
    case Unit::MmPerM: return "mm/m";
    case Unit::NewtonMetre: return "N·m";
    case Unit::Mpa: return "MPa";
    case Unit::NewtonPerMm: return "N/mm";
    case Unit::NewtonMetrePerDegree: return "N·m/deg";
    case Unit::None:
    case Unit::Money: break;
    }
    return "";
}

/// Where a figure must lie, ends included. A range that is not `held` is asked of what comes in only: older files may hold more.
struct Range {
    double least = -1e9;
    double most = 1e9;
    bool held = false;
};

/// What a text is. A word is a name without blank, comma or quote, never empty. A hash names a blob's content, a date is written
/// 2026-12-24; both may be empty.
enum class TextKind { Note, Name, Word, Hash, Date };

/// What is said of a field, whatever its type.
struct FieldSays {
    const char* name;
    Unit unit = Unit::None;
    Range range{};
    TextKind text = TextKind::Note;
    bool is_needed = false; ///< a reference that can't be none
    bool is_loose = false;  ///< what it refers to may go: it then waits for it, or is passed over
    bool is_chosen = false; ///< a choice of the plan's, no size of a thing that is there
    int since = 0;          ///< file version it came with; 0: with its table
    const char* about = ""; ///< what the name and the type do not say
};
/// One field of a struct of the document.
template <class T, class M> struct Field : FieldSays {
    using Owner = T;
    using Value = M;
    M T::*member;
    constexpr Field(const char* called, M T::*which, Unit in = Unit::None, Range within = {}, TextKind kind = TextKind::Note)
        : FieldSays{called, in, within, kind}, member(which) {}

    /// A reference that can't be none.
    constexpr Field needed() const {
        return with([](Field& f) { f.is_needed = true; });
    }
    /// What it refers to may go.
    constexpr Field loose() const {
        return with([](Field& f) { f.is_loose = true; });
    }
    /// A choice of the plan's: its usual value is none that has to be measured.
    constexpr Field chosen() const {
        return with([](Field& f) { f.is_chosen = true; });
    }
    /// The range is asked of what comes in, not of what a file holds.
    constexpr Field onEntry() const {
        return with([](Field& f) { f.range.held = false; });
    }
    /// The file version that brought it to a table that was there.
    constexpr Field came(int version) const {
        Field f = *this;
        f.since = version;
        return f;
    }
    constexpr Field says(const char* text_about) const {
        Field f = *this;
        f.about = text_about;
        return f;
    }

private:
    template <class F> constexpr Field with(F change) const {
        Field f = *this;
        change(f);
        return f;
    }
};

template <class T, class M> constexpr Field<T, M> field(const char* name, M T::*member) { return {name, member}; }
template <class T, class M>
constexpr Field<T, M> number(const char* name, M T::*member, Unit unit, double least = -1e9, double most = 1e9) {
    return {name, member, unit, {least, most, true}};
}
template <class T, class M> constexpr Field<T, M> mm(const char* name, M T::*member, double least = -1e9, double most = 1e9) {
    return number(name, member, Unit::Mm, least, most);
}
template <class T, class M> constexpr Field<T, M> rad(const char* name, M T::*member, double least = -1e9, double most = 1e9) {
    return number(name, member, Unit::Rad, least, most);
}
template <class T> constexpr Field<T, std::string> textOf(const char* name, std::string T::*member, TextKind kind) {
    return {name, member, Unit::None, {}, kind};
}
template <class T> constexpr auto name(const char* n, std::string T::*member) { return textOf(n, member, TextKind::Name); }
template <class T> constexpr auto word(const char* n, std::string T::*member) { return textOf(n, member, TextKind::Word); }
template <class T> constexpr auto date(const char* n, std::string T::*member) { return textOf(n, member, TextKind::Date); }
/// A list of words.
template <class T> constexpr Field<T, std::vector<std::string>> words(const char* n, std::vector<std::string> T::*member) {
    return {n, member, Unit::None, {}, TextKind::Word};
}
template <class T> constexpr auto hash(const char* n, std::string T::*member) { return textOf(n, member, TextKind::Hash); }

template <std::size_t I, class F> struct FieldAt { F field; };
template <class Numbers, class... F> struct FieldsAt;
template <std::size_t... I, class... F> struct FieldsAt<std::index_sequence<I...>, F...> : FieldAt<I, F>... {};
/// The fields of a struct, in order. A `std::tuple` would do, but takes the compiler twice as long: a hundred structs are gone
/// over in many files.
template <class... F> struct FieldList : FieldsAt<std::index_sequence_for<F...>, F...> {
    static constexpr std::size_t size = sizeof...(F);
    constexpr explicit FieldList(F... each) : FieldsAt<std::index_sequence_for<F...>, F...>{{std::move(each)}...} {}
    template <class Visit> constexpr void each(Visit& visit) const { eachOf(visit, std::index_sequence_for<F...>{}); }

private:
    template <class Visit, std::size_t... I> constexpr void eachOf(Visit& visit, std::index_sequence<I...>) const {
        (visit(static_cast<const FieldAt<I, F>&>(*this).field), ...);
    }
};

/// How a table, or a single part of the build, is called.
struct TableInfo {
    const char* name; ///< in the journal: "set-up"
    const char* key;  ///< in a snapshot: "setups"
    int since;        ///< file version it came with
    const char* noun; ///< in a sentence: "a set-up"
};

/// Beside each struct: `fields<S>()`, a FieldList of Field, one for each member (S is the struct: so that only who goes over the
/// fields pays for them when it is compiled). Beside what is a table or a single part of the build also
///   `table`, a TableInfo,
///   `in(build)`, the member of Build that holds it: a map from its id, the struct itself, or an optional of it,
///   `key`, member pointers that no two rows share (a table may have none),
///   `title`, member pointers that name a row in a sentence, where they are not the key,
///   `subject_stays`, where rows that others refer to can't change their subject.
template <class T> struct Schema;

/// Calls f(field) for every field of T, in order.
template <class T, class F> constexpr void eachField(F&& f) { Schema<T>::template fields<T>().each(f); }

template <class M> struct IsOptional : std::false_type {};
template <class M> struct IsOptional<std::optional<M>> : std::true_type {};
template <class M> struct IsList : std::false_type {};
template <class M> struct IsList<std::vector<M>> : std::true_type {};
template <class M> struct IsId : std::false_type {};
template <class M> struct IsId<Id<M>> : std::true_type {};
/// A struct with fields of its own, like a dimension or a place.
template <class M>
concept Structured = requires {
    sizeof(Schema<M>);
};

namespace counting {
/// Becomes whatever a member is made from.
struct Anything {
    template <class T>
    requires(!IsOptional<T>::value) operator T() const noexcept;
};
template <class T, class... Given> constexpr std::size_t members() {
    if constexpr (requires { T{Given{}..., Anything{}}; })
        return members<T, Given..., Anything>();
    else
        return sizeof...(Given);
}
} // namespace counting

/// Whether the schema of T has as many fields as T has members: none is forgotten. build/whole.cpp asks it of all.
template <class T> constexpr bool whole() { return decltype(Schema<T>::template fields<T>())::size == counting::members<T>(); }

/// A list of types.
template <class... T> struct Types {};

} // namespace gorvet::build
