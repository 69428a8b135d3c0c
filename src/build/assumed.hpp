#pragma once

#include "build/check.hpp"

namespace gorvet::build {

/// How the figures of a struct that are only assumed are called, in the schema's order: "box height". What is a choice of the
/// plan's and no size of a thing that is there (`chosen` in its schema) is left out: its usual value is as good as any.
template <class T> std::vector<std::string> assumedIn(const T& row) {
    std::vector<std::string> names;
    eachField<T>([&](const auto& f) {
        using V = typename std::remove_cvref_t<decltype(f)>::Value;
        if constexpr (std::is_same_v<V, Dimension> || std::is_same_v<V, std::optional<Dimension>>) {
            const Dimension* d = nullptr;
            if constexpr (std::is_same_v<V, Dimension>)
                d = &(row.*(f.member));
            else if (row.*(f.member))
                d = &*(row.*(f.member));
            if (d && !f.is_chosen && d->provenance == Provenance::Assumed) names.push_back(labelOf(f.name));
        }
    });
    return names;
}

} // namespace gorvet::build
