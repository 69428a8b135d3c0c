#pragma once

#include "build/ids.hpp"

#include <atomic>
#include <cstddef>
#include <initializer_list>
#include <iterator>
#include <map>
#include <memory>
#include <stdexcept>
#include <utility>
#include <vector>

namespace gorvet::build {

/// A table of the document: rows by id, in their order. Copies share what neither changes: to copy a table costs a pointer for
/// each run of rows, to change a row a copy of its run at the most. Iterators see what stood there when they were made and are
/// good until the table changes.
template <class T> class Rows {
public:
    using key_type = Id<T>;
    using mapped_type = T;
    using value_type = std::pair<const Id<T>, T>;
    /// No run has more rows.
    static constexpr std::size_t run_rows = 64;

private:
    using Run = std::map<Id<T>, T>;
    using Runs = std::vector<std::shared_ptr<Run>>; // none is empty

public:
    class const_iterator {
    public:
        using iterator_category = std::bidirectional_iterator_tag;
        using value_type = Rows::value_type;
        using difference_type = std::ptrdiff_t;
        using pointer = const value_type*;
        using reference = const value_type&;
        const_iterator() = default;
        reference operator*() const { return *row_; }
        pointer operator->() const { return &*row_; }
        const_iterator& operator++() {
            if (++row_ == (*runs_)[run_]->end() && run_ + 1 < runs_->size()) row_ = (*runs_)[++run_]->begin();
            return *this;
        }
        const_iterator operator++(int) {
            const_iterator before = *this;
            ++*this;
            return before;
        }
        const_iterator& operator--() {
            if (row_ == (*runs_)[run_]->begin()) row_ = (*runs_)[--run_]->end();
            --row_;
            return *this;
        }
        const_iterator operator--(int) {
            const_iterator before = *this;
            --*this;
            return before;
        }
        bool operator==(const const_iterator& o) const { return run_ == o.run_ && row_ == o.row_; }

    private:
        friend Rows;
        const_iterator(const Runs* runs, std::size_t run, typename Run::const_iterator row) : runs_(runs), run_(run), row_(row) {}
        const Runs* runs_ = nullptr;
        std::size_t run_ = 0;
        typename Run::const_iterator row_{};
    };
    using iterator = const_iterator;

    Rows() = default;
    Rows(std::initializer_list<value_type> rows) {
        for (const value_type& row : rows) emplace(row.first, row.second);
    }

    const_iterator begin() const { return runs_.empty() ? const_iterator() : const_iterator(&runs_, 0, runs_[0]->begin()); }
    const_iterator end() const {
        return runs_.empty() ? const_iterator() : const_iterator(&runs_, runs_.size() - 1, runs_.back()->end());
    }
    auto rbegin() const { return std::make_reverse_iterator(end()); }
    auto rend() const { return std::make_reverse_iterator(begin()); }
    std::size_t size() const { return size_; }
    bool empty() const { return size_ == 0; }

    const_iterator find(Id<T> id) const {
        const std::size_t run = runOf(id);
        if (run == runs_.size()) return end();
        const auto row = std::as_const(*runs_[run]).find(id);
        return row == runs_[run]->end() ? end() : const_iterator(&runs_, run, row);
    }
    bool contains(Id<T> id) const { return find(id) != end(); }
    std::size_t count(Id<T> id) const { return contains(id) ? 1 : 0; }
    /// Throws std::out_of_range where there is no such row.
    const T& at(Id<T> id) const {
        const auto row = find(id);
        if (row == end()) throw std::out_of_range("no such row");
        return row->second;
    }

    /// The row, to be changed; made when there is none. The reference is good until the table is copied or changed.
    T& operator[](Id<T> id) {
        Run& run = ownRunFor(id);
        const auto [row, fresh] = run.try_emplace(id);
        if (fresh) ++size_;
        return row->second;
    }
    /// Adds a row; false where one is there: it stays as it is.
    bool emplace(Id<T> id, T value) {
        if (contains(id)) return false;
        (*this)[id] = std::move(value);
        return true;
    }
    /// 1 when there was such a row, else 0.
    std::size_t erase(Id<T> id) {
        if (!contains(id)) return 0;
        const std::size_t run = runOf(id);
        own(run).erase(id);
        if (runs_[run]->empty()) runs_.erase(runs_.begin() + static_cast<std::ptrdiff_t>(run));
        --size_;
        return 1;
    }
    void erase(const_iterator row) { erase(row->first); }
    void clear() {
        runs_.clear();
        size_ = 0;
    }

    bool operator==(const Rows& o) const {
        if (size_ != o.size_) return false;
        if (runs_ == o.runs_) return true; // the same rows, not only equal ones
        const_iterator other = o.begin();
        for (const_iterator row = begin(); row != end(); ++row, ++other)
            if (!(*row == *other)) return false;
        return true;
    }

private:
    /// The run in which that id stands or would stand between its ends; runs_.size() when it lies beyond the last row.
    std::size_t runOf(Id<T> id) const {
        std::size_t low = 0;
        std::size_t high = runs_.size();
        while (low < high) {
            const std::size_t middle = (low + high) / 2;
            if (runs_[middle]->rbegin()->first < id)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }
    Run& own(std::size_t run) {
        if (runs_[run].use_count() > 1) runs_[run] = std::make_shared<Run>(*runs_[run]);
        std::atomic_thread_fence(std::memory_order_acquire); // who gave it up last has read it before
        return *runs_[run];
    }
    /// A run of this table alone with room for the id: the rows grow at the end, mostly.
    Run& ownRunFor(Id<T> id) {
        std::size_t run = runOf(id);
        if (run == runs_.size() && (runs_.empty() || runs_.back()->size() >= run_rows))
            runs_.push_back(std::make_shared<Run>());
        else if (run == runs_.size())
            --run;
        Run& rows = own(run);
        if (rows.size() < run_rows || rows.contains(id)) return rows;
        auto second = std::make_shared<Run>();
        const auto half = std::next(rows.begin(), run_rows / 2);
        while (std::next(half) != rows.end()) second->insert(second->begin(), rows.extract(std::prev(rows.end())));
        second->insert(second->begin(), rows.extract(half));
        const bool behind = !(id < second->begin()->first);
        runs_.insert(runs_.begin() + static_cast<std::ptrdiff_t>(run) + 1, std::move(second));
        return *runs_[behind ? run + 1 : run];
    }

    Runs runs_;
    std::size_t size_ = 0;
};

/// Removes the rows that `gone` says, as std::erase_if.
template <class T, class Gone> std::size_t erase_if(Rows<T>& rows, const Gone& gone) {
    std::vector<Id<T>> list;
    for (const auto& row : rows)
        if (gone(row)) list.push_back(row.first);
    for (const Id<T> id : list) rows.erase(id);
    return list.size();
}

} // namespace gorvet::build
