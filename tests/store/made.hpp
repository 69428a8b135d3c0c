#pragma once

#include "store/store.hpp"

#include <stdexcept>

/// What the tests of the store share.
namespace gorvet::test {

inline const store::Author author{"M.", ""};

/// Marks one more point.
inline build::Edit addPoint(const build::Build& b, std::string note = {}) {
    build::Point p;
    p.id = build::PointId{b.next_id};
    p.name = "P" + std::to_string(b.next_id);
    p.note = std::move(note);
    return {"mark point " + p.name, {build::Put<build::Point>{p}}};
}

/// A file of so many points, one a line, in `folder`.
inline std::filesystem::path made(const std::filesystem::path& folder, int points) {
    const auto path = folder / "good.gorvet";
    auto store = store::Store::create(path);
    if (!store) throw std::runtime_error(store.error().text());
    for (int i = 0; i < points; ++i)
        if (!(*store)->keep(addPoint((*store)->build()), author)) throw std::runtime_error("not kept");
    return path;
}

} // namespace gorvet::test
