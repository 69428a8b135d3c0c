#pragma once

#include "build/build.hpp"

#include <array>
#include <cstddef>
#include <memory>
#include <utility>

/// One change of the document, as a value.
namespace gorvet::build {

/// Adds or replaces the T with `value.id`.
template <class T> struct Put {
    T value;
    bool operator==(const Put&) const = default;
};
/// Removes it.
template <class T> struct Drop {
    Id<T> id;
    bool operator==(const Drop&) const = default;
};
/// Sets one of the build's single parts.
template <class T> struct Set {
    T value;
    bool operator==(const Set&) const = default;
};

namespace details {
template <class T> struct ChangesTo { using List = Types<Set<Held<T>>>; };
template <class T>
requires is_row<T>
struct ChangesTo<T> {
    using List = Types<Put<T>, Drop<T>>;
};
template <class... Lists> struct Joined;
template <class... A> struct Joined<Types<A...>> { using List = Types<A...>; };
template <class... A, class... B, class... More>
struct Joined<Types<A...>, Types<B...>, More...> : Joined<Types<A..., B...>, More...> {};
template <class Document> struct ChangesOf;
template <class... T> struct ChangesOf<Types<T...>> : Joined<typename ChangesTo<T>::List...> {};

template <class A> struct IsKindOfChange : std::false_type {};
template <class T> struct IsKindOfChange<Put<T>> : std::true_type {};
template <class T> struct IsKindOfChange<Drop<T>> : std::true_type {};
template <class T> struct IsKindOfChange<Set<T>> : std::true_type {};

/// The change in a place of its own. Stands in change.cpp for every kind: who only makes or hands on changes does not compile
/// what copies and destroys all that a build holds.
template <class A> std::shared_ptr<const void> kept(A&& change);
} // namespace details

/// `Put` and `Drop` of every table, `Set` of every single part, in the order of `Document`.
using KindsOfChange = details::ChangesOf<Document>::List;

/// One of `KindsOfChange`, never altered: copies share it. (A `std::variant` of two hundred would do, but takes the compiler two
/// minutes for its copying alone.)
class Change {
public:
    /// The settings as a new build has them.
    Change();
    template <class A>
    requires details::IsKindOfChange<A>::value Change(A change)
        : place_(placeOf<A>()), value_(details::kept(std::move(change))) {}
    bool operator==(const Change&) const;

    /// What it is when it is an A; else, and where it was moved from, nullptr.
    template <class A> const A* as() const {
        return value_ && place_ == placeOf<A>() ? static_cast<const A*>(value_.get()) : nullptr;
    }

    /// The place of A in `KindsOfChange`.
    template <class A> static constexpr std::size_t placeOf() {
        return []<class... U>(Types<U...>) {
            std::size_t place = 0;
            (void)((std::is_same_v<A, U> || (++place, false)) || ...);
            return place;
        }(KindsOfChange{});
    }

private:
    template <class F> friend decltype(auto) visit(F&& f, const Change& change);

    std::size_t place_ = 0;
    std::shared_ptr<const void> value_; ///< the A at that place
};

/// Calls f with what the change is. f returns the same type for all. A change that was moved from must not be visited.
template <class F> decltype(auto) visit(F&& f, const Change& change) {
    return [&]<class First, class... Rest>(Types<First, Rest...>) -> decltype(auto) {
        using Returned = decltype(f(std::declval<const First&>()));
        using Call = Returned (*)(F&, const void*);
        static constexpr std::array<Call, 1 + sizeof...(Rest)> calls{
            [](F& g, const void* value) -> Returned { return g(*static_cast<const First*>(value)); },
            [](F& g, const void* value) -> Returned { return g(*static_cast<const Rest*>(value)); }...};
        return calls[change.place_](f, change.value_.get());
    }(KindsOfChange{});
}

} // namespace gorvet::build
