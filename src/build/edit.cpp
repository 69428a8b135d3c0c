#include "build/edit.hpp"

#include "build/check.hpp"
#include "build/gate.hpp"

#include <algorithm>

namespace gorvet::build {

namespace {

/// The single part of a build that is held as a T: the struct itself, or an optional of it.
template <class T> struct Unwrapped { using Type = T; };
template <class T> struct Unwrapped<std::optional<T>> { using Type = T; };
template <class T> T& partOf(Build& b) { return Schema<typename Unwrapped<T>::Type>::in(b); }

/// What must hold before a row is put.
struct Looker {
    const Build& b;
    template <class T> Checked operator()(const Set<T>& change) const { return check(b, change.value); }
    template <class T> Checked operator()(const Put<T>& change) const {
        const T& value = change.value;
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
    template <class T> Checked operator()(const Drop<T>& change) const {
        if (!table<T>(b).contains(change.id)) return missing();
        return mayGo(b, change.id);
    }
    static Checked missing() { return Error{Error::Code::NotFound, "id", "What should be removed does not exist.", "", -1}; }
};

/// Makes a change that `Looker` let pass; returns its inverse.
struct Applier {
    Build& b;
    template <class T> Change operator()(const Set<T>& change) const {
        T& part = partOf<T>(b);
        Set<T> inverse{std::move(part)};
        part = change.value;
        return inverse;
    }
    template <class T> Change operator()(const Put<T>& change) const {
        auto& rows = table<T>(b);
        const Id<T> id = change.value.id;
        b.next_id = std::max(b.next_id, id.value + 1);
        const auto old = rows.find(id);
        Change inverse = old == rows.end() ? Change(Drop<T>{id}) : Change(Put<T>{old->second});
        rows[id] = change.value;
        return inverse;
    }
    template <class T> Change operator()(const Drop<T>& change) const {
        auto& rows = table<T>(b);
        Change inverse = Put<T>{rows.at(change.id)};
        rows.erase(change.id);
        return inverse;
    }
};

} // namespace

Result<void> wouldEnact(const Build& b, const Change& change) { return visit(Looker{b}, change); }

Result<Change> enact(Build& b, const Change& change) {
    if (auto ok = wouldEnact(b, change); !ok) return ok.error();
    return visit(Applier{b}, change);
}

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
