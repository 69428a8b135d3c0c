#include "build/edit.hpp"

#include "build/check.hpp"
#include "build/gate.hpp"

#include <algorithm>

namespace gorvet::build {

Change::Change() = default;
Change::Change(const Change&) = default;
Change::Change(Change&&) noexcept = default;
Change& Change::operator=(const Change&) = default;
Change& Change::operator=(Change&&) noexcept = default;
Change::~Change() = default;
bool Change::operator==(const Change& o) const { return static_cast<const Variant&>(*this) == static_cast<const Variant&>(o); }

namespace {

/// The single part of a build that is held as a T: the struct itself, or an optional of it.
template <class T> struct Unwrapped { using Type = T; };
template <class T> struct Unwrapped<std::optional<T>> { using Type = T; };
template <class T> T& partOf(Build& b) { return Schema<typename Unwrapped<T>::Type>::in(b); }

/// What must hold before a row is put. Out of line: what looks and what applies calls the same.
template <class T> [[gnu::noinline]] Checked mayPut(const Build& b, const T& value) {
    if (!value.id || value.id.value > most_id) return bad("id", "The change has no id that a row can have.");
    if (auto ok = check(b, value); !ok) return ok;
    const auto& rows = table<T>(b);
    const auto old = rows.find(value.id);
    if (old == rows.end() && rows.size() >= most_rows)
        return bad("build", fmt::format("A build holds {} rows of a kind at most.", most_rows), "Begin another build.");
    if constexpr (requires { Schema<T>::subject_stays; })
        if (old != rows.end() && old->second.subject != value.subject)
            return bad(value.name, fmt::format("{} stays with its subject.", value.name), "Make a new one of the other.");
    return {};
}
template <class T> [[gnu::noinline]] Checked mayDrop(const Build& b, Id<T> id) {
    if (!table<T>(b).contains(id)) return Error{Error::Code::NotFound, "id", "What should be removed does not exist.", "", -1};
    return mayGo(b, id);
}

template <class T> [[gnu::noinline]] Checked maySet(const Build& b, const T& value) { return check(b, value); }

struct Looker {
    const Build& b;
    template <class T> Checked operator()(const Set<T>& change) { return maySet(b, change.value); }
    template <class T> Checked operator()(const Put<T>& change) { return mayPut(b, change.value); }
    template <class T> Checked operator()(const Drop<T>& change) { return mayDrop(b, change.id); }
};

struct Applier {
    Build& b;

    template <class T> Result<Change> operator()(const Set<T>& change) {
        if (auto ok = maySet(b, change.value); !ok) return ok.error();
        T& part = partOf<T>(b);
        Set<T> inverse{std::move(part)};
        part = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Put<T>& change) {
        if (auto ok = mayPut(b, change.value); !ok) return ok.error();
        auto& rows = table<T>(b);
        const auto old = rows.find(change.value.id);
        b.next_id = std::max(b.next_id, change.value.id.value + 1);
        if (old == rows.end()) {
            rows.emplace(change.value.id, change.value);
            return Change{Drop<T>{change.value.id}};
        }
        Put<T> inverse{old->second};
        rows[change.value.id] = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Drop<T>& change) {
        if (auto ok = mayDrop(b, change.id); !ok) return ok.error();
        auto& rows = table<T>(b);
        const auto old = rows.find(change.id);
        Put<T> inverse{old->second};
        rows.erase(change.id);
        return Change{std::move(inverse)};
    }
};

} // namespace

Result<Change> enact(Build& b, const Change& change) { return std::visit(Applier{b}, change); }

Result<void> wouldEnact(const Build& b, const Change& change) { return std::visit(Looker{b}, change); }

Result<Edit> enact(Build& b, const Edit& edit) {
    Edit inverse{edit.sentence, {}};
    for (const Change& change : edit.changes) {
        auto undone = enact(b, change);
        if (!undone) {
            for (auto back = inverse.changes.rbegin(); back != inverse.changes.rend(); ++back)
                if (auto again = enact(b, *back); !again) return again.error();
            return undone.error();
        }
        inverse.changes.push_back(std::move(*undone));
    }
    std::reverse(inverse.changes.begin(), inverse.changes.end());
    return inverse;
}

} // namespace gorvet::build
