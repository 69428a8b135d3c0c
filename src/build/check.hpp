#pragma once

#include "build/members.hpp"
#include "build/rules.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

/// Internal to this room: what the schema says of a row, looked at. Each struct is looked at alike.
namespace gorvet::build {

/// "frame tolerance" of `frame_tolerance_mm`.
std::string labelOf(std::string_view field);
/// "frame tolerance = 200 mm: must be between 0.01 and 100 mm."; angles in degrees.
std::string outOfRange(std::string_view field, double value, Unit, const Range&);

/// How a row is called in a sentence: its title or key, else its table.
template <class T> std::string titleOf(const Build& b, const T& row);

namespace details {

template <class V> std::string inTitle(const Build& b, const V& value) {
    if constexpr (std::is_same_v<V, SubjectId>) {
        return {};
    } else if constexpr (IsId<V>::value) {
        const auto& rows = table<typename V::To>(b);
        const auto found = rows.find(value);
        return found == rows.end() ? std::string() : titleOf(b, found->second);
    } else if constexpr (std::is_enum_v<V>) {
        return std::string(word(value));
    } else {
        return units::visible(value.substr(0, 80));
    }
}
template <class T, class Members> std::string titleFrom(const Build& b, const T& row, const Members& members) {
    std::string title;
    const auto add = [&](const std::string& text) {
        if (!text.empty()) title += (title.empty() ? "" : "–") + text;
    };
    std::apply([&](auto... member) { (add(inTitle(b, row.*member)), ...); }, members);
    return title;
}

} // namespace details

template <class T> std::string titleOf(const Build& b, const T& row) {
    std::string title;
    if constexpr (requires { Schema<T>::title; })
        title = details::titleFrom(b, row, Schema<T>::title);
    else if constexpr (requires { Schema<T>::key; })
        title = details::titleFrom(b, row, Schema<T>::key);
    return title.empty() ? Schema<T>::table.name : title;
}

/// The same of the row of that number in the table at that place of `Document`, which must be there.
std::string titleOf(const Build&, std::size_t place, std::uint32_t id);

/// Looks at the members of a row, deep down: figures finite and in the range that a build may hold, texts that are words or
/// hashes, and everything there that is referred to. What is wrong first; empty when nothing is.
std::optional<std::string> wrongIn(const Build&, Slots, const void* row);

template <class T> Checked checkFields(const Build& b, const T& row) {
    if (const auto wrong = wrongIn(b, membersOf<T>(), &row)) return bad(titleOf(b, row), *wrong);
    return {};
}

/// The values that no two rows of a table share.
template <class T> auto keyOf(const T& row) {
    return std::apply([&](auto... member) { return std::tuple{row.*member...}; }, Schema<T>::key);
}
template <class T> Error sameKey(const Build& b, const T& row) {
    std::string where;
    if constexpr (requires { row.subject; }) where = fmt::format(" on the {}", nameOf(b, row.subject));
    return bad(
        titleOf(b, row), fmt::format("There is already {} {}{}.", Schema<T>::table.noun, titleOf(b, row), where),
        requires { row.name; } ? "Choose another name." : "Change that one, or remove it first.");
}
template <class T> Checked checkKey(const Build& b, const T& row) {
    if constexpr (requires { Schema<T>::key; })
        for (const auto& entry : table<T>(b)) {
            const T& other = entry.second;
            const bool same = entry.first != row.id &&
                              std::apply([&](auto... member) { return ((other.*member == row.*member) && ...); }, Schema<T>::key);
            if (same) return sameKey(b, row);
        }
    return {};
}

/// All that a row, or a single part, must be. Fails with Conflict.
template <class T> Checked check(const Build& b, const T& row) {
    if (auto ok = checkFields(b, row); !ok) return ok;
    if constexpr (is_row<T>)
        if (auto ok = checkKey(b, row); !ok) return ok;
    return rules(b, row);
}
template <class T> Checked check(const Build& b, const std::optional<T>& part) { return part ? check(b, *part) : Checked{}; }

/// Whether anything refers to the row of that id in that table, wherever it must stay: the noun of what does, or nullptr. `table`
/// is the place of its type in `Document`.
const char* usedBy(const Build&, std::size_t table, std::uint32_t id);

/// That a row of that title is used by something.
Checked inUse(const std::string& title, const char* by);

/// Whether a row may go: nothing refers to it that has to stay, and it is none that every build has.
template <class U> Checked mayGo(const Build& b, Id<U> id) {
    if constexpr (std::is_same_v<U, Subject>)
        if (id == the_body || id == the_chassis)
            return bad(nameOf(b, id), fmt::format("Every build has a {}.", nameOf(b, id)), "Call it otherwise.");
    if constexpr (std::is_same_v<U, Answer>) // what was handed in stays, and what can't be put back is not taken away
        if (auto ok = rules(b, table<U>(b).at(id)); !ok) return ok;
    const char* by = usedBy(b, placeInDocument<U>(), id.value);
    return by ? inUse(titleOf(b, table<U>(b).at(id)), by) : Checked{};
}

} // namespace gorvet::build
