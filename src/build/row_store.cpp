#include "build/row_store.hpp"

#include <algorithm>
#include <atomic>
#include <iterator>
#include <utility>

namespace gorvet::build {

namespace {
template <class List> auto placeIn(List& run, std::uint32_t id) {
    return std::lower_bound(run.begin(), run.end(), id,
                            [](const auto& entry, std::uint32_t sought) { return entry.id < sought; });
}
/// Whoever gave it up last has read it before it is changed here.
void nobodyReads() { std::atomic_thread_fence(std::memory_order_acquire); }
} // namespace

/// The run in which that id stands or would stand between its ends; behind the last when it lies beyond the last row.
std::size_t RowStore::runOf(std::uint32_t id) const {
    if (!list_) return 0;
    const auto& runs = list_->runs;
    const auto run =
        std::lower_bound(runs.begin(), runs.end(), id, [](const auto& r, std::uint32_t sought) { return r->back().id < sought; });
    return static_cast<std::size_t>(run - runs.begin());
}

RowStore::Place RowStore::find(std::uint32_t id) const {
    const std::size_t at = runOf(id);
    if (at == end().run) return end();
    const auto entry = placeIn(run(at), id);
    return entry->id == id ? Place{at, static_cast<std::size_t>(entry - run(at).begin())} : end();
}

/// The runs, this table's alone.
RowStore::List& RowStore::ownList() {
    if (!list_)
        list_ = std::make_shared<List>();
    else if (list_.use_count() > 1)
        list_ = std::make_shared<List>(*list_);
    nobodyReads();
    return *list_;
}

/// The pointers of a run that is this table's alone.
RowStore::Run& RowStore::ownRun(std::size_t at) {
    std::shared_ptr<Run>& run = ownList().runs[at];
    if (run.use_count() > 1) run = std::make_shared<Run>(*run);
    nobodyReads();
    return *run;
}

void* RowStore::own(std::uint32_t id) {
    const Place place = find(id);
    if (place == end()) return insert(runOf(id), id);
    std::shared_ptr<void>& row = ownRun(place.run)[place.at].row;
    if (row.use_count() > 1) row = kind_->copy(row.get());
    nobodyReads();
    return row.get();
}

/// A new row in that run, or behind the last: the rows grow at the end, mostly.
void* RowStore::insert(std::size_t at, std::uint32_t id) {
    std::shared_ptr<void> made = kind_->make(id); // what throws, throws before anything changed
    List& list = ownList();
    auto& runs = list.runs;
    if (at == runs.size() && (runs.empty() || runs.back()->size() >= run_rows))
        runs.push_back(std::make_shared<Run>());
    else if (at == runs.size())
        --at;
    Run* rows = &ownRun(at);
    if (rows->size() >= run_rows) {
        const auto half = rows->begin() + run_rows / 2;
        auto second = std::make_shared<Run>(std::make_move_iterator(half), std::make_move_iterator(rows->end()));
        rows->erase(half, rows->end());
        const bool behind = id > rows->back().id;
        runs.insert(runs.begin() + static_cast<std::ptrdiff_t>(at) + 1, second);
        if (behind) rows = second.get();
    }
    ++list.size;
    return rows->insert(placeIn(*rows, id), Entry{id, std::move(made)})->row.get();
}

bool RowStore::erase(std::uint32_t id) {
    const Place place = find(id);
    if (place == end()) return false;
    Run& rows = ownRun(place.run);
    rows.erase(rows.begin() + static_cast<std::ptrdiff_t>(place.at));
    List& list = *list_;
    if (rows.empty()) list.runs.erase(list.runs.begin() + static_cast<std::ptrdiff_t>(place.run));
    if (--list.size == 0) list_.reset();
    return true;
}

bool RowStore::operator==(const RowStore& o) const {
    if (list_ == o.list_) return true; // the same rows, not only equal ones
    if (size() != o.size()) return false;
    if (list_->runs == o.list_->runs) return true;
    for (Place a{}, b{}; a != end(); a = next(a), b = o.next(b))
        if (row(a) != o.row(b) && !kind_->same(row(a), o.row(b))) return false;
    return true;
}

} // namespace gorvet::build
