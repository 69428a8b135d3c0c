#include "build/removal.hpp"

#include "build/check.hpp"
#include "units/text.hpp"

#include <map>
#include <set>

namespace gorvet::build {

namespace {

/// The changes of a removal, gathered on a copy of the build on which each was made: nothing is dropped twice.
class Remover {
public:
    explicit Remover(const Build& b) : b_(b) {}

    Result<void> make(const Change& change) {
        const Seen c = seen(change);
        return c.kind == Seen::Kind::Drop ? drop({c.part, c.id}) : enactOne(change);
    }
    /// Those drops were asked for: they do not go "along".
    void asked(const Change& change) {
        const Seen c = seen(change);
        if (c.kind == Seen::Kind::Drop) asked_.insert({c.part, c.id});
    }

    std::vector<Change> changes;
    std::map<std::size_t, GoesAlong> along; ///< by the table's place
    std::size_t without_instrument = 0;

private:
    Result<void> enactOne(Change change) {
        if (auto done = enact(b_, change); !done) return done.error();
        changes.push_back(std::move(change));
        return {};
    }

    Result<void> drop(const Reference& row) {
        const DocumentPart& part = documentParts()[row.table];
        if (!part.find(b_, row.id)) return {}; // it went with another
        const std::string title = titleOf(b_, row.table, row.id);
        if (auto free = release(row); !free) return free;
        if (!asked_.contains({row.table, row.id})) {
            GoesAlong& list = along[row.table];
            list.noun = part.info->noun;
            list.table = part.info->name;
            list.names.push_back(title);
        }
        return enactOne(part.drop(row.id));
    }

    /// Makes everything let go of a row, or drops it.
    Result<void> release(const Reference& to) {
        for (std::size_t place = 0; place < documentParts().size(); ++place) {
            if (!canReferTo(place, to.table)) continue;
            const DocumentPart& part = documentParts()[place];
            const Slots members = part.members();
            std::vector<std::uint32_t> users;
            part.each(b_, [&](std::uint32_t id, const void* row) {
                if (to.isIn(members, row)) users.push_back(id);
                return true;
            });
            for (const std::uint32_t user : users) {
                auto done = part.is_row ? releaseRow({place, user}, to) : releasePart(place);
                if (!done) return done;
            }
        }
        return {};
    }

    Result<void> releaseRow(const Reference& user, const Reference& to) {
        const DocumentPart& part = documentParts()[user.table];
        const void* found = part.find(b_, user.id); // one that was released before may have taken it along
        if (!found || !to.isIn(part.members(), found)) return {};
        if (user.table == placeInDocument<Reading>() && to.table == placeInDocument<Instrument>()) {
            Reading row = b_.readings.at({user.id}); // a reading is worth keeping without what is known of its tape
            row.instrument = {};
            ++without_instrument;
            return enactOne(Put<Reading>{row});
        }
        return drop(user);
    }

    Result<void> releasePart(std::size_t place) {
        const DocumentPart& part = documentParts()[place];
        if (!part.none) return {}; // `enact` says what is in the way
        along[place] = {part.info->noun, part.info->name, {part.info->name}};
        return enactOne(part.none());
    }

    Build b_;
    std::set<std::pair<std::size_t, std::uint32_t>> asked_;
};

} // namespace

Result<Removal> withAllThatHangs(const Build& b, const Edit& edit) {
    Remover remover(b);
    for (const Change& change : edit.changes) remover.asked(change);
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
