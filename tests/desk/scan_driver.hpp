#pragma once

#include "desk/driver.hpp"

#include "analysis/scans.hpp"
#include "desk/space/space.hpp"
#include "formats/mesh_file.hpp"

/// What window tests of scans share.
namespace gorvet::test {

/// Loads of a longer kind than a click: reading scans, laying them.
template <class F> bool waitLong(F&& condition) { return QTest::qWaitFor(condition, 30000); }

inline void addScan(Driver& d, const std::filesystem::path& file, const char* shows) {
    const auto before = d.window.document().store()->revision();
    desk::ask::presets().answers = {QString::fromStdString(file.string()), "mm", shows};
    d.action("addScan");
    REQUIRE(waitLong([&] { return d.window.document().store()->revision() > before; }));
}

inline const analysis::Scans& scans(Driver& d) { return *d.window.document().results().scans; }

/// A slow node is made, from what the build says now.
inline bool current(Driver& d, std::string_view key = analysis::slow::clearance) {
    const auto& doc = d.window.document();
    return !doc.stale() && analysis::currentSlow(doc.build(), doc.results(), key);
}

/// Nothing is being worked out.
inline bool idle(Driver& d) { return !d.window.slow().waiting() && !d.window.space().worker().running(); }

inline std::filesystem::path written(const std::filesystem::path& folder, const char* name, const shape::Mesh& mesh) {
    const auto path = folder / name;
    REQUIRE(formats::writePly(mesh, path));
    return path;
}

} // namespace gorvet::test
