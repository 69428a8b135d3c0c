#include "build/change.hpp"

namespace gorvet::build {

namespace details {

template <class A> void destroyKept(const void* value) { delete static_cast<const A*>(value); }

template <class A> [[gnu::noinline]] std::shared_ptr<const void> kept(A&& change) {
    return {static_cast<const void*>(new A(std::move(change))), &destroyKept<A>};
}

using Keeper = std::shared_ptr<const void> (*)(void*);
template <class A> std::shared_ptr<const void> keepAs(void* change) { return kept(std::move(*static_cast<A*>(change))); }
template <class... A> constexpr std::array<Keeper, sizeof...(A)> keepers(Types<A...>) { return {&keepAs<A>...}; }

/// That there is one of each kind makes the compiler write each here.
extern const std::array<Keeper, keepers(KindsOfChange{}).size()> keeper_of_each;
const std::array<Keeper, keepers(KindsOfChange{}).size()> keeper_of_each = keepers(KindsOfChange{});

} // namespace details

namespace {
struct SameChange {
    const Change& other;
    template <class A> bool operator()(const A& change) const { return change == *other.as<A>(); }
};
} // namespace

Change::Change() : Change(Set<Settings>{}) {}

bool Change::operator==(const Change& o) const {
    if (value_ == o.value_) return true; // the same, not only an equal one
    return place_ == o.place_ && value_ && o.value_ && visit(SameChange{o}, *this);
}

} // namespace gorvet::build
