#include "build/row_store.hpp"

#include <algorithm>
#include <atomic>
#include <iterator>

namespace gorvet::build {

namespace {
template <class List> auto placeIn(List& run, std::uint32_t id) {
    return std::lower_bound(run.begin(), run.end(), id,
                            [](const auto& entry, std::uint32_t sought) { return entry.id < sought; });
}
/// Whoever gave it up last has read it before it is changed here.
void nobodyReads() { std::atomic_thread_fence(std::memory_order_acquire); }
} // namespace

/// The run in which that id stands or would stand between its ends; runs_.size() when it lies beyond the last row.
std::size_t RowStore::runOf(std::uint32_t id) const {
    const auto run = std::lower_bound(runs_.begin(), runs_.end(), id,
                                      [](const auto& r, std::uint32_t sought) { return r->back().id < sought; });
    return static_cast<std::size_t>(run - runs_.begin());
}

RowStore::Place RowStore::find(std::uint32_t id) const {
    const std::size_t run = runOf(id);
    if (run == runs_.size()) return end();
    const auto entry = placeIn(*runs_[run], id);
    return entry->id == id ? Place{run, static_cast<std::size_t>(entry - runs_[run]->begin())} : end();
}

/// The pointers of a run that is this table's alone.
RowStore::Run& RowStore::ownRun(std::size_t run) {
    if (runs_[run].use_count() > 1) runs_[run] = std::make_shared<Run>(*runs_[run]);
    nobodyReads();
    return *runs_[run];
}

void* RowStore::own(std::uint32_t id) {
    const std::size_t run = runOf(id);
    if (run == runs_.size()) return insert(run, id);
    const auto place = placeIn(*runs_[run], id) - runs_[run]->begin();
    if ((*runs_[run])[static_cast<std::size_t>(place)].id != id) return insert(run, id);
    std::shared_ptr<void>& row = ownRun(run)[static_cast<std::size_t>(place)].row;
    if (row.use_count() > 1) row = kind_->copy(row.get());
    nobodyReads();
    return row.get();
}

/// A new row in that run, or behind the last: the rows grow at the end, mostly.
void* RowStore::insert(std::size_t run, std::uint32_t id) {
    if (run == runs_.size() && (runs_.empty() || runs_.back()->size() >= run_rows))
        runs_.push_back(std::make_shared<Run>());
    else if (run == runs_.size())
        --run;
    Run* rows = &ownRun(run);
    if (rows->size() >= run_rows) {
        const auto half = rows->begin() + run_rows / 2;
        auto second = std::make_shared<Run>(std::make_move_iterator(half), std::make_move_iterator(rows->end()));
        rows->erase(half, rows->end());
        const bool behind = id > rows->back().id;
        runs_.insert(runs_.begin() + static_cast<std::ptrdiff_t>(run) + 1, second);
        if (behind) rows = second.get();
    }
    ++size_;
    return rows->insert(placeIn(*rows, id), Entry{id, kind_->make(id)})->row.get();
}

bool RowStore::erase(std::uint32_t id) {
    const Place place = find(id);
    if (place == end()) return false;
    Run& rows = ownRun(place.run);
    rows.erase(rows.begin() + static_cast<std::ptrdiff_t>(place.at));
    if (rows.empty()) runs_.erase(runs_.begin() + static_cast<std::ptrdiff_t>(place.run));
    --size_;
    return true;
}

void RowStore::clear() {
    runs_.clear();
    size_ = 0;
}

bool RowStore::operator==(const RowStore& o) const {
    if (size_ != o.size_) return false;
    if (runs_ == o.runs_) return true; // the same rows, not only equal ones
    for (Place a{}, b{}; a != end(); a = next(a), b = o.next(b))
        if (row(a) != o.row(b) && !kind_->same(row(a), o.row(b))) return false;
    return true;
}

} // namespace gorvet::build
