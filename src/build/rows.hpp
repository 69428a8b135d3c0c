#pragma once

#include "build/ids.hpp"
#include "build/row_store.hpp"

#include <cstddef>
#include <initializer_list>
#include <iterator>
#include <stdexcept>
#include <utility>
#include <vector>

namespace gorvet::build {

/// A table of the document: rows by id, in their order. Copies share what neither changes. Iterators see what stood there when
/// they were made and are good until the table changes.
template <class T> class Rows {
public:
    using key_type = Id<T>;
    using mapped_type = T;
    using value_type = std::pair<const Id<T>, T>;

    class const_iterator {
    public:
        using iterator_category = std::bidirectional_iterator_tag;
        using value_type = Rows::value_type;
        using difference_type = std::ptrdiff_t;
        using pointer = const value_type*;
        using reference = const value_type&;
        const_iterator() = default;
        reference operator*() const { return *static_cast<pointer>(store_->row(place_)); }
        pointer operator->() const { return &**this; }
        const_iterator& operator++() {
            place_ = store_->next(place_);
            return *this;
        }
        const_iterator operator++(int) {
            const_iterator before = *this;
            ++*this;
            return before;
        }
        const_iterator& operator--() {
            place_ = store_->before(place_);
            return *this;
        }
        const_iterator operator--(int) {
            const_iterator before = *this;
            --*this;
            return before;
        }
        bool operator==(const const_iterator& o) const { return place_ == o.place_; }

    private:
        friend Rows;
        const_iterator(const RowStore* store, RowStore::Place place) : store_(store), place_(place) {}
        const RowStore* store_ = nullptr;
        RowStore::Place place_{};
    };
    using iterator = const_iterator;

    Rows() : store_(kind) {}
    Rows(std::initializer_list<value_type> rows) : store_(kind) {
        for (const value_type& row : rows) emplace(row.first, row.second);
    }

    const_iterator begin() const { return {&store_, {}}; }
    const_iterator end() const { return {&store_, store_.end()}; }
    auto rbegin() const { return std::make_reverse_iterator(end()); }
    auto rend() const { return std::make_reverse_iterator(begin()); }
    std::size_t size() const { return store_.size(); }
    bool empty() const { return size() == 0; }

    const_iterator find(Id<T> id) const { return {&store_, store_.find(id.value)}; }
    bool contains(Id<T> id) const { return find(id) != end(); }
    std::size_t count(Id<T> id) const { return contains(id) ? 1 : 0; }
    /// Throws std::out_of_range where there is no such row.
    const T& at(Id<T> id) const {
        const auto row = find(id);
        if (row == end()) throw std::out_of_range("no such row");
        return row->second;
    }

    /// The row, to be changed; made when there is none. The reference is good until the table is copied or changed.
    T& operator[](Id<T> id) { return static_cast<value_type*>(store_.own(id.value))->second; }
    /// Adds a row; false where one is there: it stays as it is.
    bool emplace(Id<T> id, T value) {
        if (contains(id)) return false;
        (*this)[id] = std::move(value);
        return true;
    }
    /// 1 when there was such a row, else 0.
    std::size_t erase(Id<T> id) { return store_.erase(id.value) ? 1 : 0; }
    void erase(const_iterator row) { erase(row->first); }
    void clear() { store_.clear(); }

    bool operator==(const Rows&) const = default;

private:
    static void destroy(void* row) { delete static_cast<value_type*>(row); }
    static std::shared_ptr<void> held(value_type* row) { return {static_cast<void*>(row), &destroy}; }
    static std::shared_ptr<void> make(std::uint32_t id) { return held(new value_type(Id<T>{id}, T{})); }
    static std::shared_ptr<void> copy(const void* row) { return held(new value_type(*static_cast<const value_type*>(row))); }
    static bool same(const void* a, const void* b) {
        return static_cast<const value_type*>(a)->second == static_cast<const value_type*>(b)->second;
    }
    static constexpr RowKind kind{&make, &copy, &same};

    RowStore store_;
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
