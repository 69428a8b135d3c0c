#include "build/removal.hpp"

#include "build/check.hpp"
#include "units/text.hpp"

#include <map>

namespace gorvet::build {

namespace {

/// The changes of a removal, gathered on a copy of the build on which each was made: nothing is dropped twice.
class Remover {
public:
    explicit Remover(const Build& b) : b_(b) {}

    Result<void> make(const Change& change) {
        Result<void> done;
        visit([&](const auto& c) { done = one(c); }, change);
        return done;
    }
    /// Those drops were asked for: they do not go "along".
    template <class T> void asked(Id<T> id) { asked_.insert({placeInDocument<T>(), id.value}); }

    std::vector<Change> changes;
    std::map<std::size_t, GoesAlong> along; ///< by the table's place
    std::size_t without_instrument = 0;

private:
    template <class C> Result<void> one(const C& c) { return enactOne(c); }
    template <class T> Result<void> one(const Drop<T>& d) { return drop(d.id); }

    Result<void> enactOne(Change change) {
        if (auto done = enact(b_, change); !done) return done.error();
        changes.push_back(std::move(change));
        return {};
    }

    template <class T> Result<void> drop(Id<T> id) {
        const auto row = table<T>(b_).find(id);
        if (row == table<T>(b_).end()) return {}; // it went with another
        const std::string title = titleOf(b_, row->second);
        if (auto free = release({placeInDocument<T>(), id.value}); !free) return free;
        if (!asked_.contains({placeInDocument<T>(), id.value})) {
            GoesAlong& list = along[placeInDocument<T>()];
            list.noun = Schema<T>::table.noun;
            list.table = Schema<T>::table.name;
            list.names.push_back(title);
        }
        return enactOne(Drop<T>{id});
    }

    /// Makes everything let go of a row, or drops it.
    Result<void> release(const Reference& to) {
        Result<void> done;
        eachOfDocument([&]<class T>() {
            if (!done) return;
            if constexpr (is_row<T>) {
                std::vector<Id<T>> users;
                for (const auto& [key, row] : table<T>(b_))
                    if (to.isIn(row)) users.push_back(key);
                for (const Id<T> user : users)
                    if (done && table<T>(b_).contains(user)) done = releaseRow(user, to);
            } else {
                done = releasePart<T>(to);
            }
        });
        return done;
    }

    template <class T> Result<void> releaseRow(Id<T> user, const Reference& to) {
        T row = table<T>(b_).at(user);
        if (!to.isIn(row)) return {};
        if constexpr (std::is_same_v<T, Reading>) // a reading is worth keeping without what is known of its tape
            if (to.table == placeInDocument<Instrument>()) {
                row.instrument = {};
                ++without_instrument;
                return enactOne(Put<T>{row});
            }
        return drop(user);
    }

    template <class T> Result<void> releasePart(const Reference& to) {
        const Held<T>& held = Schema<T>::in(b_);
        if constexpr (IsOptional<Held<T>>::value) {
            if (!held || !to.isIn(*held)) return {};
            along[placeInDocument<T>()] = {Schema<T>::table.noun, Schema<T>::table.name, {Schema<T>::table.name}};
            return enactOne(Set<Held<T>>{});
        } else {
            return {}; // `enact` says what is in the way
        }
    }

    Build b_;
    std::set<std::pair<std::size_t, std::uint32_t>> asked_;
};

} // namespace

Result<Removal> withAllThatHangs(const Build& b, const Edit& edit) {
    Remover remover(b);
    for (const Change& change : edit.changes)
        visit(
            [&](const auto& c) {
                if constexpr (requires { c.id; }) remover.asked(c.id);
            },
            change);
    for (const Change& change : edit.changes)
        if (auto done = remover.make(change); !done) return done.error();
    Removal removal;
    removal.edit = {edit.sentence, std::move(remover.changes)};
    removal.without_instrument = remover.without_instrument;
    for (auto& [place, list] : remover.along) removal.along.push_back(std::move(list));
    return removal;
}

std::string inWords(const Removal& removal, std::size_t most_names) {
    std::string words;
    const auto& along = removal.along;
    for (std::size_t i = 0; i < along.size(); ++i) {
        const GoesAlong& list = along[i];
        words += i == 0 ? "With it goes what hangs on it: " : i + 1 == along.size() ? " and " : ", ";
        words += units::counted(list.names.size(), list.noun);
        std::string names;
        for (std::size_t k = 0; k < list.names.size() && k < most_names; ++k) names += (k ? ", " : "") + list.names[k];
        if (list.names.size() > most_names) names += fmt::format(" and {} more", list.names.size() - most_names);
        if (list.names.front() != list.table) words += " (" + names + ")"; // a name that says more than its table
    }
    if (removal.without_instrument)
        words += fmt::format("{}{} then {} as read with an instrument of which nothing is known", words.empty() ? "" : "; ",
                             units::counted(removal.without_instrument, "a reading"),
                             removal.without_instrument == 1 ? "counts" : "count");
    return words;
}

} // namespace gorvet::build
