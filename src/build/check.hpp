#pragma once

#include "build/rules.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include <fmt/format.h>

/// Internal to this room: what the schema says of a row, looked at. Each struct is looked at alike.
namespace gorvet::build {

/// "frame tolerance" of `frame_tolerance_mm`.
std::string labelOf(std::string_view field);
/// "frame tolerance = 200 mm: must be between 0.01 and 100 mm."; angles in degrees.
std::string outOfRange(std::string_view field, double value, Unit, const Range&);

template <class T> constexpr bool isOwnId(const Field<T, Id<T>>& f) { return std::string_view(f.name) == "id"; }
template <class T, class M> constexpr bool isOwnId(const Field<T, M>&) { return false; }

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

/// Looks at the fields of a row, deep down: figures finite and in the range that a build may hold, texts that are words or
/// hashes, and everything there that is referred to.
class FieldCheck {
public:
    explicit FieldCheck(const Build& b) : b_(b) {}
    /// What is wrong first; empty when nothing is.
    template <class T> std::optional<std::string> wrong(const T& row) {
        eachField<T>([&](const auto& f) {
            if (!wrong_ && !isOwnId(f) && !f.is_loose) value(f, row.*(f.member));
        });
        return wrong_;
    }

private:
    template <class F, class V> void value(const F& f, const V& v) {
        if (wrong_) return;
        if constexpr (std::is_same_v<V, double>) {
            figure(f.name, v, f.unit, f.range);
        } else if constexpr (std::is_same_v<V, std::string>) {
            text(f.name, v, f.text);
        } else if constexpr (IsId<V>::value) {
            reference(f, v);
        } else if constexpr (std::is_same_v<V, Dimension>) {
            value(f, v.value);
        } else if constexpr (IsOptional<V>::value) {
            if (v) value(f, *v);
        } else if constexpr (IsList<V>::value) {
            for (const auto& item : v) value(f, item);
        } else if constexpr (Structured<V>) {
            wrong(v);
        }
    }
    template <class F, class U> void reference(const F& f, Id<U> id) {
        if (!id && !f.is_needed) return;
        if (!table<U>(b_).contains(id)) gone(f.name, Schema<U>::table.noun, static_cast<bool>(id));
    }
    void figure(const char* field, double value, Unit, const Range&);
    void text(const char* field, const std::string& value, TextKind);
    void gone(const char* field, const char* noun, bool named);

    const Build& b_;
    std::optional<std::string> wrong_;
};

template <class T> Checked checkFields(const Build& b, const T& row) {
    if (const auto wrong = FieldCheck(b).wrong(row)) return bad(titleOf(b, row), *wrong);
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

/// A reference to one row, looked for in structs: `table` is the place of its type in `Document`.
struct Reference {
    std::size_t table;
    std::uint32_t id;

    /// Whether a struct refers to it where it must stay.
    template <class T> bool isIn(const T& row) const {
        bool used = false;
        eachField<T>([&](const auto& f) {
            if (!used && !isOwnId(f) && !f.is_loose) used = isValue(row.*(f.member));
        });
        return used;
    }
    template <class V> bool isValue(const V& v) const {
        if constexpr (IsId<V>::value) {
            return v.value == id && placeInDocument<typename V::To>() == table;
        } else if constexpr (IsOptional<V>::value) {
            return v && isValue(*v);
        } else if constexpr (IsList<V>::value) {
            for (const auto& item : v)
                if (isValue(item)) return true;
            return false;
        } else if constexpr (Structured<V>) {
            return isIn(v);
        } else {
            return false;
        }
    }
};

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
