// No member of the document is without a field in its schema: said to the compiler once for all.
#include "build/build.hpp"

namespace gorvet::build {

namespace {

template <class M> constexpr bool wholeBelow();

/// T, and every struct that its members are made of.
template <class T> constexpr bool wholeWithin() {
    static_assert(whole<T>(), "a member of this struct has no field in its schema");
    bool all = true;
    eachField<T>([&](const auto& f) { all = all && wholeBelow<typename std::decay_t<decltype(f)>::Value>(); });
    return all;
}
template <class M> constexpr bool wholeBelow() {
    if constexpr (IsOptional<M>::value || IsList<M>::value)
        return wholeBelow<typename M::value_type>();
    else if constexpr (Structured<M>)
        return wholeWithin<M>();
    else
        return true;
}
template <class... T> constexpr bool wholeAll(Types<T...>) { return (wholeWithin<T>() && ...); }

} // namespace

static_assert(wholeAll(Document{}));
// nor is one of the build without a name in the list
static_assert(counting::members<BuildMembers>() ==
              std::tuple_size_v<decltype([]<class... T>(Types<T...>) { return std::tuple<T*...>(); }(Document{}))> + 1);

} // namespace gorvet::build
