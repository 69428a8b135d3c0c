#pragma once

#include "build/change.hpp"

#include <functional>
#include <span>

/// The schema for who goes over structs without knowing their types: JSON, checks and references are compiled once, not once for
/// each of a hundred structs. Internal to this room; made from `Schema` (schema.hpp).
namespace gorvet::build {

struct SlotType;

/// One field of a struct, and where it lies in it.
struct Slot : FieldSays {
    std::size_t offset = 0; ///< bytes from the struct's beginning
    const SlotType* type = nullptr;
    bool own_id = false; ///< the row's own number: no reference

    const void* in(const void* owner) const { return static_cast<const char*>(owner) + offset; }
    void* in(void* owner) const { return static_cast<char*>(owner) + offset; }
};
using Slots = std::span<const Slot>;

/// What a member is. The functions take where the member lies.
struct SlotType {
    enum class Is {
        Figure,    ///< double
        Flag,      ///< bool
        Text,      ///< std::string
        Step,      ///< units::LengthStep
        Reference, ///< Id<T>
        Word,      ///< an enumeration
        Maybe,     ///< std::optional
        List,      ///< std::vector
        Struct     ///< with members of its own
    } is;
    std::size_t table = 0;                                 ///< Reference: the place of what it leads to in `Document`
    const SlotType* inner = nullptr;                       ///< Maybe, List: of what
    bool is_dimension = false;                             ///< Struct: a Dimension
    std::string_view (*said)(const void*) = nullptr;       ///< Word: its spelling
    bool (*say)(void*, std::string_view) = nullptr;        ///< Word: false when no value is spelled so
    const void* (*content)(const void*) = nullptr;         ///< Maybe: nullptr when there is none
    void (*clear)(void*) = nullptr;                        ///< Maybe, List
    void* (*add)(void*) = nullptr;                         ///< Maybe, List: a new content, or another at the end
    std::size_t (*size)(const void*) = nullptr;            ///< List
    const void* (*at)(const void*, std::size_t) = nullptr; ///< List
    Slots (*members)() = nullptr;                          ///< Struct
};

/// Whether a struct refers, where it must stay, to the row of that number in the table at that place of `Document`.
struct Reference {
    std::size_t table;
    std::uint32_t id;
    bool isIn(Slots, const void* row) const;
};

/// A table or a single part of the document.
struct DocumentPart {
    const TableInfo* info = nullptr;
    bool is_row = false;
    Slots (*members)() = nullptr;
    const void* (*find)(const Build&, std::uint32_t id) = nullptr; ///< tables alone: the row, or nullptr
    /// Each row in its order, or the single part where it is there, until `use` says false. Numbers of single parts are 0.
    void (*each)(const Build&, const std::function<bool(std::uint32_t id, const void* row)>& use) = nullptr;
    void (*clear)(Build&) = nullptr; ///< tables alone
    /// Where a row, or a single part, is kept, to be filled: made when there is none.
    void* (*own)(Build&, std::uint32_t id) = nullptr;
    /// `Put` of a row, or `Set` of a single part, that `fill` fills.
    Change (*made)(const std::function<void(void* row)>& fill) = nullptr;
    Change (*drop)(std::uint32_t id) = nullptr; ///< tables alone
    Change (*none)() = nullptr;                 ///< `Set` to none: single parts that may be none alone
};
/// All of them, in the order of `Document`.
std::span<const DocumentPart> documentParts();

/// Whether anything of the one part could refer to a row of the table, both by their place in `Document`: most can't, and need
/// not be looked through.
bool canReferTo(std::size_t part, std::size_t table);

/// What a change does, seen from outside.
struct Seen {
    enum class Kind { Put, Drop, Set } kind;
    std::size_t part; ///< place in `Document`
    const void* row;  ///< what is put or set; nullptr: none
    std::uint32_t id; ///< of what is dropped
};
Seen seen(const Change&);

/// The members of a struct of the document.
template <class T> Slots membersOf() { return documentParts()[placeInDocument<T>()].members(); }

} // namespace gorvet::build
