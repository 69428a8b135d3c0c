#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <vector>

namespace gorvet::build {

/// What the rows of one kind need of their type.
struct RowKind {
    std::shared_ptr<void> (*make)(std::uint32_t id); ///< an empty row
    std::shared_ptr<void> (*copy)(const void* row);
    bool (*same)(const void* a, const void* b);
};

/// What is the same for tables of every kind (`Rows`), compiled once: rows by id, in their order, whose type it does not know.
/// Copies share what neither changes: to copy a table costs a pointer; to change a row a copy of it, of the pointers of its run,
/// and of those of the runs, at the most.
class RowStore {
public:
    /// No run has more rows.
    static constexpr std::size_t run_rows = 64;

    explicit RowStore(const RowKind& kind) : kind_(&kind) {}

    /// Where a row stands: a run and a place in it; behind the last row {runs, 0}.
    struct Place {
        std::size_t run = 0;
        std::size_t at = 0;
        bool operator==(const Place&) const = default;
    };
    Place end() const { return {list_ ? list_->runs.size() : 0, 0}; }
    Place next(Place p) const { return p.at + 1 < run(p.run).size() ? Place{p.run, p.at + 1} : Place{p.run + 1, 0}; }
    Place before(Place p) const { return p.at > 0 ? Place{p.run, p.at - 1} : Place{p.run - 1, run(p.run - 1).size() - 1}; }
    const void* row(Place p) const { return run(p.run)[p.at].row.get(); }

    /// `end()` when there is no such row.
    Place find(std::uint32_t id) const;
    /// The row, to be changed; made when there is none. Good until the table is copied or changed.
    void* own(std::uint32_t id);
    /// Whether there was such a row.
    bool erase(std::uint32_t id);
    void clear() { list_.reset(); }
    std::size_t size() const { return list_ ? list_->size : 0; }
    bool operator==(const RowStore&) const;

private:
    struct Entry {
        std::uint32_t id;
        std::shared_ptr<void> row;
    };
    using Run = std::vector<Entry>; // by id; none is empty
    struct List {
        std::vector<std::shared_ptr<Run>> runs;
        std::size_t size = 0; ///< of all rows
    };

    const Run& run(std::size_t at) const { return *list_->runs[at]; }
    std::size_t runOf(std::uint32_t id) const;
    List& ownList();
    Run& ownRun(std::size_t run);
    void* insert(std::size_t run, std::uint32_t id);

    const RowKind* kind_;
    std::shared_ptr<List> list_; // none: no rows
};

} // namespace gorvet::build
